"""A toile and a fitting from the command line."""

import json

from tests.bodies import upper_build
from tests.cli.case import CliCase


class Fitting(CliCase):
    def record(self, **more):
        values = {code: upper_build("typical").values[code] for code in upper_build("typical").values}
        data = {"design": "bodice.measured", "unit": "cm", "measures": {**values, "across_back": 32.4}, **more}
        return self.write(json.dumps(data), "fitting.json")

    def test_causes_and_altered_pieces(self):
        file = self.record(
            seen=[{"sign": "cannot_reach", "pinned": "1.2"}], good=["neckline"],
            alterations=[{"code": "alter.across", "settings": {"by": 1.2, "part": "back"}}],
        )  # fmt: skip
        status, out, err = self.run_cli("fit", file)
        self.assertEqual(status, 0, err)
        lines = out.decode().splitlines()
        self.assertIn(
            "1. the back is narrow across (alter.across): across back 32.4, read once; the others foretell 34.4", lines[1]
        )
        self.assertIn("It is 1.2 cm wider across the back.", lines)
        status, out, _ = self.run_cli("fit", file, "--format", "json")
        data = json.loads(out)
        self.assertEqual(data["candidates"]["cannot_reach"][0]["settings"], {"by": 1.2, "part": "back"})
        self.assertEqual({piece["name"] for piece in data["draft"]["pieces"]}, {"back", "front"})

    def test_what_was_cut_in_the_cloth_is_read_from_a_record(self):
        cut = {"code": "alter.cut", "settings": {"part": "back"}, "names": {"moves": "0 0; 3 0.4; 6 0"}}
        status, out, err = self.run_cli("fit", self.record(alterations=[cut]))
        self.assertEqual((status, err), (0, ""))
        self.assertIn("runs through 3 measured places, 0.4 off at the most", out.decode())

    def test_what_is_wrong_in_a_record_is_told(self):
        for more, words in (
            ({"seen": [{"sign": "sneezes"}]}, "no sign of the list"),
            ({"good": ["the weather"]}, "good names"),
            ({"alterations": [{"code": "alter.none"}]}, 'there is no "alter.none"'),
            ({"alterations": [{"code": "hem.drop"}]}, 'there is no "hem.drop"'),
            ({"alterations": [{"code": "alter.across", "names": {"moves": "0 1"}}]}, 'takes no name "moves"'),
            ({"alterations": [{"code": "alter.across", "settings": {"size": 3}}]}, "has no such setting"),
            ({"alterations": [{"code": "alter.across", "settings": {"by": 30}}]}, "alteration 1"),
            ({"seen": "all"}, "no list"),
            ({"design": "nowhere.json"}, "Designs that ship"),
        ):
            with self.subTest(words):
                status, _, err = self.run_cli("fit", self.record(**more))
                self.assertEqual((status, words in err), (2, True), err)

    def test_a_toile_says_what_it_measures_and_is_drawn(self):
        file = self.record()
        status, out, err = self.run_cli("toile", "bodice.measured", "--chart", file)
        self.assertEqual(status, 0, err)
        self.assertIn("Round the body: The least room, ", out.decode())
        self.assertIn("Nape to waist, back", out.decode())
        status, out, _ = self.run_cli("toile", "waistcoat", "--chart", file, "--format", "json")
        self.assertEqual((status, "stand" in json.loads(out)), (0, True))
        status, out, _ = self.run_cli("toile", "bodice.measured", "--chart", file, "--format", "svg")
        self.assertEqual((status, out[:4]), (0, b"<svg"))
