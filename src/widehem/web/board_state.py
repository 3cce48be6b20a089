"""What the draft board shows, as it stands in the address: settings that differ from the docket, step, view, slip.

Settings are carried as they were written, with their unit, so that switching the unit changes nothing.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from urllib.parse import quote_plus, urlencode

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.design.design import Design
from widehem.core.design.make import Made
from widehem.core.drafting.method import Method, resolved
from widehem.core.setting.option import Option, OptionError, Value
from widehem.core.setting.quantity import Quantity
from widehem.core.setting.settings import Settings, read_settings
from widehem.core.units import Display, LengthError, Unit, parse_length, parse_signed, with_unit
from widehem.core.values import replace
from widehem.store.designs import bare_design
from widehem.store.making import Work
from widehem.store.models import Docket
from widehem.web.numbers import is_number

OPTION, EASE, MEASURE = "o.", "e.", "m."
SLIPS = ("steps", "settings", "checks", "garment")


@dataclass(frozen=True)
class BoardState:
    """Settings by their key in the address ('o.length', 'e.hip', 'm.waist'); '' means: back to the default.

    house: what the house has in place of a default, on this docket. weigh: the option of which is told what each way does.
    """

    kept: Mapping[str, str]
    tried: Mapping[str, str] = field(default_factory=dict)
    step: int | None = None
    view: str = "whole"
    slip: str = "steps"
    lit: str = ""
    weigh: str = ""
    house: Mapping[str, str] = field(default_factory=dict)

    @property
    def settings(self) -> dict[str, str]:
        """Everything in force: kept settings with the tried ones over them."""
        merged = {**self.kept, **self.tried}
        return {key: text for key, text in merged.items() if text != ""}

    def with_setting(self, key: str, text: str) -> BoardState:
        """The state with a setting tried; '' goes back to the house's value, or to the default."""
        text = text or self.house.get(key, "")
        tried = {k: v for k, v in self.tried.items() if k != key}
        if not _same(text, self.kept.get(key, "")):
            tried[key] = text
        return replace(self, tried=tried)

    def query(self, **changes: object) -> str:
        """The address of this state, or of one that differs in step, view, slip or lit."""
        state = replace(self, **changes) if "tried" in changes else self  # type: ignore[arg-type]
        words = [state.tried_words] if state.tried_words else []
        step = changes.get("step", state.step)
        if step is not None:
            words.append(f"step={step}")
        for name, now, usual in (
            ("view", state.view, "whole"),
            ("slip", state.slip, "steps"),
            ("lit", state.lit, ""),
            ("weigh", state.weigh, ""),
        ):
            value = changes.get(name, now)
            if value != usual:
                words.append(f"{name}={quote_plus(str(value))}")
        return "&".join(words)

    @cached_property
    def tried_words(self) -> str:
        """The tried settings as they stand in the address."""
        return urlencode(sorted(self.tried.items()))


def _same(text: str, kept: str) -> bool:
    """Whether two settings say the same, however they are written: 55 cm and 55.0 cm."""
    if text == kept:
        return True
    try:
        return bool(text and kept) and parse_signed(text, "cm") == parse_signed(kept, "cm")
    except LengthError:
        return False


def kept_settings(docket: Docket) -> dict[str, str]:
    """The settings in force on a docket, by their key in the address."""
    options, ease = docket.all_options, docket.all_ease
    return {**{OPTION + code: text for code, text in options.items()}, **{EASE + code: text for code, text in ease.items()}}


def house_of(docket: Docket) -> dict[str, str]:
    """The values of the house that stand in place of defaults on a docket, by their key; those its design decides left out."""
    decided = {*(OPTION + code for code in docket.of_design("options")), *(EASE + code for code in docket.of_design("ease"))}
    return {key: text for key, text in docket.house.items() if key[:2] in (OPTION, EASE) and key not in decided}


