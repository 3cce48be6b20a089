"""Mends of finished pieces: what they change, and that they change nothing else."""

import math
import unittest
from dataclasses import replace

from fontTools.misc.transform import Transform
from hypothesis import given, settings
from hypothesis import strategies as st
from widehem.core.pattern.mends import equalise, press_to_side, square

from tests.bodies import drafted, skirt, upper_build
from widehem.core.drafting.method import METHODS
from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, angle_between, mirror_in
from widehem.core.pattern.truing import check_block


def bodice(**options):
    return drafted(METHODS["bodice.measured"], upper_build(), options)


def verdict(block, name):
    return next(check.verdict for check in check_block(block) if check.name == name)


def stretched(block, share):
    """The block with its front drawn so much taller: its side no longer fits."""
    front = block.piece("front")
    tall = Transform(1, 0, 0, share, 0, 0)
    edges = tuple(
        replace(
            edge,
            parts=tuple(part.moved(tall) for part in edge.parts),
            darts=tuple(replace(d, cap=d.cap.moved(tall), point=d.point.moved(tall), inner=d.inner.moved(tall), outer=d.outer.moved(tall)) for d in edge.darts),
        )
        for edge in front.edges
    )  # fmt: skip
    return replace(block, pieces=(block.piece("back"), replace(front, edges=edges)))


class Equalise(unittest.TestCase):
    @settings(max_examples=30, deadline=None)
    @given(st.floats(0.93, 1.07))
    def test_seams_agree_and_the_outline_stays_closed(self, share):
        block = stretched(bodice().garment, share)
        mended = equalise(block)
        for seam in mended.garment.seams:
            over = mended.garment.length_of(seam.first) - mended.garment.length_of(seam.second)
            self.assertGreaterEqual(over, seam.ease[0] - 0.21)
            self.assertLessEqual(over, seam.ease[1] + 0.21)
        ring = mended.garment.piece("front").ring()
        for a, b in zip(ring, (*ring[1:], ring[0]), strict=True):
            self.assertLess(a.end.to(b.start), 1e-6)
        self.assertEqual(mended.garment.piece("back"), block.piece("back"), "only the second side is changed")

    def test_it_says_what_it_changed_and_leaves_true_seams_alone(self):
        block = stretched(bodice().garment, 1.03)
        self.assertEqual(verdict(block, "seam.side"), "not")
        mended = equalise(block)
        self.assertEqual(verdict(mended.garment, "seam.side"), "true")
        self.assertRegex(str(mended.changes[0]), r"Side seam: the front is taken in by 0\.\d cm at the waist\.")
        self.assertEqual(equalise(bodice().garment).changes, ())


class Square(unittest.TestCase):
    def test_a_slanting_waist_leaves_the_centre_squarely(self):
        block = skirt().garment
        back = block.piece("back")
        edge = back.edge("waist")
        first = edge.parts[0]
        slanting = Path((curve_between(first.start, Point(1, 0.4), first.end, first.arriving),))
        ring = tuple(replace(e, parts=(slanting, *e.parts[1:])) if e.name == "waist" else e for e in back.edges)
        wrong = replace(block, pieces=(replace(back, edges=ring), block.piece("front")))
        self.assertNotEqual(verdict(wrong, "corners.square"), "true")
        mended = square(wrong)
        self.assertEqual(verdict(mended.garment, "corners.square"), "true")
        self.assertIn("The back waist leaves its centre squarely now", str(mended.changes[0]))
        self.assertEqual(len(mended.changes), 1, "what is square already is left alone")
        part = mended.garment.piece("back").edge("waist").parts[0]
        self.assertEqual((part.start, part.end), (first.start, first.end))
        self.assertLess(math.radians(angle_between(part.arriving, first.arriving)), 1e-6)

    def test_a_point_that_is_meant_stays(self):
        made = bodice(neck_shape="v", trued="both")
        self.assertTrue(made.garment.piece("front").edge("neck").pointed)
        self.assertEqual(made.notes, bodice(neck_shape="v").notes)
        self.assertTrue(all(check.verdict == "true" for check in made.checks))


class Pressed(unittest.TestCase):
    def test_the_mouth_is_the_edge_of_the_other_side_folded_over(self):
        block = bodice().garment
        turned = press_to_side(block).garment
        dart, before = turned.piece("back").darts[0], block.piece("back").darts[0]
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
        self.assertEqual(mark.dart, made.garment.piece("back").darts[0])
        self.assertTrue(any("pressing to the side" in str(note) for note in made.notes))


if __name__ == "__main__":
    unittest.main()
