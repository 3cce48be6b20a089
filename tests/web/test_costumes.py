"""Costumes: what is worn over what, the room it takes in the drafts over it, and the sheet of it."""

import io
import re

from pypdf import PdfReader
from sqlalchemy import select

from tests.web.case import WebCase
from widehem.core.drafting.method import METHODS
from widehem.store.costumes import costumes_of, put_over
from widehem.store.models import Docket


class Costumes(WebCase):
    WEARER = 7

    def named(self, session, name, wearer=WEARER):
        return session.scalars(select(Docket).where(Docket.name == name, Docket.wearer_id == wearer)).one()

    def order(self):
        with self.store.read() as session:
            return [docket.name for docket in costumes_of(session, self.WEARER).get("Ferryman", [])]

    def planned(self, name, code="bust"):
        with self.store.read() as session:
            docket = self.named(session, name)
            return float(docket.all_ease.get(code, METHODS[docket.method].ease_at(code).default))

    def worn(self, name, **fields):
        with self.store.read() as session:
            number = self.named(session, name).id
        self.post(f"/dockets/{number}/worn", fields)

    def undo(self):
        page = self.get(f"/wearers/{self.WEARER}/costumes")
        form = next(part for part in page.split("<form") if "undo-bar" in part)
        self.post(re.search(r'action="([^"]+)"', form)[1], {})


class Layers(Costumes):
    def test_a_layer_takes_three_round_the_body_and_a_padded_one_six(self):
        """By hand: the waistcoat is planned with 6 at the bust and 3 at the waist, over nothing."""
        waistcoat = [self.planned("Ferry master's waistcoat", code) for code in ("bust", "waist", "depth")]
        self.assertEqual(waistcoat, [9.0, 6.0, 2.0])
        self.worn("Deckhand's shirt", counts="padded")
        self.assertEqual(self.planned("Ferry master's waistcoat", "bust"), 12)
        self.worn("Deckhand's shirt", counts="close")
        self.assertEqual(self.planned("Ferry master's waistcoat", "bust"), 6)

    def test_it_is_drawn_so(self):
        page = self.get(f"/wearers/{self.WEARER}/costumes")
        self.assertIn("Over Deckhand's shirt: 3.0 more round the body.", page.replace("&#39;", "'"))
        self.assertIn(">120.9<", page)
        self.worn("Deckhand's shirt", what="off")
        with self.store.read() as session:
            number = self.named(session, "Ferry master's waistcoat").id
        self.assertIn("117.9 on 111.9", self.get(f"/dockets/{number}/draft"))

    def test_what_is_in_the_bin_takes_no_room(self):
        with self.store.write() as session:
            from widehem.store.bin import put_in_bin

            put_in_bin(session, self.named(session, "Deckhand's shirt"))
        self.assertEqual(self.planned("Ferry master's waistcoat"), 6)

    def test_the_order_turns_round_and_the_room_with_it_and_back(self):
        self.assertEqual(self.order(), ["Deckhand's shirt", "Ferry master's waistcoat"])
        self.worn("Ferry master's waistcoat", what="in")
        self.assertEqual(self.order(), ["Ferry master's waistcoat", "Deckhand's shirt"])
        self.assertEqual(self.planned("Ferry master's waistcoat"), 6)
        self.assertEqual(self.planned("Deckhand's shirt", "quarter"), 3.25)
        self.undo()
        self.assertEqual(self.order(), ["Deckhand's shirt", "Ferry master's waistcoat"])
        self.worn("Ferry master's waistcoat", what="out")  # it is outermost already
        self.assertEqual(self.order(), ["Deckhand's shirt", "Ferry master's waistcoat"])

    def test_own_layers_of_a_garment_win(self):
        with self.store.write() as session:
            self.named(session, "Ferry master's waistcoat").options = {"layers": "2"}
        self.assertEqual(self.planned("Ferry master's waistcoat", "bust"), 12)

    def test_layers_a_design_was_planned_over_are_not_counted_twice(self):
        with self.store.write() as session:
            design = self.named(session, "Ferry master's waistcoat").design
            design.options = {**design.options, "layers": "1"}
        self.assertEqual(self.planned("Ferry master's waistcoat"), 6)

    def test_put_on_taken_off_and_written_about(self):
        was = self.planned("Watch coat")
        with self.store.read() as session:
            number = self.named(session, "Watch coat").id
        self.post("/wearers/7/costumes", {"garment": str(number), "costume": " "}, 422)
        self.post("/wearers/7/costumes", {"garment": str(number), "costume": "Ferryman"})
        self.assertEqual(self.order()[-1], "Watch coat")
        self.worn("Watch coat", closes="<b>six frogs</b>", attaches="chain at the neck", quick="thrown off")
        page = self.get("/wearers/7/costumes")
        self.assertIn("&lt;b&gt;six frogs&lt;/b&gt;", page)
        self.assertEqual(self.planned("Watch coat"), was + 2 * 3)
        self.worn("Watch coat", what="off")
        self.assertNotIn("Watch coat", self.order())

    def test_nobody_elses_garment_and_nothing_that_is_not_there(self):
        self.post("/wearers/8/costumes", {"garment": "25", "costume": "Mine"}, 404)
        self.post("/wearers/8/costumes", {"garment": "x", "costume": "Mine"}, 404)
        self.assertEqual(self.client.get("/wearers/8/costume.pdf?costume=None").status_code, 404)
        self.assertEqual(self.client.get("/wearers/999/costumes").status_code, 404)


