"""Alterations of length: at the waist over a belly or a hollow back, over the back and the bust, at the hem."""

from __future__ import annotations

from widehem.core.altering.asked import lengths_anew, planned_anew, planned_more
from widehem.core.altering.halves import Gathered, Half, by, changed, cornered, outline, told, wanted
from widehem.core.altering.upper import ON, neck_point, tip, underarm
from widehem.core.geometry.points import Point
from widehem.core.pattern.checks.shapes import HemRises
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.roles import BACK, FRONT
from widehem.core.pattern.shaping import faired
from widehem.core.setting.option import Choice, Option
from widehem.core.shifting.spots import Target
from widehem.core.style.asks import all_of, also
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import say
from widehem.core.values import replace

MIDDLES = ("centre_front", "centre_back", "crotch", "front_edge")
WHICH = Option("part", "Where", "choice", BACK, "over the back or over the front",
    choices=(Choice(BACK, "back"), Choice(FRONT, "front")))  # fmt: skip
BENT = 4.0  # cm over which a centre back seam bends to run on straight below
KEPT = 0.02  # cm that a waist may grow without its darts being told


def waist_ends(half: Half) -> tuple[Target, Target] | None:
    """The corners of the waist at the middle and at the side."""
    middle = next((found for role in MIDDLES if (found := half.corner("waist", role)) is not None), None)
    side = half.corner("waist", "side")
    return None if middle is None or side is None else (middle, side)


def share_of(half: Half, middle: Target, side: Target) -> tuple[float, float]:
    """Where a change at the middle is whole and where it is nothing, across, in the frame of the piece."""
    return half.at(middle).x, half.at(side).x


def part_of_it(x: float, whole: float, nothing: float) -> float:
    """How much of a change arrives so far across."""
    return min(max((x - nothing) / (whole - nothing), 0.0), 1.0) if abs(whole - nothing) > 1e-6 else 0.0


def _on_edge(half: Half, name: str) -> list[tuple[Target, Point]]:
    """The corners, joints and dart legs of one edge."""
    edge = half.piece.edge(name)
    corners, legs = {name, half.piece.beside(name)[1].name}, {gap.name for gap in edge.gaps}
    return [
        (target, at)
        for target, at in outline(half)
        if (target.name == name and target.kind == "edge")
        or (target.kind == "corner" and target.name in corners)
        or (target.kind == "dart" and target.name in legs)
    ]


@operation(
    "alter.centre", "alterations", "Waist at the centre", "the waist edge moves at the centre and runs to nothing at the side: for a belly, a hollow back",
    options=(by("Longer by", "at the centre; less than nothing is shorter", 1.0, 6.0), WHICH), phase="block",
)  # fmt: skip
def centre(job: Job) -> Change:
    """Waist away from the body of the piece at its centre, nothing at the side; its darts take up what it grew."""
    part, more = job.choice("part"), job.length("by")
    gathered = Gathered(job.garment)
    for half in wanted(job.garment, f"edge at the waist in the {part}", "waist", part=part):
        ends, edge = waist_ends(half), half.edge("waist")
        if ends is None or edge is None:
            continue
        whole, nothing = share_of(half, *ends)
        _, top, _, bottom = half.piece.bounds
        away = 1.0 if half.at(ends[0]).y > (top + bottom) / 2 else -1.0
        moving = _on_edge(half, edge.name)
        for target, at in moving:
            gathered.put(half, target, Point(0.0, away * more * part_of_it(at.x, whole, nothing)))
        gathered.hold(half, *(target for target, _ in outline(half)))
    garment = gathered.done()
    said = [told(f"The centre {part} is", more, "longer at the waist", "shorter at the waist")]
    grew = _grew(job.garment, garment, part)
    if abs(grew) > KEPT:
        garment, how = waist_again(job.garment, garment, part), "its darts take it up"
        if abs(_grew(job.garment, garment, part)) > abs(grew) / 2:
            how = "there is no dart that could take it up"
        said.append(told("The waist is", grew, f"longer for it: {how}", f"shorter for it: {how}"))
    asks = all_of(lengths_anew(job.garment, garment), planned_anew(job.garment, garment, "waist"))
    return changed(job, garment, said=tuple(said), asks=asks)


def _grew(before: Garment, now: Garment, part: str) -> float:
    """How much longer the waist of a part is than it was, one side of the body, cm."""
    return sum(e.length for _, e in now.edges_of("waist", part=part)) - sum(
        e.length for _, e in before.edges_of("waist", part=part)
    )


def waist_again(before: Garment, now: Garment, part: str) -> Garment:
    """The waist as long as it was: the first dart of each piece takes what it grew."""
    gathered = Gathered(now)
    for half in wanted(now, "waist", "waist", part=part):
        edge = half.edge("waist")
        assert edge is not None
        dart = next((dart for dart in edge.darts if dart.mouth > 1e-6), None)
        grew = edge.length - before.piece(half.piece.name).edge(edge.name).length
        if dart is None or dart.mouth + grew < 0.3:
            continue
        way = (dart.outer - dart.inner).unit() * (grew / 2)
        gathered.put(half, Target("dart", dart.name, part="inner"), -way)
        gathered.put(half, Target("dart", dart.name, part="outer"), way)
        gathered.hold(half, *(target for target, _ in outline(half)))
    return gathered.done()


