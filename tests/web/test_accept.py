"""Checks accepted with a word: they stay visible, come back when their figure changes, and are printed."""

import io
import re
import unittest

from pypdf import PdfReader

from tests.web.case import WebCase
from widehem.core.pattern.acceptance import Acceptance, accepted, lines
from widehem.core.pattern.check import Check
from widehem.core.units import say

SMOCK = 10
CHECK = "armhole.balance"


def check(figure, verdict="not", kind="length"):
    """A check whose figure may be 1 at most; not true beyond."""
    high = {"not": 1.0, "true": 99.0}[verdict]
    return Check("seam.side", "seams", "Side seam", kind, figure, None, high, 0.0, say(""), say(""), after="apart")


class Rules(unittest.TestCase):
    def test_it_holds_while_the_figure_is_what_was_accepted(self):
        kept = {"seam.side": Acceptance("eased by hand", "O.M.", 1.5)}
        self.assertIn("seam.side", accepted([check(1.5)], kept))
        self.assertIn("seam.side", accepted([check(1.69)], kept), "within 0.2")
        self.assertEqual(accepted([check(1.75)], kept), {}, "it comes back")
        self.assertEqual(accepted([check(1.2)], kept), {}, "whichever way it changed")
        self.assertEqual(accepted([check(1.5, "true")], kept), {}, "what is true needs no word")

    def test_angles_and_counts_change_by_their_own_measure(self):
        kept = {"seam.side": Acceptance("so be it", "", 5.0)}
        self.assertTrue(accepted([check(5.9, kind="angle")], kept))
        self.assertFalse(accepted([check(6.1, kind="angle")], kept))
        self.assertFalse(accepted([check(6.0, kind="count")], kept))

    def test_the_line_of_the_card(self):
        kept = {"seam.side": Acceptance("eased by hand", "O.M.", 1.5)}
        self.assertEqual(lines([check(1.5)], kept), ("Side seam, 1.5 cm apart: eased by hand, O.M.",))
        self.assertEqual(Acceptance("so", "", 1.0).words(), "so")

    def test_it_is_kept_as_data_and_read_again(self):
        one = Acceptance("eased by hand", "O.M.", 1.25)
        self.assertEqual(Acceptance.from_data(one.as_data()), one)
        for wrong in ({}, {"word": "a", "by": "b"}, {"word": "a", "by": "b", "figure": "c"}):
            with self.assertRaises((KeyError, ValueError)):
                Acceptance.from_data(wrong)


class Pages(WebCase):
    def slip(self, query=""):
        return self.get(f"/dockets/{SMOCK}/draft?slip=checks{query}")

    def test_a_check_is_accepted_stays_visible_and_can_be_taken_back(self):
        before = self.slip()
        self.assertIn("Accept it with a word", before)
        self.post(f"/dockets/{SMOCK}/accept", {"check": CHECK, "word": "eased  by hand", "by": "O.M."})
        after = self.slip()
        self.assertIn("Accepted: eased by hand, O.M.", after)
        self.assertIn("longer and gapes", re.sub("<[^>]+>", "", after), "it stays visible")
        self.assertIn("1 accepted", after)
        self.post(f"/dockets/{SMOCK}/accept/back", {"check": CHECK})
        again = self.slip()
        self.assertNotIn("Accepted: eased by hand", again)
        self.assertNotIn("1 accepted", again)

    def test_it_comes_back_when_its_figure_changes(self):
        self.post(f"/dockets/{SMOCK}/accept", {"check": CHECK, "word": "worn open", "by": ""})
        self.assertIn("Accepted: worn open.", self.slip())
        self.assertNotIn("Accepted: worn open.", self.slip("&o.hollow_front=3.0"), "tried: another figure")

    def test_without_a_word_it_says_what_is_wanted_and_keeps_nothing(self):
        response = self.client.post(
            f"/dockets/{SMOCK}/accept", data={"check": CHECK, "word": "  ", "by": "", "csrf_token": self.token()}
        )
        page = self.get(response.headers["Location"])
        self.assertIn("Say in a word why it is accepted", page)
        self.assertNotIn("Accepted:", page)

    def test_what_is_true_or_not_there_is_not_accepted(self):
        for name in ("seam.side", "no.such.check"):
            self.post(f"/dockets/{SMOCK}/accept", {"check": name, "word": "because", "by": ""})
        self.assertNotIn("Accepted:", self.slip())
        self.post("/dockets/9999/accept", {"check": CHECK, "word": "because", "by": ""}, 404)

    def test_the_card_prints_it(self):
        self.post(f"/dockets/{SMOCK}/accept", {"check": CHECK, "word": "eased by hand", "by": "O.M."})
        data = self.client.get(f"/dockets/{SMOCK}/files/card.pdf").data
        words = " ".join(PdfReader(io.BytesIO(data)).pages[0].extract_text().split())
        self.assertIn("Accepted.", words)
        self.assertIn("eased by hand, O.M.", words)


if __name__ == "__main__":
    unittest.main()
