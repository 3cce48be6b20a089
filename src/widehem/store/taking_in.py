"""A file of charts stored whole or not at all, without holding the database for long: it is staged in small steps, then moved
among
the rest in one."""

from __future__ import annotations

import secrets
import time
from collections.abc import Callable, Iterable, Iterator, Sequence
from datetime import date, timedelta
from typing import Any

from sqlalchemy import delete, func, insert, literal, select, update
from sqlalchemy.orm import Session

from widehem.core.body.chart_file import FiledChart
from widehem.core.units import Length
from widehem.store.charts import reading_values
from widehem.store.clock import house_day
from widehem.store.database import Store
from widehem.store.files import PLACES, Incoming, at_place, look_at
from widehem.store.journal import INTAKE, tell, told_of
from widehem.store.models import (
    ChartRow,
    Docket,
    Intake,
    IntakeChart,
    IntakeReading,
    IntakeWearer,
    Production,
    ReadingRow,
    Wearer,
    now,
)

ROUNDS = 3  # of staging it anew, when the wearers it rests on were changed meanwhile
AT_ONCE = 800  # rows of a step
KNOWN_FOR = timedelta(days=1)  # that a file was kept
PAUSE = 0.02  # seconds between steps, at the least
Step = Callable[[int, int], None]


class NotTakenInError(Exception):
    """Why nothing of a file was kept, a sentence."""


def take_in(
    store: Store,
    production_id: int,
    charts: Sequence[FiledChart],
    step: Step = lambda done, whole: None,
    job: str = "",
    by: str = "",
) -> tuple[int, int]:
    """Store what a file says, all of it or nothing; returns how many wearers are new and how many readings were added.

    step: is told how many of how many rows are staged; whatever it raises leaves nothing behind. job: who asked; a file that
    was kept
    for it is not kept again. by: the mark of the browser. Raises LookupError when the production is gone, NotTakenInError.
    """
    job = job or secrets.token_hex(12)
    with store.read() as session:
        before = session.scalars(select(Intake).where(Intake.job == job, Intake.kept_at.is_not(None))).first()
    if before is not None:
        return before.new_wearers, before.readings
    for _ in range(ROUNDS):
        clear(store, job)
        try:
            with store.read() as session:
                _there(session, production_id)
                stood = _stands(session, production_id)
                plan = [
                    entry
                    for entry in look_at(session, production_id, charts)
                    if entry.onto or entry.chart.readings or not entry.known
                ]
                today = house_day(session)
            intake = _stage(store, production_id, plan, today, step, job)
            with store.write(by) as session:
                _there(session, production_id)
                if _stands(session, production_id) == stood:
                    counts = _move(session, production_id, intake)
                    break
        except BaseException:
            clear(store, job)
            raise
    else:
        clear(store, job)
        raise NotTakenInError(
            "The wearers of this production were changed again and again while the file was taken in. Nothing of it was kept: store it again."
        )
    clear(store, job, staged_only=True)
    return counts


def sweep(store: Store) -> None:
    """Let go of whatever was staged by a process that is no more; nobody may be taking a file in."""
    with store.read() as session:
        jobs = list(session.scalars(select(Intake.job)))
        old = now() - KNOWN_FOR
        stays = set(session.scalars(select(Intake.job).where(Intake.kept_at > old)))
    for job in jobs:
        clear(store, job, staged_only=job in stays)


def clear(store: Store, job: str, *, staged_only: bool = False) -> None:
    """Let go of what is staged for a job, in small steps. staged_only: that it was kept stays known."""
    with store.read() as session:
        intakes = list(session.scalars(select(Intake.id).where(Intake.job == job)))
        charts = list(session.scalars(select(IntakeChart.id).where(IntakeChart.intake_id.in_(intakes))))
    for start in range(0, len(charts), 100):
        some = charts[start : start + 100]
        began = time.monotonic()
        with store.write() as session:
            session.execute(delete(IntakeReading).where(IntakeReading.intake_chart_id.in_(some)))
            session.execute(delete(IntakeChart).where(IntakeChart.id.in_(some)))
        _let_others(began)
    if intakes:
        with store.write() as session:
            session.execute(delete(IntakeWearer).where(IntakeWearer.intake_id.in_(intakes)))
            if not staged_only:
                session.execute(delete(Intake).where(Intake.id.in_(intakes)))


def _let_others(began: float) -> None:
    """Leave the database to others for as long as it was held: whoever waits for it looks now and then."""
    time.sleep(max(PAUSE, time.monotonic() - began))


