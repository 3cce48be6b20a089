"""Bringing a database up to date without ever touching the one that is there: on a copy, which takes its place when it is
whole.

A copy whose tables are not those of the version it says, because an upgrade was broken off or a version was changed under way,
is
mended first: its tables are held against those that the migrations make of nothing."""

from __future__ import annotations

import logging
import os
import sqlite3
import tempfile
from collections.abc import Iterator
from contextlib import closing, contextmanager
from functools import cache
from pathlib import Path

from alembic import command
from alembic.config import Config

from widehem.store.database import MIGRATIONS
from widehem.store.keeping import BESIDE, PRIVATE_FILE, StoreError, alone, copy_whole, make_private, troubles, version_of

HALF = "_alembic_tmp_"  # in front of a table that was being made anew
PLAIN = {"TEXT": "''", "VARCHAR": "''", "JSON": "'{}'", "INTEGER": "0", "BOOLEAN": "0", "DOUBLE": "0", "FLOAT": "0"}
log = logging.getLogger(__name__)


class CannotMendError(Exception):
    """What in a database is of no version that is known, in words."""


def bring_up_to_date(file: Path, head: str) -> None:
    """Put a copy of today's tables in the place of a database of earlier ones. What was there is kept aside. Raises
    StoreError."""
    version = version_of(file)
    coming = file.with_name(f"{file.name}.coming")
    coming.unlink(missing_ok=True)
    with alone(file.parent):
        try:
            copy_whole(file, coming, half_way=True)
            if version is not None:
                mend(coming, version)
            migrate(coming, head)
            if odd := differences(coming, head) or troubles(coming):
                raise CannotMendError("; ".join(odd))
        except CannotMendError as error:
            raise StoreError(
                f"{file} cannot be brought up to date: {error}. Nothing was changed. Put a copy back with `widehem restore FILE --data "
                f"{file.parent}`."
            ) from None
        else:
            aside = file.with_name(f"before-{head}-of-{version or 'none'}-{file.name}")
            aside.unlink(missing_ok=True)
            copy_whole(file, aside, half_way=True)
            for end in BESIDE:
                file.with_name(file.name + end).unlink(missing_ok=True)
            os.replace(coming, file)
            make_private(file, PRIVATE_FILE)
        finally:
            for end in ("", *BESIDE, "-journal"):
                coming.with_name(coming.name + end).unlink(missing_ok=True)


