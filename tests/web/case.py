"""An application on an empty or a demo store, and a client that carries the CSRF token."""

import re
import unittest
from unittest import mock

from tests.apps import app_on
from tests.stores import fresh_store


def as_shown(page):
    """The page as it shows: a line that goes on in the next one is one line; between tags nothing."""
    return re.sub(r"\n\s+", " ", page)


class WebCase(unittest.TestCase):
    demo = True

    def setUp(self):
        for name, short in (
            ("widehem.web.lay.LONG", (1, 2, 3)),
            ("widehem.jobs.laying.FEW", 0.2),
        ):  # seconds that a cloth is laid
            patch = mock.patch(name, short)
            patch.start()
            self.addCleanup(patch.stop)
        self.store = fresh_store(self, demo=self.demo)
        self.app = app_on(self.store)
        self.client = self.app.test_client()

    def get(self, path, status=200, **headers):
        response = self.client.get(path, headers=headers)
        self.assertEqual(response.status_code, status, path)
        return as_shown(response.get_data(as_text=True))

    def token(self, path="/lists"):
        return re.search(r'name="csrf_token" value="([^"]+)"', self.client.get(path).get_data(as_text=True))[1]

    def post(self, path, data=None, status=303):
        response = self.client.post(path, data={"csrf_token": self.token(), **(data or {})})
        self.assertEqual(response.status_code, status, f"{path}: {response.get_data(as_text=True)[:300]}")
        return response
