"""Sizes, rules, nests, casts and the rail through their pages: kept, refused with a sentence, taken back."""

import io
import json
import re
import zipfile

from sqlalchemy import select

from tests.web.case import WebCase
from widehem.core.grading.first_table import FIRST
from widehem.core.grading.house_charts import HOUSE
from widehem.store.grading import all_rules, all_sizes, how_graded
from widehem.store.models import DesignRow, Event, HouseRules, HouseSizes, OnRail, Production


class Grading(WebCase):
    def design(self, name="Deckhand's shirt"):
        with self.store.read() as session:
            return session.scalars(select(DesignRow).where(DesignRow.name == name, DesignRow.own)).first().id

    def how(self, number):
        with self.store.read() as session:
            return how_graded(session.get(DesignRow, number))

    def undo(self):
        with self.store.read() as session:
            last = session.scalars(select(Event).order_by(Event.id.desc())).first().id
        self.post(f"/done/{last}/undo")


class Charts(Grading):
    def own(self):
        code = self.post("/sizes/curved/copy").location.rpartition("/")[2]
        return code, int(code.removeprefix("house-"))

    def test_a_copy_is_kept_to_the_last_digit_and_a_changed_figure_is_doubted(self):
        code, number = self.own()
        page = self.get(f"/sizes/{code}")
        fields = dict(re.findall(r'name="([a-z_]+\.\d+)" value="([^"]*)"', page))
        self.assertEqual(len(fields), 12 * len(HOUSE["curved"].rows))
        self.post(f"/sizes/{code}", {"name": "Chorus", **fields})
        with self.store.read() as session:
            self.assertEqual(all_sizes(session)[code].rows, HOUSE["curved"].rows)
        self.post(f"/sizes/{code}", {"name": "Chorus", **fields, "hip.4": "97.8", "base": "5", "key": "hip"})
        with self.store.read() as session:
            row = session.get(HouseSizes, number)
            self.assertEqual((row.rows["hip"][4], row.base, row.key, row.letters[5]), (97.8, 5, "hip", "M"))
        self.assertIn("Hip of size 5 is 97.8 cm; the sizes round it run to 99.0 cm.", self.get(f"/sizes/{code}"))
        self.undo()
        with self.store.read() as session:
            self.assertEqual(session.get(HouseSizes, number).rows["hip"][4], 99.0)

    def test_in_inches_nothing_is_rounded_that_was_not_typed(self):
        code, _ = self.own()
        self.client.set_cookie("wh_unit", "in")
        page = self.get(f"/sizes/{code}")
        fields = dict(re.findall(r'name="([a-z_]+\.\d+)" value="([^"]*)"', page))
        self.assertEqual(fields["bust.4"], "36 1/4")
        self.post(f"/sizes/{code}", {"name": "Chorus", **fields, "waist.0": "23", "shown_in": "in"})
        with self.store.read() as session:
            kept = all_sizes(session)[code].rows
        self.assertEqual(
            (kept["waist"][0], kept["waist"][1:], kept["bust"]),
            (58.42, HOUSE["curved"].rows["waist"][1:], HOUSE["curved"].rows["bust"]),
        )

    def test_what_cannot_be_read_is_named_and_stays_in_its_field(self):
        code, _ = self.own()
        response = self.post(f"/sizes/{code}", {"name": "", "hip.4": "wide"}, 422)
        page = response.get_data(as_text=True)
        self.assertIn("Hip, size 5", page)
        self.assertIn('value="wide"', page)
        self.assertIn("has no name yet", page)
        self.post("/sizes/read", {"file": (io.BytesIO(b"size,1,2\nbust,80,x\n"), "x.csv")}, 422)
        self.post("/sizes/house-99/copy", status=404)
        self.post("/sizes/curved", {"name": "Mine"}, 404)

    def test_sizes_more_and_less_csv_both_ways_and_from_bodies(self):
        code, _ = self.own()
        for do in ("more larger", "more smaller", "less smaller"):
            self.post(f"/sizes/{code}/size", {"do": do})
        with self.store.read() as session:
            chart = all_sizes(session)[code]
        self.assertEqual((len(chart), chart.base, chart.rows["bust"][-1], chart.rows["bust"][0]), (13, 4, 134.0, 76.0))
        data = self.client.get(f"/sizes/{code}/file").get_data()
        made = self.post("/sizes/read", {"file": (io.BytesIO(data), "mine.csv")}).location
        self.assertIn("House chart, curved, ours 2", self.get(made))
        company = self.post("/sizes/from", {"of": "company.1", "like": "curved"}).location
        self.assertIn("Company of The Lantern Ferry", self.get(company))
        self.assertIn("Round ", self.get(self.post("/sizes/from", {"of": "wearer.1", "like": "curved"}).location))
        number = self.design()
        self.post(f"/designs/{number}/sizes/how", {"chart": code})
        self.assertIn(
            "Deckhand&#39;s shirt is graded by it", self.post(f"/sizes/{code}/delete", status=422).get_data(as_text=True)
        )
        self.post(f"/designs/{number}/sizes/how", {"chart": "curved"})
        self.post(f"/sizes/{code}/delete")
        self.get(f"/sizes/{code}", 404)


