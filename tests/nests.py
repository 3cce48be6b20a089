"""Nests for tests: every method and every design that ships, in all sizes of a chart, by any way; drawn once."""

from functools import cache

import widehem.core.drafting.methods  # noqa: F401 - registers them
from widehem.core.design.design import method_design
from widehem.core.design.ships import shipped
from widehem.core.drafting.method import METHODS
from widehem.core.grading.first_table import FIRST
from widehem.core.grading.house_charts import HOUSE
from widehem.core.grading.nest import Grading, grade

BLOCKS = tuple(code for code, method in METHODS.items() if code != "outline" and not method.for_armhole)
SLEEVES = tuple(code for code, method in METHODS.items() if method.for_armhole)


def grading(code, figure="curved", way="rules", **more):
    """The grading of a method by its code, or of a design that ships."""
    design = method_design(METHODS[code]) if code in METHODS else shipped()[code].design
    return Grading(design, HOUSE[figure], way, more.pop("table", FIRST), **more)


@cache
def nest(code, figure="curved", way="rules", steps=3):
    """Its nest, so many sizes to both sides of the base."""
    chart = HOUSE[figure]
    sizes = range(max(chart.base - steps, 0), min(chart.base + steps + 1, len(chart)))
    return grade(grading(code, figure, way), sizes)
