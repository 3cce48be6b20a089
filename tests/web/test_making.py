"""Cutting and making through the pages: lays, order of work, cloths, days, stock, shopping, the book, practice."""

import io
import re

from sqlalchemy import select

from tests.web.making_case import Making
from widehem.core.making.kept import HowMade
from widehem.core.making.lay.placed import faults
from widehem.demo.portrait import portrait
from widehem.jobs.laying import works_of as _  # noqa: F401 - the job is known
from widehem.store.archive import archive, read_archive, take_in
from widehem.store.books import book_of, book_row
from widehem.store.cloths import cloths, how_made
from widehem.store.lays import laid
from widehem.store.models import Docket, HouseCloth, LayRow, Picture, Practice, Production, Stock, Wearer
from widehem.store.notes import let_pictures_go
from widehem.store.planning import plan_of_days


class TheOrder(Making):
    def setUp(self):
        super().setUp()
        self.coat = self.docket("Ferry master's waistcoat", "Runa Sable")
        self.at = f"/dockets/{self.coat.id}/make"

    def made(self):
        return how_made(self.docket("Ferry master's waistcoat", "Runa Sable"))

    def test_every_step_says_why_and_how_and_its_pieces_are_lit(self):
        page = self.get(f"{self.at}?step=panel_front")
        for words in (
            "Panel seam, front",
            "First, because this runs over its end: peplum, front.",
            "Sew at 1.2 cm.",
            "Notches that meet: panel above, panel point, panel below.",
            "2 times",
        ):
            self.assertIn(words, page)
        self.assertIn('class="l-fresh"', page)
        self.assertEqual(page.count("piece is-lit"), 2)
        self.assertIn("turned through it while it is open", self.get(f"{self.at}?step=stand"))

    def test_ticked_with_its_minutes_and_taken_back(self):
        first = re.search(r'data-step="([^"]+)"', self.get(self.at))[1]
        self.post(f"{self.at}/tick", {"step": first, "minutes": "7"})
        self.assertEqual(self.made().done[first].minutes, 7.0)
        self.assertIn("1 of 37", self.get(self.at))
        self.post(f"{self.at}/tick", {"step": first, "again": "1"})
        self.assertEqual(self.made().done, {})
        self.undo()
        self.assertIn(first, self.made().done)
        page = self.post(f"{self.at}/tick", {"step": "side", "minutes": "a while"}, 422).get_data(as_text=True)
        self.assertIn("Minutes:", page)
        self.assertIn("a while", page)

    def test_another_order_that_can_be_sewn_is_kept_and_one_that_cannot_says_what_blocks(self):
        self.post(f"{self.at}/move", {"step": "centre_back", "before": "panel_back"})
        order = self.made().order
        self.assertLess(order.index("centre_back"), order.index("panel_back"))
        page = self.post(f"{self.at}/move", {"step": "shoulder", "before": "side"}, 422).get_data(as_text=True)
        self.assertIn("cannot stand there", page)
        self.assertEqual(self.made().order, order)
        self.post(f"{self.at}/usual")
        self.assertEqual(self.made().order, ())

    def test_needle_and_stitch_are_those_of_the_cloth_a_step_is_sewn_in(self):
        number = self.docket("Ferry master's waistcoat").id
        for step, words in (
            ("side", ("Wool suiting", "Universal, 80. Straight, 2.5 mm.")),
            ("side.inside", ("Lining, twill", "Sharp and new, 70.")),
        ):
            page = self.get(f"/dockets/{number}/make?step={step}")
            for word in words:
                self.assertIn(word, page[page.index('id="hem-checks"') :], step)

    def test_own_steps_and_steps_left_out(self):
        self.post(f"{self.at}/own", {"step": "side", "words": "Try it on"})
        made = self.made()
        (own,) = made.own
        self.assertEqual(made.order[made.order.index("side") + 1], own)
        self.assertIn("Try it on", self.get(self.at))
        self.post(f"{self.at}/leave", {"step": own})
        self.assertEqual(self.made().own, {})
        self.post(f"{self.at}/leave", {"step": "stay.neck"})
        self.assertIn("of 36", self.get(self.at))
        page = self.post(f"{self.at}/own", {"step": "side", "words": ""}, 422).get_data(as_text=True)
        self.assertIn("Write what is done", page)

    def test_when_two_sides_part_the_draft_says_which(self):
        page = self.get(f"{self.at}?step=panel_front&one=46&two=43.3")
        self.assertRegex(page, "longer than on paper.*has stretched")

    def test_the_cloth_goes_into_the_steps_and_onto_paper(self):
        self.assertIn("Universal, 80", self.get(f"{self.at}/cloth"))
        self.post(f"{self.at}/cloth", {"m.cloth": "velvet"})
        self.assertIn("Thread, tacked through both layers", self.get(f"{self.at}/cloth"))
        self.assertIn("Prick by hand", self.get(f"{self.at}?step=back_lining.neck"))
        from pypdf import PdfReader

        data = self.client.get(f"{self.at}/order.pdf").data
        text = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(data)).pages)
        for words in ("Panel seam, front", "velvet", "Prick by hand", "Last of the seams"):
            self.assertIn(words, text)

    def test_uses_on_stage_stand_on_every_card(self):
        self.post(f"{self.at}/care", {"use": ["flying", "stairs"]})
        self.assertEqual(self.made().uses, ("flying", "stairs"))
        for path in (f"{self.at}/care", self.at, f"/dockets/{self.coat.id}/cut/list"):
            self.assertIn("licensed rigger", self.get(path), path)

    def test_in_inches_no_centimetre_is_left(self):
        self.client.set_cookie("wh_unit", "in", domain="localhost")
        self.assertIn("Sew at 1/2 in.", self.get(f"{self.at}?step=panel_front"))

    def test_a_copy_keeps_order_and_cloth_but_nothing_is_done(self):
        ticked = self.docket("Ferry master's waistcoat", "Gideon Fenn")
        self.assertTrue(how_made(ticked).done)
        from widehem.store.copying import copy_for

        with self.store.write() as session:
            copy = copy_for(session, session.get(Docket, ticked.id), session.get(Wearer, self.coat.wearer_id), "Again")
            made = HowMade.from_data(copy.making)
        self.assertEqual((made.done, bool(made.own), bool(made.cloths)), ({}, True, True))


