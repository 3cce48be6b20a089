"""The seam-shaped gown: four panels, all shaping in the seams, as gowns were cut before darts."""

from __future__ import annotations

import math
from collections.abc import Callable

from widehem.core.drafting.bodice import front_to_back, middle_seams, sewn, upper_demands
from widehem.core.drafting.finished import show_edges, show_lightly
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.methods.gown_dart import MOST, MOST_FIRST, darted, takes
from widehem.core.drafting.methods.gown_gores import gores_for, times
from widehem.core.drafting.methods.gown_options import EASE, MENDS, OPTIONS
from widehem.core.drafting.methods.gown_panel import HOLE_APART, HOLE_FIRST, HOLE_IN, Panel, piece_of_panel
from widehem.core.drafting.methods.gown_shape import BUST_ROOM, Levels, Stations, level_hem, shaped_edge, split_at
from widehem.core.drafting.methods.gown_top import Top, hole_of, top_of, underarm, waist_bust
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table, as_drawn, turned_over
from widehem.core.drafting.upper import back_neck, front_neck, neck_meets
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import solve_or_nearest
from widehem.core.pattern.checks.body import Girth
from widehem.core.pattern.checks.upper import ArmholeOn, FrontInside, FrontOver, NeckOn
from widehem.core.pattern.checks.whole import FloorClear, OpensTo
from widehem.core.pattern.garment import Opening, Seam
from widehem.core.pattern.piece import Piece
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record, replace

APART, AXIS = 6.0, 3.0
NECK_FALLS = 2.2  # cm that the back neck lies below the strap at least
NECK_OVER_ARM = 1.0  # cm: no neck is lower than that above the underarm
HIGH_HIP_EASE = 2.0
ROOM, AS_THE_ARM = (3.0, 8.0), (-0.5, 0.5)  # cm that the armhole is longer than the armscye
MOVE_MOST = 4.0
FRONT_OVER = 6.0
SPAN_PART = 0.22  # of the bust: the bust span, where it was not read
ASIDE_BUST, ASIDE_WAIST = 1.0, 0.5
LACE_ENDS = 60.0
TITLES = {"side": "side seam", "side_gore": "side, for the gore"}


@record(frozen=True)
class Quarters:
    """Widths of a panel without what front and back differ by, cm. f: the part shaped in the centre seams."""

    waist: float
    bust: float
    under: float
    f: float


def draw(sheet: Sheet) -> None:
    """All four panels, step by step."""
    levels, quarters = _quarters(sheet)
    aside = _aside(sheet)
    panels, levels = _panels(sheet, levels, quarters, aside)
    panels = _holding(sheet, panels, levels)
    table = _table(panels)
    _guides(sheet, panels, table, levels)
    _finish(sheet, panels, table, levels, quarters)


