"""Dockets in the store: their settings as written, and the draft inputs made from them."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload

from widehem.core.body.compare import Difference, stale
from widehem.core.drafting.method import METHODS
from widehem.store.charts import core_charts, latest_chart
from widehem.store.models import ChartRow, Docket, Production, Wearer, now


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


def keep_settings(docket: Docket, options: dict[str, str], ease: dict[str, str]) -> None:
    """Replace the settings of a docket."""
    docket.options, docket.ease, docket.updated_at = dict(options), dict(ease), now()


def keep_paper(docket: Docket, plan: str, amounts: dict[str, str], paper: str) -> None:
    """Replace allowance plan and paper of a docket."""
    docket.plan, docket.amounts, docket.paper, docket.updated_at = plan, dict(amounts), paper, now()


def changed_since(session: Session, docket: Docket, newest: ChartRow | None = None) -> tuple[Difference, ...]:
    """What the newest chart says otherwise than the chart a docket is drawn on; nothing when they are one."""
    newest = newest or latest_chart(session, docket.wearer_id)
    if newest is None or docket.chart_id in (None, newest.id):
        return ()
    return differences(session, [docket], newest)[docket.id]


def differences(session: Session, dockets: Sequence[Docket], other: ChartRow) -> dict[int, tuple[Difference, ...]]:
    """For each docket, by its number, what this chart says otherwise than the one it is drawn on."""
    numbers = {docket.chart_id or other.id for docket in dockets}
    rows = [row for row in (session.get(ChartRow, number) for number in numbers) if row is not None]
    charts = core_charts(session, {other.id: other, **{row.id: row for row in rows}}.values())
    return {
        docket.id: stale(METHODS[docket.method].uses(docket.options), charts[docket.chart_id or other.id], charts[other.id])
        for docket in dockets
        if docket.method in METHODS
    }
