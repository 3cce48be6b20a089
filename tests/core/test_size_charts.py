"""Size charts: steps, breaks, the figure that falls out; CSV both ways; charts made of wearers."""

import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.some import tries
from widehem.core.body.chart import chart_of
from widehem.core.body.doubts import doubts
from widehem.core.grading.from_wearers import from_company, from_one
from widehem.core.grading.house_charts import HOUSE
from widehem.core.grading.mix import fits
from widehem.core.grading.size_chart import SizeChart, SizeChartError, lettered, odd_ones
from widehem.core.output.sizes_csv import sizes_csv, sizes_from_csv
from widehem.core.output.svg_sizes import steps_svg
from widehem.core.units import Display

CURVED = HOUSE["curved"]


class House(unittest.TestCase):
    def test_figures_by_hand(self):
        for code, measure, size, value in (
            ("curved", "bust", 4, 92.0), ("curved", "bust", 8, 110.0), ("curved", "waist", 11, 114.0), ("curved", "underarm_waist", 9, 19.9),
            ("straight", "bust", 3, 96.0), ("straight", "waist_bust", 9, 18.0), ("child", "height", 4, 122.0), ("child", "bust", 9, 78.0),
        ):  # fmt: skip
            with self.subTest(code=code, measure=measure):
                self.assertAlmostEqual(HOUSE[code].rows[measure][size], value, 6)
        self.assertEqual(
            [(len(c), c.base, c.key) for c in HOUSE.values()], [(12, 4, "bust"), (10, 3, "bust"), (10, 4, "height")]
        )
        self.assertNotIn("waist_under_bust", HOUSE["child"].rows)

    def test_no_column_is_doubted_and_no_increment_flagged(self):
        for chart in HOUSE.values():
            with self.subTest(chart.code):
                self.assertEqual([list(doubts(body)) for body in chart.columns], [[]] * len(chart))
                self.assertEqual((chart.odd, chart.doubts), ({}, ()))

    def test_breaks_letters_and_names(self):
        self.assertEqual(CURVED.breaks("bust"), (7,))
        self.assertEqual(CURVED.breaks("shoulder"), ())
        self.assertEqual(CURVED.letters, ("XS", "", "S", "", "M", "", "L", "", "XL", "", "XXL", ""))
        self.assertEqual((CURVED.called(4), CURVED.called(5), CURVED.number("L"), CURVED.number("7")), ("5 (M)", "6", 6, 6))
        self.assertEqual(lettered(3, 1), ("", "M", ""))
        with self.assertRaisesRegex(SizeChartError, 'no size "99"'):
            CURVED.number("99")

    def test_what_cannot_be_a_chart_is_refused_by_name(self):
        row = {"bust": (80.0, 84.0)}
        for words, arguments in (
            ("One size|sizes; this one has 1", (("1",), ("",), 0, {"bust": (80.0,)})),
            ("called", (("1", "1"), ("", ""), 0, row)),
            ("base is size number 3", (("1", "2"), ("", ""), 2, row)),
            ("no such row", (("1", "2"), ("", ""), 0, {"hip": (80.0, 84.0)})),
            ("Waist has 1 values for 2 sizes", (("1", "2"), ("", ""), 0, {**row, "waist": (60.0,)})),
            ("not a measure", (("1", "2"), ("", ""), 0, {**row, "girdle": (1.0, 2.0)})),
        ):
            sizes, letters, base, rows = arguments
            with self.subTest(words), self.assertRaisesRegex(SizeChartError, words):
                SizeChart("x", "X", "curved", "bust", sizes, letters, base, rows)


class Odd(unittest.TestCase):
    def test_a_wrong_figure_is_found_wherever_it_stands(self):
        found = other = tried = 0
        for chart in HOUSE.values():
            for row in chart.rows.values():
                for at in range(len(row)):
                    wrong = [value + (0.5 if n == at else 0.0) for n, value in enumerate(row)]
                    odd = odd_ones(wrong, 0.2, chart.breaks(chart.key))
                    tried += 1
                    found += any(one.at == at for one in odd)
                    other += any(one.at != at for one in odd)
        self.assertGreaterEqual(found / tried, 0.87)
        self.assertLessEqual(other / tried, 0.03)

    def test_it_is_said_with_the_figure_its_neighbours_run_to(self):
        wrong = CURVED.with_value("hip", 4, 98.2)
        self.assertEqual([(code, size) for code, size, _ in wrong.doubts], [("hip", 4)])
        self.assertIn("98.2", wrong.doubts[0][2].text())
        self.assertIn("99.0", wrong.doubts[0][2].text())
        self.assertIn('class="bar-odd"', steps_svg(wrong.steps("hip"), [4]))
        self.assertNotIn("bar-odd", steps_svg(CURVED.steps("hip")))

    @given(st.lists(st.sampled_from([2.0, 3.0, 4.0]), min_size=1, max_size=3), st.integers(3, 6))
    @settings(max_examples=tries(60), deadline=None)
    def test_breaks_are_no_odd_ones(self, steps, run):
        values, breaks = [80.0], []
        for step in steps:
            for _ in range(run):
                values.append(values[-1] + step)
            breaks.append(len(values) - 1)
        self.assertEqual(odd_ones(values, 0.2, breaks[:-1]), ())


