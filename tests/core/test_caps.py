"""Caps: their usual ease, what is held of them, heads walked round both armholes, and armholes that are typed."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.bodies import UPPER, drafted, upper_build
from tests.some import tries
from widehem.core.body.chart import chart_of
from widehem.core.design.mends import mends_for, pressed
from widehem.core.drafting.armhole_typed import Typed, problems, remarks
from widehem.core.drafting.cap import Armhole
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.pattern.meeting import notches_along
from widehem.core.pattern.truing import check_garment
from widehem.core.setting.refusal import CannotDraft

BOX, TRIANGLE, S_HEAD = (METHODS[f"sleeve.{code}"] for code in ("guide_box", "triangle", "s_head"))


def hole_of(build):
    return armhole_of(drafted(METHODS["bodice.measured"], upper_build(build)).garment)


def sleeve(method, build="typical", options=None, ease=None, hole=None):
    return drafted(method, upper_build(build), options, ease, hole or hole_of(build))


def check(made, name):
    return next(check for check in made.checks if check.name == name)


class UsualEase(unittest.TestCase):
    def test_it_is_a_part_of_the_armhole_up_to_two_and_a_half(self):
        for build in UPPER:
            hole = hole_of(build)
            made = sleeve(BOX, build, hole=hole)
            self.assertAlmostEqual(made.ease["cap"].value, min(2.5, 0.057 * hole.whole), places=9)
            cap = made.garment.piece("sleeve").edge("cap")
            self.assertAlmostEqual(cap.length - hole.whole, min(2.5, 0.057 * hole.whole), delta=0.01, msg=build)
        child = Armhole(15.0, 16.0)
        self.assertAlmostEqual(sleeve(BOX, "child", hole=child).ease["cap"].value, 1.767, places=6)

    def test_crisp_cloth_has_less_and_a_knit_none(self):
        self.assertAlmostEqual(sleeve(BOX, options={"cloth": "crisp"}).ease["cap"].value, 0.65)
        self.assertEqual(check(sleeve(BOX, options={"cloth": "crisp"}), "cap.cloth").verdict, "true")
        self.assertEqual(sleeve(BOX, options={"cloth": "knit"}).ease["cap"].value, 0.0)

    def test_what_is_set_on_purpose_is_only_looked_at(self):
        for ease, cloth, verdict in (
            (2.0, "crisp", "look"),
            (0.5, "woven", "look"),
            (0.25, "woven", "not"),
            (3.0, "woven", "true"),
        ):
            made = sleeve(BOX, options={"cloth": cloth}, ease={"cap": ease})
            self.assertEqual(check(made, "cap.cloth").verdict, verdict, (ease, cloth))


class Held(unittest.TestCase):
    def test_width_and_height_stay_and_the_ease_is_read(self):
        for method in (BOX, TRIANGLE):
            made = sleeve(method, options={"hold": "both", "height_by": "own", "own_height": 13.0})
            hole, piece = hole_of("typical"), made.garment.piece("sleeve")
            self.assertAlmostEqual(made.points["crown"].y, -13.0, places=6)
            self.assertAlmostEqual(check(made, "girth.bicep").figure, 5.0, delta=0.01)
            come_out = piece.edge("cap").length - hole.whole
            self.assertAlmostEqual(check(made, "cap.cloth").figure, come_out, places=6)
            self.assertFalse([entry for entry in made.checks if entry.name == "cap.ease"], "nothing was wanted")

    def test_pressing_what_is_offered_brings_the_ease_about(self):
        made = sleeve(TRIANGLE, "tall", {"hold": "both"})
        found = check(made, "cap.cloth")
        self.assertEqual(found.verdict, "not")
        offered = mends_for(made, found)
        self.assertEqual([mend.option for mend in offered], ["bulge", "bulge", "hold"])
        for mend in offered:
            options, ease = pressed(made, mend)
            again = sleeve(TRIANGLE, "tall", options, ease)
            self.assertEqual(check(again, "cap.cloth").verdict, "true", mend.words)

    def test_only_the_half_that_is_asked_for_is_rounded(self):
        flat, front = (sleeve(TRIANGLE, "tall", {"hold": "both", "bulge": way}) for way in ("none", "front"))
        caps = [made.garment.piece("sleeve").edge("cap").parts[0] for made in (flat, front)]
        width = check(flat, "girth.bicep").figure + upper_build("tall").get("upper_arm")

        def part(cap, low, high):
            spots = [cap.place(cap.length * n / 400).point for n in range(401)]
            return min(p.y for p in spots if low <= p.x / width <= high)

        self.assertLess(part(caps[1], 0.7, 0.8), part(caps[0], 0.7, 0.8) - 0.5, "the front is fuller")
        self.assertAlmostEqual(part(caps[1], 0.1, 0.2), part(caps[0], 0.1, 0.2), delta=0.3)

    @settings(max_examples=tries(30), deadline=None)
    @given(st.sampled_from(sorted(UPPER)), st.sampled_from([BOX, TRIANGLE]), st.sampled_from(["front", "back"]))
    def test_a_bulge_says_the_ease_it_brings_or_that_it_does_not(self, build, method, side):
        made = sleeve(method, build, {"hold": "both", "bulge": side})
        come_out = made.garment.piece("sleeve").edge("cap").length - hole_of(build).whole
        asked = [entry for entry in made.checks if entry.name == "cap.ease"]
        self.assertEqual(bool(asked), abs(come_out - made.ease["cap"].value) < 0.1)


class Heads(unittest.TestCase):
    def test_a_head_is_cut_into_parts_as_long_as_front_and_back(self):
        for build in UPPER:
            hole = armhole_of(drafted(METHODS["gown.seam_shaped"], upper_build(build)).garment)
            made = sleeve(S_HEAD, build, hole=hole)
            chain = made.garment.one_side("cap")
            found = {name: along for name, _, along in notches_along(made.garment, chain)}
            front = found["side seam"] - found["shoulder"]
            self.assertAlmostEqual(front - hole.front, made.ease["cap"].value * hole.front / hole.whole, delta=0.02)
            self.assertEqual((check(made, "cap.front").verdict, check(made, "cap.back").verdict), ("true", "true"))

    def test_a_notch_in_the_wrong_place_is_seen(self):
        hole = Armhole(27.0, 21.0)
        made = sleeve(S_HEAD, hole=hole)
        other = sleeve(S_HEAD, hole=Armhole(21.0, 27.0))
        moved = made.draft.garment.with_piece(other.garment.piece("sleeve"))
        verdicts = {entry.name: entry.verdict for entry in check_garment(moved, made.demands, made.wear)}
        self.assertEqual((verdicts["cap.front"], verdicts["cap.back"]), ("not", "not"))


class TypedArmholes(unittest.TestCase):
    def test_a_sleeve_is_drawn_for_halves_and_depth(self):
        typed = Typed(22.0, 23.0, 18.0)
        self.assertEqual(problems(typed), {})
        made = sleeve(BOX, hole=typed.armhole, options={"height_by": "depth"})
        self.assertAlmostEqual(made.points["crown"].y, -15.0, places=6, msg="five sixths of the depth")
        self.assertAlmostEqual(made.garment.piece("sleeve").edge("cap").length, 47.5, delta=0.02)
        with self.assertRaises(CannotDraft):
            sleeve(BOX, hole=Typed(22.0, 23.0).armhole, options={"height_by": "depth"})

    def test_figures_that_cannot_be_are_refused_by_field(self):
        self.assertIn("Front armhole 4.0 is outside 10.0 to 45.0 cm", str(problems(Typed(4.0, 23.0))["front"]))
        self.assertIn("between the shoulder tips and the underarm lie", str(problems(Typed(22.0, 23.0, 30.0))["depth"]))
        self.assertIn(
            "drops 3.0 cm over the bone is mended first", str(problems(Typed(22.0, 23.0, None, "over", 3.0))["shoulder"])
        )
        self.assertIn("ends 2.0 cm inside the bone", str(problems(Typed(22.0, 23.0, None, "inside", 2.0))["shoulder"]))

    def test_what_a_cutter_would_look_at_again(self):
        chart = chart_of({"upper_arm": 36.0})
        words = " ".join(map(str, remarks(Typed(20.5, 19.0), chart)))
        self.assertIn("The front armhole is 1.5 cm longer than the back", words)
        self.assertIn("An armhole of 39.5 is hardly longer than the arm is round, 36.0 cm", words)
        self.assertIn("Its depth was not measured", words)
        self.assertNotIn("longer than", " ".join(map(str, remarks(Typed(22.0, 23.0, 18.0), chart_of({})))))


if __name__ == "__main__":
    unittest.main()
