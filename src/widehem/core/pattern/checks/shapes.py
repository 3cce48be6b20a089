"""Checks of shapes: darts, corners, waist, hem, outlines."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import pairwise

from shapely import Polygon

from widehem.core.geometry.points import Point, angle_between, meet, turn
from widehem.core.pattern.block import Block
from widehem.core.pattern.check import (
    BUST_INTAKE_MOST,
    CORNER_LOOK,
    CORNER_TRUE,
    INTAKE_MOST,
    LEGS_LOOK,
    LEGS_TRUE,
    SEAM_LOOK,
    SEAM_TRUE,
    Check,
    Verdict,
    checker,
    verdict_on,
)
from widehem.core.pattern.piece import Dart, Edge, Piece
from widehem.core.units import say

NECK_SQUARE, SQUARE = 0.4, 1.0  # cm from the corner over which an edge must leave squarely; a neck is a short curve
SQUARE_LOOK = 12.0  # degrees over the first centimetre: a strong curve leaves square and bends away at once


@checker
def dart_legs(block: Block) -> Iterator[Check]:
    """Both legs of every dart are equally long."""
    darts = [(piece, dart) for piece in block.pieces for dart in piece.darts]
    if not darts:
        return
    worst = max(abs(dart.legs[0] - dart.legs[1]) for _, dart in darts)
    piece, dart = max(darts, key=lambda d: abs(d[1].legs[0] - d[1].legs[1]))
    verdict = verdict_on(worst, LEGS_TRUE, LEGS_LOOK)
    words = say("widest of {0} darts".replace("{0}", str(len(darts))))
    tail = say(f"Legs {{0}} and {{1}} in the {piece.name}.", *dart.legs)
    yield Check(
        "darts.legs", "shapes", "Dart legs", verdict, "length", worst, LEGS_TRUE, words, tail,
        tuple(f"{p.name}.{d.name}" for p, d in darts), "apart",
    )  # fmt: skip


@checker
def dart_intake(block: Block) -> Iterator[Check]:
    """No dart takes more than can be pressed flat, and two of one edge do not cross."""
    darts = [(piece, dart) for piece in block.pieces for dart in piece.darts]
    if not darts:
        return
    widest_piece, widest = max(darts, key=lambda d: d[1].intake / intake_most(d[1]))
    most = intake_most(widest)
    crossing = [piece.name for piece in block.pieces for a, b in pairwise(piece.darts) if _crossed(a, b)]
    verdict: Verdict = (
        "not" if crossing else verdict_on(widest.intake, most, most + (0.5 if widest.apex is None else widest.intake))
    )
    words = say("widest, {0}".replace("{0}", widest_piece.name))
    if crossing:
        tail = say(f"Two darts of the {crossing[0]} cross: make them shorter or set them further apart.")
    else:
        tail = say("The widest takes {0}, at most {1u}; none cross.", widest.intake, most)
    yield Check(
        "darts.intake", "shapes", "Dart intake", verdict, "length", widest.intake, most, words, tail,
        (f"{widest_piece.name}.{widest.name}",), "wide",
    )  # fmt: skip


def intake_most(dart: Dart) -> float:
    """What a dart may take at its mouth, cm: a bust dart more than one that is pressed flat over a curve."""
    return BUST_INTAKE_MOST if dart.apex is not None else INTAKE_MOST


def _crossed(a: Dart, b: Dart) -> bool:
    """Whether the facing legs of two neighbouring darts cross."""
    spot = meet(a.point, a.outer - a.point, b.point, b.inner - b.point)
    if spot is None:
        return False
    return all(
        0 < (spot - d.point).dot(end - d.point) < (end - d.point).dot(end - d.point) for d, end in ((a, a.outer), (b, b.inner))
    )


@checker
def square_corners(block: Block) -> Iterator[Check]:
    """Waist and hem leave the centre lines at a right angle for at least a centimetre."""
    worst, where, count = 0.0, "", 0
    for piece in block.pieces:
        if not piece.centre:
            continue
        centre = piece.edge(piece.centre)
        ring = piece.edges
        at = ring.index(centre)
        before, after = ring[at - 1], ring[(at + 1) % len(ring)]
        leaving, arriving = centre.parts[0].leaving, centre.parts[-1].arriving
        for edge, corner, chord, down in (
            (before, "hem", before.parts[-1].reverse().place(square_over(before)).point - centre.start, leaving),
            (after, "waist", after.parts[0].place(square_over(after)).point - centre.end, arriving),
        ):
            if edge.pointed:
                continue
            off = abs(angle_between(chord, down) - 90)
            count += 1
            if off >= worst:
                worst, where = off, f"{piece.name} {edge.name if edge.name else corner}"
    if not count:
        return
    verdict = verdict_on(worst, CORNER_TRUE, SQUARE_LOOK)
    tail = (
        "Square at waist and hem."
        if verdict == "true"
        else f"The {where} is not square to the centre line: it would peak or dip when opened out."
    )
    yield Check(
        "corners.square", "shapes", "Square at centre", verdict, "angle", worst, CORNER_TRUE, say(f"{count} corners, CF and CB"), say(tail),
        tuple(f"{p.name}.{p.centre}" for p in block.pieces if p.centre), "off",
    )  # fmt: skip


def square_over(edge: Edge) -> float:
    return NECK_SQUARE if edge.name == "neck" else SQUARE


@checker
def smooth_waist(block: Block) -> Iterator[Check]:
    """With darts shut and side seams sewn the edge runs on without a peak or a dip."""
    bends: list[tuple[float, str, str]] = []
    for piece in block.pieces:
        for edge in piece.edges:
            if edge.name == "side":
                continue  # a side may bend over its dart: that is the shape of the cup
            for dart, (a, b) in zip(edge.darts, pairwise(edge.parts), strict=True):
                inner, outer = dart.inner - dart.turned_about, dart.outer - dart.turned_about
                shut = turn(Point(0.0, 0.0), math.atan2(outer.cross(inner), outer.dot(inner)))
                bend = angle_between(a.arriving, b.leaving.moved(shut))
                bends.append((bend, f"over a {piece.name} dart", f"{piece.name}.{dart.name}"))
    for seam in block.seams:
        if any(_before(block.piece(ref.piece), ref.edge) != "waist" for ref in (seam.first[0], seam.second[0])):
            continue
        angles = [_top_angle(block.piece(ref.piece), ref.edge) for ref in (seam.first[0], seam.second[0])]
        bends.append((abs(sum(angles) - 180), f"at the {seam.title.lower()}", f"{seam.first[0].piece}.{seam.first[0].edge}"))
    if not bends:
        return
    worst, where, spot = max(bends)
    verdict = verdict_on(worst, CORNER_TRUE, CORNER_LOOK)
    tail = say(
        "Runs on over darts and side seams."
        if verdict == "true"
        else f"The edge bends {worst:.1f}° {where}: shut it on paper and draw the curve again."
    )
    edges = tuple(f"{piece.name}.waist" for piece in block.pieces)
    yield Check(
        "waist.smooth",
        "shapes",
        "Waist, darts shut",
        verdict,
        "angle",
        worst,
        CORNER_TRUE,
        say(where),
        tail,
        edges if verdict == "true" else (*edges, spot),
        "bend",
    )


def _before(piece: Piece, edge_name: str) -> str:
    """The edge before this one in the ring."""
    at = next(i for i, edge in enumerate(piece.edges) if edge.name == edge_name)
    return piece.edges[at - 1].name


def _top_angle(piece: Piece, edge_name: str) -> float:
    """The inside angle between an edge and the one before it in the ring, degrees."""
    ring = piece.edges
    at = next(i for i, edge in enumerate(ring) if edge.name == edge_name)
    return 180 - angle_between(ring[at - 1].parts[-1].arriving, ring[at].parts[0].leaving)


def _outer_ends(piece: Piece, hem: Edge) -> list[Point]:
    """The ends of a hem, but for those at a panel seam: there it bends with the shape of its panels and is as long as its neighbour."""
    ring = piece.edges
    at = ring.index(hem)
    found = ((hem.start, ring[at - 1].name), (hem.end, ring[(at + 1) % len(ring)].name))
    return [point for point, name in found if name != "panel"]


@checker
def level_hem(block: Block) -> Iterator[Check]:
    """Front, back and sides end at one height, and the hem runs on across the side seams."""
    hems = [(piece, edge) for piece in block.pieces for edge in piece.edges if edge.kind == "hem" and edge.name == "hem"]
    if not hems:
        return
    heights = [point.y for piece, edge in hems for point in _outer_ends(piece, edge)]
    off = abs(max(heights) - min(heights) - block.hem_rise)
    bend = 0.0
    for seam in block.seams:
        angles = []
        for ref in (seam.first[-1], seam.second[-1]):
            piece = block.piece(ref.piece)
            ring = piece.edges
            after = ring[(next(i for i, e in enumerate(ring) if e.name == ref.edge) + 1) % len(ring)]
            if after.kind != "hem":
                break
            angles.append(180 - angle_between(piece.edge(ref.edge).parts[-1].arriving, after.parts[0].leaving))
        if len(angles) == 2:
            bend = max(bend, abs(sum(angles) - 180))
    verdict = max(
        verdict_on(off, SEAM_TRUE, SEAM_LOOK), verdict_on(bend, CORNER_TRUE, CORNER_LOOK), key=("true", "look", "not").index
    )
    tail = (
        ("Rises to the sides alike, front and back." if block.hem_rise else "Front, back and sides end level.")
        if verdict == "true"
        else f"The hem bends {bend:.1f}° at the side or hangs unevenly: true it with the seams joined."
    )
    yield Check(
        "hem.level", "shapes", "Hem level", verdict, "length", off, SEAM_TRUE, say("front, back and sides"), say(tail),
        tuple(f"{piece.name}.{edge.name}" for piece, edge in hems), "apart",
    )  # fmt: skip


@checker
def outlines(block: Block) -> Iterator[Check]:
    """Every outline is closed and does not cross itself."""
    bad = [piece.name for piece in block.pieces if not Polygon(piece.sketch).is_valid]
    count = len(block.pieces)
    tail = (
        f"The outline of {', '.join(bad)} crosses itself: look at its measures again."
        if bad
        else "Closed, and none crosses itself."
    )
    yield Check(
        "outline", "shapes", "Outlines", "not" if bad else "true", "count", count - len(bad), count, say(f"of {count} pieces simple"), say(tail),
        tuple(f"{name}.{edge.name}" for name in bad for edge in block.piece(name).edges), f"of {count}",
    )  # fmt: skip
