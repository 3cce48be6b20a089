"""Paper from the command line: files of drafts and of garments, plot files, archives, outlines from elsewhere."""

import io
import json
import zipfile

import ezdxf

from tests.bodies import upper_build
from tests.cli.case import CliCase
from tests.stores import with_demo
from widehem.plotter_stand_in import Plotter, listen


class Paper(CliCase):
    def test_a_draft_in_every_format(self):
        whole = self.write({"unit": "cm", "measures": dict(upper_build().values)}, "whole.json")
        for name, begins in (("dxf", b"  0\nSECTION"), ("plot", b"IN;"), ("pdf", b"%PDF"), ("svg", b"<svg")):
            status, out, err = self.run_cli(
                "draft", "bodice.measured", "--chart", whole, "--format", name, "--paper", "roll90", "--let-out", "2.5", "--nap"
            )
            self.assertEqual(status, 0, err)
            self.assertTrue((out if isinstance(out, bytes) else out.encode()).startswith(begins), name)
        status, _, err = self.run_cli("draft", "skirt.two_panel", "--chart", self.chart, "--format", "dummies")
        self.assertEqual((status, "no pockets, collars" in err), (2, True))

    def test_what_cannot_be_is_told(self):
        for more, words in (
            (("--paper", "a9"), 'There is no paper "a9"'), (("--square", "5"), "is not ACROSSxDOWN"), (("--square", "3x5"), "more than a printer is off"),
            (("--let-out", "40"), "outside 0 to 15.0 cm"), (("--let-out", "x"), "--let-out"), (("--allowance", "silk"), 'no allowance plan "silk"'),
        ):  # fmt: skip
            status, _, err = self.run_cli("draft", "skirt.two_panel", "--chart", self.chart, "--format", "pdf", *more)
            self.assertEqual(status, 2, more)
            self.assertIn(words, err)

    def test_a_garment_of_a_data_folder_and_a_whole_cast(self):
        data = str(with_demo())
        status, out, err = self.run_cli("pattern", "24", "--data", data, "--format", "dxf")
        self.assertEqual(status, 0, err)
        text = out if isinstance(out, str) else out.decode()
        self.assertIn("front", ezdxf.read(io.StringIO(text)).blocks)
        self.assertEqual(self.run_cli("pattern", "999", "--data", data)[0], 2)
        file = self.folder / "all.zip"
        status, _, err = self.run_cli("patterns", "1", "--data", data, "--format", "plot", "--out", file)
        self.assertEqual(status, 0, err)
        with zipfile.ZipFile(file) as packed:
            self.assertGreater(len(packed.namelist()), 20)
        self.assertEqual(self.run_cli("patterns", "77", "--data", data, "--out", file)[0], 2)

    def test_a_plot_file_is_measured_and_sent(self):
        whole = self.write({"unit": "cm", "measures": dict(upper_build().values)}, "whole.json")
        file = self.folder / "bodice.plt"
        self.run_cli("draft", "bodice.measured", "--chart", whole, "--format", "plot", "--out", file)
        status, out, _ = self.run_cli("plot", file)
        self.assertRegex(out, r"^\d+ lines, \d+\.\d cm of paper, \d+ cm drawn, \d+ s for a pen\.")
        plotter = Plotter(speed=0)
        door = listen(plotter, "127.0.0.1", 0)
        self.addCleanup(door.server_close)
        self.addCleanup(door.shutdown)
        status, out, err = self.run_cli("plot", file, "--to", f"127.0.0.1:{door.server_address[1]}")
        self.assertEqual((status, "Sent" in out), (0, True), err)
        self.assertEqual(self.run_cli("plot", file, "--to", "127.0.0.1:1")[0], 3)
        self.assertEqual(self.run_cli("plot", self.write("%PDF", "x.plt"))[0], 2)

    def test_an_archive_out_and_in(self):
        file = self.folder / "ferry.json"
        self.assertEqual(self.run_cli("archive", "1", "--data", str(with_demo()), "--out", file)[0], 0)
        fresh = self.folder / "fresh"
        status, out, err = self.run_cli("archive-in", file, "--data", fresh)
        self.assertEqual((status, out.strip()), (0, f"The Lantern Ferry is production 1 in {fresh}."), err)
        self.assertEqual(self.run_cli("archive-in", self.write("{}", "no.json"), "--data", fresh)[0], 2)
        self.assertEqual(self.run_cli("archive", "9", "--data", fresh)[0], 2)

    def test_outlines_become_a_design_file(self):
        whole = self.write({"unit": "cm", "measures": dict(upper_build().values)}, "whole.json")
        drawing, design = self.folder / "bodice.dxf", self.folder / "bought.json"
        self.run_cli("draft", "bodice.measured", "--chart", whole, "--format", "dxf", "--out", drawing)
        status, _, err = self.run_cli("import", drawing, "--name", "Bought", "--out", design)
        self.assertEqual(status, 0, err)
        found = json.loads(design.read_text())
        self.assertEqual((found["method"], [p["name"] for p in found["outlines"]["pieces"]]), ("outline", ["back", "front"]))
        status, out, err = self.run_cli("design", design, "--chart", whole)
        self.assertEqual(status, 0, err)
        self.assertEqual(len(json.loads(out)["pieces"]), 2)
        for name, words in (("a.pdf", "neither an SVG nor a DXF"), ("a.svg", "no SVG that can be read")):
            status, _, err = self.run_cli("import", self.write("junk", name))
            self.assertEqual(status, 2)
            self.assertIn(words, err)