def _quarters(sheet: Sheet) -> tuple[Levels, Quarters]:
    with sheet.step(
        "Quarters and levels", "Everything is a quarter of the body with its ease; the levels are counted up from the waist."
    ):
        waist = ((sheet.measure("waist") + sheet.ease("waist")) / 4).called("quarter waist")
        bust = ((sheet.measure("bust") + sheet.ease("bust")) / 4).called("quarter bust")
        under = ((sheet.measure("high_bust") + sheet.ease("bust")) / 4).called("quarter under the arm")
        up, arm = waist_bust(sheet).called("bust above the waist"), underarm(sheet).called("underarm above the waist")
        if up.value < 6 or arm.value < 6:
            raise CannotDraft(
                ("waist_bust", "underarm_waist"),
                say("Bust {0} and underarm {1u} above the waist: 6 is the least, read both again.".replace("6 is", "{2} is"),
                    up.value, arm.value, 6.0),
            )  # fmt: skip
        for figure in (waist, bust, under, up, arm):
            sheet.sum(figure.name, figure)
    y_bust, y_arm = -up.value, -arm.value
    if y_bust - y_arm < BUST_ROOM:  # too near to come in again
        under = bust
        y_bust = max(y_bust, y_arm)
    length, hip = sheet.length("length"), sheet.measure("waist_hip")
    with sheet.step("Flare", "Both edges of a panel lean out alike below the waist, so that the grain runs down the middle; "
        "at least as much as hip and high hip ask for."):  # fmt: skip
        needs = [("hip", (sheet.measure("hip") + sheet.ease("hip")) / 4, hip.value)]
        if sheet.chart.get("high_hip") is not None and sheet.chart.get("waist_high_hip") is not None:
            needs.append(("high hip", (sheet.measure("high_hip") + HIGH_HIP_EASE) / 4, sheet.measure("waist_high_hip").value))
        gap = sheet.length("lacing").value / 4 if sheet.choice("opening_at") != "none" else 0.0
        asked = {
            name: max(math.degrees(math.atan2(wide.value + gap - waist.value, 2 * down)), 0.0) for name, wide, down in needs
        }
        wanted = float(sheet.options["flare"])
        t = max(wanted, *asked.values())
        for name, degrees in asked.items():
            sheet.sum(f"{name} asks for, degrees", Quantity(round(degrees, 1), plain=True, source="constant"))
        sheet.sum("flare, degrees", Quantity(round(t, 1), plain=True, source="constant"))
        sheet.sum("skirt length", length)
        if t > wanted + 1e-6:
            name = max(asked, key=lambda key: asked[key])
            sheet.note(say(f"The {name} asks for {t:.1f} degrees of flare; that is drawn instead of {wanted:g}."))
    if t > 40:
        raise CannotDraft(
            ("waist_hip", "hip", "waist"),
            say(f"The hips would ask for a flare of {t:.0f} degrees: read waist to hip, hip and high hip again."),
        )
    f = float(sheet.options["fullness"]) / 100
    return Levels(y_bust, y_arm, length.value, math.radians(t), hip.value), Quarters(waist.value, bust.value, under.value, f)


def _aside(sheet: Sheet) -> tuple[float, float]:
    """What the front panel holds more than a quarter at bust and waist, cm."""
    with sheet.step(
        "Front against back",
        "The front must hold its own half of bust and waist; what it gets at the centre comes off the back.",
    ):
        found = []
        for name, arc, usual in (("bust", "bust_front", ASIDE_BUST), ("waist", "waist_front", ASIDE_WAIST)):
            if sheet.chart.get(arc) is not None:
                more = (sheet.measure(arc) / 2 - sheet.measure(name) / 4).called(f"front more at the {name}")
            else:
                more = Quantity(usual, f"front more at the {name}")
                sheet.note(
                    say(
                        f"The front arc of the {name} is not read: the front is taken {{0u}} wider than the back on each half.",
                        usual,
                    )
                )
            sheet.sum(more.name, more)
            found.append(more.value)
    return found[0], found[1]


def _panels(sheet: Sheet, levels: Levels, quarters: Quarters, aside: tuple[float, float]) -> tuple[tuple[Panel, Panel], Levels]:
    """Back and front, and the levels as they are then; the underarm of both moved alike until the armhole fits."""
    school, armscye, flows = sheet.choice("underarm"), sheet.chart.get("armscye"), sheet.rules > 3
    with sheet.step(
        "Edges, necks and armholes",
        "Fullness is shared between side and centre seams; above the underarm the centre runs upright.",
    ):
        drafts = [
            (name, _stations(sheet, name, quarters, more), top_of(sheet, name))
            for name, more in (("back", (-aside[0], -aside[1])), ("front", aside))
        ]

        def round_at(move: float) -> float:
            y = levels.underarm + move
            holes = [
                hole_of(sheet, name, top, Point(edges[1].lowered(levels.bust - y, flows=flows).underarm, y)).length
                for name, edges, top in drafts
            ]
            return sum(holes) - (takes(holes[1], holes[0], _dart_most(sheet)) if _cups(sheet) else 0.0)

        move = 0.0
        if school != "measured" and armscye is not None:
            low, high = (armscye + room for room in (AS_THE_ARM if school == "arm" else ROOM))
            now = round_at(0.0)
            if not low <= now <= high:
                move = _move(round_at, low + 0.3 if now < low else high - 0.3)
                way = "lowered" if move > 0 else "raised"
                sheet.note(
                    say(
                        f"The underarm is {way} by {{0}}: the armhole would have been {{1}} on an armscye of {{2u}}.",
                        abs(move),
                        now,
                        armscye,
                    )
                )
        moved = replace(levels, underarm=levels.underarm + move, bust=max(levels.bust, levels.underarm + move))
        room = levels.bust - moved.underarm
        back, front = (
            _panel(sheet, name, moved, (edges[0].lowered(room, flows=flows), edges[1].lowered(room, flows=flows)), top)
            for name, edges, top in drafts
        )
        sheet.sum("armhole", drawn(back.hole.length + front.hole.length, "armhole, front and back"))
    return (back, front), moved


