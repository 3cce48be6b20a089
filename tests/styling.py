"""Doing operations to any garment in tests: places found by looking, not by name."""

from __future__ import annotations

from collections.abc import Iterator

from tests.bodies import drafted, upper_build
from widehem.core.design.make import Made
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Dart
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import Piece
from widehem.core.style.operation import OPERATIONS, Context, Done, run
from widehem.core.style.where import Where


def any_method(code: str, build: str = "typical") -> Made:
    """A method on a build; a sleeve for the garment it is made for."""
    method = METHODS[code]
    hole = armhole_of(drafted(METHODS[method.made_for], upper_build(build)).garment) if method.for_armhole else None
    return drafted(method, upper_build(build), armhole=hole)


def do(code: str, garment: Garment, settings=None, wheres=None, names=None) -> Done:
    """An operation on a garment of the usual body."""
    return run(OPERATIONS[code], garment, Context(upper_build()), settings, wheres, names)


def across_from(piece: Piece, at: Point, way: Point) -> tuple[str, float] | None:
    """Where a line from a point inside a piece first meets its outline: the edge, and how far along it."""
    best, found = 1e9, None
    for edge in piece.edges:
        gone = 0.0
        for part in edge.parts:
            for index, t in part.crossings(at, way):
                far = way.dot(part.segments[index].at(t) - at)
                if 0.5 < far < best:
                    best, found = far, (edge.name, gone + part.split(index, t)[0].length)
            gone += part.length
    return found


def through_dart(piece: Piece, edge: str, dart: Dart) -> dict[str, Where] | None:
    """The places of a cut that takes a dart up and runs on along its axis; None where that would leave a sliver."""
    way = (dart.point - dart.middle).unit()
    met = across_from(piece, dart.point, way)
    if met is None or met[0] == edge:
        return None
    length = piece.edge(met[0]).length
    along = min(max(met[1], 1.2), length - 1.2)
    return {"start": Where(piece.name, edge, "dart", dart.name), "end": Where(piece.name, met[0], "cm", along)}


def darts_of(garment: Garment) -> Iterator[tuple[Piece, str, Dart]]:
    for piece in garment.shell:
        for edge in piece.edges:
            for dart in edge.darts:
                yield piece, edge.name, dart
