"""What is asked of a garment after a change that was meant: girths planned otherwise, places of the body that are left."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping

from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.belly import FrontArc
from widehem.core.pattern.checks.body import Girth, Length
from widehem.core.pattern.checks.held import NotchAt, OnTheBody
from widehem.core.pattern.garment import EdgeRef
from widehem.core.values import replace

Asks = Callable[[tuple[Demand, ...]], tuple[Demand, ...]]


def more_at(by: Mapping[str, float]) -> Asks:
    """Girths planned with so much more ease round the body, cm, by level."""

    def asks(demands: tuple[Demand, ...]) -> tuple[Demand, ...]:
        return tuple(
            replace(d, planned=d.planned + by[d.name]) if isinstance(d, Girth) and d.name in by and d.planned is not None else d
            for d in demands
        )

    return asks


def hangs_free(*levels: str) -> Asks:
    """Girths that are no longer planned: there the garment is as wide as it falls; it still has to have room."""

    def asks(demands: tuple[Demand, ...]) -> tuple[Demand, ...]:
        left = (d for d in demands if not (isinstance(d, FrontArc) and d.name in levels and not d.edge))
        return tuple(replace(d, planned=None) if isinstance(d, Girth) and d.name in levels and not d.edge else d for d in left)

    return asks


def without(*kinds: type[Demand]) -> Asks:
    """What is asked without these kinds."""
    return lambda demands: tuple(demand for demand in demands if not isinstance(demand, kinds))


def places_left(*marks: str) -> Asks:
    """Corners that are no longer meant to lie on these places of the body."""

    def asks(demands: tuple[Demand, ...]) -> tuple[Demand, ...]:
        return tuple(
            OnTheBody(tuple(entry for entry in d.places if entry[1] not in marks)) if isinstance(d, OnTheBody) else d
            for d in demands
        )

    return asks


def notches_left(*refs: EdgeRef) -> Asks:
    """Notches of these edges of the draft that ride along instead of standing where they were set."""
    return lambda demands: tuple(d for d in demands if not (isinstance(d, NotchAt) and d.ref in refs))


def longer(by: float, pieces: Collection[str]) -> Asks:
    """Lengths asked for of these pieces, so much longer, cm."""

    def asks(demands: tuple[Demand, ...]) -> tuple[Demand, ...]:
        return tuple(
            replace(d, wanted=d.wanted + by)
            if isinstance(d, Length) and (d.piece in pieces or any(ref.piece in pieces for ref in d.along))
            else d
            for d in demands
        )

    return asks


def also(*more: Demand) -> Asks:
    """What is asked, and more; of one kind the newer."""
    return lambda demands: (*(d for d in demands if not any(type(d) is type(new) for new in more)), *more)


def all_of(*asked: Asks | None) -> Asks:
    """One after another."""

    def asks(demands: tuple[Demand, ...]) -> tuple[Demand, ...]:
        for one in asked:
            demands = one(demands) if one is not None else demands
        return demands

    return asks
