"""Edges drawn again where something was moved: ends that shift, edges that run on parallel, joints made smooth."""

from __future__ import annotations

import math
from collections.abc import Sequence

from widehem.core.geometry.curves import Cubic, Line, Segment, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.pattern.edge import Dart, Edge, Gap, Held, Notch, PatternError, Pleat
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import dart_between
from widehem.core.values import replace

REACH = 4.0  # cm on either side of a place that is made smooth
STRAIGHT, SHORT = 1e-9, 0.8


def with_edges(piece: Piece, *edges: Edge) -> Piece:
    """The piece with edges of these names replaced, all at once."""
    new = {edge.name: edge for edge in edges}
    return replace(piece, edges=tuple(new.get(edge.name, edge) for edge in piece.edges))


def blended(path: Path, start_by: Point, end_by: Point, *, span: tuple[float, float] = (0.0, 1.0)) -> Path:
    """A path whose start and end are moved, what lies between by as much of both as its place along asks for. span: the part
    (0 to 1) of the whole that this path is."""
    whole, gone = path.length or 1.0, 0.0
    found: list[Segment] = []

    def shifted(point: Point, along: float) -> Point:
        share = span[0] + (span[1] - span[0]) * along / whole
        return point + start_by * (1 - share) + end_by * share

    for segment in path.segments:
        long = segment.length
        a, b = shifted(segment.start, gone), shifted(segment.end, gone + long)
        if isinstance(segment, Line):
            found.append(Line(a, b))
        else:
            out, into = segment.start.to(segment.out), segment.into.to(segment.end)
            found.append(
                Cubic(a, shifted(segment.out, gone + min(out, long)), shifted(segment.into, gone + long - min(into, long)), b)
            )
        gone += long
    return Path(tuple(found))


def edge_blended(edge: Edge, start_by: Point, end_by: Point) -> Edge:
    """An edge whose ends are moved. Where one end moves only, its darts stay where they are and what lies beyond them follows;
    else they ride along."""
    none = Point(0.0, 0.0)
    if edge.gaps and none in (start_by, end_by):
        at_end = start_by == none
        far = edge.parts[-1] if at_end else edge.parts[0]
        moved = blended(far, start_by, end_by)
        rows = (*edge.parts[:-1], moved) if at_end else (moved, *edge.parts[1:])
        shift = 0.0 if at_end else moved.length - far.length
        return replace(edge, parts=rows, notches=tuple(replace(n, along=max(n.along + shift, 0.0)) for n in edge.notches))
    whole, gone = edge.length or 1.0, 0.0
    parts: list[Path] = []
    gaps: list[Gap] = []
    for number, part in enumerate(edge.parts):
        if number:
            share = gone / whole
            gaps.append(_gap_by(edge.gaps[number - 1], start_by * (1 - share) + end_by * share))
        parts.append(blended(part, start_by, end_by, span=(gone / whole, (gone + part.length) / whole)))
        gone += part.length
    made = replace(edge, parts=tuple(parts), gaps=tuple(gaps), notches=())
    ratio = made.length / whole
    corners = tuple(_corner_by(edge, corner, start_by, end_by) for corner in edge.corners)
    return replace(made, notches=tuple(replace(n, along=n.along * ratio) for n in edge.notches), corners=corners)


def _corner_by(edge: Edge, corner: Point, start_by: Point, end_by: Point) -> Point:
    gone, whole = 0.0, edge.length or 1.0
    for part in edge.parts:
        for segment in part.segments:
            if segment.start.to(corner) < 1e-6:
                return corner + start_by * (1 - gone / whole) + end_by * (gone / whole)
            gone += segment.length
    return corner + end_by


def _gap_by(gap: Gap, by: Point) -> Gap:
    if isinstance(gap, Dart):
        spots = {name: getattr(gap, name) + by for name in ("point", "inner", "outer", "middle")}
        return replace(gap, **spots, cap=blended(gap.cap, by, by), apex=gap.apex + by if gap.apex is not None else None)
    if isinstance(gap, Held):
        return replace(gap, line=blended(gap.line, by, by))
    return Pleat(gap.name, gap.inner + by, gap.outer + by)


