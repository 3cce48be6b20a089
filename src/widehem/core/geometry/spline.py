"""A line through points that bends alike on both sides of each."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

from widehem.core.geometry.curves import Cubic
from widehem.core.geometry.points import Point


def spline(points: Sequence[Point], first: Point, last: Point) -> tuple[Cubic, ...]:
    """One cubic between two points and the next, the bend running on over each. first, last: the directions at both ends, one
    long; cm."""
    steps = [a.to(b) for a, b in pairwise(points)]
    ways = _speeds(points, steps, first, last)
    return tuple(
        Cubic(a, a + v * (step / 3), b - w * (step / 3), b)
        for a, b, v, w, step in zip(points, points[1:], ways, ways[1:], steps, strict=False)
    )


def _speeds(points: Sequence[Point], steps: Sequence[float], first: Point, last: Point) -> list[Point]:
    """The speeds at the points at which the bend runs on over each, the ends given: a tridiagonal system, solved by
    sweeping."""
    count = len(points)
    over: list[float] = [0.0]
    sums: list[Point] = [first]
    for i in range(1, count - 1):
        before, after = steps[i - 1], steps[i]
        right = ((points[i] - points[i - 1]) * (after / before) + (points[i + 1] - points[i]) * (before / after)) * 3
        whole = 2 * (before + after) - after * over[i - 1]
        over.append(before / whole)
        sums.append((right - sums[i - 1] * after) * (1 / whole))
    ways = [last]
    for i in range(count - 2, 0, -1):
        ways.append(sums[i] - ways[-1] * over[i])
    return [first, *reversed(ways)]
