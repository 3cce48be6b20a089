"""The days of the house: what is kept is of UTC, what is shown and written on charts is a day where the house stands."""

from __future__ import annotations

from datetime import date, datetime
from zoneinfo import ZoneInfo

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.days import ZoneError, day_in, zone_named
from widehem.store.models import HouseRow, now

OF_HOUSE, ZONE = "house", "zone"
_row = (HouseRow.of == OF_HOUSE, HouseRow.key == ZONE)


def zone_name(session: Session) -> str:
    """The zone of the house by name; '' for that of the machine."""
    return session.scalar(select(HouseRow.text).where(*_row)) or ""


def house_zone(session: Session) -> ZoneInfo | None:
    """The zone of the house; None for that of the machine."""
    name = zone_name(session)
    try:
        return zone_named(name) if name else None
    except ZoneError:
        return None


def keep_zone(session: Session, name: str) -> None:
    """Set the zone of the house; '' for that of the machine. Raises ZoneError."""
    if name:
        zone_named(name)
    row = session.scalars(select(HouseRow).where(*_row)).first()
    if row is not None and name:
        row.text = name
    elif row is not None:
        session.delete(row)
    elif name:
        session.add(HouseRow(of=OF_HOUSE, key=ZONE, text=name))


def house_day(session: Session, moment: datetime | None = None) -> date:
    """The day of a moment where the house stands; today without one."""
    return day_in(moment or now(), house_zone(session))