class Versions(Costumes):
    def test_an_earlier_version_is_drawn_over_what_is_under_it_now(self):
        with self.store.read() as session:
            number = self.named(session, "Ferry master's waistcoat").id
        self.post(f"/dockets/{number}/keep", {"good": "e.waist=8+cm", "version": str(self.version(number))})
        self.worn("Deckhand's shirt", counts="padded")
        page = self.get(f"/dockets/{number}/compare")
        earlier = re.findall(r'value="(version:\d+)"', page)
        self.assertTrue(earlier)
        there = self.get(f"/dockets/{number}/compare?with={earlier[0]}")
        self.assertNotIn("is not", there.split("Held against")[1][:400])
        self.assertRegex(there, r"bust</th>\s*<td[^>]*>123\.9</td>\s*<td[^>]*>123\.9")
        self.post(f"/dockets/{number}/versions/{earlier[0].split(':')[1]}", {})
        self.assertEqual(self.order(), ["Deckhand's shirt", "Ferry master's waistcoat"])

    def version(self, number):
        with self.store.read() as session:
            return session.get(Docket, number).version


class Sheet(Costumes):
    def words(self, query=""):
        answer = self.client.get(f"/wearers/7/costume.pdf?costume=Ferryman{query}")
        self.assertEqual(answer.mimetype, "application/pdf")
        return " ".join(page.extract_text() for page in PdfReader(io.BytesIO(answer.data)).pages)

    def test_it_says_every_figure_and_every_piece(self):
        words = re.sub(r"\s+", " ", self.words())
        for said in (
            "Costume Ferryman", "Gideon Fenn", "Put on in this order", "tails go into the breeches", "Twenty seconds", "Finished girths",
            "Pieces: 14", "Pieces: 9", "half the bust with ease", "Undercollar", "Over Deckhand's shirt", "6 buttons", "Caution",
        ):  # fmt: skip
            self.assertIn(said, words)
        self.assertNotIn("Zip", words)

    def test_in_inches(self):
        self.client.set_cookie("wh_unit", "in")
        self.assertIn("lengths in inches", self.words())

    def test_a_garment_that_cannot_be_drawn_says_why_and_the_rest_stands(self):
        with self.store.write() as session:
            robe = self.named(session, "Deckhand's shirt")
            robe.options = {"neck": "a tail"}
        words = self.words()
        self.assertIn("14", words)
        self.assertIn("neck", words)
        self.assertIn("There is no setting", self.get("/wearers/7/costumes").replace("&#34;", '"'))


class Store(Costumes):
    def test_a_garment_that_goes_to_another_costume_leaves_no_gap(self):
        with self.store.write() as session:
            put_over(session, self.named(session, "Deckhand's shirt"), "Other")
            worn = costumes_of(session, 7)
            self.assertEqual([(d.name, d.worn) for d in worn["Ferryman"]], [("Ferry master's waistcoat", 1)])
            self.assertEqual([(d.name, d.worn) for d in worn["Other"]], [("Deckhand's shirt", 1)])
