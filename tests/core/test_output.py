"""What is handed over, read back by other programs."""

import io
import itertools
import json
import re
import shutil
import subprocess
import tempfile
import unittest
import xml.etree.ElementTree as ET
from pathlib import Path

from fontTools.pens.recordingPen import RecordingPen
from fontTools.svgLib.path import parse_path
from PIL import Image
from pypdf import PdfReader
from pypdf.generic import ContentStream

from tests.bodies import BUILDS, skirt
from widehem.core.marking.labels import Heading
from widehem.core.marking.made import mark_up
from widehem.core.marking.plans import PLANS
from widehem.core.output.json_draft import draft_as_json, method_as_json
from widehem.core.output.laid import in_a_row
from widehem.core.output.pdf_card import card_pdf
from widehem.core.output.pdf_sheets import sheets_pdf
from widehem.core.output.sheets import (
    OVERLAP,
    PAPERS,
    PaperError,
    cut_into_sheets,
    paper_named,
    row_name,
    scale_named,
    sheets_for,
)
from widehem.core.output.svg_board import board_svg, frames, lens_frame
from widehem.core.output.svg_pattern import pattern_svg
from widehem.core.output.svg_sheets import sheet_map_svg
from widehem.core.units import Display

POINTS_PER_MM = 72 / 25.4
HEADING = Heading("The Lantern Ferry", "Ferry skirt", "Zoë Łuk", "Quayside Players", "3 November 2026", "draft 2")


def pattern(build="typical", plan="cloth", **options):
    return mark_up(skirt(build, options), PLANS[plan], HEADING)


def strokes(page):
    """Every straight of a page in points, its transforms applied, form XObjects included."""
    found = []

    def walk(content, resources, matrix):
        stack, here = [], None
        for operands, operator in content.operations:
            numbers = [float(n) for n in operands if isinstance(n, int | float)] if operator not in (b"Do", b"d") else []
            if operator == b"q":
                stack.append(matrix)
            elif operator == b"Q":
                matrix = stack.pop()
            elif operator == b"cm":
                matrix = _times(numbers, matrix)
            elif operator == b"m":
                here = _apply(matrix, numbers)
            elif operator == b"l":
                there = _apply(matrix, numbers)
                found.append((here, there))
                here = there
            elif operator == b"c":
                here = _apply(matrix, numbers[4:])
            elif operator == b"re":
                x, y, w, h = numbers
                corners = [_apply(matrix, p) for p in ((x, y), (x + w, y), (x + w, y + h), (x, y + h))]
                found.extend(zip(corners, [*corners[1:], corners[0]], strict=True))
            elif operator == b"Do":
                form = resources["/XObject"][operands[0]].get_object()
                if form["/Subtype"] == "/Form":
                    walk(ContentStream(form, page.pdf), form.get("/Resources", {}).get_object(), matrix)

    walk(ContentStream(page.get_contents(), page.pdf), page["/Resources"].get_object(), [1, 0, 0, 1, 0, 0])
    return found


def _times(a, b):
    return [
        a[0] * b[0] + a[1] * b[2], a[0] * b[1] + a[1] * b[3], a[2] * b[0] + a[3] * b[2], a[2] * b[1] + a[3] * b[3],
        a[4] * b[0] + a[5] * b[2] + b[4], a[4] * b[1] + a[5] * b[3] + b[5],
    ]  # fmt: skip


def _apply(m, p):
    return (m[0] * p[0] + m[2] * p[1] + m[4], m[1] * p[0] + m[3] * p[1] + m[5])


def mm(segment):
    (x0, y0), (x1, y1) = segment
    return ((x1 - x0) ** 2 + (y1 - y0) ** 2) ** 0.5 / POINTS_PER_MM


