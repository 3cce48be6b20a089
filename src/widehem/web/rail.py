"""The rail: finished garments with what they measure, where they hang; whom one fits, and what fits a wearer."""

from __future__ import annotations

import csv
import io
from collections.abc import Mapping
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.grading.cast import Hours as Rates
from widehem.core.grading.cast import Person, Tolerances, Wears, costs
from widehem.core.grading.wearable import finished_sizes
from widehem.core.output.charts_out import safe
from widehem.core.output.pdf_cast import told
from widehem.core.units import LengthError, parse_length, with_unit
from widehem.store.charts import core_chart, latest_chart
from widehem.store.dockets import productions
from widehem.store.journal import tell
from widehem.store.models import OnRail, RailPhoto, Wearer
from widehem.store.rail import Hanging, on_rail
from widehem.web.handed import handed
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.numbers import number_of
from widehem.web.pictured import delete_pictured, sent_picture
from widehem.web.selvedge import Selvedge
from widehem.web.show import display
from widehem.web.stood import moved
from widehem.web.writing import writing

pages = Blueprint("rail", __name__)
WITH_FILES = ("rail.keep", "rail.add")
MEASURES = ("bust", "waist", "hip", "nape_waist", "waist_floor", "inside_leg", "arm_length", "across_back")
GIRTHS, LENGTHS = ("bust", "waist", "hip"), ("waist_floor", "inside_leg", "arm_length")
LIMITS = {"name": 120, "kind": 60, "place": 120, "words": 400}
MOST_BYTES, MOST_ROWS = 500_000, 2000


@pages.get("/rail")
def index() -> Any:
    """Everything on the rail; for a wearer, what fits after which alteration, the least work first."""
    return _page({}, {}, None)


def _page(errors: Mapping[str, str], typed: Mapping[str, str], edited: int | None) -> Any:
    wearer_id, wanted = request.args.get("wearer", 0, type=number_of), request.args.get("find", "").strip()[:60].lower()
    with current_store().read() as session:
        rows = on_rail(session)
        people = [(p, [w for w in p.wearers if w.binned_at is None]) for p in productions(session) if p.binned_at is None]
        wearer = session.get(Wearer, wearer_id) if wearer_id else None
        chart = core_chart(session, latest_chart(session, wearer.id)) if wearer is not None else None
    show = display()
    shown = [row for row in rows if wanted in f"{row.name} {row.kind} {row.place} {row.words}".lower()]
    fitting: dict[int, tuple[str, float, bool]] = {}
    if wearer is not None and chart is not None:
        fitting = _fits(Person(wearer.id, wearer.name, chart), shown)
        shown.sort(key=lambda row: (not fitting[row.id][2], fitting[row.id][1], row.name))
    at = edited if edited is not None else request.args.get("edit", 0, type=number_of)
    garment = next((row for row in rows if row.id == at), None)
    slots = [
        Slot("On the rail", "count", str(len(rows)), "garments", f"{len(shown)} shown"),
        *(
            [Slot("Fit", "count", str(sum(fits for _, _, fits in fitting.values())), "garments", wearer.name)]
            if wearer is not None
            else []
        ),
    ]
    return render_template(
        "rail.html", rows=shown, measures=[(code, CATALOGUE[code].name) for code in MEASURES], girths=GIRTHS, garment=garment, typed=typed, errors=errors, fitting=fitting,
        people=people, wearer=wearer, find=request.args.get("find", ""), text=lambda texts, code: _shown(texts, code, show), selvedge=Selvedge(), slots=slots, tally="",
        next=Next("Back to the day", url_for("desk.index")),
    )  # fmt: skip


def _shown(texts: Mapping[str, str], code: str, show: Any) -> str:
    """A length as it was written, in the unit of the maker."""
    try:
        return str(show.setting(parse_length(texts[code], "cm").cm)) if code in texts else ""
    except LengthError:
        return texts[code]


