"""Upgrades that were broken off, anywhere, and versions that were changed under way: all of them open with today's tables, or say why
not and are left as they are."""

import gzip
import hashlib
import os
import random
import shutil
import sqlite3
import tempfile
import unittest
from contextlib import closing
from pathlib import Path
from unittest import mock

from sqlalchemy import event
from sqlalchemy.engine import Engine

from tests.attacks import times
from widehem.store import database
from widehem.store.database import HEAD, MIGRATIONS, Store, versions
from widehem.store.keeping import FILE, StoreError, in_use, troubles, version_of
from widehem.store.mending import differences, migrate

OLD = Path(__file__).parent / "old"
RELEASED = {  # what each does; one that is out is never changed, only followed by another
    "0001": "67b4af5ff4ee", "0002": "89754803efa0", "0003": "599f001ff888", "0004": "adb2b9a6ea9b",
    "0005": "c6eb38b31b1a", "0006": "02d1f1c5fab4", "0007": "84ce9521679d", "0008": "91ef2e3781f3",
    "0009": "b12215a2325d", "0010": "037c5f6b193c", "0011": "97d536e75dfc", "0012": "cd9424bed9c2", "0013": "ce216dae8e7a",
    "0014": "305c20d67241", "0015": "ac4d022af8eb", "0016": "f185f2468b33", "0017": "156088155e93", "0018": "659eb4f24815",
}  # fmt: skip


class BrokenOffError(Exception):
    """As a power cut would do it."""


