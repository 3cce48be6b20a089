"""Longer and shorter: spread or folded out across a level, hems raised, lowered, dipped, cut into points, cropped."""

from __future__ import annotations

from itertools import pairwise

from fontTools.misc.transform import Transform

from widehem.core.geometry.curves import Cubic, Line, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.checks.shapes import HemRises
from widehem.core.pattern.cutting import part_piece, runs_along
from widehem.core.pattern.edge import Dart, Edge
from widehem.core.pattern.garment import Chain, EdgeRef, Garment
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import Run, Spot, closed, cut_at, laid_again, opened
from widehem.core.pattern.roles import plain
from widehem.core.pattern.shaping import corners_kept, edge_blended, smooth_over_darts, trimmed, with_edges
from widehem.core.setting.option import Choice, Option
from widehem.core.style.asks import all_of, also, longer, notches_left
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.where import Found
from widehem.core.units import say
from widehem.core.values import replace

SQUARELY = ("centre_front", "centre_back", "side", "underarm", "inseam", "gore", "panel", "front_edge")
FAIR, SPREAD = 4.0, 2.0  # cm to either side of a joint that are drawn again; of what is put in or taken out
LEVEL = Option(
    "level", "Across which level", "choice", "waist", "the balance line at which it is lengthened",
    choices=tuple(Choice(code, words) for code, words in (
        ("bust", "Bust"), ("waist", "Waist"), ("high_hip", "High hip"), ("hip", "Hip"), ("thigh", "Thigh"), ("knee", "Knee"),
        ("bicep", "Upper arm"))),
)  # fmt: skip
BELOW = Option("below", "Below the level", "length", 0.0, "how far under it the pieces are cut across; less than nothing is above",
    -30.0, 60.0, 0.5)  # fmt: skip
BY = Option("by", "Longer by", "length", 2.0, "less than nothing is shorter: it is folded out", -20.0, 60.0, 0.5)


@operation(
    "length.adjust", "length", "Lengthen or shorten", "every piece that crosses a level is spread there, or folded out",
    options=(LEVEL, BELOW, BY),
)  # fmt: skip
def adjust(job: Job) -> Change:
    """Move everything below a level down, or up, and draw the edges that cross it again."""
    level, below, by = job.choice("level"), job.length("below"), job.length("by")
    heights = {p.name: line.height + below for p in job.garment.pieces if (line := p.level(level)) is not None}
    heights |= {name: heights[of] for name, of in _traced(job.garment).items() if of in heights and name not in heights}
    pieces, changed = [], []
    for piece in job.garment.pieces:
        made = _longer(piece, heights[piece.name], by) if piece.name in heights else None
        changed += [piece.name] if made is not None else []
        pieces.append(piece if made is None else made)
    if not changed:
        raise CannotStyle(
            say(f"No piece is crossed {{0}} below the {plain(level)}: choose a level these pieces have.", below), ("level",)
        )
    _both_sides(job.garment, tuple(pieces), below, by)
    asks = all_of(longer(by, changed), notches_left(*(EdgeRef(p.name, e.name) for p in job.garment.pieces for e in p.edges)))
    return Change(tuple(pieces), asks=asks, said=(say(f"{len(changed)} pieces are {{0s}} at the {plain(level)}.", by),))


def _both_sides(garment: Garment, pieces: tuple[Piece, ...], below: float, by: float) -> None:
    """Refuse a level that crosses one side of a seam only."""
    after = {piece.name: piece for piece in pieces}
    for seam in garment.seams:
        grown = [
            sum(after[e.piece].edge(e.edge).length - garment.edge(e).length for e in chain)
            for chain in (seam.first, seam.second)
        ]
        if abs(grown[0] - grown[1]) > abs(by) / 2:
            raise CannotStyle(
                say(f"{{0}} below the level only one side of the {seam.title.lower()} would change: cut across {{1}} below it.", below, below + 5.0),
                ("below",),
            )  # fmt: skip


def _traced(garment: Garment) -> dict[str, str]:
    """Pieces that were traced from another, edge on edge in its own frame, with that other: a facing of a front."""
    found = {}
    for seam in garment.seams:
        if seam.faced:
            one, two = seam.first[0], seam.second[0]
            if garment.edge(one).start.to(garment.edge(two).start) < 0.01:
                found[two.piece] = one.piece
    return found


