"""The plain bodice: no darts, everything measured. For loose tops and smocks; the bust stays as a soft fold at the armhole."""

from __future__ import annotations

import math
from functools import partial

from widehem.core.drafting.armhole_level import armhole_level
from widehem.core.drafting.bodice import APART, Half, Lean, draw_waist, hand_over, piece_of, show_half, side_by_side
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.methods.bodice_frame import refuse_flat_neck
from widehem.core.drafting.methods.bodice_plain_options import EASE, OPTIONS
from widehem.core.drafting.settled import Settled, by_measure, settle_armhole
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table
from widehem.core.drafting.upper import (
    DOWN,
    HOLLOW,
    Stretch,
    armhole,
    back_neck,
    deep_enough,
    front_neck,
    high_enough,
    neck_meets,
)
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.held import NotchAt
from widehem.core.pattern.edge import Notch
from widehem.core.pattern.garment import EdgeRef
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.setting.option import Mend
from widehem.core.setting.quantity import Quantity, drawn, smaller_of
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record, replace

TIP_LEAST, TIP_MOST = 1.0, 7.0
NECK_OFF, FRONT_OVER, FRONT_OVER_FIRST = 1.5, 1.0, 2.0
MOVE_MOST = 0.7  # cm
CHEST_ROOM = 0.125  # of a quarter: so far inside the side the chest point lies at least
EASED_BELOW = 2.0  # cm below the underarm, where a zone that is eased in begins


@record(frozen=True)
class _Top:
    """Shoulder and neck of one half. rise: side neck point above the nape level."""

    tip: Point
    snp: Point
    rise: Quantity


def draw(sheet: Sheet) -> None:
    """The whole bodice, again while its armhole does not come out."""
    by_hand = sheet.options["below"] != sheet.settings["below"].default
    settle_armhole(sheet, partial(_draw, sheet), lowers=by_measure(sheet) and not by_hand, forwards=False)


def _draw(sheet: Sheet, settled: Settled) -> tuple[float, float]:
    """The whole bodice, step by step; gives back the lengths of both armholes, back and front, cm."""
    nape_waist, ease = sheet.measure("nape_waist"), sheet.ease("quarter")
    width = (sheet.measure("bust") / 4 + ease).called("quarter of the bust with ease")
    board = side_by_side(2 * width.value + APART)
    waist = nape_waist.value
    level = _levels(sheet, width, board, waist, settled)
    lean = _side(sheet, width, ease, waist, level.value)
    back_top, front_top = _shoulders(sheet, board, waist)
    across = width.value, level.value, waist
    back = _half(sheet, "back", back_top, back_top, across, lean, board, (0.0, 0.0))
    moves = _moves(sheet, front_top, back.length("armhole"), across, lean)
    front = _half(sheet, "front", front_top, back_top, across, lean, board, moves)
    _finish(sheet, back, front, board, waist, lean, moves)
    return back.length("armhole"), front.length("armhole")


def _moves(sheet: Sheet, top: _Top, back: float, across: tuple[float, float, float], lean: Lean) -> tuple[float, float]:
    """How much is folded out across the front chest, and how much its underarm is raised, cm: as set; and by today's rules as
    much as the front armhole is longer than the back, within what either may do."""
    found = sheet.length("fold_chest").value, sheet.length("raise_underarm").value
    if sheet.choice("trued_hole") == "set":
        return found
    over = _hole(sheet, "front", top, across, lean, found).length - back
    folded = min(max(over, 0.0), MOVE_MOST - found[0])
    return found[0] + folded, found[1] + min(max(over - folded, 0.0), MOVE_MOST - found[1])


def _chest_x(sheet: Sheet, name: str, top: _Top, width: float) -> float:
    """How far from the centre the chest point lies, cm: inside the tip by the hollow, and where that is not set by hand so far
    inside the side that the armhole can be sewn."""
    hollow = sheet.length(f"hollow_{name}").value
    by_hand = hollow != sheet.settings[f"hollow_{name}"].default
    x = top.tip.x - hollow
    return x if by_hand or sheet.rules < 4 else min(x, width - CHEST_ROOM * width)


def _hole(
    sheet: Sheet, name: str, top: _Top, across: tuple[float, float, float], lean: Lean, moves: tuple[float, float]
) -> Path:
    """The armhole of a half. moves: folded out across the chest, and the underarm raised, cm."""
    width, level, waist = across
    tip, snp = top.tip + Point(0, moves[0]), top.snp + Point(0, moves[0])
    chest = Point(_chest_x(sheet, name, top, width), (tip.y + level) / 2)
    under = Point(width, level - moves[1])
    return armhole(
        tip, (tip - snp).unit(), chest, DOWN, under, Point(-lean.side, waist - level), HOLLOW[name], rounded=sheet.rules - 1
    )


