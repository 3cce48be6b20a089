"""The order of work and the lay from the command line."""

import json
import re

from tests.bodies import upper_build
from tests.cli.case import CliCase
from widehem.core.making.lay.cloth import OnTable
from widehem.core.making.lay.kept import cutout_from, placed_from
from widehem.core.making.lay.placed import Lay, faults


class MakingCli(CliCase):
    def setUp(self):
        super().setUp()
        self.upper = self.write({"unit": "cm", "measures": dict(upper_build("typical").values)}, "upper.json")


class TheOrder(MakingCli):
    def test_every_step_with_its_reason(self):
        status, out, err = self.run_cli("order", "waistcoat", "--chart", self.upper, "--cloth", "velvet")
        self.assertEqual((status, err), (0, ""))
        text = out.decode() if isinstance(out, bytes) else out
        titles = re.findall(r"^ *\d+ (.+)$", text, re.M)
        self.assertLess(
            titles.index(next(t for t in titles if "fusible" in t.lower() or "interfacing" in t.lower())), len(titles) - 1
        )
        self.assertIn("waistcoat, in velvet", text.splitlines()[0])
        self.assertRegex(text, r"(?m)^Press: .*pile")
        status, out, _ = self.run_cli("order", "waistcoat", "--chart", self.upper, "--format", "json")
        steps = json.loads(out)["steps"]
        at = {step["id"]: n for n, step in enumerate(steps)}
        self.assertEqual([(s["id"], a) for s in steps for a in s["after"] if at[a] > at[s["id"]]], [])
        self.assertTrue(all(step["because"] for step in steps))
        self.assertEqual(len(titles), len(steps))

    def test_card_on_paper(self):
        file = self.folder / "card.pdf"
        status, _, err = self.run_cli("order", "skirt.two_panel", "--chart", self.chart, "--format", "pdf", "--out", file)
        self.assertEqual((status, err), (0, ""))
        self.assertTrue(file.read_bytes().startswith(b"%PDF-"))

    def test_what_is_wrong_is_told(self):
        for more, words in ((["--cloth", "fog"], 'there is no cloth "fog"'), (["--allowance", "fog"], "--allowance")):
            status, _, err = self.run_cli("order", "waistcoat", "--chart", self.upper, *more)
            self.assertEqual((status, words in err), (2, True), err)
        status, _, err = self.run_cli("order", "waistcoat", "--chart", self.chart)
        self.assertEqual(status, 3)
        self.assertIn("measure", err)


class TheLay(MakingCli):
    def lay(self, *more):
        return self.run_cli("lay", "waistcoat", "--chart", self.upper, "--seconds", "1", *more)

    def test_length_to_buy_and_every_piece(self):
        status, out, err = self.lay()
        self.assertEqual((status, err), (0, ""))
        self.assertRegex(out.decode(), r"\d+ pieces laid")
        status, out, _ = self.lay("--format", "json", "--width", "60in", "--way", "one", "--shrinks", "4")
        data = json.loads(out)
        shapes, placed = tuple(map(cutout_from, data["shapes"])), placed_from(data["placed"])
        lay = Lay(OnTable(**data["cloth"]), shapes, placed, tuple(data["left"]))
        self.assertEqual((list(faults(lay)), data["left"], len(placed)), ([], [], len(shapes)))
        self.assertEqual(data["cloth"]["width"], 152.4)
        self.assertEqual(data["to_buy"], OnTable(shrinks=4).to_buy(lay.length))
        self.assertEqual({put.turned for put in placed}, {0})

    def test_pictures_and_files(self):
        for form, begins in (("svg", b"<"), ("pdf", b"%PDF-"), ("plot", b"")):
            file = self.folder / f"lay.{form}"
            status, _, err = self.lay("--format", form, "--out", file)
            self.assertEqual((status, err), (0, ""), form)
            self.assertTrue(file.read_bytes().startswith(begins), form)
        self.assertIn(b"PD", (self.folder / "lay.plot").read_bytes())

    def test_what_cannot_lie_is_told(self):
        status, _, err = self.lay("--width", "22")
        self.assertEqual(status, 3)
        self.assertRegex(err, r"cm across the grain; the cloth has 20\.0 cm between the selvedges: \d+\.\d cm too little")
        for more, words in (
            (["--width", "wide"], "--width"), (["--gap", "9"], "Between pieces: 9.0 cm"), (["--material", "fog"], 'nothing is cut from "fog"'),
            (["--seconds", "0"], "--seconds"),
        ):  # fmt: skip
            status, _, err = self.lay(*more)
            self.assertEqual((status, words in err), (2, True), err)
