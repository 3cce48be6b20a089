"""Choosing a school: every method with a picture from this wearer's measures, what it needs, and what it means for this body."""

from __future__ import annotations

from dataclasses import dataclass

from flask import Blueprint, render_template, request, url_for
from markupsafe import Markup

from widehem.core.body.catalogue import names
from widehem.core.body.chart import Chart
from widehem.core.drafting.advice import advice
from widehem.core.drafting.cap import Armhole
from widehem.core.drafting.method import METHODS, Method, armhole_of, by_part, draft
from widehem.core.drafting.option import OptionError
from widehem.core.drafting.refusal import CannotDraft
from widehem.core.drafting.sensitivity import filled_in
from widehem.core.output.svg_small import small_svg
from widehem.core.units import Saying
from widehem.store.dockets import bodice_for
from widehem.web.board import armhole_now
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.in_hand import in_hand
from widehem.web.selvedge import selvedge
from widehem.web.show import said

pages = Blueprint("schools", __name__)


@dataclass(frozen=True)
class School:
    """A method for this wearer. drawn: picture and its view box; guessed: some measures in it are estimated; trouble: why
    there is no picture."""

    method: Method
    missing: tuple[str, ...]
    remarks: tuple[Saying, ...]
    drawn: Markup
    box: str
    guessed: bool
    trouble: str


@pages.get("/wearers/<int:wearer_id>/schools")
def gallery(wearer_id: int) -> str:
    """All methods, each drawn for this wearer; a word can be looked for."""
    wanted = request.args.get("find", "").strip().lower()[:60]
    with current_store().read() as session:
        hand = in_hand(wearer_id, session)
        bodice = bodice_for(session, wearer_id)
        armhole = armhole_now(session, bodice) if bodice else None
    whole = filled_in(hand.chart)
    if armhole is None:
        armhole = _usual_armhole(whole)
    schools = [
        _school(method, hand.chart, whole, armhole)
        for members in by_part(METHODS.values()).values()
        for method in members
        if wanted in f"{method.name} {method.group} {method.summary}".lower()
    ]
    groups: dict[str, list[School]] = {}
    for school in schools:
        groups.setdefault(school.method.group, []).append(school)
    ready = sum(1 for school in schools if not school.missing)
    slots = [
        Slot("Methods", "true" if schools else "open", str(len(schools)), f"of {len(METHODS)}", "drawn from these measures"),
        Slot(
            "Ready to draft", "true" if ready else "open", str(ready), f"of {len(schools)}", "every measure they need is read"
        ),
    ]
    return render_template(
        "schools.html", wearer=hand.wearer, hand=hand, groups=groups, find=request.args.get("find", ""), names=names, bodice=bodice,
        selvedge=selvedge(hand.wearer, hand.docket, hand.chart, ""), slots=slots, tally="",
        next=Next("To the chart", hand.to("measure.chart"), "Back to the production", url_for("people.production", production_id=hand.wearer.production_id)),
    )  # fmt: skip


def _usual_armhole(whole: Chart) -> Armhole | None:
    """The armhole of a measured bodice for this body, so that sleeves can be shown before there is one."""
    try:
        return armhole_of(draft(METHODS["bodice.measured"], whole).block)
    except (CannotDraft, OptionError):
        return None


def _school(method: Method, chart: Chart, whole: Chart, armhole: Armhole | None) -> School:
    missing = method.missing(chart)
    picture, box, trouble = Markup(""), "", ""
    if any(chart):
        try:
            inside, box = small_svg(draft(method, whole, armhole=armhole if method.for_armhole else None))
            picture = Markup(inside)
        except CannotDraft as refusal:
            trouble = said(refusal.saying)
        except OptionError as error:
            trouble = str(error)
    else:
        trouble = "Nothing is measured yet."
    return School(method, missing, advice(method.code, chart), picture, box, bool(missing), trouble)
