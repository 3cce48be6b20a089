"""How each corner of the allowances is finished: a seam that another one runs over is squared off, so that both of its sides end
alike and nothing stands out where it is pressed open."""

from __future__ import annotations

from collections.abc import Mapping

from widehem.core.marking.allowance import Finish
from widehem.core.pattern.closed import corner_of
from widehem.core.pattern.garment import Chain, EdgeRef, Garment

UPRIGHT = 10.0  # degrees: a corner so near a right angle is the same whether it is squared off or carried straight on
FINISHES: Mapping[Finish, str] = {
    "straight": "carried straight on", "square_before": "squared off to the edge before it",
    "square_after": "squared off to the edge after it",
}  # fmt: skip
Corners = dict[str, dict[str, Finish]]


def finishes(garment: Garment, own: Mapping[str, Finish]) -> Corners:
    """By the name of the piece, then by that of an edge, how the corner at its end is finished. own: by 'piece.edge', as the maker
    wants it."""
    found: Corners = {piece.name: {} for piece in garment.pieces}
    for seam in garment.seams:
        if seam.faced or seam.twin:
            continue
        for at_end in (False, True):
            one, two = (corner_of(garment, chain, at_end=at_end) for chain in (seam.first, seam.second))
            if one.beyond.role != two.beyond.role or "fold" in (one.beyond.kind, two.beyond.kind):
                continue
            if _meet(garment, EdgeRef(one.piece.name, one.beyond.name), EdgeRef(two.piece.name, two.beyond.name)):
                continue
            if max(abs(corner.angle - 90) for corner in (one, two)) <= UPRIGHT:
                continue
            for chain in (seam.first, seam.second):
                piece, edge, finish = _corner(garment, chain, at_end=at_end)
                found[piece].setdefault(edge, finish)
    for name, finish in own.items():
        piece, _, edge = name.partition(".")
        if piece in found:
            found[piece][edge] = finish
    return found


def _meet(garment: Garment, one: EdgeRef, two: EdgeRef) -> bool:
    """Whether two edges are sewn to each other: then nothing runs over the seam that ends between them."""
    return any(entry.ref == two for _, _, chain in garment.seams_at(one) for entry in chain)


def _corner(garment: Garment, chain: Chain, *, at_end: bool) -> tuple[str, str, Finish]:
    """The corner in which a side of a seam ends: its piece, the edge before it, and the finish that squares it to the seam."""
    entry = chain[-1 if at_end else 0]
    if at_end != entry.back:
        return entry.piece, entry.edge, "square_before"
    before, _ = garment.piece(entry.piece).beside(entry.edge)
    return entry.piece, before.name, "square_after"
