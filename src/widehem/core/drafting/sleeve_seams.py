"""The underarm seams of a sleeve: straight, or bent at the elbow by a dart."""

from __future__ import annotations

import math

from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.solve import settle, solve_or_nearest
from widehem.core.pattern.dart_cap import dart_cap
from widehem.core.pattern.edge import Dart, Edge
from widehem.core.values import record

OUT_AT_ELBOW, INTAKE, WRIST_IN = 0.6, 2.5, 1.9
BELOW_LEAST = 6.0  # cm of sleeve below the elbow, or no dart is worth it


@record(frozen=True)
class Seams:
    """Both underarm seams and the hem, in the order of the ring: back from the hem up, front down, hem from front to back.

    forward: how far the wrist has swung towards the front, cm.
    """

    back: Edge
    front: Edge
    hem: Edge
    forward: float = 0.0


def chord(hem: float, lean: float) -> float:
    """How far apart the ends of a level hem lie that is so long, between seams that lean in so much (radians), cm."""
    return hem * math.sin(lean) / lean if abs(lean) > 1e-6 else hem


def level_hem(right: Point, right_way: Point, left: Point, left_way: Point) -> Path:
    """A hem from the front seam to the back seam, square to both, so that it runs on once they are joined. ways: both seams,
    downwards."""
    return Path((curve_between(right, right_way.square(), left, left_way.square()),))


def straight_seams(width: float, hem: float, down: float, *, level: bool = True) -> Seams:
    """Straight from the bicep line, `width` wide, to the hem, whose middle lies this far below it. level: the hem is curved so
    that it is level once the sleeve is closed."""
    if level:
        hem = chord(hem, math.atan2((width - hem) / 2, down))

    def line_at(low: float) -> Path:
        left, right = Point((width - hem) / 2, low), Point((width + hem) / 2, low)
        return level_hem(right, right - Point(width, 0), left, left) if level else Path.through(right, left)

    def over(low: float) -> float:
        hem_line = line_at(low)
        return hem_line.place(hem_line.length / 2).point.y - down

    line = line_at(settle(over, down, near=1e-3)) if level else line_at(down)
    left, right = line.end, line.start
    return Seams(
        Edge("underarm_back", (Path.through(left, Point(0, 0)),), role="underarm"),
        Edge("underarm_front", (Path.through(Point(width, 0), right),), role="underarm"),
        Edge("wrist", (line,), (), "hem"),
    )


def bent_seams(width: float, hem: float, down: float, elbow: float, *, level: bool = True) -> Seams:
    """With a dart at the elbow, this far below the bicep line.

    The elbow line is slashed from the back seam to the middle and the lower part swung forward until the slash opens by the
    intake; the front seam is made as long as the back with its dart sewn.
    """
    plain = straight_seams(width, hem, down, level=False)
    back_at, front_at = (edge.parts[0].at_level(elbow) for edge in (plain.back, plain.front))
    assert back_at is not None and front_at is not None
    above, pivot = Point(back_at.x - OUT_AT_ELBOW, elbow), Point(width / 2, elbow)
    swing = turn(pivot, -2 * math.asin(INTAKE / 2 / pivot.to(above)))
    wrist_back, wrist_front = (Point(x - WRIST_IN, down).moved(swing) for x in ((width - hem) / 2, (width + hem) / 2))
    below = above.moved(swing)
    seam = (Point(0, 0) - Point((width - hem) / 2, down)).unit()  # as it would run without the dart, upwards
    low_way = seam.moved(turn(Point(0, 0), -2 * math.asin(INTAKE / 2 / pivot.to(above))))
    upper = Path((curve_between(above, seam, Point(0, 0), -above),))
    lower = Path((curve_between(wrist_back, below - wrist_back, below, low_way),))
    middle = below.toward(above, 0.5)
    point = middle.toward(pivot, 0.5)
    cap = dart_cap(lower, point, below, above) or Path.through(below, middle + (middle - point).unit() * 0.3, above)
    dart = Dart("elbow_dart", point, below, above, middle, INTAKE, point.to(middle), cap, pivot)
    back = Edge("underarm_back", (lower, upper), (dart,), role="underarm")
    front = _as_long(Point(width, 0), front_at, wrist_front, back.length)
    hem_line = Path.through(front.end, wrist_back)
    if level:
        hem_line = level_hem(front.end, front.arriving, wrist_back, wrist_back - below)
    return Seams(
        back,
        Edge("underarm_front", (front,), role="underarm"),
        Edge("wrist", (hem_line,), (), "hem"),
        wrist_back.x - ((width - hem) / 2 - WRIST_IN),
    )


def _as_long(underarm: Point, elbow: Point, wrist: Point, length: float) -> Path:
    """A smooth front seam by the elbow to the wrist, which is let down until the seam has this length."""
    start = (elbow - underarm).unit()
    down = (wrist - elbow).unit()

    def let_down(by: float) -> Path:
        return Path((curve_between(underarm, start, wrist + down * by, down),))

    return let_down(solve_or_nearest(lambda by: let_down(by).length - length, -1.0, 8.0, near=1e-4))
