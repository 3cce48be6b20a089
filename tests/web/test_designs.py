"""Designs apart from wearers: begun, written about, versions, files, on everybody, handed out."""

import io
import json
import re

from sqlalchemy import select

from tests.web.case import WebCase
from widehem.core.design.ships import shipped
from widehem.store.models import DesignRow, DesignVersion, Docket, Wearer


class Designs(WebCase):
    def design(self, name="Ferry master's waistcoat"):
        with self.store.read() as session:
            return session.scalars(select(DesignRow).where(DesignRow.name == name, DesignRow.own)).first().id

    def test_all_that_ship_are_listed_and_each_can_be_begun_and_drawn(self):
        page = self.get("/designs").replace("&#39;", "'")
        for code, named in shipped().items():
            self.assertIn(named.name, page)
            self.assertIn("<svg", self.get(f"/designs/picture?ships={code}"))
            made = self.post("/designs/begin", {"ships": code})
            self.assertIn(named.name, self.get(made.location).replace("&#39;", "'"))

    def test_written_about_copied_and_put_away(self):
        number = self.design("Ferry clown's suit")
        self.post(f"/designs/{number}/about", {"name": "Suit of the fool", "summary": "wide", "notes": "bells"})
        self.assertIn("Suit of the fool", self.get(f"/designs/{number}"))
        copy = self.post("/designs/begin", {"copy": number}).location
        self.assertIn("Suit of the fool, copy", self.get(copy))
        self.post(f"{copy}/away")
        self.get(copy, 404)
        self.post(f"/designs/{number}/away")
        self.get(f"/designs/{number}")  # a garment is drawn by it

    def test_a_version_is_kept_and_brought_back(self):
        number = self.design()
        self.post(f"/designs/{number}/version", {"name": "before the fitting"})
        with self.store.write("") as session:
            row = session.get(DesignRow, number)
            row.steps = row.steps[:2]
        with self.store.read() as session:
            version = session.scalars(select(DesignVersion).where(DesignVersion.name == "before the fitting")).one().id
        self.post(f"/designs/{number}/back/{version}")
        with self.store.read() as session:
            self.assertEqual(len(session.get(DesignRow, number).steps), len(shipped()["waistcoat"].design.steps))

    def test_out_as_a_file_and_in_again(self):
        number = self.design()
        data = self.client.get(f"/designs/{number}/file").get_data()
        self.assertEqual(json.loads(data)["format"], "widehem-design")
        sent = self.post("/designs/read", {"file": (io.BytesIO(data), "w.json")})
        with self.store.read() as session:
            rows = session.scalars(select(DesignRow).where(DesignRow.name == "Ferry master's waistcoat")).all()
        self.assertEqual(len(rows), 2)
        self.assertEqual(rows[0].steps, rows[1].steps)
        self.assertNotEqual(sent.location, f"/designs/{number}")

    def test_a_file_that_is_none_says_so(self):
        page = self.post("/designs/read", {"file": (io.BytesIO(b"{}"), "w.json")}, 422).get_data(as_text=True)
        self.assertIn("The file is no design", page)

    def test_on_everybody_each_wearer_and_each_size_is_drawn_or_told_why_not(self):
        number = self.design()
        page = self.get(f"/designs/{number}/everybody")
        cells = re.findall(rf'hx-get="(/designs/{number}/on/\d+)"', page)
        self.assertEqual(len(cells), 12)
        said = [self.get(cell) for cell in cells]
        self.assertTrue(any("Nothing is measured yet" in cell for cell in said))
        self.assertTrue(any("measures estimated" in cell for cell in said))
        self.assertTrue(all("True, 14 pieces" in cell or "Not " in cell for cell in said))
        for figure in ("curved", "straight", "child"):
            sizes = re.findall(
                rf'hx-get="(/designs/{number}/size/{figure}/\d+)"', self.get(f"/designs/{number}/everybody?sizes={figure}")
            )
            self.assertGreater(len(sizes), 5)
            for size in sizes:
                self.assertRegex(self.get(size), "True|Not ")
        self.get(f"/designs/{number}/size/curved/99", 404)

    def test_handed_to_chosen_wearers_in_one_act_and_undone(self):
        number = self.design("Deckhand's shirt")
        with self.store.read() as session:
            chosen = [w.id for w in session.scalars(select(Wearer)).all()[:3]]
            before = len(session.scalars(select(Docket)).all())
        self.post(f"/designs/{number}/hand-out", {"name": "Crew shirt", "for": chosen})
        with self.store.read() as session:
            made = session.scalars(select(Docket).where(Docket.name == "Crew shirt")).all()
            self.assertEqual([d.wearer_id for d in made], chosen)
            self.assertEqual({d.design_id for d in made}, {number})
            self.assertEqual(len(session.scalars(select(Docket)).all()), before + 3)
        self.assertIn("Crew shirt", self.get(f"/designs/{number}"))

    def test_a_garment_stays_while_the_design_changes_and_follows_again(self):
        number = self.design()
        with self.store.read() as session:
            docket = session.scalars(select(Docket).where(Docket.design_id == number)).first().id
        self.post(f"/dockets/{docket}/follows", {"follow": "no"})
        with self.store.write("") as session:
            session.get(DesignRow, number).steps = []
        with self.store.read() as session:
            found = session.get(Docket, docket)
            self.assertEqual(len(found.of_design("steps")), len(shipped()["waistcoat"].design.steps))
        self.assertIn("it stays as it was", self.get(f"/designs/{number}"))
        self.post(f"/dockets/{docket}/follows", {"follow": "yes"})
        with self.store.read() as session:
            self.assertEqual(session.get(Docket, docket).of_design("steps"), [])

    def test_a_block_is_no_design(self):
        self.get("/designs/1", 404)
        self.get("/designs/999999", 404)
