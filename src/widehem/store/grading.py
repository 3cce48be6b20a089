"""Size charts, shift rules and how designs are graded by them: rows turned into core values and back."""

from __future__ import annotations

from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from widehem.core.grading.first_table import FIRST
from widehem.core.grading.house_charts import HOUSE
from widehem.core.grading.kept import HowCast, HowGraded, KeptError
from widehem.core.grading.nest import Grading, ways_of
from widehem.core.grading.size_chart import SizeChart, SizeChartError
from widehem.core.grading.tables import RuleTable, TableError
from widehem.core.setting.option import OptionError
from widehem.core.shifting.spots import SpotError
from widehem.store.models import DesignRow, HouseRules, HouseSizes, Production
from widehem.store.recipes import named_of

SHIPPED_RULES = {FIRST.code: FIRST}


def all_sizes(session: Session) -> dict[str, SizeChart]:
    """Every size chart by its code: those that ship, then the workroom's own by name. One that cannot be read is left out."""
    found = dict(HOUSE)
    for row in session.scalars(select(HouseSizes).order_by(HouseSizes.name)):
        try:
            found[row.code] = sizes_of(row)
        except SizeChartError:
            continue
    return found


def sizes_of(row: HouseSizes) -> SizeChart:
    """A size chart of the workroom. Raises SizeChartError."""
    rows = {code: tuple(float(v) for v in values) for code, values in row.rows.items()}
    return SizeChart(row.code, row.name, row.figure, row.key, tuple(row.sizes), tuple(row.letters), row.base, rows)


def begin_sizes(session: Session, chart: SizeChart, name: str) -> HouseSizes:
    """A size chart of the workroom's own, as this one is."""
    row = HouseSizes(name=name[:60])
    keep_sizes(row, chart, name)
    session.add(row)
    session.flush()
    return row


def keep_sizes(row: HouseSizes, chart: SizeChart, name: str) -> None:
    """Replace what a size chart of the workroom says."""
    row.name, row.figure, row.key, row.base = name[:60], chart.figure, chart.key, chart.base
    row.sizes, row.letters, row.rows = (
        list(chart.sizes),
        list(chart.letters),
        {code: list(values) for code, values in chart.rows.items()},
    )


def all_rules(session: Session) -> dict[str, RuleTable]:
    """Every table of shift rules by its code: the one that ships, then the workroom's own by name."""
    found = dict(SHIPPED_RULES)
    for row in session.scalars(select(HouseRules).order_by(HouseRules.name)):
        try:
            found[row.code] = RuleTable.from_data(row.code, row.name, row.data)
        except (TableError, SpotError):
            continue
    return found


def begin_rules(session: Session, table: RuleTable, name: str) -> HouseRules:
    """A table of rules of the workroom's own, as this one is."""
    row = HouseRules(name=name[:60], data=table.as_data())
    session.add(row)
    session.flush()
    return row


def graded_by(session: Session, code: str, field: str) -> list[str]:
    """The names of the designs that are graded by a chart (field 'chart') or by a table (field 'rules')."""
    rows = session.scalars(select(DesignRow).where(DesignRow.own, DesignRow.binned_at.is_(None)))
    return [row.name for row in rows if row.grading.get(field) == code]


def how_graded(row: DesignRow) -> HowGraded:
    """How a design is graded; as usual where nothing is kept, or what is kept cannot be used any more. What came in sizes of its own
    keeps them until another way is chosen."""
    kept = row.grading or {}
    try:
        return HowGraded.from_data(kept if "way" in kept else {**kept, "way": ways_of(named_of(row).design)[0]})
    except (KeptError, SpotError, OptionError):
        return HowGraded()


def grading_of(session: Session, row: DesignRow) -> Grading:
    """A design with the chart and the table it is graded by; as usual where one of them is gone. Raises OptionError."""
    how, design = how_graded(row), named_of(row).design
    ways = ways_of(design)
    charts, tables = all_sizes(session), all_rules(session)
    return Grading(
        design,
        charts.get(how.chart, HOUSE["curved"]),
        how.way if how.way in ways else ways[0],
        tables.get(how.rules, FIRST),
        how.own,
        how.breaks,
    )


def how_cast(row: Production) -> HowCast:
    """How the cast of a production is planned."""
    try:
        return HowCast.from_data(row.cast or {})
    except KeptError:
        return HowCast()


def referred(data: dict[str, Any]) -> set[str]:
    """The codes of the house that a grading or a cast rests on."""
    codes = {str(data.get("chart", "")), str(data.get("rules", "")), str(data.get("against", "")).partition(":")[2]}
    return {code for code in codes if code.startswith("house-")}
