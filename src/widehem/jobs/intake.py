"""Taking in a file of charts."""

from __future__ import annotations

import base64
from typing import Any

from sqlalchemy.exc import OperationalError

from widehem.core.body.chart_file import FileProblem
from widehem.core.output.charts_in import read_charts
from widehem.jobs.kinds import At, JobError, kind
from widehem.store.tables import house_tables
from widehem.store.taking_in import NotTakenInError, take_in

INTAKE = "intake"


@kind(INTAKE, urgent=5)
def take_file_in(at: At, wish: dict[str, Any]) -> dict[str, int]:
    """Store a file of charts that was looked at. wish: production, the file in base64, its name, the unit of figures that name
    none.
    Answers with how many wearers are new, and how many readings were added."""
    try:
        with at.store.read() as session:
            tables = list(house_tables(session).values())
        found = read_charts(base64.b64decode(wish["data"]), wish["name"], wish["unit"], tables)
        wearers, readings = take_in(at.store, wish["production"], found.charts, at.step, at.name, wish.get("by", ""))
    except FileProblem as problem:
        raise JobError(str(problem)) from None
    except LookupError:
        raise JobError("This production was deleted meanwhile: nothing of the file was kept.") from None
    except NotTakenInError as error:
        raise JobError(str(error)) from None
    except OperationalError as error:
        if "full" in str(error.orig):
            raise JobError(
                "The disk of the workroom is full: nothing of the file was kept. Make room on it and store it again."
            ) from None
        raise
    return {"production": wish["production"], "wearers": wearers, "readings": readings}
