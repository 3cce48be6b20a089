"""Sending a garment to a plotter, as fast as it takes it."""

from __future__ import annotations

import socket
from typing import Any

from widehem.core.output.hpgl import pattern_plot
from widehem.core.output.refused import CannotWriteError
from widehem.core.output.sheets import PAPERS, SCALES
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Display
from widehem.jobs.kinds import At, JobError, kind
from widehem.store.clock import house_zone
from widehem.store.house_rows import Printer
from widehem.store.making import find_work
from widehem.store.papers import on_printer, order_of

PLOT = "plot"
PART = 2048  # bytes that are sent at a time
PATIENCE = 600.0  # seconds a plotter may take over a part, as while somebody clears its paper


@kind(PLOT, urgent=5, again=False)
def plot(at: At, wish: dict[str, Any]) -> None:
    """Send a docket. wish: docket, paper, scale, printer, unit and fraction of the maker."""
    with at.store.read() as session:
        work, zone = find_work(session, wish["docket"]), house_zone(session)
        printer = session.get(Printer, wish["printer"])
        if work is None or printer is None or not printer.address:
            raise JobError("The garment or the plotter was deleted meanwhile.")
        _ = work.docket.wearer, work.docket.production
    try:
        made = work.made()
    except (OptionError, CannotDraft):
        raise JobError("This garment cannot be drawn as it is kept: open its draft, it says why.") from None
    paper = PAPERS[wish["paper"]] if PAPERS[wish["paper"]].roll else PAPERS["roll90"]
    show = Display(wish["unit"], wish["fraction"])
    order = order_of(work.docket, made, show, zone, on_printer(paper, printer), wish["scale"])
    try:
        data = pattern_plot(order.pattern(), order.paper, SCALES[wish["scale"]]).data
    except CannotWriteError as error:
        raise JobError(str(error)) from None
    send(at, printer.address, data)


def send(at: At, address: str, data: bytes) -> None:
    """Send a plot file to 'host:port', part by part. Raises JobError where nobody takes it."""
    host, _, port = address.rpartition(":")
    parts = [data[start : start + PART] for start in range(0, len(data), PART)]
    try:
        with socket.create_connection((host.strip("[]"), int(port)), timeout=10.0) as plotter:
            plotter.settimeout(PATIENCE)
            for done, part in enumerate(parts):
                at.step(done, len(parts) + 1)
                plotter.sendall(part)
            plotter.shutdown(socket.SHUT_WR)
            at.step(len(parts), len(parts) + 1)
    except OSError as error:
        raise JobError(
            f"The plotter at {address} does not take it: {error.strerror or error}. Look whether it is switched on and its paper is clear."
        ) from None
    at.step(len(parts) + 1, len(parts) + 1)
