"""Walking a seam: one piece is laid along the other, as far as it has been walked; and armholes laid over each other."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from fontTools.misc.transform import Transform

from widehem.core.geometry.points import Point, mirror_in, turn
from widehem.core.pattern.block import Block, EdgeName, PitchNotch, Seam
from widehem.core.pattern.piece import Edge, Piece

ARMHOLES = "armholes"


@dataclass(frozen=True)
class Meeting:
    """Something that should meet on both edges: what, and how far along each it stands, cm."""

    what: str
    first: float
    second: float

    @property
    def apart(self) -> float:
        return abs(self.first - self.second)


@dataclass(frozen=True)
class Walk:
    """A seam walked so far. onto: how the second piece lies against the first; at: the point where they touch; meetings:
    notches and ends in order; eased: what may be left over at the end, cm; against: the
    second edge runs the other way."""

    title: str
    first: Piece
    second: Piece
    edges: tuple[Edge, Edge]
    onto: Transform
    at: Point
    along: float
    meetings: tuple[Meeting, ...]
    eased: float = 0.0
    against: bool = False

    @property
    def first_length(self) -> float:
        return self.edges[0].length

    def untrue(self, meeting: Meeting, tolerance: float) -> bool:
        """Whether two that should meet are further apart than they may be."""
        return meeting.apart > tolerance + (self.eased if meeting is self.meetings[-1] else 0.0)


def walk(block: Block, seam: Seam, share: float) -> Walk:
    """Lay the second piece against the first where a share (0 to 1) of the shorter edge has been walked."""
    (one, two) = seam.first[0], seam.second[0]
    first, second = block.piece(one.piece), block.piece(two.piece)
    edges = first.edge(one.edge), second.edge(two.edge)
    along = min(edges[0].length, edges[1].length) * min(max(share, 0.0), 1.0)
    here = edges[0].place(along)
    there = edges[1].place(edges[1].length - along if seam.against else along)
    way = -there.direction if seam.against else there.direction
    onto = _laid(first, second, here.point, here.direction, there.point, way, seam.against)
    eased = max(abs(ease) for ease in seam.ease)
    return Walk(seam.title, first, second, edges, onto, here.point, along, _meetings(block, seam, edges), eased, seam.against)


def _laid(first: Piece, second: Piece, here: Point, way: Point, there: Point, other: Point, against: bool) -> Transform:
    """The second piece turned (and turned over, where both lie on one side) so that its edge runs along the first."""
    flip = Transform()
    out_first = first.outward(way)
    out_second = second.outward(-other if against else other)
    if out_second.cross(other) * out_first.cross(way) > 0:
        flip = mirror_in(there, there + other)
    angle = math.atan2(other.cross(way), other.dot(way))
    return Transform().translate(here.x - there.x, here.y - there.y).transform(turn(there, angle)).transform(flip)


def _meetings(block: Block, seam: Seam, edges: tuple[Edge, Edge]) -> tuple[Meeting, ...]:
    found = [Meeting("start", 0.0, 0.0)]
    names = (seam.first[0], seam.second[0])
    levels = set(block.piece(names[0].piece).levels) & set(block.piece(names[1].piece).levels)
    for level in sorted(levels - {level for name in names for level in block.piece(name.piece).spans}):
        heights = [block.piece(name.piece).levels[level] for name in names]
        spots = [edge.at_level(y) for edge, y in zip(edges, heights, strict=True)]
        if spots[0] is not None and spots[1] is not None and 1 < spots[0] < edges[0].length - 1:
            found.append(Meeting(f"{level} level", spots[0], spots[1]))
    first, second = ([notch for notch in block.pitch if EdgeName(notch.piece, notch.edge) == name] for name in names)
    for notch in first:
        for other in second:
            pitch = notch.what.startswith("pitch") and other.what.startswith("pitch") and notch.count == other.count
            if pitch or notch.what == other.what:
                along = edges[1].length - other.along if seam.against else other.along
                found.append(Meeting("pitch notch" if pitch else f"{notch.what} notch", notch.along, along))
    found.append(Meeting("end", edges[0].length, edges[1].length))
    return tuple(sorted(found, key=lambda meeting: meeting.first))


def armholes_over_each_other(block: Block) -> Walk | None:
    """The front armhole turned over and laid on the back, at the underarm, sides along each other; None without armholes."""
    if block.armhole is None:
        return None
    front, back = (block.piece(ref.piece) for ref in block.armhole)
    holes = back.edge("armhole"), front.edge("armhole")
    sides = [piece.edge("side").parts[-1].arriving for piece in (back, front)]
    here, there = holes[0].start, holes[1].start
    flip = mirror_in(there, there + sides[1])
    angle = math.atan2(sides[1].cross(sides[0]), sides[1].dot(sides[0]))
    onto = Transform().translate(here.x - there.x, here.y - there.y).transform(turn(there, angle)).transform(flip)
    ends = (Meeting("underarm", 0.0, 0.0), Meeting("shoulder tip", holes[0].length, holes[1].length))
    return Walk("Armholes over each other", back, front, holes, onto, here, 0.0, ends)


CAP_BACK, CAP_FRONT, CAP_LOW = "cap_back", "cap_front", "cap_low"
SIDE_NOTCH = "side seam"  # of a sleeve whose own seam runs down the back: where the head meets the side of the bodice


def set_in(bodice: Block, sleeve: Block) -> Block | None:
    """A bodice with its sleeve, to be walked: the cap is cut at its shoulder notch and each half runs along its armhole.

    None where there is no armhole, no cap or no shoulder notch.
    """
    notch = next((notch for notch in sleeve.pitch if notch.what == "shoulder"), None)
    if bodice.armhole is None or notch is None:
        return None
    low = next((notch for notch in sleeve.pitch if notch.what == SIDE_NOTCH), None)
    if low is not None:
        return _set_in_behind(bodice, sleeve, notch, low)
    piece = sleeve.piece(notch.piece)
    cap = piece.edge(notch.edge)
    back, front = cap.parts[0].cut(notch.along)
    halves = (Edge(CAP_BACK, (back,)), Edge(CAP_FRONT, (front,)))
    ring = tuple(part for edge in piece.edges for part in (halves if edge is cap else (edge,)))
    pitch = [
        replace(p, edge=CAP_BACK) if p.along < notch.along else replace(p, edge=CAP_FRONT, along=p.along - notch.along)
        for p in sleeve.pitch
        if p is not notch
    ]
    seams = []
    for ref, name, title, half, against in (
        (bodice.armhole[1], CAP_BACK, "Cap in the back armhole", back, False),
        (bodice.armhole[0], CAP_FRONT, "Cap in the front armhole", front, True),
    ):
        eased = half.length - bodice.length_of((ref,))
        seams.append(Seam(name, title, (ref,), (EdgeName(piece.name, name),), (-eased, -eased), against))
    return Block((*bodice.pieces, replace(piece, edges=ring)), tuple(seams), pitch=(*bodice.pitch, *pitch))


def _set_in_behind(bodice: Block, sleeve: Block, shoulder: PitchNotch, low: PitchNotch) -> Block | None:
    """A sleeve with its seam behind the arm: the head in three, and the back armhole cut where the seam meets it."""
    assert bodice.armhole is not None
    piece = sleeve.piece(shoulder.piece)
    cap = piece.edge(shoulder.edge)
    upper, rest = cap.parts[0].cut(shoulder.along)
    front, lower = rest.cut(low.along - shoulder.along)
    parts = (Edge(CAP_BACK, (upper,)), Edge(CAP_FRONT, (front,)), Edge(CAP_LOW, (lower,)))
    ring = tuple(part for edge in piece.edges for part in (parts if edge is cap else (edge,)))
    ref = bodice.armhole[1]
    back = bodice.piece(ref.piece)
    hole = back.edge(ref.edge)
    halves = hole.parts[0].cut(hole.length * lower.length / (lower.length + upper.length))
    split = (Edge(CAP_LOW, (halves[0],)), Edge(ref.edge, (halves[1],)))
    back = replace(back, edges=tuple(part for edge in back.edges for part in (split if edge is hole else (edge,))))
    pieces = tuple(back if old.name == back.name else old for old in bodice.pieces)
    whole = Block((*pieces, replace(piece, edges=ring)))
    seams = []
    for edge, name, title, against in (
        (EdgeName(back.name, ref.edge), CAP_BACK, "Head in the back armhole, above its seam", False),
        (EdgeName(back.name, CAP_LOW), CAP_LOW, "Head in the back armhole, below its seam", False),
        (bodice.armhole[0], CAP_FRONT, "Head in the front armhole", True),
    ):
        over = whole.piece(edge.piece).edge(edge.edge).length - whole.piece(piece.name).edge(name).length
        seams.append(Seam(name, title, (edge,), (EdgeName(piece.name, name),), (over, over), against))
    return replace(whole, seams=tuple(seams))


def armhole_level(block: Block) -> float | None:
    """How far the underarm lies below the nape, cm; None where the back has no centre to measure along."""
    if block.armhole is None:
        return None
    piece = block.piece(block.armhole[1].piece)
    if not piece.centre:
        return None
    centre = piece.edge(piece.centre)
    nape = min((centre.start, centre.end), key=lambda point: point.y)
    return abs(piece.edge(block.armhole[1].edge).start.y - nape.y)


def armhole_depth(block: Block) -> float | None:
    """How deep the armhole itself is, cm: laid side seam to side seam, from between both shoulder tips to the underarm."""
    if block.armhole is None:
        return None
    tips = []
    for ref, hand in zip(block.armhole, (-1.0, 1.0), strict=True):
        piece = block.piece(ref.piece)
        hole, up = piece.edge(ref.edge), piece.edge("side").parts[-1].arriving.unit()
        arm = hole.end - hole.start
        tips.append(Point(hand * abs(arm.cross(up)), arm.dot(up)))
    return Point(0.0, 0.0).to(tips[0].toward(tips[1], 0.5))
