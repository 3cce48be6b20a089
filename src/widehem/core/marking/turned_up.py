"""What is folded up: a hem is laid out as the mirror of what it will lie on, so that it is as wide as that is all along."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import Literal

from shapely import LineString, Polygon, make_valid
from shapely import Point as Dot

from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge

End = Literal["side", "fold", "hem"]
FLAT = 0.01  # cm: how far the flattened hem may stand off the true one
CHORD = 0.02  # cm that a hem may stand off its chord and be folded along that, as one straight
BEYOND = 30.0  # cm that the line it is folded along is carried on at both ends
NEAR = 0.3  # cm: so near the line a side may still run along it
STEP = 0.25  # cm from one mirrored spot of a side to the next


def hem_on(grown: Polygon, hem: Edge, depth: float, sign: float, ends_at: tuple[End, End] = ("side", "side")) -> Polygon:
    """A hem of this depth, cm, on a piece that ends in the hem line: its sides are what lies above it, mirrored in it. sign:
    1 where the left of the way along the hem is outside, else -1. ends_at: what is at its two ends:
    a side of the piece; a fold, which goes straight on; another hem, where it ends square."""
    line = _folded_along(hem)
    rim = LineString(line)
    ring = [Point(x, y) for x, y in grown.exterior.coords[:-1]]
    ends = []
    for spot, way, at_end, what in ((hem.start, hem.leaving, False, ends_at[0]), (hem.end, hem.arriving, True, ends_at[1])):
        square = [spot, spot + way.square() * (sign * depth)]
        ends.append(square if what == "hem" else _side(ring, spot, hem, rim, depth, at_end=at_end))
    first, last = (
        [side[0] * 2 - spot for spot in side] if what == "fold" else [_mirrored(rim, spot) for spot in side]
        for side, what in zip(ends, ends_at, strict=True)
    )
    begin, stop = (rim.project(Dot(*side[-1])) for side in ends)
    bottom = _beside(line, begin, stop, depth, sign)
    outline = [*first, *bottom, *reversed(last), *(p for p in reversed(_between(line, rim, ends[0][0], ends[1][0])))]
    band = Polygon(outline)
    return band if band.is_valid else make_valid(band)


def surplus(hem: Edge, depth: float, sign: float) -> float:
    """How much longer the edge of a hem of this depth is than what it is sewn to, cm; less than nothing where it is shorter and has
    to be clipped. sign: as for hem_on."""
    line = _folded_along(hem)
    rim = LineString(line)
    a, b = (rim.project(Dot(*spot)) for spot in (hem.start, hem.end))
    below, above = (LineString(_beside(line, a, b, depth, side)).length for side in (sign, -sign))
    return float(below - above)


def _folded_along(hem: Edge) -> list[Point]:
    """The hem with its tangents beyond both ends; its chord where it hardly stands off that."""
    a, b = hem.start, hem.end
    flat = [point for path in hem.paths() for point in path.flat(FLAT)]
    way = (b - a).unit()
    if a.to(b) > 0 and all(abs(way.cross(point - a)) <= CHORD for point in flat):
        return [a - way * BEYOND, a, b, b + way * BEYOND]
    points = [p for n, p in enumerate(flat) if n == 0 or p.to(flat[n - 1]) > 1e-9]
    return [a - hem.leaving * BEYOND, *points, b + hem.arriving * BEYOND]


def _side(ring: Sequence[Point], corner: Point, hem: Edge, rim: LineString, depth: float, *, at_end: bool) -> list[Point]:
    """The side of a piece from the end of its hem line upwards, as it is cut, until it is a depth away from it."""
    count = len(ring)
    start = min(range(count), key=lambda n: ring[n].to(corner))
    step = _away(ring, start, hem, at_end=at_end)
    found = [ring[start]]
    n = start
    for _ in range(count):
        here, following = ring[n % count], ring[(n + step) % count]
        reach = here.to(following)
        pieces = max(int(reach / STEP), 1)
        for k in range(1, pieces + 1):
            spot = here.toward(following, k / pieces)
            far = rim.distance(Dot(*spot))
            before = rim.distance(Dot(*found[-1]))
            if far >= depth:
                part = (depth - before) / (far - before) if far > before else 1.0
                return [*found, found[-1].toward(spot, part)]
            if far < before - 1e-6 and before > NEAR:  # it comes back: the piece is lower than its hem is deep
                return found
            found.append(spot)
        n += step
    return found


def _away(ring: Sequence[Point], start: int, hem: Edge, *, at_end: bool) -> int:
    """Which way round the ring leads away from the hem at one of its ends."""
    inner = (
        hem.parts[-1].place(hem.parts[-1].length * 0.9).point if at_end else hem.parts[0].place(hem.parts[0].length * 0.1).point
    )
    here, count = ring[start], len(ring)
    towards = (inner - here).unit()
    ways = {step: (ring[(start + step) % count] - here).unit().dot(towards) for step in (1, -1)}
    return min(ways, key=lambda step: ways[step])


def _mirrored(rim: LineString, spot: Point) -> Point:
    foot = rim.interpolate(rim.project(Dot(*spot)))
    return Point(2 * foot.x - spot.x, 2 * foot.y - spot.y)


def _beside(line: Sequence[Point], begin: float, stop: float, depth: float, sign: float) -> list[Point]:
    """The line carried outwards by a depth, from one place along it to another: each spot square to the line, at a corner of it as
    far as both sides of that need."""
    spots, gone = [], 0.0
    for n, (a, b) in enumerate(pairwise(line)):
        long, way = a.to(b), (b - a).unit()
        if n and begin + HARDLY < gone < stop - HARDLY:
            spots.append((a, (a - line[n - 1]).unit(), way))
        spots += [(a + way * (at - gone), way, way) for at in (begin, stop) if gone <= at < gone + long]
        gone += long
    return [spot + _square(before, after) * (-sign * depth) for spot, before, after in spots]


HARDLY, MITRE = 1e-6, 3.0  # cm; times the depth that a corner is carried out at the most


def _square(before: Point, after: Point) -> Point:
    """Square to a line where it turns, so long that it is one away from both of its sides."""
    middle = (before + after).unit().square()
    return middle * min(1 / max(middle.dot(after.square()), 1e-6), MITRE)


def _between(line: Sequence[Point], rim: LineString, first: Point, last: Point) -> list[Point]:
    """The line itself from near one spot to near another, both with it."""
    begin, stop = (rim.project(Dot(*spot)) for spot in (first, last))
    found, gone = [first], 0.0
    for a, b in pairwise(line):
        gone += a.to(b)
        if begin + 1e-6 < gone < stop - 1e-6:
            found.append(b)
    return [*found, last]
