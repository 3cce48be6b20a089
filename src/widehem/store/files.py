"""Charts between the store and files: what is handed out, and what would change when a file comes in."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart, Reading
from widehem.core.body.chart_file import FiledChart
from widehem.core.body.figure_tables import CURVED, TABLES
from widehem.store.charts import add_reading, core_charts, open_chart
from widehem.store.models import AcceptedDoubt, ChartRow, Production, Wearer


@dataclass(frozen=True)
class Measured:
    """A wearer with the newest chart: its row (None when nothing was begun) and what it says."""

    wearer: Wearer
    row: ChartRow | None
    chart: Chart


def filed(person: Measured) -> FiledChart:
    """A wearer's newest chart as it goes into a file."""
    wearer, row = person.wearer, person.row
    if row is None:
        return FiledChart(wearer.name, wearer.role, wearer.figure)
    readings = {code: person.chart.readings[code] for code in CATALOGUE if code in person.chart.readings}
    return FiledChart(
        wearer.name, wearer.role, wearer.figure, row.taken_on, row.foundation, row.shoes, row.measured_by, readings
    )


def company(session: Session, production_id: int) -> list[Measured]:
    """Every wearer of a production with the chart that counts, by name."""
    wearers = list(session.scalars(select(Wearer).where(Wearer.production_id == production_id).order_by(Wearer.name)))
    newest = (
        select(func.max(ChartRow.id)).join(Wearer).where(Wearer.production_id == production_id).group_by(ChartRow.wearer_id)
    )
    rows = {row.wearer_id: row for row in session.scalars(select(ChartRow).where(ChartRow.id.in_(newest)))}
    charts = core_charts(session, rows.values())
    found = []
    for wearer in wearers:
        row = rows.get(wearer.id)
        found.append(Measured(wearer, row, charts[row.id] if row else Chart(table=TABLES.get(wearer.figure, CURVED))))
    return found


def accepted_doubts(session: Session, chart_ids: Iterable[int]) -> dict[int, set[str]]:
    """Keys of the doubts that are kept knowingly, by chart."""
    found: dict[int, set[str]] = {}
    rows = session.execute(
        select(AcceptedDoubt.chart_id, AcceptedDoubt.doubt).where(AcceptedDoubt.chart_id.in_(list(chart_ids)))
    )
    for chart_id, doubt in rows:
        found.setdefault(chart_id, set()).add(doubt)
    return found


def filed_charts(session: Session, production_id: int) -> list[FiledChart]:
    """The newest charts of a whole production."""
    return [filed(person) for person in company(session, production_id)]


@dataclass(frozen=True)
class Change:
    """One reading a file would change: what stands on the chart now and what the file says."""

    code: str
    now: Reading | None
    new: Reading


@dataclass(frozen=True)
class Incoming:
    """What a file would do to one wearer, called as on the chart when known."""

    chart: FiledChart
    name: str
    known: bool
    changes: tuple[Change, ...]


def look_at(session: Session, production_id: int, charts: Iterable[FiledChart]) -> list[Incoming]:
    """What would change, wearer by wearer; names are compared without case. Nothing is stored."""
    there = {person.wearer.name.lower(): (person.wearer.name, person.chart) for person in company(session, production_id)}
    found = []
    for filed_chart in charts:
        name, now = there.get(filed_chart.wearer.lower(), (filed_chart.wearer, None))
        changes = tuple(
            Change(code, now.readings.get(code) if now else None, reading)
            for code, reading in filed_chart.readings.items()
            if now is None or not _same(now.readings.get(code), reading)
        )
        found.append(Incoming(filed_chart, name, now is not None, changes))
    return found


def _same(now: Reading | None, new: Reading) -> bool:
    """Whether a reading from a file says what stands on the chart already; a missing second reading changes nothing."""
    if now is None:
        return False
    pairs = ((now.first, new.first), (now.second, new.second))
    return all(b is None or (a is not None and a.ticks == b.ticks) for a, b in pairs)


def take_in(session: Session, production: Production, charts: Iterable[FiledChart]) -> tuple[int, int]:
    """Store what a file says, all of it in one go; returns how many wearers are new and how many readings were added."""
    by_name = {wearer.name.lower(): wearer for wearer in production.wearers}
    incoming = look_at(session, production.id, charts)
    begun = added = 0
    for entry in incoming:
        filed_chart = entry.chart
        wearer = by_name.get(filed_chart.wearer.lower())
        if wearer is None:
            wearer = Wearer(
                production_id=production.id, name=filed_chart.wearer, role=filed_chart.part, figure=filed_chart.figure
            )
            session.add(wearer)
            session.flush()
            begun += 1
        row = open_chart(session, wearer, filed_chart.read_on)
        if not entry.known:
            row.foundation, row.shoes, row.measured_by = filed_chart.foundation, filed_chart.shoes, filed_chart.read_by
        for change in entry.changes:
            for turn, length in ((1, change.new.first), (2, change.new.second)):
                if length is not None:
                    add_reading(session, row, change.code, turn, length)
                    added += 1
    return begun, added
