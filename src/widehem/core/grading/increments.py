"""The figures of a nest, size by size: lengths of edges, girths, darts, ease; their increments, and the one that falls out."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from itertools import pairwise

from widehem.core.grading.nest import Nest
from widehem.core.grading.size_chart import OUT_IN_NEST, Odd, odd_ones
from widehem.core.grading.sized import Sized
from widehem.core.pattern.check import Case
from widehem.core.pattern.checks.body import Girth, asked_girths, finished
from widehem.core.pattern.edge import Dart
from widehem.core.pattern.roles import edge_of, plain
from widehem.core.values import kept, record

GROUPS = ("Girths", "Ease", "Edges", "Darts")


@record(frozen=True)
class Row:
    """A figure by size, cm; None where a size has no such thing. spots: what to light on the drawing."""

    group: str
    name: str
    values: tuple[float | None, ...]
    spots: tuple[str, ...] = ()
    breaks: tuple[int, ...] = ()

    @kept
    def steps(self) -> tuple[float | None, ...]:
        """The increments from each size to the next."""
        return tuple(None if a is None or b is None else b - a for a, b in pairwise(self.values))

    @kept
    def odd(self) -> tuple[Odd, ...]:
        """Values out of the line of their neighbours, where every size has one."""
        known = [value for value in self.values if value is not None]
        return odd_ones(known, OUT_IN_NEST, self.breaks) if len(known) == len(self.values) else ()


def increments(nest: Nest) -> tuple[Row, ...]:
    """All rows of a nest, over all its sizes."""
    order = tuple(range(len(nest.names)))
    breaks = nest.chart.breaks(nest.chart.key) if nest.chart is not None else ()
    found: list[Row] = []
    for group, read in (("Girths", _girths), ("Ease", eases), ("Edges", _edges), ("Darts", _darts)):
        found += _rows(group, nest, order, read, breaks)
    return tuple(found)


def _rows(
    group: str,
    nest: Nest,
    order: Sequence[int],
    read: Callable[[Sized], Mapping[str, tuple[float, str]]],
    breaks: tuple[int, ...],
) -> list[Row]:
    by_size = {size: read(nest.sizes[size]) for size in order if size in nest.sizes}
    names: dict[str, str] = {}
    for figures in by_size.values():
        for name, (_, spot) in figures.items():
            names.setdefault(name, spot)
    return [
        Row(group, name, tuple(by_size[size][name][0] if size in by_size and name in by_size[size] else None for size in order), (spot,) if spot else (), breaks)
        for name, spot in names.items()
    ]  # fmt: skip


def _edges(sized: Sized) -> dict[str, tuple[float, str]]:
    return {
        edge_of(piece.name, edge.name).capitalize(): (edge.length, f"{piece.name}.{edge.name}")
        for piece in sized.garment.pieces
        for edge in piece.edges
    }


def _asked(sized: Sized) -> dict[str, Girth]:
    return {girth.title: girth for girth in asked_girths(sized.demands)}


def _case(sized: Sized) -> Case:
    return Case(sized.garment, sized.demands, sized.wear, sized.limits)


def _girths(sized: Sized) -> dict[str, tuple[float, str]]:
    case = _case(sized)
    return {title: (finished(case, girth), "" if girth.edge else f"@{girth.name}") for title, girth in _asked(sized).items()}


def eases(sized: Sized) -> dict[str, tuple[float, str]]:
    """The ease of each girth of a size, cm, by its name; and what to light."""
    case = _case(sized)
    return {
        f"{title}, ease": (finished(case, girth) - girth.body, "" if girth.edge else f"@{girth.name}")
        for title, girth in _asked(sized).items()
        if girth.body
    }


def _darts(sized: Sized) -> dict[str, tuple[float, str]]:
    return {
        f"{plain(piece.name).capitalize()}, {plain(dart.name)}": (dart.mouth, f"{piece.name}.{dart.name}")
        for piece in sized.garment.pieces
        for edge in piece.edges
        for dart in edge.gaps
        if isinstance(dart, Dart)
    }
