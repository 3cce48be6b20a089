"""The S-head sleeve of a seam-shaped gown: one seam down the back of the arm, the head one full wave between both edges."""

from __future__ import annotations

import math

from widehem.core.drafting.arm import arm_of
from widehem.core.drafting.cap import NEAR, Armhole
from widehem.core.drafting.finished import show_edges
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.methods.sleeve_options import length_option
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.sleeve_piece import ON_SHEET, SHOULDER, room_for
from widehem.core.drafting.sleeve_seams import chord, level_hem
from widehem.core.drafting.table import turned_over
from widehem.core.geometry.curves import Cubic, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import solve_length
from widehem.core.pattern.checks.body import Girth
from widehem.core.pattern.checks.held import NotchAt
from widehem.core.pattern.checks.sleeve import CapFits, CapHalves
from widehem.core.pattern.checks.through import HandPasses
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import EdgeRef, Seam, SeamEdge
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.setting.option import Choice, Mend, Option
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.set_in import SIDE_NOTCH
from widehem.core.units import say
from widehem.core.values import record, replace

EIGHTHS = 8
HEAD_EASE_MOST = 2.5
ELBOW_OVER, ELBOW_OUT, ELBOW_EASE, ELBOW_NOTCH = 2.0, 0.6, 0.5, 5.0
WRIST_OVER, HAND_OVER = 2.0, 1.0
UNDER_TRUE = 2.0
WIDTH_LEAST, WIDTH_MOST = 3.0, 8.0
ELBOW_PART = 0.58
BELOW_LEAST = 4.0
HEAD_NOTCHES = SHOULDER, "front of the arm", SIDE_NOTCH

WRIST = Option(
    "wrist", "Wrist", "choice", "hand", "how it is closed",
    choices=(Choice("hand", "Wide enough for the hand", "the closed hand passes"),
        Choice("buttons", "Close, with buttons", "an opening in the seam")),
)  # fmt: skip
EASE = (
    Option("upper_arm", "Upper arm ease", "length", 5.0, "whole round", WIDTH_LEAST, WIDTH_MOST, 0.5, least=3.0),
    Option("cap", "Ease of the head", "length", 1.0, "eased into the armhole", 0.0, HEAD_EASE_MOST, 0.25),
)  # fmt: skip


@record(frozen=True)
class _Head:
    """A solved head, cm. wide: of the sleeve; high: from crown to hollow; wave: from edge to edge."""

    wide: float
    high: float
    wave: Path


def wave(wide: float, high: float) -> Path:
    """One full wave over the width, up first: cubics over eighths of it, with its own slope at every joint."""
    points, slopes = [], []
    for number in range(EIGHTHS + 1):
        angle = 2 * math.pi * number / EIGHTHS
        points.append(Point(wide * number / EIGHTHS, -high / 2 * math.sin(angle)))
        slopes.append(Point(1.0, -math.pi * high / wide * math.cos(angle)))
    third = wide / EIGHTHS / 3
    return Path(
        tuple(
            Cubic(a, a + v * third, b - w * third, b)
            for a, b, v, w in zip(points, points[1:], slopes, slopes[1:], strict=False)
        )
    )


def draw(sheet: Sheet) -> None:
    """The sleeve, step by step."""
    hole = sheet.armhole
    assert hole is not None
    arm, length = sheet.measure("upper_arm"), sheet.length("length")
    want = hole.whole + sheet.ease("cap").value
    with sheet.step(
        "Width and head", "The head is one full wave across the width, so high that it is as long as the armhole with its ease."
    ):
        width = (arm + sheet.ease("upper_arm")).called("width")
        sheet.sum("width", width)
        head = _by_underarm(sheet, width.value, arm.value, want, length.value)
        sheet.sum("armhole with ease", drawn(want, "armhole with ease"))
        sheet.sum("width as drawn", drawn(head.wide, "width as drawn"))
        sheet.sum("crown to hollow", drawn(head.high, "crown to hollow"))
        for number, (title, letter) in enumerate((("Back edge", "A"), ("Crown, shoulder line", "C"),
            ("Front of the arm", "F"), ("Hollow, underarm line", "U"), ("Front edge", "B"))):  # fmt: skip
            spot = Point(head.wide * number / 4, -head.high / 2 * math.sin(math.pi * number / 2))
            sheet.point(title.lower().replace(" ", "_").replace(",", ""), title, spot, letter, piece="sleeve")
        sheet.line("sleeve_middle", "Middle of the head", Path.through(Point(0, 0), Point(head.wide, 0)), piece="sleeve")
    _seams(sheet, hole, head, arm, length)


def _head(wide: float, want: float) -> _Head:
    """The head of a sleeve so wide. Raises CannotDraft where no wave is so long."""
    high = solve_length(lambda high: wave(wide, high).length, want, 0.01, 1.6 * wide, near=NEAR) if want > wide else None
    if high is None:
        raise CannotDraft(
            ("upper_arm", "armscye"),
            say("The armhole with its ease, {0}, is no longer than the sleeve is wide, {1u}: give the arm less ease, or draw "
                "a larger armhole.", want, wide),
        )  # fmt: skip
    return _Head(wide, high, wave(wide, high))