def _longer(piece: Piece, y: float, by: float) -> Piece | None:
    """The piece with all that lies below a height moved down by so much; None where it does not reach there."""
    _, top, _, bottom = piece.bounds
    if not top + 1.0 < y < bottom - 1.0 - max(-by, 0.0):
        return None
    runs = opened(piece)
    here, way = Point(0.0, y), Point(1.0, 0.0)
    for edge in piece.edges:
        gone = 0.0
        for part in edge.parts:
            for i, t in part.crossings(here, way):
                runs, _ = cut_at(runs, Spot(edge.name, gone + part.split(i, t)[0].length))
            gone += part.length
    low = Transform().translate(0.0, by)
    over = max(-by, 0.0)
    made: list[Run] = []
    for run in runs:
        middle = run.path.place(run.path.length / 2).point
        made.append(run.moved(low) if middle.y > y else run)
    for number, run in enumerate(made):
        before = made[number - 1]
        dart = run.before
        if (
            isinstance(dart, Dart)
            and (old := runs[number].before) is not None
            and isinstance(old, Dart)
            and old.point.y < y < old.inner.y
        ):
            made[number] = replace(run, before=laid_again(old, before.path, run.path, old.turned_about))
        elif before.path.end.to(run.path.start) > 1e-6 and run.before is None:
            if before.edge.name != run.edge.name:
                raise CannotStyle(
                    say(f"The {plain(piece.name)} has a corner just there: cut across above it, or below."), ("below",)
                )
            made[number - 1], made[number] = _bridged(before, run, over, max(FAIR, abs(by) * SPREAD))
    marks = {name: spot.moved(low) if spot.y > y else spot for name, spot in piece.marks.items()}
    lines = tuple(replace(line, path=line.path if line.path.start.y < y else line.path.moved(low)) for line in piece.lines)
    levels = tuple(line.moved(low) if line.height > y else line for line in piece.balance)
    diamonds = tuple(d.moved(low) if d.inner.y > y else d for d in piece.diamonds)
    grain = tuple(g.moved(low) if g.y > y else g for g in piece.grain) if piece.grain else None
    whole = closed(
        piece, tuple(made), marks=marks, lines=lines, balance=levels, diamonds=diamonds, grain=grain,
        holes=tuple(h.moved(low) if h.y > y else h for h in piece.holes),
    )  # fmt: skip
    darted = [edge for edge in whole.edges if edge.darts and edge != piece.edge(edge.name)]
    return with_edges(whole, *(smooth_over_darts(edge) for edge in darted))


def _bridged(before: Run, after: Run, over: float, fair: float) -> tuple[Run, Run]:
    """Two runs of one edge joined again: straight across the gap where it was spread; where it was folded, what lies twice is
    cut off first. The joint is drawn as one curve."""
    if over:
        room = min(before.path.length, after.path.length) - 1.0
        off = min(over / 2 + fair, room)
        head = before.path.cut(before.path.length - off)[0]
        tail = after.path.cut(off)[1]
    else:
        head, tail = (
            before.path.cut(before.path.length - min(fair, before.path.length * 0.8))[0],
            after.path.cut(min(fair, after.path.length * 0.8))[1],
        )
    if abs(head.arriving.cross(tail.leaving)) < 1e-9 and abs(head.arriving.cross((tail.start - head.end).unit())) < 1e-9:
        joint = Path.through(head.end, tail.start)
    else:
        joint = Path((curve_between(head.end, head.arriving, tail.start, tail.leaving),))
    notches = tuple(n for n in before.notches if n.along <= head.length)
    shift = after.path.length - tail.length
    later = tuple(replace(n, along=n.along - shift) for n in after.notches if n.along >= shift)
    return replace(before, path=head + joint, notches=notches), replace(after, path=tail, notches=later)


UP = Option("up", "Raised by", "length", 5.0, "along the seams; less than nothing lowers it", -60.0, 120.0, 0.5)


@operation(
    "hem.raise", "length", "Raise or lower the hem", "every hem of a part of the garment, by as much along all its seams", options=(UP,),
    wheres={"hem": "any place on the hem"},
)  # fmt: skip
def raise_hem(job: Job) -> Change:
    """Shift the whole hem that runs through a place; its seams are cut off there, or carried on."""
    up, found = job.length("up"), job.at["hem"]
    role = found.piece.edge(found.spot.edge).role
    pieces, moved = [], []
    for piece in job.garment.pieces:
        made = piece
        for hem in piece.edges_of(role):
            made = _hem_shifted(made, hem.name, up)
            moved.append(piece.name)
        pieces.append(made)
    refs = [EdgeRef(piece.name, edge.name) for piece in job.garment.pieces for edge in piece.edges_of(role)]
    asks = all_of(longer(-up, moved), notches_left(*refs))
    return Change(tuple(pieces), asks=asks, said=(say("The hem is {0s} up along its seams.", up),))


