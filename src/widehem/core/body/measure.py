"""What one measure is: its name, how it is taken, its usual size, and where the tape runs on the figure."""

from __future__ import annotations

from typing import Literal

from widehem.core.values import record

View = Literal["front", "back", "side"]
Kind = Literal["girth", "arc", "length", "width"]


@record(frozen=True)
class Tape:
    """Where the tape lies on the drawn figure.

    view: the figure that shows it. loop: it runs on round the body. points: (x, y) in figure units, x from the
    centre line, y down from the crown; a loop has its two visible ends.
    """

    view: View
    loop: bool
    points: tuple[tuple[float, float], ...]


@record(frozen=True)
class Measure:
    """One entry of the catalogue. Lengths in centimetres.

    low, high: outside these the reading is doubted. typical: a 164 cm figure with bust 88. alone: can be taken
    without a second person. sided: left and right may differ and be kept apart. of_the_hour: it is another in the morning than
    after a meal, so the time of day is noted with it.
    """

    code: str
    name: str
    kind: Kind
    zone: str
    typical: float
    low: float
    high: float
    how: str
    landmarks: str
    pose: str
    tape: Tape
    also: tuple[str, ...] = ()
    alone: bool = True
    sided: bool = False
    of_the_hour: bool = False


STANDING = "Standing, weight on both feet"
ARMS_DOWN = "Standing, arms hanging"
ARM_BENT = "Arm bent, hand on the hip"
SEATED = "Seated upright on a hard chair"


def loop(view: View, y: float, half: float, at: float = 0.0) -> Tape:
    """A level loop at a height, this far to both sides of a line `at` from the centre."""
    return Tape(view, True, ((at - half, y), (at + half, y)))


def line(view: View, *points: tuple[float, float]) -> Tape:
    return Tape(view, False, points)
