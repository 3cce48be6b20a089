"""The cup-wedge block: drawn for the high bust, then the lower armhole and the side are swung out about the chest point.

The angle is not looked up but computed from the bust difference. The side dart and the front waist dart take the cup up again.
"""

from __future__ import annotations

import math
from functools import partial

from widehem.core.drafting.bodice import (
    APART,
    DIP_MOST,
    ONE_DART_MOST,
    Half,
    angle_words,
    hand_over,
    piece_of,
    show_half,
    side_by_side,
)
from widehem.core.drafting.method import Method, register
from widehem.core.drafting.methods.bodice_cup_lower import (
    BLAME,
    least_dart,
    least_waist_dart,
    side_dart,
    small_lean,
    straight_on,
    swung,
    waist_of,
)
from widehem.core.drafting.methods.bodice_cup_side import TurnedBack, dip, waist_below, wide_enough
from widehem.core.drafting.methods.bodice_dart import rounded
from widehem.core.drafting.methods.bodice_frame import Frame, side_neck, upper_frame
from widehem.core.drafting.methods.bodice_measured import NEEDS
from widehem.core.drafting.methods.bodice_options import (
    BACK_SHOULDER,
    HOLLOW_BACK,
    HOLLOW_FRONT,
    LEVEL,
    NECK_DEPTH,
    NECK_SHAPE,
    OPENING,
)
from widehem.core.drafting.settled import Settled, by_measure, settle_armhole
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table
from widehem.core.drafting.upper import DOWN, Stretch, armhole
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.solve import solve_length
from widehem.core.pattern.inside import BalanceLine
from widehem.core.setting.option import Choice, Option
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import replace

ANGLE_MOST, DROP_LEAST = math.radians(40), 4.0
BUST_SLACK = 1.6
GAPE_MOST = 2.0  # cm
RISE_MOST = 4.5  # cm that the waist of a front rises to its side where no dart can be laid there
SMALL_CUP = 0.5  # cm: a front without a cup is so much shorter than the back
EASE = (
    Option("quarter", "Ease on each quarter", "length", 1.5, "at the high bust, nothing of it left at the side waist; {1.5} "
        "close, {2.5} easy, {3.2} roomy", 0.5, 6.0, 0.25, least=1.0),
    Option("waist", "Waist ease", "length", 3.0, "whole round, to which the ease above tapers away; to sit and to eat", -8.0, 20.0, 0.5, least=1.5),
    Option("across_back", "Across back ease", "length", 1.0, "whole width; to bring the arms forward", 0.0, 8.0, 0.25),
    Option("depth", "Armhole depth ease", "length", 2.0, "the armhole lies this far below the arm", 0.0, 6.0, 0.25),
)  # fmt: skip
TAPER = Option(
    "taper", "Ease down to the waist", "choice", "waist", "what is left there of the ease of the quarters",
    school=True, choices=(
        Choice("waist", "Tapers to the waist's own", "less at the waist than at the bust: a closer block, larger darts"),
        Choice("even", "As much as above", "the same ease all the way down"),
    ),
    before=((3, "even"),),
)  # fmt: skip
OPTIONS = (TAPER, LEVEL, BACK_SHOULDER, HOLLOW_BACK, HOLLOW_FRONT, NECK_DEPTH, NECK_SHAPE, OPENING)


def wedge_angle(aside: float, down: float, spare: float) -> float | None:
    """The angle (radians) that opens `spare` at a level `down` below the hinge and `aside` of it; None over 40 degrees."""

    def opens(angle: float) -> float:
        return aside * (math.cos(angle) - 1) + down * math.sin(angle)

    if spare <= 0:
        return 0.0
    return solve_length(opens, spare, 0.0, ANGLE_MOST)


def draw(sheet: Sheet) -> None:
    """The whole block, again while its armholes do not come out."""
    settle_armhole(
        sheet,
        partial(_draw, sheet),
        lowers=by_measure(sheet) and not sheet.set_by_hand("depth"),
        bust=((sheet.measure("bust") + sheet.ease("quarter") * 4).value, 0.95 * BUST_SLACK),
    )


