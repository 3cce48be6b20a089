"""The style station: a recipe's life on a garment, places that are pointed at, steps that do not fit."""

import html
import re
from urllib.parse import parse_qsl, urlsplit

from sqlalchemy import select

from tests.web.case import WebCase
from widehem.store.models import DesignRow, Docket
from widehem.store.recipes import steps_of

HERON = "Heron bodice"


class StyleCase(WebCase):
    def docket(self, name=HERON):
        with self.store.read() as session:
            return session.scalars(select(Docket).where(Docket.name == name)).first().id

    def steps(self, docket_id):
        with self.store.read() as session:
            return [(step.code, step.off) for step in steps_of(session.get(Docket, docket_id).design)]

    def links(self, page, words):
        return [
            html.unescape(href)
            for href, text in re.findall(r'<a[^>]* ?href="([^"]+)"[^>]*>(.*?)</a>', page, re.S)
            if words in text
        ]

    def keep(self, docket_id, query):
        page = self.get(f"/dockets/{docket_id}/style?{query}")
        good = html.unescape(re.search(r'name="good" value="([^"]*)"', page)[1])
        version = re.search(r'name="version" value="(\d+)"', page)[1]
        return self.post(f"/dockets/{docket_id}/style/keep", {"good": good, "version": version})


class OnTheTable(StyleCase):
    def test_every_edge_and_dart_of_the_block_leads_to_what_can_be_done_there(self):
        number = self.docket()
        page = self.get(f"/dockets/{number}/style")
        picks = [html.unescape(href) for href in re.findall(r'<a href="([^"]+)" class="pick', page)]
        self.assertGreater(len(picks), 14)
        for href in picks:
            there = self.get(href)
            self.assertIn("What can be done here", there)
            self.assertIn('class="offer-pic"', there)

    def test_a_place_says_what_can_be_done_in_words_with_a_picture(self):
        number = self.docket()
        page = self.get(f"/dockets/{number}/style?at=front~shoulder~bust_dart~dart")
        for words in ("Swing a dart", "Divide a dart", "Let a dart go", "Panel line through the darts"):
            self.assertIn(words, page)
        self.assertRegex(page, r'class="offer-pic"><svg')

    def test_what_is_not_there_any_more_is_left_out(self):
        number = self.docket()
        for at in ("nose~waist~1~edge", "front~nose~1~edge", "front~waist~x~edge", "front", "front~waist~hat~dart", "~~~"):
            self.assertIn("The recipe", self.get(f"/dockets/{number}/style?at={at}"))
        self.assertIn("The recipe", self.get(f"/dockets/{number}/style?do=hat.cut"))

    def test_before_and_after_lie_over_each_other(self):
        page = self.get(f"/dockets/{self.docket()}/style?at=front~shoulder~bust_dart~dart&do=panel.line")
        self.assertIn('class="before"', page)
        self.assertIn('class="after"', page)
        self.assertIn("Keep this step", page)

    def test_a_step_that_does_not_fit_says_what_would(self):
        page = self.get(f"/dockets/{self.docket()}/style?do=neck.shape&s.wider=11+cm")
        self.assertIn("Does not fit", page)
        self.assertRegex(page, r"widen by \d\.\d cm at most")
        self.assertNotIn("Keep this step", page)

    def test_a_figure_out_of_range_names_the_field(self):
        page = self.get(f"/dockets/{self.docket()}/style?do=neck.shape&s.wider=90+cm")
        self.assertIn("Wider at the shoulder 90.0 is outside 0.0 to 12.0 cm", page)
        self.assertIn('value="90 cm"', page)

    def test_in_inches(self):
        self.client.set_cookie("wh_unit", "in")
        page = self.get(f"/dockets/{self.docket()}/style?do=ease.outer")
        self.assertNotRegex(page, r"\d cm\b")


