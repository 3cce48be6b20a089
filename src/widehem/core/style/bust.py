"""Fuller or smaller at the bust: slashed to the armhole and spread, so that the rest of the garment stays as it is."""

from __future__ import annotations

import math

from fontTools.misc.transform import Transform

from widehem.core.geometry.curves import Line
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.geometry.solve import NoSolutionError, solve
from widehem.core.pattern.edge import Dart
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import Run, Spot, arcs, closed, cut_at, dart_between, laid_again, opened
from widehem.core.pattern.roles import plain
from widehem.core.pattern.shaping import bent, blended, faired, smooth_over_darts
from widehem.core.setting.option import Option
from widehem.core.style.asks import more_at
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.units import say
from widehem.core.values import replace

BELOW, REACH = 6.0, 5.0  # cm under the point where a level lies in the lower part; cm over which the armhole bends
SHORT = 2.5  # cm before the bust point that the side dart is sewn to
SIDE_DART, DEEP_LEAST, ANGLE_MOST, CLOSED = "bust_side_dart", 4.0, math.radians(40), 1e-4
WIDER = Option("by", "Wider by", "length", 1.5, "for each half of the front, at the bust point; less than nothing is smaller",
    -6.0, 9.0, 0.1)  # fmt: skip


@operation(
    "bust.fuller", "bust", "Full or small bust", "the front is slashed from the bust point to waist and armhole and spread there",
    options=(WIDER,),
    wheres={"waist": "where the slash meets the waist: a dart, or a place under the bust point", "hinge": "the front chest point on the armhole",
        "side": "where the slash meets the side: a dart, or a place beside the bust point"},
)  # fmt: skip
def fuller(job: Job) -> Change:
    """Turn what lies below the hinge about it until the front is wider at the bust point by what was asked; the lower side
    drops with it and keeps its direction. The side opens into a dart; a waist dart there takes up the width at the waist."""
    piece = job.at["waist"].piece
    for code in ("hinge", "side"):
        if job.at[code].piece.name != piece.name:
            raise CannotStyle(say("The slash runs over one piece: choose places on it."), (code,))
    if "bust_point" not in piece.marks:
        raise CannotStyle(say(f"The {plain(piece.name)} has no bust point: it is spread on a front with one."))
    hinge, by = job.at["hinge"].point, job.length("by")
    point = _pivot(piece, job)
    if point.y - hinge.y < DEEP_LEAST:
        raise CannotStyle(
            say("The hinge lies {0} above the bust point, {1u} at least: choose it higher up the armhole.", point.y - hinge.y, DEEP_LEAST),
            ("hinge",),
        )  # fmt: skip
    outwards = 1.0 if job.at["side"].point.x > point.x else -1.0
    angle = _angle(point, hinge, by, outwards)
    pieces, dropped = _spread(piece, job, point, hinge, angle)
    waist = 0.0 if _in_dart(piece, job.at["waist"].spot) else 2 * by
    said = say("The front is {0s} at the bust for each half; the lower side drops by {1}.", by, dropped)
    asks = more_at({"bust": 2 * by, "waist": waist})
    return Change(tuple(pieces if p.name == piece.name else p for p in job.garment.pieces), said=(said,), asks=asks)


def _in_dart(piece: Piece, spot: Spot) -> bool:
    """Whether a place lies in the mouth of a dart."""
    edge = piece.edge(spot.edge)
    joints = [sum(part.length for part in edge.parts[: n + 1]) for n, gap in enumerate(edge.gaps) if isinstance(gap, Dart)]
    return bool(spot.dart) or any(abs(joint - spot.along) < CLOSED for joint in joints)


def _angle(point: Point, hinge: Point, by: float, outwards: float) -> float:
    """By what angle what lies below the hinge is turned so that it opens by so much at the level of the point, radians."""

    def opens(angle: float) -> float:
        return (point.moved(turn(hinge, angle)).x - point.x) * outwards - by

    try:
        return solve(opens, -ANGLE_MOST, ANGLE_MOST)
    except NoSolutionError:
        raise CannotStyle(
            say("{0s} cannot be opened at this hinge: take less, or a hinge higher up the armhole.", by), ("by",)
        ) from None


def _pivot(piece: Piece, job: Job) -> Point:
    """What opens by as much as was asked: the point of the side dart where there is one, else the bust point."""
    spot = job.at["side"].spot
    dart = next((dart for dart in piece.edge(spot.edge).darts if dart.name == spot.dart), None)
    return dart.turned_about if dart is not None and dart.apex is not None else piece.marks["bust_point"]


