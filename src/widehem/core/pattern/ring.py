"""The outline of a piece as a ring of runs and gaps, and what is done to it: cut at spots, turned, bridged, shut, mirrored.

A run is a stretch of an edge without a dart in it; a gap is what lies open between two runs. A piece is opened to its ring,
the ring is worked on, and closed to a piece again; edges keep their names, roles, kinds.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence

from fontTools.misc.transform import Transform

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, mirror_in, square_to, turn
from widehem.core.pattern.dart_cap import dart_cap
from widehem.core.pattern.edge import Dart, Edge, Gap, Held, Notch, PatternError
from widehem.core.pattern.piece import Piece
from widehem.core.values import record, replace

SAME = 1e-6  # cm: a cut so near the end of a run lies on it


@record(frozen=True)
class Run:
    """A stretch of an edge. notches: along the run. before: the gap that lies between the run before it, of one edge, and
    it."""

    edge: Edge
    path: Path
    notches: tuple[Notch, ...] = ()
    before: Gap | None = None

    def moved(self, by: Transform) -> Run:
        return replace(
            self,
            path=self.path.moved(by),
            before=self.before.moved(by) if self.before is not None else None,
            edge=replace(self.edge, corners=tuple(corner.moved(by) for corner in self.edge.corners),
                parts=(self.path.moved(by),), gaps=(), notches=()),
        )  # fmt: skip


Runs = tuple[Run, ...]


def opened(piece: Piece) -> Runs:
    """The outline as runs, in order from the start of its first edge."""
    return tuple(run for edge in piece.edges for run in runs_of(edge))


def runs_of(edge: Edge) -> Runs:
    """The stretches of an edge, each with its notches and the gap before it."""
    if not edge.gaps:
        return (Run(edge, edge.parts[0], edge.notches),)
    found, gone, last = [], 0.0, len(edge.parts) - 1
    for number, part in enumerate(edge.parts):
        on = tuple(
            replace(notch, along=notch.along - gone)
            for notch in edge.notches
            if gone <= notch.along < gone + part.length or (number == last and notch.along >= gone)
        )
        found.append(Run(edge, part, on, edge.gaps[number - 1] if number else None))
        gone += part.length
    return tuple(found)


def edges_from(runs: Iterable[Run]) -> tuple[Edge, ...]:
    """The edges that a row of runs makes: neighbours of one edge are joined, with their gap where there is one."""
    rows: list[list[Run]] = []
    for run in runs:
        last = rows[-1][-1] if rows else None
        if last and last.edge.name == run.edge.name and (run.before or last.path.end.to(run.path.start) <= SAME):
            rows[-1].append(run)
        else:
            rows.append([run])
    return tuple(_edge_from(row) for row in rows)


def _edge_from(row: list[Run]) -> Edge:
    """The edge that runs make which follow each other; itself, where they are all there was of it."""
    edge = row[0].edge
    if len(row) == 1 and not edge.gaps and row[0].path is edge.parts[0] and row[0].notches is edge.notches:
        return edge
    whole = edge.parts == tuple(run.path for run in row) and edge.gaps == tuple(run.before for run in row[1:])
    if whole and not edge.notches and not any(run.notches or run.edge is not edge for run in row):
        return edge
    parts: list[Path] = []
    gaps: list[Gap] = []
    notches: list[Notch] = []
    gone = 0.0
    for run in row:
        if run.before is not None and parts:
            gaps.append(run.before)
            parts.append(run.path)
        else:
            parts[-1:] = [parts[-1] + run.path if parts else run.path]
        notches += [replace(notch, along=notch.along + gone) for notch in run.notches]
        gone += run.path.length
    corners = tuple(dict.fromkeys(corner for run in row for corner in run.edge.corners))
    return replace(edge, parts=tuple(parts), gaps=tuple(gaps), notches=tuple(notches), corners=corners)


def closed(piece: Piece, runs: Runs, **changes: object) -> Piece:
    """The piece with this ring for its outline; it begins where an edge begins. Raises PatternError where an edge has come
    apart."""
    first = next((number for number in range(len(runs)) if runs[number].edge.name != runs[number - 1].edge.name), 0)
    return replace(piece, edges=edges_from((*runs[first:], *runs[:first])), **changes)  # type: ignore[arg-type]


@record(frozen=True)
class Spot:
    """A place on an outline: so far along an edge, its darts taken out, cm; or the mouth of one of its darts."""

    edge: str
    along: float = 0.0
    dart: str = ""


def cut_at(runs: Runs, spot: Spot) -> tuple[Runs, int]:
    """The ring with a joint at a spot, and the number of the run that begins there. Raises PatternError where there is no such
    spot."""
    gone = 0.0
    for number, run in enumerate(runs):
        if run.edge.name != spot.edge:
            continue
        if spot.dart:
            if run.before is not None and run.before.name == spot.dart:
                return runs, number
            continue
        length = run.path.length
        if spot.along <= gone + SAME:
            return runs, number
        if spot.along < gone + length - SAME:
            one, two = _split(run, spot.along - gone)
            return (*runs[:number], one, two, *runs[number + 1 :]), number + 1
        gone += length
        following = runs[(number + 1) % len(runs)]
        if spot.along <= gone + SAME and following.edge.name != spot.edge:
            return runs, (number + 1) % len(runs)
    raise PatternError(f"There is no {spot.dart or f'place {spot.along:.1f}'} on the {spot.edge}.")


def _split(run: Run, along: float) -> tuple[Run, Run]:
    first, second = run.path.cut(along)
    before = tuple(notch for notch in run.notches if notch.along < along)
    after = tuple(replace(notch, along=notch.along - along) for notch in run.notches if notch.along >= along)
    return replace(run, path=first, notches=before), replace(run, path=second, notches=after, before=None)


def arcs(runs: Runs, first: int, second: int) -> tuple[Runs, Runs]:
    """The ring in two: from one joint to another, and from there round to the first again."""
    if first <= second:
        return runs[first:second], (*runs[second:], *runs[:first])
    return (*runs[first:], *runs[:second]), runs[second:first]


@record(frozen=True)
class Opens:
    """A gap that is opened or shut at a joint of the ring, by turning what lies beyond it. angle: radians, as what follows
    turns."""

    at: int
    angle: float


def turned(runs: Runs, about: Point, opens: Sequence[Opens]) -> Runs:
    """The runs, each turned about a point by all that opens or shuts before it. The angles must add up to nothing round the
    ring."""
    found, so_far = [], 0.0
    by_joint: dict[int, float] = {}
    for entry in opens:
        by_joint[entry.at] = by_joint.get(entry.at, 0.0) + entry.angle
    for number, run in enumerate(runs):
        so_far += by_joint.get(number, 0.0)
        found.append(run.moved(turn(about, so_far)) if abs(so_far) > 1e-12 else run)
    if abs(so_far) > 1e-9:
        raise PatternError("What is opened is not what is shut.")
    return tuple(found)


def dart_between(
    name: str,
    before: Path,
    after: Path,
    apex: Point,
    short: float,
    pressed: str = "inner",
    holds: tuple[tuple[str, float], ...] = (),
) -> Dart:
    """The dart in the gap between two stretches, sewn to `short` (cm) before its apex, its mouth trued for the leg it is
    folded to."""
    inner, outer = before.end, after.start
    middle = inner.toward(outer, 0.5)
    point = apex + (middle - apex).unit() * short
    if pressed == "inner":
        cap = dart_cap(before, point, inner, outer)
    else:
        turned_cap = dart_cap(after.reverse(), point, outer, inner)
        cap = turned_cap.reverse() if turned_cap is not None else None
    straight = Path.through(inner, middle + (middle - point).unit() * 0.3, outer)
    return Dart(
        name, point, inner, outer, middle, inner.to(outer), point.to(middle), cap or straight, apex if short else None,
        "inner" if pressed == "inner" else "outer", holds,
    )  # fmt: skip


def laid_again(old: Dart, before: Path, after: Path, near: Point) -> Dart:
    """A dart whose mouth was moved, in the gap between two stretches: turned about the place nearest to one from which both legs
    are as long as each other, sewn as short of it as it was."""
    inner, outer = before.end, after.start
    middle = inner.toward(outer, 0.5)
    axis = square_to((outer - inner).unit(), near - middle)
    apex = middle + axis * max(axis.dot(near - middle), 1.0)
    short = old.turned_about.to(old.point)
    return replace(dart_between(old.name, before, after, apex, short, old.pressed, old.holds), sewn=old.sewn)


def angle_of(dart: Dart) -> float:
    """The angle a dart is open by at the point it is turned about, radians, as its outer leg lies from its inner."""
    inner, outer = dart.inner - dart.turned_about, dart.outer - dart.turned_about
    return -turn_between(outer, inner)


def turn_between(one: Point, other: Point) -> float:
    """The angle from one direction to another, radians."""
    return math.atan2(one.cross(other), one.dot(other))


def shut(runs: Runs, keep: int = 0) -> tuple[Runs, Mapping[int, Transform]]:
    """A row of runs with every dart shut about its point, beginning at the run that is kept; and how each run was turned."""
    ways: dict[int, Transform] = {keep: Transform()}
    for number in range(keep + 1, len(runs)):
        gap = runs[number].before
        ways[number] = ways[number - 1].transform(_closing(gap)) if isinstance(gap, Dart) else ways[number - 1]
    for number in range(keep - 1, -1, -1):
        gap = runs[number + 1].before
        ways[number] = ways[number + 1].transform(_closing(gap).inverse()) if isinstance(gap, Dart) else ways[number + 1]
    return tuple(replace(run.moved(ways[number]), before=None) for number, run in enumerate(runs)), ways


def _closing(dart: Dart) -> Transform:
    """The turn about its point that lays the outer leg of a dart on the inner."""
    return turn(dart.point, turn_between(dart.outer - dart.point, dart.inner - dart.point))


def unshut(path: Path, runs: Runs, ways: Mapping[int, Transform]) -> list[tuple[int, Path]]:
    """A line drawn over shut runs, opened out again: the part of it over each run, as that lies when its darts are open."""
    found, rest = [], path
    for number in range(1, len(runs)):
        gap = runs[number].before
        if not isinstance(gap, Dart):
            continue
        point = gap.point.moved(ways[number - 1])
        leg = gap.inner.moved(ways[number - 1]) - point
        crossed = rest.crossings(point, leg)
        if crossed:
            before, rest = rest.split(*crossed[0])
            found.append((number - 1, before.moved(ways[number - 1].inverse())))
    last = len(runs) - 1
    found.append((last, rest.moved(ways[last].inverse())))
    return found


def mirrored(edge: Edge, a: Point, b: Point) -> Edge:
    """An edge reflected across the line through two points, running the other way round."""
    by = mirror_in(a, b)
    gaps = tuple(_turned_gap(gap.moved(by)) for gap in reversed(edge.gaps))
    return replace(
        edge,
        parts=tuple(part.moved(by).reverse() for part in reversed(edge.parts)),
        gaps=gaps,
        notches=tuple(sorted((replace(n, along=edge.length - n.along) for n in edge.notches), key=lambda n: n.along)),
        corners=tuple(corner.moved(by) for corner in edge.corners),
    )


def _turned_gap(gap: Gap) -> Gap:
    """A gap as it is met from the other side."""
    if isinstance(gap, Dart):
        pressed = "outer" if gap.pressed == "inner" else "inner"
        return replace(gap, inner=gap.outer, outer=gap.inner, cap=gap.cap.reverse(), pressed=pressed)  # type: ignore[arg-type]
    if isinstance(gap, Held):
        return replace(gap, line=gap.line.reverse())
    return replace(gap, inner=gap.outer, outer=gap.inner)


def divided(edge: Edge, alongs: Sequence[float], names: Sequence[str]) -> tuple[Edge, ...]:
    """An edge as several, cut at these places (cm along it), each with a name of its own."""
    runs: Runs = runs_of(edge)
    for along in alongs:
        runs, _ = cut_at(runs, Spot(edge.name, along))
    found, gone, number = [], 0.0, 0
    for run in runs:
        while number < len(alongs) and gone >= alongs[number] - SAME:
            number += 1
        found.append(replace(run, edge=replace(run.edge, name=names[number], role=edge.role)))
        gone += run.path.length
    return edges_from(found)
