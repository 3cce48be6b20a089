"""Darts swung, divided, let go and moved: angles, cloth and lengths that stay."""

import math
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Polygon

from tests.bodies import UPPER, upper_build
from tests.some import tries
from tests.styling import BUST_DART, not_true, on, step
from widehem.core.pattern.edge import Held
from widehem.core.pattern.ring import angle_of
from widehem.core.style.where import Where

SIDE = Where("front", "side", "cm", 6.0, "armhole")
WITH_DART = ("typical", "full", "slight", "straight", "hourglass", "tall")


def dart(made, name, piece="front"):
    return next(d for d in made.garment.piece(piece).darts if d.name == name)


def differ(one, two):
    """Square centimetres by which two outlines differ."""
    return Polygon(one.outline(0.01)).symmetric_difference(Polygon(two.outline(0.01))).area


class Swing(unittest.TestCase):
    def test_angle_cloth_and_girths_stay(self):
        for build in WITH_DART:
            with self.subTest(build):
                block = on("bodice.measured", build=build)
                made = on(
                    "bodice.measured", step("dart.swing", dart=BUST_DART, to=SIDE, names={"dart": "side_dart"}), build=build
                )
                self.assertEqual(made.refused, ())
                off = math.degrees(angle_of(dart(made, "side_dart")) - angle_of(dart(block, "bust_dart")))
                self.assertAlmostEqual(off, 0.0, delta=1e-6)
                for level in ("bust", "waist"):
                    self.assertAlmostEqual(made.garment.girth(level), block.garment.girth(level), delta=1e-6)

    def test_home_again_it_is_the_same_piece(self):
        away = step("dart.swing", {"short": 2.5}, id="away", dart=BUST_DART, to=SIDE, names={"dart": "side_dart"})
        home = step(
            "dart.swing", {"short": 2.5}, id="home", dart=Where("front", "side", "dart", "side_dart"),
            to=Where("front", "shoulder", "cm", 0.0), names={"dart": "bust_dart"},
        )  # fmt: skip
        for build in WITH_DART:
            block = on("bodice.measured", build=build).garment.piece("front")
            at = block.edge("shoulder").parts[0].length
            back = step(
                home.code,
                dict(home.settings),
                id="home",
                names=home.names,
                **{**home.wheres, "to": Where("front", "shoulder", "cm", at)},
            )
            made = on("bodice.measured", away, back, build=build)
            self.assertEqual(made.refused, ())
            piece = made.garment.piece("front")
            for name in ("armhole", "side", "waist", "neck"):
                self.assertAlmostEqual(piece.edge(name).length, block.edge(name).length, delta=0.02)
                for one, two in zip(piece.edge(name).parts, block.edge(name).parts, strict=True):
                    self.assertLess(one.start.to(two.start), 0.02)
                    self.assertLess(one.end.to(two.end), 0.02)

    @settings(max_examples=tries(20))
    @given(st.floats(3.0, 12.0), st.sampled_from(WITH_DART))
    def test_anywhere_on_the_side(self, along, build):
        to = Where("front", "side", "cm", along, "armhole")
        block = on("bodice.measured", build=build)
        made = on("bodice.measured", step("dart.swing", dart=BUST_DART, to=to), build=build)
        self.assertEqual(made.refused, ())
        shut = sum(d.mouth for d in block.garment.piece("front").darts)
        self.assertGreater(shut, 0)
        self.assertAlmostEqual(made.garment.girth("bust"), block.garment.girth("bust"), delta=1e-6)
        self.assertTrue(all(piece.simple for piece in made.garment.pieces))

    def test_a_fold_does_not_open(self):
        made = on("bodice.measured", step("dart.swing", dart=BUST_DART, to=Where("front", "centre_front")))
        self.assertIn("fold", made.refused[0].saying.text())


class Divide(unittest.TestCase):
    def test_both_parts_are_the_whole(self):
        both = step("dart.divide", {"part": 40.0}, dart=BUST_DART, first=SIDE, second=Where("front", "armhole", "part", 0.5))
        for build in ("typical", "full", "tall"):
            block, made = on("bodice.measured", build=build), on("bodice.measured", both, build=build)
            whole = angle_of(dart(block, "bust_dart"))
            parts = [angle_of(dart(made, f"bust_dart_{code}")) for code in ("first", "second")]
            self.assertAlmostEqual(parts[0], whole * 0.4, delta=1e-9)
            self.assertAlmostEqual(sum(parts), whole, delta=1e-9)


