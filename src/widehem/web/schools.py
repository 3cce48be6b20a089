"""Choosing a school: every method with a picture from this wearer's measures, what it needs, and what it means for this
body."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import lru_cache

from flask import Blueprint, render_template, request, url_for
from markupsafe import Markup

from widehem.core.body.catalogue import names
from widehem.core.body.chart import Chart
from widehem.core.design.design import method_design
from widehem.core.design.make import armhole_in, make
from widehem.core.design.sensitivity import filled_in
from widehem.core.drafting.advice import advice
from widehem.core.drafting.cap import Armhole
from widehem.core.drafting.method import METHODS, Method, by_part
from widehem.core.output.svg_small import small_svg
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Saying, say
from widehem.store.dockets import USUAL_BODICES, bodice_for
from widehem.store.making import armhole_now
from widehem.store.models import Docket
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
        sleeves = [method for method in METHODS.values() if method.for_armhole]
        bodices = {method.code: bodice_for(session, wearer_id, method) for method in sleeves}
        drawn = {docket.id: armhole_now(session, docket) for docket in bodices.values() if docket is not None}
    whole = filled_in(hand.chart)
    schools = [
        _school(method, hand.chart, whole, _armhole(method, whole, bodices.get(method.code), drawn))
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
        "schools.html", wearer=hand.wearer, hand=hand, groups=groups, find=request.args.get("find", ""), names=names,
            bodices=bodices,
        selvedge=selvedge(hand.wearer, hand.docket, hand.chart, ""), slots=slots, tally="",
        next=Next("To the chart", hand.to("measure.chart"), "Back to the production",
            url_for("people.production", production_id=hand.wearer.production_id)),
    )  # fmt: skip


def _armhole(method: Method, whole: Chart, bodice: Docket | None, drawn: Mapping[int, Armhole | None]) -> Armhole | None:
    """The armhole a sleeve is shown in: of the wearer's own garment, or of what it is made for, drafted for this body."""
    if not method.for_armhole:
        return None
    found = drawn.get(bodice.id) if bodice is not None else None
    if found is not None and bodice is not None and method.made_for in (bodice.method, *USUAL_BODICES):
        return found
    try:
        return armhole_in(make(method_design(METHODS[method.made_for]), whole))
    except (CannotDraft, OptionError):
        return found


def _school(method: Method, chart: Chart, whole: Chart, armhole: Armhole | None) -> School:
    missing = method.missing(chart)
    picture, box, trouble = Markup(""), "", ""
    if any(chart):
        inside, box, refused = _picture(method.code, _Body(_needed(method, chart, whole)), armhole)
        picture = Markup(inside)
        trouble = said(refused) if refused is not None else ""
    else:
        trouble = "Nothing is measured yet."
    return School(method, missing, advice(method.code, chart), picture, box, bool(missing), trouble)


def _needed(method: Method, chart: Chart, whole: Chart) -> Chart:
    """The chart with estimates of what a method needs and no more: what it only may use changes it by being read."""
    wanted = set(method.uses())
    return replace(chart, readings={code: r for code, r in whole.readings.items() if code in wanted or code in chart.readings})


class _Body:
    """A chart as a key: two with the same figures are drawn alike."""

    def __init__(self, chart: Chart) -> None:
        self.chart = chart
        self.key = (chart.table.code, tuple(sorted((code, chart.get(code)) for code in chart)))

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Body) and self.key == other.key

    def __hash__(self) -> int:
        return hash(self.key)


@lru_cache(maxsize=400)
def _picture(code: str, body: _Body, armhole: Armhole | None) -> tuple[str, str, Saying | None]:
    """The small picture of a method on a body, its view box, or why there is none."""
    try:
        inside, box = small_svg(make(method_design(METHODS[code]), body.chart, armhole=armhole))
    except CannotDraft as refusal:
        return "", "", refusal.saying
    except OptionError as error:
        return "", "", say(str(error))
    return inside, box, None
