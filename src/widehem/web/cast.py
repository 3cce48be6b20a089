"""A cast dressed in few sizes: who wears which after which alteration, who needs a draft of their own, and what it costs in hours."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.grading.cast import CastPlan, Hours, Person, Size, Tolerances, least_hours, plan, sizes_of_chart
from widehem.core.grading.kept import MOST_HOURS, MOST_TOLERANCE, HowCast
from widehem.core.grading.wearable import finished_sizes, sizes_of_nest
from widehem.core.output.pdf_cast import cast_pdf, told
from widehem.core.output.sheets import PAPERS
from widehem.core.setting.option import OptionError
from widehem.core.units import LengthError, parse_length
from widehem.store.files import company
from widehem.store.grading import all_sizes, grading_of, how_cast
from widehem.store.journal import tell
from widehem.store.models import Production
from widehem.store.rail import on_rail
from widehem.store.recipes import designs, find_design
from widehem.web.handed import handed
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.nests import nest_of
from widehem.web.numbers import is_number
from widehem.web.selvedge import Selvedge
from widehem.web.show import display
from widehem.web.writing import writing

pages = Blueprint("cast", __name__)
LENGTHS = ("nape_waist", "waist_floor", "waist_knee", "inside_leg", "arm_length", "height")
TOLERANCES = (("let_out", "Let out at most"), ("take_in", "Taken in at most"), ("hem", "Hems at most"))
HOURS = (
    ("size", "Grading and cutting out a size"), ("make", "Making a garment up"), ("own_draft", "A draft of one's own"), ("seam", "Altering, each seam"),
    ("each_cm", "and each {} of it"),
)  # fmt: skip
LONG_UNIT: dict[str, tuple[str, float]] = {
    "cm": ("centimetre", 1.0),
    "in": ("inch", 2.54),
}  # what an hour is given for, and its cm


def _hour_fields(unit: str) -> tuple[tuple[str, str, float], ...]:
    """The hours that are asked: name, words in the maker's unit, and how many of what is kept one of these is."""
    words, many = LONG_UNIT[unit]
    return tuple((name, told_as.format(words), many if name == "each_cm" else 1.0) for name, told_as in HOURS)


def sizes_against(session: Any, how: HowCast) -> tuple[tuple[Size, ...], str]:
    """What a cast is dressed in, and what it is called."""
    kind, _, code = how.against.partition(":")
    if kind == "rail":
        rows = on_rail(session)
        return finished_sizes((row.name, row.fits_cm, row.ease_cm) for row in rows), "what hangs on the rail"
    if kind == "design" and is_number(code) and (row := find_design(session, int(code))) is not None:
        try:
            return sizes_of_nest(nest_of(grading_of(session, row))), f"the sizes of {row.name}"
        except OptionError:
            return (), row.name
    charts = all_sizes(session)
    chart = charts.get(code, charts["curved"])
    return sizes_of_chart(chart), chart.name


def _planned(production_id: int) -> tuple[Production, HowCast, list[Person], tuple[Size, ...], str, CastPlan]:
    with current_store().read() as session:
        production = session.get(Production, production_id)
        if production is None:
            abort(404)
        how = how_cast(production)
        people = [
            Person(p.wearer.id, p.wearer.name, p.chart) for p in company(session, production_id) if p.wearer.binned_at is None
        ]
        sizes, called = sizes_against(session, how)
    once = how.against == "rail"
    if how.by_hours and not once:
        made = least_hours(people, sizes, how.tolerances, how.hours)
    else:
        made = plan(people, sizes, how.tolerances, how.hours, how.most or None, once)
    return production, how, people, sizes, called, made


@pages.get("/productions/<int:production_id>/cast")
def page(production_id: int) -> Any:
    """The plan as it is kept."""
    return _page(production_id, {}, None)


