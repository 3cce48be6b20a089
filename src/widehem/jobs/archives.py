"""A production out of a house as a file, and into another."""

from __future__ import annotations

import base64
from typing import Any

from widehem.jobs.kinds import At, JobError, kind
from widehem.jobs.ledger import MOST_ENTRY
from widehem.jobs.papers import file_key
from widehem.store.archive import archive, read_archive, take_in
from widehem.store.archive_values import ArchiveError
from widehem.store.models import Production

ARCHIVE, ARCHIVE_IN = "archive", "archive_in"


@kind(ARCHIVE, urgent=4)
def write_archive(at: At, wish: dict[str, Any]) -> dict[str, str]:
    """Write a production as an archive. wish: production, pictures. Answers as a file does."""
    at.step(0, 2)
    with at.store.read() as session:
        production = session.get(Production, wish["production"])
        if production is None:
            raise JobError("This production was deleted meanwhile.")
        data, name = archive(session, production, pictures=wish["pictures"]), production.name
    at.step(1, 2)
    if len(data) > MOST_ENTRY:
        raise JobError(
            f"The archive would have {len(data) // 1024 // 1024} MB, {MOST_ENTRY // 1024 // 1024} is the most here: leave its pictures out, or "
            "write it with `widehem archive`."
        )
    at.ledger.keep(file_key(at.name), data)
    at.step(2, 2)
    return {"key": file_key(at.name), "name": f"{name} archive.json", "mimetype": "application/json"}


@kind(ARCHIVE_IN, urgent=4, again=False)
def take_archive_in(at: At, wish: dict[str, Any]) -> dict[str, Any]:
    """Take an archive in. wish: the file in base64, by whom. Answers with the number of the production."""
    at.step(0, 3)
    try:
        found = read_archive(base64.b64decode(wish["data"]))
    except ArchiveError as error:
        raise JobError(str(error)) from None
    at.step(1, 3)
    with at.store.write(wish.get("by", "")) as session:
        number = take_in(session, found).id
        at.step(2, 3)
    at.step(3, 3)
    return {"production": number}
