"""Room for the name of a piece inside its outlines: where no line of any size runs through it."""

from __future__ import annotations

import textwrap
from collections.abc import Sequence
from html import escape

import numpy as np
from shapely import Polygon, box, contains, intersection_all, make_valid, prepare, simplify

from widehem.core.geometry.points import Point

LETTER = 0.62  # how wide a letter of a name is, of its height, with some air
LINE = 1.1  # from one line of a name to the next, of its height
SMALLEST = 0.62  # of the height that is wanted; what needs less stands below its piece
ROUGH = 0.1  # cm that an outline may be off while room is sought in it
GRID = 13  # places that are tried across, and down


def named(title: str, cloth: Sequence[Polygon], letter: float, moved: Point) -> str:
    """A title as text of a drawing: inside all these shapes where it fits, else below them. letter: its height, cm; moved: where what
    they are drawn in lies on the drawing."""
    clear = make_valid(intersection_all([make_valid(one) for one in simplify(cloth, ROUGH)]))
    for share in (1.0, 0.9, 0.8, 0.7, SMALLEST):
        high = letter * share
        for lines in _wrapped(title):
            at = _inside(clear, max(len(line) for line in lines) * LETTER * high, len(lines) * LINE * high)
            if at is not None:
                return _text(lines, at + moved, high, "t-middle ")
    lefts, _, _, bottoms = zip(*(one.bounds for one in cloth), strict=True)
    high = letter * 0.8
    return _text([title], Point(min(lefts), max(bottoms) + high * 0.9) + moved, high, "")


def _wrapped(title: str) -> list[list[str]]:
    """The title in one line, and in as many as its words make, each as even as can be."""
    found: list[list[str]] = []
    for many in range(1, len(title.split()) + 1):
        lines = textwrap.wrap(title, max(-(-len(title) // many), max(map(len, title.split()))))
        if lines not in found:
            found.append(lines)
    return found


def _inside(clear: Polygon, wide: float, high: float) -> Point | None:
    """The middle of a block of words that lies within, as near to the middle as can be; None where none does."""
    if clear.is_empty:
        return None
    left, top, right, bottom = clear.bounds
    if wide > right - left or high > bottom - top:
        return None
    xs, ys = np.meshgrid(
        np.linspace(left + wide / 2, right - wide / 2, GRID), np.linspace(top + high / 2, bottom - high / 2, GRID)
    )
    prepare(clear)
    fits = contains(clear, box(xs - wide / 2, ys - high / 2, xs + wide / 2, ys + high / 2))
    if not fits.any():
        return None
    middle = clear.representative_point() if not clear.contains(clear.centroid) else clear.centroid
    far = np.where(fits, np.hypot(xs - middle.x, ys - middle.y), np.inf)
    row, column = np.unravel_index(int(far.argmin()), far.shape)
    return Point(float(xs[row, column]), float(ys[row, column]))


def _text(lines: Sequence[str], at: Point, high: float, looks: str) -> str:
    first = at.y - (len(lines) - 1) * high * LINE / 2
    return "".join(
        f'<text class="t-name {looks}halo" x="{at.x:.2f}" y="{first + number * high * LINE:.2f}" font-size="{high:.2f}">{escape(line)}</text>'
        for number, line in enumerate(lines)
    )
