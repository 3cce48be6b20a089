"""Productions, their wearers and their dockets."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, current_app, redirect, render_template, request, url_for

from widehem.core.body.catalogue import names
from widehem.core.body.chart import Chart
from widehem.core.body.doubts import doubts
from widehem.core.body.lists import FULL
from widehem.core.drafting.method import METHODS, by_part
from widehem.store.bin import DAYS, put_in_bin
from widehem.store.copies import copies as kept_copies
from widehem.store.copies import day_of, last_failure, overdue
from widehem.store.dockets import bodice_for, drawn_on, find_docket, productions
from widehem.store.files import accepted_doubts, company
from widehem.store.house import open_docket
from widehem.store.journal import tell
from widehem.store.models import Docket, Production, Wearer
from widehem.store.tables import all_tables
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, today
from widehem.web.in_hand import needed
from widehem.web.numbers import number_of
from widehem.web.selvedge import Selvedge
from widehem.web.show import day
from widehem.web.writing import writing

pages = Blueprint("people", __name__)
LONGEST = 120


@pages.get("/")
def index() -> str:
    """All productions."""
    return _index({}, {})


def _index(errors: dict[str, str], typed: dict[str, str]) -> str:
    with current_store().read() as session:
        found = productions(session)
        for entry in found:
            _ = entry.wearers, entry.dockets
    first = Next(f"Open {found[0].name}", url_for(".production", production_id=found[0].id)) if found else None
    return render_template(
        "index.html",
        productions=found,
        errors=errors,
        typed=typed,
        selvedge=Selvedge(),
        slots=_counts(found) + _copies(),
        copy_failed=_failed(),
        tally="",
        next=first,
    )


def _counts(found: list[Production]) -> list[Slot]:
    """How much there is."""
    wearers, dockets = sum(len(entry.wearers) for entry in found), sum(len(entry.dockets) for entry in found)
    counts = (
        ("Productions", len(found), "begun"),
        ("Wearers", wearers, "in all of them"),
        ("Dockets", dockets, "in all of them"),
    )
    return [Slot(title, "count", str(count), "", words) for title, count, words in counts]


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
    verdict = "not" if _failed() else "look" if overdue(folder, today()) else "true" if newest else "open"
    words = f"the newest of {day(newest)}" if newest else "the first is made soon"
    return [Slot("Daily copies", verdict, str(len(found)), "", words)]


@pages.post("/productions")
def add_production() -> Any:
    typed = dict(request.form.items())
    name = typed.get("name", "").strip()
    if not name:
        return _index({"name": "The production has no name yet: write one, then add it."}, typed), 422
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
        _ = found.dockets
        people = company(session, production_id)
        accepted = accepted_doubts(session, [person.row.id for person in people if person.row])
        tables = all_tables(session)
        drawn = drawn_on(session, found.dockets, people)
    charts = {person.wearer.id: person.chart for person in people}
    wanted = request.args.get("find", "").strip()[:60]
    kept = {person.wearer.id: accepted.get(person.row.id, set()) if person.row else set() for person in people}
    wearers = {person.wearer.id: person.wearer for person in people}
    looks = {number: sum(1 for doubt in doubts(chart) if doubt.key not in kept[number]) for number, chart in charts.items()}
    known = [docket for docket in found.dockets if docket.method in METHODS]
    missing = {docket.id: METHODS[docket.method].missing(drawn[docket.id][0], docket.all_options) for docket in known}
    lacking = {
        number: _lacking(chart, [docket for docket in known if docket.wearer_id == number]) for number, chart in charts.items()
    }
    hang = {docket.id: [other.name for other in found.dockets if other.bodice_id == docket.id] for docket in found.dockets}
    return render_template(
        "production.html",
        hang=hang,
        lacking=lacking,
        days=DAYS,
        production=found,
        charts=charts,
        looks=looks,
        missing=missing,
        wearers=wearers,
        listed=[wearer for wearer in wearers.values() if wanted.lower() in f"{wearer.name} {wearer.role}".lower()],
        find=wanted,
        stale={number: differences for number, (_, differences) in drawn.items()},
        methods=METHODS,
        method_groups=by_part(METHODS.values()),
        tables=tables,
        names=names,
        errors=errors,
        typed=typed,
        selvedge=Selvedge(found),
        slots=_slots(found, charts, looks, missing),
        tally="",
        next=_next(found, missing),
    )


def _lacking(chart: Chart, dockets: list[Docket]) -> int:
    """How many measures are still to read: of what the garments need, of the full thirty while there is none."""
    wanted = set().union(*(needed(docket) for docket in dockets)) if dockets else set(FULL)
    return sum(1 for code in wanted if code not in chart)


def _slots(
    found: Production, charts: dict[int, Chart], looks: dict[int, int], missing: dict[int, tuple[str, ...]]
) -> list[Slot]:
    read = sum(1 for chart in charts.values() if any(chart))
    ready = sum(1 for codes in missing.values() if not codes)
    look = sum(1 for count in looks.values() if count)
    return [
        Slot(
            "Wearers measured", "count" if read == len(charts) else "open", str(read), f"of {len(charts)}", "with a chart begun"
        ),
        Slot(
            "Charts",
            "look" if look else "true",
            str(look),
            "to look at",
            "doubts not yet settled" if look else "no open doubts",
        ),
        Slot(
            "Dockets",
            "count" if ready == len(missing) else "open",
            str(ready),
            f"of {len(missing)}",
            "with every measure they need",
        ),
    ]


def _next(found: Production, missing: dict[int, tuple[str, ...]]) -> Next | None:
    known = [docket for docket in found.dockets if docket.id in missing]
    for docket in known:
        if missing[docket.id]:
            return Next(
                f"Read what {docket.name} needs", url_for("measure.chart", wearer_id=docket.wearer_id, docket=docket.id)
            )
    if known:
        docket = known[-1]
        return Next(f"Draft {docket.name}", url_for("board.draft", docket_id=docket.id))
    return None


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
        errors["docket"] = "The garment has no name yet: write one, then open the docket."
    if method not in METHODS:
        errors["method"] = "Choose how it is drafted, then open the docket."
    with writing() as session:
        wearer = session.get(Wearer, request.form.get("for", 0, type=number_of))
        if wearer is None or wearer.production_id != production_id:
            errors["for"] = "Choose who wears it, then open the docket."
        sleeve = METHODS[method] if not errors and METHODS[method].for_armhole else None
        bodice = bodice_for(session, wearer.id, sleeve) if wearer is not None and sleeve is not None else None
        if sleeve is not None and bodice is None:
            errors["method"] = (
                "A sleeve is drawn for an armhole: open a docket with a bodice for this wearer first, or measure the armhole "
                "of a garment (Methods, on the wearer's page)."
            )
        if not errors and wearer is not None:
            made = open_docket(session, wearer, name[:LONGEST], METHODS[method], bodice_id=bodice.id if bodice else None)
            tell(session, f"Opened {made.name} for {wearer.name}.", made)
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
    return redirect(url_for("board.draft", docket_id=docket_id, slip="settings"), 303)


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
    return redirect(url_for(".index"), 303)


def written_out(name: str) -> bool:
    """Whether the form repeats a name, which nobody does by mistake."""
    return request.form.get("sure", "").strip().lower() == name.lower()
