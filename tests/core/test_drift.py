"""Where rules leave the chart behind, and figures of a table from a size on, which are the cure."""

import io
import unittest
from itertools import pairwise

from pypdf import PdfReader

from tests.nests import grading
from widehem.core.grading.drift import drifts
from widehem.core.grading.first_table import FIRST
from widehem.core.grading.increments import eases
from widehem.core.grading.nest import grade
from widehem.core.grading.own import OwnRule
from widehem.core.grading.tables import Rule, RuleTable
from widehem.core.output.pdf_ruler import _cards, ruler_pdf
from widehem.core.output.sheets import PAPERS


def told(nest):
    return [words.text() for words in drifts(nest)]


def from_on(since, out):
    """The first table with another figure for the side at the waist so many steps from the base on, back and front."""
    table = FIRST
    for kind in ("upper_back", "upper_front"):
        for pattern in ("side/waist", "side@waist"):
            table = table.with_rule(kind, Rule(pattern, out, 0.0), since)
    return table


class Drift(unittest.TestCase):
    def test_ease_lost_by_hand(self):
        """Curved: bust 76 by 4 to size 8, then by 6; waist 58 by 4, then by 7. The base is size 5. By the table the waist grows as the bust
        does: four steps after the break it has 4 cm less ease."""
        nest = grade(grading("bodice.measured"))
        ease = {size: eases(one)["Waist, ease"][0] for size, one in nest.sizes.items()}
        self.assertAlmostEqual(ease[7] - ease[4], 0.0, delta=0.02)
        for size in (8, 9, 10, 11):
            self.assertAlmostEqual(ease[size] - ease[4], 7.0 - size, delta=0.03)
        lines = told(nest)
        self.assertRegex(lines[0], r"^Waist, ease in size 12: −?[\d.]+, 4\.0 cm less than in the base\.$")
        self.assertIn("other figures from a size on", lines[-1])

    def test_figures_from_the_break_on_keep_the_ease(self):
        """7 cm a step of waist on 6 of bust: 1.1667 of the step of 4."""
        nest = grade(grading("bodice.measured", table=from_on(4, 7 / 6)))
        ease = {size: eases(one)["Waist, ease"][0] for size, one in nest.sizes.items()}
        self.assertLess(max(ease.values()) - min(ease.values()), 0.05)
        self.assertEqual([line for line in told(nest) if line.startswith("Waist")], [])
        plain = grade(grading("bodice.measured"))
        for size in range(8):  # up to the break nothing is another
            self.assertAlmostEqual(
                nest.sizes[size].garment.girth("waist"), plain.sizes[size].garment.girth("waist"), delta=1e-6
            )

    def test_children_grow_in_length(self):
        lines = told(grade(grading("bodice.measured", "child")))
        self.assertRegex("\n".join(lines), r"in size \d+: \d+\.\d cm (longer|shorter) than drawn anew\.")
        self.assertEqual(told(grade(grading("bodice.measured", "child", "proposed"))), [])
        self.assertEqual(told(grade(grading("bodice.measured", "child", "redraft"))), [])

    def test_a_rule_of_the_maker_moves_a_seam_evenly_in_every_size(self):
        """Hem and side up 0.3: between 11 and 12 the side of the shirt stands within 1 cm of plumb, and shares no other way for that."""
        own = tuple(OwnRule(piece, "hem/side", 1.0, -0.3) for piece in ("back", "front"))
        nest = grade(grading("shirt", own=own))
        ease = [eases(nest.sizes[size])["Waist, ease"][0] for size in range(7, 12)]
        steps = [b - a for a, b in pairwise(ease)]
        self.assertLess(max(steps) - min(steps), 0.05, steps)

    def test_nothing_is_told_near_the_base(self):
        self.assertEqual(told(grade(grading("bodice.measured"), (3, 4, 5))), [])


class Bands(unittest.TestCase):
    def test_put_in_changed_and_taken_away(self):
        table = from_on(4, 1.2)
        self.assertEqual([rule.out for rule in table.rules_of("upper_back", 4)], [1.2, 1.2])
        self.assertEqual(table.rules_of("upper_back"), FIRST.rules_of("upper_back"))
        again = table.with_rule("upper_back", Rule("side/waist", 1.3, 0.1), 4)
        self.assertEqual(sorted(rule.out for rule in again.rules_of("upper_back", 4)), [1.2, 1.3])
        self.assertEqual(RuleTable.from_data("x", "X", again.as_data()).bands, again.bands)
        for kind in ("upper_back", "upper_front"):
            for pattern in ("side/waist", "side@waist"):
                table = table.without(kind, pattern, 4)
        self.assertEqual(dict(table.bands), {})

    def test_how_far_a_spot_has_moved(self):
        """1 a step, from the second step up 1.2: 1, 2.2, 3.4; downwards it stays 1 a step."""
        table = from_on(2, 1.2)
        moved = {steps: table.moved("upper_back", "side/waist", steps)[0] for steps in (-3, -1, 0, 1, 2, 3)}
        self.assertEqual(
            {steps: round(out, 6) for steps, out in moved.items()}, {-3: -3.0, -1: -1.0, 0: 0.0, 1: 1.0, 2: 2.2, 3: 3.4}
        )

    def test_the_ruler_has_their_dots(self):
        table = from_on(-2, 0.5).with_rule("sleeve", Rule("cap#3", 0.4, 0.0), 3)
        cards = {card.name: card.dots for card in _cards(table, "upper_front")}
        self.assertAlmostEqual(cards["side/waist"][-3][0], -2.0)
        self.assertAlmostEqual(cards["side/waist"][3][0], 3.0)
        only_then = {card.name: card.dots for card in _cards(table, "sleeve")}["cap#3"]
        self.assertEqual([only_then[step][0] for step in (1, 2, 3)], [0.0, 0.0, 0.4])
        words = "".join(page.extract_text() for page in PdfReader(io.BytesIO(ruler_pdf(table, PAPERS["a4"]))).pages)
        self.assertIn("cap#3", words)


if __name__ == "__main__":
    unittest.main()
