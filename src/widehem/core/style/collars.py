"""Collars from the measured neckline: band, shirt collar with its stand, flat, shawl, hood; and undercollars."""

from __future__ import annotations

import math
from itertools import pairwise

from widehem.core.geometry.curves import Cubic, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import solve_or_nearest
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import Chain, Garment, Seam, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.rims import ends_of
from widehem.core.pattern.roles import BACK
from widehem.core.pattern.shaping import blended, with_edges
from widehem.core.setting.option import Choice, Option
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.remap import free_name
from widehem.core.style.sectors import sector
from widehem.core.style.sewing_on import joint_notches_on, rim_at
from widehem.core.units import Saying, say
from widehem.core.values import replace

SMALLER = 0.3  # cm that an undercollar is smaller
STAND = Option("stand", "Stand", "length", 3.0, "its height at the centre back", 1.0, 8.0, 0.1)
FALL = Option(
    "fall", "Fall", "length", 4.5, "its height at the centre back: {1} more than the stand covers the seam", 2.0, 16.0, 0.1
)
POINT = Option("point", "Points", "length", 1.5, "how far the fall's corners run out in front", -2.0, 8.0, 0.1)
CURVE = Option("curve", "Curve", "length", 1.2, "how much shorter the upper edge of the stand is, on each half", 0.0, 4.0, 0.1)
SPRING = Option(
    "spring",
    "Spring",
    "length",
    1.6,
    "how much longer the outer edge of the fall is than its seam, on each half",
    0.0,
    8.0,
    0.1,
)
UNDER = Option(
    "under", "Undercollar", "choice", "cut", "smaller by {0.3} all round, so that the seam rolls under",
    choices=(Choice("cut", "Cut"), Choice("none", "None", "the same piece twice")),
)  # fmt: skip


def neckline(job: Job) -> tuple[Chain, float, float, bool, float]:
    """The neck of one side from the centre back: its chain, its length, how much of it is the back's, whether it opens in front, and
    the length of the overlap there."""
    garment, chain = job.garment, rim_at(job, "neck", "neck")
    starts, ends = ends_of(garment, chain)
    back = sum(garment.edge(entry).length for entry in chain if garment.piece(entry.piece).of == BACK)
    lap = 0.0
    last = garment.piece(chain[-1].piece)
    for edge in last.edges_of("neck_lap"):
        lap = edge.length
    opens = ends in ("front_edge", "neck_lap") or any(o.at == "centre_front" for o in garment.openings)
    if starts != "centre_back":
        raise CannotStyle(say("This neckline does not begin at the centre back: lay its yokes together first."), ("neck",))
    return chain, garment.length_of(chain), back, opens, lap


def _base(
    job: Job,
    name: str,
    title: str,
    inner: float,
    outer: float,
    wide: float,
    edges: tuple[str, str, str, str],
    notches: tuple[Notch, ...],
) -> Piece:
    return sector(
        name, title, inner, outer, wide, of=name, names=edges, roles=("neck_seam", "lap", "collar", "centre_back"),
        kinds=("seam", "seam", "seam", "fold"), stands="fold", middle=edges[3], notches=notches,
    )  # fmt: skip


@operation(
    "collar.band", "collars", "Band collar", "it stands round the neck", options=(STAND, CURVE),
    wheres={"neck": "any place on the neckline"}, names={"piece": "the collar"}, phase="derive",
    halves=True,
)  # fmt: skip
def band_collar(job: Job) -> Change:
    """A stand as long as the neckline, curved so that its upper edge is shorter, rounded in front."""
    chain, long, _, _, lap = neckline(job)
    high, curve = job.length("stand"), job.length("curve")
    name = job.free_piece("collar")
    row = joint_notches_on(job.garment, chain, "shoulder seam")
    piece = _base(
        job, name, "Collar band", long, long - curve, high, ("collar_neck", "collar_front", "collar_outer", "centre_back"), row
    )
    piece = _beyond(piece, lap) if lap else piece
    piece = _rounded(piece, min(high * 0.6, 2.5))
    seam = Seam(job.free_seam("collar"), "Collar", (SeamEdge(name, "collar_neck"),), chain)
    said = say("The neckline is {0} on each half; the collar stands {1}.", long, high)
    return _with(job, [piece], [seam, *_over_lap(job, piece, chain)], said)


def _beyond(piece: Piece, lap: float) -> Piece:
    """The stand carried on over the overlap of the front: that is an edge of its own."""
    neck, front, outer, middle = piece.edges
    way = neck.arriving
    far, low = neck.end + way * lap, outer.start + way * lap
    return replace(
        piece, edges=(neck, Edge("collar_lap", (Path.through(neck.end, far),), role="neck_seam"), replace(front, parts=(Path.through(far, low),)),
            replace(outer, parts=(Path.through(low, outer.start) + outer.parts[0],)), middle),
    )  # fmt: skip


