"""Facings and linings: pieces made of others, after every change of shape."""

from __future__ import annotations

from shapely import LineString, Polygon

from widehem.core.geometry.band import band
from widehem.core.geometry.curves import Line
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, meet
from widehem.core.pattern.cutting import part_piece
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Seam, SeamEdge
from widehem.core.pattern.inside import Cloth
from widehem.core.pattern.piece import Layer, Piece
from widehem.core.pattern.ring import Spot, runs_of, shut
from widehem.core.pattern.shaping import blended
from widehem.core.setting.option import Choice, Option
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.remap import free_name
from widehem.core.units import say
from widehem.core.values import replace

RUNS_ON = 0.5  # the sine of the angle under which a side counts as running on
OPTIONS = (Option("wide", "Width", "length", 5.0, "of the facing", 1.5, 20.0, 0.5),)


@operation(
    "facing.edge", "facings", "Facing of an edge", "a strip that follows an edge, its darts shut", options=OPTIONS,
    wheres={"edge": "the edge that is faced"}, names={"facing": "the facing"}, phase="derive",
)  # fmt: skip
def face_edge(job: Job) -> Change:
    """A facing as wide as asked along one edge, on the shut darts; it is sewn to the edge, face on face."""
    piece, wide = job.at["edge"].piece, job.length("wide")
    edge = piece.edge(job.at["edge"].spot.edge)
    before, after = piece.beside(edge.name)
    room = min(before.parts[-1].length, after.parts[0].length)
    if room < wide + 0.2 or edge.length < 0.5:
        raise CannotStyle(
            say("Only {0} is there beside the edge: a facing {1u} wide would fit.", room, max(room - 0.5, 0.0)), ("edge",)
        )
    strip = _strip(piece, edge, wide)
    if strip is None:
        fits = next((less for less in (wide * 0.75, wide * 0.5, wide * 0.25) if _strip(piece, edge, less) is not None), 0.0)
        words = "The edge turns too tightly for a facing {0} wide: one of {1u} would fit, or take a bias strip."
        raise CannotStyle(say(words, wide, fits), ("edge",))
    outer, end, inner, start, inside = strip
    name = free_name((p.name for p in job.garment.pieces), job.names.get("facing", f"{piece.name}_facing"))
    ring = (
        Edge(edge.name, (outer,), role=edge.role, pointed=edge.pointed, corners=edge.corners, notches=edge.notches),
        Edge(f"{after.name}_short" if after.name == before.name else after.name, (end,), kind=after.kind, role=after.role),
        Edge("facing_inner", (inner.reverse(),), role="facing"),
        Edge(before.name, (start,), kind=before.kind, role=before.role),
    )
    middle = next((e.name for e in ring if e.name == piece.middle), "")
    made = Piece(
        name, f"{piece.title}, facing", ring, piece.of, layer="facing",
            stands=piece.stands if middle or piece.stands != "fold" else "pair",
        middle=middle, grain=None if middle else _grain(piece, outer, inside, wide), serves=piece.name,
    )  # fmt: skip
    sewn = SeamEdge(piece.name, edge.name), SeamEdge(name, edge.name)
    seam = Seam(free_name((s.name for s in job.garment.seams), f"{name}_seam"), made.title, (sewn[0],), (sewn[1],), faced=True)
    return Change((*job.garment.pieces, made), (*job.garment.seams, seam), made=(name,))


def _strip(piece: Piece, edge: Edge, wide: float) -> tuple[Path, Path, Path, Path, Point] | None:
    """The sides of a facing: along the shut edge, down its end, back inside, up its start; and which way lies inside. None
    where the strip would cross itself."""
    before, after = piece.beside(edge.name)
    runs, ways = shut(runs_of(edge))
    outer = Path(tuple(segment for run in runs for segment in run.path.segments))
    inside = -piece.outward(edge.leaving)
    first, last = before.parts[-1], after.parts[0].moved(ways[len(runs) - 1])
    inner, down = _as_far_as(band(outer, wide, inside), outer.end, last.leaving, wide)
    inner, up = _as_far_as(inner.reverse(), outer.start, -first.arriving, wide)
    if not (0 < down < last.length and 0 < up < first.length):
        return None
    start, end = first.cut(first.length - up)[1], last.cut(down)[0]
    inner = _to_ends(inner.reverse(), start.start, end.end)
    ring = [point for path in (outer, end, inner.reverse(), start) for point in path.flat(0.05)[:-1]]
    return (outer, end, inner, start, inside) if Polygon(ring).is_valid else None


