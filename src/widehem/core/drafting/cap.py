"""Sleeve caps: curves through cap points, and the height or width that makes a cap fit its armhole."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

from fontTools.misc.transform import Transform

from widehem.core.geometry.curves import Cubic
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.solve import NoSolutionError, settle, solve_length
from widehem.core.geometry.spline import spline
from widehem.core.pattern.checks.curves import changes
from widehem.core.values import record

LOW, HIGH = 0.08, 0.45  # of the armhole: between these the cap height is looked for
NEAR = 0.002  # cm: how near a cap must come to its armhole
LOWEST, BEYOND = 5.5, 2.0  # cm of the armhole that a cap follows; that the next point of the cap lies beyond it
FOLLOWED = (5.5, 4.75, 4.0, 3.25, 2.5)  # cm of it, where all would be too steep
FOLLOWED_SMALL = (*FOLLOWED, 2.0, 1.5)  # of a small one
CAP_SLOPE = 1.2  # cm that a cap is longer for each centimetre that it is higher, about
WAVES = 2  # changes of bend of a cap: hollow, round, hollow
STEEPER = math.radians(10)
REST = 0.36  # the cap height of a sleeve that hangs straight down, of the armhole


@record(frozen=True)
class Armhole:
    """The armhole a sleeve is drawn for, along the stitching line, cm. depth: its own depth, where the bodice is known; level:
    how far its underarm lies below the nape. low: front and back as they
    leave the underarm, the side straight down, x inwards. arm: the ease round the upper arm that a sleeve of this garment has."""

    front: float
    back: float
    depth: float | None = None
    level: float | None = None
    low: tuple[Path, Path] | None = None
    arm: float | None = None

    @property
    def whole(self) -> float:
        return self.front + self.back


def cap_curve(points: Sequence[Point], back_seam: Point, front_seam: Point) -> Path:
    """A curve from the back underarm over the cap points to the front underarm, without a bump.

    One cubic between two points, the bend the same on both sides of each: a spline over the lengths of the straights, square to
    the underarm seams at its ends. back_seam, front_seam: directions of the seams, downwards.
    """
    first, last = Point(back_seam.y, -back_seam.x).unit(), Point(front_seam.y, -front_seam.x).unit()
    return Path(spline(points, first, last))


def cap_on(low: tuple[Path, Path], points: Sequence[Point], back_seam: Point, front_seam: Point) -> Path:
    """A cap whose lowest part is the armhole's own curve on both sides, turned over the underarm; from there it runs through
    those of the points that lie higher. low: front and back of the armhole; back_seam, front_seam: as for cap_curve."""
    front, back = _laid(low[0], points[-1], front_seam, -1.0), _laid(low[1], points[0], back_seam, 1.0)
    spots = _over(points, back, front)
    middle = spline(spots, back.arriving, -front.arriving)
    return Path((*back.segments, *middle, *front.reverse().segments))


def _over(points: Sequence[Point], back: Path, front: Path) -> list[Point]:
    """The points over which a cap runs from the end of its lowest part behind to that in front."""
    crown = min(range(len(points)), key=lambda number: points[number].y)
    up = [p for p in points[1:crown] if p.x > back.end.x + BEYOND and p.y < back.end.y - BEYOND]
    down = [p for p in points[crown + 1 : -1] if p.x < front.end.x - BEYOND and p.y < front.end.y - BEYOND]
    return [*_round([back.end, *up, points[crown]]), *_round([points[crown], *down, front.end])[1:]]


def followed(
    low: tuple[Path, Path], points: Sequence[Point], back_seam: Point, front_seam: Point, lengths: Sequence[float] = FOLLOWED
) -> tuple[Path, Path]:
    """As much of the beginning of an armhole as a cap through these points can follow, front and back: where it is steeper than
    the way to the next of them, the cap leaves it earlier. lengths: how much of it is tried, cm."""
    found = list(low)
    for number in (0, 1):
        for long in lengths:
            found[number] = low[number].cut(long)[0] if long < low[number].length - 0.1 else low[number]
            front, back = _laid(found[0], points[-1], front_seam, -1.0), _laid(found[1], points[0], back_seam, 1.0)
            spots = _over(points, back, front)
            steep, way = (back.arriving, spots[1] - spots[0]) if number else (front.arriving, spots[-2] - spots[-1])
            if math.atan2(-steep.y, abs(steep.x)) <= math.atan2(-way.y, abs(way.x)) + STEEPER:
                break
    return found[0], found[1]


def fitted(length: Callable[[float], float], want: float, low: float, high: float, guess: float | None) -> float | None:
    """Where a cap is as long as wanted, cm, between two figures; from a guess in fewer trials. None where it is not."""
    if guess is not None:
        try:
            found = settle(lambda at: length(at) - want, guess, slope=CAP_SLOPE, near=NEAR, rounds=6)
        except NoSolutionError:
            pass
        else:
            if low <= found <= high:
                return found
    return solve_length(length, want, low, high, near=NEAR)


def waves(cap: Path) -> int:
    """How often a cap changes its bend: twice, as a good one does, or more."""
    turned = [turn for segment in cap.segments if isinstance(segment, Cubic) for turn in segment.turns(12)[0]]
    return changes(turned)


def _round(points: Sequence[Point]) -> list[Point]:
    """Those of some points from left to right over which a line runs without turning upwards again."""
    found: list[Point] = []
    for point in points:
        while len(found) > 1 and (found[-1] - found[-2]).cross(point - found[-1]) <= 0:
            found.pop()
        found.append(point)
    return found


def _laid(low: Path, at: Point, seam: Point, hand: float) -> Path:
    """The beginning of an armhole at an underarm of a sleeve, square to its seam there. hand: 1 where inwards is right."""
    turned = turn(Point(0.0, 0.0), math.atan2(-seam.x, seam.y))
    return low.moved(Transform(1, 0, 0, 1, at.x, at.y).transform(turned).transform(Transform(hand, 0, 0, 1, 0, 0)))


def rest_angle(height: float, armhole: float) -> float:
    """The angle off the body, degrees, at which a sleeve hangs without folds."""
    return math.degrees(math.acos(min(height / (REST * armhole), 1.0)))
