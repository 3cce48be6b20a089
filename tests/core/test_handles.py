"""Where an amount is pulled: the place answers as it says, on several bodies."""

import unittest

from tests.styling import on
from widehem.core.design.make import context_of
from widehem.core.style.handles import handles
from widehem.core.style.operation import OPERATIONS, run
from widehem.core.style.where import Where


def found_on(build, code, settings=None, wheres=None):
    made = on("bodice.measured", build=build)
    return made, handles(OPERATIONS[code], made.garment, context_of(made), settings or {}, wheres or {}, {})


class Handles(unittest.TestCase):
    def test_half_a_centimetre_more_moves_the_place_half_of_its_way(self):
        for build in ("typical", "full", "tall", "child"):
            for code in ("neck.shape", "ease.outer"):
                made, pulls = found_on(build, code)
                self.assertTrue(pulls, (build, code))
                for pull in pulls:
                    with self.subTest(build=build, code=code, amount=pull.code):
                        settings = {pull.code: pull.value + 0.5}
                        now = run(OPERATIONS[code], made.garment, context_of(made), settings).garment.piece(pull.piece)
                        there = pull.at + pull.way * 0.5
                        near = min(
                            there.to(edge.parts[0].start) if n == 0 else there.to(path.place(path.length * n / 400).point)
                            for edge in now.edges for path in edge.parts for n in range(401)
                        )  # fmt: skip
                        self.assertLess(near, 0.12)

    def test_the_front_lower_is_pulled_straight_down_at_the_centre_front(self):
        made, pulls = found_on("typical", "neck.shape")
        pull = next(pull for pull in pulls if pull.code == "lower")
        self.assertEqual(pull.piece, "front")
        self.assertAlmostEqual(pull.way.x, 0.0, delta=1e-6)
        self.assertAlmostEqual(pull.way.y, 1.0, delta=1e-3)
        middle = made.garment.piece("front").edge(made.garment.piece("front").middle)
        self.assertLess(min(abs(pull.at.x - middle.start.x), abs(pull.at.x - middle.end.x)), 1e-6)

    def test_what_does_not_fit_and_what_is_a_formula_has_none(self):
        self.assertEqual(found_on("typical", "neck.shape", {"wider": 11.9})[1], [])
        codes = {pull.code for pull in found_on("typical", "neck.shape", {"wider": "waist * 0.02"})[1]}
        self.assertNotIn("wider", codes)
        nowhere = Where("nose", "armhole", "part", 0.5)
        self.assertEqual(found_on("typical", "bust.fuller", {}, {"waist": nowhere, "hinge": nowhere, "side": nowhere})[1], [])

    def test_two_are_not_in_one_place(self):
        for build in ("typical", "straight"):
            pulls = found_on(build, "ease.outer")[1]
            for n, one in enumerate(pulls):
                for other in pulls[:n]:
                    self.assertFalse(one.piece == other.piece and one.at.to(other.at) < 1.5)


if __name__ == "__main__":
    unittest.main()
