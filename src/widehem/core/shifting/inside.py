"""What lies inside a piece follows its outline: mean value coordinates, exact for every change that keeps straights straight."""

from __future__ import annotations

import math
from collections.abc import Sequence

from widehem.core.geometry.curves import Segment
from widehem.core.geometry.points import Point
from widehem.core.shifting.net import Net
from widehem.core.values import record

ON = 0.02  # cm: so near the outline, a place lies on it
Weights = tuple[tuple[int, float], ...]


@record(frozen=True)
class Hung:
    """How a place hangs on the nodes: on a span, at a share of its parameter; else by weights that add up to 1."""

    span: int = -1
    t: float = 0.0
    weights: Weights = ()


def hung(net: Net, spot: Point) -> Hung:
    """How a place of a piece hangs on its outline."""
    best, where = ON, Hung()
    for number, span in enumerate(net.spans):
        t, away = _nearest(span.segment, spot, best)
        if away < best:
            best, where = away, Hung(number, t)
    return where if where.span >= 0 else Hung(weights=mean_value(net.nodes, spot))


def _nearest(segment: Segment, spot: Point, within: float) -> tuple[float, float]:
    """The parameter of the place on a segment that is nearest to a spot, and how far that is; far where it is out of reach."""
    start, end = segment.start, segment.end
    for t, at in ((0.0, start), (1.0, end)):
        if at.to(spot) < 1e-7:
            return t, 0.0
    low_x, high_x = min(start.x, end.x), max(start.x, end.x)
    low_y, high_y = min(start.y, end.y), max(start.y, end.y)
    for handle in (getattr(segment, "out", start), getattr(segment, "into", end)):
        low_x, high_x, low_y, high_y = min(low_x, handle.x), max(high_x, handle.x), min(low_y, handle.y), max(high_y, handle.y)
    if not (low_x - within <= spot.x <= high_x + within and low_y - within <= spot.y <= high_y + within):
        return 0.0, math.inf
    steps = 24
    t = min((n / steps for n in range(steps + 1)), key=lambda t: segment.at(t).to(spot))
    wide = 1 / steps
    while wide > 1e-7:
        t = min((max(t - wide, 0.0), t, min(t + wide, 1.0)), key=lambda t: segment.at(t).to(spot))
        wide /= 2
    return t, segment.at(t).to(spot)


def mean_value(nodes: Sequence[Point], spot: Point) -> Weights:
    """Weights of a place in a polygon, adding up to 1, with which it is the mean of the corners."""
    ways = [node - spot for node in nodes]
    far = [way.size for way in ways]
    nearest = min(range(len(far)), key=far.__getitem__)
    if far[nearest] < 1e-9:
        return ((nearest, 1.0),)
    halves = []
    for number, way in enumerate(ways):
        after = ways[(number + 1) % len(ways)]
        cross, dot = way.cross(after), way.dot(after)
        size = far[number] * far[(number + 1) % len(ways)]
        if abs(cross) < 1e-12 * size and dot < 0:  # on the side itself
            whole = far[number] + far[(number + 1) % len(ways)]
            return ((number, far[(number + 1) % len(ways)] / whole), ((number + 1) % len(ways), far[number] / whole))
        halves.append((size - dot) / cross if abs(cross) > 1e-12 * size else 0.0)
    raw = [(halves[number - 1] + halves[number]) / far[number] for number in range(len(nodes))]
    whole = sum(raw)
    if abs(whole) < 1e-9:
        return ((nearest, 1.0),)
    return tuple((number, weight / whole) for number, weight in enumerate(raw) if weight)
