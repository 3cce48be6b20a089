"""A table of shift rules as a file: JSON out and in."""

from __future__ import annotations

import json

from widehem.core.grading.tables import RuleTable, TableError
from widehem.core.shifting.spots import SpotError

MOST_BYTES, LONGEST = 400_000, 60


def rules_json(table: RuleTable) -> bytes:
    """The table as a file, which rules_from_json reads back to the same rules."""
    return json.dumps({"name": table.name, **table.as_data()}, indent=1, ensure_ascii=False).encode()


def rules_from_json(data: bytes, code: str = "file", called: str = "From a file") -> RuleTable:
    """A table from a file; called: what it is named where it has no name. Raises TableError: one sentence."""
    if not data or len(data) > MOST_BYTES:
        raise TableError("Choose a file first." if not data else f"The file has more than {MOST_BYTES // 1000} kB.")
    try:
        read = json.loads(data.decode("utf-8-sig"))
    except (ValueError, RecursionError):
        raise TableError("The file is no JSON: take one that was downloaded from a table of rules.") from None
    if not isinstance(read, dict):
        raise TableError("The file is no table of rules: it has no kinds of pieces.")
    name = " ".join(str(read.get("name") or called).split())[:LONGEST] or called
    try:
        return RuleTable.from_data(code, name, read)
    except SpotError as error:
        raise TableError(str(error)) from None
