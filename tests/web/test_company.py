"""The company at a glance."""

import re
import unittest
from datetime import date, timedelta

from tests.web.case import WebCase
from widehem.core.output.svg_strip import DOT, strip
from widehem.store.charts import latest_chart
from widehem.store.models import ChartRow, ReadingRow, Wearer


class Company(WebCase):
    def test_every_wearer_with_gaps_doubts_and_plots(self):
        page = self.get("/productions/1/company")
        for name in ("Odile Marsh", "Hester Vane", "Tam Quill"):
            self.assertIn(name, page)
        self.assertEqual(page.count('class="strip"'), 10, "every measure round the body is read on somebody")
        self.assertIn("Waist: 11 wearers from 55.1 to 121.2 cm", page)
        self.assertIn("read High hip of Hester Vane", page)
        self.assertEqual(len(re.findall(r'class="in-doubt">', page)), 4, "waist over hip, twice")
        self.assertIn("Across back", self.get("/productions/1/company?zone=Across"))
        self.get("/productions/9/company", 404)

    def test_looking_for_a_name_or_a_part(self):
        page = self.get("/productions/1/company?find=ferry")
        self.assertIn("Odile Marsh", page)
        self.assertNotIn("Ivo Brack", page)
        self.assertIn("Nobody here is called or plays", self.get("/productions/1/company?find=%3Cb%3E"))

    def test_old_charts_are_told_children_sooner(self):
        with self.store.write() as session:
            for wearer_id, days in ((2, 190), (5, 60), (6, 170), (9, 20)):
                latest_chart(session, wearer_id).taken_on = date.today() - timedelta(days=days)
        page = self.get("/productions/1/company")
        old = re.findall(r'<th scope="row"><a[^>]*>([^<]+)</a></th><td class="age is-old">', page)
        self.assertEqual(old, ["Hester Vane", "Tam Quill"])

    def test_a_large_company(self):
        with self.store.write() as session:
            for n in range(200):
                wearer = Wearer(production_id=1, name=f"Extra {n:03}", role="crowd")
                session.add(wearer)
                session.flush()
                chart = ChartRow(wearer_id=wearer.id, taken_on=date.today(), foundation="", shoes="", measured_by="")
                session.add(chart)
                session.flush()
                session.add(ReadingRow(chart_id=chart.id, measure="waist", ticks=(60 + n % 40) * 80000, typed="x", unit="cm"))
        page = self.get("/productions/1/company?find=crowd")
        self.assertEqual(page.count('<th scope="row">'), 200)


class Strips(unittest.TestCase):
    def test_least_and_largest_stand_at_the_ends_and_equals_are_stacked(self):
        made = strip([("a", 60.0), ("b", 100.0), ("c", 100.0)], "Waist")
        self.assertEqual((made.low, made.high), (60, 100))
        dots = [(float(x), float(y)) for x, y in re.findall(r'cx="([\d.]+)" cy="([\d.]+)"', made.svg)]
        self.assertEqual([x for x, _ in dots], [5, 91, 91])
        self.assertAlmostEqual(dots[1][1] - dots[2][1], 2 * DOT, places=3)
        self.assertIsNone(strip([], "Waist"))
        self.assertIn("&lt;b&gt;", strip([("<b>", 60.0)], "x").svg)


if __name__ == "__main__":
    unittest.main()
