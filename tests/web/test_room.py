"""Charts over time, lists, figure tables, a wearer's own page, and the protocol of the digital tape."""

import io
import json
import re
import unittest
from datetime import date

from PIL import Image
from pypdf import PdfReader

from tests.web.case import WebCase
from widehem.store.charts import charts_of, core_chart, latest_chart
from widehem.store.models import Docket, HouseList, Wearer


class OverTime(WebCase):
    def test_what_changed_and_which_garment_that_makes_stale(self):
        page = self.get("/wearers/3/charts")
        self.assertEqual(page.count("carried over</small>"), 7)
        self.assertRegex(page, r"Waist</th><td[^>]*>63\.2</td><td[^>]*>61\.5</td><td[^>]*><b>−1\.7")
        self.assertIn("<b>Stale.</b> Waist −1.7, hip +0.7 cm since it was drawn", page)
        self.assertIn("waist and 1 more changed", self.get("/dockets/3/draft"))
        self.assertIn(">draw it on the newest chart</a>", self.get("/productions/1"))

    def test_drawn_on_the_newest_it_is_no_longer_stale(self):
        self.post("/dockets/3/newest", {"back": "draft"})
        page = self.get("/dockets/3/draft")
        self.assertNotIn("Stale.", page)
        self.assertNotIn("1 more changed", page)
        with self.store.read() as session:
            self.assertIsNone(session.get(Docket, 3).chart_id)
            older = charts_of(session, 3)[1].id
        self.post("/dockets/3/newest", {"chart": older})
        self.assertIn("Stale.", self.get("/dockets/3/draft"))

    def test_a_new_chart_is_begun_and_the_old_one_stays(self):
        where = self.post(
            "/wearers/1/charts", {"taken_on": date.today().isoformat(), "carry": "yes", "then": "tape", "foundation": "stays"}
        ).headers["Location"]
        self.assertIn("/tape", where)
        self.assertIn("last time", self.get(where))
        with self.store.read() as session:
            rows = charts_of(session, 1)
            self.assertEqual((len(rows), rows[0].foundation, rows[0].shoes), (3, "stays", "boots, 3 cm heel"))
            self.assertEqual(core_chart(session, rows[0]).get("waist"), core_chart(session, rows[1]).get("waist"))
            self.assertEqual(session.get(Docket, 1).chart_id, rows[1].id)
            older = rows[1].id
        self.assertIn("an older chart", self.get(f"/wearers/1/measure?chart={older}"))
        self.assertIn("carried over from", self.get("/wearers/1/measure?list=all"))
        page = self.post("/wearers/1/charts", {"taken_on": "soon"}, 422).get_data(as_text=True)
        self.assertIn("&#34;soon&#34; is not a date", page)

    def test_an_older_chart_is_read_on_where_it_is_shown(self):
        with self.store.read() as session:
            older = charts_of(session, 1)[1].id
        self.post("/wearers/1/readings", {"measure": "neck", "first": "38.5", "chart": older})
        with self.store.read() as session:
            newest, old = (core_chart(session, row) for row in charts_of(session, 1))
        self.assertEqual((newest.get("neck"), old.get("neck")), (37.5, 38.5))

    def test_age_and_foundation_are_doubts_that_can_be_kept(self):
        page = self.get("/wearers/9/charts")
        self.assertIn("The chart is 8 months old; a chart holds six months", page)
        self.assertIn("read over shirt; Gown skirt of the magistrate is worn over belly pad and shirt", page)
        keys = re.findall(r'name="doubt" value="([^"]+)"', page)
        self.post("/wearers/9/doubts", {"doubt": keys[0], "why": "tried on yesterday", "page": "charts.over_time"})
        self.assertIn("Kept: tried on yesterday", self.get("/wearers/9/charts"))
        self.post("/dockets/7/foundation", {"foundation": "Shirt"})
        self.assertNotIn("worn over belly pad", self.get("/wearers/9/charts"))


class KeptSettings(WebCase):
    def test_a_setting_kept_out_of_its_range_is_told_at_its_field(self):
        with self.store.write() as session:
            session.get(Docket, 1).ease = {"waist": "30 cm"}
        page = self.get("/dockets/1/draft")
        self.assertIn("Waist ease 30.0 is outside −30.0 to 2.0 cm", page)
        self.assertIn('value="30 cm"', page)
        self.get("/dockets/1/cut", 303)
        self.get("/wearers/1/measure")


