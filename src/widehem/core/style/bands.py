"""Waistbands, casings and belt loops: cut by the figures of what they are sewn to."""

from __future__ import annotations

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Chain, Garment, Seam
from widehem.core.pattern.inside import InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.rims import ends_of
from widehem.core.pattern.roles import plain
from widehem.core.pattern.shaping import strip
from widehem.core.setting.option import Choice, Option
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.sectors import sector
from widehem.core.style.sewing_on import chain_of, joint_notches_on, rim_at
from widehem.core.units import Saying, say
from widehem.core.values import replace

HIGH = Option("high", "Height", "length", 3.5, "of the finished band", 1.0, 12.0, 0.5)
LAP = Option("lap", "Underlap", "length", 3.0, "beyond the middle, where it closes; 0 where it has a seam", 0.0, 10.0, 0.5)
CUT = Option(
    "cut", "Cut", "choice", "straight", "how the band is made",
    choices=(Choice("straight", "Straight", "one strip, folded along its upper edge"),
        Choice("shaped", "Shaped", "curved to the body, its upper edge shorter; it is faced")),
)  # fmt: skip
SHORTER = Option("shorter", "Upper edge shorter", "length", 1.0, "on each half, than the edge it is sewn to", 0.0, 4.0, 0.1,
    when=(("cut", ("shaped",)),))  # fmt: skip


@operation(
    "band.waist", "waist pieces", "Waistband", "as long as the closed edge it is sewn to", options=(HIGH, LAP, CUT, SHORTER),
    wheres={"edge": "any place on the waist"}, names={"piece": "the band"}, phase="derive",
)  # fmt: skip
def waistband(job: Job) -> Change:
    """A band as long as the waist with its darts shut; it goes on beyond the middle where the garment closes there."""
    garment, chain = job.garment, rim_at(job, "edge", "waist", "cut", "hem", "wrist")
    half, high = garment.length_of(chain), job.length("high")
    title, name = "Waistband", job.free_piece("waistband")
    start, end = ends_of(garment, chain)
    lap = job.length("lap")
    made, seams = banded(job, name, title, chain, high, lap, starts=start, ends=end)
    if job.choice("cut") == "shaped":
        made = _shaped(made, half, high, job.length("shorter"))
        made = replace(made, cloths=())
    said = say("The band is {0} round, {1} high.", 2 * half, high)
    return Change((*garment.pieces, made), (*garment.seams, *seams), said=(said,), made=(name,), notions=_closes(garment, lap))


def banded(
    job: Job, name: str, title: str, chain: Chain, high: float, lap: float, *, starts: str, ends: str, double: bool = True
) -> tuple[Piece, tuple[Seam, ...]]:
    """A straight band sewn to half a rim, and its seams: on the fold at the middle that stays shut; at the one that opens it goes
    on by the lap, with an edge of its own. A rim that runs round, as at a limb, is closed by a seam."""
    garment = job.garment
    half, wide = garment.length_of(chain), high * (2 if double else 1)
    opens = {o.at for o in garment.openings} | {e.role for p in garment.shell for e in p.edges if e.kind == "opening"}
    opens |= {"centre_front" for p in garment.shell if p.edges_of("front_edge")}
    back_opens, front_opens = starts in opens, ends in opens or ends in ("front_edge", "neck_lap", "lap")
    title_seam = f"{title}, sewn on"
    notches = joint_notches_on(garment, chain, f"{name} seam")
    seam = Seam(job.free_seam(name), title_seam, chain_of(name, f"{name}_edge"), chain)
    round_ = not {starts, ends} & {"centre_front", "centre_back", "front_edge", "neck_lap", "lap"}
    if round_:
        piece = strip(name, title, half, wide, of=name, stands="pair", notches=notches)
        ring = Seam(
            job.free_seam(f"{name}_ring"), f"{title}, closed", chain_of(name, f"{name}_start"), chain_of(name, f"{name}_end")
        )
        return folding(piece, half, high, double=double), (seam, ring)
    fold_first = not back_opens
    row = notches if fold_first else tuple(replace(n, along=half - n.along) for n in reversed(notches))
    piece = strip(name, title, half, wide, of=name, fold=True, notches=row)
    if not fold_first:  # the fold lies at the front: the edge is walked from there
        seam = replace(seam, first=tuple(replace(e, back=True) for e in seam.first))
    opens_far = front_opens if fold_first else back_opens
    found = [seam]
    if opens_far and lap > 0.05:
        piece = with_lap(piece, name, half, wide, lap)
    elif not opens_far:
        far = f"{name}_end"
        found.append(Seam.to_its_mirror(job.free_seam(f"{name}_end"), f"{title}, closed", (name, far)))
    return folding(piece, half + (lap if opens_far else 0.0), high, double=double), tuple(found)


def with_lap(piece: Piece, name: str, half: float, wide: float, lap: float) -> Piece:
    """A band that goes on beyond the edge it is sewn to: its lap is an edge of its own."""
    a, b, c, d = Point(half, 0.0), Point(half + lap, 0.0), Point(half + lap, wide), Point(0.0, wide)
    first, _, _, start = piece.edges
    ring = (
        first, Edge(f"{name}_lap", (Path.through(a, b),), role="lap"), Edge(f"{name}_end", (Path.through(b, c),), role="band"),
        Edge(f"{name}_outer", (Path.through(c, d),), role="band"), start,
    )  # fmt: skip
    return replace(piece, edges=ring)


