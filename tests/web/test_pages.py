"""Pages, forms and their refusals, without a browser."""

import json
import re
import unittest

from tests.web.case import WebCase
from widehem.store.charts import core_chart, latest_chart
from widehem.store.dockets import find_docket


class Shell(WebCase):
    def test_every_page_has_the_policy_and_no_inline_style_or_script(self):
        for path in (
            "/",
            "/productions/1",
            "/wearers/1/measure",
            "/wearers/2/measure?list=all&at=bust",
            "/dockets/1/draft",
            "/dockets/1/draft?slip=settings",
            "/dockets/2/draft?slip=checks",
            "/dockets/4/draft",
            "/dockets/1/cut",
            "/nowhere",
        ):
            response = self.client.get(path)
            policy = response.headers["Content-Security-Policy"]
            self.assertIn("script-src 'self';", policy)
            self.assertIn("style-src 'self';", policy)
            page = response.get_data(as_text=True)
            self.assertNotRegex(page, r'style="|<style|onclick=|javascript:|<script>', path)
            self.assertNotRegex(page, r'hx-on|hx-trigger="[^"]*\[|js:', path)
            ids = re.findall(r'\bid="([^"]+)"', page)
            self.assertEqual(len(ids), len(set(ids)), path)

    def test_only_stations_that_exist_are_shown(self):
        page = self.get("/dockets/1/draft")
        self.assertEqual(re.findall(r'class="s-name">([^<]+)', page), ["Measure", "Draft", "Style", "Cut", "Fit", "Make"])

    def test_error_pages_are_in_the_look_of_the_product(self):
        self.assertIn("Nothing lies here", self.get("/dockets/99/draft", 404))
        self.assertIn("Not this way", self.get("/productions", 405))
        huge = self.client.post("/settings", data={"x": "y" * (3 * 1024 * 1024)})
        self.assertEqual(huge.status_code, 413)
        self.assertIn("Too large", huge.get_data(as_text=True))

    def test_an_unexpected_error_shows_no_innards(self):
        self.app.config["PROPAGATE_EXCEPTIONS"] = False

        @self.app.get("/break")
        def broken():
            raise ValueError("secret innards")

        with self.assertLogs(self.app.logger, "ERROR") as log:
            page = self.get("/break", 500)
        self.assertIn(re.search(r"it has the number (\w{8})\.", page)[1], log.output[0])
        self.assertIn("Something broke in the workroom", page)
        self.assertNotIn("innards", page)

    def test_a_change_without_the_token_is_refused(self):
        for path in (
            "/productions",
            "/settings",
            "/wearers/1/readings",
            "/dockets/1/keep",
            "/dockets/1/cut/plan",
            "/dockets/1/delete",
        ):
            response = self.client.post(path, data={"name": "x"})
            self.assertEqual(response.status_code, 403, path)
            self.assertIn("Not from this page", response.get_data(as_text=True))

    def test_cookies_are_strict_and_the_way_back_stays_here(self):
        response = self.post("/settings", {"unit": "in", "back": "//elsewhere.example/"})
        self.assertEqual(response.headers["Location"], "/")
        self.assertIn("SameSite=Strict", response.headers["Set-Cookie"])


class People(WebCase):
    demo = False

    def test_from_nothing_to_a_docket(self):
        self.assertIn("Nothing is begun yet", self.get("/"))
        self.post("/productions", {"name": "The <Ferry>", "company": "Q"})
        self.assertIn("The &lt;Ferry&gt;", self.get("/productions/1"))
        self.post("/productions/1/wearers", {"wearer": "Ada", "role": "Keeper"})
        self.post("/productions/1/dockets", {"docket": "Skirt", "for": "1", "method": "skirt.two_panel"})
        page = self.get("/dockets/1/draft")
        self.assertIn("cannot be drawn without waist, hip, waist to hip and waist to knee", page)
        self.post("/dockets/1/delete")
        self.get("/dockets/1/draft", 404)

    def test_what_is_missing_is_told_beside_the_field_and_the_rest_is_kept(self):
        page = self.post("/productions", {"name": " ", "company": "Kept Company"}, 422).get_data(as_text=True)
        self.assertIn("The production has no name yet", page)
        self.assertIn('value="Kept Company"', page)
        self.post("/productions", {"name": "P"})
        self.assertIn("no name yet", self.post("/productions/1/wearers", {"role": "Kept part"}, 422).get_data(as_text=True))
        page = self.post("/productions/1/dockets", {"docket": "", "for": "7", "method": "?"}, 422).get_data(as_text=True)
        for words in ("The garment has no name yet", "Choose who wears it", "Choose how it is drafted"):
            self.assertIn(words, page)


