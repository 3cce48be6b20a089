"""The stand test and the room round the body: the garment beside the chart, before it is put on."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, url_for
from markupsafe import Markup

from widehem.core.design.make import Made
from widehem.core.fitting.around import around
from widehem.core.fitting.stand import StandRow, stand_test
from widehem.core.fitting.words import BEFORE, FIRST_ROUND, LATER_ROUNDS
from widehem.core.output.pdf_toile import toile_pdf
from widehem.core.output.sheets import PAPERS
from widehem.core.output.svg_around import around_svg
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.store.making import Work
from widehem.web.drawn_by import load
from widehem.web.handed import handed
from widehem.web.hem import Next, Slot
from widehem.web.here import today
from widehem.web.selvedge import selvedge
from widehem.web.show import display, figure, said

pages = Blueprint("fit_stand", __name__)


def _drawn(work: Work) -> Made | None:
    """The garment; None while it cannot be drawn."""
    try:
        return work.made()
    except (OptionError, CannotDraft):
        return None


@pages.get("/dockets/<int:docket_id>/fit/stand")
def stand(docket_id: int) -> Any:
    """What the garment measures beside the chart, and where that is not as this design usually has it."""
    work = load(docket_id)
    made = _drawn(work)
    if made is None:
        return redirect(url_for("board.draft", docket_id=docket_id), 303)
    rows = stand_test(made, work.design())
    strange = [row for row in rows if row.strange]
    worst = max(strange, key=lambda row: abs(row.off or 0.0), default=None)
    return render_template(
        "fit_stand.html", docket=work.docket, rows=rows, kinds=_kinds(rows), view="stand", lists={"Before it is put on": BEFORE, "The first round": FIRST_ROUND, "Later rounds": LATER_ROUNDS},
        selvedge=selvedge(work.docket.wearer, work.docket, work.chart, "fit", "stand test", work.changed),
        slots=_slots(rows, worst), tally=f"{len(rows) - len(strange)} as usual, {len(strange)} not", next=_next(docket_id),
    )  # fmt: skip


@pages.get("/dockets/<int:docket_id>/fit/toile.pdf")
def sheet(docket_id: int) -> Response:
    """The toile sheet, to lay beside the toile."""
    work = load(docket_id)
    made = _drawn(work)
    if made is None:
        abort(409)
    docket, show = work.docket, display()
    over = (
        f", over {docket.foundation or work.row.foundation}" if work.row and (docket.foundation or work.row.foundation) else ""
    )
    about = f"For {docket.wearer.name}, {docket.wearer.production.name}{over}. {today().isoformat()}"
    paper = PAPERS["letter"] if docket.paper == "letter" else PAPERS["a4"]
    data = toile_pdf(f"Toile sheet of {docket.name}", about, stand_test(made, work.design()), around(made), paper, show)
    return handed(data, f"Toile sheet of {docket.name} for {docket.wearer.name}.pdf", "application/pdf")


def _kinds(rows: tuple[StandRow, ...]) -> dict[str, list[StandRow]]:
    """The rows under what they are: what the draft was drawn from, and what it never looked at."""
    titles = {"read": "The draft was drawn from these", "witness": "The draft never looked at these"}
    found = {titles[kind]: [row for row in rows if row.kind == kind] for kind in titles}
    return {title: entries for title, entries in found.items() if entries}


def _slots(rows: tuple[StandRow, ...], worst: StandRow | None) -> list[Slot]:
    if worst is None or worst.off is None:
        return [Slot("Stand test", "true", str(len(rows)), "measures", "all as this design usually has them")]
    show = display()
    return [Slot(worst.name, "look", figure(show.signed(worst.off)), show.unit, said(worst.saying))]


def _next(docket_id: int) -> Next:
    return Next("To the alterations", url_for("fit.station", docket_id=docket_id))


@pages.get("/dockets/<int:docket_id>/fit/room")
def room(docket_id: int) -> Any:
    """The finished girth against the body from top to hem."""
    work = load(docket_id)
    made = _drawn(work)
    if made is None:
        return redirect(url_for("board.draft", docket_id=docket_id), 303)
    show, found = display(), around(made)
    drawings = [(curve, Markup(svg), box) for curve in found for svg, box in [around_svg(curve, show)]]
    slots = [
        Slot(
            "Round one leg" if curve.limb else "Round the body",
            "not" if curve.tightest.room < 0 else "true",
            figure(show.signed(curve.tightest.room)), show.unit, said(curve.saying),
        )
        for curve in found
        if curve.tightest is not None and curve.tightest.room is not None
    ]  # fmt: skip
    return render_template(
        "fit_room.html", docket=work.docket, drawings=drawings, view="room",
        selvedge=selvedge(work.docket.wearer, work.docket, work.chart, "fit", "room", work.changed), slots=slots, tally="",
        next=_next(docket_id),
    )  # fmt: skip
