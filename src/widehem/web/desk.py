"""The first page: what the day brings, the newest first; and the productions."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from flask import Blueprint, current_app, render_template, request, url_for
from sqlalchemy import func, select

from widehem.jobs.keys import key
from widehem.jobs.ledger import Job
from widehem.jobs.standing import STANDING, Looked, looked
from widehem.store.copies import copies as kept_copies
from widehem.store.copies import day_of, last_failure, overdue
from widehem.store.dockets import productions
from widehem.store.models import Docket, Production, Wearer
from widehem.store.standing import House, whole_house
from widehem.web import first
from widehem.web.at_work import ask
from widehem.web.day import Day, Group
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, current_works, today
from widehem.web.selvedge import Selvedge
from widehem.web.show import day
from widehem.web.tries import all_remembered

pages = Blueprint("desk", __name__)
AT_ONCE = 0.25  # seconds that are waited for what is not looked at yet
FEW = 5  # entries of a group that are shown before all of them are asked for


def through(house: House, production_id: int | None = None) -> tuple[Looked, Job | None]:
    """What is known of a house, and the work that looks at the rest. What was just asked about is waited for a little."""
    works = current_works()
    known = looked(works.ledger, house)
    if not known.rest:
        return known, None
    asked = next(iter(works.ledger.find(request.args.get("job", ""))), None)
    if asked is not None and not asked.unfinished:  # stopped, or it broke: not asked for again by itself
        return known, asked
    about = key("stands", production_id, tuple(sorted(row.mark for row in house.garments)))
    job = ask(STANDING, {"production": production_id}, "Looking at every garment", about)
    job = works.wait(job, AT_ONCE)
    return looked(works.ledger, house), job


@pages.get("/")
def index() -> str:
    """The day."""
    return first_page({}, {})


def first_page(errors: dict[str, str], typed: dict[str, str]) -> str:
    """The first page. errors, typed: of a form that did not go through."""
    with current_store().read() as session:
        found = productions(session)
        counts = {
            model: dict(session.execute(select(model.production_id, func.count()).where(model.binned_at.is_(None)).group_by(model.production_id)).all())
            for model in (Wearer, Docket)
        }  # fmt: skip
        house = whole_house(session)
    common: dict[str, Any] = {
        "errors": errors, "typed": typed, "selvedge": Selvedge(), "copy_failed": _failed(), "tally": "", "productions": found,
        "counts": [counts[Wearer], counts[Docket]],
    }  # fmt: skip
    if not found:
        return first.page(common)
    known, job = through(house)
    groups = Day(house, known, today(), {row.id: row.name for row in found}, all_remembered()).groups()
    wanted = request.args.get("all", "")
    return render_template(
        "index.html", groups=groups, few=FEW, wanted=wanted, job=job, rest=known.rest, now=today(),
        slots=_slots(groups, known) + _copies(), next=_next(found, groups), **common,
    )  # fmt: skip


def _slots(groups: Sequence[Group], known: Looked) -> list[Slot]:
    """The four groups that press, in one order always."""
    counts = {group.code: group for group in groups}
    slots = []
    for code, title, words in (
        ("due", "Due", "in fourteen days"), ("untrue", "Not true", "before they are cut"), ("stale", "Stale", "a newer chart differs"),
        ("doubt", "In doubt", "charts with a doubt"),
    ):  # fmt: skip
        group = counts.get(code)
        verdict = group.verdict if group else "open" if known.rest else "count"
        href = "#" + code if group else ""
        words = f"{group.late} late" if group and group.late else words
        brief = words if group else "being looked at" if known.rest else "nothing"
        slots.append(Slot(title, verdict, str(len(group)) if group else "0", "", brief, href))
    return slots


def _next(found: Sequence[Production], groups: Sequence[Group]) -> Next:
    """What presses most."""
    if groups:
        first = groups[0].entries(1)[0]
        return Next(f"Go to {first.what}", first.href)
    return Next(f"Open {found[0].name}", url_for("people.production", production_id=found[0].id))


def _failed() -> dict[str, str] | None:
    """What is told of a daily copy that failed."""
    folder = current_app.extensions["widehem.copies"]
    return last_failure(folder) if folder is not None else None


def _copies() -> list[Slot]:
    """How it stands with the daily copies, where any are kept."""
    folder = current_app.extensions["widehem.copies"]
    if folder is None:
        return []
    found = kept_copies(folder)
    newest = day_of(found[0]) if found else None
    verdict = "not" if _failed() else "look" if overdue(folder, today()) else "count" if newest else "open"
    words = f"the newest of {day(newest)}" if newest else "the first is made soon"
    return [Slot("Daily copies", verdict, str(len(found)), "", words)]
