"""Checks against the body: girths as planned and with their ease, lengths, getting in, walking."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.pattern.check import ANY, Case, Check, Demand, answers
from widehem.core.pattern.garment import OPENING_WORDS, EdgeRef, Garment
from widehem.core.pattern.places import apart, on_one_side
from widehem.core.pattern.wear import Wear
from widehem.core.units import Saying, say
from widehem.core.values import record


@record(frozen=True)
class Girth(Demand):
    """A girth that is held against the body.

    name: of the level. edge: the role of the edges whose sewn length it is; '' means across the pieces at their level of
    that name. body, least: body girth and least wearing ease, cm. planned: the ease that was asked for, None where none
    was. slack: how far the drawing may lie from the plan. limb: round one arm or leg. gap: what stands open under a lacing.
    wish: the ease its maker set, where the drawing cannot follow it and is planned otherwise; because: why, in words.
    """

    name: str
    title: str
    body: float
    planned: float | None
    least: float
    slack: float
    edge: str = ""
    limb: bool = False
    gap: float = 0.0
    wish: float | None = None
    because: str = ""

    def not_as_set(self) -> Saying | None:
        """What is said where another ease is planned than was set; None where they are one."""
        if self.wish is None or self.planned is None or abs(self.wish - self.planned) <= self.slack:
            return None
        return say(f"You set {{0s}}; drawn {{1s}}, because {self.because}.", self.wish, self.planned)


def finished(case: Case, asked: Girth) -> float:
    """The girth as drawn, darts sewn, cm."""
    if asked.edge:
        return case.garment.round_of(asked.edge, limb=asked.limb) + asked.gap
    return case.garment.girth(asked.name, limb=asked.limb) + asked.gap


def _spots(case: Case, asked: Girth) -> tuple[str, ...]:
    if asked.edge:
        return tuple(f"{piece.name}.{edge.name}" for piece, edge in case.garment.edges_of(asked.edge))
    return (f"@{asked.name}",)


@answers(Girth)
def girths(case: Case, asked: Girth) -> Iterator[Check]:
    """The finished girth: as it was planned, and with room for the body and what is worn underneath."""
    drawn = finished(case, asked)
    ease, title = drawn - asked.body, f"{asked.title} on the body"
    words, spots = say("{0} on {1}", drawn, asked.body), _spots(case, asked)
    if asked.planned is not None:
        out = abs(ease - asked.planned)
        tail = (
            say("Planned was {0s}: the drawing is {1u} out.", asked.planned, out)
            if out > asked.slack + 1e-6
            else asked.not_as_set() or say("Planned {0s}.", asked.planned)
        )
        yield Check(
            f"girth.{asked.name}", asked.name, title, "signed", ease, asked.planned - asked.slack,
                asked.planned + asked.slack, 0.0,
            words, words.stopped + tail, spots, "ease",
        )  # fmt: skip
    yield _room(case.wear, asked, ease if asked.planned is None else asked.planned, spots)


def _room(wear: Wear, asked: Girth, ease: float, spots: tuple[str, ...]) -> Check:
    """Whether the garment closes over the body and what is worn underneath, and with the ease its cloth wants."""
    under = wear.under(limb=asked.limb)
    least = wear.least(asked.body, asked.least, limb=asked.limb)
    smallest = wear.smallest(asked.body, limb=asked.limb) - asked.body - asked.slack
    whole = asked.body + ease
    if ease < smallest - 1e-6:
        if wear.knit:
            tail = say(
                f"It does not go on: stretched by all of its {wear.stretch:g} per cent it is {{0}}, and {{1u}} must go in.",
                whole * (1 + wear.stretch / 100), asked.body + under,
            )  # fmt: skip
        elif under:
            tail = say("It will not close over what is worn underneath: give at least {0s}.", least)
        else:
            tail = say("It has no ease and will not close: give at least {0u}.", least)
    elif ease < least - 1e-6:
        cloth = (
            f"a knit that gives {wear.stretch:g} per cent may go down to {{0s}}"
            if wear.knit
            else "woven cloth wants {0u} at least"
        )
        rest = "Give more, or take one that gives more." if wear.knit else "Give more, or keep it for a stay or a close band."
        tail = say(f"{cloth[:1].upper()}{cloth[1:]}. {rest}", least)
    else:
        tail = say("The least is {0s}.", least)
    if under:
        tail = say("What is worn underneath takes {0}.", under) + tail
    words = say("{0s} round {1}", ease, asked.body)
    return Check(
        f"room.{asked.name}", asked.name, f"Room at the {asked.title.lower()}", "signed", ease, least, None,
            max(least - smallest, 0.0),
        words, words.stopped + tail, spots, "ease",
    )  # fmt: skip


@record(frozen=True)
class Length(Demand):
    """A length that was asked for, cm: of what is left of these edges of the draft, or straight between two places on a piece.

    along: edges of the draft whose sewn lengths are added. piece, first, second: marks, levels ('@waist') or corners
    ('hem.end') of a piece; a level and a place are taken plumb.
    """

    name: str
    title: str
    wanted: float
    slack: float = 0.1
    along: tuple[EdgeRef, ...] = ()
    piece: str = ""
    first: str = ""
    second: str = ""


def length_drawn(garment: Garment, asked: Length) -> tuple[float, tuple[str, ...]] | None:
    """A length as it is drawn, cm, and what to light; None where it is not there any more."""
    if not asked.along:
        return apart(garment, asked.piece, asked.first, asked.second)
    chain = [entry for ref in asked.along for entry in on_one_side(garment, ref)]
    return (garment.length_of(chain), tuple(str(entry) for entry in chain)) if chain else None


@answers(Length)
def lengths(case: Case, asked: Length) -> Iterator[Check]:
    """What was asked for is what is drawn."""
    found = length_drawn(case.garment, asked)
    if found is None:
        return
    drawn, spots = found
    words = say("{0}, asked for {1}", drawn, asked.wanted)
    out = abs(drawn - asked.wanted)
    tail = say("As it was asked for.") if out <= asked.slack + 1e-6 else say("The drawing is {0u} out.", out)
    yield Check(
        f"length.{asked.name}", "body", asked.title, "length", drawn, asked.wanted - asked.slack, asked.wanted + asked.slack,
            asked.slack,
        words, words.stopped + tail, spots, "long",
    )  # fmt: skip


@record(frozen=True)
class BodyPasses(Demand):
    """The part of the body that must get through the closed part of a garment that hangs from its waist, and its girth, cm."""

    name: str
    girth: float


@answers(BodyPasses)
def opening(case: Case, asked: BodyPasses) -> Iterator[Check]:
    """The body passes the closed part of the garment when it is put on."""
    garment, name, body = case.garment, asked.name, asked.girth
    at = garment.opening()
    gives = 1 + case.wear.stretch / 100 if case.wear.knit else 1.0
    waist = garment.round_of("waist") * gives
    if waist >= body:
        girth, brief = waist, say(f"the waist passes the {name}s")
        how = f", stretched by {case.wear.stretch:g} per cent," if case.wear.knit else ""
        tail = say(f"Waist {{0}}{how} passes {name} {{1u}}: no opening is needed.", waist, body)
    else:
        down = at.length if at is not None else 0.0
        where = OPENING_WORDS[at.at if at is not None else "none"]
        girth = garment.girth("waist", below=down) * gives if down else waist
        brief = say(f"{{0}} {where}, passes {{1}}", down, girth) if down else say("none, passes {0}", girth)
        if girth >= body - 1e-6:
            tail = say(f"Open {{0}} down the {where}, {{1}} passes {name} {{2u}}.", down, girth, body)
        else:
            further = f"further down, or at the {where if down else 'side'}"
            tail = say(f"{name.capitalize()} {{0}} does not pass {{1u}}: open it {further}.", body, girth)
    roles = ("side",) if at is None or at.at == "side" else (at.at, "crotch")
    spots = tuple(f"{piece.name}.{edge.name}" for piece, edge in garment.edges_of(*roles))
    yield Check(
        "opening", "movement", "Opening for the hips", "signed", girth - body, 0.0, None, 0.0, brief, tail, spots, "spare"
    )


@record(frozen=True)
class Strides(Demand):
    """The least girth the hem should have to walk, cm."""

    least: float


@answers(Strides)
def stride(case: Case, asked: Strides) -> Iterator[Check]:
    """The hem lets the wearer walk."""
    girth = case.garment.round_of("hem")
    spare = girth - asked.least
    tail = say("A stride at this length wants {0}, the hem has {1u}.", asked.least, girth)
    if spare < 0:
        tail += say("Leave a vent or a slit, or flare the sides.")
    brief = say("wants {0}", asked.least) if spare >= 0 else say("wants {0} or a vent", asked.least)
    spots = tuple(f"{piece.name}.{edge.name}" for piece, edge in case.garment.edges_of("hem"))
    yield Check("stride", "movement", "Stride at the hem", "signed", spare, 0.0, None, ANY, brief, tail, spots, "")


def asked_girths(demands: tuple[Demand, ...]) -> tuple[Girth, ...]:
    """The girths among these demands, in their order."""
    return tuple(demand for demand in demands if isinstance(demand, Girth))
