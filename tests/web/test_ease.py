"""Plans of ease over HTTP: looked at, copied, changed, used on a draft, taken from a garment."""

import unittest

from tests.web.case import WebCase
from widehem.core.drafting.ease_plans import PLANS
from widehem.store.models import HouseEase


class Plans(WebCase):
    def form(self, **changes):
        return {
            "name": "Ferry coats", "why": "over a wool shirt", "cloth": "woven", "stretch": "30", "layers": "1", "bust": "12",
                "waist": "9.5",
            "hip": "9", "upper_arm": "7", "across_back": "2.5", "depth": "3", **changes,
        }  # fmt: skip

    def test_every_shipped_plan_is_shown_with_what_it_does(self):
        for plan in PLANS.values():
            page = self.get(f"/ease/{plan.code}")
            self.assertIn(plan.why, page)
        self.assertIn("Its cloth wants +4.0 cm at least", self.get("/ease/foundation"))
        self.assertIn("lifts to", self.get("/ease/close"))
        self.get("/ease/none", 404)
        self.post("/ease/close", self.form(), 404)

    def test_a_copy_is_changed_and_used_on_a_draft(self):
        self.post("/ease/coat/copy")
        self.assertIn("Over everything, ours", self.get("/ease/house-2"))
        wrong = self.post("/ease/house-2", self.form(bust="ten", depth="30", layers="9", name=""), 422).get_data(as_text=True)
        self.assertIn("Bust: &#34;ten&#34; is not a length", wrong)
        self.assertIn("Armscye depth 30 cm is outside -2 to 12 cm", wrong)
        self.assertIn("Layers underneath 9 is outside 0 to 5", wrong)
        self.assertIn('value="over a wool shirt"', wrong, "nothing typed is lost")
        self.post("/ease/house-2", self.form(waist="-0.5"))
        with self.store.read() as session:
            row = session.get(HouseEase, 2)
            self.assertEqual((row.name, row.amounts["waist"], row.layers), ("Ferry coats", -0.5, 1.0))
        self.assertIn('value="-0.5"', self.get("/ease/house-2"))
        self.assertIn("There is a plan called Ferry coats already", self._second())
        page = self.get("/dockets/8/draft?slip=settings")
        self.assertIn(">Ferry coats</a>", page)
        drawn = self.get(
            "/dockets/8/draft?e.bust=12+cm&e.waist=-0.5+cm&e.across_back=2.5+cm&e.depth=3+cm&o.layers=1&slip=settings"
        )
        self.assertRegex(drawn, r'aria-current="true"[^>]*>Ferry coats')
        self.assertIn("92.0 on 80.0", drawn)
        self.assertIn("What is worn underneath takes 3.0.", self.get("/dockets/8/draft?e.waist=-0.5+cm&o.layers=1&slip=checks"))
        self.post("/ease/house-2/delete")
        self.get("/ease/house-2", 404)

    def _second(self):
        self.post("/ease/close/copy")
        return self.post("/ease/house-3", self.form(), 422).get_data(as_text=True)

    def test_ease_is_taken_from_a_garment_that_fits(self):
        page = self.get("/wearers/1/ease")
        self.assertIn("not read", page)
        none = self.post("/wearers/1/ease", {"name": "As liked"}, 422).get_data(as_text=True)
        self.assertIn("Nothing was measured yet", none)
        wrong = self.post("/wearers/1/ease", {"name": "As liked", "bust": "46"}, 422).get_data(as_text=True)
        self.assertIn("Bust -46 cm is outside -20 to 40 cm: write the ease, not the girth. Measure the garment again", wrong)
        self.post("/wearers/1/ease", {"name": "As liked", "bust": "40 in", "waist": "86.2"})
        with self.store.read() as session:
            self.assertEqual(session.get(HouseEase, 2).amounts, {"bust": 9.6, "waist": 8.0})
        self.get("/wearers/99/ease", 404)


if __name__ == "__main__":
    unittest.main()
