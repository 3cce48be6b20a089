"""What stood in a form when it was shown, so that nobody overwrites unseen what somebody else kept meanwhile."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping
from dataclasses import dataclass

from flask import request

WAS = "was."  # before the name of a field: what it was shown with
STAMP = "stamp"


def stamp(*values: object) -> str:
    """What a form carries of the values it was shown with."""
    return hashlib.sha256(repr(values).encode("utf-8", "surrogatepass")).hexdigest()[:16]


def moved(*values: object) -> bool:
    """Whether what is kept now is other than what the form was shown with; a form without a stamp saw everything."""
    given = request.form.get(STAMP)
    return given is not None and given != stamp(*values)


def _plain(text: str) -> str:
    """A text as it is compared: browsers send other line ends than they were given."""
    return text.replace("\r\n", "\n").strip()


def _was(field: str, now: str) -> str:
    """What a field was shown with; as it is kept now, where the form does not say."""
    return _plain(request.form.get(WAS + field, now))


@dataclass(frozen=True)
class Merged:
    """What shall be kept, by field; and where somebody else and this maker changed the same field, what the other kept."""

    kept: dict[str, str]
    clashes: dict[str, str]

    def shown(self, typed: Mapping[str, str]) -> dict[str, str]:
        """What stands in the fields when both are shown: where there is a clash what was typed, else what shall be kept."""
        return {name: typed.get(name, now) if name in self.clashes else now for name, now in self.kept.items()}


def merged(stored: Mapping[str, str], typed: Mapping[str, str]) -> Merged:
    """Fields as typed, where they were changed here; as they are stored, where they were not. Both to other ends is a clash."""
    kept: dict[str, str] = {}
    clashes: dict[str, str] = {}
    for name, now in stored.items():
        new = typed.get(name, now)
        was = _was(name, now)
        if _plain(new) in (was, _plain(now)):
            kept[name] = now
        elif _plain(now) == was:
            kept[name] = new
        else:
            kept[name], clashes[name] = now, now
    return Merged(kept, clashes)


def both(now: str, typed: str, field: str, most: int) -> str:
    """A note in words, changed here and by somebody else: both of them, one after the other, nothing cut. most: signs a maker
    can
    type; two that wrote at once may have twice as many."""
    was, typed = _was(field, now), typed.strip()[: 2 * most + 2]
    if _plain(typed) in (was, _plain(now)):
        return now
    if _plain(now) == was or not now:
        return typed
    return f"{now}; {typed}" if typed else now


def clash(theirs: str) -> str:
    """What is said beside a field that somebody else changed too."""
    words = f"“{theirs}”" if theirs else "nothing"
    return f"Meanwhile somebody kept {words} here. Yours stands in the field: keep it again to put it in its place."
