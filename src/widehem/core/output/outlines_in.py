"""Outlines out of the lines of a drawing: which of them close, which lie inside, which is the stitching line within a cutting line."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from itertools import pairwise

from shapely import LineString, Polygon

from widehem.core.drafting.outlines import Outline
from widehem.core.geometry.curves import Line
from widehem.core.geometry.fitted import fitted
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.output.sheets import TEST_CM, TEST_IN
from widehem.core.units import CM_PER_INCH
from widehem.core.values import record, replace

LARGEST_FILE = 8 * 1024 * 1024
MOST_LINES, MOST_POINTS, MOST_OUTLINES = 20_000, 400_000, 300
JOINS = 0.03  # cm: ends so near each other are one
LEAST_AREA, HOLE_AREA = 6.0, 2.5  # cm²: of an outline; below the other a closed line is a hole
WITHIN = 0.5  # of the area of what it lies in, and it is the stitching line
NOTCH = 1.3  # cm: a notch is no longer
REACH = 3.2  # cm from a notch to the stitching line it stands over
FAR = 600.0  # cm: a piece is no larger
DENSE = 6  # straights in a row, and they stand for a curve
SHORT = 1.2  # cm, each of them


class FileRefusedError(ValueError):
    """A file that cannot be taken in; one sentence for the maker."""


@record(frozen=True)
class Drawn:
    """A line of a drawing, cm, y downwards. group: what it belongs to; kind: of line, as the file says, '' where it does not."""

    group: str
    kind: str
    path: Path
    size: str = ""


@record(frozen=True)
class Found:
    """What a file holds. notes: what was seen about it, a sentence each."""

    outlines: tuple[Outline, ...]
    notes: tuple[str, ...]


def outlines_in(drawn: Sequence[Drawn]) -> Found:
    """The outlines among lines. Raises FileRefusedError where there is none."""
    if len(drawn) > MOST_LINES or sum(len(d.path.segments) for d in drawn) > MOST_POINTS:
        raise FileRefusedError(
            f"The file has more than {MOST_LINES} lines or {MOST_POINTS} points: leave out what is no pattern."
        )
    groups: dict[tuple[str, str], list[Drawn]] = {}
    for entry in drawn:
        groups.setdefault((entry.group, entry.size), []).append(entry)
    found: list[Outline] = []
    squares: list[float] = []
    for (group, size), lines in groups.items():
        rings, rest = _rings(lines)
        for ring in rings:
            if (side := _test_square(ring)) is not None:
                squares.append(side)
        rings = [ring for ring in rings if _test_square(ring) is None]
        found += _outlines(group, size, rings, rest)
    if not found:
        raise FileRefusedError(
            "There is no closed line in this file that is as large as a pattern piece: join the lines of each piece."
        )
    if len(found) > MOST_OUTLINES:
        raise FileRefusedError(
            f"There are {len(found)} closed lines in this file, {MOST_OUTLINES} is the most: take in a part of it."
        )
    if any(max(o.surface.bounds[2] - o.surface.bounds[0], o.surface.bounds[3] - o.surface.bounds[1]) > FAR for o in found):
        raise FileRefusedError("A piece in this file is longer than 6 m: its unit is not what was said.")
    notes = [f"A test square in it measures {side:.2f} cm." for side in dict.fromkeys(round(side, 2) for side in squares)]
    numbered = tuple(replace(outline, id=f"o{number}") for number, outline in enumerate(sized(found), 1))
    return Found(numbered, tuple(notes))


def sized(outlines: Sequence[Outline]) -> list[Outline]:
    """Outlines of a nest told apart: those that lie in each other and say no size are sizes of one piece, the smallest first."""
    found: list[Outline] = []
    rest = list(outlines)
    while rest:
        first = rest.pop(0)
        same = [o for o in rest if not o.size and not first.size and _nested(first, o)]
        rest = [o for o in rest if o not in same]
        row = sorted([first, *same], key=lambda o: float(o.surface.area))
        found += [replace(o, name=row[0].name, size=f"{n}") for n, o in enumerate(row, 1)] if same else [first]
    return found


def _nested(one: Outline, two: Outline) -> bool:
    over = one.surface.buffer(0).intersection(two.surface.buffer(0)).area
    return bool(over > 0.6 * max(one.surface.area, two.surface.area))


def _rings(lines: Sequence[Drawn]) -> tuple[list[Drawn], list[Drawn]]:
    """Lines that close, by themselves or joined end to end, and the rest."""
    closed, open_ = list[Drawn](), list[Drawn]()
    for entry in lines:
        (closed if len(entry.path.segments) > 1 and entry.path.start.to(entry.path.end) <= JOINS else open_).append(entry)
    kinds = {entry.kind for entry in open_}
    for kind in sorted(kinds):
        mine = [entry for entry in open_ if entry.kind == kind or (kind == "stitch" and entry.kind == "fold")]
        joined, used = _joined(mine)
        closed += joined
        open_ = [entry for entry in open_ if entry not in used]
    if any(entry.kind in OUTER for entry in closed):  # what closes inside is no piece
        open_ += [entry for entry in closed if entry.kind in INNER]
        closed = [entry for entry in closed if entry.kind not in INNER]
    return [replace(entry, path=_clean(entry.path)) for entry in closed], open_


OUTER, INNER = ("cut", "stitch"), ("balance", "zone", "grain")


def _joined(lines: Sequence[Drawn]) -> tuple[list[Drawn], list[Drawn]]:
    """Rings of lines that meet end to end, once all that only hangs on is left aside; and what they are made of."""
    kept = list(lines)
    while True:
        ends: dict[int, int] = {}
        nodes = _nodes(kept)
        for a, b in nodes:
            ends[a], ends[b] = ends.get(a, 0) + 1, ends.get(b, 0) + 1
        hanging = [entry for entry, (a, b) in zip(kept, nodes, strict=True) if ends[a] < 2 or ends[b] < 2]
        if not hanging:
            break
        kept = [entry for entry in kept if entry not in hanging]
    rings, used = [], []
    nodes = _nodes(kept)
    left = dict(enumerate(nodes))
    while left:
        number, (begin, at) = next(iter(left.items()))
        del left[number]
        row, path = [number], kept[number].path
        while at != begin:
            following = next(((n, ab) for n, ab in left.items() if at in ab), None)
            if following is None:
                break
            n, (a, b) = following
            del left[n]
            path = path + (kept[n].path if a == at else kept[n].path.reverse())
            at = b if a == at else a
            row.append(n)
        if at == begin and len(row) > 1:
            rings.append(replace(kept[row[0]], path=_shut(path)))
            used += [kept[n] for n in row]
    return rings, used


def _nodes(lines: Sequence[Drawn]) -> list[tuple[int, int]]:
    """The ends of lines as numbers, the same for ends that meet."""
    spots: list[Point] = []

    def number(spot: Point) -> int:
        for n, other in enumerate(spots):
            if other.to(spot) <= JOINS:
                return n
        spots.append(spot)
        return len(spots) - 1

    return [(number(entry.path.start), number(entry.path.end)) for entry in lines]


def _shut(path: Path) -> Path:
    """A chain whose joints are closed exactly."""
    segments = list(path.segments)
    for n, segment in enumerate(segments):
        before = segments[n - 1].end
        if segment.start != before:
            segments[n] = replace(segment, start=before)
    return Path(tuple(segments))


def _clean(path: Path) -> Path:
    """A ring with curves where it is a row of short straights, and no piece without a length."""
    segments = [s for s in _shut(path).segments if s.length > 1e-4]
    rows: list[list[Point]] = []
    found: list[Path] = []
    for segment in segments:
        if isinstance(segment, Line) and rows and rows[-1][-1] == segment.start and _runs_on(rows[-1], segment):
            rows[-1].append(segment.end)
        elif isinstance(segment, Line):
            rows.append([segment.start, segment.end])
        else:
            found += [_row(row) for row in rows]
            rows = []
            found.append(Path((segment,)))
    found += [_row(row) for row in rows]
    return _shut(Path(tuple(s for path in found for s in path.segments)))


def _row(row: list[Point]) -> Path:
    dense = len(row) > DENSE and sum(1 for a, b in pairwise(row) if a.to(b) < SHORT) >= len(row) / 2
    return fitted(row) if dense else Path.through(*row)


SMOOTH = 0.93  # cosine between two straights that may be parts of one curve


def _runs_on(row: Sequence[Point], segment: Line) -> bool:
    return (row[-1] - row[-2]).unit().dot((segment.end - segment.start).unit()) > SMOOTH


def _test_square(ring: Drawn) -> float | None:
    """The side of a square that is there to lay a ruler on; None for anything else."""
    segments = ring.path.segments
    if len(segments) not in (4, 5) or not all(isinstance(s, Line) for s in segments):
        return None
    sides = [s.length for s in segments if s.length > 0.01]
    near = any(abs(sides[0] - side) < 0.12 * side for side in (TEST_CM, TEST_IN * CM_PER_INCH))
    return sides[0] if len(sides) == 4 and near and max(sides) - min(sides) < 0.02 else None


def _outlines(group: str, size: str, rings: Sequence[Drawn], rest: Sequence[Drawn]) -> list[Outline]:
    shapes = [(ring, Polygon([(p.x, p.y) for p in ring.path.flat(0.02)])) for ring in rings]
    shapes = [(ring, shape if shape.is_valid else shape.buffer(0)) for ring, shape in shapes]
    large = [(ring, shape) for ring, shape in shapes if shape.area >= LEAST_AREA]
    holes = [Point(*shape.centroid.coords[0]) for _, shape in shapes if shape.area < HOLE_AREA and not shape.is_empty]
    inner = [
        entry for entry in large
        if any(o[1].buffer(0.05).contains(entry[1]) and entry[1].area > WITHIN * o[1].area and _sews(entry, o) for o in large if o is not entry)
    ]  # fmt: skip
    outer = [
        entry for entry in large
        if not any(entry[1].buffer(0.05).contains(i[1]) and i[1].area > WITHIN * entry[1].area and _sews(i, entry) for i in inner if i is not entry)
    ]  # fmt: skip
    return [_outline(group, size, ring, shape, rest, holes) for ring, shape in outer]


def _sews(inside: tuple[Drawn, Polygon], outside: tuple[Drawn, Polygon]) -> bool:
    """Whether a ring is the stitching line of the one round it, as the file says, and not another size of a nest."""
    return inside[0].kind == "stitch" or (inside[0].kind != outside[0].kind and outside[0].kind == "cut")


def _outline(group: str, size: str, ring: Drawn, shape: Polygon, rest: Iterable[Drawn], holes: Sequence[Point]) -> Outline:
    near = shape.buffer(0.08)
    mine = [entry for entry in rest if near.contains(LineString([(p.x, p.y) for p in entry.path.flat(0.05)]))]
    found = Outline("", group, ring.path, (), size, holes=tuple(spot for spot in holes if shape.contains(_dot(spot))))
    grain = max((e for e in mine if e.kind == "grain"), key=lambda e: e.path.length, default=None)
    marks = [entry for entry in rest if entry.kind == "notch"]
    notches = [along for entry in marks if (along := _notch(found, entry.path, REACH)) is not None]
    if not marks:
        notches = [along for entry in mine if not entry.kind and (along := _notch(found, entry.path, 0.1)) is not None]
    lines = [e.path for e in mine if e.kind not in ("grain", "notch", "drill", "zone") and e.path.length > NOTCH]
    return replace(
        found, inner=tuple(lines), notches=tuple(sorted(notches)),
        grain=(grain.path.start, grain.path.end) if grain is not None and grain.path.start.to(grain.path.end) > 2 else None,
    )  # fmt: skip


def _dot(spot: Point) -> Polygon:
    return Polygon([(spot.x, spot.y), (spot.x + 1e-6, spot.y), (spot.x, spot.y + 1e-6)])


def _notch(outline: Outline, path: Path, reach: float) -> float | None:
    """Where on a ring a short straight stands that points at it; None where it is no notch of it."""
    if len(path.segments) != 1 or not 0.1 < path.length < NOTCH:
        return None
    ends = [(outline.along(spot), spot) for spot in (path.start, path.end)]
    (along, off), _ = min(ends, key=lambda entry: entry[0][1])
    if off > reach:
        return None
    place = outline.ring.place(min(along, outline.length))
    return along if abs(place.direction.dot((path.end - path.start).unit())) < 0.5 else None


KINDS: Mapping[str, str] = {
    "cut": "cut", "stitch": "stitch", "fold": "fold", "balance": "balance", "notch": "notch", "drill": "drill", "grain": "grain",
    "zone": "zone", "words": "words",
}  # fmt: skip