def read_state(method: Method, docket: Docket, given: Mapping[str, str], errors: dict[str, str] | None = None) -> BoardState:
    """The state an address names; what cannot be understood is left out, and told in errors by its key."""
    state = BoardState(kept_settings(docket), house=house_of(docket))
    for key, text in given.items():
        if not known_setting(method, key):
            continue
        try:
            state = state.with_setting(key, read_setting(method, key, text[:60], "cm") if text.strip() else "")
        except OptionError as error:
            if errors is not None:
                errors[key] = str(error)
    step = given.get("step", "")
    return replace(
        state,
        step=int(step) if is_number(step) and len(step) < 4 else None,
        view=given.get("view", "whole"),
        slip=given.get("slip", "steps") if given.get("slip") in SLIPS else "steps",
        lit=given.get("lit", ""),
        weigh=given.get("weigh", ""),
    )


def known_setting(method: Method, key: str) -> bool:
    kind, code = key[:2], key[2:]
    if kind == OPTION:
        return any(option.code == code for option in method.options)
    if kind == EASE:
        return any(option.code == code for option in method.ease)
    return kind == MEASURE and any(need.measure == code for need in method.needs)


def setting_of(method: Method, key: str) -> Option | None:
    """The declared option or ease behind a key; None for a measure."""
    if key.startswith(OPTION):
        return method.option(key[2:])
    return method.ease_at(key[2:]) if key.startswith(EASE) else None


def read_setting(method: Method, key: str, text: str, unit: Unit) -> str:
    """Check what was typed for a setting; returns it with its unit. Raises OptionError with a sentence."""
    option = setting_of(method, key)
    if option is not None:
        option.read(text, unit)
        return with_unit(text, unit) if option.kind == "length" else text.strip()
    entry = CATALOGUE[key[2:]]
    try:
        found = with_unit(text, unit)
        parse_length(found, unit, least_cm=1)
    except LengthError as error:
        raise OptionError(f"{entry.name}: {error}") from None
    return found


def chart_tried(chart: Chart, settings: Mapping[str, str]) -> Chart:
    """The chart with the tried measures on it."""
    for key, text in settings.items():
        if key.startswith(MEASURE):
            chart = chart.with_value(key[2:], parse_length(text, "cm"))
    return chart


def settings_from(method: Method, settings: Mapping[str, str]) -> Settings:
    """Options and ease of these settings as values. Raises OptionError."""
    options, ease = ({key[2:]: text for key, text in settings.items() if key.startswith(kind)} for kind in (OPTION, EASE))
    return read_settings(method.options, method.ease, options, ease)


def design_with(design: Design, settings: Mapping[str, str]) -> Design:
    """A design with these settings in place of its own. Raises OptionError."""
    found = settings_from(design.drawn_by, settings)
    return replace(design, options=found.options, ease=found.ease)


def made_of(work: Work, settings: Mapping[str, str]) -> Made:
    """The garment of a docket with these settings in force. Raises OptionError, CannotDraft."""
    design = bare_design(work.docket)
    return work.made(design_with(design, settings), chart_tried(work.chart, settings))


@dataclass(frozen=True)
class Field:
    """A setting as a field in the slip.

    text: what stands in it. other: the same in the other unit. hint: range or reason. less, more: what the steppers
    write, '' at the end of the range. house: it stands at the house's value; school: makers differ about it; back: what going
    back is called. error: the sentence when what was typed cannot be.
    """

    key: str
    name: str
    why: str
    kind: str
    text: str
    other: str = ""
    hint: str = ""
    less: str = ""
    more: str = ""
    changed: bool = False
    set: bool = False
    choices: tuple[tuple[str, str, str], ...] = ()
    error: str = ""
    unit: str = ""
    house: bool = False
    school: bool = False
    back: str = "back to the default"


def field_for(
    method: Method, key: str, chart: Chart, state: BoardState, show: Display, typed: str = "", error: str = "", *,
    made: Made | None = None, rules: int = 0,
) -> Field:  # fmt: skip
    """The field of one setting, marked where it is the house's. typed, error: what was typed in vain. made: what is drawn, for
    defaults that follow from it; rules: those it is drawn by, 0 for today's."""
    found = _field_for(method, key, chart, state, show, typed, error, made=made, rules=rules)
    found = replace(found, why=show.words(found.why))
    if key not in state.house:
        return found
    house = state.settings.get(key, "") == state.house[key]
    return replace(found, house=house, set=found.set and not house, back="back to the house's")


