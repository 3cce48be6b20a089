"""The days of productions: how each is planned, and its garments as the calendar sees them."""

from __future__ import annotations

from collections.abc import Mapping

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from widehem.core.body.catalogue import names
from widehem.core.drafting.method import METHODS
from widehem.core.making.calendar import CalendarError, Garment, Phase, Plan
from widehem.core.standing import WAITS
from widehem.store.cloths import how_made
from widehem.store.fittings import TOILE
from widehem.store.making import Work
from widehem.store.models import FittingRound, Production


def plan_of_days(production: Production) -> Plan:
    """How the days of a production are planned; as usual where what is kept cannot be read."""
    try:
        return Plan.from_data(production.plan or {})
    except CalendarError:
        return Plan()


def toile_rounds(session: Session, production: int) -> dict[int, int]:
    """How many fittings of a toile each garment had, by its number."""
    rows = session.execute(
        select(FittingRound.docket_id, func.count()).where(FittingRound.kind == TOILE).group_by(FittingRound.docket_id)
    )
    return {docket: int(count) for docket, count in rows}


def as_garment(
    work: Work, times: Mapping[str, tuple[str, float]] | None, pace: Mapping[str, float], rounds: int, plan: Plan
) -> Garment:
    """A garment as the calendar sees it. times: by step, None where they are not known; rounds: fittings of a toile it
    had."""
    docket = work.docket
    made = how_made(docket)
    hours = {
        name: minutes * pace.get(kind, 1.0) / 60 for name, (kind, minutes) in (times or {}).items() if name not in made.left_out
    }
    left = 0.0 if docket.finished_on else sum(amount for name, amount in hours.items() if name not in made.done)
    missing = METHODS[docket.method].missing(work.chart, docket.all_options)
    done: set[Phase] = set()
    if not missing:
        done.add("measure")
    begun = bool(docket.cut_on or made.done or docket.fitted_on or docket.finished_on)
    if begun or rounds:
        done |= {"measure", "paper", "toile"}
    if begun or (rounds and rounds >= plan.rounds):
        done.add("toile_fitting")
    if docket.cut_on or made.done or docket.finished_on:
        done.add("cut")
    if docket.finished_on or (hours and not left):
        done |= {"cut", "sew"}
    if docket.fitted_on or docket.finished_on:
        done.add("fitting")
    if docket.finished_on:
        done.add("alter")
    words = f"{names(missing)} of {docket.wearer.name}" if missing else ""
    return Garment(
        docket.id,
        docket.name,
        docket.wearer.name,
        docket.due_on,
        sum(hours.values()),
        left,
        plan.rounds > 0,
        frozenset(done),
        WAITS.get(docket.waits, ""),
        words,
    )
