"""Lists of measures that the workroom makes for itself."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for

from widehem.core.body.catalogue import CATALOGUE, ZONES
from widehem.core.body.lists import in_order
from widehem.store.house_lists import house_lists
from widehem.store.journal import tell
from widehem.store.models import HouseList
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.numbers import number_of
from widehem.web.selvedge import Selvedge
from widehem.web.stood import moved
from widehem.web.writing import writing

pages = Blueprint("lists", __name__)
LONGEST = 60


@pages.get("/lists")
def all_lists() -> str:
    """Every list, one of them open to be changed."""
    return _page(request.args.get("open", type=number_of), {}, None)


def _page(open_id: int | None, errors: dict[str, str], typed: tuple[str, list[str]] | None) -> str:
    with current_store().read() as session:
        found = house_lists(session)
    opened = next((entry for entry in found if entry.id == open_id), None)
    name, chosen = typed or ((opened.name, opened.codes) if opened else ("", []))
    zones = [(zone, [entry for entry in CATALOGUE.values() if entry.zone == zone]) for zone in ZONES]
    slots = [
        Slot("Lists", "count", str(len(found)), "", "of the workroom's own"),
        Slot("In this list", "count", str(len(chosen)), f"of {len(CATALOGUE)}", "taken in the order of a session"),
    ]
    return render_template(
        "lists.html", lists=found, opened=opened, name=name, chosen=set(chosen), ordered=in_order(chosen), zones=zones,
            errors=errors,
        catalogue=CATALOGUE, selvedge=Selvedge(), slots=slots, tally="",
            next=Next("Back to the productions", url_for("desk.index")),
    )  # fmt: skip


@pages.post("/lists")
def keep() -> Any:
    """Keep a list, new or changed."""
    form = request.form
    name, number = form.get("name", "").strip()[:LONGEST], form.get("open", type=number_of)
    codes = in_order(code for code in form.getlist("measure") if code in CATALOGUE)
    errors = {}
    if not name:
        errors["name"] = "The list has no name yet: write one, then keep it."
    if not codes:
        errors["codes"] = "No measure is ticked: tick those the list shall take, then keep it."
    with writing() as session:
        row = session.get(HouseList, number) if number else None
        if number and row is None:
            abort(404)
        if any(entry.name.lower() == name.lower() and entry is not row for entry in house_lists(session)):
            errors["name"] = f"There is a list called {name} already: give this one another name."
        if row is not None and moved(row.name, row.codes):
            errors["name"] = (
                f"Somebody kept this list meanwhile, as {row.name} with {len(row.codes)} measures. Yours stands here: keep it again "
                f"to put it in its place."
            )
        if not errors:
            tell(session, f"Kept the list {name}.")
            if row is None:
                row = HouseList(name=name, codes=codes)
                session.add(row)
            row.name, row.codes = name, codes
            session.flush()
            number = row.id
    if errors:
        return _page(number, errors, (name, codes)), 422
    return redirect(url_for(".all_lists", open=number), 303)


@pages.post("/lists/<int:list_id>/delete")
def delete(list_id: int) -> Any:
    """Delete a list; the charts taken by it stay."""
    with writing() as session:
        row = session.get(HouseList, list_id)
        if row is None:
            abort(404)
        tell(session, f"Deleted the list {row.name}.")
        session.delete(row)
    return redirect(url_for(".all_lists"), 303)
