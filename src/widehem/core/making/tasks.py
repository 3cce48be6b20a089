"""What is done besides sewing lines: necks stayed, what stiffens laid on, darts, pockets, closings, hems, edges left raw."""

from __future__ import annotations

import math
from collections.abc import Collection, Iterable, Iterator, Sequence
from typing import Literal

from widehem.core.geometry.points import angle_between
from widehem.core.making.joins import Join, Sewn, lowered, small
from widehem.core.making.rules import Before
from widehem.core.pattern.edge import Dart, Edge, Held
from widehem.core.pattern.garment import OPENING_WORDS, EdgeRef, Opening
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import ROLES
from widehem.core.units import Saying, say
from widehem.core.values import record

Kind = Literal[
    "stay", "stiffen", "dart", "strip", "pocket", "closing", "seam", "rim", "fell", "hem", "raw", "band", "fasten", "own"
]
STAYED = 20.0  # degrees that a neckline turns by from end to end, before it is stayed
HEMMED = ("hem", "faced")
STIFFENED = ("interfacing", "interlining", "underlining")


@record(frozen=True)
class Task:
    """Something that is done to pieces. pieces: by name; edges: that are lit; times: how often, on a whole garment."""

    id: str
    kind: Kind
    title: str
    pieces: tuple[str, ...]
    edges: tuple[EdgeRef, ...] = ()
    times: int = 1
    why: Saying = say("")


def tasks_of(sewn: Sewn) -> tuple[list[Task], list[Before]]:
    """The tasks of a garment besides its lines, and what each comes before or after."""
    tasks: list[Task] = []
    rules: list[Before] = []
    for part in (_stays, _stiffens, _darts, _insides, _closings, _hems, _bands, _raw):
        for task, before in part(sewn):
            tasks.append(task)
            rules += before
    return tasks, rules


Found = Iterator[tuple[Task, list[Before]]]


def _first(task: Task, joins: Iterable[Join], why: str, then: str) -> list[Before]:
    """A task that comes before lines."""
    return [Before(task.id, join.id, say(why), say(then)) for join in joins]


def _after(task: Task, joins: Iterable[Join], why: str, then: str) -> list[Before]:
    """A task that comes after lines. why: to whoever asks of a line; {} there is its name in then."""
    return [Before(join.id, task.id, say(why), say(then.format(lowered(join.title)))) for join in joins]


def _along(sewn: Sewn, *pieces: str, way: tuple[str, ...] = ("seam", "rim", "fell")) -> list[Join]:
    """The lines that any of these pieces is sewn by."""
    return [join for join in sewn.joins if join.way in way and set(join.pieces) & set(pieces)]


def _stays(sewn: Sewn) -> Found:
    pieces = []
    for piece in sewn.garment.shell:
        edges = [edge for edge in piece.edges if ROLES[edge.role].allowance == "neck" and edge.kind == "seam" and piece.balance]
        edges = [edge for edge in edges if edge.role == "neck" and _turns(edge) > STAYED]
        pieces += [EdgeRef(piece.name, edge.name) for edge in edges]
    if pieces:
        names = tuple(dict.fromkeys(ref.piece for ref in pieces))
        words = say("First of all: a neckline stretches as soon as it is handled.")
        task = Task("stay.neck", "stay", "Stay-stitch the neckline", names, tuple(pieces), why=words)
        yield (
            task,
            _first(
                task, _along(sewn, *names), "First of all: a neckline stretches as soon as it is handled.",
                "The neckline is stayed before the piece is handled.",
            ),
        )  # fmt: skip


def _turns(edge: Edge) -> float:
    """How far an edge turns from one end to the other, degrees."""
    return sum(angle_between(s.direction(0.0), s.direction(1.0)) for part in edge.parts for s in part.segments)


def _stiffens(sewn: Sewn) -> Found:
    names = {piece.name for piece in sewn.garment.pieces}
    why = "It goes on while the piece lies flat and alone."
    for piece in sewn.garment.pieces:
        rows: list[tuple[str, str, tuple[str, ...]]] = []
        if piece.layer == "interfacing":
            cloth = piece.cloths[0].cloth if piece.cloths else "interfacing"
            outer = piece.serves if piece.serves in names else ""
            title = f"{cloth.capitalize()} on: {sewn.title_of(outer) if outer else piece.title}"
            rows.append((f"{piece.name}.on", title, (outer, piece.name) if outer else (piece.name,)))
        rows += [
            (f"{piece.name}.{cloth.cloth}", f"{cloth.cloth.capitalize()} on: {piece.title}", (piece.name,))
            for cloth in piece.cloths
            if cloth.cloth in STIFFENED and piece.layer != "interfacing"
        ]
        for name, title, pieces in rows:
            task = Task(name.replace(" ", "_"), "stiffen", title, pieces, times=_times(piece), why=say(why))
            yield (
                task,
                _first(
                    task,
                    _along(sewn, pieces[0]),
                    "First, while the piece lies flat and alone.",
                    f"It goes on first: {lowered(title)}.",
                ),
            )


