"""Cutting a piece in two, and laying two together again: what lies on it goes with the part it lies on."""

from __future__ import annotations

from collections.abc import Mapping
from itertools import pairwise

from fontTools.misc.transform import Transform
from shapely import contains_xy, covers, distance, get_exterior_ring, linestrings, points

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, rows
from widehem.core.pattern.edge import Edge, PatternError
from widehem.core.pattern.garment import Chain, EdgeRef, SeamEdge
from widehem.core.pattern.inside import BalanceLine, Diamond
from widehem.core.pattern.piece import Piece, Stands
from widehem.core.pattern.ring import Run, Runs, Spot, arcs, closed, cut_at, edges_from, opened
from widehem.core.values import record, replace

EMPTY, INSIDE = 1e-6, 0.1  # cm; how far a line may run along the outline outside of it
ON_IT = 0.02  # cm: what lies so near a part lies on it
LOOKED_AT = (0.02, 0.25, 0.5, 0.75, 0.98)  # places of a level
REACHED = 0.05  # cm: a level reaches a part where it lies so far inside it
BESIDE = 2.5  # cm: a line so near a level runs along it
ALONG = 0.2  # cm that a level may lose where a piece is cut across it


@record(frozen=True)
class Parted:
    """A piece in two. kept: the part that keeps its name; new: the other; renamed: what its edges have become."""

    kept: Piece
    new: Piece
    renamed: Mapping[EdgeRef, Chain]


def part_piece(
    piece: Piece, start: Spot, end: Spot, faces: tuple[Path, Path], line: Edge, new: str, holds: str, title: str = ""
) -> Parted:
    """Cut a piece from one spot of its outline to another.

    faces: the line from start to end as it is sewn on the side of the arc from start to end, and on the other; one path
    twice where the cloth is only cut. line: the new edge, without its path. new: the name of the new piece; holds: the edge
    it must have. A spot that is the mouth of a dart takes that dart up. Raises PatternError when the cut leaves nothing.
    """
    for diamond in piece.diamonds:
        if any(face.crosses(diamond.path) for face in faces):
            raise PatternError(
                f"The line crosses the {diamond.name.replace('_', ' ')} of the {piece.name}: lead it past its point."
            )
    if not all(_runs_on(piece, face) for face in faces[: 1 if faces[0] is faces[1] else 2]):
        raise PatternError(f"The line leaves the {piece.name.replace('_', ' ')}: choose places between which there is cloth.")
    runs = opened(piece)
    for spot in (start, end):
        runs, _ = cut_at(runs, spot)
    a, b = cut_at(runs, start)[1], cut_at(runs, end)[1]
    if a == b:
        raise PatternError(f"The cut of the {piece.name} begins and ends at one place.")
    first, second = arcs(runs, a, b)
    first, second = (_without_gap(arc) for arc in (first, second))
    one = (*first, Run(line, faces[0].reverse()))
    two = (*second, Run(line, faces[1]))
    sides = [_closed_part(piece, ring, line.name) for ring in (one, two)]
    if any(len(part.sketch) < 3 for part in sides):
        raise PatternError(f"The cut of the {piece.name} leaves nothing on one side.")
    held = [part.has(holds) for part in sides]
    if held == [True, True]:  # the edge itself was cut: the new piece has its longer part
        held = [sides[0].edge(holds).length > sides[1].edge(holds).length, False]
        held[1] = not held[0]
    if held == [False, False]:
        raise PatternError(f"Neither part of the {piece.name} has the edge {holds}.")
    kept, other = (sides[1], sides[0]) if held[0] else (sides[0], sides[1])
    kept = _with_inside(piece, kept, piece.name, piece.title)
    other = _with_inside(piece, other, new, title or f"{piece.title}, {new.replace('_', ' ')}")
    face = faces[1] if held[0] else faces[0]
    for level in piece.balance:
        if not runs_along(level, face):
            continue
        lost = piece.across(level.level) - kept.across(level.level) - other.across(level.level)
        if abs(lost) > ALONG:
            kept, other = _along_the_cut(piece, kept, other, level, face)
    return Parted(kept, other, _renamed(piece, kept, other))


