"""What must pass the hem of a limb: the foot and the hand."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.pattern.check import ANY, Case, Check, Demand, answers
from widehem.core.units import say
from widehem.core.values import record


@record(frozen=True)
class FootPasses(Demand):
    """What must pass the hem of a leg, cm."""

    foot: float


@record(frozen=True)
class HandPasses(Demand):
    """The girth of the closed hand that must pass the hem of a sleeve, cm."""

    hand: float


@answers(FootPasses)
def foot(case: Case, asked: FootPasses) -> Iterator[Check]:
    """The foot passes the hem."""
    mend = "widen the hem, or leave an opening of {0u} in the side.", 10.0
    yield from _passes(case, "foot", "hem", case.garment.round_of("hem", limb=True), asked.foot, mend)


@answers(HandPasses)
def hand(case: Case, asked: HandPasses) -> Iterator[Check]:
    """The closed hand passes the hem of a sleeve, stretched as far as its cloth gives."""
    girth = case.garment.round_of("wrist", limb=True) * (1 + case.wear.stretch / 100 if case.wear.knit else 1)
    if girth:
        mend = "widen the hem, or leave an opening of {0u}.", 8.0
        yield from _passes(case, "hand", "wrist", girth, asked.hand, mend)


def _passes(case: Case, what: str, role: str, girth: float, wanted: float, mend: tuple[str, float]) -> Iterator[Check]:
    """Whether something passes the hem of this role. girth, wanted: round both, cm. mend: what to do, and its figure, cm."""
    spare = girth - wanted
    words = say(f"{{0}} on {what} {{1}}", girth, wanted)
    tail = say(f"The {what} passes.") if spare >= -1e-6 else say(f"The {what} does not pass: {mend[0]}", mend[1])
    spots = tuple(f"{piece.name}.{edge.name}" for piece, edge in case.garment.edges_of(role))
    yield Check(
        f"{what}.passes", "movement", f"{what.capitalize()} through the hem", "signed", spare, 0.0, None, ANY, words,
        words.stopped + tail, spots, "spare",
    )  # fmt: skip
