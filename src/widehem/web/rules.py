"""Tables of shift rules: the one that ships to look at and copy, the workroom's own to change, each with its test."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for

from widehem.core.grading.first_table import FIRST
from widehem.core.grading.proof import missed, proof
from widehem.core.grading.table_file import MOST_BYTES, rules_from_json, rules_json
from widehem.core.grading.tables import KINDS, Rule, RuleTable, TableError
from widehem.core.output.sheets import PAPERS
from widehem.core.pattern.edge import PatternError
from widehem.core.shifting.spots import SpotError, words_of
from widehem.core.units import Display, LengthError, parse_length, parse_signed
from widehem.store.grading import SHIPPED_RULES, all_rules, begin_rules, graded_by
from widehem.store.journal import tell
from widehem.store.models import HouseRules
from widehem.web.handed import handed
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.numbers import is_number
from widehem.web.selvedge import Selvedge
from widehem.web.show import display
from widehem.web.sizes import free_name
from widehem.web.stood import moved
from widehem.web.writing import writing

pages = Blueprint("rules", __name__)
LONGEST, NEW = 60, 3  # signs of a name; empty rows that are offered for each kind


@pages.get("/rules")
@pages.get("/rules/<code>")
def table(code: str = "first") -> Any:
    """One table of shift rules, and what a step of it does."""
    return _page(code, {}, None)


def shift_text(cm: float) -> str:
    """A shift as it is said: in inches to a sixty-fourth."""
    return "0" if abs(cm) < 5e-4 else Display(display().unit, 64).signed(cm, 2 if abs(cm * 100 - round(cm * 100)) < 1e-6 else 3)


def _page(code: str, errors: Mapping[str, str], typed: Mapping[str, str] | None) -> Any:
    show = display()
    with current_store().read() as session:
        tables = all_rules(session)
        used = graded_by(session, code, "rules")
        version = _own(session, code).version if code not in SHIPPED_RULES else 0
    if code not in tables:
        abort(404)
    shown, own = tables[code], code not in SHIPPED_RULES
    first = {(kind, rule.pattern): rule for kind, rules in FIRST.kinds.items() for rule in rules}
    said = typed or {}
    kinds = []
    for kind, title in KINDS.items():
        rules = shown.kinds.get(kind, ())
        rows = [
            {
                "field": f"{kind}.{number}", "words": words_of(rule.pattern), "pattern": said.get(f"{kind}.{number}.spot", rule.pattern),
                "out": said.get(f"{kind}.{number}.out", shift_text(rule.out)), "up": said.get(f"{kind}.{number}.up", shift_text(rule.up)),
                "error": errors.get(f"{kind}.{number}", ""),
                "usual": first.get((kind, rule.pattern)) if first.get((kind, rule.pattern)) != rule else None, "new": (kind, rule.pattern) not in first,
            }
            for number, rule in enumerate(rules)
        ]  # fmt: skip
        more = [{"field": f"{kind}.{n}", "pattern": said.get(f"{kind}.{n}.spot", ""), "out": said.get(f"{kind}.{n}.out", ""), "up": said.get(f"{kind}.{n}.up", ""),
                 "error": errors.get(f"{kind}.{n}", ""), "usual": None, "new": False} for n in range(len(rules), len(rules) + NEW)] if own else []  # fmt: skip
        if rows or more:
            kinds.append((kind, title, [*rows, *more]))
    bands = [
        {"since": since, "kind": kind, "title": KINDS[kind], "rule": rule, "words": words_of(rule.pattern), "from": f"from {abs(since)} step{'s' if abs(since) > 1 else ''} {'above' if since > 0 else 'below'} the base on"}
        for since in sorted(shown.bands)
        for kind in shown.bands[since]
        for rule in shown.rules_of(kind, since)
    ]  # fmt: skip
    try:
        lines = proof(shown)
    except PatternError:
        lines = missed(shown)
    wrong = [line for line in lines if not line.true]
    slots = [
        Slot(
            "Rules",
            "count",
            str(sum(len(rules) for rules in shown.kinds.values())),
            "spots",
            f"a step is {show.full(shown.unit)}",
        ),
        Slot(
            "Test",
            "look" if wrong else "true",
            str(len(wrong)),
            "figures off",
            wrong[0].title if wrong else f"{len(lines)} figures as they should be",
        ),
        Slot("Graded by it", "count", str(len(used)), "designs", ", ".join(used[:2])),
    ]
    return render_template(
        "rules.html", tables=tables, shown=shown, own=own, kinds=kinds, bands=bands, shift=shift_text, lines=lines, wrong=wrong, errors=errors, used=used, version=version,
        name=said.get("name", shown.name), unit=said.get("unit", show.length(shown.unit)), selvedge=Selvedge(), slots=slots, tally="",
        next=Next("Back to the designs", url_for("designs.index")),
    )  # fmt: skip


@pages.post("/rules/<code>/copy")
def copy(code: str) -> Any:
    """A table of the workroom's own, as this one is."""
    with writing() as session:
        tables = all_rules(session)
        if code not in tables:
            abort(404)
        row = begin_rules(session, tables[code], free_name(f"{tables[code].name}, ours", [t.name for t in tables.values()]))
        tell(session, f"Copied the table of rules {tables[code].name}.")
        new = row.code
    return redirect(url_for(".table", code=new), 303)


