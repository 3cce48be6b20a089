"""Grading and casts: a nest trued and checked, its page, a plan of who wears what, the patterns of forty to one ZIP."""

from __future__ import annotations

import random
import tempfile
import time
from dataclasses import replace
from datetime import date
from pathlib import Path

from shapely import Polygon

from tests.bench.figures import line, median_ms
from tests.bench.house import fetch, read, served
from tests.bench.paper import zipped
from tests.bodies import drafted, skirt_chart, upper_build
from tests.nests import grading
from widehem.core.body.chart import chart_of
from widehem.core.drafting.method import METHODS
from widehem.core.grading.cast import Person, plan, sizes_of_chart
from widehem.core.grading.house_charts import HOUSE
from widehem.core.grading.nest import DRAWN, REDRAWN, grade
from widehem.core.grading.size_chart import SizeChart
from widehem.core.units import TICKS_PER_CM
from widehem.demo.load import load_demo
from widehem.store.database import Store
from widehem.store.models import ChartRow, Production, ReadingRow, Wearer
from widehem.store.recipes import designs, hand_out

LOOKED_UP = ("bust", "waist", "hip")


def sizes() -> None:
    outlines = [Polygon(piece.outline(0.01)) for piece in drafted(METHODS["skirt.two_panel"], skirt_chart()).garment.pieces]
    anchor = median_ms(lambda _: [outline.buffer(1.2) for outline in outlines])
    print("\nsizes: a garment of 14 pieces in 12 sizes, each run on a chart of its own; the same anchor")
    line("anchor", anchor, "ms", anchor)
    for way in ("rules", "redraft", "proposed"):
        line(f"graded, trued, checked: {way}", median_ms(lambda n, way=way: _checked(n, way), 4), "ms", anchor, "target 350 ms")
    rng = random.Random(5)
    for many, figure, target in ((40, 15, 50), (80, 60, 500)):
        people = [_person(n, rng) for n in range(many)]
        halves = [_finer(figure, "curved")] if figure <= 30 else [_finer(figure // 2, code) for code in ("curved", "straight")]
        whole = tuple(size for chart in halves for size in sizes_of_chart(chart))
        plan(people[:3], whole[:3])  # the solver is loaded once
        took = median_ms(lambda _, who=people, what=whole: plan(who, what), 5)
        every = median_ms(lambda _, who=people, what=whole: plan(who, what).best, 3)
        line(f"the same with every smaller number of sizes, {many} x {len(whole)}", every, "ms", anchor)
        line(f"a cast of {many} x {len(whole)}", took, "ms", anchor, f"target {target} ms")
    _house(anchor)


def _checked(number: int, way: str) -> int:
    """A nest on a chart nobody graded before, with all its checks."""
    REDRAWN.clear()
    DRAWN.clear()
    asked = grading("waistcoat", "curved", way)
    rows = {code: tuple(value + number * 0.01 for value in row) for code, row in asked.chart.rows.items()}
    nest = grade(replace(asked, chart=replace(asked.chart, rows=rows)))
    return sum(len(one.checks) for one in nest.sizes.values())


def _finer(many: int, code: str) -> SizeChart:
    """A chart of the house in so many sizes over the same range."""
    chart = HOUSE[code]
    spots = [n * (len(chart) - 1) / (many - 1) for n in range(many)]
    rows = {
        code: tuple(row[int(at)] + (row[min(int(at) + 1, len(row) - 1)] - row[int(at)]) * (at % 1) for at in spots)
        for code, row in chart.rows.items()
    }
    names = tuple(str(n + 1) for n in range(many))
    return replace(chart, rows=rows, sizes=names, letters=("",) * many, base=many // 2)


def _person(number: int, rng: random.Random) -> Person:
    at = min(max(rng.gauss(5, 2.5), 0), 11)
    rows = HOUSE["curved"].rows
    values = {code: rows[code][int(at)] + rng.gauss(0, 2.0) for code in LOOKED_UP}
    return Person(number, f"Extra {number}", chart_of(values))


def _house(anchor: float) -> None:
    """The page of a nest, and the patterns of forty wearers, from a server."""
    with tempfile.TemporaryDirectory() as folder:
        data = Path(folder) / "data"
        store = Store(data)
        load_demo(store)
        crowd = _crowd(store)
        store.close()
        with served(data) as (house, _):
            ask = house.connection()
            addresses = [path for n in range(1, 40) if b"sizes" in read(ask, path := f"/designs/{n}")][-5:]
            first = [fetch(ask, f"{path}/sizes") for path in addresses]
            again = [fetch(ask, f"{path}/sizes") for path in addresses]
            line("the page of a nest, never graded before", sum(first) / len(first), "ms", anchor, "target 400 ms")
            line("the page of a nest again", sum(again) / len(again), "ms", anchor)
            began = time.perf_counter()
            zipped(ask, crowd)
            line("a cast of 40, 40 patterns, to one ZIP", time.perf_counter() - began, "s", None, "target 20 s")


def _crowd(store: Store) -> int:
    """A production of forty, each with the shirt of the demo on a body of their own."""
    with store.write() as session:
        row = next(row for row in designs(session) if row.name == "Deckhand's shirt")
        production = Production(name="The crew", company="")
        session.add(production)
        session.flush()
        people = []
        for n in range(40):
            wearer = Wearer(production_id=production.id, name=f"Hand {n:02}", role="crew")
            session.add(wearer)
            session.flush()
            chart = ChartRow(wearer_id=wearer.id, taken_on=date.today(), foundation="", shoes="", measured_by="")
            session.add(chart)
            session.flush()
            for code, value in upper_build("typical").values.items():
                ticks = round(value * (0.96 + n / 500) * TICKS_PER_CM)
                session.add(ReadingRow(chart_id=chart.id, measure=code, ticks=ticks, typed="", unit="cm"))
            people.append(wearer)
        hand_out(session, row, people, "Shirt")
        return int(production.id)
