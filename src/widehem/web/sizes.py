"""Size charts: those that ship to look at and copy, the workroom's own to change; CSV both ways, and charts of wearers made into
one."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from markupsafe import Markup

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.figure_tables import TABLES
from widehem.core.grading.from_wearers import from_company, from_one
from widehem.core.grading.house_charts import HOUSE
from widehem.core.grading.size_chart import MOST_SIZES, SizeChart, SizeChartError, lettered
from widehem.core.output.sizes_csv import MOST_BYTES, sizes_csv, sizes_from_csv
from widehem.core.output.svg_sizes import steps_svg
from widehem.core.units import LengthError, parse_length
from widehem.store.charts import core_chart, latest_chart
from widehem.store.dockets import productions
from widehem.store.files import company
from widehem.store.grading import all_sizes, begin_sizes, graded_by, keep_sizes, sizes_of
from widehem.store.journal import tell
from widehem.store.models import HouseSizes, Wearer
from widehem.web.handed import handed
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.numbers import is_number, number_of
from widehem.web.selvedge import Selvedge
from widehem.web.show import display, said
from widehem.web.stood import moved
from widehem.web.writing import writing

pages = Blueprint("sizes", __name__)
LONGEST = 60


@pages.get("/sizes")
@pages.get("/sizes/<code>")
def chart(code: str = "curved") -> Any:
    """One size chart: every measure by size, with the steps between them."""
    return _page(code, {}, None)


def _page(code: str, errors: Mapping[str, str], typed: Mapping[str, str] | None) -> Any:
    show = display()
    with current_store().read() as session:
        charts = all_sizes(session)
        used = graded_by(session, code, "chart")
        version = _own(session, code).version if code not in HOUSE else 0
        places = [(p, [w for w in p.wearers if w.binned_at is None]) for p in productions(session) if p.binned_at is None]
    if code not in charts:
        abort(404)
    shown = charts[code]
    doubts: dict[tuple[str, int], str] = {}
    for measure, size, words in shown.doubts:
        doubts.setdefault((measure, size), said(words))
    rows = [
        {
            "measure": CATALOGUE[measure], "breaks": shown.breaks(measure),
            "plot": Markup(steps_svg(shown.steps(measure), [size for m, size in doubts if m == measure])),
            "cells": [
                {
                    "field": f"{measure}.{size}", "text": (typed or {}).get(f"{measure}.{size}", show.setting(value)),
                    "step": _signed(shown.steps(measure)[size - 1]) if size else "", "doubt": doubts.get((measure, size), ""),
                    "error": errors.get(f"{measure}.{size}", ""),
                }
                for size, value in enumerate(values)
            ],
        }
        for measure, values in shown.rows.items()
    ]  # fmt: skip
    slots = [
        Slot("Sizes", "count", str(len(shown)), "", f"base {shown.called(shown.base)}"),
        Slot("Measures", "count", str(len(shown.rows)), "rows", f"looked up by {CATALOGUE[shown.key].name.lower()}"),
        Slot(
            "Out of line",
            "look" if doubts else "true",
            str(len(doubts)),
            "figures",
            "see the marked ones" if doubts else "every row runs on",
        ),
        Slot("Graded by it", "count", str(len(used)), "designs", ", ".join(used[:2])),
    ]
    return render_template(
        "sizes.html", charts=charts, shipped=HOUSE, shown=shown, own=code not in HOUSE, rows=rows, doubts=list(doubts.values()), errors=errors,
        used=used, version=version, places=places, name=(typed or {}).get("name", shown.name), figures=TABLES, measures=CATALOGUE, called=[shown.called(n) for n in range(len(shown))],
        typed=typed or {}, selvedge=Selvedge(), slots=slots, tally="", next=Next("Back to the designs", url_for("designs.index")),
    )  # fmt: skip


def _signed(cm: float) -> str:
    """A step, with a second place where it has one."""
    show = display()
    return "0" if abs(cm) < 5e-4 else show.signed(cm, 1 if abs(cm * 10 - round(cm * 10)) < 1e-6 else 2)


@pages.post("/sizes/<code>/copy")
def copy(code: str) -> Any:
    """A size chart of the workroom's own, as this one is."""
    with writing() as session:
        charts = all_sizes(session)
        if code not in charts:
            abort(404)
        row = begin_sizes(session, charts[code], free_name(f"{charts[code].name}, ours", [c.name for c in charts.values()]))
        tell(session, f"Copied the size chart {charts[code].name}.")
        new = row.code
    return redirect(url_for(".chart", code=new), 303)


