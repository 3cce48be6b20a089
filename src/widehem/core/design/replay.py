"""Steps done to a draft one after another; what was done before with the same beginning is not done again."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Collection, Hashable, Sequence

from widehem.core.design.design import Step
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.body import Girth
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.roles import plain
from widehem.core.style.operation import CannotStyle, Context, run
from widehem.core.units import Saying, say
from widehem.core.values import record, replace

KEPT = 160  # garments between two steps that are kept: a recipe that is worked on, on a company
OFF = 0.05  # cm: what a piece was drawn for has become another
Watched = tuple[tuple[str, dict[str, float]], ...]


@record(frozen=True)
class Refused:
    """A step that does not fit this body: its id, and why."""

    step: str
    saying: Saying
    wheres: tuple[str, ...] = ()


@record(frozen=True)
class State:
    """A garment so far. said: by the steps; told: by which step each, its id; watched: for each piece that a step made, the
    length it is sewn to."""

    garment: Garment
    demands: tuple[Demand, ...]
    said: tuple[Saying, ...] = ()
    told: tuple[str, ...] = ()
    refused: tuple[Refused, ...] = ()
    notions: tuple[Saying, ...] = ()
    watched: Watched = ()


class _Key:
    """What was done so far: what it was done to, and the last step. It is hashed once: what a design is made of is long."""

    __slots__ = ("_before", "_hash", "_step")

    def __init__(self, before: Hashable, step: str) -> None:
        self._before, self._step, self._hash = before, step, hash((before, step))

    def __hash__(self) -> int:
        return self._hash

    def __eq__(self, other: object) -> bool:
        if not isinstance(other, _Key) or self._hash != other._hash or self._step != other._step:
            return False
        return self._before is other._before or self._before == other._before


class Replay:
    """Garments between the steps of recipes, the latest of them."""

    def __init__(self, kept: int = KEPT) -> None:
        self._kept: OrderedDict[Hashable, State] = OrderedDict()
        self._most = kept

    def run(self, base: Hashable, start: State, steps: Sequence[Step], context: Context) -> State:
        """The state after all steps. base: what the start was made of, so that two that are equal are alike; None keeps
        nothing."""
        state, done = start, 0
        keys: list[Hashable] = [base]
        for step in steps if base is not None else ():
            keys.append(_Key(keys[-1], repr(step)))
        keys = keys[1:]
        for number in range(len(keys), 0, -1):
            found = self._kept.get(keys[number - 1])
            if found is not None:
                state, done = found, number
                break
        for number in range(done, len(steps)):
            state = stepped(state, steps[number], context)
            if keys:
                self._keep(keys[number], state)
        return state

    def _keep(self, key: Hashable, state: State) -> None:
        self._kept[key] = state
        self._kept.move_to_end(key)
        while len(self._kept) > self._most:
            self._kept.popitem(last=False)


def stepped(state: State, step: Step, context: Context) -> State:
    """The state after one step; a step that does not fit leaves what was before it, and says so."""
    try:
        done = run(
            step.operation, state.garment, replace(context, demands=state.demands), step.settings, step.wheres, step.names
        )
    except CannotStyle as cannot:
        if step.maybe and cannot.lost:
            return state
        return replace(
            state, refused=(*state.refused, Refused(step.id, cannot.saying, cannot.wheres)),
            said=(*state.said, cannot.saying), told=(*state.told, step.id),
        )  # fmt: skip
    change = done.change
    asks = change.asks(state.demands) if change.asks is not None else state.demands
    asks = tuple(demand for demand in asks if not (isinstance(demand, Girth) and _nowhere(done.garment, demand)))
    fitted = change.made if step.operation.fitted else ()
    parts = {piece.of for piece in state.garment.pieces}
    watched = state.watched + tuple((name, _sewn_to(done.garment, name, parts)) for name in fitted)
    return State(
        done.garment, asks, (*state.said, *done.said), (*state.told, *(step.id for _ in done.said)), state.refused,
        (*state.notions, *change.notions), watched,
    )  # fmt: skip


def _nowhere(garment: Garment, girth: Girth) -> bool:
    """Whether a girth is asked for at a level, or along edges, that no piece has any more: it was cut away."""
    if girth.edge:
        return not any(True for _ in garment.edges_of(girth.edge))
    return not any(piece.level(girth.name) is not None for piece in garment.shell)


def _sewn_to(garment: Garment, name: str, parts: Collection[str]) -> dict[str, float]:
    """How long the edges of other pieces are that a piece is sewn to, cm, by the parts of the garment, of these."""
    found: dict[str, float] = {}
    for seam in garment.seams:
        for mine, other in ((seam.first, seam.second), (seam.second, seam.first)):
            if seam.twin or not any(entry.piece == name for entry in mine):
                continue
            for entry in other:
                part = garment.piece(entry.piece).of
                if entry.piece != name and part in parts:
                    found[part] = found.get(part, 0.0) + garment.edge(entry).length
    return found


def stale(state: State) -> tuple[tuple[str, Saying], ...]:
    """Pieces that were drawn for something that has changed since: the piece, and what to do."""
    found = []
    names = {piece.name: piece for piece in state.garment.pieces}
    for name, before in state.watched:
        if name not in names:
            continue
        now = _sewn_to(state.garment, name, before)
        changed = [part for part, long in before.items() if abs(now.get(part, 0.0) - long) > OFF]
        if changed:
            words = f"{names[name].title}: it was drawn for {{0}} of the {plain(changed[0])} and is sewn to {{1}} now: move the step that makes it further down."
            found.append((name, say(words, before[changed[0]], now.get(changed[0], 0.0))))
    return tuple(found)
