"""What to be careful with, by what is done in a garment on stage; with the consequence drawn where there is one."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for
from markupsafe import Markup

from widehem.core.making.care import DEFER, USES, WORKROOM, Care, care
from widehem.core.making.lay.cutouts import materials_of
from widehem.core.output.svg_care import BOX, care_svg
from widehem.core.values import replace
from widehem.store.cloths import cloth_of
from widehem.web.hem import Next, Slot
from widehem.web.make import Making, keep_making, making
from widehem.web.selvedge import selvedge
from widehem.web.show import display

pages = Blueprint("make_care", __name__)


def care_of(found: Making) -> tuple[Care, ...]:
    """Everything to be careful with about a garment as it is made up."""
    knit = found.cut.made.wear.knit
    cloths = [cloth_of(found.made, material, found.known, knit=knit) for material in materials_of(found.cut.pattern)]
    return care(found.cut.made, found.made.uses, cloths)


@pages.get("/dockets/<int:docket_id>/make/care")
def page(docket_id: int) -> Any:
    """The cautions, and what is done in the garment."""
    found = making(docket_id)
    if found is None:
        return redirect(url_for("board.draft", docket_id=docket_id), 303)
    show = display()
    rows = [(row, Markup(care_svg(row.picture, row.figure, show))) for row in care_of(found)]
    slots = [
        Slot(
            "With care",
            "count",
            str(len(rows)),
            "cautions",
            ", ".join(USES[code].about for code in found.made.uses) or "no use on stage was named",
        )
    ]
    return render_template(
        "make_care.html", docket=found.docket, rows=rows, box=BOX, uses=USES, chosen=found.made.uses, workroom=WORKROOM, defer=DEFER, view="care", slots=slots,
        tally="", next=Next("To the order of work", url_for("make.station", docket_id=docket_id)),
        selvedge=selvedge(found.docket.wearer, found.docket, found.cut.work.chart, "make", "with care", found.cut.work.changed),
    )  # fmt: skip


@pages.post("/dockets/<int:docket_id>/make/care")
def keep(docket_id: int) -> Any:
    """Say what is done in a garment on stage."""
    found = making(docket_id)
    if found is None:
        abort(404)
    uses = tuple(code for code in USES if code in request.form.getlist("use"))
    keep_making(docket_id, replace(found.made, uses=uses), f"Said what is done in {found.docket.name} on stage.")
    return redirect(url_for(".page", docket_id=docket_id), 303)
