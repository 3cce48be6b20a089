"""What is added outside the stitching line, how its corners are finished, and everything that is marked inside it."""

import math
import random
import unittest
from dataclasses import replace
from itertools import pairwise

from shapely import LineString, Polygon
from shapely import Point as Dot

from tests.bodies import skirt, upper_build
from tests.papers import any_made, any_wanted, faults
from widehem.core.design.design import method_design
from widehem.core.design.make import make
from widehem.core.design.ships import shipped
from widehem.core.drafting.method import METHODS
from widehem.core.geometry.curves import Line
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.marking.allowance import cutting_line
from widehem.core.marking.checks import check_pattern
from widehem.core.marking.dummies import NoDummiesError, dummies
from widehem.core.marking.finishes import finishes
from widehem.core.marking.lettering import wide
from widehem.core.marking.made import mark_up
from widehem.core.marking.materials import needs_of, together
from widehem.core.marking.plans import PLANS, PlanError, hem_kind, kind_of, own_plan, plan_named
from widehem.core.marking.turned_up import surplus
from widehem.core.marking.wanted import CLOTH, LINING, OwnNotch, Wanted
from widehem.core.output.sheets import PAPERS, sheets_for
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.piece import Piece
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Display


def box(kinds=("seam",) * 4, roles=("cut",) * 4, corners=((0, 0), (20, 0), (20, 10), (0, 10))):
    """A four-cornered piece, y down: its edges are called a, b, c and d from the upper left corner on."""
    spots = [Point(*map(float, corner)) for corner in corners]
    edges = tuple(
        Edge(name, (Path.through(spots[n], spots[(n + 1) % 4]),), kind=kinds[n], role=roles[n]) for n, name in enumerate("abcd")
    )
    return Piece("box", "Box", edges, stands="once")


def ring(piece, amounts, **more):
    return Polygon(cutting_line(piece, dict(zip("abcd", amounts, strict=True)), **more))


def waistcoat(build="typical"):
    return make(shipped()["waistcoat"].design, upper_build(build))


