"""The Cut station in a browser: edges pointed at by mouse and by key, a picture traced by pressing, sheets on a phone, the roll of the
stand-in."""

import io
import threading
import unittest

from PIL import Image, ImageDraw
from playwright.sync_api import expect
from waitress import create_server

from tests.browser.case import BrowserCase
from widehem.plotter_stand_in import Plotter, page
from widehem.store.dockets import find_docket
from widehem.store.models import DesignRow

WAISTCOAT = 24


class Paper(BrowserCase):
    def test_an_edge_is_pointed_at_given_a_figure_and_it_is_undone(self):
        self.open(f"/dockets/{WAISTCOAT}/cut")
        self.page.click("nav.views >> text=Allowances")
        edge = self.page.locator("a.pick[aria-label^='back, panel seam']").first
        edge.focus()
        self.page.keyboard.press("Enter")
        expect(self.page.locator("#e-amount")).to_have_value("1.2")
        self.page.fill("#e-amount", "2.4")
        self.page.click("text=Keep it")
        self.calm()
        expect(self.page.locator(".pick.is-own .t-allow").first).to_be_visible()
        with self.store.read() as session:
            self.assertEqual(find_docket(session, WAISTCOAT).marking["edges"]["side_back.panel"], "2.4 cm")
        self.assert_accessible()
        self.page.keyboard.press("z")
        expect(self.page.locator("[role=status]").filter(has_text="Taken back").first).to_be_visible()
        with self.store.read() as session:
            self.assertNotIn("back.panel", find_docket(session, WAISTCOAT).marking["edges"])
        self.assert_quiet()

    def test_three_views_and_another_paper(self):
        self.open(f"/dockets/{WAISTCOAT}/cut")
        self.assert_accessible()
        self.page.select_option("#paper", "roll90")
        self.page.click(".row2 >> text=Use")
        expect(self.page.locator(".bench-head .sub")).to_contain_text("roll, 90")
        self.page.click("nav.views >> text=Cut list")
        self.calm()
        expect(self.page.locator("h1")).to_contain_text("waistcoat")
        self.assertIn("Sew at", self.text(".slip-body"))
        self.assert_accessible()
        self.open("/productions/1/materials")
        expect(self.page.locator("table.cloths")).to_contain_text("Lining")
        self.assert_accessible()
        self.assert_quiet()

    def test_on_a_phone_the_cut_list_can_be_read(self):
        self.page.set_viewport_size({"width": 390, "height": 780})
        for path in ("cut", "cut/list", "cut/edges"):
            self.open(f"/dockets/{WAISTCOAT}/{path}")
            wide = self.page.evaluate("document.documentElement.scrollWidth")
            self.assertLessEqual(wide, 392, path)
        self.assert_quiet()

    def test_a_picture_is_traced_by_pressing_on_it(self):
        picture = Image.new("RGB", (900, 700), "white")
        draw = ImageDraw.Draw(picture)
        draw.rectangle((150, 100, 550, 400), outline="black", width=3)
        draw.line((150, 600, 550, 600), fill="black", width=3)
        data = io.BytesIO()
        picture.save(data, "PNG")
        self.open("/designs/outlines")
        self.page.set_input_files("#o-picture", {"name": "cuff.png", "mimeType": "image/png", "buffer": data.getvalue()})
        self.page.fill("#o-called", "Old cuff")
        self.page.click("text=Trace it")
        self.page.wait_for_selector("#trace-board")
        box = self.page.evaluate(
            """() => { const m = document.getElementById("trace-board").getScreenCTM(); return [m.a, m.e, m.f]; }"""
        )

        def press(x, y):
            self.page.mouse.click(box[1] + x * box[0], box[2] + y * box[0])

        press(150, 600)
        press(550, 600)
        for spot in ((150, 100), (550, 100), (550, 400)):
            press(*spot)
        self.page.keyboard.press("v")
        press(350, 420)
        self.page.keyboard.press("c")
        press(150, 400)
        press(10, 10)
        self.page.click("#trace-back")
        expect(self.page.locator("#trace-says")).to_have_text("5 points set")
        self.page.fill("#t-distance", "20")
        self.page.fill("#t-called", "Cuff")
        self.page.click("text=Keep this piece")
        expect(self.page.locator(".told-list")).to_contain_text("Cuff")
        with self.store.read() as session:
            row = session.query(DesignRow).filter(DesignRow.name == "Old cuff").one()
            ring = row.outlines["outlines"][0]["ring"]
        self.assertAlmostEqual(abs(ring[1][0] - ring[0][0]), 20.0, delta=0.15)
        self.page.click("text=Name their edges")
        self.page.wait_for_selector(".outlined svg")
        self.assert_accessible()
        self.assert_quiet()

    def test_edges_of_an_outline_are_named(self):
        self.open("/designs/19/outlines")
        self.page.click("a.pick >> nth=0")
        self.page.wait_for_selector("select[name='role.0']")
        self.page.select_option("select[name='role.3']", "side")
        self.page.click("text=Keep it")
        expect(self.page.locator("select[name='role.3']")).to_have_value("side")
        self.assert_accessible()
        self.assert_quiet()

    def test_the_roll_of_the_stand_in(self):
        data = self.context.request.get(f"{self.address}/dockets/{WAISTCOAT}/files/pattern.plt?paper=roll90").body()
        plotter = Plotter(speed=0)
        plotter.begin()
        plotter.take(data)
        server = create_server(page(plotter, "127.0.0.1", 9100), host="127.0.0.1", port=0)
        threading.Thread(target=server.run, daemon=True).start()
        self.addCleanup(server.close)
        self.page.goto(f"http://127.0.0.1:{server.effective_port}/")
        expect(self.page.locator("svg.roll path").first).to_be_attached()
        self.assertGreater(self.page.locator("svg.roll path").count(), 100)
        self.page.click("text=Let the paper jam")
        expect(self.page.locator("#state")).to_contain_text("jammed")
        self.page.click("text=The paper is clear")
        expect(self.page.locator("#state")).to_contain_text("Ready")
        self.assert_quiet()


if __name__ == "__main__":
    unittest.main()
