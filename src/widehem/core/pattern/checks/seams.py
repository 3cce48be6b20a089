"""Checks along seams: equal lengths, levels and notches that meet."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import combinations

from widehem.core.geometry.curves import Line
from widehem.core.geometry.points import Point
from widehem.core.pattern.check import SEAM_LOOK, Case, Check, checker
from widehem.core.pattern.edge import MEETS, Edge
from widehem.core.pattern.garment import Seam
from widehem.core.pattern.meeting import apart_along, levels_along, notches_along, pairs
from widehem.core.pattern.roles import plain
from widehem.core.units import say

LEVEL_LOOK = 0.4
MAIN = "side"  # the seam whose levels are named without it


@checker("seams")
def seams(case: Case) -> Iterator[Check]:
    """Chains of edges that are sewn together are equally long, or differ by the ease stated."""
    for seam in case.garment.seams:
        if seam.twin:
            continue  # sewn to its own mirror: it cannot differ
        a, b = case.garment.length_of(seam.first), case.garment.length_of(seam.second)
        names = [plain(chain[0].piece) for chain in (seam.first, seam.second)]
        if names[0] == names[1]:
            names = [plain(chain[0].edge) for chain in (seam.first, seam.second)]
        words = say(f"{{0}} {names[0]}, {{1}} {names[1]}", a, b)
        low, high = (ease + by for ease, by in zip(seam.ease, (-case.limits.seam, case.limits.seam), strict=True))
        out = max(low - (a - b), (a - b) - high, 0.0)
        if out > 1e-6:
            tail = say(f"{{0u}} apart: true the longer {seam.title.lower()} down to the shorter.", abs(a - b))
            if seam.eased:
                tail = say("The first may be {0s} to {1s} longer, and is {2s}: true it.", low, high, a - b)
        else:
            tail = say(f"The {names[0] if a > b else names[1]} is {{0u}} longer, eased in.",
                abs(a - b)) if seam.eased else say("They sew together.")  # fmt: skip
        figure, least = (a - b, low) if seam.eased else (abs(a - b), None)
        spots = tuple(str(ref) for ref in (*seam.first, *seam.second))
        yield Check(
            f"seam.{seam.name}", "seams", _titled(case, seam), "signed" if seam.eased else "length", figure, least, high,
                SEAM_LOOK - case.limits.seam,
            words, words.stopped + tail, spots, "longer" if seam.eased else "apart",
        )  # fmt: skip


def _titled(case: Case, seam: Seam) -> str:
    """What a seam is called; where another is called so too, by its first piece as well."""
    alike = sum(other.title == seam.title for other in case.garment.seams) > 1
    return f"{seam.title}, {plain(seam.first[0].piece)}" if alike else seam.title


@checker("faced")
def faced(case: Case) -> Iterator[Check]:
    """Where one piece lies on another their edges have one shape: as far from end to end, and as round between."""
    for seam in case.garment.seams:
        if not seam.faced or len(seam.first) != 1 or len(seam.second) != 1:
            continue
        one, two = (case.garment.edge(chain[0]) for chain in (seam.first, seam.second))
        if one.gaps or two.gaps:
            continue  # a facing is cut over shut darts: only its length can be held against them
        off = _apart(one, two, turned=seam.first[0].back != seam.second[0].back)
        words = say("{0} apart in shape", off)
        tail = say("One lies on the other.") if off <= case.limits.seam + 1e-6 else say("Trace one from the other again.")
        yield Check(
            f"faced.{seam.name}", "seams", f"{seam.title}, laid on", "length", off, None, case.limits.seam, SEAM_LOOK - case.limits.seam,
                words,
            words.stopped + tail, tuple(str(ref) for ref in (*seam.first, *seam.second)), "apart",
        )  # fmt: skip


def _apart(one: Edge, two: Edge, *, turned: bool) -> float:
    """How far two edges differ in shape: the most by which chords between places at equal shares of them do, cm. turned: the
    second runs the other way."""
    if not turned and _differ(_corners(one), _corners(two)) < MEETS:
        return 0.0  # curves drawn alike
    shares = (0.0, 0.33, 0.67, 1.0)
    places = [[edge.place(edge.length * share).point for share in shares] for edge in (one, two)]
    return _differ(places[0], places[1][::-1] if turned else places[1])


def _corners(edge: Edge) -> list[Point]:
    """The points that an edge without gaps is drawn by, handles included."""
    found = [edge.start]
    for segment in edge.parts[0].segments:
        found += (segment.end,) if isinstance(segment, Line) else (segment.out, segment.into, segment.end)
    return found


def _differ(one: list[Point], two: list[Point]) -> float:
    """The most by which distances between places differ from those of as many others."""
    if len(one) != len(two):
        return math.inf
    return max(abs(one[a].to(one[b]) - two[a].to(two[b])) for a, b in combinations(range(len(one)), 2))


@checker("balance")
def balance(case: Case) -> Iterator[Check]:
    """Levels meet when the seam is walked from its top; where it is eased, from either end."""
    for seam in case.garment.seams:
        if seam.twin or seam.faced:
            continue
        first, second = (levels_along(case.garment, chain) for chain in (seam.first, seam.second))
        whole = case.garment.length_of(seam.first), case.garment.length_of(seam.second)
        for level in sorted(set(first) & set(second)):
            walked = first[level], second[level]
            apart = abs(walked[0] - walked[1])
            if seam.eased:
                apart = min(apart, abs(whole[0] - walked[0] - whole[1] + walked[1]))
            names = [plain(chain[0].piece) for chain in (seam.first, seam.second)]
            words = say(f"{{0}} {names[0]}, {{1}} {names[1]}", *walked)
            tail = (
                "The notches meet."
                if apart <= case.limits.seam + 1e-6
                else "The notches do not meet: move the side point of one piece."
            )
            name = f"balance.{level}" if seam.name == MAIN else f"balance.{seam.name}.{level}"
            title = f"{plain(level).capitalize()} notches" + ("" if seam.name == MAIN else f", {_titled(case, seam).lower()}")
            yield Check(
                name, "seams", title, "length", apart, None, case.limits.seam, LEVEL_LOOK - case.limits.seam,
                words, words.stopped + say(tail), tuple(str(ref) for ref in (*seam.first, *seam.second)), "apart",
            )  # fmt: skip


@checker("notches.meet")
def notches(case: Case) -> Iterator[Check]:
    """Notches have a partner on the other side, as far along."""
    for seam in case.garment.seams:
        if seam.twin or not any(True for chain in seam.chains for _ in notches_along(case.garment, chain)):
            continue
        yield _pairs(case, seam)


def _pairs(case: Case, seam: Seam) -> Check:
    met, alone = pairs(case.garment, seam)
    whole = case.garment.length_of(seam.first), case.garment.length_of(seam.second)

    def off(one: float, two: float) -> float:
        return apart_along(one, two, whole, eased=seam.eased)

    worst, what = max(((off(one, two), name) for name, one, two in met), default=(0.0, ""))
    if alone:
        name, along, _ = alone[0]
        worst, what = max(whole), name
        tail = say(f"The {plain(name)} notch has no partner on the other side: set one, or take it away.")
        words = say(f"{plain(name)} at {{0}}", along)
    else:
        words = say(f"{plain(what)}, {{0}} apart", worst)
        tail = say("Each meets its partner.") if worst <= case.limits.seam + 1e-6 else say("Walk the seam and move one.")
    return Check(
        f"notches.{seam.name}", "seams", f"Notches, {_titled(case, seam).lower()}", "length", worst, None, case.limits.seam, 0.0,
        words, words.stopped + tail, tuple(str(ref) for ref in (*seam.first, *seam.second)), "apart",
    )  # fmt: skip
