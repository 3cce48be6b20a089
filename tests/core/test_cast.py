"""A cast in few sizes: the exact answer against trying everything, tolerances, hours, the rail."""

import io
import unittest

import pypdf
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.nests import nest
from tests.some import tries
from widehem.core.body.chart import chart_of
from widehem.core.grading.cast import Hours, Person, Size, Tolerances, fit, least_hours, plan, sizes_of_chart
from widehem.core.grading.choosing import choose, choose_by_trying
from widehem.core.grading.house_charts import HOUSE
from widehem.core.grading.kept import HowCast, HowGraded, KeptError
from widehem.core.grading.wearable import finished_sizes, sizes_of_nest
from widehem.core.output.pdf_cast import cast_pdf, told
from widehem.core.output.sheets import PAPERS
from widehem.core.units import METRIC

PRICES = st.lists(
    st.lists(st.one_of(st.none(), st.integers(0, 40).map(lambda n: n / 8)), min_size=5, max_size=5), min_size=1, max_size=8
)


def person(number, **measures):
    return Person(number, f"Wearer {number}", chart_of(measures))


def around(bust, waist, hip, number=1):
    return person(number, bust=bust, waist=waist, hip=hip)


class Exact(unittest.TestCase):
    @given(PRICES, st.sampled_from([None, 1, 2, 3]))
    @settings(max_examples=tries(40), deadline=None)
    def test_it_equals_trying_everything(self, prices, most):
        one, other = choose(prices, most=most), choose_by_trying(prices, most=most)
        self.assertEqual((one.dressed, len(one.made)), (other.dressed, len(other.made)))
        self.assertAlmostEqual(one.cost, other.cost, 6)
        self.assertTrue(one.proven)
        for who, row in zip(one.who, prices, strict=True):
            self.assertTrue(who is None or row[who] is not None)

    def test_nobody_and_nothing(self):
        self.assertEqual(choose([]).who, ())
        self.assertEqual(choose([[None, None]]).who, (None,))

    def test_what_is_there_once_is_worn_once(self):
        found = choose([[1.0, 5.0], [1.0, None], [1.0, None]], each_once=True)
        self.assertEqual((found.dressed, found.who[0]), (2, 1))


