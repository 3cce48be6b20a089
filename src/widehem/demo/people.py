"""The Quayside Players' production The Lantern Ferry: made-up people, their readings over time, what they wear.

Readings are written as they were called out: a second reading after a slash, left and right apart behind a colon, inches
where somebody had an inch tape. Days count back from the day the demo is loaded.
"""

from __future__ import annotations

from dataclasses import dataclass, field

COMPANY, PRODUCTION = "Quayside Players", "The Lantern Ferry"


@dataclass(frozen=True)
class Sitting:
    """One occasion of measuring. readings: by code, 'first / second'; carry: what is not read comes over from before."""

    days: int
    over: str
    shoes: str
    readings: dict[str, str]
    unit: str = "cm"
    carry: bool = False
    note: str = ""
    by: str = "Bram Teague"


@dataclass(frozen=True)
class Person:
    """A wearer with charts, the oldest first."""

    name: str
    role: str
    sittings: tuple[Sitting, ...] = ()
    figure: str = "curved"
    allergies: str = ""
    movement: str = ""
    photo: bool = False


@dataclass(frozen=True)
class Garment:
    """A docket. settings as written; a plan of allowances; drawn on the oldest chart when drawn_on_oldest;
    rules: of an earlier version than today's; armhole: of a garment that exists; accepted: checks with a word, by whom, and the figure then."""

    name: str
    wearer: str
    options: dict[str, str] = field(default_factory=dict)
    ease: dict[str, str] = field(default_factory=dict)
    plan: str = "cloth"
    over: str = ""
    drawn_on_oldest: bool = False
    method: str = "skirt.two_panel"
    bodice: str = ""
    rules: int = 0
    armhole: dict[str, str] = field(default_factory=dict)
    accepted: dict[str, dict[str, object]] = field(default_factory=dict)


