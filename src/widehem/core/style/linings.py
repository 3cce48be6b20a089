"""Linings, interfacings, interlinings: copies of pieces for the layers inside, changed as those want it."""

from __future__ import annotations

from fontTools.misc.transform import Transform
from shapely import Point as SpotOf

from widehem.core.geometry.curves import Segment
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.cutting import part_piece
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import Garment, Seam, SeamEdge
from widehem.core.pattern.inside import Cloth, InnerLine
from widehem.core.pattern.piece import Layer, Piece
from widehem.core.pattern.ring import Spot
from widehem.core.pattern.roles import ROLES, plain
from widehem.core.pattern.shaping import edge_blended, trimmed, with_edges
from widehem.core.setting.option import Choice, Option
from widehem.core.style.lengths import level_line
from widehem.core.style.notching import notched
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.remap import free_name
from widehem.core.style.where import Found
from widehem.core.units import say
from widehem.core.values import replace

PLEAT = Option("pleat", "Pleat at the centre back", "length", 2.0, "for reaching forward; 0 is none", 0.0, 6.0, 0.5)
SHORTER = Option("shorter", "Shorter at the hem", "length", 2.0, "than the outside", 0.0, 10.0, 0.5)
OPENING = Option(
    "opening",
    "Left open",
    "length",
    0.0,
    "in a side seam, to turn the garment through; 0 where it is not bagged out",
    0.0,
    30.0,
    1.0,
)
CLOTH = Option(
    "cloth", "Cloth", "choice", "lining", "what it is cut of",
    choices=(Choice("lining", "Lining"), Choice("second lining", "Second lining", "for the parts that show"),
        Choice("interlining", "Interlining", "warmth between cloth and lining"), Choice("underlining", "Underlining", "mounted with the cloth as one")),
)  # fmt: skip
PARTS = Option(
    "parts", "Which pieces", "choice", "body", "of the outside",
    choices=(Choice("body", "Body and skirt", "all that goes round the body, without bands and collars"), Choice("sleeves", "Sleeves too"),
        Choice("one", "This piece", "the one at the place")),
)  # fmt: skip
SMALL = ("neck_seam", "band", "collar")


@operation(
    "lining.cut", "inside pieces", "Line the garment", "body and skirt again, with a pleat at the centre back, shorter at the hem",
    options=(PARTS, CLOTH, PLEAT, SHORTER, OPENING), wheres={"piece": "any place on the piece, where only one is lined"}, phase="derive",
    spare=("piece",),
)  # fmt: skip
def line_all(job: Job) -> Change:
    """Copies of the outside for a layer within it, sewn to each other as the outside is."""
    garment = job.garment
    which = job.choice("parts")
    if which == "one" and "piece" not in job.at:
        raise CannotStyle(say("Name the piece that is lined: choose a place on it."), ("piece",))
    lined = [job.at["piece"].piece] if which == "one" else [p for p in garment.shell if _is_body(p, sleeves=which == "sleeves")]
    if not lined:
        raise CannotStyle(say("There is nothing round the body to line."))
    cloth = job.choice("cloth")
    suffix = cloth.replace(" ", "_")
    names = {p.name: free_name((q.name for q in garment.pieces), f"{p.name}_{suffix}") for p in lined}
    layer: Layer = "lining" if "lining" in cloth and cloth not in ("interlining", "underlining") else "interfacing"
    made = []
    for piece in lined:
        copy = piece.with_on_it(
            name=names[piece.name], title=f"{piece.title}, {cloth}", layer=layer, cloths=(Cloth(cloth, _how_many(piece)),), holes=(),
            lines=tuple(line for line in piece.lines if "pocket" not in line.name), serves=piece.name,
        )  # fmt: skip
        copy = _shorter(copy, job.length("shorter"))
        made.append(_pleated(copy, job.length("pleat")))
    seams = _again(garment, names, cloth)
    outside = (_cut_apart(piece, cloth) if piece.name in names else piece for piece in garment.pieces)
    whole = Garment((*outside, *made), (*garment.seams, *seams))
    if job.length("opening") > 0.5:
        whole = _left_open(whole, made, job.length("opening"))
    count, shorter = ("1 piece" if len(made) == 1 else f"{len(made)} pieces"), job.length("shorter")
    said = (
        say(f"{count} of {cloth}, {{0}} shorter at the hem.", shorter)
        if shorter
        else say(f"{count} of {cloth}, as long as the outside.")
    )
    return Change(whole.pieces, whole.seams, made=tuple(names.values()), said=(said,))


