"""Whoever is killed while writing: what was acknowledged stands, the rest is not there by half."""

import os
import random
import signal
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

from tests.attacks import times
from widehem.core.body.chart_file import FiledChart
from widehem.core.output.charts_in import read_charts
from widehem.store.charts import begin_chart, history, latest_chart
from widehem.store.database import Store
from widehem.store.keeping import FILE, troubles
from widehem.store.models import Production, Wearer, now
from widehem.store.taking_in import take_in

KILLS = 3
WRITES = """
import sys
from pathlib import Path
from widehem.core.units import parse_length
from widehem.store.charts import add_reading, latest_chart
from widehem.store.database import Store

store, number = Store(Path(sys.argv[1])), int(sys.argv[2])
while True:
    number += 1
    with store.write() as session:
        add_reading(session, latest_chart(session, 1), "waist", 1, parse_length(str(50 + number / 1000), "cm"))
    print(number, flush=True)
"""
TAKES_IN = """
import sys
from pathlib import Path
from tests.store.test_killed import company
from widehem.store.database import Store
from widehem.store.taking_in import take_in

store, number = Store(Path(sys.argv[1])), int(sys.argv[2])
while True:
    number += 1
    take_in(store, 1, company(number))
    print(number, flush=True)
"""
COMPANY = 12


def company(number: int) -> tuple[FiledChart, ...]:
    """A file of so many wearers, of names of its own."""
    rows = "".join(f"W {number} {place},70,95\n" for place in range(COMPANY))
    return tuple(read_charts(f"wearer,waist,hip\n{rows}".encode(), "x", "cm", []).charts)


class Killed(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        with self.opened() as session:
            production = Production(name="P", company="C")
            session.add(production)
            session.flush()
            wearer = Wearer(production_id=production.id, name="A")
            session.add(wearer)
            session.flush()
            begin_chart(session, wearer, now().date(), carry=False)

    def opened(self):
        store = Store(self.folder)
        self.addCleanup(store.close)
        return store.write()

    def killed(self, program, number, chance):
        """Let a program write until it is killed; the last number it acknowledged."""
        command = [sys.executable, "-c", program, str(self.folder), str(number)]
        with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as running:
            said = []
            for line in running.stdout:
                said.append(int(line))
                if chance.random() < 0.25:
                    os.kill(running.pid, signal.SIGKILL)
                    break
            said += [int(line) for line in running.stdout]
        self.assertEqual(troubles(self.folder / FILE), [])
        return max(said, default=number)

    def test_readings(self):
        chance, number = random.Random("kills"), 0
        for _ in range(times(KILLS)):
            number = self.killed(WRITES, number, chance)
            with self.opened() as session:
                found = [row.typed for row in history(session, latest_chart(session, 1), "waist")]
                self.assertIn(str(50 + number / 1000), found[:2], "the last one acknowledged, or the one after it")
                self.assertEqual(len(set(found)), len(found))
                number = max(number, len(found))
                self.assertEqual(len(found), number, "none between is missing")

    def test_files(self):
        chance, number = random.Random("files"), 0
        for _ in range(times(KILLS)):
            number = self.killed(TAKES_IN, number, chance)
            with self.opened() as session:
                found = session.query(Wearer).count() - 1
                self.assertEqual(found % COMPANY, 0, "a file is taken whole or not at all")
                self.assertIn(found // COMPANY - number, (0, 1))
                number = found // COMPANY
        self.assertEqual(take_in(Store(self.folder), 1, company(number)), (0, 0))


if __name__ == "__main__":
    unittest.main()
