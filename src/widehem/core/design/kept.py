"""Garments made lately, kept in memory: the same design on the same chart is not drawn twice."""

from __future__ import annotations

from collections.abc import Sequence

from widehem.core.body.chart import Chart
from widehem.core.design.design import Design, Step
from widehem.core.design.make import Made, make
from widehem.core.drafting.cap import Armhole

_MOST = 64
_made: dict[object, Made] = {}


def made_before(design: Design, chart: Chart, alterations: Sequence[Step] = (), armhole: Armhole | None = None) -> Made:
    """As make, but what was made lately is handed out again. Raises OptionError, CannotDraft."""
    key = design.key(), chart.table, armhole, chart.key(), repr(tuple(alterations))
    found = _made.get(key)
    if found is None:
        found = make(design, chart, alterations, armhole=armhole)
        while len(_made) >= _MOST:
            _made.pop(next(iter(_made)), None)
        _made[key] = found
    return found
