"""The fit station: what is done to one wearer's paper after a fitting, before and after over each other, and what else it moves."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from urllib.parse import parse_qsl

from flask import Blueprint, abort, redirect, render_template, request, url_for
from markupsafe import Markup

from widehem.core.altering.cut import MOVES, moves_words, read_moves
from widehem.core.body.chart import Chart
from widehem.core.design.compare import Row, compare_made
from widehem.core.design.design import Step
from widehem.core.design.make import Made
from widehem.core.fitting.alteration import GROUPS, About, fitting
from widehem.core.fitting.learning import Learned, learned
from widehem.core.output.svg_style import frame_of, over_each_other, over_svg, spread_out
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import CM_PER_INCH, Saying
from widehem.core.values import replace
from widehem.store.alterations import (
    MOST,
    Alteration,
    alterations_on,
    garments_of,
    habits_of,
    new_number,
    put_alterations,
    switched,
    with_alteration,
)
from widehem.store.dockets import find_docket
from widehem.store.journal import tell
from widehem.store.making import Work
from widehem.store.models import Docket
from widehem.store.recipes import followers, new_id, own_design, put_steps, steps_of
from widehem.store.recipes import with_step as with_design_step
from widehem.store.walking import to_redo, to_undo
from widehem.web.drawn_by import load
from widehem.web.hem import Next, slots_of, tally
from widehem.web.here import current_store
from widehem.web.selvedge import selvedge
from widehem.web.show import display
from widehem.web.style_state import SETTING, StyleState, fields_of, of_step, read_style, written
from widehem.web.trial import Trial
from widehem.web.writing import writing

pages = Blueprint("fit", __name__)
TRIED = "tried"  # the id of an alteration while it is tried
MOVES_SHOWN = 14
CODES = frozenset(code for codes in GROUPS.values() for code in codes)


@dataclass(frozen=True)
class Line:
    """An alteration as it stands in the list. words: what it does here; wrong: why it does not fit; twice: that the chart has caught up
    with it."""

    one: Alteration
    words: tuple[Saying, ...]
    wrong: Saying | None
    twice: Saying | None


@pages.get("/dockets/<int:docket_id>/fit")
def station(docket_id: int) -> Any:
    """The alterations of this wearer's paper; or one while it is tried."""
    work = load(docket_id)
    try:
        made = work.made()
    except (OptionError, CannotDraft):
        return redirect(url_for("board.draft", docket_id=docket_id), 303)
    found = alterations_on(work.docket)
    state = _state(request.args)
    opened = next((one for one in found if one.step.id == request.args.get("open") and one.step.code in CODES), None)
    if opened is not None:
        state = _shown_again(opened.step)
    errors: dict[str, str] = {}
    trial = _tried(work, made, found, state, errors)
    return _render(work, made, found, state, trial, errors)


def _state(given: Any) -> StyleState:
    """The alteration the address names; what is no alteration is left out."""
    state = read_style(given)
    return state if state.code in CODES else replace(state, code="", step="")


def _with(found: Sequence[Alteration], step: Step) -> tuple[Step, ...]:
    return tuple(one.step for one in with_alteration(found, Alteration(step, About())))


def _tried(work: Work, made: Made, found: Sequence[Alteration], state: StyleState, errors: dict[str, str]) -> Trial | None:
    """The garment with the alteration that is tried; None where none is."""
    asked = state.operation
    if asked is None:
        return None
    old = next((one.step for one in found if one.step.id == state.step), None)
    values = state.values(display(), errors, old.settings if old is not None else None)
    step = Step(state.step or TRIED, asked.code, values, {}, _names(state, errors))
    try:
        tried = replace(work, alterations=_with(found, step)).made()
    except (OptionError, CannotDraft) as error:
        errors.setdefault("settings", str(error))
        return Trial(step, made)
    return Trial.of(step, made, tried)


def _names(state: StyleState, errors: dict[str, str]) -> dict[str, str]:
    """What was measured along an edge, in cm as it is kept; what cannot be read is told in errors."""
    text = state.names.get(MOVES, "")
    if state.operation is None or MOVES not in state.operation.names or not text:
        return {}
    try:
        return {MOVES: moves_words(read_moves(text, _factor()))}
    except ValueError as error:
        errors[MOVES] = str(error)
        return {}


