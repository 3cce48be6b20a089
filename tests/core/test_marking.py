"""From block to pattern: allowances, corners, hems, notches, labels."""

import random
import unittest
from unittest import mock

from shapely import LineString, Polygon
from shapely import Point as Dot

from tests.bodies import BUILDS, drafted, skirt, upper_build
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.geometry.points import Point
from widehem.core.marking.allowance import _one_by_one, cutting_line
from widehem.core.marking.checks import check_pattern
from widehem.core.marking.labels import Heading
from widehem.core.marking.made import mark_up
from widehem.core.marking.plans import PLANS, PlanError, plan_named
from widehem.core.units import Display

HEADING = Heading("The Lantern Ferry", "Ferry skirt", "Odile Marsh", "Quayside Players", "3 November 2026", "draft 2")


def one_by_one(run, sign):
    outs = [(b - a).unit().square() * (-sign * amount) for a, b, amount in run]
    return _one_by_one(run, outs, sign)


class Allowances(unittest.TestCase):
    def setUp(self):
        self.made = skirt("typical")
        self.pattern = mark_up(self.made, PLANS["cloth"], HEADING)
        self.back, self.front = self.pattern.pieces

    def test_everywhere_as_far_from_the_stitching_line_as_planned(self):
        ring = Polygon(self.back.cut).exterior
        for edge, amount in (("side", 1.2), ("waist", 1.2), ("centre_back", 1.5)):
            for part in self.back.piece.edge(edge).parts:
                for along in (0.3, 0.5, 0.7):
                    spot = part.place(part.length * along).point
                    self.assertAlmostEqual(ring.distance(Dot(*spot)), amount, delta=0.01, msg=edge)

    def test_corners(self):
        left, top, right, bottom = self.back.bounds
        self.assertAlmostEqual(left, -1.5, places=3)
        self.assertAlmostEqual(right, 25 + 1.2, places=3)
        self.assertAlmostEqual(bottom, 59 + 4, places=3)
        corner = min(self.back.cut, key=lambda p: p.to(Point(-1.5, -1.2)))
        self.assertLess(corner.to(Point(-1.5, -1.2)), 0.05, "the corner at CB waist is squared off")
        self.assertLess(top, -1.25 - 1.2)

    def test_a_folded_hem_is_as_wide_as_what_it_lies_on(self):
        cut = Polygon(self.back.cut)
        for depth in (0.5, 2, 3.9):
            below, above = (cut.intersection(LineString([(-50, y), (99, y)])).length for y in (59 + depth, 59 - depth))
            self.assertAlmostEqual(below, above, delta=0.02)

    def test_a_fold_gets_nothing(self):
        self.assertAlmostEqual(self.front.bounds[2], 48.5, places=4)
        self.assertEqual(self.front.amounts["centre_front"], 0)

    def test_a_dart_shut_to_its_side_leaves_a_smooth_cutting_edge(self):
        """Both halves of the cap mirror each other in the axis, and the inner half mirrors the edge in the leg."""
        dart = self.back.piece.darts[0]
        axis = (dart.inner.toward(dart.outer, 0.5) - dart.point).unit()
        self.assertLess(abs((dart.tip - dart.point).cross(axis)), 1e-4, "the peak stands on the axis")
        self.assertGreater(dart.point.to(dart.tip), dart.legs[0] - 0.2)
        cap = dart.cap
        self.assertAlmostEqual(cap.start.to(dart.inner), 0, places=6)
        self.assertAlmostEqual(cap.end.to(dart.outer), 0, places=6)

    def test_plans_are_changed_within_reason(self):
        wider = PLANS["cloth"].with_amounts({"seam": 2.5})
        self.assertAlmostEqual(mark_up(self.made, wider).pieces[0].bounds[2], 27.5, places=3)
        for changes in ({"seam": 40}, {"seam": -1}, {"elbow": 1}):
            with self.assertRaises(PlanError):
                PLANS["cloth"].with_amounts(changes)
        with self.assertRaises(PlanError):
            plan_named("velvet")

    def test_a_strip_along_an_edge_is_the_same_as_one_for_each_of_its_straights(self):
        """Also where the allowance is wider than the edge is round, and no crack is left between two strips."""
        chance = random.Random("strips")
        for code, method in METHODS.items():
            body = upper_build("full")
            hole = armhole_of(drafted(METHODS[method.made_for], body).garment) if method.for_armhole else None
            for piece in drafted(method, body, armhole=hole).garment.pieces:
                for width in (1.0, 2.5, 6.0):
                    amounts = {e.name: 0.0 if e.kind == "fold" else width * chance.choice((0.5, 1.0)) for e in piece.edges}
                    whole = cutting_line(piece, amounts)
                    with mock.patch("widehem.core.marking.allowance._strips", one_by_one):
                        singly = cutting_line(piece, amounts)
                    apart = Polygon(whole).exterior.hausdorff_distance(Polygon(singly).exterior)
                    self.assertLess(apart, 0.005, (code, piece.name, width))

    def test_without_allowances_the_cut_is_the_stitching_line(self):
        bare = mark_up(self.made, PLANS["none"]).pieces[0]
        self.assertAlmostEqual(Polygon(bare.cut).area, bare.piece.area, delta=0.2)

    def test_stitching_lines_run_out_to_the_cutting_line(self):
        ring = Polygon(self.back.cut).exterior
        self.assertGreaterEqual(len(self.back.tails), 4)
        for tail in self.back.tails:
            self.assertLess(ring.distance(Dot(*tail.end)), 1e-4)
            self.assertGreater(tail.length, 0.5)


