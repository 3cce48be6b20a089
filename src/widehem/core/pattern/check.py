"""One check of a garment: figure, limits, the verdict that follows from them, the spot; and the registry of kinds of check.

A check is either of the garment itself, or of a demand: a fact of the body or a wish, one class beside its checker.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from typing import Literal, TypeVar

from widehem.core.pattern.closed import Joint, joints
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.limits import USUAL_LIMITS, Limits
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import plain
from widehem.core.pattern.wear import USUAL_WEAR, Wear
from widehem.core.setting.registry import Registry
from widehem.core.units import Display, Saying
from widehem.core.values import kept, record

Verdict = Literal["true", "look", "not"]
Measure = Literal["length", "signed", "angle", "count"]

SEAM_LOOK, LEGS_LOOK, CORNER_LOOK = 0.5, 0.3, 6.0  # up to there it is looked at; from where it is true, see Limits
WAIST_CORNER = 5.0  # degrees, where the waist crosses a side seam
FINE = 1e-6
ANY = math.inf


@record(frozen=True)
class Check:
    """One verdict.

    group: the slot it stands in. figure: cm, degrees or a count, by kind. low, high: the least and most that is true; None
    where there is no such limit. margin: how far beyond them is still only looked at. brief: a few words for the hem.
    message: the whole sentence with what to do. spots: 'piece.edge', 'piece.dart' or '@level' to light on the board; when
    it is not true, those that are to blame.
    """

    name: str
    group: str
    title: str
    kind: Measure
    figure: float
    low: float | None
    high: float | None
    margin: float
    brief: Saying
    message: Saying
    spots: tuple[str, ...] = ()
    after: str = ""

    @property
    def verdict(self) -> Verdict:
        return verdict_on(self.figure, self.low, self.high, self.margin)

    @property
    def tolerance(self) -> float:
        """The limit a figure is usually held against, in its own kind."""
        return self.high if self.high is not None else self.low if self.low is not None else 0.0

    def figure_text(self, show: Display) -> str:
        return self._text(self.figure, show)

    def limits_text(self, show: Display) -> str:
        """What is true, in words: 'at most 0.2 cm'."""
        unit = {"angle": "", "count": ""}.get(self.kind, f" {show.unit}")
        low, high = (None if limit is None else self._text(limit, show) for limit in (self.low, self.high))
        if low is not None and high is not None:
            return f"{low} to {high}{unit}" if low != high else f"{low}{unit}"
        return f"at least {low}{unit}" if low is not None else f"at most {high}{unit}" if high is not None else ""

    def _text(self, value: float, show: Display) -> str:
        if self.kind == "angle":
            return f"{value:.1f}°"
        if self.kind == "count":
            return f"{value:.0f}"
        return show.signed(value) if self.kind == "signed" else show.length(value)


def verdict_on(figure: float, low: float | None, high: float | None, margin: float = 0.0) -> Verdict:
    """The verdict on a figure that should lie between two limits, either may be missing."""
    beyond = max(0.0 if low is None else low - figure, 0.0 if high is None else figure - high)
    if not math.isfinite(figure):
        return "not"
    return "true" if beyond <= FINE else "look" if beyond <= margin + FINE else "not"


@record(frozen=True)
class Demand:
    """What a garment is held against: a fact of the body, or a wish; never a result."""


D = TypeVar("D", bound=Demand)


@record(frozen=True)
class Case:
    """A garment that is to be judged, what is asked of it, what it is made of and worn over, and how near is true."""

    garment: Garment
    demands: tuple[Demand, ...] = ()
    wear: Wear = USUAL_WEAR
    limits: Limits = USUAL_LIMITS

    @kept
    def joints(self) -> tuple[Joint, ...]:
        """Every place where an outline runs on once the garment is closed."""
        return tuple(joints(self.garment))

    @property
    def layers(self) -> Iterator[tuple[str, str, tuple[Piece, ...]]]:
        """The pieces that are judged together, the shell first: what is added to the names of checks, what to their titles.

        A facing or a pocket is judged by itself: what it does never changes what is said of anything else.
        """
        yield "", "", self.garment.shell
        others: dict[tuple[str, str], list[Piece]] = {}
        for piece in self.garment.pieces:
            if piece.layer != "shell":
                others.setdefault((piece.layer, piece.of), []).append(piece)
        for (layer, part), pieces in others.items():
            words = plain(part) if layer == "inside" else f"{layer} of the {plain(part)}" if layer != part else layer
            yield f".{layer}.{part}", f", {words}", tuple(pieces)

    def asked(self, kind: type[D]) -> D | None:
        """The first demand of a kind."""
        return next((demand for demand in self.demands if isinstance(demand, kind)), None)


Judge = Callable[[Case], Iterator[Check]]
CHECKERS: Registry[Judge] = Registry("kind of check")
DEMANDS: Registry[type[Demand]] = Registry("demand")


def checker(code: str) -> Callable[[Judge], Judge]:
    """Register a check of the garment itself; checks run and stand in the order of registration."""

    def register(function: Judge) -> Judge:
        return CHECKERS.add(code, function)

    return register


Answer = Callable[[Case, D], Iterator[Check]]


def answers(demand: type[D]) -> Callable[[Answer[D]], Answer[D]]:
    """Register the check that answers a kind of demand."""

    def register(function: Answer[D]) -> Answer[D]:
        def run(case: Case) -> Iterator[Check]:
            for asked in case.demands:
                if isinstance(asked, demand):
                    yield from function(case, asked)

        DEMANDS.add(demand.__name__, demand)
        CHECKERS.add(demand.__name__, run)
        return function

    return register
