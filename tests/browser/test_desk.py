"""The workroom's desk in a real browser: what a newcomer presses, words off each other at five widths, help, focus, notes."""

import io
import time
import unittest

from PIL import Image
from sqlalchemy import select

from tests.browser.case import BrowserCase
from tests.browser.looking import LOOK, SMALL
from tests.some import some
from widehem.store.models import Docket, Note, Picture

PAGES = (
    "/", "/productions/1", "/productions/1/company", "/wearers/8", "/wearers/8/measure?at=waist&list=full",
    "/wearers/8/tape?at=waist&list=full", "/wearers/8/tape/end?list=full", "/wearers/8/sheet", "/wearers/8/charts",
    "/wearers/12/listen?list=full", "/wearers/8/schools", "/dockets/19/draft", "/dockets/8/draft?step=4",
    "/dockets/17/draft?slip=settings", "/dockets/19/draft?slip=checks", "/dockets/8/draft?slip=garment", "/dockets/19/cut",
    "/dockets/17/cut?scale=1:4", "/dockets/1/compare", "/dockets/19/walk", "/dockets/1/versions", "/dockets/1/copy", "/lists",
    "/tables/curved", "/ease", "/house", "/bin", "/find?q=skirt", "/notes/garment/17", "/guide", "/designs/16/sizes?size=7",
    "/designs/16/sizes/dots", "/designs/15/sizes/figures", "/designs/16/sizes/ways", "/designs/16/sizes/mix?wearer=7", "/designs/16/sizes/print", "/productions/1/cast",
    "/rail?wearer=7", "/sizes/curved", "/rules/first",
)  # fmt: skip
SIZES = ((1280, 800), (1024, 768), (768, 1024), (640, 400), (390, 844))  # the fourth: 1280 at twice the size
ON_LINES = """() => {
  const told = [];
  const texts = Array.from(document.querySelectorAll("#board .t-name, #board .t-point")).filter((one) => getComputedStyle(one).visibility !== "hidden" && one.getClientRects().length);
  for (const text of texts) {
    const box = text.getBoundingClientRect();
    const air = box.height * 0.28;
    for (const line of document.querySelectorAll("#board .l-finished, #board .l-balance")) {
      const to = line.getScreenCTM();
      const long = line.getTotalLength();
      const steps = Math.ceil((long * Math.hypot(to.a, to.b)) / 2);
      for (let n = 0; n <= steps; n++) {
        const at = line.getPointAtLength((long * n) / steps);
        const x = at.x * to.a + at.y * to.c + to.e;
        const y = at.x * to.b + at.y * to.d + to.f;
        if (x > box.left + 2 && x < box.right - 2 && y > box.top + air && y < box.bottom - air) {
          told.push(text.textContent);
          n = steps;
        }
      }
    }
  }
  return Array.from(new Set(told));
}"""


class Looks(BrowserCase):
    def test_no_words_over_each_other_or_out_of_their_box_and_every_target_large_enough(self):
        self.open("/")  # the garments are looked at once
        for wide, high in SIZES:
            context = self.browser.new_context(viewport={"width": wide, "height": high}, has_touch=wide < 1100)
            page = context.new_page()
            for path in some(PAGES, 3 * len(SIZES), 3 * SIZES.index((wide, high)) + 1):
                page.goto(self.address + path)
                page.wait_for_timeout(180)  # words of a drawing are laid after the last change of what is seen
                with self.subTest(path=path, wide=wide):
                    self.assertEqual(page.evaluate(LOOK), [])
                    self.assertEqual(page.evaluate(SMALL, 44 if wide < 1100 else 24), [])
            context.close()

    def test_names_and_letters_keep_off_the_lines(self):
        for number in some(range(1, 23), 4):
            self.open(f"/dockets/{number}/draft")
            self.page.wait_for_timeout(180)
            if not self.page.locator("#board").count():
                continue
            with self.subTest(number):
                self.assertEqual(self.page.evaluate(ON_LINES), [])

    def test_forced_colours_and_three_widths(self):
        paths = ("/", "/productions/1", "/dockets/19/draft?slip=settings", "/dockets/17/draft?slip=garment", "/notes/garment/17", "/guide", "/dockets/17/cut", "/wearers/8/measure?at=waist")  # fmt: skip
        for turn, (forced, size) in enumerate((("active", (1280, 800)), ("none", (1280, 800)), ("none", (1024, 768)), ("none", (390, 844)))):  # fmt: skip
            context = self.browser.new_context(viewport={"width": size[0], "height": size[1]}, forced_colors=forced)
            self.page = context.new_page()
            for path in some(paths, 8, 2 * turn):
                self.open(path)
                with self.subTest(path=path, forced=forced, wide=size[0]):
                    self.assert_accessible("color-contrast" if forced == "active" else "")  # the system's own colours
            context.close()


