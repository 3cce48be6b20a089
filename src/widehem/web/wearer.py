"""About one wearer: name and parts, what to be careful of, photo, figure table, and deleting everything of theirs."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for

from widehem.core.output.photo import LARGEST_FILE, PhotoError, small_photo
from widehem.store.bin import put_in_bin
from widehem.store.dockets import find_wearer
from widehem.store.journal import tell
from widehem.store.models import Photo, Wearer, now
from widehem.store.tables import all_tables
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.in_hand import in_hand
from widehem.web.people import LONGEST, written_out
from widehem.web.selvedge import selvedge
from widehem.web.stood import clash, merged
from widehem.web.writing import writing

pages = Blueprint("wearer", __name__)
LONGEST_NOTE = 400
ABOUT = {
    "name": "name",
    "part": "role",
    "figure": "figure",
    "allergies": "allergies",
    "movement": "movement",
}  # field: of a wearer


@pages.get("/wearers/<int:wearer_id>")
def about(wearer_id: int) -> str:
    """The wearer's own page."""
    return _page(wearer_id, {})


def _about(wearer: Wearer) -> dict[str, str]:
    """What the page says about a wearer, by field."""
    return {field: getattr(wearer, name) for field, name in ABOUT.items()}


def _page(wearer_id: int, errors: dict[str, str], typed: Mapping[str, str] | None = None) -> str:
    with current_store().read() as session:
        hand = in_hand(wearer_id, session)
        tables = all_tables(session)
        photo, charts = hand.wearer.photo, len(hand.wearer.charts)
        stamp = int(photo.created_at.timestamp()) if photo else 0
    wearer = hand.wearer
    careful = [words for words, said in (("allergies", wearer.allergies), ("movement", wearer.movement)) if said]
    read = len(list(hand.chart))
    slots = [
        Slot("Charts", "count", str(charts), "", "kept over time"),
        Slot("Read", "count", str(read), "measures", "on the newest chart"),
        Slot("Garments", "count", str(len(wearer.dockets)), "", "begun for this wearer"),
        Slot(
            "To be careful of",
            "look" if careful else "true",
            str(len(careful)),
            "note" if len(careful) == 1 else "notes",
            " and ".join(careful) or "nothing noted",
        ),
    ]
    return render_template(
        "wearer.html", about={**_about(wearer), **(typed or {})}, was=_about(wearer), wearer=wearer, hand=hand, tables=tables, photo=stamp, errors=errors, most=LARGEST_FILE // 1024 // 1024,
        selvedge=selvedge(wearer, hand.docket, hand.chart, ""), slots=slots, tally="",
        next=Next("To the chart", hand.to("measure.chart"), "Back to the production",
            url_for("people.production", production_id=wearer.production_id)),
    )  # fmt: skip


@pages.post("/wearers/<int:wearer_id>/about")
def keep(wearer_id: int) -> Any:
    """Keep what the page says about the wearer; an empty name leaves the old one."""
    typed = {
        name: request.form[name].strip().replace("\r\n", "\n")[: LONGEST if name in ("name", "part") else LONGEST_NOTE]
        for name in ABOUT
        if name in request.form
    }
    with writing() as session:
        wearer = find_wearer(session, wearer_id)
        if wearer is None:
            abort(404)
        found = merged(_about(wearer), typed)
        for name, value in found.kept.items():
            if name != "figure" or value in all_tables(session):
                setattr(wearer, ABOUT[name], value or (wearer.name if name == "name" else ""))
        tell(session, f"Kept what is said of {wearer.name}.", wearer)
    if found.clashes:
        return _page(wearer_id, {name: clash(theirs) for name, theirs in found.clashes.items()}, found.shown(typed)), 409
    return redirect(url_for(".about", wearer_id=wearer_id), 303)


@pages.post("/wearers/<int:wearer_id>/photo")
def keep_photo(wearer_id: int) -> Any:
    """Keep a photo, drawn anew, or rub it out."""
    upload = request.files.get("photo")
    data = upload.read() if upload else b""
    rub_out = request.form.get("rub_out") == "yes"
    if not data and not rub_out:
        return _page(wearer_id, {"photo": "Choose a photo first: JPEG, PNG or WebP."}), 422
    try:
        small = b"" if rub_out else small_photo(data)
    except PhotoError as error:
        return _page(wearer_id, {"photo": str(error)}), 422
    with writing() as session:
        wearer = find_wearer(session, wearer_id)
        if wearer is None:
            abort(404)
        tell(session, f"{'Rubbed out' if rub_out else 'Kept'} the photo of {wearer.name}.", wearer)
        if rub_out and wearer.photo is not None:
            session.delete(wearer.photo)
        elif rub_out:
            pass
        elif wearer.photo is not None:
            wearer.photo.data, wearer.photo.created_at = small, now()
        else:
            wearer.photo = Photo(wearer_id=wearer_id, data=small)
    return redirect(url_for(".about", wearer_id=wearer_id), 303)


@pages.get("/wearers/<int:wearer_id>/photo.jpg")
def photo(wearer_id: int) -> Response:
    """The photo; kept by nobody on the way."""
    with current_store().read() as session:
        found = session.get(Photo, wearer_id)
        if found is None or find_wearer(session, wearer_id) is None:
            abort(404)
        response = Response(found.data, mimetype="image/jpeg")
    response.headers["Cache-Control"] = "private, no-store"
    return response


@pages.post("/wearers/<int:wearer_id>/delete")
def delete(wearer_id: int) -> Any:
    """Delete a wearer with the charts and dockets, once the name is written out."""
    with writing() as session:
        wearer = find_wearer(session, wearer_id)
        if wearer is None:
            abort(404)
        name, production_id = wearer.name, wearer.production_id
        sure = written_out(name)
        if sure:
            tell(session, f"{name} is in the bin, with charts and garments.", wearer)
            put_in_bin(session, wearer)
    if not sure:
        return _page(
            wearer_id, {"sure": f"Write {name} in the field to delete everything of theirs. Nothing was deleted."}
        ), 422
    return redirect(url_for("people.production", production_id=production_id), 303)
