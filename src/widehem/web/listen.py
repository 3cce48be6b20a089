"""The digital tape: a chart that listens, the messages it takes over HTTP, and a stand-in for the tape itself."""

from __future__ import annotations

import secrets
from typing import Any

from flask import Blueprint, Response, abort, make_response, redirect, render_template, request, url_for
from flask import session as browser
from flask.typing import ResponseReturnValue
from markupsafe import Markup
from sqlalchemy.orm import Session

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.doubts import doubts
from widehem.core.body.estimates import predicted
from widehem.core.output.svg_figure import figure_svg
from widehem.core.units import METRIC, Display, LengthError, cm_of, parse_length
from widehem.store.charts import core_chart, open_chart
from widehem.store.listening import (
    Answer,
    Message,
    NotTakenBackError,
    begin_listening,
    go_on,
    has_run_out,
    hear,
    last_heard,
    listening_of,
    listening_under,
    take_back,
    take_back_by_tape,
)
from widehem.store.models import Listening
from widehem.web.guesses import Guesses
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.in_hand import hem_slots, in_hand, tally
from widehem.web.readings import LEAST_CM
from widehem.web.selvedge import Selvedge, selvedge
from widehem.web.show import TWICE_COOKIE

pages = Blueprint("listen", __name__)
device = Blueprint("device", __name__)  # spoken to by tapes, not by pages of this app: takes JSON only
LARGEST_NUMBER = 2**31
STRAYS = Guesses("pair")  # pair numbers that nobody was given, by address


# ---- the maker's side ----


@pages.get("/wearers/<int:wearer_id>/listen")
def page(wearer_id: int) -> Any:
    """The listening chart; 204 when nothing came since the page that asks."""
    with current_store().read() as session:
        hand = in_hand(wearer_id, session)
        found = listening_of(session, hand.row.id) if hand.row else None
        row = found if found and found.owner == _mark() and not has_run_out(found) else None
        heard = list(row.heard) if row else []
    stamp = (
        f"{heard[-1].id if heard else 0}.{sum(entry.undone for entry in heard)}.{row.at}.{row.turn}.{row.held:d}" if row else ""
    )
    if request.args.get("stamp", "") == stamp != "":
        return "", 204

    def to(code: str) -> str:
        return hand.to("measure.chart", code)

    at = row.at if row and row.at else ""
    lively = [entry for entry in heard if not entry.undone]
    last = lively[-1] if lively else None
    shown = at or (last.measure if last else hand.codes[0])
    drawing = figure_svg(hand.chart, row.codes if row else hand.codes, shown)
    following = Next(
        "To the chart", hand.to("measure.chart"), "Tape stand-in", url_for("listen.stand_in", pair=row.pair if row else None)
    )
    return render_template(
        "listen.html", hand=hand, wearer=hand.wearer, chart=hand.chart, row=row, heard=heard[::-1], last=last, at=at,
            stamp=stamp, elsewhere=found is not None and row is None and not has_run_out(found),
        catalogue=CATALOGUE, drawing=drawing, drawing_svg=Markup(drawing.svg),
            last_cm=cm_of(last.answer["ticks"]) if last else 0.0,
        mine=hand.doubts_at(at) if row and row.held else [], accepted=hand.accepted,
            twice=request.cookies.get(TWICE_COOKIE) == "on",
        selvedge=selvedge(hand.wearer, hand.docket, hand.chart, "measure"), slots=hem_slots(hand, to), tally=tally(hand),
            next=following,
        url=request.host_url,
    )  # fmt: skip


@pages.post("/wearers/<int:wearer_id>/listen")
def change(wearer_id: int) -> Any:
    """Begin to listen, stop, take the last reading back, or go on from a doubtful one."""
    act = request.form.get("act", "")
    with current_store().write() as session:
        hand = in_hand(wearer_id, session)
        row = listening_of(session, hand.row.id) if hand.row else None
        if act == "begin":
            chart = hand.row or open_chart(session, hand.wearer)
            codes = hand.missing if request.form.get("what") != "all" else hand.codes
            begin_listening(session, chart, codes, twice=request.form.get("twice") == "on", owner=_mark())
        elif row is None or row.owner != _mark():
            pass  # stopped, or begun anew by somebody else: the page says so
        elif act == "stop":
            session.delete(row)
        elif act == "undo":
            last = last_heard(session, row)
            if last is not None and request.form.get("last") == str(last.id):  # a second press finds another one
                take_back(session, row, last)
        elif act == "on":
            go_on(row)
        elif act == "to":
            go_on(row, request.form.get("measure", ""))
    return redirect(hand.to("listen.page"), 303)


def _mark() -> str:
    """The mark of this browser session."""
    mark: str = browser.setdefault("mark", secrets.token_hex(4))
    return mark


