"""What was worked out is kept under what it was worked out from: two alike are found, anything else is not."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping
from typing import Any

from widehem import __version__
from widehem.core.body.chart import Chart
from widehem.store.making import Work


def key(kind: str, *parts: object) -> str:
    """The name of something that was worked out from these parts by this version."""
    return f"{kind}:{hashlib.sha256(repr((__version__, *parts)).encode()).hexdigest()}"


def body(chart: Chart) -> tuple[object, ...]:
    """All that drawing on a chart can depend on: its figures, its sides, and its table."""
    table = chart.table
    figures = sorted(
        (code, reading.ticks, reading.side("left").ticks, reading.side("right").ticks)
        for code, reading in chart.readings.items()
    )
    return table.code, table.young, table.bust_difference, sorted(table.row.items()), sorted(table.formulas.items()), figures


def garment(work: Work) -> tuple[object, ...]:
    """All that the drawing of a docket can depend on."""
    docket = work.docket
    settings = (docket.all_options, docket.all_ease)
    return (
        docket.method, docket.rules, *map(_sorted, settings), docket.of_design("steps"), docket.alterations, work.armhole, body(work.chart),
        *([docket.of_design("outlines")] if docket.of_design("outlines") else []),
    )  # fmt: skip


def _sorted(settings: Mapping[str, Any]) -> list[tuple[str, Any]]:
    return sorted(settings.items())
