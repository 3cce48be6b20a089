"""Shapes that a cutter lays on good cloth: what holds by default on the eight bodies, and the constructions behind it."""

import math
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.bodies import UPPER, drafted, upper_build
from tests.some import tries
from tests.styling import any_method
from widehem.core.design.make import armhole_in
from widehem.core.drafting.arm import ROOM, Arm
from widehem.core.drafting.cap import LOWEST
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.geometry.points import Point, angle_between
from widehem.core.pattern.closed import shutting
from widehem.core.pattern.walk import from_underarm

LEFT: dict[tuple[str, str], set[str]] = {  # what is still not true by default: method, check, bodies
}


def verdicts(made):
    return {check.name: check.verdict for check in made.checks}


def sleeve(code, build="typical", **options):
    """A sleeve for its bodice, and the armhole."""
    chart = upper_build(build)
    hole = armhole_of(drafted(METHODS[METHODS[code].made_for], chart).garment)
    return drafted(METHODS[code], chart, options, {}, hole), hole


class EightBodies(unittest.TestCase):
    def test_no_default_draft_is_not_true_but_for_what_is_listed(self):
        found = {}
        for code in METHODS:
            for build in UPPER:
                for name, verdict in verdicts(any_method(code, build)).items():
                    if verdict == "not":
                        found.setdefault((code, name), set()).add(build)
        self.assertEqual(found, LEFT)


class Necks(unittest.TestCase):
    def test_back_and_front_make_one_line_over_the_shoulder(self):
        for code in ("bodice.measured", "bodice.plain", "bodice.cup_wedge", "top.jersey", "coat.straight"):
            for build in UPPER:
                with self.subTest(code, build=build):
                    garment = any_method(code, build).garment
                    inside = []
                    for name in ("back", "front"):
                        piece = garment.piece(name)
                        neck, shoulder = piece.edge("neck"), piece.edge("shoulder")
                        self.assertLess(neck.start.to(shoulder.end), 1e-6)
                        inside.append(angle_between(-shoulder.arriving, neck.leaving))
                    self.assertAlmostEqual(inside[0], 120, delta=0.6, msg="the back arrives at 60 degrees to the shoulder")
                    self.assertAlmostEqual(sum(inside), 180, delta=0.6)

    def test_no_nib_at_the_side_neck_point(self):
        for build in UPPER:
            neck = any_method("bodice.measured", build).garment.piece("back").edge("neck")
            sharpest = max(segment.turns(24)[1] for part in neck.parts for segment in part.segments)
            self.assertGreater(1 / sharpest, 1.0, build)


class Sleeves(unittest.TestCase):
    CODES = ("sleeve.guide_box", "sleeve.triangle", "sleeve.pivot")

    def test_a_hem_is_square_to_both_seams_as_long_as_asked_and_as_far_down(self):
        for build in UPPER:
            made, _ = sleeve("sleeve.guide_box", build, hem=24.0, length=50.0)
            piece = made.garment.piece("sleeve")
            hem, front, back = (piece.edge(name) for name in ("wrist", "underarm_front", "underarm_back"))
            self.assertAlmostEqual(angle_between(front.arriving, hem.leaving), 90, delta=0.2, msg=build)
            self.assertAlmostEqual(angle_between(hem.arriving, back.leaving), 90, delta=0.2, msg=build)
            self.assertAlmostEqual(hem.length, 24.0, delta=0.05, msg=build)
            down = 50.0 + made.points["crown"].y
            self.assertAlmostEqual(hem.place(hem.length / 2).point.y, down, delta=0.01, msg=build)

    def test_the_lowest_of_a_cap_is_the_armhole_itself(self):
        for build in ("full", "straight", "belly", "hourglass"):
            made, hole = sleeve("sleeve.guide_box", build)
            piece = made.garment.piece("sleeve")
            cap = piece.edge("cap").parts[0]
            for path, down, low in (
                (cap, -piece.edge("underarm_back").arriving, hole.low[1]),
                (cap.reverse(), piece.edge("underarm_front").leaving, hole.low[0]),
            ):
                laid = from_underarm(path, down, 4.0)
                for along in (1.0, 2.0, 3.0):
                    self.assertLess(laid.place(along).point.to(low.place(along).point), 0.05, (build, along))

    def test_an_armhole_hands_on_how_it_leaves_the_underarm(self):
        hole = armhole_of(any_method("bodice.measured").garment)
        for low in hole.low:
            self.assertAlmostEqual(low.length, LOWEST, places=4)
            self.assertLess(low.start.to(Point(0.0, 0.0)), 1e-9)
            self.assertLess(angle_between(low.leaving, Point(1.0, 0.0)), 0.5, "square to the side")
            self.assertLess(low.end.y, 0.0)

    @settings(max_examples=tries(25), deadline=None)
    @given(st.sampled_from(CODES), st.sampled_from(sorted(UPPER)), st.floats(24, 70))
    def test_a_sleeve_of_any_length_has_room_for_the_arm(self, code, build, length):
        made, _ = sleeve(code, build, length=length)
        found = verdicts(made)
        self.assertEqual(found["arm.hem"], "true", (code, build, length))
        self.assertEqual(found.get("elbow.bends", "true"), "true", (code, build, length))
        self.assertEqual(found["hem.smooth"], "true", (code, build, length))

    def test_a_hem_that_is_set_too_narrow_is_said_to_be(self):
        made, _ = sleeve("sleeve.guide_box", length=25.0, hem=26.0)
        check = next(check for check in made.checks if check.name == "arm.hem")
        self.assertNotEqual(check.verdict, "true")
        self.assertIn("It wants 3.0 cm round the arm: widen the hem", check.message.text())

    def test_the_arm_by_hand(self):
        arm = Arm(upper=28.0, elbow=26.0, wrist=16.0, hand=20.0, elbow_at=34.0, wrist_at=58.0)
        self.assertAlmostEqual(arm.girth_at(14.0, 14.0), 28.0)
        self.assertAlmostEqual(arm.girth_at(24.0, 14.0), 27.0, msg="midway to the elbow")
        self.assertAlmostEqual(arm.girth_at(46.0, 14.0), 21.0, msg="midway to the wrist")
        self.assertAlmostEqual(arm.hem_at(58.0, 34.0, 14.0), 24.0, msg="10 less than the bicep line")
        self.assertAlmostEqual(arm.hem_at(58.0, 29.0, 14.0), 21.0, msg="never under the hand and 1")
        self.assertAlmostEqual(arm.hem_at(30.0, 34.0, 14.0), 34.0, msg="straight down above the elbow")
        self.assertAlmostEqual(arm.hem_at(45.0, 34.0, 14.0), 29.0, msg="halfway between elbow and wrist, five less")
        self.assertAlmostEqual(arm.hem_at(25.0, 28.0, 14.0), arm.girth_at(25.0, 14.0) + ROOM, msg="never tighter than the arm")
        self.assertTrue(arm.long(56.5))
        self.assertFalse(arm.long(55.0))


