"""Reading that is safe: nothing typed is spliced, lost or taken for written, by one maker or by two."""

from tests.browser.taking_case import TakingCase
from widehem.core.body.lists import FULL, in_order

ORDERED = in_order(FULL)


class Safe(TakingCase):
    def test_the_old_figure_makes_room_for_the_new_one(self):
        self.open("/wearers/4/tape?at=waist&list=full")
        self.page.wait_for_selector("#r-first:focus")
        self.assertNotEqual(self.page.input_value("#r-first"), "")
        self.page.keyboard.type("75.5")
        self.assertEqual(self.page.input_value("#r-first"), "75.5")
        self.open("/wearers/4/measure?at=hip")
        self.page.click("h1")
        self.page.click("#r-first")
        self.page.keyboard.type("98")
        self.assertEqual(self.page.input_value("#r-first"), "98")
        self.page.click("#r-first")
        self.page.keyboard.press("End")
        self.page.keyboard.type(".5")
        self.assertEqual(self.page.input_value("#r-first"), "98.5", "a second press goes into the figure")

    def test_the_yellow_button_writes_what_is_typed_and_goes_on(self):
        self.open("/wearers/4/tape?at=neck&list=full")
        self.page.wait_for_selector("#r-first:focus")
        self.page.keyboard.type("36.5")
        self.page.click(".hem .btn-tape")
        self.page.wait_for_selector(".slip-head >> text=High bust")
        self.assertEqual(self.chart(4).readings["neck"].first.typed, "36.5")
        self.assertIn("Neck of Nell Askew: 36.5 cm.", self.text("#hem-done"))
        self.page.click("#hem-done button")
        self.page.wait_for_selector("#hem-done:has-text('Taken back')")
        self.assertNotIn("neck", self.chart(4).readings)
        self.assert_quiet()

    def test_what_is_typed_and_not_written_is_said_on_every_page_of_the_wearer(self):
        self.open("/wearers/4/tape?at=neck&list=full")
        self.page.wait_for_selector("#r-first:focus")
        self.page.keyboard.type("36.5")
        for path in ("/wearers/4", "/wearers/4/charts", "/dockets/4/draft"):
            self.open(path)
            self.page.wait_for_selector("#hem-unwritten:has-text('Neck 36.5 is typed and not written')")
        self.assert_accessible()
        self.open("/wearers/1")
        self.assertFalse(self.page.is_visible("#hem-unwritten"), "of another wearer nothing")
        self.open("/wearers/4")
        self.page.click("#hem-unwritten a")
        self.page.wait_for_selector("#r-first.held")
        self.assertEqual(self.page.input_value("#r-first"), "36.5")
        self.assertFalse(self.page.is_visible("#hem-unwritten"), "it stands in its field")
        self.open("/wearers/4")
        self.page.click("#hem-unwritten button")
        self.assertFalse(self.page.is_visible("#hem-unwritten"))
        self.open("/wearers/4/tape?at=neck&list=full")
        self.assertEqual(self.page.input_value("#r-first"), "")
        self.assert_quiet()

    def test_a_session_ends_with_what_was_read(self):
        self.open(f"/wearers/4/tape?list=full&at={ORDERED[-1]}")
        self.page.click(".hem .btn-tape")
        self.page.wait_for_selector("h1:has-text('What was read of Nell Askew')")
        self.assertIn("Not read", self.text("main"))
        self.assertIn("Waist", self.text("main"))
        self.assert_accessible()
        self.page.click("text=Read what was skipped")
        self.calm()
        self.assertIn("/tape", self.page.url)


class TwoMakers(TakingCase):
    def test_each_sees_that_the_other_wrote_and_nothing_is_lost(self):
        self.open("/wearers/4/measure")
        other = self.context.new_page()
        other.goto(self.address + "/wearers/4/measure?at=waist_knee")
        other.wait_for_selector("#r-first:focus")
        other.keyboard.type("59")
        other.keyboard.press("Enter")
        other.wait_for_url("**at=height**")
        self.page.wait_for_selector("#r-first:focus")
        self.page.keyboard.type("59.4")
        self.page.wait_for_selector("#meanwhile:has-text('Somebody else wrote')", timeout=9000)
        self.assertEqual(self.page.input_value("#r-first"), "59.4")
        self.page.keyboard.press("Enter")
        self.calm()
        reading = self.chart(4).readings["waist_knee"]
        self.assertEqual((reading.first.typed, reading.second.typed), ("59", "59.4"))
        self.assertIn("kept as the second reading", self.text(".slip"))
