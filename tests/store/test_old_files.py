"""Data files that earlier versions wrote: they open, and every docket draws the same figures."""

import gzip
import json
import tempfile
import unittest
from pathlib import Path

import widehem.core.drafting.methods  # noqa: F401 - registers them
from widehem.core.drafting.method import METHODS
from widehem.core.pattern.check import Case
from widehem.core.pattern.checks.body import finished
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.store.database import Store
from widehem.store.keeping import FILE
from widehem.store.making import find_work
from widehem.store.models import DesignRow, Docket

HERE = Path(__file__).parent / "old"
# girths that are measured on the outline now where they were stated before: by method and level, the most they may differ, cm
MEASURED = {
    ("suit.one_piece", "waist"): 2.0,
    ("bodice.contour", "bust"): 2.0,
    ("coat.straight", "bust"): 2.0,
    ("coat.straight", "waist"): 0.01,
}
GONE = {("bodice.contour", "hip")}  # its hem rises to the sides there: it goes nowhere straight round


class OldFiles(unittest.TestCase):
    def open(self, version):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        data = gzip.decompress((HERE / f"{version}.sqlite3.gz").read_bytes())
        (Path(folder.name) / FILE).write_bytes(data)
        store = Store(Path(folder.name))
        self.addCleanup(store.close)
        return store

    def test_every_docket_draws_the_same(self):
        for version in ("0.1", "0.2", "0.3", "0.4"):
            store = self.open(version)
            expected = json.loads((HERE / f"{version}.json").read_text())
            drawn = 0
            with store.read() as session:
                self.assertEqual({str(docket.id) for docket in session.query(Docket)}, set(expected))
                for number, wanted in expected.items():
                    with self.subTest(version, docket=number):
                        work = find_work(session, int(number))
                        if wanted is None:
                            with self.assertRaises((CannotDraft, OptionError)):
                                work.made()
                            continue
                        drawn += 1
                        self.same(work.made(), wanted)
            self.assertGreater(drawn, 3)

    def same(self, made, wanted):
        self.assertEqual(made.method.code, wanted["method"])
        lengths = {f"{piece.name}.{edge.name}": edge.length for piece in made.garment.pieces for edge in piece.edges}
        self.assertEqual(set(lengths), set(wanted["lengths"]))
        for name, length in wanted["lengths"].items():
            self.assertAlmostEqual(lengths[name], length, delta=0.02, msg=name)
        case = Case(made.garment, made.demands, made.wear)
        girths = {girth.name: finished(case, girth) for girth in made.girths}
        for level, girth in wanted["girths"].items():
            if (made.method.code, level) not in GONE:
                self.assertAlmostEqual(girths[level], girth, delta=MEASURED.get((made.method.code, level), 0.05), msg=level)

    def test_one_design_for_each_method_and_the_dockets_keep_their_own_settings(self):
        store = self.open("0.4")
        with store.read() as session:
            designs = session.query(DesignRow).all()
            self.assertEqual(len({design.method for design in designs}), len(designs))
            self.assertEqual({docket.method for docket in session.query(Docket)}, {design.method for design in designs})
            self.assertTrue(all(not design.options and not design.ease and not design.steps for design in designs))
            self.assertTrue(any(docket.options for docket in session.query(Docket)))
            self.assertTrue(all(docket.rules == 1 and docket.alterations == [] for docket in session.query(Docket)))

    def test_a_coat_of_the_first_rules_says_so_and_stays_as_it_is(self):
        store = self.open("0.4")
        with store.read() as session:
            (coat,) = [docket for docket in session.query(Docket) if docket.method == "coat.straight"]
            work = find_work(session, coat.id)
            self.assertTrue(work.by_older_rules)
            old, new = work.made(), work.made(work.design().by_rules(None))
        self.assertEqual((old.draft.rules, new.draft.rules), (1, METHODS["coat.straight"].rules))
        self.assertLess(old.garment.girth("bust") + 0.5, new.garment.girth("bust"), "the shaped centre narrowed it")


if __name__ == "__main__":
    unittest.main()
