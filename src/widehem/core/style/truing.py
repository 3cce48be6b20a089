"""Truing: seams made equal, corners squared, darts pressed the other way. Done last, on everything; each says what it
changed."""

from __future__ import annotations

from widehem.core.geometry.curves import Cubic, Line, Segment, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, angle_between
from widehem.core.geometry.solve import NoSolutionError, solve
from widehem.core.pattern.dart_cap import dart_cap
from widehem.core.pattern.edge import Dart, Edge
from widehem.core.pattern.garment import Garment, Seam
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import ROLES, over_middle, plain
from widehem.core.style.operation import Change, Job, operation
from widehem.core.units import Saying, say
from widehem.core.values import replace

SQUARE = 1.0  # cm that run squarely from a centre line
LET_OUT = 12.0  # cm that a seam may be made longer or shorter


@operation(
    "true.seams", "truing", "Seams made equal", "where two sides of a seam differ, one is let out or taken in at its free end",
    phase="true",
)  # fmt: skip
def equalise(job: Job) -> Change:
    """Let out or take in the second side of every seam that differs by more than it may."""
    garment, changes = job.garment, []
    for seam in job.garment.seams:
        off = _off(garment, seam)
        if abs(off) > job.context.limits.seam:
            ref = seam.second[-1]
            piece = garment.piece(ref.piece)
            found = _longer(piece, ref.edge, off)
            if found is None:
                continue
            mended, where = found
            garment = garment.with_piece(mended)
            way = "let out" if off > 0 else "taken in"
            changes.append(say(f"{seam.title}: the {plain(piece.name)} is {way} by {{0u}} at the {where}.", abs(off)))
    return Change(garment.pieces, said=tuple(changes))


def _off(garment: Garment, seam: Seam) -> float:
    """How much longer the second side should be, cm."""
    over = garment.length_of(seam.first) - garment.length_of(seam.second)
    least, most = seam.ease
    return over - most if over > most else over - least if over < least else 0.0


def _longer(piece: Piece, name: str, by: float) -> tuple[Piece, str] | None:
    """A piece with one of its edges longer by so much, at the end where it gives way, and what follows there; None where it
    cannot be."""
    ring = list(piece.edges)
    at = next(i for i, edge in enumerate(ring) if edge.name == name)
    before, after = (at - 1) % len(ring), (at + 1) % len(ring)
    at_end = ROLES[ring[after].role].free <= ROLES[ring[before].role].free
    edge = ring[at]
    want, way = edge.length + by, edge.arriving.unit() if at_end else -edge.leaving.unit()
    neighbour = after if at_end else before
    try:
        shift = way * solve(lambda far: _shifted(edge, way * far, at_end=at_end).length - want, -LET_OUT, LET_OUT)
    except NoSolutionError:
        return None
    ring[at] = _shifted(edge, shift, at_end=at_end)
    ring[neighbour] = _shifted(ring[neighbour], shift, at_end=not at_end)
    return replace(piece, edges=tuple(ring)), plain(ring[neighbour].name)


def _shifted(edge: Edge, by: Point, *, at_end: bool) -> Edge:
    """An edge with one end moved; what is sewn elsewhere along it stays."""
    parts = list(edge.parts)
    spot = -1 if at_end else 0
    segments = list(parts[spot].segments)
    segments[spot] = _moved_end(segments[spot], by) if at_end else _moved_end(segments[spot].reverse(), by).reverse()
    parts[spot] = Path(tuple(segments))
    return replace(edge, parts=tuple(parts))


def _moved_end(segment: Segment, by: Point) -> Segment:
    if isinstance(segment, Line):
        return Line(segment.start, segment.end + by)
    return Cubic(segment.start, segment.out, segment.into + by, segment.end + by)


@operation(
    "true.corners", "truing", "Corners squared", "waist, hem and neck leave the centre squarely for a centimetre", phase="true",
)  # fmt: skip
def square(job: Job) -> Change:
    """Draw waist, hem and neck again where they meet the middle, square over the first centimetre."""
    garment = job.garment
    changes: list[Saying] = []
    for piece in job.garment.pieces:
        if not piece.middle:
            continue
        ring = list(piece.edges)
        at = next(i for i, edge in enumerate(ring) if edge.name == piece.middle)
        ways = ring[at].leaving, ring[at].arriving
        for index, at_end, down in (((at - 1) % len(ring), True, ways[0]), ((at + 1) % len(ring), False, ways[1])):
            edge = ring[index]
            if edge.pointed or not over_middle(edge.role):  # what carries the middle on, a gore's seam, is no corner
                continue
            made = _squared(edge, down.square(), job.context.limits.corner, at_end=at_end)
            if made is not None:
                ring[index] = made
                words = f"The {plain(piece.name)} {plain(edge.name)} leaves its centre squarely now, {{0s}} in length."
                changes.append(say(words, made.length - edge.length))
        garment = garment.with_piece(replace(piece, edges=tuple(ring)))
    return Change(garment.pieces, said=tuple(changes))


def _squared(edge: Edge, out: Point, near: float, *, at_end: bool) -> Edge | None:
    """The edge leaving the centre straight for a centimetre, then as it ran; None where it is square already, or too short."""
    part = edge.parts[-1].reverse() if at_end else edge.parts[0]
    first = part.segments[0]
    if abs(angle_between(part.place(SQUARE).point - part.start, out) - 90) > 90 - near:
        return None
    way = out if out.dot(part.end - part.start) > 0 else -out
    if first.length < 2.5 * SQUARE:
        return None
    knee = part.start + way * SQUARE
    path = Path((Line(part.start, knee), curve_between(knee, way, first.end, first.direction(1.0)), *part.segments[1:]))
    parts = list(edge.parts)
    parts[-1 if at_end else 0] = path.reverse() if at_end else path
    return replace(edge, parts=tuple(parts))


@operation(
    "dart.press",
    "dart",
    "Waist darts pressed to the side",
    "the mouth of a dart is cut for the side it is pressed to",
    phase="true",
)
def press_to_side(job: Job) -> Change:
    """Draw the mouths of the waist darts again, for pressing them to the side instead of to the centre."""
    count, garment = 0, job.garment
    for piece in job.garment.pieces:
        for edge in piece.edges_of("waist"):
            gaps = tuple(_pressed(edge, number, gap) if isinstance(gap, Dart) else gap for number, gap in enumerate(edge.gaps))
            count += len(edge.darts)
            piece = piece.with_edge(replace(edge, gaps=gaps))
        garment = garment.with_piece(piece)
    words = "The mouth of the waist dart is" if count == 1 else f"The mouths of {count} waist darts are"
    return Change(garment.pieces, said=(say(f"{words} drawn for pressing to the side."),) if count else ())


def _pressed(edge: Edge, number: int, dart: Dart) -> Dart:
    cap = dart_cap(edge.parts[number + 1].reverse(), dart.point, dart.outer, dart.inner)
    return dart if cap is None else replace(dart, cap=cap.reverse(), pressed="outer")
