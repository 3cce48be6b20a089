"""Sides, doubts about the whole chart, two charts compared, lists, table checks, the drawn figures, photos."""

import contextlib
import io
import re
import unittest
from datetime import date, timedelta

from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart, Reading, Turns, chart_of
from widehem.core.body.compare import compare, stale
from widehem.core.body.doubts import doubts
from widehem.core.body.estimates import estimate
from widehem.core.body.figure import BROAD, CHILD, NEUTRAL, TORSO, build_of
from widehem.core.body.figure_tables import CURVED, TABLES, FigureTable
from widehem.core.body.lists import FULL, MARKERS, ORDER, in_order
from widehem.core.body.occasion import Occasion, age_words, chart_doubts
from widehem.core.body.table_check import table_problems
from widehem.core.output.photo import SIDE, PhotoError, small_photo
from widehem.core.output.svg_figure import figure_svg
from widehem.core.units import Display, parse_length

TODAY = date(2026, 11, 23)


def cm(text):
    return parse_length(text, "cm")


class Sides(unittest.TestCase):
    def test_what_counts_is_the_mean_of_both_sides(self):
        reading = Reading("shoulder", left=Turns(cm("12"), cm("12.2")), right=Turns(cm("12.8")))
        self.assertAlmostEqual(reading.cm, (12.1 + 12.8) / 2)
        self.assertAlmostEqual(reading.side("left").cm, 12.1)
        self.assertTrue(reading.apart)

    def test_a_side_not_read_apart_is_the_common_reading(self):
        reading = Reading("shoulder", cm("12.6"), left=Turns(cm("12")))
        self.assertAlmostEqual(reading.side("right").cm, 12.6)
        self.assertAlmostEqual(reading.cm, 12.3)
        self.assertAlmostEqual(Reading("shoulder", right=Turns(cm("13"))).cm, 13)

    def test_the_spread_is_told_within_a_side_never_between_them(self):
        calm = Chart({"shoulder": Reading("shoulder", left=Turns(cm("12")), right=Turns(cm("13.5")))})
        self.assertEqual([d for d in doubts(calm) if d.rule == "readings"], [])
        apart = Chart({"shoulder": Reading("shoulder", left=Turns(cm("12"), cm("12.7")), right=Turns(cm("13.5")))})
        (found,) = [d for d in doubts(apart) if d.rule == "readings"]
        self.assertIn("Shoulder, left, was read 12.0 and 12.7", str(found.saying))

    def test_the_back_arc_is_the_rest(self):
        chart = chart_of({"bust": 88, "bust_front": 46.5, "waist_front": 36, "waist_hip": 20})
        self.assertEqual(
            [chart.back_arc(code) for code in ("bust_front", "waist_front", "waist_hip", "bust")], [41.5, None, None, None]
        )


class WholeChart(unittest.TestCase):
    def rules(self, chart, days=0, costumes=()):
        return [d.rule for d in chart_doubts(chart, Occasion(TODAY, TODAY - timedelta(days=days), costumes))]

    def test_a_chart_holds_six_months_a_childs_eight_weeks(self):
        grown, child = chart_of({"waist": 70}), chart_of({"waist": 57}, figure="child")
        self.assertEqual([self.rules(grown, days) for days in (0, 183, 184)], [[], [], ["age"]])
        self.assertEqual([self.rules(child, days) for days in (56, 57)], [[], ["age"]])
        self.assertEqual(self.rules(Chart(), 900), [], "nothing is read, so nothing is old")

    def test_what_is_carried_over_keeps_its_own_age(self):
        chart = Chart(
            {"waist": Reading("waist", cm("70"), carried=TODAY - timedelta(days=200)), "hip": Reading("hip", cm("95"))}
        )
        (found,) = chart_doubts(chart, Occasion(TODAY, TODAY))
        self.assertEqual(found.measures, ("waist",))
        self.assertIn("Waist 70.0 cm is carried over and 6 months old", str(found.saying))

    def test_the_foundation_must_be_that_of_the_costume(self):
        chart = Chart({"waist": Reading("waist", cm("70"))}, "Laced  corset")
        same, other, unknown = ("Gown", "laced corset"), ("Gown", "padding {0}"), ("Gown", " ")
        self.assertEqual([self.rules(chart, 0, (costume,)) for costume in (same, other, unknown)], [[], ["foundation"], []])
        (found,) = chart_doubts(chart, Occasion(TODAY, TODAY, (other,)))
        self.assertIn("read over Laced  corset; Gown is worn over padding (0)", str(found.saying))

    def test_a_kept_doubt_comes_back_with_a_new_day(self):
        keys = {
            chart_doubts(chart_of({"waist": 70}), Occasion(TODAY, day))[0].key for day in (date(2025, 1, 1), date(2025, 1, 2))
        }
        self.assertEqual(len(keys), 2)

    def test_ages_in_words(self):
        self.assertEqual(
            [age_words(d) for d in (0, 1, 13, 15, 119, 200)], ["today", "1 day", "13 days", "2 weeks", "17 weeks", "6 months"]
        )


