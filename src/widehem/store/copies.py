"""Daily copies of the work: one a day, kept for seven days, four weeks and twelve months, looked over, and told where one
fails."""

from __future__ import annotations

import json
from collections.abc import Iterable
from datetime import date, timedelta
from pathlib import Path

from widehem.store.keeping import PRIVATE_FOLDER, StoreError, copy_whole, make_private

FOLDER, FAILED = "copies", "failed.json"
DAYS, WEEKS, MONTHS = 7, 4, 12
NAME, END = "widehem-", ".sqlite3"


def day_of(path: Path) -> date | None:
    """The day of a copy by its name; None for any other file."""
    try:
        return date.fromisoformat(path.name.removeprefix(NAME).removesuffix(END))
    except ValueError:
        return None


def copies(folder: Path) -> list[Path]:
    """The copies in a folder, the newest first."""
    found = [(day, path) for path in folder.glob(f"{NAME}*{END}") if (day := day_of(path)) is not None]
    return [path for _, path in sorted(found, reverse=True)]


def kept(days: Iterable[date], today: date) -> set[date]:
    """The days whose copies are kept: the last seven, the newest of each of the last four weeks and of the last twelve
    months."""
    past = sorted((day for day in days if day <= today), reverse=True)
    found = set(past[:DAYS])
    weeks: dict[tuple[int, int], date] = {}
    months: dict[tuple[int, int], date] = {}
    for day in past:
        weeks.setdefault(day.isocalendar()[:2], day)
        months.setdefault((day.year, day.month), day)
    return found | set(list(weeks.values())[:WEEKS]) | set(list(months.values())[:MONTHS])


def copy_of_today(file: Path, folder: Path, today: date) -> Path | None:
    """Make the copy of a day where there is none, and let go those that are kept no longer; None where there was one.

    A copy that fails is told in the folder and leaves nothing else behind. Raises OSError, StoreError.
    """
    folder.mkdir(parents=True, exist_ok=True, mode=PRIVATE_FOLDER)
    make_private(folder, PRIVATE_FOLDER)
    target, told = folder / f"{NAME}{today.isoformat()}{END}", folder / FAILED
    if target.exists():
        return None
    try:
        copy_whole(file, target)
    except (OSError, StoreError) as error:
        told.write_text(json.dumps({"day": today.isoformat(), "why": str(error)}))
        raise
    told.unlink(missing_ok=True)
    found = {day: path for path in copies(folder) if (day := day_of(path)) is not None}
    stay = kept(found, today)
    for day, path in found.items():
        if day not in stay and day <= today:
            path.unlink(missing_ok=True)
    return target


def last_failure(folder: Path) -> dict[str, str] | None:
    """What is told of a copy that failed: its day and why; None where the last one is whole."""
    try:
        found = json.loads((folder / FAILED).read_text())
    except (OSError, ValueError):
        return None
    return {"day": str(found.get("day", "")), "why": str(found.get("why", ""))} if isinstance(found, dict) else None


def overdue(folder: Path, today: date) -> bool:
    """Whether there are copies, and none of yesterday or today."""
    found = copies(folder)
    newest = day_of(found[0]) if found else None
    return newest is not None and newest < today - timedelta(days=1)
