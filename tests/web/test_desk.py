"""The first page shows the day; a production shows where each garment stands; a new workroom begins with a skirt."""

import re
import unittest
from datetime import date, timedelta

from sqlalchemy import select

from tests.web.case import WebCase, as_shown
from widehem.core.drafting.method import METHODS
from widehem.jobs.standing import looked
from widehem.store.house import open_docket
from widehem.store.models import Docket, Event, Production, Wearer
from widehem.store.standing import whole_house

GROUP = re.compile(r'<section class="day-group" id="(\w+)".*?</section>', re.S)
ENTRY = re.compile(
    r'<li( class="is-late")?><a href="([^"]+)">([^<]+)</a><span class="about">([^<]*)</span><span class="matter">([^<]*)</span>'
)


class DeskCase(WebCase):
    def day(self, path="/"):
        """What the day shows: by group its entries, each what, about, words."""
        page = self.get(path)
        return {found[1]: [(e[2], e[3], e[4]) for e in ENTRY.findall(as_shown(found[0]))] for found in GROUP.finditer(page)}

    def docket(self, name):
        with self.store.read() as session:
            return session.scalars(select(Docket).where(Docket.name == name)).one()

    def stand(self, name, **data):
        return self.post(f"/dockets/{self.docket(name).id}/stands", data)


class Day(DeskCase):
    def test_every_kind_of_thing_that_wants_somebody(self):
        day = self.day()
        self.assertEqual(list(day), ["due", "untrue", "stale", "doubt", "waits", "read"])
        self.assertEqual(day["due"][0], ("Lap skirt", "Augusta Pell", "3 days late, to finish"))
        self.assertEqual([entry[0] for entry in day["due"]], ["Lap skirt", "Ferry skirt", "Heron bodice", "Watch coat"])
        self.assertIn(("Lantern skirt", "Perpetua Lund", "waist and hip changed since it was drawn"), day["stale"])
        self.assertIn(("Travelling skirt", "Nell Askew", "needs waist to knee"), day["read"])
        self.assertIn(("Heron bodice", "Runa Sable", "for a fitting"), day["waits"])
        self.assertIn("Watch coat", [entry[0] for entry in day["untrue"]])
        self.assertIn("Cosmo Plate", [entry[0] for entry in day["doubt"]])

    def test_an_entry_leads_to_where_it_is_mended(self):
        page = self.get("/")
        href = re.search(r'<a href="([^"]+)">Smock of the deckhand</a>', page)[1].replace("&amp;", "&")
        self.assertIn('class="now" aria-current="true"', self.get(href), "the check that is not true is lit")

    def test_what_is_cut_is_neither_stale_nor_untrue_and_what_is_finished_is_nothing(self):
        self.stand("Watch coat", says="cut", done="cut")
        self.stand("Lantern skirt", says="finished", done="finished")
        day = self.day()
        self.assertNotIn("Watch coat", [entry[0] for entry in day["untrue"]])
        self.assertNotIn("stale", day)
        self.assertIn("Watch coat", [entry[0] for entry in day["waits"]])
        self.post(f"/done/{self.last_event()}/undo")
        self.assertIn("Lantern skirt", [entry[0] for entry in self.day()["stale"]])

    def last_event(self):
        with self.store.read() as session:
            return session.scalars(select(Event.id).order_by(Event.id.desc()).limit(1)).first()

    def test_a_keep_is_looked_at_again(self):
        """What is known is of the garment as it is kept now, and nothing else is worked out again."""
        self.get("/")
        with self.store.read() as session:
            house = whole_house(session)
        works = self.app.extensions["widehem.works"]
        self.assertEqual(looked(works.ledger, house).rest, 0)
        before = {row.id: row.mark for row in house.garments}
        self.post(f"/dockets/{self.docket('Ferry skirt').id}/keep", {"good": "e.hip=0.5+cm", "version": "1"})
        with self.store.read() as session:
            house = whole_house(session)
        changed = {row.name for row in house.garments if row.mark != before[row.id]}
        self.assertEqual(changed, {"Ferry skirt"})
        self.assertEqual(looked(works.ledger, house).rest, 1)
        self.assertIn(("Ferry skirt", "Odile Marsh", "due in 4 days, to cut"), self.day()["due"])

    def test_a_reading_makes_its_garments_stand_anew_and_a_bodice_its_sleeves(self):
        with self.store.read() as session:
            marks = {row.name: row.mark for row in whole_house(session).garments}
        wearer = self.docket("Heron bodice").wearer_id
        self.post(f"/wearers/{wearer}/readings", {"measure": "bust", "first": "81"})
        with self.store.read() as session:
            now = {row.name: row.mark for row in whole_house(session).garments}
        moved = {name for name in now if now[name] != marks[name]}
        self.assertLessEqual({"Heron bodice", "Heron sleeve", "Heron suit"}, moved)
        self.assertNotIn("Ferry skirt", moved)
        self.post(
            f"/dockets/{self.docket('Heron bodice').id}/keep",
            {"good": "e.bust=7+cm", "version": str(self.docket("Heron bodice").version)},
        )
        with self.store.read() as session:
            after = {row.name: row.mark for row in whole_house(session).garments}
        self.assertEqual({name for name in after if after[name] != now[name]}, {"Heron bodice", "Heron sleeve"})

    def test_more_than_five_are_asked_for(self):
        for name in ("Ferry skirt", "Mourning skirt", "Heron suit", "Feather top", "Crew trousers"):
            self.stand(name, due=(date.today() + timedelta(days=1)).isoformat(), says="finished")
        page = self.get("/")
        self.assertEqual(len(self.day()["due"]), 5)
        self.assertIn('href="/?all=due#due"', page)
        self.assertEqual(len(self.day("/?all=due")["due"]), 8)

    def test_what_is_tried_and_not_kept_is_there_for_whoever_tries_it(self):
        number = self.docket("Mourning skirt").id
        self.get(f"/dockets/{number}/draft?o.length=80+cm")
        self.assertEqual([entry[0] for entry in self.day()["tried"]], ["Mourning skirt"])
        self.client.delete_cookie("wh_mark")
        self.assertNotIn("tried", self.day())

    def test_the_checks_below_lead_to_their_group(self):
        page = self.get("/")
        self.assertIn('<a href="#due" class="check is-look">', page)
        self.assertRegex(page, r"<b>Look again</b> 1 late")


