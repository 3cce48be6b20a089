"""The command line as scripts call it: exit status, standard output, standard error."""

import json
import subprocess
import sys
import unittest

from tests.bodies import upper_build
from tests.cli.case import CliCase


class Cli(CliCase):
    def test_a_plan_of_ease_and_what_goes_over_it(self):
        chart = self.write({"unit": "cm", "figure": "curved", "measures": dict(upper_build().values)}, "whole.json")
        status, out, _ = self.run_cli("draft", "bodice.measured", "--chart", chart, "--plan", "over_shirt", "--ease", "depth=3")
        self.assertEqual(status, 0)
        found = json.loads(out)
        self.assertEqual(
            {code: found["ease"][code] for code in ("bust", "waist", "depth")}, {"bust": 10.0, "waist": 8.0, "depth": 3.0}
        )
        self.assertEqual(found["options"]["layers"], 1.0)
        status, _, err = self.run_cli("draft", "bodice.measured", "--chart", chart, "--plan", "loose")
        self.assertEqual((status, err.split(":")[0]), (2, '--plan "loose" is no plan of ease'))

    def test_the_figure_of_a_chart_decides_its_table(self):
        measures = dict(upper_build().values)
        found = {}
        for figure in ("curved", "straight"):
            chart = self.write({"unit": "cm", "figure": figure, "measures": measures}, f"{figure}.json")
            status, out, _ = self.run_cli("draft", "bodice.proportional", "--chart", chart)
            self.assertEqual(status, 0)
            found[figure] = out
        self.assertNotEqual(found["curved"], found["straight"])
        chart = self.write({"figure": "giant", "measures": measures})
        status, _, err = self.run_cli("draft", "bodice.proportional", "--chart", chart)
        self.assertEqual(status, 2)
        self.assertIn('names the figure "giant": there are curved, straight, child', err)

    def test_an_armhole_with_its_depth(self):
        chart = self.write({"unit": "cm", "measures": dict(upper_build().values)}, "whole.json")
        call = ("draft", "sleeve.guide_box", "--chart", chart, "--set", "height_by=depth", "--armhole")
        self.assertEqual(self.run_cli(*call, "front=22,back=23,depth=18")[0], 0)
        status, _, err = self.run_cli(*call, "front=22,back=23,depth=40")
        self.assertEqual(status, 2)
        self.assertIn("Depth 40.0 does not go with an armhole of 45.0", err)

    def test_a_draft_as_json(self):
        status, out, _ = self.run_cli(
            "draft", "skirt.two_panel", "--chart", self.chart, "--ease", "hip=4", "--set", "length=62.5"
        )
        self.assertEqual(status, 0)
        found = json.loads(out)
        self.assertEqual(found["ease"]["hip"], 4.0)
        self.assertEqual(found["options"]["length"], 62.5)
        self.assertAlmostEqual(found["girths"][1]["finished"], 98.0)

    def test_a_sleeve_for_a_bodice_or_an_armhole(self):
        values = {code: round(value, 1) for code, value in upper_build().values.items()}
        chart = self.write({"unit": "cm", "measures": values}, "upper.json")
        for method in ("bodice.plain", "bodice.measured", "bodice.proportional", "bodice.cup_wedge"):
            status, out, _ = self.run_cli("draft", method, "--chart", chart)
            self.assertEqual((status, json.loads(out)["method"]), (0, method))
            status, out, _ = self.run_cli("draft", "sleeve.guide_box", "--chart", chart, "--bodice", method)
            self.assertEqual(status, 0)
        status, out, _ = self.run_cli("draft", "sleeve.triangle", "--chart", chart, "--armhole", "front=21.5,back=22")
        cap = next(edge["length"] for edge in json.loads(out)["pieces"][0]["edges"] if edge["name"] == "cap")
        self.assertAlmostEqual(cap, 43.5 + 2.5, delta=0.1)
        self.assertEqual(self.run_cli("draft", "sleeve.triangle", "--chart", chart)[0], 3)
        for wrong in (
            ("--armhole", "front=21"),
            ("--armhole", "front=x,back=2"),
            ("--bodice", "skirt.two_panel"),
            ("--bodice", "nothing"),
        ):
            status, _, words = self.run_cli("draft", "sleeve.triangle", "--chart", chart, *wrong)
            self.assertEqual(status, 2, wrong)
            self.assertTrue(words.strip())

    def test_whole_garments_with_their_sleeves(self):
        values = {code: round(value, 1) for code, value in upper_build().values.items()}
        chart = self.write({"unit": "cm", "measures": values}, "whole.json")
        pieces = {
            "trousers.frame": 2, "trousers.crease": 2, "bodice.contour": 3, "top.jersey": 2, "gown.seam_shaped": 2,
                "coat.straight": 5, "suit.one_piece": 2,
        }  # fmt: skip
        for method, count in pieces.items():
            status, out, _ = self.run_cli("draft", method, "--chart", chart)
            self.assertEqual((status, len(json.loads(out)["pieces"])), (0, count), method)
        status, out, _ = self.run_cli("draft", "gown.seam_shaped", "--chart", chart, "--set", "sweep=420 cm")
        self.assertEqual([piece["name"] for piece in json.loads(out)["pieces"]], ["back", "front", "gore"])
        for sleeve, top in (
            ("sleeve.pivot", "top.jersey"),
            ("sleeve.s_head", "gown.seam_shaped"),
            ("sleeve.guide_box", "coat.straight"),
        ):
            status, out, _ = self.run_cli("draft", sleeve, "--chart", chart, "--bodice", top)
            self.assertEqual((status, json.loads(out)["pieces"][0]["name"]), (0, "sleeve"))
        status, _, words = self.run_cli("draft", "sleeve.guide_box", "--chart", chart, "--bodice", "bodice.contour")
        self.assertEqual(status, 2)
        self.assertIn("has no armhole", words)
        path = self.folder / "top.svg"
        self.assertEqual(self.run_cli("draft", "top.jersey", "--chart", chart, "--format", "svg", "--out", str(path))[0], 0)
        self.assertIn("0.6", path.read_text(), "overlocked")

    def test_a_chart_in_inches_with_fractions(self):
        chart = self.write({"unit": "in", "measures": {"waist": 27, "hip": "38 1/2", "waist_hip": "8¼", "waist_knee": "60 cm"}})
        status, out, _ = self.run_cli(
            "draft", "skirt.two_panel", "--chart", chart, "--ease", "hip=1 1/2", "--set", "back_dart_length=14 cm"
        )
        self.assertEqual(status, 0)
        found = json.loads(out)
        self.assertAlmostEqual(found["girths"][1]["body"], 38.5 * 2.54)
        self.assertAlmostEqual(found["ease"]["hip"], 3.81)
        self.assertEqual(found["options"]["length"], 60.0)

    def test_files(self):
        for kind, start in (("svg", b"<svg"), ("pdf", b"%PDF"), ("card", b"%PDF"), ("json", b"{")):
            target = self.folder / f"out.{kind}"
            status, _, err = self.run_cli(
                "draft",
                "skirt.two_panel",
                "--chart",
                self.chart,
                "--format",
                kind,
                "--out",
                target,
                "--paper",
                "letter",
                "--scale",
                "1:2",
            )
            self.assertEqual((status, err), (0, ""))
            self.assertTrue(target.read_bytes().startswith(start))

    def test_a_draft_that_cannot_be_exits_3_and_names_the_measures(self):
        chart = self.write({"measures": {"waist": 69, "hip": 94, "waist_hip": 10, "waist_knee": 59}})
        status, out, _ = self.run_cli("draft", "skirt.two_panel", "--chart", chart)
        self.assertEqual(status, 3)
        self.assertEqual(json.loads(out)["refused"]["measures"], ["waist_hip"])

    def test_bad_input_exits_2_with_one_sentence(self):
        draft = ("draft", "skirt.two_panel", "--chart")
        for arguments, word in (
            (("draft", "skirt.three_panel", "--chart", self.chart), "skirt.three_panel"),
            ((*draft, self.folder / "none.json"), "none.json"),
            ((*draft, self.write("{", "broken.json")), "broken.json"),
            ((*draft, self.write([1], "list.json")), "list.json"),
            ((*draft, self.write({"unit": "ell", "measures": {}}, "ell.json")), "ell"),
            ((*draft, self.write({"measures": {"waist": "wide"}}, "wide.json")), "wide"),
            ((*draft, self.chart, "--set", "length"), "length"),
            ((*draft, self.chart, "--set", "colour=red"), "colour"),
            ((*draft, self.chart, "--set", "length=long"), "long"),
            ((*draft, self.chart, "--ease", "hip=20"), "20.0"),
            ((*draft, self.chart, "--format", "pdf", "--paper", "b7"), "b7"),
            ((*draft, self.chart, "--format", "svg", "--allowance", "velvet"), "velvet"),
            (("backup", "--data", self.folder / "empty", "--out", self.folder / "copy"), "empty"),
            (("paint",), "paint"),
        ):
            with self.subTest(arguments):
                status, out, err = self.run_cli(*arguments)
                self.assertEqual(status, 2)
                self.assertFalse(out)
                self.assertEqual(err.count("\n"), 1, err)
                self.assertIn(word, err)

    def test_lists(self):
        status, out, _ = self.run_cli("methods", "--format", "json")
        self.assertEqual((status, json.loads(out)["methods"][0]["code"]), (0, "skirt.two_panel"))
        self.assertIn("waist_hip", self.run_cli("measures")[1])
        self.assertEqual(len(json.loads(self.run_cli("measures", "--format", "json")[1])["measures"]), 51)
        self.assertIn("skirt.two_panel", self.run_cli("methods")[1])

    def test_demo_once_and_backup(self):
        data, copy = self.folder / "data", self.folder / "copy.sqlite3"
        self.assertIn("is in", self.run_cli("demo", "--data", data)[1])
        self.assertIn("nothing was changed", self.run_cli("demo", "--data", data)[1])
        self.assertEqual(self.run_cli("backup", "--data", data, "--out", copy)[0], 0)
        self.assertTrue(copy.read_bytes().startswith(b"SQLite format 3"))
        self.assertEqual(self.run_cli("backup", "--data", data, "--out", copy)[0], 2)

    def test_every_command_works_by_itself(self):
        """In a process of its own, as a script calls it: nothing another command has loaded is there."""
        data, out = self.folder / "data", self.folder / "out.json"
        for words in (
            ("demo", "--data", data),
            ("backup", "--data", data, "--out", self.folder / "copy.sqlite3"),
            ("methods",),
            ("measures",),
            ("draft", "skirt.two_panel", "--chart", self.chart, "--out", out),
            ("--version",),
        ):
            run = [sys.executable, "-c", "import sys; from widehem.cli import main; sys.exit(main())", *map(str, words)]
            done = subprocess.run(run, capture_output=True, text=True, check=False)
            self.assertEqual((done.returncode, done.stderr), (0, ""), words)
        self.assertEqual(json.loads(out.read_text())["method"], "skirt.two_panel")


if __name__ == "__main__":
    unittest.main()