def _hem_shifted(piece: Piece, name: str, up: float) -> Piece:
    before, after = piece.beside(name)
    hem = piece.edge(name)
    room = min(before.parts[-1].length, after.parts[0].length) - 1.0
    if up > room:
        raise CannotStyle(
            say(f"The seams of the {plain(piece.name)} are {{0}} long beside its hem: raise it by {{1u}} at most.", room + 1.0, room),
            ("hem",),
        )  # fmt: skip
    one, two = trimmed(before, at_end=up), trimmed(after, at_start=up)
    start_by, end_by = one.end - hem.start, two.start - hem.end
    made = with_edges(piece, one, edge_blended(hem, start_by, end_by), two)
    _, top, _, bottom = made.bounds
    balance = tuple(line for line in made.balance if top + 0.5 < line.height < bottom - 0.5 or line.height < top)
    kept = corners_kept(piece, made, name, reach=min(6.0, made.edge(name).length * 0.4)) if len(hem.parts) == 1 else made
    return replace(kept, balance=balance)


SHAPE = Option(
    "shape", "Shape", "choice", "dip", "of the hem",
    choices=(Choice("dip", "Dipped at the middle", "longer at the centre than at the sides, or shorter"),
        Choice("points", "Points", "cut in zigzag, by their count"), Choice("scallops", "Scallops", "in round bows, by their count")),
)  # fmt: skip
COUNT = Option("count", "How many", "number", 6.0, "on this piece, from seam to seam", 1.0, 40.0, 1.0,
    when=(("shape", ("points", "scallops")),))  # fmt: skip
DEEP = Option("deep", "How deep", "length", 4.0, "from the hem to the valleys; of a dip, how much longer the middle is, less than nothing shorter",
    -20.0, 40.0, 0.5)  # fmt: skip


@operation(
    "hem.shape", "length", "Shape the hem", "dipped, in points or in scallops", options=(SHAPE, COUNT, DEEP),
    wheres={"hem": "any place on the hem of the piece"},
)  # fmt: skip
def shape_hem(job: Job) -> Change:
    """Draw the hem of a piece in another shape; points and scallops are faced, not turned up."""
    found = job.at["hem"]
    piece, hem = found.piece, found.piece.edge(found.spot.edge)
    deep, shape = job.length("deep"), job.choice("shape")
    if len(hem.parts) != 1:
        raise CannotStyle(say("A dart ends in this hem: let it go, or swing it away first."), ("hem",))
    if shape == "dip":
        said = (say("The middle of the hem is {0s}.", deep),)
        return Change(job.garment.with_piece(_dipped(piece, hem, deep)).pieces, said=said, asks=also(HemRises(0.0, free=True)))
    count = round(job.length("count"))
    if deep <= 0.2:
        raise CannotStyle(say("{0} deep is no point: take 0.5 or more.", deep), ("deep",))
    path, corners = _toothed(piece, hem, count, deep, round_=shape == "scallops")
    made = with_edges(piece, replace(hem, parts=(path,), corners=corners, kind="faced", notches=()))
    if not made.simple:
        raise CannotStyle(say("So deep they run into each other: take fewer, or less deep."), ("deep",))
    return Change(job.garment.with_piece(made).pieces)


def _dipped(piece: Piece, hem: Edge, deep: float) -> Piece:
    """The hem lower by so much at the middle, as it was at the side."""
    before, after = piece.beside(hem.name)
    if not piece.middle or piece.middle not in (before.name, after.name):
        raise CannotStyle(
            say("A hem is dipped at the middle of the body, and this one does not reach it: raise or lower it instead."),
            ("hem",),
        )
    if piece.stands in ("left", "right"):
        raise CannotStyle(say("Dip the hem before left and right are parted: its middle is sewn to the other side."), ("hem",))
    at_start = before.name == piece.middle or (piece.middle != after.name and abs(hem.start.x) < abs(hem.end.x))
    middle = before if at_start else after
    way = (middle.arriving if at_start else -middle.leaving).unit()
    if -deep > middle.parts[-1 if at_start else 0].length - 2.0:
        raise CannotStyle(say("The middle is too short for that: take less."), ("deep",))
    longer_one = trimmed(middle, at_end=-deep) if at_start else trimmed(middle, at_start=-deep)
    by = way * deep
    zero = Point(0.0, 0.0)
    moved = edge_blended(hem, by, zero) if at_start else edge_blended(hem, zero, by)
    # square to the middle, and level where it comes to the side
    path = moved.parts[0] if at_start else moved.parts[0].reverse()
    square = (hem.leaving if at_start else -hem.arriving).unit()
    flat = (hem.arriving if at_start else -hem.leaving).unit()
    curve = Path((curve_between(path.start, square, path.end, flat),))
    moved = replace(moved, parts=(curve if at_start else curve.reverse(),))
    return with_edges(piece, longer_one, moved)


