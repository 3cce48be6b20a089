"""Wrong guesses lately, of a password or a pair number: after too many, everybody behind the same address waits. All processes
of the
house count together."""

from __future__ import annotations

from dataclasses import dataclass

from widehem.web.here import current_works


@dataclass(frozen=True)
class Guesses:
    """of: what is guessed. most: wrong guesses in so many seconds before the rest is refused unlooked at."""

    of: str
    most: int = 10
    seconds: float = 60.0

    def waits(self, who: str = "") -> bool:
        """Whether too many wrong guesses came from there lately."""
        return current_works().ledger.guesses(f"{self.of} {who}", self.seconds) >= self.most

    def note(self, who: str = "") -> None:
        """One more wrong guess from there."""
        current_works().ledger.note_guess(f"{self.of} {who}", self.seconds)
