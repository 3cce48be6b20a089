"""The two-panel skirt against figures worked out by hand, and its choices and refusals."""

import unittest

from tests.bodies import drafted, girth, skirt
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft

TRUED = 0.3  # cm: how far truing the waist may move a side point from where it is laid off


def girths(draft):
    return {level.name: girth(draft, level.name) for level in draft.girths}


class FixedDarts(unittest.TestCase):
    """Typical: waist 69, hip 94, no waist ease, 3 round the hip: k = 25 / 4 - 2.5 = 3.75."""

    def setUp(self):
        self.draft = skirt("typical")
        self.back, self.front = self.draft.garment.pieces
        self.points = self.draft.points

    def test_frame(self):
        for name, x, y in (
            ("cb_waist", 0, 0), ("cb_hip", 0, 20.5), ("cb_hem", 0, 59), ("cf_waist", 48.5, 0), ("cf_hip", 48.5, 20.5),
            ("cf_hem", 48.5, 59), ("side_hip", 25, 20.5), ("side_hem", 25, 59),
        ):  # fmt: skip
            self.assertAlmostEqual(self.points[name].x, x, msg=name)
            self.assertAlmostEqual(self.points[name].y, y, msg=name)

    def test_side_points_are_the_waist_widths_from_the_centres_raised(self):
        for name, x in (("back_side_waist", 69 / 4 + 4), ("front_side_waist", 48.5 - (69 / 4 + 2.5))):
            self.assertAlmostEqual(self.points[name].x, x, delta=0.1, msg=name)
            self.assertAlmostEqual(self.points[name].y, -1.25, delta=0.05, msg=name)

    def test_darts(self):
        darts = {dart.name: dart for piece in (self.back, self.front) for dart in piece.darts}
        self.assertEqual(list(darts), ["back_dart_1", "back_dart_2", "front_dart_1"])
        # thirds of a guide from (0, 0) to (21.25, -1.25), axes square to it: 1/17 of the length sideways
        for name, intake, length, x, y in (
            ("back_dart_1", 2, 14, 7.083 + 14 * 1.25 / 21.287, -0.417 + 14 * 21.25 / 21.287),
            ("back_dart_2", 2, 13, 14.167 + 13 * 1.25 / 21.287, -0.833 + 13 * 21.25 / 21.287),
            ("front_dart_1", 2.5, 12, 13.167 + 12 * 1.25 / 19.79, -0.833 + 12 * 19.75 / 19.79),
        ):
            dart = darts[name]
            self.assertAlmostEqual(dart.intake, intake, msg=name)
            self.assertAlmostEqual(dart.length, length, msg=name)
            self.assertAlmostEqual(dart.point.x, x, delta=0.08, msg=name)
            self.assertAlmostEqual(dart.point.y, y, delta=0.05, msg=name)

    def test_the_side_stands_half_a_centimetre_proud(self):
        from widehem.core.geometry.points import Point

        side = self.back.edge("side").parts[0]
        top, hip = side.start, Point(25, 20.5)
        way = (hip - top).unit()
        proud = max(abs((p - top).cross(way)) for p in side.segments[0].flat(0.001))
        self.assertAlmostEqual(proud, 0.5, delta=0.005)

    def test_girths_and_seams(self):
        self.assertAlmostEqual(girths(self.draft)["waist"], 69, delta=0.01)
        self.assertAlmostEqual(girths(self.draft)["hip"], 97, delta=0.001)
        self.assertAlmostEqual(self.back.edge("side").length, self.front.edge("side").length, places=4)
        self.assertAlmostEqual(self.back.edge("centre_back").length, 59)

    def test_the_school_is_told_with_its_figures(self):
        self.assertIn("waist 69.0 and hip 94.0 leave 3.8 for the side", self.draft.notes[0].text())
        share = next(entry for step in self.draft.steps for entry in step.sums if entry.name == "side's share")
        self.assertAlmostEqual(float(share.quantity), 3.75)
        self.assertEqual(set(share.quantity.measures()), {"hip", "waist"})

    def test_ease_and_even_share(self):
        draft = skirt("typical", {"ease_place": "even"}, {"waist": 1, "hip": 4})
        self.assertAlmostEqual(draft.points["side_hip"].x, 94 / 4 + 1)
        self.assertAlmostEqual(girths(draft)["waist"], 70, delta=0.01)
        self.assertAlmostEqual(girths(draft)["hip"], 98, delta=0.001)
        back, front = draft.garment.pieces
        self.assertAlmostEqual(back.edge("side").length, front.edge("side").length, places=4)
        self.assertLess(
            draft.points["back_side_waist"].y, draft.points["front_side_waist"].y, "the front comes in more, so it is lowered"
        )


