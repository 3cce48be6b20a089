"""Notes with pictures: private, drawn anew, seen where the work is done, and taken back."""

import io
import re
import unittest
from datetime import timedelta

from PIL import Image
from sqlalchemy import func, select

from tests.web.case import WebCase
from widehem.store.bin import DAYS
from widehem.store.models import Docket, Event, Note, Picture, Wearer, now
from widehem.store.notes import let_pictures_go

PLACE = b"52 deg 30 min N"


def camera(size=(2400, 1200), colour="navy", kind="JPEG"):
    """A picture as a camera would write it, with where it was taken."""
    out = io.BytesIO()
    exif = Image.Exif()
    exif[0x010E] = PLACE.decode()
    Image.new("RGB", size, colour).save(out, kind, exif=exif)
    out.seek(0)
    return out


class NotesCase(WebCase):
    def named(self, model, name):
        with self.store.read() as session:
            return session.scalars(select(model).where(model.name == name)).one()

    def note(self, kind, number, words, *pictures, status=303):
        data = {"words": words, "pictures": [(picture, f"{at}.jpg") for at, picture in enumerate(pictures)]}
        return self.post(f"/notes/{kind}/{number}", data, status)

    def newest(self):
        with self.store.read() as session:
            return session.scalars(select(Note).order_by(Note.id.desc()).limit(1)).one()

    def last_event(self):
        with self.store.read() as session:
            return session.scalars(select(Event).order_by(Event.id.desc()).limit(1)).one()


class Seen(NotesCase):
    def test_a_garments_note_is_seen_on_its_draft_and_where_it_is_cut(self):
        number = self.named(Docket, "Ferry skirt").id
        self.note("garment", number, "Loops for the belt.", camera())
        for path in (f"/dockets/{number}/draft?slip=garment", f"/dockets/{number}/cut"):
            page = self.get(path)
            self.assertIn("Loops for the belt.", page)
            self.assertIn(f"/notes/pictures/{self.newest().pictures[0]}/small.jpg", page)
            self.assertIn("First dress rehearsal", page, "the production's note comes after it")
        other = self.named(Docket, "Mourning skirt").id
        self.assertNotIn("Loops for the belt.", self.get(f"/dockets/{other}/cut"))

    def test_a_wearers_note_is_seen_while_measuring_and_no_other(self):
        wearer = self.named(Wearer, "Runa Sable").id
        self.note("wearer", wearer, "Stand on the left of her.")
        for path in (f"/wearers/{wearer}/tape", f"/wearers/{wearer}/measure", f"/wearers/{wearer}"):
            self.assertIn("Stand on the left of her.", self.get(path))
        self.assertNotIn(
            "Second arm must reach", self.get(f"/wearers/{wearer}/tape"), "a garment's note stays with the garment"
        )
        self.assertNotIn("Stand on the left of her.", self.get("/wearers/1/tape"))


class Pictures(NotesCase):
    def test_they_are_drawn_anew_in_two_sizes_without_what_the_camera_wrote(self):
        self.note("production", 1, "", camera(), camera((600, 900), "green", "PNG"))
        numbers = self.newest().pictures
        self.assertEqual(len(numbers), 2)
        for at, (large, small) in enumerate((((1600, 800), (480, 240)), ((600, 900), (320, 480)))):
            for path, size in (
                (f"/notes/pictures/{numbers[at]}.jpg", large),
                (f"/notes/pictures/{numbers[at]}/small.jpg", small),
            ):
                answer = self.client.get(path)
                self.assertEqual(answer.headers["Cache-Control"], "private, no-store")
                self.assertNotIn(PLACE, answer.data)
                picture = Image.open(io.BytesIO(answer.data))
                self.assertEqual((picture.size, picture.format, dict(picture.getexif())), (size, "JPEG", {}))

    def test_one_that_cannot_be_read_is_named_and_nothing_is_lost(self):
        page = self.note("production", 1, "Blue, not green.", camera(), io.BytesIO(b"no picture"), status=422).get_data(
            as_text=True
        )
        self.assertIn("Picture 2: The file is not a photo that can be read", page)
        self.assertIn("Blue, not green.</textarea>", page)
        with self.store.read() as session:
            self.assertNotIn("Blue, not green.", session.scalars(select(Note.words)).all())

    def test_at_most_twelve(self):
        page = self.note("production", 1, "", *(camera((9, 9)) for _ in range(13)), status=422).get_data(as_text=True)
        self.assertIn("A note takes 12 pictures", page)

    def test_of_what_lies_in_the_bin_none_is_shown(self):
        self.note("production", 1, "", camera())
        number = self.newest().pictures[0]
        self.post("/productions/1/delete", {"sure": "The Lantern Ferry"})
        self.get(f"/notes/pictures/{number}.jpg", 404)
        self.get("/notes/production/1", 404)

    def test_those_nobody_shows_go_after_thirty_days(self):
        self.note("production", 1, "", camera(), camera())
        note = self.newest()
        gone, stays = note.pictures
        self.post(f"/notes/{note.id}", {"words": "", "off": str(gone)})
        with self.store.write() as session:
            for number in (gone, stays):
                session.get(Picture, number).created_at = now() - timedelta(days=DAYS + 1)
        with self.store.write() as session:
            self.assertEqual(let_pictures_go(session), 1)
        self.get(f"/notes/pictures/{gone}.jpg", 404)
        self.assertEqual(self.client.get(f"/notes/pictures/{stays}.jpg").status_code, 200)


