"""A suit with a waist seam, a band, elastic, a gusset, and from a jersey top; and a waist seam as an operation of its own."""

import math
import re
import unittest

from hypothesis import assume, given, settings
from hypothesis import strategies as st
from shapely import contains_xy

from tests.bodies import UPPER, drafted, girth, upper_bodies, upper_build
from tests.core.test_bodice import verdicts
from tests.some import tries
from widehem.core.drafting.method import METHODS
from widehem.core.marking.checks import check_pattern
from widehem.core.marking.made import mark_up
from widehem.core.marking.plans import PLANS
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.operation import OPERATIONS, CannotStyle, Context, run

SUIT = METHODS["suit.one_piece"]
KNIT = {"cloth": "knit", "stretch": 40.0, "bodice": "jersey"}
CLOSE = {"bust": -4.0, "waist": -4.0, "hip": -8.0, "across_back": 0.0, "depth": 0.0}


def suit(build="typical", options=None, ease=None):
    return drafted(SUIT, upper_build(build), options, ease)


def not_true(made):
    return [name for name, verdict in verdicts(made).items() if verdict == "not"]


class Waist(unittest.TestCase):
    def test_a_seam_and_a_band_are_true_on_the_eight_bodies(self):
        for waist in ("seam", "band"):
            for build in UPPER:
                made = suit(build, {"waist_seam": waist})
                self.assertEqual(made.refused, (), (waist, build))
                self.assertEqual(not_true(made), [], (waist, build))

    def test_the_waist_the_length_and_the_cloth_are_those_of_the_whole_suit(self):
        for build in ("typical", "full", "child"):
            whole = suit(build)
            for waist in ("seam", "band"):
                made = suit(build, {"waist_seam": waist})
                near = 1.2 if waist == "seam" else 2.6  # a band stands a little above the narrowest place
                self.assertAlmostEqual(girth(made, "waist"), girth(whole, "waist"), delta=near, msg=(waist, build))
                room = [next(check.figure for check in one.checks if check.name == "seat.length") for one in (whole, made)]
                self.assertAlmostEqual(*room, delta=0.02, msg=(waist, build))

    def test_long_darts_come_apart_with_legs_as_long_as_each_other(self):
        made = suit("hourglass", {"waist_seam": "seam"})
        for piece in made.garment.pieces:
            self.assertEqual(piece.diamonds, ())
            for dart in piece.edge("waist").darts:
                self.assertAlmostEqual(dart.inner.to(dart.turned_about), dart.outer.to(dart.turned_about), places=4)
        above, below = (made.garment.piece(name).edge("waist").darts for name in ("front", "front_leg"))
        self.assertEqual(len(above), len(below))
        self.assertEqual(verdicts(made)["seam.waist_front"], "true")

    def test_a_band_is_as_long_as_both_parts_and_three_high(self):
        made = suit("typical", {"waist_seam": "band"})
        for name in ("front", "back"):
            band = made.garment.piece(f"waist_band_{name}")
            self.assertAlmostEqual(band.edge("band_centre").length, 3.0)
            for edge, piece in (("band_top", name), ("band_low", f"{name}_leg")):
                self.assertAlmostEqual(band.edge(edge).length, made.garment.piece(piece).edge("waist").length, delta=0.05)

    def test_every_edge_of_both_parts_is_drawn_and_no_letter_stands_beside_them(self):
        made = suit("typical", {"waist_seam": "band"})
        drawn = {(mark.piece, mark.edge) for mark in made.marks if mark.role == "finished"}
        laid = {piece.name: piece for piece in made.laid}
        for piece in made.laid:
            self.assertEqual([edge.name for edge in piece.edges if (piece.name, edge.name) not in drawn], [], piece.name)
        letters = [mark for mark in made.marks if mark.kind == "point" and mark.letter and mark.piece in laid]
        self.assertTrue(letters)
        for mark in letters:
            self.assertLess(mark.at.y, laid[mark.piece].bounds[3] + 0.1, mark.title)
        whole = suit("typical")
        lost = {mark.title for mark in whole.marks if mark.kind == "point"} - {mark.title for mark in made.marks}
        self.assertTrue(lost, "the fork is on another piece now")

    def test_it_is_cut_with_its_notches_in_pairs_its_grain_on_the_cloth_and_one_tape(self):
        whole = mark_up(suit("typical"), PLANS["cloth"])
        for waist in ("seam", "band"):
            made = suit("typical", {"waist_seam": waist})
            pattern = mark_up(made, PLANS["cloth"])
            found = {check.name: check.verdict for check in check_pattern(made.garment, pattern, made.draft.limits)}
            self.assertEqual((found["allowances"], found["notches"]), ("true", "true"), waist)
            for marked in pattern.pieces:
                self.assertTrue(
                    contains_xy(marked.piece.surface, [(at.x, at.y) for at in marked.grain]).all(), marked.piece.name
                )
            tape = [float(re.search(r"waist, ([\d.]+)", words)[1]) for words in pattern.notions if "Stay tape" in words]
            self.assertEqual(len(tape), 1)
            self.assertAlmostEqual(tape[0] - 3, girth(made, "waist"), delta=1.5)
        self.assertFalse([words for words in whole.notions if "Stay tape" in words], "there is no seam to stay")

    def test_elastic_leaves_no_darts_and_is_bought(self):
        made = suit("typical", {"waist_seam": "elastic"})
        self.assertFalse([piece.diamonds for piece in made.garment.pieces if piece.diamonds])
        self.assertIn("Elastic for the waist", " ".join(map(str, made.notions)))
        self.assertGreater(girth(made, "waist"), girth(suit(), "waist") + 2)

    def test_a_waist_seam_says_where_it_cannot_be(self):
        skirt = drafted(METHODS["skirt.two_panel"], upper_build()).garment
        with self.assertRaises(CannotStyle) as caught:
            run(OPERATIONS["waist.seam"], skirt, Context(upper_build()))
        self.assertIn("No piece of this garment runs on over the waist", caught.exception.saying.text())

    @settings(max_examples=tries(20), deadline=None)
    @given(upper_bodies(), st.sampled_from(["seam", "band"]))
    def test_on_any_body_it_is_sewn_together_again(self, chart, waist):
        try:
            made = drafted(SUIT, chart, {"waist_seam": waist})
        except CannotDraft:
            assume(False)
        if made.refused:
            self.assertTrue(made.refused[0].saying.text())
            return
        found = verdicts(made)
        for seam in ("seam.side", "seam.inseam", "seam.shoulder"):
            self.assertNotEqual(found[seam], "not", seam)