def _toothed(piece: Piece, hem: Edge, count: int, deep: float, *, round_: bool) -> tuple[Path, tuple[Point, ...]]:
    """The hem in teeth whose tips lie on it and whose valleys lie so deep inside."""
    path, segments, corners = hem.parts[0], [], []
    step = path.length / count
    for number in range(count):
        a, m, b = (path.place(step * (number + share)) for share in (0.0, 0.5, 1.0))
        inside = [-piece.outward(place.direction) for place in (a, m, b)]
        first, last = a.point + inside[0] * deep, b.point + inside[2] * deep
        if number == 0:
            first = a.point
        if number == count - 1:
            last = b.point
        if round_ and number in (0, count - 1):  # half of it runs straight on, over the seam
            flat = m.direction.unit()
            low, high = first - m.point, last - m.point
            segments += [
                Line(first, m.point)
                if number == 0
                else Cubic(first, first - inside[0] * (low.size * 0.35), m.point - flat * (step * 0.28), m.point),
                Line(m.point, last)
                if number
                else Cubic(m.point, m.point + flat * (step * 0.28), last - inside[2] * (high.size * 0.35), last),
            ]
        elif round_:
            flat = m.direction.unit()
            low, high = first - m.point, last - m.point
            segments += [
                Cubic(first, first - inside[0] * (low.size * 0.35), m.point - flat * (step * 0.28), m.point),
                Cubic(m.point, m.point + flat * (step * 0.28), last - inside[2] * (high.size * 0.35), last),
            ]
        else:
            segments += [Line(first, m.point), Line(m.point, last)]
            corners.append(m.point)
        if number:
            corners.append(first)
    return Path(tuple(segments)), tuple(corners)


@operation(
    "piece.crop", "length", "Crop", "what lies beyond a line is cut away",
    wheres={"start": "where the line begins", "end": "where it ends", "keep": "any place on an edge of what is kept"},
)  # fmt: skip
def crop(job: Job) -> Change:
    """Cut a piece from one place to another and drop the part without the edge that is kept; the cut is its hem now."""
    start, end, keep = (job.at[code] for code in ("start", "end", "keep"))
    piece = start.piece
    if not piece.name == end.piece.name == keep.piece.name:
        raise CannotStyle(say("A piece is cropped from one place to another of its own outline."), ("end",))
    line = level_line(piece, start, end)
    edge = Edge("crop", (line,), kind="hem", role="hem")
    parted = part_piece(piece, start.spot, end.spot, (line, line), edge, "cropped", keep.spot.edge)
    kept = parted.new
    whole = replace(
        kept, name=piece.name, title=piece.title, stands=piece.stands if kept.middle or piece.stands != "fold" else "pair"
    )
    along = [level for level in piece.balance if runs_along(level, line)]
    rest = tuple(level for level in whole.balance if all(level.level != old.level for old in along))
    spots = line.flat(0.05)
    drawn = tuple(BalanceLine(level.level, tuple(pairwise(spots)), notched=False) for level in along)
    whole = replace(whole, balance=(*rest, *drawn))
    renamed: dict[EdgeRef, Chain] = {}
    dropped = []
    for edge in piece.edges:
        ref = EdgeRef(piece.name, edge.name)
        left = tuple(replace(e, piece=piece.name) for e in parted.renamed.get(ref, ()) if e.piece == kept.name)
        if ref in parted.renamed:
            if left:
                renamed[ref] = left
            else:
                dropped.append(ref)
    pieces = tuple(whole if p.name == piece.name else p for p in job.garment.pieces)
    return Change(
        pieces, renamed=renamed, dropped=tuple(dropped), said=(say(f"The {plain(piece.name)} ends at the new line."),)
    )


def level_line(piece: Piece, start: Found, end: Found) -> Path:
    """A line from one edge to another that leaves a middle, or a seam that goes on over it, squarely."""
    chord = (end.point - start.point).unit()
    ways = []
    for found, way in ((start, chord), (end, chord)):
        edge = piece.edge(found.spot.edge)
        if found.spot.dart or edge.role not in SQUARELY:
            ways.append(way)
            continue
        out = edge.place(found.spot.along).direction.square()
        ways.append(out if out.dot(way) > 0 else -out)
    if all(abs(way.cross(chord)) < 1e-9 for way in ways):
        return Path.through(start.point, end.point)
    return Path((curve_between(start.point, ways[0], end.point, ways[1]),))
