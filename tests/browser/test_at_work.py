"""Work that lasts, as it is seen: it comes by itself, says how far it is on every page, and is stopped there."""

import threading
import unittest

from playwright.sync_api import expect

from tests.browser.case import BrowserCase
from widehem.jobs import gallery, kinds, papers
from widehem.jobs.ledger import STOPPED
from widehem.jobs.works import Works
from widehem.web import at_work
from widehem.web.app import create_app


class Beside(Works):
    """The work is done beside the pages, in a thread, one step each time the test allows it."""

    def __init__(self, store):
        super().__init__(store, inline=True)
        self.inline, self.may = False, threading.Semaphore(0)
        self.threads = []

    def _hand_over(self, name, kind):
        self.threads.append(threading.Thread(target=self.do, args=(name,)))
        self.threads[-1].start()

    def let(self, steps=1000):
        for _ in range(steps):
            self.may.release()


class AtWorkCase(BrowserCase):
    def app(self):
        self.works = Beside(self.store)
        for module, name in ((gallery, "drawn"), (papers, "order_of")):
            true = getattr(module, name)
            setattr(module, name, lambda *given, true=true: (self.works.may.acquire(), true(*given))[1])
            self.addCleanup(setattr, module, name, true)
        for module, name, value in ((at_work, "SHORT", 0.1), (kinds, "BETWEEN_TELLS", 0.0)):
            self.addCleanup(setattr, module, name, getattr(module, name))
            setattr(module, name, value)
        self.addCleanup(self.finish)
        return create_app(self.store, works=self.works)

    def finish(self):
        self.works.let()
        for thread in self.works.threads:
            thread.join()
        self.works.close()


class AtWork(AtWorkCase):
    def test_pictures_come_by_themselves_and_leave_the_hands_alone(self):
        self.open("/wearers/3/schools")
        self.assertEqual(self.page.locator(".is-coming").count(), 16)
        field = self.page.locator("input[name=docket]").first
        field.fill("Rain ca")
        self.page.wait_for_selector("#hem-work:has-text('Drawing every method')")
        self.works.let(5)
        self.page.wait_for_selector("#hem-work:has-text('5 of 16')")
        expect(self.page.locator(".is-coming")).to_have_count(11)
        self.page.keyboard.type("pe")
        self.assertEqual(field.input_value(), "Rain cape")
        self.assert_accessible()
        self.works.let()
        expect(self.page.locator(".pic svg")).to_have_count(16)
        self.page.wait_for_selector("#hem-work:not(:has(form))", state="attached")
        self.assertEqual(field.input_value(), "Rain cape")
        self.assertTrue(self.page.url.endswith("/wearers/3/schools"))
        self.assertFalse(self.page.is_visible("#hem-work"), "it takes no room in the hem")
        button = self.page.locator(".hem .btn-tape").bounding_box()
        self.assertGreater(button["x"], 900)
        self.assert_quiet()

    def test_it_is_seen_on_other_pages_and_stopped_there(self):
        self.open("/wearers/5/schools")
        self.open("/productions/1")
        self.works.let(2)
        self.page.wait_for_selector("#hem-work:has-text('2 of 16')")
        self.page.click("#hem-work button")
        self.page.wait_for_selector("#hem-work:not(:has(form))", state="attached")
        self.assertTrue(self.page.url.endswith("/productions/1"))
        self.works.let()
        self.works.threads[0].join()
        with self.works.ledger._engine.connect() as connection:
            self.assertEqual(connection.exec_driver_sql("SELECT state FROM job WHERE kind = 'gallery'").scalar(), STOPPED)
        self.assert_quiet()

    def test_a_file_that_takes_long_is_waited_for_and_handed_over(self):
        self.open("/dockets/1/cut")
        with self.page.expect_download() as found:
            self.page.click(".hem .btn-tape")
            self.page.wait_for_selector("h1:has-text('Writing Odile Marsh Ferry skirt')")
            self.assert_accessible()
            self.works.let()
        self.assertEqual(found.value.suggested_filename, "odile-marsh-ferry-skirt-a4.pdf")
        self.page.wait_for_selector("text=It is done, and handed over")
        self.page.click("main >> text=Back to where you were")
        self.page.wait_for_selector(".p-cut")
        self.assert_quiet()

    def test_a_file_that_is_not_wanted_any_more(self):
        self.open("/dockets/1/cut")
        self.page.click(".hem .btn-tape")
        self.page.click("main >> text=Stop it")
        self.page.wait_for_selector(".p-cut")
        self.assert_quiet()


if __name__ == "__main__":
    unittest.main()
