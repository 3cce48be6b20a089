"""A chart: the readings of one wearer, each measure read once or twice."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.units import Length, LengthError, Unit, cm_of, parse_length


@dataclass(frozen=True)
class Reading:
    """What was read for one measure. What counts is the mean of the two readings, or the only one."""

    code: str
    first: Length | None = None
    second: Length | None = None

    @property
    def ticks(self) -> int | None:
        read = [length.ticks for length in (self.first, self.second) if length is not None]
        return round(sum(read) / len(read)) if read else None

    @property
    def cm(self) -> float | None:
        ticks = self.ticks
        return None if ticks is None else cm_of(ticks)

    @property
    def spread(self) -> float:
        """How far the two readings lie apart, cm; 0 when there are not two."""
        if self.first is None or self.second is None:
            return 0.0
        return abs(self.first.cm - self.second.cm)


class ChartError(ValueError):
    """A chart that was handed over cannot be read; one sentence."""


@dataclass(frozen=True)
class Chart:
    """Readings by code, with what they were taken over and the figure table they are judged by. Immutable."""

    readings: Mapping[str, Reading] = field(default_factory=dict)
    foundation: str = ""
    figure: str = "curved"

    def get(self, code: str) -> float | None:
        """The value that counts, cm, or None when it was not read."""
        reading = self.readings.get(code)
        return None if reading is None else reading.cm

    def __contains__(self, code: str) -> bool:
        return self.get(code) is not None

    def __iter__(self) -> Iterator[str]:
        """Codes that were read, in catalogue order."""
        return (code for code in CATALOGUE if code in self)

    def missing(self, codes: Iterable[str]) -> tuple[str, ...]:
        return tuple(code for code in codes if code not in self)

    def with_value(self, code: str, length: Length) -> Chart:
        """The chart as it would be with this one measure read anew."""
        return Chart({**self.readings, code: Reading(code, length)}, self.foundation, self.figure)

    def key(self) -> tuple[tuple[str, int], ...]:
        """What a draft depends on, hashable."""
        return tuple((code, r.ticks) for code, r in sorted(self.readings.items()) if r.ticks is not None)


def chart_of(values: Mapping[str, float | int | str], unit: Unit = "cm", figure: str = "curved") -> Chart:
    """A chart from plain values: numbers in the unit, or words like '38 1/2'.

    Raises ChartError naming the measure and the figure.
    """
    readings = {}
    for code, value in values.items():
        if code not in CATALOGUE:
            raise ChartError(f'"{code}" is not a measure of the catalogue: `widehem measures` lists the codes.')
        if isinstance(value, bool) or not isinstance(value, float | int | str):
            raise ChartError(f'{code} is {value!r}: write a number, or words like "38 1/2".')
        try:
            length = parse_length(repr(value) if isinstance(value, float) else str(value), unit, least_cm=0.1)
        except LengthError as error:
            raise ChartError(f"{code}: {error}") from None
        readings[code] = Reading(code, length)
    return Chart(readings, figure=figure)