@pages.get("/tape-stand-in")
def stand_in() -> str:
    """A page that behaves like a digital tape."""
    slots = [Slot("Stand-in", "count", "1", "tape", "speaks as a digital tape does, over HTTP")]
    return render_template(
        "stand_in.html", pair=request.args.get("pair", ""), selvedge=Selvedge(), slots=slots, tally="",
        next=Next("To the productions", url_for("desk.index")),
    )  # fmt: skip


# ---- the tape's side: docs/digital-tape.md ----


@device.get("/tape/<pair>")
def state(pair: str) -> ResponseReturnValue:
    """What the chart under this pair number waits for."""
    with current_store().read() as session:
        row = _under(session, pair)
        return _state(session, row), 200


@device.post("/tape/<pair>/readings")
def reading(pair: str) -> ResponseReturnValue:
    """A reading: fills the field the chart waits for."""
    told = _told()
    name, number = _who(told)
    value, unit = told.get("value"), told.get("unit", "cm")
    if unit not in ("cm", "in"):
        return {"error": f'unit is {unit!r}: send "cm" or "in".'}, 422
    if isinstance(value, bool) or not isinstance(value, str | int | float):
        return {"error": f'value is {value!r}: send a length, like 78.4 or "30 7/8".'}, 422
    try:
        length = parse_length(str(value), unit, least_cm=LEAST_CM)
    except LengthError as error:
        return {"error": str(error)}, 422
    with current_store().write() as session:
        row = _under(session, pair)
        answer = hear(session, row, Message(name, number, length))
        if not answer.code:
            return {"error": "The list is full: nothing waits for a reading.", **_state(session, row)}, 409
        said = {"taken": _taken(answer, unit), "look_again": _sentences(session, row, answer, unit), **_state(session, row)}
    return {**said, "repeated": answer.repeated}, 200 if answer.repeated else 201


@device.post("/tape/<pair>/undo")
def undo(pair: str) -> ResponseReturnValue:
    """Take a reading back: the one named, or the last this tape sent."""
    told = _told()
    name, number = _who(told)
    with current_store().write() as session:
        row = _under(session, pair)
        try:
            entry, repeated = take_back_by_tape(session, row, name, number)
        except NotTakenBackError as refusal:
            return {"error": str(refusal), **_state(session, row)}, 409
        taken = {"measure": entry.measure, "turn": entry.turn}
        return {"taken_back": taken, "repeated": repeated, **_state(session, row)}, 200


def _told() -> dict[str, Any]:
    """The message of a tape. 415 and 400 for anything but a JSON object."""
    if request.mimetype != "application/json":
        abort(415)
    try:
        told = request.get_json(silent=True)
    except RecursionError:  # brackets in brackets in brackets
        abort(400)
    if not isinstance(told, dict):
        abort(400)
    return told


def _who(told: dict[str, Any]) -> tuple[str, int | None]:
    """The tape that speaks and its count of the message. 422 for what is neither."""
    name, number = told.get("device", ""), told.get("number")
    if not isinstance(name, str) or len(name) > 40:
        abort(_said(422, "device is no name of up to 40 letters: send one, or leave it out."))
    if number is not None and (isinstance(number, bool) or not isinstance(number, int) or not 0 <= number < LARGEST_NUMBER):
        abort(_said(422, f"number is {str(number)[:40]!r}: count the messages 1, 2, 3, or leave it out."))
    return name, number


def _under(session: Session, pair: str) -> Listening:
    """The chart under a pair number. 404 when there is none, 429 after too many of these from one address."""
    who = request.remote_addr or ""
    if STRAYS.waits(who):
        abort(_said(429, "Too many unknown pair numbers came from here: wait a minute."))
    row = listening_under(session, pair)
    if row is None:
        STRAYS.note(who)
        abort(_said(404, f"No chart listens under {pair[:12]}: look at the pair number on the chart's page."))
    return row


def _said(status: int, words: str) -> Response:
    return make_response({"error": words}, status)


def _state(session: Session, row: Listening) -> dict[str, Any]:
    waits = None
    if row.at:
        entry = CATALOGUE[row.at]
        chart = core_chart(session, row.chart)
        near = predicted(chart, chart.table, row.at)
        usual = round(entry.typical if near is None else near, 1)
        waits = {"measure": row.at, "name": entry.name, "turn": row.turn, "usual_cm": usual}
    return {"waits_for": waits, "held": row.held}


def _taken(answer: Answer, unit: Any) -> dict[str, Any]:
    show = METRIC if unit == "cm" else Display("in", 16)
    return {
        "measure": answer.code, "name": CATALOGUE[answer.code].name, "turn": answer.turn,
            "said": show.full(cm_of(answer.ticks)),
    }  # fmt: skip


def _sentences(session: Session, row: Listening, answer: Answer, unit: Any) -> list[str]:
    show = METRIC if unit == "cm" else Display("in", 16)
    found = doubts(core_chart(session, row.chart)) if answer.doubts else ()
    return [doubt.saying.text(show) for doubt in found if doubt.key in answer.doubts]
