"""Speed as ratios to an anchor measured in the same run: `make bench`.

Machines are shared and noisy; the ratios are what to compare from one day to the next. Nothing here fails.
"""

from __future__ import annotations

import http.client
import os
import random
import statistics
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable
from datetime import date, timedelta
from pathlib import Path

from shapely import Polygon

import widehem.core.drafting.methods  # noqa: F401 - registers the methods
from tests.bodies import UPPER, drafted, skirt_chart, upper_build
from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.design.make import Made
from widehem.core.drafting.cap import Armhole
from widehem.core.drafting.method import METHODS, Method, armhole_of
from widehem.core.geometry.paths import Path as Way
from widehem.core.marking.made import mark_up
from widehem.core.marking.plans import PLANS
from widehem.core.output.pdf_sheets import sheets_pdf
from widehem.core.output.sheets import PAPERS
from widehem.core.output.svg_board import board_svg
from widehem.core.pattern.cutting import part_piece
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.ring import Spot, cut_at, opened
from widehem.core.style.operation import OPERATIONS, Context, run
from widehem.core.style.where import Where
from widehem.core.units import TICKS_PER_CM
from widehem.store.database import Store
from widehem.store.models import ChartRow, Production, ReadingRow, Wearer
from widehem.web.serve import settle_down

METHOD = METHODS["skirt.two_panel"]
PEOPLE, ROUNDS = 10, 12


def median_ms(work: Callable[[int], object], rounds: int = 60) -> float:
    """The median of many single runs, ms; work gets a number so that no run repeats another."""
    times = []
    for n in range(rounds):
        began = time.perf_counter()
        work(n)
        times.append((time.perf_counter() - began) * 1000)
    return statistics.median(times)


def best_ms(work: Callable[[int], object], rounds: int = 60) -> float:
    """The best of many single runs, ms: what the work takes when nothing else is in the way."""
    times = []
    for n in range(rounds):
        began = time.perf_counter()
        work(n)
        times.append((time.perf_counter() - began) * 1000)
    return min(times)


def line(name: str, figure: float, unit: str, anchor: float | None = None, target: str = "") -> None:
    ratio = f"{figure / anchor:9.2f} x anchor" if anchor else " " * 18
    print(f"{name:52}{figure:9.2f} {unit:3}{ratio}   {target}")


def core() -> None:
    print("core: the two-panel skirt; anchor: one shapely buffer of the same outlines")
    outlines = [Polygon(piece.outline(0.01)) for piece in drafted(METHOD, skirt_chart()).garment.pieces]
    anchor = median_ms(lambda _: [outline.buffer(1.2) for outline in outlines])
    line("anchor", anchor, "ms", anchor)
    line("a thousand squares added up in Python", median_ms(lambda _: sum(i * i for i in range(1000))), "ms", anchor)

    def checked(n: int) -> Made:
        made = drafted(METHOD, charts[n])
        _ = made.checks
        return made

    for build in ("typical", "hourglass", "round"):
        charts = [skirt_chart(build, hip=(94 if build == "typical" else 104) + n * 0.01) for n in range(140)]
        made = median_ms(lambda n, charts=charts: _checks(drafted(METHOD, charts[n])))
        line(f"draft and checks, {build}", made, "ms", anchor, "target 5 ms")
    charts = [skirt_chart(waist=69 + n * 0.01) for n in range(140)]
    drawn = median_ms(lambda n: board_svg(made := checked(n + 70), len(made.steps)))
    line("draft, checks and board as SVG", drawn, "ms", anchor, "target 10 ms")
    made = drafted(METHOD, skirt_chart())
    line("pattern with allowances and marks", median_ms(lambda _: mark_up(made, PLANS["cloth"]), 20), "ms", anchor)
    pattern = mark_up(made, PLANS["cloth"])
    line("tiled PDF of a pattern, A4", median_ms(lambda _: sheets_pdf(pattern, PAPERS["a4"]), 10), "ms", anchor)
    whole = median_ms(lambda _: sheets_pdf(mark_up(made, PLANS["cloth"]), PAPERS["a4"]), 10)
    line("tiled PDF, from the garment", whole, "ms", anchor, "target 500 ms")
    pieces(anchor)
    every_method(outlines)
    upper(anchor)


