"""Whatever is done is said, and can be taken back; what is deleted lies in the bin; a garment has its versions."""

import io
import itertools
import re
import unittest
from datetime import timedelta
from unittest import mock

from PIL import Image
from sqlalchemy import func, select

from tests.some import some
from tests.web.case import WebCase, as_shown
from tests.web.test_meanwhile import hidden
from widehem.store.bin import DAYS, WITH_BIN, in_bin, let_go
from widehem.store.charts import core_chart, latest_chart
from widehem.store.models import Base, Docket, Event, ReadingRow, Wearer, now

LEFT_OUT = {"event", "reading"}
TIMES = {"updated_at", "version", "binned_at"}


def photo():
    out = io.BytesIO()
    Image.new("RGB", (60, 60), "navy").save(out, "PNG")
    out.seek(0)
    return out, "face.png"


class UndoCase(WebCase):
    maxDiff = None

    def all_rows(self):
        """Everything that is kept and seen, but for the readings, which are only ever added, and when and how often it was kept."""
        found = {}
        with self.store.read() as session:
            for mapper in Base.registry.mappers:
                if mapper.class_.__tablename__ in LEFT_OUT:
                    continue
                for row in session.scalars(select(mapper.class_)):
                    key = mapper.class_.__tablename__, mapper.primary_key_from_instance(row)[0]
                    found[key] = {attr.key: getattr(row, attr.key) for attr in mapper.column_attrs if attr.key not in TIMES}
        return found

    def charts(self):
        with self.store.read() as session:
            return {
                wearer.id: core_chart(session, latest_chart(session, wearer.id)).readings
                for wearer in session.scalars(select(Wearer))
            }

    def said(self, page):
        """What the hem says was done, and where that is taken back."""
        found = re.search(r'<form class="undo-bar".*?action="([^"]+)".*?<span[^>]*>([^<]*)</span>', page, re.S)
        return (found[2], found[1]) if found else ("", "")

    def do(self, path, data=None, **more):
        """Send a form; what the page after it says."""
        answer = self.client.post(path, data={"csrf_token": self.token(), **(data or {})}, **more)
        self.assertIn(answer.status_code, (200, 303), answer.get_data(as_text=True)[-400:])
        return self.said(self.page(answer.location) if answer.status_code == 303 else answer.get_data(as_text=True))

    def page(self, path):
        """What is tried on a garment may lead on."""
        return as_shown(self.client.get(path, follow_redirects=True).get_data(as_text=True))

    def undo(self, at):
        return self.said(self.get(self.post(at, {"back": "/"}).location))


