"""Pieces that were drawn elsewhere: taken in from a file or traced from a picture, named edge by edge, sewn together."""

from __future__ import annotations

import base64
import copy
import secrets
from collections.abc import Callable
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for
from markupsafe import Markup
from sqlalchemy import select

from widehem.core.drafting.outlined import CODE
from widehem.core.drafting.outlined_data import KINDS, LAYERS, LEVELS, PARTS, checked, sizes_of
from widehem.core.drafting.outlined_edit import joined, names_in, pieces_of, proposed_seams, with_corner, with_row
from widehem.core.drafting.outlines import OutlineError
from widehem.core.output.outlines_in import LARGEST_FILE
from widehem.core.output.svg_outlines import outlines_svg
from widehem.core.pattern.roles import ROLES
from widehem.core.units import LengthError, parse_length, parse_signed
from widehem.jobs.ledger import DONE, FAILED
from widehem.jobs.outlines import OUTLINES
from widehem.store.journal import tell
from widehem.store.models import DesignRow, Traced, now
from widehem.store.recipes import find_design
from widehem.web import at_work
from widehem.web.at_work import ask
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, current_works
from widehem.web.numbers import number_of
from widehem.web.selvedge import Selvedge
from widehem.web.show import display
from widehem.web.writing import mark, writing

pages = Blueprint("outlines", __name__)
WITH_FILES = ("outlines.take_in",)
UNITS = {
    "": "as the file says",
    "mm": "1 is a millimetre",
    "cm": "1 is a centimetre",
    "in": "1 is an inch",
    "pt": "1 is a point",
}
PER_UNIT = {"mm": 0.1, "cm": 1.0, "in": 2.54, "pt": 2.54 / 72}
STANDS = {
    "pair": "a pair, mirrored",
    "fold": "once on the fold",
    "once": "once",
    "left": "once, for the left",
    "right": "once, for the right",
}
KIND_WORDS = {
    "seam": "sewn",
    "fold": "on the fold",
    "hem": "turned up",
    "opening": "opens",
    "faced": "faced",
    "slit": "left open",
}


@pages.get("/designs/outlines")
def begin() -> str:
    """Take a drawing in, or begin to trace a picture."""
    return begin_page({}, {})


def begin_page(errors: dict[str, str], typed: dict[str, str]) -> str:
    return render_template(
        "outlines_in.html", errors=errors, typed=typed, units=UNITS, megabytes=LARGEST_FILE // 1024 // 1024, selvedge=Selvedge(),
        slots=[Slot("Taken in", "count", "SVG, DXF", "", "or traced from a picture")], tally="",
        next=Next("Back to the designs", url_for("designs.index")),
    )  # fmt: skip


@pages.post("/designs/outlines")
def take_in() -> Any:
    """A drawing with outlines: what is in it becomes a design without a method."""
    form, sent, show = request.form, request.files.get("file"), display()
    data = sent.read(LARGEST_FILE + 1) if sent is not None else b""
    name = (sent.filename or "") if sent is not None else ""
    errors: dict[str, str] = {}
    if not data:
        errors["file"] = "Choose a drawing first: an SVG or a DXF."
    elif len(data) > LARGEST_FILE:
        errors["file"] = f"The file is larger than {LARGEST_FILE // 1024 // 1024} MB: leave out what is no pattern."
    elif not name.lower().endswith((".svg", ".dxf")):
        errors["file"] = f'"{name[:40]}" is neither an SVG nor a DXF: save the drawing as one of them.'
    allowance = (
        length_of(form.get("allowance", ""), "Allowance", "allowance", errors, show.unit) if form.get("allowance") else 0.0
    )
    if errors:
        return begin_page(errors, dict(form)), 422
    wish = {
        "data": base64.b64encode(data).decode(), "name": name[-120:], "called": (form.get("name", "").strip() or name.rpartition(".")[0])[:120] or "Outlines",
        "per_unit": PER_UNIT.get(form.get("unit", "")), "allowance": allowance, "by": mark(),
    }  # fmt: skip
    job = ask(OUTLINES, wish, f"Taking in {name[-60:]}", secrets.token_hex(8))
    job = current_works().wait(job, at_work.SHORT)
    if job.state == DONE:
        return redirect(url_for(".station", design_id=job.answer["design"]), 303)
    if job.state == FAILED:
        return begin_page({"file": job.trouble}, dict(form)), 422
    return redirect(url_for("at_work.page", name=job.id, back=url_for(".begin")), 303)


