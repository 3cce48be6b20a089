"""Notes with pictures, on a production, a wearer or a garment; they are seen wherever that is worked on."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, Flask, Response, abort, redirect, render_template, request, url_for
from sqlalchemy.orm import Session

from widehem.core.output.photo import LARGE_SIDE, LARGEST_FILE, PhotoError, small_photo
from widehem.store.charts import core_chart, latest_chart
from widehem.store.dockets import find_docket, find_wearer
from widehem.store.journal import tell
from widehem.store.models import Docket, FittingRound, Note, Picture, Production, Wearer
from widehem.store.notes import LONGEST, MOST_PICTURES, Drawn, Noted, add_note, add_pictures, noted_on, notes_on
from widehem.web.door import own_path
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.numbers import is_number
from widehem.web.selvedge import Selvedge, selvedge
from widehem.web.stood import both
from widehem.web.writing import writing

pages = Blueprint("notes", __name__)
WITH_PICTURES = ("notes.add", "notes.change")
KINDS = {"production": Production, "wearer": Wearer, "garment": Docket}


def kind_of(of: Noted) -> str:
    """How a thing is named in an address: production, wearer or garment."""
    return next(kind for kind, model in KINDS.items() if isinstance(of, model))


def _found(session: Session, kind: str, number: int) -> Noted:
    found: Noted | None = None
    if kind == "garment":
        found = find_docket(session, number)
    elif kind == "wearer":
        found = find_wearer(session, number)
    elif kind == "production":
        found = session.get(Production, number)
    if found is None:
        abort(404)
    return found


def seen(of: Noted, above: bool = True) -> list[Note]:
    """The notes that are seen where something is worked on."""
    with current_store().read() as session:
        return notes_on(session, of, above=above)


@pages.get("/notes/<kind>/<int:number>")
def page(kind: str, number: int) -> str:
    """Everything noted on something, and a new note."""
    return _page(kind, number)


def _page(kind: str, number: int, error: str = "", at: int = 0) -> str:
    with current_store().read() as session:
        of = _found(session, kind, number)
        found = notes_on(session, of)
        left = _left(session, of)
    pictures = sum(len(note.pictures) for note in found)
    slots = [Slot("Notes", "count", str(len(found)), "", f"{pictures} picture{'s' if pictures != 1 else ''}")]
    return render_template(
        "notes.html", of=of, kind=kind, notes=found, most=MOST_PICTURES, longest=LONGEST, error=error, at=at,
        megabytes=LARGEST_FILE // 1024 // 1024, selvedge=left, slots=slots, tally="", next=Next("Back to the work", _back(of)),
    )  # fmt: skip


def _left(session: Session, of: Noted) -> Selvedge:
    if isinstance(of, Production):
        return Selvedge(of)
    wearer, docket = (of.wearer, of) if isinstance(of, Docket) else (of, None)
    return selvedge(wearer, docket, core_chart(session, latest_chart(session, wearer.id)), "")


def _back(of: Noted) -> str:
    """Where something that is noted on is worked on."""
    if isinstance(of, Docket):
        return url_for("board.draft", docket_id=of.id)
    if isinstance(of, Wearer):
        return url_for("wearer.about", wearer_id=of.id)
    return url_for("people.production", production_id=of.id)


@pages.post("/notes/<kind>/<int:number>")
def add(kind: str, number: int) -> Any:
    """Write a note on something."""
    words = request.form.get("words", "").replace("\r\n", "\n").strip()
    try:
        pictures = sent_pictures(MOST_PICTURES)
    except PhotoError as error:
        return _page(kind, number, str(error)), 422
    if not words and not pictures:
        return _page(kind, number, "Write something, or choose a picture, then keep the note."), 422
    with writing() as session:
        of = _found(session, kind, number)
        add_note(session, of, words, pictures, _fitting(session, of))
        tell(session, f"Noted on {of.name}.", of)
    return redirect(own_path(request.form.get("back") or url_for(".page", kind=kind, number=number)), 303)


def _fitting(session: Session, of: Noted) -> int | None:
    """The fitting of this garment that a note is made at; None where it is made at none."""
    asked = request.form.get("round", "")
    found = session.get(FittingRound, int(asked)) if is_number(asked) else None
    return found.id if found is not None and isinstance(of, Docket) and found.docket_id == of.id else None


def sent_pictures(most: int) -> list[Drawn]:
    """The pictures of a form, drawn anew. Raises PhotoError, naming the one that cannot be read."""
    found: list[Drawn] = []
    for number, upload in enumerate(request.files.getlist("pictures"), 1):
        data = upload.read()
        if not data:
            continue
        if len(found) >= most:
            raise PhotoError(f"A note takes {MOST_PICTURES} pictures; {most} more fit on this one.")
        try:
            large = small_photo(data, LARGE_SIDE)
        except PhotoError as error:
            raise PhotoError(f"Picture {number}: {error}") from None
        found.append(Drawn(large, small_photo(large)))
    return found


@pages.post("/notes/<int:note_id>")
def change(note_id: int) -> Any:
    """Change the words of a note, put pictures on it or take some off."""
    with current_store().read() as session:
        note = session.get(Note, note_id)
        of = noted_on(session, note) if note is not None else None
    if note is None or of is None:
        abort(404)
    off = {int(number) for number in request.form.getlist("off") if is_number(number)}
    try:
        pictures = sent_pictures(MOST_PICTURES - len([number for number in note.pictures if number not in off]))
    except PhotoError as error:
        return _page(kind_of(of), of.id, str(error), note_id), 422
    with writing() as session:
        note = session.get(Note, note_id)
        of = noted_on(session, note) if note is not None else None
        if note is None or of is None:
            abort(404)
        words = both(note.words, request.form.get("words", ""), "words", LONGEST)
        kept = [number for number in note.pictures if number not in off]
        if not words and not kept and not pictures:
            tell(session, f"Rubbed out a note on {of.name}.", of)
            session.delete(note)
        else:
            tell(session, f"Changed a note on {of.name}.", of)
            note.words = words
            if kept != note.pictures:
                note.pictures = kept
            if pictures:
                add_pictures(session, note, pictures)
    return redirect(url_for(".page", kind=kind_of(of), number=of.id), 303)


@pages.post("/notes/<int:note_id>/delete")
def delete(note_id: int) -> Any:
    """Rub out a note; taking that back brings its pictures too."""
    with writing() as session:
        note = session.get(Note, note_id)
        of = noted_on(session, note) if note is not None else None
        if note is None or of is None:
            abort(404)
        tell(session, f"Rubbed out a note on {of.name}.", of)
        session.delete(note)
    return redirect(url_for(".page", kind=kind_of(of), number=of.id), 303)


@pages.get("/notes/pictures/<int:number>.jpg")
def picture(number: int) -> Response:
    """A picture as large as it is looked at; kept by nobody on the way."""
    return _picture(number, small=False)


@pages.get("/notes/pictures/<int:number>/small.jpg")
def small(number: int) -> Response:
    """A picture as it lies beside the words."""
    return _picture(number, small=True)


def _picture(number: int, *, small: bool) -> Response:
    with current_store().read() as session:
        found = session.get(Picture, number)
        if found is None or session.get(Production, found.production_id) is None:
            abort(404)
        response = Response(found.small if small else found.data, mimetype="image/jpeg")
    response.headers["Cache-Control"] = "private, no-store"
    return response


def set_up(app: Flask) -> None:
    """Make it known to the templates."""
    app.context_processor(lambda: {"notes_seen": seen, "kind_of": kind_of})
