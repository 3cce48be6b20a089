"""The order of work: step by step with its reason, what is done and how, on the pieces that are lit; ticked at the machine."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for
from markupsafe import Markup

from widehem.core.making.cloths import HEADINGS, ClothKind, advice
from widehem.core.making.how import parted
from widehem.core.making.kept import MOST_MINUTES, Done, HowMade, MakingError
from widehem.core.making.lay.cutouts import materials_of
from widehem.core.making.order import in_order, is_own
from widehem.core.making.plan import Work as Order
from widehem.core.making.plan import blocked, work_of
from widehem.core.making.steps import Step, steps_of
from widehem.core.marking.labels import cloths_of
from widehem.core.output.pdf_order import order_pdf
from widehem.core.output.sheets import PAPERS
from widehem.core.output.svg_make import garment_svg, step_svg
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import LengthError, parse_length
from widehem.core.values import replace
from widehem.store.cloths import cloth_of, cloths, how_made, pace
from widehem.store.dockets import find_docket
from widehem.store.journal import tell
from widehem.store.models import Docket
from widehem.web.cutting import Cut, cut_of
from widehem.web.drawn_by import load
from widehem.web.handed import handed
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, today
from widehem.web.selvedge import selvedge
from widehem.web.show import display
from widehem.web.writing import writing

pages = Blueprint("make", __name__)


@dataclass(frozen=True)
class Making:
    """A garment as it is made up. pace: how long this house takes over a kind of step, in times of the usual."""

    cut: Cut
    order: Order
    steps: tuple[Step, ...]
    made: HowMade
    cloth: ClothKind
    known: Mapping[str, ClothKind]
    pace: Mapping[str, float]

    @property
    def docket(self) -> Docket:
        return self.cut.docket

    def minutes(self, step: Step) -> float:
        """About how long a step takes in this house, minutes."""
        return round(step.minutes * self.pace.get(step.kind, 1.0))

    def cloth_of(self, step: Step) -> ClothKind:
        """The cloth a step is sewn in: that of its pieces where all are cut from one, else the outer one."""
        use = self.cut.wanted.plan.use
        parts = [cloths_of(marked.piece, use)[:1] for marked in self.cut.pattern.pieces if marked.piece.name in step.pieces]
        named = {cloth.cloth for cut in parts for cloth in cut}
        if len(named) != 1:
            return self.cloth
        return cloth_of(self.made, named.pop(), self.known, knit=self.cut.made.wear.knit)

    @property
    def to_do(self) -> list[Step]:
        """The steps that are done on this garment."""
        return [step for step in self.steps if step.id not in self.made.left_out]

    @property
    def left(self) -> list[Step]:
        """Those of them that are still to do."""
        return [step for step in self.to_do if step.id not in self.made.done]


def making(docket_id: int) -> Making | None:
    """The garment as it is made up; None while it cannot be drawn."""
    try:
        cut = cut_of(load(docket_id))
    except (OptionError, CannotDraft):
        return None
    with current_store().read() as session:
        known, own = cloths(session), pace(session)
    made = how_made(cut.docket)
    cloth = cloth_of(made, cut.wanted.plan.use, known, knit=cut.made.wear.knit)
    order = work_of(cut.made.garment)
    return Making(cut, order, steps_of(order, cut.wanted, cloth, made.order, made.own), made, cloth, known, own)


@pages.get("/dockets/<int:docket_id>/make")
def station(docket_id: int) -> Any:
    """The order of work, at the first step that is not done."""
    return _page(docket_id, "", {})


def _page(docket_id: int, told: str, typed: Mapping[str, str]) -> Any:
    found = making(docket_id)
    if found is None:
        return redirect(url_for("board.draft", docket_id=docket_id), 303)
    docket, show = found.docket, display()
    wanted = request.values.get("step", "")
    left = found.left
    at = next((step for step in found.steps if step.id == wanted), left[0] if left else found.steps[-1])
    drawing, frame = step_svg(found.cut.made.garment, at)
    whole, whole_frame = garment_svg(found.cut.made.garment, set(at.pieces))
    done = found.made.done
    rest = sum(found.minutes(step) for step in left)
    number, cloth = found.steps.index(at), found.cloth_of(at)
    slots = [
        Slot("Done", "count", str(len(found.to_do) - len(left)), f"of {len(found.to_do)}", f"about {_hours(rest)} left"),
        Slot("Cloth", "count", cloth.name, "", " ".join(advice(cloth)[key].text(show) for key in ("needle", "stitch"))),
    ]
    spent = sum(entry.minutes or 0.0 for entry in done.values())
    if spent:
        slots.append(Slot("Spent", "count", _hours(spent), "", "as far as it was written down"))
    words = f"{len(found.to_do) - len(left)} of {len(found.to_do)}"
    return render_template(
        "make.html", docket=docket, making=found, at=at, number=number, before=found.steps[number - 1] if number else None,
        after=found.steps[number + 1] if number + 1 < len(found.steps) else None, drawing=Markup(drawing), frame=frame, whole=Markup(whole),
        whole_frame=whole_frame, told=told, typed=typed, waits=[found.order.title(name) for name in at.first if name not in done], hours=_hours,
        join=found.order.join(at.id), cautions=found.cut.pattern.cautions, view="order", advice=_advice(found.cloth),
        parts=_parted(found, at), selvedge=selvedge(docket.wearer, docket, found.cut.work.chart, "make", words, found.cut.work.changed),
        slots=slots, tally="", next=_next(found, at),
    )  # fmt: skip


def _advice(cloth: ClothKind) -> list[tuple[str, str]]:
    show = display()
    return [(HEADINGS[key], saying.text(show)) for key, saying in advice(cloth).items()]


def _hours(minutes: float) -> str:
    """A stretch of time as it is said."""
    if minutes < 60:
        return f"{minutes:.0f} min"
    return f"{minutes // 60:.0f} h {minutes % 60:.0f} min" if minutes % 60 else f"{minutes // 60:.0f} h"


def _next(found: Making, at: Step) -> Next:
    here = url_for(".tick", docket_id=found.docket.id)
    back = url_for(".station", docket_id=found.docket.id)
    if not found.left:
        return Next(
            "To the rail",
            url_for("wearer.about", wearer_id=found.docket.wearer_id),
            "From the first step",
            f"{back}?step={found.steps[0].id}",
        )
    if at.id in found.made.done or at.id in found.made.left_out:
        return Next("To the next step", f"{back}?step={found.left[0].id}")
    return Next("Done", here, form="tick")


def _parted(found: Making, at: Step) -> str:
    """What to make of two sides that part, as they were measured at the table."""
    join = found.order.join(at.id)
    texts = request.args.get("one", "").strip(), request.args.get("two", "").strip()
    if join is None or join.twin or not all(texts):
        return ""
    try:
        one, two = (parse_length(text, display().unit).cm for text in texts)
    except LengthError as error:
        return str(error)
    return parted(found.order.sewn, join, one, two).text(display())


def keep_making(docket_id: int, found: HowMade, words: str) -> None:
    """Keep how a garment is made up, and tell it."""
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        docket.making = found.as_data()
        tell(session, words, docket)


def _known(docket_id: int) -> tuple[Making, Step]:
    """The garment and the step that was sent. 404 where there is none."""
    found = making(docket_id)
    step = next((step for step in found.steps if step.id == request.form.get("step", "")), None) if found is not None else None
    if found is None or step is None:
        abort(404)
    return found, step


@pages.post("/dockets/<int:docket_id>/make/tick")
def tick(docket_id: int) -> Any:
    """A step is done, and how long it took; or it is to do again."""
    found, step = _known(docket_id)
    again = request.form.get("again") == "1"
    text = request.form.get("minutes", "").strip().replace(",", ".")
    minutes: float | None = None
    if text and not again:
        try:
            minutes = float(text)
        except ValueError:
            minutes = -1.0
        if not 0 < minutes <= MOST_MINUTES:
            return _page(
                docket_id,
                f'Minutes: "{text[:20]}" cannot be: write a figure from 1 to {MOST_MINUTES:.0f}, or leave it empty.',
                request.form,
            ), 422
    entry = None if again else Done(today().isoformat(), minutes, step.kind, step.minutes)
    words = f"{step.title}: to do again." if again else f"{step.title}: done."
    keep_making(docket_id, found.made.ticked(step.id, entry), words)
    left = [other for other in found.left if other.id != step.id]
    to = step.id if again else left[0].id if left else step.id
    return redirect(url_for(".station", docket_id=docket_id, step=to), 303)


@pages.post("/dockets/<int:docket_id>/make/move")
def move(docket_id: int) -> Any:
    """A step put before another, or at the end; where that cannot be sewn, what blocks it is said."""
    found, step = _known(docket_id)
    order = list(in_order(found.order, found.made.order))
    order.remove(step.id)
    before = request.form.get("before", "")
    order.insert(order.index(before) if before in order else len(order), step.id)
    wrong = blocked(found.order, order)
    if wrong is not None:
        mine = wrong.why.text(display())
        return _page(docket_id, f"{found.order.title(wrong.name)} cannot stand there. {mine}", {}), 422
    keep_making(docket_id, replace(found.made, order=tuple(order)), f"Put {step.title} elsewhere in the order of work.")
    return redirect(url_for(".station", docket_id=docket_id, step=step.id), 303)


@pages.post("/dockets/<int:docket_id>/make/usual")
def usual(docket_id: int) -> Any:
    """Take the usual order again; own steps go to the end."""
    found = making(docket_id)
    if found is None:
        abort(404)
    keep_making(
        docket_id,
        replace(found.made, order=(*in_order(found.order, ()), *found.made.own) if found.made.own else ()),
        "Took the usual order of work.",
    )
    return redirect(url_for(".station", docket_id=docket_id), 303)


@pages.post("/dockets/<int:docket_id>/make/leave")
def leave(docket_id: int) -> Any:
    """Leave a step out on this garment, or take it in again; an own step goes for good."""
    found, step = _known(docket_id)
    if is_own(step.id):
        keep_making(docket_id, found.made.without_own(step.id), f"Took the step {step.title} out.")
        return redirect(url_for(".station", docket_id=docket_id), 303)
    out = step.id in found.made.left_out
    left_out = tuple(name for name in found.made.left_out if name != step.id) if out else (*found.made.left_out, step.id)
    keep_making(
        docket_id,
        replace(found.made, left_out=left_out),
        f"{step.title}: {'done on this one after all' if out else 'left out on this one'}.",
    )
    return redirect(url_for(".station", docket_id=docket_id, step=step.id), 303)


@pages.post("/dockets/<int:docket_id>/make/own")
def own(docket_id: int) -> Any:
    """A step of the maker's own after another."""
    found, step = _known(docket_id)
    try:
        made = found.made.with_own(request.form.get("words", ""), in_order(found.order, found.made.order), step.id)
    except MakingError as error:
        return _page(docket_id, str(error), request.form), 422
    name = next(iter(set(made.own) - set(found.made.own)))
    keep_making(docket_id, made, f"Added the step {made.own[name]}.")
    return redirect(url_for(".station", docket_id=docket_id, step=name), 303)


