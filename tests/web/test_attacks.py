"""Nothing that is sent breaks a page, nobody comes in who should not, and nothing leads out of the house."""

import logging
import random
import unittest
from urllib.parse import quote

from sqlalchemy import text

from tests.attacks import addresses, form, message, query, times
from tests.some import some
from tests.stores import fresh_store
from tests.web.case import WebCase
from widehem.web.app import create_app
from widehem.web.door import Door, hostname, own_path
from widehem.web.listen import STRAYS
from widehem.web.numbers import is_number

READS, WRITES, MESSAGES = 150, 100, 40


class Attack(WebCase):
    def setUp(self):
        super().setUp()
        logging.disable(logging.CRITICAL)
        self.addCleanup(logging.disable, logging.NOTSET)

    def test_no_address_and_no_query_breaks_a_page(self):
        chance = random.Random("read")
        found = addresses(self.app, chance, "GET")
        for _ in range(times(READS)):
            rule, url = next(found)
            asked = url + query(chance)
            self.assertLess(self.client.get(asked).status_code, 500, (rule, asked[:200]))

    def test_what_another_method_has_beside_a_good_state_is_left_out(self):
        for key in ("o.dart_place", "e.crotch", "m.thigh", "o.", "e.zzz", "m.zzz", "m.\x00"):
            self.assertEqual(self.client.get(f"/dockets/18/draft?{quote(key)}=settings&good=on").status_code, 200, key)

    def test_no_form_breaks_a_page(self):
        chance, token = random.Random("write"), self.token()
        found = addresses(self.app, chance, "POST")
        for number in range(times(WRITES)):
            rule, url = next(found)
            if rule == "/door":
                continue
            sent = form(chance)
            status = self.client.post(url, data={**sent, "csrf_token": token}).status_code
            self.assertLess(status, 500, (number, rule, url[:100], {k: v[:40] for k, v in sent.items()}))

    def test_no_message_of_a_tape_breaks_anything(self):
        chance = random.Random("tape")
        for _ in range(times(MESSAGES)):
            for end in ("readings", "undo"):
                sent = message(chance)
                answer = self.client.post(f"/tape/{chance.choice(('1234', 'x', '²²²²'))}/{end}", json=sent)
                self.assertLess(answer.status_code, 500, str(sent)[:200])
        answer = self.client.post("/tape/1234/readings", data=b"[" * 100_000, content_type="application/json")
        self.assertLess(answer.status_code, 500)

    def test_a_drawing_stays_well_formed_whatever_a_garment_is_called(self):
        from xml.etree import ElementTree

        name = 'Bell\x07\x0b & <b>"\ufffe\U0001f9f5'
        self.post("/dockets/8/rename", {"name": name})
        for file in ("pattern.svg", "sheets.pdf", "card.pdf", "draft.json"):
            answer = self.client.get(f"/dockets/8/files/{file}")
            self.assertEqual(answer.status_code, 200, file)
            if "svg" in answer.mimetype:
                ElementTree.fromstring(answer.get_data())
        self.assertIn("Bell &amp; &lt;b&gt;", self.get("/dockets/8/draft"))


class Gone(WebCase):
    """What a later version left in the data: a method and a measure that nobody here knows."""

    PARTS = {"name": "sheets.pdf", "ending": "csv", "code": "house-1", "pair": "123456"}

    def setUp(self):
        super().setUp()
        with self.store.engine.begin() as connection:
            connection.execute(
                text("UPDATE design SET method = 'later.cape' WHERE id IN (SELECT design_id FROM docket WHERE id IN (1, 8))")
            )
            connection.execute(
                text(
                    "INSERT INTO reading (chart_id, measure, turn, ticks, typed, unit, side, created_at) "
                    "SELECT id, 'wing_span', 1, 8000000, '100', 'cm', '', '2026-11-29 00:00:00' FROM chart"
                )
            )

    def addresses(self, method):
        for rule in self.app.url_map.iter_rules():
            if method in rule.methods and rule.endpoint not in ("static", "door.enter"):
                for number in (1, 4, 8, 13):
                    url = rule.rule
                    for name in rule.arguments:
                        url = url.replace(f"<int:{name}>", str(number)).replace(f"<{name}>", self.PARTS.get(name, "x"))
                    yield url

    def test_no_page_breaks(self):
        for url in some(sorted(set(self.addresses("GET"))), 3):
            self.assertLess(self.client.get(url).status_code, 500, url)

    def test_no_form_breaks(self):
        token = self.token()
        urls = sorted(url for url in set(self.addresses("POST")) if not url.endswith("delete"))
        for url in some(urls, 3, 1):
            data = {"csrf_token": token, "measure": "waist", "first": "70", "check": "seam", "word": "so", "act": "begin"}
            self.assertLess(self.client.post(url, data=data).status_code, 500, url)

    def test_it_says_so_and_is_kept_as_it_is(self):
        self.assertIn(
            "is drawn by later.cape, a method this version of Wide Hem does not have", self.get("/dockets/1/draft", 409)
        )
        self.assertIn("this version has no such method", self.get("/productions/1"))
        self.assertNotIn("wing_span", self.get("/wearers/1/chart.json"))
        with self.store.read() as session:
            self.assertEqual(session.scalar(text("SELECT method FROM design JOIN docket ON design.id = design_id AND docket.id = 1")),
                             "later.cape")  # fmt: skip
            self.assertGreater(session.scalar(text("SELECT count(*) FROM reading WHERE measure = 'wing_span'")), 3)


