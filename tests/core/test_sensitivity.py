"""What one centimetre more moves."""

import unittest

from tests.bodies import skirt_chart
from widehem.core.body.chart import Chart, chart_of
from widehem.core.design.design import method_design
from widehem.core.design.sensitivity import filled_in, next_to_read, what_moves
from widehem.core.drafting.method import METHODS

METHOD = METHODS["skirt.two_panel"]


class Sensitivity(unittest.TestCase):
    def moves(self, code, chart=None, **options):
        return {(m.piece, m.edge): m.by for m in what_moves(method_design(METHOD, options), chart or skirt_chart(), code)}

    def test_a_centimetre_of_waist_or_hip_is_shared_by_the_quarters(self):
        waist = self.moves("waist")
        self.assertAlmostEqual(waist["back", "waist"], 0.25, delta=0.01)
        self.assertAlmostEqual(waist["front", "waist"], 0.25, delta=0.01)
        hip = self.moves("hip")
        self.assertAlmostEqual(hip["back", "hem"], 0.25, places=3)
        self.assertNotIn(("back", "centre_back"), hip)

    def test_a_centimetre_of_length_is_a_centimetre(self):
        moved = self.moves("waist_knee")
        for edge in (("back", "centre_back"), ("front", "side")):
            self.assertAlmostEqual(moved[edge], 1.0, places=4)
        self.assertEqual(self.moves("waist_knee", length=60), {}, "another length was set")

    def test_the_most_comes_first(self):
        sizes = [abs(move.by) for move in what_moves(method_design(METHOD), skirt_chart(), "waist_knee")]
        self.assertEqual(sizes, sorted(sizes, reverse=True))

    def test_what_is_missing_is_tried_on_an_estimate_and_the_chart_stays_as_it_is(self):
        chart = chart_of({"height": 164, "waist": 69, "hip": 94})
        self.assertAlmostEqual(self.moves("waist_knee", chart)["back", "centre_back"], 1.0, places=4)
        self.assertNotIn("waist_knee", chart)
        self.assertAlmostEqual(filled_in(chart).get("waist_hip"), 20.5)
        self.assertEqual(next_to_read(METHOD, chart), ("waist_knee", "waist_hip"))

    def test_what_cannot_be_drafted_moves_nothing(self):
        self.assertEqual(self.moves("waist", chart_of({"waist": 69})), {})
        self.assertEqual(self.moves("neck"), {})
        self.assertEqual(next_to_read(METHOD, Chart()), ("waist", "hip", "waist_hip", "waist_knee"))


if __name__ == "__main__":
    unittest.main()
