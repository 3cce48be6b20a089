"""The frame every darted bodice starts from: levels, necks, shoulder line, chest points, bust point."""

from __future__ import annotations

import math

from widehem.core.drafting.armhole_level import armhole_level
from widehem.core.drafting.settled import AS_MEASURED, Settled
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.table import Table
from widehem.core.drafting.upper import (
    Gap,
    Stretch,
    Walk,
    back_neck,
    cut_walk,
    deep_enough,
    front_neck,
    high_enough,
    moved,
    neck_meets,
    shoulder_sine,
    square_down,
)
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record

STEEP_LEAST, STEEP_MOST = math.radians(8), math.radians(32)
USUAL_FALL = math.radians(20)
BACK_DART, BACK_DART_LONG, BACK_EASED = 1.2, 7.0, 0.5
RISE_LEAST = 0.3  # cm that the side neck point lies above the nape


@record(frozen=True)
class Frame:
    """Points of both halves in their own frames, the front with its dart shut, cm. depth: the bust line; waist: the waist."""

    depth: Quantity
    waist: float
    shoulder_way: Point
    shoulder_way_front: Point
    snp_back: Point
    snp_front: Point
    pit: Point
    tip_back: Point
    tip_front: Point
    chest_back_x: Quantity
    chest_front_x: Quantity
    chest_back: Point
    chest_front: Point
    bust_point: Point
    neck_back: Path
    neck_front: Path
    shoulder: float
    back_school: str
    meets: float

    @property
    def shoulder_middle(self) -> Point:
        """The middle of the front shoulder, dart shut."""
        return self.snp_front.toward(self.tip_front, 0.5)

    @property
    def shoulder_ease(self) -> float:
        """How much longer the back shoulder is than the front, to be eased in, cm."""
        return BACK_EASED if self.back_school == "eased" else 0.0

    def upper_back(self) -> tuple[Walk, dict[str, list[Gap]], Point, Point]:
        """Neck and shoulder of the back with their dart open, its gaps, the tip, and the direction of the shoulder there.

        The dart is drawn shut, on a shoulder so much flatter that the tip comes to lie where it was measured once it is open.
        """
        if self.back_school == "eased":
            shoulder = Stretch("shoulder", Path.through(self.snp_back, self.tip_back))
            return (Stretch("neck", self.neck_back), shoulder), {}, self.tip_back, self.shoulder_way
        angle = 2 * math.asin(BACK_DART / 2 / BACK_DART_LONG)
        edge = "shoulder" if self.back_school == "dart" else "neck"
        flat = self.shoulder_way.moved(turn(Point(0, 0), -angle / 2 if edge == "shoulder" else -angle))
        neck = back_neck(Point(0, 0), self.snp_back, flat, self.meets)
        shut = Path.through(self.snp_back, self.snp_back + flat * self.shoulder)
        at, way = (shut.length / 2, square_down(flat)) if edge == "shoulder" else (neck.length / 3, Point(0.17, 0.985))
        point = (shut if edge == "shoulder" else neck).place(at).point + way * BACK_DART_LONG
        inner, outer = cut_walk((Stretch("neck", neck), Stretch("shoulder", shut)), edge, at)
        opening = turn(point, angle)
        gaps = {edge: [Gap("blade_dart", point, 0.0, "outer")]}
        return (*inner, *moved(outer, opening)), gaps, shut.end.moved(opening), flat.moved(turn(Point(0, 0), angle))


def side_neck(upper: Walk) -> Point:
    """The side neck point of a back as it is cut: a dart in the neck opens it outwards."""
    return next(stretch.path.start for stretch in upper if stretch.edge == "shoulder")


def refuse_flat_neck(sheet: Sheet, rise: float) -> None:
    """Raise CannotDraft where the side neck point hardly lies above the nape: no back neck can be drawn so flat. rise: cm."""
    least = RISE_LEAST if sheet.rules > 2 else 0.0
    if rise > least:
        return
    raise CannotDraft(
        ("snp_waist_back", "nape_waist"),
        say(
            "Side neck to waist {0} is hardly longer than nape to waist {1u}, it should be by {2} or more: read both at the back "
            "again.",
            sheet.measure("snp_waist_back").value, sheet.measure("nape_waist").value, least,
        ),
    )  # fmt: skip


