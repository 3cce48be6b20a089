"""Trousers by both schools: figures worked out by hand, and what holds on every body."""

import re
import unittest
from itertools import pairwise

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.bodies import asked, drafted, girth, upper_bodies, upper_build
from tests.core.test_bodice import sums, turns, verdicts
from tests.some import tries
from widehem.core.drafting.method import METHODS
from widehem.core.drafting.trousers import share_waist
from widehem.core.geometry.points import angle_between
from widehem.core.setting.refusal import CannotDraft

BOTH = ("trousers.frame", "trousers.crease")
QUARTERS = {"panels": "quarters"}


def trousers(method="trousers.frame", build="typical", options=None, ease=None, **changes):
    return drafted(METHODS[method], upper_build(build, **changes), options or {}, ease or {})


def wider(made):
    """How much the front waist is wider than a quarter, as it is said, cm."""
    found = re.search(r"front waist is (\d+\.\d) cm wider", " ".join(map(str, made.notes)))
    return float(found[1]) if found else 0.0


class ByHand(unittest.TestCase):
    def test_the_front_waist_is_wider_where_its_darts_would_be_larger(self):
        for method in BOTH:
            for build in ("typical", "full", "slight", "child", "hourglass"):
                made = trousers(method, build, QUARTERS)
                taken = [sum(d.intake for d in made.garment.piece(name).edge("waist").darts) for name in ("front", "back")]
                self.assertLessEqual(taken[0], taken[1] + 0.6, (method, build))
                self.assertEqual(verdicts(made)["girth.waist"], "true")
        self.assertEqual(wider(trousers(build="typical", options=QUARTERS)), 0.0)
        self.assertGreater(wider(trousers(build="child", options=QUARTERS)), 0.2)

    def test_frame(self):
        for build, hip, waist in (("typical", 94, 69), ("full", 118, 98), ("child", 70, 60)):
            with self.subTest(build):
                made = trousers(build=build, options=QUARTERS)
                width, fork = hip / 4 + 1, hip / 16
                front = sums(made, "Front frame")
                self.assertAlmostEqual(front["frame"], width)
                self.assertAlmostEqual(front["front fork"], fork)
                self.assertAlmostEqual(front["side to crease"], (0.6 + width + fork) / 2)
                self.assertAlmostEqual(
                    sums(made, "Front waist")["waist, to sew"], (waist + 1.3) / 4 + 0.6 + wider(made), delta=0.06
                )
                back = sums(made, "Back frame")
                self.assertAlmostEqual(back["back fork"], hip / 8)
                self.assertAlmostEqual(back["centre back leans in and up"], max(min(2.5, (hip - waist) / 10 + 1.2), 1.0))
        typical = sums(trousers(options=QUARTERS), "Front waist")
        self.assertAlmostEqual(typical["darts take"], 2.5)
        self.assertAlmostEqual(typical["side takes"], 24.5 - 18.175 - 2.5, delta=0.15)

    def test_crease(self):
        for build, hip, waist in (("typical", 94, 69), ("full", 118, 98), ("child", 70, 60)):
            with self.subTest(build):
                made = trousers("trousers.crease", build, QUARTERS)
                width = hip / 4 + 0.5
                self.assertAlmostEqual(sums(made, "Front frame")["front width"], width)
                self.assertAlmostEqual(sums(made, "Front frame")["crease to fork"], width * 7 / 12)
                back = sums(made, "Back frame")
                self.assertAlmostEqual(back["back width"], width + 2)
                self.assertAlmostEqual(back["centre back leans in"], min(6, max(2, (hip - waist) / 10 + 2.5)))
                self.assertAlmostEqual(back["crease to fork"], width * 7 / 12 + hip / 20 + 2)
                self.assertAlmostEqual(
                    sums(made, "Front waist")["waist, to sew"], (waist + 2) / 4 + 0.5 + wider(made), delta=0.06
                )

    def test_legs_are_as_wide_as_they_were_set(self):
        for method, part in (("trousers.frame", 0.5), ("trousers.crease", 0.75)):
            made = trousers(method)
            pieces = {piece.name: piece for piece in made.garment.pieces}
            knee = {name: piece.across("knee") / 2 for name, piece in pieces.items()}
            self.assertAlmostEqual(knee["front"], 44 / 4 - part, places=3)
            self.assertAlmostEqual(knee["back"], 44 / 4 + part, places=3)
            hem = sum(piece.edge("hem").length for piece in pieces.values())
            self.assertAlmostEqual(hem, 35.2, delta=0.1)
        straight = trousers(options={"leg": "straight", "knee_girth": 50.0})
        self.assertAlmostEqual(sum(piece.edge("hem").length for piece in straight.garment.pieces), 50, delta=0.1)
        self.assertNotIn("knee", trousers(options={"leg": "wide"}).garment.piece("front").levels)

    def test_the_waist_rule(self):
        self.assertEqual(share_waist(-1, 2.5, 1, "auto").number, 0)
        self.assertEqual(share_waist(1.5, 2.5, 1, "auto").total, 0.0, "0.7 of 1.5 is under 1.2: the side takes it")
        two = share_waist(6, 4, 2, "auto")
        self.assertEqual((round(two.total, 6), two.number), (4.0, 2))
        one = share_waist(3, 4, 2, "auto")
        self.assertEqual((round(one.total, 6), one.number), (2.1, 1), "1.05 each is under 1.2: one dart")
        more = share_waist(9, 2.5, 1, "auto")
        self.assertEqual((round(more.total, 6), more.number), (5.0, 2), "the side takes 4, the dart 5: two of 2.5")


