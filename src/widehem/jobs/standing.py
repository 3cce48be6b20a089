"""Where every garment of a house stands, and which charts are in doubt: worked out once for each state they are in."""

from __future__ import annotations

import json
from collections.abc import Hashable, Sequence
from dataclasses import asdict
from typing import Any

from sqlalchemy.orm import Session

from widehem.core.body.doubts import doubts
from widehem.core.pattern.acceptance import accepted
from widehem.core.pattern.check import Check
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.standing import Standing
from widehem.core.values import record
from widehem.jobs.keys import key
from widehem.jobs.kinds import At, kind
from widehem.jobs.ledger import Ledger
from widehem.store.charts import chart_numbered, core_chart
from widehem.store.files import accepted_doubts
from widehem.store.making import find_work
from widehem.store.papers import accepted_of
from widehem.store.standing import GarmentRow, House, PersonRow, whole_house

STANDING = "standing"
WORST = ("look", "not")


@record(frozen=True)
class Garment:
    """What was worked out of a garment. missing, changed: codes of measures; worst: the name and the title of the check that is
    the worst, '' where all are true."""

    missing: tuple[str, ...] = ()
    changed: tuple[str, ...] = ()
    trouble: bool = False
    untrue: int = 0
    looks: int = 0
    worst: str = ""
    title: str = ""

    def standing(self, row: GarmentRow) -> Standing:
        """With what its makers said of it."""
        return Standing(
            self.missing, self.trouble, bool(self.changed), self.untrue, self.looks, row.waits, row.cut_on is not None,
            row.fitted_on is not None, row.finished_on is not None, row.due_on,
        )  # fmt: skip


@record(frozen=True)
class Person:
    """What was worked out of a chart. looks: doubts that are not settled; at: the measure of the first."""

    looks: int = 0
    at: str = ""


@record(frozen=True)
class Looked:
    """What is known of a house: by the number of the garment and of the wearer; rest: how many are still to be looked at."""

    garments: dict[int, Garment]
    people: dict[int, Person]
    rest: int


Row = GarmentRow | PersonRow


def _rows(house: House) -> list[Row]:
    return [*house.garments, *house.people]


def _key(row: Row) -> str:
    return key("stands", type(row).__name__, row.mark)


_known: dict[tuple[str, Hashable], Garment | Person] = {}  # what this process was told already
_MOST_KNOWN = 20_000


def looked(ledger: Ledger, house: House) -> Looked:
    """What is known of these."""
    file = str(ledger.file)
    rows = _rows(house)
    keys = {_key(row): row for row in rows if (file, row.mark) not in _known}
    for name, data in ledger.found(list(keys)).items():
        while len(_known) >= _MOST_KNOWN:
            _known.pop(next(iter(_known)), None)
        row, values = keys[name], json.loads(data)
        if isinstance(row, GarmentRow):
            values = {**values, "missing": tuple(values["missing"]), "changed": tuple(values["changed"])}
        _known[file, row.mark] = Garment(**values) if isinstance(row, GarmentRow) else Person(**values)
    garments: dict[int, Garment] = {}
    people: dict[int, Person] = {}
    for row in rows:
        found = _known.get((file, row.mark))
        if isinstance(found, Garment):
            garments[row.id] = found
        elif found is not None:
            people[row.id] = found
    return Looked(garments, people, len(rows) - len(garments) - len(people))


@kind(STANDING, urgent=1)
def look_through(at: At, wish: dict[str, Any]) -> None:
    """Look at whatever is not looked at yet. wish: the number of a production, None for all."""
    with at.store.read() as session:
        house = whole_house(session, wish["production"])
        rows = _rows(house)
        kept = at.ledger.found([_key(row) for row in rows])
        rest = [row for row in rows if _key(row) not in kept]
        for done, row in enumerate(rest):
            at.step(done, len(rest))
            found = _garment(session, row) if isinstance(row, GarmentRow) else _person(session, row)
            at.ledger.keep(_key(row), json.dumps(asdict(found)).encode())
    at.step(len(rest), len(rest))


def _garment(session: Session, row: GarmentRow) -> Garment:
    work = find_work(session, row.id)
    if work is None:  # of a method this version does not know
        return Garment(trouble=True)
    missing = work.method.missing(work.chart, work.docket.all_options)
    changed = tuple(entry.code for entry in work.changed)
    if missing:
        return Garment(missing, changed)
    try:
        made = work.made_once()
    except (OptionError, CannotDraft):
        return Garment(missing, changed, trouble=True)
    holds = accepted(made.checks, accepted_of(work.docket))
    open_ = [check for check in made.checks if check.verdict in WORST and check.name not in holds]
    worst = _worst(open_)
    untrue = sum(1 for check in open_ if check.verdict == "not")
    return Garment(
        missing, changed, False, untrue, len(open_) - untrue, worst.name if worst else "", worst.title if worst else ""
    )


def _worst(checks: Sequence[Check]) -> Check | None:
    return max(checks, key=lambda check: WORST.index(check.verdict), default=None)


def _person(session: Session, row: PersonRow) -> Person:
    chart = chart_numbered(session, row.id, row.chart_id)
    if chart is None:
        return Person()
    kept = accepted_doubts(session, [chart.id]).get(chart.id, set())
    open_ = [doubt for doubt in doubts(core_chart(session, chart)) if doubt.key not in kept]
    at = next((doubt.measures[0] for doubt in open_ if doubt.measures), "")
    return Person(len(open_), at)
