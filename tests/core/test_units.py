"""Reading and writing lengths."""

import contextlib
import unittest
from fractions import Fraction

from hypothesis import given
from hypothesis import strategies as st

from widehem.core.units import TICKS_PER_CM, TICKS_PER_INCH, Display, LengthError, cm_of, parse_length, say, ticks_of, with_unit


class Parsing(unittest.TestCase):
    def test_a_unit_is_made_plain_once(self):
        for text, unit, plain in (
            ("70", "cm", "70 cm"),
            ("1000", "cm", "1000 cm"),
            ("900 cm", "in", "900 cm"),
            ("5 ft", "cm", "5 ft"),
            ("-2", "in", "-2 in"),
        ):
            self.assertEqual(with_unit(text, unit), plain)
        with self.assertRaises(LengthError):
            with_unit("1000", "in")

    def test_what_is_longer_than_any_length_is_refused_unread(self):
        for text in ("9" * 5000, "1/" * 40, "0." + "0" * 100, "½" * 61):
            with self.assertRaisesRegex(LengthError, "signs, no length has"):
                parse_length(text, "cm")
        self.assertEqual(parse_length("0" * 58 + "42", "cm").cm, 42)

    def test_ways_of_writing_a_length(self):
        inch = 2.54
        for text, unit, cm in (
            ("42.5", "cm", 42.5),
            ("42,5", "cm", 42.5),
            ("42.5 cm", "in", 42.5),
            ("425mm", "in", 42.5),
            ("16 3/4", "in", 16.75 * inch),
            ("16-3/4", "in", 16.75 * inch),
            ("16¾", "in", 16.75 * inch),
            ("16.75 in", "cm", 16.75 * inch),
            ('16 3/4"', "cm", 16.75 * inch),
            ("16 3/4 inches", "cm", 16.75 * inch),
            ("¾", "in", 0.75 * inch),
            ("5/8", "in", 0.625 * inch),
            ("4' 2\"", "cm", 50 * inch),
            ("5′4″", "cm", 64 * inch),
            ("4 ft 2 1/2", "cm", 50.5 * inch),
            ("1.64 m", "cm", 164),
            ("  70  ", "cm", 70),
            (",5", "cm", 0.5),
        ):
            with self.subTest(text):
                self.assertAlmostEqual(parse_length(text, unit).cm, cm, places=6)

    def test_what_was_typed_and_its_unit_are_kept(self):
        length = parse_length(" 16¾ in ", "cm")
        self.assertEqual((length.typed, length.unit), ("16¾ in", "in"))

    def test_fractions_and_tenths_of_a_millimetre_are_exact(self):
        self.assertEqual(parse_length("1/64", "in").ticks * 64, TICKS_PER_INCH)
        self.assertEqual(parse_length("0.01 mm", "cm").ticks * 1000, TICKS_PER_CM)
        self.assertEqual(parse_length("1 in", "cm").ticks, parse_length("2.54", "cm").ticks)

    def test_refusals_are_sentences_naming_what_was_typed(self):
        for text in ("", "abc", "-4", "−4", "12 stone", "12 13", "1/0", "9999", "12 cm 3", "nan", "1e9", "12''3''"):
            with self.subTest(text), self.assertRaises(LengthError) as caught:
                parse_length(text, "cm")
            words = str(caught.exception)
            self.assertTrue(words.endswith("."), words)
            self.assertIn(text.strip(), words)

    def test_a_least_value(self):
        with self.assertRaises(LengthError):
            parse_length("0", "cm", least_cm=0.5)

    @given(st.text(max_size=20), st.sampled_from(["cm", "in"]))
    def test_any_text_is_read_or_refused(self, text, unit):
        with contextlib.suppress(LengthError):
            self.assertGreaterEqual(parse_length(text, unit).ticks, 0)


class Showing(unittest.TestCase):
    def test_inches_as_the_nearest_fraction(self):
        inches = Display("in", 8)
        for cm, words in (
            (2.54, "1"),
            (38.625 * 2.54, "38 5/8"),
            (0.5 * 2.54, "1/2"),
            (0, "0"),
            (-1.27, "−1/2"),
            (0.05, "0"),
            (98, "38 5/8"),
        ):
            self.assertEqual(inches.length(cm), words)
        self.assertEqual(Display("in", 16).length(11 / 16 * 2.54), "11/16")

    def test_centimetres_have_one_place_and_a_true_minus(self):
        self.assertEqual([Display().length(v) for v in (70, 70.25, -2, -0.01)], ["70.0", "70.2", "−2.0", "0.0"])
        self.assertEqual(Display().signed(1.5), "+1.5")
        self.assertEqual(Display().setting(1.25), "1.25")
        self.assertEqual(Display().constant(1.5), "1.5")

    def test_sayings_are_said_in_either_unit(self):
        words = say("waist {0} and hip {1u}", 70, 98) + say("leave {0s}.", -2.54)
        self.assertEqual(words.text(), "waist 70.0 and hip 98.0 cm leave −2.5.")
        self.assertEqual(words.text(Display("in")), "waist 27 1/2 and hip 38 5/8 in leave −1.")

    @given(
        st.one_of(
            st.integers(1, 4000).map(lambda n: (f"{n / 10}", "cm")),
            st.integers(1, 3000).map(
                lambda n: (str(Fraction(n, 16)) if n % 16 == 0 or n < 16 else f"{n // 16} {Fraction(n % 16, 16)}", "in")
            ),
        ),
        st.sampled_from([8, 16]),
    )
    def test_typed_stored_shown_and_typed_again_is_the_same_to_a_sixteenth(self, typed, fraction):
        text, unit = typed
        stored = parse_length(text, unit).ticks
        self.assertEqual(ticks_of(cm_of(stored)), stored)
        for other in ("cm", "in"):
            shown = Display(other, fraction).length(cm_of(stored))
            again = parse_length(shown, other).ticks
            self.assertLessEqual(abs(again - stored), TICKS_PER_INCH / 16)


if __name__ == "__main__":
    unittest.main()
