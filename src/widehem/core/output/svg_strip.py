"""A strip for one measure of a whole company: one dot where each wearer lies."""

from __future__ import annotations

from collections.abc import Sequence
from html import escape

from widehem.core.values import record

WIDE, HIGH, EDGE, DOT = 96.0, 22.0, 5.0, 2.6


@record(frozen=True)
class Strip:
    """The strip of one measure; low, high: the least and the largest, cm."""

    svg: str
    low: float
    high: float


def strip(values: Sequence[tuple[str, float]], label: str) -> Strip | None:
    """A strip for these values, (name, cm) each; None when there are none. Dots that would cover each other are stacked."""
    if not values:
        return None
    low, high = min(v for _, v in values), max(v for _, v in values)
    span = high - low or 1.0
    rows = [
        f'<svg class="strip" viewBox="0 0 {WIDE:g} {HIGH:g}" role="img" aria-label="{escape(label)}">'
        f'<line class="l-strip" x1="{EDGE:g}" x2="{WIDE - EDGE:g}" y1="{HIGH - 4:g}" y2="{HIGH - 4:g}"/>'
    ]
    taken: dict[int, int] = {}
    for name, value in sorted(values, key=lambda entry: entry[1]):
        x = EDGE + (WIDE - 2 * EDGE) * ((value - low) / span if high > low else 0.5)
        slot = round(x / (2 * DOT))
        level = taken.get(slot, 0)
        taken[slot] = level + 1
        y = HIGH - 4 - min(level, 2) * 2 * DOT
        rows.append(f'<circle class="strip-dot" cx="{x:.1f}" cy="{y:.1f}" r="{DOT}"><title>{escape(name)}</title></circle>')
    rows.append("</svg>")
    return Strip("".join(rows), low, high)
