"""Sharing out what a skirt must lose between hip and waist: two schools, and the round figure that loses nothing."""

from __future__ import annotations

import math

from widehem.core.drafting.belly import UPRIGHT, Arcs, Lean, arcs_of, lean_of, say_belly
from widehem.core.drafting.knit import is_close
from widehem.core.drafting.sheet import Sheet
from widehem.core.setting.quantity import Quantity, drawn, smaller_of
from widehem.core.setting.refusal import CannotDraft
from widehem.core.units import say
from widehem.core.values import record

SHARE_LEAST, SHARE_MOST = 1.0, 4.5
DART_LEAST, DART_USUAL_MOST, DART_MOST = 1.2, 3.5, 4.5
BACK_DARTS_MOST, FRONT_DARTS_MOST = 3, 2
LEAN_OUT_ADVISE = 2.0
CLOSE_SIDE_MOST, WORTH_SAYING = 7.0, 0.1  # cm: what a side of a close knit takes at most; what is less goes without a word
NOTHING = Quantity(0.0, source="constant")


UPRIGHT_CENTRE = Lean()


@record(frozen=True)
class Panel:
    """One half panel as planned.

    hip, waist: widths at the hip line and, darts open, at the waist. side: what the side takes. darts, number: what
    the darts take together and how many there are. lean: how the centre front lies over a belly.
    """

    name: str
    hip: Quantity
    waist: Quantity
    side: Quantity
    darts: Quantity
    number: int
    lean: Lean = UPRIGHT_CENTRE

    @property
    def each(self) -> Quantity:
        return self.darts / self.number if self.number > 1 else self.darts


def share_out(sheet: Sheet, half: Quantity, back_hip: Quantity) -> tuple[str, Panel, Panel]:
    """Choose the school and share out what is to be lost between darts and side."""
    waist = (sheet.measure("waist") + sheet.ease("waist")).called("waist with ease")
    hip, front_hip = sheet.measure("hip"), (half - back_hip).called("front at the hip")
    if is_close(sheet):
        return "shared", *_close(sheet, (half - waist / 2).called("to lose in the half"), back_hip, front_hip)
    arcs = arcs_of(sheet)
    if arcs.read:
        return "shared", *_by_arcs(sheet, arcs, waist, half, front_hip)
    back_take, front_take = sheet.length("back_darts"), sheet.length("front_dart")
    back_fixed, front_fixed = (
        (waist / 4 + back_take).called("back waist"),
        (waist / 4 + front_take).called("front waist"),
    )
    share = ((back_hip + front_hip - back_fixed - front_fixed) / 2).called("share of each side")
    suits = SHARE_LEAST - 1e-9 <= share.value <= SHARE_MOST + 1e-9
    wanted = sheet.choice("school")
    figures = (sheet.measure("waist").value, hip.value, share.value, SHARE_LEAST, SHARE_MOST)
    reason = "waist {0} and hip {1} leave {2} for the side, fixed darts want {3} to {4u}"
    if wanted != "shared" and suits:
        with sheet.step(
            "Waist, fixed darts", "A quarter of the waist and the darts; what remains to the hip is the side's share."
        ):
            sheet.sum("back waist", back_fixed)
            sheet.sum("front waist", front_fixed)
            sheet.sum("side's share", share)
        back = Panel(
            "back",
            back_hip,
            back_fixed,
            (back_hip - back_fixed).called("back side"),
            back_take,
            2 if back_take > 0 else 0,
        )
        front = Panel(
            "front",
            front_hip,
            front_fixed,
            (front_hip - front_fixed).called("front side"),
            front_take,
            1 if front_take > 0 else 0,
        )
        if wanted == "auto":
            sheet.note(say(f"Fixed darts chosen: {reason}.", *figures))
        return "fixed", back, front
    if not suits:
        sheet.note(say(f"Shared-out darts drawn: {reason}.", *figures))
    lose = (half - waist / 2).called("to lose in the half")
    if lose.value <= 0:
        return "shared", *_leaning_out(sheet, lose, back_hip, front_hip)
    side = smaller_of(lose / 5, sheet.length("side_most")).called("each side")
    rest = (lose - side * 2).called("for the darts")
    with sheet.step(
        "Waist, shared-out darts",
        "A fifth of what is to be lost goes to each side, six tenths of the rest to the back darts, four to the front.",
    ):
        sheet.sum("to lose", lose)
        sheet.sum("each side", side)
        sheet.sum("for the darts", rest)
        back = _shared(sheet, "back", back_hip, side, rest * 0.6, BACK_DARTS_MOST)
        front = _shared(sheet, "front", front_hip, side, rest * 0.4, FRONT_DARTS_MOST)
    return "shared", back, front


def front_at_hip(sheet: Sheet, arcs: Arcs, usual: Quantity) -> Quantity:
    """The front panel at the hip: by the arc with its part of the ease, or as the school has it."""
    if arcs.hip is None:
        return usual
    ease = sheet.ease("hip") / 4 if sheet.choice("ease_place") == "even" else NOTHING
    return (arcs.hip + ease).called("front at the hip")


