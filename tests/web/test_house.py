"""House values over HTTP: set in one place, marked where they apply, taken over, out and in."""

import io
import json
import re
import unittest

from tests.web.case import WebCase
from widehem.store.models import Docket, HouseRow


class House(WebCase):
    def newest(self):
        with self.store.read() as session:
            return session.query(Docket).order_by(Docket.id.desc()).first()

    def kept(self):
        with self.store.read() as session:
            return {(row.of, row.key): row.text for row in session.query(HouseRow)}

    def open_skirt(self):
        self.post("/productions/1/dockets", {"docket": "Bell skirt", "for": "1", "method": "skirt.two_panel"})
        return self.newest().id

    def test_a_value_is_set_marked_and_drawn_with(self):
        self.post("/house", {"of": "skirt.two_panel", "e.waist": "1.9", "o.length": "70"})
        self.assertEqual(self.kept()["skirt.two_panel", "e.waist"], "1.9 cm")
        docket = self.open_skirt()
        page = self.get(f"/dockets/{docket}/draft?slip=settings")
        self.assertRegex(
            page, r'Waist ease <em class="of-house">the house&#39;s</em>|Waist ease <em class="of-house">the house\'s</em>'
        )
        self.assertIn('name="e.waist" value="1.9"', page)
        self.assertIn('name="o.length" value="70.0"', page)
        self.assertIn("back to the house", self.get(f"/dockets/{docket}/draft?slip=settings&e.waist=1+cm"))

    def test_what_the_docket_says_wins_and_going_back_goes_to_the_house(self):
        self.post("/house", {"of": "skirt.two_panel", "e.waist": "1.9"})
        docket = self.open_skirt()
        with self.store.read() as session:
            version = session.get(Docket, docket).version
        self.post(f"/dockets/{docket}/keep", {"good": "e.waist=1+cm", "version": version})
        page = self.get(f"/dockets/{docket}/draft?slip=settings")
        self.assertIn('name="e.waist" value="1.0"', page)
        self.assertNotIn("of-house", page)
        back = self.get(f"/dockets/{docket}/draft?slip=settings&e.waist=")
        self.assertIn('name="e.waist" value="1.9"', back)
        with self.store.read() as session:
            self.assertEqual(session.get(Docket, docket).ease, {"waist": "1 cm"})

    def board(self, docket):
        """The page of its draft, without the tokens of its forms, which tell the time."""
        self.get("/")  # where what was done is said
        return re.sub(r'name="csrf_token" value="[^"]+"', "", self.get(f"/dockets/{docket}/draft"))

    def test_a_garment_keeps_the_values_it_was_opened_with_until_it_takes_others_over(self):
        docket = self.open_skirt()
        before = self.board(docket)
        self.post("/house", {"of": "", "e.waist": "1.8"})
        self.assertEqual(self.board(docket), before, "nothing moves by itself")
        page = self.get(f"/dockets/{docket}/draft?slip=settings")
        self.assertIn("The house has other values now: waist ease 1.8 cm.", page)
        self.post(f"/dockets/{docket}/house")
        page = self.get(f"/dockets/{docket}/draft?slip=settings")
        self.assertIn('name="e.waist" value="1.8"', page)
        self.assertNotIn("The house has other values now", page)
        self.post("/house", {"of": "", "e.waist": ""})
        self.assertIn("waist ease as usual, not 1.8 cm", self.get(f"/dockets/{docket}/draft?slip=settings"))

    def test_those_of_a_method_win_over_those_of_every_method(self):
        self.post("/house", {"of": "", "e.waist": "1.8", "o.cloth": "crisp"})
        self.post("/house", {"of": "skirt.two_panel", "e.waist": "1.7"})
        self.open_skirt()
        house = self.newest().house
        self.assertEqual((house["e.waist"], house["o.cloth"]), ("1.7 cm", "crisp"))

    def test_an_allowance_of_the_house_is_marked_and_cut(self):
        docket = self.open_skirt()
        page = self.get(f"/dockets/{docket}/cut/edges")
        self.assertRegex(page, r'Hem, straight <em class="of-house">')
        self.assertRegex(page, r'name="a.hem" value="5.0"')
        card = self.client.get(f"/dockets/{docket}/files/card.pdf")
        self.assertEqual(card.status_code, 200)

    def test_a_figure_out_of_range_is_told_and_nothing_is_kept(self):
        page = self.post("/house", {"of": "skirt.two_panel", "e.waist": "99", "e.hip": "5"}, 422).get_data(as_text=True)
        self.assertIn("Waist ease 99.0 is outside", page)
        self.assertIn('value="99"', page)
        self.assertNotIn(("skirt.two_panel", "e.hip"), self.kept())
        self.get("/house?of=nothing", 404)
        self.post("/house", {"of": "nothing"}, 404)

    def test_out_and_in_are_the_same_and_a_bad_file_changes_nothing(self):
        out = self.client.get("/house.json").get_data()
        kept = self.kept()
        for of, key in kept:
            self.post("/house", {"of": ("allowances." if key.startswith("a.") else "") + of, key: ""})
        self.assertEqual(self.kept(), {})
        page = self.post("/house/in", {"file": (io.BytesIO(out), "house.json")}, 200).get_data(as_text=True)
        self.assertIn(f"{len(kept)} values taken in", page)
        self.assertEqual(self.kept(), kept)
        data = json.loads(out)
        data["values"].append({"for": "sleeve.guide_box", "setting": "e.cap", "value": "77 cm"})
        data["values"].append({"for": "sleeve.guide_box", "setting": "e.nothing", "value": "1 cm"})
        data["values"].append("words")
        page = self.post("/house/in", {"file": (io.BytesIO(json.dumps(data).encode()), "h.json")}, 422).get_data(as_text=True)
        self.assertIn("Cap ease 77.0 is outside", page)
        self.assertIn("Guide-box sleeve has no setting", page)
        self.assertIn("Nothing was taken in", page)
        self.assertEqual(self.kept(), kept)
        for bad in (b"", b"{", b"[]", b"\xff\xfe", b'{"wide hem": "house values", "values": 3}'):
            self.post("/house/in", {"file": (io.BytesIO(bad), "h.json")}, 422)


if __name__ == "__main__":
    unittest.main()