def folding(piece: Piece, long: float, high: float, *, double: bool) -> Piece:
    """A band cut twice as high is folded along its middle."""
    if not double:
        return piece
    line = InnerLine("folds", "Fold", Path.through(Point(0.0, high), Point(long, high)))
    return piece.with_on_it(lines=(*piece.lines, line))


def _shaped(piece: Piece, half: float, high: float, shorter: float) -> Piece:
    """The band curved: its upper edge is shorter."""
    lap = next((edge.length for edge in piece.edges if edge.name.endswith("_lap")), 0.0)
    names = (f"{piece.name}_edge", f"{piece.name}_end", f"{piece.name}_outer", f"{piece.name}_start")
    kinds = ("seam", "seam", "seam", "fold" if piece.middle else "seam")
    made = sector(
        piece.name, piece.title, half, max(half - shorter, 2.0), high, of=piece.of, names=names, roles=("band",) * 4, kinds=kinds,
        stands=piece.stands, middle=piece.middle, notches=piece.edges[0].notches,
    )  # fmt: skip
    if not lap:
        return made
    first, end, outer, start = made.edges
    way = first.arriving
    far, low = first.end + way * lap, outer.start + way * lap
    ring = (
        first, Edge(f"{piece.name}_lap", (Path.through(first.end, far),), role="lap"), replace(end, parts=(Path.through(far, low),)),
        replace(outer, parts=(Path.through(low, outer.start) + outer.parts[0],)), start,
    )  # fmt: skip
    return replace(made, edges=ring)


def _closes(garment: Garment, lap: float) -> tuple[Saying, ...]:
    return (say("A hook and bar, or a button, at the waistband."),) if garment.openings or lap else ()


FACTOR = Option("part", "Elastic, part of the body", "number", 90.0, "per cent of the edge it draws in", 40.0, 100.0, 5.0)
CASING = Option("high", "Height", "length", 2.5, "of the casing: the elastic and {0.5}", 1.0, 8.0, 0.5)


@operation(
    "band.casing", "waist pieces", "Casing", "a strip along an edge through which an elastic or a string is drawn",
    options=(CASING, FACTOR), wheres={"edge": "any place on the edge"}, names={"piece": "the casing"}, phase="derive",
)  # fmt: skip
def casing(job: Job) -> Change:
    """A strip as long as the edge, and the length of the elastic in it."""
    garment, chain = job.garment, rim_at(job, "edge")
    half, high = garment.length_of(chain), job.length("high")
    name = job.free_piece("casing")
    start, end = ends_of(garment, chain)
    role = garment.edge(chain[0]).role
    made, seams = banded(job, name, f"Casing, {plain(role)}", chain, high, 0.0, starts=start, ends=end, double=False)
    at_middle = {start, end} & {"centre_front", "centre_back"}
    whole = half * (2 if at_middle else 1)
    elastic = whole * job.length("part") / 100
    count = "" if at_middle else "2 times "
    notion = say(f"Elastic, {count}{{0}} long and {{1}} wide at most.", elastic + 2.0, high - 0.5)
    said = say(f"The casing is {{0}} long; an elastic of {{1}} draws it in.", whole, elastic)  # noqa: F541
    return Change((*garment.pieces, made), (*garment.seams, *seams), said=(said,), made=(name,), notions=(notion,))


COUNT = Option("count", "Loops", "number", 6.0, "round the whole waist", 2.0, 16.0, 1.0)
LONG = Option("long", "Length", "length", 6.0, "of each, as it is sewn on: the height of the belt and {2}", 2.0, 16.0, 0.5)
WIDE = Option("wide", "Width", "length", 1.0, "finished; it is cut four times as wide", 0.5, 4.0, 0.1)


@operation(
    "band.loops", "waist pieces", "Belt loops", "one strip that is cut into loops", options=(COUNT, LONG, WIDE),
    names={"piece": "the strip"}, phase="derive",
)  # fmt: skip
def loops(job: Job) -> Change:
    """The strip for all loops, folded in four; lines show where it is cut."""
    count, long, wide = round(job.length("count")), job.length("long"), job.length("wide")
    name = job.free_piece("loops")
    each = long + 2.0
    piece = strip(name, "Belt loops", count * each, wide * 4, of=name, layer="inside", kinds=("seam", "seam", "seam", "seam"))
    lines = tuple(
        InnerLine(f"cut_{n}", "Cut", Path.through(Point(each * n, 0.0), Point(each * n, wide * 4))) for n in range(1, count)
    )
    if count < 2:
        raise CannotStyle(say("2 loops at least hold a belt."), ("count",))
    said = say(f"{count} loops, one at the centre back, the others spread evenly; each is cut {{0}} long.", each)
    return Change((*job.garment.pieces, replace(piece, lines=lines)), said=(said,), made=(name,))
