"""The measure station: one measure at a time with its instruction and the tape on the figure, doubts while it counts."""

from __future__ import annotations

from contextlib import suppress
from datetime import date
from typing import Any, cast

from flask import Blueprint, abort, redirect, render_template, request
from markupsafe import Markup

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import SIDES, Reading
from widehem.core.body.doubts import doubts
from widehem.core.body.measure import Measure
from widehem.core.design.sensitivity import Move, what_moves
from widehem.core.drafting.method import METHODS
from widehem.core.output.svg_figure import figure_svg
from widehem.core.setting.option import OptionError
from widehem.core.units import Length, Unit
from widehem.store.charts import accept_doubt, add_reading, chart_numbered, core_chart, history, last_reading, open_chart
from widehem.store.designs import core_design
from widehem.store.dockets import changed_since, find_wearer
from widehem.store.journal import tell
from widehem.store.models import ChartRow, ReadingRow
from widehem.web.hem import Next
from widehem.web.here import current_store
from widehem.web.in_hand import InHand, hem_slots, in_hand, next_of, tally, uses
from widehem.web.numbers import number_of
from widehem.web.readings import HOUR, TURNS, Typed, as_typed, field_name, read_form, read_words, shown, stood, write
from widehem.web.selvedge import selvedge
from widehem.web.show import TWICE_COOKIE, display
from widehem.web.stood import both
from widehem.web.writing import writing

pages = Blueprint("measure", __name__)
ABOUT_CHART = {"foundation": 200, "shoes": 200, "measured_by": 120, "note": 600}  # signs at most

TITLES = {"first": "First reading", "second": "Second reading"}


@pages.get("/wearers/<int:wearer_id>/measure")
def chart(wearer_id: int) -> str:
    """The chart with one measure in hand."""
    return _chart(wearer_id)


@pages.get("/wearers/<int:wearer_id>/tape")
def tape(wearer_id: int) -> str:
    """A tape session: one measure at a time, large, with a number pad."""
    return _tape(wearer_id)


def _chart(wearer_id: int, typed: Typed | None = None, errors: dict[str, str] | None = None) -> str:
    hand = in_hand(wearer_id)
    context = taking(hand, "measure.chart", typed, errors)
    zones: dict[str, list[Measure]] = {}
    for code in context["codes"]:
        zones.setdefault(CATALOGUE[code].zone, []).append(CATALOGUE[code])
    doubtful = {code: doubt.key in hand.accepted for doubt in reversed(hand.doubts) for code in doubt.measures}
    return render_template("measure.html", zones=zones, doubtful=doubtful, unsure=request.args.get("sure") == "no", **context)


def _tape(wearer_id: int, typed: Typed | None = None, errors: dict[str, str] | None = None) -> str:
    hand = in_hand(wearer_id)
    context = taking(hand, "measure.tape", typed, errors)
    left = [code for code in context["codes"] if code not in hand.chart]
    after = context["after"]
    open_here = any(doubt.key not in hand.accepted for doubt in context["mine"])
    if after:
        words = f"{'Look later, go' if open_here else 'Go'} on to {CATALOGUE[after].name.lower()}"
        following = Next(
            words,
            hand.to("measure.tape", after),
            "Back to the chart",
            hand.to("measure.chart", context["at"].code),
            form=TAKING,
        )
    else:
        following = Next(
            "See what was read", hand.to("measure.tape_end"), "Back to the first", hand.to("measure.tape", context["codes"][0]),
            form=TAKING,
        )  # fmt: skip
    twice = request.cookies.get(TWICE_COOKIE) == "on"
    return render_template("tape.html", left=left, twice=twice, **{**context, "next": following})