class Pdf(unittest.TestCase):
    def test_the_first_page_has_both_squares_in_true_size(self):
        for paper in ("a4", "letter"):
            page = PdfReader(io.BytesIO(sheets_pdf(pattern(), PAPERS[paper]))).pages[0]
            lengths = [mm(s) for s in strokes(page)]
            sides = [tuple(lengths[i : i + 4]) for i in range(len(lengths) - 3)]
            for size in (50, 50.8):
                self.assertTrue(any(all(abs(side - size) < 0.02 for side in four) for four in sides), (paper, size))

    def test_one_big_page_carries_the_centre_back_at_every_scale(self):
        for scale in (1.0, 0.5, 0.25):
            page = PdfReader(io.BytesIO(sheets_pdf(pattern(), PAPERS["one"], scale))).pages[0]
            lengths = [mm(s) for s in strokes(page)]
            self.assertTrue(any(abs(length - 590 * scale) < 0.2 for length in lengths), scale)

    def test_the_centre_back_runs_on_from_sheet_to_sheet(self):
        """Joined at the overlaps, the pieces of the CB stitching line on A1, B1, C1 make 59 cm."""
        reader = PdfReader(io.BytesIO(sheets_pdf(pattern(), PAPERS["a4"])))
        sheets = sheets_for(pattern(), PAPERS["a4"])
        names = [tile.name for tile in sheets.printed]
        self.assertEqual(len(reader.pages), 1 + len(names))
        spans = []
        for name in ("A1", "B1", "C1"):
            page = reader.pages[1 + names.index(name)]
            tile = next(t for t in sheets.tiles if t.name == name)
            top = float(page.mediabox.height) - 10 * POINTS_PER_MM
            upright = [(x0, y0, y1) for (x0, y0), (x1, y1) in strokes(page) if abs(x0 - x1) < 0.01]
            lines = [line for line in upright if abs(abs(line[1] - line[2]) / POINTS_PER_MM - 590) < 0.2]
            _, y0, y1 = min(lines)  # the leftmost is the CB, the other the fold of the front
            spans.append(sorted(((top - y0) / POINTS_PER_MM + tile.y * 10, (top - y1) / POINTS_PER_MM + tile.y * 10)))
        self.assertEqual(len(spans), 3)
        for start, end in spans[1:]:
            self.assertAlmostEqual(start, spans[0][0], delta=0.2)
            self.assertAlmostEqual(end, spans[0][1], delta=0.2)

    @unittest.skipUnless(shutil.which("pdftoppm"), "poppler is not here")
    def test_poppler_draws_the_test_square_in_true_size(self):
        """At 254 dots to the inch a pixel is a tenth of a millimetre."""
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "sheets.pdf"
            file.write_bytes(sheets_pdf(pattern(), PAPERS["a4"]))
            subprocess.run(
                ["pdftoppm", "-r", "254", "-f", "1", "-l", "1", "-gray", "-png", str(file), str(Path(folder) / "p")], check=True
            )
            image = Image.open(next(Path(folder).glob("p*.png"))).convert("L")
        x = 10 * 10 + 12  # just inside the left edge of the 5 cm square
        dark = [y for y in range(300, 2000) if image.getpixel((x, y)) < 100]
        runs = [y for y in dark if y - 1 not in dark]
        tops = [(a, b) for a in runs for b in runs if abs((b - a) - 500) <= 2]
        self.assertTrue(tops, runs)

    def test_words_on_every_sheet(self):
        reader = PdfReader(io.BytesIO(sheets_pdf(pattern(), PAPERS["a4"], 0.5)))
        printed = len(reader.pages) - 1
        for number, page in enumerate(reader.pages):
            words = page.extract_text()
            self.assertIn("scale 1:2", words.lower())
            self.assertIn("Zoë Łuk", words)
            if number:
                self.assertIn(f"sheet {number} of {printed}", words)
        first = reader.pages[0].extract_text()
        for words in ("100 %", "Map of the sheets", "5 cm", "2 in"):
            self.assertIn(words, first)

    def test_the_same_pattern_gives_the_same_file(self):
        self.assertEqual(sheets_pdf(pattern(), PAPERS["a4"]), sheets_pdf(pattern(), PAPERS["a4"]))

    def test_the_method_card_tells_every_step_with_its_figures(self):
        for unit in ("cm", "in"):
            draft = skirt("typical")
            show = Display(unit, 16)
            words = "".join(p.extract_text() for p in PdfReader(io.BytesIO(card_pdf(draft, HEADING, PAPERS["a4"], show))).pages)
            flat = re.sub(r"\s+", " ", words)
            for step in draft.steps:
                self.assertIn(step.title, flat)
                for entry in step.sums:
                    self.assertIn(entry.quantity.figure(show), flat)
            self.assertIn("hip ease", flat)


