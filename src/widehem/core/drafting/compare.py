"""Two drafts of one wearer laid over each other: what differs in lengths, girths, areas and darts."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from fontTools.misc.transform import Transform

from widehem.core.drafting.method import Draft
from widehem.core.geometry.points import Point
from widehem.core.pattern.block import Block
from widehem.core.pattern.piece import Piece

WORTH_TELLING = 0.05  # cm, and square cm for areas


@dataclass(frozen=True)
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


def compare_drafts(first: Draft, second: Draft) -> tuple[Row, ...]:
    """Everything both can be held against each other in: like edges, girths, dart intakes, areas, common points."""
    a, b = first.block, second.block
    return (
        *_rows("Edges", _edges(a), _edges(b)),
        *_rows("Girths", _girths(a), _girths(b)),
        *_rows("Darts", _darts(a), _darts(b)),
        *_rows("Areas", _areas(a), _areas(b), area=True),
    )


def _rows(group: str, a: dict[str, float], b: dict[str, float], *, area: bool = False) -> list[Row]:
    return [Row(group, name, a.get(name), b.get(name), area) for name in dict.fromkeys((*a, *b))]


def _edges(block: Block) -> dict[str, float]:
    return {f"{piece.name} {edge.name.replace('_', ' ')}": edge.length for piece in block.pieces for edge in piece.edges}


def _girths(block: Block) -> dict[str, float]:
    return {level.title.lower(): block.girth(level) for level in block.levels}


def _darts(block: Block) -> dict[str, float]:
    found: dict[str, float] = {}
    for piece in block.pieces:
        for edge in piece.edges:
            if edge.darts:
                found[f"{piece.name} {edge.name}, darts together"] = sum(dart.intake for dart in edge.darts)
    return found


def _areas(block: Block) -> dict[str, float]:
    return {piece.name: piece.area for piece in block.pieces}


def _centre_end(piece: Piece) -> Point:
    return piece.edge(piece.centre).end if piece.centre else piece.edges[0].end


def _centre_start(piece: Piece) -> Point:
    return piece.edge(piece.centre).start if piece.centre else piece.edges[0].start


def _edge_point(edge: str, *, end: bool) -> Callable[[Piece], Point]:
    def point(piece: Piece) -> Point:
        found = next((e for e in piece.edges if e.name == edge), None)
        if found is None:
            return _centre_end(piece)
        return found.end if end else found.start

    return point


ALIGN: dict[str, tuple[str, Callable[[Piece], Point]]] = {
    "waist": ("Centre at the waist", _centre_end),
    "top": ("Other end of the centre", _centre_start),
    "underarm": ("Underarm", _edge_point("armhole", end=False)),
    "tip": ("Shoulder tip", _edge_point("armhole", end=True)),
    "side": ("Side at the waist", _edge_point("side", end=False)),
}


def laid_over(first: Draft, second: Draft, at: str) -> list[tuple[Piece, Piece, Transform]]:
    """Pieces of one name from both, and how the second is moved onto the first so that they meet at a place."""
    anchor = ALIGN[at][1]
    pairs = []
    for piece in first.block.pieces:
        other = next((p for p in second.block.pieces if p.name == piece.name), None)
        if other is not None:
            here, there = anchor(piece), anchor(other)
            pairs.append((piece, other, Transform().translate(here.x - there.x, here.y - there.y)))
    return pairs
