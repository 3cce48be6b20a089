"""Taking measures in a real browser: by thumb on a phone, by keyboard on a sheet, from a tape that speaks over HTTP."""

import os
import re
import signal
import sqlite3
import subprocess
import sys
import tempfile
import time
import unittest
import urllib.request
from contextlib import closing
from pathlib import Path

from playwright.sync_api import expect

from tests.browser.taking_case import TakingCase
from tests.some import EVERYTHING, some
from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.lists import FULL, in_order
from widehem.store.database import Store
from widehem.store.keeping import FILE
from widehem.tape_stand_in import Tape, told

ORDERED = in_order(FULL)


class ByThumb(TakingCase):
    size = (390, 844)

    def setUp(self):
        super().setUp()
        self.context.close()
        self.context = self.browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True)
        self.addCleanup(self.context.close)
        self.page = self.context.new_page()
        self.page.on("console", lambda m: self.complaints.append(m.text) if m.type in ("error", "warning") else None)
        self.page.on("pageerror", lambda error: self.complaints.append(str(error)))

    def tap(self, *keys):
        for key in keys:
            self.page.tap(f".pad >> text=/^{re.escape(key)}$/")

    def next(self):
        self.tap("Next")
        self.calm()

    def test_a_session_with_the_number_pad(self):
        page = self.page
        self.open("/wearers/12/tape?list=full")
        self.assertEqual(self.text(".slip-head h2"), "Waist", "the strings come first")
        for button in page.locator(".pad button, .pad a").all():
            box = button.bounding_box()
            self.assertGreaterEqual(min(box["width"], box["height"]), 44)
            self.assertLess(box["y"] + box["height"], 844 - 60, "nothing of the pad lies under the hem")
        self.tap("7", "0", ".5")
        self.assertEqual(page.input_value("#r-first"), "70.5")
        self.tap("Rub out", "4", "Second", "7", "2")
        self.looked()
        self.assertIn("1.6 apart, where 1.0 cm is the most", self.text("#doubts"), "before anything is sent")
        self.tap("Rub out", "0")
        self.looked()
        self.assertEqual(self.text("#doubts").strip(), "")
        self.next()
        self.assertEqual(self.text(".slip-head h2"), "Hip")
        self.tap("9", "6")
        self.next()
        self.tap("Skip")
        self.calm()
        self.assertEqual(self.text(".slip-head h2"), "Hip, front arc")
        self.assertEqual({code: round(v, 2) for code, v in self.chart(12).values.items()}, {"waist": 70.2, "hip": 96})
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)
        self.assert_accessible()
        self.assert_quiet()

    def test_it_stops_at_a_doubtful_figure(self):
        self.open("/wearers/1/tape?at=hip&list=full")
        self.tap("8", "9")
        self.assertEqual(self.page.input_value("#r-first"), "89", "what stood there is read anew")
        self.next()
        self.assertEqual(self.text(".slip-head h2"), "Hip")
        self.assertIn("89.0 and 97.6, 8.6 apart", self.text("#doubts"))
        self.page.fill("#why-1", "read over the bustle once")
        self.page.tap("#doubts >> text=Keep it >> nth=0")
        self.calm()
        self.assertIn("Kept knowingly", self.text("#doubts"))
        self.page.tap(".hem .btn-tape")
        self.calm()
        self.assertEqual(self.text(".slip-head h2"), "Waist, front arc")

    def test_in_inches_with_fractions_and_both_sides(self):
        self.open("/wearers/12/tape?list=full&at=shoulder")
        self.page.tap(".unit-switch >> text=in")
        self.calm()
        self.page.tap(".sides >> text=Left")
        self.calm()
        self.tap("4", "3/8", "5/8")
        self.assertEqual(self.page.input_value("#r-first"), "4 5/8")
        self.next()
        self.assertIn("First reading, right", self.text(".readings"))
        self.tap("4", "7/8")
        self.next()
        self.assertEqual(self.text(".slip-head h2"), "Across chest")
        reading = self.chart(12).readings["shoulder"]
        self.assertEqual((reading.left.first.typed, reading.right.first.typed), ("4 5/8", "4 7/8"))

    def test_read_twice_leads_into_the_second_field(self):
        self.open("/wearers/12/tape?list=full")
        self.page.tap(".twice >> text=twice")
        self.calm()
        self.tap("7", "0", "Next", "7", "1")
        self.assertEqual((self.page.input_value("#r-first"), self.page.input_value("#r-second")), ("70", "71"))
        self.next()
        self.assertEqual(self.text(".slip-head h2"), "Hip")

    def test_what_is_typed_outlives_a_reload_and_a_lost_connection(self):
        self.open("/wearers/12/tape?list=full&at=waist")
        self.tap("7", "1", ".5")
        self.page.reload()
        self.assertEqual(self.page.input_value("#r-first"), "71.5")
        self.assertIn("71.5", self.text("#aloud"))
        self.context.set_offline(True)
        self.tap("Next")
        self.page.wait_for_selector("#lost:not(:empty)")
        self.assertEqual(self.page.input_value("#r-first"), "71.5")
        self.context.set_offline(False)
        self.next()
        self.assertEqual(self.chart(12).get("waist"), 71.5)
        self.page.go_back()
        self.page.wait_for_selector(".slip-head >> text=Waist")
        self.page.reload()
        self.assertEqual(self.page.evaluate("Object.keys(localStorage).length"), 0, "what is written down is not held any more")


