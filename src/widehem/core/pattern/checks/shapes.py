"""Checks of shapes: level hems, straight folds, outlines."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.geometry.points import Point
from widehem.core.pattern.check import SEAM_LOOK, Case, Check, Demand, checker
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import plain
from widehem.core.units import say
from widehem.core.values import record

EDGE_LEAST = 0.3
FOLD_TRUE = 0.05
ACROSS = ("panel",)  # what a hem passes on its way from the middle to the side
LEVELS = ("knee", "thigh", "hip", "waist", "bust")  # below which a hem is measured: the lowest that all its pieces have


@record(frozen=True)
class HemRises(Demand):
    """A hem that rises to the sides on purpose, by so much, cm; free: only its sides end at one height, front and back."""

    by: float
    free: bool = False


def outer_ends(piece: Piece, hem: Edge) -> list[tuple[Point, str]]:
    """The ends of a hem with the role of what it meets there; those at a panel are left out: there it bends with the shape of
    its panels, and is held as long as its neighbour by the seam."""
    before, after = piece.beside(hem.name)
    ends = ((hem.start, before.role), (hem.end, after.role))
    return [(point, role) for point, role in ends if role not in ACROSS]


def _nearest(line: BalanceLine, spot: Point) -> tuple[Point, Point]:
    """The end of a level that lies nearest to a place."""
    first, last = line.lines[0], line.lines[-1]
    return first if first[0].to(spot) <= last[0].to(spot) else last


@checker("hem.level")
def level_hem(case: Case) -> Iterator[Check]:
    """Front, back and sides end at one height below a level that they share."""
    hems = [(piece, edge) for piece, edge in case.garment.edges_of("hem") if edge.kind in ("hem", "faced") and piece.balance]
    shared = [level for level in LEVELS if all(piece.level(level) for piece, _ in hems)]
    if not hems or not shared:
        return
    rise = case.asked(HemRises)
    asked = rise.by if rise is not None else 0.0
    inner: list[float] = []
    outer: list[float] = []
    for piece, edge in hems:
        line = piece.level(shared[0])
        assert line is not None
        for point, role in outer_ends(piece, edge):
            out = role in ("side", "vent")
            a, b = _nearest(line, point)  # one that was turned with its side
            (outer if out else inner).append(abs((b - a).unit().cross(point - a)))
    if not inner and not outer:
        return
    depths = [*inner, *(depth + asked for depth in outer)]
    limit = case.limits.seam
    if rise is not None and rise.free:  # its sides are as long as each other, and may lean differently
        depths, limit = outer or inner[:1], SEAM_LOOK
    off = max(depths) - min(depths)
    tail = (
        ("Rises to the sides alike, front and back." if rise is not None else "Front, back and sides end level.")
        if off <= limit + 1e-6
        else "The hem hangs unevenly: true it with the seams joined."
    )
    yield Check(
        "hem.level", "shapes", "Hem level", "length", off, None, limit, SEAM_LOOK - case.limits.seam,
            say("front, back and sides"), say(tail),
        tuple(f"{piece.name}.{edge.name}" for piece, edge in hems), "apart",
    )  # fmt: skip


@checker("fold.straight")
def straight_folds(case: Case) -> Iterator[Check]:
    """An edge on the fold is straight, or the piece cannot be opened out."""
    folds = [(piece, edge) for piece in case.garment.pieces for edge in piece.edges if edge.kind == "fold"]
    if not folds:
        return
    found = [(_off_chord(edge), piece, edge) for piece, edge in folds]
    worst, piece, edge = max(found, key=lambda entry: entry[0])
    tail = "Straight." if worst <= FOLD_TRUE + 1e-6 else f"The {plain(edge.name)} of the {plain(piece.name)} is not straight."
    yield Check(
        "fold.straight", "shapes", "Folds straight", "length", worst, None, FOLD_TRUE, 0.0, say("off the straight"), say(tail),
        tuple(f"{p.name}.{e.name}" for _, p, e in found), "off",
    )  # fmt: skip


def _off_chord(edge: Edge) -> float:
    way = (edge.end - edge.start).unit()
    return max(abs(way.cross(point - edge.start)) for part in edge.parts for point in part.flat(0.05))


@checker("outline")
def outlines(case: Case) -> Iterator[Check]:
    """Every outline is closed and does not cross itself, and no edge is too short to sew."""
    bad = [piece for piece in case.garment.pieces if not piece.simple]
    short = [(piece, edge) for piece in case.garment.pieces for edge in piece.edges if edge.length < EDGE_LEAST]
    if bad:
        tail = say(f"The outline of the {plain(bad[0].name)} crosses itself: look at its measures again.")
    elif short:
        piece, edge = short[0]
        tail = say(
            f"The {plain(edge.name)} of the {plain(piece.name)} is {{0}} long, under {{1u}}: it cannot be sewn.",
            edge.length,
            EDGE_LEAST,
        )
    else:
        tail = say("Closed, none crosses itself, and every edge can be sewn.")
    spots = [f"{piece.name}.{edge.name}" for piece in bad for edge in piece.edges] + [f"{p.name}.{e.name}" for p, e in short]
    yield Check(
        "outline", "shapes", "Outlines", "count", len(bad) + len(short), None, 0, 0.0, say("crossing, or edges too short"),
            tail, tuple(spots), "",
    )  # fmt: skip
