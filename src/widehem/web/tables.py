"""Figure tables: those that ship to look at and copy, the workroom's own to change."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.body.estimates import estimate
from widehem.core.body.figure_tables import BASES, TABLES, FigureTable
from widehem.core.body.lists import ORDER
from widehem.core.body.table_check import table_problems
from widehem.core.units import LengthError, parse_length, parse_signed
from widehem.store.journal import tell
from widehem.store.models import HouseTable
from widehem.store.tables import all_tables, copy_table, judged_by, keep_table
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.numbers import is_number
from widehem.web.selvedge import Selvedge
from widehem.web.show import display, said
from widehem.web.stood import moved
from widehem.web.writing import writing

pages = Blueprint("tables", __name__)
LONGEST = 60


@pages.get("/tables")
@pages.get("/tables/<code>")
def table(code: str = "curved") -> str:
    """One figure table with its formulas and what they come to on its own body."""
    return _page(code, {}, None)


def _page(code: str, errors: dict[str, str], typed: Mapping[str, str] | None) -> str:
    with current_store().read() as session:
        tables = all_tables(session)
        used = judged_by(session, code)
    if code not in tables:
        abort(404)
    shown = tables[code]
    version = _version(code)
    worked = estimate(Chart(table=shown), shown)
    show = display()
    rows = [
        {
            "measure": CATALOGUE[measure], "formula": (typed or {}).get(measure, shown.formulas.get(measure, "")),
            "comes_to": worked.value(measure), "error": errors.get(measure, ""),
        }
        for measure in ORDER
        if measure not in BASES
    ]  # fmt: skip
    bases = [
        {
            "measure": CATALOGUE[base],
            "value": (typed or {}).get(base, show.length(shown.row[base])),
            "error": errors.get(base, ""),
        }
        for base in BASES
    ]
    own = code not in TABLES
    slots = [
        Slot("Formulas", "count", str(len(shown.formulas)), f"of {len(rows)}", "measures worked out from others"),
        Slot("Judged by it", "count", str(used), "wearers", "in all productions"),
        Slot(
            "Not understood",
            "not" if errors else "true",
            str(len(errors)),
            "fields",
            "mend them, then keep it" if errors else "every formula reads",
        ),
    ]
    return render_template(
        "tables.html", version=version, tables=tables, shown=shown, own=own, shipped=TABLES, rows=rows, bases=bases, errors=errors, used=used,
        name=(typed or {}).get("name", shown.name), difference=(typed or {}).get("bust_difference",
            show.length(shown.bust_difference)),
        young=typed.get("young") == "yes" if typed is not None else shown.young,
        selvedge=Selvedge(), slots=slots, tally="", next=Next("Back to the productions", url_for("desk.index")),
    )  # fmt: skip


@pages.post("/tables/<code>/copy")
def copy(code: str) -> Any:
    """Copy a table into one of the workroom's own."""
    with writing() as session:
        tables = all_tables(session)
        if code not in tables:
            abort(404)
        names = {entry.name for entry in tables.values()}
        number, name = 2, f"{tables[code].name}, ours"[:LONGEST]
        while name in names:
            name, number = f"{tables[code].name[: LONGEST - 10]}, ours {number}", number + 1
        tell(session, f"Copied {tables[code].name}.")
        made = copy_table(session, tables[code], name)
        new = made.code
    return redirect(url_for(".table", code=new), 303)


def _version(code: str) -> int:
    """How often a table of the workroom has been kept; 0 for one that is nobody's."""
    if not code.startswith("house-"):
        return 0
    with current_store().read() as session:
        return _own(session, code).version


@pages.post("/tables/<code>")
def keep(code: str) -> Any:
    """Keep a table of the workroom as it is in the form; nothing is kept while a field cannot be used."""
    form, errors = request.form, {}
    lengths: dict[str, float] = {}
    for name in (*BASES, "bust_difference"):
        text = form.get(name, "").strip()
        try:
            unit = display().unit
            lengths[name] = parse_signed(text, unit) if name == "bust_difference" else parse_length(text, unit).cm
        except LengthError as error:
            errors[name] = str(error)
            lengths[name] = 0.0
    formulas = {measure: form[measure].strip() for measure in ORDER if measure not in BASES and form.get(measure, "").strip()}
    made = FigureTable(
        code, form.get("name", "").strip()[:LONGEST], lengths["bust_difference"], {base: lengths[base] for base in BASES},
            formulas,
        form.get("young") == "yes",
    )  # fmt: skip
    errors = {**{field: said(words) for field, words in table_problems(made).items()}, **errors}
    with writing() as session:
        row = _own(session, code)
        others = {entry.name.lower() for other, entry in all_tables(session).items() if other != code}
        if made.name.lower() in others:
            errors["name"] = f"There is a table called {made.name} already: give this one another name."
        if moved(row.version):
            errors["name"] = (
                f"Somebody kept this table meanwhile, as {row.name}. Yours stands here: keep it again to put it in its place."
            )
        if not errors:
            tell(session, f"Kept the table {made.name}.")
            keep_table(row, made)
    if errors:
        return _page(code, errors, form), 422
    return redirect(url_for(".table", code=code), 303)


@pages.post("/tables/<code>/delete")
def delete(code: str) -> Any:
    """Delete a table of the workroom that nobody is judged by."""
    with writing() as session:
        row = _own(session, code)
        used = judged_by(session, code)
        if not used:
            tell(session, f"Deleted the table {row.name}.")
            session.delete(row)
    if used:
        words = (
            f"{used} {'wearer is' if used == 1 else 'wearers are'} judged by this table: give them another one, then delete it."
        )
        return _page(code, {"used": words}, None), 422
    return redirect(url_for(".table"), 303)


def _own(session: Any, code: str) -> HouseTable:
    """A table of the workroom's own. 404 when it is none."""
    number = code.removeprefix("house-")
    row: HouseTable | None = session.get(HouseTable, int(number)) if is_number(number) and code.startswith("house-") else None
    if row is None:
        abort(404)
    return row
