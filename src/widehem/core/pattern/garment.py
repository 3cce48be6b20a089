"""A garment: pieces, and how they are sewn together. Geometry and sewing only; what it is held against are demands."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import field
from typing import NamedTuple

from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge, PatternError
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, FRONT
from widehem.core.values import kept, record, replace

OPENING_WORDS: dict[str, str] = {
    "centre_back": "centre back", "centre_front": "centre front", "side": "left side", "none": "no opening",
}  # fmt: skip


class EdgeRef(NamedTuple):
    """An edge of a piece by name."""

    piece: str
    edge: str

    def __str__(self) -> str:
        return f"{self.piece}.{self.edge}"


@record(frozen=True)
class SeamEdge:
    """An edge as a seam runs along it. back: from its end to its start."""

    piece: str
    edge: str
    back: bool = False

    @kept
    def ref(self) -> EdgeRef:
        return EdgeRef(self.piece, self.edge)

    def turned(self) -> SeamEdge:
        return replace(self, back=not self.back)

    def __str__(self) -> str:
        return f"{self.piece}.{self.edge}"


Chain = tuple[SeamEdge, ...]


@record(frozen=True)
class Seam:
    """Two chains of edges sewn together, each walked in its own direction.

    ease: how much longer the first may be, least and most, cm. faced: one piece lies on the other, edge on edge. twin: it
    is sewn to its own mirror, and both chains are one.
    """

    name: str
    title: str
    first: Chain
    second: Chain
    ease: tuple[float, float] = (0.0, 0.0)
    faced: bool = False
    twin: bool = False

    @staticmethod
    def to_its_mirror(name: str, title: str, *edges: tuple[str, str]) -> Seam:
        """A seam between the left and the right of a pair."""
        chain = tuple(SeamEdge(piece, edge) for piece, edge in edges)
        return Seam(name, title, chain, chain, twin=True)

    @property
    def chains(self) -> tuple[Chain, ...]:
        return (self.first,) if self.twin else (self.first, self.second)

    @property
    def eased(self) -> bool:
        return self.ease != (0.0, 0.0)


@record(frozen=True)
class Opening:
    """Where the garment opens from the top edge down, by the role of the edge, and how far, cm. by: what closes it, '' for a zip
    that nobody chose yet."""

    at: str
    length: float
    by: str = ""

    @staticmethod
    def named(at: str, length: float) -> tuple[Opening, ...]:
        """The openings of a setting that names a place; none is no opening. Raises KeyError for a place there is not."""
        OPENING_WORDS[at]
        return () if at == "none" else (Opening(at, length),)


@record(frozen=True)
class Garment:
    """now: what an edge of the draft has become, where that is not itself any more. Raises PatternError when it cannot be."""

    pieces: tuple[Piece, ...]
    seams: tuple[Seam, ...] = ()
    openings: tuple[Opening, ...] = ()
    now: Mapping[EdgeRef, Chain] = field(default_factory=dict)

    def __post_init__(self) -> None:
        if len(self._by_name) != len(self.pieces):
            raise PatternError("Two pieces have one name.")
        if len({seam.name for seam in self.seams}) != len(self.seams):
            raise PatternError("Two seams have one name.")
        there = {(piece.name, edge.name) for piece in self.pieces for edge in piece.edges}
        for seam in self.seams:
            for entry in (*seam.first, *seam.second):
                if (entry.piece, entry.edge) not in there:
                    raise PatternError(f"The seam {seam.title} runs along {entry}, which is not there.")
            if not seam.first or not seam.second:
                raise PatternError(f"The seam {seam.title} has one side only.")
            if seam.twin != (seam.first == seam.second):
                raise PatternError(
                    f"The seam {seam.title} is sewn to {'another edge, not its mirror' if seam.twin else 'itself'}."
                )
        for chain in self.now.values():
            for entry in chain:
                if (entry.piece, entry.edge) not in there:
                    raise PatternError(f"{entry} is not there any more.")
        for piece in self.pieces:
            if piece.fault:
                raise PatternError(piece.fault)

    @kept
    def _by_name(self) -> dict[str, Piece]:
        return {piece.name: piece for piece in self.pieces}

    def piece(self, name: str) -> Piece:
        """Raises KeyError."""
        try:
            return self._by_name[name]
        except KeyError:
            raise KeyError(f"no piece {name}") from None

    def has(self, ref: EdgeRef | SeamEdge) -> bool:
        return ref.piece in self._by_name and self._by_name[ref.piece].has(ref.edge)

    def edge(self, ref: EdgeRef | SeamEdge) -> Edge:
        return self.piece(ref.piece).edge(ref.edge)

    def left_of(self, ref: EdgeRef) -> Chain:
        """What is left of an edge of the draft, in its order; nothing when it is gone."""
        if ref in self.now:
            return self.now[ref]
        return (SeamEdge(ref.piece, ref.edge),) if self.has(ref) else ()

    def length_of(self, chain: Iterable[EdgeRef | SeamEdge]) -> float:
        """Sewn length of a chain of edges, cm."""
        return sum(self.edge(ref).length for ref in chain)

    def with_piece(self, piece: Piece) -> Garment:
        """The garment with a piece of that name replaced."""
        return replace(self, pieces=tuple(piece if old.name == piece.name else old for old in self.pieces))

    def with_pieces(self, pieces: Mapping[str, Piece]) -> Garment:
        """The garment with some of its pieces in place of those of their names."""
        return replace(self, pieces=tuple(pieces.get(piece.name, piece) for piece in self.pieces))

    # roles

    @kept
    def shell(self) -> tuple[Piece, ...]:
        """The pieces that go round the body; not what lines, faces or stiffens them."""
        return tuple(piece for piece in self.pieces if piece.layer == "shell")

    def edges_of(self, *roles: str, part: str = "") -> Iterator[tuple[Piece, Edge]]:
        """Shell edges of these roles; of one part of the garment only, where it is named."""
        for piece in self.shell:
            if not part or piece.of == part:
                for edge in piece.edges:
                    if edge.role in roles:
                        yield piece, edge

    def round_of(self, *roles: str, limb: bool = False) -> float:
        """The sewn length of these edges round the body, or round one limb, cm."""
        return sum(piece.weight(limb=limb) * edge.length for piece, edge in self.edges_of(*roles))

    def one_side(self, *roles: str, part: str = "") -> Chain:
        """Edges of these roles on one side of the body."""
        return tuple(
            SeamEdge(piece.name, edge.name)
            for piece, edge in self.edges_of(*roles, part=part)
            if piece.stands != "right" and edge.hand != "right"
        )

    @property
    def armholes(self) -> tuple[Chain, Chain] | None:
        """Front and back armhole of one side; None where one of them is missing."""
        front, back = (self.one_side("armhole", part=part) for part in (FRONT, BACK))
        return (front, back) if front and back else None

    def girth(self, level: str, *, limb: bool = False, below: float = 0.0) -> float:
        """Finished girth at a level with the darts sewn, cm: measured on the outlines. below: so far under it."""
        return sum(piece.weight(limb=limb) * piece.across(level, below) for piece in self.shell)

    def seams_at(self, ref: EdgeRef) -> Iterator[tuple[Seam, Chain, Chain]]:
        """The seams that run along an edge: the chain it is in, and the other."""
        yield from self._sewn.get((ref.piece, ref.edge), ())

    def seams_at_name(self, piece: str, edge: str) -> Iterator[tuple[Seam, Chain, Chain]]:
        """As seams_at, by the names of a piece and of its edge."""
        yield from self._sewn.get((piece, edge), ())

    @kept
    def _sewn(self) -> dict[tuple[str, str], list[tuple[Seam, Chain, Chain]]]:
        found: dict[tuple[str, str], list[tuple[Seam, Chain, Chain]]] = {}
        for seam in self.seams:
            for mine, other in ((seam.first, seam.second), (seam.second, seam.first))[: 1 if seam.twin else 2]:
                for entry in mine:
                    found.setdefault((entry.piece, entry.edge), []).append((seam, mine, other))
        return found

    def opening(self) -> Opening | None:
        """The first opening; None without any."""
        return next(iter(self.openings), None)


def start_of(garment: Garment, entry: SeamEdge) -> Point:
    """Where a seam begins to run along an edge."""
    edge = garment.edge(entry)
    return edge.end if entry.back else edge.start
