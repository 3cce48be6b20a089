"""Bodies of a figure table at several sizes: what a design is looked at on before anybody is measured for it."""

from __future__ import annotations

from functools import cache

from widehem.core.body.chart import Chart, chart_of
from widehem.core.body.estimates import estimate
from widehem.core.body.figure_tables import TABLES

STEP, BELOW, ABOVE = 4.0, 3, 8  # cm of bust between two sizes; how many smaller and larger than the table's own body


@cache
def body_of(figure: str, larger: float = 0.0) -> Chart:
    """The body of a figure table, all its measures, so much larger (cm) at bust, waist and hip."""
    table = TABLES[figure]
    known = {code: value + (0.0 if code == "height" else larger) for code, value in table.row.items()}
    chart = chart_of(known, figure=figure)
    found = estimate(chart, table).found
    return chart_of({**{code: max(1.0, round(e.cm, 1)) for code, e in found.items()}, **known}, figure=figure)


def sizes(figure: str) -> list[tuple[str, Chart]]:
    """Bodies of a table from small to large, by their bust in words of centimetres."""
    if figure == "child":
        return [(f"bust {TABLES[figure].row['bust'] + n * 3.0:g}", body_of(figure, n * 3.0)) for n in range(-2, 4)]
    return [(f"bust {TABLES[figure].row['bust'] + n * STEP:g}", body_of(figure, n * STEP)) for n in range(-BELOW, ABOVE)]
