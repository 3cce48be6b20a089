"""Checks of the upper body: armhole front on back and on the arm, the neck, the head."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.pattern.check import ANY, Case, Check, Demand, answers, checker
from widehem.core.pattern.garment import Chain
from widehem.core.units import say
from widehem.core.values import record

FRONT_OVER_LOOK = 8.0  # cm: where a front is cut longer on purpose, so much longer is not worn any more
FRONT_OVER_MOST = 0.5  # cm: without a bust dart a woven front may keep so much
NECK_MOST = 1.0


def spots_of(*chains: Chain) -> tuple[str, ...]:
    return tuple(str(entry) for chain in chains for entry in chain)


@record(frozen=True)
class FrontOver(Demand):
    """How much longer than the back the front armhole may be, where that is the school's own, cm."""

    most: float


@checker("armhole.balance")
def balance(case: Case) -> Iterator[Check]:
    """The front armhole is not longer than the back: it would gape."""
    found = case.garment.armholes
    if found is None:
        return
    front, back = (case.garment.length_of(chain) for chain in found)
    over = front - back
    darted = any(dart.apex is not None for piece in case.garment.shell for dart in piece.darts)
    own = case.asked(FrontOver)
    if own is not None:
        most, margin = own.most, max(FRONT_OVER_LOOK - own.most, 0.0)
    else:
        most, margin = (case.limits.seam, FRONT_OVER_MOST - case.limits.seam) if darted else (FRONT_OVER_MOST, FRONT_OVER_MOST)
    words = say("{0} front, {1} back", front, back)
    if over <= most + 1e-6:
        tail = say("The front may be {0u} longer here.", most) if own is not None else say("The front does not gape.")
    elif own is not None:
        tail = say(
            "The front is {0} longer, {1u} is usual here: ease it in over the front of the arm, or take a darted bodice.",
            over,
            most,
        )
    elif darted:
        tail = say("The front is {0u} longer and gapes: take it into the bust dart, or true it.", over)
    else:
        tail = say("The front is {0u} longer and gapes: true it, or take a bodice with a bust dart.", over)
    yield Check(
        "armhole.balance", "shapes", "Armhole, front on back", "signed", over, None, most, margin, words, words.stopped + tail,
        spots_of(*found),
    )  # fmt: skip


@record(frozen=True)
class ArmholeOn(Demand):
    """The armscye of the body, and how much more the armhole may have, least and most, cm."""

    armscye: float
    least: float = 2.5
    most: float = 11.0


@answers(ArmholeOn)
def armhole_round(case: Case, asked: ArmholeOn) -> Iterator[Check]:
    """The armhole goes round the arm with room, and not more than that."""
    found = case.garment.armholes
    if found is None:
        return
    whole = sum(case.garment.length_of(chain) for chain in found)
    spare = whole - asked.armscye
    words = say("{0} on armscye {1}", whole, asked.armscye)
    tail = say("{0} to {1u} more is usual.", asked.least, asked.most)
    if spare < asked.least:
        tail += say("Lower the underarm, or read the armscye again.")
    elif spare > asked.most:
        tail += say("Raise the underarm: a deep armhole holds the arm down.")
    # a tight one can still be worn while it is longer than the arm; a loose one always
    margin = asked.least if spare < asked.least else ANY
    yield Check(
        "armhole.round", "body", "Armhole on the arm", "signed", spare, asked.least, asked.most, margin, words,
            words.stopped + tail,
        spots_of(*found), "ease",
    )  # fmt: skip


@record(frozen=True)
class NeckOn(Demand):
    """The neck of the body, and how much more a neckline that lies on it may have, cm; None where it is open on purpose."""

    neck: float
    most: float | None = NECK_MOST


@answers(NeckOn)
def neckline(case: Case, asked: NeckOn) -> Iterator[Check]:
    """The neckline is not tighter than the neck, nor wider than was meant."""
    girth = case.garment.round_of("neck")
    if not girth:
        return
    spare = girth - asked.neck
    words = say("{0} on {1}", girth, asked.neck)
    if spare < 0:
        tail = say("Tighter than the neck: widen or lower it.")
    elif asked.most is None:
        tail = say("It is open, {0u} more than the neck.", spare)
    elif spare > asked.most:
        tail = say(
            "It is {0} wider than the neck; one that lies on it has {1u} at most. Right if it shall be lower or wider.",
            spare,
            asked.most,
        )
    else:
        tail = say("It lies on the neck, with 0 to {0u} to spare.", asked.most)
    spots = tuple(f"{piece.name}.{edge.name}" for piece, edge in case.garment.edges_of("neck"))
    yield Check(
        "neck.girth", "body", "Neckline on the neck", "signed", spare, 0.0, asked.most, 0.0 if spare < 0 else ANY, words,
        words.stopped + tail, spots, "spare",
    )  # fmt: skip


@record(frozen=True)
class HeadPasses(Demand):
    """The girth of the head that must get through the neck, cm."""

    head: float


@answers(HeadPasses)
def heads(case: Case, asked: HeadPasses) -> Iterator[Check]:
    """The head passes the closed neck of what is pulled on, or there is an opening."""
    drawn = case.garment.round_of("neck")
    opened = sum(at.length for at in case.garment.openings if at.at in ("centre_back", "centre_front"))
    girth = drawn + 2 * opened
    if case.wear.knit:
        girth += drawn * case.wear.stretch / 100
    spare = girth - asked.head
    words = say("{0} on head {1}", girth, asked.head)
    if spare >= -1e-6:
        tail = say("The head passes.") if not opened else say("With its opening of {0u} the head passes.", opened)
    else:
        tail = say(
            "The neck is {0}, and the head does not pass: widen the neck, or open it by {1u}.", drawn, max(-spare / 2, 4.0)
        )
    if case.wear.knit:
        tail = say(f"Neck {{0u}}, stretched by {case.wear.stretch:g} per cent.", drawn) + tail
    spots = tuple(f"{piece.name}.{edge.name}" for piece, edge in case.garment.edges_of("neck"))
    yield Check(
        "head.passes",
        "movement",
        "Head through the neck",
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
