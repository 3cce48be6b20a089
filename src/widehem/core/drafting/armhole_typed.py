"""The armhole of a garment that exists, as it was measured on it: what can be made of the figures, and what is doubted."""

from __future__ import annotations

from typing import Literal

from widehem.core.body.chart import Chart
from widehem.core.drafting.cap import Armhole
from widehem.core.units import Saying, say
from widehem.core.values import record

Shoulder = Literal["bone", "over", "inside"]
SHOULDERS: dict[Shoulder, str] = {
    "bone": "At the shoulder bone",
    "over": "It drops over the bone",
    "inside": "It ends inside the bone",
}
LOW, HIGH = 10.0, 45.0  # cm of one half
DEPTH_PART = 0.25, 0.48  # of the whole armhole: how deep it lies, shoulder tips to underarm
FRONT_OVER, BACK_OVER = 1.0, 4.0  # cm that one half may be longer than the other, as worn garments are
OVER_ARM = 6.0  # cm that an armhole is longer than the upper arm is round, at least


@record(frozen=True)
class Typed:
    """An armhole along its stitching line, cm. depth: from between the shoulder tips straight down to the underarm, None
    where it was not measured. shoulder: where the shoulder of the garment ends; off: by how much, where not at the bone."""

    front: float
    back: float
    depth: float | None = None
    shoulder: Shoulder = "bone"
    off: float = 0.0

    @property
    def armhole(self) -> Armhole:
        return Armhole(self.front, self.back, self.depth)


def problems(typed: Typed) -> dict[str, Saying]:
    """What keeps a sleeve from being drawn, by field."""
    found: dict[str, Saying] = {}
    for field, name, length in (("front", "Front armhole", typed.front), ("back", "Back armhole", typed.back)):
        if not LOW <= length <= HIGH:
            found[field] = say(
                f"{name} {{0}} is outside {{1}} to {{2u}}: measure one half, shoulder seam to side seam, along the stitching.",
                length,
                LOW,
                HIGH,
            )
    whole = typed.front + typed.back
    low, high = (part * whole for part in DEPTH_PART)
    if typed.depth is not None and not found and not low <= typed.depth <= high:
        found["depth"] = say(
            "Depth {0} does not go with an armhole of {1}: between the shoulder tips and the underarm lie {2} to {3u}. Lay the "
            "armhole flat and measure straight down.",
            typed.depth,
            whole,
            low,
            high,
        )
    if typed.shoulder == "over":
        found["shoulder"] = say(
            "A shoulder that drops {0u} over the bone is mended first: cut it back to the bone, draw the armhole anew down to the "
            "pitch points, and measure it again. A set-in sleeve hangs from the bone.",
            typed.off,
        )
    if typed.shoulder == "inside":
        found["shoulder"] = say(
            "A shoulder that ends {0u} inside the bone is mended first: set a strip on as wide as that, running out to nothing at "
            "the pitch points, and measure the armhole again. The cap has no room over the bone otherwise.",
            typed.off,
        )
    return found


def remarks(typed: Typed, chart: Chart) -> tuple[Saying, ...]:
    """What a cutter would look at again before a sleeve is drawn for it."""
    found = []
    over = typed.front - typed.back
    if over > FRONT_OVER:
        found.append(
            say("The front armhole is {0u} longer than the back: right for a front drawn for a full bust, else measured crosswise.",
                over)
        )  # fmt: skip
    if -over > BACK_OVER:
        found.append(say("The back armhole is {0u} longer than the front: does the shoulder seam lie forward?", -over))
    arm, whole = chart.get("upper_arm"), typed.front + typed.back
    if arm is not None and whole < arm + OVER_ARM:
        found.append(
            say(
                "An armhole of {0} is hardly longer than the arm is round, {1u}: the sleeve will bind. Let the underarm down, or "
                "set a gusset.",
                whole,
                arm,
            )
        )
    if typed.depth is None:
        found.append(
            say("Its depth was not measured: the cap cannot be held by it, and how it lies under the arm is not known.")
        )
    found.append(say("Before cutting, lay the lowest of the cap on the garment's own armhole: its curve is not known here."))
    return tuple(found)
