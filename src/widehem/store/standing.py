"""The day of a house: every garment and every chart, in few questions, with a mark of all its state rests on."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from widehem.store.models import AcceptedDoubt, ChartRow, DesignRow, Docket, HouseTable, Production, ReadingRow, Wearer


@dataclass(frozen=True)
class GarmentRow:
    """A garment. mark: stands for everything its drawing rests on; chart_id: of the chart it is drawn on, 0 for none."""

    id: int
    name: str
    method: str
    production_id: int
    wearer_id: int
    wearer: str
    updated_at: datetime
    due_on: date | None
    waits: str
    cut_on: date | None
    fitted_on: date | None
    finished_on: date | None
    chart_id: int
    newest: int
    mark: tuple[Any, ...]


@dataclass(frozen=True)
class PersonRow:
    """A wearer. read_at: when the last reading was written; mark: stands for everything the doubts of the chart rest on."""

    id: int
    name: str
    production_id: int
    chart_id: int
    read_at: datetime | None
    mark: tuple[Any, ...]


@dataclass(frozen=True)
class House:
    """All garments and wearers, the newest first."""

    garments: tuple[GarmentRow, ...]
    people: tuple[PersonRow, ...]


_ORDER = (ChartRow.taken_on, ChartRow.id)


def whole_house(session: Session, production_id: int | None = None) -> House:
    """Everything of a house, or of one production."""
    mine = Wearer.production_id == production_id if production_id else Wearer.id.is_not(None)
    charts = session.execute(
        select(ChartRow.id, ChartRow.wearer_id, ChartRow.foundation).join(ChartRow.wearer).where(mine).order_by(*_ORDER)
    ).all()
    newest = {wearer_id: number for number, wearer_id, _ in charts}
    worn = {number: foundation for number, _, foundation in charts}
    last: dict[int, tuple[int, datetime]] = {
        number: (at, moment)
        for number, at, moment in session.execute(
            select(ReadingRow.chart_id, func.max(ReadingRow.id), func.max(ReadingRow.created_at)).group_by(ReadingRow.chart_id)
        )
    }
    kept = dict(
        session.execute(select(AcceptedDoubt.chart_id, func.max(AcceptedDoubt.id)).group_by(AcceptedDoubt.chart_id)).all()
    )
    tables = {f"house-{number}": version for number, version in session.execute(select(HouseTable.id, HouseTable.version))}
    people = []
    figures: dict[int, tuple[Any, ...]] = {}
    names: dict[int, str] = {}
    wearers = select(Wearer.id, Wearer.name, Wearer.production_id, Wearer.figure).where(mine, Wearer.binned_at.is_(None))
    for number, name, production, figure in session.execute(wearers):
        chart = newest.get(number, 0)
        figures[number], names[number] = (figure, tables.get(figure)), name
        read = last.get(chart)
        mark = ("person", number, chart, read, worn.get(chart), kept.get(chart), figures[number])
        people.append(PersonRow(number, name, production, chart, read[1] if read else None, mark))
    return House(
        tuple(_garments(session, production_id, newest, worn, last, figures, names)),
        tuple(sorted(people, key=lambda person: person.read_at or datetime.min, reverse=True)),
    )


def _garments(
    session: Session, production_id: int | None, newest: Mapping[int, int], worn: Mapping[int, str],
    last: Mapping[int, tuple[int, datetime]], figures: Mapping[int, tuple[Any, ...]], names: Mapping[int, str],
) -> list[GarmentRow]:  # fmt: skip
    query = (
        select(
            Docket.id, Docket.name, DesignRow.method, Docket.production_id, Docket.wearer_id, Docket.updated_at, Docket.due_on,
            Docket.waits, Docket.cut_on, Docket.fitted_on, Docket.finished_on, Docket.chart_id, Docket.bodice_id, Docket.version,
            DesignRow.version.label("of_design"),
        )
        .add_columns(Docket.under, Docket.padded_under)
        .join(Docket.design)
        .join(Production, Production.id == Docket.production_id)
        .where(Docket.binned_at.is_(None), Production.binned_at.is_(None))
        .order_by(Docket.updated_at.desc(), Docket.id.desc())
    )  # fmt: skip
    if production_id:
        query = query.where(Docket.production_id == production_id)
    rows = [row for row in session.execute(query) if row.wearer_id in figures]
    marks: dict[int, tuple[Any, ...]] = {}
    for row in rows:
        new = newest.get(row.wearer_id, 0)
        chart = row.chart_id or new
        on = tuple((at, last.get(at), worn.get(at)) for at in (chart, new))
        marks[row.id] = (
            row.id,
            row.version,
            row.updated_at,
            row.of_design,
            row.under,
            row.padded_under,
            on,
            figures[row.wearer_id],
        )
    return [
        GarmentRow(
            row.id, row.name, row.method, row.production_id, row.wearer_id, names[row.wearer_id], row.updated_at, row.due_on,
            row.waits, row.cut_on, row.fitted_on, row.finished_on, row.chart_id or newest.get(row.wearer_id, 0),
            newest.get(row.wearer_id, 0), (*marks[row.id], marks.get(row.bodice_id)),
        )
        for row in rows
    ]  # fmt: skip
