"""Numbers that carry their working.

A method writes plain arithmetic on quantities; each result knows its value, how it came about, and which measures it
rests on. The step text, the method card and the refusals all read it from there.
"""

from __future__ import annotations

from typing import Literal

from widehem.core.units import METRIC, Display
from widehem.core.values import record

Source = Literal["measure", "ease", "option", "result", "constant"]
Number = int | float

_RANK = {"+": 1, "−": 1, "×": 2, "÷": 2}


@record(frozen=True, eq=False, slots=True)
class Quantity:
    """A length (cm) or a plain number with its working.

    value: cm, or a bare number when plain. name: what people call it; a named quantity stands in later sums by name
    and value. code: the measure, ease or option it came from. sign and parts: the sum that made it.
    """

    value: float
    name: str = ""
    code: str = ""
    source: Source = "result"
    plain: bool = False
    sign: str = ""
    parts: tuple[Quantity, ...] = ()

    def __float__(self) -> float:
        return self.value

    def __add__(self, other: Quantity | Number) -> Quantity:
        return _join("+", self, _length(other))

    def __radd__(self, other: Number) -> Quantity:
        return _join("+", _length(other), self)

    def __sub__(self, other: Quantity | Number) -> Quantity:
        return _join("−", self, _length(other))

    def __rsub__(self, other: Number) -> Quantity:
        return _join("−", _length(other), self)

    def __mul__(self, other: Quantity | Number) -> Quantity:
        return _join("×", self, _plain(other))

    def __rmul__(self, other: Number) -> Quantity:
        return _join("×", _plain(other), self)

    def __truediv__(self, other: Quantity | Number) -> Quantity:
        return _join("÷", self, _plain(other))

    def __neg__(self) -> Quantity:
        return _join("−", _length(0), self)

    def __lt__(self, other: Quantity | Number) -> bool:
        return self.value < float(other)

    def __le__(self, other: Quantity | Number) -> bool:
        return self.value <= float(other)

    def __gt__(self, other: Quantity | Number) -> bool:
        return self.value > float(other)

    def __ge__(self, other: Quantity | Number) -> bool:
        return self.value >= float(other)

    def called(self, name: str) -> Quantity:
        """The same, with a name of its own."""
        return Quantity(self.value, name, self.code, self.source, self.plain, self.sign, self.parts)

    def measures(self) -> tuple[str, ...]:
        """Codes of the measures this rests on, in order of first use."""
        found: dict[str, None] = {}
        pending = [self]
        while pending:
            here = pending.pop(0)
            if here.source == "measure":
                found[here.code] = None
            pending[:0] = here.parts
        return tuple(found)

    def figure(self, show: Display = METRIC) -> str:
        """The value alone, in the unit."""
        if self.plain:
            return f"{self.value:.3f}".rstrip("0").rstrip(".")
        return (
            show.constant(self.value)
            if self.source == "constant"
            else show.setting(self.value)
            if self.source == "option"
            else show.length(self.value)
        )

    def as_term(self, show: Display = METRIC) -> str:
        """How it stands inside another sum: 'hip 98.0', '1.5', or its own sum."""
        if self.name:
            return f"{self.name} {self.figure(show)}"
        return self.working(show) if self.parts else self.figure(show)

    def working(self, show: Display = METRIC) -> str:
        """How it came about: 'hip 98.0 ÷ 4 + 1.5'."""
        if not self.parts:
            return self.as_term(show)
        if len(self.sign) > 1:  # "the smaller of" and its like
            return f"{self.sign} " + " and ".join(part.as_term(show) for part in self.parts)
        left, right = self.parts
        if self.sign == "−" and left.source == "constant" and left.value == 0:
            return f"−({right.as_term(show)})"
        mine = _RANK[self.sign]
        words = [left.as_term(show), right.as_term(show)]
        if not left.name and left.parts and _RANK.get(left.sign, 0) < mine:
            words[0] = f"({words[0]})"
        if not right.name and right.parts and _RANK.get(right.sign, 0) <= mine and self.sign in "−÷×":
            words[1] = f"({words[1]})"
        return f"{words[0]} {self.sign} {words[1]}"


def _length(value: Quantity | Number) -> Quantity:
    return value if isinstance(value, Quantity) else Quantity(float(value), source="constant")


def _plain(value: Quantity | Number) -> Quantity:
    return value if isinstance(value, Quantity) else Quantity(float(value), source="constant", plain=True)


def _join(sign: str, a: Quantity, b: Quantity) -> Quantity:
    if sign == "+":
        value = a.value + b.value
    elif sign == "−":
        value = a.value - b.value
    elif sign == "×":
        value = a.value * b.value
    else:
        value = a.value / b.value
    return Quantity(value, plain=a.plain and b.plain, sign=sign, parts=(a, b))


def smaller_of(a: Quantity | Number, b: Quantity | Number) -> Quantity:
    """The smaller of two lengths, with both in its working."""
    parts = (_length(a), _length(b))
    return Quantity(min(parts[0].value, parts[1].value), sign="the smaller of", parts=parts)


def larger_of(a: Quantity | Number, b: Quantity | Number) -> Quantity:
    """The larger of two lengths, with both in its working."""
    parts = (_length(a), _length(b))
    return Quantity(max(parts[0].value, parts[1].value), sign="the larger of", parts=parts)


def drawn(value: float, name: str, *sources: Quantity) -> Quantity:
    """A length taken off the drawing; it rests on the measures of its sources."""
    return Quantity(value, name, sign="as drawn from" if sources else "", parts=sources)
