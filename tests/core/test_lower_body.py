"""Bellies by their arcs and close knits: skirts and trousers, by hand on three bodies and on any."""

import unittest

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from tests.bodies import UPPER, drafted, girth, skirt_chart, upper_bodies, upper_build
from tests.core.test_bodice import sums, verdicts
from tests.some import tries
from widehem.core.body.chart import chart_of
from widehem.core.drafting.method import METHODS
from widehem.core.pattern.truing import check_garment
from widehem.core.setting.refusal import CannotDraft

SKIRT, FRAME, CREASE = (METHODS[code] for code in ("skirt.two_panel", "trousers.frame", "trousers.crease"))
BOTH = (FRAME, CREASE)
ARCS = {
    "typical": (36.0, 46.0, 69, 94),
    "full": (50.5, 58.0, 98, 118),
    "child": (30.5, 34.0, 60, 70),
}  # waist, hip in front, round


def figure(made, name):
    return next(check.figure for check in made.checks if check.name == name)


class Bellies(unittest.TestCase):
    def test_a_skirt_front_is_as_wide_as_the_front_of_the_body(self):
        for build, (waist, hip, round_waist, round_hip) in ARCS.items():
            made = drafted(SKIRT, upper_build(build))
            front, back = (made.garment.piece(name) for name in ("front", "back"))
            self.assertAlmostEqual(front.across("hip"), hip / 2, places=6, msg=build)
            self.assertAlmostEqual(back.across("hip"), (round_hip + 3) / 2 - hip / 2, places=6, msg=build)
            self.assertAlmostEqual(front.edge("waist").length, waist / 2 + 1.5 / 4, delta=0.02, msg=build)
            self.assertAlmostEqual(back.edge("waist").length, (round_waist - waist) / 2 + 1.5 / 4, delta=0.02, msg=build)
            self.assertEqual((verdicts(made)["arc.waist"], verdicts(made)["arc.hip"]), ("true", "true"))

    def test_what_the_waist_is_over_the_hip_in_front_goes_to_the_centre(self):
        # front waist 66 / 2 + 1.5 / 4 = 33.375, front hip 29: 4.375 over; 3 to the centre, 1.375 to the side; raised 1 + 3 / 3
        made = drafted(SKIRT, upper_build("belly"))
        found = sums(made, "Waist, by the arcs")
        self.assertAlmostEqual(found["centre front leans out"], 3.0)
        self.assertAlmostEqual(found["centre front raised"], 2.0)
        front = made.garment.piece("front")
        top = front.edge("centre_front").end
        self.assertAlmostEqual(abs(top.x - front.edge("centre_front").start.x), 3.0, places=6)
        self.assertAlmostEqual(figure(made, "side.upright"), 1.375, delta=0.15)
        self.assertEqual((front.stands, front.edge("centre_front").kind), ("pair", "seam"))
        self.assertAlmostEqual(girth(made, "waist"), 123.5, delta=0.05)
        self.assertEqual([name for name, verdict in verdicts(made).items() if verdict == "not"], [])

    def test_a_smaller_belly_leans_less(self):
        chart = skirt_chart("round", waist_front=57.0, hip_front=54.0)  # 28.5 + 0.375 over 27: 1.875
        made = drafted(SKIRT, chart)
        found = sums(made, "Waist, by the arcs")
        self.assertAlmostEqual(found["centre front leans out"], 1.875)
        self.assertAlmostEqual(found["centre front raised"], 1.625)
        self.assertAlmostEqual(figure(made, "side.upright"), 0.0, delta=0.1)

    def test_trouser_fronts_are_as_wide_as_the_front_of_the_body(self):
        for build, (waist, hip, round_waist, round_hip) in ARCS.items():
            for method, ease, eased, band in ((FRAME, 4.0, 1.3, 0.6), (CREASE, 6.0, 2.0, 0.5)):
                made = drafted(method, upper_build(build))
                front, back = (made.garment.piece(name) for name in ("front", "back"))
                self.assertAlmostEqual(front.across("hip"), hip / 2 + ease / 4, delta=0.02, msg=(build, method.code))
                self.assertAlmostEqual(front.edge("waist").length, waist / 2 + eased / 4 + band, delta=0.05)
                self.assertAlmostEqual(back.edge("waist").length, (round_waist - waist) / 2 + eased / 4 + band, delta=0.05)
                self.assertAlmostEqual(girth(made, "hip"), round_hip + ease, delta=0.3)

    def test_trousers_over_a_belly_lean_out_at_the_centre_and_say_so_once(self):
        for method in BOTH:
            made = drafted(method, upper_build("belly"))
            front = made.garment.piece("front")
            top = front.edge("crotch").end
            self.assertAlmostEqual(top.x - front.marks["centre_hip"].x, 3.0, delta=0.02, msg=method.code)
            self.assertAlmostEqual(top.y, -2.0, delta=0.02)
            self.assertLessEqual(figure(made, "side.upright"), 1.5)
            self.assertEqual(sum("over the hip" in str(note) for note in made.notes), 1)
            self.assertEqual(verdicts(made)["rise.square"], "true", "the waist is square to the leaning centre")

    def test_an_arc_that_cannot_be_is_not_followed(self):
        far = drafted(SKIRT, skirt_chart(waist_front=60.0, hip_front=46.0))  # 60 of 69
        self.assertAlmostEqual(far.garment.piece("front").edge("waist").length, 69 / 4 + 1.5 / 4, delta=0.02)
        self.assertNotIn("arc.waist", verdicts(far))

    def test_quarters_stay_a_school(self):
        made = drafted(SKIRT, upper_build("belly"), {"panels": "quarters"})
        self.assertEqual(made.garment.piece("front").stands, "fold")
        self.assertNotIn("side.upright", verdicts(made))

    def test_a_front_of_another_width_is_seen(self):
        made, other = drafted(FRAME, upper_build()), drafted(FRAME, upper_build(), {"panels": "quarters"})
        found = {check.name: check.verdict for check in check_garment(other.garment, made.demands, made.wear)}
        self.assertNotEqual(found["arc.waist"], "true")
        self.assertNotEqual(found["arc.hip"], "true")

    @settings(max_examples=tries(25), deadline=None)
    @given(upper_bodies(), st.floats(0.45, 0.62), st.floats(0.45, 0.55), st.sampled_from([SKIRT, *BOTH]))
    def test_on_any_body_the_front_is_its_arc(self, chart, of_waist, of_hip, method):
        waist, hip = (round(chart.get(code) * part, 1) for code, part in (("waist", of_waist), ("hip", of_hip)))
        body = chart_of({**{code: chart.get(code) for code in chart}, "waist_front": waist, "hip_front": hip})
        try:
            made = drafted(method, body)
        except CannotDraft:
            assume(False)
        found = verdicts(made)
        self.assertNotEqual(found["arc.waist"], "not")
        self.assertEqual(found["arc.hip"], "true")
        self.assertEqual(found["seam.side"], "true")
        self.assertNotEqual(found["girth.waist"], "not")


