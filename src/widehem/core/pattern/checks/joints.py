"""Checks of the closed garment: darts shut, seams joined, corners of the middle opened out."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from widehem.core.geometry.points import angle_between
from widehem.core.pattern.check import CORNER_LOOK, WAIST_CORNER, Case, Check, checker
from widehem.core.pattern.closed import Joint
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import ROLES, over_middle, plain
from widehem.core.units import say

NECK_SQUARE, SQUARE = 0.4, 1.0  # cm from the corner over which an edge must leave squarely; a neck is a short curve
AT_WAIST_SEAM, PANEL_OVER = 12.0, 10.0  # degrees
SQUARE_LOOK = 12.0  # degrees over the first centimetre: a strong curve leaves square and bends away at once


@checker("corners.square")
def square_corners(case: Case) -> Iterator[Check]:
    """Waist, hem and neck leave the middle at a right angle for at least a centimetre."""
    for suffix, words, pieces in case.layers:
        found = [entry for piece in pieces for entry in middle_corners(piece)]
        if found:
            yield _squareness(found, suffix, words, case.limits.corner)


def _squareness(found: list[tuple[float, Piece, Edge]], suffix: str, words: str, limit: float) -> Check:
    off, piece, edge = max(found, key=lambda entry: entry[0])
    tail = (
        "Square where they cross the middle."
        if off <= limit + 1e-6
        else f"The {plain(piece.name)} {ROLES[edge.role].words} is not square to the middle: it would peak or dip when "
        f"opened out."
    )
    bad = [(p, e) for figure, p, e in found if figure > limit + 1e-6] or [(p, e) for _, p, e in found]
    return Check(
        f"corners.square{suffix}", "shapes", f"Square at the middle{words}", "angle", off, None, limit, SQUARE_LOOK - limit,
        say("corners at CF and CB"), say(tail), tuple(dict.fromkeys(f"{p.name}.{e.name}" for p, e in bad)), "off",
    )  # fmt: skip


def middle_corners(piece: Piece) -> Iterator[tuple[float, Piece, Edge]]:
    """For each edge that leaves the middle of a piece: how far from square it does, degrees."""
    if not piece.middle:
        return
    middle = piece.edge(piece.middle)
    before, after = piece.beside(piece.middle)
    last = before.parts[-1]
    for edge, chord, down in (
        (before, last.place(last.length - square_over(before)).point - middle.start, middle.leaving),
        (after, after.parts[0].place(square_over(after)).point - middle.end, middle.arriving),
    ):
        if not edge.pointed and over_middle(edge.role):
            yield abs(angle_between(chord, down) - 90), piece, edge


def square_over(edge: Edge) -> float:
    return NECK_SQUARE if edge.role == "neck" else SQUARE


def _limit(case: Case, joint: Joint) -> float:
    usual = case.limits.corner
    if joint.role == "panel" and joint.over == "shoulder":  # a line that goes on over it
        return max(PANEL_OVER, usual)
    if joint.over == "waist_seam":  # there a seam comes in from the chest and goes out over the hip
        return max(AT_WAIST_SEAM, usual)
    return max(WAIST_CORNER, usual) if joint.role in ("waist", "waist_seam") and joint.over == "side" else usual


def _smooth(case: Case, name: str, title: str, wanted: Callable[[Joint], bool], fine: str) -> Iterator[Check]:
    """One check over all joints of a kind, with the worst of them against its own limit."""
    found = [joint for joint in case.joints if wanted(joint)]
    if not found:
        return
    worst = max(found, key=lambda joint: joint.bend - _limit(case, joint))
    limit = _limit(case, worst)
    what = ROLES[worst.role].words
    close = "shut it on paper" if worst.over == "dart" else "join the pieces there"
    tail = (
        fine
        if worst.bend <= limit + 1e-6
        else f"The {what} bends {worst.bend:.1f}° {worst.where}: {close} and draw the curve again."
    )
    bad = [joint for joint in found if joint.bend > _limit(case, joint) + 1e-6] or found
    spots = tuple(dict.fromkeys(spot for joint in bad for spot in joint.spots))
    yield Check(
        name, "shapes", title, "angle", worst.bend, None, limit, CORNER_LOOK - case.limits.corner, say(worst.where), say(tail),
            spots, "bend",
    )  # fmt: skip


@checker("waist.smooth")
def smooth_waist(case: Case) -> Iterator[Check]:
    """With darts shut and side seams sewn the waist runs on without a peak or a dip."""
    yield from _smooth(
        case,
        "waist.smooth",
        "Waist, darts shut",
        lambda joint: joint.role in ("waist", "waist_seam"),
        "Runs on over darts and side seams.",
    )


@checker("edges.shut")
def shut_edges(case: Case) -> Iterator[Check]:
    """Any other edge runs on where its dart is shut: sides, shoulders, armholes, necks."""
    yield from _smooth(
        case, "edges.shut", "Edges, darts shut", lambda joint: joint.role not in ("waist", "waist_seam") and joint.over == "dart",
        "Each edge runs on over its dart.",
    )  # fmt: skip


@checker("corners.joined")
def joined(case: Case) -> Iterator[Check]:
    """Where a seam ends, the joined outline runs on: neck and armhole over the shoulder, armhole over the side, any other
    likewise."""
    yield from _smooth(
        case, "corners.joined", "Corners over seams",
        lambda joint: joint.role not in ("waist", "waist_seam", "hem", "wrist", "vent") and joint.over != "dart",
        "The outline runs on over every seam.",
    )  # fmt: skip


@checker("hem.smooth")
def hems(case: Case) -> Iterator[Check]:
    """Hems run on over their seams: the closed skirt, leg or sleeve has an edge without a peak."""
    yield from _smooth(
        case, "hem.smooth", "Hem over seams", lambda joint: joint.role in ("hem", "wrist") and joint.over != "dart",
        "The hem runs on over every seam.",
    )  # fmt: skip
