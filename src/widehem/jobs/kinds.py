"""The kinds of work that lasts, and what one is given to work with."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from widehem.core.setting.registry import Registry
from widehem.core.values import record
from widehem.jobs.ledger import Ledger
from widehem.store.database import Store

BETWEEN_TELLS = 0.1  # seconds


class StoppedError(Exception):
    """The maker does not want it any more."""


class JobError(Exception):
    """Why a job cannot be done, in a sentence for the maker."""


@dataclass
class At:
    """Where a job works. name: of the job, by which it tells how far it is."""

    store: Store
    ledger: Ledger
    name: str
    _told: float = field(default=0.0, init=False)

    def step(self, done: int, whole: int) -> None:
        """So many of so many steps are done. Raises StoppedError when the rest is not wanted."""
        now = time.monotonic()
        if now - self._told < BETWEEN_TELLS and done not in (0, whole):
            return
        self._told = now
        if not self.ledger.tell(self.name, done, whole):
            raise StoppedError


@record(frozen=True)
class Kind:
    """A kind of work. work: does it and returns the answer, of what JSON can hold. urgent: more goes first. again: it may be
    begun anew after it was broken off, as it leaves nothing half done."""

    code: str
    work: Callable[[At, dict[str, Any]], Any]
    urgent: int = 0
    again: bool = True


KINDS: Registry[Kind] = Registry("kind of work")


def kind(
    code: str, *, urgent: int = 0, again: bool = True
) -> Callable[[Callable[[At, dict[str, Any]], Any]], Callable[..., Any]]:
    """Register a kind of work by the function that does it."""

    def register(work: Callable[[At, dict[str, Any]], Any]) -> Callable[[At, dict[str, Any]], Any]:
        KINDS.add(code, Kind(code, work, urgent, again))
        return work

    return register
