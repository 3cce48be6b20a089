"""Cautions that belong to a garment: what can hurt whoever wears it. Local codes, house rules and licensed people decide."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from widehem.core.drafting.method import Draft
from widehem.core.units import Saying, say


@dataclass(frozen=True)
class Caution:
    """Something to be careful with: what it is about, in a word or two, and what to do."""

    about: str
    saying: Saying


Rule = Callable[[Draft], Iterator[Caution]]
_RULES: list[Rule] = []

FLOOR_NEAR = 4.0
HIGH_NECK = 2.0  # cm a neckline may be over the neck and still count as close to the throat


def rule(function: Rule) -> Rule:
    _RULES.append(function)
    return function


def cautions(draft: Draft) -> tuple[Caution, ...]:
    """Everything to be careful with about this garment, the most dangerous first."""
    return tuple(caution for function in _RULES for caution in function(draft))


@rule
def closed_suit(draft: Draft) -> Iterator[Caution]:
    """Heat in a closed suit."""
    if draft.block.seat is not None:
        yield Caution(
            "heat",
            say(
                "A closed suit is hot: plan water, breaks, cooling and wicking layers, and an opening that somebody can find fast. Nothing may cover a harness buckle; openings for one only by the licensed rigger."
            ),
        )


@rule
def laced(draft: Draft) -> Iterator[Caution]:
    """Tight lacing."""
    holes = any(piece.holes for piece in draft.block.pieces) and any(level.gap for level in draft.block.levels)
    tight = any(level.name == "waist" and level.planned <= 0.0 for level in draft.block.levels) and not draft.block.wear.knit
    if holes or tight:
        yield Caution(
            "tight lacing", say("Never lace to pain, faintness or numbness; it must open fast. Cap the tips of bones.")
        )


@rule
def throat(draft: Draft) -> Iterator[Caution]:
    """Anything close at the throat."""
    block = draft.block
    if block.neck is None:
        return
    collar = any(piece.name == "collar" for piece in block.pieces)
    necks = 2 * sum(edge.length for piece in block.pieces for edge in piece.edges if edge.name == "neck")
    child = draft.chart.table.young
    if not collar and not (child and necks <= block.neck + HIGH_NECK):
        return
    if child:
        yield Caution("the throat", say("On a child: no cords or ties at neck and hood; local rules decide."))
    else:
        yield Caution("the throat", say("Capes, ties and cords fastened at the collar must break away on stage."))


@rule
def floor(draft: Draft) -> Iterator[Caution]:
    """A hem near the floor."""
    clears = draft.block.clears
    if clears is None:
        length, down = draft.options.get("length"), draft.chart.get("waist_floor")
        if draft.method.group != "Skirts" or down is None or length is None or isinstance(length, str):
            return
        clears = down - float(length)
    if clears < FLOOR_NEAR:
        yield Caution("a long hem", say(
            "The hem ends {0} above the floor: on stairs and for dancers keep {1} to {2u} clear, or give it a wrist loop.",
            max(clears, 0.0), 2.0, FLOOR_NEAR,
        ))  # fmt: skip


@rule
def flame(draft: Draft) -> Iterator[Caution]:
    """Much cloth near flame."""
    hems = sum(edge.length for piece in draft.block.pieces for edge in piece.edges if edge.name == "hem")
    if draft.block.clears is not None and hems > 100:
        yield Caution(
            "flame",
            say("So much cloth near flame wants treated fabric and the proof the fire authority asks for; sheers are worst."),
        )