class DaysAndStock(Making):
    def test_the_days_are_kept_and_what_cannot_be_is_said(self):
        self.post(
            "/productions/1/calendar",
            {"rehearsal": "2027-03-05", "opening": "2027-03-08", "hours": "5,5", "hands": "4", "week": "6", "rounds": "2"},
        )
        plan = plan_of_days(self.row(Production, id=1))
        self.assertEqual((plan.hours, plan.hands, plan.week, plan.rounds), (5.5, 4, 6, 2))
        page = self.get("/productions/1/calendar")
        self.assertIn("back from the dress rehearsal on 5 March 2027", page)
        self.assertIn("d-phase", page)
        page = self.post("/productions/1/calendar", {"hours": "99", "hands": "1", "week": "5", "rounds": "1"}, 422).get_data(
            as_text=True
        )
        self.assertIn("Hours a day: 99", page)
        self.assertIn('value="99"', page)
        self.assertIn("BEGIN:VCALENDAR", self.client.get("/productions/1/calendar.ics").get_data(as_text=True))
        self.assertIn("The Lantern Ferry", self.client.get("/calendar.ics").get_data(as_text=True))
        self.assertIn("The Lantern Ferry", self.get("/calendar"))

    def test_stock_is_kept_changed_used_up_and_taken_back(self):
        values = {
            "kind": "cloth",
            "name": "Green baize",
            "cloth": "coating",
            "length": "120",
            "width": "150",
            "shrinks": "2",
            "price": "9.5",
            "place": "shelf C",
            "words": "",
        }
        self.post("/stock", {**values, "photo": (io.BytesIO(portrait()), "p.jpg")})
        row = self.row(Stock, name="Green baize")
        self.assertEqual((row.length, row.width, row.cloth), (120.0, 150.0, "coating"))
        self.assertIn("Green baize", self.get("/stock?find=shelf c"))
        self.assertEqual(self.client.get(f"/stock/{row.id}/photo.jpg").mimetype, "image/jpeg")
        self.post(f"/stock/{row.id}", {**values, "length": "80"})
        self.assertEqual(self.row(Stock, name="Green baize").length, 80.0)
        self.post(f"/stock/{row.id}/away")
        self.assertIn("Nothing in the stock is called", self.get("/stock?find=green"))
        self.undo()
        self.assertNotIn("Nothing in the stock is called", self.get("/stock?find=green"))
        self.assertEqual(self.client.get(f"/stock/{row.id}/photo.jpg").mimetype, "image/jpeg")
        page = self.post("/stock", {**values, "length": "long"}, 422).get_data(as_text=True)
        self.assertIn("Length:", page)
        self.assertIn('value="long"', page)

    def test_shopping_less_the_stock_and_ticked(self):
        page = self.get("/productions/1/shopping")
        self.assertIn("in the stock", page)
        self.assertIn("Wool suiting", page)
        self.post("/productions/1/shopping", {"what": "suiting", "on": "1"})
        self.assertIn("suiting", plan_of_days(self.row(Production, id=1)).bought)
        self.assertIn('class="is-bought"', self.get("/productions/1/shopping"))
        self.undo()
        self.assertNotIn("suiting", plan_of_days(self.row(Production, id=1)).bought)

    def test_a_cloth_of_the_house(self):
        parts = {
            "weight": "heavy",
            "slips": "much",
            "frays": "no",
            "heat": "cool",
            "pile": "much",
            "stretch": "no",
            "marks": "much",
        }
        self.post("/cloths/add/velvet", {"name": "Curtain plush", "shrinks": "1.5", "a.press": "Never.", **parts})
        row = self.row(HouseCloth, name="Curtain plush")
        with self.store.read() as session:
            known = cloths(session)[row.code]
        self.assertEqual((known.weight, known.own["press"], known.shrinks), ("heavy", "Never.", 1.5))
        page = self.post(f"/cloths/{row.id}", {"name": "", "shrinks": "1", **parts}, 422).get_data(as_text=True)
        self.assertIn("Name:", page)
        self.post(f"/cloths/{row.id}/delete")
        self.assertIsNone(self.row(HouseCloth, name="Curtain plush"))


