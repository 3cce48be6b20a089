"""How figures are taken and written down."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable


def median_ms(work: Callable[[int], object], rounds: int = 60) -> float:
    """The median of many single runs, ms; work gets a number so that no run repeats another."""
    times = []
    for n in range(rounds):
        began = time.perf_counter()
        work(n)
        times.append((time.perf_counter() - began) * 1000)
    return statistics.median(times)


def best_ms(work: Callable[[int], object], rounds: int = 60) -> float:
    """The best of many single runs, ms: what the work takes when nothing else is in the way."""
    times = []
    for n in range(rounds):
        began = time.perf_counter()
        work(n)
        times.append((time.perf_counter() - began) * 1000)
    return min(times)


def line(name: str, figure: float, unit: str, anchor: float | None = None, target: str = "") -> None:
    ratio = f"{figure / anchor:9.2f} x anchor" if anchor else " " * 18
    print(f"{name:52}{figure:9.2f} {unit:3}{ratio}   {target}")


def p95(times: list[float]) -> float:
    """What ninety-five of a hundred stay within."""
    return sorted(times)[max(0, round(len(times) * 0.95) - 1)]