def _levels(sheet: Sheet, width: Quantity, board: Table, waist: float, settled: Settled) -> Quantity:
    with sheet.step(
        "Levels and widths",
        "Draw both centres down to the waist and square the bust line across; each quarter of the bust gets the same ease.",
    ):
        school = sheet.choice("level")
        below = 0.0 if school == "half" else sheet.length("below")  # half the back length has its ease in it
        level = armhole_level(sheet, school) + below
        if settled.lowered:
            level = level + drawn(settled.lowered, "lowered for the arm")
        level = level.called("bust line")
        if level.value > waist - 6:
            raise CannotDraft(
                ("armscye_depth", "nape_waist"),
                say(
                    "The bust line at {0} lies within 6 of the waist at {1u}: read armscye depth and nape to waist again.",
                    level.value,
                    waist,
                ),
            )
        for name, letters in (("back", "AB"), ("front", "EF")):
            sheet.line(
                f"{name}_centre_guide",
                f"Centre {name}",
                board.path(name, Path.through(Point(0, 0), Point(0, waist))),
                piece=name,
            )
            line = Path.through(Point(0, level.value), Point(width.value, level.value))
            sheet.line(
                f"{name}_bust",
                "Bust line",
                board.path(name, line),
                role="balance",
                kind="level",
                edge="bust",
                figure=width,
                piece=name,
            )
            sheet.point(f"{name}_waist", f"Centre {name} waist", board.spot(name, Point(0, waist)), letters[1], piece=name)
        sheet.point("nape", "Nape", board.spot("back", Point(0, 0)), "A", piece="back")
        sheet.sum("bust line", level)
        sheet.sum("quarter of the bust", width)
    return level


def _side(sheet: Sheet, width: Quantity, ease: Quantity, waist: float, level: float) -> Lean:
    with sheet.step(
        "Side seams", "Halfway between straight down and the waist mark: that is the room a bodice without darts needs."
    ):
        mark = (sheet.measure("waist") / 4 + ease).called("quarter of the waist")
        part = float(sheet.options["shaping"]) / 100
        comes_in = ((width - mark) * part).called("side comes in")
        sheet.sum("quarter of the waist", mark)
        sheet.sum("side comes in", comes_in)
        slant = comes_in.value / (waist - level)
    return Lean(comes_in.value, 0.0, 0, max(-1.2, min(1.2, 0.5 * slant * width.value)))


def _shoulders(sheet: Sheet, board: Table, waist: float) -> tuple[_Top, _Top]:
    across, shoulder, nape_waist = sheet.measure("across_shoulders"), sheet.measure("shoulder"), sheet.measure("nape_waist")
    rise = (sheet.measure("snp_waist_back") - nape_waist).called("back rises")
    if sheet.rules > 2:
        refuse_flat_neck(sheet, rise.value)
    with sheet.step(
        "Shoulders",
        "Half the width across shoulders, squared down; the slope measured from the waist meets it at the tip. The side neck "
        "point lies the shoulder's length from there.",
    ):
        half = (across / 2).called("half across shoulders")
        down = _tip_height(sheet, half.value, rise.value, waist)
        front_whole = (sheet.measure("snp_waist_front") - nape_waist).called("front rises")
        most = FRONT_OVER if sheet.rules > 1 else FRONT_OVER_FIRST
        front_rise = smaller_of(front_whole, rise + most).called("front rises")
        if front_whole > rise + most:
            lost = front_whole.value - front_rise.value
            sheet.note(
                say(
                    "The front would rise {0} more than the back; {1u} of it is given up here, or the shoulder gets steep "
                    "and the neck wide. A bust dart is wanted: the measured bodice has one.",
                    front_whole.value - rise.value,
                    lost,
                )
            )
        tops = []
        for name, x, up in (
            ("back", half, rise),
            ("front", (half - sheet.length("narrower")).called("half front across"), front_rise),
        ):
            tip = Point(x.value, down)
            below = tip.y + up.value
            if below >= shoulder.value:
                raise CannotDraft(
                    ("shoulder", "shoulder_slope", "across_shoulders"),
                    say(
                        "The shoulder tip lies {0} below the side neck point, no less than the shoulder {1u} is long: read "
                        "shoulder and shoulder slope again.",
                        below,
                        shoulder.value,
                    ),
                )
            snp = Point(tip.x - math.sqrt(shoulder.value**2 - below**2), -up.value)
            if snp.x < 1:
                raise CannotDraft(
                    ("shoulder", "across_shoulders"),
                    say(
                        "The shoulder {0} reaches past the centre from a tip at {1u}: read shoulder and across shoulders "
                        "again.",
                        shoulder.value,
                        tip.x,
                    ),
                )
            expected = sheet.measure("neck").value / 5 + 0.5
            if name == "back" and abs(snp.x - expected) > NECK_OFF:
                sheet.note(
                    say(
                        "The side neck point comes out {0} from the centre; by the neck it would be {1u}. Read shoulder and "
                        "across shoulders again.",
                        snp.x,
                        expected,
                    )
                )
            sheet.line(
                f"{name}_shoulder_guide",
                f"{name.capitalize()} shoulder",
                board.path(name, Path.through(snp, tip)),
                figure=shoulder,
                piece=name,
            )
            sheet.point(
                f"{name}_snp",
                f"{name.capitalize()} side neck point",
                board.spot(name, snp),
                "C" if name == "back" else "D",
                piece=name,
            )
            sheet.point(
                f"{name}_tip",
                f"{name.capitalize()} shoulder tip",
                board.spot(name, tip),
                "T" if name == "back" else "S",
                figure=x,
                piece=name,
            )
            sheet.sum(x.name, x)
            sheet.sum(f"{name} rises", up)
            tops.append(_Top(tip, snp, up))
    return tops[0], tops[1]


