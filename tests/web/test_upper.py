"""Bodices and sleeves over HTTP: the gallery of methods, a sleeve for its bodice, mends, walking, comparing."""

import re
import unittest

from tests.web.case import WebCase
from widehem.core.drafting.method import METHODS
from widehem.store.models import Docket

BODICE, SLEEVE, SMOCK, COAT = 8, 9, 10, 19
GAPES = r"The front is (\d\.\d) cm longer and gapes"


class Schools(WebCase):
    def test_every_method_is_shown_with_what_it_means_for_this_body(self):
        page = self.get("/wearers/8/schools")
        for method in METHODS.values():
            self.assertIn(f'id="{method.code}"', page)
        self.assertEqual(page.count('role="img" aria-label'), len(METHODS))
        self.assertIn("Bust is 2.9 over high bust", page)
        self.assertNotIn("partly estimated", page)

    def test_what_is_missing_is_named_and_the_picture_said_to_be_estimated(self):
        page = self.get("/wearers/2/schools?find=darted")
        self.assertIn("partly estimated", page)
        self.assertRegex(page, r"To read: neck, nape to waist, back, armscye depth")
        self.assertIn("Nothing is measured yet", self.get("/wearers/12/schools"))
        self.assertIn("No method is called so", self.get("/wearers/2/schools?find=%3Cb%3E"))


class Sleeves(WebCase):
    def test_a_sleeve_is_opened_for_the_newest_bodice_and_follows_it(self):
        page = self.get(f"/dockets/{SLEEVE}/draft")
        self.assertRegex(page, r'for the armhole of <a href="/dockets/8/draft">Heron bodice</a>, 20\.\d front, 20\.\d back')
        before = re.search(r'data-figure="([\d.]+) cm"[^>]*data-spot="sleeve.cap"', page)[1]
        with self.store.write() as session:
            session.get(Docket, BODICE).ease = {"depth": "4 cm"}
        after = re.search(r'data-figure="([\d.]+) cm"[^>]*data-spot="sleeve.cap"', self.get(f"/dockets/{SLEEVE}/draft"))[1]
        self.assertGreater(float(after), float(before) + 1, "a deeper armhole, a longer cap")

    def test_without_a_bodice_there_is_no_sleeve(self):
        page = self.post("/productions/1/dockets", {"docket": "S", "for": "2", "method": "sleeve.triangle"}, 422).get_data(
            as_text=True
        )
        self.assertIn("A sleeve is drawn for an armhole: begin a bodice for this wearer first", page)
        self.post("/productions/1/dockets", {"docket": "S", "for": "8", "method": "sleeve.guide_box"})
        with self.store.read() as session:
            self.assertEqual(session.query(Docket).order_by(Docket.id.desc()).first().bodice_id, BODICE)
        self.post(f"/dockets/{BODICE}/delete")
        self.assertIn("is drawn for an armhole: draft a bodice", self.get(f"/dockets/{SLEEVE}/draft"))
        self.get(f"/dockets/{SLEEVE}/cut", 303)

    def test_every_file_of_bodice_and_sleeve_is_handed_over(self):
        for docket in (BODICE, SLEEVE, SMOCK):
            for name in ("sheets.pdf", "card.pdf", "pattern.svg", "draft.json"):
                response = self.client.get(f"/dockets/{docket}/files/{name}")
                self.assertIn(response.status_code, (200, 404), name)
                if name == "sheets.pdf":
                    self.assertGreater(len(response.data), 5000)
            self.assertIn("cut", self.get(f"/dockets/{docket}/cut"))


