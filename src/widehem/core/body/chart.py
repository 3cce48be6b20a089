"""A chart: the readings of one wearer, each measure read once or twice."""

from __future__ import annotations

from collections.abc import Hashable, Iterable, Iterator, Mapping
from dataclasses import field
from datetime import date
from typing import Literal

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.figure_tables import CURVED, TABLES, FigureTable
from widehem.core.units import Length, LengthError, Unit, cm_of, length_of, parse_length
from widehem.core.values import kept, record, replace

Side = Literal["left", "right"]
SIDES: tuple[Side, ...] = ("left", "right")


class Kept:
    """Something that comes to one exact length."""

    @property
    def ticks(self) -> int | None:
        raise NotImplementedError

    @property
    def cm(self) -> float | None:
        ticks = self.ticks
        return None if ticks is None else cm_of(ticks)


def _mean(first: Length | None, second: Length | None) -> int | None:
    """What counts of two readings of one place, ticks: their mean, or the only one."""
    if first is None or second is None:
        only = first or second
        return None if only is None else only.ticks
    return round((first.ticks + second.ticks) / 2)


@record(frozen=True)
class Turns(Kept):
    """One place read once or twice. What counts is the mean of the two, or the only one."""

    first: Length | None = None
    second: Length | None = None

    def __bool__(self) -> bool:
        return self.first is not None or self.second is not None

    @property
    def ticks(self) -> int | None:
        return _mean(self.first, self.second)

    @property
    def spread(self) -> float:
        """How far the two readings lie apart, cm; 0 when there are not two."""
        if self.first is None or self.second is None:
            return 0.0
        return abs(self.first.cm - self.second.cm)


NOTHING = Turns()


@record(frozen=True)
class Reading(Kept):
    """What was read for one measure, once or twice, and left and right apart where the maker did so.

    What counts is the mean of both sides; a side that was not read apart is the common reading. carried: the day it was
    truly read on, when it was carried over from an older chart. hour: the time of day it was read at, '16:30', where noted.
    """

    code: str
    first: Length | None = None
    second: Length | None = None
    left: Turns = NOTHING
    right: Turns = NOTHING
    carried: date | None = None
    hour: str = ""

    def side(self, which: Side) -> Turns:
        """What counts on one side of the body."""
        return (self.left if which == "left" else self.right) or Turns(self.first, self.second)

    def at(self, place: Side | str) -> Turns:
        """What was read at this very place: '' for both sides alike, 'left' or 'right'."""
        return self.left if place == "left" else self.right if place == "right" else Turns(self.first, self.second)

    @property
    def apart(self) -> bool:
        """Whether left or right was read by itself."""
        return (self.left is not NOTHING and bool(self.left)) or (self.right is not NOTHING and bool(self.right))

    @property
    def ticks(self) -> int | None:
        if not self.apart:
            return _mean(self.first, self.second)
        read = [ticks for ticks in (self.side("left").ticks, self.side("right").ticks) if ticks is not None]
        return round(sum(read) / len(read)) if read else None

    @property
    def spread(self) -> float:
        """How far two readings of the same place lie apart, cm: the widest; 0 when no place was read twice."""
        return max(self.at(place).spread for place in ("", *SIDES))


class ChartError(ValueError):
    """A chart that was handed over cannot be read; one sentence."""


@record(frozen=True)
class Chart:
    """Readings by code, with what they were taken over and the figure table they are judged by. Immutable."""

    readings: Mapping[str, Reading] = field(default_factory=dict)
    foundation: str = ""
    table: FigureTable = CURVED

    def get(self, code: str) -> float | None:
        """The value that counts, cm, or None when it was not read."""
        return self.values.get(code)

    @kept
    def values(self) -> dict[str, float]:
        """Every value that counts, cm, by code."""
        return {code: cm for code, reading in self.readings.items() if (cm := reading.cm) is not None}

    def back_arc(self, code: str) -> float | None:
        """What remains of a girth behind a front arc, cm; None for another measure or where one of the two is missing."""
        whole, front = self.get(code.removesuffix("_front")), self.get(code)
        arc = code in CATALOGUE and CATALOGUE[code].kind == "arc"
        return whole - front if arc and whole is not None and front is not None else None

    def __contains__(self, code: str) -> bool:
        return code in self.values

    def __iter__(self) -> Iterator[str]:
        """Codes that were read, in catalogue order."""
        return (code for code in CATALOGUE if code in self.values)

    def missing(self, codes: Iterable[str]) -> tuple[str, ...]:
        return tuple(code for code in codes if code not in self)

    def with_value(self, code: str, length: Length) -> Chart:
        """The chart as it would be with this one measure read anew."""
        return replace(self, readings={**self.readings, code: Reading(code, length)})

    def without(self, code: str) -> Chart:
        """The chart without this one measure."""
        return replace(self, readings={other: reading for other, reading in self.readings.items() if other != code})

    @kept
    def stamp(self) -> Hashable:
        """Stands for everything that is written on the chart and the table it is judged by."""
        said = (
            (
                code,
                *(
                    length and length.ticks
                    for place in ("", *SIDES)
                    for length in (reading.at(place).first, reading.at(place).second)
                ),
            )
            for code, reading in self.readings.items()
        )
        return self.table, frozenset(said)

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
            if isinstance(value, float) and unit == "cm":
                length = length_of(value, least_cm=0.1)
            else:
                length = parse_length(str(value), unit, least_cm=0.1)
        except LengthError as error:
            raise ChartError(f"{code}: {error}") from None
        readings[code] = Reading(code, length)
    return Chart(readings, table=TABLES[figure])