@pages.get("/dockets/<int:docket_id>/make/cloth")
def cloth(docket_id: int) -> Any:
    """What each cloth of the garment is, and what it asks for."""
    found = making(docket_id)
    if found is None:
        return redirect(url_for("board.draft", docket_id=docket_id), 303)
    rows = []
    for material in materials_of(found.cut.pattern):
        kind = cloth_of(found.made, material, found.known, knit=found.cut.made.wear.knit)
        rows.append((material, kind, _advice(kind)))
    slots = [Slot("Cloths", "count", str(len(rows)), "", "of this garment")]
    back = url_for(".station", docket_id=docket_id)
    return render_template(
        "make_cloth.html", docket=found.docket, rows=rows, known=found.known, view="cloth", slots=slots, tally="", next=Next("To the order of work", back),
        selvedge=selvedge(found.docket.wearer, found.docket, found.cut.work.chart, "make", "cloths", found.cut.work.changed),
    )  # fmt: skip


@pages.post("/dockets/<int:docket_id>/make/cloth")
def choose(docket_id: int) -> Any:
    """Say what the cloths of a garment are."""
    found = making(docket_id)
    if found is None:
        abort(404)
    materials = materials_of(found.cut.pattern)
    chosen = {m: code for m in materials if (code := request.form.get(f"m.{m}", "")) in found.known}
    if chosen:
        keep_making(
            docket_id, replace(found.made, cloths={**found.made.cloths, **chosen}), f"Said what {found.docket.name} is made of."
        )
    return redirect(url_for(".cloth", docket_id=docket_id), 303)


@pages.get("/dockets/<int:docket_id>/make/order.pdf")
def printed(docket_id: int) -> Response:
    """The order of work on paper, to be ticked with a pencil."""
    found = making(docket_id)
    if found is None:
        abort(409)
    docket, show = found.docket, display()
    about = f"For {docket.wearer.name}, {docket.production.name} · in {found.cloth.name.lower()} · {today().isoformat()}"
    paper = PAPERS["letter"] if docket.paper == "letter" else PAPERS["a4"]
    title = f"Order of work: {docket.name}"
    data = order_pdf(title, about, _printed_steps(found), _advice(found.cloth), found.cut.pattern.cautions, paper, show)
    return handed(data, f"Order of work of {docket.name} for {docket.wearer.name}.pdf", "application/pdf")


def _printed_steps(found: Making) -> Sequence[tuple[Step, bool, float]]:
    return [(step, step.id in found.made.done, found.minutes(step)) for step in found.to_do]
