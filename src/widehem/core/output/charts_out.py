"""Charts written to CSV and JSON."""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Collection, Sequence
from typing import Any

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import SIDES, Turns
from widehem.core.body.chart_file import FiledChart, exact
from widehem.core.units import Length, Unit

_DANGEROUS = ("=", "+", "-", "@", "\t", "\r")


def safe(cell: str) -> str:
    """A cell that no spreadsheet takes for a formula."""
    return f"'{cell}" if cell.startswith(_DANGEROUS) else cell


def charts_csv(charts: Sequence[FiledChart], unit: Unit, ask: Collection[str] = ()) -> str:
    """One row per wearer, two columns per measure that anybody has, in this unit. ask: measures that have columns to fill
    in."""
    columns = [
        (code, side, turn)
        for code in CATALOGUE
        for side in ("", *SIDES)
        for turn in (1, 2)
        if (not side and code in ask) or any(_length(chart, code, side, turn) for chart in charts)
    ]
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(
        ["wearer", "part", "figure", "read_on", "foundation", "shoes", "read_by", "note", "unit"]
        + ["_".join(part for part in (code, side, "2" if turn == 2 else "") if part) for code, side, turn in columns]
    )
    for chart in charts:
        read_on = chart.read_on.isoformat() if chart.read_on else ""
        row = [chart.wearer, chart.part, chart.figure, read_on, chart.foundation, chart.shoes, chart.read_by, chart.note]
        cells = [safe(cell) for cell in row] + [unit]
        for column in columns:
            length = _length(chart, *column)
            cells.append(exact(length, unit) if length else "")
        writer.writerow(cells)
    return out.getvalue()


def _length(chart: FiledChart, code: str, side: str, turn: int) -> Length | None:
    reading = chart.readings.get(code)
    if reading is None:
        return None
    turns = reading.at(side)
    return turns.first if turn == 1 else turns.second


def charts_json(charts: Sequence[FiledChart]) -> str:
    """Every reading as it was typed, with its unit and both turns."""
    rows = []
    for chart in charts:
        measures: dict[str, dict[str, Any]] = {}
        for code, reading in chart.readings.items():
            measures[code] = {
                **_turns(reading.at("")),
                **{side: _turns(reading.at(side)) for side in SIDES if reading.at(side)},
            }
            if reading.carried:
                measures[code]["carried_from"] = reading.carried.isoformat()
            if reading.hour:
                measures[code]["hour"] = reading.hour
        rows.append(
            {
                "wearer": chart.wearer, "part": chart.part, "figure": chart.figure, "foundation": chart.foundation,
                    "shoes": chart.shoes,
                "read_on": chart.read_on.isoformat() if chart.read_on else "", "read_by": chart.read_by,
                "note": chart.note, "measures": measures,
            }
        )  # fmt: skip
    return json.dumps({"format": "widehem charts", "version": 1, "charts": rows}, indent=2, ensure_ascii=False) + "\n"


def _turns(turns: Turns) -> dict[str, str]:
    both = (("first", turns.first), ("second", turns.second))
    return {turn: f"{exact(length, length.unit)} {length.unit}" for turn, length in both if length}
