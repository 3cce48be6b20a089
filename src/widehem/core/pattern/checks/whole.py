"""Checks of whole garments: getting in, room to sit in the length, clear of the floor."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.pattern.check import ANY, Case, Check, Demand, answers
from widehem.core.pattern.checks.upper import spots_of
from widehem.core.pattern.garment import OPENING_WORDS, EdgeRef
from widehem.core.pattern.places import on_one_side
from widehem.core.units import say
from widehem.core.values import record

SEAT_LEAST = 5.0  # cm in the length of a closed suit
FLOOR_LEAST = 2.0
REACH_SLACK = 0.05


@record(frozen=True)
class OpensTo(Demand):
    """How far down from the neck an opening must reach to get in, cm."""

    least: float


@answers(OpensTo)
def reach(case: Case, asked: OpensTo) -> Iterator[Check]:
    """The opening reaches far enough down from the neck to get in."""
    garment = case.garment
    at = garment.opening()
    length = at.length if at is not None else 0.0
    least = asked.least - REACH_SLACK
    spare = length - least
    words = say(f"{{0}} {OPENING_WORDS[at.at]}, wanted {{1}}", length, least) if at is not None and length else say("none")
    if spare >= -1e-6:
        tail = say("The wearer gets in.")
    elif length:
        tail = say("The wearer does not get in: open it {0u} further.", -spare)
    else:
        tail = say("The wearer cannot get in: open the centre back or front from the neck, {0u} at least.", least)
    roles = (at.at,) if at is not None else ("centre_front", "centre_back")
    spots = tuple(f"{piece.name}.{edge.name}" for piece, edge in garment.edges_of(*roles))
    yield Check(
        "opening.reach",
        "movement",
        "Opening to get in",
        "signed",
        spare,
        0.0,
        None,
        0.0,
        words,
        words.stopped + tail,
        spots,
        "spare",
    )


@record(frozen=True)
class SitsAndReaches(Demand):
    """A suit closed from neck to fork.

    body: the length of the body from neck to neck between the legs, cm, as bodice and trousers have it. around: the edges
    of the draft that run there.
    """

    body: float
    around: tuple[EdgeRef, ...]


@answers(SitsAndReaches)
def seat(case: Case, asked: SitsAndReaches) -> Iterator[Check]:
    """A suit closed from neck to fork is long enough to sit and to reach up in."""
    chain = tuple(entry for ref in asked.around for entry in on_one_side(case.garment, ref))
    spare = case.garment.length_of(chain) - asked.body
    words = say("{0} in the length", spare)
    tail = (
        say("To sit and to reach.")
        if spare >= SEAT_LEAST - 1e-6
        else say("Sitting and reaching need {0u}: give more at the waist.", SEAT_LEAST)
    )
    yield Check(
        "seat.length",
        "movement",
        "Room to sit",
        "length",
        spare,
        SEAT_LEAST,
        None,
        1.0,
        words,
        words.stopped + tail,
        spots_of(chain),
        "spare",
    )


@record(frozen=True)
class FloorClear(Demand):
    """How high the waist lies above the floor, cm: a long hem keeps off it."""

    floor: float


@answers(FloorClear)
def clears(case: Case, asked: FloorClear) -> Iterator[Check]:
    """A long hem keeps off the floor."""
    above = above_floor(case, asked)
    if above is None:
        return
    words = say("{0} above the floor", above)
    tail = (
        say("It clears the floor.")
        if above >= FLOOR_LEAST - 1e-6
        else say("On stairs and for dancers keep {0} to {1u} clear of the floor, or give it a wrist loop.", FLOOR_LEAST, 4.0)
    )
    spots = tuple(f"{piece.name}.{edge.name}" for piece, edge in case.garment.edges_of("hem"))
    yield Check(
        "floor.clear",
        "movement",
        "Hem off the floor",
        "length",
        above,
        FLOOR_LEAST,
        None,
        ANY,
        words,
        words.stopped + tail,
        spots,
        "clear",
    )


def above_floor(case: Case, asked: FloorClear) -> float | None:
    """How far the lowest place of the hems ends above the floor, measured from the waist level of each piece, cm."""
    depths = []
    for piece, edge in case.garment.edges_of("hem"):
        line = piece.level("waist")
        if line is not None:
            at, way = line.straight
            depths += [abs(way.cross(point - at)) for part in edge.parts for point in part.flat(0.05)]
    return asked.floor - max(depths) if depths else None
