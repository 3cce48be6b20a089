"""The edge across the mouth of a dart."""

from __future__ import annotations

from widehem.core.geometry.curves import Line
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, meet, mirror_in

FURTHEST = 1.5  # of a leg's length: how far from its point the tip of a dart's cap may lie where the piece ends before the fold


def dart_cap(edge: Path, point: Point, inner: Point, outer: Point) -> Path | None:
    """The edge across a dart's mouth, for a dart folded inwards.

    edge: the stitching line up to the inner leg, as it runs with the darts before it shut. What the fold covers is
    copied across the leg, and that half across the axis.
    """
    axis = inner.toward(outer, 0.5) - point
    leg = mirror_in(point, inner)
    under = (point + axis).moved(leg) - point
    crossed = edge.crossings(point, under)
    if crossed:
        index, t = crossed[-1]
        covered = edge.split(index, t)[1]
    else:  # the piece ends before the fold does: carry its edge on straight
        reach = meet(edge.start, edge.leaving, point, under)
        if reach is None:
            return None
        along = (reach - point).dot(under.unit())
        # carried on it would miss the fold: across to it, no further than a leg
        if not 0.0 < along <= FURTHEST * point.to(inner):
            reach = point + under.unit() * point.to(inner)
        covered = Path((Line(reach, edge.start), *edge.segments))
    first = covered.moved(leg).reverse()
    return first + first.moved(mirror_in(point, point + axis)).reverse()
