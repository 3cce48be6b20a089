"""Work that lasts: asked for once, told how far it is, stopped, taken up when it was broken off; and what was worked out is shared and
bounded."""

import base64
import multiprocessing
import os
import signal
import threading
import time
import unittest
from unittest import mock

from sqlalchemy import func, select

from tests.stores import fresh_store
from widehem.core.body.chart_file import FiledChart
from widehem.core.output.charts_in import read_charts
from widehem.core.units import parse_length
from widehem.jobs import gallery, ledger
from widehem.jobs.gallery import GALLERY, Picture, drawn, pictures, shown_on
from widehem.jobs.intake import INTAKE
from widehem.jobs.keys import garment
from widehem.jobs.kinds import KINDS, JobError, Kind
from widehem.jobs.ledger import DONE, FAILED, FILE, RUNNING, STOPPED, WAITING, Ledger
from widehem.jobs.touchiness import TOUCHINESS, read_touchiness, touch_key
from widehem.jobs.works import BROKEN, MOST_TIMES, QueueError, Works
from widehem.store.charts import add_reading, core_chart, latest_chart
from widehem.store.making import find_work
from widehem.store.models import Intake, IntakeReading, ReadingRow, Wearer
from widehem.store.taking_in import sweep, take_in

CHARTS = read_charts(b"wearer,waist,hip\nAnouk,70,95\nBela,80,99", "x", "cm", []).charts


class LedgerCase(unittest.TestCase):
    def setUp(self):
        self.store = fresh_store(self)
        self.ledger = self.other = Ledger(self.store.folder)
        self.addCleanup(self.ledger.close)

    def ask(self, about="it"):
        return self.ledger.ask("kind", {"a": 1}, "Doing it", about)


class Jobs(LedgerCase):
    def test_what_is_asked_for_twice_is_done_once(self):
        first, new = self.ask()
        second, again = self.ask()
        self.assertEqual((new, again, first.id), (True, False, second.id))
        self.assertTrue(self.ask("something else")[1])
        self.assertEqual(self.ledger.begin(first.id), ("kind", {"a": 1}))
        self.assertIsNone(self.ledger.begin(first.id), "it is in hand")
        self.ledger.end(first.id, DONE, {"b": 2})
        self.assertEqual((self.ledger.find(first.id)[0].state, self.ledger.find(first.id)[0].answer), (DONE, {"b": 2}))
        self.assertTrue(self.ask()[1], "what is done can be asked for again")

    def test_how_far_it_is_and_whether_it_may_go_on(self):
        job, _ = self.ask()
        self.ledger.begin(job.id)
        self.assertTrue(self.ledger.tell(job.id, 3, 7))
        told = Ledger(self.store.folder).find(job.id)[0]  # as another process sees it
        self.assertEqual((told.state, told.done, told.whole), (RUNNING, 3, 7))
        self.ledger.stop(job.id)
        self.assertFalse(self.ledger.tell(job.id, 4, 7))
        self.assertTrue(self.ask()[1], "one that is being stopped is not joined")

    def test_one_that_waits_is_stopped_at_once(self):
        job, _ = self.ask()
        self.ledger.stop(job.id)
        self.assertEqual(self.ledger.find(job.id)[0].state, STOPPED)
        self.assertIsNone(self.ledger.begin(job.id))

    def test_those_whose_process_died_wait_again(self):
        job, _ = self.ask()
        child = multiprocessing.get_context("spawn").Process(target=_begin_and_die, args=(self.store.folder, job.id))
        child.start()
        child.join()
        mine, _ = self.ask("mine")
        self.ledger.begin(mine.id)
        self.assertEqual(self.ledger.broken_off(waiting=False), [(job.id, "kind", 1)], "mine lives")
        self.assertEqual(self.ledger.find(job.id)[0].state, WAITING)
        self.assertEqual(self.ledger.broken_off(waiting=False), [])
        self.assertEqual(self.ledger.broken_off(waiting=True), [(job.id, "kind", 1)])

    def test_what_ended_long_ago_is_forgotten(self):
        job, _ = self.ask()
        self.ledger.end(job.id, DONE)
        with mock.patch("time.monotonic", return_value=time.monotonic() + ledger.TOLD_FOR + 1):
            self.ledger.end(self.ask()[0].id, DONE)
        self.assertEqual(self.ledger.find(job.id), [])


