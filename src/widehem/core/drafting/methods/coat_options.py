"""What a maker may set on a straight coat, each with the reason it is there."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from widehem.core.setting.option import Choice, Mend, Option
from widehem.core.setting.quantity import Quantity

SINGLE, DOUBLE = 3.0, 12.0

BREAST = Option(
    "breast", "Front", "choice", "double", "how far the fronts lie over each other",
    choices=(Choice("double", "Double-breasted", "two rows of buttons"), Choice("single", "Single-breasted", "one row on the centre front")),
)  # fmt: skip


def _overlap(on: Mapping[str, Any]) -> Quantity:
    return Quantity(DOUBLE if on["breast"] == "double" else SINGLE, "overlap")


OVERLAP = Option(
    "overlap", "Overlap beyond the centre front", "length", None, "12 double-breasted, 2.5 to 3 single", 2.0, 16.0, 0.5,
    worked=_overlap, after=("breast",),
)  # fmt: skip
BREAK = Option("break_above", "First button above the waist", "length", 5.0, "there the lapel begins to turn; below the waist with a minus", -20.0, 25.0, 0.5)  # fmt: skip
NECK = Option(
    "neck_width", "Neck width", "length", None, "half of it, from the centre; a fifth of the neck, or 7 to 7.5", 5.0, 12.0, 0.25,
    worked=lambda on: on["neck"] / 5, uses=("neck",),
)  # fmt: skip
LENGTH = Option(
    "length", "Length below the waist", "length", None, "to the knee unless another is set", 20.0, 125.0, 1.0,
    worked=lambda on: on["waist_knee"], uses=("waist_knee",),
)  # fmt: skip
DEPTH = Option("below", "Armhole below the arm", "length", 2.5, "a higher armhole lets the arm move", 2.0, 4.0, 0.25)
FRONT_DART = Option(
    "front_dart", "Front dart", "choice", "auto", "from the bust to below the waist, 2 wide",
    choices=(Choice("auto", "As the figure asks", "none on a straight figure"), Choice("one", "One", "under the bust point"), Choice("none", "None", "left straight")),
)  # fmt: skip
BACK = Option(
    "back", "Back", "choice", "seam", "how it follows the waist",
    choices=(Choice("seam", "With a shaped seam", "1.75 in at the waist"), Choice("fold", "On the fold", "with a dart of 1 on each side instead")),
)  # fmt: skip
SIDE = Option(
    "side", "Side at the hem", "choice", "wedge", "room to walk, from 15 above the hem",
    choices=(Choice("wedge", "Let out", "5 out, as a wedge"), Choice("vent", "Vent", "5 underlaid, left open"), Choice("plain", "Straight", "as it comes from the hip")),
)  # fmt: skip
FORWARD = Option(
    "shoulder_seam", "Shoulder seam", "choice", "usual", "where it runs",
    choices=(Choice("usual", "On the ridge", "as measured"), Choice("forward", "Forward", "2 of the front moved onto the back at the tip")),
)  # fmt: skip
OPTIONS = (BREAST, OVERLAP, BREAK, NECK, LENGTH, DEPTH, FRONT_DART, BACK, SIDE, FORWARD)
EASE = (
    Option("bust", "Bust ease", "length", 12.0, "whole round, over everything worn underneath", 6.0, 30.0, 0.5, least=8.0),
    Option("waist", "Waist ease", "length", 10.0, "whole round; the least, a boxy coat has more", 4.0, 30.0, 0.5, least=6.0),
    Option("hip", "Hip ease", "length", 8.0, "whole round; the least", 4.0, 30.0, 0.5, least=6.0),
)  # fmt: skip
MENDS = {"armhole.round": (Mend("Armhole 4 below the arm", "below", "4 cm"), Mend("Armhole 2 below the arm", "below", "2 cm"))}
