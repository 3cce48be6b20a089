"""Fittings in a real browser: an alteration tried and kept, a fitting on a phone without a network, and what came of it."""

import unittest

from tests.browser.case import BrowserCase
from widehem.demo.portrait import portrait

BODICE, SMOCK = 8, 10


class Fit(BrowserCase):
    def test_an_alteration_is_tried_kept_and_another_on_top_of_it(self):
        page = self.page
        self.open(f"/dockets/{BODICE}/fit")
        page.click("text=Across back or chest")
        self.calm()
        page.fill("#f-s\\.by", "1.4")
        page.keyboard.press("Tab")
        page.wait_for_selector("text=It is 1.4 cm wider across back and chest.")
        self.assertGreater(page.locator(".style-table path").count(), 4)
        page.fill("#fit-why", "cannot reach")
        page.click(".next >> text=Keep the alteration") if page.locator(
            ".next >> text=Keep the alteration"
        ).count() else page.click("#keep-alteration button")
        self.calm()
        page.wait_for_selector("text=Why: cannot reach")
        page.click("text=Shoulder slope")
        self.calm()
        page.click("#keep-alteration button")
        self.calm()
        page.wait_for_selector(".recipe li >> nth=1")
        self.assertEqual(page.locator(".recipe > li").count(), 2)
        page.keyboard.press("o")
        page.wait_for_function("() => document.querySelectorAll('.recipe > li').length === 1")
        self.assert_accessible()
        self.assert_quiet()

    def test_a_cause_of_a_sign_is_tried(self):
        page = self.page
        self.open("/fit/rounds/1")
        self.assert_accessible()
        page.click(".causes a >> nth=0")
        self.calm()
        self.assertGreater(page.locator("#keep-alteration").count(), 0)
        self.assert_quiet()

    def test_a_second_toile_is_cut_from_what_the_first_one_told(self):
        page = self.page
        self.open(f"/dockets/{BODICE}/fit/rounds")
        page.click("text=Begin the fitting")
        page.wait_for_selector(".fit-figure")
        page.select_option("#n-sign", "cannot_reach")
        page.select_option("#n-way", "out")
        page.fill("#n-pinned", "1.2")
        page.click("text=Note it >> nth=0")
        page.click(".causes a:has-text('The back is narrow across')")
        self.calm()
        page.wait_for_selector("text=It is 1.2 cm wider across the back.")
        page.click("#keep-alteration button")
        page.wait_for_selector(".recipe > li >> text=Across back or chest")
        page.click("text=Versions of this garment")
        self.calm()
        page.click(".acts a:has-text('Lay it over') >> nth=0")
        self.calm()
        self.assert_quiet()
        first = self.made_card()
        self.open(f"/dockets/{BODICE}/fit/rounds")
        page.click("text=Begin the fitting")
        page.wait_for_selector("text=fitting 2")
        page.set_input_files("#n-pictures", {"name": "back.jpg", "mimeType": "image/jpeg", "buffer": portrait()})
        page.fill("#n-under", "the second toile")
        page.click("text=Keep the pictures")
        page.wait_for_selector(".two-up figcaption:has-text('the second toile')")
        self.assert_accessible()
        self.open(f"/dockets/{BODICE}/versions")
        page.click("form button:has-text('Bring it back') >> nth=0")
        self.calm()
        self.assertNotEqual(self.made_card(), first, "without the alteration it is another paper")
        self.assert_quiet()

    def made_card(self):
        """What is written of the garment in figures now."""
        return self.page.request.get(f"{self.address}/dockets/{BODICE}/files/draft.json").text()

    def test_the_stand_test_and_the_room(self):
        for view in ("stand", "room"):
            self.open(f"/dockets/{SMOCK}/fit/{view}")
            self.assert_accessible()
        self.assertGreater(self.page.locator(".a-room").count(), 2)
        self.assert_quiet()


