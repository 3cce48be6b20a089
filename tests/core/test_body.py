"""The catalogue, charts and doubts."""

import unittest

from tests.bodies import BUILDS
from widehem.core.body.catalogue import CATALOGUE, names
from widehem.core.body.chart import Chart, ChartError, Reading, chart_of
from widehem.core.body.doubt_groups import grouped
from widehem.core.body.doubts import RULES, doubts
from widehem.core.units import parse_length


def rules_raised(**measures):
    return {doubt.rule for doubt in doubts(chart_of(measures))}


class Catalogue(unittest.TestCase):
    def test_every_measure_can_be_taken_from_its_entry(self):
        self.assertEqual(len(CATALOGUE), 51)
        for entry in CATALOGUE.values():
            self.assertLess(entry.low, entry.typical, entry.code)
            self.assertLess(entry.typical, entry.high, entry.code)
            self.assertTrue(entry.how.endswith("."), entry.code)
            self.assertGreaterEqual(len(entry.tape.points), 2, entry.code)
            for x, y in entry.tape.points:
                self.assertLessEqual(abs(x), 32.5, entry.code)
                self.assertTrue(0 <= y <= 169, entry.code)

    def test_names_in_a_sentence(self):
        self.assertEqual(names(["waist"]), "waist")
        self.assertEqual(names(["waist", "hip", "waist_hip"]), "waist, hip and waist to hip")


class Charts(unittest.TestCase):
    def test_two_readings_count_by_their_mean(self):
        reading = Reading("waist", parse_length("78", "cm"), parse_length("78.4", "cm"))
        self.assertAlmostEqual(reading.cm, 78.2)
        self.assertAlmostEqual(reading.spread, 0.4)
        self.assertIsNone(Reading("waist").cm)

    def test_from_plain_values_in_either_unit(self):
        chart = chart_of({"waist": 27.5, "hip": "38 1/2", "height": "164 cm"}, "in")
        self.assertAlmostEqual(chart.get("waist"), 27.5 * 2.54)
        self.assertAlmostEqual(chart.get("hip"), 38.5 * 2.54)
        self.assertAlmostEqual(chart.get("height"), 164)
        self.assertEqual(chart.missing(["waist", "neck"]), ("neck",))

    def test_what_cannot_be_read_is_named(self):
        for values, word in (
            ({"wasit": 70}, "wasit"),
            ({"waist": "wide"}, "wide"),
            ({"waist": None}, "waist"),
            ({"hip": 0}, "hip"),
            ({"hip": True}, "hip"),
            ({"hip": float("nan")}, "hip"),
        ):
            with self.subTest(values), self.assertRaises(ChartError) as caught:
                chart_of(values)
            self.assertIn(word, str(caught.exception))

    def test_a_tried_value_leaves_the_chart_alone(self):
        chart = chart_of({"waist": 70})
        tried = chart.with_value("waist", parse_length("72", "cm"))
        self.assertEqual((chart.get("waist"), tried.get("waist")), (70, 72))
        self.assertNotEqual(chart.key(), tried.key())


class Doubts(unittest.TestCase):
    def test_front_arcs_that_do_not_add_up_to_their_girth_are_doubted(self):
        for front, whole, usual, wrong in (("waist_front", 80, 40, 60), ("hip_front", 100, 48, 70), ("bust_front", 90, 47, 60)):
            girth = front.removesuffix("_front")
            self.assertNotIn("sums", {d.rule for d in doubts(chart_of({girth: whole, front: usual}))}, front)
            (doubt,) = [d for d in doubts(chart_of({girth: whole, front: wrong})) if d.rule == "sums"]
            self.assertIn(f"{wrong}.0", doubt.saying.text())
            self.assertEqual(set(doubt.measures), {girth, front})

    def test_the_typical_figure_raises_none(self):
        typical = chart_of({code: entry.typical for code, entry in CATALOGUE.items()})
        self.assertEqual(doubts(typical), ())

    def test_each_rule_fires_on_what_it_is_for(self):
        for rule, measures in (
            ("range", {"waist": 300}),
            ("order", {"high_bust": 92, "bust": 88}),
            ("order", {"waist_hip": 34, "waist_knee": 34}),
            ("waist over hip", {"waist": 108, "hip": 104}),
            ("sums", {"bust_front": 38, "bust": 88}),
            ("sums", {"inside_leg": 76, "crotch_depth": 27, "waist_floor": 110}),
            ("sums", {"snp_waist_back": 46, "nape_waist": 41}),
            ("proportion", {"height": 164, "waist_hip": 26}),
            ("proportion", {"bust": 88, "across_back": 37}),
        ):
            self.assertIn(rule, rules_raised(**measures), measures)
        self.assertEqual(set(RULES), {"range", "readings", "order", "waist over hip", "sums", "proportion"})

    def test_no_rule_fires_on_what_is_usual(self):
        for measures in (
            {"height": 164, "waist_knee": 59, "waist_hip": 20.5},
            {"waist": 105, "hip": 104},
            {"bust": 88, "high_bust": 84, "across_back": 35, "across_chest": 33.5},
            {"wrist": 16, "hand": 21, "upper_arm": 29, "ankle": 23, "calf": 36, "thigh": 56},
        ):
            self.assertEqual(rules_raised(**measures), set(), measures)

    def test_the_figure_table_decides_what_is_in_proportion(self):
        child = {"height": 128, "bust": 62, "high_bust": 62, "waist": 57, "hip": 66.5}
        self.assertEqual(doubts(chart_of(child, figure="child")), ())
        self.assertEqual({d.rule for d in doubts(chart_of({"bust": 96, "across_back": 41}))}, {"proportion"})
        self.assertEqual(doubts(chart_of({"bust": 96, "across_back": 39.5}, figure="straight")), ())

    def test_readings_apart_more_on_a_girth_than_on_a_length(self):
        def apart(code, first, second):
            return doubts(Chart({code: Reading(code, parse_length(first, "cm"), parse_length(second, "cm"))}))

        self.assertFalse(apart("waist", "70", "71"))
        self.assertTrue(apart("waist", "70", "71.1"))
        self.assertFalse(apart("waist_hip", "20", "20.6"))
        self.assertEqual(apart("waist_hip", "20", "21")[0].measures, ("waist_hip",))

    def test_inches_taken_for_centimetres_are_suspected(self):
        words = doubts(chart_of({"hip": "38 1/2"}))[0].saying.text()
        self.assertIn("If inches were meant it is 97.8 cm", words)

    def test_a_kept_doubt_returns_when_the_figure_changes(self):
        first = doubts(chart_of({"waist": 108, "hip": 104}))
        states = grouped(first, {first[0].key})
        self.assertEqual([len(state.accepted) for state in states if state.title == "Sizes that must fit"], [1])
        later = doubts(chart_of({"waist": 109, "hip": 104}))
        self.assertEqual(sum(len(state.open) for state in grouped(later, {first[0].key})), 1)

    def test_the_named_builds_have_no_doubt_but_the_round_one(self):
        for build, values in BUILDS.items():
            raised = rules_raised(**dict(zip(("waist", "hip", "waist_hip", "waist_knee", "height"), values, strict=True)))
            self.assertEqual(raised, {"waist over hip"} if build == "round" else set(), build)


if __name__ == "__main__":
    unittest.main()
