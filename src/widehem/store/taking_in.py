"""A file of charts stored whole or not at all, and quickly: what is to be written is worked out before the database is held."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

from sqlalchemy import func, insert, select, update
from sqlalchemy.orm import Session

from widehem.core.body.chart import Reading
from widehem.core.body.chart_file import FiledChart
from widehem.core.units import Length
from widehem.store.charts import reading_values
from widehem.store.database import Store
from widehem.store.files import PLACES, Incoming, at_place, look_at
from widehem.store.models import ChartRow, Docket, Production, ReadingRow, Wearer, now

ROUNDS = 3  # of working it out anew, when somebody wrote meanwhile, before it is worked out with the database held


def take_in(store: Store, production_id: int, charts: Sequence[FiledChart]) -> tuple[int, int]:
    """Store what a file says, all of it in one go; returns how many wearers are new and how many readings were added. Raises
    LookupError when the production is gone."""
    for _ in range(ROUNDS):
        with store.read() as session:
            stood = _stands(session, production_id)
            plan = look_at(session, production_id, charts)
        with store.write() as session:
            _there(session, production_id)
            if _stands(session, production_id) == stood:
                return _write(session, production_id, plan)
    with store.write() as session:
        _there(session, production_id)
        return _write(session, production_id, look_at(session, production_id, charts))


def _there(session: Session, production_id: int) -> None:
    if session.get(Production, production_id) is None:
        raise LookupError(production_id)


def _stands(session: Session, production_id: int) -> tuple[Any, ...]:
    """Whatever a plan rests on: the wearers by name, their charts by day, and the last reading."""
    here = Wearer.production_id == production_id
    charts = select(ChartRow.id, ChartRow.taken_on).join(Wearer).where(here).order_by(ChartRow.id)
    return (
        session.execute(select(Wearer.id, Wearer.name).where(here).order_by(Wearer.id)).all(),
        session.execute(charts).all(),
        session.scalar(select(func.max(ReadingRow.id)).join(ChartRow).join(Wearer).where(here)),
    )


def _write(session: Session, production_id: int, plan: Iterable[Incoming]) -> tuple[int, int]:
    plan = [entry for entry in plan if entry.onto is not None or entry.chart.readings or not entry.known]
    wearers = _wearers(session, production_id, plan)
    charts = _charts(session, plan, wearers)
    rows = [
        reading_values(chart_id, change.code, turn, length, side, change.new.carried)
        for entry, chart_id in zip(plan, charts, strict=True)
        for change in entry.changes
        for side, turn, length in _lengths(change.new)
    ]
    if rows:
        session.connection().execute(insert(ReadingRow.__table__), rows)  # type: ignore[arg-type]
    return len(set(wearers) - {entry.wearer_id for entry in plan}), len(rows)


def _lengths(reading: Reading) -> Iterable[tuple[str, int, Length]]:
    for side, turn in PLACES:
        length = at_place(reading, side, turn)
        if length is not None:
            yield side, turn, length


def _wearers(session: Session, production_id: int, plan: Sequence[Incoming]) -> list[int]:
    """The wearer of each chart; who is not there yet is begun."""
    new = {entry.chart.wearer.lower(): entry.chart for entry in reversed(plan) if entry.wearer_id is None}
    values = [
        {"production_id": production_id, "name": chart.wearer, "role": chart.part, "figure": chart.figure}
        for chart in new.values()
    ]
    query = insert(Wearer).returning(Wearer.id, sort_by_parameter_order=True)
    ids = dict(zip(new, session.scalars(query, values), strict=True)) if values else {}
    return [entry.wearer_id if entry.wearer_id is not None else ids[entry.chart.wearer.lower()] for entry in plan]


def _charts(session: Session, plan: Sequence[Incoming], wearers: Sequence[int]) -> list[int]:
    """The chart each goes on; dockets stay on the newest of those that were there before."""
    begun = [(entry.chart, wearer) for entry, wearer in zip(plan, wearers, strict=True) if entry.onto is None]
    for wearer_id in {entry.wearer_id for entry in plan if entry.onto is None and entry.wearer_id is not None}:
        last = select(ChartRow.id).where(ChartRow.wearer_id == wearer_id).order_by(ChartRow.taken_on.desc(), ChartRow.id.desc())
        held = update(Docket).where(Docket.wearer_id == wearer_id, Docket.chart_id.is_(None))
        session.execute(held.values(chart_id=last.limit(1).scalar_subquery()))
    values = [
        {
            "wearer_id": wearer, "taken_on": chart.read_on or now().date(), "foundation": chart.foundation, "shoes": chart.shoes,
            "measured_by": chart.read_by, "note": chart.note,
        }
        for chart, wearer in begun
    ]  # fmt: skip
    query = insert(ChartRow).returning(ChartRow.id, sort_by_parameter_order=True)
    ids = iter(session.scalars(query, values).all() if values else [])
    return [entry.onto.id if entry.onto is not None else next(ids) for entry in plan]
