"""Grading a design: its nest, its dots, its figures, its ways side by side, its sizes mixed on one body."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any
from urllib.parse import urlencode

from flask import Blueprint, abort, redirect, render_template, request, url_for
from markupsafe import Markup

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.grading.differ import difference
from widehem.core.grading.drift import drifts, girths
from widehem.core.grading.increments import increments
from widehem.core.grading.kept import HowGraded
from widehem.core.grading.mix import SCHOOLS, Mix, Mixed, MixError, fits, mixed
from widehem.core.grading.mixing import CENTRE, FOOT, SIDE, TOP
from widehem.core.grading.nest import WAYS, Break, Nest
from widehem.core.grading.tables import NOTHING
from widehem.core.grading.views import SOURCES, Anchor, anchors, dottings, inherited
from widehem.core.output.svg_nest import dots_svg, nest_svg, over_svg
from widehem.core.pattern.check import Check
from widehem.core.pattern.roles import plain
from widehem.core.shifting.spots import SpotError, targets
from widehem.store.charts import core_chart, latest_chart
from widehem.store.dockets import productions
from widehem.store.journal import tell
from widehem.store.models import Wearer
from widehem.store.recipes import find_design
from widehem.web.grading_rules import rule_form, settings_of
from widehem.web.hem import Next, Slot, slot_of
from widehem.web.here import current_store
from widehem.web.nests import Graded, graded
from widehem.web.numbers import number_of
from widehem.web.rules import shift_text
from widehem.web.selvedge import Selvedge
from widehem.web.show import display, said
from widehem.web.writing import writing

pages = Blueprint("grading", __name__)
VIEWS = {"nest": "Nest", "dots": "Dots", "figures": "Figures", "ways": "Ways", "mix": "Mixed"}
WORTH = 0.05  # cm between two ways, that is told
MOST_ROWS = 40
ALIGN = (
    ("", "Centre and waist"), ("armhole/side", "Underarm"), ("neck/shoulder", "Side neck point"), ("side/waist", "Side at the waist"),
    ("side/hem", "Side at the hem"), ("hem/centre_back", "Centre back at the hem"), ("crotch/inseam", "Fork"), ("cap#top", "Crown of the sleeve"),
)  # fmt: skip


def _head(found: Graded, nest: Nest, view: str) -> dict[str, Any]:
    """What stands round every view."""
    row = found.row
    failing = [size for size, one in nest.sizes.items() if one.fails]
    return {
        "row": row, "found": found, "nest": nest, "view": view, "views": VIEWS, "ways": {way: WAYS[way] for way in found.ways}, "selvedge": Selvedge(), "tally": "",
        "failing": failing, "cautions": [said(words) for words in (*nest.cautions, *drifts(nest))],
        "slots": _slots(nest, failing), "settings_of": settings_of, "break_words": _break_words,
    }  # fmt: skip


def _break_words(found: Graded, one: Break) -> str:
    """A setting that breaks at a size, in words."""
    names = dict(settings_of(found))
    value = display().full(one.value) if isinstance(one.value, float) else str(one.value)
    sizes = found.grading.chart.sizes
    return f"{names.get(f'{one.where}.{one.setting}', one.setting)} is {value} from size {sizes[min(one.size, len(sizes) - 1)]} on."


def _slots(nest: Nest, failing: Sequence[int]) -> list[Slot]:
    worst: Check | None = next((check for size in failing for check in nest.sizes[size].untrue), None)
    slots = [Slot("Sizes", "count", str(len(nest.sizes)), f"of {len(nest.names)}", f"base {nest.names[nest.base]}")]
    if failing:
        slots.append(Slot("Not true in", "not", str(len(failing)), "sizes", ", ".join(nest.names[size] for size in failing)))
    else:
        slots.append(
            Slot(
                "Checks", "true", str(sum(len(one.checks) for one in nest.sizes.values())), "in all sizes", "every size is true"
            )
        )
    if worst is not None:
        slots.append(slot_of(worst))
    elif drifting := girths(nest):
        most = max(drifting, key=lambda one: abs(one.far))
        show = display()
        slots.append(
            Slot(most.name, "look", show.signed(most.far), show.unit, f"against the base, in size {nest.names[most.size]}")
        )
    if nest.failed:
        slots.append(
            Slot("Cannot be drawn", "look", str(len(nest.failed)), "sizes", ", ".join(nest.names[size] for size in nest.failed))
        )
    return slots


@pages.get("/designs/<int:design_id>/sizes")
def nest(design_id: int) -> Any:
    """All sizes over each other."""
    found = graded(design_id)
    whole = found.nest
    if not whole.sizes:
        return _nothing(found, whole)
    picked, anchor, wrong = _picked(whole), Anchor(request.args.get("at", ""), request.args.get("along", "")), ""
    try:
        for text in (anchor.at, anchor.along):
            if text:
                targets(NOTHING, text)
    except SpotError as error:
        anchor, wrong = Anchor(), str(error)
    inside, box = nest_svg(
        whole, anchor, lambda piece, spot: url_for(".dots", design_id=design_id, piece=piece, spot=spot), picked
    )
    there = set(anchors(whole))
    aligns = [
        (code, words)
        for code, words in ALIGN
        if not code or any(targets(p, code) for p in whole.sizes[whole.base].garment.shell)
    ]
    if anchor.at and anchor.at not in dict(aligns):
        aligns.append((anchor.at, anchor.at))
    said_of = whole.sizes[picked] if picked is not None else None
    return render_template(
        "nest.html", drawing=Markup(inside), box=box, picked=picked, anchor=anchor, aligns=aligns, spots=sorted(there), wrong=wrong,
        untrue=[said(check.message) for check in said_of.untrue] + [said(words) for words in said_of.refused] if said_of else [],
        unnamed=list(inherited(whole)), plain=plain,
        next=Next("To print", url_for("nest_files.choose", design_id=design_id, size=whole.names[picked] if picked is not None else None), "Back to the design", url_for("designs.one", design_id=design_id)),
        **_head(found, whole, "nest"),
    )  # fmt: skip


def _nothing(found: Graded, whole: Nest) -> Any:
    """The page of a design that cannot be drawn on its base."""
    return render_template(
        "nest.html", drawing="", box="", picked=None, anchor=Anchor(), aligns=[], spots=[], wrong="", untrue=[], unnamed=[], plain=plain,
        next=Next("Back to the design", url_for("designs.one", design_id=found.row.id)), **_head(found, whole, "nest"),
    )  # fmt: skip


def _picked(whole: Nest) -> int | None:
    name = request.args.get("size", "")
    return whole.names.index(name) if name in whole.names and whole.names.index(name) in whole.sizes else None


@pages.post("/designs/<int:design_id>/sizes/how")
def how(design_id: int) -> Any:
    """Grade it another way, over another chart, by another table."""
    found = graded(design_id)
    form = request.form
    data = found.how.as_data()
    for name, known in (("way", found.ways), ("chart", found.charts), ("rules", found.tables)):
        if form.get(name) in known:
            data[name] = form[name]
    keep(design_id, HowGraded.from_data(data), f"{found.row.name} is graded another way.")
    return redirect(url_for(".nest", design_id=design_id), 303)


def keep(design_id: int, made: HowGraded, words: str) -> None:
    """Write down how a design is graded."""
    with writing() as session:
        row = find_design(session, design_id)
        if row is None:
            abort(404)
        if row.grading != made.as_data():
            tell(session, words)
            row.grading = made.as_data()


@pages.get("/designs/<int:design_id>/sizes/dots")
def dots(design_id: int) -> Any:
    """Where a spot is dotted in every size, one spot after another."""
    found = graded(design_id)
    whole = found.nest
    if not whole.sizes:
        return _nothing(found, whole)
    pieces = [piece.name for piece in whole.sizes[whole.base].garment.pieces]
    name = request.args.get("piece", "")
    name = name if name in pieces else pieces[0]
    rows = dottings(whole, found.grading, name)
    moving = [row for row in rows if row.moves] or list(rows)
    at = next((n for n, row in enumerate(moving) if row.place.text == request.args.get("spot", "")), None)
    if at is None:
        still = next((row for row in rows if row.place.text == request.args.get("spot", "")), None)
        moving, at = ([still, *moving], 0) if still is not None else (moving, 0)
    dot = moving[at]
    upto = _picked(whole)
    inside, box = dots_svg(whole, dot, upto)

    def address(number: int) -> str:
        if number < len(moving):
            return url_for(".dots", design_id=design_id, piece=name, spot=moving[number].place.text)
        following = pieces[(pieces.index(name) + 1) % len(pieces)]
        return url_for(".dots", design_id=design_id, piece=following)

    before = (
        url_for(".dots", design_id=design_id, piece=name, spot=moving[at - 1].place.text)
        if at
        else url_for(".nest", design_id=design_id)
    )
    return render_template(
        "nest_dots.html", shift=shift_text, drawing=Markup(inside), box=box, dot=dot, sentence=said(dot.sentence(whole.names)), rows=moving, at=at, pieces=pieces, name=name,
        source=SOURCES[dot.source], upto=upto, plain=plain, form=rule_form(found, whole, dot),
        places=[(size, dot.dots[size] - dot.dots[whole.base]) for size in sorted(dot.dots)] if whole.base in dot.dots else [], rule=dot.frame.rule,
        base_at=dot.dots.get(whole.base),
        next=Next("Next spot", address(at + 1), "Spot before" if at else "Back to the nest", before), **_head(found, whole, "dots"),
    )  # fmt: skip


@pages.get("/designs/<int:design_id>/sizes/figures")
def figures(design_id: int) -> Any:
    """Lengths, girths, ease and darts by size, with the steps between them."""
    found = graded(design_id)
    whole = found.nest
    groups: dict[str, list[Any]] = {}
    for row in increments(whole):
        groups.setdefault(row.group, []).append(row)
    return render_template(
        "nest_figures.html", groups=groups,
        next=Next("Back to the nest", url_for(".nest", design_id=design_id)), **_head(found, whole, "figures"),
    )  # fmt: skip


@pages.get("/designs/<int:design_id>/sizes/ways")
def ways(design_id: int) -> Any:
    """Two ways of grading held against each other in one size."""
    found = graded(design_id)
    nests = {way: found.by(way) for way in found.ways}
    whole = nests[found.grading.way]
    first = request.args.get("first", found.grading.way)
    second = request.args.get("second", "redraft" if first != "redraft" else "rules")
    first = first if first in nests else found.ways[0]
    second = second if second in nests else found.ways[-1]
    sizes = [size for size in sorted(nests[first].sizes) if size in nests[second].sizes]
    name = request.args.get("size", "")
    usual = min(sizes, key=lambda size: (abs(size - whole.base - 2), size)) if sizes else whole.base
    size = whole.names.index(name) if name in whole.names and whole.names.index(name) in sizes else usual
    drawing, box, apart = "", "", None
    if size in sizes and first != second:
        one, two = nests[first].sizes[size].garment, nests[second].sizes[size].garment
        apart = difference(one, two)
        drawing, box = over_svg(one.pieces, two.pieces)
    spots = sorted((spot for spot in apart.spots if spot.far >= WORTH), key=lambda spot: -spot.far)[:MOST_ROWS] if apart else []
    seams = [seam for seam in apart.seams if abs(seam.by) >= WORTH] if apart else []
    jumps = nests["proposed"].proposal.jumps if "proposed" in nests and nests["proposed"].proposal is not None else ()
    counts = {
        way: (len(one.sizes), [one.names[s] for s, sized in one.sizes.items() if sized.fails]) for way, one in nests.items()
    }
    return render_template(
        "nest_ways.html", first=first, second=second, size=size, sizes=sizes, drawing=Markup(drawing), box=box, apart=apart, spots=spots, seams=seams,
        jumps=jumps[:MOST_ROWS], counts=counts, plain=plain, why=said(apart.why) if apart is not None and apart.why is not None else "",
        next=Next("Back to the nest", url_for(".nest", design_id=design_id)), **_head(found, whole, "ways"),
    )  # fmt: skip


@pages.get("/designs/<int:design_id>/sizes/mix")
def mix(design_id: int) -> Any:
    """Sizes mixed on one body."""
    found = graded(design_id)
    whole = found.nest
    wearer_id = request.args.get("wearer", 0, type=number_of)
    with current_store().read() as session:
        wearer = session.get(Wearer, wearer_id) if wearer_id else None
        chart = core_chart(session, latest_chart(session, wearer.id)) if wearer is not None else None
        people = [(p, [w for w in p.wearers if w.binned_at is None]) for p in productions(session) if p.binned_at is None]
    own = whole.way == "own"
    nearest = fits(chart, found.grading.chart) if chart is not None and not own else {}
    asked = mix_asked(whole, nearest)
    made, wrong = None, ""
    try:
        made = mixed(whole, asked, chart)
    except MixError as error:
        wrong = str(error)
    drawing, box = (
        ("", "") if made is None else over_svg(made.garment.pieces, whole.sizes[_round(whole, asked.lengths)].garment.pieces)
    )
    return render_template(
        "nest_mix.html", asked=asked, schools=SCHOOLS, levels=_levels(whole, asked.school), choices=_choices(whole), made=made, wrong=wrong, drawing=Markup(drawing), box=box,
        wearer=wearer, people=people, nearest=[(CATALOGUE[code].name, value) for code, value in nearest.items()], sized=lambda value: _name_of(whole, value),
        untrue=_told(made), jogs=made.jogs.items() if made is not None else (), plain=plain, query=_query(asked, wearer_id),
        next=Next("Print this mix", url_for("nest_files.choose", design_id=design_id) + "?" + urlencode({"mix": "yes", **_query(asked, wearer_id)})) if made is not None else Next("Back to the nest", url_for(".nest", design_id=design_id)),
        **_head(found, whole, "mix"),
    )  # fmt: skip


def _told(made: Mixed | None) -> list[str]:
    if made is None:
        return []
    return [said(words) for words in made.cautions] + [said(check.message) for check in made.sized.untrue]


def _levels(whole: Nest, school: str) -> list[tuple[str, str]]:
    """The levels at which a size can be set: those of the pattern from above to below."""
    if school == "across":
        return [(CENTRE, "Centre"), (SIDE, "Side")]
    heights: dict[str, float] = {}
    for piece in whole.sizes[whole.base].garment.shell:
        for line in piece.balance:
            heights.setdefault(line.level, line.height)
    inner = [(level, plain(level).capitalize()) for level in sorted(heights, key=heights.__getitem__)]
    return [(TOP, "Top"), *inner, (FOOT, "Foot")]


def _choices(whole: Nest) -> list[tuple[str, str]]:
    """Sizes and those half way between two."""
    order = sorted(whole.sizes)
    found = []
    for size in order:
        found.append((f"{size:g}", whole.names[size]))
        if size + 1 in whole.sizes:
            found.append((f"{size + 0.5:g}", f"{whole.names[size]} and a half"))
    return found


def _name_of(whole: Nest, value: float) -> str:
    """A broken size number in words: '5', '5 and a half', 'beyond 12'."""
    order = sorted(whole.sizes)
    if not order or value < order[0] - 0.25 or value > order[-1] + 0.25:
        return f"beyond {whole.names[order[0] if order and value < order[0] else order[-1]]}" if order else ""
    half = round(value * 2) / 2
    low = min(max(int(half), order[0]), order[-1])
    return whole.names[low] if half == low or low + 1 not in whole.sizes else f"{whole.names[low]} and a half"


def _round(whole: Nest, size: float) -> int:
    return min(whole.sizes, key=lambda one: abs(one - size))


def mix_asked(whole: Nest, nearest: dict[str, float] | None = None) -> Mix:
    """What an address asks to be mixed; where it does not say, what lies nearest to a body."""
    args = request.args
    school = args.get("school", "down")
    school = school if school in SCHOOLS else "down"
    known = {text for text, _ in _choices(whole)}
    near = nearest or {}
    stops: dict[str, float] = {}
    for level, _ in _levels(whole, school):
        text = args.get(f"at.{level}", "")
        if text in known:
            stops[level] = float(text)
        elif level in near and not any(name.startswith("at.") for name in args):
            stops[level] = _kept_half(whole, near[level])
    text = args.get("lengths", "")
    lengths = (
        float(text) if text in known else _kept_half(whole, near["nape_waist"]) if "nape_waist" in near else float(whole.base)
    )
    return Mix(school, stops, lengths)  # type: ignore[arg-type]


def _kept_half(whole: Nest, value: float) -> float:
    order = sorted(whole.sizes)
    half = round(value * 2) / 2
    if half != int(half) and not {int(half), int(half) + 1} <= set(order):
        half = round(value)
    return float(min(max(half, order[0]), order[-1]))


def _query(asked: Mix, wearer_id: int) -> dict[str, str]:
    found = {f"at.{level}": f"{size:g}" for level, size in asked.stops.items()}
    return {
        **found,
        "school": asked.school,
        "lengths": f"{asked.lengths:g}",
        **({"wearer": str(wearer_id)} if wearer_id else {}),
    }
