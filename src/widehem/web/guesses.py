"""Wrong guesses lately, of a password or a pair number: after too many, everybody behind the same address waits."""

from __future__ import annotations

import time
from collections import OrderedDict, deque
from dataclasses import dataclass, field

MOST_WHO = 1000  # addresses remembered; the one that guessed longest ago is forgotten first


@dataclass
class Guesses:
    """most: wrong guesses in so many seconds before the rest is refused unlooked at."""

    most: int = 10
    seconds: float = 60.0
    wrong: OrderedDict[str, deque[float]] = field(default_factory=OrderedDict)

    def waits(self, who: str = "") -> bool:
        """Whether too many wrong guesses came from there lately."""
        times = self.wrong.get(who, deque())
        since = time.monotonic() - self.seconds
        while times and times[0] < since:
            times.popleft()
        return len(times) >= self.most

    def note(self, who: str = "") -> None:
        """One more wrong guess from there."""
        self.wrong.setdefault(who, deque(maxlen=self.most)).append(time.monotonic())
        self.wrong.move_to_end(who)
        while len(self.wrong) > MOST_WHO:
            self.wrong.popitem(last=False)
