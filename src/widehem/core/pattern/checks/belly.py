"""Checks of bellies: the front as wide as the front of the body, the side upright over it."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.pattern.check import Case, Check, Demand, answers
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import plain
from widehem.core.units import say
from widehem.core.values import record

ARC_TRUE, ARC_LOOK = 0.3, 1.0  # cm, of the whole front


@record(frozen=True)
class FrontArc(Demand):
    """How wide the front of a garment is to be, cm whole: name and title of the level; of: the piece of the draft; edge: the
    role of the edges whose sewn length it is, '' across the piece at its level of that name; body: the arc as read; ease."""

    name: str
    title: str
    of: str
    body: float
    ease: float
    edge: str = ""


def front_drawn(case: Case, asked: FrontArc) -> tuple[float, tuple[str, ...]]:
    """How wide a front is drawn, cm whole, and what to light; 0 where it has no such level."""
    mine = [piece for piece in case.garment.shell if asked.of in (piece.name, piece.of)]
    if asked.edge:
        found = [(piece, edge) for piece in mine for edge in piece.edges if edge.role == asked.edge]
        drawn = sum(piece.weight() * edge.length for piece, edge in found)
        spots = tuple(f"{piece.name}.{edge.name}" for piece, edge in found)
    else:
        drawn = sum(piece.weight() * piece.across(asked.name) for piece in mine)
        spots = (f"@{asked.name}",)
    return drawn, spots


@answers(FrontArc)
def front_arc(case: Case, asked: FrontArc) -> Iterator[Check]:
    """The front is as wide as the front of the body with its part of the ease."""
    drawn, spots = front_drawn(case, asked)
    if not drawn:
        return
    off = drawn - asked.body - asked.ease
    words = say("{0} on an arc of {1}", drawn, asked.body)
    tail = (
        say("As wide as the body is in front, with {0s}.", asked.ease)
        if abs(off) <= ARC_TRUE
        else say("It should be {0}: the side seam lies {1u} off its place.", asked.body + asked.ease, abs(off) / 2)
    )
    yield Check(
        f"arc.{asked.name}", asked.name, f"Front, {asked.title.lower()}", "signed", drawn - asked.body, asked.ease - ARC_TRUE,
        asked.ease + ARC_TRUE, ARC_LOOK - ARC_TRUE, words, words.stopped + tail, spots, "ease",
    )  # fmt: skip


@record(frozen=True)
class SideUpright(Demand):
    """How far off plumb the side of a piece of the draft may lie between its waist and its level of the hip, cm."""

    of: str
    most: float


@answers(SideUpright)
def side_upright(case: Case, asked: SideUpright) -> Iterator[Check]:
    """Over a belly the side hangs plumb: what the belly takes lies at the centre."""
    for piece in case.garment.shell:
        if asked.of not in (piece.name, piece.of):
            continue
        lean = _lean(piece)
        if lean is None:
            continue
        off, spot = lean
        words = say(f"{plain(piece.name)} side {{0}} off plumb above the hip", off)
        tail = say("It hangs upright.") if off <= asked.most else say("The belly pulls the side forward: read the hip over it.")
        yield Check(
            "side.upright", "shapes", "Side upright", "length", off, None, asked.most, 2 * asked.most, words, words.stopped + tail,
            (spot,), "off plumb",
        )  # fmt: skip


def _lean(piece: Piece) -> tuple[float, str] | None:
    """How far the side lies off plumb between waist and hip, cm, and where it is."""
    if "hip" not in piece.levels:
        return None
    for edge in piece.edges:
        if edge.role != "side":
            continue
        spot = edge.at_level(piece.levels["hip"])
        if spot is None:
            continue
        hip = edge.place(spot).point
        top = min((edge.start, edge.end), key=lambda point: point.y)
        return abs(top.x - hip.x), f"{piece.name}.{edge.name}"
    return None
