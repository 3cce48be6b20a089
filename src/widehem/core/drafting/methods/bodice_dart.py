"""The bust dart of a measured bodice: the angle it opens by, the front once it is open, and what cannot be."""

from __future__ import annotations

import math
from collections.abc import Callable

from widehem.core.drafting.bodice import Half
from widehem.core.drafting.methods.bodice_frame import Frame
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.upper import DOWN, armhole
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.solve import solve_or_nearest
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say

BALANCE_MOST = math.radians(8)
SINE_MOST = 0.966
TABLE_AT, TABLE_MOUTH, TABLE_STEP = 88.0, 7.0, 0.6 / 4


def turned(frame: Frame, angle: float) -> tuple[Point, Point, Point]:
    """Shoulder middle, tip and chest point of the front once the dart is open."""
    way = turn(frame.bust_point, angle)
    return frame.shoulder_middle.moved(way), frame.tip_front.moved(way), frame.chest_front.moved(way)


def rounded(sheet: Sheet, code: str) -> int:
    """How far an armhole may be hollowed beyond its default, so that it can be sewn: 0 not at all; never further than was set."""
    return sheet.rules - 1 if sheet.options[code] == sheet.settings[code].by_rules(sheet.rules).default else 0


def front_armhole(frame: Frame, under: Point, side: Point, angle: float, hollow: float, *, rounded: int = 0) -> Path:
    """The front armhole with the bust dart open by an angle."""
    _, tip, chest = turned(frame, angle)
    shoulder = frame.shoulder_way_front.moved(turn(Point(0, 0), angle))
    return armhole(tip, shoulder, chest, DOWN.moved(turn(Point(0, 0), angle / 2)), under, side, hollow, rounded=rounded)


def computed_angle(frame: Frame, spare: float) -> float:
    """The angle that moves the chest point out by half the bust difference, radians."""
    q = frame.chest_front - frame.bust_point
    sine, reach = (q.x + spare) / q.size, q.size
    if sine > SINE_MOST:
        raise CannotDraft(
            ("bust", "high_bust", "bust_depth"),
            say("Bust difference {0} is too much for a chest point {1} from the bust point: read bust, high bust and bust "
                "depth again.", spare * 2, reach),
        )  # fmt: skip
    return math.asin(sine) - math.asin(q.x / reach)


def angle_by_school(sheet: Sheet, amount: str, reach: float) -> float:
    bust = sheet.measure("bust").value
    mouth = {"sixteenth": bust / 16, "twentieth": bust / 20, "table": TABLE_MOUTH + TABLE_STEP * (bust - TABLE_AT)}[amount]
    return 2 * math.asin(min(max(mouth, 0.0) / 2 / reach, 0.99))


def balanced_angle(length: Callable[[float], float], want: float, asked: float) -> float:
    """The angle at which the front armhole is no longer than the back, at most 8 degrees more than asked."""
    if length(asked) <= want:
        return asked
    return solve_or_nearest(lambda angle: length(angle) - want, asked, asked + BALANCE_MOST, near=0.001)


def halved_angle(length: Callable[[float], float], want: float, asked: float) -> float:
    """The same by the first rules: by halving, which may stop at the end that was not tried last."""
    if length(asked) <= want:
        return asked
    low, high = asked, asked + BALANCE_MOST
    if length(high) > want:
        return high
    for _ in range(30):
        middle = (low + high) / 2
        over = length(middle) - want
        low, high = (middle, high) if over > 0 else (low, middle)
        if abs(over) < 0.002:
            break
    return high


def refuse_turned(sheet: Sheet, frame: Frame, shut: Half, angle: float) -> None:
    _, _, chest = turned(frame, angle)
    if chest.y > shut.under.y - 2 or chest.x > shut.under.x - 1:
        raise CannotDraft(
            ("bust", "high_bust", "across_chest", "armscye_depth"),
            say(
                "With the bust dart open the chest point lies {0} above the underarm and {1} inside the side, under 2 and "
                "1u: read bust, high bust, across chest and armscye depth again.".replace("1u", "1"),
                shut.under.y - chest.y, shut.under.x - chest.x,
            ),
        )  # fmt: skip
