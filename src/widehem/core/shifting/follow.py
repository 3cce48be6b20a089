"""Pieces that follow others: what lies edge on edge with a shifted piece takes its shifts along that edge."""

from __future__ import annotations

import math

from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.solve import NoSolutionError, settle
from widehem.core.pattern.garment import Garment, Seam, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.shifting.net import net_of
from widehem.core.shifting.shift import Ruled, ruled, shifted
from widehem.core.shifting.spots import Target

NEAR = 1e-3  # cm


def followed(before: Garment, now: Garment, done: set[str]) -> tuple[Garment, dict[str, dict[Target, Point]]]:
    """Facings and what else lies edge on edge on pieces that are done, each shifted as they were along the shared edges. What they
    have beyond goes with the nearest of that. Returns the garment, and by piece how its spots moved."""
    moves: dict[str, dict[Target, Point]] = {}
    while True:  # what hangs on what hangs on them comes in the next turn: a collar on its stand
        ready = done | set(moves)
        found = {name: shifts for name, shifts in _faced(before, now, ready).items() if shifts}
        for name, shifts in found.items():
            now = now.with_piece(shifted(ruled(before.piece(name), shifts), shifts))
        for piece in before.pieces:
            if piece.name not in ready and piece.name not in found:
                stretched = _stretched(before, now, piece, ready)
                if stretched is not None:
                    found[piece.name], longer = stretched
                    now = now.with_piece(longer)
        if not found:
            return now, moves
        moves |= found


def _faced(before: Garment, now: Garment, ready: set[str]) -> dict[str, dict[Target, Point]]:
    """How the spots move of all that lies edge on edge on pieces that are ready."""
    moves: dict[str, dict[Target, Point]] = {}
    for piece in before.pieces:
        if piece.name in ready:
            continue
        found = moves.setdefault(piece.name, {})
        for seam in before.seams:
            for mine, other in ((seam.first, seam.second), (seam.second, seam.first)):
                if seam.faced and mine[0].piece == piece.name and other[0].piece in ready:
                    found.update(_along(before, now, seam, mine, other))
    return moves


def _stretched(before: Garment, now: Garment, piece: Piece, done: set[str]) -> tuple[dict[Target, Point], Piece] | None:
    """A band, a cuff, a frill: longer along the seam that holds it by what the other side grew; None for what hangs on nothing that
    was shifted. Its middle, else the beginning of the seam, stays."""
    for seam in before.seams:
        for mine, other in ((seam.first, seam.second), (seam.second, seam.first)):
            if (
                seam.twin
                or seam.faced
                or len(mine) != 1
                or mine[0].piece != piece.name
                or any(e.piece not in done for e in other)
            ):
                continue
            grew = now.length_of(other) - before.length_of(other)
            edge = piece.edge(mine[0].edge)
            if abs(grew) < NEAR or edge.start.to(edge.end) < 1.0:
                continue
            way = (edge.end - edge.start).unit()
            first = edge.start
            if (piece.middle and edge.end.to(piece.edge(piece.middle).start) < NEAR) or (
                piece.middle and edge.end.to(piece.edge(piece.middle).end) < NEAR
            ):
                way, first = -way, edge.end
            long = edge.start.to(edge.end)
            targets = [Target("corner", e.name) for e in piece.edges]
            ready = ruled(piece, targets)

            def moved(
                figure: float, way: Point = way, first: Point = first, long: float = long, targets: list[Target] = targets
            ) -> dict[Target, Point]:
                return {
                    t: way * (figure * min(max(way.dot(piece.edge(t.name).start - first) / long, 0.0), 1.2)) for t in targets
                }

            def off(figure: float, ready: Ruled = ready, name: str = edge.name, want: float = edge.length + grew) -> float:
                return shifted(ready, moved(figure)).edge(name).length - want

            try:
                found = moved(settle(off, grew, near=NEAR / 10))
            except NoSolutionError:
                continue
            return found, shifted(ready, found)
    return None


