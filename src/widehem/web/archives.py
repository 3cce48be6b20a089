"""A whole production out as a file that draws the same elsewhere, and in again."""

from __future__ import annotations

import base64
import secrets
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for

from widehem.jobs.archives import ARCHIVE, ARCHIVE_IN
from widehem.jobs.ledger import DONE, FAILED
from widehem.store.models import Production
from widehem.web import at_work
from widehem.web.at_work import ask, taken
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, current_works
from widehem.web.selvedge import Selvedge
from widehem.web.writing import announce, mark

pages = Blueprint("archives", __name__)
WITH_FILES = ("archives.take_in",)
LARGEST = 8 * 1024 * 1024  # of a file that is sent to a page; the command line takes larger ones


@pages.get("/productions/<int:production_id>/archive")
def out(production_id: int) -> Any:
    """Everything of a production that is needed to draw it again."""
    with current_store().read() as session:
        production = session.get(Production, production_id)
        if production is None:
            abort(404)
        name = production.name
    pictures = request.args.get("pictures") != "no"
    job = ask(
        ARCHIVE, {"production": production_id, "pictures": pictures}, f"Writing the archive of {name}", secrets.token_hex(8)
    )
    job = current_works().wait(job, at_work.SHORT)
    if job.state == DONE:
        return taken(job)
    back = url_for("people.production", production_id=production_id)
    return redirect(url_for("at_work.page", name=job.id, back=back), 303)


@pages.get("/archives")
def begin() -> str:
    """Take an archive in."""
    return _page("")


def _page(wrong: str) -> str:
    return render_template(
        "archive_in.html", wrong=wrong, megabytes=LARGEST // 1024 // 1024, selvedge=Selvedge(), tally="",
        slots=[Slot("An archive", "count", "JSON", "", "of one production")], next=Next("Back to the day", url_for("desk.index")),
    )  # fmt: skip


@pages.post("/archives")
def take_in() -> Any:
    """A new production from an archive; nothing that is there is changed."""
    sent = request.files.get("file")
    data = sent.read(LARGEST + 1) if sent is not None else b""
    if not data:
        return _page("Choose an archive first."), 422
    if len(data) > LARGEST:
        return _page(f"The file is larger than {LARGEST // 1024 // 1024} MB: take it in with `widehem archive-in`."), 422
    wish = {"data": base64.b64encode(data).decode(), "by": mark()}
    job = ask(ARCHIVE_IN, wish, "Taking an archive in", secrets.token_hex(8))
    job = current_works().wait(job, at_work.SHORT)
    if job.state == FAILED:
        return _page(job.trouble), 422
    if job.state == DONE:
        announce()
        return redirect(url_for("people.production", production_id=job.answer["production"]), 303)
    return redirect(url_for("at_work.page", name=job.id, back=url_for(".begin")), 303)
