"""The exact answer to who wears which: a mixed integer programme, solved by highspy; and the same by trying everything."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import combinations

import numpy as np

from widehem.core.values import record, replace

Prices = Sequence[Sequence[float | None]]
TIME = 5.0  # seconds, after which the best found so far is taken and said not to be proven
AGREE = 1e-6


@record(frozen=True)
class Chosen:
    """made: the numbers of the sizes that are made; who: by wearer, the size, None for nobody's. cost: of all that is worn. proven:
    nothing better can be."""

    made: tuple[int, ...]
    who: tuple[int | None, ...]
    cost: float
    proven: bool

    @property
    def dressed(self) -> int:
        return sum(size is not None for size in self.who)


def choose(
    prices: Prices, *, most: int | None = None, each_once: bool = False, per_size: float | None = None, undressed: float = 0.0
) -> Chosen:
    """The sizes to make and who wears which: most wearers dressed, then fewest sizes, then least cost.

    prices: by wearer and size, None where it cannot be worn. most: at most so many sizes. each_once: a size is there once.
    per_size, undressed: instead of that order, the least sum of the costs, of so much for each size and so much for everybody
    who is not dressed.
    """
    people, sizes = len(prices), max((len(row) for row in prices), default=0)
    pairs: Pairs = [(i, j, price) for i, row in enumerate(prices) for j, price in enumerate(row) if price is not None]
    if not pairs:
        return Chosen((), (None,) * people, 0.0, proven=True)
    if per_size is not None:
        model = _worn(people, sizes, pairs, each_once)
        proven = model.solve([*(price - undressed for _, _, price in pairs), *[per_size] * sizes])
        return _answer(model, people, sizes, pairs, proven)
    if each_once:  # as many as can be, then the least altering: how many pieces hang on the rail is no matter
        model = _worn(people, sizes, pairs, each_once)
        proven = model.solve([*[-1.0] * len(pairs), *[0.0] * sizes])
        dressed = round(-model.reached)
        model.row(dressed, dressed, list(range(len(pairs))), [1.0] * len(pairs))
        proven = model.solve([*(price for _, _, price in pairs), *[0.0] * sizes]) and proven
        return _answer(model, people, sizes, pairs, proven)
    dressed, made, sure = _fewest(sizes, pairs, most)
    model = _worn(people, sizes, pairs, each_once)
    model.row(dressed, dressed, list(range(len(pairs))), [1.0] * len(pairs))
    model.row(0, len(made), list(range(len(pairs), len(pairs) + sizes)), [1.0] * sizes)
    proven = model.solve([*(price for _, _, price in pairs), *[0.0] * sizes])
    found = _answer(model, people, sizes, pairs, proven and sure)
    plainly = _cheapest_of(prices, made)  # what is there in any case, where the time was out
    return replace(plainly, proven=False) if _better(plainly, found) else found


Pairs = Sequence[tuple[int, int, float]]


def _fewest(sizes: int, pairs: Pairs, most: int | None) -> tuple[int, list[int], bool]:
    """How many can be dressed, in which few sizes, and whether that is proven: who wears which is left open."""
    fitting: dict[int, list[int]] = {}
    for person, size, _ in pairs:
        fitting.setdefault(person, []).append(size)
    wearers = list(fitting)
    model = _Model(len(wearers) + sizes, integers=range(len(wearers), len(wearers) + sizes))
    for number, person in enumerate(wearers):
        mine = fitting[person]
        model.row(0, INFINITE, [number, *(len(wearers) + size for size in mine)], [-1.0, *[1.0] * len(mine)])
    made = list(range(len(wearers), len(wearers) + sizes))
    dressed, proven = len(wearers), True
    if most is not None:
        model.row(0, most, made, [1.0] * sizes)
        proven = model.solve([*[-1.0] * len(wearers), *[0.0] * sizes])
        dressed = round(-model.reached)
    model.row(dressed, INFINITE, list(range(len(wearers))), [1.0] * len(wearers))
    proven = model.solve([*[0.0] * len(wearers), *[1.0] * sizes]) and proven
    values = model.values
    found = [size for size in range(sizes) if values[len(wearers) + size] > 0.5]
    if not found:  # the time was out before anything was found: one size after the other that dresses the most of the rest
        left, found = set(wearers), []
        while left and (most is None or len(found) < most):
            size = max(range(sizes), key=lambda size: sum(size in fitting[person] for person in left))
            found.append(size)
            left = {person for person in left if size not in fitting[person]}
        dressed, proven = len(wearers) - len(left), False
    return dressed, found, proven


def _worn(people: int, sizes: int, pairs: Pairs, each_once: bool) -> _Model:
    """Who wears which: a column for each pair that fits, one for each size that is made."""
    model = _Model(len(pairs) + sizes, integers=range(len(pairs), len(pairs) + sizes))
    by_person: dict[int, list[int]] = {}
    by_size: dict[int, list[int]] = {}
    for number, (person, size, _) in enumerate(pairs):
        by_person.setdefault(person, []).append(number)
        by_size.setdefault(size, []).append(number)
        model.row(0, INFINITE, [number, len(pairs) + size], [-1.0, 1.0])  # worn only what is made
    for columns in (*by_person.values(), *(by_size.values() if each_once else ())):
        model.row(0, 1, columns, [1.0] * len(columns))
    return model


def _answer(model: _Model, people: int, sizes: int, pairs: Pairs, proven: bool) -> Chosen:
    values = model.values
    who: list[int | None] = [None] * people
    cost = 0.0
    for number, (person, size, price) in enumerate(pairs):
        if values[number] > 0.5:
            who[person] = size
            cost += price
    return Chosen(tuple(j for j in range(sizes) if j in who), tuple(who), cost, proven)


INFINITE = 1e30


class _Model:
    """A programme of columns between 0 and 1, some of them whole."""

    def __init__(self, columns: int, integers: range) -> None:
        import highspy

        self._optimal = highspy.HighsModelStatus.kOptimal
        self._solver = solver = highspy.Highs()  # type: ignore[no-untyped-call]
        for name, value in (
            ("output_flag", False),
            ("time_limit", TIME),
            ("mip_rel_gap", 0.0),
            ("mip_abs_gap", AGREE / 10),
            ("threads", 1),
        ):
            solver.setOptionValue(name, value)
        solver.addVars(columns, np.zeros(columns), np.ones(columns))
        for column in integers:
            solver.changeColIntegrality(column, highspy.HighsVarType.kInteger)

    def row(self, low: float, high: float, columns: Sequence[int], values: Sequence[float]) -> None:
        self._solver.addRow(
            float(low), float(high), len(columns), np.array(columns, dtype=np.int32), np.array(values, dtype=np.float64)
        )

    def solve(self, costs: Sequence[float]) -> bool:
        """The least of these costs; whether it is proven."""
        numbers = np.arange(len(costs), dtype=np.int32)
        self._solver.changeColsCost(len(costs), numbers, np.array(costs, dtype=np.float64))
        self._solver.run()
        return bool(self._solver.getModelStatus() == self._optimal)

    @property
    def reached(self) -> float:
        return float(self._solver.getInfo().objective_function_value)

    @property
    def values(self) -> Sequence[float]:
        found: Sequence[float] = self._solver.getSolution().col_value
        return found


def choose_by_trying(prices: Prices, *, most: int | None = None) -> Chosen:
    """As choose, by trying every set of sizes: for small casts, and to hold the other against."""
    sizes = max((len(row) for row in prices), default=0)
    best: Chosen | None = None
    for count in range(min(sizes, most if most is not None else sizes) + 1):
        for made in combinations(range(sizes), count):
            found = _cheapest_of(prices, made)
            if best is None or _better(found, best):
                best = found
    assert best is not None
    return best


def _cheapest_of(prices: Prices, made: Sequence[int]) -> Chosen:
    """Everybody in the cheapest of these sizes."""
    who = tuple(_cheapest(row, made) for row in prices)
    cost = sum(row[at] or 0.0 for row, at in zip(prices, who, strict=True) if at is not None)
    return Chosen(tuple(j for j in made if j in who), who, cost, proven=True)


def _cheapest(row: Sequence[float | None], made: Sequence[int]) -> int | None:
    known = [(price, j) for j in made if (price := row[j]) is not None]
    return min(known)[1] if known else None


def _better(one: Chosen, two: Chosen) -> bool:
    return (-one.dressed, len(one.made), round(one.cost, 9)) < (-two.dressed, len(two.made), round(two.cost, 9))
