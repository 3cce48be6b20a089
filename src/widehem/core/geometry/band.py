"""A line at a distance beside a path: the inner edge of a facing, a band."""

from __future__ import annotations

from widehem.core.geometry.curves import Cubic, Line, Segment, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, angle_between

KINK = 1.0  # degrees: a corner of the path at which its band is trimmed or bridged
PER_CURVE = 4  # pieces in which a curve is offset


def band(path: Path, wide: float, inside: Point) -> Path:
    """A path so far (cm) beside another, on the side of a direction at its start; trimmed or bridged where it has corners."""
    way = path.leaving.square()
    hand = 1.0 if way.dot(inside) > 0 else -1.0
    rows: list[list[Segment]] = []
    for segment in path.segments:
        beside = _beside(segment, wide * hand)
        if (
            rows
            and angle_between(rows[-1][-1].direction(1.0), beside[0].direction(0.0)) < KINK
            and rows[-1][-1].end.to(beside[0].start) < 0.05
        ):
            rows[-1] += _joined(rows[-1].pop(), beside)
        else:
            rows.append(list(beside))
    found: list[Segment] = list(rows[0])
    for row in rows[1:]:
        found.append(Line(found[-1].end, row[0].start))
        found += row
    return Path(tuple(s for s in found if s.length > 1e-9))


def _beside(segment: Segment, by: float) -> list[Segment]:
    if isinstance(segment, Line):
        shift = segment.direction(0.0).square() * by
        return [Line(segment.start + shift, segment.end + shift)]
    found: list[Segment] = []
    rest, left = segment, PER_CURVE
    while left:
        piece, rest = rest.split(1 / left) if left > 1 else (rest, rest)
        left -= 1
        a, b = piece.direction(0.0), piece.direction(1.0)
        start, end = piece.start + a.square() * by, piece.end + b.square() * by
        reach = start.to(end) / max(piece.start.to(piece.end), 1e-9)
        out, into = piece.start.to(piece.out) * reach, piece.end.to(piece.into) * reach
        found.append(curve_between(start, a, end, b, out, into))
    return found


def _joined(last: Segment, following: list[Segment]) -> list[Segment]:
    """Two neighbours that meet but for a rounding."""
    first = following[0]
    if isinstance(first, Line):
        return [last, Line(last.end, first.end), *following[1:]]
    return [last, Cubic(last.end, first.out, first.into, first.end), *following[1:]]
