"""The lay of the cloth: begun for garments, sought by a process of its own with a picture of the best so far, mended by hand, printed."""

from __future__ import annotations

import json
from collections.abc import Mapping
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for
from markupsafe import Markup
from sqlalchemy.orm import Session

from widehem.core.making.lay.cloth import WAYS, LayError, OnTable
from widehem.core.making.lay.kept import cutout_from, placed_from
from widehem.core.making.lay.placed import Lay, Placed, faults, faults_of, nearest
from widehem.core.output.svg_lay import lay_svg
from widehem.core.units import LengthError, Saying
from widehem.core.values import replace
from widehem.jobs.laying import LAY, WIDE, drawn_mark, picture_key, widths_key
from widehem.jobs.ledger import FAILED, Job
from widehem.store.cloths import cloth_of, cloths, how_made
from widehem.store.journal import tell
from widehem.store.lays import Laid, keep_put, laid, lays_of
from widehem.store.making import works_of
from widehem.store.models import Docket, LayRow, Production, Stock
from widehem.web.at_work import ask
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, current_works, today
from widehem.web.lengths import typed_length
from widehem.web.numbers import number_of
from widehem.web.selvedge import Selvedge
from widehem.web.show import display, figure
from widehem.web.writing import announce, mark, writing

pages = Blueprint("lay", __name__)
LONG = (20, 60, 300)  # seconds that may be spent on a lay
LENGTHS = (
    ("width", "Width"), ("selvedge", "Selvedge kept clear"), ("gap", "Between pieces"), ("across", "Stripes across, repeat"),
    ("along", "Bars along, repeat"),
)  # fmt: skip
USUAL = ("cloth", "lining", "second lining", "interfacing", "interlining", "wadding", "pocketing")
MOST_FAULTS = 6
WORTH_KEEPING = 8.0  # cm of a length that goes into the stock
OUTER = ("cloth", "jersey")  # what a garment is called cut by


@pages.get("/productions/<int:production_id>/lays")
def index(production_id: int) -> Any:
    """The lays of a production, and a new one for some of its garments."""
    return _index(production_id, {})


def _index(production_id: int, errors: Mapping[str, str]) -> Any:
    with current_store().read() as session:
        production = _production(session, production_id)
        rows = lays_of(session, production_id)
        dockets = _dockets(session, production_id)
        called = {docket.id: f"{docket.wearer.name}, {docket.name}" for docket in dockets}
    chosen = [number for number in map(number_of, request.args.getlist("docket")) if number in called]
    listed = [(row, laid(row), [called[n] for n in row.dockets if n in called]) for row in rows]
    buy = sum(entry.lay.to_buy for _, entry, _ in listed)
    slots = [
        Slot("Lays", "count", str(len(rows)), "", "of this production"),
        Slot("To buy", "count", figure(display().length(buy, 0)), display().unit, "together"),
    ]
    return render_template(
        "lays.html", production=production, listed=listed, dockets=dockets, chosen=chosen, material=request.values.get("material", "cloth"), materials=USUAL,
        errors=errors, selvedge=Selvedge(production), slots=slots, tally="", next=Next("Back to the materials", url_for("materials.production", production_id=production_id)),
    )  # fmt: skip


def _production(session: Session, number: int) -> Production:
    found = session.get(Production, number)
    if found is None:
        abort(404)
    return found


def _dockets(session: Session, production: int) -> list[Docket]:
    rows = session.query(Docket).filter(
        Docket.production_id == production, Docket.binned_at.is_(None), Docket.finished_on.is_(None)
    )
    found = [docket for docket in rows if docket.wearer.binned_at is None]
    return sorted(found, key=lambda docket: (docket.wearer.name, docket.name))


