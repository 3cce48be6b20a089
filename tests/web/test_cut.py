"""The Cut station: allowances by plan and by edge, printers and plotters, materials, every pattern of a cast, archives, and pieces from
elsewhere."""

import io
import json
import re
import time
import zipfile

from PIL import Image

from tests.bodies import upper_build
from tests.web.case import WebCase
from widehem.core.design.make import make
from widehem.core.design.ships import shipped
from widehem.core.output.roll import Roll
from widehem.core.output.writers import WRITERS, Order
from widehem.plotter_stand_in import Plotter, listen, page
from widehem.store.dockets import find_docket
from widehem.store.models import DesignRow, Docket

WAISTCOAT, SMOCK = 24, 31


class Cut(WebCase):
    def docket(self, number=WAISTCOAT):
        with self.store.read() as session:
            return find_docket(session, number)

    def test_an_edge_is_given_a_figure_of_its_own_with_its_partner_and_back(self):
        where = {"piece": "back", "edge": "panel"}
        page = self.get(f"/dockets/{WAISTCOAT}/cut/edges?piece=back&edge=panel")
        self.assertIn("Bodice back panel", page)
        self.post(f"/dockets/{WAISTCOAT}/cut/edge", {**where, "amount": "2.2", "both": "1"})
        edges = self.docket().marking["edges"]
        self.assertEqual((edges["back.panel"], edges["side_back.panel"]), ("2.2 cm", "2.2 cm"))
        self.assertIn("its own", self.get(f"/dockets/{WAISTCOAT}/cut/edges?piece=back&edge=panel"))
        self.assertIn("Sew at 2.2 cm", self.get(f"/dockets/{WAISTCOAT}/cut/list"))
        self.post(f"/dockets/{WAISTCOAT}/cut/edge", {**where, "amount": "2.2", "usual": "1", "both": "1"})
        self.assertNotIn("back.panel", self.docket().marking.get("edges", {}))

    def test_one_side_alone_is_told_by_the_check(self):
        self.post(f"/dockets/{WAISTCOAT}/cut/edge", {"piece": "back", "edge": "panel", "amount": "3"})
        self.assertRegex(self.get(f"/dockets/{WAISTCOAT}/cut"), r"(?s)Allowances</span>.*?Not true")

    def test_a_corner_and_a_notch(self):
        form = {"piece": "back", "edge": "panel", "amount": "1.2", "end": "square", "notch": "8", "double": "1"}
        self.post(f"/dockets/{WAISTCOAT}/cut/edge", form)
        marking = self.docket().marking
        self.assertEqual(marking["corners"], {"back.panel": "square_before"})
        self.assertEqual(marking["notches"][-1]["count"], 2)
        self.assertIn("Double notch at 8.0 cm", self.get(f"/dockets/{WAISTCOAT}/cut/edges?piece=back&edge=panel"))
        self.post(
            f"/dockets/{WAISTCOAT}/cut/notch", {"piece": "back", "edge": "panel", "number": str(len(marking["notches"]) - 1)}
        )
        self.assertEqual(len(self.docket().marking["notches"]), len(marking["notches"]) - 1)

    def test_what_cannot_be_is_told_and_nothing_is_lost(self):
        form = {"piece": "back", "edge": "panel", "amount": "40", "notch": "99"}
        told = self.post(f"/dockets/{WAISTCOAT}/cut/edge", form, 422).get_data(as_text=True)
        for words in ("This edge: 40.0 is outside 0 to 15.0 cm", "The notch: 99.0 is outside 0 to", 'value="40"', 'value="99"'):
            self.assertIn(words, told)
        self.post(f"/dockets/{WAISTCOAT}/cut/edge", {"piece": "back", "edge": "nowhere"}, 404)

    def test_lining_has_a_plan_of_its_own_and_loses_it_again(self):
        self.assertIn("Lining", self.get(f"/dockets/{WAISTCOAT}/cut/edges?use=lining"))
        self.post(f"/dockets/{WAISTCOAT}/cut/plan", {"use": "lining", "plan": "fine"})
        self.assertEqual(self.docket().marking["plans"]["lining"]["plan"], "fine")
        self.post(f"/dockets/{WAISTCOAT}/cut/plan", {"use": "lining", "plan": "fine", "a.seam": "0.9"})
        self.assertEqual(self.docket().marking["plans"]["lining"]["amounts"], {"seam": "0.9 cm"})
        self.post(f"/dockets/{WAISTCOAT}/cut/plan", {"use": "lining", "plan": ""})
        self.assertNotIn("plans", self.docket().marking)
        self.post(f"/dockets/{WAISTCOAT}/cut/plan", {"use": "tent", "plan": "fine"}, 400)

    def test_a_field_in_inches_says_what_its_edge_says_and_takes_an_eighth_beside_it(self):
        self.client.set_cookie("wh_unit", "in")

        def seen():
            page = self.get(f"/dockets/{WAISTCOAT}/cut/edges")
            return re.search(r'id="a-opening"[^>]*value="([^"]*)"|value="([^"]*)"[^>]*id="a-opening"', page), page

        found, page = seen()
        self.assertIn("9/16", found.groups())
        self.assertIn(">9/16</text>", page)
        self.post(f"/dockets/{WAISTCOAT}/cut/plan", {"use": "cloth", "plan": "cloth", "a.opening": "9/16"})
        self.assertNotIn("opening", self.docket().amounts)
        self.post(f"/dockets/{WAISTCOAT}/cut/plan", {"use": "cloth", "plan": "cloth", "a.opening": "5/8"})
        self.assertEqual(self.docket().amounts["opening"], "5/8 in")
        self.assertIn("5/8", seen()[0].groups())

    def test_how_it_is_drawn(self):
        self.post("/dockets/1/cut/drawn", {"whole": "1", "nap": "1", "drill": "lowered"})
        self.assertEqual(self.docket(1).marking, {"whole": True, "nap": True, "drill": "lowered"})
        self.assertIn("1, drawn whole", self.get("/dockets/1/cut/list"))
        self.post(f"/dockets/{WAISTCOAT}/cut/drawn", {"plain": "1"})
        self.assertNotIn("edges", self.docket().marking)

    def test_all_of_it_is_undone(self):
        before = self.docket().marking
        self.post(f"/dockets/{WAISTCOAT}/cut/edge", {"piece": "back", "edge": "panel", "amount": "2.2"})
        number = re.search(r"/done/(\d+)/undo", self.get(f"/dockets/{WAISTCOAT}/cut"))[1]
        self.post(f"/done/{number}/undo", {"back": "/"})
        self.assertEqual(self.docket().marking, before)

    def test_a_plan_of_the_house_is_made_used_and_taken_away(self):
        self.post("/house/plan", {"name": "Sailcloth", "like": "cloth"})
        self.post("/house", {"of": "allowances.cloth+Sailcloth", "a.seam": "2"})
        self.post("/dockets/1/cut/plan", {"plan": "cloth+Sailcloth"})
        self.assertIn('value="2.0"', self.get("/dockets/1/cut/edges"))
        for name, words in (("", "needs a name"), ("a+b", "without + . &lt;"), ("Sailcloth", "already")):
            self.assertIn(words, self.post("/house/plan", {"name": name, "like": "cloth"}, 422).get_data(as_text=True))
        self.post("/house/plan/delete", {"of": "allowances.cloth+Sailcloth"})
        self.assertNotIn("allowances.cloth+Sailcloth", self.get("/house"))
        self.assertIn('value="2.0"', self.get("/dockets/1/cut/edges"), "a garment keeps what it was cut by")

    def test_every_kind_of_file(self):
        for name, begins in (
            ("sheets.pdf", b"%PDF"),
            ("pattern.svg", b"<svg"),
            ("pattern.dxf", b"  0\nSECTION"),
            ("pattern.plt", b"IN;"),
            ("dummies.pdf", b"%PDF"),
        ):
            answer = self.client.get(f"/dockets/{WAISTCOAT}/files/{name}?paper=roll90")
            if name == "dummies.pdf":
                answer = self.client.get(f"/dockets/25/files/{name}")
            self.assertTrue(answer.data.startswith(begins), (name, answer.data[:40]))
        self.assertEqual(self.client.get("/dockets/1/files/dummies.pdf").status_code, 303, "a skirt has none: the page says so")


