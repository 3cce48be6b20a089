"""The draft on the board: SVG for the screen, in centimetres, every mark named and carrying its working.

Words, dots and flags stand in groups of class px: inside them a unit is a screen pixel at any zoom, by the style
variable --u (cm to a pixel) that the page keeps up to date.
"""

from __future__ import annotations

import math
import re
from collections.abc import Mapping, Sequence
from html import escape

from widehem.core.design.make import Made
from widehem.core.drafting.sheet import Mark
from widehem.core.geometry.paths import Path, svg_d
from widehem.core.geometry.points import Point, mirror_in
from widehem.core.pattern.inside import InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.units import METRIC, Display
from widehem.core.values import record

LETTER_PX = 7.4  # pixels a letter of a note is wide
USUAL_PX = (840, 490)
HIGH_PART = 0.4  # of a piece that lies above its bust line, and its name with it
NAME_ROOM = 70  # pixels a piece needs for its name in large letters
NAME_LETTER, NOTE_LETTER = 13.0, 5.0  # pixels for each of them, large and small; a small name may reach a little beyond
CLOSER = 1.1  # times as large a view of a part must show it
FORK_PART = 0.36  # of a crotch line, past the curve to the fork: there its words begin
NOTE_ROOM = 185  # pixels the note under a piece's name needs


@record(frozen=True)
class Frame:
    """What the board shows, cm: left, top, width, height."""

    left: float
    top: float
    width: float
    height: float

    def __str__(self) -> str:
        return f"{self.left:.2f} {self.top:.2f} {self.width:.2f} {self.height:.2f}"


def frames(draft: Made) -> dict[str, Frame]:
    """The named views of this draft."""
    boxes = {piece.name: piece.bounds for piece in draft.laid}
    left, top = min(b[0] for b in boxes.values()), min(b[1] for b in boxes.values())
    right, bottom = max(b[2] for b in boxes.values()), max(b[3] for b in boxes.values())
    found = {"whole": Frame(left - 7, top - 3.6, right - left + 10, bottom - top + 5.6)}
    for name, (x0, y0, x1, y1) in boxes.items():
        if len(boxes) > 1:
            found[name] = Frame(x0 - 5, y0 - 3.6, x1 - x0 + 8, y1 - y0 + 5.6)
    for piece in draft.laid:
        if any(line.folded is not None for line in piece.lines):
            x0, y0, x1, y1 = boxes[piece.name]
            found[FOLDED] = Frame(x0 - 5, y0 - 3.6, x1 - x0 + 8, (y1 - y0) * 0.6)
    for name, level in UPPER_PART:
        depth = max((piece.levels.get(level, top) for piece in draft.laid), default=top)
        near = Frame(left - 4, top - 2.8, right - left + 8, depth - top + 4.8)
        if depth > top + 1 and _scale(near) > CLOSER * _scale(found["whole"]):
            found[name] = near
            break
    whole = found["whole"]
    along = Frame(whole.top, -(whole.left + whole.width), whole.height, whole.width)
    if _scale(along) > LONGER * _scale(whole):
        found[ALONG] = along
    return found


UPPER_PART = (("waist", "hip"), ("armholes", "bust"))  # a view of what lies above a level
FOLDED, ALONG = "folded", "along"
LONGER = 1.2  # times as large a garment must be along the table to be offered so
_VIEW_NAMES = {
    "whole": "Whole",
    FOLDED: "Lapel folded",
    ALONG: "Along the table",
    "waist": "Waist to hip",
    "armholes": "Above the bust",
}


def view_names(draft: Made) -> dict[str, str]:
    """The views of this draft by code, as they are called."""
    whole = any("bust" in piece.levels for piece in draft.laid)
    names = {**_VIEW_NAMES, "waist": "Above the hip"} if whole else _VIEW_NAMES
    return {code: names.get(code) or code.replace("_", " ").capitalize() for code in frames(draft)}


def _scale(frame: Frame) -> float:
    """Pixels to a centimetre of a view on a usual screen."""
    return min(USUAL_PX[0] / frame.width, USUAL_PX[1] / frame.height)


