"""Charts in the store: adding readings, and turning rows into a core chart."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from typing import cast

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from widehem.core.body.chart import Chart, Reading
from widehem.core.units import Length, Unit
from widehem.store.models import AcceptedDoubt, ChartRow, ReadingRow, Wearer, now


def latest_chart(session: Session, wearer_id: int) -> ChartRow | None:
    """The newest chart of a wearer."""
    query = select(ChartRow).where(ChartRow.wearer_id == wearer_id).order_by(ChartRow.id.desc()).limit(1)
    return session.scalars(query).first()


def open_chart(session: Session, wearer: Wearer, taken_on: date | None = None) -> ChartRow:
    """The newest chart of a wearer; begun when there is none."""
    row = latest_chart(session, wearer.id)
    if row is None:
        row = ChartRow(wearer_id=wearer.id, taken_on=taken_on or now().date(), foundation="", shoes="", measured_by="")
        session.add(row)
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
    newest = (
        select(ReadingRow.chart_id, func.max(ReadingRow.id)).where(ReadingRow.chart_id.in_(found)).group_by(ReadingRow.chart_id)
    )
    last = dict(session.execute(newest).all())
    file = session.get_bind().engine.url.database
    stamps: dict[int, object] = {
        number: (file, row.created_at, last.get(number), row.foundation, figures[row.wearer_id])
        for number, row in found.items()
    }
    charts = {number: _known[number][1] for number, stamp in stamps.items() if number in _known and _known[number][0] == stamp}
    for number, readings in _readings(session, [number for number in found if number not in charts]).items():
        row = found[number]
        charts[number] = Chart(readings, row.foundation, figures[row.wearer_id])
        while len(_known) >= _MOST_KNOWN:
            _known.pop(next(iter(_known)), None)
        _known[number] = (stamps[number], charts[number])
    return charts


def _readings(session: Session, numbers: list[int]) -> dict[int, dict[str, Reading]]:
    """Of every measure and turn the last reading, by chart and code; what was struck out is left out."""
    turns: dict[int, dict[str, dict[int, Length | None]]] = {number: {} for number in numbers}
    if numbers:
        columns = (
            ReadingRow.chart_id,
            ReadingRow.measure,
            ReadingRow.turn,
            ReadingRow.ticks,
            ReadingRow.typed,
            ReadingRow.unit,
        )
        query = select(*columns).where(ReadingRow.chart_id.in_(numbers)).order_by(ReadingRow.id)
        for number, code, turn, ticks, typed, unit in session.execute(query):
            length = None if ticks is None else Length(ticks, typed, cast(Unit, unit))
            turns[number].setdefault(code, {})[turn] = length
    return {
        number: {code: Reading(code, both.get(1), both.get(2)) for code, both in codes.items() if any(both.values())}
        for number, codes in turns.items()
    }


def add_reading(session: Session, chart: ChartRow, code: str, turn: int, length: Length | None) -> None:
    """Write a reading down, or strike it out with None; what stood there stays in the history."""
    ticks, typed, unit = (length.ticks, length.typed[:60], length.unit) if length else (None, "", "cm")
    session.add(ReadingRow(chart_id=chart.id, measure=code, turn=turn, ticks=ticks, typed=typed, unit=unit))


def history(session: Session, chart: ChartRow, code: str) -> list[ReadingRow]:
    """Every reading of one measure, the newest first."""
    query = select(ReadingRow).where(ReadingRow.chart_id == chart.id, ReadingRow.measure == code).order_by(ReadingRow.id.desc())
    return list(session.scalars(query))


def accept_doubt(session: Session, chart: ChartRow, doubt: str, why: str) -> None:
    """Keep a doubtful figure knowingly."""
    session.add(AcceptedDoubt(chart_id=chart.id, doubt=doubt[:300], why=why[:300]))
