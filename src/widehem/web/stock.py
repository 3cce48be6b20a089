"""The stock: cloth and notions that lie in the house, how much of each, where."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from sqlalchemy import select

from widehem.core.units import LengthError
from widehem.store.cloths import cloths
from widehem.store.journal import tell
from widehem.store.models import Stock, StockPhoto
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.lengths import typed_length
from widehem.web.numbers import number_of
from widehem.web.pictured import delete_pictured, sent_picture
from widehem.web.selvedge import Selvedge
from widehem.web.show import display, figure
from widehem.web.stood import moved
from widehem.web.writing import writing

pages = Blueprint("stock", __name__)
WITH_FILES = ("stock.keep", "stock.add")
KINDS = {"cloth": "Cloth", "notion": "Notion"}
LIMITS = {"name": 120, "place": 120, "words": 400}
LONGEST, MOST, MOST_SHRINK = 100_000.0, 100_000, 30.0  # cm; pieces; per cent


@pages.get("/stock")
def index() -> Any:
    """Everything in the stock; one of it to be changed."""
    return _page({}, {}, None)


def _page(errors: Mapping[str, str], typed: Mapping[str, str], edited: int | None) -> Any:
    wanted = request.args.get("find", "").strip()[:60].lower()
    with current_store().read() as session:
        rows = list(session.scalars(select(Stock).order_by(Stock.kind, Stock.name, Stock.id)))
        pictured = set(session.scalars(select(StockPhoto.stock_id)))
        known = cloths(session)
    at = edited if edited is not None else request.args.get("edit", 0, type=number_of)
    here = next((row for row in rows if row.id == at), None)
    shown = [
        row
        for row in rows
        if wanted in f"{row.name} {row.place} {row.words} {known[row.cloth].name if row.cloth in known else ''}".lower()
    ]
    show = display()
    whole = sum(row.length for row in rows if row.kind == "cloth")
    slots = [
        Slot(
            "Cloth", "count", figure(show.length(whole, 0)), show.unit, f"in {sum(row.kind == 'cloth' for row in rows)} pieces"
        ),
        Slot("Notions", "count", str(sum(row.kind == "notion" for row in rows)), "kinds", ""),
    ]
    return render_template(
        "stock.html", rows=shown, pictured=pictured, known=known, kinds=KINDS, here=here, typed=typed, errors=errors, find=request.args.get("find", ""),
        selvedge=Selvedge(), slots=slots, tally="", next=Next("Back to the day", url_for("desk.index")), text=lambda row, name: _text(row, name),
    )  # fmt: skip


def _text(row: Stock | None, name: str) -> str:
    """A figure as the field has it."""
    if row is None:
        return ""
    value = getattr(row, name)
    if name in ("length", "width"):
        return display().setting(value) if value else ""
    return f"{value:g}" if value else ""


def _read(errors: dict[str, str], was: Stock | None = None) -> dict[str, Any]:
    """What stands in the form. was: what it is written over."""
    form = request.form
    found: dict[str, Any] = {name: " ".join(form.get(name, "").split())[:most] for name, most in LIMITS.items()}
    found["kind"] = form.get("kind", "cloth") if form.get("kind") in KINDS else "cloth"
    found["cloth"] = form.get("cloth", "")[:40] if found["kind"] == "cloth" else ""
    if not found["name"]:
        errors["name"] = "Give it a name, like Blue wool, or Brass hooks."
    for name, words in (("length", "Length"), ("width", "Width")):
        found[name] = 0.0
        if found["kind"] == "cloth":
            try:
                found[name] = typed_length(form.get(name, ""), getattr(was, name, 0.0))
            except LengthError as error:
                errors[name] = f"{words}: {error}"
    for name, words, most in (("count", "How many", MOST), ("shrinks", "Shrinks", MOST_SHRINK), ("price", "Price", LONGEST)):
        text = form.get(name, "").strip().replace(",", ".") or "0"
        try:
            value = float(text)
        except ValueError:
            value = -1.0
        if not 0 <= value <= most:
            errors[name] = f'{words}: "{text[:20]}" cannot be: write a figure from 0 to {most:g}.'
        found[name] = int(value) if name == "count" and value >= 0 else value
    if found["kind"] == "cloth" and not errors and not (found["length"] and found["width"]):
        errors["length"] = "Write how long the piece is and how wide: a lay needs both."
    return found


@pages.post("/stock")
def add() -> Any:
    """Put something into the stock."""
    errors: dict[str, str] = {}
    values, picture = _read(errors), sent_picture(errors)
    if errors:
        return _page(errors, dict(request.form), None), 422
    with writing() as session:
        row = Stock(**values)
        if picture is not None:
            row.photo = StockPhoto(data=picture)
        session.add(row)
        tell(session, f"Put {row.name} into the stock.")
    return redirect(url_for(".index"), 303)


@pages.post("/stock/<int:row_id>")
def keep(row_id: int) -> Any:
    """Write about something in the stock."""
    errors: dict[str, str] = {}
    picture = sent_picture(errors)
    with writing() as session:
        row = session.get(Stock, row_id)
        if row is None:
            abort(404)
        values = _read(errors, row)
        if moved(row.version):
            errors["name"] = (
                f"Somebody wrote about it meanwhile, as {row.name}. Yours stands here: keep it again to put it in its place."
            )
        if not errors:
            for name, value in values.items():
                setattr(row, name, value)
            if picture is not None and row.photo is not None:
                row.photo.data = picture
            elif picture is not None:
                row.photo = StockPhoto(data=picture)
            tell(session, f"Wrote about {row.name} in the stock.")
    if errors:
        return _page(errors, dict(request.form), row_id), 422
    return redirect(url_for(".index"), 303)


@pages.post("/stock/<int:row_id>/away")
def away(row_id: int) -> Any:
    """Used up or given away; it can be taken back."""
    with writing() as session:
        row = session.get(Stock, row_id)
        if row is None:
            abort(404)
        tell(session, f"Took {row.name} out of the stock.")
        delete_pictured(session, row)
    return redirect(url_for(".index"), 303)


@pages.get("/stock/<int:row_id>/photo.jpg")
def photo(row_id: int) -> Response:
    """The picture of something in the stock."""
    with current_store().read() as session:
        found = session.get(StockPhoto, row_id)
        if found is None:
            abort(404)
        return Response(found.data, mimetype="image/jpeg")
