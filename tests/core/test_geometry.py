"""Curves and paths against figures known beforehand."""

import math
import unittest

from fontTools.misc.bezierTools import calcCubicArcLengthC
from hypothesis import example, given
from hypothesis import strategies as st

from widehem.core.geometry.curves import Cubic, Line, curve_between
from widehem.core.geometry.paths import Path, svg_d
from widehem.core.geometry.points import Point, angle_between, meet, mirror_in, turn

coordinate = st.floats(-50, 50).map(lambda value: round(value, 3))
points = st.builds(Point, coordinate, coordinate)
cubics = st.builds(Cubic, points, points, points, points)
KAPPA = 4 / 3 * math.tan(math.pi / 8)


class Points(unittest.TestCase):
    def test_turning_and_mirroring(self):
        turned = Point(2, 0).moved(turn(Point(1, 0), math.pi / 2))
        self.assertAlmostEqual(turned.x, 1)
        self.assertAlmostEqual(turned.y, 1)
        mirrored = Point(3, 1).moved(mirror_in(Point(0, 0), Point(1, 1)))
        self.assertAlmostEqual(mirrored.x, 1)
        self.assertAlmostEqual(mirrored.y, 3)

    def test_angles_and_crossings(self):
        self.assertAlmostEqual(angle_between(Point(1, 0), Point(0, -1)), 90)
        self.assertEqual(meet(Point(0, 0), Point(1, 0), Point(3, -2), Point(0, 1)), Point(3, 0))
        self.assertIsNone(meet(Point(0, 0), Point(1, 0), Point(0, 1), Point(2, 0)))


class Curves(unittest.TestCase):
    def test_a_quarter_circle_is_as_long_as_it_should_be(self):
        quarter = Cubic(Point(10, 0), Point(10, 10 * KAPPA), Point(10 * KAPPA, 10), Point(0, 10))
        self.assertAlmostEqual(quarter.length, 10 * math.pi / 2, delta=0.003)
        self.assertAlmostEqual(1 / abs(quarter.bend(0.5)), 10, delta=0.1)

    def test_handles_are_a_third_unless_told(self):
        curve = curve_between(Point(0, 0), Point(2, 0), Point(9, 12), Point(0, 5))
        self.assertEqual(curve.out, Point(5, 0))
        self.assertEqual(curve.into, Point(9, 7))

    @given(cubics)
    @example(Cubic(Point(14.0, 1.9), Point(14.0, 0.0), Point(14.0, 24.75), Point(0.0, 25.0)))  # turns back just as it starts
    def test_length_agrees_with_a_slower_library_and_with_a_fine_chain(self, curve):
        chain = sum(curve.at(i / 4000).to(curve.at((i + 1) / 4000)) for i in range(4000))
        self.assertAlmostEqual(curve.length, chain, delta=1e-3 + 2e-6 * chain)
        library = calcCubicArcLengthC(*(complex(*p) for p in (curve.start, curve.out, curve.into, curve.end)), 1e-6)
        self.assertAlmostEqual(curve.length, library, delta=1e-2)

    @given(cubics, st.floats(0, 1))
    def test_the_point_at_a_length_divides_it_there(self, curve, part):
        t = curve.t_at_length(curve.length * part)
        first, second = curve.split(t)
        self.assertAlmostEqual(first.length, curve.length * part, delta=1e-3)
        self.assertAlmostEqual(first.length + second.length, curve.length, delta=1e-3)

    @given(cubics, points, points)
    def test_crossings_lie_on_both(self, curve, a, b):
        along = b - a
        if along.size < 1e-3:
            return
        for t in curve.crossings(a, along):
            self.assertLess(abs((curve.at(t) - a).cross(along.unit())), 1e-3)

    @given(cubics, st.sampled_from([0.1, 0.01]))
    def test_a_flattened_curve_stays_within_the_tolerance(self, curve, tolerance):
        flat = [curve.start, *curve.flat(tolerance)]
        for i in range(len(flat) - 1):
            line = Line(flat[i], flat[i + 1])
            middle = curve.at((i + 0.5) / (len(flat) - 1))
            way = line.end - line.start
            if way.size > 1e-9:
                self.assertLess(abs((middle - line.start).cross(way.unit())), tolerance * 1.05 + 1e-9)


class Paths(unittest.TestCase):
    def setUp(self):
        self.path = Path.through(Point(0, 0), Point(3, 4), Point(3, 10))

    def test_places_cuts_and_levels(self):
        self.assertEqual(self.path.length, 11)
        self.assertEqual(self.path.place(8).point, Point(3, 7))
        first, second = self.path.cut(5)
        self.assertAlmostEqual(first.length, 5)
        self.assertAlmostEqual(second.length, 6)
        self.assertEqual(self.path.at_level(2), Point(1.5, 2))
        self.assertIsNone(self.path.at_level(11))

    def test_there_and_back(self):
        back = self.path.reverse()
        self.assertEqual((back.start, back.end, back.length), (self.path.end, self.path.start, 11))

    def test_as_svg(self):
        self.assertEqual(svg_d([self.path]), "M0 0 3 4V10")
        self.assertTrue(svg_d([self.path], closed=True).endswith("Z"))


if __name__ == "__main__":
    unittest.main()
