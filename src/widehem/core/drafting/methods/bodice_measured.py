"""The darted bodice from measures: the upper front is drawn for the high bust with its dart shut, then opened.

Turning the outer part about the bust point until the chest point has moved out by half the bust difference gives the bust
dart its angle; it may then lie anywhere. The proportional bodice is the same draft on a body out of a figure table.
"""

from __future__ import annotations

import math
from functools import partial

from widehem.core.drafting.bodice import (
    APART,
    BUST_DART,
    GIRTH_SLACK,
    SHORT,
    Half,
    Lean,
    angle_words,
    draw_waist,
    hand_over,
    piece_of,
    share_waist,
    show_half,
    side_by_side,
    side_waist,
)
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.methods.bodice_dart import (
    angle_by_school,
    balanced_angle,
    computed_angle,
    front_armhole,
    halved_angle,
    refuse_turned,
    rounded,
    turned,
)
from widehem.core.drafting.methods.bodice_frame import Frame, refuse_frame, side_neck, upper_frame
from widehem.core.drafting.methods.bodice_options import DARTED, EASE
from widehem.core.drafting.methods.bodice_place import placed
from widehem.core.drafting.settled import Settled, by_measure, settle_armhole
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table
from widehem.core.drafting.upper import DOWN, Gap, Stretch, armhole
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.checks.upper import SideLeans
from widehem.core.pattern.inside import BalanceLine
from widehem.core.setting.option import Mend
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record

UNDER_BUST_LINE = 0.5  # cm that a front waist dart ends below the bust line at least
MOUTH_LEAST, ANGLE_MOST = 1.0, math.radians(40)
LEAST = {"bust": 4.0, "waist": 1.5}


@record(frozen=True)
class Widths:
    """Half widths at the bust line, cm. strip: the room under the arm."""

    whole: Quantity
    strip: Quantity
    back: Quantity
    front: Quantity


def draw(sheet: Sheet) -> None:
    """The whole bodice, again while its armholes do not come out."""
    settle_armhole(
        sheet,
        partial(_draw, sheet),
        lowers=by_measure(sheet) and not sheet.set_by_hand("depth"),
        bust=((sheet.measure("bust") + sheet.ease("bust")).value, GIRTH_SLACK / 2),
    )


def _draw(sheet: Sheet, settled: Settled) -> tuple[float, float]:
    """The whole bodice, step by step; gives back the lengths of both armholes, back and front, cm."""
    bust, waist = sheet.measure("bust"), sheet.measure("waist")
    whole = ((bust + sheet.ease("bust")) / 2).called("half the bust with ease")
    board = side_by_side(whole.value + APART)
    difference = (bust - sheet.measure("high_bust")) / 2
    spare = difference.called("half the bust difference") if difference > 0 else Quantity(0.0, "half the bust difference")
    if settled.cup and spare:
        spare = (spare - drawn(settled.cup, "what the turned chest gives")).called("half the bust difference")
    frame = upper_frame(sheet, board, settled=settled)
    widths = _widths(sheet, frame, whole, spare, board)
    refuse_frame(sheet, frame, widths.strip)
    loss = whole - (waist + sheet.ease("waist")) / 2
    lean = share_waist(
        loss.value,
        sheet.choice("waist_darts"),
        whole.value / 2 - loss.value / 2,
        frame.waist - frame.depth.value,
        lets_in=sheet.rules > 3,
    )
    back = _back(frame, widths, lean, sheet)
    front_shut = Half(
        "front",
        frame.pit,
        frame.snp_front,
        frame.tip_front,
        frame.chest_front,
        Point(widths.front.value, frame.depth.value),
        Point(0, 0),
    )
    opened = _angle(sheet, frame, front_shut, back, spare.value, lean, board)
    front = _front(sheet, frame, front_shut, opened, lean)
    _balance_step(sheet, frame, back, front, board)
    _waist_step(sheet, frame, back, front, lean, loss, board)
    finish(sheet, frame, back, front, opened, board)
    return back.length("armhole"), front.length("armhole")


