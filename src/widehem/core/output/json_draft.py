"""A draft as JSON: lengths in cm on the stitching line, y downwards. The shape is stable; docs/command-line.md."""

from __future__ import annotations

from typing import Any

from widehem.core.design.make import Made
from widehem.core.drafting.method import Method
from widehem.core.pattern.check import Case
from widehem.core.pattern.checks.body import finished
from widehem.core.pattern.garment import Seam
from widehem.core.pattern.inside import Diamond
from widehem.core.pattern.piece import Piece
from widehem.core.setting.option import Option
from widehem.core.setting.quantity import Quantity
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import METRIC

PLACES = 4


def _round(value: float) -> float:
    rounded = round(value, PLACES)
    return 0.0 if rounded == 0 else rounded


def _spot(point: tuple[float, float]) -> list[float]:
    return [_round(point[0]), _round(point[1])]


def draft_as_json(made: Made) -> dict[str, Any]:
    """Everything a script needs of a draft: its pieces as they lie on the sheet."""
    case = Case(made.garment, made.demands, made.wear)
    return {
        "method": made.method.code,
        "rules": made.draft.rules,
        "options": {code: _value(value) for code, value in made.options.items()},
        "ease": {code: _value(value) for code, value in made.ease.items()},
        "notes": [note.text(METRIC) for note in made.notes],
        **({"refused": [{"step": r.step, "message": r.saying.text(METRIC)} for r in made.refused]} if made.refused else {}),
        **({"stale": list(made.stale)} if made.stale else {}),
        "points": {name: _spot(point) for name, point in made.points.items()},
        "pieces": [_piece(piece) for piece in made.laid],
        "seams": [_seam(seam) for seam in made.garment.seams],
        "girths": [
            {
                "level": girth.name,
                "finished": _round(finished(case, girth)),
                "body": _round(girth.body),
                "ease": _round(finished(case, girth) - girth.body),
                "planned": None if girth.planned is None else _round(girth.planned),
            }
            for girth in made.girths
        ],
        "checks": [
            {
                "name": check.name,
                "verdict": check.verdict,
                "figure": _round(check.figure),
                "tolerance": _round(check.tolerance),
                "low": None if check.low is None else _round(check.low),
                "high": None if check.high is None else _round(check.high),
                "message": check.message.text(METRIC),
            }
            for check in made.checks
        ],
        "steps": [
            {
                "n": step.number,
                "title": step.title,
                "text": step.text.text(METRIC),
                "working": [f"{line.name}: {line.quantity.working()} = {line.quantity.figure()}" for line in step.sums],
            }
            for step in made.steps
        ],
    }


def _piece(piece: Piece) -> dict[str, Any]:
    return {
        "name": piece.name,
        "layer": piece.layer,
        "stands": piece.stands,
        "edges": [
            {
                "name": edge.name,
                "length": _round(edge.length),
                "role": edge.role,
                "kind": edge.kind,
                **({"notches": [{"name": n.name, "along": _round(n.along)} for n in edge.notches]} if edge.notches else {}),
            }
            for edge in piece.edges
        ],
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
        **({"marks": {name: _spot(mark) for name, mark in piece.marks.items()}} if piece.marks else {}),
        "area": _round(piece.area),
    }


def _seam(seam: Seam) -> dict[str, Any]:
    """A seam: what is sewn to what; an edge that runs from its end to its start has a minus before it."""
    first, second = ([f"{'-' if entry.back else ''}{entry}" for entry in chain] for chain in (seam.first, seam.second))
    return {"name": seam.name, "title": seam.title, "first": first, "second": second}


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
        "why": METRIC.words(option.why),
    }
    if option.kind == "choice":
        found["choices"] = [{"code": c.code, "name": c.name, "why": METRIC.words(c.why)} for c in option.choices]
    else:
        found["range"] = [option.low, option.high]
        found["unit"] = "cm" if option.kind == "length" else ""
    if option.uses:
        found["default_from"] = list(option.uses)
    if option.least is not None:
        found["least"] = option.least
    return found
