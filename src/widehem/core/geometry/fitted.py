"""Curves from points that were taken off one: as few cubics as run through them within a tolerance."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

from shapely import LineString
from shapely import Point as Dot

from widehem.core.geometry.curves import Line, Segment
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.spline import spline

WITHIN = 0.003  # cm: how far a fitted curve may stand off the points
STRAIGHT = 0.004  # cm off their chord, at the most, that points may be to be a straight
ENDS = 0.4  # cm over which the direction at an end is taken
MOST = 96  # cubics


def fitted(points: Sequence[Point], within: float = WITHIN) -> Path:
    """A path through a row of points, its ends exact. Raises ValueError for fewer than two different points."""
    row = [points[0], *(b for a, b in pairwise(points) if a.to(b) > 1e-9)]
    if len(row) < 2:
        raise ValueError("A path needs two points.")
    a, b = row[0], row[-1]
    chord = (b - a).unit() if a.to(b) > 1e-9 else Point(0.0, 0.0)
    if len(row) == 2 or (a.to(b) > 1e-9 and all(abs(chord.cross(p - a)) <= STRAIGHT for p in row)):
        return Path((Line(a, b),))
    rail = LineString(row)
    first, last = _way(row), -_way(row[::-1])
    count = 1
    while True:
        spots = [Point(*rail.interpolate(rail.length * n / count).coords[0]) for n in range(count + 1)]
        spots[0], spots[-1] = a, b
        curves: tuple[Segment, ...] = spline(spots, first, last)
        line = LineString([spots[0], *(p for curve in curves for p in curve.flat(within / 3))])
        if count >= MOST or max(line.distance(Dot(*p)) for p in row) <= within:
            return Path(curves) if count < MOST else Path.through(*row)
        count = count + 1 if count < 4 else count * 2


def _way(row: Sequence[Point]) -> Point:
    """The direction in which a row of points leaves its first: on the arc through the first points."""
    a, rest = row[0], row[1:]
    b = rest[0]
    c = next((p for p in rest[1:] if a.to(p) >= ENDS), None) or (rest[1] if len(rest) > 1 else None)
    if c is None or abs((b - a).cross(c - b)) < 1e-12:
        return (b - a).unit()
    step, whole = a.to(b), a.to(b) + b.to(c)
    way = (b - a) * (1 / step) + ((b - a) * (1 / step) - (c - b) * (1 / b.to(c))) * (step / whole)
    return way.unit()
