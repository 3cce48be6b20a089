"""Charts as files: what one row of a company's chart file holds, and the names its columns may have."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import field
from datetime import date

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Reading
from widehem.core.body.figure_tables import TABLES, FigureTable
from widehem.core.units import CM_PER_INCH, TICKS_PER_INCH, Length, Unit
from widehem.core.values import record

ABOUT = {
    "wearer": ("wearer", "name"),
    "part": ("part", "role"),
    "figure": ("figure", "figure table"),
    "read_on": ("read on", "date", "taken on"),
    "foundation": ("foundation", "over"),
    "shoes": ("shoes",),
    "read_by": ("read by", "measured by"),
    "note": ("note",),
    "unit": ("unit",),
}


@record(frozen=True)
class FiledChart:
    """One wearer's chart as it stands in a file."""

    wearer: str
    part: str = ""
    figure: str = "curved"
    read_on: date | None = None
    foundation: str = ""
    shoes: str = ""
    read_by: str = ""
    readings: dict[str, Reading] = field(default_factory=dict)
    note: str = ""
    cautions: tuple[str, ...] = ()


@record(frozen=True)
class Problem:
    """Something in a file that was not understood. where: 'row 3, hip'; fatal: the file cannot be used as it is."""

    where: str
    words: str


@record(frozen=True)
class Understood:
    """What was read from a file. left_out: columns nobody knows. problems: cells that are not what they should be."""

    charts: tuple[FiledChart, ...]
    problems: tuple[Problem, ...] = ()
    left_out: tuple[str, ...] = ()
    notes: tuple[str, ...] = ()


class FileProblem(ValueError):  # noqa: N818 - it is told to people
    """A file that cannot be read at all; one sentence."""


def exact(length: Length, unit: Unit) -> str:
    """A length for a file: as exact as it is kept, so that reading it back gives the same."""
    if unit == "cm":
        return f"{length.cm:.5f}".rstrip("0").rstrip(".")
    whole, rest = divmod(length.ticks * 64, TICKS_PER_INCH * 64)
    sixty_fourths, odd = divmod(rest, TICKS_PER_INCH)
    if odd:
        return f"{length.cm / CM_PER_INCH:.5f}".rstrip("0").rstrip(".")
    if not sixty_fourths:
        return str(whole)
    under = 64
    while sixty_fourths % 2 == 0:
        sixty_fourths, under = sixty_fourths // 2, under // 2
    return f"{whole} {sixty_fourths}/{under}" if whole else f"{sixty_fourths}/{under}"


def plain(name: str) -> str:
    """A column's name without case, signs and doubled spaces, to compare it."""
    return " ".join(re.sub(r"[^a-z0-9]+", " ", name.lower()).split())


def _known() -> dict[str, str]:
    found: dict[str, str] = {}
    for entry in CATALOGUE.values():
        for name in (entry.code, entry.name, *entry.also):
            found.setdefault(plain(name), entry.code)
    for code, names in ABOUT.items():
        for name in (code, *names):
            found.setdefault(plain(name), code)
    return found


KNOWN = _known()
_TURN = re.compile(r"\s*(2|ii|second|second reading|again)$")
_SIDE = re.compile(r"\s+(left|right)$")
_UNIT = re.compile(r"[\(\[]\s*(cm|in|inch|inches)\s*[\)\]]\s*$", re.IGNORECASE)


@record(frozen=True)
class Column:
    """What a column holds: a code, which reading, the unit its name tells, and the side."""

    code: str
    turn: int = 1
    unit: Unit | None = None
    side: str = ""


def column_named(name: str) -> Column | None:
    """The column of this name: by code, name or other name, '(in)' or '(cm)' behind it, '2' or 'second' for the second
    reading. None when nobody knows it."""
    told = _UNIT.search(name)
    unit: Unit | None = None
    if told:
        unit = "cm" if told[1].lower() == "cm" else "in"
        name = name[: told.start()]
    words = plain(name)
    if words in KNOWN:
        return Column(KNOWN[words], 1, unit)
    second = _TURN.search(words)
    if second:
        words = words[: second.start()]
    side = _SIDE.search(words)
    if side:
        words = words[: side.start()]
    code = KNOWN.get(words)
    if code in CATALOGUE and (not side or CATALOGUE[code].sided):
        return Column(code, 2 if second else 1, unit, side[1] if side else "")
    return None


def figure_named(text: str, tables: Iterable[FigureTable] = ()) -> str | None:
    """The figure table of this code or name, of those that ship and these; None when there is none."""
    words = plain(text)
    return next((table.code for table in (*TABLES.values(), *tables) if words in (plain(table.code), plain(table.name))), None)
