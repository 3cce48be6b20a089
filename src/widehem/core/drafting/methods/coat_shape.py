"""The body of a straight coat: front and back in frames with x outwards from the centre and y down from the nape."""

from __future__ import annotations

import math

from fontTools.misc.transform import Transform

from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.upper import DOWN, HOLLOW, OUT, UNLIKE, armhole, back_neck, front_neck, neck_meets
from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, angle_between, square_to, turn
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record, replace

BACK_DROP, DROP_MOST, DROP_LEAST = 2.0, 6.0, 0.5
DART_ABOVE_HIP = 0.5  # cm
BACK_EASED, NECK_LOW = 0.5, 0.5
ACROSS_OVER, TIP_OVER, CHEST_UP, HOLE_LEAST = 1.5, 0.3, 0.4, 1.0
CENTRE_IN, FOLD_DART, FRONT_DART, DART_BELOW, DART_OVER_HEM = 1.75, 1.0, 2.0, 15.0, 8.0
WEDGE_HIGH, WEDGE_OUT, VENT_SLANT = 15.0, 5.0, 2.5
FORWARD, SIDE_IN = 2.0, 2.0
BELOW_DART = 0.5  # cm
BACK_DARTS = {"seam": (), "seam_dart": (1.5,), "fold": (FOLD_DART,), "fold_two": (FOLD_DART, FOLD_DART)}  # cm
NECK_RISES = 1.2  # cm that the back neck rises to its side neck point
OVER_LEAST = 1.0  # cm that a side dart takes


@record(frozen=True)
class Frame:
    """Levels and widths, cm. quarter, hip_quarter: of the body with ease; over: what the front drop has too much, in its side
    dart; asked: the girth that was asked for at the bust; taken: what the shaped centre back takes at the underarm, given back at the side; kicks: the side is let
    out from the hip, not from above the hem; dart_end: how far down a waist dart reaches at most; comes_in: each side at the waist; flows: a side that is let out
    leans already at the hip."""

    waist: float
    hip: float
    hem: float
    bust: float
    under: float
    quarter: float
    hip_quarter: float
    over: float
    neck: float
    side: str
    kicks: bool
    asked: float
    dart_end: float
    flows: bool
    taken: float = 0.0
    comes_in: float = 0.0


def behind(at: Frame) -> Frame:
    """The widths of the back: so much wider at the side that the bust holds what was asked, with its centre shaped."""
    wide = at.quarter + at.taken
    return replace(at, quarter=wide, hip_quarter=max(at.hip_quarter, wide))


@record(frozen=True)
class Half:
    """The upper part of a half. way: the direction of the shoulder outwards."""

    name: str
    top: Point
    snp: Point
    tip: Point
    chest: Point
    under: Point
    neck: Path
    hole: Path

    @property
    def way(self) -> Point:
        return (self.tip - self.snp).unit()


