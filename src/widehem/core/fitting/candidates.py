"""What may be behind a sign, ranked: by how often it is, by what the chart says of this body, by what else was seen and what was good."""

from __future__ import annotations

import math
from collections.abc import Collection, Mapping

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.body.doubts import STEPS
from widehem.core.body.estimates import predicted
from widehem.core.fitting.causes import CAUSES, CUP, SIGNS, Cause
from widehem.core.fitting.stand import StandRow
from widehem.core.setting.option import Value
from widehem.core.units import Saying, say
from widehem.core.values import record

READ = {"girth": 0.6, "arc": 0.6, "length": 0.45, "width": 0.4}  # cm that a reading is out
TASTE = 0.4  # cm of ease that wearers like differently
BLUNDERS, BLUNDER = 0.05, 2.5  # how many readings are plainly wrong, and by how much, cm
UNSEEN = 0.06  # how likely a cause is whose other signs are not there, against one whose are
NO_FIGURE = 0.5  # what the chart says of a cause that shows in no measure


@record(frozen=True)
class Figure:
    """What is known of one measure. read: None where it was not; times: how often; foretold: by the wearer's other measures; room: how much
    more or less ease it has than usual, cm."""

    code: str
    kind: str
    read: float | None
    times: int
    foretold: float | None
    room: float

    @property
    def name(self) -> str:
        return "cup" if self.code == CUP else CATALOGUE[self.code].name.lower()

    @property
    def saying(self) -> Saying:
        """'across back 33.2, read once; the others foretell 34.6'."""
        found = say(f"{self.name} was not read")
        if self.read is not None:
            times = {1: "read once", 2: "read twice"}.get(self.times, f"read {self.times} times")
            found = say(f"{self.name} {{0}}, {times}", self.read)
        if self.foretold is None:
            return found
        joined = "; the others foretell {0}" if self.read is not None else ", it is taken as {0}"
        return Saying(
            found.template + joined.replace("{0}", "{" + str(len(found.lengths)) + "}"), (*found.lengths, self.foretold)
        )

    def likely(self, pinned: float, *, more: bool) -> float:
        """How likely the body wants half of what was pinned, or more of it, that way."""
        step, shift = STEPS[self.kind], -self.room
        if self.read is None or self.foretold is None:
            return _beyond(shift, step * step + TASTE * TASTE, pinned / 2, more=more)
        v = READ[self.kind] ** 2 / max(self.times, 1)
        d = self.read - self.foretold
        honest = _beyond(
            shift - d * v / (v + step * step), v * step * step / (v + step * step) + TASTE * TASTE, pinned / 2, more=more
        )
        wide = BLUNDER * BLUNDER / max(self.times, 1)
        wrong = _beyond(
            shift - d * wide / (wide + step * step),
            wide * step * step / (wide + step * step) + TASTE * TASTE,
            pinned / 2,
            more=more,
        )
        odds = BLUNDERS * _density(d, wide + step * step), (1 - BLUNDERS) * _density(d, v + step * step)
        share = odds[0] / (odds[0] + odds[1]) if sum(odds) else 0.5
        return (1 - share) * honest + share * wrong

    @property
    def doubtful(self) -> bool:
        """Whether reading it again is worth more than cutting: it lies further from what the others foretell than bodies do."""
        if self.read is None:
            return True
        return self.foretold is not None and abs(self.read - self.foretold) > STEPS[self.kind] and self.times < 2


def _beyond(mean: float, variance: float, least: float, *, more: bool) -> float:
    way = 1.0 if more else -1.0
    return 0.5 * math.erfc((least - way * mean) / math.sqrt(2 * variance))


def _density(at: float, variance: float) -> float:
    return math.exp(-at * at / (2 * variance)) / math.sqrt(variance)


