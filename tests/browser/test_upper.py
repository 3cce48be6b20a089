"""Upper bodies in a real browser: choose a school, draft, set a sleeve to it, lower the cap, walk, mend, compare."""

import re
import unittest

from tests.browser.case import BrowserCase
from tests.some import some

GAPES = r"The front is (\d\.\d) cm longer and gapes"


class Upper(BrowserCase):
    def test_from_the_school_to_the_sleeve(self):
        page = self.page
        self.open("/wearers/8")
        page.click("text=Choose a method")
        self.calm()
        self.assert_accessible()
        page.fill("article[id='bodice.cup_wedge'] input[name=docket]", "Swan bodice")
        page.press("article[id='bodice.cup_wedge'] input[name=docket]", "Enter")
        self.calm()
        self.assertIn("Swan bodice", self.text("h1"))
        self.assertIn("True", self.text(".hem"))
        self.assertEqual(page.locator("#board").count(), 1)
        self.open("/wearers/8/schools?find=guide")
        page.fill("article[id='sleeve.guide_box'] input[name=docket]", "Swan sleeve")
        page.press("article[id='sleeve.guide_box'] input[name=docket]", "Enter")
        self.calm()
        self.assertIn("for the armhole of Swan bodice", self.text(".sub"))
        page.click(".slip-tabs >> text=Settings")
        self.calm()
        page.select_option("[id='f-o.cap_height']", "low")
        self.calm()
        page.click(".slip-tabs >> text=Steps")
        self.calm()
        self.assertIn("A lower cap is wider", self.text(".told"))
        self.assertEqual(page.locator(".doubt.refusal").count(), 0)
        page.click("text=Keep")
        self.calm()
        self.assert_quiet()

    def test_walking_the_armholes_and_a_seam(self):
        page = self.page
        self.open("/dockets/8/draft?slip=checks")
        page.click("text=Walk a seam")
        self.calm()
        self.assert_accessible()
        page.focus("#w-at")
        for _ in range(5):
            page.keyboard.press("ArrowRight")
        page.wait_for_selector(".walked:has-text('2.5')")
        self.open("/dockets/9/walk")
        page.select_option("#w-seam", "cap_front")
        self.calm()
        self.assertIn("Cap in the front armhole", self.text("h1"))
        page.click("table >> text=pitch notch")
        self.calm()
        self.assertIn("at=13", page.url)
        self.open("/dockets/8/walk")
        page.select_option("#w-seam", "armholes")
        self.calm()
        self.assertIn("Armholes over each other", self.text("h1"))
        self.assert_quiet()

    def test_mending_an_untrue_front_armhole(self):
        page = self.page
        self.open("/dockets/10/draft?slip=checks")
        before = float(re.search(GAPES, self.text(".all-checks"))[1])
        page.click("text=True it as far as may be")
        self.calm()
        after = float(re.search(GAPES, self.text(".all-checks"))[1])
        self.assertLess(after, before - 0.7, "as far as it may")
        page.click("text=Drop")
        self.calm()
        self.assertIn("longer and gapes", self.text(".all-checks"))

    def test_comparing_two_schools(self):
        page = self.page
        self.open("/dockets/8/compare")
        page.select_option("#k-with", "method:bodice.proportional")
        self.calm()
        page.select_option("#k-at", "underarm")
        self.calm()
        self.assertIn("at=underarm", page.url)
        self.assertGreater(page.locator("tr.is-changed").count(), 3)
        self.assert_accessible()
        self.assert_quiet()

    def test_small_screens(self):
        for turn, size in enumerate(((1024, 768), (390, 844))):
            self.page.set_viewport_size({"width": size[0], "height": size[1]})
            for path in some(
                ("/wearers/8/schools", "/dockets/8/compare", "/dockets/8/walk", "/dockets/8/draft", "/dockets/9/draft"), 2, turn
            ):
                with self.subTest(path, size=size):
                    self.open(path)
                    self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), size[0])
                    self.assert_accessible()


if __name__ == "__main__":
    unittest.main()