class Files(unittest.TestCase):
    def test_out_and_in_again(self):
        for chart in HOUSE.values():
            for unit, near in (("cm", 1e-9), ("in", 0.0002)):
                back = sizes_from_csv(sizes_csv(chart, Display(unit)))
                self.assertEqual(
                    (back.sizes, back.letters, back.base, back.key, back.figure),
                    (chart.sizes, chart.letters, chart.base, chart.key, chart.figure),
                )
                self.assertLess(
                    max(abs(a - b) for code in chart.rows for a, b in zip(chart.rows[code], back.rows[code], strict=True)), near
                )

    def test_what_is_wrong_is_named_with_row_and_column(self):
        for text, words in (
            ("bust,80,84\n", "before the row of the sizes"),
            ("size,1,2\ngirdle,80,84\n", 'Row 2 begins with "girdle"'),
            ("size,1,2\nbust,80\n", "nothing for size 2 .row 2, column 3"),
            ("size,1,2\nbust,80,wide\n", "bust, size 2 .row 2, column 3"),
            ("base,9\nsize,1,2\nbust,80,84\n", 'base is size "9"'),
            ("unit,ell\nsize,1,2\nbust,80,84\n", 'unit is "ell"'),
            ("figure,tree\nsize,1,2\nbust,80,84\n", 'figure is "tree"'),
        ):
            with self.subTest(text), self.assertRaisesRegex(SizeChartError, words):
                sizes_from_csv(text.encode())
        with self.assertRaisesRegex(SizeChartError, "UTF-8"):
            sizes_from_csv(b"\xff\xfe\x00")

    def test_semicolons_names_of_measures_and_fractions(self):
        found = sizes_from_csv(b"unit;in\nsize;S;M\nBust;34 1/2;36\nwaist;26;28\n")
        self.assertAlmostEqual(found.rows["bust"][0], 34.5 * 2.54, 6)
        self.assertEqual((found.sizes, found.base), (("S", "M"), 1))


class Wearers(unittest.TestCase):
    def test_round_one_body_the_steps_are_those_of_the_chart(self):
        made = from_one("own", "Round one", chart_of({"bust": 97.0, "waist": 80.0, "hip": 101.0}), CURVED)
        self.assertEqual(made.chart.rows["waist"][CURVED.base], 80.0)
        self.assertEqual(made.chart.steps("waist"), CURVED.steps("waist"))
        self.assertTrue(any("Estimated" in note.text() for note in made.notes))
        with self.assertRaisesRegex(SizeChartError, "Bust was not read"):
            from_one("own", "Nobody", chart_of({"waist": 80.0}), CURVED)

    def test_a_company_of_the_chart_gives_back_its_steps(self):
        made = from_company("own", "Company", [CURVED.column(n) for n in range(8)], CURVED)
        self.assertEqual((made.chart.rows["bust"][0], made.chart.rows["bust"][-1]), (76.0, 104.0))
        for code in ("waist", "hip", "neck", "across_back"):
            with self.subTest(code):
                self.assertAlmostEqual(made.chart.rows[code][3] - made.chart.rows[code][2], CURVED.step(code, 2), 1)
        with self.assertRaisesRegex(SizeChartError, "two at least"):
            from_company("own", "One", [CURVED.column(0)], CURVED)

    def test_own_chart_against_the_chart_of_sizes(self):
        found = fits(chart_of({"bust": 92.0, "waist": 96.0, "hip": 101.0}), CURVED)
        self.assertAlmostEqual(found["bust"], 4.0)
        self.assertAlmostEqual(found["waist"], 7 + 10 / 7, 6)
        self.assertAlmostEqual(found["hip"], 4.5)
