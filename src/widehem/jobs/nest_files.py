"""The sizes of a design on paper and in files: one of them, all over each other, or each by itself."""

from __future__ import annotations

import io
import zipfile
from collections.abc import Mapping
from typing import Any

from widehem.core.design.make import Made
from widehem.core.grading.mix import Mix, MixError, mixed
from widehem.core.grading.nest import Nest, grade
from widehem.core.grading.views import Anchor
from widehem.core.marking.labels import Heading
from widehem.core.marking.plans import plan_named
from widehem.core.marking.wanted import Wanted
from widehem.core.output.nested import NEST_WRITERS, order_of_nest
from widehem.core.output.refused import CannotWriteError
from widehem.core.output.sheets import PAPERS, Paper, scale_named
from widehem.core.output.writers import WRITERS, Order
from widehem.core.setting.option import OptionError
from widehem.core.units import Display
from widehem.jobs.kinds import At, JobError, kind
from widehem.jobs.ledger import MOST_ENTRY
from widehem.jobs.papers import file_key
from widehem.store.charts import core_chart, latest_chart
from widehem.store.grading import grading_of
from widehem.store.house_rows import Printer
from widehem.store.models import Wearer
from widehem.store.papers import on_printer
from widehem.store.recipes import find_design

NEST = "nest"
ALL, APART, MIX = "all", "apart", "mix"
WRITTEN = {"pdf": "pdf", "dxf": "dxf", "svg": "svg", "json": "json", "plot": "plot"}


@kind(NEST, urgent=8)
def write_nest(at: At, wish: dict[str, Any]) -> dict[str, str]:
    """Write sizes of a design. wish: design, which ('all', 'apart', 'mix' or the name of a size), writer, paper, printer, scale, plan by their
    codes, unit and fraction of the maker, the spots it is laid by, and what is mixed. Answers as a single file does."""
    at.step(0, 3)
    with at.store.read() as session:
        row = find_design(session, wish["design"])
        if row is None:
            raise JobError("This design was put away meanwhile.")
        try:
            grading = grading_of(session, row)
        except OptionError as error:
            raise JobError(str(error)) from None
        name = row.name
        wearer = session.get(Wearer, wish["wearer"]) if wish.get("wearer") else None
        chart = core_chart(session, latest_chart(session, wearer.id)) if wearer is not None else None
        printer = session.get(Printer, wish["printer"]) if wish.get("printer") else None
    nest = grade(grading)
    at.step(1, 3)
    if not nest.sizes:
        raise JobError("No size of this design can be drawn.")
    paper, show = on_printer(PAPERS[wish["paper"]], printer), Display(wish["unit"], wish["fraction"])
    wanted, scale = Wanted.by(plan_named(wish["plan"])), wish["scale"]
    try:
        if wish["which"] == ALL:
            data, called, mimetype = _all(nest, wish, Heading(costume=name), wanted, paper, show)
        elif wish["which"] == APART:
            data, called, mimetype = _apart(at, nest, wish, name, wanted, paper, show)
        else:
            made, words = _one(nest, wish, chart)
            head = Heading(
                costume=name, wearer=wearer.name if wearer is not None and wish["which"] == MIX else "", version=words
            )
            writer = WRITERS[wish["writer"]]
            data = writer.write(Order(made, head, wanted, paper, scale_named(scale), show))
            called, mimetype = f"{words}.{writer.ending}", writer.mimetype
    except CannotWriteError as error:
        raise JobError(str(error)) from None
    if len(data) > MOST_ENTRY:
        raise JobError(
            f"The file would have {len(data) // 1024 // 1024} MB, {MOST_ENTRY // 1024 // 1024} is the most: take a smaller scale, or fewer sizes."
        )
    at.ledger.keep(file_key(at.name), data)
    at.step(3, 3)
    return {"key": file_key(at.name), "name": f"{name} {called}", "mimetype": mimetype}


def _all(
    nest: Nest, wish: Mapping[str, Any], head: Heading, wanted: Wanted, paper: Paper, show: Display
) -> tuple[bytes, str, str]:
    if nest.base not in nest.sizes:
        raise JobError("The base of this design cannot be drawn: print its sizes apart.")
    writer = NEST_WRITERS.get(wish["writer"])
    if writer is None:
        raise JobError("All sizes over each other go into PDF, DXF, SVG or JSON; a plot file holds one.")
    order = order_of_nest(
        nest, Anchor(wish.get("at", ""), wish.get("along", "")), head, wanted, paper, scale_named(wish["scale"]), show
    )
    return writer.write(order), f"nest.{writer.ending}", writer.mimetype


def _apart(
    at: At, nest: Nest, wish: Mapping[str, Any], name: str, wanted: Wanted, paper: Paper, show: Display
) -> tuple[bytes, str, str]:
    """Each size by itself, all in one ZIP."""
    whole, writer = io.BytesIO(), WRITERS[wish["writer"]]
    with zipfile.ZipFile(whole, "w", zipfile.ZIP_DEFLATED) as packed:
        for done, size in enumerate(sorted(nest.sizes)):
            at.step(done, len(nest.sizes))
            head = Heading(costume=name, version=f"size {nest.names[size]}")
            data = writer.write(Order(nest.sizes[size].made, head, wanted, paper, scale_named(wish["scale"]), show))
            packed.writestr(f"size {nest.names[size]}.{writer.ending}".replace("/", "-"), data)
    return whole.getvalue(), "sizes apart.zip", "application/zip"


def _one(nest: Nest, wish: Mapping[str, Any], chart: Any) -> tuple[Made, str]:
    """One size, or a mix of several, and what it is called."""
    if wish["which"] == MIX:
        asked = wish["mix"]
        try:
            done = mixed(
                nest, Mix(asked["school"], {k: float(v) for k, v in asked["stops"].items()}, float(asked["lengths"])), chart
            )
        except MixError as error:
            raise JobError(str(error)) from None
        return done.sized.made, "sizes mixed"
    if wish["which"] not in nest.names or nest.names.index(wish["which"]) not in nest.sizes:
        raise JobError(
            f"Size {wish['which']} cannot be drawn: {', '.join(nest.names[size] for size in sorted(nest.sizes))} can."
        )
    return nest.sizes[nest.names.index(wish["which"])].made, f"size {wish['which']}"