def length_of(text: str, what: str, field: str, errors: dict[str, str], unit: Any, most: float = 15.0) -> float:
    show = display()
    try:
        cm = parse_length(text, unit).cm
    except LengthError as error:
        errors[field] = f"{what}: {error}"
        return 0.0
    if not 0 <= cm <= most:
        errors[field] = f"{what}: {show.length(cm)} is outside 0 to {show.full(most)}."
    return cm


def found_design(session: Any, design_id: int) -> DesignRow:
    row = find_design(session, design_id)
    if row is None or row.method != CODE:
        abort(404)
    return row


@pages.get("/designs/<int:design_id>/outlines")
def station(design_id: int) -> Any:
    """The pieces with their edges; one of them opened."""
    return _page(design_id, {})


def _page(design_id: int, errors: dict[str, str]) -> Any:
    with current_store().read() as session:
        row = found_design(session, design_id)
        data = row.outlines or {"outlines": [], "pieces": [], "seams": [], "allowance": {}, "openings": []}
        picture = session.scalars(select(Traced.id).where(Traced.design_id == design_id)).first()
    sizes = sizes_of(data)
    size = request.args.get("size", sizes[0])
    size = size if size in sizes else sizes[0]
    pieces, wrong = pieces_of(data, size)
    opened = next((entry for entry in data["pieces"] if entry["name"] == request.values.get("piece")), None)
    drawing, frame = outlines_svg(
        pieces,
        lambda name: url_for(".station", design_id=design_id, piece=name, size=size or None),
        opened["name"] if opened else "",
    )
    edges = [f"{name}.{edge.name}" for name, piece in pieces.items() for edge in piece.edges]
    show = display()
    used = [entry for entry in data["pieces"] if entry.get("use", True)]
    lengths = {}
    if opened and opened["name"] in pieces:
        lengths = {edge.name: show.full(edge.length) for edge in pieces[opened["name"]].edges}
    inner: list[Any] = []
    if opened:
        base = next(entry for entry in data["outlines"] if entry["id"] == next(iter(opened["outlines"].values())))
        inner = list(range(len(base.get("inner", []))))
    sewn = {seam["first"]: seam["second"] for seam in data["seams"]} | {seam["second"]: seam["first"] for seam in data["seams"]}
    return render_template(
        "outlines.html", row=row, data=data, drawing=Markup(drawing), frame=frame, opened=opened, names=names_in(opened) if opened else [],
        lengths=lengths, errors=errors, wrong=wrong, sizes=sizes, size=size, roles={code: role.words for code, role in ROLES.items()}, kinds={k: KIND_WORDS[k] for k in KINDS},
        layers=LAYERS, parts=PARTS, stands=STANDS, levels=LEVELS, inner=inner, edges=edges, sewn=sewn, picture=picture,
        off=show.setting(float(data.get("allowance", {}).get("off", 0.0))), kept=bool(data.get("allowance", {}).get("kept")),
        own={name: show.setting(cm) for name, cm in data.get("allowance", {}).get("edges", {}).items()},
        selvedge=Selvedge(), tally="", slots=[
            Slot("Pieces", "count", str(len(used)), f"of {len(data['pieces'])}", "used"),
            Slot("Seams", "count", str(len(data["seams"])), "", "sewn together"),
            *([Slot("Cannot be made", "not", str(len(wrong)), "pieces", "each says why")] if wrong else []),
        ], next=Next("To the design", url_for("designs.one", design_id=design_id)),
    )  # fmt: skip


def _change(design_id: int, words: str, change: Callable[[dict[str, Any]], dict[str, Any]], piece: str = "") -> Any:
    """Change what is said of a pattern. What cannot be is told, and nothing is kept."""
    try:
        with writing() as session:
            row = found_design(session, design_id)
            data = copy.deepcopy(row.outlines or {})
            row.outlines = checked(change(data))
            row.updated_at = now()
            tell(session, words)
    except OutlineError as error:
        return _page(design_id, {"whole": str(error)}), 422
    return redirect(url_for(".station", design_id=design_id, piece=piece or None), 303)


