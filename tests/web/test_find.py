"""Finding anything by one field; copying a garment; making a sleeve for it."""

import re
import unittest

from sqlalchemy import func, select

from tests.web.case import WebCase
from widehem.core.drafting.method import METHODS
from widehem.store.dockets import sleeves_for
from widehem.store.finding import MOST, find
from widehem.store.models import Docket, Production, Wearer


class Find(WebCase):
    def found(self, words):
        page = self.get(f"/find?q={words}")
        return {title: re.findall(r"<th scope=\"row\">(?:<a[^>]*>)?([^<]+)", rest) for title, rest in re.findall(
            r'<h2 class="band">([^<]+)</h2>(.*?)</table>', page, re.S)}  # fmt: skip

    def test_every_kind_is_found(self):
        found = self.found("ferry+skirt")
        self.assertEqual(found["Garments"][0], "Ferry skirt")
        self.assertIn("Odile Marsh", self.found("odile")["Wearers"])
        self.assertIn("Ferry skirt", self.found("ODILE")["Garments"], "by whose it is")
        self.assertIn("Odile Marsh", self.found("keeper+ferry")["Wearers"], "by the part")
        self.assertIn("The Lantern Ferry", self.found("lantern")["Productions"])
        self.assertIn("Lamplighter&#39;s robe", [name.replace("'", "&#39;") for name in self.found("lamplighter")["Designs"]])
        self.assertIn("Two-panel skirt block", self.found("two-panel")["Methods"])
        self.assertIn("Neck", self.found("neck")["Measures"])
        self.assertIn("House values", self.found("zone")["The workroom&#39;s own"] if "The workroom&#39;s own" in self.found("zone")
                      else self.found("zone")["The workroom's own"])  # fmt: skip

    def test_a_production_does_not_drag_everybody_along(self):
        self.assertNotIn("Odile Marsh", self.found("lantern")["Wearers"])
        self.assertEqual(self.found("lantern+odile")["Wearers"], ["Odile Marsh"])

    def test_the_yellow_button_opens_the_first(self):
        self.assertIn("Draft Ferry skirt", self.get("/find?q=ferry+skirt"))
        self.assertIn("Measure Odile Marsh", self.get("/find?q=keeper+of+the"))

    def test_signs_of_a_search_are_signs(self):
        for words in ("%25%25", "__", "%5C", "a" * 300, "²%00²"):
            self.assertIn("Nothing here is called", self.get(f"/find?q={words}"), words)
        self.assertNotIn("Nothing here", self.get("/find"))

    def test_what_lies_in_the_bin_is_not_found(self):
        self.post("/wearers/1/delete", {"sure": "Odile Marsh"})
        self.assertNotIn("Wearers", self.found("odile"))
        self.assertNotIn("Garments", self.found("odile"))

    def test_of_many_the_first(self):
        with self.store.write() as session:
            session.add_all(Wearer(production_id=1, name=f"Extra {number:03}") for number in range(60))
        with self.store.read() as session:
            self.assertEqual(
                [wearer.name for wearer in find(session, ["extra"]).wearers], [f"Extra {n:03}" for n in range(MOST)]
            )

    def test_every_page_leads_there(self):
        for path in ("/", "/productions/1", "/dockets/1/draft", "/wearers/1/tape"):
            self.assertEqual(self.get(path).count('data-key="/"'), 1, path)


class Copy(WebCase):
    def dockets(self, **what):
        with self.store.read() as session:
            return [docket for docket in session.scalars(select(Docket).order_by(Docket.id)) if all(
                getattr(docket, name) == value for name, value in what.items())]  # fmt: skip

    def test_for_the_same_wearer_and_for_several(self):
        first = self.dockets(id=1)[0]
        answer = self.post("/dockets/1/copy", {"name": "Ferry skirt, second", "for": ["1"]})
        made = self.dockets(name="Ferry skirt, second")
        self.assertEqual(answer.location, f"/dockets/{made[0].id}/draft")
        self.assertEqual(
            (made[0].options, made[0].ease, made[0].rules, made[0].plan), (first.options, first.ease, first.rules, first.plan)
        )
        self.assertEqual(
            self.post("/dockets/1/copy", {"name": "Chorus skirt", "for": ["2", "3", "4"]}).location, "/productions/1"
        )
        self.assertEqual([docket.wearer_id for docket in self.dockets(name="Chorus skirt")], [2, 3, 4])
        page = self.get("/productions/1")
        self.assertIn("Copied Ferry skirt for 3 wearers.", page)
        self.post(re.search(r'action="(/done/\d+/undo)"', page)[1], {"back": "/"})
        self.assertEqual(self.dockets(name="Chorus skirt"), [], "all of them, in one act")

    def test_a_sleeve_finds_the_bodice_of_its_new_wearer(self):
        with self.store.read() as session:
            sleeve = session.scalars(select(Docket).where(Docket.bodice_id.is_not(None)).order_by(Docket.id)).first()
            number, wearer = sleeve.id, 5 if sleeve.wearer_id != 5 else 6
        self.post("/productions/1/dockets", {"docket": "Bodice", "for": str(wearer), "method": "bodice.measured"})
        self.post(f"/dockets/{number}/copy", {"name": "Sleeve too", "for": [str(wearer)]})
        made = self.dockets(name="Sleeve too")[0]
        with self.store.read() as session:
            self.assertEqual(session.get(Docket, made.bodice_id).wearer_id, wearer)
        self.get(f"/dockets/{made.id}/draft")

    def test_nobody_ticked_and_strangers(self):
        self.assertIn("Tick who it is for.", self.post("/dockets/1/copy", {"name": "X"}, 422).get_data(as_text=True))
        page = self.post("/dockets/1/copy", {"name": "", "for": ["2"]}, 422).get_data(as_text=True)
        self.assertIn('value="2" checked', page, "what was ticked stays ticked")
        with self.store.write() as session:
            session.add(Production(name="Another", company=""))
            session.flush()
            session.add(Wearer(production_id=2, name="Stranger"))
        self.post("/dockets/1/copy", {"name": "X", "for": ["13"]}, 404)
        self.get("/dockets/1/copy")

    def test_a_sleeve_is_made_for_every_garment_with_an_armhole(self):
        with self.store.read() as session:
            found = [(d.id, d.method) for d in session.scalars(select(Docket)) if METHODS[d.method].has_armhole]
            before = session.scalar(select(func.count()).select_from(Docket))
        self.assertGreater(len(found), 3)
        for number, method in found:
            page = self.get(f"/dockets/{number}/draft?slip=garment")
            self.assertIn("A sleeve for it", page, method)
            made = self.post(f"/dockets/{number}/sleeve", {"method": sleeves_for(METHODS[method])[0].code})
            self.assertEqual(self.client.get(made.location).status_code, 200)
        self.assertEqual(len(self.dockets()), before + len(found))
        self.assertNotIn("A sleeve for it", self.get("/dockets/1/draft?slip=garment"))
        self.post("/dockets/1/sleeve", {"method": "sleeve.triangle"}, 400)


if __name__ == "__main__":
    unittest.main()