class Lists(WebCase):
    def test_a_list_is_made_used_changed_and_deleted(self):
        where = self.post("/lists", {"name": "Hats", "measure": ["head", "neck", "elbow grease"]}).headers["Location"]
        self.assertIn("Neck, head.", self.get(where))
        number = int(where.rpartition("=")[2])
        self.assertIn("1 of 2", self.get(f"/wearers/1/tape?list=own-{number}&at=neck"))
        self.assertIn(">Hats</option>", self.get("/wearers/1/measure"))
        self.post("/lists", {"open": number, "name": "Hats and collars", "measure": ["head", "neck", "shoulder"]})
        with self.store.read() as session:
            self.assertEqual(session.get(HouseList, number).codes, ["neck", "shoulder", "head"])
        self.post(f"/lists/{number}/delete")
        self.get(f"/lists?open={number}")
        self.assertIn(
            "Chart of",
            self.get(f"/wearers/1/measure?list=own-{number}"),
            "an old address still leads somewhere",
        )

    def test_what_is_missing_is_told_and_ticks_are_kept(self):
        page = self.post("/lists", {"name": " ", "measure": ["head"]}, 422).get_data(as_text=True)
        self.assertIn("no name yet", page)
        self.assertRegex(page, r'value="head" checked')
        page = self.post("/lists", {"name": "quick FITTING"}, 422).get_data(as_text=True)
        self.assertIn("No measure is ticked", page)
        self.assertIn("There is a list called quick FITTING already", page)


class Tables(WebCase):
    def form(self, code):
        page = self.get(f"/tables/{code}")
        return dict(re.findall(r'<input class="form-control[^"]*" id="t-[^"]+" name="([^"]+)"[^>]*? value="([^"]*)"', page))

    def test_what_ships_is_looked_at_and_copied(self):
        page = self.get("/tables/child")
        self.assertIn("<code>wrist + 4</code>", page)
        self.assertNotIn("Keep the table", page)
        where = self.post("/tables/child/copy").headers["Location"]
        self.assertIn("Child, ours", self.get(where))
        self.assertIn("Child, ours 2", self.get(self.post("/tables/child/copy").headers["Location"]))
        self.post("/tables/child", {"name": "x"}, 404)
        self.get("/tables/nobody", 404)

    def test_a_changed_formula_changes_the_estimates(self):
        form = self.form("house-1")
        self.assertEqual(len(form), 2 + 4 + 47)
        self.post("/wearers/2/about", {"figure": "house-1"})
        self.post("/tables/house-1", {**form, "neck": "30 + 0 * F", "bust_difference": "-1"})
        self.assertIn("≈30.0", self.get("/wearers/2/measure?list=all&at=neck"))
        page = self.post("/tables/house-1/delete", status=422).get_data(as_text=True)
        self.assertIn("2 wearers are judged by this table", page)
        for wearer in (2, 7):
            self.post(f"/wearers/{wearer}/about", {"figure": "curved"})
        self.post("/tables/house-1/delete")
        self.get("/tables/house-1", 404)

    def test_faults_are_told_at_their_fields_and_nothing_is_kept(self):
        form = self.form("house-1")
        page = self.post(
            "/tables/house-1", {**form, "neck": "F / ", "wrist": "thumb * 3", "height": "tall", "name": "Curved"}, 422
        ).get_data(as_text=True)
        for words in (
            "Neck: &#34;F /&#34; is not a formula",
            "no measure thumb",
            "&#34;tall&#34; is not a length",
            "a table called Curved already",
        ):
            self.assertIn(words, page)
        self.assertIn('value="thumb * 3"', page)
        self.assertEqual(self.form("house-1"), form)


