"""What a maker may set on a darted bodice, each with the reason it is there."""

from widehem.core.drafting.upper import HOLLOW, UNLIKE
from widehem.core.setting.option import Choice, Option

EASE = (
    Option("bust", "Bust ease", "length", 6.0, "whole round; to breathe and to move", -8.0, 20.0, 0.5, least=4.0),
    Option("waist", "Waist ease", "length", 3.0, "whole round; to sit and to eat", -8.0, 20.0, 0.5, least=1.5),
    Option("across_back", "Across back ease", "length", 1.0, "whole width; to bring the arms forward", 0.0, 8.0, 0.25),
    Option("depth", "Armhole depth ease", "length", 2.0, "the armhole lies this far below the arm; a high one lets the arm rise", 0.0, 6.0, 0.25),
)  # fmt: skip

DART_PLACE = Option(
    "dart_place", "Bust dart", "choice", "usual", "it may open anywhere round the bust point",
    choices=(
        Choice("usual", "As the figure asks", "at the shoulder; wider than {8} there, shared with the waist; under {2.5}, eased into the armhole"),
        Choice("shoulder", "Shoulder", "from the middle of the shoulder, as it is constructed"),
        Choice("neck", "Neck", "from the middle of the neckline"),
        Choice("armhole", "Armhole", "from the chest point; for panel lines"),
        Choice("side", "Side", "below the underarm; the shoulder stays whole"),
        Choice("waist", "Waist", "taken together with the waist dart"),
        Choice("eased", "Eased into the armhole", "a small one, up to {1} at the armhole; no dart is sewn"),
        Choice("shared", "Shoulder and waist", "half and half, where one dart would be too wide"),
    ),
    before=((1, "shoulder"),),
)  # fmt: skip
BACK_SHOULDER = Option(
    "back_shoulder", "Back shoulder", "choice", "eased", "the blade needs room",
    choices=(
        Choice("eased", "Eased in", "{0.5} is eased into the front shoulder"),
        Choice("dart", "Shoulder dart", "a dart of {1.2} in the middle of the shoulder, to the blade"),
        Choice("neck", "Neck dart", "the same dart, brought into the neckline"),
    ),
)  # fmt: skip
WAIST_DARTS = Option(
    "waist_darts", "Waist darts", "choice", "auto", "fewer are better",
    choices=(
        Choice("auto", "As the figure asks", "none up to {2.5} in a half piece, two over {4.5}"),
        Choice("none", "None", "all at the side"),
        Choice("one", "One in each piece", "one behind, one in front"),
        Choice("two", "Two in each piece", "two behind, two in front"),
    ),
)  # fmt: skip
SIDE_BELOW = Option(
    "side_below",
    "Side dart below the underarm",
    "length",
    5.0,
    "where it lies on the side",
    4.0,
    6.0,
    0.5,
    when=(("dart_place", ("side", "eased")),),
)
HOLLOW_BACK = Option(
    "hollow_back", "Back armhole hollow", "number", UNLIKE["back"], "0.5 is rounder, 0.65 more hollow", 0.44, 0.7, 0.02,
    before=((3, HOLLOW["back"]),),
)  # fmt: skip
HOLLOW_FRONT = Option(
    "hollow_front", "Front armhole hollow", "number", UNLIKE["front"], "the front is hollowed more than the back", 0.44, 0.7, 0.02,
    before=((3, HOLLOW["front"]),),
)  # fmt: skip
NECK_DEPTH = Option(
    "neck_depth", "Front neck depth", "length", None, "below the side neck point; a fifth of the neck and a little", 4.0, 20.0, 0.5,
    worked=lambda on: on["neck"] / 5 + 0.3, uses=("neck",), drawn=True,
)  # fmt: skip
NECK_SHAPE = Option(
    "neck_shape", "Front neck", "choice", "round", "how the front neckline runs",
    choices=(
        Choice("round", "Round", "level at the centre, on the neck as the block is"),
        Choice("v", "Pointed", "straight down to a point at the centre"),
        Choice("square", "Square", "straight across, and up to the shoulder"),
    ),
)  # fmt: skip
OPENING = Option(
    "opening_at", "Opening", "choice", "centre_back", "a closed waist does not pass the shoulders",
    choices=(
        Choice("centre_back", "Centre back", "the back is cut as a pair"),
        Choice("centre_front", "Centre front", "the front is cut as a pair"),
        Choice("none", "None yet", "both on the fold; put it in a side or a panel seam"),
    ),
)  # fmt: skip

SIDE_SEAM = Option(
    "side_seam", "Side seam", "choice", "middle", "where it hangs",
    choices=(
        Choice("middle", "From the middle of the armhole", "the balance is surest"),
        Choice("measured", "Where it was measured", "by the front arc of the bust; the balance is less sure"),
    ),
)  # fmt: skip
AMOUNT = Option(
    "dart_amount", "Amount of the bust dart", "choice", "computed", "schools differ; the computed one fits this body",
    school=True, choices=(
        Choice("computed", "Computed", "from bust and high bust, then balanced"),
        Choice("sixteenth", "Bust / 16", "a fraction, measured at the shoulder"),
        Choice("twentieth", "Bust / 20", "a smaller fraction, measured at the shoulder"),
        Choice("table", "By a table", "{7} at a bust of {88}, and {0.6} for every {4} more; curved figures only"),
    ),
)  # fmt: skip

LEVEL = Option(
    "level", "Armhole level", "choice", "measured", "makers differ where the underarm lies, before the depth ease",
    choices=(
        Choice("measured", "Armscye depth", "as it was read"),
        Choice("half", "Half the back length", "half of nape to waist, and {2.5}"),
        Choice("armscye", "Half the armscye", "half of the girth round the arm's eye"),
        Choice("bust", "Bust / 6", "a sixth of the bust and {1.5}, below the shoulder tip"),
    ),
    school=True,
)  # fmt: skip
DARTED = (
    DART_PLACE, AMOUNT, LEVEL, BACK_SHOULDER, WAIST_DARTS, SIDE_SEAM, SIDE_BELOW, HOLLOW_BACK, HOLLOW_FRONT, NECK_DEPTH, NECK_SHAPE, OPENING,
)  # fmt: skip