def _begin_and_die(folder, name):
    Ledger(folder).begin(name)
    os.kill(os.getpid(), signal.SIGKILL)


class Found(LedgerCase):
    def test_it_is_shared_and_bounded_and_what_is_asked_for_stays(self):
        with mock.patch.object(ledger, "MOST_FOUND", 100), mock.patch.object(ledger, "MOST_ENTRY", 60):
            self.ledger.keep("a", b"x" * 40)
            self.ledger.keep("b", b"x" * 40)
            with mock.patch("secrets.randbelow", return_value=0):
                self.assertEqual(self.ledger.found(["a", "zzz"]), {"a": b"x" * 40})
            self.ledger.keep("c", b"x" * 40)
            self.ledger.keep("too much", b"x" * 61)
        self.assertEqual(set(Ledger(self.store.folder).found(["a", "b", "c", "too much"])), {"a", "c"})
        self.ledger.keep("a", b"new")
        self.assertEqual(self.ledger.found(["a"]), {"a": b"new"})

    def test_a_file_of_another_version_or_of_none_is_thrown_away(self):
        for spoiled in (b"no database at all" * 300, None):
            with self.subTest(spoiled):
                self.ledger.keep("a", b"1")
                self.ledger.close()
                if spoiled:
                    (self.store.folder / FILE).write_bytes(spoiled)
                with mock.patch.object(ledger, "VERSION", ledger.VERSION + (not spoiled)):
                    fresh = Ledger(self.store.folder)
                    self.assertEqual(fresh.found(["a"]), {})
                    fresh.keep("a", b"2")
                    fresh.close()
                (self.store.folder / FILE).unlink()
                self.ledger = Ledger(self.store.folder)

    def test_nobody_else_reads_it(self):
        self.ledger.keep("a", b"1")
        self.assertEqual((self.store.folder / FILE).stat().st_mode & 0o777, 0o600)


class Guesses(LedgerCase):
    def test_all_processes_count_together_and_old_ones_are_forgotten(self):
        for _ in range(3):
            Ledger(self.store.folder).note_guess("me", 60)
        self.ledger.note_guess("another", 60)
        self.assertEqual(self.ledger.guesses("me", 60), 3)
        now = time.monotonic()
        with mock.patch("time.monotonic", return_value=now + 61):
            self.assertEqual(self.ledger.guesses("me", 60), 0)
        with mock.patch("time.monotonic", return_value=now - 100_000):  # the machine was started anew
            self.assertEqual(self.ledger.guesses("me", 60), 0)

    def test_there_are_never_more_than_so_many(self):
        with mock.patch.object(ledger, "MOST_GUESSES", 5):
            for number in range(9):
                self.ledger.note_guess(f"{number}", 60)
        self.assertEqual([self.ledger.guesses(f"{number}", 60) for number in (0, 8)], [0, 1])


class WorksCase(unittest.TestCase):
    demo = False

    def setUp(self):
        self.store = fresh_store(self, demo=self.demo)
        self.works = Works(self.store, inline=True)
        self.addCleanup(self.works.close)

    def kind(self, work, **more):
        patch = mock.patch.dict(KINDS, {"test": Kind("test", work, **more)})
        patch.start()
        self.addCleanup(patch.stop)

    def ask(self, wish=None):
        return self.works.ask("test", wish or {}, "Testing", "it")


