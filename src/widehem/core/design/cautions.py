"""Cautions that belong to a garment: what can hurt whoever wears it. Local codes, house rules and licensed people decide."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from widehem.core.design.make import Made
from widehem.core.pattern.check import Case
from widehem.core.pattern.checks.upper import NeckOn
from widehem.core.pattern.checks.whole import FloorClear, SitsAndReaches, above_floor
from widehem.core.setting.registry import Registry
from widehem.core.units import Saying, say
from widehem.core.values import record


@record(frozen=True)
class Caution:
    """Something to be careful with: what it is about, in a word or two, and what to do."""

    about: str
    saying: Saying


Rule = Callable[[Made], Iterator[Caution]]
CAUTIONS: Registry[Rule] = Registry("caution")

FLOOR_NEAR = 4.0
MUCH_CLOTH = 100.0  # cm of hem, drawn once
HIGH_NECK = 2.0  # cm a neckline may be over the neck and still count as close to the throat


def caution(code: str) -> Callable[[Rule], Rule]:
    """Register a rule that says what to be careful with; they stand in the order of registration."""

    def register(function: Rule) -> Rule:
        return CAUTIONS.add(code, function)

    return register


def cautions(made: Made) -> tuple[Caution, ...]:
    """Everything to be careful with about this garment, the most dangerous first."""
    return tuple(found for rule in CAUTIONS.values() for found in rule(made))


@caution("heat")
def closed_suit(made: Made) -> Iterator[Caution]:
    """Heat in a closed suit."""
    if any(isinstance(demand, SitsAndReaches) for demand in made.demands):
        yield Caution(
            "heat",
            say(
                "A closed suit is hot: plan water, breaks, cooling and wicking layers, and an opening that somebody can find "
                "fast. Nothing may cover a harness buckle; openings for one only by the licensed rigger."
            ),
        )


@caution("lacing")
def laced(made: Made) -> Iterator[Caution]:
    """Tight lacing."""
    if any(piece.holes for piece in made.garment.pieces) and any(girth.gap for girth in made.girths):
        yield Caution(
            "tight lacing", say("Never lace to pain, faintness or numbness; it must open fast. Cap the tips of bones.")
        )


@caution("tight")
def tight(made: Made) -> Iterator[Caution]:
    """No ease where the body breathes and bends, in a cloth that does not give, and no lacing that could be let out."""
    close = any(girth.name == "waist" and girth.planned is not None and girth.planned <= 0.0 for girth in made.girths)
    laces = any(piece.holes for piece in made.garment.pieces)
    if close and not made.wear.knit and not laces:
        yield Caution(
            "a tight waist", say("Without ease it presses: never to pain or faintness, and whatever closes it must open fast.")
        )


@caution("throat")
def throat(made: Made) -> Iterator[Caution]:
    """Anything close at the throat."""
    neck = next((demand for demand in made.demands if isinstance(demand, NeckOn)), None)
    if neck is None:
        return
    collar = any(True for _ in made.garment.edges_of("collar"))
    child = made.chart.table.young
    if not collar and not (child and made.garment.round_of("neck") <= neck.neck + HIGH_NECK):
        return
    if child:
        yield Caution("the throat", say("On a child: no cords or ties at neck and hood; local rules decide."))
    else:
        yield Caution("the throat", say("Capes, ties and cords fastened at the collar must break away on stage."))


@caution("floor")
def floor(made: Made) -> Iterator[Caution]:
    """A hem near the floor."""
    asked = next((demand for demand in made.demands if isinstance(demand, FloorClear)), None)
    clears = above_floor(Case(made.garment), asked) if asked is not None else None
    if clears is None:
        return
    if clears < FLOOR_NEAR:
        yield Caution("a long hem", say(
            "The hem ends {0} above the floor: on stairs and for dancers keep {1} to {2u} clear, or give it a wrist loop.",
            max(clears, 0.0), 2.0, FLOOR_NEAR,
        ))  # fmt: skip


@caution("flame")
def flame(made: Made) -> Iterator[Caution]:
    """Much cloth near flame."""
    hems = sum(edge.length for _, edge in made.garment.edges_of("hem"))
    if hems > MUCH_CLOTH and any(isinstance(demand, FloorClear) for demand in made.demands):
        yield Caution(
            "flame",
            say("So much cloth near flame wants treated fabric and the proof the fire authority asks for; sheers are worst."),
        )
