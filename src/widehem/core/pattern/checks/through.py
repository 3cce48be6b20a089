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


@record(frozen=True)
class ArmPasses(Demand):
    """The girth of the arm at the hem of a sleeve, and the room round it, cm."""

    girth: float
    room: float


@record(frozen=True)
class ElbowBends(Demand):
    """A bent elbow in a sleeve: how far below the bicep line it lies, its girth, and the room round it, cm."""

    piece: str
    down: float
    girth: float
    room: float


@answers(ArmPasses)
def arm(case: Case, asked: ArmPasses) -> Iterator[Check]:
    """The arm has room in the hem of a sleeve, whatever its length."""
    girth = case.garment.round_of("wrist", limb=True)
    if girth:
        spots = tuple(f"{piece.name}.{edge.name}" for piece, edge in case.garment.edges_of("wrist"))
        mend = "widen the hem, or leave the hem width to the length"
        yield _round(case, ("arm.hem", "Arm in the hem", "arm", mend), girth, asked.girth, asked.room, spots)


@answers(ElbowBends)
def elbow(case: Case, asked: ElbowBends) -> Iterator[Check]:
    """The bent elbow has room in a sleeve that reaches it."""
    found = [piece for piece in case.garment.shell if asked.piece in (piece.name, piece.of) and piece.level("bicep")]
    girth = sum(piece.weight(limb=True) * piece.across("bicep", asked.down) for piece in found)
    if girth:
        mend = "give the upper arm more ease, or a wider hem"
        yield _round(case, ("elbow.bends", "Elbow bent", "elbow", mend), girth, asked.girth, asked.room, ("@bicep",))


def _round(
    case: Case, what: tuple[str, str, str, str], girth: float, body: float, room: float, spots: tuple[str, ...]
) -> Check:
    """Room of a sleeve round a part of the arm. what: code, title, the part in words, and what mends it."""
    code, title, part, mend = what
    if case.wear.knit:
        girth, room = girth * (1 + case.wear.stretch / 100), 0.0
    words = say(f"{{0}} on {part} {{1}}", girth, body)
    tail = say("It has room.") if girth - body >= room - 1e-6 else say(f"It wants {{0u}} round the {part}: {mend}.", room)
    return Check(code, "movement", title, "signed", girth - body, room, None, room, words, words.stopped + tail, spots, "room")


@answers(FootPasses)
def foot(case: Case, asked: FootPasses) -> Iterator[Check]:
    """The foot passes the hem, stretched as far as its cloth gives."""
    mend = "widen the hem, or leave an opening of {0u} in the side.", 10.0
    girth = case.garment.round_of("hem", limb=True) * (1 + case.wear.stretch / 100 if case.wear.knit else 1)
    yield from _passes(case, "foot", "hem", girth, asked.foot, mend)


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
