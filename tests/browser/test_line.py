"""The whole line in a real browser: from an empty folder to paper, in centimetres and in inches."""

import io
import unittest
from pathlib import Path

from playwright.sync_api import expect
from pypdf import PdfReader

from tests.browser.case import BrowserCase
from tests.some import some

LINES = "Array.from(document.querySelectorAll('#draft-lines path')).map((line) => line.getAttribute('d'))"


class FromNothing(BrowserCase):
    demo = False

    def begin(self):
        self.open()
        self.page.fill("#p-name", "The Lantern Ferry")
        self.page.fill("#p-company", "Quayside Players")
        self.page.click("text=Add the production")
        self.calm()
        self.page.fill("#w-name", "Maud Pike")
        self.page.click("text=Add and measure")
        self.calm()

    def docket(self):
        self.page.click(".selvedge .production")
        self.calm()
        self.page.fill("#d-name", "Rope skirt")
        self.page.select_option("#d-method", "skirt.two_panel")
        self.page.click("text=Begin the garment")
        self.calm()

    def read(self, *values):
        for code, first in values:
            self.assertIn(f"at={code}", self.page.url)
            self.page.keyboard.type(first)
            self.page.keyboard.press("Enter")
            self.calm()

    def test_in_centimetres_with_a_wrong_entry(self):
        self.begin()
        self.docket()
        self.assertIn("cannot be drawn without", self.text(".empty-words"))
        self.page.click("text=To the chart")
        self.calm()
        self.assertIn("at=waist", self.page.url)
        self.page.keyboard.type("seventy")
        self.page.keyboard.press("Enter")
        self.calm()
        self.assertIn('"seventy" is not a length', self.text(".readings .wrong"))
        self.assertEqual(self.page.evaluate("document.activeElement.id"), "r-first")
        self.page.keyboard.press("Control+a")
        self.read_from_waist()
        self.page.keyboard.press("Escape")
        self.page.locator("h1").click()
        self.page.keyboard.press("2")
        self.calm()
        self.assertIn("Rope skirt", self.text("h1"))
        self.assertEqual(self.page.locator(".check.is-not").count(), 0)
        self.assertIn("leave 3.4 for the side", self.text(".told"))
        self.change_and_scrub()
        self.take_paper()
        self.assert_quiet(but=("422",))

    def read_from_waist(self):
        self.page.keyboard.type("69")
        self.page.keyboard.press("Enter")
        self.calm()
        self.read(("hip", "94"), ("waist_hip", "20,5"), ("waist_knee", "59"), ("height", "1.64 m"))

    def change_and_scrub(self):
        page = self.page
        loads = len(self.loads)
        page.click("[aria-label='Hip ease, more']")
        self.calm()
        self.assertIn("+3.5", self.text(".hem"))
        self.assertIn("e.hip=3.5+cm", page.url)
        page.fill("[id='f-o.length']", "72")
        page.keyboard.press("Enter")
        self.calm()
        self.assertIn("o.length=72+cm", page.url)
        self.assertIn('data-figure="72.0 cm"', page.inner_html("#board"))
        for _ in range(3):
            page.locator("h1").click()
            page.keyboard.press(",")
            self.calm()
        self.assertIn("Step 9 of 12", self.text(".slip"))
        self.assertEqual(page.locator("#board .l-fresh").count(), 5, "two darts and three stretches of the back waist")
        page.keyboard.press(".")
        self.calm()
        self.assertIn("Step 10 of 12", self.text(".slip"))
        page.click(".hem a.check >> nth=0")
        self.calm()
        self.assertEqual(page.locator("#board .lit").count(), 2)
        self.assertEqual(len(self.loads), loads, "nothing of this loaded a page")
        page.reload()
        self.assertIn('data-figure="72.0 cm"', page.inner_html("#board"))
        page.click("text=Keep")
        self.calm()
        self.assertNotIn("o.length", page.url)
        self.assertIn('data-figure="72.0 cm"', page.inner_html("#board"))

    def take_paper(self):
        page = self.page
        page.locator("h1").click()
        page.keyboard.press("4")
        self.calm()
        self.assertIn("Paper for Rope skirt", self.text("h1"))
        page.click("nav.views >> text=Allowances")
        self.calm()
        page.select_option("#plan", "toile")
        page.click("text=Use these allowances")
        self.calm()
        self.assertEqual(page.input_value("#a-seam"), "1.9")
        page.click("nav.views >> text=Sheets")
        self.calm()
        page.select_option("#paper", "letter")
        page.click(".row2 >> text=Use")
        self.calm()
        self.assertIn("sheets of Letter", self.text(".sub"))
        with page.expect_download() as waiting:
            page.click(".hem .btn-tape")
        reader = PdfReader(io.BytesIO(Path(waiting.value.path()).read_bytes()))
        self.assertAlmostEqual(float(reader.pages[0].mediabox.width), 8.5 * 72, delta=0.1)
        self.assertIn("Maud Pike", reader.pages[1].extract_text())
        for label in ("Download the method card", "Download the drawing", "Download the points and lengths"):
            with page.expect_download() as waiting:
                page.click(f"[aria-label='{label}']")
            self.assertGreater(Path(waiting.value.path()).stat().st_size, 1000)

    def test_in_inches(self):
        self.open()
        self.page.click(".unit-switch >> text=in")
        self.begin()
        self.docket()
        self.page.click("text=To the chart")
        self.calm()
        self.read(("waist", "27 1/4"), ("hip", "37"), ("waist_hip", "8 1/8"), ("waist_knee", "23¼"), ("height", "5' 4 1/2\""))
        self.page.click(".stations >> text=Draft")
        self.calm()
        self.assertIn("38 1/8 on 37", self.text(".hem"))
        self.page.click("[aria-label='Length, more']")
        self.calm()
        self.assertIn("o.length=23+5%2F8+in", self.page.url)
        self.page.click(".unit-switch >> text=cm")
        self.calm()
        self.assertIn("o.length=23+5%2F8+in", self.page.url)
        self.assertEqual(self.page.input_value("[id='f-o.length']"), "60.01")
        self.assert_quiet()


