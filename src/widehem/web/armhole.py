"""A sleeve for a garment that exists: its armhole is typed, looked at, and a docket opened for it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for

from widehem.core.body.catalogue import names
from widehem.core.body.chart import Chart
from widehem.core.design.design import method_design
from widehem.core.design.make import Made, make
from widehem.core.design.trade import cap_height
from widehem.core.drafting.armhole_typed import SHOULDERS, Typed, problems, remarks
from widehem.core.drafting.cap import rest_angle
from widehem.core.drafting.method import METHODS, Method
from widehem.core.output.svg_small import small_svg
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Saying, say
from widehem.store.armholes import LENGTHS, read_typed
from widehem.store.charts import core_chart, latest_chart
from widehem.store.dockets import find_docket, find_wearer
from widehem.store.house import open_docket
from widehem.store.journal import tell
from widehem.store.models import Docket, Wearer
from widehem.web.hem import Next, Slot, slots_of, tally
from widehem.web.here import current_store
from widehem.web.selvedge import selvedge
from widehem.web.show import display, said
from widehem.web.writing import writing

pages = Blueprint("armhole", __name__)
LONGEST = 120
FIELDS = (*LENGTHS, "shoulder", "off")


@dataclass(frozen=True)
class Trial:
    """A sleeve drawn for what was typed: picture with its view box, figures, or why there is none."""

    made: Made | None = None
    drawn: str = ""
    box: str = ""
    bicep: float = 0.0
    high: float = 0.0
    hangs: float = 0.0
    trouble: Saying | None = None


@pages.get("/wearers/<int:wearer_id>/armhole")
def typed(wearer_id: int) -> str:
    """The armhole as it is typed so far, and the sleeve it makes."""
    return _page(wearer_id, None, request.args, {})


@pages.get("/dockets/<int:docket_id>/typed-armhole")
def again(docket_id: int) -> str:
    """The armhole of a sleeve, to be changed."""
    docket = _sleeve(docket_id)
    given = {**docket.armhole, "method": docket.method}
    return _page(docket.wearer_id, docket, {**given, **request.args} if "front" in request.args else given, {})


def _sleeve(docket_id: int) -> Docket:
    with current_store().read() as session:
        docket = find_docket(session, docket_id)
    if docket is None or docket.method not in METHODS or not METHODS[docket.method].for_armhole:
        abort(404)
    return docket


def _page(wearer_id: int, docket: Docket | None, given: Mapping[str, str], errors: dict[str, str]) -> str:
    wearer, chart = _wearer(wearer_id)
    method = _method(docket.method if docket else given.get("method", ""))
    show = display()
    begun = any(given.get(field, "").strip() for field in LENGTHS)
    read, wrong, kept = read_typed(given, show.unit) if begun else (None, {}, {})
    found = {**wrong, **{field: said(words) for field, words in (problems(read) if read else {}).items()}}
    trial = _trial(method, chart, read) if read is not None and not found else Trial()
    missing = method.missing(chart)
    slots = slots_of(trial.made.checks, lambda check: "") if trial.made else [_waiting(begun, found)]
    return render_template(
        "armhole.html", wearer=wearer, docket=docket, method=method, given=given, errors={**found, **errors}, kept=kept,
        methods=[entry for entry in METHODS.values() if entry.for_armhole], shoulders=SHOULDERS, lengths=LENGTHS,
        trial=trial, whole_armhole=read.front + read.back if read and not {"front", "back"} & set(found) else None, names=names, missing=missing,
        remarks=[] if read is None or found else remarks(read, chart), name=given.get("name", ""),
        selvedge=selvedge(wearer, docket, chart, "draft" if docket else ""), slots=slots,
        tally=tally(trial.made.checks) if trial.made else "",
        next=Next("Back to the draft", url_for("board.draft", docket_id=docket.id)) if docket
        else Next("Read " + names(missing[:1]), url_for("measure.chart", wearer_id=wearer.id, at=missing[0])) if missing
        else Next("To the methods", url_for("schools.gallery", wearer_id=wearer.id)),
    )  # fmt: skip


def _waiting(begun: bool, found: Mapping[str, str]) -> Slot:
    if begun and found:
        return Slot("Armhole", "look", str(len(found)), "to put right", "see the fields")
    return Slot("Armhole", "open", "", "", "nothing typed yet")


def _wearer(wearer_id: int) -> tuple[Wearer, Chart]:
    with current_store().read() as session:
        wearer = find_wearer(session, wearer_id)
        if wearer is None:
            abort(404)
        return wearer, core_chart(session, latest_chart(session, wearer_id))


def _method(code: str) -> Method:
    """The sleeve that is asked for, or the usual one."""
    sleeves = [method for method in METHODS.values() if method.for_armhole]
    return next((method for method in sleeves if method.code == code), sleeves[0])


def _trial(method: Method, chart: Chart, read: Typed) -> Trial:
    try:
        made = make(method_design(method), chart, armhole=read.armhole)
    except CannotDraft as refusal:
        return Trial(trouble=refusal.saying)
    except OptionError as error:
        return Trial(trouble=say(str(error)))
    inside, box = small_svg(made)
    high = cap_height(made.garment)
    return Trial(made, inside, box, made.garment.girth("bicep", limb=True), high, rest_angle(high, read.front + read.back))


@pages.post("/wearers/<int:wearer_id>/armhole")
def open_for(wearer_id: int) -> Any:
    """Open a docket for a sleeve in an armhole as it was typed."""
    given = {key: text for key, text in request.form.items() if key in (*FIELDS, "method", "name")}
    wearer, _ = _wearer(wearer_id)
    method = _method(given.get("method", ""))
    read, wrong, kept = read_typed(given, display().unit)
    name = given.get("name", "").strip()[:LONGEST]
    if not name:
        wrong = {**wrong, "name": "The sleeve has no name yet: write one, then begin the garment."}
    if wrong or read is None or problems(read):
        return _page(wearer_id, None, given, wrong), 422
    with writing() as session:
        found = session.merge(wearer, load=False)
        made = open_docket(session, found, name, method, armhole=kept)
        tell(session, f"Began {made.name} for {found.name}.", made)
        number = made.id
    return redirect(url_for("board.draft", docket_id=number), 303)


@pages.post("/dockets/<int:docket_id>/typed-armhole")
def keep(docket_id: int) -> Any:
    """Draw a sleeve for an armhole as it was typed from now on."""
    docket = _sleeve(docket_id)
    given = {key: text for key, text in request.form.items() if key in FIELDS}
    read, wrong, kept = read_typed(given, display().unit)
    if wrong or read is None or problems(read):
        return _page(docket.wearer_id, docket, given, wrong), 422
    with writing() as session:
        row = find_docket(session, docket_id)
        if row is None:
            abort(404)
        tell(session, f"Kept the armhole of {row.name}.", row)
        row.armhole, row.bodice_id = kept, None
    return redirect(url_for("board.draft", docket_id=docket_id), 303)
