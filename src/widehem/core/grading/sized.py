"""A garment in one size of a nest."""

from __future__ import annotations

from widehem.core.design.make import Made
from widehem.core.grading.apply import Shifted
from widehem.core.pattern.check import Check, Demand
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.limits import Limits
from widehem.core.pattern.wear import Wear
from widehem.core.units import Saying
from widehem.core.values import record


@record(frozen=True)
class Sized:
    """A garment in a size. made: as any other, so that it is marked, printed and handed over as any other. shifted: how it was moved,
    where it was."""

    size: int
    made: Made
    shifted: Shifted | None = None

    @property
    def garment(self) -> Garment:
        return self.made.garment

    @property
    def demands(self) -> tuple[Demand, ...]:
        return self.made.demands

    @property
    def wear(self) -> Wear:
        return self.made.wear

    @property
    def limits(self) -> Limits:
        return self.made.draft.limits

    @property
    def checks(self) -> tuple[Check, ...]:
        return self.made.checks

    @property
    def refused(self) -> tuple[Saying, ...]:
        """Steps that do not fit this size."""
        return tuple(one.saying for one in self.made.refused)

    @property
    def untrue(self) -> tuple[Check, ...]:
        return tuple(check for check in self.checks if check.verdict == "not")

    @property
    def fails(self) -> bool:
        """Whether it is not true in this size, or lacks a step."""
        return bool(self.refused or self.untrue)
