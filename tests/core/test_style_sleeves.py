"""Sleeves: what each makes of the armhole, and its own lengths."""

import re
import unittest

from tests.bodies import UPPER
from tests.styling import not_true, on, step
from widehem.core.style.where import Where

SET = step("sleeve.set_in")
SLEEVE = Where("sleeve", "underarm_back")


class OnAllBodies(unittest.TestCase):
    def every(self, method, *steps, but=(), builds=UPPER):
        for build in builds:
            with self.subTest(f"{method} {steps[-1].code} {build}"):
                made = on(method, *steps, build=build)
                self.assertEqual([r.saying.text() for r in made.refused], [])
                self.assertEqual(not_true(made, but=but), [])

    def test_set_in_and_shaped(self):
        self.every("bodice.measured", SET)
        self.every("bodice.measured", SET, step("sleeve.full", {"longer": 0}, sleeve=SLEEVE))
        self.every("bodice.measured", SET, step("sleeve.full", sleeve=SLEEVE), step("sleeve.cuff", sleeve=SLEEVE))
        self.every("bodice.measured", SET, step("sleeve.two", sleeve=SLEEVE))
        puff = step("sleeve.puff", {"higher": "upper_arm / 12", "wider": "upper_arm / 6"}, sleeve=SLEEVE)
        self.every("bodice.measured", SET, puff, but=("curves.",))

    def test_grown(self):
        for method in ("bodice.plain", "top.jersey"):
            kimono = step("sleeve.kimono", {"long": "arm_length - 8", "gusset": 10})
            self.every(method, kimono, but=("curves.radius", "balance.underarm"))
            self.every(method, SET, step("sleeve.raglan", sleeve=SLEEVE))
            self.every(method, step("sleeve.flutter", armhole=Where("back", "armhole")))


class ByHand(unittest.TestCase):
    def test_a_cuff_is_the_wrist_and_its_ease(self):
        made = on(
            "bodice.measured",
            SET,
            step("sleeve.full", sleeve=SLEEVE),
            step("sleeve.cuff", {"high": 5, "ease": 4, "lap": 2}, sleeve=SLEEVE),
        )
        cuff, wrist = made.garment.piece("cuff"), made.chart.values["wrist"]
        self.assertAlmostEqual(cuff.edge("cuff_edge").length, wrist + 4, delta=1e-6)
        self.assertAlmostEqual(cuff.edge("cuff_outer").length, wrist + 6, delta=1e-6)
        block = on("bodice.measured", SET, step("sleeve.full", sleeve=SLEEVE))
        for name in ("underarm_back", "underarm_front"):
            one, two = (m.garment.piece("sleeve").edge(name).length for m in (made, block))
            self.assertAlmostEqual(one, two - 5.0, delta=1e-6)

    def test_a_hem_narrower_than_its_cuff_is_refused(self):
        tight = on("bodice.measured", SET, step("sleeve.cuff", {"ease": 14}, sleeve=SLEEVE)).refused[0].saying.text()
        self.assertRegex(tight, r"the cuff \d+\.\d cm narrower")

    def test_the_armhole_keeps_its_pitch_under_a_puff(self):
        block, made = on("bodice.measured", SET), on("bodice.measured", SET, step("sleeve.puff", sleeve=SLEEVE))
        one, two = (m.garment.piece("sleeve").edge("cap_back").notch("pitch").along for m in (block, made))
        self.assertAlmostEqual(one, two, delta=1e-6)
        self.assertEqual(
            made.garment.piece("sleeve").edge("underarm_back").parts, block.garment.piece("sleeve").edge("underarm_back").parts
        )

    def test_two_parts_have_the_cloth_of_one(self):
        for build in UPPER:
            block, made = (
                on("bodice.measured", SET, build=build),
                on("bodice.measured", SET, step("sleeve.two", sleeve=SLEEVE), build=build),
            )
            whole = block.garment.piece("sleeve").area
            self.assertAlmostEqual(sum(made.garment.piece(name).area for name in ("sleeve", "under_sleeve")), whole, delta=0.05)

    def test_raglan_seams_are_equal_and_the_neck_stays(self):
        for build in UPPER:
            block, made = (
                on("bodice.plain", build=build),
                on("bodice.plain", SET, step("sleeve.raglan", sleeve=SLEEVE), build=build),
            )
            for seam in made.garment.seams:
                if "raglan" in seam.name or "lower" in seam.name:
                    over = made.garment.length_of(seam.first) - made.garment.length_of(seam.second)
                    self.assertAlmostEqual(over, seam.ease[0], delta=0.05)
            one, two = (m.garment.round_of("neck") for m in (made, block))
            self.assertAlmostEqual(one, two, delta=1e-6)

    def test_a_kimono_that_runs_into_the_body_names_an_underarm_that_fits(self):
        for build, slope in (("full", 50.0), ("straight", 50.0), ("belly", 50.0)):
            asked = {"down": 0.0, "hem": 18.0, "slope": slope}
            (refused,) = on("bodice.plain", step("sleeve.kimono", asked, id="k"), build=build).refused
            named = re.search(r"put the underarm (\d+\.\d) down", refused.saying.text())
            made = on("bodice.plain", step("sleeve.kimono", {**asked, "down": float(named[1])}, id="k"), build=build)
            self.assertEqual(made.refused, ())
            just_less = {**asked, "down": float(named[1]) - 1.0}
            self.assertTrue(on("bodice.plain", step("sleeve.kimono", just_less, id="k"), build=build).refused)

    def test_kimono_seams_are_as_long_in_front_as_behind(self):
        for build in UPPER:
            made = on("bodice.plain", step("sleeve.kimono", {"long": 40}), build=build)
            for role in ("shoulder", "underarm"):
                front, back = (next(e.length for e in made.garment.piece(n).edges if e.role == role) for n in ("front", "back"))
                self.assertAlmostEqual(front, back, delta=0.06, msg=f"{build} {role}")

    def test_a_sleeve_is_stale_when_its_armhole_changes_after_it(self):
        made = on("bodice.plain", SET, step("ease.outer"))
        self.assertEqual(made.stale, ("sleeve",))
        self.assertTrue(any("move the step that makes it further down" in note.text() for note in made.notes))


if __name__ == "__main__":
    unittest.main()
