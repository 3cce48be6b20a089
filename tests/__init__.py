"""All tests. `python -m tests` runs everything; `python -m tests core web` only those folders."""

from hypothesis import settings

import widehem.core.drafting.methods  # noqa: F401 - registers the methods

settings.register_profile("workroom", deadline=None)  # no test is timed: speed is what the benchmark prints
settings.load_profile("workroom")