def _there(session: Session, production_id: int) -> None:
    if session.get(Production, production_id) is None:
        raise LookupError(production_id)


def _stands(session: Session, production_id: int) -> tuple[Any, ...]:
    """Whatever a plan rests on: the wearers by name, and their charts by day."""
    here = Wearer.production_id == production_id
    charts = select(ChartRow.id, ChartRow.taken_on).join(Wearer).where(here).order_by(ChartRow.id)
    return (
        session.execute(select(Wearer.id, Wearer.name).where(here).order_by(Wearer.id)).all(),
        session.execute(charts).all(),
    )


# ---- staging ----


def _stage(store: Store, production_id: int, plan: Sequence[Incoming], today: date, step: Step, job: str) -> int:
    """Write what is planned where nobody looks; returns the number of the intake."""
    whole = len(plan) + sum(1 for entry in plan for _ in _readings(entry))
    step(0, whole)
    with store.write() as session:
        row = Intake(job=job, production_id=production_id)
        session.add(row)
        session.flush()
        intake = row.id
    known: dict[str, int] = {}
    done = 0
    for some in _portions(plan):
        step(done, whole)
        began = time.monotonic()
        with store.write() as session:
            done += _stage_some(session, intake, some, known, today)
        _let_others(began)
    step(whole, whole)
    return intake


def _portions(plan: Iterable[Incoming]) -> Iterator[list[Incoming]]:
    """The plan in portions of about as many rows as are written at once."""
    some: list[Incoming] = []
    rows = 0
    for entry in plan:
        some.append(entry)
        rows += 1 + sum(1 for _ in _readings(entry))
        if rows >= AT_ONCE:
            yield some
            some, rows = [], 0
    if some:
        yield some


def _stage_some(session: Session, intake: int, some: Sequence[Incoming], known: dict[str, int], today: date) -> int:
    """Stage some charts; known: the staged wearers by name, to which these are added. Returns how many rows were written."""
    for entry in some:
        name = entry.chart.wearer.lower()
        if name not in known:
            wearer = IntakeWearer(
                intake_id=intake,
                wearer_id=entry.wearer_id,
                name=entry.chart.wearer,
                role=entry.chart.part,
                figure=entry.chart.figure,
            )
            session.add(wearer)
            session.flush()
            known[name] = wearer.id
    values = [
        {
            "intake_id": intake, "intake_wearer_id": known[entry.chart.wearer.lower()],
            "chart_id": entry.onto.id if entry.onto is not None else None, "taken_on": entry.chart.read_on or today,
            "foundation": entry.chart.foundation, "shoes": entry.chart.shoes, "measured_by": entry.chart.read_by,
            "note": entry.chart.note,
        }
        for entry in some
    ]  # fmt: skip
    ids = session.scalars(insert(IntakeChart).returning(IntakeChart.id, sort_by_parameter_order=True), values).all()
    rows = []
    for entry, number in zip(some, ids, strict=True):
        for code, turn, length, side, carried, hour in _readings(entry):
            row = reading_values(number, code, turn, length, side, carried, hour)
            rows.append({**row, "intake_chart_id": row.pop("chart_id")})
    if rows:
        session.connection().execute(insert(IntakeReading.__table__), rows)  # type: ignore[arg-type]
    return len(some) + len(rows)


def _readings(entry: Incoming) -> Iterator[tuple[str, int, Length | None, str, date | None, str]]:
    """What is written of a chart. A measure of the file takes the place of all that stood of it: what the file does not say is
    struck
    out, so that the chart holds exactly what was shown before."""
    for change in entry.changes:
        for side, turn in PLACES:
            length = at_place(change.new, side, turn)
            stood = change.now is not None and not change.now.carried and at_place(change.now, side, turn) is not None
            if length is not None or stood:
                yield change.code, turn, length, side, change.new.carried if length is not None else None, change.new.hour


# ---- moving ----


