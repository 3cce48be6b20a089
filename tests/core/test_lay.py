"""The lay of the cloth: what is cut, where it lies, what it takes; judged by outlines that the programme did not make."""

import itertools
import random
import unittest
from dataclasses import replace

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.bodies import skirt, upper_build
from tests.lays import random_shapes, random_table, seen, sweep, wrong
from tests.some import tries
from widehem.core.design.make import make
from widehem.core.design.ships import shipped
from widehem.core.making.lay.cloth import LayError, OnTable
from widehem.core.making.lay.cutouts import Cutout, cutouts, materials_of, too_wide
from widehem.core.making.lay.grid import improving
from widehem.core.making.lay.kept import cutout_data, cutout_from, placed_data, placed_from
from widehem.core.making.lay.placed import Lay, Placed, faults, faults_of, nearest, snapped
from widehem.core.making.lay.search import Leftover, laying, on_leftovers
from widehem.core.making.lay.sparrow import can, packing
from widehem.core.marking.made import mark_up
from widehem.core.marking.plans import PLANS
from widehem.core.output.pdf_lay import figures, lay_pdf
from widehem.core.output.plot_lay import lay_plot
from widehem.core.output.sheets import PAPERS
from widehem.core.output.svg_lay import lay_picture, lay_svg
from widehem.core.units import Display


def box(number, long, wide, **more):
    return Cutout(
        f"{number}", f"Box {number}", f"box_{number}", "", ((0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide)), **more
    )


def pattern_of(code, build="typical"):
    return mark_up(make(shipped()[code].design, upper_build(build)), PLANS["cloth"])


def first(shapes, table, many=3):
    return list(itertools.islice(improving(shapes, table, 1), many))[-1]


class TheClothTest(unittest.TestCase):
    def test_what_can_be_laid_on(self):
        self.assertEqual(OnTable(150).high, 148.0)  # a centimetre of selvedge at each side
        self.assertEqual(OnTable(150, folded=True).high, 74.0)  # the fold is no selvedge

    def test_to_buy_with_shrinking_rounded_up_to_ten(self):
        self.assertEqual(OnTable().to_buy(82.9), 90.0)
        self.assertEqual(OnTable().to_buy(90.0), 90.0)
        self.assertEqual(OnTable(shrinks=4).to_buy(87.4), 100.0)  # 87.4 / 0.96 is 91.04
        self.assertEqual(OnTable(shrinks=3).to_buy(97.0), 100.0)  # 100.0 exactly

    def test_what_cannot_be_is_said_with_its_figure(self):
        for words, field in ((r"Width: 5.0 cm", {"width": 5.0}), (r"Between pieces: 9.0 cm", {"gap": 9.0}), (r"Selvedge kept clear: 60.0 cm", {"selvedge": 60.0}),
                             (r"Shrinks: 45 %", {"shrinks": 45.0}), (r"Bars: a repeat of 0.1 cm", {"along": 0.1}), ("Price", {"price": -1.0}),
                             ("Price", {"price": float("nan")})):  # fmt: skip
            with self.subTest(field), self.assertRaisesRegex(LayError, words) as raised:
                OnTable(**field)
            self.assertEqual([raised.exception.field], list(field))