class TakenBack(UndoCase):
    def forms(self):
        """What a maker can do: the sentence of each, and the form."""
        keep = hidden(self.get("/dockets/1/draft?o.length=50"), "/dockets/1/keep")
        yield "Kept Ferry skirt: length 50 cm.", "/dockets/1/keep", keep
        keep = hidden(self.get("/dockets/1/draft?o.length=50&m.waist=77"), "/dockets/1/keep")
        yield "Kept Ferry skirt: waist 77 cm, length 50 cm.", "/dockets/1/keep", keep
        yield "Ferry skirt is called Rope skirt now.", "/dockets/1/rename", {"name": "Rope skirt"}
        yield "Ferry skirt is in the bin.", "/dockets/1/delete", {}
        yield "Kept the allowances of Ferry skirt.", "/dockets/1/cut/plan", {"plan": "cloth", "a.seam": "2"}
        yield "Ferry skirt is printed on A3.", "/dockets/1/cut/paper", {"paper": "a3"}
        yield "Kept what Ferry skirt is worn over.", "/dockets/1/foundation", {"foundation": "corset"}
        yield "Noted how Ferry skirt looks.", "/dockets/1/looks", {"darts": "change", "note": "short"}
        yield "Began Cape for Odile Marsh.", "/productions/1/dockets", {"docket": "Cape", "for": "1", "method": "bodice.plain"}
        yield "Added Nell Tar.", "/productions/1/wearers", {"wearer": "Nell Tar"}
        yield "Began The Weir.", "/productions", {"name": "The Weir"}
        yield "Kept the names of The Ferry.", "/productions/1/about", {"name": "The Ferry", "company": "Q"}
        yield "Kept what is said of Odile M.", "/wearers/1/about", {"name": "Odile M.", "allergies": "wool"}
        yield "Odile Marsh is in the bin, with charts and garments.", "/wearers/1/delete", {"sure": "Odile Marsh"}
        yield "The Lantern Ferry is in the bin, with everyone in it.", "/productions/1/delete", {"sure": "The Lantern Ferry"}
        yield "Kept the photo of Odile Marsh.", "/wearers/1/photo", {"photo": photo()}
        yield "Rubbed out the photo of Odile Marsh.", "/wearers/1/photo", {"rub_out": "yes"}
        yield "Kept what is said of the chart of Odile Marsh.", "/wearers/1/chart", {"note": "cold hands", "was.note": ""}
        yield "Began a chart of Odile Marsh.", "/wearers/1/charts", {"taken_on": "2026-11-30", "carry": "yes"}
        yield "Kept the list Sleeves.", "/lists", {"name": "Sleeves", "measure": ["upper_arm", "wrist"]}
        yield "Kept 1 house value.", "/house", {"of": "", "e.waist": "2.5"}
        yield "The house stands in Europe/Lisbon.", "/house/zone", {"zone": "Europe/Lisbon"}
        yield "Copied Close woven block.", "/ease/close/copy", {}
        yield "Waist of Odile Marsh: 71.5 cm.", "/wearers/1/readings", {"measure": "waist", "first": "71.5"}
        yield "Waist of Odile Marsh: struck out.", "/wearers/1/readings", {"measure": "waist", "first": "", "second": ""}

    def test_everything(self):
        for number in some(range(len(list(self.forms()))), 3):
            self.doCleanups()
            self.setUp()
            words, path, data = next(itertools.islice(self.forms(), number, None))
            with self.subTest(words):
                rows, charts = self.all_rows(), self.charts()
                said, at = self.do(path, data)
                self.assertEqual(said.replace("&#39;", "'"), words)
                after, after_charts = self.all_rows(), self.charts()
                self.assertTrue(after != rows or after_charts != charts, "something was done")
                back, again = self.undo(at)
                self.assertEqual(back, f"Taken back: {words}")
                self.same(rows, charts)
                redone, once_more = self.undo(again)
                self.assertEqual(redone, words, "taking back is taken back")
                self.same(after, after_charts)
                self.undo(once_more)
                self.same(rows, charts)

    def same(self, rows, charts):
        now = self.all_rows()
        self.assertEqual({key: (rows.get(key), now.get(key)) for key in {*rows, *now} if rows.get(key) != now.get(key)}, {})
        self.assertEqual(self.charts(), charts)

    def test_it_is_said_once(self):
        self.assertEqual(self.do("/dockets/1/rename", {"name": "Rope skirt"})[0], "Ferry skirt is called Rope skirt now.")
        self.assertEqual(self.said(self.get("/dockets/1/draft")), ("", ""))

    def test_what_was_changed_since_is_not_taken_back_unseen(self):
        _, first = self.do("/dockets/1/rename", {"name": "Rope skirt"})
        self.do("/dockets/1/rename", {"name": "Tar skirt"})
        page = self.post(first, {"back": "/"}, 409).get_data(as_text=True)
        self.assertIn("The garment was changed since: take that back first.", page)
        with self.store.read() as session:
            self.assertEqual(session.get(Docket, 1).name, "Tar skirt")
        _, read = self.do("/wearers/1/readings", {"measure": "waist", "first": "71.5"})
        self.do("/wearers/1/readings", {"measure": "waist", "first": "72.5"})
        self.assertIn("Waist was read again since", self.post(read, {"back": "/"}, 409).get_data(as_text=True))
        self.assertEqual(self.charts()[1]["waist"].first.cm, 72.5)

    def test_twice_is_once(self):
        _, at = self.do("/dockets/1/rename", {"name": "Rope skirt"})
        self.undo(at)
        self.assertIn("It is taken back already.", self.post(at, {"back": "/"}, 409).get_data(as_text=True))

    def test_what_was_carried_over_counts_again(self):
        self.do("/wearers/1/charts", {"taken_on": "2026-11-30", "carry": "yes"})
        before = self.charts()[1]["waist"]
        self.assertIsNotNone(before.carried)
        _, at = self.do("/wearers/1/readings", {"measure": "waist", "first": "71.5"})
        self.assertIsNone(self.charts()[1]["waist"].carried)
        self.undo(at)
        self.assertEqual(self.charts()[1]["waist"], before)

    def test_an_earlier_reading_is_put_back(self):
        before = self.charts()[1]["waist"]
        self.do("/wearers/1/readings", {"measure": "waist", "first": "99", "second": "99.2"})
        page = self.get("/wearers/1/measure?at=waist")
        backs = re.findall(r'name="reading" value="(\d+)"', page)
        self.assertGreaterEqual(len(backs), 2)
        with self.store.read() as session:
            rows = {
                row.turn: row.id
                for row in (session.get(ReadingRow, int(number)) for number in backs)
                if row.ticks < 80_000 * 90
            }
        for number in rows.values():
            said, at = self.do("/wearers/1/readings/back", {"reading": number})
            self.assertIn("Waist of Odile Marsh", said)
        after = self.charts()[1]["waist"]
        self.assertEqual((after.first, after.second), (before.first, before.second))
        self.undo(at)
        self.assertNotEqual(self.charts()[1]["waist"], after)
        self.post("/wearers/2/readings/back", {"reading": number}, 404)

    def test_readings_are_only_ever_added(self):
        with self.store.read() as session:
            before = session.scalar(select(func.count()).select_from(ReadingRow))
        _, at = self.do("/wearers/1/readings", {"measure": "waist", "first": "71.5"})
        self.undo(at)
        with self.store.read() as session:
            self.assertEqual(session.scalar(select(func.count()).select_from(ReadingRow)), before + 2)

    def test_it_leads_nowhere_else(self):
        _, at = self.do("/dockets/1/rename", {"name": "Rope skirt"})
        self.assertEqual(self.post(at, {"back": "//evil.example"}).location, "/")
        self.post("/done/99999/undo", {"back": "/"}, 404)


