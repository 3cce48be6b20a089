"""Grading in a real browser: dots by key, a rule at the board, a size picked out, the lens, sizes mixed, a cast planned, the rail."""

import re
import unittest

from tests.browser.case import BrowserCase

SHIRT, WAISTCOAT = 16, 15


class Sizes(BrowserCase):
    def test_dotting_forward_and_back_by_key(self):
        page = self.page
        self.open(f"/designs/{WAISTCOAT}/sizes/dots")
        first = self.text(".slip-head h2")
        page.keyboard.press("n")
        page.wait_for_function("was => document.querySelector('.slip-head h2').innerText !== was", arg=first)
        second = self.text(".slip-head h2")
        self.assertIn(second, self.text(".dot-sentence"))
        page.keyboard.press("n")
        page.wait_for_function("was => document.querySelector('.slip-head h2').innerText !== was", arg=second)
        page.keyboard.press("b")
        page.wait_for_function("was => document.querySelector('.slip-head h2').innerText === was", arg=second)
        dots = page.locator(".n-dotted").count()
        self.assertGreater(dots, 8)
        page.click(".dot-steps >> text='7'")
        self.calm()
        self.assertGreater(page.locator(".is-later").count(), 0)
        self.assert_accessible()
        self.assert_quiet()

    def test_a_rule_is_edited_at_the_board_and_taken_back(self):
        page = self.page
        self.open(f"/designs/{WAISTCOAT}/sizes/dots")
        was = page.input_value("#d-out")
        before = self.text(".lines tbody tr:first-child")
        page.fill("#d-out", "0.9")
        page.click("text=For this piece only")
        self.calm()
        page.wait_for_selector("text=By a rule of yours")
        self.assertNotEqual(self.text(".lines tbody tr:first-child"), before)
        self.assertEqual(float(page.input_value("#d-out")), 0.9)
        page.fill("#d-up", "sideways")
        page.click("text=For this piece only")
        self.calm()
        self.assertIn("sideways", self.text("#d-wrong"))
        self.assertEqual(page.input_value("#d-up"), "sideways")
        page.click("text=Take this rule of yours away")
        self.calm()
        self.assertEqual(page.input_value("#d-out"), was)
        self.assertEqual(self.text(".lines tbody tr:first-child"), before)
        self.assert_quiet()

    def test_a_size_is_picked_out_under_the_lens_and_laid_by_another_spot(self):
        page = self.page
        self.open(f"/designs/{SHIRT}/sizes")
        page.click(".size-picks >> text='7'")
        self.calm()
        self.assertEqual(
            page.locator("#nest-lines .n-line.is-picked").count(), page.locator("#nest-lines g.nest-piece").count()
        )
        self.assertEqual(
            page.evaluate("getComputedStyle(document.querySelector('#nest-lines .is-picked')).strokeDasharray"), "none"
        )
        self.assertTrue(page.locator("#nest-lens").is_hidden())
        spot = page.locator("#nest-lines .n-spot").nth(3)
        spot.focus()
        page.wait_for_selector("#nest-lens:not([hidden])")
        box = spot.evaluate("one => { const b = one.getBBox(); return [b.x + b.width / 2, b.y + b.height / 2]; }")
        seen = [float(n) for n in page.get_attribute("#nest-lens svg", "viewBox").split()]
        self.assertAlmostEqual(seen[0] + seen[2] / 2, box[0], delta=0.01)
        self.assertAlmostEqual(seen[1] + seen[3] / 2, box[1], delta=0.01)
        page.keyboard.press("Escape")
        page.wait_for_selector("#nest-lens", state="hidden")
        page.select_option("#h-at", "armhole/side")
        self.calm()
        page.wait_for_url("**at=armhole*")
        self.assertEqual(page.locator(".is-picked.n-line").count(), page.locator("#nest-lines g.nest-piece").count())
        page.locator("#nest-lines .n-spot").nth(3).focus()
        page.keyboard.press("Enter")
        page.wait_for_selector(".dot-sentence")
        self.assert_quiet()

    def test_sizes_are_mixed_for_a_wearer_and_printed(self):
        page = self.page
        self.open(f"/designs/{SHIRT}/sizes/mix")
        page.select_option("#m-who", "7")
        page.wait_for_selector("text=Gideon Fenn on the chart")
        self.calm()
        self.assertRegex(self.text(".slip-body"), r"Bust: size \d+")
        before = page.get_attribute("svg.nest .n-base", "d")
        for field, size in (("#m-bust", "5"), ("#m-waist", "4"), ("#m-hip", "4"), ("#m-lengths", "4")):
            if page.locator(field).count():
                page.select_option(field, size)
                self.calm()
                page.wait_for_function("([at, n]) => new URL(location).searchParams.has(at)", arg=["at.bust", 0])
        self.assertNotEqual(page.get_attribute("svg.nest .n-base", "d"), before)
        table = self.text(".slip-body table")
        self.assertRegex(table, r"Bust\s+[\d.]+\s+[\d.]+\s+[+−][\d.]+")
        body, finished, ease = (
            float(n.replace("−", "-").replace("+", ""))
            for n in re.search(r"Bust\s+([\d.]+)\s+([\d.]+)\s+([+−][\d.]+)", table).groups()
        )
        self.assertAlmostEqual(finished - body, ease, delta=0.11)
        self.assert_accessible()
        page.click("text=Print this mix")
        page.wait_for_selector("h1:has-text('to print')")
        self.assertTrue(page.is_checked("input[name=which][value=mix]"))
        page.select_option("#np-scale", "1:5")
        with page.expect_download() as got:
            page.click("text=Write the file")
        with open(got.value.path(), "rb") as file:
            self.assertEqual(file.read(5), b"%PDF-")
        self.assert_quiet()

    def test_a_cast_is_planned_another_way(self):
        page = self.page
        self.open("/productions/1")
        page.click("text=Cast")
        page.wait_for_selector("h1:has-text('Who wears which')")
        dressed = page.locator(".cast-rows tr").count()
        page.fill("#c-take_in", "30")
        page.fill("#c-let_out", "wide")
        page.click("text=Plan it so")
        page.wait_for_selector("#c-let_out-e")
        self.assertIn("wide", self.text("#c-let_out-e"))
        self.assertEqual(page.input_value("#c-take_in"), "30")
        page.fill("#c-let_out", "20")
        page.click("text=Plan it so")
        self.calm()
        page.wait_for_function("() => !document.querySelector('#c-let_out-e')")
        self.assertEqual(page.locator(".cast-rows tr").count(), dressed)
        self.assertRegex(self.text(".bench, main"), r"Let out|let out")
        self.assert_accessible()
        self.assert_quiet(but=("422",))

    def test_the_rail_by_wearer_and_a_chart_of_our_own(self):
        page = self.page
        self.open("/rail")
        page.select_option("#k-who", "8")
        page.wait_for_selector("text=what fits")
        self.calm()
        self.assertEqual(page.locator(".fits-yes, .on-rail .note").count() > 5, True)
        page.fill("#find", "waistcoat")
        page.press("#find", "Enter")
        page.wait_for_function("() => document.querySelectorAll('.on-rail li').length < 3")
        self.assert_accessible()
        self.open("/sizes/curved")
        page.click("button:has-text('Copy House')")
        page.wait_for_selector("input[name='hip.4']")
        page.fill("input[name='hip.4']", "97.5")
        page.press("input[name='hip.4']", "Enter")
        page.wait_for_selector("text=Hip of size 5 is 97.5 cm")
        self.assert_accessible()
        page.click(".undo-bar >> text=Undo")
        page.wait_for_function("() => document.querySelector(\"input[name='hip.4']\").value !== '97.5'")
        self.assert_quiet()


if __name__ == "__main__":
    unittest.main()
