"""Charts in and out of files: the same comes back, and what is not understood is told and never guessed."""

import csv
import io
import json
import unittest
from datetime import date

from hypothesis import given
from hypothesis import strategies as st

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Reading
from widehem.core.body.chart_file import FiledChart, FileProblem, column_named, exact
from widehem.core.output.charts_in import LARGEST, read_charts
from widehem.core.output.charts_out import charts_csv, charts_json
from widehem.core.units import parse_length

ODILE = FiledChart(
    "Odile Marsh", "Keeper, of the ferry", "straight", date(2026, 11, 3), "corset", "boots", "Bram Teague",
    {
        "waist": Reading("waist", parse_length("78", "cm"), parse_length("30 3/4", "in")),
        "hip": Reading("hip", parse_length("38 5/8 in", "cm")),
    },
)  # fmt: skip


def ticks(chart):
    return {code: [length and length.ticks for length in (r.first, r.second)] for code, r in chart.readings.items()}


class RoundTrips(unittest.TestCase):
    def test_csv_in_both_units_and_json(self):
        for text in (charts_csv([ODILE], "cm"), charts_csv([ODILE], "in"), charts_json([ODILE])):
            found = read_charts(text.encode())
            self.assertEqual((found.problems, found.left_out), ((), ()))
            (chart,) = found.charts
            for name in ("wearer", "part", "figure", "read_on", "foundation", "shoes", "read_by"):
                self.assertEqual(getattr(chart, name), getattr(ODILE, name), name)
            for code, turns in ticks(chart).items():
                for mine, theirs in zip(turns, ticks(ODILE)[code], strict=True):
                    self.assertTrue(mine == theirs or abs(mine - theirs) <= 2, (code, mine, theirs))

    @given(
        st.dictionaries(st.sampled_from(sorted(CATALOGUE)), st.integers(64, 4000), max_size=6), st.sampled_from(["cm", "in"])
    )
    def test_any_sixty_fourth_comes_back_exactly_in_inches(self, values, unit):
        readings = {code: Reading(code, parse_length(f"{n}/64 in", "cm")) for code, n in values.items()}
        chart = FiledChart("A", readings=readings)
        (again,) = read_charts(charts_csv([chart], unit).encode()).charts
        self.assertEqual(set(ticks(again)), set(ticks(chart)))
        for code, turns in ticks(again).items():
            self.assertLessEqual(abs(turns[0] - ticks(chart)[code][0]), 0 if unit == "in" else 1)

    def test_exact_words(self):
        self.assertEqual(exact(parse_length("38 5/8", "in"), "in"), "38 5/8")
        self.assertEqual(exact(parse_length("3/64", "in"), "in"), "3/64")
        self.assertEqual(exact(parse_length("70.25", "cm"), "cm"), "70.25")


class Columns(unittest.TestCase):
    def test_by_code_name_and_other_names(self):
        for name, code, turn, unit in (
            ("waist", "waist", 1, None), ("Waist to hip", "waist_hip", 1, None), ("NATURAL WAIST (in)", "waist", 1, "in"),
            ("waist_2", "waist", 2, None), ("Hip second reading [cm]", "hip", 2, "cm"), ("Name", "wearer", 1, None),
            ("nape to waist, back", "nape_waist", 1, None),
        ):  # fmt: skip
            column = column_named(name)
            self.assertEqual((column.code, column.turn, column.unit), (code, turn, unit), name)
        for name in ("favourite colour", "", "part 2", "2"):
            self.assertIsNone(column_named(name), name)


