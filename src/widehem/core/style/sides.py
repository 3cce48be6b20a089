"""Left and right: a garment opened so that both sides of the body can differ."""

from __future__ import annotations

from collections.abc import Callable, Container, Iterable
from typing import Literal

from fontTools.misc.transform import Transform

from widehem.core.geometry.points import Point, mirror_in
from widehem.core.pattern.edge import Edge, Gap, Hand
from widehem.core.pattern.garment import Chain, EdgeRef, Seam, SeamEdge
from widehem.core.pattern.inside import BalanceLine, Cloth, Diamond, InnerLine
from widehem.core.pattern.piece import Piece, Stands
from widehem.core.pattern.ring import mirrored
from widehem.core.style.operation import Change, Job, operation
from widehem.core.values import replace

OVER = Transform(-1, 0, 0, 1, 0, 0)
HANDS: tuple[Literal["left"], Literal["right"]] = ("left", "right")


@operation("sides.apart", "left and right", "Left and right apart", "both sides of the body are drawn, so that they can differ")
def sides_apart(job: Job) -> Change:
    """Every pair becomes a left and a right piece, every piece on the fold is opened out."""
    garment = job.garment
    pieces: list[Piece] = []
    renamed: dict[EdgeRef, Chain] = {}
    sides: dict[EdgeRef, dict[Hand, SeamEdge]] = {}
    across: set[EdgeRef] = set()
    pairs = {piece.name for piece in garment.pieces if piece.stands == "pair"}
    for piece in garment.pieces:
        if piece.stands == "pair":
            both = [_one_of_a_pair(piece, hand, pairs) for hand in HANDS]
            pieces += both
            for edge in piece.edges:
                ref = EdgeRef(piece.name, edge.name)
                sides[ref] = {"left": SeamEdge(both[0].name, edge.name), "right": SeamEdge(both[1].name, edge.name)}
                renamed[ref] = tuple(sides[ref].values())
        elif piece.stands == "fold":
            whole, names, crossing = _opened_out(piece)
            pieces.append(whole)
            for edge in piece.edges:
                ref = EdgeRef(piece.name, edge.name)
                if edge.name == piece.middle:
                    renamed[ref] = ()
                    continue
                over = edge.name in crossing
                sides[ref] = {  # the mirrored side runs the other way round
                    hand: SeamEdge(whole.name, names[edge.name, hand], back=hand == "left" and not over) for hand in HANDS
                }
                renamed[ref] = tuple(dict.fromkeys(sides[ref].values()))
                if edge.name in crossing:
                    across.add(ref)
        else:
            pieces.append(piece)
    alone: dict[str, Stands] = {piece.name: piece.stands for piece in garment.pieces if piece.stands in HANDS}
    seams = tuple(new for seam in garment.seams for new in _both_sides(seam, sides, across, alone))
    return Change(tuple(pieces), seams, renamed={r: c for r, c in renamed.items() if c}, dropped=_gone(renamed))


def _gone(renamed: dict[EdgeRef, Chain]) -> tuple[EdgeRef, ...]:
    return tuple(ref for ref, chain in renamed.items() if not chain)


def _one_of_a_pair(piece: Piece, hand: Literal["left", "right"], pairs: Container[str]) -> Piece:
    made = piece if hand == "right" else piece.moved(OVER)
    cloths = tuple(replace(cloth, cut=cloth.cut.replace("2, a pair", "1")) for cloth in piece.cloths)
    return replace(made, name=f"{piece.name}_{hand}", title=f"{piece.title}, {hand}", stands=hand, cloths=cloths,
        serves=f"{piece.serves}_{hand}" if piece.serves in pairs else piece.serves)  # fmt: skip


def _opened_out(piece: Piece) -> tuple[Piece, dict[tuple[str, Hand], str], set[str]]:
    """A piece on the fold opened: itself on the right, its mirror on the left; what its edges are called, and which cross the
    middle."""
    middle = piece.edge(piece.middle)
    at = piece.edges.index(middle)
    right = (*piece.edges[at + 1 :], *piece.edges[:at])
    left = tuple(mirrored(edge, middle.start, middle.end) for edge in reversed(right))
    first, last = right[0], right[-1]
    names: dict[tuple[str, Hand], str] = {}
    ring: list[Edge] = [_over_the_middle(left[-1], right[0])]
    rows: tuple[tuple[Hand, tuple[Edge, ...]], ...] = (("right", right[1:-1]), ("left", left[1:-1]))
    for hand, row in rows:
        if hand == "left":
            ring.append(_over_the_middle(right[-1], left[0]))
        for edge in row:
            names[edge.name, hand] = f"{edge.name}_{hand}"
            ring.append(replace(edge, name=names[edge.name, hand], role=edge.role, hand=hand, gaps=_named_gaps(edge, hand)))
    for edge in (first, last):
        for side in HANDS:
            names[edge.name, side] = edge.name
    over = _mirror(piece)
    whole = replace(
        piece, edges=tuple(ring), stands="once", middle="", title=piece.title,
            cloths=tuple(_whole(cloth) for cloth in piece.cloths),
        balance=tuple(_both_ways(line, over) for line in piece.balance),
        diamonds=(*piece.diamonds, *(_left(d, over) for d in piece.diamonds)),
            holes=(*piece.holes, *(hole.moved(over) for hole in piece.holes)),
        lines=(*piece.lines, *(_left_line(line, over) for line in piece.lines)), grain=piece.grain or _along(middle),
    )  # fmt: skip
    return whole, names, {first.name, last.name}


