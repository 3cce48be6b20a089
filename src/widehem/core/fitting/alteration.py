"""An alteration of one wearer's paper: what it is about, what was read then, and whether a newer chart has caught up with it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from widehem.core.body.catalogue import CATALOGUE
from widehem.core.body.chart import Chart
from widehem.core.design.design import Step
from widehem.core.fitting.causes import CUP
from widehem.core.pattern.garment import Garment
from widehem.core.style.operation import OPERATIONS, Operation
from widehem.core.units import Saying, say
from widehem.core.values import record

CAUGHT_UP = 0.4  # of an alteration: so much of it in the chart, and it may be there twice
LONGEST = 300
GROUPS: Mapping[str, tuple[str, ...]] = {
    "Shoulder and armhole": ("alter.across", "alter.shoulder", "alter.slope", "alter.underarm", "alter.gape"),
    "Bust and back": ("alter.bust", "alter.length", "alter.centre"),
    "Sides, waist and hem": ("alter.side", "alter.centre_back", "alter.hem"),
    "Trousers": ("alter.fork", "alter.seat"),
    "From the cloth": ("alter.cut",),
    "Sleeve": ("alter.cap", "alter.bicep", "alter.turn"),
}
NEEDS: Mapping[str, tuple[str, ...]] = {
    "alter.cut": ("side",), "alter.across": ("armhole",), "alter.shoulder": ("armhole", "shoulder"), "alter.slope": ("armhole", "shoulder"),
    "alter.underarm": ("armhole", "side"), "alter.gape": ("shoulder",), "alter.bust": ("armhole", "waist"), "alter.length": ("neck", "side"),
    "alter.centre": ("waist",), "alter.side": ("side",), "alter.centre_back": ("waist",), "alter.hem": ("hem", "side"),
    "alter.fork": ("inseam", "crotch"), "alter.seat": ("waist", "crotch"), "alter.cap": ("cap",), "alter.bicep": ("cap",), "alter.turn": ("cap",),
}  # fmt: skip
WAYS: Mapping[str, tuple[str, float]] = {  # the measure an alteration is about, and how much of it goes into that
    "alter.shoulder": ("shoulder", 1.0), "alter.slope": ("shoulder_drop", -1.0), "alter.underarm": ("armscye_depth", -1.0),
    "alter.bust": (CUP, 2.0), "alter.fork": ("crotch_length", 1.0), "alter.seat": ("crotch_length", 1.0), "alter.bicep": ("upper_arm", 1.0),
}  # fmt: skip
PARTS: Mapping[str, Mapping[str, str]] = {
    "alter.across": {"back": "across_back", "front": "across_chest"},
    "alter.length": {"back": "nape_waist", "front": "snp_waist_front"},
    "alter.side": {"bust": "bust", "waist": "waist", "hip": "hip"},
}


def fitting(garment: Garment) -> dict[str, list[Operation]]:
    """The alterations this garment has the edges for, by what they are about."""
    roles = [{edge.role for edge in piece.edges} for piece in garment.shell]
    found = {
        title: [OPERATIONS[code] for code in codes if any(set(NEEDS[code]) <= mine for mine in roles)]
        for title, codes in GROUPS.items()
    }
    return {title: entries for title, entries in found.items() if entries}


def figure_of(step: Step) -> tuple[str, float] | None:
    """The measure an alteration is about and how much more of it the paper has for it, cm; None where no measure shows it."""
    by = step.settings.get(
        "by", step.operation.option("by").default if any(o.code == "by" for o in step.operation.options) else None
    )
    if not isinstance(by, float | int):
        return None
    if step.code in WAYS:
        code, way = WAYS[step.code]
        return code, way * float(by)
    asked = {option.code: option.default for option in step.operation.options} | dict(step.settings)
    chosen = str(asked.get("level", asked.get("part", "")))
    code = PARTS.get(step.code, {}).get(chosen, "")
    return (code, float(by)) if code else None


def read_now(code: str, chart: Chart) -> float | None:
    """A measure of the chart, the cup as the difference it is."""
    if code != CUP:
        return chart.get(code)
    bust, high = chart.get("bust"), chart.get("high_bust")
    return None if bust is None or high is None else bust - high


@record(frozen=True)
class About:
    """What an alteration is about. why: in the maker's words; figure, by: the measure and how much of it, cm; read: that measure when it was
    made, None where it was not read."""

    why: str = ""
    figure: str = ""
    by: float = 0.0
    read: float | None = None

    @staticmethod
    def of(step: Step, chart: Chart, why: str = "") -> About:
        """What a new alteration is about, on this chart."""
        found = figure_of(step)
        if found is None:
            return About(why[:LONGEST])
        return About(why[:LONGEST], found[0], found[1], read_now(found[0], chart))

    def as_data(self) -> dict[str, Any]:
        return {"why": self.why, "figure": self.figure, "by": self.by, "read": self.read}

    @staticmethod
    def from_data(data: Mapping[str, Any]) -> About:
        """Raises ValueError, TypeError for what it is not."""
        read = data.get("read")
        return About(
            str(data.get("why", ""))[:LONGEST], str(data.get("figure", ""))[:40], float(data.get("by", 0.0)),
            None if read is None else float(read),
        )  # fmt: skip

    def caught_up(self, chart: Chart) -> Saying | None:
        """What is said where the chart has taken over what the alteration did; None where it has not."""
        now = read_now(self.figure, chart) if self.figure else None
        if now is None or self.read is None or abs(self.by) < 1e-6:
            return None
        share = (now - self.read) / self.by
        if share < CAUGHT_UP:
            return None
        name = "cup" if self.figure == CUP else CATALOGUE[self.figure].name.lower()
        return say(
            f"The {name} was read anew: the chart gives {{0u}} of the {{1u}} that this alteration adds. Drop it, or they are there twice.",
            abs(now - self.read), abs(self.by),
        )  # fmt: skip