class Tables(Grading):
    def test_a_copy_is_changed_tested_and_taken_back(self):
        code = self.post("/rules/first/copy").location.rpartition("/")[2]
        page = self.get(f"/rules/{code}")
        fields = dict(re.findall(r'name="([a-z_]+\.\d+\.(?:spot|out|up))"\s+(?:aria-label="[^"]*"\s+)?value="([^"]*)"', page))
        fields |= dict(re.findall(r'name="([a-z_]+\.\d+\.(?:out|up))" value="([^"]*)"', page))
        fields = {name: text.replace("&#39;", "'") for name, text in fields.items()}
        self.post(f"/rules/{code}", {"name": "Ours", **fields})
        with self.store.read() as session:
            self.assertEqual(all_rules(session)[code].kinds, FIRST.kinds)
        at = next(
            name for name, text in fields.items() if name.startswith("upper_back") and text == "armhole/shoulder"
        ).rpartition(".")[0]
        self.post(
            f"/rules/{code}",
            {"name": "Ours", **fields, f"{at}.out": "0.8", "sleeve.4.spot": "cap#2", "sleeve.4.out": "0.1", "sleeve.4.up": "0"},
        )
        page = self.get(f"/rules/{code}")
        self.assertIn("Shoulder of the back", page)
        self.assertRegex(page, r"[1-9]\d* of \d+ figures are not as they")
        with self.store.read() as session:
            self.assertIn("cap#2", [rule.pattern for rule in all_rules(session)[code].kinds["sleeve"]])
        self.undo()
        self.assertIn("figures are as they should be", self.get(f"/rules/{code}"))
        wrong = self.post(
            f"/rules/{code}", {"name": "Ours", **fields, f"{at}.spot": "armhole shoulder", f"{at}.up": "far"}, 422
        ).get_data(as_text=True)
        self.assertIn("&#34;far&#34;", wrong)
        self.assertTrue(self.client.get(f"/rules/{code}/ruler").get_data().startswith(b"%PDF"))
        data = self.client.get(f"/rules/{code}/file").get_data()
        taken = self.post("/rules/read", {"file": (io.BytesIO(data), "ours.json")}).location.rpartition("/")[2]
        with self.store.read() as session:
            self.assertEqual(all_rules(session)[taken].kinds, all_rules(session)[code].kinds)
            self.assertEqual(all_rules(session)[taken].name, "Ours 2")
        for bad, words in (
            (b"[1]", "no table"),
            (b"{", "no JSON"),
            (b'{"unit": 4, "kinds": {"upper_back": [["a b", 0, 0]]}}', "spot"),
            (b"", "Choose"),
        ):
            page = self.post("/rules/read", {"file": (io.BytesIO(bad), "x.json")}, 422).get_data(as_text=True)
            self.assertIn(words, page[page.index("r-file") :][:900])
        self.post(f"/rules/{code}/delete")
        self.get(f"/rules/{code}", 404)


