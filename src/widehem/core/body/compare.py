"""Two charts of one wearer side by side: what changed, and by how much."""

from __future__ import annotations

from collections.abc import Iterable

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.values import record

WORTH_DRAWING = 0.05  # cm: what a smaller difference moves cannot be cut


@record(frozen=True)
class Difference:
    """One measure on both charts, cm; None where it was not read."""

    code: str
    before: float | None
    after: float | None

    @property
    def by(self) -> float | None:
        """After less before; None when one of them was not read."""
        return None if self.before is None or self.after is None else self.after - self.before

    @property
    def changed(self) -> bool:
        """Whether a draft made on the one is wrong on the other."""
        if self.before is None or self.after is None:
            return self.before is not self.after
        return abs(self.after - self.before) >= WORTH_DRAWING


def compare(before: Chart, after: Chart) -> tuple[Difference, ...]:
    """Every measure that was read on either chart, in catalogue order."""
    return tuple(Difference(code, before.get(code), after.get(code)) for code in CATALOGUE if code in before or code in after)


def stale(codes: Iterable[str], before: Chart, after: Chart) -> tuple[Difference, ...]:
    """Of the measures a garment uses, those that make a draft on the first chart wrong on the second, the most first.

    A measure that the second chart lacks says nothing against the first.
    """
    used = set(codes)
    found = [entry for entry in compare(before, after) if entry.code in used and entry.changed and entry.after is not None]
    return tuple(sorted(found, key=lambda entry: -abs(entry.by or 1000.0)))
