"""Allowances of a garment: by plan for each use, and for single edges that are pointed at; corners, notches, and how it is drawn."""

from __future__ import annotations

import copy
from collections.abc import Callable, Mapping
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for
from markupsafe import Markup
from sqlalchemy.orm import Session

from widehem.core.fitting.toile import takes_room
from widehem.core.marking.finishes import finishes
from widehem.core.marking.house import amounts_for, own_plans, values_for
from widehem.core.marking.plans import KINDS, PLANS, PlanError, kind_of, plan_named
from widehem.core.marking.wanted import CLOTH, LAYER_USE, USES
from widehem.core.output.svg_edges import edges_svg
from widehem.core.pattern.garment import EdgeRef
from widehem.core.pattern.roles import edge_of
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Display, LengthError, parse_length, with_unit
from widehem.store.dockets import find_docket, keep_marking
from widehem.store.house import house_values
from widehem.store.journal import tell
from widehem.store.models import Docket
from widehem.web.cutting import Cut, cut_of
from widehem.web.drawn_by import load
from widehem.web.hem import Next
from widehem.web.here import current_store
from widehem.web.paper import around
from widehem.web.show import display
from widehem.web.stood import moved
from widehem.web.writing import writing

pages = Blueprint("edges", __name__)
FARTHEST = 15.0  # cm of an allowance
CORNERS = {
    "": "as it is usual", "straight": "carried straight on", "square": "squared off to this edge", "other": "squared off to the next one",
}  # fmt: skip


@pages.get("/dockets/<int:docket_id>/cut/edges")
def edges(docket_id: int) -> Any:
    """Every edge with its allowance; the plans."""
    return _page(docket_id, {}, {})


def _page(docket_id: int, errors: Mapping[str, str], typed: Mapping[str, str]) -> Any:
    try:
        found = cut_of(load(docket_id))
    except (OptionError, CannotDraft):
        return redirect(url_for("board.draft", docket_id=docket_id), 303)
    docket, show = found.docket, display()
    at = _pointed(found, request.values.get("piece", ""), request.values.get("edge", ""))
    use = request.values.get("use", CLOTH)
    use = use if use in USES else CLOTH
    own = docket.marking.get("edges", {})
    drawing, frame = edges_svg(
        found.pattern,
        lambda piece, edge: url_for(".edges", docket_id=docket_id, piece=piece, edge=edge),
        show,
        at or ("", ""),
        own,
    )
    plan = found.wanted.plan_of(use)
    with current_store().read() as session:
        mine = own_plans(house_values(session))
    code, amounts = _kept_plan(docket, use)
    used = {
        kind_of(edge)
        for piece in found.made.garment.pieces
        if _use(piece.layer) == use
        for edge in piece.edges
        if edge.kind != "fold"
    } | {"let_out"}
    shown = {kind: _shown(show, plan.amounts[kind]) for kind in KINDS if kind in used}
    uses = [key for key in USES if key == CLOTH or any(_use(piece.layer) == key for piece in found.made.garment.pieces)]
    return render_template(
        "cut_edges.html", docket=docket, pattern=found.pattern, drawing=Markup(drawing), frame=frame, view="edges", at=_at(found, at),
        errors=errors, typed=typed, use=use, uses={key: USES[key] for key in uses}, plan=plan, code=code, plans={**PLANS, **{c: plan_named(c) for c in mine}},
        kinds=KINDS, amounts={**shown, **{k: v for k, v in typed.items() if k in shown}}, corners=CORNERS,
        of_house=set(amounts_for(plan.code, docket.house)) - set(amounts), own=len(own), marking=docket.marking, roomy=takes_room(found.made.garment),
        next=Next("To the sheets", url_for("paper.cut", docket_id=docket_id), "Back to the block", url_for("board.draft", docket_id=docket_id)),
        **around(found),
    )  # fmt: skip


def _use(layer: str) -> str:
    return LAYER_USE.get(layer, CLOTH)


def _shown(show: Display, cm: float) -> str:
    """An amount as the field has it: in inches as finely as the edge and the making card say it."""
    return show.constant(cm) if show.unit == "in" else show.length(cm, 2 if round(cm * 100) % 10 else 1)


def _kept_plan(docket: Docket, use: str) -> tuple[str, dict[str, str]]:
    """The code of the plan that was chosen for a use, '' where it follows the cloth, and the amounts changed on this docket."""
    if use == CLOTH:
        return docket.plan, docket.amounts
    entry = docket.marking.get("plans", {}).get(use, {})
    return entry.get("plan", ""), entry.get("amounts", {})


def _pointed(found: Cut, piece: str, edge: str) -> tuple[str, str] | None:
    ref = EdgeRef(piece, edge)
    return (piece, edge) if found.made.garment.has(ref) and found.made.garment.edge(ref).kind != "fold" else None