def _spread(piece: Piece, job: Job, point: Point, hinge: Point, angle: float) -> tuple[Piece, float]:
    """The piece with what lies below the hinge turned, the lower side moved along with the point, and everything below the
    point as much lower."""
    spots = [job.at[code].spot for code in ("waist", "hinge", "side")]
    runs = opened(piece)
    for spot in spots:
        runs, _ = cut_at(runs, spot)
    at = [cut_at(runs, spot)[1] for spot in spots]
    first = next((n for n, run in enumerate(runs) if run.edge.name == (piece.middle or runs[0].edge.name)), 0)
    forwards = (at[0] - first) % len(runs) < (at[2] - first) % len(runs)  # from the middle the waist comes first
    by = turn(hinge, angle)
    drop = point.moved(by) - point
    down = Point(0.0, drop.y)
    low, high = ((at[0], at[2]), (at[2], at[1])) if forwards else ((at[2], at[0]), (at[1], at[2]))
    lower, upper = ({id(run) for run in arcs(runs, *pair)[0]} for pair in (low, high))
    made: list[Run] = []
    for run in runs:
        if id(run) in lower:
            made.append(run.moved(Transform().translate(*drop)))
        elif id(run) in upper:
            made.append(_about(run, hinge, angle))
        elif run.edge.name == piece.middle:
            ends = [down if end.y > point.y else Point(0.0, 0.0) for end in (run.path.start, run.path.end)]
            made.append(replace(run, path=blended(run.path, *ends)))
        else:  # between the middle and the slash
            below = run.path.start.y > point.y and run.path.end.y > point.y
            made.append(run.moved(Transform().translate(*down)) if below else run)
    _side_dart(made, at[2], piece, point + drop)
    _at_waist(made, at[0], drop)
    marks = {name: mark.moved(by) if name == "underarm" else mark for name, mark in piece.marks.items()}
    marks["bust_point"] = piece.marks["bust_point"] + Point(drop.x / 2, drop.y)
    levels = tuple(_level(line, point, drop, by) for line in piece.balance)
    whole = closed(piece, tuple(made), marks=marks, balance=levels)
    waist = smooth_over_darts(whole.edge(spots[0].edge))
    if not spots[0].dart and len(waist.parts) == 1:  # where the width was bridged
        crossed = waist.parts[0].crossings(point + drop * 0.5, Point(0.0, 1.0))
        if crossed:
            along = waist.parts[0].split(*crossed[0])[0].length
            waist = replace(waist, parts=(faired(waist.parts[0], along, REACH),))
    return whole.with_edge(waist), drop.y


def _about(run: Run, hinge: Point, angle: float) -> Run:
    """A run turned about the hinge; one that begins or ends there without a corner."""
    turned = run.moved(turn(hinge, angle))
    if run.path.start.to(hinge) < CLOSED:
        return replace(turned, path=bent(run.path, angle, REACH))
    if run.path.end.to(hinge) < CLOSED:
        return replace(turned, path=bent(run.path.reverse(), angle, REACH).reverse())
    return turned


def _level(line: BalanceLine, point: Point, drop: Point, by: Transform) -> BalanceLine:
    """A level below the point lies as much lower. One at it, or over it, opens there by as much as the point: what lies beyond
    is turned with the side."""
    if line.height > point.y + BELOW:
        down = Point(0.0, drop.y)
        return replace(line, lines=tuple((a + down, b + down) for a, b in line.lines))
    if len(line.lines) == 1:
        at, way = line.straight
        foot = at + way * way.dot(point - at)
        first: tuple[Point, Point] = (at, foot)
        rest: tuple[tuple[Point, Point], ...] = ((foot, foot + (way if foot != at else Point(1.0, 0.0)) * 1.0),)
    else:
        first, rest = line.lines[0], line.lines[1:]
    wider = first[1] + Point(drop.x, 0.0)
    return replace(line, lines=((first[0], wider), *((a.moved(by), b.moved(by)) for a, b in rest)), notched=False)


def _side_dart(runs: list[Run], at: int, piece: Piece, point: Point) -> None:
    """The side open at the slash: a dart to the bust point; none where it closed."""
    run, before = runs[at], runs[at - 1]
    if before.path.end.to(run.path.start) < CLOSED:
        first = run.path.segments[0]
        runs[at] = replace(run, before=None, path=Path((replace(first, start=before.path.end), *run.path.segments[1:])))
        return
    hand = 1.0 if piece.clockwise else -1.0
    if (before.path.end - point).cross(run.path.start - point) * hand < 0:
        raise CannotStyle(say("That would take more out of the side than its dart holds: take less."), ("by",))
    old = run.before if isinstance(run.before, Dart) else None
    name, short = (old.name, old.turned_about.to(old.point)) if old is not None else (SIDE_DART, SHORT)
    runs[at] = replace(run, before=dart_between(name, before.path, run.path, point, short))


def _at_waist(runs: list[Run], at: int, drop: Point) -> None:
    """The waist where it was slashed: its dart is as much wider; without one the width is bridged, or what is too much cut off."""
    run, before = runs[at], runs[at - 1]
    if isinstance(run.before, Dart):
        old = run.before
        near = old.turned_about + Point(drop.x / 2, drop.y)
        runs[at] = replace(run, before=laid_again(old, before.path, run.path, near))
        return
    gap = run.path.start - before.path.end
    if gap.size < CLOSED:
        return
    if gap.dot(run.path.leaving) > 0:
        runs[at] = _led_back(run, before.path.end)
    else:
        cut = run.path.cut(min(gap.size, run.path.length - 0.5))[1]
        runs[at] = _led_back(replace(run, path=cut, notches=()), before.path.end)


def _led_back(run: Run, start: Point) -> Run:
    """A run that begins at a place before it, straight from there."""
    bridge = Line(start, run.path.start)
    if bridge.length < CLOSED:
        first = run.path.segments[0]
        return replace(run, path=Path((replace(first, start=start), *run.path.segments[1:])))
    notches = tuple(replace(n, along=n.along + bridge.length) for n in run.notches)
    return replace(run, path=Path((bridge, *run.path.segments)), notches=notches)
