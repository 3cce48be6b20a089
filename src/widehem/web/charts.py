"""Charts over time: every chart of a wearer, two of them compared, a new one begun, garments drawn on it."""

from __future__ import annotations

from contextlib import suppress
from datetime import date
from typing import Any

from flask import Blueprint, abort, redirect, render_template, request, url_for

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.compare import compare
from widehem.core.body.occasion import age_words, too_old
from widehem.store.charts import begin_chart, charts_of, core_charts
from widehem.store.dockets import changed_since, differences, find_docket, find_wearer
from widehem.store.journal import tell
from widehem.store.models import ChartRow
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, today
from widehem.web.in_hand import hem_slots, in_hand
from widehem.web.numbers import number_of
from widehem.web.selvedge import selvedge
from widehem.web.show import display, figure
from widehem.web.stood import both
from widehem.web.writing import writing

pages = Blueprint("charts", __name__)


@pages.get("/wearers/<int:wearer_id>/charts")
def over_time(wearer_id: int) -> str:
    """All charts of a wearer, and two of them side by side."""
    return _page(wearer_id, {})


def _page(wearer_id: int, errors: dict[str, str]) -> str:
    with current_store().read() as session:
        hand = in_hand(wearer_id, session)
        rows = charts_of(session, wearer_id)
        charts = core_charts(session, rows)
        after = _chosen(rows, "b", 0)
        before = _chosen(rows, "a", 1)
        dockets = hand.wearer.dockets
        stale = differences(session, dockets, rows[0]) if rows else {}
        changed = changed_since(session, hand.docket) if hand.docket else ()
        on = {row.id: [docket.name for docket in dockets if (docket.chart_id or rows[0].id) == row.id] for row in rows}
    found = compare(charts[before.id], charts[after.id]) if before and after else ()
    moved = [entry for entry in found if entry.changed]
    widest = max((abs(entry.by) for entry in moved if entry.by is not None), default=0.0)
    late = [docket for docket in dockets if stale.get(docket.id)]
    show = display()
    compared = Slot(
        "What changed", "count", str(len(moved)), f"of {len(found)}",
        f"the most by {show.full(widest)}" if moved else "no second chart to compare" if not found else "the two say the same",
    )  # fmt: skip
    stale_slot = Slot(
        "Garments",
        "look" if late else "true",
        str(len(late)),
        "stale",
        "drawn on an older chart" if late else "all on the newest figures",
    )

    def to(code: str) -> str:
        return hand.to("measure.chart", code)

    about = next(slot for slot in hem_slots(hand, to) if slot.title == "This chart")
    following = (
        Next(f"Draw {late[0].name} on the newest", "#draw-on-newest")
        if late
        else Next("To the chart", hand.to("measure.chart"))
    )
    return render_template(
        "charts.html", hand=hand, wearer=hand.wearer, rows=rows, charts=charts, before=before, after=after, found=found,
            stale=stale,
        dockets=dockets, on=on, today=today(), age_words=age_words, too_old=too_old, catalogue=CATALOGUE, errors=errors,
        whole_doubts=[doubt for doubt in hand.doubts if doubt.rule in ("age", "foundation")], accepted=hand.accepted, at=None,
        page="charts.over_time", selvedge=selvedge(hand.wearer, hand.docket, hand.chart, "measure", changed=changed),
        slots=[Slot("Charts", "count", figure(str(len(rows))), "", "kept, none ever changed unseen"),
            about, compared, stale_slot],
        tally="", next=following,
    )  # fmt: skip


def _chosen(rows: list[ChartRow], name: str, usual: int) -> ChartRow | None:
    """The chart an address names for one side of the comparison, else the newest and the one before it."""
    wanted = request.args.get(name, type=number_of)
    return next((row for row in rows if row.id == wanted), rows[usual] if len(rows) > usual else None)


@pages.post("/wearers/<int:wearer_id>/charts")
def begin(wearer_id: int) -> Any:
    """Begin a new chart, empty or with what stands on the newest carried over."""
    form = request.form
    try:
        taken_on = date.fromisoformat(form.get("taken_on", ""))
    except ValueError:
        words = f'"{form.get("taken_on", "")}" is not a date: write it like 2026-11-03, then begin the chart.'
        return _page(wearer_id, {"taken_on": words}), 422
    with writing() as session:
        wearer = find_wearer(session, wearer_id)
        if wearer is None:
            abort(404)
        row = begin_chart(session, wearer, taken_on, carry=form.get("carry") == "yes")
        for name in ("foundation", "shoes", "measured_by"):
            words = form.get(name, "").strip()[: 120 if name == "measured_by" else 200]
            if words:
                setattr(row, name, words)
        session.flush()
        tell(session, f"Began a chart of {wearer.name}.", wearer)
        number = row.id
    page = "measure.tape" if form.get("then") == "tape" else "measure.chart"
    return redirect(in_hand(wearer_id).to(page, chart=number), 303)


@pages.post("/dockets/<int:docket_id>/newest")
def draw_on_newest(docket_id: int) -> Any:
    """Draw a garment on the wearer's newest chart from now on, or on the one named."""
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        tell(session, f"{docket.name} is drawn on another chart.", docket)
        docket.chart_id = None
        with suppress(ValueError):
            wanted = int(request.form.get("chart", ""))
            if any(row.id == wanted for row in charts_of(session, docket.wearer_id)[1:]):
                docket.chart_id = wanted
        wearer_id = docket.wearer_id
    back = request.form.get("back")
    there = url_for("board.draft", docket_id=docket_id) if back == "draft" else url_for("charts.over_time", wearer_id=wearer_id)
    return redirect(there, 303)


@pages.post("/dockets/<int:docket_id>/foundation")
def worn_over(docket_id: int) -> Any:
    """What a costume is worn over, which its chart should have been taken over as well."""
    with writing() as session:
        docket = find_docket(session, docket_id)
        if docket is None:
            abort(404)
        tell(session, f"Kept what {docket.name} is worn over.", docket)
        docket.foundation = both(docket.foundation, request.form.get("foundation", ""), "foundation", 200)
        wearer_id = docket.wearer_id
    if request.form.get("back") == "draft":
        return redirect(url_for("board.draft", docket_id=docket_id, slip="settings"), 303)
    return redirect(url_for("charts.over_time", wearer_id=wearer_id), 303)
