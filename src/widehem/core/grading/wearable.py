"""What a cast can be dressed in: the sizes of a chart, the sizes of a design as they come out, garments on the rail."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from widehem.core.grading.cast import Size
from widehem.core.grading.nest import Nest
from widehem.core.grading.sized import Sized
from widehem.core.pattern.check import Case
from widehem.core.pattern.checks.body import asked_girths, finished

BODY = ("bust", "waist", "hip")


def sizes_of_nest(nest: Nest) -> tuple[Size, ...]:
    """The sizes of a design with the body each fits: what it measures, less the ease that its base has on the body it was drawn for.
    Other measures are those of the chart."""
    base = nest.sizes.get(nest.base)
    if base is None:
        return ()
    ease = {name: girth - body for name, (girth, body) in _girths(base).items()}
    found = []
    for number in sorted(nest.sizes):
        fits = (
            {code: row[number] for code, row in nest.chart.rows.items() if code not in BODY} if nest.chart is not None else {}
        )
        fits |= {name: girth - ease[name] for name, (girth, _) in _girths(nest.sizes[number]).items() if name in ease}
        name = nest.chart.called(number) if nest.chart is not None else nest.names[number]
        found.append(Size(name, fits))
    return tuple(found)


def _girths(sized: Sized) -> dict[str, tuple[float, float]]:
    """Finished girth and body by the names of the levels that are measures of the body."""
    made = sized.made
    case = Case(made.garment, made.demands, made.wear, made.draft.limits)
    return {
        girth.name: (finished(case, girth), girth.body)
        for girth in asked_girths(made.demands)
        if girth.name in BODY and not girth.limb
    }


def finished_sizes(rows: Iterable[tuple[str, Mapping[str, float], Mapping[str, float]]]) -> tuple[Size, ...]:
    """Garments that are finished: name, what they measure, and the ease they want, by measure, cm."""
    return tuple(Size(name, {code: value - ease.get(code, 0.0) for code, value in fits.items()}) for name, fits, ease in rows)
