"""Making in a real browser: a lay moved by hand, steps ticked and moved on a tablet, a book printed, a list at the shop."""

import unittest

from sqlalchemy import select

from tests.browser.case import BrowserCase
from widehem.core.making.lay.placed import faults
from widehem.store.cloths import how_made
from widehem.store.lays import laid
from widehem.store.models import Docket, LayRow, Wearer


class Making(BrowserCase):
    def docket(self, name):
        with self.store.read() as session:
            query = select(Docket).join(Wearer, Docket.wearer_id == Wearer.id)
            return session.scalars(query.where(Docket.name == name, Wearer.name == "Gideon Fenn")).first().id


class OfALay(Making):
    def put(self, name):
        piece = self.page.locator(f'.lay-piece[data-put="{name}"]')
        return tuple(float(piece.get_attribute(f"data-{part}")) for part in ("x", "y", "turned"))

    def moved(self, name, before):
        self.page.wait_for_function(
            "([name, x, y]) => { const at = document.querySelector(`.lay-piece[data-put='${name}']`);"
            " return at && (Number(at.dataset.x) !== x || Number(at.dataset.y) !== y) }",
            arg=[name, *before[:2]],
        )
        self.calm()

    def test_a_piece_is_dragged_and_moved_by_keys(self):
        page = self.page
        with self.store.read() as session:
            row = session.scalars(select(LayRow).order_by(LayRow.id.desc())).first()
            number, lay = row.id, laid(row).lay
        name = max(lay.placed, key=lambda put: lay.polygons[put.id].bounds[2]).id
        self.open(f"/lays/{number}")
        self.assert_accessible()
        before = self.put(name)
        box = page.locator(f'.lay-piece[data-put="{name}"] .lay-ring').bounding_box()
        middle = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        page.mouse.move(*middle)
        page.mouse.down()
        page.mouse.move(middle[0] + 150, middle[1], steps=5)
        page.mouse.up()
        self.moved(name, before)
        dragged = self.put(name)
        self.assertGreater(dragged[0], before[0] + 5)
        self.assertEqual(page.evaluate("document.activeElement.dataset.put"), name)
        page.keyboard.press("Shift+ArrowRight")
        self.moved(name, dragged)
        self.assertGreater(self.put(name)[0], dragged[0])
        with self.store.read() as session:
            kept = laid(session.get(LayRow, number))
        self.assertEqual((list(faults(kept.lay)), kept.row.by_hand), ([], True))
        page.click("#hem-done button")
        self.calm()
        self.assertAlmostEqual(self.put(name)[0], dragged[0], 2)
        self.assert_quiet()

    def test_on_another_piece_it_goes_back_and_says_why(self):
        page = self.page
        self.open("/productions/1/lays")
        page.click("th a >> nth=0")
        page.wait_for_selector(".lay-piece")
        names = [piece.get_attribute("data-put") for piece in page.locator(".lay-piece").all()]
        box = {name: page.locator(f'.lay-piece[data-put="{name}"] .lay-ring').bounding_box() for name in names}
        large, small = (
            max(box, key=lambda n: box[n]["width"] * box[n]["height"]),
            min(box, key=lambda n: box[n]["width"] * box[n]["height"]),
        )
        before = self.put(small)
        page.mouse.move(*self.middle(box[small]))
        page.mouse.down()
        page.mouse.move(*self.middle(box[large]), steps=5)
        page.mouse.up()
        page.wait_for_selector(".lay-told")
        self.calm()
        self.assertRegex(self.text(".lay-told"), r"It went back where it was\. .+")
        self.assertEqual(self.put(small), before)
        self.assert_quiet()

    @staticmethod
    def middle(box):
        return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


