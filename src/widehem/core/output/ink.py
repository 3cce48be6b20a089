"""A marked pattern as plain ink: strokes, dots and words by kind of line. Every paper format draws from this list."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

from fontTools.misc.transform import Transform

from widehem.core.geometry.curves import Line
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.marking.made import MarkedPiece, Pattern
from widehem.core.values import record

GAPS = (2.0, 1.5, 1.0, 0.6)  # cm between pieces on the paper, the most comfortable first


@record(frozen=True)
class Stroke:
    """Paths joined one after another, of one kind of line. closed: a ring."""

    kind: str
    paths: tuple[Path, ...]
    closed: bool = False


@record(frozen=True)
class Dot:
    """A circle, cm."""

    kind: str
    middle: Point
    radius: float


@record(frozen=True)
class Words:
    """A line of words: its middle on the base line, letter height cm, degrees turned clockwise."""

    text: str
    at: Point
    size: float
    turn: float = 0.0
    strong: bool = False


Ink = Stroke | Dot | Words


def ring_path(points: Sequence[Point]) -> Path:
    closed = [*points, points[0]]
    return Path(tuple(Line(a, b) for a, b in pairwise(closed)))


def ink_of(marked: MarkedPiece, by: Transform) -> list[Ink]:
    """Everything that is drawn on one piece, moved to its place on the paper."""
    piece, ink = marked.piece, list[Ink]()

    def stroke(kind: str, *paths: Path, closed: bool = False) -> None:
        ink.append(Stroke(kind, tuple(path.moved(by) for path in paths), closed))

    stroke("cut", ring_path(marked.cut), closed=True)
    for edge in piece.edges:
        stroke("fold" if edge.kind == "fold" else "stitch", *edge.paths())
    for tail in marked.tails:
        stroke("stitch", tail)
    for dart in piece.darts:
        stroke("stitch", Path.through(dart.inner, dart.point, dart.outer))
    for diamond in piece.diamonds:
        stroke("stitch", diamond.path)
    for inner in piece.lines:
        stroke("balance", inner.path)
        spot = inner.path.place(inner.path.length * 0.5)
        turn = math.degrees(math.atan2(spot.direction.y, spot.direction.x))
        ink.append(
            Words(inner.title.lower(), (spot.point + Point(0.3, 0.0)).moved(by), 0.36, turn - 180 if abs(turn) > 90 else turn)
        )
    for hole in piece.holes:
        ink.append(Dot("drill", hole.moved(by), 0.25))
    for name, y in piece.levels.items():
        if y > 0:
            xs = sorted(p.segments[i].at(t).x for p in piece.ring for i, t in p.crossings(Point(0, y), Point(1, 0)))
            if len(xs) > 1:
                stroke("balance", Path.through(Point(xs[0], y), Point(xs[-1], y)))
                middle = Point(xs[0] + (xs[-1] - xs[0]) * 0.5, y - 0.25)
                ink.append(Words(name, middle.moved(by), 0.36))
    for notch in marked.notches:
        stroke("notch", Path.through(notch.at, notch.inner))
    for hole in marked.drills:
        ink.append(Dot("drill", hole.moved(by), 0.3))
        stroke("drill", Path.through(hole + Point(-0.45, 0), hole + Point(0.45, 0)))
        stroke("drill", Path.through(hole + Point(0, -0.45), hole + Point(0, 0.45)))
    ink += _grain(marked, by)
    label = marked.label
    high = label.size * 1.45
    for i, line in enumerate(label.lines):
        y = label.middle.y + (i - (len(label.lines) - 1) / 2) * high + label.size * 0.35
        ink.append(Words(line, Point(label.middle.x, y).moved(by), label.size, strong=i == 0))
    return ink


def _grain(marked: MarkedPiece, by: Transform) -> list[Ink]:
    top, bottom = marked.grain
    middle = top.toward(bottom, 0.5)
    if marked.piece.stands == "fold":  # a bracket: two arrows that point at the fold
        inward = Point(marked.inward, 0.0)
        stand = inward * 1.6
        bar = Path.through(top, top + stand, bottom + stand, bottom)
        found: list[Ink] = [Stroke("grain", (bar.moved(by),))]
        for tip in (top, bottom):
            head = Path.through(tip + inward * 0.6 + Point(0, 0.35), tip, tip + inward * 0.6 + Point(0, -0.35))
            found.append(Stroke("grain", (head.moved(by),)))
        found.append(Words("FOLD", (middle + inward * 2.1).moved(by), 0.5, -90.0, strong=True))
        return found
    found = [Stroke("grain", (Path.through(top, bottom).moved(by),))]
    for tip, way in ((top, 1.0), (bottom, -1.0)):
        head = Path.through(tip + Point(-0.4, 0.8 * way), tip, tip + Point(0.4, 0.8 * way))
        found.append(Stroke("grain", (head.moved(by),)))
    found.append(Words("grain", (middle + Point(-0.35, 0.0)).moved(by), 0.36, -90.0))
    if not marked.piece.middle:
        return found
    edge = marked.piece.edge(marked.piece.middle)
    words = marked.piece.middle.replace("_", " ")
    at = edge.start.toward(edge.end, 0.3) + Point(marked.inward * 0.6, 0.0)
    found.append(Words(words, at.moved(by), 0.36, -90.0))
    return found


@record(frozen=True)
class Laid:
    """A marked piece laid on the paper, moved right and down from its own place, cm."""

    marked: MarkedPiece
    dx: float
    dy: float

    @property
    def cut(self) -> list[Point]:
        return [Point(p.x + self.dx, p.y + self.dy) for p in self.marked.cut]

    @property
    def ink(self) -> list[Ink]:
        return ink_of(self.marked, Transform().translate(self.dx, self.dy))


@record(frozen=True)
class Layout:
    """All pieces side by side on one paper, with its size, cm."""

    pieces: tuple[Laid, ...]
    width: float
    height: float


def lay_out(pattern: Pattern, gap: float = GAPS[0], margin: float = 0.2) -> Layout:
    """Pieces in a row, in the order of the draft."""
    laid, x, height = [], margin, 0.0
    for marked in pattern.pieces:
        left, top, right, bottom = marked.bounds
        laid.append(Laid(marked, x - left, margin - top))
        x += right - left + gap
        height = max(height, bottom - top)
    return Layout(tuple(laid), x - gap + margin, height + 2 * margin)
