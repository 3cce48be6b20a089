"""What was altered before, for this wearer and across the company: offered where it agrees, and said how sure that is."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from functools import cache

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.fitting.alteration import About, read_now
from widehem.core.fitting.causes import CAUSES, CUP, SIGNS
from widehem.core.units import Saying, say
from widehem.core.values import record

BODIES, PINS = 0.8, 0.5  # cm: how much wearers differ from their charts, and how far a pin is out
WORTH, SURE, TWICE = 0.4, 0.85, 2  # cm that are worth altering; how sure one has to be; on so many garments at least
WEARERS, ERRORS, ONE_WAY = 9, 2.3, 0.6  # of a company: so many at least, so many standard errors, so many of ten one way
HINTS: Mapping[str, tuple[str, dict[str, float | str], float]] = {  # by figure: what is done, its settings, how much of it
    "across_back": ("alter.across", {"part": "back"}, 1.0), "across_chest": ("alter.across", {"part": "front"}, 1.0),
    "shoulder": ("alter.shoulder", {}, 1.0), "shoulder_drop": ("alter.slope", {}, -1.0), "armscye_depth": ("alter.underarm", {}, -1.0),
    "nape_waist": ("alter.length", {"part": "back"}, 1.0), "snp_waist_front": ("alter.length", {"part": "front"}, 1.0),
    "bust": ("alter.side", {"level": "bust"}, 1.0), "waist": ("alter.side", {"level": "waist"}, 1.0), "hip": ("alter.side", {"level": "hip"}, 1.0),
    "crotch_length": ("alter.fork", {}, 1.0), "upper_arm": ("alter.bicep", {}, 1.0), CUP: ("alter.bust", {}, 0.5),
}  # fmt: skip


@record(frozen=True)
class Altered:
    """One garment of a wearer: its name, what its alterations were about, and what was judged good on it without one."""

    garment: str
    about: tuple[About, ...]
    good: frozenset[str] = frozenset()


@record(frozen=True)
class Learned:
    """What a wearer's garments have in common. figure: the measure; by: how much more of it, cm; garments: on how many it rests; sure: how
    likely the body is off by more than is worth altering."""

    figure: str
    by: float
    garments: tuple[str, ...]
    sure: float

    @property
    def name(self) -> str:
        return "cup" if self.figure == CUP else CATALOGUE[self.figure].name.lower()

    @property
    def saying(self) -> Saying:
        many = len(self.garments)
        return say(
            f"{many} garments agree ({', '.join(self.garments)}): the {self.name} wants {{0s}}, sure to {round(self.sure * 100)} in 100.",
            self.by,
        )

    @property
    def alteration(self) -> tuple[str, dict[str, float | str]] | None:
        """What would do it: the code and its settings; None where no alteration does."""
        found = HINTS.get(self.figure)
        if found is None:
            return None
        code, settings, way = found
        return code, {**settings, "by": round(self.by * way, 1)}


@cache
def places_of(figure: str) -> frozenset[str]:
    """Where a measure shows on the body: what is looked at when one of its causes is meant."""
    causes = {code for code, cause in CAUSES.items() if cause.figure == figure}
    return frozenset(sign.where for sign in SIGNS.values() if max(sign.causes, key=lambda code: sign.causes[code]) in causes)


def learned(garments: Sequence[Altered], chart: Chart) -> tuple[Learned, ...]:
    """What is offered on the next garment of a wearer, the surest first. An alteration counts less what the chart has taken over since."""
    found = []
    for figure in HINTS:
        seen = _seen(figure, garments, chart)
        if len(seen) < TWICE:
            continue
        mean, sure = _posterior([value for _, value in seen])
        if sure >= SURE and abs(mean) >= WORTH / 2:
            found.append(Learned(figure, round(mean, 1), tuple(name for name, _ in seen), sure))
    return tuple(sorted(found, key=lambda one: -one.sure))


def _seen(figure: str, garments: Iterable[Altered], chart: Chart) -> list[tuple[str, float]]:
    """By garment, how far a measure was off by what was altered; nothing where it was not looked at, nought where that was good."""
    places, rows = places_of(figure), []
    now = read_now(figure, chart)
    for garment in garments:
        mine = [about for about in garment.about if about.figure == figure]
        if mine:
            rows.append((garment.garment, sum(_rebased(about, now) for about in mine)))
        elif places & garment.good:
            rows.append((garment.garment, 0.0))
    return rows


def _rebased(about: About, now: float | None) -> float:
    """What an alteration still says once the reading has changed."""
    return about.by if now is None or about.read is None else about.by - (now - about.read)


def _posterior(values: Sequence[float]) -> tuple[float, float]:
    """The most likely amount, and how likely it is that the body is off by more than is worth altering."""
    exact = 1 / BODIES**2 + len(values) / PINS**2
    mean, spread = sum(values) / PINS**2 / exact, 1 / math.sqrt(exact)
    beyond = 0.5 * math.erfc((WORTH - mean) / spread / math.sqrt(2)) + 0.5 * math.erfc((WORTH + mean) / spread / math.sqrt(2))
    return mean, beyond


@record(frozen=True)
class Habit:
    """What the wearers of a company have in common: then it is not theirs but the table's, or the way the house reads."""

    figure: str
    by: float
    wearers: int

    @property
    def saying(self) -> Saying:
        name = "cup" if self.figure == CUP else CATALOGUE[self.figure].name.lower()
        return say(
            f"Over {self.wearers} wearers the {name} wants {{0s}} on average: look at how it is read, or at the plan of ease.",
            self.by,
        )


def habits(company: Sequence[tuple[Sequence[Altered], Chart]]) -> tuple[Habit, ...]:
    """What is altered alike on many wearers: each of them counts once, however many garments they have."""
    found = []
    for figure in HINTS:
        means = [
            sum(value for _, value in seen) / len(seen)
            for garments, chart in company
            if (seen := _seen(figure, garments, chart))
        ]
        if len(means) < WEARERS:
            continue
        mean = sum(means) / len(means)
        error = math.sqrt(sum((value - mean) ** 2 for value in means) / (len(means) - 1) / len(means))
        one_way = sum(1 for value in means if value * mean > 0) / len(means)
        if abs(mean) >= WORTH and abs(mean) >= ERRORS * error and one_way >= ONE_WAY:
            found.append(Habit(figure, round(mean, 1), len(means)))
    return tuple(found)
