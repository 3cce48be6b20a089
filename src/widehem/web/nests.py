"""The nest of a design as the pages ask for it: what is kept of its grading, and the latest nests that were drawn."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Hashable, Mapping
from dataclasses import dataclass
from threading import Lock

from flask import abort

from widehem.core.design.design import Design
from widehem.core.grading.kept import HowGraded
from widehem.core.grading.nest import Grading, Nest, Way, grade, ways_of
from widehem.core.grading.size_chart import SizeChart
from widehem.core.grading.tables import RuleTable
from widehem.core.setting.option import OptionError
from widehem.core.values import replace
from widehem.store.grading import all_rules, all_sizes, grading_of, how_graded
from widehem.store.models import DesignRow
from widehem.store.recipes import find_design
from widehem.web.here import current_store

KEPT = 12  # nests


@dataclass(frozen=True)
class Graded:
    """A design with how it is graded, and what it can be graded by."""

    row: DesignRow
    design: Design
    how: HowGraded
    grading: Grading
    charts: Mapping[str, SizeChart]
    tables: Mapping[str, RuleTable]
    ways: tuple[Way, ...]

    @property
    def nest(self) -> Nest:
        return nest_of(self.grading)

    def by(self, way: Way) -> Nest:
        """The same by another way."""
        return nest_of(replace(self.grading, way=way))


def graded(design_id: int) -> Graded:
    """A design as it is graded. 404 where there is none."""
    with current_store().read() as session:
        row = find_design(session, design_id)
        if row is None:
            abort(404)
        charts, tables = all_sizes(session), all_rules(session)
        try:
            grading = grading_of(session, row)
        except OptionError:
            abort(404)
    return Graded(row, grading.design, how_graded(row), grading, charts, tables, ways_of(grading.design))


_nests: OrderedDict[Hashable, Nest] = OrderedDict()
_lock = Lock()


def nest_of(grading: Grading) -> Nest:
    """The nest of a grading; the latest are kept."""
    key = grading_key(grading)
    with _lock:
        found = _nests.get(key)
        if found is not None:
            _nests.move_to_end(key)
            return found
    made = grade(grading)
    with _lock:
        _nests[key] = made
        while len(_nests) > KEPT:
            _nests.popitem(last=False)
    return made


def grading_key(grading: Grading) -> Hashable:
    """What two gradings that draw alike have in common."""
    chart, table = grading.chart, repr(grading.table.as_data())
    rows = tuple((code, values) for code, values in chart.rows.items())
    return (
        grading.design.key(),
        chart.figure,
        chart.key,
        chart.sizes,
        chart.base,
        rows,
        grading.way,
        table,
        grading.own,
        grading.breaks,
    )
