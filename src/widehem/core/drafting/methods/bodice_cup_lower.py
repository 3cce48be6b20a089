"""The lower part of a cup-wedge front and back: waists over their darts, the side that runs straight on, the armhole that is
swung
out."""

from __future__ import annotations

import math
from typing import cast

from widehem.core.drafting.bodice import BUST_DART, ONE_DART_MOST, SHORT, Half, Lean, draw_waist
from widehem.core.drafting.methods.bodice_frame import Frame
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.upper import Gap, Stretch
from widehem.core.geometry.curves import Cubic
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.setting.quantity import drawn
from widehem.core.units import say

DART_LEAST = 0.7
SIDE_DART_LEAST = 1.0  # cm, by today's rules
BLAME = ("waist", "high_bust", "nape_waist")


def small_lean(length: float, ease: float, run: float) -> Lean:
    """The small-cup side: the ease of the quarter tapers to nothing at the waist."""
    return Lean(ease, 0.0, 0, max(-1.2, min(1.2, 0.5 * ease / length * run)))


def waist_of(half: Half, frame: Frame, lean: Lean, over: float, middles: list[tuple[float, float]], least: float) -> None:
    """The waist of a half: what is over goes into darts, less than the least (cm) to the side; what is short is added there."""
    blame = BLAME
    if over > least:
        count = min(max(1, math.ceil(over / ONE_DART_MOST)), len(middles))
        draw_waist(half, frame.waist, Lean(lean.side, over, count, lean.down), middles[:count], blame)
    else:
        draw_waist(half, frame.waist, Lean(lean.side + over, 0.0, 0, lean.down), [], blame)


def straight_on(half: Half, frame: Frame, way: Point, target: float, down: float, least: float) -> float:
    """The waist of a front whose side runs straight on; gives back what it has too much, cm."""
    out = way.x / way.y * (frame.waist - half.under.y)
    over = half.under.x + out - target
    x, top = frame.bust_point.x, frame.bust_point.y + 2.5
    reach = half.under.x + out - x
    middles = [(x, top), (x + 0.36 * reach, top + 1.5), (x + 0.68 * reach, top + 3)]
    waist_of(half, frame, Lean(-out, 0.0, 0, down), over, middles, least)
    return over


def least_waist_dart(sheet: Sheet) -> float:
    """The least waist dart that is drawn, cm: what is less goes to the side."""
    return 1.0 if sheet.rules > 3 else 0.3


def least_dart(sheet: Sheet) -> float:
    """The least side dart that is drawn, cm: what is less is eased in."""
    return SIDE_DART_LEAST if sheet.rules > 1 else DART_LEAST


def swung(hole: Path, angle: float) -> Path:
    """An armhole with its lower part turned outwards about the chest point, with half of the turn taken above it to run on."""
    upper, lower = (cast(Cubic, segment) for segment in hole.segments)
    hinge = lower.start
    whole, part = turn(hinge, -angle), turn(hinge, -angle / 2)
    above = Cubic(upper.start, upper.out, upper.into.moved(part), hinge)
    return Path((above, Cubic(hinge, lower.out.moved(part), lower.into.moved(whole), lower.end.moved(whole))))


def side_dart(sheet: Sheet, frame: Frame, back: Half, front: Half) -> None:
    """The front side is longer by the drop of the cup: that is the side dart, towards the bust point."""
    longer = front.length("side") - back.length("side")
    with sheet.step(
        "Side dart",
        say(
            "The front side is longer than the back by the drop of the cup. From {0u} on it is a dart towards the bust point, "
            "less is eased in.",
            least_dart(sheet),
        ),
    ):
        sheet.sum("front side longer by", drawn(longer, "front side longer by"))
        if longer < least_dart(sheet):
            return
        at = next(i for i, stretch in enumerate(front.walk) if stretch.edge == "side")
        side = front.walk[at].path
        way = (side.end - side.start).unit()
        foot = (frame.bust_point - side.start).dot(way)
        start = min(max(foot - longer / 2, 3.0), side.length - longer - 1.5)
        upper, rest = side.cut(start)
        _, lower = rest.cut(longer)
        front.walk = (*front.walk[:at], Stretch("side", upper), Stretch("side", lower), *front.walk[at + 1 :])
        middle = upper.end.toward(lower.start, 0.5)
        aim = middle + way.square() * way.square().dot(frame.bust_point - middle)  # both legs alike
        front.gaps["side"] = [Gap(BUST_DART, aim, SHORT)]
