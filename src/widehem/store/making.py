"""Drawing what is in the store: a docket with what it is drawn on, and the garment made of it. Every page asks here."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload

from widehem.core.body.chart import Chart
from widehem.core.body.compare import Difference
from widehem.core.design.design import Design, Step
from widehem.core.design.kept import made_before
from widehem.core.design.make import Made, armhole_in, make
from widehem.core.drafting.cap import Armhole
from widehem.core.drafting.method import METHODS, Method
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.values import replace
from widehem.store.armholes import typed_armhole
from widehem.store.charts import chart_drawn_on, core_chart, core_charts
from widehem.store.designs import alterations_of, core_design
from widehem.store.dockets import changed_since, find_docket
from widehem.store.models import ChartRow, Docket, Wearer


@dataclass(frozen=True)
class Work:
    """A docket with the chart it is drawn on. changed: what the wearer's newest chart says otherwise."""

    docket: Docket
    row: ChartRow | None
    chart: Chart
    method: Method
    changed: tuple[Difference, ...]
    alterations: tuple[Step, ...] = ()
    armhole: Armhole | None = None
    bodice: Docket | None = None

    def design(self) -> Design:
        """What the docket draws as it is kept. Raises OptionError."""
        return core_design(self.docket)

    def made(self, design: Design | None = None, chart: Chart | None = None) -> Made:
        """The garment of the docket, or of another design or chart in its place. Raises OptionError, CannotDraft."""
        return made_before(design or self.design(), chart or self.chart, self.alterations, self.armhole)

    def made_once(self) -> Made:
        """The same, drawn without being kept for the next who asks. Raises OptionError, CannotDraft."""
        return make(self.design(), self.chart, self.alterations, armhole=self.armhole)

    def on(self, chart: Chart) -> Work:
        return replace(self, chart=chart)

    @property
    def by_older_rules(self) -> bool:
        """Whether the method's rules have changed since it was drawn."""
        return self.docket.rules != self.method.rules


def find_work(session: Session, docket_id: int) -> Work | None:
    """A docket with what it is drawn on; None where there is none, or its method is no more."""
    docket = find_docket(session, docket_id)
    if docket is None or docket.method not in METHODS:
        return None
    row = chart_drawn_on(session, docket)
    changed = changed_since(session, docket) if docket.chart_id else ()
    method, chart = METHODS[docket.method], core_chart(session, row)
    bodice = find_docket(session, docket.bodice_id) if method.for_armhole and docket.bodice_id and not docket.armhole else None
    typed = typed_armhole(docket) if method.for_armhole else None
    armhole = typed.armhole if typed else armhole_now(session, bodice) if bodice else None
    try:
        alterations = alterations_of(docket)
    except OptionError:
        alterations = ()
    return Work(docket, row, chart, method, changed, alterations, armhole, bodice)


def works_of(session: Session, numbers: Iterable[int]) -> list[Work]:
    """Several garments at once, each with its wearer and what it is drawn on, in this order; those there are not, or whose method is no
    more, are left out. As find_work of each, with few questions to the store."""
    wanted = list(numbers)
    query = select(Docket).where(Docket.id.in_(wanted))
    with_all = (joinedload(Docket.wearer).joinedload(Wearer.production), joinedload(Docket.production))
    dockets = {docket.id: docket for docket in session.scalars(query.options(*with_all)) if docket.method in METHODS}
    alone = {number for number, docket in dockets.items() if METHODS[docket.method].for_armhole or docket.chart_id}
    newest: dict[int, ChartRow] = {}
    wearers = {docket.wearer_id for number, docket in dockets.items() if number not in alone}
    rows = select(ChartRow).where(ChartRow.wearer_id.in_(wearers)).order_by(ChartRow.taken_on, ChartRow.id)
    for row in session.scalars(rows):
        newest[row.wearer_id] = row
    charts = core_charts(session, newest.values()) if newest else {}
    found: list[Work] = []
    for number in wanted:
        docket = dockets.get(number)
        if docket is None:
            continue
        if number in alone:
            work = find_work(session, number)
            found += [work] if work is not None else []
            continue
        row_of = newest.get(docket.wearer_id)
        try:
            alterations = alterations_of(docket)
        except OptionError:
            alterations = ()
        chart = charts[row_of.id] if row_of is not None else Chart()
        found.append(Work(docket, row_of, chart, METHODS[docket.method], (), alterations))
    return found


def made_now(session: Session, docket: Docket) -> Made | None:
    """A docket drawn as it is kept now; None while it cannot be."""
    chart = core_chart(session, chart_drawn_on(session, docket))
    try:
        return made_before(core_design(docket), chart, alterations_of(docket))
    except (OptionError, CannotDraft):
        return None


def armhole_now(session: Session, bodice: Docket) -> Armhole | None:
    """The armhole of a bodice as it is kept now; None while it cannot be drawn."""
    made = made_now(session, bodice)
    return armhole_in(made) if made else None
