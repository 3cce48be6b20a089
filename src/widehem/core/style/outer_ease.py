"""More room for what is worn over other things: shoulder tip and side further out, the underarm lower."""

from __future__ import annotations

from dataclasses import replace

from fontTools.misc.transform import Transform

from widehem.core.geometry.points import Point
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.upper import ArmholeOn
from widehem.core.pattern.edge import Edge, PatternError
from widehem.core.pattern.garment import EdgeRef
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import plain
from widehem.core.pattern.shaping import corners_kept, edge_blended, trimmed
from widehem.core.setting.option import Option
from widehem.core.style.asks import Asks, all_of, more_at, notches_left
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import say

LEVELS = ("bust", "waist", "high_hip", "hip")
OPTIONS = (
    Option("tip", "Shoulder tip out", "length", 0.6, "along the shoulder", 0.0, 4.0, 0.1),
    Option("side", "Side out", "length", 0.6, "on each piece, from the underarm to the hem", 0.0, 4.0, 0.1),
    Option("down", "Underarm down", "length", 1.3, "along the side; the sleeve then wants drawing again", 0.0, 8.0, 0.1),
)  # fmt: skip


@operation(
    "ease.outer", "ease", "Outer ease", "room for a garment that goes over others: tip and side out, underarm down", options=OPTIONS,
)  # fmt: skip
def outer_ease(job: Job) -> Change:
    """Move shoulder tip, side and underarm of every piece with an armhole; what lies between follows."""
    tip, side, down = (job.length(code) for code in ("tip", "side", "down"))
    if not any(True for _ in job.garment.edges_of("armhole")):
        raise CannotStyle(say("Nothing of this garment has an armhole: outer ease is for what hangs from the shoulder."))
    pieces, widened = [], 0
    for piece in job.garment.pieces:
        if piece.layer != "shell" or not piece.edges_of("armhole"):
            pieces.append(piece)
            continue
        try:
            pieces.append(_wider(piece, tip, side, down))
        except PatternError:
            long = min(edge.length for edge in piece.edges_of("side"))
            raise CannotStyle(
                say(f"The side of the {plain(piece.name)} is {{0}} long: lower the underarm by {{1u}} at most.", long, long - 2.0)
            ) from None
        widened += piece.weight() if piece.edges_of("side") else 0
    moved = [EdgeRef(piece.name, edge.name) for piece, edge in job.garment.edges_of("side", "armhole")]
    asks = all_of(more_at({level: widened * side for level in LEVELS}), _deeper(2 * down), notches_left(*moved))
    words = "Tip out by {0}, sides by {1}, underarm down by {2}: a sleeve drawn before does not fit this armhole."
    return Change(tuple(pieces), said=(say(words, tip, side, down),), asks=asks)


def _deeper(by: float) -> Asks:
    """An armhole that may be as much longer on the arm."""

    def asks(demands: tuple[Demand, ...]) -> tuple[Demand, ...]:
        return tuple(replace(d, most=d.most + by * 1.5) if isinstance(d, ArmholeOn) else d for d in demands)

    return asks


def _wider(piece: Piece, tip: float, side: float, down: float) -> Piece:
    """A piece with its tip, side and underarm moved, and the edges between them drawn to where they are now."""
    moves: dict[Point, Point] = {}
    cut: dict[str, Edge] = {}
    marks = dict(piece.marks)
    lower = 0.0
    for edge, after in piece.corners():
        roles = {edge.role, after.role}
        if roles == {"armhole", "shoulder"}:
            shoulder = edge if edge.role == "shoulder" else after
            way = shoulder.arriving if shoulder is edge else -shoulder.leaving
            moves[edge.end] = way.unit() * tip
            _mark(marks, "tip", edge.end, moves[edge.end])
        elif "side" in roles:
            seam = edge if edge.role == "side" else after
            under = "armhole" in roles
            new = cut.get(seam.name, seam)
            if under:
                new = trimmed(new, at_end=down) if seam is edge else trimmed(new, at_start=down)
            cut[seam.name] = new
            corner = new.end if seam is edge else new.start
            moves[edge.end] = corner - edge.end + _out(piece, seam) * side
            if under:
                lower = corner.y - edge.end.y
                _mark(marks, "underarm", edge.end, moves[edge.end])
    none = Point(0.0, 0.0)
    made: list[Edge] = []
    for edge in piece.edges:
        start, end = (moves.get(spot, none) for spot in (edge.start, edge.end))
        if edge.name in cut:
            made.append(cut[edge.name].moved(Transform().translate(*(_out(piece, edge) * side))))
        else:
            made.append(edge if start == end == none else edge_blended(edge, start, end))
    under = [edge.end.y for edge, after in piece.corners() if {edge.role, after.role} == {"armhole", "side"}]
    levels = tuple(_lowered(line, lower) if _at_underarm(line, under) else line for line in piece.balance)
    whole = replace(piece, edges=tuple(made), marks=marks, balance=levels)
    return corners_kept(piece, whole, *(edge.name for edge in piece.edges_of("armhole")))


def _at_underarm(line: BalanceLine, under: list[float]) -> bool:
    return line.level == "bust" and any(abs(line.height - y) < 2.0 for y in under)


def _lowered(line: BalanceLine, by: float) -> BalanceLine:
    """A bust level that lay at the underarm and lies there again."""
    down = Point(0.0, by)
    return replace(line, lines=tuple((a + down, b + down) for a, b in line.lines))


def _out(piece: Piece, side: Edge) -> Point:
    """Level, away from the middle, at a side."""
    x = piece.outward(side.end - side.start).x
    return Point(1.0 if x > 0 else -1.0, 0.0)


def _mark(marks: dict[str, Point], name: str, corner: Point, by: Point) -> None:
    if name in marks and marks[name].to(corner) < 0.05:
        marks[name] = marks[name] + by