def _fits(person: Person, rows: list[Hanging]) -> dict[int, tuple[str, float, bool]]:
    """For each garment what is done for a wearer in words, the hours, and whether it can be."""
    sizes = finished_sizes((row.name, row.fits_cm, row.ease_cm) for row in rows)
    table = costs([person], sizes, Tolerances(lengths=LENGTHS), Rates())[0] if rows else []
    found = {}
    for row, fit in zip(rows, table, strict=True):
        if fit is None:
            found[row.id] = ("No measure is known of both.", 9998.0, False)
        elif fit.possible:
            found[row.id] = (told(Wears(person, row.name, fit), display()), fit.hours, True)
        else:
            show = display()
            words = ", ".join(
                f"{CATALOGUE[one.code].name.lower()} {show.full(abs(one.by))} too {'large' if one.by > 0 else 'small'}"
                for one in fit.beyond
            )
            found[row.id] = (
                f"Not for {person.name}: {words}, after all that can be altered.",
                9000.0 + sum(abs(one.by) for one in fit.beyond),
                False,
            )
    return found


def _read(errors: dict[str, str]) -> tuple[dict[str, str], dict[str, str], dict[str, str]]:
    """Words, measures and ease as they stand in a form."""
    form, show = request.form, display()
    words = {name: " ".join(form.get(name, "").split())[:most] for name, most in LIMITS.items()}
    if not words["name"]:
        errors["name"] = "Give the garment a name, like the grey frock coat with the velvet collar."
    fits: dict[str, str] = {}
    ease: dict[str, str] = {}
    for code in MEASURES:
        for field, into in ((f"m.{code}", fits), (f"e.{code}", ease)):
            text = form.get(field, "").strip()
            if not text:
                continue
            try:
                parse_length(text, show.unit)
            except LengthError as error:
                errors[field] = f"{CATALOGUE[code].name}{', ease' if field[0] == 'e' else ''}: {error}"
                continue
            into[code] = with_unit(text, show.unit)
    if not fits and not errors:
        errors["name"] = "Write at least one measure of the garment: without any it fits nobody."
    return words, fits, ease


@pages.post("/rail")
def add() -> Any:
    """Hang a garment on the rail."""
    errors: dict[str, str] = {}
    words, fits, ease = _read(errors)
    picture = sent_picture(errors)
    if errors:
        return _page(errors, dict(request.form), None), 422
    with writing() as session:
        row = OnRail(fits=fits, ease=ease, **words)
        if picture is not None:
            row.photo = RailPhoto(data=picture)
        session.add(row)
        tell(session, f"Hung {row.name} on the rail.")
    return redirect(url_for(".index"), 303)


@pages.post("/rail/<int:row_id>")
def keep(row_id: int) -> Any:
    """Write about a garment on the rail."""
    errors: dict[str, str] = {}
    words, fits, ease = _read(errors)
    picture = sent_picture(errors)
    with writing() as session:
        row = session.get(OnRail, row_id)
        if row is None:
            abort(404)
        if moved(row.version):
            errors["name"] = (
                f"Somebody wrote about it meanwhile, as {row.name}. Yours stands here: keep it again to put it in its place."
            )
        if not errors:
            tell(session, f"Wrote about {words['name']} on the rail.")
            row.name, row.kind, row.place, row.words = words["name"], words["kind"], words["place"], words["words"]
            row.fits, row.ease = fits, ease
            if picture is not None and row.photo is not None:
                row.photo.data = picture
            elif picture is not None:
                row.photo = RailPhoto(data=picture)
    if errors:
        return _page(errors, dict(request.form), row_id), 422
    return redirect(url_for(".index"), 303)


@pages.post("/rail/<int:row_id>/away")
def away(row_id: int) -> Any:
    """Take a garment off the rail for good; it can be taken back."""
    with writing() as session:
        row = session.get(OnRail, row_id)
        if row is None:
            abort(404)
        tell(session, f"Took {row.name} off the rail.")
        delete_pictured(session, row)
    return redirect(url_for(".index"), 303)


