"""What is kept, and that nothing of it is lost."""

import threading
import unittest

from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.config import Config
from alembic.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import create_engine, inspect, select, text
from sqlalchemy.exc import DatabaseError
from sqlalchemy.orm.exc import StaleDataError

from tests.stores import fresh_store
from widehem.core.drafting.method import METHODS
from widehem.core.units import parse_length
from widehem.demo.load import load_demo
from widehem.demo.people import DESIGNED, GARMENTS, PEOPLE
from widehem.store.charts import accept_doubt, add_reading, core_chart, history, latest_chart, open_chart
from widehem.store.database import HEAD, MIGRATIONS, Store
from widehem.store.designs import block_design
from widehem.store.dockets import find_docket, find_wearer, keep_settings
from widehem.store.models import Base, ChartRow, Docket, Production, ReadingRow, Wearer


class StoreCase(unittest.TestCase):
    def setUp(self):
        self.store = fresh_store(self)
        self.folder = self.store.folder

    def wearer(self):
        with self.store.write() as session:
            production = Production(name="P", company="C")
            session.add(production)
            session.flush()
            wearer = Wearer(production_id=production.id, name="W", role="")
            session.add(wearer)
            session.flush()
            return wearer.id


class Tables(StoreCase):
    def test_the_migrations_make_the_tables_of_the_models(self):
        with self.store.engine.connect() as connection:
            self.assertEqual(compare_metadata(MigrationContext.configure(connection), Base.metadata), [])
        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        self.assertEqual(ScriptDirectory.from_config(config).get_current_head(), HEAD)

    def test_a_new_file_is_what_the_migrations_make_step_by_step(self):
        migrated = self.folder / "migrated.sqlite3"
        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        config.set_main_option("sqlalchemy.url", f"sqlite:///{migrated}")
        command.upgrade(config, "head")

        def shape(file):
            engine = create_engine(f"sqlite:///{file}")
            with engine.connect() as connection:
                names = connection.execute(text("SELECT type, name FROM sqlite_master WHERE name NOT LIKE 'sqlite%'"))
                triggers = connection.execute(text("SELECT sql FROM sqlite_master WHERE type = 'trigger'"))
                version = connection.execute(text("SELECT version_num FROM alembic_version"))
                columns = {
                    table: [
                        (c["name"], str(c["type"]), c["nullable"])
                        for c in sorted(inspect(engine).get_columns(table), key=lambda c: c["name"])
                    ]
                    for table in inspect(engine).get_table_names()
                }
                found = sorted(map(tuple, names)), sorted(map(tuple, triggers)), version.scalar(), columns
            engine.dispose()
            return found

        self.assertEqual(shape(self.store.file), shape(migrated))

    def test_a_store_of_the_first_version_is_brought_up_to_date(self):
        wearer_id = self.wearer()
        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        config.set_main_option("sqlalchemy.url", f"sqlite:///{self.folder / 'widehem.sqlite3'}")
        self.store.close()
        command.downgrade(config, "0001")
        again = Store(self.folder)
        self.addCleanup(again.close)
        with again.read() as session:
            self.assertEqual(find_wearer(session, wearer_id).figure, "curved")

    def test_the_pragmas_hold(self):
        with self.store.engine.connect() as connection:
            for name, value in (("journal_mode", "wal"), ("synchronous", 2), ("foreign_keys", 1), ("busy_timeout", 3000)):
                self.assertEqual(connection.execute(text(f"PRAGMA {name}")).scalar(), value, name)

    def test_opening_again_keeps_the_work_and_the_key(self):
        wearer_id, key = self.wearer(), self.store.secret()
        again = Store(self.folder)
        self.addCleanup(again.close)
        with again.read() as session:
            self.assertEqual(find_wearer(session, wearer_id).name, "W")
        self.assertEqual(again.secret(), key)
        self.assertEqual((self.folder / "secret.key").stat().st_mode & 0o777, 0o600)

    def test_a_failed_write_leaves_nothing(self):
        with self.assertRaises(RuntimeError), self.store.write() as session:
            session.add(Production(name="half", company=""))
            session.flush()
            raise RuntimeError
        with self.store.read() as session:
            self.assertEqual(session.scalars(select(Production)).all(), [])

    def test_a_backup_opens_by_itself(self):
        wearer_id = self.wearer()
        copy = self.folder.parent / "copy"
        copy.mkdir()
        self.store.backup(copy / "widehem.sqlite3")
        other = Store(copy)
        self.addCleanup(other.close)
        with other.read() as session:
            self.assertIsNotNone(find_wearer(session, wearer_id))
        with self.assertRaises(FileExistsError):
            self.store.backup(copy / "widehem.sqlite3")