class Nests(Grading):
    def test_every_view_of_every_design_by_every_way(self):
        with self.store.read() as session:
            numbers = [row.id for row in session.scalars(select(DesignRow).where(DesignRow.own))]
        self.assertEqual(len(numbers), 5)
        for number in numbers[:2] + numbers[-1:]:
            for view in ("", "/dots", "/figures", "/ways", "/mix", "/print"):
                self.get(f"/designs/{number}/sizes{view}")
        self.get("/designs/9999/sizes", 404)

    def test_graded_another_way_and_a_size_picked_and_laid_by_a_spot(self):
        number = self.design()
        page = self.get(f"/designs/{number}/sizes?size=7&at=armhole/side&along=armhole/shoulder")
        self.assertIn("Size 7: every check is true.", page)
        self.assertIn("is-picked", page)
        self.assertIn("is no address of a spot", self.get(f"/designs/{number}/sizes?at=far+out"))
        self.post(f"/designs/{number}/sizes/how", {"way": "redraft", "chart": "straight"})
        self.assertEqual((self.how(number).way, self.how(number).chart), ("redraft", "straight"))
        self.assertIn("Drawn anew", self.get(f"/designs/{number}/sizes"))
        self.undo()
        self.assertEqual(self.how(number).way, "rules")
        self.post(f"/designs/{number}/sizes/how", {"way": "magic", "chart": "none"})
        self.assertEqual(self.how(number).way, "rules")

    def test_other_figures_from_a_size_on(self):
        number = self.design()
        at = f"/designs/{number}/sizes"
        self.assertIn("less than in the base", self.get(at))
        self.assertIn("less than in the base", self.get(f"{at}/print"))
        dots = f"{at}/dots?piece=front&spot=side/armhole"
        self.assertIn("from size 8 up", self.get(dots))
        rule = {
            "piece": "front",
            "spot": "armhole/side",
            "pattern": "armhole/side",
            "out": "1.2",
            "up": "-0.1",
            "where": "table",
        }
        wrong = self.get(self.post(f"{at}/rule", {**rule, "since": "3", "out": "far"}).location)
        self.assertIn('value="3" selected', wrong)
        self.post(f"{at}/rule", {**rule, "since": "99"}, 400)
        self.post(f"{at}/rule", {**rule, "since": "3"})
        code = self.how(number).rules
        with self.store.read() as session:
            table = all_rules(session)[code]
        self.assertEqual([(r.pattern, r.out, r.up) for r in table.rules_of("upper_front", 3)], [("armhole/side", 1.2, -0.1)])
        self.assertEqual(table.kinds, FIRST.kinds)
        self.assertIn("From size 8 up: +1.20 out, −0.10 up", self.get(dots))
        page = self.get(f"/rules/{code}")
        self.assertIn("from 3 steps above the base on", page)
        taken = {"since": "3", "kind": "upper_front", "pattern": "armhole/side"}
        self.post(f"/rules/{code}/since", {**taken, "since": "4"}, 400)
        self.post(f"/rules/{code}/since", taken)
        self.assertNotIn("from 3 steps above the base on", self.get(f"/rules/{code}"))
        self.undo()
        self.assertIn("from 3 steps above the base on", self.get(f"/rules/{code}"))
        self.post(f"{at}/rule", {**rule, "since": "3", "where": "band"})
        with self.store.read() as session:
            self.assertEqual(dict(all_rules(session)[code].bands), {})
        self.post("/rules/first/since", taken, 404)

    def test_a_rule_at_the_board_for_a_piece_and_for_a_table(self):
        number = self.design("Ferry master's waistcoat")
        spot = {"piece": "back", "spot": "armhole/shoulder", "pattern": ""}
        page = self.get(f"/designs/{number}/sizes/dots?piece=side_back")
        text = re.search(r"<code>([^<]+)</code>", page)[1]
        self.post(
            f"/designs/{number}/sizes/rule",
            {**spot, "piece": "side_back", "spot": text, "out": "0.7", "up": "0.2", "where": "piece"},
        )
        self.assertEqual([(r.piece, r.text, r.out, r.up) for r in self.how(number).own], [("side_back", text, 0.7, 0.2)])
        self.assertIn("a rule of yours", self.get(f"/designs/{number}/sizes/dots?piece=side_back&spot={text}"))
        wrong = self.post(
            f"/designs/{number}/sizes/rule",
            {**spot, "piece": "side_back", "spot": text, "out": "99", "up": "far", "where": "piece"},
        )
        page = self.get(wrong.location)
        self.assertIn("&#34;far&#34;", page)
        self.assertIn('value="99"', page)
        self.post(f"/designs/{number}/sizes/rule", {**spot, "piece": "side_back", "spot": text, "where": "away"})
        self.assertEqual(self.how(number).own, ())
        self.post(
            f"/designs/{number}/sizes/rule",
            {**spot, "piece": "side_back", "spot": text, "out": "0.6", "up": "0.4", "where": "table"},
        )
        with self.store.read() as session:
            table = all_rules(session)[self.how(number).rules]
            self.assertEqual(
                session.scalars(select(HouseRules).where(HouseRules.name.like("%waistcoat%"))).one().code,
                self.how(number).rules,
            )
        self.assertIn((text, 0.6, 0.4), [(rule.pattern, rule.out, rule.up) for rule in table.kinds["upper_back"]])
        self.undo()
        self.assertEqual(self.how(number).rules, "first")

    def test_a_setting_breaks_at_a_size(self):
        number = self.design("Ferry master's waistcoat")
        page = self.get(f"/designs/{number}/sizes")
        what = re.search(r'<select class="form-select" id="b-what" name="what"><option value="([^"]+)"', page)[1]
        answer = self.post(f"/designs/{number}/sizes/break", {"what": what, "size": "7", "value": "wide"})
        self.assertIn("&#34;wide&#34;", self.get(answer.location.replace("#breaks", "")))
        self.post(f"/designs/{number}/sizes/break", {"what": what, "size": "7", "value": "2"})
        self.assertEqual([(b.setting, b.size, b.value) for b in self.how(number).breaks], [(what.partition(".")[2], 6, 2.0)])
        self.assertIn("is 2.0 cm from size 7 on", self.get(f"/designs/{number}/sizes"))
        self.post(f"/designs/{number}/sizes/break", {"away": "0"})
        self.assertEqual(self.how(number).breaks, ())
        self.post(f"/designs/{number}/sizes/break", {"what": "nothing.there", "size": "7", "value": "2"}, 400)

    def test_files_of_one_size_of_all_and_of_a_mix(self):
        number = self.design("Lamp child's smock, bought")
        for query, begins in (
            ("which=all", b"%PDF"),
            ("which=all&writer=dxf", b"  0\nSECTION"),
            ("which=apart&writer=svg", b"PK"),
            ("which=all&writer=json", b"{"),
        ):
            response = self.client.get(f"/designs/{number}/sizes/file?{query}", follow_redirects=True)
            self.assertTrue(response.get_data().startswith(begins), query)
        names = zipfile.ZipFile(
            io.BytesIO(
                self.client.get(f"/designs/{number}/sizes/file?which=apart&writer=svg", follow_redirects=True).get_data()
            )
        ).namelist()
        self.assertEqual(len(names), 3)
        data = json.loads(
            self.client.get(f"/designs/{number}/sizes/file?which=all&writer=json", follow_redirects=True).get_data()
        )
        self.assertEqual(len(data["sizes"]), 3)
        mix = self.client.get(f"/designs/{number}/sizes/file?which=mix&at.bust=0.5&lengths=1", follow_redirects=True)
        self.assertTrue(mix.get_data().startswith(b"%PDF"))
        plot = self.client.get(f"/designs/{number}/sizes/file?which=all&writer=plot", follow_redirects=True).get_data(
            as_text=True
        )
        self.assertIn("a plot file holds one", plot)
        for query in ("which=99", "writer=doc", "paper=a9", "at=far+out"):
            self.assertEqual(self.client.get(f"/designs/{number}/sizes/file?{query}").status_code, 400, query)

    def test_own_chart_against_the_chart_of_sizes(self):
        page = self.get(f"/designs/{self.design()}/sizes/mix?wearer=7")
        self.assertRegex(page, r"Bust: size (\d+|beyond)")
        self.assertIn("What it comes to", page)