class TheBook(Making):
    def setUp(self):
        super().setUp()
        self.gideon = self.row(Wearer, name="Gideon Fenn")
        self.at = f"/wearers/{self.gideon.id}/book"

    def book(self):
        with self.store.read() as session:
            return book_of(book_row(session, self.gideon.id, "Ferryman"))

    def write(self, status=303, **values):
        return self.post(self.at, {"costume": "Ferryman", **values}, status)

    def test_written_shown_and_printed(self):
        page = self.get(f"{self.at}?costume=Ferryman")
        for words in ("Deckhand", "waistcoat", "From behind", "Brass buttons", "facing had been cut off grain", "40"):
            self.assertIn(words, page)
        self.write(what="change", when="third act", who="Odile", opens="the collar stud", seconds="15", dark="1")
        self.write(what="cost", words="Chain", amount="12.50")
        self.write(what="wrong", words="Chain too short")
        self.write(what="shot", side="left", words="with chain", pictures=(io.BytesIO(portrait()), "p.jpg"))
        self.write(what="about", about="New words", under="None", notions="Chain", budget="50")
        book = self.book()
        self.assertEqual(
            (book.changes[-1].who, book.costs[-1].amount, book.shots[-1].side, book.budget), ("Odile", 12.5, "left", 50.0)
        )
        self.assertIn("too much", self.get(f"{self.at}?costume=Ferryman"))
        from pypdf import PdfReader

        for kind, there in (("", True), ("&for=dresser", False)):
            data = self.client.get(f"{self.at}.pdf?costume=Ferryman{kind}").data
            text = " ".join(page.extract_text() for page in PdfReader(io.BytesIO(data)).pages)
            self.assertIn("collar stud", text)
            self.assertEqual("Chain: 12.50" in text, there)

    def test_taken_out_and_taken_back_and_pictures_stay(self):
        count = len(self.book().costs)
        self.post(f"{self.at}/out", {"costume": "Ferryman", "kind": "costs", "number": "0"})
        self.assertEqual(len(self.book().costs), count - 1)
        self.undo()
        self.assertEqual(len(self.book().costs), count)
        shown = self.book().shots[0].picture
        from datetime import timedelta

        with self.store.write() as session:
            session.get(Picture, shown).created_at -= timedelta(days=90)
            let_pictures_go(session)
            self.assertIsNotNone(session.get(Picture, shown))

    def test_what_cannot_be_is_said(self):
        page = self.write(422, what="cost", words="Chain", amount="dear").get_data(as_text=True)
        self.assertIn('Cost: "dear"', page.replace("&#34;", '"'))
        self.get(f"{self.at}?costume=None", 404)


