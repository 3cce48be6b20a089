"""A piece in another size: the spots that are ruled move, and everything else follows them.

The darts that were turned about the bust point are shut first, because the rules of the part they turned are meant for the
shut dart, and opened again so that the chest point moves out as far as before. Straights stay straight, curves keep their
character, what was smooth stays smooth and what was square stays square.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Mapping, Sequence

from widehem.core.geometry.curves import Cubic, Line, Segment
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, mirror_in, turn
from widehem.core.pattern.edge import Dart, Edge, Gap
from widehem.core.pattern.inside import BalanceLine, InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.shifting.inside import Hung, hung
from widehem.core.shifting.net import Net, carried, gap_between, net_of, rebuilt, with_joints
from widehem.core.shifting.smooth import smoothed, squared
from widehem.core.shifting.spots import Target
from widehem.core.shifting.turned import Turned, turned_parts
from widehem.core.values import kept, record, replace

LEAST_SHARE, MOST_SHARE = -0.25, 1.25
FLAT = 1.0  # cm: a chord that runs less than this one way shares by length
LEVEL = 0.05  # cm: a node so near a level lies on it
ORIGIN = Point(0.0, 0.0)
Vectors = Mapping[Target, Point]


@record(frozen=True)
class Ruled:
    """A piece made ready to be shifted: with joints where rules lie, and how all that is not ruled follows.

    targets: what may be ruled, in the frame of the piece. inherited: by corner that has no rule, the node it goes with.
    like: the nodes of another size by whose shares joints follow, darts shut; its own where they are not as many.
    """

    piece: Piece
    net: Net
    by_target: Mapping[Target, tuple[int, ...]]
    turned: tuple[Turned, ...]
    inherited: Mapping[str, Target]
    like: tuple[Point, ...] = ()

    @property
    def shared_by(self) -> tuple[Point, ...]:
        """The nodes by which joints share between their neighbours: those of another size of the same net, or its own, darts shut."""
        return self.like if len(self.like) == len(self.shut) else self.shut

    @kept
    def shut(self) -> tuple[Point, ...]:
        """The nodes with the turned darts shut."""
        found = list(self.net.nodes)
        for part in self.turned:
            way = turn(part.about, part.angle)
            for node in part.nodes:
                found[node] = found[node].moved(way)
        return tuple(found)

    @kept
    def hangs(self) -> dict[Point, Hung]:
        """How places inside hang on the outline, as they are asked for."""
        return {}

    def hang(self, spot: Point) -> Hung:
        if spot not in self.hangs:
            self.hangs[spot] = hung(self.net, spot)
        return self.hangs[spot]


def ruled(piece: Piece, targets: Iterable[Target], *, shut: bool = True) -> Ruled:
    """A piece ready to be shifted by rules at these targets. shut: they are meant for the piece with its turned darts shut."""
    wanted = tuple(dict.fromkeys(targets))
    piece = with_joints(piece, [(t.name, t.along) for t in wanted if t.kind == "edge"])
    net = net_of(piece)
    by_target = {target: nodes for target in wanted if (nodes := _nodes(net, target))}
    known = {node: target for target, nodes in by_target.items() for node in nodes}
    inherited: dict[str, Target] = {}
    corners = dict.fromkeys(net.starts)
    for number, node in enumerate(net.starts):
        if node in corners and node not in known and known:
            inherited[piece.edges[number].name] = known[_nearest(net, node, known)]
    return Ruled(piece, net, by_target, turned_parts(net) if shut else (), inherited)


def _nodes(net: Net, target: Target) -> tuple[int, ...]:
    """The nodes that a target moves; none for what lies inside."""
    if target.kind == "corner":
        number = next(n for n, edge in enumerate(net.piece.edges) if edge.name == target.name)
        return (net.starts[number],)
    if target.kind == "edge":
        node = net.node_at(target.name, target.along)
        return () if node is None else (node,)
    if target.kind == "dart" and target.name in net.legs_by_name:
        inner, outer = net.legs_by_name[target.name]
        return {"inner": (inner,), "outer": (outer,), "legs": (inner, outer), "middle": (inner, outer)}.get(target.part, ())
    return ()


def _nearest(net: Net, node: int, known: Mapping[int, Target]) -> int:
    """Of the ruled nodes next before and next after round the outline, the nearer one."""
    count = len(net.nodes)
    after = next(at % count for at in range(node + 1, node + 1 + count) if at % count in known)
    before = next(at % count for at in range(node - 1, node - 1 - count, -1) if at % count in known)
    return min((before, after), key=lambda at: net.nodes[at].to(net.nodes[node]))


def shifted(ready: Ruled, vectors: Vectors) -> Piece:
    """The piece with its ruled spots moved by these vectors (cm, in its own frame), and all else with them. Raises PatternError
    where that makes no piece."""
    moves = _moves(ready, vectors)
    shut = tuple(at + move for at, move in zip(ready.shut, moves, strict=True))
    parts = [_opened(ready, part, shut, vectors) for part in ready.turned]
    nodes = list(shut)
    for part in parts:
        way = turn(part.about, -part.angle)
        for node in part.nodes:
            nodes[node] = shut[node].moved(way)
    net = ready.net
    apexes = {part.dart: part.about for part in parts}
    _even_legs(net, nodes, vectors, apexes)
    segments = [_segment(ready, parts, shut, nodes, number) for number in range(len(net.spans))]
    gaps = {key: _gap(ready, nodes, key, vectors, apexes) for key in net.legs}
    segments = squared(net, smoothed(net, segments, gaps))
    edges = rebuilt(net, nodes, segments, gaps)
    return _with_inside(ready, nodes, segments, vectors, edges)


def _moves(ready: Ruled, vectors: Vectors) -> list[Point]:
    """How every node moves: ruled ones, corners with the node they inherit from, the rest by their share between two."""
    net, known = ready.net, dict[int, Point]()
    for target, nodes in ready.by_target.items():
        if target in vectors:
            for node in nodes:
                known[node] = vectors[target]
    on_centre = {start for edge in net.piece.edges if edge.name == net.piece.middle for start in _ends(net, edge.name)}
    for number, edge in enumerate(net.piece.edges):
        node = net.starts[number]
        if node not in known:
            source = ready.inherited.get(edge.name)
            move = vectors.get(source, ORIGIN) if source is not None else ORIGIN
            known[node] = Point(0.0, move.y) if node in on_centre and abs(net.nodes[node].x) < LEVEL else move
    for number, edge in enumerate(net.piece.edges):
        _share(ready, number, edge.name, known)
    return [known[node] for node in range(len(net.nodes))]


def _ends(net: Net, name: str) -> tuple[int, int]:
    number = next(n for n, edge in enumerate(net.piece.edges) if edge.name == name)
    return net.starts[number], net.starts[(number + 1) % len(net.starts)]


def _share(ready: Ruled, number: int, name: str, known: dict[int, Point]) -> None:
    """The nodes of an edge that are not ruled: joints by their share of the chord between their ruled neighbours; both legs of
    a dart together, by the sewn length."""
    net = ready.net
    row = [span for span in net.spans if span.edge == number]
    nodes = [row[0].start]
    for span in row:
        if span.start != nodes[-1]:
            nodes.append(span.start)
        nodes.append(span.end)
    alongs = [net.alongs[number, node] if node != nodes[-1] else net.piece.edges[number].length for node in nodes]
    fixed = [at for at, node in enumerate(nodes) if node in known]
    twin = {pair[0]: pair[1] for key, pair in net.legs.items() if key[0] == number}
    others = {**twin, **{outer: inner for inner, outer in twin.items()}}
    for at, node in enumerate(nodes):
        if node in known:
            continue
        if node in others and others[node] in known:
            known[node] = known[others[node]]
            continue
        low, high = max(f for f in fixed if f < at), min(f for f in fixed if f > at)
        a, b = nodes[low], nodes[high]
        whole = alongs[high] - alongs[low]
        part = (alongs[at] - alongs[low]) / whole if whole > 1e-9 else 0.5
        one, two, here = ready.shared_by[a], ready.shared_by[b], ready.shared_by[node]
        x, y = part, part
        if node not in others:
            x = _part(one.x, two.x, here.x, part)
            y = _part(one.y, two.y, here.y, part)
        move_a, move_b = known[a], known[b]
        known[node] = Point(move_a.x + (move_b.x - move_a.x) * x, move_a.y + (move_b.y - move_a.y) * y)


def _part(start: float, end: float, at: float, by_length: float) -> float:
    chord = end - start
    return min(max((at - start) / chord, LEAST_SHARE), MOST_SHARE) if abs(chord) >= FLAT else by_length


def _opened(ready: Ruled, part: Turned, shut: Sequence[Point], vectors: Vectors) -> Turned:
    """How a turned dart is opened again: about the moved bust point, so that the chest point moves out as far as before."""
    move = next((vectors[t] for t in vectors if t.kind == "mark" and t.name == part.mark), None)
    move = next((vectors[t] for t in vectors if t.kind == "dart" and t.name == part.dart and t.part in ("point", "apex")), move)
    about = part.about + (move if move is not None else _follow(ready, shut, part.about))
    before, after = ready.shut[part.chest].to(part.about), shut[part.chest].to(about)
    size = min(max(before * math.sin(abs(part.angle) / 2) / after, 0.0), 1.0) if after > 1e-6 else 0.0
    return replace(part, about=about, angle=math.copysign(2 * math.asin(size), part.angle))


def _follow(ready: Ruled, shut: Sequence[Point], spot: Point) -> Point:
    found = hung(replace(ready.net, nodes=ready.shut), spot)
    moves = [(after - before) for before, after in zip(ready.shut, shut, strict=True)]
    if found.span >= 0:
        span = ready.net.spans[found.span]
        return moves[span.start].toward(moves[span.end], found.t)
    x = sum(weight * moves[node].x for node, weight in found.weights)
    y = sum(weight * moves[node].y for node, weight in found.weights)
    return Point(x, y)


def _segment(ready: Ruled, parts: Sequence[Turned], shut: Sequence[Point], nodes: Sequence[Point], number: int) -> Segment:
    span = ready.net.spans[number]
    for before, after in zip(ready.turned, parts, strict=True):
        if span.start in before.nodes and span.end in before.nodes:
            lying = span.segment.moved(turn(before.about, before.angle))
            made = carried(lying, shut[span.start], shut[span.end]).moved(turn(after.about, -after.angle))
            return _pinned(made, nodes[span.start], nodes[span.end])
    return carried(span.segment, nodes[span.start], nodes[span.end])


def _pinned(segment: Segment, start: Point, end: Point) -> Segment:
    if isinstance(segment, Line):
        return Line(start, end)
    return Cubic(start, segment.out + (start - segment.start), segment.into + (end - segment.end), end)


def _about(dart: Dart, vectors: Vectors, apexes: Mapping[str, Point]) -> Point | None:
    """Where a dart is turned about now, where a rule says so."""
    if dart.name in apexes:
        return apexes[dart.name]
    move = next(
        (v for t, v in vectors.items() if t.kind == "dart" and t.name == dart.name and t.part in ("point", "apex")), None
    )
    return None if move is None else dart.turned_about + move


def _even_legs(net: Net, nodes: list[Point], vectors: Vectors, apexes: Mapping[str, Point]) -> None:
    """Legs that were as long as each other are made so again: each by half of what they differ."""
    for (edge, number), (inner, outer) in net.legs.items():
        gap = net.piece.edges[edge].gaps[number]
        about = _about(gap, vectors, apexes) if isinstance(gap, Dart) else None
        if (
            about is None
            or not isinstance(gap, Dart)
            or abs(gap.inner.to(gap.turned_about) - gap.outer.to(gap.turned_about)) > 1e-3
        ):
            continue
        a, b = nodes[inner] - about, nodes[outer] - about
        mean = (a.size + b.size) / 2
        nodes[inner], nodes[outer] = about + a.unit() * mean, about + b.unit() * mean


def _gap(ready: Ruled, nodes: Sequence[Point], key: tuple[int, int], vectors: Vectors, apexes: Mapping[str, Point]) -> Gap:
    gap = ready.net.piece.edges[key[0]].gaps[key[1]]
    inner, outer = (nodes[node] for node in ready.net.legs[key])
    return gap_between(gap, inner, outer, _about(gap, vectors, apexes) if isinstance(gap, Dart) else None)


# what lies inside


def _with_inside(
    ready: Ruled, nodes: Sequence[Point], segments: Sequence[Segment], vectors: Vectors, edges: tuple[Edge, ...]
) -> Piece:
    piece, net = ready.piece, ready.net

    def moved(spot: Point) -> Point:
        """Where a place of the piece lies now."""
        at = ready.hang(spot)
        if at.span >= 0:
            return segments[at.span].at(at.t) + (spot - net.spans[at.span].segment.at(at.t))
        x = spot.x + sum(weight * (nodes[node].x - net.nodes[node].x) for node, weight in at.weights)
        y = spot.y + sum(weight * (nodes[node].y - net.nodes[node].y) for node, weight in at.weights)
        return Point(x, y)

    by = {
        (t.kind, t.name, t.number, t.part): vector for t, vector in vectors.items() if t.kind not in ("corner", "edge", "dart")
    }

    def placed(kind: str, name: str, spot: Point, number: int = 0) -> Point:
        own = by.get((kind, name, number, ""))
        return moved(spot) if own is None else spot + own

    diamonds = []
    for diamond in piece.diamonds:
        middle = diamond.top.toward(diamond.bottom, 0.5)
        whole = moved(middle) - middle
        spots = {
            part: getattr(diamond, part) + by.get(("diamond", diamond.name, 0, part), whole)
            for part in ("top", "bottom", "inner", "outer")
        }
        diamonds.append(replace(diamond, **spots))
    holes = piece.holes
    if holes:
        shift = placed("hole", "hole", holes[0]) - holes[0]  # they stand as far apart as before, unless they are ruled
        holes = tuple(hole + by.get(("hole", "hole", number, ""), shift) for number, hole in enumerate(holes))
    grain = piece.grain
    if grain is not None:
        middle = grain[0].toward(grain[1], 0.5)
        shift = moved(middle) - middle
        grain = (grain[0] + by.get(("grain", "grain", 0, ""), shift), grain[1] + by.get(("grain", "grain", 1, ""), shift))
    lines = tuple(_line(line, placed, moved) for line in piece.lines)
    return replace(
        piece, edges=edges, marks={name: placed("mark", name, at) for name, at in piece.marks.items()}, diamonds=tuple(diamonds),
        holes=holes, grain=grain, lines=lines, balance=tuple(_level(ready, line, nodes, moved, by) for line in piece.balance),
    )  # fmt: skip


def _line(line: InnerLine, placed: Callable[[str, str, Point, int], Point], moved: Callable[[Point], Point]) -> InnerLine:
    ends = [line.path.start, *(segment.end for segment in line.path.segments)]
    now = [placed("line", line.name, at, number) for number, at in enumerate(ends)]
    path = Path(tuple(carried(segment, now[n], now[n + 1]) for n, segment in enumerate(line.path.segments)))
    if line.folded is None:
        return replace(line, path=path)
    over, back = mirror_in(ends[0], ends[-1]), mirror_in(now[0], now[-1])
    spots = [line.folded.start, *(segment.end for segment in line.folded.segments)]
    there = [moved(at.moved(over)).moved(back) for at in spots]
    folded = Path(tuple(carried(segment, there[n], there[n + 1]) for n, segment in enumerate(line.folded.segments)))
    return replace(line, path=path, folded=folded)


def _level(
    ready: Ruled,
    line: BalanceLine,
    nodes: Sequence[Point],
    moved: Callable[[Point], Point],
    by: Mapping[tuple[str, str, int, str], Point],
) -> BalanceLine:
    """A level goes with a node that lies on it, else with the places at which it meets the outline."""
    own = by.get(("level", line.level, 0, ""))
    if len(line.lines) > 1:
        spots = [a for a, _ in line.lines] + [line.lines[-1][1]]
        there = [by.get(("bend", line.level, n - 1, ""), moved(at) - at) + at for n, at in enumerate(spots)]
        return replace(line, lines=tuple((there[n], there[n + 1]) for n in range(len(line.lines))))
    if own is not None:
        down = own.y
    else:
        at, way = line.straight
        on = [n for n, node in enumerate(ready.net.nodes) if abs(way.cross(node - at)) < LEVEL]
        if on:
            down = sum(nodes[n].y - ready.net.nodes[n].y for n in on) / len(on)
        else:
            ends = [end for stretch in ready.piece.stretches(line.level) for end in stretch]
            down = sum((moved(end) - end).y for end in ends) / len(ends) if ends else 0.0
    return replace(line, lines=tuple((Point(a.x, a.y + down), Point(b.x, b.y + down)) for a, b in line.lines))
