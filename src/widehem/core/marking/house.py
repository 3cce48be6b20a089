"""House values: what a workroom has in place of a method's own default, for an option, an ease, a tolerance or an allowance."""

from __future__ import annotations

import json
from collections.abc import Iterable, Mapping
from typing import Any, Literal

from widehem.core.drafting.common_options import COMMON
from widehem.core.drafting.method import METHODS, Method
from widehem.core.marking.plans import KINDS, OWN, PlanError, plan_named
from widehem.core.setting.option import Option, OptionError
from widehem.core.units import LengthError, Unit, parse_length, with_unit
from widehem.core.values import record, replace

Kind = Literal["option", "ease", "allowance"]
OPTION, EASE, ALLOWANCE = "o.", "e.", "a."  # in front of a key, as on the draft board
EVERY = ""  # for every method that has it
FILE, VERSION = "house values", 1


@record(frozen=True)
class HouseValue:
    """One value of the house. of: a method, a plan of allowances, or '' for every method. key: 'o.cap_height', 'e.cap',
    'a.hem'. text: as it was written, with its unit."""

    of: str
    key: str
    text: str


def settings_for(of: str) -> dict[str, Option]:
    """What can have a house value, by its key: of a method, or of every method. Raises OptionError."""
    if of in METHODS:
        method = METHODS[of]
        found = {EASE + option.code: option for option in method.ease}
        return {**found, **{OPTION + option.code: option for option in method.options}}
    if of != EVERY:
        raise OptionError(f'There is no method "{of}": there are {", ".join(METHODS)}.')
    shared: dict[str, list[Option]] = {}
    for method in METHODS.values():
        for option in method.ease:
            shared.setdefault(EASE + option.code, []).append(option)
    several = {key: _widest(options) for key, options in shared.items() if len(options) > 1}
    return {**several, **{OPTION + option.code: option for option in COMMON}}


def _widest(options: list[Option]) -> Option:
    """What several methods have by one name: whatever one of them takes; a default where all have the same."""
    defaults = {option.default for option in options}
    return replace(
        options[0],
        low=min(option.low for option in options),
        high=max(option.high for option in options),
        default=options[0].default if len(defaults) == 1 else None,
    )


def read_value(of: str, key: str, text: str, unit: Unit) -> HouseValue:
    """A value as it was written, held against its range. Raises OptionError naming the setting and the figure."""
    text = text.strip()[:60]
    if key.startswith(ALLOWANCE):
        return HouseValue(of, key, _allowance(of, key[2:], text, unit))
    options = settings_for(of)
    if key not in options:
        where = METHODS[of].name if of else "No method"
        raise OptionError(f'{where} has no setting "{key}".' if of else f'No two methods have a setting "{key}".')
    option = options[key]
    option.read(text, unit)
    return HouseValue(of, key, with_unit(text, unit) if option.kind == "length" else text)


def _allowance(of: str, kind: str, text: str, unit: Unit) -> str:
    try:
        plan = plan_named(of)
    except PlanError as error:
        raise OptionError(str(error)) from None
    if kind not in KINDS:
        raise OptionError(f'"{kind}" is not a kind of edge: there are {", ".join(KINDS)}.')
    try:
        written = with_unit(text, unit)
        plan.with_amounts({kind: parse_length(written, unit).cm})
    except LengthError as error:
        raise OptionError(f"{KINDS[kind]}: {error}") from None
    except PlanError as error:
        raise OptionError(str(error)) from None
    return written


def values_for(method: Method, values: Iterable[HouseValue]) -> dict[str, str]:
    """The house's values of a method by key, those of the method itself over those of every method; what its range does not
    take is left out. With them the allowances of every plan, as 'a.cloth.hem'."""
    options = settings_for(method.code)
    general: dict[str, str] = {}
    own: dict[str, str] = {}
    allowances: dict[str, str] = {}
    for value in values:
        if value.key.startswith(ALLOWANCE):
            allowances[f"{ALLOWANCE}{value.of}.{value.key[2:]}"] = value.text
        elif value.key in options and value.of in (EVERY, method.code) and _takes(options[value.key], value.text):
            (own if value.of else general)[value.key] = value.text
    return {**general, **own, **allowances}


def _takes(option: Option, text: str) -> bool:
    try:
        option.read(text, "cm")
    except OptionError:
        return False
    return True


def value_words(key: str, option: Option, text: str) -> str:
    """A value in words: 'cap ease 1.5 cm', 'cap low'; a choice by its name."""
    shown = next((choice.name.lower() for choice in option.choices if choice.code == text), text)
    return f"{option.name[:1].lower()}{option.name[1:]} {shown}"


def amounts_for(plan: str, house: Mapping[str, str]) -> dict[str, str]:
    """The house's allowances of a plan, by kind of edge, as they were written."""
    start = f"{ALLOWANCE}{plan}."
    return {key.removeprefix(start): text for key, text in house.items() if key.startswith(start)}


def own_plans(values: Iterable[HouseValue]) -> tuple[str, ...]:
    """The codes of the house's own plans of allowances: those it has figures of."""
    return tuple(dict.fromkeys(value.of for value in values if value.key.startswith(ALLOWANCE) and OWN in value.of))


def written_out(values: Iterable[HouseValue]) -> str:
    """The values as a file: JSON, a list of who, what, value."""
    entries = [{"for": value.of, "setting": value.key, "value": value.text} for value in values]
    return json.dumps({"wide hem": FILE, "version": VERSION, "values": entries}, indent=1, ensure_ascii=False) + "\n"


def read_in(data: bytes, unit: Unit) -> tuple[tuple[HouseValue, ...], tuple[str, ...]]:
    """The values of a file, and the sentences of those that cannot be used. Raises OptionError where it is no such file."""
    try:
        found: Any = json.loads(data.decode("utf-8-sig"))
    except (UnicodeDecodeError, ValueError, RecursionError):
        raise OptionError("This file is not JSON: choose one that was handed out here as house values.") from None
    entries = found.get("values") if isinstance(found, dict) else None
    if not isinstance(entries, list) or found.get("wide hem") != FILE:
        raise OptionError("This file holds no house values: choose one that was handed out here.")
    values: list[HouseValue] = []
    wrong: list[str] = []
    for number, entry in enumerate(entries, 1):
        if not isinstance(entry, dict) or not all(isinstance(entry.get(name), str) for name in ("for", "setting", "value")):
            wrong.append(f'Value {number} names not "for", "setting" and "value" in words.')
            continue
        try:
            values.append(read_value(entry["for"], entry["setting"], entry["value"], unit))
        except OptionError as error:
            wrong.append(f"Value {number}: {error}")
    return tuple(values), tuple(wrong)