class Tables(unittest.TestCase):
    def test_a_body_that_is_not_of_its_table_is_told_to_step_back(self):
        method = METHODS["bodice.proportional"]
        usual = " ".join(map(str, drafted(method, upper_build()).notes))
        self.assertNotIn("not one of its own", usual)
        cup = " ".join(map(str, drafted(method, upper_build(high_bust=75.0)).notes))
        self.assertIn("Bust is 13.0 over high bust, the table has 5.0 cm: this body is not one of its own", cup)
        neck = " ".join(map(str, drafted(method, upper_build(neck=42.0)).notes))
        self.assertIn("Neck is 42.0, the table has", neck)


class Gowns(unittest.TestCase):
    def test_a_cup_the_seams_do_not_hold_gets_a_dart_that_shuts_smoothly(self):
        method = METHODS["gown.seam_shaped"]
        for build in ("full", "hourglass"):
            seams, darted = (drafted(method, upper_build(build), {"cup": cup}) for cup in ("seams", "auto"))
            front, back = (seams.garment.piece(name).edge("armhole").length for name in ("front", "back"))
            self.assertGreater(front - back, 8.0)
            self.assertEqual(verdicts(seams)["armhole.balance"], "not")
            edge = darted.garment.piece("front").edge("armhole")
            dart = edge.darts[0]
            self.assertAlmostEqual(dart.inner.to(dart.turned_about), dart.outer.to(dart.turned_about), places=4)
            self.assertNotEqual(verdicts(darted)["armhole.balance"], "not")
            self.assertEqual((verdicts(darted)["edges.shut"], verdicts(darted)["darts.legs"]), ("true", "true"))
        self.assertFalse(drafted(method, upper_build()).garment.piece("front").edge("armhole").darts, "a small cup needs none")

    def test_the_armhole_may_be_as_long_as_the_arm_is_round(self):
        made = drafted(METHODS["gown.seam_shaped"], upper_build(), {"underarm": "arm"})
        whole = sum(made.garment.piece(name).edge("armhole").length for name in ("front", "back"))
        self.assertAlmostEqual(whole, upper_build().get("armscye"), delta=0.5)


