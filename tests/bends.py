"""Garments bent on purpose: what a check has to notice, and what it must not."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace
from itertools import pairwise

from fontTools.misc.transform import Transform

from widehem.core.geometry.curves import Cubic, Line, curve_between
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point, turn
from widehem.core.pattern.check import Check
from widehem.core.pattern.edge import Edge, PatternError
from widehem.core.pattern.garment import Garment
from widehem.core.pattern.piece import Piece

KINK, SLOPE, WAVES = 5.0, 0.16, 2
ORDER = ("true", "look", "not")


def end_moved(edge: Edge, by: Point, *, at_end: bool) -> Edge:
    """An edge with one end moved, its handle with it."""
    parts = list(edge.parts)
    spot = -1 if at_end else 0
    path = parts[spot] if at_end else parts[spot].reverse()
    last = path.segments[-1]
    moved = (
        Line(last.start, last.end + by)
        if isinstance(last, Line)
        else Cubic(last.start, last.out, last.into + by, last.end + by)
    )
    path = Path((*path.segments[:-1], moved))
    parts[spot] = path if at_end else path.reverse()
    return fitted(replace(edge, parts=tuple(parts), notches=()), edge)


def fitted(edge: Edge, before: Edge) -> Edge:
    """An edge with the notches of another, as far along as it is long."""
    return replace(edge, notches=tuple(replace(n, along=min(n.along, edge.length)) for n in before.notches))


def ring_with(piece: Piece, changes: dict[int, Edge]) -> Piece:
    return replace(piece, edges=tuple(changes.get(i, edge) for i, edge in enumerate(piece.edges)))


def outward_at(piece: Piece, index: int) -> Point:
    """Out of the corner at the end of an edge."""
    a, b = piece.edges[index], piece.edges[(index + 1) % len(piece.edges)]
    out = piece.outward(a.arriving) + piece.outward(b.leaving)
    return out.unit() if out.size > 0.1 else piece.outward(a.arriving)


def corner_moved(piece: Piece, index: int, by: float) -> Piece:
    after = (index + 1) % len(piece.edges)
    shift = outward_at(piece, index) * by
    first = end_moved(piece.edges[index], shift, at_end=True)
    if index == after:
        return ring_with(piece, {index: end_moved(first, shift, at_end=False)})
    return ring_with(piece, {index: first, after: end_moved(piece.edges[after], shift, at_end=False)})


def edge_moved(piece: Piece, index: int, by: float) -> Piece:
    """An edge a whole way outwards, its neighbours run on to it."""
    edge, count = piece.edges[index], len(piece.edges)
    middle = edge.place(edge.length / 2)
    shift = piece.outward(middle.direction) * by
    before, after = (index - 1) % count, (index + 1) % count
    changes = {index: edge.moved(Transform().translate(*shift))}
    changes[before] = end_moved(piece.edges[before], shift, at_end=True)
    changes[after] = end_moved(changes.get(after, piece.edges[after]), shift, at_end=False)
    return ring_with(piece, changes)


def scaled(piece: Piece, by: float) -> Piece:
    """The outline larger about the middle of the piece; its levels and marks stay."""
    left, top, right, bottom = piece.bounds
    x, y = (left + right) / 2, (top + bottom) / 2
    about = Transform().translate(x, y).scale(by, by).translate(-x, -y)
    return replace(piece, edges=tuple(fitted(edge.moved(about), edge) for edge in piece.edges), marks=piece.marks)


def longest(edge: Edge) -> int:
    return max(range(len(edge.parts)), key=lambda n: edge.parts[n].length)


def kinked(piece: Piece, index: int) -> Piece:
    """An edge with a corner of five degrees in the middle of its longest stretch."""
    edge = piece.edges[index]
    at = longest(edge)
    first, second = edge.parts[at].cut(edge.parts[at].length / 2)
    head = second.segments[0]
    way = head.direction(0.0).moved(turn(Point(0.0, 0.0), math.radians(KINK)))
    reach = head.length / 3
    bent = Cubic(
        head.start,
        head.start + way * reach,
        head.into if isinstance(head, Cubic) else head.end - head.direction(1.0) * reach,
        head.end,
    )
    path = first + Path((bent, *second.segments[1:]))
    return ring_with(
        piece, {index: fitted(replace(edge, parts=(*edge.parts[:at], path, *edge.parts[at + 1 :]), notches=()), edge)}
    )


def waved(piece: Piece, index: int) -> Piece:
    """An edge with two waves in the middle of its longest stretch, smooth at their ends."""
    edge = piece.edges[index]
    at = longest(edge)
    path = edge.parts[at]
    wide = min(path.length * 0.6, 16.0)
    start = (path.length - wide) / 2
    high = SLOPE * wide / (2 * math.pi * WAVES)
    places = []
    for number in range(12 * WAVES + 1):
        part = number / (12 * WAVES)
        place = path.place(start + wide * part)
        angle = 2 * math.pi * WAVES * part
        fade = math.sin(math.pi * part) ** 2
        off = high * 2 * math.sin(angle) * fade
        lean = (
            2
            * high
            / wide
            * (2 * math.pi * WAVES * math.cos(angle) * fade + math.sin(angle) * math.pi * math.sin(2 * math.pi * part))
        )
        side = place.direction.square()
        places.append((place.point + side * off, (place.direction + side * lean).unit()))
    wave = Path(tuple(curve_between(a, d, b, e) for (a, d), (b, e) in pairwise(places)))
    whole = path.cut(start)[0] + wave + path.cut(start + wide)[1]
    return ring_with(
        piece, {index: fitted(replace(edge, parts=(*edge.parts[:at], whole, *edge.parts[at + 1 :]), notches=()), edge)}
    )


def notch_moved(piece: Piece, index: int, number: int, by: float) -> Piece:
    edge = piece.edges[index]
    notch = edge.notches[number]
    along = notch.along + by if notch.along + by <= edge.length else notch.along - by
    notches = (*edge.notches[:number], replace(notch, along=along), *edge.notches[number + 1 :])
    return ring_with(piece, {index: replace(edge, notches=notches)})


def bends(garment: Garment) -> Iterator[tuple[str, str, str, object]]:
    """Every way to bend a garment: kind, piece, place, and what makes the bent garment."""
    for piece in garment.pieces:
        for index, edge in enumerate(piece.edges):
            after = piece.edges[(index + 1) % len(piece.edges)]
            for by in (1.0, -1.0):
                yield (
                    f"corner {by:+.0f}",
                    piece.name,
                    f"{edge.name}/{after.name}",
                    lambda p=piece, i=index, by=by: corner_moved(p, i, by),
                )
                yield f"edge {by:+.0f}", piece.name, edge.name, lambda p=piece, i=index, by=by: edge_moved(p, i, by)
            yield "kink", piece.name, edge.name, lambda p=piece, i=index: kinked(p, i)
            yield "wave", piece.name, edge.name, lambda p=piece, i=index: waved(p, i)
            for number, notch in enumerate(edge.notches):
                yield (
                    "notch",
                    piece.name,
                    f"{edge.name}:{notch.name}",
                    lambda p=piece, i=index, n=number: notch_moved(p, i, n, 0.5),
                )
        yield "scale", piece.name, "", lambda p=piece: scaled(p, 1.1)


def worse(before: tuple[Check, ...], after: tuple[Check, ...]) -> list[str]:
    """The checks that have gone untrue, or more untrue, or untrue at another place."""
    known = {check.name: check for check in before}
    found = []
    for check in after:
        old = known.get(check.name)
        if check.verdict == "true":
            continue
        if (
            old is None
            or ORDER.index(check.verdict) > ORDER.index(old.verdict)
            or beyond(check) > beyond(old) + 1e-3
            or (old.verdict != "true" and not set(check.spots) <= set(old.spots))
        ):
            found.append(check.name)
    return found


def beyond(check: Check) -> float:
    """How far a figure lies outside its limits."""
    low = 0.0 if check.low is None else check.low - check.figure
    high = 0.0 if check.high is None else check.figure - check.high
    return max(low, high, 0.0)


def bent(garment: Garment, piece: Piece) -> Garment | None:
    """The garment with a bent piece; None where it refuses to be built so."""
    try:
        return garment.with_piece(piece)
    except PatternError:
        return None
