"""What every garment of a production takes, worked out once for each and kept."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import asdict
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.marking.made import mark_up
from widehem.core.marking.materials import Material, Needs, needs_of
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Display
from widehem.jobs.keys import garment, key
from widehem.jobs.kinds import At, kind
from widehem.jobs.ledger import Ledger
from widehem.store.making import Work, find_work
from widehem.store.models import Docket
from widehem.store.papers import wanted_of

MATERIALS = "materials"


def dockets_in(session: Session, production: int) -> list[int]:
    """The garments of a production that are not finished, by number."""
    query = select(Docket.id).where(
        Docket.production_id == production, Docket.binned_at.is_(None), Docket.finished_on.is_(None)
    )
    return list(session.scalars(query.order_by(Docket.wearer_id, Docket.id)))


def needs_key(work: Work, show: Display) -> str:
    """Under what the needs of a garment are kept: all they can depend on."""
    docket = work.docket
    return key("needs", garment(work), docket.plan, docket.amounts, docket.marking, docket.house, show)


def known(ledger: Ledger, keys: Sequence[str]) -> dict[str, Needs | None]:
    """What is worked out, by key; None for a garment that cannot be drawn."""
    return {name: _read(data) for name, data in ledger.found(keys).items()}


def _read(data: bytes) -> Needs | None:
    found = json.loads(data)
    if found is None:
        return None
    return Needs(tuple(Material(**row) for row in found["materials"]), tuple((w, n) for w, n in found["notions"]))


@kind(MATERIALS)
def work_out(at: At, wish: dict[str, Any]) -> None:
    """Work out what is not known yet. wish: production; unit and fraction of the maker."""
    show = Display(wish["unit"], wish["fraction"])
    with at.store.read() as session:
        numbers = dockets_in(session, wish["production"])
        for done, number in enumerate(numbers):
            at.step(done, len(numbers))
            work = find_work(session, number)
            if work is None:
                continue
            name = needs_key(work, show)
            if not at.ledger.found([name]):
                at.ledger.keep(name, json.dumps(_worked_out(work, show)).encode())
    at.step(len(numbers), len(numbers))


def _worked_out(work: Work, show: Display) -> dict[str, Any] | None:
    try:
        return asdict(needs_of(mark_up(work.made_once(), wanted_of(work.docket), show=show)))
    except (OptionError, CannotDraft):
        return None