class Casts(Grading):
    def test_planned_another_way_and_printed(self):
        page = self.get("/productions/1/cast")
        self.assertIn("A draft of their own", page)
        self.post(
            "/productions/1/cast",
            {
                "against": "sizes:curved",
                "let_out": "8",
                "take_in": "12",
                "hem": "5",
                "most": "2",
                "by": "sizes",
                "with_lengths": "yes",
                "lengths": "inside_leg",
            },
        )
        with self.store.read() as session:
            kept = session.get(Production, 1).cast
        self.assertEqual((kept["let_out"], kept["take_in"], kept["most"], kept["lengths"]), (8.0, 12.0, 2, ["inside_leg"]))
        for against in (f"design:{self.design()}", "rail", "sizes:child", "design:9999"):
            self.post("/productions/1/cast", {"against": against})
            self.get("/productions/1/cast")
        self.assertTrue(self.client.get("/productions/1/cast.pdf").get_data().startswith(b"%PDF"))
        wrong = self.post(
            "/productions/1/cast", {"let_out": "wide", "take_in": "99", "most": "none", "size": "-3"}, 422
        ).get_data(as_text=True)
        for words in ("Let out at most: ", "no alteration any more", "no number of sizes", "are no hours"):
            self.assertIn(words, wrong)
        self.assertIn('value="wide"', wrong)
        self.undo()
        self.get("/productions/99/cast", 404)


