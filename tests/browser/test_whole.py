"""Whole garments in a real browser: from the gallery to a suit, the sweep of a gown, the folded lapel of a coat."""

import unittest

from tests.browser.case import BrowserCase


class Whole(BrowserCase):
    def test_from_the_gallery_to_a_suit(self):
        page = self.page
        self.open("/wearers/8/schools")
        self.assertEqual(
            page.locator("h2.band").all_inner_texts(), ["Bodices", "Sleeves", "Skirts", "Trousers", "Whole garments"]
        )
        page.fill("#find", "suit")
        page.press("#find", "Enter")
        self.calm()
        page.wait_for_selector("article.school:first-of-type[id='suit.one_piece']")
        self.assertEqual(page.locator("article.school").count(), 1)
        self.assert_accessible()
        page.fill("article[id='suit.one_piece'] input[name=docket]", "Flood suit")
        page.press("article[id='suit.one_piece'] input[name=docket]", "Enter")
        self.calm()
        self.assertIn("Flood suit", self.text("h1"))
        self.assertEqual(page.locator(".check.is-not").count(), 0)
        page.click("details.caution summary")
        self.assertIn("water, breaks, cooling", self.text("details.caution"))
        page.click(".slip-tabs >> text=Settings")
        self.calm()
        page.select_option("[id='f-o.opening_at']", "none")
        self.calm()
        self.assertEqual(page.locator(".check.is-not").count(), 1)
        page.click(".slip-tabs >> text=Checks")
        self.calm()
        self.assertIn("The wearer cannot get in", self.text(".all-checks"))
        page.click("text=Open the centre front")
        self.calm()
        self.assertEqual(page.locator(".check.is-not").count(), 0)
        self.assert_accessible()
        self.assert_quiet()

    def test_the_sweep_of_a_gown_is_changed(self):
        page = self.page
        self.open("/dockets/17/draft?slip=settings")
        self.assertEqual(page.locator(".views >> text=Gore").count(), 1)
        page.fill("[id='f-o.sweep']", "200")
        page.keyboard.press("Enter")
        self.calm()
        self.assertEqual(page.locator(".views >> text=Gore").count(), 0)
        page.fill("[id='f-o.sweep']", "480 cm")
        page.keyboard.press("Enter")
        self.calm()
        page.select_option("[id='f-o.gores']", "all")
        self.calm()
        page.click(".slip-tabs >> text=Steps")
        self.calm()
        self.assertIn("480.0", self.text("dd.res"))
        self.assertIn("4 gores of", self.text(".told"))
        page.click(".slip-tabs >> text=Settings")
        self.calm()
        page.fill("[id='f-o.sweep']", "1000")
        page.keyboard.press("Enter")
        self.calm()
        self.assertIn("set them into more seams, begin them higher", self.text(".refusal"))
        self.assertEqual(page.input_value("[id='f-o.sweep']"), "1000.0")
        self.assert_quiet()

    def test_the_lapel_of_a_coat_is_shown_folded(self):
        page = self.page
        self.open("/dockets/19/draft")
        self.assertEqual(page.locator("#board .folded").count(), 0)
        page.click(".views >> text=Lapel folded")
        self.calm()
        box = page.locator("#board .piece.folded").bounding_box()
        self.assertGreater(box["width"], 60)
        page.click(".slip-tabs >> text=Settings")
        self.calm()
        page.select_option("[id='f-o.breast']", "single")
        self.calm()
        single = page.locator("#board .piece.folded").bounding_box()
        self.assertNotAlmostEqual(single["width"], box["width"], delta=1)
        self.open("/dockets/19/cut/list")
        self.assertIn("Interfacing", self.text(".bench"))
        self.assert_accessible()
        self.assert_quiet()


if __name__ == "__main__":
    unittest.main()
