"""Bust, ease, length, flare, necklines, moved seams: by hand figures, and what each keeps."""

import math
import unittest

from shapely import Polygon

from tests.bodies import UPPER
from tests.styling import bend_at, not_true, on, step
from widehem.core.style.where import Where

WITH_DART = ("typical", "full", "slight", "straight", "hourglass", "tall")
HINGE = Where("front", "armhole", "notch", "pitch")
WAIST = Where("front", "waist", "dart", "front_waist_dart_1", otherwise=Where("front", "waist", "under", "bust_point"))


def fuller(by, id="fuller", side=None):
    return step("bust.fuller", {"by": by}, id=id, waist=WAIST, hinge=HINGE, side=side or Where("front", "side", "part", 0.7))


class Bust(unittest.TestCase):
    def test_it_adds_what_was_asked_at_the_bust_and_keeps_the_waist(self):
        for build in UPPER:
            with self.subTest(build):
                block, made = on("bodice.measured", build=build), on("bodice.measured", fuller(1.5), build=build)
                self.assertEqual(made.refused, ())
                self.assertAlmostEqual(made.garment.girth("bust"), block.garment.girth("bust") + 3.0, delta=0.02)
                darted = bool(block.garment.piece("front").edge("waist").darts)  # it takes up what is more
                more = 0.0 if darted else 3.0
                self.assertAlmostEqual(made.garment.round_of("waist"), block.garment.round_of("waist") + more, delta=0.1)
                self.assertEqual(not_true(made, but=("darts.", "waist.")), [])

    def test_the_lower_side_keeps_its_direction_and_drops(self):
        block, made = on("bodice.measured"), on("bodice.measured", fuller(2.0))
        old, new = (m.garment.piece("front").edge("side") for m in (block, made))
        self.assertAlmostEqual(new.leaving.cross(old.leaving), 0.0, delta=1e-9)
        self.assertGreater(new.start.y, old.start.y)
        self.assertAlmostEqual(new.length, old.length, delta=1e-6)

    def test_undone_it_is_the_old_piece(self):
        back = fuller(-1.5, "back", Where("front", "side", "dart", "bust_side_dart"))
        for build in WITH_DART:
            block, made = on("bodice.measured", build=build), on("bodice.measured", fuller(1.5), back, build=build)
            self.assertEqual(made.refused, ())
            one, two = (Polygon(m.garment.piece("front").outline(0.01)) for m in (block, made))
            self.assertLess(one.symmetric_difference(two).area / one.length, 0.02, build)
            for edge in block.garment.piece("front").edges:
                self.assertAlmostEqual(made.garment.piece("front").edge(edge.name).length, edge.length, delta=0.02)

    def test_a_hinge_too_low_names_its_figure(self):
        low = step("bust.fuller", waist=WAIST, hinge=Where("front", "armhole", "cm", 0.5, "side"), side=Where("front", "side"))
        self.assertRegex(
            on("bodice.measured", low).refused[0].saying.text(), r"The hinge lies \d\.\d above the bust point, 4.0 cm at least"
        )

    def test_too_much_names_what_to_do(self):
        self.assertIn("take less", on("bodice.measured", fuller(9.0), build="child").refused[0].saying.text())


class OuterEase(unittest.TestCase):
    def test_tip_side_and_underarm_by_hand(self):
        block, made = on("bodice.plain"), on("bodice.plain", step("ease.outer", {"tip": 0.6, "side": 0.6, "down": 1.3}))
        for name in ("front", "back"):
            old, new = block.garment.piece(name), made.garment.piece(name)
            self.assertAlmostEqual(new.edge("shoulder").length, old.edge("shoulder").length + 0.6, delta=1e-6)
            self.assertAlmostEqual(new.edge("side").length, old.edge("side").length - 1.3, delta=1e-6)
            self.assertAlmostEqual(new.edge("waist").end.x, old.edge("waist").end.x + 0.6, delta=1e-6)

    def test_true_on_all_bodies(self):
        for build in UPPER:
            for method in ("bodice.plain", "bodice.measured", "gown.seam_shaped", "coat.straight"):
                with self.subTest(f"{method} {build}"):
                    made = on(method, step("ease.outer"), build=build)
                    self.assertEqual(made.refused, ())
                    self.assertEqual(
                        not_true(made, but=("curves.radius", "armhole.round", "faced", "seam.facing", "notches.collar")), []
                    )

    def test_a_trouser_has_no_tip(self):
        self.assertIn("armhole", on("trousers.crease", step("ease.outer")).refused[0].saying.text())


