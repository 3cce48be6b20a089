"""What every method asks of the cloth and of what is worn underneath: settings they all have."""

from __future__ import annotations

from collections.abc import Mapping

from widehem.core.drafting.option import Choice, Option
from widehem.core.pattern.wear import LAYER, PADDED_LAYER, Wear

CLOTH = Option(
    "cloth", "Cloth", "choice", "woven", "how close it may be, and how much a cap can be eased",
    choices=(
        Choice("woven", "Woven", "it does not give: never without ease"),
        Choice("crisp", "Crisp or like leather", "it does not give and cannot be eased in"),
        Choice("knit", "Knit", "it gives by its stretch and may be smaller than the body"),
    ),
)  # fmt: skip
STRETCH = Option("stretch", "Stretch of a knit, per cent", "number", 30.0, "10 cm of it, pulled gently to 13, give 30; half of that may be used", 5.0, 150.0, 5.0)  # fmt: skip
LAYERS = Option("layers", "Layers underneath", "number", 0.0, f"ordinary ones; each takes about {LAYER:g} cm round the body", 0.0, 5.0, 1.0)  # fmt: skip
PADDED = Option("padded", "Padded layers underneath", "number", 0.0, f"each takes about {PADDED_LAYER:g} cm round the body, or measure over it", 0.0, 3.0, 1.0)  # fmt: skip
WORN = (CLOTH, STRETCH, LAYERS, PADDED)
WORN_CODES = frozenset(option.code for option in WORN)


def wear_of(options: Mapping[str, object]) -> Wear:
    """The wear of these settings; what is not among them is as usual."""
    found = {code: options.get(code, option.default) for code, option in ((option.code, option) for option in WORN)}
    return Wear(str(found["cloth"]), float(str(found["stretch"])), float(str(found["layers"])), float(str(found["padded"])))
