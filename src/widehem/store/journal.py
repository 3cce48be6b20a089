"""What is done is written down as it is written, row by row what stood before and what stands after, so that it can be taken
back."""

from __future__ import annotations

import base64
from collections.abc import Iterator
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Any

from sqlalchemy import Column, Date, DateTime, LargeBinary, event, inspect, select
from sqlalchemy.orm import Session, UOWTransaction

from widehem.store.models import Base, Docket, Event, Production, ReadingRow, Wearer

NOT_WRITTEN = {
    "event",
    "practice",
    "intake",
    "intake_wearer",
    "intake_chart",
    "intake_reading",
    "listening",
    "heard",
    "picture",
    "traced",
}
NOT_COMPARED = {"version", "updated_at"}  # they change with every change
TABLES: dict[str, type[Base]] = {mapper.class_.__tablename__: mapper.class_ for mapper in Base.registry.mappers}
WORDS = 300
INTAKE = "intake"  # what came with a file, as one change


@dataclass
class Told:
    """What a transaction is to be told as. words: '' while it is not told; changes: as they are kept; number: of its event,
    when it
    is over."""

    by: str = ""
    words: str = ""
    of: dict[str, int | None] = field(default_factory=dict)
    undoes: int | None = None
    changes: list[dict[str, Any]] = field(default_factory=list)
    number: int | None = None


def tell(session: Session, words: str, of: Docket | Wearer | Production | None = None) -> None:
    """Tell what is done in this transaction, in a sentence, and with what."""
    told = told_of(session)
    told.words = (words[:-1] if words.endswith("..") else words)[:WORDS]  # a name may end with a stop
    if isinstance(of, Docket):
        told.of = {"production_id": of.production_id, "wearer_id": of.wearer_id, "docket_id": of.id}
    elif isinstance(of, Wearer):
        told.of = {"production_id": of.production_id, "wearer_id": of.id}
    elif of is not None:
        told.of = {"production_id": of.id}


def told_of(session: Session) -> Told:
    found: Told = session.info["told"]
    return found


def begin(session: Session, by: str) -> None:
    """Write down what is changed in this session from now on."""
    session.info["told"] = Told(by)
    event.listen(session, "before_flush", _changed)
    event.listen(session, "after_flush", _begun)


def end(session: Session) -> None:
    """Write the event of this session, if it was told and something changed."""
    session.flush()
    told = told_of(session)
    if not told.words or not told.changes or told.number is not None:
        return
    row = Event(by=told.by, words=told.words, changes=told.changes, undoes=told.undoes, **told.of)
    session.add(row)
    session.flush()
    told.number = row.id


# ---- what a session changes ----


def _changed(session: Session, _context: UOWTransaction, _instances: Any) -> None:
    told = told_of(session)
    for row in session.dirty:
        if row.__tablename__ not in NOT_WRITTEN and session.is_modified(row):
            state = inspect(row)
            before: dict[str, Any] = {}
            after: dict[str, Any] = {}
            for name in columns_of(state.mapper):
                history = state.attrs[name].history
                if history.added and history.deleted and history.added[0] != history.deleted[0]:
                    before[name], after[name] = plain(history.deleted[0]), plain(history.added[0])
            if before:
                told.changes.append({"table": row.__tablename__, "id": number_of(row), "before": before, "after": after})
    for row in session.deleted:
        if row.__tablename__ not in NOT_WRITTEN:
            told.changes.append({"table": row.__tablename__, "id": number_of(row), "before": values_of(row), "after": None})


def _begun(session: Session, _context: UOWTransaction) -> None:
    told = told_of(session)
    for row in session.new:
        if row.__tablename__ not in NOT_WRITTEN:
            told.changes.append({"table": row.__tablename__, "id": number_of(row), "before": None, "after": values_of(row)})


def number_of(row: Any) -> int:
    """The number of a row."""
    return int(inspect(row).mapper.primary_key_from_instance(row)[0])


def columns_of(mapper: Any) -> list[str]:
    """The columns of a table, without what is only counted for it."""
    return [attribute.key for attribute in mapper.column_attrs if isinstance(attribute.columns[0], Column)]


def values_of(row: Any) -> dict[str, Any]:
    """Every column of a row, as it is kept in an event."""
    return {name: plain(getattr(row, name)) for name in columns_of(inspect(row).mapper)}


def plain(value: Any) -> Any:
    """A value as JSON can hold it."""
    if isinstance(value, datetime | date):
        return value.isoformat()
    return base64.b64encode(value).decode() if isinstance(value, bytes) else value


def true_value(model: type[Base], name: str, value: Any) -> Any:
    """A value as its column holds it."""
    kind = inspect(model).columns[name].type
    if value is None:
        return None
    if isinstance(kind, DateTime):
        return datetime.fromisoformat(value)
    if isinstance(kind, Date):
        return date.fromisoformat(value)
    return base64.b64decode(value) if isinstance(kind, LargeBinary) else value


def events(session: Session, *, docket: int | None = None, wearer: int | None = None, most: int = 50) -> list[Event]:
    """What was done, the newest first: with a docket, with a wearer, or with anything."""
    query = select(Event).order_by(Event.id.desc()).limit(most)
    if docket is not None:
        query = query.where(Event.docket_id == docket)
    if wearer is not None:
        query = query.where(Event.wearer_id == wearer)
    return list(session.scalars(query))


def readings_in(found: Event) -> Iterator[dict[str, Any]]:
    """The readings an event wrote down."""
    for change in found.changes:
        if change["table"] == ReadingRow.__tablename__ and change["before"] is None:
            yield change["after"]
