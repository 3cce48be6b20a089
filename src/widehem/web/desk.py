"""The first page: what the day brings, the newest first; and the productions."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from flask import Blueprint, current_app, render_template, request, url_for
from sqlalchemy import func, select

from widehem.core.body.catalogue import names
from widehem.core.standing import WAITS, Standing, due_words
from widehem.jobs.keys import key
from widehem.jobs.ledger import Job
from widehem.jobs.standing import STANDING, Garment, Looked, looked
from widehem.store.copies import copies as kept_copies
from widehem.store.copies import day_of, last_failure, overdue
from widehem.store.dockets import productions
from widehem.store.models import Docket, Production, Wearer
from widehem.store.standing import GarmentRow, House, PersonRow, whole_house
from widehem.web import first
from widehem.web.at_work import ask
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, current_works, today
from widehem.web.selvedge import Selvedge
from widehem.web.show import day
from widehem.web.tries import all_remembered

pages = Blueprint("desk", __name__)
AT_ONCE = 0.25  # seconds that are waited for what is not looked at yet
FEW = 5  # entries of a group that are shown before all of them are asked for


@dataclass(frozen=True)
class Entry:
    """One thing of the day. what: the garment or the wearer; about: whose it is; words: what is the matter; late: it presses."""

    what: str
    href: str
    about: str
    words: str
    late: bool = False


@dataclass(frozen=True)
class Group:
    """Things of one kind, the newest first."""

    code: str
    title: str
    entries: tuple[Entry, ...]
    verdict: str = "count"


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
    groups = day_of_house(house, known, today(), {row.id: row.name for row in found})
    wanted = request.args.get("all", "")
    return render_template(
        "index.html", groups=groups, few=FEW, wanted=wanted, job=job, rest=known.rest, now=today(),
        slots=_slots(groups, known) + _copies(), next=_next(found, groups), **common,
    )  # fmt: skip


def day_of_house(house: House, known: Looked, now: date, productions: dict[int, str]) -> list[Group]:
    """What the day brings: groups in the order in which they press, the newest first in each."""
    several = len(productions) > 1
    garments = [
        (row, known.garments[row.id], known.garments[row.id].standing(row))
        for row in house.garments
        if row.id in known.garments
    ]
    open_ = [entry for entry in garments if not entry[2].finished]
    flat = [entry for entry in open_ if not entry[2].cut]  # what is cut is not drawn again

    def entry(row: GarmentRow, words: str, href: str = "", *, late: bool = False) -> Entry:
        about = f"{row.wearer}, {productions[row.production_id]}" if several else row.wearer
        return Entry(row.name, href or url_for("board.draft", docket_id=row.id), about, words, late)

    def each(
        rows: Iterable[tuple[GarmentRow, Garment, Standing]], words: Callable[[Garment, Standing], str],
        href: Callable[[GarmentRow, Garment], str] = lambda row, found: "",
    ) -> tuple[Entry, ...]:  # fmt: skip
        return tuple(entry(row, words(found, stands), href(row, found)) for row, found, stands in rows)

    due = sorted((entry for entry in open_ if entry[2].is_due(now)), key=lambda entry: entry[0].due_on or now)
    tried = all_remembered()
    groups = [
        Group(
            "due", "Due",
            tuple(
                entry(row, f"{due_words(late)}, {_still(stands)}", late=late >= 0)
                for row, _, stands in due if (late := stands.late(now)) is not None
            ), "look" if any((e[2].late(now) or -1) > 0 for e in due) else "count",
        ),
        Group(
            "untrue", "Not true",
            each((e for e in flat if e[2].untrue and not e[2].missing), lambda found, stands: _untrue(found),
                 lambda row, found: url_for("board.draft", docket_id=row.id, slip="checks", lit=found.worst)), "not",
        ),
        Group("undrawn", "Cannot be drawn", each((e for e in flat if e[2].trouble), lambda found, stands: "the draft says why"), "not"),
        Group(
            "stale", "Stale",
            each((e for e in flat if e[2].changed), lambda found, stands: f"{names(found.changed[:2])}{' and more' if len(found.changed) > 2 else ''} changed since it was drawn"),
            "look",
        ),
        Group("doubt", "In doubt", tuple(_doubt(person, known, productions, several=several) for person in house.people
            if known.people.get(person.id) and known.people[person.id].looks), "look"),
        Group("waits", "Waiting", each((e for e in open_ if e[2].waits), lambda found, stands: f"for {WAITS.get(stands.waits, stands.waits)}")),
        Group("tried", "Tried and not kept", each((e for e in open_ if e[0].id in tried), lambda found, stands: "take it up, or drop it")),
        Group(
            "read", "To read",
            each((e for e in flat if e[2].missing), lambda found, stands: f"needs {names(found.missing)}" if len(found.missing) < 4 else f"needs {len(found.missing)} measures",
                 lambda row, found: url_for("measure.chart", wearer_id=row.wearer_id, docket=row.id)),
        ),
    ]  # fmt: skip
    return [group for group in groups if group.entries]


def _still(stands: Standing) -> str:
    """What is still to do on something that is due."""
    words = {
        "read": "not measured yet", "mend": "cannot be drawn", "redraw": "stale", "true": "not true", "cut": "to cut",
        "wait": f"waits for {WAITS.get(stands.waits, stands.waits)}", "fit": "to fit", "finish": "to finish", "": "",
    }  # fmt: skip
    return words[stands.next]


def _untrue(found: Garment) -> str:
    more = f" and {found.untrue - 1} more" if found.untrue > 1 else ""
    return f"{found.title[:1].lower()}{found.title[1:]}{more}"


def _doubt(person: PersonRow, known: Looked, productions: dict[int, str], *, several: bool) -> Entry:
    found = known.people[person.id]
    words = f"{names([found.at])} to look at again" if found.at else "the chart to look at again"
    if found.looks > 1:
        words += f", and {found.looks - 1} more"
    about = productions[person.production_id] if several else ""
    return Entry(person.name, url_for("measure.chart", wearer_id=person.id, at=found.at or None), about, words)


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
        late = sum(1 for entry in group.entries if entry.late) if group else 0
        words = f"{late} late" if code == "due" and late else words
        brief = words if group else "being looked at" if known.rest else "nothing"
        slots.append(Slot(title, verdict, str(len(group.entries)) if group else "0", "", brief, href))
    return slots


def _next(found: Sequence[Production], groups: Sequence[Group]) -> Next:
    """What presses most."""
    if groups:
        first = groups[0].entries[0]
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
