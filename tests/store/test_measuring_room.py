"""Charts over time, sides, tables and lists of the workroom, and a chart that listens to a tape."""

import unittest
from datetime import date, timedelta
from unittest import mock

from sqlalchemy import select

from tests.stores import fresh_store
from widehem.core.body.figure_tables import CURVED, TABLES
from widehem.core.drafting.method import METHODS
from widehem.core.output.charts_in import read_charts
from widehem.core.output.charts_out import charts_csv, charts_json
from widehem.core.units import parse_length
from widehem.store.charts import add_reading, begin_chart, chart_drawn_on, charts_of, core_chart, latest_chart
from widehem.store.designs import block_design
from widehem.store.dockets import changed_since, find_wearer
from widehem.store.files import Measured, filed, look_at
from widehem.store.keeping import StoreError
from widehem.store.listening import (
    Message,
    NotTakenBackError,
    begin_listening,
    go_on,
    hear,
    last_heard,
    listening_of,
    listening_under,
    take_back,
    take_back_by_tape,
)
from widehem.store.models import ChartRow, Docket, Heard, Listening, Photo, Production, ReadingRow, Wearer
from widehem.store.tables import all_tables, copy_table, house_tables, judged_by, keep_table
from widehem.store.taking_in import NotTakenInError, take_in

DAY = date(2026, 3, 1)


class RoomCase(unittest.TestCase):
    def setUp(self):
        self.store = fresh_store(self)
        with self.store.write() as session:
            production = Production(name="P", company="C")
            session.add(production)
            session.flush()
            wearer = Wearer(production_id=production.id, name="W", role="")
            session.add(wearer)
            session.flush()
            self.production_id, self.wearer_id = production.id, wearer.id

    def begin(self, days, carry=False, **readings):
        with self.store.write() as session:
            row = begin_chart(session, session.get(Wearer, self.wearer_id), DAY + timedelta(days=days), carry=carry)
            self.write_down(session, row, **readings)
            return row.id

    def write_down(self, session, row, **readings):
        for place, words in readings.items():
            code, _, side = place.partition("__")
            for turn, text in enumerate(words.split(" / "), 1):
                add_reading(session, row, code, turn, parse_length(text, "cm"), side=side)

    def chart(self, number=None):
        with self.store.read() as session:
            row = session.get(ChartRow, number) if number else latest_chart(session, self.wearer_id)
            return core_chart(session, row)


class OverTime(RoomCase):
    def test_what_is_carried_over_counts_until_it_is_read(self):
        old = self.begin(0, waist="70 / 70.4", hip="95", shoulder__left="12", shoulder__right="12.6")
        new = self.begin(100, carry=True, waist="68")
        chart = self.chart()
        self.assertEqual(
            (chart.get("waist"), chart.readings["waist"].second, chart.readings["waist"].carried), (68, None, None)
        )
        self.assertEqual((chart.get("hip"), chart.readings["hip"].carried), (95, DAY))
        self.assertAlmostEqual(chart.get("shoulder"), 12.3)
        self.assertAlmostEqual(self.chart(old).get("waist"), 70.2)
        self.begin(200, carry=True)
        self.assertEqual(self.chart().readings["hip"].carried, DAY, "the day it was truly read on")
        self.assertEqual(self.chart().readings["waist"].carried, DAY + timedelta(days=100))
        self.assertEqual(len({old, new}), 2)

    def test_the_newest_is_that_of_the_latest_day(self):
        late = self.begin(100, waist="70")
        self.begin(10, waist="75")
        with self.store.read() as session:
            self.assertEqual(latest_chart(session, self.wearer_id).id, late)
            self.assertEqual([row.taken_on.month for row in charts_of(session, self.wearer_id)], [6, 3])

    def test_a_docket_stays_on_its_chart_and_is_stale_where_that_matters(self):
        old = self.begin(0, waist="70", hip="95", waist_hip="20", waist_knee="58", neck="37")
        with self.store.write() as session:
            docket = Docket(
                production_id=self.production_id, wearer_id=self.wearer_id, name="S",
                    design=block_design(session, METHODS["skirt.two_panel"]), options={}, ease={}, amounts={}
            )  # fmt: skip
            session.add(docket)
            session.flush()
            number = docket.id
            self.assertEqual(chart_drawn_on(session, docket).id, old)
        self.begin(50, carry=True, neck="39")
        with self.store.read() as session:
            self.assertEqual(session.get(Docket, number).chart_id, old)
            self.assertEqual(changed_since(session, session.get(Docket, number)), (), "a skirt has no neck")
        self.begin(60, carry=True, waist="68.5", hip="95")
        with self.store.write() as session:
            docket = session.get(Docket, number)
            self.assertEqual([(e.code, round(e.by, 3)) for e in changed_since(session, docket)], [("waist", -1.5)])
            docket.chart_id = None
            self.assertEqual(changed_since(session, docket), ())

    def test_a_wearer_goes_with_everything(self):
        self.begin(0, waist="70")
        with self.store.write() as session:
            wearer = find_wearer(session, self.wearer_id)
            wearer.photo = Photo(wearer_id=wearer.id, data=b"x")
            session.add(
                Docket(
                    production_id=self.production_id, wearer_id=self.wearer_id, name="S",
                        design=block_design(session, METHODS["skirt.two_panel"]), options={}, ease={},
                    amounts={}, chart_id=latest_chart(session, wearer.id).id,
                )
            )  # fmt: skip
            row = begin_listening(session, latest_chart(session, wearer.id), ["hip"], twice=False)
            hear(session, row, Message("t", 1, parse_length("90", "cm")))
        with self.store.write() as session:
            session.delete(find_wearer(session, self.wearer_id))
        with self.store.read() as session:
            for table in (ChartRow, ReadingRow, Photo, Listening, Heard, Docket):
                self.assertEqual(session.scalars(select(table)).all(), [], table)


