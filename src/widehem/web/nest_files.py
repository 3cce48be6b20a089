"""Printing the sizes of a design: which of them, on what, how they are laid over each other."""

from __future__ import annotations

import secrets
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for

from widehem.core.grading.drift import drifts
from widehem.core.grading.tables import NOTHING
from widehem.core.marking.plans import PLANS
from widehem.core.output.sheets import PAPERS, SCALES
from widehem.core.shifting.spots import SpotError, targets
from widehem.jobs.ledger import DONE
from widehem.jobs.nest_files import ALL, APART, MIX, NEST, WRITTEN
from widehem.web import at_work
from widehem.web.at_work import ask, taken
from widehem.web.cutting import PRINTER, known_printers
from widehem.web.grading import ALIGN, mix_asked
from widehem.web.hem import Next, Slot
from widehem.web.here import current_works
from widehem.web.nests import graded
from widehem.web.numbers import is_number, number_of
from widehem.web.selvedge import Selvedge
from widehem.web.show import display, said

pages = Blueprint("nest_files", __name__)
KINDS = {
    "pdf": "Sheets to print, a layer for each size", "dxf": "Drawing in blocks, a layer for each size and kind of line",
    "svg": "Drawing, SVG in true millimetres", "plot": "Plot file of one size", "json": "Points and lengths of every size, JSON",
}  # fmt: skip


@pages.get("/designs/<int:design_id>/sizes/print")
def choose(design_id: int) -> Any:
    """What is to be printed."""
    found = graded(design_id)
    nest = found.nest
    mix = mix_asked(nest) if request.args.get("mix") == "yes" and nest.sizes else None
    which = MIX if mix is not None else request.args.get("size", "") if request.args.get("size", "") in nest.names else ALL
    choices = [
        (ALL, "All sizes over each other"),
        (APART, "Each size by itself, in one ZIP"),
        *((nest.names[n], f"Size {nest.names[n]}") for n in sorted(nest.sizes)),
    ]
    if mix is not None:
        choices.insert(0, (MIX, "The sizes as they are mixed"))
    slots = [Slot("Sizes", "count", str(len(nest.sizes)), f"of {len(nest.names)}", f"base {nest.names[nest.base]}")]
    return render_template(
        "nest_print.html", row=found.row, found=found, nest=nest, which=which, choices=choices, kinds=KINDS, papers=PAPERS, scales=SCALES, plans=PLANS,
        aligns=ALIGN, mix=mix, printers=known_printers(), chosen=request.cookies.get(PRINTER, ""), wearer=request.args.get("wearer", 0, type=number_of),
        selvedge=Selvedge(), slots=slots, tally="", cautions=[said(words) for words in (*nest.cautions, *drifts(nest))],
        next=Next("Write the file", "", "Back to the nest", url_for("grading.nest", design_id=design_id), form="nest-print"),
    )  # fmt: skip


@pages.get("/designs/<int:design_id>/sizes/file")
def file(design_id: int) -> Any:
    """The file, written by a process of its own; what takes longer is waited for on a page."""
    found, args, show = graded(design_id), request.args, display()
    nest = found.nest
    which, writer = args.get("which", ALL), args.get("writer", "pdf")
    known = {ALL, APART, MIX, *(nest.names[n] for n in nest.sizes)}
    if (
        which not in known
        or writer not in WRITTEN
        or args.get("paper", "a4") not in PAPERS
        or args.get("scale", "1:1") not in SCALES
        or args.get("plan", "cloth") not in PLANS
    ):
        abort(400)
    for name in ("at", "along"):
        try:
            if args.get(name):
                targets(NOTHING, args[name])
        except SpotError:
            abort(400)
    mix = mix_asked(nest) if which == MIX and nest.sizes else None
    printer = args.get("printer", "")
    wish = {
        "design": design_id, "which": which, "writer": writer, "paper": args.get("paper", "a4"), "scale": args.get("scale", "1:1"), "plan": args.get("plan", "cloth"),
        "printer": int(printer) if is_number(printer) else None, "unit": show.unit, "fraction": show.fraction, "at": args.get("at", "")[:120], "along": args.get("along", "")[:120],
        "wearer": args.get("wearer", 0, type=number_of) or None,
        "mix": {"school": mix.school, "stops": dict(mix.stops), "lengths": mix.lengths} if mix is not None else None,
    }  # fmt: skip
    job = ask(NEST, wish, f"Writing {found.row.name} by size", secrets.token_hex(8))
    job = current_works().wait(job, at_work.SHORT)
    if job.state == DONE:
        return taken(job)
    return redirect(url_for("at_work.page", name=job.id, back=url_for(".choose", design_id=design_id)), 303)
