"""Checks must see what is wrong: good pieces are bent on purpose and the check has to notice. Every method is bent in
test_bends."""

import unittest
from dataclasses import replace

from tests.bodies import skirt
from widehem.core.geometry.curves import Line
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.check import Check, verdict_on
from widehem.core.pattern.checks.body import Girth
from widehem.core.pattern.edge import Edge, PatternError
from widehem.core.pattern.garment import Garment, Opening, Seam, SeamEdge
from widehem.core.pattern.truing import check_garment
from widehem.core.units import METRIC, Display, say


def verdicts(made, garment=None, demands=None):
    found = check_garment(garment or made.garment, made.demands if demands is None else demands, made.wear)
    return {check.name: check for check in found}


def with_edge(garment, piece_name, edge_name, change):
    """The garment with one edge of one piece changed."""
    piece = garment.piece(piece_name)
    return garment.with_piece(piece.with_edge(change(piece.edge(edge_name))))


class Verdicts(unittest.TestCase):
    def setUp(self):
        self.made = skirt("typical", ease={"waist": 1.5})
        self.garment = self.made.garment

    def test_a_good_skirt_is_true_where_it_can_be(self):
        found = verdicts(self.made)
        self.assertEqual({name for name, check in found.items() if check.verdict != "true"}, {"stride"})
        for name in (
            "seam.side",
            "balance.hip",
            "darts.legs",
            "corners.square",
            "waist.smooth",
            "hem.smooth",
            "girth.hip",
            "room.hip",
            "opening",
        ):
            self.assertIn(name, found)

    def test_sides_of_unequal_length(self):
        back = self.garment.piece("back")
        side, hem, centre = back.edge("side"), back.edge("hem"), back.edge("centre_back")
        for by, verdict in ((0.1, "true"), (0.4, "look"), (1.0, "not")):
            curve, line = side.parts[0].segments
            foot = line.end + Point(0, by)
            longer = replace(side, parts=(Path((curve, Line(line.start, foot))),))
            ring = (back.edge("waist"), longer, replace(hem, parts=(Path.through(foot, centre.start),)), centre)
            check = verdicts(self.made, self.garment.with_piece(replace(back, edges=ring)))["seam.side"]
            self.assertEqual(check.verdict, verdict)
            self.assertAlmostEqual(check.figure, by, places=3)
            self.assertEqual(check.spots, ("back.side", "front.side"))

    def test_a_peak_over_a_dart(self):
        def peak(edge):
            first = edge.parts[0]
            return replace(edge, parts=(Path.through(first.start, first.end), *edge.parts[1:]))

        found = verdicts(self.made, with_edge(self.garment, "back", "waist", peak))
        self.assertNotEqual(found["waist.smooth"].verdict, "true")
        self.assertIn("back dart", found["waist.smooth"].brief.text())

    def test_crossing_darts(self):
        def cross(edge):
            a, b = edge.gaps
            return replace(edge, gaps=(replace(a, point=b.point + Point(3, 0)), b))

        self.assertEqual(verdicts(self.made, with_edge(self.garment, "back", "waist", cross))["darts.apart"].verdict, "not")

    def test_ease_under_the_least_is_looked_at_and_none_at_all_is_not_true(self):
        snug = verdicts(skirt("typical"))
        self.assertEqual((snug["girth.waist"].verdict, snug["room.waist"].verdict), ("true", "look"))
        self.assertIn("1.5", snug["room.waist"].message.text())
        demands = tuple(
            replace(d, body=d.body + 6, planned=d.planned - 6) if isinstance(d, Girth) else d for d in self.made.demands
        )
        tight = verdicts(self.made, demands=demands)
        self.assertEqual((tight["girth.hip"].verdict, tight["room.hip"].verdict), ("true", "not"))
        self.assertIn("will not close", tight["room.hip"].message.text())

    def test_the_hips_must_pass_the_opening(self):
        passes = verdicts(self.made)["opening"]
        self.assertGreater(passes.figure, 0)
        short = verdicts(self.made, replace(self.garment, openings=(Opening("centre_back", 6),)))["opening"]
        self.assertEqual(short.verdict, "not")
        none = verdicts(self.made, replace(self.garment, openings=()))["opening"]
        self.assertAlmostEqual(none.figure, 70.5 - 94, delta=0.05)
        self.assertEqual(verdicts(skirt("round", {"opening_at": "none"}))["opening"].verdict, "true")

    def test_the_stride_grows_with_the_length(self):
        knee, floor = (verdicts(skirt("typical", {"length": length}))["stride"] for length in (59, 104))
        self.assertGreater(knee.figure, floor.figure)
        self.assertAlmostEqual(floor.figure, 97 - 1.2 * 0.55 * 164, delta=0.1)

    def test_each_verdict_has_figure_words_and_a_spot(self):
        for check in self.made.checks:
            self.assertTrue(check.message.text().endswith("."), check.message)
            self.assertTrue(check.brief.text(), check.name)
            self.assertTrue(check.spots or check.name in ("outline", "curves.smooth"), check.name)


