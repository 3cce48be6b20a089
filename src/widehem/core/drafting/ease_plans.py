"""Named plans of ease: how much a costume piece is larger than the body, by what it is, of which cloth, over what."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import field
from functools import cache

from widehem.core.body.chart import Chart, chart_of
from widehem.core.body.estimates import estimate
from widehem.core.body.figure_tables import CURVED
from widehem.core.drafting.method import Method
from widehem.core.pattern.wear import ARM_PART, Wear
from widehem.core.setting.option import Option, OptionError
from widehem.core.values import record


@record(frozen=True)
class EasePlan:
    """Totals round the body, cm, by level. why: what it is for. cloth: what it is meant for. layers: how many are worn
    underneath."""

    code: str
    name: str
    why: str
    amounts: Mapping[str, float]
    cloth: str = "woven"
    layers: float = 0.0
    stretch: float = 30.0


@record(frozen=True)
class EaseLevel:
    """A level of a plan: what its amount does, the least of a woven cloth, and the measure it is over; low, high: what can be
    meant."""

    code: str
    name: str
    does: str
    least: float
    measure: str
    low: float = -20.0
    high: float = 40.0


LEVELS: dict[str, EaseLevel] = {
    level.code: level
    for level in (
        EaseLevel("bust", "Bust", "to breathe in; a quarter goes to each half piece", 4.0, "bust"),
        EaseLevel("waist", "Waist", "to sit and to eat; a quarter goes to each half piece", 1.5, "waist"),
        EaseLevel("hip", "Hip", "to sit down; a quarter goes to each half piece of a skirt", 3.0, "hip"),
        EaseLevel("upper_arm", "Upper arm", "to bend the arm; all of it in the width of the sleeve", 3.0, "upper_arm"),
        EaseLevel("across_back", "Across back", "to bring the arms forward; half goes to each half of the back", 0.0,
            "across_back", -5.0, 15.0),
        EaseLevel("depth", "Armscye depth", "how far the armhole lies below the arm: a high one lets the arm rise, a deep "
            "one lifts the whole garment with it", 0.0, "armscye_depth", -2.0, 12.0),
    )
}  # fmt: skip


def _plan(code: str, name: str, why: str, *amounts: float, cloth: str = "woven", layers: float = 0.0) -> EasePlan:
    return EasePlan(code, name, why, dict(zip(LEVELS, amounts, strict=True)), cloth, layers)


PLANS: dict[str, EasePlan] = {
    plan.code: plan
    for plan in (
        _plan("foundation", "Foundation", "a bodice lining, a stay: worn close, hardly moved in", 2, 1, 2, 3, 0.5, 1),
        _plan("close", "Close woven block", "to breathe and to move", 6, 3, 4, 4, 1, 2),
        _plan("easy", "Easy woven", "room to work in", 10, 8, 6, 6, 2, 3),
        _plan("over_shirt", "Over a shirt", "a waistcoat or bodice with a layer under it", 10, 8, 8, 6, 2, 3.5, layers=1),
        _plan("coat", "Over everything", "a coat, over all layers", 15, 14, 12, 9, 3, 4.5, layers=2),
        _plan("jersey_close", "Jersey, close", "a knit smaller than the body, held by its stretch", -4, -4, -4, 0, 0, 0,
            cloth="knit"),
        _plan("jersey", "Jersey, regular", "a knit that skims the body", 6, 6, 6, 3, 2, 1, cloth="knit"),
        _plan("jersey_easy", "Jersey, easy", "a knit that hangs loose", 18, 18, 14, 6, 7, 4.5, cloth="knit"),
    )
}  # fmt: skip


@record(frozen=True)
class Applied:
    """What a plan comes to on a method. ease, options: by the method's own codes; left_out: levels it does not draw so."""

    ease: dict[str, float] = field(default_factory=dict)
    options: dict[str, str] = field(default_factory=dict)
    left_out: tuple[str, ...] = ()


