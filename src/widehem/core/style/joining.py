"""Garments made of two: a sleeve set into its bodice, a bodice laid above trousers."""

from __future__ import annotations

from widehem.core.pattern.garment import Garment
from widehem.core.setting.option import Choice, Option
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.set_in import set_in
from widehem.core.units import say

SLEEVE = Option(
    "sleeve", "Sleeve", "choice", "sleeve.guide_box", "drawn for this armhole",
    choices=(
        Choice("sleeve.guide_box", "Guide box", "pitch points on quarter lines"),
        Choice("sleeve.triangle", "Triangle", "sides rounded by a profile"),
    ),
)  # fmt: skip


@operation(
    "sleeve.set_in", "sleeves", "Set a sleeve in", "a sleeve drawn for this armhole, its cap divided at the notches and sewn "
        "into it",
    options=(SLEEVE,),
)  # fmt: skip
def set_sleeve(job: Job) -> Change:
    """A sleeve for the armhole of the garment, sewn into it."""
    if job.context.sleeve_for is None or job.garment.armholes is None:
        raise CannotStyle(say("This garment has no armhole to set a sleeve into."))
    try:
        sleeve: Garment = job.context.sleeve_for(job.choice("sleeve"), job.garment)
    except CannotDraft as refusal:
        raise CannotStyle(refusal.saying, (), refusal.measures) from None
    whole = set_in(job.garment, sleeve)
    if whole is None:
        raise CannotStyle(say("The sleeve has no shoulder notch by which it is set in."))
    made = tuple(piece.name for piece in sleeve.pieces)
    seams = (*job.garment.seams, *whole.seams, *sleeve.seams)
    return Change(whole.pieces, seams, made=made)
