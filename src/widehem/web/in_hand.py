"""The chart in hand: whose it is, which of the wearer's charts, and the list of measures that is being taken."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import date
from functools import cached_property
from typing import Any

from flask import abort, request, url_for
from sqlalchemy.orm import Session

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart, Reading
from widehem.core.body.doubt_groups import GroupState, grouped, widest_spread
from widehem.core.body.doubts import GIRTH_SPREAD, Doubt, doubts
from widehem.core.body.estimates import Estimates, estimate
from widehem.core.body.lists import FULL, ORDER, in_order
from widehem.core.body.occasion import Occasion, chart_doubts
from widehem.core.design.sensitivity import next_to_read
from widehem.core.drafting.method import METHODS
from widehem.store.charts import chart_numbered, core_chart, last_reading, latest_chart
from widehem.store.dockets import find_docket, find_wearer
from widehem.store.house_lists import house_lists
from widehem.store.models import ChartRow, Docket, HouseList, Wearer
from widehem.web.hem import Next, Slot
from widehem.web.here import current_store, today
from widehem.web.numbers import number_of
from widehem.web.show import display, figure

ALWAYS = ("height",)  # judged together with the rest, and wanted for the stride
OWN = "own-"  # in front of the number of a list of the workroom


@dataclass
class InHand:
    """A chart and everything its pages show beside it. which: the list; newest: whether this is the wearer's newest chart."""

    wearer: Wearer
    docket: Docket | None
    row: ChartRow | None
    chart: Chart
    accepted: dict[str, str]
    which: str
    lists: list[HouseList]
    newest: bool = True
    seen: int = 0
    today: date = field(default_factory=today)

    @property
    def usual(self) -> str:
        """The list that is taken when none is asked for."""
        return "garment" if self.docket else "full"

    @property
    def choices(self) -> list[tuple[str, str]]:
        """The lists the chart can be taken by: value and words."""
        found = [("garment", f"For {self.docket.name}")] if self.docket else []
        if len(garments(self.wearer)) > 1:
            found.append(("garments", "For every garment"))
        return [
            *found,
            ("full", "The full thirty"),
            ("all", "All measures"),
            *((f"{OWN}{own.id}", own.name) for own in self.lists),
        ]

    @cached_property
    def codes(self) -> list[str]:
        """The measures of the list, in the order of a session."""
        return listed(self.docket, self.which, self.lists)

    @cached_property
    def missing(self) -> list[str]:
        return [code for code in self.codes if code not in self.chart]

    @cached_property
    def doubts(self) -> tuple[Doubt, ...]:
        """Every doubt: of the figures, and of the chart as a whole."""
        costumes = tuple((docket.name, docket.foundation) for docket in self.wearer.dockets)
        occasion = Occasion(self.today, self.row.taken_on if self.row else None, costumes)
        return (*doubts(self.chart), *chart_doubts(self.chart, occasion))

    @cached_property
    def groups(self) -> tuple[GroupState, ...]:
        return grouped(self.doubts, set(self.accepted))

    @cached_property
    def estimates(self) -> Estimates | None:
        """What can be estimated; nothing while nothing is read."""
        return estimate(self.chart, self.chart.table) if any(self.chart) else None

    @property
    def open_doubts(self) -> list[Doubt]:
        return [doubt for group in self.groups for doubt in group.open]

    def doubts_at(self, code: str) -> list[Doubt]:
        return [doubt for doubt in self.doubts if code in doubt.measures]

    def reading(self, code: str) -> Reading:
        return self.chart.readings.get(code) or Reading(code)

    def to(self, endpoint: str, at: str = "", **more: str | int | list[str] | None) -> str:
        """The address of a page of this chart, with what is in hand kept."""
        kept: dict[str, Any] = {
            "at": at or None,
            "list": self.which if self.which != self.usual else None,
            "docket": self.docket.id if self.docket else None,
            "chart": self.row.id if self.row and not self.newest else None,
        }
        return url_for(endpoint, wearer_id=self.wearer.id, **{**kept, **more})

    @property
    def kept_fields(self) -> dict[str, str | int]:
        """What a form of this chart carries along."""
        found: dict[str, str | int] = {}
        if self.which != self.usual:
            found["list"] = self.which
        if self.docket:
            found["docket"] = self.docket.id
        if self.row:
            found["chart"] = self.row.id
        return found


def in_hand(wearer_id: int, session: Session | None = None) -> InHand:
    """The chart a request is about, from its form or its address. 404 when there is no such wearer."""
    if session is None:
        with current_store().read() as reading:
            return in_hand(wearer_id, reading)
    values = request.values
    wearer = find_wearer(session, wearer_id)
    if wearer is None:
        abort(404)
    docket_id = values.get("docket", type=number_of)
    docket = find_docket(session, docket_id) if docket_id else None
    if docket is None or docket.wearer_id != wearer_id:
        docket = None
    known = garments(wearer)
    if docket not in known:
        docket = known[0] if known else None
    row = chart_numbered(session, wearer_id, values.get("chart", type=number_of))
    accepted = {entry.doubt: entry.why for entry in row.accepted} if row else {}
    lists = house_lists(session)
    which = values.get("list", "")
    if which not in ("garment", "garments", "full", "all", *(f"{OWN}{entry.id}" for entry in lists)):
        which = "garment" if docket else "full"
    newest = row is None or row is latest_chart(session, wearer_id)
    seen = last_reading(session, row.id) if row else 0
    return InHand(wearer, docket, row, core_chart(session, row), accepted, which, lists, newest, seen)