def _over_lap(job: Job, piece: Piece, chain: Chain) -> list[Seam]:
    """The seam of a stand on the neck of the overlap, where it is carried on over it."""
    if not piece.has("collar_lap"):
        return []
    garment, last = job.garment, chain[-1]
    end = garment.edge(last).start if last.back else garment.edge(last).end
    for edge in garment.piece(last.piece).edges_of("neck_lap"):
        back = edge.end.to(end) < edge.start.to(end)
        mine, other = (SeamEdge(piece.name, "collar_lap"),), (SeamEdge(last.piece, edge.name, back),)
        return [Seam(job.free_seam("collar_lap"), f"{piece.title}, on the overlap", mine, other)]
    return []


def _rounded(piece: Piece, radius: float) -> Piece:
    """The upper front corner rounded."""
    front, outer = piece.edge("collar_front"), piece.edge("collar_outer")
    radius = min(radius, front.length * 0.8, outer.length * 0.5)
    a, b = front.place(front.length - radius), outer.place(radius)
    curve = Cubic(a.point, a.point + a.direction * (radius * 0.55), b.point - b.direction * (radius * 0.55), b.point)
    return with_edges(
        piece, replace(front, parts=(Path((*front.parts[0].cut(front.length - radius)[0].segments, curve)),)),
        replace(outer, parts=(outer.parts[0].cut(radius)[1],)),
    )  # fmt: skip


@operation(
    "collar.shirt", "collars", "Shirt collar with its stand", "a stand, and a fall sewn to its upper edge",
    options=(STAND, CURVE, FALL, SPRING, POINT, UNDER), wheres={"neck": "any place on the neckline"},
    names={"stand": "the stand", "piece": "the fall"}, phase="derive",
    halves=True,
)  # fmt: skip
def shirt_collar(job: Job) -> Change:
    """The stand for the neckline and its overlap, the fall for the stand as far as the middle."""
    chain, long, _, _, lap = neckline(job)
    high, fall, curve, spring = (job.length(code) for code in ("stand", "fall", "curve", "spring"))
    if fall < high + 0.3:
        raise CannotStyle(
            say("A fall of {0} does not cover a stand of {1}: make it {2u} at least.", fall, high, high + 0.5), ("fall",)
        )
    stand_name, name = job.free_piece("collar_stand", "stand"), job.free_piece("collar")
    row = joint_notches_on(job.garment, chain, "shoulder seam")
    stand = _base(
        job,
        stand_name,
        "Collar stand",
        long,
        long - curve,
        high,
        ("stand_neck", "collar_front", "collar_outer", "centre_back"),
        row,
    )
    upper = stand.edge("collar_outer").length
    stand = _beyond(stand, lap) if lap else stand
    if lap:
        stand = _rounded(stand, min(lap * 0.7, high * 0.6))
        stand = _split_outer(stand, upper)
    fall_piece = _base(
        job, name, "Collar", upper, upper + spring, fall, ("collar_neck", "collar_front", "collar_outer", "centre_back"), ()
    )
    fall_piece = _pointed(fall_piece, job.length("point"))
    fall_piece = fall_piece.with_edge(replace(fall_piece.edge("collar_front"), role="collar"))
    seams = [
        Seam(job.free_seam("collar_stand"), "Collar stand", (SeamEdge(stand_name, "stand_neck"),), chain),
        Seam(
            job.free_seam("collar"),
            "Collar on its stand",
            (SeamEdge(name, "collar_neck"),),
            (SeamEdge(stand_name, "collar_outer", back=True),),
        ),
        *_over_lap(job, stand, chain),
    ]
    pieces = [stand, fall_piece]
    if job.choice("under") == "cut":
        pieces.append(undercollar(job, fall_piece))
    said = say("Neckline {0} on each half; the fall is {1} and covers a stand of {2}.", long, fall, high)
    return _with(job, pieces, seams, said)


def _split_outer(stand: Piece, upper: float) -> Piece:
    """The upper edge of a stand parted at the middle, as far as the fall is sewn to it."""
    outer = stand.edge("collar_outer")
    first, rest = outer.parts[0].cut(outer.length - upper)
    ring: list[Edge] = []
    for edge in stand.edges:
        if edge.name == "collar_outer":
            ring += [Edge("collar_lap_top", (first,), role="lap"), replace(outer, parts=(rest,))]
        else:
            ring.append(edge)
    return replace(stand, edges=tuple(ring))


def _pointed(fall: Piece, by: float) -> Piece:
    """The corner of the fall runs out in front."""
    front, outer = fall.edge("collar_front"), fall.edge("collar_outer")
    corner = outer.start - outer.leaving * by
    end = outer.place(min(outer.length * 0.35, 6.0))
    path = Path((curve_between(corner, outer.leaving, end.point, end.direction), *outer.parts[0].cut(end.along)[1].segments))
    return with_edges(fall, replace(front, parts=(Path.through(front.start, corner),)), replace(outer, parts=(path,)))