def taking(hand: InHand, page: str, typed: Typed | None, errors: dict[str, str] | None) -> dict[str, Any]:
    """What every page that takes one measure at a time shows. page: the endpoint it goes on with."""
    at = request.values.get("at") or request.values.get("measure", "")
    codes = list(hand.codes)
    if at not in CATALOGUE:
        at = hand.missing[0] if hand.missing else codes[0]
    if at not in codes:
        codes.append(at)
    typed = typed or Typed(at)
    reading, index = hand.reading(at), codes.index(at)
    side = _side(reading, request.values.get("side", ""))
    fields = []
    for turn in TURNS:
        name = field_name(side, turn)
        standing = shown(reading, side, turn)
        length = getattr(reading.at(side), turn)
        fields.append(
            {
                "turn": turn, "name": name, "title": TITLES[turn], "value": typed.texts.get(name, standing),
                    "was": stood(reading, side, turn),
                "stands": None if reading.carried else length, "carried": length if reading.carried else None,
                    "error": typed.errors.get(name, ""),
            }
        )  # fmt: skip

    def to(code: str) -> str:
        return hand.to(page, code)

    with current_store().read() as session:
        past = history(session, hand.row, at) if hand.row else []
        changed = changed_since(session, hand.docket) if hand.docket else ()
    drawing = figure_svg(hand.chart, codes, at)
    return {
        "hand": hand, "wearer": hand.wearer, "docket": hand.docket, "row": hand.row, "chart": hand.chart, "codes": codes,
            "at": CATALOGUE[at],
        "number": index + 1, "side": side, "fields": fields, "reading": reading, "mine": hand.doubts_at(at),
            "accepted": hand.accepted,
        "before": codes[index - 1] if index else "", "after": codes[index + 1] if index + 1 < len(codes) else "", "to": to,
            "page": page,
        "errors": errors or {}, "notes": [*typed.notes, *request.args.getlist("told")], "past": past, "uses": uses(hand, at),
        "hour": typed.texts.get(HOUR, "" if reading.carried else reading.hour), "hour_error": typed.errors.get(HOUR, ""),
        "moves": _moves(hand, at), "estimates": hand.estimates, "drawing": drawing, "drawing_svg": Markup(drawing.svg),
        "today": hand.today, "selvedge": selvedge(hand.wearer, hand.docket, hand.chart, "measure", changed=changed),
        "slots": hem_slots(hand, to), "tally": tally(hand), "next": next_of(hand, at, to),
        "names_of": {code: entry.name.lower() for code, entry in CATALOGUE.items()},
    }  # fmt: skip


def _side(reading: Reading, asked: str) -> str:
    """Which side is in hand: the one asked for, else the left where only the sides were read."""
    if asked in SIDES and CATALOGUE[reading.code].sided:
        return asked
    return "left" if not asked and reading.apart and not reading.at("") else ""


MOVES_SHOWN = 3
TAKING = "taking"  # the form of a session


def _moves(hand: InHand, code: str) -> tuple[Move, ...]:
    """What one centimetre more in this measure moves on the garment; nothing when its settings cannot be read."""
    if hand.docket is None or not any(hand.chart):
        return ()
    method = METHODS[hand.docket.method]
    if code not in method.reads(hand.docket.all_options):
        return ()
    try:
        found = what_moves(core_design(hand.docket), hand.chart, code)
    except OptionError:
        return ()
    return found[:MOVES_SHOWN]


@pages.post("/wearers/<int:wearer_id>/readings")
def write_down(wearer_id: int) -> Any:
    """Write the readings of one measure on the chart; what cannot be read comes back with a sentence.

    A tape session stays on a measure that has become doubtful, while the wearer still stands there.
    """
    form = request.form
    code = form.get("measure", "")
    if code not in CATALOGUE:
        abort(400)
    on_tape = form.get("page") == "measure.tape"
    again = _tape if on_tape else _chart
    typed = read_form(form, code, in_hand(wearer_id).reading(code))
    if typed.errors:
        return again(wearer_id, typed), 422
    doubtful = False
    with writing() as session:
        wearer = find_wearer(session, wearer_id)
        if wearer is None:
            abort(404)
        row = chart_numbered(session, wearer_id, form.get("chart", type=number_of)) or open_chart(session, wearer)
        tell(session, read_words(typed, wearer), wearer)  # told only where something is written
        write(session, row, typed)
        session.flush()
        if on_tape and typed.read:
            accepted = {entry.doubt for entry in row.accepted}
            doubtful = any(code in d.measures and d.key not in accepted for d in doubts(core_chart(session, row)))
    if typed.errors:
        return again(wearer_id, typed), 422
    hand = in_hand(wearer_id)
    stay = doubtful or form.get("then") == "stay"
    told = typed.notes or None
    if form.get("side") == "left" and not stay:
        return redirect(hand.to("measure.tape" if on_tape else "measure.chart", code, side="right", told=told), 303)
    if on_tape and not stay and not form.get("after"):
        return redirect(hand.to("measure.tape_end", told=told), 303)
    after = code if stay else form.get("after", "") or code
    more = {"side": form.get("side") or None} if stay else {}
    return redirect(hand.to("measure.tape" if on_tape else "measure.chart", after, told=told, **more), 303)


@pages.post("/wearers/<int:wearer_id>/readings/back")
def put_back(wearer_id: int) -> Any:
    """Let a reading that stood here before stand here again."""
    with writing() as session:
        wearer, old = find_wearer(session, wearer_id), session.get(ReadingRow, request.form.get("reading", 0, type=number_of))
        chart = session.get(ChartRow, old.chart_id) if old is not None else None
        if wearer is None or old is None or old.ticks is None or chart is None or chart.wearer_id != wearer_id:
            abort(404)
        length = Length(old.ticks, old.typed, cast(Unit, old.unit))
        tell(session, f"{CATALOGUE[old.measure].name} of {wearer.name}: {display().full(length.cm)} again.", wearer)
        add_reading(session, chart, old.measure, old.turn, length, side=old.side)
        code = old.measure
    return redirect(in_hand(wearer_id).to("measure.chart", code, side=request.form.get("side") or None), 303)


