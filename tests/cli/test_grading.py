"""Sizes, grading and a cast from the command line."""

import json

from tests.cli.case import CliCase
from widehem.core.grading.first_table import FIRST
from widehem.core.grading.house_charts import HOUSE


class Grading(CliCase):
    def test_charts_are_listed_and_written(self):
        status, out, _ = self.run_cli("sizes")
        self.assertEqual((status, "House chart, child: 10 sizes" in out), (0, True))
        status, out, _ = self.run_cli("sizes", "straight", "--unit", "in")
        self.assertEqual((status, out.decode("utf-8-sig").splitlines()[0]), (0, 'name,"House chart, straight"'))
        status, _, err = self.run_cli("sizes", "nowhere.csv")
        self.assertEqual((status, "Charts that ship: curved, straight, child." in err), (2, True))

    def test_a_design_in_every_size_and_format(self):
        status, out, err = self.run_cli("grade", "trousers", "--sizes", "curved")
        self.assertEqual(status, 0, err)
        lines = out.decode().splitlines()
        self.assertEqual(len(lines), 12)
        self.assertIn("waist 78.0", lines[4])
        self.assertIn("base", lines[4])
        for name, begins in (("json", b"{"), ("dxf", b"  0\nSECTION"), ("pdf", b"%PDF"), ("svg", b"<svg")):
            status, out, err = self.run_cli(
                "grade", "cloak", "--sizes", "child", "--way", "redraft", "--format", name, "--scale", "1:4"
            )
            self.assertEqual(status, 0, err)
            self.assertTrue(out.startswith(begins), name)
        status, out, err = self.run_cli(
            "grade", "cloak", "--sizes", "child", "--way", "proposed", "--size", "6", "--format", "json"
        )
        self.assertEqual((status, "pieces" in json.loads(out)), (0, True))

    def test_an_own_chart_and_an_own_table(self):
        chart = self.write(
            "size,A,B,C\nbust,88,92,96\nwaist,70,74,78\nhip,95,99,103\n"
            + "".join(
                f"{code},{row[3]},{row[4]},{row[5]}\n"
                for code, row in HOUSE["curved"].rows.items()
                if code not in ("bust", "waist", "hip")
            ),
            "own.csv",
        )
        table = self.write(FIRST.as_data(), "rules.json")
        status, out, err = self.run_cli("grade", "cloak", "--sizes", chart, "--rules", table)
        self.assertEqual((status, out.decode().split()[0]), (0, "A"), err)
        broken = self.write({"unit": 4, "kinds": {"sleeve": [["cap top", 0, 0]]}}, "broken.json")
        for more, words in (
            (("--rules", broken), "no address of a spot"), (("--size", "Z"), "Size Z cannot be drawn: A, B, C can."), (("--way", "own"), "cannot be graded by own"),
        ):  # fmt: skip
            status, _, err = self.run_cli("grade", "cloak", "--sizes", chart, *more)
            self.assertEqual((status, words in err), (2, True), err)

    def test_a_cast(self):
        rows = "wearer,unit,bust,waist,hip\nAnn,cm,92,74,99\nBea,cm,93,75,100\nCyd,cm,140,130,140\n"
        charts = self.write(rows, "cast.csv")
        status, out, err = self.run_cli("cast", charts, "--sizes", "curved")
        self.assertEqual(status, 0, err)
        self.assertIn("5 (M): Ann (as it is), Bea (bust let out 1.0 cm", out.decode())
        self.assertIn("own draft: Cyd.", out.decode())
        status, out, _ = self.run_cli("cast", charts, "--sizes", "curved", "--most", "1", "--format", "json")
        data = json.loads(out)
        self.assertEqual((data["sizes"], data["proven"], data["who"][1]["alterations"]["hip"]), (["5 (M)"], True, 1.0))
        status, out, _ = self.run_cli("cast", charts, "--sizes", "curved", "--format", "pdf")
        self.assertTrue(out.startswith(b"%PDF"))
        status, _, err = self.run_cli("cast", "nowhere.csv", "--sizes", "curved")
        self.assertEqual((status, "cannot be read" in err), (2, True))
        status, _, err = self.run_cli("cast", charts, "--sizes", "curved", "--most", "0")
        self.assertEqual((status, "--most 0" in err), (2, True))
