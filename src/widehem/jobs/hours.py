"""How long each garment of a production takes to make up, step by step, worked out once for each and kept."""

from __future__ import annotations

import json
from collections.abc import Sequence
from typing import Any

from widehem.core.making.plan import work_of
from widehem.core.making.steps import steps_of
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.jobs.keys import garment, key
from widehem.jobs.kinds import At, kind
from widehem.jobs.ledger import Ledger
from widehem.jobs.materials import dockets_in
from widehem.store.cloths import cloth_of, cloths, how_made
from widehem.store.making import Work, find_work
from widehem.store.papers import wanted_of

HOURS = "hours"
Times = dict[str, tuple[str, float]]  # by the id of a step: its kind, and about how many minutes it takes


def hours_key(work: Work) -> str:
    """Under what the times of a garment are kept: all they can depend on."""
    docket = work.docket
    made = {name: value for name, value in (docket.making or {}).items() if name in ("order", "own", "cloths")}
    return key("hours", garment(work), docket.plan, docket.amounts, docket.marking, docket.house, made)


def known_times(ledger: Ledger, keys: Sequence[str]) -> dict[str, Times | None]:
    """What is worked out, by key; None for a garment that cannot be drawn."""
    found: dict[str, Times | None] = {}
    for name, data in ledger.found(keys).items():
        told = json.loads(data)
        found[name] = None if told is None else {step: (kind, float(minutes)) for step, (kind, minutes) in told.items()}
    return found


@kind(HOURS)
def work_out(at: At, wish: dict[str, Any]) -> None:
    """Work out what is not known yet. wish: productions, of which what is not finished; dockets, single ones."""
    with at.store.read() as session:
        numbers = [number for production in wish.get("productions", ()) for number in dockets_in(session, production)]
        numbers += wish.get("dockets", ())
        all_cloths = cloths(session)
        for done, number in enumerate(numbers):
            at.step(done, len(numbers))
            work = find_work(session, number)
            if work is None:
                continue
            name = hours_key(work)
            if not at.ledger.found([name]):
                at.ledger.keep(name, json.dumps(_times(work, all_cloths)).encode())
    at.step(len(numbers), len(numbers))


def _times(work: Work, known: Any) -> dict[str, list[Any]] | None:
    try:
        made = work.made_once()
    except (OptionError, CannotDraft):
        return None
    wanted, how = wanted_of(work.docket), how_made(work.docket)
    cloth = cloth_of(how, wanted.plan.use, known, knit=made.wear.knit)
    steps = steps_of(work_of(made.garment), wanted, cloth, how.order, how.own)
    return {step.id: [step.kind, step.minutes] for step in steps}
