"""Walking back and forth over what was done to a garment: what would be taken back next, and what would be done again."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.store.models import Docket, Event

FAR = 400  # doings that are walked over


def to_undo(session: Session, docket_id: int) -> Event | None:
    """The last thing done to a garment that is not taken back; None where only its beginning is left."""
    for found in _lately(session, docket_id):
        if found.undoes is None and found.undone_by is None:
            return None if _begins(found) else found
    return None


def to_redo(session: Session, docket_id: int) -> Event | None:
    """The taking back that can itself be taken back: the last of those since anything new was done, what was done first first."""
    lately = _lately(session, docket_id)
    by_id = {found.id: found for found in lately}
    for found in lately:
        if found.undoes is None and found.undone_by is None:
            new = found.id
            break
    else:
        new = 0
    back = [
        (found.undoes, found)
        for found in lately
        if found.undoes is not None
        and found.undone_by is None
        and (first := by_id.get(found.undoes)) is not None
        and first.undoes is None
        and found.undoes > new
    ]
    return min(back, key=lambda pair: pair[0])[1] if back else None


def _lately(session: Session, docket_id: int) -> list[Event]:
    return list(session.scalars(select(Event).where(Event.docket_id == docket_id).order_by(Event.id.desc()).limit(FAR)))


def _begins(found: Event) -> bool:
    """Whether the garment itself was begun by it: that is taken back with the undo of the moment, not by walking."""
    return any(change["table"] == Docket.__tablename__ and change["before"] is None for change in found.changes)
