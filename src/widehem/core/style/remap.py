"""What follows when edges of a garment are cut, joined or gone: seams and the memory of the draft are rewritten, nowhere
else."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from itertools import accumulate

from widehem.core.pattern.edge import Notch
from widehem.core.pattern.garment import Chain, EdgeRef, Garment, Opening, Seam, SeamEdge
from widehem.core.pattern.meeting import joins_along
from widehem.core.pattern.piece import Piece
from widehem.core.values import replace

MATCH = 0.15  # cm: both sides of a seam that break so near each other are two seams now


def remapped(
    before: Garment, pieces: tuple[Piece, ...], seams: Iterable[Seam], openings: tuple[Opening, ...],
    renamed: Mapping[EdgeRef, Chain], dropped: Iterable[EdgeRef] = (),
) -> Garment:  # fmt: skip
    """The garment after an operation, its seams and `now` in the names that its edges have now.

    before: the garment it was made from. seams: as they were, with new ones beside them.
    """
    gone = tuple(dropped)
    became: dict[EdgeRef, Chain] = {**dict.fromkeys(gone, ()), **renamed}
    named = {piece.name: piece for piece in pieces}
    found: list[Seam] = []
    for seam in seams:
        first, second = (_chain(chain, became) for chain in (seam.first, seam.second))
        if (first, second) == (seam.first, seam.second):
            found.append(seam)
        elif first and second:
            found += _broken(named, replace(seam, first=first, second=second))
    found = _rejoined(found) if gone else found
    return Garment(pieces, tuple(found), openings, _now(before, became))


def _chain(chain: Chain, became: Mapping[EdgeRef, Chain]) -> Chain:
    """A chain in the names that its edges have now. became: of those that changed, what they are now; nothing for those gone."""
    if became.keys().isdisjoint([entry.ref for entry in chain]):
        return chain
    found: list[SeamEdge] = []
    for entry in chain:
        new = became.get(entry.ref, (entry,))
        found += [part.turned() for part in reversed(new)] if entry.back and entry.ref in became else new
    return _once(found)


def _once(entries: Iterable[SeamEdge]) -> Chain:
    """A chain in which an edge that two others have become stands once."""
    return tuple({entry.ref: entry for entry in entries}.values())


def _rejoined(seams: list[Seam]) -> list[Seam]:
    """Seams that run along one edge now, since it was laid together again, as one."""
    found: list[Seam] = []
    for seam in seams:
        for number, other in enumerate(found):
            for mine, theirs in ((seam.first, other.first), (seam.second, other.second)):
                if {e.ref for e in mine} & {e.ref for e in theirs} and not (
                    seam.twin or other.twin or seam.faced or other.faced
                ):
                    ease = other.ease[0] + seam.ease[0], other.ease[1] + seam.ease[1]
                    found[number] = replace(
                        other, first=_once((*other.first, *seam.first)), second=_once((*other.second, *seam.second)), ease=ease
                    )
                    break
            else:
                continue
            break
        else:
            found.append(seam)
    return found


def _joins(lengths: list[float]) -> list[float]:
    """Where edges that follow each other meet, along them."""
    return list(accumulate(lengths[:-1]))


def _broken(pieces: Mapping[str, Piece], seam: Seam) -> list[Seam]:
    """A seam whose edges have been cut: several where both sides break at matching places, its ease shared by length."""
    if seam.twin:
        return [
            replace(seam, first=(entry,), second=(entry,), name=seam.name if n == 1 else f"{seam.name}_{n}")
            for n, entry in enumerate(seam.first, 1)
        ]
    if len(seam.first) != len(seam.second) or len(seam.first) < 2:
        return [seam]
    first, second = ([pieces[entry.piece].edge(entry.edge).length for entry in chain] for chain in (seam.first, seam.second))
    whole = sum(second)
    shift = sum(first) - whole
    if any(abs(a - b - shift * b / whole) > MATCH for a, b in zip(_joins(first), _joins(second), strict=True)):
        return [seam]
    found = []
    for number, (one, two) in enumerate(zip(seam.first, seam.second, strict=True), 1):
        share = second[number - 1] / whole
        ease = seam.ease[0] * share, seam.ease[1] * share
        found.append(
            replace(seam, name=seam.name if number == 1 else f"{seam.name}_{number}", first=(one,), second=(two,), ease=ease)
        )
    return found


def _now(before: Garment, became: Mapping[EdgeRef, Chain]) -> dict[EdgeRef, Chain]:
    """What the edges of the draft have become: those that had changed before, and those that change now."""
    now: dict[EdgeRef, Chain] = {}
    later = {entry.ref for chain in before.now.values() for entry in chain}
    for ref in {*before.now, *became}:
        if ref in before.now:
            now[ref] = _chain(before.now[ref], became)
        elif ref not in later:
            now[ref] = became[ref]
    return now


def free_name(taken: Iterable[str], wanted: str) -> str:
    """The name, or the next that is free: 'panel', 'panel_2', 'panel_3'."""
    known, number, name = set(taken), 2, wanted
    while name in known:
        name, number = f"{wanted}_{number}", number + 1
    return name


def joint_notches(garment: Garment, seam: Seam) -> tuple[Notch, ...]:
    """Notches for the second side of a seam, where the edges of the first side meet."""
    return tuple(
        Notch(f"{seam.name} joint {number}", along) for number, along in enumerate(joins_along(garment, seam.first), 1)
    )