@pages.post("/productions/<int:production_id>/lays")
def begin(production_id: int) -> Any:
    """A new lay of a cloth for the garments that were chosen, laid at once."""
    numbers = [number for number in map(number_of, request.form.getlist("docket")) if number]
    material = " ".join(request.form.get("material", "").split())[:60]
    if not numbers:
        return _index(production_id, {"docket": "Choose the garments that are cut from this cloth."}), 422
    if not material:
        return _index(production_id, {"material": "Say which cloth it is, as the pieces name it: cloth, lining."}), 422
    with writing() as session:
        production = _production(session, production_id)
        mine = {docket.id: docket for docket in _dockets(session, production_id)}
        numbers = [number for number in numbers if number in mine]
        if not numbers:
            abort(404)
        last = next((row.cloth for row in lays_of(session, production_id) if row.material == material), None)
        words = mine[numbers[0]].name if len(numbers) == 1 else f"{len(numbers)} garments"
        whose = f" for {mine[numbers[0]].wearer.name}" if len(numbers) == 1 else ""
        row = LayRow(
            production_id=production_id, name=f"{material[:1].upper()}{material[1:]}: {words}{whose}"[:120], material=material, dockets=numbers,
            cloth=last or OnTable().data,
        )  # fmt: skip
        session.add(row)
        session.flush()
        tell(session, f"Began the lay {row.name}.", production)
        number, name = row.id, row.name
    _ask(number, name, LONG[0])
    return redirect(url_for(".page", lay_id=number), 303)


def _ask(number: int, name: str, seconds: int, *, stock: bool = False) -> Job:
    show = display()
    wish = {"lay": number, "seconds": seconds, "unit": show.unit, "fraction": show.fraction, "by": mark(), "stock": stock}
    return ask(LAY, wish, f"Laying {name}", str(number))


def _found(session: Session, number: int) -> LayRow:
    row = session.get(LayRow, number)
    if row is None:
        abort(404)
    return row


@pages.get("/lays/<int:lay_id>")
def page(lay_id: int) -> Any:
    """A lay: the cloth with its pieces, what it takes, what it lies on."""
    if request.args.get("live") and current_works().ledger.going(LAY, str(lay_id)) is None:
        announce()  # what was looked at while it was laid says what came of it, with a way to take it back
    return _page(lay_id, {}, {}, "")


def _page(number: int, errors: Mapping[str, str], typed: Mapping[str, str], told: str) -> Any:
    show = display()
    with current_store().read() as session:
        row = _found(session, number)
        production = _production(session, row.production_id)
        works = works_of(session, row.dockets)
        stale = bool(row.shapes) and row.drawn != drawn_mark(works, row.material)
        names = [f"{work.docket.name} for {work.docket.wearer.name}" for work in works]
    found = laid(row)
    works_now = current_works()
    job, widths_job = works_now.ledger.going(LAY, str(number)), works_now.ledger.going(WIDE, str(number))
    lay, gone = (_live(found, works_now) if job is not None else None) or (found.lay, "")
    wrong = [saying.text(show) for _, saying in zip(range(MOST_FAULTS), faults(lay), strict=False)] if lay.placed else []
    trouble = _trouble(works_now, number) if job is None else ""
    former = bool(row.lies_on) and row.lies_on != row.cloth and job is None
    picture = lay_svg(lay, show, hand=job is None) if lay.placed else None
    widths = works_now.ledger.found([key := widths_key(number, row.drawn, row.cloth)]).get(key)
    return render_template(
        "lay.html", row=row, production=production, found=found, lay=lay, names=names, stale=stale, job=job, gone=gone, wrong=wrong, trouble=trouble, told=told, former=former,
        picture=picture, drawing=Markup(picture.inside) if picture else "", stock=[(e, lay_svg(e.lay, show, long=e.length)) for e in found.stock],
        fields=LENGTHS, ways=WAYS, long=LONG, text=lambda code: typed.get(code, _text(row.cloth.get(code, 0.0), code)), typed=typed, errors=errors,
        lies={"folded": typed.get("folded", "1" if row.cloth.get("folded") else "0"), "way": typed.get("way", row.cloth.get("way"))},
        widths=_widths(json.loads(widths)) if widths else [], widths_job=widths_job, markup=Markup, selvedge=Selvedge(production),
        slots=_slots(lay, wrong, stale), tally="", next=_next(row, job, production),
    )  # fmt: skip


def _text(value: Any, code: str) -> str:
    return f"{value:g}" if code in ("shrinks", "price") else display().setting(float(value))


def _live(found: Laid, works: Any) -> tuple[Lay, str] | None:
    """The best so far of a lay that is being laid, and how far that is."""
    data = works.ledger.found([picture_key(found.row.id)]).get(picture_key(found.row.id))
    if data is None:
        return None
    told = json.loads(data)
    shapes = tuple(map(cutout_from, told["shapes"]))
    lay = Lay(OnTable(**found.row.cloth), shapes, placed_from(told["placed"]))
    return lay, f"{told['gone']} of {told['seconds']} seconds"


