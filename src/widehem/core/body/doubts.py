"""Doubts: named rules that ask for a second look while the wearer still stands there. They never block."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import SIDES, Chart
from widehem.core.body.estimates import predicted
from widehem.core.units import CM_PER_INCH, Saying, say
from widehem.core.values import record


@record(frozen=True)
class Doubt:
    """One thing to look at again.

    rule: the rule's name. measures: the codes concerned. saying: the figures and what is usual.
    apart: how far it is out, cm. mark: what besides the figures makes it this very doubt.
    """

    rule: str
    group: str
    measures: tuple[str, ...]
    saying: Saying
    apart: float
    mark: str = ""

    @property
    def key(self) -> str:
        """Names this doubt with these very figures, so that an accepted doubt returns when a figure changes."""
        figures = ",".join(f"{length:.2f}" for length in self.saying.lengths)
        return f"{self.rule}:{'+'.join(self.measures)}:{self.mark}{figures}"


Rule = Callable[[Chart], Iterator[Doubt]]
RULES: dict[str, Rule] = {}


def rule(name: str) -> Callable[[Rule], Rule]:
    """Register a rule under its name."""

    def keep(function: Rule) -> Rule:
        RULES[name] = function
        return function

    return keep


_raised: dict[object, tuple[Doubt, ...]] = {}
_MOST_KEPT = 4096


def doubts(chart: Chart) -> tuple[Doubt, ...]:
    """Every doubt this chart raises, in the order of the rules. Remembered by what stands on the chart."""
    key = chart.stamp
    found = _raised.get(key)
    if found is None:
        found = tuple(doubt for function in RULES.values() for doubt in function(chart))
        while len(_raised) >= _MOST_KEPT:
            _raised.pop(next(iter(_raised)), None)
        _raised[key] = found
    return found


def _name(code: str) -> str:
    return CATALOGUE[code].name


@rule("range")
def out_of_range(chart: Chart) -> Iterator[Doubt]:
    """A figure no body is likely to have; perhaps read in the other unit."""
    for code in chart:
        entry, value = CATALOGUE[code], chart.get(code) or 0.0
        if entry.low <= value <= entry.high:
            continue
        words = say(
            f"{_name(code)} {{0u}} is outside what bodies measure, {{1}} to {{2u}}: read it again.",
            value,
            entry.low,
            entry.high,
        )
        if entry.low <= value * CM_PER_INCH <= entry.high and value < entry.low:
            words += say("If inches were meant it is {0u}.", value * CM_PER_INCH)
        yield Doubt("range", "Plausible size", (code,), words, min(abs(value - entry.low), abs(value - entry.high)))


GIRTH_SPREAD, LENGTH_SPREAD = 1.0, 0.6


@rule("readings")
def readings_apart(chart: Chart) -> Iterator[Doubt]:
    """Two readings of one measure too far apart."""
    for code, reading in chart.readings.items():
        for place in ("", *SIDES):
            turns, most = reading.at(place), most_spread(code)
            if turns.spread > most + 1e-9 and turns.first and turns.second:
                words = say(
                    f"{_name(code)}{f', {place},' if place else ''} was read {{0}} and {{1}}, {{2}} apart, where {{3u}} is "
                    f"the most: "
                    "read it a third time.",
                    turns.first.cm, turns.second.cm, turns.spread, most,
                )  # fmt: skip
                yield Doubt("readings", "Two readings", (code,), words, turns.spread - most, place)


def most_spread(code: str) -> float:
    """How far two readings of a measure may lie apart, cm."""
    return GIRTH_SPREAD if CATALOGUE[code].kind in ("girth", "arc") else LENGTH_SPREAD


# (rule, smaller, larger, how much the smaller may exceed the larger, strictly)
_ORDER = (
    ("high_bust", "bust", 2.0, False),
    ("under_bust", "bust", 0.0, True),
    ("waist_high_hip", "waist_hip", 0.0, True),
    ("waist_hip", "crotch_depth", 0.0, True),
    ("crotch_depth", "waist_knee", 0.0, True),
    ("waist_hip", "waist_knee", 0.0, True),
    ("waist_knee", "waist_ankle", 0.0, True),
    ("waist_ankle", "waist_floor", 0.0, True),
    ("wrist", "upper_arm", 0.0, True),
    ("wrist", "hand", 0.0, True),
    ("ankle", "calf", 0.0, True),
    ("calf", "thigh", 0.0, True),
    ("across_chest", "across_back", 2.0, False),
)


@rule("order")
def out_of_order(chart: Chart) -> Iterator[Doubt]:
    """Measures that must follow one another in size."""
    for small, large, slack, strictly in _ORDER:
        a, b = chart.get(small), chart.get(large)
        if a is None or b is None:
            continue
        over = a - b - slack
        if over > 0 or (strictly and over == 0):
            usual = say("It may be at most {0} over.", slack) if slack else say("It is always less.")
            words = say(f"{_name(small)} {{0}} stands against {_name(large).lower()} {{1u}}: read both again.", a, b) + usual
            yield Doubt("order", "Order of sizes", (small, large), words, over)


@rule("waist over hip")
def waist_over_hip(chart: Chart) -> Iterator[Doubt]:
    """A waist larger than the hip: a round figure, or the hip was read too high."""
    waist, hip = chart.get("waist"), chart.get("hip")
    if waist is not None and hip is not None and waist > hip + 2:
        words = say(
            "Waist {0} is larger than hip {1u}: on a round figure read the hip over the belly, level all round.",
            waist,
            hip,
        )
        yield Doubt("waist over hip", "Order of sizes", ("waist", "hip"), words, waist - hip)


@record(frozen=True)
class _Within:
    """A sum that must lie between two limits."""

    measures: tuple[str, ...]
    figure: Callable[..., float]
    low: Callable[..., float]
    high: Callable[..., float]
    words: str
    group: str = "Sums that must fit"


ARC_PART = {
    "bust_front": (0.45, 0.60),
    "waist_front": (0.42, 0.66),
    "hip_front": (0.40, 0.62),
}  # of the girth: front arcs as they are
_SUMS = (
    _Within(("bust_front", "bust"), lambda f, b: f, lambda f, b: ARC_PART["bust_front"][0] * b, lambda f, b: ARC_PART["bust_front"][1] * b, "The front arc of the bust "
        "is {0}; of this bust it is usually {1} to {2u}"),
    _Within(("waist_front", "waist"), lambda f, w: f, lambda f, w: ARC_PART["waist_front"][0] * w, lambda f, w: ARC_PART["waist_front"][1] * w, "The front arc of the "
        "waist is {0}; of this waist it is usually {1} to {2u}"),
    _Within(("hip_front", "hip"), lambda f, h: f, lambda f, h: ARC_PART["hip_front"][0] * h, lambda f, h: ARC_PART["hip_front"][1] * h, "The front arc of the hip "
        "is {0}; of this hip it is usually {1} to {2u}"),
    _Within(
        ("across_back", "across_chest", "bust"), lambda k, c, b: k + c, lambda k, c, b: 0.62 * b, lambda k, c, b: 0.94 * b,
        "Across back and across chest together are {0}; on this bust they are usually {1} to {2u}",
    ),
    _Within(
        ("shoulder", "neck", "across_shoulders"), lambda s, n, a: 2 * s + n / 3, lambda s, n, a: a - 3.5, lambda s, n,
            a: a + 3.5,
        "Two shoulders and a third of the neck make {0}; with this width across shoulders {1} to {2u} is usual",
    ),
    _Within(
        ("crotch_length", "crotch_depth"), lambda c, d: c, lambda c, d: 2 * d + 8, lambda c, d: 2 * d + 26,
        "Crotch length is {0}; with this crotch depth it is usually {1} to {2u}",
    ),
    _Within(
        ("inside_leg", "crotch_depth", "waist_floor"), lambda i, d, f: i + d, lambda i, d, f: f - 4, lambda i, d, f: f + 4,
        "Inside leg and crotch depth make {0}; from waist to floor that should be {1} to {2u}",
    ),
    _Within(
        ("snp_waist_back", "nape_waist"), lambda s, n: s - n, lambda s, n: 0.5, lambda s, n: 3.5,
        "Side neck to waist at the back is {0} longer than nape to waist; {1} to {2u} is usual", "Front on back",
    ),
    _Within(
        ("snp_waist_front", "snp_waist_back", "bust", "high_bust"), lambda f, k, b, h: f - k,
        lambda f, k, b, h: (b - h) / 2 - 4, lambda f, k, b, h: (b - h) / 2 + 3,
        "The front length is {0} longer than the back; on this bust {1} to {2u} is usual", "Front on back",
    ),
    _Within(
        ("shoulder_slope", "snp_waist_back"), lambda s, k: s, lambda s, k: 0.0, lambda s, k: k + 3,
        "Shoulder slope is {0}; with this back length it is under {2u}", "Front on back",
    ),
    _Within(
        ("bust_depth", "waist_bust", "snp_waist_front"), lambda d, w, f: d + w, lambda d, w, f: f - 3, lambda d, w, f: f + 3,
        "Bust depth and waist to bust make {0}; with this front length {1} to {2u} is usual", "Front on back",
    ),
)  # fmt: skip


@rule("sums")
def sums(chart: Chart) -> Iterator[Doubt]:
    """Sums and balances that must fit."""
    for entry in _SUMS:
        values = [chart.get(code) for code in entry.measures]
        if any(value is None for value in values):
            continue
        figure, low, high = entry.figure(*values), entry.low(*values), entry.high(*values)
        if low <= figure <= high:
            continue
        words = say(entry.words + ": read them again.", figure, low, high)
        yield Doubt("sums", entry.group, entry.measures, words, max(low - figure, figure - high))


STEPS = {"girth": 2.0, "arc": 2.0, "length": 1.2, "width": 0.8}
STEPS_MOST = 3


@rule("proportion")
def proportion(chart: Chart) -> Iterator[Doubt]:
    """A figure more than three usual steps from what the others foretell by the wearer's figure table."""
    table = chart.table
    for code in chart:
        if code not in table.formulas:
            continue
        value, near = chart.get(code) or 0.0, predicted(chart, table, code)
        step = STEPS[CATALOGUE[code].kind]
        if near is None or abs(value - near) <= STEPS_MOST * step + 1e-9:
            continue
        words = say(f"{_name(code)} is {{0}}; with the other measures most come near {{1u}}: read it again.", value, near)
        yield Doubt("proportion", "Proportion", (code,), words, abs(value - near))