class ByKeyboard(TakingCase):
    def test_the_full_chart_of_32_measures_without_a_mouse(self):
        self.open("/wearers/12/sheet?list=full")
        page = self.page
        page.keyboard.press("r")
        self.assertEqual(page.evaluate("document.activeElement.id"), "f-waist-first")
        typed = {code: CATALOGUE[code].typical for code in FULL}
        for code in FULL:
            self.assertEqual(page.evaluate("document.activeElement.id"), f"f-{code}-first")
            page.keyboard.type(f"{typed[code]:g}")
            page.keyboard.press("Enter")
        self.calm()
        self.assertEqual({code: round(v, 4) for code, v in self.chart(12).values.items()}, typed)
        page.wait_for_function(
            "() => document.getElementById('hem-checks').innerText.replace(/\\s+/g, ' ').includes('0 of 32')"
        )
        self.assertIn("Nothing stands out", self.text("#sheet-doubts"))
        self.assertEqual(self.loads, [self.address + "/wearers/12/sheet?list=full"], "nothing of this loaded a page")
        self.assert_quiet()

    def test_doubts_errors_second_readings_and_striking_out(self):
        self.open("/wearers/8/sheet?list=full")
        page = self.page
        page.keyboard.press("r")
        for _ in range(4):
            page.keyboard.press("ArrowDown")
        self.assertEqual(page.evaluate("document.activeElement.id"), "f-neck-first")
        page.keyboard.type("long")
        page.keyboard.press("Tab")
        self.calm()
        self.assertIn('"long" is not a length', self.text("#e-neck-first"))
        self.assertEqual(page.get_attribute("#f-neck-first", "aria-invalid"), "true")
        self.assertEqual(page.evaluate("document.activeElement.id"), "f-neck-second", "the way on is not lost")
        page.keyboard.press("Shift+Tab")
        page.keyboard.press("Control+a")
        page.keyboard.type("45")
        page.keyboard.press("Tab")
        page.keyboard.type("45.4")
        page.keyboard.press("ArrowUp")
        self.calm()
        self.assertIsNone(page.get_attribute("#f-neck-first", "aria-invalid"))
        self.assertIn("look again", self.text("#d-neck"))
        self.assertIn("Neck is 45.2", self.text("#sheet-doubts"))
        self.assertIn("45.2", self.text("#k-neck"))
        page.focus("#f-neck-second")
        page.keyboard.press("Control+a")
        page.keyboard.press("Delete")
        page.keyboard.press("Enter")
        self.calm()
        self.assertEqual(self.chart(8).get("neck"), 45)
        self.assert_quiet(but=("422",))

    def test_a_figure_typed_before_the_page_went_away_is_still_there(self):
        self.open("/wearers/12/sheet?list=full")
        self.page.keyboard.press("r")
        self.context.set_offline(True)
        self.page.keyboard.type("69")
        self.page.keyboard.press("Enter")
        self.page.wait_for_selector("#lost:not(:empty)")
        self.context.set_offline(False)
        self.page.reload()
        self.assertEqual(self.page.input_value("#f-waist-first"), "69")
        self.page.wait_for_selector("#k-waist:has-text('69.0')")
        self.assertEqual(self.chart(12).get("waist"), 69)
        self.assertNotIn("held", self.page.get_attribute("#f-waist-first", "class"))