def _times(piece: Piece) -> int:
    return piece.weight() if piece.stands != "fold" else 1


def _darts(sewn: Sewn) -> Found:
    for piece in sewn.garment.pieces:
        rows: dict[str, list[Edge]] = {}
        for edge in piece.edges:
            for gap in edge.gaps:
                kind = "Darts" if isinstance(gap, Dart) and gap.sewn is None else "Pleats and tucks"
                rows.setdefault("Eased in" if isinstance(gap, Held) else kind, []).append(edge)
        if piece.diamonds:
            rows.setdefault("Darts", [])
        for words, edges in rows.items():
            refs = tuple(dict.fromkeys(EdgeRef(piece.name, edge.name) for edge in edges))
            name = f"{piece.name}.{words.split()[0].lower()}"
            why = say("Darts before seams: an edge must be whole before it is sewn to another.")
            task = Task(name, "dart", f"{words}: {piece.title}", (piece.name,), refs, _times(piece), why)
            mine = [join for join in sewn.joins if any(ref in join.refs for ref in refs)]
            diamonds = _along(sewn, piece.name, way=("rim", "fell")) if piece.diamonds else []
            yield (
                task,
                _first(
                    task, {join.id: join for join in (*mine, *diamonds)}.values(),
                    "First, because the edge it lies in must be whole before it is sewn.",
                    f"They lie in its edge and come first: {lowered(task.title)}.",
                ),
            )  # fmt: skip


def _insides(sewn: Sewn) -> Found:
    """Pieces that no line holds: pockets, plackets and flies on the piece they serve, straps and loops by themselves."""
    names = {piece.name for piece in sewn.garment.pieces}
    held = {name for join in sewn.joins for name in join.pieces}
    groups: dict[str, list[Piece]] = {}
    for piece in sewn.garment.pieces:
        if piece.layer == "interfacing" or piece.name in held:
            continue
        if piece.serves in names and piece.layer == "inside":
            groups.setdefault(piece.serves, []).append(piece)
            continue
        words = "Make up" if piece.layer == "inside" else "Prepare"
        why = say("Small parts by themselves, before there is much to carry to the machine.")
        yield Task(f"{piece.name}.made", "strip", f"{words}: {piece.title}", (piece.name,), (), _times(piece), why), []
    for outer, pieces in groups.items():
        closing = [piece for piece in pieces if _behind_opening(sewn, piece)]
        rest = [piece for piece in pieces if piece not in closing]
        if rest:
            yield _set_on(sewn, outer, rest)


def _behind_opening(sewn: Sewn, piece: Piece) -> bool:
    """Whether a piece belongs to the closing of an opening: it is cut once, and serves a piece that opens."""
    return piece.stands == "once" and any(
        ref.piece == piece.serves
        for opening in sewn.garment.openings
        if opening.length > 0
        for ref in _opening_edges(sewn, opening)
    )


def _set_on(sewn: Sewn, outer: str, pieces: list[Piece]) -> tuple[Task, list[Before]]:
    words = " and ".join(dict.fromkeys(lowered(piece.title) for piece in pieces))
    names = (outer, *(piece.name for piece in pieces))
    why = "On the flat piece, before it is closed."
    task = Task(f"{outer}.pocket", "pocket", f"{words[:1].upper()}{words[1:]}", names, (), _times(pieces[0]), say(why))
    marked = [
        EdgeRef(outer, edge.name)
        for edge in sewn.garment.piece(outer).edges
        if any(notch.name.startswith("pocket") for notch in edge.notches)
    ]
    mine = [join for join in sewn.joins if join.way != "seam" and outer in join.pieces and not join.twin]
    mine += [join for join in sewn.joins if any(ref in join.refs for ref in marked)]
    then = f"The {words} is set on while the piece lies flat."
    return task, _first(task, {join.id: join for join in mine}.values(), "First, while the piece lies flat.", then)


