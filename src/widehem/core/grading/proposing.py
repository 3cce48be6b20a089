"""Proposed rules done to a garment: every spot by its own shift, caps solved for their armholes."""

from __future__ import annotations

from widehem.core.design.make import with_garment
from widehem.core.drafting.cap import Armhole
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import NoSolutionError, settle
from widehem.core.grading.apply import Shifted
from widehem.core.grading.propose import Moves
from widehem.core.grading.sized import Sized
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import Piece
from widehem.core.shifting.demands import asked_in_size, notches_laid
from widehem.core.shifting.shift import ruled, shifted
from widehem.core.shifting.spots import Target, place_of
from widehem.core.values import replace

EVEN = 1e-3  # cm


def by_proposal(
    base: Sized, drawn: Sized, moves: Moves, armholes: tuple[Armhole | None, Armhole | None] = (None, None)
) -> Sized:
    """The base with every spot moved as was proposed, asked what is asked of that size. armholes: of a sleeve by itself, of the base
    and of the size. Raises PatternError."""
    pieces = {}
    for piece in base.garment.pieces:
        found = moves.get(piece.name, {})
        if found and any(move.size > 1e-9 for move in found.values()):
            ready = ruled(piece, found, shut=False)
            pieces[piece.name] = shifted(ready, found)
    garment = with_caps(base.garment, base.garment.with_pieces(pieces), moves, armholes)
    names = [seam.name for seam in garment.seams]
    seams = drawn.garment.seams if [seam.name for seam in drawn.garment.seams] == names else garment.seams
    garment = _notched(replace(garment, seams=seams, openings=drawn.garment.openings), drawn.garment)
    garment = notches_laid(garment, drawn.demands)
    made = with_garment(drawn.made, garment, asked_in_size(drawn.demands))
    return replace(drawn, made=made, shifted=Shifted(garment, moves, {}))


def _notched(garment: Garment, drawn: Garment) -> Garment:
    """Notches as far along their edges as in the redraft, in proportion to the length of the edge."""
    for piece in garment.pieces:
        edges = []
        for edge in piece.edges:
            other = drawn.piece(piece.name).edge(edge.name)
            if [n.name for n in edge.notches] == [n.name for n in other.notches] and edge.notches and other.length:
                scale = edge.length / other.length
                edge = replace(
                    edge,
                    notches=tuple(
                        replace(mine, along=n.along * scale) for mine, n in zip(edge.notches, other.notches, strict=True)
                    ),
                )
            edges.append(edge)
        garment = garment.with_piece(piece.with_on_it(edges=tuple(edges)))
    return garment


def with_caps(
    before: Garment, now: Garment, moves: Moves, armholes: tuple[Armhole | None, Armhole | None] = (None, None)
) -> Garment:
    """Caps with the ease they had before: their heights raised until they have. moves: how they were shifted; armholes: those a sleeve by
    itself is drawn for."""
    cap = before.one_side("cap")
    if not cap or len({entry.piece for entry in cap}) != 1:
        return now
    if armholes[0] is not None and armholes[1] is not None:
        holes = armholes[0].whole, armholes[1].whole
    elif before.armholes is not None and now.armholes is not None:
        holes = _armhole(before), _armhole(now)
    else:
        return now
    name = cap[0].piece
    piece, mine = before.piece(name), moves.get(name, {})
    want = before.length_of(cap) - holes[0] + holes[1]
    edges = [entry.edge for entry in cap]
    heights = [
        t
        for t in mine
        if (t.kind == "edge" and t.name in edges)
        or (t.kind == "corner" and t.name in edges and piece.beside(t.name)[0].name in edges)
    ]
    if not heights:
        return now
    ready = ruled(piece, mine, shut=False)
    found: list[Piece] = []

    def off(factor: float) -> float:
        raised = {t: Point(m.x, m.y - (factor - 1.0) * _share(piece, edges, t)) if t in heights else m for t, m in mine.items()}
        found[:] = [shifted(ready, raised)]
        return sum(found[0].edge(edge).length for edge in edges) - want

    try:
        settle(off, 1.0, slope=2.0, near=EVEN)
    except NoSolutionError:
        return now
    return now.with_piece(found[0])


def _armhole(garment: Garment) -> float:
    return sum(garment.length_of(chain) for chain in garment.armholes or ())


def _share(piece: Piece, edges: list[str], target: Target) -> float:
    """How far up its cap a place lies, 0 to 1: the crown goes all the way with a change of height."""
    ends = [piece.edge(edges[0]).start, piece.edge(edges[0]).end, piece.edge(edges[-1]).start, piece.edge(edges[-1]).end]
    low = max(end.y for end in ends)
    top = min(segment.end.y for edge in edges for part in piece.edge(edge).parts for segment in part.segments)
    at = place_of(piece, target)
    return (low - at.y) / (low - top) if at is not None and low - top > 1e-6 else 0.0
