"""The truing station: walking a seam with one piece sliding along the other, and armholes laid over each other."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, redirect, render_template, request, url_for
from fontTools.misc.transform import Transform
from markupsafe import Markup

from widehem.core.geometry.paths import Path, svg_d
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.walk import ARMHOLES, Walk, armholes_over_each_other, walk
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.set_in import set_in
from widehem.core.values import replace
from widehem.store.dockets import find_docket
from widehem.store.making import Work, made_now
from widehem.web.drawn_by import load
from widehem.web.hem import Next, slots_of, tally
from widehem.web.here import current_store
from widehem.web.numbers import number_of
from widehem.web.selvedge import selvedge

pages = Blueprint("walk", __name__)
STEPS = 40  # of the scrubber
EDGE = 3.0


@pages.get("/dockets/<int:docket_id>/walk")
def seam(docket_id: int) -> Any:
    """One seam of a garment, walked as far as the scrubber says."""
    work = load(docket_id)
    docket = work.docket
    try:
        made = work.made()
    except (OptionError, CannotDraft):
        return redirect(url_for("board.draft", docket_id=docket_id), 303)
    garment = _with_bodice(work, made.garment)
    choices = {seam.name: seam.title for seam in garment.seams if len(seam.first) == len(seam.second) == 1 and not seam.twin}
    if garment.armholes is not None:
        choices[ARMHOLES] = "Armholes over each other"
    wanted = request.args.get("seam", "")
    wanted = wanted if wanted in choices else next(iter(choices))
    step = min(max(request.args.get("at", 0, type=number_of), 0), STEPS)
    over = armholes_over_each_other(garment) if wanted == ARMHOLES else None
    walked = over or walk(garment, next(entry for entry in garment.seams if entry.name == wanted), step / STEPS)
    drawing, box = _drawing(walked)
    return render_template(
        "walk.html", docket=docket, choices=choices, wanted=wanted, step=step, steps=STEPS, walked=walked,
            drawing=Markup(drawing), box=box,
        over=over is not None, tolerance=made.draft.limits.seam, selvedge=selvedge(docket.wearer, docket, work.chart, "draft", "walking",
            work.changed),
        slots=slots_of(made.checks, lambda check: url_for("board.draft", docket_id=docket_id, slip="checks", lit=check.name)),
        tally=tally(made.checks), next=Next("Back to the draft", url_for("board.draft", docket_id=docket_id)),
    )  # fmt: skip


def _with_bodice(work: Work, sleeve: Garment) -> Garment:
    """A sleeve with the bodice it is for, so that the cap can be walked round the armhole; anything else as it is."""
    if work.bodice is None:
        return sleeve
    with current_store().read() as session:
        docket = find_docket(session, work.bodice.id)
        bodice = made_now(session, docket) if docket else None
    whole = set_in(bodice.garment, sleeve) if bodice else None
    return replace(whole, seams=(*whole.seams, *sleeve.seams)) if whole else sleeve


def _drawing(walked: Walk) -> tuple[str, str]:
    """Both pieces as they lie, the seam strong, what meets marked; and the view box, cm."""
    rows, points = [], []
    for piece, edge, by, look in (
        (walked.first, walked.edges[0], Transform(), "l-finished"),
        (walked.second, walked.edges[1], walked.onto, "l-other"),
    ):
        rows.append(f'<path class="{look}" d="{svg_d([path.moved(by) for path in piece.ring], closed=True)}"/>')
        rows.append(f'<path class="{look} strong" d="{svg_d([part.moved(by) for part in edge.parts])}"/>')
        rows += _marks(walked, piece, by, look)
        points += [point.moved(by) for point in piece.sketch]
    rows.append(f'<circle class="touch" cx="{walked.at.x:.2f}" cy="{walked.at.y:.2f}" r=".7"/>')
    left, top = min(p.x for p in points) - EDGE, min(p.y for p in points) - EDGE
    right, bottom = max(p.x for p in points) + EDGE, max(p.y for p in points) + EDGE
    return "".join(rows), f"{left:.2f} {top:.2f} {right - left:.2f} {bottom - top:.2f}"


def _marks(walked: Walk, piece: Piece, by: Transform, look: str) -> list[str]:
    """Short strokes across the edge where something should meet."""
    side = walked.sides[0 if piece is walked.first else 1]
    rows = []
    for meeting in walked.meetings[1:-1]:
        point, _, out = side.at(meeting.first if side is walked.sides[0] else meeting.second)
        rows.append(f'<path class="{look} strong" d="{svg_d([Path.through(point, point - out * 1.2).moved(by)])}"/>')
    return rows
