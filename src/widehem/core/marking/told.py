"""What the making card tells of the allowances: how far in each seam is sewn, what of it is there to let out, and which hem has more
cloth at its edge than where it lies."""

from __future__ import annotations

from collections.abc import Sequence

from widehem.core.geometry.points import Point
from widehem.core.marking.piece import MarkedPiece
from widehem.core.marking.turned_up import surplus
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import edge_of
from widehem.core.units import Display, Saying, say

EASED = 0.15  # of its length: more than so much surplus of a hem is not eased in


def sew_at(garment: Garment, pieces: Sequence[MarkedPiece], show: Display) -> tuple[str, ...]:
    """Sentences: the distances from the cut edge at which the seams are sewn, the least first; then the hems that do not lie flat by
    themselves."""
    by_name = {marked.piece.name: marked for marked in pieces}
    found: dict[tuple[float, float], dict[str, None]] = {}
    for seam in garment.seams:
        for entry in seam.first:
            marked = by_name[entry.piece]
            amount, spare = marked.amounts[entry.edge], marked.spare.get(entry.edge, 0.0)
            if amount > 0:
                found.setdefault((amount, spare), {})[seam.title[:1].lower() + seam.title[1:]] = None
    rows = [
        f"Sew at {show.constant(amount)} {show.unit}{_spare(spare, show)}: {', '.join(titles)}."
        for (amount, spare), titles in sorted(found.items())
    ]
    return (*rows, *_hems(pieces, show))


def _spare(spare: float, show: Display) -> str:
    return f", of which {show.constant(spare)} is there to be let out" if spare else ""


LEAST = 0.3  # cm of surplus that is told


def _hems(pieces: Sequence[MarkedPiece], show: Display) -> list[str]:
    rows = [(m.piece, edge, m.amounts[edge.name]) for m in pieces for edge in m.piece.edges]
    found = [hem_lies(piece, edge, depth) for piece, edge, depth in rows]
    return [saying.text(show) for saying in found if saying is not None]


def hem_lies(piece: Piece, edge: Edge, depth: float) -> Saying | None:
    """What to do with a hem of this depth, cm, that is longer or shorter at its edge than where it is sewn; None where it lies flat."""
    if edge.kind != "hem" or not depth:
        return None
    more = surplus(edge, depth, -1.0 if piece.outward(Point(1.0, 0.0)).y > 0 else 1.0)
    where = edge_of(piece.title.lower(), edge.name)
    if more > LEAST:
        how = "ease it in along its edge" if more < EASED * edge.length else "face it, or take a narrower hem"
        return say(f"The {where} is {{0u}} longer at its edge than where it is sewn: {how}.", more)
    if more < -LEAST:
        return say(f"The {where} is {{0u}} shorter at its edge than where it is sewn: clip it, or face it.", -more)
    return None
