"""The pivot sleeve for a jersey top: half a sleeve, mirrored, its cap without ease."""

from __future__ import annotations

import math

from widehem.core.drafting.arm import arm_of
from widehem.core.drafting.cap import WAVES, cap_curve, cap_on, fitted, followed, waves
from widehem.core.drafting.common_options import CLOTH
from widehem.core.drafting.finished import show_edges
from widehem.core.drafting.method import Method, Need, register
from widehem.core.drafting.methods.sleeve_options import length_option
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.sleeve_piece import hand_over_sleeve, room_for, sleeve_piece
from widehem.core.drafting.sleeve_seams import straight_seams
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.setting.quantity import drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import replace

START_SHORT = 0.7  # cm: the first trial of the pivoted line against half the armhole
OFFSETS = ((1 / 3, 1.75), (2 / 3, 0.0), (5 / 6, -0.6))  # along the line from the crown, and out of it
USUAL_LINE = 22.0  # cm: the line to which the offsets belong
HEM_PART = 2 / 3
LONGER = 1.5
LENGTH = length_option(LONGER)


def cap_points(height: float, half: float) -> list[Point]:
    """The points of the whole cap, from the back underarm, the bicep line from x = 0 to twice the half bicep."""
    crown, end = Point(half, -height), Point(2 * half, 0.0)
    way = (end - crown).unit()
    out = Point(way.y, -way.x)
    small = min(1.0, crown.to(end) / USUAL_LINE)
    front = [crown, *(crown.toward(end, part) + out * (off * small) for part, off in OFFSETS), end]
    return [*(Point(2 * half - p.x, p.y) for p in reversed(front[1:])), *front]


def _cap(height: float, half: float, length: float, part: float = HEM_PART, low: tuple[Path, Path] | None = None) -> Path:
    """The cap, square to seams that run to a hem of this part of the width."""
    down = max(length - height, 1.0)
    aside = half * (1 - part)
    points, seams = cap_points(height, half), (Point(aside, down), Point(-aside, down))
    return cap_curve(points, *seams) if low is None else cap_on(low, points, *seams)


def draw(sheet: Sheet) -> None:
    """The sleeve, step by step."""
    armhole = sheet.armhole
    assert armhole is not None
    whole, length, arm = armhole.whole, sheet.length("length"), sheet.measure("upper_arm")
    with sheet.step("Cap height", "Half the depth of the armhole below the nape, and one; down the middle the length."):
        depth = drawn(armhole.level,
            "underarm level of the top") if armhole.level is not None else (sheet.measure("armscye_depth") + 1).called("underarm level")  # fmt: skip
        height = (depth / 2 + 1).called("cap height")
        sheet.sum("cap height", height)
        sheet.sum("length", length)
    high, part = height.value, HEM_PART
    if sheet.rules > 1:  # a short sleeve tapers no more than a long one has by there
        full = max(arm_of(sheet).wrist_at + LONGER - high, 1.0)
        part = 1 - (1 - HEM_PART) * min(max(length.value - high, 1.0) / full, 1.0)

    low = armhole.low if sheet.rules > 1 else None
    if low is not None:
        half = math.sqrt(max(whole * whole / 4 - high * high, 1.0))
        down, aside = max(length.value - high, 1.0), half * (1 - part)
        low = followed(low, cap_points(high, half), Point(aside, down), Point(-aside, down))

    def half_at(line: float) -> float:
        return math.sqrt(max(line * line - high * high, 0.0))

    def solved() -> float | None:
        def cap(line: float) -> float:
            return _cap(high, half_at(line), length.value, part, low).length

        return fitted(cap, whole, high + 0.5, whole / 2 + 1.0, None if low is None else whole / 2)

    with sheet.step(
        "Pivot line",
        "A straight line from the crown is swung down until it meets the bicep line, so long that the cap with its curve is "
        "as long as the armhole: no ease in a knit.",
    ):
        line = solved()
        if low is not None and (line is None or waves(_cap(high, half_at(line), length.value, part, low)) > WAVES):
            low = None  # this cap cannot follow its armhole: it runs through the points of its school alone
            line = solved()
        if line is None:
            raise CannotDraft(
                ("armscye_depth", "upper_arm"),
                say("No cap {0} high fits an armhole of {1u}: read armscye depth again, or draw the top with another depth "
                    "of armhole.", high, whole),
            )  # fmt: skip
        half = half_at(line)
        sheet.sum("half armhole", drawn(whole / 2, "half armhole"))
        sheet.sum("pivot line", drawn(line, "pivot line"))
        sheet.sum("half bicep line", drawn(half, "half bicep line"))
        sheet.line(
            "pivot_guide", "Pivot line", Path.through(Point(0, 0), Point(half, -high), Point(2 * half, 0)), piece="sleeve"
        )
        sheet.line(
            "middle",
            "Middle line",
            Path.through(Point(half, -high), Point(half, length.value - high)),
            role="balance",
            piece="sleeve",
            step=1,
        )
        sheet.point("crown", "Crown", Point(half, -high), "C", figure=height, piece="sleeve")
        sheet.point("back_underarm", "Back underarm", Point(0, 0), "A", piece="sleeve")
        sheet.point("front_underarm", "Front underarm", Point(2 * half, 0), "B", piece="sleeve")
        sheet.line("bicep_guide", "Bicep line", Path.through(Point(0, 0), Point(2 * half, 0)), role="balance", kind="level",
            edge="bicep", figure=drawn(2 * half, "bicep line"), piece="sleeve")  # fmt: skip
    down = length.value - high
    if down < 2:
        raise CannotDraft(
            ("arm_length",), say("A sleeve of {0} ends above its cap of {1u}: make it longer.", length.value, high)
        )
    seams = straight_seams(2 * half, 2 * half * part, down, level=sheet.rules > 1)
    cap = _cap(high, half, length.value, part, low)
    piece = sleeve_piece(cap, seams, armhole, cap.length / 2)
    with sheet.step(
        "Cap, seams and hem",
        "Out of the line at a third, on it at two thirds, in at five sixths; at the hem a third of the half width comes off.",
    ):
        show_edges(sheet, piece, [edge.name for edge in piece.edges],
            {"underarm_back": "underarm seam", "underarm_front": "underarm seam", "wrist": "hem"})  # fmt: skip
        sheet.rub_out("pivot_guide")
        sheet.sum("cap", drawn(cap.length, "cap"))
        sheet.sum("hem", drawn(seams.hem.length, "hem"))
    hand_over_sleeve(
        sheet,
        piece,
        armhole,
        arm.value,
        None,
        0.0,
        sheet.chart.get("hand") if arm_of(sheet).long(length.value) else None,
        down=down,
        more=room_for(arm_of(sheet), length.value, high),
    )
    sheet.note(say("Lay the greatest stretch round the arm, and set the sleeve in flat before the side seam is closed."))


METHOD = register(
    Method(
        "sleeve.pivot", "Pivot sleeve", "Sleeves",
        "For a jersey top: drawn as a half and mirrored, the cap as long as its armhole, without ease.",
        (
            Need("upper_arm", "what the sleeve goes round"),
            Need("armscye_depth", "the cap height, where the top is not known"),
            Need("arm_length", "the length, unless another is set", "length"),
        ),
        (LENGTH, replace(CLOTH, default="knit", group="cloth")), (), draw, rules=2, earlier=(1,), for_armhole=True, allowances="jersey", made_for="top.jersey",
    )
)  # fmt: skip
