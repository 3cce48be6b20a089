"""What can be handed over: one writer for each kind of file, in a registry that command line and pages share."""

from __future__ import annotations

import json
from collections.abc import Callable
from dataclasses import field

from widehem.core.design.make import Made
from widehem.core.marking.dummies import NoDummiesError, dummies
from widehem.core.marking.labels import Heading
from widehem.core.marking.made import Pattern, mark_up
from widehem.core.marking.wanted import Wanted
from widehem.core.output.json_draft import draft_as_json
from widehem.core.output.refused import CannotWriteError
from widehem.core.output.sheets import PAPERS, Paper
from widehem.core.output.svg_pattern import pattern_svg
from widehem.core.setting.registry import Registry
from widehem.core.units import METRIC, Display
from widehem.core.values import record


@record(frozen=True)
class Order:
    """What is to be written. scale: 1 is full size."""

    made: Made
    heading: Heading = field(default_factory=Heading)
    wanted: Wanted = field(default_factory=Wanted)
    paper: Paper = PAPERS["a4"]
    scale: float = 1.0
    show: Display = METRIC

    def pattern(self) -> Pattern:
        return mark_up(self.made, self.wanted, self.heading, self.show)


@record(frozen=True)
class Writer:
    """A kind of file. name: the words it adds to the name of the file; ending, mimetype: of the file."""

    code: str
    name: str
    ending: str
    mimetype: str
    write: Callable[[Order], bytes]


WRITERS: Registry[Writer] = Registry("writer")


def writer(code: str, name: str, ending: str, mimetype: str) -> Callable[[Callable[[Order], bytes]], Callable[[Order], bytes]]:
    """Register a writer by the function that writes."""

    def register(write: Callable[[Order], bytes]) -> Callable[[Order], bytes]:
        WRITERS.add(code, Writer(code, name, ending, mimetype, write))
        return write

    return register


@writer("json", "draft", "json", "application/json")
def write_json(order: Order) -> bytes:
    """Points, lengths, seams, checks and steps for other programs."""
    return (json.dumps(draft_as_json(order.made), indent=2, ensure_ascii=False) + "\n").encode()


@writer("svg", "drawing", "svg", "image/svg+xml")
def write_svg(order: Order) -> bytes:
    """The pattern as a drawing in true millimetres."""
    return (pattern_svg(order.pattern(), order.scale) + "\n").encode()


@writer("pdf", "sheets", "pdf", "application/pdf")
def write_pdf(order: Order) -> bytes:
    """The pattern on sheets, or on one big page."""
    from widehem.core.output.pdf_sheets import sheets_pdf

    return sheets_pdf(order.pattern(), order.paper, order.scale)


@writer("card", "method card", "pdf", "application/pdf")
def write_card(order: Order) -> bytes:
    """The method card with this wearer's figures."""
    from widehem.core.output.pdf_card import card_pdf

    paper = order.paper if order.paper.height else PAPERS["a4"]
    return card_pdf(order.made, order.heading, paper, Display(order.show.unit, 16))


@writer("dxf", "pattern", "dxf", "image/vnd.dxf")
def write_dxf(order: Order) -> bytes:
    """A block for each piece, a layer for each kind of line, millimetres."""
    from widehem.core.output.dxf import pattern_dxf  # heavy: it is loaded where it is needed

    return pattern_dxf(order.pattern(), order.scale)


@writer("plot", "plot", "plt", "application/vnd.hp-hpgl")
def write_plot(order: Order) -> bytes:
    """A plot file for the chosen roll; of 90 where the paper is no roll."""
    from widehem.core.output.hpgl import pattern_plot

    return pattern_plot(order.pattern(), order.paper if order.paper.roll else PAPERS["roll90"], order.scale).data


@writer("dummies", "paper dummies", "pdf", "application/pdf")
def write_dummies(order: Order) -> bytes:
    """Pockets, collars, lapels and other small parts without allowances, to be cut out of paper and pinned on."""
    from widehem.core.output.pdf_sheets import sheets_pdf

    try:
        pattern = dummies(order.made, order.heading, order.show)
    except NoDummiesError as error:
        raise CannotWriteError(str(error)) from None
    return sheets_pdf(pattern, order.paper, order.scale)
