"""House values: what the workroom has in place of defaults, in one place; out and in as a file; taken over by a docket."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for

from widehem.core.days import ZoneError, zone_names
from widehem.core.drafting.method import METHODS, by_part
from widehem.core.marking.house import (
    ALLOWANCE,
    EVERY,
    HouseValue,
    own_plans,
    read_in,
    read_value,
    settings_for,
    written_out,
)
from widehem.core.marking.plans import KINDS, OWN, PLANS, AllowancePlan, PlanError, own_plan, plan_named
from widehem.core.setting.option import Option, OptionError
from widehem.core.units import parse_signed
from widehem.store.clock import keep_zone, zone_name
from widehem.store.dockets import find_docket
from widehem.store.house import house_values, keep_values, take_house
from widehem.store.journal import tell
from widehem.web.handed import handed
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, today
from widehem.web.selvedge import Selvedge
from widehem.web.show import display
from widehem.web.stood import clash, merged
from widehem.web.writing import writing

pages = Blueprint("house", __name__)
PLAN = "allowances."  # in front of a plan's code in an address
LARGEST = 200_000  # bytes of a file of house values


@dataclass(frozen=True)
class Row:
    """One setting: its key and name, why it is there, the method's own default, what the house has, the ways it can go."""

    key: str
    name: str
    why: str
    usual: str
    text: str
    unit: str = ""
    choices: tuple[tuple[str, str], ...] = ()
    error: str = ""
    was: str = ""


@pages.get("/house")
def values() -> str:
    """The house values of one method, of every method, or of a plan of allowances."""
    return _page(request.args.get("of", EVERY), {}, {})


def _page(
    of: str, errors: Mapping[str, str], typed: Mapping[str, str], told: tuple[str, ...] = (), zone: str | None = None
) -> str:
    if of not in _places():
        abort(404)
    with current_store().read() as session:
        found, kept_zone = house_values(session), zone_name(session)
    own = {value.key: value.text for value in found if value.of == _stored(of)}
    counts: dict[str, int] = {}
    for value in found:
        counts[_address(value)] = counts.get(_address(value), 0) + 1
    rows = [
        Row(
            row.key,
            row.name,
            row.why,
            row.usual,
            typed.get(row.key, row.text),
            row.unit,
            row.choices,
            errors.get(row.key, ""),
            row.text,
        )
        for row in _rows(of, own)
    ]
    slots = [
        Slot("House values", "count", str(len(found)), "", "in place of defaults"),
        Slot("Here", "count", str(len(own)), f"of {len(rows)}", _places()[of]),
    ]
    groups = {part: [(method.code, method.name) for method in members] for part, members in by_part(METHODS.values()).items()}
    return render_template(
        "house.html", of=of, place=_places()[of], rows=rows, errors=errors, told=told, counts=counts, groups=groups, plans=_plans(), own=OWN in of,
        zone=kept_zone if zone is None else zone, kept_zone=kept_zone, zones=zone_names(), day_now=today(),
        plan_start=PLAN, every=EVERY, any=bool(found), selvedge=Selvedge(), slots=slots, tally="",
        next=Next("Back to the productions", url_for("desk.index")),
    )  # fmt: skip


def _places() -> dict[str, str]:
    """Where a value can be set, by its address: every method, one method, one plan of allowances."""
    methods = {code: method.name for code, method in METHODS.items()}
    return {EVERY: "Every method", **methods, **{PLAN + code: f"Allowances, {plan.name}" for code, plan in _plans().items()}}


def _plans() -> dict[str, AllowancePlan]:
    """Every plan of allowances by its code: those that ship, then the house's own."""
    with current_store().read() as session:
        own = own_plans(house_values(session))
    return {**PLANS, **{code: plan_named(code) for code in own}}


def _stored(of: str) -> str:
    return of.removeprefix(PLAN)


def _address(value: HouseValue) -> str:
    return PLAN + value.of if value.key.startswith(ALLOWANCE) else value.of


def _rows(of: str, own: Mapping[str, str]) -> list[Row]:
    show = display()
    if of.startswith(PLAN):
        plan = plan_named(_stored(of))
        return [
            Row(ALLOWANCE + kind, name, "", show.setting(plan.amounts[kind]), _shown(own.get(ALLOWANCE + kind, "")), show.unit)
            for kind, name in KINDS.items()
        ]
    return [_row(key, option, own.get(key, "")) for key, option in settings_for(of).items()]


def _row(key: str, option: Option, text: str) -> Row:
    show = display()
    if option.kind == "choice":
        ways = tuple((choice.code, choice.name) for choice in option.choices)
        usual = next((name for code, name in ways if code == option.default), "")
        return Row(key, option.name, show.words(option.why), usual, text, choices=ways)
    if option.default is None:
        usual = "from the drawing" if option.drawn else "from the chart" if option.worked else "by method"
    elif option.kind == "number":
        return Row(key, option.name, show.words(option.why), f"{float(option.default):g}", text)
    else:
        usual = show.setting(float(option.default))
    return Row(key, option.name, show.words(option.why), usual, _shown(text), show.unit)


def _shown(text: str) -> str:
    """A kept length in the unit of the maker."""
    return display().setting(parse_signed(text, "cm")) if text else ""


