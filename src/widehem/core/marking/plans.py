"""Allowance plans: how much is added to which kind of edge, by use. Workrooms change the figures."""

from __future__ import annotations

import math
from collections.abc import Mapping

from widehem.core.geometry.points import angle_between
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.roles import ROLES
from widehem.core.setting.registry import Registry
from widehem.core.units import CM_PER_INCH, METRIC, Display
from widehem.core.values import record, replace

KINDS = {
    "seam": "Side, inseam, panel, waist",
    "shoulder": "Shoulder",
    "armhole": "Armhole",
    "cap": "Sleeve cap",
    "neck": "Neckline, faced curves",
    "opening": "Centre with an opening",
    "hem": "Hem, straight",
    "hem_flared": "Hem, flared",
    "hem_circle": "Hem, full circle",
    "sleeve_hem": "Sleeve hem",
    "let_out": "To let out, more at side, inseam, centre back",
}
MOST = 15.0
FLARED, CIRCLE = 1 / 250, 1 / 100  # 1/cm: how round a hem is, on the whole, that is called so


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
        return 0.0 if edge.kind == "fold" else self.amounts[kind_of(edge)] + self.spare(edge)

    def spare(self, edge: Edge) -> float:
        """How much of that is there to be let out one day, cm: the edge is sewn that much farther in."""
        lets_out = ROLES[edge.role].lets_out and edge.kind in ("seam", "opening")
        return self.amounts.get("let_out", 0.0) if lets_out else 0.0

    def with_amounts(self, changes: Mapping[str, float], show: Display = METRIC) -> AllowancePlan:
        """The plan with some amounts changed. Raises PlanError naming kind and figure."""
        for kind, amount in changes.items():
            if kind not in KINDS:
                raise PlanError(f'"{kind}" is not a kind of edge: there are {", ".join(KINDS)}.')
            if not 0 <= amount <= MOST:
                raise PlanError(
                    f"{KINDS[kind]}: {show.length(amount)} is outside 0 to {show.full(MOST)}: write a figure between them."
                )
        return replace(self, amounts={**self.amounts, **changes})


def kind_of(edge: Edge) -> str:
    """Which row of a plan an edge falls under: by its kind, then by its role."""
    if edge.kind == "opening":
        return "opening"
    row = ROLES[edge.role].allowance
    return row if edge.kind != "hem" or row == "sleeve_hem" else hem_kind(edge)


def hem_kind(edge: Edge) -> str:
    """How round a hem is: straight, flared, or of a full circle."""
    turned = sum(
        math.radians(angle_between(segment.direction(0.0), segment.direction(1.0)))
        for path in edge.parts
        for segment in path.segments
    )
    round_ = turned / edge.length if edge.length else 0.0
    return "hem_circle" if round_ >= CIRCLE else "hem_flared" if round_ >= FLARED else "hem"


def _plan(code: str, name: str, use: str, *amounts: float) -> AllowancePlan:
    return AllowancePlan(code, name, use, dict(zip(KINDS, (*amounts, 0.0), strict=True)))


def _inches(*amounts: float) -> tuple[float, ...]:
    return tuple(amount * CM_PER_INCH for amount in amounts)


PLANS: Registry[AllowancePlan] = Registry("allowance plan")
for _made in (
    _plan("cloth", "Cloth", "cloth", 1.2, 1.2, 1.2, 1.2, 0.6, 1.5, 4.0, 2.0, 1.0, 3.0),
    _plan("fine", "Fine or overlocked", "cloth", 1.0, 1.0, 1.0, 1.0, 0.6, 1.5, 3.0, 2.0, 1.0, 2.0),
    _plan("jersey", "Jersey", "jersey", 0.6, 0.6, 0.6, 0.6, 0.6, 0.6, 2.0, 2.0, 1.0, 1.0),
    _plan("toile", "Toile, for fitting", "toile", 1.9, 1.2, 1.2, 1.2, 1.2, 2.5, 5.0, 5.0, 5.0, 4.0),
    _plan("toile_bare", "Toile, bare at neck and armhole", "toile", 1.9, 1.2, 0.0, 1.2, 0.0, 2.5, 5.0, 5.0, 5.0, 4.0),
    _plan("simple", "Simple costume", "cloth", 1.5, 1.5, 1.5, 1.5, 1.0, 2.0, 2.5, 2.0, 1.0, 2.5),
    _plan("lining", "Lining", "lining", 1.2, 1.2, 1.2, 1.2, 0.6, 1.5, 2.0, 2.0, 1.0, 1.5),
    _plan("interfacing", "Interfacing", "interfacing", 1.2, 1.2, 1.2, 1.2, 0.6, 1.5, 0.0, 0.0, 0.0, 0.0),
    _plan("cloth_in", "Cloth, in inches", "cloth", *_inches(0.5, 0.5, 0.5, 0.5, 0.25, 0.625, 1.5, 0.75, 0.375, 1.25)),
    _plan("toile_in", "Toile, in inches", "toile", *_inches(0.75, 0.5, 0.5, 0.5, 0.5, 1.0, 2.0, 2.0, 2.0, 1.5)),
    _plan("lining_in", "Lining, in inches", "lining", *_inches(0.5, 0.5, 0.5, 0.5, 0.25, 0.625, 0.75, 0.75, 0.375, 0.625)),
    _plan("none", "None, stitching line only", "block", *(0.0,) * 10),
):
    PLANS.add(_made.code, _made)


OWN, LONGEST_NAME = "+", 24  # between the plan that an own one began as and its name, as in 'cloth+Velvet'; signs of a name


def plan_named(code: str) -> AllowancePlan:
    """The plan with this code: one that ships, or the house's own by the one it began as and its name, like 'cloth+Velvet'. Raises
    PlanError naming those there are."""
    like, own, name = code.partition(OWN)
    if like not in PLANS or (own and not name.strip()) or len(name) > LONGEST_NAME or set(name) & set('+.<>"'):
        raise PlanError(f'There is no allowance plan "{code}": there are {", ".join(PLANS)}.')
    return replace(PLANS[like], code=code, name=name) if own else PLANS[like]


def own_plan(like: str, name: str) -> AllowancePlan:
    """A plan of the house that begins as another one, by its own name. Raises PlanError for a name that cannot be."""
    name = " ".join(name.split())
    if not name:
        raise PlanError("A plan of the house needs a name: write one, like Velvet.")
    if len(name) > LONGEST_NAME or set(name) & set('+.<>"'):
        raise PlanError(f"Write a name of up to {LONGEST_NAME} letters, without + . < > or quotation marks.")
    return plan_named(f"{like.partition(OWN)[0]}{OWN}{name}")
