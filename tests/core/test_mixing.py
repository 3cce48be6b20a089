"""Sizes mixed on one body, views of a nest, its files."""

import io
import json
import re
import unittest
from dataclasses import replace
from itertools import pairwise

import pypdf
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon

from tests.nests import grading, nest
from tests.some import tries
from widehem.core.body.chart import chart_of
from widehem.core.grading.differ import difference
from widehem.core.grading.house_charts import HOUSE
from widehem.core.grading.mix import Mix, MixError, mixed
from widehem.core.grading.mixing import STEEPEST, blend
from widehem.core.grading.nest import grade
from widehem.core.grading.views import Anchor, anchors, dottings, inherited
from widehem.core.marking.labels import Heading
from widehem.core.marking.plans import PLANS
from widehem.core.marking.wanted import Wanted
from widehem.core.output.ink import Words
from widehem.core.output.nested import NEST_WRITERS, nested, order_of_nest
from widehem.core.output.pdf_ruler import ruler_pdf
from widehem.core.output.sheets import PAPERS
from widehem.core.output.svg_nest import dots_svg, nest_svg, over_svg
from widehem.core.units import METRIC, Display

BASE = HOUSE["curved"].base


def whole(code, way="redraft"):
    return nest(code, "curved", way, 3)


class Down(unittest.TestCase):
    def test_waist_84_on_hip_99(self):
        """Ease of the skirt as it was, the side in one line, and a jog within ten centimetres that is warned of beyond one and a half."""
        body = chart_of({"waist": 84.0, "hip": 99.0})
        found = mixed(whole("skirt.two_panel"), Mix("down", {"waist": 6.5, "hip": 4.0}, 4.0), body)
        ease = {title: round(ease, 1) for title, _, _, ease in found.ease}
        self.assertEqual(ease, {"Waist": 1.5, "Hip": 3.0})
        self.assertEqual([check.name for check in found.sized.untrue], [])
        for jog in found.jogs.values():
            self.assertAlmostEqual(jog, 1.47, delta=0.1)
        further = mixed(whole("skirt.two_panel"), Mix("down", {"waist": 7.0, "hip": 4.0}, 4.0), body)
        self.assertGreater(min(further.jogs.values()), 1.5)
        self.assertTrue(all("jogs by 1." in words.text() for words in further.cautions) and further.cautions)

    def test_one_size_everywhere_is_that_size_and_halves_lie_between(self):
        for code in ("skirt.two_panel", "bodice.measured", "trousers.frame"):
            found = whole(code)
            same = mixed(found, Mix("down", {"waist": 5.0}, 5.0))
            self.assertLess(difference(same.garment, found.sizes[5].garment).outline, 0.001, code)
            half = mixed(found, Mix("down", {"waist": 4.5}, 4.5)).garment
            for piece in half.pieces:
                for edge in piece.edges:
                    ends = [found.sizes[size].garment.piece(piece.name).edge(edge.name).length for size in (4, 5)]
                    self.assertAlmostEqual(edge.length, sum(ends) / 2, delta=0.12, msg=(code, piece.name, edge.name))

    def test_a_yoke_goes_with_its_armhole_and_a_collar_with_its_stand(self):
        found = whole("shirt", "rules")
        narrow, long = found.sizes[3].garment, mixed(found, Mix("down", {"bust": 3.0}, 6.0)).garment
        for name in ("shoulder", "armhole"):
            self.assertAlmostEqual(long.piece("yoke").edge(name).length, narrow.piece("yoke").edge(name).length, delta=0.25)
        by_title = {seam.title: seam for seam in long.seams}
        for title in ("Collar stand", "Collar on its stand"):
            first, second = (long.length_of(chain) for chain in (by_title[title].first, by_title[title].second))
            self.assertAlmostEqual(first, second, delta=0.01, msg=title)
        self.assertLess(
            long.length_of(by_title["Collar stand"].first),
            0.97 * found.sizes[6].garment.length_of(by_title["Collar stand"].first),
        )

    @given(
        st.sampled_from(("shirt", "dress", "trousers.frame", "coat.straight")),
        st.lists(st.integers(2, 12).map(lambda n: n / 2), min_size=3, max_size=3),
        st.sampled_from((1.0, 4.0, 6.0)),
    )
    @settings(max_examples=tries(15))
    def test_any_sizes_are_one_line_or_said_to_lie_too_far_apart(self, code, sizes, lengths):
        stops = dict(zip(("bust", "waist", "hip"), sizes, strict=True))
        try:
            made = mixed(whole(code, "rules"), Mix("down", stops, lengths)).garment
        except MixError as error:
            self.assertIn("nearer", str(error))
            self.assertGreater(max(sizes) - min(sizes), 1.0)
            return
        for piece in made.shell:
            self.assertTrue(Polygon([(p.x, p.y) for p in piece.outline()]).is_valid, piece.name)

    def test_lengths_stay_those_of_their_size_and_seams_together(self):
        for code in ("bodice.measured", "coat.straight", "top.jersey", "dress", "shirt"):
            found = whole(code, "rules")
            made = mixed(found, Mix("down", {"bust": 3.0, "waist": 5.0}, 4.0))
            for piece in made.garment.pieces:
                if piece.middle:
                    base = found.sizes[4].garment.piece(piece.name).edge(piece.middle)
                    self.assertAlmostEqual(piece.edge(piece.middle).length, base.length, delta=0.06, msg=(code, piece.name))
            for seam in made.garment.seams:
                if not seam.twin and not seam.eased:
                    first, second = made.garment.length_of(seam.first), made.garment.length_of(seam.second)
                    self.assertLess(abs(first - second), 0.22, (code, seam.name))
            self.assertTrue(all(piece.simple for piece in made.garment.pieces))

    def test_a_blend_is_nowhere_steeper_than_a_quarter_more_than_its_mean(self):
        spots = [blend(n / 400) for n in range(401)]
        self.assertEqual((spots[0], spots[-1]), (0.0, 1.0))
        self.assertAlmostEqual(max((b - a) * 400 for a, b in pairwise(spots)), STEEPEST, 6)
        self.assertGreaterEqual(min(b - a for a, b in pairwise(spots)), 0.0)


