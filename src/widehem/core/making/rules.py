"""What must come before what: a line can be sewn when each of its two sides is one continuous edge."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import field
from itertools import pairwise

from widehem.core.making.joins import Join, Sewn, grouped, lowered
from widehem.core.pattern.closed import POINTED, Corner
from widehem.core.pattern.garment import EdgeRef, SeamEdge
from widehem.core.units import Saying, say
from widehem.core.values import record


@record(frozen=True)
class Before:
    """One thing comes before another. why: to whoever asks of the first; then: to whoever asks of the second."""

    first: str
    second: str
    why: Saying
    then: Saying


@record(frozen=True)
class Cross:
    """Two lines that end on both sides of a third, and run on over it: all of them before it, or all of them after it."""

    over: str
    ends: tuple[str, str]


@record(frozen=True)
class Rules:
    """before: fixed. crosses: one way round or the other. on: lines that run on into each other. straps: lines that close a strap
    whose both rims are turned with their lining, left to the last."""

    before: tuple[Before, ...]
    crosses: tuple[Cross, ...]
    on: tuple[tuple[str, str], ...]
    straps: tuple[str, ...] = ()


@record(frozen=True)
class _Found:
    before: dict[tuple[str, str], Before] = field(default_factory=dict)
    crosses: dict[Cross, None] = field(default_factory=dict)
    on: dict[frozenset[str], None] = field(default_factory=dict)

    def put(self, first: str, second: str, why: Saying, then: Saying) -> None:
        if first != second:
            self.before.setdefault((first, second), Before(first, second, why, then))


def rules_of(sewn: Sewn) -> Rules:
    """What follows from the corners of all lines of a garment."""
    found = _Found()
    for join in sewn.joins:
        if join.way == "fell":
            continue
        for chain in join.sides:
            for before, after in pairwise(chain):
                _within(sewn, join, before, after, found)
        for at_end in (False, True):
            _at_corner(sewn, join, at_end, found)
        _ring(sewn, join, found)
    for join in sewn.joins:
        if join.way == "fell":
            _felled(sewn, join, found)
    straps = _straps(sewn, found)
    return Rules(
        tuple(found.before.values()),
        tuple(found.crosses),
        tuple((min(pair), max(pair)) for pair in found.on if len(pair) == 2),
        straps,
    )


def runs_over(first: Join, second: Join) -> tuple[Saying, Saying]:
    """Why a line comes before one that runs over its end."""
    why = say(f"First, because this runs over its end: {lowered(second.title)}.")
    return why, say(f"This ends there and comes first: {lowered(first.title)}. What runs over it must be one line.")


def _within(sewn: Sewn, join: Join, before: SeamEdge, after: SeamEdge, found: _Found) -> None:
    """Where a side passes from one piece to the next, what joins them there comes first."""
    if before.piece == after.piece and _follow(sewn, before, after):
        return
    one = sewn.corner((before,), at_end=True)
    two = sewn.corner((after,), at_end=False)
    mine, other = _at(sewn, one, join), _at(sewn, two, join)
    both = [row for row in mine if row in other]
    for row in both or [*mine, *other]:
        found.put(row.id, join.id, *runs_over(row, join))


def _follow(sewn: Sewn, before: SeamEdge, after: SeamEdge) -> bool:
    """Whether two edges of one piece follow each other round it."""
    ends = [sewn.garment.edge(before), sewn.garment.edge(after)]
    end = ends[0].start if before.back else ends[0].end
    start = ends[1].end if after.back else ends[1].start
    return end.to(start) < 0.01


def _at(sewn: Sewn, corner: Corner, join: Join) -> list[Join]:
    """The lines along the edge beyond a corner."""
    rows = sewn.at.get(EdgeRef(corner.piece.name, corner.beyond.name), [])
    return [row for row in rows if row.id != join.id]


def _at_corner(sewn: Sewn, join: Join, at_end: bool, found: _Found) -> None:
    one = sewn.corner(join.first, at_end=at_end)
    two = one if join.twin else sewn.corner(join.second, at_end=at_end)
    mine, other = _at(sewn, one, join), _at(sewn, two, join)
    if join.twin:
        for row in mine:
            if row.twin:
                found.on[frozenset((join.id, row.id))] = None
            elif _over_middle(sewn, row, one):
                found.put(join.id, row.id, *runs_over(join, row))
        return
    both = [row for row in mine if row in other]
    for row in both:
        if _opposite(row, one, two):
            found.on[frozenset((join.id, row.id))] = None
    if both:
        return
    for a, corner, opposite, others in [*((a, one, two, other) for a in mine), *((b, two, one, mine) for b in other)]:
        if opposite.beyond.kind == "fold":
            found.put(a.id, join.id, *runs_over(a, join))
            continue
        if opposite.angle < POINTED:  # it has a corner there itself: no line of it runs on
            continue
        landing = _landing(sewn, a, corner)
        for row in others:
            if landing in row.refs:
                found.put(a.id, join.id, *runs_over(a, join))
                found.put(a.id, row.id, *runs_over(a, row))
                found.on[frozenset((join.id, row.id))] = None
    for a in mine:
        for b in other:
            if (a.id, join.id) not in found.before and (b.id, join.id) not in found.before:
                found.crosses[Cross(join.id, (a.id, b.id))] = None


def _opposite(row: Join, one: Corner, two: Corner) -> bool:
    """Whether two edges beyond a corner lie on the two sides of a line, which then runs on from the corner."""
    first, second = ({entry.ref for entry in chain} for chain in (row.first, row.second))
    a, b = (EdgeRef(corner.piece.name, corner.beyond.name) for corner in (one, two))
    return row.twin or (a in first and b in second) or (b in first and a in second)


def _landing(sewn: Sewn, a: Join, corner: Corner) -> EdgeRef | None:
    """Crossing a line at a corner, the edge one comes upon beyond it; None where the line does not end there."""
    edge = corner.beyond
    for mine, other in ((a.first, a.second), (a.second, a.first)):
        for at_end in (False, True):
            entry = mine[-1 if at_end else 0]
            if (entry.piece, entry.edge) != (corner.piece.name, edge.name) or (at_end == entry.back) != corner.starts:
                continue
            if a.twin:
                return None
            beyond = sewn.corner(other, at_end=at_end)
            return EdgeRef(beyond.piece.name, beyond.beyond.name)
    return None


def _over_middle(sewn: Sewn, row: Join, corner: Corner) -> bool:
    """Whether a line that ends where a middle seam does has a fold on its other side: it runs over the middle in one."""
    for mine, other in ((row.first, row.second), (row.second, row.first)):
        for at_end in (False, True):
            here = sewn.corner(mine, at_end=at_end)
            if here.piece.name == corner.piece.name and mine[-1 if at_end else 0].edge == corner.beyond.name:
                return sewn.corner(other, at_end=at_end).beyond.kind == "fold"
    return False


def _ring(sewn: Sewn, join: Join, found: _Found) -> None:
    """An edge whose two ends are sewn to each other is a ring: what is open itself is sewn round it when it is closed."""
    if join.twin:
        return
    for mine, other in ((join.first, join.second), (join.second, join.first)):
        ends = [sewn.corner(mine, at_end=at_end) for at_end in (False, True)]
        rows = [row for row in _at(sewn, ends[0], join) if row in _at(sewn, ends[1], join)]
        bare = [sewn.corner(other, at_end=at_end) for at_end in (False, True)]
        if rows and not any(_at(sewn, corner, join) for corner in bare):
            for row in rows:
                found.put(
                    row.id, join.id, say(f"First, because it closes the ring for this: {lowered(join.title)}."),
                    say(f"It goes round a ring, which this closes first: {lowered(row.title)}."),
                )  # fmt: skip


def _felled(sewn: Sewn, join: Join, found: _Found) -> None:
    """What is felled by hand lies over seams, of the outside and of its own layer, that are there."""
    outer, inner = join.first[0], join.second[0]
    over = [row for row in sewn.joins if outer.ref in row.refs and row.id != join.id and row.way != "fell"]
    own = [row for row in sewn.joins if row.layer and row.way != "fell" and inner.piece in row.pieces]
    for row in (*over, *own):
        found.put(
            row.id, join.id, say(f"First, because what is felled by hand there lies over it: {lowered(join.title)}."),
            say(f"It is felled by hand over this, which is sewn first: {lowered(row.title)}."),
        )  # fmt: skip


# ---- straps ----


def _straps(sewn: Sewn, found: _Found) -> tuple[str, ...]:
    """The shortest line that closes a strap between two rims that are turned with their lining: while it is open, the strap can be
    turned through it."""
    rims = {join.id for join in sewn.joins if join.way == "rim"}
    alone = _united(sewn, rims)
    lengths: dict[str, float] = {}
    lines: dict[str, tuple[tuple[Join, ...], set[str]]] = {}
    for line in _lines(sewn, found):
        inside = [row for row in sewn.joins if row.layer and row.like in {join.id for join in line}]
        ends = _ends(found, line, rims)
        if not inside or len(ends) != 2 or {alone[rim] for rim in ends[0]} & {alone[rim] for rim in ends[1]}:
            continue
        name = line[0].id
        lengths[name] = sum(sewn.length(join) for join in line)
        lines[name] = (*line, *inside), ends[0] | ends[1]
    if not lengths:
        return ()
    strap = [name for name, length in lengths.items() if length < min(lengths.values()) + ALIKE]
    whole: dict[str, None] = {}
    for name in strap:
        line, over = lines[name]
        words = " and ".join(lowered(join.title.split(",")[0]) for join in line if not join.layer)
        for join in line:
            whole[join.id] = None
            for rim in sorted(over):
                found.put(
                    rim, join.id, say(f"First, because it is turned through the open {words}."),
                    say("Last of the seams: both rims of this strap are sewn to the lining and turned through it while it is open. "
                        "It is the shortest seam that ends at both."),
                )  # fmt: skip
    return tuple(whole)


ALIKE = 0.5  # cm: two straps whose lengths differ by less are both left to the last


def _lines(sewn: Sewn, found: _Found) -> Iterator[tuple[Join, ...]]:
    """The lines of the outside, those that run on into each other as one."""
    outer = {join.id: join for join in sewn.joins if join.way == "seam" and not join.layer and not join.twin}
    group = grouped(outer, ((min(pair), max(pair)) for pair in found.on))
    rows: dict[str, list[Join]] = {}
    for name, join in outer.items():
        rows.setdefault(group[name], []).append(join)
    yield from (tuple(row) for row in rows.values())


def _ends(found: _Found, line: Iterable[Join], rims: set[str]) -> list[set[str]]:
    """The rims at each end of a line, where rims on both its sides end there."""
    mine = {join.id for join in line}
    ends: list[set[str]] = []
    for cross in found.crosses:
        here = set(cross.ends)
        if cross.over in mine and here <= rims:
            near = next((end for end in ends if end & here), None)
            if near is None:
                ends.append(here)
            else:
                near |= here
    return ends


def _united(sewn: Sewn, rims: set[str]) -> Mapping[str, str]:
    """Rims that run on into each other round a corner of one piece, as one."""
    by_edge = {ref: join.id for join in sewn.joins if join.id in rims for ref in join.refs}
    pairs: list[tuple[str, str]] = []
    for piece in sewn.garment.shell:
        for edge, after in piece.corners():
            one, two = (by_edge.get(EdgeRef(piece.name, e.name)) for e in (edge, after))
            if one and two and one != two:
                pairs.append((one, two))
    return grouped(rims, pairs)