def free_name(name: str, taken: list[str]) -> str:
    """A name that none of these has, with a number where it is taken."""
    found, number = name[:LONGEST], 2
    while found in taken:
        found, number = f"{name[: LONGEST - 4]} {number}", number + 1
    return found


@pages.post("/sizes/<code>")
def keep(code: str) -> Any:
    """Keep a size chart of the workroom as it is in the form; nothing is kept while a figure cannot be read."""
    form, errors, show = request.form, dict[str, str](), display()
    with writing() as session:
        row = _own(session, code)
        was = sizes_of(row)
        rows: dict[str, tuple[float, ...]] = {}
        for measure, values in was.rows.items():
            found = []
            for size, value in enumerate(values):
                field = f"{measure}.{size}"
                text = form.get(field, "").strip()
                if field not in form or text == show.setting(value):
                    found.append(value)  # as it was kept, to the last digit
                    continue
                try:
                    found.append(parse_length(text, show.unit, least_cm=0.1).cm)
                except LengthError as error:
                    errors[field] = f"{CATALOGUE[measure].name}, size {was.sizes[size]}: {error}"
                    found.append(value)
            rows[measure] = tuple(found)
        name = " ".join(form.get("name", "").split())[:LONGEST]
        taken = {c.name.lower() for other, c in all_sizes(session).items() if other != code}
        if not name or name.lower() in taken:
            errors["name"] = (
                "The size chart has no name yet: write one."
                if not name
                else f"There is a size chart called {name} already: give this one another name."
            )
        if moved(row.version):
            errors["name"] = (
                f"Somebody kept this chart meanwhile, as {row.name}. Yours stands here: keep it again to put it in its place."
            )
        base = form.get("base", "")
        if not errors:
            number = int(base) if base.isdecimal() and int(base) < len(was) else was.base
            letters = lettered(len(was), number) if number != was.base else was.letters
            tell(session, f"Kept the size chart {name}.")
            key = form.get("key", was.key)
            keep_sizes(
                row, SizeChart(code, name, was.figure, key if key in rows else was.key, was.sizes, letters, number, rows), name
            )
    if errors:
        return _page(code, errors, form), 422
    return redirect(url_for(".chart", code=code), 303)


@pages.post("/sizes/<code>/size")
def size(code: str) -> Any:
    """One size more, larger or smaller by the last step; or the outermost away."""
    do = request.form.get("do", "")
    trouble = ""
    with writing() as session:
        row = _own(session, code)
        was = sizes_of(row)
        try:
            made = _resized(was, do)
        except SizeChartError as error:
            trouble = str(error)
        else:
            tell(session, f"{was.name} has {len(made)} sizes now.")
            keep_sizes(row, made, was.name)
    if trouble:
        return _page(code, {"size": trouble}, None), 422
    return redirect(url_for(".chart", code=code), 303)