class Hands(BrowserCase):
    def test_help_lies_over_the_page_and_goes_away(self):
        self.open("/dockets/8/draft?slip=settings")
        self.page.keyboard.press("?")
        self.page.wait_for_selector("#help[open] >> text=Nothing is kept until you press Keep")
        self.assert_accessible()
        self.assertIn("/dockets/8/draft", self.page.url)
        self.page.keyboard.press("Escape")
        self.page.wait_for_selector("#help", state="hidden")
        self.page.click(".help-all")
        self.page.click("#help >> text=More in the guide")
        self.page.wait_for_selector("h1:has-text('Guide')")
        self.assertTrue(self.page.url.endswith("/guide#draft"))
        self.assertFalse(self.page.evaluate("document.getElementById('help').open"))
        self.assert_quiet()

    def test_another_page_begins_at_its_title_and_the_same_page_stays_where_it_was(self):
        self.open("/productions/1")
        self.page.click("text=Keeper's gown")
        self.page.wait_for_selector('h1:has-text("Keeper\'s gown")')
        self.page.wait_for_selector("h1:focus")
        self.page.click(".slip-tabs >> text=Settings")
        self.page.wait_for_selector(".settings")
        more = "[aria-label='Hip ease, more']"
        self.page.focus(more)
        self.page.keyboard.press("Enter")
        self.page.wait_for_selector(".keep-bar >> text=1 change tried")
        self.assertEqual(self.page.evaluate("document.activeElement.getAttribute('aria-label')"), "Hip ease, more")
        self.page.focus("[id='f-e.hip']")
        self.page.click(".keep-bar >> text=Keep")
        self.page.wait_for_selector(".undo-bar >> text=Kept Keeper's gown")
        self.page.wait_for_selector("[id='f-e.hip']:focus")

    def test_each_tab_begins_at_its_own_top(self):
        self.open("/dockets/19/draft?slip=checks")
        self.page.evaluate("document.querySelector('.slip-body').scrollTop = 900")
        self.page.click(".slip-tabs >> text=Settings")
        self.page.wait_for_selector(".settings")
        self.calm()
        self.assertEqual(self.page.evaluate("document.querySelector('.slip-body').scrollTop"), 0)

    def test_a_setting_is_found_by_a_word_and_groups_stay_as_they_were_left(self):
        self.open("/dockets/8/draft?slip=settings")
        truth = "details[data-fold=truth]"
        self.assertFalse(self.page.evaluate(f"document.querySelector('{truth}').open"))
        self.page.fill("#f-find", "drill")
        self.assertEqual(self.page.locator(".settings .opt:visible").count(), 1)
        self.assertTrue(self.page.locator("text=Drill holes").first.is_visible())
        self.page.fill("#f-find", "petticoat")
        self.assertTrue(self.page.locator(".none-found").is_visible())
        self.page.fill("#f-find", "")
        self.assertFalse(self.page.evaluate(f"document.querySelector('{truth}').open"))
        self.page.click(f"{truth} > summary")
        self.page.click("[aria-label='Bust ease, more']")
        self.page.wait_for_selector(".keep-bar")
        self.page.wait_for_selector(f"{truth}[open]")
        self.assert_quiet()

    def test_what_does_not_apply_is_not_shown_until_it_does(self):
        self.open("/dockets/8/draft?slip=settings")
        self.assertEqual(self.page.locator("[name='o.stretch']").count(), 0)
        self.page.click("details[data-fold=cloth] > summary")
        self.page.select_option("[name='o.cloth']", "knit")
        self.page.wait_for_selector("[name='o.stretch']")

    def test_a_note_with_pictures_made_small_on_the_way(self):
        out = io.BytesIO()
        Image.effect_noise((3000, 2000), 80).convert("RGB").save(out, "JPEG", quality=92)
        self.assertGreater(len(out.getvalue()), 3_000_000)
        self.open("/notes/garment/17")
        self.page.fill("#n-words", "The lace runs upwards.")
        files = [{"name": f"{at}.jpg", "mimeType": "image/jpeg", "buffer": out.getvalue()} for at in range(3)]
        self.page.set_input_files("#n-pictures", files)
        until = time.monotonic() + 10
        while self.page.evaluate("document.getElementById('n-pictures').files[2].size") > 2_500_000:
            self.assertLess(time.monotonic(), until, "they are not made small")
        self.page.click(".slip >> text=Keep the note")
        self.page.wait_for_selector(".note-card >> text=The lace runs upwards.")
        with self.store.read() as session:
            note = session.scalars(select(Note).order_by(Note.id.desc())).first()
            self.assertEqual(len(note.pictures), 3)
            picture = Image.open(io.BytesIO(session.get(Picture, note.pictures[0]).data))
        self.assertLessEqual(max(picture.size), 1600)
        self.page.wait_for_selector(".undo-bar >> text=Noted on Keeper's gown.")
        self.assert_quiet()

    def test_where_a_garment_stands_is_said_from_its_production(self):
        self.open("/productions/1")
        row = self.page.locator(".garments > li", has_text="Mourning skirt")
        row.locator("summary").click()
        row.locator("select").select_option("cloth")
        row.locator("text=Keep where it stands").click()
        self.page.wait_for_selector(".undo-bar >> text=Mourning skirt: waits for cloth.")
        self.page.locator(".garments > li", has_text="Heron bodice").locator("summary").click()
        self.page.wait_for_selector(".more-of >> text=Heron sleeve is drawn for it.")
        self.assert_accessible()
        self.page.click("text=Put Heron bodice in the bin")
        self.page.wait_for_selector(".undo-bar >> text=Heron bodice is in the bin.")
        self.assert_quiet()

    def test_the_hour_of_a_waist_is_now(self):
        self.open("/wearers/8/measure?at=waist&list=full")
        self.page.click("[data-now]")
        self.assertRegex(self.page.input_value("#r-hour"), r"^\d\d:\d\d$")


