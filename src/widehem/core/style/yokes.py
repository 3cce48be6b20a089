"""Yokes and shaped bands: cut over shut darts; what is left of a dart below stays one, or is eased in."""

from __future__ import annotations

from itertools import pairwise

from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.pattern.edge import Dart, Edge, Gap, Held
from widehem.core.pattern.garment import Chain, EdgeRef, Seam, SeamEdge
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import Runs, dart_between, runs_of, shut, unshut
from widehem.core.pattern.roles import plain
from widehem.core.pattern.shaping import smooth_over_darts
from widehem.core.setting.option import Choice, Option
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.remap import free_name
from widehem.core.units import say
from widehem.core.values import replace

EASED = 0.6  # cm of a dart that may be eased in below a yoke
MIDDLE = Option("middle", "Depth at the middle", "length", 7.0, "along the middle", 2.0, 40.0, 0.5)
SIDE = Option("side", "Depth at the side", "length", 7.0, "along the side", 2.0, 40.0, 0.5)
LEFT = Option(
    "left", "What is left of a dart", "choice", "ease", "below the yoke",
    choices=(Choice("ease", "Eased in up to {0.6}", "what is more stays a dart"), Choice("dart", "Stays a dart", "sewn to its point")),
)  # fmt: skip


@operation(
    "yoke.cut", "waist pieces", "Yoke, or shaped band", "the upper part of a piece, its darts shut, as a piece of its own",
    options=(MIDDLE, SIDE, LEFT), wheres={"edge": "any place on the edge with the darts"}, names={"piece": "the yoke"},
)  # fmt: skip
def cut_yoke(job: Job) -> Change:
    """Cut a piece across its shut darts; what was sewn to its edge is sewn to the yoke."""
    found = job.at["edge"]
    piece, edge = found.piece, found.piece.edge(found.spot.edge)
    before, after = piece.beside(edge.name)
    if any(not isinstance(gap, Dart) or gap.sewn is not None for gap in edge.gaps):
        raise CannotStyle(say("Gathers, ease or a pleat lie in this edge: cut the yoke before a dart is let go."), ("edge",))
    starts = _is_middle(piece, edge, before, after)
    deep = (job.length("middle"), job.length("side")) if starts else (job.length("side"), job.length("middle"))
    for side, far, at_end in ((before, deep[0], True), (after, deep[1], False)):
        long = (side.parts[-1] if at_end else side.parts[0]).length
        if far > long - 1.0:
            raise CannotStyle(
                say(f"The {plain(side.name)} is {{0}} long: a yoke {{1u}} deep would fit.", long, long - 1.0), ("side",)
            )
    runs, ways = shut(runs_of(edge))
    up_start = before.parts[-1].reverse().cut(deep[0])[0]  # from the edge down
    up_end = after.parts[0].cut(deep[1])[0].moved(ways[len(runs) - 1])
    line = _line(piece, up_start, up_end, squarely=(before.role, after.role))
    _long_enough(edge, line, runs, ways)
    below = unshut(line, runs_of(edge), ways)
    name = job.free_piece(f"{piece.name}_yoke")
    cut = free_name((e.name for e in piece.edges), "yoke_line")
    top = Path(tuple(segment for run in runs for segment in run.path.segments))
    notches = edge.notches
    upper = (
        Edge(edge.name, (top,), kind=edge.kind, pointed=edge.pointed, role=edge.role, notches=notches, hand=edge.hand),
        replace(after, parts=(up_end,), gaps=(), notches=(), corners=()),
        Edge(cut, (line.reverse(),), role="cut"),
        replace(before, parts=(up_start.reverse(),), gaps=(), notches=(), corners=()),
    )
    parts = tuple(path for _, path in below)
    gaps = _gaps(edge, parts, ease=job.choice("left") == "ease")
    rest_before = before.parts[-1].cut(before.parts[-1].length - deep[0])[0]
    rest_after = after.parts[0].cut(deep[1])[1]
    low = smooth_over_darts(Edge(cut, parts, gaps, role="cut"))
    ring: list[Edge] = []
    for old in piece.edges:
        if old.name == edge.name:
            ring.append(low)
        elif old.name == before.name:
            kept = tuple(n for n in old.notches if n.along <= old.length - deep[0])
            ring.append(replace(old, parts=(*old.parts[:-1], rest_before), notches=kept))
        elif old.name == after.name:
            kept = tuple(replace(n, along=n.along - deep[1]) for n in old.notches if n.along >= deep[1])
            ring.append(replace(old, parts=(rest_after, *old.parts[1:]), notches=kept))
        else:
            ring.append(old)
    crossing = {level.level for level in piece.balance if _near_edge(piece, level, edge)}
    body = replace(piece, edges=tuple(ring))  # its levels stay: below the edge the girth is measured from there
    stands = piece.stands if piece.middle in (before.name, after.name) or piece.stands != "fold" else "pair"
    yoke = Piece(
        name, f"{piece.title}, yoke", upper, piece.of, layer=piece.layer, stands=stands,
        middle=piece.middle if piece.middle in (before.name, after.name) else "",
        balance=tuple(_on_yoke(level, top) for level in piece.balance if level.level in crossing),
        grain=None if piece.middle in (before.name, after.name) else piece.grain,
    )  # fmt: skip
    renamed: dict[EdgeRef, Chain] = {
        EdgeRef(piece.name, edge.name): (SeamEdge(name, edge.name),),
        EdgeRef(piece.name, before.name): (SeamEdge(piece.name, before.name), SeamEdge(name, before.name)),
        EdgeRef(piece.name, after.name): (SeamEdge(name, after.name), SeamEdge(piece.name, after.name)),
    }
    seam = Seam(
        job.free_seam(f"yoke_{piece.name}"),
        f"Yoke seam, {plain(piece.name)}",
        (SeamEdge(piece.name, cut),),
        (SeamEdge(name, cut, back=True),),
    )
    pieces: list[Piece] = []
    for other in job.garment.pieces:
        pieces += [body, yoke] if other.name == piece.name else [other]
    left = sum(gap.mouth for gap in gaps)
    said = (say(f"Below the yoke of the {plain(piece.name)} {{0}} of its darts is left.", left),) if gaps else ()
    return Change(tuple(pieces), (*job.garment.seams, seam), renamed=renamed, made=(name,), said=said)


