"""The fit station through its pages: alterations kept, left out and taken back; the stand test, the room, fittings noted once."""

import json

from sqlalchemy import select

from tests.web.case import WebCase
from widehem.store.alterations import alterations_on
from widehem.store.fittings import folded_round
from widehem.store.models import Docket, Event, FittingEvent, FittingRound


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
        for number in numbers:
            for view in ("stand", "room", "rounds"):
                with self.subTest(number, view=view):
                    answer = self.client.get(f"/dockets/{number}/fit/{view}")
                    self.assertIn(answer.status_code, (200, 303))
                    told += b"Least room is" in answer.data
        self.assertGreater(told, 8)
        smock = self.docket("Smock of the deckhand")
        page = self.get(f"/dockets/{smock.id}/fit/stand")
        self.assertIn("Across back", page)
        self.assertIn("more than this design usually has", page)


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
        for wrong, status in (
            ({"events": "x"}, 400),
            ([], 400),
            ({"events": [{"what": "note"}]}, 422),
            ({"events": [{"client": "phone-000009", "what": "x"}]}, 422),
        ):
            answer = self.client.post(
                f"{at}/notes", data=json.dumps(wrong), headers={**head, "Content-Type": "application/json"}
            )
            self.assertEqual((answer.status_code, "error" in answer.json), (status, True))
        with self.store.read() as session:
            self.assertEqual(len(session.scalars(select(FittingEvent).where(FittingEvent.client.like("phone-%"))).all()), 2)

    def test_those_of_one_day_stand_beside_each_other_and_one_is_taken_away(self):
        at, other = self.begin(), self.begin("Watch coat")
        self.assertIn(other, self.get(at))
        self.post(f"{at}/delete")
        self.assertEqual(self.client.get(at).status_code, 404)
        self.undo()
        self.assertEqual(self.client.get(at).status_code, 200)
