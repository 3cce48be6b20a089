"""Looking over a figure table before it is kept: every formula readable, resting on something, and of a body's size."""

from __future__ import annotations

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.body.estimates import FRAME, estimate
from widehem.core.body.figure_tables import BASES, FigureTable
from widehem.core.body.formula import FormulaError, read_formula
from widehem.core.units import Saying, say

LONGEST_FORMULA = 160
DIFFERENCE_LEAST, DIFFERENCE_MOST = -10.0, 40.0


def table_problems(table: FigureTable) -> dict[str, Saying]:
    """What is wrong with a table, by field: a measure's code, 'name' or 'bust_difference'. Nothing when it can be used."""
    found: dict[str, Saying] = {}
    if not table.name.strip():
        found["name"] = say("The table has no name yet: write one.")
    if not DIFFERENCE_LEAST <= table.bust_difference <= DIFFERENCE_MOST:
        found["bust_difference"] = say(
            "Bust over high bust is {0u}; {1} to {2u} can be used.", table.bust_difference, DIFFERENCE_LEAST, DIFFERENCE_MOST
        )
    for code in BASES:
        entry, value = CATALOGUE[code], table.row.get(code, 0.0)
        if not entry.low <= value <= entry.high:
            found[code] = say(
                f"{entry.name} of its own body is {{0u}}; bodies measure {{1}} to {{2u}}.", value, entry.low, entry.high
            )
    for code, text in table.formulas.items():
        words = _unreadable(code, text)
        if words:
            found[code] = words
    if not found:
        found.update(_sizes(table))
    return found


def _unreadable(code: str, text: str) -> Saying | None:
    if code in BASES or code not in CATALOGUE:
        return say(f"{CATALOGUE[code].name if code in CATALOGUE else code} is not worked out from others.")
    if len(text) > LONGEST_FORMULA:
        return say(f"{CATALOGUE[code].name}: the formula has {len(text)} letters; {LONGEST_FORMULA} are the most.")
    try:
        formula = read_formula(text)
    except FormulaError as error:
        return say(f"{CATALOGUE[code].name}: {_plain(str(error))}")
    unknown = [name for name in formula.names if name != FRAME and name not in CATALOGUE]
    if unknown:
        return say(
            f"{CATALOGUE[code].name}: there is no measure {_plain(unknown[0])}; use the codes of the catalogue, or F for the "
            f"frame."
        )
    return None


def _sizes(table: FigureTable) -> dict[str, Saying]:
    """Formulas that come to nothing on the table's own body, or to what no body has."""
    found = {}
    worked = estimate(Chart(table=table), table)
    for code in table.formulas:
        entry, value = CATALOGUE[code], worked.value(code)
        if value is None:
            found[code] = say(f"{entry.name} comes to nothing: it rests on itself, or divides by nothing.")
        elif not entry.low <= value <= entry.high:
            found[code] = say(
                f"{entry.name} comes to {{0u}} on the table's own body; bodies measure {{1}} to {{2u}}.",
                value,
                entry.low,
                entry.high,
            )
    return found


def _plain(text: str) -> str:
    return text.replace("{", "(").replace("}", ")")