class Doing(WorksCase):
    def test_what_comes_out(self):
        self.kind(lambda at, wish: wish["a"] + 1)
        job = self.ask({"a": 1})
        self.assertEqual((job.state, job.answer), (DONE, 2))

    def test_why_it_cannot_be_done(self):
        def refuse(at, wish):
            raise JobError("There is no cloth.")

        self.kind(refuse)
        self.assertEqual((self.ask().state, self.ask().trouble), (FAILED, "There is no cloth."))

    def test_what_breaks_is_told_with_its_number_and_logged_with_what_it_was_asked(self):
        self.kind(lambda at, wish: 1 / 0)
        with self.assertLogs("widehem.jobs.works") as log:
            job = self.ask({"a": "velvet"})
        self.assertIn(f"the number {job.id[:8]}", job.trouble)
        self.assertIn(job.id, log.output[0])
        self.assertIn("velvet", log.output[0])

    def test_it_is_stopped_between_two_steps(self):
        done = []

        def count(at, wish):
            for step in range(10):
                at.step(step, 10)
                done.append(step)
                if step == 3:
                    at.ledger.stop(at.name)

        self.kind(count)
        with mock.patch("widehem.jobs.kinds.BETWEEN_TELLS", 0):
            self.assertEqual(self.ask().state, STOPPED)
        self.assertEqual(done, [0, 1, 2, 3])

    def test_what_was_broken_off_is_begun_again_but_not_for_ever(self):
        self.kind(lambda at, wish: "done")
        for times, again, state in ((0, True, DONE), (1, True, DONE), (1, False, FAILED), (MOST_TIMES, True, FAILED)):
            with self.subTest(times=times, again=again):
                self.kind(lambda at, wish: "done", again=again)
                job, _ = self.works.ledger.ask("test", {}, "Testing", f"{times} {again}")
                for _ in range(times):
                    self.works.ledger.begin(job.id)
                    with mock.patch("os.kill", side_effect=ProcessLookupError):
                        self.works.ledger.broken_off(waiting=False)
                self.works.take_up()
                found = self.works.ledger.find(job.id)[0]
                self.assertEqual((found.state, found.trouble), (state, "" if state == DONE else BROKEN))

    def test_a_queue_that_does_not_answer_is_told(self):
        with self.assertRaisesRegex(QueueError, "--queue"):
            Works(self.store, "redis://127.0.0.1:1/0")


class Drawing(WorksCase):
    demo = True

    def shown(self, wearer=1):
        with self.store.read() as session:
            return shown_on(session, wearer, core_chart(session, latest_chart(session, wearer)))

    def test_every_method_is_drawn_once_and_found_after_that(self):
        job = self.works.ask(GALLERY, {"wearer": 1, "chart": None}, "Drawing", "1")
        self.assertEqual((job.state, job.done), (DONE, job.whole))
        shown = self.shown()
        found = pictures(self.works.ledger.found([entry.key for entry in shown]), shown)
        self.assertEqual(set(found), {entry.method.code for entry in shown})
        with self.store.read() as session:
            self.assertEqual(found["coat.straight"], drawn(session, next(e for e in shown if e.method.code == "coat.straight")))
        with mock.patch.object(gallery, "drawn", side_effect=AssertionError("drawn again")):
            self.assertEqual(self.works.ask(GALLERY, {"wearer": 1, "chart": None}, "Drawing", "1").state, DONE)

    def test_another_reading_and_another_bodice_are_drawn_anew(self):
        before = {entry.method.code: entry.key for entry in self.shown(8)}
        with self.store.write() as session:
            add_reading(session, latest_chart(session, 8), "waist", 1, parse_length("81.3", "cm"))
        after = {entry.method.code: entry.key for entry in self.shown(8)}
        self.assertNotEqual(before["skirt.two_panel"], after["skirt.two_panel"])
        sleeve = next(entry for entry in self.shown(8) if entry.bodice is not None)
        with self.store.write() as session:
            work = find_work(session, sleeve.bodice.id)
            work.docket.ease = {**work.docket.ease, "bust": "9.75"}
        changed = {entry.method.code: entry.key for entry in self.shown(8)}
        self.assertNotEqual(changed[sleeve.method.code], after[sleeve.method.code])
        self.assertEqual(changed["skirt.two_panel"], after["skirt.two_panel"])

    def test_a_refusal_keeps_its_lengths(self):
        for entry in self.shown(4):
            with self.store.read() as session:
                picture = drawn(session, entry)
            self.assertEqual(Picture.from_bytes(picture.as_bytes()), picture)

    def test_touchiness_is_kept_by_what_is_drawn(self):
        job = self.works.ask(TOUCHINESS, {"docket": 1}, "Finding", "1")
        self.assertEqual(job.state, DONE)
        with self.store.read() as session:
            work = find_work(session, 1)
            found = read_touchiness(self.works.ledger.found([touch_key(work)])[touch_key(work)])
            first = garment(work)
            work.docket.options = {**work.docket.options, "length": "55"}
            self.assertNotEqual(garment(work), first)
        moved = [sum(abs(move.by) for move in moves) for _, moves in found]
        self.assertEqual(moved, sorted(moved, reverse=True))
        self.assertGreater(moved[0], 0.5)

    def test_what_was_deleted_meanwhile_is_said(self):
        for kind, wish in ((GALLERY, {"wearer": 999, "chart": None}), (TOUCHINESS, {"docket": 999})):
            self.assertIn("was deleted meanwhile", self.works.ask(kind, wish, "x", "x").trouble)


