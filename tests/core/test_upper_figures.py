"""Bodices on three bodies worked out by hand; the cup wedge against the slashed small cup; neck shapes; heights of caps."""

import math
import unittest

from tests.bodies import UPPER, drafted, on_sheet, upper_build
from tests.core.test_bodice import bodice, sums, turns, verdicts
from widehem.core.drafting.cap import Armhole
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.geometry.points import Point, angle_between, turn
from widehem.core.pattern.walk import armholes_over_each_other
from widehem.core.setting.refusal import CannotDraft


class ByHand(unittest.TestCase):
    """Figures from the measures of three bodies, to a hundredth of a centimetre."""

    def test_measured(self):
        for build, bust_line, strip, back, point, lose, side, dart in (
            ("full", 25.2, 61 - 6 - 20.3 - 19.3, 28.0, 24.8807, 10.5, 1.75, 3.5),
            ("slight", 21.5, 43 - 1.5 - 16.95 - 15.95, 21.25, 22.0927, 11.5, 5.75 / 3, 11.5 / 3),
            ("child", 17.5, 36 - 14.45 - 13.45, 14.45 + 4.05, None, 4.5, 2.25, None),
        ):
            with self.subTest(build):
                made = bodice("bodice.measured", build)
                self.assertAlmostEqual(sums(made, "Levels")["bust line"], bust_line, places=4)
                self.assertAlmostEqual(sums(made, "Bust line")["strip"], strip, places=4)
                self.assertAlmostEqual(sums(made, "Bust line")["back width"], back, places=4)
                waist = sums(made, "Waist")
                self.assertAlmostEqual(waist["to lose, both halves"], lose, places=4)
                self.assertAlmostEqual(waist["each side"], side, places=4)
                if point is not None:
                    self.assertAlmostEqual(made.points["bust_point"].y, point, places=3)
                if dart is not None:
                    self.assertAlmostEqual(waist["each half's darts"], dart, places=4)

    def test_plain(self):
        for build, width, level, tip, snp in (
            ("full", 31.5, 26.2, (21.45, 3.4265), 8.881), ("slight", 22.5, 22.5, (18.65, 2.9267), 7.712),
                ("child", 19.0, 18.5, (16.85, 2.5842), 6.960),
        ):  # fmt: skip
            with self.subTest(build):
                made = bodice("bodice.plain", build)
                found = sums(made, "Levels and widths")
                self.assertAlmostEqual(found["quarter of the bust"], width, places=4)
                self.assertAlmostEqual(found["bust line"], level, places=4)
                self.assertAlmostEqual(made.points["back_tip"].to(Point(*tip)), 0.0, places=3)
                self.assertAlmostEqual(made.points["back_snp"].x, snp, places=2)

    def test_cup_wedge(self):
        for build, quarter, spare in (("full", 27.5, 6.0), ("slight", 20.75, 1.5), ("child", 18.0, 0.0)):
            with self.subTest(build):
                made = bodice("bodice.cup_wedge", build)
                wedge = sums(made, "Wedge")
                self.assertAlmostEqual(wedge["quarter with ease"], quarter, places=4)
                self.assertAlmostEqual(wedge["half the bust difference"], spare, places=4)
                hinge, point = made.points["front_chest"], made.points["bust_point"]
                self.assertAlmostEqual(wedge["hinge to bust level"], point.y - hinge.y, places=6)

    def test_proportional_reads_off_the_table(self):
        for build in ("full", "slight", "child"):
            figures = [sums(bodice(code, build), "Bust line") for code in ("bodice.proportional", "bodice.measured")]
            chart = upper_build(build)
            over = chart.table.bust_difference - (chart.get("bust") - chart.get("high_bust"))
            self.assertEqual(abs(figures[0]["strip"] - figures[1]["strip"]) > 0.05, abs(over) > 0.5, build)


class SlashedSmallCup(unittest.TestCase):
    """The full-bust operation on the draft without a cup: slash to the bust point and to the hinge, open by the difference."""

    def test_the_side_above_the_dart_lies_as_in_the_wedge(self):
        for build, bust in (("typical", 88), ("full", 116), ("slight", 80), ("straight", 100), ("typical", 95)):
            with self.subTest(build, bust=bust):
                narrow = UPPER[build][1]["high_bust"] * (
                    0.57 if build == "full" else 0.65
                )  # so that the side need not lean for the waist
                wedge = bodice("bodice.cup_wedge", build, bust=bust, waist=narrow)
                chart = upper_build(build)
                small = bodice("bodice.cup_wedge", build, bust=chart.get("high_bust"), waist=narrow)
                spare = (bust - chart.get("high_bust")) / 2
                hinge, point = wedge.points["front_chest"], wedge.points["bust_point"]
                low, high = 0.0, math.radians(40)
                for _ in range(
                    60
                ):  # swing the outer part about the hinge until its own bust point has gone out by the difference
                    angle = (low + high) / 2
                    gone = point.x - point.moved(turn(hinge, angle)).x
                    low, high = (angle, high) if gone < spare else (low, angle)
                side = on_sheet(small, "front").edge("side").parts[-1].arriving
                swung = side.moved(turn(Point(0, 0), angle))
                drawn = on_sheet(wedge, "front").edge("side").parts[-1].arriving
                self.assertLess(angle_between(swung, drawn), 0.5)