def _is_middle(piece: Piece, edge: Edge, before: Edge, after: Edge) -> bool:
    """Whether the edge begins at the middle of the body."""
    if piece.middle in (before.name, after.name):
        return before.name == piece.middle
    return before.role not in ("side", "inseam")


SQUARELY = ("centre_front", "centre_back", "side", "crotch")


def _line(piece: Piece, start: Path, end: Path, *, squarely: tuple[str, str]) -> Path:
    """The yoke line over the shut darts, square to the middle and to the side."""
    a, b = start.end, end.end
    chord = (b - a).unit()
    ways = []
    for path, role in zip((start, end), squarely, strict=True):
        out = path.arriving.square()
        out = out if out.dot(chord) > 0 else -out
        ways.append(out if role in SQUARELY else chord)
    return Path((curve_between(a, ways[0], b, ways[1]),))


def _long_enough(edge: Edge, line: Path, runs: Runs, ways) -> None:  # type: ignore[no-untyped-def]
    for number, gap in enumerate(edge.gaps):
        if not isinstance(gap, Dart):
            continue
        point = gap.point.moved(ways[number])
        leg = gap.inner.moved(ways[number]) - point
        crossed = line.crossings(point, leg)
        spots = [line.segments[i].at(t) for i, t in crossed]
        if not any(0 < (spot - point).dot(leg) < leg.dot(leg) for spot in spots):
            fits = gap.legs[0] - 1.0
            raise CannotStyle(
                say(f"The {plain(gap.name)} ends inside the yoke: one {{0u}} deep would fit, or swing the dart away first.", max(fits, 0.0)),
                ("edge",),
            )  # fmt: skip


def _gaps(edge: Edge, parts: tuple[Path, ...], *, ease: bool) -> tuple[Gap, ...]:
    """What is left of the darts in the new edge."""
    found: list[Gap] = []
    for number, gap in enumerate(edge.gaps):
        assert isinstance(gap, Dart)
        before, after = parts[number], parts[number + 1]
        mouth = before.end.to(after.start)
        if ease and mouth <= EASED:
            line = Path((curve_between(before.end, before.arriving, after.start, after.leaving),))
            found.append(Held(f"ease_{gap.name}", line))
        else:
            short = gap.turned_about.to(gap.point)
            found.append(dart_between(gap.name, before, after, gap.turned_about, short, gap.pressed, gap.holds))
    return tuple(found)


def _near_edge(piece: Piece, level: BalanceLine, edge: Edge) -> bool:
    at, way = level.straight
    return all(abs(way.cross(spot - at)) < 2.5 for spot in (edge.start, edge.end))


def _on_yoke(level: BalanceLine, top: Path) -> BalanceLine:
    """A level that ran along the edge of the darts follows it."""
    spots = [top.start, *(segment.end for segment in top.segments)]
    return BalanceLine(level.level, tuple(pairwise(spots)), notched=False)
