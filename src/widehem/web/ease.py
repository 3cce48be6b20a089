"""Plans of ease: those that ship to look at and copy, the workroom's own to change; and ease taken from a garment that fits."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for

from widehem.core.body.chart import Chart
from widehem.core.design.trade import Trade, trades
from widehem.core.drafting.common_options import CLOTH, LAYERS, STRETCH
from widehem.core.drafting.ease_plans import LEVELS, PLANS, EasePlan, below_least, from_garment, plan_problems, usual_chart
from widehem.core.drafting.method import METHODS
from widehem.core.setting.option import OptionError
from widehem.core.units import LengthError, parse_length, parse_signed
from widehem.store.charts import core_chart, latest_chart
from widehem.store.dockets import find_wearer
from widehem.store.ease import add_plan, all_plans, free_name, keep_plan
from widehem.store.journal import tell
from widehem.store.models import HouseEase
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.numbers import is_number
from widehem.web.selvedge import Selvedge, selvedge
from widehem.web.show import display
from widehem.web.stood import moved
from widehem.web.writing import writing

pages = Blueprint("ease", __name__)
LONGEST, LONGEST_WHY = 60, 200
BODICE, SLEEVE = "bodice.measured", "sleeve.guide_box"


@pages.get("/ease")
@pages.get("/ease/<code>")
def plan(code: str = "close") -> str:
    """One plan, what its amounts do, and what its armhole means for the arm."""
    return _page(code, {}, None)


def _version(code: str) -> int:
    """How often a plan of the workroom has been kept; 0 for one that is nobody's."""
    if not code.startswith("house-"):
        return 0
    with current_store().read() as session:
        return _own(session, code).version


def _page(code: str, errors: dict[str, str], typed: Mapping[str, str] | None) -> str:
    with current_store().read() as session:
        plans = all_plans(session)
    if code not in plans:
        abort(404)
    shown, show, version = plans[code], display(), _version(code)
    given = typed or {}
    short = below_least(shown)
    rows = [
        {
            "level": level, "amount": shown.amounts.get(name), "error": errors.get(name, ""), "short": short.get(name),
            "text": given.get(name, show.setting(shown.amounts[name]).replace("−", "-") if name in shown.amounts else ""),
        }
        for name, level in LEVELS.items()
    ]  # fmt: skip
    cloth = given.get("cloth", shown.cloth)
    slots = [
        Slot("Below the least", "look" if short else "true", str(len(short)), "levels",
            "closer than the cloth wants" if short else "room enough for its cloth"),
        Slot("Worn underneath", "count", f"{shown.layers:g}", "layers", "counted with the ease"),
    ]  # fmt: skip
    return render_template(
        "ease.html", version=version, plans=plans, shown=shown, own=code not in PLANS, shipped=PLANS, rows=rows, errors=errors, cloth=cloth,
        cloths=CLOTH.choices, name=given.get("name", shown.name), why=given.get("why", shown.why),
        layers=given.get("layers", f"{shown.layers:g}"), stretch=given.get("stretch", f"{shown.stretch:g}"),
        trades=_trades(shown.code, tuple(shown.amounts.items()), shown.cloth),
        selvedge=Selvedge(), slots=slots, tally="", next=Next("Back to the productions", url_for("desk.index")),
    )  # fmt: skip


@lru_cache(maxsize=32)
def _trades(code: str, amounts: tuple[tuple[str, float], ...], cloth: str) -> tuple[Trade, ...]:
    """What the plan's armhole means, on the usual curved figure."""
    return trades(usual_chart(), EasePlan(code, "", "", dict(amounts), cloth), METHODS[BODICE], METHODS[SLEEVE])


@pages.post("/ease/<code>/copy")
def copy(code: str) -> Any:
    """Copy a plan into one of the workroom's own."""
    with writing() as session:
        plans = all_plans(session)
        if code not in plans:
            abort(404)
        tell(session, f"Copied {plans[code].name}.")
        row = add_plan(session, plans[code], free_name(session, f"{plans[code].name}, ours", LONGEST))
        new = row.code
    return redirect(url_for(".plan", code=new), 303)


