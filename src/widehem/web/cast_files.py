"""The patterns of a whole cast to take away."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, redirect, request, url_for

from widehem.core.output.sheets import PAPERS
from widehem.jobs.cast_files import CAST, WRITTEN
from widehem.store.models import Production
from widehem.web.at_work import ask
from widehem.web.here import current_store
from widehem.web.show import display

pages = Blueprint("cast_files", __name__)


@pages.post("/productions/<int:production_id>/files")
def make(production_id: int) -> Any:
    """Write a file for every garment of a production into a ZIP."""
    kind, paper = request.form.get("kind", "pdf"), request.form.get("paper", "")
    if kind not in WRITTEN or paper not in ("", *PAPERS):
        abort(400)
    with current_store().read() as session:
        production = session.get(Production, production_id)
        if production is None:
            abort(404)
        name = production.name
    show = display()
    wish = {"production": production_id, "writer": kind, "paper": paper, "unit": show.unit, "fraction": show.fraction}
    job = ask(CAST, wish, f"Writing every pattern of {name}", f"{production_id} {kind} {paper} {show.unit}")
    return redirect(
        url_for("at_work.page", name=job.id, back=url_for("materials.production", production_id=production_id)), 303
    )
