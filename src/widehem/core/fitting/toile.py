"""Room to fit: a toile of trousers or of a skirt cut larger than its pattern, with the pattern drawn inside, so that it can be pinned."""

from __future__ import annotations

from collections.abc import Mapping

from widehem.core.altering.halves import Half
from widehem.core.altering.lengths import waist_ends
from widehem.core.body.chart import Chart
from widehem.core.geometry.curves import Line
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Dart, Edge, Gap, Notch, Pleat
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.inside import InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import dart_between
from widehem.core.pattern.shaping import blended
from widehem.core.values import record, replace

TOP, TALL, LARGE = 5.0, 2.5, 2.5  # cm over the waist; more for the tall, more for those larger than most
TALL_FROM = 168.0
SIDE_LEAST, SIDE_MOST, OWN = 1.3, 2.5, 1.6  # cm at each side; an allowance of a pattern's own that counts as one
LARGER = {"curved": 102.0, "straight": 104.0}  # cm round the hip: six in ten of the house's sizes are no larger
SHUT = 1e-4  # cm
APART = 0.5  # cm that is left at least between two darts led on
AT_WAIST = 4.0  # cm below the waist within which a side is not at its widest


@record(frozen=True)
class RoomToFit:
    """How much larger: over the waist, and at each side, cm."""

    top: float
    side: float


def room_for(chart: Chart, drafted_waist: float | None = None, chosen: float = 1.9, own: float = OWN) -> RoomToFit:
    """The room a wearer needs. drafted_waist: that of the size it was chosen in, where it was chosen by the hip; chosen: at the side, 1.3
    to 2.5 cm; own: the allowance a pattern brings with it."""
    hip = chart.get("hip") or 0.0
    top = (
        TOP
        + (TALL if (chart.get("height") or 0.0) > TALL_FROM else 0.0)
        + (LARGE if hip > LARGER.get(chart.table.code, 1e9) else 0.0)
    )
    side = min(max(chosen, SIDE_LEAST), SIDE_MOST)
    waist = chart.get("waist")
    if drafted_waist is not None and waist is not None:
        side = max(side, (waist - drafted_waist) / 4)
    return RoomToFit(top, side + max(OWN - own, 0.0))


def takes_room(garment: Garment) -> bool:
    """Whether it is trousers or a skirt with a waist."""
    return any(_fits(piece) for piece in garment.shell)


def _fits(piece: Piece) -> bool:
    half = Half(piece)
    return not piece.edges_of("armhole", "neck") and waist_ends(half) is not None


def with_room(garment: Garment, room: RoomToFit) -> Garment:
    """The garment with its waist further up and its sides further out, upright from where they are widest; its old line drawn inside. Sides
    that are sewn to each other stay as long as each other. Raises PatternError."""
    found: dict[str, Piece] = {}
    mine = [piece for piece in garment.shell if _fits(piece)]
    lower = {piece.name: _below(piece, room) for piece in mine}
    upright = {name: room.top + at - top for name, (_, at, top) in lower.items()}
    whole = {name: below.length + upright[name] for name, (below, _, _) in lower.items()}
    mean = sum(whole.values()) / len(whole) if whole else 0.0
    for piece in mine:
        found[piece.name] = _roomy(piece, room, upright[piece.name] + mean - whole[piece.name])
    return garment.with_pieces(found)


def _ends(piece: Piece) -> tuple[Edge, Edge, bool]:
    """Waist and side of a piece, and whether the side begins at the waist."""
    half = Half(piece)
    waist, side = half.edge("waist"), half.edge("side")
    assert waist is not None and side is not None
    return waist, side, min(side.start.to(waist.start), side.start.to(waist.end)) < 1e-3


def _down(side: Edge, begins: bool) -> Path:
    path = side.parts[0]
    for part in side.parts[1:]:
        path = path + part
    return path if begins else path.reverse()


def _below(piece: Piece, room: RoomToFit) -> tuple[Path, float, float]:
    """The side from where it is widest down, moved out; how far down that begins and how far down the waist is there."""
    _, side, begins = _ends(piece)
    path = _down(side, begins)
    out = Half(piece).out
    count = max(int(path.length), 8)
    along = max(
        (path.length * n / count for n in range(count + 1) if path.length * n / count >= AT_WAIST),
        key=lambda at: path.place(at).point.dot(out) - at * 1e-3,
    )
    along = min(along, path.length - 1.0)
    below = path.cut(along)[1]
    shift = out * room.side
    return blended(below, shift, shift), below.start.y, path.start.y


