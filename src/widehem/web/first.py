"""The first garment of a new workroom: four figures, and it is drafted."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from flask import Blueprint, redirect, render_template, request, url_for

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.drafting.method import METHODS
from widehem.core.units import Length, LengthError, parse_length
from widehem.store.charts import add_reading, open_chart
from widehem.store.house import open_docket
from widehem.store.journal import tell
from widehem.store.models import Production, Wearer
from widehem.web.hem import Next, Slot
from widehem.web.here import today
from widehem.web.readings import LEAST_CM
from widehem.web.selvedge import Selvedge
from widehem.web.show import display
from widehem.web.writing import writing

pages = Blueprint("first", __name__)
METHOD, GARMENT, PRODUCTION = "skirt.two_panel", "First skirt", "First work"  # what is begun with
LONGEST = 120


def page(common: Mapping[str, Any]) -> str:
    """The page of a workroom in which nothing is begun."""
    asks = [CATALOGUE[code] for code in METHODS[METHOD].uses()]
    slots = [Slot("Figures", "count", str(len(asks)), "", "is all it takes")]
    return render_template(
        "first.html", asks=asks, slots=slots, next=Next(f"Draft the {GARMENT.split()[-1]}", "", form="first"), **common,
    )  # fmt: skip


@pages.post("/begin")
def begin() -> Any:
    """Begin a production, a wearer, a chart and a garment in one act."""
    typed = dict(request.form.items())
    name, errors, show = typed.get("wearer", "").strip()[:LONGEST], {}, display()
    read: dict[str, Length] = {}
    if not name:
        errors["wearer"] = "The wearer has no name yet: write one, or what the garment is for."
    for code in METHODS[METHOD].uses():
        text, entry = typed.get(code, "").strip(), CATALOGUE[code]
        if not text:
            errors[code] = f"{entry.name} is still to read: about {show.full(entry.typical)} is usual."
            continue
        try:
            read[code] = parse_length(text, show.unit, least_cm=LEAST_CM)
        except LengthError as error:
            errors[code] = f"{entry.name}: {error}"
    if errors:
        common = {
            "errors": errors, "typed": typed, "selvedge": Selvedge(), "copy_failed": None, "tally": "", "productions": [],
        }  # fmt: skip
        return page(common), 422
    with writing() as session:
        production = Production(name=PRODUCTION, company="")
        session.add(production)
        session.flush()
        wearer = Wearer(production_id=production.id, name=name, role="", figure="curved")
        session.add(wearer)
        session.flush()
        row = open_chart(session, wearer, today())
        for code, length in read.items():
            add_reading(session, row, code, 1, length)
        docket = open_docket(session, wearer, GARMENT, METHODS[METHOD])
        tell(session, f"Began {production.name} with {docket.name} for {wearer.name}.", docket)
        number = docket.id
    return redirect(url_for("board.draft", docket_id=number), 303)
