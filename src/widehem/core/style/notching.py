"""Notches set on both sides of a seam, so that each has its partner."""

from __future__ import annotations

from collections.abc import Sequence

from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import Chain, Garment, SeamEdge
from widehem.core.pattern.meeting import PITCH
from widehem.core.values import replace

CLEAR, ALIKE = 0.3, 0.5  # cm from the end of an edge; what stands so near another is that one


def notched(garment: Garment, entry: SeamEdge, notches: Sequence[Notch]) -> Garment:
    """The garment with notches on an edge, and their partners on what is sewn to it; along: on the edge as it is sewn, cm."""
    edge = garment.edge(entry)
    inside = [notch for notch in notches if CLEAR <= notch.along <= edge.length - CLEAR]
    made = garment.with_piece(garment.piece(entry.piece).with_edge(_with(edge, inside)))
    for seam, mine, other in garment.seams_at(entry.ref):
        if seam.twin:
            continue
        at = next(n for n, part in enumerate(mine) if part.ref == entry.ref)
        before = garment.length_of(mine[:at])
        for notch in inside:
            along = before + (edge.length - notch.along if mine[at].back else notch.along)
            made = _on_chain(made, other, replace(notch, along=along))
    return made


def _on_chain(garment: Garment, chain: Chain, notch: Notch) -> Garment:
    left = notch.along
    for part in chain:
        edge = garment.edge(part)
        if left <= edge.length or part is chain[-1]:
            on = min(max(edge.length - left if part.back else left, CLEAR), edge.length - CLEAR)
            if edge.length < 2 * CLEAR:
                return garment
            return garment.with_piece(garment.piece(part.piece).with_edge(_with(edge, [replace(notch, along=on)])))
        left -= edge.length
    return garment


def _with(edge: Edge, notches: Sequence[Notch]) -> Edge:
    """The edge with these notches too; one that stands where there is one already takes its place."""
    rest = [
        old
        for old in edge.notches
        if old.name == PITCH or not any(abs(old.along - new.along) < ALIKE and old.name == new.name for new in notches)
    ]
    return replace(edge, notches=tuple(sorted((*rest, *notches), key=lambda notch: notch.along)))
