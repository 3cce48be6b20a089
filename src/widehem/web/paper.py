"""The cut station: sheets of paper, what is cut, and everything that is handed over."""

from __future__ import annotations

import secrets
from typing import Any

from flask import Blueprint, abort, make_response, redirect, render_template, request, url_for
from markupsafe import Markup

from widehem.core.marking.checks import check_pattern
from widehem.core.marking.dummies import has_dummies
from widehem.core.marking.made import Pattern
from widehem.core.output.sheets import PAPERS, SCALES, Sheets
from widehem.core.output.svg_sheets import sheet_map_svg
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.jobs.ledger import DONE
from widehem.jobs.papers import FILE, file_name
from widehem.store.dockets import find_docket
from widehem.store.journal import tell
from widehem.web import at_work
from widehem.web.at_work import ask, taken
from widehem.web.cutting import PRINTER, Cut, asked, cut_of, known_printers
from widehem.web.drawn_by import load
from widehem.web.hem import Next, Slot, slot_of, tally
from widehem.web.here import current_works
from widehem.web.selvedge import selvedge
from widehem.web.show import display
from widehem.web.writing import YEAR, writing

pages = Blueprint("paper", __name__)


@pages.get("/dockets/<int:docket_id>/cut")
def cut(docket_id: int) -> Any:
    """The pattern on its sheets, and the files."""
    try:
        found = cut_of(load(docket_id))
    except (OptionError, CannotDraft):
        return redirect(url_for("board.draft", docket_id=docket_id), 303)
    docket, to = found.docket, asked(found.docket)
    sheets = found.sheets(to)
    printed = len(sheets.printed)
    paper = to.paper
    return render_template(
        "cut.html", docket=docket, pattern=found.pattern, sheets=sheets, papers=PAPERS, scales=SCALES, to=to, paper=paper.code,
        scale=to.scale, map=Markup(sheet_map_svg(sheets)), printed=printed, view="sheets", files=files_of(found), printers=known_printers(),
        next=Next(
            f"Download {printed} sheets of {paper.name}" if paper.height else f"Download {_length(sheets)}",
            url_for(".file", docket_id=docket_id, name="sheets.pdf", paper=paper.code, scale=to.scale),
            "Back to the block", url_for("board.draft", docket_id=docket_id), file=True,
        ),
        **around(found, sheets),
    )  # fmt: skip


@pages.post("/dockets/<int:docket_id>/cut/paper")
def keep(docket_id: int) -> Any:
    """Print this garment on this paper from now on, and on this printer in this browser."""
    form = request.form
    paper = form.get("paper", "")
    if paper not in PAPERS:
        abort(400)
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        if docket.paper != paper:
            tell(session, f"{docket.name} is printed on {display().words(PAPERS[paper].name)}.", docket)
            docket.paper = paper
    scale = form.get("scale") if form.get("scale") in SCALES and form.get("scale") != "1:1" else None
    answer = make_response(redirect(url_for(".cut", docket_id=docket_id, scale=scale), 303))
    printer = form.get("printer", "")
    answer.set_cookie(
        PRINTER, printer if printer.isdecimal() else "", max_age=YEAR, httponly=True, samesite="Lax", secure=request.is_secure
    )
    return answer


def around(found: Cut, sheets: Sheets | None = None) -> dict[str, Any]:
    """What stands round every view of the station."""
    checks = check_pattern(found.made.garment, found.pattern, found.made.draft.limits)
    slots = [slot_of(check) for check in checks]
    if sheets is not None:
        slots += [_paper_slot(sheets), _saved_slot(found.pattern, sheets)]
    pieces = len(found.pattern.pieces)
    return {
        "slots": slots,
        "tally": tally(checks),
        "selvedge": selvedge(found.docket.wearer, found.docket, found.made.chart, "cut", f"{pieces} pieces"),
    }


def _length(sheets: Sheets) -> str:
    if not sheets.paper.width:
        return "the one big page"
    return f"{display().length(sheets.layout.height * sheets.scale)} {display().unit} of the roll"