def _draw(sheet: Sheet, settled: Settled) -> tuple[float, float]:
    """The whole block, step by step; gives back the lengths of both armholes, back and front, cm."""
    ease, high = sheet.ease("quarter"), sheet.measure("high_bust")
    quarter = (high / 4 + ease).called("quarter of the high bust with ease")
    board = side_by_side(2 * quarter.value + APART + 8)
    drop = _drop(sheet, quarter.value, ease.value, board, settled)
    frame = upper_frame(sheet, board, drop, settled)
    if quarter.value - max(frame.chest_back.x, frame.chest_front.x) < 1.5:
        raise CannotDraft(
            ("across_back", "across_chest", "high_bust"),
            say(
                "A quarter of high bust {0} leaves under {1} beside across back {2u}: read across back, across chest and "
                "high bust again.",
                high.value,
                1.5,
                frame.chest_back.x * 2,
            ),
        )
    spare = _spare(sheet, settled)
    angle = _wedge(sheet, frame, quarter, spare, board)
    back = _back(sheet, frame, quarter.value, ease.value, board)
    low = replace(frame, waist=frame.waist + drop.value)
    front, turned = _front(sheet, low, quarter.value, ease.value, angle, board, back.length("side"))
    if turned is None:
        side_dart(sheet, frame, back, front)
    else:
        with sheet.step(
            "Side dart",
            "Below its dart the side turned back about the bust point until it ends at the waist: closed it is one straight line.",
        ):
            sheet.sum("side dart", drawn(turned.mouth, "side dart"))
            sheet.sum("its angle, degrees", angle_words(turned.angle))
    _finish(sheet, frame, back, front, board, drop.value, turned)
    return back.length("armhole"), front.length("armhole")


def waist_quarter(sheet: Sheet) -> float:
    """A quarter of the waist with its ease: its own, or by the even school as much as at the high bust, cm."""
    own = sheet.ease("waist").value / 4 if sheet.choice("taper") == "waist" else sheet.ease("quarter").value
    return sheet.measure("waist").value / 4 + own


def _drop(sheet: Sheet, width: float, ease: float, board: Table, settled: Settled) -> Quantity:
    """How much of the front length belongs to the cup: what is over a front without one, and what would make the armhole gape.

    It hangs below the waist level and is taken by the side dart.
    """
    over = sheet.measure("snp_waist_front") - sheet.measure("snp_waist_back") + SMALL_CUP
    cup = (over if over > 0 else Quantity(0.0)).called("drop of the cup")
    rough = Sheet(sheet.chart, sheet.options, sheet.settings, sheet.ease_plan)
    frame = upper_frame(rough, board, cup, settled)
    _, _, tip, way = frame.upper_back()
    under, side = Point(width, frame.depth.value), Point(-ease, frame.waist - frame.depth.value)
    back = armhole(
        tip,
        way,
        frame.chest_back,
        DOWN,
        under,
        side,
        float(sheet.options["hollow_back"]),
        rounded=rounded(sheet, "hollow_back"),
    )
    front = armhole(
        frame.tip_front,
        frame.shoulder_way_front,
        frame.chest_front,
        DOWN,
        under,
        side,
        float(sheet.options["hollow_front"]),
        rounded=rounded(sheet, "hollow_front"),
    )
    angle = (
        wedge_angle(
            frame.bust_point.x - frame.chest_front.x, frame.bust_point.y - frame.chest_front.y, _spare(sheet, settled).value
        )
        or 0.0
    )
    gape = min(max(swung(front, angle).length - back.length, 0.0), GAPE_MOST)
    return (cup + drawn(gape, "gape of the armhole")).called("drop of the cup")


def _spare(sheet: Sheet, settled: Settled) -> Quantity:
    difference = (sheet.measure("bust") - sheet.measure("high_bust")) / 2
    if settled.cup and difference > 0:
        difference = difference - drawn(settled.cup, "what the side gives there")
    return difference.called("half the bust difference") if difference > 0 else Quantity(0.0, "half the bust difference")


def _wedge(sheet: Sheet, frame: Frame, quarter: Quantity, spare: Quantity, board: Table) -> float:
    hinge, point = frame.chest_front, frame.bust_point
    down, aside = point.y - hinge.y, point.x - hinge.x
    with sheet.step(
        "Wedge", "The hinge is the front chest point. The angle opens half the bust difference at the level of the bust point."
    ):
        if down < DROP_LEAST:
            raise CannotDraft(
                ("bust_depth", "armscye_depth", "shoulder_slope"),
                say(
                    "The bust point lies only {0} below the chest point, under {1u}: read bust depth and armscye depth again.",
                    down,
                    DROP_LEAST,
                ),
            )
        angle = wedge_angle(aside, down, spare.value)
        if angle is None:
            raise CannotDraft(
                ("bust", "high_bust", "bust_depth"),
                say(
                    "Half the bust difference {0} would swing the side over 40 degrees about a hinge {1u} above the bust: "
                    "read bust, high bust and bust depth again.",
                    spare.value,
                    down,
                ),
            )
        sheet.line(
            "front_bust",
            "Bust line",
            board.path("front", Path.through(Point(0, frame.depth.value), Point(quarter.value, frame.depth.value))),
            role="balance",
            kind="level",
            edge="bust",
            figure=quarter,
            piece="front",
        )
        sheet.line(
            "back_bust",
            "Bust line",
            board.path("back", Path.through(Point(0, frame.depth.value), Point(quarter.value, frame.depth.value))),
            role="balance",
            kind="level",
            edge="bust",
            figure=quarter,
            piece="back",
        )
        sheet.point("bust_point", "Bust point", board.spot("front", point), "BP", piece="front")
        sheet.line(
            "wedge_guide",
            "From the hinge to the bust level",
            board.path("front", Path.through(hinge, Point(hinge.x, point.y))),
            figure=drawn(down, "hinge to bust level"),
            piece="front",
        )
        sheet.sum("quarter with ease", quarter)
        sheet.sum("half the bust difference", spare)
        sheet.sum("hinge to bust level", drawn(down, "hinge to bust level"))
        sheet.sum("angle, degrees", angle_words(angle))
    return angle


