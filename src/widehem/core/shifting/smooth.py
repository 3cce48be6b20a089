"""What was smooth stays smooth, and what was square stays square, when the nodes of an outline move."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

from widehem.core.geometry.curves import Cubic, Line, Segment
from widehem.core.geometry.points import Point, angle_between, turn
from widehem.core.pattern.closed import shutting
from widehem.core.pattern.edge import Dart, Gap
from widehem.core.shifting.net import Net

SMOOTH, NEARLY_SQUARE = 1.0, 3.0  # degrees
RUNS_ON = (("crotch", "inseam"),)  # the first runs on over the seam of the second: it keeps its angle to it
ORIGIN = Point(0.0, 0.0)


def _joined(net: Net) -> list[tuple[int, int, Dart | None]]:
    """Spans that follow each other, with the dart that lies between them; not those with another gap between."""
    found: list[tuple[int, int, Dart | None]] = []
    for number, span in enumerate(net.spans):
        after = (number + 1) % len(net.spans)
        dart: Dart | None = None
        following = net.spans[after]
        if span.edge == following.edge and following.part == span.part + 1:
            gap = net.piece.edges[span.edge].gaps[span.part]
            if not isinstance(gap, Dart):
                continue
            dart = gap
        found.append((number, after, dart))
    return found


def _ways(segments: Sequence[Segment], pair: tuple[int, int, Dart | None], dart: Dart | None) -> tuple[Point, Point]:
    """Directions on both sides of a joint, with its dart shut."""
    before, after = segments[pair[0]].direction(1.0), segments[pair[1]].direction(0.0)
    return before, after.moved(shutting(dart)) if dart is not None else after


def smoothed(net: Net, segments: list[Segment], gaps: Mapping[tuple[int, int], Gap]) -> list[Segment]:
    """Joints that were one line get one direction; a straight keeps its own."""
    found = list(segments)
    olds = [span.segment for span in net.spans]
    for pair in _joined(net):
        first, second, old = pair
        if angle_between(*_ways(olds, pair, old)) >= SMOOTH:
            continue
        now = gaps[net.spans[first].edge, net.spans[first].part] if old is not None else None
        dart = now if isinstance(now, Dart) else None
        before, after = _ways(found, pair, dart)
        if angle_between(before, after) < 1e-9:
            continue
        one_line, two_line = isinstance(found[first], Line), isinstance(found[second], Line)
        way = before if one_line else after if two_line else (before + after).unit()
        back = way.moved(shutting(dart).inverse()) if dart is not None else way
        if not one_line:
            found[first] = _arriving(found[first], way)
        if not two_line:
            found[second] = _leaving(found[second], back)
    return found


def _arriving(segment: Segment, way: Point) -> Segment:
    if isinstance(segment, Line) or segment.end.to(segment.into) < 1e-9:
        return segment
    return Cubic(segment.start, segment.out, segment.end - way.unit() * segment.end.to(segment.into), segment.end)


def _leaving(segment: Segment, way: Point) -> Segment:
    if isinstance(segment, Line) or segment.start.to(segment.out) < 1e-9:
        return segment
    return Cubic(segment.start, segment.start + way.unit() * segment.start.to(segment.out), segment.into, segment.end)


def squared(net: Net, segments: list[Segment]) -> list[Segment]:
    """Corners that were nearly square keep their angle, and so does what runs on over a seam: the curve gives way to the straight,
    else what runs over the centre to the centre."""
    found = list(segments)
    olds = [span.segment for span in net.spans]
    for first, second, dart in _joined(net):
        if dart is not None:
            continue
        edges = net.piece.edges[net.spans[first].edge], net.piece.edges[net.spans[second].edge]
        roles = edges[0].role, edges[1].role
        before, after = olds[first].direction(1.0), olds[second].direction(0.0)
        was = math.atan2(before.cross(after), before.dot(after))
        if abs(abs(math.degrees(was)) - 90) > NEARLY_SQUARE and not {roles, roles[::-1]} & set(RUNS_ON):
            continue
        one_line, two_line = isinstance(found[first], Line), isinstance(found[second], Line)
        if one_line and two_line:
            continue
        second_gives = not two_line and (one_line or edges[0].name == net.piece.middle or roles[::-1] in RUNS_ON)
        if roles in RUNS_ON and not one_line:
            second_gives = False
        if second_gives:
            found[second] = _leaving(found[second], found[first].direction(1.0).moved(turn(ORIGIN, was)))
        else:
            found[first] = _arriving(found[first], found[second].direction(0.0).moved(turn(ORIGIN, -was)))
    return found
