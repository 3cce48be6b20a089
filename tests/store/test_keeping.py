"""A data folder is looked over before it is worked in, kept from others, copied every day, and put back."""

import os
import sqlite3
import stat
import unittest
from contextlib import closing
from datetime import date, timedelta
from pathlib import Path
from unittest import mock

from sqlalchemy import select, text

from tests.stores import fresh_store
from widehem.store import keeping
from widehem.store.copies import copies, copy_of_today, day_of, kept, last_failure, overdue
from widehem.store.database import HEAD, Store, versions
from widehem.store.keeping import FILE, SECRET, StoreError, alone, in_use, restore, troubles, version_of
from widehem.store.mending import differences
from widehem.store.models import Production


def mode(path):
    return stat.S_IMODE(path.stat().st_mode)


class Case(unittest.TestCase):
    def setUp(self):
        self.store = fresh_store(self)
        self.folder = self.store.folder
        self.add("Lantern")

    def add(self, name):
        with self.store.write() as session:
            session.add(Production(name=name, company=""))

    def names(self, folder):
        store = Store(folder)
        self.addCleanup(store.close)
        with store.read() as session:
            return sorted(session.scalars(select(Production.name)))


class Fit(Case):
    def refused(self, words, folder=None):
        with self.assertRaises(StoreError) as caught:
            Store(folder or self.folder)
        self.assertIn(words, str(caught.exception))
        self.assertTrue(str(caught.exception).endswith("."))

    def test_nobody_else_reads_it(self):
        self.store.secret()
        self.assertEqual(mode(self.folder), 0o700)
        for path in self.folder.iterdir():
            self.assertEqual(mode(path), 0o600, path.name)
        self.folder.chmod(0o755)
        self.store.file.chmod(0o644)
        again = Store(self.folder)
        self.addCleanup(again.close)
        self.assertEqual((mode(self.folder), mode(self.store.file)), (0o700, 0o600), "what was open to others is shut")

    def test_an_empty_database_is_refused_with_the_way_back(self):
        self.store.close()
        self.store.file.write_bytes(b"")
        self.refused("is empty")
        self.refused("widehem restore FILE")
        self.assertEqual(self.store.file.read_bytes(), b"", "nothing is written over it")

    def test_what_is_no_database_is_refused(self):
        self.store.close()
        self.store.file.write_bytes(b"not a database at all, whatever it says" * 100)
        self.refused("is no database of Wide Hem")

    def test_a_database_torn_in_two_is_refused_in_words(self):
        self.store.close()
        whole = self.store.file.read_bytes()
        for end in keeping.BESIDE:
            self.store.file.with_name(FILE + end).unlink(missing_ok=True)
        self.store.file.write_bytes(whole[:100] + b"\xff" * (len(whole) - 100))
        self.refused("cannot be opened")

    def test_an_empty_key_is_refused(self):
        (self.folder / SECRET).write_text("")
        self.refused("is empty: delete it")

    def test_no_room_on_the_disk(self):
        with mock.patch("shutil.disk_usage", return_value=mock.Mock(free=3_000_000)):
            self.refused("has 2 MB free")

    def test_a_folder_that_cannot_be_written_to(self):
        with mock.patch("os.access", return_value=False):
            self.refused("cannot be written to")

    def test_a_folder_that_cannot_be_made(self):
        (self.folder / "a file").write_text("x")
        self.refused("cannot be made", self.folder / "a file" / "data")

    def test_tables_are_held_against_todays(self):
        self.assertEqual(differences(self.store.file, HEAD), [])
        with self.store.engine.begin() as connection:
            connection.execute(text("ALTER TABLE wearer DROP COLUMN movement"))
            connection.execute(text("CREATE TABLE stranger (id INTEGER)"))
        self.assertEqual(differences(self.store.file, HEAD), ["a table stranger that nobody knows", "wearer has no movement"])


