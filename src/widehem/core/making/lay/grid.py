"""Laying by cells: quickly a fair lay, where shapes must lie on the fold, on bars or stripes, or in what is left of a length; and better
ones, as long as there is time."""

from __future__ import annotations

import math
import random
from collections.abc import Iterator, Sequence
from functools import lru_cache

import numpy as np
from shapely import Polygon

from widehem.core.geometry.cells import free_places, smooth_size, touched_cells
from widehem.core.making.lay.cloth import OnTable
from widehem.core.making.lay.cutouts import Cutout
from widehem.core.making.lay.placed import Lay, Placed, bar_at, faults, lies_on_fold, stripe_at
from widehem.core.values import record, replace

COARSE, FINE = 1.0, 0.5  # cm of a cell, for a first picture and for what is kept
ROOM = 1.9  # times the area of all shapes: the length of cloth that is looked at
SLIDES = 12  # halvings by which a shape is pushed up to its neighbour
HAIR = 0.01  # cm that shapes stay apart where no gap is wanted
NARROW = 1e-4  # cm: so near the edge a shape still counts as on the cloth


@record(frozen=True)
class _Pose:
    """A shape as it may lie. cells: what it takes, with half the gap round it; x, y: of its corner from the first cell, cm."""

    cells: np.ndarray
    x: float
    y: float
    long: float
    turned: int
    flipped: bool
    first: int
    step: int
    column: int
    stride: int


class Grid:
    """A cloth as cells. long: how much of it there is, cm; None for as much as it takes."""

    def __init__(self, shapes: Sequence[Cutout], table: OnTable, cell: float = FINE, long: float | None = None) -> None:
        self.shapes, self.table, self.long = tuple(shapes), table, long
        self.cell = _even(cell, table.along), _even(cell, table.across)
        self.columns = max(int((table.high + table.gap + NARROW) / self.cell[1]), 1)
        self.poses = {shape.id: tuple(self._poses(shape)) for shape in shapes}
        longest = max((pose.cells.shape[0] for poses in self.poses.values() for pose in poses), default=1)
        area = sum(float(max(p.cells.sum() for p in poses)) for poses in self.poses.values() if poses)
        rows = math.ceil(area * ROOM / self.columns) + 2 * longest + len(shapes) * int(table.along / self.cell[0])
        self.rows = rows if long is None else max(int((long + table.gap + NARROW) / self.cell[0]), 1)

    def _poses(self, shape: Cutout) -> Iterator[_Pose]:
        for turned in self.table.turns:
            for flipped in (False, True) if shape.free else (False,):
                if shape.on_fold and not lies_on_fold(turned, flipped):
                    continue
                pose = self._pose(shape, turned, flipped)
                if pose.cells.shape[1] <= self.columns and (pose.column >= 0):
                    yield pose

    def _pose(self, shape: Cutout, turned: int, flipped: bool) -> _Pose:
        table, (wide, high) = self.table, self.cell
        put = Placed(shape.id, 0.0, 0.0, turned, flipped)
        bar, stripe = (bar_at(shape, put) if table.along else None), (stripe_at(shape, put, table) if table.across else None)
        x = 0.0 if bar is None else -bar % wide
        y = 0.0 if stripe is None else -stripe % high
        cells = _cells(shape.posed(turned, flipped), self.cell, table.gap, x, y)
        first, step = (0, 1) if bar is None else (round((-(bar + x) % table.along) / wide), round(table.along / wide))
        column, stride = (
            (0, 1) if stripe is None else (round((-(stripe + y) % table.across) / high), round(table.across / high))
        )
        if shape.on_fold:
            column, stride = 0, self.columns + 1
        long = max(a for a, _ in shape.posed(turned, flipped))
        return _Pose(cells, x, y, long, turned, flipped, first, step, column, stride)

    def lay(self, order: Sequence[str], rng: random.Random | None = None) -> Lay:
        """The shapes laid one after the other, each where the cloth gets least longer. rng: sways what is alike."""
        field = np.zeros((self.rows, self.columns), dtype=np.float32)
        placed: list[Placed] = []
        left: list[str] = []
        length = 0
        for name in order:
            found = self._best(field, self.poses[name], length, rng)
            if found is None:
                left.append(name)
                continue
            row, column, pose = found
            h, w = pose.cells.shape
            field[row : row + h, column : column + w] += pose.cells
            length = max(length, row + h)
            x, y = row * self.cell[0] + pose.x, column * self.cell[1] + pose.y
            placed.append(Placed(name, x, y, pose.turned, pose.flipped))
        return Lay(self.table, self.shapes, tuple(placed), tuple(left))

    def _best(
        self, field: np.ndarray, poses: Sequence[_Pose], length: int, rng: random.Random | None
    ) -> tuple[int, int, _Pose] | None:
        if not poses:
            return None
        deepest = max(pose.cells.shape[0] + pose.step for pose in poses)
        part = field[: min(self.rows, length + deepest + 1)]
        size = smooth_size(part.shape[0]), smooth_size(self.columns)
        spectrum = np.fft.rfft2(part, s=size)
        best: tuple[float, int, int, _Pose] | None = None
        for pose in poses:
            h, w = pose.cells.shape
            if h > part.shape[0] or w > part.shape[1]:
                continue
            free = free_places(part.shape, spectrum, size, pose.cells)[pose.first :: pose.step, pose.column :: pose.stride]
            if not free.any():
                continue
            rows = np.flatnonzero(free.any(axis=1))
            at = int(rows[0])
            columns = np.flatnonzero(free[at])
            column = int(columns[0] if rng is None or rng.random() < 0.5 else columns[-1])
            row = pose.first + at * pose.step
            cost = max(row + h, length) * 1000 + row + h + (rng.random() * 4 if rng is not None else 0.0)
            if best is None or cost < best[0]:
                best = cost, row, pose.column + column * pose.stride, pose
        return None if best is None else best[1:]


