"""What is handed to other machines, read back by other programs: DXF, plot files, layers of a PDF, sheets for a printer that is off."""

import io
import json
import unittest
from functools import cache

import ezdxf
from pypdf import PdfReader
from shapely import LineString, Polygon
from shapely import Point as Dot

from tests.bodies import skirt, upper_build
from tests.core.test_output import strokes
from widehem.core.design.make import make
from widehem.core.design.ships import shipped
from widehem.core.marking.labels import Heading
from widehem.core.marking.made import mark_up
from widehem.core.marking.plans import PLANS
from widehem.core.output.arrange import ring_of
from widehem.core.output.hpgl import EDGE, HEAD, pattern_plot
from widehem.core.output.ink import KINDS
from widehem.core.output.pdf_sheets import sheets_pdf
from widehem.core.output.refused import CannotWriteError
from widehem.core.output.roll import PlotError, Roll
from widehem.core.output.sheets import PAPERS, SCALES, PaperError, arranged, calibrated, puts_for, sheets_for
from widehem.core.output.sheets import _printed as printed
from widehem.core.output.sheets import _row as in_row
from widehem.core.output.writers import WRITERS, Order

HEADING = Heading(
    "The Lantern Ferry", "Ferry master's waistcoat", "Gideon Fenn", "Quayside Players", "30 November 2026", "draft 2"
)


@cache
def waistcoat():
    return make(shipped()["waistcoat"].design, upper_build())


def drawing(data):
    return ezdxf.read(io.StringIO(data.decode()))


class Dxf(unittest.TestCase):
    def test_it_is_whole_and_in_millimetres(self):
        for scale in (1.0, 0.5, 0.2):
            found = drawing(WRITERS["dxf"].write(Order(waistcoat(), HEADING, scale=scale)))
            audit = found.audit()
            self.assertEqual((audit.errors, audit.fixes), ([], []))
            self.assertEqual((found.dxfversion, found.header["$INSUNITS"]), ("AC1015", 4))
            squares = [e for e in found.modelspace().query("LWPOLYLINE") if e.dxf.layer == "test"]
            sides = sorted(round(LineString(e.get_points("xy")).length / 3, 3) for e in squares)
            self.assertEqual(sides, [50.0, 50.8], "the test squares are true at every scale")

    def test_every_piece_is_a_block_and_every_kind_of_line_has_its_layer(self):
        made = waistcoat()
        found = drawing(WRITERS["dxf"].write(Order(made, HEADING)))
        inserts = [e.dxf.name for e in found.modelspace().query("INSERT")]
        self.assertEqual(sorted(inserts), sorted(piece.name for piece in made.garment.pieces))
        layers = {e.dxf.layer for name in inserts for e in found.blocks[name]}
        self.assertEqual(layers, {"1", "4", "7", "8", "13", "14", "15"})
        words = {e.dxf.text for e in found.blocks["front"].query("TEXT")}
        self.assertTrue(any(text.startswith("Bodice front, 3 of 14") for text in words), words)

    def test_edges_are_as_long_as_they_are_sewn(self):
        from ezdxf.path import make_path

        made = waistcoat()
        for scale in SCALES.values():
            found = drawing(WRITERS["dxf"].write(Order(made, HEADING, scale=scale)))
            for piece in made.garment.pieces:
                lengths = [
                    make_path(e).length_exact if hasattr(make_path(e), "length_exact") else _length(e)
                    for e in found.blocks[piece.name]
                    if e.dxf.layer == "14"
                ]
                whole = sum(lengths)
                sewn = sum(path.length for edge in piece.edges for path in edge.paths()) * 10 * scale
                self.assertGreaterEqual(whole, sewn - 0.2, (piece.name, scale))

    def test_the_cutting_line_is_the_one_that_is_cut(self):
        made = waistcoat()
        pattern = mark_up(made, PLANS["cloth"], HEADING)
        found = drawing(WRITERS["dxf"].write(Order(made, HEADING)))
        for marked in pattern.pieces:
            rings = [e for e in found.blocks[marked.piece.name].query("LWPOLYLINE") if e.dxf.layer == "1"]
            self.assertEqual(len(rings), 1)
            area = Polygon(rings[0].get_points("xy")).area / 100
            self.assertAlmostEqual(area, Polygon(marked.cut).area, places=3)


def _length(entity):
    from ezdxf.path import make_path

    return LineString([(p.x, p.y) for p in make_path(entity).flattening(0.002)]).length