class Rail(Grading):
    def test_hung_up_found_fitting_and_taken_off(self):
        self.post("/rail", {"name": "Pilot coat", "place": "bay 9", "m.bust": "104", "m.waist": "40 in", "e.bust": "12"})
        with self.store.read() as session:
            row = session.scalars(select(OnRail).where(OnRail.name == "Pilot coat")).one()
            number = row.id
            self.assertEqual((row.fits, row.ease), ({"bust": "104 cm", "waist": "40 in"}, {"bust": "12 cm"}))
        self.assertIn("Pilot coat", self.get("/rail?find=bay+9"))
        self.assertIn("101.6", self.get(f"/rail?edit={number}"))
        page = self.get("/rail?wearer=7")
        self.assertIn("what fits", page)
        self.post(f"/rail/{number}", {"name": "Pilot coat, blue", "m.bust": "105"})
        self.assertIn("Pilot coat, blue</a>", self.get("/rail"))
        wrong = self.post("/rail", {"name": "", "m.bust": "wide"}, 422).get_data(as_text=True)
        self.assertIn("Give the garment a name", wrong)
        self.assertIn("Bust: &#34;wide&#34;", wrong)
        self.assertIn("at least one measure", self.post("/rail", {"name": "Hat"}, 422).get_data(as_text=True))
        self.post(f"/rail/{number}/away")
        self.assertNotIn("Pilot coat, blue</a>", self.get("/rail"))
        self.undo()
        self.assertIn("Pilot coat, blue</a>", self.get("/rail"))

    def test_by_file_out_and_in(self):
        data = self.client.get("/rail/file").get_data()
        before = self.get("/rail").count("<h2><a")
        self.post("/rail/file", {"file": (io.BytesIO(data), "rail.csv")})
        self.assertEqual(self.get("/rail").count("<h2><a"), 2 * before)
        for text, words in (
            ("a,b\n1,2\n", 'no column "name"'),
            ("name,bust\nCoat,wide\n", "Row 2, bust"),
            ("name,unit\nCoat,ell\n", "the unit is"),
            ('name\n""\n', "Row 2 has no name"),
        ):
            with self.subTest(text):
                page = self.post("/rail/file", {"file": (io.BytesIO(text.encode()), "x.csv")}, 422).get_data(as_text=True)
                self.assertIn(words, page.replace("&#34;", '"'))

    def test_a_picture_is_drawn_anew_and_no_other_file_is_kept(self):
        wrong = self.post("/rail", {"name": "Hat", "m.bust": "90", "photo": (io.BytesIO(b"<svg/>"), "x.png")}, 422).get_data(
            as_text=True
        )
        self.assertIn("photo", wrong.lower())
        with self.store.read() as session:
            pictured = session.scalars(select(OnRail).where(OnRail.photo.has())).one().id
        self.assertEqual(self.client.get(f"/rail/{pictured}/photo.jpg").mimetype, "image/jpeg")
        self.get("/rail/999/photo.jpg", 404)

    def test_taken_off_the_rail_and_back_with_its_picture(self):
        with self.store.read() as session:
            pictured = session.scalars(select(OnRail).where(OnRail.photo.has())).one().id
        page = self.get(self.post(f"/rail/{pictured}/away").headers["Location"])
        self.get(f"/rail/{pictured}/photo.jpg", 404)
        self.post(re.search(r'action="(/done/\d+/undo)"', page)[1], {"back": "/"})
        self.assertEqual(self.client.get(f"/rail/{pictured}/photo.jpg").mimetype, "image/jpeg")
