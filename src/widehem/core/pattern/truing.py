"""What must agree before paper is cut. Each check gives a verdict with its figure, its tolerance and the spot."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from shapely import Polygon

from widehem.core.geometry.points import Point, angle_between, meet
from widehem.core.pattern.piece import Block, Dart, Edge, Level, Piece
from widehem.core.units import Display, Saying, say

Verdict = Literal["true", "look", "not"]
Measure = Literal["length", "signed", "angle", "count"]

SEAM_TRUE, SEAM_LOOK = 0.2, 0.5
LEGS_TRUE, LEGS_LOOK = 0.1, 0.3
CORNER_TRUE, CORNER_LOOK = 3.0, 6.0
INTAKE_MOST = 4.5
_FINE = 1e-6


@dataclass(frozen=True)
class Check:
    """One verdict.

    group: the slot it stands in. figure: cm, degrees or a count, by kind; of: what a count is out of. tolerance: the
    most (or for girths and openings the least) that is true. brief: a few words for the hem. message: the whole
    sentence with what to do. spots: 'piece.edge' or 'piece.dart' names to light on the board.
    """

    name: str
    group: str
    title: str
    verdict: Verdict
    kind: Measure
    figure: float
    tolerance: float
    brief: Saying
    message: Saying
    spots: tuple[str, ...] = ()
    after: str = ""
    of: int = 0

    def figure_text(self, show: Display) -> str:
        if self.kind == "angle":
            return f"{self.figure:.1f}°"
        if self.kind == "count":
            return f"{self.figure:.0f}"
        return show.signed(self.figure) if self.kind == "signed" else show.length(self.figure)

    def tolerance_text(self, show: Display) -> str:
        if self.kind == "angle":
            return f"{self.tolerance:.0f}°"
        if self.kind == "count":
            return f"{self.tolerance:.0f}"
        return show.full(self.tolerance)


Checker = Callable[[Block], Iterator[Check]]
CHECKERS: list[Checker] = []


def checker(function: Checker) -> Checker:
    """Register a kind of check; they run and stand in the order of registration."""
    CHECKERS.append(function)
    return function


def check_block(block: Block) -> tuple[Check, ...]:
    """Every check that applies to these pieces."""
    return tuple(check for function in CHECKERS for check in function(block))


def _verdict(figure: float, true: float, look: float) -> Verdict:
    return "true" if figure <= true + _FINE else "look" if figure <= look + _FINE else "not"


@checker
def seams(block: Block) -> Iterator[Check]:
    """Chains of edges that are sewn together are equally long, or differ by the ease stated."""
    for seam in block.seams:
        a, b = block.length_of(seam.first), block.length_of(seam.second)
        low, high = seam.ease
        out = max(low - (a - b), (a - b) - high, 0.0)
        verdict = _verdict(out, SEAM_TRUE, SEAM_LOOK)
        names = (seam.first[0].piece, seam.second[0].piece)
        words = say(f"{{0}} {names[0]}, {{1}} {names[1]}", a, b)
        tail = say(
            "They sew together."
            if verdict == "true"
            else f"{{0u}} apart: true the longer {seam.title.lower()} down to the shorter.",
            out,
        )
        yield Check(
            f"seam.{seam.name}", "seams", seam.title, verdict, "length", abs(a - b), SEAM_TRUE, words, words + tail,
            tuple(f"{ref.piece}.{ref.edge}" for ref in (*seam.first, *seam.second)), "apart",
        )  # fmt: skip


@checker
def balance(block: Block) -> Iterator[Check]:
    """Balance lines meet when the seam is walked from its top."""
    for seam in block.seams:
        if len(seam.first) != 1 or len(seam.second) != 1:
            continue
        pieces = [block.piece(seam.first[0].piece), block.piece(seam.second[0].piece)]
        for level in sorted(set(pieces[0].levels) & set(pieces[1].levels) - {"waist"}):
            walked = [
                walk_to_level(p.edge(ref.edge), p.levels[level])
                for p, ref in zip(pieces, (seam.first[0], seam.second[0]), strict=True)
            ]
            if walked[0] is None or walked[1] is None:
                continue
            apart = abs(walked[0] - walked[1])
            words = say(f"{{0}} {pieces[0].name}, {{1}} {pieces[1].name}", *(w or 0.0 for w in walked))
            tail = "The notches meet." if apart <= SEAM_TRUE else "The notches do not meet: move the side point of one piece."
            yield Check(
                f"balance.{level}", "seams", f"{level.capitalize()} notches", _verdict(apart, SEAM_TRUE, 0.4), "length", apart, SEAM_TRUE,
                words, words + say(tail), tuple(f"{p.name}.{seam.first[0].edge}" for p in pieces), "apart",
            )  # fmt: skip


def walk_to_level(edge: Edge, y: float) -> float | None:
    """How far along an edge, from its start, a level is crossed, cm."""
    gone = 0.0
    for part in edge.parts:
        for index, t in part.crossings(Point(0.0, y), Point(1.0, 0.0)):
            return gone + part.split(index, t)[0].length
        gone += part.length
    return None


@checker
def dart_legs(block: Block) -> Iterator[Check]:
    """Both legs of every dart are equally long."""
    darts = [(piece, dart) for piece in block.pieces for dart in piece.darts]
    if not darts:
        return
    worst = max(abs(dart.legs[0] - dart.legs[1]) for _, dart in darts)
    piece, dart = max(darts, key=lambda d: abs(d[1].legs[0] - d[1].legs[1]))
    verdict = _verdict(worst, LEGS_TRUE, LEGS_LOOK)
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
    widest_piece, widest = max(darts, key=lambda d: d[1].intake)
    crossing = [piece.name for piece in block.pieces for a, b in pairwise(piece.darts) if _crossed(a, b)]
    verdict: Verdict = "not" if crossing else _verdict(widest.intake, INTAKE_MOST, INTAKE_MOST + 0.5)
    words = say("widest, {0}".replace("{0}", widest_piece.name))
    if crossing:
        tail = say(f"Two darts of the {crossing[0]} cross: make them shorter or set them further apart.")
    else:
        tail = say("The widest takes {0}, at most {1u}; none cross.", widest.intake, INTAKE_MOST)
    yield Check(
        "darts.intake", "shapes", "Dart intake", verdict, "length", widest.intake, INTAKE_MOST, words, tail,
        (f"{widest_piece.name}.{widest.name}",), "wide",
    )  # fmt: skip


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
        down = (centre.start - centre.end).unit()
        for edge, corner, chord in (
            (before, "hem", before.parts[-1].reverse().place(1.0).point - centre.start),
            (after, "waist", after.parts[0].place(1.0).point - centre.end),
        ):
            off = abs(angle_between(chord, down) - 90)
            count += 1
            if off >= worst:
                worst, where = off, f"{piece.name} {edge.name if edge.name else corner}"
    if not count:
        return
    verdict = _verdict(worst, CORNER_TRUE, CORNER_LOOK)
    tail = (
        "Square at waist and hem."
        if verdict == "true"
        else f"The {where} is not square to the centre line: it would peak or dip when opened out."
    )
    yield Check(
        "corners.square", "shapes", "Square at centre", verdict, "angle", worst, CORNER_TRUE, say(f"{count} corners, CF and CB"), say(tail),
        tuple(f"{p.name}.{p.centre}" for p in block.pieces if p.centre), "off",
    )  # fmt: skip


@checker
def smooth_waist(block: Block) -> Iterator[Check]:
    """With darts shut and side seams sewn the edge runs on without a peak or a dip."""
    bends: list[tuple[float, str, str]] = []
    for piece in block.pieces:
        for edge in piece.edges:
            for dart, (a, b) in zip(edge.darts, pairwise(edge.parts), strict=True):
                inner, outer = dart.inner - dart.point, dart.outer - dart.point
                bend = abs(angle_between(a.arriving, inner) - angle_between(b.leaving, outer))
                bends.append((bend, f"over a {piece.name} dart", f"{piece.name}.{dart.name}"))
    for seam in block.seams:
        angles = [_top_angle(block.piece(ref.piece), ref.edge) for ref in (seam.first[0], seam.second[0])]
        bends.append((abs(sum(angles) - 180), f"at the {seam.title.lower()}", f"{seam.first[0].piece}.{seam.first[0].edge}"))
    if not bends:
        return
    worst, where, spot = max(bends)
    verdict = _verdict(worst, CORNER_TRUE, CORNER_LOOK)
    tail = say(
        "Runs on over darts and side seams."
        if verdict == "true"
        else f"The waist bends {worst:.1f}° {where}: shut it on paper and draw the curve again."
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
        (*edges, spot),
        "bend",
    )


def _top_angle(piece: Piece, edge_name: str) -> float:
    """The inside angle between an edge and the one before it in the ring, degrees."""
    ring = piece.edges
    at = next(i for i, edge in enumerate(ring) if edge.name == edge_name)
    return 180 - angle_between(ring[at - 1].parts[-1].arriving, ring[at].parts[0].leaving)


@checker
def level_hem(block: Block) -> Iterator[Check]:
    """Front, back and sides end at one height, and the hem runs on across the side seams."""
    hems = [(piece, edge) for piece in block.pieces for edge in piece.edges if edge.kind == "hem"]
    if not hems:
        return
    heights = [point.y for _, edge in hems for point in (edge.start, edge.end)]
    off = max(heights) - min(heights)
    bend = 0.0
    for seam in block.seams:
        angles = []
        for ref in (seam.first[-1], seam.second[-1]):
            piece = block.piece(ref.piece)
            ring = piece.edges
            after = ring[(next(i for i, e in enumerate(ring) if e.name == ref.edge) + 1) % len(ring)]
            angles.append(180 - angle_between(piece.edge(ref.edge).parts[-1].arriving, after.parts[0].leaving))
        bend = max(bend, abs(sum(angles) - 180))
    verdict = max(
        _verdict(off, SEAM_TRUE, SEAM_LOOK), _verdict(bend, CORNER_TRUE, CORNER_LOOK), key=("true", "look", "not").index
    )
    tail = (
        "Front, back and sides end level."
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
    bad = [piece.name for piece in block.pieces if not Polygon(piece.outline(0.05)).is_valid]
    count = len(block.pieces)
    tail = (
        f"The outline of {', '.join(bad)} crosses itself: look at its measures again."
        if bad
        else "Closed, and none crosses itself."
    )
    yield Check(
        "outline", "shapes", "Outlines", "not" if bad else "true", "count", count - len(bad), count, say(f"of {count} pieces simple"), say(tail),
        tuple(f"{name}.{edge.name}" for name in bad for edge in block.piece(name).edges), f"of {count}", count,
    )  # fmt: skip


@checker
def girths(block: Block) -> Iterator[Check]:
    """The finished girth at each level: as planned, and with the least ease the cloth wants."""
    for level in block.levels:
        finished = block.girth(level)
        ease, off = finished - level.body, abs(finished - level.body - level.planned)
        words = say("{0} on {1}", finished, level.body)
        verdict: Verdict
        if off > level.slack + _FINE:
            verdict = "not"
            tail = say("Planned was {0s}: the drawing is {1u} out.", level.planned, off)
        elif ease < -level.slack:
            verdict, tail = "not", say("It has no ease and will not close: give at least {0u}.", level.least)
        elif level.planned < level.least - _FINE:
            verdict = "look"
            tail = say(
                "{0s} planned; woven cloth wants {1u} at least. Give more, or keep it for a stay or a close band.",
                level.planned,
                level.least,
            )
        else:
            verdict, tail = "true", say("Planned {0s}, least {1u}.", level.planned, level.least)
        yield Check(
            f"girth.{level.name}", level.name, f"{level.title} on the body", verdict, "signed", ease, level.slack, words, words + tail,
            tuple(f"{piece.name}.{level.edge or '@' + level.name}" for piece in block.pieces), "ease",
        )  # fmt: skip


@checker
def opening(block: Block) -> Iterator[Check]:
    """The body passes the closed part of the garment when it is put on."""
    if block.passes is None or block.opening is None:
        return
    name, body = block.passes
    top = next((level for level in block.levels if level.edge), None)
    if top is None:
        return
    where = {"centre_back": "centre back", "side": "left side", "none": "no opening"}[block.opening.at]
    waist = block.girth(top)
    if waist >= body:
        girth, brief = waist, say("the waist passes the hips")
        verdict: Verdict = "true"
        tail = say("Waist {0} passes hip {1u}: no opening is needed.", waist, body)
    else:
        down = block.opening.length if block.opening.at != "none" else 0.0
        girth = block.girth_below(top.name, down) if down else waist
        verdict = "true" if girth >= body - _FINE else "not"
        brief = say(f"{{0}} {where}, passes {{1}}", down, girth) if down else say("none, passes {0}", girth)
        if verdict == "true":
            tail = say(f"Open {{0}} down the {where}, {{1}} passes {name} {{2u}}.", down, girth, body)
        else:
            tail = say(
                f"{name.capitalize()} {{0}} does not pass {{1u}}: open it further down, or at the {'side' if down == 0 else where}.",
                body,
                girth,
            )
    edges = ("back.centre_back",) if block.opening.at == "centre_back" else ("back.side", "front.side")
    yield Check(
        "opening",
        "movement",
        "Opening for the hips",
        verdict,
        "signed",
        girth - body,
        0.0,
        brief,
        tail,
        edges,
        "to spare",
    )


@checker
def stride(block: Block) -> Iterator[Check]:
    """The hem lets the wearer walk."""
    hems = [(piece, edge) for piece in block.pieces for edge in piece.edges if edge.kind == "hem"]
    if block.stride is None or not hems:
        return
    girth = 2 * sum(edge.length for _, edge in hems)
    spare = girth - block.stride
    verdict: Verdict = "true" if spare >= 0 else "look"
    tail = say("A stride at this length wants {0}, the hem has {1u}.", block.stride, girth)
    if spare < 0:
        tail += say("Leave a vent or a slit, or flare the sides.")
    brief = say("wants {0}", block.stride) if spare >= 0 else say("wants {0} or a vent", block.stride)
    yield Check(
        "stride",
        "movement",
        "Stride at the hem",
        verdict,
        "signed",
        spare,
        0.0,
        brief,
        tail,
        tuple(f"{p.name}.{e.name}" for p, e in hems),
        "",
    )


def girth_of(block: Block, name: str) -> tuple[Level, float]:
    """A level by name and its finished girth, cm."""
    level = next(level for level in block.levels if level.name == name)
    return level, block.girth(level)