def _by_underarm(sheet: Sheet, width: float, arm: float, want: float, length: float) -> _Head:
    """The head for the width, or for one a centimetre more or less at a time, until the line under the arm comes out as
    measured."""
    read = sheet.chart.get("underarm_wrist")
    full = sheet.chart.get("arm_length")
    wanted = None if read is None or full is None else read - (full - length)
    head = _head(width, want)
    if wanted is None:
        return head
    tried = width
    while abs(length - head.high - wanted) > UNDER_TRUE:
        tried += 1.0 if length - head.high < wanted else -1.0  # wider: a lower head, more under the arm
        if not arm + WIDTH_LEAST <= tried <= arm + WIDTH_MOST or tried >= want:
            break
        try:
            other = _head(tried, want)
        except CannotDraft:
            break
        if abs(length - other.high - wanted) >= abs(length - head.high - wanted):
            break
        head = other
    under = length - head.high
    if head.wide != width:
        sheet.note(
            say(
                "The sleeve is drawn {0} wide instead of {1}, so that the line under the arm comes to {2u}.",
                head.wide,
                width,
                under,
            )
        )
    if abs(under - wanted) > UNDER_TRUE:
        sheet.note(
            say(
                "Under the arm the sleeve is {0} long, measured was {1u}: read underarm to wrist, arm length and armscye "
                "again.",
                under,
                wanted,
            )
        )
    return head


def _seams(sheet: Sheet, hole: Armhole, head: _Head, arm: Quantity, length: Quantity) -> None:
    crown, middle = -head.high / 2, head.wide / 2
    wrist_at, under = crown + length.value, head.high / 2
    if wrist_at < under + BELOW_LEAST:
        raise CannotDraft(("arm_length",), say("A sleeve of {0} ends within {1} of its hollow under the arm at {2u}: make it "
            "longer.", length.value, BELOW_LEAST, head.high))  # fmt: skip
    elbow_at = _elbow_level(sheet, crown, under, wrist_at)
    with sheet.step(
        "Elbow and wrist",
        "Both edges run straight from the underarm to the elbow and on to the wrist, six millimetres out at the elbow.",
    ):
        wrist = _wrist(sheet, head.wide, head.high)
        left = _edge(sheet, head, under, elbow_at, wrist_at, wrist.value)
        if sheet.rules > 1:  # the hem is level once it is closed: it ends lower at the seam than at its middle
            lean = math.atan2(left.arriving.x, left.arriving.y)
            wide = chord(wrist.value, lean)
            left = _edge(sheet, head, under, elbow_at, wrist_at + wide / 2 * math.tan(lean / 2), wide)
        right = left.moved(turned_over(2 * middle))
        sheet.sum("wrist", wrist)
        sheet.sum("seam", drawn(left.length, "seam"))
        if elbow_at is not None:
            sheet.line("sleeve_elbow", "Elbow line", Path.through(*(edge.at_level(elbow_at) or Point(0,
                elbow_at) for edge in (left, right))), role="balance", kind="level", edge="elbow", piece="sleeve")  # fmt: skip
        sheet.line(
            "sleeve_crown",
            "Crown line",
            Path.through(Point(head.wide / 4, crown), Point(head.wide / 4, wrist_at)),
            role="balance",
            piece="sleeve",
        )
    hem = (
        level_hem(right.end, right.arriving, left.end, left.arriving) if sheet.rules > 1 else Path.through(right.end, left.end)
    )
    edges = (
        Edge("seam_back", (left.reverse(),), role="underarm"),
        Edge("cap", (head.wave,)),
        Edge("seam_front", (right,), role="underarm"),
        Edge("wrist", (hem,), (), "hem"),
    )
    grain = Point(middle, under + (wrist_at - under) * 0.25), Point(middle, under + (wrist_at - under) * 0.85)
    on_head = _on_head(sheet, hole, head.wave.length)
    marked = tuple(replace(edge, notches=_notches(edge, elbow_at, on_head)) for edge in edges)
    piece = Piece("sleeve", "Sleeve", marked, balance=(BalanceLine.across("bicep", under),), grain=grain)
    with sheet.step("Head and seam", "One seam down the back of the arm: both edges are the same seam."):
        show_edges(
            sheet,
            piece,
            [edge.name for edge in edges],
            {"cap": "head", "seam_back": "seam", "seam_front": "seam", "wrist": "hem"},
        )
        sheet.sum("head", drawn(head.wave.length, "head"))
    sheet.rub_out("sleeve_middle")
    _hand_over(sheet, piece, hole, on_head, arm.value, head.high)
    sheet.note(
        say(
            "The seam meets the back armhole {0u} behind the shoulder seam; crown to the shoulder, the hollow to the side "
            "seam.",
            hole.whole / 4,
        )
    )
    if elbow_at is not None:
        sheet.note(say("Ease {0u} in at the elbow, between the notches, so that the sleeve bends.", ELBOW_EASE))