class SharedDarts(unittest.TestCase):
    def test_full_figure(self):
        """Waist 88, hip 100: T = 51.5 - 44 = 7.5, s = 1.5, R = 4.5, back 2.7 and front 1.8, one dart each."""
        draft = skirt("full")
        self.assertIn("waist 88.0 and hip 100.0 leave 0.5 for the side, fixed darts want 1.0 to 4.5", draft.notes[0].text())
        back, front = draft.garment.pieces
        self.assertEqual([(round(d.intake, 6), round(d.length, 2)) for d in back.darts], [(2.7, 14.34)])
        self.assertEqual([(round(d.intake, 6), round(d.length, 2)) for d in front.darts], [(1.8, 12.29)])
        self.assertAlmostEqual(draft.points["back_side_waist"].x, 25.0, delta=0.1)
        self.assertAlmostEqual(draft.points["front_side_waist"].x, 51.5 - 23.5, delta=0.1)
        self.assertAlmostEqual(draft.points["back_side_waist"].y, -0.5, delta=0.05)
        self.assertAlmostEqual(back.darts[0].middle.x, 12.5, delta=0.1, msg="one back dart stands at the half")
        self.assertAlmostEqual(
            front.darts[0].middle.x, 23.5 * 2 / 3, delta=0.1, msg="one front dart at the third nearer the side"
        )

    def test_hourglass(self):
        """Waist 62, hip 104, 22 deep: T = 22.5, s = 3 at most, R = 16.5, back 9.9 in three, front 6.6 in two."""
        back, front = skirt("hourglass").garment.pieces
        self.assertEqual([round(d.intake, 6) for d in back.darts], [3.3] * 3)
        self.assertEqual([round(d.length, 2) for d in back.darts], [15.02, 14.49, 13.95])
        self.assertEqual([round(d.intake, 6) for d in front.darts], [3.3] * 2)
        self.assertEqual([round(d.length, 2) for d in front.darts], [10.73, 11.80])

    def test_a_share_too_small_for_a_dart_goes_to_its_side(self):
        """Waist 98, hip 100: T = 2.5, s = 0.5, R = 1.5: 0.9 and 0.6 are no darts."""
        draft = skirt("full", waist=98)
        self.assertEqual([piece.darts for piece in draft.garment.pieces], [(), ()])
        self.assertAlmostEqual(draft.points["back_side_waist"].x, 26.5 - 1.4, delta=0.1)
        self.assertAlmostEqual(draft.points["front_side_waist"].x, 51.5 - (25 - 1.1), delta=0.1)
        back, front = draft.garment.pieces
        self.assertAlmostEqual(back.edge("side").length, front.edge("side").length, places=4)

    def test_it_can_be_asked_for(self):
        draft = skirt("typical", {"school": "shared"})
        self.assertEqual(len(draft.garment.piece("back").darts), 2)  # T = 14, s = 2.8, R = 8.4, back 5.04
        self.assertAlmostEqual(draft.garment.piece("back").darts[0].intake, 2.52)

    def test_a_round_figure_leans_out(self):
        draft = skirt("round")
        self.assertAlmostEqual(draft.points["back_side_waist"].x, 104 / 4 + 1.5 + 2, delta=0.1)
        words = " ".join(note.text() for note in draft.notes)
        self.assertIn("leans out 2.0", words)
        self.assertNotIn("over the belly", words)
        self.assertIn("over the belly", " ".join(note.text() for note in skirt("round", waist=118).notes))
        self.assertAlmostEqual(girths(draft)["waist"], 115, delta=0.01)


class Refusals(unittest.TestCase):
    def refused(self, build="typical", options=None, **changes):
        with self.assertRaises(CannotDraft) as caught:
            skirt(build, options, **changes)
        return caught.exception

    def test_no_room_for_darts(self):
        refusal = self.refused(waist_hip=11)
        self.assertEqual(refusal.measures, ("waist_hip",))
        self.assertIn("11.0", refusal.saying.text())

    def test_too_short(self):
        self.assertEqual(set(self.refused(waist_knee=28).measures), {"waist_knee", "waist_hip"})
        self.assertIn("25.0", self.refused(options={"length": 25}).saying.text())

    def test_more_to_lose_than_darts_can_hold(self):
        refusal = self.refused(waist=60, hip=170)
        self.assertEqual(set(refusal.measures), {"waist", "hip"})
        self.assertIn("170.0", refusal.saying.text())

    def test_missing_measures_are_named(self):
        from widehem.core.body.chart import chart_of
        from widehem.core.drafting.method import METHODS

        with self.assertRaises(CannotDraft) as caught:
            drafted(METHODS["skirt.two_panel"], chart_of({"waist": 70, "hip": 98}))
        self.assertEqual(caught.exception.measures, ("waist_hip", "waist_knee"))
        drafted(METHODS["skirt.two_panel"], chart_of({"waist": 70, "hip": 98, "waist_hip": 20}), {"length": 60})

    def test_settings_out_of_range_name_themselves(self):
        for options, ease, words in (
            ({"side_up": 5}, {}, "Side raised 5.0"),
            ({}, {"hip": 9}, "Hip ease 9.0"),
            ({"school": "mine"}, {}, "mine"),
            ({"colour": 1}, {}, "colour"),
        ):
            with self.subTest(words), self.assertRaises(OptionError) as caught:
                skirt("typical", options, ease)
            self.assertIn(words, str(caught.exception))


class Steps(unittest.TestCase):
    def test_every_step_draws_or_sums_something_and_what_is_rubbed_out_was_there(self):
        for build in ("typical", "hourglass", "round", "child"):
            draft = skirt(build)
            for step in draft.steps:
                self.assertTrue(step.sums or any(mark.step == step.number for mark in draft.marks), step.title)
            drawn = {mark.name: mark.step for mark in draft.marks}
            for name, gone in draft.draft.rubbed_out.items():
                self.assertIn(name, drawn | {"waist_level": 0})
                self.assertTrue(drawn.get(name, 0) < gone <= len(draft.steps), name)

    def test_the_finished_lines_are_the_pieces(self):
        draft = skirt("typical")
        drawn = {(mark.piece, mark.edge) for mark in draft.marks if mark.role == "finished" and mark.edge}
        self.assertEqual(drawn, {(piece.name, edge.name) for piece in draft.garment.pieces for edge in piece.edges})

    def test_opening_decides_how_the_back_is_cut(self):
        self.assertEqual([p.stands for p in skirt("typical").garment.pieces], ["pair", "fold"])
        self.assertEqual([p.stands for p in skirt("typical", {"opening_at": "side"}).garment.pieces], ["fold", "fold"])

    def test_levels_are_measured_by_name(self):
        draft = skirt("typical")
        self.assertAlmostEqual(draft.garment.girth("hip"), 97)


if __name__ == "__main__":
    unittest.main()
