"""Mends of finished pieces: seams made equal, corners squared, darts pressed the other way. Each says what it changed."""

from __future__ import annotations

from dataclasses import dataclass, replace

from widehem.core.geometry.curves import Cubic, Line, Segment, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, angle_between
from widehem.core.pattern.block import Block, Seam
from widehem.core.pattern.check import CORNER_TRUE, SEAM_TRUE
from widehem.core.pattern.dart_cap import dart_cap
from widehem.core.pattern.piece import Edge, Piece
from widehem.core.units import Saying, say

SQUARE = 1.0  # cm that run squarely from a centre line
FREE_ENDS = ("waist", "hem", "wrist", "armhole")  # at which neighbour a seam may be let out or taken in


@dataclass(frozen=True)
class Mended:
    """A block after mending, and what was changed."""

    block: Block
    changes: tuple[Saying, ...] = ()


def equalise(block: Block) -> Mended:
    """Let out or take in the second side of every seam that differs by more than it may."""
    changes: list[Saying] = []
    for seam in block.seams:
        off = _off(block, seam)
        if abs(off) > SEAM_TRUE:
            ref = seam.second[-1]
            piece = block.piece(ref.piece)
            mended, where = _longer(piece, ref.edge, off)
            block = _with_piece(block, mended)
            way = "let out" if off > 0 else "taken in"
            changes.append(say(f"{seam.title}: the {piece.name} is {way} by {{0u}} at the {where}.", abs(off)))
    return Mended(block, tuple(changes))


def _off(block: Block, seam: Seam) -> float:
    """How much longer the second side should be, cm."""
    over = block.length_of(seam.first) - block.length_of(seam.second)
    least, most = seam.ease
    return over - most if over > most else over - least if over < least else 0.0


def _longer(piece: Piece, name: str, by: float) -> tuple[Piece, str]:
    """A piece with one of its edges longer by so much, at the end where it may be, and the name of the edge that follows there."""
    ring = list(piece.edges)
    at = next(i for i, edge in enumerate(ring) if edge.name == name)
    before, after = (at - 1) % len(ring), (at + 1) % len(ring)
    at_end = _rank(ring[after].name) <= _rank(ring[before].name)
    edge = ring[at]
    want, last = edge.length + by, edge.parts[-1].arriving.unit() if at_end else -edge.parts[0].leaving.unit()
    neighbour, shift = after if at_end else before, Point(0.0, 0.0)
    made = edge
    for _ in range(6):
        shift = shift + last * (want - made.length)
        made = _shifted(edge, shift, at_end=at_end)
    ring[at] = made
    ring[neighbour] = _shifted(ring[neighbour], shift, at_end=not at_end)
    return replace(piece, edges=tuple(ring)), ring[neighbour].name


def _rank(name: str) -> int:
    return FREE_ENDS.index(name) if name in FREE_ENDS else len(FREE_ENDS)


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


def square(block: Block) -> Mended:
    """Draw waist, hem and neck again where they meet a centre line, square over the first centimetre."""
    changes: list[Saying] = []
    for piece in block.pieces:
        if not piece.centre:
            continue
        ring = list(piece.edges)
        at = next(i for i, edge in enumerate(ring) if edge.name == piece.centre)
        ways = ring[at].parts[0].leaving, ring[at].parts[-1].arriving
        for index, at_end, down in (((at - 1) % len(ring), True, ways[0]), ((at + 1) % len(ring), False, ways[1])):
            edge = ring[index]
            if edge.pointed:
                continue
            made = _squared(edge, down.square(), at_end=at_end)
            if made is not None:
                ring[index] = made
                changes.append(
                    say(
                        f"The {piece.name} {edge.name} leaves its centre squarely now, {{0s}} in length.",
                        made.length - edge.length,
                    )
                )
        block = _with_piece(block, replace(piece, edges=tuple(ring)))
    return Mended(block, tuple(changes))


def _squared(edge: Edge, out: Point, *, at_end: bool) -> Edge | None:
    """The edge leaving the centre straight for a centimetre, then as it ran; None where it is square already, or too short."""
    part = edge.parts[-1].reverse() if at_end else edge.parts[0]
    first = part.segments[0]
    if abs(angle_between(part.place(SQUARE).point - part.start, out) - 90) > 90 - CORNER_TRUE:
        return None
    way = out if out.dot(part.end - part.start) > 0 else -out
    if first.length < 2.5 * SQUARE:
        return None
    knee = part.start + way * SQUARE
    path = Path((Line(part.start, knee), curve_between(knee, way, first.end, first.direction(1.0)), *part.segments[1:]))
    parts = list(edge.parts)
    parts[-1 if at_end else 0] = path.reverse() if at_end else path
    return replace(edge, parts=tuple(parts))


def press_to_side(block: Block) -> Mended:
    """Draw the mouths of the waist darts again, for pressing them to the side instead of to the centre."""
    count = 0
    for piece in block.pieces:
        edges = []
        for edge in piece.edges:
            darts = []
            for number, dart in enumerate(edge.darts):
                if edge.name != "waist":
                    darts.append(dart)
                    continue
                count += 1
                cap = dart_cap(edge.parts[number + 1].reverse(), dart.point, dart.outer, dart.inner)
                darts.append(dart if cap is None else replace(dart, cap=cap.reverse()))
            edges.append(replace(edge, darts=tuple(darts)))
        block = _with_piece(block, replace(piece, edges=tuple(edges)))
    words = "The mouth of the waist dart is" if count == 1 else f"The mouths of {count} waist darts are"
    return Mended(block, (say(f"{words} drawn for pressing to the side."),) if count else ())


def _with_piece(block: Block, piece: Piece) -> Block:
    return replace(block, pieces=tuple(piece if old.name == piece.name else old for old in block.pieces))
