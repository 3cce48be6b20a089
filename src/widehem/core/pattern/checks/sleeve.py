"""Checks of sleeves: the cap on its armhole, its notches, the hand through the hem."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.geometry.paths import Path
from widehem.core.pattern.check import SEAM_TRUE, Case, Check, Demand, answers
from widehem.core.pattern.checks.upper import spots_of
from widehem.core.pattern.meeting import PITCH, notches_along
from widehem.core.pattern.walk import from_underarm
from widehem.core.units import say
from widehem.core.values import record

CAP_SLACK = 0.1
LAID, LOOKED_AT = 5.0, (1.0, 2.0, 3.0, 4.0, 5.0)  # cm from the underarm over which cap and armhole are laid on each other
LIES_TRUE, LIES_LOOK = 0.3, 1.2
CLOTHS = {"woven": "Woven cloth", "crisp": "Crisp cloth", "knit": "A knit"}


@record(frozen=True)
class CapFits(Demand):
    """The armhole a cap is for, cm: its length and how far from the underarm its pitch notches stand, back and front.

    wanted: the ease that was asked for. share: of the ease of a high cap. own: least and most of a kind of head for which
    the cloth does not decide.
    """

    armhole: float
    wanted: float
    share: float = 1.0
    own: tuple[float, float] | None = None
    pitch: tuple[float, float] | None = None


@answers(CapFits)
def caps(case: Case, asked: CapFits) -> Iterator[Check]:
    """The cap is longer than its armhole by the ease that was wanted, and the cloth can be eased by so much."""
    chain = case.garment.one_side("cap")
    length = case.garment.length_of(chain)
    ease = length - asked.armhole
    words = say("{0} on armhole {1}", length, asked.armhole)
    off = abs(ease - asked.wanted)
    tail = (
        say("Wanted was {0s}: the cap does not come out.", asked.wanted)
        if off > CAP_SLACK + 1e-6
        else say("Wanted was {0s}; gather it between the pitch notches, more at the back.", asked.wanted)
        if asked.wanted
        else say("Set in flat, without ease.")
    )
    yield Check(
        "cap.ease", "seams", "Cap in its armhole", "signed", ease, asked.wanted - CAP_SLACK, asked.wanted + CAP_SLACK, 0.0,
            words,
        words.stopped + tail, spots_of(chain), "ease",
    )  # fmt: skip
    yield _cloth(case, asked, spots_of(chain))
    if asked.pitch is not None:
        yield from _pitch(case, asked.pitch, spots_of(chain))


def _cloth(case: Case, asked: CapFits, spots: tuple[str, ...]) -> Check:
    """Whether the cloth takes so much ease."""
    low, high = asked.own or case.wear.cap_ease(asked.share)
    words = say("{0s} wanted", asked.wanted)
    cloth = CLOTHS[case.wear.cloth]
    if asked.wanted < low - 1e-6:
        tail = say(f"{cloth} wants {{0}} to {{1u}} here, or the sleeve drags over the shoulder.", low, high)
    elif asked.wanted > high + 1e-6:
        tail = say(f"{cloth} takes {{0u}} at most here: it would pucker.", high)
    else:
        tail = say(f"{cloth} takes {{0}} to {{1u}} here.", low, high)
    return Check(
        "cap.cloth",
        "seams",
        "Cap ease in this cloth",
        "signed",
        asked.wanted,
        low,
        high,
        0.0,
        words,
        words.stopped + tail,
        spots,
        "ease",
    )


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
        if off <= SEAM_TRUE + 1e-6
        else say("In the armhole they stand at {0} and {1u}: move them.", *wanted)
    )
    yield Check(
        "cap.notches",
        "seams",
        "Pitch notches of the cap",
        "length",
        off,
        None,
        SEAM_TRUE,
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
    """Laid underarm on underarm, cap and armhole part by little over the lowest centimetres."""
    chain = case.garment.one_side("cap")
    if not chain:
        return
    worst, side = 0.0, "back"
    for number, low, name in ((0, asked.back, "back"), (-1, asked.front, "front")):
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
        off = max(laid.place(along).point.to(low.place(along).point) for along in LOOKED_AT)
        worst, side = max((worst, side), (off, name))
    words = say(f"{{0}} apart in the {side}", worst)
    tail = say("It lies on the armhole.") if worst <= LIES_TRUE + 1e-6 else say(
        "Under the arm cap and armhole have other curves: a higher cap, or less sleeve, brings them together.")  # fmt: skip
    yield Check(
        "cap.lies", "shapes", "Cap on its armhole", "length", worst, None, LIES_TRUE, LIES_LOOK, words, words.stopped + tail,
        spots_of(chain), "apart",
    )  # fmt: skip