def _closings(sewn: Sewn) -> Found:
    """What closes each opening: set in when the seams that cross it are sewn; buttons, hooks and laces when its edges are
    finished."""
    garment = sewn.garment
    for number, opening in enumerate(garment.openings, 1):
        if opening.length <= 0:
            continue
        rows = _opening_edges(sewn, opening)
        by = (opening.by or "a zip").removeprefix("a ")
        zipped, where = "zip" in by, OPENING_WORDS[opening.at]
        on = {ref.piece for ref in rows}
        behind = [
            piece for piece in garment.pieces if piece.layer == "inside" and piece.serves in on and piece.stands == "once"
        ]
        names = tuple(dict.fromkeys((*(ref.piece for ref in rows), *(piece.name for piece in behind))))
        if zipped or behind:
            what = " and ".join(dict.fromkeys([*([by] if zipped else []), *(lowered(piece.title) for piece in behind)]))
            yield _set_in(sewn, Task(
                f"closing.{number}", "closing", f"{what[:1].upper()}{what[1:]}, {where}", names, tuple(rows),
                why=say("As soon as what crosses the opening is sewn: it goes in easiest while the piece lies flat."),
            ))  # fmt: skip
        if not zipped:
            task = Task(
                f"fasten.{number}", "fasten", f"{by[:1].upper()}{by[1:]}, {where}", tuple(dict.fromkeys(ref.piece for ref in rows)),
                tuple(rows), why=say("Last: on edges that are finished."),
            )  # fmt: skip
            mine = [
                join for join in sewn.joins if any(ref in join.refs for ref in rows) and not join.layer and join.way == "seam"
            ]
            late = [*mine, *_crossing(sewn, rows), *_along(sewn, *task.pieces, way=("rim", "fell"))]
            yield (
                task,
                _after(
                    task, {join.id: join for join in late}.values(), "First: an edge is finished before it is fastened.",
                    "An edge is finished before it is fastened: {} comes first.",
                ),
            )  # fmt: skip


def _opening_edges(sewn: Sewn, opening: Opening) -> list[EdgeRef]:
    """The edges of the outside that an opening lies in."""
    if opening.at == "side":
        return [ref for join in sewn.joins if not join.layer for ref in join.refs if sewn.garment.edge(ref).role == "side"]
    part = opening.at.removeprefix("centre_")
    return [
        EdgeRef(piece.name, edge.name)
        for piece in sewn.garment.shell
        for edge in piece.edges
        if edge.role == opening.at or (piece.of == part and edge.role in ("front_edge", "crotch"))
    ]


def _set_in(sewn: Sewn, task: Task) -> tuple[Task, list[Before]]:
    """What is set into an opening comes after the lines that the opening runs on over, and before what is sewn over its end."""
    rows = set(task.edges)
    over = [
        join for join in _crossing(sewn, task.edges) if join.way == "seam" and not join.layer and _both_ends(sewn, join, rows)
    ]
    before = _after(
        task,
        over,
        f"First, because the opening runs on over it: {lowered(task.title)}.",
        "The opening runs on over this, which comes first: {}.",
    )
    known = {join.id for join in over}
    ends = [join for join in _crossing(sewn, task.edges) if join.id not in known and not join.twin]
    ends += [join for join in sewn.joins if join.way in ("rim", "fell") and rows & set(join.refs)]
    ends = [join for join in ends if join.way != "seam" or _on_band(sewn, join)]
    then = f"It is sewn over the end of this, which comes first: {lowered(task.title)}."
    return task, [*before, *_first(task, {j.id: j for j in ends}.values(), "First, because this is sewn over its end.", then)]


def _both_ends(sewn: Sewn, join: Join, rows: set[EdgeRef]) -> bool:
    """Whether an opening runs on over a line: on both its sides."""
    for at_end in (False, True):
        corners = [sewn.corner(chain, at_end=at_end) for chain in (join.first, join.second)]
        if all(EdgeRef(corner.piece.name, corner.beyond.name) in rows for corner in corners):
            return True
    return False


def _on_band(sewn: Sewn, join: Join) -> bool:
    """Whether a line sews a band, a collar or the like to an edge."""
    return any(small(sewn.garment.piece(name)) for name in join.pieces)


def _crossing(sewn: Sewn, rows: Collection[EdgeRef]) -> list[Join]:
    """The lines that end at these edges."""
    found = {join.id: join for ref in rows for join, _ in sewn.beyond.get(ref, ()) if join.way != "fell"}
    return [join for join in found.values() if not any(ref in join.refs for ref in rows)]


