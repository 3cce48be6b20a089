"""The versions of a garment, as they follow from what was done to it: each can be looked at, held against another, and brought
back."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy.orm import Session
from sqlalchemy.orm.attributes import set_committed_value

from widehem.core.values import replace
from widehem.store.designs import alterations_of
from widehem.store.journal import events, tell, true_value, values_of
from widehem.store.making import Work
from widehem.store.models import DesignRow, Docket, now

STANDS = ("due_on", "waits", "cut_on", "fitted_on", "finished_on")  # where it stands; its lines do not know of it
WORN = ("costume", "worn")  # its place among others: that is theirs too
NOT_A_VERSION = {"id", "production_id", "wearer_id", "version", "created_at", "updated_at", "binned_at", *STANDS, *WORN}
MOST = 200
FIRST = 0  # the number of the version before anything that is known was done
DRAWN_BY = {
    "design_id",
    "stays",
    "rules",
    "options",
    "ease",
    "alterations",
    "house",
    "chart_id",
    "bodice_id",
    "armhole",
}  # what changes its lines


@dataclass(frozen=True)
class Version:
    """A garment as it stood after something was done. number: of the event; state: its columns as they are kept in events;
    drawn: whether
    its lines were changed."""

    number: int
    at: datetime
    words: str
    state: dict[str, Any]
    drawn: bool


def versions_of(session: Session, docket: Docket) -> list[Version]:
    """The versions of a garment, the newest first; the first of them is what it is now."""
    state = values_of(docket)
    found = []
    for event in events(session, docket=docket.id, most=MOST):
        mine = [change for change in event.changes if (change["table"], change["id"]) == (Docket.__tablename__, docket.id)]
        changed = {name for change in mine for name in (change["before"] or change["after"] or {})} - NOT_A_VERSION
        if not changed:
            continue
        found.append(Version(event.id, event.at, event.words, dict(state), bool(changed & DRAWN_BY)))
        for change in reversed(mine):
            state = {**state, **(change["before"] or {})}
        if any(change["before"] is None for change in mine):
            return found
    if found:
        found.append(Version(FIRST, docket.created_at, "As it was before that.", state, drawn=True))
    return found


def version_numbered(session: Session, docket_id: int, number: int) -> Version | None:
    """The version after this event; None where there is none."""
    docket = session.get(Docket, docket_id)
    if docket is None:
        return None
    return next((version for version in versions_of(session, docket) if version.number == number), None)


def bring_back(session: Session, docket_id: int, version: Version) -> None:
    """Let a garment be as it was in a version. What it is now stays among its versions."""
    docket = session.get(Docket, docket_id)
    if docket is None:
        return
    for name, value in version.state.items():
        if name not in NOT_A_VERSION:
            setattr(docket, name, true_value(Docket, name, value))
    docket.updated_at = now()
    tell(session, f"Brought back {docket.name} as it was: {version.words}", docket)


def as_it_was(session: Session, work: Work, version: Version) -> Work:
    """A garment as it was in a version, on the chart it is drawn on now; nothing is kept."""
    values = {name: true_value(Docket, name, value) for name, value in version.state.items()}
    copy = Docket(**values)
    set_committed_value(copy, "design", session.get(DesignRow, copy.design_id))
    set_committed_value(copy, "wearer", work.docket.wearer)
    set_committed_value(copy, "production", work.docket.production)
    for name in (*WORN, "under", "padded_under"):
        set_committed_value(copy, name, getattr(work.docket, name))
    return replace(work, docket=copy, alterations=alterations_of(copy))