def _resized(was: SizeChart, do: str) -> SizeChart:
    """Raises SizeChartError."""
    large = do.endswith("larger")
    if do.startswith("more"):
        if len(was) >= MOST_SIZES:
            raise SizeChartError(f"A size chart has {MOST_SIZES} sizes at most.")
        name = free_name(str(len(was) + 1) if large else "0", list(was.sizes))
        rows = {
            c: (*v, round(v[-1] + v[-1] - v[-2], 2)) if large else (round(v[0] - (v[1] - v[0]), 2), *v)
            for c, v in was.rows.items()
        }
        if min(value for values in rows.values() for value in values) <= 0:
            raise SizeChartError("A size smaller would have measures of nothing.")
        sizes, base = ((*was.sizes, name), was.base) if large else ((name, *was.sizes), was.base + 1)
    elif do.startswith("less"):
        rows = {c: v[:-1] if large else v[1:] for c, v in was.rows.items()}
        sizes, base = (was.sizes[:-1], was.base) if large else (was.sizes[1:], was.base - 1)
        if not 0 <= base < len(sizes):
            raise SizeChartError("That is the base: choose another base first, then leave it out.")
    else:
        abort(400)
    return SizeChart(was.code, was.name, was.figure, was.key, sizes, lettered(len(sizes), base), base, rows)


@pages.post("/sizes/<code>/delete")
def delete(code: str) -> Any:
    """Delete a size chart of the workroom that no design is graded by."""
    with writing() as session:
        row = _own(session, code)
        used = graded_by(session, code, "chart")
        if not used:
            tell(session, f"Deleted the size chart {row.name}.")
            session.delete(row)
    if used:
        return _page(
            code,
            {
                "used": f"{', '.join(used[:3])} {'is' if len(used) == 1 else 'are'} graded by it: give them another chart, then delete it."
            },
            None,
        ), 422
    return redirect(url_for(".chart"), 303)


@pages.get("/sizes/<code>/file")
def file(code: str) -> Response:
    """A size chart as CSV, in the unit of the maker."""
    with current_store().read() as session:
        charts = all_sizes(session)
    if code not in charts:
        abort(404)
    return handed(sizes_csv(charts[code], display()), f"{charts[code].name}.csv", "text/csv; charset=utf-8")


@pages.post("/sizes/read")
def read() -> Any:
    """A size chart from a CSV file."""
    sent = request.files.get("file")
    data = sent.read(MOST_BYTES + 1) if sent is not None else b""
    try:
        made = sizes_from_csv(data)
    except SizeChartError as error:
        return _page("curved", {"file": str(error)}, None), 422
    return _begun(made, f"Took in the size chart {made.name}.")


@pages.post("/sizes/from")
def from_bodies() -> Any:
    """A size chart of one wearer, or of a company."""
    like_code, of = request.form.get("like", "curved"), request.form.get("of", "")
    kind, _, number = of.partition(".")
    with current_store().read() as session:
        charts = all_sizes(session)
        like = charts.get(like_code)
        if like is None or not is_number(number):
            abort(400)
        try:
            if kind == "wearer":
                wearer = session.get(Wearer, int(number))
                if wearer is None:
                    abort(404)
                made = from_one(
                    "own", f"Round {wearer.name}"[:LONGEST], core_chart(session, latest_chart(session, wearer.id)), like
                )
            else:
                people = company(session, number_of(number))
                if not people:
                    abort(404)
                bodies = [person.chart for person in people]
                made = from_company("own", f"Company of {people[0].wearer.production.name}"[:LONGEST], bodies, like)
        except SizeChartError as error:
            return _page(like_code, {"from": str(error)}, None), 422
    return _begun(made.chart, f"Made a size chart: {' '.join(said(note) for note in made.notes)}")


def _begun(made: SizeChart, words: str) -> Any:
    with writing() as session:
        row = begin_sizes(session, made, free_name(made.name, [c.name for c in all_sizes(session).values()]))
        tell(session, words)
        new = row.code
    return redirect(url_for("sizes.chart", code=new), 303)


def _own(session: Any, code: str) -> HouseSizes:
    """A size chart of the workroom's own. 404 when it is none."""
    number = code.removeprefix("house-")
    row: HouseSizes | None = session.get(HouseSizes, int(number)) if is_number(number) and code.startswith("house-") else None
    if row is None:
        abort(404)
    return row
