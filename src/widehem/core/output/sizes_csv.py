"""Size charts as CSV, out and in: a few lines of what it is, then a row for each measure."""

from __future__ import annotations

import csv
import io

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.figure_tables import TABLES
from widehem.core.grading.size_chart import MOST_ROWS, MOST_SIZES, SizeChart, SizeChartError, lettered
from widehem.core.output.charts_out import safe
from widehem.core.units import CM_PER_INCH, METRIC, Display, LengthError, Unit, parse_length

HEAD = ("name", "figure", "key", "base", "unit")
SIZES, LETTERS = "size", "letter"
MOST_BYTES = 200_000


def sizes_csv(chart: SizeChart, show: Display = METRIC) -> bytes:
    """A size chart as CSV in UTF-8, lengths in the unit of the maker."""
    out = io.StringIO()
    rows = csv.writer(out)
    said = {"name": chart.name, "figure": chart.figure, "key": chart.key, "base": chart.sizes[chart.base], "unit": show.unit}
    for name in HEAD:
        rows.writerow([name, safe(said[name])])
    rows.writerow([SIZES, *chart.sizes])
    rows.writerow([LETTERS, *chart.letters])
    for code, values in chart.rows.items():
        rows.writerow([code, *(_exact(value, show.unit) for value in values)])
    return ("\ufeff" + out.getvalue()).encode()


def _exact(cm: float, unit: Unit) -> str:
    """A length to be read back: a thousandth of a centimetre is lost at most."""
    return f"{cm:.10g}" if unit == "cm" else f"{round(cm / CM_PER_INCH, 4):.10g}"


def sizes_from_csv(data: bytes, code: str = "own") -> SizeChart:
    """A size chart from CSV. Raises SizeChartError naming the row, the column and what to do."""
    if len(data) > MOST_BYTES:
        raise SizeChartError(f"The file has {len(data)} bytes; a size chart has {MOST_BYTES} at most.")
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise SizeChartError("The file is not in UTF-8: save it as CSV UTF-8.") from None
    try:
        between = ";" if text.split("\n", 1)[0].count(";") > text.split("\n", 1)[0].count(",") else ","
        lines = [
            [cell.strip() for cell in row]
            for row in csv.reader(io.StringIO(text), delimiter=between)
            if any(cell.strip() for cell in row)
        ]
    except csv.Error as error:
        raise SizeChartError(f"The file cannot be read as CSV: {error}.") from None
    said: dict[str, str] = {}
    sizes: tuple[str, ...] = ()
    letters: tuple[str, ...] = ()
    rows: dict[str, tuple[float, ...]] = {}
    for number, cells in enumerate(lines, 1):
        head = cells[0].lower()
        if head in HEAD:
            said[head] = cells[1].removeprefix("'") if len(cells) > 1 else ""
        elif head == SIZES:
            sizes = tuple(cell for cell in cells[1 : MOST_SIZES + 2] if cell)
        elif head == LETTERS:
            letters = tuple(cells[1:])
        else:
            rows[_measure(cells[0], number)] = _values(cells, number, sizes, said.get("unit", "cm"))
        if len(rows) > MOST_ROWS:
            raise SizeChartError(f"The file has more than {MOST_ROWS} rows.")
    return _chart(code, said, sizes, letters, rows)


def _measure(head: str, number: int) -> str:
    by_name = {entry.name.lower(): code for code, entry in CATALOGUE.items()}
    found = head if head in CATALOGUE else by_name.get(head.lower(), "")
    if not found:
        raise SizeChartError(
            f'Row {number} begins with "{head[:40]}", which is no measure: use a code or a name of the catalogue.'
        )
    return found


def _values(cells: list[str], number: int, sizes: tuple[str, ...], unit: str) -> tuple[float, ...]:
    if not sizes:
        raise SizeChartError(f'Row {number} comes before the row of the sizes: begin with a row "{SIZES}".')
    if unit not in ("cm", "in"):
        raise SizeChartError(f'The unit is "{unit[:20]}": cm or in can be read.')
    found = []
    for column, (size, cell) in enumerate(zip(sizes, [*cells[1:], *[""] * len(sizes)], strict=False), 2):
        if not cell:
            raise SizeChartError(
                f"{cells[0]} has nothing for size {size} (row {number}, column {column}): every size needs a figure."
            )
        try:
            found.append(parse_length(cell, "cm" if unit == "cm" else "in", least_cm=0.1).cm)
        except LengthError as error:
            raise SizeChartError(f"{cells[0]}, size {size} (row {number}, column {column}): {error}") from None
    return tuple(found)


def _chart(
    code: str, said: dict[str, str], sizes: tuple[str, ...], letters: tuple[str, ...], rows: dict[str, tuple[float, ...]]
) -> SizeChart:
    if not sizes:
        raise SizeChartError(f'There is no row "{SIZES}" with the names of the sizes.')
    figure = said.get("figure") or "curved"
    if figure not in TABLES:
        raise SizeChartError(f'The figure is "{figure[:20]}": there are {", ".join(TABLES)}.')
    base = said.get("base") or sizes[len(sizes) // 2]
    if base not in sizes:
        raise SizeChartError(f'The base is size "{base[:20]}", which is not among {", ".join(sizes)}.')
    at = sizes.index(base)
    named = (*letters, *[""] * len(sizes))[: len(sizes)] if any(letters) else lettered(len(sizes), at)
    return SizeChart(code, (said.get("name") or "Size chart")[:80], figure, said.get("key") or "bust", sizes, named, at, rows)