def _as_far_as(path: Path, corner: Point, way: Point, wide: float) -> tuple[Path, float]:
    """A path that ends on the line of a side, cut there or carried straight on; and how far from the corner that is, cm. Where
    the side runs on in the direction of the path, it ends after the width of the facing."""
    if abs(path.arriving.cross(way)) < RUNS_ON:
        return path, wide
    crossed = path.crossings(corner, way)
    if crossed:
        path = path.split(*crossed[-1])[0]
    else:
        spot = meet(path.end, path.arriving, corner, way)
        if spot is not None and (spot - path.end).dot(path.arriving) > 0:
            path = path + Path.through(path.end, spot)
    return path, (path.end - corner).dot(way)


def _to_ends(path: Path, start: Point, end: Point) -> Path:
    """A path with its ends moved to where the facing ends at its sides."""
    segments = list(path.segments)
    first = segments[0]
    segments[0] = (
        Line(start, first.end)
        if isinstance(first, Line)
        else replace(first, start=start, out=first.out + (start - first.start))
    )
    last = segments[-1]
    segments[-1] = (
        Line(last.start, end) if isinstance(last, Line) else replace(last, end=end, into=last.into + (end - last.end))
    )
    return Path(tuple(segments))


def _grain(piece: Piece, outer: Path, inside: Point, wide: float) -> tuple[Point, Point]:
    """As on the piece it faces, through the middle of the strip."""
    if piece.grain is not None:
        way = (piece.grain[1] - piece.grain[0]).unit()
    else:
        middle = piece.edge(piece.middle) if piece.middle else None
        way = (middle.end - middle.start).unit() if middle is not None else Point(0.0, 1.0)
    at = outer.place(outer.length / 2).point + inside * (wide / 2)
    reach = way * (wide * 0.35)
    ends = at - reach, at + reach
    return ends if ends[0].y <= ends[1].y else (ends[1], ends[0])


LAYER = Option(
    "layer", "Layer", "choice", "lining", "what it is cut of",
    choices=(Choice("lining", "Lining", "it hangs inside"), Choice("interfacing", "Interfacing", "it stiffens")),
)  # fmt: skip


@operation(
    "lining.copy", "facings", "Lining of a piece", "the piece again, in another cloth", options=(LAYER,),
    wheres={"piece": "any place on the piece that is lined"}, names={"lining": "the lining"}, phase="derive",
)  # fmt: skip
def line_piece(job: Job) -> Change:
    """A copy of a piece for the layer within it; sewn as its outer piece is where both pieces of a seam are lined."""
    piece = job.at["piece"].piece
    layer: Layer = "lining" if job.choice("layer") == "lining" else "interfacing"
    name = free_name((p.name for p in job.garment.pieces), job.names.get("lining", f"{piece.name}_{layer}"))
    made = replace(piece, name=name, title=f"{piece.title}, {layer}", layer=layer, cloths=(), serves=piece.name)
    known = {p.name for p in job.garment.pieces} | {name}
    seams = list(job.garment.seams)
    for seam in job.garment.seams:
        refs = [entry.ref for entry in (*seam.first, *seam.second)]
        if seam.faced or not any(ref.piece == piece.name for ref in refs):
            continue
        if all(f"{ref.piece}_{layer}" in known for ref in refs):
            chains = [tuple(replace(e, piece=f"{e.piece}_{layer}") for e in chain) for chain in (seam.first, seam.second)]
            wanted = free_name((s.name for s in seams), f"{seam.name}_{layer}")
            seams.append(replace(seam, name=wanted, title=f"{seam.title}, {layer}", first=chains[0], second=chains[1]))
    return Change((*job.garment.pieces, made), tuple(seams), made=(name,))


