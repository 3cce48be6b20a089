"""Dockets in the store: their settings as written, and the draft inputs made from them."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session, joinedload

from widehem.store.models import Docket, Production, Wearer, now


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
