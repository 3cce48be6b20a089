"""Runs the tests, folder by folder, three at a time, and closes with a plain count. Folders may be named: browser core web cli store."""

import os
import subprocess
import sys
import tempfile
import time
import unittest
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from tests.stores import SHARED
from widehem.settled import settle_down

HERE = Path(__file__).parent
FOLDERS = ("browser", "core", "web", "cli", "store")  # the longest first
AT_ONCE = min(os.cpu_count() or 1, 2) + 1  # those with a browser wait more than they work
COUNTED = "counted:"


def run_folder(name: str) -> int:
    """One folder in this process; the last line counts passed, failed and skipped."""
    suite = unittest.defaultTestLoader.discover(str(HERE / name), top_level_dir=str(HERE.parent))
    settle_down()  # as the server does
    result = unittest.TextTestRunner(verbosity=2 if "-v" in sys.argv else 1, buffer=True).run(suite)
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    print(COUNTED, result.testsRun - failed - len(result.skipped), failed, len(result.skipped))
    return 1 if failed else 0


def run_beside(name: str) -> tuple[int, int, int]:
    """One folder in a process of its own, its words shown once it has ended: passed, failed and skipped."""
    began = time.monotonic()
    more = [flag for flag in sys.argv[1:] if flag == "-v"]
    done = subprocess.run(
        [sys.executable, "-m", "tests", "--one", name, *more], cwd=HERE.parent, capture_output=True, text=True, check=False
    )
    *words, last = done.stdout.strip().splitlines() or [""]
    counted = last.startswith(COUNTED)
    passed, failed, skipped = (int(part) for part in last.split()[1:]) if counted else (0, 1, 0)
    told = "\n".join([*words, *(() if counted else (last, f"{name} ended by itself with {done.returncode}"))])
    print(f"{name}, in {time.monotonic() - began:.0f} s\n{done.stderr.strip()}\n{told}".rstrip(), flush=True)
    return passed, failed, skipped


def main() -> int:
    if "--one" in sys.argv:
        return run_folder(sys.argv[sys.argv.index("--one") + 1])
    named = [name for name in sys.argv[1:] if not name.startswith("-")]
    began = time.monotonic()
    with ThreadPoolExecutor(AT_ONCE) as pool, tempfile.TemporaryDirectory() as shared:
        os.environ[SHARED] = shared
        found = list(pool.map(run_beside, named or FOLDERS))
    passed, failed, skipped = (sum(part) for part in zip(*found, strict=True))
    print(f"in {time.monotonic() - began:.0f} s")
    print(f"tests: {passed} passed, {failed} failed, {skipped} skipped")
    return 1 if failed or not passed else 0


sys.exit(main())
