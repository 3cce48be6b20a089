"""The draft board: scrub through the steps, change settings and see the draft redraw, ask every point for its working."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from urllib.parse import parse_qsl

from flask import Blueprint, abort, make_response, redirect, render_template, request, url_for
from markupsafe import Markup
from werkzeug.datastructures import MultiDict

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.design.cautions import cautions
from widehem.core.design.make import Made
from widehem.core.design.mends import mends_for
from widehem.core.output.lying import lying
from widehem.core.output.svg_board import ALONG, FOLDED, board_svg, frames, lens_frame, view_names
from widehem.core.pattern.acceptance import accepted
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.standing import WAITS
from widehem.core.units import Saying, parse_length
from widehem.core.values import replace
from widehem.store.charts import add_reading, chart_drawn_on, open_chart
from widehem.store.dockets import find_docket, keep_settings, sleeves_for
from widehem.store.journal import tell
from widehem.store.making import Work
from widehem.store.models import Docket
from widehem.store.papers import accepted_of
from widehem.web.accept import wrong_word
from widehem.web.board_settings import GARMENT, ease_plans, field_keys, house_says, otherwise, setting_links, ways_of
from widehem.web.board_state import (
    EASE,
    MEASURE,
    OPTION,
    BoardState,
    field_for,
    known_setting,
    made_of,
    read_setting,
    read_state,
)
from widehem.web.drawn_by import armholes, load, older_rules
from widehem.web.hem import Next, Slot, slots_of, tally
from widehem.web.selvedge import selvedge
from widehem.web.show import display, is_htmx
from widehem.web.tries import remember, tried_words
from widehem.web.writing import writing

pages = Blueprint("board", __name__)
CUT = "cut"  # where keeping may lead


@dataclass
class Trouble:
    """Why what was asked cannot be drawn: field errors by key, or a refusal with the measures to blame."""

    errors: dict[str, str]
    typed: dict[str, str]
    refusal: Saying | None = None
    measures: tuple[str, ...] = ()


@pages.get("/dockets/<int:docket_id>/draft")
def draft(docket_id: int) -> Any:
    """The board in the state its address names; a form of the slip is read first."""
    work = load(docket_id)
    docket, method = work.docket, work.method
    trouble = Trouble({}, {})
    here = url_for("board.draft", docket_id=docket_id)
    if "good" in request.args:
        good = read_state(method, docket, _parsed(request.args["good"]))
        state = _read_form(work, good, trouble)
    else:
        state = good = read_state(method, docket, request.args, trouble.errors)
    made, state = _draw(work, state, good, trouble)
    if state.tried or "good" in request.args or "drop" in request.args:  # who only comes by has dropped nothing
        remember(docket_id, state.tried_words)
    response = make_response(_render(work, state, made, trouble))
    if is_htmx():
        query = state.query()
        response.headers["HX-Push-Url"] = here + (f"?{query}" if query else "")
    return response


def _parsed(query: str) -> MultiDict[str, str]:
    return MultiDict(parse_qsl(query, keep_blank_values=True))


def _read_form(work: Work, good: BoardState, trouble: Trouble) -> BoardState:
    """The good state with what the form changed; a field left as it was shown changes nothing."""
    method, chart = work.method, work.chart
    show, state = display(), good
    made = _drawn(work, good)
    for key, raw in request.args.items():
        if not known_setting(method, key):
            continue
        shown = field_for(method, key, chart, good, show, made=made, rules=work.docket.rules)
        text = raw.strip()
        if text == shown.text:
            continue
        if not text:
            state = state.with_setting(key, "")
            continue
        try:
            state = state.with_setting(key, read_setting(method, key, text, show.unit))
        except OptionError as error:
            trouble.errors[key], trouble.typed[key] = str(error), raw
    return state


def _drawn(work: Work, good: BoardState) -> Made | None:
    """What a state draws, where the defaults of its method may follow from the drawing."""
    if not any(option.drawn for option in work.method.options):
        return None
    try:
        return made_of(work, good.settings)
    except (OptionError, CannotDraft):
        return None


def _draw(work: Work, state: BoardState, good: BoardState, trouble: Trouble) -> tuple[Made | None, BoardState]:
    """Draw the state; when that cannot be, the last good one, with the trouble told."""
    try:
        return made_of(work, state.settings), state
    except OptionError as error:
        trouble.errors["settings"] = str(error)
    except CannotDraft as refusal:
        trouble.refusal, trouble.measures = refusal.saying, refusal.measures
        trouble.errors.update(
            {MEASURE + code: "Look at this one." for code in refusal.measures if MEASURE + code in state.tried}
        )
    for fallback in (good, BoardState(state.kept, {}, state.step, state.view, state.slip, house=state.house)):
        try:
            return made_of(work, fallback.settings), state
        except (OptionError, CannotDraft):
            continue
    return None, state


def _render(work: Work, state: BoardState, made: Made | None, trouble: Trouble) -> str:
    docket, row, chart, method, changed = work.docket, work.row, work.chart, work.method, work.changed
    show = display()
    here = url_for("board.draft", docket_id=docket.id)

    def to(**changes: object) -> str:
        query = state.query(**changes)
        if "tried" in changes and not changes["tried"]:
            query = "&".join(filter(None, (query, "drop=1")))
        return f"{here}?{query}" if query else here

    slip = state.slip if made is not None or state.slip == GARMENT else "settings"
    keys = field_keys(method, chart, slip, state, made)
    fields = {
        group: [
            field_for(
                method,
                key,
                chart,
                state,
                show,
                trouble.typed.get(key, ""),
                trouble.errors.get(key, ""),
                made=made,
                rules=docket.rules,
            )
            for key in names
        ]
        for group, names in keys.items()
    }
    context: dict[str, Any] = {
        "docket": docket,
        "row": row,
        "method": method,
        "state": state,
        "to": to,
        "fields": fields,
        "trouble": trouble,
        "draft": made,
        "good": state.query(),
        "changes": sorted(state.tried),
        "changed": changed,
        "bodice": work.bodice,
        "armhole": work.armhole,
        "catalogue": CATALOGUE,
        "waits": WAITS,
        "otherwise": otherwise(made),
        "meanwhile": "meanwhile" in request.args,
        "links": setting_links(state, to, fields),
        "older": older_rules(work),
        "armholes": armholes(docket) if method.for_armhole and slip == GARMENT else (),
        "house_differs": house_says(docket) if slip == "settings" else "",
        "sleeves": sleeves_for(method) if slip == GARMENT else (),
        "ways": ways_of(work, state, made) if made is not None and slip == "settings" else (),
    }
    if made is None:
        words = "not drawn"
        context["selvedge"] = selvedge(docket.wearer, docket, chart, "draft", words, changed)
        titles = ("Seams", "Shapes", "Waist on the body", "Hip on the body", "Movement")
        context["slots"], context["tally"] = [Slot(title, "open", "", "", "nothing drawn yet") for title in titles], ""
        context["state"] = replace(state, slip=slip)
        context["next"] = Next("Read what is missing", url_for("measure.chart", wearer_id=docket.wearer_id, docket=docket.id))
        return render_template("draft.html", **context)
    last = len(made.steps)
    step = last if state.step is None else max(1, min(state.step, last))
    lit = next((check for check in made.checks if check.name == state.lit), None)
    holds = accepted(made.checks, accepted_of(docket))
    views = frames(made)
    seen = lying(made) if state.view == ALONG and ALONG in views else made
    context.update(
        selvedge=selvedge(docket.wearer, docket, chart, "draft", f"{step} of {last}", changed),
        step=step,
        last=last,
        now=made.steps[step - 1],
        frames=views,
        views=view_names(made),
        board=Markup(board_svg(seen, step, show, lit.spots if lit else (), folded=state.view == FOLDED)),
        dangers=cautions(made),
        lit=lit,
        lens=lens_frame(seen, step),
        slots=slots_of(made.checks, lambda check: to(lit=check.name, slip="checks", step=None)),
        tally=tally(made.checks, holds),
        accepted=holds,
        wordless=wrong_word("") if "wordless" in request.args else "",
        mends=_mends(made, state, to),
        ease_plans=ease_plans(method, state, to) if slip == "settings" else (),
        next=_next(docket, made, step, to, state if trouble.refusal is None else None),
    )
    return render_template("draft.html", **context)


def _mends(made: Made, state: BoardState, to: Any) -> dict[str, list[tuple[str, str]]]:
    """For each check that is not true, what would true it: words, and where pressing leads. Taking it back is the way back."""
    found: dict[str, list[tuple[str, str]]] = {}
    for check in made.checks:
        for mend in mends_for(made, check):
            key = (EASE if mend.ease else OPTION) + mend.option
            href = to(tried=state.with_setting(key, mend.value).tried, slip="checks", lit=check.name)
            found.setdefault(check.name, []).append((mend.words, href))
    return found


def _next(docket: Docket, made: Made, step: int, to: Any, state: BoardState | None) -> Next:
    last = len(made.steps)
    back = f"Back to step {step - 1}" if step > 1 else ""
    back_href = to(step=step - 1) if step > 1 else ""
    if step < last:
        title = made.steps[step].title
        return Next(
            f"Draw step {step + 1}: {title[:1].lower()}{title[1:]}",
            to(step=step + 1 if step + 1 < last else None),
            back,
            back_href,
        )
    if state is not None and state.tried:
        count = len(state.tried)
        words = f"Keep {count} change{'s' if count != 1 else ''} and lay it out"
        fields = {"good": state.query(), "version": str(docket.version), "then": CUT}
        return Next(words, url_for(".keep", docket_id=docket.id), back, back_href, fields=fields)
    return Next("Add allowances, lay it out on paper", url_for("paper.cut", docket_id=docket.id), back, back_href)


@pages.post("/dockets/<int:docket_id>/keep")
def keep(docket_id: int) -> Any:
    """Keep the tried settings in the docket, tried measures on the chart as new readings."""
    work = load(docket_id)
    docket, method = work.docket, work.method
    state = read_state(method, docket, _parsed(request.form.get("good", "")))
    here = url_for("board.draft", docket_id=docket_id)
    if str(docket.version) != request.form.get("version"):
        return redirect(f"{here}?{state.query(slip='settings')}&meanwhile=1", 303)
    try:
        made_of(work, state.settings)
    except (OptionError, CannotDraft):
        return redirect(f"{here}?{state.query()}", 303)
    settings = state.settings
    with writing() as session:
        stored = find_docket(session, docket_id)
        if stored is None:
            abort(404)
        if str(stored.version) != request.form.get("version"):  # somebody kept it between our looking and our writing
            return redirect(f"{here}?{state.query(slip='settings')}&meanwhile=1", 303)
        tell(session, f"Kept {stored.name}: {tried_words(method, state)}.", stored)
        keep_settings(
            stored,
            {key[2:]: text for key, text in settings.items() if key.startswith(OPTION)},
            {key[2:]: text for key, text in settings.items() if key.startswith(EASE)},
        )
        measures = {key[2:]: text for key, text in state.tried.items() if key.startswith(MEASURE) and text}
        if measures:
            row = chart_drawn_on(session, stored) or open_chart(session, stored.wearer)
            for code, text in measures.items():
                add_reading(session, row, code, 1, parse_length(text, "cm"))
                add_reading(session, row, code, 2, None)
    remember(docket_id, "")
    if request.form.get("then") == CUT:
        return redirect(url_for("paper.cut", docket_id=docket_id), 303)
    query = BoardState({}, {}, state.step, state.view, state.slip).query()
    return redirect(f"{here}?{query}" if query else here, 303)
