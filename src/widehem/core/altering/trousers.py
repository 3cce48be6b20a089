"""Alterations of trousers: the fork, and the room to sit."""

from __future__ import annotations

from widehem.core.altering.asked import lengths_anew, planned_anew
from widehem.core.altering.halves import PART, Gathered, Half, by, changed, outline, told, wanted
from widehem.core.altering.lengths import part_of_it, waist_again, waist_ends
from widehem.core.altering.upper import ON
from widehem.core.geometry.points import Point
from widehem.core.geometry.solve import NoSolutionError, settle
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.roles import BACK, plain
from widehem.core.shifting.spots import Target
from widehem.core.style.asks import all_of
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import say

NEAR = 1e-4


@operation(
    "alter.fork", "alterations", "Fork", "the point between the legs moves out or in: lines that smile from it, or frown",
    options=(by("Longer by", "at the fork, on each piece it is done to; less than nothing is shorter", 1.0, 5.0), PART), phase="block",
)  # fmt: skip
def fork(job: Job) -> Change:
    """Fork out; the inseam nothing at the knee; how high it lies is solved, so that the inseams stay as long as each other."""
    out = job.length("by")
    before = _inseams(job.garment)
    garment = job.garment
    for half in wanted(job.garment, "fork", "crotch", "inseam", part=job.choice("part")):
        corner = half.corner("crotch", "inseam")
        if corner is not None:
            garment = _solved(garment, half, corner, out, before[half.piece.name])
    return changed(
        job,
        garment,
        said=(told("The fork is", out, "longer, the thigh with it", "shorter, the thigh with it"),),
        asks=lengths_anew(job.garment, garment),
    )


def _solved(garment: Garment, half: Half, corner: Target, out: float, want: float) -> Garment:
    """The fork of a piece so far out, and as high as leaves its inseam as long as it was."""
    name, made = half.piece.name, list[Garment]()

    def off(down: float) -> float:
        made[:] = [_forked(garment, half, corner, Point(_away(half, corner) * out, down))]
        return _inseams(made[0])[name] - want

    try:
        settle(off, 0.0, slope=-1.0, near=NEAR)
    except NoSolutionError:
        raise CannotStyle(say(f"The fork of the {plain(name)} cannot go so far: take less."), ("by",)) from None
    return made[0]


def _inseams(garment: Garment) -> dict[str, float]:
    return {piece.name: edge.length for piece, edge in garment.edges_of("inseam")}


def _away(half: Half, corner: Target) -> float:
    left, _, right, _ = half.piece.bounds
    return 1.0 if half.at(corner).x > (left + right) / 2 else -1.0


def _forked(garment: Garment, half: Half, corner: Target, move: Point) -> Garment:
    gathered = Gathered(garment)
    gathered.put(half, corner, move)
    inseam, knee = half.edge("inseam"), half.piece.level("knee")
    assert inseam is not None
    if knee is not None and (along := inseam.at_line(*knee.straight)) is not None:
        gathered.hold(half, half.on(inseam, along))
    for target, at in outline(half):
        if target.name == inseam.name and target.kind == "edge" and (knee is None or at.y < knee.height):
            continue
        gathered.hold(half, target)
    return gathered.done()


@operation(
    "alter.seat", "alterations", "Room to sit", "the back is opened across the hip, to nothing at the side: the waist drops when the wearer sits, or folds lie under the seat",
    options=(by("Longer by", "at the centre back; less than nothing folds it out", 1.5, 5.0),), phase="block",
)  # fmt: skip
def seat(job: Job) -> Change:
    """What lies above the hip goes up at the centre back and not at the side."""
    more = job.length("by")
    gathered = Gathered(job.garment)
    for half in wanted(job.garment, "seat", "waist", "side", part=BACK):
        ends, line = waist_ends(half), half.piece.level("hip")
        if ends is None or line is None:
            continue
        whole, nothing = half.at(ends[0]).x, half.at(ends[1]).x
        for target, at in outline(half):
            up = -more * part_of_it(at.x, whole, nothing) if at.y < line.height - ON else 0.0
            gathered.put(half, target, Point(0.0, up))
    if not gathered.shifts:
        raise CannotStyle(say("There is no hip line in the back of this garment: it is done to trousers and skirts."))
    now = waist_again(job.garment, gathered.done(), BACK)
    return changed(
        job,
        now,
        said=(told("The back is", more, "longer over the seat", "shorter over the seat"),),
        asks=all_of(lengths_anew(job.garment, now), planned_anew(job.garment, now, "waist")),
    )
