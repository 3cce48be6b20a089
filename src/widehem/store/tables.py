"""Figure tables of the workroom's own, beside those that ship."""

from __future__ import annotations

from collections.abc import Iterable

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from widehem.core.body.figure_tables import CURVED, TABLES, FigureTable
from widehem.store.models import HouseTable, Wearer

_made: dict[tuple[object, int, int], FigureTable] = {}


def tables_named(session: Session, codes: Iterable[str]) -> dict[str, FigureTable]:
    """The tables of these codes, shipped or the workroom's own; the curved one where none is known."""
    wanted = set(codes)
    own = house_tables(session) if wanted - set(TABLES) else {}
    return {code: TABLES.get(code) or own.get(code, CURVED) for code in wanted}


def all_tables(session: Session) -> dict[str, FigureTable]:
    """Every table by its code: those that ship, then the workroom's own by name."""
    return {**TABLES, **house_tables(session)}


def house_tables(session: Session) -> dict[str, FigureTable]:
    """The workroom's own tables by code. The same version of a table is the same object every time."""
    file = session.get_bind().engine.url.database
    found = {}
    for row in session.scalars(select(HouseTable).order_by(HouseTable.name)):
        key = (file, row.id, row.version)
        if key not in _made:
            _made[key] = FigureTable(row.code, row.name, row.bust_difference, row.row, row.formulas, row.young)
        found[row.code] = _made[key]
    return found


def copy_table(session: Session, table: FigureTable, name: str) -> HouseTable:
    """A table of the workroom's own, as this one is."""
    row = HouseTable(
        name=name, bust_difference=table.bust_difference, row=dict(table.row), formulas=dict(table.formulas), young=table.young
    )
    session.add(row)
    session.flush()
    return row


def keep_table(row: HouseTable, table: FigureTable) -> None:
    """Replace what a table of the workroom says."""
    row.name, row.bust_difference, row.young = table.name, table.bust_difference, table.young
    row.row, row.formulas = dict(table.row), dict(table.formulas)


def judged_by(session: Session, code: str) -> int:
    """How many wearers are judged by a table."""
    return session.scalar(select(func.count()).select_from(Wearer).where(Wearer.figure == code)) or 0
