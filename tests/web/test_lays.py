"""Lays of cloth on their pages: begun, laid, changed, printed, moved by hand, and what is refused."""

import re

from tests.web.making_case import Making
from widehem.core.making.lay.placed import faults
from widehem.jobs.laying import works_of as _  # noqa: F401 - the job is known
from widehem.store.lays import laid
from widehem.store.models import Docket, LayRow, Stock


class TheLay(Making):
    def begin(self, material="cloth", name="Heron bodice"):
        docket = self.docket(name)
        response = self.post(f"/productions/{docket.production_id}/lays", {"docket": docket.id, "material": material})
        return int(response.headers["Location"].rsplit("/", 1)[1])

    def kept(self, number):
        with self.store.read() as session:
            return laid(session.get(LayRow, number))

    def test_begun_laid_changed_and_printed(self):
        number = self.begin()
        found = self.kept(number)
        self.assertEqual(list(faults(found.lay)), [])
        self.assertGreater(found.lay.length, 20)
        page = self.get(f"/lays/{number}")
        self.assertIn("none on another, all on the cloth", page)
        self.post(
            f"/lays/{number}/table",
            {
                "width": "90",
                "selvedge": "1",
                "gap": "0.3",
                "shrinks": "4",
                "price": "12.5",
                "folded": "1",
                "way": "one",
                "seconds": "1",
            },
        )
        found = self.kept(number)
        self.assertEqual((found.lay.table.width, found.lay.table.folded, found.lay.table.way), (90.0, True, "one"))
        self.assertEqual(list(faults(found.lay)), [])
        self.assertIn(f"{found.lay.cost:.2f}", self.get(f"/lays/{number}"))
        for ending, start in (("pdf", b"%PDF"), ("plt", b"IN;"), ("svg", b"<svg")):
            self.assertTrue(self.client.get(f"/lays/{number}/lay.{ending}").data.startswith(start), ending)

    def test_what_cannot_be_names_the_field_and_keeps_what_was_typed(self):
        number = self.begin()
        page = self.post(
            f"/lays/{number}/table", {"width": "wide", "gap": "0.3", "selvedge": "1", "shrinks": "lots", "price": "1"}, 422
        ).get_data(as_text=True)
        for words in ("Width:", 'value="wide"', "Shrinks", 'value="lots"'):
            self.assertIn(words, page)
        page = self.post(f"/lays/{number}/table", {"width": "5", "gap": "0.3", "selvedge": "1"}, 422).get_data(as_text=True)
        self.assertIn("no width of a cloth", page)
        page = self.post("/productions/1/lays", {"material": "cloth"}, 422).get_data(as_text=True)
        self.assertIn("Choose the garments", page)

    def test_a_piece_that_cannot_lie_on_it_is_said_with_its_figures(self):
        number = self.begin(name="Lamplighter's robe")
        self.post(f"/lays/{number}/table", {"width": "40", "gap": "0.3", "selvedge": "1", "seconds": "1"})
        page = self.get(f"/lays/{number}")
        self.assertRegex(page, r"across the grain; the cloth has 38\.0 cm between the selvedges: \d+\.\d cm too little")
        self.assertIn("Below is the lay as it was", page)
        self.assertIn('name="width" value="40.0"', page)  # what was typed is still there
        kept = self.kept(number)
        self.assertEqual((kept.lay.table.width, list(faults(kept.lay))), (140.0, []))

    def test_what_is_left_as_it_is_shown_stays_to_the_last_digit_in_inches_too(self):
        number = self.begin()
        was = self.kept(number).row.cloth
        self.client.set_cookie("wh_unit", "in", domain="localhost")
        page = self.get(f"/lays/{number}")
        typed = {
            code: re.search(rf'name="{code}"\s+value="([^"]*)"', page)[1]
            for code in ("width", "selvedge", "across", "along", "shrinks", "price")
        }
        self.assertEqual(typed["width"], "55 1/8")
        self.post(f"/lays/{number}/table", {**typed, "gap": "1/2", "way": was["way"], "seconds": "1"})
        self.assertEqual(self.kept(number).row.cloth, {**was, "gap": 1.27})

    def test_what_came_of_a_lay_is_said_where_it_was_looked_at_and_taken_back(self):
        number = self.begin()
        page = self.get(f"/lays/{number}?live=1")
        self.assertRegex(page, r'<span role="status">Laid Cloth: Heron bodice[^<]*</span><button data-key="z">Undo')
        self.post(re.search(r'action="(/done/\d+/undo)"', page)[1], {"back": "/"})
        self.assertEqual(self.kept(number).lay.placed, ())

    def test_what_is_refused_names_its_field_and_loses_nothing(self):
        number = self.begin()
        typed = {
            "width": "140",
            "gap": "9",
            "selvedge": "1",
            "folded": "1",
            "way": "one",
            "seconds": "2",
            "stock": "1",
            "price": "x",
        }
        page = self.post(f"/lays/{number}/table", typed, 422).get_data(as_text=True)
        self.assertIn("is no figure", page)
        page = self.post(f"/lays/{number}/table", {**typed, "price": "3"}, 422).get_data(as_text=True)
        self.assertRegex(page, r'id="c-gap-e">Between pieces: 9\.0 cm is too much')
        for chosen in (
            'value="1" selected>folded',
            'value="one" selected',
            'value="2" selected',
            'id="c-stock" checked',
            'value="140"',
        ):
            self.assertIn(chosen, page)

    def test_put_by_hand_where_there_is_room_and_back_where_there_is_none(self):
        number = self.begin()
        lay = self.kept(number).lay
        last = max(lay.placed, key=lambda put: put.x)
        self.post(f"/lays/{number}/put", {"put": last.id, "x": lay.length + 30, "y": last.y, "turned": last.turned}, 200)
        moved = self.kept(number)
        self.assertGreater(next(put.x for put in moved.lay.placed if put.id == last.id), lay.length)
        self.assertTrue(moved.row.by_hand)
        self.assertEqual(list(faults(moved.lay)), [])
        other = next(put for put in lay.placed if put.id != last.id)
        x, y = (sum(part) / 2 for part in zip(*[(b[0], b[1]) for b in [moved.lay.polygons[other.id].bounds]] * 2, strict=True))
        page = self.post(f"/lays/{number}/put", {"put": last.id, "x": x + 2, "y": y + 2, "turned": last.turned}, 200).get_data(
            as_text=True
        )
        self.assertIn("It went back where it was", page)
        self.undo()
        self.assertEqual(self.kept(number).lay.length, lay.length)

    def test_stale_when_a_garment_was_changed_and_deleted_and_taken_back(self):
        number = self.begin()
        bodice = self.docket("Heron bodice")
        with self.store.write() as session:
            session.get(Docket, bodice.id).ease = {"bust": "9"}
        self.assertIn("drawn anew since", self.get(f"/lays/{number}"))
        self.post(f"/lays/{number}/delete")
        self.get(f"/lays/{number}", 404)
        self.undo()
        self.get(f"/lays/{number}")

    def test_the_stock_is_used_first_and_the_rest_goes_there(self):
        with self.store.write() as session:
            session.add(Stock(kind="cloth", name="A rest", cloth="taffeta", length=60.0, width=100.0))
        number = self.begin()
        self.post(f"/lays/{number}/table", {"width": "150", "gap": "0.3", "selvedge": "1", "seconds": "1", "stock": "1"})
        found = self.kept(number)
        self.assertTrue(found.stock)
        for entry in found.stock:
            self.assertEqual(list(faults(entry.lay)), [])
            self.assertLessEqual(entry.lay.length, entry.length + 0.1)
        before = {entry.stock: self.row(Stock, id=entry.stock).length for entry in found.stock}
        self.post(f"/lays/{number}/cut")
        for entry in found.stock:
            self.assertAlmostEqual(self.row(Stock, id=entry.stock).length, before[entry.stock] - entry.lay.length, delta=0.1)
        self.assertIsNotNone(self.docket("Heron bodice").cut_on)
