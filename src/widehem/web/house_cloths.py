"""The cloths of the house: what each is, what it asks for; those that ship can be copied and changed."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for

from widehem.core.making.cloths import CLOTHS, HEADINGS, PARTS, advice
from widehem.core.values import replace
from widehem.store.cloths import cloths
from widehem.store.journal import tell
from widehem.store.models import HouseCloth
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.selvedge import Selvedge
from widehem.web.show import display
from widehem.web.stood import moved
from widehem.web.writing import writing

pages = Blueprint("house_cloths", __name__)
LONGEST_NAME, LONGEST, MOST_SHRINK = 60, 200, 30.0


@pages.get("/cloths")
def index() -> Any:
    """Every cloth; one of them to be looked at and changed."""
    return _page(request.args.get("cloth", ""), {}, "")


def _page(code: str, typed: Mapping[str, str], told: str) -> Any:
    with current_store().read() as session:
        known = cloths(session)
        number = code.removeprefix("house-")
        own = session.get(HouseCloth, int(number)) if code.startswith("house-") and number.isdecimal() else None
    at = known.get(code, next(iter(known.values())))
    show = display()
    usual = {key: saying.text(show) for key, saying in advice(replace(at, own={})).items()}
    slots = [Slot("Cloths", "count", str(len(known)), "", f"{len(known) - len(CLOTHS)} of the house")]
    return render_template(
        "house_cloths.html", known=known, parts=PARTS, headings=HEADINGS, at=at, own=own, usual=usual, typed=typed, told=told, selvedge=Selvedge(), slots=slots,
        tally="", next=Next("Back to the day", url_for("desk.index")),
    )  # fmt: skip


def _read() -> tuple[dict[str, Any], str]:
    """A cloth as it was typed; and what is wrong with it, in a sentence."""
    form = request.form
    name = " ".join(form.get("name", "").split())
    parts = {part: form.get(part, "") for part in PARTS}
    own = {key: text for key in HEADINGS if (text := " ".join(form.get(f"a.{key}", "").split())[:LONGEST])}
    text = form.get("shrinks", "").strip().replace(",", ".") or "0"
    try:
        shrinks = float(text)
    except ValueError:
        shrinks = -1.0
    wrong = ""
    if not name or len(name) > LONGEST_NAME:
        wrong = f"Name: write one of up to {LONGEST_NAME} letters."
    elif not 0 <= shrinks <= MOST_SHRINK:
        wrong = f'Shrinks by: "{text[:12]}" cannot be: write 0 to {MOST_SHRINK:g} per cent.'
    elif any(answer not in PARTS[part][1] for part, answer in parts.items()):
        abort(400)
    return {"name": name, "parts": parts, "own": own, "shrinks": shrinks}, wrong


@pages.post("/cloths/add/<cloth>")
def add(cloth: str) -> Any:
    """A cloth of the house that begins as another."""
    values, wrong = _read()
    if wrong:
        return _page(cloth, request.form, wrong), 422
    with writing() as session:
        known = cloths(session)
        if cloth not in known:
            abort(404)
        row = HouseCloth(began=cloth if cloth in CLOTHS else "calico", **values)
        session.add(row)
        session.flush()
        tell(session, f"Added the cloth {row.name}.")
        code = row.code
    return redirect(url_for(".index", cloth=code), 303)


@pages.post("/cloths/<int:row_id>")
def keep(row_id: int) -> Any:
    """Change a cloth of the house."""
    values, wrong = _read()
    code = f"house-{row_id}"
    if wrong:
        return _page(code, request.form, wrong), 422
    with writing() as session:
        row = session.get(HouseCloth, row_id)
        if row is None:
            abort(404)
        if moved(row.version):
            return _page(
                code, request.form, "Somebody else changed this cloth meanwhile: look at it, and keep yours again."
            ), 409
        for name, value in values.items():
            setattr(row, name, value)
        tell(session, f"Changed the cloth {row.name}.")
    return redirect(url_for(".index", cloth=code), 303)


@pages.post("/cloths/<int:row_id>/delete")
def delete(row_id: int) -> Any:
    """Take a cloth of the house away; garments made of it are as of the usual one again."""
    with writing() as session:
        row = session.get(HouseCloth, row_id)
        if row is None:
            abort(404)
        tell(session, f"Deleted the cloth {row.name}.")
        session.delete(row)
    return redirect(url_for(".index"), 303)