@operation(
    "alter.length", "alterations", "Length over back or bust", "a wedge at the middle, to nothing at the side: a rounded back, a full bust, folds across the waist",
    options=(by("Longer by", "at the middle, between neck and waist; less than nothing is shorter", -1.0, 5.0), WHICH), phase="block",
)  # fmt: skip
def over(job: Job) -> Change:
    """What lies above the waist goes up at the middle and not at the side; the shoulder keeps its length."""
    part, more = job.choice("part"), job.length("by")
    gathered = Gathered(job.garment)
    for half in wanted(job.garment, f"{part} with a neckline", "neck", "side", part=part):
        side, line = underarm(half) or half.corner("side", "armhole"), half.piece.level("waist")
        waist = half.edge("waist")
        if side is None:
            continue
        low = (
            line.height if line is not None else max(waist.start.y, waist.end.y) if waist is not None else half.piece.bounds[3]
        )
        nothing = half.at(side).x
        still = {target for target, _ in _on_edge(half, waist.name)} if waist is not None else set()
        for target, at in outline(half):
            up = -more * part_of_it(at.x, 0.0, nothing) if at.y < low - ON and target not in still else 0.0
            gathered.put(half, target, Point(0.0, up))
        one, two = tip(half), neck_point(half)
        if one is not None and two is not None:
            moves = gathered.shifts[half.piece.name]
            was = half.at(one) - half.at(two)
            new = was + moves[one] - moves[two]
            moves[one] = moves[one] + new.unit() * (was.size - new.size)
    now = cornered(job.garment, gathered.done(), "neck", "armhole")
    said = told(f"At the middle the {part} is", more, "longer, to nothing at the side", "shorter, to nothing at the side")
    return changed(
        job, now, said=(said,), asks=all_of(lengths_anew(job.garment, now), planned_anew(job.garment, now, "bust", "waist"))
    )  # a level that crosses a shaped seam crosses another place of it now


@operation(
    "alter.hem", "alterations", "Hem from the floor", "as it was read at three places: the hem goes down or up there, evenly between",
    options=(
        Option("front", "Down in front", "length", 0.0, "at the centre front; less than nothing is up", -20.0, 20.0, 0.5),
        Option("side", "Down at the side", "length", 0.0, "at the side seam", -20.0, 20.0, 0.5),
        Option("back", "Down behind", "length", 0.0, "at the centre back", -20.0, 20.0, 0.5),
    ), phase="block",
)  # fmt: skip
def hem(job: Job) -> Change:
    """Centre front, side and centre back by what was read; sides alike on both pieces."""
    gathered, side = Gathered(job.garment), job.length("side")
    for half in wanted(job.garment, "hem", "hem", "side"):
        edge, corner = half.edge("hem"), half.corner("hem", "side")
        if edge is None or corner is None:
            continue
        legs = half.edge("inseam") is not None
        middle = side if legs else job.length(BACK if half.piece.of == BACK else FRONT)
        ends = (edge.start, edge.end)
        nothing = half.at(corner).x
        whole = next(end.x for end in ends if end.to(half.at(corner)) > 1e-6)
        for target, at in _on_edge(half, edge.name):
            part = part_of_it(at.x, whole, nothing)
            gathered.put(half, target, Point(0.0, middle * part + side * (1 - part)))
        gathered.hold(half, *(target for target, _ in outline(half)))
    now = gathered.done()
    words = say("The hem: {0s} in front, {1s} at the side, {2s} behind.", job.length(FRONT), side, job.length(BACK))
    return changed(
        job, now, said=(words,), asks=all_of(lengths_anew(job.garment, now), also(HemRises(0.0, free=True))), stale=("lining",)
    )


@operation(
    "alter.centre_back", "alterations", "Centre back at the waist", "the back waist gapes: taken in at the centre back, to nothing at the hip",
    options=(by("Taken in by", "both halves together; less than nothing lets out", 1.0, 5.0),), phase="block",
)  # fmt: skip
def centre_back(job: Job) -> Change:
    """Half of it on each side, at the waist; nothing at the hip, or at the neck."""
    less, bends = job.length("by") / 2, list[tuple[str, str, float]]()
    gathered = Gathered(job.garment)
    for half in wanted(job.garment, "waist behind", "waist", part=BACK):
        ends = waist_ends(half)
        if ends is None:
            continue
        if half.piece.stands == "fold":
            raise CannotStyle(say("The centre back lies on the fold: put a seam there first."))
        way = 1.0 if half.at(ends[1]).x > half.at(ends[0]).x else -1.0
        gathered.put(half, ends[0], Point(way * less, 0.0))
        gathered.hold(half, *(target for target, _ in outline(half) if target.kind != "dart"))
        edge = next((e for e in half.piece.edges if e.role in MIDDLES and half.has(e)), None)
        line = half.piece.level("hip") or half.piece.level("bust")
        if edge is None or line is None or edge.role == "crotch":  # a crotch seam is straight as far as its curve
            continue
        along = edge.at_line(*line.straight)
        if along is not None:
            gathered.hold(half, half.on(edge, along))
            bends.append((half.piece.name, edge.name, (half.piece.has(edge.name) and edge.at_line(*line.straight)) or 0.0))
    now = gathered.done()
    for piece, name, along in bends:
        edge = now.piece(piece).edge(name)
        now = now.with_piece(now.piece(piece).with_edge(replace(edge, parts=(faired(edge.parts[0], along, BENT),))))
    return changed(
        job,
        now,
        asks=all_of(planned_more({"waist": -2 * less}, 0.0), planned_anew(job.garment, now, "hip", "bust")),
        said=(told("At the centre back the waist is", -2 * less, "wider", "narrower"),),
    )
