"""Lines that are sewn, and a garment seen as all of them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Literal

from widehem.core.pattern.closed import Corner, corner_of
from widehem.core.pattern.garment import Chain, EdgeRef, Garment
from widehem.core.pattern.piece import Piece
from widehem.core.values import kept, record

Way = Literal["seam", "rim", "fell"]


@record(frozen=True)
class Join:
    """A line that is sewn, its two sides walked alike.

    way: a seam; a rim, where layers are sewn edge on edge and turned; felled, by hand over a seam that is there. layer: the
    lowest one it belongs to, '' for the outside. like: the line of the outside that it repeats inside. twin: it is sewn to
    its own mirror. ease: how much longer the first is, cm. shut: how much of it is left open for a closing, cm.
    """

    id: str
    title: str
    first: Chain
    second: Chain
    way: Way = "seam"
    layer: str = ""
    like: str = ""
    twin: bool = False
    ease: float = 0.0
    shut: float = 0.0

    @property
    def sides(self) -> tuple[Chain, ...]:
        return (self.first,) if self.twin else (self.first, self.second)

    @kept
    def refs(self) -> tuple[EdgeRef, ...]:
        """The edges it runs along."""
        return tuple(entry.ref for chain in self.sides for entry in chain)

    @kept
    def pieces(self) -> tuple[str, ...]:
        """The pieces it joins, by name."""
        return tuple(dict.fromkeys(ref.piece for ref in self.refs))


@record(frozen=True)
class Sewn:
    """A garment as it is sewn: its lines, which edges inside lie along which of the outside; parts that are made up by
    themselves, by the names of their pieces."""

    garment: Garment
    joins: tuple[Join, ...]
    over: Mapping[EdgeRef, EdgeRef]
    parts: Mapping[str, str]

    @kept
    def at(self) -> dict[EdgeRef, list[Join]]:
        """The lines that run along an edge, those felled by hand left out."""
        found: dict[EdgeRef, list[Join]] = {}
        for join in self.joins:
            if join.way != "fell":
                for ref in join.refs:
                    found.setdefault(ref, []).append(join)
        return found

    def corner(self, chain: Chain, *, at_end: bool) -> Corner:
        """The corner in which a side ends, or begins."""
        entry = chain[-1 if at_end else 0]
        key = entry.piece, entry.edge, entry.back, at_end
        found = self._corners.get(key)
        if found is None:
            found = self._corners[key] = corner_of(self.garment, (entry,), at_end=at_end)
        return found

    @kept
    def _corners(self) -> dict[tuple[str, str, bool, bool], Corner]:
        return {}

    @kept
    def beyond(self) -> dict[EdgeRef, list[tuple[Join, bool]]]:
        """By an edge, the lines that end at it; and whether that is at their end."""
        found: dict[EdgeRef, list[tuple[Join, bool]]] = {}
        for join in self.joins:
            for chain in join.sides:
                for at_end in (False, True):
                    corner = self.corner(chain, at_end=at_end)
                    found.setdefault(EdgeRef(corner.piece.name, corner.beyond.name), []).append((join, at_end))
        return found

    @kept
    def by_id(self) -> dict[str, Join]:
        return {join.id: join for join in self.joins}

    def length(self, join: Join) -> float:
        """How long it is, as it is sewn on one side of the body, cm."""
        if join.id not in self._lengths:
            self._lengths[join.id] = max(0.0, self.garment.length_of(join.first) - join.shut)
        return self._lengths[join.id]

    @kept
    def _lengths(self) -> dict[str, float]:
        return {}

    def title_of(self, name: str) -> str:
        """A piece as it is called."""
        return self.garment.piece(name).title


def grouped(names: Iterable[str], pairs: Iterable[tuple[str, str]]) -> dict[str, str]:
    """Which of these belong together, each by the name of one of them."""
    group = {name: name for name in names}

    def root(name: str) -> str:
        while group[name] != name:
            name = group[name]
        return name

    for one, two in pairs:
        if one in group and two in group:
            group[root(one)] = root(two)
    return {name: root(name) for name in group}


def small(piece: Piece) -> bool:
    """Whether a piece goes round no part of the body by itself: a band, a collar, a cuff, a frill."""
    return not piece.balance and not any(edge.role in ROUND for edge in piece.edges)


ROUND = ("shoulder", "armhole", "side", "inseam", "crotch", "cap", "underarm", "waist_seam", "gore")


def lowered(title: str) -> str:
    """A title within a sentence."""
    return title[:1].lower() + title[1:]