class AtTheTable(BrowserCase):
    def test_a_point_tells_its_working_and_two_points_their_distance(self):
        self.open("/dockets/1/draft")
        page = self.page
        page.hover("#board .point[data-letter=D] .hit")
        self.assertIn("D", self.text(".told-of"))
        self.assertIn("26.4", self.text(".told-of"))
        self.assertIn("hip 97.8 ÷ 4 + hip ease 4.0 ÷ 2", self.text(".told-of .working"))
        page.click(".near >> text=Measure")
        for letter in "AG":
            page.locator(f"#board .point[data-letter={letter}] .pt").click(force=True)
        self.assertEqual(self.text(".told-of .num"), "50.9 cm")
        self.assertIn("A to G", self.text(".told-of"))
        self.assertIn("0.0 down", self.text(".told-of .working"))
        self.assert_quiet()

    def test_closer_further_panning_and_fit(self):
        self.open("/dockets/1/draft")
        page = self.page

        def box():
            return [float(n) for n in page.get_attribute("#board", "viewBox").split()]

        first = box()
        page.click("[aria-label=Closer]")
        self.assertLess(box()[2], first[2])
        page.focus("#board")
        page.keyboard.press("ArrowRight")
        self.assertGreater(box()[0], first[0])
        page.click("[aria-label='Step back']")
        self.calm()
        self.assertLess(box()[2], first[2], "the view stays when the step changes")
        page.click(".near >> text=Fit")
        self.assertAlmostEqual(box()[2], first[2], delta=0.1)
        page.mouse.move(500, 400)
        page.mouse.wheel(0, -300)
        page.wait_for_timeout(50)
        self.assertLess(box()[2], first[2])
        page.mouse.down()
        page.mouse.move(560, 400, steps=4)
        page.mouse.up()
        self.assert_quiet()

    def test_the_way_back_of_the_browser_goes_step_by_step(self):
        self.open("/dockets/1/draft?step=5")
        self.page.click("[aria-label='Step on']")
        self.calm()
        self.page.click("[aria-label='Hip ease, more']")
        self.calm()
        self.assertIn("e.hip=4.5+cm", self.page.url)
        for step, ease in (("Step 6", "4.0"), ("Step 5", "4.0")):
            self.page.go_back()
            self.page.wait_for_selector(f".slip-head >> text={step} of 12")
            self.assertEqual(self.page.input_value("[id='f-e.hip']"), ease)

    def test_the_next_step_goes_into_the_field_when_it_is_here(self):
        self.open("/wearers/4/measure")
        self.page.locator("h1").click()
        self.page.keyboard.press("n")
        self.assertEqual(self.page.evaluate("document.activeElement.id"), "r-first")

    def test_switches_hide_what_they_name(self):
        self.open("/dockets/1/draft")
        page = self.page
        for value, selector in (
            ("letters", "#board .letters"),
            ("lengths", "#board .lengths"),
            ("levels", "#board .levels text"),
        ):
            self.assertTrue(page.locator(selector).first.is_visible())
            page.uncheck(f".shows input[value={value}]")
            self.assertFalse(page.locator(selector).first.is_visible())

    def test_a_change_that_cannot_be_drawn(self):
        self.open("/dockets/1/draft?slip=settings")
        page = self.page
        before = page.evaluate(LINES)
        page.click("details[data-fold=measures] > summary")
        page.fill("[id='f-m.waist_hip']", "9")
        page.keyboard.press("Tab")
        self.calm()
        self.assertIn("Waist to hip 9.0 is under 12.0 cm", self.text(".refusal"))
        self.assertIn("Drawn before the change", self.text(".bench"))
        self.assertEqual(page.evaluate(LINES), before)
        self.assertEqual(page.input_value("[id='f-m.waist_hip']"), "9.0")
        page.fill("[id='f-m.waist_hip']", "18")
        page.keyboard.press("Tab")
        self.calm()
        self.assertEqual(page.locator(".refusal").count(), 0)
        self.assertNotEqual(page.evaluate(LINES), before)

    def test_keys(self):
        self.open("/dockets/1/draft")
        page = self.page
        page.keyboard.press("b")
        self.calm()
        self.assertIn("Step 11 of 12", self.text(".slip"))
        page.keyboard.press("n")
        self.calm()
        self.assertIn("Step 12 of 12", self.text(".slip"))
        page.keyboard.press("h")
        self.assertIn("Stride at the hem", page.evaluate("document.activeElement.textContent"), "the worst comes first")
        page.keyboard.press("ArrowRight")
        self.assertIn("Side seam", page.evaluate("document.activeElement.textContent"))
        page.keyboard.press("e")
        self.assertEqual(page.evaluate("document.activeElement.name"), "e.waist")
        page.keyboard.press("n")
        self.assertIn("draft", page.url, "keys are off in fields")
        page.locator("h1").click()
        self.calm()
        self.assertIn("Waist ease", self.text(".wrong"))
        page.locator("h1").click()
        page.keyboard.press("u")
        self.calm()
        self.assertIn("+5/8", self.text(".hem").replace("\u202f", ""))
        self.assert_quiet()

    def test_the_server_does_not_answer(self):
        self.open("/dockets/1/draft")
        self.context.set_offline(True)
        self.page.click("[aria-label='Step back']")
        self.page.wait_for_selector("#lost:not(:empty)")
        self.assertIn("No answer from the workroom", self.text("#lost"))