class Numbers(unittest.TestCase):
    def test_only_plain_ones_the_database_can_hold(self):
        for typed, fine in (("7", True), ("9223372036854775807", True), ("9223372036854775808", False), ("²", False), ("٣", False),
            ("-1", False), ("", False), ("9" * 5000, False), ("1.5", False)):  # fmt: skip
            self.assertEqual(is_number(typed), fine, typed[:20])


class AtTheDoor(WebCase):
    def test_a_name_that_is_none_of_ours_reads_and_writes_nothing(self):
        for host in (
            "evil.example",
            "evil.example:8420",
            "127.0.0.1.evil.example",
            "localhost@evil.example",
            "",
            "[::1",
            "0.0.0.0",
        ):
            answer = self.client.get("/wearers/1", headers={"Host": host})
            self.assertEqual(answer.status_code, 403, host)
            self.assertNotIn("Lantern", answer.get_data(as_text=True))
        for host in ("localhost", "127.0.0.1:8420", "LOCALHOST", "[::1]:8420", "localhost."):
            self.assertEqual(self.client.get("/", headers={"Host": host}).status_code, 200, host)

    def test_every_form_of_another_house_is_refused(self):
        token = self.token()
        rules = [rule for rule in self.app.url_map.iter_rules() if "POST" in (rule.methods or ())]
        self.assertGreater(len(rules), 30)
        for rule in rules:
            url = rule.rule
            for name in rule.arguments:
                url = url.replace(f"<int:{name}>", "1").replace(f"<{name}>", "x")
            for headers in (
                {"Origin": "http://evil.example"}, {"Origin": "null"}, {"Origin": "https://localhost:1"},
                {"Sec-Fetch-Site": "cross-site"}, {"Sec-Fetch-Site": "same-site"},
            ):  # fmt: skip
                answer = self.client.post(url, data={"csrf_token": token}, headers=headers)
                self.assertEqual(answer.status_code, 403, (url, headers))

    def test_a_form_of_this_house_is_taken(self):
        answer = self.client.post(
            "/settings",
            data={"csrf_token": self.token(), "unit": "in"},
            headers={"Origin": "http://localhost", "Sec-Fetch-Site": "same-origin"},
        )
        self.assertEqual(answer.status_code, 303)

    def test_nothing_leads_out_of_the_house(self):
        for wanted in ("//evil.example", "/\\evil.example", "http://evil.example", "/\t/evil.example", "/%2F/evil.example",
            "/%5Cevil.example", "/%252F%252Fevil.example/..", "\\\\evil.example", "javascript:alert(1)", "", None):  # fmt: skip
            found = own_path(wanted)
            self.assertEqual(found, "/" if wanted != "/%2F/evil.example" else own_path(wanted), wanted)
        self.assertEqual(own_path("/%2F/evil.example"), "/")
        self.assertEqual(own_path("/wearers/3?measure=bust"), "/wearers/3?measure=bust")
        answer = self.post("/settings", {"back": "/%5Cevil.example", "unit": "cm"})
        self.assertEqual(answer.headers["Location"], "/")

    def test_headers_keep_others_out(self):
        headers = self.client.get("/").headers
        self.assertEqual(headers["Cross-Origin-Resource-Policy"], "same-origin")
        self.assertIn("camera=()", headers["Permissions-Policy"])
        self.assertNotIn("Strict-Transport-Security", headers)

    def test_names_by_hand(self):
        for netloc, name in (("a.example:80", "a.example"), ("[::1]:5", "::1"), ("u@a.example", ""), ("a:b", ""), ("a/b", "")):
            self.assertEqual(hostname(netloc), name)


class Password(unittest.TestCase):
    def setUp(self):
        self.door = Door({"workroom.example"}, "needle and thread", secure=True)
        self.client = create_app(fresh_store(self, demo=True), self.door).test_client()
        self.base = "https://workroom.example"

    def get(self, path):
        return self.client.get(path, base_url=self.base)

    def say(self, words, to="/"):
        import re

        page = self.get("/door").get_data(as_text=True)
        token = re.search(r'name="csrf_token" value="([^"]+)"', page)[1]
        sent = {"csrf_token": token, "password": words, "to": to}
        return self.client.post("/door", data=sent, base_url=self.base, headers={"Referer": self.base + "/door"})

    def test_every_page_is_behind_it(self):
        answer = self.get("/wearers/3?measure=bust")
        self.assertEqual(answer.status_code, 303)
        self.assertIn("/door?to=", answer.headers["Location"])
        self.assertNotIn("Lantern", self.get("/door").get_data(as_text=True))
        with self.get("/static/app.css") as style:
            self.assertEqual(style.status_code, 200)
        self.assertEqual(self.say("wrong").status_code, 403)
        self.assertEqual(self.get("/").status_code, 303)
        answer = self.say("needle and thread", "/wearers/3")
        self.assertEqual((answer.status_code, answer.headers["Location"]), (303, "/wearers/3"))
        self.assertIn("Secure", answer.headers["Set-Cookie"])
        self.assertEqual(self.get("/").status_code, 200)
        self.assertIn("max-age", self.get("/").headers["Strict-Transport-Security"])

    def test_another_password_shuts_the_door_again(self):
        self.say("needle and thread")
        self.assertEqual(self.get("/").status_code, 200)
        self.door.password = "needles and threads"
        self.assertEqual(self.get("/").status_code, 303)

    def test_guessing_waits(self):
        for _ in range(STRAYS.most):
            self.assertEqual(self.say("guess").status_code, 403)
        self.assertEqual(self.say("needle and thread").status_code, 429)

    def test_it_never_leads_out(self):
        self.assertEqual(self.say("needle and thread", "//evil.example").headers["Location"], "/")


if __name__ == "__main__":
    unittest.main()
