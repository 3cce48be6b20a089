"""Alterations of the upper body that move places of the armhole, the shoulder and the side."""

from __future__ import annotations

import math

from widehem.core.altering.asked import planned_anew, planned_more
from widehem.core.altering.halves import HAND, PART, Gathered, Half, by, changed, cornered, parted, told, wanted
from widehem.core.geometry.points import Point
from widehem.core.pattern.roles import FRONT
from widehem.core.setting.option import Choice, Option
from widehem.core.shifting.spots import Target
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import say

CHEST = "chest"  # the mark of the chest point
ON = 0.6  # cm: a mark so near the armhole lies on it
AT_END = 1.5  # cm: a side that a level crosses so near its end is moved at its end
ACROSS_BACK = 0.5  # of the way from underarm up to the shoulder tip: where the back is measured across
ACROSS_CHEST = 0.4  # the same in front, where no chest point is marked


def chest_of(half: Half) -> Target:
    """Where a half is measured across: at its chest point, or so far up its armhole. Raises CannotStyle."""
    edge = half.edge("armhole")
    assert edge is not None
    mark = half.piece.marks.get(CHEST)
    joints: list[tuple[float, float]] = []
    gone = 0.0
    for part in edge.parts:
        for segment in part.segments:
            if mark is not None:
                joints.append((segment.start.to(mark), gone))
            gone += segment.length
    if joints and min(joints)[0] < ON:
        return half.on(edge, min(joints)[1])
    low, high = max(edge.start.y, edge.end.y), min(edge.start.y, edge.end.y)
    share = ACROSS_CHEST if half.piece.of == FRONT else ACROSS_BACK
    found = half.along(edge, low - share * (low - high))
    if found is None:
        raise CannotStyle(say("The armhole has no place to be measured across at."))
    return found


def tip(half: Half) -> Target | None:
    return half.corner("armhole", "shoulder")


def underarm(half: Half) -> Target | None:
    return half.corner("armhole", "side")


def neck_point(half: Half) -> Target | None:
    return half.corner("neck", "shoulder")


def side_at(half: Half, level: str) -> Target | None:
    """Where the side crosses a level; None where there is no such level, or it passes it by."""
    edge, line = half.edge("side"), half.piece.level(level)
    if edge is None or line is None:
        return None
    along = edge.at_line(*line.straight)
    if along is None or min(along, edge.length - along) < AT_END:
        near = min((edge.start, edge.end), key=lambda end: abs(end.y - line.height))
        along = (0.0 if near is edge.start else edge.length) if abs(near.y - line.height) < AT_END else along
    return None if along is None else half.on(edge, along)


def down_the_side(half: Half) -> Point:
    """The way the side runs down from the underarm."""
    edge = half.edge("side")
    assert edge is not None
    way = edge.leaving if edge.start.y < edge.end.y else -edge.arriving
    return way.unit()


@operation(
    "alter.across", "alterations", "Across back or chest", "the armhole moves out or in at the height at which it is measured across",
    options=(by("Wider across by", "from armhole to armhole; less than nothing is narrower", 1.0, 4.0), PART, HAND), phase="block",
)  # fmt: skip
def across(job: Job) -> Change:
    """Armhole out by half of it at the chest point, nothing at shoulder tip and underarm."""
    garment, out = parted(job), job.length("by") / 2
    gathered = Gathered(garment, shut=True)
    for half in wanted(garment, "armhole", "armhole", part=job.choice("part"), hand=job.choice("hand")):
        gathered.put(half, chest_of(half), half.out * out)
        gathered.hold(half, tip(half), underarm(half), neck_point(half))
    where = {"back": "across the back", "front": "across the chest"}.get(job.choice("part"), "across back and chest")
    return changed(job, gathered.done(), said=(told("It is", job.length("by"), f"wider {where}", f"narrower {where}"),))


@operation(
    "alter.shoulder", "alterations", "Shoulder length", "the shoulder tip moves along the shoulder; the armhole above the chest point goes with it",
    options=(by("Longer by", "less than nothing is shorter", -0.5, 3.0), HAND), phase="block",
)  # fmt: skip
def shoulder(job: Job) -> Change:
    """Tip along the shoulder, back and front alike."""
    garment, long = parted(job), job.length("by")
    gathered = Gathered(garment, shut=True)
    for half in wanted(garment, "shoulder", "armhole", "shoulder", hand=job.choice("hand")):
        one, two = tip(half), neck_point(half)
        if one is None or two is None:
            continue
        edge = half.edge("shoulder")
        assert edge is not None
        gathered.put(half, one, _shoulder_way(half) * long)
        gathered.hold(half, two, chest_of(half), underarm(half))
    return changed(job, gathered.done(), said=(told("The shoulder is", long, "longer", "shorter"),))


def _shoulder_way(half: Half) -> Point:
    """The way a shoulder runs from the neck to its tip, its darts shut."""
    edge = half.edge("shoulder")
    assert edge is not None
    at_end = tip(half) != Target("corner", edge.name)
    return (edge.arriving if at_end else -edge.leaving).unit()


