"""What is tried and not kept is never lost, and never mistaken for what is kept."""

import html
import re
import unittest
from unittest import mock

from tests.web.case import WebCase
from tests.web.test_meanwhile import hidden
from widehem.jobs import ledger
from widehem.jobs.ledger import Ledger
from widehem.store.models import Docket
from widehem.web.app import create_app

TRY = "/dockets/1/draft?o.length=50+cm"


class Tries(WebCase):
    def length(self):
        with self.store.read() as session:
            return session.get(Docket, 1).all_options.get("length")

    def came_back(self, path="/dockets/1/draft"):
        found = re.search(r'Tried here before: [^<]+</span><a class="btn btn-primary" href="([^"]+)"', self.get(path))
        return html.unescape(found[1]) if found else ""

    def button(self, page):
        form = re.search(r'<div class="next".*?<form method="post" action="([^"]+)">(.*?)<span>([^<]*)</span>', page, re.S)
        fields = dict(re.findall(r'name="([^"]+)" value="([^"]*)"', form[2]))
        return form[3], form[1], {name: html.unescape(value) for name, value in fields.items()}

    def test_they_are_found_again_on_return_and_after_a_restart(self):
        self.assertEqual(self.came_back(), "")
        self.get(TRY)
        self.assertIn("o.length=50+cm", self.came_back())
        self.assertIn("o.length=50+cm", self.came_back("/dockets/1/draft?slip=checks"))
        self.assertIn("1 change tried", self.get(self.came_back()))
        restarted = create_app(self.store).test_client()
        restarted.set_cookie("wh_mark", self.client.get_cookie("wh_mark").value)
        self.assertIn("Tried here before: length 50 cm", restarted.get("/dockets/1/draft").get_data(as_text=True))
        self.assertEqual(self.came_back("/dockets/2/draft"), "", "of this garment alone")

    def test_they_are_those_of_one_browser(self):
        self.get(TRY)
        self.assertNotIn("Tried here before", self.app.test_client().get("/dockets/1/draft").get_data(as_text=True))

    def test_dropped_stepped_back_or_kept_they_are_gone(self):
        page = self.get(TRY)
        drop = html.unescape(re.search(r'href="([^"]+)">Drop</a>', page)[1])
        self.assertNotIn("tried</span>", self.get(drop))
        self.assertEqual(self.came_back(), "")
        self.post("/dockets/1/keep", hidden(self.get("/dockets/1/draft?o.length=55+cm"), "/dockets/1/keep"))
        self.get(TRY)
        self.get(f"/dockets/1/draft?good=o.length%3D50%2Bcm&shown_in=cm&o.length={self.shown()}")
        self.assertEqual(self.came_back(), "", "stepped back to what is kept")
        self.post("/dockets/1/keep", hidden(self.get(TRY), "/dockets/1/keep"))
        self.assertEqual(self.came_back(), "")
        self.assertEqual(self.length(), "50 cm")

    def shown(self):
        return f"{float(self.length().split()[0]):.1f}"

    def test_the_yellow_button_keeps_them_and_lays_it_out(self):
        words, action, fields = self.button(self.get(TRY))
        self.assertEqual(words, "Keep 1 change and lay it out")
        self.assertEqual(self.post(action, fields).location, "/dockets/1/cut")
        self.assertEqual(self.length(), "50 cm")
        words, _, _ = self.button(self.get("/dockets/1/draft?o.length=50+cm&e.hip=5+cm&e.waist=2+cm"))
        self.assertEqual(words, "Keep 2 changes and lay it out", "the length is kept already")

    def test_the_cut_says_which_state_it_draws(self):
        self.assertNotIn("Tried and not in it", self.get("/dockets/1/cut"))
        self.get(TRY)
        for path in ("/dockets/1/cut", "/dockets/1/compare", "/dockets/1/walk", "/dockets/1/versions"):
            self.assertIn("Tried and not in it: <b>length 50 cm</b>", self.get(path), path)
        before = self.length()
        page = self.get("/dockets/1/cut")
        fields = hidden(page, "/dockets/1/keep")
        self.assertEqual(fields["then"], "cut")
        self.assertEqual(self.post("/dockets/1/keep", fields).location, "/dockets/1/cut")
        self.assertNotEqual(self.length(), before)
        self.assertNotIn("Tried and not in it", self.get("/dockets/1/cut"))

    def test_what_cannot_be_drawn_is_remembered_and_not_kept(self):
        self.get("/dockets/1/draft?m.waist=5+cm")
        page = self.get(self.came_back())
        self.assertNotIn("Keep 1 change and lay it out", page)
        self.assertIn("o" if "Cannot be drawn" in page else "wrong", page)

    def test_somebody_kept_something_else_meanwhile(self):
        page = self.get(TRY)
        self.app.test_client().get("/")
        with self.store.write() as session:
            session.get(Docket, 1).ease = {"hip": "5.5 cm"}
        answer = self.client.post("/dockets/1/keep", data={"csrf_token": self.token(), **hidden(page, "/dockets/1/keep")})
        self.assertIn("meanwhile=1", answer.location)
        self.assertIn("o.length=50+cm", self.came_back(), "still there")


class Remembered(WebCase):
    demo = False

    def test_so_many_and_no_more(self):
        found = Ledger(self.store.folder)
        self.addCleanup(found.close)
        with mock.patch.object(ledger, "MOST_TRIED", 3):
            for number in range(5):
                found.keep_tried(number, "me", f"o.length={number}")
        self.assertEqual([bool(found.tried(number, "me")) for number in range(5)], [False, False, True, True, True])
        found.keep_tried(4, "me", "")
        self.assertEqual(found.tried(4, "me"), "")


if __name__ == "__main__":
    unittest.main()
