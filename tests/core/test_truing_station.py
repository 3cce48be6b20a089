"""Walking seams, armholes over each other, comparing drafts, plans of ease, advice for a body, mends."""

import math
import unittest
from dataclasses import replace

from fontTools.misc.transform import Transform
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.bodies import drafted, skirt, upper_build
from tests.some import tries
from widehem.core.design.compare import ALIGN, compare_made, laid_over
from widehem.core.design.make import make
from widehem.core.design.sensitivity import looked_at
from widehem.core.design.ships import shipped
from widehem.core.drafting.advice import advice
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.geometry.points import angle_between
from widehem.core.output.svg_compare import compare_svg
from widehem.core.output.svg_small import small_svg
from widehem.core.pattern.walk import armholes_over_each_other, walk
from widehem.core.style.set_in import set_in

BODICES = [code for code, method in METHODS.items() if method.group == "Bodices" and method.has_armhole]


def bodice(code="bodice.measured", build="typical", **options):
    return drafted(METHODS[code], upper_build(build), options)


class Walking(unittest.TestCase):
    @settings(max_examples=tries(25), deadline=None)
    @given(st.sampled_from(["bodice.measured", "bodice.plain"]), st.sampled_from(["side", "shoulder"]), st.floats(0, 1))
    def test_the_second_piece_touches_the_first_and_lies_on_the_other_side(self, code, name, share):
        block = bodice(code).garment
        seam = next(seam for seam in block.seams if seam.name == name)
        walked = walk(block, seam, share)
        place = walked.edges[1].place(walked.along)
        self.assertLess(place.point.moved(walked.onto).to(walked.at), 1e-6)
        here = walked.edges[0].place(walked.along).direction
        there = (place.point + place.direction).moved(walked.onto) - walked.at
        self.assertLess(angle_between(here, there), 0.01)
        out = walked.first.outward(here)
        inside = (place.point - walked.second.outward(place.direction) * 0.1).moved(walked.onto) - walked.at
        self.assertGreater(inside.dot(out), 0)

    def test_what_does_not_meet_is_told_with_its_figures(self):
        block = bodice("bodice.plain", raise_underarm=0.7).garment
        seam = next(seam for seam in block.seams if seam.name == "side")
        end = walk(block, seam, 0).meetings[-1]
        self.assertAlmostEqual(end.apart, 0.7, delta=0.05)

    def test_a_balance_level_is_met_on_the_way(self):
        block = skirt().garment
        meetings = {m.what: m for m in walk(block, block.seams[0], 0.5).meetings}
        self.assertAlmostEqual(meetings["hip level"].first, meetings["hip level"].second, delta=0.2)

    def test_a_seam_of_one_piece_is_walked_against(self):
        made = drafted(METHODS["sleeve.triangle"], upper_build(), {}, {}, armhole_of(bodice().garment))
        walked = walk(made.garment, made.garment.seams[0], 0.0)
        self.assertLess(walked.edges[1].end.moved(walked.onto).to(walked.edges[0].start), 1e-6)

    def test_armholes_meet_at_the_underarm_and_lie_on_one_side(self):
        block = bodice().garment
        laid = armholes_over_each_other(block)
        self.assertLess(laid.edges[1].start.moved(laid.onto).to(laid.edges[0].start), 1e-6)
        tips = laid.edges[0].end, laid.edges[1].end.moved(laid.onto)
        self.assertLess(tips[0].to(tips[1]), 4)
        self.assertIsNone(armholes_over_each_other(skirt().garment))