PEOPLE = (
    Person(
        "Odile Marsh", "Keeper of the ferry",
        (
            Sitting(206, "her own underthings", "flat shoes", {
                "height": "168", "bust": "91", "high_bust": "86.5", "waist": "80.5 / 80.2", "hip": "97.2 / 97", "waist_hip": "20.4", "waist_knee": "60.1",
            }, note="First fitting of the spring; the corset was not made yet."),
            Sitting(20, "corset and padding", "boots, 3 cm heel", {
                "height": "168", "neck": "37.5", "high_bust": "87.0 / 87.2", "bust": "92 / 92", "under_bust": "78", "waist": "78.0 / 78.4",
                "high_hip": "89", "hip": "98.0 / 97.6", "waist_high_hip": "9", "waist_hip": "20.5 / 20.5", "waist_knee": "60 / 60.3",
                "waist_floor": "107", "crotch_depth": "27.5", "inside_leg": "79", "nape_waist": "41.5 / 41.3", "snp_waist_back": "43",
                "snp_waist_front": "45.4 / 45.2", "bust_depth": "27.2", "across_back": "35.4 / 35", "across_chest": "33.2 / 33",
                "shoulder": "12.5 / 12.3", "arm_length": "59.5", "upper_arm": "29.5", "wrist": "16.3", "hand": "22.5",
                "underarm_waist": "20.3", "armscye": "41.6", "shoulder_drop": "4.3",
            }),
        ),
        allergies="Latex: no rubber elastic against the skin.", photo=True,
    ),
    Person(
        "Hester Vane", "A widow with a bird cage",
        (Sitting(19, "shift", "flat shoes", {
            "height": "159", "bust": "112", "high_bust": "104", "waist": "108.0 / 108.5", "hip": "104 / 104.4", "waist_hip": "20 / 20.2",
            "waist_knee": "57", "waist_floor": "101", "upper_arm": "36", "across_back": "39.5",
        }),),
    ),
    Person(
        "Perpetua Lund", "The singer in the lantern room",
        (
            Sitting(26, "laced corset", "heels, 6 cm", {
                "height": "172", "bust": "96", "high_bust": "89", "waist": "63 / 63.4", "hip": "102 / 102", "waist_hip": "21.5 / 21.5",
                "waist_knee": "62.5", "waist_floor": "111", "nape_waist": "41", "crotch_depth": "28",
            }),
            Sitting(7, "laced corset", "heels, 6 cm", {"waist": "61.4 / 61.6", "hip": "102.6 / 102.8", "bust": "96 / 96.2"}, carry=True,
                    note="Laced two fingers tighter than before."),
        ),
    ),
    Person(
        "Nell Askew", "A passenger, always late",
        (Sitting(14, "her own underthings", "", {
            "height": "5' 4\"", "waist": "29 1/4 / 29 3/8", "hip": "39 1/2", "waist_hip": "8¼", "bust": "36 1/2", "high_bust": "34",
        }, "in"),),
    ),
    Person(
        "Tam Quill", "The lamp child",
        (Sitting(82, "vest", "", {
            "height": "128", "waist": "57", "hip": "66.5", "waist_hip": "15.5 / 17", "waist_knee": "44.5", "bust": "62", "high_bust": "62",
        }),),
        figure="child",
    ),
    Person(
        "Ivo Brack", "The toll keeper",
        (Sitting(18, "shirt", "boots", {
            "height": "183", "waist": "88 / 88", "hip": "100 / 99.8", "waist_hip": "19.5", "waist_knee": "46", "waist_floor": "113", "neck": "40", "bust": "101",
        }),),
        figure="straight",
    ),
    Person(
        "Gideon Fenn", "First deckhand; voice of the fog",
        (Sitting(11, "shirt", "bare feet", {
            "height": "6' 2\"", "waist": "34 5/8 / 34 3/4", "hip": "39", "waist_front": "17 1/2", "hip_front": "19", "neck": "16 3/4", "high_bust": "43 1/4",
            "bust": "44 / 44 1/8", "bust_front": "22 1/4", "under_bust": "41 1/2", "shoulder": "6", "shoulder_drop": "2 1/8", "across_chest": "16", "across_shoulders": "18 3/8",
            "across_back": "16 5/8 / 16 1/2", "nape_waist": "18 3/8", "snp_waist_back": "19", "snp_waist_front": "19 1/4", "armscye_depth": "9 3/4",
            "waist_hip": "9 3/8", "waist_knee": "26 3/4", "waist_floor": "47", "inside_leg": "35", "upper_arm": "13 5/8", "arm_length": "26 1/2", "wrist": "7",
            "hand": "9 1/8", "crotch_depth": "11 3/8", "knee": "15", "ankle": "9 1/2", "bust_depth": "11", "bust_span": "8 3/4",
            "armscye": "18 3/4", "shoulder_elbow": "15 1/4",
        }, "in", by="Sorrel Dunn"),),
        figure="Ferry crew", movement="Climbs the rigging in the second act: knees to the chest, arms overhead.",
    ),
    Person(
        "Runa Sable", "The heron, danced",
        (
            Sitting(96, "body suit", "bare feet", {"height": "161", "waist": "61.2 / 61", "hip": "86.4", "bust": "80.5", "high_bust": "77.5", "waist_hip": "20", "waist_knee": "57.8"}),
            Sitting(5, "body suit", "bare feet", {
                "waist": "60 / 60.2", "hip": "86 / 86", "waist_front": "31.5", "hip_front": "42.1", "neck": "35.1", "high_bust": "77 / 77.2", "bust": "80 / 80",
                "bust_front": "41.6", "under_bust": "66", "shoulder:left": "11.9 / 12.1", "shoulder:right": "12.6 / 12.5", "across_chest": "31", "bust_span": "17.8",
                "bust_depth": "24.5", "snp_waist_front": "42.4", "across_shoulders": "37.4", "across_back": "33.2", "nape_waist": "40.2", "snp_waist_back": "41.8",
                "armscye_depth": "19.4", "shoulder_slope:left": "41.4", "shoulder_slope:right": "42", "waist_hip": "20.1", "waist_knee": "57.6", "waist_floor": "102",
                "inside_leg": "75.5", "armscye": "37.2", "upper_arm": "26.2", "arm_length:left": "57.5", "arm_length:right": "58", "elbow_bent": "25.6", "wrist": "15.5",
                "hand": "21.4", "crotch_depth": "25.8", "height": "161", "knee": "34.2", "ankle": "21.6", "shoulder_drop": "4", "snp_under_bust": "31.8",
                "strap_to_strap": "24.6", "shoulder_elbow": "33.4", "head": "55.4", "crotch_length": "66.8",
            }, note="Left shoulder sits lower since the fall in spring."),
        ),
        movement="Full split and arabesque; nothing that catches the foot.",
    ),
    Person(
        "Cosmo Plate", "The magistrate, padded",
        (Sitting(240, "shirt", "buckled shoes", {
            "height": "171", "waist": "121 / 121.4", "waist_front": "65.5", "hip": "112", "hip_front": "57.5", "waist_hip": "21", "waist_knee": "61", "neck": "43.5", "bust": "118", "high_bust": "113",
            "across_back": "42.6", "across_chest": "41", "waist_floor": "108",
        }),),
        figure="straight",
    ),
    Person(
        "Wren Tolliver", "Lamp child, second cast",
        (Sitting(12, "vest", "", {
            "height": "119", "waist": "55 / 55.2", "hip": "63", "waist_hip": "14.5", "waist_knee": "43", "bust": "60", "high_bust": "60", "nape_waist": "30",
            "shoulder": "10.3", "across_back": "26.2", "arm_length": "42.4", "wrist": "13.6", "head": "53",
        }),),
        figure="child",
    ),
    Person(
        "Augusta Pell", "Passenger in the wheeled chair",
        (Sitting(9, "soft bodice", "slippers", {
            "height": "157", "waist": "92 / 92.4", "hip": "109 / 109.2", "waist_hip": "19.5", "waist_knee": "57", "high_bust": "96", "bust": "104", "under_bust": "89.5",
            "nape_waist": "39.2", "upper_arm:left": "32.4", "upper_arm:right": "31", "crotch_depth": "28.4", "across_back": "37.5",
        }, note="All lengths were read seated where that could be done."),),
        allergies="Raw wool against the skin.", movement="Seated throughout. The left arm does not rise above the shoulder.",
    ),
    Person("Lasse Moor", "The ferryman's ghost"),
)  # fmt: skip

