"""The fit station through its pages: alterations kept, left out and taken back; the stand test, the room, fittings noted once."""

import io
import json

import ezdxf
from ezdxf.bbox import extents
from pypdf import PdfReader
from sqlalchemy import select

from tests.some import some
from tests.web.case import WebCase
from widehem.demo.portrait import portrait
from widehem.store.alterations import alterations_on
from widehem.store.fittings import folded_round
from widehem.store.models import Docket, Event, FittingEvent, FittingRound, Note


class Fit(WebCase):
    def docket(self, name):
        with self.store.read() as session:
            return session.scalars(select(Docket).where(Docket.name == name)).first()

    def undo(self):
        with self.store.read() as session:
            last = session.scalars(select(Event).order_by(Event.id.desc())).first().id
        self.post(f"/done/{last}/undo")

    def altered(self, name):
        return alterations_on(self.docket(name))


class Alterations(Fit):
    def test_one_is_tried_kept_left_out_and_taken_back(self):
        bodice = self.docket("Heron bodice")
        at = f"/dockets/{bodice.id}/fit"
        page = self.get(f"{at}?do=alter.across&s.by=1.2&s.part=back")
        self.assertIn("It is 1.2 cm wider across the back.", page)
        self.assertIn("back armhole", page)
        self.assertEqual(self.altered("Heron bodice"), ())
        self.post(
            f"{at}/keep", {"good": "do=alter.across&s.by=1.2&s.part=back", "version": bodice.version, "why": "cannot reach"}
        )
        (one,) = self.altered("Heron bodice")
        self.assertEqual(
            (one.step.code, one.step.settings["by"], one.about.why, one.about.figure),
            ("alter.across", 1.2, "cannot reach", "across_back"),
        )
        self.assertIn("Why: cannot reach", self.get(at))
        self.assertIn("1 alteration", self.get(f"/dockets/{bodice.id}/draft"))
        self.post(f"{at}/{one.step.id}", {"what": "off"})
        self.assertTrue(self.altered("Heron bodice")[0].step.off)
        self.assertIn("left out", self.get(at))
        self.undo()
        self.assertFalse(self.altered("Heron bodice")[0].step.off)
        self.post(f"{at}/keep", {"good": f"do=alter.across&step={one.step.id}&s.by=1.5&s.part=back"})
        self.assertEqual([o.step.settings["by"] for o in self.altered("Heron bodice")], [1.5])
        self.post(f"{at}/{one.step.id}", {"what": "away"})
        self.assertEqual(self.altered("Heron bodice"), ())

    def test_in_inches_it_is_what_was_typed(self):
        bodice = self.docket("Heron bodice")
        self.client.set_cookie("wh_unit", "in", domain="localhost")
        page = self.get(f"/dockets/{bodice.id}/fit?do=alter.shoulder&s.by=1/4+in")
        self.assertIn("The shoulder is 1/4 in longer.", page)
        self.post(f"/dockets/{bodice.id}/fit/keep", {"good": "do=alter.shoulder&s.by=1/4 in"})
        self.assertAlmostEqual(self.altered("Heron bodice")[0].step.settings["by"], 0.635)

    def test_what_does_not_fit_or_cannot_be_read_is_told_and_nothing_is_kept(self):
        skirt = self.docket("Ferry skirt")
        at = f"/dockets/{skirt.id}/fit"
        self.assertIn("There is no armhole in this garment", self.get(f"{at}?do=alter.across"))
        self.assertIn("lots", self.get(f"{at}?do=alter.side&s.by=lots"))
        self.post(f"{at}/keep", {"good": "do=alter.side&s.by=lots"})
        self.assertEqual(self.altered("Ferry skirt"), ())
        self.assertNotIn("Keep the alteration", self.get(f"{at}?do=hem.raise"))
        self.assertEqual(self.client.post(f"{at}/none", data={"csrf_token": self.token(), "what": "off"}).status_code, 404)

    def test_somebody_else_in_the_meantime(self):
        bodice = self.docket("Heron bodice")
        at = f"/dockets/{bodice.id}/fit"
        self.post(f"{at}/keep", {"good": "do=alter.across&s.by=1", "version": bodice.version})
        back = self.post(f"{at}/keep", {"good": "do=alter.across&s.by=2", "version": bodice.version})
        self.assertIn("meanwhile=1", back.location)
        self.assertEqual([o.step.settings["by"] for o in self.altered("Heron bodice")], [1.0])

    def test_for_everyone_it_is_a_step_of_the_design(self):
        coat = self.docket("Ferry master's waistcoat")
        before = len(coat.design.steps)
        self.post(f"/dockets/{coat.id}/fit/keep", {"good": "do=alter.across&s.by=1", "scope": "all"})
        with self.store.read() as session:
            docket = session.get(Docket, coat.id)
            self.assertEqual(len(docket.design.steps), before + 1)
            self.assertEqual(docket.design.steps[-1]["code"], "alter.across")
        self.assertEqual(self.altered("Ferry master's waistcoat"), ())
        self.undo()
        with self.store.read() as session:
            self.assertEqual(len(session.get(Docket, coat.id).design.steps), before)

    def test_a_chart_that_caught_up_is_told(self):
        smock = self.docket("Smock of the deckhand")
        with self.store.write() as session:
            docket = session.get(Docket, smock.id)
            rows = [dict(row) for row in docket.alterations]
            rows[0]["about"] = {**rows[0]["about"], "read": rows[0]["about"]["read"] - 1.0}
            docket.alterations = rows
        self.assertIn("Drop it, or they are there twice", self.get(f"/dockets/{smock.id}/fit"))

    def test_the_pattern_has_it_in(self):
        bodice = self.docket("Heron bodice")
        plain = self.get(f"/dockets/{bodice.id}/draft?slip=checks")
        self.post(f"/dockets/{bodice.id}/fit/keep", {"good": "do=alter.underarm&s.by=-1"})
        self.assertNotEqual(self.get(f"/dockets/{bodice.id}/draft?slip=checks"), plain)

    def test_what_was_cut_in_the_cloth_is_measured_in_either_unit_and_opened_again_as_it_was(self):
        bodice = self.docket("Heron bodice")
        at = f"/dockets/{bodice.id}/fit"
        self.assertIn("It is measured from the underarm point", self.get(f"{at}?do=alter.cut"))
        self.assertIn("no place", self.get(f"{at}?do=alter.cut&n.moves=three+far"))
        self.client.set_cookie("wh_unit", "in", domain="localhost")
        moves = "0 0; 1 -0.1; 2 -0.2; 3 -0.2; 4 -0.1; 6 0"
        self.post(f"{at}/keep", {"good": f"do=alter.cut&s.part=back&n.moves={moves}"})
        (one,) = self.altered("Heron bodice")
        self.assertEqual(one.step.names["moves"].split("; ")[1], "2.54 -0.25")
        self.assertIn("1.00 -0.10; 2.00 -0.20", self.get(f"{at}?open={one.step.id}"))

    def test_what_other_garments_of_a_wearer_agree_on_is_offered(self):
        first = self.docket("Smock of the deckhand")
        with self.store.read() as session:
            mine = session.scalars(select(Docket).where(Docket.wearer_id == first.wearer_id, Docket.id != first.id)).all()
        about = {"why": "", "figure": "across_back", "by": 1.1, "read": None}
        with self.store.write() as session:
            for docket in mine[:2]:
                row = session.get(Docket, docket.id)
                row.alterations = [{"id": "x", "code": "alter.hem", "settings": {}, "about": about}]
        third = next(docket for docket in mine[2:]) if len(mine) > 2 else first
        page = self.get(f"/dockets/{third.id}/fit")
        if third is not first:
            self.assertIn("garments agree", page)
        else:
            self.assertNotIn("garments agree", page)  # it has that alteration already


