"""A recipe in words: each step as a sentence."""

from __future__ import annotations

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.formula import FormulaError, read_formula
from widehem.core.design.design import Step
from widehem.core.setting.option import Value
from widehem.core.style.suggest import place_words
from widehem.core.units import Saying, say

FROM_TO = {"start": "from", "end": "to", "top": "from", "bottom": "to", "dart": "of", "to": "to", "first": "to", "second": "and to",
    "hem": "at", "hinge": "up to", "from": "from", "waist": "at", "side": "beside"}  # fmt: skip
MOST = 3  # settings that are told


def _formula(text: str) -> str:
    """A formula of measures in words."""
    try:
        return read_formula(text).working(
            lambda code: CATALOGUE[code].name.lower() if code in CATALOGUE else code, lambda v: f"{v:g}"
        )
    except FormulaError:
        return text


def step_words(step: Step) -> Saying:
    """What a step does: its title, where, and what is set otherwise than usual."""
    asked = step.operation
    parts = [asked.title]
    figures: list[float] = []
    rows = [(code, where) for code, where in step.wheres.items() if code not in ("over", "keep", "piece")]
    for code, where in rows[:2]:
        parts.append(f"{FROM_TO.get(code, 'at')} {place_words(where)}")
    told: list[str] = []
    for option in asked.options:
        value: Value | None = step.settings.get(option.code)
        if value is None or value == option.default or len(told) == MOST:
            continue
        if option.kind == "length" and not isinstance(value, str) and not value:
            told.append(f"no {option.name.lower()}")
        elif option.kind == "length" and not isinstance(value, str):
            figures.append(float(value))
            told.append(f"{option.name.lower()} {{{len(figures) - 1}}}")
        elif option.kind == "choice":
            names = {choice.code: choice.name.lower() for choice in option.choices}
            told.append(names.get(str(value), str(value)))
        else:
            told.append(f"{option.name.lower()} {_formula(value) if isinstance(value, str) else f'{value:g}'}")
    words = " ".join(parts) + (f": {', '.join(told)}" if told else "")
    return say(words, *figures)