class Across(unittest.TestCase):
    def test_the_side_of_another_size_heights_stay(self):
        found = whole("skirt.two_panel")
        made = mixed(found, Mix("across", {"centre": 4.0, "side": 6.0}, 4.0))
        self.assertAlmostEqual(made.garment.girth("hip") - found.sizes[4].garment.girth("hip"), 8.0, delta=0.05)
        self.assertEqual([check.name for check in made.sized.untrue], [])
        for piece in made.garment.shell:
            waist = piece.edge("waist")
            gone = 0.0
            for gap, part in zip(waist.gaps, waist.parts, strict=False):
                gone += part.length
                share = gone / waist.length if waist.start.x < waist.end.x else 1 - gone / waist.length
                ends = [
                    abs(found.sizes[size].garment.piece(piece.name).edge("waist").gaps[waist.gaps.index(gap)].middle.x)
                    for size in (4, 6)
                ]
                self.assertAlmostEqual(abs(gap.middle.x), ends[0] + (ends[1] - ends[0]) * share, delta=0.06, msg=piece.name)

    def test_what_cannot_be_mixed_is_refused_by_name(self):
        with self.assertRaisesRegex(MixError, "Size 12 at waist is not in the nest"):
            mixed(whole("skirt.two_panel"), Mix("down", {"waist": 11.0}, 4.0))
        straight = grade(grading("bodice.measured", "straight", "redraft"), [0, 3])
        with self.assertRaisesRegex(MixError, "Size 1 cannot be mixed with size 4: The front has 1 dart"):
            mixed(straight, Mix("down", {"waist": 0.0}, 3.0))


class Views(unittest.TestCase):
    def test_laid_by_one_spot_or_two(self):
        found = whole("bodice.measured", "rules")
        base, other = (found.sizes[size].garment.piece("back") for size in (4, 6))
        for text in ("armhole/side", "neck/shoulder"):
            way = Anchor(text).lays(base, other)
            spots = [
                next(edge for before, edge in piece.corners() if {before.role, edge.role} == set(text.split("/"))).start
                for piece in (base, other)
            ]
            self.assertLess(spots[1].moved(way).to(spots[0]), 1e-9)
        two = Anchor("armhole/side", "armhole/shoulder").lays(base, other)
        self.assertIsNotNone(two)
        self.assertIsNone(Anchor("cap#top").lays(base, other))
        self.assertIn("armhole/side", {text.replace("side/armhole", "armhole/side") for text in anchors(found)})

    def test_dots_say_what_a_maker_would(self):
        rows = {row.place.text: row for row in dottings(whole("bodice.measured", "rules"), grading("bodice.measured"), "back")}
        tip = rows["armhole/shoulder"]
        self.assertEqual(tip.sentence(HOUSE["curved"].sizes).text(), "Shoulder tip: 0.5 out, 0.4 up, each size.")
        fine = replace(tip, steps=tuple((5 / 16 * 2.54, -0.25) for _ in tip.steps)).sentence(HOUSE["curved"].sizes)
        self.assertEqual(fine.text(Display("in")), "Shoulder tip: 5/16 out, 3/32 down, each size.")
        self.assertEqual(fine.text(), "Shoulder tip: 0.79 out, 0.25 down, each size.")
        self.assertEqual((tip.source, rows["armhole#1"].source), ("table", "table"))
        wide = grade(grading("bodice.measured"))
        tip = next(row for row in dottings(wide, grading("bodice.measured"), "back") if row.place.text == "armhole/shoulder")
        self.assertEqual(
            tip.sentence(wide.names).text(), "Shoulder tip: 0.5 out, 0.4 up a size; 0.75 out, 0.6 up from size 8 on."
        )
        trousers = {
            row.place.text: row.source for row in dottings(whole("trousers.frame", "rules"), grading("trousers.frame"), "back")
        }
        self.assertIn("table", trousers.values())
        self.assertEqual(
            next(iter(inherited(nest("coat.straight", "curved", "rules"))), ("", ""))[0] in ("", "front", "back", "collar"),
            True,
        )

    def test_drawings_have_every_size_and_box_what_fails(self):
        found = nest("dress", "curved", "rules", 3)
        inside, box = nest_svg(found, Anchor(), lambda piece, spot: f"/{piece}/{spot}", 5)
        self.assertEqual(set(re.findall(r'data-size="(\d+)"', inside)), {found.names[size] for size in found.sizes})
        self.assertIn("is-picked", inside)
        self.assertEqual(len(box.split()), 4)
        self.assertNotIn("n-fails", inside)
        far = grade(grading("stays"), [4, 8, 9])
        self.assertIn("n-fails", nest_svg(far, Anchor())[0])
        dots, _ = dots_svg(found, dottings(found, grading("dress"), "front")[0])
        self.assertEqual(dots.count("n-dotted"), len(found.sizes))
        over, _ = over_svg(found.sizes[4].garment.pieces, found.sizes[5].garment.pieces)
        self.assertIn("n-second", over)


