"""Flare: slashed from the hem to a hinge edge and spread, or added at a seam; grain on the bias."""

from __future__ import annotations

import math
from itertools import pairwise

from fontTools.misc.transform import Transform

from widehem.core.geometry.curves import Cubic, Line, Segment, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.spline import spline
from widehem.core.pattern.checks.belly import SideUpright
from widehem.core.pattern.checks.shapes import HemRises
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import plain
from widehem.core.pattern.shaping import blended, corners_kept, with_edges
from widehem.core.setting.option import Choice, Option
from widehem.core.style.asks import Asks, all_of, also, hangs_free, without
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import say
from widehem.core.values import replace

LED = 30.0  # cm over which a hem is led to an end that lies further out
MOST, HEM_SPOTS, FINE = 3.0, 9, 0.7  # degrees a slash; places at which the hem is set; cm of hinge edge that turn as one
COUNT = Option("count", "Slashes", "number", 4.0, "from the hem to the hinge edge, evenly over the piece", 1.0, 24.0, 1.0)
EACH = Option("each", "Degrees each", "number", 3.0, "what one slash opens; more would dent the hinge edge", 0.25, MOST, 0.25)


@operation(
    "flare.slash", "flare", "Flare by slashes", "slashed from the hem up to its hinge edge and spread; hem and hinge edge are drawn again",
    options=(COUNT, EACH),
    wheres={"hem": "any place on the hem", "hinge": "any place on the edge opposite, that keeps its length"},
)  # fmt: skip
def slash(job: Job) -> Change:
    """Spread a piece at its hem, its hinge edge as long as it was, both its sides as they were."""
    hem, hinge = job.at["hem"], job.at["hinge"]
    piece = hem.piece
    if hinge.piece.name != piece.name or hinge.spot.edge == hem.spot.edge:
        raise CannotStyle(say("A piece is slashed from its hem to another edge of its own."), ("hinge",))
    whole = math.radians(round(job.length("count")) * job.length("each"))
    made, wider = spread(piece, hem.spot.edge, hinge.spot.edge, whole)
    levels = [line.level for line in piece.balance if not _at_edge(piece, line, hinge.spot.edge)]
    words = f"The {plain(piece.name)} is {{0}} wider at its hem, by {round(job.length('count'))} slashes."
    return Change(job.garment.with_piece(made).pieces, said=(say(words, wider),), asks=_flared(levels))


def _flared(levels: list[str]) -> Asks:
    """What is asked of what hangs free below these levels: room, and sides that end alike."""
    return all_of(hangs_free(*levels), without(SideUpright), also(HemRises(0.0, free=True)))


def _at_edge(piece: Piece, line: BalanceLine, name: str) -> bool:
    at, way = line.straight
    edge = piece.edge(name)
    return all(abs(way.cross(spot - at)) < 2.0 for spot in (edge.start, edge.end))


def spread(piece: Piece, hem: str, hinge: str, whole: float) -> tuple[Piece, float]:
    """The piece spread at its hem by an angle in all (radians), the hinge edge bent as much; and how much wider the hem is.

    The side with the middle stays where it is, or else the one at which the hinge edge begins.
    """
    edge, low = piece.edge(hinge), piece.edge(hem)
    if low.gaps:
        raise CannotStyle(say("A dart ends in this hem: let it go, or swing it away first."), ("hem",))
    order = [e.name for e in piece.edges]
    at, far = order.index(hinge), order.index(hem)
    count = len(order)
    beyond = [order[(at + n) % count] for n in range(1, (far - at) % count)]  # from the end of the hinge to the hem
    before = [order[(far + n) % count] for n in range(1, (at - far) % count)]
    keeps_start = piece.middle not in beyond or piece.middle in before
    total = whole * (-1.0 if piece.clockwise else 1.0)  # the end turns away from the start
    made = _hinge(edge, total if keeps_start else -total, from_start=keeps_start)
    end_way, start_way = _rigid(edge, made, total, keeps_start=keeps_start)
    new_low = _hem(edge, low, made, total, keeps_start=keeps_start, ways=(start_way, end_way))
    ring = []
    for name in order:
        old = piece.edge(name)
        if name == hinge:
            ring.append(made)
        elif name == hem:
            ring.append(new_low)
        else:
            ring.append(old.moved(end_way if name in beyond else start_way))
    marks = {name: spot.moved(_near(piece, edge, spot, end_way, start_way)) for name, spot in piece.marks.items()}
    levels = tuple(_level(piece, edge, made, line, total, keeps_start=keeps_start) for line in piece.balance)
    grain = piece.grain
    return replace(piece, edges=tuple(ring), marks=marks, balance=levels, grain=grain), new_low.length - low.length