def _runs_on(piece: Piece, face: Path) -> bool:
    """Whether a line lies on a piece; along its outline it may leave it a little, and so may its ends, which lie on the outline."""
    spots = list(face.sketch)
    if len(spots) > 1:
        spots[0], spots[-1] = _short_of(spots[0], spots[1]), _short_of(spots[-1], spots[-2])
    line = linestrings(rows(spots))
    return bool(covers(piece.surface, line) or covers(piece.surface.buffer(INSIDE), line))


def _short_of(end: Point, before: Point) -> Point:
    """A place on the way from an end of a line, half of what the line may lie outside."""
    return end.toward(before, min(0.5, INSIDE / 2 / max(end.to(before), EMPTY)))


def runs_along(level: BalanceLine, line: Path) -> bool:
    """Whether a piece is cut along one of its levels."""
    at, way = level.straight
    return all(abs(way.cross(spot - at)) < BESIDE for spot in (line.start, line.end))


def _along_the_cut(piece: Piece, kept: Piece, other: Piece, level: BalanceLine, face: Path) -> tuple[Piece, Piece]:
    """A level along which a piece was cut follows the new edge of the part that keeps its name."""
    spots = [face.start, *(segment.end for segment in face.segments)]
    middle = kept.edge(kept.middle).start if kept.middle else level.lines[0][0]
    if spots[0].to(middle) > spots[-1].to(middle):
        spots.reverse()
    line = BalanceLine(level.level, tuple(pairwise(spots)), notched=False)
    rest = tuple(entry for entry in kept.balance if entry.level != level.level)
    along = replace(kept, balance=(*rest, line))
    if abs(along.across(level.level) - piece.across(level.level)) > 5 * ALONG:
        return kept, other
    return along, replace(other, balance=tuple(entry for entry in other.balance if entry.level != level.level))


def _without_gap(arc: Runs) -> Runs:
    """An arc whose first run begins at its outer leg: the gap before it has been cut through."""
    return (replace(arc[0], before=None), *arc[1:])


def _closed_part(piece: Piece, ring: Runs, line: str) -> Piece:
    """One part with its outline only; an edge that comes apart in it gets a second name."""
    names: dict[str, int] = {}
    found: list[Run] = []
    at = next(i for i, run in enumerate(ring) if run.edge.name == line)
    last = ""
    for run in (*ring[at:], *ring[:at]):
        name = run.edge.name
        if name != last:
            names[name] = names.get(name, 0) + 1
        last = name
        if names[name] > 1:
            run = replace(run, edge=replace(run.edge, name=f"{name}_{names[name]}", role=run.edge.role))
        if run.path.length > EMPTY:
            found.append(run)
    middle = piece.middle if any(run.edge.name == piece.middle for run in found) else ""
    return Piece(piece.name, piece.title, edges_from(found), middle=middle)


def _with_inside(piece: Piece, part: Piece, name: str, title: str) -> Piece:
    """A part with what lies on it, as the whole piece had it."""
    on = _lying_on(part, piece)
    stands: Stands = piece.stands if part.middle or piece.stands != "fold" else "pair"
    lines = tuple(line for line in piece.lines if line.path.start in on or line.path.end in on)
    known = {"", *(line.name for line in lines)}
    levels = _levels(piece, part, known)
    return part.with_on_it(
        name=name, title=title, of=piece.of, layer=piece.layer, stands=stands, lines=lines,
        balance=levels,
        marks={code: mark for code, mark in piece.marks.items() if mark in on},
        diamonds=tuple(diamond for diamond in piece.diamonds if _middle(diamond) in on),
        holes=tuple(hole for hole in piece.holes if hole in on),
        cloths=piece.cloths if stands == piece.stands else (), serves=piece.serves,
        grain=_grain(piece, part),
    )  # fmt: skip


def _middle(diamond: Diamond) -> Point:
    return diamond.inner.toward(diamond.outer, 0.5)


