"""Nothing that stands on a chart breaks a draft: it is drawn, or refused with measures and figures."""

import logging
import random
import unittest
from dataclasses import replace
from unittest import mock

from tests.attacks import times
from tests.bodies import drafted, upper_build
from tests.wild import wild
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.output.svg_board import board_svg
from widehem.core.pattern.check import CHECKERS
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.operation import OPERATIONS, CannotStyle, Context, run

PER_METHOD = 12


class Wild(unittest.TestCase):
    def test_every_method_draws_or_refuses_in_words(self):
        chance = random.Random("wild")
        for code, method in METHODS.items():
            for _ in range(times(PER_METHOD)):
                chart = wild(chance)
                with self.subTest(code):
                    try:
                        hole = armhole_of(drafted(METHODS[method.made_for], chart).garment) if method.for_armhole else None
                        made = drafted(method, chart, armhole=hole)
                    except CannotDraft as refusal:
                        self.assertTrue(refusal.saying.text().endswith("."))
                        if refusal.measures:
                            self.assertRegex(refusal.saying.text(), r"\d", "it gives figures")
                    else:
                        self.assertTrue(made.checks)
                        self.assertIn("<path", board_svg(made, len(made.steps)))

    def test_side_neck_to_waist_far_too_short(self):
        for measure in ("snp_waist_front", "snp_waist_back"):
            for cm in (0.1, 9.0, 23.0, 400.0):
                for code in METHODS:
                    method = METHODS[code]
                    if method.for_armhole:
                        continue
                    try:
                        drafted(method, upper_build(**{measure: cm}))
                    except CannotDraft as refusal:
                        self.assertTrue(refusal.measures, (code, cm))


class Broken(unittest.TestCase):
    """What breaks all the same is logged with what was put in, and said as a refusal."""

    def test_a_method_that_breaks_refuses_with_every_measure_and_its_figure(self):
        def breaks(_sheet):
            raise ZeroDivisionError("float division by zero")

        method = replace(METHODS["skirt.two_panel"], draw=breaks)
        with self.assertLogs("widehem.core.drafting.method", logging.ERROR) as log, self.assertRaises(CannotDraft) as caught:
            from widehem.core.drafting.method import draft

            draft(method, upper_build(waist=69.5))
        self.assertIn("waist 69.5", str(caught.exception))
        self.assertIn("waist", caught.exception.measures)
        self.assertIn("69.5", log.output[0])
        self.assertIn("ZeroDivisionError", log.output[0])

    def test_a_check_that_breaks_is_never_true(self):
        def breaks(_case):
            raise ValueError("math domain error")
            yield

        with mock.patch.dict(CHECKERS, {"seams": breaks}), self.assertLogs("widehem.core.pattern.truing", logging.ERROR):
            made = drafted(METHODS["skirt.two_panel"], upper_build())
            found = {check.name: check.verdict for check in made.checks}
        self.assertEqual(found["broken.seams"], "not")
        self.assertGreater(len(found), 5, "the others are judged all the same")

    def test_an_operation_that_breaks_does_not_fit(self):
        def breaks(_job):
            raise IndexError("list index out of range")

        asked = replace(OPERATIONS["sides.apart"], apply=breaks)
        garment = drafted(METHODS["skirt.two_panel"], upper_build()).garment
        with self.assertLogs("widehem.core.style.operation", logging.ERROR), self.assertRaises(CannotStyle):
            run(asked, garment, Context(upper_build()))


if __name__ == "__main__":
    unittest.main()
