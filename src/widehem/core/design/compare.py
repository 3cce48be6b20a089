"""Two drafts of one wearer laid over each other: what differs in lengths, girths, areas and darts."""

from __future__ import annotations

from collections.abc import Callable

from fontTools.misc.transform import Transform

from widehem.core.design.make import Made
from widehem.core.geometry.points import Point
from widehem.core.pattern.check import Case
from widehem.core.pattern.checks.body import finished
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import edge_of, plain
from widehem.core.values import record

WORTH_TELLING = 0.05  # cm, and square cm for areas


@record(frozen=True)
class Row:
    """One figure of both drafts; None where one has no such thing. area: square centimetres instead of a length."""

    group: str
    name: str
    first: float | None
    second: float | None
    area: bool = False

    @property
    def by(self) -> float | None:
        return None if self.first is None or self.second is None else self.second - self.first

    @property
    def differs(self) -> bool:
        return self.first is None or self.second is None or abs(self.second - self.first) >= WORTH_TELLING


def compare_made(first: Made, second: Made) -> tuple[Row, ...]:
    """Everything both can be held against each other in: like edges, girths, dart intakes, areas, common points."""
    a, b = first.garment, second.garment
    return (
        *_rows("Edges", _edges(a), _edges(b)),
        *_rows("Girths", _girths(first), _girths(second)),
        *_rows("Darts", _darts(a), _darts(b)),
        *_rows("Areas", _areas(a), _areas(b), area=True),
    )


def _rows(group: str, a: dict[str, float], b: dict[str, float], *, area: bool = False) -> list[Row]:
    return [Row(group, name, a.get(name), b.get(name), area) for name in dict.fromkeys((*a, *b))]


def _edges(garment: Garment) -> dict[str, float]:
    return {edge_of(piece.name, edge.name): edge.length for piece in garment.pieces for edge in piece.edges}


def _girths(made: Made) -> dict[str, float]:
    case = Case(made.garment, made.demands, made.wear, made.draft.limits)
    return {girth.title.lower(): finished(case, girth) for girth in made.girths}


def _darts(garment: Garment) -> dict[str, float]:
    found: dict[str, float] = {}
    for piece in garment.pieces:
        for edge in piece.edges:
            if edge.darts:
                found[f"{edge_of(piece.name, edge.name)}, darts together"] = sum(dart.intake for dart in edge.darts)
    return found


def _areas(garment: Garment) -> dict[str, float]:
    return {plain(piece.name): piece.area for piece in garment.pieces}


def _middle(piece: Piece, *, end: bool) -> Point:
    edge = piece.edge(piece.middle) if piece.middle else piece.edges[0]
    return edge.end if end else edge.start


def _at(role: str, *, end: bool) -> Callable[[Piece], Point]:
    """An end of the edge of a role; where a piece has none, its middle."""

    def point(piece: Piece) -> Point:
        found = piece.edges_of(role)
        if not found:
            return _middle(piece, end=True)
        return found[-1].end if end else found[0].start

    return point


ALIGN: dict[str, tuple[str, Callable[[Piece], Point]]] = {
    "waist": ("Centre at the waist", lambda piece: _middle(piece, end=True)),
    "top": ("Other end of the centre", lambda piece: _middle(piece, end=False)),
    "underarm": ("Underarm", _at("armhole", end=False)),
    "tip": ("Shoulder tip", _at("armhole", end=True)),
    "side": ("Side at the waist", _at("side", end=False)),
}


Pair = tuple[tuple[Piece, ...], tuple[Piece, ...], Transform]


def laid_over(first: Made, second: Made, at: str) -> list[Pair]:
    """Pieces of one name from both, as they lie, and how the second is moved onto the first so that they meet at a place. Drafts by
    one method lie as they were drawn, so that what was cut off a piece lies on it, where only one of them has a middle to meet at."""
    if first.method is second.method and _cut_otherwise(first, second):
        return _as_drawn(first, second)
    anchor = ALIGN[at][1]
    others = {piece.name: piece for piece in second.laid}
    pairs: list[Pair] = []
    for piece in first.laid:
        other = others.get(piece.name)
        if other is not None:
            here, there = anchor(piece), anchor(other)
            pairs.append(((piece,), (other,), Transform().translate(here.x - there.x, here.y - there.y)))
    return pairs


def _cut_otherwise(first: Made, second: Made) -> bool:
    """Whether drafts of one block are cut into other pieces, or have a middle where the other has none."""
    a, b = ({piece.name: bool(piece.middle) for piece in made.garment.shell} for made in (first, second))
    return a != b


def _as_drawn(first: Made, second: Made) -> list[Pair]:
    """What became of each piece of the block in both, in its frame; what came new is left out."""
    pairs: list[Pair] = []
    for piece in first.draft.garment.shell:
        mine, others = (
            tuple(now for now in made.garment.shell if piece.name in (now.name, _origins(made).get(now.name)))
            for made in (first, second)
        )
        if mine or others:
            pairs.append((mine, others, Transform()))
    return pairs


def _origins(made: Made) -> dict[str, str]:
    """Of which piece of the draft an edge has come to lie on each piece."""
    return {entry.piece: ref.piece for ref, chain in made.garment.now.items() for entry in chain}