def _trouble(works: Any, number: int) -> str:
    """Why it could not be laid, where that was so."""
    job = works.ledger.last(LAY, str(number))
    return job.trouble if job is not None and job.state == FAILED else ""


def _widths(rows: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """What other widths would take, the least to buy by price or length first."""
    show = display()
    found = []
    for row in rows:
        table = OnTable(**row["cloth"])
        no = " ".join(Saying(template, tuple(lengths)).text(show) for template, lengths in row.get("no", []))
        found.append(
            {
                "table": table,
                "no": no,
                "buy": row.get("buy"),
                "used": row.get("used"),
                "area": (row.get("buy") or 0) * table.width,
            }
        )
    return sorted(found, key=lambda entry: (entry["buy"] is None, entry["area"]))


def _slots(lay: Lay, wrong: list[str], stale: bool) -> list[Slot]:
    if not lay.placed:
        return [Slot("Lay", "open", "", "", "not laid yet")]
    show = display()
    found = [
        Slot("To buy", "count", figure(show.length(lay.to_buy, 0)), show.unit, f"the lay is {show.full(lay.length)} long"),
        Slot("Used", "count", f"{lay.used * 100:.0f}", "%", "of the cloth"),
    ]
    if wrong:
        found.insert(0, Slot("Lay", "not", str(len(wrong)), "faults", wrong[0]))
    else:
        found.append(Slot("Lay", "true", str(len(lay.placed)), "pieces", "none on another, all on the cloth"))
    if lay.left:
        found.insert(0, Slot("Left over", "not", str(len(lay.left)), "pieces", "found no place"))
    if stale:
        found.insert(0, Slot("Drawn since", "look", "", "", "a garment was changed after it was laid"))
    return found[:5]


def _next(row: LayRow, job: Job | None, production: Production) -> Next:
    back, here = url_for(".index", production_id=production.id), url_for(".page", lay_id=row.id)
    if job is not None:
        stop = url_for("at_work.stop", name=job.id)
        return Next("Stop and keep the best", stop, "The lays", back, fields={"back": here})
    return Next("Lay it again" if row.placed else "Lay it", url_for(".table", lay_id=row.id), "The lays", back, form="cloth")


@pages.post("/lays/<int:lay_id>/table")
def table(lay_id: int) -> Any:
    """The cloth as it is to lie, and everything laid on it anew."""
    errors: dict[str, str] = {}
    with current_store().read() as session:
        values = _read(errors, _found(session, lay_id).cloth)
    if errors:
        return _page(lay_id, errors, request.form, ""), 422
    try:
        cloth = OnTable(**values)
    except LayError as error:
        return _page(lay_id, {error.field: error.saying.text(display())}, request.form, ""), 422
    seconds = number_of(request.form.get("seconds", ""))
    with writing() as session:
        row = _found(session, lay_id)
        if row.cloth != cloth.data:
            row.cloth = cloth.data
            tell(session, f"Changed the cloth of the lay {row.name}.", session.get(Production, row.production_id))
        name = row.name
    _ask(lay_id, name, seconds if seconds in LONG else LONG[0], stock=request.form.get("stock") == "1")
    return redirect(url_for(".page", lay_id=lay_id), 303)


def _read(errors: dict[str, str], was: Mapping[str, Any]) -> dict[str, Any]:
    """The settings of the cloth as they were typed. was: as they stood there."""
    form = request.form
    found: dict[str, Any] = {"folded": form.get("folded") == "1", "way": form.get("way", "either")}
    for code, words in LENGTHS:
        try:
            found[code] = typed_length(form.get(code, ""), float(was.get(code, 0.0)))
        except LengthError as error:
            errors[code] = f"{words}: {error}"
    for code, words in (("shrinks", "Shrinks"), ("price", "Price")):
        text = form.get(code, "").strip().replace(",", ".") or "0"
        try:
            found[code] = float(text)
        except ValueError:
            errors[code] = f'{words}: "{text[:20]}" is no figure: write it like 3 or 12.50.'
    return found


@pages.post("/lays/<int:lay_id>/put")
def put(lay_id: int) -> Any:
    """A piece put elsewhere by hand: where it has room near there, or nowhere, and why."""
    form = request.form
    try:
        wished = Placed(
            form.get("put", ""),
            float(form.get("x", "")),
            float(form.get("y", "")),
            int(form.get("turned", "0")),
            form.get("flipped") == "1",
        )
    except ValueError:
        abort(400)
    if not all(abs(value) < 1e6 for value in (wished.x, wished.y)):
        abort(400)
    told = ""
    with writing() as session:
        row = _found(session, lay_id)
        lay = laid(row).lay
        if wished.id not in lay.polygons:
            abort(404)
        found = nearest(lay, wished)
        if found is None:
            told = " ".join(saying.text(display()) for saying in faults_of(lay.with_put(wished), wished.id)[:2])
            told = f"It went back where it was. {told}"
        elif found != next(entry for entry in lay.placed if entry.id == wished.id):
            keep_put(row, lay, found)
            tell(session, f"Laid {lay.by_id[wished.id].title} elsewhere by hand.", session.get(Production, row.production_id))
    return _page(lay_id, {}, {}, told)


@pages.post("/lays/<int:lay_id>/widths")
def widths(lay_id: int) -> Any:
    """See how the widths that are sold would do."""
    with current_store().read() as session:
        row = _found(session, lay_id)
        name, width = row.name, float(row.cloth.get("width", 150.0))
    show = display()
    sold = sorted({90.0, 115.0, 140.0, 150.0, width})
    ask(
        WIDE,
        {"lay": lay_id, "widths": sold, "unit": show.unit, "fraction": show.fraction},
        f"Comparing widths for {name}",
        str(lay_id),
    )
    return redirect(url_for(".page", lay_id=lay_id), 303)


@pages.post("/lays/<int:lay_id>/width")
def width(lay_id: int) -> Any:
    """Take another width, and lay it."""
    wide = request.form.get("width", "")
    try:
        value = float(wide)
    except ValueError:
        abort(400)
    with writing() as session:
        row = _found(session, lay_id)
        try:
            cloth = replace(OnTable(**row.cloth), width=value, folded=request.form.get("folded") == "1")
        except LayError:
            abort(400)
        row.cloth = cloth.data
        tell(session, f"Changed the cloth of the lay {row.name}.", session.get(Production, row.production_id))
        name = row.name
    _ask(lay_id, name, LONG[0])
    return redirect(url_for(".page", lay_id=lay_id), 303)


@pages.post("/lays/<int:lay_id>/cut")
def cut(lay_id: int) -> Any:
    """It is cut: what lay on leftovers is taken from the stock, and what is left of new cloth is put there."""
    with writing() as session:
        row = _found(session, lay_id)
        found = laid(row)
        if not found.begun or row.cut_on is not None:
            abort(404)
        row.cut_on = today()
        for entry in found.stock:
            piece = session.get(Stock, entry.stock)
            if piece is not None:
                piece.length = max(0.0, round(piece.length - entry.lay.length, 1))
        rest = round(found.lay.to_buy * (1 - found.lay.table.shrinks / 100) - found.lay.length, 1) if found.lay.placed else 0.0
        works, known = works_of(session, row.dockets), cloths(session)
        if rest >= WORTH_KEEPING and works:
            kind = cloth_of(how_made(works[0].docket), row.material, known)
            session.add(
                Stock(kind="cloth", name=f"Rest of {row.name}"[:120], cloth=kind.code, length=rest, width=found.lay.table.width)
            )
        for work in works:
            docket = session.get(Docket, work.docket.id)
            if docket is not None and docket.cut_on is None and row.material in OUTER:
                docket.cut_on = today()
        tell(session, f"Cut {row.name}.", session.get(Production, row.production_id))
    return redirect(url_for("stock.index"), 303)


@pages.post("/lays/<int:lay_id>/delete")
def delete(lay_id: int) -> Any:
    """Put a lay away; it can be taken back."""
    with writing() as session:
        row = _found(session, lay_id)
        number, name = row.production_id, row.name
        session.delete(row)
        tell(session, f"Deleted the lay {name}.", session.get(Production, number))
    return redirect(url_for(".index", production_id=number), 303)