class Sheets(unittest.TestCase):
    def test_tiles_cover_the_work_and_overlap_by_a_centimetre(self):
        for build in BUILDS:
            for paper in ("a4", "letter", "a3"):
                layout = in_a_row(pattern(build))
                sheets = cut_into_sheets(layout, PAPERS[paper])
                tile_w, tile_h = sheets.paper.tile
                last = sheets.tiles[-1]
                self.assertGreaterEqual(last.x + tile_w, layout.width - 1e-6)
                self.assertGreaterEqual(last.y + tile_h, layout.height - 1e-6)
                self.assertAlmostEqual(sheets.step[0] + OVERLAP, tile_w)
                self.assertEqual(len({tile.name for tile in sheets.tiles}), len(sheets.tiles))

    def test_empty_sheets_are_left_out_and_said_so(self):
        from dataclasses import replace

        short = pattern("child", length=40)
        tall = pattern("typical", length=130)
        both = replace(tall, pieces=(*tall.pieces, *short.pieces))
        sheets = sheets_for(both, PAPERS["a4"])
        self.assertTrue(sheets.left_out)
        words = PdfReader(io.BytesIO(sheets_pdf(both, PAPERS["a4"]))).pages[0].extract_text()
        self.assertIn(f"Left out because nothing lies on them: {sheets.left_out[0].name}", words)
        self.assertIn("not printed", sheet_map_svg(sheets))

    def test_the_gap_is_chosen_to_save_paper(self):
        made = pattern()
        self.assertLessEqual(
            len(sheets_for(made, PAPERS["a4"]).printed), len(cut_into_sheets(in_a_row(made), PAPERS["a4"]).printed)
        )

    def test_names(self):
        self.assertEqual([row_name(n) for n in (0, 25, 26, 51, 52)], ["A", "Z", "AA", "AZ", "BA"])
        for call, word in ((paper_named, "b7"), (scale_named, "3:1")):
            with self.assertRaises(PaperError) as caught:
                call(word)
            self.assertIn(word, str(caught.exception))


