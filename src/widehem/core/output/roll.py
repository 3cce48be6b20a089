"""A plot file as it is drawn on a roll: what the stand-in for a plotter reads, line by line, with paper and time.

It knows the orders that a pattern needs: IN PS PA PR PU PD SP LT DI SI LO LB PG; others are passed over and counted.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field
from itertools import pairwise

from widehem.core.geometry.points import Point
from widehem.core.values import record

PER_CM = 400.0
DOWN_SPEED, UP_SPEED, LIFT, CHANGE = (
    30.0,
    60.0,
    0.05,
    1.0,
)  # cm/s drawing and travelling; s to lift or lower; to take another pen
LETTER = 0.08  # s
ETX = "\x03"
MOST_ORDER = 1_000_000  # signs of one order
FARTHEST = 20_000.0  # cm


class PlotError(ValueError):
    """What came is no plot file; one sentence."""


@record(frozen=True)
class Drawn:
    """What the pen did at a time: a line, cm along the roll and across it, or words at a spot. seconds: how long it took."""

    pen: int
    points: tuple[Point, ...]
    words: str = ""
    turn: float = 0.0
    size: float = 0.0
    seconds: float = 0.0


@dataclass
class Roll:
    """The roll with the pen over it. Feed it what comes; it gives what it draws."""

    at: Point = field(default_factory=lambda: Point(0.0, 0.0))
    pen: int = 0
    down: bool = False
    relative: bool = False
    turn: float = 0.0
    size: float = 0.5
    paper: float = 0.0
    seconds: float = 0.0
    drawn: float = 0.0
    passed_over: int = 0
    begun: bool = False
    ended: bool = False
    _rest: str = field(default="", repr=False)

    def feed(self, data: bytes) -> Iterator[Drawn]:
        """Take what comes, however it is broken up. Raises PlotError when it is no plot file."""
        self._rest += data.decode("latin-1")
        while order := self._next():
            yield from self._do(*order)
        if len(self._rest) > MOST_ORDER:
            raise PlotError("An order of the plot file never ends: this is no HP-GL/2.")

    def _next(self) -> tuple[str, str] | None:
        rest = self._rest.lstrip(" \r\n\t;,")
        if len(rest) < 2:
            self._rest = rest
            return None
        name = rest[:2].upper()
        if not name.isalpha():
            raise PlotError(f'"{rest[:8]}" is no order of HP-GL/2: choose a plot file.')
        stop = ETX if name == "LB" else ";"
        end = rest.find(stop)
        if end < 0:
            self._rest = rest
            return None
        self._rest = rest[end + 1 :]
        return name, rest[2:end]

    def _do(self, name: str, text: str) -> Iterator[Drawn]:
        if not self.begun and name != "IN":
            raise PlotError("A plot file begins with IN: this one does not.")
        if name == "LB":
            spent = LETTER * len(text)
            self._spend(spent)
            yield Drawn(self.pen, (self.at,), text, self.turn, self.size, spent)
            return
        numbers = _numbers(text)
        if name == "IN":
            self.begun, self.down, self.pen = True, False, 0
        elif name in ("PU", "PD"):
            yield from self._move(numbers, down=name == "PD")
        elif name in ("PA", "PR"):
            self.relative = name == "PR"
            yield from self._move(numbers, down=self.down)
        elif name == "SP":
            pen = int(numbers[0]) if numbers else 0
            if pen != self.pen:
                self._spend(CHANGE)
            self.pen = pen
        elif name == "DI" and len(numbers) == 2:
            self.turn = math.degrees(math.atan2(numbers[1], numbers[0]))
        elif name == "SI" and len(numbers) == 2:
            self.size = numbers[1] / 0.72
        elif name == "PG":
            self.ended = True
        elif name not in ("PS", "LT", "LO"):
            self.passed_over += 1

    def _move(self, numbers: list[float], *, down: bool) -> Iterator[Drawn]:
        if down != self.down:
            self._spend(LIFT)
        self.down = down
        spots = [Point(a / PER_CM, b / PER_CM) for a, b in zip(numbers[::2], numbers[1::2], strict=False)]
        if not spots:
            return
        points = [self.at]
        for spot in spots:
            points.append(points[-1] + spot if self.relative else spot)
        if any(not (abs(p.x) < FARTHEST and abs(p.y) < FARTHEST) for p in points):
            raise PlotError("The pen is sent off the end of any roll: this is no pattern.")
        length = sum(a.to(b) for a, b in pairwise(points))
        spent = length / (DOWN_SPEED if down else UP_SPEED)
        self._spend(spent)
        self.at = points[-1]
        if down:
            self.drawn += length
            self.paper = max(self.paper, *(p.x for p in points))
            yield Drawn(self.pen, tuple(points), seconds=spent)

    def _spend(self, seconds: float) -> None:
        self.seconds += seconds


def _numbers(text: str) -> list[float]:
    try:
        return [float(word) for word in text.replace(",", " ").split()]
    except ValueError:
        raise PlotError(f'"{text[:20]}" are no figures of a plot file.') from None
