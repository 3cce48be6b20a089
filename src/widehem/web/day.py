"""What the day brings: garments and charts that want somebody, in the order in which they press, the newest first in each."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import date
from functools import partial

from flask import url_for

from widehem.core.body.catalogue import names
from widehem.core.standing import WAITS, Standing, due_words
from widehem.jobs.standing import Garment, Looked
from widehem.store.standing import GarmentRow, House, PersonRow


@dataclass(frozen=True)
class Entry:
    """One thing of the day. what: the garment or the wearer; about: whose it is; words: what is the matter; late: it presses."""

    what: str
    href: str
    about: str
    words: str
    late: bool = False


@dataclass(frozen=True)
class Group:
    """Things of one kind, the newest first. made: each of them when it is asked for, for of many only a few are shown; late: how
    many are late."""

    code: str
    title: str
    made: tuple[Callable[[], Entry], ...]
    verdict: str = "count"
    late: int = 0

    def entries(self, most: int | None = None) -> list[Entry]:
        """Those that are shown."""
        return [entry() for entry in self.made[:most]]

    def __len__(self) -> int:
        return len(self.made)


@dataclass(frozen=True)
class Stand:
    """A garment with what was worked out of it and where it stands."""

    row: GarmentRow
    found: Garment
    standing: Standing


class Day:
    """The day of a house. now: today; tried: the numbers of garments on which this maker tries something."""

    def __init__(
        self, house: House, known: Looked, now: date, productions: dict[int, str], tried: set[int]
    ) -> None:  # fmt: skip
        self.house, self.known, self.now, self.tried = house, known, now, tried
        self.productions = productions if len(productions) > 1 else {}
        rows = (row for row in house.garments if row.finished_on is None and row.id in known.garments)
        self.open = [Stand(row, known.garments[row.id], known.garments[row.id].standing(row)) for row in rows]

    def groups(self) -> list[Group]:
        """Everything that wants somebody."""
        flat = [one for one in self.open if not one.standing.cut]  # what is cut is not drawn again
        due = sorted((one for one in self.open if one.standing.is_due(self.now)), key=lambda one: one.row.due_on or self.now)
        late = sum(1 for one in due if (one.standing.late(self.now) or 0) > 0)
        doubted = [person for person in self.house.people if self._doubts(person)]
        found = (
            Group("due", "Due", self._each(due, self._due), "look" if late else "count", late),
            Group("untrue", "Not true", self._each((one for one in flat if one.standing.untrue and one.standing.drafted != "bare"), self._untrue), "not"),
            Group("undrawn", "Cannot be drawn", self._each((one for one in flat if one.standing.trouble), self._undrawn), "not"),
            Group("stale", "Stale", self._each((one for one in flat if one.standing.changed), self._stale), "look"),
            Group("doubt", "In doubt", tuple(partial(self._doubt, person) for person in doubted), "look"),
            Group("waits", "Waiting", self._each((one for one in self.open if one.standing.waits), self._waits)),
            Group("tried", "Tried and not kept", self._each((one for one in self.open if one.row.id in self.tried), self._tried)),
            Group("read", "To read", self._each((one for one in flat if one.standing.missing), self._read)),
        )  # fmt: skip
        return [group for group in found if group.made]

    @staticmethod
    def _each(stands: Iterable[Stand], entry: Callable[[Stand], Entry]) -> tuple[Callable[[], Entry], ...]:
        return tuple(partial(entry, one) for one in stands)

    def _entry(self, one: Stand, words: str, href: str = "", *, late: bool = False) -> Entry:
        row = one.row
        about = f"{row.wearer}, {self.productions[row.production_id]}" if self.productions else row.wearer
        return Entry(row.name, href or url_for("board.draft", docket_id=row.id), about, words, late)

    def _due(self, one: Stand) -> Entry:
        late = one.standing.late(self.now) or 0
        return self._entry(one, f"{due_words(late)}, {_still(one.standing)}", late=late >= 0)

    def _untrue(self, one: Stand) -> Entry:
        title = one.found.title
        more = f" and {one.found.untrue - 1} more" if one.found.untrue > 1 else ""
        href = url_for("board.draft", docket_id=one.row.id, slip="checks", lit=one.found.worst)
        return self._entry(one, f"{title[:1].lower()}{title[1:]}{more}", href)

    def _undrawn(self, one: Stand) -> Entry:
        return self._entry(one, "the draft says why")

    def _stale(self, one: Stand) -> Entry:
        more = " and more" if len(one.found.changed) > 2 else ""
        return self._entry(one, f"{names(one.found.changed[:2])}{more} changed since it was drawn")

    def _waits(self, one: Stand) -> Entry:
        return self._entry(one, f"for {WAITS.get(one.standing.waits, one.standing.waits)}")

    def _tried(self, one: Stand) -> Entry:
        return self._entry(one, "take it up, or drop it")

    def _read(self, one: Stand) -> Entry:
        missing = one.found.missing
        words = f"needs {names(missing)}" if len(missing) < 4 else f"needs {len(missing)} measures"
        return self._entry(one, words, url_for("measure.chart", wearer_id=one.row.wearer_id, docket=one.row.id))

    def _doubts(self, person: PersonRow) -> int:
        found = self.known.people.get(person.id)
        return found.looks if found is not None else 0

    def _doubt(self, person: PersonRow) -> Entry:
        found = self.known.people[person.id]
        words = f"{names([found.at])} to look at again" if found.at else "the chart to look at again"
        if found.looks > 1:
            words += f", and {found.looks - 1} more"
        href = url_for("measure.chart", wearer_id=person.id, at=found.at or None)
        return Entry(person.name, href, self.productions.get(person.production_id, ""), words)


def _still(stands: Standing) -> str:
    """What is still to do on something that is due."""
    words = {
        "read": "not measured yet", "mend": "cannot be drawn", "redraw": "stale", "true": "not true", "cut": "to cut",
        "wait": f"waits for {WAITS.get(stands.waits, stands.waits)}", "fit": "to fit", "finish": "to finish", "": "",
    }  # fmt: skip
    return words[stands.next]