class Company(BrowserCase):
    def test_finding_somebody_and_going_to_the_gap(self):
        self.open("/productions/1")
        self.page.click("text=Whole company")
        self.calm()
        self.page.fill("#find", "widow")
        self.page.press("#find", "Enter")
        self.page.wait_for_url("**find=widow*")
        self.calm()
        expect(self.page.locator(".company tbody tr")).to_have_count(1)
        self.page.click(".zones >> text=Across")
        self.calm()
        self.assertEqual(self.page.locator(".company tbody tr").count(), 1, "what was looked for stays")
        self.page.click(".company td a.dots >> nth=0")
        self.calm()
        self.assertIn("Chart of Hester Vane", self.text("h1"))
        self.assertIn("at=shoulder", self.page.url)
        self.assert_quiet()

    def test_a_file_is_looked_at_then_stored(self):
        self.open("/productions/1")
        rows = b"wearer,waist\nOdile Marsh,79\nPip Reed,80\n"
        self.page.set_input_files("#f-file", {"name": "charts.csv", "mimeType": "text/csv", "buffer": rows})
        self.page.click("text=Look at it first")
        self.calm()
        self.assertIn("nothing is stored yet", self.text(".sub"))
        self.assert_accessible()
        self.page.click("text=Store 2 measures")
        self.calm()
        self.assertIn("Pip Reed", self.text(".bench"))
        self.assert_quiet()


class Access(BrowserCase):
    PATHS = (
        "/", "/productions/1", "/productions/1/company", "/wearers/1/measure", "/wearers/2/measure?at=hip&list=all",
            "/dockets/1/draft?step=8", "/dockets/1/draft?slip=settings",
        "/dockets/2/draft?slip=checks&lit=girth.waist", "/dockets/4/draft", "/dockets/1/cut", "/nowhere",
    )  # fmt: skip

    def test_no_violations_on_any_page(self):
        for path in some(self.PATHS, 3):
            with self.subTest(path):
                self.open(path)
                self.assert_accessible()
        self.assert_quiet(but=("404",))

    def test_tablet_and_phone(self):
        for size, path in (
            ((1024, 768), "/dockets/1/draft?step=4"),
            ((390, 800), "/wearers/4/measure"),
            ((390, 800), "/dockets/1/draft"),
        ):
            with self.subTest(size):
                self.page.set_viewport_size({"width": size[0], "height": size[1]})
                self.open(path)
                self.assert_accessible()
                self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), size[0], path)

    def test_everything_is_reached_with_the_keyboard_and_focus_is_seen(self):
        self.open("/dockets/1/draft?slip=settings")
        seen = set()
        for _ in range(90):
            self.page.keyboard.press("Tab")
            here = self.page.evaluate(
                "(() => { const e = document.activeElement; const s = getComputedStyle(e);"
                " return [e.tagName, e.name || e.id || e.textContent.trim().slice(0, 30), s.outlineStyle, s.outlineWidth]; })()"
            )
            if here[0] == "BODY":
                break
            seen.add(here[1])
            self.assertNotEqual((here[2], here[3]), ("none", "0px"), here)
        for name in ("To what is worked on", "Measures, tried here first4", "e.hip", "o.school", "o.opening", "board", "unit"):
            self.assertIn(name, seen)


if __name__ == "__main__":
    unittest.main()
