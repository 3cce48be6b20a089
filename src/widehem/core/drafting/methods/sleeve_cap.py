"""The cap of a sleeve: what is held of it, width, height or both, and what is solved until it fits its armhole."""

from __future__ import annotations

from collections.abc import Callable

from widehem.core.drafting.cap import (
    FOLLOWED,
    FOLLOWED_SMALL,
    HIGH,
    LOW,
    NEAR,
    WAVES,
    Armhole,
    cap_curve,
    cap_on,
    fitted,
    followed,
    waves,
)
from widehem.core.drafting.sheet import Sheet
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import solve_length, solve_or_nearest
from widehem.core.pattern.checks.sleeve import CAP_SLACK
from widehem.core.setting.quantity import Quantity, drawn
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record

SHORTER = (3.0, 2.2, 1.5)  # cm of the armhole
USUAL_HEIGHT = 0.31  # of the armhole: how high a high cap is, about
SHARE = {"high": 1.0, "middle": 2 / 3, "low": 1 / 3}
LEAST_OVER_ARM = 2.0
DEPTH_PART = 5 / 6
BULGE_IN, BULGE_OUT = -1.0, 2.0  # cm that one half of a cap may be rounded in or out


@record(frozen=True)
class Cap:
    """A solved cap, cm. width: at the bicep line; height; curve from back to front underarm; wanted: the ease it was to have,
    None where that is read."""

    width: float
    height: float
    curve: Path
    wanted: float | None = None


Shape = Callable[[float, float], tuple[list[Point], int]]
Low = tuple[Path, Path] | None
Wrist = Callable[[float, float], float]  # the hem of a sleeve so wide with a cap so high, cm


def _seams(width: float, hem: float, down: float) -> tuple[Point, Point]:
    """Directions of both underarm seams, downwards."""
    aside = (width - hem) / 2
    return Point(aside, down).unit(), Point(-aside, down).unit()


def _curve(shape: Shape, low: Low, length: float, hem: Wrist, width: float, height: float) -> Path:
    """The cap. low: of the armhole, where it is to be followed."""
    found, _ = shape(width, height)
    seams = _seams(width, min(hem(width, height), width), max(length - height, 1.0))
    return cap_curve(found, *seams) if low is None else cap_on(low, found, *seams)


def held_height(sheet: Sheet, armhole: Armhole, over_third: float) -> float | None:
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


def solved_cap(
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
        low = followed(
            low,
            points(width.value, guess)[0],
            *_seams(width.value, aside, max(length - guess, 1.0)),
            FOLLOWED_SMALL if sheet.rules > 3 else FOLLOWED,
        )

    def curve(wide: float, height: float, shape: Shape = points) -> Path:
        return _curve(shape, low, length, hem, wide, height)

    if sheet.choice("hold") == "both":
        high = (asked.held or asked.whole / 3) * asked.share
        if waves(curve(width.value, high)) > WAVES:  # it leaves its armhole earlier
            low = _shorter(low)
            low = low if waves(curve(width.value, high)) <= WAVES else None
        return _both_held(sheet, asked, points, curve, width, ease)
    with sheet.step(
        "Bicep line and cap",
        "The width of the arm with its ease; then the height at which the cap is as long as the armhole and the cap ease.",
    ):
        sheet.sum("armhole, front", drawn(armhole.front, "front armhole"))
        sheet.sum("armhole, back", drawn(armhole.back, "back armhole"))
        sheet.sum("bicep line of a high cap", width)
        less = SHORTER if sheet.rules > 3 else SHORTER[:1]
        for shorter in (low, *(_shorter(low, by) for by in less), None):
            low = shorter  # where it cannot follow its armhole so far it follows it less, or not at all
            try:
                wide, height = _solution(asked, curve, width.value, length, guess)
            except CannotDraft:
                if low is None:
                    raise
                continue
            if low is None or waves(curve(wide, height)) <= WAVES:
                break
        sheet.sum("cap ease", ease)
        sheet.sum("cap height", drawn(height, "cap height"))
        sheet.sum("bicep line", drawn(wide, "bicep line"))
    return Cap(wide, height, curve(wide, height), ease.value)


def _both_held(
    sheet: Sheet, asked: _Asked, points: Shape, curve: Callable[[float, float, Shape], Path], width: Quantity, ease: Quantity
) -> Cap:
    """Width and height as they are held; the ease is read, or brought about by rounding one half of the cap."""
    wide, height = width.value, (asked.held or asked.whole / 3) * asked.share
    side = sheet.choice("bulge")
    with sheet.step("Bicep line and cap", "Width and height are held; the ease of the cap is read off what is drawn."):
        sheet.sum("bicep line", width)
        sheet.sum("cap height", drawn(height, "cap height"))
        flat = curve(wide, height, points).length - asked.whole
        sheet.sum("cap ease come out", drawn(flat, "cap ease"))
        if side == "none":
            sheet.note(
                say(
                    "Held {0} wide and {1} high, the ease of the cap comes out at {2s}; wanted was {3s}.",
                    wide,
                    height,
                    flat,
                    ease.value,
                )
            )
            return Cap(wide, height, curve(wide, height, points))

        def over(by: float) -> float:
            return curve(wide, height, bulged(points, side, by)).length - asked.whole - ease.value

        by = solve_or_nearest(over, BULGE_IN, BULGE_OUT, near=1e-3)
        sheet.sum(f"{side} half rounded out by", drawn(by, "bulge"))
        way = "out" if by > 0 else "in"
        sheet.note(say(f"The {side} half of the cap is rounded {way} by {{0u}}; its ease was {{1s}} before.", abs(by), flat))
    found = curve(wide, height, bulged(points, side, by))
    return Cap(wide, height, found, ease.value if abs(over(by)) < CAP_SLACK else None)


def bulged(shape: Shape, side: str, by: float) -> Shape:
    """A shape of cap with its front or back half moved out of the cap by so much next to the crown, half as much below, cm."""

    def points(width: float, height: float) -> tuple[list[Point], int]:
        found, crown = shape(width, height)
        hand, end = (1, found[-1]) if side == "front" else (-1, found[0])
        out = (end - found[crown]).unit().square()
        out = out if out.y < 0 else -out
        for step, part in ((1, 1.0), (2, 0.5)):
            found[crown + hand * step] += out * (by * part)
        return found, crown

    return points


def _shorter(low: Low, long: float = SHORTER[0]) -> Low:
    """Less of the beginning of an armhole: so much, cm."""
    if low is None:
        return None
    front, back = (path.cut(long)[0] if path.length > long else path for path in low)
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


def _solution(
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
