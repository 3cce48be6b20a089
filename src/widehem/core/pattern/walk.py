"""Walking a seam: one piece is laid along the other, as far as it has been walked; and armholes laid over each other."""

from __future__ import annotations

import math

from fontTools.misc.transform import Transform

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, mirror_in, turn
from widehem.core.pattern.edge import MEETS, Edge, Held
from widehem.core.pattern.garment import Chain, Garment, Seam, SeamEdge
from widehem.core.pattern.meeting import Meeting, meetings
from widehem.core.pattern.piece import Piece
from widehem.core.values import record

ARMHOLES = "armholes"


@record(frozen=True)
class Side:
    """One side of a seam that is walked: the piece, the edge, and whether it runs from its end."""

    piece: Piece
    edge: Edge
    back: bool

    def at(self, along: float) -> tuple[Point, Point, Point]:
        """The spot so far (cm) along the seam, the way it runs there, and the way out of the piece."""
        place = self.edge.place(self.edge.length - along if self.back else along)
        return place.point, -place.direction if self.back else place.direction, self.piece.outward(place.direction)


@record(frozen=True)
class Walk:
    """A seam walked so far. onto: how the second piece lies against the first; at: the point where they touch; meetings:
    notches and ends in order; eased: what may be left over at the end, cm."""

    title: str
    sides: tuple[Side, Side]
    onto: Transform
    at: Point
    along: float
    meetings: tuple[Meeting, ...]
    eased: float = 0.0

    @property
    def first(self) -> Piece:
        return self.sides[0].piece

    @property
    def second(self) -> Piece:
        return self.sides[1].piece

    @property
    def edges(self) -> tuple[Edge, Edge]:
        return self.sides[0].edge, self.sides[1].edge

    @property
    def first_length(self) -> float:
        return self.edges[0].length

    def untrue(self, meeting: Meeting, tolerance: float) -> bool:
        """Whether two that should meet are further apart than they may be."""
        return meeting.apart > tolerance + (self.eased if meeting is self.meetings[-1] else 0.0)


def side_of(garment: Garment, entry: SeamEdge) -> Side:
    return Side(garment.piece(entry.piece), garment.edge(entry), entry.back)


def walk(garment: Garment, seam: Seam, share: float) -> Walk:
    """Lay the second piece against the first where a share (0 to 1) of the shorter edge has been walked."""
    one, two = side_of(garment, seam.first[0]), side_of(garment, seam.second[0])
    along = min(one.edge.length, two.edge.length) * min(max(share, 0.0), 1.0)
    (here, way, out), (there, other, out_there) = one.at(along), two.at(along)
    flip = mirror_in(there, there + other) if out_there.cross(other) * out.cross(way) > 0 else Transform()
    angle = math.atan2(other.cross(way), other.dot(way))
    onto = Transform().translate(here.x - there.x, here.y - there.y).transform(turn(there, angle)).transform(flip)
    return Walk(seam.title, (one, two), onto, here, along, tuple(meetings(garment, seam)), max(abs(ease) for ease in seam.ease))


@record(frozen=True)
class Underarm:
    """Where an armhole meets its side: the piece, the edge that begins or ends there, the point, and the way the side comes up
    to it."""

    piece: Piece
    hole: Edge
    point: Point
    up: Point


def underarm_of(garment: Garment, chain: Chain) -> Underarm | None:
    """The underarm of an armhole; None where it meets no side."""
    for entry in chain:
        piece, hole = garment.piece(entry.piece), garment.edge(entry)
        before, after = piece.beside(hole.name)
        if before.role == "side":
            return Underarm(piece, hole, hole.start, before.arriving)
        if after.role == "side":
            return Underarm(piece, hole, hole.end, -after.leaving)
    return None


def armholes_over_each_other(garment: Garment) -> Walk | None:
    """The front armhole turned over and laid on the back, at the underarm, sides along each other; None without armholes."""
    if garment.armholes is None:
        return None
    front, back = (underarm_of(garment, chain) for chain in garment.armholes)
    if front is None or back is None:
        return None
    here, there = back.point, front.point
    same = _hand(back) == _hand(front)
    flip = Transform() if same else mirror_in(there, there + front.up)
    angle = math.atan2(front.up.cross(back.up), front.up.dot(back.up))
    onto = Transform().translate(here.x - there.x, here.y - there.y).transform(turn(there, angle)).transform(flip)
    lengths = tuple(garment.length_of(chain) for chain in reversed(garment.armholes))
    ends = (Meeting("underarm", 0.0, 0.0), Meeting("shoulder tip", lengths[0], lengths[1]))
    sides = tuple(Side(u.piece, u.hole, u.hole.start is not u.point) for u in (back, front))
    return Walk("Armholes over each other", (sides[0], sides[1]), onto, here, 0.0, ends)


def _hand(underarm: Underarm) -> bool:
    """On which side of the way up the armhole lies."""
    far = underarm.hole.end if underarm.point == underarm.hole.start else underarm.hole.start
    return underarm.up.cross(far - underarm.point) > 0


def armhole_level(garment: Garment) -> float | None:
    """How far the underarm lies below the nape, cm; None where the back has no middle to measure along."""
    back = underarm_of(garment, garment.armholes[1]) if garment.armholes is not None else None
    if back is None or not back.piece.middle:
        return None
    middle = back.piece.edge(back.piece.middle)
    nape = min((middle.start, middle.end), key=lambda point: point.y)
    return abs(back.point.y - nape.y)


def armhole_depth(garment: Garment) -> float | None:
    """How deep the armhole itself is, cm: laid side seam to side seam, from between both shoulder tips to the underarm."""
    if garment.armholes is None:
        return None
    tips = []
    for chain, hand in zip(garment.armholes, (-1.0, 1.0), strict=True):
        found = underarm_of(garment, chain)
        if found is None:
            return None
        ends = [garment.edge(entry) for entry in chain]
        far = max((point for edge in ends for point in (edge.start, edge.end)), key=found.point.to)
        arm, up = far - found.point, found.up.unit()
        tips.append(Point(hand * abs(arm.cross(up)), arm.dot(up)))
    return Point(0.0, 0.0).to(tips[0].toward(tips[1], 0.5))


def from_underarm(path: Path, down: Point, long: float) -> Path | None:
    """The beginning of an armhole or of a cap as it leaves the underarm, in a frame of its own: the seam below runs straight
    down from the origin, the line itself inwards, x. down: the direction of that seam; long: how much of it, cm. None where it
    is no longer."""
    if path.length < long + 0.5:
        return None
    turned = turn(Point(0.0, 0.0), math.atan2(down.x, down.y))
    laid = path.cut(long)[0].moved(turned.translate(-path.start.x, -path.start.y))
    return laid if laid.end.x > 0 else laid.moved(Transform(-1, 0, 0, 1, 0, 0))


def underarm_curves(garment: Garment, long: float) -> tuple[Path, Path] | None:
    """The beginnings of the front and the back armhole from the underarm; None where they are not there."""
    if garment.armholes is None:
        return None
    found = []
    for chain in garment.armholes:
        under = underarm_of(garment, chain)
        if under is None or not all(isinstance(gap, Held) for gap in under.hole.gaps):
            return None
        path = next((p for p in under.hole.parts if p.start.to(under.point) < MEETS), under.hole.parts[-1].reverse())
        laid = from_underarm(path, -under.up, long)
        if laid is None:
            return None
        found.append(laid)
    return found[0], found[1]
