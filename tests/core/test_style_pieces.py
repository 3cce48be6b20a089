"""Pieces that are added: closings, bands, yokes, linings, pockets, collars, skirts; each as long as what it is sewn to."""

import math
import unittest

from tests.bodies import UPPER
from tests.styling import BACK_PANEL, FRONT_PANEL, not_true, on, step
from widehem.core.style.where import Where

MIDDLE = Where("front", "centre_front")
BUTTONS = step("closing.stand", id="buttons", middle=MIDDLE)
NECK = Where("back", "neck")
WAIST = Where("back", "waist")


def lengths(made, name):
    seam = next(seam for seam in made.garment.seams if seam.name == name)
    return [made.garment.length_of(chain) for chain in seam.chains]


class Everywhere(unittest.TestCase):
    """On all eight bodies every seam of what is added holds, and nothing that was true is not any more."""

    def every(self, method, *steps, but=(), builds=UPPER, **options):
        for build in builds:
            with self.subTest(f"{method} {steps[-1].code} {build}"):
                made = on(method, *steps, build=build, **options)
                self.assertEqual([r.saying.text() for r in made.refused], [])
                self.assertEqual(not_true(made, but=but), [])
                self.assertEqual(made.stale, ())

    def test_closings(self):
        for method in ("bodice.plain", "bodice.measured", "top.jersey"):
            self.every(method, BUTTONS)
        self.every("bodice.plain", step("closing.overlap", middle=MIDDLE))
        for kind in ("zip", "hooks", "sham", "lacing", "bones", "placket"):
            self.every(
                "bodice.plain", step("closing.set", {"at": "centre_back", "down": 20, "by": kind}), builds=("typical", "child")
            )
        self.every("trousers.crease", step("closing.fly", {"down": 14}))

    def test_bands(self):
        for method in ("skirt.two_panel", "trousers.crease", "bodice.measured"):
            for cut in ("straight", "shaped"):
                self.every(method, step("band.waist", {"cut": cut}, edge=WAIST), builds=("typical", "full", "child", "belly"))
        self.every("trousers.crease", step("band.casing", edge=WAIST), step("band.casing", id="hem", edge=Where("back", "hem")))
        self.every("trousers.crease", step("band.loops"))

    def test_yokes(self):
        for method in ("skirt.two_panel", "trousers.crease", "trousers.frame"):
            steps = [
                step("yoke.cut", {"middle": 6, "side": 6}, id=name, edge=Where(name, "waist")) for name in ("back", "front")
            ]
            self.every(method, *steps)

    def test_peplums_and_skirts(self):
        peplum = step("skirt.peplum", waist=WAIST)
        self.every("bodice.measured", peplum)
        self.every("bodice.measured", FRONT_PANEL, BACK_PANEL, peplum)
        self.every("bodice.measured", step("skirt.join", waist=WAIST))

    def test_collars(self):
        for kind in ("band", "shirt", "flat", "hood"):
            for before in ((), (BUTTONS,)):
                self.every("bodice.plain", *before, step(f"collar.{kind}", neck=NECK))
        low = step("neck.shape", {"shape": "v", "wider": 1, "lower": 14})
        self.every("bodice.plain", low, step("collar.shawl", neck=NECK), but=("curves.radius",))

    def test_strips(self):
        for kind, part, edge in (("rib", 85, "neck"), ("binding", 100, "armhole"), ("frill", 200, "hem"), ("cuff", 100, "hem")):
            self.every("top.jersey", step("strip.along", {"kind": kind, "part": part}, edge=Where("back", edge)))
        self.every("top.jersey", step("strip.cut", {"long": "waist + 20"}))

    def test_inside(self):
        self.every("bodice.plain", step("lining.cut", {"opening": 12.0}), but=("curves.radius.lining",))
        self.every("bodice.measured", step("inside.upper", {"deep": 15}, piece=Where("front", "neck")))
        face = {"layer": "facing", "from": "underarm", "deep": 5}
        self.every("bodice.plain", step("inside.upper", face, piece=Where("front", "neck")))
        self.every("bodice.contour", step("bones.set", {"also": "middle"}), step("lining.cut", {"pleat": 0}))

    def test_pockets(self):
        placed = {"place": "middle", "below": 8.0, "wide": 11.0}
        for method in ("skirt.two_panel", "trousers.crease"):
            self.every(method, step("pocket.patch", {**placed, "low": 2, "high": 11, "tip": 1.6, "turned": 2.5}, beside=WAIST))
            self.every(method, step("pocket.welt", placed, beside=WAIST))
            self.every(method, step("pocket.seam", **{"from": Where("front", "side", "cm", 4, "waist")}))
        slant = step("pocket.slant", {"in_": 3.5, "down": 14.0}, side=Where("front", "side"))
        self.every(
            "trousers.crease", slant, but=("side.notches", "crease", "curves.waves"), builds=("typical", "slight", "tall")
        )

    def test_what_hangs_below(self):
        self.every("bodice.plain", step("length.run_on", {"long": 25}))
        self.every("bodice.plain", step("length.run_on", {"long": 85, "flare": 6, "ease": 14}))
        self.every("bodice.plain", step("cloak.drape"), step("collar.hood", neck=NECK))
        self.every("bodice.plain", step("length.run_on", {"long": 25}), step("seam.open", seam=Where("back", "side")))


