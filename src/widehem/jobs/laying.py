"""Laying cloth: the shapes of the garments, then better and better lays, each to be looked at while the next is sought; stopped, the best
is kept."""

from __future__ import annotations

import json
import time
from collections.abc import Sequence
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.making.lay.cloth import WIDTHS, LayError, OnTable
from widehem.core.making.lay.cutouts import Cutout, cutouts, too_wide
from widehem.core.making.lay.kept import cutout_data, placed_data
from widehem.core.making.lay.placed import Lay
from widehem.core.making.lay.search import Leftover, laying, on_leftovers
from widehem.core.marking.made import mark_up
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Display
from widehem.core.values import replace
from widehem.jobs.keys import garment, key
from widehem.jobs.kinds import At, JobError, StoppedError, kind
from widehem.store.cloths import cloth_of, cloths, how_made
from widehem.store.journal import tell
from widehem.store.lays import OnStock, keep_lay
from widehem.store.making import Work, works_of
from widehem.store.models import LayRow, Production, Stock
from widehem.store.papers import wanted_of

LAY, WIDE = "lay", "lay widths"
EACH = 0.4  # seconds between pictures
FEW = 4.0  # seconds for each width that is compared
MOST_SECONDS = 600


def picture_key(lay: int) -> str:
    """Under what the best so far is kept while it is being laid."""
    return f"laying:{lay}"


def widths_key(lay: int, drawn: str, table: dict[str, Any]) -> str:
    """Under what is kept how other widths would do."""
    return key("widths", lay, drawn, sorted((name, value) for name, value in table.items() if name not in ("width", "folded")))


def drawn_mark(works: Sequence[Work], material: str) -> str:
    """The mark of all that the shapes of a lay follow from."""
    parts = [(garment(w), w.docket.plan, w.docket.amounts, w.docket.marking, w.docket.house) for w in works]
    return key("shapes", material, parts).rpartition(":")[2][:40]


def shapes_of(works: Sequence[Work], material: str, table: OnTable, show: Display) -> tuple[list[Cutout], list[str]]:
    """What is cut from a cloth for garments; and the names of those that cannot be drawn."""
    found: list[Cutout] = []
    cannot: list[str] = []
    for work in works:
        docket = work.docket
        of = f"{docket.wearer.name}, {docket.name}" if len(works) > 1 else ""
        try:
            pattern = mark_up(work.made(), wanted_of(docket), show=show)
        except (OptionError, CannotDraft):
            cannot.append(f"{docket.name} for {docket.wearer.name}")
            continue
        found += cutouts(pattern, material, table, of, len(found) + 1)
    return found, cannot


@kind(LAY, urgent=4)
def lay_cloth(at: At, wish: dict[str, Any]) -> dict[str, Any]:
    """Lay a cloth. wish: lay, seconds, unit and fraction and mark of the maker. Answers with its number."""
    with at.store.read() as session:
        row = session.get(LayRow, wish["lay"])
        if row is None:
            raise JobError("This lay was deleted meanwhile.")
        works, material, table = works_of(session, row.dockets), row.material, OnTable(**row.cloth)
        name = row.name
        left = leftovers(session, works, material, table) if wish.get("stock") else []
    show = Display(wish["unit"], wish["fraction"])
    shapes, cannot = shapes_of(works, material, table, show)
    on_stock, rest = _on_stock(at, wish, shapes, left)
    _may_lie(rest, cannot, material, table, show, nothing=not shapes)
    best = _looked_for(at, wish, rest, table) if rest else Lay(table, (), ())
    with at.store.write(wish.get("by", "")) as session:
        row = session.get(LayRow, wish["lay"])
        production = session.get(Production, row.production_id) if row is not None else None
        if row is None or production is None:
            raise JobError("This lay was deleted meanwhile.")
        keep_lay(row, shapes, best, on_stock, drawn_mark(works, material))
        tell(session, f"Laid {name}: {show.full(best.to_buy, 0)} to buy.", production)
    return {"lay": wish["lay"]}


