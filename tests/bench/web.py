"""One maker before a server, and what the house takes to begin."""

from __future__ import annotations

import statistics
import time
from pathlib import Path

from tests.bench.figures import line, p95
from tests.bench.house import House, fetch, read, served

# what its pages took, as ratios to an empty page of the same server
PAGES_BEFORE = {
    "/dockets/1/draft": 10.5,
    "/dockets/8/draft": 9.6,
    "/dockets/13/draft": 10.9,
    "/dockets/17/draft": 10.5,
    "/dockets/19/draft": 11.7,
    "/dockets/1/cut": 25.4,
    "/dockets/8/walk?at=20": 9.4,
    "/dockets/8/compare": 10.9,
    "/wearers/8/schools": 30.2,
}
PAGES = (
    "/", "/productions/1", "/wearers/1/measure", "/wearers/1/measure?list=all", "/wearers/1/tape?list=full",
    "/wearers/1/sheet?list=full", "/wearers/1/charts", "/dockets/1/draft", "/dockets/1/cut", "/dockets/8/draft",
    "/dockets/8/compare", "/dockets/8/walk?at=20", "/wearers/8/schools", "/dockets/13/draft", "/dockets/13/cut",
    "/dockets/17/draft", "/dockets/19/draft", "/dockets/19/draft?view=folded", "/dockets/19/cut",
)  # fmt: skip
CROWD = (
    "/productions/2", "/productions/2/company", "/productions/2?find=extra+12", "/productions/2/company?find=extra+12",
)  # fmt: skip
FINDING = ("/find?q=extra+12", "/find?q=petticoat+of+extra+499", "/find?q=o")
TARGETS = {"/dockets/19/cut": "target 80 ms"}


def redraft(n: int) -> str:
    """The board with another waist, so that no answer repeats another."""
    return f"/dockets/1/draft?m.waist={70 + n * 0.05:.2f}cm&step=8"


def starting(data: Path) -> None:
    """From the command to the first answer, and to the first redraft after it."""
    for words in ("with a fresh demo", "with the work of yesterday"):
        with served(data) as (house, took):
            line(f"start-up {words}, to the first answer", took, "s", None, "target 2 s")
            line("  the first redraft after it", fetch(house.connection(), redraft(199)), "ms", None, "target 100 ms")


def alone(house: House) -> float:
    """One maker; returns what an empty page takes, ms."""
    connection = house.connection()
    until = time.monotonic() + 180
    while b"being looked at" in read(connection, "/") and time.monotonic() < until:  # two thousand garments, once
        time.sleep(1.0)
    anchor = statistics.median(fetch(connection, "/empty") for _ in range(100))
    line("anchor, one maker, median", anchor, "ms", anchor)
    turns = [(fetch(connection, "/empty"), fetch(connection, redraft(200 + n))) for n in range(100)]  # both while it runs alike
    times = [took for _, took in turns]
    empty = statistics.median(took for took, _ in turns)
    line("redraft, one maker, median", statistics.median(times), "ms", empty, "target 15 x anchor")
    line("redraft, one maker, 95 of 100 within", p95(times), "ms", anchor, "target 100 ms")
    for path in PAGES:
        fetch(connection, path)
        empty = statistics.median(fetch(connection, "/empty") for _ in range(15))
        took = statistics.median(fetch(connection, path) for _ in range(15))
        before = PAGES_BEFORE.get(path)
        against = f"; {took / empty / before:.2f} x version 0.4.0" if before else ""
        line(f"page {path}, median", took, "ms", empty, TARGETS.get(path, "target 150 ms") + against)
    for path in FINDING:
        fetch(connection, path)
        empty = statistics.median(fetch(connection, "/empty") for _ in range(15))
        took = statistics.median(fetch(connection, path) for _ in range(15))
        line(f"500 wearers, 2000 garments: {path}, median", took, "ms", empty, "target 50 ms")
    for path in CROWD:
        fetch(connection, path)
        took = statistics.median(fetch(connection, path) for _ in range(5))
        line(f"500 wearers: {path}, median", took, "ms", anchor, "target 300 ms")
    return anchor
