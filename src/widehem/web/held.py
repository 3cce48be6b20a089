"""Pictures of a fitting and of what it should be, one held against the other."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.store.models import Docket, FittingRound, Note
from widehem.store.notes import notes_on
from widehem.web.numbers import is_number


@dataclass(frozen=True)
class Kept:
    """A picture of a note, by its number, with what is said under it."""

    number: int
    words: str
    of: str


@dataclass(frozen=True)
class Held:
    """What lies side by side. mine: of this fitting; others: of the costume and of other fittings; left, right: the two that are large,
    None where there is none."""

    mine: tuple[Kept, ...]
    others: tuple[Kept, ...]
    left: Kept | None
    right: Kept | None


def pictures_of(session: Session, row: FittingRound, docket: Docket, asked: Mapping[str, str]) -> Held:
    """The pictures of a fitting beside the others. asked: the numbers of the two that are large, as this and with; the newest where they
    are not among them."""
    found = notes_on(session, docket)
    rounds = session.execute(select(FittingRound.id, FittingRound.number).where(FittingRound.docket_id == docket.id))
    numbers = {one.id: one.number for one in rounds}
    mine = _kept((note for note in found if note.round_id == row.id), numbers, docket)
    others = _kept((note for note in found if note.round_id != row.id), numbers, docket)
    return Held(mine, others, _large(mine, asked.get("this", "")), _large(others, asked.get("with", "")))


def _kept(notes: Iterable[Note], numbers: Mapping[int, int], docket: Docket) -> tuple[Kept, ...]:
    return tuple(Kept(number, note.words, _whose(note, numbers, docket)) for note in notes for number in note.pictures)


def _whose(note: Note, numbers: Mapping[int, int], docket: Docket) -> str:
    if note.round_id is not None and note.round_id in numbers:
        return f"Fitting {numbers[note.round_id]}"
    if note.docket_id is not None:
        return docket.name
    return docket.wearer.name if note.wearer_id is not None else docket.production.name


def _large(kept: tuple[Kept, ...], asked: str) -> Kept | None:
    wanted = int(asked) if is_number(asked) else None
    return next((one for one in kept if one.number == wanted), kept[0] if kept else None)
