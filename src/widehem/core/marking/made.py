"""A pattern: every piece of a draft with cutting line, marks and words, and the list of what to cut."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from widehem.core.design.cautions import cautions
from widehem.core.design.make import Made
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.marking.allowance import cutting_line
from widehem.core.marking.marks import Label, Notch, drill_holes, grain_line, notches, out_to_cut, place_label
from widehem.core.marking.plans import AllowancePlan, amounts_on
from widehem.core.pattern.garment import OPENING_WORDS, Garment
from widehem.core.pattern.inside import OUTER, Cloth
from widehem.core.pattern.piece import Piece
from widehem.core.units import METRIC, Display
from widehem.core.values import record

TURNED_IN = 3.0  # cm of tape beyond the waist


@record(frozen=True)
class Heading:
    """What stands on every label: made-up or real, as the maker wrote it."""

    production: str = ""
    costume: str = ""
    wearer: str = ""
    maker: str = ""
    date: str = ""
    version: str = ""
    cautions: tuple[str, ...] = ()
    accepted: tuple[str, ...] = ()
    house: tuple[str, ...] = ()


@record(frozen=True)
class MarkedPiece:
    """A piece ready for paper. cut: the ring to cut along. tails: stitching lines run out to it at the corners."""

    piece: Piece
    amounts: Mapping[str, float]
    cut: tuple[Point, ...]
    tails: tuple[Path, ...]
    notches: tuple[Notch, ...]
    drills: tuple[Point, ...]
    grain: tuple[Point, Point]
    label: Label

    @property
    def inward(self) -> float:
        """Which way the piece lies from its centre line: 1 to the right, -1 to the left."""
        if not self.piece.middle:
            return 1.0
        x = self.piece.edge(self.piece.middle).start.x
        xs = [p.x for p in self.cut]
        return 1.0 if max(xs) - x > x - min(xs) else -1.0

    @property
    def bounds(self) -> tuple[float, float, float, float]:
        """Left, top, right, bottom of the cutting line, cm."""
        xs, ys = [p.x for p in self.cut], [p.y for p in self.cut]
        return min(xs), min(ys), max(xs), max(ys)


@record(frozen=True)
class CutRow:
    """One row of the cut list."""

    piece: str
    cut: str
    material: str


@record(frozen=True)
class Pattern:
    """All pieces with the plan they were marked by. cautions: what protects whoever wears or sews it, a sentence each; show: the
    unit of the figures on it."""

    heading: Heading
    plan: AllowancePlan
    pieces: tuple[MarkedPiece, ...]
    cut_list: tuple[CutRow, ...]
    notions: tuple[str, ...]
    cautions: tuple[str, ...] = ()
    show: Display = METRIC


def mark_up(made: Made, plan: AllowancePlan, heading: Heading | None = None, show: Display = METRIC) -> Pattern:
    """Turn the pieces of a garment into a pattern, each lying as it lies on the draft.

    show: the unit of the figures written on the pieces.
    """
    head, drill = heading or Heading(), str(made.options.get("drill", "inside"))
    pieces = tuple(
        _mark(made.garment, piece, plan, head, show, (number, len(made.laid)), drill)
        for number, piece in enumerate(made.laid, 1)
    )
    rows = cut_rows([m.piece for m in pieces], plan.use, show)
    dangers = tuple(f"{danger.about[:1].upper()}{danger.about[1:]}: {danger.saying.text(show)}" for danger in cautions(made))
    return Pattern(head, plan, pieces, rows, notions_of(made, show), (*head.cautions, *dangers), show)


def cut_rows(pieces: Sequence[Piece], use: str, show: Display) -> tuple[CutRow, ...]:
    """The cutting list of these pieces. use: what the outer cloth is called."""
    return tuple(CutRow(piece.title, show.words(cloth.cut), cloth.cloth) for piece in pieces for cloth in cloths_of(piece, use))


def cut_words(piece: Piece) -> str:
    """How often it is cut from the outer cloth."""
    return cloths_of(piece, OUTER)[0].cut


CUT_WORDS = {
    "fold": "1 on the fold", "pair": "2, a pair", "left": "1, for the left", "right": "1, for the right", "once": "1",
}  # fmt: skip
LAYER_CLOTH = {"lining": "lining", "interfacing": "interfacing"}


def cloths_of(piece: Piece, use: str) -> tuple[Cloth, ...]:
    """What is cut by a piece. use: what the outer cloth of this pattern is called."""
    if not piece.cloths:
        return (Cloth(LAYER_CLOTH.get(piece.layer, use), CUT_WORDS[piece.stands]),)
    return tuple(replace(cloth, cloth=use) if cloth.cloth == OUTER else cloth for cloth in piece.cloths)


def _mark(
    garment: Garment, piece: Piece, plan: AllowancePlan, head: Heading, show: Display, number: tuple[int, int], drill: str
) -> MarkedPiece:
    """number: which piece it is, of how many. drill: the school of its drill holes."""
    amounts = amounts_on(piece, plan)
    cut = tuple(cutting_line(piece, amounts))
    grain = grain_line(piece)
    lines, short = _words(piece, amounts, plan, head, show, number)
    hip = [(Point(p.x - 100, p.y), Point(p.x + 100, p.y)) for y in piece.levels.values() for p in (Point(0.0, y),) if y > 0]
    label = place_label(piece, lines, [grain, *hip], short)
    marks = notches(garment, piece, amounts, cut)
    return MarkedPiece(piece, amounts, cut, _tails(piece, amounts, cut), marks, drill_holes(piece, drill), grain, label)


def _tails(piece: Piece, amounts: Mapping[str, float], cut: tuple[Point, ...]) -> tuple[Path, ...]:
    """Both stitching lines carried straight on over every corner to the cutting line."""
    tails = []
    ring = piece.edges
    for before, after in zip(ring, [*ring[1:], ring[0]], strict=True):
        corner = before.end
        if "fold" in (before.kind, after.kind) or "hem" in (before.kind, after.kind):
            continue
        if amounts[after.name] > 0:
            tails.append(Path.through(corner, out_to_cut(cut, corner, before.parts[-1].arriving)))
        if amounts[before.name] > 0:
            tails.append(Path.through(corner, out_to_cut(cut, corner, -after.parts[0].leaving)))
    return tuple(tails)


def _words(
    piece: Piece, amounts: Mapping[str, float], plan: AllowancePlan, head: Heading, show: Display, number: tuple[int, int]
) -> tuple[list[str], list[str]]:
    title = f"{piece.title}, {number[0]} of {number[1]}"
    first, *more = cloths_of(piece, plan.use)
    cut = f"cut {show.words(first.cut)}, {first.cloth}" + (f"; also {', '.join(cloth.cloth for cloth in more)}" if more else "")
    lines = [title, cut]
    if head.costume:
        lines.append(head.costume)
    if head.wearer or head.production:
        lines.append(" · ".join(part for part in (head.wearer, head.production) if part))
    used = {show.constant(amounts[e.name]) for e in piece.edges if e.kind == "seam"}
    if plan.code == "none" or not any(amounts.values()):
        lines.append("no allowance")
    else:
        others = [f"{word} {show.constant(amounts[e.name])}" for e in piece.edges for word in (_word(e.kind),) if word]
        lines.append(f"allowance in: seams {', '.join(sorted(used))}; {', '.join(others)} {show.unit}")
    tail = " · ".join(part for part in (head.maker, head.date, head.version) if part)
    if tail:
        lines.append(tail)
    return lines, [title, cut]


def _word(kind: str) -> str:
    return {"hem": "hem", "opening": "opening"}.get(kind, "")


def _once_round(garment: Garment, role: str) -> float:
    """The length of edges round the body, cm; once where what lies above them is sewn to what lies below."""
    above = below = 0.0
    for piece, edge in garment.edges_of(role):
        _, top, _, bottom = piece.bounds
        if edge.start.y - top > bottom - edge.start.y:
            above += piece.weight() * edge.length
        else:
            below += piece.weight() * edge.length
    return max(above, below)


def notions_of(made: Made, show: Display) -> tuple[str, ...]:
    """What else is needed besides cloth."""
    found = []
    garment = made.garment
    if any(edge.kind == "seam" for _, edge in garment.edges_of("waist")):
        tape = _once_round(garment, "waist") + TURNED_IN
        found.append(f"Stay tape for the waist, {show.full(tape)}, with {show.full(TURNED_IN)} to turn in")
    laced = any(girth.gap for girth in made.girths)
    opening = garment.opening()
    if opening is not None and opening.length > 0 and not opening.by and not laced:
        found.append(f"Zip, {show.full(opening.length)}, {OPENING_WORDS[opening.at]}")
        found.append("One hook and eye above the zip")
    return (*found, *(notion.text(show) for notion in made.notions))
