"""Sleeves for an armhole: the guide box and the triangle, each solved until the cap fits.

Neither is drawn without its armhole. A high cap is narrow and hangs clean, a low one is wide and lets the arm rise.
"""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from widehem.core.drafting.arm import arm_of
from widehem.core.drafting.cap import HIGH, LOW, NEAR, WAVES, Armhole, cap_curve, cap_on, fitted, followed, rest_angle, waves
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.methods.sleeve_options import CAP, EASE, ELBOW, HEIGHT_BY, HEM, LENGTH, MENDS, OWN_HEIGHT, PROFILE
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.sleeve_piece import hand_over_sleeve, room_for, sleeve_piece
from widehem.core.drafting.sleeve_seams import BELOW_LEAST, Seams, bent_seams, straight_seams
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import solve_length
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record

FOLLOWED_LEAST = 3.0  # cm of the armhole
USUAL_HEIGHT = 0.31  # of the armhole: how high a high cap is, about
BOX_AT, TRIANGLE_AT = 14.5, 15.0  # cap heights to which the offsets belong
SHARE = {"high": 1.0, "middle": 2 / 3, "low": 1 / 3}
LEAST_OVER_ARM = 2.0
DEPTH_PART = 5 / 6
PROFILES = {
    "one": ((1 / 4, 1.6), (1 / 2, 0.0), (7 / 8, -0.5)), "one_front": ((1 / 4, 1.6), (1 / 2, 0.0), (3 / 4, -1.6)),
    "two": ((1 / 4, 1.6), (1 / 2, 0.6), (3 / 4, -1.0)), "two_front": ((1 / 4, 1.9), (1 / 2, 0.5), (3 / 4, -1.3)),
}  # fmt: skip


@record(frozen=True)
class Cap:
    """A solved cap. width: at the bicep line; height; curve from back to front underarm."""

    width: float
    height: float
    curve: Path


Shape = Callable[[float, float], tuple[list[Point], int]]
Low = tuple[Path, Path] | None
Wrist = Callable[[float, float], float]  # the hem of a sleeve so wide with a cap so high, cm


