"""Fittings: rounds with what was judged, seen, pinned and moved; what may be behind each sign, and what to do about it."""

from __future__ import annotations

import secrets
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Any

from flask import Blueprint, Response, abort, jsonify, redirect, render_template, request, url_for
from markupsafe import Markup
from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.body.figure import build_of, outline
from widehem.core.body.measure import View
from widehem.core.fitting.alteration import fitting
from widehem.core.fitting.candidates import Candidate, candidates, figures
from widehem.core.fitting.causes import LOOK_AT, SIGNS
from widehem.core.fitting.record import HANDS, MOVEMENTS, VERDICTS, WAYS, RecordError, Round, Seen
from widehem.core.fitting.stand import stand_test
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.store.dockets import find_docket
from widehem.store.fittings import KINDS, begin_round, folded_round, note_events, note_gathered, rounds_of
from widehem.store.journal import tell
from widehem.store.making import Work
from widehem.store.models import Docket, FittingRound, Note
from widehem.store.notes import MOST_PICTURES
from widehem.web.drawn_by import load
from widehem.web.held import pictures_of
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, today
from widehem.web.selvedge import selvedge
from widehem.web.show import display
from widehem.web.style_state import SETTING, StyleState, written
from widehem.web.writing import writing

pages = Blueprint("rounds", __name__)
PIN = 1.0  # cm: taken where a sign was seen and nothing was pinned
LONGEST = 200
SHOWN = 4  # causes of a sign that are shown open; the rest lie under them


@dataclass(frozen=True)
class Reviewed:
    """A sign with what may be behind it, each with the address at which it is tried; '' where this paper has nothing of it."""

    seen: Seen
    number: int
    causes: tuple[tuple[Candidate, str], ...]


@pages.get("/dockets/<int:docket_id>/fit/rounds")
def listed(docket_id: int) -> str:
    """The fittings of a garment, and a new one."""
    return _listed(docket_id, {}, {})


def _listed(docket_id: int, errors: Mapping[str, str], typed: Mapping[str, str]) -> str:
    work = load(docket_id)
    with current_store().read() as session:
        found = [(row, folded_round(row)) for row in rounds_of(session, docket_id)]
    seen = sum(len(state.seen) for _, state in found)
    row = work.row
    start = {
        "taken_on": today().isoformat(), "foundation": work.docket.foundation or (row.foundation if row else ""),
        "shoes": row.shoes if row else "",
    }  # fmt: skip
    return render_template(
        "fit_rounds.html", docket=work.docket, rounds=found, kinds=KINDS, errors=errors, typed={**start, **typed}, view="rounds", signs=SIGNS,
        selvedge=selvedge(work.docket.wearer, work.docket, work.chart, "fit", "fittings", work.changed),
        slots=[Slot("Fittings", "count", str(len(found)), "", f"{seen} sign{'s' if seen != 1 else ''} seen")], tally="",
        next=Next("To the alterations", url_for("fit.station", docket_id=docket_id)),
    )  # fmt: skip


@pages.post("/dockets/<int:docket_id>/fit/rounds")
def begin(docket_id: int) -> Any:
    """Begin a fitting."""
    typed = {
        name: request.form.get(name, "").strip()[:LONGEST] for name in ("taken_on", "kind", "people", "foundation", "shoes")
    }
    try:
        on = date.fromisoformat(typed["taken_on"])
    except ValueError:
        words = f'Day: "{typed["taken_on"][:20]}" is no date: write it like 2026-11-03, then begin the fitting.'
        return _listed(docket_id, {"taken_on": words}, typed), 422
    kind = typed["kind"] if typed["kind"] in KINDS else "toile"
    try:
        with writing() as session:
            docket = find_docket(session, docket_id)
            if docket is None:
                abort(404)
            row = begin_round(
                session, docket, on, kind=kind, people=typed["people"], foundation=typed["foundation"], shoes=typed["shoes"]
            )
            tell(session, f"Began fitting {row.number} of {docket.name}.", docket)
            number = row.id
    except RecordError as error:
        return _listed(docket_id, {"taken_on": str(error)}, typed), 422
    return redirect(url_for(".one", round_id=number), 303)


def _found(session: Session, round_id: int) -> tuple[FittingRound, Docket]:
    """A round and its garment. 404 where there is none."""
    row = session.get(FittingRound, round_id)
    docket = find_docket(session, row.docket_id) if row is not None else None
    if row is None or docket is None:
        abort(404)
    return row, docket


@pages.get("/fit/rounds/<int:round_id>")
def one(round_id: int) -> Any:
    """A fitting: what is noted, and what may be behind it."""
    return _one(round_id, "", {})


