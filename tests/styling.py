"""Doing operations to any garment in tests: places found by looking, not by name."""

from __future__ import annotations

from collections.abc import Iterator

from tests.bodies import drafted, upper_build
from widehem.core.design.design import Design, Step
from widehem.core.design.make import Made, make
from widehem.core.drafting.method import METHODS, armhole_of
from widehem.core.geometry.points import Point
from widehem.core.pattern.closed import joints
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


def recipe(method: str, *steps: Step, **options) -> Design:
    """A design of a method and steps."""
    return Design(method, None, options, {}, steps)


def on(method: str, *steps: Step, build: str = "typical", chart=None, **options) -> Made:
    """A design drawn on a build, or on a chart."""
    return make(recipe(method, *steps, **options), chart or upper_build(build))


def step(code: str, settings=None, *, id: str = "", names=None, maybe: bool = False, **wheres: Where) -> Step:
    """A step with its places."""
    return Step(id or code, code, settings or {}, wheres, names or {}, maybe=maybe)


def not_true(made: Made, *, but: tuple[str, ...] = ()) -> list[str]:
    """The checks of a design that are not true and are not so in its block already; without those that begin with some words."""
    block = make(Design(made.design.method, None, made.design.options, made.design.ease), made.chart)
    known = {(check.name.split(".lining")[0], check.verdict) for check in block.checks}
    return [
        f"{check.name}: {check.message.text()}"
        for check in made.checks
        if check.verdict != "true"
        and (check.name.split(".lining")[0], check.verdict) not in known
        and not check.name.startswith(but or ("-",))
    ]


def bend_at(made: Made, role: str, over: str) -> float:
    """The worst bend of an outline where it goes on over something, degrees."""
    return max((joint.bend for joint in joints(made.garment) if joint.role == role and joint.over == over), default=0.0)


BUST_DART = Where("front", "shoulder", "dart", "bust_dart")
FRONT_PANEL = step(
    "panel.line", id="front panel",
    top=Where("front", "shoulder", "dart", "bust_dart", otherwise=Where("front", "shoulder")),
    bottom=Where("front", "waist", "dart", "bust_dart_2", otherwise=Where("front", "waist", "dart", "front_waist_dart_1",
        otherwise=Where("front", "waist", "part", 0.45))),
    over=Where("front", "side"),
)  # fmt: skip
BACK_PANEL = step(
    "panel.line", id="back panel",
    top=Where("back", "shoulder", "meets", "panel_front.start", otherwise=Where("back", "shoulder")),
    bottom=Where("back", "waist", "dart", "back_waist_dart_1", otherwise=Where("back", "waist", "part", 0.45)),
    over=Where("back", "side"),
)  # fmt: skip
