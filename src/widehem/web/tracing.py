"""Tracing a picture: points set round each piece on a photo or a scan, with a mark of known length."""

from __future__ import annotations

import copy
import io
import json
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from PIL import Image
from sqlalchemy import select

from widehem.core.drafting.outlined import CODE
from widehem.core.drafting.outlined_data import checked, proposed
from widehem.core.drafting.outlined_edit import traced
from widehem.core.drafting.outlines import Outline, OutlineError, outline_as_data
from widehem.core.output.outlines_in import LARGEST_FILE
from widehem.core.output.photo import LARGE_SIDE, PhotoError, small_photo
from widehem.store.journal import tell
from widehem.store.models import DesignRow, Traced, now
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.outlines import begin_page, found_design, length_of
from widehem.web.selvedge import Selvedge
from widehem.web.show import display
from widehem.web.writing import writing

pages = Blueprint("tracing", __name__)
WITH_FILES = ("tracing.picture_in",)


@pages.post("/designs/trace")
def picture_in() -> Any:
    """A photo or a scan to trace: a design without pieces yet."""
    sent = request.files.get("picture")
    data = sent.read(LARGEST_FILE + 1) if sent is not None else b""
    if not data:
        return begin_page({"picture": "Choose a photo or a scan first."}, dict(request.form)), 422
    try:
        small = small_photo(data, LARGE_SIDE)
    except PhotoError as error:
        return begin_page({"picture": str(error)}, dict(request.form)), 422
    wide, high = _size_of(small)
    name = request.form.get("name", "").strip()[:120] or "Traced pattern"
    with writing() as session:
        empty = {"outlines": [], "pieces": [], "seams": [], "allowance": {"off": 0.0, "edges": {}}, "openings": []}
        row = DesignRow(name=name, method=CODE, rules=1, options={}, ease={}, steps=[], own=True, outlines=empty)
        session.add(row)
        session.flush()
        session.add(Traced(design_id=row.id, data=small, width=wide, height=high))
        tell(session, f"Began to trace {name}.")
        number = row.id
    return redirect(url_for(".trace", design_id=number), 303)


def _size_of(data: bytes) -> tuple[int, int]:
    wide, high = Image.open(io.BytesIO(data)).size
    return int(wide), int(high)


@pages.get("/designs/<int:design_id>/trace")
def trace(design_id: int) -> Any:
    """Set points round a piece on its picture."""
    return _trace(design_id, {}, "")


def _trace(design_id: int, errors: dict[str, str], typed: str) -> Any:
    with current_store().read() as session:
        row = found_design(session, design_id)
        picture = session.scalars(select(Traced).where(Traced.design_id == design_id)).first()
        if picture is None:
            abort(404)
        number, wide, high = picture.id, picture.width, picture.height
    titles = [entry["title"] for entry in (row.outlines or {}).get("pieces", [])]
    return render_template(
        "trace.html", row=row, picture=number, wide=wide, high=high, errors=errors, typed=typed, form=request.form, so_far=titles, selvedge=Selvedge(),
        slots=[Slot("Traced", "count", str(len(titles)), "pieces", "from this picture")], tally="",
        next=Next("Name their edges", url_for("outlines.station", design_id=design_id)),
    )  # fmt: skip


@pages.get("/designs/<int:design_id>/picture")
def picture(design_id: int) -> Response:
    """The picture that is traced."""
    with current_store().read() as session:
        found_design(session, design_id)
        found = session.scalars(select(Traced).where(Traced.design_id == design_id)).first()
        if found is None:
            abort(404)
        return Response(found.data, mimetype="image/jpeg", headers={"Cache-Control": "private, max-age=3600"})


@pages.post("/designs/<int:design_id>/trace")
def keep_trace(design_id: int) -> Any:
    """Keep a piece: its points in pixels, the two of the scale mark, and how far apart those are."""
    form, show = request.form, display()
    errors: dict[str, str] = {}
    title = " ".join(form.get("title", "").split())[:60] or "Piece"
    known = length_of(form.get("distance", ""), "Between the two marks", "distance", errors, show.unit, 1000.0)
    try:
        spots = [(float(x), float(y), bool(corner)) for x, y, corner in json.loads(form.get("points", "[]"))]
        scale = [(float(x), float(y)) for x, y in json.loads(form.get("scale", "[]"))]
    except (ValueError, TypeError, RecursionError):
        abort(400)
    apart = ((scale[0][0] - scale[1][0]) ** 2 + (scale[0][1] - scale[1][1]) ** 2) ** 0.5 if len(scale) == 2 else 0.0
    if not errors and (apart < 10 or known <= 0):
        errors["distance"] = (
            "Set the two ends of something whose length is known, and write it down: a ruler, a test square, the grain line."
        )
    if errors:
        return _trace(design_id, errors, form.get("points", "")), 422
    factor = known / apart

    def change(data: dict[str, Any]) -> dict[str, Any]:
        number = len(data["outlines"]) + 1
        outline: Outline = traced(title, [(x * factor, y * factor, corner) for x, y, corner in spots], number)
        piece = proposed([outline])["pieces"][0]
        taken = {entry["name"] for entry in data["pieces"]}
        name, n = piece["name"], 2
        while piece["name"] in taken:
            piece["name"], n = f"{name}_{n}", n + 1
        piece["title"] = title
        return {**data, "outlines": [*data["outlines"], outline_as_data(outline)], "pieces": [*data["pieces"], piece]}

    try:
        with writing() as session:
            row = found_design(session, design_id)
            row.outlines = checked(change(copy.deepcopy(row.outlines or {})))
            row.updated_at = now()
            tell(session, f"Traced {title}.")
    except OutlineError as error:
        return _trace(design_id, {"points": str(error)}, form.get("points", "")), 422
    return redirect(url_for(".trace", design_id=design_id), 303)
