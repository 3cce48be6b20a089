"""Proposed rules: what drawing every size anew would shift, spot by spot, rounded to what a maker dots.

Jumps stay where they are: the shift between two sizes is read between these two and added up from the base, never averaged.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import field
from itertools import pairwise

from widehem.core.geometry.curves import Line, Segment
from widehem.core.geometry.points import Point
from widehem.core.grading.tables import Frame, frame_of
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import plain
from widehem.core.shifting.net import Net, Span, carried, net_of
from widehem.core.shifting.spots import Place, Target, edge_title, place_of, places
from widehem.core.units import Saying, say
from widehem.core.values import record

ROUNDED = 0.05  # cm
BENT = 0.04  # cm in the middle of a curve, two steps away, that wants a dot more
LEAST_SPAN = 2.0  # cm: joints nearer to each other than that are of the drawing, not of the pattern, and follow
JUMP = 0.1  # cm by which two shifts of equal steps differ, that is told
Moves = dict[str, dict[Target, Point]]


@record(frozen=True)
class Jump:
    """A spot that moves by another amount from one size on, though the chart goes on by the same: piece, spot, the size, and by how
    much more it moves, cm."""

    piece: str
    place: Place
    size: int
    by: float


@record(frozen=True)
class Proposal:
    """Shifts read from redrafts. moves: by size and piece, cm from the base, in the frame of the piece. steps: between each size and
    the one before it. jumps: see there. shapes: sizes that are another shape, with why."""

    moves: Mapping[int, Moves]
    steps: Mapping[int, Moves]
    jumps: tuple[Jump, ...]
    shapes: Mapping[int, Saying] = field(default_factory=dict)


def shape_differs(base: Garment, other: Garment) -> Saying | None:
    """Why two garments cannot answer each other spot by spot; None where they can."""
    names = [piece.name for piece in base.pieces]
    if names != [piece.name for piece in other.pieces]:
        gone = sorted(set(names) ^ {piece.name for piece in other.pieces})
        return say(
            f"It has other pieces: {', '.join(plain(name) for name in gone)}." if gone else "Its pieces come in another order."
        )
    for one, two in zip(base.pieces, other.pieces, strict=True):
        if _shape(one) != _shape(two):
            return _other_shape(one, two)
    return None


def _shape(piece: Piece) -> tuple[object, ...]:
    """What two pieces have in common that answer each other spot by spot: edges, gaps, what lies inside. How many curves an edge is
    drawn with is no matter: what has no joint there goes by its share."""
    edges = tuple((edge.name, tuple((type(gap).__name__, gap.name) for gap in edge.gaps)) for edge in piece.edges)
    return edges, tuple(d.name for d in piece.diamonds), tuple((line.name, len(line.path.segments)) for line in piece.lines)


def _other_shape(one: Piece, two: Piece) -> Saying:
    darts = [len(piece.darts) + len(piece.diamonds) for piece in (one, two)]
    if darts[0] != darts[1]:
        return say(f"The {plain(one.name)} has {darts[1]} dart{'s' * (darts[1] != 1)}, the base {darts[0]}.")
    names = [[edge.name for edge in piece.edges] for piece in (one, two)]
    if names[0] != names[1]:
        other = sorted(set(names[0]) ^ set(names[1])) or names[1]
        return say(f"The {plain(one.name)} has other edges than in the base: {', '.join(plain(name) for name in other)}.")
    return say(f"The {plain(one.name)} is drawn otherwise than in the base.")


def bends_of(base: Net, others: Sequence[Net]) -> list[tuple[Place, Span]]:
    """Places in the middle of curves that have another character in other sizes: a dot more there, and the span."""
    found = []
    for span in base.spans:
        if isinstance(span.segment, Line) or span.segment.length < LEAST_SPAN * 2:
            continue
        edge = base.piece.edges[span.edge]
        place = Place(
            "",
            "",
            span.segment.at(0.5),
            Target("edge", edge.name, base.alongs[span.edge, span.start] + span.segment.split(0.5)[0].length),
        )
        off = 0.0
        for net in others:
            if not _as_many(base, net, place):
                continue
            other = _same_span(net, base, span)
            off = max(off, carried(span.segment, other.start, other.end).at(0.5).to(other.at(0.5)))
        if off > BENT:
            share = place.target.along / edge.length
            found.append((Place(f"{edge.name}~{share:.4g}", f"{edge_title(edge)}, on the curve", place.at, place.target), span))
    return found


def _same_span(net: Net, base: Net, span: Span) -> Segment:
    """The segment of a piece in another size that answers a span of the base."""
    return net.piece.edge(base.piece.edges[span.edge].name).parts[span.part].segments[span.number]


def spots_of(net: Net) -> list[tuple[Place, int | None]]:
    """What is proposed for on a piece: every spot but notches, with its node where it has one."""
    found: list[tuple[Place, int | None]] = []
    for place in places(net.piece):
        target = place.target
        if "!" in place.text:
            continue
        node: int | None = None
        if target.kind == "corner":
            node = net.starts[next(n for n, edge in enumerate(net.piece.edges) if edge.name == target.name)]
        elif target.kind == "edge":
            node = net.node_at(target.name, target.along)
            if node is None or min(span.segment.length for span in net.spans if node in (span.start, span.end)) < LEAST_SPAN:
                continue
        elif target.kind == "dart" and target.part in ("inner", "outer"):
            node = net.legs_by_name[target.name][0 if target.part == "inner" else 1]
        found.append((place, node))
    found += [
        (Place(f"={line.level}", plain(line.level), Point(0.0, line.height), Target("level", line.level)), None)
        for line in net.piece.balance
        if len(line.lines) == 1
    ]
    return found


def at_of(base: Net, net: Net, place: Place, node: int | None) -> Point | None:
    """Where a spot of the base lies on a piece of another size and the same shape."""
    target = place.target
    if target.kind == "edge":
        old, new = base.piece.edge(target.name), net.piece.edge(target.name)
        return (
            net.nodes[node - base.starts[base.piece.edges.index(old)] + net.starts[net.piece.edges.index(new)]]
            if node is not None
            else None
        )
    if node is not None:
        return place_of(net.piece, target)
    if place.target.kind == "level":
        line = net.piece.level(place.target.name)
        return None if line is None else Point(0.0, line.height)
    return place_of(net.piece, place.target)


def proposed(sizes: Mapping[int, Garment], base: int, equal: Sequence[float] = ()) -> Proposal:
    """Rules from redrafts. sizes: the garments by the number of their size, the base among them. equal: the step of the chart behind
    each size, so that jumps are told from its breaks, cm."""
    first = sizes[base]
    shapes: dict[int, Saying] = {}
    for size, garment in sizes.items():
        why = shape_differs(first, garment)
        if why is not None:
            shapes[size] = why
    nets = {size: {piece.name: net_of(piece) for piece in sizes[size].pieces} for size in sizes if size not in shapes}
    near = [nets[size] for size in nets if 0 < abs(size - base) <= 2]
    bent = {name: dict(bends_of(net, [of[name] for of in near])) for name, net in nets[base].items()}
    known = {name: [*spots_of(net), *((place, None) for place in bent[name])] for name, net in nets[base].items()}
    moves: dict[int, Moves] = {base: {name: {} for name in known}}
    steps: dict[int, Moves] = {}
    for way in (1, -1):
        so_far: Moves = {name: {place.target: Point(0.0, 0.0) for place, _ in spots} for name, spots in known.items()}
        before, size = base, base + way
        while size in nets:
            steps[size] = {}
            for name, spots in known.items():
                one, two = nets[before][name], nets[size][name]
                axes = frame_of(one.piece), frame_of(two.piece)
                kept = [
                    (place, node)
                    for place, node in spots
                    if place.target in so_far[name] and _as_many(nets[base][name], two, place)
                ]
                steps[size][name] = {}
                for place, node in kept:
                    ends: tuple[Point | None, Point | None]
                    if place in bent[name]:
                        here, span = nets[base][name], bent[name][place]
                        ends = _same_span(one, here, span).at(0.5), _same_span(two, here, span).at(0.5)
                    else:
                        ends = at_of(nets[base][name], one, place, node), at_of(nets[base][name], two, place, node)
                    steps[size][name][place.target] = _step(axes, *ends)
                so_far[name] = {target: so_far[name][target] + move for target, move in steps[size][name].items()}
            moves[size] = {name: dict(found) for name, found in so_far.items()}
            before, size = size, size + way
    for size in sizes:
        if size not in moves and size not in shapes:
            shapes[size] = say("A size between it and the base is another shape: take a base beyond that.")
    return Proposal(moves, steps, tuple(_jumps(known, steps, base, equal)), shapes)


def _as_many(base: Net, net: Net, place: Place) -> bool:
    """Whether the edge of a joint is drawn with as many curves as in the base; where it is not, its joints follow."""
    if place.target.kind != "edge":
        return True
    edges = base.piece.edge(place.target.name), net.piece.edge(place.target.name)
    return [len(part.segments) for part in edges[0].parts] == [len(part.segments) for part in edges[1].parts]


def _step(axes: tuple[Frame, Frame], one: Point | None, two: Point | None) -> Point:
    if one is None or two is None:
        return Point(0.0, 0.0)
    x = (two.x - axes[1].x) - (one.x - axes[0].x)
    return Point(round(x / ROUNDED) * ROUNDED, round((two.y - one.y) / ROUNDED) * ROUNDED)


def _jumps(
    known: Mapping[str, Sequence[tuple[Place, int | None]]], steps: Mapping[int, Moves], base: int, equal: Sequence[float]
) -> list[Jump]:
    """Spots whose shift changes between two steps that are equal in the chart."""
    found = []
    order = sorted(steps)
    for name, spots in known.items():
        for place, _ in spots:
            for before, after in pairwise(order):
                low, high = (
                    size if size > base else size + 1 for size in (before, after)
                )  # a step below the base belongs to the size above it
                if equal and abs(equal[low - 1] - equal[high - 1]) > 1e-6:
                    continue
                if place.target not in steps[before][name] or place.target not in steps[after][name]:
                    continue
                one = steps[before][name][place.target] * (1 if before > base else -1)
                two = steps[after][name][place.target] * (1 if after > base else -1)
                by = (two - one).size
                if by > JUMP + 1e-9:
                    found.append(Jump(name, place, after, by))
    return found
