"""Sleeve caps: curves through cap points, and the height or width that makes a cap fit its armhole."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point

LOW, HIGH = 0.08, 0.45  # of the armhole: between these the cap height is looked for
NEAR, ROUNDS = 0.005, 30  # cm; iterations
REST = 0.36  # the cap height of a sleeve that hangs straight down, of the armhole


@dataclass(frozen=True)
class Armhole:
    """The armhole a sleeve is drawn for, along the stitching line, cm. depth: its own depth, where the bodice is known."""

    front: float
    back: float
    depth: float | None = None

    @property
    def whole(self) -> float:
        return self.front + self.back


def cap_curve(points: Sequence[Point], crown: int, back_seam: Point, front_seam: Point) -> Path:
    """A curve from the back underarm over the cap points to the front underarm.

    At each point it runs parallel to the line between its neighbours, level at the crown, square to the underarm seams at its
    ends. crown: the number of that point. back_seam, front_seam: directions of the underarm seams, downwards.
    """
    last = len(points) - 1
    ways = []
    for i in range(last + 1):
        if i == 0:
            way = Point(back_seam.y, -back_seam.x)
        elif i == last:
            way = Point(front_seam.y, -front_seam.x)
        elif i == crown:
            way = Point(1.0, 0.0)
        else:
            way = points[i + 1] - points[i - 1]
        ways.append(way.unit())
    return Path(tuple(curve_between(points[i], ways[i], points[i + 1], ways[i + 1]) for i in range(last)))


def solve(length: Callable[[float], float], want: float, low: float, high: float) -> tuple[float, int] | None:
    """Where a length that grows with its argument comes to `want`, and in how many rounds; None when it lies outside."""
    at_low, at_high = length(low) - want, length(high) - want
    if at_low > 0 or at_high < 0:
        return None
    for count in range(1, ROUNDS + 1):
        middle = low - at_low * (high - low) / (at_high - at_low) if count % 3 else (low + high) / 2
        over = length(middle) - want
        if abs(over) < NEAR:
            return middle, count
        if over < 0:
            low, at_low = middle, over
        else:
            high, at_high = middle, over
    return (low + high) / 2, ROUNDS


def rest_angle(height: float, armhole: float) -> float:
    """The angle off the body, degrees, at which a sleeve hangs without folds."""
    return math.degrees(math.acos(min(height / (REST * armhole), 1.0)))