def _is_body(piece: Piece, *, sleeves: bool) -> bool:
    roles = {edge.role for edge in piece.edges}
    if roles & set(SMALL):
        return False
    return sleeves or not roles & {"cap"}


def _cut_apart(piece: Piece, cloth: str) -> Piece:
    """A piece from which this cloth is not cut any more, as it has a piece of its own."""
    cloths = tuple(row for row in piece.cloths if row.cloth != cloth)
    return piece if cloths == piece.cloths else piece.with_on_it(cloths=cloths)


def _how_many(piece: Piece) -> str:
    return {"pair": "2, a pair", "fold": "1 on the fold"}.get(piece.stands, "1")


def _shorter(piece: Piece, by: float) -> Piece:
    if by < 0.05:
        return piece
    made = piece
    for hem in piece.edges_of("hem", "wrist"):
        before, after = made.beside(hem.name)
        if hem.gaps or min(before.parts[-1].length, after.parts[0].length) < by + 1.0:
            continue
        one, two = trimmed(before, at_end=by), trimmed(after, at_start=by)
        made = with_edges(made, one, edge_blended(hem, one.end - hem.start, two.start - hem.end), two)
    return made


def _pleated(piece: Piece, by: float) -> Piece:
    """The lining wider at a straight centre back, by the pleat on each half; folded along its old middle."""
    if by < 0.05 or not piece.middle or piece.edge(piece.middle).role != "centre_back":
        return piece
    middle = piece.edge(piece.middle)
    if len(middle.parts) != 1:
        return piece
    out = piece.outward(middle.end - middle.start) * (by / 2)
    before, after = piece.beside(middle.name)
    path = Path.through(middle.end + out, middle.end)
    first = Path.through(middle.start, middle.start + out)
    moved = tuple(_by(segment, out) for segment in middle.parts[0].segments)
    ring: list[Edge] = []
    upper = middle.start.y < middle.end.y  # whether the middle begins at its upper end
    names = ("pleat_top", "pleat_low") if upper else ("pleat_low", "pleat_top")
    for edge in piece.edges:
        if edge.name == middle.name:
            ring.append(replace(edge, parts=(Path(moved),)))
        elif edge.name == before.name:
            ring += [edge, _lap(piece, names[0], first, edge)]
        elif edge.name == after.name:
            ring += [_lap(piece, names[1], path, edge), edge]
        else:
            ring.append(edge)
    line = InnerLine("pleat", "Fold of the pleat", middle.parts[0])
    return replace(piece, edges=tuple(ring), lines=(*piece.lines, line))


def _lap(piece: Piece, name: str, path: Path, beside: Edge) -> Edge:
    """The end of a pleat, folded in the same line as the edge beside it."""
    role = "neck_lap" if ROLES[beside.role].allowance == "neck" else "lap"
    return Edge(free_name((e.name for e in piece.edges), name), (path,), role=role, kind=beside.kind)


def _by(segment: Segment, by: Point) -> Segment:
    return segment.moved(Transform().translate(*by))


def _again(garment: Garment, names: dict[str, str], cloth: str) -> list[Seam]:
    """The seams between pieces that are all lined, once more between their linings."""
    found, taken = [], {seam.name for seam in garment.seams}
    for seam in garment.seams:
        entries = (*seam.first, *seam.second)
        if seam.faced or not all(entry.piece in names for entry in entries):
            continue
        name = free_name(taken, f"{seam.name}_{cloth.replace(' ', '_')}")
        taken.add(name)
        first, second = (tuple(replace(e, piece=names[e.piece]) for e in chain) for chain in (seam.first, seam.second))
        found.append(replace(seam, name=name, title=f"{seam.title}, {cloth}", first=first, second=second))
    return found


def _left_open(whole: Garment, made: list[Piece], by: float) -> Garment:
    for piece in made:
        for edge in piece.edges_of("side"):
            if edge.length > by + 6.0:
                at = edge.length / 2
                return notched(
                    whole,
                    SeamEdge(piece.name, edge.name),
                    [Notch("left open 1", at - by / 2), Notch("left open 2", at + by / 2)],
                )
    return whole


