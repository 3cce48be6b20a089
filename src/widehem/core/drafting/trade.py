"""What the depth of an armhole and the height of a cap cost and give: sleeve width against the lift of the arm."""

from __future__ import annotations

from dataclasses import dataclass

from widehem.core.body.chart import Chart
from widehem.core.drafting.cap import rest_angle
from widehem.core.drafting.ease_plans import EasePlan, applied
from widehem.core.drafting.method import Method, armhole_of, draft
from widehem.core.drafting.option import Value
from widehem.core.drafting.refusal import CannotDraft

LIFT = 45.0  # degrees beyond its rest that an arm rises freely in a sleeve


@dataclass(frozen=True)
class Trade:
    """One armhole with one sleeve, cm and degrees. side: underarm to waist; rests, lifts: angle of the arm off the body."""

    depth: float
    cap: str
    armhole: float
    side: float
    height: float
    bicep: float
    rests: float
    lifts: float


def trades(chart: Chart, plan: EasePlan, bodice: Method, sleeve: Method) -> tuple[Trade, ...]:
    """The plan's armhole one centimetre higher, as it is and one deeper with a high cap; then as it is with lower caps.

    Those that cannot be drawn on this chart are left out.
    """
    depth = plan.amounts.get("depth", 2.0)
    found = []
    for over, caps in ((-1.0, ("high",)), (0.0, ("high", "middle", "low")), (1.0, ("high",))):
        ease: dict[str, Value] = {**applied(plan, bodice).ease, "depth": depth + over}
        try:
            block = draft(bodice, chart, {}, ease).block
            armhole = armhole_of(block)
            assert armhole is not None
            for cap in caps:
                made = draft(sleeve, chart, {"cap_height": cap}, dict(applied(plan, sleeve).ease), armhole)
                piece = made.block.piece("sleeve")
                height, width = -min(point.y for point in piece.sketch), piece.width_at(0.001)
                rests = rest_angle(height, armhole.whole)
                side = block.piece("back").edge("side").length
                found.append(Trade(depth + over, cap, armhole.whole, side, height, width, rests, min(rests + LIFT, 180.0)))
        except (CannotDraft, ValueError):
            continue
    return tuple(found)
