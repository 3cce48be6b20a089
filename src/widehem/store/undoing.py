"""Taking back what was done: the rows stand again as they stood, unless somebody changed them since. It is an event itself,
and can be
taken back in turn."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import Any, cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.units import Length, Unit
from widehem.store.bin import WITH_BIN, put_in_bin
from widehem.store.charts import reading_values
from widehem.store.journal import INTAKE, NOT_COMPARED, TABLES, end, plain, tell, told_of, true_value, values_of
from widehem.store.models import ChartRow, DesignRow, Docket, Event, Production, ReadingRow, Wearer, now

KINDS = {
    "docket": "the garment", "wearer": "the wearer", "production": "the production", "chart": "the chart", "photo": "the photo",
    "house_list": "the list", "house_table": "the table", "house_ease": "the plan of ease", "house_value": "the house value",
    "accepted_doubt": "a doubt that was kept", "design": "the design", "note": "the note", "printer": "the printer",
    "house_sizes": "the size chart", "house_rules": "the table of rules", "on_rail": "the garment on the rail", "rail_photo": "the picture",
    "lay": "the lay", "house_cloth": "the cloth", "stock": "what is in the stock", "stock_photo": "the picture", "book": "the book",
}  # fmt: skip


class CannotUndoError(Exception):
    """Why it cannot be taken back, a sentence."""


def undo(session: Session, found: Event) -> None:
    """Take an event back. Raises CannotUndoError, and nothing may be kept then."""
    if found.undone_by is not None:
        raise CannotUndoError("It is taken back already.")
    if any(change["table"] not in TABLES and change["table"] != INTAKE for change in found.changes):
        raise CannotUndoError("It is gone for good.")
    with session.no_autoflush:  # rows come in the order of what belongs to what, when all are there
        for change in _to_take_back(found):
            _back(session, change)
    session.flush()
    words = found.words.removeprefix("Taken back: ") if found.undoes else f"Taken back: {found.words}"
    tell(session, words)
    told = told_of(session)
    told.of = {"production_id": found.production_id, "wearer_id": found.wearer_id, "docket_id": found.docket_id}
    told.undoes = found.id
    end(session)
    found.undone_by = told.number
    if found.undoes is not None and (first := session.get(Event, found.undoes)) is not None:
        first.undone_by = None


def _to_take_back(found: Event) -> Iterator[dict[str, Any]]:
    """The changes to be taken back, the last first: of a row that was begun only its beginning, and nothing of the readings on
    a chart
    that goes itself. What was begun with a wearer goes into the bin with the wearer, and what a garment is drawn by stays with
    it there."""
    begun = {(change["table"], change["id"]) for change in found.changes if change["before"] is None}
    garments = any(table == Docket.__tablename__ for table, _ in begun)
    for change in reversed(found.changes):
        if change["before"] is None and (
            _with_wearer(change, begun) or (garments and change["table"] == DesignRow.__tablename__)
        ):
            continue
        later = change["before"] is not None and change["after"] is not None and (change["table"], change["id"]) in begun
        on_it = change["table"] == ReadingRow.__tablename__ and change["before"] is None
        if not later and not (on_it and (ChartRow.__tablename__, change["after"]["chart_id"]) in begun):
            yield change


def _with_wearer(change: dict[str, Any], begun: set[tuple[str, int]]) -> bool:
    """Whether what was begun belongs to a wearer that was begun with it."""
    wearer = (Wearer.__tablename__, change["after"].get("wearer_id"))
    chart = (ChartRow.__tablename__, change["after"].get("chart_id"))
    return wearer in begun or (change["table"] in ("reading", "accepted_doubt") and chart in begun)


def _back(session: Session, change: dict[str, Any]) -> None:
    if change["table"] == INTAKE:
        _intake_back(session, change["after"])
        return
    model = TABLES[change["table"]]
    if model is ReadingRow and change["before"] is None:
        _reading_back(session, change)
        return
    row = session.get(model, change["id"], execution_options=WITH_BIN)
    kind = KINDS.get(change["table"], "it")
    if change["before"] is None:
        if row is None:
            raise CannotUndoError(f"{kind[:1].upper()}{kind[1:]} is gone already.")
        if isinstance(row, Docket | Wearer | Production):
            put_in_bin(session, row)
        else:
            session.delete(row)
    elif change["after"] is None:
        if row is not None:
            raise CannotUndoError(f"Another stands in the place of {kind} by now.")
        session.add(model(**{name: true_value(model, name, value) for name, value in change["before"].items()}))
    else:
        if row is None:
            raise CannotUndoError(f"{kind[:1].upper()}{kind[1:]} is gone: it was deleted since.")
        _compared(row, change["after"], kind)
        for name, value in change["before"].items():
            if name not in NOT_COMPARED:
                setattr(row, name, true_value(model, name, value))
        if isinstance(row, Docket):
            row.updated_at = now()


def _compared(row: Any, after: dict[str, Any], kind: str) -> None:
    """Whether a row stands as the event left it. Raises CannotUndoError."""
    moved = [name for name, value in after.items() if name not in NOT_COMPARED and plain(getattr(row, name)) != value]
    if moved:
        raise CannotUndoError(f"{kind[:1].upper()}{kind[1:]} was changed since: take that back first.")


def _reading_back(session: Session, change: dict[str, Any]) -> None:
    """What stood in the place of a reading before stands there again; readings are only ever added."""
    after = change["after"]
    here = (ReadingRow.chart_id == after["chart_id"], ReadingRow.measure == after["measure"])
    rows = list(session.scalars(select(ReadingRow).where(*here).order_by(ReadingRow.id)))
    place = [row for row in rows if (row.side, row.turn) == (after["side"], after["turn"])]
    if not place or place[-1].id != change["id"]:
        name = CATALOGUE[after["measure"]].name if after["measure"] in CATALOGUE else after["measure"]
        raise CannotUndoError(f"{name} was read again since: take that back first.")
    earlier = [row for row in rows if row.id < change["id"]]
    carried = _carried_before(earlier)
    again = carried if carried else [row for row in earlier if (row.side, row.turn) == (after["side"], after["turn"])][-1:]
    if again:
        for row in again:
            length = None if row.ticks is None else Length(row.ticks, row.typed, cast(Unit, row.unit))
            values = reading_values(row.chart_id, row.measure, row.turn, length, row.side, row.carried_on, row.hour)
            session.add(ReadingRow(**values))
    else:
        session.add(ReadingRow(**reading_values(after["chart_id"], after["measure"], after["turn"], None, after["side"], None)))


def _intake_back(session: Session, came: dict[str, list[int]]) -> None:
    """What came with a file goes: new wearers into the bin, new charts of others away, what stood on their charts stands
    again."""
    first, last = came["readings"]
    later = (
        select(ReadingRow.id).where(ReadingRow.chart_id.in_([*came["charts"], *came["onto"]]), ReadingRow.id > last).limit(1)
    )
    if session.scalar(later):
        raise CannotUndoError("Somebody wrote on its charts since: take that back first.")
    for number in came["wearers"]:
        wearer = session.get(Wearer, number)
        if wearer is not None:
            put_in_bin(session, wearer)
    for number in came["charts"]:
        chart = session.get(ChartRow, number)
        if chart is not None and chart.wearer_id not in came["wearers"]:
            session.delete(chart)
    rows = select(ReadingRow).where(
        ReadingRow.chart_id.in_(came["onto"]), ReadingRow.id > first, ReadingRow.id <= last
    )  # fmt: skip
    for row in session.scalars(rows.order_by(ReadingRow.id.desc())).all():
        _reading_back(session, {"id": row.id, "after": values_of(row)})


def _carried_before(earlier: Iterable[ReadingRow]) -> list[ReadingRow]:
    """What was carried over and counted: of each place the last, as long as nothing was read there itself."""
    places: dict[tuple[str, int], ReadingRow] = {}
    for row in earlier:
        if row.carried_on is None:
            places.clear()
            continue
        places[row.side, row.turn] = row
    return list(places.values())
