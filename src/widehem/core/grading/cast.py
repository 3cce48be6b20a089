"""Few patterns for a whole cast: who wears which size after which alteration, in as few sizes as dress the most."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import field

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.grading.choosing import choose
from widehem.core.grading.size_chart import SizeChart
from widehem.core.units import Saying, say
from widehem.core.values import kept, record, replace

GIRTHS = ("bust", "waist", "hip")
LET_OUT, TAKE_IN, HEM = "let out", "taken in", "hem"
NEARLY = 1e-9


@record(frozen=True)
class Tolerances:
    """How far a finished garment can be altered, cm: let out and taken in round the body, its hem either way. lengths: measures
    that a hem takes up; girths: those that seams do."""

    let_out: float = 2.0
    take_in: float = 4.0
    hem: float = 5.0
    girths: tuple[str, ...] = GIRTHS
    lengths: tuple[str, ...] = ()


@record(frozen=True)
class Hours:
    """What the work takes, hours: cutting out a size and grading it; making a garment up; a draft of one's own; altering, for each
    seam or hem, and for each centimetre of it."""

    size: float = 3.0
    make: float = 14.0
    own_draft: float = 8.0
    seam: float = 0.75
    each_cm: float = 0.15


@record(frozen=True)
class Alteration:
    """What is done to a finished garment for one wearer: the measure, and by how much, cm; larger is let out, or the hem down."""

    code: str
    by: float

    @property
    def kind(self) -> str:
        if CATALOGUE[self.code].kind not in ("girth", "arc", "width"):
            return HEM
        return LET_OUT if self.by > 0 else TAKE_IN

    def saying(self) -> Saying:
        """What is done, in words."""
        name = CATALOGUE[self.code].name.lower()
        if self.kind == HEM:
            return say(f"hem {'down' if self.by > 0 else 'up'} {{0u}}, for {name}", abs(self.by))
        return say(f"{name} {self.kind} {{0u}}", abs(self.by))


@record(frozen=True)
class Fit:
    """One wearer in one size: what is altered, and the hours of it. beyond: measures that cannot be altered so far, with by how much
    too far, cm."""

    alterations: tuple[Alteration, ...]
    hours: float
    beyond: tuple[Alteration, ...] = ()

    @property
    def possible(self) -> bool:
        return not self.beyond


@record(frozen=True)
class Person:
    """A wearer of a cast."""

    id: int
    name: str
    chart: Chart


@record(frozen=True)
class Size:
    """Something that can be worn: a size of a chart or of a design, or a finished garment, with the body it fits, cm."""

    name: str
    fits: Mapping[str, float]


def sizes_of_chart(chart: SizeChart) -> tuple[Size, ...]:
    """The sizes of a chart, by their names."""
    return tuple(Size(chart.called(n), {code: row[n] for code, row in chart.rows.items()}) for n in range(len(chart)))


def fit(person: Person, size: Size, tolerances: Tolerances, hours: Hours) -> Fit | None:
    """What a wearer needs in a size; None where no measure is known of both."""
    done: list[Alteration] = []
    beyond: list[Alteration] = []
    known = False
    for codes, low, high in (
        (tolerances.girths, -tolerances.take_in, tolerances.let_out),
        (tolerances.lengths, -tolerances.hem, tolerances.hem),
    ):
        for code in codes:
            body, fits = person.chart.get(code), size.fits.get(code)
            if body is None or fits is None:
                continue
            known = True
            by = body - fits
            if by > high + NEARLY or by < low - NEARLY:
                beyond.append(Alteration(code, by - (high if by > 0 else low)))
            elif abs(by) > 0.25:  # nobody unpicks a seam for less
                done.append(Alteration(code, by))
    if not known:
        return None
    return Fit(tuple(done), sum(hours.seam + hours.each_cm * abs(one.by) for one in done), tuple(beyond))


@record(frozen=True)
class Wears:
    """Who wears what. size: its name, '' for nothing of these; why: what is in the way of the nearest, where nothing fits."""

    person: Person
    size: str
    fit: Fit | None
    why: Saying | None = None


@record(frozen=True)
class CastPlan:
    """The sizes that are made, and who wears which. own: those who need a draft of their own. proven: nothing better can be. prices
    and cost: what it was chosen by, where fewer sizes can be asked for."""

    sizes: tuple[str, ...]
    who: tuple[Wears, ...]
    proven: bool
    hours: Mapping[str, float] = field(default_factory=dict)
    prices: tuple[tuple[float | None, ...], ...] = ()
    cost: float = 0.0

    @kept
    def best(self) -> tuple[tuple[int, int, float], ...]:
        """How many can be dressed with at most one size, two, and so on up to those of the plan, and the hours of altering."""
        if not self.prices or not self.sizes:
            return ()
        fewer = [(most, choose(self.prices, most=most)) for most in range(1, len(self.sizes))]
        return (*((most, one.dressed, one.cost) for most, one in fewer), (len(self.sizes), self.dressed, self.cost))

    @property
    def own(self) -> tuple[Wears, ...]:
        return tuple(wears for wears in self.who if not wears.size)

    @property
    def dressed(self) -> int:
        return sum(bool(wears.size) for wears in self.who)

    def wearing(self, size: str) -> tuple[Wears, ...]:
        return tuple(wears for wears in self.who if wears.size == size)


def costs(people: Sequence[Person], sizes: Sequence[Size], tolerances: Tolerances, hours: Hours) -> list[list[Fit | None]]:
    """What every wearer needs in every size; None where nothing is known."""
    return [[fit(person, size, tolerances, hours) for size in sizes] for person in people]


def plan(people: Sequence[Person], sizes: Sequence[Size], tolerances: Tolerances | None = None, hours: Hours | None = None,
    most: int | None = None, each_once: bool = False) -> CastPlan:  # fmt: skip
    """Dress as many as can be, then in as few sizes as do, then with the least altering. most: at most so many sizes. each_once: what
    hangs on the rail is worn by one only."""
    allowed, rates = tolerances or Tolerances(), hours or Hours()
    table = costs(people, sizes, allowed, rates)
    prices = [[one.hours if one is not None and one.possible else None for one in row] for row in table]
    chosen = choose(prices, most=most, each_once=each_once)
    who = tuple(_wears(person, table[n], sizes, chosen.who[n]) for n, person in enumerate(people))
    made = tuple(sizes[j].name for j in chosen.made)
    asked = tuple(map(tuple, prices)) if not each_once else ()
    return CastPlan(made, who, chosen.proven, compared(who, made, rates), asked, chosen.cost)


def _wears(person: Person, row: Sequence[Fit | None], sizes: Sequence[Size], at: int | None) -> Wears:
    if at is not None:
        return Wears(person, sizes[at].name, row[at])
    known = [(sum(abs(one.by) for one in found.beyond), j) for j, found in enumerate(row) if found is not None and found.beyond]
    if not known:
        free = any(found is not None and found.possible for found in row)
        words = (
            say("Another is wearing what would fit.")
            if free
            else say("None of the measures that are asked for is on the chart: measure them.")
        )
        return Wears(person, "", None, words)
    _, nearest = min(known)
    found = row[nearest]
    assert found is not None
    if any(found is not None and found.possible for found in row):
        return Wears(person, "", None, say("What would fit is worn by another, or not among the sizes made."))
    beyond = ", ".join(
        f"{CATALOGUE[one.code].name.lower()} {{{number}u}} too {'large' if one.by > 0 else 'small'}"
        for number, one in enumerate(found.beyond)
    )
    nearly = f"Nearest is {_plain(sizes[nearest].name)}: {beyond}, after all that can be altered."
    return Wears(person, "", None, say(nearly, *(abs(one.by) for one in found.beyond)))


def _plain(text: str) -> str:
    return text.replace("{", "(").replace("}", ")")


def compared(who: Iterable[Wears], sizes: Sequence[str], hours: Hours) -> dict[str, float]:
    """The hours of this plan against a draft for everybody: `plan`, `alone`."""
    rows = list(who)
    making = hours.make * len(rows)
    own = sum(hours.own_draft for wears in rows if not wears.size)
    altering = sum(wears.fit.hours for wears in rows if wears.fit is not None)
    return {"plan": hours.size * len(sizes) + own + altering + making, "alone": hours.own_draft * len(rows) + making,
        "sizes": hours.size * len(sizes), "altering": altering, "own": own, "making": making}  # fmt: skip


def least_hours(
    people: Sequence[Person], sizes: Sequence[Size], tolerances: Tolerances | None = None, hours: Hours | None = None
) -> CastPlan:
    """The plan that takes the fewest hours, where a draft of one's own may be less work than another size."""
    allowed, rates = tolerances or Tolerances(), hours or Hours()
    table = costs(people, sizes, allowed, rates)
    prices = [[one.hours if one is not None and one.possible else None for one in row] for row in table]
    chosen = choose(prices, per_size=rates.size, undressed=rates.own_draft)
    who = tuple(_wears(person, table[n], sizes, chosen.who[n]) for n, person in enumerate(people))
    who = tuple(
        replace(w, why=say("A draft of their own takes fewer hours than another size."))
        if not w.size and any(p is not None for p in prices[n])
        else w
        for n, w in enumerate(who)
    )
    made = tuple(sizes[j].name for j in chosen.made)
    return CastPlan(made, who, chosen.proven, compared(who, made, rates))
