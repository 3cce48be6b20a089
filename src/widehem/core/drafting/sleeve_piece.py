"""A sleeve with one seam under the arm: its piece, and what it is held against."""

from __future__ import annotations

from collections.abc import Sequence

from widehem.core.drafting.arm import ELBOW_ROOM, ROOM, WRIST_ROOM, Arm
from widehem.core.drafting.cap import Armhole
from widehem.core.drafting.sheet import Sheet
from widehem.core.drafting.sleeve_seams import Seams
from widehem.core.drafting.table import Table, as_drawn
from widehem.core.geometry.paths import Path
from widehem.core.pattern.check import Demand
from widehem.core.pattern.checks.body import Girth, Length
from widehem.core.pattern.checks.held import NotchAt, OnTheBody
from widehem.core.pattern.checks.sleeve import CapFits, CapLies
from widehem.core.pattern.checks.through import ArmPasses, ElbowBends, HandPasses
from widehem.core.pattern.edge import Edge, Notch
from widehem.core.pattern.garment import EdgeRef, Seam, SeamEdge
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.meeting import PITCH
from widehem.core.pattern.piece import Piece

SLEEVE = "sleeve"
SHOULDER = "shoulder"  # the notch of a cap that meets the shoulder seam
BICEP_LEAST = 3.0
ON_SHEET = Table({SLEEVE: as_drawn()})


def sleeve_piece(cap: Path, seams: Seams, armhole: Armhole, notch: float) -> Piece:
    """The piece, x from the back underarm to the front, y down from the bicep line. notch: where the shoulder meets the cap,
    cm."""
    notches = (
        Notch(PITCH, armhole.back / 3, 2),
        Notch(SHOULDER, notch),
        Notch(PITCH, cap.length - armhole.front / 3),
    )
    edges = (seams.back, Edge("cap", (cap,), notches=notches), seams.front, seams.hem)
    balance = (BalanceLine.across("bicep", 0.0, notched=False),)
    return Piece(SLEEVE, "Sleeve", edges, balance=balance, marks={"underarm_back": cap.start, "underarm_front": cap.end})


def hand_over_sleeve(
    sheet: Sheet,
    piece: Piece,
    armhole: Armhole,
    arm: float,
    planned: float | None,
    ease: float | None,
    hand: float | None,
    share: float = 1.0,
    down: float | None = None,
    more: Sequence[Demand] = (),
) -> None:
    """A sleeve with one seam under the arm, cm.

    arm: upper arm; planned: the ease round it that was asked for, None where the width came out of the cap; ease: wanted in
    the cap, None where it is read; share: of the ease of a high cap. down: how far the hem was to lie below the bicep line, where both seams run
    straight. more: other demands.
    """
    sheet.hand_over(
        (piece,),
        ON_SHEET,
        seams=(
            Seam(
                "underarm",
                "Underarm seam",
                (SeamEdge(SLEEVE, "underarm_back"),),
                (SeamEdge(SLEEVE, "underarm_front", back=True),),
            ),
        ),
        demands=(
            Girth("bicep", "Upper arm", arm, planned, BICEP_LEAST, 0.1, limb=True),
            CapFits(armhole.whole, ease, share, pitch=(armhole.back / 3, armhole.front / 3), chosen=sheet.set_by_hand("cap")),
            NotchAt(EdgeRef(SLEEVE, "cap"), SHOULDER, 1, armhole.back + (piece.edge("cap").length - armhole.whole) / 2),
            OnTheBody(((SLEEVE, "underarm_back", "cap.start"), (SLEEVE, "underarm_front", "cap.end"))),
            Length(
                "sleeve",
                "Sleeve below the bicep line",
                down,
                piece=SLEEVE,
                first="@bicep",
                second="wrist.middle" if sheet.rules > 1 else "wrist.start",
            )
            if down is not None
            else None,
            HandPasses(hand) if hand is not None else None,
            CapLies(*armhole.low) if armhole.low is not None and sheet.rules > 1 and share == 1.0 else None,
            *more,
        ),
    )


def room_for(arm: Arm, length: float, bicep: float) -> tuple[Demand, ...]:
    """What an arm asks of a sleeve of this length. bicep: how far the bicep line lies below the shoulder tip, cm."""
    found: list[Demand] = [
        ArmPasses(arm.girth_at(length, bicep), WRIST_ROOM if arm.long(length) else ROOM),
    ]
    if bicep + 1 < arm.elbow_at <= length - 2:
        found.append(ElbowBends(SLEEVE, arm.elbow_at - bicep, arm.elbow, ELBOW_ROOM))
    return tuple(found)