def _factor() -> float:
    """How many cm the unit that is shown has."""
    return CM_PER_INCH if display().unit == "in" else 1.0


def _shown_again(step: Step) -> StyleState:
    """An alteration opened again, what was measured in the unit that is shown."""
    state = of_step(step, display())
    if MOVES not in step.names:
        return state
    moves = [(along / _factor(), out / _factor()) for along, out in read_moves(step.names[MOVES])]
    return replace(state, names={MOVES: moves_words(moves)})


def _render(
    work: Work, made: Made, found: Sequence[Alteration], state: StyleState, trial: Trial | None, errors: dict[str, str]
) -> str:
    docket, show = work.docket, display()
    here = url_for(".station", docket_id=docket.id)
    before, shown = _both(work, made, found, trial)

    def to(**changes: object) -> str:
        query = state.query(**changes)
        return f"{here}?{query}" if query else here

    over = before is not shown
    lay = over_each_other(before.garment, shown.garment) if over else spread_out(shown.garment.pieces)
    now, was = (tuple(p.moved(lay[p.name]) for p in of.garment.pieces if p.name in lay) for of in (shown, before))
    fields = fields_of(state, trial.step.settings if trial else {}, show, errors)
    with current_store().read() as session:
        back, again = to_undo(session, docket.id), to_redo(session, docket.id)
        others = [other.name for other in followers(session, docket.design_id) if other.id != docket.id and other.stays is None]
        known = (
            ()
            if trial is not None
            else _known(work, found, learned(garments_of(session, docket.wearer_id, docket.id), work.chart))
        )
        common = () if trial is not None else habits_of(session)
    return render_template(
        "fit.html", docket=docket, work=work, state=state, trial=trial, errors=errors, here=here, view="paper",
        drawing=Markup(over_svg(was, now)), frame=frame_of((*was, *now)), over=over, lines=_lines(made, found, work.chart),
        fields=fields, links={entry.key: _links(state, entry, to) for entry in fields}, otherwise={}, moves=_moves(before, shown) if over else (),
        offered=fitting(before.garment if trial is None else made.garment), codes=CODES, measured=MOVES, known=known, common=common, back=back, again=again,
        others=others if docket.design.own else [], opened=next((one for one in found if one.step.id == state.step), None),
        meanwhile="meanwhile" in request.args,
        selvedge=selvedge(docket.wearer, docket, work.chart, "fit", _words(found), work.changed),
        slots=slots_of(shown.checks, lambda check: url_for("board.draft", docket_id=docket.id, slip="checks", lit=check.name)),
        tally=tally(shown.checks), next=_next(docket, here, trial),
    )  # fmt: skip


def _known(work: Work, found: Sequence[Alteration], all_known: Sequence[Learned]) -> tuple[tuple[Learned, str], ...]:
    """What other garments of this wearer agree on and this one does not have yet, with the address at which it is tried."""
    mine = {one.about.figure for one in found}
    rows = []
    for one in all_known:
        if one.figure in mine or one.alteration is None:
            continue
        code, settings = one.alteration
        asked = StyleState(code=code).operation
        if asked is None:
            continue
        texts = {
            SETTING + name: value if isinstance(value, str) else written(asked.option(name), value, display())
            for name, value in settings.items()
        }
        rows.append((one, url_for(".station", docket_id=work.docket.id, **{"do": code, **texts})))  # type: ignore[arg-type]
    return tuple(rows)


def _both(work: Work, made: Made, found: Sequence[Alteration], trial: Trial | None) -> tuple[Made, Made]:
    """What is held against what: the paper without the one that is tried and with it; else without any alteration and with all."""
    if trial is not None:
        rest = tuple(one.step for one in found if one.step.id != trial.step.id)
        same = len(rest) == len(found)
        return (made if same else replace(work, alterations=rest).made()), trial.made
    if not found:
        return made, made
    return replace(work, alterations=()).made(), made


def _words(found: Sequence[Alteration]) -> str:
    return f"{len(found)} alteration{'s' if len(found) != 1 else ''}" if found else ""


