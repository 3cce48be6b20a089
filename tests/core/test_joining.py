"""Operations one by one, their figures worked out by hand: darts swung, pockets, facings, sleeves set in, trousers joined on."""

import math
import unittest

from tests.bodies import UPPER, drafted, upper_build
from tests.styling import any_method, do
from widehem.core.design.design import Design, Step
from widehem.core.design.make import make
from widehem.core.drafting.method import METHODS
from widehem.core.geometry.points import Point, angle_between
from widehem.core.geometry.solve import NoSolutionError, settle
from widehem.core.pattern.garment import EdgeRef, SeamEdge
from widehem.core.setting.option import OptionError
from widehem.core.style.operation import OPERATIONS, CannotStyle
from widehem.core.style.where import Where


def with_steps(method, chart, *steps, ease=None):
    return make(Design(method, ease=ease or {}, steps=tuple(steps)), chart)


class Asking(unittest.TestCase):
    def test_every_operation_names_the_place_it_lacks(self):
        garment = any_method("bodice.measured").garment
        for code, asked in OPERATIONS.items():
            for place, words in asked.wheres.items():
                if place in asked.spare:
                    continue
                with self.subTest(code), self.assertRaises(CannotStyle) as refused:
                    others = {name: Where("front", "side") for name in asked.wheres if name != place}
                    do(code, garment, wheres=others)
                self.assertIn(words, str(refused.exception))
                self.assertEqual(refused.exception.wheres, (place,))

    def test_a_setting_out_of_reach_is_refused_with_its_figure(self):
        garment = any_method("bodice.measured").garment
        with self.assertRaises(OptionError) as refused:
            do("facing.edge", garment, {"wide": 90.0}, {"edge": Where("front", "neck")})
        self.assertIn("90", str(refused.exception))


class Swinging(unittest.TestCase):
    def setUp(self):
        self.before = any_method("bodice.measured").garment
        self.dart = self.before.edge(EdgeRef("front", "shoulder")).darts[0]

    def swung(self, to, **settings):
        places = {"dart": Where("front", "shoulder", "dart", self.dart.name), "to": to}
        return do("dart.swing", self.before, settings, places, {"dart": "moved"}).garment.piece("front")

    def angle(self, dart):
        a, b = dart.inner - dart.turned_about, dart.outer - dart.turned_about
        return angle_between(a, b)

    def test_the_whole_angle_goes_to_the_new_place(self):
        piece = self.swung(Where("front", "side", "part", 0.4))
        self.assertFalse(piece.edge("shoulder").darts)
        (dart,) = piece.edge("side").darts
        self.assertAlmostEqual(self.angle(dart), self.angle(self.dart), places=6)

    def test_its_mouth_is_the_chord_of_its_angle_so_far_from_the_point(self):
        piece = self.swung(Where("front", "side", "part", 0.4), short=0.0)
        (dart,) = piece.edge("side").darts
        far = dart.turned_about.to(dart.inner)
        self.assertAlmostEqual(dart.mouth, 2 * far * math.sin(math.radians(self.angle(self.dart)) / 2), delta=0.02)

    def test_the_shoulder_is_sewn_as_long_as_before_and_so_is_the_side(self):
        piece = self.swung(Where("front", "side", "part", 0.4))
        for name in ("shoulder", "side", "waist", "neck", "armhole"):
            self.assertAlmostEqual(
                piece.edge(name).length, self.before.edge(EdgeRef("front", name)).length, delta=0.05, msg=name
            )

    def test_two_fifths_of_it_leave_three_where_they_were(self):
        piece = self.swung(Where("front", "side", "part", 0.4), part=40.0)
        (kept,), (moved,) = piece.edge("shoulder").darts, piece.edge("side").darts
        self.assertAlmostEqual(self.angle(kept), 0.6 * self.angle(self.dart), places=3)
        self.assertAlmostEqual(self.angle(moved), 0.4 * self.angle(self.dart), places=3)

    def test_it_is_sewn_so_far_short_of_the_point_it_was_turned_about(self):
        piece = self.swung(Where("front", "side", "part", 0.4), short=3.5)
        (dart,) = piece.edge("side").darts
        self.assertAlmostEqual(dart.point.to(dart.turned_about), 3.5, places=3)

    def test_a_fold_a_false_place_and_a_name_that_is_taken_are_refused(self):
        for to, wheres in ((Where("front", "centre_front"), ("to",)), (Where("back", "side"), ("to",))):
            with self.assertRaises(CannotStyle) as refused:
                self.swung(to)
            self.assertEqual(refused.exception.wheres, wheres)
        with self.assertRaises(CannotStyle):
            do("dart.swing", self.before, None, {"dart": Where("front", "side"), "to": Where("front", "armhole")})


