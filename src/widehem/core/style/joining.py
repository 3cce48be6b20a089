"""Garments made of two: a sleeve set into its bodice, a bodice laid above trousers."""

from __future__ import annotations

from collections.abc import Mapping

from fontTools.misc.transform import Transform

from widehem.core.pattern.garment import EdgeRef, Garment, Seam
from widehem.core.pattern.meeting import PITCH
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, FRONT, ROLES
from widehem.core.setting.option import Choice, Option
from widehem.core.setting.refusal import CannotDraft
from widehem.core.style.bodice_trousers import LOWERED, above_front, back_with_side, half, waist_of
from widehem.core.style.notching import notched
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.set_in import set_in
from widehem.core.units import say
from widehem.core.values import replace

BODICE_EDGES = ("armhole", "side", "waist")  # what trousers are joined to has

SLEEVE = Option(
    "sleeve", "Sleeve", "choice", "sleeve.guide_box", "drawn for this armhole",
    choices=(
        Choice("sleeve.guide_box", "Guide box", "pitch points on quarter lines"),
        Choice("sleeve.triangle", "Triangle", "sides rounded by a profile"),
    ),
)  # fmt: skip

TROUSERS = Option(
    "trousers", "Trousers", "choice", "crease", "either school",
    choices=(Choice("crease", "Crease line", "balanced on the crease"), Choice("frame", "Frame", "roomy in the seat")),
)  # fmt: skip
GAP = Option("gap", "Gap at the side and in front", "length", 2.0, "between both waists; {2} is the least to sit and to reach",
    1.0, 6.0, 0.5)  # fmt: skip
GAP_BACK = Option("gap_back", "Gap at the centre back", "length", 3.0, "between both waists; {3} is the least to sit and to "
    "reach", 1.0, 8.0, 0.5)  # fmt: skip
SECOND = Option(
    "second_dart", "Second back dart", "choice", "sewn", "where there are two",
    choices=(Choice("sewn", "Sewn", "close at the waist"), Choice("unsewn", "Left as ease", "the waist moves when the wearer "
        "does")),
)  # fmt: skip


@operation(
    "sleeve.set_in", "sleeves", "Set a sleeve in", "a sleeve drawn for this armhole, its cap divided at the notches and sewn "
        "into it",
    options=(SLEEVE,),
    fitted=True,
    halves=True,
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
    seams = (*job.garment.seams, *(s for s in whole.seams if s not in job.garment.seams), *sleeve.seams)
    both = Garment(whole.pieces, seams)
    for entry in (entry for chain in job.garment.armholes for entry in chain):  # what the armhole eases, the cap meets
        eased = [notch for notch in both.edge(entry).notches if notch.name != PITCH]
        both = notched(both, entry, eased) if eased else both
    return Change(both.pieces, seams, made=made)


@operation(
    "trousers.join", "waist", "Join trousers on", "trousers of the same wearer under this bodice without a waist seam, their "
        "darts one with its own",
    options=(TROUSERS, GAP, GAP_BACK, SECOND),
    halves=True,
)  # fmt: skip
def join_trousers(job: Job) -> Change:
    """A bodice down to the waist and trousers made one: the front straight above, the back laid so that its side is as long."""
    if job.context.draft_of is None:
        raise CannotStyle(say("There is no wearer to draw trousers for."))
    upper = {
        part: [p for p in job.garment.shell if p.of == part and all(p.has(edge) for edge in BODICE_EDGES)]
        for part in (FRONT, BACK)
    }
    if any(len(found) != 1 or not found[0].middle for found in upper.values()):
        raise CannotStyle(say("Trousers are joined to a bodice with one front and one back that reach from the middle to the "
            "side and end at the waist; this garment has others."))  # fmt: skip
    (bodice_front,), (bodice_back,) = upper[FRONT], upper[BACK]
    try:
        legs = job.context.draft_of(f"trousers.{job.choice('trousers')}", {}, {})
        lower = {piece.of: _facing(piece, upper[piece.of][0]) for piece in legs.pieces}
        front = above_front(bodice_front, lower[FRONT], job.length("gap"))
        side = waist_of(front, lower[FRONT], LOWERED)
        unsewn = job.choice("second_dart") == "unsewn"
        back = back_with_side(
            bodice_back, lower[BACK], job.length("gap"), job.length("gap_back"), side.side.length, unsewn=unsewn
        )
    except CannotDraft as refusal:
        raise CannotStyle(refusal.saying, (), refusal.measures) from None
    halves = {
        bodice_front.name: half(front, lower[FRONT], side, "seam"),
        bodice_back.name: half(back, lower[BACK], waist_of(back, lower[BACK], unsewn=unsewn), "seam"),
    }
    pieces = tuple(_at_its_neck(halves[p.name]) if p.name in halves else p for p in job.garment.pieces)
    known = {seam.name for seam in job.garment.seams}
    mirrored = [
        Seam.to_its_mirror(name, ROLES[piece.edge(edge).role].words.capitalize(), (piece.name, edge))
        for piece in halves.values()
        for name, edge in ((piece.middle, piece.middle), (f"crotch_{piece.of}", "crotch"))
        if name not in known
    ]
    names = {lower[FRONT].name: bodice_front.name, lower[BACK].name: bodice_back.name}
    inseam = [_between(seam, names) for seam in legs.seams if legs.edge(seam.first[0]).role == "inseam"]
    gone = tuple(EdgeRef(piece.name, "waist") for piece in (bodice_front, bodice_back))
    said = say("The bodice lies {0} above the trousers at the centre front, {1u} at the centre back.", front.gap, back.gap)
    return Change(pieces, (*job.garment.seams, *inseam, *mirrored), dropped=gone, said=(said,))


def _facing(legs: Piece, bodice: Piece) -> Piece:
    """A trouser piece turned over where its side lies the other way than the bodice's."""
    ways = [piece.edge("waist").end.x - piece.edge("waist").start.x for piece in (legs, bodice)]
    return legs if ways[0] * ways[1] > 0 else legs.moved(Transform(-1, 0, 0, 1, 0, 0))


def _at_its_neck(piece: Piece) -> Piece:
    """The piece in a frame that begins at the neck of its centre."""
    neck = piece.edge(piece.middle).start
    return piece.moved(Transform().translate(-neck.x, -neck.y))


def _between(seam: Seam, names: Mapping[str, str]) -> Seam:
    """The same seam between pieces of other names, along edges that run the other way round now."""
    first, second = (
        tuple(replace(entry, piece=names[entry.piece], back=not entry.back) for entry in chain)
        for chain in (seam.first, seam.second)
    )
    return replace(seam, first=first, second=second)
