"""The lists and fields inside a row of an archive: each is what it should be, or the file is refused."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from widehem.core.design.design import steps_from
from widehem.core.design.files import DesignFileError, check_step
from widehem.core.drafting.outlined_data import checked
from widehem.core.drafting.outlines import OutlineError
from widehem.core.fitting.alteration import About
from widehem.core.grading.kept import HowCast, HowGraded
from widehem.core.grading.size_chart import MOST_SIZES
from widehem.core.grading.tables import RuleTable
from widehem.core.making.book import CostumeBook
from widehem.core.making.calendar import Plan
from widehem.core.making.kept import HowMade
from widehem.core.making.lay.cloth import OnTable
from widehem.core.making.lay.kept import MOST_SHAPES, cutout_data, cutout_from, placed_data, placed_from
from widehem.core.marking.finishes import FINISHES
from widehem.core.marking.plans import KINDS, PlanError, plan_named
from widehem.core.marking.wanted import USES
from widehem.core.units import LengthError, parse_length

MOST, LONGEST = 400, 4000


class ArchiveError(ValueError):
    """An archive that cannot be taken in; one sentence naming the row and the field."""


def checked_json(where: str, value: Any, called: str) -> Any:
    """What stands in a column of lists and fields. where: 'table.column'. Raises ArchiveError."""
    check = CHECKS.get(where)
    if check is None:
        raise ArchiveError(f"{called}: {where} is not known.")
    try:
        return check(value)
    except ArchiveError as error:
        raise ArchiveError(f"{called}, {where.partition('.')[2]}: {error}") from None
    except (
        OutlineError,
        DesignFileError,
        LengthError,
        PlanError,
        KeyError,
        ValueError,
        TypeError,
        AttributeError,
        RecursionError,
    ) as error:
        raise ArchiveError(f"{called}, {where.partition('.')[2]}: {str(error)[:160] or 'it cannot be read'}") from None


def _texts(value: Any) -> dict[str, str]:
    if (
        not isinstance(value, dict)
        or len(value) > MOST
        or not all(isinstance(v, str) and len(v) < LONGEST and len(k) < 200 for k, v in value.items())
    ):
        raise ArchiveError("fields of text belong there.")
    return dict(value)


def _figures(value: Any) -> dict[str, float]:
    if (
        not isinstance(value, dict)
        or len(value) > MOST
        or not all(isinstance(v, int | float) and not isinstance(v, bool) and abs(v) < 1e6 for v in value.values())
    ):
        raise ArchiveError("fields of figures belong there.")
    return {str(k)[:80]: float(v) for k, v in value.items()}


def _steps(value: Any) -> list[dict[str, Any]]:
    if not isinstance(value, list) or len(value) > MOST or not all(isinstance(row, dict) for row in value):
        raise ArchiveError("a list of steps belongs there.")
    steps = steps_from(value)
    for number, step in enumerate(steps, 1):
        check_step(step, f"Step {number}")
    return [step.as_data() for step in steps]


def _alterations(value: Any) -> list[dict[str, Any]]:
    """The steps of one wearer's paper, each with what it is about."""
    steps = _steps(value)
    return [
        {**step, **({"about": About.from_data(_fields(row["about"])).as_data()} if "about" in row else {})}
        for step, row in zip(steps, value, strict=True)
    ]


def _noted(value: Any) -> dict[str, Any]:
    """What was noted at a fitting: fields of words and figures."""
    found = _fields(value)
    if not all(isinstance(v, str | int | float) and not isinstance(v, bool) for v in found.values()):
        raise ArchiveError("fields of words and figures belong there.")
    return {str(k)[:40]: v[:400] if isinstance(v, str) else float(v) for k, v in found.items()}


def _amounts(value: Any) -> dict[str, str]:
    found = _texts(value)
    for kind, text in found.items():
        if kind in KINDS and not 0 <= parse_length(text, "cm").cm <= 15:
            raise ArchiveError(f"{kind} is {text[:20]}: 0 to 15 cm belongs there.")
    return found


def _house(value: Any) -> dict[str, str]:
    found = _texts(value)
    _amounts({key.rpartition(".")[2]: text for key, text in found.items() if key.startswith("a.")})
    return found


def _marking(value: Any) -> dict[str, Any]:
    fields = _fields(value)
    found: dict[str, Any] = {}
    for use, entry in _fields(fields.get("plans", {})).items():
        if use in USES:
            found.setdefault("plans", {})[use] = {
                "plan": plan_named(entry["plan"]).code,
                "amounts": _amounts(entry.get("amounts", {})),
            }
    edges = _texts(fields.get("edges", {}))
    for text in edges.values():
        if not 0 <= parse_length(text, "cm").cm <= 15:
            raise ArchiveError(f"an edge has {text[:20]}: 0 to 15 cm belongs there.")
    corners = {name: finish for name, finish in _texts(fields.get("corners", {})).items() if finish in FINISHES}
    notches = [
        {"piece": str(n["piece"])[:80], "edge": str(n["edge"])[:80], "share": min(max(float(n["share"]), 0.0), 1.0), "count": 2 if n.get("count") == 2 else 1}
        for n in (_fields(entry) for entry in fields.get("notches", [])[:MOST])
    ]  # fmt: skip
    found |= {name: part for name, part in (("edges", edges), ("corners", corners), ("notches", notches)) if part}
    found |= {name: True for name in ("whole", "nap", "room") if fields.get(name) is True}
    if fields.get("drill") in ("inside", "lowered"):
        found["drill"] = fields["drill"]
    return found