class Listening(TakingCase):
    def test_readings_of_a_tape_fill_the_chart_live(self):
        self.open("/wearers/4/listen?list=full")
        page = self.page
        page.click("button:has-text('Listen')")
        self.calm()
        tape = Tape(self.address, self.text(".pair.num"), "t", "in")
        lines = list(told(tape, ["15 1/8", "19", "14 1/4"]))
        self.assertIn("Neck: 14 1/4 in.", lines[2])
        page.wait_for_selector(".aloud .name:has-text('Neck')")
        self.assertIn("36.2", self.text(".aloud .value"))
        self.assertIn("Waits for bust, front arc", self.text(".aloud .waits"))
        list(told(tape, ["40"]))
        page.wait_for_selector(".doubt:has-text('Bust, front arc')")
        page.click("text=Take the last one back")
        self.calm()
        self.assertNotIn("bust_front", self.chart(4))
        self.assertEqual(page.locator(".heard .undone").count(), 1)
        self.assert_accessible()
        self.assert_quiet()

    def test_the_stand_in_speaks_as_a_tape(self):
        self.open("/wearers/4/listen?list=full")
        self.page.click("button:has-text('Listen')")
        self.calm()
        pair = self.text(".pair.num")
        self.open(f"/tape-stand-in?pair={pair}")
        page = self.page

        def answer(words):
            page.wait_for_selector(f"#dv-answers li:first-child:has-text('{words}')")

        page.click("text=Make one up")
        expect(page.locator("#dv-value")).not_to_have_value("")
        page.click("[data-send=reading]")
        answer("Next: hip, front arc")
        page.click("text=Send the last again")
        answer("heard before")
        page.fill("#dv-value", "potato")
        page.keyboard.press("Enter")
        answer("is not a length")
        page.click("text=Take back")
        answer("Taken back. Next: waist, front arc")
        page.click("text=Take back")
        answer("Nothing of this tape is left")
        page.fill("#dv-pair", "x")
        page.click("text=Make one up")
        answer("No chart listens under x")
        self.assertEqual(page.url, f"{self.address}/tape-stand-in?pair={pair}")
        self.assertNotIn("waist_front", self.chart(4))
        self.assert_quiet(but=("422", "404"))


class Busy(TakingCase):
    def test_a_busy_workroom_is_asked_again_until_the_figure_is_kept(self):
        self.open("/wearers/4/tape?list=full&at=waist_knee")
        page = self.page
        page.fill("#r-first", "59.1")
        with closing(sqlite3.connect(self.store.folder / FILE, isolation_level=None)) as other:
            other.execute("BEGIN IMMEDIATE")
            page.click(".pad button:has-text('Next')")
            page.wait_for_selector("#lost:has-text('Not kept yet')")
            self.assertEqual(page.input_value("#r-first"), "59.1")
            other.execute("ROLLBACK")
        page.wait_for_selector(".slip-head h2:not(:has-text('Waist to knee'))")
        self.assertEqual(self.chart(4).readings["waist_knee"].first.typed, "59.1")
        self.assertEqual(self.text("#lost"), "")
        self.assert_quiet(but=("503",))


