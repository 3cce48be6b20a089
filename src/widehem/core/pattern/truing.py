"""What must agree before paper is cut."""

from __future__ import annotations

import logging

import widehem.core.pattern.checks  # noqa: F401 - registers the kinds of check
from widehem.core.pattern.check import CHECKERS, Case, Check, Demand, Judge
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.limits import USUAL_LIMITS, Limits
from widehem.core.pattern.wear import USUAL_WEAR, Wear
from widehem.core.units import say

LOG = logging.getLogger(__name__)


def _judged(code: str, run: Judge, case: Case) -> list[Check]:
    """What a check says of a garment; one that breaks at it says that it cannot, and is never taken for true."""
    try:
        return list(run(case))
    except Exception:
        LOG.exception(
            "the check %s broke: pieces %s, demands %s", code, [piece.name for piece in case.garment.pieces], case.demands
        )
        words = say("It cannot be judged on this drawing: read the measures again that are furthest from the others.")
        return [
            Check(f"broken.{code}", "shapes", f"Not judged: {code.replace('.', ', ')}", "count", 1.0, None, 0.0, 0.0,
                say("not judged"), words)
        ]  # fmt: skip


def check_garment(
    garment: Garment, demands: tuple[Demand, ...] = (), wear: Wear = USUAL_WEAR, limits: Limits = USUAL_LIMITS
) -> tuple[Check, ...]:
    """Every check that applies to these pieces and what is asked of them, those of one group together."""
    case = Case(garment, demands, wear, limits)
    groups: dict[str, list[Check]] = {}
    for code, run in CHECKERS.items():
        for check in _judged(code, run, case):
            groups.setdefault(check.group, []).append(check)
    return tuple(check for group in groups.values() for check in group)