class WhatIsCutTest(unittest.TestCase):
    def test_a_pair_is_a_piece_and_its_mirror_on_open_cloth_and_one_on_folded(self):
        pattern = pattern_of("waistcoat")
        opened = [s for s in cutouts(pattern, "cloth", OnTable(150)) if s.piece == "front"]
        self.assertEqual([s.hand for s in opened], [1, -1])
        a, b = (seen(s, 0, False) for s in opened)
        self.assertAlmostEqual(a.area, b.area, 6)
        over = seen(opened[0], 0, True)
        _, low, _, _ = over.bounds
        from shapely.affinity import translate

        self.assertLess(translate(over, 0, -low).symmetric_difference(b).area, 0.01)
        folded = [s for s in cutouts(pattern, "cloth", OnTable(150, folded=True)) if s.piece == "front"]
        self.assertEqual([(s.hand, s.single) for s in folded], [(0, False)])

    def test_every_piece_as_often_as_the_cutting_list_says(self):
        pattern = pattern_of("coat")
        count = {s.piece: 0 for s in cutouts(pattern, "cloth", OnTable(150))}
        for shape in cutouts(pattern, "cloth", OnTable(150)):
            count[shape.piece] += 1
        self.assertEqual((count["front"], count["pad"], count["flap"], count["collar"], count["undercollar"]), (2, 4, 4, 1, 2))
        self.assertEqual(set(materials_of(pattern)), {"cloth", "lining", "interfacing", "wadding", "pocketing"})

    def test_a_half_is_opened_on_open_cloth_and_lies_on_the_fold_of_folded(self):
        pattern = pattern_of("shirt")
        whole = next(s for s in cutouts(pattern, "cloth", OnTable(150)) if s.piece == "back")
        half = next(s for s in cutouts(pattern, "cloth", OnTable(150, folded=True)) if s.piece == "back")
        self.assertTrue(half.on_fold)
        self.assertAlmostEqual(whole.polygon.area, 2 * half.polygon.area, delta=0.5)
        self.assertAlmostEqual(whole.size[1], 2 * half.size[1], delta=0.01)
        self.assertEqual(min(y for _, y in half.ring), 0.0)

    def test_a_band_whose_fold_lies_across_the_grain_is_cut_whole_through_one_layer(self):
        bands = [s for s in cutouts(pattern_of("breeches"), "cloth", OnTable(150, folded=True)) if s.piece == "waistband"]
        self.assertTrue(all(s.single and not s.on_fold for s in bands))
        self.assertGreater(bands[0].size[0], 60)

    def test_the_grain_runs_along_the_cloth(self):
        made = skirt()
        pattern = mark_up(made, PLANS["cloth"])
        front = next(s for s in cutouts(pattern, "cloth", OnTable(150)) if s.piece == "front")
        left, top, right, bottom = next(m for m in pattern.pieces if m.piece.name == "front").bounds
        self.assertAlmostEqual(front.size[0], bottom - top, delta=0.02)  # as long along the cloth as it hangs
        self.assertAlmostEqual(front.size[1], 2 * (right - left), delta=0.02)

    def test_what_cannot_lie_on_it_is_said_with_its_figures(self):
        shapes = cutouts(pattern_of("cloak"), "cloth", OnTable(150, folded=True))
        words = " ".join(map(str, too_wide(shapes, OnTable(150, folded=True))))
        self.assertRegex(
            words, r"Bodice back is 7\d\.\d cm across the grain; the cloth has 74\.0 cm to the fold: \d\.\d cm too little\."
        )
        self.assertEqual(too_wide(shapes, replace(OnTable(280), way="any")), [])


class LaidTest(unittest.TestCase):
    @settings(max_examples=tries(25), deadline=None)
    @given(st.integers(0, 10_000))
    def test_nothing_lies_on_anything_over_the_edge_or_as_it_may_not(self, seed):
        rng = random.Random(seed)
        table = random_table(rng)
        shapes = random_shapes(rng, table, rng.randint(2, 10))
        lay = first(shapes, table)
        self.assertEqual(list(wrong(lay)), [])
        self.assertEqual(list(faults(lay)), [])
        self.assertEqual(lay.left, ())

    def test_a_sweep_runs_clean(self):
        self.assertEqual(sweep(6, seed=99), [])

    def test_two_boxes_side_by_side(self):
        lay = first([box(1, 50, 70), box(2, 50, 70)], OnTable(150, gap=1.0))
        self.assertAlmostEqual(lay.length, 50.0, delta=0.01)
        self.assertAlmostEqual(lay.used, 2 * 50 * 70 / (50 * 150), delta=0.001)
        three = first([box(n, 50, 70) for n in (1, 2, 3)], OnTable(150, gap=1.0))
        self.assertAlmostEqual(three.length, 101.0, delta=0.01)

    def test_what_is_folded_is_used_twice_and_a_single_once(self):
        table = OnTable(150, folded=True, gap=0.0, selvedge=0.0)
        lay = Lay(table, (box(1, 50, 75, hand=0),), (Placed("1", 0, 0),))
        self.assertAlmostEqual(lay.used, 1.0)
        self.assertAlmostEqual(Lay(table, (box(1, 50, 75, single=True),), (Placed("1", 0, 0),)).used, 0.5)

    def test_one_way_turns_nothing_and_any_way_turns_what_is_too_wide(self):
        shapes = random_shapes(random.Random(3), OnTable(150), 8)
        self.assertEqual({p.turned for p in first(shapes, OnTable(150, way="one")).placed}, {0})
        lay = first([box(1, 30, 160)], OnTable(150, way="any"))
        self.assertIn(lay.placed[0].turned, (90, 270))

    def test_spyrrow_lays_closer_and_stops_when_it_is_told(self):
        shapes = cutouts(pattern_of("waistcoat"), "cloth", OnTable(150))
        self.assertTrue(can(shapes, OnTable(150)))
        self.assertFalse(can(shapes, OnTable(150, along=10.0)))
        rough = first(shapes, OnTable(150), 1)
        lays = [lay for lay in packing(shapes, OnTable(150), 3) if lay is not None]
        self.assertLess(lays[-1].length, rough.length)
        for lay in (lays[0], lays[-1]):
            self.assertEqual(list(wrong(lay)), [])
        search = packing(shapes, OnTable(150), 60)
        next(search)
        search.close()  # its process ends with it

    def test_it_is_heard_of_while_nothing_better_is_found(self):
        found = list(packing([box(1, 30, 20)], OnTable(150), 2))  # one piece lies best at once
        self.assertIn(None, found)
        lays = list(laying([box(1, 30, 20)], OnTable(150), 3))
        self.assertNotIn(None, lays)
        self.assertEqual(lays[-1].length, 20.0 if lays[-1].placed[0].turned in (90, 270) else 30.0)

    def test_looking_begins_with_a_picture_and_never_gets_worse(self):
        shapes = cutouts(pattern_of("waistcoat"), "cloth", OnTable(150))
        lengths = [lay.length for lay in laying(shapes, OnTable(150), 3)]
        self.assertEqual(lengths, sorted(lengths, reverse=True))

    def test_leftovers_are_filled_first_the_smallest_first(self):
        shapes = [box(1, 60, 80), box(2, 40, 60), box(3, 20, 30), box(4, 20, 30)]
        left = [Leftover("the large rest", 70.0, OnTable(150)), Leftover("the small rest", 45.0, OnTable(90))]
        used, rest = on_leftovers(shapes, left, 0.3)
        self.assertEqual([entry.name for entry, _ in used], ["the small rest", "the large rest"])
        for entry, lay in used:
            self.assertLessEqual(lay.length, entry.length + 0.05)
            self.assertEqual(list(wrong(lay)), [])
        laid = [put.id for _, lay in used for put in lay.placed]
        self.assertEqual(sorted([*laid, *(shape.id for shape in rest)]), ["1", "2", "3", "4"])