class Corners(unittest.TestCase):
    def test_a_right_angle_is_the_same_carried_on_or_squared_off(self):
        straight = ring(box(), (1, 2, 1, 2))
        self.assertAlmostEqual(straight.area, 24 * 12)
        for finish in ("square_before", "square_after"):
            self.assertAlmostEqual(ring(box(), (1, 2, 1, 2), finishes={"a": finish}).area, 24 * 12, places=6)

    def test_squared_off_an_allowance_ends_square_to_its_seam_where_the_line_comes_out(self):
        """A corner of 60 degrees: the seam b goes down, a runs over it at a slant."""
        slanted = box(corners=((0, 0), (20, -10), (20, 10), (0, 10)))
        found = ring(slanted, (1, 2, 1, 1), finishes={"a": "square_after"})
        top = 1 / math.sin(math.atan2(20, 10))  # how far the line of b goes on until it comes out of what is outside a
        for x in (20.2, 21.0, 21.98):
            column = found.intersection(LineString([(x, -60), (x, 60)]))
            self.assertAlmostEqual(column.bounds[1], -10 - top, places=2, msg=x)
        straight = ring(slanted, (1, 2, 1, 1))
        self.assertLess(straight.bounds[1], found.bounds[1] - 0.5, "carried straight on it is a longer point")

    def test_a_long_point_is_cut_off_at_twice_the_allowance(self):
        sharp = box(corners=((0, 0), (40, -3), (40, 3), (0, 3)))
        pointed = box(corners=((0, 0), (40, 2.9), (40, 3), (0, 6)))
        for piece in (sharp, pointed):
            found = ring(piece, (1, 1, 1, 1))
            corners = [edge.start for edge in piece.edges]
            for spot in found.exterior.coords:
                self.assertLess(min(Point(*spot).to(c) for c in corners if True), 60)
            for corner in corners:
                beyond = max(
                    (Point(*s).to(corner) for s in found.exterior.coords if Dot(s).distance(Polygon(piece.outline())) > 1.01),
                    default=0,
                )
                self.assertLess(beyond, 2.02 + 40 * (beyond > 3), corner)

    def test_where_one_edge_runs_on_into_another_the_wider_goes_on_beyond_and_steps_square(self):
        edges = (
            Edge("a", (Path.through(Point(0, 0), Point(10, 0)),), role="cut"), Edge("b", (Path.through(Point(10, 0), Point(20, 0)),), role="cut"),
            Edge("c", (Path.through(Point(20, 0), Point(20, 10)),), role="cut"), Edge("d", (Path.through(Point(20, 10), Point(0, 10)),), role="cut"),
            Edge("e", (Path.through(Point(0, 10), Point(0, 0)),), role="cut"),
        )  # fmt: skip
        piece = Piece("box", "Box", edges, stands="once")
        found = Polygon(cutting_line(piece, {"a": 2.0, "b": 1.0, "c": 1.0, "d": 1.0, "e": 1.0}))
        tops = {x: found.intersection(LineString([(x, -9), (x, 5)])).bounds[1] for x in (9.5, 10.5, 10.95, 11.05, 15)}
        self.assertEqual([round(top, 4) for top in tops.values()], [-2, -2, -2, -1, -1])

    def test_an_inside_corner_keeps_its_distance(self):
        spots = [Point(0, 0), Point(20, 0), Point(20, 8), Point(10, 8), Point(10, 20), Point(0, 20)]
        edges = tuple(Edge(f"e{n}", (Path.through(a, spots[(n + 1) % 6]),), role="cut") for n, a in enumerate(spots))
        found = Polygon(cutting_line(Piece("ell", "Ell", edges, stands="once"), {f"e{n}": 1.0 for n in range(6)}))
        self.assertAlmostEqual(found.exterior.distance(Dot(10, 8)), math.sqrt(2), places=4)
        self.assertTrue(found.contains(Dot(10.99, 8.99)))
        self.assertFalse(found.contains(Dot(11.01, 9.01)))

    def test_by_itself_a_seam_that_another_runs_over_is_squared_off_on_both_of_its_sides(self):
        garment = make(shipped()["trousers"].design, upper_build()).garment
        found = finishes(garment, {})
        self.assertEqual(
            [found[name]["inseam"] for name in ("back", "front")], ["square_before"] * 2, "the crotch runs over it"
        )
        said = finishes(garment, {"back.inseam": "straight"})
        self.assertEqual(said["back"]["inseam"], "straight", "the maker's word is the last")

    def test_a_fold_gets_nothing_and_is_exact(self):
        piece = box(kinds=("seam", "seam", "seam", "fold"))
        found = ring(piece, (1, 1, 1, 0))
        self.assertEqual(found.bounds[0], 0.0)
        self.assertAlmostEqual(found.area, 21 * 12, places=6)