def _widths(sheet: Sheet, frame: Frame, whole: Quantity, spare: Quantity, board: Table) -> Widths:
    back_x, front_x = frame.chest_back_x, frame.chest_front_x
    with sheet.step(
        "Bust line",
        "What across back and across chest leave of the half bust, drawn for the high bust, is the strip under the arm. The "
        "side seam hangs from its middle.",
    ):
        strip = (whole - spare - back_x - front_x).called("strip under the arm")
        sheet.sum("strip", strip)
        if sheet.options.get("side_seam") == "measured" and sheet.chart.get("bust_front") is not None:
            front = (sheet.measure("bust_front") / 2 + sheet.ease("bust") / 4).called("front width")
            back = (whole - front).called("back width")
            sheet.note(say("The side seam sits where it was measured; front and back then balance less surely."))
        else:
            back = (back_x + strip / 2).called("back width")
            front = (whole - back).called("front width")
        y = frame.depth.value
        for name, width in (("back", back), ("front", front)):
            a, b = board.spot(name, Point(0, y)), board.spot(name, Point(width.value, y))
            sheet.line(
                f"{name}_bust",
                "Bust line",
                Path.through(a, b),
                role="balance",
                figure=width,
                kind="level",
                edge="bust",
                piece=name,
            )
            sheet.point(
                f"{name}_underarm", f"{name.capitalize()} underarm", b, "U" if name == "back" else "V", figure=width, piece=name
            )
            sheet.sum(f"{name} width", width)
    return Widths(whole, strip, back, front)


def _side_way(half: Half, frame: Frame, lean: Lean) -> Point:
    return side_waist(half.under, frame.waist, lean.side, lean.down) - half.under


def _back(frame: Frame, widths: Widths, lean: Lean, sheet: Sheet) -> Half:
    upper, gaps, tip, way = frame.upper_back()
    half = Half(
        "back", Point(0, 0), side_neck(upper), tip, frame.chest_back, Point(widths.back.value, frame.depth.value), Point(0, 0)
    )
    hole = armhole(
        tip,
        way,
        half.chest,
        DOWN,
        half.under,
        _side_way(half, frame, lean),
        _number(sheet, "hollow_back"),
        rounded=rounded(sheet, "hollow_back"),
    )
    half.walk = (*upper, Stretch("armhole", hole))
    half.gaps.update(gaps)
    return half


def _number(sheet: Sheet, code: str) -> float:
    return float(sheet.options[code])


@record(frozen=True)
class Opened:
    """The bust dart's angle, radians: what the bust asked for, and what balance added."""

    angle: float
    asked: float
    added: float


def _angle(sheet: Sheet, frame: Frame, shut: Half, back: Half, spare: float, lean: Lean, board: Table) -> Opened:
    """How far the bust dart opens: by the bust difference, or by a school, then by the balance of the armholes."""
    point, amount = frame.bust_point, sheet.choice("dart_amount")
    reach = frame.shoulder_middle.to(point)
    with sheet.step(
        "Bust dart",
        "Turn the outer part about the bust point until the chest point has moved out by half the bust difference.",
    ):
        asked = computed_angle(frame, spare)
        if amount != "computed":
            computed_mouth = 2 * reach * math.sin(asked / 2)
            asked = angle_by_school(sheet, amount, reach)
            sheet.note(
                say(
                    "By this school the dart is {0} wide at the shoulder; computed for this body it is {1u}.",
                    2 * reach * math.sin(asked / 2),
                    computed_mouth,
                )
            )
        hollow, side = _number(sheet, "hollow_front"), _side_way(shut, frame, lean)
        want = back.length("armhole")
        more = rounded(sheet, "hollow_front")

        def hole_length(angle: float) -> float:
            return front_armhole(frame, shut.under, side, angle, hollow, rounded=more).length

        by_search = balanced_angle if sheet.rules > 1 else halved_angle
        angle = asked if amount != "computed" else by_search(hole_length, want, asked)
        if 2 * reach * math.sin(angle / 2) < MOUTH_LEAST:
            asked = angle = 0.0
        if angle > ANGLE_MOST:
            raise CannotDraft(
                ("bust", "high_bust", "bust_depth"),
                say(f"The bust dart would open {math.degrees(angle):.0f} degrees, over 40: bust {{0}}, high bust {{1}} or "
                    f"bust depth {{2u}} was misread.",
                    *(sheet.measure(code).value for code in ("bust", "high_bust", "bust_depth"))),
            )  # fmt: skip
        refuse_turned(sheet, frame, shut, angle)
        sheet.point("bust_point", "Bust point", board.spot("front", point), "BP", piece="front")
        middle, tip, chest = turned(frame, angle)
        if angle:
            sheet.rub_out("front_shoulder_guide")
            for name, title, way in (
                ("dart_inner_guide", "Inner leg", Path.through(frame.shoulder_middle, point)),
                    ("dart_outer_guide", "Outer leg", Path.through(point, middle)),
                ("front_shoulder_outer", "Outer shoulder, turned", Path.through(middle, tip)),
                    ("front_shoulder_inner", "Inner shoulder", Path.through(frame.snp_front, frame.shoulder_middle)),
            ):  # fmt: skip
                sheet.line(name, title, board.path("front", way), piece="front")
            sheet.rub_out("front_chest", "front_tip")
            sheet.point("front_chest_turned", "Front chest point, turned", board.spot("front", chest), "N", piece="front")
            sheet.point("front_tip_turned", "Front shoulder tip, turned", board.spot("front", tip), "S", piece="front")
        sheet.sum("angle at the bust point, degrees", angle_words(asked))
        if angle > asked:
            sheet.sum("added for balance, degrees", angle_words(angle - asked))
        sheet.sum("mouth at the shoulder", drawn(2 * reach * math.sin(angle / 2), "mouth at the shoulder"))
    return Opened(angle, asked, angle - asked)


