"""What was drawn before is drawn the same: every method by each of its earlier rules, against the figures of that time."""

import json
import unittest
from pathlib import Path

from tests.bodies import drafted, upper_build
from widehem.core.design.design import method_design
from widehem.core.design.make import make
from widehem.core.drafting.method import METHODS, armhole_of

KEPT = Path(__file__).with_name("earlier_rules.json")
BUILDS = ("typical", "child")


def by_rules(code, build, rules):
    """A method on a build by a version of its rules; a sleeve for its bodice by the first rules."""
    method, chart = METHODS[code], upper_build(build)
    hole = None
    if method.for_armhole:
        bodice = METHODS[method.made_for]
        hole = armhole_of(make(method_design(bodice, {}, {}).by_rules(1), chart).garment)
    return make(method_design(method, {}, {}).by_rules(rules), chart, armhole=hole)


def figures(made):
    found = {f"{piece.name}.{edge.name}": round(edge.length, 3) for piece in made.garment.pieces for edge in piece.edges}
    return found | {f"{piece.name} area": round(piece.area, 2) for piece in made.garment.pieces}


class Earlier(unittest.TestCase):
    def test_every_earlier_rule_draws_the_figures_of_its_time(self):
        kept = json.loads(KEPT.read_text())
        for code, method in METHODS.items():
            for rules in method.earlier:
                for build in BUILDS:
                    wanted = kept[f"{code} {rules} {build}"]
                    found = figures(by_rules(code, build, rules))
                    self.assertEqual(set(found), set(wanted), (code, rules, build))
                    for name, figure in wanted.items():
                        near = 0.3 if name.endswith("area") else 0.02
                        self.assertAlmostEqual(found[name], figure, delta=near, msg=f"{code} {rules} {build}: {name}")

    def test_every_method_that_changed_can_still_be_drawn_as_before(self):
        for code, method in METHODS.items():
            self.assertEqual(method.earlier, tuple(range(1, method.rules)), code)

    def test_defaults_of_before_come_with_their_rules(self):
        skirt = METHODS["skirt.two_panel"]
        now, then = (make(method_design(skirt, {}, {}).by_rules(rules), upper_build()) for rules in (None, 1))
        self.assertEqual((now.ease["waist"].value, then.ease["waist"].value), (1.5, 0.0))
        trousers = METHODS["trousers.crease"]
        now, then = (make(method_design(trousers, {}, {}).by_rules(rules), upper_build()) for rules in (None, 1))
        self.assertEqual((now.options["crotch"], then.options["crotch"]), ("measured", "drawn"))
        self.assertEqual(drafted(trousers, upper_build()).draft.rules, trousers.rules)


if __name__ == "__main__":
    unittest.main()
