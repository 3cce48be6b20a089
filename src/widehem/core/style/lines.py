"""Lines through a piece: cut in two from one place to another, straight or through the point of a dart; and laid together
again."""

from __future__ import annotations

from widehem.core.geometry.paths import Path
from widehem.core.pattern.cutting import lay_together, part_piece
from widehem.core.pattern.edge import Dart, Edge
from widehem.core.pattern.garment import Seam, SeamEdge
from widehem.core.pattern.walk import walk
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.remap import free_name
from widehem.core.style.where import Found
from widehem.core.units import say
from widehem.core.values import replace

ROOM = 1.0  # cm of an edge that a cut must leave on either side


@operation(
    "line.cut", "lines", "Cut along a line", "a seam from one edge to another; from the mouth of a dart it takes the dart up",
    wheres={"start": "where the line begins", "end": "where it ends"},
    names={"line": "the new seam", "piece": "the new piece", "holds": "the edge that the new piece has"},
)  # fmt: skip
def cut_line(job: Job) -> Change:
    """Cut a piece from one place to another. A dart at the beginning is sewn into the seam: each face follows its own leg to
    the point."""
    start, end = job.at["start"], job.at["end"]
    piece = start.piece
    if end.piece.name != piece.name:
        raise CannotStyle(say("Both ends of a cut lie on one piece; these lie on two."), ("end",))
    for code, found in job.at.items():
        _room(code, found)
    faces = _faces(start, end)
    line = free_name((edge.name for edge in piece.edges), job.names.get("line", "cut"))
    new = free_name((p.name for p in job.garment.pieces), job.names.get("piece", f"{piece.name}_2"))
    edge = Edge(line, (faces[0],), role="cut")
    parted = part_piece(piece, start.spot, end.spot, faces, edge, new, job.names.get("holds", end.spot.edge))
    pieces = []
    for old in job.garment.pieces:
        pieces += [parted.kept, parted.new] if old.name == piece.name else [old]
    turned = parted.kept.edge(line).start.to(faces[0].start) < parted.kept.edge(line).end.to(faces[0].start)
    chains = (SeamEdge(parted.kept.name, line, not turned),), (SeamEdge(parted.new.name, line, turned),)
    title = line.replace("_", " ").capitalize()
    seam = Seam(free_name((s.name for s in job.garment.seams), line), title, *chains)
    return Change(tuple(pieces), (*job.garment.seams, seam), renamed=parted.renamed, made=(new,))


def _room(code: str, found: Found) -> None:
    """Refuse a cut that leaves a sliver of an edge. At an end of an edge it leaves none."""
    if found.spot.dart:
        return
    length = found.piece.edge(found.spot.edge).length
    near = min(found.spot.along, length - found.spot.along)
    if 1e-6 < near < ROOM:
        raise CannotStyle(
            say("The cut would leave {0} of the edge, under {1u}: cut at its end, or further in.", near, ROOM), (code,)
        )


def _faces(start: Found, end: Found) -> tuple[Path, Path]:
    """The line from start to end as it is sewn on either side."""
    dart = next((gap for gap in start.piece.edge(start.spot.edge).gaps if gap.name == start.spot.dart), None)
    if not isinstance(dart, Dart):
        line = Path.through(start.point, end.point)
        return line, line
    # the arc from start to end begins at the outer leg, the other arc ends at the inner one
    return Path.through(dart.outer, dart.point, end.point), Path.through(dart.inner, dart.point, end.point)


@operation(
    "line.join", "lines", "Lay two pieces together", "a seam is taken away again, where both of its edges are alike",
    wheres={"seam": "any place on the seam"}, names={},
)  # fmt: skip
def join_pieces(job: Job) -> Change:
    """Two pieces made one along the seam that runs at a place."""
    found = job.at["seam"]
    ref = SeamEdge(found.piece.name, found.spot.edge).ref
    seam = next(
        (s for s in job.garment.seams if len(s.first) == len(s.second) == 1 and ref in (s.first[0].ref, s.second[0].ref)), None
    )
    if seam is None or seam.twin or seam.faced or seam.first[0].piece == seam.second[0].piece:
        raise CannotStyle(say("No seam of two whole edges of two pieces runs there."), ("seam",))
    if seam.first[0].piece != found.piece.name:  # the piece that was pointed at keeps its name
        seam = replace(seam, first=seam.second, second=seam.first, ease=(-seam.ease[1], -seam.ease[0]))
    one, two = (job.garment.piece(chain[0].piece) for chain in (seam.first, seam.second))
    if abs(job.garment.length_of(seam.first) - job.garment.length_of(seam.second)) > 0.02:
        raise CannotStyle(say("Both edges must be as long as each other; they are {0u} apart.",
            abs(job.garment.length_of(seam.first) - job.garment.length_of(seam.second))), ("seam",))  # fmt: skip
    onto = walk(job.garment, seam, 0.0).onto
    whole, renamed = lay_together(one, two, seam.first[0].edge, seam.second[0].edge, onto, one.name)
    pieces = tuple(whole if p.name == one.name else p for p in job.garment.pieces if p.name != two.name)
    rest = tuple(s for s in job.garment.seams if s.name != seam.name)
    gone = (seam.first[0].ref, seam.second[0].ref)
    return Change(pieces, rest, renamed=renamed, dropped=gone)