GARMENTS = (
    Garment("Ferry skirt", "Odile Marsh", {}, {"waist": "1.5 cm", "hip": "4 cm"}, over="corset and padding"),
    Garment("Mourning skirt", "Hester Vane", {"opening_at": "side", "length": "92 cm"}, {"waist": "2 cm"}, "simple"),
    Garment(
        "Lantern skirt",
        "Perpetua Lund",
        {"length": "70 cm"},
        {"waist": "1.5 cm"},
        "toile",
        over="laced corset",
        drawn_on_oldest=True,
    ),
    Garment("Travelling skirt", "Nell Askew", {}, {"waist": "1/2 in"}, "cloth_in"),
    Garment(
        "Heron practice skirt",
        "Runa Sable",
        {"length": "55 cm"},
        {"waist": "1.5 cm", "hip": "6 cm"},
        accepted={"stride": {"word": "danced in, slit to the thigh at the dress rehearsal", "by": "O.M.", "figure": -2.6}},
    ),
    Garment("Lap skirt", "Augusta Pell", {"length": "80 cm"}, {"waist": "2 cm", "hip": "6 cm"}),
    Garment("Gown skirt of the magistrate", "Cosmo Plate", {"length": "104 cm"}, {"waist": "2 cm"}, over="belly pad and shirt"),
    Garment("Heron bodice", "Runa Sable", method="bodice.measured", over="body suit"),
    Garment("Heron sleeve", "Runa Sable", {"cap_height": "low"}, method="sleeve.triangle", bodice="Heron bodice"),
    Garment("Smock of the deckhand", "Gideon Fenn", {"trued_hole": "set", "fold_chest": "0.3 cm"}, method="bodice.plain"),
    Garment("Crew trousers", "Gideon Fenn", method="trousers.crease"),
    Garment("Practice trousers", "Runa Sable", {"leg": "wide", "waistline": "elastic"}, method="trousers.frame"),
    Garment("Heron suit", "Runa Sable", {"leg": "straight"}, method="suit.one_piece", over="body suit"),
    Garment("Feather top", "Runa Sable", {"fit": "close", "stretch": "60"}, plan="jersey", method="top.jersey"),
    Garment("Feather sleeve", "Runa Sable", {"stretch": "60"}, plan="jersey", method="sleeve.pivot", bodice="Feather top"),
    Garment("Heron breastplate lining", "Runa Sable", {"neckline": "heart", "length": "10 cm"}, method="bodice.contour"),
    Garment(
        "Keeper's gown", "Odile Marsh", {"sweep": "400 cm"}, plan="toile", method="gown.seam_shaped", over="corset and padding"
    ),
    Garment("Keeper's sleeve", "Odile Marsh", plan="toile", method="sleeve.s_head", bodice="Keeper's gown"),
    Garment("Watch coat", "Gideon Fenn", method="coat.straight", over="shirt and smock", rules=1),
    Garment("Watch coat sleeve", "Gideon Fenn", {"elbow": "dart"}, method="sleeve.guide_box", bodice="Watch coat"),
    Garment("Lantern bodice", "Perpetua Lund", method="bodice.contour", over="laced corset"),
    Garment(
        "Sleeve for the old oilskin",
        "Gideon Fenn",
        {"cap_height": "middle"},
        method="sleeve.triangle",
        armhole={"front": "26.5 cm", "back": "27.5 cm", "depth": "20.5 cm"},
    ),
)