class Copies(Case):
    def test_a_copy_a_day_is_whole_and_private(self):
        to, today = self.folder / "copies", date(2026, 11, 29)
        made = copy_of_today(self.store.file, to, today)
        self.assertIsNone(copy_of_today(self.store.file, to, today), "one a day")
        self.assertEqual((mode(made), mode(to)), (0o600, 0o700))
        self.assertEqual(troubles(made), [])
        self.assertEqual([path.name for path in copies(to)], ["widehem-2026-11-29.sqlite3"])
        self.assertFalse(overdue(to, today + timedelta(days=1)))
        self.assertTrue(overdue(to, today + timedelta(days=2)))

    def test_seven_days_four_weeks_twelve_months(self):
        to, first = self.folder / "copies", date(2025, 1, 1)
        to.mkdir()
        for number in range(500):
            day = first + timedelta(days=number)
            (to / f"widehem-{day.isoformat()}.sqlite3").write_bytes(b"x")
        today = first + timedelta(days=500)
        copy_of_today(self.store.file, to, today)
        days = [day_of(path) for path in copies(to)]
        self.assertEqual(days[:7], [today - timedelta(days=n) for n in range(7)])
        self.assertTrue(12 <= len(days) <= 7 + 4 + 12, len(days))
        self.assertLess(min(days), today - timedelta(days=310))
        self.assertEqual(kept([today], today), {today})

    def test_a_copy_that_fails_is_told_and_leaves_nothing(self):
        to, today = self.folder / "copies", date(2026, 11, 29)
        with mock.patch.object(keeping, "troubles", return_value=["page 7 is torn"]), self.assertRaises(StoreError):
            copy_of_today(self.store.file, to, today)
        self.assertEqual(copies(to), [])
        self.assertEqual(last_failure(to)["day"], "2026-11-29")
        self.assertIn("page 7 is torn", last_failure(to)["why"])
        copy_of_today(self.store.file, to, today)
        self.assertIsNone(last_failure(to), "the next one is whole")

    def test_a_backup_leaves_nothing_behind_where_it_fails(self):
        out = self.folder / "out.sqlite3"
        with mock.patch.object(keeping, "troubles", return_value=["torn"]), self.assertRaises(StoreError):
            self.store.backup(out)
        self.assertFalse(out.exists())
        out.write_text("mine")
        with self.assertRaises(FileExistsError):
            self.store.backup(out)
        self.assertEqual(out.read_text(), "mine")


class Restored(Case):
    def setUp(self):
        super().setUp()
        self.copy = self.folder.parent / "copy.sqlite3"
        self.store.backup(self.copy)
        self.add("Later")
        self.store.close()

    def test_what_was_there_is_kept_aside(self):
        aside = restore(self.folder, self.copy, versions())
        self.assertEqual(self.names(self.folder), ["Lantern"])
        elsewhere = self.folder.parent / "elsewhere"
        elsewhere.mkdir()
        os.replace(aside, elsewhere / FILE)
        self.assertEqual(self.names(elsewhere), ["Lantern", "Later"])

    def test_into_an_empty_folder_and_over_a_torn_database(self):
        self.assertIsNone(restore(self.folder.parent / "new", self.copy, versions()))
        self.assertEqual(self.names(self.folder.parent / "new"), ["Lantern"])
        for end in ("", *keeping.BESIDE):
            path = self.folder / (FILE + end)
            path.unlink(missing_ok=True)
        (self.folder / FILE).write_bytes(b"")
        self.assertIsNotNone(restore(self.folder, self.copy, versions()))
        self.assertEqual(self.names(self.folder), ["Lantern"])

    def test_what_cannot_be_opened_is_not_put_back(self):
        for change, words in (
            (lambda path: path.unlink(), "There is no file"),
            (lambda path: path.write_bytes(path.read_bytes()[:5000]), "is not whole"),
            (lambda path: _set_version(path, "9999"), "of version 9999"),
        ):
            copy = self.folder.parent / "other.sqlite3"
            copy.write_bytes(self.copy.read_bytes())
            change(copy)
            with self.assertRaises(StoreError) as caught:
                restore(self.folder, copy, versions())
            self.assertIn(words, str(caught.exception))
            self.assertEqual(self.names(self.folder), ["Lantern", "Later"], "nothing was changed")

    def test_not_while_it_is_worked_in(self):
        with in_use(self.folder), self.assertRaises(StoreError) as caught:
            restore(self.folder, self.copy, versions())
        self.assertIn("stop Wide Hem there first", str(caught.exception))
        with alone(self.folder), self.assertRaises(StoreError), alone(self.folder):
            self.fail("two at once")

    def test_versions(self):
        self.assertIn(version_of(self.copy), versions())
        self.assertIsNone(version_of(Path(__file__)))


def _set_version(path, version):
    with closing(sqlite3.connect(path)) as found:
        found.execute("UPDATE alembic_version SET version_num = ?", (version,))
        found.commit()


if __name__ == "__main__":
    unittest.main()