@pages.post("/ease/<code>")
def keep(code: str) -> Any:
    """Keep a plan of the workroom as it is in the form; nothing is kept while a field cannot be used."""
    form, errors, unit = request.form, {}, display().unit
    amounts: dict[str, float] = {}
    for name in LEVELS:
        text = form.get(name, "").strip()
        if not text:
            continue
        try:
            amounts[name] = parse_signed(text, unit)
        except LengthError as error:
            errors[name] = f"{LEVELS[name].name}: {error}"
    numbers = {"layers": 0.0, "stretch": 30.0}
    for option in (LAYERS, STRETCH):
        try:
            numbers[option.code] = float(option.read(form.get(option.code, ""), unit))
        except OptionError as error:
            errors[option.code] = str(error)
    cloth = form.get("cloth", "")
    made = EasePlan(
        code, form.get("name", "").strip()[:LONGEST], form.get("why", "").strip()[:LONGEST_WHY], amounts,
        cloth if cloth in {choice.code for choice in CLOTH.choices} else "woven", numbers["layers"], numbers["stretch"],
    )  # fmt: skip
    errors = {**plan_problems(made), **errors}
    with writing() as session:
        row = _own(session, code)
        if made.name.lower() in {entry.name.lower() for other, entry in all_plans(session).items() if other != code}:
            errors["name"] = f"There is a plan called {made.name} already: give this one another name."
        if moved(row.version):
            errors["name"] = (
                f"Somebody kept this plan meanwhile, as {row.name}. Yours stands here: keep it again to put it in its place."
            )
        if not errors:
            tell(session, f"Kept the plan of ease {made.name}.")
            keep_plan(row, made, made.name)
    if errors:
        return _page(code, errors, form), 422
    return redirect(url_for(".plan", code=code), 303)


@pages.post("/ease/<code>/delete")
def delete(code: str) -> Any:
    """Delete a plan of the workroom. Garments keep the ease they were given."""
    with writing() as session:
        row = _own(session, code)
        tell(session, f"Deleted the plan of ease {row.name}.")
        session.delete(row)
    return redirect(url_for(".plan"), 303)


def _own(session: Any, code: str) -> HouseEase:
    """A plan of the workroom's own. 404 when it is none."""
    number = code.removeprefix("house-")
    row: HouseEase | None = session.get(HouseEase, int(number)) if is_number(number) and code.startswith("house-") else None
    if row is None:
        abort(404)
    return row


@pages.get("/wearers/<int:wearer_id>/ease")
def garment(wearer_id: int) -> str:
    """Take the ease from a garment that fits this wearer."""
    return _garment(wearer_id, {}, {})


def _garment(wearer_id: int, errors: dict[str, str], typed: Mapping[str, str]) -> str:
    wearer, chart = _on_chart(wearer_id)
    show = display()
    rows = [
        {
            "level": level, "body": chart.get(level.measure), "text": typed.get(code, ""), "error": errors.get(code, ""),
        }
        for code, level in LEVELS.items()
    ]  # fmt: skip
    lacking = sum(1 for row in rows if row["body"] is None)
    slots = [
        Slot(
            "On the chart",
            "look" if lacking else "count",
            str(len(rows) - lacking),
            f"of {len(rows)}",
            "levels to take it from",
        )
    ]
    return render_template(
        "garment.html", wearer=wearer, rows=rows, errors=errors, name=typed.get("name", f"As {wearer.name} likes it"[:LONGEST]),
        selvedge=selvedge(wearer, None, chart, "measure"), slots=slots, tally="", unit=show.unit,
        next=Next("Back to the chart", url_for("measure.chart", wearer_id=wearer_id)),
    )  # fmt: skip


@pages.post("/wearers/<int:wearer_id>/ease")
def take(wearer_id: int) -> Any:
    """Keep the ease of a garment as a plan of the workroom's own."""
    _, chart = _on_chart(wearer_id)
    form, errors = request.form, {}
    lengths: dict[str, float] = {}
    for code, level in LEVELS.items():
        text = form.get(code, "").strip()
        if not text or chart.get(level.measure) is None:
            continue
        try:
            lengths[code] = parse_length(text, display().unit, least_cm=1).cm
        except LengthError as error:
            errors[code] = f"{level.name}: {error}"
    name = form.get("name", "").strip()[:LONGEST]
    made = from_garment("", name, chart, lengths)
    for code, words in plan_problems(made).items():
        errors.setdefault(code, words if code == "name" else f"{words} Measure the garment again, whole round.")
    if not lengths and not errors:
        errors["none"] = "Nothing was measured yet: write at least one figure of the garment."
    if errors:
        return _garment(wearer_id, errors, form), 422
    with writing() as session:
        tell(session, f"Kept the ease of a garment as {name}.")
        row = add_plan(session, made, free_name(session, name, LONGEST))
        code = row.code
    return redirect(url_for(".plan", code=code), 303)


def _on_chart(wearer_id: int) -> tuple[Any, Chart]:
    """A wearer with the newest chart. 404 when there is none."""
    with current_store().read() as session:
        wearer = find_wearer(session, wearer_id)
        if wearer is None:
            abort(404)
        return wearer, core_chart(session, latest_chart(session, wearer_id))
