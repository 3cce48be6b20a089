"""Random lays looked at by their outlines alone: whether anything lies on anything else, over the edge, turned or mirrored as it may not."""

from __future__ import annotations

import itertools
import random
import sys
from collections import Counter
from collections.abc import Iterator, Sequence

from shapely import Polygon
from shapely.affinity import rotate, scale, translate

from widehem.core.making.lay.cloth import OnTable
from widehem.core.making.lay.cutouts import Cutout
from widehem.core.making.lay.grid import improving
from widehem.core.making.lay.placed import Lay
from widehem.core.making.lay.sparrow import can, packing

TOUCH = 0.06  # cm by which two outlines may come nearer than the gap, and reach over an edge


def random_shapes(rng: random.Random, table: OnTable, count: int) -> list[Cutout]:
    """Pieces of every kind: straight and hollow, halves for the fold, pairs, with places for bars and stripes."""
    found: list[Cutout] = []
    while len(found) < count:
        long, wide = rng.uniform(4, 70), rng.uniform(3, min(table.high * 0.95, 45))
        spots = [
            (0.0, 0.0),
            (long, 0.0),
            (long, wide * rng.uniform(0.3, 1.0)),
            (long * rng.uniform(0.3, 0.9), wide),
            (0.0, wide * rng.uniform(0.4, 1.0)),
        ]
        if rng.random() < 0.5:  # hollow as an armhole is
            spots.insert(3, (long * 0.8, wide * 0.35))
        polygon = Polygon(spots)
        if not polygon.is_valid or polygon.area < 5:
            continue
        left, low, _, _ = polygon.bounds
        ring = tuple((round(x - left, 3), round(y - low, 3)) for x, y in polygon.exterior.coords[:-1])
        on_fold = table.folded and rng.random() < 0.25
        bar = rng.uniform(0, long) if table.along and rng.random() < 0.8 else None
        stripe = rng.uniform(0, wide) if table.across and not on_fold and rng.random() < 0.5 else None
        number, title = len(found) + 1, f"Piece {len(found) + 1}"
        if table.folded or rng.random() < 0.4:
            found.append(Cutout(f"{number}", title, title, "", ring, 0 if table.folded else 1, on_fold, bar=bar, stripe=stripe))
            continue
        high = max(y for _, y in ring)
        over = tuple((x, high - y) for x, y in reversed(ring))
        found.append(Cutout(f"{number}", title, title, "", ring, 1, bar=bar, stripe=stripe))
        found.append(
            Cutout(f"{number + 1}", title, title, "", over, -1, bar=bar, stripe=None if stripe is None else high - stripe)
        )
    return found


def random_table(rng: random.Random) -> OnTable:
    """A cloth as it may lie."""
    along = rng.choice([0.0, 0.0, 0.0, 8.0, 21.5])
    return OnTable(
        rng.choice([90.0, 115.0, 140.0, 150.0, 162.5]), rng.random() < 0.4, rng.choice(["one", "either", "either", "any"]), rng.choice([0.0, 0.3, 1.0]),
        rng.choice([0.0, 1.0, 2.5]), along=along, across=rng.choice([0.0, 6.0]) if along else 0.0,
    )  # fmt: skip


def seen(shape: Cutout, turned: int, flipped: bool) -> Polygon:
    """A shape as it lies, made by another hand than the programme's."""
    polygon = Polygon(shape.ring)
    if flipped:
        polygon = scale(polygon, 1, -1, origin=(0, 0))
    return rotate(polygon, turned, origin=(0, 0))


def wrong(lay: Lay) -> Iterator[str]:
    """What is wrong with a lay, by its outlines alone."""
    table, put_at = lay.table, {}
    for put in lay.placed:
        shape = next(s for s in lay.shapes if s.id == put.id)
        polygon = seen(shape, put.turned, put.flipped)
        left, low, _, _ = polygon.bounds
        put_at[put.id] = translate(polygon, put.x - left, put.y - low)
        if put.turned not in {"one": (0,), "either": (0, 180), "any": (0, 90, 180, 270)}[table.way]:
            yield f"{put.id} is turned by {put.turned}"
        if put.flipped and shape.hand != 0:
            yield f"{put.id} is mirrored"
        left, low, _, high = put_at[put.id].bounds
        room = table.width / 2 - table.selvedge if table.folded else table.width - 2 * table.selvedge
        if left < -TOUCH or low < -TOUCH or high > room + TOUCH:
            yield f"{put.id} reaches over the edge"
        if shape.on_fold:
            edge = put_at[put.id].intersection(Polygon([(-1, -0.05), (1e5, -0.05), (1e5, 0.05), (-1, 0.05)]))
            if edge.is_empty or edge.bounds[2] - edge.bounds[0] < 0.5 * max(x for x, _ in shape.ring):
                yield f"{put.id} is not on the fold"
        if table.along and shape.bar is not None:
            mark = seen(
                Cutout("", "", "", "", ((shape.bar, 0.0), (shape.bar + 0.01, 0.0), (shape.bar, 0.01))), put.turned, put.flipped
            )
            own = seen(shape, put.turned, put.flipped)
            at = mark.exterior.coords[0][0] - own.bounds[0] + put.x
            if put.turned in (0, 180) and abs((at + table.along / 2) % table.along - table.along / 2) > TOUCH:
                yield f"{put.id} lies off its bar"
    for a, b in itertools.combinations(put_at, 2):
        if put_at[a].distance(put_at[b]) < table.gap - TOUCH or put_at[a].intersection(put_at[b]).area > TOUCH:
            yield f"{a} lies on {b}"
    laid = Counter(put.id for put in lay.placed) + Counter(lay.left)
    if laid != Counter(shape.id for shape in lay.shapes):
        yield "not every piece lies once"


def sweep(count: int, seed: int = 1) -> list[str]:
    """What is wrong with so many random lays: by cells, every fiftieth by spyrrow."""
    rng, found = random.Random(seed), []
    for number in range(count):
        table = random_table(rng)
        shapes = random_shapes(rng, table, rng.randint(2, 14))
        lays = list(itertools.islice(improving(shapes, table, number), 3))[-1:]
        if number % 50 == 0 and can(shapes, table):
            lays.append([lay for lay in packing(shapes, table, 2) if lay is not None][-1])
        found += [f"lay {number}: {words}" for lay in lays for words in wrong(lay)]
    return found


def total(lays: Sequence[Lay]) -> float:
    """The length of all of them, cm."""
    return sum(lay.length for lay in lays)


if __name__ == "__main__":
    faults = sweep(int(sys.argv[1]) if len(sys.argv) > 1 else 500)
    print("\n".join(faults) or "nothing lies on anything, over the edge, or as it may not")
    sys.exit(bool(faults))