class Bin(UndoCase):
    def test_what_is_in_it_is_found_nowhere_and_comes_out_again_with_all_of_it(self):
        rows = self.all_rows()
        self.do("/wearers/1/delete", {"sure": "Odile Marsh"})
        for path in ("/wearers/1", "/wearers/1/measure", "/dockets/1/draft", "/wearers/1/photo.jpg"):
            self.assertEqual(self.client.get(path).status_code, 404, path)
        for path in ("/", "/productions/1", "/productions/1/company", "/productions/1/charts.csv"):
            self.assertNotIn("Odile", self.get(path), path)
        page = self.get("/bin")
        self.assertRegex(page, r"Odile Marsh<small class=\"block\">with \d+ garments?</small>")
        self.assertNotIn("Ferry skirt", page, "it went with her")
        self.post("/bin/wearer/1")
        self.assertEqual(self.all_rows(), rows)
        self.assertIn("Took Odile Marsh out of the bin.", self.get("/bin"))

    def test_a_garment_of_a_wearer_who_lies_there_too(self):
        self.do("/dockets/1/delete", {})
        self.do("/wearers/1/delete", {"sure": "Odile Marsh"})
        self.assertIn("its wearer lies in the bin too", self.post("/bin/docket/1", status=409).get_data(as_text=True))
        self.post("/bin/wearer/1")
        self.get("/dockets/1/draft", 404)
        self.post("/bin/docket/1")
        self.get("/dockets/1/draft")
        self.post("/bin/docket/1", status=404)
        self.post("/bin/chart/1", status=404)

    def test_after_thirty_days_it_is_gone(self):
        self.do("/dockets/1/delete", {})
        self.do("/wearers/2/delete", {"sure": self.name(2)})
        with self.store.write() as session:
            docket = session.get(Docket, 1, execution_options=WITH_BIN)
            docket.binned_at = now() - timedelta(days=DAYS, hours=1)
        with self.store.write() as session:
            self.assertEqual(let_go(session), ["Ferry skirt"])
        with self.store.read() as session:
            self.assertIsNone(session.get(Docket, 1, execution_options=WITH_BIN))
            self.assertEqual(len(in_bin(session)), 1)
        later = now() + timedelta(days=DAYS, hours=1)
        with mock.patch("widehem.store.bin.now", return_value=later), self.store.write() as session:
            self.assertEqual(len(let_go(session)), 1)
            self.assertIsNone(session.get(Wearer, 2, execution_options=WITH_BIN))

    def name(self, number):
        with self.store.read() as session:
            return session.get(Wearer, number).name

    def test_a_sleeve_outlives_its_bodice_and_finds_it_again(self):
        with self.store.read() as session:
            sleeve = session.scalars(select(Docket).where(Docket.bodice_id.is_not(None))).first()
            number, bodice = sleeve.id, sleeve.bodice_id
        before = self.get(f"/dockets/{number}/draft")
        self.assertIn("drawn for it.</p>", self.get(f"/dockets/{bodice}/more"), "it is said before")
        _, at = self.do(f"/dockets/{bodice}/delete", {})
        self.assertEqual(self.client.get(f"/dockets/{number}/draft").status_code, 200)
        self.undo(at)
        self.assertEqual(re.findall("<path[^>]*>", self.get(f"/dockets/{number}/draft")), re.findall("<path[^>]*>", before))


