"""The Quayside Players' production The Lantern Ferry: made-up people, their readings, their skirts.

Readings are written as they were called out: a second reading after a slash, inches where somebody had an inch tape.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date

COMPANY, PRODUCTION = "Quayside Players", "The Lantern Ferry"


@dataclass(frozen=True)
class Person:
    """A wearer with one chart. readings: by code, 'first / second'."""

    name: str
    role: str
    taken_on: date
    foundation: str
    shoes: str
    readings: dict[str, str]
    unit: str = "cm"
    figure: str = "curved"


@dataclass(frozen=True)
class Garment:
    """A docket. settings as written; a plan of allowances."""

    name: str
    wearer: str
    options: dict[str, str] = field(default_factory=dict)
    ease: dict[str, str] = field(default_factory=dict)
    plan: str = "cloth"


MEASURED_BY = "Bram Teague"

PEOPLE = (
    Person(
        "Odile Marsh", "Keeper of the ferry", date(2026, 11, 3), "corset and padding", "boots, 3 cm heel",
        {
            "height": "168", "neck": "37.5", "high_bust": "87.0 / 87.2", "bust": "92 / 92", "under_bust": "78", "waist": "78.0 / 78.4",
            "high_hip": "89", "hip": "98.0 / 97.6", "waist_high_hip": "9", "waist_hip": "20.5 / 20.5", "waist_knee": "60 / 60.3",
            "waist_floor": "107", "crotch_depth": "27.5", "inside_leg": "79", "nape_waist": "41.5 / 41.3", "snp_waist_back": "43",
            "snp_waist_front": "45.4 / 45.2", "bust_depth": "27.2", "across_back": "35.4 / 35", "across_chest": "33.2 / 33",
            "shoulder": "12.5 / 12.3", "arm_length": "59.5", "upper_arm": "29.5", "wrist": "16.3", "hand": "22.5",
        },
    ),
    Person(
        "Hester Vane", "A widow with a bird cage", date(2026, 11, 4), "shift", "flat shoes",
        {
            "height": "159", "bust": "112", "high_bust": "104", "waist": "108.0 / 108.5", "hip": "104 / 104.4", "waist_hip": "20 / 20.2",
            "waist_knee": "57", "waist_floor": "101", "upper_arm": "36", "across_back": "39.5",
        },
    ),
    Person(
        "Perpetua Lund", "The singer in the lantern room", date(2026, 10, 28), "laced corset", "heels, 6 cm",
        {
            "height": "172", "bust": "96", "high_bust": "89", "waist": "63 / 63.4", "hip": "102 / 102", "waist_hip": "21.5 / 21.5",
            "waist_knee": "62.5", "waist_floor": "111", "nape_waist": "41", "crotch_depth": "28",
        },
    ),
    Person(
        "Nell Askew", "A passenger, always late", date(2026, 11, 9), "her own underthings", "",
        {"height": "5' 4\"", "waist": "29 1/4 / 29 3/8", "hip": "39 1/2", "waist_hip": "8¼", "bust": "36 1/2", "high_bust": "34"},
        "in",
    ),
    Person(
        "Tam Quill", "The lamp child", date(2026, 9, 2), "vest", "",
        {"height": "128", "waist": "57", "hip": "66.5", "waist_hip": "15.5 / 17", "waist_knee": "44.5", "bust": "62", "high_bust": "62"},
        figure="child",
    ),
    Person(
        "Ivo Brack", "The toll keeper", date(2026, 11, 5), "shirt", "boots",
        {"height": "183", "waist": "88 / 88", "hip": "100 / 99.8", "waist_hip": "19.5", "waist_knee": "46", "waist_floor": "113", "neck": "40", "bust": "101"},
        figure="straight",
    ),
)  # fmt: skip

GARMENTS = (
    Garment("Ferry skirt", "Odile Marsh", {}, {"waist": "1.5 cm", "hip": "4 cm"}),
    Garment("Mourning skirt", "Hester Vane", {"opening_at": "side", "length": "92 cm"}, {"waist": "2 cm"}, "simple"),
    Garment("Lantern skirt", "Perpetua Lund", {"length": "70 cm"}, {"waist": "1.5 cm"}, "toile"),
    Garment("Travelling skirt", "Nell Askew", {}, {"waist": "1/2 in"}, "cloth_in"),
)
