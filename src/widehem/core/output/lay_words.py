"""What is written inside the pieces of a lay: their names as large as they fit; a letter, with a key, where none fits."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from string import ascii_uppercase
from typing import NamedTuple

from shapely import Point, Polygon, box, prepare
from shapely.ops import polylabel

from widehem.core.making.lay.cutouts import Cutout
from widehem.core.making.lay.placed import Lay

WIDE_LETTER, LINE = 0.56, 1.2  # a letter, and a line, of its height
SMALLER = 0.88  # times as large, until the words lie inside
MOST_LINES = 4


class Written(NamedTuple):
    """Lines round a spot, how large, and whether they run up."""

    x: float
    y: float
    size: float
    lines: Sequence[str]
    upright: bool


def written(shape: Cutout, polygon: Polygon, largest: float, least: float, letter: str = "") -> Written | None:
    """The name of a shape inside its outline as it is drawn, as large as it fits; its letter, where it has one; None where no name fits."""
    spot = polylabel(polygon, max(least / 4, 0.2))
    left, low, right, high = polygon.bounds
    if letter:
        return Written(spot.x, spot.y, least, (letter,), upright=False)
    prepare(polygon)
    spots = [spot, *(middle for middle in [polygon.centroid] if polygon.contains(middle))]
    ways = (False, True) if high - low > 1.3 * (right - left) else (False,)
    found = [
        _largest(polygon, at, lines, upright, largest, least) for at in spots for lines in _broken(shape) for upright in ways
    ]
    return max(
        (entry for entry in found if entry is not None),
        key=lambda entry: (entry.size, -len(entry.lines), not entry.upright),
        default=None,
    )


def _largest(polygon: Polygon, at: Point, lines: Sequence[str], upright: bool, largest: float, least: float) -> Written | None:
    size, longest = largest, max(map(len, lines)) * WIDE_LETTER
    while True:
        along, across = size * longest / 2, size * LINE * len(lines) / 2
        if upright:
            along, across = across, along
        if polygon.contains(box(at.x - along, at.y - across, at.x + along, at.y + across)):
            return Written(at.x, at.y, size, lines, upright)
        if size <= least:
            return None
        size = max(size * SMALLER, least)


def _broken(shape: Cutout) -> Iterator[Sequence[str]]:
    """The words of a shape in one line, in two, and so on, each time with the longest line as short as it can be."""
    of = [shape.of.split(", ")[0]] if shape.of else []
    words = shape.title.split()
    for count in range(1, min(MOST_LINES, len(words)) + 1):
        yield [*_evenly(words, count), *of]


def _evenly(words: Sequence[str], count: int) -> list[str]:
    if count == 1:
        return [" ".join(words)]
    cuts = range(1, len(words) - count + 2)
    ways = [[" ".join(words[:cut]), *_evenly(words[cut:], count - 1)] for cut in cuts]
    return min(ways, key=lambda lines: max(map(len, lines)))


def letters(lay: Lay, fits: Mapping[str, object]) -> tuple[dict[str, str], list[tuple[str, str]]]:
    """A letter for each shape whose name does not fit, the same for the same name; and what they stand for. fits: the shapes by id with
    what was written in them, or None."""
    called: dict[str, str] = {}
    given: dict[str, str] = {}
    for put in lay.placed:
        if fits.get(put.id) is None:
            shape = lay.by_id[put.id]
            name = f"{shape.title}{f', {shape.of}' if shape.of else ''}"
            given[put.id] = called.setdefault(name, _letter(len(called)))
    return given, [(letter, name) for name, letter in called.items()]


def _letter(number: int) -> str:
    more, at = divmod(number, len(ascii_uppercase))
    return (_letter(more - 1) if more else "") + ascii_uppercase[at]
