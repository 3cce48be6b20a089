"""Panel lines through darts: the darts' cloth is taken away, and both edges of the line are as long as each other."""

from __future__ import annotations

import math
from collections.abc import Sequence
from contextlib import suppress
from itertools import pairwise

from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.solve import NoSolutionError, settle, solve
from widehem.core.geometry.spline import spline
from widehem.core.pattern.closed import corner_of
from widehem.core.pattern.cutting import Parted, part_piece
from widehem.core.pattern.edge import Dart, Edge, Notch
from widehem.core.pattern.garment import Garment, Seam, SeamEdge
from widehem.core.pattern.inside import Diamond
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import Spot
from widehem.core.pattern.roles import plain
from widehem.core.setting.option import Option
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.remap import free_name
from widehem.core.style.swing import Share, swing
from widehem.core.style.where import Found
from widehem.core.units import Saying, say
from widehem.core.values import replace

ROOM, BEYOND, NOTCHED, LINE_MOST = 1.0, 0.6, 5.0, 40.0
HANDLE, NEAR = 0.36, 0.18  # of a stretch
LEANS = math.radians(9.0)  # a line that carries another on over a seam may turn so far there
OWED = 0.01  # cm that a level may gain
OUT_MOST, BACK_MOST = 1.5, 0.3  # cm put back at most, and taken away where the rounding gave some
FLAT = 0.02  # cm for each cm: where a line lies so straight, how far inside the point it runs changes little of its length
IN_MOST = 0.6  # cm that an edge is rounded inside the point at most
ON_THE_WAY = 4.0  # cm: a dart inside a piece that lies so near the line is taken up by it
OPTIONS = (
    Option("notch", "Notches from the point", "length", NOTCHED, "above and below it; they are set before the pieces are cut apart",
        1.0, 12.0, 0.5),
)  # fmt: skip


@operation(
    "panel.line", "panels", "Panel line through the darts",
    "from shoulder, armhole or neck over the point to waist or hem; what the darts took is cut away along it",
    options=OPTIONS,
    wheres={"top": "where the line begins: a dart, or a place on an edge", "bottom": "where it ends: a dart, or a place on an edge",
        "over": "any place on the edge that the side piece keeps, its side"},
    names={"line": "the new seam", "piece": "the side piece", "point": "the mark of the body that it runs over"},
)  # fmt: skip
def panel_line(job: Job) -> Change:
    """Cut a piece in a middle and a side panel over the bust point or the shoulder blade. Darts that turn about the point are
    closed into the line; a second waist dart stays in the side piece, and that is said."""
    top, bottom, over = job.at["top"], job.at["bottom"], job.at["over"]
    if bottom.piece.name != top.piece.name:
        raise CannotStyle(say("Both ends of a panel line lie on one piece; these lie on two."), ("bottom",))
    piece, said = _gathered(top, bottom)
    top, bottom = (replace(found, piece=piece) for found in (top, bottom))
    for code, found in (("top", top), ("bottom", bottom)):
        room(code, found)
    point = _point(job, piece, top, bottom)
    diamond = _on_the_way(piece, point, bottom)
    aim = _aim(job.garment, top)
    side_first = _follows(piece, top, bottom, over)
    plain_piece = replace(piece, diamonds=tuple(d for d in piece.diamonds if d is not diamond))
    line = free_name((edge.name for edge in piece.edges), job.names.get("line", "panel"))
    new = job.free_piece(f"side_{piece.name}")
    title = f"{piece.title}, side panel"

    def cut(owed: float) -> Parted:
        one, two = faces_through(piece, top, bottom, point, diamond, aim, side_first=side_first, owed=owed)
        edge = Edge(line, (one,), role="panel")
        return part_piece(plain_piece, top.spot, bottom.spot, (one, two), edge, new, over.spot.edge, title)

    parted = cut(0.0)
    gained = _gained(piece, parted)
    if abs(gained) > OWED and abs(_gained(piece, again := cut(gained))) < abs(gained):
        parted = again
    kept, side = (_notched(part, line, point, job.length("notch")) for part in (parted.kept, parted.new))
    pieces: list[Piece] = []
    for old in job.garment.pieces:
        pieces += [kept, side] if old.name == piece.name else [old]
    backwards = [part.edge(line).start.to(top.point) > part.edge(line).end.to(top.point) for part in (kept, side)]
    chains = (SeamEdge(kept.name, line, backwards[0]),), (SeamEdge(side.name, line, backwards[1]),)
    seam = Seam(job.free_seam(f"{line}_{piece.of}"), f"Panel seam, {plain(piece.of)}", *chains)
    if side.darts:
        said = (*said, say(f"The {plain(side.darts[0].name)} stays in the {plain(new)}: let it go, or close it."))
    return Change(tuple(pieces), (*job.garment.seams, seam), renamed=parted.renamed, made=(new,), said=said)


def _gained(piece: Piece, parted: Parted) -> float:
    """What both panels measure more than the piece at the level where they differ most, cm."""
    levels = [line.level for line in piece.balance if line.level != "waist"]
    return max(
        (parted.kept.across(v, 0.0) + parted.new.across(v, 0.0) - piece.across(v, 0.0) for v in levels), key=abs, default=0.0
    )


def _follows(piece: Piece, top: Found, bottom: Found, over: Found) -> bool:
    """Whether the side lies on the way round from the top of the line to its bottom."""
    order = [edge.name for edge in piece.edges]
    count, start = len(order), order.index(top.spot.edge)
    return (order.index(over.spot.edge) - start) % count <= (order.index(bottom.spot.edge) - start) % count