class Printing(WebCase):
    def test_a_printer_is_measured_and_its_sheets_are_made_up(self):
        self.post("/printers", {"name": "Attic", "across": "4.9", "down": "5.05"})
        page = self.get("/dockets/1/cut")
        self.assertIn("Drawn for Attic", page)
        self.assertIn("Leave it", self.get("/printers"))
        for fields, words in (
            ({"name": "", "across": "5", "down": "5"}, "Give the printer a name"), ({"name": "x", "across": "3", "down": "5"}, "more than a printer is off"),
            ({"name": "x", "across": "abc", "down": "5"}, "Across:"), ({"name": "x", "across": "5", "down": "5", "address": "no port"}, "no address of a plotter"),
            ({"name": "x", "across": "5", "down": "5", "address": "here:99999"}, "no port"),
        ):  # fmt: skip
            self.assertIn(words, self.post("/printers", fields, 422).get_data(as_text=True))
        self.post("/printers/choose", {"printer": ""})
        self.assertNotIn("Drawn for Attic", self.get("/dockets/1/cut"))

    def test_a_garment_is_plotted_and_the_paper_jams_and_is_cleared(self):
        plotter = Plotter(speed=0)
        plotter.jam_at = 40.0
        door = listen(plotter, "127.0.0.1", 0)
        self.addCleanup(door.server_close)
        self.addCleanup(door.shutdown)
        self.post("/printers", {"name": "Roll", "across": "5", "down": "5", "address": f"127.0.0.1:{door.server_address[1]}"})
        answer = self.post(f"/dockets/{WAISTCOAT}/plot?paper=roll90")
        self.assertIn("/under-way/", answer.location)
        self.until(lambda: plotter.jammed)
        device = page(plotter, "127.0.0.1", 1).test_client()
        self.assertIn("jammed", device.get("/").get_data(as_text=True))
        lines = len(plotter.drawn)
        device.post("/do", data={"what": "resume"})
        self.until(lambda: plotter.roll.ended)
        self.assertGreater(len(plotter.drawn), lines)
        self.assertEqual(plotter.trouble, "")
        shown = device.get("/").get_data(as_text=True)
        self.assertIn('class="pen-2"', shown)
        self.assertIn("cm of it drawn on", shown)
        alone = Roll()
        list(alone.feed(self.client.get(f"/dockets/{WAISTCOAT}/files/pattern.plt?paper=roll90").data))
        self.assertAlmostEqual(plotter.roll.paper, alone.paper, delta=0.01)

    def until(self, done):
        for _ in range(400):
            if done():
                return
            time.sleep(0.02)
        self.fail("it never came to that")

    def test_what_does_not_fit_or_is_no_plot_file_is_told_on_the_roll(self):
        plotter = Plotter(wide=40.0, speed=0)
        with self.assertRaises(Exception) as caught:
            plotter.take(self.client.get(f"/dockets/{WAISTCOAT}/files/pattern.plt?paper=roll90").data)
        self.assertIn("lay it on a wider roll", str(caught.exception))

    def test_a_plotter_that_does_not_answer_is_told(self):
        self.post("/printers", {"name": "Gone", "across": "5", "down": "5", "address": "127.0.0.1:1"})
        answer = self.post("/dockets/1/plot?paper=roll90")
        self.assertIn("does not take it", self.get(answer.location))