class Files(RoomCase):
    def out(self):
        with self.store.read() as session:
            wearer = find_wearer(session, self.wearer_id)
            return [filed(Measured(wearer, row, core_chart(session, row))) for row in charts_of(session, self.wearer_id)[::-1]]

    def take(self, charts):
        return take_in(self.store, self.production_id, charts)

    def test_charts_over_time_come_back_with_sides_notes_and_what_was_carried(self):
        self.begin(0, waist="70 / 70.4", shoulder="12.5", shoulder__left="12 / 12.2")
        self.begin(90, carry=True, waist="68")
        with self.store.write() as session:
            latest_chart(session, self.wearer_id).note = "=after the fall"
        charts = self.out()
        for text in (charts_json(charts), charts_csv(charts, "cm")):
            found = read_charts(text.encode())
            self.assertEqual((found.problems, found.left_out), ((), ()))
            again = [
                (c.read_on, c.note, {code: r.cm for code, r in c.readings.items()}, c.readings["shoulder"].left.spread)
                for c in found.charts
            ]
            self.assertEqual(again[1][1], "=after the fall")
            self.assertEqual([a[0] for a in again], [DAY, DAY + timedelta(days=90)])
            self.assertAlmostEqual(again[0][3], 0.2)
            self.assertAlmostEqual(again[1][2]["shoulder"], (12.1 + 12.5) / 2)
        self.assertEqual(read_charts(charts_json(charts).encode()).charts[1].readings["shoulder"].carried, DAY)
        self.assertEqual(self.take(read_charts(charts_json(charts).encode()).charts), (0, 0), "it all stands there already")

    def test_a_chart_goes_to_its_own_day(self):
        self.begin(30, waist="70")
        text = "wearer,read_on,waist\nW,2026-03-31,71\nW,2026-03-05,74\nW,,\nN,2026-03-05,80\nN,2026-04-05,81\n"
        self.assertEqual(self.take(read_charts(text.encode()).charts), (1, 4))
        with self.store.read() as session:
            rows = charts_of(session, self.wearer_id)
            self.assertEqual(
                [(row.taken_on.isoformat(), core_chart(session, row).get("waist")) for row in rows],
                [("2026-03-31", 71), ("2026-03-05", 74)],
            )
            other = session.scalars(select(Wearer).where(Wearer.name == "N")).one()
            self.assertEqual([core_chart(session, row).get("waist") for row in charts_of(session, other.id)], [81, 80])


