"""Checks of curves: no kink where none is meant, no turn tighter than can be sewn, no wave."""

from __future__ import annotations

import math
from collections.abc import Iterator

from widehem.core.geometry.curves import Line
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import angle_between
from widehem.core.pattern.check import CORNER_LOOK, Case, Check, checker
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.roles import BACK, BACK_CROTCH_LONG, BACK_CROTCH_RADIUS, ROLES, edge_of
from widehem.core.units import say
from widehem.core.values import record

LOOKS = 12  # places on a curve at which its bend is looked at
MEANT = 0.02  # cm: a corner that is meant lies so near
TURNS = math.radians(2.0)  # a stretch that turns less than this is not a bend of its own
BENDS = {
    "cap": 2,
    "side": 2,
    "underarm": 2,
    "panel": 2,
    "armhole": 1,
    "neck": 1,
    "waist": 2,
    "waist_seam": 2,
    "hem": 2,
    "centre_back": 2,
    "centre_front": 2,
}  # changes of bend that are usual
BENDS_USUAL = 1
FACED_RADIUS = 0.4  # cm
RADIUS_LOOK = 0.5  # of the least radius: tighter than that is not true


@record(frozen=True)
class Curve:
    """What a sewn stretch does: its worst kink (degrees), its least radius (cm), how often it changes its bend."""

    kink: float
    radius: float
    bends: int


STRAIGHT = Curve(0.0, math.inf, 0)


def curve_of(path: Path, edge: Edge) -> Curve:
    """What one stretch of an edge does; corners that are meant are left out."""
    if len(path.segments) == 1 and isinstance(path.segments[0], Line):
        return STRAIGHT
    kink, sharpest, waves = 0.0, 0.0, 0
    turned: list[float] = []
    for number, segment in enumerate(path.segments):
        if number:
            before = path.segments[number - 1]
            if any(corner.to(before.end) < MEANT for corner in edge.corners):
                waves, turned = max(waves, changes(turned)), []
            else:
                kink = max(kink, angle_between(before.direction(1.0), segment.direction(0.0)))
        if not isinstance(segment, Line):
            turns, sharp = segment.turns(LOOKS)
            turned += turns
            sharpest = max(sharpest, sharp)
    return Curve(kink, 1 / sharpest if sharpest > 1e-9 else math.inf, max(waves, changes(turned)))


def changes(turned: list[float]) -> int:
    """How often a row of small turns changes its sign, each stretch turning enough to be seen."""
    if not turned or min(turned) >= 0 or max(turned) <= 0:
        return 0
    count, sign, sum_ = 0, 0, 0.0
    for turn in turned:
        if sum_ and (turn > 0) != (sum_ > 0):
            sum_ = turn if abs(sum_) >= TURNS or sign == 0 else sum_ + turn
        else:
            sum_ += turn
        if abs(sum_) >= TURNS:
            now = 1 if sum_ > 0 else -1
            count += sign not in (0, now)
            sign = now
    return count


Layer = tuple[str, str]  # what its checks add to their names and titles


def _all(pieces: tuple[Piece, ...]) -> list[tuple[Piece, Edge, Curve]]:
    return [(piece, edge, curve_of(part, edge)) for piece in pieces for edge in piece.edges for part in edge.parts]


@checker("curves")
def curves(case: Case) -> Iterator[Check]:
    """Every stretch of an outline is one smooth line: its kinks, its tightest turn, its changes of bend."""
    for suffix, words, pieces in case.layers:
        found = _all(pieces)
        yield _kinks(found, (suffix, words), case.limits.corner)
        yield from _radius(found, (suffix, words))
        yield _waves(found, (suffix, words))