class About(WebCase):
    def photo(self, data, status=303):
        form = {"csrf_token": self.token(), "photo": (io.BytesIO(data), "x.png")}
        response = self.client.post("/wearers/2/photo", data=form, content_type="multipart/form-data")
        self.assertEqual(response.status_code, status)
        return response.get_data(as_text=True)

    def test_a_photo_is_kept_small_and_private(self):
        out = io.BytesIO()
        Image.effect_noise((2200, 1400), 90).save(out, "PNG")
        self.assertGreater(len(out.getvalue()), 2 * 1024 * 1024, "more than any other form may send")
        self.photo(out.getvalue())
        response = self.client.get("/wearers/2/photo.jpg")
        self.assertEqual((response.mimetype, response.headers["Cache-Control"]), ("image/jpeg", "private, no-store"))
        self.assertEqual(max(Image.open(io.BytesIO(response.data)).size), 480)
        self.assertIn("/wearers/2/photo.jpg", self.get("/wearers/2"))
        self.post("/wearers/2/photo", {"rub_out": "yes"})
        self.get("/wearers/2/photo.jpg", 404)

    def test_what_is_no_photo_is_told(self):
        self.assertIn("Choose a photo first", self.photo(b"", 422))
        self.assertIn("not a photo that can be read", self.photo(b"<svg onload=alert(1)>", 422))
        self.assertIn("8 MB is the most", self.photo(b"x" * (8 * 1024 * 1024 + 5), 422))
        self.assertEqual(self.client.post("/lists", data={"name": "x" * 3_000_000}).status_code, 413, "the rest stays small")

    def test_notes_come_back_as_cautions_everywhere(self):
        self.post("/wearers/4/about", {"allergies": "Nickel <zips>", "movement": "left knee"})
        self.post("/wearers/4/readings", {"measure": "waist_knee", "first": "59"})
        for path in (
            "/wearers/4/measure",
            "/wearers/4/tape",
            "/wearers/4/sheet",
            "/wearers/4/listen",
            "/wearers/4/charts",
            "/dockets/4/draft",
            "/dockets/4/cut",
        ):
            page = self.get(path)
            self.assertIn("Nickel &lt;zips&gt;", page, path)
            self.assertIn("left knee", page, path)
        self.assertIn("allergies, movement: be careful", self.get("/productions/1"))
        for path in ("/wearers/4/chart.pdf", "/wearers/4/chart.pdf?blank=1", "/dockets/4/files/card.pdf"):
            words = PdfReader(io.BytesIO(self.client.get(path).data)).pages[0].extract_text()
            self.assertIn("Nickel <zips>", words, path)

    def test_a_wearer_is_found_by_name_or_part(self):
        page = self.get("/productions/1?find=LAMP")
        self.assertEqual(
            re.findall(r'<th scope="row"><a href="/wearers/\d+/measure">([^<]+)', page), ["Tam Quill", "Wren Tolliver"]
        )
        self.assertIn("Nobody here is called or plays", self.get("/productions/1?find=%3Cb%3E"))

    def test_all_charts_are_taken_as_one_file(self):
        data = json.loads(self.client.get("/wearers/1/chart.json?every=1").data)
        self.assertEqual([len(chart["measures"]) for chart in data["charts"]], [7, 28])


