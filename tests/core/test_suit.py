"""The one-piece suit and short legs: what is joined how, and what holds on every body."""

import unittest
from itertools import pairwise

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.bodies import asked, drafted, girth, upper_bodies, upper_build
from tests.core.test_bodice import sums, verdicts
from tests.some import tries
from widehem.core.design.cautions import cautions
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.geometry.points import angle_between
from widehem.core.marking.made import mark_up
from widehem.core.marking.plans import PLANS
from widehem.core.setting.refusal import CannotDraft

SUIT = METHODS["suit.one_piece"]


def suit(build="typical", options=None, ease=None, **changes):
    return drafted(SUIT, upper_build(build, **changes), options or {}, ease or {})


class Joined(unittest.TestCase):
    def test_the_gaps_are_as_set(self):
        for build in ("typical", "full", "child"):
            with self.subTest(build):
                made = suit(build, {"dart_place": "shoulder"})
                front, back = sums(made, "Front"), sums(made, "Back")
                self.assertEqual((front["gap at the side"], back["gap at the centre back"]), (2.0, 3.0))
                raised = 0.8 + self._fall(build)  # what the sides stand above and below their waist lines
                self.assertAlmostEqual(front["gap at the centre front"], 2 + raised, delta=0.02)
                trousers = drafted(
                    METHODS["trousers.crease"], upper_build(build), {"panels": "quarters"}, {"waist": 3.0, "hip": 6.0}
                ).garment
                bodice = drafted(
                    METHODS["bodice.measured"], upper_build(build), {"dart_place": "shoulder"}, {"waist": 3.0}
                ).garment
                centre = made.garment.piece("front").edge("centre_front").length
                self.assertAlmostEqual(
                    centre, bodice.piece("front").edge("centre_front").length + front["gap at the centre front"], delta=0.01
                )
                for name in ("front", "back"):
                    self.assertAlmostEqual(
                        made.garment.piece(name).edge("inseam").length, trousers.piece(name).edge("inseam").length, places=4
                    )
                    self.assertAlmostEqual(
                        made.garment.piece(name).edge("armhole").length, bodice.piece(name).edge("armhole").length, places=4
                    )

    @staticmethod
    def _fall(build):
        bodice = drafted(METHODS["bodice.measured"], upper_build(build), {"dart_place": "shoulder"}, {"waist": 3.0}).garment
        waist = bodice.piece("front").edge("waist")
        return waist.end.y - waist.start.y

    def test_darts_above_and_below_become_one_diamond(self):
        made = suit()
        trousers = drafted(METHODS["trousers.crease"], upper_build(), {}, {"waist": 3.0, "hip": 6.0}).garment
        bodice = drafted(METHODS["bodice.measured"], upper_build(), {}, {"waist": 3.0}).garment
        for name in ("front", "back"):
            (diamond,) = made.garment.piece(name).diamonds
            upper = bodice.piece(name).edge("waist").darts[0].intake
            lower = trousers.piece(name).edge("waist").darts[0].intake
            self.assertTrue(
                (upper + lower) / 2 - 0.5 <= diamond.intake <= (upper + lower) / 2 + 0.01, "the sides may give a little to it"
            )
            self.assertLess(diamond.top.y, diamond.inner.y)
            self.assertGreater(diamond.bottom.y, diamond.outer.y)

    def test_the_loose_waist_is_reported_as_it_is(self):
        made = suit()
        level, wide = asked(made, "waist"), girth(made, "waist")
        self.assertIn(f"the waist comes out at {wide:.1f}", " ".join(map(str, made.notes)))
        self.assertTrue(2 < wide - level.body < 7)

    def test_a_second_back_dart_may_be_left_as_ease(self):
        sewn, loose = (
            suit("typical", {"trousers": "frame", "second_dart": way}, hip=104, waist=64) for way in ("sewn", "unsewn")
        )
        self.assertGreater(len(sewn.garment.piece("back").diamonds), len(loose.garment.piece("back").diamonds))
        waist = [girth(made, "waist") for made in (sewn, loose)]
        self.assertGreater(waist[1], waist[0] + 1)

    def test_any_bodice_and_any_trousers(self):
        for bodice in ("measured", "proportional", "cup_wedge"):
            for trousers in ("crease", "frame"):
                for build in ("typical", "straight"):
                    made = suit(build, {"bodice": bodice, "trousers": trousers})
                    self.assertEqual(verdicts(made)["seam.side"], "true", (bodice, trousers, build))
                    self.assertEqual(verdicts(made)["outline"], "true")

    def test_it_must_open_from_the_neck_to_the_notch(self):
        for at in ("centre_front", "centre_back"):
            made = suit(options={"opening_at": at})
            self.assertEqual(verdicts(made)["opening.reach"], "true")
            self.assertEqual(verdicts(made)["head.passes"], "true")
            piece = made.garment.piece(at.removeprefix("centre_"))
            notch = piece.edge("crotch").notch("opening end")
            self.assertAlmostEqual(piece.edge(at).length + notch.along, made.garment.opening().length, places=4)
        shut = suit(options={"opening_at": "none"})
        self.assertEqual(verdicts(shut)["opening.reach"], "not")
        self.assertIn("cannot get in", next(str(check.message) for check in shut.checks if check.name == "opening.reach"))

    def test_the_crotch_seam_is_made_by_the_measure(self):
        self.assertEqual(verdicts(suit(crotch_length=72.5, options={"crotch": "drawn"}))["crotch.seam"], "not")
        self.assertEqual(verdicts(suit(crotch_length=72.5))["crotch.seam"], "true")

    def test_too_little_in_the_length_is_said(self):
        self.assertEqual(verdicts(suit())["seat.length"], "true")
        self.assertEqual(verdicts(suit(options={"gap": 1.0, "gap_back": 1.0}))["seat.length"], "not")

    def test_drill_holes_lie_inside_points_and_legs(self):
        pattern = mark_up(suit(), PLANS["cloth"])
        back = next(marked for marked in pattern.pieces if marked.piece.name == "back")
        (diamond,) = back.piece.diamonds
        off = sorted(
            min(hole.to(spot) for spot in (diamond.top, diamond.bottom, diamond.inner, diamond.outer)) for hole in back.drills
        )
        self.assertEqual([round(d, 3) for d in off], [0.3, 0.3, 1.0, 1.0])

    def test_a_closed_suit_warns_of_heat(self):
        self.assertEqual(cautions(suit())[0].about, "heat")

    def test_sleeves_and_legs(self):
        hole = armhole_of(suit().garment)
        bodice = armhole_of(drafted(METHODS["bodice.measured"], upper_build()).garment)
        self.assertAlmostEqual(hole.whole, bodice.whole, places=4)
        self.assertEqual(verdicts(suit(options={"legs": "short"}))["seam.inseam"], "true")
        self.assertEqual(verdicts(suit(options={"length": 90.0}))["foot.passes"], "true")

    def test_refused_with_the_measures_of_its_parts(self):
        with self.assertRaises(CannotDraft) as caught:
            suit(waist=125)
        self.assertIn("waist", caught.exception.measures)
        with self.assertRaises(CannotDraft) as caught:
            drafted(SUIT, upper_build().without("crotch_depth"))
        self.assertEqual(caught.exception.measures, ("crotch_depth",))


