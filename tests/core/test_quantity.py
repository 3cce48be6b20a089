"""Numbers that carry their working."""

import unittest

from widehem.core.setting.quantity import Quantity, larger_of, smaller_of
from widehem.core.units import Display


class Working(unittest.TestCase):
    def setUp(self):
        self.hip = Quantity(98.0, "hip", "hip", "measure")
        self.waist = Quantity(70.0, "waist", "waist", "measure")

    def test_the_sum_is_told_as_it_was_written(self):
        quarter = self.hip / 4 + 1.5
        self.assertEqual(float(quarter), 26.0)
        self.assertEqual(quarter.working(), "hip 98.0 ÷ 4 + 1.5")

    def test_brackets_stand_where_they_are_needed_and_nowhere_else(self):
        self.assertEqual(((self.hip - self.waist) / 4 - 2.5).working(), "(hip 98.0 − waist 70.0) ÷ 4 − 2.5")
        self.assertEqual((self.hip - (self.waist - 2)).working(), "hip 98.0 − (waist 70.0 − 2)")
        self.assertEqual((self.hip + self.waist * 2).working(), "hip 98.0 + waist 70.0 × 2")

    def test_a_named_result_stands_by_its_name(self):
        half = (self.hip / 2).called("half hip")
        self.assertEqual((half + 1).working(), "half hip 49.0 + 1")
        self.assertEqual(half.working(), "hip 98.0 ÷ 2")

    def test_lengths_change_their_unit_and_plain_numbers_do_not(self):
        self.assertEqual((self.hip / 4 + 2.54).working(Display("in")), "hip 38 5/8 ÷ 4 + 1")

    def test_it_knows_which_measures_it_rests_on(self):
        result = smaller_of((self.hip - self.waist) / 5, 3)
        self.assertEqual(result.measures(), ("hip", "waist"))
        self.assertEqual(float(result), 3)
        self.assertEqual(result.working(), "the smaller of (hip 98.0 − waist 70.0) ÷ 5 and 3")
        self.assertEqual(float(larger_of(self.hip, 99)), 99)


if __name__ == "__main__":
    unittest.main()
