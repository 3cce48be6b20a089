"""Plans of ease, what cloth and layers ask for, ease taken from a garment, the trade between armhole and arm."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from tests.bodies import asked, drafted, girth, skirt_chart, upper_build
from widehem.core.body.chart import chart_of
from widehem.core.design.trade import trades
from widehem.core.drafting.ease_plans import PLANS, EasePlan, applied, below_least, from_garment, plan_problems, usual_chart
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.pattern.wear import Wear
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import LengthError, parse_signed, with_unit

MEASURED, PLAIN, BOX = METHODS["bodice.measured"], METHODS["bodice.plain"], METHODS["sleeve.guide_box"]


def verdicts(made):
    return {check.name: (check.verdict, str(check.message)) for check in made.checks}


class Plans(unittest.TestCase):
    def test_a_plan_is_what_the_pieces_come_to(self):
        for plan in PLANS.values():
            found = applied(plan, MEASURED)
            self.assertEqual(found.ease["bust"], plan.amounts["bust"])
            if plan.code == "jersey_close":
                with self.assertRaises(CannotDraft):
                    drafted(MEASURED, upper_build(), dict(found.options), dict(found.ease))
                continue
            made = drafted(MEASURED, upper_build(), dict(found.options), dict(found.ease))
            self.assertAlmostEqual(
                girth(made, "bust") - asked(made, "bust").body, plan.amounts["bust"], delta=0.1, msg=plan.code
            )
            self.assertEqual(made.wear, Wear(plan.cloth, 30.0, plan.layers))

    def test_what_a_method_does_not_draw_is_left_alone_and_named(self):
        self.assertEqual(applied(PLANS["coat"], METHODS["skirt.two_panel"]).left_out, ("waist", "hip"))
        self.assertEqual(applied(PLANS["foundation"], PLAIN).left_out, ("quarter",))
        self.assertAlmostEqual(applied(PLANS["easy"], PLAIN).ease["quarter"], 2.5)
        self.assertEqual(applied(PLANS["jersey"], BOX).ease["cap"], 0.0)

    def test_levels_closer_than_the_cloth_wants_are_named(self):
        self.assertEqual(set(below_least(PLANS["foundation"])), {"bust", "waist", "hip"})
        self.assertEqual(below_least(PLANS["coat"]), {})
        self.assertEqual(below_least(PLANS["jersey_close"]), {})
        tight = EasePlan("x", "Tight", "", {"bust": -14.0}, "knit", stretch=30.0)
        self.assertAlmostEqual(below_least(tight)["bust"], -88 * 0.15)

    def test_what_cannot_be_kept_is_said_with_its_figure(self):
        self.assertEqual(plan_problems(EasePlan("x", "A", "", {"bust": 6.0})), {})
        found = plan_problems(EasePlan("x", "", "", {"bust": 94.0}))
        self.assertIn("name", found)
        self.assertIn("Bust 94 cm is outside -20 to 40 cm: write the ease, not the girth.", found["bust"])

    def test_ease_of_a_garment_is_the_garment_less_the_chart(self):
        chart = chart_of({"bust": 92.0, "waist": 78.2})
        plan = from_garment("x", "Old coat", chart, {"bust": 101.5, "waist": 86.0, "hip": 110.0})
        self.assertEqual(plan.amounts, {"bust": 9.5, "waist": 7.8})


class Cloth(unittest.TestCase):
    def test_woven_without_ease_will_not_close(self):
        made = drafted(MEASURED, upper_build(), {}, {"waist": -1.0})
        self.assertEqual(verdicts(made)["girth.waist"][0], "true", "it is as planned")
        self.assertEqual(verdicts(made)["room.waist"][0], "not")
        self.assertIn("It has no ease and will not close: give at least 1.5 cm.", verdicts(made)["room.waist"][1])

    def test_what_is_worn_underneath_takes_its_room(self):
        ease = {"bust": 6.0, "waist": 2.0}
        bare, one = drafted(MEASURED, upper_build(), {}, ease), drafted(MEASURED, upper_build(), {"layers": 1.0}, ease)
        self.assertEqual(verdicts(bare)["room.bust"][0], "true")
        self.assertEqual(
            verdicts(one)["room.bust"][0], "look", "6 is more than a layer of 3, less than 3 and the 4 woven cloth wants"
        )
        self.assertIn("What is worn underneath takes 3.0.", verdicts(one)["room.bust"][1])
        self.assertEqual(verdicts(one)["room.waist"], ("not", verdicts(one)["room.waist"][1]))
        self.assertIn("will not close over what is worn underneath: give at least +4.5", verdicts(one)["room.waist"][1])

    def test_a_knit_may_be_smaller_than_the_body_by_half_its_stretch(self):
        def waist(stretch, ease):
            made = drafted(METHODS["skirt.two_panel"], skirt_chart(), {"cloth": "knit", "stretch": stretch}, {"hip": ease})
            return verdicts(made)["room.hip"]

        self.assertEqual(waist(30.0, 2.0)[0], "true")
        wear = Wear("knit", 30.0)
        self.assertAlmostEqual(wear.least(100.0, 4.0), -15.0)
        self.assertAlmostEqual(wear.smallest(100.0), 100 / 1.3)
        self.assertAlmostEqual(Wear("knit", 30.0, 1.0).least(97.0, 4.0), 3 - 15.0)
        self.assertAlmostEqual(Wear("woven", 0, 1, 1).under(), 9.0)
        self.assertAlmostEqual(Wear("woven", 0, 2).under(limb=True), 3.0)

    def test_the_cap_takes_as_much_ease_as_its_cloth_can(self):
        hole = armhole_of(drafted(MEASURED, upper_build()).garment)

        def cap(ease, **options):
            return verdicts(drafted(BOX, upper_build(), options, {"cap": ease}, hole))["cap.cloth"]

        def ease_of(ease, **options):
            return verdicts(drafted(BOX, upper_build(), options, {"cap": ease}, hole))["cap.ease"]

        self.assertEqual(cap(2.5)[0], "true")
        self.assertEqual(ease_of(2.5)[0], "true")
        self.assertEqual(cap(2.5, cloth="crisp")[0], "look", "set on purpose")
        self.assertEqual(cap(0.25)[0], "not")
        self.assertIn("Crisp cloth takes 1.3 cm at most here", cap(2.5, cloth="crisp")[1])
        self.assertEqual(cap(1.0, cloth="crisp")[0], "true")
        self.assertEqual(cap(0.5)[0], "look")
        self.assertIn("drags over the shoulder. It was set on purpose: accept it with a word.", cap(0.5)[1])
        self.assertEqual(
            ease_of(0.0, cloth="knit"),
            ("true", "38.9 on armhole 38.9. Set in flat, without ease.".replace("38.9", f"{hole.whole:.1f}")),
        )
        self.assertEqual(cap(1.3, cap_height="low")[0], "true", "a low cap takes a third of it")


class Armholes(unittest.TestCase):
    def test_a_deeper_armhole_costs_side_seam_and_a_lower_cap_gives_lift(self):
        rows = trades(usual_chart(), PLANS["close"], MEASURED, BOX)
        self.assertEqual(
            [(row.depth, row.cap) for row in rows], [(1, "high"), (2, "high"), (2, "middle"), (2, "low"), (3, "high")]
        )
        high = [row for row in rows if row.cap == "high"]
        self.assertTrue(high[0].side > high[1].side > high[2].side)
        self.assertTrue(high[0].lifts > high[1].lifts > high[2].lifts)
        caps = rows[1:4]
        self.assertTrue(caps[0].bicep < caps[1].bicep < caps[2].bicep and caps[0].lifts < caps[1].lifts < caps[2].lifts)
        self.assertAlmostEqual(caps[2].rests, 72, delta=1.5)
        self.assertEqual(trades(usual_chart(), PLANS["jersey_close"], MEASURED, BOX), ())


class Signs(unittest.TestCase):
    @given(st.integers(-400, 400))
    def test_a_difference_is_read_with_its_sign(self, eighths):
        self.assertAlmostEqual(parse_signed(f"{eighths / 8:g} cm", "in"), eighths / 8, places=4)
        self.assertAlmostEqual(parse_signed(f"{eighths / 8:+g}".replace("-", "−"), "cm"), eighths / 8, places=4)

    def test_its_unit_is_made_plain(self):
        self.assertEqual(with_unit("-4", "cm"), "-4 cm")
        self.assertEqual(with_unit("−1 1/2", "in"), "-1 1/2 in")
        with self.assertRaises(LengthError):
            parse_signed("--4", "cm")


if __name__ == "__main__":
    unittest.main()