class Phone(BrowserCase):
    size = (390, 844)

    def test_stations_are_reached_from_each_other_and_from_a_production(self):
        self.open("/productions/1")
        self.page.click("text=Lap skirt")
        self.page.wait_for_selector("h1:has-text('Lap skirt')")
        for station in ("Cut", "Measure", "Draft"):
            self.page.click(f".stations >> text={station}")
            self.page.wait_for_selector(f".stations [aria-current] >> text={station}")
            self.calm()
            self.page.wait_for_function("() => window.scrollY === 0")  # it opens at its top
        self.page.click(".whose >> text=The Lantern Ferry")
        self.page.wait_for_selector("h1:has-text('The Lantern Ferry')")

    def test_two_fingers_bring_the_drawing_closer(self):
        self.open("/dockets/8/draft")
        box = self.page.locator("#board").bounding_box()

        def wide():
            return float(self.page.get_attribute("#board", "viewBox").split()[2])

        before, x, y = wide(), box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        send = self.context.new_cdp_session(self.page).send
        for kind, apart in (("touchStart", 30), ("touchMove", 60), ("touchMove", 90)):
            points = [{"x": x - apart, "y": y, "id": 1}, {"x": x + apart, "y": y, "id": 2}]
            send("Input.dispatchTouchEvent", {"type": kind, "touchPoints": points})
        send("Input.dispatchTouchEvent", {"type": "touchEnd", "touchPoints": []})
        self.assertLess(wide(), before * 0.6)


class Newcomer(BrowserCase):
    demo = False

    def test_from_an_empty_folder_to_a_printed_skirt_in_twelve_presses(self):
        presses = 0
        self.open("/")
        for field, text in (
            ("wearer", "Pia Holm"),
            ("waist", "72"),
            ("hip", "98"),
            ("waist_hip", "20.5"),
            ("waist_knee", "60"),
        ):
            if presses:
                self.page.click(f"#first [name={field}]")
            presses += 1
            self.page.keyboard.type(text)
        self.page.click(".btn-tape")
        self.page.wait_for_selector("h1:has-text('First skirt')")
        self.page.click(".btn-tape >> text=Add allowances, lay it out on paper")
        self.page.wait_for_selector("h1:has-text('Paper for First skirt')")
        with self.page.expect_download() as found:
            self.page.click(".btn-tape")
        presses += 3
        self.assertTrue(found.value.suggested_filename.endswith(".pdf"))
        self.assertLessEqual(presses, 12)
        with self.store.read() as session:
            self.assertEqual(session.scalars(select(Docket.name)).all(), ["First skirt"])
        self.assert_quiet()


if __name__ == "__main__":
    unittest.main()
