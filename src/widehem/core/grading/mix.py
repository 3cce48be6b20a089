"""Sizes mixed on one body: one field of size numbers over a pattern, broken ones allowed, read between two sizes of a nest."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Literal

from widehem.core.body.chart import Chart
from widehem.core.geometry.points import Point
from widehem.core.grading.demands import OF_THE_DRAWING
from widehem.core.grading.nest import Nest, Sized
from widehem.core.grading.net import Net, net_of
from widehem.core.grading.propose import shape_differs
from widehem.core.grading.shift import ruled, shifted
from widehem.core.grading.size_chart import SizeChart
from widehem.core.grading.spots import Target
from widehem.core.grading.tables import frame_of
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.body import Girth, asked_girths
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import centre
from widehem.core.style.operation import OPERATIONS, Context, run
from widehem.core.units import Saying, say
from widehem.core.values import record

School = Literal["down", "across"]
SCHOOLS: Mapping[School, str] = {"down": "Down the body, level by level", "across": "Across, from the centre to the side"}
STEEPEST = 1.25  # of the mean, in a blend whose ends are rounded over a fifth
ROUND = 0.2  # of a blend, at either end
QUARTERS = (0.25, 0.5, 0.75)
LONG = 6.0  # cm: a span so long gets nodes at its quarters
JOG, OVER = 1.5, 10.0  # cm sideways in cm of length, that is warned of
TOP, FOOT = "top", "foot"


class MixError(ValueError):
    """Sizes that cannot be mixed: one sentence."""


@record(frozen=True)
class Mix:
    """What to mix. stops: the size at each level, from 0, broken numbers allowed: levels of the pattern, `top` and `foot`; across:
    `centre` and `side`. lengths: the size whose lengths are kept."""

    school: School
    stops: Mapping[str, float]
    lengths: float


@record(frozen=True)
class Mixed:
    """A garment of several sizes. jogs: by piece, the largest change of the side against that of one size within ten centimetres.
    ease: by girth, body, finished and ease, cm."""

    garment: Garment
    sized: Sized
    jogs: Mapping[str, float]
    ease: tuple[tuple[str, float, float, float], ...]
    cautions: tuple[Saying, ...]


def mixed(nest: Nest, mix: Mix, chart: Chart | None = None) -> Mixed:
    """One garment of several sizes of a nest. chart: of the wearer, whose ease is told. Raises MixError."""
    order = sorted(nest.sizes)
    if not order:
        raise MixError("No size of this nest can be drawn: there is nothing to mix.")
    for name, size in (*mix.stops.items(), ("the lengths", mix.lengths)):
        if not order[0] <= size <= order[-1]:
            raise MixError(f"Size {size + 1:g} at {name} is not in the nest: {nest.names[order[0]]} to {nest.names[order[-1]]} are.")
    body = min(order, key=lambda size: abs(size - mix.lengths))
    near = sorted({size for stop in (*mix.stops.values(), mix.lengths) for size in _two(order, stop)})
    for size in near:
        why = shape_differs(nest.sizes[body].garment, nest.sizes[size].garment)
        if why is not None:
            raise MixError(f"Size {nest.names[size]} cannot be mixed with size {nest.names[body]}: {why.text()}")
    garment = nest.sizes[body].garment
    pieces = tuple(_piece(nest, mix, order, body, piece) for piece in garment.pieces)
    whole = replace(garment, pieces=pieces)
    sized = nest.sizes[body]
    demands = _for_wearer(sized.demands, chart)
    whole = run(OPERATIONS["true.seams"], whole, Context(chart or Chart(), sized.wear, limits=sized.limits)).garment
    done = replace(sized, garment=whole, demands=demands, made=None)
    jogs = {piece.name: jog for piece in whole.shell if (jog := _jog(nest, mix, piece)) > 0.005}
    cautions = [
        say(f"{whole.piece(name).title}: the side jogs by {{0}} within {{1u}}: a smoother line, or a fitting seam, wants at most {{2}}.", jog, OVER, JOG)
        for name, jog in jogs.items()
        if jog > JOG
    ]  # fmt: skip
    return Mixed(whole, done, jogs, _reached(done), tuple(cautions))


def _two(order: Sequence[int], size: float) -> tuple[int, int]:
    """The sizes between which a broken number lies."""
    below = max((one for one in order if one <= size + 1e-9), default=order[0])
    above = min((one for one in order if one >= size - 1e-9), default=order[-1])
    return below, above


def _for_wearer(demands: Sequence[Demand], chart: Chart | None) -> tuple[Demand, ...]:
    """What is asked of a mix: room for this wearer, nothing of the drawing of one size."""
    found: list[Demand] = []
    for demand in demands:
        if isinstance(demand, Girth):
            code = demand.name if chart is not None and demand.name in chart else ""
            value = chart.get(code) if chart is not None and code else None
            found.append(replace(demand, planned=None, wish=None, body=demand.body if value is None else value))
        elif not isinstance(demand, OF_THE_DRAWING):
            found.append(demand)
    return tuple(found)


def _reached(sized: Sized) -> tuple[tuple[str, float, float, float], ...]:
    found = []
    for girth in asked_girths(sized.demands):
        drawn = sized.garment.round_of(girth.edge, limb=girth.limb) if girth.edge else sized.garment.girth(girth.name, limb=girth.limb)
        found.append((girth.title, girth.body, drawn + girth.gap, drawn + girth.gap - girth.body))
    return tuple(found)


def _piece(nest: Nest, mix: Mix, order: Sequence[int], body: int, piece: Piece) -> Piece:
    nets = {size: net_of(nest.sizes[size].garment.piece(piece.name)) for size in order if shape_differs(nest.sizes[body].garment, nest.sizes[size].garment) is None}
    net = nets[body]
    fields = _Field(net, mix, piece)
    vectors: dict[Target, Point] = {}
    for edge_number, edge in enumerate(piece.edges):
        for span in (s for s in net.spans if s.edge == edge_number):
            begin = net.alongs[edge_number, span.start]
            here = [(0.0, begin)]
            if span.segment.length > LONG:
                here += [(t, begin + _length_to(span.segment, t)) for t in QUARTERS]
            for t, along in here:
                number = net.spans.index(span)
                legs = [key for key, pair in net.legs.items() if key[0] == edge_number and span.start == pair[1]] if t == 0.0 else []
                size = fields.at(span.segment.at(t), edge_number, along)
                if legs:
                    gap = edge.gaps[legs[0][1]]
                    size = fields.at(gap.inner.toward(gap.outer, 0.5), edge_number, along)
                    for part, node in zip(("inner", "outer"), net.legs[legs[0]], strict=True):
                        vectors[Target("dart", gap.name, part=part)] = _between(nets, size, mix.lengths, body, lambda n, node=node: n.nodes[node])  # type: ignore[misc]
                    point = getattr(gap, "turned_about", None)
                    if point is not None:
                        vectors[Target("dart", gap.name, part="apex")] = _between(
                            nets, size, mix.lengths, body, lambda n, e=edge_number, g=legs[0][1]: n.piece.edges[e].gaps[g].turned_about)  # type: ignore[misc]
                    continue
                move = _between(nets, size, mix.lengths, body, lambda n, i=number, t=t: n.spans[i].segment.at(t))  # type: ignore[misc]
                target = Target("corner", edge.name) if t == 0.0 and span.start == net.starts[edge_number] else Target("edge", edge.name, along)
                vectors[target] = move
    for line in piece.balance:
        height = _between(nets, mix.lengths, mix.lengths, body, lambda n, level=line.level: Point(0.0, n.piece.levels.get(level, 0.0)))  # type: ignore[misc]
        vectors[Target("level", line.level)] = Point(0.0, height.y)
    ready = ruled(piece, vectors, shut=False)
    return shifted(ready, vectors)


def _length_to(segment: object, t: float) -> float:
    return segment.split(t)[0].length  # type: ignore[attr-defined, no-any-return]


def _between(nets: Mapping[int, Net], size: float, lengths: float, body: int, read: object) -> Point:
    """How a place moves from the size that the pattern is built on: across as in one size, down as in that of the lengths."""
    x, y = (_read(nets, wanted, read) for wanted in (size, lengths))
    own = read(nets[body])  # type: ignore[operator]
    axis = frame_of(nets[body].piece).x
    return Point(x.x - (own.x - axis), y.y - own.y)


def _read(nets: Mapping[int, Net], size: float, read: object) -> Point:
    below, above = _two(sorted(nets), size)
    one, two = read(nets[below]), read(nets[above])  # type: ignore[operator]
    one, two = (Point(at.x - frame_of(nets[n].piece).x, at.y) for at, n in ((one, below), (two, above)))
    return one.toward(two, (size - below) / (above - below)) if above > below else one


class _Field:
    """The size number at every place of a piece."""

    def __init__(self, net: Net, mix: Mix, piece: Piece) -> None:
        self._net, self._mix, self._piece = net, mix, piece
        left, top, right, bottom = piece.bounds
        heights = {line.level: line.height for line in piece.balance}
        heights |= {TOP: top, FOOT: bottom}
        self._stops = sorted((heights[name], size) for name, size in mix.stops.items() if name in heights)
        self._edges = piece.bounds[0], piece.bounds[2]

    def at(self, spot: Point, edge: int, along: float) -> float:
        if self._mix.school == "across":
            return self._across(edge, along, spot)
        stops = self._stops
        if not stops:
            return self._mix.lengths
        if spot.y <= stops[0][0]:
            return stops[0][1]
        for (low, one), (high, two) in zip(stops, stops[1:], strict=False):
            if spot.y <= high:
                return one + (two - one) * blend((spot.y - low) / (high - low)) if high > low else two
        return stops[-1][1]

    def _across(self, number: int, along: float, spot: Point) -> float:
        inner, outer = self._mix.stops.get("centre", self._mix.lengths), self._mix.stops.get("side", self._mix.lengths)
        edge = self._piece.edges[number]
        if edge.role == "side":
            return outer
        before, after = self._piece.beside(edge.name)
        ends = [1.0 if other.role == "side" else 0.0 for other in (before, after)]
        if centre(edge.role) or ends == [0.0, 0.0]:
            return inner
        share = along / edge.length if edge.length else 0.0
        return inner + (outer - inner) * (ends[0] * (1 - share) + ends[1] * share)


def blend(share: float) -> float:
    """A straight blend from 0 to 1 whose ends are rounded over a fifth: nowhere steeper than 1.25 times its mean."""
    share = min(max(share, 0.0), 1.0)
    if share > 0.5:
        return 1.0 - blend(1.0 - share)
    return STEEPEST * share * share / (2 * ROUND) if share < ROUND else STEEPEST * (share - ROUND / 2)


def _jog(nest: Nest, mix: Mix, piece: Piece) -> float:
    """The largest change, within ten centimetres, of the sideways distance of a side to that of the size at the hip."""
    sides = [edge for edge in piece.edges if edge.role == "side"]
    if not sides or not mix.stops:
        return 0.0
    anchor = mix.stops.get("hip", list(mix.stops.values())[-1])
    one = _side(piece)
    below, above = _two(sorted(nest.sizes), anchor)
    others = [_side(nest.sizes[size].garment.piece(piece.name)) for size in (below, above)]
    part = (anchor - below) / (above - below) if above > below else 0.0
    low = max(min(y for y, _ in line) for line in (one, *others))
    high = min(max(y for y, _ in line) for line in (one, *others))
    worst, steps = 0.0, max(int((high - low) * 2), 1)
    apart = []
    for number in range(steps + 1):
        y = low + (high - low) * number / steps
        there = _x_at(others[0], y) * (1 - part) + _x_at(others[1], y) * part
        apart.append((y, _x_at(one, y) - there))
    for y, gap in apart:
        worst = max([worst, *(abs(gap - other) for z, other in apart if abs(z - y) <= OVER)])
    return worst


def _side(piece: Piece) -> list[tuple[float, float]]:
    axis = frame_of(piece).x
    spots = [at for edge in piece.edges if edge.role == "side" for path in edge.parts for at in path.flat(0.05)]
    return sorted((at.y, abs(at.x - axis)) for at in spots)


def _x_at(line: Sequence[tuple[float, float]], y: float) -> float:
    for (low, a), (high, b) in zip(line, line[1:], strict=False):
        if low <= y <= high:
            return a + (b - a) * (y - low) / (high - low) if high > low else a
    return line[0][1] if y < line[0][0] else line[-1][1]


def fits(chart: Chart, sizes: SizeChart, codes: Sequence[str] = ("bust", "waist", "hip", "nape_waist")) -> dict[str, float]:
    """The size number of a wearer by each of these measures, broken, from 0; beyond the chart the last step is carried on."""
    found: dict[str, float] = {}
    for code in codes:
        value, row = chart.get(code), sizes.rows.get(code)
        if value is None or row is None or row[-1] - row[0] < 0.5:
            continue
        at = next((n for n in range(len(row) - 1) if value <= row[n + 1]), len(row) - 2)
        step = row[at + 1] - row[at]
        if abs(step) > 1e-9:
            found[code] = at + (value - row[at]) / step
    return found
