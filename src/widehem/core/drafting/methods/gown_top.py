"""The upper part of a gown panel: its heights, shoulder with strap, neck and armhole."""

from __future__ import annotations

import math

from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.upper import DOWN, HOLLOW, armhole
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.setting.quantity import Quantity
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record

AHEAD, SEAM_BACK = 0.6, 0.45  # the shoulder seam lies behind the ridge; where the chest point lies between underarm and tip
ACROSS_OVER, HOLE_LEAST, HOLE_HIGH = 0.5, 1.0, 6.0
UNDER_BUST_BELOW = 7.0
STRAP_LESS = 0.8
RISES = 0.5  # cm the strap must lie above the middle of the neck


@record(frozen=True)
class Top:
    """A shoulder: neck end of the strap, tip, direction outwards; and the height of the neck at the centre."""

    strap: Point
    tip: Point
    way: Point
    y: float


def waist_bust(sheet: Sheet) -> Quantity:
    read = sheet.chart.get("waist_bust")
    return sheet.measure("waist_bust") if read is not None else (sheet.measure("snp_waist_front") - sheet.measure("bust_depth"))


def underarm(sheet: Sheet) -> Quantity:
    if sheet.chart.get("underarm_waist") is not None:
        return sheet.measure("underarm_waist")
    if sheet.chart.get("nape_waist") is not None:
        return sheet.measure("nape_waist") - sheet.measure("armscye_depth")
    return sheet.measure("snp_waist_back") - 1.5 - sheet.measure("armscye_depth")


def hole_of(sheet: Sheet, name: str, top: Top, under: Point) -> Path:
    """The armhole down to an underarm; raises CannotDraft where there is no room for it."""
    tip = top.tip
    across = sheet.measure("across_chest" if name == "front" else "across_back").value / 2 + ACROSS_OVER
    chest = Point(across, under.y + (tip.y - under.y) * SEAM_BACK)
    code = "across_chest" if name == "front" else "across_back"
    if across > under.x - HOLE_LEAST:
        raise CannotDraft(
            (code, "high_bust", "bust_front"),
            say(f"Half across the {name}, {{0}}, leaves no armhole on a panel of {{1u}} under the arm: read "
                f"{code.replace('_', ' ')}, high bust and the front arc of the bust again.", across, under.x),
        )  # fmt: skip
    if tip.y > under.y - HOLE_HIGH:
        raise CannotDraft(
            ("underarm_waist", f"snp_waist_{name}"),
            say(f"The underarm lies {{0}} below the shoulder tip of the {name}; {{1u}} is the least: read underarm to waist "
                f"and side neck to waist again.", under.y - tip.y, HOLE_HIGH),
        )  # fmt: skip
    return armhole(tip, top.way, chest, DOWN, under, DOWN, HOLLOW[name], rounded=sheet.rules - 1)


def top_of(sheet: Sheet, name: str) -> Top:
    """The shoulder of a panel and its neck at the centre."""
    shoulder, drop = sheet.measure("shoulder").value, sheet.measure("shoulder_drop").value
    strap = sheet.length("strap").value
    if strap > shoulder + 1e-6:
        raise CannotDraft(
            ("shoulder",),
            say("The strap is to be {0} wide, the shoulder is only {1u} long: make the strap narrower.", strap, shoulder),
        )
    if drop >= shoulder:
        raise CannotDraft(
            ("shoulder_drop", "shoulder"), say("The shoulder falls {0} over a length of {1u}: read both again.", drop, shoulder)
        )
    over = AHEAD if name == "front" else -AHEAD
    snp = Point(sheet.measure("neck").value / 5, -(sheet.measure(f"snp_waist_{name}").value + over))
    tip = snp + Point(math.sqrt(shoulder**2 - drop**2), drop)
    less = STRAP_LESS if name == "back" and strap < shoulder - 1e-6 else 0.0
    start = snp.toward(tip, 1 - (strap - less) / shoulder)
    depth = sheet.length(f"neck_{name}").value
    if name == "front":
        depth = min(depth, _lowest(sheet, snp))
    y = max(snp.y + depth, start.y + RISES)
    if y > snp.y + depth + 1e-6:
        sheet.note(
            say(
                f"The {name} neck is lowered to {{0}} at the centre: the strap begins lower than that, and the line must not "
                f"dip.",
                y - snp.y,
            )
        )
    return Top(start, tip, (tip - snp).unit(), y)


def _lowest(sheet: Sheet, snp: Point) -> float:
    """The deepest a front neck may lie below its side neck point: no lower than the bust is above what lies under it."""
    above = sheet.chart.get("waist_under_bust")
    bust = waist_bust(sheet).value
    low = above if above is not None else bust - UNDER_BUST_BELOW
    deepest = max(-snp.y - bust - low, 5.0)
    asked = sheet.length("neck_front").value
    if asked > deepest:
        sheet.note(say("The front neck is {0} deep instead of {1u}: lower it would slip off the bust.", deepest, asked))
    return deepest
