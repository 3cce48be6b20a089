"""What belongs to making besides order and lay: days, what is bought, the book, cautions, what is kept; and learning by hand."""

import random
import unittest
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta

from hypothesis import given, settings
from hypothesis import strategies as st
from icalendar import Calendar

from tests.bodies import upper_build
from tests.some import tries
from widehem.core.design.design import method_design
from widehem.core.design.make import make
from widehem.core.design.ships import shipped
from widehem.core.drafting.method import METHODS
from widehem.core.making.book import BookError, CostumeBook, with_change, with_cost, with_shot, with_wrong
from widehem.core.making.calendar import CalendarError, Garment, Plan, back, late, loads, phases_of, stretches, working_days
from widehem.core.making.care import USES, by_use, care
from widehem.core.making.cloths import CLOTHS
from widehem.core.making.kept import Done, HowMade, MakingError, own_pace
from widehem.core.making.shopping import Held, Laid, Takes, shopping
from widehem.core.output.calendar_out import calendar_file
from widehem.core.output.pdf_book import Leaf, book_pdf
from widehem.core.output.sheets import PAPERS
from widehem.core.output.svg_calendar import days_svg
from widehem.core.output.svg_care import care_svg
from widehem.core.training.along import figures, judge, told
from widehem.core.training.exercises import KINDS, answered, exercise, made_up_body
from widehem.core.units import Display

FRIDAY = date(2027, 1, 29)


def coat(**more):
    return Garment(**{"id": 1, "name": "Watch coat", "wearer": "Gideon Fenn", "due": None, "hours": 24.0, "left": 24.0, **more})


