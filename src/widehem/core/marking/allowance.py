"""The cutting line: a piece with a different amount outside each edge, every corner finished as it is pressed.

A union of the piece with a strip along each edge and one filling per outward corner; where an edge is tight and hollow its strip
is put together of one per short straight, as the offset of the whole fails there. What is folded up is laid out afterwards: the
mirror of what it will lie on.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Literal

from shapely import Polygon, union_all

from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, meet
from widehem.core.marking.turned_up import End, hem_on
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.piece import Piece

Finish = Literal["straight", "square_before", "square_after"]
FLAT = 0.01  # cm: how far the flattened outline may stand off the true one
HARDLY = 1e-4  # sine between two straights that are nearly one: where they meet cannot be told
BACK = -0.99999  # cosine between going somewhere and coming back the same way
NO_CORNER = 0.9  # cosine between two straights of a curve, at the least
POINT_MOST = 2.0  # a corner sticks out at most this many times the allowance, then it is cut off
RUNS_ON = 0.99  # cosine at which one edge runs on into the next
ONE_HEM = 0.8  # cosine at which two hems that meet are turned up as one
STEP_ON = 1.0  # cm that the wider of two such allowances goes on beyond where they meet: what is sewn there is held
STEP_LEAST = 0.05  # cm between them, at the least


def cutting_line(piece: Piece, amounts: Mapping[str, float], finishes: Mapping[str, Finish] | None = None) -> list[Point]:
    """The ring to cut along, cm; amounts by edge name, cm. The last point is not the first again.

    finishes: by the name of an edge how the corner at its end is finished: carried straight on, or squared off to this edge
    or to the one after it, whichever is sewn first.
    """
    turned_up = [edge for edge in piece.edges if edge.kind == "hem" and amounts[edge.name] > 0]
    grown = _grown(piece, {**amounts, **{edge.name: 0.0 for edge in turned_up}}, finishes or {})
    for edge in piece.edges:
        if edge.kind == "fold":
            grown = grown.intersection(_half_plane(piece, edge))
    if turned_up:
        base, sign = _outer(grown), _sign(piece)
        folds = [edge for edge in piece.edges if edge.kind == "fold"]
        hems = _in_runs(piece, turned_up, amounts)
        bands = [
            hem_on(base, hem, amounts[hem.name], sign, (_end(hem.start, folds, hem, hems), _end(hem.end, folds, hem, hems)))
            for hem in hems
        ]
        grown = union_all([base, *bands], grid_size=1e-6)
        for fold in folds:
            grown = grown.intersection(_half_plane(piece, fold))
    return _without_cracks([Point(x, y) for x, y in list(_outer(grown).simplify(1e-6).exterior.coords)[:-1]])


def _outer(grown: Polygon) -> Polygon:
    return grown if grown.geom_type == "Polygon" else max(grown.geoms, key=lambda g: g.area)


def _end(spot: Point, folds: Sequence[Edge], hem: Edge, hems: Sequence[Edge]) -> End:
    """What a hem ends at."""
    if any(min(fold.start.to(spot), fold.end.to(spot)) < 1e-3 for fold in folds):
        return "fold"
    others = [other for other in hems if other is not hem]
    return "hem" if any(min(other.start.to(spot), other.end.to(spot)) < 1e-3 for other in others) else "side"


def _in_runs(piece: Piece, hems: Sequence[Edge], amounts: Mapping[str, float]) -> list[Edge]:
    """The hems, those that run on into each other with one depth as one."""
    found: list[Edge] = []
    for edge in sorted(hems, key=piece.edges.index):
        last = found[-1] if found else None
        if (
            last is not None
            and last.end.to(edge.start) < 1e-4
            and amounts[last.name] == amounts[edge.name]
            and last.arriving.dot(edge.leaving) > ONE_HEM
        ):
            found[-1] = Edge(last.name, (last.parts[0] + _whole(edge),), kind="hem", role=last.role)
        else:
            found.append(Edge(edge.name, (_whole(edge),), kind="hem", role=edge.role))
    return found


def _whole(edge: Edge) -> Path:
    first, *rest = edge.paths()
    for path in rest:
        first = first + path
    return first


def _sign(piece: Piece) -> float:
    """Which side of the direction of travel lies outside."""
    return -1.0 if piece.outward(Point(1.0, 0.0)).y > 0 else 1.0


def _without_cracks(ring: list[Point]) -> list[Point]:
    """The ring without points it goes to and comes back from the same way: where two strips touch and are not quite one."""
    ways = [(b - a).unit() for a, b in zip(ring, [*ring[1:], ring[0]], strict=True)]
    return [point for point, before, after in zip(ring, [ways[-1], *ways[:-1]], ways, strict=True) if before.dot(after) > BACK]


Straight = tuple[Point, Point, float]  # from, to, amount outside it


def _grown(piece: Piece, amounts: Mapping[str, float], finishes: Mapping[str, Finish]) -> Polygon:
    chain: list[Straight] = []
    runs: list[list[Straight]] = []
    ends: list[Finish] = []  # of the corner at the end of each run
    for edge in piece.edges:
        for path in edge.paths():
            run = [(a, b, amounts[edge.name]) for a, b in pairwise(path.flat(FLAT)) if a.to(b) > 1e-9]
            chain.extend(run)
            new = _without_corners(run)
            runs.extend(new)
            ends.extend("straight" for _ in new)
        ends[-1] = finishes.get(edge.name, "straight")
    ring = Polygon([a for a, _, _ in chain])
    sign = _sign(piece)
    parts = [ring]
    for run in runs:
        if run[0][2] > 0:
            parts += _strips(run, sign)
    for run, following, finish in zip(runs, [*runs[1:], runs[0]], ends, strict=True):
        (a, b, first), (_, c, second) = run[-1], following[0]
        corner = (
            _corner(a, b, c, first, second, sign) if finish == "straight" else _squared(a, b, c, first, second, sign, finish)
        )
        if corner is not None:
            parts.append(corner)
        if min(first, second) > 0 and abs(first - second) > STEP_LEAST and (b - a).unit().dot((c - b).unit()) > RUNS_ON:
            parts.append(_step(run, following, first, second, sign))
    return union_all([part if part.is_valid else part.buffer(0) for part in parts], grid_size=1e-6)


def _without_corners(run: Sequence[Straight]) -> list[list[Straight]]:
    """A run of straights cut where it turns a corner: what is between is a curve, or straight."""
    found: list[list[Straight]] = []
    for straight in run:
        if found and (found[-1][-1][1] - found[-1][-1][0]).unit().dot((straight[1] - straight[0]).unit()) > NO_CORNER:
            found[-1].append(straight)
        else:
            found.append([straight])
    return found


def _strips(run: Sequence[Straight], sign: float) -> list[Polygon]:
    """What lies outside a run without corners: one strip along all of it, or where it is too tight for that one for each
    straight,
    with what fills between them."""
    ways = [(b - a).unit() for a, b, _ in run]
    outs = [way.square() * (-sign * amount) for way, (_, _, amount) in zip(ways, run, strict=True)]
    far = [run[0][0] + outs[0]]
    for n, (_, b, _) in enumerate(run[:-1]):
        bends = abs(ways[n].cross(ways[n + 1])) > HARDLY
        far.append((meet(b + outs[n], ways[n], b + outs[n + 1], ways[n + 1]) if bends else None) or b + outs[n])
    far.append(run[-1][1] + outs[-1])
    whole = Polygon([run[0][0], *(b for _, b, _ in run), *reversed(far)])
    return [whole] if whole.is_valid else _one_by_one(run, outs, sign)


def _one_by_one(run: Sequence[Straight], outs: Sequence[Point], sign: float) -> list[Polygon]:
    strips = [Polygon((a, b, b + out, a + out)) for (a, b, _), out in zip(run, outs, strict=True)]
    between = [_corner(a, b, c, first, second, sign) for (a, b, first), (_, c, second) in pairwise(run)]
    return [*strips, *(kite for kite in between if kite is not None)]


def _corner(a: Point, b: Point, c: Point, first: float, second: float, sign: float) -> Polygon | None:
    """What fills an outward corner at b between two strips: a kite, cut off when it would be a long point."""
    before, after = (b - a).unit(), (c - b).unit()
    if sign * before.cross(after) < 1e-9 or max(first, second) == 0:
        return None
    p, q = b + before.square() * (-sign * first), b + after.square() * (-sign * second)
    tip = meet(p, before, q, after)
    if tip is None:
        return None
    reach = max(first, second) * POINT_MOST
    if b.to(tip) <= reach:
        points: Sequence[Point] = (b, p, tip, q)
    else:  # cut square to the line from the corner to its long point
        way = (tip - b).unit()
        cut = b + way * reach
        ends = [meet(p, before, cut, way.square()), meet(q, after, cut, way.square())]
        points = (b, p, *(end for end in ends if end is not None), q)
    kite = Polygon(points)
    return kite if kite.area > 1e-9 else None


def _squared(a: Point, b: Point, c: Point, first: float, second: float, sign: float, finish: Finish) -> Polygon | None:
    """What fills an outward corner at b where one of its edges is sewn before the other runs over it: its allowance ends square
    to it, where its stitching line comes out."""
    if finish == "square_after":  # the same, walked the other way
        return _squared(c, b, a, second, first, -sign, "square_before")
    before, after = (b - a).unit(), (c - b).unit()
    turned = sign * before.cross(after)
    if turned < SQUARED_LEAST or first == 0 or second == 0:
        return _corner(a, b, c, first, second, sign)
    out, q = before.square() * (-sign * first), b + after.square() * (-sign * second)
    end = b + before * min(second / turned, POINT_MOST * max(first, second))
    found = Polygon((b, b + out, end + out, end, q))
    return found if found.is_valid and found.area > 1e-9 else _corner(a, b, c, first, second, sign)


SQUARED_LEAST = 0.35  # sine by which a corner turns, at the least, to be squared off


def _step(run: Sequence[Straight], following: Sequence[Straight], first: float, second: float, sign: float) -> Polygon:
    """The wider of two allowances going on beyond the place where one edge runs on into the other."""
    a, b, _ = run[-1] if second > first else following[0]
    at, way = (b, (a - b).unit()) if second > first else (a, (b - a).unit())
    out = way.square() * ((sign if second > first else -sign) * max(first, second))
    far = at + way * STEP_ON
    return Polygon((at, at + out, far + out, far))


def _half_plane(piece: Piece, fold: Edge) -> Polygon:
    """Everything on the piece's side of a straight fold."""
    a, b = fold.start, fold.end
    way, far = (b - a).unit(), 500.0
    middle = Polygon(piece.outline(0.5)).representative_point()
    into = way.square()
    if into.dot(Point(middle.x, middle.y) - a) < 0:
        into = -into
    p, q = a - way * far, b + way * far
    return Polygon([p, q, q + into * far, p + into * far])