def _roomy(piece: Piece, room: RoomToFit, upright: float) -> Piece:
    waist, side, begins = _ends(piece)
    below, _, _ = _below(piece, room)
    corner = Point(below.start.x, below.start.y - upright)
    down = Path((Line(corner, below.start), *below.segments))
    new_side = replace(
        side, parts=(down if begins else down.reverse(),), gaps=(), notches=_notches(side, begins, down), corners=()
    )
    at_start = side.end if not begins else side.start
    side_first = waist.start.to(at_start) < 1e-3
    before, after = piece.beside(waist.name)
    middle = after if side_first else before
    way = (middle.leaving * -1.0 if side_first else middle.arriving).unit()  # on from the middle, out of the piece
    step = way * (room.top / max(abs(way.y), 0.5))
    ends = {False: waist.end + step, True: waist.start + step}
    new_start, new_end = (corner, ends[False]) if side_first else (ends[True], corner)
    new_waist = _raised(waist, new_start, new_end, room.top)
    new_middle = _longer(middle, step, at_start=side_first)
    hem = next(edge for edge in piece.beside(side.name) if edge.name != waist.name)
    foot = below.end - (side.end if begins else side.start)
    new_hem = _foot(hem, foot, at_start=hem.start.to(side.end if begins else side.start) < 1e-3)
    edges = {edge.name: edge for edge in (new_side, new_waist, new_middle, new_hem)}
    lines = (*piece.lines, *_inside(piece, waist, side))
    levels = tuple(replace(line, between=("", "")) for line in piece.balance)
    return replace(piece, edges=tuple(edges.get(edge.name, edge) for edge in piece.edges), lines=lines, balance=levels)


def _notches(side: Edge, begins: bool, down: Path) -> tuple[Notch, ...]:
    """The notches of a side where they were, counted from the hem."""
    long = down.length
    found = []
    for notch in side.notches:
        from_hem = side.length - notch.along if begins else notch.along
        if from_hem < long - 0.5:
            found.append(replace(notch, along=long - from_hem if begins else from_hem))
    return tuple(found)


def _raised(waist: Edge, start: Point, end: Point, top: float) -> Edge:
    """The waist between its new ends, the legs of its darts led straight on."""
    legs = [_led_on(gap, top) for gap in waist.gaps]
    between = [start, *(leg for pair in legs for leg in pair), end]
    way = (waist.end - waist.start).unit()
    if any(
        way.dot(b - a) < APART for a, b in zip(between[::2], between[1::2], strict=True)
    ):  # the darts would run into each other
        legs = [(gap.inner + Point(0.0, -top), gap.outer + Point(0.0, -top)) for gap in waist.gaps]
    parts = []
    for number, part in enumerate(waist.parts):
        first = start if number == 0 else legs[number - 1][1]
        last = end if number == len(waist.parts) - 1 else legs[number][0]
        parts.append(blended(part, first - part.start, last - part.end))
    gaps: list[Gap] = []
    for number, gap in enumerate(waist.gaps):
        if isinstance(gap, Dart):
            short = gap.turned_about.to(gap.point)
            dart = dart_between(gap.name, parts[number], parts[number + 1], gap.turned_about, short, gap.pressed, gap.holds)
            if dart.cap.end.to(dart.outer) > SHUT:  # its legs are not quite as long as each other: its mouth is left straight
                dart = replace(dart, cap=Path.through(dart.inner, dart.outer))
            gaps.append(dart)
        elif isinstance(gap, Pleat):
            gaps.append(Pleat(gap.name, *legs[number]))
        else:
            gaps.append(replace(gap, line=Path.through(*legs[number])))
    return replace(waist, parts=tuple(parts), gaps=tuple(gaps), notches=(), corners=())


def _led_on(gap: Gap, top: float) -> tuple[Point, Point]:
    """The legs of a dart led straight on, so far up and as long as each other; of a pleat straight up."""
    if not isinstance(gap, Dart):
        up = Point(0.0, -top)
        return gap.inner + up, gap.outer + up
    ways = [(leg - gap.turned_about).unit() for leg in (gap.inner, gap.outer)]
    far = top / max(sum(abs(way.y) for way in ways) / 2, 0.5)
    return gap.inner + ways[0] * far, gap.outer + ways[1] * far


def _longer(edge: Edge, step: Point, *, at_start: bool) -> Edge:
    """An edge led straight on at one end."""
    if at_start:
        path = Path((Line(edge.start + step, edge.start), *edge.parts[0].segments))
        notches = tuple(replace(n, along=n.along + step.size) for n in edge.notches)
        return replace(edge, parts=(path, *edge.parts[1:]), notches=notches)
    path = Path((*edge.parts[-1].segments, Line(edge.end, edge.end + step)))
    return replace(edge, parts=(*edge.parts[:-1], path))


def _foot(hem: Edge, by: Point, *, at_start: bool) -> Edge:
    """A hem led on to where the side comes down now."""
    if at_start:
        path = Path((Line(hem.start + by, hem.start), *hem.parts[0].segments))
        return replace(
            hem, parts=(path, *hem.parts[1:]), notches=tuple(replace(n, along=n.along + by.size) for n in hem.notches)
        )
    path = Path((*hem.parts[-1].segments, Line(hem.end, hem.end + by)))
    return replace(hem, parts=(*hem.parts[:-1], path))


def _inside(piece: Piece, waist: Edge, side: Edge) -> list[InnerLine]:
    """The old line of waist and side, to pin to."""
    taken = {line.name for line in piece.lines}
    rows: Mapping[str, list[Path]] = {"waist": list(waist.parts), "side": list(side.parts)}
    return [
        InnerLine(name, f"The pattern's {words}", path)
        for words, parts in rows.items()
        for number, path in enumerate(parts, 1)
        if (name := f"pattern_{words}_{number}") not in taken
    ]
