"""The house as it is started, with one page more that is empty; its demo, and a large company beside it."""

from __future__ import annotations

import http.client
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import date, timedelta
from pathlib import Path

import widehem.core.drafting.methods  # noqa: F401 - registers them
from widehem.core.body.catalogue import CATALOGUE
from widehem.core.drafting.method import METHODS
from widehem.core.units import TICKS_PER_CM
from widehem.store.database import Store
from widehem.store.house import open_docket
from widehem.store.models import ChartRow, Production, ReadingRow, Wearer

SERVER = """
import sys
from pathlib import Path
import widehem.web.serve as serve
make = serve.create_app
def with_empty(*given):
    app = make(*given)
    app.add_url_rule("/empty", "empty", lambda: "")
    return app
serve.create_app = with_empty
serve.serve(Path(sys.argv[1]), "127.0.0.1", 0, 8, demo=True)
"""


@dataclass
class House:
    """A house that serves. process: that keeps it going."""

    process: int
    port: int

    def connection(self) -> http.client.HTTPConnection:
        return http.client.HTTPConnection("127.0.0.1", self.port, timeout=60)

    def family(self) -> list[int]:
        """All its processes."""
        found = [self.process]
        for process in found:
            found += map(int, Path(f"/proc/{process}/task/{process}/children").read_text().split())
        return found

    def memory(self) -> list[tuple[float, float]]:
        """Of each process what it has in memory, and what of it is its own share, MB."""
        return [(_memory(process, "Rss"), _memory(process, "Pss")) for process in self.family()]


def _memory(process: int, what: str) -> float:
    rows = Path(f"/proc/{process}/smaps_rollup").read_text().splitlines()
    return int(next(row for row in rows if row.startswith(f"{what}:")).split()[1]) / 1024


def fetch(connection: http.client.HTTPConnection, path: str, *also: int) -> float:
    """How long an answer takes, ms. also: other states than 200 it may have."""
    began = time.perf_counter()
    connection.request("GET", path, headers={"HX-Request": "true"})
    response = connection.getresponse()
    response.read()
    assert response.status in (200, *also), (path, response.status)
    return (time.perf_counter() - began) * 1000


def read(connection: http.client.HTTPConnection, path: str) -> bytes:
    """What an answer says."""
    connection.request("GET", path, headers={"HX-Request": "true"})
    return connection.getresponse().read()


@contextmanager
def served(data: Path) -> Iterator[tuple[House, float]]:
    """A house on this folder, and how long it took to its first answer, s."""
    began = time.perf_counter()
    server = subprocess.Popen([sys.executable, "-c", SERVER, str(data)], stdout=subprocess.PIPE, text=True)
    try:
        assert server.stdout is not None
        house = House(server.pid, int(server.stdout.readline().split(":")[2].split()[0]))
        fetch(house.connection(), "/empty")
        yield house, time.perf_counter() - began
    finally:
        server.terminate()
        server.wait()


GARMENTS = ("skirt", "petticoat", "apron", "overskirt")


def large_company(folder: Path) -> None:
    """A production of 500 wearers with five charts each, thirty readings on the newest and ten on the others, and four garments."""
    store = Store(folder)
    codes = list(CATALOGUE)[:30]
    with store.write() as session:
        production = Production(name="A crowd", company="")
        session.add(production)
        session.flush()
        for n in range(500):
            wearer = Wearer(production_id=production.id, name=f"Extra {n:03}", role="crowd")
            session.add(wearer)
            session.flush()
            for chart_number in range(5):
                day = date.today() - timedelta(days=90 * (4 - chart_number))
                chart = ChartRow(wearer_id=wearer.id, taken_on=day, foundation="", shoes="", measured_by="")
                session.add(chart)
                session.flush()
                for code in codes if chart_number == 4 else codes[:10]:
                    ticks = round(CATALOGUE[code].typical * (0.95 + n / 5000) * TICKS_PER_CM)
                    session.add(ReadingRow(chart_id=chart.id, measure=code, ticks=ticks, typed="", unit="cm"))
            for garment in GARMENTS:
                open_docket(session, wearer, f"{garment.capitalize()} of extra {n:03}", METHODS["skirt.two_panel"])
    store.close()
