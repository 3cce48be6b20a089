"""Swinging a dart: what it takes is opened elsewhere, by turning what lies between about the point it was turned about."""

from __future__ import annotations

import math
from collections.abc import Sequence

from widehem.core.geometry.points import Point, turn
from widehem.core.pattern.edge import Dart, PatternError
from widehem.core.pattern.inside import BalanceLine
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.ring import Opens, Run, Runs, Spot, angle_of, closed, cut_at, dart_between, opened, turned
from widehem.core.values import record, replace

NEAR = 0.03  # cm: what lies so near a run belongs to it


@record(frozen=True)
class Share:
    """A part (0 to 1) of a dart's angle that is opened at a spot. short: cm before the apex to which the new dart is sewn;
    pressed: the leg it is folded to."""

    spot: Spot
    part: float
    name: str
    short: float = 0.0
    pressed: str = "inner"


def swing(piece: Piece, dart: str, shares: Sequence[Share]) -> Piece:
    """The piece with a dart shut and its angle opened at other spots, in parts that add up to 1 or less; what is left stays
    open.

    A spot that is the mouth of another dart widens that one, which holds both then. Levels of the parts that turn, turn
    with them. Raises PatternError when there is no such dart or spot.
    """
    edge = next((edge for edge in piece.edges for gap in edge.darts if gap.name == dart), None)
    if edge is None:
        raise PatternError(f"The {piece.name} has no dart {dart}.")
    taken = next(gap for gap in edge.darts if gap.name == dart)
    apex, angle = taken.turned_about, angle_of(taken)
    here = Spot(edge.name, dart=dart)
    runs = opened(piece)
    for share in shares:
        runs, _ = cut_at(runs, share.spot)
    old = cut_at(runs, here)[1]
    at = [cut_at(runs, share.spot)[1] for share in shares]
    given = sum(share.part for share, joint in zip(shares, at, strict=True) if joint != old)
    opens = [
        Opens(old, -angle * given),
        *(Opens(joint, angle * s.part) for s, joint in zip(shares, at, strict=True) if joint != old),
    ]
    before = runs
    runs = _from_the_middle(piece, runs, apex, opens)
    runs = _with_gaps(runs, old, taken, given, dict(zip(at, shares, strict=True)), apex)
    return closed(
        piece,
        runs,
        balance=tuple(_turned_level(piece, line, before, runs, apex) for line in piece.balance),
        **_carried(piece, before, runs),
    )


def _from_the_middle(piece: Piece, runs: Runs, apex: Point, opens: list[Opens]) -> Runs:
    """The runs turned so that the middle of the piece, or its first edge, stays where it is."""
    keep = next((n for n, run in enumerate(runs) if run.edge.name == (piece.middle or runs[0].edge.name)), 0)
    count = len(runs)
    shifted = [Opens((entry.at - keep) % count, entry.angle) for entry in opens]
    done = turned((*runs[keep:], *runs[:keep]), apex, shifted)
    return (*done[count - keep :], *done[: count - keep])


def _with_gaps(runs: Runs, old: int, taken: Dart, given: float, shares: dict[int, Share], apex: Point) -> Runs:
    found = list(runs)
    if given > 1 - 1e-9 and old not in shares:
        found[old] = replace(found[old], before=None)
    elif old not in shares:
        short = taken.apex.to(taken.point) if taken.apex is not None else 0.0
        found[old] = replace(
            found[old], before=dart_between(taken.name, found[old - 1].path, found[old].path, apex, short, taken.pressed)
        )
    for joint, share in shares.items():
        run = found[joint]
        swallowed = run.before if isinstance(run.before, Dart) and run.before.name != taken.name else None
        holds = ((swallowed.name, angle_of(swallowed)), *swallowed.holds) if swallowed is not None else ()
        made = dart_between(share.name, found[joint - 1].path, run.path, apex, share.short, share.pressed, holds)
        found[joint] = replace(run, before=made)
    return tuple(found)


def _run_at(runs: Runs, point: Point) -> int | None:
    """The run that has a joint or an end at a point; of two the later one."""
    for number, run in reversed(list(enumerate(runs))):
        if any(point.to(spot) < NEAR for segment in run.path.segments for spot in (segment.start, segment.end)):
            return number
    return None


def _way(before: Run, after: Run, apex: Point) -> float:
    """By what angle a run was turned about a point, radians."""
    a, b = before.path.start - apex, after.path.start - apex
    if a.size < 1e-6:
        a, b = before.path.end - apex, after.path.end - apex
    return math.atan2(a.cross(b), a.dot(b))


def _turned_level(piece: Piece, line: BalanceLine, before: Runs, after: Runs, apex: Point) -> BalanceLine:
    """A level with its outer part turned, where that hangs on a part that was; a straight one parts at the foot of the apex."""
    stretches = piece.stretches(line.level)
    if not stretches:
        return line
    end = stretches[-1][1]
    number = _run_at(before, end)
    if number is None:
        number = next(
            (
                n
                for n, run in enumerate(before)
                for i, t in run.path.crossings(end, line.straight[1])
                if run.path.segments[i].at(t).to(end) < NEAR
            ),
            None,
        )
    angle = _way(before[number], after[number], apex) if number is not None else 0.0
    if abs(angle) < 1e-12:
        return line
    by = turn(apex, angle)
    if len(line.lines) > 1:
        a, b = line.lines[-1]
        return replace(line, lines=(*line.lines[:-1], (a.moved(by), b.moved(by))))
    at, way = line.straight
    foot = at + way * way.dot(apex - at)
    return replace(line, lines=((stretches[0][0], foot), (foot.moved(by), end.moved(by))))


def _carried(piece: Piece, before: Runs, after: Runs) -> dict[str, object]:
    """Marks on runs that were turned, where they are now."""
    marks = dict(piece.marks)
    for name, point in piece.marks.items():
        number = _run_at(before, point)
        if number is not None:
            a, b = before[number].path, after[number].path
            index, end = next(
                (i, e) for i, s in enumerate(a.segments) for e, spot in enumerate((s.start, s.end)) if point.to(spot) < NEAR
            )
            marks[name] = (b.segments[index].start, b.segments[index].end)[end]
    return {"marks": marks}
