"""Charts in and out: files to take, a sheet to print, and a file looked at before it is stored."""

from __future__ import annotations

import base64
import hashlib
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart_file import FiledChart, FileProblem, Understood
from widehem.core.body.doubts import Doubt, doubts
from widehem.core.body.figure_tables import FigureTable
from widehem.core.body.lists import FULL
from widehem.core.output.charts_in import read_charts
from widehem.core.output.charts_out import charts_csv, charts_json
from widehem.core.output.sheets import PAPERS
from widehem.core.units import Unit
from widehem.core.values import replace
from widehem.jobs.intake import INTAKE
from widehem.jobs.ledger import DONE
from widehem.store.charts import charts_of, core_charts
from widehem.store.files import Incoming, Measured, filed, filed_charts, look_at
from widehem.store.models import Production
from widehem.store.papers import cautions
from widehem.store.tables import house_tables
from widehem.web.at_work import SHORT, ask
from widehem.web.handed import handed
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, current_works
from widehem.web.in_hand import InHand, in_hand
from widehem.web.selvedge import Selvedge
from widehem.web.show import display
from widehem.web.writing import announce, mark

pages = Blueprint("files", __name__)
IN_FULL = 60  # charts of a file that are shown figure by figure; of the rest how much changes


@pages.get("/productions/<int:production_id>/charts.<ending>")
def charts_file(production_id: int, ending: str) -> Response:
    """The newest charts of the whole production as CSV (in the unit asked for) or JSON."""
    if ending not in ("csv", "json"):
        abort(404)
    with current_store().read() as session:
        production = session.get(Production, production_id)
        if production is None:
            abort(404)
        charts = filed_charts(session, production_id)
    unit: Unit = "in" if request.args.get("unit", display().unit) == "in" else "cm"
    if ending == "json":
        return handed(charts_json(charts), f"{production.name} charts.json", "application/json")
    return handed("\ufeff" + charts_csv(charts, unit), f"{production.name} charts {unit}.csv", "text/csv")


@pages.get("/wearers/<int:wearer_id>/chart.pdf")
def chart_sheet(wearer_id: int) -> Response:
    """The chart as a sheet: blank to fill by hand, or filled."""
    from widehem.core.output.pdf_chart import chart_pdf

    hand = in_hand(wearer_id)
    blank = request.args.get("blank") == "1"
    paper = PAPERS[request.args.get("paper", "a4")] if request.args.get("paper", "a4") in ("a4", "letter") else PAPERS["a4"]
    about = replace(_filed(hand), cautions=cautions(hand.wearer))
    data = chart_pdf(about, hand.chart, hand.codes, paper, display(), blank=blank)
    return handed(data, f"{hand.wearer.name} chart{' blank' if blank else ''}.pdf", "application/pdf")


def _filed(hand: InHand) -> FiledChart:
    return filed(Measured(hand.wearer, hand.row, hand.chart))


@pages.get("/wearers/<int:wearer_id>/chart.json")
def wearer_file(wearer_id: int) -> Response:
    """The chart of one wearer, every reading as it was typed; or every chart over time, the oldest first."""
    if request.args.get("every") != "1":
        hand = in_hand(wearer_id)
        return handed(charts_json([_filed(hand)]), f"{hand.wearer.name} chart.json", "application/json")
    with current_store().read() as session:
        hand = in_hand(wearer_id, session)
        rows = charts_of(session, wearer_id)[::-1]
        charts = core_charts(session, rows)
    found = [filed(Measured(hand.wearer, row, charts[row.id])) for row in rows]
    return handed(charts_json(found), f"{hand.wearer.name} charts.json", "application/json")