@pages.post("/designs/<int:design_id>/outlines/piece")
def keep_piece(design_id: int) -> Any:
    """Keep what is said of a piece: what it is, how it is cut, what its edges are."""
    form, name = request.form, request.form.get("piece", "")

    def change(data: dict[str, Any]) -> dict[str, Any]:
        found = next((entry for entry in data["pieces"] if entry["name"] == name), None)
        if found is None:
            abort(404)
        row = dict(found)
        row |= {field: form.get(field, row[field]) for field in ("title", "part", "stands", "layer")}
        row["use"] = bool(form.get("use"))
        row["edges"] = [
            {
                "role": form.get(f"role.{n}", edge["role"]),
                "kind": form.get(f"kind.{n}", edge.get("kind", "seam")),
                "name": form.get(f"name.{n}", "").strip(),
            }
            for n, edge in enumerate(row["edges"])
        ]
        row["levels"] = {key.partition(".")[2]: level for key, level in form.items() if key.startswith("level.") and level}
        old, new = names_in(found), names_in(row)
        renamed = {f"{name}.{a}": f"{name}.{b}" for a, b in zip(old, new, strict=True)}
        seams = [
            {**seam, **{side: renamed.get(seam[side], seam[side]) for side in ("first", "second")}} for seam in data["seams"]
        ]
        edges = {renamed.get(key, key): cm for key, cm in data["allowance"].get("edges", {}).items()}
        return {**with_row(data, row), "seams": seams, "allowance": {**data["allowance"], "edges": edges}}

    return _change(design_id, f"Named the edges of {form.get('title', name)[:60]}.", change, name)


@pages.post("/designs/<int:design_id>/outlines/corner")
def keep_corner(design_id: int) -> Any:
    """Make an edge into two, or two into one."""
    form, name, edge = request.form, request.form.get("piece", ""), request.form.get("edge", 0, type=number_of)
    if form.get("join"):
        return _change(design_id, "Made two edges one.", lambda data: joined(data, name, edge), name)
    errors: dict[str, str] = {}
    along = length_of(form.get("along", ""), "From where it begins", "along", errors, display().unit, 2000.0)
    if errors:
        return _page(design_id, errors), 422
    return _change(design_id, "Set a corner.", lambda data: with_corner(data, name, edge, along), name)


@pages.post("/designs/<int:design_id>/outlines/seams")
def keep_seams(design_id: int) -> Any:
    """What is sewn to what: as chosen, or as it is proposed."""
    form = request.form

    def change(data: dict[str, Any]) -> dict[str, Any]:
        pieces, _ = pieces_of(data, sizes_of(data)[0])
        used = {entry["name"] for entry in data["pieces"] if entry.get("use", True)}
        if form.get("propose"):
            return {**data, "seams": proposed_seams({name: piece for name, piece in pieces.items() if name in used})}
        seams, taken = [], set()
        for key, second in form.items():
            first = key.removeprefix("sewn.")
            if key.startswith("sewn.") and second and first not in taken and second not in taken:
                taken |= {first, second}
                seams.append({"first": first, "second": second, "ease": 0.0})
        return {**data, "seams": seams}

    return _change(design_id, "Sewed the pieces together.", change)


@pages.post("/designs/<int:design_id>/outlines/whole")
def keep_whole(design_id: int) -> Any:
    """The allowance the pattern came with, what sizes are called, where it opens."""
    form, show = request.form, display()
    errors: dict[str, str] = {}
    off = length_of(form.get("off", "0") or "0", "Allowance", "off", errors, show.unit)
    own: dict[str, float] = {}
    for key, text in form.items():
        if key.startswith("own.") and text.strip():
            own[key.removeprefix("own.")] = length_of(text, "Allowance", key, errors, show.unit)
    opens = form.get("opens", "")
    down = 0.0
    if opens:
        try:
            down = parse_signed(form.get("down", "") or "0", show.unit)
        except LengthError as error:
            errors["down"] = f"Opens: {error}"
    if errors:
        return _page(design_id, errors), 422

    def change(data: dict[str, Any]) -> dict[str, Any]:
        sizes = {old: form.get(f"size.{n}", old).strip()[:20] for n, old in enumerate(sizes_of(data))}
        if len(set(sizes.values())) != len(sizes):
            raise OutlineError("Two sizes have one name.")
        pieces = [
            {**row, "outlines": {sizes[old]: number for old, number in row["outlines"].items()}} for row in data["pieces"]
        ]
        openings = [{"at": opens, "length": down}] if opens else []
        return {
            **data,
            "pieces": pieces,
            "allowance": {"off": off, "edges": own, "kept": bool(form.get("kept"))},
            "openings": openings,
        }

    return _change(design_id, "Kept what the pattern came with.", change)
