"""Designs apart from wearers: those that ship and those of the house, on everybody, handed out as garments."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from markupsafe import Markup

from widehem.core.body.catalogue import names
from widehem.core.body.chart import Chart
from widehem.core.body.sizes import body_of, sizes
from widehem.core.design.design import Design
from widehem.core.design.files import LARGEST, DesignFileError, Named, design_as_json, read_design
from widehem.core.design.kept import made_before
from widehem.core.design.make import Made
from widehem.core.design.sensitivity import looked_at
from widehem.core.design.ships import shipped
from widehem.core.design.words import step_words
from widehem.core.output.svg_style import pieces_svg
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Saying, say
from widehem.store.charts import core_chart, latest_chart
from widehem.store.dockets import find_docket, productions
from widehem.store.files import company
from widehem.store.journal import tell
from widehem.store.models import DesignRow, DesignVersion, Docket, Wearer, now
from widehem.store.recipes import (
    back_to,
    begin_design,
    copy_of,
    designs,
    find_design,
    follow,
    followers,
    hand_out,
    how_many,
    keep_version,
    named_of,
    stay,
    versions_of,
)
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.numbers import is_number, number_of
from widehem.web.selvedge import Selvedge
from widehem.web.writing import writing

pages = Blueprint("designs", __name__)
LONGEST, NOTES = 120, 2000
FIGURES = {
    "curved": "the figure table of curved bodies",
    "straight": "the figure table of straight bodies",
    "child": "the figure table of children",
}


@dataclass(frozen=True)
class Drawn:
    """A design on a body. trouble: why it cannot be drawn, or what is not true; fine: everything is."""

    picture: Markup
    box: str
    trouble: tuple[Saying, ...]
    fine: bool
    pieces: int = 0
    guessed: int = 0


def drawn_on(design: Design, chart: Chart) -> Drawn:
    """A design drawn small on a body, with what is wrong on it; what was not read is estimated, and how much that is."""
    whole = looked_at(design, chart)
    guessed = len(design.drawn_by.missing(chart, design.options))
    if not any(chart):
        return Drawn(Markup(""), "0 0 1 1", (say("Nothing is measured yet."),), False)
    try:
        made = made_before(design, whole)
    except CannotDraft as refusal:
        return Drawn(Markup(""), "0 0 1 1", (refusal.saying,), False, guessed=guessed)
    except OptionError as error:
        return Drawn(Markup(""), "0 0 1 1", (say(str(error)),), False)
    inside, box = pieces_svg(made.garment.pieces)
    trouble = _trouble(made)
    return Drawn(Markup(inside), box, trouble, not trouble, len(made.garment.pieces), guessed)


def _trouble(made: Made) -> tuple[Saying, ...]:
    wrong = [entry.saying for entry in made.refused]
    wrong += [say(f"{check.title}: ") + check.message for check in made.checks if check.verdict == "not"]
    return tuple(wrong)


def _counted(own: Sequence[tuple[DesignRow, int]]) -> list[Slot]:
    worn = sum(count for _, count in own)
    return [
        Slot("Of this house", "count", str(len(own)), "", f"{worn} garments by them"),
        Slot("That ship", "count", str(len(shipped())), "", "to begin from"),
    ]


def _worn(named: Named, out: Sequence[Docket]) -> list[Slot]:
    stays = sum(docket.stays is not None for docket in out)
    return [
        Slot("The recipe", "count", str(len(named.design.steps)), "steps", "after the block"),
        Slot("Follow it", "count", str(len(out) - stays), "", "change with it"),
        Slot("Stay", "count", str(stays), "", "as it was then"),
    ]


@pages.get("/designs")
def index() -> str:
    """The designs of the house, and those that ship."""
    with current_store().read() as session:
        own = [(row, count) for row in designs(session) for count in [how_many(session).get(row.id, 0)]]
    return render_template(
        "designs.html", own=own, shipped=shipped(), selvedge=Selvedge(), slots=_counted(own), tally="",
        next=Next("Back to the day", url_for("desk.index")), wrong="",
    )  # fmt: skip


@pages.get("/designs/picture")
def picture() -> Any:
    """A design drawn small on the body of a figure table: an inner part of a page."""
    design = _asked()
    figure = request.args.get("figure", "curved")
    chart = body_of(figure if figure in FIGURES else "curved")
    return render_template("_design_picture.html", drawn=drawn_on(design, chart))


def _asked() -> Design:
    code = request.args.get("ships", "")
    if code in shipped():
        return shipped()[code].design
    with current_store().read() as session:
        row = find_design(session, request.args.get("design", 0, type=number_of))
        if row is None:
            abort(404)
        return _core(row)


def _core(row: DesignRow) -> Design:
    try:
        return named_of(row).design
    except OptionError:
        abort(404)


@pages.post("/designs/begin")
def begin() -> Any:
    """A new design of the house, as one that ships or another of the house is."""
    with writing() as session:
        code, like = request.form.get("ships", ""), request.form.get("copy", 0, type=number_of)
        if code in shipped():
            row = begin_design(session, shipped()[code])
        else:
            old = find_design(session, like)
            if old is None:
                abort(404)
            row = copy_of(session, old, f"{old.name}, copy"[:LONGEST])
        tell(session, f"Began the design {row.name}.")
        number = row.id
    return redirect(url_for("designs.one", design_id=number), 303)


@pages.post("/designs/read")
def read() -> Any:
    """A design from a file."""
    sent = request.files.get("file")
    data = sent.read(LARGEST + 1) if sent is not None else b""
    try:
        named = read_design(data)
    except DesignFileError as error:
        with current_store().read() as session:
            own = [(row, how_many(session).get(row.id, 0)) for row in designs(session)]
        page = render_template(
            "designs.html", own=own, shipped=shipped(), selvedge=Selvedge(), slots=_counted(own), tally="",
            next=Next("Back to the day", url_for("desk.index")), wrong=str(error),
        )  # fmt: skip
        return page, 422
    with writing() as session:
        row = begin_design(session, named)
        tell(session, f"Took in the design {row.name}.")
        number = row.id
    return redirect(url_for("designs.one", design_id=number), 303)


@pages.get("/designs/<int:design_id>")
def one(design_id: int) -> str:
    """A design: its recipe, its versions, who wears it."""
    with current_store().read() as session:
        row = _found(session, design_id)
        named = named_of(row)
        out = followers(session, design_id)
        for docket in out:
            _ = docket.wearer.name, docket.production.name
        kept = versions_of(session, row)
        people = [(p, [w for w in p.wearers if w.binned_at is None]) for p in productions(session) if p.binned_at is None]
    return render_template(
        "design.html", row=row, named=named, words=[(step, step_words(step)) for step in named.design.steps], out=out, kept=kept,
        people=people, needs=names(named.design.drawn_by.uses()), method=named.design.drawn_by, selvedge=Selvedge(), slots=_worn(named, out), tally="",
        next=Next("See it on everybody", url_for("designs.everybody", design_id=design_id), "Back to the designs", url_for("designs.index")),
    )  # fmt: skip


def _found(session: Any, design_id: int) -> DesignRow:
    row = find_design(session, design_id)
    if row is None:
        abort(404)
    return row


@pages.get("/designs/<int:design_id>/file")
def file(design_id: int) -> Response:
    """The design as a file."""
    with current_store().read() as session:
        row = _found(session, design_id)
        data = design_as_json(named_of(row))
    safe = "".join(sign if sign.isalnum() and sign.isascii() else "-" for sign in row.name.lower()).strip("-") or "design"
    return Response(data, mimetype="application/json", headers={"Content-Disposition": f'attachment; filename="{safe}.json"'})


@pages.post("/designs/<int:design_id>/about")
def about(design_id: int) -> Any:
    """Name, a line about it, notes."""
    with writing() as session:
        row = _found(session, design_id)
        name = request.form.get("name", "").strip()[:LONGEST] or row.name
        tell(session, f"Wrote about the design {name}.")
        row.name, row.summary, row.notes = (
            name,
            request.form.get("summary", "").strip()[:300],
            request.form.get("notes", "").strip()[:NOTES],
        )
    return redirect(url_for("designs.one", design_id=design_id), 303)


@pages.post("/designs/<int:design_id>/version")
def version(design_id: int) -> Any:
    """Keep what it is now under a name."""
    with writing() as session:
        row = _found(session, design_id)
        name = request.form.get("name", "").strip()[:LONGEST]
        if name:
            keep_version(session, row, name)
            tell(session, f"Kept {row.name} as {name}.")
    return redirect(url_for("designs.one", design_id=design_id), 303)


@pages.post("/designs/<int:design_id>/back/<int:version_id>")
def back(design_id: int, version_id: int) -> Any:
    """Make it what it was."""
    with writing() as session:
        row, kept = _found(session, design_id), session.get(DesignVersion, version_id)
        if kept is None or kept.design_id != row.id:
            abort(404)
        back_to(row, kept)
        tell(session, f"{row.name} is {kept.name} again.")
    return redirect(url_for("designs.one", design_id=design_id), 303)


@pages.post("/designs/<int:design_id>/away")
def away(design_id: int) -> Any:
    """Put a design away that no garment is drawn by."""
    with writing() as session:
        row = _found(session, design_id)
        if followers(session, design_id):
            return redirect(url_for("designs.one", design_id=design_id), 303)
        row.binned_at = now()
        tell(session, f"Put the design {row.name} away.")
    return redirect(url_for("designs.index"), 303)


@pages.post("/designs/<int:design_id>/hand-out")
def give(design_id: int) -> Any:
    """A garment by this design for each of the wearers that were chosen."""
    chosen = {int(text) for text in request.form.getlist("for") if is_number(text)}
    with writing() as session:
        row = _found(session, design_id)
        wearers = [
            wearer
            for number in sorted(chosen)
            if (wearer := session.get(Wearer, number)) is not None and wearer.binned_at is None
        ]
        name = request.form.get("name", "").strip()[:LONGEST] or row.name
        made = hand_out(session, row, wearers, name)
        if made:
            tell(session, f"Handed {row.name} to {len(made)} {'wearer' if len(made) == 1 else 'wearers'}.", made[0].production)
    return redirect(url_for("designs.one", design_id=design_id) + "#worn", 303)


@pages.post("/dockets/<int:docket_id>/follows")
def follows(docket_id: int) -> Any:
    """A garment stays at what its design is now, or follows it again."""
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None or not docket.design.own:
            abort(404)
        if request.form.get("follow") == "no":
            stay(docket)
            tell(session, f"{docket.name} for {docket.wearer.name} stays at what {docket.design.name} is now.", docket)
        else:
            follow(docket)
            tell(session, f"{docket.name} for {docket.wearer.name} follows {docket.design.name} again.", docket)
        number = docket.design_id
    return redirect(url_for("designs.one", design_id=number) + "#worn", 303)


@pages.get("/designs/<int:design_id>/everybody")
def everybody(design_id: int) -> str:
    """A contact sheet: the design for every wearer of a company, or for every size of a figure table."""
    figure = request.args.get("sizes", "")
    with current_store().read() as session:
        row = _found(session, design_id)
        places = [p for p in productions(session) if p.binned_at is None]
        asked = request.args.get("production", 0, type=number_of)
        production = next((p for p in places if p.id == asked), places[0] if places else None)
        worn = {docket.wearer_id for docket in followers(session, design_id)}
        people = (
            [] if figure in FIGURES or production is None else [person.wearer for person in company(session, production.id)]
        )
    cells = (
        [
            (words, url_for("designs.on_size", design_id=design_id, figure=figure, number=n), False)
            for n, (words, _) in enumerate(sizes(figure))
        ]
        if figure in FIGURES
        else [
            (wearer.name, url_for("designs.on_wearer", design_id=design_id, wearer_id=wearer.id), wearer.id in worn)
            for wearer in people
        ]
    )
    return render_template(
        "everybody.html", row=row, cells=cells, places=places, production=production if figure not in FIGURES else None, figure=figure,
        figures=FIGURES, selvedge=Selvedge(), slots=[Slot("Drawn for", "count", str(len(cells)), "bodies", "each beside its reason")], tally="", next=Next("Back to the design", url_for("designs.one", design_id=design_id)),
    )  # fmt: skip


@pages.get("/designs/<int:design_id>/on/<int:wearer_id>")
def on_wearer(design_id: int, wearer_id: int) -> str:
    """The design on a wearer: an inner part of the contact sheet."""
    with current_store().read() as session:
        row, wearer = _found(session, design_id), session.get(Wearer, wearer_id)
        if wearer is None:
            abort(404)
        chart = core_chart(session, latest_chart(session, wearer_id))
    return render_template("_design_picture.html", drawn=drawn_on(_core(row), chart), flagged=True)


@pages.get("/designs/<int:design_id>/size/<figure>/<int:number>")
def on_size(design_id: int, figure: str, number: int) -> str:
    """The design on a size of a figure table: an inner part of the contact sheet."""
    with current_store().read() as session:
        row = _found(session, design_id)
    found = sizes(figure) if figure in FIGURES else []
    if number >= len(found):
        abort(404)
    return render_template("_design_picture.html", drawn=drawn_on(_core(row), found[number][1]), flagged=True)
