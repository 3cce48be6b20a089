"""Arranging pieces on paper: on sheets so that as few as can be are printed, on a roll so that it is short.

Pieces are laid as masks of cells, the largest first, each where it brings the fewest new sheets; a piece that fits on one sheet is
kept on one where that costs nothing.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from functools import lru_cache

import numpy as np
from shapely import Polygon

from widehem.core.geometry.cells import free_places, smooth_size, touched_cells
from widehem.core.geometry.points import Point
from widehem.core.values import record

CELL = 1.0  # cm of paper, about
MANY = 10_000  # cm² of pieces at which cells begin to be larger
GAP = 0.6  # cm between two pieces, at the least
SHEET, PARTED, DOWN = 1000.0, 30.0, 1.0  # what a new sheet costs, another one under the piece, a row of cells further down
Ring = tuple[tuple[float, float], ...]


@record(frozen=True)
class Put:
    """Where a piece goes: the upper left corner of what it takes, cm, and by how many quarters it is turned."""

    x: float
    y: float
    turned: int


@record(frozen=True)
class _Shape:
    """A piece as cells, turned. left, top: of what it takes within them, cm."""

    cells: np.ndarray
    left: float
    top: float
    turned: int


def on_sheets(rings: Sequence[Ring], step: tuple[float, float], columns: int, turns: Sequence[int] = (0, 2, 1, 3)) -> list[Put]:
    """Pieces on a field of sheets of this many columns. step: from one sheet to the next, cm."""
    size = _cell(rings)
    cell = step[0] / max(round(step[0] / size), 1), step[1] / max(round(step[1] / size), 1)
    tile = round(step[0] / cell[0]), round(step[1] / cell[1])
    return _lay(tuple(rings), cell, columns * tile[0], tile, tuple(turns))


def on_roll(rings: Sequence[Ring], width: float, turns: Sequence[int] = (0, 2)) -> list[Put]:
    """Pieces on a roll of this width, cm, as short as can be."""
    size = _cell(rings)
    return _lay(tuple(rings), (size, size), max(int(width / size), 1), None, tuple(turns))


def _cell(rings: Sequence[Ring]) -> float:
    """How large a cell is, cm: larger where the pieces are, so that there are never too many."""
    area = sum(Polygon(ring).area for ring in rings)
    return CELL * max(1.0, math.sqrt(area / MANY))


@lru_cache(maxsize=64)
def _lay(
    rings: tuple[Ring, ...], cell: tuple[float, float], wide: int, tile: tuple[int, int] | None, turns: tuple[int, ...]
) -> list[Put]:
    shapes = [[shape for turn in turns if (shape := _shape(ring, cell, turn)).cells.shape[1] <= wide] for ring in rings]
    if not all(shapes):
        raise ValueError("A piece is wider than the paper.")
    areas = [float(row[0].cells.sum()) for row in shapes]
    deep = max(shape.cells.shape[0] for row in shapes for shape in row)
    high = math.ceil(sum(areas) * 1.7 / wide) + deep + (tile[1] if tile else 0)
    field = np.zeros((high, wide), dtype=np.float32)
    used: set[tuple[int, int]] = set()
    puts: list[Put | None] = [None] * len(rings)
    length = 0
    for number in sorted(range(len(rings)), key=lambda n: -areas[n]):
        deepest = max(shape.cells.shape[0] for shape in shapes[number])
        part = field[: min(high, length + deepest + 1)]
        size = smooth_size(part.shape[0]), smooth_size(wide)
        spectrum = np.fft.rfft2(part, s=size)
        best: tuple[float, int, int, _Shape] | None = None
        for shape in shapes[number]:
            free = free_places(part.shape, spectrum, size, shape.cells)
            cost = _costs(shape.cells, part.shape, tile, used, length)
            found = _cheapest(cost, free, shape)
            if found is not None and (best is None or found[0] < best[0]):
                best = found
        if best is None:  # the field is longer than all pieces below each other
            raise ValueError("There is no room for a piece.")
        _, row, column, shape = best
        h, w = shape.cells.shape
        field[row : row + h, column : column + w] += shape.cells
        length = max(length, row + h)
        if tile:
            used |= _touched(shape.cells, row, column, tile)
        puts[number] = Put(column * cell[0] + shape.left, row * cell[1] + shape.top, shape.turned)
    return [put for put in puts if put is not None]


@lru_cache(maxsize=1024)
def _shape(ring: Ring, cell: tuple[float, float], turned: int) -> _Shape:
    """A piece with half the gap round it, as cells it touches."""
    points = [quarter(spot, turned) for spot in ring]
    left, top = min(x for x, _ in points), min(y for _, y in points)
    grown = Polygon([(x - left, y - top) for x, y in points]).buffer(GAP / 2, quad_segs=2)
    near, high, _, _ = grown.bounds
    return _Shape(touched_cells(grown, cell), -near, -high, turned)


def quarter(spot: tuple[float, float], turned: int) -> tuple[float, float]:
    """A spot turned by so many quarters about the origin."""
    x, y = spot
    return ((x, y), (-y, x), (-x, -y), (y, -x))[turned]


def _costs(
    cells: np.ndarray, shape: tuple[int, int], tile: tuple[int, int] | None, used: set[tuple[int, int]], length: int
) -> np.ndarray:
    """What it costs to lay a shape with its upper left cell there."""
    h, w = cells.shape
    rows, columns = shape[0] - h + 1, shape[1] - w + 1
    down, across = np.arange(rows)[:, None], np.arange(columns)[None, :]
    if tile is None:
        return np.asarray(np.maximum(down + h - length, 0) * SHEET + down * DOWN + across * (DOWN / shape[1]))
    cost = np.asarray(down * DOWN + across * (DOWN / shape[1]))
    under = _under(cells, tile)
    for row in range(0, shape[0], tile[1]):
        for column in range(0, shape[1], tile[0]):
            price = PARTED if (row // tile[1], column // tile[0]) in used else SHEET + PARTED
            _add(cost, under, row - h + 1, column - w + 1, price)
    return cost


def _under(cells: np.ndarray, tile: tuple[int, int]) -> np.ndarray:
    """Whether a shape touches a sheet, for every place of it relative to the sheet: first where they only just meet."""
    h, w = cells.shape
    padded = np.zeros((h + 2 * (tile[1] - 1), w + 2 * (tile[0] - 1)))
    padded[tile[1] - 1 : tile[1] - 1 + h, tile[0] - 1 : tile[0] - 1 + w] = cells
    total = np.pad(padded.cumsum(0).cumsum(1), ((1, 0), (1, 0)))
    a, b = tile[1], tile[0]
    window = total[a:, b:] - total[:-a, b:] - total[a:, :-b] + total[:-a, :-b]
    touched: np.ndarray = window[::-1, ::-1] > 0.5
    return touched


def _add(cost: np.ndarray, under: np.ndarray, row: int, column: int, price: float) -> None:
    """Add a price where a shape touches a sheet, as far as that lies inside what is looked at."""
    top, left = max(row, 0), max(column, 0)
    bottom, right = min(row + under.shape[0], cost.shape[0]), min(column + under.shape[1], cost.shape[1])
    if top < bottom and left < right:
        cost[top:bottom, left:right] += price * under[top - row : bottom - row, left - column : right - column]


def _cheapest(cost: np.ndarray, free: np.ndarray, shape: _Shape) -> tuple[float, int, int, _Shape] | None:
    if not free.any():
        return None
    masked = np.where(free, cost, np.inf)
    at = int(np.argmin(masked))
    row, column = divmod(at, masked.shape[1])
    return float(masked.flat[at]), row, column, shape


def _touched(cells: np.ndarray, row: int, column: int, tile: tuple[int, int]) -> set[tuple[int, int]]:
    down, across = np.nonzero(cells)
    rows, columns = (down + row) // tile[1], (across + column) // tile[0]
    return set(zip(rows.tolist(), columns.tolist(), strict=True))


def ring_of(points: Sequence[Point]) -> Ring:
    """A ring as the arranging takes it: in the tenths of a millimetre, which is finer than its cells."""
    return tuple((round(x, 2), round(y, 2)) for x, y in points)