def frame(sheet: Sheet) -> Frame:
    """Levels and widths. Raises CannotDraft."""
    bust, waist, hip, nape = (sheet.measure(code) for code in ("bust", "waist", "hip", "nape_waist"))
    with sheet.step(
        "Levels and widths", "A quarter of the bust with its ease, never less than waist and hip want with theirs."
    ):
        chest, least = ((bust + sheet.ease("bust")) / 4).called("quarter of the bust"), ((waist + sheet.ease("waist")) / 4).called("quarter of the waist")  # fmt: skip
        low = ((hip + sheet.ease("hip")) / 4).called("quarter of the hip")
        if sheet.chart.get("armscye_depth") is not None:
            under = (sheet.measure("armscye_depth") + sheet.length("below")).called("underarm level")
        else:
            under = (sheet.measure("armscye") / 2 + 4.5 - (sheet.measure("snp_waist_back") - nape)).called("underarm level")
        length = sheet.length("length")
        for figure in (chest, least, low, under):
            sheet.sum(figure.name, figure)
        sheet.sum("length below the waist", length)
        quarter = max(chest.value, least.value)
        if least > chest:
            sheet.note(
                say("The waist with its ease asks for more than the bust: the coat is {0} wide on each quarter.", quarter)
            )
        if under.value > nape.value - 6:
            raise CannotDraft(
                ("armscye_depth", "nape_waist"),
                say("The underarm at {0} lies within {1} of the waist at {2u}: read armscye depth and nape to waist again.",
                    under.value, 6.0, nape.value),
            )  # fmt: skip
        level = (nape - sheet.measure("snp_waist_front") + sheet.measure("bust_depth")).called("bust level")
        drop = 2 + sheet.measure("snp_waist_front").value - sheet.measure("snp_waist_back").value
        over = max(drop - DROP_MOST, 0.0)
        if sheet.rules > 2 and over < OVER_LEAST:
            over = 0.0  # too little for a dart: the shoulder falls by it
    found = Frame(
        nape.value, nape.value + sheet.measure("waist_hip").value, nape.value + length.value, level.value, under.value, quarter,
        max(quarter, low.value), over, sheet.length("neck_width").value, sheet.choice("side"),
        sheet.rules > 2, 4 * quarter, nape.value + sheet.measure("waist_hip").value - DART_ABOVE_HIP if sheet.rules > 4 else math.inf, sheet.rules > 4,
    )  # fmt: skip
    if sheet.choice("shape") == "waisted":
        found = replace(found, comes_in=min(SIDE_IN, max(quarter - least.value, 0.0)))
        sheet.sum("each side comes in", drawn(found.comes_in, "each side comes in"))
    if sheet.rules < 2 or not shaped(sheet):
        return found  # by the first rules the shaped centre narrowed the bust
    line = centre_back(found, Point(0.0, NECK_LOW), True)
    at_arm = line.at_level(found.under)
    return replace(found, taken=at_arm.x if at_arm is not None else 0.0)


def shaped(sheet: Sheet) -> bool:
    """Whether the centre back is a seam that goes in at the waist."""
    return sheet.choice("back") in ("seam", "seam_dart")


def back_darts(sheet: Sheet) -> tuple[float, ...]:
    """What each dart of half a back takes, cm."""
    return BACK_DARTS[sheet.choice("back")]


def falls(sheet: Sheet, name: str, over: float) -> float:
    """How much the shoulder of a half falls, cm, so that both tips lie level. over: what a side dart takes of it in front."""
    more = sheet.measure("snp_waist_front").value - sheet.measure("snp_waist_back").value - over
    read = sheet.chart.get("shoulder_drop")
    if sheet.choice("slope") == "measured" and read is not None:
        mean = read - sheet.length("pad").value
        return max(mean + (more / 2 if name == "front" else -more / 2), DROP_LEAST)
    return max(BACK_DROP + more, DROP_LEAST) if name == "front" else BACK_DROP


def half(sheet: Sheet, name: str, at: Frame) -> Half:
    """Neck, shoulder and armhole of a half. Raises CannotDraft."""
    shoulder = sheet.measure("shoulder").value + (BACK_EASED if name == "back" else 0.0)
    if sheet.rules > 3:  # a neck that is wider than the body's takes it off the shoulder
        shoulder -= max(at.neck - sheet.measure("neck").value / 5, 0.0)
    drop = falls(sheet, name, at.over)
    at = behind(at) if name == "back" else at
    snp = Point(at.neck, at.waist - sheet.measure(f"snp_waist_{name}").value)
    if drop >= shoulder:
        raise CannotDraft(
            ("shoulder",),
            say("The shoulder falls {0} over a length of {1u}: read shoulder and side neck to waist again.", drop, shoulder),
        )
    tip = snp + Point(math.sqrt(shoulder**2 - drop**2), drop)
    low = max(NECK_LOW, snp.y + NECK_RISES) if sheet.rules > 4 else NECK_LOW
    top = Point(0.0, low) if name == "back" else Point(0.0, snp.y + at.neck)
    code = "across_back" if name == "back" else "across_chest"
    across = min(sheet.measure(code).value / 2 + ACROSS_OVER, tip.x - TIP_OVER)
    under = Point(at.quarter, at.under - (at.over if name == "front" else 0.0))
    way_down = DOWN
    if at.over and name == "front" and sheet.rules > 4:  # so that the side is straight once its dart is shut
        way_down = DOWN.moved(turn(Point(0.0, 0.0), -dart_angle(at, sheet.measure("bust_span").value / 2)))
        under = Point(at.quarter - way_down.x / way_down.y * above_dart(at, under), under.y)
    chest = Point(across, under.y + (tip.y - under.y) * CHEST_UP)
    if across > under.x - HOLE_LEAST or tip.y > under.y - 6:
        raise CannotDraft(
            (code, "bust", "armscye_depth"),
            say(f"Half across the {name}, {{0}}, leaves no armhole on a quarter of {{1u}}: read {code.replace('_', ' ')}, "
                f"bust and armscye depth again, or give more ease.", across, under.x),
        )  # fmt: skip
    way = (tip - snp).unit()
    meets = neck_meets(sheet.rules, 3)
    neck = back_neck(top, snp, way, meets) if name == "back" else front_neck(top, snp, way, meets=meets)
    return Half(
        name,
        top,
        snp,
        tip,
        chest,
        under,
        neck,
        armhole(tip, way, chest, DOWN, under, way_down, (UNLIKE if sheet.rules > 4 else HOLLOW)[name], rounded=sheet.rules - 2),
    )


