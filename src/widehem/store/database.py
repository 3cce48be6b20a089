"""Opening the one SQLite file: pragmas, write transactions that lock at once, migrations, backup."""

from __future__ import annotations

import os
import secrets
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from threading import RLock
from typing import Any

from sqlalchemy import Connection, Engine, create_engine, event, inspect, text
from sqlalchemy.exc import SQLAlchemyError
from sqlalchemy.orm import Session

from widehem.store import bin, journal  # noqa: F401 - the bin hides what lies in it
from widehem.store.keeping import (
    FILE,
    LEAST_FREE,
    PRIVATE_FOLDER,
    SECRET,
    StoreError,
    copy_whole,
    make_private,
    private_files,
    refuse_unfit,
)
from widehem.store.models import NEVER_CHANGED, Base

HEAD = "0018"
BUSY_MS = 3000  # waited for somebody else who writes; then the browser says so and sends it again
MIGRATIONS = Path(__file__).parent / "migrations"


class Store:
    """The data folder: the database and the key that signs cookies.

    folder: created when missing, for its owner only. Raises StoreError where it cannot be worked in. Reading takes no lock;
    writing takes it at once, so that nothing is lost between two
    makers who save at the same moment.
    """

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        try:
            folder.mkdir(parents=True, exist_ok=True, mode=PRIVATE_FOLDER)
        except OSError as error:
            raise StoreError(f"{folder} cannot be made: {error.strerror}. Name another folder with --data.") from None
        make_private(folder, PRIVATE_FOLDER)
        refuse_unfit(folder)
        self.file = folder / FILE
        self.engine = engine_on(self.file)
        self._writing = self.engine.execution_options(immediate=True)
        self._turn = RLock()
        try:
            upgrade(self.engine, self.file)
        except SQLAlchemyError as error:
            self.engine.dispose()
            said = str(getattr(error, "orig", error)).rstrip(".")
            raise StoreError(
                f"{self.file} cannot be opened: {said}. Nothing was changed. Put a copy back with `widehem restore FILE --data "
                f"{folder}`."
            ) from None
        private_files(self.file)

    @contextmanager
    def read(self) -> Iterator[Session]:
        with Session(self.engine, expire_on_commit=False) as session:
            yield session

    @contextmanager
    def write(self, by: str | None = None) -> Iterator[Session]:
        """A transaction that is kept when the block ends and undone when it fails. by: whose doing it is, where what is done is
        written down so that it can be taken back."""
        with self._in_turn(), Session(self._writing, expire_on_commit=False) as session, session.begin():
            if by is None:
                yield session
                return
            journal.begin(session, by)
            yield session
            journal.end(session)

    @contextmanager
    def _in_turn(self) -> Iterator[None]:
        """Those who write in one process take turns here: the database wakes whoever waits for it by chance, and lets some wait too long."""
        mine = self._turn.acquire(timeout=BUSY_MS / 1000)
        try:
            yield
        finally:
            if mine:
                self._turn.release()

    def secret(self) -> str:
        """The signing key, made on first use and readable by the owner only."""
        path = self.folder / SECRET
        try:
            descriptor = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        except FileExistsError:
            found = path.read_text().strip()
            if not found:
                raise StoreError(f"{path} is empty: delete it, a new one is made.") from None
            return found
        with os.fdopen(descriptor, "w") as file:
            key = secrets.token_hex(32)
            file.write(key)
        return key

    def backup(self, target: Path) -> None:
        """A whole, consistent copy of the database while it is in use. Raises FileExistsError."""
        copy_whole(self.file, target)

    def close(self) -> None:
        self.engine.dispose()


def engine_on(file: Path, synchronous: str = "FULL") -> Engine:
    """The engine on an SQLite file. synchronous: FULL where a kept word must outlive a power cut, NORMAL where the last ones
    may be lost with it."""
    engine = create_engine(f"sqlite:///{file}", pool_size=12, max_overflow=12)

    @event.listens_for(engine, "connect")
    def prepare(connection: sqlite3.Connection, _record: Any) -> None:
        connection.isolation_level = None  # transactions are begun below, not by the driver
        for pragma in ("journal_mode=WAL", f"synchronous={synchronous}", "foreign_keys=ON", f"busy_timeout={BUSY_MS}"):
            connection.execute(f"PRAGMA {pragma}")

    @event.listens_for(engine, "begin")
    def begin(connection: Connection) -> None:
        immediate = connection.get_execution_options().get("immediate", False)
        connection.exec_driver_sql("BEGIN IMMEDIATE" if immediate else "BEGIN")

    return engine


def upgrade(engine: Engine, file: Path) -> None:
    """See that the tables are today's: a new file gets them at once, those of an earlier version are brought up to date, and
    so is what
    says it is of today and is not. Raises StoreError."""
    version = _version(engine)
    if version is None and not inspect(engine).get_table_names():
        _create(engine)
        return
    odd = lacking(engine) if version == HEAD else ()
    if version == HEAD and not odd:
        return
    if version is not None and version not in versions():
        raise StoreError(
            f"{file} is of version {version}, which a later Wide Hem wrote: start that one, or put a copy back with `widehem restore "
            f"FILE --data {file.parent}`."
        )
    room = 2 * file.stat().st_size + LEAST_FREE
    free = shutil.disk_usage(file.parent).free
    if free < room:
        raise StoreError(
            f"{file} has to be brought up to date, for which {room // 1024 // 1024} MB must be free; there are "
            f"{free // 1024 // 1024}: make room first."
        )
    engine.dispose()
    from widehem.store.mending import bring_up_to_date

    bring_up_to_date(file, HEAD)


def lacking(engine: Engine) -> tuple[str, ...]:
    """What of today's tables a database lacks; looked at whenever it is opened."""
    with engine.connect() as connection:
        rows = connection.exec_driver_sql(
            "SELECT m.name, c.name FROM sqlite_master m JOIN pragma_table_info(m.name) c WHERE m.type = 'table'"
        )
        found = {(row[0], row[1]) for row in rows}
    wanted = ((table.name, column.name) for table in Base.metadata.sorted_tables for column in table.columns)
    return tuple(f"{table} has no {column}" for table, column in wanted if (table, column) not in found)


def versions() -> set[str]:
    """The versions of tables that can be opened: today's, and those that are brought up to date."""
    return {path.name.split("_")[0] for path in (MIGRATIONS / "versions").glob("[0-9]*.py")}


def _create(engine: Engine) -> None:
    with engine.begin() as connection:
        Base.metadata.create_all(connection)
        connection.exec_driver_sql(NEVER_CHANGED)
        connection.exec_driver_sql("CREATE TABLE alembic_version (version_num VARCHAR(32) NOT NULL PRIMARY KEY)")
        connection.execute(text("INSERT INTO alembic_version VALUES (:version)"), {"version": HEAD})


def _version(engine: Engine) -> str | None:
    with engine.connect() as connection:
        known = connection.execute(text("SELECT name FROM sqlite_master WHERE name = 'alembic_version'")).scalar()
        if known is None:
            return None
        found: str | None = connection.execute(text("SELECT version_num FROM alembic_version")).scalar()
        return found
