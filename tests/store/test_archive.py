"""A production out of a house and into another: the same figures, and nothing but what belongs there."""

import copy
import io
import json
import random
import unittest

from PIL import Image
from sqlalchemy import select

import widehem.core.drafting.methods  # noqa: F401 - registers them
from tests.stores import fresh_store
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.store.archive import archive, read_archive, take_in
from widehem.store.archive_values import ArchiveError
from widehem.store.making import find_work
from widehem.store.models import Docket, Note, Photo, Production, Wearer
from widehem.store.papers import wanted_of


def figures(store, production):
    """Every length of every garment of a production, in the order they were begun; why not, where it cannot be drawn."""
    found = []
    with store.read() as session:
        query = select(Docket).where(Docket.production_id == production, Docket.binned_at.is_(None)).order_by(Docket.id)
        for docket in session.scalars(query):
            work = find_work(session, docket.id)
            try:
                made = work.made_once()
                lengths = [(p.name, e.name, round(e.length, 6)) for p in made.garment.pieces for e in p.edges]
                amounts = [sorted(wanted_of(docket).amounts(piece).items()) for piece in made.garment.pieces]
                found.append((docket.wearer.name, docket.name, docket.costume, lengths, amounts))
            except (CannotDraft, OptionError) as error:
                found.append((docket.wearer.name, docket.name, docket.costume, str(error), []))
    return found


class Archives(unittest.TestCase):
    def out(self, store, **more):
        with store.read() as session:
            return archive(session, session.get(Production, 1), **more)

    def test_on_a_fresh_install_every_figure_is_the_same(self):
        here, there = fresh_store(self, demo=True), fresh_store(self)
        found = read_archive(self.out(here))
        with there.write("somebody") as session:
            number = take_in(session, found).id
        ours, theirs = figures(here, 1), figures(there, number)
        self.assertEqual(len(ours), 31)
        self.assertEqual(ours, theirs)
        with here.read() as a, there.read() as b:
            for model in (Wearer, Note, Photo):
                self.assertEqual(len(a.scalars(select(model)).all()), len(b.scalars(select(model)).all()), model)
        again = self.out(there)
        self.assertEqual(_plain(again), _plain(self.out(here)), "out again it says the same")

    def test_taken_in_twice_it_stands_beside_and_changes_nothing(self):
        store = fresh_store(self, demo=True)
        before = figures(store, 1)
        found = read_archive(self.out(store))
        with store.write("somebody") as session:
            made = take_in(session, found)
            number, name = made.id, made.name
        self.assertEqual(name, "The Lantern Ferry 2")
        self.assertEqual((figures(store, 1), figures(store, number)), (before, before))

    def test_without_pictures_it_has_none(self):
        rows = json.loads(self.out(fresh_store(self, demo=True), pictures=False))["rows"]
        self.assertEqual({name for name in ("photo", "picture", "traced") if rows.get(name)}, set())

    def test_a_picture_is_drawn_anew(self):
        data = json.loads(self.out(fresh_store(self, demo=True)))
        import base64

        picture = io.BytesIO()
        Image.new("RGB", (30, 30)).save(picture, "JPEG", comment=b"a secret")
        data["rows"]["photo"] = [{**data["rows"]["photo"][0], "data": base64.b64encode(picture.getvalue()).decode()}]
        found = read_archive(json.dumps(data).encode())
        self.assertNotIn(b"a secret", found.rows["photo"][0]["data"])
        data["rows"]["photo"][0]["data"] = base64.b64encode(b"GIF89a nothing").decode()
        with self.assertRaises(ArchiveError):
            read_archive(json.dumps(data).encode())

    def test_what_is_wrong_is_told_with_its_row_and_field(self):
        whole = json.loads(self.out(fresh_store(self, demo=True), pictures=False))
        cases = (
            (lambda d: d.update(version=9), "version"), (lambda d: d.update(format="x"), "no archive"), (lambda d: d["rows"].update(production=[]), "holds no production"),
            (lambda d: d["rows"]["reading"][3].update(measure="tail"), "reading 4: there is no measure tail"),
            (lambda d: d["rows"]["reading"][3].update(chart_id=999), "its chart 999 is not in the archive"),
            (lambda d: d["rows"]["docket"][0].update(amounts={"hem": "400"}), "docket 1, amounts: hem is 400"),
            (lambda d: d["rows"]["docket"][0].update(name="x" * 300), "docket 1: name has 300 signs, 120 at most"),
            (lambda d: d["rows"]["docket"][0].update(due_on="tomorrow"), "a day belongs there"), (lambda d: d["rows"]["wearer"][0].update(name=7), "text belongs there"),
            (lambda d: d["rows"]["design"][0].update(steps=[{"id": "a", "code": "no.such"}]), 'there is no operation "no.such"'),
            (lambda d: d["rows"]["docket"][0].update(marking={"edges": {"a.b": "99"}}), "0 to 15 cm belongs there"),
            (lambda d: d["rows"]["wearer"][0].pop("name"), "name is missing"),
        )  # fmt: skip
        for spoil, words in cases:
            data = copy.deepcopy(whole)
            spoil(data)
            with self.assertRaises(ArchiveError) as caught:
                read_archive(json.dumps(data).encode())
            self.assertIn(words, str(caught.exception))

    def test_whatever_is_put_wrong_is_refused_or_taken_in_and_can_be_looked_at(self):
        whole = json.loads(self.out(fresh_store(self, demo=True), pictures=False))
        chance, store = random.Random("wrong"), fresh_store(self)
        refused = 0
        for _ in range(60):
            data = copy.deepcopy(whole)
            _spoil(data["rows"], chance)
            try:
                found = read_archive(json.dumps(data).encode())
            except ArchiveError as error:
                refused += 1
                self.assertTrue(str(error))
                continue
            with store.write("somebody") as session:
                number = take_in(session, found).id
            if chance.random() < 0.1:
                self.assertGreater(len(figures(store, number)), 20)
        self.assertGreater(refused, 20)


def _plain(data):
    """What an archive says, without the numbers and moments of the house it is from."""
    rows = json.loads(data, parse_int=float)["rows"]
    left = {
        "id",
        "created_at",
        "updated_at",
        *(f"{name}_id" for name in ("production", "wearer", "chart", "design", "docket", "bodice")),
    }
    found = {
        name: [{k: v for k, v in row.items() if k not in left | {"pictures", "data", "small"}} for row in part]
        for name, part in rows.items()
    }
    for part in found.values():
        for row in part:
            if str(row.get("figure", "")).startswith("house-"):
                row["figure"] = "house"
    return {name: sorted(json.dumps(row, sort_keys=True) for row in part) for name, part in found.items()}


def _spoil(rows, chance):
    """One thing in it put wrong."""
    table = chance.choice([name for name, part in rows.items() if part])
    row = chance.choice(rows[table])
    key = chance.choice(list(row))
    row[key] = chance.choice([None, -1, 10**30, "x" * 5000, [], {}, {"a": "b"}, True, "", 1.5, [{"id": 1}]])


if __name__ == "__main__":
    unittest.main()
