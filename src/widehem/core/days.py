"""Days as people say them, in the zone of the house."""

from __future__ import annotations

from datetime import UTC, date, datetime, tzinfo
from functools import cache
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError, available_timezones


class ZoneError(ValueError):
    """No zone is called so; one sentence."""


def day_words(day: date) -> str:
    """3 November 2026."""
    return f"{day.day} {day:%B %Y}"


def day_in(moment: datetime, zone: tzinfo | None) -> date:
    """The day of a moment, which is of UTC, in a zone; None for the machine's own."""
    return moment.replace(tzinfo=UTC).astimezone(zone).date()


@cache
def zone_names() -> tuple[str, ...]:
    """The zones that can be named, by continent and place."""
    return tuple(
        sorted(name for name in available_timezones() if "/" in name and not name.startswith(("Etc/", "posix/", "right/")))
    )


def zone_named(name: str) -> ZoneInfo:
    """The zone of this name, like Europe/Lisbon. Raises ZoneError."""
    try:
        return ZoneInfo(name)
    except (ZoneInfoNotFoundError, ValueError, OSError):
        raise ZoneError(f"There is no zone {name[:60]}: write it like Europe/Lisbon or America/Halifax.") from None
