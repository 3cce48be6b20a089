"""Designs as they stand in a file: JSON that says what it is, read with one sentence for what is wrong in it."""

from __future__ import annotations

import json
from collections.abc import Mapping
from typing import Any

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.formula import FormulaError, read_formula
from widehem.core.design.design import Design, Step
from widehem.core.drafting.outlined_data import Outlined, checked
from widehem.core.drafting.outlines import OutlineError
from widehem.core.setting.option import OptionError, Value
from widehem.core.style.operation import OPERATIONS, is_formula
from widehem.core.values import record

FORMAT, VERSION = "widehem-design", 1
LARGEST, MOST_STEPS, LONGEST = 4_000_000, 120, 2000  # bytes of a file; steps; signs of a note


class DesignFileError(ValueError):
    """A file that is no design; one sentence naming the field and what to write."""


@record(frozen=True)
class Named:
    """A design with its name, a line about it, and notes."""

    name: str
    design: Design
    summary: str = ""
    notes: str = ""


def design_as_data(named: Named) -> dict[str, Any]:
    """A design as it stands in a file."""
    design = named.design
    data: dict[str, Any] = {
        "format": FORMAT, "version": VERSION, "name": named.name, "summary": named.summary, "notes": named.notes,
        "method": design.method, "options": dict(design.options), "ease": dict(design.ease),
        "steps": [step.as_data() for step in design.steps],
    }  # fmt: skip
    if design.rules is not None:
        data["rules"] = design.rules
    if design.outlines is not None:
        data["outlines"] = design.outlines.data
    return data


def design_as_json(named: Named) -> bytes:
    return (json.dumps(design_as_data(named), indent=1, ensure_ascii=False) + "\n").encode()


def read_design(data: bytes) -> Named:
    """A design from a file. Raises DesignFileError."""
    if len(data) > LARGEST:
        raise DesignFileError(f"The file is {len(data) // 1000} kB: a design has {LARGEST // 1000} kB at most.")
    try:
        found = json.loads(data.decode("utf-8-sig"))
    except (UnicodeDecodeError, ValueError, RecursionError) as error:
        raise DesignFileError(f"The file is not JSON: {error}.") from None
    if not isinstance(found, dict) or found.get("format") != FORMAT:
        raise DesignFileError(f'The file is no design: it says "format": "{FORMAT}" when it is one.')
    if found.get("version") != VERSION:
        raise DesignFileError(f'"version" is {found.get("version")!r}: this edition reads version {VERSION}.')
    return design_from(found)


def design_from(found: Mapping[str, Any]) -> Named:
    """A design from what stands in a file. Raises DesignFileError."""
    name = _text(found, "name", 120)
    if not name:
        raise DesignFileError('"name" is missing: give the design a name.')
    rules = found.get("rules")
    if rules is not None and (not isinstance(rules, int) or isinstance(rules, bool)):
        raise DesignFileError(f'"rules" is {rules!r}: write the number of a version, or leave it out.')
    design = Design(
        _text(found, "method", 60), rules, _values(found, "options"), _values(found, "ease"), _steps(found), _outlines(found)
    )
    try:
        method = design.drawn_by
        for code, value in design.options.items():
            method.option(code).check(value)
        for code, value in design.ease.items():
            method.ease_at(code).check(value)
    except OptionError as error:
        raise DesignFileError(str(error)) from None
    return Named(name, design, _text(found, "summary", 300), _text(found, "notes", LONGEST))


def _outlines(found: Mapping[str, Any]) -> Outlined | None:
    """What a design is made of, where no method draws it. Raises DesignFileError."""
    if found.get("outlines") is None:
        return None
    try:
        return Outlined.of(checked(found["outlines"]))
    except OutlineError as error:
        raise DesignFileError(f'"outlines": {error}') from None


def _text(found: Mapping[str, Any], key: str, most: int) -> str:
    value = found.get(key, "")
    if not isinstance(value, str):
        raise DesignFileError(f'"{key}" is no text: write it in quotation marks.')
    if len(value) > most:
        raise DesignFileError(f'"{key}" has {len(value)} signs, {most} at most.')
    return value.strip()


def _values(found: Mapping[str, Any], key: str) -> dict[str, Value]:
    value = found.get(key, {})
    if not isinstance(value, dict):
        raise DesignFileError(f'"{key}" is no list of settings: write {{"code": value}}.')
    for code, entry in value.items():
        if isinstance(entry, bool) or not isinstance(entry, int | float | str):
            raise DesignFileError(f'"{key}": {code} is neither a figure nor a word.')
    return {str(code): float(entry) if isinstance(entry, int) else entry for code, entry in value.items()}


def _steps(found: Mapping[str, Any]) -> tuple[Step, ...]:
    rows = found.get("steps", [])
    if not isinstance(rows, list):
        raise DesignFileError('"steps" is no list.')
    if len(rows) > MOST_STEPS:
        raise DesignFileError(f'"steps" has {len(rows)} entries, {MOST_STEPS} at most.')
    steps: list[Step] = []
    for number, row in enumerate(rows, 1):
        try:
            step = Step.from_data(row)
        except (KeyError, ValueError, TypeError, AttributeError, RecursionError) as error:
            raise DesignFileError(f"Step {number} cannot be read: {error} is missing or is not what belongs there.") from None
        check_step(step, f"Step {number}")
        steps.append(step)
    if len({step.id for step in steps}) != len(steps):
        raise DesignFileError("Two steps have one id.")
    return tuple(steps)


def _check_formula(text: str, called: str) -> None:
    """A formula that can be worked out on a body. Raises DesignFileError."""
    try:
        unknown = [name for name in read_formula(text).names if name not in CATALOGUE]
    except FormulaError as error:
        raise DesignFileError(f"{called}: {error}") from None
    if unknown:
        raise DesignFileError(f"{called}: {', '.join(unknown)} is no measure: `widehem measures` lists them.")


def check_step(step: Step, called: str) -> None:
    """A step's operation, settings and places are ones there are. Raises DesignFileError."""
    if step.code not in OPERATIONS:
        raise DesignFileError(f'{called}: there is no operation "{step.code}".')
    asked = OPERATIONS[step.code]
    codes = {option.code: option for option in asked.options}
    for code, value in step.settings.items():
        if code not in codes:
            known = ", ".join(codes) or "none"
            raise DesignFileError(f'{called}, {asked.title}: it has no setting "{code}": it has {known}.')
        if isinstance(value, str) and is_formula(codes[code], value):
            _check_formula(value, f"{called}, {asked.title}, {codes[code].name}")
            continue
        try:
            codes[code].check(value)
        except OptionError as error:
            raise DesignFileError(f"{called}, {asked.title}: {error}") from None
    for code in step.wheres:
        if code not in asked.wheres:
            raise DesignFileError(f'{called}, {asked.title}: it asks for no place "{code}".')
    missing = [code for code in asked.wheres if code not in step.wheres and code not in asked.spare]
    if missing:
        raise DesignFileError(f"{called}, {asked.title}: it wants {asked.wheres[missing[0]]}.")
    for code in step.names:
        if code not in asked.names:
            raise DesignFileError(f'{called}, {asked.title}: it names no "{code}".')
