"""Help for every screen, the guide it leads to, and finding both."""

import re
import unittest

from tests.web.case import WebCase
from widehem.web.help import slug, written
from widehem.web.help_words import ANYWHERE, HELP

NO_SCREEN = {  # what answers without a page of its own
    "at_work.file", "costumes.sheet", "designs.file", "designs.on_size", "designs.on_wearer", "designs.picture", "at_work.now", "device.state", "door.knock", "files.blank_file", "files.chart_sheet", "files.charts_file",
    "files.wearer_file", "health.look", "help.over", "help.guide", "house.out", "measure.meanwhile", "notes.picture", "notes.small",
    "sizes.file", "rail.file", "rail.photo", "nest_files.file", "rules.ruler", "rules.file", "cast.listed", "fit_stand.sheet", "lay_files.printed", "lay_files.plotted", "lay_files.pictured", "make.printed", "planning.file", "planning.file_of_all", "stock.photo", "book.printed", "training.begin", "training.begin_along",
    "paper.file", "archives.out", "tracing.picture", "schools.coming", "stands.more", "static", "wearer.photo",
}  # fmt: skip


class HelpOver(WebCase):
    def test_every_screen_has_its_help(self):
        screens = {rule.endpoint for rule in self.app.url_map.iter_rules() if "GET" in rule.methods} - NO_SCREEN
        self.assertEqual(screens - set(HELP), set())
        self.assertEqual(set(HELP) - screens, {"files.look"}, "which answers a form")
        for endpoint, entry in HELP.items():
            page = self.get(f"/help?of={endpoint}")
            self.assertIn(entry.title, page)
            self.assertNotIn("<html", page)

    def test_each_leads_to_a_heading_of_the_guide(self):
        page = self.get("/guide")
        for entry in (*HELP.values(), ANYWHERE):
            self.assertIn(f'id="{slug(entry.guide)}"', page, entry.title)
        self.assertEqual(
            re.findall(r"\]\(|^#|\*\*", re.sub(r"<[^>]+>", "", page), re.M), [], "nothing is left as it was written"
        )
        self.assertGreater(len(written()[1]), 12)

    def test_a_screen_nobody_knows_has_help_as_well(self):
        self.assertIn(ANYWHERE.title, self.get("/help?of=no.such"))
        self.assertIn(ANYWHERE.title, self.get("/help"))

    def test_help_is_found(self):
        page = self.get("/find?q=two+fingers")
        self.assertIn('<a href="/guide#draft">The draft</a>', page)


if __name__ == "__main__":
    unittest.main()