class Plan(unittest.TestCase):
    SIZES = (Size("S", {"bust": 84.0, "waist": 66.0, "hip": 91.0}), Size("M", {"bust": 92.0, "waist": 74.0, "hip": 99.0}))

    def test_tolerances_by_hand(self):
        """Let out two, take in four: one who is two larger fits, one who is two and a half larger does not."""
        rates, allowed = Hours(), Tolerances()
        self.assertTrue(fit(around(94.0, 75.0, 99.0), self.SIZES[1], allowed, rates).possible)
        beyond = fit(around(94.5, 75.0, 99.0), self.SIZES[1], allowed, rates)
        self.assertEqual([(one.code, round(one.by, 2)) for one in beyond.beyond], [("bust", 0.5)])
        tight = fit(around(88.0, 71.0, 95.0), self.SIZES[1], allowed, rates)
        self.assertEqual(
            [(one.code, one.kind, one.by) for one in tight.alterations],
            [("bust", "taken in", -4.0), ("waist", "taken in", -3.0), ("hip", "taken in", -4.0)],
        )
        self.assertAlmostEqual(tight.hours, 3 * 0.75 + 0.15 * 11)
        self.assertIsNone(fit(person(1, height=170.0), self.SIZES[1], allowed, rates))
        hem = Tolerances(lengths=("inside_leg",))
        long = fit(person(1, waist=74.0, inside_leg=82.0), Size("M", {"waist": 74.0, "inside_leg": 78.0}), hem, rates)
        self.assertEqual([one.saying().text() for one in long.alterations], ["hem down 4.0 cm, for inside leg"])

    def test_most_dressed_then_fewest_sizes_then_least_altering(self):
        people = [
            around(92.0, 74.0, 99.0, 1),
            around(91.0, 74.0, 98.0, 2),
            around(84.0, 66.0, 91.0, 3),
            around(130.0, 120.0, 130.0, 4),
        ]
        found = plan(people, self.SIZES)
        self.assertEqual((found.sizes, found.dressed, found.proven), (("S", "M"), 3, True))
        self.assertEqual([wears.person.id for wears in found.own], [4])
        self.assertIn(
            "Nearest is M: bust 36.0 cm too large, waist 44.0 cm too large, hip 29.0 cm too large", found.own[0].why.text()
        )
        self.assertEqual([row[:2] for row in found.best], [(1, 2), (2, 3)])
        self.assertEqual(plan(people, self.SIZES, most=1).sizes, ("M",))
        self.assertEqual(told(found.who[0], METRIC), "As it is.")

    def test_hours_by_hand(self):
        rates = Hours(size=3.0, make=10.0, own_draft=8.0)
        found = plan([around(92.0, 74.0, 99.0, 1), around(130.0, 120.0, 130.0, 2)], self.SIZES, hours=rates)
        self.assertEqual((found.hours["plan"], found.hours["alone"]), (3.0 + 8.0 + 20.0, 16.0 + 20.0))
        few = least_hours([around(92.0, 74.0, 99.0, 1)], self.SIZES, hours=Hours(size=9.0, own_draft=2.0))
        self.assertEqual((few.sizes, few.dressed), ((), 0))
        self.assertIn("fewer hours", few.own[0].why.text())

    def test_a_chorus_of_the_chart_is_dressed_in_its_sizes(self):
        chart = HOUSE["curved"]
        people = [Person(n, f"P{n}", chart.column(n)) for n in range(len(chart))]
        found = plan(people, sizes_of_chart(chart))
        self.assertEqual(found.dressed, 12)
        self.assertLess(len(found.sizes), 12)
        every = plan(people, sizes_of_chart(chart), Tolerances(0.0, 0.0))
        self.assertEqual(len(every.sizes), 12)
        text = pypdf.PdfReader(io.BytesIO(cast_pdf("Chorus", "All.", found, PAPERS["a4"], METRIC))).pages[0].extract_text()
        self.assertIn("P3", text)
        self.assertIn("Nothing better can be.", text)

    def test_the_sizes_of_a_design_and_what_hangs_on_the_rail(self):
        sizes = sizes_of_nest(nest("skirt.two_panel", "curved", "rules", 3))
        self.assertEqual([round(size.fits["waist"], 1) for size in sizes], [62.0, 66.0, 70.0, 74.0, 78.0, 82.0, 86.0])
        rail = finished_sizes([("Coat", {"bust": 104.0, "waist": 92.0}, {"bust": 12.0}), ("Gown", {"bust": 92.0}, {})])
        self.assertEqual([dict(size.fits) for size in rail], [{"bust": 92.0, "waist": 92.0}, {"bust": 92.0}])
        both = plan([around(92.0, 91.0, 99.0, 1), around(92.0, 60.0, 99.0, 2)], rail, each_once=True)
        self.assertEqual({wears.person.id: wears.size for wears in both.who}, {1: "Coat", 2: "Gown"})


class Kept(unittest.TestCase):
    def test_what_is_kept_is_read_back_with_care(self):
        for made in (
            HowCast(),
            HowCast("rail", Tolerances(3.0, 6.0, 1.0, lengths=("inside_leg",)), Hours(1.0), 4, by_hours=True),
        ):
            self.assertEqual(HowCast.from_data(made.as_data()), made)
        self.assertEqual(HowGraded.from_data(HowGraded().as_data()), HowGraded())
        for data, words in (
            ({"let_out": 99}, "0 to 30"),
            ({"girths": ["girdle"]}, "no measure"),
            ({"size": True}, "cannot be used"),
        ):
            with self.subTest(words), self.assertRaisesRegex(KeptError, words):
                HowCast.from_data(data)
        for data, words in (
            ({"way": "magic"}, "no way of grading"),
            ({"own": [{"piece": "front"}]}, "lacks"),
            ({"own": [{"piece": "front", "spot": "a/b", "out": 99, "up": 0}]}, "no shift"),
        ):
            with self.subTest(words), self.assertRaisesRegex(KeptError, words):
                HowGraded.from_data(data)
