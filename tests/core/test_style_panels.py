"""Panel lines: both edges alike, nothing lost at waist and bust, no corner; on named builds and random bodies."""

import unittest

from hypothesis import given, settings

from tests.bodies import UPPER, upper_bodies
from tests.some import tries
from tests.styling import BACK_PANEL, BUST_DART, FRONT_PANEL, bend_at, not_true, on, step
from widehem.core.pattern.checks.curves import curve_of
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.where import Where

TO_ARMHOLE = step("dart.swing", dart=BUST_DART, to=Where("front", "armhole", "part", 0.5))
FROM_ARMHOLE = step(
    "panel.line",
    top=Where("front", "armhole", "dart", "bust_dart"),
    bottom=FRONT_PANEL.wheres["bottom"],
    over=Where("front", "side"),
)


def sides(made, name):
    seam = next(seam for seam in made.garment.seams if seam.name == name)
    return [made.garment.length_of(chain) for chain in seam.chains]


class FromTheShoulder(unittest.TestCase):
    def test_edges_are_equal_and_nothing_is_lost(self):
        for build in UPPER:
            with self.subTest(build):
                block, made = on("bodice.measured", build=build), on("bodice.measured", FRONT_PANEL, BACK_PANEL, build=build)
                self.assertEqual(made.refused, ())
                for name in ("panel_front", "panel_back"):
                    one, two = sides(made, name)
                    self.assertAlmostEqual(one, two, delta=0.05)
                self.assertAlmostEqual(made.garment.round_of("waist"), block.garment.round_of("waist"), delta=0.01)
                self.assertAlmostEqual(made.garment.girth("bust"), block.garment.girth("bust"), delta=0.1)
                self.assertEqual(not_true(made), [])

    def test_the_waist_runs_on_over_the_line_and_the_line_over_the_shoulder(self):
        for build in UPPER:
            made = on("bodice.measured", FRONT_PANEL, BACK_PANEL, build=build)
            self.assertLess(bend_at(made, "waist", "panel"), 3.0, build)
            self.assertLess(bend_at(made, "panel", "shoulder"), 10.0, build)

    def test_no_turn_is_tighter_than_four(self):
        for build in UPPER:
            made = on("bodice.measured", FRONT_PANEL, BACK_PANEL, build=build)
            for piece, edge in made.garment.edges_of("panel"):
                for part in edge.parts:
                    self.assertGreater(curve_of(part, edge).radius, 4.0, f"{build} {piece.name}")

    def test_notches_stand_at_the_point_and_five_to_either_side(self):
        made = on("bodice.measured", FRONT_PANEL)
        for name in ("front", "side_front"):
            edge = made.garment.piece(name).edge("panel")
            at = {notch.name: notch.along for notch in edge.notches}
            self.assertEqual(set(at), {"panel above", "panel point", "panel below"})
            self.assertAlmostEqual(abs(at["panel above"] - at["panel point"]), 5.0, places=6)

    def test_what_stays_in_the_side_panel_is_said(self):
        made = on("bodice.measured", FRONT_PANEL, build="hourglass")
        self.assertTrue(any("stays in the side front" in note.text() for note in made.notes), [n.text() for n in made.notes])

    @settings(max_examples=tries(25), deadline=None)
    @given(upper_bodies())
    def test_any_body(self, chart):
        try:
            made = on("bodice.measured", FRONT_PANEL, chart=chart)
        except CannotDraft:
            return
        if made.refused:
            self.assertRegex(made.refused[0].saying.text(), r"\d|outline|leaves|crosses")
            return
        one, two = sides(made, "panel_front")
        self.assertAlmostEqual(one, two, delta=0.05)
        block = on("bodice.measured", chart=chart)
        self.assertAlmostEqual(made.garment.round_of("waist"), block.garment.round_of("waist"), delta=0.01)
        self.assertAlmostEqual(made.garment.girth("bust"), block.garment.girth("bust"), delta=0.6)


class FromTheArmhole(unittest.TestCase):
    def test_edges_and_bust(self):
        for build in ("typical", "full", "slight", "straight", "hourglass", "tall"):
            with self.subTest(build):
                block, made = on("bodice.measured", build=build), on("bodice.measured", TO_ARMHOLE, FROM_ARMHOLE, build=build)
                self.assertEqual(made.refused, ())
                one, two = sides(made, "panel_front")
                self.assertAlmostEqual(one, two, delta=0.01)
                self.assertAlmostEqual(made.garment.girth("bust"), block.garment.girth("bust"), delta=0.05)


class Refused(unittest.TestCase):
    def test_a_sliver_beside_the_line(self):
        near = step(
            "panel.line",
            top=Where("front", "shoulder", "cm", 0.3),
            bottom=FRONT_PANEL.wheres["bottom"],
            over=Where("front", "side"),
        )
        made = on("bodice.plain", near)
        self.assertIn(
            "Only 0.3 of the shoulder would be left beside the line: keep 1.0 cm from its ends", made.refused[0].saying.text()
        )

    def test_two_pieces(self):
        far = step("panel.line", top=Where("front", "shoulder"), bottom=Where("back", "waist"), over=Where("front", "side"))
        self.assertIn("two", on("bodice.plain", far).refused[0].saying.text())


if __name__ == "__main__":
    unittest.main()
