"""The house as it is started: several processes that answer, others that do the work that lasts; any of them may die."""

import base64
import http.client
import json
import os
import re
import signal
import subprocess
import sys
import tempfile
import time
import unittest
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from sqlalchemy import func, select

from widehem.jobs.intake import INTAKE
from widehem.jobs.ledger import DONE, RUNNING
from widehem.jobs.works import Works
from widehem.store.database import Store
from widehem.store.keeping import alone
from widehem.store.models import Wearer

PATIENCE = 30.0


def children(process):
    """The processes a process began."""
    return [int(word) for word in Path(f"/proc/{process}/task/{process}/children").read_text().split()]


def alive(process):
    try:
        return Path(f"/proc/{process}/stat").read_text().rsplit(")", 1)[1].split()[0] != "Z"
    except OSError:
        return False


def until(true, what):
    """Wait for something that comes sooner or later."""
    end = time.monotonic() + PATIENCE
    while not (found := true()):
        if time.monotonic() > end:
            raise AssertionError(f"it took more than {PATIENCE:.0f} s: {what}")
        time.sleep(0.05)
    return found


class ServingCase(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.data = Path(folder.name) / "data"
        self.keeper = subprocess.Popen(
            [sys.executable, "-m", "widehem.cli", "serve", "--demo", "--data", str(self.data), "--port", "0", "--processes", "2"],
            stdout=subprocess.PIPE, stderr=subprocess.PIPE, text=True,
        )  # fmt: skip
        self.addCleanup(self.end)
        line = self.keeper.stdout.readline()
        self.assertIn("Wide Hem is at", line)
        self.port = int(line.split(":")[2].split()[0])
        self.assertEqual(self.get("/health")[0], 200)

    def end(self):
        if self.keeper.poll() is None:
            self.keeper.kill()
        self.keeper.wait()
        self.keeper.stdout.close()
        self.keeper.stderr.close()

    def get(self, path):
        connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=PATIENCE)
        try:
            connection.request("GET", path)
            answer = connection.getresponse()
            return answer.status, answer.read(), answer.headers
        finally:
            connection.close()

    def file(self, path):
        """A file, at once or after the page it is waited for on."""
        first = self.get(path)
        where = first[2].get("Location")
        if first[0] != 303:
            return first
        until(lambda: self.get(where)[0] == 303, path)
        return self.get(f"{where.split('?')[0]}/file")

    def family(self):
        """All processes of the house by now: those that answer, the one that sees to the work, those that do it."""
        until(lambda: len(children(self.keeper.pid)) == 3 and self.worker(), "three processes")
        first = children(self.keeper.pid)
        return [*first, *(grand for child in first for grand in children(child))]

    def worker(self):
        """The process that sees to the work: it has processes of its own."""
        return next((child for child in children(self.keeper.pid) if children(child)), None)

    def works(self):
        """The works of the same house, as any of its processes has them."""
        store = Store(self.data)
        self.addCleanup(store.close)
        works = Works(store)
        self.addCleanup(works.close)
        return works


class Serving(ServingCase):
    def test_what_lasts_is_done_beside_the_pages_and_comes_by_itself(self):
        page = self.get("/wearers/3/schools")[1].decode()
        self.assertIn("It is being drawn.", page)
        wanted = re.search(r'hx-get="(/wearers/3/schools/coming[^"]*)"', re.sub(r"\s+", "", page))[1].replace("&amp;", "&")

        def rest():
            return "hx-get" not in self.get(wanted)[1].decode()

        until(rest, "all pictures")
        self.assertNotIn("It is being drawn.", self.get("/wearers/3/schools")[1].decode())
        status, data, headers = self.file("/dockets/1/files/sheets.pdf")
        self.assertEqual((status, data[:5]), (200, b"%PDF-"))
        self.assertIn("odile-marsh-ferry-skirt-a4.pdf", headers["Content-Disposition"])
        self.assertRegex(headers["X-Request-ID"], "^[0-9a-f]{8}$")

    def test_those_that_die_are_begun_again_and_nobody_waits_for_them(self):
        family = self.family()
        answering = [child for child in children(self.keeper.pid) if child != self.worker()]
        os.kill(answering[0], signal.SIGKILL)
        with ThreadPoolExecutor(4) as pool:
            self.assertEqual({status for status, *_ in pool.map(self.get, ["/"] * 20)}, {200})
        os.kill(self.worker(), signal.SIGKILL)
        until(lambda: not alive(family[-1]) and self.worker() and len(children(self.keeper.pid)) == 3, "new ones")
        self.assertEqual(self.file("/dockets/1/files/card.pdf")[1][:5], b"%PDF-")

    def test_it_goes_away_as_a_whole(self):
        family = self.family()
        self.keeper.terminate()
        self.assertEqual(self.keeper.wait(PATIENCE), 0)
        until(lambda: not any(map(alive, family)), "all gone")
        self.assertEqual(self.keeper.stderr.read(), "")
        with alone(self.data):
            pass

    def test_nobody_is_left_behind_when_it_is_killed(self):
        family = self.family()
        self.keeper.kill()
        self.keeper.wait()
        until(lambda: not any(map(alive, family)), "all gone")


class BrokenOff(ServingCase):
    def test_a_file_that_is_being_taken_in_is_taken_in_whole_whoever_dies(self):
        self.family()
        works, count = self.works(), 400
        rows = "".join(f"Extra {number},{70 + number / 10},{95 + number / 10}\n" for number in range(count))
        wish = {
            "production": 1,
            "data": base64.b64encode(f"wearer,waist,hip\n{rows}".encode()).decode(),
            "name": "x",
            "unit": "cm",
        }
        with works.store.read() as session:
            before = session.scalar(select(func.count()).select_from(Wearer))
        job = works.ask(INTAKE, wish, "Taking in", "x")
        until(lambda: works.ledger.find(job.id)[0].state == RUNNING, "it begins")
        for grand in children(self.worker()):
            os.kill(grand, signal.SIGKILL)
        done = works.wait(job, PATIENCE)
        self.assertEqual((done.state, done.answer), (DONE, {"production": 1, "wearers": count, "readings": 2 * count}))
        with works.store.read() as session:
            self.assertEqual(session.scalar(select(func.count()).select_from(Wearer)), before + count)
        self.assertTrue(json.loads(self.get("/health")[1])["well"])


if __name__ == "__main__":
    unittest.main()
