"""Checks of whole garments: getting in, room to sit in the length, clear of the floor."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.pattern.block import OPENING_WORDS, Block
from widehem.core.pattern.check import FINE, Check, Verdict, checker, verdict_on
from widehem.core.units import say

SEAT_LEAST = 5.0  # cm in the length of a closed suit
FLOOR_LEAST = 2.0


@checker
def reach(block: Block) -> Iterator[Check]:
    """The opening reaches far enough down from the neck to get in."""
    if block.reach is None:
        return
    at = block.opening.at if block.opening is not None else "none"
    length = block.opening.length if block.opening is not None and at != "none" else 0.0
    spare = length - block.reach
    verdict: Verdict = "true" if spare >= -0.05 else "not"
    words = say(f"{{0}} {OPENING_WORDS[at]}, wanted {{1}}", length, block.reach) if length else say("none")
    if verdict == "true":
        tail = say("The wearer gets in.")
    elif length:
        tail = say("The wearer does not get in: open it {0u} further.", -spare)
    else:
        tail = say("The wearer cannot get in: open the centre back or front from the neck, {0u} at least.", block.reach)
    spots = tuple(
        f"{piece.name}.{piece.centre}" for piece in block.pieces if piece.centre and (at == "none" or piece.centre == at)
    )
    yield Check(
        "opening.reach",
        "movement",
        "Opening to get in",
        verdict,
        "signed",
        spare,
        0.0,
        words,
        words.stopped + tail,
        spots,
        "spare",
    )


@checker
def seat(block: Block) -> Iterator[Check]:
    """A suit closed from neck to fork is long enough to sit and to reach up in."""
    if block.seat is None:
        return
    spare = block.seat - SEAT_LEAST
    verdict = verdict_on(-spare, 0.0, 1.0)
    words = say("{0} in the length", block.seat)
    tail = (
        say("To sit and to reach.")
        if verdict == "true"
        else say("Sitting and reaching need {0u}: give more at the waist.", SEAT_LEAST)
    )
    yield Check(
        "seat.length", "movement", "Room to sit", verdict, "signed", spare, 0.0, words, words.stopped + tail,
        tuple(f"{piece.name}.{piece.centre}" for piece in block.pieces if piece.centre), "spare",
    )  # fmt: skip


@checker
def clears(block: Block) -> Iterator[Check]:
    """A long hem keeps off the floor."""
    if block.clears is None:
        return
    verdict: Verdict = "true" if block.clears >= FLOOR_LEAST - FINE else "look"
    words = say("{0} above the floor", block.clears)
    tail = (
        say("It clears the floor.")
        if verdict == "true"
        else say("On stairs and for dancers keep {0} to {1u} clear of the floor, or give it a wrist loop.", FLOOR_LEAST, 4.0)
    )
    spots = tuple(f"{piece.name}.{edge.name}" for piece in block.pieces for edge in piece.edges if edge.kind == "hem")
    yield Check(
        "floor.clear",
        "movement",
        "Hem off the floor",
        verdict,
        "length",
        block.clears,
        FLOOR_LEAST,
        words,
        words.stopped + tail,
        spots,
        "clear",
    )
