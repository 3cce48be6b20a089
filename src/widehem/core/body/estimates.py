"""Estimates for what was not read, from a figure table, with the chain of reasons. Never mixed up with a reading."""

from __future__ import annotations

from collections.abc import Mapping

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.body.figure_tables import BASES, FigureTable
from widehem.core.body.formula import read_formula
from widehem.core.units import LONGEST_CM, METRIC, Display
from widehem.core.values import record

FRAME = "F"


class _UnknownError(Exception):
    """Something it rests on was not read and cannot be estimated."""


@record(frozen=True)
class Estimate:
    """An estimated measure, cm. formula: '' when it is the table's own row. rests_on: codes it was worked out from,
    each read or itself estimated."""

    code: str
    cm: float
    formula: str
    rests_on: tuple[str, ...]


@record(frozen=True)
class Estimates:
    """All that can be estimated for a chart."""

    chart: Chart
    table: FigureTable
    found: Mapping[str, Estimate]
    frame: float | None

    def get(self, code: str) -> Estimate | None:
        return self.found.get(code)

    def value(self, code: str) -> float | None:
        """What was read, or what is estimated, cm."""
        read = self.chart.get(code)
        if read is not None:
            return read
        estimate = self.found.get(code)
        return None if estimate is None else estimate.cm

    def working(self, code: str, show: Display = METRIC) -> str:
        """How one estimate came about: 'F 88.0 ÷ 4 + 12.4', or 'the curved table's own body'."""
        estimate = self.found[code]
        if not estimate.formula:
            return f"the {self.table.name.lower()} table's own body"

        def term(name: str) -> str:
            value = self.frame if name == FRAME else self.value(name)
            word = "frame" if name == FRAME else CATALOGUE[name].name.lower()
            return f"{word} {show.length(value or 0.0)}"

        return read_formula(estimate.formula).working(term, show.constant)

    def chain(self, code: str) -> tuple[str, ...]:
        """The estimates an estimate rests on, itself first, down to what was read."""
        found: dict[str, None] = {}
        pending = [code]
        while pending:
            here = pending.pop(0)
            if here in self.found and here not in found:
                found[here] = None
                pending += self.found[here].rests_on
        return tuple(found)


def estimate(chart: Chart, table: FigureTable) -> Estimates:
    """Estimate everything that was not read and can be worked out.

    Waist and hip are never estimated from something else; nor are height and bust, but for the bust from a high bust
    that was read. A chart without any reading takes all four from the table's own row.
    """
    return _Worker(chart, table).all()


def predicted(chart: Chart, table: FigureTable, code: str) -> float | None:
    """What the others foretell for a measure, its own reading set aside, cm; None when they cannot."""
    others = chart.without(code)
    if not any(others):
        return None
    worker = _Worker(others, table)
    try:
        return worker.value(code)
    except _UnknownError:
        return None


class _Worker:
    """Works estimates out on demand, each once."""

    def __init__(self, chart: Chart, table: FigureTable) -> None:
        self.chart, self.table = chart, table
        self.empty = not any(chart)
        self.found: dict[str, Estimate] = {}
        self.open: set[str] = set()

    def all(self) -> Estimates:
        for code in CATALOGUE:
            try:
                self.value(code)
            except _UnknownError:
                continue
        try:
            frame = self.frame()
        except _UnknownError:
            frame = None
        return Estimates(self.chart, self.table, self.found, frame)

    def frame(self) -> float:
        """The frame: high bust and the table's usual difference when it was read, else the bust."""
        high = self.chart.get("high_bust")
        return high + self.table.bust_difference if high is not None else self.value("bust")

    def value(self, code: str) -> float:
        """What was read, or the estimate. Raises _UnknownError."""
        if code == FRAME:
            return self.frame()
        read = self.chart.get(code)
        if read is not None:
            return read
        if code not in self.found:
            if code in self.open:
                raise _UnknownError(code)
            self.open.add(code)
            try:
                self.found[code] = self._work(code)
            finally:
                self.open.discard(code)
        return self.found[code].cm

    def _work(self, code: str) -> Estimate:
        high = self.chart.get("high_bust")
        if code == "bust" and high is not None:
            difference = self.table.bust_difference
            return Estimate(code, high + difference, f"high_bust + {difference:g}", ("high_bust",))
        if code in BASES:
            if not self.empty:
                raise _UnknownError(code)
            return Estimate(code, self.table.row[code], "", ())
        text = self.table.formulas.get(code)
        if text is None:
            raise _UnknownError(code)
        formula = read_formula(text)
        rests = tuple(
            dict.fromkeys(("high_bust" if high is not None else "bust") if name == FRAME else name for name in formula.names)
        )
        try:
            cm = formula.value(self.value)
        except ZeroDivisionError:
            raise _UnknownError(code) from None
        if not 0 < cm < LONGEST_CM:
            raise _UnknownError(code)  # a formula that comes to no length on this body
        return Estimate(code, cm, text, rests)