class TurnedUp(unittest.TestCase):
    def test_a_hem_on_slanting_sides_is_their_mirror(self):
        piece = box(kinds=("seam", "seam", "hem", "seam"), corners=((5, 0), (15, 0), (20, 20), (0, 20)))
        found = ring(piece, (1, 1, 4, 1))
        for depth in (0.5, 2, 3.9):
            below, above = (found.intersection(LineString([(-50, y), (90, y)])).length for y in (20 + depth, 20 - depth))
            self.assertAlmostEqual(below, above, places=4)
        self.assertAlmostEqual(found.bounds[3], 24)

    def test_a_hem_of_a_circle_is_narrow_and_told_with_its_surplus(self):
        made = make(shipped()["coat"].design, upper_build())
        tail = next(m for m in mark_up(made, PLANS["toile"]).pieces if m.piece.name == "tail")
        edge = tail.piece.edge("hem")
        self.assertNotEqual(hem_kind(edge), "hem")
        told = [line for line in mark_up(made, PLANS["toile"]).sew_at if "longer at its edge" in line]
        self.assertTrue(any(line.startswith("The coat tail") or "tail" in line for line in told), told)

    def test_the_surplus_of_a_ring_is_the_angle_times_twice_the_depth(self):
        arc = [Point(60 * math.cos(a), 60 * math.sin(a)) for a in (math.pi / 2 * n / 400 for n in range(401))]
        edge = Edge("hem", (Path(tuple(Line(p, q) for p, q in pairwise(arc))),), kind="hem", role="hem")
        found = abs(surplus(edge, 2.0, 1.0))
        self.assertAlmostEqual(found, math.pi / 2 * 2 * 2.0, delta=0.05)

    def test_how_round_a_hem_is_says_how_deep(self):
        def arc(radius):
            spots = [Point(radius * math.sin(a), radius * math.cos(a)) for a in (0.6 * n / 60 for n in range(61))]
            from widehem.core.geometry.fitted import fitted

            return Edge("hem", (fitted(spots),), kind="hem", role="hem")

        self.assertEqual([kind_of(arc(r)) for r in (60, 150, 600)], ["hem_circle", "hem_flared", "hem"])
        self.assertEqual([PLANS["cloth"].amount(arc(r)) for r in (60, 150, 600)], [1.0, 2.0, 4.0])

    def test_random_patterns_on_random_sheets_have_no_fault(self):
        chance, judged = random.Random("a few of them"), 0
        while judged < 12:
            try:
                code, made = any_made(chance)
            except CannotDraft:
                continue
            pattern = mark_up(made, any_wanted(chance, made))
            self.assertEqual(
                faults(pattern, sheets_for(pattern, PAPERS[chance.choice(list(PAPERS))], chance.choice((1.0, 0.25)))), [], code
            )
            judged += 1

    def test_the_judge_sees_what_is_wrong(self):
        pattern = mark_up(skirt(), PLANS["cloth"])
        back, front = pattern.pieces
        squeezed = tuple(Point(p.x, p.y * 0.98) for p in back.cut)
        found = faults(replace(pattern, pieces=(replace(back, cut=squeezed), front)))
        self.assertTrue(any("back" in fault for fault in found), found)