def _hinge(edge: Edge, total: float, *, from_start: bool) -> Edge:
    """The hinge edge bent evenly by an angle in all, exactly as long as it was: short stretches of it turn as they are."""
    whole, gone = edge.length, 0.0
    parts, gaps = [], []
    way = Transform()
    corner: Point | None = None
    rows = [(n, part) for n, part in enumerate(edge.parts)]
    if not from_start:
        rows = [(n, part.reverse()) for n, part in reversed(rows)]
    for index, (number, part) in enumerate(rows):
        if index:
            gap = edge.gaps[number - 1 if from_start else number]
            moved = gap.moved(way)
            gaps.append(moved)
            corner = moved.outer if from_start else moved.inner
        segments: list[Segment] = []
        rest, count = part, max(int(part.length / FINE), 1)
        for step in range(count):
            piece, rest = rest.cut(rest.length / (count - step)) if step < count - 1 else (rest, rest)
            gone += piece.length
            angle = total * (gone - piece.length / 2) / whole
            start = segments[-1].end if segments else corner if corner is not None else piece.start
            way = Transform().translate(*start).rotate(angle).translate(-piece.start.x, -piece.start.y)
            segments += [segment.moved(way) for segment in piece.segments]
            for n in range(max(len(segments) - len(piece.segments), 1), len(segments)):
                segments[n] = _from(segments[n], segments[n - 1].end)
        parts.append(Path(tuple(segments)))
    if not from_start:
        parts, gaps = [part.reverse() for part in reversed(parts)], list(reversed(gaps))
    return replace(edge, parts=tuple(parts), gaps=tuple(gaps))


def _from(segment: Segment, start: Point) -> Segment:
    """A segment that begins exactly there: the roundings of many turns add up."""
    return Line(start, segment.end) if isinstance(segment, Line) else Cubic(start, segment.out, segment.into, segment.end)


def _rigid(edge: Edge, made: Edge, total: float, *, keeps_start: bool) -> tuple[Transform, Transform]:
    """How what follows the hinge edge is moved, and what comes before it: one of both stays."""
    here, there = (edge.end, made.end) if keeps_start else (edge.start, made.start)
    angle = total if keeps_start else -total
    moved = Transform().translate(*there).rotate(angle).translate(-here.x, -here.y)
    return (moved, Transform()) if keeps_start else (Transform(), moved)


def _hem(edge: Edge, low: Edge, made: Edge, total: float, *, keeps_start: bool, ways: tuple[Transform, Transform]) -> Edge:
    """The hem through places that have turned with the slashes above them; it leaves its seams as it did."""
    spots = []
    for number in range(HEM_SPOTS + 1):
        share = number / HEM_SPOTS  # along the hem, which runs the other way round than the hinge edge
        spots.append(_turned(edge, made, 1 - share, low.place(low.length * share).point, total, keeps_start=keeps_start))
    first, last = ways[1], ways[0]
    zero = Point(0.0, 0.0)
    leaving = low.leaving.moved(first) - zero.moved(first)
    arriving = low.arriving.moved(last) - zero.moved(last)
    spots[0], spots[-1] = low.start.moved(first), low.end.moved(last)
    path = Path(spline(spots, leaving.unit(), arriving.unit()))
    ratio = path.length / low.length
    return replace(low, parts=(path,), corners=(), notches=tuple(replace(n, along=n.along * ratio) for n in low.notches))


