"""Mends of finished pieces: what they change, and that they change nothing else."""

import math
import unittest
from dataclasses import replace

from fontTools.misc.transform import Transform
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.bodies import drafted, skirt, upper_build
from tests.some import tries
from widehem.core.design.design import Design, Step
from widehem.core.design.make import make
from widehem.core.drafting.method import METHODS
from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, angle_between, mirror_in
from widehem.core.pattern.truing import check_garment
from widehem.core.style.operation import OPERATIONS, Context, run


def bodice(**options):
    return drafted(METHODS["bodice.measured"], upper_build(), options)


def mended(code, garment):
    return run(OPERATIONS[code], garment, Context(upper_build()))


def verdict(garment, name):
    return next(check.verdict for check in check_garment(garment) if check.name == name)


def stretched(garment, share):
    """The garment with its front drawn so much taller: its side no longer fits."""
    return garment.with_piece(garment.piece("front").moved(Transform(1, 0, 0, share, 0, 0)))


class Equalise(unittest.TestCase):
    @settings(max_examples=tries(30), deadline=None)
    @given(st.floats(0.93, 1.07))
    def test_seams_agree_and_the_outline_stays_closed(self, share):
        garment = stretched(bodice().garment, share)
        made = mended("true.seams", garment).garment
        for seam in made.seams:
            over = made.length_of(seam.first) - made.length_of(seam.second)
            self.assertGreaterEqual(over, seam.ease[0] - 0.21)
            self.assertLessEqual(over, seam.ease[1] + 0.21)
        self.assertEqual(made.piece("back"), garment.piece("back"), "only the second side is changed")

    def test_it_says_what_it_changed_and_leaves_true_seams_alone(self):
        garment = stretched(bodice().garment, 1.03)
        self.assertEqual(verdict(garment, "seam.side"), "not")
        done = mended("true.seams", garment)
        self.assertEqual(verdict(done.garment, "seam.side"), "true")
        self.assertRegex(str(done.said[0]), r"Side seam: the front is taken in by 0\.\d cm at the waist\.")
        self.assertEqual(mended("true.seams", bodice().garment).said, ())


class Square(unittest.TestCase):
    def test_a_slanting_waist_leaves_the_centre_squarely(self):
        garment = skirt().garment
        edge = garment.piece("back").edge("waist")
        first = edge.parts[0]
        slanting = Path((curve_between(first.start, Point(1, 0.4), first.end, first.arriving),))
        wrong = garment.with_piece(garment.piece("back").with_edge(replace(edge, parts=(slanting, *edge.parts[1:]))))
        self.assertNotEqual(verdict(wrong, "corners.square"), "true")
        done = mended("true.corners", wrong)
        self.assertEqual(verdict(done.garment, "corners.square"), "true")
        self.assertIn("The back waist leaves its centre squarely now", str(done.said[0]))
        self.assertEqual(len(done.said), 1, "what is square already is left alone")
        part = done.garment.piece("back").edge("waist").parts[0]
        self.assertEqual((part.start, part.end), (first.start, first.end))
        self.assertLess(math.radians(angle_between(part.arriving, first.arriving)), 1e-6)

    def test_a_point_that_is_meant_stays(self):
        made = bodice(neck_shape="v", trued="both")
        self.assertTrue(made.garment.piece("front").edge("neck").pointed)
        self.assertEqual(made.notes, bodice(neck_shape="v").notes)


class Pressed(unittest.TestCase):
    def test_the_mouth_is_the_edge_of_the_other_side_folded_over(self):
        garment = bodice().garment
        turned = mended("dart.press", garment).garment
        dart, before = turned.piece("back").darts[0], garment.piece("back").darts[0]
        self.assertLess(dart.cap.start.to(dart.inner) + dart.cap.end.to(dart.outer), 1e-9)
        self.assertGreater(dart.tip.to(before.tip), 0.01)
        leg = mirror_in(dart.point, dart.outer)
        edge = turned.piece("back").edge("waist").parts[1]
        for along in (0.3, 0.9):
            spot = dart.cap.reverse().place(along).point.moved(leg)
            near = min(edge.place(i / 50).point.to(spot) for i in range(150))
            self.assertLess(near, 0.03, "folded over, the mouth lies on the edge")

    def test_the_board_shows_what_was_changed(self):
        made = bodice(pressed="side")
        mark = next(mark for mark in made.marks if mark.dart is not None and mark.piece == "back")
        self.assertEqual(mark.dart, made.laid[0].darts[0])
        self.assertTrue(any("pressing to the side" in str(note) for note in made.notes))


class Later(unittest.TestCase):
    def test_truing_comes_after_every_change_of_shape(self):
        """The step that presses stands first in the list, and still its darts are those of the garment as it is at the end."""
        method = METHODS["skirt.two_panel"]
        steps = Step("1", "true.corners"), Step("2", "sides.apart")
        made = make(Design(method.code, method.rules, {}, {}, steps), upper_build())
        self.assertEqual([piece.name for piece in made.garment.pieces], ["back_left", "back_right", "front"])
        self.assertEqual(made.refused, ())


if __name__ == "__main__":
    unittest.main()