class Changing(NotesCase):
    def test_words_pictures_and_the_whole_note_come_back(self):
        self.note("wearer", 1, "Two petticoats.", camera())
        note = self.newest()
        picture = note.pictures[0]
        page = self.get("/notes/wearer/1")
        self.assertIn("Noted on Odile Marsh.", page)
        self.post(f"/notes/{note.id}", {"words": "Three petticoats.", "off": str(picture)})
        self.assertNotIn(f"/notes/pictures/{picture}.jpg", self.get("/notes/wearer/1"))
        self.post(f"/done/{self.last_event().id}/undo")
        page = self.get("/notes/wearer/1")
        self.assertIn("Two petticoats.", page)
        self.assertIn(f"/notes/pictures/{picture}.jpg", page)
        self.post(f"/notes/{note.id}/delete")
        self.assertNotIn("Two petticoats.", self.get("/notes/wearer/1"))
        self.post(f"/done/{self.last_event().id}/undo")
        self.assertIn(f"/notes/pictures/{picture}.jpg", self.get("/notes/wearer/1"))

    def test_an_emptied_note_is_rubbed_out(self):
        self.note("wearer", 1, "Two petticoats.")
        self.post(f"/notes/{self.newest().id}", {"words": "  "})
        self.assertIn("Rubbed out a note", self.get("/notes/wearer/1"))

    def test_what_somebody_else_wrote_meanwhile_stays_beside_it(self):
        self.note("wearer", 1, "Two petticoats.")
        note = self.newest()
        self.post(f"/notes/{note.id}", {"words": "Two petticoats, starched.", "was.words": "Two petticoats."})
        self.post(f"/notes/{note.id}", {"words": "Two petticoats. Red.", "was.words": "Two petticoats."})
        self.assertEqual(self.newest().words, "Two petticoats, starched.; Two petticoats. Red.")

    def test_nothing_at_all_is_no_note(self):
        page = self.note("production", 1, "  ", status=422).get_data(as_text=True)
        self.assertIn("Write something, or choose a picture", page)

    def test_events_do_not_carry_pictures(self):
        """They would be kept a second time with every change."""
        self.note("production", 1, "", camera())
        self.assertLess(len(repr(self.last_event().changes)), 2000)

    def test_what_there_is_not(self):
        for path in ("/notes/garment/9999", "/notes/ship/1", "/notes/pictures/9999.jpg"):
            self.get(path, 404)
        self.post("/notes/9999", {"words": "x"}, 404)


class Hours(NotesCase):
    def waist(self):
        with self.store.read() as session:
            from widehem.store.charts import core_chart, latest_chart

            return core_chart(session, latest_chart(session, 1)).readings["waist"]

    def test_the_time_of_day_goes_with_a_waist(self):
        page = self.get("/wearers/1/measure?at=waist&list=full")
        self.assertRegex(page, r'name="hour"[^>]*value="10:15"')
        self.assertNotIn('name="hour"', self.get("/wearers/1/measure?at=hip&list=full"))
        self.post("/wearers/1/readings", {"measure": "waist", "first": "79", "hour": "16.30"})
        self.assertEqual((self.waist().first.cm, self.waist().hour), (79.0, "16:30"))
        self.assertIn("at 16:30", self.get("/wearers/1/measure?at=waist&list=full"))
        self.assertIn("79.0 cm, read at 16:30", self.last_event().words)

    def test_the_hour_alone_is_noted_and_taken_back(self):
        was = self.waist()
        self.post("/wearers/1/readings", {"measure": "waist", "first": "78.0", "second": "78.4", "hour": "9"})
        self.assertEqual((self.waist().hour, self.waist().ticks), ("09:00", was.ticks))
        self.post(f"/done/{self.last_event().id}/undo")
        self.assertEqual(self.waist().hour, "10:15")

    def test_what_is_no_hour_is_said_and_nothing_is_written(self):
        with self.store.read() as session:
            before = session.scalar(select(func.count()).select_from(Event))
        page = self.post("/wearers/1/readings", {"measure": "waist", "first": "79", "hour": "26:00"}, 422).get_data(
            as_text=True
        )
        self.assertIn("Waist, time of day: &#34;26:00&#34; is no time of day", page)
        self.assertTrue(re.search(r'name="hour"[^>]*value="26:00"', page.replace("\n", " ")))
        with self.store.read() as session:
            self.assertEqual(session.scalar(select(func.count()).select_from(Event)), before)

    def test_it_comes_over_with_a_carried_reading_and_stands_beside_a_change(self):
        self.post("/wearers/1/charts", {"taken_on": "2026-11-29", "carry": "yes"})
        self.assertEqual(self.waist().hour, "10:15")
        self.assertIn("at 10:15", self.get("/wearers/1/charts"))


if __name__ == "__main__":
    unittest.main()