HOUSE_LIST = (
    "Quick fitting",
    [
        "waist",
        "hip",
        "high_bust",
        "bust",
        "shoulder",
        "across_back",
        "nape_waist",
        "waist_hip",
        "waist_knee",
        "arm_length",
        "height",
    ],
)
# where garments stand: days until it is ready, what it waits for, and how many days ago it was cut, fitted, finished
STANDS: dict[str, tuple[int | None, str, int | None, int | None, int | None]] = {
    "Lap skirt": (-3, "", 12, 5, None),
    "Ferry skirt": (4, "", None, None, None),
    "Heron bodice": (9, "fitting", 6, None, None),
    "Watch coat": (12, "cloth", None, None, None),
    "Crew trousers": (24, "", 20, 11, 2),
    "Mourning skirt": (24, "answer", None, None, None),
}
NOWHERE = (None, "", None, None, None)
# notes: on whom or what, words, whether with sketches
NOTES: tuple[tuple[str, str, tuple[str, ...]], ...] = (
    (
        "",
        "First dress rehearsal in the big hall. Every hem clear of the gangway: 6 cm off the floor, whatever the shoes.",
        (),
    ),
    ("Odile Marsh", "Puts the padding on herself; measure her over it only when she has walked about in it.", ()),
    (
        "Keeper's gown",
        "Lacing at the centre back: she has forty seconds between the storm and the landing.",
        ("laced-back", "gangway"),
    ),
    (
        "Heron bodice",
        "Second arm must reach the mast. Leave 3 cm in the side seams until the fitting.",
        ("laced-back", "gangway"),
    ),
    ("Smock of the deckhand", "As it is drawn: full in the back, the arms over the head all evening.", ("smock",)),
)
HOURS = {("Odile Marsh", "waist"): "10:15", ("Augusta Pell", "waist"): "16:40"}  # the time of day of a reading
HOUSE_VALUES = (
    ("sleeve.guide_box", "e.cap", "1.5 cm"),
    ("cloth", "a.hem", "5 cm"),
    ("trousers.crease", "o.seam_limit", "0.15 cm"),
)
HOUSE_EASE = (
    "Ferry crew coats",
    "over a wool jersey, arms up at the rope",
    "over_shirt",
    {"upper_arm": 8.0, "across_back": 4.0, "depth": 2.5},
)
HOUSE_TABLE = (
    "Ferry crew",
    "straight",
    {"across_back": "F / 4 + 15", "shoulder": "14.6 + (F - 96) / 16", "neck": "F / 4 + 14.5"},
)

COSTUMES = {  # what is worn over what, from the skin outwards: how it counts, closes, holds and comes off in a hurry
    "Ferryman": {
        "Deckhand's shirt": ("ordinary", "front, its whole length", "tails go into the breeches", ""),
        "Ferry master's waistcoat": (
            "ordinary", "front; all buttons but the lowest are sham over press studs", "buckle at the back",
            "Torn open from the top on stage left; the lowest button stays done. Twenty seconds, one dresser.",
        ),
    },
    "On the water": {
        "Heron bodice": ("close", "left side, hooks", "waist stay at the centre back", ""),
        "Lamplighter's robe": ("ordinary", "front, tied", "loop at the back neck", "Dropped off the shoulders over the rail."),
    },
}  # fmt: skip
WEARS = {"Ferryman": "Gideon Fenn", "On the water": "Runa Sable"}
DESIGNED = {  # designs that ship and who wears them
    "waistcoat": ("Runa Sable", "Gideon Fenn"),
    "shirt": ("Gideon Fenn", "Cosmo Plate"),
    "robe": ("Runa Sable", "Odile Marsh", "Augusta Pell"),
    "clown": ("Gideon Fenn",),
}