class JudgedTest(unittest.TestCase):
    """Every fault is found, and told with its figure."""

    def lay(self, placed, table=None, **more):
        shapes = (box(1, 40, 30, **more), box(2, 40, 30))
        return Lay(table or OnTable(150, gap=0.5), shapes, placed)

    def said(self, lay):
        return " ".join(map(str, faults(lay)))

    def test_on_each_other_and_too_near(self):
        self.assertIn("lie on each other by 10.0 cm", self.said(self.lay((Placed("1", 0, 0), Placed("2", 30, 0)))))
        self.assertIn("only 0.2 apart: 0.5 cm are wanted", self.said(self.lay((Placed("1", 0, 0), Placed("2", 40.2, 0)))))
        self.assertEqual(self.said(self.lay((Placed("1", 0, 0), Placed("2", 40.5, 0)))), "")
        edge_on_edge = OnTable(150, gap=0.0)
        self.assertIn(
            "lie on each other by 10.0 cm", self.said(self.lay((Placed("1", 0, 0), Placed("2", 30, 0)), edge_on_edge))
        )
        self.assertEqual(self.said(self.lay((Placed("1", 0, 0), Placed("2", 40, 0)), edge_on_edge)), "")

    def test_whatever_is_moved_is_seen_as_by_another_hand(self):
        rng, seen_by = random.Random(5), [0, 0]
        for _ in range(6):
            table = random_table(rng)
            lay = first(random_shapes(rng, table, 6), table)
            for put in lay.placed:
                bent = lay.with_put(replace(put, x=put.x - 1.5))
                seen_by[0] += bool(list(wrong(bent)))
                seen_by[1] += bool(list(faults(bent)))
        self.assertGreater(seen_by[0], 30)
        self.assertEqual(*seen_by)

    def test_over_the_edges(self):
        self.assertIn("Box 1 reaches 2.0 cm over the cut end", self.said(self.lay((Placed("1", -2, 0), Placed("2", 50, 0)))))
        self.assertIn("Box 2 reaches 4.0 cm over the selvedge", self.said(self.lay((Placed("1", 0, 0), Placed("2", 50, 122)))))

    def test_turned_mirrored_and_off_the_fold(self):
        one_way = OnTable(150, way="one")
        self.assertIn("turned by 180°", self.said(self.lay((Placed("1", 0, 0, 180), Placed("2", 50, 0)), one_way)))
        self.assertIn("cut for the other hand", self.said(self.lay((Placed("1", 0, 0, 0, True), Placed("2", 50, 0)))))
        folded = OnTable(150, folded=True, way="any")
        on_fold = self.lay((Placed("1", 0, 3), Placed("2", 50, 0)), folded, hand=0, on_fold=True)
        self.assertIn("Box 1 lies 3.0 cm off the fold", self.said(on_fold))
        turned = self.lay((Placed("1", 0, 0, 90), Placed("2", 50, 0)), folded, hand=0, on_fold=True)
        self.assertIn("turned away from the fold", self.said(turned))

    def test_off_its_bar_and_its_stripe(self):
        table = OnTable(150, along=10.0, across=8.0)
        lay = self.lay((Placed("1", 3, 0), Placed("2", 60, 0)), table, bar=12.0)
        self.assertIn("Box 1 lies 5.0 cm off its bar", self.said(lay))  # 15 between bars at 10 and 20
        striped = self.lay((Placed("1", 0, 0), Placed("2", 60, 0)), table, stripe=15.0)
        self.assertIn("Box 1 lies 3.0 cm off its stripe", self.said(striped))  # 15 of 74 from the middle: 59 is 3 beyond 56

    def test_left_out(self):
        self.assertIn("Not laid: Box 2", self.said(self.lay((Placed("1", 0, 0),))))

    def test_a_piece_put_by_hand_slides_to_where_there_is_room_or_stays(self):
        lay = self.lay((Placed("1", 0, 0), Placed("2", 60, 0)))
        put = nearest(lay, Placed("2", 39.0, 0))
        self.assertEqual(faults_of(lay.with_put(put), "2"), [])
        self.assertLess(abs(put.x - 39.0), 2.6)
        self.assertIsNone(nearest(lay, Placed("2", 10.0, 5.0)))

    def test_it_comes_to_lie_on_the_cloth_the_fold_the_bar(self):
        folded = self.lay((Placed("1", 0, 0), Placed("2", 60, 0)), OnTable(150, folded=True), hand=0, on_fold=True)
        self.assertEqual(snapped(folded, Placed("1", -5.0, 22.0)), Placed("1", 0.0, 0.0))
        self.assertTrue(snapped(folded, Placed("1", 0.0, 0.0, 180)).flipped)
        bars = self.lay((Placed("1", 8, 0), Placed("2", 60, 0)), OnTable(150, along=10.0), bar=12.0)
        self.assertAlmostEqual(snapped(bars, Placed("1", 15.0, 0)).x % 10, 8.0)


