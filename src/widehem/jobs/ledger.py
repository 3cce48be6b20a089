"""What is at work and what was worked out, shared by every process: a file beside the database that may be thrown away."""

from __future__ import annotations

import os
import secrets
import time
from collections.abc import Collection, Iterator
from contextlib import contextmanager
from functools import cached_property
from pathlib import Path
from typing import Any

from sqlalchemy import JSON, Column, Connection, Engine, Float, Integer, LargeBinary, MetaData, String, Table, select
from sqlalchemy import func as sql
from sqlalchemy.dialects.sqlite import insert
from sqlalchemy.exc import DatabaseError, OperationalError

from widehem.core.values import record
from widehem.store.database import engine_on
from widehem.store.keeping import BESIDE, private_files

FILE, VERSION = "running.sqlite3", 2
WAITING, RUNNING, DONE, FAILED, STOPPED = "waiting", "running", "done", "failed", "stopped"
UNFINISHED = (WAITING, RUNNING)
MOST_FOUND = 64 * 1024 * 1024  # bytes of what was worked out that are kept; what was not asked for longest goes first
MOST_ENTRY = 16 * 1024 * 1024
TOLD_FOR = 3600.0  # seconds a job that ended can still be asked about
MOST_GUESSES = 10_000
FEW = 3  # steps
MOST_TRIED, LONGEST_TRIED = 20_000, 4000  # tries that are remembered, and signs of one

_tables = MetaData()
_job = Table(
    "job", _tables,
    Column("id", String, primary_key=True), Column("kind", String, nullable=False), Column("about", String, nullable=False),
    Column("words", String, nullable=False), Column("wish", JSON, nullable=False), Column("state", String, nullable=False),
    Column("done", Integer, nullable=False, default=0), Column("whole", Integer, nullable=False, default=0),
    Column("answer", JSON), Column("trouble", String, nullable=False, default=""),
    Column("stop", Integer, nullable=False, default=0), Column("times", Integer, nullable=False, default=0),
    Column("process", Integer, nullable=False, default=0),
    Column("at", Float, nullable=False),
)  # fmt: skip
_found = Table(
    "found", _tables,
    Column("key", String, primary_key=True), Column("value", LargeBinary, nullable=False),
    Column("size", Integer, nullable=False), Column("turn", Integer, nullable=False, index=True),
)  # fmt: skip
_tried = Table(
    "tried", _tables,
    Column("docket", Integer, primary_key=True), Column("mark", String, primary_key=True), Column("query", String, nullable=False),
    Column("turn", Integer, nullable=False),
)  # fmt: skip
_guess = Table("guess", _tables, Column("whose", String, nullable=False, index=True), Column("at", Float, nullable=False))


@record(frozen=True)
class Job:
    """A piece of work. words: what it does, as a title; done, whole: how far it is, in steps; answer: what came out, when it is
    done; trouble: why it failed, a sentence."""

    id: str
    kind: str
    words: str
    state: str
    done: int = 0
    whole: int = 0
    answer: Any = None
    trouble: str = ""

    @property
    def unfinished(self) -> bool:
        return self.state in UNFINISHED

    @property
    def counts(self) -> bool:
        """Whether its steps are things that can be counted, and not just stretches of one."""
        return self.whole > FEW


_SHOWN = (_job.c.id, _job.c.kind, _job.c.words, _job.c.state, _job.c.done, _job.c.whole, _job.c.answer, _job.c.trouble)


