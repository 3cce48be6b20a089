"""Choosing a school: every method with a picture from this wearer's measures, what it needs, and what it means for this
body."""

from __future__ import annotations

from dataclasses import dataclass

from flask import Blueprint, render_template, request, url_for
from markupsafe import Markup

from widehem.core.body.catalogue import names
from widehem.core.drafting.advice import advice
from widehem.core.drafting.method import METHODS, Method
from widehem.core.units import Saying
from widehem.jobs.gallery import GALLERY, Picture, Shown, pictures, shown_on
from widehem.jobs.keys import key
from widehem.jobs.ledger import Job
from widehem.web.at_work import ask
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, current_works
from widehem.web.in_hand import InHand, in_hand
from widehem.web.selvedge import selvedge
from widehem.web.show import said

pages = Blueprint("schools", __name__)


@dataclass(frozen=True)
class School:
    """A method for this wearer. drawn: picture and its view box; guessed: some measures in it are estimated; trouble: why
    there is no picture; coming: it is being drawn."""

    method: Method
    missing: tuple[str, ...]
    remarks: tuple[Saying, ...]
    drawn: Markup
    box: str
    guessed: bool
    trouble: str
    coming: bool = False


@pages.get("/wearers/<int:wearer_id>/schools")
def gallery(wearer_id: int) -> str:
    """All methods, each drawn for this wearer; a word can be looked for."""
    wanted = request.args.get("find", "").strip().lower()[:60]
    hand, shown = _shown(wearer_id)
    kept, job = _drawn(hand, shown)
    schools = [
        _school(hand, entry, kept.get(entry.method.code), job)
        for entry in shown
        if wanted in f"{entry.method.name} {entry.method.group} {entry.method.summary}".lower()
    ]
    groups: dict[str, list[School]] = {}
    for school in schools:
        groups.setdefault(school.method.group, []).append(school)
    ready = sum(1 for school in schools if not school.missing)
    slots = [
        Slot(
            "Methods",
            "count",
            str(len(schools)),
            f"of {len(METHODS)}",
            "being drawn" if job is not None and job.unfinished else "drawn from these measures",
        ),
        Slot("Ready to draft", "count", str(ready), f"of {len(schools)}", "every measure they need is read"),
    ]
    return render_template(
        "schools.html", wearer=hand.wearer, hand=hand, groups=groups, find=request.args.get("find", ""), names=names,
            bodices={entry.method.code: entry.bodice for entry in shown}, coming=_coming(schools, job), job=job,
        selvedge=selvedge(hand.wearer, hand.docket, hand.chart, ""), slots=slots, tally="",
        next=Next("To the chart", hand.to("measure.chart"), "Back to the production",
            url_for("people.production", production_id=hand.wearer.production_id)),
    )  # fmt: skip


@pages.get("/wearers/<int:wearer_id>/schools/coming")
def coming(wearer_id: int) -> str:
    """Those of the pictures asked for that are drawn by now, to be put in their places, and what is still to come."""
    wanted = request.args.get("of", "").split()
    hand, shown = _shown(wearer_id)
    shown = [entry for entry in shown if entry.method.code in wanted]
    kept = pictures(current_works().ledger.found([entry.key for entry in shown]), shown)
    job = next(iter(current_works().ledger.find(request.args.get("job", ""))), None)
    schools = [_school(hand, entry, kept.get(entry.method.code), job) for entry in shown]
    return render_template(
        "_coming.html", wearer=hand.wearer, schools=[school for school in schools if not school.coming], job=job,
        coming=_coming(schools, job), hand=hand,
    )  # fmt: skip


def _shown(wearer_id: int) -> tuple[InHand, list[Shown]]:
    with current_store().read() as session:
        hand = in_hand(wearer_id, session)
        return hand, shown_on(session, wearer_id, hand.chart)


def _drawn(hand: InHand, shown: list[Shown]) -> tuple[dict[str, Picture], Job | None]:
    """The pictures that are drawn, and the work that draws the others."""
    if not any(hand.chart):
        return {}, None
    keys = [entry.key for entry in shown]
    ledger = current_works().ledger
    kept = pictures(ledger.found(keys), shown)
    if len(kept) == len(shown):
        return kept, None
    wish = {"wearer": hand.wearer.id, "chart": hand.row.id if hand.row else None}
    job = ask(GALLERY, wish, f"Drawing every method for {hand.wearer.name}", key("gallery", hand.wearer.id, *keys))
    return (kept if job.unfinished else pictures(ledger.found(keys), shown)), job


def _coming(schools: list[School], job: Job | None) -> str:
    """The codes of the methods whose pictures are still to come."""
    return " ".join(school.method.code for school in schools if school.coming) if job is not None else ""


def _school(hand: InHand, shown: Shown, picture: Picture | None, job: Job | None) -> School:
    method, trouble, still = shown.method, "", False
    missing = method.missing(hand.chart)
    if not any(hand.chart):
        trouble = "Nothing is measured yet."
    elif picture is None:
        still = job is not None and job.unfinished
        trouble = "It is being drawn." if still else "It was not drawn: open this page again."
    elif picture.trouble is not None:
        trouble = said(picture.trouble)
    inside, box = (Markup(picture.inside), picture.box) if picture is not None else (Markup(""), "")
    return School(method, missing, advice(method.code, hand.chart), inside, box, bool(missing), trouble, still)
