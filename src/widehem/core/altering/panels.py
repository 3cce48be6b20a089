"""More or less cup where the front is cut in panels: the seam over the bust is let out at the side panel, and the panel before it grows
as long."""

from __future__ import annotations

import math

from widehem.core.altering.cut import moved_out
from widehem.core.altering.halves import Gathered, Half, outline
from widehem.core.geometry.points import Point
from widehem.core.pattern.garment import EdgeRef, Garment
from widehem.core.pattern.roles import FRONT
from widehem.core.style.operation import CannotStyle
from widehem.core.units import say
from widehem.core.values import replace

FADED = 14.0  # cm above and below the bust point over which it runs to nothing
SHORT = 4.0  # cm of the seam at least on either side of the bust point
EVERY = 1.5  # cm between the places that are drawn
TRUE = 0.005  # cm that the two sides of the seam may part by


def panel_seam(garment: Garment, half: Half) -> tuple[str, Half, str] | None:
    """The edge of a side panel that runs over the bust, with the panel it is sewn to and the edge there; None where there is none."""
    for edge in half.piece.edges:
        if edge.role != "panel" or not half.has(edge):
            continue
        for _, mine, other in garment.seams_at(EdgeRef(half.piece.name, edge.name)):
            if len(mine) == 1 and len(other) == 1:
                partner = garment.piece(other[0].piece)
                if partner.of == FRONT and partner.name != half.piece.name:
                    return edge.name, Half(partner, half.hand), other[0].edge
    return None


def fuller(garment: Garment, half: Half, by: float) -> tuple[Garment, float]:
    """The garment with the seam out by so much at the bust point, cm, and how much longer the panel before it is for it. Raises
    CannotStyle."""
    found = panel_seam(garment, half)
    point = half.piece.marks["bust_point"]
    edge = half.piece.edge(found[0]) if found else None
    along = edge.at_level(point.y) if edge is not None else None
    if found is None or edge is None or along is None:
        raise CannotStyle(
            say("This front runs on below the waist and has no seam over the bust: let it out along its seams instead.")
        )
    under = half.piece.marks.get("under_bust")  # where the cup ends
    below = edge.at_level(under.y) if under is not None else None
    up, down = min(FADED, along), min(FADED if below is None else below - along, edge.length - along)
    if min(up, down) < SHORT:
        raise CannotStyle(say("The seam runs only {0} beyond the bust point: there is no room to let it out.", min(up, down)))
    count = max(int((up + down) / EVERY), 8)
    places = [along - up + (up + down) * n / count for n in range(count + 1)]
    rows = [(at, by * math.cos(math.pi / 2 * (at - along) / (up if at < along else down)) ** 2) for at in places]
    ends = [(0.0, 0.0)] if rows[0][0] > 0.0 else [], [(edge.length, 0.0)] if rows[-1][0] < edge.length else []
    now = moved_out(garment, half.piece, edge, [*ends[0], *rows, *ends[1]])
    grew = now.piece(half.piece.name).edge(edge.name).length - edge.length
    _, other, name = found
    was, lift = other.piece.edge(name).length, grew
    for _ in range(6):
        lifted = _lifted(now, other, point.y, lift)
        short = grew - (lifted.piece(other.piece.name).edge(name).length - was)
        if abs(short) < TRUE:
            break
        lift += short
    return _notched(lifted, EdgeRef(half.piece.name, edge.name), EdgeRef(other.piece.name, name)), lift


def _notched(garment: Garment, mine: EdgeRef, other: EdgeRef) -> Garment:
    """The notches of the other side of the seam where those of this side lie along it."""
    one, two = garment.edge(mine), garment.edge(other)
    for _, ours, theirs in garment.seams_at(mine):
        if theirs[0].ref != other or len(one.notches) != len(two.notches):
            continue
        turned = ours[0].back != theirs[0].back
        alongs = sorted(two.length - n.along if turned else n.along for n in one.notches)
        notches = (replace(n, along=along) for n, along in zip(sorted(two.notches, key=lambda n: n.along), alongs, strict=True))
        garment = garment.with_piece(garment.piece(other.piece).with_edge(replace(two, notches=tuple(notches))))
    return garment


def _lifted(garment: Garment, half: Half, height: float, by: float) -> Garment:
    """The panel cut across at a height and spread by so much."""
    gathered, mine = Gathered(garment), Half(garment.piece(half.piece.name), half.hand)
    for target, at in outline(mine):
        gathered.put(mine, target, Point(0.0, -by) if at.y < height else Point(0.0, 0.0))
    for name in mine.piece.levels:
        line = mine.piece.level(name)
        if line is None or line.height < height + SHORT:
            continue
        for edge in mine.piece.edges:
            along = edge.at_line(*line.straight) if mine.has(edge) else None
            gathered.hold(mine, None if along is None else mine.on(edge, along))
    return gathered.done()
