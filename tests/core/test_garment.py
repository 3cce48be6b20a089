"""The garment model on boxes whose figures are told by heart: levels, darts, seams, closed corners, what is refused."""

import math
import unittest
from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from tests.boxes import box, darted_box, straight
from widehem.core.geometry.points import Point, turn
from widehem.core.pattern.check import Case, verdict_on
from widehem.core.pattern.checks.body import Girth, finished
from widehem.core.pattern.checks.through import FootPasses
from widehem.core.pattern.closed import joints
from widehem.core.pattern.edge import Edge, Notch, PatternError
from widehem.core.pattern.garment import EdgeRef, Garment, Opening, Seam, SeamEdge
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.truing import check_garment


def skirt(front=24.0, back=26.0, high=60.0, **more) -> Garment:
    pieces = box("back", back, high, levels=(("hip", 20.0),)), box("front", front, high, levels=(("hip", 20.0),))
    side = Seam("side", "Side seam", (SeamEdge("back", "side"),), (SeamEdge("front", "side"),))
    return Garment(pieces, (side,), **more)


class Levels(unittest.TestCase):
    def test_a_girth_counts_each_piece_as_often_as_it_is_cut(self):
        self.assertAlmostEqual(skirt().girth("hip"), 2 * 24 + 2 * 26)
        left = replace(box("back", 26, 60, stands="left", levels=(("hip", 20.0),)))
        right = replace(box("front", 24, 60, stands="right", levels=(("hip", 20.0),)))
        self.assertAlmostEqual(Garment((left, right)).girth("hip"), 24 + 26)

    def test_of_one_limb_a_pair_counts_once(self):
        leg = box("back", 25, 60, stands="pair", levels=(("knee", 30.0),))
        self.assertAlmostEqual(Garment((leg,)).girth("knee", limb=True), 25)
        self.assertAlmostEqual(Garment((leg,)).girth("knee"), 50)

    def test_a_dart_takes_what_it_takes_at_that_height(self):
        piece = darted_box("back", 26, 60, at=12, takes=4, deep=16, levels=(("waist", 0.5), ("high_hip", 8.0), ("hip", 20.0)))
        self.assertAlmostEqual(piece.across("high_hip"), 26 - 2, places=6, msg="half way down half of it is left")
        self.assertAlmostEqual(piece.across("hip"), 26)
        self.assertAlmostEqual(piece.edge("waist").length, 22)

    def test_a_level_that_is_not_there_is_nothing(self):
        self.assertEqual(skirt().girth("bust"), 0.0)

    @given(st.floats(-3, 3), st.floats(-50, 50), st.floats(-50, 50), st.booleans())
    def test_a_piece_measures_the_same_wherever_it_lies(self, angle, x, y, over):
        piece = darted_box("back", 26, 60, at=12, takes=4, deep=16, levels=(("high_hip", 8.0),))
        way = turn(Point(x, y), angle)
        moved = piece.moved(way.scale(-1, 1) if over else way)
        self.assertAlmostEqual(moved.across("high_hip"), 24, places=6)
        self.assertAlmostEqual(moved.area, piece.area, places=6)
        self.assertEqual(moved.clockwise, piece.clockwise is not over)
        inside = Point(3.0, 30.0).moved(way.scale(-1, 1) if over else way)
        self.assertTrue(moved.encloses(inside))
        self.assertFalse(moved.encloses(Point(30.0, 30.0).moved(way.scale(-1, 1) if over else way)))

    def test_a_level_may_end_at_a_line(self):
        with self.assertRaisesRegex(PatternError, "ends at a line that is not there"):
            replace(box("front", 24, 60), balance=(BalanceLine.across("hip", 20, between=("", "roll")),))


