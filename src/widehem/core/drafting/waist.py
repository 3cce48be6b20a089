"""Shapes that skirts and trousers share: the side above the hip, and a waist curve over closed darts."""

from __future__ import annotations

import math
from collections.abc import Sequence

from fontTools.misc.transform import Transform

from widehem.core.geometry.curves import Cubic, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.pattern.dart_cap import dart_cap
from widehem.core.pattern.edge import Dart
from widehem.core.values import record

PROUD_SHARE, PROUD_MOST = 7, 0.5


def side_curve(hip: Point, waist: Point, inset: float, *, proud_most: float = PROUD_MOST) -> Path:
    """The side from the hip point, upright, to the side waist point, arriving along the straight between them.

    inset: how far the side comes in, level, cm; negative leans out. It stands a seventh of that proud of the straight,
    at most proud_most; no inset, no curve.
    """
    if abs(inset) < 1e-9:
        return Path.through(hip, waist)
    straight = hip.to(waist)
    proud = min(abs(inset) / PROUD_SHARE, proud_most)
    return Path((curve_between(hip, Point(0.0, -1.0), waist, waist - hip, out=2.25 * proud * straight / abs(inset)),))


@record(frozen=True)
class DartPlan:
    """A dart laid off on the guide: middle and length of the axis, intake on the guide, cm."""

    name: str
    middle: Point
    point: Point
    inner: Point
    outer: Point
    intake: float
    length: float


def lay_dart(name: str, start: Point, end: Point, along: float, intake: float, length: float, inside: Point) -> DartPlan:
    """A dart on the guide from start (at the centre) to end (at the side).

    along: of its middle, cm from start. Its axis is square to the guide, towards the side on which `inside` lies.
    """
    way = (end - start).unit()
    axis = way.square()
    if axis.dot(inside - start) < 0:
        axis = -axis
    middle = start + way * along
    half = way * (intake / 2)
    return DartPlan(name, middle, middle + axis * length, middle - half, middle + half, intake, length)


@record(frozen=True)
class Waist:
    """A waist edge opened out again: its sewn stretches, the darts between them, and the curve while they were shut."""

    parts: tuple[Path, ...]
    darts: tuple[Dart, ...]
    shut: Path


def shut_waist(
    start: Point, leaving: Point, side: Point, hip: Point, plans: Sequence[DartPlan]
) -> tuple[Cubic, list[Transform]]:
    """The waist curve while the darts are shut, and how each stretch was turned to shut them.

    Shuts the darts beginning nearest the centre, by turning everything beyond each about its point; draws one curve
    from the centre, leaving in its direction, to the side point, square to the straight from hip to side.
    """
    shutting = [Transform()]
    for plan in plans:
        a, b = plan.inner - plan.point, plan.outer - plan.point
        shutting.append(shutting[-1].transform(turn(plan.point, math.atan2(b.cross(a), b.dot(a)))))
    end, foot = side.moved(shutting[-1]), hip.moved(shutting[-1])
    arriving = (end - foot).square()
    if arriving.dot(end - start) < 0:
        arriving = -arriving
    return curve_between(start, leaving, end, arriving), shutting


def waist_over_darts(start: Point, leaving: Point, side: Point, hip: Point, plans: Sequence[DartPlan]) -> Waist | None:
    """The waist curve over shut darts, opened again. Darts fold towards the centre.

    None when the curve cannot cross the darts.
    """
    curve, shutting = shut_waist(start, leaving, side, hip, plans)
    whole = Path((curve,))
    parts: list[Path] = []
    darts: list[Dart] = []
    rest, done = curve, 0.0  # done: the share of the curve's parameter already cut off
    for index, plan in enumerate(plans):
        inner_side = shutting[index]
        point = plan.point.moved(inner_side)
        toward = plan.inner.moved(inner_side) - point
        crossing = [t for t in rest.crossings(point, toward) if t > 1e-6]
        if not crossing or crossing[0] > 1 - 1e-6:
            return None
        before, rest = rest.split(crossing[0])
        done += (1 - done) * crossing[0]
        opening = inner_side.inverse()
        parts.append(Path((before,)).moved(opening))
        shut_to_here = whole.split(0, done)[0].moved(opening)
        inner = before.end.moved(opening)
        outer = before.end.moved(shutting[index + 1].inverse())
        cap = dart_cap(shut_to_here, plan.point, inner, outer)
        if cap is None:
            return None
        darts.append(Dart(plan.name, plan.point, inner, outer, plan.middle, plan.intake, plan.length, cap))
    parts.append(Path((rest,)).moved(shutting[-1].inverse()))
    return Waist(tuple(parts), tuple(darts), whole)