def pieces(anchor: float) -> None:
    """What every operation is made of, on the front of a bodice."""
    made = drafted(METHODS["bodice.measured"], upper_build("typical"))
    front, context = made.garment.piece("front"), Context(made.chart)
    side = front.edge("side").length
    split = median_ms(lambda n: cut_at(opened(front), Spot("side", side * (0.3 + n * 0.005))))
    line("an outline split", split, "ms", anchor, "target 1 ms")

    centre = front.edge("centre_front")

    def part(n: int) -> object:
        start, end = Spot("side", side * (0.3 + n * 0.005)), Spot("centre_front", centre.length / 2)
        way = Way.through(front.edge("side").place(start.along).point, centre.place(end.along).point)
        return part_piece(front, start, end, (way, way), Edge("cut", (way,)), "front_2", "centre_front")

    line("a piece cut in two", median_ms(part), "ms", anchor, "target 1 ms")

    def cut(n: int) -> object:
        ends = Where("front", "side", "part", 0.3 + n * 0.005), Where("front", "centre_front", "part", 0.5)
        return run(OPERATIONS["line.cut"], made.garment, context, None, dict(zip(("start", "end"), ends, strict=True)))

    line("a piece cut in two, found and sewn", median_ms(cut), "ms", anchor)

    def turn(n: int) -> object:
        places = {
            "dart": Where("front", "shoulder", "dart", "bust_dart"),
            "to": Where("front", "side", "part", 0.3 + n * 0.005),
        }
        return run(OPERATIONS["dart.swing"], made.garment, context, None, places)

    line("a dart turned to another edge", median_ms(turn), "ms", anchor, "target 1 ms")


# what version 0.4.0 took, as ratios to the anchor: the best of sixty runs on a typical, a full and a child's body
BEFORE = {
    "skirt.two_panel": (32, 32, 32),
    "bodice.plain": (30, 34, 30),
    "bodice.measured": (56, 55, 38),
    "bodice.proportional": (62, 62, 46),
    "bodice.cup_wedge": (55, 56, 35),
    "bodice.contour": (41, 39, 38),
    "sleeve.guide_box": (26, 26, 26),
    "sleeve.triangle": (25, 26, 26),
    "sleeve.pivot": (15, 17, 17),
    "sleeve.s_head": (26, 64, 25),
    "trousers.frame": (70, 66, 52),
    "trousers.crease": (65, 66, 49),
    "top.jersey": (30, 27, 27),
    "gown.seam_shaped": (66, 65, 64),
    "coat.straight": (50, 53, 50),
    "suit.one_piece": (138, 144, 102),
}


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


def every_method(outlines: list[Polygon]) -> None:
    """Each method alone, on three bodies: drafted and checked."""
    print("\nevery method, drafted and checked: a typical, a full and a child's body; the best of twenty, of the anchor too")
    charts = {
        build: [upper_build(build, waist=UPPER[build][1]["waist"] + n * 0.1) for n in range(20)]
        for build in ("typical", "full", "child")
    }

    def anchor(_: int) -> object:
        return [outline.buffer(1.2) for outline in outlines]

    for code, method in METHODS.items():
        for build, bodies in charts.items():
            holes = (
                [armhole_of(drafted(METHODS[method.made_for], body).garment) for body in bodies]
                if method.for_armhole
                else [None] * len(bodies)
            )

            def one(
                n: int, bodies: list[Chart] = bodies, holes: list[Armhole | None] = holes, method: Method = method
            ) -> object:
                return _checks(drafted(method, bodies[n], armhole=holes[n]))

            rounds = [(best_ms(anchor, 20), best_ms(one, 5)) for _ in range(6)]  # both while the machine runs alike
            quiet, figure = min(rounds, key=lambda pair: pair[1])
            before = BEFORE[code][list(charts).index(build)]
            against = f"{figure / quiet / before:.2f} x version 0.4.0"
            line(f"{code}, {build}", figure, "ms", quiet, f"target 25 ms; {against}")


def upper(anchor: float) -> None:
    """Every bodice alone, and with its sleeve: drafted and checked."""
    charts = [upper_build("typical", waist=69 + n * 0.1) for n in range(40)]
    for code, method in METHODS.items():
        if method.group != "Bodices" or not method.has_armhole:
            continue
        alone = median_ms(lambda n, method=method: _checks(drafted(method, charts[n])), 20)
        line(f"draft and checks, {code}", alone, "ms", anchor)
        for name in ("sleeve.guide_box", "sleeve.triangle"):
            sleeve = METHODS[name]

            def both(n: int, method: Method = method, sleeve: Method = sleeve) -> object:
                made = drafted(method, charts[n])
                return _checks(made), _checks(drafted(sleeve, charts[n], armhole=armhole_of(made.garment)))

            line(f"  with {name}", median_ms(both, 20), "ms", anchor, "target 20 ms")


def _checks(made: Made) -> object:
    return made.checks


def fetch(connection: http.client.HTTPConnection, path: str) -> float:
    began = time.perf_counter()
    connection.request("GET", path, headers={"HX-Request": "true"})
    response = connection.getresponse()
    response.read()
    assert response.status == 200, (path, response.status)
    return (time.perf_counter() - began) * 1000


def p95(times: list[float]) -> float:
    return sorted(times)[max(0, round(len(times) * 0.95) - 1)]