class Compared(unittest.TestCase):
    def test_by_how_much_and_what_that_makes_stale(self):
        before = chart_of({"waist": 70, "hip": 95, "waist_hip": 20, "neck": 37})
        after = chart_of({"waist": 68.5, "hip": 95.04, "bust": 90, "neck": 39})
        by = {entry.code: (entry.by, entry.changed) for entry in compare(before, after)}
        self.assertAlmostEqual(by["waist"][0], -1.5)
        self.assertEqual(by["waist_hip"], (None, True))
        self.assertFalse(by["hip"][1], "less than can be cut")
        self.assertEqual([e.code for e in stale(("waist", "hip", "waist_hip"), before, after)], ["waist"])
        self.assertEqual([e.code for e in stale(("bust", "waist", "neck"), before, after)], ["bust", "neck", "waist"])
        self.assertEqual(stale(("waist",), before, before), ())


class Lists(unittest.TestCase):
    def test_every_measure_has_a_place_and_the_strings_come_first(self):
        self.assertEqual(set(ORDER), set(CATALOGUE))
        self.assertEqual(len(FULL), 32)
        self.assertEqual(in_order(reversed(FULL)), list(FULL))
        self.assertEqual(tuple(in_order(["height", "hip", "neck", "waist"])[:2]), MARKERS)


class TableChecks(unittest.TestCase):
    def table(self, **formulas):
        return FigureTable("x", "Ours", 5.0, CURVED.row, {**CURVED.formulas, **formulas})

    def test_what_ships_is_sound(self):
        for table in TABLES.values():
            self.assertEqual(table_problems(table), {}, table.code)

    def test_each_fault_is_told_at_its_field(self):
        for changes, word in (
            ({"neck": "F / 4 + "}, "not a formula"), ({"neck": "chest / 2"}, "no measure chest"),
                ({"neck": "neck + 1"}, "comes to nothing"),
            ({"wrist": "hand - 6"}, "comes to nothing"), ({"neck": "F * 4"}, "bodies measure"),
                ({"neck": "F / (bust - bust)"}, "comes to nothing"),
            ({"waist": "hip - 20"}, "not worked out"), ({"neck": "1" * 200}, "letters"),
                ({"neck": "__import__('os')"}, "cannot"),
        ):  # fmt: skip
            with self.subTest(changes):
                problems = table_problems(self.table(**changes))
                (field,) = changes
                self.assertIn(word, str(problems[field]))

    def test_signs_as_they_are_printed_are_read(self):
        table = self.table(neck="F ÷ 4 + 15 − 0 × 2")
        self.assertEqual(table_problems(table), {})
        self.assertAlmostEqual(estimate(Chart(table=table), table).value("neck"), 37)

    @given(st.text(max_size=40))
    def test_any_words_are_told_or_understood(self, words):
        problems = table_problems(self.table(neck=words))
        self.assertTrue(
            set(problems) <= {"neck", *(code for code, text in CURVED.formulas.items() if "neck" in text)}, problems
        )


