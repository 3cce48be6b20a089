"""Where words lie on a piece: off every line, inside it, and not across the border of two sheets.

The label first, as it is the largest; then the names of levels and lines, each beside its own. What finds no room becomes
smaller, a label shorter, and a name that is too much is left out.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
from typing import Any

import numpy as np
from shapely import MultiLineString, Polygon, box, contains, intersects, polygons, prepare

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.marking.lettering import ROW, Block, wide, wrapped
from widehem.core.values import record

OFF = 0.12  # cm between words and any line
INSIDE = 0.25  # cm between words and the stitching line
SIZES = (0.62, 0.52, 0.44, 0.36, 0.28, 0.22)
SMALL = (0.36, 0.3, 0.24)  # of a name beside a line
WIDTHS = (99.0, 12.0, 8.5, 6.0)  # cm a label is broken to
STEPS = 9  # places across and down a piece at which a label is tried
AWAY = (0.2, 0.36)  # cm between a line and its name
ALONG = (0.5, 0.35, 0.65, 0.25, 0.75, 0.15, 0.85)  # of a line, where its name is tried


@record(frozen=True)
class Written:
    """A line of words: the middle of its letters, their height cm, degrees turned clockwise."""

    text: str
    middle: Point
    size: float
    turn: float = 0.0
    strong: bool = False

    @property
    def outline(self) -> tuple[Point, ...]:
        """The four corners of what it takes."""
        return self.room(0.0)

    def room(self, more: float) -> tuple[Point, ...]:
        """The four corners of what it takes with so much (cm) round it."""
        size = wide(self.text, self.size) + 2 * more, self.size + 2 * more
        return tuple(Point(x, y) for x, y in _rectangle(self.middle, *size, self.turn))


@record(frozen=True)
class Name:
    """A word that belongs to a line, and stands beside it."""

    text: str
    line: Path
    strong: bool = False
    size: float = SMALL[0]


@record(frozen=True)
class Lettered:
    """All that is written on a piece. label: how many of its lines are the label's; whole: none of it was cut short."""

    words: tuple[Written, ...]
    label: int
    whole: bool
    left_out: tuple[str, ...] = ()


def lettered(
    body: Sequence[Point], lines: Iterable[Sequence[Point]], label: Sequence[str], short: Sequence[str], names: Iterable[Name],
    borders: Iterable[Sequence[Point]] = (), factor: float = 1.0,
) -> Lettered:  # fmt: skip
    """Place all words on a piece.

    body: its stitching line. lines: everything that is drawn on it. label: the lines that belong on it, short: those that do at
    the least. borders: where sheets of paper end. factor: how many times as large the letters have to be drawn, on paper that is
    scaled down.
    """
    room = Polygon(body).buffer(0).buffer(-INSIDE)
    drawn = MultiLineString([line for line in (*lines, *borders) if len(line) > 1])
    prepare(room)
    prepare(drawn)
    rows, whole = _label(room, drawn, label, short, factor)
    taken = [Polygon(row.room(OFF)) for row in rows]
    left_out = []
    found = list(rows)
    for name in names:
        written = _beside(name, room, drawn, taken, factor)
        if written is None:
            left_out.append(name.text)
            continue
        found.append(written)
        taken.append(Polygon(written.room(OFF)))
    return Lettered(tuple(found), len(rows), whole, tuple(left_out))


def _label(room: Any, drawn: Any, label: Sequence[str], short: Sequence[str], factor: float) -> tuple[list[Written], bool]:
    if room.is_empty:
        return [], False
    middles = _middles(room)
    turns = _turns(room)
    ways = (
        [(label, size, True) for size in SIZES[:4]] + [(short, size, False) for size in SIZES] + [(short[:1], SIZES[-1], False)]
    )
    for words, size, whole in ways:
        for width in WIDTHS if whole else (WIDTHS[0], WIDTHS[-1]):
            lines = wrapped(words, width * factor, size * factor)
            if width != WIDTHS[0] and lines == tuple(words):
                continue
            block = Block(lines, size * factor)
            for turn in turns:
                at = _free(room, drawn, middles, block, turn)
                if at is not None:
                    return _rows(block, at, turn, len(words[:1])), whole
    return [], False


