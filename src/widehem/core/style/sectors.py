"""Pieces drawn as a part of a ring: circle skirts, peplums, collars, cuffs, frills. Their ends are square to both their edges."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

from widehem.core.geometry.curves import Cubic
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Layer, Piece, Stands

TURNS = 12  # straights of a level that runs round
FLAT, STEP = 1e-4, math.radians(20)  # an angle so small is none; the most that one curve turns


def arc(centre: Point, radius: float, start: float, end: float) -> Path:
    """Part of a circle from one angle to another, radians, y being down; true to a few thousandths of a millimetre."""
    count = max(math.ceil(abs(end - start) / STEP), 1)
    step = (end - start) / count
    reach = 4 / 3 * math.tan(step / 4) * radius
    found = []
    for number in range(count):
        a, b = start + step * number, start + step * (number + 1)
        p, q = (Point(centre.x + radius * math.cos(w), centre.y + radius * math.sin(w)) for w in (a, b))
        out, into = Point(-math.sin(a), math.cos(a)) * reach, Point(-math.sin(b), math.cos(b)) * reach
        found.append(Cubic(p, p + out, q - into, q))
    return Path(tuple(found))


def sector(
    name: str, title: str, inner: float, outer: float, wide: float, *, of: str, names: tuple[str, str, str, str],
    roles: tuple[str, str, str, str], kinds: tuple[str, str, str, str] = ("seam", "seam", "seam", "seam"), stands: Stands = "pair",
    layer: Layer = "shell", middle: str = "", notches: Sequence[Notch] = (), level: str = "",
) -> Piece:  # fmt: skip
    """A part of a ring: its inner edge (the first) so long, its outer so long, so wide between; the near end lies plumb, from
    which the inner edge runs to the right. outer less than inner bends it the other way. Order of the edges: inner, far end,
    outer, near end. notches: along the inner edge. level: the balance line that runs along the inner edge."""
    spread = outer - inner
    if abs(spread) < FLAT:
        a, b = Point(0.0, 0.0), Point(inner, 0.0)
        paths = [Path.through(a, b), Path.through(b, Point(inner, wide)), Path.through(Point(inner, wide), Point(0.0, wide)),
            Path.through(Point(0.0, wide), a)]  # fmt: skip
    else:
        angle = spread / wide
        radius = inner / angle  # less than nothing where the outer edge is the shorter
        centre = Point(0.0, -radius)
        down = math.pi / 2
        if radius > 0:
            first = arc(centre, radius, down, down - angle)
            last = arc(centre, radius + wide, down - angle, down)
        else:
            first = arc(centre, -radius, -down, -down - angle)
            last = arc(centre, -radius - wide, -down - angle, -down)
        paths = [first, Path.through(first.end, last.start), last, Path.through(last.end, first.start)]
    ring = tuple(
        Edge(edge, (path,), role=role, kind=kind, notches=tuple(notches) if not number else ())  # type: ignore[arg-type]
        for number, (edge, role, kind, path) in enumerate(zip(names, roles, kinds, paths, strict=True))
    )
    grain = None if middle else _down(paths[0], wide)
    spots = [paths[0].place(paths[0].length * n / TURNS).point for n in range(TURNS + 1)] if level else []
    balance = (BalanceLine(level, tuple(pairwise(spots)), notched=False),) if level else ()
    return Piece(name, title, ring, of, layer=layer, stands=stands, middle=middle, grain=grain, balance=balance)


def _down(inner: Path, wide: float) -> tuple[Point, Point]:
    """The grain through the middle of the piece, square to its inner edge there."""
    place = inner.place(inner.length / 2)
    down = place.direction.square()
    down = down if down.y > 0 else -down
    return place.point + down * (wide * 0.2), place.point + down * (wide * 0.8)
