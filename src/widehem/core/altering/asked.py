"""What is asked of a garment after an alteration: what was planned, and what was asked of it on the body."""

from __future__ import annotations

from collections.abc import Mapping

from widehem.core.pattern.check import Case, Demand
from widehem.core.pattern.checks.belly import FrontArc, front_drawn
from widehem.core.pattern.checks.body import Girth, Length, finished, length_drawn
from widehem.core.pattern.checks.lower import CrotchSeam
from widehem.core.pattern.checks.sleeve import CapFits
from widehem.core.pattern.garment import Garment
from widehem.core.style.asks import Asks
from widehem.core.values import replace


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


def planned_more(by: Mapping[str, float], front: float) -> Asks:
    """Girths planned with so much more round the body, cm, by level, and their front arcs with that part of it: what was asked for, not what
    came of it. Of a limb half of it."""

    def again(demand: Demand) -> Demand:
        if isinstance(demand, Girth) and demand.name in by and demand.planned is not None:
            return replace(demand, planned=demand.planned + by[demand.name] / (2 if demand.limb else 1))
        if isinstance(demand, FrontArc) and demand.name in by:
            return replace(demand, ease=demand.ease + by[demand.name] * front)
        return demand

    return lambda demands: tuple(again(demand) for demand in demands)


def lengths_anew(before: Garment, now: Garment) -> Asks:
    """Lengths, the crotch seam and the cap, asked for by as much more as the alteration made them: what was right stays right, and what was
    wrong stays wrong by as much."""

    def again(demand: Demand) -> Demand:
        if isinstance(demand, Length):
            one, two = (length_drawn(garment, demand) for garment in (before, now))
            return demand if one is None or two is None else replace(demand, wanted=demand.wanted + two[0] - one[0])
        if isinstance(demand, CrotchSeam):
            by = _longer(before, now, "crotch")
            return replace(demand, least=demand.least + by, most=demand.most + by)
        if isinstance(demand, CapFits) and demand.wanted is not None:
            return replace(demand, wanted=demand.wanted + _longer(before, now, "cap"))
        return demand

    return lambda demands: tuple(again(demand) for demand in demands)


def _longer(before: Garment, now: Garment, role: str) -> float:
    """How much longer the edges of a role are on one side, cm."""
    return now.length_of(now.one_side(role)) - before.length_of(before.one_side(role))
