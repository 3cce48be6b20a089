"""Charts in and out through the pages."""

import io
import json
import re
import unittest

from pypdf import PdfReader

from tests.web.case import WebCase
from widehem.core.output.charts_in import read_charts
from widehem.store.charts import core_chart, latest_chart
from widehem.store.tables import house_tables


class FilesCase(WebCase):
    def look(self, data, status=200, name="charts.csv"):
        response = self.client.post(
            "/productions/1/charts",
            data={"csrf_token": self.token(), "file": (io.BytesIO(data), name)},
            content_type="multipart/form-data",
        )
        self.assertEqual(response.status_code, status)
        return response.get_data(as_text=True)


class Out(FilesCase):
    def test_every_chart_of_the_production_comes_back_the_same(self):
        with self.store.read() as session:
            tables = list(house_tables(session).values())
        for path in ("charts.csv?unit=cm", "charts.csv?unit=in", "charts.json"):
            response = self.client.get(f"/productions/1/{path}")
            self.assertIn("attachment", response.headers["Content-Disposition"])
            found = read_charts(response.data, tables=tables)
            self.assertEqual((found.problems, found.left_out, len(found.charts)), ((), (), 12))
            page = self.look(response.data)
            self.assertIn("Everything stands on the chart already", page)
            self.assertNotIn('<small class="gap">new', page)
        self.get("/productions/1/charts.xls", 404)
        self.get("/productions/9/charts.csv", 404)

    def test_the_sheet_is_printed_blank_and_filled_on_both_papers(self):
        for paper, wide in (("a4", 595), ("letter", 612)):
            for blank in ("1", "0"):
                response = self.client.get(f"/wearers/1/chart.pdf?paper={paper}&blank={blank}&list=all")
                reader = PdfReader(io.BytesIO(response.data))
                self.assertAlmostEqual(float(reader.pages[0].mediabox.width), wide, delta=1)
                words = " ".join(page.extract_text() for page in reader.pages)
                self.assertIn("Chart of Odile Marsh", words)
                self.assertIn("Crotch length", words)
                self.assertEqual("78.4" in words, blank == "0")
        words = " ".join(p.extract_text() for p in PdfReader(io.BytesIO(self.client.get("/wearers/1/chart.pdf").data)).pages)
        self.assertNotIn("Bust span", words, "only what the garment needs")


