"""One field to find anything by: garments, wearers, productions, methods, measures, and the rooms of the workroom."""

from __future__ import annotations

from collections.abc import Iterable

from flask import Blueprint, render_template, request, url_for

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.drafting.method import METHODS
from widehem.store.finding import MOST, find
from widehem.store.models import Docket, Production, Wearer
from widehem.web.help import helped_by
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.selvedge import Selvedge

pages = Blueprint("find", __name__)
LONGEST = 60
ROOMS = (  # words they are found by, name, what is there, endpoint
    ("lists measures session", "Lists of measures", "what a session takes", "lists.all_lists"),
    ("figure tables estimates curved straight child", "Figure tables", "what measures follow from others", "tables.table"),
    ("designs recipes style patterns ship", "Designs", "recipes apart from wearers, and those that ship", "designs.index"),
    ("ease plans close easy coat jersey", "Plans of ease", "how much larger than the body", "ease.plan"),
    ("house values defaults allowances zone days time", "House values", "in place of the usual; the zone of its days", "house.values"),
    ("tape stand-in digital bluetooth", "Tape stand-in", "sends readings as a digital tape does", "listen.stand_in"),
    ("bin deleted undo done history", "The bin, and what was done", "to be taken back", "events.the_bin"),
    ("units inches fractions cm keys single help", "Inches, fractions, single keys", "on the first page", "desk.index"),
)  # fmt: skip


@pages.get("/find")
def page() -> str:
    """What is called so."""
    asked = "".join(sign for sign in request.args.get("q", "") if sign.isprintable()).strip()[:LONGEST]
    words = asked.lower().split()
    with current_store().read() as session:
        found = find(session, words)
        newest = session.query(Wearer).order_by(Wearer.id.desc()).first() if words else None
    methods = [m for m in METHODS.values() if words and _has(words, m.name, m.group, m.summary)][:MOST]
    measures = [m for m in CATALOGUE.values() if words and _has(words, m.name, *m.also)][:MOST]
    rooms = [room for room in ROOMS if words and _has(words, room[0], room[1], room[2])]
    helps = helped_by(words)[:MOST]
    whose = found.wearers[0] if found.wearers else newest
    count = (
        len(found.productions)
        + len(found.wearers)
        + len(found.dockets)
        + len(found.designs)
        + len(methods)
        + len(measures)
        + len(rooms)
        + len(helps)
    )
    first = _first(found.dockets, found.wearers, found.productions)
    return render_template(
        "find.html", asked=asked, found=found, methods=methods, measures=measures, rooms=rooms, helps=helps, whose=whose, count=count,
        all_methods=METHODS, selvedge=Selvedge(), slots=[Slot("Found", "count", str(count), "", f"by “{asked}”" if asked else "")],
        tally="", next=first or Next("To the productions", url_for("desk.index")),
    )  # fmt: skip


def _has(words: Iterable[str], *texts: str) -> bool:
    whole = " ".join(texts).lower()
    return all(word in whole for word in words)


def _first(dockets: tuple[Docket, ...], wearers: tuple[Wearer, ...], productions: tuple[Production, ...]) -> Next | None:
    """What the yellow button opens: the first of what was found."""
    if dockets:
        return Next(f"Draft {dockets[0].name}", url_for("board.draft", docket_id=dockets[0].id))
    if wearers:
        return Next(f"Measure {wearers[0].name}", url_for("measure.chart", wearer_id=wearers[0].id))
    return (
        Next(f"Open {productions[0].name}", url_for("people.production", production_id=productions[0].id))
        if productions
        else None
    )
