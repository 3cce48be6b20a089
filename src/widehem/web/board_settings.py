"""The settings of the board: which are shown, in what groups, what they lead to, and what stands beside them."""

from __future__ import annotations

from typing import Any

from widehem.core.body.chart import Chart
from widehem.core.design.make import Made
from widehem.core.design.schools import Way, ways
from widehem.core.drafting.ease_plans import EasePlan, applied
from widehem.core.drafting.method import Method
from widehem.core.marking.house import settings_for, value_words
from widehem.core.setting.option import Value
from widehem.core.units import Saying
from widehem.store.ease import all_plans
from widehem.store.house import house_differs
from widehem.store.making import Work
from widehem.store.models import Docket
from widehem.web.board_state import EASE, MEASURE, OPTION, BoardState, Field, made_of
from widehem.web.here import current_store

GARMENT = "garment"  # the slip that says nothing of the draft
QUICK = ("length",)  # the options that stand under the steps, beside the ease


def ways_of(work: Work, state: BoardState, made: Made) -> tuple[Way, ...]:
    """What each way of the option does that is weighed; nothing when none is."""
    option = next((option for option in work.method.options if OPTION + option.code == state.weigh), None)
    if option is None or option.kind != "choice":
        return ()
    return ways(option, made, lambda code: made_of(work, state.with_setting(state.weigh, code).settings))


def house_says(docket: Docket) -> str:
    """What the house says otherwise today than when the docket was opened, in words."""
    with current_store().read() as session:
        found = house_differs(session, docket)
    options = settings_for(docket.method)
    return ", ".join(
        (value_words(key, options[key], now) if now else f"{options[key].name.lower()} as usual")
        + (f", not {before}" if before else "")
        for key, (before, now) in found.items()
        if key in options
    )


def settings_of(plan: EasePlan, method: Method) -> dict[str, str]:
    """A plan of ease as settings of a method, by their key in the address."""
    found = applied(plan, method)
    worn = {OPTION + code: found.options.get(code, "") for code in ("cloth", "layers", "stretch")}
    return {**{EASE + code: f"{amount:g} cm" for code, amount in found.ease.items()}, **worn}


def ease_plans(method: Method, state: BoardState, to: Any) -> list[tuple[str, str, str, bool]]:
    """The named plans of ease: name, what for, where pressing leads, and whether it is in force."""
    with current_store().read() as session:
        plans = all_plans(session)
    found = []
    for plan in plans.values():
        trial = state
        for key, text in settings_of(plan, method).items():
            trial = trial.with_setting(key, text)
        left = applied(plan, method).left_out
        words = (
            f"{plan.why}; {', '.join(method.ease_at(code).name.lower() for code in left)} cannot be drawn so here"
            if left
            else plan.why
        )
        found.append((plan.name, words, to(tried=trial.tried), trial.settings == state.settings))
    return found


def field_keys(
    method: Method, chart: Chart, slip: str, state: BoardState, made: Made | None
) -> dict[str, list[str]]:  # fmt: skip
    """Which settings the slip shows, by what they are about: those that do something here, or under the steps only ease and
    length. What is set or tried is always shown."""
    ease = [EASE + option.code for option in method.ease]
    if slip == "steps":
        return {"quick": [*ease, *(OPTION + option.code for option in method.options if option.code in QUICK)]}
    if slip in ("checks", GARMENT):
        return {}
    measures = [MEASURE + need.measure for need in method.needs if need.measure in chart]
    now = _in_force(method, state, made)
    shown = [
        option for option in method.options if option.applies(now) or OPTION + option.code in {**state.kept, **state.tried}
    ]
    groups = {
        group: [OPTION + option.code for option in shown if option.group == group] for group in ("shape", "cloth", "truth")
    }
    return {"ease": ease, "shape": groups["shape"], "cloth": groups["cloth"], "measures": measures, "truth": groups["truth"]}


def _in_force(method: Method, state: BoardState, made: Made | None) -> dict[str, Value]:
    """The choices that are in force, by the code of their option."""
    tried = {key[2:]: text for key, text in state.settings.items() if key.startswith(OPTION)}
    usual = {option.code: option.default for option in method.options if option.kind == "choice" and option.default is not None}
    drawn = made.draft.options if made is not None else {}
    return {**usual, **{code: value for code, value in drawn.items() if isinstance(value, str)}, **tried}


def otherwise(made: Made | None) -> dict[str, Saying]:
    """By the key of an ease, what is said where another is drawn than was set."""
    said = {EASE + asked.name: asked.not_as_set() for asked in made.girths} if made is not None else {}
    return {key: words for key, words in said.items() if words is not None}


def setting_links(state: BoardState, to: Any, fields: dict[str, list[Field]]) -> dict[str, dict[str, str]]:
    """Where less, more and reset of every field lead."""
    links = {}
    for group in fields.values():
        for entry in group:
            links[entry.key] = {
                name: to(tried=state.with_setting(entry.key, text).tried)
                for name, text in (("less", entry.less), ("more", entry.more), ("reset", ""))
                if text or name == "reset"
            }
    return links
