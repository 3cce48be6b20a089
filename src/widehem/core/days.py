"""Days as people say them, in the zone of the house."""

from __future__ import annotations

from datetime import UTC, date, datetime, tzinfo
from functools import cache
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError, available_timezones


class ZoneError(ValueError):
    """No zone is called so; one sentence."""


class HourError(ValueError):
    """It is no time of day; one sentence."""


def day_words(day: date) -> str:
    """3 November 2026."""
    return f"{day.day} {day:%B %Y}"


def hour_in(moment: datetime, zone: tzinfo | None) -> str:
    """The time of day of a moment, which is of UTC, in a zone: 16:30."""
    return f"{moment.replace(tzinfo=UTC).astimezone(zone):%H:%M}"


def hour_of(text: str) -> str:
    """A time of day as it was typed, as 16:30; '' for nothing. Raises HourError."""
    words = text.strip().lower().replace(".", ":").replace("h", ":").rstrip(":")
    if not words:
        return ""
    hours, _, minutes = words.partition(":")
    minutes = minutes or "00"
    plain = hours.isdecimal() and minutes.isdecimal() and len(hours) <= 2 and len(minutes) == 2
    if not plain or int(hours) > 23 or int(minutes) > 59:
        raise HourError(f'"{text.strip()[:20]}" is no time of day: write it like 9:15 or 16:30.')
    return f"{int(hours):02}:{int(minutes):02}"


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
