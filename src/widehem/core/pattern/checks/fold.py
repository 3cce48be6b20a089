"""Checks of what is folded back: a lapel turns along its roll line, and shows its facing."""

from __future__ import annotations

from collections.abc import Iterator

from shapely import LineString
from shapely import Point as Spot

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.check import Case, Check, Demand, answers
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import ROLES, plain
from widehem.core.units import say
from widehem.core.values import record

LOOKS = 20  # places of a line at which it is looked at
ON_LINE = 0.1  # cm: so near to an edge the end of a line lies on it
FACED = 0.5  # cm that a facing reaches beyond what is turned at least


def line_of(piece: Piece, name: str) -> Path | None:
    """An inner line of a piece; None where it has none of that name."""
    return next((line.path for line in piece.lines if line.name == name), None)


def _piece(case: Case, name: str, line: str) -> Piece | None:
    """The piece, or what has become of it, that has this line."""
    return next((piece for piece in case.garment.shell if name in (piece.name, piece.of) and line_of(piece, line)), None)


def _spots(path: Path) -> list[Point]:
    return [path.place(path.length * i / LOOKS).point for i in range(LOOKS + 1)]


@record(frozen=True)
class RollsBetween(Demand):
    """A line along which a piece turns: the piece, the line, and the roles of the edges it begins at and ends at."""

    piece: str
    line: str
    begins: str
    ends: tuple[str, ...]


@answers(RollsBetween)
def rolls(case: Case, asked: RollsBetween) -> Iterator[Check]:
    """A roll line begins and ends on the edges it belongs to, and never leaves the cloth between."""
    piece = _piece(case, asked.piece, asked.line)
    path = line_of(piece, asked.line) if piece is not None else None
    if piece is None or path is None:
        return
    off = max(_off(piece, path.start, (asked.begins,)), _off(piece, path.end, asked.ends))
    outside = [spot for spot in _spots(path)[1:-1] if not piece.encloses(spot)]
    beyond = max((_off_outline(piece, spot) for spot in outside), default=0.0)
    where = " or ".join(ROLES[role].words for role in asked.ends)
    words = say("{0} off its edges", off)
    tail = say(f"It runs from the {ROLES[asked.begins].words} to the {where}, on cloth all the way.")
    if beyond > ON_LINE:
        tail = say(
            f"The {plain(asked.line)} of the {plain(piece.name)} leaves the cloth by {{0u}}: move the first button or the neck.",
            beyond,
        )
    elif off > ON_LINE:
        tail = say(f"The {plain(asked.line)} of the {plain(piece.name)} ends {{0u}} off its edges: draw it again.", off)
    yield Check(
        f"rolls.{asked.line}", "shapes", f"{plain(asked.line).capitalize()}", "length", max(off, beyond), None, ON_LINE, 0.0,
        say("{0} off the cloth", beyond) if beyond > max(off, ON_LINE) else words, tail, (f"{piece.name}.{asked.begins}",), "off",
    )  # fmt: skip


def _off_outline(piece: Piece, spot: Point) -> float:
    """How far a spot lies off the stitching line of a piece, cm."""
    return float(min(LineString(part.flat()).distance(Spot(spot)) for part in piece.ring))


def _off(piece: Piece, spot: Point, roles: tuple[str, ...]) -> float:
    """How far a spot lies off the nearest edge of these roles, cm."""
    edges = [part for edge in piece.edges_of(*roles) for part in edge.parts]
    return min((LineString(part.flat()).distance(Spot(spot)) for part in edges), default=99.0)


@record(frozen=True)
class Faced(Demand):
    """What turns along a line is covered by a facing: the piece, the line it turns along, and the line the facing reaches to."""

    piece: str
    turns: str
    facing: str


@answers(Faced)
def faced(case: Case, asked: Faced) -> Iterator[Check]:
    """A lapel lies within its facing, or its wrong side shows."""
    piece = _piece(case, asked.piece, asked.turns)
    turns, facing = (line_of(piece, name) if piece is not None else None for name in (asked.turns, asked.facing))
    if piece is None or turns is None or facing is None:
        return
    edge = next((edge.parts[0] for edge in piece.edges_of("front_edge")), None)
    reach = []
    for spot in _spots(turns):
        there, front = facing.at_level(spot.y), edge.at_level(spot.y) if edge is not None else None
        if there is not None:
            reach.append((there.x - spot.x) * (-1.0 if front is not None and front.x > there.x else 1.0))
    if not reach:
        return
    least = min(reach)
    words = say("{0} beyond the roll line", least)
    tail = say("The lapel lies within its facing.")
    if least < FACED - 1e-6:
        tail = say(
            "The facing must reach {0u} beyond the roll line, or the wrong side of the lapel shows: make it wider.", FACED
        )
    yield Check(
        f"faced.{asked.turns}", "shapes", "Lapel on its facing", "signed", least, FACED, None, 0.0, words, words.stopped + tail,
        (f"{piece.name}.front_edge",), "beyond",
    )  # fmt: skip
