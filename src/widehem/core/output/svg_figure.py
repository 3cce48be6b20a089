"""The figure with the tape on it: what is being read now, what is read, what is to come."""

from __future__ import annotations

from collections.abc import Iterable

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.body.figure import BACK_AT, BODY, CENTRE, HEAD
from widehem.core.body.measure import Tape

CROWDED = 12  # above so many, what is to come is not drawn: only the list tells it
SAG = 2.4  # how far a loop hangs, so that it reads as going round


def figure_svg(chart: Chart, shown: Iterable[str], active: str) -> str:
    """The inside of the figure's svg; shown: the codes of the list, active: the one in hand."""
    rows = [
        '<text class="hd" x="32.5" y="-4" font-size="6" text-anchor="middle">Front</text>',
        '<text class="hd" x="97.5" y="-4" font-size="6" text-anchor="middle">Back</text>',
    ]
    for dx in (0.0, BACK_AT):
        rows.append(f'<g transform="translate({dx:g} 0)"><path class="body" d="{BODY}"/><path class="body" d="{HEAD}"/></g>')
    codes = list(shown)
    crowded = len(codes) > CROWDED
    for code in codes:
        if code != active and (code in chart or not crowded):
            tape = CATALOGUE[code].tape
            rows.append(f'<path class="{"l-taken" if code in chart else "l-todo"}" d="{tape_d(tape)}"/>')
    if active in CATALOGUE:
        rows.append(_tape(CATALOGUE[active].tape))
    return "".join(rows)


def tape_d(tape: Tape) -> str:
    """The way of the tape over the figure."""
    base = CENTRE + (BACK_AT if tape.view == "back" else 0.0)
    points = [(base + x, y) for x, y in tape.points]
    if tape.loop:
        (x0, y0), (x1, y1) = points
        return f"M{x0:.1f} {y0:.1f}Q{(x0 + x1) / 2:.1f} {(y0 + y1) / 2 + SAG:.1f} {x1:.1f} {y1:.1f}"
    return "M" + "L".join(f"{x:.1f} {y:.1f}" for x, y in points)


def _tape(tape: Tape) -> str:
    """The tape itself, yellow with ticks; behind the body a loop is dotted."""
    d = tape_d(tape)
    rows = []
    base = CENTRE + (BACK_AT if tape.view == "back" else 0.0)
    if tape.loop:
        (x0, y0), (x1, y1) = ((base + x, y) for x, y in tape.points)
        rows.append(f'<path class="l-todo" d="M{x0:.1f} {y0:.1f}Q{(x0 + x1) / 2:.1f} {y0 - SAG:.1f} {x1:.1f} {y1:.1f}"/>')
    rows += [
        f'<path class="tape-edge" d="{d}"/>',
        f'<path class="tape-band" d="{d}" pathLength="100"/>',
        f'<path class="tape-marks" d="{d}"/>',
    ]
    for x, y in (tape.points[0], tape.points[-1]):
        rows.append(f'<circle class="tape-end" cx="{base + x:.1f}" cy="{y:.1f}" r="1.3"/>')
    return "".join(rows)
