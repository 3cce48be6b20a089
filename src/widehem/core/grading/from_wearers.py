"""A size chart made of the charts of wearers: of one body with the steps of a house chart, or of a whole company."""

from __future__ import annotations

from collections.abc import Sequence
from statistics import fmean

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.body.estimates import estimate
from widehem.core.grading.size_chart import LEAST_SIZES, MOST_SIZES, SizeChart, SizeChartError, lettered
from widehem.core.units import Saying, say
from widehem.core.values import record

LEAST_WEARERS = 4  # so many readings of a measure, before its step is read from them and not from the house chart
LEAST_SPREAD = 6.0  # cm between the smallest and the largest, likewise


@record(frozen=True)
class FromWearers:
    """A size chart with what it rests on, a sentence each."""

    chart: SizeChart
    notes: tuple[Saying, ...]


def from_one(code: str, name: str, wearer: Chart, steps: SizeChart) -> FromWearers:
    """The sizes round one body: the readings are the base, what is missing is estimated, the steps are those of another chart. Raises
    SizeChartError where the body has no key measure."""
    known = dict(wearer.values)
    estimated = {code: found.cm for code, found in estimate(wearer, wearer.table).found.items()}
    if steps.key not in known:
        raise SizeChartError(f"{CATALOGUE[steps.key].name} was not read: a size chart is looked up by it, so measure it first.")
    rows: dict[str, tuple[float, ...]] = {}
    guessed = []
    for measure, row in steps.rows.items():
        value = known.get(measure, estimated.get(measure))
        if value is None:
            continue
        if measure not in known:
            guessed.append(measure)
        rows[measure] = tuple(round(value + number - row[steps.base], 2) for number in row)
    notes = [say(f"Steps are those of {_plain(steps.name)}.")]
    if guessed:
        notes.append(
            say(
                f"Estimated, not read: {', '.join(CATALOGUE[m].name.lower() for m in guessed[:6])}{' and others' if len(guessed) > 6 else ''}."
            )
        )
    return FromWearers(
        SizeChart(code, name, steps.figure, steps.key, steps.sizes, steps.letters, steps.base, rows), tuple(notes)
    )


def from_company(code: str, name: str, wearers: Sequence[Chart], like: SizeChart, step: float = 4.0) -> FromWearers:
    """The sizes of a company: from its smallest to its largest by the key of a chart, in even steps, each measure as it goes with the
    key among these bodies; where too few were read, with the steps of that chart. Raises SizeChartError."""
    keys = [value for wearer in wearers if (value := wearer.get(like.key)) is not None]
    title = CATALOGUE[like.key].name
    if len(keys) < 2:
        raise SizeChartError(
            f"{title} was read on {len(keys)} of these wearers; two at least make a size chart: measure the others."
        )
    low, high = min(keys), max(keys)
    count = max(int(-(-(high - low) // step)) + 1, LEAST_SIZES)
    if count > MOST_SIZES:
        raise SizeChartError(
            f"From {low:g} to {high:g} in steps of {step:g} are {count} sizes; {MOST_SIZES} are the most: take a wider step."
        )
    start = round(low + (high - low - step * (count - 1)) / 2, 1)
    heads = [start + step * number for number in range(count)]
    rows: dict[str, tuple[float, ...]] = {}
    borrowed = []
    for measure, usual in like.rows.items():
        pairs = [(wearer.get(like.key), wearer.get(measure)) for wearer in wearers]
        both = [(a, b) for a, b in pairs if a is not None and b is not None]
        if measure == like.key:
            rows[measure] = tuple(round(head, 2) for head in heads)
            continue
        if not both:
            continue
        middle, value = fmean(a for a, _ in both), fmean(b for _, b in both)
        slope = _slope(both)
        if slope is None:
            borrowed.append(measure)
            slope = (usual[-1] - usual[0]) / (like.rows[like.key][-1] - like.rows[like.key][0])
        rows[measure] = tuple(round(value + slope * (head - middle), 1) for head in heads)
    sizes = tuple(str(number + 1) for number in range(count))
    base = min(range(count), key=lambda number: abs(heads[number] - sum(keys) / len(keys)))
    notes = [say(f"From {len(keys)} wearers, {title.lower()} {{0}} to {{1u}}, in steps of {{2u}}.", low, high, step)]
    if borrowed:
        notes.append(
            say(
                f"Read on too few for a step of their own, so with the steps of {_plain(like.name)}: {', '.join(CATALOGUE[m].name.lower() for m in borrowed[:6])}{' and others' if len(borrowed) > 6 else ''}."
            )
        )
    return FromWearers(SizeChart(code, name, like.figure, like.key, sizes, lettered(count, base), base, rows), tuple(notes))


def _slope(pairs: Sequence[tuple[float, float]]) -> float | None:
    """How much a measure grows with the key, by least squares; None where too few or too like bodies were read."""
    heads = [head for head, _ in pairs]
    if len(pairs) < LEAST_WEARERS or max(heads) - min(heads) < LEAST_SPREAD:
        return None
    middle, value = fmean(heads), fmean(b for _, b in pairs)
    return sum((a - middle) * (b - value) for a, b in pairs) / sum((a - middle) ** 2 for a in heads)


def _plain(text: str) -> str:
    return text.replace("{", "(").replace("}", ")")
