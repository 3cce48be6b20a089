"""A lay: where everything lies on the cloth, whether it may lie so, and what it takes."""

from __future__ import annotations

from collections.abc import Iterator

from shapely import Polygon, STRtree, prepare

from widehem.core.making.lay.cloth import OnTable
from widehem.core.making.lay.cutouts import Cutout
from widehem.core.units import Saying, say
from widehem.core.values import kept, record, replace

NEAR = 0.05  # cm by which two pieces may come nearer than the gap, and reach beyond the cloth: less than a chalk line
OVER = 0.05  # cm²


@record(frozen=True)
class Placed:
    """Where a shape lies: its corner, cm along the cloth and across it, how it is turned, degrees, and whether it is turned over."""

    id: str
    x: float
    y: float
    turned: int = 0
    flipped: bool = False


@record(frozen=True)
class Lay:
    """Shapes on a cloth. left: those that found no place, by id."""

    table: OnTable
    shapes: tuple[Cutout, ...]
    placed: tuple[Placed, ...]
    left: tuple[str, ...] = ()

    @kept
    def by_id(self) -> dict[str, Cutout]:
        return {shape.id: shape for shape in self.shapes}

    @kept
    def rings(self) -> dict[str, tuple[tuple[float, float], ...]]:
        """Each shape as it lies, cm along the cloth and across the part of it that is laid on."""
        return {put.id: ring_at(self.by_id[put.id], put) for put in self.placed}

    @kept
    def polygons(self) -> dict[str, Polygon]:
        return {name: Polygon(ring) for name, ring in self.rings.items()}

    @kept
    def length(self) -> float:
        """How much of the cloth it takes, cm."""
        return max((x for ring in self.rings.values() for x, _ in ring), default=0.0)

    @property
    def to_buy(self) -> float:
        return self.table.to_buy(self.length)

    @kept
    def used(self) -> float:
        """How much of the cloth it takes is in the pieces, 0 to 1."""
        area = sum(
            polygon.area * (self.table.layers if not self.by_id[name].single else 1) for name, polygon in self.polygons.items()
        )
        whole = self.length * self.table.width
        return area / whole if whole else 0.0

    @property
    def cost(self) -> float:
        return self.to_buy / 100 * self.table.price

    def with_put(self, put: Placed) -> Lay:
        """The lay with a shape put elsewhere."""
        return replace(self, placed=tuple(put if old.id == put.id else old for old in self.placed))


def ring_at(shape: Cutout, put: Placed) -> tuple[tuple[float, float], ...]:
    """The ring of a shape where it lies."""
    return tuple((x + put.x, y + put.y) for x, y in shape.posed(put.turned, put.flipped))


def faults(lay: Lay) -> Iterator[Saying]:
    """What is wrong with a lay, each in a sentence with its figures: nothing else judges one."""
    for put in lay.placed:
        yield from _alone(lay, put)
    names = list(lay.polygons)
    shapes = [lay.polygons[name] for name in names]
    tree = STRtree(shapes)
    for number, shape in enumerate(shapes):
        for other in tree.query(shape.buffer(lay.table.gap)):
            if other > number:
                yield from _two(lay, names[number], names[int(other)])
    missing = [shape.title for shape in lay.shapes if shape.id not in lay.polygons and shape.id not in lay.left]
    if missing:
        yield say(f"Not laid: {', '.join(dict.fromkeys(missing))}.")


def faults_of(lay: Lay, name: str) -> list[Saying]:
    """What is wrong with where one shape lies."""
    put = next(put for put in lay.placed if put.id == name)
    found = list(_alone(lay, put))
    for other in lay.polygons:
        if other != name:
            found += _two(lay, name, other)
    return found


def _alone(lay: Lay, put: Placed) -> Iterator[Saying]:
    shape, table = lay.by_id[put.id], lay.table
    left, low, _, high = lay.polygons[put.id].bounds
    if put.turned not in table.turns:
        yield say(
            f"{shape.title} is turned by {put.turned}°: on this cloth pieces lie {'one way' if table.way == 'one' else 'along the grain'}."
        )
    if put.flipped and not shape.free:
        yield say(f"{shape.title} is turned over: it would be cut for the other hand.")
    if left < -NEAR:
        yield say(f"{shape.title} reaches {{0u}} over the cut end of the cloth.", -left)
    if low < -NEAR:
        yield say(f"{shape.title} reaches {{0u}} over the {'fold' if table.folded else 'selvedge'}.", -low)
    if high > table.high + NEAR:
        yield say(f"{shape.title} reaches {{0u}} over the selvedge.", high - table.high)
    if shape.on_fold and not lies_on_fold(put.turned, put.flipped):
        yield say(f"{shape.title} is turned away from the fold it is cut on.")
    elif shape.on_fold and abs(low) > NEAR:
        yield say(f"{shape.title} lies {{0u}} off the fold it is cut on.", low)
    yield from _matched(shape, put, table)