class Refused(unittest.TestCase):
    """A garment that cannot be sewn is not built."""

    def test_two_pieces_of_one_name(self):
        with self.assertRaisesRegex(PatternError, "Two pieces have one name"):
            Garment((box("back", 20, 60), box("back", 22, 60)))

    def test_two_edges_of_one_name(self):
        piece = box("back", 20, 60)
        with self.assertRaisesRegex(PatternError, "two edges of one name"):
            replace(piece, edges=(*piece.edges[:3], replace(piece.edges[3], name="hem")))

    def test_an_outline_that_is_open(self):
        piece = box("back", 20, 60)
        with self.assertRaisesRegex(PatternError, "open by 1"):
            piece.with_edge(Edge("side", (straight((20, 0), (20, 59)),)))

    def test_an_outline_that_crosses_itself(self):
        edges = (
            Edge("waist", (straight((0, 0), (20, 0)),)),
            Edge("side", (straight((20, 0), (0, 60)),)),
            Edge("hem", (straight((0, 60), (20, 60)),), (), "hem"),
            Edge("centre_back", (straight((20, 60), (0, 0)),)),
        )
        with self.assertRaisesRegex(PatternError, "crosses itself"):
            Garment((Piece("back", "Back", edges),))

    def test_an_edge_of_no_role(self):
        with self.assertRaisesRegex(PatternError, "no such role"):
            Edge("elbow", (straight((0, 0), (1, 0)),))

    def test_a_seam_along_what_is_not_there(self):
        with self.assertRaisesRegex(PatternError, "front.inseam, which is not there"):
            replace(skirt(), seams=(Seam("a", "A seam", (SeamEdge("front", "inseam"),), (SeamEdge("back", "side"),)),))

    def test_a_seam_to_itself_that_is_not_a_twin(self):
        one = (SeamEdge("front", "side"),)
        with self.assertRaisesRegex(PatternError, "sewn to itself"):
            replace(skirt(), seams=(Seam("a", "A seam", one, one),))

    def test_a_notch_beyond_its_edge(self):
        piece = box("back", 20, 60)
        far = piece.with_edge(replace(piece.edge("side"), notches=(Notch("hip level", 61.0),)))
        with self.assertRaisesRegex(PatternError, "hip level lies beyond the side"):
            Garment((far,))

    def test_a_place_to_open_that_there_is_not(self):
        with self.assertRaises(KeyError):
            Opening.named("shoulder", 10)
        self.assertEqual(Opening.named("none", 10), ())


class Verdicts(unittest.TestCase):
    @given(st.floats(-5, 5), st.floats(-2, 2), st.floats(0, 2), st.floats(0, 2))
    def test_the_verdict_follows_from_figure_and_limits(self, figure, low, wide, margin):
        high = low + wide
        beyond = max(low - figure, figure - high, 0.0)
        wanted = "true" if beyond <= 1e-6 else "look" if beyond <= margin + 1e-6 else "not"
        self.assertEqual(verdict_on(figure, low, high, margin), wanted)

    def test_what_is_no_figure_is_not_true(self):
        self.assertEqual(verdict_on(math.nan, None, None), "not")
        self.assertEqual(verdict_on(math.inf, 0.0, None), "not")

    def check(self, garment, name, *demands):
        return next(check for check in check_garment(garment, demands) if check.name == name)

    def test_planned_is_what_was_asked_for(self):
        asked = Girth("hip", "Hip", 96.0, 4.0, 2.0, 0.1)
        fits = self.check(skirt(), "girth.hip", asked)
        self.assertEqual((fits.verdict, round(fits.figure, 6), fits.low, fits.high), ("true", 4.0, 3.9, 4.1))
        wide = self.check(skirt(front=25.0), "girth.hip", asked)
        self.assertEqual((wide.verdict, round(wide.figure, 6)), ("not", 6.0))
        self.assertIn("Planned was +4.0: the drawing is 2.0 cm out.", str(wide.message))

    def test_the_finished_girth_is_that_of_the_pieces(self):
        self.assertAlmostEqual(finished(Case(skirt(front=25.0)), Girth("hip", "Hip", 96.0, 4.0, 2.0, 0.1)), 102.0)

    def test_a_seam_is_held_to_its_partner(self):
        short = skirt().with_piece(box("front", 24, 59.4, levels=(("hip", 20.0),)))
        check = self.check(short, "seam.side")
        self.assertEqual((check.verdict, round(check.figure, 6)), ("not", 0.6))
        self.assertEqual(set(check.spots), {"back.side", "front.side"})

    def test_a_foot_through_a_hem(self):
        leg = box("back", 14, 90, stands="pair", levels=())
        front = box("front", 12, 90, stands="pair")
        check = self.check(Garment((leg, front)), "foot.passes", FootPasses(30.0))
        self.assertEqual((check.verdict, round(check.figure, 6)), ("look", -4.0))
        self.assertIn("26.0 on foot 30.0. The foot does not pass", str(check.message))
        self.assertEqual(self.check(Garment((leg, front)), "foot.passes", FootPasses(25.0)).verdict, "true")