class Plot(unittest.TestCase):
    def drawn(self, paper="roll90", scale=1.0, parts=None):
        pattern = mark_up(waistcoat(), PLANS["cloth"], HEADING)
        plot = pattern_plot(pattern, PAPERS[paper], scale)
        roll = Roll()
        data = plot.data
        found = [
            line
            for start in range(0, len(data), parts or len(data))
            for line in roll.feed(data[start : start + (parts or len(data))])
        ]
        return pattern, plot, roll, found

    def test_the_stand_in_draws_the_outline_within_a_tenth_of_a_millimetre(self):
        for paper, scale in (("roll90", 1.0), ("roll60", 1.0), ("roll120", 0.5)):
            pattern, _, _, found = self.drawn(paper, scale)
            layout = arranged(pattern, PAPERS[paper], scale)
            rings = [line for line in found if line.pen == 1 and len(line.points) > 20]
            for laid in layout.pieces:
                ring = [(p.y * scale + HEAD + EDGE, p.x * scale + EDGE) for p in laid.cut]
                apart = min(LineString(line.points).hausdorff_distance(LineString([*ring, ring[0]])) for line in rings)
                self.assertLess(apart, 0.01, (laid.marked.piece.name, paper, scale))

    def test_paper_and_time_are_counted_and_it_ends(self):
        _, plot, roll, found = self.drawn()
        self.assertTrue(roll.ended)
        self.assertEqual(roll.passed_over, 0)
        self.assertLess(abs(roll.paper - plot.length), 1.5)
        self.assertGreater(roll.seconds, roll.drawn / 30)
        self.assertIn(3, {line.pen for line in found})

    def test_it_can_come_in_any_parts(self):
        whole, parts = self.drawn()[3], self.drawn(parts=7)[3]
        self.assertEqual(whole, parts)

    def test_what_fits_across_the_roll_lies_on_it(self):
        for paper in ("roll60", "roll90", "roll120"):
            _, _, _, found = self.drawn(paper)
            self.assertLessEqual(max(p.y for line in found if not line.words for p in line.points), PAPERS[paper].width)

    def test_a_piece_wider_than_the_roll_is_told_and_printed_in_lengths_laid_together(self):
        pattern = mark_up(make(shipped()["cloak"].design, upper_build()), PLANS["cloth"], HEADING)
        with self.assertRaises(CannotWriteError) as caught:
            pattern_plot(pattern, PAPERS["roll60"])
        self.assertRegex(
            str(caught.exception), r"^The .* is \d+\.\d cm wide, too wide for a roll of 60\.0 cm: choose a wider one"
        )
        reader = PdfReader(io.BytesIO(sheets_pdf(pattern, PAPERS["roll60"])))
        self.assertGreater(len(reader.pages), 2)
        self.assertAlmostEqual(float(reader.pages[1].mediabox.width) / 72 * 2.54, 60.0, places=2)

    def test_what_is_no_plot_file_is_told(self):
        for data, words in (
            (b"%PDF-1.7 ...", "no order"),
            (b"PU0,0;", "begins with IN"),
            (b"IN;PU9e99,0;PD1,1;", "off the end"),
            (b"IN;PDa,b;", "no figures"),
        ):
            with self.assertRaises(PlotError) as caught:
                list(Roll().feed(data))
            self.assertIn(words, str(caught.exception))


class Sheets(unittest.TestCase):
    def test_pieces_arranged_take_at_least_an_eighth_fewer_sheets_than_in_a_row(self):
        found = row = 0
        step = PAPERS["a4"].tile[0] - 1, PAPERS["a4"].tile[1] - 1
        for named in shipped().values():
            pattern = mark_up(make(named.design, upper_build()), PLANS["cloth"])
            rings = [ring_of(marked.cut) for marked in pattern.pieces]
            mine, theirs = (printed(rings, puts, step)[0] for puts in (puts_for(pattern, PAPERS["a4"]), in_row(rings, 0.6)))
            self.assertLessEqual(mine, theirs, named.name)
            found, row = found + mine, row + theirs
        self.assertLess(found, row * 0.88)

    def test_no_piece_lies_on_another_and_all_are_on_the_paper(self):
        pattern = mark_up(waistcoat(), PLANS["cloth"])
        for paper in PAPERS.values():
            sheets = sheets_for(pattern, paper)
            shapes = [Polygon(laid.cut) for laid in sheets.layout.pieces]
            for n, shape in enumerate(shapes):
                self.assertTrue(all(shape.distance(other) > 0.4 for other in shapes[:n]), paper.code)
            self.assertGreaterEqual(min(s.bounds[0] for s in shapes), 0)
            if paper.roll:
                self.assertLessEqual(max(s.bounds[2] for s in shapes), paper.tile[0])

    def test_a_pdf_has_a_layer_for_each_kind_of_line(self):
        reader = PdfReader(io.BytesIO(sheets_pdf(mark_up(waistcoat(), PLANS["cloth"], HEADING), PAPERS["a4"])))
        groups = [group.get_object()["/Name"] for group in reader.trailer["/Root"]["/OCProperties"]["/OCGs"]]
        self.assertEqual(groups, [KINDS[kind] for kind in KINDS if kind not in ("fold", "zone")])
        page = reader.pages[1]
        forms = [form.get_object() for form in page["/Resources"]["/XObject"].values()]
        self.assertEqual(len([form for form in forms if "/OC" in form]), len(groups), "each form is on its layer")

    def test_a_printer_that_is_off_is_made_up_for(self):
        pattern = mark_up(skirt(), PLANS["cloth"], HEADING)
        paper = calibrated(PAPERS["a4"], 4.95, 5.05)
        reader = PdfReader(io.BytesIO(sheets_pdf(pattern, paper)))
        sides = {round(abs(b[0] - a[0]) / 72 * 2.54, 2) for a, b in strokes(reader.pages[0]) if abs(a[1] - b[1]) < 1e-6}
        self.assertIn(round(5 / 0.99, 2), sides, "drawn so much larger that it comes out right")
        for across, down in ((4.0, 5.0), (5.0, 6.0)):
            with self.assertRaises(PaperError):
                calibrated(PAPERS["a4"], across, down)

    def test_a_roll_is_one_page_as_long_as_the_work(self):
        pattern = mark_up(waistcoat(), PLANS["cloth"], HEADING)
        for code in ("roll60", "roll90", "roll120"):
            reader = PdfReader(io.BytesIO(sheets_pdf(pattern, PAPERS[code])))
            self.assertEqual(len(reader.pages), 1)
            wide, high = (float(side) / 72 * 2.54 for side in reader.pages[0].mediabox[2:])
            self.assertAlmostEqual(wide, PAPERS[code].width, places=2)
            self.assertLess(high, 320)

    def test_json_of_a_draft_is_what_it_was(self):
        found = json.loads(WRITERS["json"].write(Order(waistcoat(), HEADING)))
        self.assertEqual(len(found["pieces"]), 14)
        self.assertTrue(all(Dot(p["outline"][0]) for p in found["pieces"]))


if __name__ == "__main__":
    unittest.main()