def usual_scale(draft: Made) -> float:
    """Pixels to a centimetre when the whole draft is seen on a usual screen; decides which words have room."""
    return _scale(frames(draft)["whole"])


def lens_frame(draft: Made, step: int) -> Frame | None:
    """What the lens shows: the surroundings of what this step drew; None when that is most of the draft, or nothing."""
    fresh = [m for m in draft.marks if m.step == step and m.kind != "dimension"]
    points = [p for m in fresh for p in (m.path.flat(0.5) if m.path is not None else (m.at,)) if p is not None]
    if not points or step >= len(draft.steps):
        return None
    xs, ys = [p.x for p in points], [p.y for p in points]
    whole = frames(draft)["whole"]
    wide, high = max(xs) - min(xs) + 5, max(ys) - min(ys) + 5
    if wide > 0.75 * whole.width or high > 0.55 * whole.height:
        return None
    return Frame(min(xs) - 2.5, min(ys) - 2, wide, high)


def board_svg(draft: Made, step: int, show: Display = METRIC, lit: Sequence[str] = (), *, folded: bool = False) -> str:
    """The inside of the board's svg after this step. lit: spots a check points at; folded: what turns over a line is shown
    turned."""
    marks = draft.marks_at(step)
    last = step >= len(draft.steps)
    if last:
        step = len(draft.steps) + 1  # finished: nothing is fresh any more
    rows: list[str] = []
    if last:
        for piece in draft.laid:
            rows.append(f'<path class="piece" d="{svg_d(piece.ring, closed=True)}"/>')
            for dart in piece.darts:
                rows.append(f'<path class="l-finished cap" d="{svg_d([dart.cap])}"/>')
            rows += [f'<circle class="hole" cx="{hole.x:.2f}" cy="{hole.y:.2f}" r=".35"/>' for hole in piece.holes]
    order = {"construction": 0, "balance": 1, "finished": 2}
    lines = sorted(
        (m for m in marks if m.path is not None and m.kind != "dimension"), key=lambda m: (m.step == step, order[m.role])
    )
    rows += [_line(m, step, show, lit) for m in lines]
    rows += [_line(m, step, show, lit) for m in marks if m.kind == "dimension"]
    if last and folded:
        rows += [_folded(line) for piece in draft.laid for line in piece.lines if line.folded is not None]
    scale = usual_scale(draft)
    sums = [m.path for m in marks if _sum_above(m, show, scale)]
    rows += [_words_along(m, m.step == step and not last, show, scale, sums) for m in marks]
    letters = _letter_places(marks, scale) if draft.method.group == "Skirts" else _outwards(draft, marks)
    rows += [_point(m, step, last, show, letters) for m in marks if m.kind == "point" or m.dart is not None]
    if last:
        rows += [_name(draft, piece.name, scale) for piece in draft.laid]
    else:
        rows.append(_flag(marks, step))
    return "".join(rows)


def _folded(line: InnerLine) -> str:
    """What turns over a line, as it lies then; where it lay flat is cleared."""
    assert line.folded is not None
    flat = line.folded.moved(mirror_in(line.path.start, line.path.end))
    return (
        f'<path class="turned" d="{svg_d([flat], closed=True)}"/>'
        f'<path class="piece folded" d="{svg_d([line.folded], closed=True)}"><title>Folded over the '
        f"{line.title.lower()}</title></path>"
    )


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
        return f'<path class="l-fresh-dim lengths" d="{svg_d([mark.path])}"/>' if fresh else ""
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


def _figures(text: str) -> str:
    """Words with figures in them, escaped; fractions set as one."""
    return re.sub(r" ?(\d+/\d+)", r'<tspan class="frac"> \1</tspan>', escape(text))


def _upright(way: Point) -> float:
    """The turn in degrees at which words along a direction read from below or from the right."""
    turn = math.degrees(math.atan2(way.y, way.x))
    if turn > 90.01:
        turn -= 180
    elif turn <= -89.99:
        turn += 180
    return turn - 180 if abs(turn - 90) < 0.5 else turn


