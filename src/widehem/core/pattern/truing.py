"""What must agree before paper is cut."""

from __future__ import annotations

import widehem.core.pattern.checks  # noqa: F401 - registers the kinds of check
from widehem.core.pattern.check import CHECKERS, Case, Check, Demand
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.limits import USUAL_LIMITS, Limits
from widehem.core.pattern.wear import USUAL_WEAR, Wear


def check_garment(
    garment: Garment, demands: tuple[Demand, ...] = (), wear: Wear = USUAL_WEAR, limits: Limits = USUAL_LIMITS
) -> tuple[Check, ...]:
    """Every check that applies to these pieces and what is asked of them, those of one group together."""
    case = Case(garment, demands, wear, limits)
    groups: dict[str, list[Check]] = {}
    for run in CHECKERS.values():
        for check in run(case):
            groups.setdefault(check.group, []).append(check)
    return tuple(check for group in groups.values() for check in group)