def leftovers(session: Session, works: Sequence[Work], material: str, table: OnTable) -> list[tuple[int, Leftover]]:
    """The pieces of cloth in the stock that a material could be cut from, each laid as the new cloth is."""
    known = cloths(session)
    codes = {cloth_of(how_made(work.docket), material, known).code for work in works}
    found = []
    for row in session.scalars(select(Stock).where(Stock.kind == "cloth", Stock.cloth.in_(codes))):
        try:
            found.append((row.id, Leftover(row.name, row.length * (1 - row.shrinks / 100), replace(table, width=row.width))))
        except LayError:
            continue
    return found


def _on_stock(
    at: At, wish: dict[str, Any], shapes: Sequence[Cutout], left: Sequence[tuple[int, Leftover]]
) -> tuple[list[OnStock], list[Cutout]]:
    """What lies on leftovers, and what is still to be laid."""
    if not left:
        return [], list(shapes)
    at.step(0, int(wish["seconds"]))
    numbers = {id(piece): number for number, piece in left}
    used, rest = on_leftovers(shapes, [piece for _, piece in left])
    return [OnStock(numbers[id(piece)], piece.name, piece.length, lay) for piece, lay in used], rest


def _may_lie(
    shapes: Sequence[Cutout], cannot: Sequence[str], material: str, table: OnTable, show: Display, *, nothing: bool
) -> None:
    """Raises JobError, in the words of the maker, for what cannot be laid."""
    if cannot:
        raise JobError(f"{cannot[0]} cannot be drawn as it is kept: its draft says why.")
    if nothing:
        raise JobError(f"Nothing is cut from {material} any more.")
    wide = too_wide(shapes, table)
    if wide:
        raise JobError(" ".join(saying.text(show) for saying in wide))


def _looked_for(at: At, wish: dict[str, Any], shapes: Sequence[Cutout], table: OnTable) -> Lay:
    """The best lay found until the time is over or somebody stops it."""
    seconds = min(int(wish["seconds"]), MOST_SECONDS)
    begun = shown = time.monotonic()
    best: Lay | None = None
    search = laying(shapes, table, seconds)
    try:
        for lay in search:
            better, best = best is None or lay.length < best.length - 1e-6 or len(lay.left) < len(best.left), lay
            now = time.monotonic()
            if better or now - shown > EACH:
                shown = now
                at.ledger.keep(picture_key(wish["lay"]), json.dumps(_picture(lay, now - begun, seconds)).encode())
            at.step(min(int(now - begun), seconds), seconds)
    except StoppedError:
        if best is None:
            raise
    finally:
        search.close()
    assert best is not None
    return best


def _picture(lay: Lay, gone: float, seconds: int) -> dict[str, Any]:
    return {
        "shapes": [cutout_data(shape) for shape in lay.shapes], "placed": placed_data(lay.placed), "gone": round(gone), "seconds": seconds,
    }  # fmt: skip


@kind(WIDE, urgent=3)
def compare_widths(at: At, wish: dict[str, Any]) -> dict[str, Any]:
    """The same pieces on the widths that are sold, open and folded, a few seconds each. wish: lay, widths, unit and fraction."""
    with at.store.read() as session:
        row = session.get(LayRow, wish["lay"])
        if row is None:
            raise JobError("This lay was deleted meanwhile.")
        works, material, data = works_of(session, row.dockets), row.material, dict(row.cloth)
    show = Display(wish["unit"], wish["fraction"])
    tables = _tables(data, wish.get("widths") or WIDTHS)
    found: list[dict[str, Any]] = []
    for done, table in enumerate(tables):
        at.step(done, len(tables))
        shapes, _ = shapes_of(works, material, table, show)
        wide = too_wide(shapes, table)
        if wide or not shapes:
            found.append({"cloth": table.data, "no": [[saying.template, saying.lengths] for saying in wide]})
            continue
        best: Lay | None = None
        for lay in laying(shapes, table, FEW):
            at.step(done, len(tables))
            best = lay
        assert best is not None
        found.append({"cloth": table.data, "length": best.length, "buy": best.to_buy, "used": best.used, "cost": best.cost})
    at.ledger.keep(widths_key(wish["lay"], drawn_mark(works, material), data), json.dumps(found).encode())
    return {"lay": wish["lay"]}


def _tables(data: dict[str, Any], widths: Sequence[float]) -> list[OnTable]:
    found = []
    for width in widths:
        for folded in (False, True):
            try:
                found.append(OnTable(**{**data, "width": width, "folded": folded}))
            except LayError:
                continue
    return found