class Length(unittest.TestCase):
    def test_spread_across_a_level_moves_all_below_by_as_much(self):
        for by in (6.0, -4.0):
            block, made = (
                on("skirt.two_panel"),
                on("skirt.two_panel", step("length.adjust", {"level": "hip", "below": 8.0, "by": by})),
            )
            for name in ("front", "back"):
                old, new = (m.garment.piece(name) for m in (block, made))
                self.assertAlmostEqual(new.edge("hem").start.y - old.edge("hem").start.y, by, delta=1e-6)
                self.assertEqual(new.edge("waist").parts, old.edge("waist").parts)
            self.assertEqual(not_true(made, but=("girth.hip",)), [])

    def test_on_every_method_that_has_the_level(self):
        for method, level, below, by in (
            ("bodice.measured", "bust", 5, 3), ("bodice.measured", "waist", -8, -3), ("gown.seam_shaped", "waist", -4, -2),
            ("trousers.crease", "knee", 0, -6), ("coat.straight", "waist", 5, 4), ("suit.one_piece", "knee", -10, 4),
        ):  # fmt: skip
            for build in ("typical", "full", "child", "belly"):
                with self.subTest(f"{method} {build}"):
                    made = on(method, step("length.adjust", {"level": level, "below": below, "by": by}), build=build)
                    self.assertEqual(made.refused, ())
                    self.assertEqual(not_true(made, but=("curves.waves", "floor", "seam.inseam", "crease", "knee")), [])

    def test_a_hem_is_cut_off_alike_along_all_its_seams(self):
        for method, up in (
            ("skirt.two_panel", 10.0),
            ("skirt.two_panel", -10.0),
            ("gown.seam_shaped", 20.0),
            ("top.jersey", 20.0),
        ):
            for build in UPPER:
                with self.subTest(f"{method} {build} {up}"):
                    made = on(method, step("hem.raise", {"up": up}, hem=Where("back", "hem")), build=build)
                    block = on(method, build=build)
                    for name in ("front", "back"):
                        one, two = (m.garment.piece(name).edge("side").length for m in (made, block))
                        self.assertAlmostEqual(one, two - up, delta=1e-6)
                    self.assertEqual(not_true(made, but=("floor", "stride", "opening", "hem.level", "curves.waves")), [])

    def test_points_and_scallops_are_faced_and_as_many_as_asked(self):
        for shape in ("points", "scallops"):
            made = on("skirt.two_panel", step("hem.shape", {"shape": shape, "count": 5, "deep": 4}, hem=Where("back", "hem")))
            hem = made.garment.piece("back").edge("hem")
            self.assertEqual(hem.kind, "faced")
            self.assertEqual(len(hem.corners), 9 if shape == "points" else 4)
            self.assertEqual(not_true(made), [])

    def test_cropped_only_what_was_named_is_left(self):
        cut = step(
            "piece.crop",
            start=Where("back", "side", "level", "waist"),
            end=Where("back", "centre_back", "level", "waist"),
            keep=Where("back", "neck"),
        )
        made = on("gown.seam_shaped", cut)
        self.assertEqual(made.refused, ())
        piece = made.garment.piece("back")
        self.assertTrue(piece.has("crop") and piece.has("neck") and not piece.has("hem"))
        self.assertAlmostEqual(bend_at(made, "hem", "side"), 0.0, delta=3.0)


class Flare(unittest.TestCase):
    def slashed(self, build="typical", count=4, each=3.0):
        steps = [
            step("flare.slash", {"count": count, "each": each}, id=name, hem=Where(name, "hem"), hinge=Where(name, "waist"))
            for name in ("front", "back")
        ]
        return on("skirt.two_panel", *steps, build=build)

    def test_waist_and_side_stay_and_the_hinge_does_not_dent(self):
        for build in UPPER:
            with self.subTest(build):
                block, made = on("skirt.two_panel", build=build), self.slashed(build)
                self.assertAlmostEqual(made.garment.round_of("waist"), block.garment.round_of("waist"), delta=1e-6)
                for name in ("front", "back"):
                    one, two = (m.garment.piece(name).edge("side").length for m in (made, block))
                    self.assertAlmostEqual(one, two, delta=1e-6)
                self.assertEqual(not_true(made), [])

    def test_the_hem_opens_by_the_angle(self):
        block, made = on("skirt.two_panel"), self.slashed()
        for name in ("front", "back"):
            old, new = (m.garment.piece(name).edge("side") for m in (block, made))
            ways = [(s.end - s.start).unit() for s in (old, new)]
            self.assertAlmostEqual(abs(math.degrees(math.asin(ways[0].cross(ways[1])))), 12.0, delta=1e-6)

    def test_a_seam_runs_out_by_what_was_asked_on_both_edges(self):
        made = on("skirt.two_panel", step("flare.seam", {"by": 8.0}, **{"from": Where("front", "side", "level", "hip")}))
        one, two = (made.garment.piece(name).edge("side").length for name in ("front", "back"))
        self.assertAlmostEqual(one, two, delta=0.02)
        self.assertEqual(not_true(made, but=("curves.waves",)), [])

    def test_more_than_three_degrees_are_refused_by_the_setting(self):
        from widehem.core.setting.option import OptionError

        with self.assertRaisesRegex(OptionError, "Degrees each 5 is outside 0.25 to 3"):
            self.slashed(each=5.0)

    def test_the_grain_lies_at_half_a_right_angle(self):
        made = on("skirt.two_panel", step("grain.turn", piece=Where("back", "hem")))
        a, b = made.garment.piece("back").grain
        self.assertAlmostEqual(abs((b - a).x), abs((b - a).y), delta=1e-6)