class Phone(BrowserCase):
    size = (390, 844)

    def test_notes_wait_without_a_network_and_are_kept_once_it_is_back(self):
        page = self.page
        self.open(f"/dockets/{BODICE}/fit/rounds")
        page.click("text=Begin the fitting")
        self.calm()
        page.wait_for_selector(".fit-figure")
        page.click(".look-ats fieldset:has-text('Neckline') button:has-text('good')")
        page.wait_for_selector(".look-ats fieldset:has-text('Neckline') button.is-on")
        self.calm()
        self.context.set_offline(True)
        page.click(".look-ats fieldset:has-text('Armhole') button:has-text('alter')")
        page.wait_for_selector("text=1 note waits on this device")
        figure = page.locator('.fit-figure[data-figure="back"]')
        figure.scroll_into_view_if_needed()
        box = figure.bounding_box()
        figure.click(position={"x": box["width"] * 0.6, "y": box["height"] * 0.3})
        self.assertAlmostEqual(float(page.input_value("input[name=y]")), 0.3, delta=0.06)
        page.select_option("#n-sign", "cannot_reach")
        page.select_option("#n-way", "out")
        page.fill("#n-pinned", "1.2")
        page.click("text=Note it >> nth=0")
        page.wait_for_selector("text=2 notes wait on this device")
        self.complaints.clear()  # that there was no network
        self.context.set_offline(False)
        page.wait_for_selector(".sign h3")
        self.assertIn("let out by 1.2 cm", self.text(".sign h3").replace("\xa0", " "))
        page.reload()
        self.assertTrue(page.locator(".look-ats fieldset:has-text('Armhole') button.is-on").is_visible())
        self.assertEqual(page.locator(".fit-mark").count(), 1)
        self.assertEqual(page.evaluate("Object.keys(localStorage).filter(k => k.startsWith('wh-fit:')).length"), 0)
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)
        self.assert_quiet()

    def test_what_cannot_be_kept_is_said_and_what_waits_outlives_a_reload(self):
        page = self.page
        self.open("/fit/rounds/2")
        page.fill("#n-words", "the lace scratches")
        page.select_option("#n-way", "out")
        page.fill("#n-pinned", "lots")
        page.click("text=Note it >> nth=0")
        page.wait_for_selector("text=Pinned:")
        self.assertEqual(page.input_value("#n-words"), "the lace scratches")
        page.route("**/notes", lambda route: route.abort())
        page.fill("#n-pinned", "0.5")
        page.click("text=Note it >> nth=0")
        page.wait_for_selector("text=1 note waits on this device")
        page.reload()
        page.wait_for_selector("text=1 note waits on this device")
        page.unroute("**/notes")
        page.evaluate("() => window.dispatchEvent(new Event('online'))")
        page.wait_for_selector(".sign h3")
        self.assertIn("The lace scratches", self.text(".sign h3"))

    def test_of_several_that_waited_the_one_that_cannot_be_kept_is_shown_and_the_others_are_kept(self):
        page = self.page
        self.open("/fit/rounds/2")
        page.route("**/notes", lambda route: route.abort())
        page.fill("#n-words", "the lace scratches")
        page.fill("#n-pinned", "lots")
        page.click("text=Note it >> nth=0")
        page.wait_for_selector("text=1 note waits on this device")
        page.fill("#n-note", "sat down at four")
        page.click("text=Note it >> nth=1")
        page.wait_for_selector("text=2 notes wait on this device")
        page.unroute("**/notes")
        page.evaluate("() => window.dispatchEvent(new Event('online'))")
        page.wait_for_selector(".told-list >> text=sat down at four")
        refused = self.text(".fit-refused li")
        for words in ("the lace scratches", "pinned lots", "Pinned:"):
            self.assertIn(words, refused)
        page.reload()
        page.click(".fit-refused button")
        self.assertEqual(page.locator(".fit-refused li").count(), 0)
        self.assertEqual(page.evaluate("Object.keys(localStorage).filter(k => k.startsWith('wh-refused:')).length"), 0)

    def test_three_of_one_day_are_open_at_once(self):
        numbers = []
        for docket in (BODICE, SMOCK, 11):
            self.open(f"/dockets/{docket}/fit/rounds")
            self.page.click("text=Begin the fitting")
            self.page.wait_for_selector(".fit-figure")
            numbers.append(self.page.url)
        second = self.context.new_page()
        second.goto(numbers[0])
        self.page.click(".look-ats fieldset:has-text('Seat') button:has-text('see again')")
        second.click(".look-ats fieldset:has-text('Neckline') button:has-text('good')")
        second.wait_for_selector(".look-ats fieldset:has-text('Neckline') button.is-on")
        self.page.wait_for_selector(".look-ats fieldset:has-text('Seat') button.is-on")
        second.reload()
        self.assertEqual(second.locator(".look-ats button.is-on").count(), 1)
        self.assertEqual(second.locator(".beside a").count(), 2)


if __name__ == "__main__":
    unittest.main()