class DaysTest(unittest.TestCase):
    def test_back_over_weekends(self):
        self.assertEqual(back(FRIDAY, 1, 5), date(2027, 1, 28))
        self.assertEqual(back(date(2027, 1, 25), 1, 5), date(2027, 1, 22))  # from a Monday to the Friday before
        self.assertEqual(back(date(2027, 1, 24), 0, 5), date(2027, 1, 22))  # a Sunday is no working day
        self.assertEqual(back(FRIDAY, 5, 7), date(2027, 1, 24))

    @given(st.integers(0, 400), st.integers(1, 7))
    def test_back_and_counting_agree(self, count, week):
        day = back(FRIDAY, count, week)
        self.assertEqual(working_days(day, back(FRIDAY, 0, week), week), count)

    def test_a_garment_back_from_the_rehearsal(self):
        plan = Plan(FRIDAY, hours=6.0, rounds=1)
        rows = {row.phase: row for row in stretches(coat(toile=True), plan, date(2027, 1, 1))}
        # by hand: rehearsal Fri 29, altered Thu 28, fitting Wed 27; 24 h at 6 are 4 days: Thu 21 to Tue 26; cutting 2.88 h: Wed 20
        self.assertEqual(
            (rows["rehearsal"].begin, rows["alter"].end, rows["fitting"].end), (FRIDAY, date(2027, 1, 28), date(2027, 1, 27))
        )
        self.assertEqual((rows["sew"].begin, rows["sew"].end), (date(2027, 1, 21), date(2027, 1, 26)))
        self.assertEqual((rows["cut"].begin, rows["cut"].end), (date(2027, 1, 20), date(2027, 1, 20)))
        # the toile: fitting Tue 19; 8.4 h are 2 days: Fri 15 and Mon 18; paper Thu 14, measured Wed 13
        self.assertEqual(
            (rows["toile_fitting"].end, rows["toile"].begin, rows["toile"].end),
            (date(2027, 1, 19), date(2027, 1, 15), date(2027, 1, 18)),
        )
        self.assertEqual((rows["paper"].end, rows["measure"].end), (date(2027, 1, 14), date(2027, 1, 13)))

    def test_two_rounds_take_a_day_between_them(self):
        days = dict(phases_of(coat(toile=True), Plan(FRIDAY, rounds=2)))
        self.assertEqual(days["toile_fitting"], 3)
        self.assertNotIn("toile", dict(phases_of(coat(), Plan(FRIDAY))))

    def test_no_day_no_phases_and_an_own_day_goes_first(self):
        self.assertEqual(stretches(coat(), Plan(), FRIDAY), [])
        self.assertEqual(stretches(coat(due=date(2027, 1, 22)), Plan(FRIDAY), FRIDAY)[-1].end, date(2027, 1, 22))

    def test_late_is_the_first_phase_that_is_not_done_with_what_it_waits_for(self):
        plan = Plan(FRIDAY)
        garments = [
            coat(missing="bust of Nell Askew"),
            replace(coat(waits="cloth"), id=2, done=frozenset({"measure", "paper"})),
        ]
        found = late(garments, plan, date(2027, 1, 25))  # a Monday
        self.assertEqual(
            [(row.garment.id, row.stretch.phase, row.waits) for row in found],
            [(1, "measure", "bust of Nell Askew"), (2, "cut", "cloth")],
        )
        self.assertEqual(found[1].stretch.late, 3)  # cut was due on Wednesday 20: Thursday, Friday, Monday
        self.assertEqual(
            late(
                [replace(coat(), done=frozenset(("measure", "paper", "cut", "sew", "fitting", "alter", "rehearsal")))],
                plan,
                FRIDAY,
            ),
            [],
        )

    @given(st.integers(0, 60), st.floats(1, 200), st.booleans())
    def test_the_weeks_hold_all_hours_that_are_left(self, ago, hours, toile):
        plan = Plan(FRIDAY)
        garment = coat(hours=hours, left=hours, toile=toile)
        whole = sum(load.hours for load in loads([garment], plan, FRIDAY - timedelta(days=ago)))
        self.assertAlmostEqual(whole, hours * (1 + 0.12 + (0.35 if toile else 0)), places=6)

    def test_too_much_for_the_hands_there_are(self):
        plan = Plan(FRIDAY, hours=6.0, hands=1)
        found = loads([replace(coat(), id=n) for n in range(3)], plan, date(2027, 1, 1))
        self.assertTrue(any(load.too_much for load in found))
        self.assertEqual(found[0].room, 30.0)
        self.assertTrue(all(load.monday.weekday() == 0 for load in found))

    def test_days_that_cannot_be(self):
        for data, words in (({"hours": 30}, "Hours a day: 30"), ({"hands": 0}, "Pairs of hands: 0"), ({"week": 9}, "Working days a week: 9"), ({"rounds": 9}, "Fittings of a toile: 9"),
                            ({"rehearsal": "2027-02-01", "opening": "2027-01-01"}, "Opening: 2027-01-01 is before")):  # fmt: skip
            with self.subTest(data), self.assertRaisesRegex(CalendarError, words):
                Plan.from_data(data)
        plan = Plan(FRIDAY, date(2027, 2, 4), 2, 5.5, 3, 6, ("Zip",))
        self.assertEqual(Plan.from_data(plan.as_data()), plan)

    def test_icalendar_file_reads_back(self):
        plan = Plan(FRIDAY, date(2027, 2, 4))
        rows = [(coat(), stretches(coat(), plan, date(2027, 1, 25)))]
        data = calendar_file("The Lantern Ferry", rows, plan, datetime(2027, 1, 1, tzinfo=UTC), "p1")
        events = {str(event["summary"]): event for event in Calendar.from_ical(data).walk("VEVENT")}
        self.assertEqual(events["Dress rehearsal: The Lantern Ferry"]["dtstart"].dt, FRIDAY)
        sewn = events["Made up: Watch coat, Gideon Fenn"]
        self.assertEqual((sewn["dtstart"].dt, sewn["dtend"].dt), (date(2027, 1, 21), date(2027, 1, 27)))
        self.assertEqual(len({str(event["uid"]) for event in events.values()}), len(events))
        self.assertIn("Late by", str(events["Cut in the cloth: Watch coat, Gideon Fenn"]["description"]))

    def test_picture_shows_every_phase_and_today(self):
        plan = Plan(FRIDAY)
        drawn = days_svg([(coat(), stretches(coat(), plan, date(2027, 1, 25)))], plan, date(2027, 1, 25))
        self.assertEqual(drawn.inside.count("d-phase"), 7)
        self.assertIn("is-late", drawn.inside)
        self.assertIn(">today</text>", drawn.inside)


