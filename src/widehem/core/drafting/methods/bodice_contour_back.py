"""The back of a contour bodice: hollowed at the centre, with one dart."""

from __future__ import annotations

from fontTools.misc.transform import Transform

from widehem.core.drafting.methods.bodice_contour_shape import (
    Heights,
    between,
    cut_at_hem,
    longer_at_end,
    through,
)
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.upper import DOWN
from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, square_to
from widehem.core.pattern.edge import Edge, EdgeKind
from widehem.core.pattern.inside import BalanceLine, Diamond, InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import replace

CENTRE_BACK_MOST, BACK_DART_MOST, BACK_DART_LEAST = 2.5, 3.8, 0.6
CENTRE_HIP = 1.2
LOW_BACK = 3.0  # cm below the bust: a back that begins lower is open there
BACK_DART_BELOW, ABOVE_HEM = 3.0, 1.5
LAP, LAP_IN = 3.8, 1.3  # cm beyond the centre back; of it turned in for the lining
MIDDLE = "centre_back"
UNDER_EDGE = 1.0  # cm below the top edge the dart begins at least


def arc_of(sheet: Sheet, name: str) -> Quantity:
    """The front arc of a girth; where it is not read, half of the girth with what a front usually has more."""
    if sheet.chart.get(f"{name}_front") is not None:
        return sheet.measure(f"{name}_front")
    return sheet.measure(name) / 2 + 1.5


def bust_level(sheet: Sheet, heights: Heights) -> float | None:
    """The level at which the back goes round at the bust; None where it begins so much lower that it does not."""
    top = heights.back_under + sheet.length("back_top").value
    return max(heights.bust, top) if top <= heights.bust + LOW_BACK else None


def _top_edge(under: Point, top: Point) -> Edge:
    return Edge("top", (Path((curve_between(under, Point(-1.0, 0.0), top, Point(-1.0, 0.0)),)),), role="neck")


def _lapped(back: Piece, side: Path) -> Piece:
    """The back with the lap of its opening on it; its levels are measured from the centre back, which stays as a line."""
    centre = back.edge("centre_back").parts[0]
    out = square_to(centre.arriving, centre.end - side.end)
    edge = longer_at_end(centre.moved(Transform().translate(-LAP, 0.0)), LAP)
    index, t = edge.crossings(centre.end, out)[-1]
    edge = edge.split(index, t)[0]
    hem, top = back.edge("hem"), back.edge("top")
    made = {
        "centre_back": replace(back.edge("centre_back"), parts=(edge,)),
        "hem": replace(hem, parts=(Path.through(edge.end, centre.end) + hem.parts[0],)),
        "top": replace(top, parts=(top.parts[0] + Path.through(centre.start, edge.start),)),
    }
    return replace(
        back,
        edges=tuple(made.get(e.name, e) for e in back.edges),
        balance=tuple(replace(line, between=(MIDDLE, "")) for line in back.balance),
        lines=(*back.lines, InnerLine(MIDDLE, "Centre back", centre)),
    )


def back_piece(sheet: Sheet, heights: Heights) -> tuple[Piece, Path, list[tuple[str, Quantity]]]:
    """The back, its side, and the sums of it."""
    bust, waist, hip = (sheet.measure(code) for code in ("bust", "waist", "hip"))
    wide = (bust / 2 - arc_of(sheet, "bust") / 2 + sheet.ease("bust") / 4).called("back at the bust")
    at_waist = (waist / 2 - arc_of(sheet, "waist") / 2 + sheet.ease("waist") / 4).called("back at the waist")
    at_hip = (hip / 4 + sheet.ease("hip") / 4).called("back at the hip")
    part = (heights.waist - heights.back_under) / (heights.hip - heights.back_under)
    lose = wide.value + (at_hip.value - wide.value) * part - at_waist.value
    centre_in = centre_hip = 0.0
    if sheet.choice("back") == "shaped" and lose > 0:
        # what the centre goes in at the hip, half of a third of what is lost, moves the line from which that is worked out
        centre_hip = min(lose / (6 - part), CENTRE_HIP)
        lose += part * centre_hip
        centre_in = min(lose / 3, CENTRE_BACK_MOST)
    straight = at_waist.value + lose
    dart = min(max(lose - centre_in, 0.0), BACK_DART_MOST)
    dart = dart if dart >= BACK_DART_LEAST else 0.0
    aside = lose - centre_in - dart
    sums = [(figure.name, figure) for figure in (wide, at_waist, at_hip)]
    sums += [
        (name, drawn(value, name))
        for name, value in (
            ("to lose at the waist", lose),
            ("centre back goes in", centre_in),
            ("dart takes", dart),
            ("side takes", aside),
        )
    ]
    under, side_waist, side_hip = Point(wide.value, heights.back_under), Point(straight - aside,
        heights.waist), Point(at_hip.value + centre_hip, heights.hip)  # fmt: skip
    if side_waist.x < 6:
        raise CannotDraft(
            ("waist", "waist_front"),
            say("The back would be {0u} wide at the waist: read waist and its front arc again.", side_waist.x),
        )
    side = cut_at_hem(
        through(under, (side_waist - under) if abs(aside) < 0.2 else DOWN, side_waist, side_hip, calm=heights.calm),
        heights.hem - heights.hem_rise,
    )
    top = Point(0.0, heights.back_under + sheet.length("back_top").value)
    centre = cut_at_hem(
        through(top, DOWN, Point(centre_in, heights.waist), Point(centre_hip, heights.hip), calm=heights.calm), heights.hem
    )
    opened = sheet.choice("opening_at") == "centre_back"
    kind: EdgeKind = "opening" if opened else "seam" if centre_in else "fold"
    edges = (
        Edge("centre_back", (centre,), (), kind),
        Edge("hem", (between(centre.end, centre.arriving, side.end, side.arriving),), (), "hem"),
        Edge("side", (side.reverse(),)),
        _top_edge(under, top),
    )
    middle = (centre_in + side_waist.x) / 2
    diamonds: tuple[Diamond, ...] = ()
    if dart:
        low = max(min(heights.hip, heights.hem - ABOVE_HEM - heights.hem_rise / 2), heights.waist + 2)
        begins, point = heights.back_under + BACK_DART_BELOW, Point(middle, low)
        if sheet.rules > 3:
            edge = edges[-1].at_line(Point(middle, 0.0), DOWN)
            lies = edges[-1].place(edge).point.y if edge is not None else begins
            begins = max(begins, lies + UNDER_EDGE)
    if dart:
        at = Point(middle - dart / 2, heights.waist), Point(middle + dart / 2, heights.waist)
        diamonds = (Diamond("back_dart", Point(middle, begins), point, *at),)
    levels = [("waist", heights.waist)]
    level = bust_level(sheet, heights)
    if level is not None:
        levels.insert(0, ("bust", level))
    if heights.hem > heights.hip + heights.hem_rise + 0.5:
        levels.append(("hip", heights.hip))
    grain = (
        None
        if kind == "fold"
        else (Point(wide.value * 0.25, heights.back_under + 4), Point(wide.value * 0.25, heights.waist + 2))
    )
    piece = Piece(
        "back", "Bodice back", edges, balance=tuple(BalanceLine.across(level, y, notched=False) for level, y in levels),
        stands="fold" if kind == "fold" else "pair", middle="centre_back", marks={"underarm": under}, grain=grain,
            diamonds=diamonds,
    )  # fmt: skip
    return _lapped(piece, side) if opened and sheet.choice("lap") == "lap" else piece, side, sums
