"""Pockets: a patch laid on a piece."""

from __future__ import annotations

from dataclasses import replace

from widehem.core.geometry.curves import Cubic
from widehem.core.geometry.paths import Path
from widehem.core.geometry.points import Point
from widehem.core.pattern.edge import Edge
from widehem.core.pattern.inside import InnerLine
from widehem.core.pattern.piece import Piece
from widehem.core.setting.option import Option
from widehem.core.style.operation import Change, Job, operation
from widehem.core.style.remap import free_name

ROUND = 0.5523  # of a radius: the handles of a quarter circle
TURNED_IN = 2.5  # cm at its mouth
OPTIONS = (
    Option("wide", "Width", "length", 13.0, "of the patch", 4.0, 30.0, 0.5),
    Option("high", "Height", "length", 15.0, "of the patch", 4.0, 35.0, 0.5),
    Option("corner", "Rounded by", "length", 2.0, "its lower corners; 0 is square", 0.0, 6.0, 0.5),
    Option(
        "inwards",
        "From the edge",
        "length",
        4.0,
        "how far its nearer side lies from the place on the edge, level",
        0.0,
        40.0,
        0.5,
    ),
)


@operation(
    "pocket.patch", "pockets", "Patch pocket", "a pocket laid on, its mouth level beside a place on an edge", options=OPTIONS,
    wheres={"beside": "the place beside which its mouth lies"}, names={"pocket": "the pocket"}, phase="derive",
)  # fmt: skip
def patch_pocket(job: Job) -> Change:
    """A patch of its own, and where it lies drawn on its piece."""
    found = job.at["beside"]
    piece = found.piece
    wide, high = job.length("wide"), job.length("high")
    inwards = 1.0 if piece.outward(piece.edge(found.spot.edge).place(found.spot.along).direction).x < 0 else -1.0
    corner = found.point + Point(inwards * job.length("inwards"), 0.0)
    shape = _outline(corner, Point(inwards, 0.0), wide, high, min(job.length("corner"), wide / 2, high))
    name = free_name((p.name for p in job.garment.pieces), job.names.get("pocket", "pocket"))
    edges = (Edge("pocket_mouth", (shape[0],), (), "hem", role="pocket"), Edge("pocket_edge", (shape[1],), role="pocket"))
    pocket = Piece(name, f"{piece.title}, pocket", edges, layer="inside", grain=_grain(corner, inwards, wide, high))
    outline = InnerLine(
        free_name((line.name for line in piece.lines), "pocket_place"), "Place of the pocket", shape[0] + shape[1]
    )
    marked = replace(piece, lines=(*piece.lines, outline))
    garment = job.garment.with_piece(marked)
    return Change((*garment.pieces, pocket), made=(name,))


def _grain(corner: Point, inwards: float, wide: float, high: float) -> tuple[Point, Point]:
    middle = corner + Point(inwards * wide * 0.5, high * 0.2)
    return middle, middle + Point(0.0, high * 0.6)


def _outline(corner: Point, way: Point, wide: float, high: float, radius: float) -> tuple[Path, Path]:
    """The mouth, and the three other sides with rounded lower corners."""
    down = Point(0.0, 1.0)
    far = corner + way * wide
    low_far, low = far + down * high, corner + down * high
    if radius < 0.01:
        return Path.through(corner, far), Path.through(far, low_far, low, corner)
    a, b = low_far - down * radius, low_far - way * radius
    c, d = low + way * radius, low - down * radius
    first = Cubic(a, a + down * (radius * ROUND), b + way * (radius * ROUND), b)
    second = Cubic(c, c - way * (radius * ROUND), d + down * (radius * ROUND), d)
    return Path.through(corner, far), Path.through(far, a) + Path((first,)) + Path.through(b, c) + Path(
        (second,)
    ) + Path.through(d, corner)
