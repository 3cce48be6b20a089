"""Whether a data folder is fit to work in, and what to do where it is not; putting a copy back."""

from __future__ import annotations

import fcntl
import os
import shutil
import sqlite3
import time
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from typing import IO

FILE, SECRET, LOCK = "widehem.sqlite3", "secret.key", "in-use.lock"
BEGINS = b"SQLite format 3\x00"
LEAST_FREE = 50 * 1024 * 1024  # bytes on the disk
BESIDE = ("-wal", "-shm")  # what SQLite keeps beside a database in use
PRIVATE_FOLDER, PRIVATE_FILE = 0o700, 0o600


class StoreError(Exception):
    """A data folder that cannot be worked in: what is wrong and the way back, in a sentence or two."""


def make_private(path: Path, mode: int) -> None:
    """Nobody but its owner reads it; on a disk that knows no owners it stays as it is."""
    try:
        if path.stat().st_mode & 0o777 & ~mode:
            path.chmod(mode)
    except OSError:
        return


def private_files(file: Path) -> None:
    """A database and what lies beside it, for its owner only."""
    for path in (file, *(file.with_name(file.name + end) for end in BESIDE)):
        if path.exists():
            make_private(path, PRIVATE_FILE)


def refuse_unfit(folder: Path) -> None:
    """Raise StoreError where nothing can be kept in a folder, or what lies there is none of ours."""
    file, key = folder / FILE, folder / SECRET
    if not os.access(folder, os.W_OK | os.X_OK):
        raise StoreError(f"{folder} cannot be written to: give this user leave to, or name another folder with --data.")
    free = shutil.disk_usage(folder).free
    if free < LEAST_FREE:
        raise StoreError(
            f"The disk of {folder} has {free // 1024 // 1024} MB free, {LEAST_FREE // 1024 // 1024} MB is the least: make room "
            f"first."
        )
    if file.exists():
        with file.open("rb") as begun:
            first = begun.read(len(BEGINS))
        if not first:
            raise StoreError(
                f"{file} is empty: a copy that was broken off. Put one back with `widehem restore FILE --data {folder}`, or move "
                f"it away to begin anew."
            )
        if first != BEGINS:
            raise StoreError(f"{file} is no database of Wide Hem: put a copy back with `widehem restore FILE --data {folder}`.")
    if key.exists() and not key.read_text(errors="replace").strip():
        raise StoreError(f"{key} is empty: delete it, a new one is made; whoever had a page open opens it again.")


def troubles(file: Path, *, rows: bool = True) -> list[str]:
    """What SQLite itself finds wrong in a database; nothing when it is whole. rows: also whether every row belongs to
    something."""
    try:
        with closing(sqlite3.connect(f"file:{file}?mode=ro", uri=True)) as found:
            told = [str(row[0]) for row in found.execute("PRAGMA integrity_check(5)")]
            if rows:
                told += [f"a row of {table} belongs to nothing" for table, *_ in found.execute("PRAGMA foreign_key_check")]
    except sqlite3.DatabaseError as error:
        return [str(error)]
    return [words for words in told if words != "ok"]


def version_of(file: Path) -> str | None:
    """By which tables a database was written; None where it says nothing of it."""
    try:
        with closing(sqlite3.connect(f"file:{file}?mode=ro", uri=True)) as found:
            row = found.execute("SELECT version_num FROM alembic_version").fetchone()
    except sqlite3.DatabaseError:
        return None
    return str(row[0]) if row else None


@contextmanager
def in_use(folder: Path) -> Iterator[None]:
    """Hold the folder while it is served from."""
    with _lock(folder, fcntl.LOCK_SH):
        yield


@contextmanager
def alone(folder: Path) -> Iterator[None]:
    """Hold the folder while nobody serves from it. Raises StoreError."""
    try:
        with _lock(folder, fcntl.LOCK_EX | fcntl.LOCK_NB):
            yield
    except BlockingIOError:
        raise StoreError(f"{folder} is being worked in: stop Wide Hem there first.") from None


@contextmanager
def _lock(folder: Path, how: int) -> Iterator[None]:
    lock: IO[bytes]
    with (folder / LOCK).open("ab") as lock:
        make_private(folder / LOCK, PRIVATE_FILE)
        fcntl.flock(lock, how)
        yield


def copy_whole(source: Path, target: Path, *, half_way: bool = False) -> None:
    """A whole, consistent copy of a database, also while it is in use, looked over before it counts; nothing is left of one
    that
    failed. half_way: of one whose upgrade may have been broken off, so that rows may belong to a table that is not there.
    Raises
    FileExistsError, OSError, StoreError."""
    os.close(os.open(target, os.O_WRONLY | os.O_CREAT | os.O_EXCL, PRIVATE_FILE))
    try:
        with closing(sqlite3.connect(source)) as whole, closing(sqlite3.connect(target)) as copy:
            whole.backup(copy)
            copy.execute("PRAGMA journal_mode=DELETE")  # one file, nothing beside it
        if wrong := troubles(target, rows=not half_way):
            raise StoreError(f"The copy {target} is not whole: {wrong[0]}.")
    except sqlite3.Error as error:
        target.unlink(missing_ok=True)
        raise OSError(f"{target} cannot be written: {error}") from None
    except BaseException:
        target.unlink(missing_ok=True)
        raise


def restore(folder: Path, copy: Path, known: set[str]) -> Path | None:
    """Put a copy in the place of the database, the old one kept aside; where that is kept, None where there was none.

    known: the versions of tables that can be opened. Raises StoreError.
    """
    if not copy.is_file():
        raise StoreError(f"There is no file {copy}.")
    if wrong := troubles(copy):
        raise StoreError(f"{copy} is not whole: {wrong[0]}. Nothing was changed.")
    version = version_of(copy)
    if version not in known:
        said = f"of version {version}" if version else "of no version of Wide Hem"
        raise StoreError(f"{copy} is {said}: this version cannot open it. Nothing was changed.")
    folder.mkdir(parents=True, exist_ok=True, mode=PRIVATE_FOLDER)
    with alone(folder):
        file, fresh = folder / FILE, folder / f"{FILE}.coming"
        fresh.unlink(missing_ok=True)
        try:
            copy_whole(copy, fresh)
        except OSError as error:
            raise StoreError(f"{copy} cannot be copied: {error}. Nothing was changed.") from None
        aside = None
        if file.exists():
            aside = folder / f"before-{time.strftime('%Y%m%d-%H%M%S')}-{FILE}"
            try:
                copy_whole(file, aside)
            except (OSError, StoreError):  # broken as it is, it is kept as it is
                shutil.copyfile(file, aside)
                make_private(aside, PRIVATE_FILE)
        for end in BESIDE:
            file.with_name(file.name + end).unlink(missing_ok=True)
        os.replace(fresh, file)
        make_private(file, PRIVATE_FILE)
    return aside