class Circle(unittest.TestCase):
    def test_the_radius_by_hand_and_the_waist(self):
        for part, share in (("full", 1.0), ("half", 0.5), ("quarter", 0.25)):
            made = on("skirt.two_panel", step("skirt.circle", {"part": part, "long": 60}, waist=Where("back", "waist")))
            waist = on("skirt.two_panel").garment.round_of("waist")
            self.assertAlmostEqual(made.garment.round_of("waist"), waist, delta=0.001)
            radius = waist / (2 * math.pi * share)
            self.assertAlmostEqual(made.garment.round_of("hem"), 2 * math.pi * share * (radius + 60), delta=0.01)

    def test_under_every_bodice(self):
        for build in UPPER:
            made = on("bodice.measured", step("skirt.circle", waist=Where("back", "waist")), build=build)
            self.assertEqual(not_true(made), [], build)
            for name in ("waist_front", "waist_back"):
                seam = next(s for s in made.garment.seams if s.name == name)
                self.assertAlmostEqual(made.garment.length_of(seam.first), made.garment.length_of(seam.second), delta=0.001)


class Necks(unittest.TestCase):
    def test_shoulders_stay_equal_and_the_neck_runs_on(self):
        for build in UPPER:
            for shape in ("round", "v", "square", "heart", "boat"):
                with self.subTest(f"{build} {shape}"):
                    lower = {"wider": 2.0, "lower": 2.0 if shape == "boat" else 7.0, "shape": shape}
                    made, block = on("bodice.plain", step("neck.shape", lower), build=build), on("bodice.plain", build=build)
                    self.assertEqual(made.refused, ())
                    for m, by in ((made, 2.0), (block, 0.0)):
                        front, back = (m.garment.piece(name).edge("shoulder").length for name in ("front", "back"))
                        self.assertAlmostEqual(front, back, delta=1e-6)
                        self.assertAlmostEqual(front + by, block.garment.piece("front").edge("shoulder").length, delta=1e-6)
                    self.assertLess(bend_at(made, "neck", "shoulder"), bend_at(block, "neck", "shoulder") + 0.5)
                    self.assertEqual(not_true(made), [])

    def test_a_strap_and_a_held_back(self):
        wide = on("bodice.plain", step("neck.shape", {"wider": 10.0})).refused[0].saying.text()
        self.assertIn("a strap of 4.0 cm is the least: widen the neck by 8.2 cm at most", wide)
        low = on("bodice.plain", step("neck.shape", {"lower_back": 20.0})).refused[0].saying.text()
        self.assertRegex(low, r"lower it by \d+\.\d cm at most, or hold it")
        self.assertEqual(on("bodice.plain", step("neck.shape", {"lower_back": 12.0, "held": "yes"})).refused, ())

    def test_a_stand_is_alike_in_front_and_behind(self):
        for build in UPPER:
            made = on("bodice.measured", step("stand.grown"), build=build)
            self.assertEqual(not_true(made), [], build)
            front, back = (made.garment.piece(name).edge("stand").length for name in ("front", "back"))
            self.assertAlmostEqual(front, back, delta=1e-6)
            self.assertLess(bend_at(made, "neck", "cut"), 0.5)

    def test_a_back_on_the_fold_wants_a_seam(self):
        self.assertIn("needs a seam", on("top.jersey", step("stand.grown")).refused[0].saying.text())


class MovedSeam(unittest.TestCase):
    def test_totals_stay(self):
        for build in UPPER:
            for method in ("bodice.plain", "top.jersey", "bodice.cup_wedge"):
                with self.subTest(f"{method} {build}"):
                    block, made = (
                        on(method, build=build),
                        on(method, step("seam.forward", {"by": 2.0}, **{"from": Where("front", "shoulder")}), build=build),
                    )
                    for role in ("neck", "armhole"):
                        one, two = (sum(e.length for _, e in m.garment.edges_of(role)) for m in (made, block))
                        self.assertAlmostEqual(one, two, delta=0.01)
                    self.assertEqual(not_true(made, but=("curves.radius",)), [])

    def test_a_dart_has_to_go_first(self):
        self.assertIn(
            "dart", on("bodice.measured", step("seam.forward", **{"from": Where("front", "shoulder")})).refused[0].saying.text()
        )


if __name__ == "__main__":
    unittest.main()
