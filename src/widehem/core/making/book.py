"""The book of a costume: pictures from all sides, what it is worn over, quick changes, costs, what went wrong."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import field
from datetime import date
from typing import Any

from widehem.core.making.kept import is_day
from widehem.core.values import record, replace

SIDES: Mapping[str, str] = {
    "front": "From the front", "back": "From behind", "left": "From the left", "right": "From the right", "inside": "Inside out", "detail": "A detail",
    "sketch": "Own sketch",
}  # fmt: skip
ALL_ROUND = ("front", "back", "left", "right")
LONGEST, MOST_ROWS, MOST_MONEY, MOST_SECONDS = 400, 60, 10_000_000.0, 3600


class BookError(ValueError):
    """What cannot be kept in a book, in one sentence naming the field."""


@record(frozen=True)
class Shot:
    """A picture: its number, from which side, with a word to it."""

    picture: int
    side: str
    words: str = ""


@record(frozen=True)
class Change:
    """A quick change: when, who opens what, in how many seconds; dark: in the dark."""

    when: str
    who: str
    what: str
    seconds: int = 0
    dark: bool = False


@record(frozen=True)
class Cost:
    """What something cost, or was lent for."""

    words: str
    amount: float


@record(frozen=True)
class Wrong:
    """What went wrong, and the day, 'YYYY-MM-DD': so that the next one goes right."""

    on: str
    words: str


@record(frozen=True)
class CostumeBook:
    """about: who the figure is and where the pictures come from; under: undergarments and shoes that change the measures; notions: what
    belongs to it besides what the patterns ask for; budget: 0 for none."""

    about: str = ""
    under: str = ""
    notions: str = ""
    budget: float = 0.0
    shots: tuple[Shot, ...] = ()
    changes: tuple[Change, ...] = ()
    costs: tuple[Cost, ...] = ()
    wrong: tuple[Wrong, ...] = field(default_factory=tuple)

    @property
    def unseen(self) -> tuple[str, ...]:
        """The sides nobody has a picture of."""
        seen = {shot.side for shot in self.shots}
        return tuple(side for side in ALL_ROUND if side not in seen)

    @property
    def spent(self) -> float:
        return sum(cost.amount for cost in self.costs)

    def as_data(self) -> dict[str, Any]:
        """As plain data, without what is empty."""
        found = {
            "about": self.about, "under": self.under, "notions": self.notions, "budget": self.budget,
            "shots": [[s.picture, s.side, s.words] for s in self.shots], "changes": [[c.when, c.who, c.what, c.seconds, c.dark] for c in self.changes],
            "costs": [[c.words, c.amount] for c in self.costs], "wrong": [[w.on, w.words] for w in self.wrong],
        }  # fmt: skip
        return {name: value for name, value in found.items() if value}

    @staticmethod
    def from_data(data: Mapping[str, Any]) -> CostumeBook:
        """Read back. Raises BookError for what cannot be."""
        try:
            about, under, notions = (str(data.get(name, ""))[:LONGEST] for name in ("about", "under", "notions"))
            found = CostumeBook(
                about, under, notions, _money(data.get("budget", 0.0), "Budget"),
                tuple(Shot(int(n), str(side), str(words)[:LONGEST]) for n, side, words in data.get("shots", ())),
                tuple(Change(str(a)[:LONGEST], str(b)[:LONGEST], str(c)[:LONGEST], int(s), d is True) for a, b, c, s, d in data.get("changes", ())),
                tuple(Cost(str(words)[:LONGEST], _money(amount, "Cost")) for words, amount in data.get("costs", ())),
                tuple(Wrong(str(on), str(words)[:LONGEST]) for on, words in data.get("wrong", ())),
            )  # fmt: skip
        except (TypeError, ValueError) as error:
            raise BookError(str(error) if isinstance(error, BookError) else "A book of a costume cannot be read.") from None
        rows = (found.shots, found.changes, found.costs, found.wrong)
        if any(len(row) > MOST_ROWS for row in rows):
            raise BookError(f"A book has more than {MOST_ROWS} entries of one kind.")
        if not all(shot.side in SIDES for shot in found.shots) or not all(is_day(w.on) for w in found.wrong):
            raise BookError("A picture in a book has a side, or an entry a day, that cannot be.")
        if not all(0 <= change.seconds <= MOST_SECONDS for change in found.changes):
            raise BookError(f"Seconds: a quick change takes 0 to {MOST_SECONDS}.")
        return found

    def without(self, kind: str, number: int) -> CostumeBook:
        """Without the entry of a kind at this place. Raises KeyError, IndexError."""
        data = self.as_data()
        if kind not in ("shots", "changes", "costs", "wrong"):
            raise KeyError(kind)
        rows = data.get(kind, [])
        if not 0 <= number < len(rows):
            raise IndexError(number)
        data[kind] = rows[:number] + rows[number + 1 :]
        return CostumeBook.from_data(data)


def _money(value: Any, name: str) -> float:
    amount = float(value)
    if not math.isfinite(amount) or not 0 <= amount <= MOST_MONEY:
        raise BookError(f"{name}: {amount:g} cannot be: write 0 or more.")
    return amount


def with_shot(book: CostumeBook, picture: int, side: str, words: str) -> CostumeBook:
    """With one more picture. Raises BookError."""
    return _checked(replace(book, shots=(*book.shots, Shot(picture, side, words.strip()[:LONGEST]))))


def with_change(book: CostumeBook, when: str, who: str, what: str, seconds: str, *, dark: bool) -> CostumeBook:
    """With one more quick change. Raises BookError."""
    if not what.strip():
        raise BookError("What is opened: write it down, like the hooks at the back from the top.")
    if seconds.strip() and not seconds.strip().isdecimal():
        raise BookError(f'Seconds: "{seconds[:12]}" is no whole figure.')
    row = Change(when.strip()[:LONGEST], who.strip()[:LONGEST], what.strip()[:LONGEST], int(seconds.strip() or 0), dark)
    return _checked(replace(book, changes=(*book.changes, row)))


def with_cost(book: CostumeBook, words: str, amount: str) -> CostumeBook:
    """With one more cost. Raises BookError."""
    if not words.strip():
        raise BookError("What it was for: write it down.")
    try:
        value = float(amount.strip().replace(",", "."))
    except ValueError:
        raise BookError(f'Cost: "{amount[:12]}" is no figure: write it like 12.50.') from None
    return _checked(replace(book, costs=(*book.costs, Cost(words.strip()[:LONGEST], value))))


def with_wrong(book: CostumeBook, words: str, day: date) -> CostumeBook:
    """With one more thing that went wrong. Raises BookError."""
    if not words.strip():
        raise BookError("What went wrong: write it down, so that the next one goes right.")
    return _checked(replace(book, wrong=(*book.wrong, Wrong(day.isoformat(), words.strip()[:LONGEST]))))


def _checked(book: CostumeBook) -> CostumeBook:
    return CostumeBook.from_data(book.as_data())