class Before(Fit):
    def test_the_stand_test_and_the_room_of_every_garment_of_the_demo(self):
        with self.store.read() as session:
            numbers = [docket.id for docket in session.scalars(select(Docket))]
        told = 0
        for number in some(numbers, each=3):
            for view in ("stand", "room", "rounds"):
                with self.subTest(number, view=view):
                    answer = self.client.get(f"/dockets/{number}/fit/{view}")
                    self.assertIn(answer.status_code, (200, 303))
                    told += b"The least room, " in answer.data
        self.assertGreater(told, 3)
        smock = self.docket("Smock of the deckhand")
        page = self.get(f"/dockets/{smock.id}/fit/stand")
        self.assertIn("Across back", page)
        self.assertIn("more than this design usually has", page)

    def test_the_toile_sheet_says_the_measures_and_the_room(self):
        smock = self.docket("Smock of the deckhand")
        answer = self.client.get(f"/dockets/{smock.id}/fit/toile.pdf")
        self.assertEqual((answer.status_code, answer.mimetype), (200, "application/pdf"))
        text = "".join(page.extract_text() for page in PdfReader(io.BytesIO(answer.data)).pages)
        for words in ("Toile sheet of Smock of the deckhand", "Across back", "Room"):
            self.assertIn(words, text)

    def test_room_to_fit_cuts_the_toile_larger_with_the_pattern_inside(self):
        trousers, bodice = (f"/dockets/{self.docket(name).id}" for name in ("Practice trousers", "Heron bodice"))
        self.assertIn('name="room"', self.get(f"{trousers}/cut/edges"))
        self.assertNotIn('name="room"', self.get(f"{bodice}/cut/edges"), "a bodice lets out at its sides")
        wide = self.width(trousers)
        self.post(f"{trousers}/cut/drawn", {"room": "1"})
        self.assertGreater(self.width(trousers), wide + 1.5)
        self.undo()
        self.assertEqual(self.width(trousers), wide)

    def width(self, at):
        """Of the widest piece as it is cut, cm."""
        read = ezdxf.read(io.StringIO(self.client.get(f"{at}/files/pattern.dxf").data.decode()))
        return max(extents(block).size.x for block in read.blocks if not block.name.startswith("*")) / 10