def lies_on_fold(turned: int, flipped: bool) -> bool:
    """Whether the fold of a half lies along that of the cloth when it is turned so: head to foot only turned over."""
    return turned in (0, 180) and flipped == (turned == 180)


def _matched(shape: Cutout, put: Placed, table: OnTable) -> Iterator[Saying]:
    for repeat, at, words in ((table.along, bar_at(shape, put), "bar"), (table.across, stripe_at(shape, put, table), "stripe")):
        if repeat and at is not None:
            off = (at + repeat / 2) % repeat - repeat / 2
            if abs(off) > NEAR:
                yield say(f"{shape.title} lies {{0u}} off its {words}.", abs(off))


def bar_at(shape: Cutout, put: Placed) -> float | None:
    """Where along the cloth the place of a shape lies that is laid on a bar."""
    if shape.bar is None:
        return None
    return put.x + shape.spot_posed((shape.bar, 0.0), put.turned, put.flipped)[0]


def stripe_at(shape: Cutout, put: Placed, table: OnTable) -> float | None:
    """Where across the cloth the middle of a shape lies, from the middle of the cloth."""
    if shape.stripe is None or shape.on_fold:
        return None
    y = put.y + shape.spot_posed((0.0, shape.stripe), put.turned, put.flipped)[1]
    return y if table.folded else y - table.high / 2


def _two(lay: Lay, one: str, other: str) -> Iterator[Saying]:
    a, b = lay.polygons[one], lay.polygons[other]
    prepare(a)
    apart = a.distance(b)
    if apart > 0 and apart >= lay.table.gap - NEAR:
        return
    titles = lay.by_id[one].title, lay.by_id[other].title
    over = a.intersection(b).area
    if over > OVER:
        left, low, right, high = a.intersection(b).bounds
        yield say(f"{titles[0]} and {titles[1]} lie on each other by {{0u}}.", min(right - left, high - low))
    elif apart < lay.table.gap - NEAR:
        yield say(
            f"{titles[0]} and {titles[1]} are only {{0}} apart: {{1u}} are wanted between two pieces.",
            apart,
            lay.table.gap,
        )


def nearest(lay: Lay, wished: Placed, reach: float = 3.0) -> Placed | None:
    """Where a shape may lie nearest to where it was put; None where there is no room within reach, cm. It slides off what it touches,
    onto the fold, bar or stripe it belongs on."""
    first = snapped(lay, wished)
    for put in _around(lay, first, reach):
        if not faults_of(lay.with_put(put), put.id):
            return put
    return None


def _around(lay: Lay, put: Placed, reach: float) -> Iterator[Placed]:
    yield put
    steps = sorted(
        ((x * STEP, y * STEP) for x in range(-RINGS, RINGS + 1) for y in range(-RINGS, RINGS + 1)),
        key=lambda s: s[0] ** 2 + s[1] ** 2,
    )
    for x, y in steps:
        if 0 < x * x + y * y <= reach * reach:
            moved = snapped(lay, replace(put, x=put.x + x, y=put.y + y))
            if moved != put:
                yield moved


STEP, RINGS = 0.5, 6  # cm, and steps each way in which room is looked for


def snapped(lay: Lay, put: Placed) -> Placed:
    """A shape on the cloth, on the fold it belongs on, on its bar and stripe."""
    shape, table = lay.by_id[put.id], lay.table
    put = replace(put, flipped=put.turned == 180) if shape.on_fold else put
    ring = shape.posed(put.turned, put.flipped)
    high = max(y for _, y in ring)
    x, y = max(put.x, 0.0), min(max(put.y, 0.0), max(table.high - high, 0.0))
    found = replace(put, x=x, y=0.0 if shape.on_fold else y)
    if table.along and (at := bar_at(shape, found)) is not None:
        moved = found.x - ((at + table.along / 2) % table.along - table.along / 2)
        found = replace(found, x=moved if moved >= -NEAR else moved + table.along)
    if table.across and (at := stripe_at(shape, found, table)) is not None:
        moved = found.y - ((at + table.across / 2) % table.across - table.across / 2)
        moved = moved if moved >= -NEAR else moved + table.across
        found = replace(found, y=moved if moved + high <= table.high + NEAR else moved - table.across)
    return found
