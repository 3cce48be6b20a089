"""Draft along by hand: the figure of each step held against what was measured on one's own paper; what a slip comes from, and what it
does at the end."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.design.design import Design
from widehem.core.design.make import Made, make
from widehem.core.setting.option import OptionError
from widehem.core.setting.quantity import Quantity
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import CM_PER_INCH, Length, Saying, say, ticks_of
from widehem.core.values import record, replace

GOOD, FAIR = 0.2, 0.5  # cm that a figure on paper may be off: as good as drawn, and still to be drawn on with
NUDGE = 1.0  # cm by which a measure is changed to see what it moves
SMALL = 0.05  # cm at the end that is not worth telling
MOST_EFFECTS = 4
Verdict = Literal["good", "fair", "off"]


@record(frozen=True)
class Figure:
    """A figure that can be measured on paper: the number and the title of its step, what it is called, its value with its working."""

    step: int
    title: str
    text: Saying
    name: str
    quantity: Quantity

    @property
    def cm(self) -> float:
        return self.quantity.value


@record(frozen=True)
class Effect:
    """What changes at the end: what it is called, and by how much, cm."""

    name: str
    by: float


@record(frozen=True)
class Judged:
    """A figure as it was measured. off: from what it should be, cm; hint: what may have happened, in words; through: the measure that would
    make the same difference, by its code, and what that would have to be, cm; effects: what it would do at the end."""

    verdict: Verdict
    off: float
    hint: Saying | None = None
    through: tuple[str, float] | None = None
    effects: tuple[Effect, ...] = ()


def figures(made: Made) -> list[Figure]:
    """The figures of a draft, one for each step that has a length to measure."""
    found = []
    for step in made.steps:
        result = step.result
        if result is not None and not result.quantity.plain and abs(result.quantity.value) >= SMALL:
            found.append(Figure(step.number, step.title, step.text, result.name, result.quantity))
    return found


def judge(design: Design, chart: Chart, figure: Figure, typed: float) -> Judged:
    """What to say of a figure as it was measured on paper, cm."""
    off = typed - figure.cm
    if abs(off) <= GOOD:
        return Judged("good", off)
    verdict: Verdict = "fair" if abs(off) <= FAIR else "off"
    through, effects = _followed(design, chart, figure, off)
    return Judged(verdict, off, _hint(figure.quantity, typed), through, effects)


def _near(a: float, b: float) -> bool:
    return abs(a - b) <= GOOD / 2


def _hint(quantity: Quantity, typed: float) -> Saying | None:
    """What may have happened: a term left out or taken off, a half for a quarter, inches for centimetres."""
    value = quantity.value
    for part in _terms(quantity):
        words = part.name or part.as_term()
        if part.value and _near(typed, value - part.value):
            return say(f"{words[:1].upper()}{words[1:]} of {{0u}} was left out.", abs(part.value))
        if part.value and _near(typed, value - 2 * part.value):
            return say(
                f"{words[:1].upper()}{words[1:]} of {{0u}} went on the wrong side: put on, not taken off, or the other way.",
                abs(part.value),
            )
    for factor, words in ((2.0, "That is twice the figure: half of it is drawn."), (4.0, "That is four times the figure: a quarter of it is drawn."),
                          (0.5, "That is half of the figure: take it whole."), (CM_PER_INCH, "That is inches read as centimetres, or the other way."),
                          (1 / CM_PER_INCH, "That is inches read as centimetres, or the other way.")):  # fmt: skip
        if abs(typed - value * factor) <= max(GOOD / 2, 0.004 * abs(value * factor)):
            return say(words)
    if _swapped(typed, value):
        return say("Two digits changed places.")
    return None


def _terms(quantity: Quantity, sign: float = 1.0) -> Iterator[Quantity]:
    """The terms of a sum, those that are taken off with a minus."""
    if quantity.sign in ("+", "−") and quantity.parts:
        left, right = quantity.parts
        yield from _terms(left, sign)
        yield from _terms(right, sign if quantity.sign == "+" else -sign)
    elif quantity.parts or quantity.name or quantity.source in ("ease", "option", "constant"):
        yield replace(quantity, value=quantity.value * sign)


def _swapped(typed: float, value: float) -> bool:
    a, b = f"{abs(typed):.1f}".replace(".", ""), f"{abs(value):.1f}".replace(".", "")
    if len(a) != len(b) or a == b:
        return False
    different = [n for n in range(len(a)) if a[n] != b[n]]
    return len(different) == 2 and a[different[0]] == b[different[1]] and a[different[1]] == b[different[0]]


def _followed(design: Design, chart: Chart, figure: Figure, off: float) -> tuple[tuple[str, float] | None, tuple[Effect, ...]]:
    """The measure that would have made the same difference, and what it would do at the end."""
    before = _drawn(design, chart)
    if before is None:
        return None, ()
    best: tuple[float, str] | None = None
    for code in figure.quantity.measures():
        value = chart.get(code)
        if value is None:
            continue
        moved = _drawn(design, chart.with_value(code, _length(value + NUDGE)))
        now = _same(moved, figure) if moved is not None else None
        if now is not None and (best is None or abs(now - figure.cm) > abs(best[0])):
            best = (now - figure.cm) / NUDGE, code
    if best is None or abs(best[0]) < SMALL:
        return None, ()
    slope, code = best
    wanted = (chart.get(code) or 0.0) + off / slope
    after = _drawn(design, chart.with_value(code, _length(wanted))) if wanted > 1.0 else None
    return (code, wanted), () if after is None else tuple(_differences(before, after))


def _drawn(design: Design, chart: Chart) -> Made | None:
    try:
        return make(design, chart)
    except (CannotDraft, OptionError):
        return None


def _length(value: float) -> Length:
    return Length(ticks_of(value), "", "cm")


def _same(made: Made, figure: Figure) -> float | None:
    """The same figure in another draft."""
    return next((row.cm for row in figures(made) if row.step == figure.step and row.name == figure.name), None)


def _differences(before: Made, after: Made) -> list[Effect]:
    """What is other at the end, the most first: girths as they are sewn, then seams."""
    found = []
    for girth in before.girths:
        level = girth.name
        was, now = before.garment.girth(level), after.garment.girth(level)
        if abs(now - was) >= SMALL:
            found.append(Effect(f"round the {level.replace('_', ' ')}", now - was))
    for seam in before.garment.seams:
        other = next((row for row in after.garment.seams if row.name == seam.name), None)
        if other is not None:
            by = after.garment.length_of(other.first) - before.garment.length_of(seam.first)
            if abs(by) >= SMALL:
                found.append(Effect(f"{seam.title[:1].lower()}{seam.title[1:]}", by))
    return sorted(found, key=lambda row: -abs(row.by))[:MOST_EFFECTS]


def told(judged: Judged) -> tuple[Saying, ...]:
    """What is said of a figure, sentence by sentence."""
    if judged.verdict == "good":
        return (say("As it should be, within {0u}.", GOOD),)
    found = [say(f"{{0u}} too {'much' if judged.off > 0 else 'little'}.", abs(judged.off))]
    if judged.hint is not None:
        found.append(judged.hint)
    if judged.through is not None:
        code, value = judged.through
        found.append(say(f"It draws as if {CATALOGUE[code].name.lower()} had been {{0u}}.", value))
    for effect in judged.effects:
        found.append(say(f"At the end, {effect.name}: {{0s}}.", effect.by))
    if judged.verdict == "fair":
        found.append(say("It can be drawn on with; the seams will be trued anyway."))
    return tuple(found)
