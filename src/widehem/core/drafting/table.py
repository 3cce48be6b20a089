"""Where the pieces of a draft lie beside each other on the sheet."""

from __future__ import annotations

from collections.abc import Mapping

from fontTools.misc.transform import Transform

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.piece import Piece
from widehem.core.values import kept, record


@record(frozen=True)
class Table:
    """From the frame of each piece, by its name, to the sheet."""

    lay: Mapping[str, Transform]

    def of(self, name: str) -> Transform:
        return self.lay[name]

    def with_piece(self, name: str, lay: Transform) -> Table:
        """The table with one more piece on it."""
        return Table({**self.lay, name: lay})

    def laid(self, piece: Piece) -> Piece:
        """The piece as it lies on the sheet; laid once, it lies there."""
        own, found = self._lying.get(piece.name, (None, piece))
        if own is not piece:
            found = piece.moved(self.lay[piece.name])
            self._lying[piece.name] = piece, found
        return found

    def home(self, piece: Piece) -> Piece:
        """A piece that was drawn on the sheet in its own frame."""
        own = piece.moved(self.lay[piece.name].inverse())
        self._lying[piece.name] = own, piece
        return own

    @kept
    def _lying(self) -> dict[str, tuple[Piece, Piece]]:
        return {}

    def spot(self, name: str, point: Point) -> Point:
        return point.moved(self.lay[name])

    def path(self, name: str, path: Path) -> Path:
        return path.moved(self.lay[name])


def as_drawn(x: float = 0.0, y: float = 0.0) -> Transform:
    """A piece so far to the right and down of its own frame."""
    return Transform(1, 0, 0, 1, x, y)


def turned_over(x: float = 0.0, y: float = 0.0) -> Transform:
    """A piece turned over about its upright line x = 0, which comes to lie at x; and so far down."""
    return Transform(-1, 0, 0, 1, x, y)