def _mirror(piece: Piece) -> Transform:
    middle = piece.edge(piece.middle)
    return mirror_in(middle.start, middle.end)


def _along(middle: Edge) -> tuple[Point, Point]:
    """The grain along a middle that is no fold any more, from above."""
    ends = middle.start.toward(middle.end, 0.25), middle.start.toward(middle.end, 0.75)
    return ends if ends[0].y < ends[1].y else (ends[1], ends[0])


def _whole(cloth: Cloth) -> Cloth:
    return replace(cloth, cut=cloth.cut.replace("1 on the fold", "1").replace("2 on the fold", "2"))


def _left(diamond: Diamond, over: Transform) -> Diamond:
    return replace(diamond.moved(over), name=f"{diamond.name}_left")


def _left_line(line: InnerLine, over: Transform) -> InnerLine:
    return replace(line.moved(over), name=f"{line.name}_left")


def _both_ways(line: BalanceLine, over: Transform) -> BalanceLine:
    """A level right across: one straight stays one; parts that were turned are mirrored before it."""
    if len(line.lines) == 1 and not any(line.between):
        return line
    other = tuple((b.moved(over), a.moved(over)) for a, b in reversed(line.lines))
    far = f"{line.between[1]}_left" if line.between[1] else ""
    return replace(line, lines=(*other, *line.lines), between=(far, line.between[1]))


def _over_the_middle(before: Edge, after: Edge) -> Edge:
    """One edge of two that meet at the middle."""
    parts = (*before.parts[:-1], before.parts[-1] + after.parts[0], *after.parts[1:])
    hands = HANDS if before.start.x < after.end.x else (HANDS[1], HANDS[0])
    gaps = (*_named_gaps(before, hands[0]), *_named_gaps(after, hands[1]))
    notches = (*before.notches, *(replace(notch, along=notch.along + before.length) for notch in after.notches))
    return replace(before, parts=parts, gaps=gaps, notches=notches, corners=(*before.corners, *after.corners), pointed=False)


def _named_gaps(edge: Edge, hand: Hand) -> tuple[Gap, ...]:
    return tuple(replace(gap, name=f"{gap.name}_{hand}") for gap in edge.gaps)


def _both_sides(
    seam: Seam, sides: dict[EdgeRef, dict[Hand, SeamEdge]], across: set[EdgeRef], alone: dict[str, Stands]
) -> Iterable[Seam]:
    """A seam on both sides; between left and right where it was sewn to its mirror; one over the middle where an edge crosses
    it; on one side only where a piece of it is there on one side. alone: those, with their side."""

    def chain(entries: Chain, hand: Hand) -> Chain:
        return tuple(
            replace(sides[e.ref][hand], back=e.back != sides[e.ref][hand].back) if e.ref in sides else e for e in entries
        )

    refs = [entry.ref for entry in (*seam.first, *seam.second)]
    if not any(ref in sides for ref in refs):
        return [seam]
    if seam.twin:
        return [replace(seam, first=chain(seam.first, "left"), second=chain(seam.second, "right"), twin=False)]
    if any(ref in across for ref in refs):
        return [replace(seam, first=_over(chain, seam.first, across), second=_over(chain, seam.second, across))]
    return [
        replace(seam, name=f"{seam.name}_{hand}" if hand == "left" else seam.name, title=f"{seam.title}, {hand}",
            first=chain(seam.first, hand), second=chain(seam.second, hand))
        for hand in HANDS
        if all(alone.get(ref.piece, hand) == hand for ref in refs)
    ]  # fmt: skip


def _over(chain: Callable[[Chain, Hand], Chain], entries: Chain, across: set[EdgeRef]) -> Chain:
    """Both halves of a chain in one row over the middle."""
    right, left = chain(entries, "right"), chain(entries, "left")
    other = tuple(entry.turned() for entry in reversed(left))
    if entries[-1].ref in across and entries[0].ref not in across:
        return tuple({entry.ref: entry for entry in reversed((*right, *other))}.values())[::-1]
    return tuple({entry.ref: entry for entry in (*other, *right)}.values())
