"""Charts between the store and files: what is handed out, and what would change when a file comes in."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from datetime import date

from sqlalchemy import and_, func, select
from sqlalchemy.orm import Session, selectinload

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import SIDES, Chart, Reading
from widehem.core.body.chart_file import FiledChart
from widehem.core.body.figure_tables import CURVED, TABLES
from widehem.core.units import Length
from widehem.store.charts import core_charts
from widehem.store.models import AcceptedDoubt, ChartRow, Wearer


@dataclass(frozen=True)
class Measured:
    """A wearer with the newest chart: its row (None when nothing was begun) and what it says."""

    wearer: Wearer
    row: ChartRow | None
    chart: Chart


def filed(person: Measured) -> FiledChart:
    """A wearer's newest chart as it goes into a file."""
    wearer, row = person.wearer, person.row
    figure = wearer.figure if wearer.figure in TABLES else person.chart.table.name
    if row is None:
        return FiledChart(wearer.name, wearer.role, figure)
    readings = {code: person.chart.readings[code] for code in CATALOGUE if code in person.chart.readings}
    return FiledChart(
        wearer.name, wearer.role, figure, row.taken_on, row.foundation, row.shoes, row.measured_by, readings, row.note
    )


def company(session: Session, production_id: int) -> list[Measured]:
    """Every wearer of a production with the chart that counts, by name."""
    wearers = list(session.scalars(select(Wearer).where(Wearer.production_id == production_id).order_by(Wearer.name)))
    days = (
        select(ChartRow.wearer_id, func.max(ChartRow.taken_on).label("day"))
        .join(Wearer)
        .where(Wearer.production_id == production_id)
        .group_by(ChartRow.wearer_id)
        .subquery()
    )
    latest = select(ChartRow).join(days, and_(ChartRow.wearer_id == days.c.wearer_id, ChartRow.taken_on == days.c.day))
    rows = {row.wearer_id: row for row in session.scalars(latest.order_by(ChartRow.id))}
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
    """What one chart of a file would do to a wearer, called as here when known. onto: the chart it goes on, None: a new one.
    wearer_id: None when there is none of this name yet; stands: what stands on the chart."""

    chart: FiledChart
    name: str
    known: bool
    changes: tuple[Change, ...]
    onto: ChartRow | None = None
    wearer_id: int | None = None
    stands: Mapping[str, Reading] = field(default_factory=dict)

    @property
    def after(self) -> Chart:
        """The chart as it will be."""
        table = TABLES.get(self.chart.figure, CURVED)
        return Chart({**self.stands, **{change.code: change.new for change in self.changes}}, self.chart.foundation, table)


def look_at(session: Session, production_id: int, charts: Iterable[FiledChart]) -> list[Incoming]:
    """What would change, wearer by wearer, the oldest chart first; names are compared without case. Nothing is stored."""
    wearers = {
        wearer.name.lower(): wearer
        for wearer in session.scalars(
            select(Wearer).where(Wearer.production_id == production_id).options(selectinload(Wearer.charts))
        )
    }
    ordered = sorted(charts, key=lambda chart: (chart.wearer.lower(), chart.read_on or date.min))
    onto = {id(chart): _chart_of(wearers.get(chart.wearer.lower()), chart.read_on) for chart in ordered}
    stand = core_charts(session, (row for row in onto.values() if row is not None))
    found = []
    for filed_chart in ordered:
        wearer, row = wearers.get(filed_chart.wearer.lower()), onto[id(filed_chart)]
        stands = stand[row.id].readings if row is not None else {}
        changes = tuple(
            Change(code, stands.get(code), reading)
            for code, reading in filed_chart.readings.items()
            if not _same(stands.get(code), reading)
        )
        name = wearer.name if wearer is not None else filed_chart.wearer
        found.append(
            Incoming(filed_chart, name, wearer is not None, changes, row, wearer.id if wearer is not None else None, stands)
        )
    return found


def _chart_of(wearer: Wearer | None, read_on: date | None) -> ChartRow | None:
    """The chart of that day; the newest where the file names no day. None when a new one is begun."""
    rows = sorted(wearer.charts, key=lambda row: (row.taken_on, row.id), reverse=True) if wearer is not None else []
    if read_on is None:
        return rows[0] if rows else None
    return next((row for row in rows if row.taken_on == read_on), None)


PLACES = tuple((side, turn) for side in ("", *SIDES) for turn in (1, 2))


def at_place(reading: Reading, side: str, turn: int) -> Length | None:
    turns = reading.at(side)
    return turns.first if turn == 1 else turns.second


def _same(now: Reading | None, new: Reading) -> bool:
    """Whether a reading from a file says what stands on the chart already; what the file leaves out changes nothing."""
    if now is None:
        return False
    pairs = ((at_place(now, *place), at_place(new, *place)) for place in PLACES)
    return all(b is None or (a is not None and a.ticks == b.ticks) for a, b in pairs)
