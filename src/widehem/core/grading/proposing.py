"""Proposed rules done to a garment: every spot by its own shift, caps solved for their armholes."""

from __future__ import annotations

from dataclasses import replace
from typing import TYPE_CHECKING

from widehem.core.design.make import with_garment
from widehem.core.drafting.cap import Armhole
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import NoSolutionError, settle
from widehem.core.grading.apply import Shifted, replace_pieces
from widehem.core.grading.demands import asked_in_size, notches_laid
from widehem.core.grading.propose import Moves
from widehem.core.grading.shift import ruled, shifted
from widehem.core.grading.spots import Target
from widehem.core.pattern.garment import Garment

if TYPE_CHECKING:
    from widehem.core.grading.nest import Sized

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
    garment = _caps(base.garment, replace_pieces(base.garment, pieces), moves, armholes)
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


def _caps(before: Garment, now: Garment, moves: Moves, armholes: tuple[Armhole | None, Armhole | None]) -> Garment:
    """Caps with the ease they had: their heights times one factor."""
    cap = before.one_side("cap")
    if len(cap) != 1:
        return now
    if armholes[0] is not None and armholes[1] is not None:
        holes = armholes[0].whole, armholes[1].whole
    elif before.armholes is not None and now.armholes is not None:
        holes = tuple(sum(garment.length_of(chain) for chain in garment.armholes or ()) for garment in (before, now))  # type: ignore[assignment]
    else:
        return now
    name, edge = cap[0].piece, cap[0].edge
    want = before.edge(cap[0]).length - holes[0] + holes[1]
    mine = moves.get(name, {})
    heights = [t for t in mine if t.kind == "edge" and t.name == edge]
    ready = ruled(before.piece(name), mine, shut=False)
    found = dict[str, object]()

    def off(factor: float) -> float:
        raised = {t: Point(m.x, m.y - (factor - 1.0) * _share(before, name, t)) if t in heights else m for t, m in mine.items()}
        found["piece"] = shifted(ready, raised)
        return found["piece"].edge(edge).length - want  # type: ignore[attr-defined, no-any-return]

    try:
        settle(off, 1.0, slope=2.0, near=EVEN)
    except NoSolutionError:
        return now
    return now.with_piece(found["piece"])  # type: ignore[arg-type]


def _share(garment: Garment, name: str, target: Target) -> float:
    """How far up its cap a joint lies, 0 to 1: the crown goes all the way with a change of height."""
    edge = garment.piece(name).edge(target.name)
    low = max(edge.start.y, edge.end.y)
    top = min(segment.end.y for part in edge.parts for segment in part.segments)
    at = edge.place(target.along).point
    return (low - at.y) / (low - top) if low - top > 1e-6 else 0.0
