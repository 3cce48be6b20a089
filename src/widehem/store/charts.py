"""Charts in the store: adding readings, and turning rows into a core chart."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import date
from typing import cast

from sqlalchemy import select
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


def core_charts(session: Session, rows: Iterable[ChartRow]) -> dict[int, Chart]:
    """Several charts at once, by their number."""
    found = {row.id: row for row in rows}
    columns = (ReadingRow.chart_id, ReadingRow.measure, ReadingRow.turn, ReadingRow.ticks, ReadingRow.typed, ReadingRow.unit)
    query = select(*columns).where(ReadingRow.chart_id.in_(found)).order_by(ReadingRow.id)
    last: dict[int, dict[str, dict[int, Length | None]]] = {number: {} for number in found}
    for number, code, turn, ticks, typed, unit in session.execute(query):
        length = None if ticks is None else Length(ticks, typed, cast(Unit, unit))
        last[number].setdefault(code, {})[turn] = length
    wearers = select(Wearer.id, Wearer.figure).where(Wearer.id.in_({row.wearer_id for row in found.values()}))
    figures = dict(session.execute(wearers).tuples().all())
    charts = {}
    for number, codes in last.items():
        row = found[number]
        readings = {code: Reading(code, turns.get(1), turns.get(2)) for code, turns in codes.items()}
        kept = {code: reading for code, reading in readings.items() if reading.ticks is not None}
        charts[number] = Chart(kept, row.foundation, figures[row.wearer_id])
    return charts


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
