"""Sizes mixed on one body: one field of size numbers over a pattern, broken ones allowed, read between two sizes of a nest."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Literal

from widehem.core.body.chart import Chart
from widehem.core.design.make import with_garment
from widehem.core.geometry.points import Point
from widehem.core.grading.mixing import Field, Source, between, field_of, mixed_moves, mixed_piece, nets_of
from widehem.core.grading.nest import Nest
from widehem.core.grading.propose import shape_differs
from widehem.core.grading.proposing import with_caps
from widehem.core.grading.size_chart import SizeChart
from widehem.core.grading.sized import Sized
from widehem.core.grading.tables import frame_of
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.body import Girth, asked_girths
from widehem.core.pattern.edge import PatternError
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import Piece
from widehem.core.shifting.demands import OF_THE_DRAWING
from widehem.core.shifting.follow import followed
from widehem.core.shifting.shift import ruled, shifted
from widehem.core.shifting.spots import Target
from widehem.core.style.operation import OPERATIONS, CannotStyle, Context, run
from widehem.core.units import Saying, say
from widehem.core.values import record, replace

School = Literal["down", "across"]
SCHOOLS: Mapping[School, str] = {"down": "Down the body, level by level", "across": "Across, from the centre to the side"}
OF_BODY = frozenset({"armhole", "shoulder", "side"})  # edges by which a piece goes round the body
JOG, OVER = 1.5, 10.0  # cm sideways in cm of length, that is warned of


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
            raise MixError(
                f"Size {size + 1:g} at {name} is not in the nest: {nest.names[order[0]]} to {nest.names[order[-1]]} are."
            )
    body = min(order, key=lambda size: abs(size - mix.lengths))
    near = sorted({size for stop in (*mix.stops.values(), mix.lengths) for size in between(order, stop)})
    for size in near:
        why = shape_differs(nest.sizes[body].garment, nest.sizes[size].garment)
        if why is not None:
            raise MixError(f"Size {nest.names[size]} cannot be mixed with size {nest.names[body]}: {why.text()}")
    garment = nest.sizes[body].garment
    alike = [size for size in order if shape_differs(garment, nest.sizes[size].garment) is None]
    fields = {piece.name: field_of(piece, mix.school, mix.stops, mix.lengths) for piece in garment.pieces}
    sources = {
        piece.name: Source(nets_of({size: nest.sizes[size].garment.piece(piece.name) for size in alike}), body, mix.lengths)
        for piece in garment.pieces
    }
    arm = _at_armhole(garment, fields)
    sleeves = {
        piece.name: _whole_size(sources[piece.name], piece, arm)
        for piece in garment.pieces
        if arm is not None and _set_in(piece, mix)
    }
    for piece in garment.pieces:
        held = _yoked(garment, fields, piece)
        if held is not None:
            sleeves[piece.name] = _whole_size(sources[piece.name], piece, held)
    try:
        return _done(nest, mix, chart, body, fields, sources, sleeves)
    except (PatternError, CannotStyle) as error:
        raise MixError(
            f"These sizes lie too far apart to be drawn as one line: {error} Take sizes nearer to each other."
        ) from None


def _done(
    nest: Nest,
    mix: Mix,
    chart: Chart | None,
    body: int,
    fields: Mapping[str, Field],
    sources: Mapping[str, Source],
    sleeves: dict[str, dict[Target, Point]],
) -> Mixed:
    """The mix drawn: pieces with levels along their fields, sleeves and yokes as a whole, what hangs on them after."""
    garment = nest.sizes[body].garment
    done = {
        piece.name: mixed_piece(sources[piece.name], fields[piece.name])
        for piece in garment.pieces
        if fields[piece.name].tells and piece.name not in sleeves
    }
    done |= {name: shifted(ruled(garment.piece(name), moves, shut=False), moves) for name, moves in sleeves.items()}
    whole, _ = followed(garment, garment.with_pieces(done), set(done))
    whole = with_caps(garment, whole, sleeves)
    sized = nest.sizes[body]
    demands = _for_wearer(sized.demands, chart)
    whole = run(OPERATIONS["true.seams"], whole, Context(chart or Chart(), sized.wear, limits=sized.limits)).garment
    mixed_size = replace(sized, made=with_garment(sized.made, whole, demands))
    jogs = {piece.name: jog for piece in whole.shell if (jog := _jog(nest, mix, piece)) > 0.005}
    cautions = [
        say(f"{whole.piece(name).title}: the side jogs by {{0}} within {{1u}}: a smoother line, or a fitting seam, wants at most {{2}}.", jog, OVER, JOG)
        for name, jog in jogs.items()
        if jog > JOG
    ]  # fmt: skip
    return Mixed(whole, mixed_size, jogs, _reached(mixed_size), tuple(cautions))


def _at_armhole(garment: Garment, fields: Mapping[str, Field]) -> float | None:
    """The size that holds at the underarm; None without an armhole."""
    for piece, edge in garment.edges_of("armhole"):
        before, after = piece.beside(edge.name)
        for spot, other in ((edge.start, before), (edge.end, after)):
            if other.role == "side":
                return fields[piece.name].at(spot, edge, 0.0 if other is before else edge.length)
    return None


def _set_in(piece: Piece, mix: Mix) -> bool:
    """Whether a piece is a sleeve that goes with the armhole: nothing is said of its own levels."""
    own = {line.level for line in piece.balance}
    return any(edge.role == "cap" for edge in piece.edges) and not own & set(mix.stops)


def _yoked(garment: Garment, fields: Mapping[str, Field], piece: Piece) -> float | None:
    """The size of a piece of the body that has no level of its own, as a yoke: what holds where it is sewn to those that have."""
    if fields[piece.name].tells or not any(edge.role in OF_BODY for edge in piece.edges):
        return None
    sizes = []
    for seam in garment.seams:
        for mine, others in ((seam.first, seam.second), (seam.second, seam.first)):
            if any(entry.piece == piece.name for entry in mine):
                for entry in others:
                    if entry.piece != piece.name and fields[entry.piece].tells:
                        edge = garment.edge(entry)
                        sizes.append(fields[entry.piece].at(edge.place(edge.length / 2).point, edge, edge.length / 2))
    return sum(sizes) / len(sizes) if sizes else None


def _whole_size(source: Source, piece: Piece, size: float) -> dict[Target, Point]:
    """How a piece moves into one size as a whole."""
    moves, _ = mixed_moves(replace(source, lengths=size), Field(piece, ((0.0, size),), None, size))
    return moves


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
        drawn = (
            sized.garment.round_of(girth.edge, limb=girth.limb)
            if girth.edge
            else sized.garment.girth(girth.name, limb=girth.limb)
        )
        found.append((girth.title, girth.body, drawn + girth.gap, drawn + girth.gap - girth.body))
    return tuple(found)


def _jog(nest: Nest, mix: Mix, piece: Piece) -> float:
    """The largest change, within ten centimetres, of the sideways distance of a side to that of the size at the hip."""
    sides = [edge for edge in piece.edges if edge.role == "side"]
    if not sides or not mix.stops:
        return 0.0
    anchor = mix.stops.get("hip", list(mix.stops.values())[-1])
    one = _side(piece)
    below, above = between(sorted(nest.sizes), anchor)
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
    for (low, a), (high, b) in pairwise(line):
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
