"""A pattern: every piece of a draft with cutting line, marks and words, and the list of what to cut."""

from __future__ import annotations

from collections.abc import Sequence

from widehem.core.design.cautions import cautions
from widehem.core.design.make import Made
from widehem.core.fitting.toile import room_for, takes_room, with_room
from widehem.core.marking.finishes import finishes
from widehem.core.marking.labels import CUT_WORDS, WHOLE, Heading, Labels, cloths_of
from widehem.core.marking.piece import MarkedPiece, marked
from widehem.core.marking.plans import AllowancePlan
from widehem.core.marking.told import sew_at
from widehem.core.marking.wanted import Wanted
from widehem.core.pattern.garment import OPENING_WORDS, Garment
from widehem.core.pattern.piece import Piece
from widehem.core.units import METRIC, Display
from widehem.core.values import record

TURNED_IN = 3.0  # cm of tape beyond the waist


@record(frozen=True)
class CutRow:
    """One row of the cut list."""

    piece: str
    cut: str
    material: str


@record(frozen=True)
class Pattern:
    """All pieces with the plan they were marked by. cautions: what protects whoever wears or sews it, a sentence each; sew_at:
    what the making card tells of its allowances, a sentence each; show: the unit of the figures on it."""

    heading: Heading
    wanted: Wanted
    pieces: tuple[MarkedPiece, ...]
    cut_list: tuple[CutRow, ...]
    notions: tuple[str, ...]
    cautions: tuple[str, ...] = ()
    sew_at: tuple[str, ...] = ()
    show: Display = METRIC

    @property
    def plan(self) -> AllowancePlan:
        """That of the cloth."""
        return self.wanted.plan


def mark_up(made: Made, wanted: AllowancePlan | Wanted, heading: Heading | None = None, show: Display = METRIC) -> Pattern:
    """Turn the pieces of a garment into a pattern, each lying as it lies on the draft.

    show: the unit of the figures written on the pieces.
    """
    head = heading or Heading()
    wanted = wanted if isinstance(wanted, Wanted) else Wanted.by(wanted)
    drill = wanted.drill or str(made.options.get("drill", "inside"))
    garment = wanted.notched(made.garment)
    if wanted.room and takes_room(garment):
        garment = with_room(garment, room_for(made.chart))
    corners = finishes(garment, wanted.corners)
    laid = made.laid if garment is made.garment else tuple(made.table.laid(piece) for piece in garment.pieces)
    knit = made.wear.knit or wanted.plan.use == "jersey"
    whole = len(laid)
    pieces = tuple(
        marked(
            garment, piece, wanted, corners.get(piece.name, {}), drill, Labels(head, wanted, show, number, whole).of(piece), show,
            knit=knit,
        )
        for number, piece in enumerate(laid, 1)
    )  # fmt: skip
    rows = cut_rows([m.piece for m in pieces], wanted.plan.use, show, whole=wanted.whole)
    dangers = tuple(f"{danger.about[:1].upper()}{danger.about[1:]}: {danger.saying.text(show)}" for danger in cautions(made))
    return Pattern(
        head, wanted, pieces, rows, notions_of(made, show), (*head.cautions, *dangers), sew_at(garment, pieces, show), show
    )


def cut_rows(pieces: Sequence[Piece], use: str, show: Display, *, whole: bool = False) -> tuple[CutRow, ...]:
    """The cutting list of these pieces. use: what the outer cloth is called. whole: those on the fold are drawn whole."""
    rows = (CutRow(piece.title, show.words(cloth.cut), cloth.cloth) for piece in pieces for cloth in cloths_of(piece, use))
    return tuple(CutRow(row.piece, row.cut.replace(CUT_WORDS["fold"], WHOLE), row.material) if whole else row for row in rows)


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