class Ledger:
    """The file. folder: of the data. Times are of the clock that only goes forward, which all processes of a machine share."""

    def __init__(self, folder: Path) -> None:
        self.file = folder / FILE

    @cached_property
    def _engine(self) -> Engine:
        engine = engine_on(self.file, "NORMAL")
        try:
            known = self._prepared(engine)
        except (DatabaseError, OperationalError):
            known = False
        if not known:
            engine.dispose()
            for end in ("", *BESIDE):
                self.file.with_name(self.file.name + end).unlink(missing_ok=True)
            self._prepared(engine)
        private_files(self.file)
        return engine

    @staticmethod
    def _prepared(engine: Engine) -> bool:
        """Whether the file has the tables of today, which a new one gets."""
        with engine.execution_options(immediate=True).begin() as begun:
            version = begun.exec_driver_sql("PRAGMA user_version").scalar()
            if version == 0:
                _tables.create_all(begun)
                begun.exec_driver_sql(f"PRAGMA user_version = {VERSION}")
                return True
            return version == VERSION

    @contextmanager
    def _write(self) -> Iterator[Connection]:
        with self._engine.execution_options(immediate=True).begin() as begun:
            yield begun

    def close(self) -> None:
        """Let go of the file; it is opened again when it is asked next. Before a process is forked nothing may be open."""
        if "_engine" in self.__dict__:
            self._engine.dispose()

    # ---- jobs ----

    def ask(self, kind: str, wish: dict[str, Any], words: str, about: str) -> tuple[Job, bool]:
        """A job of this kind about this; the one that is at it already, or a new one. Returns it and whether it is new."""
        same = select(*_SHOWN).where(_job.c.kind == kind, _job.c.about == about, _job.c.state.in_(UNFINISHED), _job.c.stop == 0)
        with self._write() as begun:
            row = begun.execute(same).first()
            if row is not None:
                return Job(*row), False
            job = Job(secrets.token_hex(12), kind, words, WAITING)
            begun.execute(
                _job.insert().values(
                    id=job.id, kind=kind, about=about, words=words, wish=wish, state=WAITING, at=time.monotonic()
                )
            )
            return job, True

    def find(self, *ids: str) -> list[Job]:
        """Those of these jobs that are known, in this order."""
        if not ids:
            return []
        with self._engine.connect() as reading:
            rows = {row.id: Job(*row) for row in reading.execute(select(*_SHOWN).where(_job.c.id.in_(ids)))}
        return [rows[name] for name in ids if name in rows]

    def going(self, kind: str, about: str) -> Job | None:
        """The work of this kind and about this that is not done yet; None where there is none."""
        mine = (_job.c.kind == kind) & (_job.c.about == about) & _job.c.state.in_(UNFINISHED)
        with self._engine.connect() as reading:
            row = reading.execute(select(*_SHOWN).where(mine)).first()
        return Job(*row) if row is not None else None

    def last(self, kind: str, about: str) -> Job | None:
        """The work of this kind and about this that was asked for last, as far as it is still told."""
        mine = (_job.c.kind == kind) & (_job.c.about == about)
        with self._engine.connect() as reading:
            row = reading.execute(select(*_SHOWN).where(mine).order_by(_job.c.at.desc()).limit(1)).first()
        return Job(*row) if row is not None else None

    def begin(self, name: str) -> tuple[str, dict[str, Any]] | None:
        """Take a job that waits in hand: its kind and its wish; None when it is stopped, or in hand already."""
        with self._write() as begun:
            row = begun.execute(
                select(_job.c.kind, _job.c.wish).where(_job.c.id == name, _job.c.state == WAITING, _job.c.stop == 0)
            ).first()
            if row is None:
                return None
            self._change(begun, name, state=RUNNING, times=_job.c.times + 1, done=0, process=os.getpid())
            return row.kind, row.wish

    def tell(self, name: str, done: int, whole: int) -> bool:
        """How far a job is; returns whether it may go on."""
        with self._write() as begun:
            self._change(begun, name, done=done, whole=whole)
            return not begun.execute(select(_job.c.stop).where(_job.c.id == name)).scalar_one_or_none()

    def end(self, name: str, state: str, answer: Any = None, trouble: str = "") -> None:
        with self._write() as begun:
            self._change(begun, name, state=state, answer=answer, trouble=trouble, at=time.monotonic())
            now = time.monotonic()
            old = (_job.c.at < now - TOLD_FOR) | (_job.c.at > now)
            begun.execute(_job.delete().where(old, _job.c.state.not_in(UNFINISHED)))

    def stop(self, name: str) -> None:
        """Ask a job to stop; one that only waits is stopped at once."""
        with self._write() as begun:
            self._change(begun, name, stop=1)
            begun.execute(_job.update().where(_job.c.id == name, _job.c.state == WAITING).values(state=STOPPED))

    def broken_off(self, *, waiting: bool) -> list[tuple[str, str, int]]:
        """Jobs whose process is no more, which wait again: id, kind, and how often each was begun. waiting: those that only
        wait as
        well, where the queue was lost."""
        with self._engine.connect() as reading:
            query = select(_job.c.id, _job.c.kind, _job.c.times, _job.c.process, _job.c.state).order_by(_job.c.at)
            rows = reading.execute(query.where(_job.c.state.in_(UNFINISHED))).all()
        dead = [row for row in rows if row.state == RUNNING and not _lives(row.process)]
        if dead:
            with self._write() as begun:
                gone = _job.c.id.in_([row.id for row in dead])
                begun.execute(_job.update().where(gone, _job.c.state == RUNNING).values(state=WAITING))
        return [(row.id, row.kind, row.times) for row in rows if row in dead or (waiting and row.state == WAITING)]

    @staticmethod
    def _change(begun: Connection, name: str, **values: Any) -> None:
        begun.execute(_job.update().where(_job.c.id == name).values(**values))

    # ---- what was worked out ----

    def found(self, keys: Collection[str]) -> dict[str, bytes]:
        """What is kept under these keys, as far as it is."""
        if not keys:
            return {}
        with self._engine.connect() as reading:
            rows = reading.execute(select(_found.c.key, _found.c.value).where(_found.c.key.in_(list(keys)))).all()
        if rows and secrets.randbelow(8) == 0:  # often enough to tell what is asked for from what is not
            with self._write() as begun:
                begun.execute(_found.update().where(_found.c.key.in_([row.key for row in rows])).values(turn=_next_turn(begun)))
        return {row.key: bytes(row.value) for row in rows}

    def keep(self, key: str, value: bytes) -> None:
        """Keep something under a key; what was not asked for longest makes room. More than MOST_ENTRY is not kept."""
        if len(value) > MOST_ENTRY:
            return
        with self._write() as begun:
            values = {"value": value, "size": len(value), "turn": _next_turn(begun)}
            begun.execute(insert(_found).values(key=key, **values).on_conflict_do_update(index_elements=["key"], set_=values))
            over = (begun.execute(select(sql.sum(_found.c.size))).scalar() or 0) - MOST_FOUND
            while over > 0:
                oldest = begun.execute(select(_found.c.key, _found.c.size).order_by(_found.c.turn).limit(1)).first()
                if oldest is None:
                    break
                begun.execute(_found.delete().where(_found.c.key == oldest.key))
                over -= oldest.size

    # ---- what is tried ----

    def tried(self, docket: int, mark: str) -> str:
        """What somebody tries on a garment, as it stands in the address; '' for nothing."""
        mine = (_tried.c.docket == docket) & (_tried.c.mark == mark)
        with self._engine.connect() as reading:
            return reading.execute(select(_tried.c.query).where(mine)).scalar() or ""

    def tried_on(self, mark: str) -> set[int]:
        """The garments on which somebody tries something."""
        with self._engine.connect() as reading:
            return set(reading.execute(select(_tried.c.docket).where(_tried.c.mark == mark)).scalars())

    def keep_tried(self, docket: int, mark: str, query: str) -> None:
        """Remember what somebody tries on a garment; '' forgets it."""
        if self.tried(docket, mark) == query:
            return
        mine = (_tried.c.docket == docket) & (_tried.c.mark == mark)
        with self._write() as begun:
            begun.execute(_tried.delete().where(mine))
            if query:
                turn = int(begun.execute(select(sql.max(_tried.c.turn))).scalar() or 0) + 1
                begun.execute(_tried.insert().values(docket=docket, mark=mark, query=query[:LONGEST_TRIED], turn=turn))
                begun.execute(_tried.delete().where(_tried.c.turn <= turn - MOST_TRIED))

    # ---- wrong guesses ----

    def guesses(self, whose: str, seconds: float) -> int:
        """How many wrong guesses came from there in so many seconds."""
        now = time.monotonic()
        lately = select(sql.count()).select_from(_guess)
        with self._engine.connect() as reading:
            return int(
                reading.execute(
                    lately.where(_guess.c.whose == whose, _guess.c.at > now - seconds, _guess.c.at <= now)
                ).scalar_one()
            )

    def note_guess(self, whose: str, seconds: float) -> None:
        """One more wrong guess from there; those of more than so many seconds ago are forgotten."""
        now = time.monotonic()
        with self._write() as begun:
            begun.execute(_guess.delete().where((_guess.c.at < now - seconds) | (_guess.c.at > now)))
            begun.execute(_guess.insert().values(whose=whose, at=now))
            count = begun.execute(select(sql.count()).select_from(_guess)).scalar_one()
            if count > MOST_GUESSES:
                oldest = select(_guess.c.at).order_by(_guess.c.at).limit(1).scalar_subquery()
                begun.execute(_guess.delete().where(_guess.c.at == oldest))


def _next_turn(begun: Connection) -> int:
    return int(begun.execute(select(sql.max(_found.c.turn))).scalar() or 0) + 1


def _lives(process: int) -> bool:
    """Whether there is such a process."""
    try:
        os.kill(process, 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        return True
    return True