def _move(length: Callable[[float], float], want: float) -> float:
    """How far the underarm is moved, cm, as far as it may be."""
    return solve_or_nearest(lambda move: length(move) - want, -MOVE_MOST, MOVE_MOST, near=0.002)


def _stations(sheet: Sheet, name: str, quarters: Quarters, aside: tuple[float, float]) -> tuple[Stations, Stations]:
    """Where the centre and the side edge stand. aside: what the panel holds more than a quarter at bust and waist, cm."""
    q, f = quarters, quarters.f
    upright = q.waist / 2 + aside[0] + f * (q.under - q.waist)
    shift = sheet.length("lacing").value / 2 if sheet.choice("opening_at") == f"centre_{name}" else 0.0
    centre = Stations(shift, upright - (q.waist / 2 + aside[0] + f * (q.bust - q.waist)) + shift,
        upright - (q.waist / 2 + aside[1]) + shift, -1.0)  # fmt: skip
    out = upright + q.waist / 2
    if sheet.rules > 3:  # no step at the centre back: both sides have what it would have taken
        comes = f * (q.bust - q.under)
        centre = replace(centre, bust=centre.underarm) if name == "back" else centre
        return centre, Stations(out + (1 - f) * (q.under - q.waist), out + (1 - f) * (q.bust - q.waist) + comes / 2, out, 1.0)
    return centre, Stations(out + (1 - f) * (q.under - q.waist), out + (1 - f) * (q.bust - q.waist), out, 1.0)


def _panel(sheet: Sheet, name: str, levels: Levels, edges: tuple[Stations, Stations], top: Top) -> Panel:
    centre, side = edges
    under = Point(side.underarm, levels.underarm)
    high = top.y
    if sheet.rules > 1 and name == "back":  # a wide neck that lies too flat at the centre could not run on over the shoulder
        high = max(high, top.strap.y + NECK_FALLS)
    start = Point(centre.underarm, min(high, levels.underarm - NECK_OVER_ARM))
    if name == "front":
        neck = front_neck(start, top.strap, top.way, sheet.choice("neck_shape"), neck_meets(sheet.rules))
    else:
        neck = back_neck(start, top.strap, top.way, neck_meets(sheet.rules))
    hole = hole_of(sheet, name, top, under)
    return Panel(
        name, start, top.strap, top.tip, shaped_edge(centre, levels, start), shaped_edge(side, levels, under), neck, hole
    )


def _table(panels: tuple[Panel, Panel]) -> Table:
    back, front = panels
    down = max(-panel.strap.y for panel in panels)
    left, right = -min(0.0, back.centre.end.x), back.side.end.x
    at = left + right + APART + front.side.end.x
    return Table({"back": as_drawn(left, down), "front": turned_over(at, down)})


def _guides(sheet: Sheet, panels: tuple[Panel, Panel], table: Table, levels: Levels) -> None:
    letters = {"back": "ABCD", "front": "EFGH"}
    with sheet.step(
        "Skirt", "From the waist straight on; along every line from the waist to the hem the same length, so the hem is an arc."
    ):
        for panel in panels:
            name = panel.name
            for title, point, letter in (
                ("Neck at the centre", panel.top, 0), ("Strap", panel.strap, 1), ("Shoulder tip", panel.tip, 2),
                    ("Underarm", panel.under, 3),
            ):  # fmt: skip
                sheet.point(f"{name}_{title.lower().replace(' ', '_')}", f"{name.capitalize()} {title.lower()}",
                    table.spot(name, point), letters[name][letter], piece=name, step=sheet.now - 1)  # fmt: skip
            for level, y in (("bust", levels.bust), ("waist", 0.0), ("hip", levels.hip)):
                if y > levels.ends - 0.5:
                    continue
                ends = [split_at(edge, y)[0].end for edge in (panel.centre, panel.side)]
                sheet.line(
                    f"{name}_{level}", level.capitalize(), table.path(name, Path.through(*ends)), role="balance",
                        kind="level", edge=level, piece=name,
                    figure=drawn(ends[1].x - ends[0].x, f"{name} {level}"), step=2 if level == "hip" else 1,
                )  # fmt: skip
        sheet.sum("ends higher at the edges", drawn(levels.length * (1 - math.cos(levels.flare)), "ends higher at the edges"))


