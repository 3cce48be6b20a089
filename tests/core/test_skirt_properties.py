"""Any body there might be: a valid skirt, or a refusal that names its measures. Never anything else."""

import unittest

from hypothesis import HealthCheck, example, given, settings
from shapely import Polygon

from tests.bodies import drafted, girth, skirt_bodies, skirt_ease, skirt_settings
from tests.some import tries
from widehem.core.body.chart import chart_of
from widehem.core.drafting.method import METHODS
from widehem.core.geometry.points import angle_between
from widehem.core.marking.made import mark_up
from widehem.core.marking.plans import PLANS
from widehem.core.setting.refusal import CannotDraft

METHOD = METHODS["skirt.two_panel"]
MANY = settings(max_examples=tries(1000), deadline=None, suppress_health_check=[HealthCheck.too_slow])


class AnyBody(unittest.TestCase):
    @MANY
    @given(skirt_bodies(), skirt_settings, skirt_ease)
    @example(
        {"hip": 97.0, "waist": 42.0, "waist_hip": 13.0, "waist_knee": 25.0}, {}, {"waist": 0.0, "hip": 2.0}
    )  # folds past the centre
    def test_valid_or_refused_with_named_measures(self, body, options, ease):
        try:
            made = drafted(METHOD, chart_of(body), options, ease)
        except CannotDraft as refusal:
            self.assertTrue(refusal.measures)
            self.assertLessEqual(set(refusal.measures), set(body))
            self.assertRegex(refusal.saying.text(), r"\d")
            return
        back, front = made.garment.pieces
        for piece in made.garment.pieces:
            self.assertTrue(Polygon(piece.outline(0.02)).is_valid, piece.name)
            for dart in piece.darts:
                self.assertAlmostEqual(dart.legs[0], dart.legs[1], places=6)
                self.assertLess(dart.point.y, piece.levels["hip"] + 0.5, "a dart ends above the hip line")
            self.assertAlmostEqual(piece.edge("side").end.y, piece.edge("hem").start.y)
        self.assertAlmostEqual(back.edge("side").length, front.edge("side").length, delta=0.001)
        for level in made.girths:
            self.assertAlmostEqual(girth(made, level.name), level.body + level.planned, delta=0.1, msg=level.name)
        for piece in made.garment.pieces:
            waist = piece.edge("waist")
            self.assertLess(abs(waist.parts[0].leaving.y), 1e-6, "level at the centre")
            for dart, before, after in zip(waist.darts, waist.parts, waist.parts[1:], strict=False):
                closing = angle_between(before.arriving, dart.inner - dart.point) - angle_between(
                    after.leaving, dart.outer - dart.point
                )
                self.assertAlmostEqual(closing, 0, delta=0.01)
        worst = [check for check in made.checks if check.verdict == "not" and check.name != "opening"]
        self.assertFalse(worst, [str(check.message) for check in worst])

    @settings(max_examples=tries(25), deadline=None)
    @given(skirt_bodies(), skirt_settings)
    def test_every_pattern_can_be_marked_by_every_plan(self, body, options):
        try:
            made = drafted(METHOD, chart_of(body), options)
        except CannotDraft:
            return
        for plan in PLANS.values():
            for marked in mark_up(made, plan).pieces:
                cut, sewn = Polygon(marked.cut), Polygon(marked.piece.outline(0.02))
                self.assertTrue(cut.is_valid)
                self.assertTrue(cut.buffer(0.02).contains(sewn))


if __name__ == "__main__":
    unittest.main()
