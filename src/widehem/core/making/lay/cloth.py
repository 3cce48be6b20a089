"""A cloth as it lies on the table: how wide, open or folded, which way its nap runs, its stripes, what it shrinks by."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any, Literal

from widehem.core.units import Saying, say
from widehem.core.values import record

Way = Literal["one", "either", "any"]
WAYS: Mapping[Way, str] = {
    "one": "one way only: a nap, a shine, a picture with a top",
    "either": "either way, head to foot",
    "any": "any way: it has no grain",
}
TURNS: Mapping[Way, tuple[int, ...]] = {"one": (0,), "either": (0, 180), "any": (0, 90, 180, 270)}
ROUND_UP = 10.0  # cm in which cloth is bought
DEAREST = 1e6
LEAST_REPEAT, MOST_REPEAT = 0.5, 100.0  # cm
NARROWEST, WIDEST, FARTHEST_GAP, MOST_SHRINK = 20.0, 400.0, 5.0, 30.0
WIDTHS = (90.0, 115.0, 140.0, 150.0)  # cm, as it is sold


class LayError(ValueError):
    """A lay that cannot be, in one sentence. field: what of the cloth is wrong, as OnTable calls it."""

    def __init__(self, field: str, saying: Saying) -> None:
        super().__init__(str(saying))
        self.field, self.saying = field, saying


@record(frozen=True)
class OnTable:
    """Lengths in cm. folded: lengthwise, the fold along one side. gap: between pieces; selvedge: kept clear at each. shrinks: per
    cent of its length. across, along: the repeat of its stripes across the width and of its bars along the length, 0 for none.
    price: for a metre."""

    width: float = 150.0
    folded: bool = False
    way: Way = "either"
    gap: float = 0.3
    selvedge: float = 1.0
    shrinks: float = 0.0
    across: float = 0.0
    along: float = 0.0
    price: float = 0.0

    def __post_init__(self) -> None:
        if not NARROWEST <= self.width <= WIDEST:
            wide = say("Width: {0u} is no width of a cloth: write one from {1} to {2u}.", self.width, NARROWEST, WIDEST)
            raise LayError("width", wide)
        if self.way not in WAYS:
            raise LayError("way", say("Say which way the pieces lie: one way, either way, or any way."))
        if not 0 <= self.gap <= FARTHEST_GAP:
            raise LayError("gap", say("Between pieces: {0u} is too much: write up to {1u}.", self.gap, FARTHEST_GAP))
        if not 0 <= self.selvedge <= self.width / 4:
            much = say("Selvedge kept clear: {0u} leaves too little cloth: write up to {1u}.", self.selvedge, self.width / 4)
            raise LayError("selvedge", much)
        if not 0 <= self.shrinks <= MOST_SHRINK:
            raise LayError("shrinks", say(f"Shrinks: {self.shrinks:g} % is more than cloth does: write up to {MOST_SHRINK:g}."))
        for field, name, repeat in (("across", "Stripes", self.across), ("along", "Bars", self.along)):
            if repeat and not LEAST_REPEAT <= repeat <= MOST_REPEAT:
                words = f"{name}: a repeat of {{0u}} cannot be matched: write {{1}} to {{2u}}, or 0 for none."
                raise LayError(field, say(words, repeat, LEAST_REPEAT, MOST_REPEAT))
        if not 0 <= self.price < DEAREST:
            raise LayError("price", say("Price: write what a metre costs, or 0."))

    @property
    def high(self) -> float:
        """How much of its width can be laid on, cm: from the lower selvedge, or from the fold."""
        return self.width / 2 - self.selvedge if self.folded else self.width - 2 * self.selvedge

    @property
    def layers(self) -> int:
        return 2 if self.folded else 1

    @property
    def turns(self) -> tuple[int, ...]:
        """By how many degrees a piece may be turned."""
        return TURNS[self.way]

    @property
    def data(self) -> dict[str, Any]:
        """As plain data."""
        return asdict(self)

    def to_buy(self, length: float) -> float:
        """The length to buy for a lay of this length, cm: with what it shrinks by, rounded up to 10."""
        grown = length / (1 - self.shrinks / 100)
        return -(-round(grown, 3) // ROUND_UP) * ROUND_UP