def dart_angle(at: Frame, x: float) -> float:
    """How far the side dart opens about its apex, radians. x: how far from the centre that lies."""
    return 2 * math.atan2(at.over / 2, at.quarter - x)


def above_dart(at: Frame, under: Point) -> float:
    """How much of the side lies above its dart, cm."""
    return dart_middle(at, under) - at.over / 2 - under.y


def dart_middle(at: Frame, under: Point) -> float:
    """The height of the middle of the side dart: of the bust, but below the underarm and above the waist."""
    return max(min(at.bust, at.waist - 6.0), under.y + at.over / 2 + 2.0)


def strip_forward(front: Half, back: Half) -> tuple[Half, Half]:
    """The shoulder seam moved forward by a strip that is as wide at the neck as at the tip: it is cut off the front and set
    onto the back, shoulder on shoulder."""
    below, above = Point(-front.way.y, front.way.x), Point(back.way.y, -back.way.x)
    at = front.snp + below * FORWARD
    (on_neck, on_hole) = (path.crossings(at, front.way)[side] for path, side in ((front.neck, -1), (front.hole, 0)))
    neck, neck_strip = front.neck.split(*on_neck)
    hole_strip, hole = front.hole.split(*on_hole)
    one, two = (front.way, below), (back.way, above)
    rows = [[sum(two[k][i] * one[k][j] for k in (0, 1)) for j in (0, 1)] for i in (0, 1)]
    turned = Transform(rows[0][0], rows[1][0], rows[0][1], rows[1][1], 0.0, 0.0)
    onto = Transform().translate(back.snp.x, back.snp.y).transform(turned).translate(-front.snp.x, -front.snp.y)
    snp, tip = neck_strip.start.moved(onto), hole_strip.end.moved(onto) + back.way * BACK_EASED
    set_on = back.neck + neck_strip.reverse().moved(onto)
    bend = angle_between(neck.end - hole.start, hole.leaving)
    leaving = (snp - tip).moved(turn(Point(0.0, 0.0), -math.radians(180 - bend)))  # so that the joined armhole runs on
    upper = Path((curve_between(tip, leaving, back.tip, back.hole.leaving),))
    return (
        Half("front", front.top, neck.end, hole.start, front.chest, front.under, neck, hole),
        Half("back", back.top, snp, tip, back.chest, back.under, set_on, upper + back.hole),
    )


def seam_forward(front: Half, back: Half, meets: float) -> tuple[Half, Half]:
    """The shoulder seam moved forward at the tip: what the front loses the back gets, both seams as long as each other
    still."""
    rest = front.hole.cut(FORWARD)[1]
    new = rest.start
    old_way, new_way = front.way, (new - front.snp).unit()
    angle = math.atan2(old_way.cross(new_way), old_way.dot(new_way))
    lifted = back.way.moved(turn(Point(0.0, 0.0), -angle))
    tip = back.snp + lifted * (front.snp.to(new) + BACK_EASED)
    before = Half(
        "front",
        front.top,
        front.snp,
        new,
        front.chest,
        front.under,
        front_neck(front.top, front.snp, new_way, meets=meets),
        rest,
    )
    bend = angle_between(front.snp - new, rest.leaving)
    leaving = (back.snp - tip).moved(turn(Point(0.0, 0.0), -math.radians(180 - bend)))  # so that the joined armhole runs on
    hole = Path((curve_between(tip, leaving, back.tip, back.hole.leaving),)) + back.hole
    return before, Half(
        "back", back.top, back.snp, tip, back.chest, back.under, back_neck(back.top, back.snp, lifted, meets), hole
    )


