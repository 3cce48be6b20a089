"""The draft on the board: SVG for the screen, in centimetres, every mark named and carrying its working.

Words, dots and flags stand in groups of class px: inside them a unit is a screen pixel at any zoom, by the style
variable --u (cm to a pixel) that the page keeps up to date.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from html import escape

from widehem.core.drafting.method import Draft
from widehem.core.drafting.sheet import Mark
from widehem.core.geometry.paths import svg_d
from widehem.core.geometry.points import Point
from widehem.core.units import METRIC, Display

LETTER_PX, NOTE_PX, NAME_PX = 7.4, 13, 24
USUAL_PX_PER_CM = 8.6
VIEWS = {"whole": "Whole", "back": "Back", "front": "Front", "waist": "Waist to hip"}


@dataclass(frozen=True)
class Frame:
    """What the board shows, cm: left, top, width, height."""

    left: float
    top: float
    width: float
    height: float

    def __str__(self) -> str:
        return f"{self.left:.2f} {self.top:.2f} {self.width:.2f} {self.height:.2f}"


def frames(draft: Draft) -> dict[str, Frame]:
    """The named views of this draft."""
    boxes = {}
    for piece in draft.block.pieces:
        xs, ys = zip(*piece.outline(0.5), strict=True)
        boxes[piece.name] = (min(xs), min(ys), max(xs), max(ys))
    left, top = min(b[0] for b in boxes.values()), min(b[1] for b in boxes.values())
    right, bottom = max(b[2] for b in boxes.values()), max(b[3] for b in boxes.values())
    hip = max((piece.levels.get("hip", bottom) for piece in draft.block.pieces), default=bottom)
    found = {"whole": Frame(left - 7, top - 3, right - left + 10, bottom - top + 5)}
    for name, (x0, y0, x1, y1) in boxes.items():
        found[name] = Frame(x0 - 5, y0 - 3, x1 - x0 + 8, y1 - y0 + 5)
    found["waist"] = Frame(left - 4, top - 2.5, right - left + 8, hip - top + 4.5)
    return found


def board_svg(draft: Draft, step: int, show: Display = METRIC, lit: Sequence[str] = ()) -> str:
    """The inside of the board's svg after this step. lit: spots a check points at."""
    marks = [m for m in draft.marks if m.step <= step and not (m.gone is not None and m.gone <= step)]
    last = step >= len(draft.steps)
    rows: list[str] = []
    if last:
        for piece in draft.block.pieces:
            rows.append(f'<path class="piece" d="{svg_d(piece.ring(), closed=True)}"/>')
            for dart in piece.darts:
                rows.append(f'<path class="l-stitch cap" d="{svg_d([dart.cap])}"/>')
    order = {"construction": 0, "balance": 1, "finished": 2}
    lines = sorted(
        (m for m in marks if m.path is not None and m.kind != "dimension"), key=lambda m: (m.step == step, order[m.role])
    )
    rows += [_line(m, step, show, lit) for m in lines]
    rows += [_line(m, step, show, lit) for m in marks if m.kind == "dimension"]
    rows += [_words_along(m, m.step == step and not last, show) for m in marks]
    rows += [_point(m, step, last, show) for m in marks if m.kind == "point" or m.dart is not None]
    if last:
        rows += [_name(draft, piece.name) for piece in draft.block.pieces]
    else:
        rows.append(_flag(marks, step))
    return "".join(rows)


def _data(mark: Mark, show: Display) -> str:
    """What hovering or tapping tells: name, figure, working."""
    words = [f'data-name="{escape(mark.title)}"']
    if mark.figure is not None:
        words.append(f'data-figure="{escape(mark.figure.figure(show))} {show.unit}"')
        if mark.figure.parts and mark.figure.sign != "as drawn from":
            words.append(f'data-working="{escape(mark.figure.working(show))}"')
    if mark.at is not None:
        words.append(f'data-x="{mark.at.x:.4f}" data-y="{mark.at.y:.4f}"')
    if mark.letter:
        words.append(f'data-letter="{mark.letter}"')
    return " ".join(words)


def _line(mark: Mark, step: int, show: Display, lit: Sequence[str]) -> str:
    assert mark.path is not None
    fresh = mark.step == step
    if mark.kind == "dimension":
        look = "l-dim l-fresh-dim" if fresh else "l-dim"
        return f'<g class="dim lengths" {_data(mark, show)}><path class="{look}" d="{svg_d([mark.path])}"/></g>'
    if mark.kind == "level" or mark.role == "balance":
        look, group = "l-balance", "levels"
    elif mark.role == "construction":
        look, group = ("l-fresh-guide" if fresh else "l-construction"), "construction"
    else:
        look, group = ("l-fresh" if fresh else "l-finished"), "finished"
    if mark.spot and mark.spot in lit:
        look += " lit"
    d = svg_d([mark.path])
    hit = f'<path class="hit" d="{d}"/>'
    spot = f' data-spot="{mark.spot}"' if mark.spot else ""
    return f'<g class="mark {group}" {_data(mark, show)}{spot}><path class="{look}" d="{d}"/>{hit}</g>'


def _px(point: Point, inside: str, turn: float = 0.0) -> str:
    rotate = f" rotate({turn:.1f})" if turn else ""
    return f'<g transform="translate({point.x:.3f} {point.y:.3f}){rotate}"><g class="px">{inside}</g></g>'


