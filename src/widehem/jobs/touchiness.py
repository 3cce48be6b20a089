"""What one centimetre more moves in a garment, measure by measure: it is drawn once for each of them."""

from __future__ import annotations

import json
from typing import Any

from widehem.core.design.sensitivity import Move, Touch
from widehem.core.setting.option import OptionError
from widehem.jobs.keys import garment, key
from widehem.jobs.kinds import At, JobError, kind
from widehem.store.making import Work, find_work

TOUCHINESS = "touchiness"


def touch_key(work: Work) -> str:
    return key("touch", garment(work))


def read_touchiness(data: bytes) -> list[tuple[str, list[Move]]]:
    """What is kept, the touchiest measure first."""
    return [(code, [Move(*move) for move in moves]) for code, moves in json.loads(data)]


@kind(TOUCHINESS)
def find_touchiness(at: At, wish: dict[str, Any]) -> None:
    """Find what every measure of a docket moves. wish: its number."""
    with at.store.read() as session:
        work = find_work(session, wish["docket"])
    if work is None:
        raise JobError("This garment was deleted meanwhile.")
    found: list[tuple[str, tuple[Move, ...]]] = []
    try:
        touch = Touch(work.design(), work.chart, work.alterations, work.armhole)
        codes = list(work.method.uses(work.docket.all_options))
        for done, code in enumerate(codes):
            at.step(done, len(codes))
            found.append((code, touch.moves(code)))
    except OptionError:
        found = []
    found.sort(key=lambda entry: -sum(abs(move.by) for move in entry[1]))
    data = [[code, [[move.piece, move.edge, move.by] for move in moves]] for code, moves in found]
    at.ledger.keep(touch_key(work), json.dumps(data).encode())