class LetGo(unittest.TestCase):
    def test_what_is_sewn_to_the_edge_stays_as_long(self):
        for build in WITH_DART:
            block = on("bodice.measured", build=build)
            for kind in ("gathers", "pleat", "tuck"):
                with self.subTest(f"{build} {kind}"):
                    made = on("bodice.measured", step("dart.release", {"kind": kind}, dart=BUST_DART), build=build)
                    self.assertEqual(made.refused, ())
                    one, two = (m.garment.piece("front").edge("shoulder").length for m in (made, block))
                    self.assertAlmostEqual(one, two, delta=1e-9)
                    self.assertEqual(not_true(made), [])

    def test_gathers_hold_the_mouth_and_are_notched_on_both_sides(self):
        block = on("bodice.measured")
        made = on("bodice.measured", step("dart.release", dart=BUST_DART))
        (gap,) = made.garment.piece("front").edge("shoulder").gaps
        self.assertIsInstance(gap, Held)
        self.assertAlmostEqual(gap.mouth, dart(block, "bust_dart").mouth, delta=0.05)
        for piece in ("front", "back"):
            names = [n.name for n in made.garment.piece(piece).edge("shoulder").notches]
            self.assertEqual(names.count("gathers"), 2, piece)

    def test_too_much_is_not_eased(self):
        made = on("bodice.measured", step("dart.release", {"kind": "ease"}, dart=BUST_DART))
        self.assertIn("6.6 cannot be eased in without a fold: 1.5 cm at most", made.refused[0].saying.text())

    def test_a_pleat_takes_nothing_from_a_girth_below_it(self):
        at = Where("front", "waist", "dart", "front_waist_dart_1")
        made = on("bodice.measured", step("dart.release", {"kind": "pleat"}, dart=at))
        (folded,) = made.garment.piece("front").edge("waist").darts
        self.assertEqual(folded.sewn, 0.0)


class Slide(unittest.TestCase):
    def test_intake_length_and_waist_stay_and_nothing_is_turned(self):
        for build in WITH_DART:
            for by in (1.3, -1.3):
                with self.subTest(f"{build} {by}"):
                    block = on("bodice.measured", build=build)
                    old = block.garment.piece("back")
                    at = Where("back", "waist", "dart", "back_waist_dart_1")
                    made = on("bodice.measured", step("dart.slide", {"by": by}, dart=at), build=build)
                    self.assertEqual(made.refused, ())
                    new = made.garment.piece("back")
                    one, two = old.darts[0], new.darts[0]
                    self.assertAlmostEqual(two.mouth, one.mouth, delta=1e-6)
                    self.assertAlmostEqual(two.legs[0], two.legs[1], delta=0.05)
                    self.assertAlmostEqual(new.edge("waist").length, old.edge("waist").length, delta=0.02)
                    self.assertAlmostEqual(abs((two.middle - one.middle).x), 1.3, delta=0.1)
                    self.assertEqual(new.edge("side").parts, old.edge("side").parts)
                    self.assertEqual(not_true(made), [])

    def test_it_names_what_would_fit(self):
        at = Where("back", "waist", "dart", "back_waist_dart_1")
        narrow = on("bodice.measured", step("dart.slide", {"by": 6.0}, dart=at), chart=upper_build("child", waist=45.0))
        texts = [refused.saying.text() for refused in narrow.refused]
        self.assertTrue(all("at most" in text or "no back waist dart" in text for text in texts), texts)


class OnEveryBuild(unittest.TestCase):
    def test_a_dart_that_is_not_there_is_left_out_where_it_may_be(self):
        away = step("dart.swing", dart=BUST_DART, to=SIDE)
        may = step("dart.swing", dart=BUST_DART, to=SIDE, maybe=True)
        for build in UPPER:
            self.assertEqual(on("bodice.measured", may, build=build).refused, ())
        self.assertEqual(len(on("bodice.measured", away, build="child").refused), 1)


if __name__ == "__main__":
    unittest.main()
