"""Every method is drawn step by step, not at the end: what a maker follows at the table."""

import unittest

from tests.bodies import drafted, upper_build
from widehem.core.drafting.method import METHODS, armhole_of

WORKED_OUT = {  # the one step of a method that only works something out
    "skirt.two_panel": {"Waist, by the arcs"},
    "bodice.plain": {"Side seams"},
    "bodice.cup_wedge": {"Side dart"},
    "sleeve.guide_box": {"Bicep line and cap"},
    "sleeve.triangle": {"Bicep line and cap"},
    "gown.seam_shaped": {"Front against back"},
}


class StepByStep(unittest.TestCase):
    def test_every_step_draws_what_it_speaks_of(self):
        chart = upper_build()
        for method in METHODS.values():
            hole = armhole_of(drafted(METHODS[method.made_for], chart).garment) if method.for_armhole else None
            made = drafted(method, chart, armhole=hole)
            drawn = {mark.step for mark in made.marks}
            empty = {step.title for step in made.steps if step.number not in drawn}
            self.assertLessEqual(empty, WORKED_OUT.get(method.code, set()), method.code)

    def test_pencil_lines_are_gone_when_the_pieces_are_drawn(self):
        for code in (
            "trousers.frame",
            "trousers.crease",
            "top.jersey",
            "gown.seam_shaped",
            "bodice.contour",
            "coat.straight",
            "suit.one_piece",
        ):
            made = drafted(METHODS[code], upper_build())
            last = made.marks_at(len(made.steps))
            self.assertEqual([mark.name for mark in last if mark.role == "construction" and mark.kind == "line"], [], code)
            names = [mark.name for mark in made.marks]
            self.assertEqual(len(names), len(set(names)), code)


if __name__ == "__main__":
    unittest.main()
