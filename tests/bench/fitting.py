"""Fitting: one alteration with its picture, eight of them done again with the draft and its checks, the pages of the station."""

from __future__ import annotations

import tempfile
from pathlib import Path

from shapely import Polygon

from tests.bench.figures import line, median_ms
from tests.bench.house import fetch, served
from tests.bodies import drafted, skirt_chart, upper_build
from widehem.core.design.design import Step, method_design
from widehem.core.design.make import armhole_in, make
from widehem.core.drafting.method import METHODS
from widehem.core.fitting.around import around
from widehem.core.fitting.candidates import candidates, figures
from widehem.core.fitting.stand import stand_test
from widehem.core.output.svg_style import over_each_other, over_svg
from widehem.demo.load import load_demo
from widehem.store.database import Store

EIGHT = (
    ("alter.across", {"by": 1.2}), ("alter.slope", {"by": -0.6}), ("alter.shoulder", {"by": 0.4}), ("alter.underarm", {"by": 0.5}),
    ("alter.side", {"by": 2.0, "level": "waist"}), ("alter.length", {"by": -0.8}), ("alter.bust", {"by": 0.6}),
    ("alter.gape", {"by": 0.4, "edge": "armhole"}),
)  # fmt: skip


def fitting() -> None:
    outlines = [Polygon(piece.outline(0.01)) for piece in drafted(METHODS["skirt.two_panel"], skirt_chart()).garment.pieces]
    anchor = median_ms(lambda _: [outline.buffer(1.2) for outline in outlines])
    print("\nfitting: the same anchor")
    line("anchor", anchor, "ms", anchor)
    design, chart = method_design(METHODS["bodice.measured"]), upper_build("typical")
    before = make(design, chart)

    def preview(number: int) -> str:
        after = make(design, chart, (Step("one", "alter.across", {"by": 1.0 + number * 1e-3}),))
        lay = over_each_other(before.garment, after.garment)
        was, now = ([p.moved(lay[p.name]) for p in of.garment.pieces if p.name in lay] for of in (before, after))
        return over_svg(was, now) + str(len(after.checks))

    line("one alteration, its checks and its picture", median_ms(preview, 20), "ms", anchor, "target 60 ms")

    def eight(number: int) -> int:
        steps = tuple(
            Step(str(n), code, {**chosen, "by": float(chosen["by"]) + number * 1e-3}) for n, (code, chosen) in enumerate(EIGHT)
        )
        made = make(design, chart, steps)
        sleeve = make(method_design(METHODS["sleeve.guide_box"]), chart, armhole=armhole_in(made))
        return len(made.checks) + len(sleeve.checks)

    line("eight done again with draft, sleeve and checks", median_ms(eight, 10), "ms", anchor, "target 180 ms")
    line("stand test", median_ms(lambda _: stand_test(before, design), 10), "ms", anchor)
    line("room round the body", median_ms(lambda _: around(before), 10), "ms", anchor)
    known = figures(chart, stand_test(before, design))
    line("what may be behind a sign", median_ms(lambda _: candidates("cannot_reach", 1.2, known), 10), "ms", anchor)
    with tempfile.TemporaryDirectory() as folder:
        store = Store(Path(folder) / "data")
        load_demo(store)
        store.close()
        with served(Path(folder) / "data") as (house, _):
            ask = house.connection()
            fetch(ask, "/dockets/8/fit")
            shown = [fetch(ask, f"/dockets/8/fit?do=alter.across&s.by={1 + n / 50}+cm") for n in range(20)]
            line("the page of an alteration that is tried", sorted(shown)[10], "ms", anchor, "target 150 ms")
            rounds = [fetch(ask, "/fit/rounds/1") for _ in range(10)]
            line("the page of a fitting", sorted(rounds)[5], "ms", anchor, "target 150 ms")
