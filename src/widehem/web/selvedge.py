"""The selvedge: whose work this is, and the stations there are."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from flask import url_for

from widehem.core.body.catalogue import names
from widehem.core.body.chart import Chart
from widehem.core.body.compare import Difference
from widehem.core.drafting.method import METHODS
from widehem.store.models import Docket, Production, Wearer


@dataclass(frozen=True)
class Station:
    """A station: its name, where it is, how far it has come, and that in words."""

    name: str
    href: str
    state: str
    words: str
    key: str
    open: bool = False


@dataclass(frozen=True)
class Selvedge:
    """What stands at the left edge."""

    production: Production | None = None
    wearer: Wearer | None = None
    stations: tuple[Station, ...] = ()


def selvedge(
    wearer: Wearer, docket: Docket | None, chart: Chart, station: str, words: str = "", changed: Sequence[Difference] = ()
) -> Selvedge:
    """The stations for a wearer and, once there is one, a docket.

    station: the open one; words: its state; changed: what a newer chart says otherwise, which makes the draft stale.
    """
    needs = METHODS[docket.method].uses(docket.all_options) if docket else ()
    missing = METHODS[docket.method].missing(chart, docket.all_options) if docket else ()
    read = len(list(chart))
    measured = f"{read} read" if not needs else f"{len(needs) - len(missing)} of {len(needs)}"
    docket_id = docket.id if docket else None
    found = [
        Station(
            "Measure",
            url_for("measure.chart", wearer_id=wearer.id, docket=docket_id),
            "bare" if not read else "done" if not missing else "half",
            measured,
            "1",
            station == "measure",
        )
    ]
    if docket:
        drafted = "needs " + names(missing) if missing else ""
        open_ = "bare" if missing else "stale" if changed else "done"
        if changed and not missing:
            more = f" and {len(changed) - 1} more" if len(changed) > 1 else ""
            drafted = f"{names([changed[0].code])}{more} changed"
        found.append(
            Station(
                "Draft",
                url_for("board.draft", docket_id=docket.id),
                open_,
                drafted if changed else words if station == "draft" else drafted,
                "2",
                station == "draft",
            )
        )
        steps = len(docket.of_design("steps"))
        found.append(
            Station(
                "Style",
                url_for("style.station", docket_id=docket.id),
                "bare" if missing or not steps else "done",
                words if station == "style" else f"{steps} {'step' if steps == 1 else 'steps'}" if steps else "",
                "3",
                station == "style",
            )
        )
        cut = words if station == "cut" else ""
        found.append(
            Station(
                "Cut",
                url_for("paper.cut", docket_id=docket.id),
                "done" if docket.cut_on else open_ if station == "cut" else "bare",
                "cut" if docket.cut_on and station != "cut" else cut,
                "4",
                station == "cut",
            )
        )
        altered = len(docket.alterations)
        found.append(
            Station(
                "Fit",
                url_for("fit.station", docket_id=docket.id),
                "bare" if missing or not (docket.fitted_on or altered) else "done" if docket.fitted_on else "half",
                words if station == "fit" else f"{altered} alteration{'s' if altered != 1 else ''}" if altered else "",
                "5",
                station == "fit",
            )
        )
        made = len(docket.making.get("done", ())) if docket.making else 0
        found.append(
            Station(
                "Make",
                url_for("make.station", docket_id=docket.id),
                "bare" if missing or not (made or docket.finished_on) else "done" if docket.finished_on else "half",
                words if station == "make" else f"{made} step{'s' if made != 1 else ''} done" if made else "",
                "6",
                station == "make",
            )
        )
    return Selvedge(wearer.production, wearer, tuple(found))
