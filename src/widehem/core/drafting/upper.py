"""Shapes of the upper body: neck and armhole curves, the shoulder line, and how they become the edges of a piece.

Half patterns in a frame of their own: x counts outwards from the centre, y downwards from the nape level.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Literal

from fontTools.misc.transform import Transform

from widehem.core.geometry.curves import Cubic, Line, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.solve import solve_or_nearest
from widehem.core.pattern.edge import Dart, Edge
from widehem.core.pattern.ring import dart_between
from widehem.core.values import record

DOWN, OUT = Point(0.0, 1.0), Point(1.0, 0.0)
HOLLOW = {"back": 0.55, "front": 0.58}  # of the lower armhole: how far its handles reach
UNLIKE = {"back": 0.52, "front": 0.64}  # where both stand in alike, so that the front lies inside the back
HOLE_RADIUS, HOLLOW_MOST = 2.6, 0.7  # cm that an armhole turns in at least, as far as so much hollow gives it
HOLE_HIGH = 18.0  # cm from tip to underarm; a smaller armhole may turn tighter
TIP_REACH, LEAN_MOST = 0.75, math.radians(15)  # of the usual handle at the tip; and how far the chest point may lean for it
NECK_CORNER_IN = 0.5
NECK_OUT, NECK_UP, NECK_DOWN = 0.55, 0.45, 0.5
FRONT_OUT, FRONT_DOWN = 0.55, 0.42  # as it leans outwards at the side neck point its handles are shorter
NECK_LOOSE = 0.7  # cm that a neckline at the neck is longer than the neck at most
WIDE_NECK = 0.65, 0.75  # of a neck that is much wider than deep
SQUARE, MEETS = 90.0, 60.0  # degrees between the back neck and the shoulder: by the first rules, and today
# of the way to the corner where both directions of the back neck meet: how far its handles reach; others where it rises little
NECK_HANDLES = ((0.85, 0.6), (0.9, 0.75), (0.93, 0.9), (0.95, 1.0), (0.98, 1.3), (0.98, 1.7))
NECK_RADIUS = 1.05  # cm
HOLLOWS = (0.5, 0.6, 0.7, 0.8, 0.9)  # how far both handles of a lower armhole may reach, where there is little room for it


def square_down(way: Point) -> Point:
    """Square to a shoulder line that runs outwards, into the piece."""
    return Point(-way.y, way.x).unit()


def neck_meets(rules: int, since: int = 2) -> float:
    """At how many degrees the back neck arrives at the shoulder, by the rules of a draft."""
    return MEETS if rules >= since else SQUARE


def back_neck(top: Point, snp: Point, shoulder: Point, meets: float = MEETS) -> Path:
    """From the centre, level, to the side neck point, arriving at so many degrees to the shoulder."""
    wide, rise = snp.x - top.x, max(top.y - snp.y, 0.1)
    if meets == SQUARE:
        return Path((curve_between(top, OUT, snp, -square_down(shoulder), NECK_OUT * wide, NECK_UP * rise),))
    arriving = shoulder.unit().moved(turn(Point(0.0, 0.0), -math.radians(meets)))
    up = rise / max(-arriving.y, 0.2)  # how far back along that way lies the level of the centre
    corner = wide - up * arriving.x
    if corner < wide / 4:  # a deep neck, drawn as a front is
        return Path((curve_between(top, OUT, snp, arriving, FRONT_OUT * wide, FRONT_DOWN * rise),))
    return Path((_roundest([(top, OUT, snp, arriving, corner * flat, up * part) for flat, part in NECK_HANDLES], NECK_RADIUS),))


def _roundest(tried: Sequence[tuple[Point, Point, Point, Point, float, float]], radius: float) -> Cubic:
    """The first of some curves that turns nowhere tighter than a radius, cm; else the one that is roundest."""
    best, least = None, math.inf
    for entry in tried:
        curve = curve_between(*entry)
        sharpest = curve.turns(16)[1]
        if sharpest <= 1 / radius:
            return curve
        if sharpest < least:
            best, least = curve, sharpest
    assert best is not None
    return best


def front_neck(pit: Point, snp: Point, shoulder: Point, shape: str = "round", meets: float = MEETS) -> Path:
    """From the pit of the neck to the side neck point, so that with a back that arrives at so many degrees to the shoulder it
    runs on over it. shape: round, v or square."""
    wide, deep = snp.x - pit.x, pit.y - snp.y
    arriving = -shoulder.unit().moved(turn(Point(0.0, 0.0), math.radians(meets)))
    if shape == "v":
        chord = snp - pit
        return Path((curve_between(pit, chord, snp, arriving, pit.to(snp) * 0.6, pit.to(snp) * 0.2),))
    if shape == "square":
        corner = Point(snp.x - NECK_CORNER_IN * deep * arriving.x, pit.y)
        return Path((Line(pit, corner), curve_between(corner, -DOWN, snp, arriving, deep * 0.4, deep * 0.3)))
    out, down = (NECK_OUT, NECK_DOWN) if meets == SQUARE else WIDE_NECK if wide > 1.2 * deep else (FRONT_OUT, FRONT_DOWN)
    return Path((curve_between(pit, OUT, snp, arriving, out * wide, down * deep),))


def deep_enough(
    pit: Point, snp: Point, shoulder: Point, back: float, neck: float, shape: str = "round", meets: float = MEETS
) -> Point:
    """The pit of the neck, lowered until the neckline is no tighter than the neck. back: the half back neck, cm."""
    for _ in range(12):
        short = neck / 2 - back - front_neck(pit, snp, shoulder, shape, meets).length
        if short <= 0:
            break
        pit = Point(pit.x, pit.y + 1.1 * short + 0.005)
    return pit


def high_enough(
    pit: Point, snp: Point, shoulder: Point, back: float, neck: float, shape: str = "round", meets: float = MEETS
) -> Point:
    """The pit of the neck, raised until the neckline is no looser than it may be. back: the half back neck, cm."""

    def loose(y: float) -> float:
        return front_neck(Point(pit.x, y), snp, shoulder, shape, meets).length + back - (neck + NECK_LOOSE) / 2

    least = snp.y + (pit.y - snp.y) / 2
    return Point(pit.x, solve_or_nearest(loose, least, pit.y, near=1e-3)) if loose(pit.y) > 0 else pit


def armhole(
    tip: Point, shoulder: Point, chest: Point, chest_way: Point, under: Point, side_way: Point, hollow: float, *,
    rounded: int = 0,
) -> Path:  # fmt: skip
    """From the shoulder tip over the chest point to the underarm: one cubic each.

    shoulder: the direction of the shoulder line outwards. chest_way: the direction at the chest point, downwards. side_way:
    the direction of the side seam, downwards. hollow: how far the handles of the lower part reach; rounded:
    further where it would turn tighter than can be sewn, by 2 otherwise shaped too where that is not enough, by 3 the line
    leans outwards at a chest point that lies hardly inside the tip.
    """
    leaving, third = square_down(shoulder), tip.to(chest) / 3
    way = _leans(tip, leaving, chest, chest_way.unit(), third) if rounded > 2 else chest_way.unit()
    out = way.square()  # across the line through the chest point
    if out.dot(tip - chest) < 0:
        out = -out
    room, comes = out.dot(tip - chest), -out.dot(leaving)
    reach = min(third, room / comes) if comes > 1e-9 else third
    upper = curve_between(tip, leaving, chest, way, max(reach, 0.02), third)
    arriving = side_way.square()
    if arriving.dot(under - chest) < 0:
        arriving = -arriving
    drop, wide = (under - chest).dot(way), abs(out.dot(under - chest))

    def lower(reach: float, into: float = 0.0) -> Cubic:
        return curve_between(chest, way, under, arriving, max(reach * drop, 0.02), max((into or reach) * wide, 0.02))

    radius = HOLE_RADIUS * (min(1.0, tip.to(under) / HOLE_HIGH) if rounded > 2 else 1.0)

    def tighter(reach: float) -> float:
        return lower(reach).turns(16)[1] - 1 / radius

    if rounded > 0 and hollow < HOLLOW_MOST and tighter(hollow) > 0:
        hollow = solve_or_nearest(tighter, hollow, HOLLOW_MOST, near=1e-4)
        if rounded > 1 and tighter(hollow) > 1e-3:
            found = (lower(one, two) for one in HOLLOWS for two in HOLLOWS)
            return Path((upper, min(found, key=lambda curve: curve.turns(16)[1])))
    return Path((upper, lower(hollow)))


def _leans(tip: Point, leaving: Point, chest: Point, way: Point, third: float) -> Point:
    """The direction of an armhole at the chest point: as it is wanted, or leaning outwards as far as a chest point that lies
    hardly inside the tip asks, so that the line needs no nib at the tip."""
    corner = tip + leaving * (TIP_REACH * third)
    wanted = chest - corner
    out = way.square() if way.square().dot(leaving) < 0 else -way.square()
    if wanted.dot(out) <= 0:  # the tip stands far enough outside
        return way
    by = math.atan2(way.cross(wanted), way.dot(wanted))
    return way.moved(turn(Point(0.0, 0.0), math.copysign(min(abs(by), LEAN_MOST), by)))


def shoulder_sine(snp: Point, shoulder: float, waist: Point, slope: float) -> float | None:
    """The sine of the shoulder's fall, where the circles round SNP (shoulder) and CB waist (slope) meet outside; None when
    they do not."""
    apart = snp.to(waist)
    if not abs(shoulder - slope) < apart < shoulder + slope:
        return None
    along = (apart**2 + shoulder**2 - slope**2) / (2 * apart)
    aside = math.sqrt(max(shoulder**2 - along**2, 0.0))
    way = (waist - snp).unit()
    spots = [snp + way * along + way.square() * side for side in (aside, -aside)]
    return (max(spots, key=lambda p: p.x).y - snp.y) / shoulder


@record(frozen=True)
class Stretch:
    """A piece of the outer boundary, from the centre at the neck round to the centre at the waist."""

    edge: str
    path: Path


@record(frozen=True)
class Gap:
    """A dart between two stretches of one edge.

    apex: what it was turned about; it is sewn to `short` before it. pressed: the leg it is folded to, along the ring of the
    piece.
    """

    name: str
    apex: Point
    short: float = 0.0
    pressed: Literal["inner", "outer"] = "inner"


Walk = tuple[Stretch, ...]
PLACES = ("neck", "shoulder", "armhole", "side", "waist")  # in the order of the walk


def cut_walk(walk: Walk, edge: str, along: float) -> tuple[Walk, Walk]:
    """The walk in two, cut this far (cm) along an edge; at one of its own ends nothing is cut."""
    gone = 0.0
    for i, stretch in enumerate(walk):
        if stretch.edge != edge:
            continue
        length = stretch.path.length
        if along <= gone + 1e-6:
            return walk[:i], walk[i:]
        if along < gone + length - 1e-6:
            first, second = stretch.path.cut(along - gone)
            return (*walk[:i], Stretch(edge, first)), (Stretch(edge, second), *walk[i + 1 :])
        gone += length
    last = max(i for i, stretch in enumerate(walk) if stretch.edge == edge)
    return walk[: last + 1], walk[last + 1 :]


def moved(walk: Walk, by: Transform) -> Walk:
    return tuple(Stretch(stretch.edge, stretch.path.moved(by)) for stretch in walk)


def ring_edges(walk: Walk, gaps: Mapping[str, Sequence[Gap]]) -> tuple[Edge, ...]:
    """The edges of a piece in the order of its ring: waist, side, armhole, shoulder, neck, each against the walk.

    gaps: the darts of each edge in the order of the ring.
    """
    found = []
    for name in ("waist", "side", "armhole", "shoulder", "neck"):
        whole: list[Path] = []
        darts: list[Dart] = []
        pending = list(gaps.get(name, ()))
        for part in (s.path.reverse() for s in reversed(walk) if s.edge == name):
            if whole and whole[-1].end.to(part.start) > 1e-6:
                gap = pending.pop(0)
                darts.append(dart_between(gap.name, whole[-1], part, gap.apex, gap.short, gap.pressed))
                whole.append(part)
            elif whole:
                whole[-1] = whole[-1] + part
            else:
                whole.append(part)
        found.append(Edge(name, tuple(whole), tuple(darts)))
    return tuple(found)