class Pockets(unittest.TestCase):
    def test_a_patch_of_twelve_by_fourteen_with_corners_of_two(self):
        made = any_method("skirt.two_panel")
        at = Where("front", "side", "cm", 12.0)
        done = do("pocket.patch", made.garment, {"wide": 12.0, "high": 14.0, "corner": 2.0, "inwards": 3.0}, {"beside": at})
        pocket = done.garment.piece("pocket")
        # a rectangle less what four quarters of a circle leave of two squares: 168 - 2 * 4 * (1 - pi / 4)
        self.assertAlmostEqual(pocket.area, 12 * 14 - 2 * 4 * (1 - math.pi / 4), delta=0.01)
        self.assertAlmostEqual(pocket.edge("pocket_mouth").length, 12.0, places=6)
        self.assertAlmostEqual(pocket.edge("pocket_edge").length, 2 * 12 + 8 + math.pi * 2, delta=0.002)
        left, top, right, bottom = pocket.bounds
        self.assertAlmostEqual(right - left, 12.0, delta=0.01)
        self.assertAlmostEqual(bottom - top, 14.0, delta=0.01)

    def test_it_lies_on_its_piece_the_set_way_in_from_the_edge(self):
        made = any_method("skirt.two_panel")
        at = Where("front", "side", "cm", 12.0)
        done = do("pocket.patch", made.garment, {"inwards": 3.0}, {"beside": at})
        front = done.garment.piece("front")
        (line,) = [line for line in front.lines if line.name == "pocket_place"]
        spot = made.garment.edge(EdgeRef("front", "side")).place(12.0).point
        self.assertAlmostEqual(abs(line.path.start.x - spot.x), 3.0, places=6)
        self.assertAlmostEqual(line.path.start.y, spot.y, places=6)
        self.assertTrue(all(front.encloses(point) for point in line.path.flat(0.5)))


class Facings(unittest.TestCase):
    def test_a_facing_is_as_wide_everywhere_as_was_asked(self):
        garment = any_method("bodice.measured").garment
        for wide in (2.5, 4.0):
            facing = do("facing.edge", garment, {"wide": wide}, {"edge": Where("back", "neck")}).garment.piece("back_facing")
            inner, outer = facing.edge("facing_inner"), facing.edge("neck")
            for share in (0.1, 0.3, 0.5, 0.7):  # beyond, the neck meets the shoulder at 120 degrees
                at = inner.place(inner.length * share).point
                near = min(at.to(outer.place(outer.length * n / 400).point) for n in range(401))
                self.assertAlmostEqual(near, wide, delta=0.03, msg=f"{wide} at {share}")

    def test_it_is_sewn_to_its_edge_and_says_when_it_is_not_as_long(self):
        made = any_method("bodice.measured")
        step = Step("1", "facing.edge", wheres={"edge": Where("back", "neck")})
        faced = with_steps("bodice.measured", made.chart, step)
        (seam,) = [seam for seam in faced.garment.seams if seam.faced]
        self.assertAlmostEqual(faced.garment.length_of(seam.first), faced.garment.length_of(seam.second), places=6)
        self.assertEqual(next(c for c in faced.checks if c.name == f"faced.{seam.name}").verdict, "true")

    def test_one_that_finds_no_room_says_what_would_fit(self):
        garment = any_method("bodice.measured").garment
        with self.assertRaises(CannotStyle) as refused:
            do("facing.edge", garment, {"wide": 20.0}, {"edge": Where("back", "neck")})
        self.assertRegex(str(refused.exception), r"\d+\.\d")

    def test_a_lining_is_as_large_as_its_piece_and_lies_within(self):
        garment = any_method("skirt.two_panel").garment
        lined = do("lining.copy", garment, None, {"piece": Where("front", "side")}).garment
        (lining,) = [piece for piece in lined.pieces if piece.layer == "lining"]
        self.assertAlmostEqual(lining.area, garment.piece("front").area, places=6)
        self.assertEqual([piece.name for piece in lined.shell], [piece.name for piece in garment.shell])