class Device(WebCase):
    def setUp(self):
        super().setUp()
        self.post("/wearers/4/listen", {"act": "begin", "list": "full", "what": "missing", "twice": "off"})
        self.pair = re.search(r'class="pair num">(\d+)<', self.get("/wearers/4/listen"))[1]

    def say(self, status, path="readings", **message):
        response = self.client.post(f"/tape/{self.pair}/{path}", json=message)
        self.assertEqual(response.status_code, status, response.get_json())
        return response.get_json()

    def chart(self):
        with self.store.read() as session:
            return core_chart(session, latest_chart(session, 4))

    def test_a_reading_is_taken_answered_and_shown(self):
        self.assertEqual(self.client.get(f"/tape/{self.pair}").get_json()["waits_for"]["measure"], "waist_front")
        stamp = re.search(r'hx-get="([^"]+)" hx-trigger="every', self.get("/wearers/4/listen"))[1].replace("&amp;", "&")
        self.get(stamp, 204)
        answer = self.say(201, device="t", number=1, value="15 1/8", unit="in")
        self.assertEqual(
            (answer["taken"]["name"], answer["taken"]["said"], answer["waits_for"]["measure"]),
            ("Waist, front arc", "15 1/8 in", "hip_front"),
        )
        self.assertIn("Waist, front arc", self.get(stamp))
        self.assertAlmostEqual(self.chart().get("waist_front"), 15.125 * 2.54, places=3)
        again = self.say(200, device="t", number=1, value="15 1/8", unit="in")
        self.assertTrue(again["repeated"])
        self.say(200, "undo", device="t")
        self.assertNotIn("waist_front", self.chart())
        self.assertIn("taken back", self.get("/wearers/4/listen"))

    def test_wrong_messages_are_refused_and_nothing_is_written(self):
        before = self.chart().stamp
        for message, word in (
            ({"value": "wide"}, "not a length"), ({"value": None}, "value is None"), ({"value": True}, "value is True"),
                ({"value": "-4"}, "less than nothing"),
            ({"value": 50, "number": "7"}, "count the messages"), ({"value": 50, "unit": "ell"}, "unit"),
                ({"value": 99999}, "longer than"),
        ):  # fmt: skip
            self.assertIn(word, self.say(422, **{"device": "t", "number": 1, **message})["error"])
        self.assertEqual(
            self.client.post(f"/tape/{self.pair}/readings", data={"value": "50"}).status_code,
            415,
            "no form of another page gets in",
        )
        self.assertEqual(
            self.client.post(f"/tape/{self.pair}/readings", data="[1]", content_type="application/json").status_code, 400
        )
        self.assertEqual(self.client.post("/tape/none/readings", json={"value": 50}).status_code, 404)
        self.assertIn("nothing to take back", self.say(409, "undo")["error"])
        self.assertEqual(self.chart().stamp, before)

    def test_a_doubtful_one_waits_until_the_maker_goes_on(self):
        answer = self.say(201, device="t", number=1, value="60")
        self.assertTrue(answer["held"])
        self.assertIn("front arc of the waist is 60.0", answer["look_again"][0])
        page = self.get("/wearers/4/listen")
        self.assertIn("Go on as it is", page)
        self.post("/wearers/4/listen", {"act": "on", "list": "full"})
        self.assertEqual(self.client.get(f"/tape/{self.pair}").get_json()["waits_for"]["measure"], "hip_front")
        self.post("/wearers/4/listen", {"act": "to", "measure": "hand", "list": "full"})
        self.assertEqual(self.client.get(f"/tape/{self.pair}").get_json()["waits_for"]["measure"], "hand")
        self.post("/wearers/4/listen", {"act": "stop", "list": "full"})
        self.say(404, device="t", number=2, value="60")

    def test_its_number_shows_only_where_it_was_begun(self):
        other = self.app.test_client()
        page = other.get("/wearers/4/listen").get_data(as_text=True)
        self.assertNotIn(self.pair, page)
        self.assertIn("paired with this chart from another browser", page)
        mine, self.client = self.client, other
        self.post("/wearers/4/listen", {"act": "stop"})
        self.say(201, device="t", number=1, value="15 1/8", unit="in")
        self.post("/wearers/4/listen", {"act": "begin", "list": "full", "what": "missing"})
        self.say(404, device="t", number=2, value="19", unit="in")
        self.client = mine
        self.assertIn("from another browser", self.get("/wearers/4/listen"))

    def test_a_form_pressed_twice_takes_back_one(self):
        self.say(201, device="t", number=1, value="15 1/8", unit="in")
        self.say(201, device="t", number=2, value="19", unit="in")
        last = re.search(r'name="last" value="(\d+)"', self.get("/wearers/4/listen"))[1]
        for _ in range(2):
            self.post("/wearers/4/listen", {"act": "undo", "last": last, "list": "full"})
        self.assertIn("waist_front", self.chart())
        self.assertNotIn("hip_front", self.chart())
        self.say(200, "undo", device="t", number=2)
        self.assertIn("waist_front", self.chart())

    def test_guessing_a_number_waits(self):
        for _ in range(10):
            self.assertEqual(self.client.get("/tape/nobody").status_code, 404)
        self.say(429, device="t", number=1, value="15 1/8", unit="in")
        elsewhere = {"REMOTE_ADDR": "10.0.0.7"}
        self.assertEqual(self.client.get(f"/tape/{self.pair}", environ_overrides=elsewhere).status_code, 200)

    def test_the_hem_gives_the_figure_of_its_own_sentence(self):
        self.post("/wearers/1/readings", {"measure": "neck", "first": "38.5", "second": "36"})
        page = self.get("/wearers/1/measure?at=neck")
        self.assertIn("Neck was read 38.5 and 36.0, 2.5 apart", page)
        self.assertRegex(re.sub(r"<[^>]+>", " ", page), r"Two readings\s+2\.5\s+cm apart")

    def test_a_chart_not_begun_yet_can_listen(self):
        self.post("/wearers/12/listen", {"act": "begin", "list": "full", "what": "all", "twice": "on"})
        pair = re.search(r'class="pair num">(\d+)<', self.get("/wearers/12/listen"))[1]
        self.assertEqual(self.client.post(f"/tape/{pair}/readings", json={"value": 80}).get_json()["waits_for"]["turn"], 2)
        with self.store.read() as session:
            self.assertEqual(core_chart(session, latest_chart(session, 12)).get("waist"), 80)
            self.assertEqual(session.get(Wearer, 12).name, "Lasse Moor")


if __name__ == "__main__":
    unittest.main()
