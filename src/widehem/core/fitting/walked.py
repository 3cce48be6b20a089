"""What a garment measures where a body is measured: walked along its pieces, its darts shut."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.altering.halves import Half, halves
from widehem.core.altering.upper import chest_of, neck_point, side_at, tip, underarm
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.roles import BACK, FRONT
from widehem.core.shifting.shift import ruled
from widehem.core.shifting.spots import Target
from widehem.core.style.operation import CannotStyle

GIRTHS = ("bust", "waist", "hip", "high_hip", "under_bust")
LIMBS = ("thigh", "knee", "calf", "ankle")
ARCS = {"bust_front": "bust", "waist_front": "waist", "hip_front": "hip"}
MIDDLES = {BACK: ("centre_back", "crotch"), FRONT: ("centre_front", "front_edge")}
LENGTHS = {
    BACK: ("nape_waist", "snp_waist_back", "across_back"),
    FRONT: ("front_neck_waist", "snp_waist_front", "across_chest"),
}


def walked(garment: Garment) -> dict[str, float]:
    """By the code of the measure, cm: what can be walked on this garment, and nothing of what cannot."""
    return {code: value for code, value in _all(garment) if value > 0.1}


def _all(garment: Garment) -> Iterator[tuple[str, float]]:
    waist = garment.round_of("waist")
    for level in GIRTHS:
        yield level, waist if level == "waist" and waist else garment.girth(level)
    for level in LIMBS:
        yield level, garment.girth(level, limb=True)
    for code, level in ARCS.items():
        fronts = [piece for piece in garment.shell if piece.of == FRONT]
        if garment.girth(level):
            yield code, sum(piece.weight() * piece.across(level) for piece in fronts)
    yield "neck", garment.round_of("neck")
    holes = garment.armholes
    if holes is not None:
        yield "armscye", sum(garment.length_of(chain) for chain in holes)
    shoulder = garment.one_side("shoulder", part=FRONT)
    if shoulder:
        yield "shoulder", garment.length_of(shoulder)
    for part in (BACK, FRONT):
        for half in halves(garment, "neck", "armhole", "shoulder", part=part)[:1]:
            yield from _upper(half, part)
    yield from _lower(garment)
    bicep = garment.girth("bicep", limb=True)
    yield "upper_arm", bicep


def _waist(half: Half) -> tuple[Point, Point] | None:
    """Where the waist of a half lies: its line, or the straight between the ends of its edge there."""
    line, edge = half.piece.level("waist"), half.edge("waist")
    if edge is not None:
        return edge.start, edge.end
    return line.lines[0] if line is not None else None


def _upper(half: Half, part: str) -> Iterator[tuple[str, float]]:
    middle, plumb, across = LENGTHS[part]
    piece, waist = half.piece, _waist(half)
    edge = half.edge(*MIDDLES[part])
    snp, end = neck_point(half), tip(half)
    if edge is not None and waist is not None:
        yield middle, _down_to(half, edge)
    if snp is not None and waist is not None:
        at, low = half.at(snp), _below(half, half.at(snp).x)
        bust = piece.marks.get("bust_point") if part == FRONT else None
        if low is not None:
            yield plumb, low.y - at.y if bust is None else at.to(bust) + low.y - bust.y
        if bust is not None:
            yield "bust_depth", at.to(bust)
            yield "bust_span", 2 * abs(bust.x)
    try:
        target = chest_of(half)
    except CannotStyle:
        return
    yield across, 2 * abs(_shut(half, target).x)
    under = underarm(half)
    if under is not None and part == BACK:
        nape = piece.marks.get("nape") or (
            half.at(corner) if (corner := half.corner("neck", "centre_back")) is not None else None
        )
        if nape is not None:
            yield "armscye_depth", half.at(under).y - nape.y
        side, low_side = half.edge("side"), side_at(half, "waist")
        if side is not None and low_side is not None:
            yield "underarm_waist", _between(half, side, under, low_side)
    if snp is not None and end is not None and part == BACK:
        yield "shoulder_drop", _shut(half, end).y - half.at(snp).y


def _shut(half: Half, target: Target) -> Point:
    """Where a place lies once the bust darts are shut."""
    ready = ruled(half.piece, [target])
    nodes = ready.by_target.get(target, ())
    return ready.shut[nodes[0]] if nodes else half.at(target)


def _down_to(half: Half, edge: Edge) -> float:
    """An edge along the middle from its upper end down to the waist."""
    line = half.piece.level("waist")
    down = edge.start.y < edge.end.y
    along = edge.at_line(*line.straight) if line is not None else None
    if half.edge("waist") is not None or along is None:
        return edge.length
    return along if down else edge.length - along


def _below(half: Half, x: float) -> Point | None:
    """Where the waist is plumb below a place."""
    edge, line = half.edge("waist"), half.piece.level("waist")
    if edge is not None:
        for part in edge.parts:
            for index, t in part.crossings(Point(x, 0.0), Point(0.0, 1.0)):
                return part.segments[index].at(t)
        near = min((p for part in edge.parts for p in (part.start, part.end)), key=lambda p: abs(p.x - x))
        return Point(x, near.y)
    return Point(x, line.height) if line is not None else None


def _between(half: Half, edge: Edge, one: Target, two: Target) -> float:
    """Along an edge from one place of it to another."""

    def along(target: Target) -> float:
        if target.kind == "edge":
            return target.along
        return 0.0 if target.name == edge.name else edge.length

    return abs(along(one) - along(two))


def _lower(garment: Garment) -> Iterator[tuple[str, float]]:
    legs = [(piece, edge) for piece, edge in garment.edges_of("inseam") if piece.stands != "left" and edge.hand != "left"]
    if legs:
        yield "inside_leg", min(edge.length for _, edge in legs)
        crotch = garment.one_side("crotch")
        if crotch and not garment.armholes:
            yield "crotch_length", garment.length_of(crotch)
    for piece in garment.shell:
        levels = piece.levels
        if piece.of == BACK and "hip" in levels and not piece.edges_of("armhole"):
            half = Half(piece)
            top, low, side = half.corner("waist", "side"), side_at(half, "hip"), half.edge("side")
            if top is not None and low is not None and side is not None:
                yield "waist_hip", _between(half, side, top, low)
                return
