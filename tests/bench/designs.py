"""Replaying designs: a long recipe on one wearer, on a company, and changed at its end."""

from __future__ import annotations

from dataclasses import replace

from shapely import Polygon

import widehem.core.drafting.methods  # noqa: F401 - registers the methods
from tests.bench.figures import line, median_ms
from tests.bodies import UPPER, drafted, skirt_chart, upper_build
from widehem.core.design.files import Named
from widehem.core.design.make import Made, make
from widehem.core.design.sensitivity import looked_at
from widehem.core.design.ships import shipped
from widehem.core.drafting.method import METHODS
from widehem.core.output.svg_style import pieces_svg


def designs() -> None:
    outlines = [Polygon(piece.outline(0.01)) for piece in drafted(METHODS["skirt.two_panel"], skirt_chart()).garment.pieces]
    anchor = median_ms(lambda _: [outline.buffer(1.2) for outline in outlines])
    print("\ndesigns: replayed; the same anchor")
    line("anchor", anchor, "ms", anchor)
    for code, named in shipped().items():
        replayed(code, named, anchor)
    company(shipped()["waistcoat"], anchor)
    edited(shipped()["waistcoat"], anchor)


def _checked(made: Made) -> Made:
    _ = made.checks
    return made


def replayed(code: str, named: Named, anchor: float) -> None:
    """Cold: every run on a body of its own."""
    charts = [looked_at(named.design, upper_build("typical", waist=69 + n * 0.07)) for n in range(20)]
    took = median_ms(lambda n: _checked(make(named.design, charts[n])), 20)
    made = make(named.design, charts[0])
    pieces, steps = len(made.garment.pieces), len(named.design.steps)
    line(
        f"{code}: {steps} steps, {pieces} pieces, checks too", took, "ms", anchor, "target 60 ms" if code == "waistcoat" else ""
    )


def company(named: Named, anchor: float) -> None:
    """A contact sheet of twelve: drafted, checked and drawn small."""
    builds = [*UPPER, *list(UPPER)[:4]]

    def sheet(n: int) -> object:
        bodies = [looked_at(named.design, upper_build(build, hip=100 + n * 0.2 + i)) for i, build in enumerate(builds[:12])]
        return [pieces_svg(_checked(make(named.design, body)).garment.pieces) for body in bodies]

    line("a contact sheet of twelve", median_ms(sheet, 5), "ms", anchor, "target 1000 ms")


def edited(named: Named, anchor: float) -> None:
    """One step of the recipe with another amount, the rest as it was: first, in the middle and last."""
    chart = looked_at(named.design, upper_build("typical"))
    steps = named.design.steps
    for at in (0, len(steps) // 2, len(steps) - 1):
        option = next((o for o in steps[at].operation.options if o.kind == "length"), None)
        if option is None:
            continue
        written = steps[at].settings.get(option.code, option.default or 1.0)
        now = (option.low + option.high) / 4 if isinstance(written, str) else float(written)

        def change(n: int, at: int = at, code: str = option.code, now: float = now) -> Made:
            step = replace(steps[at], settings={**steps[at].settings, code: now + 0.01 * (n + 1)})
            return _checked(make(replace(named.design, steps=(*steps[:at], step, *steps[at + 1 :])), chart))

        line(f"step {at + 2} of it changed ({option.name.lower()})", median_ms(change, 20), "ms", anchor, "target 100 ms")