@pages.post("/house")
def keep() -> Any:
    """Set the values of one place; an empty field takes the house's back. Nothing is kept while one cannot be used."""
    of, form = request.form.get("of", EVERY), request.form
    if of not in _places():
        abort(404)
    errors: dict[str, str] = {}
    found: list[HouseValue] = []
    with writing() as session:
        own = {value.key: value.text for value in house_values(session) if value.of == _stored(of)}
        stands = {row.key: row.text for row in _rows(of, own)}
        seen = merged(stands, {key: form[key].strip() for key in stands if key in form})
        for key, text in seen.kept.items():
            if text == stands[key]:
                continue
            try:
                found.append(read_value(_stored(of), key, text, display().unit) if text else HouseValue(_stored(of), key, ""))
            except OptionError as error:
                errors[key] = str(error)
        if not errors:
            tell(session, f"Kept {len(found)} house value{'s' if len(found) != 1 else ''}.")
            keep_values(session, found)
    if errors or seen.clashes:
        words = {key: clash(theirs) for key, theirs in seen.clashes.items()}
        return _page(of, {**words, **errors}, seen.shown(form)), 422 if errors else 409
    return redirect(url_for(".values", of=of or None), 303)


@pages.post("/house/plan")
def add_plan() -> Any:
    """A plan of allowances of the house's own, which begins as another one."""
    form = request.form
    try:
        like = plan_named(form.get("like", "cloth"))
        plan = own_plan(like.code, form.get("name", ""))
    except PlanError as error:
        return _page(EVERY, {"plan": str(error)}, {}), 422
    with writing() as session:
        found = {(value.of, value.key): value.text for value in house_values(session)}
        if any(of == plan.code for of, _ in found):
            return _page(EVERY, {"plan": f"There is a plan {plan.name} already: choose another name."}, {}), 422
        tell(session, f"Added the plan of allowances {plan.name}.")
        figures = {ALLOWANCE + kind: f"{amount:g} cm" for kind, amount in like.amounts.items()}
        mine = {key: text for (of, key), text in found.items() if of == like.code}
        keep_values(session, [HouseValue(plan.code, key, text) for key, text in {**figures, **mine}.items()])
    return redirect(url_for(".values", of=PLAN + plan.code), 303)


@pages.post("/house/plan/delete")
def delete_plan() -> Any:
    """Take a plan of the house's own away; garments that use it keep its figures."""
    of = _stored(request.form.get("of", ""))
    with writing() as session:
        mine = [value for value in house_values(session) if value.of == of and OWN in of]
        if not mine:
            abort(404)
        tell(session, f"Took the plan of allowances {plan_named(of).name} away.")
        keep_values(session, [HouseValue(value.of, value.key, "") for value in mine])
    return redirect(url_for(".values"), 303)


@pages.post("/house/zone")
def keep_house_zone() -> Any:
    """Keep where the house stands, for its days; an empty field takes the machine's."""
    wanted = request.form.get("zone", "").strip()
    error = ""
    with writing() as session:
        seen = merged({"zone": zone_name(session)}, {"zone": wanted})
        try:
            keep_zone(session, seen.kept["zone"])
            tell(session, f"The house stands in {wanted or 'the zone of its machine'}.")
        except ZoneError as wrong:
            error = str(wrong)
    if error or seen.clashes:
        words = error or clash(seen.clashes["zone"])
        return _page(EVERY, {"zone": words}, {}, zone=wanted), 422 if error else 409
    return redirect(url_for(".values"), 303)


@pages.get("/house.json")
def out() -> Response:
    """Every value of the house as a file."""
    with current_store().read() as session:
        found = house_values(session)
    return handed(written_out(found), "house values.json", "application/json")


@pages.post("/house/in")
def take_in() -> Any:
    """Take values from a file: all of them, or none while one cannot be used. What the house has besides stays."""
    upload = request.files.get("file")
    data = upload.read(LARGEST + 1) if upload else b""
    if not data or len(data) > LARGEST:
        words = "Choose a file of house values first." if not data else "This file is too large to be house values."
        return _page(EVERY, {}, {}, (words,)), 422
    try:
        found, wrong = read_in(data, display().unit)
    except OptionError as error:
        return _page(EVERY, {}, {}, (str(error),)), 422
    if wrong:
        return _page(EVERY, {}, {}, (*wrong, "Nothing was taken in: mend the file, then choose it again.")), 422
    with writing() as session:
        tell(session, f"Took in {len(found)} house value{'s' if len(found) != 1 else ''} from a file.")
        before = {(value.of, value.key): value.text for value in house_values(session)}
        keep_values(session, found)
    changed = [value for value in found if before.get((value.of, value.key)) != value.text]
    lines = tuple(
        f"{_places()[_address(value)]}, {_name(value)}: {value.text}"
        + (f", before {before[value.of, value.key]}" if (value.of, value.key) in before else "")
        for value in changed
    )
    return _page(EVERY, {}, {}, (f"{len(found)} values taken in, {len(changed)} of them new or changed.", *lines))


def _name(value: HouseValue) -> str:
    if value.key.startswith(ALLOWANCE):
        return KINDS[value.key[2:]].lower()
    return settings_for(value.of)[value.key].name.lower()


@pages.post("/dockets/<int:docket_id>/house")
def take_over(docket_id: int) -> Any:
    """Draw a docket with the house values of today."""
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None or docket.method not in METHODS:
            abort(404)
        tell(session, f"{docket.name} is drawn with the house values of today.", docket)
        take_house(session, docket)
    return redirect(url_for("board.draft", docket_id=docket_id, slip="settings"), 303)