def trimmed(edge: Edge, at_start: float = 0.0, at_end: float = 0.0) -> Edge:
    """An edge cut short by so much (cm) at its ends; carried on straight where that is less than nothing. Raises PatternError
    where a dart is in the way or nothing would be left."""
    parts, notches = list(edge.parts), list(edge.notches)
    if at_start > parts[0].length - 0.05 or at_end > parts[-1].length - 0.05 or at_start + at_end > edge.length - 0.05:
        raise PatternError(f"The {edge.name} is too short to be cut back so far.")
    parts[0] = _cut_start(parts[0], at_start)
    parts[-1] = _cut_start(parts[-1].reverse(), at_end).reverse()
    long = edge.length - at_start - at_end
    kept = tuple(replace(n, along=n.along - at_start) for n in notches if -1e-6 <= n.along - at_start <= long + 1e-6)
    return replace(edge, parts=tuple(parts), notches=kept)


def _cut_start(path: Path, by: float) -> Path:
    if by > STRAIGHT:
        return path.cut(by)[1]
    if by < -STRAIGHT:
        first = path.segments[0]
        start = path.start + path.leaving * by
        if isinstance(first, Line):
            return Path((Line(start, first.end), *path.segments[1:]))
        return Path((Line(start, path.start), *path.segments))
    return path


def faired(path: Path, along: float, reach: float = REACH) -> Path:
    """A path with a corner at a place drawn again as one curve, so far (cm) to either side."""
    before, after = min(reach, along * 0.9), min(reach, (path.length - along) * 0.9)
    if before < 0.05 or after < 0.05:
        return path
    head, rest = path.cut(along - before)
    tail = rest.cut(before + after)[1]
    curve = curve_between(head.end, head.arriving, tail.start, tail.leaving)
    return Path((*head.segments, curve, *tail.segments))


def faired_end(path: Path, way: Point, reach: float = REACH) -> Path:
    """A path that arrives at its end in another direction: its last so many cm drawn again."""
    back = min(reach, path.length * 0.8)
    head = path.cut(path.length - back)[0]
    return head + Path((curve_between(head.end, head.arriving, path.end, way),))


def faired_start(path: Path, way: Point, reach: float = REACH) -> Path:
    """A path that leaves its start in another direction: its first so many cm drawn again."""
    return faired_end(path.reverse(), -way, reach).reverse()


def corners_kept(before: Piece, after: Piece, *names: str, reach: float = REACH) -> Piece:
    """A piece some of whose edges were moved: they meet their neighbours at the angles at which they met them before, so that what
    ran on over a seam still does. The last so many cm of the edges are drawn again for it."""
    made = after
    for name in names:
        edge = made.edge(name)
        parts = list(edge.parts)
        for at_end in (False, True):
            was = _corner(before, name, at_end=at_end)
            now = _corner(made, name, at_end=at_end)
            if abs(was - now) < 1e-4 or abs(was - now) > math.radians(60):
                continue
            away = (parts[-1].arriving if at_end else parts[0].leaving).moved(turn(Point(0.0, 0.0), now - was))
            if at_end:
                parts[-1] = faired_end(parts[-1], away, reach)
            else:
                parts[0] = faired_start(parts[0], away, reach)
        made = made.with_edge(replace(edge, parts=tuple(parts)))
    return made


def _corner(piece: Piece, name: str, *, at_end: bool) -> float:
    """The turn from an edge to its neighbour at an end, radians."""
    before, after = piece.beside(name)
    edge = piece.edge(name)
    one, two = (edge.arriving, after.leaving) if at_end else (edge.leaving, before.arriving)
    return math.atan2(one.cross(two), one.dot(two))


def bent(path: Path, angle: float, reach: float) -> Path:
    """A path that leaves its start as it did and is turned about it further on, by so much (radians), without a corner: what it
    turns grows over the first so many cm. Bent back by as much it is what it was."""
    zone = min(reach, path.length * 0.8)
    head, tail = path.cut(zone)
    about, count = path.start, max(int(zone / SHORT), 4)
    rows: list[Segment] = []
    rest = head
    for number in range(count):
        piece, rest = rest.cut(rest.length / (count - number)) if number < count - 1 else (rest, rest)
        rows += piece.segments
    found: list[Segment] = []
    gone = 0.0

    def turned(point: Point, along: float) -> Point:
        share = min(along / zone, 1.0)
        return point.moved(turn(about, angle * share * share * (3 - 2 * share)))

    for segment in rows:
        long = segment.length
        a, b = turned(segment.start, gone), turned(segment.end, gone + long)
        if isinstance(segment, Line):
            third = (segment.end - segment.start) * (1 / 3)
            segment = Cubic(segment.start, segment.start + third, segment.end - third, segment.end)
        found.append(Cubic(a, turned(segment.out, gone + long / 3), turned(segment.into, gone + long * 2 / 3), b))
        gone += long
    return Path((*joined_smoothly(found), *tail.moved(turn(about, angle)).segments))


