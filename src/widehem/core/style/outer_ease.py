"""More room for what is worn over other things: shoulder tip and side further out, the underarm lower."""

from __future__ import annotations

from fontTools.misc.transform import Transform

from widehem.core.geometry.points import Point
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.upper import ArmholeOn
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import EdgeRef
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import plain
from widehem.core.pattern.shaping import corners_kept, edge_blended, trimmed
from widehem.core.setting.option import Option
from widehem.core.style.asks import Asks, all_of, more_at, notches_left
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import say
from widehem.core.values import replace

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
    pieces, widened, narrower = [], 0, 0.0
    for piece in job.garment.pieces:
        if piece.layer != "shell" or not piece.edges_of("armhole"):
            pieces.append(piece)
            continue
        long = min((edge.length for edge in piece.edges_of("side")), default=down + 3.0)
        if long < down + 2.0:
            raise CannotStyle(
                say(
                    f"The side of the {plain(piece.name)} is {{0}} long: lower the underarm by {{1u}} at most.",
                    long,
                    long - 2.0,
                ),
                ("down",),
            )
        pieces.append(_wider(piece, tip, side, down))
        widened += piece.weight() if piece.edges_of("side") else 0
        if (line := pieces[-1].level("bust")) is not None:  # as the piece was, where it is measured now
            there = piece.with_on_it(balance=(line,)).across("bust")
            narrower += piece.weight() * (there - piece.across("bust"))
    moved = [EdgeRef(piece.name, edge.name) for piece, edge in job.garment.edges_of("side", "armhole")]
    more = dict.fromkeys(LEVELS, widened * side)
    more["bust"] += narrower  # where it is measured now, the sides lean in
    asks = all_of(more_at(more), _deeper(2 * down), notches_left(*moved))
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
    lower: Point | None = None
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
                lower = corner
                _mark(marks, "underarm", edge.end, moves[edge.end])
    none = Point(0.0, 0.0)
    made: list[Edge] = []
    for number, edge in enumerate(piece.edges):
        start, end = (moves.get(spot, none) for spot in (piece.edges[number - 1].end, edge.end))
        if edge.name in cut:
            made.append(cut[edge.name].moved(Transform().translate(*(_out(piece, edge) * side))))
        else:
            made.append(edge if start == end == none else edge_blended(edge, start, end))
    levels = tuple(_lowered(piece, line, lower) if lower and _at_underarm(piece, line) else line for line in piece.balance)
    whole = replace(piece, edges=tuple(made), marks=marks, balance=levels)
    return corners_kept(piece, whole, *(edge.name for edge in piece.edges_of("armhole")))


def _at_underarm(piece: Piece, line: BalanceLine) -> bool:
    """Whether a level runs to the underarm."""
    a, b = line.lines[-1]
    corners = [edge.end for edge, after in piece.corners() if {edge.role, after.role} == {"armhole", "side"}]
    return line.level == "bust" and any(abs((b - a).unit().cross(corner - a)) < 2.0 for corner in corners)


def _lowered(piece: Piece, line: BalanceLine, corner: Point) -> BalanceLine:
    """A bust level that lay at the underarm and lies there again: each of its parts as much lower."""
    a, b = line.lines[-1]
    down = (b - a).unit().square()
    by = down.dot(corner - a)
    found = []
    for one, two in line.lines:
        shift = (two - one).unit().square() * by
        found.append((one + shift, two + shift))
    return replace(line, lines=tuple(found))


def _out(piece: Piece, side: Edge) -> Point:
    """Away from the middle, at a side: along the bust level, which a side that was turned has with it; else level."""
    x = piece.outward(side.end - side.start).x
    line = piece.level("bust")
    if line is None or len(line.lines) == 1:
        return Point(1.0 if x > 0 else -1.0, 0.0)
    a, b = line.lines[-1]
    way = (b - a).unit()
    return way if (way.x > 0) == (x > 0) else -way


def _mark(marks: dict[str, Point], name: str, corner: Point, by: Point) -> None:
    if name in marks and marks[name].to(corner) < 0.05:
        marks[name] = marks[name] + by