def _upright(way: Point) -> float:
    """The turn in degrees at which words along a direction read from below or from the right."""
    turn = math.degrees(math.atan2(way.y, way.x))
    if turn > 90.01:
        turn -= 180
    elif turn <= -89.99:
        turn += 180
    return turn - 180 if abs(turn - 90) < 0.5 else turn


def _words_along(mark: Mark, fresh: bool, show: Display) -> str:
    """The words that stand along a line: its sum where it fits, its figure, or what it is."""
    path, figure = mark.path, mark.figure
    if path is None or figure is None or mark.dart is not None:
        return ""
    room = path.length * USUAL_PX_PER_CM / LETTER_PX
    look = "t-note t-fresh" if fresh else "t-note"
    if mark.kind == "dimension":
        words = figure.working(show) if figure.parts else ""
        spot = path.place(path.length / 2)
        turn = _upright(spot.direction)
        below = f'<text class="{look} t-figure" y="{17 if mark.side > 0 else -7}">{escape(figure.figure(show))}</text>'
        above = (
            f'<text class="{look}" y="-6">{escape(words)}</text>' if words and len(words) + 2 < room and mark.side > 0 else ""
        )
        return f'<g class="lengths">{_px(spot.point, above + below, turn)}</g>'
    if mark.role == "finished" and mark.edge in ("side", "hem") and (mark.edge != "side" or mark.piece == "back"):
        along = path.length * (0.72 if mark.edge == "side" else 0.5)
        spot = path.place(along)
        words = f"{'side seam' if mark.edge == 'side' else 'hem'} {figure.figure(show)}"
        return f'<g class="lengths">{_px(spot.point, f"""<text class="{look}" y="-7">{escape(words)}</text>""", _upright(spot.direction))}</g>'
    if mark.role == "finished" and mark.edge.startswith("centre"):
        spot = path.place(path.length * 0.42)
        y = 16 if mark.piece == "back" else -7
        return _px(spot.point, f'<text class="{look}" y="{y}">{escape(mark.title.lower())}</text>', _upright(spot.direction))
    if mark.kind == "level":
        at = path.place(1.0).point
        return (
            f'<g class="levels">{_px(at, f"""<text class="{look} t-start" y="15">{escape(mark.title.lower())}</text>""")}</g>'
        )
    return ""


_LETTER_OFF = {
    "A": (-14, -5), "B": (-14, 6), "C": (-14, 5), "D": (13, -6), "E": (14, 5), "F": (14, 6), "G": (14, -5),
    "H": (-4, -11), "J": (6, -11), "S": (11, -7),
}  # fmt: skip


def _point(mark: Mark, step: int, last: bool, show: Display) -> str:
    assert mark.at is not None
    fresh = mark.step == step and not last
    dx, dy = _LETTER_OFF.get(mark.letter, (0, 19))
    dot = (
        f'<circle class="pt{" pt-fresh" if fresh else ""}" r="3.4"/><circle class="hit" r="12"/>'
        if mark.kind == "point"
        else ""
    )
    letter = (
        f'<text class="t-point letters{" t-fresh" if fresh else ""}" x="{dx}" y="{dy}">{mark.letter}</text>'
        if mark.letter
        else ""
    )
    takes = ""
    if mark.dart is not None and mark.figure is not None:
        dart = mark.dart
        middle = dart.inner.toward(dart.outer, 0.5)
        up = (middle - dart.point).unit() * 0.1
        look = "t-note t-fresh" if fresh else "t-note"
        turn = _upright(dart.outer - dart.inner)
        figure = f'<text class="{look}" y="-14">{escape(show.length(dart.intake))}</text>'
        takes = f'<g class="lengths">{_px(middle + up, figure, turn)}</g>'
        leg = dart.point.toward(dart.outer, 0.55)
        side = f'<text class="{look}" y="15">{escape(show.length(dart.legs[1]))}</text>'
        takes += f'<g class="lengths">{_px(leg, side, _upright(dart.outer - dart.point))}</g>'
        return takes
    return f'<g class="mark point" {_data(mark, show)}>{_px(mark.at, dot + letter)}</g>{takes}'


def _name(draft: Draft, name: str) -> str:
    piece = draft.block.piece(name)
    xs, ys = zip(*piece.outline(1.0), strict=True)
    middle = Point((min(xs) + max(xs)) / 2, min(ys) + (max(ys) - min(ys)) * 0.57)
    words = f'<text class="t-name">{escape(name.replace("_", " ").capitalize())}</text><text class="t-note" y="22">half, no allowances</text>'
    return _px(middle, words)


def _flag(marks: Sequence[Mark], step: int) -> str:
    """The square flag with the step's number, beside what was just drawn."""
    fresh = [m for m in marks if m.step == step and m.path is not None] or [m for m in marks if m.step == step]
    if not fresh:
        return ""
    mark = max(fresh, key=lambda m: m.path.length if m.path is not None and m.kind != "dimension" else 0.0)
    at = mark.path.place(mark.path.length * 0.3).point if mark.path is not None else mark.at
    assert at is not None
    inside = f'<rect class="flag" x="14" y="-11" width="22" height="22"/><line class="flag-line" x1="0" y1="0" x2="14" y2="0"/><text class="flag-n" x="25" y="5">{step}</text>'
    return _px(at, inside)
