"""A seam moved: a strip of even width is cut from one piece and joined to the other, stretched by the ease of the seam."""

from __future__ import annotations

from fontTools.misc.transform import Transform

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, square_to
from widehem.core.pattern.checks.upper import FrontInside
from widehem.core.pattern.edge import Edge, PatternError
from widehem.core.pattern.garment import EdgeRef, Seam, SeamEdge
from widehem.core.pattern.meeting import PITCH
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import plain
from widehem.core.pattern.shaping import blended, trimmed, with_edges
from widehem.core.setting.option import Option
from widehem.core.style.asks import all_of, notches_left, places_left, without
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import say
from widehem.core.values import replace

MOST = 4.0
BY = Option("by", "Moved by", "length", 2.0, "from the one piece to the other, square to the seam", 0.3, MOST, 0.1)


@operation(
    "seam.forward", "seams", "Shoulder seam moved", "a strip is cut from one piece along the seam and joined to the other",
    options=(BY,), wheres={"from": "any place on the edge that gives the strip away"},
    halves=True,
)  # fmt: skip
def forward(job: Job) -> Change:
    """Cut a strip of even width from the piece and lay it against the other one, edge on edge."""
    found, by = job.at["from"], job.length("by")
    seam = _seam_at(job, found.piece.name, found.spot.edge)
    giver, edge = found.piece, found.piece.edge(found.spot.edge)
    (partner,) = (chain[0] for chain in (seam.first, seam.second) if chain[0].piece != giver.name)
    taker = job.garment.piece(partner.piece)
    other = taker.edge(partner.edge)
    for piece, side in ((giver, edge), (taker, other)):
        if side.gaps:
            raise CannotStyle(say(f"A dart lies in this edge of the {plain(piece.name)}: swing it away first."), ("from",))
    try:
        less, rims = _cut_back(giver, edge, by)
        more = _carried_on(taker, other, giver, edge, rims, turned=seam.first[0].back != seam.second[0].back)
    except PatternError:
        raise CannotStyle(
            say("What lies beside the seam is too short for a strip of {0u}: move it by less.", by), ("by",)
        ) from None
    pieces = {new.name: _pitched(old, new) for old, new in ((giver, less), (taker, more))}
    garment = replace(job.garment, pieces=tuple(pieces.get(p.name, p) for p in job.garment.pieces))
    long = {p: garment.length_of([SeamEdge(p, e)]) for p, e in ((giver.name, edge.name), (taker.name, other.name))}
    first_is_giver = seam.first[0].piece == giver.name
    ease = long[giver.name] - long[taker.name] if first_is_giver else long[taker.name] - long[giver.name]
    new = replace(seam, ease=seam.ease if abs(ease) < 0.05 else (ease, ease))
    seams = tuple(new if s is seam else s for s in job.garment.seams)
    rows = [
        EdgeRef(piece.name, side.name) for piece, mine in ((giver, edge), (taker, other)) for side in piece.beside(mine.name)
    ]
    asks = all_of(places_left("snp", "tip"), notches_left(*rows), without(FrontInside))
    said = say(f"The seam lies {{0}} further in the {plain(giver.of)}: its armhole is {{1}} shorter there, the {plain(taker.of)}'s {{1}} longer.", by, by)  # fmt: skip
    return Change(garment.pieces, seams, said=(said,), asks=asks)


def _seam_at(job: Job, piece: str, edge: str) -> Seam:
    for seam in job.garment.seams:
        single = not seam.twin and not seam.faced and len(seam.first) == len(seam.second) == 1
        if single and any(chain[0].piece == piece and chain[0].edge == edge for chain in (seam.first, seam.second)):
            return seam
    raise CannotStyle(say("No seam of two whole edges runs there."), ("from",))


def _cut_back(piece: Piece, edge: Edge, by: float) -> tuple[Piece, tuple[Path, Path]]:
    """The piece with its edge moved in by so much, square to it; and what was cut off its neighbours, each from the corner."""
    shift = -piece.outward(edge.end - edge.start) * by
    way = (edge.end - edge.start).unit()
    before, after = piece.beside(edge.name)
    new_before, one = _until(before, edge.start + shift, way, at_end=True)
    new_after, two = _until(after, edge.end + shift, way, at_end=False)
    path = fitted(edge.parts[0], new_before.end, new_after.start)
    ratio = path.length / edge.length
    made = replace(edge, parts=(path,), notches=tuple(replace(n, along=n.along * ratio) for n in edge.notches))
    return replace(with_edges(piece, new_before, made, new_after), marks=_off_seam(piece)), (one, two)


