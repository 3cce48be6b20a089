"""The methods, each with its helpers beside it under the same first word. Importing this package makes them all known, in the
order in which they are offered."""

from widehem.core.drafting.methods import (  # isort: skip
    skirt_two_panel,
    bodice_plain,
    bodice_measured,
    bodice_proportional,
    bodice_cup_wedge,
    bodice_contour,
    sleeves,
    sleeve_pivot,
    sleeve_s_head,
    trousers_schools,
    top_jersey,
    gown,
    coat,
    suit,
)

__all__ = [
    "bodice_contour",
    "bodice_cup_wedge",
    "bodice_measured",
    "bodice_plain",
    "bodice_proportional",
    "coat",
    "gown",
    "skirt_two_panel",
    "sleeve_pivot",
    "sleeve_s_head",
    "sleeves",
    "suit",
    "top_jersey",
    "trousers_schools",
]