class ReadingFiles(unittest.TestCase):
    def test_semicolons_decimal_commas_and_mixed_units(self):
        found = read_charts(b"Name;Waist;Hip (in);shoe size\nAda;70,5;38 1/2;40\nBo;28 in;;\n")
        self.assertEqual(found.left_out, ("shoe size",))
        self.assertEqual(found.problems, ())
        ada, bo = found.charts
        self.assertAlmostEqual(ada.readings["waist"].cm, 70.5)
        self.assertAlmostEqual(ada.readings["hip"].cm, 38.5 * 2.54)
        self.assertAlmostEqual(bo.readings["waist"].cm, 28 * 2.54)
        self.assertNotIn("hip", bo.readings)

    def test_what_is_not_understood_is_told_with_its_place(self):
        text = "wearer,waist,hip,read_on,figure,unit\nAda,wide,98,soon,round,ell\n,70,,,,\nBo,70,,,,\nbo,71,,,,\n"
        found = read_charts(text.encode())
        told = {problem.where: problem.words for problem in found.problems}
        self.assertEqual(set(told), {"row 2, waist", "row 2, read_on", "row 2, figure", "row 2, unit", "row 3", "Bo", "bo"})
        self.assertIn("wide", told["row 2, waist"])
        self.assertEqual(found.charts[0].readings["hip"].cm, 98)

    def test_other_encodings(self):
        self.assertEqual(read_charts("wearer,waist\nZoë,70\n".encode("utf-16")).charts[0].wearer, "Zoë")
        self.assertEqual(read_charts("\ufeffwearer,waist\nZoë,70\n".encode()).charts[0].wearer, "Zoë")
        western = read_charts("wearer,waist\nZoë,70\n".encode("cp1252"))
        self.assertEqual(western.charts[0].wearer, "Zoë")
        self.assertIn("Western", western.notes[0])

    def test_files_that_cannot_be_used(self):
        for data, word in (
            (b"", "empty"), (b"   \n", "empty"), (b"waist,hip\n70,98\n", "wearer"), (b"{", "JSON"), (b'{"a": 1}', "charts"),
                (b"[1]", "charts"),
            (b"x" * (LARGEST + 1), "kB"), (b"%PDF-1.4\x00\x01", "text"), (b"\xff\xfe\x00", "text"), (b"[" * 100000, "JSON"),
            (("wearer\n" + "a\n" * 2500).encode(), "rows"), (b'wearer\n"' + b"a" * 200000, "CSV"),
        ):  # fmt: skip
            with self.subTest(word), self.assertRaises(FileProblem) as caught:
                read_charts(data)
            self.assertIn(word, str(caught.exception))

    def test_no_cell_becomes_a_formula(self):
        for name in ("=1+1", "+cmd", "-2", "@sum", "\tx"):
            text = charts_csv([FiledChart(name, foundation=name)], "cm")
            row = list(csv.reader(io.StringIO(text)))[1]
            self.assertFalse(row[0].startswith(("=", "+", "-", "@", "\t")), row)
            if name.strip() == name:
                self.assertEqual(read_charts(text.encode()).charts[0].wearer, name)

    def test_the_chart_file_of_the_command_line(self):
        found = read_charts(
            json.dumps({"unit": "in", "measures": {"waist": 27, "hip": "38 1/2", "elbow grease": 3}}).encode(), "Ada"
        )
        self.assertEqual((found.charts[0].wearer, found.left_out), ("Ada", ("elbow grease",)))
        self.assertAlmostEqual(found.charts[0].readings["waist"].cm, 27 * 2.54)

    def test_odd_json_is_told_and_never_breaks(self):
        for measures in ({"waist": [1]}, {"waist": True}, {"waist": {"first": {}}}, {"waist": "x"}):
            found = read_charts(json.dumps({"charts": [{"wearer": "A", "measures": measures}]}).encode())
            self.assertEqual(len(found.problems), 1, measures)
        self.assertTrue(read_charts(b'{"charts": [3, {"wearer": ""}, {"wearer": "A", "unit": "ell", "measures": 3}]}').problems)

    @given(st.binary(max_size=300))
    def test_any_bytes_are_read_or_refused_with_a_sentence(self, data):
        try:
            read_charts(b"wearer,waist\n" + data)
            read_charts(data)
        except FileProblem as problem:
            self.assertTrue(str(problem).endswith("."))


if __name__ == "__main__":
    unittest.main()
