"""The days of a production, and of all of them: back from the dress rehearsal, what is late, what waits for whom; as an iCalendar file."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from markupsafe import Markup
from sqlalchemy.orm import Session

from widehem.core.days import day_words
from widehem.core.making.calendar import CalendarError, Garment, Late, Load, Plan, Stretch, checked, late, loads, stretches
from widehem.core.output.svg_calendar import days_svg
from widehem.core.values import replace
from widehem.jobs.hours import HOURS, hours_key, known_times
from widehem.jobs.materials import dockets_in
from widehem.store.cloths import pace
from widehem.store.dockets import productions
from widehem.store.journal import tell
from widehem.store.making import works_of
from widehem.store.models import Production
from widehem.store.planning import as_garment, plan_of_days, toile_rounds
from widehem.web.at_work import ask
from widehem.web.handed import handed
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, current_works, today
from widehem.web.selvedge import Selvedge
from widehem.web.writing import writing

pages = Blueprint("planning", __name__)


@dataclass(frozen=True)
class Days:
    """The days of one production. rest: garments whose hours are still being worked out."""

    production: Production
    plan: Plan
    garments: tuple[Garment, ...]
    rest: int

    @property
    def rows(self) -> list[tuple[Garment, Sequence[Stretch]]]:
        """Its garments with their phases, the one that begins first on top."""
        found = [(garment, stretches(garment, self.plan, today())) for garment in self.garments]
        return sorted(found, key=lambda row: (not row[1], row[1][0].begin if row[1] else date.max))

    @property
    def late(self) -> list[Late]:
        return late(self.garments, self.plan, today())

    @property
    def loads(self) -> list[Load]:
        return loads(self.garments, self.plan, today())


def _days(session: Session, production: Production, known: Mapping[str, Any] | None = None) -> Days:
    """The days of a production, as far as its hours are worked out."""
    plan, rounds, own = plan_of_days(production), toile_rounds(session, production.id), pace(session)
    works = works_of(session, dockets_in(session, production.id))
    keys = {work.docket.id: hours_key(work) for work in works}
    there = known_times(current_works().ledger, list(keys.values())) if known is None else known
    garments = tuple(
        as_garment(work, there.get(keys[work.docket.id]), own, rounds.get(work.docket.id, 0), plan) for work in works
    )
    return Days(production, plan, garments, sum(name not in there for name in keys.values()))


def _ask(days: Sequence[Days]) -> None:
    """Have the hours worked out that are not known."""
    wanted = [entry.production.id for entry in days if entry.rest]
    if wanted:
        ask(HOURS, {"productions": wanted}, "Working out the hours of making", " ".join(map(str, wanted)))


@pages.get("/productions/<int:production_id>/calendar")
def production(production_id: int) -> Any:
    """The calendar of a production."""
    return _page(production_id, {}, "")


def _page(production_id: int, typed: Mapping[str, str], told: str) -> Any:
    with current_store().read() as session:
        found = session.get(Production, production_id)
        if found is None:
            abort(404)
        days = _days(session, found)
    _ask([days])
    if days.rest and not current_works().ledger.going(HOURS, str(production_id)):
        with current_store().read() as session:
            days = _days(session, session.get(Production, production_id) or found)
    rows = days.rows
    drawn = days_svg(rows, days.plan, today()) if any(phases for _, phases in rows) else None
    behind = days.late
    hours = sum(garment.left for garment in days.garments)
    slots = [
        Slot(
            "Late",
            "look" if behind else "true",
            str(len(behind)),
            "garments",
            f"{behind[0].garment.name}: {behind[0].stretch.words.lower()}" if behind else "nothing is behind",
        ),
        Slot("To sew", "count", f"{hours:.0f}", "h", f"{days.plan.hands} pairs of hands, {days.plan.hours:g} hours a day"),
    ]
    much = [load for load in days.loads if load.too_much]
    if much:
        slots.append(
            Slot(
                "Too much",
                "look",
                str(len(much)),
                "weeks",
                f"the week of {day_words(much[0].monday)} has {much[0].hours:.0f} h",
            )
        )
    return render_template(
        "calendar.html", production=found, days=days, rows=rows, drawn=drawn, drawing=Markup(drawn.inside) if drawn else "", late=behind, loads=days.loads,
        typed=typed, told=told, day_words=day_words, selvedge=Selvedge(found), slots=slots, tally="",
        next=Next("Back to the production", url_for("people.production", production_id=production_id), "All productions", url_for(".everything")),
    )  # fmt: skip


@pages.post("/productions/<int:production_id>/calendar")
def keep(production_id: int) -> Any:
    """Keep the days of a production."""
    form = request.form
    with writing() as session:
        found = session.get(Production, production_id)
        if found is None:
            abort(404)
        try:
            plan = _read(form, plan_of_days(found))
        except CalendarError as error:
            return _page(production_id, form, str(error)), 422
        found.plan = plan.as_data()
        tell(session, f"Changed the days of {found.name}.", found)
    return redirect(url_for(".production", production_id=production_id), 303)


FIELDS = (
    ("hours", "Hours a day"),
    ("hands", "Pairs of hands"),
    ("week", "Working days a week"),
    ("rounds", "Fittings of a toile"),
)


def _read(form: Mapping[str, str], old: Plan) -> Plan:
    """The days as they were typed. Raises CalendarError naming the field."""
    found: dict[str, Any] = {}
    for name, words in (("rehearsal", "Dress rehearsal"), ("opening", "Opening")):
        text = form.get(name, "").strip()
        try:
            found[name] = date.fromisoformat(text) if text else None
        except ValueError:
            raise CalendarError(f'{words}: "{text[:20]}" is no day: write it like 2027-03-14.') from None
    for name, words in FIELDS:
        text = form.get(name, "").strip().replace(",", ".")
        try:
            found[name] = float(text) if name == "hours" else int(text)
        except ValueError:
            raise CalendarError(f'{words}: "{text[:20]}" is no figure: write one.') from None
    return checked(replace(old, **found))


@pages.get("/calendar")
def everything() -> Any:
    """What is late and what comes next, over all productions."""
    with current_store().read() as session:
        found = [_days(session, entry) for entry in productions(session) if entry.binned_at is None]
    _ask(found)
    behind = sorted(((entry, row) for entry in found for row in entry.late), key=lambda pair: -pair[1].stretch.late)
    coming = sorted(
        ((entry, garment, row) for entry in found for garment, phases in entry.rows for row in phases if not row.done and not row.late and row.phase != "rehearsal"),
        key=lambda part: part[2].end,
    )[:40]  # fmt: skip
    slots = [Slot("Late", "look" if behind else "true", str(len(behind)), "garments", "over all productions")]
    return render_template(
        "calendar_all.html", found=found, behind=behind, coming=coming, day_words=day_words, rest=sum(entry.rest for entry in found), selvedge=Selvedge(), slots=slots,
        tally="", next=Next("Back to the day", url_for("desk.index")),
    )  # fmt: skip


@pages.get("/productions/<int:production_id>/calendar.ics")
def file(production_id: int) -> Any:
    """The days of a production for another calendar."""
    from widehem.core.output.calendar_out import calendar_file

    with current_store().read() as session:
        found = session.get(Production, production_id)
        if found is None:
            abort(404)
        days = _days(session, found)
    data = calendar_file(found.name, days.rows, days.plan, datetime.now(UTC), f"p{production_id}")
    return handed(data, f"{found.name}.ics", "text/calendar")


@pages.get("/calendar.ics")
def file_of_all() -> Response:
    """The days of every production in one file."""
    from widehem.core.output.calendar_out import calendar_file

    with current_store().read() as session:
        found = [_days(session, entry) for entry in productions(session) if entry.binned_at is None]
    rows = [
        (replace(garment, name=f"{garment.name} ({entry.production.name})"), phases)
        for entry in found
        for garment, phases in entry.rows
    ]
    first = found[0].plan if len(found) == 1 else Plan()
    return handed(calendar_file("Workroom", rows, first, datetime.now(UTC), "all"), "workroom.ics", "text/calendar")