class Recipe(StyleCase):
    def test_kept_moved_left_out_and_taken_away_and_all_of_it_undone(self):
        number = self.docket()
        self.keep(number, "at=front~shoulder~bust_dart~dart&do=panel.line")
        self.keep(number, "do=ease.outer")
        self.assertEqual(self.steps(number), [("panel.line", False), ("ease.outer", False)])
        page = self.get(f"/dockets/{number}/style")
        self.assertIn("Panel line through the darts from the bust dart of the front shoulder", page)
        steps = re.findall(rf"/dockets/{number}/style/step/(\w+)", page)
        self.post(f"/dockets/{number}/style/step/{steps[1]}", {"what": "up"})
        self.assertEqual(self.steps(number), [("ease.outer", False), ("panel.line", False)])
        self.post(f"/dockets/{number}/style/step/{steps[0]}", {"what": "off"})
        self.assertEqual(self.steps(number), [("ease.outer", False), ("panel.line", True)])
        self.post(f"/dockets/{number}/style/step/{steps[1]}", {"what": "away"})
        self.assertEqual(self.steps(number), [("panel.line", True)])
        before = [
            [("ease.outer", False), ("panel.line", True)],
            [("ease.outer", False), ("panel.line", False)],
            [("panel.line", False), ("ease.outer", False)],
        ]
        for wanted in before:
            page = self.get(f"/dockets/{number}/style")
            self.walk(page, "Undo")
            self.assertEqual(self.steps(number), wanted)
        for wanted in (before[1], before[0], [("panel.line", True)]):
            self.walk(self.get(f"/dockets/{number}/style"), "Redo")
            self.assertEqual(self.steps(number), wanted)
        page = self.get(f"/dockets/{number}/style")
        self.assertNotIn("</kbd> Redo", page)
        for _ in range(5):
            self.walk(page, "Undo")
            page = self.get(f"/dockets/{number}/style")
        self.assertEqual(self.steps(number), [])
        self.keep(number, "do=strip.cut")
        self.assertNotIn("</kbd> Redo", self.get(f"/dockets/{number}/style"))

    def walk(self, page, words):
        form = next(part for part in page.split("<form")[1:] if f"</kbd> {words}" in part.split("</form>")[0])
        self.post(re.search(r'action="([^"]+)"', form)[1], {})

    def test_a_step_is_opened_again_and_changed_where_it_stands(self):
        number = self.docket()
        self.keep(number, "do=ease.outer")
        self.keep(number, "do=length.adjust&s.below=-5+cm&s.by=3+cm")
        page = self.get(f"/dockets/{number}/style")
        opened = self.links(page, "Outer ease")[0]
        there = self.get(opened)
        self.assertIn("Keep the change", there)
        step = dict(parse_qsl(urlsplit(opened).query))["open"]
        self.keep(number, f"do=ease.outer&step={step}&s.tip=1.2+cm")
        with self.store.read() as session:
            steps = steps_of(session.get(Docket, number).design)
        self.assertEqual([s.code for s in steps], ["ease.outer", "length.adjust"])
        self.assertEqual(steps[0].settings, {"tip": 1.2})

    def test_an_amount_may_be_a_formula(self):
        number = self.docket()
        self.keep(number, "do=strip.cut&s.long=waist+%2B+20")
        page = self.get(f"/dockets/{number}/style")
        self.assertIn("length waist + 20", page)

    def test_a_block_gets_a_design_of_its_own_and_others_keep_the_block(self):
        number = self.docket()
        with self.store.read() as session:
            block = session.get(Docket, number).design_id
        self.keep(number, "do=ease.outer")
        with self.store.read() as session:
            docket = session.get(Docket, number)
            self.assertNotEqual(docket.design_id, block)
            self.assertTrue(docket.design.own)
            self.assertEqual(docket.design.name, HERON)
            self.assertEqual(session.get(DesignRow, block).steps, [])

    def test_what_others_follow_can_be_changed_for_one_alone(self):
        number = self.docket("Ferry master's waistcoat")
        page = self.get(f"/dockets/{number}/style?do=strip.cut")
        self.assertIn("follows this design", page)
        good = html.unescape(re.search(r'name="good" value="([^"]*)"', page)[1])
        version = re.search(r'name="version" value="(\d+)"', page)[1]
        self.post(f"/dockets/{number}/style/keep", {"good": good, "version": version, "scope": "one"})
        with self.store.read() as session:
            mine = session.get(Docket, number)
            other = session.scalars(select(Docket).where(Docket.name == mine.name, Docket.id != number)).first()
            self.assertEqual(len(mine.design.steps), len(other.design.steps) + 1)

    def test_somebody_else_was_faster(self):
        number = self.docket()
        self.keep(number, "do=ease.outer")
        late = self.post(f"/dockets/{number}/style/keep", {"good": "do=bones.set", "version": "1"})
        if "meanwhile" in late.location:
            self.assertIn("changed by somebody else", self.get(late.location))

    def test_the_draft_the_truing_and_the_paper_show_what_the_recipe_made(self):
        number = self.docket("Ferry master's waistcoat")
        for page in ("draft", "walk", "cut", "draft?slip=checks"):
            self.get(f"/dockets/{number}/{page}")
        data = self.client.get(f"/dockets/{number}/files/svg")
        self.assertIn(data.status_code, (200, 404))
        self.assertIn("Side panel", self.get(f"/dockets/{number}/cut").replace("side panel", "Side panel"))


