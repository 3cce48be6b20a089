"""Checks of the upper body: armhole front on back and on the arm, the neck, the head."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from fontTools.misc.transform import Transform

from widehem.core.geometry.points import Point, turn
from widehem.core.pattern.check import ANY, Case, Check, Demand, answers, checker
from widehem.core.pattern.closed import shutting
from widehem.core.pattern.edge import MEETS, Dart
from widehem.core.pattern.garment import Chain, Garment
from widehem.core.pattern.walk import underarm_of
from widehem.core.units import say
from widehem.core.values import record

FINE = 0.01  # cm that a line laid out for its depth may lie off the true one
LOOKS = 24  # places of an armhole at which its depth is measured
FRONT_OVER_LOOK = 8.0  # cm: where a front is cut longer on purpose, so much longer is not worn any more
FRONT_OVER_MOST = 0.5  # cm: without a bust dart a woven front may keep so much
NECK_MOST = 1.0
FRONT_INSIDE = 0.3  # cm that the front armhole is hollowed more than the back at least
ARMHOLE_OVER = 2.5  # cm that an armhole is more than the armscye at least


def spots_of(*chains: Chain) -> tuple[str, ...]:
    return tuple(str(entry) for chain in chains for entry in chain)


def front_inside(garment: Garment, front: Chain, back: Chain) -> float:
    """How far the front armhole lies inside the back at most, both laid on each other at shoulder tip and underarm, cm."""
    one, two = (depths(_from_underarm(garment, chain)) for chain in (front, back))
    return max(a - b for a, b in zip(one, two, strict=True))


def _from_underarm(garment: Garment, chain: Chain) -> list[Point]:
    spots, under = closed_line(garment, chain), underarm_of(garment, chain)
    first = chain[0]
    edge = garment.edge(first)
    begins = edge.end if first.back else edge.start
    return spots if under is None or begins.to(under.point) < MEETS else spots[::-1]


def depths(spots: Sequence[Point]) -> list[float]:
    """How far a line lies off the straight between its ends, at even steps along that, cm."""
    line = (spots[-1] - spots[0]).unit()
    long = spots[0].to(spots[-1])
    flat = sorted((line.dot(spot - spots[0]), abs(line.cross(spot - spots[0]))) for spot in spots)
    found, at = [], 0
    for i in range(1, LOOKS):
        along = long * i / LOOKS
        while at < len(flat) - 2 and flat[at + 1][0] < along:
            at += 1
        (a, low), (b, high) = flat[at], flat[at + 1]
        found.append(low + (high - low) * ((along - a) / (b - a) if b > a else 0.0))
    return found


def closed_line(garment: Garment, chain: Chain) -> list[Point]:
    """A row of edges as one line, its darts shut and its panels joined, from where it begins to where it ends."""
    spots: list[Point] = [Point(0.0, 0.0)]
    arriving: Point | None = None
    for entry in chain:
        edge = garment.edge(entry)
        here, way = [Point(0.0, 0.0)], Transform()
        for number, path in enumerate(edge.parts):
            if number and isinstance(gap := edge.gaps[number - 1], Dart):
                way = way.transform(shutting(gap))
            here += [here[-1] + (spot - path.start).moved(way) for spot in path.flat(FINE)[1:]]
        first, last = edge.leaving, edge.arriving.moved(way)
        if entry.back:
            here = [spot - here[-1] for spot in reversed(here)]
            first, last = -last, -first
        onto = (
            Transform() if arriving is None else turn(Point(0.0, 0.0), math.atan2(first.cross(arriving), first.dot(arriving)))
        )
        before = spots[-1]
        spots += [before + spot.moved(onto) for spot in here[1:]]
        arriving = last.moved(onto)
    return spots


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
class FrontInside(Demand):
    """How much deeper the front armhole is hollowed than the back at least, cm."""

    least: float = FRONT_INSIDE


@answers(FrontInside)
def inside(case: Case, asked: FrontInside) -> Iterator[Check]:
    """Laid over the back at shoulder and underarm, the front armhole lies inside: the arm moves forward."""
    found = case.garment.armholes
    if found is None:
        return
    deeper = front_inside(case.garment, *found)
    words = say("{0} deeper" if deeper >= 0 else "{0} shallower", abs(deeper))
    tail = say("Laid over the back at shoulder and underarm the front lies inside it, by {0u} or more.", asked.least)
    if deeper < asked.least - 1e-6:
        tail = say(
            "Laid over the back at shoulder and underarm the front lies inside by {0u} at least: hollow the front more.",
            asked.least,
        )
    yield Check(
        "armhole.inside", "shapes", "Front armhole inside the back", "signed", deeper, asked.least, None, asked.least, words,
            words.stopped + tail, spots_of(*found), "deeper",
    )  # fmt: skip


@record(frozen=True)
class SideLeans(Demand):
    """How far a side may lean in between underarm and waist, cm."""

    most: float = 2.5


@answers(SideLeans)
def side_leans(case: Case, asked: SideLeans) -> Iterator[Check]:
    """A side takes only so much of what the waist has to lose: the rest belongs in darts, or the side swings out below."""
    found = []
    for piece, edge in case.garment.edges_of("side"):
        if not piece.edges_of("armhole", "neck"):  # what hangs from the waist leans as it falls
            continue
        under, waist = (edge.start, edge.end) if edge.start.y < edge.end.y else (edge.end, edge.start)
        along = edge.at_level(piece.levels["waist"]) if "waist" in piece.levels else None
        waist = edge.place(along).point if along is not None else waist
        middle = piece.edge(piece.middle).end.x if piece.middle else 0.0
        found.append((abs(under.x - middle) - abs(waist.x - middle), piece, edge))
    if not found:
        return
    leans, piece, edge = max(found, key=lambda entry: entry[0])
    words = say("{0} each", max(leans, 0.0))
    tail = say("No side takes more than {0u} of the waist.", asked.most)
    if leans > asked.most + 1e-6:
        tail = say("Up to {0u} is usual at a side: more of the waist belongs in darts.", asked.most)
    bad = [(p, e) for lean, p, e in found if lean > asked.most + 1e-6] or [(piece, edge)]
    yield Check(
        "side.leans", "shapes", "Sides, how far they lean in", "signed", leans, None, asked.most, ANY, words,
            words.stopped + tail,
        tuple(f"{p.name}.{e.name}" for p, e in bad), "lean",
    )  # fmt: skip


@record(frozen=True)
class ArmholeOn(Demand):
    """The armscye of the body, and how much more the armhole may have, least and most, cm."""

    armscye: float
    least: float = ARMHOLE_OVER
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
