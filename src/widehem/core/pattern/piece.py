"""Pieces with named edges, darts between the stretches of an edge or inside the piece, and lines inside it.

Everything downstream speaks of piece + edge + place along it, never of coordinates.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Literal

from fontTools.misc.transform import Transform
from fontTools.pens.areaPen import AreaPen

from widehem.core.geometry.paths import Path, Place
from widehem.core.geometry.points import Point

EdgeKind = Literal["seam", "fold", "hem", "opening"]
OUTER = "cloth"  # the cloth a garment is made of


@dataclass(frozen=True)
class Dart:
    """A dart in an edge.

    point: its end inside the piece. inner, outer: where its legs meet the edge, inner on the side it is pressed
    towards. middle: where its axis meets the guide. intake, length: as drafted on the guide, cm. cap: the edge across
    the mouth from inner to outer, shaped so that it is smooth when the dart is folded to its pressing side. apex: what the
    dart was turned about, when it is sewn short of it.
    """

    name: str
    edge: str
    point: Point
    inner: Point
    outer: Point
    middle: Point
    intake: float
    length: float
    cap: Path
    apex: Point | None = None

    def moved(self, by: Transform) -> Dart:
        spots = {name: getattr(self, name).moved(by) for name in ("point", "inner", "outer", "middle")}
        return replace(self, **spots, cap=self.cap.moved(by), apex=self.apex.moved(by) if self.apex else None)

    @property
    def turned_about(self) -> Point:
        return self.apex or self.point

    @property
    def legs(self) -> tuple[float, float]:
        return self.point.to(self.inner), self.point.to(self.outer)

    @property
    def tip(self) -> Point:
        """The peak of the cap, on the axis."""
        return self.cap.segments[len(self.cap.segments) // 2].start

    def width_at(self, y: float) -> float:
        """How much the open dart takes at a level, cm."""
        low, high = self.point.y, max(self.inner.y, self.outer.y)
        if not min(low, high) < y < max(low, high):
            return 0.0
        ends = []
        for end in (self.inner, self.outer):
            part = (y - low) / (end.y - low)
            ends.append(self.point.x + (end.x - self.point.x) * part)
        return abs(ends[0] - ends[1])


@dataclass(frozen=True)
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
        return replace(self, **{name: getattr(self, name).moved(by) for name in ("top", "bottom", "inner", "outer")})

    def width_at(self, y: float) -> float:
        """How much it takes at a level, cm."""
        xs = sorted(self.path.segments[i].at(t).x for i, t in self.path.crossings(Point(0.0, y), Point(1.0, 0.0)))
        return xs[-1] - xs[0] if len(xs) > 1 else 0.0


@dataclass(frozen=True)
class InnerLine:
    """A line drawn inside a piece, to fold or to lay something along. folded: what lies beyond it, as it lies once it is turned over it."""

    name: str
    title: str
    path: Path
    folded: Path | None = None

    def moved(self, by: Transform) -> InnerLine:
        return replace(self, path=self.path.moved(by), folded=self.folded.moved(by) if self.folded else None)


@dataclass(frozen=True)
class Cloth:
    """What is cut by a piece from one cloth: 'lining', '2, a pair'."""

    cloth: str
    cut: str


@dataclass(frozen=True)
class Edge:
    """A named side of a piece. parts: its sewn stretches, one more than the darts that lie between them. pointed: it meets the
    centre at an angle on purpose."""

    name: str
    parts: tuple[Path, ...]
    darts: tuple[Dart, ...] = ()
    kind: EdgeKind = "seam"
    pointed: bool = False

    @cached_property
    def length(self) -> float:
        """Along the stitching line, darts taken out, cm."""
        return sum(part.length for part in self.parts)

    @property
    def start(self) -> Point:
        return self.parts[0].start

    @property
    def end(self) -> Point:
        return self.parts[-1].end

    def moved(self, by: Transform) -> Edge:
        return replace(
            self, parts=tuple(part.moved(by) for part in self.parts), darts=tuple(dart.moved(by) for dart in self.darts)
        )

    def place(self, along: float) -> Place:
        """The spot this far (cm) along the sewn edge, its darts taken out."""
        for part in self.parts:
            if along <= part.length + 1e-9 or part is self.parts[-1]:
                return part.place(along)
            along -= part.length
        raise AssertionError("an edge has at least one part")

    def at_level(self, y: float) -> float | None:
        """How far along, from its start, a level is crossed, cm."""
        gone = 0.0
        for part in self.parts:
            for index, t in part.crossings(Point(0.0, y), Point(1.0, 0.0)):
                return gone + part.split(index, t)[0].length
            gone += part.length
        return None

    def paths(self) -> tuple[Path, ...]:
        """The edge as it lies open on paper, dart caps included."""
        found: list[Path] = [self.parts[0]]
        for dart, part in zip(self.darts, self.parts[1:], strict=True):
            found += [dart.cap, part]
        return tuple(found)


@dataclass(frozen=True)
class Piece:
    """A closed piece. edges: in order round the outline. levels: heights of the balance lines that cross it.

    spans: by level, the stretches whose lengths are the cloth between centre and side there, where darts cross the level.
    cut: 'pair' (two, mirrored) or 'fold' (one, half drawn). centre: the edge along the centre line. grain: where it does not follow from the centre.
    diamonds, lines, holes: darts, lines and eyelets inside it. cloths: what is cut by it, where that is more than one or not just a pair.
    """

    name: str
    title: str
    edges: tuple[Edge, ...]
    levels: dict[str, float] = field(default_factory=dict)
    cut: Literal["pair", "fold"] = "pair"
    centre: str = ""
    spans: dict[str, tuple[tuple[Point, Point], ...]] = field(default_factory=dict)
    grain: tuple[Point, Point] | None = None
    diamonds: tuple[Diamond, ...] = ()
    lines: tuple[InnerLine, ...] = ()
    holes: tuple[Point, ...] = ()
    cloths: tuple[Cloth, ...] = ()

    def moved(self, by: Transform) -> Piece:
        """The piece lying elsewhere; it may be turned over, but its balance lines stay level."""
        return replace(
            self,
            edges=tuple(edge.moved(by) for edge in self.edges),
            levels={name: Point(0.0, y).moved(by).y for name, y in self.levels.items()},
            spans={name: tuple((a.moved(by), b.moved(by)) for a, b in spans) for name, spans in self.spans.items()},
            grain=(self.grain[0].moved(by), self.grain[1].moved(by)) if self.grain else None,
            diamonds=tuple(diamond.moved(by) for diamond in self.diamonds),
            lines=tuple(line.moved(by) for line in self.lines),
            holes=tuple(hole.moved(by) for hole in self.holes),
        )

    def spanned(self, *levels: str) -> Piece:
        """The piece with its cloth at these levels written down: their lines are not held against each other along the seams."""
        found = dict(self.spans)
        for level in levels:
            y = self.levels[level]
            crossed = [
                path.segments[i].at(t) for path in self.ring() for i, t in path.crossings(Point(0.0, y), Point(1.0, 0.0))
            ]
            found[level] = ((min(crossed), max(crossed)),)
        return replace(self, spans=found)

    def span(self, level: str) -> float:
        """Cloth at a level with the darts sewn, cm."""
        if level in self.spans:
            return sum(a.to(b) for a, b in self.spans[level])
        return self.width_at(self.levels[level])

    def edge(self, name: str) -> Edge:
        for edge in self.edges:
            if edge.name == name:
                return edge
        raise KeyError(f"{self.name} has no edge {name}")

    @property
    def darts(self) -> tuple[Dart, ...]:
        return tuple(dart for edge in self.edges for dart in edge.darts)

    @property
    def inside(self) -> tuple[Path, ...]:
        """What is drawn inside besides darts in its edges: diamonds, and lines to fold along."""
        return (*(diamond.path for diamond in self.diamonds), *(line.path for line in self.lines))

    def ring(self) -> tuple[Path, ...]:
        """The closed outline on the stitching line, in order."""
        return tuple(path for edge in self.edges for path in edge.paths())

    def outline(self, tolerance: float = 0.01) -> list[Point]:
        """Points round the piece on the stitching line, within the tolerance; the last is not the first again."""
        points: list[Point] = []
        for path in self.ring():
            flat = path.flat(tolerance)
            points.extend(flat[1:] if points and points[-1].to(flat[0]) < 1e-6 else flat)
        if len(points) > 1 and points[0].to(points[-1]) < 1e-6:
            points.pop()
        return points

    @cached_property
    def sketch(self) -> tuple[Point, ...]:
        """The outline to half a millimetre, kept: good enough to judge its shape and size by."""
        return tuple(self.outline(0.05))

    @cached_property
    def bounds(self) -> tuple[float, float, float, float]:
        """Left, top, right, bottom of the stitching line, cm, within half a millimetre."""
        xs, ys = zip(*self.sketch, strict=True)
        return min(xs), min(ys), max(xs), max(ys)

    @cached_property
    def _signed_area(self) -> float:
        pen = AreaPen()
        first = True
        for path in self.ring():
            path.draw(pen, move=first)
            first = False
        pen.closePath()
        return float(pen.value)

    @property
    def area(self) -> float:
        """Square centimetres inside the stitching line."""
        return abs(self._signed_area)

    def outward(self, direction: Point) -> Point:
        """Square to a direction of travel round the piece, away from it."""
        way = direction.unit().square()
        return -way if self._signed_area > 0 else way

    def width_at(self, y: float) -> float:
        """How much cloth stands at a level once the darts are sewn, cm; the widest stretch across the outline."""
        xs = sorted(path.segments[i].at(t).x for path in self.ring() for i, t in path.crossings(Point(0.0, y), Point(1.0, 0.0)))
        if len(xs) < 2:
            return 0.0
        return xs[-1] - xs[0] - self._taken_at(y)

    def _taken_at(self, y: float) -> float:
        """What all darts take together at a level, cm."""
        return sum(dart.width_at(y) for dart in self.darts) + sum(diamond.width_at(y) for diamond in self.diamonds)
