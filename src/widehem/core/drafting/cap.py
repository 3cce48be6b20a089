"""Sleeve caps: curves through cap points, and the height or width that makes a cap fit its armhole."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

from widehem.core.geometry.curves import Cubic
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.values import record

LOW, HIGH = 0.08, 0.45  # of the armhole: between these the cap height is looked for
NEAR = 0.002  # cm: how near a cap must come to its armhole
REST = 0.36  # the cap height of a sleeve that hangs straight down, of the armhole


@record(frozen=True)
class Armhole:
    """The armhole a sleeve is drawn for, along the stitching line, cm. depth: its own depth, where the bodice is known; level:
    how far its underarm lies below the nape."""

    front: float
    back: float
    depth: float | None = None
    level: float | None = None

    @property
    def whole(self) -> float:
        return self.front + self.back


def cap_curve(points: Sequence[Point], back_seam: Point, front_seam: Point) -> Path:
    """A curve from the back underarm over the cap points to the front underarm, without a bump.

    One cubic between two points, the bend the same on both sides of each: a spline over the lengths of the straights, square to
    the underarm seams at its ends. back_seam, front_seam: directions of the seams, downwards.
    """
    steps = [a.to(b) for a, b in pairwise(points)]
    first, last = Point(back_seam.y, -back_seam.x).unit(), Point(front_seam.y, -front_seam.x).unit()
    ways = _spline(points, steps, first, last)
    return Path(
        tuple(
            Cubic(a, a + v * (step / 3), b - w * (step / 3), b)
            for a, b, v, w, step in zip(points, points[1:], ways, ways[1:], steps, strict=False)
        )
    )


def _spline(points: Sequence[Point], steps: Sequence[float], first: Point, last: Point) -> list[Point]:
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


def rest_angle(height: float, armhole: float) -> float:
    """The angle off the body, degrees, at which a sleeve hangs without folds."""
    return math.degrees(math.acos(min(height / (REST * armhole), 1.0)))