def _back(sheet: Sheet, frame: Frame, width: float, ease: float, board: Table) -> Half:
    upper, gaps, tip, way = frame.upper_back()
    half = Half("back", Point(0, 0), side_neck(upper), tip, frame.chest_back, Point(width, frame.depth.value), Point(0, 0))
    tall = frame.waist - frame.depth.value
    target = waist_quarter(sheet)
    with sheet.step(
        "Back",
        "A quarter of the high bust and its ease; the side leans in by the ease. What the waist has too much goes into a dart.",
    ):
        hole = armhole(
            tip,
            way,
            half.chest,
            DOWN,
            half.under,
            Point(-ease, tall),
            float(sheet.options["hollow_back"]),
            rounded=rounded(sheet, "hollow_back"),
        )
        half.walk = (*upper, Stretch("armhole", hole))
        half.gaps.update(gaps)
        lean = small_lean(tall, ease, target)
        over = width - ease - target
        wide, high = width - ease, frame.depth.value + 1
        spots = [(wide / 2, high)]
        if sheet.rules > 2 and over > ONE_DART_MOST:
            spots = [(wide / 3, high), (wide * 2 / 3, high + 1.5)]
        if sheet.rules > 3 and over > 2 * ONE_DART_MOST:
            spots = [(wide * part / 4, high + part) for part in (1, 2, 3)]
        waist_of(half, frame, lean, over, spots, least_waist_dart(sheet))
        sheet.line(
            "back_armhole_guide",
            "Back armhole",
            board.path("back", hole),
            figure=drawn(hole.length, "back armhole"),
            piece="back",
        )
        sheet.sum("back armhole", drawn(hole.length, "back armhole"))
        sheet.sum("back dart", drawn(max(over, 0.0), "back dart"))
    return half