def _move(session: Session, production_id: int, intake: int) -> tuple[int, int]:
    """Move what is staged among the rest, within the database; dockets stay on the newest chart of those that were there
    before."""
    moment, before = literal(now()), session.scalar(select(func.max(ReadingRow.id))) or 0
    mine = IntakeWearer.intake_id == intake
    new_wearers = select(func.count()).select_from(IntakeWearer).where(mine, IntakeWearer.wearer_id.is_(None))
    begun = session.scalar(new_wearers) or 0
    old = select(IntakeWearer.wearer_id).join(IntakeChart, IntakeChart.intake_wearer_id == IntakeWearer.id)
    _hold_dockets(session, old.where(mine, IntakeWearer.wearer_id.is_not(None), IntakeChart.chart_id.is_(None)))

    first, last = _first_and_last(session, IntakeWearer.id, mine & IntakeWearer.wearer_id.is_(None), Wearer.id)
    last_wearer = last
    fresh = IntakeWearer.wearer_id > last  # those that get a number now
    session.execute(
        update(IntakeWearer).where(mine, IntakeWearer.wearer_id.is_(None)).values(wearer_id=IntakeWearer.id - first + last + 1)
    )
    empty = literal("")
    wearers = select(
        IntakeWearer.wearer_id,
        literal(production_id),
        IntakeWearer.name,
        IntakeWearer.role,
        IntakeWearer.figure,
        empty,
        empty,
        moment,
    ).where(mine, fresh)
    columns = ["id", "production_id", "name", "role", "figure", "allergies", "movement", "created_at"]
    session.execute(insert(Wearer).from_select(columns, wearers, include_defaults=False))

    here = IntakeChart.intake_id == intake
    first, last = _first_and_last(session, IntakeChart.id, here & IntakeChart.chart_id.is_(None), ChartRow.id)
    last_chart = last
    session.execute(
        update(IntakeChart).where(here, IntakeChart.chart_id.is_(None)).values(chart_id=IntakeChart.id - first + last + 1)
    )
    charts = (
        select(
            IntakeChart.chart_id, IntakeWearer.wearer_id, IntakeChart.taken_on, IntakeChart.foundation, IntakeChart.shoes,
            IntakeChart.measured_by, IntakeChart.note, moment,
        )
        .join(IntakeWearer, IntakeChart.intake_wearer_id == IntakeWearer.id)
        .where(here, IntakeChart.chart_id > last)
    )  # fmt: skip
    columns = ["id", "wearer_id", "taken_on", "foundation", "shoes", "measured_by", "note", "created_at"]
    session.execute(insert(ChartRow).from_select(columns, charts, include_defaults=False))

    plain = ["measure", "turn", "ticks", "typed", "unit", "side", "carried_on", "hour"]
    readings = (
        select(IntakeChart.chart_id, *(getattr(IntakeReading, name) for name in plain), moment)
        .join(IntakeChart, IntakeReading.intake_chart_id == IntakeChart.id)
        .where(here)
    )
    added = session.execute(
        insert(ReadingRow).from_select(["chart_id", *plain, "created_at"], readings, include_defaults=False)
    )
    count = int(added.rowcount)  # type: ignore[attr-defined]
    session.execute(update(Intake).where(Intake.id == intake).values(kept_at=now(), new_wearers=begun, readings=count))
    _tell(session, production_id, intake, before, (last_wearer, last_chart))
    return begun, count


def _tell(session: Session, production_id: int, intake: int, before: int, last: tuple[int, int]) -> None:
    """Write down what came, so that it can be taken back. before: the last reading that was there; last: the last wearer and
    chart."""
    production = session.get(Production, production_id)
    wearers = [
        n for n in session.scalars(select(IntakeWearer.wearer_id).where(IntakeWearer.intake_id == intake)) if n is not None
    ]
    charts = [n for n in session.scalars(select(IntakeChart.chart_id).where(IntakeChart.intake_id == intake)) if n is not None]
    came = {
        "wearers": [number for number in wearers if number > last[0]],
        "charts": sorted({number for number in charts if number > last[1]}),
        "onto": sorted({number for number in charts if number <= last[1]}),
        "readings": [before, session.scalar(select(func.max(ReadingRow.id))) or 0],
    }
    if came["charts"] or came["onto"]:
        tell(session, f"Took in {len(charts)} chart{'s' if len(charts) != 1 else ''} from a file.", production)
        told_of(session).changes = [{"table": INTAKE, "id": intake, "before": None, "after": came}]


def _first_and_last(session: Session, staged: Any, mine: Any, real: Any) -> tuple[int, int]:
    """The first number of what is staged and new, and the last of what is there."""
    return session.scalar(select(func.min(staged)).where(mine)) or 0, session.scalar(select(func.max(real))) or 0


def _hold_dockets(session: Session, wearers: Any) -> None:
    """Dockets of these wearers that follow the newest chart stay on the one that is newest now."""
    for wearer_id in set(session.scalars(wearers)):
        last = select(ChartRow.id).where(ChartRow.wearer_id == wearer_id).order_by(ChartRow.taken_on.desc(), ChartRow.id.desc())
        held = update(Docket).where(Docket.wearer_id == wearer_id, Docket.chart_id.is_(None))
        session.execute(held.values(chart_id=last.limit(1).scalar_subquery()))
