"""A waist seam, or a band between, in pieces that run on over the waist: their long darts come apart into those above and
those below."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise

from widehem.core.geometry.curves import Line, Segment, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.pattern.cutting import Parted, part_piece
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Chain, EdgeRef, Seam, SeamEdge
from widehem.core.pattern.inside import BalanceLine, Diamond
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import Spot, dart_between
from widehem.core.setting.option import Option
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import say
from widehem.core.values import replace

LEVEL, LINE, STRIP = "waist", "waist", "strip"
BEFORE = 0.05  # cm before its point that a half of a long dart is sewn to
BAND_NAME = "waist_band"
OVER = 6.0  # cm that a piece goes on over the waist, above and below
CORNER = 0.4  # cm: so near the end of the centre it is cut there
Ends = tuple[tuple[Edge, float], tuple[Edge, float]]  # at the centre, at the side: how far along, cm
BAND = Option("high", "Band, how high", "length", 0.0, "between both parts; 0 is a seam alone", 0.0, 12.0, 0.5)


@operation(
    "waist.seam", "waist", "Waist seam or band", "what runs on over the waist is cut there; long darts come apart into two",
    options=(BAND,),
    halves=True,
)  # fmt: skip
def cut_at_waist(job: Job) -> Change:
    """Every piece of the shell that crosses the waist cut in two along it, with a band between where one is asked for."""
    high = job.length("high")
    pieces: list[Piece] = []
    seams: list[Seam] = list(job.garment.seams)
    renamed: dict[EdgeRef, Chain] = {}
    dropped: list[EdgeRef] = []
    made: list[str] = []
    bands: list[Piece] = []
    for piece in job.garment.pieces:
        if not _runs_over(piece):
            pieces.append(piece)
            continue
        upper, lower, parted = _in_two(piece, high)
        pieces += [upper, lower]
        made.append(lower.name)
        names = {(part.name, edge.name) for part in (upper, lower) for edge in part.edges}
        middle = EdgeRef(piece.name, piece.middle)
        chains = {middle: (SeamEdge(upper.name, piece.middle),), **parted.renamed} if high else parted.renamed
        for ref, chain in chains.items():
            left = tuple(entry for entry in chain if (entry.piece, entry.edge) in names)
            if high and ref == middle:  # the band takes the place of what was cut out at the centre
                left = (*left[:1], SeamEdge(f"{BAND_NAME}_{piece.name}", "band_centre", back=True), *left[1:])
            if left:
                renamed[ref] = left
            else:
                dropped.append(ref)
        below = SeamEdge(lower.name, LINE, back=True)
        if high:
            band = _band(piece, upper.edge(LINE).length, lower.edge(LINE).length, high)
            bands.append(band)
            made.append(band.name)
            title = f"Band, {piece.name}"
            seams += [
                Seam(f"{band.name}_top", f"{title}, above", (SeamEdge(upper.name, LINE),), (SeamEdge(band.name, "band_top"),)),
                Seam(f"{band.name}_low", f"{title}, below", (SeamEdge(band.name, "band_low", back=True),), (below,)),
            ]
        else:
            seams.append(Seam(f"waist_{piece.name}", f"Waist seam, {piece.name}", (SeamEdge(upper.name, LINE),), (below,)))
    if not made:
        raise CannotStyle(say("No piece of this garment runs on over the waist."))
    if len(bands) == 2:
        sides = (SeamEdge(bands[0].name, "band_side"),), (SeamEdge(bands[1].name, "band_side"),)
        seams.append(Seam("waist_band_side", "Band, at the side", *sides))
    return Change((*pieces, *bands), tuple(seams), renamed=renamed, dropped=tuple(dropped), made=tuple(made))


def _runs_over(piece: Piece) -> bool:
    """Whether a piece of the shell goes on above and below its waist."""
    if piece.layer != "shell" or LEVEL not in piece.levels or not piece.edges_of("side") or not piece.middle:
        return False
    _, top, _, bottom = piece.bounds
    return top < piece.levels[LEVEL] - OVER and bottom > piece.levels[LEVEL] + OVER


def _in_two(piece: Piece, high: float) -> tuple[Piece, Piece, Parted]:
    """A piece above and below its waist, with what its long darts become; a strip so high taken out between, cm."""
    level = piece.levels[LEVEL]
    plain, diamonds = replace(piece, diamonds=()), sorted(piece.diamonds, key=lambda d: abs(d.inner.x - _centre_x(piece)))
    parted = _parted(plain, level, LINE, diamonds, 0.0)
    upper, lower = parted.kept, parted.new
    if high:
        edges = tuple(replace(edge, name=STRIP, role="cut") if edge.name == LINE else edge for edge in upper.edges)
        upper = replace(upper, edges=edges)
    if high:
        upper = _parted(upper, level - high, LINE, diamonds, high).kept
    upper = _with_darts(upper, diamonds, high, above=True)
    lower = _with_darts(lower, diamonds, 0.0, above=False)
    lines = tuple(pair for part in upper.edge(LINE).parts for pair in pairwise(_along(part)))
    rest = tuple(line for line in upper.balance if line.level != LEVEL)
    below = tuple(line for line in lower.balance if line.level != LEVEL)
    return replace(upper, balance=(*rest, BalanceLine(LEVEL, lines, notched=False))), replace(lower, balance=below), parted


def _along(path: Path) -> list[Point]:
    """A line in short straights."""
    count = max(int(path.length), 2)
    return [path.place(path.length * n / count).point for n in range(count + 1)]


def _centre_x(piece: Piece) -> float:
    return piece.edge(piece.middle).end.x


def _parted(piece: Piece, y: float, name: str, diamonds: Sequence[Diamond], off: float) -> Parted:
    """A piece cut from its centre to its side, square to both, over the widest of its long darts; or so far (cm) above the
    strip it ends in, along centre and side."""
    ends = _beyond(piece, off) if off else _across(piece, y)
    (middle, reach), (side, along) = ends
    upper, lower = (_face(ends, diamonds, off, above=above or off > 0) for above in (True, False))
    below = _runs_below(piece, middle, side)
    holds = "inseam" if piece.edges_of("inseam") else "hem" if piece.edges_of("hem") else STRIP
    return part_piece(
        piece, Spot(middle.name, reach), Spot(side.name, along), (lower, upper) if below else (upper, lower),
        Edge(name, (upper,), role=LINE), f"{piece.name}_leg", holds, f"{piece.title}, leg",
    )  # fmt: skip


def _across(piece: Piece, y: float) -> Ends:
    """Where a line at a level of the side meets the centre, squarely beside it, and the side."""
    side = next((edge for edge in piece.edges_of("side") if edge.at_level(y) is not None), None)
    if side is None:
        raise CannotStyle(say(f"The side of the {piece.name} does not reach the waist."))
    along = side.at_level(y) or 0.0
    return _foot(piece, side.place(along).point), (side, along)


def _beyond(piece: Piece, off: float) -> Ends:
    """The places so far (cm) beyond the strip a piece ends in, along its centre and along its side."""
    names = [edge.name for edge in piece.edges]
    before, after = _walked(piece, names.index(STRIP), -1, off), _walked(piece, names.index(STRIP), 1, off)
    return (before, after) if after[0].role == "side" else (after, before)


def _walked(piece: Piece, at: int, way: int, off: float) -> tuple[Edge, float]:
    """The edge, and the place on it, that lies so far (cm) along the outline from an end of an edge."""
    while True:
        at = (at + way) % len(piece.edges)
        edge = piece.edges[at]
        if edge.length > off + CORNER:
            return edge, off if way > 0 else edge.length - off
        if edge.length > off - CORNER:
            return edge, edge.length if way > 0 else 0.0
        off -= edge.length


def _runs_below(piece: Piece, middle: Edge, side: Edge) -> bool:
    """Whether the outline runs from the centre to the side below the waist."""
    names = [edge.name for edge in piece.edges]
    at, to = names.index(middle.name), names.index(side.name)
    between = [names[(at + n) % len(names)] for n in range(1, (to - at) % len(names))]
    return any(piece.edge(name).role in ("inseam", "hem", "cut") for name in between)


def _foot(piece: Piece, spot: Point) -> tuple[Edge, float]:
    """The place at the centre that lies squarely beside a spot: its edge, and how far along it is, cm."""
    edges = [
        edge for edge in piece.edges if edge.name == piece.middle or edge.role in ("centre_front", "centre_back", "crotch")
    ]
    places = [(edge, edge.length * n / 400) for edge in edges for n in range(1, 400)]
    edge, along = min(places, key=lambda at: abs(_beside(at[0], at[1], spot)) + at[0].place(at[1]).point.to(spot) * 1e-4)
    ends = [end for end in (0.0, edge.length) if abs(along - end) < CORNER]
    return edge, ends[0] if ends else along


def _beside(edge: Edge, along: float, spot: Point) -> float:
    at = edge.place(along)
    return (spot - at.point).unit().dot(at.direction)


def _spots(diamond: Diamond, off: float, *, above: bool) -> tuple[Point, Point]:
    """Where a line crosses both legs of a long dart, as far from its point on both: at its widest, or so far nearer to it, cm."""
    apex = diamond.top if above else diamond.bottom
    legs = diamond.inner.to(apex), diamond.outer.to(apex)
    reach = sum(legs) / 2 * max(1 - abs(off) / diamond.inner.toward(diamond.outer, 0.5).to(apex), 0.05)
    return apex.toward(diamond.inner, reach / legs[0]), apex.toward(diamond.outer, reach / legs[1])


def _face(ends: Ends, diamonds: Sequence[Diamond], off: float, *, above: bool) -> Path:
    """The line as it is sewn above or below: square to the centre, to both legs of every dart and to the side."""
    (middle, reach), (side, along) = ends
    start, end = middle.place(reach), side.place(along)
    way = end.point - start.point
    stops: list[tuple[Point, Point]] = [(start.point, _toward(start.direction.square(), way))]
    for diamond in diamonds:
        apex = diamond.top if above else diamond.bottom
        stops += [(spot, _toward((spot - apex).square(), way)) for spot in _spots(diamond, off, above=above)]
    stops.append((end.point, _toward(end.direction.square(), way)))
    segments: list[Segment] = []
    for number, ((one, leaving), (two, arriving)) in enumerate(pairwise(stops)):
        segments.append(Line(one, two) if number % 2 else curve_between(one, leaving, two, arriving))
    return Path(tuple(segments))


def _toward(way: Point, goal: Point) -> Point:
    return way if way.dot(goal) > 0 else -way


def _with_darts(part: Piece, diamonds: Sequence[Diamond], off: float, *, above: bool) -> Piece:
    """A part with its halves of the long darts, open at the new edge."""
    if not diamonds:
        return part
    edge = part.edge(LINE)
    whole = edge.parts[0]
    gaps = {
        frozenset((_key(one), _key(two))): diamond for diamond in diamonds for one, two in (_spots(diamond, off, above=above),)
    }
    parts: list[list[Segment]] = [[]]
    found: list[Diamond] = []
    for segment in whole.segments:
        diamond = gaps.get(frozenset((_key(segment.start), _key(segment.end))))
        if diamond is None:
            parts[-1].append(segment)
        else:
            found.append(diamond)
            parts.append([])
    paths = [Path(tuple(segments)) for segments in parts]
    darts = tuple(
        dart_between(diamond.name, one, two, diamond.top if above else diamond.bottom, BEFORE)
        for diamond, (one, two) in zip(found, pairwise(paths), strict=True)
    )
    return part.with_edge(Edge(edge.name, tuple(paths), darts, edge.kind, role=edge.role))


def _key(spot: Point) -> tuple[float, float]:
    return round(spot.x, 4), round(spot.y, 4)


def _band(piece: Piece, top: float, low: float, high: float) -> Piece:
    """The band of one half: as long above and below as what it is sewn to, square at both ends."""
    angle = (low - top) / high
    bend = turn(Point(0.0, 0.0), -angle)
    across, down = Point(1.0, 0.0).moved(bend), Point(0.0, high).moved(bend)
    end = Point(top, 0.0) if abs(angle) < 1e-6 else Point(math.sin(angle), 1 - math.cos(angle)) * (top / angle)
    end = Point(end.x, -end.y)
    upper = Path((curve_between(Point(0.0, 0.0), Point(1.0, 0.0), end, across),))
    lower = Path((curve_between(end + down, -across, Point(0.0, high), Point(-1.0, 0.0)),))
    edges = (
        Edge("band_top", (upper,), role="band"),
        Edge("band_side", (Path.through(end, end + down),), role="band"),
        Edge("band_low", (lower,), role="band"),
        Edge("band_centre", (Path.through(Point(0.0, high), Point(0.0, 0.0)),), role="band"),
    )
    name = f"{BAND_NAME}_{piece.name}"
    begins, ends = (
        upper.place(upper.length * part).point.toward(lower.place(lower.length * (1 - part)).point, 0.5)
        for part in (0.35, 0.65)
    )
    return Piece(name, f"Waist band, {piece.name}", edges, of=name, grain=(begins, ends))