def _cups(sheet: Sheet) -> bool:
    """Whether a cup may have a dart."""
    return sheet.rules > 2 and sheet.choice("cup") == "auto"


def _dart_most(sheet: Sheet) -> float:
    return MOST if sheet.rules > 3 else MOST_FIRST


def _holding(sheet: Sheet, panels: tuple[Panel, Panel], levels: Levels) -> tuple[Panel, Panel]:
    """The front with a dart in its armhole, where the cup is more than the seams hold."""
    back, front = panels
    take = takes(front.hole.length, back.hole.length, _dart_most(sheet))
    if not take or not _cups(sheet):
        return panels
    span = sheet.chart.get("bust_span")
    aside = (span if span is not None else SPAN_PART * sheet.measure("bust").value) / 2
    apex = Point(split_at(front.centre, levels.bust)[0].end.x + aside, levels.bust)
    found = darted(front.hole, apex, take)
    if found is None:
        return panels
    sheet.sum("front armhole longer than the back", drawn(front.hole.length - back.hole.length, "front armhole longer"))
    sheet.sum("a dart in it takes", drawn(found.dart.intake, "a dart in it takes"))
    sheet.note(
        say(
            "A dart of {0u} in the front armhole holds what the seams do not: look at it first in the toile.", found.dart.intake
        )
    )
    return back, replace(front, dart=found)


def _finish(sheet: Sheet, panels: tuple[Panel, Panel], table: Table, levels: Levels, quarters: Quarters) -> None:
    front = panels[1]
    sweep = 2 * sum(level_hem(panel.centre, panel.side, levels.length).length for panel in panels)
    gores, extra = gores_for(sheet, levels, sweep, front.side)
    pieces = [piece_of_panel(sheet, panel, levels, gores) for panel in panels]
    laid = [table.laid(piece) for piece in pieces]
    wide = max(piece.bounds[2] for piece in laid)
    with sheet.step("Panels", "Front and back, each cut twice; the hem as an arc, the corner at the waist rubbed round."):
        for piece in laid:
            show_lightly(sheet, piece, ("armhole", "shoulder", "neck"), sheet.now - 2)
            show_lightly(sheet, piece, (piece.middle, "side", "hem", f"{piece.middle}_gore", "side_gore"), sheet.now - 1)
            show_edges(sheet, piece, [edge.name for edge in piece.edges], TITLES)
        for number, piece in enumerate(extra):
            left, _, right, _ = piece.bounds
            at = wide + AXIS + (right - left) / 2 + number * (right - left + AXIS)
            table = table.with_piece(piece.name, as_drawn(at, laid[0].edge("hem").end.y - piece.edge("hem").end.y))
            pieces.append(piece)
            moved = table.laid(piece)
            show_edges(sheet, moved, [edge.name for edge in moved.edges], {})
        sheet.sum("hem sweep, whole round", drawn(sweep + sum(times(p) * p.edge("hem").length for p in extra), "hem sweep"))
    _hand_over(sheet, pieces, table, levels, quarters, gores)
    holes = len(pieces[0].holes) or len(pieces[1].holes)
    if holes:
        sheet.note(
            say(
                f"{holes} lacing holes on each side, {{0}} apart, the first {{1}} below the neck; on the left side all of "
                f"them {{2u}} lower, so that one lace runs in a zigzag.",
                HOLE_APART, HOLE_FIRST, HOLE_APART / 2,
            )
        )  # fmt: skip
    less = pieces[1].edge("shoulder").length - pieces[0].edge("shoulder").length
    if less > 0.1:
        sheet.note(
            say("The back strap is {0u} narrower, at its neck end, so that it does not slip: ease the front onto it.", less)
        )
    sheet.note(say("Plan two to four toiles: all the shaping is in the seams, and each of them moves the others."))


