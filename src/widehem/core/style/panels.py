"""Panel lines through darts: the darts' cloth is taken away, and both edges of the line are as long as each other."""

from __future__ import annotations

import math
from itertools import pairwise

from widehem.core.geometry.points import Point, turn
from widehem.core.pattern.closed import corner_of
from widehem.core.pattern.cutting import Parted, part_piece
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import Garment, Seam, SeamEdge
from widehem.core.pattern.inside import Diamond
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import plain
from widehem.core.setting.option import Option
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.panel_faces import dart_at, faces_through
from widehem.core.style.remap import free_name
from widehem.core.style.swing import Share, swing
from widehem.core.style.where import Found
from widehem.core.units import Saying, say
from widehem.core.values import replace

ROOM, BEYOND, NOTCHED, LINE_MOST = 1.0, 0.6, 5.0, 40.0
OWED = 0.01  # cm that a level may gain
ON_THE_WAY = 4.0  # cm: a dart inside a piece that lies so near the line is taken up by it
OPTIONS = (
    Option("notch", "Notches from the point", "length", NOTCHED, "above and below it; they are set before the pieces are cut apart",
        1.0, 12.0, 0.5),
)  # fmt: skip


@operation(
    "panel.line", "panels", "Panel line through the darts",
    "from shoulder, armhole or neck over the point to waist or hem; what the darts took is cut away along it",
    options=OPTIONS,
    wheres={"top": "where the line begins: a dart, or a place on an edge", "bottom": "where it ends: a dart, or a place on an edge",
        "over": "any place on the edge that the side piece keeps, its side"},
    names={"line": "the new seam", "piece": "the side piece", "point": "the mark of the body that it runs over"},
)  # fmt: skip
def panel_line(job: Job) -> Change:
    """Cut a piece in a middle and a side panel over the bust point or the shoulder blade. Darts that turn about the point are
    closed into the line; a second waist dart stays in the side piece, and that is said."""
    top, bottom, over = job.at["top"], job.at["bottom"], job.at["over"]
    if bottom.piece.name != top.piece.name:
        raise CannotStyle(say("Both ends of a panel line lie on one piece; these lie on two."), ("bottom",))
    piece, said = _gathered(top, bottom)
    top, bottom = (replace(found, piece=piece) for found in (top, bottom))
    for code, found in (("top", top), ("bottom", bottom)):
        room(code, found)
    point = _point(job, piece, top, bottom)
    diamond = _on_the_way(piece, point, bottom)
    aim = _aim(job.garment, top)
    side_first = _follows(piece, top, bottom, over)
    plain_piece = replace(piece, diamonds=tuple(d for d in piece.diamonds if d is not diamond))
    line = free_name((edge.name for edge in piece.edges), job.names.get("line", "panel"))
    new = job.free_piece(f"side_{piece.name}")
    title = f"{piece.title}, side panel"

    def cut(owed: float) -> Parted:
        one, two = faces_through(piece, top, bottom, point, diamond, aim, side_first=side_first, owed=owed)
        edge = Edge(line, (one,), role="panel")
        return part_piece(plain_piece, top.spot, bottom.spot, (one, two), edge, new, over.spot.edge, title)

    parted = cut(0.0)
    gained = _gained(piece, parted)
    if abs(gained) > OWED and abs(_gained(piece, again := cut(gained))) < abs(gained):
        parted = again
    kept, side = (_notched(part, line, point, job.length("notch")) for part in (parted.kept, parted.new))
    pieces: list[Piece] = []
    for old in job.garment.pieces:
        pieces += [kept, side] if old.name == piece.name else [old]
    backwards = [part.edge(line).start.to(top.point) > part.edge(line).end.to(top.point) for part in (kept, side)]
    chains = (SeamEdge(kept.name, line, backwards[0]),), (SeamEdge(side.name, line, backwards[1]),)
    seam = Seam(job.free_seam(f"{line}_{piece.of}"), f"Panel seam, {plain(piece.of)}", *chains)
    if side.darts:
        said = (*said, say(f"The {plain(side.darts[0].name)} stays in the {plain(new)}: let it go, or close it."))
    return Change(tuple(pieces), (*job.garment.seams, seam), renamed=parted.renamed, made=(new,), said=said)


def _gained(piece: Piece, parted: Parted) -> float:
    """What both panels measure more than the piece at the level where they differ most, cm."""
    levels = [line.level for line in piece.balance if line.level != "waist"]
    return max(
        (parted.kept.across(v, 0.0) + parted.new.across(v, 0.0) - piece.across(v, 0.0) for v in levels), key=abs, default=0.0
    )


def _follows(piece: Piece, top: Found, bottom: Found, over: Found) -> bool:
    """Whether the side lies on the way round from the top of the line to its bottom."""
    order = [edge.name for edge in piece.edges]
    count, start = len(order), order.index(top.spot.edge)
    return (order.index(over.spot.edge) - start) % count <= (order.index(bottom.spot.edge) - start) % count


