"""The cut station: allowances, sheets of paper, and everything that is handed over."""

from __future__ import annotations

import secrets
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for
from markupsafe import Markup

from widehem.core.design.make import Made
from widehem.core.marking.checks import check_pattern
from widehem.core.marking.house import amounts_for
from widehem.core.marking.made import Pattern, mark_up
from widehem.core.marking.plans import KINDS, PLANS, PlanError, kind_of, plan_named
from widehem.core.output.sheets import PAPERS, SCALES, PaperError, Sheets, paper_named, sheets_for
from widehem.core.output.svg_sheets import sheet_map_svg
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Display, LengthError, parse_length, with_unit
from widehem.jobs.ledger import DONE
from widehem.jobs.papers import FILE, file_name
from widehem.store.dockets import find_docket, keep_paper
from widehem.store.journal import tell
from widehem.store.models import Docket
from widehem.store.papers import heading, plan_of
from widehem.web import at_work
from widehem.web.at_work import ask, taken
from widehem.web.drawn_by import load
from widehem.web.hem import Next, Slot, slot_of, tally
from widehem.web.here import current_works, zone
from widehem.web.selvedge import selvedge
from widehem.web.show import display
from widehem.web.stood import moved
from widehem.web.writing import writing

pages = Blueprint("paper", __name__)


def _made(docket_id: int) -> tuple[Docket, Made]:
    work = load(docket_id)
    return work.docket, work.made()


def _asked(docket: Docket) -> tuple[str, str]:
    paper, scale = request.args.get("paper", docket.paper), request.args.get("scale", "1:1")
    return paper if paper in PAPERS else "a4", scale if scale in SCALES else "1:1"


@pages.get("/dockets/<int:docket_id>/cut")
def cut(docket_id: int) -> Any:
    """The pattern on its sheets, the cut list, the files."""
    return _render(docket_id, {}, {})


def _render(docket_id: int, errors: dict[str, str], typed: dict[str, str]) -> Any:
    try:
        docket, made = _made(docket_id)
    except (OptionError, CannotDraft):
        return redirect(url_for("board.draft", docket_id=docket_id), 303)
    plan, show = plan_of(docket), display()
    paper, scale = _asked(docket)
    pattern = mark_up(made, plan, heading(docket, show, zone()), show)
    sheets = sheets_for(pattern, PAPERS[paper], SCALES[scale])
    checks = check_pattern(made.garment, pattern, made.draft.limits)
    used = {kind_of(edge) for piece in made.garment.pieces for edge in piece.edges if edge.kind != "fold"}
    amounts = {
        kind: show.length(plan.amounts[kind], 2 if round(plan.amounts[kind] * 100) % 10 else 1)
        for kind in KINDS
        if kind in used
    }
    printed = len(sheets.printed)
    return render_template(
        "cut.html",
        docket=docket,
        draft=made,
        pattern=pattern,
        sheets=sheets,
        plan=plan,
        plans=PLANS,
        papers=PAPERS,
        scales=SCALES,
        paper=paper,
        scale=scale,
        kinds=KINDS,
        amounts={**amounts, **typed},
        errors=errors,
        of_house={kind for kind in amounts_for(plan.code, docket.house) if kind not in docket.amounts},
        map=Markup(sheet_map_svg(sheets)),
        printed=printed,
        selvedge=selvedge(docket.wearer, docket, made.chart, "cut", f"{len(pattern.pieces)} pieces"),
        slots=[*(slot_of(check) for check in checks), _paper_slot(sheets), _cloth_slot(pattern, show)],
        tally=tally(checks),
        next=Next(
            f"Download {printed} sheets of {PAPERS[paper].name}" if PAPERS[paper].width else "Download the one big page",
            url_for(".file", docket_id=docket_id, name="sheets.pdf", paper=paper, scale=scale),
            "Back to the block",
            url_for("board.draft", docket_id=docket_id),
            file=True,
        ),
    )