class Rounds(Fit):
    def begin(self, name="Heron bodice", **more):
        number = self.docket(name).id
        at = f"/dockets/{number}/fit/rounds"
        answer = self.post(at, {"taken_on": "2026-11-28", "kind": "toile", "people": "Tam", **more})
        return answer.location

    def noted(self, at):
        with self.store.read() as session:
            return folded_round(session.get(FittingRound, int(at.rpartition("/")[2])))

    def test_a_fitting_is_begun_noted_and_its_causes_lead_to_the_alteration(self):
        at = self.begin(foundation="corset")
        self.post(f"{at}/notes", {"what": "verdict", "look": "neckline", "verdict": "good"})
        self.post(
            f"{at}/notes",
            {"what": "sign", "sign": "cannot_reach", "pinned": "1.2", "way": "out", "figure": "back", "x": "0.6", "y": "0.2"},
        )
        page = self.get(at)
        self.assertIn("The back is narrow across", page)
        self.assertIn("do=alter.across&amp;s.by=1.2+cm&amp;s.part=back", page.replace("%20", "+"))
        state = self.noted(at)
        self.assertEqual((state.good, [s.pinned for s in state.seen]), ({"neckline"}, [1.2]))
        self.post(f"{at}/notes", {"what": "struck", "of": state.seen[0].id})
        self.assertEqual(self.noted(at).seen, ())
        self.undo()
        self.assertEqual(len(self.noted(at).seen), 1)

    def test_what_cannot_be_kept_is_told_and_stays_in_the_form(self):
        at = self.begin()
        answer = self.client.post(
            f"{at}/notes", data={"csrf_token": self.token(), "what": "sign", "words": "the lace", "pinned": "lots"}
        )
        self.assertEqual(answer.status_code, 422)
        self.assertIn(b"Pinned:", answer.data)
        self.assertIn(b'value="the lace"', answer.data)
        number = self.docket("Heron bodice").id
        wrong = f"/dockets/{number}/fit/rounds"
        answer = self.client.post(wrong, data={"csrf_token": self.token(), "taken_on": "yesterday", "people": "Tam"})
        self.assertEqual((answer.status_code, b"is no date" in answer.data, b'value="Tam"' in answer.data), (422, True, True))

    def test_what_a_phone_sends_twice_is_kept_once(self):
        at = self.begin()
        events = [
            {"client": "phone-000001", "what": "verdict", "look": "hem", "verdict": "see"},
            {"client": "phone-000002", "what": "note", "words": "long day"},
        ]
        head = {"X-CSRFToken": self.token()}
        for sent in (events[:1], events, events):
            answer = self.client.post(f"{at}/notes", json={"events": sent}, headers=head)
            self.assertEqual((answer.status_code, answer.json["kept"]), (200, [event["client"] for event in sent]))
        state = self.noted(at)
        self.assertEqual((state.verdicts, [words for _, words in state.notes]), ({"hem": "see"}, ["long day"]))
        for wrong in ({"events": "x"}, []):
            answer = self.client.post(
                f"{at}/notes", data=json.dumps(wrong), headers={**head, "Content-Type": "application/json"}
            )
            self.assertEqual((answer.status_code, "error" in answer.json), (400, True))
        with self.store.read() as session:
            self.assertEqual(len(session.scalars(select(FittingEvent).where(FittingEvent.client.like("phone-%"))).all()), 2)

    def test_one_that_cannot_be_kept_hides_none_of_the_others(self):
        at = self.begin()
        events = [
            {"client": "phone-000010", "what": "sign", "words": "the lace", "pinned": "lots"},
            {"client": "phone-000011", "what": "note", "words": "breathes well"},
            {"client": "phone-000012", "what": "x"},
        ]
        answer = self.client.post(f"{at}/notes", json={"events": events}, headers={"X-CSRFToken": self.token()})
        self.assertEqual(
            (answer.json["kept"], list(answer.json["refused"])), (["phone-000011"], ["phone-000010", "phone-000012"])
        )
        self.assertIn("Pinned:", answer.json["refused"]["phone-000010"])
        self.assertEqual([words for _, words in self.noted(at).notes], ["breathes well"])

    def test_a_picture_of_a_fitting_lies_beside_the_reference_and_stays_with_the_garment(self):
        at, garment = self.begin(), self.docket("Heron bodice").id
        self.assertIn("None yet: take one below.", self.get(at))
        sent = {"round": at.rpartition("/")[2], "words": "from behind", "back": f"{at}#pictures"}
        answer = self.post(f"/notes/garment/{garment}", {**sent, "pictures": (io.BytesIO(portrait()), "a.jpg")})
        self.assertEqual(answer.location, f"{at}#pictures")
        page = self.get(at)
        self.assertIn("Fitting 1. from behind", page)
        with self.store.read() as session:
            rows = session.scalars(select(Note).where(Note.docket_id == garment).order_by(Note.id)).all()
        (own,), others = rows[-1].pictures, rows[0].pictures
        self.assertIn(f'href="/notes/pictures/{own}.jpg"', page)
        self.assertIn(f'href="/notes/pictures/{others[1]}.jpg"', self.get(f"{at}?this={own}&with={others[1]}"))
        self.assertIn(f'href="/notes/pictures/{others[0]}.jpg"', self.get(f"{at}?this=x&with={own}"))
        self.post(f"{at}/delete")
        self.assertIn("from behind", self.get(f"/notes/garment/{garment}"))
        self.undo()
        self.assertIn("Fitting 1. from behind", self.get(at))

    def test_a_picture_goes_to_no_fitting_of_another_garment_and_a_file_that_is_none_is_told(self):
        at, other = self.begin(), self.docket("Watch coat").id
        number = at.rpartition("/")[2]
        self.post(f"/notes/garment/{other}", {"round": number, "words": "elsewhere"})
        self.assertNotIn("elsewhere", self.get(at))
        with self.store.read() as session:
            self.assertIsNone(session.scalars(select(Note).where(Note.words == "elsewhere")).one().round_id)
        answer = self.client.post(
            f"/notes/garment/{self.docket('Heron bodice').id}",
            data={
                "csrf_token": self.token(), "round": number, "words": "the hem",
                "pictures": (io.BytesIO(b"<svg onload=alert(1)>"), "a.jpg"),
            },
        )  # fmt: skip
        self.assertEqual((answer.status_code, b"Picture 1:" in answer.data, b"the hem" in answer.data), (422, True, True))

    def test_those_of_one_day_stand_beside_each_other_and_one_is_taken_away(self):
        at, other = self.begin(), self.begin("Watch coat")
        self.assertIn(other, self.get(at))
        self.post(f"{at}/delete")
        self.assertEqual(self.client.get(at).status_code, 404)
        self.undo()
        self.assertEqual(self.client.get(at).status_code, 200)
