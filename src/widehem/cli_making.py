"""The commands about making: the order of work of a design, and a lay of its cloth."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

from widehem.cli_fitting import named_or_method
from widehem.cli_house import FINE, REFUSED, UsageError, hand_over
from widehem.core.units import Display, Unit

Reads = Callable[[Path], tuple[Any, Unit]]
MOST_SECONDS = 600


def add_commands(commands: Any, read_chart: Reads) -> None:
    """`order` and `lay`."""
    order = commands.add_parser("order", help="the order of work of a design on a chart, every step with its reason")
    _of_design(order)
    order.add_argument("--cloth", default="suiting", metavar="CODE", help="what it is made of; --cloth list lists them")
    order.add_argument("--format", choices=("text", "json", "pdf"), default="text")
    order.set_defaults(run=lambda arguments: _order(arguments, read_chart))

    lay = commands.add_parser(
        "lay", help="lay the cloth for a design on one chart or several: length to buy, picture, plot file"
    )
    _of_design(lay, several=True)
    lay.add_argument("--material", default="cloth", metavar="NAME", help="as the pieces name it: cloth, lining, interfacing")
    lay.add_argument("--width", default="150", metavar="LENGTH", help="of the cloth, like 150 or 60in")
    lay.add_argument("--folded", action="store_true", help="lengthwise")
    lay.add_argument("--way", choices=("one", "either", "any"), default="either", help="which way pieces may lie")
    lay.add_argument("--gap", default="0.3", metavar="LENGTH")
    lay.add_argument("--selvedge", default="1", metavar="LENGTH", help="kept clear at each side")
    lay.add_argument("--shrinks", type=float, default=0.0, metavar="PERCENT")
    lay.add_argument("--across", default="0", metavar="LENGTH", help="repeat of its stripes, across the width")
    lay.add_argument("--along", default="0", metavar="LENGTH", help="repeat of its bars, along the length")
    lay.add_argument("--seconds", type=int, default=20, metavar="N", help="how long to look for a better one")
    lay.add_argument("--format", choices=("text", "json", "svg", "pdf", "plot"), default="text")
    lay.set_defaults(run=lambda arguments: _lay(arguments, read_chart))


def _of_design(parser: Any, *, several: bool = False) -> None:
    parser.add_argument("design", metavar="DESIGN", help="a design file, the name of one that ships, or a method")
    parser.add_argument("--chart", type=Path, required=True, metavar="FILE.json", nargs="+" if several else None)
    parser.add_argument("--allowance", default="cloth", metavar="PLAN", help="the plan of allowances")
    parser.add_argument("--out", type=Path, metavar="FILE")


def _made(design: Any, chart: Any, unit: Unit) -> Any:
    """The garment; None, with what is wrong on the error channel, where it cannot be drawn. Raises UsageError."""
    from widehem.core.design.make import make
    from widehem.core.setting.option import OptionError
    from widehem.core.setting.refusal import CannotDraft

    try:
        return make(design, chart)
    except OptionError as error:
        raise UsageError(str(error)) from None
    except CannotDraft as refusal:
        print(refusal.saying.text(Display(unit)), file=sys.stderr)
        return None


def _plan(code: str) -> Any:
    from widehem.core.marking.plans import PlanError, plan_named

    try:
        return plan_named(code)
    except PlanError as error:
        raise UsageError(f"--allowance: {error}") from None


def _order(arguments: argparse.Namespace, read_chart: Reads) -> int:
    from widehem.core.design.cautions import cautions
    from widehem.core.making.cloths import CLOTHS, HEADINGS, advice
    from widehem.core.making.plan import work_of
    from widehem.core.making.steps import steps_of
    from widehem.core.marking.wanted import Wanted
    from widehem.core.output.pdf_order import order_pdf
    from widehem.core.output.sheets import PAPERS

    if arguments.cloth not in CLOTHS:
        raise UsageError(f'--cloth: there is no cloth "{arguments.cloth}": there are {", ".join(CLOTHS)}.')
    title, design = named_or_method(arguments.design)
    plan = _plan(arguments.allowance)
    chart, unit = read_chart(arguments.chart)
    made, show = _made(design, chart, unit), Display(unit)
    if made is None:
        return REFUSED
    cloth = CLOTHS[arguments.cloth]
    steps = steps_of(work_of(made.garment), Wanted.by(plan), cloth)
    lines = [(HEADINGS[key], saying.text(show)) for key, saying in advice(cloth).items()]
    warned = [f"{c.about[:1].upper()}{c.about[1:]}: {c.saying.text(show)}" for c in cautions(made)]
    if arguments.format == "json":
        rows = [
            {
                "id": step.id, "kind": step.kind, "title": step.title, "because": step.because.text(show), "how": [how.text(show) for how in step.how],
                "pieces": list(step.pieces), "edges": [str(edge) for edge in step.edges], "after": list(step.first), "times": step.times,
                "minutes": step.minutes, "with_last": step.with_last,
            }
            for step in steps
        ]  # fmt: skip
        told = {"cloth": cloth.name, "by_the_cloth": dict(lines), "cautions": warned, "steps": rows}
        return hand_over((json.dumps(told, indent=1, ensure_ascii=False) + "\n").encode(), arguments.out)
    if arguments.format == "pdf":
        rows_of = [(step, False, step.minutes) for step in steps]
        return hand_over(
            order_pdf(f"Order of work: {title}", f"in {cloth.name.lower()}", rows_of, lines, warned, PAPERS["a4"], show),
            arguments.out,
        )
    text = [f"{title}, in {cloth.name.lower()}", *(f"{heading}: {words}" for heading, words in lines), *warned, ""]
    for number, step in enumerate(steps, 1):
        text += [
            f"{number:3} {step.title}{f', {step.times} times' if step.times > 1 else ''}",
            f"    {step.because.text(show)}",
        ]
        text += [f"    {how.text(show)}" for how in step.how]
    return hand_over(("\n".join(text) + "\n").encode(), arguments.out)


def _length(arguments: argparse.Namespace, name: str, unit: Unit) -> float:
    from widehem.core.units import LengthError, parse_length

    text = str(getattr(arguments, name))
    try:
        return 0.0 if text.strip() in ("0", "0.0") else parse_length(text, unit).cm
    except LengthError as error:
        raise UsageError(f"--{name}: {error}") from None


def _lay(arguments: argparse.Namespace, read_chart: Reads) -> int:
    from widehem.core.making.lay.cloth import LayError, OnTable
    from widehem.core.making.lay.cutouts import Cutout, cutouts, materials_of, too_wide
    from widehem.core.making.lay.kept import cutout_data, placed_data
    from widehem.core.making.lay.placed import Lay
    from widehem.core.making.lay.search import laying
    from widehem.core.marking.made import mark_up
    from widehem.core.output.pdf_lay import figures, lay_pdf
    from widehem.core.output.plot_lay import lay_plot
    from widehem.core.output.sheets import PAPERS
    from widehem.core.output.svg_lay import lay_picture

    if not 1 <= arguments.seconds <= MOST_SECONDS:
        raise UsageError(f"--seconds: {arguments.seconds} cannot be: 1 to {MOST_SECONDS}.")
    title, design = named_or_method(arguments.design)
    plan = _plan(arguments.allowance)
    shapes: list[Cutout] = []
    known: dict[str, None] = {}
    charts = [read_chart(file) for file in arguments.chart]
    unit = charts[0][1]
    show = Display(unit)
    try:
        table = OnTable(
            _length(arguments, "width", unit), arguments.folded, arguments.way, _length(arguments, "gap", unit), _length(arguments, "selvedge", unit),
            arguments.shrinks, _length(arguments, "across", unit), _length(arguments, "along", unit),
        )  # fmt: skip
    except LayError as error:
        raise UsageError(error.saying.text(show)) from None
    for file, (chart, _) in zip(arguments.chart, charts, strict=True):
        made = _made(design, chart, unit)
        if made is None:
            return REFUSED
        pattern = mark_up(made, plan, show=show)
        known.update(dict.fromkeys(materials_of(pattern)))
        shapes += cutouts(pattern, arguments.material, table, file.stem if len(charts) > 1 else "", len(shapes) + 1)
    if not shapes:
        raise UsageError(f'--material: nothing is cut from "{arguments.material}": there are {", ".join(known)}.')
    wide = too_wide(shapes, table)
    if wide:
        print("\n".join(saying.text(show) for saying in wide), file=sys.stderr)
        return REFUSED
    best: Lay | None = None
    for lay in laying(shapes, table, arguments.seconds):
        best = lay
    assert best is not None
    name = f"{title}, {arguments.material}"
    if arguments.format == "svg":
        data = lay_picture(best, show)
    elif arguments.format == "pdf":
        data = lay_pdf(name, "", [(arguments.material.capitalize(), best)], PAPERS["a4"], show)
    elif arguments.format == "plot":
        data = lay_plot(name, best, PAPERS["roll90"]).data
    elif arguments.format == "json":
        found = {
            "unit": "cm", "cloth": table.data, "length": round(best.length, 2), "to_buy": best.to_buy, "used": round(best.used, 4),
            "shapes": [cutout_data(shape) for shape in best.shapes], "placed": placed_data(best.placed), "left": list(best.left),
        }  # fmt: skip
        data = (json.dumps(found, indent=1, ensure_ascii=False) + "\n").encode()
    else:
        lines = [name, *figures(best, show), f"{len(best.placed)} pieces laid"]
        data = ("\n".join(lines) + "\n").encode()
    return hand_over(data, arguments.out) if best.placed else FINE
