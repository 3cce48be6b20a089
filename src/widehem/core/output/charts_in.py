"""Charts read from CSV and JSON. Nothing is stored here: what was understood is handed on with what was not."""

from __future__ import annotations

import csv
import io
import json
from collections import Counter
from collections.abc import Sequence
from datetime import date
from typing import Any

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import SIDES, Reading, Turns
from widehem.core.body.chart_file import Column, FiledChart, FileProblem, Problem, Understood, column_named, figure_named
from widehem.core.body.figure_tables import FigureTable
from widehem.core.days import HourError, hour_of
from widehem.core.units import Length, LengthError, Unit, as_unit, parse_length
from widehem.core.values import replace

LARGEST, ROWS_MOST, COLUMNS_MOST, NAME_MOST = 1024 * 1024, 2000, 300, 120


def read_charts(data: bytes, name: str = "", unit: Unit = "cm", tables: Sequence[FigureTable] = ()) -> Understood:
    """Read a chart file, JSON or CSV. unit: taken where the file names none; tables: figure tables beside those that ship.

    Raises FileProblem.
    """
    if len(data) > LARGEST:
        raise FileProblem(f"The file has {len(data) // 1024} kB; {LARGEST // 1024} kB is the most: send fewer wearers at once.")
    text, notes = _decoded(data)
    if not text.strip():
        raise FileProblem("The file is empty.")
    if text.lstrip().startswith(("{", "[")):
        return _from_json(text, name, unit, tables)
    return _from_csv(text, unit, notes, tables)


def _decoded(data: bytes) -> tuple[str, tuple[str, ...]]:
    if data.startswith((b"\xff\xfe", b"\xfe\xff")):
        try:
            return data.decode("utf-16"), ()
        except UnicodeDecodeError:
            raise FileProblem("The file is not text that can be read: save it again as CSV in UTF-8.") from None
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        return data.decode("cp1252", errors="replace"), (
            "The file is not in UTF-8; it was read as Western. Look at the names.",
        )
    if "\x00" in text:
        raise FileProblem("The file is not text: save it as CSV or JSON and try again.")
    return text, ()


# ---- CSV ----


def _from_csv(text: str, unit: Unit, notes: tuple[str, ...], tables: Sequence[FigureTable]) -> Understood:
    first = text.lstrip("\r\n").split("\n", 1)[0]
    delimiter = max(",;\t", key=first.count)
    try:
        rows = [
            row for row in csv.reader(io.StringIO(text, newline=""), delimiter=delimiter) if any(cell.strip() for cell in row)
        ]
    except csv.Error as error:
        raise FileProblem(f"The file is not CSV that can be read: {error}.") from None
    if not rows:
        raise FileProblem("The file is empty.")
    head = rows[0]
    if len(rows) - 1 > ROWS_MOST or len(head) > COLUMNS_MOST:
        words = f"{len(rows) - 1} rows and {len(head)} columns; {ROWS_MOST} and {COLUMNS_MOST} are the most"
        raise FileProblem(f"The file has {words}: send fewer at once.")
    columns = [column_named(_bare(cell)) for cell in head]
    if not any(column and column.code == "wearer" for column in columns):
        raise FileProblem('No column is named "wearer" or "name": the first row must name the columns.')
    charts, problems = [], []
    for number, row in enumerate(rows[1:], 2):
        chart, found = _row(number, row, columns, unit, tables)
        problems += found
        if chart is not None:
            charts.append(chart)
    left_out = tuple(cell.strip() for cell, column in zip(head, columns, strict=True) if column is None and cell.strip())
    return Understood(tuple(charts), (*problems, *_twice(charts)), left_out, notes)


def _bare(cell: str) -> str:
    """A cell without the mark that keeps spreadsheets from reading it as a formula."""
    cell = cell.strip()
    return cell[1:] if cell.startswith("'") and cell[1:2] in "=+-@" else cell


def _row(
    number: int, row: list[str], columns: list[Column | None], unit: Unit, tables: Sequence[FigureTable]
) -> tuple[FiledChart | None, list[Problem]]:
    about: dict[str, str] = {}
    cells: list[tuple[Column, str]] = []
    for column, cell in zip(columns, row, strict=False):
        if column is None or not cell.strip():
            continue
        if column.code in CATALOGUE:
            cells.append((column, cell))
        else:
            about[column.code] = _bare(cell)
    problems: list[Problem] = []
    if not about.get("wearer"):
        return None, [Problem(f"row {number}", "There is no name in the wearer column.")]
    if "unit" in about:
        try:
            unit = as_unit(about["unit"])
        except LengthError as error:
            problems.append(Problem(f"row {number}, unit", str(error)))
    read: dict[str, dict[tuple[str, int], Length]] = {}
    for column, cell in cells:
        length = _length(cell, column.unit or unit, f"row {number}, {column.code}", problems)
        if length is not None:
            read.setdefault(column.code, {})[column.side, column.turn] = length
    readings = {code: _reading(code, places) for code, places in read.items()}
    return _chart(about, readings, f"row {number}", problems, tables), problems


def _reading(code: str, places: dict[tuple[str, int], Length]) -> Reading:
    left, right = (Turns(places.get((side, 1)), places.get((side, 2))) for side in SIDES)
    return Reading(code, places.get(("", 1)), places.get(("", 2)), left, right)


