"""A pocket, a facing, a lining, a cut through every dart, left and right on the pieces of every method: all still runs and is right."""

import json
import unittest
from dataclasses import replace

from tests.bodies import drafted, upper_build
from tests.some import some
from tests.styling import any_method, darts_of, through_dart
from widehem.core.design.design import Design, Step, steps_from
from widehem.core.design.make import Made, make
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.marking.made import mark_up
from widehem.core.marking.plans import PLANS
from widehem.core.output.json_draft import draft_as_json
from widehem.core.output.pdf_sheets import sheets_pdf
from widehem.core.output.sheets import PAPERS
from widehem.core.output.svg_board import board_svg
from widehem.core.pattern.check import Case
from widehem.core.pattern.checks.body import finished
from widehem.core.style.where import Where
from widehem.core.units import Display


def with_step(made: Made, code: str, **wheres: Where) -> Made:
    """The garment made again, with one step more."""
    method = made.method
    hole = armhole_of(drafted(METHODS[method.made_for], made.chart).garment) if method.for_armhole else None
    design = replace(made.design, steps=(*made.design.steps, Step(code, code, wheres=wheres)))
    return make(design, made.chart, armhole=hole)


def girths_of(made: Made) -> dict[str, float]:
    case = Case(made.garment, made.demands, made.wear)
    return {asked.name: finished(case, asked) for asked in made.girths}


def area_of(made: Made) -> float:
    """Cloth that goes round the body, square centimetres, both sides counted."""
    return sum(piece.area * piece.weight() for piece in made.garment.shell)


def every(test):
    """Run a test on the typical draft of each method, or of every other one."""

    def run(self):
        for code in some(METHODS, 2, len(test.__name__)):
            with self.subTest(code):
                test(self, any_method(code))

    return run


def widest(made: Made):
    return max(made.garment.shell, key=lambda piece: piece.area)


class EveryMethod(unittest.TestCase):
    def assert_all_follows(self, made: Made):
        """Checks, marks, paper, the board and a file can be had of it."""
        self.assertEqual(made.refused, ())
        names = [check.name for check in made.checks]
        self.assertEqual(len(set(names)), len(names), "no two checks of one name")
        pattern = mark_up(made, PLANS[made.method.allowances])
        cut = {laid.piece.name: laid for laid in pattern.pieces}
        for piece in made.garment.pieces:
            self.assertIn(piece.name, cut)
            left, top, right, bottom = cut[piece.name].bounds
            self.assertGreaterEqual((right - left) * (bottom - top), piece.area, piece.name)
        self.assertTrue(sheets_pdf(pattern, PAPERS["a4"]).startswith(b"%PDF"))
        self.assertIn("<path", board_svg(made, len(made.steps), Display("cm")))
        data = json.loads(json.dumps(draft_as_json(made)))
        self.assertEqual([piece["name"] for piece in data["pieces"]], [piece.name for piece in made.garment.pieces])

    def assert_added_only(self, before: Made, after: Made):
        """New pieces, and not one verdict or figure of what was there is another."""
        self.assertGreater(len(after.garment.pieces), len(before.garment.pieces))
        said = {check.name: (check.verdict, round(check.figure, 6)) for check in after.checks}
        for check in before.checks:
            self.assertEqual(said.get(check.name), (check.verdict, round(check.figure, 6)), check.name)
        self.assert_all_follows(after)

    @every
    def test_a_patch_pocket_changes_nothing_that_was_there(self, made):
        piece = widest(made)
        edge = max(piece.edges, key=lambda edge: edge.length)
        self.assert_added_only(made, with_step(made, "pocket.patch", beside=Where(piece.name, edge.name, "part", 0.5)))

    @every
    def test_a_facing_and_a_lining_change_nothing_that_was_there(self, made):
        piece = widest(made)
        edge = next(edge for edge in piece.edges if edge.role in ("hem", "wrist", "waist"))
        at = Where(piece.name, edge.name)
        self.assert_added_only(made, with_step(made, "facing.edge", edge=at))
        self.assert_added_only(made, with_step(made, "lining.copy", piece=at))

    @every
    def test_a_cut_through_each_dart_keeps_girths_and_sews(self, made):
        for piece, edge, dart in darts_of(made.garment):
            wheres = through_dart(piece, edge, dart)
            if wheres is None:
                continue
            cut = with_step(made, "line.cut", **wheres)
            self.assertEqual(len(cut.garment.pieces), len(made.garment.pieces) + 1)
            for name, figure in girths_of(made).items():
                # a dart that lies in a level: the level runs along the cut now, which is not square to the middle
                near = 0.8 if name == "bust" and edge == "side" else 0.05
                self.assertAlmostEqual(girths_of(cut)[name], figure, delta=near, msg=f"{name}, {dart.name}")
            known = {seam.name for seam in made.garment.seams}
            (seam,) = (seam for seam in cut.garment.seams if seam.name not in known and not seam.twin)
            apart = abs(cut.garment.length_of(seam.first) - cut.garment.length_of(seam.second))
            self.assertLessEqual(apart, abs(dart.legs[0] - dart.legs[1]) + 0.01, dart.name)
            self.assert_all_follows(cut)

    @every
    def test_left_and_right_apart_are_the_same_garment(self, made):
        both = with_step(made, "sides.apart")
        self.assertAlmostEqual(area_of(both), area_of(made), delta=0.01)
        for name, figure in girths_of(made).items():
            self.assertAlmostEqual(girths_of(both)[name], figure, places=4, msg=name)
        self.assert_all_follows(both)


class Steps(unittest.TestCase):
    def test_a_step_comes_back_from_a_file_as_it_was(self):
        place = Where("front", "waist", "dart", "front_dart_1", otherwise=Where("front", "waist", "part", 0.4))
        step = Step("a", "line.cut", {"ease": 1.5}, {"start": place}, {"piece": "yoke"}, True)
        self.assertEqual(steps_from(json.loads(json.dumps([step.as_data()]))), (step,))

    def test_a_step_that_does_not_fit_leaves_what_was_and_says_so(self):
        lost = Step("a", "pocket.patch", wheres={"beside": Where("front", "collar", "part", 0.5)})
        plain = make(Design("skirt.two_panel"), upper_build())
        made = make(Design("skirt.two_panel", steps=(lost,)), upper_build())
        self.assertEqual([refused.step for refused in made.refused], ["a"])
        self.assertEqual(made.garment, plain.garment)
        self.assertIn("collar", made.refused[0].saying.text())

    def test_a_step_left_out_is_not_done(self):
        cut = Step("a", "facing.edge", wheres={"edge": Where("front", "hem")})
        chart = upper_build()
        self.assertEqual(len(make(Design("skirt.two_panel", steps=(cut,)), chart).garment.pieces), 3)
        self.assertEqual(len(make(Design("skirt.two_panel", steps=(replace(cut, off=True),)), chart).garment.pieces), 2)


if __name__ == "__main__":
    unittest.main()
