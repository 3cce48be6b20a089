"""The bin: what was deleted lies there for thirty days and can be taken out again; nobody else sees it meanwhile."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import delete, event, select
from sqlalchemy.orm import ORMExecuteState, Session, with_loader_criteria

from widehem.store.models import ChartRow, Docket, Listening, Production, Wearer, now

DAYS = 30
WITH_BIN = {"with_bin": True}  # an execution option: what lies in the bin is found as well
_OUTSIDE = tuple(with_loader_criteria(model, model.binned_at.is_(None)) for model in (Production, Wearer, Docket))


@event.listens_for(Session, "do_orm_execute")
def _leave_the_bin(state: ORMExecuteState) -> None:
    if (
        state.is_select
        and not state.is_column_load
        and not state.is_relationship_load
        and not state.execution_options.get("with_bin")
    ):
        state.statement = state.statement.options(*_OUTSIDE)


@dataclass(frozen=True)
class Binned:
    """Something in the bin. kind: production, wearer or docket; with_it: what went there with it, in words."""

    kind: str
    number: int
    name: str
    at: datetime
    with_it: str = ""

    @property
    def goes_at(self) -> datetime:
        """When it is let go."""
        return self.at + timedelta(days=DAYS)


def put_in_bin(session: Session, found: Production | Wearer | Docket) -> None:
    """Put something in the bin, and what belongs to it."""
    moment = now()
    for row in _belongs(session, found):
        row.binned_at = moment
        if isinstance(row, Wearer):  # nobody hears for them any more
            charts = select(ChartRow.id).where(ChartRow.wearer_id == row.id)
            session.execute(delete(Listening).where(Listening.chart_id.in_(charts)))


def _belongs(session: Session, found: Production | Wearer | Docket) -> Iterable[Production | Wearer | Docket]:
    yield found
    if isinstance(found, Production):
        yield from session.scalars(select(Wearer).where(Wearer.production_id == found.id))
        yield from session.scalars(select(Docket).where(Docket.production_id == found.id))
    elif isinstance(found, Wearer):
        yield from session.scalars(select(Docket).where(Docket.wearer_id == found.id))


def in_bin(session: Session) -> list[Binned]:
    """What lies in the bin, the newest first; what went there with something else is named with that."""
    productions = _binned(session, Production)
    wearers = _binned(session, Wearer)
    dockets = _binned(session, Docket)
    gone = {row.id: row.binned_at for row in productions}
    found = []
    for row in productions:
        mine = [wearer for wearer in wearers if (wearer.production_id, wearer.binned_at) == (row.id, row.binned_at)]
        garments = [docket for docket in dockets if (docket.production_id, docket.binned_at) == (row.id, row.binned_at)]
        found.append(
            Binned("production", row.id, row.name, row.binned_at, _counted((len(mine), "wearer"), (len(garments), "garment")))
        )
    people = [row for row in wearers if gone.get(row.production_id) != row.binned_at]
    went = {row.id: row.binned_at for row in wearers}
    for row in people:
        garments = [docket for docket in dockets if (docket.wearer_id, docket.binned_at) == (row.id, row.binned_at)]
        found.append(Binned("wearer", row.id, row.name, row.binned_at, _counted((len(garments), "garment"))))
    for docket in dockets:
        if docket.binned_at not in (gone.get(docket.production_id), went.get(docket.wearer_id)):
            found.append(Binned("docket", docket.id, docket.name, docket.binned_at))
    return sorted(found, key=lambda entry: entry.at, reverse=True)


def _counted(*counts: tuple[int, str]) -> str:
    return " and ".join(f"{count} {word}{'s' if count != 1 else ''}" for count, word in counts if count)


def _binned(session: Session, model: Any) -> list[Any]:
    return list(
        session.scalars(select(model).where(model.binned_at.is_not(None)).order_by(model.id), execution_options=WITH_BIN)
    )


def take_out(session: Session, kind: str, number: int) -> Production | Wearer | Docket | None:
    """Take something out of the bin with what went there with it; None where there is none. Raises LookupError where what it
    belongs
    to lies in the bin itself."""
    model: Any = {"production": Production, "wearer": Wearer, "docket": Docket}.get(kind)
    row = session.get(model, number, execution_options=WITH_BIN) if model is not None else None
    if row is None or row.binned_at is None:
        return None
    if not isinstance(row, Production) and session.get(Production, row.production_id) is None:
        raise LookupError("its production")
    if isinstance(row, Docket) and session.get(Wearer, row.wearer_id) is None:
        raise LookupError("its wearer")
    moment = row.binned_at
    row.binned_at = None
    for model in (Wearer, Docket) if isinstance(row, Production) else (Docket,) if isinstance(row, Wearer) else ():
        for other in _binned(session, model):
            mine = other.production_id == row.id if isinstance(row, Production) else other.wearer_id == row.id
            if mine and other.binned_at == moment:
                other.binned_at = None
    return row  # type: ignore[no-any-return]


def let_go(session: Session) -> list[str]:
    """Let go for good what has lain in the bin for its time; returns its names."""
    old = now() - timedelta(days=DAYS)
    names = []
    for entry in in_bin(session):
        if entry.at < old:
            model: Any = {"production": Production, "wearer": Wearer, "docket": Docket}[entry.kind]
            row = session.get(model, entry.number, execution_options=WITH_BIN)
            if row is not None:
                names.append(entry.name)
                session.delete(row)
                session.flush()
    return names