def _length(text: Any, unit: Unit, where: str, problems: list[Problem]) -> Length | None:
    if isinstance(text, bool) or not isinstance(text, str | int | float):
        problems.append(Problem(where, f"{text!r} is not a length: write it like 42.5 cm or 16 3/4 in."))
        return None
    try:
        return parse_length(str(text), unit, least_cm=0.5)
    except LengthError as error:
        problems.append(Problem(where, str(error)))
        return None


def _chart(
    about: dict[str, str], readings: dict[str, Reading], where: str, problems: list[Problem], tables: Sequence[FigureTable]
) -> FiledChart:
    figure = "curved"
    if about.get("figure"):
        known = figure_named(about["figure"], tables)
        if known is None:
            problems.append(Problem(f"{where}, figure", f'There is no figure table "{about["figure"]}".'))
        figure = known or figure
    read_on = _day(about.get("read_on", ""), f"{where}, read_on", problems)
    part, foundation, shoes, read_by, note = (
        about.get(key, "")[:NAME_MOST] for key in ("part", "foundation", "shoes", "read_by", "note")
    )
    name = about["wearer"].strip()[:NAME_MOST]
    return FiledChart(name, part, figure, read_on, foundation, shoes, read_by, readings, note)


def _day(text: object, where: str, problems: list[Problem]) -> date | None:
    if not text:
        return None
    try:
        return date.fromisoformat(str(text).strip())
    except ValueError:
        problems.append(Problem(where, f'"{text}" is not a date: write it like 2026-11-03.'))
        return None


def _hour(text: object, where: str, problems: list[Problem]) -> str:
    try:
        return hour_of(str(text or ""))
    except HourError as error:
        problems.append(Problem(where, str(error)))
        return ""


def _twice(charts: list[FiledChart]) -> list[Problem]:
    """The same wearer twice, unless on different days."""
    counts = Counter((chart.wearer.lower(), chart.read_on) for chart in charts)
    double = dict.fromkeys(chart.wearer for chart in charts if counts[chart.wearer.lower(), chart.read_on] > 1)
    words = "The name stands in the file more than once for one day: give each chart one row, with its own date under read_on."
    return [Problem(name, words) for name in double]


# ---- JSON ----


def _from_json(text: str, name: str, unit: Unit, tables: Sequence[FigureTable]) -> Understood:
    try:
        found = json.loads(text)
    except (ValueError, RecursionError):
        raise FileProblem("The file looks like JSON but cannot be read: save it again.") from None
    if isinstance(found, dict) and isinstance(found.get("measures"), dict):
        found = {"charts": [{"wearer": name or "Unnamed", **found}]}  # the chart file of the command line
    if not isinstance(found, dict) or not isinstance(found.get("charts"), list):
        raise FileProblem('The file has no "charts" and no "measures": it is not a chart file.')
    charts: list[FiledChart] = []
    problems: list[Problem] = []
    left_out: dict[str, None] = {}
    if len(found["charts"]) > ROWS_MOST:
        raise FileProblem(f"The file has {len(found['charts'])} charts; {ROWS_MOST} is the most: send fewer at once.")
    for number, row in enumerate(found["charts"], 1):
        where = f"chart {number}"
        if not isinstance(row, dict) or not isinstance(row.get("wearer"), str) or not row["wearer"].strip():
            problems.append(Problem(where, "There is no name under wearer."))
            continue
        charts.append(_json_chart(row, where, unit, problems, left_out, tables))
    return Understood(tuple(charts), (*problems, *_twice(charts)), tuple(left_out))


def _json_chart(
    row: dict[str, Any],
    where: str,
    unit: Unit,
    problems: list[Problem],
    left_out: dict[str, None],
    tables: Sequence[FigureTable],
) -> FiledChart:
    about = {key: value for key, value in row.items() if isinstance(value, str)}
    try:
        unit = as_unit(about["unit"]) if "unit" in about else unit
    except LengthError as error:
        problems.append(Problem(f"{where}, unit", str(error)))
    readings = {}
    measures = row.get("measures")
    for key, value in measures.items() if isinstance(measures, dict) else ():
        column = column_named(str(key))
        if column is None or column.code not in CATALOGUE:
            left_out[str(key)] = None
            continue
        found = value if isinstance(value, dict) else {"first": value}
        places: dict[tuple[str, int], Length] = {}
        for side in ("", *SIDES) if CATALOGUE[column.code].sided else ("",):
            turns = found.get(side) if side else found
            for number, turn in enumerate(("first", "second"), 1):
                if isinstance(turns, dict) and turns.get(turn) is not None:
                    length = _length(turns[turn], unit, f"{where}, {' '.join(w for w in (column.code, side) if w)}", problems)
                    if length is not None:
                        places[side, number] = length
        if places:
            carried = _day(found.get("carried_from", ""), f"{where}, {column.code}", problems)
            readings[column.code] = replace(
                _reading(column.code, places),
                carried=carried,
                hour=_hour(found.get("hour", ""), f"{where}, {column.code}", problems),
            )
    return _chart(about, readings, where, problems, tables)
