"""Sewing a new piece to what is there: seams to rims, the ends of closed pieces, notches where seams meet."""

from __future__ import annotations

from widehem.core.pattern.edge import Notch
from widehem.core.pattern.garment import Chain, Garment, SeamEdge
from widehem.core.pattern.meeting import notches_along
from widehem.core.pattern.rims import joins, rim_through
from widehem.core.style.operation import CannotStyle, Job
from widehem.core.units import say


def rim_at(job: Job, code: str, *roles: str) -> Chain:
    """The row of edges that runs on through a place, from the centre back on where it comes there. roles: what it may be."""
    found = job.at[code]
    edge = found.piece.edge(found.spot.edge)
    if roles and edge.role not in roles:
        words = " or ".join(role.replace("_", " ") for role in roles)
        raise CannotStyle(say(f"That is no {words}: choose a place on one."), (code,))
    chain = rim_through(job.garment, found.piece.name, found.spot.edge)
    if any(job.garment.piece(entry.piece).stands in ("left", "right", "once") for entry in chain):
        raise CannotStyle(say("Left and right are apart already: do this before they are parted."), (code,))
    return chain


def joint_notches_on(garment: Garment, chain: Chain, name: str, *, turned: bool = False) -> tuple[Notch, ...]:
    """Notches along an edge that is sewn to a chain: where the edges of the chain meet, and a partner for each of its own; turned:
    the edge runs the other way."""
    whole = garment.length_of(chain)
    rows = [whole - along if turned else along for along in joins(garment, chain)]
    found = [Notch(f"{name} {number}" if len(rows) > 1 else name, along) for number, along in enumerate(sorted(rows), 1)]
    found += [Notch(what, whole - at if turned else at, count) for what, count, at in notches_along(garment, chain)]
    return tuple(sorted(found, key=lambda notch: notch.along))


def chain_of(piece: str, *edges: str) -> Chain:
    return tuple(SeamEdge(piece, edge) for edge in edges)
