"""What a maker may set on the two-panel skirt, each with the reason it is there."""

from widehem.core.drafting.belly import PANELS
from widehem.core.drafting.knit import CLOSEST
from widehem.core.setting.option import Choice, Option

QUARTERS = (("panels", ("quarters",)),)  # where front and back are one size
EASE = (
    Option(
        "waist", "Waist ease", "length", 1.5,
        "whole round, to breathe and to eat in; 0 is snug where the tape was read over two fingers; less than 0 only in a knit", CLOSEST, 2.0, 0.5, least=1.5,
        before=((1, 0.0),),
    ),
    Option("hip", "Hip ease", "length", 3.0, "whole round; to sit down and climb a stair; less than 0 only in a knit", CLOSEST, 6.0, 0.5, least=3.0),
)  # fmt: skip

OPTIONS = (
    Option(
        "length", "Length", "length", None, "from the waist down; to the knee unless another is set", 20.0, 140.0, 1.0,
        worked=lambda on: on["waist_knee"], uses=("waist_knee",),
    ),
    Option(
        "school", "Darts", "choice", "auto", "which school shares out hip and waist",
        school=True, choices=(
            Choice("auto", "As the figure asks", "fixed darts where the figure suits them, else shared out"),
            Choice("fixed", "Fixed", "two behind, one in front; the side takes the rest"),
            Choice("shared", "Shared out", "darts and side share what is to be lost"),
        ),
    ),
    PANELS,
    Option(
        "ease_place", "Hip ease goes", "choice", "back", "sitting needs room behind",
        choices=(
            Choice("back", "All in the back", "the front stays flat"),
            Choice("even", "Even", "half in the back, half in front; the side seam lies further back"),
        ),
    ),
    Option("back_darts", "Back darts together", "length", 4.0, "fixed darts: two that take this between them", 2.0, 6.0, 0.5, when=QUARTERS),
    Option("front_dart", "Front dart", "length", 2.5, "fixed darts: one that takes this", 1.5, 4.0, 0.5, when=QUARTERS),
    Option("back_dart_length", "Longest back dart", "length", 14.0, "at the usual hip depth; the others and other depths in proportion", 9.0, 16.0, 0.5),
    Option("front_dart_length", "Longest front dart", "length", 12.0, "a belly wants it shorter than the seat does", 7.0, 14.0, 0.5),
    Option("side_up", "Side raised", "length", 1.25, "at most; the waist must sit square to a slanting side", 0.0, 2.0, 0.25),
    Option("side_most", "Side takes at most", "length", 3.0, "shared-out darts: more turns a corner at the hip", 1.0, 4.5, 0.25),
    Option(
        "opening_at", "Opening", "choice", "centre_back", "the hips must pass the closed waist",
        choices=(
            Choice("centre_back", "Centre back", "the back is cut as a pair"),
            Choice("side", "Left side", "the back is cut on the fold"),
            Choice("none", "None", "only where the waist passes the hips"),
        ),
    ),
    Option(
        "opening", "Opening length", "length", None, "from the waist down; to just above the hip line", 10.0, 40.0, 1.0,
        worked=lambda on: on["waist_hip"] - 2.5, uses=("waist_hip",),
    ),
)  # fmt: skip
