"""A costume as a whole: its garments in wearing order, what each has to go over, and what there is of it to cut."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import Literal

from widehem.core.design.make import Made
from widehem.core.pattern.checks.body import Girth
from widehem.core.pattern.garment import OPENING_WORDS
from widehem.core.pattern.wear import LAYER, PADDED_LAYER
from widehem.core.units import Saying, say
from widehem.core.values import record

Counts = Literal["close", "ordinary", "padded"]
COUNTS: dict[Counts, str] = {
    "close": "close to the skin, takes no room",
    "ordinary": f"an ordinary layer, takes about {{{LAYER:g}}} round the body",
    "padded": f"padded, takes about {{{PADDED_LAYER:g}}} round the body",
}
TAKES: dict[Counts, float] = {"close": 0.0, "ordinary": LAYER, "padded": PADDED_LAYER}


@record(frozen=True)
class Layer:
    """A garment of a costume. made: drawn over what is under it; None where it cannot be drawn, and wrong says why."""

    name: str
    counts: Counts
    made: Made | None
    wrong: Saying | None = None


@record(frozen=True)
class Over:
    """What a garment has to go over. under: the names of what takes room there, from the skin outwards; takes: the room, cm
    round the body."""

    under: tuple[str, ...]
    takes: float

    @property
    def saying(self) -> Saying:
        if not self.under:
            return say("Next to the skin, or over what takes no room.")
        return say(f"Over {_listed(self.under)}: {{0}} more round the body.", self.takes)


def goes_over(layers: Sequence[Layer]) -> list[Over]:
    """For each garment, from the skin outwards, what takes room under it."""
    found: list[Over] = []
    names: list[str] = []
    takes = 0.0
    for layer in layers:
        found.append(Over(tuple(names), takes))
        if TAKES[layer.counts]:
            names.append(layer.name)
            takes += TAKES[layer.counts]
    return found


@record(frozen=True)
class Round:
    """A level of the body with the finished girth of each garment there, cm; None for one that does not reach it."""

    title: str
    body: float
    girths: tuple[float | None, ...]
    words: tuple[Saying, ...]


def rounds(layers: Sequence[Layer]) -> list[Round]:
    """Every level that two garments of a costume go round, with what lies over what there."""
    asked: dict[str, dict[int, Girth]] = {}
    for n, layer in enumerate(layers):
        for girth in layer.made.girths if layer.made else ():
            if not girth.limb:
                asked.setdefault(girth.name, {})[n] = girth
    found = []
    for by in asked.values():
        if len(by) < 2:
            continue
        girths = tuple(_finished(layers[n].made, by[n]) if n in by else None for n in range(len(layers)))
        first = next(iter(by.values()))
        found.append(Round(first.title, first.body, girths, tuple(_lying(layers, girths))))
    return found


def _finished(made: Made | None, asked: Girth) -> float | None:
    if made is None:
        return None
    garment = made.garment
    whole = garment.round_of(asked.edge, limb=asked.limb) if asked.edge else garment.girth(asked.name, limb=asked.limb)
    return whole + asked.gap if whole else None


def _lying(layers: Sequence[Layer], girths: Sequence[float | None]) -> list[Saying]:
    """How each garment lies over the next one under it at a level."""
    there = [(layer, girth) for layer, girth in zip(layers, girths, strict=True) if girth]
    found = []
    for (inner, under), (outer, over) in pairwise(there):
        room, lower, upper = over - under, _plain(inner.name), _plain(outer.name)
        if room >= TAKES[inner.counts]:
            found.append(say(f"{upper}: {{0u}} bigger than {lower}.", room))
        elif room >= 0:
            found.append(say(f"{upper}: only {{0u}} bigger than {lower}: it lies close on it.", room))
        else:
            found.append(say(f"{lower} is {{0u}} bigger than {upper} over it: it lies in folds there.", -room))
    return found


def closing_words(made: Made) -> list[Saying]:
    """Where a garment closes, as it is drawn."""
    found = []
    for opening in made.garment.openings:
        where = OPENING_WORDS.get(opening.at, opening.at)
        by = f", with {opening.by}" if opening.by else ""
        if opening.length > 0:
            found.append(say(f"Opens at the {where}, {{0}} long{by}.", opening.length))
        else:
            found.append(say(f"Opens at the {where}{by}."))
    return found


def _plain(name: str) -> str:
    """A name somebody gave, without what a sentence would take for a figure."""
    return name.replace("{", "(").replace("}", ")")


def _listed(given: Sequence[str]) -> str:
    names = [_plain(name) for name in given]
    return names[0] if len(names) == 1 else f"{', '.join(names[:-1])} and {names[-1]}"