def _lying_on(part: Piece, piece: Piece) -> set[Point]:
    """Those places of marks, holes, darts and line ends of a piece that lie on a part of it."""
    spots = [*piece.marks.values(), *piece.holes, *(_middle(diamond) for diamond in piece.diamonds)]
    spots += [end for line in piece.lines for end in (line.path.start, line.path.end)]
    if not spots:
        return set()
    at = rows(spots)
    near = contains_xy(part.surface, at)
    if not near.all():
        near[~near] = distance(part.surface, points(at[~near])) < ON_IT
    return {spot for spot, lies in zip(spots, near, strict=True) if lies}


def _levels(piece: Piece, part: Piece, known: set[str]) -> tuple[BalanceLine, ...]:
    """The levels on a part: of each the lines that cross its cloth, their ends at the cut running on to the new edge. known: the inner
    lines of the part."""
    left, top, right, bottom = part.bounds
    near, spots = [], []
    for line in piece.balance:
        for number, (a, b) in enumerate(piece.stretches(line.level)):
            if max(a.y, b.y) < top or min(a.y, b.y) > bottom or max(a.x, b.x) < left or min(a.x, b.x) > right:
                continue
            near.append((line, number))
            spots += [a.toward(b, share) for share in LOOKED_AT]
    if not near:
        return ()
    at = rows(spots)
    deep = contains_xy(part.surface, at)
    deep[deep] = distance(get_exterior_ring(part.surface), points(at[deep])) > REACHED
    crossed: dict[str, list[int]] = {}
    for (line, number), here in zip(near, deep.reshape(len(near), -1).any(axis=1), strict=True):
        if here:
            crossed.setdefault(line.level, []).append(number)
    return tuple(_some_of(line, crossed[line.level], known) for line in piece.balance if line.level in crossed)


def _some_of(line: BalanceLine, numbers: list[int], known: set[str]) -> BalanceLine:
    """A level of which these lines are left, on a part with these inner lines."""
    first, last = (name if name in known else "" for name in line.between)
    return replace(line, lines=tuple(line.lines[number] for number in numbers), between=(first, last))


def _grain(piece: Piece, part: Piece) -> tuple[Point, Point] | None:
    """The grain of a part: as it runs on the whole piece, through the middle of the part."""
    if part.middle and (piece.grain is None or contains_xy(part.surface, [(at.x, at.y) for at in piece.grain]).all()):
        return piece.grain
    if piece.grain is not None:
        way = (piece.grain[1] - piece.grain[0]).unit()
    elif piece.middle:
        edge = piece.edge(piece.middle)
        way = (edge.end - edge.start).unit()
    else:
        way = Point(0.0, 1.0)
    inside = part.surface.representative_point()
    at = Point(inside.x, inside.y)
    crossed = [path.segments[i].at(t) for path in part.sewn_ring for i, t in path.crossings(at, way)]
    along = sorted(way.dot(spot - at) for spot in crossed)
    below, above = max((s for s in along if s < 0), default=-1.0), min((s for s in along if s > 0), default=1.0)
    ends = at + way * (below * 0.8), at + way * (above * 0.8)
    return (ends[0], ends[1]) if ends[0].y <= ends[1].y else (ends[1], ends[0])


def _renamed(piece: Piece, kept: Piece, other: Piece) -> dict[EdgeRef, Chain]:
    """What the edges of a piece have become, in their own order."""
    found: dict[EdgeRef, Chain] = {}
    for edge in piece.edges:
        left = [
            (part, entry)
            for part in (kept, other)
            for entry in part.edges
            if entry.name == edge.name
            or (entry.role == edge.role and entry.name.startswith(f"{edge.name}_") and not piece.has(entry.name))
        ]
        first = [entry.start.to(edge.start) < EMPTY for _, entry in left]
        if sum(first) == 1 and len(left) == 2:
            left = left if first[0] else left[::-1]
        elif len(left) > 1:
            places = [(_along(edge, entry.start), number) for number, (_, entry) in enumerate(left)]
            left = [left[number] for _, number in sorted((at, number) for at, number in places if at is not None)]
        chain = tuple(SeamEdge(part.name, entry.name) for part, entry in left)
        if chain != (SeamEdge(piece.name, edge.name),):
            found[EdgeRef(piece.name, edge.name)] = chain
    return found


