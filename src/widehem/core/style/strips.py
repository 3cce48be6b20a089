"""Straight pieces cut by figures: ribs, cuffs, binding, frills, ties, straps."""

from __future__ import annotations

from fontTools.misc.transform import Transform

from widehem.core.pattern.garment import Seam
from widehem.core.pattern.inside import OUTER, Cloth
from widehem.core.pattern.piece import Piece
from widehem.core.pattern.rims import ends_of
from widehem.core.pattern.roles import plain
from widehem.core.pattern.shaping import strip
from widehem.core.setting.option import Choice, Option
from widehem.core.style.bands import banded
from widehem.core.style.operation import CannotStyle, Change, Job, operation
from widehem.core.style.sewing_on import rim_at
from widehem.core.units import say
from widehem.core.values import replace

KIND = Option(
    "kind", "What it is", "choice", "rib", "how it is cut and sewn",
    choices=(
        Choice("rib", "Rib", "stretched on: shorter than the edge, folded"),
        Choice("cuff", "Cuff", "as long as the edge, folded"),
        Choice("binding", "Binding", "a strip on the bias round the edge"),
        Choice("frill", "Frill", "gathered: longer than the edge, single"),
    ),
)  # fmt: skip
HIGH = Option("high", "Height", "length", 3.0, "finished", 0.5, 60.0, 0.5)
PART = Option("part", "Length, part of the edge", "number", 100.0, "per cent; a rib 85, a frill 150 to 300, binding and cuffs 100",
    40.0, 400.0, 5.0)  # fmt: skip
TITLES = {"rib": "Rib", "cuff": "Cuff", "binding": "Binding", "frill": "Frill"}


@operation(
    "strip.along", "straight pieces", "Strip along an edge", "rib, cuff, binding or frill: its length follows from the edge",
    options=(KIND, HIGH, PART), wheres={"edge": "any place on the edge"}, names={"piece": "the strip"}, phase="derive",
)  # fmt: skip
def along(job: Job) -> Change:
    """A strip for the whole rim that runs through a place, on the fold where that is on the middle of the body."""
    garment, chain = job.garment, rim_at(job, "edge")
    kind, high, part = job.choice("kind"), job.length("high"), job.length("part") / 100
    edge_long = garment.length_of(chain)
    if kind in ("binding", "cuff") and abs(part - 1) > 0.15:
        raise CannotStyle(say(f"A {kind} is as long as its edge: write 85 to 115 per cent."), ("part",))
    if kind == "frill" and part < 1.0:
        raise CannotStyle(say("A frill is longer than its edge: write 150 per cent or more."), ("part",))
    role = garment.edge(chain[0]).role
    name = job.free_piece(f"{kind}_{role}")
    starts, ends = ends_of(garment, chain)
    title = f"{TITLES[kind]}, {plain(role)}"
    made, seams = banded(
        job, name, title, chain, high, 0.0, starts=starts, ends=ends, double=kind in ("rib", "cuff", "binding")
    )
    if abs(part - 1) > 1e-9:
        made, seams = _stretched(made, seams, part, edge_long)
    words = f"{title}: {{0}} for an edge of {{1}}."
    return Change(
        (*garment.pieces, made), (*garment.seams, *seams), said=(say(words, edge_long * part, edge_long),), made=(name,)
    )


def _stretched(piece: Piece, seams: tuple[Seam, ...], part: float, long: float) -> tuple[Piece, tuple[Seam, ...]]:
    """A strip longer or shorter than its edge, and the seam that stretches or gathers it."""
    scaled = Transform(part, 0, 0, 1, 0, 0)
    edges = tuple(replace(e, parts=tuple(p.moved(scaled) for p in e.parts),
        notches=tuple(replace(n, along=n.along * part) for n in e.notches)) for e in piece.edges)  # fmt: skip
    lines = tuple(replace(line, path=line.path.moved(scaled)) for line in piece.lines)
    grain = (piece.grain[0].moved(scaled), piece.grain[1].moved(scaled)) if piece.grain else None
    made = replace(piece, edges=edges, lines=lines, grain=grain)
    over = long * (part - 1)
    first = replace(seams[0], ease=(over, over))
    return made, (first, *seams[1:])


WHAT = Option(
    "what", "What it is", "choice", "tie", "a strip that is not measured by an edge",
    choices=(Choice("tie", "Tie"), Choice("strap", "Strap"), Choice("belt", "Belt"), Choice("loop", "Loop")),
)  # fmt: skip
LONG = Option("long", "Length", "length", 60.0, "finished; a formula of measures follows the body: waist + 20", 2.0, 600.0, 1.0)
WIDE = Option("wide", "Width", "length", 2.0, "finished; it is cut twice as wide", 0.5, 60.0, 0.5)
COUNT = Option("count", "How many", "number", 2.0, "are cut", 1.0, 24.0, 1.0)


@operation(
    "strip.cut", "straight pieces", "Tie, strap or belt", "a straight piece by its figures", options=(WHAT, LONG, WIDE, COUNT),
    names={"piece": "the strip"}, phase="derive",
)  # fmt: skip
def cut(job: Job) -> Change:
    """A strip so long, cut twice as wide to be folded."""
    what, count = job.choice("what"), round(job.length("count"))
    name = job.free_piece(what)
    made = strip(name, what.capitalize(), job.length("long"), job.length("wide") * 2, of=name, layer="inside")
    made = replace(made, cloths=(Cloth(OUTER, str(count) if count > 1 else "1"),))
    return Change((*job.garment.pieces, made), made=(name,))
