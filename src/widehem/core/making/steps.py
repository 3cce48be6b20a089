"""The order of work told: each step with why it stands where it does, how it is done, and about how long it takes."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from widehem.core.making.cloths import ClothKind
from widehem.core.making.how import How
from widehem.core.making.joins import Join, Sewn, lowered
from widehem.core.making.order import in_order, is_own
from widehem.core.making.plan import Work
from widehem.core.making.tasks import Kind, length_of
from widehem.core.marking.wanted import Wanted
from widehem.core.pattern.garment import EdgeRef
from widehem.core.units import Saying, say
from widehem.core.values import record

SOFT: Mapping[Kind, Saying] = {
    "seam": say("Flat before round, small parts before large ones: as little as can be is carried to the machine."),
    "rim": say("When the seams that end at it are sewn, so that the edge is one line."),
    "fell": say("By hand, last: it covers the seams that lie under it."),
    "own": say("A step of your own."),
}
PART = say("A small part is made up by itself before it is sewn on.")
SEWN_ON = say("The part is made up: now it is sewn on.")
LIKE = say("The same in another layer, at one setting of the machine.")
RUNS = say("In one with what was sewn before: the line runs on.")


@record(frozen=True)
class Step:
    """One step. with_last: sewn in one, or at one setting, with the one before it; pieces: by name; edges: that are lit; first: ids of
    what it waits for; times: how often, on a whole garment; minutes: about how long it takes."""

    id: str
    kind: Kind
    title: str
    because: Saying
    how: tuple[Saying, ...]
    pieces: tuple[str, ...]
    edges: tuple[EdgeRef, ...]
    first: tuple[str, ...] = ()
    with_last: bool = False
    times: int = 1
    minutes: float = 0.0


def steps_of(
    work: Work, wanted: Wanted, cloth: ClothKind, wish: Sequence[str] = (), own: Mapping[str, str] | None = None
) -> tuple[Step, ...]:
    """The steps of a garment in order. wanted: the allowances it is sewn at; wish: the order a maker chose; own: the words of own
    steps by id."""
    order = in_order(work, wish)
    found: list[Step] = []
    done: set[str] = set()
    run, how = list[str](), How(work.sewn, wanted, cloth)
    for name in order:
        if is_own(name):
            if own and name in own:
                found.append(Step(name, "own", own[name], SOFT["own"], (), (), ()))
            continue
        runs = any(_in_one(work, before, name, done) for before in run)
        found.append(_step(work, how, name, run[-1] if run else "", order, runs=runs))
        done.add(name)
        run = [*run, name] if runs else [name]
    return tuple(found)


def _in_one(work: Work, before: str, name: str, done: set[str]) -> bool:
    """Whether a line is sewn in one with another, or felled in one."""
    one, two = work.join(before), work.join(name)
    if one is None or two is None:
        return False
    return work.runs_on(before, name, done) or one.way == two.way == "fell"


def _step(work: Work, how: How, name: str, last: str, order: Sequence[str], *, runs: bool) -> Step:
    join = work.join(name)
    first = tuple(row for row in order if row in work.first_of[name])
    if join is None:
        task = work.task[name]
        because = _because(work, name, order) or task.why
        minutes = minutes_for(task.kind, length_of(work.sewn, task), task.times)
        return Step(
            name, task.kind, task.title, because, how.task(task), task.pieces, task.edges, first, False, task.times, minutes
        )
    before = work.join(last)
    like = before is not None and not runs and join.way == "seam" and (join.like or join.id) == (before.like or before.id)
    because = RUNS if runs else LIKE if like else _because(work, name, order) or _soft(work, join)
    times = times_of(work.sewn, join)
    minutes = minutes_for(work.kind(name), work.sewn.length(join), times, eased=abs(join.ease) > EASED_MUCH)
    told = how.join(join, again=runs or like)
    return Step(name, work.kind(name), join.title, because, told, join.pieces, join.refs, first, runs or like, times, minutes)


LATE: Mapping[Kind, int] = {"hem": 1, "raw": 1, "fell": 2, "fasten": 2}


def _because(work: Work, name: str, order: Sequence[str]) -> Saying | None:
    """Why it stands there: what soonest needs it. The last of the seams say what they waited for."""
    if name in work.straps:
        rows = work.first_of[name].values()
        return next((rule.then for rule in rows if rule.first not in work.straps and work.kind(rule.first) == "rim"), None)
    place = {row: number for number, row in enumerate(order)}
    needed = [row for row in work.then_of[name] if work.kind(row) not in LATE]
    if needed:
        return work.then_of[name][min(needed, key=place.__getitem__)].why
    if work.join(name) is None:
        return None
    over = next((c for c in work.crosses if c.over == name and place[name] < place[c.ends[0]]), None)
    if over is not None:
        ends = " and ".join(dict.fromkeys(lowered(work.title(end)) for end in over.ends))
        return say(f"Crossing seams first. This is then sewn over it in one: {ends}.")
    return None


def _soft(work: Work, join: Join) -> Saying:
    parts = {work.sewn.parts.get(name, "") for name in join.pieces}
    if join.way == "seam" and parts != {""}:
        return PART if len(parts) == 1 else SEWN_ON
    return SOFT[work.kind(join.id)]


def times_of(sewn: Sewn, join: Join) -> int:
    """How often it is sewn on a whole garment: once in the middle and where it runs over a fold, else on both sides."""
    if join.twin:
        return 1
    for at_end in (False, True):
        if any(sewn.corner(chain, at_end=at_end).beyond.kind == "fold" for chain in join.sides):
            return 1
    pieces = [sewn.garment.piece(entry.piece) for chain in join.sides for entry in chain]
    return 1 if any(piece.stands in ("left", "right", "once") for piece in pieces) else 2


# ---- how long it takes ----

RATES: Mapping[Kind, tuple[float, float]] = {  # minutes for setting it up, and for each centimetre, pinning and pressing with it
    "stay": (3.0, 0.05), "stiffen": (8.0, 0.0), "dart": (8.0, 0.0), "strip": (12.0, 0.0), "pocket": (30.0, 0.0), "closing": (25.0, 0.1),
    "seam": (3.0, 0.12), "rim": (5.0, 0.2), "fell": (3.0, 0.35), "hem": (6.0, 0.25), "raw": (4.0, 0.15), "band": (10.0, 0.25),
    "fasten": (10.0, 0.9), "own": (0.0, 0.0),
}  # fmt: skip
MORE_EASED, EASED_MUCH = 1.6, 0.3  # times as long; cm of ease from which it takes that


def minutes_for(kind: Kind, length: float, times: int, *, eased: bool = False) -> float:
    """About how long a step takes, minutes: by its kind, and by the length it is worked along, cm."""
    fixed, each = RATES[kind]
    return float(round((fixed + each * length * (MORE_EASED if eased else 1.0)) * times))