class Renaming(WebCase):
    def test_names_are_changed_and_never_emptied(self):
        self.post("/dockets/1/rename", {"name": "Rope skirt"})
        self.post("/dockets/1/rename", {"name": " "})
        self.assertIn("<h1>Rope skirt</h1>", self.get("/dockets/1/draft"))
        self.post("/wearers/1/about", {"name": "Odile M.", "part": "Ferrier"})
        self.post("/wearers/1/about", {"name": " "})
        page = self.get("/productions/1")
        self.assertIn("Odile M.", page)
        self.assertIn("Ferrier", page)
        self.post("/productions/1/about", {"name": "", "company": "Q"})
        self.assertIn("The Lantern Ferry", self.get("/"))

    def test_a_wearer_is_deleted_with_everything_once_the_name_is_written_out(self):
        self.assertEqual(json.loads(self.client.get("/wearers/1/chart.json").data)["charts"][0]["wearer"], "Odile Marsh")
        page = self.post("/wearers/1/delete", {"sure": "odile"}, 422).get_data(as_text=True)
        self.assertIn("Nothing was deleted", page)
        self.post("/wearers/1/delete", {"sure": "odile marsh"})
        self.assertIn("Odile Marsh is in the bin, with charts and garments.", self.get("/productions/1"))
        self.assertNotIn("Odile Marsh", self.get("/productions/1"))
        self.get("/dockets/1/draft", 404)
        self.get("/wearers/1/measure", 404)

    def test_a_production_is_deleted_once_its_name_is_written_out(self):
        page = self.post("/productions/1/delete", {"sure": "ferry"}, 422).get_data(as_text=True)
        self.assertIn("Nothing was deleted", page)
        self.post("/productions/1/delete", {"sure": "The Lantern Ferry"})
        self.assertIn("Nothing is begun yet", self.get("/"))
        self.get("/wearers/2/measure", 404)


class Measure(WebCase):
    def chart(self, wearer=1):
        with self.store.read() as session:
            return core_chart(session, latest_chart(session, wearer))

    def test_writing_readings_down_goes_on_to_the_next(self):
        response = self.post(
            "/wearers/4/readings", {"measure": "waist_knee", "first": "23 1/4 in", "second": "59,5", "after": "height"}
        )
        self.assertIn("at=height", response.headers["Location"])
        reading = self.chart(4).readings["waist_knee"]
        self.assertEqual((reading.first.typed, reading.second.typed), ("23 1/4 in", "59,5"))

    def test_a_field_left_as_it_was_shown_writes_nothing(self):
        before = self.chart(4).readings["waist"]
        self.client.set_cookie("wh_unit", "cm")
        self.post("/wearers/4/readings", {"measure": "waist", "first": "74.3", "second": "74.6"})
        self.assertEqual(self.chart(4).readings["waist"], before)
        self.post("/wearers/4/readings", {"measure": "waist", "first": "74.3", "second": ""})
        self.assertIsNone(self.chart(4).readings["waist"].second)

    def test_switching_the_unit_changes_no_stored_value(self):
        before = self.chart(1)
        for unit in ("in", "cm", "in"):
            self.post("/settings", {"unit": unit, "back": "/wearers/1/measure"})
            page = self.get("/wearers/1/measure?at=hip")
            self.assertIn("38 5/8" if unit == "in" else "98.0", page)
        self.assertEqual(self.chart(1).key(), before.key())

    def test_a_wrong_entry_comes_back_with_a_sentence_and_what_was_typed(self):
        page = self.post("/wearers/1/readings", {"measure": "waist", "first": "wide", "second": "78"}, 422).get_data(
            as_text=True
        )
        self.assertIn("Waist: &#34;wide&#34; is not a length", page)
        self.assertIn('value="wide"', page)
        self.assertIn('value="78"', page)
        self.assertAlmostEqual(self.chart(1).get("waist"), 78.2, places=3)
        self.post("/wearers/1/readings", {"measure": "elbow_grease", "first": "1"}, 400)

    def test_doubts_are_shown_kept_with_a_word_and_come_back(self):
        page = self.get("/wearers/2/measure?at=hip")
        self.assertIn("Waist 108.2 is larger than hip 104.2 cm", page)
        key = re.search(r'name="doubt" value="([^"]+)"', page)[1]
        self.assertIn(
            "Say in a word why",
            self.post("/wearers/2/doubts", {"measure": "hip", "doubt": key, "why": ""}, 422).get_data(as_text=True),
        )
        self.post("/wearers/2/doubts", {"measure": "hip", "doubt": key, "why": "read over the belly"})
        page = self.get("/wearers/2/measure?at=hip")
        self.assertIn("Kept: read over the belly", page)
        self.post("/wearers/2/readings", {"measure": "waist", "first": "110", "second": "110"})
        self.assertIn("Waist 110.0 is larger", self.get("/wearers/2/measure?at=hip"))

    def test_what_is_not_read_is_estimated_and_never_mixed_up_with_a_reading(self):
        page = self.get("/wearers/4/measure?at=waist_knee")
        self.assertIn("≈58.5", page)
        self.assertIn("estimated from height", page)
        self.assertIn("0.36 × height 162.6", page)
        self.assertIn("1 of them estimated", page)
        self.assertNotIn("waist_knee", self.chart(4))
        self.assertIn("cannot be drawn without waist to knee", self.get("/dockets/4/draft"), "an estimate is not a reading")

    def test_what_a_measure_moves_is_told(self):
        self.assertIn("One centimetre more here moves", self.get("/wearers/1/measure?at=waist"))
        page = self.get("/wearers/1/measure?at=waist_knee")
        self.assertRegex(page, r"more here moves (back|front) [a-z ]+ by \+1\.0")
        self.assertNotIn("more here moves", self.get("/wearers/1/measure?at=neck"))

    def test_the_figure_table_is_chosen_for_the_wearer(self):
        self.assertEqual(self.chart(5).table.code, "child")
        self.post("/wearers/5/about", {"figure": "straight"})
        self.assertEqual(self.chart(5).table.code, "straight")
        self.post("/productions/1/wearers", {"wearer": "Una", "figure": "child"})
        self.assertIn('<option value="child" selected>', self.get("/wearers/13"))

    def test_what_the_chart_was_taken_over(self):
        self.post(
            "/wearers/1/chart",
            {"measure": "waist", "foundation": "light stays", "shoes": "", "measured_by": "A. N.", "taken_on": "2026-11-20"},
        )
        page = self.get("/wearers/1/measure")
        self.assertIn("20 November 2026, over light stays", page)
        self.post("/wearers/1/chart", {"taken_on": "soon"})
        self.assertIn("20 November 2026", self.get("/wearers/1/measure"))


