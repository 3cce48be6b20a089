"""Taking measures over HTTP: the tape session, the sheet, two people on one chart."""

import re
import unittest

from tests.web.case import WebCase
from widehem.core.body.lists import FULL
from widehem.store.charts import core_chart, history, latest_chart


class TakingCase(WebCase):
    def chart(self, wearer):
        with self.store.read() as session:
            return core_chart(session, latest_chart(session, wearer))

    def fields(self, path):
        """What a form on this page would send: every named field of the readings."""
        page = self.get(path)
        found = dict(re.findall(r'<input type="hidden" name="([^"]+)" value="([^"]*)"', page))
        return {name: value for name, value in found.items() if name != "csrf_token"}


class Tape(TakingCase):
    def test_one_measure_after_another_with_what_it_is_for(self):
        page = self.get("/wearers/4/tape?list=full")
        self.assertIn("3 of 32", page)
        self.assertIn("Waist, front arc", page, "the first that is missing")
        self.assertIn("Travelling skirt: the", self.get("/wearers/4/tape?at=waist"))
        self.assertIn("Guide-box sleeve: the", self.get("/wearers/2/tape?at=upper_arm"), "what would use it")
        page = self.get("/wearers/12/tape")
        self.assertIn("1 of 32", page)
        self.assertIn("not begun", page)

    def test_fractions_stand_on_the_pad_in_inches_only(self):
        self.assertNotIn('data-pad=" 3/8"', self.get("/wearers/4/tape"))
        self.client.set_cookie("wh_unit", "in")
        self.assertIn('data-pad=" 3/8"', self.get("/wearers/4/tape"))
        self.assertNotIn("3/16", self.get("/wearers/4/tape"))
        self.client.set_cookie("wh_fraction", "16")
        self.assertIn('data-pad=" 3/16"', self.get("/wearers/4/tape"))

    def write(self, wearer, code, **more):
        fields = self.fields(f"/wearers/{wearer}/tape?list=full&at={code}")
        return self.post(f"/wearers/{wearer}/readings", {**fields, **more}).headers["Location"]

    def test_it_goes_on_and_stays_where_a_figure_is_doubtful(self):
        self.assertIn("at=neck", self.write(4, "hip_front", first="18 1/2 in"))
        where = self.write(4, "neck", first="57")
        self.assertIn("at=neck", where)
        self.assertIn("Neck is 57.0; with the other measures", self.get(where))
        self.assertIn("Look later, go on to high bust", self.get(where))
        self.assertIn("at=high_bust", self.write(4, "neck", first="36.5"))

    def test_left_and_right(self):
        page = self.get("/wearers/4/tape?list=full&at=shoulder&side=left")
        self.assertIn('name="left-first"', page)
        where = self.write(4, "shoulder", **{"left-first": "12.1", "left-second": "12.3", "side": "left"})
        self.assertIn("side=right", where)
        self.write(4, "shoulder", **{"right-first": "12.8", "side": "right"})
        reading = self.chart(4).readings["shoulder"]
        self.assertAlmostEqual(reading.cm, (12.2 + 12.8) / 2)
        page = self.get("/wearers/4/measure?at=shoulder&list=full")
        self.assertIn("left 12.2, right 12.8", page)
        self.assertNotIn("Both alike", self.get("/wearers/4/tape?list=full&at=waist"), "a waist has no sides")

    def test_doubts_are_told_while_typing_and_nothing_is_written(self):
        before = self.chart(1).stamp
        fields = self.fields("/wearers/1/tape?at=waist")
        page = self.client.post(
            "/wearers/1/readings/look", data={"csrf_token": self.token(), **fields, "first": "78", "second": "79.5"}
        )
        self.assertIn("1.5 apart, where 1.0 cm is the most", page.get_data(as_text=True))
        self.assertIn("Not written down yet", page.get_data(as_text=True))
        page = self.client.post(
            "/wearers/1/readings/look", data={"csrf_token": self.token(), **fields, "first": "7x", "second": ""}
        )
        self.assertEqual(page.status_code, 200)
        self.assertEqual(self.chart(1).stamp, before)

    def test_reading_twice_is_a_setting(self):
        self.assertNotIn(" data-twice", self.get("/wearers/1/tape"))
        self.post("/settings", {"twice": "on", "back": "/wearers/1/tape"})
        self.assertIn(" data-twice", self.get("/wearers/1/tape"))


