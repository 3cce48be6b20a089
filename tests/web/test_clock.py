"""A clock that jumps swallows nothing; days are those of the place where the house stands."""

import time
import unittest
from datetime import UTC, date, datetime, timedelta
from unittest import mock

from tests.web.case import WebCase
from tests.web.test_taking import TakingCase
from widehem.core.days import ZoneError, day_in, zone_named
from widehem.jobs.daily import COPY
from widehem.jobs.works import Works
from widehem.store.charts import latest_chart
from widehem.store.clock import house_day, keep_zone
from widehem.store.copies import copies
from widehem.store.models import Docket, Wearer

LATE = datetime(2026, 11, 29, 23, 30)  # of UTC


class Zones(unittest.TestCase):
    def test_a_day_is_that_of_a_place(self):
        for zone, day in (("Europe/Lisbon", 29), ("Pacific/Auckland", 30), ("America/Halifax", 29), ("Asia/Kolkata", 30)):
            self.assertEqual(day_in(LATE, zone_named(zone)), date(2026, 11, day), zone)
        self.assertEqual(day_in(datetime(2026, 11, 30, 3), zone_named("America/Halifax")), date(2026, 11, 29))

    def test_the_machines_own_without_one(self):
        self.addCleanup(time.tzset)
        with mock.patch.dict("os.environ", {"TZ": "Pacific/Auckland"}):
            time.tzset()
            self.assertEqual(day_in(LATE, None), date(2026, 11, 30))

    def test_none_is_called_so(self):
        for name in ("Europe/Nowhere", "../../etc/passwd", "/etc/passwd", "", "x" * 500, "Europe"):
            with self.assertRaises(ZoneError, msg=name):
                zone_named(name)


class Days(WebCase):
    def at(self, moment):
        patch = (
            mock.patch("widehem.store.clock.now", return_value=moment),
            mock.patch("widehem.web.here.now", return_value=moment),
        )
        for entry in patch:
            entry.start()
            self.addCleanup(entry.stop)

    def zone(self, name, status=303, **more):
        return self.post("/house/zone", {"zone": name, **more}, status)

    def test_the_house_says_where_it_stands(self):
        self.at(LATE)
        self.zone("Pacific/Auckland")
        page = self.get("/house")
        self.assertIn("Today is 30 November 2026 here", page)
        self.assertIn('value="Pacific/Auckland"', page)
        self.zone("")
        self.assertIn('placeholder="as this machine"', self.get("/house"))

    def test_a_zone_that_is_none_is_told_and_stays_in_its_field(self):
        page = self.zone("Nowhere/Quay", 422).get_data(as_text=True)
        self.assertIn("There is no zone Nowhere/Quay", page)
        self.assertIn('value="Nowhere/Quay"', page)

    def test_two_that_set_it_at_once_see_each_other(self):
        self.zone("Europe/Lisbon")
        page = self.zone("Asia/Kolkata", 409, **{"was.zone": ""}).get_data(as_text=True)
        self.assertIn("Meanwhile somebody kept “Europe/Lisbon” here", page)

    def test_it_is_no_house_value(self):
        self.zone("Europe/Lisbon")
        self.assertNotIn("Lisbon", self.get("/house.json"))

    def test_charts_labels_and_copies_carry_its_day(self):
        self.at(LATE)
        self.zone("Pacific/Auckland")
        with self.store.write() as session:
            wearer = Wearer(production_id=1, name="Late Comer")
            session.add(wearer)
            session.flush()
            number = wearer.id
            session.get(Docket, 1).updated_at = LATE
        token = self.token(f"/wearers/{number}/measure?at=waist")
        data = {"csrf_token": token, "measure": "waist", "first": "70"}
        self.assertEqual(self.client.post(f"/wearers/{number}/readings", data=data).status_code, 303)
        with self.store.read() as session:
            self.assertEqual(latest_chart(session, number).taken_on, date(2026, 11, 30))
            self.assertEqual(house_day(session), date(2026, 11, 30))
        self.assertIn("30 November 2026", self.get("/dockets/1/files/pattern.svg"))
        works = Works(self.store, inline=True)
        self.addCleanup(works.close)
        folder = self.store.folder / "copies"
        works.ask(COPY, {"folder": str(folder)}, "Copy", "copy")
        self.assertEqual([path.name for path in copies(folder)], ["widehem-2026-11-30.sqlite3"])

    def test_what_stands_there_and_is_none_any_more_is_the_machines(self):
        with self.store.write() as session:
            keep_zone(session, "Europe/Lisbon")
        with mock.patch("widehem.store.clock.zone_named", side_effect=ZoneError("gone")):
            self.assertIn("Today is", self.get("/house"))


class Jumps(TakingCase):
    def jump(self, seconds):
        """The clock of the machine is set."""
        true, stand = time.time, datetime.now(UTC) + timedelta(seconds=seconds)
        for patch in (
            mock.patch("time.time", side_effect=lambda: true() + seconds),
            mock.patch("widehem.store.models.now", return_value=stand.replace(tzinfo=None)),
            mock.patch("widehem.store.listening.now", return_value=stand.replace(tzinfo=None)),
        ):
            patch.start()
            self.addCleanup(patch.stop)

    def test_what_was_typed_before_is_taken_after(self):
        for number, seconds in enumerate((-3600, -3 * 24 * 3600, 400 * 24 * 3600)):
            with self.subTest(seconds):
                fields = self.fields("/wearers/4/tape?list=full&at=neck")
                token = self.token("/wearers/4/tape?list=full")
                true = time.time
                with mock.patch("time.time", side_effect=lambda true=true, seconds=seconds: true() + seconds):
                    answer = self.client.post(
                        "/wearers/4/readings", data={**fields, "csrf_token": token, "first": f"36.{number}"}
                    )
                self.assertEqual(answer.status_code, 303)
                self.assertEqual(self.chart(4).readings["neck"].first.typed, f"36.{number}")

    def test_a_tape_is_heard_after_the_clock_was_put_back(self):
        self.post("/wearers/12/listen", {"act": "begin", "list": "full"})
        pair = self.get("/wearers/12/listen?list=full").split('class="pair num"')[1].split(">")[1].split("<")[0].strip()

        def send(value):
            answer = self.client.post(f"/tape/{pair}/readings", json={"device": "blue", "value": value})
            return answer.status_code, answer.get_json()["taken"]["measure"]

        first = send("70")
        self.assertEqual(first[0], 201)
        self.assertEqual(send("70"), (200, first[1]), "the same again at once is the same")
        self.jump(-3600)
        again = send("70")
        self.assertEqual(again[0], 201, "an hour ago it was not sent")
        self.assertNotEqual(again[1], first[1])


if __name__ == "__main__":
    unittest.main()
