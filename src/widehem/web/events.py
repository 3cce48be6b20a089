"""What was done: taking it back, the versions of a garment, and the bin."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for

from widehem.store.bin import DAYS, in_bin, take_out
from widehem.store.journal import events, tell
from widehem.store.models import Event
from widehem.store.undoing import CannotUndoError, undo
from widehem.store.versions import bring_back, version_numbered, versions_of
from widehem.web.door import own_path
from widehem.web.drawn_by import load
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, day_of
from widehem.web.selvedge import Selvedge, selvedge
from widehem.web.writing import writing

pages = Blueprint("events", __name__)
LATELY = 40  # doings that are listed


@pages.post("/done/<int:event_id>/undo")
def take_back(event_id: int) -> Any:
    """Take back what was done. What was changed since stays as it is, and it is said."""
    back, words = own_path(request.form.get("back")), ""
    try:
        with writing() as session:
            found = session.get(Event, event_id)
            if found is None:
                abort(404)
            words = found.words
            undo(session, found)
    except CannotUndoError as error:
        return _cannot(f"{words} {error}", back)
    return redirect(back, 303)


def _cannot(words: str, back: str) -> Any:
    return render_template(
        "error.html", title="Not taken back", words=words, status=409, selvedge=Selvedge(), slots=[], tally="",
        next=Next("Back to where you were", back),
    ), 409  # fmt: skip


@pages.get("/bin")
def the_bin() -> str:
    """What was deleted, and when it is let go; and what was done lately."""
    with current_store().read() as session:
        found, lately = in_bin(session), events(session, most=LATELY)
    slots = [Slot("In the bin", "count", str(len(found)), "", f"let go after {DAYS} days")]
    return render_template(
        "bin.html", found=[(entry, day_of(entry.at), day_of(entry.goes_at)) for entry in found], days=DAYS, lately=lately, selvedge=Selvedge(),
        slots=slots, tally="", next=Next("Back to the productions", url_for("desk.index")),
    )  # fmt: skip


@pages.post("/bin/<kind>/<int:number>")
def out_of_the_bin(kind: str, number: int) -> Any:
    """Take something out of the bin."""
    try:
        with writing() as session:
            found = take_out(session, kind, number)
            if found is None:
                abort(404)
            tell(session, f"Took {found.name} out of the bin.", found)
    except LookupError as belongs:
        return _cannot(f"It cannot be taken out by itself: {belongs} lies in the bin too. Take that out.", url_for(".the_bin"))
    return redirect(url_for(".the_bin"), 303)


@pages.get("/dockets/<int:docket_id>/versions")
def versions(docket_id: int) -> str:
    """Everything that was done to a garment, the newest first."""
    work = load(docket_id)
    with current_store().read() as session:
        found = versions_of(session, work.docket)
    slots = [Slot("Versions", "count", str(len(found)), "", "to look at and to bring back")]
    return render_template(
        "versions.html", docket=work.docket, versions=found,
        selvedge=selvedge(work.docket.wearer, work.docket, work.chart, "draft", "versions", work.changed), slots=slots, tally="",
        next=Next("Back to the draft", url_for("board.draft", docket_id=docket_id)),
    )  # fmt: skip


@pages.post("/dockets/<int:docket_id>/versions/<int:number>")
def bring(docket_id: int, number: int) -> Any:
    """Bring a version of a garment back; what it is now stays among its versions."""
    with writing() as session:
        found = version_numbered(session, docket_id, number)
        if found is None:
            abort(404)
        bring_back(session, docket_id, found)
    return redirect(url_for("board.draft", docket_id=docket_id), 303)