def _elbow_level(sheet: Sheet, crown: float, under: float, wrist: float) -> float | None:
    read = sheet.chart.get("shoulder_elbow")
    elbow = crown + (read if read is not None else ELBOW_PART * sheet.measure("arm_length").value)
    return elbow if under + BELOW_LEAST < elbow < wrist - BELOW_LEAST else None


def _wrist(sheet: Sheet, wide: float, high: float) -> Quantity:
    """The hem: for the hand or to be buttoned; of a short sleeve by the arm there. wide, high: of the head, cm."""
    length, arm = sheet.length("length").value, arm_of(sheet)
    if sheet.rules > 1 and not arm.long(length):
        return drawn(arm.hem_at(length, wide, high), "hem")
    if sheet.choice("wrist") == "buttons" and sheet.chart.get("wrist") is not None:
        found = sheet.measure("wrist") + WRIST_OVER
    else:
        found = sheet.measure("hand") + HAND_OVER
    return found.called("wrist") if found.value <= wide else drawn(wide, "wrist")


def _edge(sheet: Sheet, head: _Head, under: float, elbow: float | None, wrist: float, hem: float) -> Path:
    """The back edge from the head down to the wrist."""
    middle = head.wide / 2
    top, low, foot = Point(0.0, 0.0), Point(0.0, under), Point(middle - hem / 2, wrist)
    down = Path.through(top, low)
    if elbow is None:
        return down + Path((curve_between(low, Point(0, 1), foot, foot - low),))
    bent = sheet.chart.get("elbow_bent")
    around = (bent if bent is not None else sheet.measure("upper_arm").value - 1) + ELBOW_OVER
    at = Point(max(middle - around / 2 - ELBOW_OUT, 0.0), elbow)
    way = (at - low).unit() + (foot - at).unit()
    return down + Path((curve_between(low, Point(0, 1), at, way), curve_between(at, way, foot, foot - at)))


def _on_head(sheet: Sheet, hole: Armhole, head: float) -> tuple[float, float, float]:
    """How far along the head, from the back edge, its notches stand: the shoulder a quarter on, from there as far to the side
    seam as the front armhole is long with its share of the ease. cm."""
    if sheet.rules < 3:
        return head / 4, head / 2, head * 3 / 4
    front = hole.front * head / hole.whole
    return head / 4, head / 4 + front / 2, head / 4 + front


def _notches(edge: Edge, elbow: float | None, on_head: tuple[float, float, float]) -> tuple[Notch, ...]:
    """Three on the head; on the seam two about the elbow, counted from the hem."""
    if edge.role == "cap":
        return tuple(Notch(name, along) for name, along in zip(HEAD_NOTCHES, on_head, strict=True))
    if edge.role != "underarm" or elbow is None:
        return ()
    spot = edge.at_level(elbow) or 0.0
    offs = (-ELBOW_NOTCH, ELBOW_NOTCH) if edge.start.y > edge.end.y else (ELBOW_NOTCH, -ELBOW_NOTCH)
    found = (Notch(f"elbow {number}", spot + off) for number, off in enumerate(offs, 1))
    return tuple(sorted(found, key=lambda notch: notch.along))


def _hand_over(
    sheet: Sheet, piece: Piece, hole: Armhole, on_head: tuple[float, float, float], arm: float, crown_to_hollow: float
) -> None:
    hand = sheet.chart.get("hand") if sheet.choice("wrist") == "hand" else None
    length = sheet.length("length").value
    if sheet.rules > 1 and not arm_of(sheet).long(length):
        hand = None
    sheet.hand_over(
        (piece,),
        ON_SHEET,
        seams=(Seam("seam", "Seam", (SeamEdge("sleeve", "seam_back"),), (SeamEdge("sleeve", "seam_front", back=True),)),),
        demands=(
            Girth("bicep", "Upper arm", arm, None, 3.0, 0.1, limb=True),
            *room_for(arm_of(sheet), length, crown_to_hollow),
            *(NotchAt(EdgeRef("sleeve", "cap"), n, 1, along) for n, along in zip(HEAD_NOTCHES, on_head, strict=True)),
            CapFits(hole.whole, sheet.ease("cap").value, own=(0.0, HEAD_EASE_MOST)),
            CapHalves(hole.front, hole.back, (SHOULDER, SIDE_NOTCH), (0.0, HEAD_EASE_MOST)) if sheet.rules > 2 else None,
            HandPasses(hand) if hand is not None else None,
        ),
    )


METHOD = register(
    Method(
        "sleeve.s_head", "S-head sleeve", "Sleeves",
        "For a seam-shaped gown: one seam down the back of the arm, the head a full wave, high over the shoulder, hollow "
        "under the arm.",
        (
            Need("upper_arm", "the width"),
            Need("arm_length", "the length, unless another is set, and the elbow"),
            Need("hand", "the width at the wrist"),
        ),
        (length_option(), WRIST), EASE, draw, rules=3, earlier=(1, 2), for_armhole=True, made_for="gown.seam_shaped",
        mends={"hand.passes": (Mend("Close it with buttons", "wrist", "buttons"),)},
    )
)  # fmt: skip
