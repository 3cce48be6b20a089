"""One piece of several sizes: every place of its outline read from the size that holds there."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from itertools import pairwise

from widehem.core.geometry.curves import Segment
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.spline import spline
from widehem.core.grading.tables import frame_of
from widehem.core.pattern.edge import Dart, Edge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import centre
from widehem.core.shifting.net import Net, Span, net_of
from widehem.core.shifting.shift import ruled, shifted
from widehem.core.shifting.spots import Target
from widehem.core.values import record, replace

STEEPEST = 1.25  # of the mean, in a blend whose ends are rounded over a fifth
ROUND = 0.2  # of a blend, at either end
QUARTERS = (0.25, 0.5, 0.75)
LONG = 6.0  # cm: a span so long gets nodes at its quarters
BLENDED = 0.02  # sizes by which a span differs at its ends, that is drawn as one line through its nodes
TOP, FOOT, CENTRE, SIDE = "top", "foot", "centre", "side"
Read = Callable[[Net], Point]


@record(frozen=True)
class Field:
    """The size number at every place of a piece: by its height, between stops that lie so far down; or across, from the size of the
    centre to that of the side. otherwise: where no stop tells."""

    piece: Piece
    stops: tuple[tuple[float, float], ...]
    across: tuple[float, float] | None
    otherwise: float

    @property
    def tells(self) -> bool:
        """Whether it says anything of this piece: small parts without levels follow what they are sewn to."""
        return bool(self.stops) or (self.across is not None and any(edge.role == "side" for edge in self.piece.edges))

    def at(self, spot: Point, edge: Edge, along: float) -> float:
        if self.across is not None:
            return self._across(edge, along)
        stops = self.stops
        if not stops:
            return self.otherwise
        if spot.y <= stops[0][0]:
            return stops[0][1]
        for (low, one), (high, two) in pairwise(stops):
            if spot.y <= high:
                return one + (two - one) * blend((spot.y - low) / (high - low)) if high > low else two
        return stops[-1][1]

    def _across(self, edge: Edge, along: float) -> float:
        assert self.across is not None
        inner, outer = self.across
        if edge.role == "side":
            return outer
        before, after = self.piece.beside(edge.name)
        ends = [1.0 if other.role == "side" else 0.0 for other in (before, after)]
        if centre(edge.role) or ends == [0.0, 0.0]:
            return inner
        share = along / edge.length if edge.length else 0.0
        return inner + (outer - inner) * (ends[0] * (1 - share) + ends[1] * share)


def field_of(piece: Piece, school: str, stops: Mapping[str, float], lengths: float) -> Field:
    """The field over a piece. stops: sizes by the names of levels, `top` and `foot`; across by `centre` and `side`."""
    if school == "across":
        return Field(piece, (), (stops.get(CENTRE, lengths), stops.get(SIDE, lengths)), lengths)
    _, top, _, bottom = piece.bounds
    heights = {line.level: line.height for line in piece.balance}
    if heights:
        heights |= {TOP: top, FOOT: bottom}
    return Field(piece, tuple(sorted((heights[name], size) for name, size in stops.items() if name in heights)), None, lengths)


def blend(share: float) -> float:
    """A straight blend from 0 to 1 whose ends are rounded over a fifth: nowhere steeper than 1.25 times its mean."""
    share = min(max(share, 0.0), 1.0)
    if share > 0.5:
        return 1.0 - blend(1.0 - share)
    return STEEPEST * share * share / (2 * ROUND) if share < ROUND else STEEPEST * (share - ROUND / 2)


@record(frozen=True)
class Source:
    """A piece in every size, as nodes, and the size that the mixed one is built on; lengths: the size that is read downwards."""

    nets: Mapping[int, Net]
    body: int
    lengths: float

    @property
    def net(self) -> Net:
        return self.nets[self.body]

    def move(self, size: float, read: Read) -> Point:
        """How a place moves from the size it is built on: across as in one size, down as in that of the lengths."""
        own, axis = read(self.net), frame_of(self.net.piece).x
        return Point(self._read(size, read).x - (own.x - axis), self._read(self.lengths, read).y - own.y)

    def _read(self, size: float, read: Read) -> Point:
        """A place in a broken size, from the middle of its piece."""
        below, above = between(sorted(self.nets), size)
        one, two = (read(self.nets[n]) - Point(frame_of(self.nets[n].piece).x, 0.0) for n in (below, above))
        return one.toward(two, (size - below) / (above - below)) if above > below else one


def between(order: Sequence[int], size: float) -> tuple[int, int]:
    """The sizes between which a broken number lies."""
    below = max((one for one in order if one <= size + 1e-9), default=order[0])
    above = min((one for one in order if one >= size - 1e-9), default=order[-1])
    return below, above


Spans = set[tuple[int, int, int]]


def mixed_piece(source: Source, field: Field) -> Piece:
    """The piece with every place of its outline in the size that the field tells. Raises PatternError."""
    vectors, blended = mixed_moves(source, field)
    return _smooth(shifted(ruled(source.net.piece, vectors, shut=False), vectors), source.net, blended)


def mixed_moves(source: Source, field: Field) -> tuple[dict[Target, Point], Spans]:
    """How every place of a piece moves from the size it is built on, and the spans that go from one size to another."""
    net, vectors = source.net, dict[Target, Point]()
    blended: Spans = set()
    for span in net.spans:
        edge = net.piece.edges[span.edge]
        begin = net.alongs[span.edge, span.start]
        leg = next((key for key, pair in net.legs.items() if key[0] == span.edge and span.start == pair[1]), None)
        if leg is not None:
            vectors |= _dart_moved(source, field, leg, begin)
        else:
            at_corner = span.start == net.starts[span.edge]
            target = Target("corner", edge.name) if at_corner else Target("edge", edge.name, begin)
            vectors[target] = source.move(field.at(span.segment.start, edge, begin), _on_span(net, span, 0.0))
        sizes = [field.at(span.segment.start, edge, begin), field.at(span.segment.end, edge, begin + span.segment.length)]
        if span.segment.length > LONG and abs(sizes[0] - sizes[1]) > BLENDED:
            blended.add((span.edge, span.part, span.number))
            for t in QUARTERS:
                along = begin + span.segment.split(t)[0].length
                size = field.at(span.segment.at(t), edge, along)
                vectors[Target("edge", edge.name, along)] = source.move(size, _on_span(net, span, t))
    for line in net.piece.balance:
        vectors[Target("level", line.level)] = Point(0.0, source.move(source.lengths, _height(line.level)).y)
    return vectors, blended


def _dart_moved(source: Source, field: Field, leg: tuple[int, int], along: float) -> dict[Target, Point]:
    """Both legs of a dart and its point, all in the size that holds at its mouth."""
    edge = source.net.piece.edges[leg[0]]
    gap = edge.gaps[leg[1]]
    size = field.at(gap.inner.toward(gap.outer, 0.5), edge, along)
    found = {Target("dart", gap.name, part=part): source.move(size, _leg(leg, part)) for part in ("inner", "outer")}
    if isinstance(gap, Dart):
        found[Target("dart", gap.name, part="apex")] = source.move(size, _apex(*leg))
    return found


def _smooth(piece: Piece, net: Net, blended: Spans) -> Piece:
    """The piece with one line drawn through the nodes of every span that goes from one size to another."""
    edges = []
    for number, edge in enumerate(piece.edges):
        parts = []
        for part, path in enumerate(edge.parts):
            rest: list[Segment] = list(path.segments)
            drawn: list[Segment] = []
            for count in range(len(net.piece.edges[number].parts[part].segments)):
                many = len(QUARTERS) + 1 if (number, part, count) in blended else 1
                group, rest = rest[:many], rest[many:]
                nodes = [group[0].start, *(segment.end for segment in group)]
                drawn += spline(nodes, group[0].direction(0.0), group[-1].direction(1.0)) if many > 1 else group
            parts.append(Path((*drawn, *rest)))
        notches = tuple(
            replace(notch, along=min(notch.along * sum(p.length for p in parts) / edge.length, sum(p.length for p in parts)))
            for notch in edge.notches
        )
        edges.append(replace(edge, parts=tuple(parts), notches=notches))
    return replace(piece, edges=tuple(edges)) if blended else piece


def _leg(leg: tuple[int, int], part: str) -> Read:
    def read(net: Net) -> Point:
        found: Point = getattr(net.piece.edges[leg[0]].gaps[leg[1]], part)
        return found

    return read


def _on_span(source: Net, span: Span, t: float) -> Read:
    """A place on a span; where a size has an edge in more or fewer curves, at the same share of its length."""
    own = source.piece.edges[span.edge].parts[span.part]

    def read(net: Net) -> Point:
        part = net.piece.edges[span.edge].parts[span.part]
        if len(part.segments) == len(own.segments):
            return part.segments[span.number].at(t)
        gone = sum(segment.length for segment in own.segments[: span.number]) + span.segment.split(t)[0].length * (t > 0)
        return part.place(gone / own.length * part.length).point

    return read


def _apex(edge: int, gap: int) -> Read:
    def read(net: Net) -> Point:
        found = net.piece.edges[edge].gaps[gap]
        return found.turned_about if isinstance(found, Dart) else found.inner

    return read


def _height(level: str) -> Read:
    return lambda net: Point(0.0, net.piece.levels.get(level, 0.0))


def nets_of(pieces: Mapping[int, Piece]) -> dict[int, Net]:
    """A piece in several sizes as nodes."""
    return {size: net_of(piece) for size, piece in pieces.items()}
