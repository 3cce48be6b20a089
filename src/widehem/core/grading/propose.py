"""Proposed rules: what drawing every size anew would shift, spot by spot, rounded to what a maker dots.

Jumps stay where they are: the shift between two sizes is read between these two and added up from the base, never averaged.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import field

from widehem.core.geometry.points import Point
from widehem.core.grading.net import Net, net_of
from widehem.core.grading.spots import Place, Target, place_of, places
from widehem.core.grading.tables import Frame, frame_of
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import plain
from widehem.core.units import Saying, say
from widehem.core.values import record

ROUNDED = 0.05  # cm
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
        return say(f"It has other pieces: {', '.join(plain(name) for name in gone)}." if gone else "Its pieces come in another order.")
    for one, two in zip(base.pieces, other.pieces, strict=True):
        a, b = net_of(one), net_of(two)
        if a.shape != b.shape:
            return _other_shape(one, two)
    return None


def _other_shape(one: Piece, two: Piece) -> Saying:
    darts = [len(piece.darts) + len(piece.diamonds) for piece in (one, two)]
    if darts[0] != darts[1]:
        return say(f"The {plain(one.name)} has {darts[1]} dart{'s' * (darts[1] != 1)}, the base {darts[0]}.")
    for a, b in zip(one.edges, two.edges, strict=False):
        counts = [[len(part.segments) for part in edge.parts] for edge in (a, b)]
        if a.name != b.name or counts[0] != counts[1]:
            return say(f"The {plain(two.name)} {plain(b.name)} is drawn with other curves than in the base.")
    return say(f"The {plain(one.name)} is drawn otherwise than in the base.")


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
        elif target.kind == "dart" and target.part in ("inner", "outer"):
            node = net.legs_by_name[target.name][0 if target.part == "inner" else 1]
        found.append((place, node))
    found += [(Place(f"={line.level}", plain(line.level), Point(0.0, line.height), Target("level", line.level)), None) for line in net.piece.balance if len(line.lines) == 1]
    return found


def at_of(net: Net, place: Place, node: int | None) -> Point | None:
    """Where a spot of the base lies on a piece of another size and the same shape."""
    if node is not None:
        return net.nodes[node]
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
    known = {name: spots_of(net) for name, net in nets[base].items()}
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
                steps[size][name] = {place.target: _step(axes, at_of(one, place, node), at_of(two, place, node)) for place, node in spots}
                for target, move in steps[size][name].items():
                    so_far[name][target] = so_far[name][target] + move
            moves[size] = {name: dict(found) for name, found in so_far.items()}
            before, size = size, size + way
    for size in sizes:
        if size not in moves and size not in shapes:
            shapes[size] = say("A size between it and the base is another shape: take a base beyond that.")
    return Proposal(moves, steps, tuple(_jumps(known, steps, base, equal)), shapes)


def _step(axes: tuple[Frame, Frame], one: Point | None, two: Point | None) -> Point:
    if one is None or two is None:
        return Point(0.0, 0.0)
    x = (two.x - axes[1].x) - (one.x - axes[0].x)
    return Point(round(x / ROUNDED) * ROUNDED, round((two.y - one.y) / ROUNDED) * ROUNDED)


def _jumps(known: Mapping[str, Sequence[tuple[Place, int | None]]], steps: Mapping[int, Moves], base: int, equal: Sequence[float]) -> list[Jump]:
    """Spots whose shift changes between two steps that are equal in the chart."""
    found = []
    order = sorted(steps)
    for name, spots in known.items():
        for place, _ in spots:
            for before, after in zip(order, order[1:], strict=False):
                low, high = (size if size > base else size + 1 for size in (before, after))  # a step below the base belongs to the size above it
                if equal and abs(equal[low - 1] - equal[high - 1]) > 1e-6:
                    continue
                one = steps[before][name][place.target] * (1 if before > base else -1)
                two = steps[after][name][place.target] * (1 if after > base else -1)
                by = (two - one).size
                if by > JUMP + 1e-9:
                    found.append(Jump(name, place, after, by))
    return found
