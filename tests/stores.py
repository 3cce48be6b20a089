"""A store of its own for a test, empty or with the demo, gone afterwards."""

import atexit
import tempfile
import unittest
from functools import cache
from pathlib import Path

from widehem.demo.load import load_demo
from widehem.store.database import Store
from widehem.store.keeping import FILE, copy_whole


def fresh_store(case: unittest.TestCase, *, demo: bool = False) -> Store:
    folder = tempfile.TemporaryDirectory()
    case.addCleanup(folder.cleanup)
    data = Path(folder.name) / "data"
    if demo:
        data.mkdir()
        copy_whole(with_demo(), data / FILE)
    store = Store(data)
    case.addCleanup(store.close)
    return store


@cache
def with_demo() -> Path:
    """A database with the demo, loaded once for all tests of a process."""
    folder = tempfile.TemporaryDirectory()
    atexit.register(folder.cleanup)
    store = Store(Path(folder.name))
    load_demo(store)
    store.close()
    return Path(folder.name) / FILE