def _gathered(top: Found, bottom: Found) -> tuple[Piece, tuple[Saying, ...]]:
    """The piece with every other dart that turns about the point of one in the line closed into that one."""
    piece = top.piece
    for into in (top, bottom):
        if not into.spot.dart:
            continue
        own = _dart(piece, into.spot)
        others = [d for d in piece.darts if d.name not in (top.spot.dart, bottom.spot.dart) and own is not None]
        for dart in others:
            if own is not None and dart.turned_about.to(own.turned_about) < 0.5 and dart.apex is not None:
                short = own.turned_about.to(own.point)
                piece = swing(piece, dart.name, [Share(into.spot, 1.0, own.name, short)])
                words = f"The {plain(dart.name)} of the {plain(piece.name)} is closed into the panel line: {{0}} at its mouth."
                return piece, (say(words, dart.mouth),)
    return piece, ()


def _dart(piece: Piece, spot: Spot) -> Dart | None:
    return next((dart for dart in piece.edge(spot.edge).darts if dart.name == spot.dart), None)


def room(code: str, found: Found) -> None:
    """Refuse a line that leaves a sliver of an edge beside it."""
    edge = found.piece.edge(found.spot.edge)
    if found.spot.dart:
        number = next(n for n, gap in enumerate(edge.gaps) if gap.name == found.spot.dart)
        near = min(sum(p.length for p in edge.parts[: number + 1]), sum(p.length for p in edge.parts[number + 1 :]))
    else:
        near = min(found.spot.along, edge.length - found.spot.along)
    if near < ROOM:
        raise CannotStyle(
            say(f"Only {{0}} of the {plain(edge.name)} would be left beside the line: keep {{1u}} from its ends.", near, ROOM),
            (code,),
        )


def _point(job: Job, piece: Piece, top: Found, bottom: Found) -> Point:
    """What the line runs over: the mark that was named, what the darts turn about, the bust point or the blade."""
    named = job.names.get("point", "")
    if named in piece.marks:
        return piece.marks[named]
    darts = [_dart(piece, found.spot) for found in (top, bottom)]
    for dart in darts:
        if dart is not None and dart.apex is not None:
            return dart.apex
    for mark in ("bust_point", "blade"):
        if mark in piece.marks and darts == [None, None]:
            return piece.marks[mark]
    for dart in reversed(darts):
        if dart is not None:
            return dart.point
    return top.point.toward(bottom.point, 0.5)


def _on_the_way(piece: Piece, point: Point, bottom: Found) -> Diamond | None:
    """The dart inside the piece that lies on the line."""
    near = [(abs(_across(d, point, bottom.point)), d) for d in piece.diamonds]
    found = min(near, key=lambda entry: entry[0], default=None)
    return found[1] if found is not None and found[0] < ON_THE_WAY else None


def _across(diamond: Diamond, point: Point, end: Point) -> float:
    middle = diamond.inner.toward(diamond.outer, 0.5)
    way = (end - point).unit()
    return way.cross(middle - point)


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
    upper, lower = (_dart(piece, found.spot) for found in (top, bottom))
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
    dart = _dart(piece, found.spot)
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


def _aim(garment: Garment, top: Found) -> Point | None:
    """The way in which a line leaves the edge it begins at, so that it carries on a line of the piece sewn there; None where none
    ends there."""
    if top.spot.dart:
        return None
    edge = top.piece.edge(top.spot.edge)
    for _, mine, other in garment.seams_at(SeamEdge(top.piece.name, edge.name).ref):
        at = next(n for n, entry in enumerate(mine) if entry.edge == edge.name and entry.piece == top.piece.name)
        along = garment.length_of(mine[:at]) + (edge.length - top.spot.along if mine[at].back else top.spot.along)
        gone = 0.0
        for before, after in pairwise(other):
            gone += garment.edge(before).length
            if abs(gone - along) > BEYOND:
                continue
            one, two = corner_of(garment, (before,), at_end=True), corner_of(garment, (after,), at_end=False)
            if one.beyond.role != "panel" or one.piece.name == two.piece.name:
                continue
            place = edge.place(top.spot.along)
            way = -place.direction if mine[at].back else place.direction
            inside = -top.piece.outward(place.direction)
            # the line on the other piece stands at this angle to the seam as it runs on, counted from inside
            angle = (one.angle + 180 - two.angle) / 2
            hand = 1.0 if way.cross(inside) > 0 else -1.0
            return way.moved(turn(Point(0.0, 0.0), hand * math.radians(angle)))
    return None


def _notched(piece: Piece, line: str, point: Point, off: float) -> Piece:
    """The line's edge with its notches: at the point, and so far above and below it, measured from its upper end."""
    edge = piece.edge(line)
    down = edge.start.y < edge.end.y
    path = edge.parts[0] if down else edge.parts[0].reverse()
    at = path.crossings(point, Point(1.0, 0.0))
    if not at:
        return piece
    along = path.split(*at[0])[0].length
    found = []
    for name, place in (("above", along - off), ("point", along), ("below", along + off)):
        if 1.0 < place < edge.length - 1.0:
            found.append(Notch(f"{line} {name}", place if down else edge.length - place))
    return piece.with_edge(replace(edge, notches=tuple(sorted(found, key=lambda notch: notch.along))))
