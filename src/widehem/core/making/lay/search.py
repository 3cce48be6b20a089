"""Looking for a good lay: at once a fair one, then better ones, until the time is over or somebody stops it."""

from __future__ import annotations

import time
from collections.abc import Generator, Sequence

from widehem.core.making.lay.cloth import OnTable
from widehem.core.making.lay.cutouts import Cutout
from widehem.core.making.lay.grid import improving
from widehem.core.making.lay.placed import Lay
from widehem.core.making.lay.sparrow import can, packing
from widehem.core.values import record, replace

BY_CELLS = 1.0  # seconds by cells before spyrrow is asked, where it can lay them
ON_LEFTOVER = 2.0  # seconds for a piece of cloth that is left over
FEWEST = 40  # lays by cells that are tried at the least


def laying(shapes: Sequence[Cutout], table: OnTable, seconds: float, seed: int = 1) -> Generator[Lay]:
    """The best lay so far, again and again until the seconds are over. Closing the iterator stops the work."""
    begun = time.monotonic()
    search = improving(shapes, table, seed)
    best = next(search)
    yield best
    by_sparrow = can(shapes, table)
    until = begun + (min(BY_CELLS, seconds) if by_sparrow else seconds)
    while time.monotonic() < until:
        best = next(search)
        yield best
    left = round(seconds - (time.monotonic() - begun))
    if by_sparrow and left > 0:
        for found in packing(shapes, table, left, seed):
            if found is not None and (found.length < best.length - 1e-6 or best.left):
                best = found
            yield best


@record(frozen=True)
class Leftover:
    """A piece of cloth that is left. name: what it is called in the stock; length, cm; table: its width and how it is laid."""

    name: str
    length: float
    table: OnTable


def on_leftovers(
    shapes: Sequence[Cutout], leftovers: Sequence[Leftover], seconds: float = ON_LEFTOVER
) -> tuple[list[tuple[Leftover, Lay]], list[Cutout]]:
    """As much as finds room on what is left over, the smallest piece of cloth first; and what is still to be laid."""
    rest, used = list(shapes), list[tuple[Leftover, Lay]]()
    for leftover in sorted(leftovers, key=lambda piece: piece.length * piece.table.width):
        if not rest:
            break
        lay = _filled(rest, leftover, seconds)
        if lay is not None:
            there = {put.id for put in lay.placed}
            used.append((leftover, lay))
            rest = [shape for shape in rest if shape.id not in there]
    return used, rest


def _filled(shapes: Sequence[Cutout], leftover: Leftover, seconds: float) -> Lay | None:
    """The lay on a length that takes most cloth; None where nothing fits."""
    best: Lay | None = None
    most = 0.0
    until = time.monotonic() + seconds
    for tried, lay in enumerate(improving(shapes, leftover.table, long=leftover.length), 1):
        area = sum(polygon.area for polygon in lay.polygons.values())
        if area > most:
            best, most = lay, area
        if (tried >= FEWEST and time.monotonic() > until) or not lay.left:
            break
    if best is None or not best.placed:
        return None
    there = {put.id for put in best.placed}
    return replace(best, shapes=tuple(shape for shape in best.shapes if shape.id in there), left=())
