"""The stand test: what the toile measures beside the chart, before it is put on the body."""

from __future__ import annotations

from typing import Literal

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart, chart_of
from widehem.core.body.estimates import estimate
from widehem.core.design.design import Design
from widehem.core.design.kept import made_before
from widehem.core.design.make import Made, armhole_in
from widehem.core.drafting.method import METHODS
from widehem.core.fitting.walked import walked
from widehem.core.setting.option import OptionError
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import Saying, say
from widehem.core.values import record, replace

Kind = Literal["read", "witness"]
LOOK: dict[Kind, float] = {"read": 0.5, "witness": 1.0}  # cm


@record(frozen=True)
class StandRow:
    """One measure of the toile. kind: the draft was drawn from it, or never looked at it. body: as read. ease: what the toile has more;
    usual: what this design has more on the body of the table; None where that is not known."""

    code: str
    kind: Kind
    body: float
    toile: float
    usual: float | None

    @property
    def name(self) -> str:
        return CATALOGUE[self.code].name

    @property
    def ease(self) -> float:
        return self.toile - self.body

    @property
    def off(self) -> float | None:
        """How far it is from what the design usually has there, cm."""
        return None if self.usual is None else self.ease - self.usual

    @property
    def strange(self) -> bool:
        return self.off is not None and abs(self.off) > LOOK[self.kind]

    @property
    def saying(self) -> Saying:
        """What it means, in words."""
        if self.off is None:
            return say("{0s} on the body.", self.ease)
        if not self.strange:
            return say("{0s} on the body, as this design usually has it.", self.ease)
        size = say(
            "{0s} on the body, {1u} " + ("more" if self.off > 0 else "less") + " than this design usually has.",
            self.ease,
            abs(self.off),
        )
        tail = (
            "The draft was drawn from this figure: look at the paper there."
            if self.kind == "read"
            else "The draft never looked at this figure: read it again, and look there first at the fitting."
        )
        return size + say(tail)


def table_body(chart: Chart) -> Chart:
    """The body that the figure table of a chart has, whole: what a design usually has is measured on it."""
    table = chart.table
    found = estimate(replace(chart_of(dict(table.row)), table=table), table).found
    whole = chart_of({**{code: max(1.0, round(e.cm, 1)) for code, e in found.items()}, **table.row})
    return replace(whole, table=table)


def stand_test(made: Made, design: Design) -> tuple[StandRow, ...]:
    """The measures of a garment beside the chart it was made for. What is usual is what the same design has on the body of the table,
    without the alterations of this wearer."""
    usual = _usual(design, made.chart)
    used = set(made.measures_used())
    rows = []
    for code, toile in walked(made.garment).items():
        if code not in made.chart or code not in CATALOGUE:
            continue
        rows.append(StandRow(code, "read" if code in used else "witness", made.chart.values[code], toile, usual.get(code)))
    order = list(CATALOGUE)
    return tuple(sorted(rows, key=lambda row: (row.kind != "read", order.index(row.code))))


def _usual(design: Design, chart: Chart) -> dict[str, float]:
    """What the design has more than the body of the table, by measure, cm; nothing where it cannot be drawn on it."""
    body = table_body(chart)
    try:
        armhole = None
        if design.outlines is None and design.drawn_by.for_armhole:
            armhole = armhole_in(made_before(Design(design.drawn_by.made_for, METHODS[design.drawn_by.made_for].rules), body))
        toile = walked(made_before(design, body, (), armhole).garment)
    except (CannotDraft, OptionError):
        return {}
    return {code: value - body.values[code] for code, value in toile.items() if code in body}
