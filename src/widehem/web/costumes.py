"""The costumes of a wearer: their garments in the order they are worn, what each has to go over, and their sheet to print."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, cast

from flask import Blueprint, Response, abort, redirect, render_template, request, url_for

from widehem.core.design.costume import COUNTS, Counts, Layer, Over, Round, closing_words, goes_over, rounds
from widehem.core.output.sheets import PAPERS
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.store.costumes import costumes_of, move, not_in_any, put_over
from widehem.store.dockets import find_docket, find_wearer
from widehem.store.journal import tell
from widehem.store.making import find_work
from widehem.store.models import Docket, now
from widehem.store.papers import cautions
from widehem.web.handed import handed
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store
from widehem.web.in_hand import in_hand
from widehem.web.numbers import is_number
from widehem.web.selvedge import selvedge
from widehem.web.show import display
from widehem.web.writing import writing

pages = Blueprint("costumes", __name__)
LONGEST = {"closes": 200, "attaches": 200, "quick": 400}
NAME = 80


@dataclass(frozen=True)
class Whole:
    """A costume with its garments from the skin outwards, and what was worked out for them."""

    name: str
    dockets: tuple[Docket, ...]
    layers: tuple[Layer, ...]

    @property
    def over(self) -> list[Over]:
        return goes_over(self.layers)

    @property
    def rounds(self) -> list[Round]:
        return rounds(self.layers)


def _whole(session: Any, name: str, worn: Sequence[Docket]) -> Whole:
    layers = []
    for docket in worn:
        work, made, wrong = (
            find_work(session, docket.id),
            None,
            say("There is no chart it could be drawn on, or its method is no more."),
        )
        if work is not None:
            try:
                made = work.made()
            except CannotDraft as cannot:
                wrong = cannot.saying
            except OptionError as error:
                wrong = say(str(error).replace("{", "(").replace("}", ")"))
        layers.append(Layer(docket.name, cast(Counts, docket.counts), made, None if made else wrong))
    return Whole(name, tuple(worn), tuple(layers))


@pages.get("/wearers/<int:wearer_id>/costumes")
def every(wearer_id: int) -> str:
    """The costumes of a wearer."""
    return _page(wearer_id, {}, {})


def _page(wearer_id: int, errors: dict[str, str], typed: dict[str, str]) -> str:
    with current_store().read() as session:
        hand = in_hand(wearer_id, session)
        found = [_whole(session, name, worn) for name, worn in costumes_of(session, wearer_id).items()]
        free = not_in_any(session, wearer_id)
    count = sum(len(whole.dockets) for whole in found)
    slots = [
        Slot("Costumes", "count", str(len(found)), "", f"{count} garments in them"),
        Slot("In none", "count", str(len(free)), "", "garments"),
    ]
    return render_template(
        "costumes.html", wearer=hand.wearer, found=found, free=free, counts=COUNTS, errors=errors, typed=typed, longest=LONGEST, closing=closing_words,
        selvedge=selvedge(hand.wearer, hand.docket, hand.chart, ""), slots=slots, tally="",
        next=Next("About the wearer", url_for("wearer.about", wearer_id=wearer_id)),
    )  # fmt: skip


@pages.post("/wearers/<int:wearer_id>/costumes")
def put(wearer_id: int) -> Any:
    """A garment becomes the outermost of a costume; a name that is not there yet begins one."""
    name = " ".join(request.form.get("costume", "").split())[:NAME]
    garment = request.form.get("garment", "")
    if not name:
        return _page(wearer_id, {"costume": "Costume: give it a name, an old one or a new one."}, dict(request.form)), 422
    with writing() as session:
        docket = find_docket(session, int(garment)) if is_number(garment) else None
        if docket is None or docket.wearer_id != wearer_id:
            abort(404)
        put_over(session, docket, name)
        tell(session, f"{docket.name} is worn with the costume {name}.", docket)
    return redirect(url_for(".every", wearer_id=wearer_id), 303)


@pages.post("/dockets/<int:docket_id>/worn")
def change(docket_id: int) -> Any:
    """Move a garment further in or out of its costume, take it out, or keep what it is there."""
    what = request.form.get("what", "keep")
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None or not docket.costume:
            abort(404)
        back, costume = docket.wearer_id, docket.costume
        if what in ("in", "out"):
            move(session, docket, -1 if what == "in" else 1)
            words = f"worn further {'inside' if what == 'in' else 'outside'} in"
        elif what == "off":
            put_over(session, docket, "")
            words = "no more a part of"
        else:
            counts = request.form.get("counts", docket.counts)
            docket.counts = counts if counts in COUNTS else docket.counts
            for field, most in LONGEST.items():
                setattr(docket, field, request.form.get(field, getattr(docket, field)).strip()[:most])
            docket.updated_at = now()
            words = "changed in"
        tell(session, f"{docket.name} is {words} the costume {costume}.", docket)
    return redirect(url_for(".every", wearer_id=back), 303)


@pages.get("/wearers/<int:wearer_id>/costume.pdf")
def sheet(wearer_id: int) -> Response:
    """The sheet of a costume: every figure before the first line is drawn, and its pieces layer by layer."""
    from widehem.core.output.pdf_costume import Worn, costume_pdf

    name = request.args.get("costume", "")
    paper = PAPERS[request.args.get("paper", "a4")] if request.args.get("paper", "a4") in ("a4", "letter") else PAPERS["a4"]
    with current_store().read() as session:
        wearer = find_wearer(session, wearer_id)
        worn = costumes_of(session, wearer_id).get(name)
        if wearer is None or not worn:
            abort(404)
        whole = _whole(session, name, worn)
        about = " · ".join(
            word for word in (wearer.name, wearer.role, wearer.production.name, wearer.production.company) if word
        )
        careful = cautions(wearer)
    rows = [
        Worn(layer, docket.closes, docket.attaches, docket.quick)
        for docket, layer in zip(whole.dockets, whole.layers, strict=True)
    ]
    data = costume_pdf(f"Costume {name}", about, rows, careful, paper, display())
    return handed(data, f"{wearer.name} {name}.pdf", "application/pdf")
