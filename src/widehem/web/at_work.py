"""Work that lasts, as its maker sees it: how far it is, in the hem of every page; a page to wait on; and a way to stop it."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from flask import session as browser

from widehem.jobs.archives import ARCHIVE, ARCHIVE_IN
from widehem.jobs.cast_files import CAST
from widehem.jobs.intake import INTAKE
from widehem.jobs.ledger import DONE, FAILED, STOPPED, Job
from widehem.jobs.nest_files import NEST
from widehem.jobs.outlines import OUTLINES
from widehem.jobs.papers import FILE
from widehem.web.door import own_path
from widehem.web.handed import handed
from widehem.web.hem import Next, Slot
from widehem.web.here import current_works
from widehem.web.selvedge import Selvedge
from widehem.web.show import is_htmx
from widehem.web.writing import announce

pages = Blueprint("at_work", __name__)
FILES = (FILE, CAST, ARCHIVE, NEST)  # kinds that end in a file to take
MOST, KEY = 6, "works"  # jobs a browser is told of, the newest
SHORT = 1.5  # seconds that are waited for a piece of work before a page is shown to wait on
STATES = {DONE: ("true", "done"), FAILED: ("not", "failed"), STOPPED: ("open", "stopped")}


def ask(kind: str, wish: dict[str, Any], words: str, about: str) -> Job:
    """Ask for work in the name of this browser, which is told how far it is."""
    job = current_works().ask(kind, wish, words, about)
    if job.unfinished:
        names = [name for name in browser.get(KEY, []) if name != job.id]
        browser[KEY] = [*names, job.id][-MOST:]
    return job


def at_work() -> list[Job]:
    """What is being done for this browser."""
    names = browser.get(KEY)
    if not names:
        return []
    jobs = [job for job in current_works().ledger.find(*names) if job.unfinished]
    if len(jobs) != len(names):
        browser[KEY] = [job.id for job in jobs]
    return jobs


def set_up(app: Any) -> None:
    """Make it known to the templates."""
    app.context_processor(lambda: {"at_work": at_work})


def _job(name: str) -> Job:
    """404 where nobody knows it any more."""
    found = current_works().ledger.find(name)
    if not found:
        abort(404)
    return found[0]


@pages.get("/under-way")
def now() -> str:
    """What is being done for this browser, as it stands in the hem."""
    return render_template("_at_work.html")


@pages.get("/under-way/<name>")
def page(name: str) -> Any:
    """A page to wait on; it leads on as soon as the work is done."""
    job, back = _job(name), own_path(request.args.get("back"))
    if job.state == DONE and (job.kind not in FILES or not is_htmx()):
        if job.kind in (INTAKE, ARCHIVE_IN):
            announce()
        return redirect(_out_of(job, back), 303)
    verdict, words = STATES.get(job.state, ("open", "at work"))
    slots = [Slot("Work", verdict, str(job.done), f"of {job.whole}" if job.whole else "", words)]
    return render_template(
        "work.html", job=job, back=back, selvedge=Selvedge(), slots=slots, tally="", next=Next("Back to where you were", back),
    )  # fmt: skip


def _out_of(job: Job, back: str) -> str:
    """Where what came out of it is found."""
    if job.kind in FILES:
        return url_for(".file", name=job.id)
    if job.kind == OUTLINES:
        return url_for("outlines.station", design_id=job.answer["design"])
    if job.kind in (INTAKE, ARCHIVE_IN):
        return url_for("people.production", production_id=job.answer["production"])
    return back


@pages.get("/under-way/<name>/file")
def file(name: str) -> Response:
    """The file that was made."""
    return taken(_job(name))


def taken(job: Job) -> Response:
    """The file a job made, to take. 404 where there is none, or none any more."""
    data = current_works().ledger.found([job.answer["key"]]) if job.state == DONE and job.kind in FILES else {}
    if not data:
        abort(404)
    return handed(next(iter(data.values())), job.answer["name"], job.answer["mimetype"])


@pages.post("/under-way/<name>/stop")
def stop(name: str) -> Any:
    """Stop it: nothing of it is kept. In the hem the rest stays as it is."""
    current_works().ledger.stop(name)
    browser[KEY] = [other for other in browser.get(KEY, []) if other != name]
    if is_htmx() and "back" not in request.form:
        return now()
    return redirect(own_path(request.form.get("back")), 303)
