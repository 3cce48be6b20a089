"""The cutting line: a piece with a different amount outside each edge, corners squared off, hems mirrored.

A union of the piece with one strip per short straight of its outline and one kite per outward corner; offsets of whole
edges fail where they are tight and hollow, this does not.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from itertools import pairwise

from shapely import Polygon, is_valid, polygons, union_all
from shapely.affinity import affine_transform

from widehem.core.geometry.points import Point, meet, mirror_in
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.piece import Piece

FLAT = 0.01  # cm: how far the flattened outline may stand off the true one
CURVE_MOST = 1.0  # cm that a hem may stand off its chord and still be folded straight
POINT_MOST = 2.0  # a corner sticks out at most this many times the allowance, then it is cut off


def cutting_line(piece: Piece, amounts: Mapping[str, float]) -> list[Point]:
    """The ring to cut along, cm; amounts by edge name, cm. The last point is not the first again."""
    turned_up = [edge for edge in piece.edges if edge.kind == "hem" and amounts[edge.name] > 0 and _nearly_straight(edge)]
    grown = _grown(piece, {**amounts, **{edge.name: 0.0 for edge in turned_up}})
    for edge in piece.edges:
        if edge.kind == "fold":
            grown = grown.intersection(_half_plane(piece, edge))
        if edge in turned_up:
            grown = _with_hem(grown, edge, amounts[edge.name])
    outer = grown if grown.geom_type == "Polygon" else max(grown.geoms, key=lambda g: g.area)
    return [Point(x, y) for x, y in list(outer.simplify(1e-6).exterior.coords)[:-1]]


def _nearly_straight(hem: Edge) -> bool:
    """Whether a hem can be folded up along a straight; a rounder one gets its depth all along and is eased or faced."""
    a, b = hem.start, hem.end
    way = (b - a).unit()
    return all(abs(way.cross(point - a)) <= CURVE_MOST for part in hem.parts for point in part.flat(0.1))


def _grown(piece: Piece, amounts: Mapping[str, float]) -> Polygon:
    chain: list[tuple[Point, Point, float]] = []
    for edge in piece.edges:
        for path in edge.paths():
            chain.extend((a, b, amounts[edge.name]) for a, b in pairwise(path.flat(FLAT)) if a.to(b) > 1e-9)
    ring = Polygon([a for a, _, _ in chain])
    sign = -1.0 if piece.outward(Point(1.0, 0.0)).y > 0 else 1.0  # which side of the direction of travel lies outside
    strips = []
    for a, b, amount in chain:
        if amount > 0:
            out = (b - a).unit().square() * (-sign * amount)
            strips.append((a, b, b + out, a + out, a))
    corners = [
        corner
        for (a, b, first), (_, c, second) in zip(chain, [*chain[1:], chain[0]], strict=True)
        if (corner := _corner(a, b, c, first, second, sign)) is not None
    ]
    parts = [ring, *(polygons(strips) if strips else ()), *corners]
    valid = is_valid(parts)
    return union_all([part if good else part.buffer(0) for part, good in zip(parts, valid, strict=True)], grid_size=1e-6)


def _corner(a: Point, b: Point, c: Point, first: float, second: float, sign: float) -> Polygon | None:
    """What fills an outward corner at b between two strips: a kite, cut off when it would be a long point."""
    before, after = (b - a).unit(), (c - b).unit()
    if sign * before.cross(after) < 1e-9 or max(first, second) == 0:
        return None
    p, q = b + before.square() * (-sign * first), b + after.square() * (-sign * second)
    tip = meet(p, before, q, after)
    if tip is None:
        return None
    reach = max(first, second) * POINT_MOST
    if b.to(tip) <= reach:
        points: Sequence[Point] = (b, p, tip, q)
    else:  # cut square to the line from the corner to its long point
        way = (tip - b).unit()
        cut = b + way * reach
        ends = [meet(p, before, cut, way.square()), meet(q, after, cut, way.square())]
        points = (b, p, *(end for end in ends if end is not None), q)
    kite = Polygon(points)
    return kite if kite.area > 1e-9 else None


def _half_plane(piece: Piece, fold: Edge) -> Polygon:
    """Everything on the piece's side of a straight fold."""
    a, b = fold.start, fold.end
    way, far = (b - a).unit(), 500.0
    middle = Polygon(piece.outline(0.5)).representative_point()
    into = way.square()
    if into.dot(Point(middle.x, middle.y) - a) < 0:
        into = -into
    p, q = a - way * far, b + way * far
    return Polygon([p, q, q + into * far, p + into * far])


def _with_hem(grown: Polygon, hem: Edge, depth: float) -> Polygon:
    """Add a hem: what lies above the hem line is copied across it, so that it is as wide as what it is sewn to."""
    a, b = hem.start, hem.end
    way = (b - a).unit()
    up = way.square() if way.square().y < 0 else -way.square()
    left, right = a - way * 100, b + way * 100
    band = grown.intersection(Polygon([left, right, right + up * depth, left + up * depth]))
    mirrored = affine_transform(band, _matrix(a, b))
    return union_all([grown, mirrored], grid_size=1e-6)


def _matrix(a: Point, b: Point) -> list[float]:
    xx, xy, yx, yy, dx, dy = mirror_in(a, b)
    return [xx, yx, xy, yy, dx, dy]
