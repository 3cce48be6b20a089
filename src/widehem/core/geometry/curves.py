"""Straight and cubic pieces of a path: length, point at a length, splitting, crossing with a line."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property
from math import sqrt

from fontTools.misc.bezierTools import solveCubic
from fontTools.misc.transform import Transform

from widehem.core.geometry.points import Point, is_rigid

# Gauss-Legendre nodes and weights on 0 to 1; four to guess, eight to know.
_FOUR = (
    (0.06943184420297371, 0.17392742256872679),
    (0.33000947820757187, 0.3260725774312732),
    (0.6699905217924281, 0.3260725774312732),
    (0.9305681557970262, 0.17392742256872679),
)
_EIGHT = (
    (0.019855071751231912, 0.05061426814518853),
    (0.10166676129318664, 0.11119051722668721),
    (0.2372337950418355, 0.15685332293894344),
    (0.4082826787521751, 0.18134189168918083),
    (0.5917173212478248, 0.18134189168918083),
    (0.7627662049581645, 0.15685332293894344),
    (0.8983332387068134, 0.11119051722668721),
    (0.9801449282487681, 0.05061426814518853),
)
STRONG = 1.25  # control polygon over chord: a curve that turns strongly
NEAR = 1e-5  # cm: so near, one step of Newton more is as good as exact
_AGREE = 2e-5  # cm: where four and eight nodes agree to this, eight are right to about its square


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

    def bends(self, count: int) -> tuple[list[float], list[float]]:
        """The curvature (1/cm) in the middle of so many equal steps of the parameter, and how long each step is, cm.

        A handle that lies on its end has no direction there: the curve is looked at inside its ends only.
        """
        p, q, r, e = self.start, self.out, self.into, self.end
        cx, cy = 3 * (q[0] - p[0]), 3 * (q[1] - p[1])
        bx, by = 6 * (r[0] - 2 * q[0] + p[0]), 6 * (r[1] - 2 * q[1] + p[1])
        ax, ay = 3 * (e[0] - p[0] - 3 * (r[0] - q[0])), 3 * (e[1] - p[1] - 3 * (r[1] - q[1]))
        found, steps = [], []
        for number in range(count):
            t = (number + 0.5) / count
            x, y = (ax * t + bx) * t + cx, (ay * t + by) * t + cy
            size = sqrt(x * x + y * y)
            found.append((x * (2 * ay * t + by) - y * (2 * ax * t + bx)) / (size * size * size) if size > 1e-6 else 0.0)
            steps.append(size / count)
        return found, steps

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
            inside = low < step < high
            t = step if inside else (low + high) / 2
            if inside and abs(miss) < NEAR:  # the next step would be about the square of this one
                break
        return t

    def split(self, t: float) -> tuple[Cubic, Cubic]:
        """Both parts, exactly: halving the handles keeps ends and directions, which the general splitter lets drift."""
        a, b, c = self.start.toward(self.out, t), self.out.toward(self.into, t), self.into.toward(self.end, t)
        d, e = a.toward(b, t), b.toward(c, t)
        middle = d.toward(e, t)
        return Cubic(self.start, a, d, middle), Cubic(middle, e, c, self.end)

    def reverse(self) -> Cubic:
        return self._as_long(Cubic(self.end, self.into, self.out, self.start))

    def moved(self, by: Transform) -> Cubic:
        xx, xy, yx, yy, dx, dy = by
        corners = self.start, self.out, self.into, self.end
        found = Cubic(*[Point(xx * x + yx * y + dx, xy * x + yy * y + dy) for x, y in corners])
        return self._as_long(found) if is_rigid(by) else found

    def _as_long(self, other: Cubic) -> Cubic:
        """Another that must be just as long: the length is handed on where it is known."""
        if "length" in self.__dict__:
            other.__dict__["length"] = self.length
        return other

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


def _arc(curve: Cubic, low: float, high: float) -> float:
    """Arc length between two parameters, to about 1e-7 mm: halves until four and eight nodes agree."""
    p, q, r, e = curve.start, curve.out, curve.into, curve.end
    # the direction of travel as a square polynomial: a t^2 + b t + c
    cx, cy = 3 * (q[0] - p[0]), 3 * (q[1] - p[1])
    bx, by = 6 * (r[0] - 2 * q[0] + p[0]), 6 * (r[1] - 2 * q[1] + p[1])
    ax, ay = 3 * (e[0] - p[0] - 3 * (r[0] - q[0])), 3 * (e[1] - p[1] - 3 * (r[1] - q[1]))
    vx, vy = e[0] - p[0], e[1] - p[1]
    ux, uy, wx, wy, zx, zy = q[0] - p[0], q[1] - p[1], r[0] - q[0], r[1] - q[1], e[0] - r[0], e[1] - r[1]
    onward = (vx or vy) and ux * vx + uy * vy >= 0 and wx * vx + wy * vy >= 0 and zx * vx + zy * vy >= 0
    strict = onward and sqrt(ux * ux + uy * uy) + sqrt(wx * wx + wy * wy) + sqrt(zx * zx + zy * zy) > STRONG * sqrt(
        vx * vx + vy * vy
    )
    # a curve that turns back, or sharply, may fool the rule: look at it in parts
    count = (4 if strict else 1) if onward else 16
    span = (high - low) / count
    total, pending = 0.0, [(low + i * span, span, 12) for i in range(count)]
    while pending:
        start, span, depth = pending.pop()
        guess = _speed_sum(_FOUR, start, span, ax, bx, cx, ay, by, cy)
        known = _speed_sum(_EIGHT, start, span, ax, bx, cx, ay, by, cy)
        if depth == 0 or abs(known - guess) < _AGREE:
            total += known
        else:
            half = span / 2
            pending += [(start, half, depth - 1), (start + half, half, depth - 1)]
    return total


def _speed_sum(
    nodes: tuple[tuple[float, float], ...], start: float, span: float,
    ax: float, bx: float, cx: float, ay: float, by: float, cy: float,
) -> float:  # fmt: skip
    total = 0.0
    for node, weight in nodes:
        t = start + span * node
        x, y = (ax * t + bx) * t + cx, (ay * t + by) * t + cy
        total += weight * sqrt(x * x + y * y)
    return total * span


def curve_between(start: Point, leaving: Point, end: Point, arriving: Point, out: float = 0.0, into: float = 0.0) -> Cubic:
    """A cubic from start to end with these directions at its ends.

    out, into: lengths of the two handles in cm; 0 means a third of the straight distance.
    """
    third = start.to(end) / 3
    return Cubic(start, start + leaving.unit() * (out or third), end - arriving.unit() * (into or third), end)