class Laying(unittest.TestCase):
    def test_what_was_cut_is_laid_together_again(self):
        garment = any_method("bodice.plain").garment
        places = {"start": Where("back", "neck", "part", 0.6), "end": Where("back", "waist", "part", 0.6)}
        cut = do("line.cut", garment, None, places, {"line": "panel", "piece": "back_side", "holds": "side"}).garment
        self.assertEqual(len(cut.pieces), len(garment.pieces) + 1)
        again = do("line.join", cut, None, {"seam": Where("back", "panel")}).garment
        self.assertEqual(len(again.pieces), len(garment.pieces))
        self.assertAlmostEqual(again.piece("back").area, garment.piece("back").area, delta=0.01)
        for name in ("side", "armhole", "shoulder", "neck", "waist"):
            now = sum(again.edge(entry).length for entry in again.left_of(EdgeRef("back", name)))
            self.assertAlmostEqual(now, garment.edge(EdgeRef("back", name)).length, delta=0.01, msg=name)

    def test_an_edge_without_such_a_seam_is_refused(self):
        with self.assertRaises(CannotStyle):
            do("line.join", any_method("bodice.plain").garment, None, {"seam": Where("back", "waist")})


class SettingIn(unittest.TestCase):
    def test_cap_and_armhole_differ_by_the_ease_of_the_cap_and_meet_at_the_shoulder(self):
        for build in UPPER:
            chart = upper_build(build)
            made = with_steps("bodice.measured", chart, Step("1", "sleeve.set_in"))
            self.assertEqual(made.refused, (), build)
            garment = made.garment
            front, back = (garment.edge(EdgeRef("sleeve", name)).length for name in ("cap_front", "cap_back"))
            holes = [garment.length_of(chain) for chain in garment.armholes]
            self.assertAlmostEqual(front + back - sum(holes), 3.0, delta=1.1, msg=build)
            names = {check.name: check.verdict for check in made.checks}
            self.assertEqual(names["seam.cap_front"], "true", build)
            self.assertEqual(names["seam.cap_back"], "true", build)

    def test_what_has_no_armhole_takes_no_sleeve(self):
        with self.assertRaises(CannotStyle):
            do("sleeve.set_in", any_method("skirt.two_panel").garment)


