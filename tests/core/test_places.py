"""Places found again, searches that say when they fail, registries that refuse a code twice."""

import json
import math
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.bodies import UPPER, drafted, upper_build
from tests.some import tries
from tests.styling import do
from widehem.core.design.cautions import CAUTIONS
from widehem.core.drafting.advice import ADVICE
from widehem.core.drafting.method import METHODS
from widehem.core.geometry.band import band
from widehem.core.geometry.curves import Cubic
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import NoSolutionError, solve, solve_length, solve_or_nearest
from widehem.core.marking.plans import PLANS
from widehem.core.output.writers import WRITERS
from widehem.core.pattern.check import CHECKERS, DEMANDS
from widehem.core.pattern.roles import ROLES
from widehem.core.setting.registry import RegisteredTwiceError
from widehem.core.style.operation import OPERATIONS
from widehem.core.style.where import LostPlaceError, Where, find


class Searching(unittest.TestCase):
    @given(st.floats(-5, 5), st.floats(0.1, 8), st.floats(-0.9, 0.9))
    def test_a_root_is_found_however_it_bends(self, root, steep, bent):
        def off(x: float) -> float:
            return steep * (x - root) * (1 + bent * math.sin(x))

        self.assertAlmostEqual(off(solve(off, -9.0, 9.0)), 0.0, delta=1e-6)

    def test_it_takes_few_looks(self):
        looks = []

        def off(x: float) -> float:
            looks.append(x)
            return x**3 - 2

        self.assertAlmostEqual(solve(off, 0.0, 4.0), 2 ** (1 / 3), places=6)
        self.assertLess(len(looks), 16)

    def test_it_says_when_there_is_none(self):
        with self.assertRaises(NoSolutionError) as caught:
            solve(lambda x: x * x + 1, -2.0, 3.0)
        self.assertEqual((caught.exception.low, caught.exception.high, caught.exception.best), (5.0, 10.0, -2.0))
        self.assertEqual(solve_or_nearest(lambda x: x * x + 1, -2.0, 3.0), -2.0)
        self.assertIsNone(solve_length(lambda x: x, 7.0, 0.0, 5.0))
        self.assertAlmostEqual(solve_length(lambda x: 2 * x, 7.0, 0.0, 5.0) or 0.0, 3.5, places=6)

    def test_what_is_no_figure_is_no_solution(self):
        with self.assertRaises(NoSolutionError):
            solve(lambda x: math.nan, 0.0, 1.0)


class Bands(unittest.TestCase):
    @given(st.floats(0.5, 6))
    def test_a_band_lies_everywhere_as_wide(self, wide):
        curve = Path((Cubic(Point(0, 0), Point(20, 4), Point(40, 4), Point(60, 0)),))
        beside = band(curve, wide, Point(30, 50))
        for along in range(1, 9):
            spot = beside.place(beside.length * along / 9).point
            nearest = min(spot.to(curve.place(curve.length * n / 400).point) for n in range(401))
            self.assertAlmostEqual(nearest, wide, delta=0.05)


class Places(unittest.TestCase):
    """What a place is called in the draft is found on any body, and after a cut."""

    def garments(self):
        for build in UPPER:
            yield build, drafted(METHODS["bodice.measured"], upper_build(build)).garment

    def test_every_way_to_say_a_place_on_every_body(self):
        ways = (
            Where("front", "side", "part", 0.5),
            Where("front", "side", "cm", 3.0, "waist"),
            Where("front", "shoulder", "dart", "bust_dart"),
            Where("front", "armhole", "notch", "pitch"),
            Where("front", "waist", "under", "bust_point"),
            Where("front", "centre_front", "beside", "bust_point"),
            Where("back", "centre_back", "meets", "shoulder.start"),
        )
        for build, garment in self.garments():
            for where in ways:
                if where.kind == "dart" and not any(
                    dart.name == where.place for dart in garment.piece("front").edge("shoulder").darts
                ):
                    continue  # a cup so small has none, or one in its side
                with self.subTest(build=build, kind=where.kind):
                    found = find(garment, where)
                    edge = found.piece.edge(found.spot.edge)
                    if not found.spot.dart:
                        self.assertLess(edge.place(found.spot.along).point.to(found.point), 1e-6)
                    self.assertEqual(Where.from_data(json.loads(json.dumps(where.as_data()))), where)

    def test_where_the_places_lie(self):
        garment = drafted(METHODS["bodice.measured"], upper_build()).garment
        front = garment.piece("front")
        bust = front.marks["bust_point"]
        (dart,) = front.edge("waist").darts
        below = find(garment, Where("front", "waist", "under", "bust_point")).point
        self.assertLessEqual(
            min(below.to(dart.inner), below.to(dart.outer)), 1e-6, "it lies in the mouth of the dart: at its leg"
        )
        self.assertAlmostEqual(dart.inner.toward(dart.outer, 0.5).x, bust.x, delta=0.1)
        self.assertAlmostEqual(find(garment, Where("front", "centre_front", "beside", "bust_point")).point.y, bust.y, places=6)
        side = front.edge("side")
        up = find(garment, Where("front", "side", "cm", 3.0, "waist"))
        self.assertAlmostEqual(min(up.spot.along, side.length - up.spot.along), 3.0, places=6)

    def test_a_place_that_is_lost_says_what_would_fit(self):
        garment = drafted(METHODS["bodice.measured"], upper_build()).garment
        for where, words in (
            (Where("front", "side", "cm", 90.0), "there is no place 90.0 cm along it"),
            (Where("front", "collar"), "front collar is not there any more"),
            (Where("front", "waist", "dart", "elbow_dart"), "has no elbow dart here"),
            (Where("front", "side", "notch", "pitch"), "does not meet the pitch"),
            (Where("front", "side", "cm", 1.0, "neck"), "has no neck beside it"),
        ):
            with self.assertRaisesRegex(LostPlaceError, words):
                find(garment, where)

    def test_another_way_is_taken_where_the_first_is_lost(self):
        garment = drafted(METHODS["bodice.measured"], upper_build()).garment
        otherwise = Where("front", "side", "part", 0.25)
        found = find(garment, Where("front", "side", "dart", "bust_dart", otherwise=otherwise))
        self.assertEqual(found, find(garment, otherwise))

    @settings(max_examples=tries(15), deadline=None)
    @given(st.floats(0.15, 0.85), st.floats(0.1, 0.9))
    def test_a_place_is_the_same_spot_after_a_cut(self, cut, part):
        garment = drafted(METHODS["bodice.measured"], upper_build()).garment
        place = Where("front", "side", "part", part)
        wheres = {"start": Where("front", "side", "part", cut), "end": Where("front", "centre_front", "part", 0.6)}
        after = do("line.cut", garment, wheres=wheres).garment
        self.assertEqual(len(after.pieces), 3)
        self.assertLess(find(after, place).point.to(find(garment, place).point), 1e-4)


class Registries(unittest.TestCase):
    def test_a_code_is_registered_once(self):
        registries = METHODS, OPERATIONS, CHECKERS, DEMANDS, CAUTIONS, ADVICE, WRITERS, PLANS, ROLES
        for registry in registries:
            code, thing = next(iter(registry.items()))
            with self.subTest(registry.what):
                with self.assertRaisesRegex(RegisteredTwiceError, f'There is a {registry.what} "{code}" already'):
                    registry.add(code, thing)
                self.assertIs(registry[code], thing)

    def test_every_demand_has_what_judges_it(self):
        self.assertLessEqual(set(DEMANDS), set(CHECKERS))


if __name__ == "__main__":
    unittest.main()
