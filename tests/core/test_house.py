"""House values and limits: who wins over whom, out and in without loss, and what a closer or wider limit does to a verdict."""

import unittest

from fontTools.misc.transform import Transform
from hypothesis import given
from hypothesis import strategies as st

from tests.bodies import drafted, upper_build
from widehem.core.drafting.method import METHODS
from widehem.core.marking.house import (
    HouseValue,
    amounts_for,
    read_in,
    read_value,
    settings_for,
    value_words,
    values_for,
    written_out,
)
from widehem.core.pattern.limits import Limits
from widehem.core.pattern.truing import check_garment
from widehem.core.setting.option import OptionError

SKIRT = METHODS["skirt.two_panel"]


class Values(unittest.TestCase):
    def test_a_method_wins_over_every_method_and_what_does_not_fit_is_left_out(self):
        values = (
            HouseValue("", "e.waist", "1 cm"), HouseValue("skirt.two_panel", "e.waist", "2 cm"), HouseValue("", "o.cloth", "crisp"),
            HouseValue("", "e.hip", "25 cm"), HouseValue("sleeve.guide_box", "e.cap", "1.5 cm"), HouseValue("cloth", "a.hem", "5 cm"),
        )  # fmt: skip
        self.assertEqual(values_for(SKIRT, values), {"e.waist": "2 cm", "o.cloth": "crisp", "a.cloth.hem": "5 cm"})
        self.assertEqual(amounts_for("cloth", values_for(SKIRT, values)), {"hem": "5 cm"})
        self.assertEqual(amounts_for("toile", values_for(SKIRT, values)), {})

    def test_lengths_keep_the_unit_they_were_written_in(self):
        self.assertEqual(read_value("skirt.two_panel", "e.waist", "1/2", "in").text, "1/2 in")
        self.assertEqual(read_value("", "o.stretch", "40", "in").text, "40")
        self.assertEqual(read_value("toile", "a.hem", "2", "in").text, "2 in")

    def test_what_cannot_be_is_told_with_its_name_and_figure(self):
        for of, key, text, words in (
            ("skirt.two_panel", "e.waist", "90", "Waist ease 90.0 is outside −30.0 to 2.0 cm"),
            ("skirt.two_panel", "e.nothing", "1", 'Two-panel skirt block has no setting "e.nothing"'),
            ("nothing", "e.waist", "1", 'There is no method "nothing"'),
            ("cloth", "a.hem", "44", "Hem, straight: 44.0 is outside 0 to 15.0 cm"),
            ("cloth", "a.brim", "1", '"brim" is not a kind of edge'),
            ("", "o.cloth", "steel", '"steel" is not one of its ways'),
        ):
            with self.assertRaises(OptionError) as caught:
                read_value(of, key, text, "cm")
            self.assertIn(words, str(caught.exception))

    @given(st.lists(st.sampled_from([
        HouseValue("", "e.waist", "1 cm"), HouseValue("coat.straight", "o.cloth", "crisp"), HouseValue("cloth", "a.hem", "5 1/8 in"),
        HouseValue("", "o.corner_limit", "4"), HouseValue("sleeve.guide_box", "e.cap", "1.5 cm"),
    ]), unique=True))  # fmt: skip
    def test_a_file_gives_back_what_went_into_it(self, values):
        found, wrong = read_in(written_out(values).encode(), "cm")
        self.assertEqual((list(found), wrong), (values, ()))

    def test_every_option_of_every_method_can_be_set_to_its_own_default(self):
        for code in METHODS:
            for key, option in settings_for(code).items():
                if isinstance(option.default, str):
                    self.assertEqual(read_value(code, key, option.default, "cm").text, option.default)
                elif option.default is not None:
                    read_value(code, key, f"{option.default:g}", "cm")

    def test_words(self):
        options = settings_for("sleeve.guide_box")
        self.assertEqual(value_words("e.cap", options["e.cap"], "1.5 cm"), "cap ease 1.5 cm")
        self.assertEqual(value_words("o.cap_height", options["o.cap_height"], "low"), "cap low")


class HowNear(unittest.TestCase):
    def test_the_limit_that_is_set_is_the_limit_that_is_used_and_printed(self):
        garment = drafted(METHODS["bodice.measured"], upper_build()).garment
        front = garment.piece("front")
        low = max(point.y for edge in front.edges for point in (edge.start, edge.end))
        high = min(point.y for edge in front.edges for point in (edge.start, edge.end))
        garment = garment.with_piece(front.moved(Transform(1, 0, 0, 1 + 0.12 / (low - high), 0, 0)))

        def side(limits):
            return next(check for check in check_garment(garment, limits=limits) if check.name == "seam.side")

        apart = side(Limits()).figure
        self.assertTrue(0.02 < apart < 0.2, apart)
        self.assertEqual(side(Limits()).verdict, "true")
        close = side(Limits(seam=apart / 2))
        self.assertEqual(close.verdict, "look")
        self.assertAlmostEqual(close.high, apart / 2)

    def test_options_bring_it_to_every_check_of_a_draft(self):
        made = drafted(METHODS["bodice.measured"], upper_build(), {"seam_limit": 0.05, "corner_limit": 1.0, "legs_limit": 0.05})
        found = {check.name: check for check in made.checks}
        self.assertEqual(found["seam.side"].high, 0.05)
        self.assertEqual(found["curves.smooth"].high, 1.0)
        self.assertEqual(found["darts.legs"].high, 0.05)


if __name__ == "__main__":
    unittest.main()
