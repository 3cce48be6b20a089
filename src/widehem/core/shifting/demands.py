"""What is asked of a garment whose places moved: the body and the wishes, not the drawing of it; and its notches laid again."""

from __future__ import annotations

from collections.abc import Iterable

from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.belly import FrontArc
from widehem.core.pattern.checks.body import Girth, Length
from widehem.core.pattern.checks.held import NotchAt
from widehem.core.pattern.checks.sleeve import CapFits, CapLies
from widehem.core.pattern.garment import EdgeRef, Garment
from widehem.core.pattern.meeting import PITCH
from widehem.core.pattern.places import on_one_side
from widehem.core.values import replace

OF_THE_DRAWING = (
    FrontArc,
    Length,
    CapLies,
)  # what the drawing of a size would be: rules may come to something else, the table says by how much


def asked_in_size(demands: Iterable[Demand]) -> tuple[Demand, ...]:
    """The demands of a size for a garment that was shifted into it: ease is what it comes to, and must still be room enough."""
    found: list[Demand] = []
    for demand in demands:
        if isinstance(demand, Girth):
            found.append(replace(demand, planned=None, wish=None, because=""))
        elif not isinstance(demand, OF_THE_DRAWING):
            found.append(demand)
    return tuple(found)


def notches_laid(garment: Garment, demands: Iterable[Demand]) -> Garment:
    """The garment with the notches that were set, in centimetres or as a part of an edge, where they are set in this size."""
    alike: dict[tuple[EdgeRef, str, int], list[NotchAt]] = {}
    for demand in demands:
        if isinstance(demand, NotchAt):
            alike.setdefault((demand.ref, demand.name, demand.count), []).append(demand)
        elif isinstance(demand, CapFits) and demand.pitch is not None:
            garment = _pitched(garment, demand.pitch)
    for asked in alike.values():
        garment = _laid(garment, asked)
    return garment


def _laid(garment: Garment, asked: list[NotchAt]) -> Garment:
    """Notches of one name on one edge, each where one of these demands it, in their order."""
    chain = on_one_side(garment, asked[0].ref)
    if len(chain) != 1:
        return garment
    entry, edge = chain[0], garment.edge(chain[0])
    alongs = []
    for one in asked:
        along = one.along if one.along is not None else (one.part or 0.0) * edge.length
        alongs.append(along if (one.end == "start") != entry.back else edge.length - along)
    mine = sorted(
        (notch for notch in edge.notches if (notch.name, notch.count) == (asked[0].name, asked[0].count)), key=lambda n: n.along
    )
    if len(mine) != len(alongs) or not all(0.0 <= along <= edge.length for along in alongs):
        return garment
    where = dict(zip((id(notch) for notch in mine), sorted(alongs), strict=True))
    notches = tuple(replace(notch, along=where[id(notch)]) if id(notch) in where else notch for notch in edge.notches)
    return garment.with_piece(garment.piece(entry.piece).with_edge(replace(edge, notches=notches)))


def _pitched(garment: Garment, pitch: tuple[float, float]) -> Garment:
    """Pitch notches of a cap as far from the underarm as they are in the armhole, back and front."""
    chain = garment.one_side("cap")
    if len(chain) != 1:
        return garment
    edge = garment.edge(chain[0])
    where = {2: pitch[0], 1: edge.length - pitch[1]}
    if chain[0].back:
        where = {count: edge.length - along for count, along in where.items()}
    notches = tuple(replace(n, along=where[n.count]) if n.name == PITCH and n.count in where else n for n in edge.notches)
    return garment.with_piece(garment.piece(chain[0].piece).with_edge(replace(edge, notches=notches)))
