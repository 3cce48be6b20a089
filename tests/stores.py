"""A store of its own for a test, empty or with the demo, gone afterwards."""

import tempfile
import unittest
from pathlib import Path

from widehem.demo.load import load_demo
from widehem.store.database import Store


def fresh_store(case: unittest.TestCase, *, demo: bool = False) -> Store:
    folder = tempfile.TemporaryDirectory()
    case.addCleanup(folder.cleanup)
    store = Store(Path(folder.name) / "data")
    case.addCleanup(store.close)
    if demo:
        load_demo(store)
    return store
