"""Points and directions in the plane, in centimetres, y downwards."""

from __future__ import annotations

import math
from collections.abc import Iterable
from itertools import chain
from math import hypot
from typing import Any, NamedTuple

import numpy as np
from fontTools.misc.transform import Transform

new = tuple.__new__  # new(Point, (x, y)) is Point(x, y), in half the time: for what runs a thousand times in a draft


class Point(NamedTuple):
    """A place, or a direction, on the paper."""

    x: float
    y: float

    def __add__(self, other: Point) -> Point:  # type: ignore[override]
        return new(Point, (self[0] + other[0], self[1] + other[1]))

    def __sub__(self, other: Point) -> Point:
        return new(Point, (self[0] - other[0], self[1] - other[1]))

    def __mul__(self, by: float) -> Point:  # type: ignore[override]
        return new(Point, (self[0] * by, self[1] * by))

    def __neg__(self) -> Point:
        return new(Point, (-self[0], -self[1]))

    def dot(self, other: Point) -> float:
        return self[0] * other[0] + self[1] * other[1]

    def cross(self, other: Point) -> float:
        return self[0] * other[1] - self[1] * other[0]

    @property
    def size(self) -> float:
        return hypot(self[0], self[1])

    def unit(self) -> Point:
        """The direction, one centimetre long. A zero direction stays zero."""
        size = hypot(self[0], self[1])
        return new(Point, (self[0] / size, self[1] / size)) if size else self

    def square(self) -> Point:
        """Turned a quarter: what points right points down."""
        return new(Point, (-self[1], self[0]))

    def to(self, other: Point) -> float:
        """The straight distance to another point."""
        return hypot(other[0] - self[0], other[1] - self[1])

    def toward(self, other: Point, part: float) -> Point:
        """The point this part of the way to another; 0.5 is the middle."""
        return new(Point, (self[0] + (other[0] - self[0]) * part, self[1] + (other[1] - self[1]) * part))

    def moved(self, by: Transform) -> Point:
        xx, xy, yx, yy, dx, dy = by
        x, y = self
        return new(Point, (xx * x + yx * y + dx, xy * x + yy * y + dy))


def rows(spots: Iterable[Point]) -> Any:
    """Places as an array of numbers, a row each: four times as fast as the array would read them itself."""
    return np.array(list(chain.from_iterable(spots))).reshape(-1, 2)


def square_to(way: Point, towards: Point) -> Point:
    """Square to a direction, on the side of `towards`."""
    out = way.square()
    return out if out.dot(towards) > 0 else -out


def angle_between(a: Point, b: Point) -> float:
    """The angle between two directions in degrees, 0 to 180."""
    return math.degrees(abs(math.atan2(a.cross(b), a.dot(b))))


def turn(about: Point, radians: float) -> Transform:
    """Turn about a point; positive turns what points right downwards."""
    return Transform().translate(*about).rotate(radians).translate(-about.x, -about.y)


def is_rigid(by: Transform) -> bool:
    """Whether it keeps all lengths: moving, turning, turning over."""
    xx, xy, yx, yy = by[:4]
    return bool(abs(xx * xx + xy * xy - 1) < 1e-9 and abs(yx * yx + yy * yy - 1) < 1e-9 and abs(xx * yx + xy * yy) < 1e-9)


def mirror_in(a: Point, b: Point) -> Transform:
    """Reflect across the line through two points."""
    d = (b - a).unit()
    xx, xy, yy = d.x * d.x - d.y * d.y, 2 * d.x * d.y, d.y * d.y - d.x * d.x
    return Transform(xx, xy, xy, yy, a.x - xx * a.x - xy * a.y, a.y - xy * a.x - yy * a.y)


def meet(a: Point, along_a: Point, b: Point, along_b: Point) -> Point | None:
    """Where two endless lines cross, each a point and a direction; None when they run side by side."""
    spread = along_a.cross(along_b)
    if abs(spread) < 1e-12 * max(along_a.size * along_b.size, 1e-12):
        return None
    return a + along_a * ((b - a).cross(along_b) / spread)
