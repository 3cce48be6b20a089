"""Where the underarm of a bodice lies below the nape: four schools."""

from __future__ import annotations

from widehem.core.drafting.sheet import Sheet
from widehem.core.setting.quantity import Quantity
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say

BELOW_HALF, BELOW_SIXTH = 2.5, 1.5  # cm
USUAL_DROP = 4.3  # cm that a shoulder falls, where it was not read


def armhole_level(sheet: Sheet, school: str) -> Quantity:
    """The depth below the nape before any ease, cm, by a school: measured, half, armscye or bust. Raises CannotDraft where the
    measure of a school is not there."""
    if school == "half":
        return sheet.measure("nape_waist") / 2 + BELOW_HALF
    if school == "armscye":
        if sheet.chart.get("armscye") is None:
            raise CannotDraft(
                ("armscye",), say("Half the armscye wants the armscye: read it, or set the armhole level by the armscye depth.")
            )
        return sheet.measure("armscye") / 2
    if school == "bust":
        read = sheet.chart.get("shoulder_drop")
        drop = sheet.measure("shoulder_drop") if read is not None else Quantity(USUAL_DROP, "shoulder drop", source="constant")
        rise = sheet.measure("snp_waist_back") - sheet.measure("nape_waist")
        return sheet.measure("bust") / 6 + BELOW_SIXTH + (drop - rise)
    return sheet.measure("armscye_depth")
