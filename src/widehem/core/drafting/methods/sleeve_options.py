"""What a maker may set on a sleeve, each with the reason it is there, and what trues its cap."""

from collections.abc import Mapping
from typing import Any

from widehem.core.drafting.common_options import CLOTH
from widehem.core.drafting.method import ARM_EASE, ARMHOLE
from widehem.core.setting.option import Choice, Mend, Option
from widehem.core.setting.quantity import Quantity, smaller_of

CAP_MOST, CAP_PART = 2.5, 0.057  # cm, and of the armhole: the smaller of them is eased in
CRISP_CAP = 0.65  # cm: cloth that does not ease


def cap_ease(on: Mapping[str, Any]) -> Quantity:
    """The usual ease of a cap for its armhole and its cloth, cm."""
    if on["cloth"] == "knit":
        return Quantity(0.0, "none in a knit", source="constant")
    if on["cloth"] == "crisp":
        return Quantity(CRISP_CAP, "for crisp cloth", source="constant")
    hole: Quantity = on[ARMHOLE]
    return smaller_of(CAP_MOST, hole * CAP_PART)


EASE = (
    Option("upper_arm", "Upper arm ease", "length", None, "whole round, of a high cap; a lower cap is wider; {5}, or {9} in a coat", 0.0, 15.0, 0.5, least=3.0,
        worked=lambda on: on[ARM_EASE], after=(ARM_EASE,), before=((2, 5.0),), drawn=True),
    Option("cap", "Cap ease", "length", None, "eased into the armhole: {2.5}, or 5.7 in a hundred of it, the smaller; less in crisp cloth, none in jersey", 0.0, 5.0, 0.25,
        least=1.3, worked=cap_ease, after=(CLOTH.code, ARMHOLE), before=((2, CAP_MOST),), drawn=True),
)  # fmt: skip
CAP = Option(
    "cap_height", "Cap", "choice", "high", "how high it is decides how the arm lifts",
    choices=(
        Choice("high", "High", "tailored, hands down: narrow, hangs clean"),
        Choice("middle", "Middle", "two thirds of it: everyday work"),
        Choice("low", "Low", "one third: sport, dance, fight; wide, with folds when the arm is down"),
    ),
)  # fmt: skip


def length_option(more: float = 0.0) -> Option:
    """The length of a sleeve. more: over the arm length, cm."""
    words = f"{{{more:g}}} over the wrist" if more else "to the wrist"
    return Option(
        "length", "Length", "length", None, f"from the shoulder tip; {words} unless another is set", 15.0, 90.0, 1.0,
        worked=lambda on: on["arm_length"] + more if more else on["arm_length"], uses=("arm_length",),
    )  # fmt: skip


LENGTH = length_option()
HEM = Option(
    "hem",
    "Hem width",
    "length",
    None,
    "whole round; the closed hand must pass without an opening",
    14.0,
    70.0,
    0.5,
    worked=lambda on: on["hand"] + 1,
    uses=("hand",),
    drawn=True,
)
PROFILE = Option(
    "profile", "Profile", "choice", "one", "two ways of rounding the triangle",
    choices=(Choice("one", "First", "the front hollowed deep, the back hardly"), Choice("two", "Second", "fuller in the upper cap, both hollowed")),
)  # fmt: skip


HEIGHT_BY = Option(
    "height_by", "Cap height", "choice", "solved", "what is held and what is solved until the cap fits",
    school=True, choices=(
        Choice("solved", "Solved", "the width is held, the height comes out"),
        Choice("third", "A third of the armhole", "the height is held, the width comes out"),
        Choice("depth", "By the depth of the armhole", "five sixths of it, shoulder tips to underarm; the width comes out"),
        Choice("own", "As set below", "the height is held, the width comes out"),
    ),
)  # fmt: skip
PITCH = Option(
    "pitch", "Pitch", "choice", "part", "how high the cap crosses its quarter lines; makers differ", school=True,
    choices=(
        Choice("part", "A part of the cap", "two thirds of its height behind, half in front"),
        Choice("sixth", "A sixth of the armhole", "and {2.5} behind; a sixth in front"),
        Choice("thirds", "By thirds", "two thirds behind, one third in front: hollow for an arm that reaches forward"),
        Choice("quarter", "Above the quarter mark", "a quarter of the armhole and {1} behind, a quarter less {1} in front"),
    ),
)  # fmt: skip
HOLD = Option(
    "hold", "Held", "choice", "one", "three schools: the width, the height, or both",
    school=True, choices=(
        Choice("one", "The width, or the height", "the other comes out, so that the cap has its ease"),
        Choice("both", "Width and height", "the ease comes out as it does; where the height is solved, a third of the armhole is held"),
    ),
)  # fmt: skip
BULGE = Option(
    "bulge", "Bulge", "choice", "none", "with width and height held, one half of the cap is rounded out, or in, until the ease is right",
    choices=(
        Choice("none", "Neither half", "the ease is read"),
        Choice("front", "The front half", "above the front pitch"),
        Choice("back", "The back half", "above the back pitch, for a round back"),
    ),
    when=(("hold", ("both",)),),
)  # fmt: skip
OWN_HEIGHT = Option(
    "own_height",
    "Own cap height",
    "length",
    14.0,
    "of a high cap, where it is set",
    4.0,
    25.0,
    0.5,
    when=(("height_by", ("own",)),),
)
ELBOW = Option(
    "elbow", "Elbow", "choice", "none", "a bent sleeve follows the arm as it hangs",
    choices=(Choice("none", "Straight", "the same seam front and back"), Choice("dart", "Elbow dart", "{2.5} wide in the back seam, halfway to the middle")),
)  # fmt: skip

HELD = (("hold", "both"),)
MENDS = {
    "cap.ease": (
        Mend("Ease 2.5 cm into the cap", "cap", "2.5 cm", ease=True),
        Mend("Ease 1 cm into the cap, for crisp cloth", "cap", "1 cm", ease=True),
        Mend("No ease in the cap, for a knit", "cap", "0 cm", ease=True),
    ),
    "cap.cloth": (
        Mend("Bulge the front half", "bulge", "front", when=HELD),
        Mend("Bulge the back half", "bulge", "back", when=HELD),
        Mend("Hold one of them, and let the other come out", "hold", "one", when=HELD),
    ),
}
