"""Where rules leave the chart behind: ease that a size gains or loses by them, pieces that come out longer or shorter than drawn anew."""

from __future__ import annotations

from widehem.core.grading.increments import eases
from widehem.core.grading.nest import Nest
from widehem.core.units import Saying, say

ROUND, LONG = 2.0, 3.0  # cm of ease, and of length, that are told
CURE = "There the chart grows otherwise than the table: give the spots of the table other figures from a size on, or take proposed rules."


def drifts(nest: Nest) -> tuple[Saying, ...]:
    """Of a nest by rules, for each girth the size where its ease is furthest from that of the base; and the piece and the size furthest
    from its length as it is drawn anew."""
    if nest.way != "rules" or nest.base not in nest.sizes:
        return ()
    found = [*_girths(nest), *_lengths(nest)]
    return (*found, say(CURE)) if found else ()


def _girths(nest: Nest) -> list[Saying]:
    by_size = {size: eases(one) for size, one in sorted(nest.sizes.items())}
    found = []
    for name, (usual, _) in by_size[nest.base].items():
        size, far = max(
            ((n, rows[name][0] - usual) for n, rows in by_size.items() if name in rows), key=lambda row: abs(row[1])
        )
        if abs(far) >= ROUND:
            more = "more" if far > 0 else "less"
            found.append(
                say(f"{name} in size {nest.names[size]}: {{0}}, {{1u}} {more} than in the base.", usual + far, abs(far))
            )
    return found


def _lengths(nest: Nest) -> list[Saying]:
    far, told = 0.0, (0, "")
    for size, one in nest.sizes.items():
        if one.shifted is None:
            continue
        anew = {piece.name: piece for piece in one.made.draft.garment.pieces}
        for piece in one.shifted.garment.pieces:
            if piece.name in anew:
                off = _high(piece.bounds) - _high(anew[piece.name].bounds)
                if abs(off) > abs(far):
                    far, told = off, (size, piece.title)
    if abs(far) < LONG:
        return []
    size, title = told
    way = "longer" if far > 0 else "shorter"
    return [say(f"{title} in size {nest.names[size]}: {{0u}} {way} than drawn anew.", abs(far))]


def _high(bounds: tuple[float, float, float, float]) -> float:
    return bounds[3] - bounds[1]
