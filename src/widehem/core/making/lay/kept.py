"""A lay as plain data, and back: the shapes as they were when it was laid, and where each lies."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import Any

from widehem.core.making.lay.cutouts import Cutout
from widehem.core.making.lay.placed import Placed

MOST_SHAPES, MOST_SPOTS, FARTHEST = 2000, 4000, 100_000.0  # cm


def cutout_data(shape: Cutout) -> dict[str, Any]:
    """A shape as plain data."""
    found: dict[str, Any] = {
        "id": shape.id, "title": shape.title, "piece": shape.piece, "of": shape.of, "hand": shape.hand,
        "ring": [[round(x, 3), round(y, 3)] for x, y in shape.ring],
    }  # fmt: skip
    found |= {name: True for name in ("on_fold", "single") if getattr(shape, name)}
    found |= {name: round(value, 3) for name in ("bar", "stripe") if (value := getattr(shape, name)) is not None}
    return {**found, "note": shape.note} if shape.note else found


def cutout_from(data: Mapping[str, Any]) -> Cutout:
    """Read back. Raises KeyError, TypeError, ValueError."""
    ring = tuple((_figure(x), _figure(y)) for x, y in data["ring"])
    if not 3 <= len(ring) <= MOST_SPOTS:
        raise ValueError("a shape has no outline that can be")
    hand = int(data.get("hand", 1))
    if hand not in (-1, 0, 1):
        raise ValueError("a shape has a hand that cannot be")
    bar, stripe = (None if data.get(name) is None else _figure(data[name]) for name in ("bar", "stripe"))
    name, title, piece, of, note = (str(data.get(field, ""))[:120] for field in ("id", "title", "piece", "of", "note"))
    return Cutout(
        name, title, piece, of, ring, hand, data.get("on_fold") is True, data.get("single") is True, bar, stripe, note
    )


def placed_data(placed: Sequence[Placed]) -> list[list[Any]]:
    """Where shapes lie, as plain data."""
    return [[put.id, round(put.x, 3), round(put.y, 3), put.turned, put.flipped] for put in placed]


def placed_from(rows: Sequence[Sequence[Any]]) -> tuple[Placed, ...]:
    """Read back. Raises TypeError, ValueError."""
    found = []
    for name, x, y, turned, flipped in rows:
        if int(turned) not in (0, 90, 180, 270):
            raise ValueError("a shape is turned as none can be")
        found.append(Placed(str(name)[:40], _figure(x), _figure(y), int(turned), flipped is True))
    return tuple(found)


def _figure(value: Any) -> float:
    found = float(value)
    if not math.isfinite(found) or abs(found) > FARTHEST:
        raise ValueError("a place lies nowhere")
    return found