class Figures(unittest.TestCase):
    def test_a_child_a_broad_wearer_and_the_others(self):
        self.assertIs(build_of(chart_of({"waist": 57}, figure="child")), CHILD)
        self.assertIs(build_of(chart_of({"waist": 108, "height": 159})), BROAD)
        self.assertIs(build_of(chart_of({"waist": 69, "height": 164, "bust": 88})), NEUTRAL)
        self.assertIs(build_of(Chart()), NEUTRAL)

    def test_builds_keep_left_and_right_alike_and_never_turn_over(self):
        for build in (NEUTRAL, CHILD, BROAD):
            for x, y in ((3.0, 10.0), (15.0, 46.5), (24.0, 62.0), (30.0, 90.0), (6.0, 140.0)):
                right, left = build.point("front", x, y), build.point("front", -x, y)
                self.assertAlmostEqual(right[0], -left[0])
                self.assertEqual(right[1], left[1])
                self.assertGreater(right[0], 0)
            downs = [build.point("front", 0, y)[1] for y in range(169)]
            self.assertEqual(downs, sorted(downs), build.name)
            for y, half in TORSO:
                self.assertGreater(
                    build.point("front", half + 4, y)[0], build.point("front", half, y)[0], "the arm lies outside"
                )

    def test_every_tape_is_drawn_on_every_build(self):
        charts = (chart_of({"waist": 69}), chart_of({"waist": 57}, figure="child"), chart_of({"waist": 108, "height": 159}))
        for chart in charts:
            for code, entry in CATALOGUE.items():
                drawing = figure_svg(chart, ["waist", code], code)
                self.assertIn("tape-band", drawing.svg)
                self.assertIn(entry.name.lower(), drawing.label)
                self.assertEqual("Side" in drawing.svg, entry.tape.view == "side", code)
                left, top, wide, high = map(float, drawing.box.split())
                near_left, near_top, size, _ = map(float, drawing.near.split())
                self.assertTrue(left - size < near_left < left + wide and top - size < near_top < top + high, code)
                for x, y in re.findall(r'cx="([-\d.]+)" cy="([-\d.]+)"', drawing.svg):
                    self.assertTrue(left <= float(x) <= left + wide and 0 <= float(y) <= 169, code)

    def test_a_straight_tape_stays_straight(self):
        for chart in (chart_of({"waist": 57}, figure="child"), chart_of({"waist": 108, "height": 159})):
            (top, _), (bottom, _) = re.findall(r'tape-end" cx="([-\d.]+)" cy="([-\d.]+)"', figure_svg(chart, [], "height").svg)
            self.assertEqual(top, bottom)


class Photos(unittest.TestCase):
    def photo(self, size=(1200, 900), kind="JPEG", mode="RGB", **more):
        out = io.BytesIO()
        Image.new(mode, size, 128 if mode in ("L", "P") else (200, 90, 60, 40)[: len(mode)]).save(out, kind, **more)
        return out.getvalue()

    def test_small_upright_and_without_what_the_camera_wrote(self):
        exif = Image.Exif()
        exif[0x0112], exif[0x010F], exif[0x9286] = 6, "A camera", "51.5 N"
        made = small_photo(self.photo(exif=exif))
        picture = Image.open(io.BytesIO(made))
        self.assertEqual((picture.format, picture.size), ("JPEG", (SIDE * 3 // 4, SIDE)), "turned as the camera was held")
        self.assertEqual(len(picture.getexif()), 0)
        self.assertNotIn(b"A camera", made)

    def test_other_kinds_and_modes(self):
        for kind, mode in (("PNG", "RGBA"), ("PNG", "L"), ("WEBP", "RGB"), ("PNG", "P")):
            picture = Image.open(io.BytesIO(small_photo(self.photo((60, 40), kind, mode))))
            self.assertEqual((picture.size, picture.mode), ((60, 40), "RGB"))

    def test_what_is_no_photo_is_refused_with_a_sentence(self):
        whole = self.photo()
        for data, word in (
            (b"", "not a photo"), (b"<svg/>", "not a photo"), (whole[:300], "not a photo"),
                (self.photo(kind="GIF", mode="L"), "not a photo"),
            (b"\xff" * (9 * 1024 * 1024), "8 MB is the most"), (self.photo((13000, 4), "PNG"), "points"),
        ):  # fmt: skip
            with self.assertRaises(PhotoError) as caught:
                small_photo(data)
            self.assertIn(word, str(caught.exception))

    @given(st.binary(max_size=200), st.integers(0, 400))
    def test_broken_files_never_do_worse(self, junk, at):
        whole = self.photo((40, 30))
        with contextlib.suppress(PhotoError):
            self.assertLess(len(small_photo(whole[:at] + junk + whole[at + len(junk) :])), 20_000)


class Units(unittest.TestCase):
    @given(st.integers(80_000, 16_000_000), st.sampled_from(["cm", "in"]), st.sampled_from([8, 16]))
    def test_what_is_shown_and_typed_again_is_the_same_to_a_sixteenth(self, ticks, unit, fraction):
        length = parse_length(f"{ticks / 80_000:.5f}", "cm")
        show = Display(unit, fraction)
        again = parse_length(show.length(length.cm), unit)
        step = 0.05 if unit == "cm" else 2.54 / fraction / 2
        self.assertLessEqual(abs(again.cm - length.cm), step + 1e-4)
        self.assertEqual(show.length(again.cm), show.length(length.cm), "shown again it says the same")


if __name__ == "__main__":
    unittest.main()
