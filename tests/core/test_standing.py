"""Where a garment stands, and what is next; the time of day; settings that apply; words with lengths; what was set and is not drawn."""

import re
import unittest
from datetime import date, timedelta

from tests.bodies import drafted, upper_build
from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Reading
from widehem.core.body.chart_file import FiledChart
from widehem.core.days import HourError, hour_of
from widehem.core.design.cautions import cautions
from widehem.core.design.make import Made, armhole_in
from widehem.core.drafting.method import METHODS
from widehem.core.output.charts_in import read_charts
from widehem.core.output.charts_out import charts_json
from widehem.core.setting.refusal import CannotDraft
from widehem.core.standing import SOON, Standing, due_words
from widehem.core.units import METRIC, Display, Length

TODAY = date(2026, 11, 29)


class Stands(unittest.TestCase):
    def test_each_step_comes_before_the_next_and_what_is_done_asks_for_nothing(self):
        steps = (
            ("read", Standing(missing=("waist",), untrue=2, waits="cloth")),
            ("mend", Standing(trouble=True, waits="cloth")),
            ("redraw", Standing(changed=True, untrue=2, waits="cloth")),
            ("true", Standing(untrue=1, waits="cloth")),
            ("wait", Standing(untrue=0, waits="cloth")),
            ("cut", Standing(untrue=0, looks=3)),
            ("fit", Standing(untrue=2, changed=True, cut=True)),
            ("finish", Standing(untrue=0, cut=True, fitted=True)),
            ("", Standing(missing=("waist",), finished=True)),
        )
        for wanted, standing in steps:
            with self.subTest(wanted):
                self.assertEqual(standing.next, wanted)

    def test_the_strip_of_weaving(self):
        def states(standing):
            return [state for _, state in standing.stages()]

        self.assertEqual(
            [name for name, _ in Standing().stages()], ["measured", "drafted", "true", "cut", "fitted", "finished"]
        )
        self.assertEqual(states(Standing(missing=("waist",))), ["half", "bare", "bare", "bare", "bare", "bare"])
        self.assertEqual(states(Standing()), ["done", "done", "bare", "bare", "bare", "bare"], "nobody has looked yet")
        self.assertEqual(states(Standing(untrue=0)), ["done", "done", "done", "bare", "bare", "bare"])
        self.assertEqual(states(Standing(untrue=0, looks=1, changed=True)), ["done", "stale", "half", "bare", "bare", "bare"])
        self.assertEqual(states(Standing(untrue=0, cut=True, fitted=True)), ["done", "done", "done", "done", "done", "bare"])
        self.assertEqual(states(Standing(untrue=3, trouble=True)), ["done", "bare", "bare", "bare", "bare", "bare"])

    def test_due(self):
        for days, words, due in (
            (3, "in 3 days", True), (1, "tomorrow", True), (0, "today", True), (-1, "1 day late", True), (-4, "4 days late", True),
            (SOON, f"in {SOON} days", True), (SOON + 1, f"in {SOON + 1} days", False),
        ):  # fmt: skip
            standing = Standing(due=TODAY + timedelta(days=days))
            self.assertEqual(due_words(standing.late(TODAY)).removeprefix("due "), words)
            self.assertEqual(standing.is_due(TODAY), due)
        self.assertFalse(Standing(due=TODAY, finished=True).is_due(TODAY))
        self.assertIsNone(Standing().late(TODAY))


class Hours(unittest.TestCase):
    def test_what_is_typed_is_a_time_of_day_or_a_sentence(self):
        for text, wanted in (("9:05", "09:05"), ("16.30", "16:30"), ("16h30", "16:30"), ("9", "09:00"), ("9h", "09:00"), (" ", ""), ("23:59", "23:59")):  # fmt: skip
            self.assertEqual(hour_of(text), wanted)
        for text in ("24:00", "9:60", "noon", "9:5", "1:2:3", "-1:00", "١٦:٣٠x"):
            with self.subTest(text), self.assertRaises(HourError) as raised:
                hour_of(text)
            self.assertIn(text, str(raised.exception))

    def test_only_the_waist_goes_with_the_hour(self):
        self.assertEqual([code for code, entry in CATALOGUE.items() if entry.of_the_hour], ["waist", "waist_front"])

    def test_it_goes_out_with_the_chart_and_comes_in(self):
        filed = FiledChart(
            wearer="Odile Marsh", readings={"waist": Reading("waist", Length(6_240_000, "78", "cm"), hour="16:30")}
        )
        out = charts_json([filed])
        self.assertEqual(read_charts(out.encode(), "json").charts[0].readings["waist"].hour, "16:30")
        wrong = read_charts(out.replace("16:30", "26:30").encode(), "json")
        self.assertIn("26:30", " ".join(problem.words for problem in wrong.problems))


