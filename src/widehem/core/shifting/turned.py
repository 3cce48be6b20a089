"""Darts that were turned about the bust point: which part of a piece they turned, and how far."""

from __future__ import annotations

from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Dart
from widehem.core.pattern.ring import turn_between
from widehem.core.shifting.net import Net
from widehem.core.values import record

BUST_POINT, CHEST = "bust_point", "chest"
NEAR = 0.6  # cm: a dart that points so near the bust point was turned about it


@record(frozen=True)
class Turned:
    """A part of a piece that a dart turned. nodes: of the outline, from the dart's leg to where the armhole gives. about: what it
    was turned about; mark: the mark that is. angle: the turn that shuts it, radians. chest: the node of the chest point."""

    dart: str
    nodes: frozenset[int]
    about: Point
    mark: str
    angle: float
    chest: int


def turned_parts(net: Net) -> tuple[Turned, ...]:
    """The parts of a piece that bust darts have turned; none where it has no bust point or no armhole."""
    piece = net.piece
    bust = piece.marks.get(BUST_POINT)
    hole = next((number for number, edge in enumerate(piece.edges) if edge.role == "armhole"), None)
    if bust is None or hole is None:
        return ()
    ends = net.starts[hole], net.starts[(hole + 1) % len(net.starts)]
    side_first = piece.beside(piece.edges[hole].name)[0].role == "side"
    underarm = ends[0] if side_first else ends[1]
    joints = [span.end for span in net.spans if span.edge == hole and span.end not in ends]
    if not joints:
        return ()
    at = piece.marks.get(CHEST, net.nodes[joints[0]])
    chest = min(joints, key=lambda node: net.nodes[node].to(at))
    found = []
    for (number, count), (inner, outer) in net.legs.items():
        gap = piece.edges[number].gaps[count]
        if not isinstance(gap, Dart) or gap.turned_about.to(bust) > NEAR or gap.sewn is not None:
            continue
        whole = turn_between(gap.outer - gap.turned_about, gap.inner - gap.turned_about)
        share = 1.0
        if piece.edges[number].role == "waist":
            held = sum(angle for _, angle in gap.holds)
            if not held:
                continue
            share = min(abs(held / whole), 1.0)
        for start, step, angle in ((outer, 1, whole), (inner, -1, -whole)):
            nodes = _as_far_as(net, start, step, {chest, underarm})
            if nodes is not None:
                found.append(Turned(gap.name, nodes, gap.turned_about, BUST_POINT, angle * share, chest))
                break
    taken: set[int] = set()
    apart = []
    for part in found:  # two darts that turned one stretch are graded open
        if not part.nodes & taken:
            apart.append(part)
            taken |= part.nodes
    return tuple(apart)


def _as_far_as(net: Net, start: int, step: int, ends: set[int]) -> frozenset[int] | None:
    """The nodes from one round the outline to one of these; None where the middle comes first."""
    count, middle = len(net.nodes), set[int]()
    for number, edge in enumerate(net.piece.edges):
        if edge.name == net.piece.middle or edge.kind == "fold":
            middle |= {net.starts[number], net.starts[(number + 1) % len(net.starts)]}
    nodes, at = set[int](), start
    for _ in range(count):
        if at in middle:
            return None
        nodes.add(at)
        if at in ends:
            return frozenset(nodes)
        at = (at + step) % count
    return None
