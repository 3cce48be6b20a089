"""Named plans of ease: how much a costume piece is larger than the body, by what it is."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from widehem.core.drafting.method import Method
from widehem.core.drafting.option import Option


@dataclass(frozen=True)
class EasePlan:
    """Totals round the body, cm, by level. why: what it is for."""

    code: str
    name: str
    why: str
    amounts: Mapping[str, float]


LEVELS = ("bust", "waist", "hip", "upper_arm", "across_back", "depth")


def _plan(code: str, name: str, why: str, *amounts: float) -> EasePlan:
    return EasePlan(code, name, why, dict(zip(LEVELS, amounts, strict=True)))


PLANS: dict[str, EasePlan] = {
    plan.code: plan
    for plan in (
        _plan("foundation", "Foundation", "a bodice lining, a stay: worn close, hardly moved in", 2, 1, 2, 3, 0.5, 1),
        _plan("close", "Close woven block", "to breathe and to move", 6, 3, 4, 4, 1, 2),
        _plan("easy", "Easy woven", "room to work in", 10, 8, 6, 6, 2, 3),
        _plan("over_shirt", "Over a shirt", "a waistcoat or bodice with a layer under it", 10, 8, 8, 6, 2, 3.5),
        _plan("coat", "Over everything", "a coat, over all layers", 15, 14, 12, 9, 3, 4.5),
    )
}  # fmt: skip


def settings_of(plan: EasePlan, method: Method) -> dict[str, float]:
    """What a plan comes to on a method, by the method's own levels, cm; levels that would be out of range are left as they are."""
    found = {}
    for option in method.ease:
        amount = plan.amounts["bust"] / 4 if option.code == "quarter" else plan.amounts.get(option.code)
        if amount is not None and _fits(option, amount):
            found[option.code] = amount
    return found


def _fits(option: Option, amount: float) -> bool:
    return option.low - 1e-9 <= amount <= option.high + 1e-9
