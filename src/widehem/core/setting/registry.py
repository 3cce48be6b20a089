"""A table of what can be chosen by code; a code is registered once."""

from __future__ import annotations

from typing import Any, TypeVar

T = TypeVar("T")


class RegisteredTwiceError(ValueError):
    """Two things claim one code."""


class Registry(dict[str, T]):
    """Things by their code, in the order of registration. what: how one of them is called."""

    def __init__(self, what: str) -> None:
        super().__init__()
        self.what = what
        self._unlisted: dict[str, T] = {}

    def add(self, code: str, thing: T, *, listed: bool = True) -> T:
        """Make a thing known. listed: it is among those that can be chosen; else it is found by its code only. Raises
        RegisteredTwiceError."""
        if code in self:
            raise RegisteredTwiceError(f'There is a {self.what} "{code}" already.')
        (self if listed else self._unlisted)[code] = thing
        return thing

    def __contains__(self, code: object) -> bool:
        return super().__contains__(code) or code in self._unlisted

    def __missing__(self, code: str) -> T:
        return self._unlisted[code]

    def get(self, code: str, otherwise: Any = None, /) -> Any:
        """The thing with this code, listed or not."""
        try:
            return self[code]
        except KeyError:
            return otherwise
