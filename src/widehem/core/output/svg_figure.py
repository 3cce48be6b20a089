"""The figure with the tape on it: what is being read now, what is read, what is to come."""

from __future__ import annotations

from collections.abc import Iterable

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.body.figure import Build, build_of, outline
from widehem.core.body.measure import Tape, View
from widehem.core.values import record

CROWDED = 12  # above so many, what is to come is not drawn: only the list tells it
SAG = 2.4  # how far a loop hangs, so that it reads as going round
TITLES: dict[View, str] = {"front": "Front", "back": "Back", "side": "Side"}
EDGE, ABOVE, TALL = 33.0, 11.0, 182.0  # half a neutral figure, room for its title, the height of the drawing


@record(frozen=True)
class FigureDrawing:
    """A drawing of the figure. box: the view box of the whole; near: that of the place in hand, for a small screen;
    label: the drawing in a sentence."""

    svg: str
    box: str
    near: str
    label: str


def figure_svg(chart: Chart, shown: Iterable[str], active: str) -> FigureDrawing:
    """The wearer in front and from behind, or from the side when the measure in hand lies there.

    shown: the codes of the list, active: the one in hand.
    """
    build = build_of(chart)
    entry = CATALOGUE[active]
    second: View = "side" if entry.tape.view == "side" else "back"
    places: dict[View, float] = {"front": 0.0, second: build.apart}
    rows = []
    for view, x in places.items():
        rows.append(f'<text class="hd" x="{x:g}" y="-4" font-size="6" text-anchor="middle">{TITLES[view]}</text>')
        paths = "".join(f'<path class="body" d="{d}"/>' for d in outline(build, view))
        rows.append(f'<g transform="translate({x:g} 0)">{paths}</g>')
    codes = list(shown)
    crowded = len(codes) > CROWDED
    for code in codes:
        tape = CATALOGUE[code].tape
        if code != active and tape.view in places and (code in chart or not crowded):
            look = "l-taken" if code in chart else "l-todo"
            rows.append(f'<path class="{look}" d="{tape_d(_on(build, tape), places[tape.view])}"/>')
    laid = _on(build, entry.tape)
    rows.append(_tape(laid, places[laid.view]))
    edge = EDGE * build.apart / 65.0
    box = f"{-edge:g} {-ABOVE:g} {build.apart + 2 * edge:g} {TALL:g}"
    label = (
        f"{TITLES['front']} and {second} figure. The tape lies where {entry.name.lower()} is read: {entry.landmarks.lower()}."
    )
    return FigureDrawing("".join(rows), box, _near(laid, places[laid.view]), label)


def _on(build: Build, tape: Tape) -> Tape:
    """The tape as it lies on this build; one that hangs straight still does."""
    (x0, y0), (x1, y1) = tape.points[0], tape.points[-1]
    if len(tape.points) == 2 and x0 == x1:
        side = min(build.point(tape.view, x0, y0)[0], build.point(tape.view, x1, y1)[0], key=abs)
        return Tape(tape.view, tape.loop, tuple((side, build.point(tape.view, 0, y)[1]) for y in (y0, y1)))
    return Tape(tape.view, tape.loop, tuple(build.point(tape.view, x, y) for x, y in tape.points))


NEAR_LEAST, NEAR_ROOM = 46.0, 9.0


def _near(tape: Tape, x: float) -> str:
    """A square view box round the tape, large enough to see which part of the body it is."""
    xs, ys = [x + px for px, _ in tape.points], [py for _, py in tape.points]
    size = max(max(xs) - min(xs), max(ys) - min(ys), NEAR_LEAST - 2 * NEAR_ROOM) + 2 * NEAR_ROOM
    return f"{(min(xs) + max(xs) - size) / 2:.1f} {(min(ys) + max(ys) - size) / 2:.1f} {size:.1f} {size:.1f}"


def tape_d(tape: Tape, x: float) -> str:
    """The way of the tape over a figure that stands at this x."""
    points = [(x + px, y) for px, y in tape.points]
    if tape.loop:
        (x0, y0), (x1, y1) = points
        return f"M{x0:.1f} {y0:.1f}Q{(x0 + x1) / 2:.1f} {(y0 + y1) / 2 + SAG:.1f} {x1:.1f} {y1:.1f}"
    return "M" + "L".join(f"{px:.1f} {y:.1f}" for px, y in points)


def _tape(tape: Tape, x: float) -> str:
    """The tape itself, yellow with ticks; behind the body a loop is dotted."""
    d = tape_d(tape, x)
    rows = []
    if tape.loop:
        (x0, y0), (x1, y1) = ((x + px, y) for px, y in tape.points)
        rows.append(f'<path class="l-todo" d="M{x0:.1f} {y0:.1f}Q{(x0 + x1) / 2:.1f} {y0 - SAG:.1f} {x1:.1f} {y1:.1f}"/>')
    rows += [
        f'<path class="tape-edge" d="{d}"/>',
        f'<path class="tape-band" d="{d}" pathLength="100"/>',
        f'<path class="tape-marks" d="{d}"/>',
    ]
    for px, y in (tape.points[0], tape.points[-1]):
        rows.append(f'<circle class="tape-end" cx="{x + px:.1f}" cy="{y:.1f}" r="1.3"/>')
    return "".join(rows)
