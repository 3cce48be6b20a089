"""From a garment to paper and to other machines: marking, arranging, writing; a cast to one ZIP while others work."""

from __future__ import annotations

import statistics
import tempfile
import threading
import time
from pathlib import Path

from shapely import Polygon

import widehem.core.drafting.methods  # noqa: F401 - registers the methods
from tests.bench.figures import line, median_ms, p95
from tests.bodies import drafted, skirt_chart, upper_build
from widehem.core.design.make import Made, make
from widehem.core.design.ships import shipped
from widehem.core.drafting.method import METHODS
from widehem.core.marking.made import mark_up
from widehem.core.marking.plans import PLANS
from widehem.core.output import arrange
from widehem.core.output.dxf import pattern_dxf
from widehem.core.output.hpgl import pattern_plot
from widehem.core.output.outlines_in import Found
from widehem.core.output.pdf_sheets import sheets_pdf
from widehem.core.output.sheets import PAPERS, arranged, puts_for, sheets_for
from widehem.core.output.svg_in import read_svg
from widehem.core.output.svg_pattern import pattern_svg


def paper() -> None:
    outlines = [Polygon(piece.outline(0.01)) for piece in drafted(METHODS["skirt.two_panel"], skirt_chart()).garment.pieces]
    anchor = median_ms(lambda _: [outline.buffer(1.2) for outline in outlines])
    print("\npaper: a garment of 14 pieces, each run on a body of its own; the same anchor")
    line("anchor", anchor, "ms", anchor)
    design = shipped()["waistcoat"].design
    made = [make(design, upper_build("typical", waist=69 + n * 0.05)) for n in range(14)]
    cold = lambda one: mark_up(one, PLANS["cloth"])  # noqa: E731
    line("marked", median_ms(lambda n: cold(made[n % 14]), 12), "ms", anchor, "target 200 ms")
    patterns = [cold(one) for one in made]
    line("arranged on A4", median_ms(lambda n: _anew(lambda: puts_for(patterns[n % 14], PAPERS["a4"])), 10), "ms", anchor)
    line(
        "tiled PDF, arranged and marked before",
        median_ms(lambda n: sheets_pdf(patterns[n % 14], PAPERS["a4"]), 10),
        "ms",
        anchor,
    )
    whole = median_ms(lambda n: _anew(lambda: sheets_pdf(cold(made[n % 14]), PAPERS["a4"])), 8)
    line("tiled PDF, from the garment, all of it", whole, "ms", anchor, "target 600 ms")
    layouts = [arranged(pattern, PAPERS["one"]) for pattern in patterns]
    pattern_dxf(patterns[0])  # what it is written by is loaded once
    line("DXF", median_ms(lambda n: pattern_dxf(patterns[n % 14]), 8), "ms", anchor, "target 500 ms")
    line("plot file", median_ms(lambda n: pattern_plot(patterns[n % 14], PAPERS["roll90"]), 8), "ms", anchor)
    drawing = pattern_svg(patterns[0]).encode()
    line("an SVG read in again", median_ms(lambda _: _read(drawing), 5), "ms", anchor)
    sheets = [len(sheets_for(patterns[0], PAPERS[code]).printed) for code in ("a4", "a3", "letter")]
    print(f"    sheets of A4, A3, Letter: {sheets}; {len(layouts)} layouts")
    cast(made[0], anchor)


def _anew(work: object) -> object:
    """With nothing arranged that was arranged before."""
    arrange._lay.cache_clear()
    arrange._shape.cache_clear()
    return work()  # type: ignore[operator]


def _read(data: bytes) -> Found:
    return read_svg(data)


def cast(made: Made, anchor: float) -> None:
    """Every pattern of the demo in one ZIP, by two processes, while somebody redraws."""
    from tests.bench.house import served
    from widehem.demo.load import load_demo
    from widehem.store.database import Store

    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "data"
        store = Store(data)
        load_demo(store)
        store.close()
        with served(data) as (house, _):
            alone = _redrafts(house, 40)
            job, times, stop = house.connection(), list[float](), threading.Event()
            threading.Thread(target=lambda: times.extend(_until(house, stop)), daemon=True).start()
            began = time.perf_counter()
            zipped(job, 1)
            took = time.perf_counter() - began
            stop.set()
            time.sleep(0.3)
    line("a cast of 12, 26 patterns, to one ZIP", took, "s", None, "target 12 s")
    line(
        "a redraft meanwhile, 95 of 100",
        p95(times),
        "ms",
        anchor,
        f"target 100 ms; alone {p95(alone):.0f}, median {statistics.median(times):.0f}",
    )


def _redrafts(house: object, count: int) -> list[float]:
    from tests.bench.house import fetch
    from tests.bench.web import redraft

    connection, times = house.connection(), list[float]()  # type: ignore[attr-defined]
    for n in range(count):
        began = time.perf_counter()
        fetch(connection, redraft(n + 5000))
        times.append((time.perf_counter() - began) * 1000)
    return times


def _until(house: object, stop: threading.Event) -> list[float]:
    times: list[float] = []
    n = 0
    from tests.bench.house import fetch
    from tests.bench.web import redraft

    connection = house.connection()  # type: ignore[attr-defined]
    while not stop.is_set():
        began = time.perf_counter()
        fetch(connection, redraft(9000 + n))
        times.append((time.perf_counter() - began) * 1000)
        n += 1
        time.sleep(0.05)
    return times


def zipped(connection: object, production: int) -> None:
    """Ask for the ZIP of a production as its page does, and wait until it is there."""
    import re
    from urllib.parse import urlencode

    def ask(method: str, path: str, body: str = "", headers: dict[str, str] | None = None) -> tuple[int, dict[str, str], bytes]:
        connection.request(method, path, body or None, headers or {})  # type: ignore[attr-defined]
        answer = connection.getresponse()  # type: ignore[attr-defined]
        return answer.status, dict(answer.getheaders()), answer.read()

    _, headers, page = ask("GET", f"/productions/{production}/materials")
    token = re.search(rb'name="csrf_token" value="([^"]+)"', page)
    cookie = headers.get("Set-Cookie", "").split(";")[0]
    form = urlencode({"csrf_token": token[1].decode() if token else "", "kind": "pdf"})
    kept = {"Content-Type": "application/x-www-form-urlencoded", "Cookie": cookie}
    status, headers, _ = ask("POST", f"/productions/{production}/files", form, kept)
    where = headers["Location"].split("?")[0]
    assert status == 303, status
    while True:
        status, _, _ = ask("GET", f"{where}/file", headers={"Cookie": cookie})
        if status == 200:
            return
        time.sleep(0.1)
