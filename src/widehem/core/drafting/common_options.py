"""Settings that every method has: the cloth, what is worn underneath, and what is trued by hand on the finished pieces."""

from __future__ import annotations

from collections.abc import Mapping

from widehem.core.pattern.limits import USUAL_LIMITS, Limits
from widehem.core.pattern.wear import LAYER, PADDED_LAYER, Wear
from widehem.core.setting.option import Choice, Mend, Option
from widehem.core.values import replace

CLOTH = Option(
    "cloth", "Cloth", "choice", "woven", "how close it may be, and how much a cap can be eased",
    choices=(
        Choice("woven", "Woven", "it does not give: never without ease"),
        Choice("crisp", "Crisp or like leather", "it does not give and cannot be eased in"),
        Choice("knit", "Knit", "it gives by its stretch and may be smaller than the body"),
    ),
)  # fmt: skip
STRETCH = Option("stretch", "Stretch of a knit, per cent", "number", 30.0, "{10} of it, pulled gently to {13}, give 30 in a hundred; half of that may be used", 5.0, 150.0, 5.0)  # fmt: skip
LAYERS = Option("layers", "Layers underneath", "number", 0.0, f"ordinary ones; each takes about {{{LAYER:g}}} round the body", 0.0, 5.0, 1.0)  # fmt: skip
PADDED = Option("padded", "Padded layers underneath", "number", 0.0, f"each takes about {{{PADDED_LAYER:g}}} round the body, or measure over it", 0.0, 3.0, 1.0)  # fmt: skip
KNIT = (("cloth", ("knit",)),)
WORN = (
    replace(CLOTH, group="cloth"), replace(STRETCH, group="cloth", when=KNIT), replace(LAYERS, group="cloth"),
    replace(PADDED, group="cloth"),
)  # fmt: skip

TRUED = Option(
    "trued", "Trued by hand", "choice", "no", "what a cutter does on paper once the pieces are drawn",
    choices=(
        Choice("no", "As drawn", "nothing is changed"),
        Choice("seams", "Seams made equal", "where two sides of a seam differ, one is let out or taken in at its free end"),
        Choice("corners", "Corners squared", "waist, hem and neck leave the centre squarely for a centimetre"),
        Choice("both", "Both", "first the corners, then the seams"),
    ),
)  # fmt: skip
PRESSED = Option(
    "pressed", "Waist darts pressed", "choice", "centre", "the mouth of a dart is cut for the side it is pressed to",
    choices=(Choice("centre", "To the centre", "as is usual"), Choice("side", "To the side", "where the centre shall lie flat")),
)  # fmt: skip
SEAM_LIMIT = Option("seam_limit", "Seams are true within", "length", USUAL_LIMITS.seam, "how far the two sides of a seam, and the notches along it, may differ", 0.05, 0.5, 0.05)  # fmt: skip
LEGS_LIMIT = Option("legs_limit", "Dart legs are true within", "length", USUAL_LIMITS.legs, "how far both legs of a dart may differ", 0.05, 0.3, 0.05)  # fmt: skip
CORNER_LIMIT = Option("corner_limit", "Closed lines are true within, degrees", "number", USUAL_LIMITS.corner, "how far an outline may bend where a seam or a dart is closed", 1.0, 6.0, 0.5)  # fmt: skip
LIMITS = (SEAM_LIMIT, LEGS_LIMIT, CORNER_LIMIT)
DRILL = Option(
    "drill", "Drill holes", "choice", "inside", "where a dart is marked on the cloth",
    choices=(
        Choice("inside", "Inside the point", "{1.5} from it towards the mouth"),
        Choice("lowered", "Of a lowered point", "the dart is sewn {2} shorter, and the hole lies {1} further: {3} from the point drawn"),
    ),
    school=True,
)  # fmt: skip
COMMON = (*WORN, *(replace(option, group="truth") for option in (TRUED, PRESSED, DRILL, *LIMITS)))  # every method has these
COMMON_MENDS = {
    "seam.": (Mend("Make both sides equal", "trued", "seams"),),
    "corners.square": (Mend("Square the corners at the centre", "trued", "corners"),),
}


def wear_of(options: Mapping[str, object]) -> Wear:
    """The wear of these settings; what is not among them is as usual."""
    found = {code: options.get(code, option.default) for code, option in ((option.code, option) for option in WORN)}
    return Wear(str(found["cloth"]), float(str(found["stretch"])), float(str(found["layers"])), float(str(found["padded"])))


def limits_of(options: Mapping[str, object]) -> Limits:
    """The limits of these settings; what is not among them is as usual."""
    return Limits(*(float(str(options.get(option.code, option.default))) for option in LIMITS))
