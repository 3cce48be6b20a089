"""The pieces of a draft with what holds them together: seams, levels, openings, notches, and what they are held against."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from widehem.core.pattern.piece import Piece
from widehem.core.pattern.wear import USUAL_WEAR, Wear
from widehem.core.units import Saying

Side = Literal["centre_back", "centre_front", "side", "none"]
OPENING_WORDS: dict[str, str] = {
    "centre_back": "centre back", "centre_front": "centre front", "side": "left side", "none": "no opening",
}  # fmt: skip


@dataclass(frozen=True)
class EdgeName:
    """An edge of a piece by name."""

    piece: str
    edge: str


@dataclass(frozen=True)
class Seam:
    """Two chains of edges sewn together. ease: how much longer the first may be, least and most, cm.

    against: the second runs from its end to its start. faced: one piece lies on the other, edge on edge.
    """

    name: str
    title: str
    first: tuple[EdgeName, ...]
    second: tuple[EdgeName, ...]
    ease: tuple[float, float] = (0.0, 0.0)
    against: bool = False
    faced: bool = False


@dataclass(frozen=True)
class Level:
    """A level at which the finished girth is held against the body.

    edge: the girth is the sewn length of this edge; '' means straight across the pieces at their level of that name.
    body, planned, least: body girth, planned ease and least wearing ease round the body, cm. slack: how far the drawn
    girth may lie from what was planned. around: how often the pieces go round; a sleeve once. gap: what stands open under a lacing.
    """

    name: str
    title: str
    body: float
    planned: float
    least: float
    slack: float
    edge: str = ""
    around: int = 2
    gap: float = 0.0


@dataclass(frozen=True)
class Opening:
    """Where the garment opens from the top edge down, and how far, cm."""

    at: Side
    length: float

    @staticmethod
    def named(at: str, length: float) -> Opening:
        """An opening at a place as a setting names it; none has no length. Raises KeyError for a place there is not."""
        sides: dict[str, Side] = {"centre_back": "centre_back", "centre_front": "centre_front", "side": "side", "none": "none"}
        return Opening(sides[at], 0.0 if at == "none" else length)


@dataclass(frozen=True)
class PitchNotch:
    """A notch at a distance (cm) along an edge from its start, single or double, that meets one on another piece."""

    piece: str
    edge: str
    along: float
    what: str
    count: int = 1


@dataclass(frozen=True)
class Fork:
    """What trousers must do between the legs, cm. least, most: length of the whole crotch seam; read: whether that was measured.

    front, back: how far the middle between side and fork lies from the crease, towards the fork. foot: what must pass a hem. knee: girth of
    the knee, where it was read.
    """

    least: float
    most: float
    read: bool
    front: float
    back: float
    foot: float
    knee: float | None = None


@dataclass(frozen=True)
class CapFit:
    """What a sleeve cap is for, cm. armhole: its length; wanted: ease; share: of the ease of a high cap. own: least and most of a kind
    of head for which the cloth does not decide."""

    armhole: float
    wanted: float
    share: float = 1.0
    own: tuple[float, float] | None = None


@dataclass(frozen=True)
class Block:
    """The pieces of a draft with what holds them together.

    passes: the body girth that must get through (cm) and its name. stride: the least girth the hem should have to
    walk, or None when it cannot be told. armhole: front and back edge of it. neck, armscye: body girths the neckline and
    the armhole are held against. pitch: notches besides those of levels and darts. cap: what a
    sleeve cap should be. hand: what must pass the hem of a sleeve. fork: of trousers. wear: the cloth, and what is worn underneath.
    front_over: how much longer the front armhole may be, where that is the school's own; room: how much both together may be
    over the armscye. head: what must pass the neck. reach: how long the opening must be, from the neck, to get in. seat: what a
    closed suit has in the length to sit and reach. clears: how far the hem ends above the floor. hem_rise: how much it rises to the sides on purpose. notions: what
    is needed besides cloth, of its own kind.
    """

    pieces: tuple[Piece, ...]
    seams: tuple[Seam, ...] = ()
    levels: tuple[Level, ...] = ()
    opening: Opening | None = None
    passes: tuple[str, float] | None = None
    stride: float | None = None
    armhole: tuple[EdgeName, EdgeName] | None = None
    neck: float | None = None
    armscye: float | None = None
    pitch: tuple[PitchNotch, ...] = ()
    cap: CapFit | None = None
    hand: float | None = None
    fork: Fork | None = None
    wear: Wear = USUAL_WEAR
    front_over: float | None = None
    room: tuple[float, float] = (2.5, 11.0)
    head: float | None = None
    reach: float | None = None
    seat: float | None = None
    clears: float | None = None
    hem_rise: float = 0.0
    notions: tuple[Saying, ...] = ()

    def piece(self, name: str) -> Piece:
        for piece in self.pieces:
            if piece.name == name:
                return piece
        raise KeyError(f"no piece {name}")

    def length_of(self, chain: tuple[EdgeName, ...]) -> float:
        """Sewn length of a chain of edges, cm."""
        return sum(self.piece(ref.piece).edge(ref.edge).length for ref in chain)

    def girth(self, level: Level) -> float:
        """Finished girth round the body at a level, darts taken out, cm."""
        if level.edge:
            drawn = sum(e.length for piece in self.pieces for e in piece.edges if e.name == level.edge)
        else:
            drawn = sum(piece.span(level.name) for piece in self.pieces if level.name in piece.levels)
        return level.around * drawn + level.gap

    def girth_below(self, top: str, down: float) -> float:
        """Finished girth this far (cm) below the named level."""
        return 2 * sum(piece.width_at(piece.levels[top] + down) for piece in self.pieces if top in piece.levels)
