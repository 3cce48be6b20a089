"""Shapes of a trouser panel: legs, crotch curve, waist over its darts, and how they are made to agree.

In the frame of a panel x = 0 is the crease, the side lies at the left and the centre at the right; y runs down from the
waist line.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from contextlib import suppress

from widehem.core.drafting.upper import DOWN
from widehem.core.drafting.waist import Waist, lay_dart, side_curve, waist_over_darts
from widehem.core.geometry.curves import Cubic, Line, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, meet, turn
from widehem.core.geometry.solve import NoSolutionError, settle, solve_length
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import kept, record

MOST_DARTS, WIDEST = 3, 4.5
SIDE_MOST, DART_LEAST, DART_SHARE, ONE_DART_MOST = 4.0, 1.2, 0.7, 3.5
OUT_SAID, OUT_MOST = 2.0, 4.0  # how far a side may lean out, cm
CROTCH_PART = 2 / 3  # of the way to where the directions meet
CROTCH_PARTS = (0.3, 0.38, 0.46, 0.54, 0.62, 0.7, 0.78, 0.86)  # where the usual ones turn too tight
WAIST_NEAR = 0.005  # cm
NEAR = 1e-4


@record(frozen=True)
class Rise:
    """Heights below the waist line, cm. start: where the crotch curve leaves the centre line; cut: where a leg is cut off that is
    drawn longer."""

    hip: float
    crotch: float
    knee: float
    hem: float
    start: float
    cut: float | None = None


@record(frozen=True)
class Panel:
    """A trouser panel as far as it is laid out. centre_hip, centre_top: on the centre line at the hip line and at the waist.

    knee, hem: half widths there. wide: no knee, straight from the fork to the hem. dips: how many
    degrees the crotch curve still falls where it meets the fork, None by the first rules; radius: in which it shall turn at
    least, cm, None by the earlier rules.
    """

    name: str
    rise: Rise
    side_hip: Point
    centre_hip: Point
    centre_top: Point
    fork: Point
    knee: float
    hem: float
    wide: bool
    dips: float | None = None
    radius: float | None = None

    @kept
    def inseam(self) -> Path:
        """From the fork to the hem."""
        return self._short(self._whole_inseam())

    @kept
    def lower_side(self) -> Path:
        """From the hip to the hem."""
        return self._short(self._whole_side())

    def _short(self, path: Path) -> Path:
        if self.rise.cut is None:
            return path
        index, t = path.crossings(Point(0.0, self.rise.cut), Point(1.0, 0.0))[-1]
        return path.split(index, t)[0]

    def _whole_inseam(self) -> Path:
        foot = Point(self.hem, self.rise.hem)
        if self.wide:
            return Path.through(self.fork, foot)
        knee = Point(self.knee, self.rise.knee)
        return Path((curve_between(self.fork, knee - self.fork, knee, foot - knee), Line(knee, foot)))

    def _whole_side(self) -> Path:
        foot = Point(-self.hem, self.rise.hem)
        if self.wide:
            return Path((curve_between(self.side_hip, DOWN, foot, foot - self.side_hip),))
        knee = Point(-self.knee, self.rise.knee)
        return Path((curve_between(self.side_hip, DOWN, knee, foot - knee), Line(knee, foot)))

    @property
    def centre_way(self) -> Point:
        """The direction of the centre line, downwards."""
        return (self.centre_hip - self.centre_top).unit()

    @property
    def across(self) -> Point:
        """Square to the centre line, towards the side."""
        way = self.centre_way.square()
        return way if way.x < 0 else -way

    @kept
    def crotch(self) -> Path | None:
        """Down the centre line and round to the fork; None where the directions do not meet.

        By the first rules it is square to the inseam at the fork. Now the front still falls there and the back has begun to
        rise: the lowest place lies behind the fork, and neither turns tighter than it can be sewn.
        """
        way = self.centre_way
        start = self.centre_hip + way * ((self.rise.start - self.centre_hip.y) / way.y)
        out = self.inseam.leaving.square()
        out = out if out.x > 0 else -out
        if self.dips is not None:
            out = out.moved(turn(Point(0.0, 0.0), math.radians(self.dips)))
        corner = meet(start, way, self.fork, out)
        if corner is None or (corner - start).dot(way) <= 0 or (self.fork - corner).dot(out) <= 0:
            return None
        parts = CROTCH_PART, CROTCH_PART
        if self.dips is not None:  # the longer of both sides is left earlier
            longer = start.to(corner) / self.fork.to(corner) - 1.05
            parts = min(max(0.6 + 0.55 * longer, 0.45), 0.85), min(max(0.575 - 0.4 * longer, 0.42), 0.75)
        curve = _to_fork(start, corner, self.fork, parts)
        if self.radius is not None and curve.turns(16)[1] > 1 / self.radius:
            tried = (_to_fork(start, corner, self.fork, (one, two)) for one in CROTCH_PARTS for two in CROTCH_PARTS)
            curve = min(tried, key=lambda found: found.turns(16)[1])
        return Path((Line(self.centre_top, start), curve))


def _to_fork(start: Point, corner: Point, fork: Point, parts: tuple[float, float]) -> Cubic:
    """The round of a crotch. parts: of the way to the corner that its handles reach."""
    return Cubic(start, start.toward(corner, parts[0]), fork.toward(corner, parts[1]), fork)


@record(frozen=True)
class Shares:
    """What the darts of a panel take together, cm, and in how many."""

    total: float = 0.0
    number: int = 0

    @property
    def each(self) -> float:
        return self.total / self.number if self.number else 0.0


def share_waist(loss: float, default: float, number: int, choice: str) -> Shares:
    """Share out what a panel has to lose. default, number: the school's darts; choice: auto, none, one or two. What is left
    the side takes."""
    if loss <= 0 or choice == "none":
        return Shares()
    total = min(default, DART_SHARE * loss)
    total += max(loss - total - SIDE_MOST, 0.0)
    if total < DART_LEAST:
        return Shares()
    if choice in ("one", "two"):
        return Shares(total, 1 if choice == "one" else 2)
    if number > 1 and total / number < DART_LEAST:
        number = 1
    number += total / number > ONE_DART_MOST
    while total / number > WIDEST and number < MOST_DARTS:
        number += 1
    return Shares(total, number)


@record(frozen=True)
class Top:
    """The upper part of a panel: its side waist point, the whole side, and the waist over its darts."""

    side_waist: Point
    side: Path
    waist: Waist
    shares: Shares

    @property
    def sewn(self) -> float:
        return sum(part.length for part in self.waist.parts)


Places = Callable[[float, int, float], Sequence[tuple[float, float]]]
Height = Callable[[float], Point | None]


def lay_top(panel: Panel, finished: float, shares: Shares, places: Places, at: Height) -> Top:
    """The waist of a panel: as long as `finished` once the darts are sewn, square to the centre line.

    places: middle along the guide and length of each dart, cm, of a guide so long, for so many that take so much. at: the
    side waist point of a guide so long, None where there is none.
    """
    top, deep = panel.centre_top, Point(0.0, panel.rise.crotch)
    made: list[tuple[Point, Waist]] = []  # as it was drawn last

    def over(guide: float) -> float:
        made.clear()
        spot = at(guide)
        if spot is None:
            return math.inf
        plans = [
            lay_dart(f"{panel.name}_dart_{n}", top, spot, along, shares.each, length, deep)
            for n, (along, length) in enumerate(places(guide, shares.number, shares.each), 1)
        ]
        waist = waist_over_darts(top, panel.across, spot, panel.side_hip, plans)
        if waist is None:
            return math.inf
        made.append((spot, waist))
        return sum(part.length for part in waist.parts) - finished

    with suppress(NoSolutionError):  # what is left of it the checks of the waist say
        settle(over, finished + shares.total, near=WAIST_NEAR)
    if not made:
        raise CannotDraft(
            ("waist", "hip", "waist_hip"),
            say(
                f"The {panel.name} waist of {{0u}} does not reach from its centre to its side: read waist, hip and waist to "
                f"hip again.",
                finished,
            ),
        )
    spot, waist = made[0]
    return Top(spot, whole_side(panel, spot), waist, shares)


def whole_side(panel: Panel, waist: Point) -> Path:
    """The side seam from the waist to the hem."""
    return side_curve(panel.side_hip, waist, waist.x - panel.side_hip.x).reverse() + panel.lower_side


def level_with(panel: Panel, up: float) -> Height:
    """The side waist point so far above the waist line, by the length of the guide."""

    def at(guide: float) -> Point | None:
        rise = panel.centre_top.y + up
        if guide <= abs(rise):
            return None
        return Point(panel.centre_top.x - math.sqrt(guide * guide - rise * rise), -up)

    return at


def side_as_long(panel: Panel, side: float) -> Height:
    """The side waist point at which the whole side is so long, by the length of the guide."""

    def at(guide: float) -> Point | None:
        def spot(up: float) -> Point:
            rise = panel.centre_top.y + up
            return Point(panel.centre_top.x - math.sqrt(max(guide * guide - rise * rise, 1e-6)), -up)

        top = -panel.centre_top.y
        low, high = max(top - guide * 0.95, -8.0), min(top + guide * 0.95, 8.0)
        up = solve_length(lambda up: whole_side(panel, spot(up)).length, side, low, high, near=NEAR)
        return None if up is None else spot(up)

    return at
