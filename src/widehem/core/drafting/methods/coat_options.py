"""What a maker may set on a straight coat, each with the reason it is there."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from widehem.core.setting.option import Choice, Mend, Option
from widehem.core.setting.quantity import Quantity

SINGLE, DOUBLE, AT_CHEST = 3.0, 12.0, 92.0  # cm: overlaps, and the chest they belong to

BREAST = Option(
    "breast", "Front", "choice", "double", "how far the fronts lie over each other",
    choices=(Choice("double", "Double-breasted", "two rows of buttons"), Choice("single", "Single-breasted", "one row on the centre front")),
)  # fmt: skip


def _overlap(on: Mapping[str, Any]) -> Quantity:
    usual = DOUBLE if on["breast"] == "double" else SINGLE
    bust: Quantity = on["bust"]
    return (bust * (usual / AT_CHEST)).called("overlap")


def earlier_overlap(breast: str) -> Quantity:
    """By the first rules it did not go by the chest."""
    return Quantity(DOUBLE if breast == "double" else SINGLE, "overlap")


OVERLAP = Option(
    "overlap", "Overlap beyond the centre front", "length", None, "{12} double-breasted at a chest of {92}, {3} single, in proportion", 2.0, 18.0, 0.5,
    worked=_overlap, uses=("bust",), after=("breast",), drawn=True,
)  # fmt: skip
BREAK = Option("break_above", "First button above the waist", "length", 5.0, "there the lapel begins to turn; below the waist with a minus", -20.0, 25.0, 0.5)  # fmt: skip
NECK = Option(
    "neck_width", "Neck width", "length", None, "half of it, from the centre; a fifth of the neck, or {7#} to {7.5}", 5.0, 12.0, 0.25,
    worked=lambda on: on["neck"] / 5, uses=("neck",),
)  # fmt: skip
LENGTH = Option(
    "length", "Length below the waist", "length", None, "to the knee unless another is set", 20.0, 125.0, 1.0,
    worked=lambda on: on["waist_knee"], uses=("waist_knee",),
)  # fmt: skip
DEPTH = Option("below", "Armhole below the arm", "length", 2.5, "a higher armhole lets the arm move", 2.0, 4.0, 0.25)
FRONT_DART = Option(
    "front_dart", "Front dart", "choice", "auto", "from the bust to below the waist, {2} wide",
    choices=(Choice("auto", "As the figure asks", "none on a straight figure"), Choice("one", "One", "under the bust point"), Choice("none", "None", "left straight")),
)  # fmt: skip
BACK = Option(
    "back", "Back", "choice", "seam", "how it follows the waist",
    choices=(
        Choice("seam", "With a shaped seam", "taken in by {1.75} at the waist"),
        Choice("seam_dart", "Shaped seam and a dart", "with a narrow dart of {1.5} beside it"),
        Choice("fold", "On the fold", "with a dart of {1} on each side instead"),
        Choice("fold_two", "On the fold, two darts", "two darts of {1} on each side"),
    ),
)  # fmt: skip
SIDE = Option(
    "side", "Side at the hem", "choice", "wedge", "room to walk, from {15} above the hem",
    choices=(Choice("wedge", "Let out", "let out by {5}, as a wedge"), Choice("vent", "Vent", "{5} underlaid, left open"), Choice("plain", "Straight", "as it comes from the hip")),
)  # fmt: skip
FORWARD = Option(
    "shoulder_seam", "Shoulder seam", "choice", "usual", "where it runs",
    school=True, choices=(
        Choice("usual", "On the ridge", "as measured"),
        Choice("strip", "Forward, a strip", "{2} off the whole front shoulder, the neck with it, set onto the back"),
        Choice("forward", "Forward at the tip", "{2} of the front moved onto the back at the tip, nothing at the neck"),
    ),
)  # fmt: skip
SLOPE = Option(
    "slope", "Shoulder falls", "choice", "measured", "how much, before the pad lifts it",
    school=True, choices=(Choice("measured", "As measured", "the shoulder drop less the pad, shared between front and back"), Choice("drawn", "As drawn", "{2} behind, in front by the length over the bust")),
    before=((3, "drawn"),),
)  # fmt: skip
PAD = Option("pad", "Pad, how high", "length", 1.0, "it lifts the shoulder by so much", 0.0, 3.0, 0.25)
SHAPE = Option(
    "shape", "Shape", "choice", "boxy", "how the sides run",
    choices=(Choice("boxy", "Boxy", "straight down to the waist"), Choice("waisted", "Waisted", "taken in by up to {2} at the waist, as far as its ease allows")),
)  # fmt: skip
OPTIONS = (SHAPE, BREAST, OVERLAP, BREAK, NECK, LENGTH, DEPTH, FRONT_DART, BACK, SIDE, FORWARD, SLOPE, PAD)
EASE = (
    Option("bust", "Bust ease", "length", 12.0, "whole round, over everything worn underneath", 6.0, 30.0, 0.5, least=8.0),
    Option("waist", "Waist ease", "length", 10.0, "whole round; the least, a boxy coat has more", 4.0, 30.0, 0.5, least=6.0),
    Option("hip", "Hip ease", "length", 8.0, "whole round; the least", 4.0, 30.0, 0.5, least=6.0),
)  # fmt: skip
MENDS = {
    "rolls.roll_line": (
        Mend("First button 5 above the waist", "break_above", "5 cm"),
        Mend("First button 3 above the waist", "break_above", "3 cm"),
    ),
    "armhole.round": (Mend("Armhole 4 below the arm", "below", "4 cm"), Mend("Armhole 2 below the arm", "below", "2 cm")),
}
