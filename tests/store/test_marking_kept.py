"""What is wanted on a pattern, as it is kept: figures that followed others until they were their own, and what cannot be read."""

import importlib.util
import unittest
from pathlib import Path

import widehem.core.drafting.methods
import widehem.store.migrations
from tests.stores import fresh_store
from widehem.core.marking.wanted import LINING
from widehem.store.dockets import find_docket
from widehem.store.models import Docket
from widehem.store.papers import plan_of, wanted_of

FILE = Path(widehem.store.migrations.__file__).parent / "versions" / "0015_marking.py"


def migration():
    spec = importlib.util.spec_from_file_location("marking", FILE)
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


class Kept(unittest.TestCase):
    def test_what_followed_another_figure_keeps_it(self):
        followed = migration()._followed
        self.assertEqual(followed({"shoulder": "2 cm"}, ""), {"armhole": "2 cm", "cap": "2 cm"})
        self.assertEqual(followed({"armhole": "1 cm"}, ""), {"cap": "1 cm"})
        self.assertEqual(followed({"hem": "5 cm", "hem_circle": "1 cm"}, ""), {"hem_flared": "5 cm"})
        self.assertEqual(
            followed({"a.cloth.shoulder": "2 cm", "a.fine.hem": "3 cm"}, "a.cloth."),
            {"a.cloth.armhole": "2 cm", "a.cloth.cap": "2 cm"},
        )
        self.assertEqual(followed({"seam": "2 cm"}, ""), {})

    def test_it_is_read_as_it_was_written(self):
        store = fresh_store(self, demo=True)
        with store.read() as session:
            wanted = wanted_of(find_docket(session, 24))
        self.assertEqual(wanted.edges, {"side_back.side": 2.5, "side_front.side": 2.5})
        self.assertTrue(wanted.nap)
        self.assertEqual(wanted.plans[LINING].code, "lining")
        self.assertEqual((wanted.notches[0].edge, wanted.notches[0].share), ("waist", 0.5))

    def test_a_plan_nobody_knows_is_cloth(self):
        docket = Docket(
            plan="silk",
            amounts={"seam": "2 cm", "nose": "9"},
            house={},
            marking={"plans": {"tent": {"plan": "x"}}, "drill": "lowered"},
        )
        self.assertEqual((plan_of(docket).code, plan_of(docket).amounts["seam"]), ("cloth", 2.0))
        self.assertEqual((list(wanted_of(docket).plans), wanted_of(docket).drill), (["cloth"], "lowered"))

    def test_a_plan_of_the_house_has_its_figures_of_the_day(self):
        docket = Docket(plan="cloth+Velvet", amounts={}, house={"a.cloth+Velvet.seam": "1.5 cm"}, marking={})
        self.assertEqual((plan_of(docket).name, plan_of(docket).amounts["seam"]), ("Velvet", 1.5))


if __name__ == "__main__":
    unittest.main()