def _paper_slot(sheets: Sheets) -> Slot:
    if not sheets.paper.width:
        return Slot("Paper", "count", "1", "page", "for a plotter or a copy shop")
    left_out = len(sheets.left_out)
    words = f"{left_out} empty, left out" if left_out else "none is empty"
    return Slot("Sheets", "count", str(len(sheets.printed)), f"of {sheets.paper.name}", words)


def _cloth_slot(pattern: Pattern, show: Display) -> Slot:
    """How much room the pieces need side by side, before anyone begins."""
    bounds = [marked.bounds for marked in pattern.pieces]
    longest = max(b[3] - b[1] for b in bounds)
    widest = sum(b[2] - b[0] for b in bounds)
    return Slot("Paper needed", "count", show.length(longest), f"{show.unit} long", f"{show.full(widest)} wide, side by side")


@pages.post("/dockets/<int:docket_id>/cut")
def keep(docket_id: int) -> Any:
    """Keep the allowance plan, its amounts and the paper."""
    form = request.form
    docket = load(docket_id).docket
    plan_code, paper = form.get("plan", "cloth"), form.get("paper", docket.paper)
    try:
        plan, _ = plan_named(plan_code), paper_named(paper)
    except (PlanError, PaperError):
        abort(400)
    show = display()
    amounts: dict[str, str] = {}
    errors: dict[str, str] = {}
    before = plan_of(docket)
    for kind in KINDS:
        text = form.get(f"a.{kind}", "").strip()
        if not text or plan_code != docket.plan:
            continue
        stands = before.amounts[kind]
        if text in (show.length(stands), show.length(stands, 2)):
            if kind in docket.amounts:
                amounts[kind] = docket.amounts[kind]
            continue
        try:
            plan.with_amounts({kind: parse_length(text, show.unit).cm}, show)
            amounts[kind] = with_unit(text, show.unit)
        except LengthError as error:
            errors[kind] = f"{KINDS[kind]}: {error}"
        except PlanError as error:
            errors[kind] = str(error)
    if errors:
        return _render(docket_id, errors, {kind: form.get(f"a.{kind}", "") for kind in errors}), 422
    with writing() as session:
        stored = find_docket(session, docket_id)
        if stored is None:
            abort(404)
        clashes = moved(stored.plan, stored.amounts, stored.paper)
        if not clashes:
            tell(session, f"Kept allowances and paper of {stored.name}.", stored)
            keep_paper(stored, plan_code, amounts, paper)
    if clashes:
        typed = {kind: form.get(f"a.{kind}", "") for kind in KINDS if form.get(f"a.{kind}")}
        words = "Somebody kept other allowances meanwhile; they are drawn here. Yours stand in the fields: keep them again to put them in their place."
        return _render(docket_id, {next(iter(KINDS)): words}, typed), 409
    return redirect(url_for(".cut", docket_id=docket_id, scale=form.get("scale") or None), 303)


FILES = {"sheets.pdf": "pdf", "pattern.svg": "svg", "card.pdf": "card", "draft.json": "json"}  # by the end of their address


@pages.get("/dockets/<int:docket_id>/files/<name>")
def file(docket_id: int, name: str) -> Any:
    """A file to take, named after wearer and garment; what takes longer is waited for on a page of its own."""
    if name not in FILES:
        abort(404)
    docket = load(docket_id).docket
    paper, scale, show = *_asked(docket), display()
    wish = {
        "docket": docket_id, "writer": FILES[name], "paper": paper, "scale": scale, "unit": show.unit, "fraction": show.fraction,
    }  # fmt: skip
    job = ask(FILE, wish, f"Writing {file_name(docket, FILES[name], paper, scale)}", secrets.token_hex(8))
    job = current_works().wait(job, at_work.SHORT)
    if job.state == DONE:
        return taken(job)
    return redirect(
        url_for("at_work.page", name=job.id, back=url_for(".cut", docket_id=docket_id, paper=paper, scale=scale)), 303
    )