class Board(WebCase):
    def test_steps_views_and_checks_stand_in_the_address(self):
        page = self.get("/dockets/1/draft?step=3&view=back&slip=steps")
        self.assertIn("Step 3 of 12", page)
        self.assertIn("Draw step 4", page)
        page = self.get("/dockets/1/draft?slip=checks&lit=seam.side")
        self.assertEqual(page.count(" lit"), 2)
        for odd in (
            "step=99",
            "step=-1",
            "step=x",
            "view=nose",
            "slip=nose",
            "lit=nose",
            "o.nose=3",
            "m.nose=2",
            "e.waist=",
            "good=%00",
        ):
            self.get(f"/dockets/1/draft?{odd}")

    def test_an_address_that_cannot_be_understood_is_told_and_the_rest_is_drawn(self):
        page = self.get("/dockets/1/draft?o.length=abc&e.hip=5cm&slip=settings")
        self.assertIn("Length: &#34;abc&#34; is not a length", page)
        self.assertIn("102.8 on 97.8", page)

    def test_a_tried_setting_redraws_and_the_canonical_address_is_pushed(self):
        response = self.client.get(
            "/dockets/1/draft?good=&e.waist=1.5&e.hip=5&o.length=23+1%2F2+in", headers={"HX-Request": "true"}
        )
        self.assertEqual(response.headers["HX-Push-Url"], "/dockets/1/draft?e.hip=5+cm&o.length=23+1%2F2+in")
        page = response.get_data(as_text=True)
        self.assertIn("2 changes tried", page)
        self.assertNotIn("<script", page)
        again = self.get("/dockets/1/draft?e.hip=5+cm&o.length=23+1%2F2+in")
        self.assertIn("102.8 on 97.8", again)

    def test_a_wrong_setting_keeps_the_last_good_drawing(self):
        page = self.get("/dockets/1/draft?slip=settings&good=e.hip%3D5%2Bcm%26slip%3Dsettings&o.side_up=nonsense")
        self.assertIn("Drawn before the change", page)
        self.assertIn("Side raised: &#34;nonsense&#34; is not a length", page)
        self.assertIn('value="nonsense"', page)
        self.assertIn("102.8 on 97.8", page)
        page = self.get("/dockets/1/draft?slip=settings&good=slip%3Dsettings&m.waist_hip=10")
        self.assertIn("Waist to hip 10.0 is under 12.0 cm", page)
        self.assertIn("Drawn before the change", page)

    def test_keeping_writes_the_docket_and_the_chart(self):
        good = "e.hip=5 cm&m.waist=80 cm&o.length=70 cm"
        self.post("/dockets/1/keep", {"good": good, "version": "1"})
        with self.store.read() as session:
            docket = find_docket(session, 1)
            self.assertEqual(docket.options, {"length": "70 cm"})
            self.assertEqual(docket.ease, {"waist": "1.5 cm", "hip": "5 cm"})
            self.assertAlmostEqual(core_chart(session, latest_chart(session, 1)).get("waist"), 80)
        page = self.get("/dockets/1/draft")
        self.assertIn("81.5 on 80.0", page)
        self.assertNotIn("tried</span>", page)

    def test_a_docket_changed_meanwhile_is_not_overwritten(self):
        self.post("/dockets/1/keep", {"good": "e.hip=5 cm", "version": "1"})
        response = self.post("/dockets/1/keep", {"good": "e.hip=6 cm", "version": "1"})
        self.assertIn("meanwhile=1", response.headers["Location"])
        self.assertIn("changed by somebody else", self.get(response.headers["Location"]))
        with self.store.read() as session:
            self.assertEqual(find_docket(session, 1).ease["hip"], "5 cm")

    def test_back_to_the_default(self):
        page = self.get("/dockets/1/draft?slip=settings&e.hip=")
        self.assertIn("100.8 on 97.8", page)
        self.post("/dockets/1/keep", {"good": "e.hip=", "version": "1"})
        with self.store.read() as session:
            self.assertEqual(find_docket(session, 1).ease, {"waist": "1.5 cm"})

    def test_inches_everywhere(self):
        self.client.set_cookie("wh_unit", "in")
        page = self.get("/dockets/1/draft?step=4")
        self.assertIn("hip 38 1/2 ÷ 4 + hip ease 1 5/8 ÷ 2", page)
        self.assertNotRegex(re.sub(r"<[^>]+>", " ", page), r"\d cm\b")
        settings = re.sub(r"<[^>]+>", " ", self.get("/dockets/1/draft?slip=settings").split('class="slip')[1])
        self.assertNotRegex(settings.split("<footer")[0], r"\d\.\d")
        self.assertIn("typed 78.0 cm", self.get("/wearers/1/measure?at=waist"))


