"""Pieces in frames of their own: a ring of named edges, balance lines across it, marks of the body on it.

Everything downstream speaks of piece + edge + place along it, or of roles; never of coordinates, never of where a piece lies.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import field
from itertools import pairwise
from typing import Any, ClassVar, Literal

from fontTools.misc.transform import Identity, Transform
from fontTools.pens.areaPen import AreaPen
from shapely import LinearRing, Polygon, get_exterior_ring, is_simple, linearrings, polygons

from widehem.core.geometry.curves import Line, Segment
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, is_rigid, rows
from widehem.core.pattern.edge import MEETS, Dart, Edge, PatternError
from widehem.core.pattern.inside import BalanceLine, Cloth, Diamond, InnerLine, beside
from widehem.core.values import elsewhere, kept, record, replace

Layer = Literal["shell", "facing", "lining", "interfacing", "inside"]
Stands = Literal["pair", "fold", "left", "right", "once"]
RIM = 0.02  # cm that the outline may be off where it is asked what lies on it
AT_CORNER, AT_JOINT = 0.02, 1e-4  # cm: a level that passes a corner, or a joint within an edge, so near goes through it
OF_THE_OUTLINE = ("ring", "open_by", "sketch", "rim", "surface", "simple", "bounds", "area", "clockwise", "sewn_ring", "_rail")
HOW_OFTEN: Mapping[str, int] = {"pair": 2, "fold": 2, "left": 1, "right": 1, "once": 1}
ON_ONE_SIDE: Mapping[str, int] = {"pair": 1, "fold": 2, "left": 1, "right": 0, "once": 1}


@record(frozen=True)
class Piece:
    """A closed piece, x outwards from the middle of the body and y down it.

    edges: in order round the outline. of: the part of the garment it belongs to (front, back, sleeve ...). balance: levels
    drawn across it. layer: what it is a piece of. stands: a mirrored pair, half of one on the fold, one for one side, or
    once. middle: the edge along the middle of the body, '' when it has none. marks: places of the body on it. grain: where
    it does not follow from the middle. diamonds, lines, holes: darts, lines and eyelets inside it. cloths: what is cut by
    it, where that is more than one. serves: the piece that it lines, faces or stiffens, or is set on, by name. Raises
    PatternError.
    """

    name: str
    title: str
    edges: tuple[Edge, ...]
    of: str = ""
    balance: tuple[BalanceLine, ...] = ()
    layer: Layer = "shell"
    stands: Stands = "pair"
    middle: str = ""
    marks: Mapping[str, Point] = field(default_factory=dict)
    grain: tuple[Point, Point] | None = None
    diamonds: tuple[Diamond, ...] = ()
    lines: tuple[InnerLine, ...] = ()
    holes: tuple[Point, ...] = ()
    cloths: tuple[Cloth, ...] = ()
    serves: str = ""
    STAYS: ClassVar = (("edges",), (*OF_THE_OUTLINE, "_by_name", "darts"))

    def __post_init__(self) -> None:
        if not self.of:
            object.__setattr__(self, "of", self.name)
        names = [edge.name for edge in self.edges]
        if not names or len(set(names)) != len(names):
            raise PatternError(f"The {self.name} has {'two edges of one name' if names else 'no edges'}.")
        if not self.open_by <= MEETS:
            raise PatternError(f"The outline of the {self.name} is open by {self.open_by:.3g}.")
        if self.middle and self.middle not in names:
            raise PatternError(f'The {self.name} has no edge "{self.middle}" to lie along the middle.')
        levels = [line.level for line in self.balance]
        darts = [gap.name for edge in self.edges for gap in edge.gaps]
        for what, found in (("levels", levels), ("darts", darts)):
            if len(set(found)) != len(found):
                raise PatternError(f"Two {what} of the {self.name} have one name.")
        inner = {line.name for line in self.lines} | set(names)
        for line in self.balance:
            if any(name and name not in inner for name in line.between):
                raise PatternError(f"The {line.level} level of the {self.name} ends at a line that is not there.")

    def moved(self, by: Transform) -> Piece:
        """The piece lying elsewhere; it may be turned or turned over."""
        if by == Identity:
            return self
        found = elsewhere(
            self,
            edges=tuple(edge.moved(by) for edge in self.edges),
            balance=tuple(line.moved(by) for line in self.balance),
            marks={name: mark.moved(by) for name, mark in self.marks.items()},
            grain=(self.grain[0].moved(by), self.grain[1].moved(by)) if self.grain else None,
            diamonds=tuple(diamond.moved(by) for diamond in self.diamonds),
            lines=tuple(line.moved(by) for line in self.lines),
            holes=tuple(hole.moved(by) for hole in self.holes),
        )
        if is_rigid(by):
            for name in ("simple", "area"):
                if name in self.__dict__:
                    found.__dict__[name] = self.__dict__[name]
            found.__dict__["_cloth"] = self._cloth
        return found

    def with_on_it(self, **changed: Any) -> Piece:
        """The piece with everything changed but where its edges run; what was worked out about its outline stays."""
        found = elsewhere(self, **changed)
        found.__dict__.update({name: self.__dict__[name] for name in OF_THE_OUTLINE if name in self.__dict__})
        found.__post_init__()
        return found

    @kept
    def _by_name(self) -> dict[str, int]:
        return {edge.name: number for number, edge in enumerate(self.edges)}

    def edge(self, name: str) -> Edge:
        """Raises KeyError naming piece and edge."""
        try:
            return self.edges[self._by_name[name]]
        except KeyError:
            raise KeyError(f"{self.name} has no edge {name}") from None

    def has(self, name: str) -> bool:
        return name in self._by_name

    def beside(self, name: str) -> tuple[Edge, Edge]:
        """The edges before and after this one round the outline."""
        at = self._by_name[name]
        return self.edges[at - 1], self.edges[(at + 1) % len(self.edges)]

    def edges_of(self, *roles: str) -> tuple[Edge, ...]:
        """Its edges of these roles."""
        return tuple(edge for edge in self.edges if edge.role in roles)

    def with_edge(self, edge: Edge) -> Piece:
        """The piece with an edge of that name replaced."""
        old = self.edge(edge.name)
        edges = tuple(edge if other is old else other for other in self.edges)
        if edge.parts is old.parts and edge.gaps is old.gaps:
            return self.with_on_it(edges=edges)
        return replace(self, edges=edges)

    @kept
    def darts(self) -> tuple[Dart, ...]:
        return tuple(dart for edge in self.edges for dart in edge.darts)

    @property
    def inside(self) -> tuple[Path, ...]:
        """What is drawn inside besides darts in its edges: diamonds, and lines to fold along."""
        return (*(diamond.path for diamond in self.diamonds), *(line.path for line in self.lines))

    @kept
    def ring(self) -> tuple[Path, ...]:
        """The closed outline on the stitching line, in order."""
        return tuple(path for edge in self.edges for path in edge.paths())

    @kept
    def open_by(self) -> float:
        """How far apart the ends of two edges that follow each other lie, cm: the widest."""
        ring = self.ring
        return max([before.end.to(after.start) for before, after in zip((ring[-1], *ring), ring, strict=False)])

    def outline(self, tolerance: float = 0.01) -> list[Point]:
        """Points round the piece on the stitching line, within the tolerance; the last is not the first again."""
        return _round([path.flat(tolerance) for path in self.ring])

    @kept
    def sketch(self) -> tuple[Point, ...]:
        """The outline to half a millimetre, kept: good enough to judge its shape and size by."""
        return tuple(_round([path.sketch for path in self.ring]))

    @kept
    def rim(self) -> LinearRing:
        """The outline to a fifth of a millimetre: for what lies on it."""
        return linearrings(rows(self.outline(RIM)))

    @kept
    def simple(self) -> bool:
        """Whether the outline does not cross itself."""
        return len(self.sketch) > 2 and bool(is_simple(get_exterior_ring(self.surface)))

    @kept
    def fault(self) -> str:
        """What keeps it from being a piece of a garment: an outline that crosses itself, a notch beyond its edge; '' for nothing."""
        if not self.simple:
            return f"The outline of the {self.name.replace('_', ' ')} crosses itself."
        for edge in self.edges:
            for notch in edge.notches:
                if not -1e-6 <= notch.along <= edge.length + 1e-6:
                    return f"The notch {notch.name} lies beyond the {edge.name} of the {self.name}."
        return ""

    @kept
    def surface(self) -> Polygon:
        """The cloth inside its sketch, darts open: for what lies on it and what leaves it."""
        return polygons(rows(self.sketch))

    @kept
    def bounds(self) -> tuple[float, float, float, float]:
        """Left, top, right, bottom of the stitching line, cm, within half a millimetre."""
        xs, ys = zip(*self.sketch, strict=True)
        return min(xs), min(ys), max(xs), max(ys)

    @kept
    def sewn_ring(self) -> tuple[Path, ...]:
        """The outline, in order, with straights across the mouths of its darts: what levels are measured to."""
        found: list[Path] = []
        for edge in self.edges:
            found.append(edge.parts[0])
            for gap, part in zip(edge.gaps, edge.parts[1:], strict=True):
                found += (Path.through(gap.inner, gap.outer), part)
        return tuple(found)

    @kept
    def _rail(self) -> tuple[tuple[Segment, float, Point, tuple[Point, Point] | None], ...]:
        """The pieces of that outline, how near their ends count as passed, their ends, and the handles of those that bend."""
        return tuple(
            (
                segment,
                AT_CORNER if segment is path.segments[-1] else AT_JOINT,
                segment.end,
                None if isinstance(segment, Line) else (segment.out, segment.into),
            )
            for path in self.sewn_ring
            for segment in path.segments
        )

    @kept
    def area(self) -> float:
        """Square centimetres inside the stitching line."""
        pen = AreaPen()
        first = True
        for path in self.ring:
            path.draw(pen, move=first)
            first = False
        pen.closePath()
        return abs(float(pen.value))

    def outward(self, direction: Point) -> Point:
        """Square to a direction of travel round the piece, away from it."""
        way = direction.unit().square()
        return -way if self.clockwise else way

    @kept
    def clockwise(self) -> bool:
        """Whether its edges follow each other clockwise as one looks at it, y being down."""
        spots = self.sketch
        return sum([a[0] * b[1] - b[0] * a[1] for a, b in zip(spots, (*spots[1:], spots[0]), strict=True)]) > 0

    def encloses(self, spot: Point) -> bool:
        """Whether a spot lies inside the stitching line, to half a millimetre: how often a line to the right of it leaves the
        piece."""
        x, y = spot
        inside = False
        before = self.sketch[-1]
        for here in self.sketch:
            if (here[1] > y) != (before[1] > y) and x < here[0] + (before[0] - here[0]) * (y - here[1]) / (before[1] - here[1]):
                inside = not inside
            before = here
        return inside

    # levels

    def level(self, name: str) -> BalanceLine | None:
        return next((line for line in self.balance if line.level == name), None)

    @property
    def levels(self) -> dict[str, float]:
        """How far down each level lies in this frame, cm."""
        return {line.level: line.height for line in self.balance}

    def stretches(self, name: str, below: float = 0.0) -> tuple[tuple[Point, Point], ...]:
        """The lines of a level as far as the outline, or the inner lines it ends at. below: cm under it."""
        key = name, below
        if key not in self._measured:
            self._measured[key] = self._stretched(name, below)
        return self._measured[key]

    @kept
    def _measured(self) -> dict[tuple[str, float], tuple[tuple[Point, Point], ...]]:
        return {}

    def _stretched(self, name: str, below: float) -> tuple[tuple[Point, Point], ...]:
        line = self.level(name)
        if line is None:
            return ()
        found = beside(line.lines, below) if below else list(line.lines)
        first, last = found[0], found[-1]
        if len(found) == 1 and line.between == ("", ""):
            start, end = self._ends(first[0], (first[1] - first[0]).unit())
        else:
            start = self._reach(first[0], (first[1] - first[0]).unit(), line.between[0])[0]
            end = self._reach(last[0], (last[1] - last[0]).unit(), line.between[1])[1]
        if start is None or end is None:
            return ()
        if len(found) == 1:
            return ((start, end),)
        return ((start, first[1]), *found[1:-1], (last[0], end))

    def _reach(self, at: Point, way: Point, bound: str) -> tuple[Point | None, Point | None]:
        """The first and the last place at which an endless line crosses the outline; or an inner line."""
        if not bound:
            return self._ends(at, way)
        paths = [line.path for line in self.lines if line.name == bound] or list(self.edge(bound).parts)
        spots = sorted((path.segments[i].at(t) for path in paths for i, t in path.crossings(at, way)), key=way.dot)
        return (spots[0], spots[-1]) if spots else (None, None)

    def _ends(self, at: Point, way: Point) -> tuple[Point | None, Point | None]:
        """Where an endless line enters the outline first and leaves it last. It goes through a corner or a joint that it
        passes very near."""
        x, y = way
        off = x * at[1] - y * at[0]
        before = x * self._rail[-1][2][1] - y * self._rail[-1][2][0] - off  # how far a corner stands off the line
        spots = []
        for segment, near, end, handles in self._rail:
            after = x * end[1] - y * end[0] - off
            if -near < after < near:
                spots.append(end)
            elif handles is None and (before > 0) != (after > 0):
                spots.append(segment.at(before / (before - after)))
            if handles is not None:
                (ux, uy), (vx, vy) = handles
                side = before > 0
                if side != (after > 0) or side != (x * uy - y * ux > off) or side != (x * vy - y * vx > off):
                    spots += [segment.at(t) for t in segment.crossings(at, way)]
            before = after
        if not spots:
            return None, None
        return min(spots, key=way.dot), max(spots, key=way.dot)

    def stretch_at(self, at: Point, way: Point) -> tuple[Point, Point] | None:
        """Where an endless line enters the outline first and leaves it last; None where it does not touch it. way: its direction,
        one long."""
        start, end = self._ends(at, way)
        return None if start is None or end is None else (start, end)

    def across(self, name: str, below: float = 0.0) -> float:
        """Cloth at a level with the darts sewn, cm; 0 where it has no such level. below: so far under it.

        A dart that opened along a joint of the line takes nothing from it: its parts were turned with it.
        """
        if below:
            return self._sewn_across(name, below)
        if name not in self._cloth:
            self._cloth[name] = self._sewn_across(name, 0.0)
        return self._cloth[name]

    @kept
    def _cloth(self) -> dict[str, float]:
        """What has been measured at its levels: as much wherever it lies, and known together."""
        return {}

    def _sewn_across(self, name: str, below: float) -> float:
        line, found = self.level(name), self.stretches(name, below)
        total = 0.0
        for a, b in found:
            way = (b - a).unit()
            total += a.to(b)
            for dart in self.darts:
                if len(found) == 1 or dart.apex is None:
                    total -= dart.taken_along(a, way)
            total -= sum(diamond.taken_along(a, way) for diamond in self.diamonds)
        return total if line is not None else 0.0

    def wide_at(self, y: float) -> float:
        """Cloth at a height of this frame with the darts sewn, cm."""
        at, way = Point(0.0, y), Point(1.0, 0.0)
        start, end = self._ends(at, way)
        if start is None or end is None:
            return 0.0
        taken = sum(dart.taken_along(at, way) for dart in self.darts) + sum(d.taken_along(at, way) for d in self.diamonds)
        return start.to(end) - taken

    def weight(self, *, limb: bool = False) -> int:
        """How often it goes into a girth round the body; or round one limb."""
        return (ON_ONE_SIDE if limb else HOW_OFTEN)[self.stands]

    def corners(self) -> Iterator[tuple[Edge, Edge]]:
        """Neighbours round the outline, each with the one after it."""
        yield from pairwise((*self.edges, self.edges[0]))


def _round(ring: Sequence[Sequence[Point]]) -> list[Point]:
    """The points of paths that follow each other; where two meet once, and the first not again at the end."""
    points: list[Point] = []
    for flat in ring:
        points.extend(flat[1:] if points and points[-1].to(flat[0]) < 1e-6 else flat)
    if len(points) > 1 and points[0].to(points[-1]) < 1e-6:
        points.pop()
    return points
