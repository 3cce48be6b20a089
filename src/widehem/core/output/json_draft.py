"""A draft as JSON: lengths in cm on the stitching line, y downwards. The shape is stable; docs/command-line.md."""

from __future__ import annotations

from typing import Any

from widehem.core.drafting.method import Draft, Method
from widehem.core.drafting.option import Option
from widehem.core.drafting.quantity import Quantity
from widehem.core.drafting.refusal import CannotDraft
from widehem.core.pattern.piece import Diamond
from widehem.core.units import METRIC

PLACES = 4


def _round(value: float) -> float:
    rounded = round(value, PLACES)
    return 0.0 if rounded == 0 else rounded


def _spot(point: tuple[float, float]) -> list[float]:
    return [_round(point[0]), _round(point[1])]


def draft_as_json(draft: Draft) -> dict[str, Any]:
    """Everything a script needs of a draft."""
    block = draft.block
    return {
        "method": draft.method.code,
        "rules": draft.method.rules,
        "options": {code: _value(value) for code, value in draft.options.items()},
        "ease": {code: _value(value) for code, value in draft.ease.items()},
        "notes": [note.text(METRIC) for note in draft.notes],
        "points": {name: _spot(point) for name, point in draft.points.items()},
        "pieces": [
            {
                "name": piece.name,
                "edges": [{"name": edge.name, "length": _round(edge.length)} for edge in piece.edges],
                "outline": [_spot(point) for point in piece.outline(0.01)],
                "darts": [
                    {
                        "name": dart.name,
                        "intake": _round(dart.intake),
                        "length": _round(dart.length),
                        "point": _spot(dart.point),
                        "legs": [_round(leg) for leg in dart.legs],
                    }
                    for dart in piece.darts
                ],
                **({"diamonds": [_diamond(diamond) for diamond in piece.diamonds]} if piece.diamonds else {}),
                **({"holes": [_spot(hole) for hole in piece.holes]} if piece.holes else {}),
                "area": _round(piece.area),
            }
            for piece in block.pieces
        ],
        "girths": [
            {
                "level": level.name,
                "finished": _round(block.girth(level)),
                "body": _round(level.body),
                "ease": _round(block.girth(level) - level.body),
                "planned": _round(level.planned),
            }
            for level in block.levels
        ],
        "checks": [
            {
                "name": check.name,
                "verdict": check.verdict,
                "figure": _round(check.figure),
                "tolerance": _round(check.tolerance),
                "message": check.message.text(METRIC),
            }
            for check in draft.checks
        ],
        "steps": [
            {
                "n": step.number,
                "title": step.title,
                "text": step.text.text(METRIC),
                "working": [f"{line.name}: {line.quantity.working()} = {line.quantity.figure()}" for line in step.sums],
            }
            for step in draft.steps
        ],
    }


def _diamond(diamond: Diamond) -> dict[str, Any]:
    spots = {name: _spot(getattr(diamond, name)) for name in ("top", "bottom", "inner", "outer")}
    return {"name": diamond.name, "intake": _round(diamond.intake), **spots}


def _value(value: Quantity | float | str) -> float | str:
    return value if isinstance(value, str) else _round(float(value))


def refusal_as_json(refusal: CannotDraft) -> dict[str, Any]:
    return {"refused": {"measures": list(refusal.measures), "message": refusal.saying.text(METRIC)}}


def method_as_json(method: Method) -> dict[str, Any]:
    """What a method is called, needs and lets a maker set."""
    return {
        "code": method.code,
        "name": method.name,
        "group": method.group,
        "summary": method.summary,
        "needs": [
            {"measure": need.measure, "why": need.why, **({"unless_option": need.unless} if need.unless else {})}
            for need in method.needs
        ],
        "options": [_option(option) for option in method.options],
        "ease": [_option(option) for option in method.ease],
    }


def _option(option: Option) -> dict[str, Any]:
    found: dict[str, Any] = {
        "code": option.code,
        "name": option.name,
        "kind": option.kind,
        "default": option.default,
        "why": option.why,
    }
    if option.kind == "choice":
        found["choices"] = [{"code": c.code, "name": c.name, "why": c.why} for c in option.choices]
    else:
        found["range"] = [option.low, option.high]
        found["unit"] = "cm" if option.kind == "length" else ""
    if option.uses:
        found["default_from"] = list(option.uses)
    if option.least is not None:
        found["least"] = option.least
    return found