class Compared(unittest.TestCase):
    def test_a_draft_differs_in_nothing_from_itself(self):
        self.assertEqual([row for row in compare_made(bodice(), bodice()) if row.differs], [])

    def test_what_one_school_does_otherwise(self):
        rows = {row.name: row for row in compare_made(bodice(), bodice("bodice.plain"))}
        self.assertAlmostEqual(rows["back shoulder"].by, -0.5, places=2)
        self.assertIsNone(rows["front shoulder, darts together"].second)
        self.assertTrue(rows["bust"].by > 0)

    def test_pieces_meet_where_they_are_laid(self):
        first, second = bodice(), bodice("bodice.cup_wedge", "full")
        for at, (_, anchor) in ALIGN.items():
            for (piece,), (other,), onto in laid_over(first, second, at):
                self.assertLess(anchor(other).moved(onto).to(anchor(piece)), 1e-6, at)
        drawing, box = compare_svg(laid_over(first, second, "waist"))
        self.assertGreaterEqual(drawing.count("l-other"), 3)
        self.assertTrue(all(float(n) < 200 for n in box.split()))

    def test_a_design_lies_on_its_block_with_all_that_was_cut_off(self):
        waistcoat = shipped()["waistcoat"].design
        chart = looked_at(waistcoat, upper_build("typical"))
        first, second = make(waistcoat, chart), make(replace(waistcoat, steps=()), chart)
        pairs = {
            others[0].name: ([piece.name for piece in mine], onto)
            for mine, others, onto in laid_over(first, second, "waist")
            if others
        }
        self.assertEqual(set(pairs), {"back", "front"})
        for name, (mine, onto) in pairs.items():
            self.assertIn(name, mine)
            self.assertGreaterEqual(len(mine), 2, "with its side panel")
            self.assertEqual(onto, Transform())


class Advice(unittest.TestCase):
    def test_plain_words_with_this_bodys_figures(self):
        full = upper_build("full", bust=113.5)
        self.assertIn(
            "Bust is 9.5 over high bust: a block drawn from the full bust alone will be wide in the neck and shoulder.",
            " ".join(map(str, advice("bodice.proportional", full))),
        )
        self.assertIn("stays as a fold", " ".join(map(str, advice("bodice.plain", full))))
        self.assertIn("near what the table thinks of", str(advice("bodice.proportional", upper_build())[0]))
        self.assertEqual(advice("bodice.measured", upper_build().without("bust")), ())

    def test_every_method_has_a_small_picture(self):
        hole = armhole_of(bodice().garment)
        for method in METHODS.values():
            inside, box = small_svg(drafted(method, upper_build(), armhole=hole if method.for_armhole else None))
            self.assertIn("piece", inside)
            self.assertTrue(all(math.isfinite(float(n)) for n in box.split()))


class SetIn(unittest.TestCase):
    def test_the_cap_runs_round_the_armhole_and_its_notches_meet(self):
        for code in BODICES:
            for sleeve in ("sleeve.guide_box", "sleeve.triangle"):
                block = bodice(code).garment
                made = drafted(METHODS[sleeve], upper_build(), {}, {"cap": 2.5}, armhole_of(block))
                whole = set_in(block, made.garment)
                self.assertEqual([seam.name for seam in whole.seams], ["cap_back", "cap_front"])
                for seam in whole.seams:
                    walked = walk(whole, seam, 0.4)
                    pitch = next(meeting for meeting in walked.meetings if meeting.what == "pitch notch")
                    self.assertLess(pitch.apart, 1e-6)
                    self.assertAlmostEqual(walked.meetings[-1].apart, 1.25, delta=0.06)
                    self.assertFalse(any(walked.untrue(meeting, 0.2) for meeting in walked.meetings))
                    spot = walked.edges[1].place(walked.edges[1].length - walked.along if seam.second[0].back else walked.along)
                    self.assertLess(spot.point.moved(walked.onto).to(walked.at), 1e-6)

    def test_without_an_armhole_there_is_nothing_to_walk(self):
        sleeve = drafted(METHODS["sleeve.guide_box"], upper_build(), armhole=armhole_of(bodice().garment)).garment
        self.assertIsNone(set_in(skirt().garment, sleeve))
        self.assertIsNone(set_in(bodice().garment, bodice().garment))


class Mends(unittest.TestCase):
    def test_each_mend_is_a_setting_of_its_method_and_helps(self):
        for method in METHODS.values():
            for mends in method.mends.values():
                for mend in mends:
                    (method.ease_at if mend.ease else method.option)(mend.option).read(mend.value, "cm")

        def over(**options):
            block = bodice("bodice.plain", **options).garment
            return next(
                check.figure for check in bodice("bodice.plain", **options).checks if check.name == "armhole.balance"
            ), block

        plain, _ = over(trued_hole="set")
        folded, _ = over(trued_hole="set", fold_chest=0.7)
        both, _ = over(trued_hole="set", fold_chest=0.7, raise_underarm=0.7)
        self.assertLess(folded, plain - 0.3)
        self.assertLess(both, folded - 0.3)


if __name__ == "__main__":
    unittest.main()
