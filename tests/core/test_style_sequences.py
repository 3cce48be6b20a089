"""Any recipe of any operations on any body: outlines stay simple, seams true, what refuses leaves what was, and it replays."""

import json
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.bodies import upper_bodies
from tests.some import tries
from tests.styling import BACK_PANEL, BUST_DART, FRONT_PANEL, recipe, step
from widehem.core.design.make import make
from widehem.core.output.json_draft import draft_as_json
from widehem.core.pattern.garment import Garment
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.where import Where

WAIST, NECK = Where("back", "waist"), Where("back", "neck")
SLEEVE = Where("sleeve", "underarm_back")
UPPER = (
    FRONT_PANEL, BACK_PANEL,
    step("dart.swing", {"part": 60}, dart=BUST_DART, to=Where("front", "side", "part", 0.7)),
    step("dart.release", dart=Where("front", "waist", "dart", "front_waist_dart_1")),
    step("dart.slide", {"by": 1.0}, dart=Where("back", "waist", "dart", "back_waist_dart_1")),
    step("bust.fuller", {"by": 1.0}, waist=Where("front", "waist", "under", "bust_point"), hinge=Where("front", "armhole", "notch", "pitch"),
        side=Where("front", "side", "part", 0.7)),
    step("ease.outer"), step("length.adjust", {"level": "waist", "below": -6, "by": 2}),
    step("neck.shape", {"shape": "v", "wider": 1, "lower": 6}), step("stand.grown"),
    step("seam.forward", **{"from": Where("front", "shoulder")}),
    step("closing.stand", middle=Where("front", "centre_front")),
    step("sleeve.set_in"), step("sleeve.full", sleeve=SLEEVE), step("sleeve.cuff", sleeve=SLEEVE), step("sleeve.two", sleeve=SLEEVE),
    step("sleeve.puff", sleeve=SLEEVE), step("sleeve.raglan", sleeve=SLEEVE), step("sleeve.kimono", {"long": 30}),
    step("skirt.circle", {"part": "half"}, waist=WAIST), step("skirt.peplum", waist=WAIST), step("skirt.join", waist=WAIST),
    step("yoke.cut", {"middle": 4, "side": 4}, edge=Where("front", "waist")), step("length.run_on"),
    step("band.waist", edge=WAIST), step("collar.shirt", neck=NECK), step("collar.flat", neck=NECK), step("collar.hood", neck=NECK),
    step("strip.along", edge=NECK), step("lining.cut"), step("facing.split", edge=Where("front", "centre_front")),
    step("inside.upper", piece=Where("front", "neck")), step("facing.edge", {"wide": 3}, edge=Where("front", "neck")),
    step("line.cut", start=Where("back", "centre_back", "part", 0.3), end=Where("back", "armhole", "part", 0.6)),
    step("seam.open", seam=Where("back", "side")), step("sides.apart"), step("pocket.patch", beside=Where("front", "side")),
)  # fmt: skip
LOWER = (
    step("flare.slash", hem=Where("front", "hem"), hinge=Where("front", "waist")),
    step("flare.seam", **{"from": Where("front", "side", "part", 0.5)}),
    step("yoke.cut", edge=Where("back", "waist")), step("yoke.cut", id="front yoke", edge=Where("front", "waist")),
    step("hem.raise", {"up": 4}, hem=Where("back", "hem")), step("hem.shape", hem=Where("back", "hem")),
    step("length.adjust", {"level": "hip", "below": 6, "by": 3}), step("dart.release", dart=Where("back", "waist", "dart", "back_dart_1")),
    step("band.waist", edge=WAIST), step("band.casing", edge=Where("back", "hem")), step("closing.fly", {"down": 12}),
    step("pocket.slant", {"in_": 3, "down": 13}, side=Where("front", "side")), step("pocket.seam", **{"from": Where("front", "side", "part", 0.1)}),
    step("pocket.patch", {"place": "middle", "below": 8}, beside=WAIST), step("skirt.circle", waist=WAIST), step("sides.apart"),
    step("lining.cut"), step("grain.turn", piece=WAIST), step("seam.open", seam=Where("back", "side")),
)  # fmt: skip
BLOCKS = {
    "bodice.plain": UPPER,
    "bodice.measured": UPPER,
    "top.jersey": UPPER,
    "skirt.two_panel": LOWER,
    "trousers.crease": LOWER,
}


def worst(garment: Garment) -> float:
    """How far the worst seam lies outside its ease, cm."""
    found = [0.0]
    for seam in garment.seams:
        over = garment.length_of(seam.first) - garment.length_of(seam.second)
        found.append(max(seam.ease[0] - over, over - seam.ease[1], 0.0))
    return max(found)


@st.composite
def recipes(draw):
    method = draw(st.sampled_from(sorted(BLOCKS)))
    steps = draw(st.lists(st.sampled_from(BLOCKS[method]), min_size=1, max_size=6, unique_by=lambda one: one.id))
    return method, tuple(steps)


class AnyRecipe(unittest.TestCase):
    @settings(max_examples=tries(60), deadline=None)
    @given(recipes(), upper_bodies())
    def test_it_stays_a_garment_or_says_why_not(self, found, chart):
        method, steps = found
        try:
            made = make(recipe(method, *steps), chart)
        except CannotDraft:
            return
        self.assertTrue(all(piece.simple for piece in made.garment.pieces))
        for refused in made.refused:
            self.assertTrue(refused.saying.text().endswith("."), refused.saying.text())
            self.assertNotIn("cannot be done on these pieces", refused.saying.text(), refused.step)
        json.dumps(draft_as_json(made))
        self.assertFalse([check.name for check in made.checks if check.name.startswith("broken")])
        block = make(recipe(method), chart)
        if not made.stale:
            self.assertLess(worst(made.garment), worst(block.garment) + 0.6, [s.id for s in steps])
        again = make(recipe(method, *steps), chart)
        self.assertEqual(again.garment, made.garment)


if __name__ == "__main__":
    unittest.main()
