"""Speed as ratios to an anchor measured in the same run: `make bench`. Parts can be named: core, designs, paper, sizes, fitting, making, web, crowds.

Machines are shared and noisy; the ratios are what to compare from one day to the next. Nothing here fails.
"""

import os
import sys
import tempfile
from pathlib import Path

from tests.bench.core import core
from tests.bench.crowds import crowds
from tests.bench.designs import designs
from tests.bench.figures import line
from tests.bench.fitting import fitting
from tests.bench.house import fetch, large_company, served
from tests.bench.making import making
from tests.bench.paper import paper
from tests.bench.sizes import sizes
from tests.bench.web import alone, starting
from widehem.settled import settle_down

PARTS = {"core", "designs", "paper", "sizes", "fitting", "making", "web", "crowds"}


def web(parts: set[str]) -> None:
    print("\nweb: anchor: an empty page of the same server")
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "data"
        starting(data)
        large_company(data)
        with served(data) as (house, _):
            anchor = alone(house)
            if "crowds" in parts:
                crowds(house, anchor)
            for name in ("sheets.pdf", "card.pdf"):
                fetch(house.connection(), f"/dockets/1/files/{name}", 303)
            for resident, own in sorted(house.memory(), reverse=True):
                line("a process after all this, in memory", resident, "MB", None, f"target 150 MB; its share {own:.0f}")


if __name__ == "__main__":
    wanted = set(sys.argv[1:]) & PARTS or PARTS
    print(f"Python {sys.version.split()[0]}, {os.cpu_count()} processors\n")
    settle_down()  # as the server does
    if "core" in wanted:
        core()
    if "designs" in wanted:
        designs()
    if "paper" in wanted:
        paper()
    if "sizes" in wanted:
        sizes()
    if "fitting" in wanted:
        fitting()
    if "making" in wanted:
        making()
    if wanted & {"web", "crowds"}:
        web(wanted)