def _one(round_id: int, error: str, typed: Mapping[str, str]) -> str:
    with current_store().read() as session:
        row, docket = _found(session, round_id)
        state = folded_round(row)
        beside = _beside(session, row)
        held = pictures_of(session, row, docket, request.args)
    work = load(docket.id)
    build = build_of(work.chart)
    views: tuple[View, ...] = ("front", "back")
    bodies = {view: Markup("".join(f'<path class="body" d="{d}"/>' for d in outline(build, view))) for view in views}
    good, alter = (sum(1 for v in state.verdicts.values() if v == verdict) for verdict in ("good", "alter"))
    slots = [
        Slot("Looked at", "count", str(len(state.verdicts)), f"of {len(LOOK_AT)}", f"{good} good, {alter} to alter"),
        Slot("Signs", "count", str(len(state.seen)), "", "seen on the body"),
    ]
    return render_template(
        "fit_round.html", docket=docket, row=row, state=state, reviewed=_reviewed(work, docket, state), look_at=LOOK_AT, verdicts=VERDICTS,
        signs=SIGNS, ways=WAYS, hands=HANDS, movements=MOVEMENTS, bodies=bodies, apart=build.apart, beside=beside, held=held, most=MOST_PICTURES, error=error, typed=typed,
        kinds=KINDS, shown=SHOWN, selvedge=selvedge(docket.wearer, docket, work.chart, "fit", f"fitting {row.number}", work.changed),
        slots=slots, tally="", next=Next("To the alterations", url_for("fit.station", docket_id=docket.id)),
    )  # fmt: skip


def _beside(session: Session, row: FittingRound) -> list[tuple[FittingRound, Docket]]:
    """Other fittings of that day: those whose wearers stand there as well."""
    rows = session.scalars(
        select(FittingRound).where(FittingRound.taken_on == row.taken_on, FittingRound.id != row.id).order_by(FittingRound.id)
    )
    found = [(other, find_docket(session, other.docket_id)) for other in rows]
    return [(other, docket) for other, docket in found if docket is not None]


def _reviewed(work: Work, docket: Docket, state: Round) -> list[Reviewed]:
    """Every sign with what may be behind it."""
    if not state.seen:
        return []
    possible: set[str] = set()
    try:
        made = work.made()
        rows = stand_test(made, work.design())
        possible = {op.code for entries in fitting(made.garment).values() for op in entries}
    except (OptionError, CannotDraft):
        rows = ()
    known = figures(work.chart, rows)
    found = []
    for number, seen in enumerate(state.seen, 1):
        if seen.code not in SIGNS:
            found.append(Reviewed(seen, number, ()))
            continue
        ranked = candidates(seen.code, seen.pinned or PIN, known, state.codes, state.good)
        found.append(
            Reviewed(
                seen,
                number,
                tuple((cause, _address(docket, cause, seen) if cause.cause.alteration in possible else "") for cause in ranked),
            )
        )
    return found


def _address(docket: Docket, cause: Candidate, seen: Seen) -> str:
    """Where an alteration is tried, with its settings filled in."""
    asked = StyleState(code=cause.cause.alteration).operation
    if asked is None:
        return url_for("fit.station", docket_id=docket.id)
    options = {option.code: option for option in asked.options}
    settings = {**cause.settings, **({"hand": seen.hand} if seen.hand and "hand" in options else {})}
    texts = {
        code: value
        if isinstance(value, str)
        else written(options[code], min(max(float(value), options[code].low), options[code].high), display())
        for code, value in settings.items()
        if code in options
    }
    query: dict[str, Any] = {
        "do": asked.code,
        **{SETTING + code: text for code, text in texts.items()},
        "because": seen.title[:LONGEST],
    }
    return url_for("fit.station", docket_id=docket.id, **query)


# ---- writing ----


@pages.post("/fit/rounds/<int:round_id>/notes")
def note(round_id: int) -> Any:
    """Keep what was noted: one thing from a form, or all that a phone has gathered while it was alone."""
    if request.is_json:
        return _gathered(round_id, _events(request.get_json(silent=True)))
    sent = {**request.form.to_dict(), "client": request.form.get("client") or secrets.token_hex(8)}
    try:
        with writing() as session:
            row, docket = _found(session, round_id)
            before = len(row.noted)
            note_events(session, row, [sent], display().unit)
            _told(session, row, docket, before)
    except RecordError as error:
        return _one(round_id, str(error), request.form), 422
    return redirect(url_for(".one", round_id=round_id), 303)


def _gathered(round_id: int, sent: Sequence[Mapping[str, Any]] | None) -> Any:
    """What of a phone's notes is kept now, and what cannot be: the phone lets go of the first and shows the others."""
    if sent is None:
        return jsonify(error="What was sent cannot be read: load the page again."), 400
    with writing() as session:
        row, docket = _found(session, round_id)
        before = len(row.noted)
        kept, refused = note_gathered(session, row, sent, display().unit)
        _told(session, row, docket, before)
    return jsonify(kept=kept, refused=refused)


def _told(session: Session, row: FittingRound, docket: Docket, before: int) -> None:
    """Say in the journal that something was noted, where anything was."""
    if len(row.noted) > before:
        tell(session, f"Noted at fitting {row.number} of {docket.name}.", docket)


def _events(gathered: Any) -> Sequence[Mapping[str, Any]] | None:
    """The events a phone sent; None where they are none."""
    found = gathered.get("events") if isinstance(gathered, dict) else None
    if not isinstance(found, list) or len(found) > 200 or not all(isinstance(entry, dict) for entry in found):
        return None
    return found


@pages.post("/fit/rounds/<int:round_id>/delete")
def delete(round_id: int) -> Response | Any:
    """Take a fitting away with all that was noted; it can be taken back."""
    with writing() as session:
        row, docket = _found(session, round_id)
        tell(session, f"Took away fitting {row.number} of {docket.name}.", docket)
        for made_at_it in session.scalars(select(Note).where(Note.round_id == row.id)):
            made_at_it.round_id = None  # the pictures stay with the garment; taken back, they are of this fitting again
        session.flush()
        session.delete(row)
    return redirect(url_for(".listed", docket_id=docket.id), 303)