def upper_frame(sheet: Sheet, board: Table, drop: Quantity | None = None, settled: Settled = AS_MEASURED) -> Frame:
    """Draw levels, necks, shoulders, chest points and bust point.

    drop: how much of the front length hangs below the waist level instead of raising the shoulder. settled: what came out when
    it was drawn before. Raises CannotDraft.
    """
    neck, nape_waist, shoulder = sheet.measure("neck"), sheet.measure("nape_waist"), sheet.measure("shoulder")
    back_up, front_up = sheet.measure("snp_waist_back"), sheet.measure("snp_waist_front")
    waist = nape_waist.value
    with sheet.step("Levels", "Draw both centres. Mark the bust line below the nape, and the waist."):
        level = str(sheet.options.get("level", "measured"))
        depth = armhole_level(sheet, level) + sheet.ease("depth")
        if settled.lowered:
            depth = depth + drawn(settled.lowered, "lowered for the arm")
        depth = depth.called("bust line")
        for name in ("back", "front"):
            sheet.line(
                f"{name}_centre_guide",
                f"Centre {name}",
                board.path(name, Path.through(Point(0, -2), Point(0, waist))),
                piece=name,
            )
        sheet.point("nape", "Nape", board.spot("back", Point(0, 0)), "A", piece="back")
        sheet.point("cb_waist", "Centre back waist", board.spot("back", Point(0, waist)), "B", figure=nape_waist, piece="back")
        sheet.sum("waist line", nape_waist)
        sheet.sum("bust line", depth)
    with sheet.step(
        "Necks",
        "A fifth of the neck, less a little, is the width; the back rises by what side neck to waist is longer than nape to "
        "waist.",
    ):
        wide_back, wide_front = (neck / 5 - 0.2).called("back neck width"), (neck / 5 - 0.4).called("front neck width")
        rise, up = (
            (back_up - nape_waist).called("back neck rise"),
            (front_up - nape_waist - drop if drop else front_up - nape_waist).called("front rise"),
        )
        snp_back, snp_front = Point(wide_back.value, -rise.value), Point(wide_front.value, -up.value)
        deep = sheet.length("neck_depth")
        pit = Point(0.0, snp_front.y + deep.value)
        for name, at, letter in (("back", snp_back, "C"), ("front", snp_front, "D")):
            sheet.point(f"{name}_snp", f"{name.capitalize()} side neck point", board.spot(name, at), letter, piece=name)
        sheet.point("pit", "Pit of the neck", board.spot("front", pit), "E", figure=deep, piece="front")
        for title, figure in (
            ("back neck width", wide_back),
            ("front neck width", wide_front),
            ("back neck rise", rise),
            ("front rise", up),
        ):
            sheet.sum(title, figure)
        refuse_flat_neck(sheet, rise.value)
    way = shoulder_way(sheet, snp_back, waist)
    school = sheet.choice("back_shoulder") if "back_shoulder" in sheet.options else "eased"
    extra = BACK_EASED if school == "eased" else 0.0
    forward = settled.forward / shoulder.value
    back_way, front_way = (way.moved(turn(Point(0.0, 0.0), by)) for by in (-forward, forward))
    with sheet.step(
        "Shoulders", "One slope for back and front. The back shoulder is longer by what is eased in or taken by its dart."
    ):
        tip_back, tip_front = snp_back + back_way * (shoulder.value + extra), snp_front + front_way * shoulder.value
        across_back = (sheet.measure("across_back") / 2 + sheet.ease("across_back") / 2).called("half across back")
        across_chest = (sheet.measure("across_chest") / 2 + sheet.ease("across_back") / 2).called("half across chest")
        chest_back = Point(across_back.value, depth.value / 2)
        chest_front = Point(across_chest.value, tip_front.y + chest_back.y - tip_back.y)
        for name, snp, tip, chest, letters, width in (
            ("back", snp_back, tip_back, chest_back, "TK", across_back),
                ("front", snp_front, tip_front, chest_front, "SN", across_chest),
        ):  # fmt: skip
            line = board.path(name, Path.through(snp, tip))
            sheet.line(
                f"{name}_shoulder_guide",
                f"{name.capitalize()} shoulder",
                line,
                figure=drawn(line.length, f"{name} shoulder"),
                piece=name,
            )
            sheet.point(f"{name}_tip", f"{name.capitalize()} shoulder tip", board.spot(name, tip), letters[0], piece=name)
            sheet.point(
                f"{name}_chest",
                f"{name.capitalize()} chest point",
                board.spot(name, chest),
                letters[1],
                figure=width,
                piece=name,
            )
            sheet.sum(width.name, width)
        sheet.sum("slope, degrees", Quantity(round(math.degrees(math.atan2(way.y, way.x)), 1), plain=True, source="constant"))
    point = _bust_point(sheet, snp_front, wide_front.value)
    meets = neck_meets(sheet.rules)
    back_curve = back_neck(Point(0, 0), snp_back, back_way, meets)
    shape = sheet.choice("neck_shape")
    pit = deep_enough(pit, snp_front, front_way, back_curve.length, neck.value, shape, meets)
    if sheet.rules > 1 and isinstance(sheet.options["neck_depth"], Quantity):
        pit = high_enough(pit, snp_front, front_way, back_curve.length, neck.value, shape, meets)
        sheet.options["neck_depth"] = drawn(pit.y - snp_front.y, "front neck depth")
    front_curve = front_neck(pit, snp_front, front_way, shape, meets)
    sheet.points["pit"] = board.spot("front", pit)
    return Frame(
        depth, waist, back_way, front_way, snp_back, snp_front, pit, tip_back, tip_front, across_back, across_chest, chest_back, chest_front,
            point,
        back_curve, front_curve, shoulder.value, school, meets,
    )  # fmt: skip


