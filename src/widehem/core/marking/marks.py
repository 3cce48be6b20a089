"""Notches, drill holes, grain and fold marks, and the words on a piece."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import lru_cache

from shapely import LinearRing, LineString, Polygon, box, contains, intersects, prepare, union_all

from widehem.core.geometry.paths import Place
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Dart, Edge
from widehem.core.pattern.garment import EdgeRef, Garment
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK
from widehem.core.values import record

NOTCH = 0.5  # cm, inwards from the cutting line
DOUBLE = 0.6  # cm between the two of a double notch
DRILLED = {"inside": 1.5, "lowered": 3.0}  # cm from the dart point towards its mouth: by school; lowered 2 and 1 more
DIAMOND_BACK, DRILL_IN = 1.0, 0.3  # cm inside the points of a diamond, and inside its legs where it is widest
GRAIN_SHARE = 0.45
HEM_FOLD = "hem fold"
CLEAR = 3.0  # cm: no balance notch closer to a corner

DART_LEGS = "dart leg, inner", "dart leg, outer"  # they meet each other


@record(frozen=True)
class Notch:
    """A notch: on the cutting line at `at`, its inner end, what it marks, where along the edge it stands (cm)."""

    piece: str
    edge: str
    what: str
    at: Point
    inner: Point
    along: float


@record(frozen=True)
class Label:
    """Lines of words: middle of the block, height of a letter (cm), the lines."""

    middle: Point
    size: float
    lines: tuple[str, ...]


@lru_cache(maxsize=16)
def _exterior(cut: tuple[Point, ...]) -> LinearRing:
    return LinearRing(cut)


def out_to_cut(cut: Sequence[Point], start: Point, way: Point) -> Point:
    """Where a line from the stitching line outwards first leaves the cutting line."""
    reach = start + way.unit() * 40
    crossing = LineString([start, reach]).intersection(_exterior(tuple(cut)))
    spots = [crossing] if crossing.geom_type == "Point" else list(getattr(crossing, "geoms", []))
    near = [Point(g.coords[0][0], g.coords[0][1]) for g in spots if not g.is_empty]
    return min(near, key=start.to) if near else start


def _notch(piece: Piece, edge: str, what: str, place: Place, cut: Sequence[Point], count: int = 1) -> list[Notch]:
    out = piece.outward(place.direction)
    found = []
    for i in range(count):
        shift = place.direction * ((i - (count - 1) / 2) * DOUBLE)
        at = out_to_cut(cut, place.point + shift, out)
        found.append(Notch(piece.name, edge, what, at, at - out * NOTCH, place.along))
    return found


def notches(garment: Garment, piece: Piece, amounts: Mapping[str, float], cut: Sequence[Point]) -> tuple[Notch, ...]:
    """Dart legs, balance levels along the seams (front one, back two), centre lines, opening end, hem fold, and those of the
    edges.

    piece: as it lies where it is marked.
    """
    found: list[Notch] = []
    count = 2 if piece.of == BACK else 1
    opening = garment.opening()
    for edge in piece.edges:
        for dart in edge.darts:
            found += _dart_notches(piece, edge, dart, cut)
        if edge.kind == "seam" and any(True for _ in garment.seams_at(EdgeRef(piece.name, edge.name))):
            for line in piece.balance:
                along = edge.at_line(*line.straight) if line.notched else None
                if along is not None and CLEAR < along < edge.length - CLEAR:
                    found += _notch(piece, edge.name, f"{line.level} level", edge.place(along), cut, count)
            if amounts[edge.name] > 0 and _meets_hem(piece, edge):
                found += _notch(piece, edge.name, HEM_FOLD, edge.place(edge.length), cut)
        if edge.kind == "opening" and opening is not None and 0 < opening.length < edge.length - 0.5:
            found += _notch(piece, edge.name, "opening end", edge.place(_from_the_top(edge, opening.length)), cut)
        if edge.kind == "fold":
            for what, point, way in (
                ("fold at hem", edge.start, edge.start - edge.end),
                ("fold at waist", edge.end, edge.end - edge.start),
            ):
                at = out_to_cut(cut, point - piece.outward(edge.end - edge.start) * 0.02, way)
                found.append(Notch(piece.name, edge.name, what, at, at - way.unit() * NOTCH, edge.start.to(point)))
        for notch in edge.notches:
            found += _notch(piece, edge.name, notch.name, edge.place(notch.along), cut, notch.count)
        if opening is not None and opening.at == "side" == edge.role and piece.layer == "shell" and piece.stands != "right":
            along = _from_the_top(edge, opening.length)
            found += _notch(piece, edge.name, "opening end, left side", edge.place(along), cut)
    return tuple(found)


def _from_the_top(edge: Edge, down: float) -> float:
    """How far along an edge a place lies that is so far from its upper end."""
    return down if edge.start.y < edge.end.y else edge.length - down


def _meets_hem(piece: Piece, edge: Edge) -> bool:
    after = piece.edges[(piece.edges.index(edge) + 1) % len(piece.edges)]
    return after.kind == "hem"


def _dart_notches(piece: Piece, edge: Edge, dart: Dart, cut: Sequence[Point]) -> list[Notch]:
    found = []
    along = sum(part.length for part in edge.parts[: edge.gaps.index(dart) + 1])  # as the edge is sewn
    for what, end in zip(DART_LEGS, (dart.inner, dart.outer), strict=True):
        way = (end - dart.point).unit()
        at = out_to_cut(cut, end, way)
        found.append(Notch(piece.name, edge.name, f"{dart.name} {what}", at, at - way * NOTCH, along))
    return found


def drill_holes(piece: Piece, school: str = "inside") -> tuple[Point, ...]:
    """In the axis of each dart, back from its point: a hole at the point itself would show and weaken the cloth. Of a diamond
    also where it is widest, inside its legs. school: so far inside the point, or of a point that is lowered first."""
    back = DRILLED[school]
    sewn = [dart for dart in piece.darts if dart.sewn is None]
    found = [dart.point + (dart.inner.toward(dart.outer, 0.5) - dart.point).unit() * back for dart in sewn]
    for diamond in piece.diamonds:
        way, across = (diamond.bottom - diamond.top).unit(), (diamond.outer - diamond.inner).unit()
        found += [diamond.top + way * DIAMOND_BACK, diamond.bottom - way * DIAMOND_BACK]
        found += [diamond.inner + across * DRILL_IN, diamond.outer - across * DRILL_IN]
    return tuple(found)


def grain_line(piece: Piece) -> tuple[Point, Point]:
    """Parallel to the centre, a third of the way to the side; on a fold, the fold itself (middle part of it)."""
    if piece.grain is not None:
        return piece.grain
    if not piece.middle:  # along the middle, as a sleeve hangs
        left, up, right, down = piece.bounds
        middle, rest = (left + right) / 2 + (right - left) * 0.06, (down - up) * (1 - GRAIN_SHARE) / 2
        return Point(middle, up + rest), Point(middle, down - rest)
    centre = piece.edge(piece.middle)
    top, bottom = sorted((centre.start, centre.end), key=lambda p: p.y)
    low, high = top.y + (bottom.y - top.y) * (1 - GRAIN_SHARE) / 2, bottom.y - (bottom.y - top.y) * (1 - GRAIN_SHARE) / 2
    if piece.stands == "fold":
        return Point(top.x, low), Point(top.x, high)
    width = piece.wide_at((low + high) / 2)
    left, _, right, _ = piece.bounds
    inward = 1 if right - top.x > top.x - left else -1
    x = top.x + inward * width * 0.22
    return Point(x, low), Point(x, high)


SIZES = (0.62, 0.52, 0.44, 0.36, 0.28)
DOWN, ACROSS = (0.62, 0.52, 0.72, 0.42, 0.82), (0.62, 0.5, 0.4, 0.7, 0.3)  # of the piece, where a label is tried
_WIDE, _HIGH = 0.56, 1.45  # a letter's width and a line's height, by its size


def place_label(piece: Piece, lines: Sequence[str], keep_off: Sequence[tuple[Point, Point]], short: Sequence[str]) -> Label:
    """Lay the words on the piece where they touch no line; smaller, or shorter, until they fit."""
    body = Polygon(piece.outline(0.2))
    bars = [LineString(bar).buffer(0.6) for bar in keep_off] + [
        Polygon([dart.inner, dart.point, dart.outer]).buffer(0.4) for dart in piece.darts
    ]
    bars += [Polygon([d.top, d.inner, d.bottom, d.outer]).buffer(0.4) for d in piece.diamonds]
    bars += [LineString(line.path.flat(0.2)).buffer(0.4) for line in piece.lines]
    bars += [LineString([hole, hole + Point(0.01, 0.0)]).buffer(0.5) for hole in piece.holes]
    left, top, right, bottom = body.bounds
    inside = body.buffer(-0.4)
    prepare(inside)
    off = union_all(bars)
    prepare(off)
    middles = [(left + (right - left) * across, top + (bottom - top) * down) for down in DOWN for across in ACROSS]
    for words in (lines, short):
        for size in SIZES:
            wide, high = max(len(line) for line in words) * size * _WIDE, len(words) * size * _HIGH
            rooms = box(*zip(*((x - wide / 2, y - high / 2, x + wide / 2, y + high / 2) for x, y in middles), strict=True))
            free = contains(inside, rooms) & ~intersects(off, rooms)
            if free.any():
                return Label(Point(*middles[int(free.argmax())]), size, tuple(words))
    return Label(Point((left + right) / 2, (top + bottom) / 2), SIZES[-1], tuple(short[:1]))
