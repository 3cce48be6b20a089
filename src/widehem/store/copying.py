"""Copying a garment: the same settings for the same wearer, for another, or for several."""

from __future__ import annotations

from sqlalchemy.orm import Session

from widehem.core.drafting.method import METHODS
from widehem.store.dockets import bodice_for
from widehem.store.models import Docket, Wearer

SAME = (
    "design_id",
    "stays",
    "rules",
    "options",
    "ease",
    "house",
    "plan",
    "amounts",
    "paper",
    "marking",
    "foundation",
    "counts",
    "closes",
    "attaches",
    "quick",
)


def copy_for(session: Session, docket: Docket, wearer: Wearer, name: str) -> Docket:
    """A garment like this one for a wearer, on the wearer's newest chart. Alterations and a measured armhole belong to a body:
    they
    come along for the same wearer only; for another a sleeve is drawn for a bodice of theirs."""
    own = wearer.id == docket.wearer_id
    method = METHODS[docket.method]
    bodice = docket.bodice_id
    if method.for_armhole and not own:
        found = bodice_for(session, wearer.id, method)
        bodice = found.id if found is not None else None
    made = Docket(
        production_id=wearer.production_id, wearer_id=wearer.id, name=name, bodice_id=bodice,
        armhole=dict(docket.armhole) if own else {}, alterations=list(docket.alterations) if own else [],
        making={name: value for name, value in docket.making.items() if name != "done"},
        **{column: getattr(docket, column) for column in SAME},
    )  # fmt: skip
    session.add(made)
    session.flush()
    return made