@record(frozen=True)
class Side:
    """A side from the underarm down, and the vent that follows it. hem_way: the direction of the hem where it arrives."""

    path: Path
    vent: Path | None
    hem_way: Point

    @property
    def end(self) -> Point:
        return self.vent.end if self.vent is not None else self.path.end


def _to_the_waist(at: Frame, under: Point, waist: Point) -> Path:
    """Straight down; a waisted side comes in from below its dart."""
    if not at.comes_in:
        return Path.through(under, waist)
    if not at.over:
        return Path((curve_between(under, DOWN, waist, DOWN),))
    start = Point(under.x, dart_middle(at, under) + at.over / 2 + BELOW_DART)
    return Path.through(under, start) + Path((curve_between(start, DOWN, waist, DOWN),))


def side_of(at: Frame, under: Point, room: bool) -> Side:
    """Straight to the waist, out to the hip, straight on; let out or with a vent where there is room for it."""
    waist, hip = Point(at.quarter - at.comes_in, at.waist), Point(at.hip_quarter, min(at.hip, at.hem))
    if at.hip > at.hem:
        hip = Point(at.quarter + (at.hip_quarter - at.quarter) * (at.hem - at.waist) / (at.hip - at.waist), at.hem)
    end = Point(hip.x + WEDGE_OUT, at.hem)
    kicks = at.kicks and room and at.side == "wedge" and at.hem > hip.y + 0.5
    way = ((hip - waist).unit() + (end - hip).unit()).unit() if kicks and at.flows else DOWN
    path = _to_the_waist(at, under, waist) + Path((curve_between(waist, DOWN, hip, way),))
    if at.hem <= hip.y + 0.5:
        return Side(path, None, OUT)
    start = Point(hip.x, max(at.hem - WEDGE_HIGH, hip.y + 0.1))
    if not room or at.side == "plain":
        return Side(path + Path.through(hip, Point(hip.x, at.hem)), None, OUT)
    if kicks:  # the kick starts at the hip, without a corner
        return Side(path + Path((curve_between(hip, way, end, end - hip),)), None, square_to(end - hip, OUT))
    path = path + Path.through(hip, start)
    if at.side == "vent":
        outer = Point(start.x + WEDGE_OUT, start.y + VENT_SLANT)
        return Side(path, Path.through(start, outer, Point(outer.x, at.hem)), OUT)
    high = at.hem - start.y
    way = Point(WEDGE_OUT, high).unit()
    end = start + way * high
    return Side(path + Path.through(start, end), None, square_to(way, OUT))


def centre_back(at: Frame, top: Point, shaped: bool) -> Path:
    """Straight to half the armhole level, in at the waist, straight again from the hip."""
    if not shaped:
        return Path.through(top, Point(0.0, at.hem))
    start, waist = Point(0.0, at.under / 2), Point(CENTRE_IN, at.waist)
    low = min(at.hip, at.hem - 2.0)
    path = Path.through(top, start) + Path(
        (curve_between(start, DOWN, waist, DOWN), curve_between(waist, DOWN, Point(0.0, low), DOWN))
    )
    return path + Path.through(Point(0.0, low), Point(0.0, at.hem))


def waist_of(sheet: Sheet, at: Frame, front_dart: float) -> Quantity:
    """What the waist comes out at, whole round, cm."""
    takes = sum(back_darts(sheet)) + (CENTRE_IN if shaped(sheet) else 0.0)
    return drawn(4 * (at.quarter - at.comes_in) + 2 * at.taken - 2 * front_dart - 2 * takes, "waist, whole round")
