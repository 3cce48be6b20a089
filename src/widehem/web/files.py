"""Charts in and out: files to take, a sheet to print, and a file looked at before it is stored."""

from __future__ import annotations

import base64
import binascii
import re
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart_file import FileProblem, Understood
from widehem.core.output.charts_in import read_charts
from widehem.core.output.charts_out import charts_csv, charts_json
from widehem.core.output.sheets import PAPERS
from widehem.core.units import Unit
from widehem.store.charts import core_chart, latest_chart
from widehem.store.dockets import find_wearer
from widehem.store.files import Incoming, Measured, filed, filed_charts, look_at, take_in
from widehem.store.models import Docket, Production
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.measure import listed
from widehem.web.selvedge import Selvedge
from widehem.web.show import display

pages = Blueprint("files", __name__)


def handed(data: bytes | str, name: str, mimetype: str) -> Response:
    """A file to take."""
    response = Response(data, mimetype=mimetype)
    stem, _, ending = name.rpartition(".")
    safe = re.sub(r"[^A-Za-z0-9]+", "-", stem).strip("-").lower() or "file"
    response.headers["Content-Disposition"] = f'attachment; filename="{safe}.{ending}"'
    return response


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

    person, docket = _measured(wearer_id)
    blank = request.args.get("blank") == "1"
    codes = listed(docket, request.args.get("list", "garment"))
    paper = PAPERS[request.args.get("paper", "a4")] if request.args.get("paper", "a4") in ("a4", "letter") else PAPERS["a4"]
    data = chart_pdf(filed(person), person.chart, codes, paper, display(), blank=blank)
    return handed(data, f"{person.wearer.name} chart{' blank' if blank else ''}.pdf", "application/pdf")


@pages.get("/wearers/<int:wearer_id>/chart.json")
def wearer_file(wearer_id: int) -> Response:
    """The newest chart of one wearer, every reading as it was typed."""
    person, _ = _measured(wearer_id)
    return handed(charts_json([filed(person)]), f"{person.wearer.name} chart.json", "application/json")


def _measured(wearer_id: int) -> tuple[Measured, Docket | None]:
    """A wearer with the newest chart, and the first garment begun. 404 when there is no such wearer."""
    with current_store().read() as session:
        wearer = find_wearer(session, wearer_id)
        if wearer is None:
            abort(404)
        row = latest_chart(session, wearer_id)
        return Measured(wearer, row, core_chart(session, row)), wearer.dockets[0] if wearer.dockets else None


@pages.post("/productions/<int:production_id>/charts")
def look(production_id: int) -> Any:
    """Look at a file before it is stored: what would change, what was not understood."""
    upload = request.files.get("file")
    data = upload.read() if upload else b""
    name = (upload.filename or "").rsplit(".", 1)[0] if upload else ""
    if not data:
        return _preview(production_id, None, b"", "", "Choose a file first: CSV or JSON, as it is handed out here."), 422
    try:
        found = read_charts(data, name, display().unit)
    except FileProblem as problem:
        return _preview(production_id, None, b"", name, str(problem)), 422
    return _preview(production_id, found, data, name, "")


@pages.post("/productions/<int:production_id>/charts/store")
def store(production_id: int) -> Any:
    """Store a file that was looked at: all that was understood, in one go."""
    try:
        data = base64.b64decode(request.form.get("data", ""), validate=True)
        found = read_charts(data, request.form.get("name", ""), "in" if request.form.get("unit") == "in" else "cm")
    except (binascii.Error, FileProblem):
        abort(400)
    if found.problems and request.form.get("leave_out") != "yes":
        return _preview(production_id, found, data, request.form.get("name", ""), ""), 422
    with current_store().write() as session:
        production = session.get(Production, production_id)
        if production is None:
            abort(404)
        take_in(session, production, found.charts)
    return redirect(url_for("people.production", production_id=production_id), 303)


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
        Slot("Wearers in the file", "true" if incoming else "open", str(len(incoming)), "", f"{new} of them new"),
        Slot("Measures that change", "true" if changes else "open", str(changes), "", "what stands there stays in the history"),
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
