"""Schools side by side: what each way of an option does on one body, and the constructions behind them."""

import unittest

from tests.bodies import drafted, upper_build
from widehem.core.design.design import method_design
from widehem.core.design.make import make
from widehem.core.design.schools import ways
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.drafting.methods.sleeves import pitches
from widehem.core.marking.marks import drill_holes
from widehem.core.marking.plans import PLANS


def told(code, option, chart, **settings):
    method = METHODS[code]
    made = make(method_design(method, settings), chart)
    found = ways(method.option(option), made, lambda way: make(method_design(method, {**settings, option: way}), chart))
    return {way.choice.code: way for way in found}


class Ways(unittest.TestCase):
    def test_each_way_says_its_figures_on_this_body(self):
        found = told("trousers.frame", "fork", upper_build())
        self.assertTrue(found["own"].now)
        self.assertEqual(str(found["hip"].saying), "Nothing changes on this body.", "the frame goes by the hip anyway")
        self.assertRegex(str(found["width"].saying), r"crotch [+−]\d")

    def test_what_cannot_be_drawn_says_why(self):
        chart = upper_build()
        bare = type(chart)({code: r for code, r in chart.readings.items() if code != "armscye"}, chart.foundation, chart.table)
        self.assertIn("Half the armscye wants the armscye", str(told("bodice.measured", "level", bare)["armscye"].saying))

    def test_what_is_no_longer_true_by_it_is_named(self):
        found = told("gown.seam_shaped", "cup", upper_build("full"))
        self.assertIn("Not true by it: armhole, front on back.", str(found["seams"].saying))


class Constructions(unittest.TestCase):
    def test_armhole_levels_by_hand(self):
        for build in ("typical", "full", "child"):
            chart = upper_build(build)
            wanted = {
                "measured": chart.get("armscye_depth"),
                "half": chart.get("nape_waist") / 2 + 2.5,
                "armscye": chart.get("armscye") / 2,
                "bust": chart.get("bust") / 6
                + 1.5
                + chart.get("shoulder_drop")
                - (chart.get("snp_waist_back") - chart.get("nape_waist")),
            }
            for level, depth in wanted.items():
                made = drafted(METHODS["bodice.measured"], chart, {"level": level})
                self.assertAlmostEqual(
                    made.garment.piece("back").marks["underarm"].y, depth + 2.0, places=6, msg=(build, level)
                )

    def test_pitches_by_hand(self):
        self.assertEqual(pitches("part", 43.5, 14.5), (0.67, 0.5))
        self.assertEqual(pitches("thirds", 43.5, 14.5), (2 / 3, 1 / 3))
        back, front = pitches("sixth", 43.5, 14.5)
        self.assertAlmostEqual(back * 14.5, 43.5 / 6 + 2.5)
        self.assertAlmostEqual(front * 14.5, 43.5 / 6)
        back, front = pitches("quarter", 43.5, 14.5)
        self.assertAlmostEqual(back * 14.5, 43.5 / 4 + 1.0)
        self.assertAlmostEqual(front * 14.5, 43.5 / 4 - 1.0)

    def test_every_pitch_makes_a_cap_that_fits(self):
        hole = armhole_of(drafted(METHODS["bodice.measured"], upper_build()).garment)
        for pitch in ("part", "sixth", "thirds", "quarter"):
            made = drafted(METHODS["sleeve.guide_box"], upper_build(), {"pitch": pitch}, {}, hole)
            self.assertEqual({c.name: c.verdict for c in made.checks}["cap.ease"], "true", pitch)

    def test_waist_of_trousers_front_against_back(self):
        for way, front in (("quarters", 0.0), ("front", 0.25), ("back", -0.25)):
            made = drafted(METHODS["trousers.crease"], upper_build(), {"panels": "quarters", "waist_shares": way})
            self.assertAlmostEqual(made.garment.piece("front").edge("waist").length, 71 / 4 + 0.5 + front, delta=0.02)
            self.assertAlmostEqual(made.garment.piece("back").edge("waist").length, 71 / 4 + 0.5 - front, delta=0.02)

    def test_forks_by_hand(self):
        hip, width = 94.0, 94 / 4 + 0.5  # of the crease-line school
        for way, front, back in (("hip", hip / 16, hip / 8), ("width", width / 6, width / 6 + hip / 20 + 2)):
            made = drafted(METHODS["trousers.crease"], upper_build(), {"panels": "quarters", "fork": way, "crotch": "drawn"})
            corner = width * 5 / 12
            for name, fork in (("front", front), ("back", back)):
                self.assertAlmostEqual(made.garment.piece(name).marks["crotch"].x - corner, fork, places=5, msg=(way, name))

    def test_drill_holes_of_both_schools(self):
        piece = drafted(METHODS["skirt.two_panel"], upper_build()).garment.piece("back")
        for school, far in (("inside", 1.5), ("lowered", 3.0)):
            for hole, dart in zip(drill_holes(piece, school), piece.darts, strict=True):
                self.assertAlmostEqual(hole.to(dart.point), far)

    def test_a_bare_toile_has_nothing_at_neck_and_armhole(self):
        plan = PLANS["toile_bare"]
        self.assertEqual((plan.amounts["neck"], plan.amounts["armhole"]), (0.0, 0.0))
        self.assertGreater(plan.amounts["shoulder"], 1.0)
        self.assertEqual(PLANS["cloth"].with_amounts({"shoulder": 2.0}).amounts["armhole"], 1.2, "each has its own")


if __name__ == "__main__":
    unittest.main()