def _front(
    sheet: Sheet, frame: Frame, width: float, ease: float, angle: float, board: Table, long: float
) -> tuple[Half, TurnedBack | None]:
    """The front swung out for the cup, and its side where it is turned back below a dart. long: the side of the back, cm."""
    hinge, tall = frame.chest_front, frame.waist - frame.depth.value
    small, swing = Point(width, frame.depth.value), turn(hinge, -angle)
    under = small.moved(swing)
    side_way = Point(-ease, tall).moved(turn(Point(0, 0), -angle))
    with sheet.step(
        "Front swung out", "Lower armhole, underarm and side turn about the hinge; the side runs on to the waist level."
    ):
        if under.y > frame.waist - 5 or side_way.y <= 0:
            raise CannotDraft(
                ("bust", "high_bust", "armscye_depth"),
                say(
                    "The underarm swings down to {0}, within 5 of the waist at {1u}: read bust, high bust and armscye depth "
                    "again.",
                    under.y,
                    frame.waist,
                ),
            )
        hollow = float(sheet.options["hollow_front"])
        straight = armhole(
            frame.tip_front,
            frame.shoulder_way_front,
            hinge,
            DOWN,
            small,
            Point(-ease, tall),
            hollow,
            rounded=rounded(sheet, "hollow_front"),
        )
        hole = swung(straight, angle)
        half = Half("front", frame.pit, frame.snp_front, frame.tip_front, hinge, under, Point(0, 0))
        shoulder = Path.through(frame.snp_front, frame.tip_front)
        half.walk = (Stretch("neck", frame.neck_front), Stretch("shoulder", shoulder), Stretch("armhole", hole))
        half.bust_point = frame.bust_point
        target = waist_quarter(sheet)
        turned = (
            wide_enough(under, side_way, frame.bust_point, long, frame.waist, target, lowest=sheet.rules > 3)
            if sheet.rules > 1
            else None
        )
        if turned is not None and turned.mouth < least_dart(sheet):  # too little for a dart: the side leans as far all the same
            side_way = (turned.upper.end - turned.upper.start).unit() if sheet.rules > 2 else side_way
            turned = None
        if turned is None:
            down = small_lean(tall, ease, target).down
            if sheet.rules > 1:  # by how the side leans in the end, whatever the waist lacks added
                fall = frame.waist - under.y
                lacks = min(under.x + side_way.x / side_way.y * fall - target, 0.0)
                out = side_way.x / side_way.y * fall - lacks
                equal = math.sqrt(max(long * long - out * out, 0.0)) - fall  # where it would be as long as the back
                flat = -(RISE_MOST if sheet.rules > 3 else DIP_MOST) if sheet.rules > 2 else dip(Point(out, fall), target)
                down = min(max(equal, flat), down)
            over = straight_on(half, frame, side_way, target, down, least_waist_dart(sheet))
        else:
            over = waist_below(half, turned, frame.waist, target, BLAME, even=sheet.rules > 4)
        sheet.line(
            "front_armhole_guide",
            "Front armhole",
            board.path("front", hole),
            figure=drawn(hole.length, "front armhole"),
            piece="front",
        )
        side = [stretch.path for stretch in half.walk if stretch.edge == "side"]
        for number, path in enumerate(side, 1):
            name = f"front_side_guide_{number}" if number > 1 else "front_side_guide"
            sheet.line(name, "Side, swung out", board.path("front", path), piece="front")
        sheet.sum("front armhole", drawn(hole.length, "front armhole"))
        sheet.sum("side leans out, degrees", angle_words(math.atan2(side_way.x, side_way.y)))
        sheet.sum("front waist dart", drawn(max(over, 0.0), "front waist dart"))
    return half, turned


def _finish(sheet: Sheet, frame: Frame, back: Half, front: Half, board: Table, drop: float, turned: TurnedBack | None) -> None:
    pieces = []
    for half, lower in ((back, 0.0), (front, drop)):
        bust = BalanceLine.across("bust", frame.depth.value, notched=False)
        if half is front:  # the cup hangs lower: it is measured at the bust point, over the shut dart of the side
            y, x = max(frame.bust_point.y, front.under.y), frame.bust_point.x
            aside = Point(x + 1, y)
            if turned is not None:  # below the dart, with which it was turned back
                y = frame.bust_point.y
                aside = Point(x + 1, y).moved(turn(frame.bust_point, turned.angle))
            bust = BalanceLine("bust", ((Point(0, y), Point(x, y)), (Point(x, y), aside)), notched=False)
        levels = bust, BalanceLine.across("waist", frame.waist + lower, notched=False)
        pieces.append(piece_of(sheet, half, levels, frame.waist + lower, f"Bodice {half.name}"))
    with sheet.step("Name the pieces", "Half a back and half a front, no allowances."):
        sheet.rub_out(*(mark.name for mark in sheet.marks if mark.role == "construction" and mark.kind == "line"))
        for piece in pieces:
            show_half(sheet, piece.moved(board.of(piece.name)), ("waist", "side", "armhole", "shoulder", "neck", piece.middle))
        sheet.sum("neck, whole round", drawn(2 * sum(p.edge("neck").length for p in pieces), "neck, whole round"))
        sheet.sum("armhole", drawn(sum(p.edge("armhole").length for p in pieces), "armhole"))
    ease = sheet.ease("quarter")
    plan = {
        "bust": (ease * 4).called("ease"),
        "waist": sheet.ease("waist") if sheet.choice("taper") == "waist" else (ease * 4).called("ease"),
    }
    longer = back.length("side") - front.length("side")
    hand_over(
        sheet,
        board,
        pieces[0],
        pieces[1],
        frame.shoulder_ease,
        plan,
        {"bust": 4.0, "waist": 1.5},
        side_ease=min(longer, 0.0),
        bust_slack=BUST_SLACK,
    )


METHOD = register(
    Method(
        "bodice.cup_wedge",
        "Cup-wedge bodice",
        "Bodices",
        "Drawn for the high bust, the side swung out for the cup by a computed angle; a side dart and a waist dart take it "
        "up. A block of the full bust would be too wide in neck and shoulder on a fuller cup.",
        tuple(need for need in NEEDS),
        OPTIONS,
        EASE,
        draw,
        rules=5,
        earlier=(1, 2, 3, 4),
        has_armhole=True,
    )
)
