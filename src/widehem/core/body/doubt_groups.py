"""Doubts gathered into the few lines a maker looks at: how many figures were looked at, how many are doubtful."""

from __future__ import annotations

from widehem.core.body.chart import Chart
from widehem.core.body.doubts import Doubt
from widehem.core.values import record

GROUPS = {
    "Plausible size": ("range", "proportion"),
    "Sizes that must fit": ("order", "waist over hip", "sums"),
    "Two readings": ("readings",),
    "This chart": ("age", "foundation"),
}


@record(frozen=True)
class GroupState:
    """One line: its title, the doubts in it that are not accepted, and those that are."""

    title: str
    open: tuple[Doubt, ...]
    accepted: tuple[Doubt, ...]


def grouped(found: tuple[Doubt, ...], accepted: set[str]) -> tuple[GroupState, ...]:
    """Doubts by line; accepted: keys of those the maker keeps knowingly."""
    states = []
    for title, rules in GROUPS.items():
        mine = [doubt for doubt in found if doubt.rule in rules]
        states.append(
            GroupState(title, tuple(d for d in mine if d.key not in accepted), tuple(d for d in mine if d.key in accepted))
        )
    return tuple(states)


def widest_spread(chart: Chart) -> tuple[str, float]:
    """The measure whose two readings lie furthest apart, and how far, cm."""
    code, spread = "", 0.0
    for reading in chart.readings.values():
        if reading.spread > spread:
            code, spread = reading.code, reading.spread
    return code, spread
