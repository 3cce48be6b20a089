"""Compare: a garment laid over the same by another school, another ease, or on another chart; and how touchy it is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for
from markupsafe import Markup

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.design.compare import ALIGN, Row, compare_made, laid_over
from widehem.core.design.design import Design, method_design
from widehem.core.design.make import Made
from widehem.core.design.sensitivity import Move
from widehem.core.design.ships import shipped
from widehem.core.drafting.method import METHODS, WHOLE, Method
from widehem.core.output.svg_compare import compare_svg
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.values import replace
from widehem.jobs.ledger import Job
from widehem.jobs.touchiness import TOUCHINESS, read_touchiness, touch_key
from widehem.store.charts import charts_of, core_chart
from widehem.store.designs import bare_design
from widehem.store.dockets import dockets_of, find_docket
from widehem.store.ease import all_plans
from widehem.store.journal import tell
from widehem.store.making import Work
from widehem.store.models import ChartRow
from widehem.store.recipes import designs, find_design, named_of
from widehem.store.versions import as_it_was, version_numbered, versions_of
from widehem.web.at_work import SHORT, ask
from widehem.web.board_settings import settings_of
from widehem.web.board_state import OPTION, design_with, kept_settings, known_setting, settings_from
from widehem.web.drawn_by import load
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, current_works
from widehem.web.selvedge import selvedge
from widehem.web.show import day, display, figure, said
from widehem.web.stood import both, merged
from widehem.web.writing import writing

pages = Blueprint("compare", __name__)
MOVES_SHOWN = 3
VERSIONS = 20  # earlier ones that are offered


LOOKS = {
    "structure": ("Structure", "long enough, wide enough"),
    "neckline": ("Neckline", "neither tight nor gaping; the front lower than the back"),
    "lines": ("Main lines", "level and plumb"),
    "armhole": ("Armhole", "no gape in front, no strain behind"),
    "shoulder": ("Shoulder line", "sits on the neck, ends at the bone"),
    "darts": ("Darts", "place, number, size"),
}
VERDICTS = {"": "not looked at", "right": "right", "change": "to change"}
LONGEST = 300


@dataclass(frozen=True)
class Other:
    """Something a garment can be held against: its code in the address, how it is called, its draft or why there is none."""

    code: str
    name: str
    draft: Made | None
    trouble: str = ""


@pages.get("/dockets/<int:docket_id>/compare")
def compare(docket_id: int) -> Any:
    """Two drafts over each other with the table of what differs."""
    work = load(docket_id)
    mine = _own(work)
    groups_of_choices = _choices(work, mine.draft, request.args.get("with", ""))
    choices = {code: name for entries in groups_of_choices.values() for code, name in entries.items()}
    wanted = request.args.get("with", next(iter(choices), ""))
    at = request.args.get("at", "waist")
    at = at if at in ALIGN else "waist"
    other = _other(work, wanted, choices) if mine.draft is not None and wanted in choices else None
    rows: tuple[Row, ...] = ()
    drawing = box = ""
    if mine.draft is not None and other is not None and other.draft is not None:
        rows = compare_made(mine.draft, other.draft)
        drawing, box = compare_svg(laid_over(mine.draft, other.draft, at))
    differing = [row for row in rows if row.differs]
    groups: dict[str, list[Row]] = {}
    for row in rows:
        groups.setdefault(row.group, []).append(row)
    touchy, job = _touchy(work) if request.args.get("touchy") == "1" else (None, None)
    show = display()
    widest = max((abs(row.by) for row in differing if row.by is not None and not row.area), default=0.0)
    slots = [
        Slot(
            "What differs",
            "count",
            str(len(differing)),
            f"of {len(rows)}",
            "figures of both drafts",
        ),
        Slot("The most", "count", figure(show.length(widest)), show.unit, "between two like lengths"),
    ]
    return render_template(
        "compare.html", docket=work.docket, mine=mine, other=other, choices=groups_of_choices, wanted=wanted, at=at,
            align=ALIGN, groups=groups,
        looks=LOOKS, verdicts=VERDICTS, noted=work.docket.looks,
        drawing=Markup(drawing), box=box, touchy=touchy, job=job, catalogue=CATALOGUE,
        selvedge=selvedge(work.docket.wearer, work.docket, work.chart, "draft", "compare", work.changed), slots=slots, tally="",
        next=Next("Back to the draft", url_for("board.draft", docket_id=docket_id)),
    )  # fmt: skip


@pages.post("/dockets/<int:docket_id>/looks")
def note_looks(docket_id: int) -> Any:
    """Note what was seen when the draft, or its toile, was looked at."""
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        tell(session, f"Noted how {docket.name} looks.", docket)
        stood = dict(docket.looks)
        seen = merged({name: stood.get(name, "") for name in LOOKS}, {name: request.form.get(name, "") for name in LOOKS})
        typed = {name: request.form.get(name, "") for name in seen.clashes}  # who looks last has seen most
        found = {name: value for name, value in {**seen.kept, **typed}.items() if value in ("right", "change")}
        others = [f"{LOOKS[name][0].lower()} was {VERDICTS[theirs]} to somebody else" for name, theirs in seen.clashes.items()]
        words = both(stood.get("note", ""), request.form.get("note", ""), "note", LONGEST)
        words = "; ".join([*([words] if words else []), *others])
        docket.looks = {**found, **({"note": words} if words else {})}
    back: dict[str, Any] = {name: request.form[name] for name in ("with", "at") if request.form.get(name)}
    return redirect(url_for(".compare", docket_id=docket_id, **back), 303)


def _own(work: Work) -> Other:
    kept = kept_settings(work.docket)
    return _drafted(work, "own", work.docket.name, work.method.code, kept)


def _drafted(work: Work, code: str, name: str, method: str, settings: dict[str, str], rules: int | None = None) -> Other:
    """A garment on the chart of a docket. method: of another school; rules: other ones than those the docket is drawn by."""
    base = bare_design(work.docket, rules) if method == work.method.code else method_design(METHODS[method])
    try:
        design = design_with(base, settings)
    except OptionError as error:
        return Other(code, name, None, str(error))
    return _whole_design(work, code, name, design)


def _choices(work: Work, made: Made | None, wanted: str = "") -> dict[str, dict[str, str]]:
    """What the garment can be held against, by kind: schools, plans of ease, options, charts, other garments of this wearer."""
    method = work.method
    schools = {
        f"method:{other.code}": other.name
        for other in METHODS.values()
        if other.group == method.group != WHOLE and other.code != method.code
    }
    if work.docket.all_options or work.docket.ease:
        schools["defaults"] = "The same with nothing set"
    options = {
        f"set:{option.code}={choice.code}": f"{option.name}: {choice.name.lower()}"
        for option in method.options
        if option.kind == "choice"
        for choice in option.choices
        if made is not None and made.options[option.code] != choice.code
    }
    with current_store().read() as session:
        plans = {f"plan:{plan.code}": plan.name for plan in all_plans(session).values()} if method.ease else {}
        charts = {
            f"chart:{row.id}": f"The same on the chart of {day(row.taken_on)}"
            for row in charts_of(session, work.docket.wearer_id)
            if work.row is None or row.id != work.row.id
        }
        garments = {
            f"docket:{docket.id}": docket.name
            for docket in dockets_of(session, work.docket.wearer_id)
            if docket.id != work.docket.id and docket.method in METHODS and METHODS[docket.method].group == method.group
        }
        recipes = {
            f"design:{row.id}": row.name
            for row in designs(session)
            if _alike(row.method, method) and row.id != work.docket.design_id
        }
    recipes.update(
        {
            f"ships:{code}": f"{named.name}, as it ships"
            for code, named in shipped().items()
            if _alike(named.design.method, method)
        }
    )
    bare = {"block": "The block, without its recipe"} if work.docket.of_design("steps") else {}
    rules = {f"rules:{method.rules}": "By today's rules of its method"} if work.by_older_rules else {}
    with current_store().read() as session:
        earlier = {
            f"version:{version.number}": f"As it was on {day(version.at)}: {version.words}"
            for version in versions_of(session, work.docket)[1:]
            if version.drawn or f"version:{version.number}" == wanted
        }
    found = {
        "Before and after": bare, "Earlier versions": dict(list(earlier.items())[:VERSIONS]), "Other rules": rules, "Other schools": schools, "Other charts": charts, "Other garments": garments, "Other designs": recipes,
            "Other plans of ease": plans,
        "Another option": options,
    }  # fmt: skip
    return {title: entries for title, entries in found.items() if entries}


def _other(work: Work, wanted: str, choices: dict[str, str]) -> Other:
    kept = kept_settings(work.docket)
    kind, _, code = wanted.partition(":")
    name = choices[wanted]
    if kind == "method":
        shared = {key: text for key, text in kept.items() if known_setting(METHODS[code], key) and _usable(code, key, text)}
        return _drafted(work, wanted, name, code, shared)
    if kind == "rules":
        return _drafted(work, wanted, name, work.method.code, kept, work.method.rules)
    if kind == "defaults":
        return _drafted(work, wanted, name, work.method.code, {})
    if kind == "set":
        option, _, choice = code.partition("=")
        return _drafted(work, wanted, name, work.method.code, {**kept, OPTION + option: choice})
    if kind == "plan":
        with current_store().read() as session:
            plan = all_plans(session)[code]
        settings = {**kept, **{key: text for key, text in settings_of(plan, work.method).items() if text}}
        return _drafted(work, wanted, name, work.method.code, settings)
    if kind == "version":
        with current_store().read() as session:
            version = version_numbered(session, work.docket.id, int(code))
            if version is None:
                abort(404)
            was = as_it_was(session, work, version)
        return _drafted(was, wanted, name, was.method.code, kept_settings(was.docket))
    if kind == "block":
        return _whole_design(work, wanted, name, replace(work.design(), steps=()))
    if kind == "ships":
        return _whole_design(work, wanted, name, shipped()[code].design)
    if kind == "design":
        with current_store().read() as session:
            recipe = find_design(session, int(code))
            if recipe is None:
                abort(404)
            design = named_of(recipe).design
        return _whole_design(work, wanted, name, design)
    if kind == "docket":
        other = load(int(code))
        return _drafted(other, wanted, name, other.method.code, kept_settings(other.docket))
    with current_store().read() as session:
        row = session.get(ChartRow, int(code)) if code.isdecimal() else None
        if row is None or row.wearer_id != work.docket.wearer_id:
            abort(404)
        return _drafted(work.on(core_chart(session, row)), wanted, name, work.method.code, kept)


def _alike(code: str, method: Method) -> bool:
    """Whether a design is drawn by a method of the same kind."""
    return code in METHODS and METHODS[code].group == method.group


def _whole_design(work: Work, code: str, name: str, design: Design) -> Other:
    """Another design on the chart of a docket."""
    try:
        return Other(code, name, work.made(design))
    except OptionError as error:
        return Other(code, name, None, str(error))
    except CannotDraft as refusal:
        return Other(code, name, None, said(refusal.saying))


def _usable(method: str, key: str, text: str) -> bool:
    """Whether a setting of one school means the same and is in range in another."""
    try:
        settings_from(METHODS[method], {key: text})
    except OptionError:
        return False
    return True


def _touchy(work: Work) -> tuple[list[tuple[str, list[Move]]], Job | None]:
    """For every measure of the garment what one centimetre more moves, the touchiest first; while that is found, the work at
    it."""
    ledger, name = current_works().ledger, touch_key(work)
    kept = ledger.found([name])
    job = None
    if not kept:
        job = ask(TOUCHINESS, {"docket": work.docket.id}, f"Finding what moves {work.docket.name}", name)
        job = current_works().wait(job, SHORT)
        kept = ledger.found([name])
    return (read_touchiness(kept[name]), None) if kept else ([], job)
