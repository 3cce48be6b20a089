"""Paper dummies: small parts as they lie when they are finished, to be cut out and pinned to a fitting or a stand."""

from __future__ import annotations

from fontTools.misc.transform import Transform

from widehem.core.design.make import Made
from widehem.core.geometry.paths import Path
from widehem.core.marking.labels import Heading
from widehem.core.marking.made import Pattern, mark_up
from widehem.core.marking.plans import PLANS
from widehem.core.marking.wanted import Wanted
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.inside import InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, FRONT
from widehem.core.units import METRIC, Display
from widehem.core.values import replace


class NoDummiesError(ValueError):
    """The garment has no small parts; one sentence."""


def dummies(made: Made, heading: Heading | None = None, show: Display = METRIC) -> Pattern:
    """The parts of a garment that no level of the body crosses, and its lapels turned over, without allowances. Raises
    NoDummiesError."""
    parts = [piece for piece in made.garment.pieces if _small(piece)]
    lapels = [_lapel(piece, line) for piece in made.garment.shell for line in piece.lines if line.folded is not None]
    if not parts and not lapels:
        raise NoDummiesError("This garment has no pockets, collars, lapels or other small parts to make dummies of.")
    table = made.table
    for lapel in lapels:
        table = table.with_piece(lapel.name, table.lay.get(lapel.of, Transform()))
    small = replace(made, garment=Garment((*parts, *lapels)), lies=table)
    return mark_up(small, Wanted.by(PLANS["none"]), heading, show)


def has_dummies(garment: Garment) -> bool:
    """Whether a garment has small parts."""
    return any(_small(piece) or any(line.folded is not None for line in piece.lines) for piece in garment.pieces)


def _small(piece: Piece) -> bool:
    """Whether a piece is a part that no level of the body crosses, and no front, back or sleeve."""
    return piece.layer in ("shell", "inside") and not piece.balance and piece.of not in (FRONT, BACK, "sleeve")


def _lapel(piece: Piece, line: InnerLine) -> Piece:
    """What is turned over a line, as it lies then."""
    assert line.folded is not None
    shown = line.folded
    edges = [Edge("outer", (shown,), kind="faced", role="front_edge")]
    if shown.end.to(shown.start) > 1e-4:
        edges.append(Edge("roll", (Path.through(shown.end, shown.start),), kind="faced", role="front_edge"))
    return Piece(
        f"{piece.name}_{line.name}", f"{piece.title}, turned over", tuple(edges), of=piece.name, stands="pair", layer="inside"
    )
