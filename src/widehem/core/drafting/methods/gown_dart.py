"""A dart from the armhole of a gown to the bust, for a cup that its seams alone cannot hold."""

from __future__ import annotations

import math

from widehem.core.drafting.upper import HOLE_RADIUS
from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.solve import solve_or_nearest
from widehem.core.pattern.edge import Dart
from widehem.core.pattern.ring import dart_between
from widehem.core.values import record

FROM, LEFT, MOST, MOST_FIRST = (
    7.9,
    6.0,
    5.5,
    4.5,
)  # cm the front armhole is longer from which there is a dart; is longer with it; a dart at most; by the earlier rules
RUBBED = 4.0  # cm of the armhole on each side of the shut dart that is drawn again
SHORT, CLEAR = 2.5, 3.0  # cm before the bust that it ends; that it stays clear of the ends of the armhole


@record(frozen=True)
class Darted:
    """An armhole from the shoulder tip down, in two, with the dart between them."""

    upper: Path
    lower: Path
    dart: Dart

    @property
    def length(self) -> float:
        return self.upper.length + self.lower.length


def takes(front: float, back: float, most: float) -> float:
    """What a dart takes out of a front armhole, at most so much, cm; 0 where the seams hold the cup."""
    over = front - back
    return min(over - LEFT, most) if over > FROM else 0.0


def darted(hole: Path, apex: Point, takes: float) -> Darted | None:
    """The armhole with a dart to the bust where it lies nearest to it, drawn again over the shut dart; None where it has no room
    for it."""
    steps = [hole.length * n / 120 for n in range(121)]
    near = min(steps, key=lambda along: hole.place(along).point.to(apex))
    near = min(max(near, takes + CLEAR), hole.length - takes - CLEAR)

    def second(first: float) -> float:
        far = hole.place(first).point.to(apex)
        return solve_or_nearest(lambda along: hole.place(along).point.to(apex) - far, near, hole.length - CLEAR, near=1e-6)

    def wide(back: float) -> float:
        first = near - back
        return hole.place(first).point.to(hole.place(second(first)).point) - takes

    room = min(near - CLEAR, takes)
    if room <= 0:
        return None
    first = near - solve_or_nearest(wide, 0.02, room, near=1e-5)
    last = second(first)
    upper, lower = hole.cut(first)[0], hole.cut(last)[1]
    one, two = upper.end - apex, lower.start - apex
    shut = turn(apex, math.atan2(two.cross(one), two.dot(one)))
    laid = lower.moved(shut)
    before, after = min(RUBBED, upper.length / 2), min(RUBBED, laid.length / 2)
    kept, ran = upper.cut(upper.length - before)[0], laid.cut(after)[1]
    again = curve_between(kept.end, kept.arriving, ran.start, ran.leaving)
    whole = Path((again,))
    crossings = whole.crossings(apex, one.unit())
    if not crossings or again.turns(24)[1] > 1 / (HOLE_RADIUS / 2):
        return None
    above, below = whole.split(*crossings[0])
    back = turn(apex, -math.atan2(two.cross(one), two.dot(one)))
    upper, lower = kept + above, (below + ran).moved(back)
    return Darted(upper, lower, dart_between("armhole_dart", lower.reverse(), upper.reverse(), apex, SHORT))
