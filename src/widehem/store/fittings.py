"""Fittings in the store: rounds begun, what is noted in them kept once however often it is sent, and folded for whoever looks."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from widehem.core.fitting.record import CLIENT, RecordError, Round, checked, folded
from widehem.core.units import Unit
from widehem.store.models import Docket, FittingEvent, FittingRound

MOST_ROUNDS, MOST_EVENTS = 40, 600
TOILE, CLOTH = "toile", "cloth"
KINDS: Mapping[str, str] = {TOILE: "toile", CLOTH: "the garment in its cloth"}


def rounds_of(session: Session, docket_id: int) -> list[FittingRound]:
    """The fittings of a garment, the first first."""
    query = select(FittingRound).where(FittingRound.docket_id == docket_id).order_by(FittingRound.number, FittingRound.id)
    return list(session.scalars(query))


def begin_round(session: Session, docket: Docket, on: date, **words: str) -> FittingRound:
    """A new fitting of a garment. Raises RecordError where there are more than anybody could have had."""
    count = session.scalar(select(func.count()).where(FittingRound.docket_id == docket.id)) or 0
    if count >= MOST_ROUNDS:
        raise RecordError(f"{docket.name} has {count} fittings: {MOST_ROUNDS} are kept at most.")
    last = session.scalar(select(func.max(FittingRound.number)).where(FittingRound.docket_id == docket.id)) or 0
    row = FittingRound(docket_id=docket.id, number=last + 1, taken_on=on, **words)
    session.add(row)
    session.flush()
    return row


def note_events(session: Session, row: FittingRound, sent: Sequence[Mapping[str, Any]], unit: Unit) -> list[str]:
    """Keep what was noted, in the order in which it was; what is there already is left as it is. Returns the numbers that are kept now.
    Raises RecordError naming the first that cannot be."""
    known = {event.client for event in row.noted}
    kept: list[str] = []
    for entry in sent:
        client = str(entry.get("client", ""))
        if not client.isascii() or not 6 <= len(client) <= CLIENT:
            raise RecordError("A note without a number of its own was sent: load the page again and note it there.")
        kept.append(client)
        if client in known:
            continue
        if len(known) >= MOST_EVENTS:
            raise RecordError(f"This fitting has {MOST_EVENTS} notes: begin the next one.")
        own = entry.get("unit")
        data = checked(str(entry.get("what", "")), entry, own if own in ("cm", "in") else unit)
        session.add(FittingEvent(round_id=row.id, client=client, what=str(entry["what"]), data=data))
        known.add(client)
    session.flush()
    session.expire(row, ["noted"])
    return kept


def note_gathered(
    session: Session, row: FittingRound, sent: Sequence[Mapping[str, Any]], unit: Unit
) -> tuple[list[str], dict[str, str]]:
    """Keep what a phone has gathered, each for itself: the numbers of what is kept now, and of what cannot be, with the reason."""
    kept: list[str] = []
    refused: dict[str, str] = {}
    for entry in sent:
        try:
            kept += note_events(session, row, [entry], unit)
        except RecordError as error:
            refused[str(entry.get("client", ""))[:CLIENT]] = str(error)
    return kept, refused


def folded_round(row: FittingRound) -> Round:
    """What a fitting came to."""
    return folded((event.client, event.what, event.data) for event in row.noted)