@pages.post("/rules/<code>")
def keep(code: str) -> Any:
    """Keep a table of the workroom; nothing is kept while a rule cannot be read. A rule without a spot is left out."""
    form, errors = request.form, dict[str, str]()
    with writing() as session:
        row = _own(session, code)
        was = RuleTable.from_data(code, row.name, row.data)
        kinds = {kind: rules for kind in KINDS if (rules := _rules(kind, was.kinds.get(kind, ()), form, errors))}
        name = " ".join(form.get("name", "").split())[:LONGEST]
        taken = {t.name.lower() for other, t in all_rules(session).items() if other != code}
        if not name or name.lower() in taken:
            errors["name"] = (
                "The table has no name yet: write one."
                if not name
                else f"There is a table called {name} already: give this one another name."
            )
        unit = _unit(form, was.unit, errors)
        if moved(row.version):
            errors["name"] = (
                f"Somebody kept this table meanwhile, as {row.name}. Yours stands here: keep it again to put it in its place."
            )
        if not errors:
            try:
                made = RuleTable(code, name, unit, kinds, was.bands)
            except TableError as error:
                errors["name"] = str(error)
            else:
                tell(session, f"Kept the table of rules {name}.")
                row.name, row.data = name, made.as_data()
    if errors:
        return _page(code, errors, form), 422
    return redirect(url_for(".table", code=code), 303)


@pages.post("/rules/<code>/since")
def since(code: str) -> Any:
    """A rule that held from a size on only, away."""
    form = request.form
    with writing() as session:
        row = _own(session, code)
        was = RuleTable.from_data(code, row.name, row.data)
        steps = form.get("since", "")
        if not steps.removeprefix("-").isdecimal() or int(steps) not in was.bands or form.get("kind", "") not in KINDS:
            abort(400)
        tell(session, f"{row.name}: one rule from a size on less.")
        row.data = was.without(form["kind"], form.get("pattern", ""), int(steps)).as_data()
    return redirect(url_for(".table", code=code), 303)


def _unit(form: Mapping[str, str], was: float, errors: dict[str, str]) -> float:
    """The step a table is for, cm."""
    show = display()
    text = form.get("unit", "").strip()
    if text == show.length(was) or "unit" not in form:
        return was
    try:
        return parse_length(text, show.unit).cm
    except LengthError as error:
        errors["unit"] = f"A step: {error}"
        return was


def _rules(kind: str, was: tuple[Rule, ...], form: Mapping[str, str], errors: dict[str, str]) -> tuple[Rule, ...]:
    """The rules of a kind as they stand in a form."""
    show, found = display(), []
    for number in range(len(was) + NEW):
        field = f"{kind}.{number}"
        pattern = " ".join(form.get(f"{field}.spot", was[number].pattern if number < len(was) else "").split())
        if not pattern:
            continue
        old = was[number] if number < len(was) else Rule("", 0.0, 0.0)
        figures = []
        for way, value in (("out", old.out), ("up", old.up)):
            text = form.get(f"{field}.{way}", shift_text(value)).strip()
            if text == shift_text(value):
                figures.append(value)
                continue
            try:
                figures.append(parse_signed(text or "0", show.unit))
            except LengthError as error:
                errors[field] = f"{KINDS[kind]}, {pattern}, {way}: {error}"
                figures.append(value)
        rule = Rule(pattern, *figures)
        try:
            RuleTable("tried", "Tried", 4.0, {kind: (rule,)})
        except (TableError, SpotError) as error:
            errors.setdefault(field, str(error))
        found.append(rule)
    return tuple(found)


@pages.post("/rules/<code>/delete")
def delete(code: str) -> Any:
    """Delete a table of the workroom that no design is graded by."""
    with writing() as session:
        row = _own(session, code)
        used = graded_by(session, code, "rules")
        if not used:
            tell(session, f"Deleted the table of rules {row.name}.")
            session.delete(row)
    if used:
        return _page(
            code,
            {
                "used": f"{', '.join(used[:3])} {'is' if len(used) == 1 else 'are'} graded by it: give them another table, then delete it."
            },
            None,
        ), 422
    return redirect(url_for(".table"), 303)


@pages.get("/rules/<code>/file")
def file(code: str) -> Response:
    """The table as a file."""
    with current_store().read() as session:
        tables = all_rules(session)
    if code not in tables:
        abort(404)
    return handed(rules_json(tables[code]), f"{tables[code].name} rules.json", "application/json")


@pages.post("/rules/read")
def read() -> Any:
    """A table of the workroom from a file."""
    sent = request.files.get("file")
    try:
        made = rules_from_json(sent.read(MOST_BYTES + 1) if sent is not None else b"")
    except TableError as error:
        return _page("first", {"file": str(error)}, None), 422
    with writing() as session:
        row = begin_rules(session, made, free_name(made.name, [t.name for t in all_rules(session).values()]))
        tell(session, f"Took in the table of rules {row.name}.")
        new = row.code
    return redirect(url_for(".table", code=new), 303)


@pages.get("/rules/<code>/ruler")
def ruler(code: str) -> Response:
    """The table as a grading ruler in true size, to be glued on card."""
    from widehem.core.output.pdf_ruler import ruler_pdf

    with current_store().read() as session:
        tables = all_rules(session)
    if code not in tables:
        abort(404)
    paper = (
        PAPERS[request.args.get("paper", "a4")]
        if PAPERS.get(request.args.get("paper", "a4"), PAPERS["one"]).height
        else PAPERS["a4"]
    )
    return handed(ruler_pdf(tables[code], paper, display()), f"{tables[code].name} grading ruler.pdf", "application/pdf")


def _own(session: Any, code: str) -> HouseRules:
    """A table of the workroom's own. 404 when it is none."""
    number = code.removeprefix("house-")
    row: HouseRules | None = session.get(HouseRules, int(number)) if is_number(number) and code.startswith("house-") else None
    if row is None:
        abort(404)
    return row