def _gathered(top: Found, bottom: Found) -> tuple[Piece, tuple[Saying, ...]]:
    """The piece with every other dart that turns about the point of one in the line closed into that one."""
    piece = top.piece
    for into in (top, bottom):
        if not into.spot.dart:
            continue
        own = dart_at(piece, into.spot)
        others = [d for d in piece.darts if d.name not in (top.spot.dart, bottom.spot.dart) and own is not None]
        for dart in others:
            if own is not None and dart.turned_about.to(own.turned_about) < 0.5 and dart.apex is not None:
                short = own.turned_about.to(own.point)
                piece = swing(piece, dart.name, [Share(into.spot, 1.0, own.name, short)])
                words = f"The {plain(dart.name)} of the {plain(piece.name)} is closed into the panel line: {{0}} at its mouth."
                return piece, (say(words, dart.mouth),)
    return piece, ()


def room(code: str, found: Found) -> None:
    """Refuse a line that leaves a sliver of an edge beside it."""
    edge = found.piece.edge(found.spot.edge)
    if found.spot.dart:
        number = next(n for n, gap in enumerate(edge.gaps) if gap.name == found.spot.dart)
        near = min(sum(p.length for p in edge.parts[: number + 1]), sum(p.length for p in edge.parts[number + 1 :]))
    else:
        near = min(found.spot.along, edge.length - found.spot.along)
    if near < ROOM:
        raise CannotStyle(
            say(f"Only {{0}} of the {plain(edge.name)} would be left beside the line: keep {{1u}} from its ends.", near, ROOM),
            (code,),
        )


def _point(job: Job, piece: Piece, top: Found, bottom: Found) -> Point:
    """What the line runs over: the mark that was named, what the darts turn about, the bust point or the blade."""
    named = job.names.get("point", "")
    if named in piece.marks:
        return piece.marks[named]
    darts = [dart_at(piece, found.spot) for found in (top, bottom)]
    for dart in darts:
        if dart is not None and dart.apex is not None:
            return dart.apex
    for mark in ("bust_point", "blade"):
        if mark in piece.marks and darts == [None, None]:
            return piece.marks[mark]
    for dart in reversed(darts):
        if dart is not None:
            return dart.point
    return top.point.toward(bottom.point, 0.5)


def _on_the_way(piece: Piece, point: Point, bottom: Found) -> Diamond | None:
    """The dart inside the piece that lies on the line."""
    near = [(abs(_across(d, point, bottom.point)), d) for d in piece.diamonds]
    found = min(near, key=lambda entry: entry[0], default=None)
    return found[1] if found is not None and found[0] < ON_THE_WAY else None


def _across(diamond: Diamond, point: Point, end: Point) -> float:
    middle = diamond.inner.toward(diamond.outer, 0.5)
    way = (end - point).unit()
    return way.cross(middle - point)


def _aim(garment: Garment, top: Found) -> Point | None:
    """The way in which a line leaves the edge it begins at, so that it carries on a line of the piece sewn there; None where none
    ends there."""
    if top.spot.dart:
        return None
    edge = top.piece.edge(top.spot.edge)
    for _, mine, other in garment.seams_at(SeamEdge(top.piece.name, edge.name).ref):
        at = next(n for n, entry in enumerate(mine) if entry.edge == edge.name and entry.piece == top.piece.name)
        along = garment.length_of(mine[:at]) + (edge.length - top.spot.along if mine[at].back else top.spot.along)
        gone = 0.0
        for before, after in pairwise(other):
            gone += garment.edge(before).length
            if abs(gone - along) > BEYOND:
                continue
            one, two = corner_of(garment, (before,), at_end=True), corner_of(garment, (after,), at_end=False)
            if one.beyond.role != "panel" or one.piece.name == two.piece.name:
                continue
            place = edge.place(top.spot.along)
            way = -place.direction if mine[at].back else place.direction
            inside = -top.piece.outward(place.direction)
            # the line on the other piece stands at this angle to the seam as it runs on, counted from inside
            angle = (one.angle + 180 - two.angle) / 2
            hand = 1.0 if way.cross(inside) > 0 else -1.0
            return way.moved(turn(Point(0.0, 0.0), hand * math.radians(angle)))
    return None


def _notched(piece: Piece, line: str, point: Point, off: float) -> Piece:
    """The line's edge with its notches: at the point, and so far above and below it, measured from its upper end."""
    edge = piece.edge(line)
    down = edge.start.y < edge.end.y
    path = edge.parts[0] if down else edge.parts[0].reverse()
    at = path.crossings(point, Point(1.0, 0.0))
    if not at:
        return piece
    along = path.split(*at[0])[0].length
    found = []
    for name, place in (("above", along - off), ("point", along), ("below", along + off)):
        if 1.0 < place < edge.length - 1.0:
            found.append(Notch(f"{line} {name}", place if down else edge.length - place))
    return piece.with_edge(replace(edge, notches=tuple(sorted(found, key=lambda notch: notch.along))))
