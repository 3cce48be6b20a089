"""A lay to take away: on paper, as a plot file in true size, as a picture."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, Response, abort, request

from widehem.core.making.lay.placed import Lay
from widehem.core.output.pdf_lay import lay_pdf
from widehem.core.output.plot_lay import lay_plot
from widehem.core.output.sheets import PAPERS
from widehem.core.output.svg_lay import lay_picture
from widehem.store.lays import laid
from widehem.store.models import LayRow, Production
from widehem.web.handed import handed
from widehem.web.here import current_store, today
from widehem.web.show import display

pages = Blueprint("lay_files", __name__)


def _taken(number: int) -> tuple[str, str, list[tuple[str, Lay]]]:
    """The title of a lay, whose it is, and each cloth of it. 404 where nothing lies on it."""
    with current_store().read() as session:
        row = session.get(LayRow, number)
        production = session.get(Production, row.production_id) if row is not None else None
    if row is None or production is None:
        abort(404)
    found = laid(row)
    lays = [(entry.name, entry.lay) for entry in found.stock]
    lays += [("New cloth" if lays else row.material.capitalize(), found.lay)] if found.lay.placed else []
    if not lays:
        abort(404)
    return row.name, production.name, lays


@pages.get("/lays/<int:lay_id>/lay.pdf")
def printed(lay_id: int) -> Response:
    """The lay on sheets, at one to five."""
    title, production, lays = _taken(lay_id)
    paper = PAPERS.get(request.args.get("paper", "a4"), PAPERS["a4"])
    data = lay_pdf(title, f"{production} · {today().isoformat()}", lays, paper, display())
    return handed(data, f"{title}.pdf", "application/pdf")


@pages.get("/lays/<int:lay_id>/lay.plt")
def plotted(lay_id: int) -> Any:
    """The lay as a plot file in true size."""
    title, _, lays = _taken(lay_id)
    return handed(lay_plot(title, lays[-1][1], PAPERS["roll90"]).data, f"{title}.plt", "application/vnd.hp-HPGL")


@pages.get("/lays/<int:lay_id>/lay.svg")
def pictured(lay_id: int) -> Any:
    """The lay as a picture."""
    title, _, lays = _taken(lay_id)
    return handed(lay_picture(lays[-1][1], display()), f"{title}.svg", "image/svg+xml")
