"""Rules of the maker for single spots of finished pieces: they go before everything else."""

from __future__ import annotations

from collections.abc import Iterable

from widehem.core.design.make import with_garment
from widehem.core.geometry.points import Point
from widehem.core.grading.size_chart import SizeChart
from widehem.core.grading.sized import Sized
from widehem.core.grading.tables import RuleTable, frame_of, kind_of, scales
from widehem.core.pattern.piece import Piece
from widehem.core.shifting.shift import ruled, shifted
from widehem.core.shifting.spots import Target, place_of, targets
from widehem.core.values import record, replace


@record(frozen=True)
class OwnRule:
    """How far one spot of one piece moves a step: out and up, cm."""

    piece: str
    text: str
    out: float
    up: float


def with_own(base: Sized, sized: Sized, own: Iterable[OwnRule], table: RuleTable, chart: SizeChart) -> Sized:
    """A garment in a size with the spots of these rules where they put them from the base; all other corners stay. Raises
    PatternError."""
    garment = sized.garment
    if sized.size == chart.base:
        return sized
    by_piece: dict[str, list[OwnRule]] = {}
    for rule in own:
        by_piece.setdefault(rule.piece, []).append(rule)
    for name, rules in by_piece.items():
        if any(piece.name == name for piece in garment.pieces) and any(piece.name == name for piece in base.garment.pieces):
            garment = garment.with_piece(_moved(base.garment.piece(name), garment.piece(name), rules, table, chart, sized.size))
    return replace(sized, made=with_garment(sized.made, garment, sized.demands))


def _moved(before: Piece, piece: Piece, rules: Iterable[OwnRule], table: RuleTable, chart: SizeChart, size: int) -> Piece:
    frame, vectors = frame_of(piece), dict[Target, Point]()
    steps = sum(share for _, share in scales(table, chart, kind_of(piece), size))
    for rule in rules:
        for there, here in zip(targets(before, rule.text), targets(piece, rule.text), strict=False):
            was, now = place_of(before, there), place_of(piece, here)
            if was is None or now is None:
                continue
            wanted = was + frame_of(before).vector(was, rule.out * steps, rule.up * steps)
            vectors[here] = wanted - now + Point(frame.x - frame_of(before).x, 0.0)
    corners = {Target("corner", edge.name): Point(0.0, 0.0) for edge in piece.edges}
    moves = {**corners, **vectors}
    common = [target for target in moves if target.kind not in ("corner", "edge") or before.has(target.name)]
    base = ruled(
        before, common
    )  # joints share as they do in the base, so that no size shares in another way than the one before
    return shifted(replace(ruled(piece, moves), like=base.shut), moves)