def undercollar(job: Job, collar: Piece) -> Piece:
    """The collar again, smaller along its front and outer edges, on the bias with a seam at the centre back."""
    outer, front, neck, middle = (collar.edge(name) for name in ("collar_outer", "collar_front", "collar_neck", "centre_back"))
    into = [-collar.outward(edge.end - edge.start) * SMALLER for edge in (outer, front)]
    low = middle.start + into[0]
    corner = outer.start + into[0] + into[1]
    new_outer = blended(outer.parts[0], corner - outer.start, low - outer.end)
    end = neck.place(neck.length - SMALLER).point
    edges = (
        replace(neck, parts=(neck.parts[0].cut(neck.length - SMALLER)[0],), name="under_neck", role="neck_seam"),
        replace(front, parts=(Path.through(end, corner),)), replace(outer, parts=(new_outer,)),
        replace(middle, parts=(Path.through(low, middle.end),), kind="seam"),
    )  # fmt: skip
    name = free_name((p.name for p in job.garment.pieces), "undercollar")
    at = Point((middle.start.x + corner.x) / 2, (middle.start.y + middle.end.y) / 2)
    reach = Point(1.0, 1.0).unit() * (middle.length * 0.35)
    return Piece(
        name, "Undercollar", edges, name, layer="facing", stands="pair", middle="centre_back", grain=(at - reach, at + reach), serves=collar.name,
    )  # fmt: skip


OUTER = Option("wide", "Width", "length", 7.0, "at the centre back", 2.0, 30.0, 0.5)
ROLL = Option(
    "roll",
    "Roll",
    "length",
    0.8,
    "how much shorter its outer edge is than the neckline opened flat, so that it rolls",
    0.0,
    6.0,
    0.1,
)


@operation(
    "collar.flat", "collars", "Flat collar", "it lies on the shoulders, or rolls a little", options=(OUTER, ROLL, POINT),
    wheres={"neck": "any place on the neckline"}, names={"piece": "the collar"}, phase="derive",
    halves=True,
)  # fmt: skip
def flat_collar(job: Job) -> Change:
    """A collar whose outer edge is as long as what it lies on, less the roll."""
    chain, long, _, _, _ = neckline(job)
    wide = job.length("wide")
    turned = _turn_of(job.garment, chain)
    outer = long + turned * wide - job.length("roll")
    name = job.free_piece("collar")
    row = joint_notches_on(job.garment, chain, "shoulder seam")
    piece = _base(
        job,
        name,
        "Flat collar",
        long,
        max(outer, long),
        wide,
        ("collar_neck", "collar_front", "collar_outer", "centre_back"),
        row,
    )
    point = job.length("point")
    piece = _pointed(piece, point) if abs(point) > 0.05 else piece
    piece = _rounded(piece, wide * 0.4) if point <= 0 else piece
    seam = Seam(job.free_seam("collar"), "Collar", (SeamEdge(name, "collar_neck"),), chain)
    said = say("The neckline is {0} on each half, the outer edge {1}.", long, piece.edge("collar_outer").length)
    return _with(job, [piece], [seam], said)


def _turn_of(garment: Garment, chain: Chain) -> float:
    """By what angle a neckline turns from back to front with its seams closed, radians: what a flat collar turns as well."""
    total = 0.0
    for entry in chain:
        edge = garment.edge(entry)
        for part in edge.parts:
            count = 24
            ways = [part.place(part.length * n / count).direction for n in range(count + 1)]
            total += sum(abs(math.atan2(a.cross(b), a.dot(b))) for a, b in pairwise(ways))
    return total


@operation(
    "collar.shawl", "collars", "Shawl collar", "it rolls from the centre back and runs out to nothing in front",
    options=(OUTER, SPRING), wheres={"neck": "any place on the neckline"}, names={"piece": "the collar"}, phase="derive",
    halves=True,
)  # fmt: skip
def shawl_collar(job: Job) -> Change:
    """Along the whole neckline, widest behind, its outer edge one curve to the end of the neckline in front."""
    chain, long, back, _, _ = neckline(job)
    wide, spring = job.length("wide"), job.length("spring")
    name = job.free_piece("collar")
    row = joint_notches_on(job.garment, chain, "shoulder seam")
    if long < wide * 2.2:
        raise CannotStyle(
            say("The neckline is {0} on each half: a shawl {1u} wide would fit, or lower the front.", long, long / 2.2),
            ("wide",),
        )
    base = _base(
        job,
        name,
        "Shawl collar",
        long,
        long + spring,
        wide,
        ("collar_neck", "collar_front", "collar_outer", "centre_back"),
        row,
    )
    neck, _, outer, middle = base.edges
    knee = outer.place(outer.length - back)
    tip = neck.end
    curve = curve_between(
        tip, (knee.point - tip).unit() * 0.6 + knee.direction * 0.4, knee.point, knee.direction, long * 0.25, long * 0.2
    )
    ring = (neck, replace(outer, parts=(Path((curve, *outer.parts[0].cut(outer.length - back)[1].segments)),)), middle)
    piece = replace(base, edges=ring)
    seam = Seam(job.free_seam("collar"), "Collar", (SeamEdge(name, "collar_neck"),), chain)
    return _with(job, [piece], [seam], say("The neckline is {0} on each half, the collar {1} wide behind.", long, wide))


