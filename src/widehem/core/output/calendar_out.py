"""The days of a production as an iCalendar file: every phase of every garment, and the rehearsal."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime, timedelta

from icalendar import Calendar, Event

from widehem.core.making.calendar import Garment, Plan, Stretch

MAKER = "-//Wide Hem//Calendar//EN"


def calendar_file(
    title: str, rows: Sequence[tuple[Garment, Sequence[Stretch]]], plan: Plan, stamp: datetime, mark: str
) -> bytes:
    """The file. stamp: when it was written, in UTC; mark: of the production, so that an event read again replaces its old self."""
    found = Calendar()
    found.add("prodid", MAKER)
    found.add("version", "2.0")
    found.add("x-wr-calname", title)
    for day, words, code in ((plan.rehearsal, "Dress rehearsal", "rehearsal"), (plan.opening, "Opening", "opening")):
        if day is not None:
            found.add_component(_event(f"{words}: {title}", day, day, f"{code}-{mark}", stamp, ""))
    for garment, stretches in rows:
        for row in stretches:
            if row.phase != "rehearsal":
                words = f"{row.words}: {garment.name}, {garment.wearer}"
                about = "Done." if row.done else f"Late by {row.late} working days." if row.late else ""
                found.add_component(_event(words, row.begin, row.end, f"{garment.id}-{row.phase}-{mark}", stamp, about))
    data: bytes = found.to_ical()
    return data


def _event(words: str, begin: object, end: object, uid: str, stamp: datetime, about: str) -> Event:
    event = Event()
    event.add("summary", words)
    event.add("dtstart", begin)
    event.add("dtend", end + timedelta(days=1))  # type: ignore[operator]
    event.add("dtstamp", stamp)
    event.add("uid", f"{uid}@widehem")
    if about:
        event.add("description", about)
    return event
