"""A store of its own for a test, empty or with the demo, gone afterwards."""

import atexit
import tempfile
import unittest
from functools import cache
from pathlib import Path

from widehem.demo.load import load_demo
from widehem.jobs.ledger import FILE as LEDGER
from widehem.jobs.standing import STANDING
from widehem.jobs.works import Works
from widehem.store.database import Store
from widehem.store.keeping import FILE, copy_whole


def fresh_store(case: unittest.TestCase, *, demo: bool = False) -> Store:
    folder = tempfile.TemporaryDirectory()
    case.addCleanup(folder.cleanup)
    data = Path(folder.name) / "data"
    if demo:
        data.mkdir()
        for name in (FILE, LEDGER):
            copy_whole(with_demo() / name, data / name)
    store = Store(data)
    case.addCleanup(store.close)
    return store


@cache
def with_demo() -> Path:
    """A folder with the demo, loaded once for all tests of a process, and every garment of it looked at."""
    folder = tempfile.TemporaryDirectory()
    atexit.register(folder.cleanup)
    store = Store(Path(folder.name))
    load_demo(store)
    works = Works(store, inline=True)
    works.ask(STANDING, {"production": None}, "Looking at every garment", "demo")
    works.close()
    store.close()
    return Path(folder.name)
