"""Both edges of a panel line as they are sewn: bent over the point between the darts they take up, and as long as each other."""

from __future__ import annotations

import math
from collections.abc import Sequence
from contextlib import suppress

from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.solve import NoSolutionError, settle, solve
from widehem.core.geometry.spline import spline
from widehem.core.pattern.edge import Dart
from widehem.core.pattern.inside import Diamond
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import Spot
from widehem.core.style.where import Found

HANDLE, NEAR = 0.36, 0.18  # of a stretch
LEANS = math.radians(9.0)  # a line that carries another on over a seam may turn so far there
OUT_MOST, BACK_MOST = 1.5, 0.3  # cm put back at most, and taken away where the rounding gave some
FLAT = 0.02  # cm for each cm: where a line lies so straight, how far inside the point it runs changes little of its length
IN_MOST = 0.6  # cm that an edge is rounded inside the point at most


def faces_through(
    piece: Piece,
    top: Found,
    bottom: Found,
    point: Point,
    diamond: Diamond | None,
    aim: Point | None,
    *,
    side_first: bool,
    owed: float = 0.0,
) -> tuple[Path, Path]:
    """The line as it is sewn, from top to bottom: on the arc that follows its top in the outline, and on the other.

    It leaves the edges at which it begins and ends as the legs of the darts there do. Where a dart lies at one end only, both
    edges are one line as far as its point, and mirror each other beyond. Where one lies at either end, each edge is as long
    as its own legs: it is rounded just inside the point, and what the side panel loses there is put back across on the other.
    side_first: the first of both is the side panel's. owed: what the levels have to lose, cm, because cut pieces measured more.
    """
    upper, lower = (dart_at(piece, found.spot) for found in (top, bottom))
    if diamond is not None:
        rows = _ends(piece, top, point), _ends(piece, bottom, point)
        return tuple(_over_diamond(rows[0][1 - n][0], rows[1][n][0], point, (diamond, 1 - n), aim) for n in (0, 1))  # type: ignore[return-value]
    if upper is not None and lower is not None:
        return _bent(
            _ends(piece, top, point), _ends(piece, bottom, point), point, _levels(piece), side_first=side_first, owed=owed
        )
    first = (point - top.point).unit() if aim is None else _towards(aim, (lower.point if lower else bottom.point) - top.point)
    if upper is None and lower is None:
        whole = _whole(top.point, first, point, bottom.point, direct=aim is not None)
        return whole, whole
    if lower is not None:
        axis = (lower.middle - lower.point).unit()
        head = Path((curve_between(top.point, first, lower.point, axis),))
        sides = [_out_to(lower.point, axis, leg) for leg in (lower.inner, lower.outer)]
        return head + sides[0], head + sides[1]
    assert upper is not None
    axis = (point - upper.middle).unit()
    tail = Path((curve_between(upper.point, axis, bottom.point, (bottom.point - point).unit()),))
    sides = [_out_to(upper.point, -axis, leg).reverse() for leg in (upper.outer, upper.inner)]
    return sides[0] + tail, sides[1] + tail


def _out_to(point: Point, axis: Point, leg: Point) -> Path:
    """A line from the point of a dart to one of its legs at the edge: it bends out of the axis near the point and runs on along the
    leg."""
    far = point.to(leg)
    return Path((curve_between(point, axis, leg, (leg - point).unit(), far * NEAR, far * HANDLE),))


def _towards(aim: Point, chord: Point) -> Point:
    """A direction turned a little to where the line goes, so that it does not wave."""
    off = math.atan2(aim.cross(chord), aim.dot(chord))
    return aim.moved(turn(Point(0.0, 0.0), max(min(off, LEANS), -LEANS)))


def _whole(a: Point, first: Point, point: Point, b: Point, *, direct: bool) -> Path:
    """A line without any dart: over its point, or straight on from the line it carries on."""
    if direct or min(point.to(a), point.to(b)) < 4.0:
        return Path((curve_between(a, first, b, (b - a.toward(b, 0.4)).unit()),))
    return Path(spline([a, point, b], first, (b - point).unit()))


def _levels(piece: Piece) -> list[Level]:
    """The levels of a piece at which a girth must not change: those that its top panel crosses."""
    return [line.lines for line in piece.balance if line.level != "waist"]


End = tuple[Point, Point]
Line = tuple[Point, Point]
Level = tuple[Line, ...]


def _ends(piece: Piece, found: Found, point: Point) -> tuple[End, End]:
    """Where the line meets an edge on the side before it in the outline and after it, and which way it leaves inwards."""
    dart = dart_at(piece, found.spot)
    if dart is None:
        way = (point - found.point).unit()
        return (found.point, way), (found.point, way)
    about = dart.turned_about if dart.apex is not None else dart.point
    return (dart.inner, (about - dart.inner).unit()), (dart.outer, (about - dart.outer).unit())


