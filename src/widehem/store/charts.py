"""Charts in the store: adding readings, and turning rows into a core chart."""

from __future__ import annotations

from datetime import date
from typing import cast

from sqlalchemy import select
from sqlalchemy.orm import Session, selectinload

from widehem.core.body.chart import Chart, Reading
from widehem.core.units import Length, Unit
from widehem.store.models import AcceptedDoubt, ChartRow, ReadingRow, Wearer, now


def latest_chart(session: Session, wearer_id: int) -> ChartRow | None:
    """The newest chart of a wearer with its readings and accepted doubts."""
    query = select(ChartRow).where(ChartRow.wearer_id == wearer_id).order_by(ChartRow.id.desc()).limit(1)
    return session.scalars(query.options(selectinload(ChartRow.readings), selectinload(ChartRow.accepted))).first()


def open_chart(session: Session, wearer: Wearer, taken_on: date | None = None) -> ChartRow:
    """The newest chart of a wearer; begun when there is none."""
    row = latest_chart(session, wearer.id)
    if row is None:
        row = ChartRow(wearer_id=wearer.id, taken_on=taken_on or now().date(), foundation="", shoes="", measured_by="")
        session.add(row)
        session.flush()
    return row


def core_chart(row: ChartRow | None) -> Chart:
    """The chart that counts: of every measure and turn the last reading, unless it was struck out."""
    if row is None:
        return Chart()
    last: dict[str, dict[int, ReadingRow]] = {}
    for reading in row.readings:
        last.setdefault(reading.measure, {})[reading.turn] = reading
    readings = {}
    for code, turns in last.items():
        first, second = (_length(turns.get(turn)) for turn in (1, 2))
        if first is not None or second is not None:
            readings[code] = Reading(code, first, second)
    return Chart(readings, row.foundation)


def _length(row: ReadingRow | None) -> Length | None:
    if row is None or row.ticks is None:
        return None
    return Length(row.ticks, row.typed, cast(Unit, row.unit))


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