OVER = Option("over", "Room over the head", "length", 6.0, "in height; it falls back by as much", 0.0, 30.0, 0.5)
DEEP = Option("deep", "Room behind the head", "length", 4.0, "in depth", 0.0, 30.0, 0.5)
PEAK = Option("peak", "Peak", "length", 0.0, "how far its back corner is drawn out to a point; 0 is round", 0.0, 40.0, 0.5)


@operation(
    "collar.hood", "collars", "Hood", "two halves over the head, sewn to the neckline", options=(OVER, DEEP, PEAK),
    wheres={"neck": "any place on the neckline"}, names={"piece": "the hood"}, phase="derive",
    halves=True,
)  # fmt: skip
def hood(job: Job) -> Change:
    """Half a hood: as high as the head and its room, as deep as the head, its neck edge as long as the neckline; a pleat takes what
    is too much."""
    chain, long, _, _, _ = neckline(job)
    head = job.measure("head", "head girth")
    high = head * 0.6 + job.length("over")
    deep = head * 0.42 + job.length("deep")
    name = job.free_piece("hood")
    if deep < long * 0.6:
        deep = long * 0.6
    a = Point(0.0, 0.0)  # neck at the centre back
    drop = 2.0
    front = Point(long * 0.98, drop)
    neck_path = _as_long(a, front, long)
    top = Point(deep + 3.0, -high)
    peak = job.length("peak")
    crown = Point(-3.0, -high * 0.62)
    if peak > 0.05:
        tip = Point(-3.0 - peak, -high * 0.9)
        back_path = Path((
            curve_between(top, Point(-1.0, 0.0), tip, Point(-1.0, 0.1).unit(), deep * 0.35, peak * 0.4),
            curve_between(tip, Point(0.9, 0.45).unit(), a, Point(0.0, 1.0), peak * 0.5, high * 0.35),
        ))  # fmt: skip
        corners: tuple[Point, ...] = (tip,)
    else:
        back_path = Path((
            curve_between(top, Point(-1.0, 0.0), crown, Point(0.0, 1.0), deep * 0.6, high * 0.28),
            curve_between(crown, Point(0.0, 1.0), a, Point(0.15, 1.0).unit(), high * 0.22, high * 0.2),
        ))  # fmt: skip
        corners = ()
    face = Path((curve_between(neck_path.end, Point(0.12, -1.0).unit(), top, Point(0.0, -1.0), high * 0.3, high * 0.3),))
    row = joint_notches_on(job.garment, chain, "shoulder seam")
    edges = (
        Edge("hood_neck", (neck_path,), role="neck_seam", notches=row), Edge("hood_face", (face,), role="collar"),
        Edge("hood_back", (back_path,), role="collar", corners=corners),
    )  # fmt: skip
    piece = Piece(
        name, "Hood", edges, name, stands="pair", grain=(Point(deep * 0.5, -high * 0.8), Point(deep * 0.5, -high * 0.2))
    )
    seams = [
        Seam(job.free_seam("hood"), "Hood", (SeamEdge(name, "hood_neck"),), chain),
        Seam.to_its_mirror(job.free_seam("hood_back"), "Hood, over the head", (name, "hood_back")),
    ]
    said = say("Head {0}: the hood is {1} high and {2} deep, its neck {3} on each half.", head, high, deep, long)
    return _with(job, [piece], seams, said)


def _as_long(a: Point, b: Point, want: float) -> Path:
    """A hollow curve between two places, as long as is wanted; the second moves along its line where it must."""
    way = (b - a).unit()

    def drawn(far: float) -> Path:
        end = a + way * far
        return Path((curve_between(a, Point(1.0, 0.12).unit(), end, Point(1.0, -0.05).unit()),))

    return drawn(solve_or_nearest(lambda far: drawn(far).length - want, want * 0.8, want * 1.1))


def _with(job: Job, pieces: list[Piece], seams: list[Seam], said: Saying) -> Change:
    return Change(
        (*job.garment.pieces, *pieces), (*job.garment.seams, *seams), said=(said,), made=tuple(p.name for p in pieces)
    )