class Plans(unittest.TestCase):
    def test_every_kind_of_edge_has_its_own_figure(self):
        plan = PLANS["cloth"].with_amounts({"shoulder": 2.0, "cap": 1.5})
        self.assertEqual([plan.amounts[kind] for kind in ("shoulder", "armhole", "cap", "neck")], [2.0, 1.2, 1.5, 0.6])

    def test_what_is_left_to_let_out_is_sewn_that_much_farther_in(self):
        made = waistcoat()
        pattern = mark_up(made, PLANS["cloth"].with_amounts({"let_out": 2.5}))
        side = next(m for m in pattern.pieces if m.piece.name == "side_back")
        self.assertAlmostEqual(side.amounts["side"], 3.7)
        self.assertAlmostEqual(side.amounts["panel"], 1.2)
        self.assertTrue(
            any(line.startswith("Sew at 3.7 cm, of which 2.5 is there to be let out: side seam") for line in pattern.sew_at)
        )
        self.assertIn("of it 2.5 to let out", " ".join(side.label[0]))
        inches = mark_up(made, PLANS["cloth_in"].with_amounts({"let_out": 2.54}), show=Display("in"))
        self.assertTrue(any("1 1/2 in, of which 1 is there" in line for line in inches.sew_at), inches.sew_at)

    def test_one_edge_with_a_figure_of_its_own_is_told_where_its_partner_has_another(self):
        made = waistcoat()
        one = Wanted({CLOTH: PLANS["cloth"]}, edges={"side_back.side": 2.5})
        both = replace(one, edges={"side_back.side": 2.5, "side_front.side": 2.5})
        verdicts = [
            next(c for c in check_pattern(made.garment, mark_up(made, w)) if c.name == "allowances").verdict
            for w in (one, both)
        ]
        self.assertEqual(verdicts, ["not", "true"])

    def test_the_lining_follows_the_cloth_but_for_its_hems_until_it_has_a_plan_of_its_own(self):
        made = waistcoat()
        plain = Wanted.by(PLANS["simple"])
        lining = next(p for p in made.garment.pieces if p.layer == "lining")
        self.assertEqual(plain.plan_for(lining).amounts["seam"], 1.5)
        self.assertEqual(plain.plan_for(lining).amounts["hem"], 2.0)
        own = Wanted({CLOTH: PLANS["simple"], LINING: PLANS["fine"]})
        self.assertEqual(own.plan_for(lining).amounts["seam"], 1.0)
        toile = Wanted.by(PLANS["toile"])
        self.assertEqual(toile.plan_for(lining).amounts, PLANS["toile"].amounts, "a toile is one cloth")

    def test_a_plan_of_the_house_is_told_by_what_it_began_as_and_its_name(self):
        plan = own_plan("cloth", "  Velvet  ")
        self.assertEqual((plan.code, plan.name, plan.use), ("cloth+Velvet", "Velvet", "cloth"))
        self.assertEqual(plan_named("cloth+Velvet"), plan)
        for like, name in (("cloth", ""), ("cloth", "a+b"), ("cloth", "x" * 30), ("silk", "Velvet")):
            with self.assertRaises(PlanError):
                own_plan(like, name)

    def test_a_slit_is_turned_in_along_what_it_runs_on_from(self):
        made = waistcoat()
        amounts = Wanted.by(PLANS["cloth"].with_amounts({"let_out": 2.5})).amounts(made.garment.piece("peplum_back"))
        self.assertEqual(amounts["slit"], amounts["centre_back"])