class OnItsPage(DeskCase):
    def test_each_garment_shows_its_state_and_what_is_next(self):
        page = self.get("/productions/1")
        for name, strip, following in (
            ("Lap skirt", "measured, drafted, true, cut, fitted, not finished", "finish it"),
            ("Travelling skirt", "measured in part, not drafted, not true, not cut, not fitted, not finished", "read waist to knee"),
            ("Lantern skirt", "measured, drafted, stale, true in part, not cut, not fitted, not finished", "draw it on the newest chart"),
        ):  # fmt: skip
            row = re.search(rf"<li><span class=\"g-name\"><a[^>]*>{name}</a>.*?</li>", page, re.S)[0]
            self.assertIn(f'aria-label="{strip}"', row)
            self.assertIn(f">{following}</a>", as_shown(row))

    def test_the_yellow_button_is_what_is_due_first(self):
        self.assertIn("<span>Finish Lap skirt</span>", self.get("/productions/1"))

    def test_of_many_sixty_are_listed_at_once_and_any_is_found(self):
        with self.store.write() as session:
            wearer = session.scalars(select(Wearer).where(Wearer.name == "Lasse Moor")).one()
            for number in range(70):
                open_docket(session, wearer, f"Shroud {number}", METHODS["skirt.two_panel"])
        page = self.get("/productions/1")
        self.assertIn("1 to 60 of 101", page)
        self.assertEqual(page.count('class="g-name"'), 60)
        self.assertEqual(self.get("/productions/1?from=60").count('class="g-name"'), 41)
        self.assertIn("61 to 101 of 101", self.get("/productions/1?from=60"))
        self.assertEqual(self.get("/productions/1?from=9999999").count('class="g-name"'), 1)
        self.assertEqual(self.get("/productions/1?find=shroud+7").count('class="g-name"'), 1)
        self.assertEqual(self.get("/productions/1?find=runa").count('class="g-name"'), 10)

    def test_half_a_day_and_a_strange_wait_leave_what_stood_there(self):
        self.stand("Ferry skirt", due="2026-13-", waits="rain")
        docket = self.docket("Ferry skirt")
        self.assertEqual((docket.due_on, docket.waits), (date.today() + timedelta(days=4), ""))
        self.stand("Ferry skirt", due="", waits="cloth")
        docket = self.docket("Ferry skirt")
        self.assertEqual((docket.due_on, docket.waits), (None, "cloth"))

    def test_a_tick_on_the_cut_page_is_kept_with_its_day_and_taken_back(self):
        number = self.docket("Ferry skirt").id
        page = self.get(f"/dockets/{number}/cut")
        self.assertIn("Tick it off", page)
        self.post(f"/dockets/{number}/stands", {"says": "cut", "done": "cut", "back": f"/dockets/{number}/cut"})
        self.assertEqual(self.docket("Ferry skirt").cut_on, date.today())
        self.assertIn("Not cut yet", self.get(f"/dockets/{number}/cut"))
        self.post(f"/dockets/{number}/stands", {"says": "cut"})
        self.assertIsNone(self.docket("Ferry skirt").cut_on)

    def test_where_it_stands_is_no_version_of_its_lines(self):
        number = self.docket("Ferry skirt").id
        self.stand("Ferry skirt", waits="cloth")
        self.assertIn("Nothing was done to it", self.get(f"/dockets/{number}/versions"))


class First(WebCase):
    demo = False

    def test_four_figures_and_a_name_are_a_skirt(self):
        page = self.get("/")
        for words in ("Name of the wearer", "Waist to knee", "<span>Draft the skirt</span>"):
            self.assertIn(words, page)
        data = {"wearer": "Pia Holm", "waist": "72", "hip": "38 1/2 in", "waist_hip": "20.5", "waist_knee": "60"}
        made = self.post("/begin", data)
        draft = self.get(made.headers["Location"])
        self.assertIn("Add allowances, lay it out on paper", draft)
        self.assertIn("Began First work with First skirt for Pia Holm.", draft)
        with self.store.read() as session:
            self.assertEqual(session.scalars(select(Wearer.name)).all(), ["Pia Holm"])
            number = session.scalars(select(Event.id)).one()
        self.post(f"/done/{number}/undo")
        with self.store.read() as session:
            self.assertEqual(session.scalars(select(Production)).all(), [])

    def test_what_is_missing_is_named_and_what_was_typed_stays(self):
        page = as_shown(
            self.post("/begin", {"wearer": "", "waist": "72", "hip": "wide", "waist_hip": ""}, 422).get_data(as_text=True)
        )
        for words in (
            "The wearer has no name yet",
            'value="72"',
            'value="wide"',
            "Hip: ",
            "Waist to hip is still to read: about 20.5 cm is usual.",
        ):
            self.assertIn(words, page)
        with self.store.read() as session:
            self.assertEqual(session.scalars(select(Production)).all(), [])

    def test_a_production_can_be_begun_instead(self):
        self.post("/productions", {"name": "The Lantern Ferry"})
        page = self.get("/")
        self.assertIn("Nothing presses", page)
        self.assertIn("The Lantern Ferry", page)


if __name__ == "__main__":
    unittest.main()