class Files(unittest.TestCase):
    def order(self, code="dress", scale=0.25):
        return order_of_nest(
            nest(code, "curved", "rules", 2),
            Anchor(),
            Heading(costume="Dress"),
            Wanted.by(PLANS["cloth"]),
            PAPERS["a4"],
            scale,
            METRIC,
        )

    def test_on_paper_the_base_is_whole_and_the_others_are_what_differs(self):
        found = nested(self.order("shirt", 0.2))
        names = [one.name for one in self.order("shirt").sizes]
        for name in names:
            kinds = {mark.kind for mark in found.ink[name]}
            self.assertEqual("stitch" in kinds, name == "5")
            self.assertTrue({"cut", "notch"} <= kinds)
        words = [mark for mark in found.words if isinstance(mark, Words)]
        sizes = [mark for mark in words if mark.text in names]
        self.assertEqual({mark.text for mark in sizes}, set(names))
        self.assertGreaterEqual(min(mark.size for mark in sizes) * 0.2, 0.2)
        waists = [mark for mark in words if mark.text == "waist"]
        self.assertEqual(len(waists), 2, "once on the front, however its line is bent, and once on the back")

    def test_every_size_has_layers_of_its_own(self):
        order = self.order()
        pdf = pypdf.PdfReader(io.BytesIO(NEST_WRITERS["pdf"].write(order)))
        layers = [group.get_object()["/Name"] for group in pdf.trailer["/Root"]["/OCProperties"]["/OCGs"]]
        for name in ("3", "4", "5", "6", "7"):
            self.assertIn(f"Size {name} Cutting line", layers)
        self.assertIn("Words", layers)
        dxf = NEST_WRITERS["dxf"].write(order).decode()
        self.assertIn("front_7", dxf)
        self.assertIn("14_3", dxf)
        svg = NEST_WRITERS["svg"].write(order).decode()
        self.assertEqual(re.findall(r'<g id="size-(\d+)"', svg), ["3", "4", "5", "6", "7"])
        data = json.loads(NEST_WRITERS["json"].write(order))
        self.assertEqual((data["base"], sorted(data["sizes"])), ("5", ["3", "4", "5", "6", "7"]))

    def test_names_stand_clear_of_each_other_and_the_words_inside_the_smallest(self):
        found = nested(self.order(scale=1.0))
        names = [mark for mark in found.words if getattr(mark, "text", "") in found.ink]
        self.assertEqual(len(names), 5 * len(found.sheets.layout.pieces))
        for number, one in enumerate(names):
            for other in names[number + 1 :]:
                self.assertGreater(one.at.to(other.at), 0.3, (one.text, other.text))

    def test_the_ruler_is_true_to_size(self):
        from widehem.core.grading.first_table import FIRST

        data = ruler_pdf(FIRST, PAPERS["a4"])
        pages = pypdf.PdfReader(io.BytesIO(data)).pages
        self.assertGreater(len(pages), 2)
        self.assertAlmostEqual(float(pages[0].mediabox.width), 21.0 / 2.54 * 72, 1)
        self.assertIn("armhole/side", pages[0].extract_text())
        dots = [
            tuple(float(v) for v in found)
            for found in re.findall(rb"([\d.-]+) ([\d.-]+) m", pages[0].get_contents().get_data())
        ]
        self.assertTrue(dots)