class Limits(unittest.TestCase):
    """What is printed is what was used."""

    def check(self, figure, low, high, margin=0.5):
        return Check("x", "seams", "X", "signed", figure, low, high, margin, say("x"), say("x."))

    def test_the_verdict_follows_from_figure_and_limits(self):
        for figure, verdict in (
            (0.29, "look"),
            (0.3, "true"),
            (1.0, "true"),
            (1.2, "look"),
            (1.51, "not"),
            (float("nan"), "not"),
        ):
            self.assertEqual(self.check(figure, 0.3, 1.0).verdict, verdict, figure)
        self.assertEqual(verdict_on(5.0, None, 3.0), "not")

    def test_the_limits_are_said_in_either_unit(self):
        self.assertEqual(self.check(0.5, 0.3, 1.0).limits_text(METRIC), "+0.3 to +1.0 cm")
        self.assertEqual(self.check(0.5, None, 1.0).limits_text(METRIC), "at most +1.0 cm")
        self.assertEqual(self.check(0.5, 0.3, None).limits_text(METRIC), "at least +0.3 cm")
        self.assertIn("in", self.check(0.5, 0.3, 1.0).limits_text(Display("in")))

    def test_an_eased_seam_says_what_it_is_eased_by(self):
        made = skirt()
        eased = replace(made.garment, seams=(replace(made.garment.seams[0], ease=(-0.5, 0.5)), *made.garment.seams[1:]))
        check = verdicts(made, eased)["seam.side"]
        self.assertEqual((check.low, check.high), (-0.7, 0.7))


class Refused(unittest.TestCase):
    """A garment refuses to be built wrong."""

    def setUp(self):
        self.garment = skirt().garment

    def test_what_does_not_make_an_edge_a_piece_or_a_garment(self):
        back = self.garment.piece("back")
        waist, side = back.edge("waist"), back.edge("side")
        crossing = replace(back.edge("hem"), parts=(Path.through(side.end, Point(-30, 30), back.edge("centre_back").start),))
        for words, build in (
            ("stretches and", lambda: replace(waist, parts=waist.parts[:-1])),
            ("do not meet", lambda: replace(waist, gaps=tuple(replace(g, inner=g.inner + Point(0, 0.1)) for g in waist.gaps))),
            ("there is no such role", lambda: Edge("elbow", side.parts)),
            ("open by", lambda: back.with_edge(replace(side, parts=(Path.through(side.start, side.end + Point(0, 0.1)),)))),
            ("two edges of one name", lambda: replace(back, edges=(*back.edges[:-1], replace(back.edges[-1], name="hem")))),
            ("no edge", lambda: replace(back, middle="elsewhere")),
            ("crosses itself", lambda: self.garment.with_piece(back.with_edge(crossing))),
            ("Two pieces have one name", lambda: Garment((back, back))),
            (
                "is not there",
                lambda: Garment((back,), (Seam("x", "X", (SeamEdge("back", "side"),), (SeamEdge("front", "side"),)),)),
            ),
            (
                "sewn to itself",
                lambda: Garment((back,), (Seam("x", "X", (SeamEdge("back", "side"),), (SeamEdge("back", "side"),)),)),
            ),
        ):
            with self.subTest(words), self.assertRaises(PatternError) as caught:
                build()
            self.assertIn(words, str(caught.exception))


if __name__ == "__main__":
    unittest.main()
