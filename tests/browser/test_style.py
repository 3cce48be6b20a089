"""A recipe's whole life in the browser: pointed at, chosen, pulled, kept, opened again, moved, left out, taken back, loaded again."""

import re
import unittest

from sqlalchemy import select

from tests.browser.case import BrowserCase
from tests.some import some
from widehem.store.models import Docket


class StyleInBrowser(BrowserCase):
    def station(self, name="Heron bodice"):
        with self.store.read() as session:
            number = session.scalars(select(Docket).where(Docket.name == name)).first().id
        self.open(f"/dockets/{number}/style")
        return number

    def recipe(self):
        return [re.sub(r"\s+", " ", words).strip() for words in self.page.locator(".recipe .step-words").all_inner_texts()]

    def press(self, selector):
        self.page.locator(selector).first.click()
        self.calm()

    def keep(self):
        self.press("button:has-text('Keep this step'), button:has-text('Keep the change')")
        self.page.wait_for_selector(".recipe")


class Life(StyleInBrowser):
    def test_from_pointing_to_taking_back(self):
        page = self.page
        self.station()
        page.locator("a.pick").first.focus()
        place = page.locator("a.pick[href*='bust_dart']").first
        place.focus()
        page.keyboard.press("Enter")
        page.wait_for_selector(".offers")
        self.assertIn("bust dart", self.text(".slip-body"))
        self.press(".offers a:has-text('Panel line')")
        page.wait_for_selector(".is-over .before")
        self.keep()
        page.goto(page.url.split("?")[0] + "?do=neck.shape")
        page.wait_for_selector(".pull")
        self.keep()
        self.assertEqual(len(self.recipe()), 2)
        self.assertIn("Panel line", self.recipe()[0])
        self.press(".step-tools button[value=down]")
        self.assertIn("Panel line", self.recipe()[1])
        self.press(".recipe li:first-child button[value=off]")
        self.assertEqual(page.locator(".recipe .is-off").count(), 1)
        page.reload()
        self.assertEqual(page.locator(".recipe .is-off").count(), 1)
        for left in (0, 0):
            page.keyboard.press("o")
            self.page.wait_for_timeout(400)
            self.calm()
            self.assertEqual(page.locator(".recipe .is-off").count(), left)
        self.assertIn("Panel line", self.recipe()[0])
        page.keyboard.press("y")
        page.wait_for_timeout(400)
        self.calm()
        self.assertIn("Panel line", self.recipe()[1])
        self.press(".recipe li:last-child button[value=away]")
        self.assertEqual(len(self.recipe()), 1)
        self.assert_quiet()

    def test_an_earlier_step_is_changed_and_all_after_it_are_drawn_again(self):
        page = self.page
        self.station("Ferry master's waistcoat")
        before = page.locator("#style-board").inner_html()
        self.press(".recipe li:first-child .step-words")
        page.wait_for_selector("form[data-live]")
        field = page.locator("form[data-live] input[name='s.high'], form[data-live] input[name^='s.']").first
        field.fill("4 cm")
        field.press("Enter")
        self.calm()
        page.wait_for_timeout(300)
        self.keep()
        self.assertEqual(len(self.recipe()), 13)
        self.assertNotEqual(page.locator("#style-board").inner_html(), before)
        self.assertIn("4.0", self.recipe()[0])
        self.assert_quiet()

    def test_an_amount_is_pulled_on_the_table_and_by_key(self):
        page = self.page
        number = self.station()
        self.open(f"/dockets/{number}/style?do=neck.shape")
        pull = page.locator(".pull").first
        was, x, y = (float(pull.get_attribute(name)) for name in ("aria-valuenow", "data-x", "data-y"))
        box = pull.locator(".pull-dot").bounding_box()
        at = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        page.mouse.move(*at)
        page.mouse.down()
        page.mouse.move(at[0] + 12 * x, at[1] + 12 * y, steps=3)
        page.mouse.up()
        page.wait_for_timeout(500)
        self.calm()
        pulled = float(page.locator(".pull").first.get_attribute("aria-valuenow"))
        self.assertGreater(pulled, was + 0.3)
        page.locator(".pull").first.focus()
        page.keyboard.press("ArrowLeft")
        page.wait_for_timeout(500)
        self.calm()
        self.assertAlmostEqual(float(page.locator(".pull").first.get_attribute("aria-valuenow")), pulled - 0.5, delta=0.06)
        self.assertIn("s.wider=", page.url)
        self.assert_quiet()

    def test_where_an_edge_is_pressed_is_where_it_is_cut(self):
        page = self.page
        self.station()
        edge = page.locator("a.pick[href*='front~'][href*='~edge'] .reach").first
        box = edge.bounding_box()
        before = page.locator("a.pick[href*='front~'][href*='~edge']").first.get_attribute("href")
        page.mouse.click(box["x"] + box["width"] * 0.9, box["y"] + box["height"] * 0.5)
        page.wait_for_timeout(400)
        self.calm()
        self.assertNotIn(before.split("at=")[1], page.url)


class Seen(StyleInBrowser):
    def test_nothing_that_axe_finds(self):
        number = self.station()
        for at in ("", "?at=front~shoulder~bust_dart~dart", "?do=neck.shape", "?do=neck.shape&s.wider=11+cm"):
            self.open(f"/dockets/{number}/style{at}")
            self.calm()
            self.assert_accessible()
        for path in some(("/designs", "/designs/15", "/designs/15/everybody", "/wearers/7/costumes"), 2):
            self.open(path)
            self.calm()
            page = self.page
            page.wait_for_timeout(600)
            self.assert_accessible()
            wide = page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth")
            self.assertLessEqual(wide, 0, path)


if __name__ == "__main__":
    unittest.main()
