"""The front of the contour bodice as far as it is laid out, and its side: over the shut dart, as long as the back."""

from __future__ import annotations

import math

from fontTools.misc.transform import Transform

from widehem.core.drafting.methods.bodice_contour_shape import Heights, cut_at_hem, through
from widehem.core.drafting.upper import DOWN
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.solve import solve_or_nearest
from widehem.core.values import record

OVER = 0.01  # cm that the front side may be longer than the back before its underarm is lowered


@record(frozen=True)
class Front:
    """Both front panels before they are cut out, x from the centre, cm. takes: under the bust and at the waist; at: widths of
    the side."""

    line: float
    clear: float
    above: float
    takes: tuple[float, float]
    bust: float
    under: float
    waist: float
    hip: float


def natural_side(front: Front, heights: Heights, dart: float) -> float:
    """How long the front side comes out by itself, cm."""
    _, _, side = _side_at(front, heights, dart, Point(front.line + front.clear, heights.bust), 0.0)
    return cut_at_hem(side, heights.hem - heights.hem_rise).length


def _side_at(front: Front, heights: Heights, dart: float, pivot: Point, lowered: float) -> tuple[Point, Transform, Path]:
    """The front underarm, so far lowered, how the dart is shut, and the side running on past the hem."""
    angle, second = _side_dart(front, heights, dart, pivot)
    shut = turn(pivot, angle)
    below = [Point(front.under, heights.under_bust), Point(front.waist, heights.waist), Point(front.hip, heights.hip)]
    if heights.waist - heights.under_bust <= heights.close:
        below = below[1:]
    armpit = Point(front.bust, min(heights.front_under + lowered, heights.under_bust - 1.0))
    begins = armpit.moved(shut)
    onto = second.y - begins.y > 0.5 and angle > 0
    side = (
        through(begins, second - begins, second, *below, calm=heights.calm)
        if onto
        else through(begins, DOWN, *below, calm=heights.calm)
    )
    return armpit, shut, side


def side_of(front: Front, heights: Heights, dart: float, pivot: Point, length: float) -> tuple[Point, Transform, Path]:
    """The front underarm, how its dart is shut, and the side as long as the back: what it is longer the underarm is lowered."""

    def over(lowered: float) -> float:
        return cut_at_hem(_side_at(front, heights, dart, pivot, lowered)[2], heights.hem - heights.hem_rise).length - length

    lowered, most = 0.0, heights.under_bust - 1.0 - heights.front_under
    if over(0.0) > OVER and most > 0:
        lowered = solve_or_nearest(over, 0.0, most, near=OVER)
    armpit, shut, side = _side_at(front, heights, dart, pivot, lowered)
    return armpit, shut, _as_long(side, heights.hem - heights.hem_rise, length)


def _side_dart(front: Front, heights: Heights, takes: float, pivot: Point) -> tuple[float, Point]:
    """The angle of the dart, and where its legs meet on the side once it is shut."""
    first = Point(front.bust, max(heights.bust - takes / 2, heights.front_under + 0.5))
    if not takes:
        return 0.0, first
    angle = 2 * math.asin(min(takes / 2 / pivot.to(first), 0.6))
    return angle, first.moved(turn(pivot, angle))


def _as_long(side: Path, y: float, length: float) -> Path:
    """The side cut near a level so that it is this long; never more than 2 from it."""
    near = cut_at_hem(side, y).length
    return side.cut(min(max(length, near - 2.0), near + 2.0))[0]