class CloseKnits(unittest.TestCase):
    CLOSE = ({"cloth": "knit", "stretch": 40.0}, {"waist": -4.0, "hip": -8.0})

    def test_they_are_smaller_than_the_body_without_darts_and_true(self):
        for method in (SKIRT, *BOTH):
            for build in UPPER:
                made = drafted(method, upper_build(build), *self.CLOSE)
                self.assertFalse([piece.darts for piece in made.garment.pieces if piece.darts], (method.code, build))
                self.assertEqual(
                    [name for name, verdict in verdicts(made).items() if verdict == "not"], [], (method.code, build)
                )
                self.assertAlmostEqual(girth(made, "hip"), upper_build(build).get("hip") - 8, delta=0.3)

    def test_thigh_and_knee_are_smaller_with_the_hip(self):
        for method in BOTH:
            woven, close = drafted(method, upper_build()), drafted(method, upper_build(), *self.CLOSE)
            least = -0.4 / 2
            for level in ("thigh", "knee"):
                body, wide = upper_build().get(level), close.garment.girth(level, limb=True)
                self.assertLess(wide, woven.garment.girth(level, limb=True) - 6)
                self.assertGreaterEqual(wide, body * (1 + least))
        self.assertAlmostEqual(close.options["knee_girth"].value, 36 * 86 / 94, delta=0.01)

    def test_how_far_down_a_knit_may_go_is_its_stretch(self):
        for stretch, hip, verdict in (
            (30.0, -14.0, "true"),
            (30.0, -14.4, "look"),
            (20.0, -14.0, "look"),
            (10.0, -14.0, "not"),
        ):
            made = drafted(SKIRT, upper_build(), {"cloth": "knit", "stretch": stretch}, {"waist": -4.0, "hip": hip})
            self.assertEqual(verdicts(made)["room.hip"], verdict, (stretch, hip))

    def test_woven_cloth_is_never_smaller_than_the_body(self):
        for method in (SKIRT, *BOTH):
            made = drafted(method, upper_build(), {}, {"waist": 0.0, "hip": -2.0})
            self.assertEqual(verdicts(made)["room.hip"], "not")

    def test_a_maker_may_have_darts_all_the_same(self):
        made = drafted(FRAME, upper_build(), {**self.CLOSE[0], "waist_darts": "one"}, self.CLOSE[1])
        self.assertTrue(all(len(piece.darts) == 1 for piece in made.garment.pieces))


