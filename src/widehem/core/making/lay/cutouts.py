"""What is cut from a cloth: every piece as often as it is cut, its grain along the cloth, mirrored where it has a mirror."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from fontTools.misc.transform import Identity, Transform
from shapely import Polygon

from widehem.core.geometry.points import Point
from widehem.core.making.lay.cloth import OnTable
from widehem.core.marking.labels import cloths_of
from widehem.core.marking.made import Pattern
from widehem.core.marking.materials import how_often
from widehem.core.marking.piece import MarkedPiece, opened_cut
from widehem.core.pattern.roles import centre
from widehem.core.units import Saying, say
from widehem.core.values import kept, record, replace

FINE = 0.02  # cm by which an outline may be simplified
FOLD = "fold"
LEVELS = ("bust", "chest", "waist", "hip", "knee", "underarm", "elbow")  # the first a piece has is laid on the bar of a check


@record(frozen=True)
class Cutout:
    """One shape to be cut. ring: its cutting line, cm, x along the cloth, from where its grain arrow begins towards more x, its corner
    at the origin; hand: 1 as drawn, -1 its mirror; on_fold: half of it, its fold at y 0. single: cut through one layer of two.
    bar, stripe: where it is laid on a bar and on a stripe, x and y in its ring, None where nothing asks for it. of: whose it is."""

    id: str
    title: str
    piece: str
    of: str
    ring: tuple[tuple[float, float], ...]
    hand: int = 1
    on_fold: bool = False
    single: bool = False
    bar: float | None = None
    stripe: float | None = None
    note: str = ""

    @kept
    def polygon(self) -> Polygon:
        return Polygon(self.ring)

    @kept
    def size(self) -> tuple[float, float]:
        """How long and how wide it is, cm."""
        xs, ys = zip(*self.ring, strict=True)
        return max(xs), max(ys)

    @property
    def free(self) -> bool:
        """Whether it may be laid on either hand: what is cut through both layers of a folded cloth."""
        return self.hand == 0

    def posed(self, turned: int, flipped: bool = False) -> tuple[tuple[float, float], ...]:
        """Its ring turned about its corner by quarters of a full turn, degrees, then laid to the origin again. flipped: turned
        over."""
        spots = [(x, -y) for x, y in self.ring] if flipped else list(self.ring)
        for _ in range(turned // 90):
            spots = [(-y, x) for x, y in spots]
        left, low = min(x for x, _ in spots), min(y for _, y in spots)
        return tuple((x - left, y - low) for x, y in spots)

    def spot_posed(self, spot: tuple[float, float], turned: int, flipped: bool = False) -> tuple[float, float]:
        """A spot of it, as posed."""
        ring = [(x, -y) for x, y in self.ring] if flipped else list(self.ring)
        x, y = spot
        y = -y if flipped else y
        for _ in range(turned // 90):
            x, y = -y, x
            ring = [(-b, a) for a, b in ring]
        return x - min(a for a, _ in ring), y - min(b for _, b in ring)


def materials_of(pattern: Pattern) -> list[str]:
    """The cloths of a pattern, by name, as its pieces name them."""
    found = (cloth.cloth for marked in pattern.pieces for cloth in cloths_of(marked.piece, pattern.wanted.plan.use))
    return list(dict.fromkeys(found))


def cutouts(pattern: Pattern, material: str, table: OnTable, of: str = "", start: int = 1) -> list[Cutout]:
    """Everything that is cut from a cloth for a pattern. of: whose it is; start: the number of the first."""
    found: list[Cutout] = []
    for marked in pattern.pieces:
        for cloth in cloths_of(marked.piece, pattern.wanted.plan.use):
            if cloth.cloth == material:
                for cutout in _shapes(marked, cloth.cut, table, of):
                    found.append(replace(cutout, id=str(start + len(found))))
    return found


def _shapes(marked: MarkedPiece, cut: str, table: OnTable, of: str) -> Iterator[Cutout]:
    count, halved = how_often(cut), FOLD in cut and marked.mirror is None
    note = cut.partition(", ")[2].removeprefix("a pair").removeprefix("two pairs").strip(", ")
    pairs = not halved and ("pair" in cut or marked.piece.stands == "pair")
    on_fold = halved and table.folded and marked.on_fold
    laid = _laid(marked, marked.cut if on_fold or not halved else opened_cut(marked), on_fold=on_fold)

    def shape(hand: int, *, single: bool = False) -> Cutout:
        ring, stripe = (laid.ring, laid.stripe) if hand != -1 else _over(laid.ring, laid.stripe)
        return Cutout("", marked.piece.title, marked.piece.name, of, ring, hand, on_fold, single, laid.bar, stripe, note)

    if on_fold:
        yield from (shape(0) for _ in range(count))
    elif table.folded and not halved:
        yield from (shape(0) for _ in range(count // 2))
        yield from (shape(1, single=True) for _ in range(count % 2))
    else:
        yield from (shape(-1 if pairs and number % 2 else 1, single=table.folded) for number in range(count))


def _over(ring: tuple[tuple[float, float], ...], stripe: float | None) -> tuple[tuple[tuple[float, float], ...], float | None]:
    """A ring turned over along the cloth."""
    high = max(y for _, y in ring)
    return tuple((x, high - y) for x, y in reversed(ring)), None if stripe is None else high - stripe


class _Laid(NamedTuple):
    ring: tuple[tuple[float, float], ...]
    bar: float | None
    stripe: float | None


def _laid(marked: MarkedPiece, cut: Sequence[Point], *, on_fold: bool) -> _Laid:
    """A cutting line with the grain along x, its corner at the origin, its fold at y 0; where bars and stripes are laid on it."""
    top, bottom = marked.grain
    way = (bottom - top).unit()
    turn = Identity.rotate(-math.atan2(way.y, way.x))
    fold = _fold_line(marked, turn) if on_fold else None
    if fold is not None and sum(p.moved(turn).y for p in cut) / len(cut) < fold:
        turn, fold = Transform(1, 0, 0, -1, 0, 0).transform(turn), -fold
    polygon = Polygon([spot.moved(turn) for spot in cut]).simplify(FINE)
    left, low, _, _ = polygon.bounds
    if fold is not None:
        low = fold
        polygon = polygon.intersection(_above(polygon, fold))
    bar, stripe = _bar(marked, turn), _stripe(marked, turn)
    ring = tuple((x - left, max(y - low, 0.0)) for x, y in polygon.exterior.coords[:-1])
    return _Laid(ring, None if bar is None else bar - left, None if stripe is None else stripe - low)


def _above(polygon: Polygon, fold: float) -> Polygon:
    left, _, right, high = polygon.bounds
    return Polygon([(left - 1, fold), (right + 1, fold), (right + 1, high + 1), (left - 1, high + 1)])


def _fold_line(marked: MarkedPiece, turn: Transform) -> float | None:
    """Where the fold of half a piece lies across the cloth."""
    if not marked.on_fold:
        return None
    middle = marked.piece.edge(marked.piece.middle)
    return (middle.start.moved(turn).y + middle.end.moved(turn).y) / 2


def _bar(marked: MarkedPiece, turn: Transform) -> float | None:
    """Where along the cloth the first level of the body lies that a piece has: bars are laid on it in every piece alike."""
    piece = marked.piece
    for level in LEVELS:
        line = piece.level(level)
        if line is not None:
            at = line.lines[0][0].moved(turn)
            return at.x
    pitch = next((edge.place(n.along).point for edge in piece.edges for n in edge.notches if n.name == "pitch"), None)
    return None if pitch is None else pitch.moved(turn).x


def _stripe(marked: MarkedPiece, turn: Transform) -> float | None:
    """Where across the cloth the middle of the body lies on a piece: the middle of a stripe is laid on it."""
    for edge in marked.piece.edges:
        if centre(edge.role) and edge.name == (marked.piece.middle or edge.name):
            return (edge.start.moved(turn).y + edge.end.moved(turn).y) / 2
    return None


def too_wide(shapes: Sequence[Cutout], table: OnTable) -> list[Saying]:
    """The pieces that cannot lie on a cloth, each with its figures."""
    found = []
    for shape in {(s.piece, s.of): s for s in shapes}.values():
        need = min(max(y for _, y in shape.posed(turned)) for turned in table.turns)
        if need > table.high + 1e-6:
            whose = f" of {shape.of}" if shape.of else ""
            half = " to the fold" if table.folded else " between the selvedges"
            other = (
                "open it out"
                if table.folded and not shape.on_fold and need <= table.width - 2 * table.selvedge
                else "join the piece, or turn it to the cross grain"
            )
            words = f"{shape.title}{whose} is {{0u}} across the grain; the cloth has {{1u}}{half}: {{2u}} too little. Take a wider cloth, {other}."
            found.append(say(words, need, table.high, need - table.high))
    return found
