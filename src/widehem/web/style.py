"""The style station: the recipe of a garment, made by pointing at the table; before and after over each other while choosing."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any
from urllib.parse import parse_qsl

from flask import Blueprint, abort, redirect, render_template, request, url_for
from markupsafe import Markup

from widehem.core.design.design import Step
from widehem.core.design.make import Made, context_of
from widehem.core.design.words import step_words
from widehem.core.output.svg_style import change_svg, frame_of, handles_svg, over_each_other, over_svg, spread_out, table_svg
from widehem.core.pattern.roles import ROLES, plain
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.handles import Handle, handles
from widehem.core.style.operation import PHASES, CannotStyle, Operation, run
from widehem.core.style.suggest import Offer, Pointed, everywhere, offers, place_words, places_on, where_at
from widehem.core.style.suggest_inside import offers_inside, pointed_inside
from widehem.core.style.where import LostPlaceError, Where, find
from widehem.core.units import Saying
from widehem.core.values import replace
from widehem.store.dockets import find_docket
from widehem.store.journal import tell
from widehem.store.making import Work
from widehem.store.models import Docket
from widehem.store.recipes import (
    as_it_is,
    followers,
    moved,
    new_id,
    own_design,
    put_steps,
    steps_of,
    switched,
    with_step,
    without,
)
from widehem.store.walking import to_redo, to_undo
from widehem.web.drawn_by import load
from widehem.web.hem import Next, slots_of, tally
from widehem.web.here import current_store
from widehem.web.selvedge import selvedge
from widehem.web.show import display
from widehem.web.style_state import StyleState, fields_of, of_step, pointed_words, read_style, where_words, written
from widehem.web.trial import Trial
from widehem.web.writing import writing

pages = Blueprint("style", __name__)
HANDLE = 0.017  # of the side of a square as big as all the cloth
STALE = "stale"  # by what a note is told that says what was drawn for something else
NEW = "new"  # the id of a step while it is tried


@dataclass(frozen=True)
class Line:
    """A step of the recipe as it stands in the list. wrong: why it does not fit this body."""

    step: Step
    number: int
    words: Saying
    wrong: Saying | None = None


@dataclass(frozen=True)
class Shown:
    """An operation that is offered. picture: what it would do here; wrong: why it would not."""

    offer: Offer
    href: str
    picture: Markup | None = None
    box: str = ""
    wrong: Saying | None = None


@dataclass(frozen=True)
class Chosen:
    """A place of the step that is tried. near: other places on the same edge, their words and where pressing leads."""

    code: str
    asked: str
    words: str
    near: tuple[tuple[str, str], ...]
    lost: Saying | None = None


@pages.get("/dockets/<int:docket_id>/style")
def station(docket_id: int) -> Any:
    """The table and the recipe; what can be done at a place; or a step while it is tried."""
    work = load(docket_id)
    try:
        made = work.made()
    except (OptionError, CannotDraft):
        return redirect(url_for("board.draft", docket_id=docket_id), 303)
    steps = work.design().steps
    state = read_style(request.args)
    opened = next((step for step in steps if step.id == request.args.get("open")), None)
    if opened is not None:
        state = of_step(opened, display())
    state = _with_places(made, state)
    errors: dict[str, str] = {}
    trial = _tried(work, made, steps, state, errors)
    return _render(work, made, steps, state, trial, errors)


def _with_places(made: Made, state: StyleState) -> StyleState:
    """A step that is tried anew, with the places found near what was pointed at; what is not there any more is left out."""
    if state.at is not None and not _is_there(made, state.at):
        state = replace(state, at=None)
    if state.operation is None or state.at is None:
        return state
    found = next((offer for offer in _offers(made, state.at) if offer.operation.code == state.code), None)
    return replace(state, wheres={**(found.wheres if found else {}), **state.wheres})


def _offers(made: Made, at: Pointed) -> list[Offer]:
    return offers_inside(made.garment, at) if at.inside else offers(made.garment, at)


def _is_there(made: Made, at: Pointed) -> bool:
    piece = next((piece for piece in made.garment.pieces if piece.name == at.piece), None)
    if piece is None:
        return False
    if at.inside:
        return bool(pointed_inside(piece, at.inside))
    if not piece.has(at.edge):
        return False
    return not at.dart or any(dart.name == at.dart for dart in piece.edge(at.edge).darts)


def _tried(work: Work, made: Made, steps: Sequence[Step], state: StyleState, errors: dict[str, str]) -> Trial | None:
    """The garment with the step that is tried; None where none is."""
    asked = state.operation
    if asked is None:
        return None
    kept = next((step for step in steps if step.id == state.step), None)
    values = state.values(display(), errors, kept.settings if kept is not None else None)
    step = Step(
        state.step or NEW, asked.code, values, dict(state.wheres), dict(state.names), maybe=kept.maybe if kept else False
    )
    try:
        tried = work.made(replace(work.design(), steps=with_step(steps, step)))
    except OptionError as error:
        errors.setdefault("settings", str(error))
        return Trial(step, made)
    return Trial.of(step, made, tried)


def _render(
    work: Work, made: Made, steps: Sequence[Step], state: StyleState, trial: Trial | None, errors: dict[str, str]
) -> str:
    docket, show = work.docket, display()
    here = url_for("style.station", docket_id=docket.id)

    def to(**changes: object) -> str:
        query = state.query(**changes)
        return f"{here}?{query}" if query else here

    def pointed(at: Pointed) -> str:
        return f"{here}?{StyleState(at).query()}"

    shown = trial.made if trial is not None else made
    lay = spread_out(shown.garment.pieces)
    if trial is not None:
        lay = over_each_other(made.garment, shown.garment)
    now, before = (tuple(p.moved(lay[p.name]) for p in of.garment.pieces if p.name in lay) for of in (shown, made))
    drawing = over_svg(before, now) if trial is not None else table_svg(now, pointed, show, state.at)
    if trial is not None and trial.refused is None:
        pulled = [(handle, trial.step.operation.option(handle.code)) for handle in _handles(work, made, steps, trial.step)]
        drawing += handles_svg(pulled, lay, HANDLE * math.sqrt(sum(piece.area for piece in now)), show)
    frame = frame_of((*before, *now) if trial is not None else now)
    fields = fields_of(state, trial.step.settings if trial else {}, show, errors)
    with current_store().read() as session:
        back, again = to_undo(session, docket.id), to_redo(session, docket.id)
        others = [other.name for other in followers(session, docket.design_id) if other.id != docket.id and other.stays is None]
    return render_template(
        "style.html", docket=docket, work=work, made=made, state=state, trial=trial, to=to, errors=errors, here=here,
        drawing=Markup(drawing), frame=frame, lines=_recipe(made, steps), fields=fields,
        links={entry.key: _links(state, entry, to) for entry in fields}, otherwise={}, places=_places(made, state, trial, to),
        offered=_offered(made, state.at, here) if state.at is not None and trial is None else (),
        whole_garment=[Shown(offer, f"{here}?{StyleState(None, offer.operation.code).query()}") for offer in everywhere()],
        at_words=_at_words(made, state.at), pointed_words=pointed_words, where_words=where_words, others=others if docket.design.own else [], meanwhile="meanwhile" in request.args,
        back=back, again=again, stale=[note for of, note in zip(made.told, made.notes, strict=True) if of == STALE],
        selvedge=selvedge(docket.wearer, docket, work.chart, "style", f"{len(steps)} steps" if steps else "", work.changed),
        slots=slots_of(shown.checks, lambda check: url_for("board.draft", docket_id=docket.id, slip="checks", lit=check.name)),
        tally=tally(shown.checks), next=_next(docket, here, state, trial),
    )  # fmt: skip


def _handles(work: Work, made: Made, steps: Sequence[Step], step: Step) -> list[Handle]:
    """Where the amounts of the step that is tried can be pulled."""
    before = made
    at = next((n for n, kept in enumerate(steps) if kept.id == step.id), None)
    if at is not None:
        before = work.made(replace(work.design(), steps=tuple(steps[:at])))
    return handles(step.operation, before.garment, context_of(before), step.settings, step.wheres, step.names)


def _next(docket: Docket, here: str, state: StyleState, trial: Trial | None) -> Next:
    if trial is not None and trial.refused is None:
        words = "Keep this step" if not state.step else "Keep the change"
        fields = {"good": state.query(), "version": str(docket.design.version)}
        return Next(words, url_for("style.keep", docket_id=docket.id), "Leave it", here, fields=fields)
    if trial is not None or state.at is not None:
        return Next("Back to the recipe", here)
    return Next("Add allowances, lay it out on paper", url_for("paper.cut", docket_id=docket.id))


def _recipe(made: Made, steps: Sequence[Step]) -> list[Line]:
    wrong = {entry.step: entry.saying for entry in made.refused}
    return [Line(step, number, step_words(step), wrong.get(step.id)) for number, step in enumerate(steps, 1)]


def _links(state: StyleState, entry: Any, to: Any) -> dict[str, str]:
    """Where less, more and reset of a field lead."""
    code = entry.key[2:]
    rest = {other: text for other, text in state.settings.items() if other != code}
    found = {name: to(settings={**rest, code: text}) for name, text in (("less", entry.less), ("more", entry.more)) if text}
    return {**found, "reset": to(settings=rest)}


def _places(made: Made, state: StyleState, trial: Trial | None, to: Any) -> list[Chosen]:
    """The places of the step that is tried, each with others on its edge."""
    asked = state.operation
    if asked is None:
        return []
    found = []
    for code, words in asked.wheres.items():
        where = state.wheres.get(code)
        near: list[tuple[str, str]] = []
        lost: Saying | None = None
        if where is not None:
            try:
                place = find(made.garment, where)
                edge = place.piece.edge(place.spot.edge)
                near = [
                    (text, to(wheres={**state.wheres, code: other}))
                    for text, other in places_on(made.garment, place.piece, edge)
                ]
            except LostPlaceError as error:
                lost = error.saying
        elif asked.code:
            near = [(text, to(wheres={**state.wheres, code: other})) for text, other in _edges_of(made, code, asked)]
        found.append(Chosen(code, words, place_words(where) if where is not None else "not named yet", tuple(near), lost))
    return found


def _edges_of(made: Made, code: str, asked: Operation) -> list[tuple[str, Where]]:
    """Every edge of the garment, for a place that is not named yet."""
    return [
        (f"{plain(piece.name)} {plain(edge.name)}", where_at(made.garment, Pointed(piece.name, edge.name, edge.length / 2)))
        for piece in made.garment.shell
        for edge in piece.edges
    ]


def _offered(made: Made, at: Pointed, here: str) -> list[Shown]:
    """What can be done at a place, each with a small picture of what it would do to these pieces."""
    context, found = context_of(made), []
    for offer in _offers(made, at):
        asked = offer.operation
        settings = {
            code: value if isinstance(value, str) else written(asked.option(code), value, display())
            for code, value in offer.settings.items()
        }
        href = f"{here}?{StyleState(at, asked.code, settings=settings, wheres=offer.wheres).query()}"
        try:
            done = run(asked, made.garment, context, offer.settings, offer.wheres)
        except CannotStyle as cannot:
            found.append(Shown(offer, href, wrong=cannot.saying))
            continue
        picture = change_svg(made.garment.pieces, done.garment.pieces)
        found.append(Shown(offer, href, *((Markup(picture[0]), picture[1]) if picture else ())))
    return sorted(found, key=lambda shown: (shown.wrong is not None, PHASES.index(shown.offer.operation.phase)))


def _at_words(made: Made, at: Pointed | None) -> str:
    if at is None:
        return ""
    if at.inside:
        kind = pointed_inside(made.garment.piece(at.piece), at.inside)
        return f"{plain(at.piece)}, {plain(at.inside)}{' level' if kind == 'level' else ''}"
    edge = made.garment.piece(at.piece).edge(at.edge)
    return f"{plain(at.piece)}, {plain(at.dart)}" if at.dart else f"{plain(at.piece)}, {ROLES[edge.role].words}"


# ---- writing ----


def _changing(docket_id: int, words: str, change: Any) -> Any:
    """Change the recipe of a docket's design; where others follow it, of all of them or of this one alone."""
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        if request.form.get("version") not in (None, str(docket.design.version)):
            return redirect(url_for("style.station", docket_id=docket_id, meanwhile=1), 303)
        if request.form.get("scope") == "one" and docket.design.own:
            docket.stays = as_it_is(docket.design)
        row = own_design(session, docket)
        steps = change(row, steps_of(row))
        if steps is None:
            abort(404)
        put_steps(row, steps)
        tell(session, f"{docket.name}: {words}", docket)
    return redirect(url_for("style.station", docket_id=docket_id), 303)


