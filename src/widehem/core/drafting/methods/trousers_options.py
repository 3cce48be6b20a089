"""What a maker may set on trousers, each with the reason it is there."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from widehem.core.drafting.belly import PANELS
from widehem.core.drafting.knit import CLOSEST
from widehem.core.setting.option import Choice, Option
from widehem.core.setting.quantity import Quantity, larger_of

FOOT, KNEE_ROOM = 1.35, 8.0  # the foot passes what is so many ankles round

LEG = Option(
    "leg", "Leg", "choice", "tapered", "how it runs below the knee",
    choices=(
        Choice("tapered", "Tapered", "narrower at the hem than at the knee"),
        Choice("straight", "Straight", "the hem as wide as the knee"),
        Choice("wide", "Wide", "straight from the fork to the hem, no knee"),
    ),
)  # fmt: skip
LEGS = Option(
    "legs", "Legs", "choice", "long", "where they end",
    choices=(Choice("long", "Long", "to the hem of the leg"), Choice("short", "Short", "cut level {5} below the crotch; both inseams are made equal there")),
)  # fmt: skip


def length_of_leg() -> Option:
    """The length of trousers."""
    return Option(
        "length", "Length", "length", None, "from the waist line to the hem, anywhere from {5} under the crotch; {3} above the floor unless another is set", 25.0, 130.0, 1.0,
        worked=lambda on: on["waist_floor"] - 3, uses=("waist_floor",),
    )  # fmt: skip


LENGTH = length_of_leg()
RISE = Option(
    "rise", "Crotch ease", "length", 1.5, "the crotch lies this far below the body; 0 close, {2.5} loose", 0.0, 4.0, 0.25
)
KNEE = Option(
    "knee_girth", "Knee girth", "length", None, "whole round; a bent knee wants {6} more than the knee, a usual leg has {8}", 24.0, 80.0, 0.5,
    worked=lambda on: on["knee"] + KNEE_ROOM, uses=("knee",), drawn=True,
)  # fmt: skip


def _hem(on: Mapping[str, Any]) -> Quantity:
    knee, leg = on["knee_girth"], on["leg"]
    if not isinstance(knee, Quantity):
        knee = Quantity(float(knee), "knee girth", "knee_girth", "option")
    foot = (on["ankle"] * FOOT).called("what the foot passes")
    if leg == "straight":
        return larger_of(knee.called("knee girth"), foot)
    return larger_of(knee * 0.8 if leg == "tapered" else knee + 8, foot)


HEM = Option(
    "hem_girth", "Hem girth", "length", None, "whole round; the foot must pass it without an opening", 18.0, 120.0, 0.5,
    worked=_hem, uses=("knee", "ankle"), after=("leg", "knee_girth"), drawn=True,
)  # fmt: skip
DARTS = Option(
    "waist_darts", "Waist darts", "choice", "auto", "what hip and waist differ by",
    choices=(
        Choice("auto", "As the figure asks", "the school's number, fewer where there is little to take in"),
        Choice("none", "None", "all at the side"),
        Choice("one", "One in each piece", "one behind, one in front"),
        Choice("two", "Two in each piece", "two behind, two in front"),
    ),
)  # fmt: skip
SEAT = Option(
    "seat", "Seat", "choice", "average", "a fuller seat leans the centre back further",
    choices=(Choice("flat", "Flat", "leans in and up by {2}"), Choice("average", "Average", "leans in and up by {2.5}"), Choice("full", "Full", "leans in and up by {3}")),
)  # fmt: skip
WAIST = Option(
    "waistline", "Waist", "choice", "band", "how it is finished and held",
    choices=(Choice("band", "Set into a band", "with darts and an opening"), Choice("elastic", "Elastic", "as wide as the hip, drawn in by a casing; no darts, no opening")),
)  # fmt: skip
CROTCH = Option(
    "crotch", "Crotch seam", "choice", "measured", "what to do where the measured crotch length asks for another",
    school=True, choices=(
        Choice("drawn", "As drawn", "it is held against the measure"),
        Choice("measured", "By the measure", "where it was read, centre back and back fork share what is lacking, at most {2} each"),
    ),
    before=((1, "drawn"),),
)  # fmt: skip
OPENING = Option(
    "opening_at", "Opening", "choice", "centre_front", "the hips must pass the closed waist",
    choices=(Choice("centre_front", "Centre front", "a fly"), Choice("side", "Left side", "in the side seam"), Choice("none", "None", "only where the waist passes the hips")),
)  # fmt: skip
OPENING_LENGTH = Option(
    "opening", "Opening length", "length", None, "from the waist down; to just above the hip line", 8.0, 30.0, 1.0,
    worked=lambda on: on["waist_hip"] - 2, uses=("waist_hip",),
)  # fmt: skip


def spread(default: float) -> Option:
    """How much more of knee and hem lies in the back. default: cm each side."""
    return Option(
        "spread",
        "Back wider at the knee",
        "length",
        default,
        "on each side; the back carries more of the leg",
        0.5,
        3.0,
        0.25,
    )


WAIST_SHARES = Option(
    "waist_shares", "Waist, front against back", "choice", "quarters", "makers differ; where the arcs were read they decide",
    choices=(
        Choice("quarters", "Quarters", "front and back alike"),
        Choice("front", "Front larger", "by {0.5}: the front lies over the belly"),
        Choice("back", "Back larger", "by {0.5}: on full seats"),
    ),
    when=(("panels", ("quarters",)),),
    school=True,
)  # fmt: skip
FORK = Option(
    "fork", "Fork", "choice", "own", "how far it lies beyond the centre at the hip",
    choices=(
        Choice("own", "As the school has it", "each its own"),
        Choice("hip", "By the hip", "a sixteenth of it in front, an eighth behind"),
        Choice("width", "By the front width", "a sixth of it in front; a twentieth of the hip and {2} more behind"),
    ),
    school=True,
)  # fmt: skip
HEM_SPREAD = Option(
    "hem_spread", "Back wider at the hem", "length", None, "on each side; as at the knee unless it is set", 0.0, 4.0, 0.25,
    worked=lambda on: Quantity(float(on["spread"]), "back wider at the hem"), after=("spread",),
)  # fmt: skip
HEM_END = Option(
    "hem_end", "Hem", "choice", "plain", "how the leg ends",
    choices=(
        Choice("plain", "Turned up", "the foot must pass it"),
        Choice("opening", "Close, with an opening", "by the leg there and {2}; {10} open in the side"),
        Choice("band", "Gathered into a band", "the hem 1.4 times the band; the band by the leg there and {2}"),
    ),
)  # fmt: skip


def ease(hip: float, waist: float) -> tuple[Option, ...]:
    """Ease of a school, cm whole round."""
    return (
        Option(
            "hip",
            "Hip ease",
            "length",
            hip,
            "whole round; to sit down and to climb a stair; less than 0 only in a knit",
            CLOSEST,
            20.0,
            0.5,
            least=3.0,
        ),
        Option(
            "waist",
            "Waist ease",
            "length",
            waist,
            "whole round, once it is set into its band; less than 0 only in a knit",
            CLOSEST,
            6.0,
            0.5,
            least=1.3,
        ),
    )


def options(width: float, *more: Option) -> tuple[Option, ...]:
    """All of them. width: how much wider the back is at knee and hem on each side, cm; more: the school's own."""
    return (
        LEG,
        LEGS,
        LENGTH,
        RISE,
        KNEE,
        HEM,
        spread(width),
        HEM_SPREAD,
        HEM_END,
        PANELS,
        WAIST_SHARES,
        FORK,
        DARTS,
        *more,
        WAIST,
        CROTCH,
        OPENING,
        OPENING_LENGTH,
    )


SEAT_LEAN = {"flat": 2.0, "average": 2.5, "full": 3.0}
