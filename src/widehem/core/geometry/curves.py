"""Straight and cubic pieces of a path: length, point at a length, splitting, crossing with a line."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

from fontTools.misc.bezierTools import solveCubic, splitCubicAtT
from fontTools.misc.transform import Transform

from widehem.core.geometry.points import Point

# Gauss-Legendre on 16 nodes, half of them: the rule is symmetric.
_NODES = (
    (0.0950125098376374, 0.1894506104550685),
    (0.2816035507792589, 0.1826034150449236),
    (0.4580167776572274, 0.1691565193950025),
    (0.6178762444026438, 0.1495959888165767),
    (0.7554044083550030, 0.1246289712555339),
    (0.8656312023878318, 0.0951585116824928),
    (0.9445750230732326, 0.0622535239386479),
    (0.9894009349916499, 0.0271524594117541),
)
_LENGTH_TOLERANCE = 1e-8


@dataclass(frozen=True)
class Line:
    """A straight piece from start to end."""

    start: Point
    end: Point

    @property
    def length(self) -> float:
        return self.start.to(self.end)

    def at(self, t: float) -> Point:
        return self.start.toward(self.end, t)

    def direction(self, t: float) -> Point:
        return (self.end - self.start).unit()

    def bend(self, t: float) -> float:
        """Curvature, 1/cm."""
        return 0.0

    def t_at_length(self, length: float) -> float:
        whole = self.length
        return length / whole if whole else 0.0

    def split(self, t: float) -> tuple[Line, Line]:
        middle = self.at(t)
        return Line(self.start, middle), Line(middle, self.end)

    def reverse(self) -> Line:
        return Line(self.end, self.start)

    def moved(self, by: Transform) -> Line:
        return Line(self.start.moved(by), self.end.moved(by))

    def flat(self, tolerance: float) -> list[Point]:
        return [self.end]

    def crossings(self, point: Point, along: Point) -> list[float]:
        """Where an endless line crosses this piece, as t from 0 to 1."""
        sx, sy, off = -along[1], along[0], along[0] * point[1] - along[1] * point[0]
        a, b = self.start[0] * sx + self.start[1] * sy - off, self.end[0] * sx + self.end[1] * sy - off
        if a == b or (a > 1e-9 and b > 1e-9) or (a < -1e-9 and b < -1e-9):
            return []
        t = a / (a - b)
        return [t] if -1e-9 <= t <= 1 + 1e-9 else []


@dataclass(frozen=True)
class Cubic:
    """A cubic curve: start, the handle leaving it, the handle arriving, end."""

    start: Point
    out: Point
    into: Point
    end: Point

    @cached_property
    def length(self) -> float:
        """Arc length to about 1e-7 mm; halves until the halves agree."""
        return _arc(self, 0.0, 1.0)

    def at(self, t: float) -> Point:
        s = 1 - t
        a, b, c, d = s * s * s, 3 * s * s * t, 3 * s * t * t, t * t * t
        return Point(
            a * self.start[0] + b * self.out[0] + c * self.into[0] + d * self.end[0],
            a * self.start[1] + b * self.out[1] + c * self.into[1] + d * self.end[1],
        )

    def _speed(self, t: float) -> Point:
        s = 1 - t
        a, b, c = 3 * s * s, 6 * s * t, 3 * t * t
        p, q, r, e = self.start, self.out, self.into, self.end
        return Point(
            a * (q[0] - p[0]) + b * (r[0] - q[0]) + c * (e[0] - r[0]),
            a * (q[1] - p[1]) + b * (r[1] - q[1]) + c * (e[1] - r[1]),
        )

    def direction(self, t: float) -> Point:
        speed = self._speed(t)
        if speed.size < 1e-9:  # a handle that lies on its end
            speed = self.at(min(t + 1e-4, 1.0)) - self.at(max(t - 1e-4, 0.0))
        return speed.unit()

    def bend(self, t: float) -> float:
        """Curvature, 1/cm."""
        speed = self._speed(t)
        s = 1 - t
        p, q, r, e = self.start, self.out, self.into, self.end
        pull = (r - q * 2 + p) * (6 * s) + (e - r * 2 + q) * (6 * t)
        size = speed.size
        return speed.cross(pull) / size**3 if size > 1e-9 else 0.0

    def t_at_length(self, length: float) -> float:
        """The parameter this many centimetres along: Newton, kept inside a shrinking bracket."""
        whole = self.length
        if length <= 0 or whole == 0:
            return 0.0
        if length >= whole:
            return 1.0
        low, high, t = 0.0, 1.0, length / whole
        for _ in range(50):
            gone = _arc(self, 0.0, t) if t < 0.5 else whole - _arc(self, t, 1.0)
            miss = gone - length
            if abs(miss) < 1e-9:
                break
            low, high = (low, t) if miss > 0 else (t, high)
            speed = self._speed(t).size
            step = t - miss / speed if speed > 1e-9 else -1.0
            t = step if low < step < high else (low + high) / 2
        return t

    def split(self, t: float) -> tuple[Cubic, Cubic]:
        first, second = splitCubicAtT(self.start, self.out, self.into, self.end, t)
        return Cubic(*(Point(*p) for p in first)), Cubic(*(Point(*p) for p in second))

    def reverse(self) -> Cubic:
        return Cubic(self.end, self.into, self.out, self.start)

    def moved(self, by: Transform) -> Cubic:
        return Cubic(*(Point(*p) for p in by.transformPoints((self.start, self.out, self.into, self.end))))

    def flat(self, tolerance: float) -> list[Point]:
        """Points of a chain of straights that stays within the tolerance; the start is left out."""
        bulge = max(
            (self.start - self.out * 2 + self.into).size,
            (self.out - self.into * 2 + self.end).size,
        )
        count = max(1, math.ceil(math.sqrt(0.75 * bulge / tolerance)))
        return [self.at(i / count) for i in range(1, count)] + [self.end]

    def crossings(self, point: Point, along: Point) -> list[float]:
        """Where an endless line crosses this piece, as t from 0 to 1, in order."""
        sx, sy, off = -along[1], along[0], along[0] * point[1] - along[1] * point[0]
        a, b = self.start[0] * sx + self.start[1] * sy - off, self.out[0] * sx + self.out[1] * sy - off
        c, d = self.into[0] * sx + self.into[1] * sy - off, self.end[0] * sx + self.end[1] * sy - off
        if (a > 0 and b > 0 and c > 0 and d > 0) or (a < 0 and b < 0 and c < 0 and d < 0):
            return []
        roots = solveCubic(d - 3 * c + 3 * b - a, 3 * (c - 2 * b + a), 3 * (b - a), a)
        return sorted(t for t in roots if -1e-9 <= t <= 1 + 1e-9)


Segment = Line | Cubic


def _gauss(curve: Cubic, low: float, high: float) -> float:
    half, middle = (high - low) / 2, (high + low) / 2
    p, q, r, e = curve.start, curve.out, curve.into, curve.end
    ax, ay = 3 * (q[0] - p[0]), 3 * (q[1] - p[1])
    bx, by = 6 * (r[0] - q[0]), 6 * (r[1] - q[1])
    cx, cy = 3 * (e[0] - r[0]), 3 * (e[1] - r[1])
    total = 0.0
    for node, weight in _NODES:
        for t in (middle - half * node, middle + half * node):
            s = 1 - t
            total += weight * math.hypot(
                s * s * ax + s * t * bx + t * t * cx,
                s * s * ay + s * t * by + t * t * cy,
            )
    return total * half


def _arc(curve: Cubic, low: float, high: float) -> float:
    return _halved(curve, low, high, _gauss(curve, low, high), 12)


def _halved(curve: Cubic, low: float, high: float, guess: float, depth: int) -> float:
    middle = (low + high) / 2
    left, right = _gauss(curve, low, middle), _gauss(curve, middle, high)
    if depth == 0 or abs(left + right - guess) < _LENGTH_TOLERANCE:
        return left + right
    return _halved(curve, low, middle, left, depth - 1) + _halved(curve, middle, high, right, depth - 1)


def curve_between(start: Point, leaving: Point, end: Point, arriving: Point, out: float = 0.0, into: float = 0.0) -> Cubic:
    """A cubic from start to end with these directions at its ends.

    out, into: lengths of the two handles in cm; 0 means a third of the straight distance.
    """
    third = start.to(end) / 3
    return Cubic(start, start + leaving.unit() * (out or third), end - arriving.unit() * (into or third), end)
