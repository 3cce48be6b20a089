"""Estimates from the figure tables, against the typical figure and by their properties."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart, chart_of
from widehem.core.body.doubts import doubts
from widehem.core.body.estimates import estimate, predicted
from widehem.core.body.figure_tables import BASES, CURVED, TABLES
from widehem.core.body.formula import FormulaError, read_formula
from widehem.core.units import Display


class Formulas(unittest.TestCase):
    def value(self, text, **values):
        return read_formula(text).value(values.__getitem__)

    def test_plain_sums(self):
        self.assertEqual(self.value("bust / 4 + 12.4", bust=88), 34.4)
        self.assertEqual(self.value("2 * (hip - waist) - 1", hip=94, waist=69), 49)
        self.assertEqual(self.value("root(a, b)", a=5, b=3), 4)
        self.assertEqual(self.value("distance(a, b)", a=4, b=3), 5)

    def test_names_in_order_and_words(self):
        formula = read_formula("waist + 0.68 * (hip - waist)")
        self.assertEqual(formula.names, ("waist", "hip"))
        self.assertEqual(formula.working(str.upper, str), "WAIST + 0.68 × (HIP − WAIST)")

    def test_nothing_but_sums_is_let_in(self):
        for text in (
            "",
            "bust +",
            "__import__('os')",
            "bust.real",
            "bust ** 2",
            "open(a, b)",
            "[bust]",
            "'bust'",
            "lambda: 1",
            "True",
            "root(bust)",
        ):
            with self.subTest(text), self.assertRaises(FormulaError) as caught:
                read_formula(text)
            self.assertIn(text, str(caught.exception))


class Tables(unittest.TestCase):
    def test_every_measure_but_the_bases_has_a_formula_of_known_measures(self):
        for table in TABLES.values():
            self.assertEqual(set(table.formulas) | set(BASES), set(CATALOGUE), table.code)
            for text in table.formulas.values():
                self.assertLessEqual(set(read_formula(text).names), set(CATALOGUE) | {"F"}, text)

    def test_an_empty_curved_chart_is_the_typical_figure(self):
        found = estimate(Chart(), CURVED)
        for code, entry in CATALOGUE.items():
            self.assertAlmostEqual(found.value(code), entry.typical, delta=0.16, msg=code)

    def test_a_chart_made_wholly_of_estimates_raises_no_doubt(self):
        for table in TABLES.values():
            found = estimate(Chart(), table).found
            chart = chart_of({code: entry.cm for code, entry in found.items()}, figure=table.code)
            self.assertEqual(doubts(chart), (), table.code)

    def test_where_the_tables_differ(self):
        on = {"bust": 96, "waist": 80, "height": 176}
        curved, straight = (estimate(chart_of(on), TABLES[code]) for code in ("curved", "straight"))
        self.assertEqual((curved.value("high_bust"), straight.value("high_bust")), (91, 94))
        self.assertEqual((curved.value("across_back"), straight.value("across_back")), (36.4, 38.4))
        self.assertAlmostEqual(estimate(chart_of({"bust": 66, "height": 128}), TABLES["child"]).value("shoulder"), 10.7)


class Estimating(unittest.TestCase):
    def test_the_frame_follows_a_high_bust_that_was_read_and_not_the_cup(self):
        without = estimate(chart_of({"bust": 100, "height": 164}), CURVED)
        small_frame = estimate(chart_of({"bust": 100, "high_bust": 85, "height": 164}), CURVED)
        self.assertEqual(without.value("across_back"), 100 / 4 + 12.4)
        self.assertEqual(small_frame.value("across_back"), 90 / 4 + 12.4)
        self.assertEqual(small_frame.get("across_back").rests_on, ("high_bust",))
        self.assertGreater(small_frame.value("snp_waist_front"), without.value("snp_waist_front"))

    def test_waist_and_hip_are_never_estimated_from_something_else(self):
        found = estimate(chart_of({"bust": 88, "height": 164}), CURVED)
        for code in ("waist", "hip", "high_hip", "crotch_depth", "thigh"):
            self.assertIsNone(found.get(code), code)
        self.assertIsNone(estimate(chart_of({"waist": 70}), CURVED).get("bust"))
        self.assertEqual(estimate(chart_of({"high_bust": 83}), CURVED).value("bust"), 88)

    def test_the_chain_goes_down_to_what_was_read(self):
        found = estimate(chart_of({"height": 164, "bust": 88}), CURVED)
        self.assertEqual(found.chain("snp_waist_front"), ("snp_waist_front", "snp_waist_back", "high_bust", "nape_waist"))
        self.assertEqual(found.working("nape_waist"), "height 164.0 ÷ 4")
        self.assertEqual(found.working("across_back", Display("in")), "frame 34 5/8 ÷ 4 + 4 7/8")

    def test_a_reading_is_never_replaced(self):
        found = estimate(chart_of({"height": 164, "nape_waist": 39}), CURVED)
        self.assertIsNone(found.get("nape_waist"))
        self.assertEqual(found.value("snp_waist_back"), 40.5)

    def test_what_the_others_foretell_leaves_the_reading_out(self):
        chart = chart_of({"height": 164, "waist_hip": 30})
        self.assertEqual(predicted(chart, CURVED, "waist_hip"), 20.5)
        self.assertIsNone(predicted(chart_of({"waist_hip": 30}), CURVED, "waist_hip"))
        self.assertIs(chart.table, CURVED)

    @given(
        st.dictionaries(st.sampled_from(sorted(CATALOGUE)), st.floats(20, 120).map(lambda v: round(v, 1)), max_size=8),
        st.sampled_from(sorted(TABLES)),
    )
    def test_any_chart_gives_estimates_that_rest_on_something(self, values, code):
        chart = chart_of(values, figure=code)
        found = estimate(chart, TABLES[code])
        for measure, entry in found.found.items():
            self.assertNotIn(measure, chart)
            for rest in entry.rests_on:
                self.assertIsNotNone(found.value(rest), (measure, rest))
            self.assertEqual(entry.cm, entry.cm, "a figure")
            self.assertIn(measure, found.chain(measure))
        doubts(chart)


if __name__ == "__main__":
    unittest.main()