@operation(
    "facing.split", "inside pieces", "Facing and lining of a piece", "the piece again, parted along a line beside an edge: the outer part of "
        "the cloth, the rest of lining; both together are the piece",
    options=OPTIONS, wheres={"edge": "the edge that is faced"}, names={"facing": "the facing", "lining": "the lining"}, phase="derive",
)  # fmt: skip
def facing_and_lining(job: Job) -> Change:
    """A copy of a piece cut in two along the inner edge of its facing, sewn to each other there."""
    piece, wide = job.at["edge"].piece, job.length("wide")
    edge = piece.edge(job.at["edge"].spot.edge)
    found = None if edge.gaps else _parallel(piece, edge, wide)
    if found is None:
        raise CannotStyle(
            say("A facing {0} wide does not fit beside this edge: make it narrower, or swing a dart away first.", wide),
            ("edge",),
        )
    start, end, line = found
    cut = Edge("facing_inner", (line,), role="facing")
    lining = job.free_piece(f"{piece.name}_lining", "lining")
    facing = job.free_piece(f"{piece.name}_facing", "facing")
    base = replace(piece, diamonds=(), holes=())
    parted = part_piece(base, start, end, (line, line), cut, "other", edge.name)
    strip_piece, rest = (parted.new, parted.kept) if parted.new.has(edge.name) else (parted.kept, parted.new)
    made = (
        replace(strip_piece, name=facing, title=f"{piece.title}, facing", layer="facing", cloths=(), serves=piece.name),
        replace(
            rest,
            name=lining,
            title=f"{piece.title}, lining",
            layer="lining",
            cloths=(Cloth("lining", _many(piece)),),
            serves=piece.name,
        ),
    )
    known = [made[0].edge("facing_inner"), made[1].edge("facing_inner")]
    back = known[0].start.to(known[1].start) > known[0].start.to(known[1].end)
    seams = [
        *job.garment.seams,
        Seam(
            job.free_seam(f"{facing}_seam"),
            made[0].title,
            (SeamEdge(piece.name, edge.name),),
            (SeamEdge(facing, edge.name),),
            faced=True,
        ),
        Seam(
            job.free_seam(f"{lining}_seam"),
            "Facing to lining",
            (SeamEdge(facing, "facing_inner"),),
            (SeamEdge(lining, "facing_inner", back),),
        ),
    ]
    return Change((*job.garment.pieces, *made), tuple(seams), made=(facing, lining))


FAR, FINE = 80.0, 0.005  # cm that a line is carried on to meet the outline; how fine both are looked at


def _parallel(piece: Piece, edge: Edge, wide: float) -> tuple[Spot, Spot, Path] | None:
    """A line so far inside an edge, from where it meets the outline to where it meets it again; None where it does not."""
    beside = band(edge.parts[0], wide, -piece.outward(edge.leaving))
    whole = (
        Path.through(beside.start - beside.leaving * FAR, beside.start)
        + beside
        + Path.through(beside.end, beside.end + beside.arriving * FAR)
    )
    line = LineString(whole.flat(FINE))
    middle = FAR + beside.length / 2
    ends: list[tuple[float, str, float]] = []
    for other in piece.edges:
        if other.name == edge.name:
            continue
        gone = 0.0
        for part in other.parts:
            rim = LineString(part.flat(FINE))
            met = line.intersection(rim)
            for spot in getattr(met, "geoms", [met]):
                if spot.geom_type == "Point":
                    ends.append((line.project(spot), other.name, gone + rim.project(spot)))
            gone += part.length
    before, after = [e for e in ends if e[0] < middle], [e for e in ends if e[0] > middle]
    if not before or not after:
        return None
    one, two = max(before), min(after)
    if two[0] - one[0] < 2.0:
        return None
    kept = whole.cut(one[0])[1].cut(two[0] - one[0])[0]
    at = [piece.edge(name).place(along).point for _, name, along in (one, two)]
    return Spot(one[1], one[2]), Spot(two[1], two[2]), blended(kept, at[0] - kept.start, at[1] - kept.end)


def _many(piece: Piece) -> str:
    return {"pair": "2, a pair", "fold": "1 on the fold"}.get(piece.stands, "1")
