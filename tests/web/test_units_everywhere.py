"""Every page in inches shows no bare centimetre, and in centimetres no inch; no page breaks."""

import re
import unittest

from tests.some import EVERYTHING
from tests.web.case import WebCase
from tests.web.crawling import crawl, lines

ON_PURPOSE = (
    "CSV, in cm", "waist~0.33", "CSV, in inches", "Download the charts as CSV in", "Lay a ruler on the 5 cm and the 2 in square", "in cm, + − * /",
    "Worked out by, in cm", "Type it as you say it", "Cloth, in inches", "Toile, in inches", "true millimetres", "to 1/8 in", "to 1/16 in", "1 is a millimetre", "1 is a centimetre", "DXF in mm", "1 is an inch", "Lining, in inches",
)  # fmt: skip
FORMULA = re.compile(r"^[\w\s+\-*/().,]+$")  # of a figure table: in cm, as its head says
TYPED = re.compile(
    r"^(typed |first: |second: |left |right |Put .* back)|[36] cm( heel)?( ·|$)|^Underneath: "
)  # as a maker wrote it
BOOKED = re.compile(r"^(of )?\d+\.\d\d?$")  # hours and money of a book


class Units(WebCase):
    def bare(self, unit, sign, allowed):
        self.client.set_cookie("wh_unit", unit, domain="localhost")
        alone = unit == "cm" and not EVERYTHING  # what is said in inches all over was seen by the other one
        pages = crawl(self.client, alone=alone)
        self.assertGreater(len(pages), 80 if alone else 250)
        self.assertEqual({path: status for path, (status, _) in pages.items() if status >= 400}, {})
        found = {}
        for path, (_, page) in pages.items():
            for line in lines(page):
                if (
                    any(words in line for words in ON_PURPOSE)
                    or TYPED.search(line)
                    or (path.startswith("/tables") and FORMULA.match(line))
                    or ("/book" in path and BOOKED.match(line))
                ):
                    continue
                if sign.search(allowed.sub("", line)):
                    found.setdefault(line, path)
        return found

    def test_in_inches_there_is_no_centimetre(self):
        """A length in inches has a fraction: a figure with a point is one that was not turned over."""
        sign = re.compile(r"\d\s*cm\b|\bcm\b|\d\.\d|millimet|centimet")
        allowed = re.compile(
            r"127\.0\.0\.1:\d+|^\d+\.\d\d$|\d+\.\d %$|[−-]?\d+\.\d+ ?(°|×|h\b|times|in a hundred|per cent|MB)|0\.5 is rounder, 0\.65|0\.\d+ to 0\.\d+|^0\.\d+$|version [\d.]+|[×÷] \d+\.\d+|≈.*until it is read.*|^cm( or inches)?$|^[\d.]+°"
        )
        found = self.bare("in", sign, allowed)
        self.assertEqual(found, {}, "\n".join(list(found)[:40]))

    def test_in_centimetres_there_is_no_inch(self):
        sign = re.compile(
            r"\d(?: \d+/\d+)? in\b(?! (?:a|the|all|front|both|each|one|its|doubt|order|any|hand|turn|fourteen)\b)|\d/\d|″|\binch"
        )
        allowed = re.compile(r"\d+ (of|in) \d+|Bust / \d+|bust / \d+|cm or inches|^in$|inch")
        self.assertEqual(self.bare("cm", sign, allowed), {})


if __name__ == "__main__":
    unittest.main()