class In(FilesCase):
    def store_(self, page, **more):
        fields = {name: re.search(rf'name="{name}" value="([^"]*)"', page)[1] for name in ("data", "name", "unit")}
        return self.client.post("/productions/1/charts/store", data={"csrf_token": self.token(), **fields, **more})

    def chart(self, wearer):
        with self.store.read() as session:
            return core_chart(session, latest_chart(session, wearer))

    def test_the_chart_holds_exactly_what_was_shown(self):
        before = self.chart(1).readings["waist"]
        self.assertIsNotNone(before.second)
        page = self.look(b"wearer,waist,hip\nOdile Marsh,81,97")
        self.assertRegex(page, r"78\.0 / 78\.4</td>\s*<td class=\"num r\">81\.0</td>")
        self.store_(page)
        after = self.chart(1).readings["waist"]
        self.assertEqual((after.first.cm, after.second), (81, None))
        page = self.get("/productions/1")
        self.assertIn("Took in 1 chart from a file.", page)
        self.post(re.search(r'action="(/done/\d+/undo)"', page)[1])
        self.assertEqual(self.chart(1).readings["waist"], before)
        page = self.get("/bin")
        self.assertIn("Taken back: Took in 1 chart from a file.", page)
        self.post(re.search(r'action="(/done/\d+/undo)"', page)[1], {"back": "/bin"})
        self.assertEqual(self.chart(1).readings["waist"].first.cm, 81)

    def test_a_file_is_taken_back_as_a_whole(self):
        before = self.get("/productions/1/charts.csv")
        page = self.look(b"wearer,waist,hip,read_on\nNew Hand,70,95,\nOdile Marsh,81,97,2026-11-28\nIvo Brack,91,,\n")
        self.store_(page)
        self.assertIn("New Hand", self.get("/productions/1"))
        page = self.get("/bin")
        undo = re.search(r'action="(/done/\d+/undo)"', page)[1]
        self.post(undo, {"back": "/bin"})
        self.assertEqual(self.get("/productions/1/charts.csv"), before)
        self.assertIn("New Hand", self.get("/bin"))

    def test_doubts_are_told_before_it_is_stored_as_while_typing(self):
        page = self.look(b"wearer,waist,hip\nOdile Marsh,120,97")
        self.assertRegex(page, "Look again.*[Ww]aist")
        self.assertNotIn("Look again:", self.look(b"wearer,waist\nOdile Marsh,78.5"))

    def test_a_file_to_fill_in_has_everybody_and_every_measure(self):
        answer = self.client.get("/productions/1/charts/blank.csv")
        rows = answer.get_data(as_text=True).lstrip("\ufeff").splitlines()
        self.assertIn("waist", rows[0].split(","))
        self.assertEqual(len(rows), 13)
        self.assertIn("Odile Marsh", rows[8])
        self.assertNotIn("78", rows[8])
        page = self.look(answer.get_data())
        self.assertNotIn("Not understood</p>", page)

    def test_of_a_large_file_the_first_are_shown_in_full_and_how_much_changes_of_the_rest(self):
        rows = "".join(f"Extra {n:02},{60 + n},\n" if n % 2 else f"Extra {n:02},{60 + n},{80 + n}\n" for n in range(70))
        page = self.look(f"wearer,waist,hip\n{rows}".encode())
        self.assertIn("And 10 more charts", page)
        self.assertIn("119.0", page)
        self.assertNotIn("121.0", page)
        self.assertRegex(page, r"Extra 68[^0-9]*new[^0-9]*2</td>")
        self.assertRegex(page, r"Extra 69[^0-9]*new[^0-9]*1</td>")

    def test_a_file_is_looked_at_before_anything_is_stored(self):
        data = b"wearer,part,figure,waist,waist_2,hip (in)\nodile marsh,,,79,79.2,\nPip Reed,Bargee,straight,80,,38 1/2\n"
        page = self.look(data)
        self.assertIn("nothing is stored yet", page)
        self.assertIn("78.0 / 78.4", page)
        self.assertIn("79.0 / 79.2", page)
        self.assertAlmostEqual(self.chart(1).get("waist"), 78.2)
        self.assertNotIn("Pip Reed", self.get("/productions/1"))
        self.assertEqual(self.store_(page).status_code, 303)
        self.assertAlmostEqual(self.chart(1).get("waist"), 79.1)
        self.assertIn("Pip Reed", self.get("/productions/1"))
        pip = self.chart(13)
        self.assertEqual(pip.table.code, "straight")
        self.assertAlmostEqual(pip.get("hip"), 38.5 * 2.54)
        self.assertIn("What stood here before", self.get("/wearers/1/measure?at=waist"))

    def test_what_is_not_understood_stops_the_whole_file_until_it_is_left_out(self):
        page = self.look(b"wearer,waist,hip,shoe size\nOdile Marsh,wide,99,40\n")
        self.assertIn("row 2, waist", page)
        self.assertIn("Columns nobody here knows, left out: shoe size", page)
        before = self.chart(1)
        self.assertEqual(self.store_(page).status_code, 422)
        self.assertEqual(self.chart(1), before)
        self.assertEqual(self.store_(page, leave_out="yes").status_code, 303)
        self.assertAlmostEqual(self.chart(1).get("hip"), 99, msg="both readings are replaced, none is left to be averaged")
        self.assertAlmostEqual(self.chart(1).get("waist"), 78.2)

    def test_files_that_cannot_be_read(self):
        self.assertIn("Choose a file first", self.look(b"", 422))
        self.assertIn("No column is named", self.look(b"waist\n70\n", 422))
        self.assertIn("kB is the most", self.look(b"wearer\n" + b"a" * 1200000, 422))
        self.assertEqual(
            self.client.post("/productions/1/charts/store", data={"csrf_token": self.token(), "data": "?"}).status_code, 400
        )

    def test_a_chart_file_of_the_command_line_takes_its_name(self):
        page = self.look(json.dumps({"unit": "in", "measures": {"waist": 27}}).encode(), name="Ada Flint.json")
        self.assertIn("Ada Flint", page)
        self.assertIn("68.6", page)


if __name__ == "__main__":
    unittest.main()