class BoughtTest(unittest.TestCase):
    def test_need_less_the_stock_rounded_up(self):
        takes = [Takes("suiting", 24_000.0, "Coat"), Takes("suiting", 12_000.0, "Skirt"), Takes("lawn", 6000.0, "Shirt")]
        lines = {line.cloth: line for line in shopping(takes, [], [Held("suiting", "Grey", 200.0, 75.0)])}
        wool = lines["suiting"]
        self.assertEqual(wool.need, 300.0)  # 36000 / 150 / 0.8
        self.assertEqual((wool.have, wool.buy), (100.0, 200.0))  # half as wide counts half as long
        self.assertEqual(lines["lawn"].buy, 50.0)
        self.assertEqual(wool.garments, ("Coat", "Skirt"))

    def test_a_lay_says_it_exactly(self):
        takes = [Takes("suiting", 24_000.0, "Coat", laid=True), Takes("suiting", 11_200.0, "Skirt")]
        (line,) = shopping(takes, [Laid("suiting", 230.0, 140.0)], [])
        self.assertEqual(line.need, 330.0)  # 230 laid, 11200 / 140 / 0.8 = 100
        self.assertFalse(line.laid)
        self.assertEqual(shopping(takes[:1], [Laid("suiting", 230.0, 140.0)], [Held("suiting", "x", 500.0, 150.0)])[0].buy, 0.0)


class KeptTest(unittest.TestCase):
    def test_as_data_and_back(self):
        made = HowMade(
            {"cloth": "velvet"},
            ("side", "own:1"),
            {"own:1": "Braid"},
            {"side": Done("2026-11-20", 25.0, "seam", 20.0)},
            ("hem.a",),
            ("stairs",),
        )
        self.assertEqual(HowMade.from_data(made.as_data()), made)
        for data in (
            {"order": ["<b>"]},
            {"done": {"side": ["yesterday", 1, "seam", 1]}},
            {"done": {"side": ["2026-02-31", 1, "seam", 1]}},
            {"done": {"side": ["2026-11-20", -1, "seam", 1]}},
            {"cloths": {"cloth": "../x"}},
            {"done": 3},
        ):
            with self.subTest(data), self.assertRaises(MakingError):
                HowMade.from_data(data)

    def test_own_steps(self):
        made = HowMade().with_own(" Braid  along ", ("a", "b"), "a")
        self.assertEqual((made.order, made.own), (("a", "own:1", "b"), {"own:1": "Braid along"}))
        self.assertEqual(made.without_own("own:1"), HowMade(order=("a", "b")))
        with self.assertRaisesRegex(MakingError, "Write what is done"):
            HowMade().with_own("  ", (), "")

    def test_the_house_learns_its_own_pace_from_three_on(self):
        def timed(*minutes):
            return HowMade(done={f"s{n}": Done("2026-11-20", m, "seam", 10.0) for n, m in enumerate(minutes)})

        self.assertEqual(own_pace([timed(15, 15)]), {})
        self.assertEqual(own_pace([timed(15, 15), timed(12)]), {"seam": 1.4})
        self.assertEqual(own_pace([timed(500, 500, 500)]), {"seam": 4.0})


