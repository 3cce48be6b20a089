"""Copying a garment, and making a sleeve for it."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for
from sqlalchemy import select

from widehem.core.drafting.method import METHODS
from widehem.store.copying import copy_for
from widehem.store.dockets import bodice_for, find_docket, sleeves_for
from widehem.store.house import open_docket
from widehem.store.journal import tell
from widehem.store.models import Wearer
from widehem.web.drawn_by import load
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.numbers import is_number
from widehem.web.selvedge import selvedge
from widehem.web.writing import writing

pages = Blueprint("copy_docket", __name__)
LONGEST = 120


@pages.get("/dockets/<int:docket_id>/copy")
def choose(docket_id: int) -> str:
    """For whom."""
    return _page(docket_id, "")


def _page(docket_id: int, error: str) -> str:
    work = load(docket_id)
    docket = work.docket
    with current_store().read() as session:
        wearers = list(
            session.scalars(select(Wearer).where(Wearer.production_id == docket.production_id).order_by(Wearer.name))
        )
        bare = {w.id for w in wearers if work.method.for_armhole and bodice_for(session, w.id, work.method) is None}
    return render_template(
        "copy.html", docket=docket, method=work.method, wearers=wearers, bare=bare - {docket.wearer_id}, error=error,
        name=request.form.get("name", docket.name), ticked=request.form.getlist("for"),
        selvedge=selvedge(docket.wearer, docket, work.chart, "draft", "copy", work.changed),
        slots=[Slot("Wearers", "count", str(len(wearers)), "", "of this production")], tally="",
        next=Next("Back to the draft", url_for("board.draft", docket_id=docket_id)),
    )  # fmt: skip


@pages.post("/dockets/<int:docket_id>/copy")
def copy(docket_id: int) -> Any:
    """Open a docket like this one for everybody who is ticked, in one act."""
    name = request.form.get("name", "").strip()[:LONGEST]
    wanted = {int(number) for number in request.form.getlist("for") if is_number(number)}
    if not name or not wanted:
        return _page(docket_id, "Write a name, and tick who it is for." if not name else "Tick who it is for."), 422
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None or docket.method not in METHODS:
            abort(404)
        wearers = [w for w in (session.get(Wearer, number) for number in sorted(wanted)) if w is not None]
        wearers = [wearer for wearer in wearers if wearer.production_id == docket.production_id]
        made = [copy_for(session, docket, wearer, name) for wearer in wearers]
        if not made:
            abort(404)
        whom = wearers[0].name if len(wearers) == 1 else f"{len(wearers)} wearers"
        tell(session, f"Copied {docket.name} for {whom}.", made[0] if len(made) == 1 else docket.production)
        first, production_id = made[0].id, docket.production_id
    if len(made) == 1:
        return redirect(url_for("board.draft", docket_id=first), 303)
    return redirect(url_for("people.production", production_id=production_id), 303)


@pages.post("/dockets/<int:docket_id>/sleeve")
def make_sleeve(docket_id: int) -> Any:
    """Open a docket for a sleeve in the armhole of this garment."""
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None or docket.method not in METHODS:
            abort(404)
        method = METHODS.get(request.form.get("method", ""))
        if method is None or method not in sleeves_for(METHODS[docket.method]):
            abort(400)
        made = open_docket(session, docket.wearer, f"Sleeve of {docket.name}"[:LONGEST], method, bodice_id=docket.id)
        tell(session, f"Began {made.name} for {docket.wearer.name}.", made)
        number = made.id
    return redirect(url_for("board.draft", docket_id=number), 303)
