"""How one garment is made up, as it is kept: its cloths, the order its maker chose, own steps, what is done and how long it took."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from dataclasses import field
from datetime import date
from typing import Any

from widehem.core.making.care import USES
from widehem.core.making.order import OWN
from widehem.core.values import record, replace

MOST_STEPS, LONGEST, MOST_MINUTES = 300, 160, 6000.0
STEP = re.compile(r"[\w.:+-]{1,120}")
CLOTH = re.compile(r"[a-z0-9_-]{1,40}")


def is_day(text: str) -> bool:
    """Whether this is a day that there is, written '2026-11-03'."""
    try:
        return date.fromisoformat(text).isoformat() == text
    except ValueError:
        return False


class MakingError(ValueError):
    """What cannot be kept, in one sentence."""


@record(frozen=True)
class Done:
    """A step that is done: the day, 'YYYY-MM-DD'; how long it took, minutes, None where nobody said; what kind of step it was and how
    long it was thought to take, so that the next is guessed better."""

    on: str
    minutes: float | None = None
    kind: str = ""
    guessed: float = 0.0


@record(frozen=True)
class HowMade:
    """cloths: by what its pieces call them, the code of a cloth; order: ids of steps, () for the usual; own: words of own steps by id;
    done: by id; left_out: ids of steps that are not done on this one; uses: what is done in it on stage, by codes of care."""

    cloths: Mapping[str, str] = field(default_factory=dict)
    order: tuple[str, ...] = ()
    own: Mapping[str, str] = field(default_factory=dict)
    done: Mapping[str, Done] = field(default_factory=dict)
    left_out: tuple[str, ...] = ()
    uses: tuple[str, ...] = ()

    def as_data(self) -> dict[str, Any]:
        """As plain data, without what is as usual."""
        done = {name: [entry.on, entry.minutes, entry.kind, entry.guessed] for name, entry in self.done.items()}
        found = {
            "cloths": dict(self.cloths), "order": list(self.order), "own": dict(self.own), "done": done,
            "left_out": list(self.left_out), "uses": list(self.uses),
        }  # fmt: skip
        return {name: value for name, value in found.items() if value}

    @staticmethod
    def from_data(data: Mapping[str, Any]) -> HowMade:
        """Read back. Raises MakingError for what cannot be."""
        try:
            cloths = {str(k)[:60]: str(v) for k, v in dict(data.get("cloths", {})).items()}
            order = tuple(str(name) for name in data.get("order", ()))
            own = {str(k): str(v)[:LONGEST] for k, v in dict(data.get("own", {})).items()}
            done = {
                str(k): Done(str(on), None if minutes is None else float(minutes), str(kind)[:20], float(guessed))
                for k, (on, minutes, kind, guessed) in dict(data.get("done", {})).items()
            }
            left_out = tuple(str(name) for name in data.get("left_out", ()))
            uses = tuple(code for code in USES if code in data.get("uses", ()))
        except (TypeError, ValueError, AttributeError):
            raise MakingError("How a garment is made up cannot be read.") from None
        names = (*order, *own, *done, *left_out)
        if len(names) > 4 * MOST_STEPS or not all(STEP.fullmatch(name) for name in names):
            raise MakingError("A step of the order has no name that can be, or there are too many.")
        if not all(CLOTH.fullmatch(code) for code in cloths.values()):
            raise MakingError("A cloth has a code that cannot be.")
        for entry in done.values():
            if (
                not is_day(entry.on)
                or not 0 <= (entry.minutes or 0.0) <= MOST_MINUTES
                or not 0 <= entry.guessed <= MOST_MINUTES
            ):
                raise MakingError("A step was done on a day, in minutes, that cannot be.")
        return HowMade(cloths, order, own, done, left_out, uses)

    def ticked(self, name: str, done: Done | None) -> HowMade:
        """With a step done, or with it to do again."""
        rest = {other: entry for other, entry in self.done.items() if other != name}
        return replace(self, done=rest if done is None else {**rest, name: done})

    def with_own(self, words: str, order: tuple[str, ...], after: str) -> HowMade:
        """With an own step after another, in the order as it stands. Raises MakingError without words, or with too many steps."""
        words = " ".join(words.split())
        if not words:
            raise MakingError("Write what is done in the step of your own.")
        if len(words) > LONGEST:
            raise MakingError(f"The step has {len(words)} signs: {LONGEST} at most, or write two.")
        if len(order) >= MOST_STEPS:
            raise MakingError(f"There are {len(order)} steps: {MOST_STEPS} are kept at most.")
        number = 1 + max((int(name.removeprefix(OWN)) for name in self.own if name.removeprefix(OWN).isdecimal()), default=0)
        name, found = f"{OWN}{number}", list(order)
        found.insert(found.index(after) + 1 if after in found else len(found), name)
        return replace(self, own={**self.own, name: words}, order=tuple(found))

    def without_own(self, name: str) -> HowMade:
        """Without an own step."""
        return replace(
            self, own={other: words for other, words in self.own.items() if other != name},
            order=tuple(other for other in self.order if other != name), done={o: d for o, d in self.done.items() if o != name},
        )  # fmt: skip


FEWEST_TIMED = 3  # steps of a kind whose minutes were written down, before the house's own past counts
SLOWEST, FASTEST = 4.0, 0.25  # times the usual that a house may be


def own_pace(made: Iterable[HowMade]) -> dict[str, float]:
    """How long the house takes over a kind of step, in times of what was guessed: by kind, where enough of them were timed."""
    spent: dict[str, float] = {}
    guessed: dict[str, float] = {}
    count: dict[str, int] = {}
    for how in made:
        for entry in how.done.values():
            if entry.minutes and entry.guessed and entry.kind:
                spent[entry.kind] = spent.get(entry.kind, 0.0) + entry.minutes
                guessed[entry.kind] = guessed.get(entry.kind, 0.0) + entry.guessed
                count[entry.kind] = count.get(entry.kind, 0) + 1
    return {
        kind: min(max(spent[kind] / guessed[kind], FASTEST), SLOWEST) for kind in spent if count[kind] >= FEWEST_TIMED
    }  # fmt: skip
