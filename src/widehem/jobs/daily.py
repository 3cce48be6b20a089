"""What is done day by day: the copy of the work, and letting go of what has lain in the bin for its time."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from widehem.jobs.kinds import At, JobError, kind
from widehem.store.bin import let_go
from widehem.store.clock import house_day
from widehem.store.copies import copy_of_today
from widehem.store.journal import tell, told_of
from widehem.store.keeping import StoreError
from widehem.store.notes import let_pictures_go

COPY, BIN = "copy", "bin"


@kind(COPY)
def make_copy(at: At, wish: dict[str, Any]) -> None:
    """Make the copy of today where there is none. wish: the folder of the copies. One that fails is told there too."""
    with at.store.read() as session:
        today = house_day(session)
    try:
        copy_of_today(at.store.file, Path(wish["folder"]), today)
    except (OSError, StoreError) as error:
        raise JobError(f"The copy of today failed: {error}") from None


@kind(BIN)
def empty_bin(at: At, _wish: dict[str, Any]) -> list[str]:
    """Let go for good what has lain in the bin for thirty days. Answers with its names."""
    with at.store.write(by="") as session:
        names = let_go(session)
        let_pictures_go(session)
        if names:
            tell(session, f"Gone for good after thirty days in the bin: {', '.join(names)}.")
            told_of(session).changes = [{"table": "bin", "id": 0, "before": {"names": names}, "after": None}]
    return names