def migrate(file: Path, version: str) -> None:
    """Run the migrations on a file up to a version."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.set_main_option("sqlalchemy.url", f"sqlite:///{file}")
    command.upgrade(config, version)


@contextmanager
def made_of_nothing(version: str) -> Iterator[sqlite3.Connection]:
    """An empty database with the tables of a version."""
    with closing(sqlite3.connect(":memory:")) as found:
        found.deserialize(_empty(version))
        yield found


@cache
def _empty(version: str) -> bytes:
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "empty.sqlite3"
        migrate(file, version)
        with closing(sqlite3.connect(file)) as found:
            return found.serialize()


# ---- holding tables against each other ----


def _named(found: sqlite3.Connection, kind: str) -> dict[str, str]:
    """The tables, indexes or triggers of a database, with how each is made."""
    query = "SELECT name, sql FROM sqlite_master WHERE type = ? AND sql IS NOT NULL AND name NOT LIKE 'sqlite_%'"
    return dict(found.execute(query, (kind,)).fetchall())


def _columns(found: sqlite3.Connection, table: str) -> dict[str, tuple[str, bool, str | None]]:
    """The columns of a table: type, whether it may be empty, default."""
    return {row[1]: (row[2], not row[3], row[4]) for row in found.execute(f'PRAGMA table_info("{table}")')}


def _keys(found: sqlite3.Connection, table: str) -> set[tuple[object, ...]]:
    return {(row[3], row[2], row[4], row[6]) for row in found.execute(f'PRAGMA foreign_key_list("{table}")')}


def differences(file: Path, version: str) -> list[str]:
    """How the tables of a file differ from those of a version; nothing where they are alike."""
    with made_of_nothing(version) as wanted, closing(sqlite3.connect(file)) as found:
        return list(_differences(found, wanted))


def _differences(found: sqlite3.Connection, wanted: sqlite3.Connection) -> Iterator[str]:
    have, want = _named(found, "table"), _named(wanted, "table")
    yield from (f"no table {name}" for name in want if name not in have)
    yield from (f"a table {name} that nobody knows" for name in have if name not in want)
    for name in want:
        if name in have:
            mine, theirs = _columns(found, name), _columns(wanted, name)
            yield from (f"{name} has no {column}" for column in theirs if column not in mine)
            yield from (f"{name} has a {column} that nobody knows" for column in mine if column not in theirs)
            if _keys(found, name) != _keys(wanted, name):
                yield f"{name} belongs to other tables than it should"
    for kind in ("index", "trigger"):
        yield from (f"no {kind} {name}" for name in _named(wanted, kind) if name not in _named(found, kind))


# ---- mending ----


def mend(file: Path, version: str) -> None:
    """Give a file the tables of the version it says, where it has them by half. Raises CannotMendError."""
    with made_of_nothing(version) as wanted, closing(sqlite3.connect(file)) as found:
        odd = list(_differences(found, wanted))
        if not odd:
            return
        found.isolation_level = None
        found.execute("PRAGMA foreign_keys = OFF")
        found.execute("PRAGMA legacy_alter_table = ON")  # a table keeps its name in what refers to it
        found.execute("BEGIN IMMEDIATE")
        _end_half_made(found)
        want = _named(wanted, "table")
        for name in _named(found, "table"):
            if name not in want:
                _drop_empty(found, name)
        for name, sql in want.items():
            if name not in _named(found, "table"):
                found.execute(sql)
            elif _columns(found, name).keys() != _columns(wanted, name).keys() or _keys(found, name) != _keys(wanted, name):
                _make_anew(found, wanted, name, sql)
        for kind in ("index", "trigger"):
            for name, sql in _named(wanted, kind).items():
                if name not in _named(found, kind):
                    found.execute(sql)
        found.execute("COMMIT")
        if left := list(_differences(found, wanted)):
            raise CannotMendError("; ".join(left))
    log.warning("%s was of version %s by half and was mended: %s", file, version, "; ".join(odd))


def _end_half_made(found: sqlite3.Connection) -> None:
    """A table that was being made anew: begun again where the old one is there still, in its place where it is not."""
    for half in [name for name in _named(found, "table") if name.startswith(HALF)]:
        name = half.removeprefix(HALF)
        if name in _named(found, "table"):
            found.execute(f'DROP TABLE "{half}"')
        else:
            found.execute(f'ALTER TABLE "{half}" RENAME TO "{name}"')


def _drop_empty(found: sqlite3.Connection, name: str) -> None:
    if found.execute(f'SELECT 1 FROM "{name}" LIMIT 1').fetchone():
        raise CannotMendError(f"it has a table {name} that its version does not know, with something in it")
    found.execute(f'DROP TABLE "{name}"')


def _make_anew(found: sqlite3.Connection, wanted: sqlite3.Connection, name: str, sql: str) -> None:
    """A table as it should be, with what stood in the old one."""
    mine, theirs = _columns(found, name), _columns(wanted, name)
    for column in mine.keys() - theirs.keys():
        if len(found.execute(f'SELECT DISTINCT "{column}" FROM "{name}" LIMIT 2').fetchall()) > 1:
            raise CannotMendError(f"{name} has a {column} that its version does not know, with something in it")
    found.execute(f'ALTER TABLE "{name}" RENAME TO "{HALF}{name}"')
    for kind in ("index", "trigger"):  # they went along with the old table
        for other in _named(found, kind):
            if found.execute("SELECT 1 FROM sqlite_master WHERE name = ? AND tbl_name = ?", (other, HALF + name)).fetchone():
                found.execute(f'DROP {kind} "{other}"')
    found.execute(sql)
    values = [f'"{column}"' if column in mine else _default(name, column, *theirs[column]) for column in theirs]
    columns = ", ".join(f'"{column}"' for column in theirs)
    found.execute(f'INSERT INTO "{name}" ({columns}) SELECT {", ".join(values)} FROM "{HALF}{name}"')
    found.execute(f'DROP TABLE "{HALF}{name}"')


def _default(table: str, column: str, kind: str, may_be_empty: bool, default: str | None) -> str:
    """What stands in a column that was not there."""
    if default is not None or may_be_empty:
        return default or "NULL"
    plain = PLAIN.get(kind.split("(")[0].upper())
    if plain is None:
        raise CannotMendError(f"{table} has no {column}")
    return plain
