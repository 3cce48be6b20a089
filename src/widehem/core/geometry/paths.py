"""A path: straight and cubic pieces joined end to end. It draws itself onto any pen."""

from __future__ import annotations

from collections.abc import Iterable
from itertools import pairwise
from typing import Any

from fontTools.misc.transform import Transform
from shapely import LineString

from widehem.core.geometry.curves import Line, Segment
from widehem.core.geometry.points import Point, is_rigid, rows
from widehem.core.values import kept, record

FLAT = 0.01  # cm: how far a flattened curve may stand off the true one


@record(frozen=True)
class Place:
    """A spot on a path: the point, the direction of travel there, and how far along it lies (cm)."""

    point: Point
    direction: Point
    along: float


@record(frozen=True)
class Path:
    """An open chain of pieces."""

    segments: tuple[Segment, ...]

    @staticmethod
    def through(*points: Point) -> Path:
        """Straights from point to point."""
        return Path(tuple(Line(a, b) for a, b in pairwise(points)))

    @property
    def start(self) -> Point:
        return self.segments[0].start

    @property
    def end(self) -> Point:
        return self.segments[-1].end

    @kept
    def length(self) -> float:
        return sum([segment.length for segment in self.segments])

    @property
    def leaving(self) -> Point:
        """Direction at the start."""
        return self.segments[0].direction(0.0)

    @property
    def arriving(self) -> Point:
        """Direction at the end."""
        return self.segments[-1].direction(1.0)

    def __add__(self, other: Path) -> Path:
        return Path(self.segments + other.segments)

    def place(self, along: float) -> Place:
        """The spot this many centimetres from the start; beyond the ends it stays at the end."""
        left = max(0.0, min(along, self.length))
        for segment in self.segments:
            size = segment.length
            if left <= size or segment is self.segments[-1]:
                t = segment.t_at_length(min(left, size))
                return Place(segment.at(t), segment.direction(t), along)
            left -= size
        raise AssertionError("a path has at least one piece")

    def split(self, index: int, t: float) -> tuple[Path, Path]:
        """Cut in two inside one of the pieces."""
        first, second = self.segments[index].split(t)
        return Path((*self.segments[:index], first)), Path((second, *self.segments[index + 1 :]))

    def cut(self, along: float) -> tuple[Path, Path]:
        """Cut in two this many centimetres from the start."""
        left = along
        for index, segment in enumerate(self.segments):
            if abs(left - segment.length) < 1e-9 and index < len(self.segments) - 1:
                return Path(self.segments[: index + 1]), Path(self.segments[index + 1 :])
            if left < segment.length or index == len(self.segments) - 1:
                return self.split(index, segment.t_at_length(left))
            left -= segment.length
        raise AssertionError("a path has at least one piece")

    def crossings(self, point: Point, along: Point) -> list[tuple[int, float]]:
        """Where an endless line crosses the path: (piece, t), in order of travel."""
        return [(i, t) for i, segment in enumerate(self.segments) for t in segment.crossings(point, along)]

    def crosses(self, other: Path) -> bool:
        """Whether two paths cross, looked at as chains of straights half a millimetre off."""
        return bool(LineString(rows(self.sketch)).intersects(LineString(rows(other.sketch))))

    def at_level(self, y: float) -> Point | None:
        """The first point at a height, or None."""
        for i, t in self.crossings(Point(0.0, y), Point(1.0, 0.0)):
            return self.segments[i].at(t)
        return None

    def reverse(self) -> Path:
        return Path(tuple(segment.reverse() for segment in reversed(self.segments)))

    def moved(self, by: Transform) -> Path:
        found = Path(tuple([segment.moved(by) for segment in self.segments]))
        if "length" in self.__dict__ and is_rigid(by):
            found.__dict__["length"] = self.length
        return found

    def flat(self, tolerance: float = FLAT) -> list[Point]:
        """Points along the path, both ends included, within the tolerance (cm) of it."""
        points = [self.start]
        for segment in self.segments:
            points.extend(segment.flat(tolerance))
        return points

    @kept
    def sketch(self) -> tuple[Point, ...]:
        """Points along it to half a millimetre, kept: good enough to judge shapes and sizes by."""
        return tuple(self.flat(0.05))

    def draw(self, pen: Any, *, move: bool = True) -> None:
        """Draw onto a pen (moveTo, lineTo, curveTo); move=False carries on from where the pen stands."""
        if move:
            pen.moveTo(self.start)
        for segment in self.segments:
            if isinstance(segment, Line):
                pen.lineTo(segment.end)
            else:
                pen.curveTo(segment.out, segment.into, segment.end)


def _short(value: float) -> str:
    text = f"{value:.3f}".rstrip("0").rstrip(".")
    return "0" if text == "-0" else text


def svg_d(paths: Iterable[Path], *, closed: bool = False) -> str:
    """The d of an SVG path: the given paths one after another, each joined to the one before."""
    words: list[str] = []
    at_x = at_y = command = ""
    for path in paths:
        x, y = _short(path.start.x), _short(path.start.y)
        joined: tuple[Segment, ...] = path.segments
        if not words:
            words.append(f"M{x} {y}")
            at_x, at_y, command = x, y, "L"  # a straight after it needs no letter
        elif x != at_x or y != at_y:
            joined = (Line(path.start, path.start), *path.segments)
        for segment in joined:
            x, y = _short(segment.end.x), _short(segment.end.y)
            if not isinstance(segment, Line):
                out, into = segment.out, segment.into
                letter = " " if command == "C" else "C"
                words.append(f"{letter}{_short(out.x)} {_short(out.y)} {_short(into.x)} {_short(into.y)} {x} {y}")
                command = "C"
            elif x != at_x and y != at_y:
                words.append(f" {x} {y}" if command == "L" else f"L{x} {y}")
                command = "L"
            elif x != at_x:
                words.append(f"H{x}")
                command = "H"
            elif y != at_y:
                words.append(f"V{y}")
                command = "V"
            at_x, at_y = x, y
    return "".join(words) + ("Z" if closed and words else "")