def _sum_above(mark: Mark, show: Display, scale: float) -> str:
    """The sum that stands above a dimension, where there is room for it."""
    if mark.kind != "dimension" or mark.path is None or mark.figure is None or mark.dart is not None or mark.side <= 0:
        return ""
    words = mark.figure.working(show) if mark.figure.parts else ""
    return words if words and len(words) + 2 < mark.path.length * scale / LETTER_PX else ""


def _words_along(mark: Mark, fresh: bool, show: Display, scale: float, sums: Sequence[Path | None] = ()) -> str:
    """The words that stand along a line: its sum where it fits, its figure, or what it is. sums: lines above which a sum
    stands."""
    path, figure = mark.path, mark.figure
    if path is None or figure is None or mark.dart is not None:
        return ""
    look = "t-note t-fresh" if fresh else "t-note"
    if mark.kind == "dimension":
        words = _sum_above(mark, show, scale)
        spot = path.place(path.length / 2)
        turn = _upright(spot.direction)
        below = f'<text class="{look} t-figure" y="{17 if mark.side > 0 else -7}">{_figures(figure.figure(show))}</text>'
        above = f'<text class="{look}" y="-6">{_figures(words)}</text>' if words else ""
        return f'<g class="lengths">{_px(spot.point, above + below, turn)}</g>'
    if mark.role == "finished" and mark.edge in _EDGE_WORDS and (mark.edge != "side" or mark.piece == "back"):
        if path.length * scale < EDGE_ROOM or (mark.edge.startswith("underarm") and mark.name.endswith("_2")):
            return ""
        spot = path.place(path.length * {"side": 0.72, "cap": 0.27}.get(mark.edge, 0.5))
        words = f"{_EDGE_WORDS[mark.edge]} {figure.figure(show)}"
        text = f'<text class="{look}" y="-7">{_figures(words)}</text>'
        return f'<g class="lengths">{_px(spot.point, text, _upright(spot.direction))}</g>'
    if mark.role == "finished" and mark.edge.startswith("centre"):
        if path.length * scale < EDGE_ROOM:
            return ""
        spot = path.place(path.length * 0.24)
        y = 16 if mark.piece == "back" else -7
        return _px(
            spot.point, f'<text class="{look} along" y="{y}">{escape(mark.title.lower())}</text>', _upright(spot.direction)
        )
    if mark.kind == "level" and mark.piece != "front":
        at = (
            (path if path.start.x <= path.end.x else path.reverse())
            .place(path.length * FORK_PART if mark.edge == "crotch" else 1.0)
            .point
        )
        beside = any(line is not None and abs(line.start.y - at.y) < 1 and abs(line.end.y - at.y) < 1 for line in sums)
        text = f'<text class="{look} t-start" y="{15 if beside else -6}">{escape(mark.title.lower())}</text>'
        return f'<g class="levels">{_px(at, text)}</g>'
    return ""


_EDGE_WORDS = {
    "side": "side seam", "hem": "hem", "shoulder": "shoulder", "cap": "cap", "wrist": "hem",
    "underarm_back": "underarm", "underarm_front": "underarm",
}  # fmt: skip
EDGE_ROOM = 70  # pixels an edge needs for its words
_LETTER_OFF = {
    "A": (-14, -5), "B": (-14, 6), "C": (-14, 5), "D": (13, -6), "E": (14, 5), "F": (14, 6), "G": (14, -5),
    "H": (-4, -11), "J": (6, -11), "S": (11, -7),
}  # fmt: skip
_LETTER_ROOM = 22  # pixels two letters side by side need


def _letter_places(marks: Sequence[Mark], scale: float) -> dict[str, tuple[int, int]]:
    """Where each letter stands off its point; two neighbours at the same height move apart."""
    places = dict(_LETTER_OFF)
    spots = {m.letter: m.at for m in marks if m.letter in ("H", "J") and m.at is not None}
    if len(spots) == 2 and (spots["J"].x - spots["H"].x) * scale < _LETTER_ROOM:
        left, right = ("H", "J") if spots["H"].x <= spots["J"].x else ("J", "H")
        places[left], places[right] = (-12, -8), (12, -8)
    return places


