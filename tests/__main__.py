"""Runs the tests and closes with a plain count. Folders of tests may be named: core cli store web browser."""

import sys
import time
import unittest
from pathlib import Path

HERE = Path(__file__).parent


def main() -> int:
    folders = [name for name in sys.argv[1:] if not name.startswith("-")] or ["core", "cli", "store", "web", "browser"]
    suite = unittest.TestSuite()
    for name in folders:
        suite.addTests(unittest.defaultTestLoader.discover(str(HERE / name), top_level_dir=str(HERE.parent)))
    began = time.monotonic()
    result = unittest.TextTestRunner(verbosity=2 if "-v" in sys.argv else 1, buffer=True).run(suite)
    failed = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    passed = result.testsRun - failed - len(result.skipped)
    print(f"in {time.monotonic() - began:.0f} s")
    print(f"tests: {passed} passed, {failed} failed, {len(result.skipped)} skipped")
    return 1 if failed or not passed else 0


sys.exit(main())
