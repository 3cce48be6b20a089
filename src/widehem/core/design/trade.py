"""What the depth of an armhole and the height of a cap cost and give: sleeve width against the lift of the arm."""

from __future__ import annotations

from widehem.core.body.chart import Chart
from widehem.core.design.design import method_design
from widehem.core.design.make import make
from widehem.core.drafting.cap import rest_angle
from widehem.core.drafting.ease_plans import EasePlan, applied
from widehem.core.drafting.method import Method, armhole_of
from widehem.core.pattern.garment import Garment
from widehem.core.setting.option import Value
from widehem.core.setting.refusal import CannotDraft
from widehem.core.values import record

LIFT = 45.0  # degrees beyond its rest that an arm rises freely in a sleeve


@record(frozen=True)
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


def cap_height(garment: Garment) -> float:
    """How far a sleeve reaches above the line of its underarms, cm; 0 where there is none."""
    caps = [edge for _, edge in garment.edges_of("cap")]
    if not caps:
        return 0.0
    low = max(max(cap.start.y, cap.end.y) for cap in caps)
    return low - min(point.y for cap in caps for part in cap.parts for point in part.sketch)


def trades(chart: Chart, plan: EasePlan, bodice: Method, sleeve: Method) -> tuple[Trade, ...]:
    """The plan's armhole one centimetre higher, as it is and one deeper with a high cap; then as it is with lower caps.

    Those that cannot be drawn on this chart are left out.
    """
    depth = plan.amounts.get("depth", 2.0)
    found = []
    for over, caps in ((-1.0, ("high",)), (0.0, ("high", "middle", "low")), (1.0, ("high",))):
        ease: dict[str, Value] = {**applied(plan, bodice).ease, "depth": depth + over}
        try:
            garment = make(method_design(bodice, {}, ease), chart).garment
            armhole = armhole_of(garment)
            assert armhole is not None
            for cap in caps:
                design = method_design(sleeve, {"cap_height": cap}, dict(applied(plan, sleeve).ease))
                made = make(design, chart, armhole=armhole).garment
                height, width = cap_height(made), made.girth("bicep", limb=True)
                rests = rest_angle(height, armhole.whole)
                side = garment.length_of(garment.one_side("side", part="back"))
                found.append(Trade(depth + over, cap, armhole.whole, side, height, width, rests, min(rests + LIFT, 180.0)))
        except (CannotDraft, ValueError):
            continue
    return tuple(found)
