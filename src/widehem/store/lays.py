"""Lays of cloth in the store: begun for garments, laid, moved by hand, read back."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.making.lay.cloth import OnTable
from widehem.core.making.lay.cutouts import Cutout
from widehem.core.making.lay.kept import cutout_data, cutout_from, placed_data, placed_from
from widehem.core.making.lay.placed import Lay, Placed
from widehem.store.models import LayRow


@dataclass(frozen=True)
class OnStock:
    """What lies on a piece of cloth that was left over: its number in the stock, what it is called, how long it is, cm."""

    stock: int
    name: str
    length: float
    lay: Lay


@dataclass(frozen=True)
class Laid:
    """A lay as it is kept: on new cloth, and before that on leftovers."""

    row: LayRow
    lay: Lay
    stock: tuple[OnStock, ...]

    @property
    def begun(self) -> bool:
        """Whether anything lies anywhere yet."""
        return bool(self.lay.placed or self.stock)


def lays_of(session: Session, production: int) -> list[LayRow]:
    """The lays of a production, the newest first."""
    return list(session.scalars(select(LayRow).where(LayRow.production_id == production).order_by(LayRow.id.desc())))


def laid(row: LayRow) -> Laid:
    """A lay read back."""
    shapes = {shape.id: shape for shape in map(cutout_from, row.shapes)}
    stock = tuple(
        OnStock(
            int(entry["stock"]), entry["name"], float(entry["length"]),
            _lay(OnTable(**entry["cloth"]), [shapes[p.id] for p in placed_from(entry["placed"]) if p.id in shapes], entry["placed"]),
        )
        for entry in row.stock
    )  # fmt: skip
    elsewhere = {put.id for entry in stock for put in entry.lay.placed}
    own = [shape for name, shape in shapes.items() if name not in elsewhere]
    lay = _lay(OnTable(**(row.lies_on or row.cloth)), own, row.placed)
    left = tuple(shape.id for shape in own if shape.id not in lay.polygons) if lay.placed else ()
    return Laid(row, Lay(lay.table, lay.shapes, lay.placed, left), stock)


def _lay(table: OnTable, shapes: Sequence[Cutout], placed: Sequence[Sequence[object]]) -> Lay:
    known = {shape.id for shape in shapes}
    return Lay(table, tuple(shapes), tuple(put for put in placed_from(placed) if put.id in known))


def keep_lay(row: LayRow, shapes: Sequence[Cutout], lay: Lay | None, stock: Sequence[OnStock], drawn: str) -> None:
    """Keep what was laid. drawn: the mark of what the shapes follow from."""
    row.shapes = [cutout_data(shape) for shape in shapes]
    row.placed = placed_data(lay.placed) if lay is not None else []
    row.rest = list(lay.left) if lay is not None else []
    row.stock = [
        {"stock": e.stock, "name": e.name, "length": e.length, "cloth": e.lay.table.data, "placed": placed_data(e.lay.placed)}
        for e in stock
    ]
    row.lies_on = lay.table.data if lay is not None else dict(row.cloth)
    row.drawn, row.by_hand, row.cut_on = drawn, False, None


def keep_put(row: LayRow, lay: Lay, put: Placed) -> None:
    """Keep a shape where it was put by hand."""
    row.placed, row.by_hand = placed_data(lay.with_put(put).placed), True
