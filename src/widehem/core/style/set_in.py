"""Setting a sleeve into its bodice: the cap is divided at its notches, and each part sewn to its part of the armhole."""

from __future__ import annotations

from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Chain, Garment, Seam, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import divided
from widehem.core.values import replace

SHOULDER, SIDE_NOTCH = "shoulder", "side seam"
CAP_BACK, CAP_FRONT, CAP_LOW = "cap_back", "cap_front", "cap_low"


def set_in(bodice: Garment, sleeve: Garment) -> Garment | None:
    """A bodice with its sleeve: the cap is divided at its shoulder notch and each half runs along its armhole.

    A sleeve whose own seam runs behind the arm has a notch that meets the side as well: its head is in three, and the back
    armhole is divided where that seam meets it. None where there is no armhole, no cap or no shoulder notch.
    """
    caps = [(piece, edge) for piece, edge in sleeve.edges_of("cap")]
    if bodice.armholes is None or len(caps) != 1:
        return None
    piece, cap = caps[0]
    shoulder, low = cap.notch(SHOULDER), cap.notch(SIDE_NOTCH)
    if shoulder is None:
        return None
    alongs = [shoulder.along] if low is None else [shoulder.along, low.along]
    parts = divided(cap, alongs, (CAP_BACK, CAP_FRONT, CAP_LOW)[: len(alongs) + 1])
    parts = tuple(
        replace(part, notches=tuple(n for n in part.notches if n.name not in (SHOULDER, SIDE_NOTCH))) for part in parts
    )
    piece = replace(piece, edges=tuple(part for edge in piece.edges for part in (parts if edge is cap else (edge,))))
    front, back = bodice.armholes
    pieces = bodice.pieces
    below: Chain = ()
    if low is not None:
        pieces, back, below = _behind(bodice, back, parts)
    whole = Garment((*pieces, piece), bodice.seams)
    seams = [
        _seam(whole, back, piece.name, CAP_BACK, "Cap in the back armhole", behind=low is not None),
        _seam(whole, front, piece.name, CAP_FRONT, "Cap in the front armhole", back=True),
    ]
    if below:
        seams.append(_seam(whole, below, piece.name, CAP_LOW, "Head in the back armhole, below its seam"))
    return replace(whole, seams=tuple(seams))


def _behind(bodice: Garment, back: Chain, parts: tuple[Edge, ...]) -> tuple[tuple[Piece, ...], Chain, Chain]:
    """The back armhole divided where the seam of the sleeve meets it: the pieces, the upper and the lower part."""
    entry = back[0]
    piece, hole = bodice.piece(entry.piece), bodice.edge(entry)
    upper, lower = parts[0].length, parts[2].length
    pair = divided(hole, [hole.length * lower / (lower + upper)], (CAP_LOW, hole.name))
    made = replace(piece, edges=tuple(part for edge in piece.edges for part in (pair if edge is hole else (edge,))))
    pieces = tuple(made if old.name == made.name else old for old in bodice.pieces)
    return pieces, (SeamEdge(piece.name, hole.name), *back[1:]), (SeamEdge(piece.name, CAP_LOW),)


def _seam(
    whole: Garment, armhole: Chain, sleeve: str, cap: str, title: str, *, back: bool = False, behind: bool = False
) -> Seam:
    """The seam between a part of the armhole and a part of the cap, the cap eased into it."""
    part = SeamEdge(sleeve, cap, back)
    over = whole.length_of(armhole) - whole.length_of((part,))
    if behind:
        title = "Head in the back armhole, above its seam"
    return Seam(cap, title, armhole, (part,), (over, over))
