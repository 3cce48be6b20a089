"""A long garment along the table: larger, and nothing of it is changed but where it lies."""

import re
import unittest

from tests.bodies import drafted, upper_build
from widehem.core.drafting.method import METHODS
from widehem.core.output.lying import lying
from widehem.core.output.svg_board import ALONG, USUAL_PX, board_svg, frames


def scale(frame):
    return min(USUAL_PX[0] / frame.width, USUAL_PX[1] / frame.height)


class AlongTheTable(unittest.TestCase):
    def test_it_is_offered_where_it_makes_a_garment_larger(self):
        for code, offered in (
            ("suit.one_piece", True),
            ("trousers.frame", True),
            ("trousers.crease", True),
            ("bodice.measured", False),
            ("coat.straight", False),
        ):
            found = frames(drafted(METHODS[code], upper_build()))
            with self.subTest(code):
                self.assertEqual(ALONG in found, offered)
                if offered:
                    self.assertGreater(scale(found[ALONG]), 1.2 * scale(found["whole"]))

    def test_the_pieces_are_the_same_and_lie_within_their_view(self):
        made = drafted(METHODS["suit.one_piece"], upper_build())
        laid, frame = lying(made), frames(made)[ALONG]
        for before, after in zip(made.laid, laid.laid, strict=True):
            for edge in before.edges:
                self.assertAlmostEqual(after.edge(edge.name).length, edge.length, places=9)
            left, top, right, bottom = after.bounds
            self.assertAlmostEqual(right - left, before.bounds[3] - before.bounds[1], places=6)
            self.assertTrue(frame.left < left and right < frame.left + frame.width)
            self.assertTrue(frame.top < top and bottom < frame.top + frame.height)
            self.assertAlmostEqual(left, before.bounds[1], places=6, msg="what was on top lies on the left")
        self.assertEqual([check.figure for check in laid.checks], [check.figure for check in made.checks])

    def test_every_point_is_asked_where_it_is_seen(self):
        made = drafted(METHODS["suit.one_piece"], upper_build())
        upright, along = (
            {letter: (float(x), float(y)) for x, y, letter in re.findall(r'data-x="([\d.-]+)" data-y="([\d.-]+)" data-letter="(\w+)"', board_svg(drawn, len(drawn.steps)))}
            for drawn in (made, lying(made))
        )  # fmt: skip
        self.assertGreater(len(along), 4)
        for letter, (x, y) in upright.items():
            self.assertAlmostEqual(along[letter][0], y, delta=1e-3)
            self.assertAlmostEqual(along[letter][1], -x, delta=1e-3)

    def test_words_along_a_line_read_from_below_or_from_the_right(self):
        for turned in re.findall(
            r"rotate\((-?[\d.]+)\)", board_svg(lying(drafted(METHODS["suit.one_piece"], upper_build())), 5)
        ):
            self.assertTrue(-90.1 <= float(turned) <= 90.1, turned)


if __name__ == "__main__":
    unittest.main()