class Tables(RoomCase):
    def test_a_table_of_the_workroom_judges_its_wearers(self):
        with self.store.write() as session:
            row = copy_table(session, TABLES["child"], "Ours")
            code = row.code
            session.get(Wearer, self.wearer_id).figure = code
        self.begin(0, height="128")
        first = self.chart().table
        self.assertEqual((first.name, first.young), ("Ours", True))
        self.assertIs(self.chart().table, first, "the same table is the same object")
        with self.store.write() as session:
            row = session.get(type(row), row.id)
            keep_table(row, type(first)(code, "Ours now", 1.0, first.row, {"neck": "F / 2"}, False))
            self.assertEqual(judged_by(session, code), 1)
        self.assertEqual(self.chart().table.name, "Ours now", "a change reaches charts that were read before")
        with self.store.write() as session:
            self.assertEqual(list(all_tables(session)), [*TABLES, code])
            session.delete(session.get(type(row), row.id))
        with self.store.read() as session:
            self.assertEqual(house_tables(session), {})
        self.assertIs(self.chart().table, CURVED, "a table that is gone leaves the curved one")


class TakenInMeanwhile(RoomCase):
    CHARTS = read_charts(b"wearer,waist,hip\nAnouk,70,95\nBela,80,99\nanouk,,96", "x", "cm", []).charts

    def names(self):
        with self.store.read() as session:
            return sorted(session.scalars(select(Wearer.name)))

    def test_who_came_while_it_was_worked_out_is_not_begun_twice(self):
        calls = []

        def meanwhile(session, production_id, charts):
            calls.append(len(calls))
            if len(calls) == 1:
                with self.store.write() as other:  # the database is free while the file is worked out
                    other.add(Wearer(production_id=production_id, name="Bela"))
            return look_at(session, production_id, charts)

        before = self.names()
        with mock.patch("widehem.store.taking_in.look_at", meanwhile):
            self.assertEqual(take_in(self.store, self.production_id, self.CHARTS), (1, 5))
        self.assertEqual(len(calls), 2)
        self.assertEqual(self.names(), sorted([*before, "Anouk", "Bela"]))
        self.assertEqual(take_in(self.store, self.production_id, self.CHARTS[:0]), (0, 0))

    def test_where_the_wearers_change_all_the_time_it_ends_and_nothing_is_kept(self):
        before = self.names()
        with mock.patch("widehem.store.taking_in._stands", side_effect=range(100)), self.assertRaises(NotTakenInError):
            take_in(self.store, self.production_id, self.CHARTS)
        self.assertEqual(self.names(), before)

    def test_all_or_nothing(self):
        before = self.names()
        with mock.patch("widehem.store.taking_in.reading_values", side_effect=ValueError), self.assertRaises(ValueError):
            take_in(self.store, self.production_id, self.CHARTS)
        self.assertEqual(self.names(), before)
        with self.assertRaises(LookupError):
            take_in(self.store, 999, self.CHARTS)


