"""The order of work follows from the seams: held against the pieces alone, and against what a hand would do."""

import random
import unittest
from dataclasses import replace

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.bodies import upper_build
from tests.orders import faults, random_garment
from tests.some import tries
from widehem.core.design.make import make
from widehem.core.design.ships import shipped
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.making.cloths import CLOTHS, advice
from widehem.core.making.how import bends, grain_off, parted
from widehem.core.making.order import in_order, usual_order
from widehem.core.making.plan import blocked, work_of
from widehem.core.making.sewing import sewn
from widehem.core.making.steps import RUNS, minutes_for, steps_of
from widehem.core.marking.plans import PLANS
from widehem.core.marking.wanted import Wanted
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Garment, Seam, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.units import Display

CLOTH = Wanted.by(PLANS["cloth"])


def garment_of(code, build="typical", leave=()):
    design = shipped()[code].design
    steps = tuple(step for step in design.steps if step.id not in leave and step.code not in leave)
    return make(replace(design, steps=steps), upper_build(build)).garment


def order_of(garment):
    work = work_of(garment)
    return work, usual_order(work)


def box(name, left, top, right, bottom, edges, **more):
    """A rectangle with its edges named from the top left corner on, clockwise: top, right, bottom, left."""
    a, b, c, d = Point(left, top), Point(right, top), Point(right, bottom), Point(left, bottom)
    made = [
        Edge(edge, (Path.through(p, q),), kind=kind, role=role)
        for (edge, role, kind), p, q in zip(edges, (a, b, c, d), (b, c, d, a), strict=True)
    ]
    return Piece(name, name.replace("_", " ").capitalize(), tuple(made), **more)


def told(show, step):
    return " ".join(saying.text(show) for saying in step.how)