class BookTest(unittest.TestCase):
    def test_written_and_read(self):
        book = with_shot(CostumeBook(budget=100.0), 3, "back", "laced")
        book = with_change(book, "after the storm", "Wen", "the hooks", "40", dark=True)
        book = with_wrong(with_cost(book, "Braid", "27,50"), "Facing off grain", date(2026, 11, 20))
        self.assertEqual(CostumeBook.from_data(book.as_data()), book)
        self.assertEqual((book.spent, book.unseen), (27.5, ("front", "left", "right")))
        self.assertEqual(book.without("costs", 0).spent, 0.0)
        with self.assertRaises(IndexError):
            book.without("costs", 4)
        with self.assertRaises(KeyError):
            book.without("about", 0)

    def test_what_cannot_be_names_the_field(self):
        for work, words in ((lambda b: with_cost(b, "Braid", "much"), 'Cost: "much"'), (lambda b: with_cost(b, "", "1"), "What it was for"), (lambda b: with_cost(b, "x", "-3"), "Cost: -3"),
                            (lambda b: with_change(b, "", "", "", "", dark=False), "What is opened"), (lambda b: with_change(b, "", "", "x", "soon", dark=False), 'Seconds: "soon"'),
                            (lambda b: with_wrong(b, " ", FRIDAY), "What went wrong")):  # fmt: skip
            with self.subTest(words), self.assertRaisesRegex(BookError, words):
                work(CostumeBook())

    def test_prints_for_the_workroom_and_for_the_dresser(self):
        from io import BytesIO

        from pypdf import PdfReader

        book = with_change(
            with_cost(CostumeBook(about="The ferry master", budget=100.0), "Braid", "27"),
            "storm",
            "Wen",
            "hooks at the back",
            "40",
            dark=True,
        )
        leaves = [
            Leaf(
                "Waistcoat",
                ("Front: 2, a pair, cloth",),
                "buttons",
                "strap",
                "torn open",
                600.0,
                240.0,
                "draft 3",
                ("Stairs: hems clear.",),
            )
        ]
        texts = []
        for dresser in (False, True):
            data = book_pdf(
                "Ferryman", "Gideon Fenn", book, leaves, [], ("Allergy: latex",), 40.0, PAPERS["a4"], Display(), dresser=dresser
            )
            texts.append(" ".join(page.extract_text() for page in PdfReader(BytesIO(data)).pages))
        for text in texts:
            for words in ("hooks at the back", "in the dark", "Stairs: hems clear", "Allergy: latex", "torn open"):
                self.assertIn(words, text)
        self.assertIn("Together 67.00 of 100.00: 33.00 left", texts[0])
        self.assertIn("10.0 h thought, 4.0 h written down", texts[0])
        for words in ("Together", "thought", "27.00"):
            self.assertNotIn(words, texts[1])


class CareTest(unittest.TestCase):
    def made(self, code="robe"):
        return make(shipped()[code].design, upper_build("typical"))

    def test_each_use_defers_or_tells_what_to_do_and_inches_have_no_decimals(self):
        for code in USES:
            rows = care(self.made(), (code,), ())
            self.assertTrue(any(row.about == USES[code].about for row in rows), code)
            for _, saying in by_use((code,)):
                self.assertNotRegex(saying.text(Display("in")), r"\d\.\d")
        self.assertIn("licensed rigger", " ".join(str(saying) for _, saying in by_use(("flying",))))

    def test_the_cloth_and_the_use_together(self):
        words = " ".join(
            str(row.saying) for row in care(self.made(), ("flame",), (CLOTHS["chiffon"], CLOTHS["wadding"], CLOTHS["coated"]))
        )
        for expected in ("Chiffon burns fast", "Wadding glows on", "Coated cloth lets no air through"):
            self.assertIn(expected, words)

    def test_a_hem_too_low_for_stairs_says_by_how_much(self):
        gown = make(method_design(METHODS[next(code for code in METHODS if code.startswith("gown"))]), upper_build("typical"))
        rows = [row for row in care(gown, ("stairs",), ()) if row.picture == "hem"]
        self.assertTrue(rows)
        figure = next((row.figure for row in rows if row.figure is not None), None)
        self.assertIsNotNone(figure)
        self.assertIn("c-hem", care_svg("hem", figure, Display()))
        self.assertEqual(care_svg("", None, Display()), "")


