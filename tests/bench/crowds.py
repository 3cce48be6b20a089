"""Many makers at once: each asks again after thinking for a moment; some of them for what is heavy."""

from __future__ import annotations

import http.client
import itertools
import random
import re
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field

from tests.bench.figures import line, p95
from tests.bench.house import House, fetch
from tests.bench.web import redraft

numbers = itertools.count(1000)  # no answer repeats another
bodies = itertools.count(14)  # wearers of the large company, each with a body of its own
MIX = (  # what makers ask for, by weight
    (60, "redraft", lambda n: redraft(n)),
    (12, "page", lambda n: f"/wearers/{1 + n % 12}/measure?list=full"),
    (8, "page", lambda n: f"/wearers/{1 + n % 12}/tape?list=full"),
    (5, "page", lambda n: "/productions/1"),
    (10, "cut", lambda n: f"/dockets/{(1, 8, 13, 19)[n % 4]}/cut"),
    (5, "pdf", lambda n: f"/dockets/{(1, 8, 13, 19)[n % 4]}/files/sheets.pdf"),
)  # fmt: skip


@dataclass
class Crowd:
    """What makers met: how long each kind of answer took, ms, and what went wrong."""

    times: dict[str, list[float]] = field(default_factory=dict)
    wrong: list[str] = field(default_factory=list)

    def note(self, kind: str, took: float) -> None:
        self.times.setdefault(kind, []).append(took)


Maker = Callable[[Crowd, http.client.HTTPConnection, random.Random], None]


def redrafts(crowd: Crowd, connection: http.client.HTTPConnection, _chance: random.Random) -> None:
    crowd.note("redraft", fetch(connection, redraft(next(numbers))))


def empties(crowd: Crowd, connection: http.client.HTTPConnection, _chance: random.Random) -> None:
    crowd.note("empty", fetch(connection, "/empty"))


def mixed(crowd: Crowd, connection: http.client.HTTPConnection, chance: random.Random) -> None:
    _, kind, path = chance.choices(MIX, [weight for weight, *_ in MIX])[0]
    crowd.note(kind, fetch(connection, path(next(numbers)), 303))


def heavy(crowd: Crowd, connection: http.client.HTTPConnection, _chance: random.Random) -> None:
    """Every method drawn for a body nobody has seen, until the last of them is there."""
    began = time.perf_counter()
    path = f"/wearers/{next(bodies)}/schools"
    while path:
        connection.request("GET", path)
        words = connection.getresponse().read().decode()
        found = re.search(r'hx-get="(/wearers/\d+/schools/coming[^"]*)"', re.sub(r"\s+", "", words))
        path = found[1].replace("&amp;", "&") if found else ""
        time.sleep(0.5 if path else 0)
    crowd.note("gallery", (time.perf_counter() - began) * 1000)


def gather(house: House, makers: list[Maker], seconds: float, think: float = 1.0) -> Crowd:
    """Let so many makers work for so long, each thinking for about so many seconds between."""
    crowd, until = Crowd(), time.monotonic() + seconds

    def work(number: int, maker: Maker) -> None:
        connection, chance = house.connection(), random.Random(number)
        time.sleep(chance.uniform(0, max(think, 0.01)))
        while time.monotonic() < until:
            try:
                maker(crowd, connection, chance)
            except Exception as error:
                crowd.wrong.append(repr(error))
                connection = house.connection()
            time.sleep(think * chance.uniform(0.5, 1.5))
        connection.close()

    threads = [threading.Thread(target=work, args=(number, maker)) for number, maker in enumerate(makers)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return crowd


def crowds(house: House, anchor: float) -> None:
    """The crowds of a house, and the figures they shall meet."""
    gather(house, [redrafts] * 10, 2, 0)
    for words, makers, seconds, target in (
        ("ten makers", [redrafts] * 10, 15, "target 80 ms"),
        ("ten makers, one on the heaviest", [*[redrafts] * 9, heavy], 15, "target 120 ms"),
        ("ten makers, a dozen on the heaviest", [*[redrafts] * 10, *[heavy] * 12], 20, "target 300 ms"),
        ("fifty makers, all kinds", [mixed] * 50, 20, "target 500 ms, none wrong"),
    ):
        empty = p95(gather(house, [empties] * 10, 4).times["empty"])
        crowd = gather(house, makers, seconds)
        print(f"{words}, a second between: an empty page with ten, p95 {empty:.2f} ms")
        for kind, times in sorted(crowd.times.items()):
            if kind == "gallery":
                line(f"  {kind}, {len(times)} times, median", sorted(times)[len(times) // 2] / 1000, "s")
            else:
                line(f"  {kind}, {len(times)} times, p95", p95(times), "ms", anchor, target if kind == "redraft" else "")
        print(f"  went wrong: {len(crowd.wrong)} {crowd.wrong[:2] if crowd.wrong else ''}")