def _lines(made: Made, found: Sequence[Alteration], chart: Chart) -> list[Line]:
    wrong = {entry.step: entry.saying for entry in made.refused}
    said: dict[str, list[Saying]] = {}
    for note, of in zip(made.notes, made.told, strict=True):
        said.setdefault(of, []).append(note)
    return [
        Line(
            one, tuple(note for note in said.get(one.step.id, ()) if note != wrong.get(one.step.id)), wrong.get(one.step.id),
            None if one.step.off else one.about.caught_up(chart),
        )
        for one in found
    ]  # fmt: skip


def _moves(before: Made, shown: Made) -> list[Row]:
    """The figures that differ most, the largest first; areas last."""
    rows = [row for row in compare_made(before, shown) if row.differs and row.by is not None and not row.area]
    return sorted(rows, key=lambda row: -abs(row.by or 0.0))[:MOVES_SHOWN]


def _links(state: StyleState, entry: Any, to: Any) -> dict[str, str]:
    """Where less, more and reset of a field lead."""
    code = entry.key[2:]
    rest = {other: text for other, text in state.settings.items() if other != code}
    found = {name: to(settings={**rest, code: text}) for name, text in (("less", entry.less), ("more", entry.more)) if text}
    return {**found, "reset": to(settings=rest)}


def _next(docket: Docket, here: str, trial: Trial | None) -> Next:
    if trial is not None and trial.refused is None:
        return Next("Keep the alteration", "", "Leave it", here, form="keep-alteration")
    if trial is not None:
        return Next("Back to the alterations", here)
    return Next("Paper with the alterations in it", url_for("paper.cut", docket_id=docket.id))


# ---- writing ----


@pages.post("/dockets/<int:docket_id>/fit/keep")
def keep(docket_id: int) -> Any:
    """Keep the alteration that is tried: on this wearer's paper, or as a step of the design for everyone."""
    work = load(docket_id)
    given = request.form.get("good", "")
    state = _state(dict(parse_qsl(given, keep_blank_values=True)))
    found = alterations_on(work.docket)
    errors: dict[str, str] = {}
    asked = state.operation
    old = next((one for one in found if one.step.id == state.step), None)
    values = state.values(display(), errors, old.step.settings if old is not None else None)
    trial = _tried(work, work.made(), found, state, errors)
    if asked is None or errors or trial is None or trial.refused is not None:
        return redirect(f"{url_for('.station', docket_id=docket_id)}?{given}", 303)
    why = request.form.get("why", "").strip()
    everyone = request.form.get("scope") == "all"
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        if request.form.get("version") not in (None, str(docket.version)):
            return redirect(f"{url_for('.station', docket_id=docket_id)}?{given}&meanwhile=1", 303)
        if everyone:
            row = own_design(session, docket)
            put_steps(row, with_design_step(steps_of(row), Step(new_id(row), asked.code, values, {}, trial.step.names)))
            tell(session, f"{docket.design.name}: {asked.title.lower()} altered for everyone.", docket)
        else:
            mine = alterations_on(docket)
            if old is None and len(mine) >= MOST:
                abort(422)
            step = Step(old.step.id if old else new_number(), asked.code, values, {}, trial.step.names)
            about = About.of(step, work.chart, why)
            put_alterations(docket, with_alteration(mine, Alteration(step, about)))
            tell(session, f"{docket.name}: {asked.title.lower()} altered{f', {why}' if why else ''}.", docket)
    return redirect(url_for(".station", docket_id=docket_id), 303)


@pages.post("/dockets/<int:docket_id>/fit/<number>")
def change(docket_id: int, number: str) -> Any:
    """Leave an alteration out or do it again, take it away."""
    what = request.form.get("what", "")
    words = {"off": "left out, or done again", "away": "taken away"}.get(what)
    if words is None:
        abort(400)
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        found = alterations_on(docket)
        one = next((one for one in found if one.step.id == number), None)
        if one is None:
            abort(404)
        rest = tuple(other for other in found if other.step.id != number)
        put_alterations(docket, rest if what == "away" else switched(found, number))
        tell(session, f"{docket.name}: {one.step.operation.title.lower()} was {words}.", docket)
    return redirect(url_for(".station", docket_id=docket_id), 303)