class Settings(unittest.TestCase):
    """A setting that is not shown does nothing."""

    BODIES = ("typical", "full")

    def drawn(self, method, chart, options):
        armhole = armhole_in(drafted(METHODS[method.made_for], chart)) if method.for_armhole else None
        try:
            made = drafted(method, chart, options, None, armhole)
        except CannotDraft as refusal:
            return str(refusal.saying)
        return self.of(made)

    @staticmethod
    def of(made: Made):
        return repr((made.garment, [(check.name, check.figure) for check in made.checks], [str(note) for note in made.notes]))

    def test_what_does_not_apply_changes_nothing(self):
        looked = 0
        for method in METHODS.values():
            usual = {option.code: option.default for option in method.options if option.kind == "choice"}
            for option in method.options:
                if option.applies(usual):
                    continue
                others = [choice.code for choice in option.choices] or [option.low, option.high]
                for build in self.BODIES:
                    with self.subTest(method=method.code, option=option.code, build=build):
                        plain = self.drawn(method, upper_build(build), {})
                        looked += 1
                        for value in others:
                            self.assertEqual(self.drawn(method, upper_build(build), {option.code: value}), plain)
        self.assertGreater(looked, 30)

    def test_one_of_its_conditions_is_enough(self):
        stretch = METHODS["suit.one_piece"].option("stretch")
        self.assertFalse(stretch.applies({"cloth": "woven", "bodice": "measured"}))
        self.assertTrue(stretch.applies({"cloth": "knit", "bodice": "measured"}))
        self.assertTrue(stretch.applies({"cloth": "woven", "bodice": "jersey"}))

    def test_every_condition_names_a_way_there_is(self):
        for method in METHODS.values():
            for option in method.options:
                for code, values in option.when:
                    ways = {choice.code for choice in method.option(code).choices}
                    self.assertLessEqual(set(values), ways, f"{method.code} {option.code}")


class Words(unittest.TestCase):
    def test_lengths_in_words_are_said_in_the_unit(self):
        inches = Display("in")
        self.assertEqual(METRIC.words("{3#} to {8} longer, 5.7 in a hundred"), "3 to 8 cm longer, 5.7 in a hundred")
        self.assertEqual(inches.words("a dart of {2.54}, {1.27} wide"), "a dart of 1 in, 1/2 in wide")
        self.assertEqual(METRIC.words("{-0.5} off {x}"), "−0.5 cm off {x}")

    def test_no_reason_names_a_bare_length(self):
        """Figures that are no lengths: shares, numbers of things, per cent."""
        allowed = re.compile(
            r"Bust / \d+|\d[\d.]* in a hundred|1\.4 times|0\.5 is rounder, 0\.65|\(0\)|\(100\)|0 (is snug|close|takes|closes)|less than 0|give 30 in"
        )
        for method in METHODS.values():
            for option in (*method.options, *method.ease):
                for text in (
                    option.why,
                    *(choice.why for choice in option.choices),
                    *(choice.name for choice in option.choices),
                ):
                    rest = allowed.sub("", re.sub(r"\{[^}]*\}", "", text))
                    self.assertIsNone(re.search(r"\d", rest), f"{method.code} {option.code}: {text}")

    def test_no_sentence_of_a_draft_names_a_bare_length(self):
        """Steps, notes and checks say their lengths by the unit; what else is a figure is a count, degrees or per cent."""
        allowed = re.compile(
            r"\d+ darts|elbow \d|with 0 to|\d+ per cent|[\d.]+ degrees|instead of \d+|more than 4:|\d+ lacing holes|bend \d+ times, \d"
        )
        for build in ("typical", "full", "child", "belly"):
            for method in METHODS.values():
                armhole = armhole_in(drafted(METHODS[method.made_for], upper_build(build))) if method.for_armhole else None
                try:
                    made = drafted(method, upper_build(build), None, None, armhole)
                except CannotDraft:
                    continue
                said = [step.text for step in made.steps] + list(made.notes)
                said += [saying for check in made.checks for saying in (check.message, check.brief)]
                for saying in said:
                    rest = allowed.sub("", re.sub(r"\{\d+[us]?\}", "", saying.template))
                    self.assertIsNone(re.search(r"\d|centimet", rest), f"{method.code}: {saying.template}")


class NotAsSet(unittest.TestCase):
    def girth(self, made, name):
        return next(check for check in made.checks if check.name == f"girth.{name}")

    def test_an_ease_that_cannot_be_followed_is_said_with_both_figures_and_why(self):
        made = drafted(METHODS["coat.straight"], upper_build(), None, {"hip": 4.0})
        check = self.girth(made, "hip")
        self.assertRegex(str(check.message), r"You set \+4\.0; drawn \+7\.2, because the bust")
        self.assertAlmostEqual(check.figure, 7.2, delta=0.1, msg="the sentence says what is drawn")

    def test_one_that_is_followed_is_only_planned(self):
        made = drafted(METHODS["coat.straight"], upper_build(), None, {"hip": 12.0})
        self.assertNotIn("You set", str(self.girth(made, "hip").message))


class Bodice(unittest.TestCase):
    def test_a_contour_bodice_longer_than_its_lines_is_carried_on(self):
        for build in ("slight", "child"):
            made = drafted(METHODS["bodice.contour"], upper_build(build), {"length": 40.0})
            for piece in made.garment.pieces:
                self.assertAlmostEqual(piece.bounds[3], max(edge.end.y for edge in piece.edges), delta=0.8)
            self.assertEqual([check.name for check in made.checks if check.verdict == "not"], [])

    def test_a_close_waist_that_closes_by_a_zip_is_no_lacing(self):
        close = drafted(METHODS["bodice.measured"], upper_build(), None, {"waist": 0.0})
        self.assertEqual([caution.about for caution in cautions(close)], ["a tight waist"])
        laced = drafted(METHODS["gown.seam_shaped"], upper_build(), None, {"waist": 0.0})
        self.assertIn("tight lacing", [caution.about for caution in cautions(laced)])
        self.assertNotIn("a tight waist", [caution.about for caution in cautions(laced)])