def _along(
    before: Garment, now: Garment, seam: Seam, mine: tuple[SeamEdge, ...], other: tuple[SeamEdge, ...]
) -> dict[Target, Point]:
    """How the places of a chain move that lies on another: ends, and joints of both."""
    found: dict[Target, Point] = {}
    gone = 0.0
    whole = sum(before.edge(entry).length for entry in mine)
    for entry in mine:
        piece, edge = before.piece(entry.piece), before.edge(entry)
        along = _places_of(piece, entry) | _others(before, other, gone, edge.length)
        for at in sorted(along):
            inside = at if not entry.back else edge.length - at
            move = _move_at(before, now, other, gone + at, whole)
            if move is None:
                continue
            turned = move.moved(turn(Point(0.0, 0.0), _angle(before, entry, at, other, gone + at)))
            found[_target(piece, entry, inside)] = turned
        gone += edge.length
    return found


def _places_of(piece: Piece, entry: SeamEdge) -> set[float]:
    """How far along a chain's edge its nodes lie, as it is walked, cm."""
    net = net_of(piece)
    number = next(n for n, edge in enumerate(piece.edges) if edge.name == entry.edge)
    whole = piece.edges[number].length
    found = {0.0, whole}
    found |= {at for (edge, _), at in net.alongs.items() if edge == number}
    return {whole - at if entry.back else at for at in found}


def _others(garment: Garment, chain: tuple[SeamEdge, ...], start: float, long: float) -> set[float]:
    """The nodes of the other chain, as they lie along a stretch of this one."""
    found, gone = set[float](), 0.0
    for entry in chain:
        for at in _places_of(garment.piece(entry.piece), entry):
            here = gone + at - start
            if NEAR < here < long - NEAR:
                found.add(here)
        gone += garment.edge(entry).length
    return found


def _entry_at(garment: Garment, chain: tuple[SeamEdge, ...], along: float) -> tuple[SeamEdge, float] | None:
    for number, entry in enumerate(chain):
        length = garment.edge(entry).length
        if along <= length + NEAR or number == len(chain) - 1:
            return (entry, min(max(along, 0.0), length)) if along <= length + NEAR else None
        along -= length
    return None


def _move_at(before: Garment, now: Garment, chain: tuple[SeamEdge, ...], along: float, whole: float) -> Point | None:
    """How a place of a chain moved: nodes go with nodes, what lies between by its share of the span."""
    found = _entry_at(before, chain, along)
    if found is None:
        return None
    entry, at = found
    old, new = before.edge(entry), now.edge(entry)
    inside = old.length - at if entry.back else at
    gone = gone_new = 0.0
    for part, part_new in zip(old.parts, new.parts, strict=True):
        if len(part.segments) == len(part_new.segments):
            pairs = list(zip(part.segments, part_new.segments, strict=True))
        else:  # it was given joints by the way: as far along, in proportion
            share = (inside - gone) / part.length if part.length else 0.0
            if share <= 1 + 1e-9:
                return part_new.place(share * part_new.length).point - part.place(share * part.length).point
            gone += part.length
            continue
        for segment, segment_new in pairs:
            length = segment.length
            if inside <= gone + length + NEAR:
                share = min(max((inside - gone) / length, 0.0), 1.0) if length else 0.0
                t, t_new = segment.t_at_length(share * length), segment_new.t_at_length(share * segment_new.length)
                return segment_new.at(t_new) - segment.at(t)
            gone += length
            gone_new += segment_new.length
    return new.end - old.end


def _angle(garment: Garment, entry: SeamEdge, at: float, chain: tuple[SeamEdge, ...], along: float) -> float:
    """The turn that lays the way the other chain runs on the way this one runs, radians."""
    one = garment.edge(entry)
    found = _entry_at(garment, chain, along)
    if found is None:
        return 0.0
    other, there = garment.edge(found[0]), found[1]
    here = one.place(one.length - at if entry.back else at).direction
    way = other.place(other.length - there if found[0].back else there).direction
    here, way = (-here if entry.back else here), (-way if found[0].back else way)
    angle = math.atan2(way.cross(here), way.dot(here))
    return angle if abs(angle) > 0.02 else 0.0


def _target(piece: Piece, entry: SeamEdge, inside: float) -> Target:
    edge = piece.edge(entry.edge)
    if inside < NEAR:
        return Target("corner", entry.edge)
    if inside > edge.length - NEAR:
        return Target("corner", piece.beside(entry.edge)[1].name)
    return Target("edge", entry.edge, inside)