def _hems(sewn: Sewn) -> Found:
    """A hem for each layer and part, when every seam that ends in it is sewn."""
    groups: dict[tuple[bool, str, str], list[EdgeRef]] = {}
    joined = {ref for join in sewn.joins for ref in join.refs}
    for piece in sewn.garment.pieces:
        if piece.layer == "interfacing":
            continue
        for edge in piece.edges:
            ref = EdgeRef(piece.name, edge.name)
            if edge.kind in HEMMED and ref not in joined and edge.role not in ("pocket", "band"):
                limb = ROLES[edge.role].allowance == "sleeve_hem"
                groups.setdefault((limb, piece.layer, sewn.parts.get(piece.name, "")), []).append(ref)
    alone = sum(layer == "shell" and not limb for limb, layer, _ in groups) == 1
    for (limb, layer, _), refs in groups.items():
        pieces = tuple(dict.fromkeys(ref.piece for ref in refs))
        where = (
            ""
            if alone and not limb and layer == "shell"
            else f": {together([lowered(sewn.title_of(name)) for name in pieces])}"
        )
        task = Task(
            f"hem.{refs[0].piece}.{refs[0].edge}", "hem", f"Hem{where}", pieces, tuple(refs),
            why=say("When every seam that ends in it is sewn: a hem is one line."),
        )  # fmt: skip
        yield (
            task,
            _after(
                task, _crossing(sewn, refs), "First, because the hem runs over its end.",
                "This ends in the hem and comes first: {}.",
            ),
        )  # fmt: skip


def together(titles: Sequence[str]) -> str:
    """What pieces are called together: by the words their titles have in common, or one after the other."""
    parts = [title.split(", ") for title in titles]
    shared = [word for word in parts[0] if all(word in other for other in parts)]
    return ", ".join(shared) if shared else ", ".join(titles[:-1]) + (" and " if len(titles) > 1 else "") + titles[-1]


def _bands(sewn: Sewn) -> Found:
    """Bands, cuffs and collars that are folded double or lined: turned, and their inner edge closed, when they are sewn on."""
    names = {piece.serves for piece in sewn.garment.pieces if piece.layer in ("facing", "lining")}
    for piece in sewn.garment.shell:
        on = [join for join in sewn.joins if piece.name in join.pieces and join.way == "seam" and not join.layer]
        free = [edge for edge in piece.edges if edge.role in ("band", "lap") and edge.kind == "seam"]
        free = [edge for edge in free if EdgeRef(piece.name, edge.name) not in sewn.at]
        if not on or not free or not small(piece) or piece.name in names:
            continue
        refs = tuple(EdgeRef(piece.name, edge.name) for edge in free)
        task = Task(
            f"{piece.name}.turned", "band", f"{'Turn and close' if piece.lines else 'Finish the free edges'}: {piece.title}",
            (piece.name,), refs, _times(piece),
            say("When it is sewn on: its inner edge is laid over that seam." if piece.lines else "When it is sewn on."),
        )  # fmt: skip
        yield (
            task,
            _after(task, on, "First: what is sewn on is finished over it.", "It is finished over this, which comes first: {}."),
        )


def _raw(sewn: Sewn) -> Found:
    """Edges of the outside that nothing is sewn to and that are no hem: turned in or bound, so that none is forgotten."""
    groups: dict[str, list[EdgeRef]] = {}
    for piece in sewn.garment.shell:
        if not piece.balance and not any(edge.role == "waist_seam" for edge in piece.edges):
            continue
        for edge in piece.edges:
            ref = EdgeRef(piece.name, edge.name)
            opens = any(o.at == edge.role for o in sewn.garment.openings)
            if edge.kind in ("seam", "slit", "opening") and ref not in sewn.at and not (opens and edge.kind == "opening"):
                groups.setdefault(edge.role, []).append(ref)
    for role, refs in groups.items():
        words = ROLES[role].words
        pieces = tuple(dict.fromkeys(ref.piece for ref in refs))
        task = Task(
            f"raw.{role}", "raw", f"Turn in or bind: {words}", pieces, tuple(refs),
            why=say("Nothing is sewn to this edge. It is finished when the seams that end in it are sewn."),
        )  # fmt: skip
        yield (
            task,
            _after(
                task, _crossing(sewn, refs), "First, because this edge is finished over its end.",
                "This ends in the edge and comes first: {}.",
            ),
        )  # fmt: skip


def length_of(sewn: Sewn, task: Task) -> float:
    """How much edge a task works along, cm."""
    return math.fsum(sewn.garment.edge(ref).length for ref in task.edges)