class Killed(TakingCase):
    """The server is killed in the middle of a session and started again on the same folder."""

    def serve(self, folder, port):
        command = [sys.executable, "-m", "widehem.cli", "serve", "--data", str(folder), "--port", str(port), "--demo"]
        server = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, start_new_session=True)
        self.addCleanup(server.stdout.close)
        self.addCleanup(lambda: (server.kill(), server.wait()))
        words = server.stdout.readline()
        address = re.search(r"http://[\d.:]+", words)[0]
        for _ in range(50):
            try:
                urllib.request.urlopen(address, timeout=5).close()
                return server, address
            except OSError:
                time.sleep(0.1)
        raise AssertionError(words)

    def test_nothing_typed_is_lost(self):
        with tempfile.TemporaryDirectory() as folder:
            data = Path(folder) / "data"
            server, address = self.serve(data, 0)
            page = self.page
            page.goto(address + "/wearers/12/tape?list=full")
            page.keyboard.type("70")
            page.keyboard.press("Enter")
            page.wait_for_selector(".slip-head >> text=Hip")
            page.keyboard.type("95.5")
            os.killpg(server.pid, signal.SIGKILL)  # every process of the house
            server.wait()
            page.keyboard.press("Enter")
            page.wait_for_selector("#lost:not(:empty)")
            self.assertEqual(page.input_value("#r-first"), "95.5")
            again, _ = self.serve(data, int(address.rpartition(":")[2]))
            page.keyboard.press("Enter")
            page.wait_for_selector(".slip-head >> text=Waist, front arc")
            store = Store(data)
            self.addCleanup(store.close)
            self.assertEqual(self.chart(12, store).values, {"waist": 70, "hip": 95.5})
            again.terminate()
            again.wait()


class Rooms(TakingCase):
    PATHS = (
        "/wearers/1/tape?at=shoulder&list=full", "/wearers/5/tape?at=waist_hip", "/wearers/5/sheet?list=full",
            "/wearers/3/charts", "/wearers/9/charts",
        "/wearers/1/listen", "/wearers/1", "/lists?open=1", "/tables", "/tables/house-1", "/tape-stand-in",
            "/wearers/12/measure",
    )  # fmt: skip

    def test_no_violations_and_nothing_runs_over_the_edge(self):
        for size in some(((1280, 800), (1024, 768), (390, 844)), 2):
            self.page.set_viewport_size({"width": size[0], "height": size[1]})
            for number, path in enumerate(self.PATHS):
                with self.subTest(path, size=size):
                    self.open(path)
                    self.assertLessEqual(self.page.evaluate("document.documentElement.scrollWidth"), size[0])
                    if size == ((1280, 800), (390, 844))[number % 2] and (EVERYTHING or number % 4 < 2):
                        self.assert_accessible()
        self.assert_quiet()

    def test_a_list_a_table_and_a_new_chart(self):
        page = self.page
        self.open("/")
        page.click("[aria-label='Open the lists of measures']")
        self.calm()
        page.fill("#l-name", "Gloves")
        page.check("text=Hand, closed")
        page.click("text=Keep the list")
        self.calm()
        self.assertIn("Hand, closed.", self.text(".slip"))
        self.open("/wearers/1/tape")
        page.select_option("#which", label="Gloves")
        self.calm()
        self.assertIn("1 of 1", self.text(".slip-head"))
        page.click(".views >> text=Over time")
        self.calm()
        page.click("text=Begin, on the chart")
        self.calm()
        self.assertIn("carried over from", self.text(".chart"))
        page.keyboard.type("22.9")
        page.keyboard.press("Enter")
        self.calm()
        page.click(".views >> text=Over time")
        self.calm()
        self.assertRegex(self.text(".bench"), r"Hand, closed\s+22\.5\s+22\.9\s+\+0\.4")
        self.assert_quiet()


if __name__ == "__main__":
    unittest.main()
