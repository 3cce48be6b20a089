"""Checks must see what is wrong: good pieces are bent on purpose and the check has to notice."""

import unittest
from dataclasses import replace

from tests.bodies import skirt
from widehem.core.geometry.curves import Line
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.garment import Opening
from widehem.core.pattern.piece import Edge
from widehem.core.pattern.truing import check_block


def verdicts(block):
    return {check.name: check for check in check_block(block)}


def with_edge(block, piece_name, edge_name, change):
    """The block with one edge of one piece changed."""
    pieces = []
    for piece in block.pieces:
        if piece.name == piece_name:
            piece = replace(piece, edges=tuple(change(e) if e.name == edge_name else e for e in piece.edges))
        pieces.append(piece)
    return replace(block, pieces=tuple(pieces))


def stretched_side(edge: Edge, by: float) -> Edge:
    curve, line = edge.parts[0].segments
    return replace(edge, parts=(Path((curve, Line(line.start, line.end + Point(0, by)))),))


class Verdicts(unittest.TestCase):
    def setUp(self):
        self.garment = skirt("typical", ease={"waist": 1.5}).garment

    def test_a_good_skirt_is_true_where_it_can_be(self):
        found = verdicts(self.garment)
        for name in (
            "seam.side",
            "balance.hip",
            "darts.legs",
            "darts.intake",
            "corners.square",
            "waist.smooth",
            "hem.level",
            "outline",
            "girth.waist",
            "girth.hip",
            "opening",
        ):
            self.assertEqual(found[name].verdict, "true", f"{name}: {found[name].message}")

    def test_sides_of_unequal_length(self):
        for by, verdict in ((0.1, "true"), (0.4, "look"), (1.0, "not")):
            check = verdicts(with_edge(self.garment, "back", "side", lambda e, by=by: stretched_side(e, by)))["seam.side"]
            self.assertEqual(check.verdict, verdict)
            self.assertAlmostEqual(check.figure, by, places=3)
            self.assertEqual(check.spots, ("back.side", "front.side"))

    def test_a_hem_that_is_not_level(self):
        block = with_edge(
            self.garment, "back", "hem", lambda e: replace(e, parts=(Path.through(e.start + Point(0, 2), e.end),))
        )
        self.assertEqual(verdicts(block)["hem.level"].verdict, "not")

    def test_a_dart_with_unequal_legs(self):
        def bend(edge):
            dart = edge.darts[0]
            return replace(edge, darts=(replace(dart, outer=dart.outer + Point(0, -0.4)), *edge.darts[1:]))

        found = verdicts(with_edge(self.garment, "back", "waist", bend))
        self.assertEqual(found["darts.legs"].verdict, "not")
        self.assertAlmostEqual(found["darts.legs"].figure, 0.4, delta=0.01)

    def test_a_peak_over_a_dart(self):
        def peak(edge):
            first = edge.parts[0]
            return replace(edge, parts=(Path.through(first.start, first.end), *edge.parts[1:]))

        found = verdicts(with_edge(self.garment, "back", "waist", peak))
        self.assertNotEqual(found["waist.smooth"].verdict, "true")
        self.assertIn("back dart", found["waist.smooth"].brief.text())

    def test_a_corner_that_is_not_square(self):
        def slant(edge):
            parts = edge.parts
            return replace(edge, parts=(Path.through(parts[0].start, parts[0].end + Point(0, -2.4)), *parts[1:]))

        check = verdicts(with_edge(self.garment, "front", "waist", slant))["corners.square"]
        self.assertEqual(check.verdict, "not")
        self.assertIn("front waist", check.message.text())

    def test_crossing_darts(self):
        def cross(edge):
            a, b = edge.darts
            return replace(edge, darts=(replace(a, point=b.point + Point(3, 0)), b))

        self.assertEqual(verdicts(with_edge(self.garment, "back", "waist", cross))["darts.intake"].verdict, "not")

    def test_an_outline_that_crosses_itself(self):
        block = with_edge(
            self.garment,
            "front",
            "hem",
            lambda e: replace(e, parts=(Path.through(e.start, Point(20, 40), Point(40, 30), e.end),)),
        )
        self.assertEqual(verdicts(block)["outline"].verdict, "not")

    def test_ease_under_the_least_is_looked_at_and_none_at_all_is_not_true(self):
        snug = verdicts(skirt("typical").garment)["girth.waist"]
        self.assertEqual(snug.verdict, "look")
        self.assertIn("1.5", snug.message.text())
        levels = tuple(replace(level, body=level.body + 6, planned=level.planned - 6) for level in self.garment.levels)
        tight = verdicts(replace(self.garment, levels=levels))["girth.hip"]
        self.assertEqual(tight.verdict, "not")
        self.assertIn("will not close", tight.message.text())

    def test_the_hips_must_pass_the_opening(self):
        passes = verdicts(self.garment)["opening"]
        self.assertGreater(passes.figure, 0)
        short = verdicts(replace(self.garment, opening=Opening("centre_back", 6)))["opening"]
        self.assertEqual(short.verdict, "not")
        none = verdicts(replace(self.garment, opening=Opening("none", 0)))["opening"]
        self.assertAlmostEqual(none.figure, 70.5 - 94, delta=0.05)
        self.assertEqual(verdicts(skirt("round", {"opening_at": "none"}).garment)["opening"].verdict, "true")

    def test_the_stride_grows_with_the_length(self):
        knee, floor = (verdicts(skirt("typical", {"length": length}).garment)["stride"] for length in (59, 104))
        self.assertGreater(knee.figure, floor.figure)
        self.assertAlmostEqual(floor.figure, 97 - 1.2 * 0.55 * 164, delta=0.1)

    def test_each_verdict_has_figure_words_and_a_spot(self):
        for check in check_block(self.garment):
            self.assertTrue(check.message.text().endswith("."), check.message)
            self.assertTrue(check.brief.text(), check.name)
            self.assertTrue(check.spots or check.name == "outline", check.name)


if __name__ == "__main__":
    unittest.main()