class MendingCase(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.file = self.folder / FILE

    def put(self, version):
        """The file an earlier version wrote."""
        for path in self.folder.iterdir():
            path.unlink()
        self.file.write_bytes(gzip.decompress((OLD / f"{version}.sqlite3.gz").read_bytes()))
        with closing(sqlite3.connect(self.file)) as found:
            self.wearers = found.execute("SELECT id, name FROM wearer ORDER BY id").fetchall()
            self.readings = found.execute("SELECT count(*) FROM reading").fetchone()

    def run_sql(self, *lines):
        with closing(sqlite3.connect(self.file)) as found:
            found.executescript(";".join(lines))

    def dump(self):
        with closing(sqlite3.connect(self.file)) as found:
            return list(found.iterdump())

    def opens(self):
        """It opens, with today's tables and all that stood in it."""
        Store(self.folder).close()
        self.assertEqual(differences(self.file, HEAD), [])
        self.assertEqual((version_of(self.file), troubles(self.file)), (HEAD, []))
        with closing(sqlite3.connect(self.file)) as found:
            self.assertEqual(found.execute("SELECT id, name FROM wearer ORDER BY id").fetchall(), self.wearers)
            self.assertEqual(found.execute("SELECT count(*) FROM reading").fetchone(), self.readings)
            with self.assertRaises(sqlite3.IntegrityError):
                found.execute("UPDATE reading SET ticks = 1")


class Released(MendingCase):
    def test_no_migration_that_is_out_was_changed(self):
        found = {}
        for path in sorted((MIGRATIONS / "versions").glob("[0-9]*.py")):
            code = path.read_text().partition("\nrevision = ")[2]
            found[path.name[:4]] = hashlib.sha256("".join(code.split()).encode()).hexdigest()[:12]
        self.assertEqual(found, RELEASED)
        self.assertEqual(set(found), versions())

    def test_what_every_version_wrote_opens_and_what_was_there_is_kept_aside(self):
        for version in ("0.1", "0.2", "0.3", "0.4"):
            with self.subTest(version):
                self.put(version)
                before = version_of(self.file)
                self.opens()
                aside = self.folder / f"before-{HEAD}-of-{before}-{FILE}"
                self.assertEqual((version_of(aside), troubles(aside)), (before, []))
                self.assertEqual(aside.stat().st_mode & 0o077, 0)


class HalfWay(MendingCase):
    def test_states_that_were_seen(self):
        tables = "CREATE TABLE _alembic_tmp_docket (id INTEGER NOT NULL, name VARCHAR(120) NOT NULL)"
        ease = (
            "CREATE TABLE house_ease (id INTEGER PRIMARY KEY, name VARCHAR(60) NOT NULL, why VARCHAR(200) NOT NULL, amounts JSON NOT NULL, "
            "cloth VARCHAR(10) NOT NULL, layers DOUBLE NOT NULL, stretch DOUBLE NOT NULL, version INTEGER NOT NULL)"
        )
        looks = "ALTER TABLE docket ADD COLUMN looks JSON NOT NULL DEFAULT '{}'"
        for words, version, lines in (
            ("a version that got another column later", "0.2", ["ALTER TABLE docket DROP COLUMN looks"]),
            ("the same, one version on", "0.3", ["ALTER TABLE docket DROP COLUMN looks"]),
            ("a table being made anew", "0.1", [tables]),
            ("its columns there, its number not", "0.1", ["ALTER TABLE docket ADD COLUMN bodice_id INTEGER", looks]),
            ("its table there, its number not", "0.2", [ease]),
            (
                "a table between its two names",
                "0.2",
                ["PRAGMA legacy_alter_table = ON", "ALTER TABLE docket RENAME TO _alembic_tmp_docket"],
            ),
        ):
            with self.subTest(words), self.assertLogs("widehem.store.mending", "WARNING"):
                self.put(version)
                self.run_sql(*lines)
                self.opens()

    def test_what_would_lose_something_is_refused_and_left_as_it_is(self):
        for lines, words in (
            (
                ["CREATE TABLE cloth (id INTEGER)", "INSERT INTO cloth VALUES (1)"],
                "it has a table cloth that its version does not know",
            ),
            (
                ["ALTER TABLE wearer ADD COLUMN hat JSON", "UPDATE wearer SET hat = id"],
                "wearer has a hat that its version does not know",
            ),
            (["UPDATE alembic_version SET version_num = '9999'"], "of version 9999, which a later Wide Hem wrote"),
        ):
            with self.subTest(words):
                self.put("0.3")
                self.run_sql(*lines)
                before = self.dump()
                with self.assertRaisesRegex(StoreError, words):
                    Store(self.folder)
                self.assertEqual(self.dump(), before)
                self.assertEqual(
                    {path.name for path in self.folder.iterdir()} - {"in-use.lock", f"{FILE}-wal", f"{FILE}-shm"}, {FILE}
                )

    def test_one_that_says_it_is_of_today_and_is_not(self):
        self.put("0.4")
        Store(self.folder).close()
        self.run_sql("ALTER TABLE docket DROP COLUMN looks")
        with self.assertLogs("widehem.store.mending", "WARNING"):
            self.opens()

    def test_wherever_an_earlier_upgrade_was_broken_off(self):
        chance = random.Random("broken off")
        for version in ("0.1", "0.3"):
            whole = self.statements(version)
            tries = range(whole) if "HOLD" in os.environ else chance.sample(range(whole), min(whole, times(6)))
            for count in tries:
                with self.subTest(version, after=count):
                    self.put(version)
                    self.assertRaises(BrokenOffError, self.broken_off, count)
                    self.opens()

    def broken_off(self, count):
        """An upgrade as earlier versions did it, on the file itself, that ends after so many statements; returns how many there are."""
        done = []

        def stop(_connection, _cursor, statement, *_rest):
            if not statement.lstrip().upper().startswith(("PRAGMA", "SELECT")):
                if len(done) == count:
                    raise BrokenOffError
                done.append(statement)

        event.listen(Engine, "before_cursor_execute", stop)
        try:
            migrate(self.file, HEAD)
        finally:
            event.remove(Engine, "before_cursor_execute", stop)
        return len(done)

    def statements(self, version):
        self.put(version)
        return self.broken_off(-1)


class Careful(MendingCase):
    def test_an_upgrade_that_fails_leaves_what_is_there(self):
        self.put("0.4")
        before = self.dump()
        with mock.patch("widehem.store.mending.migrate", side_effect=BrokenOffError), self.assertRaises(BrokenOffError):
            Store(self.folder)
        self.assertEqual(self.dump(), before)
        self.opens()

    def test_not_while_somebody_works_in_it(self):
        self.put("0.4")
        with in_use(self.folder), self.assertRaisesRegex(StoreError, "is being worked in"):
            Store(self.folder)

    def test_not_without_room_for_it(self):
        self.put("0.4")
        little = shutil.disk_usage(self.folder)._replace(free=database.LEAST_FREE + 1)
        with mock.patch("shutil.disk_usage", return_value=little), self.assertRaisesRegex(StoreError, "make room first"):
            Store(self.folder)


if __name__ == "__main__":
    unittest.main()