class Coats(unittest.TestCase):
    def test_the_shoulder_falls_as_measured_less_the_pad_shared_by_both_halves(self):
        chart = upper_build()
        more = chart.get("snp_waist_front") - chart.get("snp_waist_back")
        for pad in (0.0, 1.0, 2.0):
            made = drafted(METHODS["coat.straight"], chart, {"pad": pad})
            for name, share in (("back", -more / 2), ("front", more / 2)):
                marks = made.garment.piece(name).marks
                fall = chart.get("shoulder_drop") - pad + share
                self.assertAlmostEqual(marks["tip"].y - marks["snp"].y, fall, places=6, msg=(pad, name))

    def test_a_strip_is_as_wide_at_the_neck_as_at_the_tip(self):
        usual, strip = (drafted(METHODS["coat.straight"], upper_build(), {"shoulder_seam": way}) for way in ("usual", "strip"))
        old, new = (made.garment.piece("front").edge("shoulder").parts[0] for made in (usual, strip))
        way = (old.end - old.start).unit()
        for spot in (new.start, new.end):
            self.assertAlmostEqual(abs(way.cross(spot - old.start)), 2.0, places=4)
        areas = [sum(made.garment.piece(name).area for name in ("front", "back")) for made in (usual, strip)]
        self.assertAlmostEqual(areas[0], areas[1], delta=1.5, msg="what the front loses the back gets")
        self.assertNotIn("not", verdicts(strip).values())

    def test_overlap_goes_with_the_chest(self):
        for build, bust in (("typical", 88), ("child", 66), ("full", 116)):
            made = drafted(METHODS["coat.straight"], upper_build(build))
            self.assertAlmostEqual(made.options["overlap"].value, 12 * bust / 92)

    def test_its_sleeve_has_nine_of_ease(self):
        box = METHODS["sleeve.guide_box"]
        for code, ease in (("coat.straight", 9.0), ("bodice.measured", 5.0)):
            hole = armhole_in(drafted(METHODS[code], upper_build()))
            self.assertEqual(drafted(box, upper_build(), {}, {}, hole).ease["upper_arm"].value, ease)


class Crotch(unittest.TestCase):
    def test_it_turns_no_tighter_than_it_can_be_sewn_and_is_lowest_behind_the_fork(self):
        for code in ("trousers.frame", "trousers.crease"):
            for build in UPPER:
                made = any_method(code, build)
                self.assertNotEqual(verdicts(made)["curves.radius"], "not", (code, build))
                back, front = (made.garment.piece(name) for name in ("back", "front"))
                inside = [angle_between(p.edge("crotch").leaving, -p.edge("inseam").arriving) for p in (back, front)]
                self.assertAlmostEqual(sum(inside), 180, delta=0.5)
                self.assertGreater(abs(inside[0] - 90), 10)

    def test_the_hip_is_as_wide_as_was_asked_all_the_same(self):
        for code in ("trousers.frame", "trousers.crease"):
            for build in UPPER:
                self.assertEqual(verdicts(any_method(code, build))["girth.hip"], "true", (code, build))


class CupWedge(unittest.TestCase):
    def test_the_closed_side_is_one_straight_line_as_long_as_the_back(self):
        for build in UPPER:
            garment = any_method("bodice.cup_wedge", build).garment
            side, back = garment.piece("front").edge("side"), garment.piece("back").edge("side")
            self.assertLess(abs(side.length - back.length), 1.01, build)
            for dart in side.darts:
                self.assertGreaterEqual(dart.mouth, 1.0, build)
                low, high = side.parts
                bend = angle_between(low.arriving, high.leaving.moved(shutting(dart)))
                self.assertLess(bend, 3.0, build)
                self.assertAlmostEqual(side.length, back.length, delta=0.2, msg=build)

    def test_the_waist_darts_are_those_of_a_measured_bodice_not_twice_as_much(self):
        takes = {
            code: sum(dart.intake for dart in any_method(code).garment.piece("front").edge("waist").darts)
            for code in ("bodice.cup_wedge", "bodice.measured")
        }
        self.assertLess(takes["bodice.cup_wedge"], 4.5)
        self.assertAlmostEqual(takes["bodice.cup_wedge"], takes["bodice.measured"], delta=2.5)

    def test_bust_and_waist_come_out_as_planned(self):
        for build in UPPER:
            found = verdicts(any_method("bodice.cup_wedge", build))
            self.assertEqual((found["girth.bust"], found["girth.waist"]), ("true", "true"), build)


class Others(unittest.TestCase):
    def test_contour_panels_have_no_corner_and_the_neckline_runs_over_them(self):
        for build in UPPER:
            made = any_method("bodice.contour", build)
            found = verdicts(made)
            self.assertEqual((found["curves.smooth"], found["corners.joined"]), ("true", "true"), build)
            panels = [made.garment.piece(name).edge("panel").length for name in ("front", "side_front")]
            self.assertAlmostEqual(panels[0], panels[1], delta=0.02, msg=build)

    def test_a_coat_is_let_out_from_the_hip_without_a_corner(self):
        for build in UPPER:
            self.assertEqual(verdicts(any_method("coat.straight", build))["curves.smooth"], "true", build)

    def test_a_skirt_has_the_ease_its_own_check_asks_for(self):
        for build in UPPER:
            made = any_method("skirt.two_panel", build)
            self.assertEqual(made.ease["waist"].value, 1.5)
            self.assertEqual(verdicts(made)["room.waist"], "true", build)

    def test_smaller_bodies_may_have_smaller_curves_in_proportion(self):
        made = {build: any_method("trousers.crease", build) for build in ("typical", "child")}
        least = {build: next(check.low for check in one.checks if check.name == "curves.radius") for build, one in made.items()}
        self.assertLess(least["child"], 8.0)
        self.assertTrue(all(math.isfinite(figure) for figure in least.values()))


if __name__ == "__main__":
    unittest.main()
