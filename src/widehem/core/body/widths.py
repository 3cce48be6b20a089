"""Widths across the body and at the shoulder."""

from widehem.core.body.measure import ARMS_DOWN, STANDING, Measure, line

_ACROSS = "Across"

WIDTHS = (
    Measure(
        "shoulder", "Shoulder", "width", _ACROSS, 12.2, 6, 20,
        "From the side neck point along the top of the shoulder to the shoulder tip, where the arm begins to fall.",
        "Side neck point to shoulder tip", ARMS_DOWN, line("front", (5.6, 25.4), (17.6, 30.0)), ("shoulder length",), sided=True,
    ),
    Measure(
        "across_shoulders", "Across shoulders", "width", _ACROSS, 38.5, 20, 60,
        "Across the back from shoulder tip to shoulder tip, over the nape.",
        "Shoulder tip to shoulder tip", ARMS_DOWN, line("back", (-17.6, 30.0), (0, 25.6), (17.6, 30.0)), alone=False,
    ),
    Measure(
        "across_back", "Across back", "width", _ACROSS, 34.4, 18, 58,
        "From the crease of one arm to the crease of the other, halfway between shoulder tip and underarm. Level, breathing out.",
        "Arm crease to arm crease at mid armhole", ARMS_DOWN, line("back", (-14.6, 36.0), (14.6, 36.0)), ("back width",), alone=False,
    ),
    Measure(
        "across_chest", "Across chest", "width", _ACROSS, 32.4, 17, 56,
        "In front, from the crease of one arm to the crease of the other, halfway between shoulder tip and underarm.",
        "Arm crease to arm crease at mid armhole", ARMS_DOWN, line("front", (-14.2, 36.0), (14.2, 36.0)), ("chest width",), alone=False,
    ),
    Measure(
        "bust_span", "Bust span", "width", _ACROSS, 18.8, 9, 34,
        "Straight across from bust point to bust point, the tape bridging the hollow.",
        "Bust point to bust point", ARMS_DOWN, line("front", (-7.6, 46.5), (7.6, 46.5)),
    ),
    Measure(
        "strap_to_strap", "Strap to strap", "width", _ACROSS, 26, 12, 42,
        "Where the straps of the foundation meet the neckline, straight across from one to the other.",
        "Strap to strap at the neckline", ARMS_DOWN, line("front", (-10.0, 34.5), (10.0, 34.5)),
    ),
    Measure(
        "shoulder_slope", "Shoulder slope", "width", _ACROSS, 42.5, 20, 62,
        "From the shoulder tip diagonally across the back to the centre of the waist string.",
        "Shoulder tip to centre back waist", STANDING, line("back", (17.6, 30.0), (0, 61.8)), alone=False, sided=True,
    ),
    Measure(
        "shoulder_drop", "Shoulder drop", "width", _ACROSS, 4.2, 0.5, 9,
        "Hold a ruler level at the side neck point. Measure straight down from it to the shoulder tip.",
        "Level of the side neck down to the shoulder tip", ARMS_DOWN, line("front", (17.6, 25.6), (17.6, 30.2)), alone=False, sided=True,
    ),
)  # fmt: skip
