"""What was cut or pinned in the cloth brought back to the paper: an edge moved by what was measured along it."""

from __future__ import annotations

import re
from collections.abc import Sequence
from fractions import Fraction

import numpy as np

from widehem.core.altering.asked import planned_anew
from widehem.core.altering.halves import HAND, Gathered, Half, changed, cornered, parted, wanted
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.spline import spline
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.garment import EdgeRef, Garment, SeamEdge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, FRONT, ROLES, plain
from widehem.core.setting.option import Choice, Option
from widehem.core.shifting.spots import CORNERS, Target
from widehem.core.style.asks import all_of, notches_left
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import Saying, say
from widehem.core.values import replace

MOVES = "moves"
CALM = 0.1  # cm that a measured line may be moved so that it does not wave
MOST, FAR, LEAST, EVERY = (
    40,
    6.0,
    0.3,
    2.5,
)  # places at most; cm out at most, between two places at least, between two nodes of the new line
STILL = 1e-3  # cm out that is nothing
END = 0.6  # cm: what is measured so near an end is that end
EDGES = ("armhole", "neck", "side", "waist", "hem", "shoulder", "centre_back", "inseam", "crotch", "cap")
EDGE = Option("edge", "Which edge", "choice", "armhole", "the edge that was cut or pinned in the cloth",
    choices=tuple(Choice(code, ROLES[code].words) for code in EDGES))  # fmt: skip
PART = Option("part", "Of", "choice", BACK, "which piece",
    choices=(Choice(BACK, "the back"), Choice(FRONT, "the front"), Choice("sleeve", "the sleeve")))  # fmt: skip
_FIGURE = r"\d+(?:[.,]\d+|/[1-9]\d*)?"
_PAIR = re.compile(rf"^\s*({_FIGURE})\s*(?::|\s)\s*([+-]?{_FIGURE})\s*$")


def read_moves(text: str, factor: float = 1.0) -> list[tuple[float, float]]:
    """'0 0.2; 3 1/2; 6 0.4' as places along the edge and how far out of the old line, cm. factor: cm of the unit it was written in. Raises
    ValueError with a sentence."""
    found = []
    for part in filter(str.strip, re.split(r"[;\n]", text)):
        pair = _PAIR.match(part.replace("−", "-"))
        if pair is None:
            raise ValueError(
                f'"{part.strip()[:30]}" is no place: write how far along the edge and how far out, like 6 0.4; parts end with ;'
            )
        along, out = (float(Fraction(figure.replace(",", "."))) * factor for figure in pair.groups())
        found.append((along, out))
    if not found:
        raise ValueError("Nothing was measured: write how far along the edge and how far out, like 0 0.2; 3 0.5; 6 0.4.")
    return found


def moves_words(moves: Sequence[tuple[float, float]]) -> str:
    """As they are kept, in cm."""
    return "; ".join(f"{along:.2f} {out:.2f}" for along, out in moves)


@operation(
    "alter.cut", "alterations", "Cut in the cloth", "what was cut or pinned along an edge of the toile, measured at places along it, is drawn on the paper",
    options=(EDGE, PART, HAND), names={MOVES: "how far along the edge and how far out of the old line, from its start: 0 0.2; 3 0.5; 6 0.4"},
    phase="block",
)  # fmt: skip
def cut(job: Job) -> Change:
    """The edge through the measured places, calmed so that it does not wave; its ends slide along their neighbours, and what is sewn to
    those is cut alike."""
    garment, role, part = parted(job), job.choice("edge"), job.choice("part")
    found = wanted(garment, f"{plain(role)} of the {plain(part)}", role, part=part, hand=job.choice("hand"))
    try:
        moves = sorted(read_moves(job.names.get(MOVES, "")))
    except ValueError as error:
        raise CannotStyle(say(str(error)) + _begins(found[0], role)) from None
    said, refs = [], []
    for half in found:
        edge = half.edge(role)
        assert edge is not None
        garment = _moved(garment, half.piece, edge, _looked_at(edge, moves))
        refs.append(EdgeRef(half.piece.name, edge.name))
        most = max(abs(out) for _, out in moves)
        words = f"The {ROLES[role].words} of the {plain(half.piece.name)} runs through {len(moves)} measured places, {{0}} off at the most."
        said += [say(words, most), _begins(half, role)]
    now = cornered(job.garment, garment, *(() if role == "shoulder" else ("neck",)))
    levels = ("bust", "waist", "hip", "thigh", "knee")
    return changed(
        job,
        now,
        said=tuple(said),
        asks=all_of(planned_anew(job.garment, now, *levels), notches_left(*refs)),
        stale=("facing", "cap"),
    )


def _begins(half: Half, role: str) -> Saying:
    """Where an edge is measured from, and how long it is."""
    edge = half.edge(role)
    assert edge is not None
    before = half.piece.beside(edge.name)[0]
    corner = CORNERS.get(frozenset((before.role, edge.role)), f"end at the {ROLES[before.role].words}")
    return say(f"It is measured from the {corner} and is {{0}} long.", edge.length)


def _looked_at(edge: Edge, moves: Sequence[tuple[float, float]]) -> list[tuple[float, float]]:
    """The places that were measured. Raises CannotStyle for one that cannot be."""
    if edge.gaps:
        raise CannotStyle(say(f"A dart lies in the {plain(edge.name)}: it is moved by its own alterations."))
    if len(moves) > MOST:
        raise CannotStyle(say(f"{len(moves)} places are more than an edge takes: {MOST} at most."))
    for number, (along, out) in enumerate(moves):
        if along > edge.length + END:
            raise CannotStyle(say("The edge is {0} long: there is no place {1u} along it.", edge.length, along))
        if abs(out) > FAR:
            raise CannotStyle(say("{0u} out is more than is cut into a seam: {1u} at most; draw it anew.", out, FAR))
        if number and along - moves[number - 1][0] < LEAST:
            raise CannotStyle(say("Two places lie {0u} apart: {1u} at least.", along - moves[number - 1][0], LEAST))
    return list(moves)


