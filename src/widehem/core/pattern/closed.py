"""The garment closed: what an outline does where a dart is shut or a seam is joined."""

from __future__ import annotations

import math
from collections.abc import Iterator

from fontTools.misc.transform import Transform

from widehem.core.geometry.points import Point, angle_between, turn
from widehem.core.pattern.edge import Dart, Edge, Held
from widehem.core.pattern.garment import Chain, EdgeRef, Garment, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import ROLES, plain
from widehem.core.values import record

POINTED = 150.0  # degrees: a piece with less between two edges has a point there, no line that runs on


@record(frozen=True)
class Joint:
    """A place where an outline runs on once something is closed: role of the outline, bend there in degrees, where that is,
    and the spots. over: 'dart', or the role of the seam."""

    role: str
    bend: float
    where: str
    spots: tuple[str, ...]
    over: str


def joints(garment: Garment) -> Iterator[Joint]:
    """Every dart shut and every seam joined. Twin seams and folds are looked at as corners of the middle."""
    for piece in garment.shell:
        for edge in piece.edges:
            yield from _shut(piece, edge)
    yield from _running_on(garment)
    for seam in garment.seams:
        if seam.faced or seam.twin:
            continue
        for at_end in (False, True):
            one, two = (corner_of(garment, chain, at_end=at_end) for chain in (seam.first, seam.second))
            if one.beyond.role != two.beyond.role or not one.piece.layer == two.piece.layer == "shell":
                continue
            if _four_meet(garment, one, two) or one.beyond.role == "slit":  # an opening that ends there lies open
                continue
            if _sewn_together(garment, one, two) or _let_in(garment, one, two):  # each piece has one line there
                bend = max(abs(corner.angle - 180) for corner in (one, two))
                where = f"where the {seam.title.lower()} runs on"
                yield Joint(
                    one.beyond.role, bend, where, tuple(f"{c.piece.name}.{c.beyond.name}" for c in (one, two)), "middle"
                )
                continue
            bend = abs(one.angle + two.angle - 180)
            spots = tuple(f"{c.piece.name}.{c.beyond.name}" for c in (one, two))
            yield Joint(one.beyond.role, bend, f"at the {seam.title.lower()}", spots, garment.edge(seam.first[0]).role)


def _running_on(garment: Garment) -> Iterator[Joint]:
    """Where one seam with its mirror runs on into the next: the centre and the crotch are one line."""
    twins = {entry.ref for seam in garment.seams if seam.twin for entry in seam.first}
    for piece in garment.pieces:
        for edge, after in piece.corners():
            if EdgeRef(piece.name, edge.name) in twins and EdgeRef(piece.name, after.name) in twins and edge is not after:
                where = f"where {ROLES[edge.role].words} and {ROLES[after.role].words} meet"
                spots = f"{piece.name}.{edge.name}", f"{piece.name}.{after.name}"
                yield Joint(edge.role, abs(inside_angle(piece, edge, after) - 180), where, spots, "middle")


def _shut(piece: Piece, edge: Edge) -> Iterator[Joint]:
    for number, gap in enumerate(edge.gaps):
        before, after = edge.parts[number].arriving, edge.parts[number + 1].leaving
        if isinstance(gap, Held):  # it lies open, and is one line with what it is held between
            bend = max(angle_between(before, gap.line.leaving), angle_between(gap.line.arriving, after))
            yield Joint(edge.role, bend, f"where the {plain(piece.name)} is eased in", (f"{piece.name}.{edge.name}",), "dart")
            continue
        bend = angle_between(before, after.moved(shutting(gap))) if isinstance(gap, Dart) else angle_between(before, after)
        spots = (f"{piece.name}.{edge.name}", f"{piece.name}.{gap.name}")
        yield Joint(edge.role, bend, f"over a {plain(piece.name)} dart", spots, "dart")


def shutting(dart: Dart) -> Transform:
    """The turn, as a direction is turned, that lays the outer leg of a dart on the inner."""
    inner, outer = dart.inner - dart.turned_about, dart.outer - dart.turned_about
    return turn(Point(0.0, 0.0), math.atan2(outer.cross(inner), outer.dot(inner)))


@record(frozen=True)
class Corner:
    """Where a chain of edges ends: the piece, the edge that follows beyond it, and the inside angle between them, degrees.
    starts: whether that edge starts there, as it runs round its piece."""

    piece: Piece
    beyond: Edge
    angle: float
    starts: bool


def _sewn_together(garment: Garment, one: Corner, two: Corner) -> bool:
    """Whether what lies beyond the end of a seam is one seam again."""
    other = EdgeRef(two.piece.name, two.beyond.name)
    found = garment.seams_at(EdgeRef(one.piece.name, one.beyond.name))
    return any(entry.ref == other for _, _, chain in found for entry in chain)


def _four_meet(garment: Garment, one: Corner, two: Corner) -> bool:
    """Whether left and right of one part end in a seam with others there, as at the fork: then four pieces meet in a point, and
    no line runs on."""
    mirrored = one.piece.of == two.piece.of and {one.piece.stands, two.piece.stands} == {"left", "right"}
    corners = (EdgeRef(corner.piece.name, corner.beyond.name) for corner in (one, two))
    return mirrored and all(any(True for _ in garment.seams_at(ref)) for ref in corners)


def _let_in(garment: Garment, one: Corner, two: Corner) -> bool:
    """Whether the point of a third piece is let in where a seam ends: a gore, a gusset."""
    left, right = (
        {entry.ref for _, _, chain in garment.seams_at(EdgeRef(c.piece.name, c.beyond.name)) for entry in chain}
        for c in (one, two)
    )
    for ref in left:
        piece = garment.piece(ref.piece)
        before, after = piece.beside(ref.edge)
        edge = piece.edge(ref.edge)
        for corner in ((before, edge), (edge, after)):
            other = corner[0] if corner[1] is edge else corner[1]
            if EdgeRef(piece.name, other.name) in right and piece.layer == "shell" and inside_angle(piece, *corner) < POINTED:
                return True
    return False


def corner_of(garment: Garment, chain: Chain, *, at_end: bool) -> Corner:
    """The corner in which a chain ends, or begins."""
    entry: SeamEdge = chain[-1 if at_end else 0]
    piece = garment.piece(entry.piece)
    before, after = piece.beside(entry.edge)
    edge = piece.edge(entry.edge)
    if at_end != entry.back:
        return Corner(piece, after, inside_angle(piece, edge, after), True)
    return Corner(piece, before, inside_angle(piece, before, edge), False)


def inside_angle(piece: Piece, before: Edge, after: Edge) -> float:
    """The angle inside a piece between an edge and the next, 0 to 360 degrees."""
    a, b = before.arriving, after.leaving
    turned = math.degrees(math.atan2(a.cross(b), a.dot(b)))
    return 180 - (turned if piece.clockwise else -turned)
