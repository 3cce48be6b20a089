"""A table of what can be chosen by code; a code is registered once."""

from __future__ import annotations

from typing import TypeVar

T = TypeVar("T")


class RegisteredTwiceError(ValueError):
    """Two things claim one code."""


class Registry(dict[str, T]):
    """Things by their code, in the order of registration. what: how one of them is called."""

    def __init__(self, what: str) -> None:
        super().__init__()
        self.what = what

    def add(self, code: str, thing: T) -> T:
        """Make a thing known. Raises RegisteredTwiceError."""
        if code in self:
            raise RegisteredTwiceError(f'There is a {self.what} "{code}" already.')
        self[code] = thing
        return thing
