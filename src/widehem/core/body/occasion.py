"""Doubts about the chart as a whole: how old it is, and whether it was taken over what the costume is worn over."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import date

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.body.doubts import Doubt
from widehem.core.units import say
from widehem.core.values import record

OLD_DAYS, OLD_YOUNG_DAYS = 183, 56  # six months; children, who grow, eight weeks
GROUP = "This chart"


@record(frozen=True)
class Occasion:
    """When a chart was taken and what it is for. costumes: (garment, what it is worn over) where that is known."""

    today: date
    taken_on: date | None = None
    costumes: tuple[tuple[str, str], ...] = ()


def too_old(chart: Chart, days: int) -> bool:
    """Whether readings of this age, in days, are read again before cloth is cut."""
    return days > (OLD_YOUNG_DAYS if chart.table.young else OLD_DAYS)


def age_words(days: int) -> str:
    """'today', '5 days', '9 weeks', '7 months'."""
    if days < 14:
        return "today" if days <= 0 else f"{days} day{'s' if days > 1 else ''}"
    return f"{days // 7} weeks" if days < 120 else f"{days // 30} months"


def chart_doubts(chart: Chart, occasion: Occasion) -> tuple[Doubt, ...]:
    """What is doubtful about the chart as a whole; nothing while nothing is read."""
    if not any(chart):
        return ()
    return (*_age(chart, occasion), *_carried(chart, occasion), *_foundation(chart, occasion))


def _usual(chart: Chart) -> str:
    return "a child's chart holds eight weeks" if chart.table.young else "a chart holds six months"


def _age(chart: Chart, occasion: Occasion) -> Iterator[Doubt]:
    if occasion.taken_on is None:
        return
    days = (occasion.today - occasion.taken_on).days
    if too_old(chart, days):
        words = say(f"The chart is {age_words(days)} old; {_usual(chart)}: read the wearer again, or the girths at least.")
        yield Doubt("age", GROUP, (), words, 0.0, occasion.taken_on.isoformat())


def _carried(chart: Chart, occasion: Occasion) -> Iterator[Doubt]:
    for code in chart:
        on = chart.readings[code].carried
        if on is not None and too_old(chart, (occasion.today - on).days):
            age = age_words((occasion.today - on).days)
            words = say(
                f"{CATALOGUE[code].name} {{0u}} is carried over and {age} old; {_usual(chart)}: read it again.",
                chart.get(code) or 0.0,
            )
            yield Doubt("age", GROUP, (code,), words, 0.0, on.isoformat())


def _foundation(chart: Chart, occasion: Occasion) -> Iterator[Doubt]:
    read_over = _plain(chart.foundation)
    for garment, foundation in occasion.costumes:
        if foundation.strip() and chart.foundation.strip() and _plain(foundation) != read_over:
            words = say(
                _unbraced(f"The chart was read over {chart.foundation.strip()}; {garment} is worn over {foundation.strip()}: ")
                + "read the girths again over that, on a chart of its own."
            )
            yield Doubt("foundation", GROUP, (), words, 0.0, f"{_plain(garment)}/{_plain(foundation)}/{read_over}")


def _plain(text: str) -> str:
    return " ".join(text.lower().split())


def _unbraced(text: str) -> str:
    """What somebody typed, so that nothing in it is taken for a place of a length."""
    return text.replace("{", "(").replace("}", ")")