def _front(sheet: Sheet, frame: Frame, shut: Half, opened: Opened, lean: Lean) -> Half:
    middle, tip, chest = turned(frame, opened.angle)
    hole = front_armhole(
        frame,
        shut.under,
        _side_way(shut, frame, lean),
        opened.angle,
        _number(sheet, "hollow_front"),
        rounded=rounded(sheet, "hollow_front"),
    )
    half = Half("front", frame.pit, frame.snp_front, tip, chest, shut.under, shut.waist)
    half.walk = (
        Stretch("neck", frame.neck_front), Stretch("shoulder", Path.through(frame.snp_front, frame.shoulder_middle)),
        Stretch("shoulder", Path.through(middle, tip)), Stretch("armhole", hole),
    )  # fmt: skip
    half.bust_point = frame.bust_point
    if opened.angle:
        half.gaps["shoulder"] = [Gap(BUST_DART, frame.bust_point, SHORT, "outer")]
    return half


def _balance_step(sheet: Sheet, frame: Frame, back: Half, front: Half, board: Table) -> None:
    with sheet.step(
        "Armholes",
        "Down from the tip square to the shoulder, plumb at the chest point, level into the underarm. The front may not be "
        "longer than the back.",
    ):
        for half in (back, front):
            for stretch in half.walk:
                if stretch.edge == "armhole":
                    title = f"{half.name.capitalize()} armhole"
                    sheet.line(
                        f"{half.name}_armhole_guide",
                        title,
                        board.path(half.name, stretch.path),
                        figure=drawn(stretch.path.length, title.lower()),
                        piece=half.name,
                    )
        sheet.sum("back armhole", drawn(back.length("armhole"), "back armhole"))
        sheet.sum("front armhole", drawn(front.length("armhole"), "front armhole"))


def _waist_step(sheet: Sheet, frame: Frame, back: Half, front: Half, lean: Lean, loss: Quantity, board: Table) -> None:
    with sheet.step(
        "Waist",
        say(
            "A third of what each half has to lose goes to the side, at most {0u}, the rest to darts. The waist line runs square "
            "to the side over the shut darts.",
            2.5,
        ),
    ):
        x, top = frame.bust_point.x, frame.bust_point.y + 2.5
        if sheet.rules > 1:
            top = max(top, frame.depth.value + UNDER_BUST_LINE)  # a dart above the bust line would narrow it
        side_back, side_front = (side_waist(h.under, frame.waist, lean.side, lean.down).x for h in (back, front))
        back_at = (
            [(side_back / 2, frame.depth.value + 1)]
            if lean.count == 1
            else [(side_back / 3, frame.depth.value + 1), (side_back * 2 / 3, frame.depth.value + 2)]
        )
        front_at = [(x, top)] if lean.count == 1 else [(x, top), ((x + side_front) / 2, top + 1.5)]
        blame = ("waist", "bust", "nape_waist")
        draw_waist(back, frame.waist, lean, back_at if lean.count else [], blame)
        draw_waist(front, frame.waist, lean, front_at if lean.count else [], blame)
        sheet.sum("to lose, both halves", loss.called("to lose"))
        sheet.sum("each side", drawn(lean.side, "each side takes"))
        if lean.count:
            sheet.sum("each half's darts", drawn(lean.dart, "darts take"))
        for half in (back, front):
            for number, plan in enumerate(half.plans, 1):
                sheet.line(
                    f"{half.name}_axis_{number}",
                    "Dart axis",
                    board.path(half.name, Path.through(plan.middle, plan.point)),
                    piece=half.name,
                )
    if loss < 0:
        sheet.note(
            say(
                "The waist is larger than the bust with its ease: the sides lean out by {0u} each and there are no waist "
                "darts.",
                -lean.side,
            )
        )
    elif not lean.count and loss > 0:
        sheet.note(say("Little is to be taken in: the sides take it, {0u} each. Fewer darts are better.", lean.side))