class Versions(UndoCase):
    def kept(self, length):
        fields = hidden(self.get(f"/dockets/1/draft?o.length={length}"), "/dockets/1/keep")
        self.do("/dockets/1/keep", fields)

    def test_they_are_listed_laid_over_and_brought_back(self):
        with self.store.read() as session:
            options = dict(session.get(Docket, 1).all_options)
        self.kept(50)
        self.do("/dockets/1/cut/paper", {"paper": "a3"})
        self.kept(70)
        page = self.get("/dockets/1/versions")
        self.assertIn("Kept Ferry skirt: length 70 cm.", page)
        numbers = re.findall(r"/dockets/1/versions/(\d+)", page)
        self.assertEqual((len(numbers), numbers[-1]), (3, "0"), "and as it was before")
        over = self.get(f"/dockets/1/compare?with=version:{numbers[1]}")
        self.assertRegex(over, r"back side.*?−(19|20)\.\d", "twenty centimetres shorter")
        self.post(f"/dockets/1/versions/{numbers[1]}")
        with self.store.read() as session:
            docket = session.get(Docket, 1)
            self.assertEqual(docket.all_options["length"], "50 cm")
            self.assertNotEqual(docket.paper, "a3", "as it was then")
        said, at = self.said(self.get("/dockets/1/draft"))
        self.assertEqual(said, "Brought back Ferry skirt as it was: Kept Ferry skirt: length 50 cm.")
        self.undo(at)
        with self.store.read() as session:
            self.assertEqual(session.get(Docket, 1).all_options["length"], "70 cm")
            self.assertNotEqual(options, session.get(Docket, 1).all_options)
        self.post("/dockets/1/versions/99999", status=404)

    def test_events_tell_whose_and_what(self):
        self.do("/dockets/1/rename", {"name": "Rope skirt"})
        with self.store.read() as session:
            event = session.scalars(select(Event).order_by(Event.id.desc())).first()
            self.assertEqual((event.production_id, event.wearer_id, event.docket_id), (1, 1, 1))
            self.assertRegex(event.by, "^[0-9a-f]{12}$")
            self.assertEqual(event.changes[0]["before"]["name"], "Ferry skirt")


if __name__ == "__main__":
    unittest.main()
