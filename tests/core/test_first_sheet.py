"""What protects stands on the first sheet, in every paper; names on the map lie in their pieces and off each other."""

import io
import re
import unittest

from pypdf import PdfReader
from shapely import Polygon, box

from tests.bodies import drafted, upper_build
from widehem.core.drafting.method import METHODS
from widehem.core.marking.labels import Heading
from widehem.core.marking.made import mark_up
from widehem.core.marking.plans import PLANS
from widehem.core.output.pdf_sheets import sheets_pdf
from widehem.core.output.sheets import PAPERS, sheets_for
from widehem.core.output.svg_sheets import LETTER, sheet_map_svg
from widehem.core.units import Display

HEAD = Heading(
    "The Lantern Ferry",
    "Gown",
    "Odile Marsh",
    cautions=("Allergies: Latex: no rubber elastic against the skin.", "Movement: climbs the mast."),
)
TEXT = re.compile(r'<text class="t-name t-middle halo" x="([\d.-]+)" y="([\d.-]+)" font-size="([\d.]+)">([^<]+)</text>')


def pattern(code, show=None, build="typical"):
    return mark_up(drafted(METHODS[code], upper_build(build)), PLANS["cloth"], HEAD, show or Display())


class Protects(unittest.TestCase):
    def first(self, whole, paper):
        return " ".join(PdfReader(io.BytesIO(sheets_pdf(whole, PAPERS[paper]))).pages[0].extract_text().split())

    def test_on_the_first_sheet_of_every_paper(self):
        whole = pattern("gown.seam_shaped")
        for paper in PAPERS:
            page = self.first(whole, paper)
            for words in (
                "Caution. Allergies: Latex: no rubber elastic against the skin.",
                "Caution. Movement: climbs the mast.",
                "Caution. Tight lacing: Never lace to pain",
            ):
                with self.subTest(paper=paper, words=words):
                    self.assertIn(words, page)

    def test_only_what_applies(self):
        page = self.first(pattern("skirt.two_panel"), "a4")
        self.assertNotIn("lacing", page)
        self.assertIn("Movement: climbs the mast.", page)

    def test_in_inches_the_first_sheet_says_inches(self):
        page = self.first(pattern("coat.straight", Display("in")), "a4")
        self.assertIn("Lay the sheets over each other by 3/8 in so", page)
        self.assertIn("13/16 in more at the centre for a pleat", page)


class Names(unittest.TestCase):
    def test_in_their_pieces_and_off_each_other_at_every_scale(self):
        shown = 0
        for code, method in METHODS.items():
            if method.for_armhole:
                continue
            whole = pattern(code)
            for scale in (1.0, 0.5, 0.25):
                sheets = sheets_for(whole, PAPERS["a4"], scale)
                cloth = {
                    laid.marked.piece.title: Polygon([(p.x * scale, p.y * scale) for p in laid.cut]).buffer(0.05)
                    for laid in sheets.layout.pieces
                }
                laid = []
                for x, y, size, words in TEXT.findall(sheet_map_svg(sheets)):
                    wide, high = len(words) * LETTER * float(size), float(size) * 0.8
                    found = box(float(x) - wide / 2, float(y) - high, float(x) + wide / 2, float(y))
                    with self.subTest(code=code, scale=scale, words=words):
                        self.assertTrue(any(words in title and piece.covers(found) for title, piece in cloth.items()))
                        self.assertFalse(any(found.intersects(other) for other in laid))
                    laid.append(found)
                    shown += 1
        self.assertGreater(shown, 60)


if __name__ == "__main__":
    unittest.main()
