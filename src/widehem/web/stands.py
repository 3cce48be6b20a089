"""Where a garment stands, as its makers say: when it has to be ready, what it waits for, what is done."""

from __future__ import annotations

from datetime import date
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for
from sqlalchemy import select

from widehem.core.standing import WAITS
from widehem.store.dockets import find_docket
from widehem.store.journal import tell
from widehem.store.models import Docket
from widehem.web.door import own_path
from widehem.web.here import current_store, today
from widehem.web.show import day
from widehem.web.writing import writing

pages = Blueprint("stands", __name__)
DONE = {"cut": "cut_on", "fitted": "fitted_on", "finished": "finished_on"}


@pages.get("/dockets/<int:docket_id>/more")
def more(docket_id: int) -> str:
    """What can be said of a garment without opening it, and what hangs on it."""
    with current_store().read() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        hang = list(session.scalars(select(Docket.name).where(Docket.bodice_id == docket_id, Docket.binned_at.is_(None))))
    return render_template("_more.html", docket=docket, hang=hang, waits=WAITS)


@pages.post("/dockets/<int:docket_id>/stands")
def keep(docket_id: int) -> Any:
    """Keep when it has to be ready, what it waits for, and what is done, as far as the form says."""
    form, words = request.form, []
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        if "due" in form and (due := _day(form["due"], docket.due_on)) != docket.due_on:
            docket.due_on = due
            words.append(f"ready by {day(due)}" if due else "no day set")
        if "waits" in form and form["waits"] in ("", *WAITS) and form["waits"] != docket.waits:
            docket.waits = form["waits"]
            words.append(f"waits for {WAITS[docket.waits]}" if docket.waits else "waits for nothing")
        for stage in form.getlist("says"):  # the form has a tick for it
            column, ticked = DONE.get(stage), stage in form.getlist("done")
            if column is not None and ticked != (getattr(docket, column) is not None):
                setattr(docket, column, today() if ticked else None)
                words.append(stage if ticked else f"not {stage} yet")
        tell(session, f"{docket.name}: {', '.join(words)}.", docket)
    return redirect(own_path(form.get("back") or url_for("board.draft", docket_id=docket_id, slip="garment")), 303)


def _day(text: str, now: date | None) -> date | None:
    """A day as a form sends it; half a one leaves what stood there."""
    try:
        return date.fromisoformat(text.strip()) if text.strip() else None
    except ValueError:
        return now