class Marks(unittest.TestCase):
    def setUp(self):
        self.made = skirt("typical")
        self.pattern = mark_up(self.made, PLANS["cloth"], HEADING)

    def test_notches_single_in_front_double_behind_and_square_to_the_edge(self):
        back, front = ([n for n in m.notches if n.what == "hip level"] for m in self.pattern.pieces)
        self.assertEqual((len(back), len(front)), (2, 1))
        for notch in (*back, *front):
            self.assertAlmostEqual(notch.at.to(notch.inner), 0.5)
            self.assertAlmostEqual(notch.at.y, notch.inner.y, places=6)
        self.assertAlmostEqual(front[0].at.y, 20.5, places=3)

    def test_every_kind_of_notch_is_there(self):
        kinds = {
            n.what.replace("back_dart_1 ", "").replace("back_dart_2 ", "").replace("front_dart_1 ", "")
            for m in self.pattern.pieces
            for n in m.notches
        }
        self.assertLessEqual(
            {"hip level", "dart leg, inner", "dart leg, outer", "opening end", "hem fold", "fold at waist", "fold at hem"},
            kinds,
        )

    def test_notches_stand_on_the_cutting_line(self):
        for marked in self.pattern.pieces:
            ring = Polygon(marked.cut).exterior
            for notch in marked.notches:
                self.assertLess(ring.distance(Dot(*notch.at)), 0.03, notch.what)
                self.assertTrue(Polygon(marked.cut).buffer(0.05).contains(Dot(*notch.inner)), notch.what)

    def test_drill_holes_stand_back_from_the_point(self):
        for marked in self.pattern.pieces:
            for dart, hole in zip(marked.piece.darts, marked.drills, strict=True):
                self.assertAlmostEqual(dart.point.to(hole), 1.5)
                self.assertLess(hole.y, dart.point.y)

    def test_grain_or_fold(self):
        back, front = self.pattern.pieces
        self.assertEqual(back.grain[0].x, back.grain[1].x)
        self.assertTrue(Polygon(back.piece.outline()).contains(LineString(back.grain)))
        self.assertEqual({p.x for p in front.grain}, {48.5})

    def test_labels_say_what_it_is_and_touch_no_line(self):
        for build in BUILDS:
            pattern = mark_up(skirt(build), PLANS["cloth"], HEADING)
            for marked in pattern.pieces:
                words = " ".join(row.text for row in marked.written.words)
                for word in ("Skirt", "of 2", "cut", "Ferry skirt", "Odile Marsh", "Lantern Ferry", "1.2", "draft 2"):
                    self.assertIn(word, words, build)
                inside = Polygon(marked.piece.outline())
                for row in marked.written.words:
                    self.assertTrue(inside.contains(Polygon(row.outline)), (build, row.text))

    def test_labels_in_inches(self):
        words = " ".join(mark_up(self.made, PLANS["cloth_in"], HEADING, Display("in")).pieces[0].label[0])
        self.assertIn("allowance in, in: seams 1/2; hem 1 1/2; opening 5/8", words)

    def test_cut_list_and_notions(self):
        self.assertEqual(
            [(row.piece, row.cut) for row in self.pattern.cut_list],
            [("Skirt back", "2, a pair"), ("Skirt front", "1 on the fold")],
        )
        self.assertTrue(any("Zip, 18.0 cm" in line for line in self.pattern.notions))

    def test_a_good_pattern_passes_its_checks_and_a_bad_one_does_not(self):
        self.assertEqual({check.verdict for check in check_pattern(self.made.garment, self.pattern)}, {"true"})
        from dataclasses import replace

        back, front = self.pattern.pieces
        moved = replace(
            front, amounts={**front.amounts, "side": 2.0}, notches=tuple(replace(n, along=n.along + 1) for n in front.notches)
        )
        verdicts = {c.name: c.verdict for c in check_pattern(self.made.garment, replace(self.pattern, pieces=(back, moved)))}
        self.assertEqual((verdicts["allowances"], verdicts["notches"]), ("not", "not"))
        bare = replace(self.pattern, pieces=(replace(back, notches=()), replace(front, notches=())))
        names = [check.name for check in check_pattern(self.made.garment, bare)]
        self.assertEqual(names, ["allowances", "labels"], "where there is no notch none is called true")


if __name__ == "__main__":
    unittest.main()