def _bent(
    top: tuple[End, End],
    bottom: tuple[End, End],
    point: Point,
    levels: Sequence[Level],
    *,
    side_first: bool,
    owed: float = 0.0,
) -> tuple[Path, Path]:
    """Both edges of a line between two darts. At the top the arc from top to bottom begins at the outer leg; at the bottom it
    ends at the inner one."""
    rows = (top[1], bottom[0]), (top[0], bottom[1])
    side, flat = rows if side_first else rows[::-1]
    legs = sum(start[0].to(point) + point.to(end[0]) for start, end in rows) / 2
    towards = _across_from(flat, side)
    straight = [Path.through(start[0], point, end[0]) for start, end in (side, flat)]
    drawn: list[Path] = []
    inside = 0.0  # how far inside the point the side panel was rounded last: the next lies near it

    def lost(out: float) -> float:
        """What the levels lose with so much put back on the flat panel, which makes it longer: the side panel follows."""
        nonlocal inside
        two = _through(flat, point + towards * out) if out else _rounded(flat, point, legs)[0]
        one, inside = _rounded(side, point, two.length, inside)
        drawn[:] = one, two
        most = 0.0
        for level in levels:
            parted = len(level) > 1  # by a dart that opened along it: it was measured as far as the point
            ends = (level[0], straight[1], two, level[0][1]), (level[-1], straight[0], drawn[0], level[-1][0])
            moved = [_moved_on(line, was, now, joint if parted else None) for line, was, now, joint in ends]
            most = max(most, moved[1] - moved[0], key=abs)
        return most

    try:
        settle(lambda out: owed - lost(min(max(out, -BACK_MOST), OUT_MOST)), 0.0, near=1e-3)
    except NoSolutionError as none:
        lost(min(max(none.best, -BACK_MOST), OUT_MOST))
    one, two = drawn
    return (one, two) if side_first else (two, one)


def _moved_on(line: Line, was: Path, now: Path, joint: Point | None) -> float:
    """How much further along a level a line crosses it than it did, or than its joint lies, cm; 0 where it does not cross it."""
    at, way = line[0], (line[1] - line[0]).unit()
    found = [[way.dot(path.segments[i].at(t) - at) for i, t in path.crossings(at, way)] for path in (was, now)]
    if not all(found):
        return 0.0
    return found[1][0] - (found[0][0] if joint is None else way.dot(joint - at))


def _across_from(flat: tuple[End, End], side: tuple[End, End]) -> Point:
    """Which way the side panel lies from the other: square to the line."""
    a, b = flat[0][0], flat[1][0]
    out = (b - a).unit().square()
    gap = (side[0][0] - a) + (side[1][0] - b)
    return out if out.dot(gap) > 0 else -out


def _through(ends: tuple[End, End], q: Point) -> Path:
    """One edge of a line, through a place beside its point, without a corner there."""
    (a, first), (b, inwards) = ends
    way = ((q - a).unit() + (b - q).unit()).unit()
    high, low = a.to(q) * HANDLE, q.to(b) * HANDLE
    return Path((curve_between(a, first, q, way, high, high), curve_between(q, way, b, -inwards, low, low)))


def _rounded(ends: tuple[End, End], point: Point, want: float, near: float = 0.0) -> tuple[Path, float]:
    """One edge of a line, as long as is wanted, and how far inside the point it runs, which decides it. near: about how far."""
    a, b = ends[0][0], ends[1][0]
    chord = (b - a).unit()
    inwards = a.toward(b, chord.dot(point - a) / a.to(b)) - point
    inwards = inwards.unit() if inwards.size > 1e-6 else chord.square()
    drawn = _through(ends, point)

    def off(at: float) -> float:
        nonlocal drawn
        drawn = _through(ends, point + inwards * at)
        return drawn.length - want

    here = point + inwards * near
    slope = inwards.dot((here - a).unit() + (here - b).unit())  # as two straights to it would grow
    if abs(slope) > FLAT:
        with suppress(NoSolutionError):
            at = settle(off, near, slope=slope)
            if abs(at) <= IN_MOST:
                return drawn, at
    for reach in (IN_MOST, 2.5):
        with suppress(NoSolutionError):
            at = solve(off, -reach, reach)
            return _through(ends, point + inwards * at), at
    return _through(ends, point), 0.0


def _over_diamond(a: Point, b: Point, point: Point, dart: tuple[Diamond, int], aim: Point | None) -> Path:
    """One edge of a line that takes up a dart inside the piece, along its own leg."""
    diamond, outer = dart
    spots = [diamond.top, diamond.outer if outer else diamond.inner, diamond.bottom]
    way = (b - a).unit()
    row = [s for s in sorted([point, *spots], key=lambda s: way.dot(s)) if 1.0 < way.dot(s - a) < way.dot(b - a) - 1.0]
    kept: list[Point] = []
    for spot in row:
        if spot is point and any(s.to(point) < 3.0 for s in spots):
            continue
        kept.append(spot)
    return Path(spline([a, *kept, b], aim if aim is not None else (kept[0] - a).unit(), (b - kept[-1]).unit()))


def dart_at(piece: Piece, spot: Spot) -> Dart | None:
    return next((dart for dart in piece.edge(spot.edge).darts if dart.name == spot.dart), None)