class TwoPeople(TakingCase):
    def test_a_reading_written_meanwhile_is_never_replaced_unseen(self):
        mine = self.fields("/wearers/4/measure?at=waist_knee")
        theirs = dict(mine)
        self.post("/wearers/4/readings", {**theirs, "first": "59", "second": ""})
        where = self.post("/wearers/4/readings", {**mine, "first": "59.4", "second": "", "then": "stay"}).headers["Location"]
        reading = self.chart(4).readings["waist_knee"]
        self.assertEqual((reading.first.typed, reading.second.typed), ("59", "59.4"))
        self.assertIn("meanwhile 59.0 cm was written here; yours, 59.4 cm, is kept as the second reading", self.get(where))

    def test_where_both_fields_are_taken_it_is_told_and_can_be_sent_again(self):
        mine = self.fields("/wearers/1/measure?at=waist")
        self.post("/wearers/1/readings", {**mine, "first": "79", "second": "78.4"})
        page = self.post("/wearers/1/readings", {**mine, "first": "77", "second": "78.4"}, 422).get_data(as_text=True)
        self.assertIn("meanwhile 79.0 cm was written here", page)
        self.assertIn('value="77"', page)
        self.assertAlmostEqual(self.chart(1).readings["waist"].first.cm, 79)
        again = dict(re.findall(r'name="(was-[^"]+)" value="([^"]*)"', page))
        self.post("/wearers/1/readings", {**mine, **again, "first": "77", "second": "78.4"})
        self.assertAlmostEqual(self.chart(1).readings["waist"].first.cm, 77)
        with self.store.read() as session:
            self.assertIn("79", [row.typed for row in history(session, latest_chart(session, 1), "waist")])

    def test_an_empty_field_of_an_old_page_strikes_nothing_out(self):
        mine = self.fields("/wearers/4/measure?at=waist_knee")
        self.post("/wearers/4/readings", {**mine, "first": "59", "second": "59.2"})
        self.post("/wearers/4/readings", {**mine, "first": "", "second": ""})
        self.assertAlmostEqual(self.chart(4).get("waist_knee"), 59.1)

    def test_the_page_is_told_when_somebody_else_wrote(self):
        page = self.get("/wearers/1/measure")
        path = re.search(r'hx-get="(/wearers/1/meanwhile[^"]+)"', page)[1].replace("&amp;", "&")
        self.get(path, 204)
        self.post("/wearers/1/readings", {"measure": "neck", "first": "38"})
        self.assertIn("Somebody else wrote on this chart", self.get(path))


class Sheet(TakingCase):
    def cell(self, wearer, code, status=200, **more):
        row = re.search(rf'<tr id="row-{code}".*?</tr>', self.get(f"/wearers/{wearer}/sheet?list=full"), re.S)[0]
        fields = dict(re.findall(r'name="([^"]+)" value="([^"]*)"', row))
        return self.post(f"/wearers/{wearer}/sheet", {**fields, "list": "full", **more}, status).get_data(as_text=True)

    def test_every_measure_of_the_list_in_its_order(self):
        page = self.get("/wearers/7/sheet?list=full")
        self.assertEqual(re.findall(r'<tr id="row-([a-z_]+)"', page), list(FULL))

    def test_a_row_is_written_and_everything_beside_it_comes_back(self):
        page = self.cell(8, "bust", first="66")
        self.assertRegex(page, r'<span id="k-bust" hx-swap-oob="true">73\.0')
        self.assertIn("look again", page)
        self.assertRegex(page, r'<ul class="checks" id="hem-checks"[^>]*hx-swap-oob="true"')
        self.assertNotIn('name="first"', page, "the fields themselves are left alone")
        self.assertAlmostEqual(self.chart(8).readings["bust"].first.cm, 66)

    def test_what_cannot_be_read_is_told_beside_its_field(self):
        page = self.cell(8, "bust", 422, first="much")
        self.assertRegex(page, r'id="e-bust-first" hx-swap-oob="true">Bust: &#34;much&#34; is not a length')
        self.assertAlmostEqual(self.chart(8).get("bust"), 80)

    def test_doubts_are_listed_beside_the_sheet(self):
        page = self.get("/wearers/5/sheet?list=full")
        self.assertIn("15.5 and 17.0, 1.5 apart", page)
        self.assertIn("The chart is 11 weeks old; a child&#39;s chart holds eight weeks", page)

    def test_sides_have_rows_of_their_own(self):
        page = self.get("/wearers/8/sheet?list=full")
        self.assertIn('id="row-shoulder-left"', page)
        self.assertNotIn('id="row-wrist-left"', page)
        self.assertIn('id="row-wrist-left"', self.get("/wearers/8/sheet?list=full&apart=1"))
        self.cell(8, "shoulder-left", **{"left-first": "11.5"})
        self.assertAlmostEqual(self.chart(8).readings["shoulder"].side("left").cm, (11.5 + 12.1) / 2)


if __name__ == "__main__":
    unittest.main()
