"""What an amount moves: where a piece answers to it most, so that the amount can be pulled there with the hand."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Garment
from widehem.core.setting.option import Option, Value
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.operation import CannotStyle, Context, Operation, run
from widehem.core.style.where import Where
from widehem.core.values import record

NUDGE = 0.1  # cm
ANSWERS = 0.12  # cm moved for one: less is no place to pull
PARTS = (0.0, 0.25, 0.5, 0.75, 1.0)
ROOM = 1.5  # cm between two of them
MOST = 4  # amounts that can be pulled


@record(frozen=True)
class Handle:
    """A place to pull. code: of the amount; value: what it is, cm; at: on which piece where; way: how far and whereto it moves for
    one centimetre."""

    code: str
    piece: str
    at: Point
    way: Point
    value: float


def handles(
    asked: Operation, garment: Garment, context: Context, settings: Mapping[str, Value], wheres: Mapping[str, Where],
    names: Mapping[str, str],
) -> list[Handle]:  # fmt: skip
    """The lengths of an operation that move something, each with the place that it moves most.

    garment: as it is before. An amount that cannot be nudged, or is a formula, has none.
    """

    def done(changed: Mapping[str, Value]) -> Garment | None:
        try:
            return run(asked, garment, context, changed, wheres, names).garment
        except (CannotStyle, CannotDraft):
            return None

    now = done(settings)
    found: list[Handle] = []
    chosen: dict[str, Any] = {option.code: settings.get(option.code, option.default) for option in asked.options}
    for option in asked.options:
        value = chosen[option.code]
        if now is None or len(found) == MOST:
            break
        if option.kind != "length" or isinstance(value, str) or value is None or not option.applies(chosen):
            continue
        handle = _pulled(option, float(value), now, lambda by, code=option.code: done({**settings, code: by}), found)
        if handle is not None:
            found.append(handle)
    return found


def _pulled(option: Option, value: float, now: Garment, done: Any, taken: list[Handle]) -> Handle | None:
    """The place that answers to an amount most, away from those that are taken."""
    nudge = NUDGE if value + NUDGE <= option.high else -NUDGE
    then = done(value + nudge)
    if then is None:
        return None
    others = {piece.name: piece for piece in then.pieces}
    best: Handle | None = None
    for piece in now.pieces:
        other = others.get(piece.name)
        if other is None:
            continue
        known = {edge.name: edge for edge in other.edges}
        for edge in piece.edges:
            moved = known.get(edge.name)
            if moved is None or len(moved.parts) != len(edge.parts) or moved.parts == edge.parts:
                continue
            for at, way in _moves(edge, moved, nudge):
                if any(old.piece == piece.name and old.at.to(at) < ROOM for old in taken):
                    continue
                if way.size > ANSWERS and (best is None or way.size > best.way.size + 1e-6):
                    best = Handle(option.code, piece.name, at, way, value)
    return best


def _moves(edge: Edge, moved: Edge, nudge: float) -> Iterator[tuple[Point, Point]]:
    """Places along an edge, and how far and whereto each moves for one centimetre."""
    for path, other in zip(edge.parts, moved.parts, strict=True):
        for part in PARTS:
            at = path.place(path.length * part).point
            yield at, (other.place(other.length * part).point - at) * (1 / nudge)