@operation(
    "alter.slope", "alterations", "Shoulder slope", "the shoulder is turned about the side neck point, and the armhole goes up or down with it whole",
    options=(by("Tip raised by", "square shoulders; less than nothing for sloping ones", 1.0, 4.0), HAND), phase="block",
)  # fmt: skip
def slope(job: Job) -> Change:
    """Tip up about the side neck point; the armhole as far, the underarm along the side."""
    garment, up = parted(job), job.length("by")
    gathered = Gathered(garment, shut=True)
    for half in wanted(garment, "shoulder", "armhole", "shoulder", "side", hand=job.choice("hand")):
        one, two = tip(half), neck_point(half)
        if one is None or two is None:
            continue
        end, about = half.at(one), half.at(two)
        arm = end - about
        reach = arm.size
        if abs(arm.y - up) > 0.9 * reach:
            raise CannotStyle(say("The shoulder cannot be turned so far: {0} is its length.", reach), ("by",))
        turned = Point(math.copysign(math.sqrt(reach * reach - (arm.y - up) ** 2), arm.x), arm.y - up)
        gathered.put(half, one, turned - arm)
        gathered.put(half, chest_of(half), Point(0.0, -up))
        way = down_the_side(half)
        gathered.put(half, underarm(half), way * (-up / way.y))
        gathered.hold(half, two, side_at(half, "waist"))
    now = cornered(garment, gathered.done(), "neck", "armhole")
    return changed(
        job,
        now,
        asks=planned_anew(garment, now, "bust"),
        said=(told("The shoulder tip lies", up, "higher, the armhole with it", "lower, the armhole with it"),),
    )


@operation(
    "alter.underarm", "alterations", "Underarm", "the underarm point moves up or down along the side",
    options=(by("Raised by", "less than nothing lowers it", 1.0, 4.0), HAND), phase="block",
)  # fmt: skip
def raise_underarm(job: Job) -> Change:
    """Sides as much longer; the armhole below the chest point follows."""
    garment, up = parted(job), job.length("by")
    gathered = Gathered(garment, shut=True)
    for half in wanted(garment, "underarm", "armhole", "side", hand=job.choice("hand")):
        gathered.put(half, underarm(half), down_the_side(half) * -up)
        gathered.hold(half, tip(half), chest_of(half), side_at(half, "waist"))
    now = gathered.done()
    return changed(
        job,
        now,
        asks=planned_anew(garment, now, "bust"),
        said=(told("The underarm lies", up, "higher", "lower"),),
        stale=("cap",),
    )


def middle_lines(half: Half) -> list[Target]:
    """The nodes of the lines inside a piece at which its levels end: the middle of a front that laps over."""
    ending = {name for level in half.piece.balance for name in level.between if name}
    return [
        Target("line", line.name, number=number)
        for line in half.piece.lines
        if line.name in ending
        for number in range(len(line.path.segments) + 1)
    ]


LEVEL = Option("level", "Where", "choice", "waist", "the level at which it is let out; above and below it runs to nothing",
    choices=(Choice("bust", "bust"), Choice("waist", "waist"), Choice("hip", "hip and below"), Choice("all", "the whole side")))  # fmt: skip


@operation(
    "alter.side", "alterations", "Let out or take in", "the side seams, each edge by a quarter",
    options=(by("Let out by", "round the body; less than nothing takes in", 2.0, 16.0), LEVEL, PART, HAND), phase="block",
)  # fmt: skip
def let_out(job: Job) -> Change:
    """Each edge of the side seams out by a quarter where it is asked for, running to nothing at the next level."""
    garment, level, part, hand = parted(job), job.choice("level"), job.choice("part"), job.choice("hand")
    one_way = (2 if part == "both" else 1) * (2 if hand == "both" else 1)
    out = job.length("by") / one_way
    gathered, found = Gathered(garment, shut=True), False
    for half in wanted(garment, "side seam", "side", part=part, hand=hand):
        move = half.out * out
        levels = [name for name in half.piece.levels if name in ("bust", "waist", "hip")]
        if level != "all" and level not in levels:
            continue
        found = True
        top = underarm(half)
        for name in levels if level == "all" else [level]:
            spot = top if name == "bust" and top is not None else side_at(half, name)
            gathered.put(half, spot, move)
        if level in ("hip", "all"):
            gathered.put(half, half.corner("hem", "side"), move)
            if level == "all" and half.edge("armhole") is None:
                gathered.put(half, half.corner("waist", "side"), move)
        else:
            gathered.hold(half, half.corner("hem", "side"))
        for name in levels:
            gathered.hold(half, top if name == "bust" and top is not None else side_at(half, name))
        if half.edge("armhole") is not None:
            gathered.hold(half, tip(half), chest_of(half))
        gathered.hold(half, *middle_lines(half))
    if not found:
        raise CannotStyle(say(f"No piece of this garment has a {level} line at a side seam: choose another level."), ("level",))
    now, where = gathered.done(), "body" if level == "all" else level
    below = ("thigh", "knee", "calf", "ankle") if level in ("hip", "all") else ()
    named = ("bust", "waist", "high_hip", "hip", *below) if level == "all" else (level, *below)
    asked = planned_more(dict.fromkeys(named, job.length("by")), {"both": 0.5, FRONT: 1.0}.get(part, 0.0))
    return changed(
        job, now, said=(told(f"Round the {where} it is", job.length("by"), "wider", "narrower"),),
        asks=asked, stale=("cap",) if level in ("bust", "all") else (),
    )  # fmt: skip
