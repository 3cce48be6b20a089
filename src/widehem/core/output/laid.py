"""The pieces of a pattern where they lie on the paper: side by side in a row, or arranged to save it."""

from __future__ import annotations

from fontTools.misc.transform import Transform

from widehem.core.geometry.points import Point
from widehem.core.marking.made import Pattern
from widehem.core.marking.piece import MarkedPiece
from widehem.core.output.ink import Ink, ink_of
from widehem.core.values import kept, record, replace

GAPS = (2.0, 1.5, 1.0, 0.6)  # cm between pieces on the paper, the most comfortable first
EDGE = 0.2  # cm between the outermost pieces and the edge of the work


@record(frozen=True)
class Laid:
    """A marked piece where it lies on the paper, cm of the garment. turned: by how many quarters."""

    marked: MarkedPiece
    turned: int = 0

    @property
    def cut(self) -> tuple[Point, ...]:
        return self.marked.cut

    @kept
    def ink(self) -> list[Ink]:
        return ink_of(self.marked)


@record(frozen=True)
class Layout:
    """All pieces on one paper, with its size, cm of the garment."""

    pieces: tuple[Laid, ...]
    width: float
    height: float

    def on_paper(self, scale: float, said: str, borders: tuple[tuple[Point, Point], ...] = ()) -> Layout:
        """With its words placed for paper: off these borders, large enough to be read at this scale, which they say."""
        factor = READABLE.get(scale, 1.0)
        pieces = tuple(
            replace(laid, marked=replace(laid.marked, label=_with(laid.marked.label, said), borders=borders, factor=factor))
            for laid in self.pieces
        )
        return replace(self, pieces=pieces)


READABLE = {0.5: 1.5, 0.25: 2.4, 0.2: 2.8}  # by scale: how many times as large letters are drawn on the garment


def _with(label: tuple[tuple[str, ...], tuple[str, ...]], said: str) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """A label that says its scale too."""
    full, short = label
    return (*full[:-1], f"{full[-1]} · {said}"), short


def placed(marked: MarkedPiece, left: float, top: float, turned: int = 0) -> Laid:
    """A piece turned by so many quarters with the upper left corner of what it takes at a place, cm."""
    quarter = marked.moved(QUARTERS[turned]) if turned else marked
    x, y, _, _ = quarter.bounds
    return Laid(quarter.moved(Transform().translate(left - x, top - y)), turned)


QUARTERS = (
    Transform(), Transform(0.0, 1.0, -1.0, 0.0, 0.0, 0.0), Transform(-1.0, 0.0, 0.0, -1.0, 0.0, 0.0), Transform(0.0, -1.0, 1.0, 0.0, 0.0, 0.0),
)  # fmt: skip


def in_a_row(pattern: Pattern, gap: float = GAPS[0]) -> Layout:
    """Pieces in a row, in the order of the draft."""
    laid, x, height = [], EDGE, 0.0
    for marked in pattern.pieces:
        left, top, right, bottom = marked.bounds
        laid.append(placed(marked, x, EDGE))
        x += right - left + gap
        height = max(height, bottom - top)
    return Layout(tuple(laid), x - gap + EDGE, height + 2 * EDGE)