def garments(wearer: Wearer) -> list[Docket]:
    """The dockets of a wearer that can be drawn: whose method there is."""
    return [docket for docket in wearer.dockets if docket.method in METHODS]


def needed(docket: Docket) -> set[str]:
    return {*METHODS[docket.method].uses(docket.all_options), *ALWAYS}


def listed(docket: Docket | None, which: str, lists: list[HouseList]) -> list[str]:
    """The measures of a list in the order of a session."""
    if which.startswith(OWN):
        own = next((entry for entry in lists if f"{OWN}{entry.id}" == which), None)
        return in_order(code for code in own.codes if code in CATALOGUE) if own else list(FULL)
    if which == "all":
        return list(ORDER)
    if which == "full" or docket is None:
        return list(FULL)
    found = needed(docket)
    if which == "garments":
        found = found.union(*(needed(other) for other in garments(docket.wearer)))
    return in_order(found)


def hem_slots(hand: InHand, to: Callable[[str], str]) -> list[Slot]:
    """The checks of a chart: four kinds of doubt, and what is still to read."""
    return [*(_slot(state, hand, to) for state in hand.groups), _still(hand, to)]


def _slot(state: GroupState, hand: InHand, to: Callable[[str], str]) -> Slot:
    show = display()
    if state.open:
        worst = max(state.open, key=lambda doubt: (bool(doubt.measures), doubt.apart))
        if not worst.measures or worst.rule == "age":
            words = {"age": "too old to cut by", "foundation": "read over something else"}[worst.rule]
            return Slot(
                state.title, "look", str(len(state.open)), "to look at", words, hand.to("charts.over_time"), len(state.open)
            )
        words = " and ".join(CATALOGUE[code].name.lower() for code in worst.measures[:2])
        twice = worst.rule == "readings"  # the figure its own sentence gives, not how far it is beyond what is let pass
        apart, how = (hand.chart.readings[worst.measures[0]].spread, "apart") if twice else (worst.apart, "out")
        far = figure(show.length(apart))
        return Slot(state.title, "look", far, f"{show.unit} {how}", words, to(worst.measures[0]), len(state.open))
    if state.title == "Two readings":
        code, spread = widest_spread(hand.chart)
        words = f"widest, {CATALOGUE[code].name.lower()}" if code else f"at most {show.full(GIRTH_SPREAD)} on a girth"
        return Slot(state.title, "true", figure(show.length(spread)), f"{show.unit} apart", words)
    words = f"{len(state.accepted)} kept knowingly" if state.accepted else "nothing stands out"
    return Slot(state.title, "true", "0", "to look at", words)


def _still(hand: InHand, to: Callable[[str], str]) -> Slot:
    if not hand.missing:
        return Slot("Still to read", "true", "0", f"of {len(hand.codes)}", "all of this list")
    estimated = sum(1 for code in hand.missing if hand.estimates is not None and hand.estimates.get(code))
    words = f"{estimated} of them estimated" if estimated else f"next, {CATALOGUE[hand.missing[0]].name.lower()}"
    return Slot("Still to read", "open", str(len(hand.missing)), f"of {len(hand.codes)}", words, to(hand.missing[0]))


def tally(hand: InHand) -> str:
    return f"{len(hand.open_doubts)} to look at, {len(hand.missing)} to come"


def next_of(hand: InHand, at: str, to: Callable[[str], str]) -> Next:
    """The one next step of a chart: read what the garment needs most, then draft, then look again."""
    back = ("Back to the production", url_for("people.production", production_id=hand.wearer.production_id))
    wanted = list(hand.missing)
    if hand.docket is not None:
        wanted = list(next_to_read(METHODS[hand.docket.method], hand.chart, hand.docket.all_options))
    if wanted:
        there = wanted[0] == at
        return Next(f"Read {CATALOGUE[wanted[0]].name.lower()}", "#r-first" if there else to(wanted[0]), *back)
    if hand.docket is not None:
        return Next(f"Draft {hand.docket.name}", url_for("board.draft", docket_id=hand.docket.id), *back)
    looking = [doubt for doubt in hand.open_doubts if doubt.measures]
    if looking:
        return Next(f"Look at {CATALOGUE[looking[0].measures[0]].name.lower()} again", to(looking[0].measures[0]), *back)
    return Next("Begin a garment", url_for("people.production", production_id=hand.wearer.production_id) + "#new-docket", *back)


def uses(hand: InHand, code: str) -> list[tuple[str, str, bool]]:
    """What a measure is for: (garment or method, why, whether the wearer has such a garment); the wearer's own first."""
    own = [(docket.name, METHODS[docket.method]) for docket in garments(hand.wearer)]
    begun = {method.code for _, method in own}
    others = [(method.name, method) for method in METHODS.values() if method.code not in begun]
    found = []
    for mine, entries in ((True, own), (False, others)):
        for name, method in entries:
            why = next((need.why for need in method.needs if need.measure == code), "")
            if why:
                found.append((name, why, mine))
    return found