class Casts(WebCase):
    def test_materials_of_a_production_and_of_a_costume(self):
        page = self.get("/productions/1/materials")
        for words in ("Lining", "Interfacing", "buttons of", "Every pattern at once", "cannot be drawn"):
            self.assertIn(words, page)
        one = self.get("/productions/1/materials?costume=Gideon+Fenn,+Ferryman")
        self.assertIn("Ferry master", one)
        self.assertNotIn("Mourning skirt", one)
        self.get("/productions/99/materials", 404)

    def test_a_cast_to_one_zip(self):
        answer = self.post("/productions/1/files", {"kind": "svg"})
        taken = self.client.get(answer.location, follow_redirects=True)
        with zipfile.ZipFile(io.BytesIO(taken.data)) as packed:
            names = packed.namelist()
            self.assertIsNone(packed.testzip())
            self.assertIn("left out.txt", names)
            self.assertIn("Gideon Fenn Ferry master's waistcoat drawing.svg", names)
        self.assertEqual(len(names), len(set(names)))
        self.assertGreater(len(names), 20)
        self.post("/productions/1/files", {"kind": "exe"}, 400)


class Elsewhere(WebCase):
    def drawing(self, code="dress", kind="svg"):
        return WRITERS[kind].write(Order(make(shipped()[code].design, upper_build())))

    def take(self, data, file, **fields):
        return self.client.post(
            "/designs/outlines",
            data={"csrf_token": self.token(), "file": (io.BytesIO(data), file), **fields},
            content_type="multipart/form-data",
        )

    def test_a_drawing_is_taken_in_named_sewn_and_worn(self):
        answer = self.take(self.drawing(), "frock.svg", name="Bought frock")
        number = re.search(r"/designs/(\d+)/outlines", answer.location)[1]
        station = f"/designs/{number}/outlines"
        self.assertIn("9", self.get(station))
        fields = {"piece": "skirt_back", "title": "Skirt, back", "part": "back", "stands": "pair", "layer": "shell", "use": "1"}
        with self.store.read() as session:
            rows = session.get(DesignRow, int(number)).outlines["pieces"]
        for name in ("skirt_back", "skirt_front"):
            row = next(entry for entry in rows if entry["name"] == name)
            roles = {f"role.{n}": "side" if n == 1 else edge["role"] for n, edge in enumerate(row["edges"])}
            self.post(f"{station}/piece", {**fields, "piece": name, "title": row["title"], **roles})
        self.post(f"{station}/seams", {"propose": "1"})
        with self.store.read() as session:
            found = session.get(DesignRow, int(number)).outlines
        self.assertTrue(any("skirt_back.side" in (s["first"], s["second"]) for s in found["seams"]), found["seams"])
        self.post(f"/designs/{number}/hand-out", {"name": "Frock", "for": "1"})
        with self.store.read() as session:
            docket = max(session.query(Docket).filter(Docket.name == "Frock").all(), key=lambda d: d.id)
        for part in ("draft", "style", "cut", "cut/edges", "cut/list", "compare"):
            self.get(f"/dockets/{docket.id}/{part}")
        self.assertIn("As it was drawn elsewhere", self.get(f"/dockets/{docket.id}/draft"))

    def test_the_allowance_is_taken_off_and_kept_by_its_garments(self):
        answer = self.take(self.drawing("tabard", "dxf"), "tabard.dxf")
        station = re.search(r"(/designs/\d+/outlines)", answer.location)[1]
        self.post(f"{station}/whole", {"off": "1.5", "kept": "1", "opens": "centre_back", "down": "20", "own.back.hem": "2"})
        self.assertIn('value="1.5"', self.get(station))
        self.post(station.replace("outlines", "hand-out"), {"name": "Herald", "for": "1"})
        with self.store.read() as session:
            docket = session.query(Docket).filter(Docket.name == "Herald").one()
        self.assertIn("1.5 cm", docket.marking["edges"].values())
        self.assertEqual(docket.marking["edges"]["back.hem"], "2 cm")

    def test_corners_and_what_cannot_be(self):
        answer = self.take(self.drawing("tabard"), "tabard.svg")
        station = re.search(r"(/designs/\d+/outlines)", answer.location)[1]
        self.post(
            f"{station}/corner",
            {"piece": "pocket", "edge": "0", "along": "3"},
            self.client and 303 if "pocket" in self.get(station) else 422,
        )
        told = self.post(f"{station}/corner", {"piece": "back", "edge": "0", "along": "9999"}, 422).get_data(as_text=True)
        self.assertIn('id="ce-along"', told)
        told = self.post(f"{station}/whole", {"off": "99"}, 422).get_data(as_text=True)
        self.assertIn("Allowance: 99.0 is outside 0 to 15.0 cm", told)
        self.post(f"{station}/whole", {"off": "1.2"})

    def test_files_that_are_no_drawings_are_told(self):
        for data, name, words in (
            (b"", "a.svg", "Choose a drawing first"), (b"x", "a.pdf", "neither an SVG nor a DXF"), (b"<svg", "a.svg", "no SVG that can be read"),
            (b"junk", "a.dxf", "no DXF"), (b"x" * (9 * 1024 * 1024), "a.svg", "larger than 8 MB"),
        ):  # fmt: skip
            answer = self.take(data, name)
            self.assertEqual(answer.status_code, 422, name)
            self.assertIn(words, answer.get_data(as_text=True))

    def test_a_picture_is_traced(self):
        picture = io.BytesIO()
        Image.new("RGB", (800, 600), "white").save(picture, "PNG")
        answer = self.client.post(
            "/designs/trace", data={"csrf_token": self.token(), "picture": (io.BytesIO(picture.getvalue()), "scan.png"), "name": "Old cuff"},
            content_type="multipart/form-data",
        )  # fmt: skip
        trace = answer.location
        self.assertIn("Tracing Old cuff", self.get(trace))
        self.assertEqual(self.client.get(trace.replace("trace", "picture")).mimetype, "image/jpeg")
        points = json.dumps([[100, 100, True], [500, 100, True], [520, 200, False], [500, 300, True], [100, 300, True]])
        told = self.post(trace, {"title": "Cuff", "points": points, "scale": "[]", "distance": "20"}, 422).get_data(
            as_text=True
        )
        self.assertIn("Set the two ends of something", told)
        self.assertIn("520", told, "the points are not lost")
        self.post(trace, {"title": "Cuff", "points": points, "scale": "[[100,500],[500,500]]", "distance": "20"})
        number = int(re.search(r"/designs/(\d+)", trace)[1])
        with self.store.read() as session:
            outline = session.get(DesignRow, number).outlines["outlines"][0]
        self.assertAlmostEqual(outline["ring"][1][0] - outline["ring"][0][0], 20.0, places=3)
        for bad in ('[["a"]]', "{", "[" * 5000):
            self.post(trace, {"title": "x", "points": bad, "scale": "[[0,0],[9,9]]", "distance": "5"}, 400)
        self.get("/designs/1/trace", 404)

    def test_the_demo_has_a_nest_of_three_sizes(self):
        self.assertIn("bust 72", self.get("/designs/19/outlines?size=bust+72"))
        widths = []
        for size in ("1", "3"):
            page = self.get(f"/dockets/{SMOCK}/draft?o.size={size}")
            widths.append(float(re.search(r"waist (\d+\.\d)", page)[1]))
        self.assertLess(widths[0], widths[1])


class Archives(WebCase):
    def test_a_production_goes_out_and_in_again(self):
        data = self.client.get("/productions/1/archive").data
        found = json.loads(data)
        self.assertEqual((found["format"], len(found["rows"]["docket"])), ("widehem-archive", 31))
        answer = self.client.post(
            "/archives",
            data={"csrf_token": self.token(), "file": (io.BytesIO(data), "a.json")},
            content_type="multipart/form-data",
        )
        self.assertEqual(answer.status_code, 303)
        self.assertIn("The Lantern Ferry 2", self.get(answer.location))
        self.assertNotIn('"photo": [\n', self.client.get("/productions/1/archive?pictures=no").get_data(as_text=True))
        for wrong, words in (
            (b"", "Choose an archive first"),
            (b"{}", "no archive of a production"),
            (b"[" * 9000, "not JSON"),
        ):
            told = self.client.post(
                "/archives",
                data={"csrf_token": self.token(), "file": (io.BytesIO(wrong), "a.json")},
                content_type="multipart/form-data",
            )
            self.assertEqual(told.status_code, 422)
            self.assertIn(words, told.get_data(as_text=True))
