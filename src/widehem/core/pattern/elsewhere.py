"""Copies of parts of a piece that lie elsewhere: what was right where it lay is right there too, and is not judged again."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import fields
from functools import cache
from operator import itemgetter
from typing import Any, TypeVar

Thing = TypeVar("Thing")


@cache
def _fields(kind: Any) -> tuple[tuple[str, ...], Callable[[Any], tuple[object, ...]]]:
    """The names of the fields of a dataclass, and what takes their values out of a dictionary."""
    names = tuple(entry.name for entry in fields(kind))
    return names, itemgetter(*names)


def elsewhere(thing: Thing, **moved: object) -> Thing:
    """The same frozen dataclass, of two fields or more, with these in place of its own. What was worked out about it is left
    behind."""
    kind: Any = type(thing)
    names, taken = _fields(kind)
    found: Thing = object.__new__(kind)
    found.__dict__.update(zip(names, taken(thing.__dict__), strict=True), **moved)
    return found
