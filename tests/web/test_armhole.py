"""A sleeve for the armhole of a garment that exists, over HTTP."""

from tests.web.case import WebCase
from widehem.store.models import Docket

TYPED = 22


class TypedArmhole(WebCase):
    def newest(self):
        with self.store.read() as session:
            return session.query(Docket).order_by(Docket.id.desc()).first()

    def test_what_is_typed_is_drawn_and_judged(self):
        page = self.get("/wearers/7/armhole")
        self.assertIn("Write both halves of the armhole", page)
        page = self.get("/wearers/7/armhole?method=sleeve.guide_box&front=24&back=25.5&depth=18.5")
        self.assertIn("49.5 cm round", page)
        self.assertRegex(page, r"39\.6</b> cm wide")
        self.assertNotIn("Its depth was not measured", page)
        self.assertIn("Before cutting, lay the lowest of the cap", page)

    def test_a_shoulder_that_does_not_end_at_the_bone_is_mended_first(self):
        page = self.get("/wearers/7/armhole?front=24&back=25&shoulder=over&off=3")
        self.assertIn("A shoulder that drops 3.0 cm over the bone is mended first", page)
        self.assertNotIn("wide, cap", page)
        page = self.post("/wearers/7/armhole", {"name": "S", "front": "24", "back": "25", "shoulder": "over", "off": "3"}, 422)
        self.assertIn('value="24"', page.get_data(as_text=True))

    def test_bad_figures_are_told_by_field_and_kept_as_typed(self):
        page = self.get("/wearers/7/armhole?front=4&back=abc")
        self.assertIn("Back armhole: ", page)
        self.assertIn('value="abc"', page)
        page = self.get("/wearers/7/armhole?front=4&back=25")
        self.assertIn("Front armhole 4.0 is outside 10.0 to 45.0 cm", page)
        self.assertNotIn("29.0 cm round", page, "no sum of a figure that is refused")
        page = self.get("/wearers/7/armhole?back=25")
        self.assertIn("Front armhole is not there yet", page)
        page = self.post("/wearers/7/armhole", {"front": "24", "back": "25"}, 422).get_data(as_text=True)
        self.assertIn("The sleeve has no name yet", page)

    def test_a_docket_is_opened_for_it_and_keeps_it_with_its_unit(self):
        self.client.post("/settings", data={"csrf_token": self.token(), "unit": "in"})
        self.post("/wearers/7/armhole", {"name": "Oilskin", "method": "sleeve.triangle", "front": "9 1/2", "back": "10"})
        docket = self.newest()
        self.assertEqual((docket.name, docket.bodice_id, docket.method), ("Oilskin", None, "sleeve.triangle"))
        self.assertEqual(docket.armhole, {"front": "9 1/2 in", "back": "10 in"})
        page = self.get(f"/dockets/{docket.id}/draft")
        self.assertRegex(page, r'for a <a href="/dockets/\d+/typed-armhole">measured armhole</a>')
        self.assertRegex(page, r"9.{0,60}1/2.{0,20} front, 10 back")
        self.client.post("/settings", data={"csrf_token": self.token(), "unit": "cm"})
        self.assertIn("24.1 front, 25.4 back", self.get(f"/dockets/{docket.id}/draft"))
        self.get(f"/dockets/{docket.id}/cut")

    def test_it_is_changed_and_given_up_for_a_bodice(self):
        page = self.get(f"/dockets/{TYPED}/typed-armhole")
        self.assertIn('value="26.5 cm"', page)
        self.post(f"/dockets/{TYPED}/typed-armhole", {"front": "25", "back": "26", "shoulder": "bone"})
        self.assertIn("25.0 front, 26.0 back", self.get(f"/dockets/{TYPED}/draft"))
        self.post(f"/dockets/{TYPED}/armhole", {"bodice": "19"})
        self.assertIn('for the armhole of <a href="/dockets/19/draft">Watch coat</a>', self.get(f"/dockets/{TYPED}/draft"))
        with self.store.read() as session:
            self.assertEqual(session.get(Docket, TYPED).armhole, {})
        self.get("/dockets/1/typed-armhole", 404)
        self.get("/wearers/999/armhole", 404)


if __name__ == "__main__":
    import unittest

    unittest.main()