def _kinks(found: list[tuple[Piece, Edge, Curve]], layer: Layer, limit: float) -> Check:
    piece, edge, worst = max(found, key=lambda entry: entry[2].kink)
    bad = tuple(f"{p.name}.{e.name}" for p, e, curve in found if curve.kink > limit + 1e-6)
    where = edge_of(piece.name, edge.name)
    tail = (
        say("Every stretch runs on without a corner.")
        if not bad
        else say(f"The {where} has a corner of {worst.kink:.1f}° inside it: draw the curve again.")
    )
    return Check(
        f"curves.smooth{layer[0]}", "shapes", f"Lines without a kink{layer[1]}", "angle", worst.kink, None, limit, CORNER_LOOK - limit,
        say(where if bad else "all of them"), tail, tuple(dict.fromkeys(bad)), "kink",
    )  # fmt: skip


def radius_least(piece: Piece, edge: Edge) -> float:
    """The least radius of a curve in an edge, cm; in proportion on an edge that is shorter than the typical one."""
    role = ROLES[edge.role]
    if edge.kind == "faced" and edge.corners:  # points and scallops, turned out over a facing
        return FACED_RADIUS
    least, long = (
        (BACK_CROTCH_RADIUS, BACK_CROTCH_LONG) if edge.role == "crotch" and piece.of == BACK else (role.radius, role.long)
    )
    whole = sum(part.length for part in piece.edges_of(edge.role)) if long else 0.0
    return least * min(1.0, whole / long) if long else least


def _radius(found: list[tuple[Piece, Edge, Curve]], layer: Layer) -> Iterator[Check]:
    round_ = [
        (curve.radius / radius_least(piece, edge), piece, edge, curve)
        for piece, edge, curve in found
        if curve.radius < math.inf
    ]
    if not round_:
        return
    share, piece, edge, tight = min(round_, key=lambda entry: entry[0])
    least = radius_least(piece, edge)
    where = edge_of(piece.name, edge.name)
    words = say(f"{{0}} in the {where}", tight.radius)
    tail = (
        say("None turns tighter than it can be sewn.")
        if share >= 1 - 1e-6
        else say("It turns in {0}, {1u} is the least here.", tight.radius, least)
    )
    bad = [(p, e) for part, p, e, _ in round_ if part < 1 - 1e-6] or [(piece, edge)]
    yield Check(
        f"curves.radius{layer[0]}", "shapes", f"Tightest turn{layer[1]}", "length", tight.radius, least, None,
            least * (1 - RADIUS_LOOK), words, words.stopped + tail,
        tuple(dict.fromkeys(f"{p.name}.{e.name}" for p, e in bad)), "radius",
    )  # fmt: skip


def _usual(piece: Piece, edge: Edge) -> int:
    """How often an edge usually changes its bend; one that runs from one side of the body over the middle does it twice, a side
    from the armhole down the leg once more: chest, waist, hip and knee."""
    most = BENDS.get(edge.role, BENDS_USUAL)
    if edge.role == "side" and piece.edges_of("armhole") and piece.edges_of("inseam"):
        most += 1
    return 2 * most if not edge.hand and any(other.hand for other in piece.edges) else most


def _waves(found: list[tuple[Piece, Edge, Curve]], layer: Layer) -> Check:
    over = [(curve.bends - _usual(piece, edge), piece, edge, curve) for piece, edge, curve in found]
    worst, piece, edge, curve = max(over, key=lambda entry: (entry[0], entry[3].bends))
    where = edge_of(piece.name, edge.name)
    most = _usual(piece, edge)
    tail = (
        say("None waves.")
        if worst <= 0
        else say(f"The {where} changes its bend {curve.bends} times, {most} is usual: draw one curve.")
    )
    bad = [(p, e) for out, p, e, _ in over if out > 0] or [(piece, edge)]
    return Check(
        f"curves.waves{layer[0]}", "shapes", f"Lines that wave{layer[1]}", "count", curve.bends, None, most, 1, say(where),
            tail,
        tuple(dict.fromkeys(f"{p.name}.{e.name}" for p, e in bad)), "changes of bend",
    )  # fmt: skip