class AlongTest(unittest.TestCase):
    """Whoever drafts along is told of exactly the figure that is off."""

    @settings(max_examples=tries(20), deadline=None)
    @given(
        st.integers(1, 5000),
        st.sampled_from(["skirt.two_panel", "bodice.plain", "trousers.crease"]),
        st.floats(0.8, 6.0),
        st.booleans(),
    )
    def test_only_the_wrong_figure_is_told(self, seed, method, off, more):
        design, chart = method_design(METHODS[method]), made_up_body(random.Random(seed))
        rows = figures(make(design, chart))
        wrong = seed % len(rows)
        for number, row in enumerate(rows[:6]):
            typed = row.cm + ((off if more else -off) if number == wrong else 0.15)
            judged = judge(design, chart, row, typed)
            self.assertEqual(judged.verdict, "off" if number == wrong else "good")
            if number == wrong:
                self.assertAlmostEqual(judged.off, off if more else -off, places=6)

    def test_what_it_comes_from_and_what_it_does(self):
        design, chart = method_design(METHODS["skirt.two_panel"]), upper_build("typical")
        rows = figures(make(design, chart))
        quarter = next(row for row in rows if row.title == "Frame")
        words = " ".join(map(str, told(judge(design, chart, quarter, quarter.cm * 2))))
        self.assertIn("That is twice the figure", words)
        words = " ".join(map(str, told(judge(design, chart, quarter, quarter.cm + 1.0))))
        self.assertRegex(words, r"^1\.0 cm too much\. It draws as if hip had been 9\d\.\d cm\. At the end, round the hip: \+")
        self.assertIn("Two digits", " ".join(map(str, told(judge(design, chart, quarter, _swapped(quarter.cm))))))


def _swapped(value):
    text = f"{value:.1f}"
    return float(text[1] + text[0] + text[2:])


class ExerciseTest(unittest.TestCase):
    def test_each_seeded_mistake_is_found_and_nothing_else(self):
        for kind in KINDS:
            for seed in range(1, 26):
                found = exercise(f"{kind}:{seed}")
                with self.subTest(found.code):
                    again = exercise(found.code)
                    self.assertEqual(
                        (found.rows, found.wrong, found.right, found.because),
                        (again.rows, again.wrong, again.right, again.because),
                    )
                    wrong = next(row for row in found.rows if row.id == found.wrong)
                    self.assertEqual(len({row.id for row in found.rows}), len(found.rows))
                    self.assertGreater(abs((wrong.cm or 0) - (found.right or 0)), 0.4)
                    self.assertTrue(answered(found, found.wrong, found.right).right)
                    self.assertFalse(answered(found, found.wrong, (found.right or 0) + 3).right)
                    other = next(row.id for row in found.rows if row.id != found.wrong)
                    answer = answered(found, other, None)
                    self.assertFalse(answer.right)
                    self.assertIn(wrong.name.lower(), str(answer.said[0]))
                    self.assertGreaterEqual(len(found.because), 2, "what the mistake does is said")

    def test_the_other_lines_are_right(self):
        for seed in range(1, 8):
            found = exercise(f"draft:{seed}")
            fixed = {row.id: (found.right if row.id == found.wrong else row.cm) for row in found.rows}
            self.assertEqual(sum(row.cm == fixed[row.id] for row in found.rows), len(found.rows) - 1)

    def test_no_such_exercise(self):
        for code in ("chart:0", "chart:x", "cake:3", "chart", "draft:9999999"):
            with self.assertRaises(KeyError):
                exercise(code)


if __name__ == "__main__":
    unittest.main()