def _along(edge: Edge, point: Point) -> float | None:
    """About how far along an edge a point of it lies, cm: enough to put parts in order; None where it is not on it."""
    gone = 0.0
    for part in edge.parts:
        for segment in part.segments:
            if segment.start.to(point) < 1e-5:
                return gone
            gone += segment.length
    gone, best = 0.0, (0.05, -1.0)
    for part in edge.parts:
        for segment in part.segments:
            count = max(4, int(segment.length))
            step = segment.length / count
            for number in range(count + 1):
                off = segment.at(number / count).to(point) - step
                if off < best[0]:
                    best = off, gone + step * number
            gone += segment.length
    return best[1] if best[1] >= 0 else None


def lay_together(
    one: Piece, two: Piece, first: str, second: str, onto: Transform, name: str
) -> tuple[Piece, Mapping[EdgeRef, Chain]]:
    """Two pieces joined along an edge of each, the second moved onto the first; and what their edges have become.

    Raises PatternError where the edges do not lie on each other.
    """
    laid = two.moved(onto)
    a, b = one.edge(first), laid.edge(second)
    reversed_ = a.start.to(b.end) < 0.02 and a.end.to(b.start) < 0.02
    if not reversed_:
        raise PatternError(f"The {first} of the {one.name} and the {second} of the {two.name} do not lie on each other.")
    rings = [opened(one), opened(laid)]
    rows = []
    for ring, edge in zip(rings, (first, second), strict=True):
        at = max(i for i, run in enumerate(ring) if run.edge.name == edge)
        row = (*ring[at + 1 :], *ring[: at + 1])
        rows.append(tuple(run for run in row if run.edge.name != edge))
    taken = {run.edge.name for run in rows[0]}
    renamed: dict[EdgeRef, Chain] = {}
    follow = []
    for run in rows[1]:
        at_start, at_end = rows[0][-1], rows[0][0]
        meets = run.edge.role in (at_start.edge.role, at_end.edge.role) and run.edge.name in (
            at_start.edge.name,
            at_end.edge.name,
        )
        wanted = run.edge.name
        if wanted in taken and not (meets and run.edge.name in (rows[1][0].edge.name, rows[1][-1].edge.name)):
            number = 2
            while f"{wanted}_{number}" in taken:
                number += 1
            wanted = f"{wanted}_{number}"
        renamed[EdgeRef(two.name, run.edge.name)] = (SeamEdge(name, wanted),)
        follow.append(replace(run, edge=replace(run.edge, name=wanted, role=run.edge.role)))
    for run in rows[0]:
        renamed[EdgeRef(one.name, run.edge.name)] = (SeamEdge(name, run.edge.name),)
    joined = _snapped((*rows[0], *follow))
    balance = one.balance + tuple(line for line in laid.balance if one.level(line.level) is None)
    middle = one.middle if one.middle and one.middle not in (first,) else ""
    base = replace(
        one, edges=one.edges, balance=(), middle="", lines=(*one.lines, *laid.lines), diamonds=(*one.diamonds, *laid.diamonds),
        holes=(*one.holes, *laid.holes), marks={**laid.marks, **one.marks},
    )  # fmt: skip
    whole = closed(base, joined, name=name, balance=balance, middle=middle)
    return whole, renamed


def _snapped(runs: Runs) -> Runs:
    """Runs whose ends meet exactly: what is a rounding apart is bridged at the start of the later one."""
    found = list(runs)
    for number, run in enumerate(found):
        before = found[number - 1].path.end
        gap = run.path.start
        if run.before is None and 0 < before.to(gap) < 0.02:
            first = run.path.segments[0]
            moved = type(first)(before, *(getattr(first, name) for name in ("out", "into") if hasattr(first, name)), first.end)  # type: ignore[call-arg]
            found[number] = replace(run, path=Path((moved, *run.path.segments[1:])))
    return tuple(found)