def _at(found: Cut, at: tuple[str, str] | None) -> dict[str, Any] | None:
    """What is pointed at, in words and figures."""
    if at is None:
        return None
    garment, show = found.made.garment, display()
    piece, edge = garment.piece(at[0]), garment.edge(EdgeRef(*at))
    name = f"{piece.name}.{edge.name}"
    amount = found.wanted.amounts(piece)[edge.name]
    corners = finishes(garment, found.wanted.corners)[piece.name]
    before, _ = piece.beside(edge.name)
    kept = found.docket.marking.get("corners", {})
    notches = [
        {"number": number, "at": show.full(notch["share"] * edge.length), "count": notch.get("count", 1)}
        for number, notch in enumerate(found.docket.marking.get("notches", []))
        if (notch["piece"], notch["edge"]) == at
    ]
    return {
        "piece": piece.name, "edge": edge.name, "title": edge_of(piece.title.lower(), edge.name), "long": show.full(edge.length),
        "amount": _shown(show, amount), "own": name in found.wanted.edges, "plan": KINDS[kind_of(edge)].lower(),
        "partners": [f"{r.piece}.{r.edge}" for r in partners(found, at)], "end": _of_corner(kept.get(name, ""), ending=True),
        "start": _of_corner(kept.get(f"{piece.name}.{before.name}", ""), ending=False), "notches": notches, "usual": corners,
    }  # fmt: skip


def _of_corner(finish: str, *, ending: bool) -> str:
    """A finish as it is chosen for one edge: 'square' to this edge, or to the 'other' one."""
    if finish in ("", "straight"):
        return finish
    return "square" if (finish == "square_before") == ending else "other"


def _as_finish(chosen: str, *, ending: bool) -> str:
    if chosen in ("", "straight"):
        return chosen
    return "square_before" if (chosen == "square") == ending else "square_after"


def partners(found: Cut, at: tuple[str, str]) -> list[EdgeRef]:
    """What an edge is sewn to."""
    rows = (entry.ref for _, _, chain in found.made.garment.seams_at(EdgeRef(*at)) for entry in chain)
    return [ref for ref in dict.fromkeys(rows) if ref != EdgeRef(*at)]


@pages.post("/dockets/<int:docket_id>/cut/plan")
def keep_plan(docket_id: int) -> Any:
    """Keep the plan of a use with its amounts."""
    form, show = request.form, display()
    use, code = form.get("use", CLOTH), form.get("plan", "")
    if use not in USES or (use == CLOTH and not code):
        abort(400)
    docket = load(docket_id).docket
    try:
        plan = plan_named(code) if code else None
    except PlanError:
        abort(400)
    stood_code, stood = _kept_plan(docket, use)
    amounts: dict[str, str] = {}
    errors: dict[str, str] = {}
    before = cut_of(load(docket_id)).wanted.plan_of(use)
    for kind in KINDS:
        text = form.get(f"a.{kind}", "").strip()
        if not text or plan is None or code != stood_code:
            continue
        if text == _shown(show, before.amounts[kind]):
            if kind in stood:
                amounts[kind] = stood[kind]
            continue
        try:
            plan.with_amounts({kind: parse_length(text, show.unit).cm}, show)
            amounts[kind] = with_unit(text, show.unit)
        except LengthError as error:
            errors[kind] = f"{KINDS[kind]}: {error}"
        except PlanError as error:
            errors[kind] = str(error)
    if errors:
        return _page(docket_id, errors, {kind: form.get(f"a.{kind}", "") for kind in errors}), 422
    with writing() as session:
        stored = find_docket(session, docket_id)
        if stored is None:
            abort(404)
        if moved(stored.plan, stored.amounts, stored.marking):
            typed = {kind: form.get(f"a.{kind}", "") for kind in KINDS if form.get(f"a.{kind}")}
            words = "Somebody kept other allowances meanwhile; they are drawn here. Yours stand in the fields: keep them again to put them in their place."
            return _page(docket_id, {"whole": words}, typed), 409
        tell(session, f"Kept the allowances of {stored.name}.", stored)
        _of_today(session, stored, code)
        _set_plan(stored, use, code, amounts)
    return redirect(url_for(".edges", docket_id=docket_id, use=use if use != CLOTH else None), 303)


def _of_today(session: Session, docket: Docket, code: str) -> None:
    """A plan the house has of its own is taken as it is today, where the garment was opened before there was one."""
    if code and not amounts_for(code, docket.house) and code not in PLANS:
        today = values_for(load(docket.id).method, house_values(session))
        docket.house = {**docket.house, **{key: text for key, text in today.items() if key.startswith(f"a.{code}.")}}


