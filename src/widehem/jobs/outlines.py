"""Taking in a drawing of pieces that was made elsewhere."""

from __future__ import annotations

import base64
from typing import Any

from widehem.core.drafting.outlined import CODE
from widehem.core.drafting.outlined_data import checked, proposed
from widehem.core.drafting.outlines import OutlineError, outline_as_data
from widehem.core.output.outlines_in import FileRefusedError
from widehem.jobs.kinds import At, JobError, kind
from widehem.store.journal import tell
from widehem.store.models import DesignRow

OUTLINES = "outlines"


@kind(OUTLINES, urgent=6)
def take_outlines_in(at: At, wish: dict[str, Any]) -> dict[str, Any]:
    """Make a design of the outlines of a file. wish: the file in base64, its name, what the design is called, per_unit where the file is
    not to be believed, allowance that it has, cm. Answers with the number of the design, and what was seen."""
    from widehem.core.output.dxf_in import read_dxf
    from widehem.core.output.svg_in import read_svg

    data = base64.b64decode(wish["data"])
    read = read_dxf if wish["name"].lower().endswith(".dxf") else read_svg
    at.step(0, 2)
    try:
        found = read(data, wish.get("per_unit"))
        said = {
            "outlines": [outline_as_data(o) for o in found.outlines],
            **proposed(found.outlines, wish.get("allowance", 0.0)),
        }
        kept = checked({**said, "source": wish["name"]})
    except (FileRefusedError, OutlineError) as error:
        raise JobError(str(error)) from None
    at.step(1, 2)
    with at.store.write(wish.get("by", "")) as session:
        row = DesignRow(name=wish["called"], method=CODE, rules=1, options={}, ease={}, steps=[], own=True, outlines=kept)
        session.add(row)
        session.flush()
        tell(session, f"Took in {len(kept['pieces'])} pieces from {wish['name'][:60]}.")
        number = row.id
    at.step(2, 2)
    return {"design": number, "notes": list(found.notes)}