class TakingIn(WorksCase):
    demo = True

    def counts(self):
        with self.store.read() as session:
            return tuple(session.scalar(select(func.count()).select_from(table)) for table in (Wearer, ReadingRow))

    def staged(self):
        with self.store.read() as session:
            return tuple(session.scalar(select(func.count()).select_from(table)) for table in (Intake, IntakeReading))

    def left_staged(self):
        """As by a process that was killed before it moved anything."""
        with mock.patch.multiple("widehem.store.taking_in", _move=mock.Mock(side_effect=KeyboardInterrupt), clear=mock.Mock()):
            self.assertRaises(KeyboardInterrupt, take_in, self.store, 1, CHARTS)

    def test_a_file_is_taken_in_by_a_job(self):
        wish = {"production": 1, "data": base64.b64encode(b"wearer,waist\nAnouk,70").decode(), "name": "x", "unit": "cm"}
        before = self.counts()
        job = self.works.ask(INTAKE, wish, "Taking in", "x")
        self.assertEqual((job.state, job.answer), (DONE, {"production": 1, "wearers": 1, "readings": 1}))
        self.assertEqual(self.counts(), (before[0] + 1, before[1] + 1))
        self.assertIn("was deleted meanwhile", self.works.ask(INTAKE, {**wish, "production": 99}, "Taking in", "y").trouble)

    def test_stopped_anywhere_nothing_of_it_is_there(self):
        before = self.counts()
        many = [FiledChart(f"Extra {n}", readings=CHARTS[0].readings) for n in range(5)]
        with mock.patch("widehem.store.taking_in.AT_ONCE", 3):
            for stop_at in range(4):
                told = []

                def stop(done, whole, told=told, stop_at=stop_at):
                    told.append(done)
                    if len(told) > stop_at:
                        raise KeyboardInterrupt

                with self.subTest(stop_at), self.assertRaises(KeyboardInterrupt):
                    take_in(self.store, 1, many, stop)
                self.assertEqual((self.counts(), self.staged()), (before, (0, 0)))

    def test_the_same_job_keeps_it_once(self):
        before = self.counts()
        self.assertEqual(take_in(self.store, 1, CHARTS, job="j"), (2, 4))
        self.assertEqual(take_in(self.store, 1, CHARTS, job="j"), (2, 4), "told again, not kept again")
        self.assertEqual(self.counts(), (before[0] + 2, before[1] + 4))

    def test_what_a_process_left_staged_is_swept_away(self):
        self.left_staged()
        take_in(self.store, 1, CHARTS[1:], job="kept")
        self.assertEqual(self.staged(), (2, 4))
        sweep(self.store)
        self.assertEqual(self.staged(), (1, 0), "only that it was kept is known still")

    def test_others_write_while_a_large_file_is_taken_in(self):
        many = [FiledChart(f"Extra {n}", readings=CHARTS[0].readings) for n in range(600)]
        before, wrote, stop = self.counts(), [], threading.Event()

        def write():
            while not stop.is_set():
                with self.store.write() as session:
                    add_reading(session, latest_chart(session, 4), "waist", 1, parse_length(str(60 + len(wrote) / 100), "cm"))
                wrote.append(self.staged()[1])

        writer = threading.Thread(target=write)
        writer.start()
        try:
            with mock.patch("widehem.store.taking_in.AT_ONCE", 100):
                self.assertEqual(take_in(self.store, 1, many), (600, 1200))
        finally:
            stop.set()
            writer.join()
        self.assertEqual(self.counts(), (before[0] + 600, before[1] + 1200 + len(wrote)), "nothing was lost of either")
        self.assertGreater(len(set(wrote)), 2, "they wrote between its steps")

    def test_rows_of_others_are_left_alone(self):
        """Whoever is staged at the same time has numbers of their own."""
        self.left_staged()
        before = self.counts()
        self.assertEqual(take_in(self.store, 1, [FiledChart("Cyra", readings=CHARTS[0].readings)]), (1, 2))
        self.assertEqual(self.counts(), (before[0] + 1, before[1] + 2))
        self.assertEqual(self.staged()[1], 4, "the other's are there still")


if __name__ == "__main__":
    unittest.main()
