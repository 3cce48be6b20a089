"""Outlines that were drawn elsewhere: rings with what lies inside them, where they turn, and the darts in them."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from itertools import pairwise
from typing import Any

from shapely import LinearRing, LineString, Polygon
from shapely import Point as Dot

from widehem.core.geometry.curves import Cubic, Line, Segment
from widehem.core.geometry.fitted import fitted
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, angle_between, meet
from widehem.core.values import kept, record, replace

TURNS = 25.0  # degrees: where an outline turns more it has a corner
TOUCHES = 0.06  # cm: so near the outline the leg of a dart ends on it
MOUTH, LEGS = 16.0, 0.12  # cm of a dart at the most; how much its legs may differ, of their length
SHALLOW = 1.0  # cm that a dart is deep, at the least
FLAT = 0.005
HARDLY = 2e-3  # cm along an outline that are nothing


class OutlineError(ValueError):
    """An outline that cannot be used; one sentence naming it."""


@record(frozen=True)
class Outline:
    """A closed line with open ones inside it, cm. name: of what it was found in; size: that it says, '' for none. notches: cm along the
    ring; grain: two ends of a line along it; holes: middles."""

    id: str
    name: str
    ring: Path
    inner: tuple[Path, ...] = ()
    size: str = ""
    notches: tuple[float, ...] = ()
    grain: tuple[Point, Point] | None = None
    holes: tuple[Point, ...] = ()

    @kept
    def length(self) -> float:
        return self.ring.length

    @kept
    def surface(self) -> Polygon:
        return Polygon([(p.x, p.y) for p in self.ring.flat(FLAT)[:-1]])

    @kept
    def corners(self) -> tuple[float, ...]:
        """How far along the ring it turns, cm."""
        found, gone = [], 0.0
        segments = self.ring.segments
        for before, here in zip((segments[-1], *segments[:-1]), segments, strict=True):
            if angle_between(before.direction(1.0), here.direction(0.0)) > TURNS:
                found.append(gone)
            gone += here.length
        return tuple(found)

    def between(self, start: float, end: float) -> Path:
        """The ring from one place along it to another, on over its beginning where the second comes first."""
        whole = self.length
        start, end = self._at_joint(start % whole), self._at_joint(end % whole)
        if end > start + HARDLY:
            return self._part(start, end)
        if end < HARDLY:
            return self._part(start, whole)
        return self._part(start, whole) + self._part(0.0, end) if whole - start > HARDLY else self._part(0.0, end)

    @kept
    def _joints(self) -> tuple[float, ...]:
        gone, found = 0.0, [0.0]
        for segment in self.ring.segments:
            gone += segment.length
            found.append(gone)
        return tuple(found)

    def _at_joint(self, along: float) -> float:
        """A place along the ring, at a joint of it where it is very near one."""
        near = min(self._joints, key=lambda joint: abs(joint - along))
        if abs(near - along) > HARDLY:
            return along
        return 0.0 if near == self._joints[-1] else near

    def _part(self, start: float, end: float) -> Path:
        found: list[Segment] = []
        for segment, low, high in zip(self.ring.segments, self._joints, self._joints[1:], strict=False):
            if high <= start + HARDLY or low >= end - HARDLY:
                continue
            piece: Segment = segment
            if end < high - HARDLY:
                piece = piece.split(piece.t_at_length(end - low))[0]
            if start > low + HARDLY:
                piece = piece.split(piece.t_at_length(start - low))[1]
            found.append(piece)
        return Path(tuple(found))

    def along(self, spot: Point) -> tuple[float, float]:
        """How far along the ring the nearest place to a spot lies, and how far from it, cm."""
        rail = self._rail
        dot = Dot(*spot)
        return float(rail.project(dot)) / rail.length * self.length, float(rail.distance(dot))

    @kept
    def _rail(self) -> LineString:
        return LineString(self.ring.flat(FLAT / 2))


@record(frozen=True)
class FoundDart:
    """A dart of an outline: its point, where its legs meet the ring, cm along it, in its order."""

    point: Point
    start: float
    end: float
    inner: int = -1  # which line inside it is, -1 for one that is cut out of the outline


def darts_of(outline: Outline) -> tuple[FoundDart, ...]:
    """Darts: two straights inside that meet in a point and end on the outline, or a deep corner cut out of it."""
    found = []
    for number, path in enumerate(outline.inner):
        if len(path.segments) != 2 or any(isinstance(s, Cubic) for s in path.segments):
            continue
        (one, off_one), (two, off_two) = outline.along(path.start), outline.along(path.end)
        point = path.segments[0].end
        if max(off_one, off_two) < TOUCHES < outline.along(point)[1]:
            found.append(_dart(outline, point, one, two, number))
    found += _cut_out(outline)
    return tuple(dart for dart in found if dart is not None)


def _dart(outline: Outline, point: Point, one: float, two: float, number: int) -> FoundDart | None:
    """With its legs in the order of the ring, its mouth the shorter way round."""
    ahead = (two - one) % outline.length
    start, end = (one, two) if ahead <= outline.length / 2 else (two, one)
    a, b = _spot(outline, start), _spot(outline, end)
    legs = point.to(a), point.to(b)
    if a.to(b) > MOUTH or abs(legs[0] - legs[1]) > LEGS * max(legs) or min(legs) < SHALLOW:
        return None
    return FoundDart(point, start, end, number)


def _spot(outline: Outline, along: float) -> Point:
    return outline.ring.place(min(max(along, 0.0), outline.length)).point


def _cut_out(outline: Outline) -> list[FoundDart | None]:
    corners = outline.corners
    found: list[FoundDart | None] = []
    sign = 1.0 if LinearRing(outline.surface.exterior.coords).is_ccw else -1.0
    for before, at, after in (
        zip((corners[-1:] + corners[:-1]), corners, (*corners[1:], *corners[:1]), strict=True) if len(corners) > 3 else ()
    ):
        a, p, b = (_spot(outline, along) for along in (before, at, after))
        hollow = (p - a).cross(b - p) * sign < 0
        straight = all(
            abs(outline.between(x, y).length - _spot(outline, x).to(_spot(outline, y))) < 0.05
            for x, y in ((before, at), (at, after))
        )
        deep = angle_between(p - a, b - p) > 90
        if hollow and straight and deep:
            found.append(_dart(outline, p, before, after, -1))
    return found


def without_allowance(
    outline: Outline, corners: Sequence[float], amounts: Sequence[float]
) -> tuple[Outline, tuple[float, ...]]:
    """The stitching line inside a cutting line. corners: where its edges begin, cm along it; amounts: of the edges between them, cm.
    Returns it with its own corners. Raises OutlineError where the allowance is wider than the piece."""
    sides = [outline.between(a, b) for a, b in pairwise((*corners, corners[0]))]
    sign = 1.0 if LinearRing(outline.surface.exterior.coords).is_ccw else -1.0
    lines = [_inside(side, amount, sign) for side, amount in zip(sides, amounts, strict=True)]
    spots = []
    for before, here, old in zip((lines[-1], *lines[:-1]), lines, sides, strict=True):
        spots.append(_crossing(before, here, old.start))
    rows = []
    for line, a, b in zip(lines, spots, (*spots[1:], spots[0]), strict=True):
        start, end = line.project(Dot(*a)), line.project(Dot(*b))
        if end - start < 0.1:
            raise OutlineError(f"The {outline.name} has an edge shorter than its allowance: say that it has less there.")
        middle = [Point(x, y) for x, y in line.coords if start + 1e-6 < line.project(Dot(x, y)) < end - 1e-6]
        rows.append(fitted([a, *middle, b]))
    ring = Path(tuple(segment for row in rows for segment in row.segments))
    found = replace(outline, ring=ring)
    found = replace(found, notches=tuple(found.along(_spot(outline, along))[0] for along in outline.notches))
    if not found.surface.is_valid or found.surface.area <= 1.0:
        raise OutlineError(f"The {outline.name} is narrower than twice its allowance: say that it has less.")
    gone, starts = 0.0, []
    for row in rows:
        starts.append(gone)
        gone += row.length
    return found, tuple(starts)


def _inside(side: Path, amount: float, sign: float) -> LineString:
    """An edge moved inwards, carried on at both ends."""
    flat = _distinct(side)
    line = LineString(flat)
    if amount > 1e-9:
        moved = line.offset_curve(sign * amount, join_style="mitre", mitre_limit=5.0)
        if moved.geom_type != "LineString":
            moved = max(moved.geoms, key=lambda part: part.length)
        coords = [Point(x, y) for x, y in moved.coords]
        if (coords[-1] - coords[0]).dot(flat[-1] - flat[0]) < 0:
            coords.reverse()
    else:
        coords = flat
    reach = 3 * amount + 2.0
    first, last = (coords[0] - coords[1]).unit(), (coords[-1] - coords[-2]).unit()
    return LineString([coords[0] + first * reach, *coords, coords[-1] + last * reach])


def _distinct(side: Path) -> list[Point]:
    flat = side.flat(FLAT / 2)
    return [flat[0], *(b for a, b in pairwise(flat) if a.to(b) > 1e-9)]


def _crossing(before: LineString, here: LineString, near: Point) -> Point:
    """Where two moved edges meet, near where the edges met."""
    found = before.intersection(here)
    spots = [Point(*g.coords[0]) for g in getattr(found, "geoms", [found]) if not g.is_empty]
    if spots:
        return min(spots, key=near.to)
    a, b = Point(*before.coords[-2]), Point(*before.coords[-1])
    c, d = Point(*here.coords[1]), Point(*here.coords[0])
    at = meet(a, b - a, c, d - c)
    return at if at is not None and at.to(near) < 20 else c


def matched(base: Outline, corners: Sequence[float], other: Outline) -> tuple[float, ...]:
    """Where the corners of an outline lie on the same piece in another size: where that turns, as near as can be."""
    frame = [_share(outline) for outline in (base, other)]
    candidates = [(along, frame[1](_spot(other, along))) for along in other.corners]
    found = []
    for along in corners:
        want = frame[0](_spot(base, along))
        near = min(candidates, key=lambda entry: entry[1].to(want), default=None)
        if near is not None and near[1].to(want) < NEAR:
            found.append(near[0])
        else:
            found.append(_nearest(other, frame[1], want))
    start = found.index(min(found))
    ordered = [*found[start:], *found[:start]]
    if any(b <= a for a, b in pairwise(ordered)):
        raise OutlineError(
            f"The {other.name} of size {other.size or '?'} does not turn where the others do: name it as a piece of its own."
        )
    return tuple(found)


NEAR = 0.09  # of the size of the piece


Frame = Callable[[Point], Point]


def _share(outline: Outline) -> Frame:
    """Where a spot lies within what the outline takes, from 0 to 1."""
    left, top, right, bottom = outline.surface.bounds
    wide, high = max(right - left, 1e-6), max(bottom - top, 1e-6)
    return lambda spot: Point((spot.x - left) / wide, (spot.y - top) / high)


def _nearest(outline: Outline, frame: Frame, want: Point) -> float:
    count = 400
    spots = [(outline.length * n / count, frame(_spot(outline, outline.length * n / count))) for n in range(count)]
    return min(spots, key=lambda entry: entry[1].to(want))[0]


# how a path stands in a file: a straight by its end, a curve by its handles and its end, after the first spot


def path_as_data(path: Path) -> list[list[float]]:
    rows = [[round(path.start.x, 5), round(path.start.y, 5)]]
    for segment in path.segments:
        spots = (segment.end,) if isinstance(segment, Line) else (segment.out, segment.into, segment.end)
        rows.append([round(value, 5) for spot in spots for value in spot])
    return rows


def path_from_data(data: object) -> Path:
    """Raises OutlineError."""
    if not isinstance(data, list) or len(data) < 2:
        raise OutlineError("A line of the outline has no points.")
    rows = [_figures(row) for row in data]
    if len(rows[0]) != 2:
        raise OutlineError("A line of the outline begins with no point.")
    at, segments = Point(*rows[0]), list[Segment]()
    for row in rows[1:]:
        if len(row) == 2:
            end = Point(*row)
            segments.append(Line(at, end))
        elif len(row) == 6:
            end = Point(row[4], row[5])
            segments.append(Cubic(at, Point(row[0], row[1]), Point(row[2], row[3]), end))
        else:
            raise OutlineError("A line of the outline has a piece with neither two nor six figures.")
        at = end
    return Path(tuple(segments))


def _figures(row: object) -> list[float]:
    if not isinstance(row, list) or not all(
        isinstance(v, int | float) and not isinstance(v, bool) and math.isfinite(v) and abs(v) < 5000 for v in row
    ):
        raise OutlineError("A line of the outline has something in it that is no figure.")
    return [float(v) for v in row]


def outline_as_data(outline: Outline) -> dict[str, Any]:
    """An outline as it is kept."""
    found: dict[str, Any] = {
        "id": outline.id, "name": outline.name, "size": outline.size, "ring": path_as_data(outline.ring),
        "inner": [path_as_data(path) for path in outline.inner], "notches": [round(along, 4) for along in outline.notches],
        "holes": [[round(p.x, 4), round(p.y, 4)] for p in outline.holes],
    }  # fmt: skip
    if outline.grain:
        found["grain"] = path_as_data(Path.through(*outline.grain))
    return found


def outline_from_data(data: object) -> Outline:
    """Raises OutlineError."""
    if not isinstance(data, dict) or not all(isinstance(data.get(name), str) for name in ("id", "name", "size")):
        raise OutlineError("An outline has no id, name and size in words.")
    ring = path_from_data(data.get("ring"))
    if ring.start.to(ring.end) > 1e-3:
        raise OutlineError(f"The outline {data['name'][:40]} is not closed.")
    grain = path_from_data(data["grain"]) if data.get("grain") else None
    inner, holes = data.get("inner", []), data.get("holes", [])
    if not isinstance(inner, list) or not isinstance(holes, list):
        raise OutlineError(f"The outline {data['name'][:40]} has no list of what lies inside it.")
    return Outline(
        data["id"][:40], data["name"][:60], ring, tuple(path_from_data(path) for path in inner), data["size"][:20],
        tuple(_figures(data.get("notches", []))), (grain.start, grain.end) if grain else None,
        tuple(Point(*_figures(hole)[:2]) for hole in holes if len(_figures(hole)) == 2),
    )  # fmt: skip