@pages.post("/dockets/<int:docket_id>/style/keep")
def keep(docket_id: int) -> Any:
    """Keep the step that is tried, at the end of the recipe or in place of what it was."""
    work = load(docket_id)
    state = read_style(dict(parse_qsl(request.form.get("good", ""), keep_blank_values=True)))
    errors: dict[str, str] = {}
    asked = state.operation
    old = next((step for step in work.design().steps if step.id == state.step), None)
    values = state.values(display(), errors, old.settings if old is not None else None)
    if asked is None or errors:
        return redirect(f"{url_for('style.station', docket_id=docket_id)}?{state.query()}", 303)
    made = work.made()
    whole = _with_places(made, state)

    def change(row: Any, steps: tuple[Step, ...]) -> tuple[Step, ...]:
        old = next((step for step in steps if step.id == state.step), None)
        step = Step(
            old.id if old else new_id(row),
            asked.code,
            values,
            dict(whole.wheres),
            dict(state.names),
            maybe=old.maybe if old else False,
        )
        return with_step(steps, step)

    verb = "changed" if state.step else "added"
    return _changing(docket_id, f"{verb} {asked.title.lower()}.", change)


@pages.post("/dockets/<int:docket_id>/style/step/<step_id>")
def change_step(docket_id: int, step_id: str) -> Any:
    """Move a step up or down, leave it out or do it again, take it away."""
    what = request.form.get("what", "")
    words = {"up": "moved up", "down": "moved down", "off": "left out, or done again", "away": "taken away"}.get(what)
    if words is None:
        abort(400)

    def change(row: Any, steps: tuple[Step, ...]) -> tuple[Step, ...] | None:
        if not any(step.id == step_id for step in steps):
            return None
        if what in ("up", "down"):
            return moved(steps, step_id, -1 if what == "up" else 1)
        return switched(steps, step_id) if what == "off" else without(steps, step_id)

    return _changing(docket_id, f"a step of its recipe was {words}.", change)
