"""What must be done to make a garment up, and what of it must come before what; whether an order is one that can be sewn."""

from __future__ import annotations

from collections.abc import Container, Iterable, Mapping, Sequence

from widehem.core.making.joins import Join, Sewn, lowered
from widehem.core.making.rules import Before, Cross, Rules, rules_of
from widehem.core.making.sewing import sewn
from widehem.core.making.tasks import Kind, Task, tasks_of
from widehem.core.pattern.garment import Garment
from widehem.core.units import Saying, say
from widehem.core.values import kept, record

KINDS: Mapping[str, Kind] = {"seam": "seam", "rim": "rim", "fell": "fell"}


@record(frozen=True)
class Work:
    """All that is done to a garment. before: fixed; crosses: either way round; on: lines that run on into each other; straps:
    those left to the last."""

    sewn: Sewn
    tasks: tuple[Task, ...]
    before: tuple[Before, ...]
    crosses: tuple[Cross, ...]
    on: tuple[tuple[str, str], ...]
    straps: tuple[str, ...]

    @kept
    def ids(self) -> tuple[str, ...]:
        """Everything, as it was found."""
        return (*(task.id for task in self.tasks), *(join.id for join in self.sewn.joins))

    @kept
    def task(self) -> dict[str, Task]:
        return {task.id: task for task in self.tasks}

    def join(self, name: str) -> Join | None:
        """The line of this id; None for what is no line."""
        return self.sewn.by_id.get(name)

    def kind(self, name: str) -> Kind:
        join = self.join(name)
        return KINDS[join.way] if join is not None else self.task[name].kind

    def title(self, name: str) -> str:
        join = self.join(name)
        return join.title if join is not None else self.task[name].title

    @kept
    def first_of(self) -> dict[str, dict[str, Before]]:
        """By what comes after, what must come before it."""
        found: dict[str, dict[str, Before]] = {name: {} for name in self.ids}
        for rule in self.before:
            if rule.first in found and rule.second in found:
                found[rule.second].setdefault(rule.first, rule)
        return found

    @kept
    def then_of(self) -> dict[str, dict[str, Before]]:
        """By what comes first, what comes after it."""
        found: dict[str, dict[str, Before]] = {name: {} for name in self.ids}
        for second, rows in self.first_of.items():
            for first, rule in rows.items():
                found[first][second] = rule
        return found

    @kept
    def after(self) -> dict[str, frozenset[str]]:
        """By what comes first, everything that then must come after it, crossings that leave no choice among it."""
        index = {name: number for number, name in enumerate(self.ids)}
        reach = [0] * len(index)
        for name, rows in self.then_of.items():
            for second in rows:
                reach[index[name]] |= 1 << index[second]
        triples = [(index[c.over], index[c.ends[0]], index[c.ends[1]]) for c in self.crosses]
        changed = True
        while changed:
            changed = False
            for i, row in enumerate(reach):
                whole, left = row, row
                while left:
                    low = left & -left
                    whole |= reach[low.bit_length() - 1]
                    left ^= low
                if whole != row:
                    reach[i], changed = whole, True
            for x, a, b in triples:
                for one, two in ((a, b), (b, a)):
                    if reach[x] >> one & 1 and not reach[x] >> two & 1:
                        reach[x], changed = reach[x] | 1 << two, True
                    if reach[one] >> x & 1 and not reach[two] >> x & 1:
                        reach[two], changed = reach[two] | 1 << x, True
        names = self.ids
        return {name: frozenset(names[n] for n in range(len(names)) if reach[i] >> n & 1) for i, name in enumerate(names)}

    @kept
    def needs(self) -> dict[str, frozenset[str]]:
        """By what comes after, everything that must come before it."""
        found: dict[str, set[str]] = {name: set() for name in self.ids}
        for first, rows in self.after.items():
            for second in rows:
                found[second].add(first)
        return {name: frozenset(rows) for name, rows in found.items()}

    @kept
    def runs(self) -> dict[tuple[str, str], tuple[str, ...]]:
        """Which two lines run on into each other, in the order of their ids: over which others, '' for round a corner."""
        found: dict[tuple[str, str], tuple[str, ...]] = dict.fromkeys(self.on, ("",))
        for cross in self.crosses:
            one, two = self.sewn.by_id[cross.ends[0]], self.sewn.by_id[cross.ends[1]]
            if one.way == two.way and one.layer == two.layer:
                pair = min(cross.ends), max(cross.ends)
                found[pair] = (*found.get(pair, ()), cross.over)
        return found

    def runs_on(self, one: str, two: str, done: Container[str]) -> bool:
        """Whether a line runs straight on into another as things are: round a corner, or over one that is sewn already."""
        overs = self.runs.get((one, two) if one < two else (two, one), ())
        return any(not over or over in done for over in overs)

    @kept
    def crossed(self) -> dict[str, list[tuple[str, str]]]:
        """By a line, the pairs that run on over it."""
        found: dict[str, list[tuple[str, str]]] = {}
        for cross in self.crosses:
            found.setdefault(cross.over, []).append(cross.ends)
        return found


@record(frozen=True)
class Blocked:
    """Why a step cannot stand where it was put: what stands in its way, and a sentence."""

    name: str
    by: str
    why: Saying


def work_of(garment: Garment) -> Work:
    """Everything that is done to a garment, from its seams alone."""
    found = sewn(garment)
    rules: Rules = rules_of(found)
    tasks, before = tasks_of(found)
    return Work(found, tuple(tasks), (*rules.before, *before), rules.crosses, _alike(found, rules.on), rules.straps)


def _alike(found: Sewn, on: Iterable[tuple[str, str]]) -> tuple[tuple[str, str], ...]:
    """Those lines that run on into each other which are sewn alike."""
    return tuple(
        pair for pair in on
        if found.by_id[pair[0]].way == found.by_id[pair[1]].way and found.by_id[pair[0]].layer == found.by_id[pair[1]].layer
    )  # fmt: skip


def blocked(work: Work, order: Sequence[str]) -> Blocked | None:
    """The first thing in an order that cannot be done there; None where the order can be sewn. What it does not name is looked at
    as if it came after everything; names it does not know are own steps, that go anywhere."""
    known = set(work.ids)
    done: dict[str, None] = {}
    for name in order:
        if name in known:
            found = _hindered(work, name, done)
            if found is not None:
                return found
            done[name] = None
    return None


def _hindered(work: Work, name: str, done: Mapping[str, None]) -> Blocked | None:
    for first, rule in work.first_of[name].items():
        if first not in done:
            return Blocked(name, first, rule.then)
    for a, b in work.crossed.get(name, ()):
        if (a in done) != (b in done):
            sewn_first, missing = (a, b) if a in done else (b, a)
            return Blocked(name, missing, crossing(work, name, sewn_first, missing))
    for first in sorted(work.needs[name] - set(done)):
        words = "This comes first, as what stands between leaves no other way: {}."
        return Blocked(name, first, say(words.format(lowered(work.title(first)))))
    return None


def crossing(work: Work, over: str, one: str, other: str) -> Saying:
    """Why a line waits for the second of two that run on over it."""
    a, b = (lowered(work.title(name)) for name in (one, other))
    return say(
        f"One line runs on over it: {a}{f', then {b}' if a != b else ', in two parts'}. Sew both before it, or both after it."
    )


def missing(work: Work, order: Iterable[str]) -> list[str]:
    """What an order leaves out."""
    there = set(order)
    return [name for name in work.ids if name not in there]