@pages.post("/productions/<int:production_id>/charts")
def look(production_id: int) -> Any:
    """Look at a file before it is stored: what would change, what was not understood."""
    upload = request.files.get("file")
    data = upload.read() if upload else b""
    name = (upload.filename or "").rsplit(".", 1)[0] if upload else ""
    if not data:
        return _preview(production_id, None, b"", "", "Choose a file first: CSV or JSON, as it is handed out here."), 422
    try:
        found = read_charts(data, name, display().unit, _tables())
    except FileProblem as problem:
        return _preview(production_id, None, b"", name, str(problem)), 422
    return _preview(production_id, found, data, name, "")


@pages.post("/productions/<int:production_id>/charts/store")
def store(production_id: int) -> Any:
    """Store a file that was looked at: all that was understood, or nothing of it."""
    unit: Unit = "in" if request.form.get("unit") == "in" else "cm"
    try:
        data = base64.b64decode(request.form.get("data", ""), validate=True)
        found = read_charts(data, request.form.get("name", ""), unit, _tables())
    except ValueError:  # of the base64, or of the file
        abort(400)
    if found.problems and request.form.get("leave_out") != "yes":
        return _preview(production_id, found, data, request.form.get("name", ""), ""), 422
    with current_store().read() as session:
        if session.get(Production, production_id) is None:
            abort(404)
    wish = {
        "production": production_id,
        "data": request.form["data"],
        "name": request.form.get("name", ""),
        "unit": unit,
        "by": mark(),
    }
    words = f"Taking in {len(found.charts)} charts"
    job = ask(INTAKE, wish, words, f"{production_id} {hashlib.sha256(data).hexdigest()}")
    job = current_works().wait(job, SHORT)
    if job.state == DONE:
        announce()
        return redirect(url_for("people.production", production_id=production_id), 303)
    return redirect(url_for("at_work.page", name=job.id, back=url_for("people.production", production_id=production_id)), 303)


def _tables() -> list[FigureTable]:
    """The workroom's own figure tables."""
    with current_store().read() as session:
        return list(house_tables(session).values())


def _doubts(entry: Incoming) -> list[Doubt]:
    """What would be doubtful about the figures that come, as it is told while they are typed."""
    codes = {change.code for change in entry.changes}
    return [doubt for doubt in doubts(entry.after) if codes & set(doubt.measures)]


@pages.get("/productions/<int:production_id>/charts/blank.csv")
def blank_file(production_id: int) -> Response:
    """A file to fill in: everybody of the production, every measure, no figure."""
    with current_store().read() as session:
        production = session.get(Production, production_id)
        if production is None:
            abort(404)
        charts = [FiledChart(chart.wearer, chart.part, chart.figure) for chart in filed_charts(session, production_id)]
    return handed("\ufeff" + charts_csv(charts, display().unit, FULL), f"{production.name} to fill in.csv", "text/csv")


def _preview(production_id: int, found: Understood | None, data: bytes, name: str, error: str) -> str:
    with current_store().read() as session:
        production = session.get(Production, production_id)
        if production is None:
            abort(404)
        incoming: list[Incoming] = look_at(session, production_id, found.charts) if found else []
    changes = sum(len(entry.changes) for entry in incoming)
    new = sum(1 for entry in incoming if not entry.known)
    problems = len(found.problems) if found else 0
    slots = [
        Slot("Wearers in the file", "count", str(len(incoming)), "", f"{new} of them new"),
        Slot("Measures that change", "count", str(changes), "", "what stands there stays in the history"),
        Slot(
            "Not understood",
            "not" if problems else "true",
            str(problems),
            "cells",
            "mend the file, or leave them out" if problems else "everything is clear",
        ),
    ]
    return render_template(
        "import.html",
        production=production,
        found=found,
        incoming=incoming,
        in_full=IN_FULL,
        doubted={id(entry): _doubts(entry) for entry in incoming[:IN_FULL]},
        entry_id=id,
        changes=changes,
        name=name,
        error=error,
        catalogue=CATALOGUE,
        data=base64.b64encode(data).decode(),
        unit=display().unit,
        selvedge=Selvedge(production),
        slots=slots if found else [],
        tally="",
        next=Next("Back to the production", url_for("people.production", production_id=production_id)),
    )
