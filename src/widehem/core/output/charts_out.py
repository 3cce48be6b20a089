"""Charts written to CSV and JSON."""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Sequence

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart_file import FiledChart, exact
from widehem.core.units import Unit

_DANGEROUS = ("=", "+", "-", "@", "\t", "\r")


def safe(cell: str) -> str:
    """A cell that no spreadsheet takes for a formula."""
    return f"'{cell}" if cell.startswith(_DANGEROUS) else cell


def charts_csv(charts: Sequence[FiledChart], unit: Unit) -> str:
    """One row per wearer, two columns per measure that anybody has, in this unit."""
    codes = [code for code in CATALOGUE if any(code in chart.readings for chart in charts)]
    seconds = {code for code in codes for chart in charts if code in chart.readings and chart.readings[code].second}
    head = ["wearer", "part", "figure", "read_on", "foundation", "shoes", "read_by", "unit"]
    for code in codes:
        head += [code, f"{code}_2"] if code in seconds else [code]
    out = io.StringIO(newline="")
    writer = csv.writer(out)
    writer.writerow(head)
    for chart in charts:
        row = [
            chart.wearer,
            chart.part,
            chart.figure,
            chart.read_on.isoformat() if chart.read_on else "",
            chart.foundation,
            chart.shoes,
            chart.read_by,
        ]
        cells = [safe(cell) for cell in row] + [unit]
        for code in codes:
            reading = chart.readings.get(code)
            turns = (reading.first, reading.second) if reading else (None, None)
            for length in turns if code in seconds else turns[:1]:
                cells.append(exact(length, unit) if length else "")
        writer.writerow(cells)
    return out.getvalue()


def charts_json(charts: Sequence[FiledChart]) -> str:
    """Every reading as it was typed, with its unit and both turns."""
    rows = []
    for chart in charts:
        measures = {}
        for code, reading in chart.readings.items():
            turns = (("first", reading.first), ("second", reading.second))
            measures[code] = {turn: f"{exact(length, length.unit)} {length.unit}" for turn, length in turns if length}
        rows.append(
            {
                "wearer": chart.wearer, "part": chart.part, "figure": chart.figure, "foundation": chart.foundation, "shoes": chart.shoes,
                "read_on": chart.read_on.isoformat() if chart.read_on else "", "read_by": chart.read_by, "measures": measures,
            }
        )  # fmt: skip
    return json.dumps({"format": "widehem charts", "version": 1, "charts": rows}, indent=2, ensure_ascii=False) + "\n"
