"""Files of a docket that take a while: the sheets, the method card."""

from __future__ import annotations

from typing import Any

from widehem.core.output.refused import CannotWriteError
from widehem.core.output.sheets import PAPERS
from widehem.core.output.writers import WRITERS
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import METRIC, Display
from widehem.jobs.kinds import At, JobError, kind
from widehem.jobs.ledger import MOST_ENTRY
from widehem.store.clock import house_zone
from widehem.store.house_rows import Printer
from widehem.store.making import find_work
from widehem.store.papers import on_printer, order_of

FILE = "file"
STEPS = 3


def file_key(job: str) -> str:
    """Under what the file of a job is kept."""
    return f"file:{job}"


def file_name(docket: Any, writer: str, paper: str, scale: str) -> str:
    """How a file of a docket is called: wearer, garment, and what it is."""
    found = WRITERS[writer]
    words = (
        found.name
        if found.code != "pdf"
        else METRIC.words(PAPERS[paper].name) + ("" if scale == "1:1" else " " + scale.replace(":", "-"))
    )
    return f"{docket.wearer.name} {docket.name} {words}.{found.ending}"


@kind(FILE, urgent=10)
def write_file(at: At, wish: dict[str, Any]) -> dict[str, str]:
    """Write a file of a docket. wish: docket, writer, paper and scale by their codes, unit and fraction of the maker. Answers
    with
    what it is kept under, its name, and its kind."""
    at.step(0, STEPS)
    with at.store.read() as session:
        work, zone = find_work(session, wish["docket"]), house_zone(session)
        if work is None:
            raise JobError("This garment was deleted meanwhile.")
        _ = work.docket.wearer, work.docket.production
        printer = session.get(Printer, wish["printer"]) if wish.get("printer") else None
    try:
        made = work.made()
    except (OptionError, CannotDraft):
        raise JobError("This garment cannot be drawn as it is kept: open its draft, it says why.") from None
    at.step(1, STEPS)
    show = Display(wish["unit"], wish["fraction"])
    paper = on_printer(PAPERS[wish["paper"]], printer)
    order = order_of(work.docket, made, show, zone, paper, wish["scale"])
    at.step(2, STEPS)
    try:
        data = WRITERS[wish["writer"]].write(order)
    except CannotWriteError as error:
        raise JobError(str(error)) from None
    if len(data) > MOST_ENTRY:
        raise JobError(
            f"The file would have {len(data) // 1024 // 1024} MB, {MOST_ENTRY // 1024 // 1024} is the most: take a smaller scale."
        )
    at.ledger.keep(file_key(at.name), data)
    at.step(STEPS, STEPS)
    name = file_name(work.docket, wish["writer"], wish["paper"], wish["scale"])
    return {"key": file_key(at.name), "name": name, "mimetype": WRITERS[wish["writer"]].mimetype}
