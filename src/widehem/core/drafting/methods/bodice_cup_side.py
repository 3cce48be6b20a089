"""The side of a cup-wedge front: below its dart, side and waist turn back about the bust point, so that the closed side is one
straight line."""

from __future__ import annotations

import math
from collections.abc import Callable

from widehem.core.drafting.bodice import BUST_DART, DIP_MOST, ONE_DART_MOST, SHORT, Half, Lean, draw_waist, square_underarm
from widehem.core.drafting.upper import Gap, Stretch
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.solve import NoSolutionError, settle, solve_length
from widehem.core.values import record, replace

ANGLE_MOST = math.radians(55)
FIRST, LAST = 3.0, 4.0  # cm of the side that stay above and below its dart
LACKS_MOST = 0.045  # of the side below a dart: so much the waist may be let out there; the closed side hardly bends
RISES_MOST = 6.0  # cm that a waist rises to its side at most
WAIST_DART_LEAST = 1.0  # cm: what is less goes to the side


@record(frozen=True)
class TurnedBack:
    """A side with its dart. upper: from the underarm to the dart; foot: where the lower part begins; end: its side waist point;
    way: down the lower part; angle: of the dart, radians; down: how far the end lies below the waist level."""

    upper: Path
    foot: Point
    end: Point
    way: Point
    angle: float
    down: float

    @property
    def mouth(self) -> float:
        return self.upper.end.to(self.foot)


def dip(way: Point, run: float) -> float:
    """How far below the waist level a side in this direction meets a waist of this half width squarely, cm."""
    return max(-DIP_MOST, min(DIP_MOST, -0.5 * way.x / way.y * run))


def turned_back(
    under: Point, way: Point, about: Point, long: float, waist: float, run: float, *, lowest: bool = False
) -> TurnedBack | None:
    """The side from the underarm, so long when its dart is closed, the part below turned back until it ends at the waist.

    way: the direction of the closed side; about: the bust point; run: a usual half waist. lowest: where it does not get so far
    down it ends as low as it does, and the waist rises to it. None where no dart is needed, or none would do.
    """
    laid = _turning(under, way, about, long, run)
    if laid(0.0).end.y >= waist + laid(0.0).down:
        return None
    angle = solve_length(lambda angle: laid(angle).end.y - laid(angle).down, waist, 0.0, ANGLE_MOST)
    if angle is not None:
        return laid(angle)
    if not lowest:
        return None
    found = max((laid(math.radians(degrees)) for degrees in range(1, 40)), key=lambda side: side.end.y)
    return replace(found, down=found.end.y - waist)


def _turning(under: Point, way: Point, about: Point, long: float, run: float) -> Callable[[float], TurnedBack]:
    """A side whose part below its dart is turned back by an angle, radians."""
    way = way.unit()
    start = min(max((about - under).dot(way), FIRST), long - LAST)
    at = under + way * start

    def laid(angle: float) -> TurnedBack:
        low = way.moved(turn(Point(0.0, 0.0), angle))
        foot = at.moved(turn(about, angle))
        return TurnedBack(Path.through(under, at), foot, foot + low * (long - start), low, angle, dip(low, run))

    return laid


def _no_further(
    under: Point, way: Point, about: Point, long: float, waist: float, target: float, found: TurnedBack
) -> TurnedBack | None:
    """A side turned back only until its waist would lack something; it ends higher then, and the waist rises to it. None where
    it
    would rise too far."""
    laid = _turning(under, way, about, long, target)

    def side(angle: float) -> TurnedBack:
        here = laid(angle)
        return replace(here, down=here.end.y - waist)

    def over(angle: float) -> float:
        return over_at_waist(side(angle), under, waist, target)[0]

    angle = solve_length(over, 0.0, 0.0, found.angle)
    if angle is None or waist - side(angle).end.y > RISES_MOST:
        return None
    return side(angle)


