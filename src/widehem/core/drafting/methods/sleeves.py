"""Sleeves for an armhole: the guide box and the triangle, each solved until the cap fits.

Neither is drawn without its armhole. A high cap is narrow and hangs clean, a low one is wide and lets the arm rise.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from widehem.core.drafting.arm import arm_of
from widehem.core.drafting.cap import Armhole, rest_angle
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.methods.sleeve_cap import SHARE, Cap, Shape, held_height, solved_cap
from widehem.core.drafting.methods.sleeve_options import (
    BULGE,
    CAP,
    EASE,
    ELBOW,
    HEIGHT_BY,
    HEM,
    HOLD,
    LENGTH,
    MENDS,
    OWN_HEIGHT,
    PITCH,
    PROFILE,
)  # fmt: skip
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.sleeve_piece import hand_over_sleeve, room_for, sleeve_piece
from widehem.core.drafting.sleeve_seams import BELOW_LEAST, Seams, bent_seams, straight_seams
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.units import say

BOX_AT, TRIANGLE_AT = 14.5, 15.0  # cap heights to which the offsets belong
PROFILES = {
    "one": ((1 / 4, 1.6), (1 / 2, 0.0), (7 / 8, -0.5)), "one_front": ((1 / 4, 1.6), (1 / 2, 0.0), (3 / 4, -1.6)),
    "two": ((1 / 4, 1.6), (1 / 2, 0.6), (3 / 4, -1.0)), "two_front": ((1 / 4, 1.9), (1 / 2, 0.5), (3 / 4, -1.3)),
}  # fmt: skip


def pitches(school: str, armhole: float, height: float) -> tuple[float, float]:
    """How high a cap crosses its back and its front quarter line, of its height, by a school."""
    if school == "thirds":
        return 2 / 3, 1 / 3
    if school in ("sixth", "quarter"):
        part, back, front = (1 / 6, 2.5, 0.0) if school == "sixth" else (1 / 4, 1.0, -1.0)
        behind, before = (min(max((armhole * part + more) / height, 0.25), 0.85) for more in (back, front))
        return behind, before
    return 0.67, 0.5


def box_points(width: float, height: float, school: str = "part", armhole: float = 0.0) -> tuple[list[Point], int]:
    """The nine points of the guide-box cap, from the back underarm, and the number of the crown."""
    behind, before = pitches(school, armhole, height)
    k = height / BOX_AT
    guide = [
        Point(0, 0),
        Point(width / 4, -behind * height),
        Point(width / 2, -height),
        Point(width * 3 / 4, -before * height),
        Point(width, 0),
    ]
    points = [guide[0]]
    for a, b, out in zip(guide, guide[1:], (-0.5 * k, 1.5 * k, 2.0 * k, -1.0 * k), strict=False):
        points += [_off(a, b, 0.5, out), b]
    return points, 4


def triangle_points(profile: str, width: float, height: float) -> tuple[list[Point], int]:
    """The points of the triangle cap, from the back underarm, and the number of the crown."""
    k = height / TRIANGLE_AT
    back, crown, front = Point(0, 0), Point(width / 2, -height), Point(width, 0)
    first = [_off(back, crown, 1 - part, out * k) for part, out in reversed(PROFILES[profile])]
    second = [_off(crown, front, part, out * k) for part, out in PROFILES[f"{profile}_front"]]
    return [back, *first, crown, *second, front], 4


def _off(a: Point, b: Point, part: float, out: float) -> Point:
    """A point a part of the way from a to b, moved out of the cap square to that line."""
    way = (b - a).unit()
    return a.toward(b, part) + Point(way.y, -way.x) * out


def draw(sheet: Sheet, shape: Callable[[Sheet], Shape], over_third: float) -> None:
    """A sleeve by one of the shapes of cap. over_third: how much higher than a third of the armhole its school draws it, cm."""
    armhole = sheet.armhole
    assert armhole is not None
    arm, length, hem = sheet.measure("upper_arm"), sheet.length("length"), sheet.length("hem")
    points = shape(sheet)
    width = (arm + sheet.ease("upper_arm")).called("bicep line")
    ease = (sheet.ease("cap") * SHARE[sheet.choice("cap_height")]).called("cap ease")
    held = held_height(sheet, armhole, over_third)
    by_length = sheet.rules > 1 and isinstance(sheet.options["hem"], Quantity)

    def wrist(wide: float, high: float) -> float:
        """The hem of a sleeve so wide with a cap so high: as set, or by its length."""
        return arm_of(sheet).hem_at(length.value, wide, high) if by_length else hem.value

    cap = solved_cap(sheet, armhole, points, width, ease, length.value, wrist, arm.value, held)
    if by_length:
        hem = drawn(wrist(cap.width, cap.height), "hem width")
        sheet.options["hem"] = hem
    _draw(sheet, armhole, points, cap, length, hem, arm)


def _draw(sheet: Sheet, armhole: Armhole, points: Shape, cap: Cap, length: Quantity, hem: Quantity, arm: Quantity) -> None:
    found, crown = points(cap.width, cap.height)
    down = length.value - cap.height
    wrist = min(hem.value, cap.width)
    a, b, top = Point(0, 0), Point(cap.width, 0), found[crown]
    with sheet.step("Guides", "Bicep line, centre line and the straight guides of the cap."):
        sheet.line(
            "bicep_guide",
            "Bicep line",
            Path.through(a, b),
            role="balance",
            kind="level",
            edge="bicep",
            figure=drawn(cap.width, "bicep line"),
            piece="sleeve",
        )
        sheet.line("centre_guide", "Centre line", Path.through(top, Point(cap.width / 2, down)), figure=length, piece="sleeve")
        sheet.line("cap_guide", "Guides of the cap", Path.through(a, *(found[i] for i in _guide(found)), b), piece="sleeve")
        sheet.point("back_underarm", "Back underarm", a, "A", piece="sleeve")
        sheet.point("front_underarm", "Front underarm", b, "B", piece="sleeve")
        sheet.point("crown", "Crown", top, "C", figure=drawn(cap.height, "cap height"), piece="sleeve")
        sheet.sum("length", length)
    with sheet.step(
        "Cap",
        "One curve through all points, its bend running on over each, square to the seams under the arm.",
    ):
        sheet.line(
            "cap_line", "Cap", cap.curve, role="finished", figure=drawn(cap.curve.length, "cap"), piece="sleeve", edge="cap"
        )
        whole = drawn(cap.curve.length - armhole.whole, "cap longer than the armhole")
        gap_at, gap = _shoulder_notch(cap.curve, armhole)
        sheet.point(
            "shoulder_notch",
            "Shoulder notch",
            cap.curve.place(gap_at).point,
            "S",
            figure=drawn(gap, "ease between the marks"),
            piece="sleeve",
        )
        sheet.sum("cap", drawn(cap.curve.length, "cap"))
        sheet.sum("cap ease come out", whole)
        sheet.sum(
            "hangs straight at, degrees", Quantity(round(rest_angle(cap.height, armhole.whole)), plain=True, source="constant")
        )
    _finish(sheet, armhole, cap, down, wrist, arm, gap_at)
    if sheet.choice("cap_height") != "high":
        sheet.note(
            say(
                "A lower cap is wider, {0u} at the bicep line, and lets the arm rise; with the arm down it hangs in folds.",
                cap.width,
            )
        )


def _guide(found: list[Point]) -> tuple[int, ...]:
    return tuple(range(2, len(found) - 2, 2))


def _shoulder_notch(curve: Path, armhole: Armhole) -> tuple[float, float]:
    """Where the shoulder notch stands along the cap from the back underarm, and the ease that lies about it, cm."""
    gap = curve.length - armhole.whole
    return armhole.back + gap / 2, gap


def _finish(sheet: Sheet, armhole: Armhole, cap: Cap, down: float, hem: float, arm: Quantity, notch: float) -> None:
    with sheet.step(
        "Seams and hem", "Both underarm seams alike from the bicep line to the hem, never narrower than the hand can pass."
    ):
        seams = _bent(sheet, cap, down, hem)
        for edge in (seams.back, seams.front, seams.hem):
            title = {"underarm_back": "Back underarm seam", "underarm_front": "Front underarm seam", "wrist": "Hem"}[edge.name]
            for number, part in enumerate(edge.parts, 1):
                figure = drawn(edge.length, title.lower())
                sheet.line(
                    f"sleeve_{edge.name}_{number}", title, part, role="finished", figure=figure, piece="sleeve", edge=edge.name
                )
            for dart in edge.darts:
                sheet.draw_dart(dart, "Elbow dart", "E", drawn(dart.intake, "elbow dart"), "sleeve")
        sheet.sum("underarm seam", drawn(seams.back.length, "underarm seam"))
        sheet.sum("hem", drawn(seams.hem.length, "hem"))
    sheet.rub_out("cap_guide")
    share = SHARE[sheet.choice("cap_height")]
    held = sheet.choice("hold") == "one" and (share < 1 or sheet.choice("height_by") != "solved")
    asked = None if held else sheet.ease("upper_arm").value
    piece = sleeve_piece(cap.curve, seams, armhole, notch)
    hand_over_sleeve(
        sheet, piece, armhole, arm.value, asked, cap.wanted, _hand(sheet), share, None if seams.back.gaps else down,
        room_for(arm_of(sheet), sheet.length("length").value, cap.height),
    )  # fmt: skip


def _hand(sheet: Sheet) -> float | None:
    """The closed hand that must pass the hem, cm: of a long sleeve."""
    hand = sheet.chart.get("hand")
    return hand if sheet.rules < 2 or arm_of(sheet).long(sheet.length("length").value) else None


def _bent(sheet: Sheet, cap: Cap, down: float, hem: float) -> Seams:
    """The seams, bent at the elbow where that is wanted and the sleeve reaches far enough below it."""
    if sheet.choice("elbow") == "none":
        return straight_seams(cap.width, hem, down, level=sheet.rules > 1)
    read = sheet.chart.get("shoulder_elbow")
    elbow = read - cap.height if read is not None else down / 2
    if not 4 < elbow < down - BELOW_LEAST:
        sheet.note(
            say("The sleeve ends {0} below the bicep line, too short for a dart at the elbow: it is left straight.", down)
        )
        return straight_seams(cap.width, hem, down, level=sheet.rules > 1)
    seams = bent_seams(cap.width, hem, down, elbow, level=sheet.rules > 1)
    sheet.note(say("The elbow dart bends the sleeve: the wrist swings {0u} forward.", seams.forward))
    return seams


def _box(sheet: Sheet) -> Shape:
    armhole = sheet.armhole
    assert armhole is not None
    return partial(box_points, school=sheet.choice("pitch"), armhole=armhole.whole)


def _triangle(sheet: Sheet) -> Shape:
    return partial(triangle_points, sheet.choice("profile"))


NEEDS = (
    Need("upper_arm", "the width of the sleeve"),
    Need("arm_length", "the length, unless another is set", "length"),
    Need("hand", "the hem, unless another is set", "hem"),
)
GUIDE_BOX = register(
    Method(
        "sleeve.guide_box",
        "Guide-box sleeve",
        "Sleeves",
        "A box quartered by verticals, with pitch points on the quarter lines; for a given armhole, solved until the cap fits.",
        NEEDS,
        (CAP, PITCH, HOLD, HEIGHT_BY, OWN_HEIGHT, BULGE, ELBOW, LENGTH, HEM),
        EASE,
        lambda sheet: draw(sheet, _box, 0.0),
        for_armhole=True,
        rules=4,
        earlier=(1, 2, 3),
        mends=MENDS,
    )
)
TRIANGLE = register(
    Method(
        "sleeve.triangle",
        "Triangle sleeve",
        "Sleeves",
        "A triangle on the bicep line, its sides rounded by one of two profiles; for a given armhole, solved until the cap "
        "fits.",
        NEEDS,
        (CAP, HOLD, HEIGHT_BY, OWN_HEIGHT, BULGE, PROFILE, ELBOW, LENGTH, HEM),
        EASE,
        lambda sheet: draw(sheet, _triangle, 0.6),
        for_armhole=True,
        rules=4,
        earlier=(1, 2, 3),
        mends=MENDS,
    )
)