class ShortLegs(unittest.TestCase):
    def test_both_inseams_are_equal_at_the_cut(self):
        for method in ("trousers.frame", "trousers.crease"):
            for build in ("typical", "full", "slight", "straight", "child"):
                made = drafted(METHODS[method], upper_build(build), {"legs": "short"})
                back, front = (made.garment.piece(name) for name in ("back", "front"))
                self.assertAlmostEqual(back.edge("inseam").length, front.edge("inseam").length, delta=0.01)
                self.assertAlmostEqual(back.edge("side").length, front.edge("side").length, delta=0.01)
                self.assertEqual(verdicts(made)["hem.level"], "true", (method, build))
                depth = upper_build(build).values["crotch_depth"] + 1.5
                for piece in (back, front):
                    for end in (piece.edge("hem").start, piece.edge("hem").end):
                        self.assertAlmostEqual(end.y, depth + 5, places=4)


class AnyBody(unittest.TestCase):
    @settings(max_examples=tries(25), deadline=None)
    @given(
        upper_bodies(), st.sampled_from(["measured", "proportional", "cup_wedge"]), st.sampled_from(["crease", "frame"]),
        st.sampled_from(["shoulder", "side", "neck", "armhole"]), st.sampled_from(["long", "short"]),
    )  # fmt: skip
    def test_true_or_refused_with_names(self, chart, bodice, trousers, place, legs):
        options = {"bodice": bodice, "trousers": trousers, "dart_place": place, "legs": legs}
        try:
            made = drafted(SUIT, chart, options)
        except CannotDraft as refusal:
            self.assertTrue(refusal.measures)
            return
        found = verdicts(made)
        for name in ("seam.inseam", "seam.shoulder", "outline", "opening.reach", "room.waist", "girth.hip", "hem.level"):
            self.assertNotEqual(found[name], "not", name)
        self.assertLess(
            abs(made.garment.piece("back").edge("side").length - made.garment.piece("front").edge("side").length), 1.0
        )
        for piece in made.garment.pieces:
            for a, b in pairwise(piece.edge("side").parts[0].segments):
                self.assertLess(angle_between(a.direction(1), b.direction(0)), 3, (piece.name, "side"))


if __name__ == "__main__":
    unittest.main()
