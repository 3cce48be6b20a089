"""Values that nothing changes once they are made, and what is worked out about them once.

The type checker holds them frozen; while the programme runs they are plain dataclasses, because a frozen one takes twice as
long to make, and a draft makes a thousand. What is kept on a value is worked out when it is first asked for; two threads that
ask at once work it out twice and agree. A changed copy takes what is not changed as it stands, in a third of the time the
library needs to make it anew; what was kept on the first is left behind, but for what its kind says stays while some fields do:
STAYS, the fields and the names of what rests on them alone.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable
from functools import cache
from operator import itemgetter
from typing import TYPE_CHECKING, Any, TypeVar

Thing = TypeVar("Thing")


@cache
def _fields(kind: Any) -> tuple[tuple[str, ...], Callable[[Any], tuple[object, ...]], Callable[[Any], None] | None]:
    """The names of the fields of a dataclass, what takes their values out of its dictionary, and what judges it once it is made."""
    names = tuple(entry.name for entry in dataclasses.fields(kind))
    taken = itemgetter(*names) if len(names) > 1 else lambda values: tuple(values[name] for name in names)
    return names, taken, getattr(kind, "__post_init__", None)


if TYPE_CHECKING:
    from dataclasses import dataclass as record
    from dataclasses import replace
    from functools import cached_property as kept
else:
    from dataclasses import dataclass

    def replace(thing, /, **changed):
        """The same value with these fields in place of its own, judged as a new one is. Raises TypeError for a field there is not."""
        kind = thing.__class__
        if not hasattr(thing, "__dict__"):  # it lies in slots
            return dataclasses.replace(thing, **changed)
        names, taken, judge = _fields(kind)
        found = object.__new__(kind)
        inside = found.__dict__
        inside.update(zip(names, taken(thing.__dict__), strict=True), **changed)
        if len(inside) != len(names):
            raise TypeError(f"{kind.__name__} has no {', '.join(sorted(set(changed) - set(names)))}")
        stays = getattr(kind, "STAYS", None)
        if stays is not None and changed.keys().isdisjoint(stays[0]):
            known = thing.__dict__
            inside.update({name: known[name] for name in stays[1] if name in known})
        if judge is not None:
            judge(found)
        return found

    def record(*, frozen, eq=True, **how):
        """A dataclass with its comparison and its hash by all fields."""
        return dataclass(eq=eq, unsafe_hash=frozen and eq, **how)

    class kept:  # noqa: N801 - it is used as a decorator, like property
        """A property that is worked out once and then lies in the value's own dictionary."""

        def __init__(self, work):
            self.work, self.__doc__ = work, work.__doc__

        def __set_name__(self, owner, name):
            self.name = name

        def __get__(self, thing, owner=None):
            if thing is None:
                return self
            found = thing.__dict__[self.name] = self.work(thing)
            return found


def elsewhere(thing: Thing, **moved: object) -> Thing:
    """The same value lying elsewhere, with these fields in place of its own: what was right where it lay is right there too, and is
    not judged again."""
    kind: Any = type(thing)
    found: Thing = object.__new__(kind)
    names, taken, _ = _fields(kind)
    found.__dict__.update(zip(names, taken(thing.__dict__), strict=True), **moved)
    return found


__all__ = ["elsewhere", "kept", "record", "replace"]
