"""Plans of ease of the workroom's own, beside those that ship."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.drafting.ease_plans import PLANS, EasePlan
from widehem.store.models import HouseEase


def all_plans(session: Session) -> dict[str, EasePlan]:
    """Every plan by its code: those that ship, then the workroom's own by name."""
    rows = session.scalars(select(HouseEase).order_by(HouseEase.name))
    own = (EasePlan(row.code, row.name, row.why, row.amounts, row.cloth, row.layers, row.stretch) for row in rows)
    return {**PLANS, **{plan.code: plan for plan in own}}


def add_plan(session: Session, plan: EasePlan, name: str) -> HouseEase:
    """A plan of the workroom's own, as this one is, by another name."""
    row = HouseEase(name=name)
    keep_plan(row, plan, name)
    session.add(row)
    session.flush()
    return row


def keep_plan(row: HouseEase, plan: EasePlan, name: str) -> None:
    """Replace what a plan of the workroom says."""
    row.name, row.why, row.amounts = name, plan.why, dict(plan.amounts)
    row.cloth, row.layers, row.stretch = plan.cloth, plan.layers, plan.stretch


def free_name(session: Session, wanted: str, longest: int) -> str:
    """This name, or with a number behind it where it is taken."""
    names = {plan.name for plan in all_plans(session).values()}
    number, name = 2, wanted[:longest]
    while name in names:
        name, number = f"{wanted[: longest - 4]} {number}", number + 1
    return name
