"""What lies inside a piece: darts pointed at both ends, lines to fold along, balance lines; and what is cut by it."""

from __future__ import annotations

from fontTools.misc.transform import Transform

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, meet
from widehem.core.values import elsewhere, record

OUTER = "cloth"  # the cloth a garment is made of


@record(frozen=True)
class Diamond:
    """A dart inside a piece, pointed at both ends. inner, outer: where it is widest, inner towards the centre."""

    name: str
    top: Point
    bottom: Point
    inner: Point
    outer: Point

    @property
    def intake(self) -> float:
        return self.inner.to(self.outer)

    @property
    def path(self) -> Path:
        return Path.through(self.top, self.inner, self.bottom, self.outer, self.top)

    def moved(self, by: Transform) -> Diamond:
        return elsewhere(self, **{name: getattr(self, name).moved(by) for name in ("top", "bottom", "inner", "outer")})

    def taken_along(self, at: Point, way: Point) -> float:
        """How much of an endless line it takes, cm."""
        along = sorted(way.dot(self.path.segments[i].at(t) - at) for i, t in self.path.crossings(at, way))
        return along[-1] - along[0] if len(along) > 1 else 0.0


@record(frozen=True)
class InnerLine:
    """A line drawn inside a piece, to fold or to lay something along. folded: what lies beyond it, as it lies once it is
    turned over it."""

    name: str
    title: str
    path: Path
    folded: Path | None = None

    def moved(self, by: Transform) -> InnerLine:
        return elsewhere(self, path=self.path.moved(by), folded=self.folded.moved(by) if self.folded else None)


@record(frozen=True)
class BalanceLine:
    """A level drawn across a piece, at which its girth is measured and by which it is matched to its neighbours.

    lines: from the middle outwards, one for each part of the piece that was turned by itself; where one ends and the next
    begins lies inside, both outer ends run on to the outline. between: names of inner lines, or of edges, at which it ends
    instead, '' for the outline. notched: it is marked along the seams that it crosses.
    """

    level: str
    lines: tuple[tuple[Point, Point], ...]
    between: tuple[str, str] = ("", "")
    notched: bool = True

    @staticmethod
    def across(level: str, y: float, *, between: tuple[str, str] = ("", ""), notched: bool = True) -> BalanceLine:
        """A level straight across, at this height of the piece's own frame."""
        return BalanceLine(level, ((Point(0.0, y), Point(1.0, y)),), between, notched)

    def moved(self, by: Transform) -> BalanceLine:
        return elsewhere(self, lines=tuple((a.moved(by), b.moved(by)) for a, b in self.lines))

    @property
    def straight(self) -> tuple[Point, Point]:
        """A point of the line and its direction, one long: of the part nearest the middle."""
        a, b = self.lines[0]
        return a, (b - a).unit()

    @property
    def height(self) -> float:
        """How far down it lies in the frame of its piece, cm."""
        return self.lines[0][0].y


Lines = tuple[tuple[Point, Point], ...]


def beside(lines: Lines, below: float) -> list[tuple[Point, Point]]:
    """The lines of a level so far (cm) below: one straight below itself, a bent row parallel to itself, meeting where it met."""
    if len(lines) == 1:
        down = Point(0.0, below)
        return [(lines[0][0] + down, lines[0][1] + down)]
    moved = []
    for a, b in lines:
        out = (b - a).unit().square()
        shift = (out if out.y > 0 else -out) * below
        moved.append((a + shift, b + shift))
    for number in range(len(lines) - 1):
        (a, b), (c, d) = moved[number], moved[number + 1]
        at = meet(a, b - a, c, d - c) if lines[number][1] == lines[number + 1][0] else None
        if at is not None and at.to(b) < abs(below):
            moved[number], moved[number + 1] = (a, at), (at, d)
    return moved


@record(frozen=True)
class Cloth:
    """What is cut by a piece from one cloth: 'lining', '2, a pair'."""

    cloth: str
    cut: str
