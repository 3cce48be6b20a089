"""What is asked of a garment after an alteration: what was planned, and what was asked of it on the body."""

from __future__ import annotations

from dataclasses import replace

from widehem.core.pattern.check import Case, Demand
from widehem.core.pattern.checks.belly import FrontArc, front_drawn
from widehem.core.pattern.checks.body import Girth, finished
from widehem.core.pattern.garment import Garment
from widehem.core.style.asks import Asks


def planned_anew(before: Garment, now: Garment, *levels: str) -> Asks:
    """Girths and front arcs at these levels, planned by what the alteration meant to change there. A level that is not named is held
    to what was planned before: an alteration that moves it has gone wrong."""
    one, two = Case(before), Case(now)

    def again(demand: Demand) -> Demand:
        if isinstance(demand, Girth) and demand.name in levels and demand.planned is not None:
            return replace(demand, planned=demand.planned + finished(two, demand) - finished(one, demand))
        if isinstance(demand, FrontArc) and demand.name in levels:
            return replace(demand, ease=demand.ease + front_drawn(two, demand)[0] - front_drawn(one, demand)[0])
        return demand

    return lambda demands: tuple(again(demand) for demand in demands)