class Board(WebCase):
    def test_steps_settings_and_checks_without_code_of_its_own(self):
        for docket in (BODICE, SLEEVE, SMOCK):
            last = int(re.search(r"Step \d+ of (\d+)", self.get(f"/dockets/{docket}/draft"))[1])
            for step in range(1, last + 1):
                self.get(f"/dockets/{docket}/draft?step={step}")
            self.assertIn("Settings", self.get(f"/dockets/{docket}/draft?slip=settings"))
        self.client.set_cookie("wh_unit", "in")
        page = self.get(f"/dockets/{BODICE}/draft?slip=settings")
        self.assertIn('name="o.hollow_back" value="0.52"', page, "a plain number stays what it is in inches")
        self.assertIn("Step 8 of 8", self.get(f"/dockets/{BODICE}/draft?o.hollow_back=0.6"))
        self.assertIn("is outside 0.44 to 0.7", self.get(f"/dockets/{BODICE}/draft?slip=settings&o.hollow_back=2"))

    def test_a_mend_is_pressed_and_can_be_taken_back(self):
        page = self.get(f"/dockets/{SMOCK}/draft?slip=checks")
        link = re.search(r'href="([^"]+)">True it as far as may be', page)[1].replace("&amp;", "&")
        mended = self.get(link)
        self.assertNotIn("True it as far as may be", mended)
        self.assertIn("1 change tried", mended)
        longer = [float(re.search(GAPES, re.sub("<[^>]+>", "", one))[1]) for one in (page, mended)]
        self.assertGreater(longer[0], longer[1] + 0.7, "0.7 each is the most; what is left is told")

    def test_a_mend_that_is_set_already_is_not_offered(self):
        page = self.get(f"/dockets/{SMOCK}/draft?slip=checks&o.trued_hole=needed&o.hollow_front=3.5")
        self.assertRegex(re.sub("<[^>]+>", "", page), r"The front is \d\.\d cm longer and gapes")
        self.assertNotIn("True it as far as may be", page, "it is trued as far as may be")

    def test_a_coat_of_older_rules_says_so_goes_over_and_back(self):
        page = self.get(f"/dockets/{COAT}/draft")
        self.assertRegex(page, r"Older rules</b>\s+\d\d figures would change")
        both = self.get(f"/dockets/{COAT}/compare?with=rules:{METHODS['coat.straight'].rules}")
        self.assertIn("By today&#39;s rules of its method", both)
        old = self.hem_of(page)
        self.post(f"/dockets/{COAT}/rules", {"rules": str(METHODS["coat.straight"].rules)})
        new = self.get(f"/dockets/{COAT}/draft")
        self.assertNotIn("Older rules</b>", new)
        self.assertNotEqual(self.hem_of(new), old)
        self.assertIn("rules of version 1", self.get(f"/dockets/{COAT}/draft?slip=garment"))
        self.post(f"/dockets/{COAT}/rules", {"rules": "1"})
        self.assertEqual(self.hem_of(self.get(f"/dockets/{COAT}/draft")), old)
        self.post(f"/dockets/{COAT}/rules", {"rules": "7"}, 400)

    def hem_of(self, page):
        """How long the back hem is, as it stands on the board."""
        return re.search(r"hem (\d+\.\d)", re.sub("<[^>]+>", "", page))[1]

    def test_a_default_that_follows_from_the_drawing_stands_in_its_field(self):
        page = self.get(f"/dockets/{SLEEVE}/draft?slip=settings&o.length=25+cm")
        shown = float(re.search(r'name="o.hem" value="([\d.]+)"', page)[1])
        board = re.sub("<[^>]+>", " ", self.get(f"/dockets/{SLEEVE}/draft?o.length=25+cm"))
        self.assertIn(f"hem {shown:.1f}", board, "what stands in the field is what is drawn")
        self.assertGreater(shown, 28, "a short sleeve goes round the arm")
        again = self.get(f"/dockets/{SLEEVE}/draft?slip=settings&good=o.length%3D25%2Bcm&o.hem={shown:.1f}")
        self.assertIn("1 change tried", again, "a field left as it was shown changes nothing")

    def test_a_garment_of_older_rules_shows_the_defaults_of_its_time(self):
        with self.store.write() as session:
            session.get(Docket, 3).rules, session.get(Docket, 3).ease = 1, {}
        page = self.get("/dockets/3/draft?slip=settings")
        self.assertRegex(page, r'name="e.waist" value="0\.0"')
        with self.store.write() as session:
            session.get(Docket, 3).rules = 2
        self.assertRegex(self.get("/dockets/3/draft?slip=settings"), r'name="e.waist" value="1\.5"')

    def test_a_plan_of_ease_sets_what_the_method_knows(self):
        page = self.get(f"/dockets/{BODICE}/draft?slip=settings")
        link = re.search(r'href="([^"]+)" title="[^"]+">Easy woven', page)[1].replace("&amp;", "&")
        self.assertIn("90.0 on 80.0", re.sub("<[^>]+>", "", self.get(link)))


class Truing(WebCase):
    def test_seams_are_walked_and_armholes_laid_over_each_other(self):
        page = self.get(f"/dockets/{BODICE}/walk?seam=side&at=20")
        self.assertIn("9.9</b> cm walked", page)
        for query in ("seam=shoulder&at=40", "seam=armholes", "seam=nonsense&at=-3", "at=x", "at=9999"):
            self.get(f"/dockets/{BODICE}/walk?{query}")
        self.assertNotIn("Armholes over", self.get("/dockets/1/walk"))
        self.get("/dockets/4/walk", 303)

    def test_two_drafts_over_each_other(self):
        page = self.get(f"/dockets/{BODICE}/compare?with=method:bodice.plain&at=tip")
        self.assertRegex(re.sub("<[^>]+>", " ", page), r"back shoulder\s+12\.8\s+12\.3\s+−0\.5")
        self.assertIn("How touchy", page)
        self.assertIn("moves, cm", self.get(f"/dockets/{BODICE}/compare?touchy=1"))
        self.assertRegex(self.get("/dockets/1/compare"), r"The same on the chart of \d+ \w+ \d{4}")
        self.get("/dockets/2/compare?with=chart:99")
        self.get("/dockets/99/compare", 404)

    def test_held_against_a_plan_an_option_and_another_garment(self):
        page = self.get(f"/dockets/{BODICE}/compare?with=plan:coat")
        self.assertRegex(re.sub("<[^>]+>", " ", page), r"bust\s+86\.0\s+95\.0\s+\+9\.0")
        page = self.get(f"/dockets/{BODICE}/compare?with=set:dart_place=side")
        self.assertIn("Bust dart: side", page)
        self.assertRegex(re.sub("<[^>]+>", " ", page), r"front side, darts together\s+none\s+\d")
        self.post("/productions/1/dockets", {"docket": "Second bodice", "for": "8", "method": "bodice.plain"})
        with self.store.read() as session:
            second = session.query(Docket).order_by(Docket.id.desc()).first().id
        page = self.get(f"/dockets/{BODICE}/compare?with=docket:{second}")
        self.assertRegex(re.sub("<[^>]+>", " ", page), r"bust\s+86\.0\s+90\.0")
        self.assertIn('<optgroup label="Other garments">', page)
        for nonsense in ("plan:none", "set:dart_place=nose", "docket:999", "set:", "docket:1"):
            self.get(f"/dockets/{BODICE}/compare?with={nonsense}")

    def test_what_was_seen_is_noted(self):
        self.post(
            f"/dockets/{BODICE}/looks", {"neckline": "right", "armhole": "change", "darts": "odd", "note": "gapes <a little>"}
        )
        page = self.get(f"/dockets/{BODICE}/compare")
        self.assertEqual(page.count('value="right" selected'), 1)
        self.assertEqual(page.count('value="change" selected'), 1)
        self.assertIn("gapes &lt;a little&gt;", page)


if __name__ == "__main__":
    unittest.main()
