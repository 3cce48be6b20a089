"""What a maker may set on a seam-shaped gown, each with the reason it is there."""

from widehem.core.drafting.methods.bodice_options import NECK_SHAPE
from widehem.core.setting.option import Choice, Mend, Option

FULLNESS = Option(
    "fullness", "Fullness in the centre seams, per cent", "number", 50.0,
    "schools differ: all shaping at the sides (0), all in the centre seams (100), or shared", 0.0, 100.0, 10.0,
)  # fmt: skip
UNDERARM = Option(
    "underarm", "Underarm", "choice", "fitted", "how high the armhole begins; makers differ", school=True,
    choices=(
        Choice("fitted", "By the armscye", "as measured, moved until the armhole is {3#} to {8} longer than the arm is round"),
        Choice("arm", "As the arm is round", "moved until the armhole is as long as the armscye: close, for a sleeve without ease"),
        Choice("measured", "As measured", "wherever the underarm was read; the armhole is only held against the arm"),
    ),
)  # fmt: skip
CUP = Option(
    "cup", "Cup", "choice", "auto", "where the front armhole would be more than {8} longer than the back, the seams do not hold the cup",
    choices=(Choice("auto", "A dart where it is wanted", "from the front armhole to the bust"), Choice("seams", "In the seams alone", "eased in over the front of the arm")),
)  # fmt: skip
STRAP = Option("strap", "Width on the shoulder", "length", 6.0, "the outer part of the shoulder; a wide neck leaves {4}, a closed one all of it", 4.0, 18.0, 0.5)  # fmt: skip
NECK_FRONT = Option("neck_front", "Front neck depth", "length", 7.0, "below the side neck point; {5} is high", 5.0, 30.0, 0.5)
NECK_BACK = Option("neck_back", "Back neck depth", "length", 3.0, "below the side neck point", 2.0, 10.0, 0.5)
LENGTH = Option(
    "length", "Skirt length", "length", None, "from the waist, along every line to the hem; {2} above the floor unless another is set", 20.0, 150.0, 1.0,
    worked=lambda on: on["waist_floor"] - 2, uses=("waist_floor",),
)  # fmt: skip
FLARE = Option(
    "flare", "Flare of each edge, degrees", "number", 12.0, "never less than hip and high hip ask for", 0.0, 30.0, 1.0
)
SWEEP = Option("sweep", "Hem sweep wanted", "length", 0.0, "whole round; what the panels lack is set in as gores, 0 takes it as it comes", 0.0, 1000.0, 10.0)  # fmt: skip
GORES = Option(
    "gores", "Gores", "choice", "sides", "where they are set in when the sweep asks for them",
    choices=(
        Choice("sides", "In the side seams", "two"),
        Choice("centres", "In the centre seams", "two, front and back"),
        Choice("all", "In all four seams", "four"),
    ),
)  # fmt: skip
GORE_FROM = Option(
    "gore_from", "Gores from", "choice", "hip", "how high they begin",
    choices=(Choice("hip", "The hip", "close over the hip"), Choice("waist", "The waist", "full from there")),
)  # fmt: skip
OPENING = Option(
    "opening_at", "Opening", "choice", "centre_back", "a gown with a waist is not pulled on",
    choices=(
        Choice("centre_back", "Centre back", "from the neck down"),
        Choice("centre_front", "Centre front", "from the neck down; the wearer closes it alone"),
        Choice("none", "None", "only where the waist is as wide as the body that must pass it"),
    ),
)  # fmt: skip
OPENED = (("opening_at", ("centre_back", "centre_front")),)
OPENING_BELOW = Option(
    "opening_below", "Opening below the waist", "length", 15.0, "how far it goes on", 0.0, 40.0, 1.0, when=OPENED
)
LACING = Option("lacing", "Left open for lacing", "length", 3.0, "{2#} to {4} stand open under the lace; 0 closes edge to edge", 0.0, 6.0, 0.5, when=OPENED)  # fmt: skip
OPTIONS = (
    FULLNESS, UNDERARM, CUP, STRAP, NECK_FRONT, NECK_BACK, NECK_SHAPE, LENGTH, FLARE, SWEEP, GORES, GORE_FROM, OPENING, OPENING_BELOW, LACING,
)  # fmt: skip
EASE = (
    Option("bust", "Bust ease", "length", 6.0, "whole round; at the underarm as well", 0.0, 20.0, 0.5, least=4.0),
    Option("waist", "Waist ease", "length", 3.0, "whole round", 0.0, 20.0, 0.5, least=1.5),
    Option("hip", "Hip ease", "length", 6.0, "whole round; the skirt is flared until it is there", 2.0, 30.0, 0.5, least=3.0),
)  # fmt: skip
MENDS = {
    "armhole.round": (Mend("Move the underarm by the armscye", "underarm", "fitted"),),
    "opening.reach": (Mend("Open the centre back", "opening_at", "centre_back"), Mend("Open 15 cm below the waist", "opening_below", "15 cm")),
    "armhole.balance": (Mend("Give the cup a dart", "cup", "auto"),),
    "floor.clear": (),
}  # fmt: skip
