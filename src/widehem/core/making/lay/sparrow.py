"""Laying by spyrrow, in a process of its own: what it finds comes line by line, and it can be stopped at any time.

It knows no fold, no bars and no stripes; the rest it lays closer than anything else here. A fault in it ends its process, not ours.
"""

from __future__ import annotations

import json
import subprocess
import sys
import threading
import time
from collections.abc import Iterator, Sequence
from contextlib import suppress
from typing import Any

from widehem.core.making.lay.cloth import OnTable
from widehem.core.making.lay.cutouts import Cutout
from widehem.core.making.lay.placed import NEAR, Lay, Placed
from widehem.core.values import replace

SIMPLE = 0.03  # cm by which a ring is simplified; it is grown by as much
LOOK, BEAT = 0.1, 0.5  # seconds between looks for something better; between words that it still looks


def can(shapes: Sequence[Cutout], table: OnTable) -> bool:
    """Whether spyrrow can lay these."""
    return bool(shapes) and not table.along and not table.across and not any(shape.on_fold for shape in shapes)


def packing(shapes: Sequence[Cutout], table: OnTable, seconds: int, seed: int = 1) -> Iterator[Lay | None]:
    """Lays that get better, until the seconds are over, and None every half second while nothing better is found. Closing the iterator
    stops the work."""
    wish = {
        "items": _items(shapes, table),
        "height": table.high + table.gap,
        "gap": table.gap,
        "seconds": seconds,
        "seed": seed,
    }
    command = [sys.executable, "-m", "widehem.core.making.lay.sparrow"]
    process = subprocess.Popen(command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True)
    try:
        assert process.stdin is not None and process.stdout is not None
        with suppress(BrokenPipeError):
            process.stdin.write(json.dumps(wish))
            process.stdin.close()
        for line in process.stdout:
            rows = json.loads(line)
            yield _lay(shapes, table, rows) if rows is not None else None
    finally:
        process.kill()
        process.wait()
        if process.stdout is not None:
            process.stdout.close()


def _items(shapes: Sequence[Cutout], table: OnTable) -> list[dict[str, Any]]:
    rows: dict[tuple[Any, ...], dict[str, Any]] = {}
    for shape in shapes:
        grown = shape.polygon.simplify(SIMPLE).buffer(SIMPLE, join_style="mitre")
        ring = [[round(x, 3), round(y, 3)] for x, y in grown.exterior.coords[:-1]]
        row = rows.setdefault(shape.ring, {"ids": [], "ring": ring, "turns": list(table.turns)})
        row["ids"].append(shape.id)
    return list(rows.values())


def _lay(shapes: Sequence[Cutout], table: OnTable, rows: Sequence[Sequence[Any]]) -> Lay:
    """What came, as a lay: each shape by the corner of what it takes when it is turned."""
    by_id = {shape.id: shape for shape in shapes}
    placed = []
    for name, x, y, turned in rows:
        shape, quarter = by_id[name], round(turned) % 360
        spots = list(shape.ring)
        for _ in range(quarter // 90):
            spots = [(-b, a) for a, b in spots]
        left, low = min(a for a, _ in spots), min(b for _, b in spots)
        placed.append(Placed(name, x + left - table.gap / 2, y + low - table.gap / 2, quarter))
    found = Lay(table, tuple(shapes), tuple(placed))
    return _inside(found)


def _inside(lay: Lay) -> Lay:
    """The whole lay moved so that it begins at the cut end; what reaches over by less than a hair is pushed back."""
    begin = min((x for ring in lay.rings.values() for x, _ in ring), default=0.0)
    placed = []
    for put in lay.placed:
        low = min(y for _, y in lay.rings[put.id])
        high = max(y for _, y in lay.rings[put.id])
        off = -low if -NEAR < low < 0 else lay.table.high - high if lay.table.high < high < lay.table.high + NEAR else 0.0
        placed.append(replace(put, x=put.x - begin, y=put.y + off))
    return replace(lay, placed=tuple(placed))


# ---- in the process of its own ----


def _main() -> None:
    import spyrrow

    wish = json.load(sys.stdin)
    ids = {str(number): list(row["ids"]) for number, row in enumerate(wish["items"])}
    items = [
        spyrrow.Item(str(number), [tuple(spot) for spot in row["ring"]], len(row["ids"]), [float(t) for t in row["turns"]])
        for number, row in enumerate(wish["items"])
    ]
    instance = spyrrow.StripPackingInstance("lay", wish["height"], items)
    config = spyrrow.StripPackingConfig(
        early_termination=False, min_items_separation=wish["gap"], total_computation_time=wish["seconds"], num_workers=1, seed=wish["seed"]
    )  # fmt: skip
    queue = spyrrow.ProgressQueue()
    done: list[Any] = []
    thread = threading.Thread(target=lambda: done.append(instance.solve(config, progress=queue)), daemon=True)
    thread.start()
    best, told = float("inf"), time.monotonic()
    while True:
        ended = not thread.is_alive()
        for kind, solution in queue.drain():
            whole = kind in (spyrrow.ReportType.ExplFeas, spyrrow.ReportType.CmprFeas, spyrrow.ReportType.Final)
            if whole and solution.width < best - 1e-6:
                best = solution.width
                _tell(solution, ids)
        if ended:
            break
        if time.monotonic() - told > BEAT:
            told = time.monotonic()
            print("null", flush=True)
        time.sleep(LOOK)
    if done and done[0].width < best - 1e-6:
        _tell(done[0], ids)


def _tell(solution: Any, ids: dict[str, list[str]]) -> None:
    left = {number: list(names) for number, names in ids.items()}
    rows = [[left[p.id].pop(0), p.translation[0], p.translation[1], p.rotation] for p in solution.placed_items]
    print(json.dumps(rows), flush=True)


if __name__ == "__main__":
    _main()
