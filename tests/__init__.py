"""All tests. `python -m tests` runs everything; `python -m tests core web` only those folders."""

from hypothesis import settings

import widehem.core.drafting.methods  # noqa: F401 - registers the methods
from tests.some import EVERYTHING

# no test is timed: speed is what the benchmark prints
settings.register_profile("workroom", deadline=None, max_examples=100 if EVERYTHING else 40)
settings.load_profile("workroom")
