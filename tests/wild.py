"""Charts as they should not be: one measure of another body, inches written as centimetres, figures turned round, nothing, far too
much."""

from __future__ import annotations

import random

from tests.bodies import upper_build
from tests.wide import body
from widehem.core.body.chart import Chart, Reading
from widehem.core.units import Length, ticks_of

MOST = 4  # measures that are wrong at once


def wild(chance: random.Random) -> Chart:
    """The chart of any body with a few of its measures wrong in the way figures go wrong."""
    values, other = dict(body(chance).values), body(chance).values
    for _ in range(chance.randint(1, MOST)):
        code = chance.choice(sorted(values))
        values[code] = wrong(values[code], other.get(code, 1.0), chance)
    usual = upper_build()
    readings = {code: Reading(code, Length(max(1, ticks_of(cm)), "", "cm")) for code, cm in values.items()}
    return Chart(readings, usual.foundation, usual.table)


def wrong(cm: float, others: float, chance: random.Random) -> float:
    """A figure as it is misread, miswritten or mistyped, cm."""
    turned = float(str(round(cm))[::-1])
    return chance.choice((cm / 2.54, cm * 2.54, turned or 1.0, cm * 10, cm / 10, 0.01, 9999.0, others))