class TakenAwayTest(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.lay = first(
            cutouts(pattern_of("shirt"), "cloth", OnTable(150, folded=True, price=20.0)), OnTable(150, folded=True, price=20.0)
        )

    def test_as_data_and_back(self):
        shapes = [cutout_from(cutout_data(shape)) for shape in self.lay.shapes]
        again = Lay(self.lay.table, tuple(shapes), placed_from(placed_data(self.lay.placed)))
        self.assertEqual(list(faults(again)), [])
        self.assertAlmostEqual(again.length, self.lay.length, delta=0.01)
        with self.assertRaises(ValueError):
            placed_from([["1", float("nan"), 0, 0, False]])
        with self.assertRaises(ValueError):
            placed_from([["1", 0, 0, 45, False]])

    def test_picture_names_every_piece_and_the_fold(self):
        picture = lay_svg(self.lay, Display(), hand=True)
        for put in self.lay.placed:
            self.assertIn(f'data-put="{put.id}"', picture.inside)
        self.assertIn(">fold</text>", picture.inside)
        self.assertIn(b"<svg", lay_picture(self.lay, Display("in")))

    def test_paper_shows_the_whole_and_then_one_to_five(self):
        from io import BytesIO

        from pypdf import PdfReader

        reader = PdfReader(BytesIO(lay_pdf("Shirt", "The Lantern Ferry", [("Cloth", self.lay)], PAPERS["a4"], Display())))
        text = reader.pages[0].extract_text()
        self.assertIn("to buy", text)
        self.assertIn("1 : 5", reader.pages[1].extract_text())
        self.assertGreaterEqual(len(reader.pages) - 1, self.lay.length / (5 * 29.7))
        self.assertIn(f"costs {self.lay.cost:.2f}", " ".join(figures(self.lay, Display())))

    def test_plot_file_is_as_long_as_the_lay_in_true_size(self):
        plot = lay_plot("Shirt", self.lay, PAPERS["roll90"])
        self.assertTrue(plot.data.startswith(b"IN;"))
        xs = [
            int(x)
            for line in plot.data.decode().splitlines()
            if line.startswith("PU") and "PD" in line
            for x in line.split("PD")[1].rstrip(";").split(",")[::2]
        ]
        self.assertAlmostEqual(max(xs) / 400, self.lay.length + 8.0 + 1.0, delta=0.1)  # behind the head and the edge


if __name__ == "__main__":
    unittest.main()
