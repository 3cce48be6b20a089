"""Panels by the arcs: where the front of the waist or the hip was read by itself, the front panel is as wide as it, and what the
waist has over the hip in front goes to the centre front, so that the side stays upright over a belly."""

from __future__ import annotations

from widehem.core.body.doubts import ARC_PART
from widehem.core.drafting.knit import is_close
from widehem.core.drafting.sheet import Sheet
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.belly import FrontArc, SideUpright
from widehem.core.setting.option import Choice, Option
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.units import say
from widehem.core.values import record

TILT_MOST = 3.0  # cm that the centre front leans out at the waist
RAISED_LEAST, RAISED_PART = 1.0, 1 / 3  # cm that it is raised once it leans, and of the lean: 1 to 2
UPRIGHT = 1.5  # cm off plumb that the side may lie between waist and hip over a belly
OVER_SAID = 1.5  # cm that the front side leans out, beyond which the hip is to be read over the belly

PANELS = Option(
    "panels", "Back and front", "choice", "arcs", "where the front arcs of waist or hip were read, a belly is drawn as it is",
    choices=(
        Choice("arcs", "By the arcs", "the front as wide as the front of the body; else quarters"),
        Choice("quarters", "Quarters", "back and front alike, whatever the arcs"),
    ),
    before=((2, "quarters"),),
)  # fmt: skip


@record(frozen=True)
class Arcs:
    """Halves of the front of the body, cm; None where an arc was not read."""

    waist: Quantity | None
    hip: Quantity | None

    @property
    def read(self) -> bool:
        return self.waist is not None or self.hip is not None


def arcs_of(sheet: Sheet) -> Arcs:
    """The front arcs a draft goes by: none where it is drawn in quarters, or is a close knit that follows the body anyway."""
    if sheet.choice("panels") != "arcs" or is_close(sheet):
        return Arcs(None, None)
    return Arcs(_half(sheet, "waist"), _half(sheet, "hip"))


def _half(sheet: Sheet, name: str) -> Quantity | None:
    """Half a front arc, where it was read and can be one."""
    code = f"{name}_front"
    arc, whole = sheet.chart.get(code), sheet.measure(name).value
    low, high = ARC_PART[code]
    if arc is None or not low * whole <= arc <= high * whole:
        return None
    return (sheet.measure(code) / 2).called(f"half the front {name}")


@record(frozen=True)
class Lean:
    """How far the centre front leans out at the waist and is raised, cm; and how far the front side leans out all the same."""

    tilt: float = 0.0
    raised: float = 0.0
    side: float = 0.0


def lean_of(over: float) -> Lean:
    """What the front waist is over the front hip, cm: to the centre front as far as it takes it, the rest to the side."""
    if over <= 0:
        return Lean()
    tilt = min(over, TILT_MOST)
    return Lean(tilt, RAISED_LEAST + tilt * RAISED_PART, over - tilt)


def arc_demands(sheet: Sheet, piece: str, lean: Lean, waist: float | None, hip: float) -> list[Demand]:
    """What a front by the arcs is held against. waist, hip: its part of the ease, whole front, cm; None where the waist is drawn
    in."""
    arcs, found = arcs_of(sheet), list[Demand]()
    if arcs.waist is not None and waist is not None:
        found.append(FrontArc("waist", "Waist", piece, 2 * arcs.waist.value, waist, "waist"))
    if arcs.hip is not None:
        found.append(FrontArc("hip", "Hip", piece, 2 * arcs.hip.value, hip))
    if lean.tilt:
        found.append(SideUpright(piece, UPRIGHT))
    return found


def say_belly(sheet: Sheet, lean: Lean) -> None:
    """What a belly made of the draft, once."""
    sheet.sum("centre front leans out", drawn(lean.tilt, "centre front leans out"))
    sheet.sum("centre front raised", drawn(lean.raised, "centre front raised"))
    sheet.note(
        say("In front the waist is {0} over the hip: the centre front leans out {1} and is raised {2u}, the side stays upright.",
            lean.tilt + lean.side, lean.tilt, lean.raised)
    )  # fmt: skip
    if lean.side > OVER_SAID:
        sheet.note(say("{0u} more than the centre takes are left to the side: read the hip over the belly.", lean.side))