@record(frozen=True)
class Candidate:
    """Something that may be behind a sign. score: against the others of the same sign; chart: how likely by the chart alone; settings: of
    the alteration, for what was pinned. other: further signs that were seen and fit; against: things that were good and speak against
    it."""

    cause: Cause
    score: float
    chart: float
    figure: Figure | None
    settings: Mapping[str, Value]
    other: tuple[str, ...]
    against: tuple[str, ...]

    @property
    def reasons(self) -> tuple[Saying, ...]:
        found = [] if self.figure is None else [self.figure.saying]
        found += [say(f"{SIGNS[code].words} as well") for code in self.other]
        found += [say(f"but {words}") for words in self.against]
        return tuple(found)

    @property
    def place(self) -> Saying:
        """Whether it is a matter of the reading, the ease, an option or the paper."""
        if self.figure is not None and self.figure.read is None:
            return say(f"The {self.figure.name} was not read: read it, and the draft changes by itself.")
        if self.figure is not None and self.figure.doubtful:
            return say(
                f"Read the {self.figure.name} again first: a true figure changes the whole draft, an alteration only this place."
            )
        if self.cause.option:
            return say(f"It is the {self.cause.option}: set it in the draft, or alter this wearer's paper.")
        return say("The reading stands: alter the paper.")


def figures(chart: Chart, rows: Collection[StandRow]) -> dict[str, Figure]:
    """What is known of every measure that a cause shows in."""
    room = {row.code: row.off or 0.0 for row in rows}
    found = {}
    for cause in CAUSES.values():
        code = cause.figure
        if not code or code in found:
            continue
        if code == CUP:
            bust, high = _figure(chart, "bust", room), _figure(chart, "high_bust", room)
            read = bust.read - high.read if bust.read is not None and high.read is not None else None
            found[code] = Figure(CUP, "length", read, min(bust.times, high.times), chart.table.bust_difference, 0.0)
        else:
            found[code] = _figure(chart, code, room)
    return found


def _figure(chart: Chart, code: str, room: Mapping[str, float]) -> Figure:
    reading = chart.readings.get(code)
    read = chart.get(code)
    times = 0 if reading is None or read is None else 2 if reading.second is not None else 1
    return Figure(code, CATALOGUE[code].kind, read, times, predicted(chart, chart.table, code), room.get(code, 0.0))


def candidates(
    sign: str, pinned: float, known: Mapping[str, Figure], seen: Collection[str] = (), good: Collection[str] = ()
) -> tuple[Candidate, ...]:
    """All that may be behind a sign, the likeliest first; none is hidden. pinned: cm; seen: all signs of this round; good: what was looked
    at and judged good. Raises KeyError for a sign there is not."""
    asked = SIGNS[sign]
    others = [code for code in seen if code != sign and code in SIGNS]
    found = []
    for code, weight in asked.causes.items():
        cause = CAUSES[code]
        figure = known.get(cause.figure) if cause.figure else None
        chart = figure.likely(pinned, more=cause.more) if figure is not None else NO_FIGURE
        fits = tuple(other for other in others if code in SIGNS[other].causes)
        score = (
            weight
            * chart
            * math.prod(SIGNS[other].causes.get(code, UNSEEN) for other in others if _near(asked.code, other, code))
        )
        against = []
        for entry in SIGNS.values():
            if entry.where in good and code in entry.causes and entry.code not in seen:
                score *= 1 - entry.causes[code]
                against.append(f"{LOOKED[entry.where]} good")
        found.append(Candidate(cause, score, chart, figure, cause.settings(pinned), fits, tuple(dict.fromkeys(against))))
    return tuple(sorted(found, key=lambda one: -one.score))


def _near(sign: str, other: str, cause: str) -> bool:
    """Whether another sign says anything of a cause: it shares one with the sign that is asked about."""
    shared = set(SIGNS[sign].causes) & set(SIGNS[other].causes)
    return bool(shared) and (cause in SIGNS[other].causes or bool(shared - {cause}))


LOOKED = {
    "structure": "the structure was", "neckline": "the neckline was", "lines": "the main lines were", "armhole": "the armhole was",
    "shoulder": "the shoulder was", "darts": "the darts were", "sleeve": "the sleeve was", "seat": "the seat was", "hem": "the hem was",
}  # fmt: skip
