"""A garment as it is sewn: the seams it declares, and from the pieces that lie on each other the lines that its layers inside ask for."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from itertools import pairwise

from widehem.core.geometry.points import Point
from widehem.core.making.joins import Join, Sewn, grouped
from widehem.core.pattern.closed import corner_of
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import Chain, EdgeRef, Garment, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import ROLES, edge_of
from widehem.core.values import replace

INSIDE = ("facing", "lining")  # the layers that are sewn; what stiffens is laid on
OPEN = 0.5  # cm: what is left of a seam under an opening that is no seam any more
ENDS_NEAR = 0.3  # cm that the ends of two edges lie apart and still lie on each other
UNDER = 0.6  # of a part that its lining must cover to be made up by itself


def sewn(garment: Garment) -> Sewn:
    """All lines of a garment."""
    over = _lying_over(garment)
    inner: dict[EdgeRef, list[EdgeRef]] = {}
    for ref, outer in over.items():
        inner.setdefault(outer, []).append(ref)
    declared = [
        Join(
            seam.name, seam.title, seam.first, seam.second, "rim" if seam.faced else "seam", _layer(garment, seam.first, seam.second),
            "", seam.twin, sum(seam.ease) / 2, _left_open(garment, seam.first) if seam.twin else 0.0,
        )
        for seam in garment.seams
    ]  # fmt: skip
    closed = [join for join in declared if garment.length_of(join.first) - join.shut > OPEN]
    joins = _paired(closed, over)
    taken = {ref for join in joins if join.way == "seam" for ref in join.refs}
    joins += _held_together(garment, joins, list(_seams_inside(garment, joins, inner, taken)))
    parts = made_up(garment, joins)
    joins += _rims(garment, joins, inner, parts)
    names: dict[str, int] = {}
    return Sewn(garment, tuple(_named(join, names) for join in joins), over, parts)


def _named(join: Join, names: dict[str, int]) -> Join:
    names[join.id] = names.get(join.id, 0) + 1
    number = names[join.id]
    return join if number == 1 else replace(join, id=f"{join.id}_{number}")


def _layer(garment: Garment, *chains: Chain) -> str:
    """The layer that only some of its pieces, or all of them, are of."""
    layers = {garment.piece(entry.piece).layer for chain in chains for entry in chain}
    return next((layer for layer in ("lining", "interfacing", "facing") if layer in layers), "")


def _left_open(garment: Garment, chain: Chain) -> float:
    """How much of a seam with its mirror an opening of the garment takes, cm: it opens from the top down, edge by edge."""
    edges = [(garment.piece(entry.piece), garment.edge(entry)) for entry in chain]
    if not edges or any(piece.layer != "shell" for piece, _ in edges):
        return 0.0
    role, of = edges[0][1].role, edges[0][0].of
    middle = next((o for o in garment.openings if o.at == role or (o.at == f"centre_{of}" and role == "crotch")), None)
    if middle is None:
        return 0.0
    rows = [
        (min(edge.start.y, edge.end.y) + _drop(garment, piece), piece.name, edge)
        for piece in garment.shell
        for edge in piece.edges
        if piece.of == of and edge.role in (role, middle.at)
    ]
    left = middle.length
    for _, name, edge in sorted(rows, key=lambda row: row[0]):
        if any(p.name == name and e.name == edge.name for p, e in edges):
            return max(0.0, min(edge.length, left))
        left -= edge.length
    return 0.0


def _drop(garment: Garment, piece: Piece) -> float:
    """What is sewn to the upper edge of another piece hangs below it: how far down a piece is counted, in garments of pieces."""
    return 1000.0 if any(edge.role == "waist_seam" for edge in piece.edges) else 0.0


# ---- what lies inside ----


def _lying_over(garment: Garment) -> dict[EdgeRef, EdgeRef]:
    """Which edge of the outside an edge inside lies along: one of its name, or the only one of what it is."""
    found: dict[EdgeRef, EdgeRef] = {}
    by_name = {piece.name: piece for piece in garment.pieces}
    for piece in garment.pieces:
        outer = by_name.get(piece.serves)
        if outer is None or piece.layer not in INSIDE:
            continue
        for edge in piece.edges:
            match = _match(outer, edge)
            if match is not None:
                found[EdgeRef(piece.name, edge.name)] = EdgeRef(outer.name, match.name)
    return found


def _match(outer: Piece, edge: Edge) -> Edge | None:
    if edge.role == "facing":
        return None
    if outer.has(edge.name):
        return outer.edge(edge.name)
    same = [other for other in outer.edges if other.role == edge.role]
    stem = [other for other in same if edge.name.startswith(f"{other.name}_")]
    rows = stem or same
    return rows[0] if len(rows) == 1 else None


def _paired(joins: list[Join], over: Mapping[EdgeRef, EdgeRef]) -> list[Join]:
    """The lines with those inside told which of the outside they repeat."""
    outside = {frozenset(join.refs): join.id for join in joins if not join.layer and join.way == "seam"}
    found = []
    for join in joins:
        like = ""
        if join.layer and join.way == "seam":
            refs = {over.get(ref) for ref in join.refs}
            like = next((name for edges, name in outside.items() if refs and None not in refs and refs <= edges), "")
        found.append(replace(join, like=like) if like else join)
    return found


def _seams_inside(
    garment: Garment, joins: list[Join], inner: Mapping[EdgeRef, list[EdgeRef]], taken: set[EdgeRef]
) -> Iterator[Join]:
    """The seams that pieces inside have where both sides of a seam of the outside are lined or faced, and that nobody declared."""
    repeated = {join.like for join in joins if join.like}
    for join in joins:
        if join.way != "seam" or join.layer or join.id in repeated:
            continue
        first, second = (_inside_of(garment, chain, inner, taken) for chain in (join.first, join.second))
        if not first or not second or len({_family(garment.piece(entry.piece)) for entry in (*first, *second)}) > 1:
            continue
        layer = _layer(garment, first, second)
        title = f"{join.title}, {_called(garment, (*first, *second))}"
        yield Join(f"{join.id}.inside", title, first, second, "seam", layer, join.id, join.twin, join.ease)
    sewn_there = {ref for join in joins for ref in join.refs}
    for piece in garment.pieces:  # cut as a pair where its outer piece is on the fold
        if piece.layer in INSIDE and piece.stands == "pair" and piece.middle and piece.serves:
            ref = EdgeRef(piece.name, piece.middle)
            if ref not in sewn_there and piece.edge(piece.middle).kind == "seam" and _folded_outside(garment, piece):
                chain = (SeamEdge(*ref),)
                words = ROLES[piece.edge(piece.middle).role].words
                title = f"{words[:1].upper()}{words[1:]}, {piece.title.lower()}"
                yield Join(f"{piece.name}.middle", title, chain, chain, "seam", piece.layer, "", True)


def _held_together(garment: Garment, joins: list[Join], found: list[Join]) -> list[Join]:
    """Those of the seams inside whose sides are one edge when all of them are sewn: where a facing is sewn to no lining, each is
    felled by itself."""
    along: dict[EdgeRef, set[str]] = {}
    for join in (*joins, *found):
        for ref in join.refs:
            along.setdefault(ref, set()).add(join.id)

    def one(before: SeamEdge, after: SeamEdge) -> bool:
        if before.piece == after.piece:
            return True
        corners = corner_of(garment, (before,), at_end=True), corner_of(garment, (after,), at_end=False)
        a, b = (along.get(EdgeRef(corner.piece.name, corner.beyond.name), set()) for corner in corners)
        return bool(a & b)

    return [join for join in found if all(one(a, b) for chain in join.sides for a, b in pairwise(chain))]


def _folded_outside(garment: Garment, piece: Piece) -> bool:
    try:
        return garment.piece(piece.serves).stands == "fold"
    except KeyError:
        return False


def _called(garment: Garment, chain: Iterable[SeamEdge]) -> str:
    """What pieces inside are called together: facing, lining, or both."""
    rows = dict.fromkeys(_cloth(garment.piece(entry.piece)) for entry in chain)
    return " and ".join(sorted(rows))


def _family(piece: Piece) -> str:
    """What hangs together inside: facing and lining do, a second lining by itself."""
    return "lining" if piece.layer == "facing" else _cloth(piece)


def _cloth(piece: Piece) -> str:
    return piece.cloths[0].cloth if piece.layer == "lining" and piece.cloths else piece.layer


def _inside_of(
    garment: Garment, chain: Chain, inner: Mapping[EdgeRef, list[EdgeRef]], taken: set[EdgeRef]
) -> tuple[SeamEdge, ...]:
    """The edges inside that lie along a side of a seam, in its order, those that are sewn already left out. Where a lining lies under
    a facing it is the facing that is sewn."""
    found: list[SeamEdge] = []
    for entry in chain:
        rows = [ref for ref in inner.get(entry.ref, []) if ref not in taken]
        if sum(garment.edge(ref).length for ref in rows) > garment.edge(entry).length + ENDS_NEAR:
            rows = [ref for ref in rows if garment.piece(ref.piece).layer == "facing"] or rows[:1]
        found += _side_by_side(garment, entry, rows)
    return tuple(found)


def _side_by_side(garment: Garment, entry: SeamEdge, rows: Iterable[EdgeRef]) -> list[SeamEdge]:
    """Edges inside in the order in which they lie along a side of a seam."""
    start = garment.edge(entry).end if entry.back else garment.edge(entry).start
    edges = [(ref, _along(garment, ref, entry)) for ref in rows]
    edges.sort(key=lambda row: _begin(garment, row[0], back=row[1]).to(start))
    return [SeamEdge(ref.piece, ref.edge, back) for ref, back in edges]


def _along(garment: Garment, ref: EdgeRef, entry: SeamEdge) -> bool:
    """Whether an edge inside is walked backwards so as to run with a side of a seam."""
    mine, outer = garment.edge(ref), garment.edge(entry)
    with_it = (mine.end - mine.start).dot(outer.end - outer.start) >= 0
    return with_it == entry.back


def _begin(garment: Garment, ref: EdgeRef, *, back: bool) -> Point:
    edge = garment.edge(ref)
    return edge.end if back else edge.start


# ---- layer on layer ----


def _rims(
    garment: Garment, joins: list[Join], inner: Mapping[EdgeRef, list[EdgeRef]], parts: Mapping[str, str]
) -> Iterator[Join]:
    """Where layers end along one edge: sewn together and turned where the outside is free there, felled over its seam where it
    is not. A hem that hangs beside its lining has none; what is made up by itself is caught in the seam that it is sewn on by."""
    outside: dict[EdgeRef, Join] = {ref: join for join in joins if not join.layer and join.way == "seam" for ref in join.refs}
    inside = {ref for join in joins for ref in join.refs if join.layer}
    faced = {ref for join in joins if join.way == "rim" for ref in join.refs}
    for outer, found in inner.items():
        edge = garment.edge(outer)
        rows = [
            ref for ref in found
            if ref not in inside and edge.kind != "fold" and (edge.kind != "hem" or garment.piece(ref.piece).layer == "facing")
        ]  # fmt: skip
        felled = outer in outside or edge.kind == "opening" or outer in faced
        if not rows or (felled and all(ref.piece in parts for ref in rows)):
            continue
        chain = tuple(_side_by_side(garment, SeamEdge(*outer), rows))
        whole = sum(garment.edge(entry).length for entry in chain)
        for part in [chain] if whole <= edge.length + ENDS_NEAR else [(entry,) for entry in chain]:
            words = f"{_called(garment, part)} {'felled' if felled else 'sewn on'}"
            title = f"{garment.piece(outer.piece).title}, {edge_of('', edge.name).strip()}: {words}"
            layer = _layer(garment, part)
            yield Join(f"{part[0].piece}.{part[0].edge}", title, (SeamEdge(*outer),), part, "fell" if felled else "rim", layer)


def made_up(garment: Garment, joins: Iterable[Join]) -> dict[str, str]:
    """The parts that are lined all over and smaller than half of the outside: made up before they are sewn on. By the name of a
    piece, the part it belongs to."""
    inner = {piece.name: piece for piece in garment.pieces if piece.layer in INSIDE and piece.serves}
    pairs = [
        (join.pieces[0], name)
        for join in joins
        if join.layer and join.way == "seam" and all(row in inner for row in join.pieces)
        for name in join.pieces[1:]
    ]
    group = grouped(inner, pairs)
    whole = sum(piece.area * piece.weight() for piece in garment.shell)
    parts: dict[str, str] = {}
    for root in dict.fromkeys(group.values()):
        rows = [inner[name] for name, mine in group.items() if mine == root]
        names = {piece.serves for piece in rows}
        outer = [piece for piece in garment.shell if piece.name in names]
        area = sum(piece.area * piece.weight() for piece in outer)
        covered = sum(piece.area * piece.weight() for piece in rows)
        if outer and covered >= UNDER * area and area < whole / 2:
            parts.update({piece.name: root for piece in (*outer, *rows)})
    return parts
