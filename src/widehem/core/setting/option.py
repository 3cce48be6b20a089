"""What a maker may set on a method: options and ease, each with default, range, unit and reason."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any, Literal

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.setting.quantity import Quantity
from widehem.core.units import METRIC, Display, LengthError, Unit, parse_length, parse_signed
from widehem.core.values import record, replace

Value = float | str
OptionKind = Literal["length", "number", "choice"]
Group = Literal["shape", "cloth", "truth"]


class OptionError(ValueError):
    """A setting cannot be used; one sentence naming the option, the figure and what to do."""


@record(frozen=True)
class Choice:
    """One of the ways an option can go."""

    code: str
    name: str
    why: str = ""


@record(frozen=True)
class Mend:
    """A setting that trues something: words for the press, the option and what it is set to (with its unit).

    ease: the setting is an ease. when: other options with the values at which it helps.
    """

    words: str
    option: str
    value: str
    ease: bool = False
    when: tuple[tuple[str, str], ...] = ()


@record(frozen=True)
class Option:
    """A school's habit that the maker may change. Lengths in cm.

    default: the habit; None when it comes from the chart by worked. worked: takes named measures, and the settings of
    options before it that are named in after, to the default. step: what one press of less or more does. least: for ease,
    the least the cloth wants for wearing. before: what the default was, up to a version of a method's rules. drawn:
    the default may follow from the drawing, which says what it came to. school: makers differ about it, so that the maker may
    ask what each way does on this body. group: what it is about: the shape, the cloth, how true it has to be. when: others, with
    the values at which it does anything; one of them is enough, and without any it always does.
    """

    code: str
    name: str
    kind: OptionKind
    default: Value | None
    why: str
    low: float = 0.0
    high: float = 0.0
    step: float = 0.5
    choices: tuple[Choice, ...] = ()
    worked: Callable[[Mapping[str, Any]], Quantity] | None = None
    uses: tuple[str, ...] = ()
    after: tuple[str, ...] = ()
    least: float | None = None
    before: tuple[tuple[int, Value], ...] = ()
    drawn: bool = False
    school: bool = False
    group: Group = "shape"
    when: tuple[tuple[str, tuple[str, ...]], ...] = ()

    def applies(self, settings: Mapping[str, Value]) -> bool:
        """Whether it does anything beside these settings, in which none may be missing."""
        return not self.when or any(settings.get(code) in values for code, values in self.when)

    def by_rules(self, rules: int) -> Option:
        """The option as it was by a version of the rules."""
        found = next((value for last, value in self.before if rules <= last), None)
        return self if found is None else replace(self, default=found, worked=None)

    def default_on(self, chart: Chart, settings: Mapping[str, Quantity | Value]) -> Quantity | Value | None:
        """The default for this chart and the settings so far; None when a measure it rests on is missing."""
        if self.worked is None:
            return self.default
        if chart.missing(self.uses) or any(code not in settings for code in self.after):
            return None
        return self.worked({code: measured(chart, code) for code in self.uses} | {code: settings[code] for code in self.after})

    def read(self, text: str, unit: Unit) -> Value:
        """What was typed as a value. Raises OptionError."""
        text = text.strip()
        if self.kind == "choice":
            for choice in self.choices:
                if choice.code == text:
                    return choice.code
            ways = ", ".join(choice.code for choice in self.choices)
            raise OptionError(f'{self.name}: "{text}" is not one of its ways: write one of {ways}.')
        if self.kind == "number":
            try:
                value = float(text.replace(",", "."))
            except ValueError:
                raise OptionError(f'{self.name}: "{text}" is not a number.') from None
            return self._within(value, Display(unit))
        try:
            cm = parse_signed(text, unit) if self.low < 0 else parse_length(text, unit).cm
        except LengthError as error:
            raise OptionError(f"{self.name}: {error}") from None
        return self._within(cm, Display(unit))

    def _within(self, value: float, show: Display) -> float:
        tolerance = 0.16 if show.unit == "in" else 1e-6  # an eighth of an inch is the finest that is typed
        if self.low - tolerance <= value <= self.high + tolerance:
            return min(max(value, self.low), self.high)
        if self.kind == "number":
            raise OptionError(f"{self.name} {value:g} is outside {self.low:g} to {self.high:g}: write a figure between them.")
        raise OptionError(
            f"{self.name} {show.length(value)} is outside {show.length(self.low)} to {show.full(self.high)}: "
            "write a figure between them."
        )

    def check(self, value: Value) -> Value:
        """A value already in cm, held against the range. Raises OptionError."""
        if self.kind == "choice":
            return self.read(str(value), "cm")
        if isinstance(value, str):
            return self.read(value, "cm")
        return self._within(float(value), METRIC)


def measured(chart: Chart, code: str) -> Quantity:
    """A measure of the chart as a quantity. Raises KeyError when it was not read."""
    value = chart.get(code)
    if value is None:
        raise KeyError(code)
    return Quantity(value, CATALOGUE[code].name.lower(), code, "measure")
