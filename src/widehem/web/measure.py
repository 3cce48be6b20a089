"""The measure station: one measure at a time with its instruction and the tape on the figure, doubts while it counts."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass
from datetime import date
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for
from markupsafe import Markup

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart, Reading
from widehem.core.body.doubt_groups import GroupState, grouped, widest_spread
from widehem.core.body.doubts import GIRTH_SPREAD, doubts
from widehem.core.body.estimates import Estimates, estimate
from widehem.core.body.figure_tables import TABLES
from widehem.core.body.measure import Measure
from widehem.core.drafting.method import METHODS
from widehem.core.drafting.option import OptionError
from widehem.core.drafting.sensitivity import Move, next_to_read, what_moves
from widehem.core.output.svg_figure import figure_svg
from widehem.core.units import Length, LengthError, parse_length
from widehem.store.charts import accept_doubt, add_reading, core_chart, history, latest_chart, open_chart
from widehem.store.dockets import find_docket, find_wearer
from widehem.store.models import ChartRow, Docket, ReadingRow, Wearer
from widehem.web.board_state import EASE, OPTION, kept_settings, values
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.selvedge import selvedge
from widehem.web.show import display, figure

pages = Blueprint("measure", __name__)

ALWAYS = ("height",)  # judged together with the rest, and wanted for the stride


@dataclass
class Page:
    """What the chart page stands on."""

    wearer: Wearer
    docket: Docket | None
    row: ChartRow | None
    chart: Chart
    past: list[ReadingRow]
    accepted: dict[str, str]


def _load(wearer_id: int, docket_id: int | None, at: str) -> Page:
    with current_store().read() as session:
        wearer = find_wearer(session, wearer_id)
        if wearer is None:
            abort(404)
        docket = find_docket(session, docket_id) if docket_id else None
        if docket is None or docket.wearer_id != wearer_id:
            docket = wearer.dockets[0] if wearer.dockets else None
        row = latest_chart(session, wearer_id)
        past = history(session, row, at) if row and at else []
        accepted = {a.doubt: a.why for a in row.accepted} if row else {}
        return Page(wearer, docket, row, core_chart(session, row), past, accepted)


def listed(docket: Docket | None, which: str) -> list[str]:
    """The measures of a list: what the garment needs, in catalogue order, or all."""
    if which == "all" or docket is None:
        return list(CATALOGUE)
    needs = {*METHODS[docket.method].uses(), *ALWAYS}
    return [code for code in CATALOGUE if code in needs]


@pages.get("/wearers/<int:wearer_id>/measure")
def chart(wearer_id: int) -> str:
    """The chart with one measure in hand."""
    return _render(wearer_id, request.args.get("at", ""), request.args.get("list", ""), request.args.get("docket", type=int))


def _render(
    wearer_id: int,
    at: str,
    which: str,
    docket_id: int | None,
    typed: dict[str, str] | None = None,
    errors: dict[str, str] | None = None,
) -> str:
    page = _load(wearer_id, docket_id, at)
    which = which if which in ("garment", "all") else ("garment" if page.docket else "all")
    codes = listed(page.docket, which)
    missing = [code for code in codes if code not in page.chart]
    if at not in CATALOGUE:
        at = missing[0] if missing else codes[0]
        page.past = []
    if at not in codes:
        codes = sorted({*codes, at}, key=list(CATALOGUE).index)
    found = doubts(page.chart)
    groups = grouped(found, set(page.accepted))
    mine = [doubt for doubt in found if at in doubt.measures]
    zones: dict[str, list[Measure]] = {}
    for code in codes:
        zones.setdefault(CATALOGUE[code].zone, []).append(CATALOGUE[code])
    doubtful = {code: doubt.key in page.accepted for doubt in reversed(found) for code in doubt.measures}
    method = METHODS[page.docket.method] if page.docket else None
    why = next((need.why for need in method.needs if need.measure == at), "") if method else ""
    at_index = codes.index(at)
    estimates = estimate(page.chart, page.chart.table) if any(page.chart) else None

    def to(code: str, which: str = which) -> str:
        usual = "garment" if page.docket else "all"
        return url_for(
            "measure.chart",
            wearer_id=wearer_id,
            at=code or None,
            list=which if which != usual else None,
            docket=page.docket.id if page.docket else None,
        )

    return render_template(
        "measure.html",
        wearer=page.wearer,
        docket=page.docket,
        row=page.row,
        chart=page.chart,
        codes=codes,
        zones=zones,
        at=CATALOGUE[at],
        which=which,
        number=at_index + 1,
        missing=missing,
        mine=mine,
        accepted=page.accepted,
        doubtful=doubtful,
        to=to,
        typed=typed or {},
        errors=errors or {},
        past=page.past,
        why=why,
        method=method,
        before=codes[at_index - 1] if at_index else "",
        after=codes[at_index + 1] if at_index + 1 < len(codes) else "",
        reading=page.chart.readings.get(at) or Reading(at),
        figure_svg=Markup(figure_svg(page.chart, codes, at)),
        selvedge=selvedge(page.wearer, page.docket, page.chart, "measure"),
        slots=[*(_slot(state, page, to) for state in groups), _still(missing, codes, to, estimates)],
        tally=_tally(groups, missing),
        next=_next(page, at, missing, groups, to),
        today=date.today(),
        estimates=estimates,
        moves=_moves(page, at),
        tables=TABLES,
        unsure=request.args.get("sure") == "no",
        names_of={code: entry.name.lower() for code, entry in CATALOGUE.items()},
    )


def _slot(state: GroupState, page: Page, to: Any) -> Slot:
    show = display()
    if state.open:
        worst = max(state.open, key=lambda doubt: doubt.apart)
        words = " and ".join(CATALOGUE[code].name.lower() for code in worst.measures[:2])
        return Slot(
            state.title,
            "look",
            figure(show.length(worst.apart)),
            f"{show.unit} out",
            words,
            to(worst.measures[0]),
            len(state.open),
        )
    if state.title == "Two readings":
        code, spread = widest_spread(page.chart)
        words = f"widest, {CATALOGUE[code].name.lower()}" if code else f"at most {show.full(GIRTH_SPREAD)} on a girth"
        return Slot(state.title, "true", figure(show.length(spread)), f"{show.unit} apart", words)
    words = f"{len(state.accepted)} kept knowingly" if state.accepted else "nothing stands out"
    return Slot(state.title, "true", "0", "to look at", words)


def _still(missing: list[str], codes: list[str], to: Any, estimates: Estimates | None) -> Slot:
    if not missing:
        return Slot("Still to read", "true", "0", f"of {len(codes)}", "all of this list")
    estimated = sum(1 for code in missing if estimates is not None and estimates.get(code))
    words = f"{estimated} of them estimated" if estimated else f"next, {CATALOGUE[missing[0]].name.lower()}"
    return Slot("Still to read", "open", str(len(missing)), f"of {len(codes)}", words, to(missing[0]))


def _tally(groups: tuple[GroupState, ...], missing: list[str]) -> str:
    look = sum(len(group.open) for group in groups)
    return f"{look} to look at, {len(missing)} to come"


MOVES_SHOWN = 3


def _moves(page: Page, code: str) -> tuple[Move, ...]:
    """What one centimetre more in this measure moves on the garment; nothing when its settings cannot be read."""
    if page.docket is None or not any(page.chart):
        return ()
    method = METHODS[page.docket.method]
    settings = kept_settings(page.docket.options, page.docket.ease)
    if code not in method.uses(page.docket.options):
        return ()
    try:
        return what_moves(method, page.chart, code, values(method, settings, OPTION), values(method, settings, EASE))[
            :MOVES_SHOWN
        ]
    except OptionError:
        return ()


def _next(page: Page, at: str, missing: list[str], groups: tuple[GroupState, ...], to: Any) -> Next:
    looking = [doubt for group in groups for doubt in group.open]
    back = ("Back to the production", url_for("people.production", production_id=page.wearer.production_id))
    needed = list(missing)
    if page.docket is not None:
        needed = list(next_to_read(METHODS[page.docket.method], page.chart, page.docket.options))
    if needed:
        there = needed[0] == at
        return Next(f"Read {CATALOGUE[needed[0]].name.lower()}", "#r-first" if there else to(needed[0]), *back)
    if page.docket is not None:
        return Next(f"Draft {page.docket.name}", url_for("board.draft", docket_id=page.docket.id), *back)
    if looking:
        return Next(f"Look at {CATALOGUE[looking[0].measures[0]].name.lower()} again", to(looking[0].measures[0]), *back)
    return Next("Open a docket", url_for("people.production", production_id=page.wearer.production_id) + "#new-docket", *back)


@pages.post("/wearers/<int:wearer_id>/readings")
def write_down(wearer_id: int) -> Any:
    """Write one or two readings of a measure on the chart; what cannot be read comes back with a sentence."""
    form = request.form
    code = form.get("measure", "")
    if code not in CATALOGUE:
        abort(400)
    typed = {"first": form.get("first", ""), "second": form.get("second", "")}
    read: dict[str, Length | None] = {}
    errors = {}
    show = display()
    for field, text in typed.items():
        try:
            read[field] = parse_length(text, show.unit, least_cm=0.5) if text.strip() else None
        except LengthError as error:
            errors[field] = f"{CATALOGUE[code].name}: {error}"
    docket_id, which = form.get("docket", type=int), form.get("list", "")
    if errors:
        return _render(wearer_id, code, which, docket_id, typed, errors), 422
    with current_store().write() as session:
        wearer = find_wearer(session, wearer_id)
        if wearer is None:
            abort(404)
        row = open_chart(session, wearer)
        now = core_chart(session, row).readings.get(code) or Reading(code)
        for turn, field, stands in ((1, "first", now.first), (2, "second", now.second)):
            if not same(stands, read[field], typed[field]):
                add_reading(session, row, code, turn, read[field])
    after = code if form.get("then") == "stay" else form.get("after", "") or code
    return redirect(url_for("measure.chart", wearer_id=wearer_id, at=after, list=which or None, docket=docket_id), 303)


def same(stands: Length | None, read: Length | None, text: str) -> bool:
    """Whether a field still says what stands on the chart, shown in the maker's unit."""
    if stands is None or read is None:
        return stands is read
    return stands.ticks == read.ticks or text.strip() == display().length(stands.cm)