class Necks(unittest.TestCase):
    def test_every_shape_holds_the_neck_and_runs_on_over_the_shoulder(self):
        for code in ("bodice.plain", "bodice.measured", "bodice.cup_wedge"):
            for build in ("typical", "full", "slight", "child"):
                for shape in ("round", "v", "square"):
                    with self.subTest(code, build=build, shape=shape):
                        made = bodice(code, build, {"neck_shape": shape})
                        found = verdicts(made)
                        self.assertEqual((found["corners.joined"], found["corners.square"]), ("true",) * 2)
                        spare = made.garment.round_of("neck") - made.chart.get("neck")
                        on_the_neck = spare <= 1.0 or shape == "square"  # a square one is open on purpose
                        self.assertEqual(found["neck.girth"], "true" if on_the_neck else "look")
                        self.assertGreaterEqual(spare, -1e-6)
                        self.assertLessEqual(turns(made.garment.piece("front").edge("neck")), 1)

    def test_a_point_is_a_point_and_a_square_is_square(self):
        for shape, corners in (("v", 0), ("square", 1)):
            edge = (
                bodice("bodice.measured", "typical", {"neck_shape": shape, "neck_depth": 16.0})
                .garment.piece("front")
                .edge("neck")
            )
            bends = [angle_between(a.direction(1), b.direction(0)) for a,
                b in zip(edge.parts[0].segments, edge.parts[0].segments[1:], strict=False)]  # fmt: skip
            self.assertEqual(sum(1 for bend in bends if abs(bend - 90) < 1), corners)
            self.assertEqual(edge.pointed, shape == "v")
            self.assertAlmostEqual(abs(edge.end.y - edge.start.y), 16.0, delta=0.01)


class CapHeights(unittest.TestCase):
    def setUp(self):
        self.garment = bodice().garment
        self.hole = armhole_of(self.garment)

    def cap(self, method, by, **options):
        made = drafted(METHODS[method], upper_build(), {"height_by": by, **options}, {}, self.hole)
        piece = made.garment.piece("sleeve")
        self.assertAlmostEqual(piece.edge("cap").length - self.hole.whole, 2.5, delta=0.1)
        return made.points["crown"].y * -1, piece.across("bicep")

    def test_a_school_holds_the_height_and_the_width_comes_out(self):
        self.assertAlmostEqual(self.cap("sleeve.guide_box", "third")[0], self.hole.whole / 3, places=6)
        self.assertAlmostEqual(self.cap("sleeve.triangle", "third")[0], self.hole.whole / 3 + 0.6, places=6)
        height, width = self.cap("sleeve.triangle", "own", own_height=12.0)
        self.assertAlmostEqual(height, 12.0)
        _, wider = self.cap("sleeve.triangle", "own", own_height=10.0)
        self.assertGreater(wider, width)

    def test_the_depth_of_an_armhole_is_that_of_both_laid_side_to_side(self):
        laid = armholes_over_each_other(self.garment)
        back, front = laid.first.edge("armhole"), laid.second.edge("armhole")
        up = laid.first.edge("side").parts[-1].arriving.unit()
        tips = [back.end - back.start, front.end.moved(laid.onto) - laid.at]
        level = sum(tip.dot(up) for tip in tips) / 2
        across = (abs(tips[0].cross(up)) - abs(tips[1].cross(up))) / 2
        self.assertAlmostEqual(self.hole.depth, math.hypot(level, across), places=6)

    def test_a_height_the_arm_does_not_allow_is_refused_with_its_figures(self):
        with self.assertRaises(CannotDraft) as caught:
            self.cap("sleeve.triangle", "own", own_height=18.0)
        self.assertRegex(str(caught.exception.saying), r"at least 2\.0 wider than the arm, 28\.5, .* cap 18\.0 cm high")
        with self.assertRaises(CannotDraft) as caught:
            drafted(METHODS["sleeve.triangle"], upper_build(), {"height_by": "depth"}, {}, Armhole(21, 22))
        self.assertIn("The depth of this armhole is not known", str(caught.exception.saying))


if __name__ == "__main__":
    unittest.main()
