"""Drafting, checks, drawing and paper, without a server."""

from __future__ import annotations

from shapely import Polygon

import widehem.core.drafting.methods  # noqa: F401 - registers the methods
from tests.bench.figures import best_ms, line, median_ms
from tests.bodies import UPPER, drafted, skirt_chart, upper_build
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

METHOD = METHODS["skirt.two_panel"]


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
