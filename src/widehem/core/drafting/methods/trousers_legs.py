"""Legs of any length: where they end, how wide they are there, and the hem that is level once it is closed."""

from __future__ import annotations

import math
from itertools import pairwise

from widehem.core.drafting.knit import drawn_in
from widehem.core.drafting.methods.trousers_options import FOOT
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.trousers import Panel, Rise
from widehem.core.geometry.curves import Line, Segment, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.checks.lower import BENT_KNEE
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.piece import Piece
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.units import say

BELOW_FORK = 5.0  # cm: the shortest leg, and where the thigh is held against the body
BELOW_KNEE = 4.0  # cm below the knee up to which a leg is cut off as it runs
ABOVE_FLOOR, ANKLE_UP, CALF_PART = 3.0, 8.0, 0.3  # cm; of the way from the knee to the floor
AT_ANKLE = 12.0  # cm above the usual hem from which a leg is a long one
LEG_ROOM = 2.0  # cm round the leg at the hem of a breech
ARCH, ARCH_WITHIN = 0.5, 4.0  # cm that a short hem rises or falls at most, and how far from a seam
OPENED = 10.0  # cm that the hem of a leg is opened in the side
GATHERED, BAND_HIGH, UNDERLAP = 1.4, 3.0, 3.0  # how much more a hem is than its band; cm


def full_length(sheet: Sheet) -> Quantity:
    """How long the leg would be that is drawn before it is cut off, cm: to the floor, or as long as it is set."""
    length, floor = sheet.length("length"), sheet.chart.get("waist_floor")
    if sheet.rules < 3 or floor is None or length.value >= floor - ABOVE_FLOOR:
        return length
    return (sheet.measure("waist_floor") - ABOVE_FLOOR).called("full length")


def cut_at(sheet: Sheet, crotch: float, knee: float) -> float | None:
    """Where a leg is cut off that was drawn longer, cm below the waist; None where it runs to its hem. crotch, knee: how far
    below the waist they lie."""
    if sheet.choice("legs") == "short":
        return crotch + BELOW_FORK
    usual = isinstance(sheet.options["hem_girth"], Quantity) and sheet.choice("leg") != "wide"
    return sheet.length("length").value if usual and _above_knee(sheet, knee) else None


def _above_knee(sheet: Sheet, knee: float) -> bool:
    return sheet.rules > 2 and sheet.length("length").value < knee + BELOW_KNEE


def straight_to_hem(sheet: Sheet, rise: Rise) -> bool:
    """Whether a leg runs straight from the fork to its hem: a wide one, or one that ends above the knee with a hem that was
    set."""
    return sheet.choice("leg") == "wide" or (rise.cut is None and _above_knee(sheet, rise.knee))


def leg_at(sheet: Sheet, down: float, knee_at: float) -> float | None:
    """Round the leg so far below the waist, cm, from the knee down; None where knee and ankle were not read."""
    knee, ankle, floor = (sheet.chart.get(code) for code in ("knee", "ankle", "waist_floor"))
    if knee is None or ankle is None or floor is None:
        return None
    calf = sheet.chart.get("calf") or knee
    spots = [(knee_at, knee), (knee_at + CALF_PART * (floor - knee_at), calf), (floor - ANKLE_UP, ankle)]
    for (high, above), (low, below) in pairwise(spots):
        if down <= low:
            return above + (below - above) * max(down - high, 0.0) / max(low - high, 1.0)
    return ankle


def settle_legs(sheet: Sheet, rise: Rise) -> None:
    """Knee and hem where they are not set: of a breech by the leg there, of a close knit smaller by as much as the hip, of a
    gathered leg as the gathers ask."""
    if sheet.rules < 3:
        return
    hem, length = sheet.options["hem_girth"], sheet.length("length").value
    end = sheet.choice("hem_end")
    if isinstance(hem, Quantity) and sheet.choice("leg") != "wide" and sheet.choice("legs") != "short":
        around = leg_at(sheet, length, rise.knee)
        long = length >= full_length(sheet).value - AT_ANKLE
        if around is not None and length >= rise.knee + BELOW_KNEE and (end != "plain" or not long):
            wide = (around + LEG_ROOM) * (GATHERED if end == "band" else 1.0)
            sheet.options["hem_girth"] = drawn(max(wide, hem.value) if end == "plain" else wide, "hem girth")
    _close_legs(sheet)


def _close_legs(sheet: Sheet) -> None:
    part, gives = drawn_in(sheet), 1 + float(str(sheet.options["stretch"])) / 100
    if part == 1.0 or sheet.choice("leg") == "wide":
        return
    for code, body, most in (("knee_girth", "knee", BENT_KNEE), ("hem_girth", "ankle", 0.0)):
        measure = sheet.chart.get(body)
        if measure is None or not isinstance(sheet.options[code], Quantity):
            continue
        least = (measure + most) / measure / gives if most else FOOT / gives
        sheet.options[code] = drawn(measure * max(part, least), sheet.settings[code].name.lower())


def hem_of(panel: Panel, side: Path, *, level: bool) -> Path:
    """Square to both seams, so that the joined hem has no corner; of a short leg level between, bent only
    beside the seams, where it is to be level."""
    inseam, end, start = panel.inseam.arriving, panel.inseam.end, side.end
    leaving, arriving = Point(side.arriving.y, -side.arriving.x), Point(inseam.y, -inseam.x)
    if panel.rise.cut is None or not level:
        return Path((curve_between(start, leaving, end, arriving),))
    first, last = _beside(leaving), _beside(-arriving)
    if start.to(end) < first + last + 1.0:
        return Path((curve_between(start, leaving, end, arriving),))
    across = Point(1.0 if end.x > start.x else -1.0, 0.0)
    knees = [
        Point(at.x + way.x * over, at.y + way.y / max(abs(way.x), 0.2) * over / 2)
        for at, way, over in ((start, Point(across.x, leaving.y), first), (end, Point(-across.x, -arriving.y), last))
    ]
    low = (knees[0].y + knees[1].y) / 2
    knees = [Point(knee.x, low) for knee in knees]
    parts: list[Segment] = [
        curve_between(start, leaving, knees[0], across),
        Line(*knees),
        curve_between(knees[1], across, end, arriving),
    ]
    return Path(tuple(parts))


def _beside(way: Point) -> float:
    """How far a hem bends beside a seam to which it is square, cm. way: in which it leaves it."""
    steep = math.tan(math.atan2(abs(way.y), abs(way.x)))
    return min(ARCH_WITHIN, 2 * ARCH / steep) if steep > 1e-6 else ARCH_WITHIN


def leg_band(sheet: Sheet, around: float) -> Piece:
    """The band a leg is gathered into, folded along its middle. around: the leg there with its room, cm."""
    long, high = around + UNDERLAP, 2 * BAND_HIGH
    corners = Point(0.0, 0.0), Point(long, 0.0), Point(long, high), Point(0.0, high)
    edges = (
        Edge("band_top", (Path.through(corners[0], corners[1]),), role="band"),
        Edge("band_end", (Path.through(corners[1], corners[2]),), role="band"),
        Edge("band_low", (Path.through(corners[2], corners[3]),), role="band"),
        Edge("band_start", (Path.through(corners[3], corners[0]),), role="band"),
    )
    sheet.note(
        say("The leg is gathered into a band {0} round, {1} high when folded, with {2u} to button; open the side above it.",
            around, BAND_HIGH, UNDERLAP)
    )  # fmt: skip
    return Piece("leg_band", "Leg band", edges, layer="facing", grain=(Point(2.0, high / 2), Point(long - 2.0, high / 2)))