def _turned(edge: Edge, made: Edge, share: float, spot: Point, total: float, *, keeps_start: bool) -> Point:
    """A place below so much (0 to 1) of the hinge edge, as it lies when that was bent."""
    was, now = edge.place(edge.length * share).point, made.place(made.length * share).point
    angle = total * share if keeps_start else -total * (1 - share)
    return now + (spot - was).moved(turn(Point(0.0, 0.0), angle))


def _share(edge: Edge, spot: Point) -> float:
    """Under which part (0 to 1) of an edge a place lies: at the foot of it on the straight between the ends."""
    way = edge.end - edge.start
    return min(max((spot - edge.start).dot(way) / max(way.dot(way), 1e-9), 0.0), 1.0)


def _near(piece: Piece, edge: Edge, spot: Point, end_way: Transform, start_way: Transform) -> Transform:
    return end_way if _share(edge, spot) > 0.5 else start_way


def _level(piece: Piece, edge: Edge, made: Edge, line: BalanceLine, total: float, *, keeps_start: bool) -> BalanceLine:
    """A level as it lies once its piece is spread: a row of short straights, its ends running on to the outline."""
    stretches = piece.stretches(line.level)
    if len(stretches) != 1 or any(line.between):
        return line
    a, b = stretches[0]
    spots = [a.toward(b, n / 8) for n in range(9)]
    shares = [_share(edge, spot) for spot in spots]
    if min(shares) > 0.3 or max(shares) < 0.7:
        return line
    moved = [_turned(edge, made, s, spot, total, keeps_start=keeps_start) for s, spot in zip(shares, spots, strict=True)]
    return replace(line, lines=tuple(pairwise(moved)))


BY = Option(
    "by", "Wider at the hem", "length", 5.0, "at each edge of the seam; less than nothing is narrower", -20.0, 90.0, 0.5
)
SIDES = Option(
    "sides", "On which edges", "choice", "both", "of the seam",
    choices=(Choice("both", "Both", "front and back alike"), Choice("one", "This one", "the seam is longer on one side then: for a tail")),
)  # fmt: skip


@operation(
    "flare.seam", "flare", "Flare at a seam", "the seam runs outwards from a place down to the hem", options=(BY, SIDES),
    wheres={"from": "where on the seam it begins to run outwards"},
)  # fmt: skip
def flare_seam(job: Job) -> Change:
    """Turn a seam outwards below a place, on both its edges, as long as it was; the hem follows to its new end."""
    found, by = job.at["from"], job.length("by")
    edge = found.piece.edge(found.spot.edge)
    places = [(found.piece, edge, found.spot.along)]
    if job.choice("sides") == "both":
        for seam, mine, other in job.garment.seams_at_name(found.piece.name, edge.name):
            if not seam.twin and not seam.faced and len(mine) == len(other) == 1:
                back = mine[0].back != other[0].back
                partner = job.garment.edge(other[0])
                along = partner.length - found.spot.along if back else found.spot.along
                places.append((job.garment.piece(other[0].piece), partner, along))
    garment = job.garment
    for piece, seam_edge, along in places:
        garment = garment.with_piece(_turned_out(piece, seam_edge, along, by))
    levels = [line.level for piece, _, _ in places for line in piece.balance if line.height > found.point.y]
    return Change(garment.pieces, asks=_flared(levels), said=(say("The hem is {0s} at each edge of the seam.", by),))


