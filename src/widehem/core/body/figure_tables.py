"""Figure tables: how the measures of one kind of build follow from one another.

A table is data that a workroom can copy and change: one formula per measure, written with the codes of the catalogue,
numbers, + - * /, brackets and root(). F is the frame, which upper body measures follow instead of the cup.
"""

from __future__ import annotations

from collections.abc import Mapping

from widehem.core.values import record

BASES = ("height", "bust", "waist", "hip")  # never worked out from others; a wholly estimated body takes the table's row


@record(frozen=True, eq=False)
class FigureTable:
    """One table; two are the same only when they are one. bust_difference: bust over high bust, cm. row: the table's own body, cm. formulas: by measure.
    young: a growing body, whose chart ages faster."""

    code: str
    name: str
    bust_difference: float
    row: Mapping[str, float]
    formulas: Mapping[str, str]
    young: bool = False


_CURVED = {
    "high_bust": "bust - 5",
    "under_bust": "bust - 14",
    "neck": "F / 4 + 15",
    "armscye_depth": "F / 8 + height / 16 - 0.75",
    "across_back": "F / 4 + 12.4",
    "across_chest": "across_back - 2",
    "shoulder": "12.2 + (F - 88) / 16",
    "across_shoulders": "2 * shoulder + neck / 3 + 1.8",
    "bust_span": "bust / 10 + 10",
    "bust_depth": "26.5 + (high_bust - 83) / 8 + 0.4 * (bust - high_bust - 5) + (height - 164) / 16",
    "bust_front": "bust / 2 + (bust - high_bust) / 2",
    "waist_front": "waist / 2 + 1.5",
    "hip_front": "hip / 2 - 1",
    "upper_arm": "F / 4 + 6.5",
    "elbow_bent": "upper_arm - 1",
    "wrist": "F / 16 + 10.5",
    "hand": "wrist + 6",
    "armscye": "F / 3 + height / 16 + 0.45",
    "head": "height / 16 + 45.75",
    "strap_to_strap": "across_chest - 6.4",
    "nape_waist": "height / 4",
    "waist_hip": "height / 8",
    "waist_high_hip": "0.44 * waist_hip",
    "high_hip": "waist + 0.68 * (hip - waist)",
    "crotch_depth": "hip / 8 + height / 20 + 7.05",
    "crotch_length": "2 * crotch_depth + 0.17 * hip",
    "waist_knee": "0.36 * height",
    "waist_floor": "0.635 * height",
    "waist_ankle": "0.58 * height",
    "inside_leg": "waist_floor - crotch_depth - 1",
    "nape_floor": "nape_waist + waist_floor - 3",
    "arm_length": "0.357 * height",
    "shoulder_elbow": "0.58 * arm_length",
    "underarm_wrist": "0.77 * arm_length",
    "snp_waist_back": "nape_waist + 1.5",
    "snp_waist_front": "snp_waist_back + (bust - high_bust) / 2 - 0.5",
    "front_neck_waist": "snp_waist_front - neck / 5 - 1.1",
    "waist_bust": "snp_waist_front - bust_depth - 0.5",
    "snp_under_bust": "bust_depth + 7.5",
    "waist_under_bust": "waist_bust - 7.5",
    "underarm_waist": "nape_waist - armscye_depth",
    "shoulder_drop": "0.344 * shoulder",
    "shoulder_slope": "distance(neck / 5 - 0.2 + root(shoulder, shoulder_drop), snp_waist_back - shoulder_drop)",
    "knee": "0.41 * hip - 2.5",
    "ankle": "0.245 * hip",
    "calf": "0.36 * hip + 1.2",
    "thigh": "0.6 * hip - 1.5",
}

_STRAIGHT = {
    **_CURVED,
    "high_bust": "bust - 2",
    "under_bust": "bust - 6",
    "across_back": "F / 4 + 14.4",
    "shoulder": "14.2 + (F - 96) / 16",
    "waist_front": "waist / 2 + 1",
}

_CHILD = {
    **_CURVED,
    "high_bust": "bust",
    "under_bust": "bust - 3",
    "across_back": "F / 4 + 11.4",
    "shoulder": "10.7 + (F - 66) / 16",
    "snp_waist_front": "snp_waist_back + (bust - high_bust) / 2",
    "waist_front": "waist / 2 + 0.5",
    "hand": "wrist + 4",
}

TABLES: dict[str, FigureTable] = {
    table.code: table
    for table in (
        FigureTable("curved", "Curved", 5.0, {"height": 164, "bust": 88, "waist": 69, "hip": 94}, _CURVED),
        FigureTable("straight", "Straight", 2.0, {"height": 176, "bust": 96, "waist": 82, "hip": 97}, _STRAIGHT),
        FigureTable("child", "Child", 0.0, {"height": 128, "bust": 66, "waist": 60, "hip": 70}, _CHILD, young=True),
    )
}
CURVED = TABLES["curved"]
