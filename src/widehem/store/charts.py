"""Charts in the store: adding readings, and turning rows into a core chart."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from typing import Any, cast

from sqlalchemy import Select, func, select
from sqlalchemy.orm import Session

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import SIDES, Chart, Reading, Turns
from widehem.core.units import Length, Unit
from widehem.store.clock import house_day
from widehem.store.models import AcceptedDoubt, ChartRow, Docket, ReadingRow, Wearer
from widehem.store.tables import tables_named


def latest_chart(session: Session, wearer_id: int) -> ChartRow | None:
    """The newest chart of a wearer: that of the latest day."""
    return session.scalars(_newest_first(wearer_id).limit(1)).first()


def _newest_first(wearer_id: int) -> Select[ChartRow]:
    return select(ChartRow).where(ChartRow.wearer_id == wearer_id).order_by(ChartRow.taken_on.desc(), ChartRow.id.desc())


def charts_of(session: Session, wearer_id: int) -> list[ChartRow]:
    """Every chart of a wearer, the newest first."""
    return list(session.scalars(_newest_first(wearer_id)))


def chart_numbered(session: Session, wearer_id: int, chart_id: int | None) -> ChartRow | None:
    """This chart of the wearer; the newest when there is none of that number."""
    row = session.get(ChartRow, chart_id) if chart_id else None
    return row if row is not None and row.wearer_id == wearer_id else latest_chart(session, wearer_id)


def chart_drawn_on(session: Session, docket: Docket) -> ChartRow | None:
    """The chart a docket is drawn on."""
    return chart_numbered(session, docket.wearer_id, docket.chart_id)


def open_chart(session: Session, wearer: Wearer, taken_on: date | None = None) -> ChartRow:
    """The newest chart of a wearer; begun when there is none."""
    row = latest_chart(session, wearer.id)
    if row is None:
        row = ChartRow(
            wearer_id=wearer.id, taken_on=taken_on or house_day(session), foundation="", shoes="", measured_by="", note=""
        )
        session.add(row)
        session.flush()
    return row


def begin_chart(session: Session, wearer: Wearer, taken_on: date, *, carry: bool) -> ChartRow:
    """A new chart beside the old ones. carry: what stands on the newest comes over, marked with the day it was read on.

    Dockets stay on the chart they were drawn on until somebody draws them on the new one.
    """
    last = latest_chart(session, wearer.id)
    row = ChartRow(wearer_id=wearer.id, taken_on=taken_on, foundation="", shoes="", measured_by="", note="")
    session.add(row)
    session.flush()
    if last is None:
        return row
    for docket in session.scalars(select(Docket).where(Docket.wearer_id == wearer.id, Docket.chart_id.is_(None))):
        docket.chart_id = last.id
    if carry:
        row.foundation, row.shoes = last.foundation, last.shoes
        for code, reading in core_chart(session, last).readings.items():
            for side in ("", *SIDES):
                turns = reading.at(side)
                for turn, length in ((1, turns.first), (2, turns.second)):
                    if length is not None:
                        since = reading.carried or last.taken_on
                        add_reading(session, row, code, turn, length, side=side, carried_on=since, hour=reading.hour)
    session.flush()
    return row


def core_chart(session: Session, row: ChartRow | None) -> Chart:
    """The chart that counts: of every measure and turn the last reading, unless it was struck out."""
    return core_charts(session, [row])[row.id] if row is not None else Chart()


_known: dict[int, tuple[object, Chart]] = {}
_MOST_KNOWN = 4096


def core_charts(session: Session, rows: Iterable[ChartRow]) -> dict[int, Chart]:
    """Several charts at once, by their number.

    Readings are only ever added, so a chart is the same as long as its last reading is: those known are not read again.
    """
    found = {row.id: row for row in rows}
    wearers = select(Wearer.id, Wearer.figure).where(Wearer.id.in_({row.wearer_id for row in found.values()}))
    figures = dict(session.execute(wearers).all())
    tables = tables_named(session, figures.values())
    newest = (
        select(ReadingRow.chart_id, func.max(ReadingRow.id)).where(ReadingRow.chart_id.in_(found)).group_by(ReadingRow.chart_id)
    )
    last = dict(session.execute(newest).all())
    file = session.get_bind().engine.url.database
    stamps: dict[int, object] = {
        number: (file, row.created_at, last.get(number), row.foundation, tables[figures[row.wearer_id]])
        for number, row in found.items()
    }
    charts = {number: _known[number][1] for number, stamp in stamps.items() if number in _known and _known[number][0] == stamp}
    for number, readings in _readings(session, [number for number in found if number not in charts]).items():
        row = found[number]
        charts[number] = Chart(readings, row.foundation, tables[figures[row.wearer_id]])
        while len(_known) >= _MOST_KNOWN:
            _known.pop(next(iter(_known)), None)
        _known[number] = (stamps[number], charts[number])
    return charts


def _readings(session: Session, numbers: list[int]) -> dict[int, dict[str, Reading]]:
    """Of every measure, side and turn the last reading, by chart and code; what was struck out is left out.

    What is carried over counts until the measure is read on this chart itself, then all of it goes.
    """
    places: dict[int, dict[str, dict[tuple[str, int], Length | None]]] = {number: {} for number in numbers}
    carried: dict[tuple[int, str], date] = {}
    hours: dict[tuple[int, str], str] = {}
    if numbers:
        columns = (
            ReadingRow.chart_id, ReadingRow.measure, ReadingRow.turn, ReadingRow.ticks, ReadingRow.typed, ReadingRow.unit,
            ReadingRow.side, ReadingRow.carried_on, ReadingRow.hour,
        )  # fmt: skip
        query = select(*columns).where(ReadingRow.chart_id.in_(numbers)).order_by(ReadingRow.id)
        for number, code, turn, ticks, typed, unit, side, carried_on, hour in session.execute(query):
            if code not in CATALOGUE:  # of a version that knew more; it stays where it is
                continue
            mine = places[number].setdefault(code, {})
            if carried_on is not None:
                carried[number, code] = carried_on
            elif carried.pop((number, code), None):
                mine.clear()
            hours[number, code] = hour
            mine[side, turn] = None if ticks is None else Length(ticks, typed, cast(Unit, unit))
    return {
        number: {
            code: _reading(code, mine, carried.get((number, code)), hours[number, code])
            for code, mine in codes.items()
            if any(mine.values())
        }
        for number, codes in places.items()
    }


def _reading(code: str, mine: dict[tuple[str, int], Length | None], carried: date | None, hour: str) -> Reading:
    left, right = (Turns(mine.get((side, 1)), mine.get((side, 2))) for side in SIDES)
    return Reading(code, mine.get(("", 1)), mine.get(("", 2)), left, right, carried, hour)


def add_reading(
    session: Session,
    chart: ChartRow,
    code: str,
    turn: int,
    length: Length | None,
    *,
    side: str = "",
    carried_on: date | None = None,
    hour: str = "",
) -> ReadingRow:
    """Write a reading down, or strike it out with None; what stood there stays in the history. hour: the time of day, where it
    is noted."""
    row = ReadingRow(**reading_values(chart.id, code, turn, length, side, carried_on, hour))
    session.add(row)
    return row


def reading_values(
    chart_id: int, code: str, turn: int, length: Length | None, side: str, carried_on: date | None, hour: str = ""
) -> dict[str, Any]:
    """The values of a reading's row. length None: struck out."""
    ticks, typed, unit = (length.ticks, length.typed[:60], length.unit) if length else (None, "", "cm")
    return {
        "chart_id": chart_id, "measure": code, "turn": turn, "ticks": ticks, "typed": typed, "unit": unit, "side": side,
        "carried_on": carried_on, "hour": hour,
    }  # fmt: skip


def history(session: Session, chart: ChartRow, code: str) -> list[ReadingRow]:
    """Every reading of one measure, the newest first."""
    query = select(ReadingRow).where(ReadingRow.chart_id == chart.id, ReadingRow.measure == code).order_by(ReadingRow.id.desc())
    return list(session.scalars(query))


def last_reading(session: Session, chart_id: int) -> int:
    """The number of the last reading on a chart, 0 when there is none: what somebody else wrote meanwhile has a higher one."""
    return session.scalar(select(func.max(ReadingRow.id)).where(ReadingRow.chart_id == chart_id)) or 0


def accept_doubt(session: Session, chart: ChartRow, doubt: str, why: str) -> None:
    """Keep a doubtful figure knowingly."""
    session.add(AcceptedDoubt(chart_id=chart.id, doubt=doubt[:300], why=why[:300]))