def _tip_height(sheet: Sheet, half: float, rise: float, waist: float) -> float:
    """How far below the nape level the shoulder tip lies, cm."""
    slope = sheet.chart.get("shoulder_slope")
    if slope is None:
        drop = sheet.chart.get("shoulder_drop") or 0.0
        return drop - rise
    if slope <= half:
        raise CannotDraft(
            ("shoulder_slope", "across_shoulders"),
            say("Shoulder slope {0} does not reach half across shoulders {1u}: read both again.", slope, half),
        )
    down = waist - math.sqrt(slope**2 - half**2)
    if not TIP_LEAST <= down <= TIP_MOST:
        raise CannotDraft(
            ("shoulder_slope", "across_shoulders", "nape_waist"),
            say("By shoulder slope {0} the tip lies {1} below the nape; 1 to 7 is usual: read shoulder slope, across "
                "shoulders and nape to waist again.".replace("1 to 7", "{2} to {3u}"), slope, down, TIP_LEAST, TIP_MOST),
        )  # fmt: skip
    return down


def _half(
    sheet: Sheet, name: str, top: _Top, back_top: _Top, across: tuple[float, float, float], lean: Lean, board: Table,
    moves: tuple[float, float],
) -> Half:  # fmt: skip
    width, level, waist = across
    hollow, (folded, raised) = sheet.length(f"hollow_{name}"), moves
    tip, snp = top.tip + Point(0, folded), top.snp + Point(0, folded)
    way = (tip - snp).unit()
    under = Point(width, level - raised)
    chest = Point(_chest_x(sheet, name, top, width), (tip.y + level) / 2)
    if chest.x > width - 1 or chest.y < tip.y + 2:
        raise CannotDraft(
            ("across_shoulders", "bust", "armscye_depth"),
            say(
                "Half across shoulders {0} leaves no armhole on a quarter of {1u}: read across shoulders, bust and armscye "
                "depth again, or give more ease.",
                top.tip.x,
                width,
            ),
        )
    with sheet.step(
        f"{name.capitalize()} neck and armhole",
        "Straight down from the tip to the bust line; the middle of that guide, moved in by the hollow, is the chest point. "
        "Both curves run through it.",
    ):
        deep, shape, meets = sheet.length("neck_depth"), sheet.choice("neck_shape"), neck_meets(sheet.rules)
        centre_top = Point(0.0, 0.0)
        if name == "front":
            back_way = (back_top.tip - back_top.snp).unit()
            behind = back_neck(centre_top, back_top.snp, back_way, meets).length
            whole = sheet.measure("neck").value
            centre_top = deep_enough(Point(0.0, snp.y + deep.value), snp, way, behind, whole, shape, meets)
            if sheet.rules > 1 and isinstance(sheet.options["neck_depth"], Quantity):
                centre_top = high_enough(centre_top, snp, way, behind, whole, shape, meets)
                sheet.options["neck_depth"] = drawn(centre_top.y - snp.y, "front neck depth")
        curve = partial(back_neck, meets=meets) if name == "back" else partial(front_neck, shape=shape, meets=meets)
        neck = curve(centre_top, snp, way)
        lean_out = Lean(lean.side, 0.0, 0, lean.down)
        hole = _hole(sheet, name, top, across, lean, moves)
        sheet.point(
            f"{name}_chest",
            f"{name.capitalize()} chest point",
            board.spot(name, chest),
            "K" if name == "back" else "N",
            piece=name,
        )
        sheet.line(
            f"{name}_armhole_guide",
            f"{name.capitalize()} armhole",
            board.path(name, hole),
            figure=drawn(hole.length, f"{name} armhole"),
            piece=name,
        )
        sheet.line(
            f"{name}_neck_guide",
            f"{name.capitalize()} neck",
            board.path(name, neck),
            figure=drawn(neck.length, f"{name} neck"),
            piece=name,
        )
        sheet.sum("hollow", hollow)
        sheet.sum(f"{name} neck", drawn(neck.length, f"{name} neck"))
        sheet.sum(f"{name} armhole", drawn(hole.length, f"{name} armhole"))
    half = Half(name, centre_top, snp, tip, chest, under, Point(0, 0))
    half.walk = (Stretch("neck", neck), Stretch("shoulder", Path.through(snp, tip)), Stretch("armhole", hole))
    draw_waist(half, waist, lean_out, [], ("waist", "bust"))
    return half