class Closed(unittest.TestCase):
    """What an outline does once darts are shut and seams are joined."""

    def test_boxes_run_on_over_their_side(self):
        found = [(joint.role, joint.over, round(joint.bend, 6)) for joint in joints(skirt())]
        self.assertEqual(sorted(found), [("hem", "side", 0.0), ("waist", "side", 0.0)])

    def test_a_slanted_side_makes_a_peak_that_only_the_closed_garment_shows(self):
        front = box("front", 24, 60)
        slanted = replace(
            front,
            edges=(
                front.edge("waist"),
                Edge("side", (straight((24, 0), (30, 60)),)),
                Edge("hem", (straight((30, 60), (0, 60)),), (), "hem"),
                front.edge("centre_front"),
            ),
        )
        bend = math.degrees(math.atan2(6, 60))
        found = {joint.role: joint.bend for joint in joints(skirt().with_piece(slanted))}
        self.assertAlmostEqual(found["waist"], bend, places=6)
        self.assertAlmostEqual(found["hem"], bend, places=6)

    def test_a_dart_in_a_straight_edge_peaks_when_it_is_shut(self):
        piece = darted_box("back", 26, 60, at=12, takes=4, deep=16)
        (joint,) = (joint for joint in joints(Garment((piece,))) if joint.over == "dart")
        self.assertAlmostEqual(joint.bend, math.degrees(2 * math.atan2(2, 16)), places=6)
        self.assertEqual(joint.spots, ("back.waist", "back.back_dart"))

    def test_a_gore_is_let_in_where_a_seam_ends(self):
        """Above it the side runs on into the sides of the gore: nothing bends."""

        def half(name):
            whole = box(name, 24, 60)
            edges = (
                whole.edge("waist"),
                Edge("side", (straight((24, 0), (24, 20)),)),
                Edge("slit", (straight((24, 20), (24, 60)),), role="gore"),
                whole.edge("hem"),
                whole.edge(f"centre_{name}"),
            )
            return replace(whole, edges=edges)

        gore = Piece(
            "gore", "Gore",
            (
                Edge("left", (straight((-10, 40), (0, 0)),), role="gore"),
                Edge("right", (straight((0, 0), (10, 40)),), role="gore"),
                Edge("hem", (straight((10, 40), (-10, 40)),), (), "hem"),
            ),
        )  # fmt: skip
        seams = (
            Seam("side", "Side seam", (SeamEdge("back", "side"),), (SeamEdge("front", "side"),)),
            Seam("one", "Gore, back", (SeamEdge("back", "slit"),), (SeamEdge("gore", "left", True),)),
            Seam("two", "Gore, front", (SeamEdge("front", "slit"),), (SeamEdge("gore", "right"),)),
        )
        found = [joint for joint in joints(Garment((half("back"), half("front"), gore), seams)) if joint.role == "gore"]
        self.assertEqual([round(joint.bend, 6) for joint in found], [0.0])


class Names(unittest.TestCase):
    def test_what_an_edge_has_become_is_remembered(self):
        garment = skirt(now={EdgeRef("front", "outer"): (SeamEdge("front", "side"), SeamEdge("back", "side", True))})
        self.assertEqual(len(garment.left_of(EdgeRef("front", "outer"))), 2)
        self.assertEqual(garment.left_of(EdgeRef("front", "side")), (SeamEdge("front", "side"),))
        self.assertEqual(garment.left_of(EdgeRef("front", "neck")), ())

    def test_seams_are_found_from_both_of_their_sides(self):
        garment = skirt()
        (found,) = garment.seams_at(EdgeRef("front", "side"))
        self.assertEqual((found[1][0].piece, found[2][0].piece), ("front", "back"))
        (found,) = garment.seams_at(EdgeRef("back", "side"))
        self.assertEqual((found[1][0].piece, found[2][0].piece), ("back", "front"))


if __name__ == "__main__":
    unittest.main()