class Nobody(StyleCase):
    def test_no_such_garment_or_step(self):
        self.get("/dockets/999/style", 404)
        number = self.docket()
        self.post(f"/dockets/{number}/style/step/zzz", {"what": "up"}, 404)
        self.post(f"/dockets/{number}/style/step/zzz", {"what": "fly"}, 400)


class Inside(StyleCase):
    def test_a_level_and_a_landmark_lead_to_what_can_be_done_there(self):
        number = self.docket()
        for at, words in (
            ("front~~bust~inside", ("Lengthen or shorten", "Cut along a line")),
            ("front~~waist~inside", ("Lengthen or shorten",)),
            ("front~~bust_point~inside", ("Panel line", "Swing a dart", "Full")),
        ):
            page = self.get(f"/dockets/{number}/style?at={at}")
            self.assertIn("What can be done here", page)
            for word in words:
                self.assertIn(word, page, at)
            self.assertIn("<svg viewBox", page)

    def test_a_level_is_taken_as_it_was_pointed_at(self):
        number = self.docket()
        page = self.get(f"/dockets/{number}/style?at=front~~waist~inside")
        href = next(link for link in self.links(page, "Lengthen or shorten") if "inside" in link)
        there = self.get(href)
        self.assertIn("Keep this step", there)
        self.keep(number, href.split("?")[1])
        with self.store.read() as session:
            (step,) = steps_of(session.get(Docket, number).design)
        self.assertEqual((step.settings["level"], step.settings["below"]), ("waist", -6.0))

    def test_what_is_cut_at_a_level_is_cut_there_on_any_body(self):
        number = self.docket()
        page = self.get(f"/dockets/{number}/style?at=back~~bust~inside")
        self.keep(number, self.links(page, "Cut along a line")[0].split("?")[1])
        with self.store.read() as session:
            (step,) = steps_of(session.get(Docket, number).design)
        self.assertEqual({(where.kind, where.place) for where in step.wheres.values()}, {("level", "bust")})

    def test_nothing_inside_that_is_not_there(self):
        number = self.docket()
        for at in ("front~~nose~inside", "nose~~bust~inside", "front~~~inside"):
            self.assertIn("The recipe", self.get(f"/dockets/{number}/style?at={at}"))


class InInches(StyleCase):
    def test_a_figure_that_is_left_as_it_is_shown_stays_to_the_last_digit(self):
        number = self.docket()
        self.keep(number, "do=neck.shape&s.wider=1.3+cm")
        self.client.set_cookie("wh_unit", "in")
        page = self.get(f"/dockets/{number}/style?open={self.step(number).id}")
        shown = dict(re.findall(r'name="(s\.\w+)" value="([^"]*)"', page))
        self.assertEqual(shown["s.wider"], "1/2")
        fields = "&".join(f"{key}={value.replace(' ', '+')}" for key, value in {**shown, "s.lower": "3 in"}.items())
        self.keep(number, f"do=neck.shape&step={self.step(number).id}&{fields}")
        self.assertEqual(self.step(number).settings, {"wider": 1.3, "lower": 7.62})

    def step(self, number):
        with self.store.read() as session:
            (step,) = steps_of(session.get(Docket, number).design)
        return step