class Svg(unittest.TestCase):
    def test_true_millimetres(self):
        for scale in (1.0, 0.5):
            root = ET.fromstring(pattern_svg(pattern(), scale))
            self.assertTrue(root.attrib["width"].endswith("mm"))
            self.assertEqual(root.attrib["width"][:-2], root.attrib["viewBox"].split()[2])
            names = {"s": "http://www.w3.org/2000/svg"}
            for square, size in (("test-5cm", 50), ("test-2in", 50.8)):
                d = root.find(f".//s:path[@id='{square}']", names).attrib["d"]
                xs = [p[0] for p in points_of(d)]
                self.assertAlmostEqual(max(xs) - min(xs), size, places=3)
            pieces = root.find(".//s:g[@id='pieces']", names)
            factor = float(re.search(r"scale\(([\d.]+)\)", pieces.attrib["transform"])[1])
            lengths = []
            for path in pieces.findall(".//s:g[@class='stitch']/s:path", names):
                found = points_of(path.attrib["d"])
                lengths += [((a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2) ** 0.5 * factor for a, b in itertools.pairwise(found)]
            self.assertTrue(any(abs(length - 590 * scale) < 0.2 for length in lengths), "the CB stitching line")

    def test_lines_are_grouped_by_kind_under_their_piece(self):
        root = ET.fromstring(pattern_svg(pattern()))
        names = {"s": "http://www.w3.org/2000/svg"}
        for piece in ("back", "front"):
            kinds = {g.attrib["class"] for g in root.findall(f".//s:g[@id='{piece}']/s:g", names)}
            self.assertLessEqual({"cut", "stitch", "notch", "drill", "grain", "words", "balance"}, kinds)

    def test_words_are_escaped(self):
        made = mark_up(skirt(), PLANS["cloth"], Heading(wearer='<b>&"', costume="Skirt & co"))
        ET.fromstring(pattern_svg(made))
        ET.fromstring(sheet_map_svg(sheets_for(made, PAPERS["a4"])))


def points_of(d):
    pen = RecordingPen()
    parse_path(d, pen)
    return [point for _, points in pen.value for point in points]


class Board(unittest.TestCase):
    def test_every_step_of_every_build_is_well_formed_in_both_units(self):
        for build in BUILDS:
            draft = skirt(build)
            for step in range(1, len(draft.steps) + 1):
                for unit in ("cm", "in"):
                    ET.fromstring(f"<svg>{board_svg(draft, step, Display(unit))}</svg>")
                lens = lens_frame(draft, step)
                if lens:
                    self.assertLess(lens.width, frames(draft)["whole"].width)

    def test_what_is_just_drawn_is_fresh_and_what_is_to_come_is_not_there(self):
        draft = skirt()
        darts = next(step.number for step in draft.steps if step.title == "Back darts")
        before, now, after = (board_svg(draft, n) for n in (darts - 1, darts, len(draft.steps)))
        self.assertNotIn("back dart L", before)
        self.assertIn("pt-fresh", now)
        self.assertIn(f'<text class="flag-n" x="-25" y="5">{darts}</text>', now)
        self.assertNotIn("fresh", after)
        self.assertIn('class="piece"', after)

    def test_points_tell_their_working_and_checks_light_their_spots(self):
        draft = skirt()
        svg = board_svg(draft, len(draft.steps), lit=("back.side", "@hip"))
        self.assertIn('data-name="Side at the hip"', svg)
        self.assertIn("hip 94.0 ÷ 4 + hip ease 3.0 ÷ 2", svg)
        self.assertEqual(svg.count(" lit"), 2)


class Json(unittest.TestCase):
    def test_the_shape_that_scripts_rely_on(self):
        found = json.loads(json.dumps(draft_as_json(skirt())))
        self.assertLessEqual({"method", "options", "ease", "points", "pieces", "girths", "checks", "steps"}, set(found))
        back = found["pieces"][0]
        self.assertEqual(back["name"], "back")
        self.assertEqual([edge["name"] for edge in back["edges"]], ["waist", "side", "hem", "centre_back"])
        self.assertEqual({edge["name"]: edge["length"] for edge in back["edges"]}["centre_back"], 59.0)
        self.assertLessEqual({"name", "intake", "length", "point"}, set(back["darts"][0]))
        self.assertAlmostEqual(back["area"], 25 * 59, delta=60)
        self.assertEqual({girth["level"]: round(girth["ease"], 2) for girth in found["girths"]}, {"waist": 0.0, "hip": 3.0})
        self.assertEqual({check["verdict"] for check in found["checks"]} - {"true", "look", "not"}, set())
        self.assertEqual(found["steps"][2]["working"], ["half width: (hip 94.0 + hip ease 3.0) ÷ 2 = 48.5"])

    def test_methods_tell_needs_options_and_ease(self):
        found = method_as_json(skirt().method)
        self.assertEqual([need["measure"] for need in found["needs"]], ["waist", "hip", "waist_hip", "waist_knee"])
        for option in (*found["options"], *found["ease"]):
            self.assertTrue(option["why"])
            self.assertTrue("choices" in option or option["range"][0] < option["range"][1])


if __name__ == "__main__":
    unittest.main()