class Marks(unittest.TestCase):
    def test_a_notch_set_by_hand_has_its_partner(self):
        made = waistcoat()
        wanted = replace(Wanted.by(PLANS["cloth"]), notches=(OwnNotch("side_back", "side", 0.25, count=2),))
        pattern = mark_up(made, wanted)
        own = {m.piece.name: [n for n in m.notches if n.what.startswith("own notch")] for m in pattern.pieces}
        self.assertEqual((len(own["side_back"]), len(own["side_front"])), (2, 2))
        length = made.garment.piece("side_back").edge("side").length
        self.assertAlmostEqual(own["side_back"][0].along, length / 4)
        check = next(c for c in check_pattern(wanted.notched(made.garment), pattern) if c.name == "notches")
        self.assertEqual(check.verdict, "true")

    def test_a_button_hole_begins_beyond_the_middle_and_is_longer_than_the_button(self):
        pattern = mark_up(waistcoat(), PLANS["cloth"])
        front = next(m for m in pattern.pieces if m.piece.name == "front")
        self.assertEqual(len(front.buttons), 6)
        bust = front.piece.levels["bust"]
        self.assertLess(min(abs(button.at.y - bust) for button in front.buttons), 1e-6, "one lies at the bust")
        for button in front.buttons:
            outer, inner = button.hole
            self.assertAlmostEqual(outer.to(button.at), 0.3)
            self.assertAlmostEqual(outer.to(inner), 2.0 + 0.3, places=4)

    def test_ease_and_gathers_are_marked_with_both_ends(self):
        pattern = mark_up(make(shipped()["robe"].design, upper_build()), PLANS["cloth"])
        shirt = mark_up(make(shipped()["shirt"].design, upper_build()), PLANS["cloth"])
        zones = [zone for p in (pattern, shirt) for m in p.pieces for zone in m.zones]
        self.assertTrue(zones)
        for zone in zones:
            self.assertRegex(zone.words, r"^(ease in|gather to) \d+\.\d cm$")
            self.assertGreater(zone.ends[1] - zone.ends[0], 3.0)
            self.assertEqual(len(zone.ticks), 2)

    def test_a_piece_on_the_fold_is_drawn_whole_on_demand(self):
        made = skirt()
        half, whole = (mark_up(made, replace(Wanted.by(PLANS["cloth"]), whole=w)) for w in (False, True))
        areas = [Polygon(next(m for m in p.pieces if m.piece.name == "front").cut).area for p in (half, whole)]
        self.assertAlmostEqual(areas[1], 2 * areas[0], delta=0.05)
        self.assertIn("1, drawn whole", [row.cut for row in whole.cut_list])
        self.assertEqual(needs_of(half).materials[0].pieces, 3)
        self.assertAlmostEqual(needs_of(half).materials[0].area, needs_of(whole).materials[0].area, delta=0.5)

    def test_grain_runs_as_long_as_fits_and_off_the_buttons(self):
        pattern = mark_up(waistcoat(), PLANS["cloth"])
        for marked in pattern.pieces:
            line = LineString(marked.grain)
            self.assertTrue(Polygon(marked.piece.outline()).buffer(0.01).contains(line), marked.piece.name)
            for button in marked.buttons:
                self.assertGreater(line.distance(Dot(*button.at)), 0.7)
        sleeve = mark_up(
            make(method_design(METHODS["bodice.measured"]), upper_build()), replace(Wanted.by(PLANS["cloth"]), nap=True)
        )
        self.assertTrue(all(len(m.grain_paths()) == 2 for m in sleeve.pieces if not m.on_fold), "one head where there is a nap")

    def test_a_knit_says_which_way_it_gives(self):
        pattern = mark_up(make(method_design(METHODS["top.jersey"]), upper_build()), PLANS["jersey"])
        self.assertTrue(all(m.grain_words == "least stretch" for m in pattern.pieces))

    def test_letters_take_no_more_room_than_is_reckoned(self):
        from reportlab.pdfbase import pdfmetrics

        from widehem.core.output.pdf_pen import STRONG, load_fonts

        load_fonts()
        for words in (
            "Bodice front, side panel, 4 of 14",
            "allowance in, cm: seams 0.6, 1.2, 3.7; hem 4",
            "Quayside Players · 30 November 2026 · draft 3",
            "WWWW",
            "ease in 2.4 cm",
        ):
            true = pdfmetrics.stringWidth(words, STRONG, 1.0)
            self.assertGreaterEqual(wide(words, 1.0), true, words)
            self.assertLess(wide(words, 1.0), true * 1.35, words)

    def test_what_a_cast_takes_is_added_up(self):
        one = needs_of(mark_up(waistcoat(), PLANS["cloth"]))
        cloths = {row.name: row.pieces for row in one.materials}
        self.assertEqual(cloths, {"cloth": 14, "lining": 8, "interfacing": 2, "second lining": 4})
        two = together([one, one])
        self.assertEqual({row.name: row.pieces for row in two.materials}["lining"], 16)
        self.assertTrue(any(count == 2 and "buttons" in words for words, count in two.notions))
        self.assertEqual(one.materials[0].about(150.0) % 10, 0)

    def test_dummies_are_the_small_parts_without_allowances(self):
        pattern = dummies(make(shipped()["shirt"].design, upper_build()))
        names = {m.piece.name for m in pattern.pieces}
        self.assertIn("collar", names)
        self.assertNotIn("front", names)
        self.assertEqual({amount for m in pattern.pieces for amount in m.amounts.values()}, {0.0})
        coat = dummies(make(method_design(METHODS["coat.straight"]), upper_build()))
        self.assertTrue(any("turned over" in m.piece.title for m in coat.pieces))
        with self.assertRaises(NoDummiesError):
            dummies(skirt())


if __name__ == "__main__":
    unittest.main()