DEEP = Option(
    "deep", "How deep", "length", 15.0, "from the highest place of the piece down, or from its underarm", 3.0, 120.0, 0.5
)
FROM = Option(
    "from", "Measured from", "choice", "top", "where it begins",
    choices=(Choice("top", "The top"), Choice("underarm", "The underarm", "so that it faces neck and armhole in one")),
)  # fmt: skip
LAYER = Option(
    "layer", "What it is", "choice", "interfacing", "what it is cut of",
    choices=(Choice("interfacing", "Interfacing", "it stiffens"), Choice("facing", "Facing", "armhole and neck in one, of the cloth"),
        Choice("lining", "Lining", "half lined")),
)  # fmt: skip


def _as_far_as(inner: InnerLine, cut: Path, part: Piece) -> InnerLine:
    """A line drawn on a piece, as far as a part of it reaches."""
    path = inner.path
    for index, segment in enumerate(cut.segments):
        for t in segment.crossings(path.start, path.end - path.start):
            spot = cut.segments[index].at(t)
            crossed = path.crossings(spot, segment.direction(t))
            if crossed:
                one, two = path.split(*crossed[0])
                return replace(inner, path=one if part.surface.buffer(0.1).contains(SpotOf(*one.start)) else two)
    return inner


def _crossed(piece: Piece, y: float) -> list[Found]:
    """Where a height crosses the edges of a piece, away from their ends."""
    found = []
    for edge in piece.edges:
        along = edge.at_level(y)
        if along is not None and 0.5 < along < edge.length - 0.5:
            found.append(Found(piece, Spot(edge.name, along), edge.place(along).point))
    return found


@operation(
    "inside.upper", "inside pieces", "Upper part inside", "the upper part of a piece again: interfacing, or neck and armhole faced in one",
    options=(LAYER, DEEP, FROM), wheres={"piece": "any place on the piece"}, names={"piece": "the new piece"}, phase="derive",
)  # fmt: skip
def upper_part(job: Job) -> Change:
    """A copy of a piece down to a level line from its middle to its side."""
    found = job.at["piece"]
    piece, kind = found.piece, job.choice("layer")
    _, top, _, _ = piece.bounds
    under = [edge.end.y for edge, after in piece.corners() if {edge.role, after.role} == {"armhole", "side"}]
    y = (under[0] if job.choice("from") == "underarm" and under else top) + job.length("deep")
    spots = next((row for by in (0.0, 1.0, -1.0) if len(row := _crossed(piece, y + by)) > 1), None)
    if spots is None:
        raise CannotStyle(say(f"The {plain(piece.name)} is not crossed {{0}} down: take less.", job.length("deep")), ("deep",))
    start, end = spots[0], spots[-1]
    line = level_line(piece, start, end)
    upper = min((e for e in piece.edges), key=lambda e: min(e.start.y, e.end.y))
    low = Edge("lower_edge", (line,), role="facing")
    parted = part_piece(replace(piece, diamonds=()), start.spot, end.spot, (line, line), low, "upper", upper.name)
    part = parted.new if parted.new.has(upper.name) and parted.new.bounds[1] <= top + 0.1 else parted.kept
    name = job.free_piece(f"{piece.name}_{kind}")
    layer: Layer = "facing" if kind == "facing" else "lining" if kind == "lining" else "interfacing"
    cloths = (
        () if kind == "facing" else (Cloth(kind, _how_many(replace(part, stands=piece.stands if part.middle else "pair"))),)
    )
    lines = tuple(_as_far_as(inner, line, part) for inner in part.lines)
    made = replace(
        part, name=name, title=f"{piece.title}, {kind}", layer=layer, cloths=cloths, holes=(), lines=lines, serves=piece.name
    )
    seams = list(job.garment.seams)
    if kind == "facing":
        for role in ("neck", "armhole"):
            for edge in made.edges_of(role):
                if piece.has(edge.name) and abs(piece.edge(edge.name).length - edge.length) < 0.01:
                    free = free_name((s.name for s in seams), f"{name}_{edge.name}")
                    seams.append(
                        Seam(
                            free,
                            f"{made.title}, {plain(role)}",
                            (SeamEdge(piece.name, edge.name),),
                            (SeamEdge(name, edge.name),),
                            faced=True,
                        )
                    )
    return Change((*job.garment.pieces, made), tuple(seams), made=(name,))
