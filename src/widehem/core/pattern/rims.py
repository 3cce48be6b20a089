"""Rims: rows of edges of one kind that run on over the seams of a garment, round the neck, the waist, an armhole, a hem."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.pattern.garment import Chain, Garment, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, FRONT, centre


def rims(garment: Garment, role: str, *, part: str = "") -> tuple[Chain, ...]:
    """The rims of a role on one side of the body, each from the centre back (or where it begins otherwise) to its other end."""
    left = {entry.ref: entry for entry in garment.one_side(role, part=part)}
    found = []
    while left:
        chain = _whole(garment, next(iter(left.values())), role)
        for entry in chain:
            left.pop(entry.ref, None)
        found.append(_from_the_back(garment, chain))
    return tuple(found)


def rim_through(garment: Garment, piece: str, edge: str) -> Chain:
    """The rim that runs through an edge."""
    entry = SeamEdge(piece, edge)
    return _from_the_back(garment, _whole(garment, entry, garment.edge(entry).role))


def _whole(garment: Garment, entry: SeamEdge, role: str) -> Chain:
    row = [entry]
    for at_end in (True, False):
        while True:
            last = row[-1] if at_end else row[0]
            after = next_on(garment, last, role, at_end=at_end)
            if after is None or after.ref in {old.ref for old in row}:
                break
            if at_end:
                row.append(after)
            else:
                row.insert(0, after.turned())
    return tuple(row)


def next_on(garment: Garment, entry: SeamEdge, role: str, *, at_end: bool) -> SeamEdge | None:
    """The edge of a role that follows beyond the seam in which an edge ends, as it is walked away from there; None where there
    is none."""
    piece = garment.piece(entry.piece)
    before, after = piece.beside(entry.edge)
    forward = at_end != entry.back  # the corner is the end of the edge itself
    beyond = after if forward else before
    if beyond.role == role and beyond.name != entry.edge:
        return SeamEdge(piece.name, beyond.name, back=not forward)
    for seam, mine, other in garment.seams_at(SeamEdge(piece.name, beyond.name).ref):
        if seam.twin or seam.faced:
            continue
        at_start = _corner_at(mine, piece.name, beyond.name, begins=forward)
        if at_start is None:
            continue
        partner = other[0] if at_start else other[-1]
        there = garment.piece(partner.piece)
        if there.layer != piece.layer:
            continue
        corner_is_start = at_start != partner.back
        neighbours = there.beside(partner.edge)
        neighbour = neighbours[0] if corner_is_start else neighbours[1]
        if neighbour.role == role:
            return SeamEdge(there.name, neighbour.name, back=corner_is_start)
    return None


def _corner_at(chain: Chain, piece: str, edge: str, *, begins: bool) -> bool | None:
    """Whether a corner, the start (begins) or the end of an edge, is the start of a seam, or its end; None where it is neither."""
    for number, entry in enumerate(chain):
        if (entry.piece, entry.edge) == (piece, edge):
            first = begins != entry.back
            if first and number == 0:
                return True
            if not first and number == len(chain) - 1:
                return False
    return None


def _from_the_back(garment: Garment, chain: Chain) -> Chain:
    """The chain walked so that it begins at the centre back, or ends at the centre front, or begins in the back."""
    turned = tuple(entry.turned() for entry in reversed(chain))
    for row in (chain, turned):
        if _meets(garment, row[0], first=True) == "centre_back" or _meets(garment, row[-1], first=False) == "centre_front":
            return row
    for row in (chain, turned):
        if _meets(garment, row[-1], first=False) == "centre_back" or _meets(garment, row[0], first=True) == "centre_front":
            return tuple(entry.turned() for entry in reversed(row))
    first, last = (garment.piece(chain[n].piece).of for n in (0, -1))
    return turned if (first, last) == (FRONT, BACK) else chain


def _meets(garment: Garment, entry: SeamEdge, *, first: bool) -> str:
    """The role of the edge that a chain begins at, or ends at; of a leg the crotch is its middle."""
    piece = garment.piece(entry.piece)
    before, after = piece.beside(entry.edge)
    role = (before if first != entry.back else after).role
    return f"centre_{piece.of}" if role == "crotch" and piece.of in (FRONT, BACK) else role


def closes(garment: Garment, chain: Chain) -> tuple[bool, bool]:
    """Whether a rim begins and ends at the middle of the body."""
    return centre(_meets(garment, chain[0], first=True)), centre(_meets(garment, chain[-1], first=False))


def ends_of(garment: Garment, chain: Chain) -> tuple[str, str]:
    """The roles of what a rim begins and ends at."""
    return _meets(garment, chain[0], first=True), _meets(garment, chain[-1], first=False)


def pieces_of(garment: Garment, chain: Chain) -> Iterator[Piece]:
    for entry in chain:
        yield garment.piece(entry.piece)


def joins(garment: Garment, chain: Chain) -> tuple[float, ...]:
    """Where the edges of a rim meet, along it, cm."""
    found, gone = [], 0.0
    for entry in chain[:-1]:
        gone += garment.edge(entry).length
        found.append(gone)
    return tuple(found)