class LegLengths(unittest.TestCase):
    @settings(max_examples=tries(25), deadline=None)
    @given(
        st.sampled_from(BOTH), st.sampled_from(sorted(UPPER)), st.floats(0, 1), st.sampled_from(["plain", "opening", "band"])
    )
    def test_a_leg_of_any_length_is_true_from_five_under_the_crotch_to_the_floor(self, method, build, part, end):
        chart = upper_build(build)
        least, most = chart.get("crotch_depth") + 1.5 + 5, chart.get("waist_floor")
        made = drafted(method, chart, {"length": least + (most - least) * part, "hem_end": end})
        found = verdicts(made)
        self.assertEqual([name for name, verdict in found.items() if verdict == "not"], [])
        self.assertEqual((found["hem.smooth"], found["seam.inseam"]), ("true", "true"))

    def test_above_the_knee_a_leg_is_cut_off_as_it_runs(self):
        for method in BOTH:
            whole, cut = drafted(method, upper_build()), drafted(method, upper_build(), {"length": 50.0})
            for piece in cut.garment.pieces:
                hem = piece.edge("hem")
                self.assertAlmostEqual(hem.start.y, 50.0, places=4)
                level = [hem.place(hem.length * n / 20).point.y for n in range(5, 16)]
                self.assertLess(max(level) - min(level), 0.02, "level between the seams")
                self.assertLess(max(abs(y - 50.0) for y in level), 0.5 + 1e-6, "it arches half a centimetre at most")
                other = whole.garment.piece(piece.name)
                self.assertAlmostEqual(piece.across("hip"), other.across("hip"), delta=0.05)

    def test_breeches_go_by_the_leg_there(self):
        # knee 36, ankle 21.5 or so; no calf: by the knee as far as three tenths of the way down; opened, the foot need not pass
        chart = upper_build(calf=34.0)
        knee_at = chart.get("waist_knee")
        at = knee_at + 0.3 * (chart.get("waist_floor") - knee_at)
        made = drafted(FRAME, chart, {"length": at, "hem_end": "opening"})
        self.assertAlmostEqual(made.options["hem_girth"].value, 34.0 + 2.0, places=6)
        plain = drafted(FRAME, chart, {"length": at})
        self.assertGreaterEqual(plain.options["hem_girth"].value, chart.get("ankle") * 1.35 - 1e-9)
        self.assertEqual(verdicts(plain)["foot.passes"], "true")
        self.assertNotIn("foot.passes", verdicts(made))
        self.assertTrue(all(piece.edge("side").notch("hem opening") for piece in made.garment.pieces))

    def test_a_leg_is_gathered_into_its_band(self):
        chart = upper_build()
        made = drafted(CREASE, chart, {"length": chart.get("waist_floor") - 8, "hem_end": "band"})
        band = made.garment.piece("leg_band").edge("band_top").length
        hem = sum(made.garment.piece(name).edge("hem").length for name in ("back", "front"))
        self.assertAlmostEqual(band, chart.get("ankle") + 2 + 3, places=6, msg="the ankle and 2, and an underlap of 3")
        self.assertAlmostEqual(hem, 1.4 * (chart.get("ankle") + 2), delta=0.3)
        self.assertEqual(verdicts(made)["seam.leg_band"], "true")

    def test_knee_and_hem_spread_apart(self):
        made = drafted(FRAME, upper_build(), {"spread": 1.0, "hem_spread": 2.0, "hem_girth": 40.0})
        front, back = (made.garment.piece(name) for name in ("front", "back"))
        self.assertAlmostEqual(back.across("knee") - front.across("knee"), 2.0, delta=0.02)
        self.assertAlmostEqual(back.edge("hem").length - front.edge("hem").length, 4.0, delta=0.1)

    def test_a_short_leg_may_have_a_hem_of_its_own(self):
        made = drafted(FRAME, upper_build(), {"length": 45.0, "hem_girth": 60.0})
        self.assertAlmostEqual(sum(piece.edge("hem").length for piece in made.garment.pieces), 60.0, delta=0.4)


if __name__ == "__main__":
    unittest.main()