class JoiningTrousers(unittest.TestCase):
    EASE = {"waist": 3.0}

    def joined(self, build="typical", **settings):
        step = Step("1", "trousers.join", settings=settings)
        return with_steps("bodice.measured", upper_build(build), step, ease=self.EASE)

    def test_it_is_the_suit_of_the_same_wearer(self):
        """The suit draws trousers with its own ease at the waist; all that does not touch the waist is the same."""
        made, suit = self.joined(), drafted(METHODS["suit.one_piece"], upper_build("typical"))
        self.assertEqual(made.refused, ())
        for name in ("front", "back"):
            mine, other = made.garment.piece(name), suit.garment.piece(name)
            self.assertEqual([edge.name for edge in mine.edges], [edge.name for edge in other.edges])
            for edge in ("inseam", "hem", "armhole", "shoulder", "neck"):
                self.assertAlmostEqual(mine.edge(edge).length, other.edge(edge).length, delta=0.06, msg=f"{name} {edge}")
            for edge in ("side", mine.middle):
                self.assertAlmostEqual(mine.edge(edge).length, other.edge(edge).length, delta=0.6, msg=f"{name} {edge}")

    def test_sides_and_inseams_sew_and_middles_are_seams(self):
        for build in UPPER:
            made = self.joined(build)
            if made.refused:
                self.assertTrue(made.refused[0].saying.text(), build)
                continue
            seams = {seam.name: seam for seam in made.garment.seams}
            self.assertEqual(
                set(seams), {"side", "shoulder", "inseam", "centre_front", "centre_back", "crotch_front", "crotch_back"}, build
            )
            garment = made.garment
            apart = garment.length_of(seams["side"].first) - garment.length_of(seams["side"].second)
            self.assertLess(abs(apart), 0.02, build)
            self.assertTrue(all(seams[name].twin for name in ("centre_front", "centre_back", "crotch_front", "crotch_back")))

    def test_a_wider_gap_lengthens_the_centre_by_as_much(self):
        narrow, wide = self.joined(gap=2.0, gap_back=3.0), self.joined(gap=2.0, gap_back=5.0)
        long = [made.garment.edge(EdgeRef("back", "centre_back")).length for made in (narrow, wide)]
        self.assertAlmostEqual(long[1] - long[0], 2.0, delta=0.1)
        for made, figure in ((narrow, "3.0"), (wide, "5.0")):
            self.assertIn(figure, made.notes[-1].text())

    def test_the_waist_of_the_draft_is_gone_and_said_to_be(self):
        garment = self.joined().garment
        self.assertEqual(garment.left_of(EdgeRef("front", "waist")), ())
        self.assertEqual(garment.left_of(EdgeRef("front", "armhole")), (SeamEdge("front", "armhole"),))

    def test_each_half_begins_at_its_neck_with_the_side_outwards(self):
        for piece in self.joined().garment.pieces:
            self.assertLess(piece.edge(piece.middle).start.to(Point(0.0, 0.0)), 1e-6)
            self.assertGreater(piece.edge("side").start.x, 0.0)

    def test_what_does_not_end_at_a_waist_is_refused_with_words(self):
        for code in ("skirt.two_panel", "bodice.contour"):
            method = METHODS[code]
            made = with_steps(code, upper_build("typical"), Step("1", "trousers.join"))
            self.assertEqual(len(made.refused), 1, code)
            self.assertIn("this garment has others", made.refused[0].saying.text())
            self.assertEqual(made.garment, drafted(method, upper_build("typical")).garment)


class Settling(unittest.TestCase):
    def test_a_curve_is_found_from_a_good_start(self):
        found = settle(lambda x: x * x - 9.0, 2.0, slope=5.0, near=1e-9)
        self.assertAlmostEqual(found, 3.0, places=8)

    def test_the_last_place_asked_is_the_one_that_comes_back(self):
        asked = []

        def off(x):
            asked.append(x)
            return 2.0 * x - 7.0

        self.assertEqual(settle(off, 0.0, near=1e-9), asked[-1])
        self.assertLessEqual(len(asked), 4)

    def test_what_never_comes_near_or_is_no_figure_is_no_solution(self):
        for off in (lambda x: 1.0, lambda x: math.inf):
            with self.assertRaises(NoSolutionError):
                settle(off, 0.0)

    def test_it_falls_as_well_as_it_rises(self):
        self.assertAlmostEqual(settle(lambda x: 4.0 - math.exp(x), 1.0, slope=-3.0, near=1e-9), math.log(4.0), places=8)
