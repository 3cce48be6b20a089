"""What a production takes: every cloth and every notion over all garments that are not finished, garment by garment."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, render_template, request, url_for

from widehem.core.marking.materials import WIDTHS, Needs, in_order, together
from widehem.core.units import CM_PER_INCH
from widehem.jobs.materials import MATERIALS, dockets_in, known, needs_key
from widehem.store.making import works_of
from widehem.store.models import Production
from widehem.web.at_work import ask
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, current_works
from widehem.web.selvedge import Selvedge
from widehem.web.show import display

pages = Blueprint("materials", __name__)


@pages.get("/productions/<int:production_id>/materials")
def production(production_id: int) -> Any:
    """The materials of a production, or of one costume in it."""
    show = display()
    with current_store().read() as session:
        found = session.get(Production, production_id)
        if found is None:
            abort(404)
        works = works_of(session, dockets_in(session, production_id))
    costumes = sorted({(w.docket.wearer.name, w.docket.costume) for w in works if w.docket.costume})
    wanted = request.args.get("costume", "")
    mine = [w for w in works if not wanted or f"{w.docket.wearer.name}, {w.docket.costume}" == wanted]
    keys = {work.docket.id: needs_key(work, show) for work in mine}
    there = known(current_works().ledger, list(keys.values()))
    if len(there) < len(set(keys.values())):
        wish = {"production": production_id, "unit": show.unit, "fraction": show.fraction}
        job = ask(MATERIALS, wish, f"Working out what {found.name} takes", f"{production_id} {show.unit}")
        if not job.unfinished:
            there = known(current_works().ledger, list(keys.values()))
    rows = [(work.docket, there.get(keys[work.docket.id])) for work in mine if keys[work.docket.id] in there]
    cannot = [docket for docket, needs in rows if needs is None]
    needs = together(row for _, row in rows if row is not None)
    rest = len(mine) - len(rows)
    slots = [
        Slot("Garments", "count", str(len(rows)), f"of {len(mine)}", "not finished yet" if not rest else "being worked out"),
        Slot("Cloths", "count", str(len(needs.materials)), "", "of different kinds"),
    ]
    return render_template(
        "materials.html", production=found, rows=rows, cannot=cannot, rest=rest, materials=[_material(row, show) for row in in_order(needs.materials)],
        notions=sorted(needs.notions), widths=[show.full(width, 0) for width in WIDTHS], garments=[_garment(d, n, show) for d, n in rows if n],
        costumes=[f"{wearer}, {costume}" for wearer, costume in costumes], wanted=wanted, selvedge=Selvedge(found), slots=slots, tally="",
        next=Next("Back to the production", url_for("people.production", production_id=production_id)),
    )  # fmt: skip


SQUARE_YARD = 8361.27  # cm²; in inches an area is told in yards, with a fraction as every figure there


def _area(cm2: float, show: Any) -> str:
    return f"{cm2 / 10_000:.2f} m²" if show.unit == "cm" else f"{show.length(cm2 / SQUARE_YARD * CM_PER_INCH)} sq yd"


def _material(row: Any, show: Any) -> dict[str, Any]:
    return {
        "name": row.name, "pieces": row.pieces, "area": _area(row.area, show), "lengths": [show.length(row.about(width), 0) for width in WIDTHS],
    }  # fmt: skip


def _garment(docket: Any, needs: Needs, show: Any) -> dict[str, Any]:
    return {"docket": docket, "materials": [_material(row, show) for row in needs.materials], "notions": needs.notions}