def _paper_slot(sheets: Sheets) -> Slot:
    if not sheets.paper.width:
        return Slot("Paper", "count", "1", "page", "for a plotter or a copy shop")
    if sheets.paper.roll:
        show = display()
        return Slot(
            "Paper",
            "count",
            show.length(sheets.layout.height * sheets.scale),
            show.unit,
            f"of the {show.words(sheets.paper.name).lower()}",
        )
    left_out = len(sheets.left_out)
    words = f"{left_out} empty, left out" if left_out else "none is empty"
    return Slot("Sheets", "count", str(len(sheets.printed)), f"of {sheets.paper.name}", words)


def _saved_slot(pattern: Pattern, sheets: Sheets) -> Slot:
    """How much room the pieces take on the paper as they are arranged."""
    show, layout = display(), sheets.layout
    turned = sum(1 for laid in layout.pieces if laid.turned)
    words = f"{turned} pieces turned to save paper" if turned else "no piece is turned"
    return Slot(
        "Arranged on", "count", show.length(layout.width * sheets.scale), f"by {show.full(layout.height * sheets.scale)}", words
    )


FILES = {
    "sheets.pdf": "pdf", "pattern.svg": "svg", "pattern.dxf": "dxf", "pattern.plt": "plot", "dummies.pdf": "dummies", "card.pdf": "card",
    "draft.json": "json",
}  # fmt: skip


def files_of(found: Cut) -> list[tuple[str, str, str]]:
    """What else can be handed over: the end of its address, its name, what it is."""
    small = has_dummies(found.made.garment)
    rows = [
        ("pattern.dxf", "Drawing in blocks", "DXF in mm, a block for each piece, for cutters and other programs"),
        ("pattern.plt", "Plot file", "HP-GL/2, a pen for each kind of line"),
        ("pattern.svg", "Drawing", "SVG in true millimetres"),
        ("card.pdf", "Method card", "PDF, the steps with these figures, to draft by hand"),
        ("draft.json", "Points and lengths", "JSON, with checks and steps"),
    ]
    return [
        *rows[:3],
        *([("dummies.pdf", "Paper dummies", "PDF, pockets, collars, lapels, to pin on")] if small else []),
        *rows[3:],
    ]


@pages.get("/dockets/<int:docket_id>/files/<name>")
def file(docket_id: int, name: str) -> Any:
    """A file to take, named after wearer and garment; what takes longer is waited for on a page of its own."""
    if name not in FILES:
        abort(404)
    docket = load(docket_id).docket
    to, show = asked(docket), display()
    wish = {
        "docket": docket_id, "writer": FILES[name], "paper": to.paper.code, "scale": to.scale, "unit": show.unit, "fraction": show.fraction,
        "printer": to.printer.id if to.printer else None,
    }  # fmt: skip
    job = ask(FILE, wish, f"Writing {file_name(docket, FILES[name], to.paper.code, to.scale)}", secrets.token_hex(8))
    job = current_works().wait(job, at_work.SHORT)
    if job.state == DONE:
        return taken(job)
    return redirect(url_for("at_work.page", name=job.id, back=to.cut(docket_id)), 303)


@pages.get("/dockets/<int:docket_id>/cut/list")
def listed(docket_id: int) -> Any:
    """What is cut from which cloth, how the seams are sewn, and what else is needed."""
    try:
        found = cut_of(load(docket_id))
    except (OptionError, CannotDraft):
        return redirect(url_for("board.draft", docket_id=docket_id), 303)
    rows: dict[str, list[Any]] = {}
    for row in found.pattern.cut_list:
        rows.setdefault(row.material, []).append(row)
    return render_template(
        "cut_list.html", docket=found.docket, pattern=found.pattern, rows=rows, view="list", to=asked(found.docket),
        next=Next("To the sheets", url_for(".cut", docket_id=docket_id), "Back to the block", url_for("board.draft", docket_id=docket_id)),
        **around(found),
    )  # fmt: skip
