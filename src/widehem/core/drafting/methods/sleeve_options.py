"""What a maker may set on a sleeve, each with the reason it is there, and what trues its cap."""

from widehem.core.setting.option import Choice, Mend, Option

EASE = (
    Option("upper_arm", "Upper arm ease", "length", 5.0, "whole round, of a high cap; a lower cap is wider", 0.0, 15.0, 0.5, least=3.0),
    Option("cap", "Cap ease", "length", 2.5, "eased into the armhole; 1.3 to 5 in woven cloth, less in crisp, none in jersey", 0.0, 5.0, 0.25, least=1.3),
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
    words = f"{more:g} over the wrist" if more else "to the wrist"
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
    choices=(
        Choice("solved", "Solved", "the width is held, the height comes out"),
        Choice("third", "A third of the armhole", "the height is held, the width comes out"),
        Choice("depth", "By the depth of the armhole", "five sixths of it, shoulder tips to underarm; the width comes out"),
        Choice("own", "As set below", "the height is held, the width comes out"),
    ),
)  # fmt: skip
OWN_HEIGHT = Option("own_height", "Own cap height", "length", 14.0, "of a high cap, where it is set", 4.0, 25.0, 0.5)
ELBOW = Option(
    "elbow", "Elbow", "choice", "none", "a bent sleeve follows the arm as it hangs",
    choices=(Choice("none", "Straight", "the same seam front and back"), Choice("dart", "Elbow dart", "2.5 wide in the back seam, halfway to the middle")),
)  # fmt: skip

MENDS = {
    "cap.ease": (
        Mend("Ease 2.5 cm into the cap", "cap", "2.5 cm", ease=True),
        Mend("Ease 1 cm into the cap, for crisp cloth", "cap", "1 cm", ease=True),
        Mend("No ease in the cap, for a knit", "cap", "0 cm", ease=True),
    )
}