def over_at_waist(side: TurnedBack, under: Point, waist: float, target: float) -> tuple[float, float, Point]:
    """What the waist of a front has too much with this side, how far the side leans in for it, cm, and where the lower side
    would begin at the height of the underarm."""
    above = side.end - side.way * ((side.end.y - under.y) / side.way.y)
    tall = waist - under.y
    lean_in = (above.x - side.end.x) * tall / (tall + side.down)
    return above.x - lean_in - target, lean_in, above


def _without_darts(
    half: Half, side: TurnedBack, waist: float, lean: Lean, blame: tuple[str, ...], *, even: bool
) -> None:  # fmt: skip
    """The waist of a front without darts."""
    walk, long = half.walk, side.foot.to(side.end)

    def longer(down: float) -> float:
        half.walk = walk
        draw_waist(half, waist, replace(lean, down=down), [], blame)
        return side.foot.to(half.waist) - long

    if not even:
        longer(lean.down)
        return
    try:
        settle(longer, lean.down, slope=side.way.unit().y, near=SIDE_NEAR)
    except NoSolutionError:  # told by the check of the seam
        longer(lean.down)


def wide_enough(
    under: Point, way: Point, about: Point, long: float, waist: float, target: float, *, lowest: bool = False
) -> TurnedBack | None:
    """As turned_back, the whole side leaning out or in where the waist would lack something, or have too little over for a
    dart."""
    found = turned_back(under, way, about, long, waist, target, lowest=lowest)
    if found is None or over_at_waist(found, under, waist, target)[0] >= WAIST_DART_LEAST:
        return found

    def over(out: float) -> float:
        side = turned_back(under, way.moved(turn(Point(0.0, 0.0), -out)), about, long, waist, target)
        return math.inf if side is None else over_at_waist(side, under, waist, target)[0]

    try:
        out = settle(over, 0.0, slope=long, near=1e-4)
    except NoSolutionError:  # a side that leans out so far ends high enough without a dart
        lacks = -over_at_waist(found, under, waist, target)[0]
        if lacks <= (LACKS_MOST * (long - FIRST) if lowest else 0.0):
            return found
        return _no_further(under, way, about, long, waist, target, found) if lowest else None
    return turned_back(under, way.moved(turn(Point(0.0, 0.0), -out)), about, long, waist, target)


SIDE_NEAR = 0.01  # cm: so near the lower side is as long as it was planned


def waist_below(
    half: Half, side: TurnedBack, waist: float, target: float, blame: tuple[str, ...], *, even: bool = False
) -> float:
    """The waist of a front whose side is turned back: what it has too much goes into darts below the bust point, what it lacks
    is added at the side; and the side itself. even: what the curve of a waist without darts moves the side in or out by is
    made good by how low the side ends, so that it stays as long as the back. Gives back what was over, cm."""
    assert half.bust_point is not None
    under = half.under
    over, lean_in, above = over_at_waist(side, under, waist, target)
    x, top = half.bust_point.x, half.bust_point.y + SHORT
    reach = side.end.x - x
    middles = [(x, top), (x + 0.36 * reach, top + 1.5), (x + 0.68 * reach, top + 3)]
    half.under = above
    if over >= WAIST_DART_LEAST:
        count = min(max(1, math.ceil(over / ONE_DART_MOST)), len(middles))
        draw_waist(half, waist, Lean(lean_in, over, count, side.down), middles[:count], blame)
    else:
        _without_darts(half, side, waist, Lean(lean_in + over, 0.0, 0, side.down), blame, even=even)
    half.under = under
    number = next(i for i, stretch in enumerate(half.walk) if stretch.edge == "side")
    lower = replace(half.walk[number], path=Path.through(side.foot, half.waist))
    half.walk = (*half.walk[:number], Stretch("side", side.upper), lower, *half.walk[number + 1 :])
    half.gaps["side"] = [Gap(BUST_DART, half.bust_point, SHORT)]
    square_underarm(half)
    return over
