"""The outline of a piece as nodes and the spans between them; the legs of darts are nodes, their mouths are none."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from widehem.core.geometry.curves import Cubic, Line, Segment
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Dart, Edge, Gap, Held, Notch
from widehem.core.pattern.piece import Piece
from widehem.core.values import kept, record, replace

SAME = 1e-4  # cm: so near along an edge, two places are one
SHORT = 1.0  # cm: a chord that runs less than this one way does not scale its handles that way
LEAST_SCALE, MOST_SCALE = 0.25, 4.0


@record(frozen=True)
class Span:
    """A segment between two nodes: of which edge, stretch and place in it."""

    edge: int
    part: int
    number: int
    start: int
    end: int
    segment: Segment


@record(frozen=True)
class Net:
    """A piece with its outline as nodes. spans: in order round it. starts: the node at which each edge begins. legs: the nodes
    of the inner and the outer leg of a gap, by edge and number."""

    piece: Piece
    nodes: tuple[Point, ...]
    spans: tuple[Span, ...]
    starts: tuple[int, ...]
    legs: Mapping[tuple[int, int], tuple[int, int]]

    @kept
    def alongs(self) -> dict[tuple[int, int], float]:
        """How far along its edge a span begins, by edge and node, cm, darts sewn."""
        found, gone, edge = {}, 0.0, -1
        for span in self.spans:
            gone = 0.0 if span.edge != edge else gone
            edge = span.edge
            found[span.edge, span.start] = gone
            gone += span.segment.length
            found[span.edge, span.end] = gone
        return found

    def node_at(self, edge: str, along: float) -> int | None:
        """The node so far along an edge; None where there is none, or only the legs of a dart."""
        number = next((n for n, e in enumerate(self.piece.edges) if e.name == edge), None)
        legs = {node for (e, _), pair in self.legs.items() if e == number for node in pair}
        return next(
            (node for (e, node), at in self.alongs.items() if e == number and abs(at - along) < SAME and node not in legs), None
        )

    @kept
    def legs_by_name(self) -> dict[str, tuple[int, int]]:
        return {self.piece.edges[edge].gaps[number].name: pair for (edge, number), pair in self.legs.items()}

    @kept
    def shape(self) -> tuple[object, ...]:
        """What two pieces have in common whose nodes answer each other: edges, stretches, kinds of segment, gaps, what lies
        inside."""
        edges = tuple(
            (
                edge.name,
                tuple(len(part.segments) for part in edge.parts),
                tuple((type(gap).__name__, gap.name) for gap in edge.gaps),
            )
            for edge in self.piece.edges
        )
        inside = (
            tuple(d.name for d in self.piece.diamonds),
            tuple((line.name, len(line.path.segments)) for line in self.piece.lines),
        )
        return edges, inside


def net_of(piece: Piece) -> Net:
    """The nodes of a piece, in order round its outline."""
    nodes: list[Point] = []
    spans: list[Span] = []
    starts: list[int] = []
    legs: dict[tuple[int, int], tuple[int, int]] = {}
    for number, edge in enumerate(piece.edges):
        starts.append(len(nodes))
        for part, path in enumerate(edge.parts):
            if part:
                legs[number, part - 1] = (len(nodes) - 1, len(nodes))
            last_part = part == len(edge.parts) - 1
            nodes.append(path.start)
            for count, segment in enumerate(path.segments):
                begins = len(nodes) - 1
                if count < len(path.segments) - 1 or not last_part:
                    nodes.append(segment.end)
                spans.append(Span(number, part, count, begins, len(nodes) - 1, segment))
    spans = [  # the last span of an edge ends where the next edge begins
        replace(span, end=starts[(span.edge + 1) % len(starts)]) if _closes(piece, span) else span for span in spans
    ]
    return Net(piece, tuple(nodes), tuple(spans), tuple(starts), legs)


def _closes(piece: Piece, span: Span) -> bool:
    edge = piece.edges[span.edge]
    return span.part == len(edge.parts) - 1 and span.number == len(edge.parts[-1].segments) - 1


def with_joints(piece: Piece, spots: Iterable[tuple[str, float]]) -> Piece:
    """The piece with joints at these places (edge, cm along it), where it has none: its outline stays what it is."""
    wanted: dict[str, list[float]] = {}
    for name, along in spots:
        wanted.setdefault(name, []).append(along)
    edges = tuple(_jointed(edge, wanted[edge.name]) if edge.name in wanted else edge for edge in piece.edges)
    return piece if all(a is b for a, b in zip(edges, piece.edges, strict=True)) else replace(piece, edges=edges)


def _jointed(edge: Edge, alongs: Iterable[float]) -> Edge:
    parts, gone, changed = list[Path](), 0.0, False
    for part in edge.parts:
        inner = sorted(along - gone for along in alongs if gone + SAME < along < gone + part.length - SAME)
        gone += part.length
        rest, done = part, 0.0
        pieces: list[Segment] = []
        for along in inner:
            before, after = rest.cut(along - done)
            if min(before.segments[-1].length, after.segments[0].length) < SAME:
                continue
            pieces += before.segments
            rest, done, changed = after, along, True
        parts.append(Path((*pieces, *rest.segments)))
    return replace(edge, parts=tuple(parts)) if changed else edge


def carried(segment: Segment, start: Point, end: Point) -> Segment:
    """A segment between other ends: straights stay straight; each handle goes with its end, longer one way as its chord is."""
    if isinstance(segment, Line):
        return Line(start, end)
    before, after = segment.end - segment.start, end - start
    x, y = (
        min(max(new / old, LEAST_SCALE), MOST_SCALE) if abs(old) >= SHORT else 1.0
        for old, new in zip(before, after, strict=True)
    )
    out, into = segment.out - segment.start, segment.into - segment.end
    return Cubic(start, start + Point(out.x * x, out.y * y), end + Point(into.x * x, into.y * y), end)


def rebuilt(
    net: Net, nodes: Sequence[Point], segments: Sequence[Segment], gaps: Mapping[tuple[int, int], Gap]
) -> tuple[Edge, ...]:
    """The edges of a piece on other nodes: its spans as given, its gaps as given, notches by their share of the span they lie
    on."""
    found: list[Edge] = []
    for number, edge in enumerate(net.piece.edges):
        mine = [(span, segment) for span, segment in zip(net.spans, segments, strict=True) if span.edge == number]
        parts = tuple(Path(tuple(segment for span, segment in mine if span.part == part)) for part in range(len(edge.parts)))
        corners = tuple(_moved_corner(net, nodes, corner) for corner in edge.corners)
        found.append(
            replace(
                edge, parts=parts, gaps=tuple(gaps[number, n] for n in range(len(edge.gaps))), corners=corners,
                notches=tuple(replace(notch, along=_along(mine, notch)) for notch in edge.notches),
            )
        )  # fmt: skip
    return tuple(found)


def _along(mine: Sequence[tuple[Span, Segment]], notch: Notch) -> float:
    """Where a notch lies on its edge: at the same share of its span as before."""
    gone = new = 0.0
    for span, segment in mine:
        length = span.segment.length
        if notch.along <= gone + length + 1e-9:
            share = (notch.along - gone) / length if length else 0.0
            return new + max(share, 0.0) * segment.length
        gone += length
        new += segment.length
    return new


def _moved_corner(net: Net, nodes: Sequence[Point], corner: Point) -> Point:
    nearest = min(range(len(net.nodes)), key=lambda number: net.nodes[number].to(corner))
    return corner + (nodes[nearest] - net.nodes[nearest])


def gap_between(gap: Gap, inner: Point, outer: Point, apex: Point | None) -> Gap:
    """A gap between other legs: its mouth goes with them. apex: near where a dart is to be turned about; its legs are made as
    long as each other."""
    if isinstance(gap, Held):
        return replace(gap, line=_similar(gap.line, inner, outer))
    if not isinstance(gap, Dart):
        return replace(gap, inner=inner, outer=outer)
    middle = inner.toward(outer, 0.5)
    about = apex or gap.turned_about + (middle - gap.inner.toward(gap.outer, 0.5))
    mouth = outer - inner
    axis = mouth.unit().square()
    axis = axis if axis.dot(about - middle) > 0 else -axis
    even = (
        middle + axis * max(axis.dot(about - middle), 1.0)
        if abs(gap.legs[0] - gap.legs[1]) < 1e-3 and mouth.size > 1e-6
        else about
    )
    short = gap.turned_about.to(gap.point)
    point = even + (middle - even).unit() * short if short > 1e-9 else even
    same = abs(gap.mouth - mouth.size) < 1e-9
    return replace(
        gap, inner=inner, outer=outer, middle=gap.middle + (middle - gap.inner.toward(gap.outer, 0.5)), point=point,
        intake=gap.intake if same else gap.intake + mouth.size - gap.mouth, length=gap.length + point.to(middle) - gap.point.to(gap.inner.toward(gap.outer, 0.5)),
        cap=_similar(gap.cap, inner, outer), apex=even if gap.apex is not None else None,
    )  # fmt: skip


def _similar(path: Path, start: Point, end: Point) -> Path:
    """A path moved, turned and made longer so that it runs between other ends."""
    old, new = path.end - path.start, end - start
    square = old.dot(old)
    if square < 1e-12:
        return Path.through(start, end) if start.to(end) > 1e-9 else path
    a, b = new.dot(old) / square, old.cross(new) / square

    def moved(at: Point) -> Point:
        x, y = at - path.start
        return Point(start.x + a * x - b * y, start.y + b * x + a * y)

    segments: list[Segment] = []
    for segment in path.segments:
        ends = moved(segment.start), moved(segment.end)
        if isinstance(segment, Line):
            segments.append(Line(*ends))
        else:
            segments.append(Cubic(ends[0], moved(segment.out), moved(segment.into), ends[1]))
    first, last = segments[0], segments[-1]
    segments[0] = replace(first, start=start)
    segments[-1] = replace(segments[-1] if last is not first else segments[0], end=end)
    return Path(tuple(segments))
