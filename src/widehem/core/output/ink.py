"""A marked pattern as plain ink: strokes, dots and words by kind of line. Every format draws from this list."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from itertools import pairwise

from fontTools.misc.transform import Identity, Transform

from widehem.core.geometry.curves import Line
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.marking.piece import CROSS, MarkedPiece
from widehem.core.marking.words import Written
from widehem.core.values import record

KINDS: Mapping[str, str] = {
    "cut": "Cutting line", "stitch": "Stitching line", "fold": "Fold", "balance": "Balance lines and inner lines", "zone": "Ease, gathers, pleats",
    "notch": "Notches", "drill": "Drill holes and buttons", "grain": "Grain and stretch", "words": "Words",
}  # fmt: skip
ON_BASE = 0.35  # of its height, how far the middle of a letter stands over its base line


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

    @property
    def kind(self) -> str:
        return "words"


Ink = Stroke | Dot | Words


def ring_path(points: Sequence[Point]) -> Path:
    closed = [*points, points[0]]
    return Path(tuple(Line(a, b) for a, b in pairwise(closed)))


def ink_of(marked: MarkedPiece) -> list[Ink]:
    """Everything that is drawn on one piece, where it lies on the paper."""
    ink: list[Ink] = [Stroke("cut", (ring_path(marked.cut),), closed=True)]
    for by in (Identity,) if marked.mirror is None else (Identity, marked.mirror):
        ink += _lines(marked, by)
    ink += [Stroke("grain", (path,)) for path in marked.grain_paths()]
    return [*ink, *(_words(written) for written in marked.written.words)]


def _lines(marked: MarkedPiece, by: Transform) -> Iterator[Ink]:
    """The lines inside the cutting line; by: where they are laid, the piece itself or its other half."""

    def stroke(kind: str, *paths: Path) -> Stroke:
        return Stroke(kind, tuple(path.moved(by) for path in paths))

    for edge in marked.piece.edges:
        if edge.kind != "fold":
            yield stroke("stitch", *edge.paths())
        elif by is Identity:
            yield stroke("fold" if marked.mirror is None else "balance", *edge.paths())
    for tail in marked.tails:
        yield stroke("stitch", tail)
    for kind, paths in marked.inner_paths():
        yield stroke(kind, *paths)
    for notch in marked.notches:
        yield stroke("notch", Path.through(notch.at, notch.inner))
    for spot, size in marked.crosses():
        at = spot.moved(by)
        yield Dot("drill", at, size)
        for way in (Point(CROSS, 0.0), Point(0.0, CROSS)):
            yield Stroke("drill", (Path.through(at - way, at + way),))


def _words(written: Written) -> Words:
    down, turn = written.size * ON_BASE, math.radians(written.turn)
    at = written.middle + Point(-math.sin(turn) * down, math.cos(turn) * down)
    return Words(written.text, at, written.size, written.turn, written.strong)
