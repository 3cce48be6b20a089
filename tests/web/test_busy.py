"""A database that takes nothing now: busy, full, not to be written to. Each is a sentence, and nothing is kept by half."""

import sqlite3
import unittest
from contextlib import closing, contextmanager

from sqlalchemy import event

from tests.web.case import WebCase
from widehem.store.charts import core_chart, latest_chart
from widehem.store.keeping import FILE


class NotNow(WebCase):
    def setUp(self):
        super().setUp()
        self.token()
        self.wearer = {"csrf_token": self.token(), "measure": "neck", "first": "38.5"}

    def pragma(self, words):
        """Every connection from now on with this pragma."""

        @event.listens_for(self.store.engine, "connect")
        def prepare(connection, _record):
            connection.execute(f"PRAGMA {words}")

        self.store.engine.dispose()
        self.addCleanup(event.remove, self.store.engine, "connect", prepare)

    def keep(self):
        return self.client.post("/wearers/1/readings", data=self.wearer)

    def neck(self):
        with self.store.read() as session:
            return core_chart(session, latest_chart(session, 1)).get("neck")

    @contextmanager
    def held(self):
        with closing(sqlite3.connect(self.store.folder / FILE, isolation_level=None)) as other:
            other.execute("BEGIN IMMEDIATE")
            yield
            other.execute("ROLLBACK")

    def test_busy(self):
        self.pragma("busy_timeout=50")
        with self.held():
            answer = self.keep()
            self.assertEqual((answer.status_code, answer.headers["Retry-After"]), (503, "2"))
            self.assertIn("Not kept yet", answer.get_data(as_text=True))
            self.get("/wearers/1/measure")  # reading goes on
            tape = self.client.post("/tape/123456/readings", json={"value": "70"})
            self.assertEqual((tape.status_code, tape.get_json()["error"][:8]), (503, "Somebody"))
        self.assertEqual(self.neck(), 37.5)
        self.assertEqual(self.keep().status_code, 303)
        self.assertEqual(self.neck(), 38.5)

    def test_full_and_not_to_be_written_to(self):
        pages = sqlite3.connect(self.store.folder / FILE).execute("PRAGMA page_count").fetchone()[0]
        for words, said in (
            (f"max_page_count={pages}", "disk of the workroom is full"),
            ("query_only=ON", "cannot be written to"),
        ):
            with self.subTest(words):
                self.pragma(words)
                self.wearer["first"] = "38.5 cm" + " " * 3000
                with self.assertLogs(self.app.logger, "ERROR"):
                    for _ in range(400):  # until the last page is full
                        answer = self.keep()
                        if answer.status_code != 303:
                            break
                self.assertEqual(answer.status_code, 507)
                self.assertIn(said, answer.get_data(as_text=True))
                self.get("/wearers/1/measure")


if __name__ == "__main__":
    unittest.main()