def _set_plan(docket: Docket, use: str, code: str, amounts: dict[str, str]) -> None:
    if use == CLOTH:
        docket.plan, docket.amounts = code, amounts
        keep_marking(docket, docket.marking)
        return
    marking = copy.deepcopy(docket.marking)
    plans = marking.setdefault("plans", {})
    if code:
        plans[use] = {"plan": code, "amounts": amounts}
    else:
        plans.pop(use, None)
    keep_marking(docket, {name: value for name, value in marking.items() if value})


@pages.post("/dockets/<int:docket_id>/cut/edge")
def keep_edge(docket_id: int) -> Any:
    """Keep the allowance, the corners of one edge, and the notches set on it by hand."""
    form, show = request.form, display()
    found = cut_of(load(docket_id))
    at = _pointed(found, form.get("piece", ""), form.get("edge", ""))
    if at is None:
        abort(404)
    edge = found.made.garment.edge(EdgeRef(*at))
    errors: dict[str, str] = {}
    text, notch = form.get("amount", "").strip(), form.get("notch", "").strip()
    shown = _at(found, at)
    assert shown is not None
    same = text == shown["amount"]
    if text and not same:
        errors |= _wrong("amount", text, "This edge", FARTHEST)
    if notch:
        errors |= _wrong("notch", notch, "The notch", edge.length)
    if errors:
        return _page(docket_id, errors, dict(form)), 422

    def change(marking: dict[str, Any]) -> None:
        edges = marking.setdefault("edges", {})
        names = ["{}.{}".format(*at), *(f"{ref.piece}.{ref.edge}" for ref in partners(found, at) if form.get("both"))]
        for name in names:
            if not text or form.get("usual"):
                edges.pop(name, None)
            elif not same:
                edges[name] = with_unit(text, show.unit)
        before, _ = found.made.garment.piece(at[0]).beside(at[1])
        corners = marking.setdefault("corners", {})
        for name, field, ending in (("{}.{}".format(*at), "end", True), (f"{at[0]}.{before.name}", "start", False)):
            finish = _as_finish(form.get(field, ""), ending=ending)
            if finish:
                corners[name] = finish
            else:
                corners.pop(name, None)
        if notch:
            along = parse_length(notch, show.unit).cm
            count = 2 if form.get("double") else 1
            marking.setdefault("notches", []).append(
                {"piece": at[0], "edge": at[1], "share": along / edge.length, "count": count}
            )

    return _changed(docket_id, f"Kept the allowance of the {shown['title']}.", change, *at)


def _wrong(field: str, text: str, what: str, most: float) -> dict[str, str]:
    show = display()
    try:
        cm = parse_length(text, show.unit).cm
    except LengthError as error:
        return {field: f"{what}: {error}"}
    if not 0 <= cm <= most:
        return {field: f"{what}: {show.length(cm)} is outside 0 to {show.full(most)}: write a figure between them."}
    return {}


@pages.post("/dockets/<int:docket_id>/cut/notch")
def take_notch(docket_id: int) -> Any:
    """Take a notch that was set by hand away again."""
    number = request.form.get("number", type=int)

    def change(marking: dict[str, Any]) -> None:
        notches = marking.get("notches", [])
        if number is not None and 0 <= number < len(notches):
            notches.pop(number)

    form = request.form
    return _changed(docket_id, "Took a notch away.", change, form.get("piece", ""), form.get("edge", ""))


@pages.post("/dockets/<int:docket_id>/cut/drawn")
def keep_drawn(docket_id: int) -> Any:
    """Keep how the pieces are drawn: whole or on the fold, nap, which school of drill holes; or take all own figures of edges back."""
    form = request.form

    def change(marking: dict[str, Any]) -> None:
        if form.get("plain"):
            for name in ("edges", "corners", "notches"):
                marking.pop(name, None)
            return
        marking["whole"], marking["nap"] = bool(form.get("whole")), bool(form.get("nap"))
        marking["room"] = bool(form.get("room"))
        marking["drill"] = form.get("drill", "") if form.get("drill") in ("", "inside", "lowered") else ""

    words = "Took the own figures of edges back." if form.get("plain") else "Kept how the pieces are drawn."
    return _changed(docket_id, words, change)


def _changed(docket_id: int, words: str, change: Callable[[dict[str, Any]], None], piece: str = "", edge: str = "") -> Any:
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        tell(session, words, docket)
        marking = copy.deepcopy(docket.marking)
        change(marking)
        keep_marking(docket, {name: value for name, value in marking.items() if value})
    return redirect(url_for(".edges", docket_id=docket_id, piece=piece or None, edge=edge or None), 303)