def _turned_out(piece: Piece, edge: Edge, along: float, by: float) -> Piece:
    before, after = piece.beside(edge.name)
    ends = [
        (other, at_end)
        for other, at_end in ((after, True), (before, False))
        if other.role in ("hem", "wrist") or other.kind == "hem"
    ]
    if not ends or len(edge.parts) != 1:
        raise CannotStyle(say(f"The {plain(edge.name)} of the {plain(piece.name)} does not run down to a hem."), ("from",))
    hem, at_end = ends[0]
    path = edge.parts[0] if at_end else edge.parts[0].reverse()
    start = along if at_end else edge.length - along
    long = path.length - start
    if long < 3.0 or abs(by) > long * 0.9:
        raise CannotStyle(say("Only {0} of the seam is left below: flare it by {1u} at most.", long, long * 0.8), ("from",))
    head, tail = path.cut(start) if start > 0.05 else (None, path)
    out = piece.outward(edge.end - edge.start)
    way = tail.end - tail.start
    hand = 1.0 if way.cross(out) > 0 else -1.0
    turned = tail.moved(turn(tail.start, hand * math.asin(by / long)))
    if head is not None:  # it leaves the place as it came to it
        rest = turned.cut(min(long * 0.45, 14.0))[1]
        turned = Path((curve_between(head.end, head.arriving, rest.start, rest.leaving), *rest.segments))
    whole = head + turned if head is not None else turned
    whole = whole if at_end else whole.reverse()
    shift = (whole.end if at_end else whole.start) - (edge.end if at_end else edge.start)
    low = _led_out(hem, shift, at_start=at_end)
    made = with_edges(piece, replace(edge, parts=(whole,)), low)
    return corners_kept(piece, made, hem.name, reach=min(low.length * 0.45, 25.0)) if not hem.gaps else made


def _led_out(hem: Edge, shift: Point, *, at_start: bool) -> Edge:
    """A hem one end of which lies further out: what is near the other stays as it was."""
    none = Point(0.0, 0.0)
    path = hem.parts[0] if at_start else hem.parts[-1].reverse()
    reach = min(path.length * 0.6, LED)
    head, tail = path.cut(reach)
    led = blended(head, shift, none)
    whole = led + tail if at_start else (led + tail).reverse()
    parts = (whole, *hem.parts[1:]) if at_start else (*hem.parts[:-1], whole)
    by = led.length - head.length if at_start else 0.0
    return replace(
        hem, parts=parts, notches=tuple(replace(n, along=n.along + by if n.along > 1.0 else n.along) for n in hem.notches)
    )


GRAIN = Option(
    "grain", "Grain", "choice", "bias", "how the piece lies on the cloth",
    choices=(Choice("bias", "On the bias", "at 45 degrees: it hangs and gives; let it hang a night before the hem is levelled"),
        Choice("cross", "Across", "along the weft"), Choice("straight", "Straight", "along the warp, as drafted")),
)  # fmt: skip


@operation(
    "grain.turn", "flare", "Turn the grain", "straight, across or on the bias", options=(GRAIN,),
    wheres={"piece": "any place on the piece"},
)  # fmt: skip
def turn_grain(job: Job) -> Change:
    """Lay the grain of a piece another way; one on the fold is opened by its middle only when that is straight grain."""
    piece, way = job.at["piece"].piece, job.choice("grain")
    middle = piece.edge(piece.middle) if piece.middle else None
    down = Point(0.0, 1.0) if middle is None else (middle.end - middle.start).unit()
    down = down if down.y >= 0 else -down
    angle = {"bias": math.pi / 4, "cross": math.pi / 2, "straight": 0.0}[way]
    at = Point(*piece.surface.representative_point().coords[0])
    left, top, right, bottom = piece.bounds
    reach = down.moved(turn(Point(0.0, 0.0), angle)) * (min(right - left, bottom - top) * 0.3)
    made = piece.with_on_it(grain=(at - reach, at + reach))
    said = (say("Cut on the bias it drops: let it hang before its hem is levelled."),) if way == "bias" else ()
    return Change(job.garment.with_piece(made).pieces, said=said)