class ByHand(unittest.TestCase):
    def test_a_stand_of_two_mirrors_the_neck(self):
        block, made = on("bodice.plain"), on("bodice.plain", BUTTONS)
        piece = made.garment.piece("front")
        self.assertAlmostEqual(piece.edge("neck").length, block.garment.piece("front").edge("neck").length, delta=1e-9)
        lap, old = piece.edge("neck_lap"), block.garment.piece("front").edge("neck")
        self.assertAlmostEqual(lap.end.x, -2.0, delta=1e-5)
        mirrored = next(
            old.parts[0].segments[i].at(t).y
            for i, t in old.parts[0].crossings(lap.end._replace(x=2.0), lap.end._replace(x=0.0, y=1.0))
        )
        self.assertAlmostEqual(lap.end.y, mirrored, delta=1e-5)

    def test_one_button_lies_at_the_bust(self):
        for build in UPPER:
            piece = on("bodice.plain", BUTTONS, build=build).garment.piece("front")
            bust = piece.levels["bust"]
            self.assertLess(min(abs(hole.y - bust) for hole in piece.holes), 1e-6, build)
            self.assertEqual(len(piece.holes), 6)

    def test_a_band_is_half_the_waist_and_its_lap(self):
        made = on("skirt.two_panel", step("band.waist", {"high": 3.5, "lap": 3.0}, edge=WAIST))
        band = made.garment.piece("waistband")
        half = made.garment.round_of("waist") / 2
        self.assertAlmostEqual(band.edge("waistband_edge").length, half, delta=1e-6)
        self.assertAlmostEqual(band.edge("waistband_outer").length, half + 3.0, delta=1e-6)
        self.assertAlmostEqual(band.edge("waistband_end").length, 7.0, delta=1e-9)

    def test_an_elastic_is_nine_tenths(self):
        made = on("trousers.crease", step("band.casing", {"part": 90, "high": 2.5}, edge=WAIST))
        waist = made.garment.round_of("waist")
        self.assertIn(f"Elastic, {waist * 0.9 + 2:.1f} long and 2.0 wide at most", made.notions[-1].text())

    def test_a_yoke_and_what_is_left_are_the_piece(self):
        block, made = on("skirt.two_panel"), on("skirt.two_panel", step("yoke.cut", {"middle": 6, "side": 6}, edge=WAIST))
        yoke, body = made.garment.piece("back_yoke"), made.garment.piece("back")
        self.assertAlmostEqual(yoke.edge("yoke_line").length, body.edge("yoke_line").length, delta=1e-6)
        self.assertAlmostEqual(yoke.edge("waist").length, block.garment.piece("back").edge("waist").length, delta=1e-6)
        self.assertEqual(yoke.darts, ())
        for dart in body.darts:
            self.assertAlmostEqual(dart.legs[0], dart.legs[1], delta=1e-6)

    def test_a_yoke_beyond_its_darts_names_one_that_would_fit(self):
        deep = on("skirt.two_panel", step("yoke.cut", {"middle": 18, "side": 18}, edge=WAIST)).refused[0].saying.text()
        self.assertRegex(deep, r"ends inside the yoke: one \d+\.\d cm deep would fit")

    def test_facing_and_lining_are_the_piece(self):
        for build in UPPER:
            made = on("bodice.plain", BUTTONS, step("facing.split", {"wide": 6.0}, edge=MIDDLE), build=build)
            area = {piece.name: piece.area for piece in made.garment.pieces}
            self.assertAlmostEqual(area["front_facing"] + area["front_lining"], area["front"], delta=0.01)

    def test_a_lining_has_its_pleat_and_is_shorter(self):
        block, made = (
            on("coat.straight", side="plain"),
            on("coat.straight", step("lining.cut", {"pleat": 2.0, "shorter": 2.0}), side="plain"),
        )
        old, new = block.garment.piece("back"), made.garment.piece("back_lining")
        self.assertAlmostEqual(new.bounds[0], old.bounds[0] - 1.0, delta=1e-6)
        self.assertAlmostEqual(new.bounds[3], old.bounds[3] - 2.0, delta=0.1)
        self.assertAlmostEqual(new.across("bust"), old.across("bust") + 1.0, delta=1e-3)

    def test_a_pocket_lies_level_halfway_and_is_drilled_inside(self):
        made = on(
            "trousers.crease", step("pocket.patch", {"place": "middle", "below": 8.0, "wide": 13.0, "high": 13.0}, beside=WAIST)
        )
        piece = made.garment.piece("back")
        place = next(line for line in piece.lines if line.name == "pocket_place").path
        a, b = place.segments[0].start, place.segments[0].end
        self.assertAlmostEqual(a.y, b.y, delta=1e-9)
        x = sorted(path.segments[i].at(t).x for path in piece.sewn_ring for i, t in path.crossings(a, b - a))
        self.assertAlmostEqual((a.x + b.x) / 2, (x[0] + x[-1]) / 2, delta=1e-6)
        self.assertTrue(all(0.25 < min(hole.to(a), hole.to(b)) < 0.35 for hole in piece.holes))

    def test_a_small_pocket_is_said_not_to_take_a_hand(self):
        made = on("trousers.crease", step("pocket.patch", {"wide": 9.0}, beside=WAIST))
        self.assertTrue(any("A hand" in note.text() for note in made.notes))

    def test_collars_are_as_long_as_the_neckline(self):
        for build in UPPER:
            for kind, name, edge in (
                ("band", "collar", "collar_neck"),
                ("shirt", "collar_stand", "stand_neck"),
                ("flat", "collar", "collar_neck"),
            ):
                made = on("bodice.plain", BUTTONS, step(f"collar.{kind}", neck=NECK), build=build)
                half = sum(e.length for _, e in made.garment.edges_of("neck"))
                self.assertAlmostEqual(made.garment.piece(name).edge(edge).length, half, delta=1e-4)

    def test_an_undercollar_is_smaller(self):
        made = on("bodice.plain", BUTTONS, step("collar.shirt", neck=NECK))
        over, under = made.garment.piece("collar"), made.garment.piece("undercollar")
        self.assertAlmostEqual(over.edge("centre_back").length - under.edge("centre_back").length, 0.3, delta=0.01)

    def test_a_fall_covers_its_stand(self):
        low = on("bodice.plain", step("collar.shirt", {"stand": 4.0, "fall": 3.0}, neck=NECK)).refused[0].saying.text()
        self.assertIn("make it 4.5 cm at least", low)

    def test_a_peplum_is_as_wide_as_the_body_there(self):
        made = on("bodice.measured", step("skirt.peplum", {"flare": 0.0, "angle": 0.0, "dip": 0.0, "slit": 0.0}, waist=WAIST))
        chart = made.chart
        body = chart.values["waist"] + (chart.values["hip"] - chart.values["waist"]) * 16.5 / chart.values["waist_hip"]
        ease = made.garment.round_of("waist") - chart.values["waist"]
        hem = sum(p.weight() * e.length for p, e in made.garment.edges_of("hem"))
        self.assertAlmostEqual(hem, body + ease, delta=0.01)

    def test_amounts_are_formulas_of_measures(self):
        made = on("top.jersey", step("strip.cut", {"long": "waist + 20", "count": 1}))
        self.assertAlmostEqual(made.garment.piece("tie").edge("tie_edge").length, 89.0, delta=1e-6)
        lost = on("top.jersey", step("strip.cut", {"long": "ankle + 3"}), chart=made.chart.without("ankle"))
        self.assertIn("ankle: measure it", lost.refused[0].saying.text())

    def test_bones_are_shorter_than_their_seams(self):
        made = on("bodice.contour", step("bones.set", {"short": 1.5}))
        panel = made.garment.piece("front").edge("panel").length
        self.assertTrue(
            any(f"2 bones of {panel - 1.5:.1f}" in n.text() for n in made.notions), [n.text() for n in made.notions]
        )

    def test_the_hood_is_as_deep_as_the_head_asks(self):
        made = on("bodice.plain", step("collar.hood", neck=NECK))
        self.assertGreater(made.garment.piece("hood").bounds[2], 0.42 * made.chart.values["head"])
        self.assertFalse(math.isnan(made.garment.piece("hood").area))


if __name__ == "__main__":
    unittest.main()