@pages.get("/wearers/<int:wearer_id>/tape/end")
def tape_end(wearer_id: int) -> str:
    """What a session came to: what was read, what is in doubt, what was skipped."""
    hand = in_hand(wearer_id)
    doubted = {code for doubt in hand.open_doubts for code in doubt.measures}
    read = [code for code in hand.codes if code in hand.chart]
    parts = {
        "To look at again": [code for code in read if code in doubted],
        "Not read": hand.missing,
        "Read": [code for code in read if code not in doubted],
    }

    def to(code: str) -> str:
        return hand.to("measure.tape", code)

    return render_template(
        "tape_end.html", hand=hand, wearer=hand.wearer, chart=hand.chart, parts=parts, to=to, catalogue=CATALOGUE,
        doubts={code: hand.doubts_at(code) for code in doubted}, notes=request.args.getlist("told"),
        selvedge=selvedge(hand.wearer, hand.docket, hand.chart, "measure"), slots=hem_slots(hand, to), tally=tally(hand),
        next=next_of(hand, "", to),
    )  # fmt: skip


@pages.post("/wearers/<int:wearer_id>/readings/look")
def look(wearer_id: int) -> str:
    """The doubts there would be with what is typed so far; nothing is written down."""
    code = request.form.get("measure", "")
    if code not in CATALOGUE:
        abort(400)
    hand = in_hand(wearer_id)
    typed = read_form(request.form, code, hand.reading(code))
    found = [doubt for doubt in doubts(as_typed(hand.chart, typed)) if code in doubt.measures]
    return render_template(
        "_doubts.html", mine=found, accepted=hand.accepted, hand=hand, at=CATALOGUE[code], errors={}, unwritten=bool(typed.read)
    )


@pages.get("/wearers/<int:wearer_id>/meanwhile")
def meanwhile(wearer_id: int) -> Any:
    """Whether somebody else wrote on the chart since the page was made: a line to press, or nothing."""
    seen, chart_id = request.args.get("seen", 0, type=number_of), request.args.get("chart", type=number_of)
    with current_store().read() as session:
        row = chart_numbered(session, wearer_id, chart_id)
        last = last_reading(session, row.id) if row else 0
    if last <= seen:
        return "", 204
    return render_template("_meanwhile.html", back=request.args.get("back", ""))


@pages.post("/wearers/<int:wearer_id>/doubts")
def keep_doubt(wearer_id: int) -> Any:
    """Keep a doubtful figure knowingly, with a word why."""
    form = request.form
    code, key, why = form.get("measure", ""), form.get("doubt", ""), form.get("why", "").strip()
    again = _tape if form.get("page") == "measure.tape" else _chart
    if not why:
        return again(wearer_id, None, {"why": "Say in a word why the figure is right, then keep it."}), 422
    hand = in_hand(wearer_id)
    if hand.row is None:
        abort(404)
    if any(doubt.key == key for doubt in hand.doubts):
        with writing() as session:
            tell(session, f"Kept a doubt of {hand.wearer.name} knowingly.", hand.wearer)
            accept_doubt(session, hand.row, key, why)
    if form.get("page") == "charts.over_time":
        return redirect(hand.to("charts.over_time"), 303)
    return redirect(hand.to("measure.tape" if again is _tape else "measure.chart", code), 303)


@pages.post("/wearers/<int:wearer_id>/chart")
def about_chart(wearer_id: int) -> Any:
    """What the chart was taken over, in which shoes, by whom and when, and a note."""
    form = request.form
    with writing() as session:
        wearer = find_wearer(session, wearer_id)
        if wearer is None:
            abort(404)
        row = chart_numbered(session, wearer_id, form.get("chart", type=number_of)) or open_chart(session, wearer)
        tell(session, f"Kept what is said of the chart of {wearer.name}.", wearer)
        for field, most in ABOUT_CHART.items():  # what somebody else wrote meanwhile stays beside it
            now = getattr(row, field)
            setattr(row, field, both(now, form.get(field, now if field == "note" else ""), field, most))
        with suppress(ValueError):  # half a date: the one that stood there stays
            row.taken_on = date.fromisoformat(form.get("taken_on", ""))
    back = in_hand(wearer_id)
    return redirect(back.to("measure.chart", form.get("measure", "")), 303)
