"""A store of its own for a test, empty or with the demo, gone afterwards."""

import atexit
import fcntl
import os
import shutil
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

SHARED = "WIDEHEM_TESTS"  # names a folder that all processes of a run may use


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
    """A folder with the demo, and every garment of it looked at: made once for all tests of a process, or of a run where it names a
    folder for all of its processes."""
    shared = os.environ.get(SHARED)
    if shared is None:
        folder = tempfile.TemporaryDirectory()
        atexit.register(folder.cleanup)
        _begin(Path(folder.name))
        return Path(folder.name)
    data = Path(shared) / "demo"
    with (Path(shared) / "lock").open("w") as turn:
        fcntl.flock(turn, fcntl.LOCK_EX)  # whoever needs it first makes it, the others wait
        if not data.exists():
            making = Path(shared) / "making"
            shutil.rmtree(making, ignore_errors=True)
            making.mkdir()
            _begin(making)
            making.rename(data)
    return data


def _begin(data: Path) -> None:
    store = Store(data)
    load_demo(store)
    works = Works(store, inline=True)
    works.ask(STANDING, {"production": None}, "Looking at every garment", "demo")
    works.close()
    store.close()
