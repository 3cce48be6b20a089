"""Where the bust dart of a measured bodice lies: at one place, shared between two, or eased into the armhole."""

from __future__ import annotations

import math

from widehem.core.drafting.bodice import BUST_DART, place_dart
from widehem.core.drafting.methods.bodice_frame import Frame
from widehem.core.drafting.sheet import Sheet
from widehem.core.geometry.curves import curve_between
from widehem.core.geometry.paths import Path
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.held import NotchAt
from widehem.core.pattern.edge import Dart, Edge, Held, Notch
from widehem.core.pattern.garment import EdgeRef
from widehem.core.pattern.piece import Piece
from widehem.core.units import say
from widehem.core.values import replace

MOUTH_MOST = 8.0  # cm that one bust dart opens at the shoulder
MOUTH_SMALL = 2.5  # cm: one that opens less is eased in
EASED_MOST = 1.0  # cm that an armhole can be eased in
EASED_OVER = 2.5  # cm on each side of the chest point over which it is done
REDRAWN, HELD_LEAST = 4.5, 0.05  # cm of the armhole on each side that is drawn again; that is eased at least
WIDE = math.radians(30)


def placed(sheet: Sheet, frame: Frame, front: Piece, angle: float) -> tuple[Piece, list[Demand]]:
    """The front with its dart, so far (radians) open at the shoulder, where it is wanted; and what holds it there."""
    wanted, below = sheet.choice("dart_place"), sheet.length("side_below").value
    if not angle:
        if wanted not in ("shoulder", "usual"):
            sheet.note(say("There is no bust dart to place: bust and high bust differ too little."))
        return front, []
    mouth = 2 * frame.shoulder_middle.to(frame.bust_point) * math.sin(angle / 2)
    place = _usual(sheet, mouth) if wanted == "usual" else wanted
    shares = {"shoulder": 0.5, "waist": 0.5} if place == "shared" else {place: 1.0}
    if place == "eased":
        in_hole = place_dart(front, {"armhole": 1.0}, below)
        made, asked, held = _eased(in_hole)
        if held <= EASED_MOST:
            sheet.note(
                say(
                    "There is no bust dart, it would be {0} wide at the shoulder: ease {1u} of the front armhole in between its "
                    "two ease notches, on a tape.",
                    mouth,
                    held,
                )
            )
            return made, asked
        sheet.note(
            say(
                "The armhole would have to be eased in by {0}, over {1u}: the bust dart lies in the side instead.",
                held,
                EASED_MOST,
            )
        )
        shares = {"side": 1.0}
    if shares != {"shoulder": 1.0}:
        front = place_dart(front, shares, below)
    if place != "shared" and (angle > WIDE or mouth > MOUTH_MOST):
        sheet.note(
            say(
                f"The bust dart opens {math.degrees(angle):.0f} degrees, {{0u}} at the shoulder: share it between two places.",
                mouth,
            )
        )
    return front, []


def _usual(sheet: Sheet, mouth: float) -> str:
    """Where a dart goes that would be so wide (cm) at the shoulder, when nothing is said."""
    if mouth > MOUTH_MOST:
        sheet.note(say("The bust dart would open {0u} at the shoulder: it is shared between shoulder and waist.", mouth))
        return "shared"
    return "eased" if sheet.rules > 3 and mouth < MOUTH_SMALL else "shoulder"


def _eased(piece: Piece) -> tuple[Piece, list[Demand], float]:
    """The front with the dart in its armhole held in instead of sewn, a notch on each side; and how much is held in, cm."""
    edge = piece.edge("armhole")
    number = next(n for n, gap in enumerate(edge.gaps) if isinstance(gap, Dart) and gap.name == BUST_DART)
    before, after = edge.parts[number], edge.parts[number + 1]
    at = sum(part.length for part in edge.parts[: number + 1])
    run = min(REDRAWN, before.length - 1.0, after.length - 1.0)
    low, high = before.cut(before.length - run)[0], after.cut(run)[1]
    over = Path((curve_between(low.end, low.arriving, high.start, high.leaving),))  # one line over the shut dart's place
    long = max(over.length - 2 * run, HELD_LEAST)
    first, rest = over.cut((over.length - long) / 2)
    line, last = rest.cut(long)
    held = Held("eased", line)
    parts = (*edge.parts[:number], low + first, last + high, *edge.parts[number + 2 :])
    spots = {"lower ease": max(at - EASED_OVER, 1.0), "upper ease": min(at + EASED_OVER, edge.length - 1.0)}
    notches = sorted((*edge.notches, *(Notch(name, along) for name, along in spots.items())), key=lambda notch: notch.along)
    gaps = tuple(held if n == number else gap for n, gap in enumerate(edge.gaps))
    made: Edge = replace(edge, parts=parts, gaps=gaps, notches=tuple(notches))
    asked = [NotchAt(EdgeRef(piece.name, "armhole"), name, 1, along) for name, along in spots.items()]
    return piece.with_edge(made), list(asked), held.mouth
