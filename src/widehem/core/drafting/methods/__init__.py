"""One module per method. Importing this package makes them all known, in the order in which they are offered."""

from widehem.core.drafting.methods import (  # isort: skip
    skirt_two_panel,
    bodice_plain,
    bodice_measured,
    bodice_proportional,
    bodice_cup_wedge,
    sleeves,
    trousers_schools,
)

__all__ = [
    "bodice_cup_wedge",
    "bodice_measured",
    "bodice_plain",
    "bodice_proportional",
    "skirt_two_panel",
    "sleeves",
    "trousers_schools",
]
