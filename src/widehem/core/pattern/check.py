"""One check of a block: verdict, figure, tolerance, the spot; and the registry of kinds of check."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Literal

from widehem.core.pattern.block import Block
from widehem.core.units import Display, Saying

Verdict = Literal["true", "look", "not"]
Measure = Literal["length", "signed", "angle", "count"]

SEAM_TRUE, SEAM_LOOK = 0.2, 0.5
LEGS_TRUE, LEGS_LOOK = 0.1, 0.3
CORNER_TRUE, CORNER_LOOK = 3.0, 6.0
INTAKE_MOST, BUST_INTAKE_MOST = 4.5, 8.0
FINE = 1e-6


@dataclass(frozen=True)
class Check:
    """One verdict.

    group: the slot it stands in. figure: cm, degrees or a count, by kind. tolerance: the
    most (or for girths and openings the least) that is true. brief: a few words for the hem. message: the whole
    sentence with what to do. spots: 'piece.edge' or 'piece.dart' names to light on the board.
    """

    name: str
    group: str
    title: str
    verdict: Verdict
    kind: Measure
    figure: float
    tolerance: float
    brief: Saying
    message: Saying
    spots: tuple[str, ...] = ()
    after: str = ""

    def figure_text(self, show: Display) -> str:
        if self.kind == "angle":
            return f"{self.figure:.1f}°"
        if self.kind == "count":
            return f"{self.figure:.0f}"
        return show.signed(self.figure) if self.kind == "signed" else show.length(self.figure)

    def tolerance_text(self, show: Display) -> str:
        if self.kind == "angle":
            return f"{self.tolerance:.0f}°"
        if self.kind == "count":
            return f"{self.tolerance:.0f}"
        return show.full(self.tolerance)


Checker = Callable[[Block], Iterator[Check]]
CHECKERS: list[Checker] = []


def checker(function: Checker) -> Checker:
    """Register a kind of check; they run and stand in the order of registration."""
    CHECKERS.append(function)
    return function


def verdict_on(figure: float, true: float, look: float) -> Verdict:
    return "true" if figure <= true + FINE else "look" if figure <= look + FINE else "not"
