"""Notches, drill holes, grain and fold marks, and the words on a piece."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import lru_cache

from shapely import LinearRing, LineString, MultiLineString
from shapely import Point as Dot

from widehem.core.geometry.paths import Place
from widehem.core.geometry.points import Point, angle_between
from widehem.core.pattern.edge import Dart, Edge, Pleat
from widehem.core.pattern.garment import EdgeRef, Garment
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, centre
from widehem.core.values import record

NOTCH = 0.5  # cm, inwards from the cutting line
DOUBLE = 0.6  # cm between the two of a double notch
DRILLED = {"inside": 1.5, "lowered": 3.0}  # cm from the dart point towards its mouth: by school; lowered 2 and 1 more
DIAMOND_BACK, DRILL_IN = 1.0, 0.3  # cm inside the points of a diamond, and inside its legs where it is widest
HEM_FOLD = "hem fold"
CLEAR = 3.0  # cm: no balance notch closer to a corner

DART_LEGS = "dart leg, inner", "dart leg, outer"  # they meet each other


@record(frozen=True)
class Notch:
    """A notch: on the cutting line at `at`, its inner end, what it marks, where along the edge it stands (cm)."""

    piece: str
    edge: str
    what: str
    at: Point
    inner: Point
    along: float


@lru_cache(maxsize=16)
def _exterior(cut: tuple[Point, ...]) -> LinearRing:
    return LinearRing(cut)


def out_to_cut(cut: Sequence[Point], start: Point, way: Point) -> Point:
    """Where a line from the stitching line outwards first leaves the cutting line."""
    reach = start + way.unit() * 40
    crossing = LineString([start, reach]).intersection(_exterior(tuple(cut)))
    spots = [crossing] if crossing.geom_type == "Point" else list(getattr(crossing, "geoms", []))
    near = [Point(g.coords[0][0], g.coords[0][1]) for g in spots if not g.is_empty]
    return min(near, key=start.to) if near else start


def _notch(piece: Piece, edge: str, what: str, place: Place, cut: Sequence[Point], count: int = 1) -> list[Notch]:
    out = piece.outward(place.direction)
    found = []
    for i in range(count):
        shift = place.direction * ((i - (count - 1) / 2) * DOUBLE)
        at = out_to_cut(cut, place.point + shift, out)
        found.append(Notch(piece.name, edge, what, at, at - out * NOTCH, place.along))
    return found


def notches(garment: Garment, piece: Piece, amounts: Mapping[str, float], cut: Sequence[Point]) -> tuple[Notch, ...]:
    """Dart legs, balance levels along the seams (front one, back two), centre lines, opening end, hem fold, and those of the
    edges.

    piece: as it lies where it is marked.
    """
    found: list[Notch] = []
    count = 2 if piece.of == BACK else 1
    opening = garment.opening()
    for edge in piece.edges:
        for dart in edge.darts:
            found += _dart_notches(piece, edge, dart, cut)
        for gap in edge.gaps:
            if isinstance(gap, Pleat):
                found += _pleat_notches(piece, edge, gap, cut)
        if edge.kind == "seam" and any(True for _ in garment.seams_at(EdgeRef(piece.name, edge.name))):
            for line in piece.balance:
                along = edge.at_line(*line.straight) if line.notched else None
                if along is not None and CLEAR < along < edge.length - CLEAR:
                    found += _notch(piece, edge.name, f"{line.level} level", edge.place(along), cut, count)
            if amounts[edge.name] > 0 and _meets_hem(piece, edge):
                found += _notch(piece, edge.name, HEM_FOLD, edge.place(edge.length), cut)
        if edge.kind == "opening" and opening is not None and 0 < opening.length < edge.length - 0.5:
            found += _notch(piece, edge.name, "opening end", edge.place(_from_the_top(edge, opening.length)), cut)
        if edge.kind == "fold":
            for what, point, way in (
                ("fold at hem", edge.start, edge.start - edge.end),
                ("fold at waist", edge.end, edge.end - edge.start),
            ):
                at = out_to_cut(cut, point - piece.outward(edge.end - edge.start) * 0.02, way)
                found.append(Notch(piece.name, edge.name, what, at, at - way.unit() * NOTCH, edge.start.to(point)))
        for notch in edge.notches:
            found += _notch(piece, edge.name, notch.name, edge.place(notch.along), cut, notch.count)
        if opening is not None and opening.at == "side" == edge.role and piece.layer == "shell" and piece.stands != "right":
            along = _from_the_top(edge, opening.length)
            found += _notch(piece, edge.name, "opening end, left side", edge.place(along), cut)
    return tuple(found)


def _from_the_top(edge: Edge, down: float) -> float:
    """How far along an edge a place lies that is so far from its upper end."""
    return down if edge.start.y < edge.end.y else edge.length - down


def _meets_hem(piece: Piece, edge: Edge) -> bool:
    after = piece.edges[(piece.edges.index(edge) + 1) % len(piece.edges)]
    return after.kind == "hem"


def _dart_notches(piece: Piece, edge: Edge, dart: Dart, cut: Sequence[Point]) -> list[Notch]:
    found = []
    along = sum(part.length for part in edge.parts[: edge.gaps.index(dart) + 1])  # as the edge is sewn
    for what, end in zip(DART_LEGS, (dart.inner, dart.outer), strict=True):
        way = (end - dart.point).unit()
        at = out_to_cut(cut, end, way)
        found.append(Notch(piece.name, edge.name, f"{dart.name} {what}", at, at - way * NOTCH, along))
    return found


def _pleat_notches(piece: Piece, edge: Edge, pleat: Pleat, cut: Sequence[Point]) -> list[Notch]:
    """Where a pleat begins and ends: both are laid on each other."""
    along = sum(part.length for part in edge.parts[: edge.gaps.index(pleat) + 1])
    found = []
    for what, end, way in (
        ("begins", pleat.inner, pleat.outer - pleat.inner),
        ("ends", pleat.outer, pleat.outer - pleat.inner),
    ):
        out = piece.outward(way)
        at = out_to_cut(cut, end, out)
        found.append(Notch(piece.name, edge.name, f"{pleat.name} {what}", at, at - out * NOTCH, along))
    return found


@record(frozen=True)
class Button:
    """Where one side buttons on the other: the button, and the line of its hole."""

    at: Point
    hole: tuple[Point, Point]


HOLE_BEYOND, HOLE_MORE = 0.3, 0.3  # cm that a hole begins beyond the middle line, and is longer than the button is wide
BUTTON_MOST, BUTTON_LEAST = 2.5, 1.0  # cm: of a button, that is else as wide as what it lies on goes beyond the middle


def buttons(piece: Piece) -> tuple[Button, ...]:
    """Buttons with their holes: eyelets that lie on a line along the middle of the body, beyond which the piece goes on."""
    found = []
    for hole in piece.holes:
        for line in piece.lines:
            if not centre(line.name) or line.path.start.to(line.path.end) < 1:
                continue
            way = (line.path.end - line.path.start).unit()
            if abs(way.cross(hole - line.path.start)) > ON_LINE:
                continue
            ends = piece.stretch_at(hole, way.square())
            if ends is None:
                continue
            near = min(ends, key=hole.to)
            size = min(max(hole.to(near), BUTTON_LEAST), BUTTON_MOST)
            out = (near - hole).unit()
            outer = hole + out * HOLE_BEYOND
            found.append(Button(hole, (outer, outer - out * (size + HOLE_MORE))))
            break
    return tuple(found)


ON_LINE = 0.01  # cm


def drill_holes(piece: Piece, school: str = "inside") -> tuple[Point, ...]:
    """In the axis of each dart, back from its point: a hole at the point itself would show and weaken the cloth. Of a diamond
    also where it is widest, inside its legs. school: so far inside the point, or of a point that is lowered first."""
    back = DRILLED[school]
    sewn = [dart for dart in piece.darts if dart.sewn is None]
    found = [dart.point + (dart.inner.toward(dart.outer, 0.5) - dart.point).unit() * back for dart in sewn]
    for diamond in piece.diamonds:
        way, across = (diamond.bottom - diamond.top).unit(), (diamond.outer - diamond.inner).unit()
        found += [diamond.top + way * DIAMOND_BACK, diamond.bottom - way * DIAMOND_BACK]
        found += [diamond.inner + across * DRILL_IN, diamond.outer - across * DRILL_IN]
    return tuple(found)


def grain_line(piece: Piece) -> tuple[Point, Point]:
    """Parallel to the centre, about a third of the way to the side, as long as fits and off what else is marked; on a fold, the fold
    itself (middle part of it)."""
    left, up, right, down = piece.bounds
    centre_line = piece.edge(piece.middle) if piece.middle else None
    if piece.grain is None and centre_line is not None and piece.stands == "fold":
        top, bottom = sorted((centre_line.start, centre_line.end), key=lambda p: p.y)
        return top.toward(bottom, (1 - FOLD_SHARE) / 2), bottom.toward(top, (1 - FOLD_SHARE) / 2)
    way = (piece.grain[1] - piece.grain[0]).unit() if piece.grain else DOWN
    shares = AWAY if centre_line is None or centre_line.start.x < (left + right) / 2 else tuple(1 - share for share in AWAY)
    across = way.square() if way.square().x > 0 else -way.square()
    middle = Point((left + right) / 2, (up + down) / 2)
    if piece.grain is None and centre_line is None:  # along the middle, as a sleeve hangs
        shares = HANGS
    reach = abs(across.x) * (right - left) + abs(across.y) * (down - up)
    lines = [_as_fits(piece, middle + across * (reach * (share - 0.5)), way) for share in shares]
    marks = _marked(piece)
    return max(lines, key=lambda line: (min(line[0].to(line[1]), LONG) if _clear(line, marks) else 0.0, _clear(line, marks)))


AWAY, HANGS = (0.24, 0.34, 0.16, 0.45, 0.55, 0.66), (0.56, 0.44, 0.65, 0.35, 0.75)  # of the width, where a grain line is tried
LONG = 20.0  # cm: a grain line that long is long enough
OFF_MARKS = 0.8  # cm between it and what else is marked


def _marked(piece: Piece) -> MultiLineString:
    """What is marked on a piece along it."""
    found = [[dart.inner, dart.point, dart.outer] for dart in piece.darts]
    found += [[d.top, d.inner, d.bottom, d.outer, d.top] for d in piece.diamonds]
    found += [line.path.flat(0.2) for line in piece.lines]
    found += [[hole, hole + Point(0.01, 0.0)] for hole in piece.holes]
    return MultiLineString(found)


def _clear(line: tuple[Point, Point], marks: MultiLineString) -> bool:
    """Whether nothing that runs its way lies on it."""
    return marks.is_empty or bool(LineString(line).distance(marks) >= OFF_MARKS)


DOWN = Point(0.0, 1.0)
FOLD_SHARE, GRAIN_SHARE, GRAIN_CLEAR = 0.6, 0.8, 0.6  # of the fold; of what fits; cm from the outline at the least


def _as_fits(piece: Piece, at: Point, way: Point) -> tuple[Point, Point]:
    """A line through a place, as long as it lies well inside the piece."""
    reach = LineString([at - way * 400, at + way * 400]).intersection(piece.surface.buffer(-GRAIN_CLEAR))
    parts = [part for part in getattr(reach, "geoms", [reach]) if not part.is_empty]
    if not parts:
        return at - way * 0.5, at + way * 0.5
    through = min(parts, key=lambda part: (round(part.distance(Dot(*at)), 3), -part.length))
    a, b = (Point(*spot) for spot in (through.coords[0], through.coords[-1]))
    rest = (1 - GRAIN_SHARE) / 2
    return a.toward(b, rest), b.toward(a, rest)


BIAS_FROM, BIAS_TO = 30.0, 60.0  # degrees between the grain and straight down that are called bias


def grain_words(piece: Piece, *, knit: bool) -> str:
    """What stands beside the grain line."""
    if piece.grain is None:
        return "least stretch" if knit else "grain"
    a, b = piece.grain
    off = angle_between(b - a, DOWN)
    off = min(off, 180 - off)
    if BIAS_FROM < off < BIAS_TO:
        return "grain: the piece lies on the bias"
    return "least stretch" if knit else "grain, across" if off >= BIAS_TO else "grain"


def stretch_line(piece: Piece, grain: tuple[Point, Point]) -> tuple[Point, Point] | None:
    """Across the grain, the way a knit gives most; None where the piece is too narrow for it."""
    a, b = grain
    way = (b - a).unit().square()
    line = _as_fits(piece, a.toward(b, 0.3), way)
    return line if line[0].to(line[1]) > 3 else None
