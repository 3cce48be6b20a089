"""Two makers at once: what one keeps is never overwritten unseen by the other's older page."""

import html
import re
import threading
import unittest
from urllib.parse import quote

from tests.web.case import WebCase
from widehem.store.charts import core_chart, latest_chart
from widehem.store.dockets import find_docket, find_wearer
from widehem.store.house import house_values
from widehem.store.models import Docket, HouseList


def hidden(page, action):
    """The hidden fields of a form, as it was shown."""
    form = re.search(rf'<form[^>]*method="post"[^>]*action="{re.escape(action)}".*?</form>', page, re.S)[0]
    fields = re.findall(r'<input\s+type="hidden"\s+name="([^"]+)"\s+value="([^"]*)"', form)
    return {name: html.unescape(value) for name, value in fields}


class Meanwhile(WebCase):
    def wearer(self, number=3):
        with self.store.read() as session:
            return find_wearer(session, number)

    def test_an_allergy_is_not_erased_by_an_older_page(self):
        stale = hidden(self.get("/wearers/3"), "/wearers/3/about")
        name = self.wearer().name
        self.post("/wearers/3/about", {"allergies": "wool, nickel"})
        self.post("/wearers/3/about", {**stale, "name": name, "allergies": stale["was.allergies"], "movement": "knees"})
        self.assertEqual((self.wearer().allergies, self.wearer().movement), ("wool, nickel", "knees"))

    def test_both_changed_the_same_field(self):
        stale = hidden(self.get("/wearers/3"), "/wearers/3/about")
        self.post("/wearers/3/about", {"allergies": "wool"})
        answer = self.post("/wearers/3/about", {**stale, "allergies": "latex", "movement": "none"}, status=409)
        page = answer.get_data(as_text=True)
        self.assertIn("Meanwhile somebody kept “wool” here", page)
        self.assertIn(">latex</textarea>", page, "what was typed stands there")
        self.assertEqual((self.wearer().allergies, self.wearer().movement), ("wool", "none"), "the rest is kept")
        again = hidden(page, "/wearers/3/about")
        self.post("/wearers/3/about", {**again, "allergies": "wool, latex"})
        self.assertEqual(self.wearer().allergies, "wool, latex")

    def test_a_clash_shows_what_others_changed_beside_it(self):
        stale = hidden(self.get("/wearers/3"), "/wearers/3/about")
        self.post("/wearers/3/about", {"allergies": "wool", "movement": "knees"})
        page = self.post(
            "/wearers/3/about", {**stale, "allergies": "latex", "movement": stale["was.movement"]}, status=409
        ).get_data(as_text=True)
        self.assertRegex(page, r">knees\s*</textarea>", "pressed again it would be lost")

    def test_house_values(self):
        at = {"of": "skirt.two_panel"}
        stale = hidden(self.get("/house?of=skirt.two_panel"), "/house")
        self.post("/house", {**stale, **at, "e.waist": "1.9", "o.length": "70"})
        page = self.post("/house", {**stale, **at, "e.waist": "1.7", "o.length": "", "e.hip": "4.5"}, status=409).get_data(
            as_text=True
        )
        self.assertIn("Meanwhile somebody kept “1.9” here", page)

        def house():
            with self.store.read() as session:
                return {value.key: value.text for value in house_values(session) if value.of == at["of"]}

        self.assertEqual(house(), {"e.waist": "1.9 cm", "o.length": "70 cm", "e.hip": "4.5 cm"})
        fields = dict(re.findall(r'<input class="form-control r" id="[^"]+" name="([^"]+)"[^>]*?value="([^"]*)"', page))
        self.assertEqual((fields["e.waist"], fields["o.length"]), ("1.7", "70.0"))
        self.post("/house", {**hidden(page, "/house"), **fields, **at})
        self.assertEqual(house(), {"e.waist": "1.7 cm", "o.length": "70 cm", "e.hip": "4.5 cm"})

    def test_what_is_typed_is_meant_in_the_unit_the_page_was_shown_in(self):
        """The unit was switched elsewhere since: 70 typed under cm is no 70 in."""
        for path, form, field, url in (
            ("/wearers/3/measure?at=waist", "/wearers/3/readings", "first", "/wearers/3/readings"),
            ("/house", "/house", "e.waist", "/house"),
            ("/dockets/1/cut/edges", "/dockets/1/cut/plan", "a.seam", "/dockets/1/cut/plan"),
        ):
            with self.subTest(path):
                self.client.delete_cookie("wh_unit")
                fields = hidden(self.get(path), form)
                self.client.set_cookie("wh_unit", "in")
                self.post(url, {**fields, "plan": "cloth", "paper": "a4", field: "70.5" if field == "first" else "3.5"})
        with self.store.read() as session:
            self.assertEqual(core_chart(session, latest_chart(session, 3)).readings["waist"].first.cm, 70.5)
            self.assertIn(("e.waist", "3.5 cm"), [(value.key, value.text) for value in house_values(session)])
            self.assertEqual(session.get(Docket, 1).amounts["seam"], "3.5 cm")

    def test_what_is_tried_on_the_board_as_well(self):
        page = self.get("/dockets/1/draft?slip=settings")
        good = re.search(r'name="good" value="([^"]*)"', page)[1]
        self.client.set_cookie("wh_unit", "in")
        shown = self.get(f"/dockets/1/draft?slip=settings&shown_in=cm&good={quote(good)}&o.length=55")
        self.assertIn('value="55.0"', shown)
        self.assertNotIn("is outside", shown)

    def test_a_note_of_two_is_both_notes(self):
        page = self.get("/wearers/3/measure")
        stale = hidden(page, "/wearers/3/chart")
        old = stale["was.note"]
        self.post("/wearers/3/chart", {**stale, "note": "left shoulder lower", "foundation": "stays"})
        self.post("/wearers/3/chart", {**stale, "note": "breathes high", "foundation": stale["was.foundation"]})
        page = self.get("/wearers/3/measure")
        self.assertIn("left shoulder lower; breathes high", page)
        self.assertIn('value="stays"', page)
        now = hidden(page, "/wearers/3/chart")
        self.post("/wearers/3/chart", {**now, "note": old})
        self.assertNotIn("breathes high", self.get("/wearers/3/measure"), "who sees both may strike out")

    def test_two_long_notes_are_both_kept_whole(self):
        self.post("/wearers/3/chart", {"note": "a" * 600, "was.note": ""})
        self.post("/wearers/3/chart", {"note": "b" * 600, "was.note": ""})
        both = "a" * 600 + "; " + "b" * 600
        self.assertIn(both, self.get("/wearers/3/measure"))
        self.post("/wearers/3/chart", {"note": both, "was.note": both})
        self.assertIn(both, self.get("/wearers/3/measure"), "shown and kept again it is the same")

    def test_allowances(self):
        stale = hidden(self.get("/dockets/1/cut/edges"), "/dockets/1/cut/plan")
        with self.store.read() as session:
            plan = find_docket(session, 1).plan
        self.post("/dockets/1/cut/plan", {**stale, "plan": plan, "a.seam": "3"})
        page = self.post("/dockets/1/cut/plan", {**stale, "plan": plan, "a.seam": "1"}, status=409).get_data(as_text=True)
        self.assertIn("Somebody kept other allowances meanwhile", page)
        with self.store.read() as session:
            self.assertEqual(find_docket(session, 1).amounts, {"seam": "3 cm"})

    def test_lists(self):
        with self.store.write() as session:
            row = HouseList(name="Quick", codes=["waist", "hip"])
            session.add(row)
            session.flush()
            number = row.id
        stale = hidden(self.get(f"/lists?open={number}"), "/lists")
        self.post("/lists", {**stale, "name": "Quick", "measure": ["waist", "hip", "bust"]})
        page = self.post("/lists", {**stale, "name": "Quick", "measure": ["waist"]}, status=422).get_data(as_text=True)
        self.assertIn("Somebody kept this list meanwhile, as Quick with 3 measures", page)
        with self.store.read() as session:
            self.assertEqual(len(session.get(HouseList, number).codes), 3)
        self.post("/lists", {**hidden(page, "/lists"), "name": "Quick", "measure": ["waist"]})

    def test_copies_of_tables_and_plans(self):
        for kind, code in (("tables", "curved"), ("ease", "close")):
            here = self.post(f"/{kind}/{code}/copy").headers["Location"]
            page = self.get(here)
            stale = hidden(page, here)
            fields = dict(re.findall(r'<input[^>]*?name="([^"]+)"[^>]*?value="([^"]*)"', page))
            self.post(here, {**fields, **stale, "name": f"First {kind}"})
            answer = self.post(here, {**fields, **stale, "name": f"Second {kind}"}, status=422)
            self.assertIn("meanwhile, as First", answer.get_data(as_text=True))

    def test_looks_of_two(self):
        stale = hidden(self.get("/dockets/8/compare"), "/dockets/8/looks")
        first, second = [name.removeprefix("was.") for name in stale if name.startswith("was.")][:2]
        self.post("/dockets/8/looks", {**stale, first: "right", second: ""})
        self.post("/dockets/8/looks", {**stale, first: "", second: "change"})
        with self.store.read() as session:
            looks = find_docket(session, 8).looks
        self.assertEqual((looks.get(first), looks.get(second)), ("right", "change"))

    def test_of_two_who_see_it_otherwise_both_stand(self):
        stale = hidden(self.get("/dockets/8/compare"), "/dockets/8/looks")
        first = "neckline"
        self.post("/dockets/8/looks", {**stale, first: "right", "note": ""})
        self.post("/dockets/8/looks", {**stale, first: "change", "note": "gapes"})
        with self.store.read() as session:
            looks = find_docket(session, 8).looks
        self.assertEqual(looks[first], "change")
        self.assertIn("gapes; neckline was right to somebody else", looks["note"])


class Races(WebCase):
    def test_of_two_keeps_at_once_one_is_told(self):
        page = self.get("/dockets/1/draft?o.length=60")
        form = hidden(page, "/dockets/1/keep")
        token, lost = self.token(), []
        cookie = self.client.get_cookie("wh_session")

        def keep(length):
            client = self.app.test_client()
            client.set_cookie("wh_session", cookie.value)
            sent = {**form, "good": f"o.length={length}", "csrf_token": token}
            lost.append("meanwhile" in client.post("/dockets/1/keep", data=sent).headers["Location"])

        for _ in range(6):
            with self.store.read() as session:
                form["version"] = str(find_docket(session, 1).version)
            lost.clear()
            makers = [threading.Thread(target=keep, args=(length,)) for length in ("61", "62", "63")]
            for maker in makers:
                maker.start()
            for maker in makers:
                maker.join()
            self.assertEqual(sorted(lost), [False, True, True])


if __name__ == "__main__":
    unittest.main()
