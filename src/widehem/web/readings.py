"""Readings out of a form: what was typed, what stood there when the page was made, and what stands there now."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from sqlalchemy.orm import Session

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import SIDES, Chart, Reading, Turns
from widehem.core.days import HourError, hour_of
from widehem.core.units import Length, LengthError, cm_of, parse_length
from widehem.store.charts import add_reading, core_chart
from widehem.store.models import ChartRow, Wearer
from widehem.web.show import display

LEAST_CM = 0.5
TURNS = ("first", "second")
HOUR = "hour"  # the field of the time of day


def field_name(side: str, turn: str) -> str:
    """The name of a field: 'first', or 'left-second'."""
    return f"{side}-{turn}" if side else turn


def was_name(name: str) -> str:
    """The hidden field beside it: what stood there when the page was made."""
    return f"was-{name}"


def stood(reading: Reading, side: str, turn: str) -> str:
    """What a page notes as standing in a field: its ticks, or nothing. What is carried over does not stand in it."""
    length = _standing(reading, side, turn)
    return "" if length is None else str(length.ticks)


def shown(reading: Reading, side: str, turn: str) -> str:
    """What a field shows: the reading in the maker's unit; what is carried over is left to be read."""
    length = _standing(reading, side, turn)
    return "" if length is None else display().length(length.cm)


def _standing(reading: Reading, side: str, turn: str) -> Length | None:
    turns = reading.at(side)
    return None if reading.carried else turns.first if turn == "first" else turns.second


@dataclass
class Typed:
    """One measure as it came in. read: what each changed field says, None to strike it out; was: ticks it replaces; hour: the
    time of day, None where the form asked for none."""

    code: str
    texts: dict[str, str] = field(default_factory=dict)
    read: dict[tuple[str, str], Length | None] = field(default_factory=dict)
    was: dict[tuple[str, str], int | None] = field(default_factory=dict)
    errors: dict[str, str] = field(default_factory=dict)
    hour: str | None = None
    notes: list[str] = field(default_factory=list)


def read_form(form: Mapping[str, str], code: str, now: Reading) -> Typed:
    """The fields of a form that were changed on it, each read or with a sentence why it cannot be.

    now: what stands on the chart, for a form that does not tell what it was made on.
    """
    typed, show = Typed(code), display()
    if HOUR in form:
        typed.texts[HOUR] = form[HOUR].strip()
        try:
            typed.hour = hour_of(form[HOUR])
        except HourError as error:
            typed.errors[HOUR] = f"{CATALOGUE[code].name}, time of day: {error}"
    for side in ("", *SIDES):
        for turn in TURNS:
            name = field_name(side, turn)
            if name not in form:
                continue
            text, was = form[name].strip(), form.get(was_name(name), stood(now, side, turn))
            ticks = int(was) if was.isdecimal() and len(was) < 12 else None
            typed.texts[name] = text
            if text == ("" if ticks is None else show.length(cm_of(ticks))):
                continue
            try:
                typed.read[side, turn] = parse_length(text, show.unit, least_cm=LEAST_CM) if text else None
                typed.was[side, turn] = ticks
            except LengthError as error:
                typed.errors[name] = f"{CATALOGUE[code].name}: {error}"
    return typed


def as_typed(chart: Chart, typed: Typed) -> Chart:
    """The chart as it would be with what is in the form; fields that cannot be read yet are left out."""
    if not typed.read:
        return chart
    now = chart.readings.get(typed.code) or Reading(typed.code)
    if now.carried:
        now = Reading(typed.code)
    places = {side: now.at(side) for side in ("", *SIDES)}
    for (side, turn), length in typed.read.items():
        both = places[side]
        places[side] = Turns(length, both.second) if turn == "first" else Turns(both.first, length)
    both = places[""]
    reading = Reading(typed.code, both.first, both.second, places["left"], places["right"])
    if reading.ticks is None:
        return chart.without(typed.code)
    return Chart({**chart.readings, typed.code: reading}, chart.foundation, chart.table)


def read_words(typed: Typed, wearer: Wearer) -> str:
    """What a form wrote down, in a sentence."""
    show = display()
    figures = " and ".join(show.full(length.cm) for length in typed.read.values() if length is not None)
    if not typed.read and typed.hour is not None:
        return f"{CATALOGUE[typed.code].name} of {wearer.name}: {f'read at {typed.hour}' if typed.hour else 'no time of day'}."
    at = f", read at {typed.hour}" if typed.hour and figures else ""
    return f"{CATALOGUE[typed.code].name} of {wearer.name}: {figures or 'struck out'}{at}."


def write(session: Session, row: ChartRow, typed: Typed) -> None:
    """Write down what was changed. What somebody else wrote into the same field meanwhile is never replaced unseen.

    Theirs stays and ours becomes the second reading where there is none; where both are taken nothing is written and the
    field gets an error that says what stands there.
    """
    now = core_chart(session, row).readings.get(typed.code) or Reading(typed.code)
    for (side, turn), length in typed.read.items():
        standing, was = _standing(now, side, turn), typed.was[side, turn]
        if (standing.ticks if standing else None) == was:
            add_reading(session, row, typed.code, TURNS.index(turn) + 1, length, side=side, hour=typed.hour or "")
            continue
        if standing is not None and length is not None and standing.ticks == length.ticks:
            continue
        _meanwhile(session, row, typed, now, (side, turn), length)
    if not typed.read and typed.hour is not None and typed.hour != now.hour and now.first is not None and not now.carried:
        add_reading(session, row, typed.code, 1, now.first, hour=typed.hour)


def _meanwhile(
    session: Session, row: ChartRow, typed: Typed, now: Reading, place: tuple[str, str], length: Length | None
) -> None:
    side, turn = place
    show, standing = display(), _standing(now, side, turn)
    there = f"{show.full(standing.cm)} was written here" if standing else "what stood here was struck out"
    other = (side, "second")
    if turn == "first" and length is not None and standing and other not in typed.read and _standing(now, *other) is None:
        add_reading(session, row, typed.code, 2, length, side=side, hour=typed.hour or "")
        typed.notes.append(
            f"{CATALOGUE[typed.code].name}: meanwhile {there}; yours, {show.full(length.cm)}, is kept as the second reading."
        )
        return
    name = field_name(side, turn)
    typed.errors[name] = (
        f"{CATALOGUE[typed.code].name}: meanwhile {there}. Yours is still in the field: send it again to let it follow."
    )