def joined_smoothly(segments: list[Segment]) -> list[Segment]:
    """Curves whose handles lie in one line where they meet."""
    found = list(segments)
    for number in range(len(found) - 1):
        one, two = found[number], found[number + 1]
        if isinstance(one, Cubic) and isinstance(two, Cubic):
            way = ((one.end - one.into).unit() + (two.out - two.start).unit()).unit()
            found[number] = replace(one, into=one.end - way * one.into.to(one.end))
            found[number + 1] = replace(two, out=two.start + way * two.start.to(two.out))
    return found


def smooth_over_darts(edge: Edge, reach: float = REACH, bend: float = 1.0) -> Edge:
    """The edge drawn again beside each dart at which it bends by more than so many degrees once that is shut: it runs on there
    without a corner, its legs where they are."""
    parts = list(edge.parts)
    gaps = list(edge.gaps)
    for number, gap in enumerate(edge.gaps):
        if not isinstance(gap, Dart):
            continue
        about = gap.turned_about
        a, b = gap.inner - about, gap.outer - about
        angle = math.atan2(b.cross(a), b.dot(a))  # as the outer leg is laid on the inner
        shut, back = (turn(Point(0.0, 0.0), way) for way in (angle, -angle))
        before, after = parts[number].arriving, parts[number + 1].leaving.moved(shut)
        if abs(math.degrees(math.atan2(before.cross(after), before.dot(after)))) <= bend:
            continue
        way = (before + after).unit()
        parts[number] = faired_end(parts[number], way, reach)
        parts[number + 1] = faired_start(parts[number + 1], way.moved(back), reach)
        short = about.to(gap.point)
        made = dart_between(gap.name, parts[number], parts[number + 1], about, short, gap.pressed, gap.holds)
        gaps[number] = replace(made, sewn=gap.sewn)
    return replace(edge, parts=tuple(parts), gaps=tuple(gaps))


def strip(
    name: str, title: str, long: float, wide: float, *, of: str = "", layer: str = "shell", stands: str = "once",
    roles: tuple[str, str, str, str] = ("band", "band", "band", "band"), edges: tuple[str, str, str, str] | None = None,
    kinds: tuple[str, str, str, str] = ("seam", "seam", "seam", "seam"), fold: bool = False, notches: Sequence[Notch] = (),
    bias: bool = False,
) -> Piece:  # fmt: skip
    """A straight piece: its long edge that is sewn on lies at the top, from left to right; then the far end, the other long
    edge, the near end. fold: its near end lies on the fold, and `long` is half of it. grain along its length, or on the
    bias. notches: along the edge that is sewn on."""
    names = edges or (f"{name}_edge", f"{name}_end", f"{name}_outer", f"{name}_start")
    a, b, c, d = Point(0.0, 0.0), Point(long, 0.0), Point(long, wide), Point(0.0, wide)
    end_kinds = (*kinds[:3], "fold" if fold else kinds[3])
    ring = tuple(
        Edge(edge, (Path.through(p, q),), role=role, kind=kind, notches=tuple(notches) if not number else ())  # type: ignore[arg-type]
        for number, (edge, role, kind, p, q) in enumerate(zip(names, roles, end_kinds, (a, b, c, d), (b, c, d, a), strict=True))
    )
    middle = Point(long / 2, wide / 2)
    reach = Point(1.0, 1.0).unit() * (min(long, wide) * 0.35) if bias else Point(long * 0.35, 0.0)
    return Piece(
        name, title, ring, of or name, layer=layer, stands="fold" if fold else stands,  # type: ignore[arg-type]
        middle=names[3] if fold else "", grain=(middle - reach, middle + reach),
    )  # fmt: skip