def _seams(pieces: list[Piece], gores: dict[str, float]) -> list[Seam]:
    by = {piece.name: piece for piece in pieces}
    less = by["back"].edge("shoulder").length - by["front"].edge("shoulder").length
    seams = [
        front_to_back("side", "Side seam"),
        front_to_back("shoulder", "Shoulder", less),
        *middle_seams([by["back"], by["front"]]),
    ]
    for edge in gores:
        for name in ("back", "front"):
            if edge == "side" or edge == f"centre_{name}":
                side = "right" if edge == "side" and name == "front" else "left"
                turned = (edge == "side") == (side == "left")
                title = f"Gore in the {edge.replace('_', ' ')}, {name}"
                seams.append(Seam(f"gore_{edge}_{name}", title, sewn(name, f"{edge}_gore"), sewn("gore", side, back=turned)))
    return seams


def _girths(sheet: Sheet, front: Piece, gap: float) -> list[Girth]:
    found = [
        Girth(name, name.capitalize(), sheet.measure(name).value, sheet.ease(name).value, least, 0.3, gap=gap)
        for name, least in (("bust", 4.0), ("waist", 1.5))
    ]
    for name, least in (("high_hip", HIGH_HIP_EASE), ("hip", 3.0)):
        if front.level(name) is not None:
            found.append(Girth(name, name.replace("_", " ").capitalize(), sheet.measure(name).value, None, least, 0.1))
    return found


def _hand_over(
    sheet: Sheet, pieces: list[Piece], table: Table, levels: Levels, quarters: Quarters, gores: dict[str, float]
) -> None:
    by = {piece.name: piece for piece in pieces}
    opened = sheet.choice("opening_at")
    gap = sheet.length("lacing").value if opened != "none" else 0.0
    widest = max(sheet.measure("hip").value, sheet.measure("bust").value)
    openings: tuple[Opening, ...] = ()
    reach = None
    if 4 * quarters.waist < widest:
        panel = by[opened.removeprefix("centre_")] if opened != "none" else by["back"]
        neck_to_waist = panel.edge(panel.middle).at_level(0.0) or 0.0
        openings = Opening.named(opened, neck_to_waist + sheet.length("opening_below").value)
        reach = OpensTo(neck_to_waist + levels.hip / 2)
    floor, armscye = sheet.chart.get("waist_floor"), sheet.chart.get("armscye")
    holes = max(len(by[name].holes) for name in ("back", "front"))
    across = math.hypot(gap + 2 * HOLE_IN, HOLE_APART / 2)
    lace = (say(f"A lace for {holes} holes on each side, about {{0u}}", 2 * holes * across + LACE_ENDS),) if holes else ()
    sheet.hand_over(
        pieces,
        table,
        seams=_seams(pieces, gores),
        openings=openings,
        demands=(
            *_girths(sheet, by["front"], gap),
            *upper_demands(by["back"], by["front"]),
            NeckOn(sheet.measure("neck").value, None),
            ArmholeOn(armscye, *(AS_THE_ARM if sheet.choice("underarm") == "arm" else ROOM)) if armscye is not None else None,
            FrontOver(FRONT_OVER),
            FrontInside(),
            reach,
            FloorClear(floor) if floor is not None else None,
        ),
        notions=lace,
    )


METHOD = register(
    Method(
        "gown.seam_shaped", "Seam-shaped gown", "Whole garments",
        "No darts and no waist seam: four panels take their shape in centre and side seams and flare to the floor.",
        (
            Need("neck", "where the side neck points lie"),
            Need("high_bust", "the width under the arms"),
            Need("bust", "the width at the bust"),
            Need("waist", "the width at the waist"),
            Need("hip", "how much the skirt must flare"),
            Need("waist_hip", "the height of the hip"),
            Need("waist_bust", "the height of the bust", instead="bust_depth"),
            Need("underarm_waist", "the height of the underarm", instead="armscye_depth"),
            Need("snp_waist_front", "how high the front shoulder lies"),
            Need("snp_waist_back", "how high the back shoulder lies"),
            Need("shoulder", "the length of the shoulder"),
            Need("shoulder_drop", "how much it falls"),
            Need("across_back", "how far the back armhole stands in"),
            Need("across_chest", "how far the front armhole stands in"),
            Need("waist_floor", "the length, unless another is set", "length"),
        ),
        OPTIONS, EASE, draw, rules=4, earlier=(1, 2, 3), mends=MENDS, has_armhole=True,
    )
)  # fmt: skip