def _page(production_id: int, errors: Mapping[str, str], typed: Mapping[str, str] | None) -> Any:
    production, how, people, _, called, made = _planned(production_id)
    show = display()
    with current_store().read() as session:
        choices = [(f"sizes:{code}", chart.name) for code, chart in all_sizes(session).items()]
        choices += [(f"design:{row.id}", f"The sizes of {row.name}") for row in designs(session)]
        choices.append(("rail", "What hangs on the rail"))
    t, h = how.tolerances, how.hours
    fields = (
        {name: show.setting(getattr(t, name)) for name, _ in TOLERANCES}
        | {name: f"{getattr(h, name) * many:.3g}" for name, _, many in _hour_fields(show.unit)}
        | {"most": str(how.most or "")}
    )
    slots = [
        Slot(
            "Dressed",
            "true" if not made.own else "look",
            str(made.dressed),
            f"of {len(people)}",
            "everybody" if not made.own else f"{len(made.own)} need their own",
        ),
        Slot("Sizes", "count", str(len(made.sizes)), "", ", ".join(made.sizes)[:60]),
        Slot(
            "Hours",
            "count",
            f"{made.hours.get('plan', 0):.0f}",
            "in all",
            f"a draft for each: {made.hours.get('alone', 0):.0f}",
        ),
        Slot(
            "Proven",
            "true" if made.proven else "look",
            "yes" if made.proven else "no",
            "",
            "nothing better can be" if made.proven else "the best found in the time",
        ),
    ]
    return render_template(
        "cast.html", production=production, how=how, plan=made, called=called, choices=choices, tolerances=TOLERANCES, hours=[(name, words) for name, words, _ in _hour_fields(show.unit)], fields={**fields, **(typed or {})},
        errors=errors, told=lambda wears: told(wears, show), lengths=[(code, CATALOGUE[code].name) for code in LENGTHS], people=people,
        selvedge=Selvedge(production=production), slots=slots, tally="",
        next=Next("Print the list", url_for(".listed", production_id=production_id), "Back to the production", url_for("people.production", production_id=production_id), file=True),
    )  # fmt: skip


@pages.post("/productions/<int:production_id>/cast")
def keep(production_id: int) -> Any:
    """Plan it another way."""
    form, show, errors = request.form, display(), dict[str, str]()
    with current_store().read() as session:
        production = session.get(Production, production_id)
        if production is None:
            abort(404)
        how = how_cast(production)
    amounts: dict[str, float] = {}
    for name, words in TOLERANCES:
        text = form.get(name, "").strip()
        try:
            amounts[name] = (
                getattr(how.tolerances, name)
                if text == show.setting(getattr(how.tolerances, name)) or name not in form
                else 0.0
                if text == "0"
                else parse_length(text, show.unit).cm
            )
        except LengthError as error:
            errors[name] = f"{words}: {error}"
            continue
        if amounts[name] > MOST_TOLERANCE:
            errors[name] = (
                f"{words}: {show.full(amounts[name])} is no alteration any more; {show.full(MOST_TOLERANCE)} is the most."
            )
    rates = {
        name: _hours(form, name, words, getattr(how.hours, name), many, errors) for name, words, many in _hour_fields(show.unit)
    }
    most = form.get("most", "").strip()
    if most and not (most.isdecimal() and 0 < int(most) <= 100):
        errors["most"] = (
            f'"{most[:20]}" is no number of sizes: write one from 1 to 100, or nothing for as many as dress the most.'
        )
    if errors:
        return _page(production_id, errors, dict(form)), 422
    against = form.get("against", how.against)
    lengths = (
        tuple(code for code in LENGTHS if code in form.getlist("lengths")) if "with_lengths" in form else how.tolerances.lengths
    )
    made = HowCast(
        against if against.partition(":")[0] in ("sizes", "design", "rail") else how.against,
        Tolerances(amounts["let_out"], amounts["take_in"], amounts["hem"], how.tolerances.girths, lengths), Hours(**rates), int(most) if most else 0, form.get("by", "") == "hours",
    )  # fmt: skip
    with writing() as session:
        row = session.get(Production, production_id)
        if row is None:
            abort(404)
        if row.cast != made.as_data():
            tell(session, f"The cast of {row.name} is planned another way.", row)
            row.cast = made.as_data()
    return redirect(url_for(".page", production_id=production_id), 303)


def _hours(form: Mapping[str, str], name: str, words: str, was: float, many: float, errors: dict[str, str]) -> float:
    """Hours as they were typed; those that stood there stay what they are to the last digit."""
    shown = f"{was * many:.3g}"
    text = form.get(name, shown).strip().replace(",", ".")
    if text == shown:
        return was
    try:
        value = float(text)
    except ValueError:
        value = -1.0
    if not 0 <= value <= MOST_HOURS:
        errors[name] = f'{words}: "{text[:20]}" are no hours: write a number from 0 to {MOST_HOURS:g}.'
        return was
    return value / many


@pages.get("/productions/<int:production_id>/cast.pdf")
def listed(production_id: int) -> Response:
    """Who wears what, on paper."""
    production, _, people, _, called, made = _planned(production_id)
    about = f"{made.dressed} of {len(people)} in {len(made.sizes)} {'size' if len(made.sizes) == 1 else 'sizes'} of {called}."
    data = cast_pdf(f"Cast of {production.name}", about, made, PAPERS["a4"], display())
    return handed(data, f"{production.name} cast.pdf", "application/pdf")