def calmed(outs: Sequence[float], most: float = CALM) -> list[float]:
    """Measured figures moved as little as makes their second differences least: by `most` on average at the most, cm."""
    count = len(outs)
    if count < 4:
        return list(outs)
    given = np.asarray(outs, dtype=float)
    bends = np.zeros((count - 2, count))
    for row in range(count - 2):
        bends[row, row : row + 3] = (1.0, -2.0, 1.0)
    stiff, unit = bends.T @ bends, np.eye(count)
    low, high = 0.0, 1e4
    for _ in range(40):
        weight = (low + high) / 2
        found = np.linalg.solve(unit + weight * stiff, given)
        low, high = (weight, high) if float(np.sqrt(np.mean((found - given) ** 2))) < most else (low, weight)
    return [float(value) for value in np.linalg.solve(unit + low * stiff, given)]


def _moved(garment: Garment, piece: Piece, edge: Edge, moves: Sequence[tuple[float, float]]) -> Garment:
    """The garment with the edge through these places. Ends that were not measured stay."""
    long = edge.length
    rows = [(0.0, 0.0), *moves] if moves[0][0] > END else [(0.0, moves[0][1]), *moves[1:]]
    rows = [*rows, (long, 0.0)] if rows[-1][0] < long - END else [*rows[:-1], (long, rows[-1][1])]
    outs = calmed([out for _, out in rows])
    outs[0], outs[-1] = rows[0][1], rows[-1][1]
    return moved_out(garment, piece, edge, [(along, out) for (along, _), out in zip(rows, outs, strict=True)])


def moved_out(garment: Garment, piece: Piece, edge: Edge, moves: Sequence[tuple[float, float]]) -> Garment:
    """The garment with an edge through places so far along it and so far out of it, cm, from its start to its end. Its ends slide along
    their neighbours, and what is sewn to those is as much longer."""
    long, xs, outs = edge.length, [along for along, _ in moves], [out for _, out in moves]
    gathered = Gathered(garment)
    half = Half(piece)
    ends = _ends(piece, edge, outs[0], outs[-1])
    for target, move in ends.items():
        gathered.put(half, target, move)
    for other, target, move in _partners(garment, piece, edge, outs[0], outs[-1]):
        gathered.put(Half(other), target, move)
    moved = gathered.done() if any(m.size > 1e-9 for found in gathered.shifts.values() for m in found.values()) else garment
    mine = moved.piece(piece.name)
    old = mine.edge(edge.name)
    moving = [number for number, out in enumerate(outs) if abs(out) > STILL] or [0]
    first, last = xs[max(moving[0] - 1, 0)], xs[min(moving[-1] + 1, len(xs) - 1)]
    whole = edge.parts[0]
    begins, ends_at = first > END, last < long - END  # whether it stays as it is before and behind
    first, last = first if begins else 0.0, last if ends_at else long
    count = max(int((last - first) / EVERY), 3)
    spots = [whole.place(first).point if begins else old.start]
    for along in (first + (last - first) * n / count for n in range(1, count)):
        place = edge.place(along)
        spots.append(place.point + piece.outward(place.direction) * float(np.interp(along, xs, outs)))
    spots.append(whole.place(last).point if ends_at else old.end)
    path = Path(tuple(spline(spots, whole.place(first).direction, whole.place(last).direction)))
    grew, ratio = path.length - (last - first), path.length / (last - first)
    path = whole.cut(first)[0] + path if begins else path
    path = path + whole.cut(last)[1] if ends_at else path

    def carried(along: float) -> float:
        return along if along < first else along + grew if along > last else first + (along - first) * ratio

    notches = tuple(replace(n, along=carried(n.along)) for n in edge.notches)
    return moved.with_piece(mine.with_edge(replace(edge, parts=(path,), notches=notches, corners=())))


def _ends(piece: Piece, edge: Edge, first: float, last: float) -> dict[Target, Point]:
    """How the ends of an edge move: along their neighbours, so that these only get longer or shorter."""
    before, after = piece.beside(edge.name)
    return {
        Target("corner", edge.name): before.arriving * first,
        Target("corner", after.name): -after.leaving * last,
    }


def _partners(garment: Garment, piece: Piece, edge: Edge, first: float, last: float) -> list[tuple[Piece, Target, Point]]:
    """The corners of what is sewn to the neighbours: as much longer or shorter."""
    before, after = piece.beside(edge.name)
    found = []
    for neighbour, at_end, by in ((before, True, first), (after, False, last)):
        if abs(by) < 1e-9:
            continue
        for seam, mine, other in garment.seams_at(EdgeRef(piece.name, neighbour.name)):
            if seam.twin or seam.faced or len(mine) != 1 or len(other) != 1:
                continue
            entry: SeamEdge = other[0]
            partner = garment.piece(entry.piece)
            sewn = partner.edge(entry.edge)
            ends_there = (at_end != mine[0].back) != entry.back  # whether the partner's edge ends where ours does
            if ends_there:
                found.append((partner, Target("corner", partner.beside(sewn.name)[1].name), sewn.arriving * by))
            else:
                found.append((partner, Target("corner", sewn.name), -sewn.leaving * by))
    return found