def _middles(room: Any) -> np.ndarray:
    """Places to try, the calmest of the piece first: near its middle."""
    left, top, right, bottom = room.bounds
    across, down = np.meshgrid(np.linspace(0.1, 0.9, STEPS), np.linspace(0.08, 0.92, STEPS + 4))
    far = (across - 0.5) ** 2 + (down - 0.58) ** 2
    order = np.argsort(far.ravel(), kind="stable")
    spots = np.column_stack((left + (right - left) * across.ravel(), top + (bottom - top) * down.ravel()))
    found: np.ndarray = spots[order]
    return found


def _turns(room: Any) -> tuple[float, ...]:
    """Level first; then up a piece that is narrow; then as a piece lies that lies aslant."""
    corners = np.asarray(room.minimum_rotated_rectangle.exterior.coords)[:3]
    sides = np.diff(corners, axis=0)
    x, y = sides[int(np.argmax(np.hypot(sides[:, 0], sides[:, 1])))]
    slant = _readable(math.degrees(math.atan2(y, x)))
    return tuple(dict.fromkeys((0.0, -90.0, *((round(slant, 1),) if 8 < abs(slant) < 82 else ()))))


def _readable(turn: float) -> float:
    """An angle at which words are not upside down, -90 to 90 degrees."""
    turn = (turn + 180) % 360 - 180
    return turn - 180 if turn > 90 else turn + 180 if turn < -90 else turn


def _free(room: Any, drawn: Any, middles: np.ndarray, block: Block, turn: float) -> Point | None:
    good = contains(room, _rectangles(middles, block.width, block.height, turn))
    if not good.any():
        return None
    good[good] = ~intersects(drawn, _rectangles(middles[good], block.width + 2 * OFF, block.height + 2 * OFF, turn))
    if not good.any():
        return None
    return Point(*(float(value) for value in middles[int(np.argmax(good))]))


def _rectangles(middles: np.ndarray, width: float, height: float, turn: float) -> np.ndarray:
    x, y = middles[:, 0], middles[:, 1]
    if turn == 0:
        return np.asarray(box(x - width / 2, y - height / 2, x + width / 2, y + height / 2))
    corners = np.asarray(_rectangle(Point(0.0, 0.0), width, height, turn))
    return np.asarray(polygons(middles[:, None, :] + corners[None, :, :]))


def _rectangle(middle: Point, width: float, height: float, turn: float) -> list[tuple[float, float]]:
    cos, sin = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    half_w, half_h = width / 2, height / 2
    return [
        (middle[0] + x * cos - y * sin, middle[1] + x * sin + y * cos)
        for x, y in ((-half_w, -half_h), (half_w, -half_h), (half_w, half_h), (-half_w, half_h))
    ]


def _rows(block: Block, at: Point, turn: float, strong: int) -> list[Written]:
    cos, sin = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    found = []
    for number, line in enumerate(block.lines):
        down = (number - (len(block.lines) - 1) / 2) * block.size * ROW
        found.append(Written(line, Point(at.x - down * sin, at.y + down * cos), block.size, turn, number < strong))
    return found


def _beside(name: Name, room: Any, drawn: Any, taken: Sequence[Any], factor: float) -> Written | None:
    """A name beside its line, level with it where that can be read."""
    for size in (size * name.size / SMALL[0] * factor for size in SMALL):
        tries = list(_tries(name, size))
        shapes = polygons([written.outline for written in tries])
        good = contains(room, shapes)
        if good.any():
            good[good] = ~intersects(drawn, polygons([t.room(OFF * 0.8) for t, fits in zip(tries, good, strict=True) if fits]))
        for number in np.flatnonzero(good):
            if not any(shapes[number].intersects(other) for other in taken):
                return tries[int(number)]
    return None


def _tries(name: Name, size: float) -> Iterator[Written]:
    for along in ALONG:
        place = name.line.place(name.line.length * along)
        turn = _readable(math.degrees(math.atan2(place.direction.y, place.direction.x)))
        if turn > 89.9:
            turn -= 180
        for away in AWAY:
            for side in (1.0, -1.0):
                at = place.point + place.direction.square() * ((size / 2 + away) * side)
                yield Written(name.text, at, size, turn, name.strong)
