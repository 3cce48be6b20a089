"""What is noted on a production, a wearer or a garment, with its pictures."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import timedelta

from sqlalchemy import or_, select
from sqlalchemy.orm import Session

from widehem.store.bin import DAYS
from widehem.store.books import pictures_in_books
from widehem.store.models import Docket, Note, Picture, Production, Wearer, now

Noted = Production | Wearer | Docket
LONGEST, MOST_PICTURES = 2000, 12  # signs of a note, pictures on it


@dataclass(frozen=True)
class Drawn:
    """A picture as it is kept: as large as it is looked at, and small as it lies beside the words."""

    large: bytes
    small: bytes


def place_of(of: Noted) -> dict[str, int | None]:
    """Where a note on this is kept."""
    if isinstance(of, Docket):
        return {"production_id": of.production_id, "wearer_id": of.wearer_id, "docket_id": of.id}
    if isinstance(of, Wearer):
        return {"production_id": of.production_id, "wearer_id": of.id, "docket_id": None}
    return {"production_id": of.id, "wearer_id": None, "docket_id": None}


def notes_on(session: Session, of: Noted, *, above: bool = True) -> list[Note]:
    """The notes on this, the newest first. above: those of its wearer and its production after them."""
    place = place_of(of)
    query = select(Note).where(Note.production_id == place["production_id"])
    own, wearer = Note.docket_id == place["docket_id"], Note.wearer_id == place["wearer_id"]
    whole = Note.docket_id.is_(None) & Note.wearer_id.is_(None)
    exact = own if isinstance(of, Docket) else wearer & Note.docket_id.is_(None) if isinstance(of, Wearer) else whole
    ways = [exact]
    if above and isinstance(of, Docket):
        ways.append(wearer & Note.docket_id.is_(None))
    if above:
        ways.append(whole)
    found = session.scalars(query.where(or_(*ways)).order_by(Note.id.desc()))
    return sorted(found, key=lambda note: (note.docket_id is None, note.wearer_id is None))


def add_note(session: Session, of: Noted, words: str, pictures: Sequence[Drawn], round_id: int | None = None) -> Note:
    """Write a note on this. round_id: of the fitting it was made at."""
    note = Note(
        **place_of(of),
        round_id=round_id,
        words=words[:LONGEST],
        pictures=_kept(session, place_of(of)["production_id"] or 0, pictures),
    )
    session.add(note)
    session.flush()
    return note


def add_pictures(session: Session, note: Note, pictures: Sequence[Drawn]) -> None:
    """Put pictures on a note, behind those that are there."""
    note.pictures = [*note.pictures, *_kept(session, note.production_id, pictures)]


def _kept(session: Session, production_id: int, pictures: Sequence[Drawn]) -> list[int]:
    rows = [Picture(production_id=production_id, data=picture.large, small=picture.small) for picture in pictures]
    session.add_all(rows)
    session.flush()
    return [row.id for row in rows]


def noted_on(session: Session, note: Note) -> Noted | None:
    """What a note is on; None where that lies in the bin."""
    if note.docket_id is not None:
        return session.get(Docket, note.docket_id)
    if note.wearer_id is not None:
        return session.get(Wearer, note.wearer_id)
    return session.get(Production, note.production_id)


def let_pictures_go(session: Session) -> int:
    """Let go for good of pictures that no note and no book has shown for thirty days; how many."""
    old = select(Picture.id).where(Picture.created_at < now() - timedelta(days=DAYS))
    shown = {number for pictures in session.scalars(select(Note.pictures)) for number in pictures} | pictures_in_books(session)
    gone = [number for number in session.scalars(old) if number not in shown]
    for row in _rows(session, gone):
        session.delete(row)
    return len(gone)


def _rows(session: Session, numbers: Iterable[int]) -> list[Picture]:
    return list(session.scalars(select(Picture).where(Picture.id.in_(list(numbers)))))