class Readings(StoreCase):
    def setUp(self):
        super().setUp()
        self.wearer_id = self.wearer()

    def read(self, code, text_, turn=1):
        with self.store.write() as session:
            chart = open_chart(session, find_wearer(session, self.wearer_id))
            add_reading(session, chart, code, turn, parse_length(text_, "cm") if text_ else None)

    def chart(self):
        with self.store.read() as session:
            return core_chart(session, latest_chart(session, self.wearer_id))

    def test_the_last_reading_counts_and_the_earlier_stay(self):
        self.read("waist", "70")
        self.read("waist", "28 in")
        self.read("waist", "71", turn=2)
        reading = self.chart().readings["waist"]
        self.assertEqual((reading.first.typed, reading.first.unit), ("28 in", "in"))
        self.assertAlmostEqual(reading.cm, (28 * 2.54 + 71) / 2, places=4)
        with self.store.read() as session:
            past = history(session, latest_chart(session, self.wearer_id), "waist")
            self.assertEqual([row.typed for row in past], ["71", "28 in", "70"])

    def test_a_struck_out_reading_is_gone_from_the_chart_only(self):
        self.read("hip", "98")
        self.read("hip", "")
        self.assertNotIn("hip", self.chart())
        with self.store.read() as session:
            self.assertEqual(len(history(session, latest_chart(session, self.wearer_id), "hip")), 2)

    def test_a_reading_is_never_changed(self):
        self.read("waist", "70")
        with self.assertRaises(DatabaseError), self.store.write() as session:
            session.scalars(select(ReadingRow)).one().ticks = 1
            session.flush()
        self.assertAlmostEqual(self.chart().get("waist"), 70)

    def test_many_makers_at_once_lose_no_reading(self):
        with self.store.write() as session:
            open_chart(session, find_wearer(session, self.wearer_id))
        codes = ["waist", "hip", "waist_hip", "waist_knee"]

        def work(code):
            for n in range(8):
                self.read(code, str(60 + n))

        threads = [threading.Thread(target=work, args=(code,)) for code in codes for _ in range(2)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        with self.store.read() as session:
            self.assertEqual(len(session.scalars(select(ReadingRow)).all()), 64)
            self.assertEqual(len(session.scalars(select(ChartRow)).all()), 1)

    def test_accepted_doubts_stay_with_the_chart(self):
        self.read("waist", "70")
        with self.store.write() as session:
            accept_doubt(session, latest_chart(session, self.wearer_id), "range:waist:70.00", "she says so")
        with self.store.read() as session:
            self.assertEqual([a.why for a in latest_chart(session, self.wearer_id).accepted], ["she says so"])


class Dockets(StoreCase):
    def docket(self):
        wearer_id = self.wearer()
        with self.store.write() as session:
            wearer = find_wearer(session, wearer_id)
            docket = Docket(
                production_id=wearer.production_id,
                wearer_id=wearer.id,
                name="Skirt",
                design=block_design(session, METHODS["skirt.two_panel"]),
                options={},
                ease={},
                amounts={},
            )
            session.add(docket)
            session.flush()
            return docket.id

    def test_settings_are_kept_as_written(self):
        number = self.docket()
        with self.store.write() as session:
            keep_settings(find_docket(session, number), {"length": "23 1/2 in"}, {"hip": "4 cm"})
        with self.store.read() as session:
            found = find_docket(session, number)
            self.assertEqual((found.options, found.ease, found.version), ({"length": "23 1/2 in"}, {"hip": "4 cm"}, 2))
            self.assertEqual(found.wearer.production.name, "P")

    def test_two_who_change_one_docket_do_not_overwrite_each_other_unseen(self):
        number = self.docket()
        with self.store.read() as session:
            mine = find_docket(session, number)
        with self.store.write() as session:
            keep_settings(find_docket(session, number), {"length": "70 cm"}, {})
        with self.assertRaises(StaleDataError), self.store.write() as session:
            session.add(mine)
            keep_settings(mine, {"length": "80 cm"}, {})
            session.flush()

    def test_deleting_a_wearer_takes_everything_along(self):
        self.docket()
        with self.store.write() as session:
            session.delete(session.scalars(select(Wearer)).one())
        with self.store.read() as session:
            for table in (Docket, ChartRow, ReadingRow):
                self.assertEqual(session.scalars(select(table)).all(), [])


class Demo(StoreCase):
    def test_it_loads_once_and_whole(self):
        self.assertTrue(load_demo(self.store))
        self.assertFalse(load_demo(self.store))
        with self.store.read() as session:
            self.assertEqual(len(session.scalars(select(Wearer)).all()), len(PEOPLE))
            self.assertEqual(len(session.scalars(select(Docket)).all()), len(GARMENTS) + sum(map(len, DESIGNED.values())) + 1)
            nell = session.scalars(select(Wearer).where(Wearer.name == "Nell Askew")).one()
            self.assertAlmostEqual(core_chart(session, latest_chart(session, nell.id)).get("height"), 64 * 2.54)


if __name__ == "__main__":
    unittest.main()
