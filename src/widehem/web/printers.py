"""Printers and plotters of the workroom: how their test squares come out, and which of them this browser prints on."""

from __future__ import annotations

import re
import secrets
from typing import Any

from flask import Blueprint, Response, abort, make_response, redirect, render_template, request, url_for

from widehem.core.output.sheets import PAPERS, TEST_CM, PaperError, calibrated
from widehem.core.units import LengthError, parse_length, with_unit
from widehem.jobs.plotting import PLOT
from widehem.store.house_rows import Printer
from widehem.store.journal import tell
from widehem.store.papers import printers
from widehem.web.at_work import ask
from widehem.web.cutting import PRINTER, asked
from widehem.web.door import own_path
from widehem.web.drawn_by import load
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.selvedge import Selvedge
from widehem.web.show import display
from widehem.web.writing import YEAR, writing

pages = Blueprint("printers", __name__)
ADDRESS = re.compile(r"(?=.{3,80}$)([A-Za-z0-9.-]+|\[[0-9A-Fa-f:]+\]):([0-9]{1,5})")


@pages.get("/printers")
def index() -> Any:
    """Every printer with what comes out of it."""
    return _page({}, {})


def _page(errors: dict[str, str], typed: dict[str, str]) -> Any:
    with current_store().read() as session:
        known = printers(session)
    here = request.cookies.get(PRINTER, "")
    show = display()
    rows = [
        {
            "printer": printer, "across": show.length(parse_length(printer.across, "cm").cm, 2), "on": str(printer.id) == here,
            "down": show.length(parse_length(printer.down, "cm").cm, 2),
        }
        for printer in known
    ]  # fmt: skip
    back = own_path(request.values.get("back"))
    return render_template(
        "printers.html", rows=rows, errors=errors, typed=typed, test=show.full(TEST_CM), any_on=any(row["on"] for row in rows), back=back,
        selvedge=Selvedge(), slots=[Slot("Printers", "count", str(len(rows)), "", "measured")], tally="", next=Next("Back to where you were", back),
    )  # fmt: skip


@pages.post("/printers")
def add() -> Any:
    """Keep a printer by the two sides of its test square."""
    form, show = request.form, display()
    errors: dict[str, str] = {}
    name, address = " ".join(form.get("name", "").split())[:60], form.get("address", "").strip()
    if not name:
        errors["name"] = "Give the printer a name, like the one in the office."
    sides = {}
    for field, what in (("across", "Across"), ("down", "Down")):
        try:
            sides[field] = parse_length(form.get(field, ""), show.unit).cm
        except LengthError as error:
            errors[field] = f"{what}: {error}"
    if len(sides) == 2:
        try:
            calibrated(PAPERS["a4"], sides["across"], sides["down"])
        except PaperError as error:
            errors["across"] = str(error)
    if address and not (found := ADDRESS.fullmatch(address)):
        errors["address"] = (
            f'"{address[:40]}" is no address of a plotter: write host:port, like 127.0.0.1:9100, or leave it empty.'
        )
    elif address and found and not 0 < int(found[2]) < 65536:
        errors["address"] = f"{found[2]} is no port: write one between 1 and 65535."
    if errors:
        return _page(errors, dict(form)), 422
    with writing() as session:
        tell(session, f"Measured the printer {name}.")
        texts = {field: with_unit(form[field].strip(), show.unit) for field in sides}
        printer = Printer(name=name, address=address, **texts)
        session.add(printer)
        session.flush()
        number = printer.id
    return _chosen(str(number))


@pages.post("/printers/choose")
def choose() -> Any:
    """Print on this one from now on, in this browser."""
    return _chosen(request.form.get("printer", ""))


@pages.post("/printers/<int:number>/delete")
def delete(number: int) -> Any:
    """Forget a printer."""
    with writing() as session:
        printer = session.get(Printer, number)
        if printer is None:
            abort(404)
        tell(session, f"Forgot the printer {printer.name}.")
        session.delete(printer)
    return redirect(url_for(".index", back=own_path(request.form.get("back"))), 303)


def _chosen(number: str) -> Response:
    answer = make_response(
        redirect(
            own_path(request.form.get("back"))
            if request.form.get("straight")
            else url_for(".index", back=own_path(request.form.get("back"))),
            303,
        )
    )
    answer.set_cookie(
        PRINTER, number if number.isdecimal() else "", max_age=YEAR, httponly=True, samesite="Lax", secure=request.is_secure
    )
    return answer


@pages.post("/dockets/<int:docket_id>/plot")
def plot(docket_id: int) -> Any:
    """Send a garment to the plotter that this browser prints on."""
    docket, show = load(docket_id).docket, display()
    to = asked(docket)
    if to.printer is None or not to.printer.address:
        abort(400)
    wish = {
        "docket": docket_id, "paper": to.paper.code, "scale": to.scale, "unit": show.unit, "fraction": show.fraction, "printer": to.printer.id,
    }  # fmt: skip
    job = ask(PLOT, wish, f"Plotting {docket.name} on {to.printer.name}", secrets.token_hex(8))
    return redirect(url_for("at_work.page", name=job.id, back=to.cut(docket_id)), 303)
