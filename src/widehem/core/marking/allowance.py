"""The cutting line: a piece with a different amount outside each edge, corners squared off, hems mirrored.

A union of the piece with a strip along each edge and one kite per outward corner; where an edge is tight and hollow its strip
is put
together of one per short straight, as the offset of the whole fails there.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from itertools import pairwise

from shapely import Polygon, union_all
from shapely.affinity import affine_transform

from widehem.core.geometry.points import Point, meet, mirror_in
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.piece import Piece

FLAT = 0.01  # cm: how far the flattened outline may stand off the true one
CURVE_MOST = 1.0  # cm that a hem may stand off its chord and still be folded straight
HARDLY = 1e-4  # sine between two straights that are nearly one: where they meet cannot be told
BACK = -0.99999  # cosine between going somewhere and coming back the same way
NO_CORNER = 0.9  # cosine between two straights of a curve, at the least
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
    return _without_cracks([Point(x, y) for x, y in list(outer.simplify(1e-6).exterior.coords)[:-1]])


def _without_cracks(ring: list[Point]) -> list[Point]:
    """The ring without points it goes to and comes back from the same way: where two strips touch and are not quite one."""
    ways = [(b - a).unit() for a, b in zip(ring, [*ring[1:], ring[0]], strict=True)]
    return [point for point, before, after in zip(ring, [ways[-1], *ways[:-1]], ways, strict=True) if before.dot(after) > BACK]


def _nearly_straight(hem: Edge) -> bool:
    """Whether a hem can be folded up along a straight; a rounder one gets its depth all along and is eased or faced."""
    a, b = hem.start, hem.end
    way = (b - a).unit()
    return all(abs(way.cross(point - a)) <= CURVE_MOST for part in hem.parts for point in part.flat(0.1))


Straight = tuple[Point, Point, float]  # from, to, amount outside it


def _grown(piece: Piece, amounts: Mapping[str, float]) -> Polygon:
    chain: list[Straight] = []
    runs: list[list[Straight]] = []
    for edge in piece.edges:
        for path in edge.paths():
            run = [(a, b, amounts[edge.name]) for a, b in pairwise(path.flat(FLAT)) if a.to(b) > 1e-9]
            chain.extend(run)
            runs.extend(_without_corners(run))
    ring = Polygon([a for a, _, _ in chain])
    sign = -1.0 if piece.outward(Point(1.0, 0.0)).y > 0 else 1.0  # which side of the direction of travel lies outside
    parts = [ring]
    for run in runs:
        if run[0][2] > 0:
            parts += _strips(run, sign)
    for run, following in zip(runs, [*runs[1:], runs[0]], strict=True):
        (a, b, first), (_, c, second) = run[-1], following[0]
        corner = _corner(a, b, c, first, second, sign)
        if corner is not None:
            parts.append(corner)
    return union_all([part if part.is_valid else part.buffer(0) for part in parts], grid_size=1e-6)


def _without_corners(run: Sequence[Straight]) -> list[list[Straight]]:
    """A run of straights cut where it turns a corner: what is between is a curve, or straight."""
    found: list[list[Straight]] = []
    for straight in run:
        if found and (found[-1][-1][1] - found[-1][-1][0]).unit().dot((straight[1] - straight[0]).unit()) > NO_CORNER:
            found[-1].append(straight)
        else:
            found.append([straight])
    return found


def _strips(run: Sequence[Straight], sign: float) -> list[Polygon]:
    """What lies outside a run without corners: one strip along all of it, or where it is too tight for that one for each
    straight,
    with what fills between them."""
    ways = [(b - a).unit() for a, b, _ in run]
    outs = [way.square() * (-sign * amount) for way, (_, _, amount) in zip(ways, run, strict=True)]
    far = [run[0][0] + outs[0]]
    for n, (_, b, _) in enumerate(run[:-1]):
        bends = abs(ways[n].cross(ways[n + 1])) > HARDLY
        far.append((meet(b + outs[n], ways[n], b + outs[n + 1], ways[n + 1]) if bends else None) or b + outs[n])
    far.append(run[-1][1] + outs[-1])
    whole = Polygon([run[0][0], *(b for _, b, _ in run), *reversed(far)])
    return [whole] if whole.is_valid else _one_by_one(run, outs, sign)


def _one_by_one(run: Sequence[Straight], outs: Sequence[Point], sign: float) -> list[Polygon]:
    strips = [Polygon((a, b, b + out, a + out)) for (a, b, _), out in zip(run, outs, strict=True)]
    between = [_corner(a, b, c, first, second, sign) for (a, b, first), (_, c, second) in pairwise(run)]
    return [*strips, *(kite for kite in between if kite is not None)]


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
