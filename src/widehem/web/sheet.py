"""The whole chart as a sheet: every measure of the list in fields, by keyboard only, each written down as it is left."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, render_template, request

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import SIDES
from widehem.store.charts import chart_numbered, open_chart
from widehem.store.dockets import changed_since, find_wearer
from widehem.store.journal import tell
from widehem.web.here import current_store
from widehem.web.in_hand import InHand, hem_slots, in_hand, next_of, tally
from widehem.web.numbers import number_of
from widehem.web.readings import TURNS, field_name, read_form, read_words, shown, stood, write
from widehem.web.selvedge import selvedge
from widehem.web.writing import writing

pages = Blueprint("sheet", __name__)


@pages.get("/wearers/<int:wearer_id>/sheet")
def whole(wearer_id: int) -> str:
    """The sheet."""
    hand = in_hand(wearer_id)
    with current_store().read() as session:
        changed = changed_since(session, hand.docket) if hand.docket else ()
    return render_template(
        "sheet.html", selvedge=selvedge(hand.wearer, hand.docket, hand.chart, "measure", changed=changed), **_context(hand)
    )


@pages.post("/wearers/<int:wearer_id>/sheet")
def cell(wearer_id: int) -> Any:
    """Write down one row; answers with everything beside the fields that may have changed, never with the fields."""
    code = request.form.get("measure", "")
    if code not in CATALOGUE:
        abort(400)
    typed = read_form(request.form, code, in_hand(wearer_id).reading(code))
    with writing() as session:
        wearer = find_wearer(session, wearer_id)
        if wearer is None:
            abort(404)
        if typed.read:
            row = chart_numbered(session, wearer_id, request.form.get("chart", type=number_of)) or open_chart(session, wearer)
            tell(session, read_words(typed, wearer), wearer)
            write(session, row, typed)
    page = render_template("_sheet_beside.html", typed=typed, row_code=code, **_context(in_hand(wearer_id)))
    return page, 422 if typed.errors else 200


def _context(hand: InHand) -> dict[str, Any]:
    """What the sheet and its answers show."""
    apart = request.values.get("apart") == "1"

    def to(code: str) -> str:
        return hand.to("measure.chart", code)

    rows = [row for code in hand.codes for row in _rows(hand, code, apart)]
    doubtful = {code: doubt.key in hand.accepted for doubt in reversed(hand.doubts) for code in doubt.measures}
    return {
        "hand": hand, "rows": rows, "apart": apart, "wearer": hand.wearer, "chart": hand.chart, "doubtful": doubtful,
        "open": [doubt for doubt in hand.open_doubts if set(doubt.measures) <= {*hand.codes}], "catalogue": CATALOGUE,
        "slots": hem_slots(hand, to), "tally": tally(hand), "next": next_of(hand, "", to),
        "some_sided": any(CATALOGUE[code].sided for code in hand.codes),
    }  # fmt: skip


def _rows(hand: InHand, code: str, apart: bool) -> list[dict[str, Any]]:
    """The rows of one measure: one for both sides, and one for each side where they are read apart."""
    reading = hand.reading(code)
    sides = ["", *SIDES] if CATALOGUE[code].sided and (apart or reading.apart) else [""]
    return [
        {
            "measure": CATALOGUE[code], "side": side, "carried": reading.cm if reading.carried and not side else None,
            "fields": [
                {"turn": turn, "name": field_name(side, turn), "value": shown(reading, side, turn),
                    "was": stood(reading, side, turn)}
                for turn in TURNS
            ],
        }
        for side in sides
    ]  # fmt: skip
