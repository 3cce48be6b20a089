"""A size chart: measures by size, with their steps, breaks, and the increment that falls out of line."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import field
from itertools import pairwise

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart, chart_of
from widehem.core.body.figure_tables import TABLES
from widehem.core.units import Saying, say
from widehem.core.values import kept, record, replace

LEAST_SIZES, MOST_SIZES, MOST_ROWS = 2, 30, 80
LETTERS = ("XXS", "XS", "S", "M", "L", "XL", "XXL", "3XL", "4XL", "5XL", "6XL")
MIDDLE = LETTERS.index("M")
EVEN = 0.011  # cm: two steps that differ by less are one, said in tenths
OUT_IN_CHART, OUT_IN_NEST = 0.2, 0.15  # cm off the line of its neighbours: an increment that falls out


class SizeChartError(ValueError):
    """A size chart that cannot be: one sentence naming row, size and figure."""


def lettered(count: int, base: int) -> tuple[str, ...]:
    """Letters for so many numbered sizes: every second size from the base, '' between them."""
    found = []
    for number in range(count):
        at = MIDDLE + (number - base) // 2
        found.append(LETTERS[at] if (number - base) % 2 == 0 and 0 <= at < len(LETTERS) else "")
    return tuple(found)


@record(frozen=True)
class SizeChart:
    """Measures of bodies by size, cm.

    figure: the figure table its bodies are judged by. key: the measure a body is looked up by first. sizes: their names, from
    small to large; letters: as they are called in letters, '' where they are not. base: the number of the size that patterns
    are drawn in, from 0. rows: a value for each size. Raises SizeChartError.
    """

    code: str
    name: str
    figure: str
    key: str
    sizes: tuple[str, ...]
    letters: tuple[str, ...]
    base: int
    rows: Mapping[str, tuple[float, ...]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        count = len(self.sizes)
        if not LEAST_SIZES <= count <= MOST_SIZES:
            raise SizeChartError(f"A size chart has {LEAST_SIZES} to {MOST_SIZES} sizes; this one has {count}.")
        if len(set(self.sizes)) != count or not all(self.sizes):
            twice = next((name for name in self.sizes if not name or self.sizes.count(name) > 1), "")
            raise SizeChartError(
                f'Two sizes are called "{twice}": give each a name of its own.' if twice else "A size has no name."
            )
        if len(self.letters) != count:
            raise SizeChartError(f"There are {len(self.letters)} letters for {count} sizes.")
        if not 0 <= self.base < count:
            raise SizeChartError(f"The base is size number {self.base + 1}, and there are {count}.")
        if self.key not in self.rows:
            raise SizeChartError(f"The chart is looked up by {_name(self.key)}, and it has no such row.")
        if self.figure not in TABLES:
            raise SizeChartError(f'There is no figure "{self.figure}": there are {", ".join(TABLES)}.')
        for code, values in self.rows.items():
            if code not in CATALOGUE:
                raise SizeChartError(f'"{code}" is not a measure of the catalogue.')
            if len(values) != count:
                raise SizeChartError(f"{_name(code)} has {len(values)} values for {count} sizes.")

    def __len__(self) -> int:
        return len(self.sizes)

    def called(self, size: int) -> str:
        """The name of a size with its letter where it has one: '5 (M)'."""
        letter = self.letters[size]
        return f"{self.sizes[size]} ({letter})" if letter and letter != self.sizes[size] else self.sizes[size]

    def number(self, name: str) -> int:
        """The number of a size by its name or letter. Raises SizeChartError naming those there are."""
        for names in (self.sizes, self.letters):
            if name and name in names:
                return names.index(name)
        raise SizeChartError(f'There is no size "{name}": there are {", ".join(self.sizes)}.')

    @kept
    def columns(self) -> tuple[Chart, ...]:
        """The body of every size, as a chart of a wearer."""
        return tuple(
            chart_of({code: values[number] for code, values in self.rows.items()}, figure=self.figure)
            for number in range(len(self.sizes))
        )

    def column(self, size: int) -> Chart:
        """The body of a size, by its number from 0."""
        return self.columns[size]

    def steps(self, code: str) -> tuple[float, ...]:
        """The increments of a row from each size to the next, cm."""
        return tuple(round(after - before, 4) for before, after in pairwise(self.rows[code]))

    def step(self, code: str, size: int) -> float:
        """The increment from a size to the next, cm."""
        return self.steps(code)[size]

    def breaks(self, code: str) -> tuple[int, ...]:
        """The sizes from which a row goes on by another step, kept for at least two steps on either side."""
        steps = self.steps(code)
        return tuple(
            at
            for at in range(1, len(steps))
            if abs(steps[at] - steps[at - 1]) > EVEN
            and (at < 2 or abs(steps[at - 1] - steps[at - 2]) <= EVEN)
            and (at + 1 >= len(steps) or abs(steps[at + 1] - steps[at]) <= EVEN)
        )

    def grown(self, code: str, size: int) -> float:
        """How much larger (cm) a measure is in a size than in the base; of the key where the chart has no such row."""
        row = self.rows.get(code) or self.rows[self.key]
        return row[size] - row[self.base]

    @kept
    def odd(self) -> dict[str, tuple[Odd, ...]]:
        """Values that fall out of the line of their neighbours, by row."""
        breaks = self.breaks(self.key)
        found = {code: odd_ones(values, OUT_IN_CHART, breaks) for code, values in self.rows.items()}
        return {code: odd for code, odd in found.items() if odd}

    @kept
    def doubts(self) -> tuple[tuple[str, int, Saying], ...]:
        """What is to be looked at: row, size, and why. Odd increments, and values that no body has."""
        found: list[tuple[str, int, Saying]] = []
        for code, values in self.rows.items():
            entry = CATALOGUE[code]
            for number, value in enumerate(values):
                if not entry.low <= value <= entry.high:
                    words = f"{entry.name} of size {self.sizes[number]} is {{0u}}; bodies measure {{1}} to {{2u}}."
                    found.append((code, number, say(words, value, entry.low, entry.high)))
        for code, odd in self.odd.items():
            for one in odd:
                words = f"{CATALOGUE[code].name} of size {self.sizes[one.at]} is {{0u}}; the sizes round it run to {{1u}}."
                found.append((code, one.at, say(words, one.value, one.expected)))
        return tuple(found)

    def with_value(self, code: str, size: int, value: float) -> SizeChart:
        row = list(self.rows[code])
        row[size] = value
        return replace(self, rows={**self.rows, code: tuple(row)})


@record(frozen=True)
class Odd:
    """A value that falls out of the line of its neighbours: its place, itself, and what they run to."""

    at: int
    value: float
    expected: float


def odd_ones(values: Sequence[float], tolerance: float, breaks: Sequence[int] = ()) -> tuple[Odd, ...]:
    """Values off both lines that agree about them: the line through the two before and that through the two after.

    A break is no odd one: before and after it the lines do not agree. breaks: where the sizes are known to go on by other
    steps; between two of them all others of a stretch may tell of one, also at its ends.
    """
    found: dict[int, Odd] = {}
    ends = (0, *breaks, len(values) - 1)
    for at, value in enumerate(values):
        told = _told_by_neighbours(values, at, tolerance)
        if told is None:
            stretches = [(low, high) for low, high in pairwise(ends) if low <= at <= high]
            lines = [line for low, high in stretches if (line := _told_by_others(values, low, high, at, tolerance)) is not None]
            told = lines[0] if lines and all(abs(line - lines[0]) <= tolerance for line in lines) else None
        if told is not None and abs(value - told) > tolerance:
            found[at] = Odd(at, value, told)
    # a wrong value bends the lines of its neighbours: what lies farthest off is kept, the neighbours it blames are not
    kept_: list[Odd] = []
    for odd in sorted(found.values(), key=lambda odd: -abs(odd.value - odd.expected)):
        if all(abs(odd.at - other.at) > 2 for other in kept_):
            kept_.append(odd)
    return tuple(sorted(kept_, key=lambda odd: odd.at))


def _told_by_neighbours(values: Sequence[float], at: int, tolerance: float) -> float | None:
    """What the two before and the two after tell of a value, where they agree and it is off both."""
    if at < 2 or at + 2 >= len(values):
        return None
    before, after = 2 * values[at - 1] - values[at - 2], 2 * values[at + 1] - values[at + 2]
    if abs(before - after) > tolerance or min(abs(values[at] - before), abs(values[at] - after)) <= tolerance:
        return None
    return (before + after) / 2


def _told_by_others(values: Sequence[float], low: int, high: int, at: int, tolerance: float) -> float | None:
    """What all others of a stretch tell of a value, where at least three lie on one line."""
    others = [(number, values[number]) for number in range(low, high + 1) if number != at]
    if len(others) < 3:
        return None
    (first, start), (last, end) = others[0], others[-1]
    step = (end - start) / (last - first)
    if any(abs(start + step * (number - first) - value) > tolerance / 4 for number, value in others):
        return None
    return start + step * (at - first)


def _name(code: str) -> str:
    return CATALOGUE[code].name if code in CATALOGUE else code
