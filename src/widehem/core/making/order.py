"""The order of work: everything once, what must come first before, flat before round, small parts before large ones."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from widehem.core.making.joins import Join, small
from widehem.core.making.plan import Work, blocked
from widehem.core.pattern.roles import ROLES
from widehem.core.values import record

STAGES = {
    "stay": 0.0, "stiffen": 1.0, "dart": 2.0, "strip": 3.0, "pocket": 3.5, "seam": 5.0, "closing": 4.9, "band": 5.9, "rim": 6.0,
    "raw": 7.0, "hem": 8.0, "fell": 9.0, "fasten": 10.0,
}  # fmt: skip
PART, RIM_OF_PART, SET_IN, BAND, INSIDE = (
    4.0,
    4.5,
    5.6,
    5.7,
    5.8,
)  # made up by itself; a sleeve set in round; bands; what has no like outside
EASED = 0.06  # of its length that is eased in: a sleeve head with more is set in round
MOST_TURNS = 4000


class Key(NamedTuple):
    """How soon something is done: the stage; whether it runs on over what is still to be sewn, or is a seam to fit by; whether
    it closes a round; how large what it makes is, how long it is."""

    stage: float
    late: int
    round: bool
    size: float
    long: float
    place: int


@record(frozen=True)
class _Parts:
    """What is sewn together so far: pieces as they lie on the body, left and right by themselves. Areas in square centimetres."""

    group: dict[str, str]
    areas: dict[str, float]

    def root(self, name: str) -> str:
        while self.group[name] != name:
            name = self.group[name]
        return name

    def joined(self, ties: Sequence[tuple[str, str]]) -> tuple[bool, float]:
        """Whether ties would only close rounds; and the area of what they make."""
        roots = {self.root(name) for tie in ties for name in tie}
        merges = any(self.root(a) != self.root(b) for a, b in ties)
        return not merges, sum(self.areas[root] for root in roots)

    def tie(self, ties: Sequence[tuple[str, str]]) -> None:
        for a, b in ties:
            one, two = self.root(a), self.root(b)
            if one != two:
                self.group[one] = two
                self.areas[two] += self.areas[one]

    def copy(self) -> _Parts:
        return _Parts(dict(self.group), dict(self.areas))


class _Fixed(NamedTuple):
    """What never changes about something that is done."""

    join: Join | None
    stage: float
    long: float
    place: int


@record(frozen=True)
class _Desk:
    """What is looked at again and again. fitted: seams to fit by; overs: by a line, those it runs on over; on: by a line, those it
    runs on into."""

    work: Work
    ties: Mapping[str, list[tuple[str, str]]]
    fixed: Mapping[str, _Fixed]
    fitted: frozenset[str]
    overs: Mapping[str, list[str]]
    on: Mapping[str, list[str]]


def _desk(work: Work) -> _Desk:
    joins, garment = work.sewn.joins, work.sewn.garment
    overs: dict[str, list[str]] = {}
    for cross in work.crosses:
        for end in cross.ends:
            overs.setdefault(end, []).append(cross.over)
    on: dict[str, list[str]] = {}
    for one, two in work.on:
        on.setdefault(one, []).append(two)
        on.setdefault(two, []).append(one)
    fitted = (j.id for j in joins if not j.twin and all(ROLES[garment.edge(ref).role].lets_out for ref in j.refs))
    little = frozenset(piece.name for piece in garment.pieces if small(piece))
    fixed: dict[str, _Fixed] = {}
    for place, name in enumerate(work.ids):
        join = work.join(name)
        if join is None:
            fixed[name] = _Fixed(None, STAGES[work.task[name].kind], 0.0, place)
        else:
            fixed[name] = _Fixed(join, _stage(work, little, join), round(work.sewn.length(join), 1), place)
    return _Desk(work, {join.id: _ties(work, join) for join in joins}, fixed, frozenset(fitted), overs, on)


def usual_order(work: Work) -> tuple[str, ...]:
    """Everything that is done, in an order that can be sewn: as a good hand would."""
    desk = _desk(work)
    order: list[str] = []
    tried: list[list[str]] = []
    parts = [_parts(work)]
    turns = 0
    while len(order) < len(work.ids):
        turns += 1
        rows = _ready(desk, order, parts[-1]) if len(tried) == len(order) else tried.pop()
        while not rows and order and turns < MOST_TURNS:  # nothing can follow: the last choice was wrong
            parts.pop()
            order.pop()
            rows = tried.pop()
        if not rows:
            rows = [name for name in work.ids if name not in order][:1]
        name, *rest = rows
        order.append(name)
        tried.append(rest)
        after = parts[-1].copy()
        after.tie(desk.ties.get(name, ()))
        parts.append(after)
    return tuple(order)


def _ready(desk: _Desk, order: Sequence[str], parts: _Parts) -> list[str]:
    """What can be done next, the best of it first."""
    work, done = desk.work, set(order)
    run = _run(work, order, done)
    last = work.join(order[-1]) if order else None
    free = {
        name for name in work.ids
        if name not in done and work.needs[name] <= done
        and not any((a in done) != (b in done) for a, b in work.crossed.get(name, ()))
    }  # fmt: skip
    rows = [((_aside(desk, run, last, name, done), _key(desk, name, done, free, parts)), name) for name in free]
    return [name for _, name in sorted(rows)]


def _run(work: Work, order: Sequence[str], done: set[str]) -> list[str]:
    """The lines that were sewn last, in one."""
    run = [name for name in order[-1:] if work.join(name) is not None]
    for name in order[-2::-1]:
        if not run or not any(work.runs_on(name, other, done) for other in run):
            break
        run.append(name)
    return run


def _aside(desk: _Desk, run: Sequence[str], last: Join | None, name: str, done: set[str]) -> int:
    """0 for what is sewn on in one with what was sewn last, 1 for what is sewn alike in another layer, 2 otherwise."""
    join = desk.work.join(name)
    if join is None or last is None:
        return 2
    if any(desk.work.runs_on(other, name, done) for other in run):
        return 0
    return 1 if join.way == "seam" and (join.like or join.id) == (last.like or last.id) else 2


def _key(desk: _Desk, name: str, done: set[str], free: set[str], parts: _Parts) -> Key:
    fixed = desk.fixed[name]
    join = fixed.join
    if join is None:
        return Key(fixed.stage, 0, False, 0.0, 0.0, fixed.place)
    stage = fixed.stage
    if stage not in (PART, RIM_OF_PART) and join.way == "seam" and join.layer and (not join.like or join.like not in done):
        stage = INSIDE
    closes, size = parts.joined(desk.ties[name])
    return Key(stage, _late(desk, join, done, free), closes, round(size, 1), fixed.long, fixed.place)


def _stage(work: Work, small_ones: frozenset[str], join: Join) -> float:
    """When a line is sewn, as a rule."""
    own = {work.sewn.parts.get(piece, "") for piece in join.pieces}
    if join.way != "fell" and len(own) == 1 and own != {""}:
        return RIM_OF_PART if join.way == "rim" else PART
    if join.way != "seam":
        return STAGES[join.way]
    if small_ones.issuperset(join.pieces):
        return PART
    length = work.sewn.length(join)
    if length and abs(join.ease) > EASED * length and _capped(work, join):
        return SET_IN
    return STAGES["seam"] if small_ones.isdisjoint(join.pieces) else BAND


def _late(desk: _Desk, join: Join, done: set[str], free: set[str]) -> int:
    """2 for a middle seam that runs on over a line that is still to be sewn: what crosses it comes first; and for a line whose
    other part cannot be sewn yet. 1 for a seam that the garment is fitted and let out by."""
    if join.twin and any(over not in done for over in desk.overs.get(join.id, ())):
        return 2
    if any(other not in done and other not in free for other in desk.on.get(join.id, ())):
        return 2
    return int(join.id in desk.fitted)


def _capped(work: Work, join: Join) -> bool:
    """Whether a line is sewn along the head of a sleeve."""
    return any(work.sewn.garment.edge(entry).role == "cap" for chain in join.sides for entry in chain)


def _parts(work: Work) -> _Parts:
    areas: dict[str, float] = {}
    for piece in work.sewn.garment.pieces:
        if piece.stands == "pair":
            areas.update({f"{piece.name}.left": piece.area, f"{piece.name}.right": piece.area})
        else:
            areas[piece.name] = piece.area * (2 if piece.stands == "fold" else 1)
    return _Parts({name: name for name in areas}, areas)


def _ties(work: Work, join: Join) -> list[tuple[str, str]]:
    """Which pieces on the body a line ties to which."""
    if join.way != "seam":
        return []
    pieces = {piece.name: piece for piece in work.sewn.garment.pieces}

    def there(name: str, hand: str) -> str:
        return f"{name}.{hand}" if pieces[name].stands == "pair" else name

    found = []
    for hand in ("left", "right"):
        if join.twin:
            found += [(there(entry.piece, "left"), there(entry.piece, "right")) for entry in join.first]
        else:
            found += [(there(a.piece, hand), there(b.piece, hand)) for a in join.first for b in join.second]
    return found


def in_order(work: Work, wish: Sequence[str]) -> tuple[str, ...]:
    """An order a maker chose, made whole: what it does not know is put in where it usually stands, what is not there any more is left
    out, own steps stay beside what they stood after. Where it cannot be sewn any more, what must come first is drawn forward."""
    usual = usual_order(work)
    if not wish:
        return usual
    known = set(work.ids)
    order = [name for name in wish if name in known or is_own(name)]
    there = set(order)
    for number, name in enumerate(usual):
        if name not in there:
            before = next((other for other in reversed(usual[:number]) if other in there), None)
            order.insert(order.index(before) + 1 if before is not None else 0, name)
            there.add(name)
    return tuple(order) if blocked(work, order) is None else _forward(work, order)


def _forward(work: Work, order: Sequence[str]) -> tuple[str, ...]:
    """An order with what blocks others drawn forward, as little as can be."""
    left, found, done = list(order), list[str](), set[str]()
    while left:
        for name in left:
            if is_own(name) or (
                not work.needs[name] - done and not any((a in done) != (b in done) for a, b in work.crossed.get(name, ()))
            ):
                break
        else:
            return usual_order(work)
        left.remove(name)
        found.append(name)
        done.add(name)
    return tuple(found)


OWN = "own:"


def is_own(name: str) -> bool:
    """Whether an id is that of a step a maker wrote."""
    return name.startswith(OWN)