def _with_eased_zone(pieces: list[Piece]) -> tuple[list[Piece], list[Demand]]:
    """Both sides with a notch where what is eased into them begins, a little below the underarm, and where it ends, midway to
    the waist, and what holds them there. Both run from the waist up."""
    midway = min(piece.edge("side").length for piece in pieces) / 2
    found, held = list[Piece](), list[Demand]()
    for piece in pieces:
        side = piece.edge("side")
        spots = {"lower ease": midway, "upper ease": side.length - EASED_BELOW}
        notches = tuple(Notch(name, along) for name, along in spots.items())
        found.append(piece.with_edge(replace(side, notches=notches)))
        held += [NotchAt(EdgeRef(piece.name, "side"), name, 1, along) for name, along in spots.items()]
    return found, held


def _finish(sheet: Sheet, back: Half, front: Half, board: Table, waist: float, lean: Lean, moves: tuple[float, float]) -> None:
    low = BalanceLine.across("waist", waist, notched=False)
    pieces = [
        piece_of(sheet, half, (BalanceLine.across("bust", half.under.y, notched=False), low), waist, f"Bodice {half.name}")
        for half in (back, front)
    ]
    held: list[Demand] = []
    marked = sheet.rules > 2 and moves[1] > 0
    if marked:
        pieces, held = _with_eased_zone(pieces)
    with sheet.step("Name the pieces", "Half a back and half a front, no allowances."):
        sheet.rub_out(*(mark.name for mark in sheet.marks if mark.role == "construction" and mark.kind == "line"))
        for piece in pieces:
            show_half(sheet, piece.moved(board.of(piece.name)), ("waist", "side", "armhole", "shoulder", "neck", piece.middle))
        sheet.sum("neck, whole round", drawn(2 * sum(p.edge("neck").length for p in pieces), "neck, whole round"))
        sheet.sum("armhole", drawn(sum(p.edge("armhole").length for p in pieces), "armhole"))
    folded, raised = moves
    if folded:
        sheet.note(
            say("The centre front is {0u} shorter than the centre back now: give it back at the hem if it shows.", folded)
        )
    if raised:
        sheet.note(
            say(
                "Ease the {0u} the front side is longer into the back side seam, between its two notches."
                if marked
                else "Ease the {0u} the front side is longer into the back side seam, between the bust line and midway to the "
                "waist.",
                raised,
            )
        )
    quarter = sheet.ease("quarter")
    whole_waist = 4 * (sheet.measure("bust") / 4 + quarter) - 4 * lean.side - sheet.measure("waist")
    plan = {"bust": (quarter * 4).called("ease"), "waist": whole_waist.called("ease")}
    hand_over(sheet, board, pieces[0], pieces[1], 0.0, plan, {"bust": 4.0, "waist": 1.5}, side_ease=-raised, more=held)


METHOD = register(
    Method(
        "bodice.plain",
        "Plain bodice",
        "Bodices",
        "No darts: for loose tops, smocks and shirts. The bust stays as a soft fold at the armhole; some hold that a woven "
        "bodice cannot fit so, and a close one cannot.",
        (
            Need("neck", "the depth of the neck"),
            Need("bust", "the width of the pieces"),
            Need("waist", "the shape of the side seam"),
            Need("nape_waist", "the height of the waist line"),
            Need("armscye_depth", "the height of the bust line"),
            Need("snp_waist_back", "how high the back shoulder rises"),
            Need("snp_waist_front", "how high the front shoulder rises"),
            Need("shoulder", "the length of the shoulder"),
            Need("across_shoulders", "where the shoulder tips lie"),
            Need("shoulder_slope", "how low the shoulder tips lie", instead="shoulder_drop"),
        ),
        OPTIONS,
        EASE,
        draw,
        rules=4,
        earlier=(1, 2, 3),
        mends={
            "armhole.balance": (Mend("True it as far as may be, across the chest and at the underarm", "trued_hole", "needed"),)
        },
        has_armhole=True,
    )
)