@pages.post("/wearers/<int:wearer_id>/doubts")
def keep_doubt(wearer_id: int) -> Any:
    """Keep a doubtful figure knowingly, with a word why."""
    form = request.form
    code, key, why = form.get("measure", ""), form.get("doubt", ""), form.get("why", "").strip()
    if not why:
        errors = {"why": "Say in a word why the figure is right, then keep it."}
        return _render(wearer_id, code, form.get("list", ""), form.get("docket", type=int), {}, errors), 422
    with current_store().write() as session:
        row = latest_chart(session, wearer_id)
        if row is None:
            abort(404)
        if any(doubt.key == key for doubt in doubts(core_chart(session, row))):
            accept_doubt(session, row, key, why)
    return redirect(
        url_for(
            "measure.chart", wearer_id=wearer_id, at=code, list=form.get("list") or None, docket=form.get("docket", type=int)
        ),
        303,
    )


@pages.post("/wearers/<int:wearer_id>/chart")
def about_chart(wearer_id: int) -> Any:
    """What the chart was taken over, in which shoes, by whom and when."""
    form = request.form
    with current_store().write() as session:
        wearer = find_wearer(session, wearer_id)
        if wearer is None:
            abort(404)
        row = open_chart(session, wearer)
        row.foundation, row.shoes = form.get("foundation", "").strip()[:200], form.get("shoes", "").strip()[:200]
        row.measured_by = form.get("measured_by", "").strip()[:120]
        wearer.name = form.get("name", "").strip()[:120] or wearer.name
        wearer.role = form.get("part", wearer.role).strip()[:120]
        if form.get("figure") in TABLES:
            wearer.figure = form["figure"]
        with suppress(ValueError):  # half a date: the one that stood there stays
            row.taken_on = date.fromisoformat(form.get("taken_on", ""))
    return redirect(
        url_for("measure.chart", wearer_id=wearer_id, at=form.get("measure") or None, docket=form.get("docket", type=int)), 303
    )