class Parts(unittest.TestCase):
    def test_from_a_jersey_top_it_is_smaller_than_the_body(self):
        for build in UPPER:
            made = suit(build, KNIT, CLOSE)
            chart = upper_build(build)
            self.assertEqual([name for name in not_true(made) if name != "curves.waves"], [], build)
            widest = max(chart.get(name) + CLOSE[name] for name in ("bust", "waist"))
            self.assertAlmostEqual(girth(made, "bust"), widest, delta=0.3)
            self.assertAlmostEqual(girth(made, "hip"), chart.get("hip") - 8, delta=0.3)
            self.assertFalse([piece.darts for piece in made.garment.pieces if piece.darts])

    def test_a_gusset_is_a_diamond_with_notches_where_it_ends(self):
        made = suit("typical", {"gusset": "diamond"})
        piece = made.garment.piece("gusset")
        self.assertEqual([round(edge.length, 6) for edge in piece.edges], [9.0] * 4)
        self.assertAlmostEqual(piece.area, 2 * 4 * math.sqrt(81 - 16), places=4)
        self.assertEqual({mark.edge for mark in made.marks if mark.piece == "gusset"}, {edge.name for edge in piece.edges})
        for name in ("front", "back"):
            side = made.garment.piece(name).edge("side")
            self.assertAlmostEqual(side.length - side.notch("gusset").along, 9.0)


if __name__ == "__main__":
    unittest.main()