class OnATablet(Making):
    size = (1024, 768)

    def test_steps_are_ticked_and_moved_and_what_blocks_is_said(self):
        page = self.page
        number = self.docket("Ferry master's waistcoat")
        self.open(f"/dockets/{number}/make")
        self.assert_accessible()
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 1024)
        done = page.locator(".make-list > li.done").count()
        step = page.locator(".make-list > li.now").get_attribute("data-step")
        page.fill("#t-min", "12")
        page.click("#hem-next button[form=tick]")
        page.wait_for_function("(n) => document.querySelectorAll('.make-list > li.done').length === n", arg=done + 1)
        self.calm()
        self.assertEqual(self.made(number).done[step].minutes, 12)
        page.fill("#o-words", "Show it to the designer")
        page.click("button:has-text('Add')")
        page.wait_for_selector(".make-list > li:has-text('Show it to the designer')")
        self.calm()
        self.drag("Show it to the designer", page.locator(".make-list > li").last.get_attribute("data-step"))
        page.wait_for_function(
            "() => document.querySelectorAll('.make-list > li')[document.querySelectorAll('.make-list > li').length - 2].textContent.includes('Show it')"
        )
        self.calm()
        last = page.locator(".make-list > li").last
        self.drag(last.locator("a").inner_text(), page.locator(".make-list > li").nth(1).get_attribute("data-step"))
        page.wait_for_selector(".lay-told")
        self.assertRegex(self.text(".lay-told"), r"cannot|after|before")
        self.assertEqual(page.locator(".make-list > li").last.get_attribute("data-step"), last.get_attribute("data-step"))
        self.assert_quiet(but=("422",))

    def made(self, number):
        with self.store.read() as session:
            return how_made(session.get(Docket, number))

    def drag(self, words, over):
        """A step taken by its words and let go over another."""
        page = self.page
        rows = page.locator(f".make-list > li:has-text({words!r})")
        rows.last.scroll_into_view_if_needed()
        start = rows.last.bounding_box()
        page.mouse.move(start["x"] + 60, start["y"] + 8)
        page.mouse.down()
        page.mouse.move(start["x"] + 60, start["y"] + 20, steps=2)
        page.locator(f'.make-list > li[data-step="{over}"]').scroll_into_view_if_needed()
        end = page.locator(f'.make-list > li[data-step="{over}"]').bounding_box()
        page.mouse.move(end["x"] + 60, end["y"] + 8, steps=3)
        page.mouse.up()


class OfTheHouse(Making):
    def test_a_book_is_written_and_printed(self):
        page = self.page
        with self.store.read() as session:
            wearer = session.scalars(select(Wearer).where(Wearer.name == "Gideon Fenn")).first().id
        self.open(f"/wearers/{wearer}/costumes")
        page.click("a:has-text('Book') >> nth=0")
        self.calm()
        self.assert_accessible()
        with page.expect_download() as coming:
            page.click("#hem-next a")
        with open(coming.value.path(), "rb") as file:
            self.assertTrue(file.read(5).startswith(b"%PDF-"))
        self.assert_quiet()

    def test_days_of_the_hands_and_a_file_for_other_calendars(self):
        page = self.page
        self.open("/productions/1/calendar")
        self.assert_accessible()
        self.assertGreater(page.locator("svg rect").count(), 10)
        with page.expect_download() as coming:
            page.click("a[href*='.ics']")
        with open(coming.value.path(), "rb") as file:
            self.assertIn(b"BEGIN:VCALENDAR", file.read())
        for path in ("/calendar", "/stock", "/practice", "/productions/1/lays"):
            with self.subTest(path):
                self.open(path)
                self.assert_accessible()
        self.assert_quiet()

    def test_a_mistake_is_looked_for_in_a_draft(self):
        page = self.page
        self.open("/practice")
        page.click("a[href*='/practice/'] >> nth=0")
        self.calm()
        self.assert_accessible()
        self.assert_quiet()


class AtTheShop(Making):
    size = (390, 844)

    def test_the_list_is_ticked_on_a_phone(self):
        page = self.page
        self.open("/productions/1/shopping")
        page.wait_for_selector(".shop-tick")
        self.calm()
        self.assert_accessible()
        self.assertLessEqual(page.evaluate("document.documentElement.scrollWidth"), 390)
        for box in (tick.bounding_box() for tick in page.locator(".shop-tick").all()[:3]):
            self.assertGreaterEqual(min(box["width"], box["height"]), 40)
        before = page.locator(".shop-tick.is-on").count()
        page.locator(".shop-tick:not(.is-on)").first.click()
        page.wait_for_function("(n) => document.querySelectorAll('.shop-tick.is-on').length === n", arg=before + 1)
        self.calm()
        page.click("#hem-done button")
        page.wait_for_function("(n) => document.querySelectorAll('.shop-tick.is-on').length === n", arg=before)
        self.assert_quiet()


if __name__ == "__main__":
    unittest.main()