class Practised(Making):
    def test_an_exercise_is_answered_and_kept_for_a_person(self):
        page = self.get("/practice/draft:2")
        self.assertIn("One line is wrong", page)
        self.post("/practice/draft:2", {"row": "1"}, 200)
        before = len(self.everything())
        self.post("/practice", {"person": "  Tam  Quill "})
        from widehem.core.training.exercises import exercise

        found = exercise("draft:2")
        page = self.post("/practice/draft:2", {"row": found.wrong, "figure": f"{found.right:.1f}"}, 200).get_data(as_text=True)
        self.assertIn("Found.", page)
        rows = self.everything()
        self.assertEqual((len(rows) - before, rows[-1].person, rows[-1].right), (1, "Tam Quill", True))
        self.assertIn("Tam Quill", self.get("/practice"))
        self.assertIn("Point at the line", self.post("/practice/draft:2", {"row": "nothing"}, 422).get_data(as_text=True))
        self.get("/practice/cake:2", 404)

    def everything(self):
        with self.store.read() as session:
            return list(session.scalars(select(Practice).order_by(Practice.id)))

    def test_along_by_hand_says_where_the_two_part(self):
        page = self.get("/practice/along/skirt.two_panel/5?step=2&figure=21.5")
        self.assertIn("1.5 cm too much.", page)
        self.assertIn("It draws as if waist to hip had been 21.5 cm.", page)
        self.assertIn("As it should be", self.get("/practice/along/skirt.two_panel/5?step=2&figure=20.1"))
        self.assertIn("f-figure-e", self.get("/practice/along/skirt.two_panel/5?step=2&figure=long"))


class Archived(Making):
    def test_making_comes_along_in_an_archive(self):
        with self.store.read() as session:
            data = archive(session, session.get(Production, 1))
        with self.store.write(by="test") as session:
            production = take_in(session, read_archive(data))
            number = production.id
        with self.store.read() as session:
            made = session.get(Production, number)
            self.assertEqual(plan_of_days(made).hands, 3)
            row = session.scalars(select(LayRow).where(LayRow.production_id == number)).first()
            self.assertEqual(list(faults(laid(row).lay)), [])
            self.assertEqual({session.get(Docket, n).production_id for n in row.dockets}, {number})
            wearer = session.scalars(select(Wearer).where(Wearer.production_id == number, Wearer.name == "Gideon Fenn")).first()
            book = book_of(book_row(session, wearer.id, "Ferryman"))
            self.assertEqual({session.get(Picture, shot.picture).production_id for shot in book.shots}, {number})
            ticked = session.scalars(
                select(Docket).where(Docket.wearer_id == wearer.id, Docket.name == "Ferry master's waistcoat")
            ).first()
            self.assertEqual(len(how_made(ticked).done), 17)
