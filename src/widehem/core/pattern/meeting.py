"""What should meet along a seam: its ends, the notches on both sides, the levels that cross it; each walked in its own
direction."""

from __future__ import annotations

from collections.abc import Iterator

from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Chain, Garment, Seam
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.values import record

NEAR = 0.05  # cm
GATHERED = 0.08  # of the shorter side: what is longer by more is gathered, or stretched
CLEAR = 1.0  # cm: a level so near an end of a seam is its end
PITCH = "pitch"


@record(frozen=True)
class Meeting:
    """Something that should meet on both sides: what, and how far along each it stands, cm. whole: lengths of both sides;
    eased: the seam is longer on one side, and may be walked from either end."""

    what: str
    first: float
    second: float
    whole: tuple[float, float] = (0.0, 0.0)
    eased: bool = False

    @property
    def apart(self) -> float:
        return apart_along(self.first, self.second, self.whole, eased=self.eased)


def apart_along(first: float, second: float, whole: tuple[float, float], *, eased: bool) -> float:
    """How far two places of a seam miss each other, so far along each side, cm. whole: the lengths of both. A seam that is eased
    may be walked from either end; one that is gathered or stretched evenly over its length has its places in proportion."""
    off = abs(first - second)
    if not eased:
        return off
    found = min(off, abs((whole[0] - first) - (whole[1] - second)))
    if abs(whole[0] - whole[1]) > GATHERED * whole[1] > 0:
        found = min(found, abs(first * whole[1] / whole[0] - second))
    return found


def notches_along(garment: Garment, chain: Chain) -> Iterator[tuple[str, int, float]]:
    """The notches of a chain of edges as it is walked: name, single or double, and how far along."""
    gone = 0.0
    for entry in chain:
        edge = garment.edge(entry)
        for notch in edge.notches:
            yield notch.name, notch.count, gone + (edge.length - notch.along if entry.back else notch.along)
        gone += edge.length


def joins_along(garment: Garment, chain: Chain) -> tuple[float, ...]:
    """Where the edges of a chain meet each other, along it."""
    gone, found = 0.0, []
    for entry in chain[:-1]:
        gone += garment.edge(entry).length
        found.append(gone)
    return tuple(found)


def levels_along(garment: Garment, chain: Chain) -> dict[str, float]:
    """Where the levels that are marked along seams cross a chain, as it is walked."""
    gone, found = 0.0, {}
    for entry in chain:
        piece, edge = garment.piece(entry.piece), garment.edge(entry)
        for line in piece.balance:
            along = _level_on(piece, edge, line) if line.notched else None
            if along is not None:
                found[line.level] = gone + (edge.length - along if entry.back else along)
        gone += edge.length
    return found


def _level_on(piece: Piece, edge: Edge, line: BalanceLine) -> float | None:
    """How far along an edge a level crosses it, cm: its outer part, where that was turned with the edge."""
    if len(line.lines) > 1:
        for (a, b), end in ((line.lines[0], 0), (line.lines[-1], 1)):
            ends = piece.stretches(line.level)
            along = edge.at_line(a, (b - a).unit()) if ends else None
            if along is not None and edge.place(along).point.to(ends[-end][end]) < NEAR:
                return along
        return None
    along = edge.at_line(*line.straight)
    if along is not None and any(line.between):  # it may end before this edge
        ends = piece.stretches(line.level)
        spot = edge.place(along).point
        return along if ends and min(spot.to(ends[0][0]), spot.to(ends[-1][1])) < NEAR else None
    return along


def meetings(garment: Garment, seam: Seam) -> list[Meeting]:
    """Everything that should meet along a seam, from its start to its end."""
    whole = garment.length_of(seam.first), garment.length_of(seam.second)

    def met(what: str, one: float, two: float) -> Meeting:
        return Meeting(what, one, two, whole, seam.eased)

    first, second = levels_along(garment, seam.first), levels_along(garment, seam.second)
    found = [
        met(f"{level} level", along, second[level])
        for level, along in first.items()
        if level in second and CLEAR < along < whole[0] - CLEAR
    ]
    found += [met(f"{name} notch", one, two) for name, one, two in pairs(garment, seam)[0]]
    ends = Meeting("start", 0.0, 0.0), Meeting("end", *whole)
    return [ends[0], *sorted(found, key=lambda meeting: meeting.first), ends[1]]


Pairs = tuple[list[tuple[str, float, float]], list[tuple[str, float, bool]]]


def pairs(garment: Garment, seam: Seam) -> Pairs:
    """The notches of a seam in pairs, name and how far along each; and those that are alone, name, how far, on the first side
    or not.

    A notch that stands where two edges of the other side meet has its partner in that joint.
    """
    waiting = list(notches_along(garment, seam.second))
    found, alone = [], []
    for name, count, along in notches_along(garment, seam.first):
        like = [entry for entry in waiting if entry[0] == name and entry[1] == count] or [
            e for e in waiting if e[0] == name != PITCH
        ]
        if like:
            other = min(like, key=lambda entry: abs(entry[2] - along))
            waiting.remove(other)
            found.append((name, along, other[2]))
        else:
            alone.append((name, along, True))
    alone += [(name, along, False) for name, _, along in waiting]
    joins = joins_along(garment, seam.first), joins_along(garment, seam.second)
    rest = []
    for name, along, first in alone:
        near = min(joins[1 if first else 0], key=lambda at: abs(at - along), default=None)
        if near is None:
            rest.append((name, along, first))
        else:
            found.append((name, along, near) if first else (name, near, along))
    return found, rest