@pages.get("/rail/<int:row_id>/photo.jpg")
def photo(row_id: int) -> Response:
    """The picture of a garment."""
    with current_store().read() as session:
        found = session.get(RailPhoto, row_id)
        if found is None:
            abort(404)
        return Response(found.data, mimetype="image/jpeg")


@pages.get("/rail/file")
def file() -> Response:
    """Everything on the rail as CSV, in the unit of the maker."""
    show = display()
    with current_store().read() as session:
        rows = on_rail(session)
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(["name", "kind", "place", "words", "unit", *MEASURES, *(f"ease_{code}" for code in GIRTHS)])
    for row in rows:
        head = [safe(text) for text in (row.name, row.kind, row.place, row.words)]
        writer.writerow(
            [
                *head,
                show.unit,
                *(_shown(row.fits, code, show) for code in MEASURES),
                *(_shown(row.ease, code, show) for code in GIRTHS),
            ]
        )
    return handed(("\ufeff" + out.getvalue()).encode(), "rail.csv", "text/csv; charset=utf-8")


@pages.post("/rail/file")
def read() -> Any:
    """Garments from a CSV file; nothing is taken in while a row of it cannot be read."""
    sent = request.files.get("file")
    data = sent.read(MOST_BYTES + 1) if sent is not None else b""
    rows, wrong = rail_rows(data)
    if wrong:
        return _page({"file": wrong}, {}, None), 422
    with writing() as session:
        for words, fits, ease in rows:
            session.add(OnRail(fits=fits, ease=ease, **words))
        tell(session, f"Hung {len(rows)} garments from a file on the rail.")
    return redirect(url_for(".index"), 303)


Row = tuple[dict[str, str], dict[str, str], dict[str, str]]


def rail_rows(data: bytes) -> tuple[list[Row], str]:
    """Garments in a CSV file, or what is wrong with it, in a sentence."""
    if not data or len(data) > MOST_BYTES:
        return [], "Choose a CSV file first." if not data else f"The file has more than {MOST_BYTES // 1000} kB."
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        return [], "The file is not in UTF-8: save it as CSV UTF-8."
    between = ";" if text.split("\n", 1)[0].count(";") > text.split("\n", 1)[0].count(",") else ","
    try:
        lines = list(csv.DictReader(io.StringIO(text), delimiter=between))
    except csv.Error as error:
        return [], f"The file cannot be read as CSV: {error}."
    if not lines or "name" not in lines[0]:
        return (
            [],
            'The file has no column "name": its first row names the columns, name, kind, place, words, unit and codes of measures.',
        )
    if len(lines) > MOST_ROWS:
        return [], f"The file has {len(lines)} rows; {MOST_ROWS} are the most at once."
    found: list[Row] = []
    for number, line in enumerate(lines, 2):
        words = {name: " ".join(str(line.get(name) or "").removeprefix("'").split())[:most] for name, most in LIMITS.items()}
        unit = str(line.get("unit") or "cm").strip()
        if not words["name"] or unit not in ("cm", "in"):
            return [], f"Row {number} has no name." if not words[
                "name"
            ] else f'Row {number}: the unit is "{unit[:20]}"; cm or in can be read.'
        fits: dict[str, str] = {}
        ease: dict[str, str] = {}
        for code in MEASURES:
            for column, into in ((code, fits), (f"ease_{code}", ease)):
                cell = str(line.get(column) or "").strip()
                if not cell:
                    continue
                try:
                    parse_length(cell, "cm" if unit == "cm" else "in")
                except LengthError as error:
                    return [], f"Row {number}, {column}: {error}"
                into[code] = with_unit(cell, "cm" if unit == "cm" else "in")
        found.append((words, fits, ease))
    return found, ""
