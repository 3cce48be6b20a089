"""The daily copy of the work."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from widehem.jobs.kinds import At, JobError, kind
from widehem.store.clock import house_day
from widehem.store.copies import copy_of_today
from widehem.store.keeping import StoreError

COPY = "copy"


@kind(COPY)
def make_copy(at: At, wish: dict[str, Any]) -> None:
    """Make the copy of today where there is none. wish: the folder of the copies. One that fails is told there too."""
    with at.store.read() as session:
        today = house_day(session)
    try:
        copy_of_today(at.store.file, Path(wish["folder"]), today)
    except (OSError, StoreError) as error:
        raise JobError(f"The copy of today failed: {error}") from None
