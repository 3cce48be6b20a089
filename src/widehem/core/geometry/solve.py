"""Finding where something comes out as wanted: one bracketed secant search that says when it does not converge."""

from __future__ import annotations

import math
from collections.abc import Callable

NEAR, ROUNDS = 1e-6, 60


class NoSolutionError(ValueError):
    """Nothing between two arguments comes out as wanted. low, high: how far off both ends are; best: the nearer argument."""

    def __init__(self, low: float, high: float, best: float) -> None:
        super().__init__(f"not reached: {low:.4g} off at one end, {high:.4g} at the other")
        self.low, self.high, self.best = low, high, best


def solve(off: Callable[[float], float], low: float, high: float, *, near: float = NEAR, rounds: int = ROUNDS) -> float:
    """The argument between low and high at which `off` is nought, within `near`.

    `off` must change its sign between the ends, or be near nought at one. The secant through both ends is taken; the end that
    stays twice counts half (so that neither sticks), and a step that shrinks too little is followed by halving.
    Raises NoSolutionError when the sign does not change or the search does not converge.
    """
    at_low, at_high = off(low), off(high)
    if abs(at_low) <= near:
        return low
    if abs(at_high) <= near:
        return high
    if not (math.isfinite(at_low) and math.isfinite(at_high)) or (at_low > 0) == (at_high > 0):
        raise NoSolutionError(at_low, at_high, low if abs(at_low) <= abs(at_high) else high)
    kept = 0  # which end stayed last time: -1 the low one, 1 the high one
    wide = abs(high - low)
    for count in range(rounds):
        at = low - at_low * (high - low) / (at_high - at_low)
        if count % 4 == 3 and abs(high - low) > wide / 4:
            at = (low + high) / 2
        if count % 4 == 3:
            wide = abs(high - low)
        here = off(at)
        if abs(here) <= near:
            return at
        if (here > 0) == (at_high > 0):
            high, at_high = at, here
            at_low = at_low / 2 if kept == -1 else at_low
            kept = -1
        else:
            low, at_low = at, here
            at_high = at_high / 2 if kept == 1 else at_high
            kept = 1
        if abs(high - low) < 1e-13:
            break
    raise NoSolutionError(at_low, at_high, (low + high) / 2)


def settle(off: Callable[[float], float], start: float, *, slope: float = 1.0, near: float = NEAR, rounds: int = 12) -> float:
    """The argument at which `off` is nought within `near`, from a good start: for what moves by about `slope` for each unit.

    The secant through the last two is taken, no flatter than a fifth of the slope. What comes back is what `off` was asked
    last. Raises NoSolutionError when it does not settle.
    """
    at, here = start, off(start)
    gain, nearest = slope, (abs(here), at)
    for _ in range(rounds):
        if abs(here) <= near:
            return at
        if not math.isfinite(here):
            break
        before, then = at, here
        at -= here / gain
        here = off(at)
        nearest = min(nearest, (abs(here), at))
        gain = slope * max((here - then) / (at - before) / slope, 0.2)
    if abs(here) <= near:
        return at
    raise NoSolutionError(here, here, nearest[1])


def solve_or_nearest(off: Callable[[float], float], low: float, high: float, *, near: float = NEAR) -> float:
    """As solve, but the end that comes nearest when nothing between them is as wanted: for what is drawn as far as it may
    be."""
    try:
        return solve(off, low, high, near=near)
    except NoSolutionError as none:
        return none.best


def solve_length(length: Callable[[float], float], want: float, low: float, high: float, *, near: float = NEAR) -> float | None:
    """Where a length comes to what is wanted (cm), between two arguments; None where it does not."""
    try:
        return solve(lambda at: length(at) - want, low, high, near=near)
    except NoSolutionError:
        return None
