"""Drafts for good cloth in a real browser: a sleeve for a measured armhole, a short sleeve, a belly, close knit trousers, a check
accepted with a word, a value of the house, what a school does here."""

import unittest

from tests.browser.case import BrowserCase


class GoodCloth(BrowserCase):
    def change(self, field, value):
        self.page.fill(field, value)
        self.page.press(field, "Enter")
        self.calm()

    def test_a_sleeve_for_a_measured_armhole(self):
        page = self.page
        self.open("/wearers/7/schools?find=triangle")
        page.click("text=For a garment that exists")
        self.calm()
        self.assert_accessible()
        self.change("#a-front", "24")
        self.change("#a-back", "25.5")
        self.assertIn("49.5 cm round", self.text(".slip"))
        self.assertIn("hangs straight", self.text(".trial"))
        page.select_option("#a-shoulder", "over")
        self.calm()
        self.change("#a-off", "3")
        self.assertIn("drops 3.0 cm over the bone is mended first", self.text("#table"))
        self.assertEqual(page.locator(".trial").count(), 0)
        page.select_option("#a-shoulder", "bone")
        self.calm()
        page.fill("#a-name", "Oilskin sleeve")
        page.click("text=Begin the garment")
        self.calm()
        self.assertIn("Oilskin sleeve", self.text("h1"))
        self.assertIn("measured armhole, 24.0 front, 25.5 back", self.text(".sub"))
        page.click(".sub >> text=measured armhole")
        self.calm()
        self.assertEqual(page.input_value("#a-front"), "24 cm")
        self.assert_quiet()

    def test_a_short_sleeve_does_not_strangle(self):
        page = self.page
        self.open("/dockets/9/draft")
        self.change("[id='f-o.length']", "24")
        self.assertIn("True", self.text(".check:has-text('Arm in the hem')"))
        page.click(".check:has-text('Arm in the hem')")
        self.calm()
        self.assertIn("It has room.", self.text(".slip"))
        self.assert_quiet()

    def test_a_belly_leans_the_centre_front_out(self):
        page = self.page
        self.open("/wearers/9/schools?find=two-panel")
        page.fill("article[id='skirt.two_panel'] input[name=docket]", "Judge's skirt")
        page.press("article[id='skirt.two_panel'] input[name=docket]", "Enter")
        self.calm()
        self.assertIn("In front the waist is", self.text(".told"))
        self.assertIn("the side stays upright", self.text(".told"))
        page.click(".slip-tabs >> text=Checks")
        self.calm()
        self.assertIn("Side upright", self.text(".slip"))
        self.assert_quiet()

    def test_close_knit_trousers(self):
        page = self.page
        self.open("/dockets/12/draft?slip=settings")
        page.select_option("[id='f-o.waistline']", "band")
        self.calm()
        page.click("details[data-fold=cloth] > summary")
        page.select_option("[id='f-o.cloth']", "knit")
        self.calm()
        self.change("[id='f-o.stretch']", "60")
        self.change("[id='f-e.hip']", "-8")
        self.change("[id='f-e.waist']", "-4")
        self.assertEqual(page.locator(".doubt.refusal").count(), 0)
        self.assertEqual(page.locator("#board .mark.dart").count(), 0)
        self.assertEqual(page.input_value("[id='f-e.hip']"), "−8.0")
        page.click(".slip-tabs >> text=Checks")
        self.calm()
        self.assertNotIn("Not true", self.text(".hem"))
        self.assert_quiet()

    def test_a_check_is_accepted_with_a_word(self):
        page = self.page
        self.open("/dockets/11/draft?slip=checks&lit=crotch.seam")
        self.assert_accessible()
        page.click("summary:has-text('Accept it with a word') >> nth=0")
        page.fill("details.accept[open] input[name=word]", "stretched at the machine")
        page.fill("details.accept[open] input[name=by]", "O.M.")
        page.press("details.accept[open] input[name=by]", "Enter")
        self.calm()
        self.assertIn("Accepted: stretched at the machine, O.M.", self.text(".slip"))
        page.click(".accepted >> text=Take it back")
        self.calm()
        self.assertNotIn("stretched at the machine", self.text(".slip"))
        self.assert_quiet()

    def test_a_value_of_the_house(self):
        page = self.page
        self.open("/")
        page.click("[aria-label='Open the house values']")
        self.calm()
        self.assert_accessible()
        page.click(".zones >> text=Two-panel skirt block")
        self.calm()
        page.fill("[id='h-e.waist']", "1")
        page.click("text=Keep these as the house's")
        self.calm()
        self.assertEqual(page.input_value("[id='h-e.waist']"), "1.0")
        self.open("/wearers/1/schools?find=two-panel")
        page.fill("article[id='skirt.two_panel'] input[name=docket]", "House skirt")
        page.press("article[id='skirt.two_panel'] input[name=docket]", "Enter")
        self.calm()
        page.click(".slip-tabs >> text=Settings")
        self.calm()
        self.assertIn("the house's", self.text(".opt:has([id='f-e.waist'])"))
        self.change("[id='f-e.waist']", "2")
        self.assertNotIn("the house's\n", self.text(".opt:has([id='f-e.waist'])").split("back")[0] + "\n")
        page.click(".opt:has([id='f-e.waist']) >> text=back to the house's")
        self.calm()
        self.assertEqual(page.input_value("[id='f-e.waist']"), "1.0")
        self.assert_accessible()
        self.assert_quiet()

    def test_what_each_school_does_here(self):
        page = self.page
        self.open("/dockets/11/draft?slip=settings")
        page.click(".opt:has([id='f-o.fork']) >> text=what each does here")
        self.calm()
        words = self.text(".ways")
        self.assertIn("As it is drawn now.", words)
        self.assertRegex(words, r"front crotch [+−]\d")
        page.select_option("[id='f-o.fork']", "hip")
        self.calm()
        self.assertIn("By the hip", self.text(".ways dt.is-now"))
        self.assert_accessible()
        self.assert_quiet()


if __name__ == "__main__":
    unittest.main()
