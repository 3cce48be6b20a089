"""Checks of sleeves: the cap on its armhole, its notches, the hand through the hem."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.geometry.paths import Path
from widehem.core.pattern.check import Case, Check, Demand, answers
from widehem.core.pattern.checks.upper import spots_of
from widehem.core.pattern.meeting import PITCH, notches_along
from widehem.core.pattern.roles import BACK, FRONT
from widehem.core.pattern.walk import from_underarm
from widehem.core.units import say
from widehem.core.values import record

CAP_SLACK = 0.1
CHOSEN = 0.5, 5.0  # cm of ease that a maker may set on purpose, whatever the cloth
LAID, LOOKED_AT = 5.0, (1.0, 2.0, 3.0, 4.0, 5.0)  # cm from the underarm over which cap and armhole are laid on each other
CAP_LONG = 45.0  # cm: the typical cap
LIES_TRUE, LIES_LOOK = 0.3, 1.2
CLOTHS = {"woven": "Woven cloth", "crisp": "Crisp cloth", "knit": "A knit"}


@record(frozen=True)
class CapFits(Demand):
    """The armhole a cap is for, cm: its length and how far from the underarm its pitch notches stand, back and front.

    wanted: the ease that was asked for, None where width and height are held and it is read. chosen: the maker set it. share: of the ease of a high cap. own: least and most of a kind of head for which
    the cloth does not decide.
    """

    armhole: float
    wanted: float | None
    share: float = 1.0
    own: tuple[float, float] | None = None
    pitch: tuple[float, float] | None = None
    chosen: bool = False


@answers(CapFits)
def caps(case: Case, asked: CapFits) -> Iterator[Check]:
    """The cap is longer than its armhole by the ease that was wanted, and the cloth can be eased by so much."""
    chain = case.garment.one_side("cap")
    length = case.garment.length_of(chain)
    ease = length - asked.armhole
    if asked.wanted is not None:
        yield _fits(asked.wanted, asked.armhole, length, spots_of(chain))
    yield _cloth(case, asked, ease if asked.wanted is None else asked.wanted, spots_of(chain))
    if asked.pitch is not None:
        yield from _pitch(case, asked.pitch, spots_of(chain))


def _fits(wanted: float, armhole: float, length: float, spots: tuple[str, ...]) -> Check:
    """Whether a cap came out with the ease that was wanted."""
    ease = length - armhole
    words = say("{0} on armhole {1}", length, armhole)
    off = abs(ease - wanted)
    tail = (
        say("Wanted was {0s}: the cap does not come out.", wanted)
        if off > CAP_SLACK + 1e-6
        else say("Wanted was {0s}; ease it in between the pitch notches, more at the back.", wanted)
        if wanted
        else say("Set in flat, without ease.")
    )
    return Check(
        "cap.ease", "seams", "Cap in its armhole", "signed", ease, wanted - CAP_SLACK, wanted + CAP_SLACK, 0.0, words,
        words.stopped + tail, spots, "ease",
    )  # fmt: skip


def _cloth(case: Case, asked: CapFits, ease: float, spots: tuple[str, ...]) -> Check:
    """Whether the cloth takes so much ease. What a maker set on purpose, within what can be eased at all, is only looked at."""
    low, high = asked.own or case.wear.cap_ease(asked.share)
    words = say("{0s} come out", ease) if asked.wanted is None else say("{0s} wanted", ease)
    cloth = CLOTHS[case.wear.cloth]
    if ease < low - 1e-6:
        tail = say(f"{cloth} wants {{0}} to {{1u}} here, or the sleeve drags over the shoulder.", low, high)
    elif ease > high + 1e-6:
        tail = say(f"{cloth} takes {{0u}} at most here: it would pucker.", high)
    else:
        tail = say(f"{cloth} takes {{0}} to {{1u}} here.", low, high) if high else say(f"{cloth} takes none here.")
    margin = 0.0
    if asked.chosen and CHOSEN[0] <= ease <= CHOSEN[1] and not low <= ease <= high:
        margin = max(low - ease, ease - high)
        tail = tail + say("It was set on purpose: accept it with a word.")
    return Check(
        "cap.cloth", "seams", "Cap ease in this cloth", "signed", ease, low, high, margin, words, words.stopped + tail, spots,
        "ease",
    )  # fmt: skip


def _pitch(case: Case, wanted: tuple[float, float], spots: tuple[str, ...]) -> Iterator[Check]:
    chain = case.garment.one_side("cap")
    whole = case.garment.length_of(chain)
    found = {count: along for name, count, along in notches_along(case.garment, chain) if name == PITCH}
    if set(found) != {1, 2}:
        return
    off = max(abs(found[2] - wanted[0]), abs(whole - found[1] - wanted[1]))
    words = say("{0} behind, {1} in front of the underarm", found[2], whole - found[1])
    tail = (
        say("As far as in the armhole.")
        if off <= case.limits.seam + 1e-6
        else say("In the armhole they stand at {0} and {1u}: move them.", *wanted)
    )
    yield Check(
        "cap.notches",
        "seams",
        "Pitch notches of the cap",
        "length",
        off,
        None,
        case.limits.seam,
        0.0,
        words,
        words.stopped + tail,
        spots,
        "apart",
    )


@record(frozen=True)
class CapLies(Demand):
    """The beginnings of the armhole that a cap follows, front and back, as they leave the underarm."""

    front: Path
    back: Path


@answers(CapLies)
def lies(case: Case, asked: CapLies) -> Iterator[Check]:
    """Laid underarm on underarm, cap and armhole part by little over the lowest centimetres; on a cap smaller than the typical one
    over fewer, in proportion."""
    chain = case.garment.one_side("cap")
    if not chain:
        return
    worst, side, share = 0.0, BACK, min(1.0, case.garment.length_of(chain) / CAP_LONG)
    for number, low, name in ((0, asked.back, BACK), (-1, asked.front, FRONT)):
        entry = chain[number]
        piece, edge = case.garment.piece(entry.piece), case.garment.edge(entry)
        if len(edge.parts) != 1:
            return
        before, after = piece.beside(edge.name)
        at_start = (number == 0) != entry.back
        path = edge.parts[0] if at_start else edge.parts[0].reverse()
        laid = from_underarm(path, -before.arriving if at_start else after.leaving, LAID)
        if laid is None:
            return
        off = max(laid.place(along * share).point.to(low.place(along * share).point) for along in LOOKED_AT)
        worst, side = max((worst, side), (off, name))
    words = say(f"{{0}} apart in the {side}", worst)
    tail = say("It lies on the armhole.") if worst <= LIES_TRUE + 1e-6 else say(
        "Under the arm cap and armhole have other curves: a higher cap, or less sleeve, brings them together.")  # fmt: skip
    yield Check(
        "cap.lies", "shapes", "Cap on its armhole", "length", worst, None, LIES_TRUE, LIES_LOOK, words, words.stopped + tail,
        spots_of(chain), "apart",
    )  # fmt: skip


@record(frozen=True)
class CapHalves(Demand):
    """Front and back armhole, cm, that parts of a head are sewn to: what lies between two of its notches, and what is left.
    ease: the least and most of the whole head, of which each part takes its share."""

    front: float
    back: float
    between: tuple[str, str]
    ease: tuple[float, float]


@answers(CapHalves)
def halves(case: Case, asked: CapHalves) -> Iterator[Check]:
    """Each part of a head is longer than its armhole by its share of the ease, walked by itself."""
    chain = case.garment.one_side("cap")
    found = {name: along for name, _, along in notches_along(case.garment, chain)}
    if not chain or any(name not in found for name in asked.between):
        return
    first, second = (found[name] for name in asked.between)
    front = abs(second - first)
    for name, part, hole in ((FRONT, front, asked.front), (BACK, case.garment.length_of(chain) - front, asked.back)):
        low, high = (limit * hole / (asked.front + asked.back) for limit in asked.ease)
        words = say("{0} on armhole {1}", part, hole)
        tail = (
            say("The ease is shared as the armhole is.")
            if low - CAP_SLACK <= part - hole <= high + CAP_SLACK
            else say("It wants {0s} to {1s}: move the notches of the head.", low, high)
        )
        yield Check(
            f"cap.{name}", "seams", f"Head in the {name} armhole", "signed", part - hole, low - CAP_SLACK, high + CAP_SLACK,
            0.0, words, words.stopped + tail, spots_of(chain), "ease",
        )  # fmt: skip