def finish(sheet: Sheet, frame: Frame, back: Half, front: Half, opened: Opened, board: Table) -> None:
    """Lay the bust dart where it is wanted, name the pieces, hand over the block."""
    y, x = front.under.y, frame.bust_point.x
    level = BalanceLine("bust", ((Point(0, y), Point(x, y)), (Point(x, y), front.under)), notched=False)
    pieces = [
        piece_of(
            sheet, half, (bust, BalanceLine.across("waist", frame.waist, notched=False)), frame.waist, f"Bodice {half.name}"
        )
        for half, bust in ((back, BalanceLine.across("bust", y, notched=False)), (front, level))
    ]
    pieces[1], held = placed(sheet, frame, pieces[1], opened.angle)
    with sheet.step("Name the pieces", "Half a back and half a front, no allowances."):
        sheet.rub_out(
            *(mark.name for mark in sheet.marks if mark.role == "construction" and mark.kind == "line"),
            *("front_chest", "front_tip", "front_chest_turned", "front_tip_turned"),
        )
        for name, mark, title, letter in (("tip", "tip", "shoulder tip", "S"), ("chest", "chest", "chest point", "N")):
            spot = board.spot("front", pieces[1].marks[mark])
            sheet.point(f"front_{name}_now", f"Front {title}", spot, letter, piece="front")
        for piece in pieces:
            show_half(sheet, piece.moved(board.of(piece.name)), ("waist", "side", "armhole", "shoulder", "neck", piece.middle))
        sheet.sum("neck, whole round", drawn(2 * sum(p.edge("neck").length for p in pieces), "neck, whole round"))
        sheet.sum("armhole", drawn(sum(p.edge("armhole").length for p in pieces), "armhole"))
    plan = {"bust": sheet.ease("bust"), "waist": sheet.ease("waist")}
    hand_over(sheet, board, pieces[0], pieces[1], frame.shoulder_ease, plan, LEAST, more=(*held, SideLeans()))


NEEDS = (
    Need("neck", "the width of the neck"),
    Need("high_bust", "the upper front is drawn for it"),
    Need("bust", "the width at the bust line, and the bust dart"),
    Need("waist", "the width at the waist"),
    Need("nape_waist", "the height of the waist line"),
    Need("armscye_depth", "the height of the bust line"),
    Need("across_back", "where the back armhole stands"),
    Need("across_chest", "where the front armhole stands"),
    Need("shoulder", "the length of the shoulder"),
    Need("bust_depth", "how low the bust point lies"),
    Need("bust_span", "how far the bust points are apart"),
    Need("snp_waist_back", "how high the back shoulder rises"),
    Need("snp_waist_front", "how high the front shoulder rises"),
    Need("shoulder_slope", "how steep the shoulder is", instead="shoulder_drop"),
)
MENDS = {
    "darts.intake": (
        Mend("Share the bust dart between shoulder and waist", "dart_place", "shared"),
        Mend("Two waist darts in each piece", "waist_darts", "two"),
    )
}
METHOD = register(
    Method(
        "bodice.measured",
        "Darted bodice, measured",
        "Bodices",
        "Drawn for the high bust and opened for the bust: neck and shoulder stay right on any cup, and the bust dart is "
        "computed, not guessed.",
        NEEDS,
        DARTED,
        EASE,
        draw,
        rules=4,
        earlier=(1, 2, 3),
        mends=MENDS,
        has_armhole=True,
    )
)