class Tape(RoomCase):
    def setUp(self):
        super().setUp()
        self.begin(0, height="164", bust="88", high_bust="83")

    def listen(self, *codes, twice=False):
        with self.store.write() as session:
            begin_listening(session, latest_chart(session, self.wearer_id), codes, twice=twice)

    def say(self, text, number=None, device="t"):
        with self.store.write() as session:
            row = listening_of(session, latest_chart(session, self.wearer_id).id)
            answer = hear(session, row, Message(device, number, parse_length(text, "cm")))
            return answer, (row.at, row.turn, row.held)

    def undo(self):
        with self.store.write() as session:
            row = listening_of(session, latest_chart(session, self.wearer_id).id)
            last = last_heard(session, row)
            if last is not None:
                take_back(session, row, last)
            return row.at, row.turn, row.held

    def test_readings_fill_one_field_after_another(self):
        self.listen("waist", "hip", twice=True)
        self.assertEqual([self.say(words, n)[1] for n, words in enumerate(("69", "69.4", "94", "94.2"))],
                         [("waist", 2, False), ("hip", 1, False), ("hip", 2, False), ("", 1, False)])  # fmt: skip
        self.assertAlmostEqual(self.chart().get("waist"), 69.2)
        self.assertEqual(self.say("50", 9)[0].code, "", "the list is full")

    def test_a_message_that_comes_again_is_answered_as_before(self):
        self.listen("waist", "hip", "neck")
        first, _ = self.say("69", 1)
        again, state = self.say("69", 1)
        self.assertEqual((again.repeated, again.code, state[0]), (True, first.code, "hip"))
        self.assertFalse(self.say("94", 1, device="other")[0].repeated, "another tape counts for itself")
        self.assertNotIn("neck", self.chart())

    def test_a_tape_that_does_not_count_may_bounce(self):
        self.listen("waist", "hip", "neck")
        self.assertFalse(self.say("69")[0].repeated)
        self.assertTrue(self.say("69")[0].repeated)
        self.assertFalse(self.say("94")[0].repeated)
        self.assertEqual((self.chart().get("waist"), self.chart().get("hip")), (69, 94))

    def test_a_doubtful_one_is_read_again_and_the_two_that_agree_stay(self):
        self.listen("neck", "waist")
        answer, state = self.say("57", 1)
        self.assertTrue(answer.doubts)
        self.assertEqual(state, ("neck", 2, True))
        self.assertEqual(self.say("37", 2)[1], ("neck", 2, True), "two apart")
        answer, state = self.say("37.4", 3)
        self.assertEqual((answer.turn, answer.doubts, state), (1, (), ("waist", 1, False)))
        self.assertAlmostEqual(self.chart().get("neck"), 37.2)

    def test_going_on_from_a_doubtful_one(self):
        self.listen("neck", "waist", "hip")
        self.say("57", 1)
        with self.store.write() as session:
            row = listening_of(session, latest_chart(session, self.wearer_id).id)
            go_on(row)
            self.assertEqual((row.at, row.turn, row.held), ("waist", 1, False))
            go_on(row, "hip")
            self.assertEqual(row.at, "hip")
            go_on(row)
            go_on(row)
            self.assertEqual(row.at, "")

    def test_taken_back_what_stood_there_stands_again(self):
        with self.store.write() as session:
            self.write_down(session, latest_chart(session, self.wearer_id), waist="70,5")
        self.listen("waist", "hip")
        self.say("69", 1)
        self.say("94", 2)
        self.assertEqual(self.undo(), ("hip", 1, False))
        self.assertNotIn("hip", self.chart())
        self.assertEqual(self.undo(), ("waist", 1, False))
        reading = self.chart().readings["waist"].first
        self.assertEqual((reading.typed, reading.cm), ("70,5", 70.5))
        self.assertEqual(self.undo(), ("waist", 1, False), "nothing is left to take back")

    def back(self, device, number=None):
        with self.store.write() as session:
            row = listening_of(session, latest_chart(session, self.wearer_id).id)
            entry, repeated = take_back_by_tape(session, row, device, number)
            return entry.measure, repeated

    def test_a_repeated_undo_and_two_tapes_take_back_one(self):
        self.listen("waist", "hip", "neck")
        self.say("69", 1, "a")
        self.say("94", 2, "a")
        self.assertEqual([self.back("a", 2), self.back("a", 2)], [("hip", False), ("hip", True)])
        self.assertIn("waist", self.chart())
        self.say("95", 7, "b")
        with self.assertRaisesRegex(NotTakenBackError, "Another reading came after it"):
            self.back("a", 1)
        with self.assertRaisesRegex(NotTakenBackError, "No reading 9 came from b"):
            self.back("b", 9)
        self.assertEqual(self.chart().get("hip"), 95)
        self.assertEqual(self.back("b"), ("hip", False))
        self.assertEqual(self.back("a"), ("hip", True), "within two seconds of taking one back")

    def test_a_tape_that_does_not_count_may_bounce_when_taking_back(self):
        self.listen("waist", "hip", "neck")
        self.say("69")
        self.say("94")
        self.assertEqual([self.back("t"), self.back("t")], [("hip", False), ("hip", True)])
        self.assertIn("waist", self.chart())
        with mock.patch("widehem.store.listening.BOUNCE", timedelta(0)):
            self.assertEqual(self.back("t"), ("waist", False))
            with self.assertRaisesRegex(NotTakenBackError, "nothing to take back from t"):
                self.back("t")

    def test_a_pair_number_runs_out_and_beginning_anew_ends_it(self):
        self.listen("waist")
        with self.store.write() as session:
            row = listening_of(session, latest_chart(session, self.wearer_id).id)
            pair = row.pair
            self.assertRegex(pair, r"^\d{6}$")
            self.assertIs(listening_under(session, pair), row)
            row.begun_at -= timedelta(hours=12, seconds=5)
            self.assertIsNone(listening_under(session, pair))
        self.listen("waist")
        with self.store.read() as session:
            self.assertIsNone(listening_under(session, pair))

    def test_the_search_for_a_free_number_ends(self):
        self.listen("waist")
        with self.store.read() as session:
            pair = listening_of(session, latest_chart(session, self.wearer_id).id).pair
        with (
            mock.patch("widehem.store.listening._number", return_value=pair),
            self.assertRaisesRegex(StoreError, "No pair number"),
        ):
            self.listen("waist")


if __name__ == "__main__":
    unittest.main()
