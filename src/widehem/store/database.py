"""Opening the one SQLite file: pragmas, write transactions that lock at once, migrations, backup."""

from __future__ import annotations

import os
import secrets
import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, Engine, create_engine, event, inspect, text
from sqlalchemy.orm import Session

from widehem.store.models import NEVER_CHANGED, Base

FILE, SECRET = "widehem.sqlite3", "secret.key"
HEAD = "0009"
MIGRATIONS = Path(__file__).parent / "migrations"


class Store:
    """The data folder: the database and the key that signs cookies.

    folder: created when missing. Reading takes no lock; writing takes it at once, so that nothing is lost between two
    makers who save at the same moment.
    """

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        folder.mkdir(parents=True, exist_ok=True)
        self.file = folder / FILE
        self.engine = _engine(self.file)
        self._writing = self.engine.execution_options(immediate=True)
        upgrade(self.engine, self.file)

    @contextmanager
    def read(self) -> Iterator[Session]:
        with Session(self.engine, expire_on_commit=False) as session:
            yield session

    @contextmanager
    def write(self) -> Iterator[Session]:
        """A transaction that is kept when the block ends and undone when it fails."""
        with Session(self._writing, expire_on_commit=False) as session, session.begin():
            yield session

    def secret(self) -> str:
        """The signing key, made on first use and readable by the owner only."""
        path = self.folder / SECRET
        try:
            descriptor = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        except FileExistsError:
            return path.read_text().strip()
        with os.fdopen(descriptor, "w") as file:
            key = secrets.token_hex(32)
            file.write(key)
        return key

    def backup(self, target: Path) -> None:
        """A whole, consistent copy of the database while it is in use. Raises FileExistsError."""
        if target.exists():
            raise FileExistsError(target)
        with closing(sqlite3.connect(self.file)) as source, closing(sqlite3.connect(target)) as copy:
            source.backup(copy)

    def close(self) -> None:
        self.engine.dispose()


def _engine(file: Path) -> Engine:
    engine = create_engine(f"sqlite:///{file}", pool_size=12, max_overflow=12)

    @event.listens_for(engine, "connect")
    def prepare(connection: sqlite3.Connection, _record: Any) -> None:
        connection.isolation_level = None  # transactions are begun below, not by the driver
        for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON", "busy_timeout=10000"):
            connection.execute(f"PRAGMA {pragma}")

    @event.listens_for(engine, "begin")
    def begin(connection: Connection) -> None:
        immediate = connection.get_execution_options().get("immediate", False)
        connection.exec_driver_sql("BEGIN IMMEDIATE" if immediate else "BEGIN")

    return engine


def upgrade(engine: Engine, file: Path) -> None:
    """Bring the tables up to date; nothing to load when they are. A new file gets the tables of today at once."""
    version = _version(engine)
    if version == HEAD:
        return
    if version is None and not inspect(engine).get_table_names():
        _create(engine)
        return
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.set_main_option("sqlalchemy.url", f"sqlite:///{file}")
    command.upgrade(config, "head")


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
