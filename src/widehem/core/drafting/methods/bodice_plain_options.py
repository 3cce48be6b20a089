"""Ease and options of the plain bodice."""

from __future__ import annotations

from widehem.core.drafting.methods.bodice_options import NECK_SHAPE, OPENING
from widehem.core.setting.option import Choice, Option

EASE = (
    Option(
        "quarter",
        "Ease on each quarter",
        "length",
        2.5,
        "at bust and waist alike; a bodice without darts is meant to be easy",
        1.3,
        8.0,
        0.25,
        least=1.3,
    ),
)
OPTIONS = (
    Option(
        "level", "Armhole level", "choice", "measured", "half of the nape to waist alone binds under the arm",
        choices=(Choice("measured", "Armscye depth", "and what it shall lie below the arm"),
            Choice("half", "Half the back length", "half of nape to waist, and {2.5}"),
            Choice("armscye", "Half the armscye", "and what it shall lie below the arm"),
            Choice("bust", "Bust / 6", "a sixth of the bust and {1.5}, below the shoulder tip")),
        school=True,
    ),
    Option("below", "Armhole below the arm", "length", 3.0, "a loose armhole lies lower", 1.0, 6.0, 0.5),
    Option("hollow_back", "Back chest hollow", "length", 0.6, "the armhole stands in by so much halfway", 0.0, 2.0, 0.1),
    Option("hollow_front", "Front chest hollow", "length", 1.9, "the front is hollowed more than the back", 0.5, 3.5, 0.1),
    Option("narrower", "Front narrower at the shoulder", "length", 0.6, "the chest is narrower than the back", 0.0, 2.0, 0.1),
    Option(
        "neck_depth", "Front neck depth", "length", None, "below the front side neck point", 4.0, 20.0, 0.5,
        worked=lambda on: on["neck"] / 5 - 0.9, uses=("neck",), drawn=True,
    ),
    Option("shaping", "Side seam shaping", "number", 50.0, "per cent of the way from straight down to the waist mark", 0.0,
        100.0, 10.0),
    Option(
        "trued_hole", "Armholes trued", "choice", "needed", "a front armhole that is longer than the back gapes",
        choices=(Choice("needed", "As far as needed", "folded out across the chest and raised at the underarm, {0.7} each at most"),
            Choice("set", "Only as set below", "what gapes is shown")),
        before=((1, "set"),),
    ),
    Option("fold_chest", "Folded out across the chest", "length", 0.0, "trues a front armhole that is too long; the front "
        "gets shorter by it", 0.0, 0.7, 0.1),
    Option("raise_underarm", "Front underarm raised", "length", 0.0, "trues a front armhole that is too long; the surplus is "
        "eased into the back side seam", 0.0, 0.7, 0.1),
    NECK_SHAPE,
    OPENING,
)  # fmt: skip