def shoulder_way(sheet: Sheet, snp: Point, waist: float) -> Point:
    """The direction of the shoulder line outwards, from the slope that was measured, else from its fall."""
    shoulder, slope = sheet.measure("shoulder").value, sheet.chart.get("shoulder_slope")
    if slope is not None:
        sine = shoulder_sine(snp, shoulder, Point(0.0, waist), slope)
        fall = None if sine is None else math.asin(max(-1.0, min(1.0, sine)))
        if fall is not None and STEEP_LEAST <= fall <= STEEP_MOST:
            return Point(math.cos(fall), math.sin(fall))
        why = "does not meet the shoulder" if fall is None else f"gives a shoulder of {math.degrees(fall):.0f} degrees"
        sheet.note(
            say(
                f"Shoulder slope {{0}} {why}; 8 to 32 is usual. Read it again; until then the shoulder falls as measured by "
                f"its drop, or 20 degrees.",
                slope,
            )
        )
    drop = sheet.chart.get("shoulder_drop")
    if drop is None or not 0 < drop < shoulder:
        return Point(math.cos(USUAL_FALL), math.sin(USUAL_FALL))
    fall = min(max(math.asin(drop / shoulder), STEEP_LEAST), STEEP_MOST)
    return Point(math.cos(fall), math.sin(fall))


def _bust_point(sheet: Sheet, snp: Point, snp_x: float) -> Point:
    span, depth = sheet.measure("bust_span"), sheet.measure("bust_depth")
    aside = span.value / 2 - snp_x
    if depth.value <= abs(aside):
        raise CannotDraft(
            ("bust_depth", "bust_span"),
            say("Bust depth {0} is shorter than the step sideways to the bust point, {1u}: read bust depth and bust span "
                "again.", depth.value, abs(aside)),
        )  # fmt: skip
    return Point(span.value / 2, snp.y + math.sqrt(depth.value**2 - aside**2))


def refuse_frame(sheet: Sheet, frame: Frame, strip: Quantity) -> None:
    """What cannot be a bodice, with the measures to blame. Raises CannotDraft."""
    read = {
        code: sheet.chart.get(code) or 0.0
        for code in ("upper_arm", "across_back", "across_chest", "high_bust", "nape_waist", "armscye_depth", "bust_span")
    }
    least = read["upper_arm"] / 4 if read["upper_arm"] else 4.0
    if strip < least:
        raise CannotDraft(
            ("across_back", "across_chest", "high_bust"),
            say("Only {0} is left under the arm, at least {1} is wanted: across back {2} or across chest {3} is too wide for "
                "high bust {4u}. Read all three again, or give more bust ease.",
                strip.value, least, read["across_back"], read["across_chest"], read["high_bust"]),
        )  # fmt: skip
    if frame.depth.value > frame.waist - 6:
        raise CannotDraft(
            ("armscye_depth", "nape_waist"),
            say("The bust line at {0} lies within 6 of the waist at {1u}: read armscye depth and nape to waist again.",
                frame.depth.value, frame.waist),
        )  # fmt: skip
    if frame.chest_back.y - frame.tip_back.y < 3:
        raise CannotDraft(
            ("shoulder_slope", "armscye_depth"),
            say("The back chest point lies only {0} below the shoulder tip, under 3: read shoulder slope and armscye depth "
                "again.", frame.chest_back.y - frame.tip_back.y),
        )  # fmt: skip
    if frame.chest_front.x < read["bust_span"] / 2 + 1:
        raise CannotDraft(
            ("across_chest", "bust_span"),
            say("Half across chest {0} does not reach past the bust point at {1u}: read across chest and bust span again.",
                frame.chest_front.x, read["bust_span"] / 2),
        )  # fmt: skip
    above, below = frame.bust_point.y - frame.chest_front.y, frame.waist - frame.bust_point.y
    if above < 4 or below < 3:
        raise CannotDraft(
            ("bust_depth", "snp_waist_front", "nape_waist"),
            say("The bust point lies {0} below the chest point and {1} above the waist; at least 4 and 3 are wanted: read "
                "bust depth and side neck to waist, front, again.", above, below),
        )  # fmt: skip
