"""What a step would do while it is tried: on the table of styles, and at the fit station."""

from __future__ import annotations

from dataclasses import dataclass

from widehem.core.design.design import Step
from widehem.core.design.make import Made
from widehem.core.pattern.check import Check
from widehem.core.units import Saying


@dataclass(frozen=True)
class Trial:
    """refused: why it does not fit; said: its words; checks: what would not be true any more."""

    step: Step
    made: Made
    refused: Saying | None = None
    said: tuple[Saying, ...] = ()
    checks: tuple[Check, ...] = ()

    @staticmethod
    def of(step: Step, before: Made, tried: Made) -> Trial:
        """A step by what the garment was before it and what it is with it."""
        refused = next((entry.saying for entry in tried.refused if entry.step == step.id), None)
        said = tuple(note for note, of in zip(tried.notes, tried.told, strict=True) if of == step.id and note != refused)
        known = {(check.name, check.verdict) for check in before.checks}
        worse = tuple(c for c in tried.checks if c.verdict != "true" and (c.name, c.verdict) not in known)
        return Trial(step, tried, refused, said, worse)
