"""Whole garments over HTTP: every docket of the demo, what a sleeve is drawn for, cautions, lists, files."""

import io
import re
import unittest

from pypdf import PdfReader

from tests.some import some
from tests.web.case import WebCase
from widehem.store.dockets import bodice_for
from widehem.store.models import Docket

BODICE, SUIT, TOP, GOWN, COAT, INCOMPLETE = 8, 13, 14, 17, 19, 21


class Whole(WebCase):
    def test_every_docket_of_the_demo_is_drawn_or_says_what_is_missing(self):
        with self.store.read() as session:
            dockets = [(docket.id, docket.method) for docket in session.query(Docket)]
        self.assertIn("cannot be drawn without", self.get(f"/dockets/{INCOMPLETE}/draft"))
        self.assertEqual(len({method for _, method in dockets}), 15)
        closely = some([number for number, _ in dockets], 3)
        for number, method in dockets:
            page = self.get(f"/dockets/{number}/draft")
            drawn = "cannot be drawn without" not in page
            self.assertEqual(drawn, 'id="board"' in page, method)
            if number not in closely:
                continue
            self.get(f"/dockets/{number}/draft?slip=settings")
            self.get(f"/dockets/{number}/draft?slip=checks")
            if drawn:
                self.assertIn("Cut list", self.get(f"/dockets/{number}/cut"))
                self.get(f"/dockets/{number}/walk")
                self.get(f"/dockets/{number}/compare")

    def test_a_sleeve_is_drawn_for_what_it_is_made_for(self):
        for method, bodice in (("sleeve.pivot", TOP), ("sleeve.triangle", BODICE)):
            self.post("/productions/1/dockets", {"docket": "S", "for": "8", "method": method})
            with self.store.read() as session:
                made = session.query(Docket).order_by(Docket.id.desc()).first()
                self.assertEqual((made.bodice_id, made.plan), (bodice, "jersey" if method == "sleeve.pivot" else "cloth"))
        with self.store.read() as session:
            self.assertEqual(bodice_for(session, 1).id, GOWN, "better a gown than nothing")
            self.assertIsNone(bodice_for(session, 2))

    def test_a_sleeve_is_set_into_another_garment(self):
        self.assertIn("For the armhole of", self.get("/dockets/9/draft?slip=garment"))
        self.post("/dockets/9/armhole", {"bodice": str(SUIT)}, 303)
        self.assertIn('for the armhole of <a href="/dockets/13/draft">Heron suit</a>', self.get("/dockets/9/draft"))
        self.post("/dockets/9/armhole", {"bodice": str(GOWN)}, 303)
        self.assertIn("Heron suit</a>", self.get("/dockets/9/draft"), "the gown is another wearer's")

    def test_cautions_stand_on_the_board_and_on_the_card(self):
        self.assertIn("<b>Caution</b> heat", self.get(f"/dockets/{SUIT}/draft"))
        self.assertIn("<b>Caution</b> tight lacing, a long hem, flame", self.get(f"/dockets/{GOWN}/draft"))
        self.assertNotIn("<b>Caution</b>", self.get("/dockets/8/draft"))
        words = PdfReader(io.BytesIO(self.client.get(f"/dockets/{SUIT}/files/card.pdf").data)).pages[0].extract_text()
        self.assertIn("A closed suit is hot", words.replace("\n", " "))

    def test_cloth_lining_and_interfacing_of_a_coat(self):
        page = self.get(f"/dockets/{COAT}/cut/list").lower()
        for word in ("lining", "interfacing", "wadding", "2 on the fold"):
            self.assertIn(word, page)

    def test_the_folded_lapel_is_a_view(self):
        self.assertIn("piece folded", self.get(f"/dockets/{COAT}/draft?view=folded"))
        self.assertNotIn("piece folded", self.get(f"/dockets/{COAT}/draft"))
        self.assertNotIn("Lapel folded", self.get(f"/dockets/{GOWN}/draft"))

    def test_paper_of_large_garments(self):
        for number in some((SUIT, GOWN, COAT), 2):
            for form in ("sheets.pdf", "pattern.svg", "draft.json"):
                answer = self.client.get(f"/dockets/{number}/files/{form}")
                self.assertIn(answer.status_code, (200, 404), form)
            pages = PdfReader(io.BytesIO(self.client.get(f"/dockets/{number}/files/sheets.pdf").data)).pages
            self.assertGreater(len(pages), 10)

    def test_never_more_than_five_slots_in_the_hem(self):
        for number in (11, SUIT, GOWN, COAT):
            page = self.get(f"/dockets/{number}/draft")
            self.assertLessEqual(len(re.findall(r'class="check is-', page)), 5)


if __name__ == "__main__":
    unittest.main()