class Cut(WebCase):
    def test_sheets_scale_and_files(self):
        page = self.get("/dockets/1/cut?paper=letter&scale=1:2")
        self.assertIn("scale 1:2", page)
        for path, kind in (
            ("sheets.pdf?paper=a4", "application/pdf"), ("sheets.pdf?paper=one&scale=1:4", "application/pdf"),
                ("card.pdf", "application/pdf"),
            ("pattern.svg?scale=1:2", "image/svg+xml"), ("draft.json", "application/json"),
        ):  # fmt: skip
            response = self.client.get(f"/dockets/1/files/{path}")
            self.assertEqual((response.status_code, response.mimetype), (200, kind), path)
            self.assertRegex(
                response.headers["Content-Disposition"],
                r'attachment; filename="odile-marsh-ferry-skirt-[a-z0-9-]+\.(pdf|svg|json)"',
            )
        self.assertEqual(json.loads(self.client.get("/dockets/1/files/draft.json").data)["method"], "skirt.two_panel")

    def test_allowances_are_changed_and_kept_as_written(self):
        self.post("/dockets/1/cut/plan", {"plan": "cloth", "a.seam": "5/8 in", "a.hem": "5.0", "a.opening": "1.5"})
        with self.store.read() as session:
            docket = find_docket(session, 1)
            self.assertEqual(docket.amounts, {"seam": "5/8 in"})
        self.assertIn('value="1.59"', self.get("/dockets/1/cut/edges"))
        self.post("/dockets/1/cut/plan", {"plan": "toile", "a.seam": "1.59"})
        self.assertIn('value="1.9"', self.get("/dockets/1/cut/edges"))

    def test_a_wrong_allowance_is_told(self):
        page = self.post("/dockets/1/cut/plan", {"plan": "cloth", "a.hem": "40"}, 422).get_data(as_text=True)
        self.assertIn("Hem, straight: 40.0 is outside 0 to 15.0 cm", page)
        self.assertIn('value="40"', page)

    def test_a_wrong_allowance_is_told_in_the_unit_it_was_written_in(self):
        self.client.set_cookie("wh_unit", "in")
        page = self.post("/dockets/1/cut/plan", {"plan": "cloth", "a.hem": "40"}, 422).get_data(as_text=True)
        self.assertIn("Hem, straight: 40 is outside 0 to 5 7/8 in", page)

    def test_what_cannot_be_drawn_leads_back_to_the_board(self):
        self.assertEqual(self.client.get("/dockets/4/cut").status_code, 303)
        told = self.client.get("/dockets/4/files/sheets.pdf")
        self.assertEqual(told.status_code, 303)
        self.assertIn("This garment cannot be drawn as it is kept", self.get(told.location))


if __name__ == "__main__":
    unittest.main()