class TheWaistcoatTest(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.work, cls.order = order_of(garment_of("waistcoat"))

    def before(self, one, two):
        self.assertLess(self.order.index(one), self.order.index(two), f"{one} comes before {two}")

    def test_the_side_of_the_peplum_comes_before_the_long_panel_seam(self):
        self.before("peplum_side", "panel_front")

    def test_back_panels_come_before_the_side_seam(self):
        self.before("panel_back", "side")

    def test_the_shoulders_are_the_last_of_the_seams(self):
        sewn_by_machine = [name for name in self.order if self.work.kind(name) in ("seam", "rim")]
        self.assertEqual(set(sewn_by_machine[-4:]), {"shoulder", "stand", "shoulder.inside", "stand.inside"})
        self.assertEqual(set(self.work.straps), set(sewn_by_machine[-4:]))
        step = next(step for step in steps_of(self.work, CLOTH, CLOTHS["suiting"]) if step.id == "stand")
        self.assertIn("turned through it while it is open", str(step.because))

    def test_cloth_and_lining_are_sewn_at_one_setting(self):
        for name in ("panel_front", "panel_back", "side"):
            self.assertEqual(self.order[self.order.index(name) + 1], f"{name}.inside")

    def test_the_peplum_is_made_up_before_it_is_sewn_on(self):
        for name in self.order:
            join = self.work.join(name)
            if join and join.pieces and all(self.work.sewn.parts.get(piece) for piece in join.pieces):
                self.before(name, "peplum_back")

    def test_it_is_the_lining_that_keeps_the_shoulders_to_the_last(self):
        linings = [step.id for step in shipped()["waistcoat"].design.steps if step.code in ("lining.cut", "facing.split")]
        work, order = order_of(garment_of("waistcoat", leave=linings))
        self.assertEqual(work.straps, ())
        seams = [name for name in order if work.kind(name) == "seam"]
        self.assertNotIn(seams[-1], ("shoulder", "stand"))

    def test_names_decide_nothing(self):
        garment = self.work.sewn.garment
        new = {piece.name: f"p{number}" for number, piece in enumerate(garment.pieces)}
        pieces = tuple(
            replace(piece, name=new[piece.name], of=new.get(piece.of, piece.of), serves=new.get(piece.serves, ""))
            for piece in garment.pieces
        )
        pieces = tuple(replace(piece, of=old.of) for piece, old in zip(pieces, garment.pieces, strict=True))

        def chain(entries):
            return tuple(replace(entry, piece=new[entry.piece]) for entry in entries)

        seams = tuple(
            replace(seam, name=f"s{number}", first=chain(seam.first), second=chain(seam.second))
            for number, seam in enumerate(garment.seams)
        )
        work, order = order_of(Garment(pieces, seams, garment.openings))
        titles = [work.title(name) for name in order]
        self.assertEqual(titles, [self.work.title(name) for name in self.order])


class CrossingSeamsTest(unittest.TestCase):
    """Four rectangles: a bodice of two panels, a skirt of two panels below."""

    def four(self, *seams):
        def edges(top, right, bottom, left):
            return [(name, role, kind) for name, role, kind in (top, right, bottom, left)]

        waist, hem = ("waist", "waist", "seam"), ("hem", "hem", "hem")
        panel, far = ("panel", "panel", "seam"), ("far", "cut", "seam")
        above = [
            box("bodice_middle", 0, 0, 10, 40, edges(("top", "neck", "seam"), panel, waist, far)),
            box("bodice_side", 10, 0, 20, 40, edges(("top", "neck", "seam"), far, waist, panel)),
        ]
        below = [
            box("skirt_middle", 0, 40, 10, 100, edges(waist, panel, hem, far)),
            box("skirt_side", 10, 40, 20, 100, edges(waist, far, hem, panel)),
        ]
        return Garment((*above, *below), seams)

    def seam(self, name, first, second):
        return Seam(
            name, name.replace("_", " ").capitalize(), tuple(SeamEdge(*e) for e in first), tuple(SeamEdge(*e) for e in second)
        )

    def test_a_long_seam_waits_for_what_crosses_it(self):
        waist_middle = self.seam("waist_middle", [("bodice_middle", "waist", True)], [("skirt_middle", "waist")])
        waist_side = self.seam("waist_side", [("bodice_side", "waist", True)], [("skirt_side", "waist")])
        long = self.seam(
            "long", [("bodice_middle", "panel"), ("skirt_middle", "panel")],
            [("bodice_side", "panel", True), ("skirt_side", "panel", True)],
        )  # fmt: skip
        work, order = order_of(self.four(long, waist_middle, waist_side))
        lines = [name for name in order if work.join(name)]
        self.assertEqual(lines[-1], "long")
        found = blocked(work, ["long", "waist_middle", "waist_side"])
        self.assertEqual((found.name, found.by), ("long", "waist_middle"))
        self.assertIn("must be one line", str(found.why))
        because = next(step for step in steps_of(work, CLOTH, CLOTHS["suiting"]) if step.id == lines[0]).because
        self.assertEqual(str(because), "First, because this runs over its end: long.")

    def test_two_that_run_on_over_a_third_are_both_before_it_or_both_after(self):
        seams = [
            self.seam("upper", [("bodice_middle", "panel")], [("bodice_side", "panel", True)]),
            self.seam("lower", [("skirt_middle", "panel")], [("skirt_side", "panel", True)]),
            self.seam("waist_middle", [("bodice_middle", "waist", True)], [("skirt_middle", "waist")]),
            self.seam("waist_side", [("bodice_side", "waist", True)], [("skirt_side", "waist")]),
        ]
        work = work_of(self.four(*seams))
        self.assertIsNone(blocked(work, ["upper", "lower", "waist_middle", "waist_side"]))
        self.assertIsNone(blocked(work, ["waist_middle", "waist_side", "upper", "lower"]))
        found = blocked(work, ["upper", "waist_middle", "lower", "waist_side"])
        self.assertEqual((found.name, found.by), ("waist_middle", "lower"))
        self.assertIn("Sew both before it, or both after it", str(found.why))
        steps = steps_of(work, CLOTH, CLOTHS["suiting"], ["waist_middle", "waist_side", "upper", "lower"])
        lower = next(step for step in steps if step.id == "lower")
        self.assertTrue(lower.with_last)
        self.assertEqual(lower.because, RUNS)

    def test_a_seam_that_crosses_nothing_may_stand_anywhere(self):
        work = work_of(self.four(self.seam("upper", [("bodice_middle", "panel")], [("bodice_side", "panel", True)])))
        self.assertEqual([rule for rule in work.before if "upper" in (rule.first, rule.second) and work.join(rule.first)], [])


class HandTest(unittest.TestCase):
    """What a hand would do first, on the designs that ship."""

    def test_pairs(self):
        wanted = {
            "shirt": [("yoke_line", "cap_back"), ("shoulder", "cap_front"), ("cap_back", "side"), ("underarm", "cuff"), ("undercollar.middle", "undercollar.collar_outer"),
                ("collar", "collar_stand"), ("shoulder", "collar_stand"), ("stay.neck", "yoke_line"), ("sleeve.pocket", "underarm")],
            "dress": [("back.darts", "yoke_back"), ("yoke_back", "side_2"), ("waist_back", "closing.1"), ("closing.1", "back_facing_seam"), ("shoulder", "back_facing_seam")],
            "trousers": [("yoke_back", "side"), ("side", "waistband"), ("crotch_back_2", "waistband"), ("closing.1", "waistband"), ("back.pocket", "side"), ("waistband", "waistband.turned")],
            "coat": [("front.interfacing", "shoulder"), ("tail_line", "side"), ("centre_back", "collar"), ("front.pocket", "front_edge"), ("front_edge", "front_lining.front_edge")],
            "skin": [("centre_front", "rib_neck"), ("shoulder", "rib_neck")],
        }  # fmt: skip
        for code, pairs in wanted.items():
            _, order = order_of(garment_of(code))
            for one, two in pairs:
                with self.subTest(code=code, one=one, two=two):
                    self.assertLess(order.index(one), order.index(two))

    def test_a_sleeve_head_that_runs_straight_over_the_shoulder_waits_for_it_and_not_the_shoulder_for_it(self):
        work, _ = order_of(garment_of("shirt"))
        self.assertIn("shoulder", work.first_of["cap_front"])
        self.assertNotIn("cap_front", work.first_of["shoulder"])

    def test_a_seam_that_an_opening_takes_whole_is_not_sewn(self):
        _work, order = order_of(garment_of("stays"))
        self.assertNotIn("centre_back", order)
        self.assertIn("fasten.1", order)

    def test_a_step_of_a_design_left_out_leaves_no_seam_out(self):
        rng = random.Random(17)
        for _ in range(40):
            garment = random_garment(rng)
            work, order = order_of(garment)
            self.assertEqual(list(faults(garment, work, order)), [])

    def test_the_looking_finds_a_seam_sewn_too_soon_and_one_left_out(self):
        garment = garment_of("shirt")
        work, order = order_of(garment)
        early = ["side", *(name for name in order if name != "side")]
        self.assertEqual(list(faults(garment, work, order)), [])
        late = [name for name in order if name not in ("yoke_line", "shoulder")] + ["yoke_line", "shoulder"]
        self.assertTrue(any("are not one yet" in fault for fault in faults(garment, work, late)))
        self.assertIn("Side seam is left out", list(faults(garment, work, [n for n in order if n != "side"])))
        self.assertTrue(any("twice" in fault for fault in faults(garment, work, [*early, "side"])))


class ChosenOrderTest(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.work, cls.usual = order_of(garment_of("waistcoat"))

    @given(st.randoms(use_true_random=False))
    @settings(max_examples=tries(30), deadline=None)
    def test_any_wish_becomes_one_that_can_be_sewn(self, rng):
        wish = list(self.usual)
        rng.shuffle(wish)
        order = in_order(self.work, wish)
        self.assertIsNone(blocked(self.work, order))
        self.assertEqual(sorted(order), sorted(self.usual))

    @given(st.randoms(use_true_random=False))
    @settings(max_examples=tries(30), deadline=None)
    def test_one_that_can_be_sewn_stays_as_it_is_and_one_that_cannot_says_what_blocks(self, rng):
        order = list(self.usual)
        for _ in range(6):
            a, b = rng.randrange(len(order)), rng.randrange(len(order))
            moved = [name for name in order if name != order[a]]
            moved.insert(b, order[a])
            found = blocked(self.work, moved)
            if found is None:
                order = moved
            else:
                self.assertNotEqual(found.name, found.by)
                self.assertGreater(moved.index(found.by), moved.index(found.name))
                self.assertTrue(str(found.why))
        self.assertEqual(list(in_order(self.work, order)), order)

    def test_what_is_new_goes_where_it_usually_stands_and_what_is_gone_is_left_out(self):
        wish = [name for name in self.usual if name != "panel_front"]
        order = in_order(self.work, ["no_more", *wish])
        self.assertEqual(order[order.index("panel_front") - 1], self.usual[self.usual.index("panel_front") - 1])
        self.assertNotIn("no_more", order)

    def test_own_steps_stay_beside_what_they_stood_after(self):
        wish = list(self.usual)
        wish.insert(wish.index("side"), "own:1")
        order = in_order(self.work, wish)
        self.assertEqual(order[order.index("own:1") + 1], "side")
        steps = steps_of(self.work, CLOTH, CLOTHS["suiting"], wish, {"own:1": "Braid along the panel seams"})
        self.assertIn("Braid along the panel seams", [step.title for step in steps])


class HowItIsDoneTest(unittest.TestCase):
    def steps(self, code, wanted=CLOTH, cloth="suiting"):
        return {step.id: step for step in steps_of(work_of(garment_of(code)), wanted, CLOTHS[cloth])}

    def test_allowances_of_the_plan_and_what_is_there_to_be_let_out(self):
        self.assertIn("Sew at 1.2 cm.", told(Display(), self.steps("shirt")["yoke_line"]))
        spare = Wanted.by(PLANS["cloth"].with_amounts({"let_out": 2.5}))
        self.assertIn(
            "Sew at 3.7 cm: 2.5 cm of it is there to be let out.", told(Display(), self.steps("shirt", spare)["side"])
        )
        inches = Wanted.by(PLANS["cloth_in"])
        self.assertIn("Sew at 1/2 in.", told(Display("in"), self.steps("shirt", inches)["yoke_line"]))

    def test_ease_and_gathers_name_the_longer_side(self):
        steps = self.steps("shirt")
        self.assertIn("Ease 1.2 cm of the sleeve in", told(Display(), steps["cap_front"]))
        self.assertRegex(
            told(Display(), steps["cuff"]), r"Two gathering threads in the sleeve: 31\.6 cm is drawn in to 20\.0 cm"
        )
        self.assertIn("Ease 0.5 cm of the bodice back in", told(Display(), self.steps("dress")["shoulder"]))

    def test_a_hollow_edge_is_clipped_and_a_round_one_notched(self):
        steps = self.steps("shirt")
        self.assertRegex(told(Display(), steps["cap_back"]), "Clip where it is hollow: bodice back")
        self.assertRegex(told(Display(), steps["cap_back"]), "Notch where it is round: sleeve")
        piece = garment_of("shirt").piece("front")
        self.assertGreater(bends(piece, piece.edge("armhole"))[0], 60)
        self.assertEqual(bends(piece, piece.edge("shoulder")), (0.0, 0.0))

    def test_notches_that_meet_are_those_that_both_sides_have(self):
        self.assertIn("Notches that meet: pitch.", told(Display(), self.steps("shirt")["cap_back"]))
        self.assertIn("panel point", told(Display(), self.steps("waistcoat")["panel_front"]))

    def test_the_cloth_decides_how_it_is_pressed_and_turned(self):
        self.assertIn("No iron", told(Display(), self.steps("waistcoat", cloth="leather")["panel_front"]))
        self.assertIn("Prick by hand", told(Display(), self.steps("waistcoat", cloth="velvet")["back_lining.neck"]))
        self.assertIn("Understitch", told(Display(), self.steps("waistcoat", cloth="lawn")["back_lining.neck"]))
        self.assertIn("Stretch it on evenly", told(Display(), self.steps("skin", cloth="jersey")["rib_neck"]))

    def test_how_often_and_how_long(self):
        steps = self.steps("waistcoat")
        self.assertEqual((steps["side"].times, steps["centre_back"].times), (2, 1))
        self.assertEqual(self.steps("shirt")["yoke_line"].times, 1)
        self.assertEqual(minutes_for("seam", 50.0, 2), 18.0)  # twice 3 and 6
        self.assertEqual(minutes_for("dart", 12.0, 2), 16.0)

    def test_a_hem_that_is_longer_at_its_edge_says_so(self):
        self.assertRegex(told(Display(), self.steps("dress")["hem.skirt_back.hem"]), r"1\.\d cm longer at its edge")


class WhenTwoSidesPartTest(unittest.TestCase):
    def setUp(self):
        self.sewn = sewn(garment_of("dress"))
        self.join = self.sewn.by_id["skirt_side"]
        self.paper = self.sewn.garment.length_of(self.join.first), self.sewn.garment.length_of(self.join.second)

    def said(self, one, two):
        return str(parted(self.sewn, self.join, self.paper[0] + one, self.paper[1] + two))

    def test_the_side_that_left_its_paper_is_named(self):
        self.assertRegex(
            self.said(1.4, 0.0), r"^The skirt, back is 1\.4 cm longer than on paper, where it is \d+\.\d cm\..*has stretched"
        )
        self.assertRegex(self.said(0.0, 0.8), r"^The skirt, front is 0\.8 cm longer")
        self.assertRegex(self.said(0.1, -1.0), r"^The skirt, front is 1\.0 cm shorter.*cut short or has shrunk")

    def test_two_sides_that_left_it_are_both_named_the_worse_first(self):
        said = self.said(0.4, -0.9)
        self.assertRegex(
            said, r"^The skirt, front is 0\.9 cm shorter .* The skirt, back is 0\.4 cm longer than on paper, where it is"
        )
        self.assertIn(f"where it is {self.paper[0]:.1f} cm", said)
        self.assertIn(f"where it is {self.paper[1]:.1f} cm", said)

    def test_both_as_on_paper_and_both_off_alike(self):
        self.assertIn("The seam is true", self.said(0.1, -0.1))
        self.assertIn("Measure the test square", self.said(1.0, 1.1))

    def test_the_grain_says_which_side_gives(self):
        self.assertGreater(grain_off(self.sewn, self.join.first), 5)
        middle = self.sewn.by_id["skirt_back_centre_back"]
        self.assertLess(grain_off(self.sewn, middle.first), 2)


class ClothTest(unittest.TestCase):
    def test_each_cloth_has_advice_under_every_heading(self):
        for cloth in CLOTHS.values():
            for heading, saying in advice(cloth).items():
                self.assertTrue(str(saying), f"{cloth.name} {heading}")
                self.assertNotRegex(saying.text(Display("in")), r"\d\.\d", f"{cloth.name} {heading}")

    def test_by_what_it_is(self):
        self.assertIn("Thread", str(advice(CLOTHS["velvet"])["mark"]))
        self.assertIn("no pins", str(advice(CLOTHS["leather"])["mark"]))
        self.assertIn("Carbon and wheel", str(advice(CLOTHS["calico"])["mark"]))
        self.assertIn("Ball point", str(advice(CLOTHS["jersey"])["needle"]))
        self.assertEqual(advice(CLOTHS["suiting"])["stitch"].text(Display()), "Straight, 2.5 mm.")
        self.assertEqual(advice(CLOTHS["suiting"])["stitch"].text(Display("in")), "Straight, 10 to the inch.")
        self.assertIn("twill", str(advice(CLOTHS["coating"])["lining"]))
        self.assertIn("All pieces one way", str(advice(CLOTHS["velvet"])["lay"]))
        self.assertIn("3 %", str(advice(CLOTHS["calico"])["lay"]))

    def test_what_the_house_says_goes_over_it(self):
        own = CLOTHS["velvet"].changed({"heat": "warm"}, {"press": "Steam only, in our press room."}, 2.0)
        self.assertEqual(str(advice(own)["press"]), "Steam only, in our press room.")
        self.assertEqual(own.heat, "warm")
        with self.assertRaises(ValueError):
            CLOTHS["velvet"].changed({"heat": "boiling"}, {}, 0.0)


if __name__ == "__main__":
    unittest.main()