def box_points(width: float, height: float) -> tuple[list[Point], int]:
    """The nine points of the guide-box cap, from the back underarm, and the number of the crown."""
    k = height / BOX_AT
    guide = [
        Point(0, 0),
        Point(width / 4, -0.67 * height),
        Point(width / 2, -height),
        Point(width * 3 / 4, -height / 2),
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
    held = _held_height(sheet, armhole, over_third)
    by_length = sheet.rules > 1 and isinstance(sheet.options["hem"], Quantity)

    def wrist(wide: float, high: float) -> float:
        """The hem of a sleeve so wide with a cap so high: as set, or by its length."""
        return arm_of(sheet).hem_at(length.value, wide, high) if by_length else hem.value

    cap = _cap(sheet, armhole, points, width, ease, length.value, wrist, arm.value, held)
    if by_length:
        hem = drawn(wrist(cap.width, cap.height), "hem width")
        sheet.options["hem"] = hem
    _draw(sheet, armhole, points, cap, length, hem, arm)


def _seams(width: float, hem: float, down: float) -> tuple[Point, Point]:
    """Directions of both underarm seams, downwards."""
    aside = (width - hem) / 2
    return Point(aside, down).unit(), Point(-aside, down).unit()


def _curve(shape: Shape, low: Low, length: float, hem: Wrist, width: float, height: float) -> Path:
    """The cap. low: of the armhole, where it is to be followed."""
    found, _ = shape(width, height)
    seams = _seams(width, min(hem(width, height), width), max(length - height, 1.0))
    return cap_curve(found, *seams) if low is None else cap_on(low, found, *seams)


def _held_height(sheet: Sheet, armhole: Armhole, over_third: float) -> float | None:
    """The height of a high cap that a school holds, cm; None when it is solved."""
    by = sheet.choice("height_by")
    if by == "third":
        return armhole.whole / 3 + over_third
    if by == "depth":
        if armhole.depth is None:
            raise CannotDraft(
                (), say("The depth of this armhole is not known, only its length: draft for a bodice, or solve the cap height.")
            )
        return armhole.depth * DEPTH_PART
    return sheet.length("own_height").value if by == "own" else None


def _cap(
    sheet: Sheet,
    armhole: Armhole,
    points: Shape,
    width: Quantity,
    ease: Quantity,
    length: float,
    hem: Wrist,
    arm: float,
    held: float | None,
) -> Cap:
    """Solve the height for the width, unless it is held; for a lower cap take its share of the height. Then solve the width."""
    asked = _Asked(armhole.whole, sheet.ease("cap").value, ease.value, SHARE[sheet.choice("cap_height")], arm, held)
    low = armhole.low if sheet.rules > 1 and asked.share == 1 else None
    guess = USUAL_HEIGHT * asked.whole if low is not None else None
    if low is not None and guess is not None:
        aside = hem(width.value, guess)
        low = followed(low, points(width.value, guess)[0], *_seams(width.value, aside, max(length - guess, 1.0)))

    def curve(wide: float, height: float) -> Path:
        return _curve(points, low, length, hem, wide, height)

    with sheet.step(
        "Bicep line and cap",
        "The width of the arm with its ease; then the height at which the cap is as long as the armhole and the cap ease.",
    ):
        sheet.sum("armhole, front", drawn(armhole.front, "front armhole"))
        sheet.sum("armhole, back", drawn(armhole.back, "back armhole"))
        sheet.sum("bicep line of a high cap", width)
        for shorter in (
            low,
            _shorter(low),
            None,
        ):  # where it cannot follow its armhole so far it follows it less, or not at all
            low = shorter
            try:
                wide, height = _solved(asked, curve, width.value, length, guess)
            except CannotDraft:
                if low is None:
                    raise
                continue
            if low is None or waves(curve(wide, height)) <= WAVES:
                break
        sheet.sum("cap ease", ease)
        sheet.sum("cap height", drawn(height, "cap height"))
        sheet.sum("bicep line", drawn(wide, "bicep line"))
    return Cap(wide, height, curve(wide, height))


def _shorter(low: Low) -> Low:
    """Less of the beginning of an armhole."""
    if low is None:
        return None
    front, back = (path.cut(FOLLOWED_LEAST)[0] if path.length > FOLLOWED_LEAST else path for path in low)
    return front, back


@record(frozen=True)
class _Asked:
    """What is asked of a cap, cm: whole armhole, ease of a high cap and its own, its share of the height, the arm, and the
    height where that is held."""

    whole: float
    full: float
    ease: float
    share: float
    arm: float
    held: float | None


def _solved(
    asked: _Asked, curve: Callable[[float, float], Path], width: float, length: float, guess: float | None
) -> tuple[float, float]:
    """The width and the height at which a cap comes out, cm. curve: the cap of a width and a height. guess: about how high, to
    begin with. Raises CannotDraft."""
    want = asked.whole + asked.full

    def of_height(height: float) -> float:
        return curve(width, height).length

    found = asked.held or fitted(of_height, want, LOW * asked.whole, min(HIGH * asked.whole, length - 4), guess)
    if found is None:
        flat = of_height(LOW * asked.whole)
        if flat > want:
            words = say(
                "A flat cap over a sleeve {0} wide is {1} long already, the armhole with its ease only {2u}: the sleeve "
                "is too wide for it. Read the upper arm again, or give less ease.",
                width,
                flat,
                want,
            )
        else:
            words = say(
                "No cap {0} wide reaches the armhole with its ease, {1u}: the armhole is too large for this arm. Give "
                "the sleeve more ease, or draw a smaller armhole.",
                width,
                want,
            )
        raise CannotDraft(("upper_arm",), words)
    if asked.share == 1 and not asked.held:
        return width, found
    height = found * asked.share

    def of_width(trial: float) -> float:
        return curve(trial, height).length

    most = asked.whole + asked.ease
    wide = solve_length(of_width, most, asked.arm + LEAST_OVER_ARM, most, near=NEAR)
    if wide is None:
        raise CannotDraft(
            ("upper_arm",),
            say(
                "No sleeve at least {0} wider than the arm, {1}, fits this armhole with a cap {2u} high: take another height, "
                "or solve it.",
                LEAST_OVER_ARM,
                asked.arm,
                height,
            ),
        )
    return wide, height


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
    held = share < 1 or sheet.choice("height_by") != "solved"
    asked = None if held else sheet.ease("upper_arm").value
    wanted = sheet.ease("cap").value * share
    piece = sleeve_piece(cap.curve, seams, armhole, notch)
    hand_over_sleeve(
        sheet, piece, armhole, arm.value, asked, wanted, _hand(sheet), share, None if seams.back.gaps else down,
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


def _box(_sheet: Sheet) -> Shape:
    return box_points


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
        (CAP, HEIGHT_BY, OWN_HEIGHT, ELBOW, LENGTH, HEM),
        EASE,
        lambda sheet: draw(sheet, _box, 0.0),
        for_armhole=True,
        rules=2,
        earlier=(1,),
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
        (CAP, HEIGHT_BY, OWN_HEIGHT, PROFILE, ELBOW, LENGTH, HEM),
        EASE,
        lambda sheet: draw(sheet, _triangle, 0.6),
        for_armhole=True,
        rules=2,
        earlier=(1,),
        mends=MENDS,
    )
)
