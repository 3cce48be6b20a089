"""Productions, their wearers and their dockets."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for

from widehem.core.body.catalogue import names
from widehem.core.body.chart import Chart
from widehem.core.body.doubts import doubts
from widehem.core.body.lists import FULL
from widehem.core.drafting.method import METHODS, by_part
from widehem.core.standing import WAITS, Standing, due_words
from widehem.jobs.standing import Looked
from widehem.store.bin import DAYS, put_in_bin
from widehem.store.dockets import bodice_for, find_docket
from widehem.store.files import accepted_doubts, company
from widehem.store.house import open_docket
from widehem.store.journal import tell
from widehem.store.models import Production, Wearer
from widehem.store.standing import GarmentRow, whole_house
from widehem.store.tables import all_tables
from widehem.web.desk import first_page, through
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, today
from widehem.web.numbers import number_of
from widehem.web.selvedge import Selvedge
from widehem.web.writing import writing

pages = Blueprint("people", __name__)
LONGEST, AT_ONCE = 120, 60  # signs of a name; garments that are listed at once


@pages.post("/productions")
def add_production() -> Any:
    typed = dict(request.form.items())
    name = typed.get("name", "").strip()
    if not name:
        return first_page({"name": "The production has no name yet: write one, then add it."}, typed), 422
    with writing() as session:
        entry = Production(name=name[:LONGEST], company=typed.get("company", "").strip()[:LONGEST])
        session.add(entry)
        session.flush()
        tell(session, f"Began {entry.name}.", entry)
        number = entry.id
    return redirect(url_for(".production", production_id=number), 303)


@pages.get("/productions/<int:production_id>")
def production(production_id: int) -> str:
    """One production: its wearers with the state of their charts, its dockets."""
    return _production(production_id, {}, {})


def _production(production_id: int, errors: dict[str, str], typed: dict[str, str]) -> str:
    with current_store().read() as session:
        found = session.get(Production, production_id)
        if found is None:
            abort(404)
        people = company(session, production_id)
        accepted = accepted_doubts(session, [person.row.id for person in people if person.row])
        tables = all_tables(session)
        house = whole_house(session, production_id)
    seen, job = through(house, production_id)
    stands = {row.id: seen.garments[row.id].standing(row) for row in house.garments if row.id in seen.garments}
    charts = {person.wearer.id: person.chart for person in people}
    wanted = request.args.get("find", "").strip()[:60]
    kept = {person.wearer.id: accepted.get(person.row.id, set()) if person.row else set() for person in people}
    wearers = {person.wearer.id: person.wearer for person in people}
    looks = {number: sum(1 for doubt in doubts(chart) if doubt.key not in kept[number]) for number, chart in charts.items()}
    lacking = _lacking(house.garments, seen, charts)
    garments = [row for row in house.garments if wanted.lower() in f"{row.name} {row.wearer}".lower()]
    begin = min(request.args.get("from", 0, type=number_of), max(len(garments) - 1, 0))
    return render_template(
        "production.html",
        lacking=lacking,
        days=DAYS,
        production=found,
        charts=charts,
        looks=looks,
        stands=stands,
        garments=garments[begin : begin + AT_ONCE],
        begin=begin,
        at_once=AT_ONCE,
        whole=len(garments),
        any_garment=bool(house.garments),
        waits=WAITS,
        known=seen,
        job=job,
        now=today(),
        due_words=due_words,
        wearers=wearers,
        listed=[wearer for wearer in wearers.values() if wanted.lower() in f"{wearer.name} {wearer.role}".lower()],
        find=wanted,
        methods=METHODS,
        method_groups=by_part(METHODS.values()),
        tables=tables,
        step_to=step_to,
        names=names,
        errors=errors,
        typed=typed,
        selvedge=Selvedge(found),
        slots=_slots(charts, looks, stands, seen.rest),
        tally="",
        next=_next(house.garments, stands),
    )


def _lacking(garments: Sequence[GarmentRow], seen: Looked, charts: dict[int, Chart]) -> dict[int, int]:
    """By wearer, how many measures are still to read: of what the garments need, of the full thirty while there is none."""
    wanted: dict[int, set[str]] = {}
    for row in garments:
        found = seen.garments.get(row.id)
        wanted.setdefault(row.wearer_id, set()).update(found.missing if found is not None else ())
    return {
        number: len(wanted[number]) if number in wanted else sum(1 for code in FULL if code not in chart)
        for number, chart in charts.items()
    }


def _slots(charts: dict[int, Chart], looks: dict[int, int], stands: dict[int, Standing], rest: int) -> list[Slot]:
    read = sum(1 for chart in charts.values() if any(chart))
    look = sum(1 for count in looks.values() if count)
    open_ = [standing for standing in stands.values() if not standing.finished]
    untrue = sum(1 for standing in open_ if standing.next in ("true", "mend"))
    stale = sum(1 for standing in open_ if standing.next == "redraw")
    late = sum(1 for standing in open_ if (standing.late(today()) or -1) > 0)
    due = sum(1 for standing in open_ if standing.is_due(today()))
    words = "being looked at" if rest else "to look at"
    return [
        Slot("Wearers measured", "count" if read == len(charts) else "open", str(read), f"of {len(charts)}", "with a chart begun"),
        Slot(
            "In doubt", "look" if look else "count", str(look), "chart" if look == 1 else "charts",
            "to look at again" if look else "no open doubts",
        ),
        Slot("Not true", "not" if untrue else "open" if rest else "count", str(untrue), "", "before they are cut" if untrue else words if rest else "nothing"),
        Slot("Stale", "look" if stale else "count", str(stale), "", "a newer chart differs" if stale else words if rest else "nothing"),
        Slot("Due", "look" if late else "count", str(due), "", f"{late} late" if late else "in fourteen days"),
    ]  # fmt: skip


STEPS: dict[str, tuple[str, str]] = {  # what is next: words, and where that is done
    "read": ("Read what {} needs", "measure.chart"),
    "mend": ("See why {} cannot be drawn", "board.draft"),
    "redraw": ("Draw {} on the newest chart", "board.draft"),
    "true": ("True {}", "board.draft"),
    "wait": ("Look at {}", "board.draft"),
    "cut": ("Cut {}", "paper.cut"),
    "fit": ("Fit {}", "board.draft"),
    "finish": ("Finish {}", "board.draft"),
}


def step_to(docket: GarmentRow, step: str) -> str:
    """Where the next step of a garment is done."""
    endpoint = STEPS[step][1]
    if endpoint == "measure.chart":
        return url_for(endpoint, wearer_id=docket.wearer_id, docket=docket.id)
    slips = {"true": "checks", "wait": "garment", "fit": "garment", "finish": "garment"}
    return url_for(endpoint, docket_id=docket.id, slip=slips.get(step))


PRESSING = ("read", "mend", "redraw", "true", "cut", "wait", "fit", "finish")


def _next(garments: Sequence[GarmentRow], stands: dict[int, Standing]) -> Next | None:
    """What presses most: what is due first, then what hinders the others."""
    open_ = [row for row in garments if row.id in stands and stands[row.id].next]
    if not open_:
        return None
    first = min(open_, key=lambda row: (row.due_on or date.max, PRESSING.index(stands[row.id].next), row.id))
    step = stands[first.id].next
    return Next(STEPS[step][0].format(first.name), step_to(first, step))


@pages.post("/productions/<int:production_id>/wearers")
def add_wearer(production_id: int) -> Any:
    typed = dict(request.form.items())
    name = typed.get("wearer", "").strip()
    if not name:
        return _production(production_id, {"wearer": "The wearer has no name yet: write one, then add the wearer."}, typed), 422
    with writing() as session:
        if session.get(Production, production_id) is None:
            abort(404)
        wearer = Wearer(
            production_id=production_id,
            name=name[:LONGEST],
            role=typed.get("role", "").strip()[:LONGEST],
            figure=typed["figure"] if typed.get("figure") in all_tables(session) else "curved",
        )
        session.add(wearer)
        session.flush()
        tell(session, f"Added {wearer.name}.", wearer)
        number = wearer.id
    return redirect(url_for("measure.chart", wearer_id=number), 303)


@pages.post("/productions/<int:production_id>/dockets")
def add_docket(production_id: int) -> Any:
    typed = dict(request.form.items())
    name, method = typed.get("docket", "").strip(), typed.get("method", "")
    errors = {}
    if not name:
        errors["docket"] = "The garment has no name yet: write one, then begin the garment."
    if method not in METHODS:
        errors["method"] = "Choose how it is drafted, then begin the garment."
    with writing() as session:
        wearer = session.get(Wearer, request.form.get("for", 0, type=number_of))
        if wearer is None or wearer.production_id != production_id:
            errors["for"] = "Choose who wears it, then begin the garment."
        sleeve = METHODS[method] if not errors and METHODS[method].for_armhole else None
        bodice = bodice_for(session, wearer.id, sleeve) if wearer is not None and sleeve is not None else None
        if sleeve is not None and bodice is None:
            errors["method"] = (
                "A sleeve is drawn for an armhole: begin a bodice for this wearer first, or measure the armhole "
                "of a garment (Methods, on the wearer's page)."
            )
        if not errors and wearer is not None:
            made = open_docket(session, wearer, name[:LONGEST], METHODS[method], bodice_id=bodice.id if bodice else None)
            tell(session, f"Began {made.name} for {wearer.name}.", made)
            number = made.id
    if errors:
        return _production(production_id, errors, typed), 422
    return redirect(url_for("board.draft", docket_id=number), 303)


@pages.post("/dockets/<int:docket_id>/delete")
def delete_docket(docket_id: int) -> Any:
    """Delete a docket; the wearer and the chart stay."""
    with writing() as session:
        found = find_docket(session, docket_id)
        if found is None:
            abort(404)
        production_id = found.production_id
        tell(session, f"{found.name} is in the bin.", found)
        put_in_bin(session, found)
    return redirect(url_for(".production", production_id=production_id), 303)


@pages.post("/dockets/<int:docket_id>/rename")
def rename_docket(docket_id: int) -> Any:
    """Call the garment by another name; an empty name leaves the old one."""
    with writing() as session:
        found = find_docket(session, docket_id)
        if found is None:
            abort(404)
        name = request.form.get("name", "").strip()[:LONGEST] or found.name
        tell(session, f"{found.name} is called {name} now.", found)
        found.name = name
    return redirect(url_for("board.draft", docket_id=docket_id, slip="garment"), 303)


@pages.post("/productions/<int:production_id>/about")
def about_production(production_id: int) -> Any:
    """Rename a production or its company; an empty name leaves the old one."""
    with writing() as session:
        found = session.get(Production, production_id)
        if found is None:
            abort(404)
        name = request.form.get("name", "").strip()[:LONGEST] or found.name
        tell(session, f"Kept the names of {name}.", found)
        found.name = name
        found.company = request.form.get("company", "").strip()[:LONGEST]
    return redirect(url_for(".production", production_id=production_id), 303)


@pages.post("/productions/<int:production_id>/delete")
def delete_production(production_id: int) -> Any:
    """Delete a production with everything in it, once its name is written out."""
    with writing() as session:
        found = session.get(Production, production_id)
        if found is None:
            abort(404)
        if not written_out(found.name):
            words = f"Write {found.name} in the field to delete it with everyone in it. Nothing was deleted."
            return _production(production_id, {"sure": words}, dict(request.form.items())), 422
        tell(session, f"{found.name} is in the bin, with everyone in it.", found)
        put_in_bin(session, found)
    return redirect(url_for("desk.index"), 303)


def written_out(name: str) -> bool:
    """Whether the form repeats a name, which nobody does by mistake."""
    return request.form.get("sure", "").strip().lower() == name.lower()