def _by_arcs(sheet: Sheet, arcs: Arcs, waist: Quantity, half: Quantity, front_hip: Quantity) -> tuple[Panel, Panel]:
    """Both panels as the arcs have them: each loses its own; both sides take the same, the darts what is left."""
    back_hip = (half - front_hip).called("back at the hip")
    front_waist = (waist / 4 if arcs.waist is None else arcs.waist + sheet.ease("waist") / 4).called("front waist")
    back_waist = (waist / 2 - front_waist).called("back waist")
    back_lose, front_lose = back_hip.value - back_waist.value, front_hip.value - front_waist.value
    usual = min(max((back_lose + front_lose) / 5, 0.0), sheet.length("side_most").value)
    belly = front_lose < 0
    lean = lean_of(-front_lose)
    side = min(usual, UPRIGHT) if belly else usual
    with sheet.step(
        "Waist, by the arcs",
        "Front and back as wide as the body is in front and behind; each side takes a fifth of what is to be lost, the darts of a "
        "panel what that leaves of its own.",
    ):
        sheet.sum("front waist", front_waist)
        sheet.sum("back waist", back_waist)
        sheet.sum("each side", drawn(side, "each side"))
        if belly:
            say_belly(sheet, lean)
        elif sheet.choice("school") != "auto":
            sheet.note(say("The darts follow the arcs of this body; a school of darts is for back and front in quarters."))
        front = _by_arc(sheet, "front", front_hip, front_lose + lean.tilt, side, FRONT_DARTS_MOST, lean)
        back = _by_arc(sheet, "back", back_hip, back_lose, side, BACK_DARTS_MOST, UPRIGHT_CENTRE)
    return back, front


def _by_arc(sheet: Sheet, name: str, hip: Quantity, lose: float, side: float, most: int, lean: Lean) -> Panel:
    """One panel that has so much to lose, cm; less than its side would take goes to the side alone."""
    if lose < side + DART_LEAST:
        waist = (hip - lose + lean.tilt).called(f"{name} waist")
        return Panel(name, hip, waist, drawn(lose, f"{name} side"), NOTHING, 0, lean)
    return _shared(sheet, name, hip, drawn(side, f"{name} side"), drawn(lose - side, f"{name} darts"), most)


def _close(sheet: Sheet, lose: Quantity, back_hip: Quantity, front_hip: Quantity) -> tuple[Panel, Panel]:
    """A close knit: no darts; both sides take it all, as far as a side can, and the waist is drawn in by what is left."""
    side = smaller_of(lose / 2, CLOSE_SIDE_MOST).called("each side")
    with sheet.step(
        "Waist of a close knit", "No darts: the sides take in what hip and waist differ by, the knit does the rest."
    ):
        sheet.sum("to lose", lose)
        sheet.sum("each side", side)
    left = (lose.value - 2 * side.value) * 2
    if left > WORTH_SAYING:
        sheet.note(
            say("The waist comes out {0u} wider than planned: draw it in with elastic, or take darts in woven cloth.", left)
        )
    return (
        Panel("back", back_hip, (back_hip - side).called("back waist"), side, NOTHING, 0),
        Panel("front", front_hip, (front_hip - side).called("front waist"), side, NOTHING, 0),
    )


def _leaning_out(sheet: Sheet, lose: Quantity, back_hip: Quantity, front_hip: Quantity) -> tuple[Panel, Panel]:
    out = lose / 2
    with sheet.step(
        "Waist without darts",
        "The waist is not smaller than the hip: no darts, and each side leans out by half the difference.",
    ):
        sheet.sum("to lose", lose)
        sheet.sum("each side", out.called("each side"))
    words = say(
        "Waist {0} with hip {1} leaves nothing to take in: no darts, each side leans out {2u}.",
        sheet.measure("waist").value,
        sheet.measure("hip").value,
        abs(out.value),
    )
    if -out.value > LEAN_OUT_ADVISE:
        words += say("Read the hip over the belly.")
    sheet.note(words)
    return (
        Panel("back", back_hip, (back_hip - out).called("back waist"), out.called("back side"), NOTHING, 0),
        Panel("front", front_hip, (front_hip - out).called("front waist"), out.called("front side"), NOTHING, 0),
    )


def _shared(sheet: Sheet, name: str, hip: Quantity, side: Quantity, share: Quantity, most: int) -> Panel:
    if share.value < DART_LEAST:
        taken = (side + share).called(f"{name} side")
        sheet.sum(f"{name}: too little for a dart, to the side", taken)
        return Panel(name, hip, (hip - taken).called(f"{name} waist"), taken, NOTHING, 0)
    number = min(max(math.ceil(share.value / DART_USUAL_MOST - 1e-9), 1), most)
    if share.value / number > DART_MOST + 1e-9:
        raise CannotDraft(
            ("waist", "hip"),
            say(
                f"Waist {{0}} and hip {{1}} leave {{2}} for the {name} darts, {number} of {{3u}} at most hold {{4}}: read "
                f"waist and hip again.",
                sheet.measure("waist").value, sheet.measure("hip").value, share.value, DART_MOST, number * DART_MOST,
            ),
        )  # fmt: skip
    share = share.called(f"{name} darts")
    sheet.sum(f"{name} darts, {number}" if number > 1 else f"{name} dart", share)
    taken = side.called(f"{name} side")
    return Panel(name, hip, (hip - taken).called(f"{name} waist"), taken, share, number)
