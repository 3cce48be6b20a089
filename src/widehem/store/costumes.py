"""Costumes: the garments of a wearer in the order they are worn, from the skin outwards."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.store.models import Docket, now


def costumes_of(session: Session, wearer_id: int) -> dict[str, list[Docket]]:
    """The costumes of a wearer by name, each from the skin outwards."""
    found: dict[str, list[Docket]] = {}
    for docket in _garments(session, wearer_id):
        if docket.costume:
            found.setdefault(docket.costume, []).append(docket)
    return {name: sorted(worn, key=lambda docket: (docket.worn, docket.id)) for name, worn in sorted(found.items())}


def not_in_any(session: Session, wearer_id: int) -> list[Docket]:
    """The garments of a wearer that are in no costume."""
    return [docket for docket in _garments(session, wearer_id) if not docket.costume]


def _garments(session: Session, wearer_id: int) -> Sequence[Docket]:
    return session.scalars(
        select(Docket).where(Docket.wearer_id == wearer_id, Docket.binned_at.is_(None)).order_by(Docket.id)
    ).all()


def put_over(session: Session, docket: Docket, costume: str) -> None:
    """A garment becomes the outermost of a costume; '' takes it out of the one it is in."""
    old = docket.costume
    docket.costume, docket.worn = "", 0
    session.flush()
    if costume:
        docket.worn = len(costumes_of(session, docket.wearer_id).get(costume, ())) + 1
        docket.costume = costume
    docket.updated_at = now()
    session.flush()
    if old and old != costume:
        _count_again(costumes_of(session, docket.wearer_id).get(old, []))


def move(session: Session, docket: Docket, by: int) -> None:
    """A garment goes further in (less than nothing) or out; it stays where it cannot."""
    worn = costumes_of(session, docket.wearer_id).get(docket.costume, [])
    at = next((n for n, other in enumerate(worn) if other.id == docket.id), None)
    if at is None or not 0 <= at + by < len(worn):
        return
    worn.insert(at + by, worn.pop(at))
    _count_again(worn)


def _count_again(worn: Sequence[Docket]) -> None:
    for number, docket in enumerate(worn, 1):
        if docket.worn != number:
            docket.worn, docket.updated_at = number, now()
