"""Dockets in the store: their settings as written, and the draft inputs made from them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload

from widehem.core.body.chart import Chart
from widehem.core.body.compare import Difference, stale
from widehem.core.drafting.method import METHODS, Method
from widehem.store.charts import core_charts, latest_chart
from widehem.store.designs import keep_own_settings
from widehem.store.files import Measured
from widehem.store.models import ChartRow, DesignRow, Docket, Production, Wearer, now


def find_docket(session: Session, docket_id: int) -> Docket | None:
    """A docket with its wearer and production."""
    query = select(Docket).where(Docket.id == docket_id)
    return session.scalars(
        query.options(joinedload(Docket.wearer).joinedload(Wearer.production), joinedload(Docket.production))
    ).first()


def find_wearer(session: Session, wearer_id: int) -> Wearer | None:
    query = select(Wearer).where(Wearer.id == wearer_id)
    return session.scalars(query.options(joinedload(Wearer.production))).first()


def productions(session: Session) -> list[Production]:
    return list(session.scalars(select(Production).order_by(Production.name)))


def dockets_of(session: Session, wearer_id: int) -> list[Docket]:
    """Every docket of a wearer."""
    return list(session.scalars(select(Docket).where(Docket.wearer_id == wearer_id).order_by(Docket.id)))


USUAL_BODICES = ("bodice.measured",)  # what sleeves are made for that go into any armhole


def bodice_for(session: Session, wearer_id: int, sleeve: Method | None = None) -> Docket | None:
    """What a new sleeve of a wearer is drawn for: the newest of what it alone is made for, else the newest bodice, else the
    newest that no other sleeve is made for, else any; a block before one that a design changes, whose armhole may be gone."""
    every = armholes_of(session, wearer_id)
    found = [docket for docket in every if not docket.of_design("steps")] or every
    own = {method.made_for for method in METHODS.values() if method.for_armhole} - set(USUAL_BODICES)
    wanted = sleeve.made_for if sleeve is not None and sleeve.made_for in own else ""
    ranks = (
        lambda code: code == wanted,
        lambda code: METHODS[code].group == "Bodices",
        lambda code: code not in own,
        lambda code: True,
    )
    return next((docket for fits in ranks for docket in found if fits(docket.method)), None)


def sleeves_for(method: Method) -> list[Method]:
    """The methods that draw a sleeve for a garment of this method."""
    if not method.has_armhole:
        return []
    return [m for m in METHODS.values() if m.for_armhole and (m.made_for == method.code or m.made_for in USUAL_BODICES)]


def armholes_of(session: Session, wearer_id: int) -> list[Docket]:
    """Dockets of a wearer that a sleeve can be drawn for, the newest first."""
    codes = [code for code, method in METHODS.items() if method.has_armhole]
    query = select(Docket).join(Docket.design).where(Docket.wearer_id == wearer_id, DesignRow.method.in_(codes))
    return list(session.scalars(query.order_by(Docket.id.desc())))


def keep_settings(docket: Docket, options: dict[str, str], ease: dict[str, str]) -> None:
    """Replace the settings that are in force on a docket."""
    keep_own_settings(docket, options, ease)
    docket.updated_at = now()


def keep_marking(docket: Docket, marking: dict[str, Any]) -> None:
    """Replace what is wanted on the pattern of a docket."""
    docket.marking, docket.updated_at = dict(marking), now()


def changed_since(session: Session, docket: Docket, newest: ChartRow | None = None) -> tuple[Difference, ...]:
    """What the newest chart says otherwise than the chart a docket is drawn on; nothing when they are one."""
    newest = newest or latest_chart(session, docket.wearer_id)
    if newest is None or docket.chart_id in (None, newest.id):
        return ()
    return differences(session, [docket], newest)[docket.id]


def differences(session: Session, dockets: Sequence[Docket], other: ChartRow) -> dict[int, tuple[Difference, ...]]:
    """For each docket of one wearer, by its number, what this chart says otherwise than the one it is drawn on."""
    chart = core_charts(session, [other])[other.id]
    found = _drawn(session, [(docket, other.id, chart) for docket in dockets])
    return {number: changed for number, (_, changed) in found.items()}


def drawn_on(
    session: Session, dockets: Sequence[Docket], people: Sequence[Measured]
) -> dict[int, tuple[Chart, tuple[Difference, ...]]]:
    """For each docket of a company the chart it is drawn on, and what the wearer's newest says otherwise."""
    newest = {person.wearer.id: person for person in people}
    entries = []
    for docket in dockets:
        person = newest[docket.wearer_id]
        entries.append((docket, person.row.id if person.row else 0, person.chart))
    return _drawn(session, entries)


def _drawn(session: Session, entries: Sequence[tuple[Docket, int, Chart]]) -> dict[int, tuple[Chart, tuple[Difference, ...]]]:
    """For dockets with their wearer's newest chart, its number and itself."""
    older = {docket.chart_id for docket, newest, _ in entries if docket.chart_id not in (None, newest)}
    rows = session.scalars(select(ChartRow).where(ChartRow.id.in_(older))) if older else ()
    charts = core_charts(session, rows)
    found: dict[int, tuple[Chart, tuple[Difference, ...]]] = {}
    for docket, _, newest in entries:
        chart = charts.get(docket.chart_id or 0, newest)
        used = METHODS[docket.method].reads(docket.all_options) if docket.method in METHODS else ()
        found[docket.id] = (chart, stale(used, chart, newest) if chart is not newest else ())
    return found