def _field_for(
    method: Method, key: str, chart: Chart, state: BoardState, show: Display, typed: str = "", error: str = "", *,
    made: Made | None = None, rules: int = 0,
) -> Field:  # fmt: skip
    """The field of one setting."""
    settings = state.settings
    option = setting_of(method, key)
    if option is not None:
        option = option.by_rules(rules or method.rules)
    text, changed = settings.get(key, ""), key in state.tried
    if option is None:
        entry = CATALOGUE[key[2:]]
        cm = parse_length(text, "cm").cm if text else chart.get(key[2:])
        why = next(need.why for need in method.needs if need.measure == key[2:])
        return _length_field(key, entry.name, why, cm, 0.5, (entry.low, entry.high), show, changed, bool(text), typed, error)
    if option.kind == "choice":
        chosen = text or str(option.default)
        ways = tuple((choice.code, choice.name, choice.why) for choice in option.choices)
        return Field(
            key, option.name, option.why, "choice", chosen, changed=changed, set=bool(text), choices=ways, error=error,
            school=option.school,
        )  # fmt: skip
    if option.kind == "number":
        return _number_field(option, key, text, changed, typed, error)
    if text:
        try:
            cm = float(option.read(text, "cm"))
        except OptionError as wrong:  # kept when the range was another one
            typed, error, cm = typed or text, error or str(wrong), None
    elif option.drawn and made is not None and isinstance(now := _of(made, key), Quantity):
        cm = now.value
    else:
        tried = chart_tried(chart, settings)
        default = option.default_on(
            tried, resolved(method, tried, settings_from(method, settings).options, rules or None) if option.after else {}
        )
        cm = None if default is None or isinstance(default, str) else float(default)
    return _length_field(
        key, option.name, option.why, cm, option.step, (option.low, option.high), show, changed, bool(text), typed, error
    )


def _of(made: Made, key: str) -> Quantity | Value | None:
    """An option or ease as it was drawn with."""
    return (made.draft.ease if key.startswith(EASE) else made.draft.options).get(key[2:])


def _number_field(option: Option, key: str, text: str, changed: bool, typed: str, error: str) -> Field:
    """A plain number, without a unit."""
    try:
        value = float(option.read(text, "cm")) if text else float(option.default or 0.0)
    except OptionError as wrong:
        typed, error, value = typed or text, error or str(wrong), float(option.default or 0.0)
    less = f"{value - option.step:g}" if value - option.step >= option.low - 1e-9 else ""
    more = f"{value + option.step:g}" if value + option.step <= option.high + 1e-9 else ""
    shown = typed if error and typed else f"{value:g}"
    hint = f"{option.low:g} to {option.high:g}"
    return Field(key, option.name, option.why, "number", shown, "", hint, less, more, changed, bool(text), error=error)


def _length_field(
    key: str, name: str, why: str, cm: float | None, step: float, span: tuple[float, float], show: Display,
    changed: bool, given: bool, typed: str, error: str,
) -> Field:  # fmt: skip
    stride = step if show.unit == "cm" else max(1, round(step / 2.54 * 8)) / 8 * 2.54
    less = more = ""
    if cm is not None:
        if cm - stride >= span[0] - 1e-6:
            less = f"{show.setting(cm - stride)} {show.unit}"
        if cm + stride <= span[1] + 1e-6:
            more = f"{show.setting(cm + stride)} {show.unit}"
    hint = f"{show.length(span[0])} to {show.full(span[1])}"
    if error and typed:
        text = typed
    elif cm is None:
        text = ""
    else:
        text = show.setting(cm) if given else show.length(cm)
    other = "" if cm is None else f"{show.other().length(cm)} {show.other().unit}"
    return Field(key, name, why, "length", text, other, hint, less, more, changed, given, error=error, unit=show.unit)
