"""Where rules leave the chart behind: ease that a size gains or loses by them, pieces that come out longer or shorter than drawn anew."""

from __future__ import annotations

from widehem.core.grading.increments import eases
from widehem.core.grading.nest import Nest
from widehem.core.units import Saying, say
from widehem.core.values import record

ROUND, LONG = 2.0, 3.0  # cm of ease, and of length, that are told
CURE = "There the chart grows otherwise than the table: give the spots of the table other figures from a size on, or take proposed rules."


@record(frozen=True)
class Drift:
    """The ease of a girth in the size where it is furthest from that of the base: its name, the number of the size, the ease there and how
    far off that is, cm."""

    name: str
    size: int
    ease: float
    far: float


def drifts(nest: Nest) -> tuple[Saying, ...]:
    """Of a nest by rules, for each girth the size where its ease is furthest from that of the base; and the piece and the size furthest
    from its length as it is drawn anew."""
    found = [
        say(
            f"{one.name} in size {nest.names[one.size]}: {{0}}, {{1u}} {_way(one.far)} than in the base.",
            one.ease,
            abs(one.far),
        )
        for one in girths(nest)
    ]
    found += _lengths(nest)
    return (*found, say(CURE)) if found else ()


def girths(nest: Nest) -> tuple[Drift, ...]:
    """The girths of a nest by rules whose ease drifts, each in the size where it does most."""
    if nest.way != "rules" or nest.base not in nest.sizes:
        return ()
    by_size = {size: eases(one) for size, one in sorted(nest.sizes.items())}
    found = []
    for name, (usual, _) in by_size[nest.base].items():
        size, far = max(
            ((n, rows[name][0] - usual) for n, rows in by_size.items() if name in rows), key=lambda row: abs(row[1])
        )
        if abs(far) >= ROUND:
            found.append(Drift(name, size, usual + far, far))
    return tuple(found)


def _way(far: float) -> str:
    return "more" if far > 0 else "less"


def _lengths(nest: Nest) -> list[Saying]:
    if nest.way != "rules":
        return []
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
