"""The pattern of a docket and its sheets, as every view of the Cut station shows them."""

from __future__ import annotations

import json
from collections import OrderedDict
from dataclasses import astuple, dataclass
from typing import Any

from flask import request, url_for

from widehem.core.design.make import Made
from widehem.core.marking.made import Pattern, mark_up
from widehem.core.marking.wanted import Wanted
from widehem.core.output.arrange import Put, ring_of
from widehem.core.output.sheets import PAPERS, SCALES, Paper, PaperError, Sheets, puts_for, sheets_for
from widehem.core.units import Display
from widehem.jobs.keys import garment, key
from widehem.store.house_rows import Printer
from widehem.store.making import Work
from widehem.store.models import Docket
from widehem.store.papers import heading, on_printer, printers, wanted_of
from widehem.web.here import current_store, current_works, zone
from widehem.web.show import display

MOST_KEPT = 8  # patterns and sheets of the last garments that were looked at
PRINTER = "wh_printer"
_patterns: OrderedDict[str, Pattern] = OrderedDict()
_sheets: OrderedDict[str, Sheets] = OrderedDict()


@dataclass(frozen=True)
class Asked:
    """On what it is to be printed, as the address says it."""

    paper: Paper
    scale: str
    printer: Printer | None

    def cut(self, docket_id: int) -> str:
        """The address of the sheets of a garment on it."""
        scale = self.scale if self.scale != "1:1" else None
        return url_for("paper.cut", docket_id=docket_id, paper=self.paper.code, scale=scale)


def asked(docket: Docket) -> Asked:
    """Paper and scale of the address, or those that were kept; the printer this browser prints on."""
    paper, scale = request.args.get("paper", docket.paper), request.args.get("scale", "1:1")
    printer = {str(printer.id): printer for printer in known_printers()}.get(request.cookies.get(PRINTER, ""))
    sheet = PAPERS.get(paper, PAPERS["a4"])
    try:
        return Asked(on_printer(sheet, printer), scale if scale in SCALES else "1:1", printer)
    except PaperError:
        return Asked(sheet, scale if scale in SCALES else "1:1", None)


def known_printers() -> list[Printer]:
    """The printers of the workroom."""
    with current_store().read() as session:
        return printers(session)


@dataclass(frozen=True)
class Cut:
    """What is cut by a docket. name: under which it is kept for the next view."""

    work: Work
    made: Made
    wanted: Wanted
    pattern: Pattern
    name: str
    show: Display

    @property
    def docket(self) -> Docket:
        return self.work.docket

    def sheets(self, to: Asked) -> Sheets:
        """The pattern arranged on paper."""
        name = key("sheets", self.name, astuple(to.paper), to.scale)
        found: Sheets = _kept(_sheets, name, lambda: sheets_for(self.pattern, to.paper, SCALES[to.scale], self._puts(to)))
        return found

    def _puts(self, to: Asked) -> list[Put]:
        """Where the pieces go, as any process worked it out."""
        rings = [ring_of(marked.cut) for marked in self.pattern.pieces]
        name = key("puts", rings, astuple(to.paper), to.scale)
        ledger = current_works().ledger
        found = ledger.found([name]).get(name)
        if found is not None:
            return [Put(*entry) for entry in json.loads(found)]
        puts = puts_for(self.pattern, to.paper, SCALES[to.scale])
        ledger.keep(name, json.dumps([astuple(put) for put in puts]).encode())
        return puts


def cut_of(work: Work) -> Cut:
    """The pattern of a docket as it is kept. Raises OptionError, CannotDraft."""
    docket, show = work.docket, display()
    made, wanted = work.made(), wanted_of(docket)
    head = heading(docket, show, zone(), made.checks)
    name = key("pattern", garment(work), docket.plan, docket.amounts, docket.marking, docket.house, head, show)
    return Cut(work, made, wanted, _kept(_patterns, name, lambda: mark_up(made, wanted, head, show)), name, show)


def _kept(there: OrderedDict[str, Any], name: str, work: Any) -> Any:
    if name in there:
        there.move_to_end(name)
        return there[name]
    found = there[name] = work()
    while len(there) > MOST_KEPT:
        there.popitem(last=False)
    return found