def _outwards(draft: Made, marks: Sequence[Mark]) -> dict[str, tuple[int, int]]:
    """Letters off their points, away from the middle of their piece."""
    middles = {
        piece.name: ((piece.bounds[0] + piece.bounds[2]) / 2, (piece.bounds[1] + piece.bounds[3]) / 2) for piece in draft.laid
    }
    places = {}
    for mark in marks:
        if mark.kind == "point" and mark.letter and mark.at is not None and mark.piece in middles:
            x, y = middles[mark.piece]
            places[mark.letter] = (13 if mark.at.x > x else -13, -7 if mark.at.y < y else 14)
    return places


def _point(mark: Mark, step: int, last: bool, show: Display, letters: Mapping[str, tuple[int, int]]) -> str:
    assert mark.at is not None
    fresh = mark.step == step and not last
    dx, dy = letters.get(mark.letter, (0, 19))
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
        figure = f'<text class="{look}" y="-14">{_figures(show.length(dart.intake))}</text>'
        takes = f'<g class="lengths">{_px(middle + up, figure, turn)}</g>'
        leg = dart.point.toward(dart.outer, 0.55)
        side = f'<text class="{look}" y="15">{_figures(show.length(dart.legs[1]))}</text>'
        takes += f'<g class="lengths">{_px(leg, side, _upright(dart.outer - dart.point))}</g>'
        return takes
    return f'<g class="mark point" {_data(mark, show)}>{_px(mark.at, dot + letter)}</g>{takes}'


def _stands_high(piece: Piece) -> bool:
    """Whether the name of a piece stands above its bust line: where much of it lies there."""
    _, top, _, bottom = piece.bounds
    bust = piece.level("bust")
    if bust is not None and abs(bust.straight[1].y) > 0.7:
        return False  # it lies along the table
    return bool(piece.middle) and "bust" in piece.levels and piece.levels["bust"] - top > HIGH_PART * (bottom - top)


def _name(draft: Made, name: str, scale: float) -> str:
    piece = next(piece for piece in draft.laid if piece.name == name)
    left, top, right, bottom = piece.bounds
    high = bottom - top
    clear = (0.57, 0.48, 0.66)  # beside the balance lines, whose words stand on them
    part = next((p for p in clear if all(abs(top + high * p - y) > high * 0.05 for y in piece.levels.values())), clear[0])
    middle = Point((left + right) / 2, top + high * part)
    if _stands_high(piece):  # above the bust line, on the centre's side of the darts
        aside = 0.36 if piece.edge(piece.middle).start.x - left < right - piece.edge(piece.middle).start.x else 0.74
        middle = Point(left + (right - left) * aside, top + (piece.levels["bust"] - top) * 0.62)
    room, title = (right - left) * scale, name.replace("_", " ").capitalize()
    if room < NOTE_LETTER * len(title):
        return ""  # a narrow piece is named by the lens, and by its own view
    look = "t-name" if room > max(NAME_ROOM, NAME_LETTER * len(title)) else "t-note"
    words = f'<text class="{look}">{escape(title)}</text>'
    if room > NOTE_ROOM and not _stands_high(piece):
        note = "half, no allowances" if piece.middle else "no allowances"
        words += f'<text class="t-note" y="22">{note}</text>'
    return _px(middle, words)


def _flag(marks: Sequence[Mark], step: int) -> str:
    """The square flag with the step's number, beside what was just drawn."""
    fresh = [m for m in marks if m.step == step and m.path is not None] or [m for m in marks if m.step == step]
    if not fresh:
        return ""
    mark = max(fresh, key=lambda m: m.path.length if m.path is not None and m.kind != "dimension" else 0.0)
    at = mark.path.place(mark.path.length * 0.3).point if mark.path is not None else mark.at
    assert at is not None
    side = -1 if mark.kind == "dart" or mark.name.endswith(("_plan", "_axis")) else 1  # figures stand right of a dart
    inside = (
        f'<line class="flag-line" x1="0" y1="0" x2="{14 * side}" y2="0"/>'
        f'<rect class="flag" x="{14 if side > 0 else -36}" y="-11" width="22" height="22"/>'
        f'<text class="flag-n" x="{25 * side}" y="5">{step}</text>'
    )
    return _px(at, inside)