def crowd(port: int, path: Callable[[int], str], think: float) -> list[float]:
    """Ten people at once, each asking again after thinking about this many seconds."""
    times: list[float] = []

    def person(number: int) -> None:
        connection = http.client.HTTPConnection("127.0.0.1", port)
        chance = random.Random(number)
        for n in range(ROUNDS):
            time.sleep(think * chance.uniform(0.5, 1.5))
            times.append(fetch(connection, path(number * ROUNDS + n)))
        connection.close()

    threads = [threading.Thread(target=person, args=(number,)) for number in range(PEOPLE)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return times


SERVER = """
import sys, threading
from pathlib import Path
import widehem.web.serve as serve
make = serve.create_app
def with_empty(store):
    app = make(store)
    app.add_url_rule("/empty", "empty", lambda: "")
    return app
serve.create_app = with_empty
serve.serve(Path(sys.argv[1]), "127.0.0.1", 0, 10, demo=True)
"""


def large_company(folder: Path) -> None:
    """A production of 500 wearers with five charts each, thirty readings on the newest and ten on the others."""
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
    store.close()


def web() -> None:
    print("\nweb: anchor: an empty page of the same server")
    with tempfile.TemporaryDirectory() as folder:
        began = time.perf_counter()
        server = subprocess.Popen([sys.executable, "-c", SERVER, str(Path(folder) / "data")], stdout=subprocess.PIPE, text=True)
        try:
            assert server.stdout is not None
            port = int(server.stdout.readline().split(":")[2].split()[0])
            connection = http.client.HTTPConnection("127.0.0.1", port, timeout=60)
            fetch(connection, "/empty")
            line("start-up with a fresh demo, to the first answer", time.perf_counter() - began, "s", None, "target 2 s")
            anchor = statistics.median(fetch(connection, "/empty") for _ in range(100))
            line("anchor, one person, median", anchor, "ms", anchor)

            def redraft(n: int) -> str:
                return f"/dockets/1/draft?m.waist={70 + n * 0.05:.2f}cm&step=8"

            large_company(Path(folder) / "data")
            alone = [fetch(connection, redraft(200 + n)) for n in range(60)]
            line("redraft, one person, median", statistics.median(alone), "ms", anchor)
            line("redraft, one person, 95 of 100 within", p95(alone), "ms", anchor, "target 100 ms")
            for path in (
                "/",
                "/productions/1",
                "/wearers/1/measure",
                "/wearers/1/measure?list=all",
                "/wearers/1/tape?list=full",
                "/wearers/1/sheet?list=full",
                "/wearers/1/charts",
                "/dockets/1/draft",
                "/dockets/1/cut",
                "/dockets/8/draft",
                "/dockets/8/compare",
                "/dockets/8/walk?at=20",
                "/wearers/8/schools",
                "/dockets/13/draft",
                "/dockets/13/cut",
                "/dockets/17/draft",
                "/dockets/19/draft",
                "/dockets/19/draft?view=folded",
                "/dockets/19/cut",
            ):
                empty = statistics.median(fetch(connection, "/empty") for _ in range(15))
                took = statistics.median(fetch(connection, path) for _ in range(15))
                before = PAGES_BEFORE.get(path)
                against = f"; {took / empty / before:.2f} x version 0.4.0" if before else ""
                line(f"page {path}, median", took, "ms", empty, f"target 150 ms{against}")
            for path in (
                "/productions/2",
                "/productions/2/company",
                "/productions/2?find=extra+12",
                "/productions/2/company?find=extra+12",
            ):
                words = f"500 wearers: {path}"
                fetch(connection, path)
                line(
                    f"{words}, median",
                    statistics.median(fetch(connection, path) for _ in range(5)),
                    "ms",
                    anchor,
                    "target 300 ms",
                )
            crowd(port, redraft, 0)
            for words, think in (("each about every second", 1.0), ("each without a pause", 0.0)):
                empty = p95(crowd(port, lambda _n: "/empty", think))
                busy = crowd(port, lambda n, think=think: redraft(400 + n + int(think) * 200), think)
                line(f"empty page, ten people {words}, p95", empty, "ms", anchor)
                line(f"redraft, ten people {words}, p95", p95(busy), "ms", empty, "target 100 ms")
            fetch(connection, "/dockets/1/files/sheets.pdf")
            fetch(connection, "/dockets/1/files/card.pdf")
            status = Path(f"/proc/{server.pid}/status")
            if status.exists():
                resident = next(row for row in status.read_text().splitlines() if row.startswith("VmRSS"))
                line("resident memory after all this", int(resident.split()[1]) / 1024, "MB", None, "target 150 MB")
            connection.close()
        finally:
            server.terminate()
            server.wait()


if __name__ == "__main__":
    print(f"Python {sys.version.split()[0]}, {os.cpu_count()} processors\n")
    settle_down()  # as the server does
    core()
    web()