def _fields(value: Any) -> dict[str, Any]:
    if not isinstance(value, dict) or len(value) > MOST:
        raise ArchiveError("fields belong there.")
    return value


def _accepted(value: Any) -> dict[str, Any]:
    return {
        str(name)[:120]: {"word": str(entry["word"])[:300], "by": str(entry["by"])[:120], "figure": float(entry["figure"])}
        for name, entry in _fields(value).items()
    }


def _design(value: Any) -> dict[str, Any]:
    fields = _fields(value)
    found: dict[str, Any] = {
        "options": _texts(fields["options"]),
        "ease": _texts(fields["ease"]),
        "steps": _steps(fields["steps"]),
    }
    return {**found, "outlines": checked(fields["outlines"])} if fields.get("outlines") else found


def _numbers(value: Any) -> list[int]:
    if not isinstance(value, list) or len(value) > MOST or not all(isinstance(v, int) for v in value):
        raise ArchiveError("a list of numbers belongs there.")
    return list(value)


def _grading(value: Any) -> dict[str, Any]:
    return HowGraded.from_data(_fields(value)).as_data() if value else {}


def _cast(value: Any) -> dict[str, Any]:
    return HowCast.from_data(_fields(value)).as_data() if value else {}


def _names(value: Any) -> list[str]:
    if not isinstance(value, list) or len(value) > MOST_SIZES or not all(isinstance(v, str) and len(v) <= 20 for v in value):
        raise ArchiveError("a list of short names belongs there.")
    return list(value)


def _rows_of_sizes(value: Any) -> dict[str, list[float]]:
    found = {str(code): [float(v) for v in values] for code, values in _fields(value).items()}
    if any(len(values) > MOST_SIZES or any(not 0 < v < 500 for v in values) for values in found.values()):
        raise ArchiveError("rows of figures in centimetres belong there.")
    return found


def _rules(value: Any) -> dict[str, Any]:
    return RuleTable.from_data("archived", "Archived", _fields(value)).as_data()


def _making(value: Any) -> dict[str, Any]:
    return HowMade.from_data(_fields(value)).as_data()


def _book(value: Any) -> dict[str, Any]:
    return CostumeBook.from_data(_fields(value)).as_data()


def _days(value: Any) -> dict[str, Any]:
    return Plan.from_data(_fields(value)).as_data()


def _on_table(value: Any) -> dict[str, Any]:
    return OnTable(**_fields(value)).data


def _shapes(value: Any) -> list[Any]:
    if not isinstance(value, list) or len(value) > MOST_SHAPES:
        raise ArchiveError("a list of shapes belongs there.")
    return [cutout_data(cutout_from(_fields(row))) for row in value]


def _placed(value: Any) -> list[Any]:
    if not isinstance(value, list) or len(value) > MOST_SHAPES:
        raise ArchiveError("a list of places belongs there.")
    return placed_data(placed_from(value))


def _short_texts(value: Any) -> list[str]:
    if not isinstance(value, list) or len(value) > MOST_SHAPES or not all(isinstance(v, str) and len(v) <= 40 for v in value):
        raise ArchiveError("a list of numbers of shapes belongs there.")
    return list(value)


def _stock(value: Any) -> list[Any]:
    if not isinstance(value, list) or len(value) > MOST:
        raise ArchiveError("a list of leftovers belongs there.")
    return [
        {
            "name": str(row["name"])[:120], "stock": int(row.get("stock", 0)), "length": float(row["length"]), "cloth": _on_table(row["cloth"]),
            "placed": _placed(row["placed"]),
        }
        for row in map(_fields, value)
    ]  # fmt: skip


CHECKS: Mapping[str, Callable[[Any], Any]] = {
    "house_table.row": _figures, "house_table.formulas": _texts, "design.options": _texts, "design.ease": _texts, "design.steps": _steps,
    "design.outlines": checked, "design_version.data": _design, "docket.options": _texts, "docket.ease": _texts, "docket.house": _house,
    "docket.armhole": _texts, "docket.amounts": _amounts, "docket.looks": _texts, "docket.alterations": _alterations, "docket.marking": _marking,
    "docket.accepted": _accepted, "fitting_event.data": _noted, "docket.stays": _design, "note.pictures": _numbers, "design.grading": _grading, "production.cast": _cast, "house_sizes.sizes": _names, "house_sizes.letters": _names,
    "house_sizes.rows": _rows_of_sizes, "house_rules.data": _rules, "docket.making": _making, "house_cloth.parts": _texts, "house_cloth.own": _texts,
    "book.data": _book, "production.plan": _days, "lay.dockets": _numbers, "lay.cloth": _on_table, "lay.lies_on": lambda value: _on_table(value) if value else {}, "lay.shapes": _shapes, "lay.placed": _placed, "lay.rest": _short_texts, "lay.stock": _stock,
}  # fmt: skip