def _pitched(before: Piece, after: Piece) -> Piece:
    """The piece with the notches of its armhole where they part it as they did."""
    holes = []
    for edge in after.edges_of("armhole"):
        share = edge.length / before.edge(edge.name).length
        old = {n.name: n.along for n in before.edge(edge.name).notches}
        from_end = before.beside(edge.name)[0].role != "side"
        moved = tuple(
            replace(
                n,
                along=edge.length - (before.edge(edge.name).length - old[n.name]) * share if from_end else old[n.name] * share,
            )
            for n in edge.notches
            if n.name == PITCH
        )
        holes.append(replace(edge, notches=(*(n for n in edge.notches if n.name != PITCH), *moved)))
    return with_edges(after, *holes)


def _off_seam(piece: Piece) -> dict[str, Point]:
    """The marks of a piece but for those that lay at the ends of its shoulder."""
    return {name: spot for name, spot in piece.marks.items() if name not in ("snp", "tip")}


def _until(edge: Edge, at: Point, way: Point, *, at_end: bool) -> tuple[Edge, Path]:
    """An edge cut off where a line meets it that runs beside its end; and what was cut off, from there inwards."""
    part = edge.parts[-1].reverse() if at_end else edge.parts[0]
    crossed = part.crossings(at, way)
    if not crossed:
        raise PatternError("short")
    off, _ = part.split(*crossed[0])
    return (trimmed(edge, at_end=off.length) if at_end else trimmed(edge, at_start=off.length)), off


def fitted(path: Path, start: Point, end: Point) -> Path:
    """A path led from one place to another, its shape kept."""
    return blended(path, start - path.start, end - path.end)


def _carried_on(taker: Piece, edge: Edge, giver: Piece, given: Edge, rims: tuple[Path, Path], *, turned: bool) -> Piece:
    """The piece with the strip joined along its edge: at each end it follows what was cut off there, so that the strip is stretched
    by what the seam is eased."""
    out = taker.outward(edge.end - edge.start)
    inside = -giver.outward(given.end - given.start)
    before, after = taker.beside(edge.name)
    ends = []
    for at_end in (False, True):
        from_end = at_end != turned  # which end of the other edge it meets
        here, there = (edge.end if at_end else edge.start), (given.end if from_end else given.start)
        along = (edge.start - edge.end if at_end else edge.end - edge.start).unit()
        theirs = (given.start - given.end if from_end else given.end - given.start).unit()
        rim = rims[1 if from_end else 0]
        ends.append(rim.moved(_onto(there, theirs, inside, here, along, out)))
    new_before = replace(before, parts=(*before.parts[:-1], before.parts[-1] + _exact(ends[0], before.end)))
    new_after = replace(after, parts=(_exact(ends[1], after.start).reverse() + after.parts[0], *after.parts[1:]))
    shift = ends[1].length
    new_after = replace(new_after, notches=tuple(replace(n, along=n.along + shift) for n in after.notches))
    made = replace(edge, parts=(fitted(edge.parts[0], new_before.end, new_after.start),))
    return replace(with_edges(taker, new_before, made, new_after), marks=_off_seam(taker))


def _exact(path: Path, start: Point) -> Path:
    return blended(path, start - path.start, Point(0.0, 0.0))


def _onto(there: Point, theirs: Point, inside: Point, here: Point, along: Point, out: Point) -> Transform:
    """What lays one corner on another: the way along its seam on the other's, and its inside on the other's outside."""
    across, away = square_to(theirs, inside), square_to(along, out)
    xx, xy = along.x * theirs.x + away.x * across.x, along.y * theirs.x + away.y * across.x
    yx, yy = along.x * theirs.y + away.x * across.y, along.y * theirs.y + away.y * across.y
    return Transform(xx, xy, yx, yy, here.x - xx * there.x - yx * there.y, here.y - xy * there.x - yy * there.y)
