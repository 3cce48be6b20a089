"""Rules written where they are seen: for one spot of one piece, for every piece of its kind, and settings that change with the size."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from flask import Blueprint, abort, redirect, request, url_for

from widehem.core.grading.kept import HowGraded
from widehem.core.grading.nest import Break, Nest
from widehem.core.grading.own import OwnRule
from widehem.core.grading.tables import KINDS, MOST, Rule, RuleTable, TableError, kind_of, rules_for
from widehem.core.grading.views import Dotting
from widehem.core.setting.option import OptionError
from widehem.core.units import LengthError, parse_signed
from widehem.core.values import replace
from widehem.store.grading import begin_rules
from widehem.store.journal import tell
from widehem.store.models import HouseRules
from widehem.store.recipes import find_design
from widehem.web.nests import Graded, graded
from widehem.web.rules import shift_text
from widehem.web.show import display
from widehem.web.sizes import free_name
from widehem.web.writing import writing

pages = Blueprint("grading_rules", __name__)


def rule_form(found: Graded, nest: Nest, here: Dotting) -> dict[str, Any]:
    """What stands in the form for the rule of a spot. pattern: of the table, where one rules it; '' where none does."""
    piece = nest.sizes[nest.base].garment.piece(here.piece)
    kind = kind_of(piece)
    rule = rules_for(found.grading.table, piece).get(here.place.target) if kind else None
    own = next((r for r in found.how.own if r.piece == here.piece and r.text == here.place.text), None)
    table = found.grading.table
    bands = [
        {"since": since, "rule": band, "words": since_words(nest.names, nest.base, since)}
        for since in sorted(table.bands)
        if (band := rules_for(table, piece, since).get(here.place.target)) in table.rules_of(kind, since)
    ]
    step = next((step for step in here.steps if step is not None), (0.0, 0.0))
    out, up = (own.out, own.up) if own is not None else (rule.out, rule.up) if rule is not None else step
    return {
        "out": request.args.get("out", shift_text(out)), "up": request.args.get("up", shift_text(up)), "own": own is not None, "pattern": rule.pattern if rule is not None else "",
        "kind": KINDS.get(kind, ""), "table": table.name, "own_table": table.code.startswith("house-"), "bands": bands,
        "since": [(at - nest.base, since_words(nest.names, nest.base, at - nest.base)) for at in range(len(nest.names)) if at != nest.base],
        "chosen": request.args.get("since", ""), "wrong": request.args.get("wrong", "")[:300],
    }  # fmt: skip


def since_words(names: Sequence[str], base: int, since: int) -> str:
    """So many steps from the base on, in words: 'from size 8 up'."""
    at = base + since
    return f"from {f'size {names[at]}' if 0 <= at < len(names) else f'{abs(since)} steps'} {'up' if since > 0 else 'down'}"


@pages.post("/designs/<int:design_id>/sizes/rule")
def rule(design_id: int) -> Any:
    """Another shift for a spot: of this piece only, or by the table for all pieces of its kind; or back to what it was."""
    found, form, show = graded(design_id), request.form, display()
    piece, spot, where = form.get("piece", "")[:120], form.get("spot", "")[:120], form.get("where", "piece")

    def dots(**more: str) -> Any:
        return redirect(url_for("grading.dots", design_id=design_id, piece=piece, spot=spot, **more), 303)  # type: ignore[arg-type]

    nest = found.nest
    shown = next((p for p in nest.sizes[nest.base].garment.pieces if p.name == piece), None) if nest.sizes else None
    if shown is None or not spot:
        abort(400)
    if where == "away":
        own = tuple(r for r in found.how.own if (r.piece, r.text) != (piece, spot))
        _keep(
            design_id, replace(found.how, own=own), f"{found.row.name}: no rule of its own for {spot} of the {piece} any more."
        )
        return dots()
    kind, since = kind_of(shown), _since(form.get("since", ""), nest)
    if where == "band" and kind:
        pattern = form.get("pattern", "")[:120]
        change = found.grading.table.without(kind, pattern, since)
        _in_table(design_id, found, change, f"no other rule for {pattern} {since_words(nest.names, nest.base, since)} any more")
        return dots()
    shift: dict[str, float] = {}
    wrong: list[str] = []
    for way in ("out", "up"):
        text = form.get(way, "").strip()
        try:
            shift[way] = 0.0 if text in ("", "0") else parse_signed(text, show.unit)
        except LengthError as error:
            wrong.append(f"{way.capitalize()}: {error}")
            continue
        if abs(shift[way]) > MOST:
            wrong.append(
                f"{way.capitalize()}: {show.full(shift[way])} is more than a spot moves a step; {show.full(MOST)} is the most."
            )
    if wrong:
        return dots(wrong=" ".join(wrong), out=form.get("out", ""), up=form.get("up", ""), since=form.get("since", ""))
    if where == "piece":
        own = (
            *(r for r in found.how.own if (r.piece, r.text) != (piece, spot)),
            OwnRule(piece, spot, shift["out"], shift["up"]),
        )
        _keep(design_id, replace(found.how, own=own), f"{found.row.name}: a rule of its own for {spot} of the {piece}.")
        return dots()
    if not kind:
        abort(400)
    made = Rule((form.get("pattern", "") or spot)[:120], shift["out"], shift["up"])
    try:
        changed = found.grading.table.with_rule(kind, made, since)
    except TableError:
        abort(400)
    when = f" {since_words(nest.names, nest.base, since)}" if since else ""
    _in_table(design_id, found, changed, f"another rule for {made.pattern}{when}")
    return dots()


def _since(text: str, nest: Nest) -> int:
    """So many steps from the base on; 0 for every size. 400 for what is no size of the nest."""
    if text in ("", "0"):
        return 0
    if not text.removeprefix("-").isdecimal() or not 0 <= nest.base + int(text) < len(nest.names):
        abort(400)
    return int(text)


def _in_table(design_id: int, found: Graded, changed: RuleTable, words: str) -> None:
    """The table this design is graded by, changed; a table that ships is copied first, and the copy is taken."""
    table = found.grading.table
    with writing() as session:
        row = find_design(session, design_id)
        number = table.code.removeprefix("house-")
        own = session.get(HouseRules, int(number)) if table.code.startswith("house-") and number.isdecimal() else None
        if row is None:
            abort(404)
        tell(session, f"{table.name}: {words}.")
        if own is None:
            own = begin_rules(
                session, changed, free_name(f"{table.name}, for {row.name}", [t.name for t in found.tables.values()])
            )
            row.grading = replace(found.how, rules=own.code).as_data()
        else:
            own.data = changed.as_data()


@pages.post("/designs/<int:design_id>/sizes/break")
def breaks(design_id: int) -> Any:
    """A setting that is another from a size on; or that one away."""
    found, form = graded(design_id), request.form
    kept = list(found.how.breaks)
    if (gone := form.get("away", "")) and gone.isdecimal() and int(gone) < len(kept):
        kept.pop(int(gone))
        _keep(design_id, replace(found.how, breaks=tuple(kept)), f"{found.row.name}: a setting is the same in all sizes again.")
        return redirect(url_for("grading.nest", design_id=design_id) + "#breaks", 303)
    where, _, setting = form.get("what", "").partition(".")
    option = _option(found, where, setting)
    if option is None or form.get("size", "") not in found.grading.chart.sizes:
        abort(400)
    size = found.grading.chart.sizes.index(form["size"])
    text = form.get("value", "").strip()
    try:
        value = option.check(parse_signed(text, display().unit) if option.kind == "length" else text)
    except (LengthError, OptionError) as error:
        return redirect(
            url_for(
                "grading.nest",
                design_id=design_id,
                wrong=f"{option.name}: {error}"[:300],
                what=form.get("what", ""),
                from_size=form["size"],
                value=text,
            )
            + "#breaks",
            303,
        )
    kept = [b for b in kept if (b.where, b.setting, b.size) != (where, setting, size)]
    kept.append(Break(where, setting, size, value))
    _keep(
        design_id,
        replace(found.how, breaks=tuple(kept)),
        f"{found.row.name}: {option.name.lower()} is another from size {form['size']} on.",
    )
    return redirect(url_for("grading.nest", design_id=design_id) + "#breaks", 303)


def _option(found: Graded, where: str, setting: str) -> Any:
    """A setting of the drawing or of a step of a design, by its code."""
    if not where:
        return next((option for option in found.design.drawn_by.options if option.code == setting), None)
    step = next((step for step in found.design.steps if step.id == where), None)
    return next((option for option in step.operation.options if option.code == setting), None) if step is not None else None


def settings_of(found: Graded) -> list[tuple[str, str]]:
    """Settings that can break at a size: their codes and what they are."""
    drawn = [
        (f".{option.code}", f"{found.design.drawn_by.name}: {option.name.lower()}")
        for option in found.design.drawn_by.options
        if option.kind == "length"
    ]
    steps = [
        (f"{step.id}.{option.code}", f"{step.operation.title}: {option.name.lower()}")
        for step in found.design.steps
        for option in step.operation.options
        if option.kind == "length"
    ]
    return [*steps, *drawn]


def _keep(design_id: int, made: HowGraded, words: str) -> None:
    with writing() as session:
        row = find_design(session, design_id)
        if row is None:
            abort(404)
        tell(session, words)
        row.grading = made.as_data()
