"""Learning by hand: a draft followed on one's own paper, exercises with a mistake to find, and how far each person has come."""

from __future__ import annotations

import random
from collections.abc import Mapping
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for
from flask import session as browser
from sqlalchemy import select

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.design.design import method_design
from widehem.core.design.make import make
from widehem.core.drafting.method import METHODS
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.training.along import figures, judge, told
from widehem.core.training.exercises import DRAWN, KINDS, MOST_SEED, answered, exercise, made_up_body
from widehem.core.units import LengthError, Saying, parse_length
from widehem.store.models import Practice
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.numbers import number_of
from widehem.web.selvedge import Selvedge
from widehem.web.show import display
from widehem.web.writing import writing

pages = Blueprint("training", __name__)
WHO, LONGEST = "person", 60


def _who() -> str:
    """Whose progress this browser keeps."""
    return str(browser.get(WHO, ""))


@pages.get("/practice")
def index() -> Any:
    """What can be practised, and how far each person has come."""
    return _index("")


def _index(told_: str) -> Any:
    with current_store().read() as session:
        rows = list(session.scalars(select(Practice).order_by(Practice.id.desc())))
    people: dict[str, dict[str, list[int]]] = {}
    for row in rows:
        mine = people.setdefault(row.person, {})
        count = mine.setdefault(row.exercise.partition(":")[0], [0, 0])
        count[0] += row.right
        count[1] += 1
    mine = people.get(_who(), {})
    done, right = sum(count[1] for count in mine.values()), sum(count[0] for count in mine.values())
    slots = [Slot("Practised", "count", str(done), "", f"{right} of them right" if done else "nothing yet")]
    kinds: dict[str, str] = {**{str(kind): words for kind, words in KINDS.items()}, "along": "A draft along by hand"}
    return render_template(
        "training.html", people=people, kinds=kinds, mine=mine, who=_who(), drawn={code: METHODS[code].name for code in DRAWN}, told=told_, selvedge=Selvedge(),
        slots=slots, tally="", next=Next("An exercise", url_for(".begin", kind=_next_kind(mine))),
    )  # fmt: skip


def _next_kind(mine: Mapping[str, list[int]]) -> str:
    """What this person has practised least."""
    return min(KINDS, key=lambda kind: mine.get(kind, [0, 0])[1])


@pages.post("/practice")
def call() -> Any:
    """Say whose progress is kept here."""
    name = " ".join(request.form.get("person", "").split())[:LONGEST]
    if not name:
        return _index("Name: write one, so that what you practise is kept for you."), 422
    browser[WHO] = name
    return redirect(url_for(".index"), 303)


@pages.get("/practice/new/<kind>")
def begin(kind: str) -> Any:
    """An exercise of a kind, another every time."""
    if kind not in KINDS:
        abort(404)
    return redirect(url_for(".one", code=f"{kind}:{random.randint(1, MOST_SEED)}"), 302)


@pages.get("/practice/<code>")
def one(code: str) -> Any:
    """An exercise, with its mistake to find."""
    return _one(code, {}, "", None)


def _one(code: str, typed: Mapping[str, str], told_: str, answer: Any) -> Any:
    try:
        found = exercise(code)
    except KeyError:
        abort(404)
    verdict = "open" if answer is None else "true" if answer.right else "not"
    slots = [
        Slot(
            "Exercise",
            verdict,
            "",
            "",
            "find the line that is wrong" if answer is None else "found" if answer.right else "look again at what was wrong",
        )
    ]
    return render_template(
        "exercise.html", found=found, typed=typed, told=told_, answer=answer, who=_who(), selvedge=Selvedge(), slots=slots, tally="",
        next=Next("Another one", url_for(".begin", kind=found.kind)) if answer is not None else Next("That is the mistake", url_for(".answer", code=code), form="answer"),
    )  # fmt: skip


@pages.post("/practice/<code>")
def answer(code: str) -> Any:
    """What somebody takes for the mistake, and what should stand there."""
    try:
        found = exercise(code)
    except KeyError:
        abort(404)
    row, text = request.form.get("row", ""), request.form.get("figure", "").strip()
    if row not in {entry.id for entry in found.rows}:
        return _one(code, request.form, "Point at the line that is wrong first.", None), 422
    figure = None
    if text:
        try:
            figure = parse_length(text, display().unit).cm
        except LengthError as error:
            return _one(code, request.form, f"What should stand there: {error}", None), 422
    given = answered(found, row, figure)
    if _who():
        with writing() as session:
            session.add(Practice(person=_who(), exercise=code, right=given.right, data={"row": row, "figure": text[:20]}))
    return _one(code, request.form, "", given)


@pages.get("/practice/along/<method>/<int:seed>")
def along(method: str, seed: int) -> Any:
    """A draft by a method on a made-up body, step by step, with a field for the figure on one's own paper."""
    if method not in DRAWN or not 1 <= seed <= MOST_SEED:
        abort(404)
    design, chart = method_design(METHODS[method]), made_up_body(random.Random(f"along {seed}"))
    try:
        made = make(design, chart)
    except (CannotDraft, OptionError):
        return redirect(url_for(".along", method=method, seed=seed % MOST_SEED + 1), 302)
    rows = figures(made)
    at = min(max(request.args.get("step", 1, type=number_of) or 1, 1), len(rows))
    row, text = rows[at - 1], request.args.get("figure", "").strip()
    said: tuple[Saying, ...] = ()
    judged, wrong = None, ""
    if text:
        try:
            judged = judge(design, chart, row, parse_length(text, display().unit).cm)
            said = told(judged)
        except LengthError as error:
            wrong = str(error)
    if judged is not None and _who():
        with writing() as session:
            session.add(
                Practice(
                    person=_who(),
                    exercise=f"along:{method}:{seed}:{at}",
                    right=judged.verdict == "good",
                    data={"figure": text[:20]},
                )
            )
    measures = [
        (CATALOGUE[code].name, chart.get(code)) for code in METHODS[method].uses(design.options) if chart.get(code) is not None
    ]
    verdict = "open" if judged is None else {"good": "true", "fair": "look", "off": "not"}[judged.verdict]
    slots = [Slot(f"Step {at}", verdict, "", "", "measure it on your paper" if judged is None else said[0].text(display()))]
    here: dict[str, Any] = {"method": method, "seed": seed}
    on = url_for(".along", **here, step=at + 1) if at < len(rows) else url_for(".index")
    good = judged is not None and judged.verdict != "off"
    return render_template(
        "along.html", method=METHODS[method], rows=rows, at=at, row=row, said_=said, judged=judged, wrong=wrong, text=text, measures=measures, here=here,
        selvedge=Selvedge(), slots=slots, tally="", who=_who(),
        next=Next("To the next step" if at < len(rows) else "It is drawn", on, "All practice", url_for(".index")) if good
        else Next("Hold it against the draft", url_for(".along", **here), "All practice", url_for(".index"), form="figure"),
    )  # fmt: skip


@pages.get("/practice/along/<method>")
def begin_along(method: str) -> Any:
    """A draft along on another made-up body."""
    if method not in DRAWN:
        abort(404)
    return redirect(url_for(".along", method=method, seed=random.randint(1, MOST_SEED)), 302)