class Agreeing(unittest.TestCase):
    def test_the_measured_crotch_is_met_and_said(self):
        short = trousers(crotch_length=72.5, options={"crotch": "drawn"})
        self.assertEqual(verdicts(short)["crotch.seam"], "not")
        mended = trousers(crotch_length=72.5)
        self.assertEqual(verdicts(mended)["crotch.seam"], "true")
        self.assertIn("centre back and the back fork are changed by +2.0 each", " ".join(map(str, mended.notes)))
        self.assertEqual(verdicts(mended)["seam.side"], "true")

    def test_an_elastic_waist_passes_the_hip_without_darts(self):
        for method in BOTH:
            for build in ("typical", "full", "slight", "straight", "child"):
                made = trousers(method, build, {"waistline": "elastic"})
                self.assertEqual([piece.darts for piece in made.garment.pieces], [(), ()])
                self.assertEqual(verdicts(made)["opening"], "true", (method, build))
                self.assertIsNone(made.garment.opening())

    def test_refusals_name_measures_and_figures(self):
        for changes, options, words, measures in (
            (
                {"waist_hip": 30},
                {},
                "The hip line at 30.0 would lie under the crotch at 28.5 cm",
                ("waist_hip", "crotch_depth"),
            ),
            ({"waist": 125}, {}, "over 4.0 cm: waist 125.0 is much larger than hip 94.0 cm", ("waist", "hip")),
            ({}, {"knee_girth": 70.0}, "wider than the thigh", ("knee", "hip")),
            ({"waist_knee": 30.0}, {}, "does not lie between crotch", ("waist_knee", "crotch_depth")),
        ):
            with self.subTest(words), self.assertRaises(CannotDraft) as caught:
                trousers(options=options, **changes)
            self.assertIn(words, str(caught.exception.saying))
            self.assertEqual(caught.exception.measures, measures)

    def test_the_foot_passes_or_the_hem_is_said_to_be_narrow(self):
        self.assertEqual(verdicts(trousers())["foot.passes"], "true")
        self.assertEqual(verdicts(trousers(options={"hem_girth": 24.0}))["foot.passes"], "look")

    def test_a_bent_knee_has_room_or_it_is_said(self):
        self.assertEqual(verdicts(trousers())["stride.knee"], "true", "8 over a knee of 36")
        self.assertEqual(verdicts(trousers(options={"knee_girth": 41.0}))["stride.knee"], "look")
        self.assertEqual(verdicts(trousers(options={"knee_girth": 35.0}))["stride.knee"], "not")
        self.assertNotIn("stride.knee", verdicts(trousers(options={"leg": "wide"})))


class AnyBody(unittest.TestCase):
    @settings(max_examples=tries(25), deadline=None)
    @given(
        upper_bodies(), st.sampled_from(BOTH), st.sampled_from(["tapered", "straight", "wide"]),
            st.sampled_from(["auto", "none", "two"]),
        st.sampled_from(["band", "elastic"]),
    )  # fmt: skip
    def test_true_or_refused_with_names(self, chart, method, leg, darts, waist):
        try:
            made = drafted(METHODS[method], chart, {"leg": leg, "waist_darts": darts, "waistline": waist})
        except CannotDraft as refusal:
            self.assertTrue(refusal.measures)
            self.assertRegex(str(refusal.saying), r"read|Read|give")
            return
        found = verdicts(made)
        for name in (
            "seam.side",
            "seam.inseam",
            "outline",
            "darts.legs",
            "girth.hip",
            "hem.level",
            "rise.square",
            "corners.joined",
        ):
            self.assertNotEqual(found.get(name), "not", name)
        block = made.garment
        self.assertAlmostEqual(block.piece("back").edge("side").length, block.piece("front").edge("side").length, delta=0.01)
        self.assertAlmostEqual(
            block.piece("front").edge("inseam").length - block.piece("back").edge("inseam").length, 0.5, delta=0.01
        )
        level = asked(made, "waist")
        if level.planned is not None:
            self.assertAlmostEqual(girth(made, "waist") - level.body, level.planned, delta=0.05)
        forks = [block.piece(name).edge("crotch").parts[0].leaving for name in ("back", "front")]
        inseams = [block.piece(name).edge("inseam").parts[0].arriving for name in ("back", "front")]
        at_fork = [angle_between(fork, inseam) for fork, inseam in zip(forks, inseams, strict=True)]
        self.assertAlmostEqual(sum(at_fork), 180, delta=0.5, msg="the crotch runs on over the inseam")
        self.assertAlmostEqual(at_fork[0] - at_fork[1], 28, delta=0.5, msg="its lowest place lies behind the fork")
        for piece in block.pieces:
            self.assertLessEqual(turns(piece.edge("crotch")), 0)
            for name in ("side", "inseam", "crotch"):
                for a, b in pairwise(piece.edge(name).parts[0].segments):
                    self.assertLess(angle_between(a.direction(1), b.direction(0)), 0.5, (piece.name, name))


if __name__ == "__main__":
    unittest.main()
