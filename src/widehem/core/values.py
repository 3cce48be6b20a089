"""Values that nothing changes once they are made, and what is worked out about them once.

The type checker holds them frozen; while the programme runs they are plain dataclasses, because a frozen one takes twice as
long to make, and a draft makes a thousand. What is kept on a value is worked out when it is first asked for; two threads that
ask at once work it out twice and agree.
"""

from __future__ import annotations

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from dataclasses import dataclass as record
    from functools import cached_property as kept
else:
    from dataclasses import dataclass

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


__all__ = ["kept", "record"]