def _even(cell: float, repeat: float) -> float:
    """A cell of which a repeat is a whole number."""
    return repeat / max(round(repeat / cell), 1) if repeat else cell


@lru_cache(maxsize=2048)
def _cells(ring: tuple[tuple[float, float], ...], cell: tuple[float, float], gap: float, x: float, y: float) -> np.ndarray:
    """The cells a shape takes, along the cloth downwards, from half a gap before its corner at x and y beyond the first cell."""
    grown = Polygon([(b + y + gap / 2, a + x + gap / 2) for a, b in ring]).buffer(gap / 2 - NARROW, quad_segs=8)
    _, _, far, low = grown.bounds
    whole = Polygon([(0.0, 0.0), (far, 0.0), (far, low), (0.0, low)])
    return touched_cells(grown, (cell[1], cell[0]), whole)


def by_size(shapes: Sequence[Cutout]) -> list[str]:
    """The largest first, what lies on the fold before the rest."""
    return [s.id for s in sorted(shapes, key=lambda s: (not s.on_fold, -s.polygon.area))]


def settled(lay: Lay) -> Lay:
    """A lay with every shape pushed up against what lies before it, as far as fold, bars and stripes let it."""
    if lay.table.along:
        return lay
    order = sorted(lay.placed, key=lambda put: put.x)
    polygons = dict(lay.polygons)
    found: dict[str, Placed] = {}
    for put in order:
        near = [p for name, p in polygons.items() if name != put.id]
        low, high = 0.0, put.x
        mine = polygons[put.id]
        room = min(high, 2 * FINE)
        for _ in range(SLIDES):
            middle = (low + room) / 2
            moved = _left(mine, middle)
            if all(moved.distance(other) >= max(lay.table.gap, HAIR) for other in near if _close(moved, other, lay.table.gap)):
                low = middle
            else:
                room = middle
        found[put.id] = replace(put, x=put.x - low)
        polygons[put.id] = _left(mine, low)
    return replace(lay, placed=tuple(found[put.id] for put in lay.placed))


def _left(polygon: Polygon, by: float) -> Polygon:
    return Polygon([(x - by, y) for x, y in polygon.exterior.coords])


def _close(one: Polygon, other: Polygon, gap: float) -> bool:
    a, b = one.bounds, other.bounds
    return bool(a[0] - gap < b[2] and b[0] - gap < a[2] and a[1] - gap < b[3] and b[1] - gap < a[3])


def improving(shapes: Sequence[Cutout], table: OnTable, seed: int = 1, long: float | None = None) -> Iterator[Lay]:
    """Lays, each as good as can be found so far, without end: the first at once, others by other orders, in coarse cells; what is
    better there is laid again in fine ones. One that is no better is given again."""
    rng = random.Random(seed)
    coarse, fine = Grid(shapes, table, COARSE, long), Grid(shapes, table, FINE, long)
    kept = by_size(shapes)
    rough = coarse.lay(kept)
    best = settled(rough)
    if not _sound(best):  # a corner that a coarse cell does not see
        wider = Grid(shapes, replace(table, gap=table.gap + COARSE / 4), COARSE, long).lay(kept)
        best = settled(replace(wider, table=table))
    while True:
        yield best
        order = _swayed(kept, rng)
        found = coarse.lay(order, rng)
        if _worse(found, rough):
            continue
        better, rough, kept = _better(found, rough), found, order
        if better:
            for lay in (settled(found), settled(fine.lay(order)), settled(fine.lay(order, rng))):
                best = lay if _better(lay, best) and _sound(lay) else best


def _sound(lay: Lay) -> bool:
    return next(faults(lay), None) is None


def _worse(one: Lay, other: Lay) -> bool:
    return (len(one.left), one.length) > (len(other.left), other.length + 1e-6)


def _better(one: Lay, other: Lay) -> bool:
    return (len(one.left), one.length) < (len(other.left), other.length - 1e-6)


def _swayed(order: Sequence[str], rng: random.Random) -> list[str]:
    """An order with a few shapes elsewhere in it."""
    found = list(order)
    for _ in range(rng.choice((1, 1, 2, 3))):
        if len(found) > 1:
            name = found.pop(rng.randrange(len(found)))
            found.insert(rng.randrange(len(found) + 1), name)
    return found
