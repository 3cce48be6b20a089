"""Allowance plans: how much is added to which kind of edge, by use. Workrooms change the figures."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from widehem.core.pattern.edge import Edge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import ROLES
from widehem.core.setting.registry import Registry
from widehem.core.units import CM_PER_INCH, METRIC, Display
from widehem.core.values import record

KINDS = {
    "seam": "Side, inseam, panel, waist",
    "shoulder": "Shoulder",
    "armhole": "Armhole, cap",
    "neck": "Neckline, faced curves",
    "opening": "Centre with an opening",
    "hem": "Hem",
    "sleeve_hem": "Sleeve hem",
}
MOST = 15.0


class PlanError(ValueError):
    """An allowance cannot be used; one sentence."""


@record(frozen=True)
class AllowancePlan:
    """Amounts in cm by kind of edge. use: what the pattern is for, as it stands on the label."""

    code: str
    name: str
    use: str
    amounts: Mapping[str, float]

    def amount(self, edge: Edge) -> float:
        """What this plan adds to an edge, cm; nothing to a fold."""
        return 0.0 if edge.kind == "fold" else self.amounts[kind_of(edge)]

    def with_amounts(self, changes: Mapping[str, float], show: Display = METRIC) -> AllowancePlan:
        """The plan with some amounts changed. Raises PlanError naming kind and figure."""
        for kind, amount in changes.items():
            if kind not in KINDS:
                raise PlanError(f'"{kind}" is not a kind of edge: there are {", ".join(KINDS)}.')
            if not 0 <= amount <= MOST:
                raise PlanError(
                    f"{KINDS[kind]}: {show.length(amount)} is outside 0 to {show.full(MOST)}: write a figure between them."
                )
        if "shoulder" in changes and "armhole" not in changes:  # they were one once
            changes = {**changes, "armhole": changes["shoulder"]}
        return replace(self, amounts={**self.amounts, **changes})


def kind_of(edge: Edge) -> str:
    """Which row of a plan an edge falls under: by its kind, then by its role."""
    if edge.kind == "opening":
        return "opening"
    row = ROLES[edge.role].allowance
    return row if edge.kind != "hem" or row == "sleeve_hem" else "hem"


def _plan(code: str, name: str, use: str, *amounts: float) -> AllowancePlan:
    return AllowancePlan(code, name, use, dict(zip(KINDS, amounts, strict=True)))


def _inches(*amounts: float) -> tuple[float, ...]:
    return tuple(amount * CM_PER_INCH for amount in amounts)


PLANS: Registry[AllowancePlan] = Registry("allowance plan")
for _made in (
    _plan("cloth", "Cloth", "cloth", 1.2, 1.2, 1.2, 0.6, 1.5, 4.0, 3.0),
    _plan("fine", "Fine or overlocked", "cloth", 1.0, 1.0, 1.0, 0.6, 1.5, 3.0, 2.0),
    _plan("jersey", "Jersey", "jersey", 0.6, 0.6, 0.6, 0.6, 0.6, 2.0, 1.0),
    _plan("toile", "Toile, for fitting", "toile", 1.9, 1.2, 1.2, 1.2, 2.5, 5.0, 4.0),
    _plan("toile_bare", "Toile, bare at neck and armhole", "toile", 1.9, 1.2, 0.0, 0.0, 2.5, 5.0, 4.0),
    _plan("simple", "Simple costume", "cloth", 1.5, 1.5, 1.5, 1.0, 2.0, 2.5, 2.5),
    _plan("cloth_in", "Cloth, in inches", "cloth", *_inches(0.5, 0.5, 0.5, 0.25, 0.625, 1.5, 1.25)),
    _plan("toile_in", "Toile, in inches", "toile", *_inches(0.75, 0.5, 0.5, 0.5, 1.0, 2.0, 1.5)),
    _plan("none", "None, stitching line only", "block", 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0),
):
    PLANS.add(_made.code, _made)


def plan_named(code: str) -> AllowancePlan:
    """The plan with this code. Raises PlanError naming those there are."""
    if code not in PLANS:
        raise PlanError(f'There is no allowance plan "{code}": there are {", ".join(PLANS)}.')
    return PLANS[code]


def amounts_on(piece: Piece, plan: AllowancePlan) -> dict[str, float]:
    """Allowance by edge name, cm."""
    return {edge.name: plan.amount(edge) for edge in piece.edges}