def applied(plan: EasePlan, method: Method) -> Applied:
    """A plan on a method; what would be out of the method's range is left as it is, and named."""
    ease, left = {}, []
    for option in method.ease:
        amount = plan.amounts.get("bust", 0.0) / 4 if option.code == "quarter" else plan.amounts.get(option.code)
        if amount is None:
            continue
        if _fits(option, amount):
            ease[option.code] = amount
        else:
            left.append(option.code)
    if any(option.code == "cap" for option in method.ease) and plan.cloth == "knit":
        ease["cap"] = 0.0
    worn = {"cloth": plan.cloth, "layers": f"{plan.layers:g}", "stretch": f"{plan.stretch:g}"}
    options = {code: text for code, text in worn.items() if not _usual(method, code, text)}
    return Applied(ease, options, tuple(left))


def over_layers(method: Method, written: Mapping[str, str], room: float) -> dict[str, str]:
    """The ease of a method as it is written, with room for what is worn underneath: all of it round the body, a part round the arm.
    room: cm more than the ease was planned with. What would be out of the method's range, or is worked out from the body, is
    left as it is."""
    found = dict(written)
    for option in method.ease:
        part = TAKES_PART.get(option.code)
        try:
            planned = option.read(written[option.code], "cm") if option.code in written else option.default
        except OptionError:
            continue  # it is said where the settings are read
        if part is None or not room or not isinstance(planned, float | int) or not _fits(option, planned + part * room):
            continue
        found[option.code] = f"{planned + part * room:g}"
    return found


TAKES_PART = {"bust": 1.0, "waist": 1.0, "hip": 1.0, "quarter": 0.25, "upper_arm": ARM_PART}  # of the room layers take, by ease


def _fits(option: Option, amount: float) -> bool:
    return option.low - 1e-9 <= amount <= option.high + 1e-9


def _usual(method: Method, code: str, text: str) -> bool:
    """Whether a setting is the default anyway."""
    return method.option(code).read(text, "cm") == method.option(code).default


def plan_problems(plan: EasePlan) -> dict[str, str]:
    """What cannot be kept about a plan, by field; sentences with figures in cm."""
    found = {}
    if not plan.name:
        found["name"] = "The plan has no name yet: write one, then keep it."
    for code, amount in plan.amounts.items():
        level = LEVELS[code]
        if not level.low <= amount <= level.high:
            found[code] = (
                f"{level.name} {amount:g} cm is outside {level.low:g} to {level.high:g} cm: write the ease, not the girth."
            )
    return found


def below_least(plan: EasePlan) -> dict[str, float]:
    """Levels at which a plan gives less than its cloth wants with everything underneath, and what that is, on the usual body,
    cm."""
    wear, body = Wear(plan.cloth, plan.stretch, plan.layers), usual_chart()
    found = {}
    for code, level in LEVELS.items():
        if level.least and code in plan.amounts:
            least = wear.least(body.get(level.measure) or 0.0, level.least, limb=code == "upper_arm")
            if plan.amounts[code] < least - 1e-9:
                found[code] = least
    return found


@cache
def usual_chart() -> Chart:
    """The usual curved figure, every measure worked out: what a plan is judged on."""
    worked = estimate(Chart(table=CURVED), CURVED)
    return chart_of({**{code: value.cm for code, value in worked.found.items()}, **CURVED.row})


def from_garment(code: str, name: str, chart: Chart, garment: Mapping[str, float]) -> EasePlan:
    """The ease somebody likes: a garment that fits, measured flat and closed like the body, less the chart.

    garment: its girths and lengths by level, cm. Levels the chart has no reading for are left out.
    """
    amounts = {}
    for level, cm in garment.items():
        body = chart.get(LEVELS[level].measure)
        if body is not None:
            amounts[level] = round(cm - body, 1)
    return EasePlan(code, name, "taken from a garment that fits", amounts)
