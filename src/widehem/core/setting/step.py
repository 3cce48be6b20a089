"""A step of a draft in words, with its arithmetic."""

from __future__ import annotations

from widehem.core.setting.quantity import Quantity
from widehem.core.units import Saying
from widehem.core.values import record


@record(frozen=True)
class Sum:
    """A line of arithmetic in a step; the last one is the result."""

    name: str
    quantity: Quantity


@record(frozen=True)
class Step:
    """One step of a draft: what to do, why, and the arithmetic."""

    number: int
    title: str
    text: Saying
    sums: tuple[Sum, ...] = ()

    @property
    def result(self) -> Sum | None:
        return self.sums[-1] if self.sums else None
